//! A cut list carried out by `cutter`, and what comes off compared with the pieces of the job.

use crate::cutter::{CLOSE, Cutter, turned_outline};
use bofta_core::cloth::{Cloth, Form};
use bofta_core::cutting::{cut_list, describe, opening};
use bofta_core::lay::{ClothLay, Job, JobPiece};
use bofta_core::measure::{Length, Ruler};
use bofta_core::piece::Mirror;
use bofta_core::shape::Point;
use geo::{Area, BooleanOps, BoundingRect, Coord, LineString, MultiPolygon, Polygon, Scale, Translate};
use std::collections::BTreeMap;

/// In inches or centimetres.
pub fn plain(job: &Job, length: Length) -> f64 {
    length.in_units(job.units)
}

fn polygon(job: &Job, corners: &[Point]) -> Polygon<f64> {
    let ring: Vec<Coord<f64>> = corners.iter().map(|p| Coord { x: plain(job, p.x), y: plain(job, p.y) }).collect();
    Polygon::new(LineString::new(ring), vec![])
}

/// Carries out the cut list of one cloth and compares what comes off.
pub fn carry_out(job: &Job, lay: &ClothLay, ruler: Ruler) -> Result<(), String> {
    let cloth = job.cloth(&lay.cloth).expect("a cloth");
    let corners = match &cloth.form {
        Form::Scrap { outline, .. } => {
            let washed: Vec<Point> = outline.corners().into_iter().map(|p| cloth.washed(p)).collect();
            polygon(job, &washed).exterior().coords().take(washed.len()).copied().collect()
        }
        _ => vec![],
    };
    let length = match &cloth.form {
        Form::Roll { length: Some(owned), .. } => owned.shrunk(cloth.shrink.along),
        Form::Sheet { height, .. } => height.shrunk(cloth.shrink.along),
        _ => lay.buy_length.shrunk(cloth.shrink.along).max(lay.needed_length),
    };
    let size = (plain(job, cloth.as_bought_width().shrunk(cloth.shrink.across)), plain(job, length));
    let templates = job.pieces.iter().map(|p| (p.name.clone(), polygon(job, &p.outline.corners()))).collect();
    let unit = job.units.symbol();
    let edges = (plain(job, cloth.selvedge), plain(job, cloth.trim));
    let mut cutter =
        Cutter::new(&opening(job, lay, ruler), size, corners, (unit, plain(job, ruler.step())), templates, edges)?;
    let steps = cut_list(job, std::slice::from_ref(lay), &[], &[]);
    for (n, step) in steps.iter().enumerate() {
        let words = describe(step, job, &[], ruler);
        cutter
            .step(&words.how, &words.then)
            .map_err(|why| format!("step {}: “{}” {:?}: {why}", n + 1, words.how, words.then))?;
    }
    let uncut = cutter.uncut();
    if !uncut.is_empty() && !matches!(cloth.form, Form::Scrap { .. }) {
        return Err(format!("{uncut:?} are never cut up"));
    }
    compare(job, cloth, lay, &cutter)
}

/// Whether every piece of the lay was obtained once, at its size and the way it may lie.
pub fn compare(job: &Job, cloth: &Cloth, lay: &ClothLay, cutter: &Cutter) -> Result<(), String> {
    let mut wanted: BTreeMap<String, (&JobPiece, u32)> = BTreeMap::new();
    for p in &lay.placements {
        let piece = job.piece(&p.piece).expect("a piece");
        // The layer below yields a second copy where somebody wants one; which, the words say.
        for copy in p.copy..p.copy + piece.yielded_by(p, cloth) {
            let label =
                if piece.count > 1 { format!("{} {copy} of {}", piece.name, piece.count) } else { piece.name.clone() };
            wanted.insert(label, (piece, copy));
        }
    }
    for got in &cutter.obtained {
        let (piece, copy) = wanted.remove(&got.label).ok_or(format!("{} is obtained, and is not wanted", got.label))?;
        let whole = if got.on_fold {
            got.cloth.union(&got.cloth.scale_around_point(-1.0, 1.0, Coord { x: 0.0, y: 0.0 }))
        } else {
            got.cloth.clone()
        };
        let outline = polygon(job, &piece.outline.corners());
        let faces: &[bool] = match piece.mirror {
            Mirror::No => &[false],
            Mirror::Pairs if copy % 2 == 0 => &[true],
            Mirror::Pairs => &[false],
            Mirror::Free => &[false, true],
        };
        // A twin of the layer below is a mirror image: what was cut above it may be either.
        let faces = if cloth.layers == 2 { &[false, true] } else { faces };
        // Which turns may be is checked by `verify`, which knows print and grain.
        let turns: &[u32] = &[0, 45, 90, 135, 180, 225, 270, 315];
        let fits = faces
            .iter()
            .any(|&face| turns.iter().any(|&turn| is_same(&whole, &turned_outline(&outline, f64::from(turn), face))));
        if !fits {
            return Err(format!(
                "{} is not its shape: {:?}, {} of area",
                got.label,
                whole.bounding_rect(),
                whole.unsigned_area()
            ));
        }
    }
    if wanted.is_empty() { Ok(()) } else { Err(format!("never obtained: {:?}", wanted.keys())) }
}

fn is_same(cloth: &MultiPolygon<f64>, outline: &MultiPolygon<f64>) -> bool {
    let (Some(a), Some(b)) = (cloth.bounding_rect(), outline.bounding_rect()) else { return false };
    let close = |a: f64, b: f64| (a - b).abs() < 2.0 * CLOSE;
    if !close(a.width(), b.width()) || !close(a.height(), b.height()) {
        return false;
    }
    let moved = outline.translate(a.min().x - b.min().x, a.min().y - b.min().y);
    let around = a.width() + a.height();
    cloth.difference(&moved).unsigned_area() < around * CLOSE * 2.0
        && moved.difference(cloth).unsigned_area() < around * CLOSE * 2.0
}

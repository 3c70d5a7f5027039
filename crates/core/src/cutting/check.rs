//! The cuts and offcuts that a lay file states, looked at by code that knows nothing of how they were made: what a cut runs
//! through, what it frees, and what is left.

use crate::cloth::{Cloth, Form};
use crate::lay::{ClothLay, Job, as_it_lies};
use crate::measure::Length;
use crate::shape::Point;
use geo::algorithm::{Area, BooleanOps, BoundingRect, Contains};
use geo::line_measures::{Distance, Euclidean};
use geo::{Coord, Line, LineString, MultiPolygon, Polygon};

/// A cut as a lay file states it.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct StatedCut {
    /// It goes round the outlines of what it frees, within the rectangle of `line`.
    pub outline: bool,
    /// From where to where, on the cloth as it lies; x, y, x, y.
    pub line: [Length; 4],
    /// The copies it frees: `piece copy`.
    pub frees: Vec<String>,
}

/// How far a line may be beside an edge and still be that edge: 1/64 in, the finest a cut beside a shaped piece is read to.
const NEAR: f64 = Length::INCH.0 as f64 / 64.0;

/// A piece on the cloth, and the copies that come off with it.
struct Lying {
    copies: Vec<String>,
    outline: Polygon<f64>,
    freed: bool,
}

/// What is wrong with `cuts` and with the offcuts of `on`, each as a sentence without its stop; empty when every piece comes
/// off whole, each once, and nothing that is left is cut through or lies over anything else.
pub fn cut_faults(job: &Job, on: &ClothLay, cuts: &[StatedCut]) -> Vec<String> {
    let Some(cloth) = job.cloth(&on.cloth) else { return vec![] };
    let name = &cloth.name;
    let mut pieces: Vec<Lying> = on
        .placements
        .iter()
        .filter_map(|p| {
            let piece = job.piece(&p.piece)?;
            let copies = (0..piece.yielded_by(p, cloth)).map(|n| format!("{} {}", p.piece, p.copy + n)).collect();
            let mut corners = as_it_lies(&piece.outline, p);
            if p.on_fold {
                corners.iter_mut().for_each(|c| c.x = c.x.max(Length::ZERO));
            }
            Some(Lying { copies, outline: polygon(&corners), freed: false })
        })
        .collect();
    let mut faults = Vec::new();
    let mut lines: Vec<Line<f64>> = edges_of_the_cloth(cloth, on);
    for (n, cut) in cuts.iter().enumerate() {
        let at = format!("{name}, cut {}", n + 1);
        let line = line_of(cut);
        if !cut.outline {
            let through = pieces.iter().filter(|p| !p.freed && runs_through(&line, &p.outline));
            faults.extend(through.map(|p| format!("{at} runs through {}", p.copies.join(" and "))));
            lines.push(line);
        }
        for label in &cut.frees {
            let already = pieces.iter().any(|p| p.freed && p.copies.contains(label));
            let Some(piece) = pieces.iter_mut().find(|p| p.copies.contains(label)) else {
                faults.push(format!("{at} frees {label}, which is not there"));
                continue;
            };
            // The twin of a folded cloth comes off with the same cut.
            let twin = piece.copies.iter().any(|c| c != label && cut.frees.contains(c));
            if already && !twin {
                faults.push(format!("{at} frees {label}, which is off already"));
            }
            if !cut.outline && !piece.freed && !is_cut_round(&piece.outline, &lines) {
                faults.push(format!("{at} frees {label}, which still hangs on the cloth"));
            }
            if cut.outline {
                // What was cut out leaves its edge to what lies beside it.
                lines.extend(piece.outline.exterior().lines());
            }
            piece.freed = true;
        }
    }
    let left = pieces.iter().filter(|p| !p.freed).flat_map(|p| &p.copies);
    faults.extend(left.map(|label| format!("{name}: no cut frees {label}")));
    faults.extend(offcut_faults(on, cuts, cloth));
    faults
}

/// What is wrong with what is left.
fn offcut_faults(on: &ClothLay, cuts: &[StatedCut], cloth: &Cloth) -> Vec<String> {
    let offcuts: Vec<Polygon<f64>> = on.offcuts.iter().map(|o| polygon(&o.corners())).collect();
    let mut faults = Vec::new();
    let name = &cloth.name;
    let room = around(cloth, on);
    for (n, one) in offcuts.iter().enumerate() {
        let slack = NEAR * perimeter(one);
        if one.difference(&room).unsigned_area() > slack {
            faults.push(format!("{name}: offcut {} lies off the cloth", n + 1));
        }
        for (m, other) in offcuts.iter().enumerate().skip(n + 1) {
            if one.intersection(other).unsigned_area() > slack {
                faults.push(format!("{name}: offcuts {} and {} lie over each other", n + 1, m + 1));
            }
        }
        let through = cuts.iter().enumerate().filter(|(_, c)| !c.outline && runs_through(&line_of(c), one));
        faults.extend(through.map(|(c, _)| format!("{name}, cut {} runs through offcut {}", c + 1, n + 1)));
    }
    faults
}

fn line_of(cut: &StatedCut) -> Line<f64> {
    let [x1, y1, x2, y2] = cut.line.map(|l| l.0 as f64);
    Line::new(Coord { x: x1, y: y1 }, Coord { x: x2, y: y2 })
}

fn polygon(corners: &[Point]) -> Polygon<f64> {
    Polygon::new(LineString::from(corners.iter().map(|p| (p.x.0 as f64, p.y.0 as f64)).collect::<Vec<_>>()), vec![])
}

fn perimeter(polygon: &Polygon<f64>) -> f64 {
    polygon.exterior().lines().map(|l| (l.end.x - l.start.x).hypot(l.end.y - l.start.y)).sum()
}

/// The cloth as it lies: its rectangle, or the outline of a scrap as washed.
fn around(cloth: &Cloth, on: &ClothLay) -> MultiPolygon<f64> {
    if let Form::Scrap { outline, .. } = &cloth.form {
        let washed: Vec<Point> = outline.corners().into_iter().map(|p| cloth.washed(p)).collect();
        return MultiPolygon::from(polygon(&washed));
    }
    let (width, length) = (cloth.washed_width(), on.lies(cloth));
    let corners = [(0, 0), (width.0, 0), (width.0, length.0), (0, length.0)];
    MultiPolygon::from(polygon(&corners.map(|(x, y)| Point::new(Length(x), Length(y)))))
}

fn edges_of_the_cloth(cloth: &Cloth, on: &ClothLay) -> Vec<Line<f64>> {
    around(cloth, on).iter().flat_map(|p| p.exterior().lines().collect::<Vec<_>>()).collect()
}

/// Whether a stretch of `line` lies within `shape`, further from its edges than a cut may be off.
fn runs_through(line: &Line<f64>, shape: &Polygon<f64>) -> bool {
    const SAMPLES: u32 = 400;
    let edge = shape.exterior();
    // Of thousands of pieces few lie where a cut runs.
    let near = shape.bounding_rect().is_some_and(|around| {
        let within = |a: f64, b: f64, low: f64, high: f64| a.max(b) > low && a.min(b) < high;
        let (low, high) = (around.min(), around.max());
        within(line.start.x, line.end.x, low.x, high.x) && within(line.start.y, line.end.y, low.y, high.y)
    });
    if !near {
        return false;
    }
    let length = (line.end.x - line.start.x).hypot(line.end.y - line.start.y);
    // At the middles of the stretches between all its crossings with the outline, and at even steps.
    let mut stops: Vec<f64> = (0..=SAMPLES).map(|n| f64::from(n) / f64::from(SAMPLES)).collect();
    stops.extend(edge.lines().filter_map(|side| crossing(line, &side)));
    stops.sort_by(f64::total_cmp);
    let at = |t: f64| Coord {
        x: line.start.x + t * (line.end.x - line.start.x),
        y: line.start.y + t * (line.end.y - line.start.y),
    };
    length > NEAR
        && stops.windows(2).map(|two| at((two[0] + two[1]) / 2.0)).any(|point| {
            let point = geo::Point::from(point);
            shape.contains(&point) && Euclidean.distance(&point, edge) > NEAR
        })
}

/// How far along `line` it crosses `side`.
fn crossing(line: &Line<f64>, side: &Line<f64>) -> Option<f64> {
    let (r, s) = (line.end - line.start, side.end - side.start);
    let cross = r.x * s.y - r.y * s.x;
    let to = side.start - line.start;
    let t = (to.x * s.y - to.y * s.x) / cross;
    (cross.abs() > 1e-9 && (0.0..=1.0).contains(&t)).then_some(t)
}

/// Whether every side of `shape` is covered by `lines`.
fn is_cut_round(shape: &Polygon<f64>, lines: &[Line<f64>]) -> bool {
    shape.exterior().lines().all(|side| {
        let along = side.end - side.start;
        let length = along.x.hypot(along.y);
        if length <= NEAR {
            return true;
        }
        let unit = Coord { x: along.x / length, y: along.y / length };
        // Where a point lies along the side, and how far beside it.
        let place = |p: Coord<f64>| {
            let to = p - side.start;
            (to.x * unit.x + to.y * unit.y, (to.x * unit.y - to.y * unit.x).abs())
        };
        let mut covered: Vec<(f64, f64)> = lines
            .iter()
            .filter_map(|line| {
                let ((a, beside), (b, other)) = (place(line.start), place(line.end));
                (beside <= NEAR && other <= NEAR).then(|| (a.min(b).max(0.0), a.max(b).min(length)))
            })
            .filter(|(from, to)| from < to)
            .collect();
        covered.sort_by(|a, b| a.0.total_cmp(&b.0));
        let mut reach = 0.0;
        for (from, to) in covered {
            if from > reach + NEAR {
                return false;
            }
            reach = f64::max(reach, to);
        }
        reach >= length - NEAR
    })
}

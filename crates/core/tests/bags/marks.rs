//! Marks lie on the piece: never in a corner that is cut out, on lines of the ruler, and a gap says how long it is. For
//! random bags of every family, in both systems.
#![allow(missing_docs)]

use crate::seams::any_bag;
use bofta_core::bag::Family;
use bofta_core::lay::Random;
use bofta_core::measure::{Length, Ruler, System};
use bofta_core::piece::{From, Mark, Piece};
use std::collections::BTreeSet;

/// Whether a point lies in the outline or on its edge, by counting how often a ray crosses it.
fn holds(corners: &[(f64, f64)], (x, y): (f64, f64)) -> bool {
    let n = corners.len();
    let mut inside = false;
    for i in 0..n {
        let ((ax, ay), (bx, by)) = (corners[i], corners[(i + 1) % n]);
        let (dx, dy) = (bx - ax, by - ay);
        let along = ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy).max(1e-9);
        let (nx, ny) = (ax + dx * along.clamp(0.0, 1.0), ay + dy * along.clamp(0.0, 1.0));
        if (x - nx).hypot(y - ny) < 1.0 {
            return true;
        }
        if (ay > y) != (by > y) && x < (bx - ax) * (y - ay) / (by - ay) + ax {
            inside = !inside;
        }
    }
    inside
}

/// The places a mark says, as far as it says them: across, up.
fn places(mark: &Mark, (width, height): (f64, f64)) -> (Vec<f64>, Vec<f64>) {
    let (mut across, mut up) = (vec![], vec![]);
    for (distance, from) in std::iter::once((mark.distance, mark.from)).chain(mark.and) {
        let d = distance.0 as f64;
        match from {
            From::TopEdge => up.push(height - d),
            From::BaseEdge => up.push(d),
            From::LeftEdge => across.push(d),
            From::SideEdges => across.extend([d, width - d]),
            From::Middle => across.extend([width / 2.0 - d, width / 2.0 + d]),
        }
    }
    (across, up)
}

fn fault(piece: &Piece, mark: &Mark, ruler: Ruler) -> Option<String> {
    let (width, height) = (piece.size().0.0 as f64, piece.size().1.0 as f64);
    let corners: Vec<(f64, f64)> = piece.outline().corners().iter().map(|p| (p.x.0 as f64, p.y.0 as f64)).collect();
    let (across, up) = places(mark, (width, height));
    // A place that is said by one distance alone is a line, and lies somewhere on the piece.
    let somewhere = |whole: f64| (0..=40).map(move |n| whole * f64::from(n) / 40.0).collect::<Vec<f64>>();
    let said = mark.describe(ruler, piece.size());
    for x in &(if across.is_empty() { vec![f64::NAN] } else { across }) {
        for y in &(if up.is_empty() { vec![f64::NAN] } else { up.clone() }) {
            let on = match (x.is_nan(), y.is_nan()) {
                (false, false) => holds(&corners, (*x, *y)),
                (true, false) => {
                    // On a side, where that is where the seam is: a gap is left in it.
                    let at_a_side = mark.name.contains("side seam");
                    if at_a_side {
                        on_a_side(&corners, *y)
                    } else {
                        somewhere(width).iter().any(|x| holds(&corners, (*x, *y)))
                    }
                }
                (false, true) => somewhere(height).iter().any(|y| holds(&corners, (*x, *y))),
                (true, true) => true,
            };
            if !on {
                return Some(format!("{}: {said} lies beside it", piece.id));
            }
        }
    }
    let on_the_ruler = |l: Length| ruler.show(l).exact;
    let shown = std::iter::once(mark.distance).chain(mark.and.map(|a| a.0)).all(on_the_ruler);
    if !shown && !mark.share && !mark.boxes {
        return Some(format!("{}: {said} is on no line of the ruler", piece.id));
    }
    let gap = mark.name.contains("gap");
    (gap && !mark.name.contains(" long")).then(|| format!("{}: {said} does not say how long it is", piece.id))
}

/// Whether the outline runs up along its left edge at this height.
fn on_a_side(corners: &[(f64, f64)], y: f64) -> bool {
    let n = corners.len();
    let left = corners.iter().map(|c| c.0).fold(f64::MAX, f64::min);
    let right = corners.iter().map(|c| c.0).fold(f64::MIN, f64::max);
    let near = |x: f64| x - left < (right - left) * 0.45;
    (0..n).any(|i| {
        let (a, b) = (corners[i], corners[(i + 1) % n]);
        // Of a panel with four corners every edge that rises is a side, however slanting.
        let upright = (b.1 - a.1).abs() > (b.0 - a.0).abs() || (n == 4 && a.1 != b.1);
        // Not the side of a notch: its corner is the outermost of the outline there.
        let outermost = !holds(corners, ((a.0 + b.0) / 2.0 - 4_000.0, (a.1 + b.1) / 2.0)) || a.0.min(b.0) - left < 2.0;
        upright && (n == 4 || near(a.0) && near(b.0)) && outermost && (a.1.min(b.1)..=a.1.max(b.1)).contains(&y)
    })
}

#[test]
fn every_mark_lies_on_its_piece() {
    let cases = std::env::var("BOFTA_SEAMS").ok().and_then(|n| n.parse().ok()).unwrap_or(4_000);
    let mut random = Random::new(27);
    let (mut faults, mut marks, mut seen) = (Vec::new(), 0, BTreeSet::new());
    for n in 0..cases {
        let family = Family::ALL[n % Family::ALL.len()];
        let system = if n % 2 == 0 { System::Inches } else { System::Centimetres };
        let ruler = Ruler::default_for(system);
        let bag = any_bag(family, system, &mut random);
        let Ok(draft) = bag.draft(ruler) else { continue };
        for piece in &draft.pieces {
            for mark in &piece.marks {
                marks += 1;
                // One of each kind is enough to see.
                let kind = (
                    format!("{family:?}"),
                    piece.id.to_string(),
                    mark.name.split(',').next().unwrap_or_default().to_owned(),
                );
                if let Some(why) = fault(piece, mark, ruler).filter(|_| seen.insert(kind)) {
                    faults.push(format!("{family:?}: {why}; {:?} {:?}", piece.size(), piece.figure));
                }
            }
        }
    }
    assert!(marks > cases, "{marks} marks");
    assert!(faults.is_empty(), "{} faults:\n{}", faults.len(), faults[..faults.len().min(60)].join("\n"));
}

//! Checks a lay against its job by code that shares nothing with the search: outlines are rebuilt from the job and
//! compared with the boolean operations of the `geo` crate.

use super::answer::{ClothLay, Lay, Placement};
use super::job::Job;
use super::turns::allowed_turns;
use crate::cloth::Cloth;
use crate::measure::{Length, Ruler};
use crate::piece::Mirror;
use crate::shape::Point;
use geo::{Area as _, BooleanOps, Distance, Euclidean, LineString, Polygon};
use std::collections::BTreeMap;
use std::fmt;

/// Something wrong with a lay.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Fault {
    /// Two pieces share cloth, or lie closer than the gap.
    Overlap {
        /// The cloth.
        cloth: String,
        /// One piece.
        first: String,
        /// The other.
        second: String,
    },
    /// A piece leaves the usable cloth.
    Outside {
        /// The cloth.
        cloth: String,
        /// The piece.
        piece: String,
        /// Over which edge.
        edge: &'static str,
    },
    /// A turn the grain and print rules do not allow.
    Turn {
        /// The piece.
        piece: String,
        /// In degrees.
        turn: u16,
    },
    /// A copy is flipped that should not be, or the reverse.
    Mirror {
        /// The piece.
        piece: String,
    },
    /// A cloth the piece may not come from, or one the job does not have.
    Cloth {
        /// The piece.
        piece: String,
        /// The cloth.
        cloth: String,
    },
    /// A piece the job does not have.
    Unknown {
        /// The piece.
        piece: String,
    },
    /// Too many or too few copies.
    Count {
        /// The piece.
        piece: String,
        /// Copies laid or said to be unplaced.
        found: u32,
        /// Copies asked for.
        wanted: u32,
    },
    /// A figure of the lay is not what its placements give.
    Figure {
        /// Which.
        name: &'static str,
        /// Of which cloth, or of the lay.
        of: String,
        /// As stated.
        stated: String,
        /// As it should be.
        should: String,
    },
}

impl fmt::Display for Fault {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Overlap { cloth, first, second } => write!(f, "{first} and {second} overlap on {cloth}"),
            Self::Outside { cloth, piece, edge } => write!(f, "{piece} lies over the {edge} of {cloth}"),
            Self::Turn { piece, turn } => {
                write!(f, "{piece} is turned by {turn}°, which its grain and print do not allow")
            }
            Self::Mirror { piece } => write!(f, "{piece} lies on the wrong face"),
            Self::Cloth { piece, cloth } => write!(f, "{piece} may not come from {cloth}"),
            Self::Unknown { piece } => write!(f, "the job has no piece {piece}"),
            Self::Count { piece, found, wanted } => write!(f, "{piece}: {found} copies, {wanted} wanted"),
            Self::Figure { name, of, stated, should } => write!(f, "{name} of {of} is {stated}, should be {should}"),
        }
    }
}

/// All that is wrong with `lay` as an answer to `job`; empty when it holds.
pub fn verify(job: &Job, lay: &Lay) -> Vec<Fault> {
    let mut faults = Vec::new();
    let mut counts: BTreeMap<&str, u32> = BTreeMap::new();
    for unplaced in &lay.unplaced {
        *counts.entry(&unplaced.piece).or_default() += unplaced.count;
    }
    let mut cost = 0;
    for cloth_lay in &lay.cloths {
        for placement in &cloth_lay.placements {
            *counts.entry(&placement.piece).or_default() += 1;
        }
        match job.cloth(&cloth_lay.cloth) {
            Some(cloth) => {
                cost += cloth.cost(cloth_lay.buy_length).0;
                check_cloth(job, cloth, cloth_lay, &mut faults);
            }
            None => faults.extend(
                cloth_lay.placements.iter().map(|p| Fault::Cloth { piece: label(p), cloth: cloth_lay.cloth.clone() }),
            ),
        }
    }
    for piece in &job.pieces {
        let found = counts.remove(piece.id.as_str()).unwrap_or(0);
        if found != piece.count {
            faults.push(Fault::Count { piece: piece.id.clone(), found, wanted: piece.count });
        }
    }
    faults.extend(counts.into_keys().map(|piece| Fault::Unknown { piece: piece.to_owned() }));
    if cost != lay.cost.0 {
        faults.push(Fault::Figure {
            name: "cost",
            of: "the lay".into(),
            stated: lay.cost.show(),
            should: crate::cloth::Money(cost).show(),
        });
    }
    faults
}

struct Shape {
    label: String,
    corners: Vec<Point>,
    polygon: Polygon<f64>,
}

fn check_cloth(job: &Job, cloth: &Cloth, lay: &ClothLay, faults: &mut Vec<Fault>) {
    let mut shapes: Vec<Shape> = Vec::new();
    for placement in &lay.placements {
        let Some(piece) = job.piece(&placement.piece) else { continue }; // counted as unknown already
        if !piece.cloths.contains(&cloth.id) {
            faults.push(Fault::Cloth { piece: label(placement), cloth: cloth.id.clone() });
        }
        if !allowed_turns(piece.grain, piece.print, cloth).turns.contains(&placement.turn) {
            faults.push(Fault::Turn { piece: label(placement), turn: placement.turn.degrees() });
        }
        let flipped_rightly = match piece.mirror {
            Mirror::No => !placement.mirrored,
            Mirror::Pairs => placement.mirrored == placement.copy.is_multiple_of(2),
            Mirror::Free => true,
        };
        if !flipped_rightly {
            faults.push(Fault::Mirror { piece: label(placement) });
        }
        let corners: Vec<Point> = piece
            .outline
            .placed(placement.turn, placement.mirrored)
            .into_iter()
            .map(|p| Point::new(p.x + placement.x, p.y + placement.y))
            .collect();
        let ring: Vec<(f64, f64)> = corners.iter().map(|p| (p.x.0 as f64, p.y.0 as f64)).collect();
        shapes.push(Shape { label: label(placement), polygon: Polygon::new(LineString::from(ring), vec![]), corners });
    }
    check_edges(cloth, lay, &shapes, faults);
    check_overlaps(job.rules.gap, cloth, &shapes, faults);
    check_figures(job, cloth, lay, &shapes, faults);
}

fn check_edges(cloth: &Cloth, lay: &ClothLay, shapes: &[Shape], faults: &mut Vec<Fault>) {
    let right = cloth.washed_width() - cloth.selvedge;
    // As far as the lay says it goes, and never past the cloth that is there.
    let end = cloth.usable_length().map(|usable| usable + cloth.trim);
    let top = lay.needed_length - cloth.trim;
    for shape in shapes {
        let mut over = |is: bool, edge| {
            if is {
                faults.push(Fault::Outside { cloth: cloth.id.clone(), piece: shape.label.clone(), edge });
            }
        };
        over(shape.corners.iter().any(|p| p.x < cloth.selvedge), "left selvedge");
        over(shape.corners.iter().any(|p| p.x > right), "right selvedge");
        over(shape.corners.iter().any(|p| p.y < cloth.trim), "cut end");
        over(shape.corners.iter().any(|p| p.y > top), "needed length");
        over(end.is_some_and(|end| shape.corners.iter().any(|p| p.y > end)), "end");
    }
}

fn check_overlaps(gap: Length, cloth: &Cloth, shapes: &[Shape], faults: &mut Vec<Fault>) {
    let boxes: Vec<[Length; 4]> = shapes.iter().map(|s| bounds(&s.corners)).collect();
    // Sorted by lower edge, so that only neighbours along the cloth are compared.
    let mut order: Vec<usize> = (0..shapes.len()).collect();
    order.sort_by_key(|&i| boxes[i][1]);
    for (n, &i) in order.iter().enumerate() {
        for &j in order[n + 1..].iter().take_while(|&&j| boxes[j][1] < boxes[i][3] + gap) {
            let apart = boxes[i][2] + gap <= boxes[j][0] || boxes[j][2] + gap <= boxes[i][0];
            if !apart && (overlap(&shapes[i], &shapes[j]) || too_close(&shapes[i], &shapes[j], gap)) {
                faults.push(Fault::Overlap {
                    cloth: cloth.id.clone(),
                    first: shapes[i].label.clone(),
                    second: shapes[j].label.clone(),
                });
            }
        }
    }
}

/// The boolean operations snap to a grid of their own, so a sliver thinner than two units is no overlap.
fn overlap(a: &Shape, b: &Shape) -> bool {
    let shared = a.polygon.intersection(&b.polygon);
    let [left, low, right, high] = bounds(&a.corners);
    let around = ((right - left) + (high - low)).0 as f64 * 2.0;
    shared.unsigned_area() > around * 2.0
}

fn too_close(a: &Shape, b: &Shape, gap: Length) -> bool {
    gap > Length::ZERO && Euclidean.distance(&a.polygon, &b.polygon) + 2.0 < gap.0 as f64
}

fn check_figures(job: &Job, cloth: &Cloth, lay: &ClothLay, shapes: &[Shape], faults: &mut Vec<Fault>) {
    let ruler = Ruler::usual(job.units);
    let highest = shapes.iter().flat_map(|s| s.corners.iter().map(|p| p.y)).max().unwrap_or_default();
    let should = if shapes.is_empty() { Length::ZERO } else { highest + cloth.trim };
    let mut compare = |name, stated: Length, should: Length| {
        if stated != should {
            faults.push(Fault::Figure {
                name,
                of: cloth.id.clone(),
                stated: ruler.show(stated).text,
                should: ruler.show(should).text,
            });
        }
    };
    compare("needed_length", lay.needed_length, should);
    compare("buy_length", lay.buy_length, cloth.buy_length(should));
    // A bound that a lay undercuts is no bound.
    if lay.bound > lay.buy_length {
        faults.push(Fault::Figure {
            name: "bound",
            of: cloth.id.clone(),
            stated: ruler.show(lay.bound).text,
            should: format!("at most {}", ruler.show(lay.buy_length).text),
        });
    }
    for o in &lay.offcuts {
        let rect = geo::Rect::new((o.x.0 as f64, o.y.0 as f64), ((o.x + o.width).0 as f64, (o.y + o.height).0 as f64));
        let corners = vec![Point::new(o.x, o.y), Point::new(o.x + o.width, o.y + o.height)];
        let offcut = Shape { label: "an offcut".into(), polygon: rect.to_polygon(), corners };
        for shape in shapes.iter().filter(|s| overlap(&offcut, s)) {
            faults.push(Fault::Overlap {
                cloth: cloth.id.clone(),
                first: offcut.label.clone(),
                second: shape.label.clone(),
            });
        }
    }
}

fn bounds(corners: &[Point]) -> [Length; 4] {
    let xs = || corners.iter().map(|p| p.x);
    let ys = || corners.iter().map(|p| p.y);
    [
        xs().min().unwrap_or_default(),
        ys().min().unwrap_or_default(),
        xs().max().unwrap_or_default(),
        ys().max().unwrap_or_default(),
    ]
}

fn label(placement: &Placement) -> String {
    format!("{} {}", placement.piece, placement.copy)
}

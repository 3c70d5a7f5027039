//! Checks a lay against its job by code that shares nothing with the search: outlines are rebuilt from the job and
//! compared with the boolean operations of the `geo` crate.

use super::answer::{ClothLay, Lay, Placement};
use super::job::{Cuts, Job, JobPiece};
use super::proof::{certificate_fault, sheets_fault};
use super::turns::allowed_turns;
use crate::FieldProblem;
use crate::cloth::{Cloth, Form};
use crate::measure::{Length, Ruler};
use crate::piece::Mirror;
use crate::shape::{Outline, Point};
use geo::algorithm::line_measures::Length as _;
use geo::{
    Area as _, BooleanOps, BoundingRect as _, Distance, Euclidean, LineString, MultiPolygon, Polygon, Scale as _,
};
use std::collections::{BTreeMap, BTreeSet};
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
    /// A motif of the print does not fall where it should on the piece.
    Print {
        /// The piece.
        piece: String,
        /// The cloth.
        cloth: String,
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
    /// A copy lies twice, or has a number the piece does not have.
    Copy {
        /// The piece.
        piece: String,
        /// The copy.
        copy: u32,
    },
    /// A pinned placement is not in the lay.
    Pin {
        /// The piece.
        piece: String,
    },
    /// The pieces do not come apart by cuts from edge to edge, and the rules ask for that.
    Ragged {
        /// The cloth.
        cloth: String,
    },
    /// Too many or too few copies.
    Count {
        /// The piece.
        piece: String,
        /// Copies laid or said to be unplaced.
        found: u64,
        /// Copies asked for.
        wanted: u64,
    },
    /// What is said to be the least is not shown to be.
    Proof {
        /// Of which cloth, or of the lay.
        of: String,
        /// What is wrong with it.
        why: String,
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
            Self::Print { piece, cloth } => write!(f, "the print of {cloth} does not fall right on {piece}"),
            Self::Cloth { piece, cloth } => write!(f, "{piece} may not come from {cloth}"),
            Self::Unknown { piece } => write!(f, "the job has no piece {piece}"),
            Self::Copy { piece, copy } => write!(f, "copy {copy} of {piece} lies twice, or there is no such copy"),
            Self::Pin { piece } => write!(f, "{piece} does not lie where it is pinned"),
            Self::Ragged { cloth } => write!(f, "{cloth} does not come apart by cuts from edge to edge"),
            Self::Count { piece, found, wanted } => write!(f, "{piece}: {found} copies, {wanted} wanted"),
            Self::Proof { of, why } => write!(f, "the least of {of} is not shown: {why}"),
            Self::Figure { name, of, stated, should } => write!(f, "{name} of {of} is {stated}, should be {should}"),
        }
    }
}

/// All that is wrong with `lay` as an answer to `job`; empty when it holds.
pub fn verify(job: &Job, lay: &Lay) -> Vec<Fault> {
    let mut faults = Vec::new();
    let mut counts: BTreeMap<&str, u64> = BTreeMap::new();
    for unplaced in &lay.unplaced {
        *counts.entry(&unplaced.piece).or_default() += u64::from(unplaced.count);
    }
    let pieces = job.pieces_by_id();
    let mut cost = 0;
    let mut copies: BTreeSet<(&str, u32)> = BTreeSet::new();
    let mut bins: BTreeSet<(&str, u32)> = BTreeSet::new();
    for cloth_lay in &lay.cloths {
        let cloth = job.cloth(&cloth_lay.cloth);
        for placement in &cloth_lay.placements {
            let piece = pieces.get(placement.piece.as_str()).copied();
            let yields = cloth.zip(piece).map_or(1, |(cloth, piece)| piece.yielded_by(placement, cloth));
            *counts.entry(&placement.piece).or_default() += u64::from(yields);
            for copy in (0..yields).map(|n| placement.copy.saturating_add(n)) {
                let known = piece.is_none_or(|p| (1..=p.count).contains(&copy));
                if !known || !copies.insert((&placement.piece, copy)) {
                    faults.push(Fault::Copy { piece: placement.piece.clone(), copy });
                }
            }
        }
        let there = cloth.is_some_and(|c| (1..=c.copies()).contains(&cloth_lay.copy));
        match cloth.filter(|_| there && bins.insert((&cloth_lay.cloth, cloth_lay.copy))) {
            Some(cloth) => {
                cost += cloth.cost(cloth_lay.buy_length).0;
                check_cloth(job, cloth, cloth_lay, &mut faults);
                if let Some(why) = certificate_fault(job, cloth, cloth_lay) {
                    faults.push(Fault::Proof { of: cloth.id.clone(), why });
                }
            }
            None => faults.extend(
                cloth_lay.placements.iter().map(|p| Fault::Cloth { piece: label(p), cloth: cloth_lay.cloth.clone() }),
            ),
        }
    }
    for pin in &job.pinned {
        let on = lay.cloths.iter().filter(|c| c.cloth == pin.cloth && c.copy == pin.cloth_copy);
        if !on.flat_map(|c| &c.placements).any(|p| *p == pin.placement) {
            faults.push(Fault::Pin { piece: label(&pin.placement) });
        }
    }
    for piece in &job.pieces {
        let found = counts.remove(piece.id.as_str()).unwrap_or(0);
        if found != u64::from(piece.count) {
            faults.push(Fault::Count { piece: piece.id.clone(), found, wanted: piece.count.into() });
        }
    }
    faults.extend(counts.into_keys().map(|piece| Fault::Unknown { piece: piece.to_owned() }));
    for needed in &lay.sheets {
        if let Some(why) = sheets_fault(job, lay, needed) {
            faults.push(Fault::Proof { of: needed.cloth.clone(), why });
        }
    }
    faults.extend(unproven(job, lay));
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

/// That a lay is called proven without what shows it.
fn unproven(job: &Job, lay: &Lay) -> Option<Fault> {
    let bought = |c: &&ClothLay| job.cloth(&c.cloth).is_some_and(|cloth| !cloth.owned);
    let shown = |c: &ClothLay| {
        let copies = lay.cloths.iter().filter(|other| other.cloth == c.cloth).count();
        let needed = lay.sheets.iter().find(|s| s.cloth == c.cloth).map_or(1, |s| s.least as usize);
        c.buy_length <= c.bound && copies <= needed
    };
    let choice = job.pieces.iter().any(|p| p.cloths.len() > 1);
    let mut bought_cloths = lay.cloths.iter().filter(bought);
    let holds = if choice { bought_cloths.next().is_none() } else { bought_cloths.all(shown) };
    (lay.proven && !(holds && lay.complete())).then(|| Fault::Proof {
        of: "the lay".into(),
        why: "it is called proven, and its bounds and certificates do not say so".into(),
    })
}

/// The first pin that cannot stand: off the cloth, on another, turned or flipped as it may not be.
pub fn pin_faults(job: &Job) -> Result<(), FieldProblem> {
    let begun: BTreeSet<(&str, u32)> = job.pinned.iter().map(|p| (p.cloth.as_str(), p.cloth_copy)).collect();
    for (id, copy) in begun {
        let Some(cloth) = job.cloth(id) else { continue };
        let here = |p: &&super::job::Pin| p.cloth == id && p.cloth_copy == copy;
        let placements: Vec<Placement> = job.pinned.iter().filter(here).map(|p| p.placement.clone()).collect();
        let mut faults = Vec::new();
        let shapes = shapes(job, cloth, &placements, &mut faults);
        check_edges(cloth, None, &shapes, &mut faults);
        check_overlaps(job.rules.gap, cloth, &shapes, &mut faults);
        if let Some(fault) = faults.first() {
            return Err(FieldProblem::new("pinned", "", format!("cannot stay where it is: {fault}")));
        }
    }
    Ok(())
}

struct Shape {
    label: String,
    corners: Vec<Point>,
    /// What of it is on the cloth: the right half of a piece on the fold.
    on_cloth: MultiPolygon<f64>,
}

fn polygon_of(corners: &[Point]) -> Polygon<f64> {
    let ring: Vec<(f64, f64)> = corners.iter().map(|p| (p.x.0 as f64, p.y.0 as f64)).collect();
    Polygon::new(LineString::from(ring), vec![])
}

fn shapes(job: &Job, cloth: &Cloth, placements: &[Placement], faults: &mut Vec<Fault>) -> Vec<Shape> {
    let mut shapes: Vec<Shape> = Vec::with_capacity(placements.len());
    let pieces = job.pieces_by_id();
    for placement in placements {
        let Some(piece) = pieces.get(placement.piece.as_str()) else { continue }; // counted as unknown already
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
        let corners = as_it_lies(&piece.outline, placement);
        if !falls_right(piece, cloth, placement) {
            faults.push(Fault::Print { piece: label(placement), cloth: cloth.id.clone() });
        }
        let mut on_cloth = MultiPolygon::from(polygon_of(&corners));
        if placement.on_fold {
            // Close around it: the boolean operations work on a grid as fine as what they are given is large.
            let [_, low, right, high] = bounds(&corners).map(|l| l.0 as f64);
            let right = geo::Rect::new((0.0, low - 8.0), (right.max(0.0) + 8.0, high + 8.0)).to_polygon();
            on_cloth = on_cloth.intersection(&right);
            let opened = on_cloth.union(&unfolded(&on_cloth));
            if cloth.layers != 2 || !is_same(&opened, &MultiPolygon::from(polygon_of(&corners))) {
                let (cloth, piece) = (cloth.id.clone(), label(placement));
                faults.push(Fault::Outside { cloth, piece, edge: "fold" });
            }
        } else if piece.yielded_by(placement, cloth) == 2 {
            faults.extend(twin_fault(piece, cloth, placement, &on_cloth));
        }
        shapes.push(Shape { label: label(placement), on_cloth, corners });
    }
    shapes
}

/// The corners of an outline where it lies: mirrored first, then turned counter-clockwise, then moved.
pub(crate) fn as_it_lies(outline: &Outline, placement: &Placement) -> Vec<Point> {
    let round = matches!(outline, Outline::Circle(_));
    // Within its own width, so that corners are rounded alike on either face.
    let right = outline.corners().iter().map(|p| p.x.0).max().unwrap_or(0);
    let turn = |p: Point| {
        let (x, y) = (if placement.mirrored { right - p.x.0 } else { p.x.0 }, p.y.0);
        // A circle is the same however it is turned.
        match if round { 0 } else { placement.turn.degrees() } {
            0 => (x, y),
            90 => (-y, x),
            180 => (-x, -y),
            270 => (y, -x),
            // On the bias sine and cosine are 1/√2, of one sign or the other.
            degrees => {
                let (sin, cos) =
                    (if degrees < 180 { 1 } else { -1 }, if (90..=270).contains(&degrees) { -1 } else { 1 });
                let share = |sum: i64| (sum as f64 * std::f64::consts::FRAC_1_SQRT_2).round() as i64;
                (share(x * cos - y * sin), share(x * sin + y * cos))
            }
        }
    };
    let mut turned: Vec<(i64, i64)> = outline.corners().into_iter().map(turn).collect();
    if placement.mirrored {
        turned.reverse();
    }
    let left = turned.iter().map(|p| p.0).min().unwrap_or(0);
    let low = turned.iter().map(|p| p.1).min().unwrap_or(0);
    let at = |(x, y): (i64, i64)| Point::new(placement.x + Length(x - left), placement.y + Length(y - low));
    turned.into_iter().map(at).collect()
}

/// What lies on folded cloth as the layer below shows it once the cloth is opened: its mirror image beyond the fold.
fn unfolded(shape: &MultiPolygon<f64>) -> MultiPolygon<f64> {
    shape.scale_around_point(-1.0, 1.0, geo::Coord { x: 0.0, y: 0.0 })
}

/// Whether two shapes differ by no more than the rounding of their corners.
fn is_same(a: &MultiPolygon<f64>, b: &MultiPolygon<f64>) -> bool {
    let around: f64 = b.iter().map(|p| Euclidean.length(p.exterior())).sum();
    a.difference(b).unsigned_area() + b.difference(a).unsigned_area() <= around * 4.0
}

/// What is wrong with the copy that the layer below yields: it is the mirror image of `above`, and turned the other way.
fn twin_fault(piece: &JobPiece, cloth: &Cloth, placement: &Placement, above: &MultiPolygon<f64>) -> Option<Fault> {
    let turn = placement.turn.opposite();
    if !allowed_turns(piece.grain, piece.print, cloth).turns.contains(&turn) {
        return Some(Fault::Turn { piece: label(placement), turn: turn.degrees() });
    }
    if piece.mirror != Mirror::No {
        return None;
    }
    let below = unfolded(above);
    let [left, low] = below.bounding_rect().map_or([0.0; 2], |b| [b.min().x, b.min().y]);
    let wanted = Placement { turn, x: Length(left.round() as i64), y: Length(low.round() as i64), ..placement.clone() };
    let wanted = MultiPolygon::from(polygon_of(&as_it_lies(&piece.outline, &wanted)));
    (!is_same(&below, &wanted)).then(|| Fault::Mirror { piece: label(placement) })
}

/// Whether a motif falls on the piece where it should: counted in columns from the one that is known.
fn falls_right(piece: &JobPiece, cloth: &Cloth, placement: &Placement) -> bool {
    let (Some(on_piece), Some(repeat)) = (piece.on_print, &cloth.repeat) else { return true };
    // Sizes are extents from the origin for outlines that begin there; a motif's place is counted from the box itself.
    let corners = piece.outline.corners();
    let span = |of: fn(&Point) -> Length| {
        let all = || corners.iter().map(of);
        (all().min().unwrap_or_default(), all().max().unwrap_or_default())
    };
    let ((left, right), (low, high)) = (span(|p| p.x), span(|p| p.y));
    let (width, height) = (right - left, high - low);
    let (from_left, from_low) = (on_piece.x - left, on_piece.y - low);
    let x = if placement.mirrored { width - from_left } else { from_left };
    let y = from_low;
    let (x, y) = match placement.turn.degrees() {
        0 => (x, y),
        90 => (height - y, x),
        180 => (width - x, height - y),
        270 => (y, width - x),
        _ => return repeat.across.is_none() && repeat.along.is_none(),
    };
    let (dx, dy) = ((placement.x + x - repeat.at.x).0, (placement.y + y - repeat.at.y).0);
    let mut column = 0;
    if let Some(across) = repeat.across {
        if dx % across.0 != 0 {
            return false;
        }
        column = dx / across.0;
    }
    repeat.along.is_none_or(|along| (dy - column * repeat.drop.0) % along.0 == 0)
}

fn check_cloth(job: &Job, cloth: &Cloth, lay: &ClothLay, faults: &mut Vec<Fault>) {
    let shapes = shapes(job, cloth, &lay.placements, faults);
    check_edges(cloth, Some(lay), &shapes, faults);
    check_overlaps(job.rules.gap, cloth, &shapes, faults);
    check_figures(job, cloth, lay, &shapes, faults);
    if job.rules.cuts == Cuts::Through && !comes_apart(shapes.iter().map(|s| bounds(&s.corners)).collect()) {
        faults.push(Fault::Ragged { cloth: cloth.id.clone() });
    }
}

/// What share of the cloth becomes bag: the area of the pieces over that of the cloth, both layers of it, as washed.
fn share_used(job: &Job, cloth: &Cloth, lay: &ClothLay) -> f64 {
    let pieces = job.pieces_by_id();
    let copies = |p: &Placement| {
        let piece = pieces.get(p.piece.as_str())?;
        let area = match &piece.outline {
            Outline::Circle(d) => std::f64::consts::PI * (d.0 as f64 / 2.0).powi(2),
            outline => polygon_of(&outline.corners()).unsigned_area(),
        };
        Some(area * f64::from(piece.yielded_by(p, cloth)))
    };
    let used: f64 = lay.placements.iter().filter_map(copies).sum();
    let washed = |length: Length, lost: u32| length.0 as f64 * (1.0 - f64::from(lost) / 1e6);
    let width = cloth.washed_width().0 as f64;
    let whole = match &cloth.form {
        Form::Scrap { outline, .. } => {
            let lost = (1.0 - f64::from(cloth.shrink.along) / 1e6) * (1.0 - f64::from(cloth.shrink.across) / 1e6);
            polygon_of(&outline.corners()).unsigned_area() * lost
        }
        Form::Sheet { height, .. } => width * washed(*height, cloth.shrink.along) * f64::from(cloth.layers),
        Form::Roll { .. } => {
            let there = washed(lay.buy_length, cloth.shrink.along).max(lay.needed_length.0 as f64);
            width * there * f64::from(cloth.layers)
        }
    };
    if whole > 0.0 { used / whole } else { 0.0 }
}

/// Whether boxes can be parted again and again by straight lines between them until each is alone.
fn comes_apart(boxes: Vec<[Length; 4]>) -> bool {
    let mut groups = vec![boxes];
    while let Some(mut group) = groups.pop() {
        if group.len() < 2 {
            continue;
        }
        let before = groups.len();
        for axis in [0, 1] {
            group.sort_by_key(|b| b[axis]);
            let mut reach = group[0][axis];
            let mut parted: Vec<Vec<[Length; 4]>> = vec![vec![]];
            for b in &group {
                if b[axis] >= reach && parted.last().is_some_and(|p| !p.is_empty()) {
                    parted.push(vec![]);
                }
                reach = reach.max(b[axis + 2]);
                parted.last_mut().into_iter().for_each(|p| p.push(*b));
            }
            if parted.len() > 1 {
                groups.extend(parted);
                break;
            }
        }
        if groups.len() == before {
            return false;
        }
    }
    true
}

fn check_edges(cloth: &Cloth, lay: Option<&ClothLay>, shapes: &[Shape], faults: &mut Vec<Fault>) {
    let corner = cloth.corner();
    let left = corner.x + if cloth.layers == 2 { Length::ZERO } else { cloth.selvedge };
    let right = corner.x + cloth.washed_width() - cloth.selvedge;
    let low = corner.y + cloth.trim;
    // As far as the lay says it goes, and never past the cloth that is there.
    let end = cloth.usable_length().map(|usable| usable + low);
    let top = lay.map(|lay| corner.y + lay.needed_length - cloth.trim);
    let missing = scrap_edges(cloth);
    for shape in shapes {
        let mut over = |is: bool, edge| {
            if is {
                faults.push(Fault::Outside { cloth: cloth.id.clone(), piece: shape.label.clone(), edge });
            }
        };
        let on_fold = cloth.layers == 2 && bounds(&shape.corners)[0] < Length::ZERO;
        over(!on_fold && shape.corners.iter().any(|p| p.x < left), "left selvedge");
        over(on_fold && !axis_at_zero(&shape.corners), "fold");
        over(shape.corners.iter().any(|p| p.x > right), "right selvedge");
        over(shape.corners.iter().any(|p| p.y < low), "cut end");
        over(top.is_some_and(|top| shape.corners.iter().any(|p| p.y > top)), "needed length");
        over(end.is_some_and(|end| shape.corners.iter().any(|p| p.y > end)), "end");
        if let Some((edge, flaws)) = &missing {
            let around = around(&shape.corners);
            over(shape.on_cloth.difference(edge).unsigned_area() > around * 2.0, "edge");
            over(shape.on_cloth.intersection(flaws).unsigned_area() > around * 2.0, "sound part");
        }
    }
}

fn axis_at_zero(corners: &[Point]) -> bool {
    let [left, _, right, _] = bounds(corners);
    (left + right).0.abs() <= 1
}

/// The washed outline of a scrap, and its flaws.
fn scrap_edges(cloth: &Cloth) -> Option<(MultiPolygon<f64>, MultiPolygon<f64>)> {
    let Form::Scrap { outline, flaws } = &cloth.form else { return None };
    let washed = |o: &Outline| {
        let corners: Vec<Point> = o
            .corners()
            .into_iter()
            .map(|p| Point::new(p.x.shrunk(cloth.shrink.across), p.y.shrunk(cloth.shrink.along)))
            .collect();
        polygon_of(&corners)
    };
    let flaws: Vec<Polygon<f64>> = flaws.iter().map(washed).collect();
    let flaws =
        if flaws.is_empty() { MultiPolygon::new(vec![]) } else { geo::algorithm::bool_ops::unary_union(&flaws) };
    Some((MultiPolygon::from(washed(outline)), flaws))
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
    a.on_cloth.intersection(&b.on_cloth).unsigned_area() > around(&a.corners) * 2.0
}

/// The way round a bounding box.
fn around(corners: &[Point]) -> f64 {
    let [left, low, right, high] = bounds(corners);
    ((right - left) + (high - low)).0 as f64 * 2.0
}

fn too_close(a: &Shape, b: &Shape, gap: Length) -> bool {
    gap > Length::ZERO && Euclidean.distance(&a.on_cloth, &b.on_cloth) + 2.0 < gap.0 as f64
}

fn check_figures(job: &Job, cloth: &Cloth, lay: &ClothLay, shapes: &[Shape], faults: &mut Vec<Fault>) {
    let ruler = Ruler::default_for(job.units);
    let highest = shapes.iter().flat_map(|s| s.corners.iter().map(|p| p.y)).max().unwrap_or_default();
    let should = if shapes.is_empty() { Length::ZERO } else { highest - cloth.corner().y + cloth.trim };
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
    let share = share_used(job, cloth, lay);
    if (lay.used_share - share).abs() > 1e-3 {
        faults.push(Fault::Figure {
            name: "used_share",
            of: cloth.id.clone(),
            stated: format!("{:.4}", lay.used_share),
            should: format!("{share:.4}"),
        });
    }
    // A bound that a lay undercuts is no bound.
    if lay.bound > lay.buy_length {
        faults.push(Fault::Figure {
            name: "bound",
            of: cloth.id.clone(),
            stated: ruler.show(lay.bound).text,
            should: format!("at most {}", ruler.show(lay.buy_length).text),
        });
    }
    let scrap = scrap_edges(cloth);
    for o in &lay.offcuts {
        let corners = o.corners();
        let on_cloth = MultiPolygon::from(polygon_of(&corners));
        let offcut = Shape { label: "an offcut".into(), on_cloth, corners };
        if let Some((edge, _)) = &scrap
            && offcut.on_cloth.difference(edge).unsigned_area() > around(&offcut.corners) * 2.0
        {
            faults.push(Fault::Outside { cloth: cloth.id.clone(), piece: offcut.label.clone(), edge: "edge" });
        }
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

//! The nesting problem: shapes, ways to lie, bins.

use super::no_fits::{Detail, NoFits, are_affordable};
use super::shape::Shape;
use crate::cloth::Cloth;
use crate::hashed::HashMap;
use crate::lay::bin::Bin;
use crate::lay::job::{Cuts, Job, JobPiece};
use crate::lay::stop::Stop;
use crate::lay::turns::allowed_turns;
use crate::measure::Length;
use crate::piece::Mirror;
use crate::shape::{
    NoFit, NoFitRegion, Outline, Point, Turn, convex_hull, convex_parts, inner_rectangle, without_idle_corners,
};
use std::sync::OnceLock;

/// One way a kind may lie.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(in crate::lay) struct Way {
    /// Index of the shape.
    pub shape: usize,
    pub turn: Turn,
    pub mirrored: bool,
    /// Only the right half lies on the cloth, its axis on the fold.
    pub on_fold: bool,
}

/// Placements that are all alike to the search.
pub(in crate::lay) struct Kind {
    /// Index of the piece in the job.
    pub piece: usize,
    /// The even copies of a pair.
    pub flipped: bool,
    /// Placements, not copies: on folded cloth one may yield two.
    pub count: usize,
    /// Copies one placement yields.
    pub yields: u32,
    /// Area of one placement.
    pub area: f64,
    /// Ways to lie on each bin; none where it may not or cannot lie.
    pub ways: Vec<Vec<Way>>,
    /// Bins in the order they are tried.
    pub bins: Vec<usize>,
}

/// A placement that stays where it is.
#[derive(Clone, Copy, Debug)]
pub(in crate::lay) struct Fixed {
    pub bin: usize,
    pub shape: usize,
    pub x: i64,
    pub y: i64,
}

/// Where a shape fits a bin: a rectangle of positions, less what lies beyond the slanted sides of the hull, less
/// the regions of what is missing.
pub(super) struct InnerFit {
    /// Left, low, right, high; high is without the length of an open roll.
    pub bounds: [i64; 4],
    /// Outward normals and distances of the slanted sides.
    pub planes: Vec<(f64, f64, f64)>,
    pub missing: Vec<NoFitRegion>,
    /// Heights at which the lowest place of a row can be.
    pub levels: Vec<i64>,
}

/// Copies of a piece that are to be laid, all on the same face.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub(in crate::lay) struct ItemType {
    /// Index of the piece in the job.
    pub piece: usize,
    /// The even copies of a pair, of a piece that is not its own mirror image.
    pub flipped: bool,
    pub copies: u32,
}

impl ItemType {
    /// Whether both are copies of one piece, on one face.
    pub fn is_alike(&self, other: &Self) -> bool {
        (self.piece, self.flipped) == (other.piece, other.flipped)
    }
}

/// Everything of `job` that is not pinned.
pub(in crate::lay) fn all_items(job: &Job) -> Vec<ItemType> {
    let mut items = Vec::new();
    for (index, piece) in job.pieces.iter().enumerate() {
        let free = job.free_copies(index);
        let faced = piece.mirror == Mirror::Pairs && !piece.outline.is_symmetric(Turn::NONE);
        let flipped = if faced { free.iter().filter(|n| n.is_multiple_of(2)).count() as u32 } else { 0 };
        for (flipped, copies) in [(false, free.len() as u32 - flipped), (true, flipped)] {
            if copies > 0 {
                items.push(ItemType { piece: index, flipped, copies });
            }
        }
    }
    items
}

pub(in crate::lay) struct Nest {
    pub bins: Vec<Bin>,
    pub kinds: Vec<Kind>,
    pub shapes: Vec<Shape>,
    pub fixed: Vec<Fixed>,
    pub gap: Length,
    /// Only what comes apart by cuts from edge to edge is a lay.
    pub through: bool,
    /// How closely shapes follow their pieces.
    pub detail: Detail,
    /// All pieces are in it: it was not stopped while it was made.
    pub is_whole: bool,
    /// Ends what is run on it.
    pub stop: Stop,
    nofit: NoFits,
    inner: Vec<OnceLock<InnerFit>>,
}

/// The different shapes of a problem, each once.
pub(super) struct Shapes {
    detail: Detail,
    all: Vec<Shape>,
    known: HashMap<(Vec<Vec<Point>>, bool), usize>,
}

impl Shapes {
    pub(super) fn new(detail: Detail) -> Self {
        Self { detail, all: vec![], known: HashMap::default() }
    }

    /// The index of the shape made of convex `parts`, as plain as the detail asks.
    pub(super) fn of(&mut self, parts: Vec<Vec<Point>>, on_fold: bool) -> usize {
        let key = (self.plain(parts), on_fold);
        if let Some(&i) = self.known.get(&key) {
            return i;
        }
        let parts = key.0.clone();
        let (width, height) = (high(&parts, |p| p.x), high(&parts, |p| p.y));
        self.all.push(Shape { width: width.0, height: height.0, parts, on_fold });
        self.known.insert(key, self.all.len() - 1);
        self.all.len() - 1
    }

    fn plain(&self, parts: Vec<Vec<Point>>) -> Vec<Vec<Point>> {
        match self.detail {
            Detail::Exact | Detail::RoundOnce => parts,
            Detail::Hull => vec![convex_hull(&parts.concat())],
            Detail::Boxes => {
                let (width, height) = (high(&parts, |p| p.x), high(&parts, |p| p.y));
                vec![Outline::Rect(width, height).corners()]
            }
        }
    }

    #[cfg(test)]
    pub(super) fn all(&self) -> &[Shape] {
        &self.all
    }
}

/// The furthest right, or up, that a shape reaches from the origin.
fn high(parts: &[Vec<Point>], of: fn(&Point) -> Length) -> Length {
    parts.iter().flatten().map(of).max().unwrap_or_default()
}

impl Nest {
    /// The problem of laying `items` of `job` on `bins`; `order` gives the bins in the order they are tried for
    /// a piece. So many and so fine outlines that their no-fit regions would not fit into memory are made plainer.
    pub(in crate::lay) fn new(
        job: &Job,
        bins: &[Bin],
        items: &[ItemType],
        order: impl Fn(&JobPiece) -> Vec<usize>,
        stop: &Stop,
    ) -> Self {
        let mut detail = Detail::Exact;
        loop {
            let nest = Self::with(job, bins, items, &order, stop, detail);
            if !nest.is_whole || detail == Detail::Boxes || are_affordable(&nest.shapes) {
                return nest;
            }
            detail = detail.plainer();
        }
    }

    fn with(
        job: &Job,
        bins: &[Bin],
        items: &[ItemType],
        order: &impl Fn(&JobPiece) -> Vec<usize>,
        stop: &Stop,
        detail: Detail,
    ) -> Self {
        let mut shapes = Shapes::new(detail);
        let mut kinds = Vec::new();
        let mut is_whole = true;
        for item in items {
            if stop.asked() {
                is_whole = false;
                break;
            }
            let piece = &job.pieces[item.piece];
            let tried = order(piece);
            let folded = !tried.is_empty() && tried.iter().all(|&g| bins[g].folded);
            // Over two layers both faces come together: they are laid with the first of them.
            let faces = |flipped: bool| -> u32 {
                items.iter().filter(|l| l.piece == item.piece && l.flipped == flipped).map(|l| l.copies).sum()
            };
            let first = items.iter().find(|l| l.piece == item.piece) == Some(item);
            if folded && !first {
                continue;
            }
            // A pair takes two consecutive numbers, and pinned copies can leave gaps between the free ones.
            let most_pairs = if folded { job.free_pairs(item.piece) } else { 0 };
            let copies = match (folded, item.flipped) {
                (true, _) => (faces(false), faces(true)),
                (false, false) => (item.copies, 0),
                (false, true) => (0, item.copies),
            };
            // Too wide for the folded cloth, or with a print that stands on its head in the layer below, a piece may still
            // lie half on the fold.
            let twins = folded
                && tried.iter().any(|&g| {
                    let bin = &bins[g];
                    !ways(piece, &job.cloths[bin.cloth], bin, None, &[Lying::Twice], &mut shapes).is_empty()
                });
            for unit in units(piece, copies, folded, if twins { most_pairs } else { 0 }) {
                let ways: Vec<Vec<Way>> = bins
                    .iter()
                    .enumerate()
                    .map(|(g, bin)| {
                        if !tried.contains(&g) || bin.folded != folded {
                            return vec![];
                        }
                        let cloth = &job.cloths[bin.cloth];
                        ways(piece, cloth, bin, unit.mirrored, unit.lying, &mut shapes)
                    })
                    .collect();
                let bins = tried.iter().copied().filter(|&g| !ways[g].is_empty()).collect();
                kinds.push(Kind {
                    piece: item.piece,
                    flipped: item.flipped,
                    count: unit.count as usize,
                    yields: unit.yields,
                    area: piece.outline.area().0 as f64 * if unit.lying.contains(&Lying::OnFold) { 0.5 } else { 1.0 },
                    ways,
                    bins,
                });
            }
        }
        let mut fixed = Vec::new();
        for pin in &job.pinned {
            let Some((g, bin)) =
                bins.iter().enumerate().find(|(_, g)| job.cloths[g.cloth].id == pin.cloth && g.copy == pin.cloth_copy)
            else {
                continue;
            };
            let Some(piece) = job.piece(&pin.placement.piece) else { continue };
            let p = &pin.placement;
            let shape = shapes.of(parts_of(piece, p.turn, p.mirrored, p.on_fold), p.on_fold);
            let x = if p.on_fold { 0 } else { (p.x - bin.left).0 };
            fixed.push(Fixed { bin: g, shape, x, y: (p.y - bin.low).0 });
        }
        let n = shapes.all.len();
        Self {
            nofit: NoFits::new(n),
            inner: (0..n * bins.len()).map(|_| OnceLock::new()).collect(),
            bins: bins.to_vec(),
            kinds,
            shapes: shapes.all,
            fixed,
            gap: job.rules.gap,
            through: job.rules.cuts == Cuts::Through,
            detail,
            is_whole,
            stop: stop.clone(),
        }
    }

    /// Placements in all.
    pub(in crate::lay) fn placements(&self) -> usize {
        self.kinds.iter().map(|k| k.count).sum()
    }

    /// Where `moving` must not be for `fixed` at the origin.
    pub(super) fn nofit(&self, fixed: usize, moving: usize) -> &NoFit {
        let make = || NoFit::of(&self.shapes[fixed].parts, &self.shapes[moving].parts, self.gap);
        self.nofit.get(fixed, moving, make)
    }

    /// Where `shape` fits `bin`; a roll without end is as long as lengths go.
    pub(super) fn inner(&self, bin: usize, shape: usize) -> &InnerFit {
        self.inner[bin * self.shapes.len() + shape].get_or_init(|| self.inner_fit(bin, shape))
    }

    fn inner_fit(&self, bin: usize, shape: usize) -> InnerFit {
        let (bin, shape) = (&self.bins[bin], &self.shapes[shape]);
        const ENDLESS: i64 = i64::MAX / 4;
        let high = bin.limit.map_or(ENDLESS, |limit| limit - shape.height);
        let mut fit = InnerFit {
            bounds: [0, 0, if shape.on_fold { 0 } else { bin.width - shape.width }, high],
            planes: vec![],
            missing: vec![],
            levels: vec![0],
        };
        let Some(edge) = &bin.edge else { return fit };
        let n = edge.hull.len();
        for i in 0..n {
            let (a, b) = (edge.hull[i], edge.hull[(i + 1) % n]);
            let (dx, dy) = ((b.x - a.x).0 as f64, (b.y - a.y).0 as f64);
            if dx == 0.0 || dy == 0.0 {
                continue; // part of the bounding box
            }
            let length = (dx * dx + dy * dy).sqrt();
            let (nx, ny) = (dy / length, -dx / length);
            let reach =
                shape.parts.iter().flatten().map(|p| nx * p.x.0 as f64 + ny * p.y.0 as f64).fold(f64::MIN, f64::max);
            fit.planes.push((nx, ny, nx * a.x.0 as f64 + ny * a.y.0 as f64 - reach));
        }
        // Where two sides meet, or one meets the box, a row can have its lowest place.
        let [left, low, right, high] = fit.bounds;
        for (i, a) in fit.planes.iter().enumerate() {
            for x in [left, right] {
                if a.1 != 0.0 {
                    fit.levels.push(((a.2 - a.0 * x as f64) / a.1).ceil() as i64);
                }
            }
            for b in &fit.planes[i + 1..] {
                let det = a.0 * b.1 - b.0 * a.1;
                if det.abs() > 1e-9 {
                    let y = ((a.0 * b.2 - b.0 * a.2) / det).round() as i64;
                    fit.levels.extend([y - 1, y, y + 1]);
                }
            }
        }
        fit.levels.retain(|y| (low..=high).contains(y));
        fit.missing = edge
            .missing
            .iter()
            .flat_map(|part| NoFit::of(std::slice::from_ref(part), &shape.parts, Length::ZERO).parts)
            .collect();
        for region in &fit.missing {
            fit.levels.extend(region.corners.iter().map(|c| c.1).filter(|y| (low..=high).contains(y)));
        }
        fit.levels.sort_unstable();
        fit.levels.dedup();
        fit
    }
}

impl InnerFit {
    /// The stretch of the level `y` between the sides of the hull, if there is any.
    pub(super) fn across(&self, y: i64) -> Option<(i64, i64)> {
        let (mut left, mut right) = (self.bounds[0], self.bounds[2]);
        for &(nx, ny, c) in &self.planes {
            let x = (c - ny * y as f64) / nx;
            // A thousandth of a unit is rounding, not cloth.
            if nx > 0.0 {
                right = right.min((x + 1e-3).floor() as i64)
            } else {
                left = left.max((x - 1e-3).ceil() as i64)
            }
        }
        (left <= right).then_some((left, right))
    }

    /// How far beyond the slanted sides, all together.
    pub(super) fn beyond(&self, x: i64, y: i64) -> f64 {
        self.planes.iter().map(|&(nx, ny, c)| (nx * x as f64 + ny * y as f64 - c - 0.5).max(0.0)).sum()
    }
}

/// How a piece lies on its cloth.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Lying {
    /// It yields one copy; on folded cloth its twin of the layer below is to spare.
    Once,
    /// On folded cloth, it and its twin of the layer below are both used.
    Twice,
    /// On folded cloth, half on the fold.
    OnFold,
}

/// Placements that yield the copies of an item.
struct Unit {
    count: u32,
    yields: u32,
    mirrored: Option<bool>,
    lying: &'static [Lying],
}

/// The placements for so many (upright, flipped) copies, at most `most_pairs` of which yield one from each layer.
fn units(piece: &JobPiece, copies: (u32, u32), folded: bool, most_pairs: u32) -> Vec<Unit> {
    let symmetric = piece.outline.is_symmetric(Turn::NONE);
    let either = piece.mirror == Mirror::Free && !symmetric;
    let (upright, flipped) = copies;
    let all = upright + flipped;
    if !folded {
        let mirrored = if either { None } else { Some(flipped > 0) };
        return vec![Unit { count: all, yields: 1, mirrored, lying: &[Lying::Once] }];
    }
    let pairs = match piece.mirror {
        _ if symmetric => all / 2,
        Mirror::No => 0,
        Mirror::Pairs => upright.min(flipped),
        Mirror::Free => all / 2,
    };
    let pairs = pairs.min(most_pairs);
    let face = |mirrored: bool| if either { None } else { Some(mirrored) };
    // The odd one lies half on the fold if it can. Beside others, over both layers with its twin spare, it may take
    // less length.
    let odd: &[Lying] = if symmetric { &[Lying::OnFold, Lying::Once] } else { &[Lying::Once] };
    // Each half of a pair that is not laid as one lies on its own face.
    let (up, down) = if flipped > 0 { (upright - pairs, flipped - pairs) } else { (upright - 2 * pairs, 0) };
    let units = [
        Unit { count: pairs, yields: 2, mirrored: face(false), lying: &[Lying::Twice] },
        Unit { count: up, yields: 1, mirrored: face(false), lying: odd },
        Unit { count: down, yields: 1, mirrored: face(true), lying: odd },
    ];
    units.into_iter().filter(|u| u.count > 0).collect()
}

/// The ways `piece` fits `bin`, no two of the same shape.
fn ways(
    piece: &JobPiece,
    cloth: &Cloth,
    bin: &Bin,
    mirrored: Option<bool>,
    lying: &[Lying],
    shapes: &mut Shapes,
) -> Vec<Way> {
    let faces: &[bool] = match mirrored {
        None => &[false, true],
        Some(false) => &[false],
        Some(true) => &[true],
    };
    let mut found: Vec<Way> = Vec::new();
    let turns = allowed_turns(piece.grain, piece.print, cloth).turns;
    for (turn, lying) in turns.iter().flat_map(|turn| lying.iter().map(move |l| (*turn, *l))) {
        let on_fold = lying == Lying::OnFold;
        if on_fold && !piece.outline.is_symmetric(turn) {
            continue;
        }
        if lying == Lying::Twice && !turns.contains(&turn.opposite()) {
            continue;
        }
        for &mirrored in faces {
            let parts = parts_of(piece, turn, mirrored, on_fold);
            let (width, height) = (high(&parts, |p| p.x).0, high(&parts, |p| p.y).0);
            let fits = width <= bin.width && bin.limit.is_none_or(|limit| height <= limit);
            if !fits {
                continue;
            }
            let circle = matches!(piece.outline, Outline::Circle(_));
            if shapes.detail >= Detail::RoundOnce && circle && found.iter().any(|w| w.on_fold == on_fold) {
                continue;
            }
            let shape = shapes.of(parts, on_fold);
            if !found.iter().any(|w| w.shape == shape) {
                found.push(Way { shape, turn, mirrored, on_fold });
            }
        }
    }
    found
}

/// The convex parts of `piece` as it lies, or of its right half, from the axis.
pub(in crate::lay) fn parts_of(piece: &JobPiece, turn: Turn, mirrored: bool, on_fold: bool) -> Vec<Vec<Point>> {
    let corners = without_idle_corners(&piece.outline.placed(turn, mirrored));
    let parts = convex_parts(&corners);
    if !on_fold {
        return parts;
    }
    let width = corners.iter().map(|p| p.x).max().unwrap_or_default();
    let axis = Length(width.0 / 2);
    parts.iter().filter_map(|part| right_of(part, axis)).collect()
}

/// The part of a convex polygon to the right of an upright line, which becomes x = 0.
fn right_of(part: &[Point], axis: Length) -> Option<Vec<Point>> {
    let mut kept = Vec::with_capacity(part.len() + 2);
    for i in 0..part.len() {
        let (a, b) = (part[i], part[(i + 1) % part.len()]);
        if a.x >= axis {
            kept.push(Point::new(a.x - axis, a.y));
        }
        if (a.x < axis && b.x > axis) || (a.x > axis && b.x < axis) {
            let t = (axis - a.x).0 as f64 / (b.x - a.x).0 as f64;
            kept.push(Point::new(Length::ZERO, a.y + Length(((b.y - a.y).0 as f64 * t).round() as i64)));
        }
    }
    let kept = without_idle_corners(&kept);
    (kept.len() > 2 && kept.iter().any(|p| p.x > Length::ZERO)).then_some(kept)
}

/// The largest rectangle inside `piece` as it lies turned by `turn`, for bounds: whatever holds the piece holds it. Left,
/// low, width and height; nothing wide where none is known.
pub(in crate::lay) fn rectangle_inside(piece: &JobPiece, turn: Turn) -> [Length; 4] {
    match &piece.outline {
        crate::shape::Outline::Rect(..) if turn.degrees().is_multiple_of(90) => {
            let (width, height) = piece.outline.extent(turn, false);
            [Length::ZERO, Length::ZERO, width, height]
        }
        crate::shape::Outline::Circle(d) => {
            // A little under d/√2: the outline is the polygon on the circle.
            let side = Length((d.0 as f64 * 0.70) as i64);
            let beside = (*d - side) / 2;
            [beside, beside, side, side]
        }
        _ => inner_rectangle(&piece.outline.placed(turn, false)).unwrap_or_default(),
    }
}

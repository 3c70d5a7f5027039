//! What pieces are laid on: one copy of a cloth as the search sees it, washed, with selvedges and trim taken off.

use super::job::{Aim, Job, JobPiece};
use crate::cloth::{Cloth, Form};
use crate::measure::Length;
use crate::shape::{Outline, Point, convex_hull, convex_parts, without_idle_corners};

/// One length of a roll, one sheet or one scrap.
#[derive(Clone, Debug)]
pub(super) struct Bin {
    /// Index of the cloth in the job.
    pub cloth: usize,
    /// Which copy of it, from 1.
    pub copy: u32,
    /// Where the search's own origin lies on the cloth.
    pub left: Length,
    pub low: Length,
    /// Usable width.
    pub width: i64,
    /// Usable length; nothing when as much can be bought as is needed.
    pub limit: Option<i64>,
    /// What a scrap's edge takes off the rectangle.
    pub edge: Option<Edge>,
    /// Lies folded lengthwise, the fold at the left.
    pub folded: bool,
    /// Costs nothing.
    pub owned: bool,
    /// A piece of cloth with a fixed edge, not a roll.
    pub remnant: bool,
}

/// The edge of a scrap: its convex hull, and what is missing inside of that.
#[derive(Clone, Debug)]
pub(super) struct Edge {
    /// Counter-clockwise, in the search's coordinates.
    pub hull: Vec<Point>,
    /// Convex places inside the hull that cannot be used: bays of the edge, and flaws.
    pub missing: Vec<Vec<Point>>,
    /// Convex places between the hull and its bounding box.
    pub beyond: Vec<Vec<Point>>,
}

impl Bin {
    /// A limited roll, a sheet or a scrap: there is no more of it than this.
    pub(super) fn fixed(&self) -> bool {
        self.limit.is_some()
    }
}

/// The bins of a job, in the job's order of cloths; never more copies of a sheet than there are pieces.
pub(super) fn bins(job: &Job) -> Vec<Bin> {
    let pieces: u64 = job.pieces.iter().map(|p| u64::from(p.count)).sum();
    let mut found = Vec::new();
    for (index, cloth) in job.cloths.iter().enumerate() {
        let copies = match &cloth.form {
            Form::Sheet { count, .. } => u64::from(*count).min(pieces) as u32,
            Form::Roll { .. } | Form::Scrap { .. } => 1,
        };
        for copy in 1..=copies {
            found.push(bin(cloth, index, copy));
        }
    }
    found
}

fn bin(cloth: &Cloth, index: usize, copy: u32) -> Bin {
    let folded = cloth.layers == 2;
    let mut bin = Bin {
        cloth: index,
        copy,
        left: cloth.left_edge(),
        low: cloth.trim,
        width: cloth.usable_width().0,
        limit: cloth.usable_length().map(|l| l.0),
        edge: None,
        folded,
        owned: cloth.owned,
        remnant: !matches!(cloth.form, Form::Roll { .. }),
    };
    if let Form::Scrap { outline, flaws } = &cloth.form {
        let washed = |o: &Outline| o.corners().into_iter().map(|p| cloth.washed(p)).collect::<Vec<_>>();
        let corners = without_idle_corners(&washed(outline));
        let (left, low) = (corners.iter().map(|p| p.x).min(), corners.iter().map(|p| p.y).min());
        bin.left = left.unwrap_or_default() + cloth.selvedge;
        bin.low = low.unwrap_or_default() + cloth.trim;
        let moved = |p: &Point| Point::new(p.x - bin.left, p.y - bin.low);
        let corners: Vec<Point> = corners.iter().map(moved).collect();
        let hull = convex_hull(&corners);
        let mut missing = bays(&corners, &hull);
        for flaw in flaws {
            missing.extend(convex_parts(&washed(flaw).iter().map(moved).collect::<Vec<_>>()));
        }
        let beyond = corners_of_box(&hull);
        bin.edge = Some(Edge { hull, missing, beyond });
    }
    bin
}

/// What lies between a polygon and its hull, in convex parts: one bay wherever the edge leaves the hull.
fn bays(corners: &[Point], hull: &[Point]) -> Vec<Vec<Point>> {
    let n = corners.len();
    let on_hull = |p: &Point| (0..hull.len()).any(|i| on_line(hull[i], hull[(i + 1) % hull.len()], *p));
    let Some(start) = (0..n).find(|&i| on_hull(&corners[i])) else { return vec![] };
    let mut found = Vec::new();
    let mut bay = vec![corners[start]];
    for k in 1..=n {
        let p = corners[(start + k) % n];
        bay.push(p);
        if on_hull(&p) {
            if bay.len() > 2 {
                // Along the edge the bay lies to the right; turned about it is counter-clockwise.
                bay.reverse();
                found.extend(convex_parts(&bay));
            }
            bay = vec![p];
        }
    }
    found
}

/// What lies between a hull and its bounding box: one part for each corner of the box that the hull does not reach.
fn corners_of_box(hull: &[Point]) -> Vec<Vec<Point>> {
    let n = hull.len();
    let span = |of: fn(&Point) -> Length| (hull.iter().map(of).min(), hull.iter().map(of).max());
    let ((left, right), (low, high)) = (span(|p| p.x), span(|p| p.y));
    let on_box = |p: &Point| [left, right].contains(&Some(p.x)) || [low, high].contains(&Some(p.y));
    let Some(start) = (0..n).find(|&i| on_box(&hull[i])) else { return vec![] };
    let mut found = Vec::new();
    let mut chain = vec![hull[start]];
    for k in 1..=n {
        let p = hull[(start + k) % n];
        chain.push(p);
        if on_box(&p) {
            let first = chain[0];
            let (dx, dy) = (p.x - first.x, p.y - first.y);
            if dx != Length::ZERO && dy != Length::ZERO {
                // Counter-clockwise, the corner is reached along the side first when going right or left.
                let corner = if (dx > Length::ZERO) == (dy > Length::ZERO) {
                    Point::new(p.x, first.y)
                } else {
                    Point::new(first.x, p.y)
                };
                let mut part = vec![first, corner];
                part.extend(chain[1..].iter().rev());
                found.extend(convex_parts(&part));
            }
            chain = vec![p];
        }
    }
    found
}

/// Whether `p`, not outside the hull, lies on the line of its side from `a` to `b`.
fn on_line(a: Point, b: Point, p: Point) -> bool {
    let (ux, uy) = (i128::from((b.x - a.x).0), i128::from((b.y - a.y).0));
    let (vx, vy) = (i128::from((p.x - a.x).0), i128::from((p.y - a.y).0));
    ux * vy == uy * vx
}

/// What a square metre of a cloth costs, in hundredths: where none is preferred, the cheapest comes first.
fn dear(cloth: &Cloth) -> usize {
    let (length, width) = (Length::METRE * 100, cloth.usable_width().max(Length(1)));
    let square_metres = length.0 as f64 * width.0 as f64 * f64::from(cloth.layers) / (Length::METRE.0 as f64).powi(2);
    (cloth.cost(length).0 as f64 / square_metres).max(0.0) as usize
}

/// The bins a piece is tried on, in order: by the aim, then by the piece's own list of cloths.
pub(super) fn order_of_bins(job: &Job, bins: &[Bin], piece: &JobPiece) -> Vec<usize> {
    let mut order: Vec<(u8, i128, usize, usize)> = Vec::new();
    for (g, bin) in bins.iter().enumerate() {
        let Some(place) = piece.cloths.iter().position(|c| *c == job.cloths[bin.cloth].id) else { continue };
        let place = if piece.any_cloth { dear(&job.cloths[bin.cloth]) } else { place };
        let class = match job.rules.aim {
            Aim::BuyLeast | Aim::FewCuts | Aim::KeepBig => u8::from(!bin.owned),
            Aim::ScrapsFirst => {
                if bin.remnant {
                    0
                } else {
                    1 + u8::from(!bin.owned)
                }
            }
            Aim::FreshCloth => {
                if bin.remnant {
                    2
                } else {
                    u8::from(!bin.owned)
                }
            }
        };
        // To leave a big one whole, the small ones go first.
        let size = match (job.rules.aim, bin.limit) {
            (Aim::KeepBig, Some(limit)) => i128::from(bin.width) * i128::from(limit),
            _ => 0,
        };
        order.push((class, size, place, g));
    }
    order.sort_unstable();
    order.into_iter().map(|(.., g)| g).collect()
}

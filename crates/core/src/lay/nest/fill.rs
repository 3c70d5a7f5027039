//! The constructor: piece after piece, each on the first bin that has room, at its lowest place.
//!
//! Bottom-left filling on no-fit regions, holes included (after Burke, Hellier, Kendall and Whitwell 2006). The order
//! of the pieces and the style of choosing among the ways are given, so that a search can vary them.

use super::board::{Finder, KindPlacement, Obstacle};
use super::problem::Nest;
use crate::lay::guillotine::{self, Region};

/// What counts as lowest when a piece may lie several ways.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Style {
    /// Its top.
    Top,
    /// Its foot, then its top.
    Foot,
    /// Its middle.
    Middle,
}

impl Style {
    pub(super) const ALL: [Self; 3] = [Self::Top, Self::Foot, Self::Middle];

    /// The highest place whose first key is at most `key`.
    fn highest(self, key: i64, height: i64) -> i64 {
        match self {
            Self::Top => key - height,
            Self::Foot => key,
            Self::Middle => (key - height) / 2,
        }
    }

    pub(super) fn key(self, y: i64, x: i64, height: i64) -> (i64, i64, i64) {
        match self {
            Self::Top => (y + height, y, x),
            Self::Foot => (y, y + height, x),
            Self::Middle => (2 * y + height, y, x),
        }
    }
}

/// A lay of some or all placements.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub(in crate::lay) struct Layout {
    /// What lies on each bin.
    pub on: Vec<Vec<KindPlacement>>,
    /// Kinds of what found no room, one entry a placement.
    pub left: Vec<usize>,
}

impl Layout {
    /// The highest top on `bin`.
    pub(in crate::lay) fn length(&self, nest: &Nest, bin: usize) -> i64 {
        let placement = self.on[bin].iter().map(|p| p.y + nest.shapes[p.way.shape].height);
        let fixed = nest.fixed.iter().filter(|f| f.bin == bin).map(|f| f.y + nest.shapes[f.shape].height);
        placement.chain(fixed).max().unwrap_or(0)
    }
}

/// The obstacles on `bin`: what lies there and what is pinned there.
pub(super) fn obstacles(nest: &Nest, bin: usize, placement: &[KindPlacement]) -> Vec<Obstacle> {
    let fixed = nest.fixed.iter().filter(|f| f.bin == bin).map(|f| Obstacle { shape: f.shape, x: f.x, y: f.y });
    fixed.chain(placement.iter().map(|p| Obstacle { shape: p.way.shape, x: p.x, y: p.y })).collect()
}

/// The place itself if all still comes apart by cuts from edge to edge, else one above everything.
fn apart(nest: &Nest, bin: usize, shape: usize, placement: &[KindPlacement], (x, y): (i64, i64)) -> Option<(i64, i64)> {
    let mut boxes = boxes(nest, bin, placement);
    let (width, height) = (nest.shapes[shape].width, nest.shapes[shape].height);
    let top = boxes.iter().map(Region::top).max().unwrap_or(0);
    boxes.push(Region { x, y, width, height });
    if comes_apart(&boxes) {
        return Some((x, y));
    }
    let obstacles = obstacles(nest, bin, placement);
    let from = if top > 0 { top + nest.gap.0 } else { 0 };
    let above = Finder::default().lowest(nest, bin, shape, &obstacles, from, i64::MAX);
    if let Some(above) = above.filter(|above| above.y >= top) {
        return Some((above.x, above.y));
    }
    // Slid down, a shape comes to lie beside what is below: then it stays where the cut above that leaves it.
    let inner = nest.inner(bin, shape);
    let (x, _) = inner.across(from).filter(|_| from <= inner.bounds[3])?;
    let free = !inner.missing.iter().any(|m| m.holds(x, from));
    free.then_some((x, from))
}

/// The bounding boxes of what lies on `bin`, pinned or put there.
pub(in crate::lay) fn boxes(nest: &Nest, bin: usize, placement: &[KindPlacement]) -> Vec<Region> {
    let of = |shape: usize, x: i64, y: i64| {
        let shape = &nest.shapes[shape];
        Region { x, y, width: shape.width, height: shape.height }
    };
    let fixed = nest.fixed.iter().filter(|f| f.bin == bin).map(|f| of(f.shape, f.x, f.y));
    fixed.chain(placement.iter().map(|p| of(p.way.shape, p.x, p.y))).collect()
}

/// Whether cuts from edge to edge take the boxes apart.
pub(super) fn comes_apart(boxes: &[Region]) -> bool {
    let right = boxes.iter().map(Region::right).max().unwrap_or(0);
    let top = boxes.iter().map(Region::top).max().unwrap_or(0);
    guillotine::comes_apart(Region { x: 0, y: 0, width: right, height: top }, boxes)
}

/// Lays one placement of each kind in `order`.
pub(super) fn fill(nest: &Nest, order: &[usize], style: Style, finder: &mut Finder) -> Layout {
    let nothing = Layout { on: vec![vec![]; nest.bins.len()], left: vec![] };
    fill_on(nest, nothing, order, style, finder)
}

/// Goes on from `layout` with one placement of each kind in `order`.
pub(super) fn fill_on(nest: &Nest, layout: Layout, order: &[usize], style: Style, finder: &mut Finder) -> Layout {
    let mut layout = Layout { left: vec![], ..layout };
    let mut obstacles: Vec<Vec<Obstacle>> =
        layout.on.iter().enumerate().map(|(g, placement)| obstacles(nest, g, placement)).collect();
    // What was too low for a shape stays too low: things are only added.
    let mut from = vec![0_i64; nest.bins.len() * nest.shapes.len()];
    for &kind in order {
        if nest.stop.asked() {
            layout.left.push(kind);
            continue;
        }
        let found = nest.kinds[kind].bins.iter().find_map(|&g| {
            let mut best: Option<((i64, i64, i64), KindPlacement)> = None;
            for &way in &nest.kinds[kind].ways[g] {
                let at = g * nest.shapes.len() + way.shape;
                if from[at] == i64::MAX {
                    continue;
                }
                let height = nest.shapes[way.shape].height;
                let most = best.map_or(i64::MAX, |(b, _)| style.highest(b.0, height));
                let Some(found) = finder.lowest(nest, g, way.shape, &obstacles[g], from[at], most) else {
                    from[at] = from[at].max(most.saturating_add(1));
                    continue;
                };
                from[at] = found.level;
                let (x, y) = (found.x, found.y);
                let (x, y) = if nest.through {
                    let Some(place) = apart(nest, g, way.shape, &layout.on[g], (x, y)) else { continue };
                    place
                } else {
                    (x, y)
                };
                let key = style.key(y, x, height);
                if best.is_none_or(|(b, _)| key < b) {
                    best = Some((key, KindPlacement { kind, way, x, y }));
                }
            }
            best.map(|(_, placement)| (g, placement))
        });
        match found {
            Some((g, placement)) => {
                obstacles[g].push(Obstacle { shape: placement.way.shape, x: placement.x, y: placement.y });
                layout.on[g].push(placement);
            }
            None => layout.left.push(kind),
        }
    }
    layout
}

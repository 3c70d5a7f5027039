//! Whether a lay can be cut edge to edge, and how: a tree of cuts, each right across what is left.

/// A rectangle of cloth.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub struct Region {
    /// Left edge.
    pub x: i64,
    /// Lower edge.
    pub y: i64,
    /// Across.
    pub width: i64,
    /// Along.
    pub height: i64,
}

impl Region {
    /// Right edge.
    pub const fn right(&self) -> i64 {
        self.x + self.width
    }

    /// Upper edge.
    pub const fn top(&self) -> i64 {
        self.y + self.height
    }

    /// The part below and the part above a line across at `y`.
    pub const fn split_across(&self, y: i64) -> (Self, Self) {
        (Self { height: y - self.y, ..*self }, Self { y, height: self.top() - y, ..*self })
    }

    /// The part left and the part right of a line along at `x`.
    pub const fn split_along(&self, x: i64) -> (Self, Self) {
        (Self { width: x - self.x, ..*self }, Self { x, width: self.right() - x, ..*self })
    }
}

/// How a region comes apart.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum CutTree {
    /// Nothing in it.
    Empty(Region),
    /// Exactly the piece with this index.
    Piece(Region, usize),
    /// A cut across at `at`: the part below, the part above.
    Across {
        /// What is cut.
        region: Region,
        /// Height of the line.
        at: i64,
        /// Below and above.
        parts: Box<(CutTree, CutTree)>,
    },
    /// A cut along at `at`: the part to the left, the part to the right.
    Along {
        /// What is cut.
        region: Region,
        /// Place of the line.
        at: i64,
        /// Left and right.
        parts: Box<(CutTree, CutTree)>,
    },
}

/// The tree that takes `region` apart into `pieces` by cuts from edge to edge, strips across first, or nothing when
/// no such tree exists. Pieces are inside the region and do not overlap.
pub fn cut_tree(region: Region, pieces: &[Region]) -> Option<CutTree> {
    let all: Vec<usize> = (0..pieces.len()).collect();
    split(region, pieces, &all)
}

/// The first line that crosses no piece and leaves something on its nearer side, across before along: the lowest
/// across, else the leftmost along.
pub(crate) fn first_line(region: Region, pieces: &[Region], inside: &[usize]) -> Option<(bool, i64)> {
    let across = free_line(region.y, region.top(), inside.iter().map(|&i| (pieces[i].y, pieces[i].top())));
    if let Some(at) = across {
        return Some((true, at));
    }
    free_line(region.x, region.right(), inside.iter().map(|&i| (pieces[i].x, pieces[i].right()))).map(|at| (false, at))
}

fn split(region: Region, pieces: &[Region], inside: &[usize]) -> Option<CutTree> {
    match inside {
        [] => return Some(CutTree::Empty(region)),
        [only] if pieces[*only] == region => return Some(CutTree::Piece(region, *only)),
        _ => {}
    }
    // Any line that crosses no piece may be taken: what can be cut after another line can be cut after this one.
    let (across, at) = first_line(region, pieces, inside)?;
    let (near, far): (Vec<usize>, Vec<usize>) =
        inside.iter().partition(|&&i| if across { pieces[i].top() <= at } else { pieces[i].right() <= at });
    let (near_region, far_region) = if across { region.split_across(at) } else { region.split_along(at) };
    let parts = Box::new((split(near_region, pieces, &near)?, split(far_region, pieces, &far)?));
    Some(if across { CutTree::Across { region, at, parts } } else { CutTree::Along { region, at, parts } })
}

/// The first end of a span, or start of one after a bare stretch, strictly inside `low..high` that no span crosses.
fn free_line(low: i64, high: i64, spans: impl Iterator<Item = (i64, i64)>) -> Option<i64> {
    let mut spans: Vec<(i64, i64)> = spans.collect();
    spans.sort_unstable();
    let mut reach = spans.first()?.0;
    if reach > low {
        return Some(reach);
    }
    for (start, end) in spans {
        if start >= reach && reach > low {
            return Some(reach);
        }
        reach = reach.max(end);
    }
    (reach < high).then_some(reach)
}

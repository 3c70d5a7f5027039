//! Cuts from edge to edge (guillotine cuts): which line crosses no piece, and whether a cloth comes apart by such lines
//! alone. Everything here works through a list of parts instead of calling itself, so that thousands of pieces in a row
//! need no deeper stack than two.

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

    /// The nearer and the farther part of a line that runs `across` or along, at `at`.
    pub const fn split(&self, across: bool, at: i64) -> (Self, Self) {
        if across { self.split_across(at) } else { self.split_along(at) }
    }
}

/// The pieces in one part of the cloth, sorted once by their lower and by their left edges, so that every later look
/// for a line is one pass over them.
#[derive(Clone, Debug)]
pub(crate) struct Inside {
    by_low: Vec<u32>,
    by_left: Vec<u32>,
}

impl Inside {
    /// All of `pieces`.
    pub(crate) fn all(pieces: &[Region]) -> Self {
        let sorted = |key: fn(&Region) -> (i64, i64)| {
            let mut all: Vec<u32> = (0..pieces.len() as u32).collect();
            all.sort_by_key(|&i| key(&pieces[i as usize]));
            all
        };
        Self { by_low: sorted(|r| (r.y, r.x)), by_left: sorted(|r| (r.x, r.y)) }
    }

    /// One piece alone.
    pub(crate) fn one(piece: usize) -> Self {
        Self { by_low: vec![piece as u32], by_left: vec![piece as u32] }
    }

    /// Whether there are none.
    pub(crate) fn is_empty(&self) -> bool {
        self.by_low.is_empty()
    }

    /// The one piece, if there is but one.
    pub(crate) fn only(&self) -> Option<usize> {
        match self.by_low[..] {
            [only] => Some(only as usize),
            _ => None,
        }
    }

    /// The pieces from the lowest up, of those as low from the leftmost.
    pub(crate) fn lowest_first(&self) -> impl Iterator<Item = usize> {
        self.by_low.iter().map(|&i| i as usize)
    }

    /// The first line that crosses no piece and leaves something on its nearer side, across (true) before along: the
    /// lowest across, else the leftmost along. Any such line may be taken: what can be cut after another line can be
    /// cut after this one.
    pub(crate) fn first_line(&self, region: Region, pieces: &[Region]) -> Option<(bool, i64)> {
        let across = free_line(region.y, region.top(), self.by_low.iter().map(|&i| span_up(&pieces[i as usize])));
        if let Some(at) = across {
            return Some((true, at));
        }
        free_line(region.x, region.right(), self.by_left.iter().map(|&i| span_across(&pieces[i as usize])))
            .map(|at| (false, at))
    }

    /// The pieces on the nearer side of a line that crosses none, and those on the farther.
    pub(crate) fn split(self, pieces: &[Region], across: bool, at: i64) -> (Self, Self) {
        let near = |&i: &u32| {
            let piece = &pieces[i as usize];
            if across { piece.top() <= at } else { piece.right() <= at }
        };
        let (low_near, low_far) = self.by_low.into_iter().partition(near);
        let (left_near, left_far) = self.by_left.into_iter().partition(near);
        (Self { by_low: low_near, by_left: left_near }, Self { by_low: low_far, by_left: left_far })
    }

    /// The pieces without one of them.
    pub(crate) fn without(mut self, piece: usize) -> Self {
        self.by_low.retain(|&i| i as usize != piece);
        self.by_left.retain(|&i| i as usize != piece);
        self
    }
}

/// Whether cuts from edge to edge take `region` apart into `pieces`, which lie inside and do not overlap.
pub fn comes_apart(region: Region, pieces: &[Region]) -> bool {
    let mut parts = vec![(region, Inside::all(pieces))];
    while let Some((part, inside)) = parts.pop() {
        if inside.is_empty() || inside.only().is_some_and(|only| pieces[only] == part) {
            continue;
        }
        let Some((across, at)) = inside.first_line(part, pieces) else { return false };
        let (near, far) = part.split(across, at);
        let (inside_near, inside_far) = inside.split(pieces, across, at);
        parts.push((far, inside_far));
        parts.push((near, inside_near));
    }
    true
}

const fn span_up(r: &Region) -> (i64, i64) {
    (r.y, r.top())
}

const fn span_across(r: &Region) -> (i64, i64) {
    (r.x, r.right())
}

/// The first end of a span, or start of one after a bare stretch, strictly inside `low..high` that no span crosses; the
/// spans come sorted by their starts.
fn free_line(low: i64, high: i64, spans: impl Iterator<Item = (i64, i64)>) -> Option<i64> {
    let mut reach: Option<i64> = None;
    for (start, end) in spans {
        match reach {
            None if start > low => return Some(start),
            None => reach = Some(end.max(start)),
            Some(so_far) if start >= so_far && so_far > low => return Some(so_far),
            Some(so_far) => reach = Some(so_far.max(end)),
        }
    }
    reach.filter(|r| *r < high)
}

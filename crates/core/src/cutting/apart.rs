//! The order in which a cloth comes apart.

use super::groups::{Group, groups_of, overlap};
use super::left::{LeftPart, LeftShape, is_worth_keeping};
use super::part::{EdgeStretch, PartName, PartShape};
use super::sight::sights_of;
use super::steps::{Cut, CutKind, Edge, Freed, Kept, Line, Marking, On, OutlineCut, Side, Step};
use crate::cloth::{Cloth, Form};
use crate::lay::{ClothLay, Inside, Job, JobPiece, Placement, Region, comes_apart, outline_on_cloth, rest_of_region};
use crate::measure::{Length, Ruler};
use crate::shape::{Outline, Point};

/// Of more pieces than these the strips are not weighed against what lies beside them: that takes a look at every piece
/// for every cut.
const MOST_WEIGHED: usize = 1_000;
/// A shorter edge is not measured from where a longer one is there: a ruler laid against it would turn.
const LEAST_EDGE: Length = Length::inches(2, 1);
/// Bare cloth that is thinner is not cut off: nobody can.
const SLIVER: Length = Length::inches(1, 64);

/// The steps that take one cloth apart: strip by strip, as one works at the table, unless cutting off what lies beside
/// the pieces first keeps a part in one that is larger by a quarter at least.
pub(super) fn apart(job: &Job, lay: &ClothLay) -> Vec<Step> {
    let by_strips = apart_by(job, lay, false);
    if lay.placements.len() > MOST_WEIGHED {
        return by_strips;
    }
    let aside_first = apart_by(job, lay, true);
    if larger_by_a_quarter(largest_kept(&aside_first), largest_kept(&by_strips)) { aside_first } else { by_strips }
}

fn largest_kept(steps: &[Step]) -> i128 {
    let area = |kept: &Kept| match kept {
        Kept::Part(part) => area(part.at),
        Kept::Shape(_) => 0,
    };
    steps.iter().flat_map(Step::keeps).map(|(_, kept)| area(kept)).max().unwrap_or(0)
}

const fn larger_by_a_quarter(new: i128, old: i128) -> bool {
    new * 4 >= old * 5 && new > old
}

fn area(region: Region) -> i128 {
    i128::from(region.width) * i128::from(region.height)
}

fn apart_by(job: &Job, lay: &ClothLay, aside_first: bool) -> Vec<Step> {
    let Some(cloth) = job.cloth(&lay.cloth) else { return vec![] };
    let pieces = job.pieces_by_id();
    let known: Vec<(&JobPiece, &Placement)> =
        lay.placements.iter().filter_map(|p| Some((*pieces.get(p.piece.as_str())?, p))).collect();
    let on = On { cloth: lay.cloth.clone(), copy: lay.copy };
    let corner = cloth.corner();
    let right = cloth.left_edge() + cloth.usable_width();
    let there = lay.lies(cloth);
    let mut table = Table {
        job,
        lay,
        cloth,
        aside_first,
        boxes: known.iter().map(|(piece, p)| box_of(piece, p)).collect(),
        known: &known,
        groups: vec![],
        group_boxes: vec![],
        usable: (right.0, (corner.y + there - cloth.trim).0),
        on,
        letters: 1,
        steps: vec![],
    };
    let whole = Region { x: corner.x.0, y: corner.y.0, width: cloth.washed_width().0, height: there.0 };
    if matches!(cloth.form, Form::Scrap { .. }) {
        table.off_a_scrap(whole);
    } else {
        table.groups = groups_of(&table.boxes);
        table.group_boxes = table.groups.iter().map(|g| g.around).collect();
        table.widen_to_the_ruler(whole);
        table.take_apart(whole);
    }
    table.steps
}

/// Whether straight cuts along its bounding box do not give the piece.
fn is_shaped(piece: &JobPiece, placement: &Placement) -> bool {
    let rect = matches!(piece.outline, Outline::Rect(..));
    !rect || !placement.turn.degrees().is_multiple_of(90)
}

fn box_of(piece: &JobPiece, placement: &Placement) -> Region {
    let (width, height) = piece.outline.extent(placement.turn, placement.mirrored);
    // On the fold only the right half is on the cloth.
    let (x, width) = if placement.on_fold { (0, (placement.x + width).0) } else { (placement.x.0, width.0) };
    Region { x, y: placement.y.0, width, height: height.0 }
}

struct Table<'a> {
    job: &'a Job,
    lay: &'a ClothLay,
    cloth: &'a Cloth,
    on: On,
    /// The pieces and where they lie.
    known: &'a [(&'a JobPiece, &'a Placement)],
    /// The box of each.
    boxes: Vec<Region>,
    groups: Vec<Group>,
    /// The box of each group.
    group_boxes: Vec<Region>,
    /// Right and far end of what can be used: beyond are the selvedge and the end that is trimmed.
    usable: (i64, i64),
    /// What lies beside the pieces is cut off before the strips, where that keeps more in one.
    aside_first: bool,
    /// How many letters are taken.
    letters: u32,
    steps: Vec<Step>,
}

/// A part that is still to be cut, with the groups in it.
struct Waiting {
    name: PartName,
    shape: PartShape,
    inside: Inside,
}

/// What lies on one side of a cut.
enum Lies {
    /// A finished piece, by its index.
    Piece(usize),
    /// Bare.
    Bare(PartShape),
    /// More than one piece, or one that is not free yet.
    More(PartShape, Inside),
}

impl Table<'_> {
    /// The boxes around pieces that are marked out end on lines of the ruler where there is room for that: a nest of
    /// shaped pieces lies anywhere, and the cut around it must be one that can be set.
    fn widen_to_the_ruler(&mut self, whole: Region) {
        if self.groups.len() > MOST_WEIGHED {
            return;
        }
        let step = Ruler::default_for(self.job.units).step().0;
        let (x0, y0) = (whole.x + self.cloth.left_edge().0, whole.y + self.cloth.trim.0);
        let (right, top) = self.usable;
        let exact = self.group_boxes.clone();
        for n in 0..self.groups.len() {
            if self.piece_of(n).is_some() {
                continue;
            }
            let a = self.group_boxes[n];
            let down = |v: i64, zero: i64| v - (v - zero).rem_euclid(step);
            let up = |v: i64, zero: i64| v + (zero - v).rem_euclid(step);
            let (x, y) = (down(a.x, x0), down(a.y, y0));
            let wider = Region { x, y, width: up(a.right(), x0) - x, height: up(a.top(), y0) - y };
            let on_cloth = wider.right() <= right && wider.top() <= top;
            let clear = |m: usize| m == n || !overlap(&self.group_boxes[m], &wider);
            if on_cloth && (0..self.groups.len()).all(clear) {
                self.group_boxes[n] = wider;
            }
        }
        // Rounding a box never costs a cut from edge to edge.
        if comes_apart(whole, &exact) && !comes_apart(whole, &self.group_boxes) {
            self.group_boxes = exact;
        }
    }

    fn take_apart(&mut self, whole: Region) {
        let mut rest = PartShape::whole(whole);
        let trim = self.cloth.trim;
        if trim > Length::ZERO {
            let (_, left) = rest.split(true, whole.y + trim.0);
            self.first(CutKind::SquareEnd, &rest, &left);
            rest = left;
        }
        rest = self.length_off(rest);
        let selvedge = self.cloth.left_edge();
        if selvedge > Length::ZERO {
            let (_, left) = rest.split(false, whole.x + selvedge.0);
            self.first(CutKind::Selvedge, &rest, &left);
            rest = left;
        }
        self.divide(Waiting { name: PartName::WHOLE, shape: rest, inside: Inside::all(&self.group_boxes) });
    }

    /// Of a length that is there and longer than needed, what the pieces take is cut off, so that the rest stays a length
    /// with its selvedges on.
    fn length_off(&mut self, part: PartShape) -> PartShape {
        let Form::Roll { length: Some(_), .. } = self.cloth.form else { return part };
        let Some(top) = self.group_boxes.iter().map(Region::top).max() else { return part };
        let end = self.usable.1;
        if end <= top {
            return part;
        }
        let left = LeftPart::length_of(self.cloth, top, end);
        if !left.is_worth_keeping(self.job.rules.keep) {
            return part;
        }
        let (near, _) = part.split(true, top);
        let name = self.next_letter();
        let cut = self.straight(CutKind::Through, PartName::WHOLE, &part, true, top);
        let kept = Kept::Part(left);
        self.push(Cut {
            near: Some(Side::Part(PartName::WHOLE, near.clone())),
            far: Some(Side::Keep(name, kept.clone())),
            keeps: vec![(name, kept)],
            ..cut
        });
        near
    }

    /// One of the first cuts, which takes nothing but an edge off.
    fn first(&mut self, kind: CutKind, part: &PartShape, left: &PartShape) {
        let (across, at) = match kind {
            CutKind::SquareEnd => (true, left.around.y),
            _ => (false, left.around.x),
        };
        let cut = self.straight(kind, PartName::WHOLE, part, across, at);
        let far = Some(Side::Part(PartName::WHOLE, left.clone()));
        self.push(Cut { far, motif: self.motif(kind, at), ..cut });
    }

    /// Takes a part apart. What is cut off first is divided first; the rest waits in a list, since a row of thousands
    /// of pieces is as many cuts one after the other.
    fn divide(&mut self, all: Waiting) {
        let mut parts = vec![all];
        while let Some(Waiting { name, shape, inside }) = parts.pop() {
            if inside.is_empty() {
                continue;
            }
            if let Some(only) = inside.only().filter(|&only| self.fills(only, &shape)) {
                if self.piece_of(only).is_none() {
                    self.mark_out(name, shape, only);
                }
                continue;
            }
            let aside = if self.aside_first { self.keeps_more(&shape, &inside) } else { None };
            let line = aside.map(|at| (false, at)).or_else(|| inside.first_line(shape.around, &self.group_boxes));
            let (near, far) = if let Some((across, at)) = line {
                let (inside_near, inside_far) = inside.split(&self.group_boxes, across, at);
                let (thin_near, thin_far) = shape.split(across, at);
                let thin = |half: &PartShape| if across { half.around.height } else { half.around.width } < SLIVER.0;
                if inside_near.is_empty() && thin(&thin_near) {
                    parts.push(Waiting { name, shape: thin_far, inside: inside_far });
                    continue;
                }
                if inside_far.is_empty() && thin(&thin_far) {
                    parts.push(Waiting { name, shape: thin_near, inside: inside_near });
                    continue;
                }
                let at = self.on_the_ruler(&shape, across, at);
                let (near, far) = shape.split(across, at);
                let cut = self.straight(CutKind::Through, name, &shape, across, at);
                self.two_sides(name, cut, (near, inside_near), (far, inside_far))
            } else {
                let Some(first) = self.in_the_corner(&inside) else { continue };
                self.corner_off(name, &shape, inside, first)
            };
            parts.extend(far);
            parts.extend(near);
        }
    }

    /// The group that can be cut out of the nearest left corner without touching another. There always is one: of
    /// rectangles that do not overlap, one has no other both further left than its right side and nearer than its far
    /// side (den Boef, Korst, Martello, Pisinger and Vigo 2005, on packings that a robot can make; from memory).
    fn in_the_corner(&self, inside: &Inside) -> Option<usize> {
        let boxes = &self.group_boxes;
        inside.lowest_first().find(|&p| {
            let (right, top) = (boxes[p].right(), boxes[p].top());
            let nearer = inside.lowest_first().take_while(|&q| boxes[q].y < top);
            nearer.filter(|&q| q != p).all(|q| boxes[q].x >= right)
        })
    }

    /// Cuts the corner that holds `first` out of a part by two cuts that meet.
    fn corner_off(
        &mut self,
        name: PartName,
        shape: &PartShape,
        inside: Inside,
        first: usize,
    ) -> (Option<Waiting>, Option<Waiting>) {
        let around = self.group_boxes[first];
        let (right, top) =
            (self.on_the_ruler(shape, false, around.right()), self.on_the_ruler(shape, true, around.top()));
        let (corner, rest) = shape.without_corner(right, top);
        let up = Line { x1: Length(right), y1: Length(shape.near_at(right)), x2: Length(right), y2: Length(top) };
        let over = Line { x1: Length(shape.left_at(top)), y1: Length(top), x2: Length(right), y2: Length(top) };
        let cut = self.along(CutKind::Stopped, name, shape, false, up);
        self.push(Cut { far: Some(Side::Part(name, shape.clone())), ..cut });
        let cut = self.along(CutKind::Stopped, name, shape, true, over);
        let only = Inside::one(first);
        self.two_sides(name, cut, (corner, only), (rest, inside.without(first)))
    }

    /// Makes a cut that parts `near` from `far` and says what each is; gives those that are still to be cut.
    fn two_sides(
        &mut self,
        name: PartName,
        cut: Cut,
        near: (PartShape, Inside),
        far: (PartShape, Inside),
    ) -> (Option<Waiting>, Option<Waiting>) {
        let (near, far) = (self.lies(near), self.lies(far));
        let both = matches!((&near, &far), (Lies::More(..), Lies::More(..)));
        let mut cut = Cut { far: None, ..cut };
        let mut freed = vec![];
        let mut waiting = [None, None];
        let mut sides = [None, None];
        for (n, side) in [near, far].into_iter().enumerate() {
            sides[n] = Some(match side {
                Lies::Piece(piece) => {
                    freed.push(piece);
                    cut.frees.extend(self.freed(piece));
                    Side::Piece(self.freed(piece))
                }
                Lies::Bare(shape) => match self.worth_keeping(&shape) {
                    Some(kept) => {
                        let letter = self.next_letter();
                        cut.keeps.push((letter, kept.clone()));
                        Side::Keep(letter, kept)
                    }
                    None => Side::Waste,
                },
                Lies::More(shape, inside) => {
                    // Of two that are still to be cut the nearer one is new: it is cut up before the rest.
                    let name = if both && n == 0 { self.next_letter() } else { name };
                    waiting[n] = Some(Waiting { name, shape: shape.clone(), inside });
                    Side::Part(name, shape)
                }
            });
        }
        [cut.near, cut.far] = sides;
        self.push(cut);
        for piece in freed {
            self.slit(piece);
        }
        let [near, far] = waiting;
        (near, far)
    }

    fn lies(&self, (shape, inside): (PartShape, Inside)) -> Lies {
        if inside.is_empty() {
            return Lies::Bare(shape);
        }
        let free = inside.only().filter(|&only| self.fills(only, &shape));
        match free.and_then(|only| self.piece_of(only)) {
            Some(piece) => Lies::Piece(piece),
            None => Lies::More(shape, inside),
        }
    }

    /// Whether nothing more can be cut off around the box of a group.
    fn fills(&self, group: usize, shape: &PartShape) -> bool {
        let (a, b) = (shape.around, self.group_boxes[group]);
        let near = |x: i64, y: i64| (x - y).abs() < SLIVER.0;
        shape.is_whole() && near(a.x, b.x) && near(a.y, b.y) && near(a.right(), b.right()) && near(a.top(), b.top())
    }

    /// The piece of a group that straight cuts free.
    fn piece_of(&self, group: usize) -> Option<usize> {
        match self.groups[group].pieces[..] {
            [only] if !is_shaped(self.known[only].0, self.known[only].1) => Some(only),
            _ => None,
        }
    }

    /// Bare cloth, if it is worth keeping.
    fn worth_keeping(&self, shape: &PartShape) -> Option<Kept> {
        let keep = self.job.rules.keep;
        if shape.is_whole() {
            let part = LeftPart::of(self.cloth, self.usable_of(shape.around));
            return part.is_worth_keeping(keep).then_some(Kept::Part(part));
        }
        self.shape_worth_keeping(area(shape.around), || shape.corners())
    }

    /// An outline other than a rectangle, if a rectangle worth keeping can be cut from it. On folded cloth the layers may hang
    /// together, so nothing is promised.
    fn shape_worth_keeping(&self, at_most: i128, corners: impl FnOnce() -> Vec<Point>) -> Option<Kept> {
        let keep = self.job.rules.keep;
        if self.cloth.layers == 2 || at_most < i128::from(keep.0.0) * i128::from(keep.1.0) {
            return None;
        }
        LeftShape::worth_keeping(corners(), &[], keep).map(Kept::Shape)
    }

    /// Without the selvedge at the right and the end that is trimmed.
    fn usable_of(&self, part: Region) -> Region {
        let (right, top) = self.usable;
        Region { width: part.width.min(right - part.x), height: part.height.min(top - part.y), ..part }
    }

    /// Where to cut along first, so that the bare cloth right of all pieces stays whole, when that is worth keeping and
    /// larger than the bare cloth beyond them, which stays whole otherwise.
    fn keeps_more(&self, shape: &PartShape, inside: &Inside) -> Option<i64> {
        let around = shape.around;
        let all = || inside.lowest_first().map(|i| self.group_boxes[i]);
        let (right, top) = (all().map(|r| r.right()).max()?, all().map(|r| r.top()).max()?);
        let worth = |part: PartShape| {
            let part = Some(part).filter(PartShape::is_whole).map(|p| self.usable_of(p.around));
            let size = |p: &Region| (Length(p.width), Length(p.height));
            part.filter(|p| is_worth_keeping(size(p), self.job.rules.keep)).map_or(0, area)
        };
        let aside = if right < around.right() { worth(shape.split(false, right).1) } else { 0 };
        let beyond = if top < around.top() { worth(shape.split(true, top).1) } else { 0 };
        (aside > beyond).then_some(right)
    }

    /// Marks out and cuts the pieces of a group whose box the part is.
    fn mark_out(&mut self, name: PartName, shape: PartShape, group: usize) {
        let pieces = self.groups[group].pieces.clone();
        let rests = if self.cloth.layers == 1 { self.left_around(&shape, &pieces) } else { vec![] };
        self.mark_out_all(name, &shape, &pieces, |_| vec![], rests);
    }

    /// What remains around the pieces of a part that is worth keeping.
    fn left_around(&self, shape: &PartShape, pieces: &[usize]) -> Vec<Kept> {
        let taken: i128 = pieces.iter().map(|&n| self.known[n].0.outline.area().0).sum();
        let bare = area(shape.around) - taken;
        let keep = self.job.rules.keep;
        if bare < i128::from(keep.0.0) * i128::from(keep.1.0) {
            return vec![];
        }
        let rests = rest_of_region(self.job, self.lay, shape.around).into_iter();
        rests.filter_map(|rest| LeftShape::worth_keeping(rest.corners, &rest.holes, keep)).map(Kept::Shape).collect()
    }

    /// On a scrap every piece is marked out from its corners, and all before the first is cut.
    fn off_a_scrap(&mut self, whole: Region) {
        let Form::Scrap { outline, .. } = &self.cloth.form else { return };
        let edge: Vec<Point> = outline.corners().into_iter().map(|p| self.cloth.washed(p)).collect();
        let outlines: Vec<Vec<Point>> = self.known.iter().map(|(piece, p)| outline_on_cloth(piece, p)).collect();
        let pieces: Vec<usize> = (0..self.known.len()).collect();
        let shape = PartShape::whole(whole);
        self.mark_out_all(PartName::WHOLE, &shape, &pieces, |n| sights_of(&outlines[n], &edge), vec![]);
    }

    fn mark_out_all(
        &mut self,
        part: PartName,
        lies: &PartShape,
        pieces: &[usize],
        sights: impl Fn(usize) -> Vec<super::Sight>,
        rests: Vec<Kept>,
    ) {
        let on_scrap = matches!(self.cloth.form, Form::Scrap { .. });
        let marked = |table: &Self, n: usize, marking: Marking| {
            let placement = table.known[n].1;
            OutlineCut {
                part,
                marking,
                pieces: table.freed(n),
                // Alone in its part, which may be a little larger, it is laid into the corner.
                around: match pieces {
                    [_] if !on_scrap => Region { x: lies.around.x, y: lies.around.y, ..table.boxes[n] },
                    _ => table.boxes[n],
                },
                turn: placement.turn,
                mirrored: placement.mirrored,
                on_fold: placement.on_fold,
                lies: lies.clone(),
                sights: sights(n),
                keeps: vec![],
                last: false,
            }
        };
        let several = pieces.len() > 1;
        if several {
            for &n in pieces {
                let cut = marked(self, n, Marking::Draw);
                self.steps.push(Step::Outline { on: self.on.clone(), cut });
            }
        }
        for (at, &n) in pieces.iter().enumerate() {
            let marking = if several { Marking::Cut } else { Marking::DrawAndCut };
            let mut cut = marked(self, n, marking);
            if at + 1 == pieces.len() {
                cut.last = true;
                cut.keeps = rests.iter().map(|kept| (self.next_letter(), kept.clone())).collect();
            }
            self.steps.push(Step::Outline { on: self.on.clone(), cut });
            if self.has_a_side_on_the_fold(n) {
                self.slit(n);
            }
        }
    }

    /// Whether a shaped piece that is not half on the fold has a side along it.
    fn has_a_side_on_the_fold(&self, piece: usize) -> bool {
        let (shape, placement) = self.known[piece];
        if self.cloth.layers != 2 || placement.on_fold || placement.x != Length::ZERO {
            return false;
        }
        let corners = outline_on_cloth(shape, placement);
        let at_fold = |n: usize| corners[n % corners.len()].x == Length::ZERO;
        (0..corners.len()).any(|n| at_fold(n) && at_fold(n + 1))
    }

    fn next_letter(&mut self) -> PartName {
        self.letters += 1;
        PartName(self.letters - 1)
    }

    fn push(&mut self, cut: Cut) {
        self.steps.push(Step::Cut { on: self.on.clone(), cut });
    }

    fn freed(&self, piece: usize) -> Vec<Freed> {
        let (shape, p) = self.known[piece];
        let yields = shape.yielded_by(p, self.cloth);
        (p.copy..p.copy + yields).map(|copy| Freed { piece: p.piece.clone(), copy }).collect()
    }

    /// Slits the fold of a piece that lies at it and has come off, unless it lies half on it.
    fn slit(&mut self, piece: usize) {
        let (around, placement) = (self.boxes[piece], self.known[piece].1);
        if self.cloth.layers != 2 || placement.on_fold || around.x > 0 {
            return;
        }
        let x = Length(around.x);
        let line = Line { x1: x, y1: Length(around.y), x2: x, y2: Length(around.top()) };
        let shape = PartShape::whole(around);
        let cut = self.along(CutKind::Fold, PartName::WHOLE, &shape, false, line);
        let of = self.freed(piece);
        self.push(Cut { of, ..cut });
    }

    /// Where a cut at `at` really runs: its reading is brought to 1/64 in or 0.1 mm, so that what is measured from it
    /// next is measured from where it is.
    fn on_the_ruler(&self, lies: &PartShape, across: bool, at: i64) -> i64 {
        let (edges, long) = if across {
            (lies.near_edges(), lies.around.right() - lies.left_at(at))
        } else {
            (lies.left_edges(), lies.around.top() - lies.near_at(at))
        };
        let edge = edge_for(&edges, at, Length(long));
        edge.at + Ruler::default_for(self.job.units).finest(Length(at - edge.at)).0
    }

    /// A cut from edge to edge of a part.
    fn straight(&self, kind: CutKind, part: PartName, lies: &PartShape, across: bool, at: i64) -> Cut {
        let line = if across {
            Line { x1: Length(lies.left_at(at)), y1: Length(at), x2: Length(lies.around.right()), y2: Length(at) }
        } else {
            Line { x1: Length(at), y1: Length(lies.near_at(at)), x2: Length(at), y2: Length(lies.around.top()) }
        };
        self.along(kind, part, lies, across, line)
    }

    /// A cut along `line`, which runs `across` or along, measured from the edge that is there for it.
    fn along(&self, kind: CutKind, part: PartName, lies: &PartShape, across: bool, line: Line) -> Cut {
        let (from, at, edges) = if across {
            (Edge::Near, line.y1.0, lies.near_edges())
        } else {
            (Edge::Left, line.x1.0, lies.left_edges())
        };
        let edge = edge_for(&edges, at, line.length());
        Cut {
            kind,
            part,
            lies: lies.clone(),
            line,
            reading: Length(at - edge.at),
            from,
            edge,
            of: vec![],
            near: None,
            far: None,
            frees: vec![],
            keeps: vec![],
            motif: None,
        }
    }

    /// From a first cut at `at` to the middle of the next motif.
    fn motif(&self, kind: CutKind, at: i64) -> Option<Length> {
        let repeat = self.cloth.repeat?;
        let (every, from) = match kind {
            CutKind::SquareEnd => (repeat.along?, repeat.at.y),
            CutKind::Selvedge => (repeat.across?, repeat.at.x),
            CutKind::Fold | CutKind::Through | CutKind::Stopped => return None,
        };
        Some(Length((from.0 - at).rem_euclid(every.0)))
    }
}

/// The edge a cut at `at` is measured from: the outermost, unless so little is left of it that a ruler would turn; then
/// the longest on that side of the cut.
fn edge_for(edges: &[EdgeStretch], at: i64, cut: Length) -> EdgeStretch {
    let outermost = edges[0];
    let enough = LEAST_EDGE.0.min(cut.0 / 2);
    if outermost.length() >= enough {
        return outermost;
    }
    let before = edges.iter().filter(|e| e.at < at);
    before.copied().max_by_key(EdgeStretch::length).unwrap_or(outermost)
}

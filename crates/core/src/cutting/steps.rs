//! The steps at the table.

use super::Block;
use super::sight::{Sight, sights_of};
use crate::cloth::{Cloth, Form, Repeat, Scrap};
use crate::lay::{ClothLay, Inside, Job, JobPiece, Placement, Region, outline_on_cloth, rest_of_region};
use crate::measure::Length;
use crate::piece::{Figure, Piece};
use crate::shape::{Outline, Point};
use std::collections::HashSet;

/// The edge a reading is measured from.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Edge {
    /// The left edge of what lies there.
    Left,
    /// The edge nearest the maker: the cut end, or the last cut across.
    Near,
}

/// What kind of cut it is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum CutKind {
    /// Takes off just enough to make the end square.
    SquareEnd,
    /// Takes off a selvedge.
    Selvedge,
    /// Along the fold, so that two pieces come apart.
    Fold,
    /// Right across what lies there.
    Through,
    /// Stops at the end of the line: another piece lies beyond.
    Stopped,
}

/// A line on the cloth.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Line {
    /// Start, across.
    pub x1: Length,
    /// Start, along.
    pub y1: Length,
    /// End, across.
    pub x2: Length,
    /// End, along.
    pub y2: Length,
}

/// A piece that comes off.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Freed {
    /// Id of the piece.
    pub piece: String,
    /// Which copy.
    pub copy: u32,
}

/// One straight cut.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Cut {
    /// The kind.
    pub kind: CutKind,
    /// Where.
    pub line: Line,
    /// What to set on the ruler, measured from `from`.
    pub reading: Length,
    /// What the reading is measured from.
    pub from: Edge,
    /// The rectangle of cloth that lies there before the cut.
    pub lies: Region,
    /// Pieces that come off with this cut.
    pub frees: Vec<Freed>,
    /// A bare part that comes off with this cut.
    pub bare: Option<Region>,
    /// It is whole: no piece was cut out of it before.
    pub whole: bool,
    /// Of the first cuts on cloth with pieces placed on its print: how far beyond the cut the middle of a motif must lie.
    /// Where they run is told by that, not by the reading.
    pub motif: Option<Length>,
}

impl Cut {
    /// What to set on the ruler: from its edge, or where the print tells where it runs from the middle of a motif.
    pub fn reads(&self) -> Length {
        self.motif.unwrap_or(self.reading)
    }

    /// Of a cut that stops short, where along it the blade goes in and where it stops: from the near edge of what lies
    /// there when it runs along, from the left edge when it runs across. Nothing of a cut that runs from edge to edge.
    pub fn stretch(&self) -> Option<(Length, Length)> {
        let Line { x1, y1, x2, y2 } = self.line;
        match (self.kind, self.from) {
            (CutKind::Stopped, Edge::Left) => Some((y1 - Length(self.lies.y), y2 - Length(self.lies.y))),
            (CutKind::Stopped, Edge::Near) => Some((x1 - Length(self.lies.x), x2 - Length(self.lies.x))),
            (CutKind::SquareEnd | CutKind::Selvedge | CutKind::Fold | CutKind::Through, _) => None,
        }
    }
}

/// Corners cut out of finished rectangles.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct CornerCut {
    /// Id of the piece.
    pub piece: String,
    /// How many lie on each other.
    pub layers: u32,
    /// In the middle of both sides, at the fold, not at the lower corners.
    pub at_fold: bool,
    /// In from the side.
    pub across: Length,
    /// Up from the base.
    pub up: Length,
}

/// A shaped piece cut round its outline, where it lies.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct OutlineCut {
    /// The cloth.
    pub cloth: String,
    /// What comes off: two copies of a piece where the cloth lies in two layers.
    pub frees: Vec<Freed>,
    /// Its bounding box on the cloth.
    pub around: Region,
    /// The rectangle of cloth that lies there; of a scrap the box around all of it.
    pub lies: Region,
    /// On a scrap, which has no edge to measure from: two corners of the piece, each by its distance from two corners of
    /// the scrap.
    pub sights: Vec<Sight>,
}

/// One step at the table.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Step {
    /// A straight cut on the cloth with this id.
    Cut {
        /// The cloth.
        cloth: String,
        /// The cut.
        cut: Cut,
    },
    /// Round a template: the outline is not a rectangle.
    Outline(OutlineCut),
    /// A block of cloth is fused to its backing.
    Fuse {
        /// Id of the block among the pieces.
        block: String,
    },
    /// A fused block is cut, cloth and backing at once: straight or round a template, as a cloth is.
    Block {
        /// Id of the block among the pieces.
        block: String,
        /// What is done to it.
        step: Box<Step>,
    },
    /// Corners, after the rectangles.
    Corners(CornerCut),
}

impl Step {
    /// The bare part it frees, when that is worth keeping by the rules of `job`.
    pub fn kept(&self, job: &Job) -> Option<LeftPart> {
        let Self::Cut { cloth, cut } = self else { return None };
        let part = LeftPart::of(job.cloth(cloth)?, cut.bare.filter(|_| cut.whole)?);
        is_worth_keeping((part.width, part.height), job.rules.keep).then_some(part)
    }

    /// The cloth it works on; blocks and corners are cut off the cloth.
    pub fn cloth(&self) -> Option<&String> {
        match self {
            Self::Cut { cloth, .. } => Some(cloth),
            Self::Outline(round) => Some(&round.cloth),
            Self::Fuse { .. } | Self::Block { .. } | Self::Corners(_) => None,
        }
    }

    /// The pieces that come off the cloth with it.
    pub fn frees(&self) -> &[Freed] {
        match self {
            Self::Cut { cut, .. } => &cut.frees,
            Self::Block { step, .. } => step.frees(),
            Self::Outline(round) => &round.frees,
            Self::Fuse { .. } | Self::Corners(_) => &[],
        }
    }
}

/// Whether a bare part is as large as `keep`, either way round.
fn is_worth_keeping((width, height): (Length, Length), keep: (Length, Length)) -> bool {
    let is = |w: Length, h: Length| width >= w && height >= h;
    is(keep.0, keep.1) || is(keep.1, keep.0)
}

/// How a cloth comes apart.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum CutStyle {
    /// Every cut runs from edge to edge.
    EdgeToEdge,
    /// Some pieces are cut round a template, no straight cut stops short.
    RoundTemplates,
    /// Some straight cuts stop short.
    Stopped,
}

/// How the cloths that `steps` work on come apart.
pub fn cut_style<'a>(steps: impl IntoIterator<Item = &'a Step>) -> CutStyle {
    steps.into_iter().fold(CutStyle::EdgeToEdge, |so_far, step| match step {
        Step::Cut { cut, .. } if cut.kind == CutKind::Stopped => CutStyle::Stopped,
        Step::Outline(_) if so_far == CutStyle::EdgeToEdge => CutStyle::RoundTemplates,
        _ => so_far,
    })
}

/// All steps for the cloths of a lay, in their order, then those for `blocks`, then the corners of `pieces`.
pub fn cut_list(job: &Job, cloths: &[ClothLay], pieces: &[Piece], blocks: &[Block]) -> Vec<Step> {
    let mut steps: Vec<Step> = cloths.iter().flat_map(|lay| apart(job, lay)).collect();
    for block in blocks {
        steps.push(Step::Fuse { block: block.piece.clone() });
        let on_block = |step| Step::Block { block: block.piece.clone(), step: Box::new(step) };
        steps.extend(apart(&block.job, &block.lay).into_iter().map(on_block));
    }
    let lays = cloths.iter().chain(blocks.iter().map(|b| &b.lay));
    let there: HashSet<&str> = lays.flat_map(|c| &c.placements).map(|p| p.piece.as_str()).collect();
    let placed = |piece: &Piece| there.contains(piece.id.as_ref());
    let jobs = || std::iter::once(job).chain(blocks.iter().map(|b| &b.job));
    let square = |piece: &Piece| {
        jobs().find_map(|job| job.piece(&piece.id)).is_some_and(|p| matches!(p.outline, Outline::Rect(..)))
    };
    steps.extend(pieces.iter().filter(|p| placed(p) && square(p)).filter_map(|p| match &p.figure {
        Figure::CutOut { across, up } | Figure::CutAtFold { across, up } => Some(Step::Corners(CornerCut {
            piece: p.id.to_string(),
            layers: p.count,
            at_fold: matches!(p.figure, Figure::CutAtFold { .. }),
            across: across.size,
            up: up.size,
        })),
        _ => None,
    }));
    steps
}

/// A part that is left whole.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct LeftPart {
    /// Where it lies.
    pub at: Region,
    /// How many alike: two where both layers of folded cloth are apart.
    pub count: u32,
    /// How wide it is, opened out where it still hangs together at the fold.
    pub width: Length,
    /// How long.
    pub height: Length,
}

impl LeftPart {
    /// A bare part of `cloth`, of which no fold was slit.
    pub fn of(cloth: &Cloth, at: Region) -> Self {
        let (count, width) = match (cloth.layers, at.x == cloth.left_edge().0) {
            (2, true) => (1, at.width * 2),
            (2, false) => (2, at.width),
            _ => (1, at.width),
        };
        Self { at, count, width: Length(width), height: Length(at.height) }
    }
}

/// What the cuts of `lay` leave whole and is worth keeping, largest first: rectangles no cut of this plan runs through.
pub fn left_whole(job: &Job, lay: &ClothLay) -> Vec<LeftPart> {
    let mut found: Vec<LeftPart> = apart(job, lay).iter().filter_map(|step| step.kept(job)).collect();
    found.sort_by_key(|p| std::cmp::Reverse((p.width * p.height).0));
    found
}

/// What is left in one where pieces were cut out of it: its outline where it lies, and the same as a scrap.
pub struct LeftShape {
    /// Where it lies on the cloth.
    pub corners: Vec<Point>,
    /// As it comes back.
    pub scrap: Scrap,
}

/// What the cuts of `lay` leave in one of which pieces were cut out, round a template or by cuts that stop, where a
/// rectangle worth keeping can be cut from it. Of folded cloth, whose two layers may hang together anyhow, nothing is told.
pub fn left_shaped(job: &Job, lay: &ClothLay) -> Vec<LeftShape> {
    let keep = job.rules.keep;
    let single = job.cloth(&lay.cloth).is_some_and(|c| c.layers == 1);
    let rests = if single { taken_apart(job, lay).rests } else { vec![] };
    let shapes = rests.into_iter().flat_map(|rest| rest_of_region(job, lay, rest));
    let worth = |corners: Vec<Point>| {
        let scrap = Scrap::remnant(corners.clone(), &[], &[])?;
        scrap.holds().is_some_and(|size| is_worth_keeping(size, keep)).then_some(LeftShape { corners, scrap })
    };
    shapes.filter_map(worth).collect()
}

/// Of more pieces than these the strips are not weighed against what lies beside them: that takes a look at every piece
/// for every cut.
const MOST_WEIGHED: usize = 1_000;

/// The steps that take one cloth apart: strip by strip, as one works at the table, unless cutting off what lies beside
/// the pieces first keeps a part in one that is larger by a quarter at least.
fn apart(job: &Job, lay: &ClothLay) -> Vec<Step> {
    taken_apart(job, lay).steps
}

/// The steps that take a cloth apart, and the parts that are left of which pieces were cut out.
#[derive(Default)]
struct Apart {
    steps: Vec<Step>,
    rests: Vec<Region>,
}

fn taken_apart(job: &Job, lay: &ClothLay) -> Apart {
    let by_strips = apart_by(job, lay, false);
    let largest = |steps: &[Step]| steps.iter().filter_map(|s| s.kept(job)).map(|p| area(p.at)).max().unwrap_or(0);
    if lay.placements.len() > MOST_WEIGHED {
        return by_strips;
    }
    let aside_first = apart_by(job, lay, true);
    if larger_by_a_quarter(largest(&aside_first.steps), largest(&by_strips.steps)) { aside_first } else { by_strips }
}

const fn larger_by_a_quarter(new: i128, old: i128) -> bool {
    new * 4 >= old * 5 && new > old
}

fn area(region: Region) -> i128 {
    i128::from(region.width) * i128::from(region.height)
}

fn apart_by(job: &Job, lay: &ClothLay, aside_first: bool) -> Apart {
    let Some(cloth) = job.cloth(&lay.cloth) else { return Apart::default() };
    let pieces = job.pieces_by_id();
    let known = |p: &Placement| pieces.get(p.piece.as_str()).copied();
    let regions: Vec<Region> = lay.placements.iter().filter_map(|p| Some(region_of(known(p)?, p))).collect();
    let shaped: Vec<bool> = lay.placements.iter().map(|p| known(p).is_none_or(|piece| is_shaped(piece, p))).collect();
    let corner = cloth.corner();
    let there = lay.on_table(cloth);
    if let Form::Scrap { outline, .. } = &cloth.form {
        let whole = Region { x: corner.x.0, y: corner.y.0, width: cloth.washed_width().0, height: there.0 };
        let edge: Vec<Point> = outline.corners().into_iter().map(|p| cloth.washed(p)).collect();
        let outlines: Vec<Vec<Point>> =
            lay.placements.iter().map(|p| known(p).map_or_else(Vec::new, |piece| outline_on_cloth(piece, p))).collect();
        let round = |n: usize| {
            let (p, around) = (&lay.placements[n], regions[n]);
            // A corner that an earlier piece took with it is not there any more.
            let sights = sights_of(&outlines[n], &edge, &outlines[..n]);
            let frees = vec![Freed { piece: p.piece.clone(), copy: p.copy }];
            Step::Outline(OutlineCut { cloth: cloth.id.clone(), frees, around, lies: whole, sights })
        };
        return Apart { steps: (0..regions.len()).map(round).collect(), rests: vec![] };
    }
    let yields: Vec<u32> =
        lay.placements.iter().map(|p| known(p).map_or(1, |piece| piece.yielded_by(p, cloth))).collect();
    let right = cloth.left_edge() + cloth.usable_width();
    let mut table = Table {
        usable: (right.0, (corner.y + there - cloth.trim).0),
        keep: job.rules.keep,
        aside_first,
        cloth: &cloth.id,
        placements: &lay.placements,
        regions: &regions,
        shaped: &shaped,
        yields: &yields,
        folded: cloth.layers == 2,
        repeat: cloth.repeat,
        gone: vec![],
        steps: Vec::new(),
        rests: vec![],
    };
    let whole = Region { x: corner.x.0, y: corner.y.0, width: cloth.washed_width().0, height: there.0 };
    table.take_apart(whole, cloth.left_edge(), cloth.trim);
    Apart { steps: table.steps, rests: table.rests }
}

/// Whether straight cuts along its bounding box do not give the piece.
fn is_shaped(piece: &JobPiece, placement: &Placement) -> bool {
    let rect = matches!(piece.outline, Outline::Rect(..));
    !rect || !placement.turn.degrees().is_multiple_of(90)
}

fn region_of(piece: &JobPiece, placement: &Placement) -> Region {
    let (width, height) = piece.outline.extent(placement.turn);
    // On the fold only the right half is on the cloth.
    let (x, width) = if placement.on_fold { (0, (placement.x + width).0) } else { (placement.x.0, width.0) };
    Region { x, y: placement.y.0, width, height: height.0 }
}

struct Table<'a> {
    cloth: &'a str,
    placements: &'a [Placement],
    regions: &'a [Region],
    shaped: &'a [bool],
    /// How many copies each placement yields.
    yields: &'a [u32],
    /// The cloth lies in two layers, its fold at the left.
    folded: bool,
    /// Where the motifs of the print lie, if that matters.
    repeat: Option<Repeat>,
    /// Right and far end of what can be used: beyond are the selvedge and the end that is trimmed.
    usable: (i64, i64),
    /// The smallest offcut worth keeping, either way round.
    keep: (Length, Length),
    /// What lies beside the pieces is cut off before the strips, where that keeps more in one.
    aside_first: bool,
    /// Pieces freed where they lay, by cuts that stop or round a template.
    gone: Vec<usize>,
    steps: Vec<Step>,
    /// Bare parts that pieces were cut out of.
    rests: Vec<Region>,
}

impl Table<'_> {
    fn take_apart(&mut self, whole: Region, selvedge: Length, trim: Length) {
        let mut rest = whole;
        if trim > Length::ZERO {
            let (end, left) = rest.split_across(rest.y + trim.0);
            self.cut(CutKind::SquareEnd, rest, true, end.top(), &[], Some(end));
            rest = left;
        }
        if selvedge > Length::ZERO {
            let (edge, left) = rest.split_along(rest.x + selvedge.0);
            self.cut(CutKind::Selvedge, rest, false, edge.right(), &[], None);
            rest = left;
        }
        self.divide(rest, Inside::all(self.regions));
    }

    /// Takes `region` apart. What is cut off first is divided first; the rest waits in a list, since a row of thousands
    /// of pieces is as many cuts one after the other.
    fn divide(&mut self, region: Region, inside: Inside) {
        let mut parts = vec![(region, inside)];
        while let Some((region, inside)) = parts.pop() {
            if inside.is_empty() {
                let (part, whole) = self.bare(region);
                self.rests.extend(Some(part).filter(|p| !whole && p.width > 0 && p.height > 0));
                continue;
            }
            if let Some(only) = inside.only().filter(|&only| self.regions[only] == region) {
                if self.shaped[only] {
                    self.round(only, region);
                    self.rests.push(region);
                }
                continue;
            }
            let aside = if self.aside_first { self.keeps_more(region, &inside) } else { None };
            if let Some((across, at)) = aside.map(|at| (false, at)).or_else(|| inside.first_line(region, self.regions))
            {
                let (near, far) = region.split(across, at);
                let (inside_near, inside_far) = inside.split(self.regions, across, at);
                self.through(region, across, at, &[(near, &inside_near), (far, &inside_far)]);
                parts.push((far, inside_far));
                parts.push((near, inside_near));
                continue;
            }
            // No line goes right across: a shaped piece is cut round, for its box may hold others; else the nearest
            // piece is freed by cuts that stop at its corner.
            let shaped = inside.lowest_first().find(|&i| self.shaped[i]);
            let Some(first) = shaped.or_else(|| inside.lowest_first().next()) else { continue };
            if self.shaped[first] {
                self.round(first, region)
            } else {
                self.stopped(region, first)
            }
            self.gone.push(first);
            parts.push((region, inside.without(first)));
        }
    }

    /// Where to cut along first, so that the bare cloth right of all pieces stays whole, when that is worth keeping and
    /// larger than the bare cloth beyond them, which stays whole otherwise.
    fn keeps_more(&self, region: Region, inside: &Inside) -> Option<i64> {
        let all = || inside.lowest_first().map(|i| self.regions[i]);
        let (right, top) = (all().map(|r| r.right()).max()?, all().map(|r| r.top()).max()?);
        let worth = |part: Region| {
            let (part, whole) = self.bare(part);
            let keep = whole && is_worth_keeping((Length(part.width), Length(part.height)), self.keep);
            if keep { area(part) } else { 0 }
        };
        let aside = if right < region.right() { worth(region.split_along(right).1) } else { 0 };
        let beyond = if top < region.top() { worth(region.split_across(top).1) } else { 0 };
        (aside > beyond).then_some(right)
    }

    /// A cut from edge to edge. What it frees are pieces that lie alone in their part, on either side of the line.
    fn through(&mut self, region: Region, across: bool, at: i64, parts: &[(Region, &Inside); 2]) {
        let alone = |(part, those): &(Region, &Inside)| {
            those.only().filter(|&only| self.regions[only] == *part && !self.shaped[only])
        };
        let frees: Vec<usize> = parts.iter().filter_map(alone).collect();
        let bare = parts.iter().find(|(_, those)| those.is_empty()).map(|(part, _)| *part);
        self.cut(CutKind::Through, region, across, at, &frees, bare);
        self.slit(&frees);
    }

    /// Frees `first` by cuts that stop at its corners.
    fn stopped(&mut self, region: Region, first: usize) {
        let piece = self.regions[first];
        let vertical = |x: i64| Line { x1: Length(x), y1: Length(piece.y), x2: Length(x), y2: Length(piece.top()) };
        let mut lines = Vec::new();
        if piece.x > region.x {
            lines.push((vertical(piece.x), Length(piece.x - region.x), Edge::Left));
        }
        if piece.right() < region.right() {
            lines.push((vertical(piece.right()), Length(piece.right() - region.x), Edge::Left));
        }
        if piece.top() < region.top() {
            let y = Length(piece.top());
            let line = Line { x1: Length(piece.x), y1: y, x2: Length(piece.right()), y2: y };
            lines.push((line, Length(piece.top() - region.y), Edge::Near));
        }
        let last = lines.len().saturating_sub(1);
        for (n, (line, reading, from)) in lines.into_iter().enumerate() {
            let frees = if n == last { self.freed(&[first]) } else { vec![] };
            self.push(Cut {
                motif: None,
                kind: CutKind::Stopped,
                line,
                reading,
                from,
                lies: region,
                frees,
                bare: None,
                whole: false,
            });
        }
        self.slit(&[first]);
    }

    fn push(&mut self, cut: Cut) {
        self.steps.push(Step::Cut { cloth: self.cloth.to_owned(), cut });
    }

    fn round(&mut self, index: usize, lies: Region) {
        let frees = self.freed(&[index]);
        let around = self.regions[index];
        let cloth = self.cloth.to_owned();
        self.steps.push(Step::Outline(OutlineCut { cloth, frees, around, lies, sights: vec![] }));
    }

    fn freed(&self, those: &[usize]) -> Vec<Freed> {
        let copies = |&i: &usize| {
            let p = &self.placements[i];
            (p.copy..p.copy + self.yields[i]).map(|copy| Freed { piece: p.piece.clone(), copy })
        };
        those.iter().flat_map(copies).collect()
    }

    /// Slits the fold of what lies at it and has come off, unless it lies half on it.
    fn slit(&mut self, those: &[usize]) {
        for &i in those {
            let region = self.regions[i];
            if !self.folded || self.placements[i].on_fold || region.x > 0 {
                continue;
            }
            let x = Length(region.x);
            let line = Line { x1: x, y1: Length(region.y), x2: x, y2: Length(region.top()) };
            self.push(Cut {
                motif: None,
                kind: CutKind::Fold,
                line,
                reading: Length::ZERO,
                from: Edge::Left,
                lies: region,
                frees: vec![],
                bare: None,
                whole: false,
            });
        }
    }

    fn cut(&mut self, kind: CutKind, lies: Region, across: bool, at: i64, frees: &[usize], bare: Option<Region>) {
        let frees = self.freed(frees);
        let (line, reading, from) = if across {
            let y = Length(at);
            let line = Line { x1: Length(lies.x), y1: y, x2: Length(lies.right()), y2: y };
            (line, Length(at - lies.y), Edge::Near)
        } else {
            let x = Length(at);
            let line = Line { x1: x, y1: Length(lies.y), x2: x, y2: Length(lies.top()) };
            (line, Length(at - lies.x), Edge::Left)
        };
        let bare = bare.map(|part| self.bare(part));
        let whole = bare.is_some_and(|(_, whole)| whole);
        // How much comes off before the print begins to count is not known.
        let motif = self.motif(kind, at);
        let bare = bare.map(|(part, _)| part).filter(|_| motif.is_none());
        self.push(Cut { kind, line, reading, from, lies, frees, bare, whole, motif });
    }

    /// From a first cut at `at` to the middle of the next motif.
    fn motif(&self, kind: CutKind, at: i64) -> Option<Length> {
        let repeat = self.repeat?;
        let (every, from) = match kind {
            CutKind::SquareEnd => (repeat.along?, repeat.at.y),
            CutKind::Selvedge => (repeat.across?, repeat.at.x),
            CutKind::Fold | CutKind::Through | CutKind::Stopped => return None,
        };
        Some(Length((from.0 - at).rem_euclid(every.0)))
    }

    /// A bare part without selvedge and trimmed end, and whether no piece was freed out of it before: its place is
    /// still counted as cloth.
    fn bare(&self, part: Region) -> (Region, bool) {
        let (right, top) = self.usable;
        let part = Region { width: part.width.min(right - part.x), height: part.height.min(top - part.y), ..part };
        let overlaps = |r: &Region| r.x < part.right() && part.x < r.right() && r.y < part.top() && part.y < r.top();
        (part, !self.gone.iter().any(|&i| overlaps(&self.regions[i])))
    }
}

//! The steps at the table.

use super::apart::apart;
use super::left::{LeftPart, LeftShape};
use super::part::{EdgeStretch, PartName, PartShape};
use super::{Block, Sight};
use crate::lay::{ClothLay, Job, Region};
use crate::measure::Length;
use crate::piece::{Figure, Piece};
use crate::shape::{Outline, Turn};
use std::collections::{BTreeMap, HashSet};

/// The side of a part a reading is measured from.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Edge {
    /// A left edge of the part.
    Left,
    /// An edge nearest the maker.
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
    /// From edge to edge of its part.
    Through,
    /// Begins at an edge of its part and stops inside it.
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

impl Line {
    /// How long it is; it runs across or along.
    pub fn length(&self) -> Length {
        (self.x2 - self.x1) + (self.y2 - self.y1)
    }
}

/// A piece that comes off.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub struct Freed {
    /// Id of the piece.
    pub piece: String,
    /// Which copy.
    pub copy: u32,
}

/// A cloth, or one of several sheets that are alike.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub struct On {
    /// Id of the cloth.
    pub cloth: String,
    /// Which copy of it, from 1.
    pub copy: u32,
}

/// Bare cloth that is worth keeping.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Kept {
    /// A rectangle.
    Part(LeftPart),
    /// Any other outline.
    Shape(LeftShape),
}

/// What one side of a cut is.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Side {
    /// A finished piece: two copies where the cloth lies in two layers.
    Piece(Vec<Freed>),
    /// A part that is still to be cut: under a letter of its own, or what the part that was cut is from now on.
    Part(PartName, PartShape),
    /// Bare cloth that is worth keeping.
    Keep(PartName, Kept),
    /// Bare cloth that is not.
    Waste,
}

/// One straight cut.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Cut {
    /// The kind.
    pub kind: CutKind,
    /// The part it is made on.
    pub part: PartName,
    /// The outline of that part before the cut; of a fold that is slit, the box of the piece.
    pub lies: PartShape,
    /// Where the blade runs, from its start to its end.
    pub line: Line,
    /// What to set on the ruler, measured from `edge`.
    pub reading: Length,
    /// The side `edge` is on.
    pub from: Edge,
    /// The straight edge the reading is measured from.
    pub edge: EdgeStretch,
    /// Of a fold that is slit: whose it is.
    pub of: Vec<Freed>,
    /// What lies on its nearer side: in front of it, left of it, or in the corner it closes. Nothing of a cut that parts
    /// nothing yet, and of one that takes an edge off.
    pub near: Option<Side>,
    /// What lies beyond it; of a cut that takes an edge off or parts nothing yet, what its part is from now on.
    pub far: Option<Side>,
    /// Pieces that come off.
    pub frees: Vec<Freed>,
    /// Bare cloth that comes off and is worth keeping.
    pub keeps: Vec<(PartName, Kept)>,
    /// Of the first cuts on cloth with pieces placed on its print: how far beyond the cut the middle of a motif must lie.
    /// Where they run follows from that, not from the reading.
    pub motif: Option<Length>,
}

impl Cut {
    /// What to set on the ruler: from its edge, or where the print decides where it runs from the middle of a motif.
    pub fn reads(&self) -> Length {
        self.motif.unwrap_or(self.reading)
    }

    /// After how much of a cut that stops the blade is lifted; nothing of a cut that runs from edge to edge.
    pub fn stops_after(&self) -> Option<Length> {
        (self.kind == CutKind::Stopped).then(|| self.line.length())
    }

    /// What it leaves to be cut: what its part is from now on, and a part that comes off.
    pub fn parts(&self) -> impl Iterator<Item = (PartName, &PartShape)> {
        self.near.iter().chain(&self.far).filter_map(|side| match side {
            Side::Part(name, shape) => Some((*name, shape)),
            _ => None,
        })
    }

    /// Whether the reading is measured from an edge inside the part's outermost one, where a corner was cut out.
    pub fn from_inner_edge(&self) -> bool {
        let outermost = match self.from {
            Edge::Left => self.lies.around.x,
            Edge::Near => self.lies.around.y,
        };
        self.kind != CutKind::Fold && self.edge.at != outermost
    }

    /// Whether the blade goes in at the part's outermost edge, not where a corner was cut out.
    pub fn starts_at_outer_edge(&self) -> bool {
        match self.from {
            Edge::Left => self.line.y1.0 == self.lies.around.y,
            Edge::Near => self.line.x1.0 == self.lies.around.x,
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

/// What is done to a piece that is marked out. Where several lie in one part all are drawn before the first is cut: a cut
/// takes edges with it that the others are measured from.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Marking {
    /// Drawn and cut at once: it is alone in its part.
    DrawAndCut,
    /// Drawn.
    Draw,
    /// Cut along the line that was drawn.
    Cut,
}

/// A piece marked out, by its template or on a scrap, and cut round its outline.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct OutlineCut {
    /// The part it lies in: the whole cloth of a scrap.
    pub part: PartName,
    /// What is done.
    pub marking: Marking,
    /// The piece: two copies where the cloth lies in two layers.
    pub pieces: Vec<Freed>,
    /// Its bounding box on the cloth: on the fold, of the half that is on the cloth.
    pub around: Region,
    /// How it is turned.
    pub turn: Turn,
    /// It lies face down.
    pub mirrored: bool,
    /// Its axis lies on the fold.
    pub on_fold: bool,
    /// The outline of the part before the cut; of a scrap the box around all of it.
    pub lies: PartShape,
    /// On a scrap, which has no edge to measure from: two corners of the piece, each by its distance from two corners of
    /// the scrap.
    pub sights: Vec<Sight>,
    /// With the last piece of a part: what remains around the pieces that is worth keeping.
    pub keeps: Vec<(PartName, Kept)>,
    /// It is the last piece of its part.
    pub last: bool,
}

impl OutlineCut {
    /// How far the box of the piece lies in from the left edge and from the near edge of its part.
    pub fn place(&self) -> (Length, Length) {
        (Length(self.around.x - self.lies.around.x), Length(self.around.y - self.lies.around.y))
    }
}

/// One step at the table.
#[derive(Clone, Debug, PartialEq, Eq)]
#[allow(clippy::large_enum_variant)] // nearly all steps are cuts
pub enum Step {
    /// A straight cut.
    Cut {
        /// On which cloth.
        on: On,
        /// The cut.
        cut: Cut,
    },
    /// A piece is marked out, cut out, or both.
    Outline {
        /// On which cloth.
        on: On,
        /// The piece.
        cut: OutlineCut,
    },
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
    /// The cloth it works on; blocks and corners are cut off the cloth.
    pub fn on(&self) -> Option<&On> {
        match self {
            Self::Cut { on, .. } | Self::Outline { on, .. } => Some(on),
            Self::Fuse { .. } | Self::Block { .. } | Self::Corners(_) => None,
        }
    }

    /// The pieces that come off the cloth with it.
    pub fn frees(&self) -> &[Freed] {
        match self {
            Self::Cut { cut, .. } => &cut.frees,
            Self::Block { step, .. } => step.frees(),
            Self::Outline { cut, .. } if cut.marking != Marking::Draw => &cut.pieces,
            Self::Outline { .. } | Self::Fuse { .. } | Self::Corners(_) => &[],
        }
    }

    /// Bare cloth that comes off with it and is worth keeping.
    pub fn keeps(&self) -> &[(PartName, Kept)] {
        match self {
            Self::Cut { cut, .. } => &cut.keeps,
            Self::Outline { cut, .. } => &cut.keeps,
            Self::Block { step, .. } => step.keeps(),
            Self::Fuse { .. } | Self::Corners(_) => &[],
        }
    }
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
        Step::Outline { .. } if so_far == CutStyle::EdgeToEdge => CutStyle::RoundTemplates,
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

/// The parts that lie on the table before step `number` (from 1), of the cloth or the block it works on: those still to
/// be cut and those that are kept, by their letters.
pub fn parts_before(steps: &[Step], number: usize) -> BTreeMap<PartName, PartShape> {
    let Some(this) = number.checked_sub(1).and_then(|n| steps.get(n)) else { return BTreeMap::new() };
    let place = |step: &Step| match step {
        Step::Block { block, .. } => (Some(block.clone()), None),
        other => (None, other.on().cloned()),
    };
    let here = place(this);
    let mut parts = BTreeMap::new();
    for step in steps[..number - 1].iter().filter(|s| place(s) == here) {
        let step = if let Step::Block { step, .. } = step { step } else { step };
        match step {
            Step::Cut { cut, .. } if cut.kind != CutKind::Fold => {
                parts.remove(&cut.part);
                parts.extend(cut.parts().map(|(name, shape)| (name, shape.clone())));
            }
            Step::Outline { cut, .. } if cut.last && cut.marking != Marking::Draw => drop(parts.remove(&cut.part)),
            _ => {}
        }
        for (name, kept) in step.keeps() {
            if let Kept::Part(part) = kept {
                parts.insert(*name, PartShape::whole(part.at));
            }
        }
    }
    let lies = match if let Step::Block { step, .. } = this { step } else { this } {
        Step::Cut { cut, .. } if cut.kind != CutKind::Fold => Some((cut.part, cut.lies.clone())),
        Step::Outline { cut, .. } => Some((cut.part, cut.lies.clone())),
        _ => None,
    };
    parts.extend(lies);
    parts
}

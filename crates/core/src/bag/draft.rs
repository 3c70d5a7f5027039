//! What a family gives back.

use super::order::Step;
use crate::measure::{Length, Ruler, System, in_system};
use crate::piece::{Dimension, Part, Piece};
use serde::{Deserialize, Serialize};
use std::borrow::Cow;

/// Where in the work something is looked at or put right.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub enum Stage {
    /// Sizes and options.
    Bag,
    /// The cut list.
    Pieces,
    /// What it is cut from.
    Cloth,
    /// What lies where.
    Lay,
    /// The shopping list.
    Buy,
    /// The table.
    Cut,
}

/// How much a notice matters.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub enum Severity {
    /// Good to know.
    Note,
    /// Likely a mistake.
    Attention,
}

/// Something to look at, as a sentence.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Notice {
    /// Where to put it right.
    pub stage: Stage,
    /// The field it is about.
    pub field: Option<Cow<'static, str>>,
    /// How much it matters.
    pub severity: Severity,
    /// The sentence.
    pub text: String,
}

impl Notice {
    /// Good to know about `field` of the bag.
    pub fn note(field: impl Into<Cow<'static, str>>, text: impl Into<String>) -> Self {
        Self { stage: Stage::Bag, field: Some(field.into()), severity: Severity::Note, text: text.into() }
    }

    /// Likely a mistake in `field` of the bag.
    pub fn attention(field: impl Into<Cow<'static, str>>, text: impl Into<String>) -> Self {
        Self { severity: Severity::Attention, ..Self::note(field, text) }
    }
}

/// What is sold by the length and has no width to lay.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "kebab-case")]
pub enum GoodKind {
    /// Cord.
    Cord,
    /// Webbing.
    Webbing,
    /// Zip by the length.
    Zip,
    /// Ribbon or twill tape.
    Tape,
}

impl GoodKind {
    /// All of them, in the order they are offered.
    pub const ALL: [Self; 4] = [Self::Webbing, Self::Cord, Self::Tape, Self::Zip];

    /// The key it is known by outside.
    pub const fn key(self) -> &'static str {
        match self {
            Self::Cord => "cord",
            Self::Webbing => "webbing",
            Self::Zip => "zip",
            Self::Tape => "tape",
        }
    }

    /// The kind with `key`.
    pub fn of(key: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|kind| kind.key() == key)
    }

    /// In the trade's words.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Cord => "Cord",
            Self::Webbing => "Webbing",
            Self::Zip => "Zip by the length",
            Self::Tape => "Tape",
        }
    }
}

/// Lengths to cut of something sold by the length.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Good {
    /// What it is.
    pub kind: GoodKind,
    /// What the lengths are for.
    pub name: Cow<'static, str>,
    /// How many.
    pub count: u32,
    /// How long each is cut.
    pub length: Dimension,
    /// How wide or thick it is, if that matters.
    pub width: Option<Length>,
}

/// What is sold by the piece.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Hardware {
    /// What it is: `D-ring`, `zip`.
    pub name: Cow<'static, str>,
    /// How many.
    pub count: u32,
    /// Its size: the opening of a ring, the teeth of a zip.
    pub size: Option<Length>,
    /// What the size is, or what else to know.
    pub note: Cow<'static, str>,
}

/// A finished size, as asked and as the cut pieces give it.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Finished {
    /// What it is: `wide`.
    pub name: Cow<'static, str>,
    /// The field it was asked in.
    pub field: Cow<'static, str>,
    /// As asked.
    pub asked: Length,
    /// Worked out back from the cut pieces, their seams taken off.
    pub back: Length,
}

/// Layers that lie on each other at one place, to be sewn through.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Stack {
    /// Where, after *where*: `a strap goes into the hem`.
    pub place: Cow<'static, str>,
    /// The field that could make it thinner.
    pub field: Cow<'static, str>,
    /// How many of each part's cloth.
    pub layers: Vec<(Part, u32)>,
}

/// A drafted bag.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
pub struct Draft {
    /// The cut list.
    pub pieces: Vec<Piece>,
    /// What is cut from something sold by the length.
    pub goods: Vec<Good>,
    /// What is bought by the piece.
    pub hardware: Vec<Hardware>,
    /// How it is made, in order.
    pub steps: Vec<Step>,
    /// What to look at.
    pub notices: Vec<Notice>,
    /// Where many layers lie on each other.
    #[serde(default)]
    pub stacks: Vec<Stack>,
    /// From the mouth to the underside of the strap at its highest, if there are straps.
    pub strap_drop: Option<Length>,
    /// From strap centre to strap centre.
    pub strap_spacing: Option<Length>,
    /// What it holds when filled to the mouth, in millilitres; 0 when it is flat.
    pub millilitres: i64,
}

impl Draft {
    /// The piece with `id`.
    pub fn piece(&self, id: &str) -> Option<&Piece> {
        self.pieces.iter().find(|p| p.id == id)
    }

    /// Brings the marks to lines of the ruler, so that they can be drawn: a share of a side is found by folding, and what
    /// says where a corner is boxed follows from the cut sizes.
    pub(crate) fn mark_on(&mut self, ruler: Ruler) {
        for mark in self.pieces.iter_mut().flat_map(|p| &mut p.marks).filter(|mark| !mark.share && !mark.boxes) {
            mark.distance = mark.distance.round_to(ruler.step());
            if let Some((distance, _)) = &mut mark.and {
                *distance = distance.round_to(ruler.step());
            }
        }
    }

    /// Brings what its sentences say of the trade's sizes to one system.
    pub(crate) fn speak_in(&mut self, system: System) {
        let say = |text: &mut Cow<'static, str>| {
            if let Cow::Owned(said) = in_system(text, system) {
                *text = said.into();
            }
        };
        for notice in &mut self.notices {
            notice.text = in_system(&notice.text, system).into_owned();
        }
        self.steps.iter_mut().for_each(|step| say(&mut step.text));
        self.hardware.iter_mut().for_each(|part| say(&mut part.note));
        for piece in &mut self.pieces {
            piece.note.iter_mut().for_each(say);
            piece.marks.iter_mut().for_each(|mark| say(&mut mark.name));
            let sizes = [&mut piece.width, &mut piece.height];
            sizes.into_iter().flat_map(|size| &mut size.terms).for_each(|term| say(&mut term.name));
        }
    }
}

/// `w` × `h` × `d` in millilitres.
pub(super) fn millilitres(w: Length, h: Length, d: Length) -> i64 {
    (w.0 as f64 * h.0 as f64 * d.0 as f64 / (Length::CENTIMETRE.0 as f64).powi(3)).round() as i64
}

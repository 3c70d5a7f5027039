//! What a family gives back.

use crate::measure::Length;
use crate::piece::Piece;

/// Where in the work something is looked at or put right.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
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
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Severity {
    /// Good to know.
    Note,
    /// Likely a mistake.
    Attention,
}

/// Something to look at, as a sentence.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Notice {
    /// Where to put it right.
    pub stage: Stage,
    /// The field it is about.
    pub field: Option<&'static str>,
    /// How much it matters.
    pub severity: Severity,
    /// The sentence.
    pub text: String,
}

/// A drafted bag.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Draft {
    /// The cut list.
    pub pieces: Vec<Piece>,
    /// What to look at.
    pub notices: Vec<Notice>,
    /// From the mouth to the underside of the strap at its highest, if there are straps.
    pub strap_drop: Option<Length>,
    /// From strap centre to strap centre.
    pub strap_spacing: Option<Length>,
    /// What it holds when filled to the mouth, in millilitres.
    pub millilitres: i64,
}

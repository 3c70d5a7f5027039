//! Marks drawn on a piece, each with what it is measured from.

use crate::measure::Length;

/// The edge or line a mark is measured from.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum From {
    /// The raw edge at the top.
    TopEdge,
    /// The raw edge at the base.
    BaseEdge,
    /// The raw edges at both sides.
    SideEdges,
    /// Up and down the middle.
    Middle,
}

impl From {
    /// In the trade's words.
    pub const fn name(self) -> &'static str {
        match self {
            Self::TopEdge => "from the top raw edge",
            Self::BaseEdge => "from the base raw edge",
            Self::SideEdges => "from each side raw edge",
            Self::Middle => "each side of the middle",
        }
    }
}

/// One thing to mark.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Mark {
    /// What it marks: `strap centre`, `fold line`.
    pub name: &'static str,
    /// How far.
    pub distance: Length,
    /// From where.
    pub from: From,
    /// A second distance that fixes it, such as how far down from the top.
    pub and: Option<(Length, From)>,
}

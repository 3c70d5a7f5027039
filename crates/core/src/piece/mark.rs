//! Marks drawn on a piece, each with what it is measured from.

use crate::measure::{Length, Ruler};

/// The edge or line a mark is measured from.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum From {
    /// The raw edge at the top.
    TopEdge,
    /// The raw edge at the base.
    BaseEdge,
    /// The raw edge at the left.
    LeftEdge,
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
            Self::LeftEdge => "from the left raw edge",
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

impl Mark {
    /// As a line for the maker: what, how far and from where. A mark at no distance is told by its name alone.
    pub fn told(&self, ruler: Ruler) -> String {
        let place = |l: Length, from: From| format!("{} {}", ruler.show(l).text, from.name());
        match self.and {
            _ if self.distance == Length::ZERO && self.and.is_none() => self.name.to_owned(),
            Some((distance, from)) => {
                format!("{}: {}, {}", self.name, place(self.distance, self.from), place(distance, from))
            }
            None => format!("{}: {}", self.name, place(self.distance, self.from)),
        }
    }
}

//! A piece of the cut list.

use super::{Dimension, Grain, Mark, Mirror, PrintRule};
use crate::measure::Length;
use crate::shape::Outline;
use serde::{Deserialize, Serialize};

/// The part of the bag a piece belongs to; decides which cloth it is cut from and which bundle it is pinned in.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Part {
    /// What is seen from outside.
    Outer,
    /// The inside.
    Lining,
    /// A pocket on the lining.
    Pocket,
    /// Handles.
    Straps,
    /// Fleece behind the outer.
    Backing,
}

impl Part {
    /// All parts, in the order they are shown.
    pub const ALL: [Self; 5] = [Self::Outer, Self::Lining, Self::Pocket, Self::Straps, Self::Backing];

    /// The part's name.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Outer => "Outer",
            Self::Lining => "Lining",
            Self::Pocket => "Pocket",
            Self::Straps => "Straps",
            Self::Backing => "Fleece",
        }
    }

    /// The key used in documents and links.
    pub const fn key(self) -> &'static str {
        match self {
            Self::Outer => "outer",
            Self::Lining => "lining",
            Self::Pocket => "pocket",
            Self::Straps => "straps",
            Self::Backing => "backing",
        }
    }
}

/// The lower corners of a boxed panel.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Corners {
    /// Left whole.
    Whole,
    /// Cut out at the table, measured from the raw edges.
    CutOut {
        /// In from the side.
        across: Dimension,
        /// Up from the base.
        up: Dimension,
    },
}

/// One kind of piece, `count` of them alike.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Piece {
    /// Key within the project: `outer-panel`.
    pub id: &'static str,
    /// What the label says.
    pub name: &'static str,
    /// What it is part of.
    pub part: Part,
    /// How many.
    pub count: u32,
    /// Across, as it stands on the bag.
    pub width: Dimension,
    /// Up, as it stands on the bag.
    pub height: Dimension,
    /// Its lower corners.
    pub corners: Corners,
    /// Its grain.
    pub grain: Grain,
    /// Its print.
    pub print: PrintRule,
    /// Its mirror images.
    pub mirror: Mirror,
    /// What to mark on it, and where.
    pub marks: Vec<Mark>,
    /// What to know about it, short.
    pub note: Option<&'static str>,
}

impl Piece {
    /// The rectangle it is cut from. The lay places it, and corners are cut out afterwards through all panels at once;
    /// unless the maker wants small pieces in the corners, then the lay places the outline.
    pub fn size(&self) -> (Length, Length) {
        (self.width.size, self.height.size)
    }

    /// Its outline when cut.
    pub fn outline(&self) -> Outline {
        let (width, height) = self.size();
        match &self.corners {
            Corners::Whole => Outline::Rect(width, height),
            Corners::CutOut { across, up } => Outline::notched(width, height, across.size, up.size),
        }
    }
}

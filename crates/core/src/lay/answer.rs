//! The answer: what lies where, what it takes and what is left.

use super::proof::{Certificate, SheetsNeeded};
use crate::cloth::{Cloth, Form, Money};
use crate::measure::Length;
use crate::shape::{Point, Turn};
use serde::{Deserialize, Serialize};

/// One copy of a piece on a cloth: mirrored if so, turned counter-clockwise, then moved so that the lower left corner
/// of its bounding box is at (`x`, `y`).
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Placement {
    /// Id of the piece.
    pub piece: String,
    /// Which copy, from 1.
    pub copy: u32,
    /// From the cloth's left edge, selvedge included.
    pub x: Length,
    /// From the cut end, trim included.
    pub y: Length,
    /// The turn.
    pub turn: Turn,
    /// Whether it lies face down.
    pub mirrored: bool,
    /// On folded cloth: its axis lies on the fold, only its right half on the cloth. `x` is then minus half its width.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub on_fold: bool,
    /// On folded cloth: of the two copies that come off, only one is wanted; the twin in the lower layer is spare.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub single: bool,
}

/// Cloth left over.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Offcut {
    /// A rectangle worth keeping.
    Rect {
        /// Left edge.
        x: Length,
        /// Lower edge.
        y: Length,
        /// Across.
        width: Length,
        /// Along.
        height: Length,
    },
    /// What remains besides, for stuffing and patchwork: the corners, counter-clockwise.
    Polygon(Vec<Point>),
}

impl Offcut {
    /// Its corners, counter-clockwise.
    pub fn corners(&self) -> Vec<Point> {
        match self {
            Self::Rect { x, y, width, height } => vec![
                Point::new(*x, *y),
                Point::new(*x + *width, *y),
                Point::new(*x + *width, *y + *height),
                Point::new(*x, *y + *height),
            ],
            Self::Polygon(corners) => corners.clone(),
        }
    }
}

/// What lies on one cloth.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
pub struct ClothLay {
    /// Id of the cloth.
    pub cloth: String,
    /// Which copy of it, from 1.
    pub copy: u32,
    /// Washed length the lay takes, ends trimmed.
    pub needed_length: Length,
    /// Unwashed length to buy, in the shop's steps; of an owned roll, the unwashed length used.
    pub buy_length: Length,
    /// The pieces' share of the cloth bought.
    pub used_share: f64,
    /// The pieces.
    pub placements: Vec<Placement>,
    /// What is left: rectangles worth keeping, largest first, then the rest.
    pub offcuts: Vec<Offcut>,
    /// No lay of these pieces on this cloth can have a shorter `buy_length` than this.
    pub bound: Length,
    /// What shows it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub proof: Option<Certificate>,
    /// Every cut can run edge to edge of what is left.
    pub through: bool,
}

impl ClothLay {
    /// The washed length that really lies on the table before the first cut: all that is owned of `cloth`, or as much as
    /// the shop cut off.
    pub fn lies(&self, cloth: &Cloth) -> Length {
        match &cloth.form {
            Form::Roll { length: Some(owned), .. } => owned.shrunk(cloth.shrink.along).max(self.needed_length),
            _ => self.on_table(cloth),
        }
    }

    /// The washed length a drawing of the lay shows: of `cloth` that comes whole all of it, of a length that is there as
    /// much as is used.
    pub fn on_table(&self, cloth: &Cloth) -> Length {
        match cloth.usable_length().filter(|_| cloth.whole_length().is_some()) {
            Some(usable) => usable + cloth.trim * 2,
            None => self.buy_length.shrunk(cloth.shrink.along).max(self.needed_length),
        }
    }

    /// Whether `buy_length` cannot be beaten.
    pub fn proven(&self) -> bool {
        self.buy_length <= self.bound
    }
}

/// Copies that found no place.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Unplaced {
    /// Id of the piece.
    pub piece: String,
    /// How many copies.
    pub count: u32,
    /// Why, as a sentence.
    pub why: String,
}

/// What no lay can beat.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Bound {
    /// Least cost.
    pub cost: Money,
    /// Least length bought in all.
    pub length: Length,
}

/// A whole lay.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
pub struct Lay {
    /// Name of the job.
    pub job: String,
    /// One entry for each cloth that is used.
    pub cloths: Vec<ClothLay>,
    /// What found no place.
    pub unplaced: Vec<Unplaced>,
    /// What the cloth to buy costs.
    pub cost: Money,
    /// What no lay can beat.
    pub bound: Bound,
    /// Of cloths sold by the sheet, how many are needed at least, where more than one is.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub sheets: Vec<SheetsNeeded>,
    /// No smaller purchase on the shop's steps can hold these pieces.
    pub proven: bool,
    /// What the maker should know, each a sentence.
    pub warnings: Vec<String>,
    /// Iterations of the search behind it.
    pub iterations: u64,
}

impl Lay {
    /// Everything found a place.
    pub fn complete(&self) -> bool {
        self.unplaced.is_empty()
    }

    /// Ids of the cloths that copies of `piece` lie on, each once.
    pub fn cloths_of(&self, piece: &str) -> Vec<&str> {
        let mut found: Vec<&str> = Vec::new();
        for on in self.cloths.iter().filter(|c| c.placements.iter().any(|p| p.piece == piece)) {
            if !found.contains(&on.cloth.as_str()) {
                found.push(&on.cloth);
            }
        }
        found
    }

    /// Length taken of all cloths, what is owned too; what is bought of it is told by [`super::Job::bought`].
    pub fn bought(&self) -> Length {
        self.cloths.iter().map(|c| c.buy_length).sum()
    }
}

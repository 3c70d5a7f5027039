//! Materials by what matters to a plan: how they are backed, how they shrink.

use super::Shrink;
use crate::piece::Part;
use serde::{Deserialize, Serialize};

/// What a cloth is made of.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Material {
    /// Quilting or lining cotton.
    Cotton,
    /// Canvas, duck, denim, furnishing cloth.
    Canvas,
    /// Linen and linen mixes.
    Linen,
    /// Faux leather or vinyl.
    Vinyl,
    /// Fusible fleece.
    Fleece,
    /// Woven or non-woven fusible interfacing.
    Interfacing,
    /// Firm interfacing or stabiliser.
    Stabiliser,
}

impl Material {
    /// All of them, in the order they are offered.
    pub const ALL: [Self; 7] =
        [Self::Cotton, Self::Canvas, Self::Linen, Self::Vinyl, Self::Fleece, Self::Interfacing, Self::Stabiliser];

    /// The name a maker would use.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Cotton => "cotton",
            Self::Canvas => "canvas",
            Self::Linen => "linen",
            Self::Vinyl => "vinyl",
            Self::Fleece => "fusible fleece",
            Self::Interfacing => "interfacing",
            Self::Stabiliser => "firm stabiliser",
        }
    }

    /// What to reckon with when unwashed cloth of this kind will be washed after buying: cotton 3 % along and 2 %
    /// across (the default of common practice); canvas and denim shrink up to 10 %, 5 % × 3 % is taken as a middle
    /// course (this project's own choice); synthetics nearly none.
    pub const fn default_shrink(self) -> Shrink {
        match self {
            Self::Cotton | Self::Linen => Shrink { along: 30_000, across: 20_000 },
            Self::Canvas => Shrink { along: 50_000, across: 30_000 },
            Self::Vinyl | Self::Fleece | Self::Interfacing | Self::Stabiliser => Shrink::NONE,
        }
    }

    /// The name with what else counts as it.
    pub const fn covers(self) -> &'static str {
        match self {
            Self::Cotton => "cotton",
            Self::Canvas => "canvas, denim, furnishing cloth",
            Self::Linen => "linen",
            Self::Vinyl => "vinyl, faux leather",
            Self::Fleece => "fusible fleece, batting",
            Self::Interfacing => "interfacing, light or medium",
            Self::Stabiliser => "firm interfacing, stabiliser",
        }
    }

    /// Whether it backs what is seen.
    pub const fn is_backing(self) -> bool {
        matches!(self, Self::Fleece | Self::Interfacing | Self::Stabiliser)
    }

    /// Whether `part` is cut from it unless the maker says otherwise.
    pub const fn suits(self, part: Part) -> bool {
        match part {
            Part::Backing => matches!(self, Self::Fleece),
            Part::Interfacing => matches!(self, Self::Interfacing),
            Part::Stabiliser => matches!(self, Self::Stabiliser),
            _ => !self.is_backing(),
        }
    }
}

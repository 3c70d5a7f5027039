//! Which of the bag's cloths a part is cut from.

use crate::bag::field::choice;
use crate::piece::Part;

choice! {
    /// The cloth a part is cut from, by the part of the bag that it is the cloth of.
    ClothOf {
        /// That of pockets.
        Pocket = "pocket", "The pockets’", "";
        /// That of the outer.
        Outer = "outer", "The outer’s", "";
        /// The second cloth seen outside.
        Contrast = "contrast", "The contrast", "";
        /// That of the lining.
        Lining = "lining", "The lining’s", "";
        /// That of the base.
        Base = "base", "The base’s", "";
        /// That of straps.
        Straps = "straps", "The straps’", "";
        /// That of bindings.
        Binding = "binding", "The bindings’", "";
        /// Fleece or batting.
        Fleece = "backing", "Fleece", "";
        /// Interfacing.
        Interfacing = "interfacing", "Interfacing", "";
        /// Firm stabiliser.
        Stabiliser = "stabiliser", "Firm stabiliser", "";
    }
}

impl ClothOf {
    /// The part whose cloth it is.
    pub const fn part(self) -> Part {
        match self {
            Self::Pocket => Part::Pocket,
            Self::Outer => Part::Outer,
            Self::Contrast => Part::Contrast,
            Self::Lining => Part::Lining,
            Self::Base => Part::Base,
            Self::Straps => Part::Straps,
            Self::Binding => Part::Binding,
            Self::Fleece => Part::Backing,
            Self::Interfacing => Part::Interfacing,
            Self::Stabiliser => Part::Stabiliser,
        }
    }
}

choice! {
    /// What lies behind a part.
    Behind {
        /// Nothing.
        None = "none", "Nothing", "";
        /// Fleece.
        Fleece = "fleece", "Fleece", "soft, between two faces";
        /// Interfacing.
        Interfacing = "interfacing", "Interfacing", "light or firm, fused";
    }
}

impl Behind {
    /// The part it is cut as, if there is any.
    pub const fn part(self) -> Option<Part> {
        match self {
            Self::None => None,
            Self::Fleece => Some(Part::Backing),
            Self::Interfacing => Some(Part::Interfacing),
        }
    }

    /// What it is called.
    pub const fn word(self) -> &'static str {
        match self {
            Self::None => "",
            Self::Fleece => "fleece",
            Self::Interfacing => "interfacing",
        }
    }
}

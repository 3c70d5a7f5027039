//! The families there are, and a body of one of them.

use super::{Bag, Caddy, Clutch, CrossBody, CutList, Design, Drawstring, Duffel, FoundTube, Pouch, Tote};
use crate::measure::System;

macro_rules! families {
    ($($(#[$doc:meta])* $variant:ident = $key:literal, $name:literal, $about:literal;)+) => {
        /// What kind of bag it is.
        #[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
        pub enum Family { $($(#[$doc])* $variant,)+ }

        /// The body of a bag of one of the families: what it is before anything is put on it.
        #[derive(Clone, Debug, PartialEq, Eq)]
        pub enum Body { $($(#[$doc])* $variant($variant),)+ }

        impl Family {
            /// All families, in the order they are offered.
            pub const ALL: &'static [Self] = &[$(Self::$variant,)+];

            /// The key it is kept by.
            pub const fn key(self) -> &'static str {
                match self { $(Self::$variant => $key,)+ }
            }

            /// What it is called.
            pub const fn name(self) -> &'static str {
                match self { $(Self::$variant => $name,)+ }
            }

            /// What bags of it are like.
            pub const fn about(self) -> &'static str {
                match self { $(Self::$variant => $about,)+ }
            }

            /// A middling bag of it to start from, nothing put on it.
            pub fn default_for(self, system: System) -> Bag {
                Bag::from(match self { $(Self::$variant => Body::$variant($variant::default_for(system)),)+ })
            }
        }

        impl Body {
            /// What kind of bag it is.
            pub const fn family(&self) -> Family {
                match self { $(Self::$variant(_) => Family::$variant,)+ }
            }

            pub(super) fn design(&self) -> &dyn Design {
                match self { $(Self::$variant(bag) => bag,)+ }
            }

            pub(super) fn design_mut(&mut self) -> &mut dyn Design {
                match self { $(Self::$variant(bag) => bag,)+ }
            }
        }
    };
}

families! {
    /// Two panels or one over the base, flat or boxed.
    Tote = "tote", "Tote", "flat or boxed; its mouth hemmed, turned through, bound, banded, faced or zipped";
    /// Drawn shut by a cord.
    Drawstring = "drawstring", "Drawstring bag", "casing folded, sewn on or in the seam; flat, boxed or round at the base";
    /// Zipped.
    Pouch = "pouch", "Zip pouch", "flat, boxed, half-round or standing; straight, slanting, gathered or pleated into its zip";
    /// Built of separate panels.
    Caddy = "caddy", "Box or caddy", "panels and base, divided pockets, bound edges";
    /// A roll with round ends.
    Duffel = "duffel", "Duffel", "a body round two ends, webbing all round";
    /// A folded body with a flap.
    Clutch = "clutch", "Clutch", "one folded body with a flap and a band";
    /// Patchwork and faux leather on an adjustable strap.
    CrossBody = "cross-body", "Cross-body bag", "pieced front, firm base, adjustable strap";
    /// From a trouser leg or another tube.
    FoundTube = "found-tube", "Found tube", "from a trouser leg or another tube that is sewn already";
    /// The maker's own list.
    CutList = "cut-list", "Own cut list", "rows typed, pasted or read from a file";
}

impl Family {
    /// The family with `key`.
    pub fn of(key: &str) -> Option<Self> {
        Self::ALL.iter().copied().find(|f| f.key() == key)
    }
}

//! How front and back of a body meet at its base.

use super::draft::Notice;
use super::field::choice;
use crate::measure::{Length, Ruler};
use crate::piece::{From, Mark};

choice! {
    /// How front and back meet at the base.
    BaseJoin {
        /// Two panels, a seam at the base.
        Seam = "seam", "Two panels", "a seam at the base; each stands as printed";
        /// One piece over the base.
        Fold = "fold", "One piece, folded at the base", "no base seam; the back of a one-way print hangs upside down";
    }
}

impl BaseJoin {
    /// What cloth that goes on over the base does to its print.
    pub(super) fn notice(self) -> Option<Notice> {
        let text = "In one piece over the base the back hangs upside down: split it at the base for a one-way print.";
        (self == Self::Fold).then(|| Notice::note("base", text))
    }

    /// Where a lining of a face `width` × `height`, `top` above it, is left open to turn the bag through: in the middle of
    /// its base seam, `seam` wide, at most `most` to either side; over a fold, in one side seam.
    pub(super) fn turning_gap(
        self,
        (width, height): (Length, Length),
        top: Length,
        (seam, most): (Length, Length),
        ruler: Ruler,
    ) -> Mark {
        let mark = |name: &'static str, distance: Length, from, and| {
            let distance = distance.floor_to(ruler.step());
            Mark { boxes: false, share: false, name: name.into(), distance, from, and }
        };
        match self {
            Self::Seam => {
                let half = (width / 4).min(most);
                mark("turning gap, left open in one base seam", half, From::Middle, Some((seam, From::BaseEdge)))
            }
            Self::Fold => {
                mark("middle of the turning gap, left open in one side seam", top + height / 2, From::TopEdge, None)
            }
        }
    }
}

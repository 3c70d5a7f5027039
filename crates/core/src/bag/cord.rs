//! Drawcords and their casings. Common practice.

use super::draft::{Good, GoodKind, Notice};
use super::field::choice;
use crate::measure::{Length, Ruler};
use crate::piece::{Dimension, Grain, Part, Piece, Term};

choice! {
    /// How the cord runs.
    CordRoute {
        /// One cord all round, both ends at one side.
        One = "one", "One cord", "all round, both ends at one side";
        /// Two cords, one out at each side.
        Two = "two", "Two cords", "each all round, out at opposite sides";
        /// Two, each through three lengths of casing.
        ThreeLengths = "three-lengths", "Two, three lengths each", "each through three casing lengths";
    }
}

/// Cords for a mouth `flat` wide when it lies flat, with `tail` left at each end.
pub fn cords(route: CordRoute, flat: Length, tail: Length, ruler: Ruler) -> Good {
    let (count, lengths) = match route {
        CordRoute::One => (1, 2),
        CordRoute::Two => (2, 2),
        CordRoute::ThreeLengths => (2, 3),
    };
    let length = Dimension::sum(
        vec![Term::times("the mouth, lying flat", lengths, flat, "width"), Term::times("tails", 2, tail, "cord_tail")],
        ruler,
    );
    Good { kind: GoodKind::Cord, name: "Drawcord".into(), count, length, width: None }
}

/// The same cord cut from cloth, `width` wide when it is folded in four.
pub(super) fn of_cloth(cord: &Good, width: Length, ruler: Ruler) -> Piece {
    let strip = Dimension::sum(vec![Term::times("finished cord, folded in four", 4, width, "cord_width")], ruler);
    Piece::new("cord", "Drawcord", Part::Straps, strip, cord.length.clone())
        .times(cord.count)
        .lying(Grain::Either)
        .noted("folded in four and stitched; the ends turned in")
}

/// How far down the side the casing's opening is slit: the turn and twice the casing.
pub fn slit(turn: Length, casing: Length) -> Length {
    turn + casing * 2
}

/// The caution that goes with every cord.
pub fn caution() -> Notice {
    Notice::note(
        "cord",
        "Cords are not for young children; rules on cords in children's goods are law in many places: check yours \
         before giving or selling.",
    )
}

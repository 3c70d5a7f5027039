//! Fitting a bag to a thing: its size and the ease give the bag's finished sizes. Common practice.

use crate::measure::Length;

/// Something that goes into a bag.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Thing {
    /// How wide; of a round thing, its diameter.
    pub width: Length,
    /// How tall.
    pub height: Length,
    /// How thick; of a round thing, its diameter again.
    pub thick: Length,
}

/// How the bag holds it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Holds {
    /// Flat cloth that must also go round the thickness.
    Flat,
    /// Boxed as deep as the thing is thick.
    Boxed,
    /// A round base.
    Round,
}

/// Finished width, height and depth of a bag for `thing` with `ease` in each direction and `above` at the top.
pub fn fitted(thing: Thing, holds: Holds, ease: Length, above: Length) -> (Length, Length, Length) {
    match holds {
        Holds::Flat => (thing.width + thing.thick + ease, thing.height + thing.thick / 2 + above, Length::ZERO),
        Holds::Boxed => (thing.width + ease, thing.height + above, thing.thick + ease),
        Holds::Round => (thing.width.max(thing.thick) + ease, thing.height + above, Length::ZERO),
    }
}

/// What is cut for a thing when the ease is counted *to the cut edge*, seams and casing included, in one piece folded
/// at the base: width + 2 × beside, and twice height + above.
pub fn to_the_cut_edge(width: Length, height: Length, beside: Length, above: Length) -> (Length, Length) {
    (width + beside * 2, (height + above) * 2)
}

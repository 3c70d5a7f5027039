//! What is cut from: rolls, sheets and scraps, with width, selvedge, print, shrinkage, shop step and price.
//!
//! For `lay` (how much width and length is there?) and `buying` (what does a length cost?).
//! Axes: x across the width from the left edge, y along the length from the cut end, right side up.

mod at_hand;
mod form;
mod material;
mod price;
mod print;
mod repeat;
mod said;
mod scrap;
mod things;

pub(crate) use at_hand::kept;
pub use at_hand::{AtHand, HandForm, PreCut, put, say_all, scraps, take, tell_all};
pub use form::{Cloth, Form, Shrink};
pub use material::Material;
pub use price::{Money, Price};
pub use print::{Print, PrintUp};
pub use repeat::Repeat;
pub use said::{MOST_OWN_CUTS, NotRead, OwnCut, Question, in_sizes, read_at_hand, read_of_cloths};
pub(crate) use said::{both_sides, sides, unit_of};
pub(crate) use scrap::check_scrap;
pub use scrap::{
    EdgeKind, Fit, Flaw, FlawKind, KeptEdge, MOST_FLAWS, MOST_SCRAP_CORNERS, Measured, Scrap, ScrapDraft, ScrapShape,
    ThreadLine, TypedDistance, TypedFlaw, Unfit, between, fit, free_letters, letters,
};
pub use things::Things;
pub(crate) use things::rearrange;

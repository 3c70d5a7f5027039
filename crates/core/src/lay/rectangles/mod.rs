//! Rectangles on a rectangle of cloth: a strip of fixed width, as short as may be or no longer than there is.
//!
//! [`search`] runs the portfolio and keeps the best: [`skyline`] and [`shelves`] construct, [`branch_and_bound`] searches deep
//! and, when it comes to an end, proves; [`beam`] follows many lays at once; [`levels`] cuts strips first;
//! [`subsets`] tries all cuts of few pieces.

mod beam;
mod branch_and_bound;
mod levels;
mod search;
mod shelves;
mod skyline;
mod strip;
mod subsets;

pub(super) use branch_and_bound::cannot_hold;
pub(super) use search::StripSearch;
pub(super) use strip::{Choice, Kind, Laid, Strip, common_divisor};

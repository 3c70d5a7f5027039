//! Lengths: held exactly, typed by people, shown on a ruler, bought in shop steps.
//!
//! For every other module. A [`Length`] counts eighths of a micrometre, so 1/64 in and 0.1 mm are both
//! whole numbers; rounding happens only in [`Ruler`] (what a ruler can show) and [`ShopStep`] (what a
//! shop cuts), and both say what they did.

mod in_system;
mod length;
mod parse;
mod ruler;
mod shop;
mod unit;
mod words;

pub use in_system::in_system;
pub(crate) use length::default_length;
pub use length::{Area, Length, System};
pub use parse::{LONGEST, LONGEST_REEL, ParseLengthError, parse_length, parse_reel, split_lengths};
pub use ruler::{Ruler, Shown};
pub use shop::{ShopStep, show_bought, show_size};
pub use unit::{Unit, number_word};

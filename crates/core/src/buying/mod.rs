//! What to buy: each cloth of a lay in shop steps with its price, and what another width would take.
//!
//! For the Buy stage and the shopping list.

mod by_the_piece;
pub mod linear;
mod missing;
mod purchase;
mod washed;

pub use by_the_piece::{ByThePiece, PiecesAtHand, by_the_piece};
pub use missing::{Missing, More, headline, missing};
pub use purchase::{OtherWidth, Purchase, default_widths, other_widths, purchases, said_size, said_width};
pub use washed::washed;

/// Names as a list in a sentence.
pub fn shown_names(names: &[String]) -> String {
    match names {
        [] => String::new(),
        [one] => one.clone(),
        [first @ .., last] => format!("{} and {last}", first.join(", ")),
    }
}

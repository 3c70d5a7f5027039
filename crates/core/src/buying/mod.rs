//! What to buy: each cloth of a lay in shop steps with its price, and what another width would take.
//!
//! For the Buy stage and the shopping list.

pub mod linear;
mod purchase;

pub use purchase::{OtherWidth, Purchase, other_widths, purchases, usual_widths};

//! Cloth: what is there, said, drawn, planned with, short, left over and kept. One program, since each test program is
//! linked anew.
#![allow(missing_docs)]

mod at_hand;
mod books;
mod by_the_piece;
mod claims;
mod cupboard;
mod dressing;
mod folded;
mod kept_edges;
mod ledger;
mod linear;
mod makes;
mod matched;
mod missing;
mod on_print;
mod said;
mod scraps;
mod several_cloths;
#[path = "../support/mod.rs"]
mod support;
mod table;
mod tries;

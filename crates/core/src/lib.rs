//! The rules of cutting a bag from cloth: exact lengths, pieces drafted from finished sizes, the lay on the cloth,
//! what to buy and in what order to cut.
//!
//! No input or output, no clock, no HTTP and no SQL: everything here is a function of its arguments. Threads are used only
//! where the caller lends them, and change no result.
//! Arrows run one way: `measure` ← `shape` ← `cloth`; `piece` ← `bag`; `lay` ← `cutting`, `buying` ← `notions`; `ledger` counts what is owned of either; `project` ties
//! one maker's choices to all of them.

pub mod bag;
pub mod buying;
pub mod cloth;
pub mod cutting;
mod hashed;
pub mod lay;
pub mod ledger;
pub mod measure;
pub mod name;
pub mod notions;
pub mod piece;
mod problem;
pub mod project;
pub mod shape;

pub use problem::{Answer, FieldProblem, as_sentence, excerpt};

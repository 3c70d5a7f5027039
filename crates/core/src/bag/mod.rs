//! Families of bags: finished sizes in; pieces, marks, checks and *reasons* out. One file a family, over shared parts.
//!
//! For the Bag and Pieces stages and for `project`, which lays what is drafted here.

mod boxed_tote;
pub mod boxing;
mod draft;
pub mod hem;
pub mod strap;

pub use boxed_tote::{BackingSchool, BoxedTote, LiningFit, Mouth, StrapEnds};
pub use draft::{Draft, Notice, Severity, Stage};

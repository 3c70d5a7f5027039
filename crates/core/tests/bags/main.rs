//! Bags: bodies and the parts put on them, drafted, made up and sewn. One program, since each test program is linked anew.
#![allow(missing_docs)]

mod answers;
mod blocks;
mod by_formula;
mod families;
mod making;
mod making_up;
mod marks;
mod mouths;
mod parts;
mod patches;
mod rise;
mod seams;
mod standing;
#[path = "../support/mod.rs"]
mod support;
mod tote;
mod typed;
mod untouched;
mod walls_across;

//! The lay engine: measures, outlines, layouts, bounds, proofs, and the cuts they come apart by. One program, a file a
//! subject.
#![allow(missing_docs)]

mod at_table;
mod bins;
mod bounds;
mod carry;
mod cutter;
mod dissections;
mod exhaustive;
mod known;
mod lay;
mod measure;
mod shape;
#[path = "../support/shapes.rs"]
mod shapes;
mod shapes_nest;
#[path = "../support/mod.rs"]
mod support;

//! The heart: pieces and cloths in, a lay out. Which piece lies where, which way up, and how good that is.
//!
//! [`solve`] searches; [`verify`] checks any lay by separate code; `proof` says what no lay can beat, and shows it. `bin` is what
//! is laid on, `on_print` lays what has a place on a print, `share` and `planner` choose what comes from which cloth, `rectangles` and `nest` lay one of them, and
//! `report` tells the result. A lay is the same on any machine for the same job, seed and number of iterations: time
//! only decides how many are run, and that is the caller's business through [`Observer`].

mod answer;
mod bin;
mod bin_search;
mod guillotine;
mod job;
mod nest;
mod offcuts;
mod on_print;
mod planner;
mod proof;
mod random;
mod rank;
mod reach;
mod rectangles;
mod report;
mod share;
mod solve;
mod stop;
mod turns;
mod verify;

pub use answer::{Bound, ClothLay, Lay, Offcut, Placement, Unplaced};
pub(crate) use guillotine::Inside;
pub use guillotine::{Region, comes_apart};
pub use job::{
    Aim, Cuts, Job, JobPiece, MOST_CLOTHS, MOST_NESTED, MOST_ON_PRINT, MOST_PIECES, MOST_PLANNERS, Pin, Rules,
};
pub use offcuts::Rest;
pub use proof::{
    Boxes, Certificate, Function, GapCounted, Lines, PricedSlice, PricedWay, Rule, SheetsNeeded, Slices, Tried,
    Weights, Whole, Within, conditions, reason, reason_of_sheets, shortest_length,
};
pub use random::Random;
pub use rank::better;
pub(crate) use report::outline_on_cloth;
pub use report::{area_on_table, areas, rest_of_region, rest_of_scrap};
pub use solve::{Budget, NoLay, Observer, Silent, solve};
pub use stop::Stop;
pub use turns::{Allowed, allowed_turns};
pub(crate) use verify::as_it_lies;
pub use verify::{Fault, pin_faults, verify};

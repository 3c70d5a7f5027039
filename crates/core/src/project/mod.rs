//! One maker's project: the bag, its cloths, which part comes from which cloth, how it is to be laid, and how far the
//! cutting has come. Every change is an [`Edit`] that either holds as a whole or names the field that cannot stand.
//!
//! For the server, which stores the document and asks it for a draft and a job.

mod advice;
mod claims;
mod cloth;
mod cupboard;
mod cut_plan;
mod cutting;
mod document;
mod dressing;
mod edit;
mod guesses;
mod joins;
pub mod kept;
mod kept_edges;
mod left_over;
mod makes;
mod making;
mod matched;
mod measured;
mod on_print;
mod totals;
mod tries;
mod waste;
mod ways;
mod ways_out;

pub use claims::{Claim, claimed, things_for};
pub use cloth::{LeftOf, Look, Pattern, ProjectCloth, Swatch, TestSquare};
pub use cupboard::{
    ClothEntries, ClothEntry, CutEntered, FoundCloth, NotEntered, Wanted, enter_cuts, put_all_back, take_cuts_back,
};
pub use cut_plan::CutPlan;
pub use cutting::NotLaidAgain;
pub use document::{LayChoices, Planned, Project, StrapLie};
pub use dressing::Dressing;
pub use edit::{ClothField, Edit, LayField, Lies, ProjectField, RowField};
pub use guesses::guesses;
pub use kept_edges::PieceEdge;
pub use left_over::{CutOf, LeftOver, cut_of_each, left_as_planned, left_over};
pub use makes::{MadeOf, SIZES, largest_of, may_hold};
pub use making::Making;
pub use measured::{Measured, is_measured_later};
pub use on_print::{MotifAt, OnPrint, holds_on_print};
pub use totals::{bought, bought_text, cost_text};
pub use tries::{MOST_TRIES, Try};
pub use waste::{CutUp, cut_up};
pub use ways::{Way, minds_the_print, other_ways};
pub use ways_out::{Sized, Tried, largest, ways_out};

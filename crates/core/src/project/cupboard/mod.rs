//! Cloths in the cupboard: looking for them, and the ledger of each.

mod before;
mod ledger;
mod wanted;

pub(super) use before::with_ledger;
pub use ledger::{ClothEntries, ClothEntry, CutEntered, NotEntered, enter_cuts, put_all_back, take_cuts_back};
pub use wanted::{FoundCloth, Wanted};

//! What is said of the ledgers of the cupboard, of cloths and notions alike.

use bofta_core::ledger::{Entries, Entry, Goods};
use serde::Serialize;
use std::time::{SystemTime, UNIX_EPOCH};
use utoipa::ToSchema;

/// An entry of a ledger.
#[derive(Debug, Serialize, ToSchema)]
pub struct EntryView {
    pub number: u32,
    /// Milliseconds since 1970; nothing where it was before there were ledgers.
    pub at: Option<i64>,
    pub text: String,
    /// It was a mistake, and another entry says so.
    pub taken_back: bool,
    /// It can be taken back.
    pub can_be_taken_back: bool,
}

/// All of `entries`, the newest first, each as `tell` says it.
pub(super) fn told<G: Goods, N: Clone>(
    entries: &Entries<G, N>,
    tell: impl Fn(&Entry<G, N>) -> String,
) -> Vec<EntryView> {
    let (taken_back, can_be) = (entries.taken_back(), entries.can_be_taken_back());
    let view = |(number, entry): (u32, &Entry<G, N>)| EntryView {
        number,
        at: (entry.at != 0).then_some(entry.at),
        text: tell(entry),
        taken_back: taken_back.contains(&number),
        can_be_taken_back: can_be.contains(&number),
    };
    entries.numbered().rev().map(view).collect()
}

/// Milliseconds since 1970.
pub(super) fn now() -> i64 {
    SystemTime::now().duration_since(UNIX_EPOCH).map_or(0, |d| i64::try_from(d.as_millis()).unwrap_or(i64::MAX))
}

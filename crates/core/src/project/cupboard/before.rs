//! Cloths that were kept before there were ledgers: what is there, and what bags took and left, become entries.

use super::ClothEntries;
use crate::cloth::{AtHand, Things, kept};
use crate::ledger::{Entry, Goods, OfBag, Why};
use serde::Deserialize;
use serde_json::{Error, Value};

/// What one bag took of a cloth and what it left, as that was kept.
#[derive(Deserialize)]
struct Booking {
    project: String,
    name: String,
    took: Vec<AtHand>,
    left: Vec<AtHand>,
}

#[derive(Deserialize)]
struct Before {
    #[serde(default, alias = "owned", deserialize_with = "kept")]
    at_hand: Vec<AtHand>,
    #[serde(default)]
    cut: Vec<Booking>,
}

/// The text of a cloth with a ledger in the place of what bags took and left.
///
/// # Errors
/// What cannot be read.
pub(in crate::project) fn with_ledger(mut document: Value) -> Result<Value, Error> {
    let before: Before = serde_json::from_value(document.clone())?;
    let entries = entries_of(&before);
    if let Value::Object(fields) = &mut document {
        fields.remove("cut");
        if !entries.is_empty() {
            fields.insert("ledger".to_owned(), serde_json::to_value(entries)?);
        }
    }
    Ok(document)
}

/// The fewest entries by which what is there came to be so. When that was is not known.
fn entries_of(before: &Before) -> ClothEntries {
    let at_hand = Things::of(&before.at_hand);
    let (mut first, mut there) = (Things::default(), Things::default());
    for Booking { took, left, .. } in &before.cut {
        let took = Things::of(took);
        // What it took beyond what bags before had left was there at first.
        let (lacking, rest) = there.changed_to(&took);
        first = first.clone().plus(&lacking).unwrap_or(first);
        there = rest.clone().plus(&Things::of(left)).unwrap_or(rest);
    }
    let (never_taken, lost) = there.changed_to(&at_hand);
    first = first.clone().plus(&never_taken).unwrap_or(first);
    let mut all = vec![];
    let mut add = |why, came: Things, went: Things| {
        if !came.is_none() || !went.is_none() {
            all.push(Entry { at: 0, why, came, went });
        }
    };
    add(Why::PutIn, first, Things::default());
    for Booking { project, name, took, left } in &before.cut {
        let bag = OfBag { project: project.clone(), name: name.clone() };
        add(Why::Taken { bag: bag.clone(), need: () }, Things::default(), Things::of(took));
        add(Why::Used { bag }, Things::of(left), Things::of(took));
    }
    add(Why::Corrected, Things::default(), lost);
    ClothEntries::of(all)
}

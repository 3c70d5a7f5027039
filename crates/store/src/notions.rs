//! Notions that are owned, and the entries of their ledgers.

use crate::schema::{notion_entries, notions};
use crate::{Store, StoreError};
use bofta_core::FieldProblem;
use bofta_core::notions::{Entry, Ledger, Notion};
use bofta_core::project::kept::{read_ledger, write_entry, write_notion};
use diesel::prelude::*;
use std::collections::BTreeMap;

/// A ledger under its key, or why it cannot be read.
pub type StoredLedger = (String, Result<Ledger, StoreError>);

/// What became of a change: it is kept, or why it cannot be.
pub type Recorded = Result<Ledger, FieldProblem>;

impl Store {
    /// Every notion with its entries, by key; one that cannot be read is an error of its own.
    ///
    /// # Errors
    /// The database.
    pub fn ledgers(&self) -> Result<Vec<StoredLedger>, StoreError> {
        let mut c = self.connect()?;
        // Both in one view of the database: an entry is never seen without its notion.
        c.transaction(|c| {
            let all: Vec<(String, String)> =
                notions::table.order(notions::id.asc()).select((notions::id, notions::document)).load(c)?;
            let kept: Vec<(String, String)> = notion_entries::table
                .order(notion_entries::id.asc())
                .select((notion_entries::notion_id, notion_entries::document))
                .load(c)?;
            let mut entries: BTreeMap<String, Vec<String>> = BTreeMap::new();
            for (notion, document) in kept {
                entries.entry(notion).or_default().push(document);
            }
            Ok(all
                .into_iter()
                .map(|(id, document)| {
                    let ledger = read(&id, &document, &entries.remove(&id).unwrap_or_default());
                    (id, ledger)
                })
                .collect())
        })
    }

    /// The notions of which something was taken for the project `id`, by key.
    ///
    /// # Errors
    /// The database, or one that cannot be read.
    pub fn ledgers_of(&self, id: &str) -> Result<Vec<Ledger>, StoreError> {
        let mut c = self.connect()?;
        let of_it: Vec<String> = notion_entries::table
            .filter(notion_entries::project_id.eq(id))
            .order(notion_entries::notion_id.asc())
            .select(notion_entries::notion_id)
            .distinct()
            .load(&mut c)?;
        of_it.iter().filter_map(|notion| ledger(&mut c, notion).transpose()).collect()
    }

    /// The notion with this key, if there is one.
    ///
    /// # Errors
    /// The database, or what cannot be read.
    pub fn ledger(&self, id: &str) -> Result<Option<Ledger>, StoreError> {
        ledger(&mut *self.connect()?, id)
    }

    /// Keeps a new notion under a key that no other has, with its first entries.
    ///
    /// # Errors
    /// The database; what cannot be written.
    pub fn keep_ledger(&self, id: &str, new: &Ledger) -> Result<(), StoreError> {
        let document = written(id, &new.notion)?;
        self.write(|c| {
            diesel::insert_into(notions::table)
                .values((notions::id.eq(id), notions::document.eq(&document)))
                .execute(c)?;
            new.entries.iter().try_for_each(|entry| add(c, id, entry))
        })
    }

    /// Changes a notion: what `change` makes of its ledger as it is now is kept, nobody else writing meanwhile. Entries
    /// are added to, those that are there stay. Nothing where there is no such notion.
    ///
    /// # Errors
    /// The database, or what cannot be read or written.
    pub fn record(&self, id: &str, change: impl FnOnce(Ledger) -> Recorded) -> Result<Option<Recorded>, StoreError> {
        self.write(|c| {
            let Some(before) = ledger(c, id)? else { return Ok(None) };
            recorded(c, id, before, change).map(Some)
        })
    }

    /// Puts in a notion: what `change` makes of the one that `is_it`, or of `new` under the first key of `keys` that no other
    /// has. Nobody else writes meanwhile, so that two who put in the same at once put it to one. Gives the key too.
    ///
    /// # Errors
    /// The database, or what cannot be read or written.
    pub fn put_in(
        &self,
        is_it: impl Fn(&Notion) -> bool,
        (new, keys): (Ledger, impl Iterator<Item = String>),
        change: impl FnOnce(Ledger) -> Recorded,
    ) -> Result<(String, Recorded), StoreError> {
        self.write(|c| {
            let known: Vec<String> = notions::table.order(notions::id.asc()).select(notions::id).load(c)?;
            for id in &known {
                // One that cannot be read is never added to.
                let Some(before) = ledger(c, id).ok().flatten().filter(|l| is_it(&l.notion)) else { continue };
                return Ok((id.clone(), recorded(c, id, before, change)?));
            }
            let mut keys = keys;
            let id = keys.find(|k| !known.contains(k)).unwrap_or_default();
            let next = match change(new) {
                Ok(next) => next,
                Err(problem) => return Ok((id, Err(problem))),
            };
            let document = written(&id, &next.notion)?;
            diesel::insert_into(notions::table)
                .values((notions::id.eq(&id), notions::document.eq(&document)))
                .execute(c)?;
            next.entries.iter().try_for_each(|entry| add(c, &id, entry))?;
            Ok((id, Ok(next)))
        })
    }

    /// Deletes a notion and its entries if `may` it, nobody else writing meanwhile; whether it did. Nothing where there is
    /// no such notion.
    ///
    /// # Errors
    /// The database, or what cannot be read.
    pub fn forget_notion(&self, id: &str, may: impl FnOnce(&Ledger) -> bool) -> Result<Option<bool>, StoreError> {
        self.write(|c| {
            let Some(ledger) = ledger(c, id)? else { return Ok(None) };
            if !may(&ledger) {
                return Ok(Some(false));
            }
            diesel::delete(notion_entries::table.filter(notion_entries::notion_id.eq(id))).execute(c)?;
            diesel::delete(notions::table.find(id)).execute(c)?;
            Ok(Some(true))
        })
    }

    /// Keys of the notions of which a ledger speaks of the bag `project`.
    ///
    /// # Errors
    /// The database.
    pub fn notions_of_bag(&self, project: &str) -> Result<Vec<String>, StoreError> {
        let of_it = notion_entries::table.filter(notion_entries::project_id.eq(project));
        Ok(of_it.select(notion_entries::notion_id).distinct().load(&mut self.connect()?)?)
    }
}

/// Keeps what `change` makes of a ledger: its new entries, and the notion where that is another.
fn recorded(
    c: &mut SqliteConnection,
    id: &str,
    before: Ledger,
    change: impl FnOnce(Ledger) -> Recorded,
) -> Result<Recorded, StoreError> {
    let (many, notion) = (before.entries.len(), before.notion.clone());
    let next = match change(before) {
        Ok(next) => next,
        Err(problem) => return Ok(Err(problem)),
    };
    if next.notion != notion {
        let document = written(id, &next.notion)?;
        diesel::update(notions::table.find(id)).set(notions::document.eq(document)).execute(c)?;
    }
    next.entries.iter().skip(many).try_for_each(|entry| add(c, id, entry))?;
    Ok(Ok(next))
}

fn ledger(c: &mut SqliteConnection, id: &str) -> Result<Option<Ledger>, StoreError> {
    let document: Option<String> = notions::table.find(id).select(notions::document).first(c).optional()?;
    let Some(document) = document else { return Ok(None) };
    let entries: Vec<String> = notion_entries::table
        .filter(notion_entries::notion_id.eq(id))
        .order(notion_entries::id.asc())
        .select(notion_entries::document)
        .load(c)?;
    read(id, &document, &entries).map(Some)
}

fn read(id: &str, document: &str, entries: &[String]) -> Result<Ledger, StoreError> {
    read_ledger(document, entries).map_err(StoreError::unreadable(id))
}

fn written(id: &str, notion: &Notion) -> Result<String, StoreError> {
    write_notion(notion).map_err(StoreError::unreadable(id))
}

fn add(c: &mut SqliteConnection, id: &str, entry: &Entry) -> Result<(), StoreError> {
    let values = (
        notion_entries::notion_id.eq(id),
        notion_entries::project_id.eq(entry.project()),
        notion_entries::document.eq(write_entry(entry).map_err(StoreError::unreadable(id))?),
    );
    diesel::insert_into(notion_entries::table).values(values).execute(c)?;
    Ok(())
}

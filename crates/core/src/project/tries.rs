//! Which part comes from which cloth, kept to be held beside other ways: a try changes nothing until it is taken.

use super::{Dressing, Project};
use crate::FieldProblem;
use crate::name::named;
use crate::piece::Part;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;

/// More than these are not held beside each other.
pub const MOST_TRIES: usize = 12;

/// One way of dressing the bag.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Try {
    /// What it is called.
    pub name: String,
    /// Cloths of each part, the first preferred.
    pub from: BTreeMap<Part, Vec<String>>,
    /// Cloths of pieces that are not cut as their part is, by the piece's id.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub own: BTreeMap<String, Vec<String>>,
}

impl Project {
    /// The project dressed as `of`: cloths that are here no more are left out, and their parts without.
    #[must_use]
    pub fn dressed_as(&self, of: &Try) -> Self {
        let here = |ids: &Vec<String>| -> Vec<String> {
            ids.iter().filter(|id| self.cloths.iter().any(|c| c.id == **id)).cloned().collect()
        };
        let from = of.from.iter().map(|(part, ids)| (*part, here(ids))).filter(|(_, ids)| !ids.is_empty());
        let own = of.own.iter().map(|(piece, ids)| (piece.clone(), here(ids))).filter(|(_, ids)| !ids.is_empty());
        let dressing = Dressing { own: own.collect(), ..self.dressing.clone() };
        Self { from: from.collect(), dressing, ..self.clone() }
    }

    /// Whether the bag is dressed as `of` now.
    pub fn is_dressed_as(&self, of: &Try) -> bool {
        let dressed = self.dressed_as(of);
        (&dressed.from, &dressed.dressing.own) == (&self.from, &self.dressing.own)
    }

    /// How many cloths of `of` are here no more.
    pub fn gone_from(&self, of: &Try) -> usize {
        let mut gone: Vec<&String> = of
            .from
            .values()
            .chain(of.own.values())
            .flatten()
            .filter(|id| !self.cloths.iter().any(|c| c.id == **id))
            .collect();
        gone.sort_unstable();
        gone.dedup();
        gone.len()
    }

    pub(super) fn keep_try(&mut self, typed: &str) -> Result<String, FieldProblem> {
        let name = if typed.trim().is_empty() {
            let taken = |name: &String| self.tries.iter().any(|t| t.name == *name);
            (1..).map(|n| format!("Try {n}")).find(|name| !taken(name)).unwrap_or_default()
        } else {
            named("name", typed)?
        };
        if self.from.is_empty() {
            return Err(FieldProblem::new("name", &name, "No part has a cloth yet, so there is nothing to save."));
        }
        if let Some(same) = self.tries.iter().find(|t| t.from == self.from && t.own == self.dressing.own) {
            let message = format!("These cloths are saved already, as “{}”.", same.name);
            return Err(FieldProblem::new("name", &name, message));
        }
        if self.tries.iter().any(|t| t.name == name) {
            let message = format!("There is a try “{name}” already: give this one another name.");
            return Err(FieldProblem::new("name", &name, message));
        }
        if self.tries.len() >= MOST_TRIES {
            let message = format!("You have saved {MOST_TRIES} comparisons. Delete one first.");
            return Err(FieldProblem::new("name", &name, message));
        }
        let own = self.dressing.own.clone();
        self.tries.push(Try { name: name.clone(), from: self.from.clone(), own });
        Ok(format!("Keep {name}"))
    }

    pub(super) fn take_try(&mut self, name: &str) -> Result<String, FieldProblem> {
        let dressed = self.dressed_as(self.kept_try(name)?);
        if dressed.from.is_empty() {
            let message = format!("None of the cloths of “{name}” is here any more.");
            return Err(FieldProblem::new("name", name, message));
        }
        *self = dressed;
        Ok(format!("Use the cloths of {name}"))
    }

    pub(super) fn forget_try(&mut self, name: &str) -> Result<String, FieldProblem> {
        self.kept_try(name)?;
        self.tries.retain(|t| t.name != name);
        Ok(format!("Forget {name}"))
    }

    /// What came from one cloth comes from the other, and the reverse.
    pub(super) fn swap_cloths(&mut self, one: &str, other: &str) -> Result<String, FieldProblem> {
        let name = |field: &str, id: &str| {
            let found = self.cloths.iter().find(|c| c.id == id).map(|c| c.name.clone());
            found.ok_or_else(|| FieldProblem::new(field, id, format!("There is no cloth “{id}” in this project.")))
        };
        let told = format!("Swap {} and {}", name("one", one)?, name("other", other)?);
        for id in self.from.values_mut().chain(self.dressing.own.values_mut()).flatten() {
            if id == one {
                *id = other.to_owned();
            } else if id == other {
                *id = one.to_owned();
            }
        }
        Ok(told)
    }

    fn kept_try(&self, name: &str) -> Result<&Try, FieldProblem> {
        let found = self.tries.iter().find(|t| t.name == name);
        found.ok_or_else(|| FieldProblem::new("name", name, format!("The try “{name}” is no longer there.")))
    }
}

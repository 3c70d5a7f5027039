//! Which piece is cut from which cloth: by its part, unless it is said of the piece itself; and what is never to be, or may
//! come in any order.

use super::{Project, ProjectCloth};
use crate::FieldProblem;
use crate::piece::{Part, Piece};
use serde::{Deserialize, Serialize};
use std::collections::{BTreeMap, BTreeSet};

/// What is said of parts and pieces beside the cloths of each part, in order.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Dressing {
    /// Cloths of pieces that are not cut as their part is, by the piece's id, the first preferred.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub own: BTreeMap<String, Vec<String>>,
    /// Parts that may come from any of their cloths: whichever takes least.
    #[serde(default, skip_serializing_if = "BTreeSet::is_empty")]
    pub any: BTreeSet<Part>,
    /// Cloths that a part is never to be cut from, whatever runs short.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub never: BTreeMap<Part, BTreeSet<String>>,
}

impl Dressing {
    /// Whether nothing is said.
    pub fn is_empty(&self) -> bool {
        *self == Self::default()
    }

    /// Whether `part` is never to be cut from the cloth `id`.
    pub fn forbids(&self, part: Part, id: &str) -> bool {
        self.never.get(&part).is_some_and(|ids| ids.contains(id))
    }

    /// Forgets a cloth.
    pub(super) fn forget(&mut self, id: &str) {
        self.own.retain(|_, ids| {
            ids.retain(|i| i != id);
            !ids.is_empty()
        });
        self.never.retain(|_, ids| {
            ids.remove(id);
            !ids.is_empty()
        });
    }
}

impl Project {
    /// The ids of the cloths that `piece` is cut from, the first preferred.
    pub fn cloths_for(&self, piece: &Piece) -> &[String] {
        let by_part = || self.from.get(&piece.part).map_or(&[][..], Vec::as_slice);
        self.dressing.own.get(piece.id.as_ref()).map_or_else(by_part, Vec::as_slice)
    }

    /// The cloth that `piece` comes from in the first place.
    pub fn cloth_for(&self, piece: &Piece) -> Option<&ProjectCloth> {
        self.cloths_for(piece).iter().find_map(|id| self.cloth(id))
    }

    /// The cloth that is seen of `part` on the bag, which is cut as `pieces`: its own, or where all its pieces come from one
    /// other cloth, that.
    pub fn seen_cloth_of(&self, part: Part, pieces: &[Piece]) -> Option<&ProjectCloth> {
        let mut all = pieces.iter().filter(|p| p.part == part && p.when.is_laid()).map(|p| self.cloth_for(p));
        let first = all.next().flatten();
        match first {
            Some(cloth) if all.all(|c| c.is_some_and(|c| c.id == cloth.id)) => Some(cloth),
            _ => self.cloth_of(part),
        }
    }

    /// Cuts one piece from a cloth of its own, or as its part again where `cloth` is none.
    pub(super) fn assign_piece(&mut self, piece: &str, cloth: Option<&str>) -> Result<String, FieldProblem> {
        let (draft, _) = self.drafted().map_err(|mut all| all.remove(0))?;
        let Some(found) = draft.pieces.iter().find(|p| p.id == *piece && p.when.is_laid()) else {
            // What is no piece any more is let go of all the same.
            if cloth.is_none() && self.dressing.own.remove(piece).is_some() {
                return Ok("A piece as its part".into());
            }
            return Err(FieldProblem::new("piece", piece, format!("There is no piece “{piece}” to cut in this bag.")));
        };
        let Some(cloth) = cloth else {
            self.dressing.own.remove(piece);
            return Ok(format!("{} as all of {}", found.name, found.part.name()));
        };
        let name = self.named_cloth(cloth)?;
        self.dressing.own.insert(piece.to_owned(), vec![cloth.to_owned()]);
        Ok(format!("{} from {name}", found.name))
    }

    /// A part may come from any of its cloths, or from them in order.
    pub(super) fn any_order(&mut self, part: Part, any: bool) -> String {
        if any {
            self.dressing.any.insert(part)
        } else {
            self.dressing.any.remove(&part)
        };
        let how = if any { "from any of its cloths" } else { "from its cloths in order" };
        format!("{} {how}", part.name())
    }

    /// A part is never to be cut from a cloth, or may be again.
    ///
    /// # Errors
    /// A cloth that is none, or that the part is cut from now.
    pub(super) fn never_from(&mut self, part: Part, cloth: &str, never: bool) -> Result<String, FieldProblem> {
        let name = self.named_cloth(cloth)?;
        if !never {
            if let Some(ids) = self.dressing.never.get_mut(&part) {
                ids.remove(cloth);
            }
            self.dressing.never.retain(|_, ids| !ids.is_empty());
            return Ok(format!("{} may come from {name}", part.name()));
        }
        if self.from.get(&part).is_some_and(|ids| ids.iter().any(|id| id == cloth)) {
            let message = format!("{} is cut from {name} now. Remove it from there first.", part.name());
            return Err(FieldProblem::new("cloth", cloth, message));
        }
        self.dressing.never.entry(part).or_default().insert(cloth.to_owned());
        Ok(format!("{} never from {name}", part.name()))
    }

    /// What is put on a cloth by hand may be cut from it.
    pub(super) fn allow(&mut self, part: Part, cloth: &str) {
        if let Some(ids) = self.dressing.never.get_mut(&part) {
            ids.remove(cloth);
        }
        self.dressing.never.retain(|_, ids| !ids.is_empty());
    }

    fn named_cloth(&self, id: &str) -> Result<String, FieldProblem> {
        let found = self.cloths.iter().find(|c| c.id == id).map(|c| c.name.clone());
        found.ok_or_else(|| FieldProblem::new("cloth", id, format!("There is no cloth “{id}” in this project.")))
    }
}

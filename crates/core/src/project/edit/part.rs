//! Changes to the parts put on the bag.

use crate::FieldProblem;
use crate::bag::field::{told, within_a_sentence};
use crate::bag::parts::MOST_PARTS;
use crate::bag::{Added, Body, Choice, PartKind, Slot};
use crate::project::Project;

impl Project {
    pub(super) fn add_part(&mut self, kind: &str, wall: Option<&str>) -> Result<String, FieldProblem> {
        if matches!(self.bag.body, Body::CutList(_)) {
            let message = "Your own cut list has rows instead of parts. Add a row.";
            return Err(FieldProblem::new("part", kind, message));
        }
        let part = Added::new(kind, self.bag.next_part(), self.system).ok_or_else(|| {
            let all: Vec<&str> = PartKind::CHOICES.iter().map(|(key, ..)| *key).collect();
            FieldProblem::new("part", kind, format!("“{kind}” is not a choice here: {}.", all.join(", ")))
        })?;
        self.put_on(part, wall)
    }

    /// Puts a new part on, as large as it fits.
    fn put_on(&mut self, mut part: Added, wall: Option<&str>) -> Result<String, FieldProblem> {
        if self.bag.parts.len() >= MOST_PARTS {
            let message = format!("A bag can have at most {MOST_PARTS} parts.");
            return Err(FieldProblem::new("part", self.bag.parts.len(), message));
        }
        let walls = self.bag.walls(self.ruler);
        if let Some(wall) = wall {
            part.set("wall", wall, &walls, self.system)?;
        }
        part.suit(&walls);
        let fitting = part.sized_to(
            |part| {
                let mut bag = self.bag.clone();
                bag.parts.push(part.clone());
                bag.draft(self.ruler).map(|_| ())
            },
            self.ruler,
        );
        let part = fitting.map_err(|mut all| all.remove(0))?;
        let name = part.name();
        self.bag.parts.push(part);
        Ok(format!("{name} put on"))
    }

    fn part_mut(&mut self, id: u32) -> Result<&mut Added, FieldProblem> {
        let message = format!("The bag has no part {id}.");
        self.bag.parts.iter_mut().find(|p| p.id == id).ok_or_else(|| FieldProblem::new("id", id, message))
    }

    pub(super) fn edit_part(&mut self, id: u32, field: &str, value: &str) -> Result<String, FieldProblem> {
        let (walls, system, ruler) = (self.bag.walls(self.ruler), self.system, self.ruler);
        let part = self.part_mut(id)?;
        part.set(field, value, &walls, system)?;
        let told = told(&part.fields(), field, ruler);
        let told = format!("{}, {}", part.name(), within_a_sentence(&told));
        let chosen = part.fields().iter().any(|f| f.key == field && matches!(f.slot, Slot::Choice(_)));
        if chosen {
            // Sizes nobody typed just now go along with what was chosen; `came_along` tells them.
            let part = part.clone();
            let stands = |part: &Added| {
                let mut bag = self.bag.clone();
                bag.parts.iter_mut().filter(|p| p.id == id).for_each(|p| *p = part.clone());
                bag.draft(self.ruler).map(|_| ())
            };
            let fitting = part.sized_to(stands, self.ruler);
            if let Ok(fitting) = fitting {
                *self.part_mut(id)? = fitting;
            }
        }
        Ok(told)
    }

    pub(super) fn take_part_off(&mut self, id: u32) -> Result<String, FieldProblem> {
        let part = self.part_mut(id)?;
        let (name, prefix) = (part.name(), format!("{}-", part.prefix()));
        self.bag.parts.retain(|p| p.id != id);
        self.made_up.retain(|piece, _| !piece.starts_with(&prefix));
        self.measured.retain(|piece, _| !piece.starts_with(&prefix));
        self.turned.retain(|piece, _| !piece.starts_with(&prefix));
        self.on_print.retain(|piece, _| !piece.starts_with(&prefix));
        Ok(format!("Remove {name}"))
    }

    /// The same on the wall across, or once more where it has none.
    pub(super) fn copy_part(&mut self, id: u32) -> Result<String, FieldProblem> {
        let (walls, system, next) = (self.bag.walls(self.ruler), self.system, self.bag.next_part());
        let mut copy = Added { id: next, ..self.part_mut(id)?.clone() };
        let wall = copy.fields().into_iter().find(|f| f.key == "wall").and_then(|f| match f.slot {
            Slot::Choice(choice) => Some(choice.answer().key),
            _ => None,
        });
        if let (Some(_), Some(across)) = (wall, copy.sides().first().map(|side| side.opposite()))
            && walls.iter().any(|w| w.side == across)
        {
            copy.set("wall", across.answer().key, &walls, system)?;
        }
        self.put_on(copy, None)
    }

    pub(super) fn put_part_back(&mut self, id: u32) -> Result<String, FieldProblem> {
        let part = self.part_mut(id)?;
        part.aside = false;
        Ok(format!("{} put back", part.name()))
    }
}

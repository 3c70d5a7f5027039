//! Changes to the project itself: its name and system, how it is laid, what is at hand, how far the cutting has come.

use super::read::{choice, currency, key_of, yes_or_no};
use super::{LayField, ProjectField};
use crate::FieldProblem;
use crate::bag::GoodKind;
use crate::buying::PiecesAtHand;
use crate::measure::{Length, Ruler, parse_reel, split_lengths};
use crate::name::{self, named};
use crate::project::Project;
use crate::project::document::LengthsAtHand;
use std::sync::Arc;

/// More lengths of one thing than these are a reel.
const MOST_LENGTHS: usize = 40;

/// Of one kind of thing so many may be there.
const MOST_AT_HAND: u32 = 999;

impl Project {
    pub(super) fn edit_lay(&mut self, field: LayField, value: &str) -> Result<String, FieldProblem> {
        match field {
            LayField::Cuts => self.lay.cuts = choice("cuts", value)?,
            LayField::PrintMayLie => self.lay.print_may_lie = yes_or_no("print_may_lie", value)?,
            LayField::Straps => self.lay.straps = choice("straps", value)?,
            LayField::Join => self.lay.join = choice("join", value)?,
            LayField::InNotches => self.lay.in_notches = yes_or_no("in_notches", value)?,
        }
        Ok(format!("Lay, {}", key_of(&field).replace('_', " ")))
    }

    pub(super) fn edit_project(&mut self, field: ProjectField, value: &str) -> Result<String, FieldProblem> {
        match field {
            ProjectField::Name => self.name = named("name", value)?,
            ProjectField::Currency => self.currency = currency(value)?,
            ProjectField::System => {
                self.system = choice("system", value)?;
                self.ruler = Ruler::default_for(self.system);
                let cloths = std::mem::take(&mut self.cloths);
                self.cloths = cloths.into_iter().map(|c| c.sold_in(self.system)).collect();
            }
            ProjectField::Ruler => {
                let ruler: Ruler = choice("ruler", value)?;
                if ruler.system() != self.system {
                    return Err(FieldProblem::new(
                        "ruler",
                        value,
                        "The ruler is marked in the other system: never mix the two.",
                    ));
                }
                self.ruler = ruler;
            }
        }
        Ok(format!("Project {}", key_of(&field)))
    }

    pub(super) fn edit_lengths(
        &mut self,
        kind: GoodKind,
        width: Option<Length>,
        lengths: &str,
    ) -> Result<String, FieldProblem> {
        let mut found = Vec::new();
        // 0 is none, as elsewhere.
        let typed = split_lengths(lengths).into_iter().filter(|typed| *typed != "0");
        for typed in typed {
            let length = parse_reel(typed, self.system)
                .map_err(|why| FieldProblem::new("lengths", typed, crate::as_sentence(why)))?;
            if length <= Length::ZERO {
                let message = format!("Enter more than 0 instead of “{typed}”.");
                return Err(FieldProblem::new("lengths", lengths, message));
            }
            found.push(length);
        }
        if found.len() > MOST_LENGTHS {
            let message = format!("You typed {} lengths. Bofta keeps track of at most {MOST_LENGTHS}.", found.len());
            return Err(FieldProblem::new("lengths", lengths, message));
        }
        self.lengths_at_hand.retain(|l| (l.kind, l.width) != (kind, width));
        if !found.is_empty() {
            self.lengths_at_hand.push(LengthsAtHand { kind, width, lengths: found });
        }
        Ok(format!("{} at hand", kind.name()))
    }

    pub(super) fn edit_pieces_at_hand(
        &mut self,
        name: &str,
        size: Option<Length>,
        count: &str,
    ) -> Result<String, FieldProblem> {
        let typed = count.trim();
        let there: u32 = match typed {
            "" | "none" => 0,
            _ => typed.parse().ok().filter(|n| *n <= MOST_AT_HAND).ok_or_else(|| {
                let message = format!("Enter a number from 0 to {MOST_AT_HAND} instead of “{typed}”.");
                FieldProblem::new("count", typed, message)
            })?,
        };
        let clean = name::clean(name);
        if clean.is_empty() || clean.chars().count() > name::MOST_LETTERS {
            let message = format!("A name has from 1 to {} characters.", name::MOST_LETTERS);
            return Err(FieldProblem::new("name", name, message));
        }
        self.pieces_at_hand.retain(|p| (p.name.as_str(), p.size) != (clean.as_str(), size));
        if self.pieces_at_hand.len() >= MOST_LENGTHS {
            let message = format!("At most {MOST_LENGTHS} kinds are kept track of.");
            return Err(FieldProblem::new("name", name, message));
        }
        let label = format!("{clean} you have");
        if there > 0 {
            self.pieces_at_hand.push(PiecesAtHand { name: clean, size, count: there });
        }
        Ok(label)
    }

    pub(super) fn edit_steps_done(&mut self, count: u32) -> Result<String, FieldProblem> {
        if count == 0 {
            self.begin_again();
            return Ok("Begin cutting again".to_owned());
        }
        let Some(plan) = &mut self.cutting else {
            return Err(FieldProblem::new("steps_done", count, "There is no layout yet, so there is nothing to cut."));
        };
        if plan.is_relisted() {
            // Whoever ticks cuts off now sees the list as it is.
            Arc::make_mut(plan).relisted = false;
        }
        let steps = plan.steps().len();
        if count as usize > steps {
            let message = format!("{count} steps are done: the plan has {steps}.");
            return Err(FieldProblem::new("steps_done", count, message));
        }
        self.steps_done = count;
        Ok(format!("{count} steps done"))
    }
}

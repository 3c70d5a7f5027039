//! Collecting what cannot stand, each once by its field, with what is allowed.

use crate::FieldProblem;
use crate::measure::{LONGEST, Length, Ruler, in_system};

/// The least a seam or a turn can be: 1/8 in or 3 mm (common practice).
const LEAST_SEAM: Length = Length(Length::MILLIMETRE.0 * 3);

pub(super) struct Problems {
    ruler: Ruler,
    found: Vec<FieldProblem>,
}

impl Problems {
    pub(super) fn new(ruler: Ruler) -> Self {
        Self { ruler, found: vec![] }
    }

    /// `length` with its unit.
    pub(super) fn show(&self, length: Length) -> String {
        format!("{} {}", self.ruler.show(length).text, self.ruler.system().symbol())
    }

    fn add(&mut self, field: &str, value: Length, message: String) {
        if !self.found.iter().any(|p| p.field == field) {
            self.found.push(FieldProblem::new(field, self.show(value), message));
        }
    }

    /// More than nothing and at most 20 m.
    pub(super) fn size(&mut self, field: &str, name: &str, value: Length) {
        if value <= Length::ZERO {
            self.add(field, value, format!("The {name} is {}: it must be more than 0.", self.show(value)));
        } else if value > LONGEST {
            self.add(field, value, format!("The {name} is {}: at most 20 m is allowed.", self.show(value)));
        }
    }

    /// A seam or turn: thick enough to hold, and less than what it is taken from.
    pub(super) fn seam(&mut self, field: &str, name: &str, value: Length, limit: Length, limit_name: &str) {
        if value < LEAST_SEAM {
            let message = format!("The {name} is {}: a seam needs at least ⅛ in or 3 mm.", self.show(value));
            self.add(field, value, message);
        } else if value >= limit {
            let message =
                format!("The {name} is {}: it must be less than {limit_name}, {}.", self.show(value), self.show(limit));
            self.add(field, value, message);
        }
    }

    /// Between two lengths, both allowed.
    pub(super) fn between(&mut self, field: &str, name: &str, value: Length, least: Length, most: Length) {
        if value < least || value > most {
            let message = format!(
                "The {name} is {}: between {} and {} is allowed.",
                self.show(value),
                self.show(least),
                self.show(most)
            );
            self.add(field, value, message);
        }
    }

    /// Whatever else cannot stand.
    pub(super) fn refuse(&mut self, field: &str, value: Length, message: impl Into<String>) {
        self.add(field, value, in_system(&message.into(), self.ruler.system()).into_owned());
    }

    /// What a part found of itself.
    pub(super) fn with(&mut self, problem: Option<FieldProblem>) {
        if let Some(problem) = problem.filter(|new| self.found.iter().all(|p| p.field != new.field)) {
            self.found.push(problem);
        }
    }

    /// Nothing, or all that was found.
    pub(super) fn end(self) -> Result<(), Vec<FieldProblem>> {
        if self.found.is_empty() { Ok(()) } else { Err(self.found) }
    }
}

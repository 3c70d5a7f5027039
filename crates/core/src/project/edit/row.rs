//! Changes to one row of a cut list of one's own.

use super::RowField;
use super::read::{choice, corners, key_of, size, yes_or_no};
use crate::FieldProblem;
use crate::bag::{Body, Row, RowShape};
use crate::measure::{Length, Ruler, System};
use crate::name::named;
use crate::project::Project;
use crate::shape::Point;
use std::collections::BTreeMap;

impl Project {
    /// Of rows that have moved up by one, what is kept by their pieces' ids goes with them.
    fn rows_moved_up(&mut self, removed: usize) {
        fn moved<T>(kept: &mut BTreeMap<String, T>, removed: usize) {
            let row = |id: &str| id.strip_prefix("row-").and_then(|n| n.parse::<usize>().ok());
            *kept = std::mem::take(kept)
                .into_iter()
                .filter_map(|(id, value)| match row(&id) {
                    Some(n) if n == removed + 1 => None,
                    Some(n) if n > removed + 1 => Some((format!("row-{}", n - 1), value)),
                    _ => Some((id, value)),
                })
                .collect();
        }
        moved(&mut self.made_up, removed);
        moved(&mut self.measured, removed);
    }

    pub(super) fn add_row(
        &mut self,
        name: &str,
        part: &str,
        [count, width, height]: [&str; 3],
    ) -> Result<String, FieldProblem> {
        let (system, name, part) = (self.system, named("name", name)?, choice("part", part)?);
        let count = pieces("count", count)?;
        let (width, height) = (across("width", width, system)?, size("height", height, system)?);
        let Body::CutList(list) = &mut self.bag.body else {
            return Err(FieldProblem::new("rows", &name, "Only a cut list of one's own has rows."));
        };
        let row = Row { width, ..Row::new(name, part, count, Length::ZERO, height) };
        let told = format!("Row {} {}", list.rows.len() + 1, row.name);
        list.rows.push(row);
        Ok(told)
    }

    pub(super) fn edit_row(&mut self, row: usize, field: RowField, value: &str) -> Result<String, FieldProblem> {
        let key = format!("rows[{row}].{}", key_of(&field));
        let system = self.system;
        let Body::CutList(list) = &mut self.bag.body else {
            return Err(FieldProblem::new(key, value, "Only a cut list of one's own has rows."));
        };
        let count = list.rows.len();
        let Some(found) = list.rows.get_mut(row) else {
            return Err(FieldProblem::new(key, value, format!("There is no row {}: the list has {count}.", row + 1)));
        };
        match field {
            RowField::Name => found.name = named(&key, value)?,
            RowField::Part => found.part = choice(&key, value)?,
            RowField::Count => found.count = pieces(&key, value)?,
            RowField::Width => found.width = across(&key, value, system)?,
            RowField::Height => found.height = size(&key, value, system)?,
            RowField::Shape => {
                let (across, up) = (found.width.unwrap_or(found.height) / 6, found.height / 6);
                found.shape = match value.trim() {
                    "rectangle" => RowShape::Rectangle,
                    "circle" => RowShape::Circle,
                    "half-round" => RowShape::HalfRound,
                    "rounded" => RowShape::Rounded { radius: across.min(up) },
                    "notched" => RowShape::Notched { across: across.min(up), up: across.min(up) },
                    "tapered" => RowShape::Tapered { by: across },
                    "free" => {
                        let ruler = Ruler::default_for(system);
                        RowShape::Free { corners: found.corners(ruler) }
                    }
                    other => {
                        let all = RowShape::CHOICES.map(|(key, _)| key).join(", ");
                        return Err(FieldProblem::new(&key, other, format!("“{other}” is not a choice here: {all}.")));
                    }
                };
            }
            RowField::Corner => {
                let typed = size(&key, value, system)?;
                match &mut found.shape {
                    RowShape::Rounded { radius } => *radius = typed,
                    RowShape::Notched { across, up } => (*across, *up) = (typed, typed),
                    RowShape::Tapered { by } => *by = typed,
                    _ => return Err(FieldProblem::new(&key, value, "This shape has no corner to size.")),
                }
            }
            RowField::Corners => {
                let corners = corners(&key, value, system)?;
                let far = |of: fn(&Point) -> Length| corners.iter().map(of).max().unwrap_or_default();
                (found.width, found.height) = (Some(far(|p| p.x)), far(|p| p.y));
                found.shape = RowShape::Free { corners };
            }
            RowField::Seam => found.seam = size(&key, value, system)?,
            RowField::Fold => found.fold = if value.trim().is_empty() { None } else { Some(choice(&key, value)?) },
            RowField::AnyWay => found.any_way = yes_or_no(&key, value)?,
            RowField::Pairs => found.pairs = yes_or_no(&key, value)?,
            RowField::Turn => {
                if let Some(width) = found.width {
                    (found.width, found.height) = (Some(found.height), width);
                }
            }
            RowField::Remove => {
                list.rows.remove(row);
                self.rows_moved_up(row);
                return Ok(format!("Remove row {}", row + 1));
            }
        }
        Ok(format!("Row {} {} {}", row + 1, key_of(&field).replace('_', " "), value.trim()))
    }
}

/// How many pieces, as typed.
fn pieces(key: &str, value: &str) -> Result<u32, FieldProblem> {
    let typed = value.trim();
    typed.parse().map_err(|_| FieldProblem::new(key, value, format!("“{typed}” is not a number of pieces.")))
}

/// How wide, as typed; nothing for the width of the cloth.
fn across(key: &str, value: &str, system: System) -> Result<Option<Length>, FieldProblem> {
    match value.trim().to_lowercase().as_str() {
        "wof" | "width of cloth" => Ok(None),
        _ => size(key, value, system).map(Some),
    }
}

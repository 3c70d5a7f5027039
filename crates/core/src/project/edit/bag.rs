//! Changes to the bag: its family and sizes, how its panels are made up, turned and measured.

use super::read::size;
use super::{Edit, Lies};
use crate::FieldProblem;
use crate::bag::fit::Thing;
use crate::bag::making_up::{may_be_backed, may_be_made_up};
use crate::bag::{Bag, Body, Bought, CutList, Design, Family, MadeUp, Row};
use crate::measure::{LONGEST, Length};
use crate::name::named;
use crate::piece::Piece;
use crate::project::Project;
use crate::project::measured::{Measured, is_measured_later};

impl Project {
    /// What came along since `before` besides what `edits` say, each a sentence: sizes nobody had typed.
    pub fn came_along(&self, before: &Self, edits: &[Edit]) -> Vec<String> {
        let mut typed = vec![];
        for edit in edits {
            match edit {
                Edit::Bag { field, .. } => typed.push(field.clone()),
                Edit::Part { id, field, .. } => typed.push(format!("part-{id}.{field}")),
                Edit::Fit { .. } => typed.extend(["width", "height", "depth"].map(str::to_owned)),
                Edit::Scale { .. } => return vec![],
                _ => {}
            }
        }
        self.bag.came_along(&before.bag, &typed, self.ruler)
    }

    pub(super) fn edit_family(&mut self, family: &str) -> Result<String, FieldProblem> {
        let Some(found) = Family::of(family) else {
            let all: Vec<&str> = Family::ALL.iter().map(|f| f.key()).collect();
            let message = format!("“{family}” is not a choice here: {}.", all.join(", "));
            return Err(FieldProblem::new("family", family, message));
        };
        self.bag = self.bag.turned_into(found, self.system);
        self.made_up.clear();
        self.measured.clear();
        self.turned.clear();
        Ok(found.name().to_owned())
    }

    pub(super) fn edit_rows(&mut self, rows: &[Row], bought: &[Bought]) -> Result<String, FieldProblem> {
        let count = rows.len();
        let mut list = match &self.bag.body {
            Body::CutList(list) => list.clone(),
            _ => CutList::default_for(self.system),
        };
        list.rows = rows.to_vec();
        for (at, row) in list.rows.iter_mut().enumerate() {
            row.name = named(&format!("rows[{at}].name"), &row.name)?;
        }
        list.bought = bought.to_vec();
        for (at, one) in list.bought.iter_mut().enumerate() {
            one.name = named(&format!("bought[{at}].name"), &one.name)?;
        }
        self.bag = Bag::from(Body::CutList(list));
        self.made_up.clear();
        self.measured.clear();
        self.turned.clear();
        Ok(format!("{count} rows of a cut list"))
    }

    pub(super) fn edit_fit(&mut self, [width, height, thick, ease, above]: [&str; 5]) -> Result<String, FieldProblem> {
        let read = |field: &str, value: &str| size(field, value, self.system);
        let thing =
            Thing { width: read("width", width)?, height: read("height", height)?, thick: read("thick", thick)? };
        let (ease, above) = (read("ease", ease)?, read("above", above)?);
        if thing.width <= Length::ZERO || thing.height <= Length::ZERO {
            return Err(FieldProblem::new("width", width, "Say how wide and how tall the thing is."));
        }
        let before = self.bag.clone();
        self.bag.fit(thing, ease, above, self.ruler);
        self.bag.bring_along(&before, self.system, self.ruler);
        Ok("Fitted to a thing".to_owned())
    }

    pub(super) fn edit_scale(&mut self, percent: u32) -> Result<String, FieldProblem> {
        if !(10..=1000).contains(&percent) {
            let message = format!("{percent} % will not do: from 10 to 1000 is allowed.");
            return Err(FieldProblem::new("percent", percent, message));
        }
        let (bag, _) = self.bag.scaled(percent, self.ruler).map_err(|mut all| all.remove(0))?;
        self.bag = bag;
        Ok(format!("Scaled to {percent} %"))
    }

    pub(super) fn edit_bag(&mut self, field: &str, value: &str) -> Result<String, FieldProblem> {
        let before = self.bag.clone();
        self.bag.set(field, value, self.system)?;
        self.bag.bring_along(&before, self.system, self.ruler);
        Ok(format!("{} {}", field.replace('_', " "), value.trim()))
    }

    pub(super) fn make_up(&mut self, piece: &str, field: &str, value: &str) -> Result<String, FieldProblem> {
        // As it is made up so far: bands are pieces of their own.
        let mut before = self.clone();
        before.made_up.remove(piece);
        let (drafted, _) = before.drafted().map_err(|mut all| all.remove(0))?;
        let behind = field.starts_with("backed");
        let may = |p: &&Piece| if behind { may_be_backed(p) } else { may_be_made_up(p) };
        let Some(found) = drafted.piece(piece).filter(may) else {
            let message = if behind {
                "Nothing lies behind this piece: it is a backing itself, a patch, or cut from a fused block."
            } else {
                "This piece is not a panel that can be pieced or quilted here."
            };
            return Err(FieldProblem::new("piece", piece, message));
        };
        let mut made = self.made_up.remove(piece).unwrap_or_else(|| MadeUp::plain(self.system));
        made.set(field, value, self.system)?;
        if !made.is_plain() {
            self.made_up.insert(piece.to_owned(), made);
        }
        Ok(format!("{}, {} {}", found.name, field.replace('_', " "), value.trim()))
    }

    pub(super) fn measure(&mut self, piece: &str, width: &str, height: &str) -> Result<String, FieldProblem> {
        let (drafted, _) = self.drafted().map_err(|mut all| all.remove(0))?;
        let Some(found) = drafted.piece(piece).filter(|p| is_measured_later(p)) else {
            let message = "This piece is as it is cut: what is cut to what is made, quilted or pieced can be measured.";
            return Err(FieldProblem::new("piece", piece, message));
        };
        if width.trim().is_empty() && height.trim().is_empty() {
            self.measured.remove(piece);
            return Ok(format!("{}, not measured", found.name));
        }
        let read = |field: &str, typed: &str| {
            let length = size(field, typed, self.system)?;
            if length > Length::ZERO && length <= LONGEST {
                return Ok(length);
            }
            let message = format!("The {field} is {}: more than 0 and at most 20 m is allowed.", typed.trim());
            Err(FieldProblem::new(field, typed, message))
        };
        let (width, height) = (read("width", width)?, read("height", height)?);
        let measured = Measured { width, height, cut_before: Default::default() };
        self.measured.insert(piece.to_owned(), measured);
        Ok(format!("{}, measured", found.name))
    }

    pub(super) fn turn(&mut self, piece: &str, lies: Lies) -> Result<String, FieldProblem> {
        let (draft, _) = self.drafted().map_err(|mut all| all.remove(0))?;
        let Some(found) = draft.pieces.iter().find(|p| p.id == piece && p.when.is_laid()) else {
            let message = format!("“{piece}” is no piece that is cut from a cloth.");
            return Err(FieldProblem::new("piece", piece, message));
        };
        match lies.grain() {
            Some(grain) => self.turned.insert(piece.to_owned(), grain),
            None => self.turned.remove(piece),
        };
        Ok(format!("{} {}", found.name, lies.name()))
    }
}

//! Changes to the bag: its family and sizes, how its panels are made up, turned and measured.

use super::read::size;
use super::{Edit, Lies};
use crate::FieldProblem;
use crate::bag::field::{told, within_a_sentence};
use crate::bag::fit::Thing;
use crate::bag::making_up::{may_be_backed, may_be_made_up};
use crate::bag::{Bag, Body, Bought, CutList, Design, Family, MadeUp, Row, Slot};
use crate::cloth::PrintUp;
use crate::measure::{LONGEST, Length};
use crate::name::named;
use crate::piece::Piece;
use crate::project::measured::{Measured, is_measured_later};
use crate::project::{MotifAt, OnPrint, Project};

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
        self.on_print.clear();
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
        self.on_print.clear();
        Ok(format!("{count} rows of a cut list"))
    }

    pub(super) fn edit_fit(&mut self, [width, height, thick, ease, above]: [&str; 5]) -> Result<String, FieldProblem> {
        let read = |field: &str, value: &str| size(field, value, self.system);
        let thing =
            Thing { width: read("width", width)?, height: read("height", height)?, thick: read("thick", thick)? };
        let (ease, above) = (read("ease", ease)?, read("above", above)?);
        if thing.width <= Length::ZERO || thing.height <= Length::ZERO {
            return Err(FieldProblem::new("width", width, "Type the width and the height of the thing."));
        }
        let before = self.bag.clone();
        self.bag.fit(thing, ease, above, self.ruler);
        self.bag.bring_along(&before, self.system, self.ruler);
        Ok("Fit the bag to a thing".to_owned())
    }

    pub(super) fn edit_scale(&mut self, percent: u32) -> Result<String, FieldProblem> {
        if !(10..=1000).contains(&percent) {
            let message = format!("Enter a percentage from 10 to 1000. You typed {percent} %.");
            return Err(FieldProblem::new("percent", percent, message));
        }
        let (bag, _) = self.bag.scaled(percent, self.ruler).map_err(|mut all| all.remove(0))?;
        self.bag = bag;
        Ok(format!("Scale to {percent} %"))
    }

    pub(super) fn edit_bag(&mut self, field: &str, value: &str) -> Result<String, FieldProblem> {
        let before = self.bag.clone();
        self.bag.set(field, value, self.system)?;
        self.bag.bring_along(&before, self.system, self.ruler);
        Ok(told(&self.bag.fields(), field, self.ruler))
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
        let told = told(&made.fields(), field, self.ruler);
        if !made.is_plain() {
            self.made_up.insert(piece.to_owned(), made);
        }
        Ok(format!("{}, {}", found.name, within_a_sentence(&told)))
    }

    /// Brings the bag to the width and height at which the panel `piece` is as many patches of this finished size as it
    /// has: n patches show n × f, and the panel has a seam between patches more at each edge, n × f + 2p.
    pub(super) fn size_by_patches(&mut self, piece: &str, width: &str, height: &str) -> Result<String, FieldProblem> {
        let Some((patchwork, _)) = self.patchwork_of(piece) else {
            let message = "This panel is not in squares, strips or triangles: choose how it is made up first.";
            return Err(FieldProblem::new("piece", piece, message));
        };
        let (columns, rows) = patchwork.places();
        let before = self.bag.clone();
        for (field, typed, n) in [("width", width, columns), ("height", height, rows)] {
            let patch = size(field, typed, self.system)?;
            if patch <= Length::ZERO {
                let message = format!("A patch shows {}: it must be more than 0.", typed.trim());
                return Err(FieldProblem::new(field, typed, message));
            }
            self.bring_panel_to(piece, field, patch * n as i64 + patchwork.seam * 2)?;
        }
        self.bag.bring_along(&before, self.system, self.ruler);
        let name = self.drafted().ok().and_then(|(d, _)| d.piece(piece).map(|p| p.name.to_string()));
        let name = name.unwrap_or_else(|| piece.to_owned()).to_lowercase();
        Ok(format!("Sized by the patches of the {name}, {} × {}", width.trim(), height.trim()))
    }

    /// Changes the bag's `field` until that side of the panel `piece` is `target`, to a line of the ruler.
    fn bring_panel_to(&mut self, piece: &str, field: &'static str, target: Length) -> Result<(), FieldProblem> {
        let side = |project: &Self| -> Result<Length, FieldProblem> {
            let (draft, _) = project.drafted().map_err(|mut all| all.remove(0))?;
            let panel = draft.piece(piece).map(|p| if field == "width" { p.width.clone() } else { p.height.clone() });
            let gone = || FieldProblem::new("piece", piece, "This panel goes when the bag is sized so.");
            panel.map(|d| d.size - d.rounding()).ok_or_else(gone)
        };
        let with = |project: &Self, length: Length| {
            let mut next = project.clone();
            for f in next.bag.fields().iter_mut().filter(|f| f.key == field) {
                if let Slot::Length(slot) = &mut f.slot {
                    **slot = length;
                }
            }
            next
        };
        let is = self.bag.length(field).unwrap_or_default();
        let (now, larger) = (side(self)?, side(&with(self, is + Length::INCH))?);
        if larger == now {
            let message =
                format!("The {field} of this panel does not follow from that of the bag: type the bag’s sizes.");
            return Err(FieldProblem::new(field, field, message));
        }
        let more = (target - now).0 as f64 * Length::INCH.0 as f64 / (larger - now).0 as f64;
        let length = (is + Length(more.round() as i64)).round_to(self.ruler.step());
        *self = with(self, length);
        Ok(())
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
            let message = format!("“{piece}” is not a piece that is cut from cloth.");
            return Err(FieldProblem::new("piece", piece, message));
        };
        match lies.grain() {
            Some(grain) => self.turned.insert(piece.to_owned(), grain),
            None => self.turned.remove(piece),
        };
        Ok(format!("{} {}", found.name, lies.name()))
    }

    /// Both empty: the piece may lie anywhere on the print again.
    pub(super) fn place_on_print(&mut self, piece: &str, across: &str, up: &str) -> Result<String, FieldProblem> {
        let (draft, _) = self.drafted().map_err(|mut all| all.remove(0))?;
        let Some(found) = draft.pieces.iter().find(|p| p.id == piece && p.when.is_laid()) else {
            let message = format!("“{piece}” is not a piece that is cut from cloth.");
            return Err(FieldProblem::new("piece", piece, message));
        };
        if across.trim().is_empty() && up.trim().is_empty() {
            self.on_print.remove(piece);
            return Ok(format!("Remove the placement of {} on the print", found.name));
        }
        let Some(cloth) = self.cloth_for(found) else {
            let message = format!("{} has no cloth yet: choose that first.", found.name);
            return Err(FieldProblem::new("piece", piece, message));
        };
        if !cloth.has_repeat() {
            let unknown = if cloth.has_border() {
                "how far it is from the edge to the middle of its border"
            } else {
                "how wide and how tall one repeat is"
            };
            let message =
                format!("Nothing is known yet of the print of {}: measure on its card {unknown}.", cloth.name);
            return Err(FieldProblem::new("piece", piece, message));
        }
        let (width, height) = found.size();
        let (across_cloth, along_cloth) = cloth.repeats();
        let (wide, tall) = match cloth.up {
            PrintUp::Length => (across_cloth, along_cloth),
            PrintUp::Across => (along_cloth, across_cloth),
        };
        // In a half-drop print every other column is the same again.
        let wide = wide.map(|wide| if cloth.half_drop { wide * 2 } else { wide });
        let read = |field: &str, typed: &str, size: Length, repeat: Option<Length>| match typed.trim() {
            "middle" | "centre" | "center" | "" => Ok(MotifAt::Middle),
            typed => {
                let from = super::read::size(field, typed, self.system)?;
                // Beside the piece it is the same place by whole repeats: of those on it the one nearest the middle counts.
                let nearest = |repeat: Length| {
                    let middle = Length(size.0 / 2);
                    let by = (middle - from).0 as f64 / repeat.0 as f64;
                    from + repeat * by.round() as i64
                };
                let off = from < Length::ZERO || from > size;
                let from = if off { repeat.map_or(from, nearest) } else { from };
                if from >= Length::ZERO && from <= size {
                    return Ok(MotifAt::From(from));
                }
                let show = |l| format!("{} {}", self.ruler.show(l).text, self.system.symbol());
                let (edge, is) = if field == "across" { ("left", "wide") } else { ("lower", "tall") };
                let message = format!(
                    "The middle of the motif falls {} from the {edge} edge, and {} is {} {is}: it would not be on it.",
                    show(from),
                    found.name,
                    show(size)
                );
                Err(FieldProblem::new(field, typed, message))
            }
        };
        let place = OnPrint { across: read("across", across, width, wide)?, up: read("up", up, height, tall)? };
        let told = format!("{} placed on the print of {}", found.name, cloth.name);
        self.on_print.insert(piece.to_owned(), place);
        Ok(told)
    }
}

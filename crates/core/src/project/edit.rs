//! Changes to a project. Values are text as the maker typed or chose it.

use super::cloth::{Look, ProjectCloth};
use super::document::{LengthsAtHand, Project};
use super::measured::{Measured, is_measured_later};
use crate::FieldProblem;
use crate::bag::fit::Thing;
use crate::bag::making_up::may_be_made_up;
use crate::bag::{Bag, CutList, Design, Family, GoodKind, MadeUp, Row, RowShape};
use crate::cloth::{Material, Money, Price};
use crate::measure::{LONGEST, Length, Ruler, ShopStep, System, parse_length, split_lengths};
use crate::name::named;
use crate::piece::{Grain, Part};
use crate::shape::{Outline, Point};
use serde::de::value::StrDeserializer;
use serde::de::{DeserializeOwned, IntoDeserializer};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;

/// More cloths than these are a cupboard, not a bag.
const MOST_CLOTHS: usize = 60;
/// More lengths of one thing than these are a reel.
const MOST_LENGTHS: usize = 40;

/// A field of a cloth.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)] // named after the fields of `ProjectCloth`
pub enum ClothField {
    Name,
    Material,
    Width,
    Selvedge,
    Trim,
    WashFirst,
    Step,
    Min,
    Price,
    Owned,
    Print,
    Up,
    Nap,
}

/// A choice about the lay.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)] // named after the fields of `LayChoices`
pub enum LayField {
    Cuts,
    PrintMayLie,
    Straps,
    Join,
    InNotches,
}

/// How a piece lies by hand.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Lies {
    /// As it is drafted.
    Drafted,
    /// Its upright axis along the selvedge.
    Along,
    /// Across the width.
    Across,
    /// Along or across, whichever takes less.
    Either,
    /// At 45°.
    Bias,
}

impl Lies {
    /// All of them, as they are offered.
    pub const ALL: [Self; 5] = [Self::Drafted, Self::Along, Self::Across, Self::Either, Self::Bias];

    /// In the maker's words.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Drafted => "as drafted",
            Self::Along => "along the selvedge",
            Self::Across => "across the width",
            Self::Either => "along or across",
            Self::Bias => "on the bias",
        }
    }

    /// The one that stands for a grain given by hand, or for none.
    pub fn of(grain: Option<Grain>) -> Self {
        Self::ALL.into_iter().find(|lies| lies.grain() == grain).unwrap_or(Self::Drafted)
    }

    /// The grain that stands for it; nothing for what the draft says.
    pub const fn grain(self) -> Option<Grain> {
        match self {
            Self::Drafted => None,
            Self::Along => Some(Grain::Length),
            Self::Across => Some(Grain::Across),
            Self::Either => Some(Grain::Either),
            Self::Bias => Some(Grain::Bias),
        }
    }
}

/// A field of a row of the cut list.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum RowField {
    /// What it is called.
    Name,
    /// Its part.
    Part,
    /// How many.
    Count,
    /// Across; `width of cloth` is a legal length.
    Width,
    /// Up.
    Height,
    /// Its shape.
    Shape,
    /// The size of the shape's corner: radius, notch or taper.
    Corner,
    /// Each corner of an outline as `across × up`, semicolons between them.
    Corners,
    /// Seam allowance still to be added all round.
    Seam,
    /// Of a strap, how it is folded: a key of `StrapMake`, or empty.
    Fold,
    /// May lie any way: yes or no.
    AnyWay,
    /// Half of them mirrored: yes or no.
    Pairs,
    /// Width and height change places.
    Turn,
    /// The row is taken out.
    Remove,
}

/// A field of the project itself.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)] // named after the fields of `Project`
pub enum ProjectField {
    Name,
    System,
    Ruler,
}

/// One change.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "edit", rename_all = "kebab-case", deny_unknown_fields)]
pub enum Edit {
    /// Another family of bag; finished sizes and seams that were changed and both have stay.
    Family {
        /// Its key.
        family: String,
    },
    /// The rows of one's own cut list, all of them.
    Rows {
        /// As they are to stand.
        rows: Vec<Row>,
    },
    /// A field of one row of the cut list.
    Row {
        /// Which row, from 0.
        row: usize,
        /// Which field.
        field: RowField,
        /// As typed or chosen.
        value: String,
    },
    /// Finished sizes for a thing that goes in, each as typed.
    Fit {
        /// How wide the thing is; of a round one, its diameter.
        width: String,
        /// How tall.
        height: String,
        /// How thick.
        thick: String,
        /// Room in each direction.
        ease: String,
        /// Room above it.
        above: String,
    },
    /// All finished sizes, scaled and brought to the ruler.
    Scale {
        /// In hundredths.
        percent: u32,
    },
    /// A field of the bag.
    Bag {
        /// Its key, as the family lists it.
        field: String,
        /// As typed or chosen.
        value: String,
    },
    /// A field of a cloth.
    Cloth {
        /// Its id.
        cloth: String,
        /// Which field.
        field: ClothField,
        /// As typed or chosen.
        value: String,
    },
    /// How a cloth is drawn; the print's direction follows the pattern.
    ClothLook {
        /// Its id.
        cloth: String,
        /// The new look.
        look: Look,
    },
    /// A new cloth with usual sizes; parts that have none yet and suit it are cut from it.
    AddCloth {
        /// Its name.
        name: String,
        /// What it is made of: a key of `Material`.
        material: String,
    },
    /// Takes a cloth away; its parts are left without.
    RemoveCloth {
        /// Its id.
        cloth: String,
    },
    /// Cuts a part from a cloth.
    Assign {
        /// The part's key.
        part: String,
        /// The cloth's id.
        cloth: String,
    },
    /// How it is laid.
    Lay {
        /// Which choice.
        field: LayField,
        /// As chosen.
        value: String,
    },
    /// The project itself.
    Project {
        /// Which field.
        field: ProjectField,
        /// As typed or chosen.
        value: String,
    },
    /// How a panel is made up.
    MakeUp {
        /// The panel's id.
        piece: String,
        /// The key of the field.
        field: String,
        /// As typed or chosen.
        value: String,
    },
    /// A piece that is measured once it is made: its size, seams included; both empty to forget it.
    Measured {
        /// The piece's id.
        piece: String,
        /// Across, as typed.
        width: String,
        /// Up, as typed.
        height: String,
    },
    /// A piece is turned by hand.
    Turn {
        /// The piece's id.
        piece: String,
        /// How it is to lie.
        lies: Lies,
    },
    /// What is at hand of something sold by the length.
    LengthsAtHand {
        /// Its kind.
        kind: GoodKind,
        /// Its width in whole units, if it has one.
        width: Option<Length>,
        /// Each length as typed, commas between them; empty when there is none.
        lengths: String,
    },
    /// So many steps are done at the table.
    StepsDone {
        /// How many.
        count: u32,
    },
}

impl Edit {
    /// Whether it changes what is laid or cut, not only how far the cutting has come.
    pub fn changes_plan(&self) -> bool {
        !matches!(
            self,
            Self::StepsDone { .. }
                | Self::ClothLook { .. }
                | Self::LengthsAtHand { .. }
                | Self::Project { field: ProjectField::Name, .. }
        )
    }
}

impl Project {
    /// The project with `edit` made, and a short label for the undo list. The bag is drafted again and must hold.
    ///
    /// # Errors
    /// Every field that cannot stand; this project is unchanged.
    pub fn edited(&self, edit: &Edit) -> Result<(Self, String), Vec<FieldProblem>> {
        let mut next = self.clone();
        let label = next.apply(edit).map_err(|p| vec![p])?;
        if edit.changes_plan() {
            next.plan()?;
        }
        Ok((next, label))
    }

    fn apply(&mut self, edit: &Edit) -> Result<String, FieldProblem> {
        match edit {
            Edit::Bag { field, value } => self.edit_bag(field, value),
            Edit::Family { family } => {
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
            Edit::Rows { rows } => {
                let count = rows.len();
                let mut list = match &self.bag {
                    Bag::CutList(list) => list.clone(),
                    _ => CutList::usual(self.system),
                };
                list.rows.clone_from(rows);
                for (at, row) in list.rows.iter_mut().enumerate() {
                    row.name = named(&format!("rows[{at}].name"), &row.name)?;
                }
                self.bag = Bag::CutList(list);
                self.made_up.clear();
                self.measured.clear();
                self.turned.clear();
                Ok(format!("{count} rows of a cut list"))
            }
            Edit::Row { row, field, value } => self.edit_row(*row, *field, value),
            Edit::Fit { width, height, thick, ease, above } => {
                let read = |field: &str, value: &str| size(field, value, self.system);
                let thing = Thing {
                    width: read("width", width)?,
                    height: read("height", height)?,
                    thick: read("thick", thick)?,
                };
                let (ease, above) = (read("ease", ease)?, read("above", above)?);
                if thing.width <= Length::ZERO || thing.height <= Length::ZERO {
                    return Err(FieldProblem::new("width", width, "Say how wide and how tall the thing is."));
                }
                self.bag.fit(thing, ease, above, self.ruler);
                Ok("Fitted to a thing".to_owned())
            }
            Edit::Scale { percent } => {
                if !(10..=1000).contains(percent) {
                    let message = format!("{percent} % will not do: from 10 to 1000 is allowed.");
                    return Err(FieldProblem::new("percent", percent, message));
                }
                let (bag, _) = self.bag.scaled(*percent, self.ruler).map_err(|mut all| all.remove(0))?;
                self.bag = bag;
                Ok(format!("Scaled to {percent} %"))
            }
            Edit::Cloth { cloth, field, value } => {
                let (system, ruler) = (self.system, self.ruler);
                let others: Vec<String> =
                    self.cloths.iter().filter(|c| c.id != *cloth).map(|c| c.name.clone()).collect();
                let cloth = self.cloth_mut(cloth)?;
                edit_cloth(cloth, *field, value, system, ruler, &others)?;
                Ok(format!("{}, {}", cloth.name, key_of(field).replace('_', " ")))
            }
            Edit::ClothLook { cloth, look } => {
                for (field, colour) in [("ground", &look.ground), ("figure", &look.figure)] {
                    let is_colour = colour.len() == 7
                        && colour.starts_with('#')
                        && colour[1..].chars().all(|c| c.is_ascii_hexdigit());
                    if !is_colour {
                        return Err(FieldProblem::new(field, colour, "A colour is written #rrggbb."));
                    }
                }
                let cloth = self.cloth_mut(cloth)?;
                if cloth.look.pattern != look.pattern {
                    cloth.print = look.pattern.usual_print();
                }
                cloth.look = look.clone();
                Ok(format!("Look of {}", cloth.name))
            }
            Edit::AddCloth { name, material } => {
                let name = named("name", name)?;
                let material: Material = choice("material", material)?;
                if self.cloths.len() >= MOST_CLOTHS {
                    let message = format!("There are {MOST_CLOTHS} cloths in this project: no more are planned with.");
                    return Err(FieldProblem::new("name", &name, message));
                }
                if self.cloths.iter().any(|c| c.name == name) {
                    return Err(FieldProblem::new(
                        "name",
                        &name,
                        format!("There is a cloth “{name}” already: give this one another name."),
                    ));
                }
                let id = self.new_id(&name);
                let mut cloth = ProjectCloth::usual(id.clone(), name.clone(), material, self.system);
                cloth.look = self.fresh_look(&cloth.look);
                self.cloths.push(cloth);
                for part in Part::ALL {
                    if self.cloth_of(part).is_none() && material.suits(part.is_backing()) {
                        self.from.insert(part, vec![id.clone()]);
                    }
                }
                Ok(format!("Add {name}"))
            }
            Edit::RemoveCloth { cloth } => {
                let name = self.cloth_mut(cloth)?.name.clone();
                self.cloths.retain(|c| c.id != *cloth);
                self.from.retain(|_, ids| {
                    ids.retain(|id| id != cloth);
                    !ids.is_empty()
                });
                Ok(format!("Remove {name}"))
            }
            Edit::Assign { part, cloth } => {
                let part: Part = choice("part", part)?;
                let name = self.cloth_mut(cloth)?.name.clone();
                self.from.insert(part, vec![cloth.clone()]);
                Ok(format!("{} from {name}", part.name()))
            }
            Edit::Lay { field, value } => {
                match field {
                    LayField::Cuts => self.lay.cuts = choice("cuts", value)?,
                    LayField::PrintMayLie => self.lay.print_may_lie = yes_or_no("print_may_lie", value)?,
                    LayField::Straps => self.lay.straps = choice("straps", value)?,
                    LayField::Join => self.lay.join = choice("join", value)?,
                    LayField::InNotches => self.lay.in_notches = yes_or_no("in_notches", value)?,
                }
                Ok(format!("Lay, {}", key_of(field).replace('_', " ")))
            }
            Edit::Project { field, value } => {
                match field {
                    ProjectField::Name => self.name = named("name", value)?,
                    ProjectField::System => {
                        self.system = choice("system", value)?;
                        self.ruler = Ruler::usual(self.system);
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
                Ok(format!("Project {}", key_of(field)))
            }
            Edit::MakeUp { piece, field, value } => self.make_up(piece, field, value),
            Edit::Measured { piece, width, height } => self.measure(piece, width, height),
            Edit::Turn { piece, lies } => self.turn(piece, *lies),
            Edit::LengthsAtHand { kind, width, lengths } => {
                let mut found = Vec::new();
                // 0 is none, as elsewhere.
                let typed = split_lengths(lengths).into_iter().filter(|typed| *typed != "0");
                for typed in typed {
                    let length = size("lengths", typed, self.system)?;
                    if length <= Length::ZERO || length > LONGEST * 10 {
                        let message = format!("“{typed}” will not do: more than 0 and at most 200 m is allowed.");
                        return Err(FieldProblem::new("lengths", lengths, message));
                    }
                    found.push(length);
                }
                if found.len() > MOST_LENGTHS {
                    let message = format!("{} lengths: at most {MOST_LENGTHS} are kept track of.", found.len());
                    return Err(FieldProblem::new("lengths", lengths, message));
                }
                self.lengths_at_hand.retain(|l| (l.kind, l.width) != (*kind, *width));
                if !found.is_empty() {
                    self.lengths_at_hand.push(LengthsAtHand { kind: *kind, width: *width, lengths: found });
                }
                Ok(format!("{} at hand", kind.name()))
            }
            Edit::StepsDone { count } => {
                self.steps_done = *count;
                if *count == 0 {
                    // All is cut anew, also what had been cut before something was measured.
                    self.measured.values_mut().for_each(|m| m.cut_before.clear());
                }
                Ok(format!("{count} steps done"))
            }
        }
    }

    fn make_up(&mut self, piece: &str, field: &str, value: &str) -> Result<String, FieldProblem> {
        let drafted = self.bag.draft(self.ruler).map_err(|mut all| all.remove(0))?;
        let Some(found) = drafted.piece(piece).filter(|p| may_be_made_up(p)) else {
            let message = "This piece is not a panel that can be pieced or quilted here.";
            return Err(FieldProblem::new("piece", piece, message));
        };
        let mut made = self.made_up.remove(piece).unwrap_or_else(|| MadeUp::plain(self.system));
        made.set(field, value, self.system)?;
        if !made.is_plain() {
            self.made_up.insert(piece.to_owned(), made);
        }
        Ok(format!("{}, {} {}", found.name, field.replace('_', " "), value.trim()))
    }

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

    fn measure(&mut self, piece: &str, width: &str, height: &str) -> Result<String, FieldProblem> {
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

    fn turn(&mut self, piece: &str, lies: Lies) -> Result<String, FieldProblem> {
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

    fn edit_bag(&mut self, field: &str, value: &str) -> Result<String, FieldProblem> {
        self.bag.set(field, value, self.system)?;
        Ok(format!("{} {}", field.replace('_', " "), value.trim()))
    }

    fn edit_row(&mut self, row: usize, field: RowField, value: &str) -> Result<String, FieldProblem> {
        let key = format!("rows[{row}].{}", key_of(&field));
        let system = self.system;
        let Bag::CutList(list) = &mut self.bag else {
            return Err(FieldProblem::new(key, value, "Only a cut list of one's own has rows."));
        };
        let count = list.rows.len();
        let Some(found) = list.rows.get_mut(row) else {
            return Err(FieldProblem::new(key, value, format!("There is no row {}: the list has {count}.", row + 1)));
        };
        match field {
            RowField::Name => found.name = named(&key, value)?,
            RowField::Part => found.part = choice(&key, value)?,
            RowField::Count => {
                found.count = value.trim().parse().map_err(|_| {
                    FieldProblem::new(&key, value, format!("“{}” is not a number of pieces.", value.trim()))
                })?;
            }
            RowField::Width if matches!(value.trim().to_lowercase().as_str(), "wof" | "width of cloth") => {
                found.width = None;
            }
            RowField::Width => found.width = Some(size(&key, value, system)?),
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
                        let ruler = Ruler::usual(system);
                        RowShape::Free { corners: found.corners(ruler) }
                    }
                    other => {
                        let all = "rectangle, circle, half-round, rounded, notched, tapered, free";
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
                return Ok(format!("Row {} taken out", row + 1));
            }
        }
        Ok(format!("Row {} {} {}", row + 1, key_of(&field).replace('_', " "), value.trim()))
    }

    fn cloth_mut(&mut self, id: &str) -> Result<&mut ProjectCloth, FieldProblem> {
        self.cloths
            .iter_mut()
            .find(|c| c.id == id)
            .ok_or_else(|| FieldProblem::new("cloth", id, format!("There is no cloth “{id}” in this project.")))
    }

    /// A key made of the name, with a number if it is taken.
    /// A look like `usual` in colours no cloth of this project has, as long as there are any.
    fn fresh_look(&self, usual: &Look) -> Look {
        let taken = |ground: &str| self.cloths.iter().any(|c| c.look.ground == ground);
        let others = Look::GROUNDS.iter().map(|(ground, figure)| (*ground, *figure));
        let all = std::iter::once((usual.ground.as_str(), usual.figure.as_str())).chain(others);
        let (ground, figure) = all.into_iter().find(|(g, _)| !taken(g)).unwrap_or((&usual.ground, &usual.figure));
        Look { ground: ground.to_owned(), figure: figure.to_owned(), ..usual.clone() }
    }

    fn new_id(&self, name: &str) -> String {
        let plain: String = name
            .to_lowercase()
            .chars()
            .map(|c| if c.is_alphanumeric() { c } else { '-' })
            .collect::<String>()
            .trim_matches('-')
            .to_owned();
        let stem = if plain.is_empty() { "cloth".to_owned() } else { plain };
        std::iter::once(stem.clone())
            .chain((2..).map(|n| format!("{stem}-{n}")))
            .find(|id| self.cloth(id).is_none())
            .unwrap_or(stem)
    }
}

/// The corners of an outline as typed, moved so that it begins at 0 × 0.
fn corners(key: &str, value: &str, system: System) -> Result<Vec<Point>, FieldProblem> {
    let mut found = Vec::new();
    for (i, typed) in value.split([';', '\n']).map(str::trim).filter(|t| !t.is_empty()).enumerate() {
        let refuse = |why: &str| {
            FieldProblem::new(key, value, format!("Corner {}, “{typed}”, {why}: write it as across × up.", i + 1))
        };
        let (across, up) = typed.split_once(['×', 'x', ',']).ok_or_else(|| refuse("is not two sizes"))?;
        let read = |text: &str| parse_length(text, system).map_err(|e| refuse(&format!("does not read ({e})")));
        found.push(Point::new(read(across)?, read(up)?));
    }
    let outline = Outline::polygon(found)
        .map_err(|e| FieldProblem::new(key, value, format!("The outline does not hold: {e}.")))?;
    let placed = outline.corners();
    let least = |of: fn(&Point) -> Length| placed.iter().map(of).min().unwrap_or_default();
    let (left, low) = (least(|p| p.x), least(|p| p.y));
    Ok(placed.iter().map(|p| Point::new(p.x - left, p.y - low)).collect())
}

fn edit_cloth(
    cloth: &mut ProjectCloth,
    field: ClothField,
    value: &str,
    system: System,
    ruler: Ruler,
    others: &[String],
) -> Result<(), FieldProblem> {
    let key = key_of(&field);
    let length = || size(&key, value, system);
    let show = |l: Length| format!("{} {}", ruler.show(l).text, system.symbol());
    let none = matches!(value.trim(), "" | "none") || (field == ClothField::Owned && value.trim() == "0");
    match field {
        ClothField::Name => {
            let name = named(&key, value)?;
            if others.contains(&name) {
                return Err(FieldProblem::new(
                    &key,
                    &name,
                    format!("There is a cloth “{name}” already: give this one another name."),
                ));
            }
            cloth.name = name;
        }
        ClothField::Material => cloth.material = choice(&key, value)?,
        ClothField::Width => cloth.width = length()?,
        ClothField::Selvedge => cloth.selvedge = length()?,
        ClothField::Trim => cloth.trim = length()?,
        ClothField::WashFirst => cloth.wash_first = yes_or_no(&key, value)?,
        ClothField::Step => cloth.shop = ShopStep { step: if none { None } else { Some(length()?) }, ..cloth.shop },
        ClothField::Min => cloth.shop = ShopStep { min: length()?, ..cloth.shop },
        ClothField::Price => cloth.price = if none { None } else { Some(price(&key, value, system)?) },
        ClothField::Owned if value.contains(['x', 'X', '×']) => {
            let message = format!(
                "“{}” is two sizes: type here how long the piece is that you have, and how wide under Width.",
                value.trim()
            );
            return Err(FieldProblem::new(&key, value, message));
        }
        ClothField::Owned => cloth.owned = if none { None } else { Some(length()?) },
        ClothField::Print => cloth.print = choice(&key, value)?,
        ClothField::Up => cloth.up = choice(&key, value)?,
        ClothField::Nap => cloth.nap = yes_or_no(&key, value)?,
    }
    if cloth.width <= Length::ZERO || cloth.width > LONGEST / 4 {
        return Err(FieldProblem::new(
            "width",
            show(cloth.width),
            format!("{} is {} wide: more than 0 and at most 5 m is allowed.", cloth.name, show(cloth.width)),
        ));
    }
    let as_job = cloth.for_job();
    if as_job.usable_width() <= Length::ZERO {
        let field = if field == ClothField::Selvedge { "selvedge" } else { "width" };
        return Err(FieldProblem::new(
            field,
            value,
            format!(
                "{} is {} wide and loses {} at each side: its two selvedges leave nothing to cut from.",
                cloth.name,
                show(cloth.width),
                show(cloth.selvedge)
            ),
        ));
    }
    if as_job.usable_length().is_some_and(|l| l <= Length::ZERO) {
        return Err(FieldProblem::new(
            "owned",
            value,
            format!("{} is too short: squaring its ends takes {} at each.", cloth.name, show(cloth.trim)),
        ));
    }
    if cloth.shop.step.is_some_and(|s| s <= Length::ZERO) {
        return Err(FieldProblem::new(
            "step",
            value,
            "The shop's step is more than 0; leave it empty if any length is cut.",
        ));
    }
    Ok(())
}

/// The serde name of a unit variant, which is the field's name everywhere.
fn key_of<T: Serialize + std::fmt::Debug>(field: &T) -> String {
    let mut key = String::new();
    for c in format!("{field:?}").chars() {
        if c.is_uppercase() && !key.is_empty() {
            key.push('_');
        }
        key.extend(c.to_lowercase());
    }
    key
}

fn size(field: &str, value: &str, system: System) -> Result<Length, FieldProblem> {
    parse_length(value, system).map_err(|e| {
        let sentence = e.to_string();
        let mut chars = sentence.chars();
        let sentence = chars.next().map(|c| c.to_uppercase().collect::<String>() + chars.as_str()).unwrap_or_default();
        FieldProblem::new(field, value, format!("{sentence}{}", if sentence.ends_with('?') { "" } else { "." }))
    })
}

/// Signs that may stand before or after a price; which one it is, is not kept.
const CURRENCY: [char; 5] = ['€', '£', '$', '¥', '₣'];

fn price(field: &str, value: &str, system: System) -> Result<Price, FieldProblem> {
    let bare = value.trim().trim_matches(|c: char| c.is_whitespace() || CURRENCY.contains(&c));
    let amount: f64 = bare.replace(',', ".").parse().map_err(|_| {
        FieldProblem::new(field, value, format!("“{}” is not a price: write it as 12, 12.50 or € 12,50.", value.trim()))
    })?;
    if !(0.0..=100_000.0).contains(&amount) {
        return Err(FieldProblem::new(field, value, "A price is from 0 to 100000."));
    }
    let per = match system {
        System::Inches => Length::YARD,
        System::Centimetres => Length::METRE,
    };
    Ok(Price { amount: Money((amount * 100.0).round() as i64), per })
}

fn choice<T: DeserializeOwned>(field: &str, value: &str) -> Result<T, FieldProblem> {
    let deserializer: StrDeserializer<'_, serde::de::value::Error> = value.trim().into_deserializer();
    T::deserialize(deserializer)
        .map_err(|e| FieldProblem::new(field, value, format!("“{}” is not a choice here: {e}.", value.trim())))
}

fn yes_or_no(field: &str, value: &str) -> Result<bool, FieldProblem> {
    match value.trim() {
        "yes" | "true" => Ok(true),
        "no" | "false" => Ok(false),
        other => Err(FieldProblem::new(field, other, format!("“{other}” is not a choice here: yes or no."))),
    }
}

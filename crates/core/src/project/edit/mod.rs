//! Changes to a project. Values are text as the maker typed or chose it.

mod bag;
mod cloth;
mod from_elsewhere;
mod part;
mod read;
mod row;
mod whole;

use super::{Look, PieceEdge, Project};
use crate::FieldProblem;
use crate::bag::{Bought, GoodKind, Row};
use crate::cloth::ScrapDraft;
use crate::measure::Length;
use crate::piece::Grain;
use serde::{Deserialize, Serialize};

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
    AtHand,
    BuyMore,
    Print,
    Up,
    Nap,
    Folded,
    TestSquare,
    TestAlong,
    TestAcross,
    Weight,
    Repeat,
    RepeatWide,
    HalfDrop,
    MotifFrom,
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
    Currency,
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
        /// What is bought besides.
        #[serde(default)]
        bought: Vec<Bought>,
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
    /// One more row at the end of one's own cut list.
    AddRow {
        /// What the piece is called.
        name: String,
        /// Its part.
        part: String,
        /// How many, as typed.
        count: String,
        /// Across, as typed; `width of cloth` is a legal length.
        width: String,
        /// Up, as typed.
        height: String,
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
    /// One more part on the bag, as large as it fits.
    AddPart {
        /// Its kind: a key of `PartKind`.
        part: String,
        /// The key of the wall it goes on; nothing for the usual one.
        #[serde(default)]
        wall: Option<String>,
    },
    /// A field of a part.
    Part {
        /// Its number.
        id: u32,
        /// The key of the field.
        field: String,
        /// As typed or chosen.
        value: String,
    },
    /// Takes a part off the bag.
    TakePartOff {
        /// Its number.
        id: u32,
    },
    /// The same part once more, on the wall across where there is one.
    CopyPart {
        /// Its number.
        id: u32,
    },
    /// A part that was kept aside is made again.
    PutPartBack {
        /// Its number.
        id: u32,
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
    /// Lays down what is there of one or several cloths, beside what lies there already.
    LayDown {
        /// As it is said: `2 fat quarters of pea stripe, half a yard of canvas`.
        text: String,
    },
    /// One thing that is there of a cloth put right: what is typed takes its place, nothing takes it away.
    PutRight {
        /// The cloth's id.
        cloth: String,
        /// Which of the things there are of it, from 0.
        thing: usize,
        /// As typed.
        text: String,
    },
    /// Lays down a scrap as it is drawn, or draws one anew that lies there.
    DrawScrap {
        /// The id of its cloth.
        cloth: String,
        /// Its letter; nothing for a new one.
        #[serde(default)]
        label: Option<String>,
        /// How many alike there are.
        count: u32,
        /// The drawing.
        draft: ScrapDraft,
    },
    /// Takes a scrap away.
    RemoveScrap {
        /// The id of its cloth.
        cloth: String,
        /// Its letter.
        label: String,
    },
    /// Cuts a part from a cloth.
    Assign {
        /// The part's key.
        part: String,
        /// The cloth's id.
        cloth: String,
    },
    /// One piece is cut from a cloth of its own, or as its part again.
    AssignPiece {
        /// The piece's id.
        piece: String,
        /// The cloth's id; nothing for the cloths of its part.
        #[serde(default)]
        cloth: Option<String>,
    },
    /// A part may come from any of its cloths, whichever takes least, or from them in order.
    AnyCloth {
        /// Which part.
        part: String,
        /// In any order.
        any: bool,
    },
    /// A part is never to be cut from a cloth, whatever runs short; or it may be again.
    NeverFrom {
        /// Which part.
        part: String,
        /// The cloth's id.
        cloth: String,
        /// Never.
        never: bool,
    },
    /// Cuts a part from one more cloth, where those before it run short.
    AssignAlso {
        /// The part's key.
        part: String,
        /// The cloth's id.
        cloth: String,
    },
    /// Cuts a part no longer from a cloth.
    Unassign {
        /// The part's key.
        part: String,
        /// The cloth's id.
        cloth: String,
    },
    /// Keeps which part comes from which cloth now, to be held beside others.
    KeepTry {
        /// What it is called; empty for a number.
        name: String,
    },
    /// Dresses the bag as in a try.
    TakeTry {
        /// Its name.
        name: String,
    },
    /// Forgets a try.
    ForgetTry {
        /// Its name.
        name: String,
    },
    /// What came from one cloth comes from the other, and the reverse.
    SwapCloths {
        /// The id of one.
        one: String,
        /// The id of the other.
        other: String,
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
    /// A piece lies with an edge on one of a scrap that is kept, or anywhere.
    OnKeptEdge {
        /// The piece's id.
        piece: String,
        /// Which edge of it; nothing for none.
        #[serde(default)]
        edge: Option<PieceEdge>,
    },
    /// Places what is sewn side to side so that the print of a cloth meets at the seams.
    MatchPrint {
        /// The cloth's id.
        cloth: String,
    },
    /// A piece is cut where a motif of its print falls so far from its edges; both empty: anywhere.
    PlaceOnPrint {
        /// The piece's id.
        piece: String,
        /// From its left edge to the middle of the motif, as typed, or `middle`.
        across: String,
        /// From its lower edge, as typed, or `middle`.
        up: String,
    },
    /// How many there are of something bought by the piece.
    PiecesAtHand {
        /// What it is called, as the bag names it.
        name: String,
        /// Its size, if that matters.
        size: Option<Length>,
        /// As typed; empty or 0 for none.
        count: String,
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
    /// The bag is sized by the patches of one of its panels, as they are to show.
    SizeByPatches {
        /// The panel's id.
        piece: String,
        /// How wide a patch shows, as typed.
        width: String,
        /// How tall.
        height: String,
    },
    /// A step of making the bag is done, or is not.
    Made {
        /// Its key.
        step: String,
        /// Whether it is done.
        done: bool,
    },
    /// Steps of making it that the maker writes, after those of the bag.
    OwnSteps {
        /// A line each.
        text: String,
    },
    /// What the maker writes down.
    Notes {
        /// As written, line by line.
        text: String,
    },
    /// So many steps are done at the table.
    StepsDone {
        /// How many.
        count: u32,
    },
}

impl Edit {
    /// Whether it changes what is laid or cut, not only how far the cutting has come or what is told of it.
    pub fn changes_plan(&self) -> bool {
        !matches!(
            self,
            Self::StepsDone { .. }
                | Self::Made { .. }
                | Self::OwnSteps { .. }
                | Self::Notes { .. }
                | Self::ClothLook { .. }
                | Self::LengthsAtHand { .. }
                | Self::PiecesAtHand { .. }
                | Self::KeepTry { .. }
                | Self::ForgetTry { .. }
                | Self::Project { field: ProjectField::Name | ProjectField::Currency, .. }
                | Self::Cloth { field: ClothField::Name | ClothField::Price, .. }
        )
    }
}

impl Project {
    /// The project with `edit` made, and a short label for the undo list. The bag is drafted again and must hold. Once
    /// cutting has begun the plan stays as it is: only what [`Edit::changes_plan`] lets alone, and sizes measured on
    /// what is made, may change.
    ///
    /// # Errors
    /// Every field that cannot stand; this project is unchanged.
    pub fn edited(&self, edit: &Edit) -> Result<(Self, String), Vec<FieldProblem>> {
        let measures = matches!(edit, Edit::Measured { .. });
        if edit.changes_plan() && !measures {
            self.may_change()?;
        }
        let mut next = self.clone();
        let label = next.apply(edit).map_err(|p| vec![p])?;
        match edit {
            Edit::Cloth { .. } => next.retell_cutting(),
            // What follows from a measure is worked out with the lay: see [`Project::lay_the_rest`].
            Edit::Measured { .. } if self.cutting.is_some() => return Ok((next, label)),
            _ => {}
        }
        if edit.changes_plan() {
            let planned = next.plan()?;
            if let Some(problem) = planned.problems.into_iter().find(|p| measures && p.field == "measured") {
                return Err(vec![problem]);
            }
        }
        Ok((next, label))
    }

    /// That no cut is made yet, by which the plan stays as it is.
    pub(super) fn may_change(&self) -> Result<(), Vec<FieldProblem>> {
        if self.steps_done == 0 {
            return Ok(());
        }
        let message = format!(
            "You have begun cutting ({} steps are done), so the plan is fixed. Undo the cuts first, or begin the cutting again.",
            self.steps_done
        );
        Err(vec![FieldProblem::new("steps_done", self.steps_done, message)])
    }

    fn apply(&mut self, edit: &Edit) -> Result<String, FieldProblem> {
        match edit {
            Edit::Bag { field, value } => self.edit_bag(field, value),
            Edit::Family { family } => self.edit_family(family),
            Edit::AddPart { part, wall } => self.add_part(part, wall.as_deref()),
            Edit::Part { id, field, value } => self.edit_part(*id, field, value),
            Edit::TakePartOff { id } => self.take_part_off(*id),
            Edit::CopyPart { id } => self.copy_part(*id),
            Edit::PutPartBack { id } => self.put_part_back(*id),
            Edit::Rows { rows, bought } => self.edit_rows(rows, bought),
            Edit::Row { row, field, value } => self.edit_row(*row, *field, value),
            Edit::AddRow { name, part, count, width, height } => self.add_row(name, part, [count, width, height]),
            Edit::Fit { width, height, thick, ease, above } => self.edit_fit([width, height, thick, ease, above]),
            Edit::Scale { percent } => self.edit_scale(*percent),
            Edit::MakeUp { piece, field, value } => self.make_up(piece, field, value),
            Edit::Measured { piece, width, height } => self.measure(piece, width, height),
            Edit::Turn { piece, lies } => self.turn(piece, *lies),
            Edit::OnKeptEdge { piece, edge } => self.put_on_edge(piece, *edge),
            Edit::MatchPrint { cloth } => self.match_print(cloth),
            Edit::PlaceOnPrint { piece, across, up } => self.place_on_print(piece, across, up),
            Edit::Cloth { cloth, field, value } => self.edit_cloth(cloth, *field, value),
            Edit::ClothLook { cloth, look } => self.edit_look(cloth, look),
            Edit::AddCloth { name, material } => self.add_cloth(name, material),
            Edit::RemoveCloth { cloth } => self.remove_cloth(cloth),
            Edit::LayDown { text } => self.lay_down(text),
            Edit::PutRight { cloth, thing, text } => self.put_right(cloth, *thing, text),
            Edit::DrawScrap { cloth, label, count, draft } => self.draw_scrap(cloth, label.as_deref(), (*count, draft)),
            Edit::RemoveScrap { cloth, label } => self.remove_scrap(cloth, label),
            Edit::Assign { part, cloth } => self.assign(part, cloth),
            Edit::AssignAlso { part, cloth } => self.assign_also(part, cloth),
            Edit::AssignPiece { piece, cloth } => self.assign_piece(piece, cloth.as_deref()),
            Edit::AnyCloth { part, any } => Ok(self.any_order(read::choice("part", part)?, *any)),
            Edit::NeverFrom { part, cloth, never } => self.never_from(read::choice("part", part)?, cloth, *never),
            Edit::Unassign { part, cloth } => self.unassign(part, cloth),
            Edit::KeepTry { name } => self.keep_try(name),
            Edit::TakeTry { name } => self.take_try(name),
            Edit::ForgetTry { name } => self.forget_try(name),
            Edit::SwapCloths { one, other } => self.swap_cloths(one, other),
            Edit::Lay { field, value } => self.edit_lay(*field, value),
            Edit::Project { field, value } => self.edit_project(*field, value),
            Edit::LengthsAtHand { kind, width, lengths } => self.edit_lengths(*kind, *width, lengths),
            Edit::PiecesAtHand { name, size, count } => self.edit_pieces_at_hand(name, *size, count),
            Edit::SizeByPatches { piece, width, height } => self.size_by_patches(piece, width, height),
            Edit::Made { step, done } => self.tick(step, *done),
            Edit::OwnSteps { text } => self.write_steps(text),
            Edit::Notes { text } => self.write_down(text),
            Edit::StepsDone { count } => self.edit_steps_done(*count),
        }
    }
}

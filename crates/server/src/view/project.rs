//! A whole project, as every stage needs it.

use super::shelf::{bought, bought_text, cost_text, shop_unit};
use super::{DimensionView, DrawingView, Measure};
use crate::laying::{Laid, laid, plan_and_lay};
use bofta_core::FieldProblem;
use bofta_core::bag::making_up::may_be_made_up;
use bofta_core::bag::{
    Bag, Choice, CutList, Draft, Family, Field, GoodKind, MadeUp, Notice, Row, RowShape, Severity, Slot, Stage,
};
use bofta_core::buying::purchases;
use bofta_core::cloth::{Material, Money, Print, PrintUp};
use bofta_core::cutting::{Manner, Step, cut_list, manner};
use bofta_core::lay::{ClothLay, Cuts, Offcut};
use bofta_core::measure::{Length, show_bought};
use bofta_core::piece::{Figure, Grain, Part, Piece, PrintRule, When};
use bofta_core::project::{Look, Planned, Project, ProjectCloth, StrapLie, is_measured_later};
use bofta_formats::draw::{bag, cloth_lay, family, piece, swatch};
use bofta_store::{Kept, Store, StoreError};
use serde::Serialize;
use std::collections::BTreeSet;
use utoipa::ToSchema;

/// What is wrong with one field.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct ProblemView {
    pub field: String,
    pub value: String,
    pub message: String,
}

impl std::convert::From<FieldProblem> for ProblemView {
    fn from(p: FieldProblem) -> Self {
        Self { field: p.field, value: p.value, message: p.message }
    }
}

/// An answer to a choice.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct AnswerView {
    pub key: String,
    pub name: String,
    pub note: String,
}

/// A field of the bag; one of `length`, `answers` and `count` says what kind it is.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct FieldView {
    pub key: String,
    pub label: String,
    /// It says nothing while another choice stands.
    pub idle: bool,
    pub length: Option<Measure>,
    /// Empty unless it is a choice.
    pub answers: Vec<AnswerView>,
    /// The key of the answer; the figures of a count.
    pub value: String,
    pub count: Option<u32>,
}

/// Fields that act at one place of the bag.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct GroupView {
    pub key: String,
    pub name: String,
    /// What stands, in a few words.
    pub summary: String,
    pub fields: Vec<FieldView>,
}

/// A family to choose.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct FamilyView {
    pub key: String,
    pub name: String,
    pub about: String,
    pub drawing: DrawingView,
}

/// A row of one's own cut list.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct RowView {
    pub name: String,
    pub part: String,
    pub count: u32,
    /// Nothing is width of cloth.
    pub width: Option<Measure>,
    pub height: Measure,
    pub shape: String,
    /// Radius, notch or taper, of shapes that have one.
    pub corner: Option<Measure>,
    pub any_way: bool,
    /// Seam allowance still to be added all round.
    pub seam: Measure,
    /// Of an outline, its corners as they are typed.
    pub corners: Option<String>,
    pub pairs: bool,
    /// Of a strap, the folds there are and what each finishes wide; empty for anything else.
    pub folds: Vec<AnswerView>,
    /// The key of the fold; empty until it is said.
    pub fold: String,
    /// To be sent back as it is.
    pub row: Row,
}

/// Lengths of something sold by the length.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct GoodView {
    pub kind: String,
    pub name: String,
    pub count: u32,
    pub length: DimensionView,
    pub width: Option<Measure>,
}

/// What to buy of one kind and width of something sold by the length.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct ReelView {
    pub kind: String,
    /// The kind and width by which lengths at hand are kept.
    pub key: GoodKind,
    pub width: Option<Measure>,
    /// As a shop says it; nothing when what is at hand is enough.
    pub length: Option<String>,
    /// How many cuts come from what is bought.
    pub cuts: u32,
    /// Lengths at hand, as they are typed.
    pub at_hand: String,
    /// What is cut from each of them: `from 40: 2 × 18`.
    pub from_hand: Vec<String>,
}

/// Something bought by the piece.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct HardwareView {
    pub name: String,
    pub count: u32,
    pub size: Option<Measure>,
    pub note: String,
}

/// A finished size, as asked and as the pieces give it.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct FinishedView {
    pub name: String,
    pub asked: Measure,
    pub back: Measure,
}

/// Where a size is taken hold of on the drawing.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct AnchorView {
    pub field: String,
    pub x1: f64,
    pub y1: f64,
    pub x2: f64,
    pub y2: f64,
    /// Pixels across and down for one inch or centimetre more.
    pub per_unit: [f64; 2],
}

/// The bag.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct BagView {
    pub family: String,
    pub title: String,
    pub about: String,
    pub groups: Vec<GroupView>,
    /// Only of one's own cut list.
    pub rows: Vec<RowView>,
    pub goods: Vec<GoodView>,
    pub reels: Vec<ReelView>,
    pub hardware: Vec<HardwareView>,
    /// The finished sizes, worked out back from the pieces.
    pub finished: Vec<FinishedView>,
    pub drawing: DrawingView,
    pub anchors: Vec<AnchorView>,
    pub strap_drop: Option<Measure>,
    /// `about 11 litres`.
    pub holds: String,
}

/// A piece of the cut list.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct PieceView {
    pub id: String,
    pub name: String,
    /// Key of the part.
    pub part: String,
    pub bundle: String,
    pub count: u32,
    pub width: DimensionView,
    pub height: DimensionView,
    /// `at the table`, or when else it is cut to size.
    pub when: Option<String>,
    /// Cut out of both lower corners.
    pub corner_across: Option<DimensionView>,
    pub corner_up: Option<DimensionView>,
    pub grain: String,
    pub print: String,
    pub note: Option<String>,
    pub marks: Vec<String>,
    /// It is measured once it is made: as it was measured, or as it should come out.
    pub measured: Option<MeasuredView>,
    /// How it may be made up, when it is a panel: its fields, and what stands in a few words.
    pub made_up: Option<MadeUpView>,
    /// Id of its cloth.
    pub cloth: Option<String>,
    pub drawing: DrawingView,
}

/// A piece that is measured once it is made.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct MeasuredView {
    /// Whether it has been.
    pub is: bool,
    /// Across, seams included.
    pub width: Measure,
    /// Up, seams included.
    pub height: Measure,
}

/// How a panel is made up.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct MadeUpView {
    /// What stands, in a few words; empty when it is in one piece.
    pub summary: String,
    pub fields: Vec<FieldView>,
}

/// Something to look at.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct NoticeView {
    /// Stage to put it right: `bag`, `cloth`, `lay`.
    pub stage: String,
    pub field: Option<String>,
    /// Likely a mistake, not only good to know.
    pub attention: bool,
    pub text: String,
}

/// A cloth of the project.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct ClothView {
    pub id: String,
    pub name: String,
    /// Key of the material.
    pub material: String,
    pub material_name: String,
    pub width: Measure,
    pub usable: Measure,
    pub selvedge: Measure,
    pub trim: Measure,
    pub wash_first: bool,
    /// What washing takes, in words.
    pub shrinks: String,
    pub step: Option<Measure>,
    /// `by ⅛ yd, at least ¼ yd`.
    pub shop: String,
    pub min: Measure,
    /// Of a yard or metre.
    pub price: Option<String>,
    pub owned: Option<Measure>,
    /// `all-over`, `two-way` or `one-way`.
    pub print: String,
    /// `length` or `across`.
    pub up: String,
    pub nap: bool,
    pub look: Look,
    pub swatch: DrawingView,
    /// Keys of the parts cut from it.
    pub parts: Vec<String>,
}

/// A part of the bag and its cloth.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct PartView {
    pub key: String,
    pub name: String,
    pub pieces: u32,
    pub cloth: Option<String>,
}

/// The lay of one cloth.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct ClothLayView {
    pub cloth: String,
    pub name: String,
    /// Length to buy, or to take from what is owned, as a shop says it.
    pub length: String,
    pub owned: bool,
    pub needed: Measure,
    /// In hundredths.
    pub used_percent: u32,
    pub cost: Option<String>,
    pub proven: bool,
    /// The shortest purchase that cannot be ruled out.
    pub bound: String,
    /// `all edge to edge`, `some round a template` or `some stop short`.
    pub cuts: String,
    /// Different readings to set on the ruler.
    pub settings: u32,
    /// The largest piece left worth keeping.
    pub left: Option<String>,
    pub drawing: DrawingView,
}

/// The lay.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct LayView {
    pub cloths: Vec<ClothLayView>,
    /// Sentences about pieces that found no place.
    pub unplaced: Vec<String>,
    pub warnings: Vec<String>,
    pub complete: bool,
    pub proven: bool,
    pub used_percent: u32,
    /// To buy in all, as a shop says it.
    pub bought: String,
    /// Empty when no price is known or nothing is bought.
    pub cost: String,
    pub iterations: u64,
}

/// A line of the shopping list.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct PurchaseView {
    pub cloth: String,
    pub name: String,
    pub width: Measure,
    pub length: String,
    /// The steps of the shop, when it has any: `6 × ⅛ yd`.
    pub steps: Option<String>,
    pub needed: Measure,
    pub spare: Measure,
    pub owned: bool,
    pub price: Option<String>,
    pub cost: Option<String>,
    pub proven: bool,
    pub swatch: DrawingView,
}

/// What the project needs, costs and wastes now.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct TallyView {
    /// Cloth to buy in all.
    pub cloth: Option<String>,
    /// What the last change did to it: `+⅛ yd`.
    pub change: Option<String>,
    pub cost: Option<String>,
    pub pieces: u32,
    pub used_percent: Option<u32>,
    pub strap_drop: Option<Measure>,
    pub holds: String,
}

/// How the maker wants it laid.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct LayChoicesView {
    /// `free` or `through`.
    pub cuts: String,
    pub print_may_lie: bool,
    pub straps: StrapLie,
    /// Small pieces may lie in the corners cut out of panels.
    pub in_notches: bool,
}

/// A whole project.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct ProjectView {
    pub id: String,
    pub revision: i64,
    pub name: String,
    /// `in` or `cm`.
    pub system: String,
    pub ruler: String,
    pub ruler_name: String,
    /// What undo takes back.
    pub undo: Option<String>,
    /// What redo makes again.
    pub redo: Option<String>,
    pub bag: BagView,
    pub pieces: Vec<PieceView>,
    pub parts: Vec<PartView>,
    pub cloths: Vec<ClothView>,
    pub choices: LayChoicesView,
    pub lay: Option<LayView>,
    pub purchases: Vec<PurchaseView>,
    pub steps: u32,
    pub steps_done: u32,
    pub tally: TallyView,
    pub notices: Vec<NoticeView>,
    pub problems: Vec<ProblemView>,
}

/// What a view is made from.
pub struct Context<'a> {
    pub store: &'a Store,
    /// The project as it is, or as it would be.
    pub kept: &'a Kept,
    /// The project before the last change, for what the change did.
    pub before: Option<&'a Project>,
}

/// The view of a project. A kept project always drafts, since every edit is checked; should one not, its problems are
/// all there is.
pub fn project_view(context: &Context<'_>) -> Result<ProjectView, StoreError> {
    let Context { store, kept, before } = context;
    let project = &kept.project;
    let planned = project.plan().unwrap_or_else(|problems| Planned {
        draft: Draft::default(),
        finished: vec![],
        job: None,
        unassigned: vec![],
        blocks: vec![],
        problems,
    });
    let laid = laid(store, &kept.id, &planned)?;
    let ruler = project.ruler;
    let steps = laid
        .as_ref()
        .map(|l| cut_list(&l.job, &l.lay.cloths, &planned.draft.pieces, &planned.blocks))
        .unwrap_or_default();
    let lay = laid.as_ref().map(|l| lay_view(project, l, &steps));
    let mut tally = tally(project, &planned, laid.as_ref());
    if let (Some(before), Some(now)) = (before, &laid)
        && let Some(was) = plan_and_lay(store, &kept.id, before)?
    {
        tally.change = change(project, bought(project, &now.lay) - bought(before, &was.lay));
    }
    Ok(ProjectView {
        id: kept.id.clone(),
        revision: kept.revision,
        name: project.name.clone(),
        system: project.system.symbol().to_owned(),
        ruler: key(&ruler),
        ruler_name: ruler.name().to_owned(),
        undo: kept.undo.clone(),
        redo: kept.redo.clone(),
        bag: bag_view(project, &planned),
        pieces: pieces(project, &planned),
        parts: parts(project, &planned),
        cloths: project.cloths.iter().map(|c| cloth_view(project, c)).collect(),
        choices: LayChoicesView {
            cuts: match project.lay.cuts {
                Cuts::Free => "free".into(),
                Cuts::Through => "through".into(),
            },
            print_may_lie: project.lay.print_may_lie,
            straps: project.lay.straps,
            in_notches: project.lay.in_notches,
        },
        purchases: laid.as_ref().map(|l| purchase_views(project, l)).unwrap_or_default(),
        steps: steps.len() as u32,
        steps_done: project.steps_done,
        tally,
        notices: notices(project, &planned, laid.as_ref()),
        problems: planned.problems.iter().cloned().map(ProblemView::from).collect(),
        lay,
    })
}

/// The serde name of a unit variant.
fn key<T: Serialize>(value: &T) -> String {
    serde_json::to_value(value).ok().and_then(|v| v.as_str().map(str::to_owned)).unwrap_or_default()
}

fn holds(planned: &Planned) -> String {
    let litres = planned.draft.millilitres as f64 / 1000.0;
    match planned.draft.millilitres {
        0 => String::new(),
        _ if litres < 10.0 => format!("about {litres:.1} litres"),
        _ => format!("about {litres:.0} litres"),
    }
}

fn field_view(field: &Field<'_>, project: &Project) -> FieldView {
    let bare = FieldView {
        key: field.key.to_owned(),
        label: field.label.to_owned(),
        idle: field.idle,
        length: None,
        answers: vec![],
        value: String::new(),
        count: None,
    };
    let answer =
        |key: &str, name: &str, note: &str| AnswerView { key: key.into(), name: name.into(), note: note.into() };
    match &field.slot {
        Slot::Length(length) => FieldView { length: Some(Measure::new(**length, project.ruler)), ..bare },
        Slot::Choice(choice) => FieldView {
            value: choice.answer().key.to_owned(),
            answers: choice.answers().iter().map(|a| answer(a.key, a.name, a.note)).collect(),
            ..bare
        },
        Slot::Toggle(on) => FieldView {
            value: if **on { "yes" } else { "no" }.to_owned(),
            answers: vec![answer("yes", "Yes", ""), answer("no", "No", "")],
            ..bare
        },
        Slot::Count(count, _) => FieldView { count: Some(**count), value: count.to_string(), ..bare },
    }
}

/// A few words for what stands in a group: answers by their names, a toggle by what it is, the first length.
fn summary(fields: &[FieldView], unit: &str) -> String {
    let used: Vec<&FieldView> = fields.iter().filter(|f| !f.idle).collect();
    let words: Vec<String> = used
        .iter()
        .filter_map(|f| match (&f.length, f.count) {
            (Some(length), _) => Some(format!("{} {unit}", length.text)),
            (None, Some(count)) => Some(count.to_string()),
            _ if f.value == "no" => (used.len() == 1).then(|| "none".to_owned()),
            _ if f.value == "yes" && f.answers.len() == 2 => {
                Some(f.label.split([',', ';']).next().unwrap_or_default().to_lowercase())
            }
            _ => f.answers.iter().find(|a| a.key == f.value).map(|a| a.name.to_lowercase()),
        })
        .take(2)
        .collect();
    if words.is_empty() { "none".to_owned() } else { words.join(", ") }
}

fn groups(project: &Project) -> Vec<GroupView> {
    let mut copy = project.bag.clone();
    let mut groups: Vec<(bofta_core::bag::Group, Vec<FieldView>)> = Vec::new();
    for field in copy.fields() {
        let view = field_view(&field, project);
        match groups.iter_mut().find(|(g, _)| *g == field.group) {
            Some((_, fields)) => fields.push(view),
            None => groups.push((field.group, vec![view])),
        }
    }
    groups
        .into_iter()
        .map(|(group, fields)| GroupView {
            key: group.name().to_lowercase(),
            name: group.name().to_owned(),
            summary: summary(&fields, project.system.symbol()),
            fields,
        })
        .collect()
}

/// Every family, drawn small.
pub fn family_views() -> Vec<FamilyView> {
    Family::ALL
        .iter()
        .map(|f| FamilyView {
            key: f.key().to_owned(),
            name: f.name().to_owned(),
            about: f.about().to_owned(),
            drawing: family(*f, 120.0, 96.0).into(),
        })
        .collect()
}

fn row_view(row: &Row, list: &CutList, project: &Project) -> RowView {
    let ruler = project.ruler;
    let measure = |l: Length| Measure::new(l, ruler);
    let (shape, corner) = match &row.shape {
        RowShape::Rectangle => ("rectangle", None),
        RowShape::Circle => ("circle", None),
        RowShape::HalfRound => ("half-round", None),
        RowShape::Rounded { radius } => ("rounded", Some(*radius)),
        RowShape::Notched { across, .. } => ("notched", Some(*across)),
        RowShape::Tapered { by } => ("tapered", Some(*by)),
        RowShape::Free { .. } => ("free", None),
    };
    RowView {
        name: row.name.clone(),
        part: row.part.key().to_owned(),
        count: row.count,
        width: row.width.map(measure),
        height: measure(row.height),
        shape: shape.to_owned(),
        corner: corner.map(measure),
        any_way: row.any_way,
        seam: measure(row.seam),
        corners: match &row.shape {
            RowShape::Free { corners } => {
                let show = |l: Length| ruler.show(l).text;
                let each: Vec<String> = corners.iter().map(|p| format!("{} × {}", show(p.x), show(p.y))).collect();
                Some(each.join("; "))
            }
            _ => None,
        },
        pairs: row.pairs,
        folds: row
            .folds(list.seam_side)
            .into_iter()
            .map(|(make, finished)| AnswerView {
                key: make.answer().key.to_owned(),
                name: make.answer().name.to_owned(),
                note: format!("{} wide when finished", ruler.show(finished).text),
            })
            .collect(),
        fold: row.fold.map(|make| make.answer().key.to_owned()).unwrap_or_default(),
        row: row.clone(),
    }
}

fn bag_view(project: &Project, planned: &Planned) -> BagView {
    let (ruler, draft) = (project.ruler, &planned.draft);
    let drawn = bag(project, draft, 960.0, 400.0);
    BagView {
        family: project.bag.family().key().to_owned(),
        title: project.bag.title().to_owned(),
        about: project.bag.family().about().to_owned(),
        groups: groups(project),
        rows: match &project.bag {
            Bag::CutList(list) => list.rows.iter().map(|r| row_view(r, list, project)).collect(),
            _ => vec![],
        },
        goods: draft
            .goods
            .iter()
            .map(|g| GoodView {
                kind: g.kind.name().to_owned(),
                name: g.name.to_owned(),
                count: g.count,
                length: DimensionView::new(&g.length, ruler),
                width: g.width.map(|w| Measure::new(w, ruler)),
            })
            .collect(),
        reels: project
            .reels(&draft.goods)
            .into_iter()
            .map(|reel| ReelView {
                kind: reel.kind.name().to_owned(),
                key: reel.kind,
                width: reel.width.map(|w| Measure::new(w, ruler)),
                length: (reel.bought() > Length::ZERO).then(|| show_bought(reel.bought(), project.system)),
                cuts: reel.plan.bought.iter().map(Vec::len).sum::<usize>() as u32,
                at_hand: reel.at_hand.iter().map(|l| ruler.show(*l).text).collect::<Vec<_>>().join(", "),
                from_hand: reel.from_hand(ruler),
            })
            .collect(),
        hardware: draft
            .hardware
            .iter()
            .map(|h| HardwareView {
                name: h.name.to_owned(),
                count: h.count,
                size: h.size.map(|s| Measure::new(s, ruler)),
                note: h.note.to_string(),
            })
            .collect(),
        finished: planned
            .finished
            .iter()
            .map(|f| FinishedView {
                name: f.name.to_owned(),
                asked: Measure::new(f.asked, ruler),
                back: Measure::new(f.back, ruler),
            })
            .collect(),
        anchors: drawn
            .anchors
            .iter()
            .map(|a| AnchorView {
                field: a.field.to_owned(),
                x1: a.x1,
                y1: a.y1,
                x2: a.x2,
                y2: a.y2,
                per_unit: [a.per_unit.0, a.per_unit.1],
            })
            .collect(),
        drawing: drawn.drawing.into(),
        strap_drop: strap_drop(project, planned),
        holds: holds(planned),
    }
}

fn strap_drop(project: &Project, planned: &Planned) -> Option<Measure> {
    // A drop is a property of the made bag, not a cut: the nearest line tells it well enough.
    planned.draft.strap_drop.map(|d| Measure::new(d.round_to(project.ruler.step()), project.ruler))
}

fn pieces(project: &Project, planned: &Planned) -> Vec<PieceView> {
    let all = &planned.draft.pieces;
    // One scale for the whole sheet, so that pieces compare.
    let largest = all.iter().flat_map(|p| [p.width.size.0, p.height.size.0]).max().unwrap_or(1);
    let scale = 250.0 / largest as f64;
    all.iter().map(|p| piece_view(project, p, scale)).collect()
}

fn piece_view(project: &Project, p: &Piece, scale: f64) -> PieceView {
    let ruler = project.ruler;
    let (corner_across, corner_up) = match &p.figure {
        Figure::CutOut { across, up } | Figure::CutAtFold { across, up } => {
            (Some(DimensionView::new(across, ruler)), Some(DimensionView::new(up, ruler)))
        }
        _ => (None, None),
    };
    let cloth = project.cloth_of(p.part);
    let is_measured = project.measured.contains_key(p.id.as_ref());
    PieceView {
        id: p.id.to_string(),
        name: p.name.to_string(),
        part: p.part.key().to_owned(),
        bundle: p.part.name().to_owned(),
        count: p.count,
        width: DimensionView::new(&p.width, ruler),
        height: DimensionView::new(&p.height, ruler),
        corner_across,
        corner_up,
        grain: match p.grain {
            Grain::Length => "along the selvedge",
            Grain::Across => "across the width",
            Grain::Either => "along or across",
            Grain::Bias => "on the bias",
            Grain::Any => "any way",
        }
        .to_owned(),
        print: match p.print {
            PrintRule::Upright => "stands as printed",
            PrintRule::Ignore => "either way up",
        }
        .to_owned(),
        note: p.note.as_ref().map(ToString::to_string),
        when: match p.when {
            When::Now => None,
            When::OverAndTrimmed(over) => Some(format!("cut {} over, then trimmed", ruler.show(over).text)),
            When::Measured if is_measured => None,
            When::Pieced(_) => Some("pieced from patches, then trimmed to this size".to_owned()),
            When::FromBlock => Some("cut from its fused block, backing and all".to_owned()),
            When::Measured => Some("cut to what is made: measure first".to_owned()),
        },
        marks: p.marks.iter().map(|m| m.told(ruler, p.size())).collect(),
        measured: measured_view(project, p),
        made_up: made_up_view(project, p),
        cloth: cloth.map(|c| c.id.clone()),
        drawing: piece(p, cloth, ruler, scale, true).into(),
    }
}

fn measured_view(project: &Project, p: &Piece) -> Option<MeasuredView> {
    if !is_measured_later(p) {
        return None;
    }
    let over = match p.when {
        When::OverAndTrimmed(over) => over,
        _ => Length::ZERO,
    };
    let known = project.measured.get(p.id.as_ref());
    let (width, height) = known.map_or((p.width.size - over, p.height.size - over), |m| (m.width, m.height));
    let measure = |l| Measure::new(l, project.ruler);
    Some(MeasuredView { is: known.is_some(), width: measure(width), height: measure(height) })
}

fn made_up_view(project: &Project, p: &Piece) -> Option<MadeUpView> {
    let known = project.made_up.get(p.id.as_ref()).copied();
    if known.is_none() && !may_be_made_up(p) {
        return None;
    }
    let mut made = known.unwrap_or_else(|| MadeUp::plain(project.system));
    let summary = made.summary();
    Some(MadeUpView { summary, fields: made.fields().iter().map(|f| field_view(f, project)).collect() })
}

fn parts(project: &Project, planned: &Planned) -> Vec<PartView> {
    Part::ALL
        .into_iter()
        .filter_map(|part| {
            let count: u32 =
                planned.draft.pieces.iter().filter(|p| p.part == part && p.when.is_laid()).map(|p| p.count).sum();
            (count > 0).then(|| PartView {
                key: part.key().to_owned(),
                name: part.name().to_owned(),
                pieces: count,
                cloth: project.cloth_of(part).map(|c| c.id.clone()),
            })
        })
        .collect()
}

fn percent(ppm: u32) -> String {
    format!("{} %", f64::from(ppm) / 10_000.0)
}

fn cloth_view(project: &Project, cloth: &ProjectCloth) -> ClothView {
    let (ruler, system) = (project.ruler, project.system);
    let down = |l: Length| Measure::new(l.floor_to(ruler.step()), ruler);
    let shrink = cloth.material.usual_shrink();
    let shop = match cloth.shop.step {
        Some(step) => {
            format!("by {}, at least {}", show_bought(step, system), show_bought(cloth.shop.min.max(step), system))
        }
        None => "any length".into(),
    };
    ClothView {
        id: cloth.id.clone(),
        name: cloth.name.clone(),
        material: key(&cloth.material),
        material_name: cloth.material.name().to_owned(),
        width: Measure::new(cloth.width, ruler),
        usable: down(cloth.for_job().usable_width()),
        selvedge: Measure::new(cloth.selvedge, ruler),
        trim: Measure::new(cloth.trim, ruler),
        wash_first: cloth.wash_first,
        shrinks: if shrink.along == 0 {
            format!("{} hardly shrinks", cloth.material.name())
        } else {
            format!("{} along, {} across", percent(shrink.along), percent(shrink.across))
        },
        step: cloth.shop.step.map(|s| Measure::new(s, ruler)),
        shop,
        min: Measure::new(cloth.shop.min, ruler),
        price: cloth.price.map(|p| p.amount.show()),
        owned: cloth.owned.map(|l| Measure::new(l, ruler)),
        print: match cloth.print {
            Print::AllOver => "all-over",
            Print::TwoWay => "two-way",
            Print::OneWay => "one-way",
        }
        .to_owned(),
        up: match cloth.up {
            PrintUp::Length => "length",
            PrintUp::Across => "across",
        }
        .to_owned(),
        nap: cloth.nap,
        look: cloth.look.clone(),
        swatch: swatch(cloth, &cloth.id, 132.0, 84.0).into(),
        parts: project
            .from
            .iter()
            .filter(|(_, ids)| ids.first() == Some(&cloth.id))
            .map(|(part, _)| part.key().to_owned())
            .collect(),
    }
}

/// The lay as the stage shows it.
pub fn lay_view(project: &Project, laid: &Laid, steps: &[Step]) -> LayView {
    let lay = &laid.lay;
    let cloths: Vec<ClothLayView> = lay.cloths.iter().filter_map(|c| cloth_lay_view(project, laid, c, steps)).collect();
    LayView {
        used_percent: used_percent(laid),
        unplaced: lay.unplaced.iter().map(|u| u.why.clone()).collect(),
        warnings: lay.warnings.clone(),
        complete: lay.complete(),
        proven: lay.proven,
        bought: bought_text(project, lay),
        cost: cost_text(project, lay),
        iterations: lay.iterations,
        cloths,
    }
}

/// The pieces' share of all cloth bought or taken, in hundredths.
fn used_percent(laid: &Laid) -> u32 {
    let mut used = 0.0;
    let mut all = 0.0;
    for c in &laid.lay.cloths {
        let Some(cloth) = laid.job.cloth(&c.cloth) else { continue };
        let area = cloth.washed_width().0 as f64 * c.buy_length.0 as f64;
        used += area * c.used_share;
        all += area;
    }
    if all > 0.0 { (used / all * 100.0).round() as u32 } else { 0 }
}

fn cloth_lay_view(project: &Project, laid: &Laid, c: &ClothLay, steps: &[Step]) -> Option<ClothLayView> {
    let cloth = project.cloth(&c.cloth)?;
    let as_job = laid.job.cloth(&c.cloth)?;
    let ruler = project.ruler;
    let readings: BTreeSet<Length> = steps
        .iter()
        .filter_map(|s| match s {
            Step::Cut { cloth, cut } if *cloth == c.cloth => Some(cut.reading),
            _ => None,
        })
        .collect();
    let down = |l: Length| ruler.show(l.floor_to(ruler.step())).text;
    Some(ClothLayView {
        cloth: c.cloth.clone(),
        name: cloth.name.clone(),
        length: show_bought(c.buy_length, project.system),
        owned: as_job.owned,
        needed: Measure::new(ruler.up(c.needed_length), ruler),
        used_percent: (c.used_share * 100.0).round() as u32,
        cost: (!as_job.owned && as_job.price.is_some()).then(|| as_job.cost(c.buy_length).show()),
        proven: c.proven(),
        bound: show_bought(c.bound, project.system),
        cuts: match manner(steps.iter().filter(|s| s.cloth() == Some(&c.cloth))) {
            Manner::EdgeToEdge => "all edge to edge",
            Manner::RoundTemplates => "some round a template",
            Manner::Stopped => "some stop short",
        }
        .to_owned(),
        settings: readings.len() as u32,
        left: c.offcuts.first().and_then(|o| match o {
            Offcut::Rect { width, height, .. } => Some(format!("{} × {}", down(*width), down(*height))),
            Offcut::Polygon(_) => None,
        }),
        drawing: cloth_lay(project, &laid.job, c, 960.0, 440.0, "stage")?.into(),
    })
}

fn purchase_views(project: &Project, laid: &Laid) -> Vec<PurchaseView> {
    let (ruler, system) = (project.ruler, project.system);
    purchases(&laid.job, &laid.lay)
        .into_iter()
        .filter_map(|p| {
            let cloth = project.cloth(&p.cloth)?;
            let steps = cloth.shop.step.filter(|s| !p.owned && p.length.is_multiple_of(*s));
            Some(PurchaseView {
                name: cloth.name.clone(),
                width: Measure::new(cloth.width, ruler),
                length: show_bought(p.length, system),
                steps: steps.map(|s| format!("{} × {}", p.length.0 / s.0, show_bought(s, system))),
                needed: Measure::new(ruler.up(p.needed), ruler),
                spare: Measure::new(p.spare.floor_to(ruler.step()), ruler),
                owned: p.owned,
                price: cloth.price.map(|price| price.amount.show()),
                cost: p.cost.map(Money::show),
                proven: p.proven,
                swatch: swatch(cloth, &format!("buy-{}", cloth.id), 96.0, 64.0).into(),
                cloth: p.cloth,
            })
        })
        .collect()
}

fn tally(project: &Project, planned: &Planned, laid: Option<&Laid>) -> TallyView {
    TallyView {
        cloth: laid.map(|l| bought_text(project, &l.lay)),
        change: None,
        cost: laid.map(|l| cost_text(project, &l.lay)).filter(|t| !t.is_empty()),
        pieces: planned.draft.pieces.iter().filter(|p| p.is_bundled()).map(|p| p.count).sum(),
        used_percent: laid.map(used_percent),
        strap_drop: strap_drop(project, planned),
        holds: holds(planned),
    }
}

/// `+⅛ yd`, `−10 cm`, or nothing when it stayed.
fn change(project: &Project, difference: Length) -> Option<String> {
    let size = Length(difference.0.abs());
    if size < shop_unit(project.system) / 8 {
        return None;
    }
    let sign = if difference > Length::ZERO { "+" } else { "−" };
    Some(format!("{sign}{}", show_bought(size, project.system)))
}

fn notices(project: &Project, planned: &Planned, laid: Option<&Laid>) -> Vec<NoticeView> {
    let mut all: Vec<NoticeView> = planned.problems.iter().map(|p| attention("cloth", p.to_string())).collect();
    for part in &planned.unassigned {
        all.push(attention("cloth", format!("{} has no cloth yet.", part.name())));
    }
    if let Some(laid) = laid {
        all.extend(laid.lay.unplaced.iter().map(|u| attention("lay", format!("{}.", u.why))));
        all.extend(laid.lay.warnings.iter().map(|w| attention("lay", w.clone())));
    }
    let upside_down = |part| {
        let cloth = project.cloth_of(part);
        cloth.is_some_and(|c| c.print == Print::OneWay || c.nap) && planned.draft.pieces.iter().any(|p| p.part == part)
    };
    if upside_down(Part::Pocket) && planned.draft.piece("slip-pocket").is_some() {
        let text =
            "The pocket is folded at its top edge: the back of a one-way print hangs upside down, out of sight.".into();
        all.push(NoticeView { stage: "cloth".into(), field: None, attention: false, text });
    }
    if planned.unassigned.is_empty()
        && project.bag.answer("backing") == Some("none")
        && project.cloth_of(Part::Outer).is_some_and(|c| c.material == Material::Cotton)
    {
        all.push(NoticeView {
            stage: "bag".into(),
            field: Some("backing".into()),
            attention: false,
            text: "An outer of cotton is usually backed; canvas stands by itself.".into(),
        });
    }
    all.extend(planned.draft.notices.iter().map(notice));
    all
}

fn attention(stage: &str, text: String) -> NoticeView {
    NoticeView { stage: stage.to_owned(), field: None, attention: true, text }
}

fn notice(n: &Notice) -> NoticeView {
    let stage = match n.stage {
        Stage::Bag => "bag",
        Stage::Pieces => "pieces",
        Stage::Cloth => "cloth",
        Stage::Lay => "lay",
        Stage::Buy => "buy",
        Stage::Cut => "cut",
    };
    NoticeView {
        stage: stage.to_owned(),
        field: n.field.map(str::to_owned),
        attention: n.severity == Severity::Attention,
        text: n.text.clone(),
    }
}

//! The bag: its fields by the place they act, its rows, its drawing, and what is bought beside cloth.

use super::part::{AddedView, FaceView, face_views, part_views};
use super::{DimensionView, DrawingView, Measure};
use bofta_core::bag::parts::ClothOf;
use bofta_core::bag::{Body, Bought, Choice, CutList, Family, Field, GoodKind, Row, RowShape, Slot};
use bofta_core::measure::{Length, Ruler, in_system, show_bought};
use bofta_core::project::{Planned, Project};
use bofta_formats::draw::{bag, family};
use serde::Serialize;
use utoipa::ToSchema;

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
    /// It takes several lengths, as they are typed.
    pub lengths: bool,
    /// It takes the cloths of several bands in order, each a key among its answers.
    pub cloths: Option<Vec<String>>,
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

/// What a cut list names that is bought.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct BoughtView {
    pub text: String,
    /// To be sent back as it is.
    pub bought: Bought,
}

/// Something bought, in a few words: `2 × Webbing, 1 in wide, 24 in long`.
pub fn bought_text(bought: &Bought, ruler: Ruler) -> String {
    let show = |l: Length| format!("{} {}", ruler.show(l).text, ruler.system().symbol());
    let width = bought.width.map(|w| format!(", {} wide", show(w))).unwrap_or_default();
    let size = match (bought.kind, bought.size) {
        (Some(_), Some(long)) => format!(", {} long", show(long)),
        (None, Some(size)) => format!(", {}", show(size)),
        (_, None) => String::new(),
    };
    format!("{} × {}{width}{size}", bought.count, bought.name)
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
    /// How many of the kind and size are there, as it was typed.
    pub at_hand: u32,
    /// How many of those are taken for this line.
    pub taken: u32,
    /// How many are bought for it.
    pub buy: u32,
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
    /// What the size is: `wide`.
    pub name: String,
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
    /// What is put on it.
    pub parts: Vec<AddedView>,
    /// Its walls, each drawn straight on with the parts on it.
    pub faces: Vec<FaceView>,
    /// Only of one's own cut list.
    pub rows: Vec<RowView>,
    /// What one's own cut list names that is bought.
    pub bought: Vec<BoughtView>,
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

pub(super) fn holds(planned: &Planned) -> String {
    let litres = planned.draft.millilitres as f64 / 1000.0;
    match planned.draft.millilitres {
        0 => String::new(),
        _ if litres < 10.0 => format!("about {litres:.1} litres"),
        _ => format!("about {litres:.0} litres"),
    }
}

pub(super) fn field_view(field: &Field<'_>, project: &Project) -> FieldView {
    let bare = FieldView {
        key: field.key.to_owned(),
        label: field.label.to_owned(),
        idle: field.idle,
        length: None,
        lengths: false,
        cloths: None,
        answers: vec![],
        value: String::new(),
        count: None,
    };
    let answer = |key: &str, name: &str, note: &str| AnswerView {
        key: key.into(),
        name: name.into(),
        note: in_system(note, project.system).into_owned(),
    };
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
        Slot::Cloths(cloths) => {
            let keys: Vec<String> = cloths.iter().map(|c| c.answer().key.to_owned()).collect();
            let all = ClothOf::ALL.iter().map(|c| answer(c.answer().key, c.answer().name, c.answer().note));
            FieldView { value: keys.join(", "), cloths: Some(keys), answers: all.collect(), ..bare }
        }
        Slot::Text(text) => FieldView { value: text.to_string(), ..bare },
        Slot::Lengths(lengths) => {
            let each: Vec<String> = lengths.iter().map(|l| project.ruler.show(*l).text).collect();
            FieldView { value: each.join(", "), lengths: true, ..bare }
        }
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
            key: group.key(),
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

pub(super) fn bag_view(project: &Project, planned: &Planned) -> BagView {
    let (ruler, draft) = (project.ruler, &planned.draft);
    let drawn = bag(project, draft, 960.0, 400.0);
    BagView {
        family: project.bag.family().key().to_owned(),
        title: project.bag.title().to_owned(),
        about: project.bag.family().about().to_owned(),
        groups: groups(project),
        parts: part_views(project, draft),
        faces: face_views(project, draft),
        rows: match &project.bag.body {
            Body::CutList(list) => list.rows.iter().map(|r| row_view(r, list, project)).collect(),
            _ => vec![],
        },
        bought: match &project.bag.body {
            Body::CutList(list) => {
                let view = |b: &Bought| BoughtView { text: bought_text(b, ruler), bought: b.clone() };
                list.bought.iter().map(view).collect()
            }
            _ => vec![],
        },
        goods: draft
            .goods
            .iter()
            .map(|g| GoodView {
                kind: g.kind.name().to_owned(),
                name: g.name.to_string(),
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
                at_hand: reel.typed.iter().map(|l| ruler.show(*l).text).collect::<Vec<_>>().join(", "),
                from_hand: reel.from_hand(ruler),
            })
            .collect(),
        hardware: project
            .by_the_piece(&draft.hardware)
            .into_iter()
            .map(|line| HardwareView {
                name: line.needed.name.to_string(),
                count: line.needed.count,
                size: line.needed.size.map(|s| Measure::new(s, ruler)),
                note: line.needed.note.to_string(),
                at_hand: project.typed_pieces(line.needed),
                taken: line.taken,
                buy: line.buy,
            })
            .collect(),
        finished: planned
            .finished
            .iter()
            .map(|f| FinishedView {
                name: f.name.to_string(),
                asked: Measure::new(f.asked, ruler),
                back: Measure::new(f.back, ruler),
            })
            .collect(),
        anchors: drawn
            .anchors
            .iter()
            .map(|a| AnchorView {
                field: a.field.to_owned(),
                name: project.bag.size_word(a.field).unwrap_or(a.field).to_owned(),
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

pub(super) fn strap_drop(project: &Project, planned: &Planned) -> Option<Measure> {
    // A drop is a property of the made bag, not a cut: the nearest line tells it well enough.
    planned.draft.strap_drop.map(|d| Measure::new(d.round_to(project.ruler.step()), project.ruler))
}

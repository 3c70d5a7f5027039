//! The parts put on the bag, and its walls with the parts on them.

use super::bag::{FieldView, field_view};
use super::{DimensionView, DrawingView, Measure};
use bofta_core::bag::{Added, Choice, Draft};
use bofta_core::project::Project;
use bofta_formats::draw::{FaceDrawing, Held, PartPlace, faces};
use serde::Serialize;
use utoipa::ToSchema;

/// A piece that a part is cut as.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct AddedPieceView {
    pub name: String,
    pub count: u32,
    pub width: DimensionView,
    pub height: DimensionView,
}

/// A part put on the bag.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct AddedView {
    pub id: u32,
    /// The key of its kind.
    pub kind: String,
    pub name: String,
    /// What stands, in a few words.
    pub summary: String,
    /// It is not made: it was kept aside, or its wall is not there.
    pub aside: bool,
    /// It was kept aside and can be put back; else its wall is missing.
    pub can_be_put_back: bool,
    /// Keys of the walls it is on.
    pub walls: Vec<String>,
    pub fields: Vec<FieldView>,
    pub pieces: Vec<AddedPieceView>,
}

/// Where a part is on the drawing of a wall, in its pixels.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct PlaceView {
    /// The part's number; nothing of what the body has itself.
    pub part: Option<u32>,
    /// The key of the group of fields of what the body has itself.
    pub own: Option<String>,
    pub x: f64,
    pub y: f64,
    pub width: f64,
    pub height: f64,
    /// The field that moves it down, and what that is now.
    pub down: Option<MoveView>,
    /// The field that moves it across, and what that is now.
    pub across: Option<MoveView>,
    /// The choice that lets it stand anywhere across.
    pub freely: Option<FreelyView>,
    /// How its two ends are moved apart or together.
    pub ends: Option<EndsView>,
}

/// A field that moves two ends, both alike.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct EndsView {
    pub field: String,
    pub is: Measure,
    /// How much it grows for each unit that one end moves outward.
    pub outward: i64,
}

/// A choice and its answer.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct FreelyView {
    pub field: String,
    pub value: String,
}

/// A field that moves a part.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct MoveView {
    pub field: String,
    pub is: Measure,
}

/// A wall drawn straight on.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct FaceView {
    /// The key of the wall.
    pub wall: String,
    pub name: String,
    pub drawing: DrawingView,
    pub places: Vec<PlaceView>,
    /// Pixels for one inch or centimetre.
    pub per_unit: f64,
}

fn part_view(part: &Added, project: &Project, draft: &Draft) -> AddedView {
    let walls = project.bag.walls(project.ruler);
    let (mut copy, prefix) = (part.clone(), format!("{}-", part.prefix()));
    let mut fields: Vec<FieldView> = copy.fields().iter().map(|f| field_view(f, project)).collect();
    // Only walls the bag has are offered.
    for field in fields.iter_mut().filter(|f| f.key == "wall") {
        field.answers.retain(|a| walls.iter().any(|w| w.side.answer().key == a.key));
    }
    let pieces = draft.pieces.iter().filter(|p| p.id.starts_with(&prefix)).map(|p| AddedPieceView {
        name: p.name.to_string(),
        count: p.count,
        width: DimensionView::new(&p.width, project.ruler),
        height: DimensionView::new(&p.height, project.ruler),
    });
    AddedView {
        id: part.id,
        kind: part.kind.key().to_owned(),
        name: project.bag.part_name(part),
        summary: part.summary(project.ruler),
        aside: part.aside || part.missing(&walls).is_some(),
        can_be_put_back: part.aside,
        walls: part.sides().iter().map(|s| s.answer().key.to_owned()).collect(),
        fields,
        pieces: pieces.collect(),
    }
}

pub(super) fn part_views(project: &Project, draft: &Draft) -> Vec<AddedView> {
    project.bag.parts.iter().map(|p| part_view(p, project, draft)).collect()
}

fn place_view(place: &PartPlace, project: &Project) -> PlaceView {
    let field = |found: Option<(&'static str, _)>| {
        found.map(|(field, is)| MoveView { field: field.to_owned(), is: Measure::new(is, project.ruler) })
    };
    let (part, own) = match place.held {
        Held::Part(id) => (Some(id), None),
        Held::Own(group) => (None, Some(group.key())),
    };
    PlaceView {
        part,
        own,
        x: place.x,
        y: place.y,
        width: place.width,
        height: place.height,
        down: field(place.moves.down),
        across: field(place.moves.across),
        freely: place
            .moves
            .freely
            .map(|(field, answer)| FreelyView { field: field.to_owned(), value: answer.to_owned() }),
        ends: place.moves.ends.map(|ends| EndsView {
            field: ends.field.to_owned(),
            is: Measure::new(ends.is, project.ruler),
            outward: ends.outward,
        }),
    }
}

pub(super) fn face_views(project: &Project, draft: &Draft) -> Vec<FaceView> {
    let view = |face: FaceDrawing| FaceView {
        wall: face.side.answer().key.to_owned(),
        name: face.side.answer().name.to_owned(),
        places: face.places.iter().map(|p| place_view(p, project)).collect(),
        drawing: face.drawing.into(),
        per_unit: face.per_unit,
    };
    faces(project, draft, 560.0, 400.0).into_iter().map(view).collect()
}

//! Every list of choices the screens offer that belongs to no one project, from the core.

use axum::Json;
use bofta_core::bag::binding::Join;
use bofta_core::bag::{PartKind, RowShape};
use bofta_core::cloth::{EdgeKind, FlawKind, Material, Print, PrintUp};
use bofta_core::measure::{Ruler, System};
use bofta_core::piece::Part;
use bofta_core::project::Pattern;
use serde::Serialize;
use utoipa::ToSchema;

/// One of a list.
#[derive(Debug, Serialize, ToSchema)]
pub struct ChoiceView {
    /// As it is sent back.
    pub key: String,
    /// In words.
    pub name: String,
}

/// A kind of part.
#[derive(Debug, Serialize, ToSchema)]
pub struct PartKindView {
    pub key: String,
    pub name: String,
    /// What it is for.
    pub about: String,
}

/// A ruler.
#[derive(Debug, Serialize, ToSchema)]
pub struct RulerView {
    pub key: String,
    pub name: String,
    /// `in` or `cm`.
    pub system: String,
    /// Its finest line in exact units.
    pub step: i64,
}

/// A system of measures.
#[derive(Debug, Serialize, ToSchema)]
pub struct SystemView {
    /// `in` or `cm`.
    pub key: String,
    pub name: String,
    /// One inch or centimetre in exact units.
    pub unit: i64,
}

/// The lists.
#[derive(Debug, Serialize, ToSchema)]
pub struct ChoicesView {
    pub systems: Vec<SystemView>,
    pub rulers: Vec<RulerView>,
    pub materials: Vec<ChoiceView>,
    pub patterns: Vec<ChoiceView>,
    pub prints: Vec<ChoiceView>,
    pub print_up: Vec<ChoiceView>,
    pub joins: Vec<ChoiceView>,
    pub parts: Vec<ChoiceView>,
    /// Kinds of part that can be put on a bag.
    pub part_kinds: Vec<PartKindView>,
    /// Shapes of a row of one's own cut list.
    pub row_shapes: Vec<ChoiceView>,
    /// What may be wrong with a place on a scrap.
    pub flaws: Vec<ChoiceView>,
    /// What makes an edge of a scrap worth keeping.
    pub edges: Vec<ChoiceView>,
}

/// The lists of choices.
#[utoipa::path(get, path = "/api/choices", responses((status = 200, body = ChoicesView)))]
pub async fn choices() -> Json<ChoicesView> {
    Json(ChoicesView {
        systems: System::ALL
            .iter()
            .map(|s| SystemView { key: s.symbol().to_owned(), name: s.name().to_owned(), unit: s.unit().0 })
            .collect(),
        rulers: Ruler::ALL
            .iter()
            .map(|r| RulerView {
                key: key(r),
                name: r.name().to_owned(),
                system: r.system().symbol().to_owned(),
                step: r.step().0,
            })
            .collect(),
        materials: list(&Material::ALL, Material::covers),
        patterns: list(&Pattern::ALL, Pattern::name),
        prints: list(&Print::ALL, Print::name),
        print_up: list(&PrintUp::ALL, PrintUp::name),
        joins: list(&Join::ALL, Join::name),
        parts: list(&Part::ALL, Part::name),
        part_kinds: PartKind::CHOICES
            .iter()
            .map(|(key, name, about)| PartKindView {
                key: (*key).to_owned(),
                name: (*name).to_owned(),
                about: (*about).to_owned(),
            })
            .collect(),
        row_shapes: RowShape::CHOICES
            .iter()
            .map(|(key, name)| ChoiceView { key: (*key).to_owned(), name: (*name).to_owned() })
            .collect(),
        flaws: list(&FlawKind::ALL, FlawKind::name),
        edges: list(&EdgeKind::ALL, EdgeKind::name),
    })
}

fn list<T: Serialize + Copy>(all: &[T], name: impl Fn(T) -> &'static str) -> Vec<ChoiceView> {
    all.iter().map(|one| ChoiceView { key: key(one), name: name(*one).to_owned() }).collect()
}

fn key<T: Serialize>(value: &T) -> String {
    crate::view::key(value)
}

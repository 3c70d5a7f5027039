//! Reading a cut list before it becomes rows of a project: text, a spreadsheet, or outlines. Nothing is kept.

use super::App;
use super::problem::{ApiError, ApiErrorBody, Asked, Body};
use super::upload::{Upload, read_apart};
use crate::view::{FamilyView, bought_text, family_views};
use crate::work::A_REQUEST;
use axum::Json;
use axum::extract::State;
use bofta_core::bag::{Bought, MOST_ROWS, Row, RowShape};
use bofta_core::measure::{Length, Ruler, System};
use bofta_core::name;
use bofta_formats::cut_list::Found;
use bofta_formats::gate::MOST_BYTES;
use bofta_formats::gate::checked_text;
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

/// Text to read.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CutListText {
    pub text: String,
    /// `in` or `cm`: what numbers without a unit are in.
    pub system: String,
}

/// A file to read; its kind is told by its content.
#[derive(Debug, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct FileQuery {
    pub name: String,
    /// `in` or `cm`.
    pub system: String,
    /// What a drawing without a unit is drawn in: `in`, `cm` or `mm`.
    pub unit: Option<String>,
}

/// A line that was not read.
#[derive(Debug, Serialize, ToSchema)]
pub struct UnreadView {
    pub line: usize,
    pub text: String,
    pub why: String,
}

/// A row as it will stand.
#[derive(Debug, Serialize, ToSchema)]
pub struct ReadRow {
    /// To be sent back as it is.
    pub row: Row,
    /// `2 × Lining panel, 9½ × 12`.
    pub text: String,
    /// The line it comes from; 0 from a drawing.
    pub line: usize,
    /// That line as it stands; empty from a drawing.
    pub said: String,
    /// What was not sure about it, as a question.
    pub asks: Option<String>,
    /// Other ways to read it.
    pub others: Vec<OtherRow>,
}

/// Another way to read a line.
#[derive(Debug, Serialize, ToSchema)]
pub struct OtherRow {
    /// To be sent back as it is.
    pub row: Row,
    /// `15 × Outer, 16 × 2 in`.
    pub text: String,
}

/// What was found.
#[derive(Debug, Serialize, ToSchema)]
pub struct FoundView {
    pub rows: Vec<ReadRow>,
    /// What is bought, not cut.
    pub bought: Vec<BoughtReadView>,
    pub unread: Vec<UnreadView>,
    /// What was taken for granted or left out.
    pub notes: Vec<String>,
    /// A finished size the list states, as the three fields are typed.
    pub stated: Option<[String; 3]>,
}

/// Something bought, and the line it was read from.
#[derive(Debug, Serialize, ToSchema)]
pub struct BoughtReadView {
    /// `2 × Webbing, 1 in wide, 24 in long`.
    pub text: String,
    pub line: usize,
    pub said: String,
    /// To be sent back as it is.
    pub bought: Bought,
}

pub(super) fn system_of(key: &str) -> Result<System, ApiError> {
    match key {
        "in" => Ok(System::Inches),
        "cm" => Ok(System::Centimetres),
        other => {
            Err(ApiError::field("system", other, format!("“{}” is not a system. Use in or cm.", name::clean(other))))
        }
    }
}

fn view(found: Found, system: System) -> FoundView {
    let ruler = Ruler::default_for(system);
    let show = |l: Length| ruler.show(l).text;
    let text = |r: &Row| {
        let width = r.width.map_or_else(|| "width of cloth".to_owned(), show);
        let shape = match r.shape {
            RowShape::Circle => ", a circle",
            RowShape::HalfRound => ", half-round",
            _ => "",
        };
        format!("{} × {}, {} × {} {}{shape}", r.count, r.name, width, show(r.height), system.symbol())
    };
    let mut notes = found.notes;
    notes.extend(found.seam.map(|s| format!("The list says {} {} seams.", show(s), system.symbol())));
    FoundView {
        rows: found
            .rows
            .into_iter()
            .enumerate()
            .map(|(i, row)| {
                let ask = found.asks.iter().find(|a| a.row == i);
                let other = |row: &Row| OtherRow { text: text(row), row: row.clone() };
                ReadRow {
                    text: text(&row),
                    line: found.lines.get(i).copied().unwrap_or(0),
                    said: found.said.get(i).cloned().unwrap_or_default(),
                    asks: ask.map(|a| a.text.clone()),
                    others: ask.map_or_else(Vec::new, |a| a.others.iter().map(other).collect()),
                    row,
                }
            })
            .collect(),
        bought: found
            .bought
            .into_iter()
            .map(|b| BoughtReadView {
                text: bought_text(&b.bought, ruler),
                line: b.line,
                said: b.said,
                bought: b.bought,
            })
            .collect(),
        unread: found.unread.into_iter().map(|u| UnreadView { line: u.line, text: u.text, why: u.why }).collect(),
        notes,
        stated: found.stated.map(|(w, h, d)| [w, h, d].map(|l| format!("{} {}", show(l), system.symbol()))),
    }
}

/// Reads a cut list from text.
#[utoipa::path(post, path = "/api/cut-list/text", request_body = CutListText,
    responses((status = 200, body = FoundView), (status = 422, body = ApiErrorBody)))]
pub async fn text(State(app): State<App>, Body(given): Body<CutListText>) -> Result<Json<FoundView>, ApiError> {
    app.blocking(A_REQUEST, move |_| {
        let system = system_of(&given.system)?;
        let found = checked_text(&given.text, system)
            .map_err(|why| ApiError::field("text", "", format!("The text cannot be read: {why}.")))?;
        if found.rows.len() > MOST_ROWS {
            let message = format!("That is {} pieces: at most {MOST_ROWS} make one list.", found.rows.len());
            return Err(ApiError::field("text", "", message));
        }
        Ok(Json(view(found, system)))
    })
    .await
}

/// Reads a cut list from a file: text or CSV, XLSX, ODS or XLS, SVG or DXF, told by its content.
#[utoipa::path(post, path = "/api/cut-list/file", params(FileQuery), request_body(content = Vec<u8>, content_type = "application/octet-stream"),
    responses((status = 200, body = FoundView), (status = 413, body = ApiErrorBody), (status = 415, body = ApiErrorBody), (status = 422, body = ApiErrorBody)))]
pub async fn file(
    Asked(query): Asked<FileQuery>,
    Upload(bytes): Upload<MOST_BYTES>,
) -> Result<Json<FoundView>, ApiError> {
    let system = system_of(&query.system)?;
    if let Some(unit) = query.unit.as_deref().filter(|u| !matches!(*u, "in" | "cm" | "mm")) {
        return Err(ApiError::field("unit", unit, "A drawing’s unit is in, cm or mm."));
    }
    let found = read_apart(bytes, &query.name, system, query.unit.as_deref()).await?;
    Ok(Json(view(found, system)))
}

/// The families of bags, each drawn small.
#[utoipa::path(get, path = "/api/families", responses((status = 200, body = [FamilyView])))]
pub async fn families() -> Json<Vec<FamilyView>> {
    Json(family_views())
}

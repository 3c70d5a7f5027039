//! Reading a cut list before it becomes rows of a project: text, a spreadsheet, or outlines. Nothing is kept.

use super::App;
use super::problem::{Body, Refusal, RefusalBody};
use super::upload::Upload;
use crate::view::{FamilyView, family_views};
use axum::Json;
use axum::extract::{Query, State};
use bofta_core::FieldProblem;
use bofta_core::bag::Row;
use bofta_core::measure::{Length, Ruler, System};
use bofta_formats::cut_list::{Found, LARGEST, read_text};
use bofta_formats::outlines::{DrawingError, read_dxf, read_svg};
use bofta_formats::spreadsheet;
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

/// A file to read; its kind is told by its name.
#[derive(Debug, Deserialize, IntoParams)]
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
}

/// What was found.
#[derive(Debug, Serialize, ToSchema)]
pub struct FoundView {
    pub rows: Vec<ReadRow>,
    pub unread: Vec<UnreadView>,
    /// What was taken for granted or left out.
    pub notes: Vec<String>,
    /// A finished size the list states, as the three fields are typed.
    pub stated: Option<[String; 3]>,
}

fn system_of(key: &str) -> Result<System, Refusal> {
    match key {
        "in" => Ok(System::Inches),
        "cm" => Ok(System::Centimetres),
        other => Err(refusal("system", other, "it is in or cm".to_owned())),
    }
}

fn refusal(field: &str, value: &str, message: String) -> Refusal {
    Refusal::fields(vec![FieldProblem::new(field, value, message)])
}

fn view(found: Found, system: System) -> FoundView {
    let ruler = Ruler::usual(system);
    let show = |l: Length| ruler.show(l).text;
    let text = |r: &Row| {
        let width = r.width.map_or_else(|| "width of cloth".to_owned(), show);
        format!("{} × {}, {} × {} {}", r.count, r.name, width, show(r.height), system.symbol())
    };
    let mut notes = found.notes;
    notes.extend(found.seam.map(|s| format!("The list says {} {} seams.", show(s), system.symbol())));
    FoundView {
        rows: found
            .rows
            .into_iter()
            .enumerate()
            .map(|(i, row)| ReadRow { text: text(&row), line: found.lines.get(i).copied().unwrap_or(0), row })
            .collect(),
        unread: found.unread.into_iter().map(|u| UnreadView { line: u.line, text: u.text, why: u.why }).collect(),
        notes,
        stated: found.stated.map(|(w, h, d)| [w, h, d].map(|l| format!("{} {}", show(l), system.symbol()))),
    }
}

/// Reads a cut list from text.
#[utoipa::path(post, path = "/api/cut-list/text", request_body = CutListText,
    responses((status = 200, body = FoundView), (status = 422, body = RefusalBody)))]
pub async fn text(State(app): State<App>, Body(given): Body<CutListText>) -> Result<Json<FoundView>, Refusal> {
    app.blocking(move |_| {
        let system = system_of(&given.system)?;
        if given.text.len() > LARGEST {
            return Err(refusal("text", "", "The text is over 4 MB: that is no cut list.".to_owned()));
        }
        Ok(Json(view(read_text(&given.text, system), system)))
    })
    .await
}

/// Reads a cut list from a file: CSV or text, XLSX or ODS, SVG or DXF.
#[utoipa::path(post, path = "/api/cut-list/file", params(FileQuery), request_body(content = Vec<u8>, content_type = "application/octet-stream"),
    responses((status = 200, body = FoundView), (status = 413, body = RefusalBody), (status = 422, body = RefusalBody)))]
pub async fn file(
    State(app): State<App>,
    Query(query): Query<FileQuery>,
    Upload(bytes): Upload,
) -> Result<Json<FoundView>, Refusal> {
    app.blocking(move |_| {
        let system = system_of(&query.system)?;
        let ending = query.name.rsplit('.').next().unwrap_or_default().to_lowercase();
        let refuse = |why: String| refusal("file", &query.name, format!("{}: {why}.", query.name));
        let unit = match query.unit.as_deref() {
            Some("in") => Some(Length::INCH),
            Some("cm") => Some(Length::CENTIMETRE),
            Some("mm") => Some(Length::MILLIMETRE),
            _ => None,
        };
        let outlines = |read: Result<bofta_formats::outlines::Outlines, DrawingError>| match read {
            Ok(found) => Ok(Found { rows: found.rows, notes: found.left_out, ..Found::default() }),
            // The screen asks for the unit and sends it again.
            Err(DrawingError::NoUnit) => {
                Err(refusal("unit", &query.name, format!("{}: {}.", query.name, DrawingError::NoUnit)))
            }
            Err(e) => Err(refuse(e.to_string())),
        };
        let found = match ending.as_str() {
            "xlsx" | "xls" | "ods" => read_text(&spreadsheet::as_text(&bytes).map_err(refuse)?, system),
            // Without another scale a user unit of an SVG is a pixel of 1/96 in.
            "svg" => outlines(read_svg(&bytes, unit.map_or(96.0, |u| Length::INCH.0 as f64 / u.0 as f64)))?,
            "dxf" => outlines(read_dxf(&bytes, unit))?,
            "csv" | "tsv" | "txt" => {
                if bytes.len() > LARGEST {
                    return Err(refuse("it is over 4 MB: that is no cut list".to_owned()));
                }
                let text =
                    String::from_utf8(bytes.to_vec()).map_err(|_| refuse("it is not text in UTF-8".to_owned()))?;
                read_text(text.trim_start_matches('\u{feff}'), system)
            }
            _ => return Err(refuse("only CSV, text, XLSX, ODS, SVG and DXF are read".to_owned())),
        };
        Ok(Json(view(found, system)))
    })
    .await
}

/// The families of bags, each drawn small.
#[utoipa::path(get, path = "/api/families", responses((status = 200, body = [FamilyView])))]
pub async fn families() -> Json<Vec<FamilyView>> {
    Json(family_views())
}

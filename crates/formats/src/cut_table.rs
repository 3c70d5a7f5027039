//! The cut list as a table for a spreadsheet, in CSV and in XLSX: every piece with its cloth, its shape and when it is cut.
//! Bofta reads it back as it was; what is made up of other pieces says so, and is no piece to cut.

use bofta_core::lay::Lay;
use bofta_core::measure::{Length, Ruler, System};
use bofta_core::piece::{Piece, When};
use bofta_core::project::{Planned, Project};
use rust_xlsxwriter::{Format, Workbook, XlsxError};

/// The titles of its columns.
pub(crate) const TITLES: [&str; 10] =
    ["piece", "part", "count", "width", "height", "unit", "shape", "cloth", "when", "note"];

/// What is written as the width of a piece that goes right across its cloth.
pub(crate) const RIGHT_ACROSS: &str = "width of cloth";

/// What is written as the shape of a rectangle.
pub(crate) const RECTANGLE: &str = "rectangle";

/// With what `when` begins for a piece that is made up of others.
pub(crate) const MADE_UP: &str = "not cut:";

/// A cell.
#[derive(Clone, Debug, PartialEq)]
pub enum Cell {
    /// Words.
    Text(String),
    /// A count or a size.
    Number(f64),
}

/// The rows of the table.
#[derive(Clone, Debug, PartialEq)]
pub struct CutTable {
    /// A row a piece, its cells in the order of the titles.
    pub rows: Vec<[Cell; 10]>,
}

impl CutTable {
    /// The table of a planned project; with its layout, the rows say what does not fit on the cloth.
    pub fn of(project: &Project, planned: &Planned, lay: Option<&Lay>) -> Self {
        let of_piece = |piece: &Piece| {
            let cloth = project.cloth_for(piece).filter(|_| piece.when.is_laid()).map(|c| c.name.as_str());
            let left = |lay: &Lay| lay.unplaced.iter().filter(|u| u.piece == piece.id).map(|u| u.count).sum();
            // Where it lies: a cloth that runs short is helped out by another.
            let laid = lay.map(|lay| lay.cloths_of(&piece.id)).unwrap_or_default();
            let laid: Vec<&str> = laid.into_iter().filter_map(|id| Some(project.cloth(id)?.name.as_str())).collect();
            let cloths = if laid.is_empty() { cloth.unwrap_or_default().to_owned() } else { laid.join(", ") };
            row(piece, project.ruler, &cloths, lay.map_or(0, left))
        };
        Self { rows: planned.draft.pieces.iter().map(of_piece).collect() }
    }

    /// The table of `pieces` that no cloth is chosen for.
    pub fn of_pieces(pieces: &[Piece], ruler: Ruler) -> Self {
        Self { rows: pieces.iter().map(|piece| row(piece, ruler, "", 0)).collect() }
    }

    /// The table as a workbook of one sheet (Office Open XML, ECMA-376).
    ///
    /// # Errors
    /// When the workbook cannot be made.
    pub fn to_xlsx(&self) -> Result<Vec<u8>, XlsxError> {
        let mut book = Workbook::new();
        let sheet = book.add_worksheet().set_name("Cut list")?;
        let bold = Format::new().set_bold();
        for (column, title) in (0..).zip(TITLES) {
            sheet.write_string_with_format(0, column, title, &bold)?;
        }
        for (at, row) in (1..).zip(&self.rows) {
            for (column, cell) in (0..).zip(row) {
                // Words are written as words: no cell of this workbook is a formula.
                match cell {
                    Cell::Text(text) => sheet.write_string(at, column, text)?,
                    Cell::Number(number) => sheet.write_number(at, column, *number)?,
                };
            }
        }
        sheet.set_freeze_panes(1, 0)?;
        sheet.autofit();
        book.save_to_buffer()
    }
}

fn row(piece: &Piece, ruler: Ruler, cloth: &str, unplaced: u32) -> [Cell; 10] {
    let text = |text: &str| Cell::Text(text.to_owned());
    let system = ruler.system();
    let when = match (piece.when, piece.when.describe(ruler)) {
        (When::Pieced(_) | When::FromBlock, Some(when)) => format!("{MADE_UP} {when}"),
        (_, when) => when.unwrap_or_default(),
    };
    let short = (unplaced > 0).then(|| format!("Not enough cloth: {unplaced} of {} don’t fit.", piece.count));
    let notes: Vec<String> = short.into_iter().chain(piece.note.as_ref().map(ToString::to_string)).collect();
    [
        text(&piece.name),
        text(piece.part.name()),
        Cell::Number(f64::from(piece.count)),
        if piece.spans { text(RIGHT_ACROSS) } else { Cell::Number(decimal(piece.width.size, system)) },
        Cell::Number(decimal(piece.height.size, system)),
        text(system.symbol()),
        Cell::Text(piece.figures_by(&|l| decimal(l, system).to_string()).unwrap_or_else(|| RECTANGLE.to_owned())),
        text(cloth),
        Cell::Text(when),
        Cell::Text(notes.join(" ")),
    ]
}

/// A length in the units of `system` to seven decimals: that is finer than any length is held, and no reader needs more.
fn decimal(length: Length, system: System) -> f64 {
    (length.in_units(system) * 1e7).round() / 1e7
}

//! Rows of a table: cells parted by tabs, semicolons or commas, under a header or without one.

use super::shape::shape_of;
use super::words::{bought, count, part_of, unit_named};
use crate::cut_table::{MADE_UP, RIGHT_ACROSS};
use bofta_core::bag::Row;
use bofta_core::measure::{Length, System, parse_length};
use bofta_core::name;
use bofta_core::piece::Part;
use std::borrow::Cow;

/// Most lines that one quoted cell is read over.
const MOST_LINES_OF_A_CELL: usize = 8;

/// The lines of `text` with the place of each, from 0; where a quoted cell of a table goes on over line breaks, they are one.
pub(super) fn records(text: &str) -> Vec<(usize, Cow<'_, str>)> {
    let lines: Vec<&str> = text.lines().collect();
    let mut found = Vec::with_capacity(lines.len());
    let mut at = 0;
    while at < lines.len() {
        let mut end = at + 1;
        if ends(lines[at]) == Ends::InQuotes {
            let most = lines.len().min(at + MOST_LINES_OF_A_CELL);
            let closed = (at + 2..=most).find(|&end| ends(&lines[at..end].join(" ")) != Ends::InQuotes);
            end = closed.filter(|&end| ends(&lines[at..end].join(" ")) == Ends::Whole).unwrap_or(end);
        }
        found.push((at, if end > at + 1 { lines[at..end].join(" ").into() } else { lines[at].into() }));
        at = end;
    }
    found
}

/// How the cells of a line end.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Ends {
    /// All quotes are closed, and there are several cells.
    Whole,
    /// A quoted cell is still open.
    InQuotes,
    /// It is no row of a table: a sign of inches, or words in quotes.
    NoTable,
}

fn ends(line: &str) -> Ends {
    let is_end = |c: Option<&char>| c.is_none_or(|c| matches!(c, ',' | ';' | '\t'));
    let mut signs = line.chars().peekable();
    let (mut begins, mut cells) = (true, 1);
    while let Some(c) = signs.next() {
        if begins && c == '"' {
            loop {
                match (signs.next(), signs.peek()) {
                    (None, _) => return Ends::InQuotes,
                    (Some('"'), Some('"')) => drop(signs.next()),
                    (Some('"'), next) if is_end(next) => break,
                    (Some('"'), _) => return Ends::NoTable,
                    _ => {}
                }
            }
            begins = false;
        } else {
            begins = is_end(Some(&c));
            cells += usize::from(begins);
        }
    }
    if cells > 1 { Ends::Whole } else { Ends::NoTable }
}

/// What parts the cells of a line, if anything does.
pub(super) fn separator(line: &str) -> Option<char> {
    let commas = || line.matches(',').count() >= 2;
    ['\t', ';'].into_iter().find(|by| line.contains(*by)).or_else(|| commas().then_some(','))
}

/// The cells of a line; one where nothing parts it.
pub(super) fn split(line: &str) -> Vec<String> {
    separator(line).map_or_else(|| vec![line.to_owned()], |by| split_by(line, by))
}

/// The cells of a line that `by` parts, but for what is quoted.
pub(super) fn split_by(line: &str, by: char) -> Vec<String> {
    let mut reader =
        csv::ReaderBuilder::new().delimiter(by as u8).has_headers(false).flexible(true).from_reader(line.as_bytes());
    match reader.records().next() {
        Some(Ok(record)) => record.iter().map(|c| c.trim().to_owned()).collect(),
        _ => line.split(by).map(|c| c.trim().to_owned()).collect(),
    }
}

/// Cells of a row without a header: the last two lengths are width and height, a whole number before them the count.
pub(super) fn joined(cells: &[String], system: System) -> Option<String> {
    if cells.iter().any(|cell| super::line::has_size(cell)) {
        return None;
    }
    let is_length = |c: &String| parse_length(c, system).is_ok();
    let lengths: Vec<usize> = (0..cells.len()).filter(|&i| is_length(&cells[i])).collect();
    let (count, w, h) = match lengths[..] {
        [w, h] => (1, w, h),
        [n, w, h] => (cells[n].parse::<u32>().ok()?, w, h),
        // Which of more numbers is what nobody says.
        _ => return None,
    };
    let words: Vec<&str> = (0..cells.len()).filter(|i| !lengths.contains(i)).map(|i| cells[i].as_str()).collect();
    Some(format!("{count}x {} x {} {}", cells[w], cells[h], words.join(" ")))
}

/// Which cell is what, from a header.
pub(super) struct Columns {
    name: Option<usize>,
    part: Option<usize>,
    count: Option<usize>,
    width: usize,
    height: usize,
    /// What the header says width and height are in.
    units: [Option<(System, &'static str)>; 2],
    unit: Option<usize>,
    shape: Option<usize>,
    when: Option<usize>,
    /// How many cells the header has.
    cells: usize,
    /// What parts them.
    pub by: Option<char>,
    /// Columns that are not read.
    pub left_out: Vec<String>,
}

/// What a column's numbers are in, and what is written after them.
fn unit_of(word: &str) -> Option<(System, &'static str)> {
    match unit_named(word) {
        Some("in") => Some((System::Inches, "")),
        Some("cm") => Some((System::Centimetres, "")),
        Some("mm") => Some((System::Centimetres, "mm")),
        _ if word == "\"" => Some((System::Inches, "")),
        // Nobody writes a whole list in yards.
        _ => None,
    }
}

impl Columns {
    /// Told by a header; a unit may stand in it: `Width (cm)`.
    pub(super) fn of(cells: &[String]) -> Option<Self> {
        let words = |cell: &String| -> Vec<String> {
            cell.to_lowercase()
                .split(|c: char| !c.is_alphanumeric() && c != '"')
                .filter(|w| !w.is_empty())
                .map(str::to_owned)
                .collect()
        };
        let titles: Vec<String> = cells
            .iter()
            .map(|cell| words(cell).into_iter().filter(|w| unit_of(w).is_none()).collect::<Vec<_>>().join(" "))
            .collect();
        let at = |known: &[&str]| titles.iter().position(|title| known.contains(&title.as_str()));
        let width = at(&["width", "wide", "w", "breadth"])?;
        let height = at(&["height", "tall", "h", "length", "high", "long"])?;
        let unit_at = |at: usize| words(&cells[at]).iter().find_map(|w| unit_of(w));
        let mut columns = Self {
            width,
            height,
            units: [unit_at(width), unit_at(height)],
            name: at(&["piece", "name", "pieces", "item", "description"]),
            part: at(&["part", "cloth", "fabric", "material", "bundle"]),
            count: at(&["count", "qty", "quantity", "how many", "no", "number", "cut", "pcs"]),
            unit: at(&["unit", "units"]),
            shape: at(&["shape"]),
            when: at(&["when"]),
            cells: cells.len(),
            by: None,
            left_out: vec![],
        };
        let known = [columns.name, columns.part, columns.count, columns.unit, columns.shape, columns.when];
        let read: Vec<Option<usize>> = [Some(width), Some(height)].into_iter().chain(known).collect();
        columns.left_out = (0..cells.len())
            .filter(|i| !read.contains(&Some(*i)) && !cells[*i].is_empty())
            .map(|i| cells[i].clone())
            .collect();
        Some(columns)
    }

    /// The cells of `line` where it is one of this table, whatever is said in a column that is not read: parted like the
    /// header it has as many cells, and both sizes stand where they belong.
    pub(super) fn cells_of(&self, line: &str, heading: Option<Part>, system: System) -> Option<Vec<String>> {
        let cells = split_by(line, self.by?);
        (cells.len() == self.cells && self.row(&cells, heading, system).is_ok()).then_some(cells)
    }

    /// What the cells of a row say.
    ///
    /// # Errors
    /// Why it is no row, and what would be read.
    pub(super) fn row(&self, cells: &[String], heading: Option<Part>, system: System) -> Result<TableRow, String> {
        let cell = |at: Option<usize>| at.and_then(|i| cells.get(i)).map_or("", String::as_str);
        let own = match cell(self.unit).to_lowercase().as_str() {
            "" => None,
            word => Some(unit_of(word).ok_or_else(|| format!("“{word}” is not a unit Bofta reads. Use in, cm or mm"))?),
        };
        let length = |at: usize, header: Option<(System, &str)>, what: &str| {
            let (system, unit) = own.or(header).unwrap_or((system, ""));
            let typed = cell(Some(at));
            let bare = typed.chars().next_back().is_some_and(|c| !c.is_alphabetic() && c != '"');
            let typed = if bare { format!("{typed} {unit}") } else { typed.to_owned() };
            parse_length(&typed, system).map_err(|e| format!("{what}: {e}"))
        };
        let whole = matches!(cell(Some(self.width)).to_lowercase().as_str(), "wof" | RIGHT_ACROSS | "width of fabric");
        let width = if whole { None } else { Some(length(self.width, self.units[0], "the width")?) };
        let height = length(self.height, self.units[1], "the height")?;
        let count = match cell(self.count) {
            "" => 1,
            text => count(&text.trim_end_matches(['x', '×']).to_lowercase())
                .ok_or_else(|| format!("“{text}” is not a number of pieces"))?,
        };
        let (name, part) = (cell(self.name), cell(self.part));
        if let Some(made) = cell(self.when).strip_prefix(MADE_UP) {
            return Ok(TableRow::Aside(format!("“{name}” is not a piece to cut: {}.", made.trim())));
        }
        let lower = name.to_lowercase();
        if let Some(what) = bought(&lower.split([' ', ',']).filter(|w| !w.is_empty()).collect::<Vec<_>>()) {
            return Err(format!(
                "“{what}” is bought, not cut. Write it on a line of its own, such as “2 {what}, 1 in wide, 24 in long”"
            ));
        }
        let by_key = Part::ALL.into_iter().find(|p| p.name().eq_ignore_ascii_case(part) || p.key() == part);
        let part = by_key.or_else(|| part_of(part)).or_else(|| part_of(name)).or(heading).unwrap_or(Part::Outer);
        let name = if name.is_empty() {
            part.name().to_owned()
        } else {
            name::clean(&crate::csv::as_it_was(name)).chars().take(name::MOST_LETTERS).collect()
        };
        let mut row = Row::new(name, part, count, Length::ZERO, height);
        row.width = width;
        let (own, unit) = own.or(self.units[1]).unwrap_or((system, ""));
        let figure = |typed: &str| parse_length(format!("{typed} {unit}").trim(), own).ok();
        let shape = shape_of(cell(self.shape), (width.unwrap_or_default(), height), &figure);
        let unread = || format!("Bofta can’t read the shape “{}”. Is a rectangle right?", cell(self.shape));
        let ask = if shape.is_none() { Some(unread()) } else { None };
        row.shape = shape.unwrap_or_default();
        Ok(TableRow::Row(Box::new(row), ask))
    }
}

/// What a row of a table says.
pub(super) enum TableRow {
    /// A row, and what is asked about it.
    Row(Box<Row>, Option<String>),
    /// No piece to cut, as a sentence.
    Aside(String),
}

//! A cut list as people have it: typed rows, text copied from a web page, a table from a spreadsheet. Rows that are
//! read and lines that are not are kept apart; what can be read in two ways is asked about.
//!
//! `tokens` is the grammar of a line, `line` makes rows of it, `table` reads cells, `words` knows the words of the trade.

mod beside;
mod doubt;
mod line;
mod shape;
mod table;
mod tokens;
mod words;

use crate::limits::LONGEST_LINE;
use bofta_core::bag::{Bought, Row};
use bofta_core::measure::{Length, System};
use bofta_core::piece::Part;
use serde::{Deserialize, Serialize};
use table::{Columns, TableRow, joined, records, separator, split};
use words::part_of;

/// A line that was not read.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Unread {
    /// Its number, from 1.
    pub line: usize,
    /// As it stands.
    pub text: String,
    /// Why, and what would be read.
    pub why: String,
}

/// What was found.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
pub struct Found {
    /// Rows, in their order.
    pub rows: Vec<Row>,
    /// The line each row comes from.
    pub lines: Vec<usize>,
    /// That line as it stands.
    #[serde(default)]
    pub said: Vec<String>,
    /// What is bought, not cut, each with its line.
    #[serde(default)]
    pub bought: Vec<BoughtRead>,
    /// Lines with figures that were not read.
    pub unread: Vec<Unread>,
    /// A finished size the list states: wide, tall, deep.
    pub stated: Option<(Length, Length, Length)>,
    /// A seam allowance it states.
    pub seam: Option<Length>,
    /// What was taken for granted, as sentences.
    pub notes: Vec<String>,
    /// Rows that may be meant otherwise.
    #[serde(default)]
    pub asks: Vec<Ask>,
}

/// Something bought and the line it comes from.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct BoughtRead {
    /// The line.
    pub line: usize,
    /// The line as it stands.
    pub said: String,
    /// What it is.
    pub bought: Bought,
}

/// What was not sure about a row.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Ask {
    /// Which of the rows.
    pub row: usize,
    /// As a question.
    pub text: String,
    /// Other ways to read its line.
    pub others: Vec<Row>,
}

/// Reads `text`; a number without a unit is in `system`'s.
pub fn read_text(text: &str, system: System) -> Found {
    let mut found = Found::default();
    let mut heading: Option<Part> = None;
    let mut table: Option<Columns> = None;
    let mut labelled = Vec::new();
    let mut spoken: Vec<String> = Vec::new();
    let numbered = is_numbered(text);
    for (i, raw) in records(text) {
        let raw = raw.as_ref();
        if raw.chars().count() > LONGEST_LINE {
            let why = format!(
                "it has more than {LONGEST_LINE} characters, and only the first are shown. A piece needs far fewer"
            );
            found.unread.push(Unread { line: i + 1, text: raw.chars().take(80).collect(), why });
            continue;
        }
        // Control signs are no part of a list; a tab parts its cells.
        let tidy: String = raw.chars().map(|c| if c.is_control() && c != '\t' { ' ' } else { c }).collect();
        let raw = tidy.as_str();
        let line = raw.trim().trim_start_matches(['•', '*', '·', '‣', '–', '—']).trim_start_matches("- ").trim();
        if line.is_empty() {
            continue;
        }
        // Commas are decimal where a size stands as people write it.
        let is_free = !raw.contains(['\t', ';']) && line::has_size(line);
        let of_table = table.as_ref().and_then(|columns| columns.cells_of(raw, heading, system));
        let cells = of_table.unwrap_or_else(|| if is_free { vec![raw.to_owned()] } else { split(raw) });
        if let Some(mut columns) = Columns::of(&cells) {
            if !columns.left_out.is_empty() {
                let quoted: Vec<String> = columns.left_out.iter().map(|c| format!("“{}”", short(c))).collect();
                found.notes.push(format!("Bofta doesn’t use these columns: {}.", quoted.join(", ")));
            }
            columns.by = separator(raw);
            table = Some(columns);
            continue;
        }
        if let Some(columns) = table.as_ref().filter(|_| cells.len() > 2) {
            match columns.row(&cells, heading, system) {
                Ok(TableRow::Aside(note)) => found.notes.push(format!("Line {}: {note}", i + 1)),
                Ok(TableRow::Row(row, ask)) => {
                    if let Some(text) = ask {
                        found.asks.push(Ask { row: found.rows.len(), text, others: vec![] });
                    }
                    found.rows.push(*row);
                    found.lines.push(i + 1);
                    found.said.push(cells.join(" "));
                    labelled.push(true);
                }
                Err(why) => found.unread.push(Unread { line: i + 1, text: raw.trim().to_owned(), why }),
            }
            continue;
        }
        // A table without a header reads as its cells side by side; where a column of counts, width and height has no ×
        // between them, it is put there.
        let line = if cells.len() > 2 {
            joined(&cells, system).unwrap_or_else(|| cells.join(" "))
        } else {
            line.replace('\t', " ")
        };
        let lower = line.to_lowercase();
        if !lower.chars().any(|c| c.is_ascii_digit() || "½¼¾⅛⅜⅝⅞⅓⅔".contains(c)) {
            // A heading says which part the rows under it belong to.
            heading = part_of(&line).or(heading);
            spoken.push(line);
            continue;
        }
        if lower.contains("seam allow") && !line::has_size(&line) {
            found.seam = line::only_measure(&line, system);
            if found.seam.is_some() {
                continue;
            }
        }
        let speaks_of_the_bag = ["finished", "measures", "finishes"].iter().any(|w| lower.contains(w));
        if speaks_of_the_bag
            && !names_a_piece(&lower)
            && let Some(stated) = line::stated(&line, system)
        {
            found.stated = Some(stated);
            continue;
        }
        let read = line::read(&line, heading, numbered, system);
        found.notes.extend(read.notes.iter().map(|note| format!("Line {}: {note}", i + 1)));
        for row in read.rows {
            if let Some(text) = row.asks {
                found.asks.push(Ask { row: found.rows.len(), text, others: row.others });
            }
            found.rows.push(row.row);
            found.lines.push(i + 1);
            found.said.push(raw.trim().to_owned());
            labelled.push(row.labelled);
        }
        if let Some(bought) = read.bought {
            found.bought.push(BoughtRead { line: i + 1, said: raw.trim().to_owned(), bought });
        }
        if let Some(why) = read.unread {
            found.unread.push(Unread { line: i + 1, text: raw.trim().to_owned(), why });
        }
    }
    order(&mut found, &labelled);
    if !spoken.is_empty() {
        let more = spoken.len().saturating_sub(MOST_QUOTED);
        let quoted: Vec<String> = spoken.iter().take(MOST_QUOTED).map(|l| format!("“{}”", short(l))).collect();
        let more = if more > 0 { format!(", and {more} more") } else { String::new() };
        found.notes.push(format!("These lines have no figures, so they are not pieces: {}{more}.", quoted.join(", ")));
    }
    found
}

/// Whether the lines are numbered one after the other, so that the numbers they begin with count nothing.
fn is_numbered(text: &str) -> bool {
    let numbers: Vec<u32> = text.lines().filter_map(line::item_number).map(|(n, _)| n).collect();
    numbers.len() > 1 && numbers.windows(2).all(|two| two[1] == two[0] + 1)
}

/// Whether a line speaks of a piece, not of the whole bag.
fn names_a_piece(line: &str) -> bool {
    const PIECES: [&str; 20] = [
        "panel", "panels", "piece", "pieces", "cut", "base", "bottom", "flap", "gusset", "side", "sides", "front",
        "back", "body", "square", "circle", "strip", "facing", "wall", "yoke",
    ];
    part_of(line).is_some() || line.split(|c: char| !c.is_alphanumeric()).any(|word| PIECES.contains(&word))
}

/// So many lines that are no rows are quoted, each so long at most.
const MOST_QUOTED: usize = 8;
const LONGEST_QUOTE: usize = 60;

fn short(line: &str) -> String {
    match line.char_indices().nth(LONGEST_QUOTE) {
        Some((end, _)) => format!("{} …", &line[..end]),
        None => line.to_owned(),
    }
}

/// If the list states a finished size that its panels give only with width and height changed, they are.
fn order(found: &mut Found, labelled: &[bool]) {
    let Some((wide, tall, deep)) = found.stated else { return };
    let panel = found.rows.iter().zip(labelled).find(|(r, l)| r.part == Part::Outer && !**l);
    let Some((row, _)) = panel else { return };
    let Some(width) = row.width else { return };
    let fits = |w: Length, h: Length| w >= wide && w <= wide + deep + Length::INCH * 3 && h >= tall;
    if fits(width, row.height) || !fits(row.height, width) {
        return;
    }
    for (row, labelled) in found.rows.iter_mut().zip(labelled) {
        if let (false, Some(width)) = (*labelled, row.width) {
            (row.width, row.height) = (Some(row.height), width);
        }
    }
    found
        .notes
        .push("Bofta takes the sizes as height × width, because only then do the panels give the finished size the list states.".to_owned());
}

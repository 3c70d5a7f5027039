//! A cut list as people have it: typed rows, text copied from a web page, a table from a spreadsheet. Rows that are
//! read and lines that are not are kept apart; nothing is guessed silently.

use crate::limits::LONGEST_LINE;
use bofta_core::bag::{Row, RowShape};
use bofta_core::measure::{Length, System, parse_length};
use bofta_core::name;
use bofta_core::piece::Part;
use regex::{Captures, Regex};
use serde::{Deserialize, Serialize};
use std::sync::LazyLock;

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
    /// Lines with figures that were not read.
    pub unread: Vec<Unread>,
    /// A finished size the list states: wide, tall, deep.
    pub stated: Option<(Length, Length, Length)>,
    /// A seam allowance it states.
    pub seam: Option<Length>,
    /// What was taken for granted, as sentences.
    pub notes: Vec<String>,
}

const NUMBER: &str = r#"(?:\d+(?:\s+|-|\s*&\s*|\s+and\s+)\d+\s*[/⁄]\s*\d+|\d+\s*[/⁄]\s*\d+|\d+\s?[½¼¾⅛⅜⅝⅞⅓⅔]|[½¼¾⅛⅜⅝⅞⅓⅔]|\d+[.,]\d+|\d+|[.]\d+)"#;
const UNIT: &str = r#"(?:"|″|”|''|inches|inch|ins|in|cm|mm|yards|yard|yds|yd|metres|metre|m)?"#;
const SIDE: &str = r"(?:wide|width|tall|high|height|long|length|w|h|l)";
const WHOLE: &str = r"(?:wof|width of (?:the )?(?:cloth|fabric))";

/// The dimensions of one line: `9 1/2" wide x 12" tall`.
static SIZE: LazyLock<Option<Regex>> = LazyLock::new(|| {
    let side = |n: u32| format!(r"(?P<n{n}>{WHOLE}|{NUMBER})\s*(?P<u{n}>{UNIT})\.?(?:\s*\(?(?P<s{n}>{SIDE})\b\)?)?");
    Regex::new(&format!(r"(?i){}\s*(?:x|×|\*|by)\s*{}(?:[^\w]|$)", side(1), side(2))).ok()
});
/// Three in a row: a count before a size, or a finished size.
static TRIPLE: LazyLock<Option<Regex>> = LazyLock::new(|| {
    let one = |n: u32| {
        format!(
            r"(?P<n{n}>{WHOLE}|{NUMBER})\s*(?P<u{n}>{UNIT})\.?\s*(?P<s{n}>(?:wide|width|tall|high|height|long|deep|depth|w|h|d|l)?)"
        )
    };
    Regex::new(&format!(r"(?i){}\s*(?:x|×|\*|by)\s*{}\s*(?:x|×|\*|by)\s*{}", one(1), one(2), one(3))).ok()
});
/// One measure before its shape: `8 1/2 in circle`, `5 in square`.
static ROUND: LazyLock<Option<Regex>> = LazyLock::new(|| {
    Regex::new(&format!(
        r"(?i)(?P<n>{NUMBER})\s*(?P<u>{UNIT})\.?[\s-]*(?:diameter\s+|across\s+)?(?P<k>circle|round|square)\b"
    ))
    .ok()
});
/// And after it: `circle 8 1/2 in across`.
static ROUND_FIRST: LazyLock<Option<Regex>> = LazyLock::new(|| {
    Regex::new(&format!(r"(?i)(?P<k>circles?|squares?)\D{{0,14}}?(?P<n>{NUMBER})\s*(?P<u>{UNIT})")).ok()
});
static COUNT: LazyLock<Option<Regex>> = LazyLock::new(|| {
    Regex::new(r"(?i)(?:\bcut\s+(?P<a>\d+|one|two|three|four|five|six|eight|ten)\b)|(?:\((?:cut\s+|make\s+|x\s*|×\s*)?(?P<b>\d+)\s*(?:x|×|pcs|pieces|off)?\))|(?:^\s*(?P<c>\d+|one|two|three|four|five|six|eight|ten)\s*(?:x|×|pcs\.?|pieces?|off|no\.?)?(?:\s|$))|(?:[x×]\s*(?P<d>\d+)\s*$)|(?:\b(?P<e>\d+|one|two|three|four|five|six|eight|ten)\s*(?:pcs|pieces?|off|times|squares|circles|strips|panels|x|×)\b)|(?:\b(?:qty|quantity|count)\s*:?\s*(?P<f>\d+))|(?:[:\-–]\s*(?P<g>\d+|one|two|three|four|five|six|eight|ten)\s*(?:x|×|of)?\s*$)").ok()
});

/// A measure anywhere.
static MEASURE: LazyLock<Option<Regex>> = LazyLock::new(|| Regex::new(&format!(r"(?i)({NUMBER})\s*({UNIT})")).ok());

fn number(word: &str) -> Option<u32> {
    let words = ["zero", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten"];
    let lower = word.to_lowercase();
    word.parse().ok().or_else(|| words.iter().position(|w| *w == lower).map(|n| n as u32))
}

/// A measure of a line: the figures, with the unit of this side or of the other, or none at all.
enum Side {
    Whole,
    Length(Length),
}

fn side(captures: &Captures<'_>, n: u32, other: u32, system: System) -> Option<Side> {
    let text = captures.name(&format!("n{n}"))?.as_str();
    if text.chars().next().is_some_and(char::is_alphabetic) {
        return Some(Side::Whole);
    }
    let of = |n: u32| captures.name(&format!("u{n}")).map(|m| m.as_str()).filter(|u| !u.is_empty());
    let unit = of(n).or_else(|| of(other)).unwrap_or("");
    let tidy = text.replace(" and ", " ").replace('&', " ");
    parse_length(&format!("{tidy} {unit}"), system).ok().filter(|l| *l > Length::ZERO).map(Side::Length)
}

/// The part a line speaks of, by the words makers use.
fn part_of(text: &str) -> Option<Part> {
    let lower = text.to_lowercase();
    let has = |words: &[&str]| words.iter().any(|w| lower.contains(w));
    if has(&["interfacing", "interlining", "stabiliser", "stabilizer", "fusible web", "foam"]) {
        Some(Part::Interfacing)
    } else if has(&["fleece", "batting", "wadding"]) {
        Some(Part::Backing)
    } else if has(&["binding", "bias"]) {
        Some(Part::Binding)
    } else if has(&["strap", "handle", "tab", "loop", "tie"]) {
        Some(Part::Straps)
    } else if has(&["pocket"]) {
        Some(Part::Pocket)
    } else if has(&["lining", "inner", "inside"]) {
        Some(Part::Lining)
    } else if has(&["contrast", "accent", "patch", "band", "casing"]) {
        Some(Part::Contrast)
    } else if has(&["outer", "main", "exterior", "outside"]) {
        // A panel, a base or a flap may be of anything: the heading decides, or it is the outer.
        Some(Part::Outer)
    } else {
        None
    }
}

/// A measure with a shape: before it with a unit, after it, or before it without one, since `1 circle` is a count.
fn round_of(text: &str) -> Option<Captures<'_>> {
    let before = ROUND.as_ref().and_then(|r| r.captures(text));
    let has_unit = before.as_ref().is_some_and(|c| c.name("u").is_some_and(|u| !u.as_str().is_empty()));
    if has_unit {
        return before;
    }
    ROUND_FIRST.as_ref().and_then(|r| r.captures(text)).or(before)
}

/// What is left of a line when sizes and counts are taken out.
fn name_of(text: &str) -> String {
    const IDLE: [&str; 21] = [
        "cut",
        "piece",
        "pieces",
        "pcs",
        "of",
        "x",
        "×",
        "at",
        "each",
        "from",
        "size",
        "make",
        "and",
        "with",
        "off",
        "to",
        "in",
        "cm",
        "mm",
        "by",
        "measuring",
    ];
    let words: Vec<&str> = text
        .split(|c: char| {
            c.is_whitespace()
                || matches!(c, ',' | ';' | ':' | '(' | ')' | '"' | '•' | '*' | '[' | ']' | '|' | '–' | '—' | '=')
        })
        .filter(|w| !w.is_empty() && w.chars().any(char::is_alphabetic) && !IDLE.contains(&w.to_lowercase().as_str()))
        .collect();
    let name: String = name::clean(&words.join(" "));
    let name = name.trim_matches(|c: char| !c.is_alphanumeric()).to_owned();
    let mut chars = name.chars();
    match chars.next() {
        Some(first) => first.to_uppercase().chain(chars).take(80).collect(),
        None => name,
    }
}

/// Reads `text`; a number without a unit is in `system`'s.
pub fn read_text(text: &str, system: System) -> Found {
    let mut found = Found::default();
    let mut heading: Option<Part> = None;
    let mut table: Option<Columns> = None;
    let mut labelled = Vec::new();
    for (i, raw) in text.lines().enumerate() {
        if raw.chars().count() > LONGEST_LINE {
            let why = format!(
                "it has more than {LONGEST_LINE} letters, of which the first are shown: no piece takes so many"
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
        let cells = split(raw);
        if let Some(columns) = Columns::of(&cells) {
            table = Some(columns);
            continue;
        }
        if let Some(columns) = table.as_ref().filter(|_| cells.len() > 2) {
            match columns.row(&cells, heading, system) {
                Ok(row) => {
                    found.rows.push(row);
                    found.lines.push(i + 1);
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
            continue;
        }
        if lower.contains("seam allowance") || lower.contains("seam allow") {
            found.seam =
                MEASURE.as_ref().and_then(|r| r.find(&line).and_then(|m| parse_length(m.as_str(), system).ok()));
            continue;
        }
        if (lower.contains("finished") || lower.contains("measures") || lower.contains("finishes"))
            && stated(&line, system, &mut found)
        {
            continue;
        }
        match row_of(&line, heading, system) {
            Some((row, was_labelled)) => {
                found.rows.push(row);
                found.lines.push(i + 1);
                labelled.push(was_labelled);
            }
            None => found.unread.push(Unread {
                line: i + 1,
                text: raw.trim().to_owned(),
                why: "there is no size in it such as 9 1/2 x 12: add one, or leave the line out".to_owned(),
            }),
        }
    }
    order(&mut found, &labelled);
    found
}

/// Takes a stated finished size.
fn stated(line: &str, system: System, found: &mut Found) -> bool {
    let length = |captures: &Captures<'_>, n: u32, other: u32| match side(captures, n, other, system) {
        Some(Side::Length(l)) => Some(l),
        _ => None,
    };
    if let Some(c) = TRIPLE.as_ref().and_then(|r| r.captures(line))
        && let (Some(w), Some(h), Some(d)) = (length(&c, 1, 3), length(&c, 2, 3), length(&c, 3, 1))
    {
        found.stated = Some((w, h, d));
        return true;
    }
    if let Some(c) = SIZE.as_ref().and_then(|r| r.captures(line))
        && let (Some(w), Some(h)) = (length(&c, 1, 2), length(&c, 2, 1))
    {
        found.stated = Some((w, h, Length::ZERO));
        return true;
    }
    false
}

/// A row read from free text, and whether it said which side is which.
fn row_of(line: &str, heading: Option<Part>, system: System) -> Option<(Row, bool)> {
    // A number before a full stop or bracket numbers the line.
    static NUMBERED: LazyLock<Option<Regex>> = LazyLock::new(|| Regex::new(r"^\s*\d{1,2}[.)]\s+").ok());
    let line = NUMBERED.as_ref().map_or_else(|| line.into(), |r| r.replace(line, ""));
    let mut count = None;
    let mut rest = line.to_string();
    // `4x 9 1/2 x 12`: the first of three is a count.
    if let Some(c) = TRIPLE.as_ref().and_then(|r| r.captures(&rest)) {
        let first = c.name("n1").map_or("", |m| m.as_str()).to_owned();
        let bare = c.name("u1").is_none_or(|u| u.as_str().is_empty());
        if let (true, Some(n), Some(m)) = (bare, number(&first), c.name("n2")) {
            count = Some(n);
            let from = c.get(0).map_or(0, |m| m.start());
            rest = format!("{} {}", &rest[..from], &rest[m.start()..]);
        }
    }
    let pairs = rest.to_lowercase().contains("mirror") || rest.to_lowercase().contains("pair of mirrored");
    let (mut row, at, labelled) = if let Some(c) = SIZE.as_ref().and_then(|r| r.captures(&rest)) {
        let (first, second) = (side(&c, 1, 2, system)?, side(&c, 2, 1, system)?);
        let says = |n: u32| c.name(&format!("s{n}")).map(|m| m.as_str().to_lowercase()).unwrap_or_default();
        let upright = |s: &str| matches!(s, "tall" | "high" | "height" | "h");
        let across = |s: &str| matches!(s, "wide" | "width" | "w");
        let (one, two) = (says(1), says(2));
        let swapped = upright(&one) || across(&two) || matches!(second, Side::Whole);
        let (width, height) = if swapped { (second, first) } else { (first, second) };
        let height = match height {
            Side::Length(l) => l,
            Side::Whole => return None,
        };
        let width = match width {
            Side::Length(l) => Some(l),
            Side::Whole => None,
        };
        let mut row = Row::new("", Part::Outer, 1, Length::ZERO, height);
        row.width = width;
        let end = ["n2", "u2", "s2"].iter().filter_map(|k| c.name(k)).map(|m| m.end()).max()?;
        (row, c.get(0)?.start()..end, !one.is_empty() || !two.is_empty())
    } else if let Some(c) = round_of(&rest) {
        let (n, u, kind) = (c.name("n")?, c.name("u"), c.name("k"));
        let across = parse_length(&format!("{} {}", n.as_str(), u.map_or("", |m| m.as_str())), system).ok()?;
        let mut row = Row::new("", Part::Outer, 1, across, across);
        if !kind?.as_str().to_lowercase().starts_with("square") {
            row.shape = RowShape::Circle;
        }
        let kept = c.get(0)?;
        (row, kept.start()..kept.end(), true)
    } else {
        return None;
    };
    let before = rest[..at.start].trim_end().to_owned();
    let after = rest[at.end.min(rest.len())..].to_owned();
    let word = if row.shape == RowShape::Circle { " circle" } else { "" };
    if count.is_none() {
        let counted = |text: &str| {
            let captures = COUNT.as_ref().and_then(|r| r.captures(text))?;
            ["a", "b", "c", "d", "e", "f", "g"].iter().find_map(|k| number(captures.name(k)?.as_str()))
        };
        // A number right before the size counts: `Straps: 2 4 x 26`.
        let last = before.rsplit([' ', ':']).next().and_then(number);
        count = counted(&before).or(last).or_else(|| counted(after.trim())).or_else(|| {
            let lower = after.to_lowercase();
            (lower.contains("pair") || before.to_lowercase().contains("pair")).then_some(2)
        });
    }
    let text = format!("{before} {after}");
    let stripped = COUNT.as_ref().map_or_else(|| text.clone(), |r| r.replace_all(&text, " ").into_owned());
    row.name = name_of(&stripped);
    row.part = part_of(&text).or(heading).unwrap_or(Part::Outer);
    if row.name.is_empty() {
        row.name = format!("{}{word}", row.part.name());
    }
    row.count = count.unwrap_or(1).max(1);
    row.pairs = pairs;
    let lower = text.to_lowercase();
    row.any_way = lower.contains("any way") || lower.contains("any direction");
    Some((row, labelled))
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
        .push("Read as height × width: only so do the panels give the finished size the list states.".to_owned());
}

fn split(line: &str) -> Vec<String> {
    let by = if line.contains('\t') {
        '\t'
    } else if line.contains(';') {
        ';'
    } else if line.matches(',').count() >= 2 {
        ','
    } else {
        return vec![line.to_owned()];
    };
    let mut reader =
        csv::ReaderBuilder::new().delimiter(by as u8).has_headers(false).flexible(true).from_reader(line.as_bytes());
    match reader.records().next() {
        Some(Ok(record)) => record.iter().map(|c| c.trim().to_owned()).collect(),
        _ => line.split(by).map(|c| c.trim().to_owned()).collect(),
    }
}

/// Cells of a row without a header: the last two lengths are width and height, a whole number before them the count.
fn joined(cells: &[String], system: System) -> Option<String> {
    if SIZE.as_ref().is_some_and(|r| cells.iter().any(|c| r.is_match(c))) {
        return None;
    }
    let is_length = |c: &String| parse_length(c, system).is_ok();
    let lengths: Vec<usize> = (0..cells.len()).filter(|&i| is_length(&cells[i])).collect();
    let [.., w, h] = lengths[..] else { return None };
    let count = lengths[..lengths.len() - 2].iter().find_map(|&i| cells[i].parse::<u32>().ok()).unwrap_or(1);
    let words: Vec<&str> = (0..cells.len()).filter(|i| !lengths.contains(i)).map(|i| cells[i].as_str()).collect();
    Some(format!("{count}x {} x {} {}", cells[w], cells[h], words.join(" ")))
}

/// Which cell is what, from a header.
struct Columns {
    name: Option<usize>,
    part: Option<usize>,
    count: Option<usize>,
    width: usize,
    height: usize,
    unit: Option<usize>,
}

impl Columns {
    fn of(cells: &[String]) -> Option<Self> {
        let at = |words: &[&str]| {
            cells.iter().position(|c| words.contains(&c.to_lowercase().trim_matches(|c: char| !c.is_alphanumeric())))
        };
        Some(Self {
            width: at(&["width", "wide", "w", "breadth"])?,
            height: at(&["height", "tall", "h", "length", "high", "long"])?,
            name: at(&["piece", "name", "pieces", "item", "description"]),
            part: at(&["part", "cloth", "fabric", "material", "bundle"]),
            count: at(&["count", "qty", "quantity", "how many", "no", "number", "cut"]),
            unit: at(&["unit", "units"]),
        })
    }

    fn row(&self, cells: &[String], heading: Option<Part>, system: System) -> Result<Row, String> {
        let cell = |at: Option<usize>| at.and_then(|i| cells.get(i)).map_or("", String::as_str);
        let system = match cell(self.unit).to_lowercase().as_str() {
            "in" | "inch" | "inches" | "\"" => System::Inches,
            "cm" => System::Centimetres,
            _ => system,
        };
        let length = |at: usize, what: &str| parse_length(cell(Some(at)), system).map_err(|e| format!("{what}: {e}"));
        let whole =
            matches!(cell(Some(self.width)).to_lowercase().as_str(), "wof" | "width of cloth" | "width of fabric");
        let width = if whole { None } else { Some(length(self.width, "the width")?) };
        let height = length(self.height, "the height")?;
        let count = match cell(self.count) {
            "" => 1,
            text => number(text.trim_end_matches(['x', '×']))
                .filter(|n| *n > 0)
                .ok_or_else(|| format!("“{text}” is not a number of pieces"))?,
        };
        let (name, part) = (cell(self.name), cell(self.part));
        let by_key = Part::ALL.into_iter().find(|p| p.name().eq_ignore_ascii_case(part) || p.key() == part);
        let part = by_key.or_else(|| part_of(part)).or_else(|| part_of(name)).or(heading).unwrap_or(Part::Outer);
        let name = if name.is_empty() {
            part.name().to_owned()
        } else {
            name::clean(crate::csv::as_it_was(name)).chars().take(name::MOST_LETTERS).collect()
        };
        let mut row = Row::new(name, part, count, Length::ZERO, height);
        row.width = width;
        Ok(row)
    }
}

//! Rows, headings and drawings set on pages, as SVG in points.

use crate::draw::{Canvas, Drawing, Face, Style, ink, text_width};
use bofta_core::measure::System;
use bofta_core::project::Project;

pub(super) const MARGIN: f64 = 44.0;
pub(super) const LINE: f64 = 17.0;

/// Cells at their distances from the margin; what does not fit before the next goes on below it.
pub(super) struct Row {
    cells: Vec<(f64, String, Face)>,
    /// Size of its letters, and from line to line.
    letters: (f64, f64),
    /// With a box to tick.
    ticked: bool,
}

impl Row {
    pub(super) fn of(cells: &[(f64, &str, Face)]) -> Self {
        let owned = |(x, text, face): &(f64, &str, Face)| (*x, (*text).to_owned(), *face);
        Self { cells: cells.iter().map(owned).collect(), letters: (12.5, LINE), ticked: false }
    }

    /// Cells with a box to tick before them.
    pub(super) fn step(cells: &[(f64, &str, Face)]) -> Self {
        Self { ticked: true, ..Self::of(cells) }
    }

    /// A cut to tick off.
    pub(super) fn ticked(number: usize, reading: &str, how: &str, off: &str) -> Self {
        let number = number.to_string();
        let cells = [
            (18.0, number.as_str(), Face::Text),
            (38.0, reading, Face::Bold),
            (92.0, how, Face::Text),
            (330.0, off, Face::Text),
        ];
        // A page holds more of them so, and they read at arm's length.
        Self { letters: (11.0, 14.0), ..Self::step(&cells) }
    }
}

/// Pages that are filled from the top.
pub(super) struct Book {
    /// Of a page, in points.
    pub(super) size: (f64, f64),
    pages: Vec<Canvas>,
    canvas: Canvas,
    y: f64,
    title: String,
    /// What kind of sheet it is, after the program's name.
    kind: &'static str,
}

impl Book {
    /// A4 (ISO 216) for centimetre projects and Letter (ANSI) for inch projects.
    pub(super) fn open(project: &Project, kind: &'static str) -> Self {
        let size = match project.system {
            System::Inches => (612.0, 792.0),
            System::Centimetres => (595.28, 841.89),
        };
        let title = project.name.clone();
        let mut book = Self { size, pages: vec![], canvas: Canvas::default(), y: 0.0, title, kind };
        book.start_page();
        book
    }

    pub(super) fn start_page(&mut self) {
        if self.y > 0.0 {
            self.pages.push(std::mem::take(&mut self.canvas));
        }
        let (w, h) = self.size;
        let c = &mut self.canvas;
        c.rect(0.0, 0.0, w, h, &Style::fill("#FFFFFF"));
        // A stretch of tape heads every page.
        c.rect(MARGIN, 30.0, w - 2.0 * MARGIN, 38.0, &Style::fill(ink::TAPE).stroke("#B7951F", 0.8).rounded(2.0));
        let mut x = MARGIN + 9.0;
        let mut n = 1;
        while x < w - MARGIN - 2.0 {
            let tall = if n % 8 == 0 {
                12.0
            } else if n % 4 == 0 {
                8.0
            } else {
                5.0
            };
            c.line(x, 68.0 - tall, x, 68.0, &Style::line(ink::INDIGO, 0.6));
            x += 9.0;
            n += 1;
        }
        c.text(MARGIN + 10.0, 50.0, &self.title, Face::Heading, 16.0, ink::INDIGO, "start");
        c.text(w - MARGIN - 10.0, 49.0, &format!("Bofta · {}", self.kind), Face::Bold, 12.0, ink::INDIGO, "end");
        self.y = 92.0;
    }

    pub(super) fn room(&mut self, height: f64) {
        if !self.has_room(height) {
            self.start_page();
        }
    }

    /// What a page holds below its head.
    pub(super) fn page_height(&self) -> f64 {
        self.size.1 - 92.0 - MARGIN - 16.0
    }

    /// Whether something as high as that finds room on this page.
    pub(super) fn has_room(&self, height: f64) -> bool {
        self.y + height <= self.size.1 - MARGIN - 16.0
    }

    pub(super) fn space(&mut self, height: f64) {
        self.y += height;
    }

    pub(super) fn heading(&mut self, text: &str) {
        self.room(LINE * 3.0);
        self.canvas.text(MARGIN, self.y, text, Face::Heading, 15.0, ink::INDIGO, "start");
        let y = self.y + 6.0;
        self.canvas.line(MARGIN, y, self.size.0 - MARGIN, y, &Style::line(ink::RULED, 0.8));
        self.y += LINE + 8.0;
    }

    pub(super) fn text(&mut self, x: f64, text: &str, face: Face, size: f64) {
        for line in wrapped(text, face, size, self.size.0 - 2.0 * MARGIN - x) {
            self.room(LINE);
            self.canvas.text(MARGIN + x, self.y, &line, face, size, ink::INDIGO, "start");
            self.y += LINE;
        }
    }

    /// One row; the whole of it stays on one page.
    pub(super) fn row(&mut self, cells: &[(f64, &str, Face)]) {
        self.table(vec![vec![Row::of(cells)]], 0.0);
    }

    /// Rows in groups that stay on one page each, as long as a page holds them; no group stands alone at the beginning
    /// or the end, where `tail` more follows.
    pub(super) fn table(&mut self, groups: Vec<Vec<Row>>, tail: f64) {
        let tall: Vec<f64> = groups.iter().map(|g| g.iter().map(|row| self.height(row)).sum()).collect();
        let whole = self.page_height();
        let last = groups.len().saturating_sub(1);
        for (at, group) in groups.into_iter().enumerate() {
            let next = if at == 0 || at + 1 == last { tall.get(at + 1).copied().unwrap_or(0.0) } else { 0.0 };
            let after = if at + 1 >= last { tail } else { 0.0 };
            // What no page holds is broken where it must be.
            self.room((tall[at] + next + after).min(whole));
            for row in group {
                self.room(self.height(&row));
                self.put(&row);
            }
        }
    }

    /// A row's cells, each broken into lines before the next cell begins.
    fn lines(&self, row: &Row) -> Vec<Vec<String>> {
        let end = |i: usize| row.cells.get(i + 1).map_or(self.size.0 - 2.0 * MARGIN, |next| next.0 - 6.0);
        row.cells
            .iter()
            .enumerate()
            .map(|(i, (x, text, face))| wrapped(text, *face, row.letters.0, end(i) - x))
            .collect()
    }

    /// How high a row is.
    pub(super) fn height(&self, row: &Row) -> f64 {
        row.letters.1 * self.lines(row).iter().map(Vec::len).max().unwrap_or(1) as f64 + (LINE - row.letters.1)
    }

    fn put(&mut self, row: &Row) {
        if row.ticked {
            let box_style = Style::line(ink::INDIGO, 0.9).rounded(1.5);
            self.canvas.rect(MARGIN, self.y - 9.5, 10.0, 10.0, &box_style);
        }
        let lines = self.lines(row);
        for ((x, _, face), lines) in row.cells.iter().zip(&lines) {
            for (n, line) in lines.iter().enumerate() {
                let y = self.y + row.letters.1 * n as f64;
                self.canvas.text(MARGIN + x, y, line, *face, row.letters.0, ink::INDIGO, "start");
            }
        }
        self.y += self.height(row);
    }

    pub(super) fn drawing(&mut self, drawing: &Drawing) {
        self.room(drawing.height);
        self.canvas.begin(&format!(r#"transform="translate({MARGIN} {})""#, self.y - 10.0));
        self.canvas.raw(&drawing.body);
        self.canvas.end();
        self.y += drawing.height;
    }

    pub(super) fn finish(mut self) -> Vec<Drawing> {
        self.pages.push(self.canvas);
        let (w, h) = self.size;
        let count = self.pages.len();
        let footed = self.pages.into_iter().enumerate().map(|(i, mut page)| {
            let text = format!("{} of {count}", i + 1);
            page.text(w - MARGIN, h - 28.0, &text, Face::Text, 11.0, ink::SOFT, "end");
            page.text(
                MARGIN,
                h - 28.0,
                "Measure twice. Sizes include every seam and hem.",
                Face::Text,
                11.0,
                ink::SOFT,
                "start",
            );
            page.finish(w, h)
        });
        footed.collect()
    }
}

/// Lines no longer than `room`, broken between words; a word that is longer still is broken where it must be. Nothing is
/// left out.
fn wrapped(text: &str, face: Face, size: f64, room: f64) -> Vec<String> {
    let fits = |line: &str| text_width(line, face, size) <= room;
    let mut lines: Vec<String> = Vec::new();
    let mut line = String::new();
    for word in text.split(' ') {
        let longer = if line.is_empty() { word.to_owned() } else { format!("{line} {word}") };
        if fits(&longer) {
            line = longer;
            continue;
        }
        if !line.is_empty() {
            lines.push(std::mem::take(&mut line));
        }
        for sign in word.chars() {
            if !line.is_empty() && !fits(&format!("{line}{sign}")) {
                lines.push(std::mem::take(&mut line));
            }
            line.push(sign);
        }
    }
    lines.push(line);
    lines
}

//! The printed sheets: what to buy, what to cut and every cut in order; and, in `making`, how the bag is sewn. Drawn by
//! the same code as the screen. `book` sets rows on pages, `pdf` makes a file of them.

mod book;
mod making;
mod pdf;

pub use making::{making_sheet, making_sheet_pages};
pub use pdf::SheetError;

use crate::draw::{Drawing, Face, Pictures, cut_map};
use bofta_core::bag::Draft;
use bofta_core::buying::{Missing, purchases, said_size, said_width, washed};
use bofta_core::cutting::{Block, Marking, Step, cut_list, describe, opening};
use bofta_core::lay::{ClothLay, Job, Lay, Stop};
use bofta_core::measure::{Length, Ruler, show_bought};
use bofta_core::piece::Piece;
use bofta_core::project::{Planned, Project, cost_text};
use book::{Book, LINE, MARGIN, Row};
use making::upper;
use pdf::to_pdf;

/// The cut sheet of a laid project as pages of SVG, in points.
pub fn cut_sheet_pages(project: &Project, planned: &Planned, job: &Job, lay: &Lay, stop: &Stop) -> Vec<Drawing> {
    let mut book = Book::open(project, "cut sheet");
    book.text(0.0, &project.bag.headline(project.ruler), Face::Text, 13.0);
    book.space(10.0);
    let missing = project.missing(job, lay, stop);
    if let Some(missing) = &missing {
        incomplete(&mut book, project, missing);
    }
    shopping(&mut book, project, job, lay);
    by_the_piece(&mut book, project, &planned.draft);
    pieces(&mut book, project, &planned.draft.pieces, (job, lay));
    for cloth in &lay.cloths {
        if let Some(missing) = &missing {
            let text = format!("Not enough cloth: {}. The first page says which pieces.", missing.headline());
            book.text(0.0, &text, Face::Bold, 12.5);
        }
        cloth_sheet(&mut book, project, job, cloth, &planned.draft.pieces);
    }
    let off_the_cloth = cut_list(job, &lay.cloths, &planned.draft.pieces, &planned.blocks);
    blocks(&mut book, project, job, (&off_the_cloth, &planned.blocks), &planned.draft.pieces);
    corners(&mut book, project, job, &off_the_cloth, &planned.draft.pieces);
    book.finish()
}

/// The cut sheet as one PDF, the cloths that have pictures drawn by them.
///
/// # Errors
/// [`SheetError`] when a page cannot be converted, or `stop` was asked for.
pub fn cut_sheet(
    project: &Project,
    planned: &Planned,
    job: &Job,
    lay: &Lay,
    (pictures, stop): (Pictures<'_>, &Stop),
) -> Result<Vec<u8>, SheetError> {
    to_pdf(&cut_sheet_pages(project, planned, job, lay, stop), pictures, stop)
}

/// What the plan leaves out, before anything else: these sheets are not the whole bag.
fn incomplete(book: &mut Book, project: &Project, missing: &Missing) {
    book.text(0.0, &format!("Not enough cloth: {}.", missing.headline()), Face::Bold, 14.0);
    for line in missing.describe(project.system) {
        book.row(&[(0.0, &line, Face::Text)]);
    }
    book.space(10.0);
}

/// What is sold by the length or the piece.
fn by_the_piece(book: &mut Book, project: &Project, draft: &Draft) {
    let show = |l: Length| format!("{} {}", project.ruler.show(l).text, project.system.symbol());
    for good in &draft.goods {
        let length = format!("{} × {}", good.count, show(good.length.size));
        let wide = good.width.map(|w| format!(", {} wide", show(w))).unwrap_or_default();
        book.row(&[
            (0.0, good.kind.name(), Face::Bold),
            (190.0, &length, Face::Bold),
            (290.0, &format!("{}{wide}", good.name), Face::Text),
        ]);
    }
    for reel in project.reels(&draft.goods) {
        let wide = reel.width.map(|w| format!(", {} wide", show(w))).unwrap_or_default();
        let (whole, hand) = (reel.bought(), reel.from_hand(project.ruler));
        let to_buy = if whole > Length::ZERO { show_bought(whole, project.system) } else { "nothing".to_owned() };
        book.row(&[
            (0.0, &format!("{} to buy", reel.kind.name()), Face::Bold),
            (190.0, &to_buy, Face::Bold),
            (290.0, &format!("in all{wide}"), Face::Text),
        ]);
        for line in hand {
            book.row(&[(290.0, &line, Face::Text)]);
        }
    }
    for line in project.by_the_piece(&draft.hardware) {
        let part = line.needed;
        let size = part.size.map(|s| format!(" × {}", show(s))).unwrap_or_default();
        // What to know, and what to ask for in the shop, each on a line.
        let mut notes = part.note.split("; ");
        book.row(&[
            (0.0, &part.name, Face::Bold),
            (190.0, &format!("{}{size}", part.count), Face::Bold),
            (290.0, notes.next().unwrap_or_default(), Face::Text),
        ]);
        for note in notes {
            book.row(&[(290.0, note, Face::Text)]);
        }
        if line.taken > 0 {
            let rest = if line.buy > 0 { format!("{} to buy", line.buy) } else { "nothing to buy".to_owned() };
            book.row(&[(290.0, &format!("you have {}, {rest}", line.taken), Face::Text)]);
        }
    }
    book.space(8.0);
}

fn shopping(book: &mut Book, project: &Project, job: &Job, lay: &Lay) {
    let all = purchases(job, lay);
    book.heading(if all.iter().any(|p| p.owned) { "To buy, and to have ready" } else { "To buy" });
    for p in all {
        let Some(cloth) = job.cloth(&p.cloth) else { continue };
        let length = said_size(cloth, p.length, project.ruler);
        let what = match (p.owned, cloth.whole_length()) {
            (true, None) => format!("{length} of what you have"),
            (true, Some(_)) => format!("here: {length}"),
            (false, _) => length,
        };
        book.row(&[
            (0.0, cloth.name.as_str(), Face::Bold),
            (190.0, &what, Face::Bold),
            (330.0, &said_width(cloth, project.ruler).unwrap_or_default(), Face::Text),
            (430.0, &p.cost.map(|c| project.money(c)).unwrap_or_default(), Face::Text),
        ]);
        if let Some(told) = job.cloth(&p.cloth).and_then(|c| washed(c, p.length, project.ruler)) {
            book.row(&[(190.0, &told, Face::Text)]);
        }
    }
    let total = cost_text(project, lay);
    if !total.is_empty() {
        book.row(&[(330.0, "together", Face::Text), (430.0, &total, Face::Bold)]);
    }
    book.space(10.0);
}

fn pieces(book: &mut Book, project: &Project, pieces: &[Piece], (job, lay): (&Job, &Lay)) {
    let unit = project.system.symbol();
    book.heading("To cut");
    book.row(&[
        (0.0, "piece", Face::Text),
        (130.0, "how many", Face::Text),
        (190.0, &format!("wide × tall, {unit}"), Face::Text),
        (290.0, "from", Face::Text),
    ]);
    let groups = pieces.iter().map(|p| {
        // What is not cut from a cloth says what it is made from.
        let made = p.when.describe(project.ruler);
        // Where it lies: a cloth that runs short is helped out by another.
        let laid: Vec<&str> =
            lay.cloths_of(&p.id).into_iter().filter_map(|id| Some(job.cloth(id)?.name.as_str())).collect();
        let chosen = || project.cloth_for(p).map(|c| c.name.clone()).unwrap_or_default();
        let cloth = if laid.is_empty() { chosen() } else { laid.join(", ") };
        let (from, later) = if p.when.is_laid() { (cloth, made) } else { (made.unwrap_or_default(), None) };
        let mut group = vec![Row::of(&[
            (0.0, &p.name, Face::Bold),
            (130.0, &p.count.to_string(), Face::Text),
            (190.0, &size_of(p, project.ruler), Face::Bold),
            (290.0, &from, Face::Text),
        ])];
        let figures = p.figures(project.ruler).map(|figures| format!("{}.", upper(&figures)));
        let marks = p.marks.iter().map(|mark| mark.describe(project.ruler, p.size()));
        let told = figures.into_iter().chain(later).chain(marks).chain(p.note.as_ref().map(ToString::to_string));
        group.extend(told.map(|text| Row::of(&[(14.0, &text, Face::Text)])));
        group
    });
    book.table(groups.collect(), 0.0);
    book.space(8.0);
}

/// The sheets of one cloth: its cuts in one drawing, and what to do in order. A page that goes on repeats the drawing.
fn cloth_sheet(book: &mut Book, project: &Project, job: &Job, lay: &ClothLay, all: &[Piece]) {
    let Some(cloth) = job.cloth(&lay.cloth) else { return };
    let steps = cut_list(job, std::slice::from_ref(lay), &[], &[]);
    let wide = book.size.0 - 2.0 * MARGIN;
    let key = format!("{}-{}", lay.cloth, lay.copy);
    let drawn = |high: f64| cut_map(project, job, lay, &steps, (wide, high), &key);
    let name = if cloth.copies() > 1 { format!("{}, number {}", cloth.name, lay.copy) } else { cloth.name.clone() };
    let rows: Vec<Vec<Row>> = steps
        .iter()
        .enumerate()
        .filter_map(|(n, step)| cut_row(project, job, n + 1, step, all))
        .map(|r| vec![r])
        .collect();
    // As large as leaves room for the cuts, so that what is cut in few steps shares its page.
    let all: f64 = rows.iter().flatten().map(|row| book.height(row)).sum();
    let high = (book.page_height() - all - 5.0 * LINE).clamp(book.page_height() * 0.36, book.page_height() * 0.46);
    let drawing = drawn(high);
    let needed = drawing.as_ref().map_or(0.0, |d| d.height) + all.min(4.0 * LINE) + 5.0 * LINE;
    if !book.has_room(needed) {
        book.start_page();
    }
    let heading = |book: &mut Book, name: &str, drawing: Option<&Drawing>| {
        book.heading(name);
        if let Some(drawing) = drawing {
            book.drawing(drawing);
        }
        book.text(0.0, &opening(job, lay, project.ruler), Face::Bold, 12.0);
        book.space(4.0);
    };
    heading(book, &name, drawing.as_ref());
    let again = drawn(190.0);
    let goes_on = format!("{name}, continued");
    let tall: Vec<f64> = rows.iter().map(|group| group.iter().map(|r| book.height(r)).sum()).collect();
    for (n, row) in rows.into_iter().enumerate() {
        // Neither the first nor the last cut stands alone on its page; the caution stands below the last.
        let next = if n == 0 { tall.get(1).copied().unwrap_or(0.0) } else { 0.0 };
        let rest = if n + 2 >= tall.len() { tall[n + 1..].iter().sum::<f64>() + LINE } else { 0.0 };
        if !book.has_room(tall[n] + f64::max(next, rest)) {
            book.start_page();
            heading(book, &goes_on, again.as_ref());
        }
        book.table(vec![row], 0.0);
    }
    book.text(
        0.0,
        "Close the cutter’s guard at every pause. Cut away from you, with your fingers behind the ruler’s edge.",
        Face::Text,
        11.0,
    );
    book.space(12.0);
}

/// A step to tick off: what to set, what to do, and what lies there afterwards.
fn cut_row(project: &Project, job: &Job, number: usize, step: &Step, all: &[Piece]) -> Option<Row> {
    if matches!(step, Step::Fuse { .. } | Step::Corners(_)) {
        return None;
    }
    let words = describe(step, job, all, project.ruler);
    let edges = match step {
        Step::Outline { cut, .. } if cut.marking != Marking::Cut => cut
            .pieces
            .iter()
            .filter_map(|f| project.told_edge(job, &f.piece, f.copy))
            .map(|t| format!(" {t}"))
            .collect(),
        _ => String::new(),
    };
    Some(Row::ticked(number, &words.reading, &format!("{}{edges}", words.how), &words.then.join("; ")))
}

/// Blocks, fused and cut once the cloths are.
fn blocks(book: &mut Book, project: &Project, job: &Job, (steps, blocks): (&[Step], &[Block]), all: &[Piece]) {
    for block in blocks {
        let name = all.iter().find(|p| p.id == block.piece).map_or("", |p| &p.name);
        book.space(8.0);
        book.heading(name);
        let fuse = Row::ticked(1, "iron", "Fuse it to its backing. Let it cool flat.", "");
        let on_it = steps.iter().filter_map(|step| match step {
            Step::Block { block: id, step } if *id == block.piece => Some(step.as_ref().clone()),
            _ => None,
        });
        let on_it: Vec<Step> = on_it.collect();
        let wide = book.size.0 - 2.0 * MARGIN;
        if let Some(drawing) = cut_map(project, &block.job, &block.lay, &on_it, (wide, 190.0), &block.piece) {
            book.drawing(&drawing);
        }
        let rows = on_it.iter().enumerate().filter_map(|(n, step)| cut_row(project, job, n + 1, step, all));
        book.table(std::iter::once(fuse).chain(rows).map(|row| vec![row]).collect(), 0.0);
    }
}

fn corners(book: &mut Book, project: &Project, job: &Job, steps: &[Step], all: &[Piece]) {
    let corners = steps.iter().filter(|step| matches!(step, Step::Corners(_)));
    let rows: Vec<Vec<Row>> = corners
        .map(|step| {
            let words = describe(step, job, all, project.ruler);
            vec![Row::step(&[(18.0, words.how.as_str(), Face::Text)])]
        })
        .collect();
    if !rows.is_empty() {
        book.space(8.0);
        book.heading("Corners");
        book.table(rows, 0.0);
    }
}

fn size_of(piece: &Piece, ruler: Ruler) -> String {
    let (w, h) = piece.size();
    format!("{} × {}", ruler.show(w).text, ruler.show(h).text)
}

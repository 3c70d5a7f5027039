//! The printed sheets: what to buy, what to cut and every cut in order; and, in `making`, how the bag is sewn. Drawn by
//! the same code as the screen. `book` sets rows on pages, `pdf` makes a file of them.

mod book;
mod making;
mod pdf;

pub use making::{making_sheet, making_sheet_pages};
pub use pdf::SheetError;

use crate::draw::{Drawing, Face, Pictures, cloth_lay};
use bofta_core::bag::Draft;
use bofta_core::buying::{Missing, purchases, said_size, said_width, washed};
use bofta_core::cloth::letters;
use bofta_core::cutting::{Cut, CutKind, Edge, LeftPart, OutlineCut, Sight, Step, cut_list};
use bofta_core::lay::{Job, Lay, Stop};
use bofta_core::measure::{Length, Ruler, show_bought};
use bofta_core::piece::Piece;
use bofta_core::project::{Planned, Project, cost_text};
use book::{Book, LINE, MARGIN, Row};
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
    pieces(&mut book, project, &planned.draft.pieces);
    for cloth in &lay.cloths {
        lay_page(&mut book, project, job, lay, &cloth.cloth, &planned.draft.pieces);
        if let Some(missing) = &missing {
            let text = format!("Not the whole bag: {}. The first page says which.", missing.headline());
            book.text(0.0, &text, Face::Bold, 12.5);
        }
    }
    let off_the_cloth = cut_list(job, &lay.cloths, &planned.draft.pieces, &planned.blocks);
    blocks(&mut book, project, job, &off_the_cloth, &planned.draft.pieces);
    corners(&mut book, project, &off_the_cloth, &planned.draft.pieces);
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
    book.text(0.0, &format!("Not the whole bag: {}.", missing.headline()), Face::Bold, 14.0);
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
            book.row(&[(290.0, &format!("there already: {}, {rest}", line.taken), Face::Text)]);
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

fn pieces(book: &mut Book, project: &Project, pieces: &[Piece]) {
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
        let cloth = project.cloth_for(p).map(|c| c.name.clone()).unwrap_or_default();
        let (from, later) = if p.when.is_laid() { (cloth, made) } else { (made.unwrap_or_default(), None) };
        let mut group = vec![Row::of(&[
            (0.0, &p.name, Face::Bold),
            (130.0, &p.count.to_string(), Face::Text),
            (190.0, &size_of(p, project.ruler), Face::Bold),
            (290.0, &from, Face::Text),
        ])];
        let marks = p.marks.iter().map(|mark| mark.describe(project.ruler, p.size()));
        let told = later.into_iter().chain(marks).chain(p.note.as_ref().map(ToString::to_string));
        group.extend(told.map(|text| Row::of(&[(14.0, &text, Face::Text)])));
        group
    });
    book.table(groups.collect(), 0.0);
    book.space(8.0);
}

fn lay_page(book: &mut Book, project: &Project, job: &Job, lay: &Lay, id: &str, all: &[Piece]) {
    let (Some(cloth), Some(cloth_of_lay)) = (job.cloth(id), lay.cloths.iter().find(|c| c.cloth == id)) else {
        return;
    };
    book.start_page();
    book.heading(&cloth.name);
    let wide = book.size.0 - 2.0 * MARGIN;
    if let Some(drawing) = cloth_lay(project, job, cloth_of_lay, wide, 330.0, id) {
        book.drawing(&drawing);
    }
    book.space(8.0);
    book.heading("Cuts, in order");
    let steps = cut_list(job, std::slice::from_ref(cloth_of_lay), &[], &[]);
    let rows = steps.iter().enumerate().filter_map(|(n, step)| cut_row(project, job, n + 1, step, all));
    book.table(rows.map(|row| vec![row]).collect(), LINE + 6.0);
    book.space(6.0);
    book.text(
        0.0,
        "Close the cutter's guard at every pause, cut away from you, fingers behind the ruler's edge.",
        Face::Text,
        11.0,
    );
}

/// A cut to tick off: its reading, how it runs, what comes off.
fn cut_row(project: &Project, job: &Job, number: usize, step: &Step, all: &[Piece]) -> Option<Row> {
    let off = falls_off(step, all, project, job);
    match step {
        Step::Cut { cut, .. } => {
            let reading = match cut.kind {
                CutKind::Fold => "crease".to_owned(),
                _ => format!("{} {}", project.ruler.show(cut.reads()).text, project.system.symbol()),
            };
            Some(Row::ticked(number, &reading, &how(cut, project), &off))
        }
        Step::Outline(round) if round.sights.is_empty() => {
            Some(Row::ticked(number, "template", "round the outline, where it lies", &off))
        }
        Step::Outline(round) => {
            let edges = round.frees.iter().filter_map(|f| project.told_edge(job, &f.piece, f.copy));
            let edges: String = edges.map(|told| format!(". {told}")).collect();
            let found = format!("{}; cut round it{}", found_by(round, project), edges.trim_end_matches('.'));
            Some(Row::ticked(number, "mark out", &found, &off))
        }
        Step::Fuse { .. } | Step::Block { .. } | Step::Corners(_) => None,
    }
}

/// Blocks, fused and cut once the cloths are.
fn blocks(book: &mut Book, project: &Project, job: &Job, steps: &[Step], all: &[Piece]) {
    let mut found: Vec<(&str, Vec<Vec<Row>>)> = vec![];
    for step in steps {
        match (step, found.last_mut()) {
            (Step::Fuse { block }, _) => {
                let name = all.iter().find(|p| p.id == *block).map_or("", |p| &p.name);
                found.push((name, vec![vec![Row::ticked(1, "iron", "fuse it to its backing, let it cool flat", "")]]));
            }
            (Step::Block { step, .. }, Some((_, rows))) => {
                let number = rows.len() + 1;
                rows.extend(cut_row(project, job, number, step, all).map(|row| vec![row]));
            }
            _ => {}
        }
    }
    for (name, rows) in found {
        book.space(8.0);
        book.heading(name);
        book.table(rows, 0.0);
    }
}

fn corners(book: &mut Book, project: &Project, steps: &[Step], all: &[Piece]) {
    let rows: Vec<Vec<Row>> = steps
        .iter()
        .filter_map(|step| {
            let Step::Corners(c) = step else { return None };
            let name = all.iter().find(|p| p.id == c.piece).map_or("", |p| &p.name);
            let text = format!(
                "{name}, {} layers: {} in from each side, {} up {}",
                c.layers,
                project.ruler.show(c.across).text,
                project.ruler.show(c.up).text,
                if c.at_fold { "and down from the fold" } else { "from the base" }
            );
            Some(vec![Row::of(&[(0.0, "□", Face::Text), (18.0, &text, Face::Text)])])
        })
        .collect();
    if !rows.is_empty() {
        book.space(8.0);
        book.heading("Corners, through all layers at once");
        book.table(rows, 0.0);
    }
}

fn size_of(piece: &Piece, ruler: Ruler) -> String {
    let (w, h) = piece.size();
    format!("{} × {}", ruler.show(w).text, ruler.show(h).text)
}

/// How a cut runs, in words; of one that stops short also where.
pub fn how(cut: &Cut, project: &Project) -> String {
    let stops = |edge: &str| {
        let show = |l: Length| format!("{} {}", project.ruler.show(l).text, project.system.symbol());
        match cut.stretch() {
            Some((begin, stop)) if begin > Length::ZERO => {
                format!("begin {} and stop {} from the {edge} edge", show(begin), show(stop))
            }
            Some((_, stop)) => format!("stop {} from the {edge} edge", show(stop)),
            None => String::new(),
        }
    };
    match (cut.kind, cut.from) {
        (CutKind::SquareEnd, _) if cut.motif.is_some() => "square the end so far before the middle of a motif".into(),
        (CutKind::Selvedge, _) if cut.motif.is_some() => "selvedge off, so far before the middle of a motif".into(),
        (CutKind::SquareEnd, _) => "square the end: just enough".into(),
        (CutKind::Selvedge, _) => "selvedge off, along the left edge".into(),
        (CutKind::Fold, _) => "slit the fold".into(),
        (CutKind::Through, Edge::Near) => "right across, from the near edge".into(),
        (CutKind::Through, Edge::Left) => "from near to far, from the left edge".into(),
        (CutKind::Stopped, Edge::Near) => format!("across, measured from the near edge; {}", stops("left")),
        (CutKind::Stopped, Edge::Left) => format!("along, measured from the left edge; {}", stops("near")),
    }
}

/// Where a piece lies on a scrap: two of its corners by their distances from the scrap's. Empty where it is cut off
/// anything else.
pub fn found_by(round: &OutlineCut, project: &Project) -> String {
    let show = |l: Length| format!("{} {}", project.ruler.show(l).text, project.system.symbol());
    let told = |sight: &Sight| match sight.from.as_slice() {
        [(corner, _)] => format!("in corner {}", letters(*corner)),
        several => {
            let each = several
                .iter()
                .map(|(corner, far)| format!("{} from {}", show(far.round_to(project.ruler.step())), letters(*corner)));
            each.collect::<Vec<_>>().join(" and ")
        }
    };
    match round.sights.as_slice() {
        [one, other] => format!("one corner {}, the one opposite {}", told(one), told(other)),
        _ => String::new(),
    }
}

/// The size of what a step leaves whole and is worth keeping, rounded down to the ruler.
pub fn kept(step: &Step, project: &Project, job: &Job) -> Option<String> {
    step.kept(job).map(|part| said_part(&part, project.ruler))
}

/// `9 × 17`, `2 of 9 × 17`: sizes down to lines of the ruler.
pub fn said_part(part: &LeftPart, ruler: Ruler) -> String {
    let down = |l: Length| ruler.show(l.floor_to(ruler.step())).text;
    let size = format!("{} × {}", down(part.width), down(part.height));
    if part.count > 1 { format!("{} of {size}", part.count) } else { size }
}

/// What comes off with a cut, in words: pieces by name, or what is left over.
pub fn falls_off(step: &Step, pieces: &[Piece], project: &Project, job: &Job) -> String {
    let names: Vec<String> = step
        .frees()
        .iter()
        .map(|f| {
            let piece = pieces.iter().find(|p| p.id == f.piece);
            match piece {
                Some(p) if p.count > 1 => format!("{} {} of {}", p.name, f.copy, p.count),
                Some(p) => p.name.to_string(),
                None => f.piece.clone(),
            }
        })
        .collect();
    let cut = match step {
        Step::Cut { cut, .. } => cut,
        Step::Block { step, .. } => return falls_off(step, pieces, project, job),
        Step::Outline(_) | Step::Fuse { .. } | Step::Corners(_) => return names.join(" and "),
    };
    // Bare cloth on the near side of the line falls off; on the far side it is what the strip is cut from.
    let bare_falls = cut.bare.map(|b| (b.x, b.y) == (cut.lies.x, cut.lies.y));
    let keep = kept(step, project, job).map(|size| format!("{size}, to keep"));
    match (names.is_empty(), cut.kind, bare_falls) {
        (false, ..) => names.into_iter().chain(keep).collect::<Vec<_>>().join(" and "),
        (true, CutKind::SquareEnd | CutKind::Selvedge, _) => String::new(),
        (true, CutKind::Fold, _) => "the two come apart".into(),
        (true, _, Some(true)) => keep.unwrap_or_else(|| "left over".into()),
        (true, ..) => {
            std::iter::once("a strip, cut next".to_owned()).chain(keep).collect::<Vec<_>>().join("; beyond it ")
        }
    }
}

//! Which piece is cut from which cloth: each from the first cloth of its list that can hold it; what does not fit a
//! cloth of limited length moves on to the next of its list.

use super::answer::Unplaced;
use super::job::{Job, JobPiece};
use super::search::StripSearch;
use super::strip::{Strip, choices};
use crate::measure::{Length, Ruler};

/// Copies of a piece on their way through the piece's list of cloths.
#[derive(Clone, Copy)]
struct Lot {
    piece: usize,
    copies: u32,
    /// First place in the list that may still be tried.
    from: usize,
}

/// Searches a limited roll gets before it is taken as full.
const TRIES_BEFORE_FULL: u64 = 400;

/// For each cloth of the job the (piece, copies) it gets, and what found no cloth.
pub(super) fn assign(job: &Job) -> (Vec<Vec<(usize, u32)>>, Vec<Unplaced>) {
    let mut on_cloth: Vec<Vec<Lot>> = vec![Vec::new(); job.cloths.len()];
    let mut unplaced: Vec<Unplaced> = Vec::new();
    let mut waiting: Vec<Lot> =
        job.pieces.iter().enumerate().map(|(piece, p)| Lot { piece, copies: p.count, from: 0 }).collect();
    while !waiting.is_empty() {
        for lot in waiting.drain(..) {
            place(job, lot, &mut on_cloth, &mut unplaced);
        }
        for (c, cloth) in job.cloths.iter().enumerate() {
            if cloth.usable_length().is_none() || on_cloth[c].is_empty() {
                continue;
            }
            waiting.extend(overflow(job, c, &mut on_cloth[c]));
        }
    }
    let given = |lots: Vec<Lot>| lots.into_iter().map(|l| (l.piece, l.copies)).collect();
    (on_cloth.into_iter().map(given).collect(), unplaced)
}

fn place(job: &Job, lot: Lot, on_cloth: &mut [Vec<Lot>], unplaced: &mut Vec<Unplaced>) {
    let piece = &job.pieces[lot.piece];
    let fits = |id: &String| {
        let c = job.cloths.iter().position(|c| &c.id == id)?;
        let cloth = &job.cloths[c];
        let width = cloth.usable_width().0 + job.rules.gap.0;
        (!choices(piece, cloth, job.rules.gap, width).is_empty()).then_some(c)
    };
    let found = piece.cloths.iter().enumerate().skip(lot.from).find_map(|(i, id)| fits(id).map(|c| (i, c)));
    match found {
        // One lot a piece: its place in the list is the same for all that come here.
        Some((i, c)) => match on_cloth[c].iter_mut().find(|l| l.piece == lot.piece) {
            Some(there) => there.copies += lot.copies,
            None => on_cloth[c].push(Lot { from: i + 1, ..lot }),
        },
        None => {
            let before = unplaced.iter().position(|u| u.piece == piece.id).map(|i| unplaced.remove(i));
            let count = lot.copies + before.map_or(0, |u| u.count);
            let why = if lot.from == 0 { too_large(job, piece) } else { no_room(job, piece, count) };
            unplaced.push(Unplaced { piece: piece.id.clone(), count, why });
        }
    }
}

/// The search for `pieces` (index in the job, copies) on cloth `c` of the job, gone on with until they fit the cloth or
/// it is taken as full. The same pieces always give the same, so that what fitted once fits again.
pub(super) fn search_on<'a>(job: &'a Job, c: usize, pieces: &[(usize, u32)]) -> StripSearch<'a> {
    let cloth = &job.cloths[c];
    let pieces: Vec<(usize, &JobPiece, u32)> = pieces.iter().map(|(i, n)| (*i, &job.pieces[*i], *n)).collect();
    let strip = Strip::new(cloth, &pieces, job.rules.gap, job.rules.cuts);
    let mut search = StripSearch::new(cloth, strip, job.rules.seed.wrapping_add(c as u64));
    let mut tries = 0;
    while search.over() && tries < TRIES_BEFORE_FULL {
        search.iterate();
        tries += 1;
    }
    search
}

/// Takes off what hangs over the end of cloth `c` in the best lay found.
fn overflow(job: &Job, c: usize, lots: &mut Vec<Lot>) -> Vec<Lot> {
    let pieces: Vec<(usize, u32)> = lots.iter().map(|l| (l.piece, l.copies)).collect();
    let search = search_on(job, c, &pieces);
    if !search.over() {
        return Vec::new();
    }
    let cloth = &job.cloths[c];
    let limit = cloth.usable_length().unwrap_or(Length(i64::MAX)).0 + job.rules.gap.0;
    let mut moved = Vec::new();
    for laid in &search.best {
        if laid.y + search.strip.size(laid).1 > limit {
            // Kinds were made from the lots, one for one.
            let lot = &mut lots[laid.kind];
            lot.copies -= 1;
            moved.push(Lot { copies: 1, ..*lot });
        }
    }
    lots.retain(|l| l.copies > 0);
    moved
}

fn size_text(job: &Job, piece: &JobPiece) -> String {
    let ruler = Ruler::usual(job.units);
    let (w, h) = piece.outline.extent(crate::shape::Turn::NONE);
    format!("{} × {} {}", ruler.show(w).text, ruler.show(h).text, job.units.symbol())
}

fn too_large(job: &Job, piece: &JobPiece) -> String {
    let ruler = Ruler::usual(job.units);
    let tried: Vec<String> = piece
        .cloths
        .iter()
        .filter_map(|id| job.cloth(id))
        .map(|c| {
            let width = format!("{} {}", ruler.show(c.usable_width()).text, job.units.symbol());
            match c.usable_length() {
                Some(length) => format!("“{}” ({width} by {} usable)", c.name, ruler.show(length).text),
                None => format!("“{}” ({width} usable)", c.name),
            }
        })
        .collect();
    format!(
        "{} is {}: the way it must lie, it fits no cloth it may come from: {}",
        piece.name,
        size_text(job, piece),
        tried.join(", ")
    )
}

fn no_room(job: &Job, piece: &JobPiece, copies: u32) -> String {
    let names: Vec<&str> = piece.cloths.iter().filter_map(|id| job.cloth(id)).map(|c| c.name.as_str()).collect();
    format!("no room is left for {copies} of {} ({}) on {}", piece.name, size_text(job, piece), names.join(", "))
}

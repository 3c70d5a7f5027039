//! Which piece is cut from which cloth, to begin with: each from the first cloth that can hold it, in the order of the
//! aim and of the piece's own list; what does not fit a cloth of limited length moves on to the next.

use super::answer::Unplaced;
use super::bin::{Bin, order_of_bins};
use super::bin_search::BinSearch;
use super::job::{Job, JobPiece};
use super::nest::{ItemType, all_items};
use super::stop::Stop;
use super::turns::allowed_turns;
use crate::measure::{Length, Ruler};
use crate::shape::Turn;
use std::sync::Arc;

/// From so many pieces on, a bin is only offered about what its area holds.
const MANY: u32 = 400;
/// More pieces than this are shared once and for all.
const MOST_POOLED: u32 = 150;

/// Copies of a piece on their way through the bins.
#[derive(Clone, Copy)]
struct Waiting {
    item: ItemType,
    /// First place in the order of bins that may still be tried.
    from: usize,
}

/// Who lies where, and what lies nowhere.
pub(super) struct Shared<'a> {
    pub searches: Vec<BinSearch<'a>>,
    pub unplaced: Vec<(usize, u32)>,
}

/// Whether `piece` can lie on `bin` at all, as far as its bounding box tells.
pub(super) fn fits(job: &Job, bin: &Bin, piece: &JobPiece) -> bool {
    let turns = allowed_turns(piece.grain, piece.print, &job.cloths[bin.cloth]).turns.into_iter();
    let mut ways = turns.flat_map(|turn| piece.faces().iter().map(move |mirrored| (turn, *mirrored)));
    ways.any(|(turn, mirrored)| {
        let (width, height) = piece.outline.extent(turn, mirrored);
        let half = bin.folded && piece.outline.is_symmetric(turn);
        let width = if half { Length((width.0 + 1) / 2) } else { width };
        width.0 <= bin.width && bin.limit.is_none_or(|limit| height.0 <= limit)
    })
}

/// Whether all pieces can be searched for on all bins as a whole: then a pool goes on from the first way of sharing, and
/// that need not be more than a beginning.
pub(super) fn can_be_pooled(job: &Job, bins: &[Bin]) -> bool {
    let pieces: u32 = job.pieces.iter().map(|p| p.count).sum();
    pieces <= MOST_POOLED && !bins.iter().any(|g| g.folded)
}

/// Shares the pieces of `job` among `bins`, apart from those that are pinned.
pub(super) fn share<'a>(job: &'a Job, bins: &Arc<[Bin]>, seed: u64, stop: &Stop) -> Shared<'a> {
    let orders: Vec<Vec<usize>> = job.pieces.iter().map(|p| order_of_bins(job, bins, p)).collect();
    let many = job.pieces.iter().map(|p| p.count).sum::<u32>() > MANY;
    let mut on: Vec<Vec<Waiting>> = vec![Vec::new(); bins.len()];
    let mut searches: Vec<Option<BinSearch<'a>>> = (0..bins.len()).map(|_| None).collect();
    let mut unplaced: Vec<(usize, u32)> = Vec::new();
    let mut waiting: Vec<Waiting> = all_items(job).into_iter().map(|item| Waiting { item, from: 0 }).collect();
    let area = |piece: usize| job.pieces[piece].outline.area().0 as f64;
    let items = |on: &[Waiting]| -> Vec<ItemType> { on.iter().map(|w| w.item).collect() };
    while !waiting.is_empty() {
        for mut w in std::mem::take(&mut waiting) {
            let order = &orders[w.item.piece];
            while w.item.copies > 0 {
                let next = (w.from..order.len()).find(|&i| fits(job, &bins[order[i]], &job.pieces[w.item.piece]));
                let Some(i) = next else {
                    match unplaced.iter_mut().find(|u| u.0 == w.item.piece) {
                        Some(u) => u.1 += w.item.copies,
                        None => unplaced.push((w.item.piece, w.item.copies)),
                    }
                    break;
                };
                let g = order[i];
                let mut given = w.item.copies;
                if let (true, Some(limit)) = (many, bins[g].limit) {
                    let room = bins[g].width as f64 * limit as f64 * 1.1;
                    let there: f64 = on[g].iter().map(|o| area(o.item.piece) * f64::from(o.item.copies)).sum();
                    given = given.min(((room - there) / area(w.item.piece)).max(0.0) as u32);
                }
                if given > 0 {
                    // One entry a piece and face: the place in the order is the same for all that come here.
                    match on[g].iter_mut().find(|o| o.item.is_alike(&w.item)) {
                        Some(there) => there.item.copies += given,
                        None => on[g].push(Waiting { item: ItemType { copies: given, ..w.item }, from: i + 1 }),
                    }
                    searches[g] = None;
                }
                w.item.copies -= given;
                w.from = i + 1;
            }
        }
        for g in 0..bins.len() {
            if !bins[g].fixed() || on[g].is_empty() || searches[g].is_some() {
                continue;
            }
            loop {
                let search = BinSearch::new(job, bins, g, items(&on[g]), seed, stop);
                let over = search.overflow();
                if over.is_empty() {
                    searches[g] = Some(search);
                    break;
                }
                for item in over {
                    if let Some(there) = on[g].iter_mut().find(|o| o.item.is_alike(&item)) {
                        let copies = item.copies.min(there.item.copies);
                        there.item.copies -= copies;
                        waiting.push(Waiting { item: ItemType { copies, ..item }, ..*there });
                    }
                }
                on[g].retain(|o| o.item.copies > 0);
                if on[g].is_empty() {
                    break;
                }
            }
        }
    }
    for g in 0..bins.len() {
        let pinned_here =
            job.pinned.iter().any(|p| p.cloth == job.cloths[bins[g].cloth].id && p.cloth_copy == bins[g].copy);
        if searches[g].is_none() && (!on[g].is_empty() || pinned_here) {
            searches[g] = Some(BinSearch::new(job, bins, g, items(&on[g]), seed, stop));
        }
    }
    Shared { searches: searches.into_iter().flatten().collect(), unplaced }
}

/// The reason why `copies` of a piece lie nowhere.
pub(super) fn why_unplaced(job: &Job, bins: &[Bin], piece: usize, copies: u32) -> Unplaced {
    let piece = &job.pieces[piece];
    let fits_one = bins.iter().any(|g| piece.cloths.contains(&job.cloths[g.cloth].id) && fits(job, g, piece));
    let why = if fits_one { no_room(job, piece, copies) } else { too_large(job, piece) };
    Unplaced { piece: piece.id.clone(), count: copies, why }
}

fn size_text(job: &Job, piece: &JobPiece) -> String {
    let ruler = Ruler::default_for(job.units);
    let (w, h) = piece.outline.extent(Turn::NONE, false);
    format!("{} × {} {}", ruler.show(w).text, ruler.show(h).text, job.units.symbol())
}

fn too_large(job: &Job, piece: &JobPiece) -> String {
    let ruler = Ruler::default_for(job.units);
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
        "{} is {} and fits none of its cloths in the direction it must lie: {}",
        piece.name,
        size_text(job, piece),
        tried.join(", ")
    )
}

fn no_room(job: &Job, piece: &JobPiece, copies: u32) -> String {
    let names: Vec<&str> = piece.cloths.iter().filter_map(|id| job.cloth(id)).map(|c| c.name.as_str()).collect();
    format!("there is no room for {copies} of {} ({}) on {}", piece.name, size_text(job, piece), names.join(", "))
}

//! Pieces that have a place on a print are laid first, where their motifs fall right; all else is laid around them.
//!
//! Places on a print are few, so whole lays of these pieces alone are tried in many orders. The best few go on as jobs of
//! their own in which those pieces are pinned. What no lay of the whole job can beat is shown without asking for any
//! place on the print: it holds for these too.

use super::answer::{Lay, Placement};
use super::bin::{Bin, order_of_bins};
use super::job::{Job, Pin};
use super::nest::{Choose, ItemType, Layout, Nest, fill_on_print};
use super::random::Random;
use super::rank::{Rank, Use, place_in_list, square_inches};
use super::stop::Stop;
use crate::cloth::Money;
use crate::measure::{Length, Ruler};
use crate::piece::Mirror;
use std::sync::Arc;

/// Jobs that go on, at most.
const MOST_JOBS: usize = 3;
/// Orders tried of few pieces; of many fewer, so that a first answer does not wait.
const ORDERS: usize = 200;
/// Pieces times orders times cloths, at most.
const MOST_WORK: usize = 8_000;

/// Whether anything of `job` has a place on a print.
pub(super) fn has_places(job: &Job) -> bool {
    job.pieces.iter().any(|p| p.cloths.iter().filter_map(|id| job.cloth(id)).any(|c| job.places(p, c)))
}

/// The same job with the pieces that have a place on a print pinned, in several ways, the best first. A copy that finds
/// no such place is left to the cloths that have no print to fall right on.
pub(super) fn with_places(job: &Job, bins: &Arc<[Bin]>, stop: &Stop) -> Vec<Job> {
    let nest = Nest::new(job, bins, &items(job), |p| order_of_bins(job, bins, p), stop);
    let all: Vec<usize> =
        nest.kinds.iter().enumerate().flat_map(|(k, kind)| std::iter::repeat_n(k, kind.count)).collect();
    let orders = (MOST_WORK / (all.len() * bins.len()).max(1)).clamp(2, ORDERS);
    let mut random = Random::new(job.rules.seed);
    let mut found: Vec<(Rank, Layout)> = Vec::new();
    for n in 0..orders {
        let mut order = all.clone();
        let size = |k: &usize| {
            let way = nest.kinds[*k].ways.iter().flatten().next();
            way.map_or((0, 0), |w| (nest.shapes[w.shape].width, nest.shapes[w.shape].height))
        };
        match n / 2 {
            0 => order.sort_by_key(|k| std::cmp::Reverse(size(k).0.saturating_mul(size(k).1))),
            1 => order.sort_by_key(|k| std::cmp::Reverse(size(k).1)),
            2 => order.sort_by_key(|k| std::cmp::Reverse(size(k).0)),
            _ => random.shuffle(&mut order),
        }
        // What would be shorter than the best so far.
        let below: Vec<i64> = match found.first() {
            Some((_, best)) => (0..nest.bins.len()).map(|g| best.length(&nest, g) - 1).collect(),
            None => vec![],
        };
        let choose = match n {
            ..6 if n % 2 == 0 => Choose::Top,
            ..6 => Choose::Foot,
            _ => Choose::Any(&mut random, &below),
        };
        let layout = fill_on_print(&nest, job, &order, choose);
        let rank = rank_of(job, &nest, &layout);
        if stop.asked() && !found.is_empty() {
            break;
        }
        if !found.iter().any(|(_, known)| *known == layout) {
            found.push((rank, layout));
            found.sort_by_key(|(rank, _)| *rank);
            found.truncate(MOST_JOBS);
        }
    }
    found.into_iter().map(|(_, layout)| pinned(job, &nest, &layout)).collect()
}

/// Copies with a place on some print; the even ones of pairs apart, since a motif moves when a piece is flipped.
fn items(job: &Job) -> Vec<ItemType> {
    let mut items = Vec::new();
    for (index, piece) in job.pieces.iter().enumerate() {
        if !piece.cloths.iter().filter_map(|id| job.cloth(id)).any(|c| job.places(piece, c)) {
            continue;
        }
        let free = job.free_copies(index);
        let flipped = free.iter().filter(|n| piece.mirror == Mirror::Pairs && n.is_multiple_of(2)).count() as u32;
        for (flipped, copies) in [(false, free.len() as u32 - flipped), (true, flipped)] {
            if copies > 0 {
                items.push(ItemType { piece: index, flipped, copies });
            }
        }
    }
    items
}

fn rank_of(job: &Job, nest: &Nest, layout: &Layout) -> Rank {
    let area = |kind: usize| job.pieces[nest.kinds[kind].piece].outline.area().0 as f64;
    let uses: Vec<Use> = (0..nest.bins.len())
        .map(|g| {
            let cloth = &job.cloths[nest.bins[g].cloth];
            let lying = &layout.on[g];
            Use {
                length: layout.length(nest, g),
                area: square_inches(lying.iter().map(|p| area(p.kind)).sum()),
                down_the_list: lying
                    .iter()
                    .map(|p| place_in_list(job, &job.pieces[nest.kinds[p.kind].piece], cloth))
                    .sum(),
                ..Use::default()
            }
        })
        .collect();
    Rank::of(job, &nest.bins, &uses, square_inches(layout.left.iter().map(|k| area(*k)).sum()))
}

/// `job` with `layout` pinned, and the copies that are not in it kept off the prints they have a place on.
fn pinned(job: &Job, nest: &Nest, layout: &Layout) -> Job {
    let mut with = job.clone();
    let mut free: Vec<Vec<u32>> = (0..job.pieces.len()).map(|p| job.free_copies(p)).collect();
    for (bin, placements) in nest.bins.iter().zip(&layout.on) {
        for placed in placements {
            let kind = &nest.kinds[placed.kind];
            let piece = &job.pieces[kind.piece];
            let wanted = |n: &u32| piece.mirror != Mirror::Pairs || n.is_multiple_of(2) == kind.flipped;
            let free = &mut free[kind.piece];
            let Some(at) = free.iter().position(wanted) else { continue };
            let placement = Placement {
                piece: piece.id.clone(),
                copy: free.remove(at),
                x: bin.left + Length(placed.x),
                y: bin.low + Length(placed.y),
                turn: placed.way.turn,
                mirrored: placed.way.mirrored,
                on_fold: false,
                single: false,
            };
            with.pinned.push(Pin { cloth: job.cloths[bin.cloth].id.clone(), cloth_copy: bin.copy, placement });
        }
    }
    for piece in &mut with.pieces {
        let own = piece.clone();
        piece.cloths.retain(|id| job.cloth(id).is_none_or(|c| !job.places(&own, c)));
        piece.on_print = None;
    }
    with
}

/// What was found for a job whose pieces are pinned, told of the job itself.
pub(super) fn told_of(job: &Job, lay: &mut Lay) {
    // Of a choice of cloths the pinned job knows less than there is.
    let choice = job.pieces.iter().any(|p| p.cloths.len() > 1);
    if choice {
        lay.bound.cost = Money(0);
        lay.bound.length = Length::ZERO;
        lay.sheets.clear();
        lay.proven = lay.complete() && job.bought(lay) == Length::ZERO;
    }
    for left in &mut lay.unplaced {
        let Some(piece) = job.piece(&left.piece) else { continue };
        let prints: Vec<&str> = piece
            .cloths
            .iter()
            .filter_map(|id| job.cloth(id))
            .filter(|c| job.places(piece, c))
            .map(|c| c.name.as_str())
            .collect();
        if !prints.is_empty() {
            let ruler = Ruler::default_for(job.units);
            let (w, h) = piece.outline.size();
            left.why = format!(
                "{} of {} ({} × {} {}) find no place on {} where the motif falls right",
                left.count,
                piece.name,
                ruler.show(w).text,
                ruler.show(h).text,
                job.units.symbol(),
                prints.join(", ")
            );
        }
    }
}

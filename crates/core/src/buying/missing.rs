//! What a plan leaves out: pieces that lie nowhere, and how much more cloth would hold them.

use super::shown_names;
use crate::cloth::Form;
use crate::lay::{Budget, Job, Lay, Silent, Stop, solve};
use crate::measure::{Length, System, show_bought};

/// Iterations spent on how much more cloth would do.
const TRIED: u64 = 60;

/// Pieces of a plan that lie nowhere.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Missing {
    /// Name and copies of each.
    pub pieces: Vec<(String, u32)>,
    /// How many they are, all copies counted.
    pub count: u32,
    /// Of how many in all.
    pub of: u32,
    /// By cloth, what more of it is needed.
    pub cloths: Vec<More>,
}

/// What is missing of one cloth.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct More {
    /// Id of the cloth.
    pub cloth: String,
    /// Its name.
    pub name: String,
    /// Names of the pieces that more of it would hold.
    pub pieces: Vec<String>,
    /// How much more of it holds them, on top of what there is; nothing when that could not be told.
    pub length: Option<Length>,
    /// Of those that no length of it holds, why, each a sentence without its stop.
    pub too_large: Vec<String>,
}

/// What `lay` leaves out of `job`; nothing when every piece lies somewhere. How much more is needed is looked for as long
/// as `stop` lets it.
pub fn missing(job: &Job, lay: &Lay, stop: &Stop) -> Option<Missing> {
    if lay.complete() {
        return None;
    }
    let mut cloths: Vec<More> = Vec::new();
    for unplaced in &lay.unplaced {
        let Some(piece) = job.piece(&unplaced.piece) else { continue };
        let Some(cloth) = piece.cloths.first().and_then(|id| job.cloth(id)) else { continue };
        match cloths.iter_mut().find(|m| m.cloth == cloth.id) {
            Some(more) => more.pieces.push(piece.name.clone()),
            None => cloths.push(More {
                cloth: cloth.id.clone(),
                name: cloth.name.clone(),
                pieces: vec![piece.name.clone()],
                length: None,
                too_large: vec![],
            }),
        }
    }
    for more in &mut cloths {
        further(job, lay, more, stop);
    }
    let name = |id: &str| job.piece(id).map_or_else(|| id.to_owned(), |p| p.name.clone());
    Some(Missing {
        pieces: lay.unplaced.iter().map(|u| (name(&u.piece), u.count)).collect(),
        count: lay.unplaced.iter().map(|u| u.count).sum(),
        of: job.pieces.iter().map(|p| p.count).sum(),
        cloths,
    })
}

/// Finds how much more of a cloth would hold what it should, and what of it no length holds.
fn further(job: &Job, lay: &Lay, more: &mut More, stop: &Stop) {
    let id = more.cloth.as_str();
    let left_out = |piece: &str| lay.unplaced.iter().any(|u| u.piece == piece);
    let lies_there = |piece: &str| {
        lay.cloths.iter().filter(|c| c.cloth == id).any(|c| c.placements.iter().any(|p| p.piece == piece))
    };
    let mut alone = job.clone();
    alone.pieces.retain(|p| lies_there(&p.id) || (left_out(&p.id) && p.cloths.first().is_some_and(|c| c == id)));
    alone.cloths.retain(|c| c.id == id);
    alone.pinned.clear();
    let Some(cloth) = alone.cloths.first_mut() else { return };
    let there = match &cloth.form {
        Form::Roll { width, length, max } => {
            let there = length.or(*max).unwrap_or_default();
            cloth.form = Form::Roll { width: *width, length: None, max: None };
            there
        }
        // Of sheets and scraps there is no more by the length.
        Form::Sheet { .. } | Form::Scrap { .. } => return,
    };
    cloth.owned = false;
    for piece in &mut alone.pieces {
        piece.cloths = vec![id.to_owned()];
    }
    let Ok(found) = solve(&alone, Budget::iterations(TRIED).until(stop), &mut Silent) else { return };
    let too_large =
        |name: &str| found.unplaced.iter().any(|u| alone.piece(&u.piece).is_some_and(|piece| piece.name == name));
    more.pieces.retain(|name| !too_large(name));
    more.too_large = found.unplaced.iter().map(|u| u.why.clone()).collect();
    if more.pieces.is_empty() {
        return;
    }
    let cloth = &alone.cloths[0];
    let laid = found.cloths.iter().map(|c| c.needed_length).max().unwrap_or_default();
    let taken = laid.before_shrinking(cloth.shrink.along);
    let step = cloth.shop.step.unwrap_or(Length(1));
    // In the steps of the shop, and one at least: as it is, it does not do.
    let further = (taken - there).max(Length(1));
    more.length = Some(Length((further.0 + step.0 - 1) / step.0 * step.0));
}

/// The same, where only the lay is at hand; nothing when it is whole.
pub fn headline(job: &Job, lay: &Lay) -> Option<String> {
    let count = lay.unplaced.iter().map(|u| u.count).sum();
    (count > 0).then(|| lie_nowhere(count, job.pieces.iter().map(|p| p.count).sum()))
}

fn lie_nowhere(count: u32, of: u32) -> String {
    format!("{count} of {of} pieces {} nowhere", if count == 1 { "lies" } else { "lie" })
}

impl Missing {
    /// `2 of 9 pieces lie nowhere`.
    pub fn headline(&self) -> String {
        lie_nowhere(self.count, self.of)
    }

    /// Which, and by how much of which cloth the plan is short: a sentence for each cloth.
    pub fn describe(&self, system: System) -> Vec<String> {
        self.cloths
            .iter()
            .flat_map(|more| {
                let names = shown_names(&more.pieces);
                let what = if more.pieces.len() == 1 { "it" } else { "them" };
                let short = match more.length {
                    _ if more.pieces.is_empty() => None,
                    Some(length) => {
                        Some(format!("{names}: {} more of {} holds {what}.", show_bought(length, system), more.name))
                    }
                    None => Some(format!("{names}: {} has no room left for {what}.", more.name)),
                };
                more.too_large.iter().map(|why| format!("{why}.")).chain(short)
            })
            .collect()
    }
}

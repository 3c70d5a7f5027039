//! What a plan leaves out: pieces that lie nowhere, and how much more cloth would hold them.

use super::shown_names;
use crate::cloth::{Cloth, Form};
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

/// What `lay` leaves out of `job`; nothing when every piece lies somewhere. `roll` gives what more of a cloth of the job
/// would be bought as; of a cloth it does not know, the cloth itself is longer. How much more is needed is looked for as
/// long as `stop` lets it.
pub fn missing(job: &Job, lay: &Lay, roll: &dyn Fn(&str) -> Option<Cloth>, stop: &Stop) -> Option<Missing> {
    if lay.complete() {
        return None;
    }
    let mut cloths: Vec<(More, Cloth)> = Vec::new();
    for unplaced in &lay.unplaced {
        let Some(piece) = job.piece(&unplaced.piece) else { continue };
        let Some(first) = piece.cloths.first() else { continue };
        // A roll that is in the job already is as long there as it is.
        let more_of = roll(first).map(|r| job.cloth(&r.id).cloned().unwrap_or(r));
        let Some(cloth) = more_of.or_else(|| job.cloth(first).cloned()) else { continue };
        match cloths.iter_mut().find(|(m, _)| m.cloth == cloth.id) {
            Some((more, _)) => more.pieces.push(piece.name.clone()),
            None => {
                let pieces = vec![piece.name.clone()];
                let (id, name) = (cloth.id.clone(), cloth.name.clone());
                cloths.push((More { cloth: id, name, pieces, length: None, too_large: vec![] }, cloth));
            }
        }
    }
    let further = |(mut more, cloth): (More, Cloth)| {
        further(job, lay, &mut more, cloth, stop);
        more
    };
    let cloths = cloths.into_iter().map(further).collect();
    let name = |id: &str| job.piece(id).map_or_else(|| id.to_owned(), |p| p.name.clone());
    Some(Missing {
        pieces: lay.unplaced.iter().map(|u| (name(&u.piece), u.count)).collect(),
        count: lay.unplaced.iter().map(|u| u.count).sum(),
        of: job.pieces.iter().map(|p| p.count).sum(),
        cloths,
    })
}

/// Finds how much more of a cloth would hold what it should, and what of it no length holds. A cloth of the job becomes
/// longer, what lies on it with it; of any other a new length is bought for what is left out.
fn further(job: &Job, lay: &Lay, more: &mut More, mut cloth: Cloth, stop: &Stop) {
    let id = more.cloth.as_str();
    let longer = job.cloth(id).is_some();
    let left_out = |piece: &str| lay.unplaced.iter().find(|u| u.piece == piece).map_or(0, |u| u.count);
    let lies_there = |piece: &str| {
        longer && lay.cloths.iter().filter(|c| c.cloth == id).any(|c| c.placements.iter().any(|p| p.piece == piece))
    };
    let mut alone = job.clone();
    let named: Vec<&str> = more.pieces.iter().map(String::as_str).collect();
    alone.pieces.retain(|p| lies_there(&p.id) || (left_out(&p.id) > 0 && named.contains(&p.name.as_str())));
    if !longer {
        for piece in &mut alone.pieces {
            piece.count = left_out(&piece.id);
        }
    }
    alone.pinned.clear();
    let there = match &cloth.form {
        Form::Roll { width, length, max } => {
            let there = if longer { length.or(*max).unwrap_or_default() } else { Length::ZERO };
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
    alone.cloths = vec![cloth];
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
    let length = Length((further.0 + step.0 - 1) / step.0 * step.0);
    let length = if longer { length } else { length.max(cloth.shop.min) };
    more.length = Some(length);
}

/// The same, where only the lay is at hand; nothing when it is whole.
pub fn headline(job: &Job, lay: &Lay) -> Option<String> {
    let count = lay.unplaced.iter().map(|u| u.count).sum();
    (count > 0).then(|| do_not_fit(count, job.pieces.iter().map(|p| p.count).sum()))
}

fn do_not_fit(count: u32, of: u32) -> String {
    format!("{count} of {of} pieces {} fit", if count == 1 { "doesn’t" } else { "don’t" })
}

impl Missing {
    /// `2 of 9 pieces don’t fit`.
    pub fn headline(&self) -> String {
        do_not_fit(self.count, self.of)
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
                    Some(length) => Some(format!(
                        "{names}: {} more of {} makes room for {what}.",
                        show_bought(length, system),
                        more.name
                    )),
                    None => Some(format!("{names}: {} has no room left for {what}.", more.name)),
                };
                more.too_large.iter().map(|why| format!("{why}.")).chain(short)
            })
            .collect()
    }
}

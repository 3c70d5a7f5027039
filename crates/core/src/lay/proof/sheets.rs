//! How many sheets are needed at least: by weights, and of few pieces by trying all ways of sharing them.
//!
//! Dual-feasible functions bound the number of bins as they bound a length (Martello and Vigo 1998, "Exact solution of
//! the two-dimensional finite bin packing problem"; Fekete and Schepers 2004). Of few pieces every set of them is asked
//! whether one sheet may hold it; what cannot be told counts as held, so the number is never too large.

use super::bounds::{Relaxed, heaviest, relaxed};
use super::{Rule, SheetsNeeded, Tried, Weights, Whole};
use crate::cloth::Form;
use crate::lay::job::{Job, JobPiece};
use crate::lay::rectangles::{Strip, cannot_hold};
use crate::measure::Length;

/// More pieces than these are not shared in every way there is.
const MOST_SHARED: usize = 9;

/// How many sheets of `cloth` (its index) the pieces that can come from nothing else need, if it is sold by the sheet and
/// that is more than one. Sharing is only tried when fewer than `used` are not ruled out by weights.
pub(in crate::lay) fn least_sheets(job: &Job, cloth: usize, used: Option<u32>) -> Option<SheetsNeeded> {
    let sheet = &job.cloths[cloth];
    if sheet.owned || !matches!(sheet.form, Form::Sheet { .. }) {
        return None;
    }
    let length = sheet.usable_length()?.0;
    let pieces: Vec<(usize, &JobPiece, u32)> = job
        .pieces
        .iter()
        .enumerate()
        .filter(|(_, p)| p.cloths.len() == 1 && p.cloths[0] == sheet.id)
        .map(|(i, p)| (i, p, p.count))
        .collect();
    let mut found: Option<SheetsNeeded> = None;
    let mut raise = |least: i128, by: &dyn Fn() -> Rule| {
        let more = u32::try_from(least).ok().filter(|n| *n > found.as_ref().map_or(1, |f| f.least));
        if let Some(least) = more {
            found = Some(SheetsNeeded { cloth: sheet.id.clone(), least, by: by() });
        }
    };
    let relaxed = relaxed(sheet, sheet.usable_width().0, &pieces, job.rules.gap);
    for Relaxed { strip, boxes } in &relaxed {
        for (sum, full, across, along) in heaviest(strip, length + strip.gap) {
            raise((sum + full - 1) / full.max(1), &|| {
                let (width, boxes) = (Length(strip.width), boxes.clone());
                Rule::Weights(Weights { boxes, width, across, along, sum: Whole(sum), full: Whole(full) })
            });
        }
    }
    for Relaxed { strip, .. } in &relaxed {
        if used.is_some_and(|used| found.as_ref().map_or(1, |f| f.least) < used) && strip.pieces() <= MOST_SHARED {
            let (least, places) = fewest(strip, length);
            let mut raise = |least: u32, by: Rule| {
                if least > found.as_ref().map_or(1, |f| f.least) {
                    found = Some(SheetsNeeded { cloth: sheet.id.clone(), least, by });
                }
            };
            raise(least, Rule::Tried { what: Tried::Shares, times: places });
        }
    }
    found
}

/// The fewest sets that one sheet each may hold, and how many places were tried to rule out the others.
fn fewest(strip: &Strip, length: i64) -> (u32, u64) {
    let each: Vec<usize> = strip.kinds.iter().enumerate().flat_map(|(k, kind)| vec![k; kind.count]).collect();
    let all = (1_usize << each.len()) - 1;
    let mut places = 0;
    let mut fits = vec![true; all + 1];
    for (set, fits) in fits.iter_mut().enumerate().skip(1) {
        let mut part = strip.clone();
        for (k, kind) in part.kinds.iter_mut().enumerate() {
            kind.count = each.iter().enumerate().filter(|(i, of)| set >> i & 1 == 1 && **of == k).count();
        }
        part.kinds.retain(|k| k.count > 0);
        if let Some(tried) = cannot_hold(&part, length) {
            *fits = false;
            places += tried;
        }
    }
    // With the first piece of what is left goes each set that fits.
    let mut least = vec![u32::MAX; all + 1];
    least[0] = 0;
    for set in 1..=all {
        let first = 1 << set.trailing_zeros();
        let mut part = set;
        while part > 0 {
            if part & first != 0 && fits[part] && least[set ^ part] < u32::MAX {
                least[set] = least[set].min(least[set ^ part] + 1);
            }
            part = (part - 1) & set;
        }
    }
    (least[all], places)
}

//! Sizes nobody has typed go along with those that were: a small tote is not refused for a pocket nobody asked for.

use super::field::{Group, Slot};
use super::whole::Bag;
use crate::measure::{Length, Ruler, System};
use std::collections::BTreeMap;

/// A size goes all of the way the bag has gone; where that is too far, quarters less, and where it is not enough,
/// quarters more.
const QUARTERS: [i64; 7] = [0, 1, 2, 3, -1, -2, -3];
/// A finished size stays as near to what it was as it may.
const NEAREST_FIRST: [i64; 7] = [3, 2, 1, 0, -1, -2, -3];
const WAY: usize = QUARTERS.len();

impl Bag {
    /// Finished sizes were changed from those of `before`: sizes that cannot stand beside them and are still as the
    /// family has them (or as they were brought along once) follow, in proportion; what reaches across the bag grows by
    /// as much as the bag does. Nothing changes when that does not make the bag stand.
    pub fn bring_along(&mut self, before: &Self, system: System, ruler: Ruler) {
        if self.family() != before.family() {
            return;
        }
        let usual = self.family().default_for(system);
        let (was, is, at_first) = (before.lengths(), self.lengths(), usual.lengths());
        let mut bag = self.clone();
        let finished: Vec<&'static str> =
            bag.fields().iter().filter(|f| f.group == Group::Size && f.scales).map(|f| f.key).collect();
        let changed: Vec<&'static str> = finished.iter().filter(|key| was.get(*key) != is.get(*key)).copied().collect();
        if changed.is_empty() {
            return;
        }
        let first: Vec<String> = match self.draft(ruler) {
            Ok(_) => return,
            Err(problems) => problems.into_iter().map(|p| p.field).collect(),
        };
        let mut next = self.clone();
        let mut tried: BTreeMap<&'static str, usize> = BTreeMap::new();
        loop {
            let Err(problems) = next.draft(ruler) else {
                *self = next;
                return;
            };
            let mut moved = false;
            for mut field in next.fields() {
                let (key, stays) = (field.key, field.group == Group::Seams || changed.contains(&field.key));
                let (Slot::Length(length), false) = (&mut field.slot, stays) else { continue };
                let Some(usual) = at_first.get(key).filter(|_| problems.iter().any(|p| p.field == key)) else {
                    continue;
                };
                let follows = |sizes: &BTreeMap<&'static str, Length>, size: &str, step: usize| {
                    let (now, then) = (sizes.get(size)?, at_first.get(size)?);
                    let short = if finished.contains(&key) { NEAREST_FIRST[step] } else { QUARTERS[step] };
                    Some(followed(*usual, (*now, *then), field.reaches, short, ruler))
                };
                let known = was.get(key).copied().unwrap_or_default();
                let before = |size: &&str| (0..WAY).any(|step| follows(&was, size, step) == Some(known));
                let untouched = known == *usual || finished.iter().any(before);
                let turn = tried.entry(key).or_insert(0);
                let (size, step) = (changed.get(*turn / WAY), *turn % WAY);
                if let Some(to) = size.filter(|_| untouched).and_then(|size| follows(&is, size, step)) {
                    *turn += 1;
                    **length = to;
                    moved = true;
                }
            }
            if !moved {
                // What is left to ask about is what was typed.
                if problems.iter().all(|p| first.contains(&p.field)) {
                    // What does not stand whatever it is tried as is told as it was, not as it was tried last.
                    for field in next.fields().iter_mut().filter(|f| problems.iter().any(|p| p.field == f.key)) {
                        if let (Slot::Length(length), Some(own)) = (&mut field.slot, is.get(field.key)) {
                            **length = *own;
                        }
                    }
                    *self = next;
                }
                return;
            }
        }
    }

    /// What changed since `before` besides the fields in `typed`, each a short sentence.
    pub fn came_along(&self, before: &Self, typed: &[String], ruler: Ruler) -> Vec<String> {
        if self.family() != before.family() {
            return vec![];
        }
        let was = before.lengths();
        let show = |l: Length| format!("{} {}", ruler.show(l).text, ruler.system().symbol());
        let mut bag = self.clone();
        let fields = bag.fields();
        let others = fields.iter().filter(|f| !f.idle && !typed.iter().any(|t| t == f.key));
        let mut told: Vec<String> = others
            .filter_map(|f| {
                let Slot::Length(length) = &f.slot else { return None };
                let was = was.get(f.key).filter(|was| **was != **length)?;
                Some(format!(
                    "{}, {}: {}, it was {}.",
                    f.group.name(),
                    f.label.to_lowercase(),
                    show(**length),
                    show(*was)
                ))
            })
            .collect();
        for part in &self.parts {
            if let Some(was) = before.part(part.id) {
                told.extend(part.came_along(was, typed, &show));
            }
        }
        told
    }

    fn lengths(&self) -> BTreeMap<&'static str, Length> {
        let mut bag = self.clone();
        let length = |f: super::Field<'_>| match f.slot {
            Slot::Length(length) => Some((f.key, *length)),
            _ => None,
        };
        bag.fields().into_iter().filter_map(length).collect()
    }
}

/// What is `usual` on a bag whose size was `then` and is `now`, on a line of `ruler`: `short` quarters of the way less, or
/// of itself more if that is negative.
fn followed(usual: Length, (now, then): (Length, Length), reaches: bool, short: i64, ruler: Ruler) -> Length {
    let whole = if reaches {
        usual + (now - then)
    } else if then <= Length::ZERO {
        usual
    } else {
        Length((i128::from(usual.0) * i128::from(now.0) / i128::from(then.0)) as i64)
    };
    let exact = if short >= 0 { whole + (usual - whole) * short / 4 } else { whole + whole * short / 4 };
    // Down to a line, so that it stays within what it is on.
    Length(exact.0 / ruler.step().0 * ruler.step().0)
}

//! The ledger of a cloth in the cupboard: what came in, what lies with which bag, what was cut into and what was left of it,
//! what was thrown away or put right. What is there is what its entries come to.

use crate::FieldProblem;
use crate::cloth::{AtHand, HandForm, Scrap, Things, free_letters, put, rearrange, say_all, scraps, take, tell_all};
use crate::ledger::{Entries, Entry, Goods, OfBag, Refused, What, Why, tell};
use crate::measure::Ruler;
use crate::name::clean;
use crate::project::ProjectCloth;
use crate::project::left_over::{LeftOver, cut_of_each};
use thiserror::Error;

/// An entry of a cloth's ledger. What a bag takes of it is for what it is cut from.
pub type ClothEntry = Entry<Things, ()>;

/// The entries of a cloth's ledger.
pub type ClothEntries = Entries<Things, ()>;

/// Why something cannot be entered in a cloth's ledger: a sentence.
#[derive(Clone, Debug, PartialEq, Eq, Error)]
#[error("{0}")]
pub struct NotEntered(String);

/// Letters a place is told by at most.
const LONGEST_PLACE: usize = 60;

impl ProjectCloth {
    /// As it comes into the cupboard, at `at` milliseconds since 1970: what is there is its first entry. One that has a
    /// ledger keeps it.
    #[must_use]
    pub fn put_in_cupboard(mut self, at: i64) -> Self {
        self.left_of = None;
        let things = Things::of(&self.at_hand);
        if self.ledger.is_empty() && !things.is_none() {
            self.ledger = ClothEntries::of(vec![entry(Why::PutIn, at, &self.at_hand, &[])]);
        }
        self
    }

    /// As a bag has it: what came and went of it stays in the cupboard.
    #[must_use]
    pub fn for_project(&self) -> Self {
        Self { ledger: ClothEntries::default(), ..self.clone() }
    }

    /// The cloth of the cupboard after `what` is done with it, `value` being what is typed for that, at `at`.
    ///
    /// # Errors
    /// What is not understood, or asked about; more than is there. The field is named after what is done.
    pub fn changed_in_cupboard(&self, what: What, value: &str, at: i64) -> Result<Self, FieldProblem> {
        let mut next = self.clone();
        let refused = |field: &str, why: Refused| FieldProblem::new(field, value, self.told(&why));
        match what {
            What::PutIn => {
                let none = "Type what you add, such as 2 fat quarters, half a yard, 18 x 22.";
                let came = self.lettered(&self.read_things("put_in", value, none)?);
                next.enter(Why::PutIn, at, &came, &[]).map_err(|why| refused("put_in", why))?;
                next.has_room_and_use("put_in", value)?;
            }
            What::ThrowAway => {
                let went = self.read_some(value)?;
                next.enter(Why::ThrownAway, at, &[], &went).map_err(|why| refused("throw_away", why))?;
            }
            What::Correct => {
                next.set_at_hand(value)?;
                next.at_hand = self.lettered(&next.at_hand);
                next.count_again(&self.at_hand, at).map_err(|why| refused("at_hand", why))?;
            }
            What::TakeBack => {
                let number = value.trim().parse().unwrap_or(0);
                next.enter(Why::TakenBack { entry: number }, at, &[], &[]).map_err(|why| refused("take_back", why))?;
            }
            What::Place => {
                let place = clean(value);
                if place.chars().count() > LONGEST_PLACE {
                    let message = format!("A place can have at most {LONGEST_PLACE} characters.");
                    return Err(FieldProblem::new("place", value, message));
                }
                next.place = place;
            }
        }
        Ok(next)
    }

    /// The cloth of the cupboard once it is as the bag `project` has it, called `found` there: what is there besides what
    /// lies with the bag is counted again, its ledger goes on, and it stays where it is kept where the bag does not say
    /// another place. What a bag has whose cut is entered is what there was before it: then what is there stays.
    ///
    /// # Errors
    /// More of it than is counted.
    pub fn kept_from(&self, found: &Self, project: &str, at: i64) -> Result<Self, NotEntered> {
        let place = if found.place.is_empty() { self.place.clone() } else { found.place.clone() };
        let mut next = Self { ledger: self.ledger.clone(), place, left_of: None, ..found.clone() };
        if self.is_cut_for(project) {
            next.at_hand.clone_from(&self.at_hand);
            return Ok(next);
        }
        // What lies with a bag, this one or another, is not there.
        let _with = taken(&mut next.at_hand, self.ledger.with_bag(project).all());
        for (bag, things) in self.ledger.with_bags() {
            if bag.project != project {
                let _others = taken(&mut next.at_hand, things.all());
            }
        }
        next.count_again(&self.at_hand, at).map_err(|why| NotEntered(self.told(&why)))?;
        Ok(next)
    }

    /// Lays `things` with `bag`: no other bag can take them until they are put back. All of them or none.
    ///
    /// # Errors
    /// Something of it is not there.
    pub fn lay_with(&mut self, bag: &OfBag, things: &[AtHand], at: i64) -> Result<(), NotEntered> {
        let (went, missing) = taken(&mut self.at_hand.clone(), things);
        if !missing.is_empty() {
            return Err(NotEntered(self.not_there(&missing)));
        }
        self.enter(Why::Taken { bag: bag.clone(), need: () }, at, &[], &went).map_err(|why| NotEntered(self.told(&why)))
    }

    /// What of `things`, which the bag `project` is to be cut from, is there and does not lie with it yet.
    pub fn still_to_lay(&self, project: &str, things: &[AtHand]) -> Vec<AtHand> {
        let mut with: Vec<AtHand> = self.ledger.with_bag(project).into();
        let (_, others) = taken(&mut with, things);
        taken(&mut self.at_hand.clone(), &others).0
    }

    /// Puts back all that lies with `bag`.
    ///
    /// # Errors
    /// Nothing lies with it.
    pub fn put_back(&mut self, bag: &OfBag, at: i64) -> Result<(), NotEntered> {
        let with = self.ledger.with_bag(&bag.project);
        if with.is_none() {
            return Err(NotEntered(format!("Nothing of {} is set aside for {}.", self.name, bag.name)));
        }
        self.enter(Why::PutBack { bag: bag.clone() }, at, with.all(), &[]).map_err(|why| NotEntered(self.told(&why)))
    }

    /// Whether the cut of the bag `project` is entered.
    pub fn is_cut_for(&self, project: &str) -> bool {
        self.cut_for(project).is_some()
    }

    fn cut_for(&self, project: &str) -> Option<u32> {
        let of_it = |(_, e): &(u32, &ClothEntry)| matches!(&e.why, Why::Used { bag } if bag.project == project);
        self.ledger.standing().filter(of_it).map(|(number, _)| number).next_back()
    }

    /// Enters that `bag` was cut from `used` and left `kept`: what lies with it first, then what is there. What lay with it
    /// and was not cut goes back. An entry of its cut from before is taken back first. What is given was used and is
    /// neither with the bag nor there: of that nothing is entered.
    ///
    /// # Errors
    /// As [`ProjectCloth::take_cut_back`]; nothing is changed then.
    pub fn enter_cut(
        &mut self,
        bag: &OfBag,
        used: &[AtHand],
        kept: &[AtHand],
        at: i64,
    ) -> Result<Vec<AtHand>, NotEntered> {
        let mut next = self.clone();
        next.take_cut_back(&bag.project, at)?;
        let told = |cloth: &Self, why: Refused| NotEntered(cloth.told(&why));
        let mut with: Vec<AtHand> = next.ledger.with_bag(&bag.project).into();
        let (mut cut, others) = taken(&mut with, used);
        let (more, missing) = taken(&mut next.at_hand.clone(), &others);
        if !more.is_empty() {
            let why = Why::Taken { bag: bag.clone(), need: () };
            next.enter(why, at, &[], &more).map_err(|why| told(self, why))?;
        }
        more.into_iter().for_each(|thing| drop(put(&mut cut, thing)));
        let kept = next.lettered(kept);
        if !cut.is_empty() || !kept.is_empty() {
            next.enter(Why::Used { bag: bag.clone() }, at, &kept, &cut).map_err(|why| told(self, why))?;
        }
        if !with.is_empty() {
            next.put_back(bag, at)?;
        }
        *self = next;
        Ok(missing)
    }

    /// Takes back that the bag `project` was cut from it, and that what it was cut from was laid with it then; whether that
    /// was entered. What was laid with it before lies with it again.
    ///
    /// # Errors
    /// Of what it left something is not there any more; nothing is changed then.
    pub fn take_cut_back(&mut self, project: &str, at: i64) -> Result<bool, NotEntered> {
        let Some(number) = self.cut_for(project) else { return Ok(false) };
        let mut next = self.clone();
        let back = |cloth: &mut Self, number: u32| {
            cloth.enter(Why::TakenBack { entry: number }, at, &[], &[]).map_err(|why| NotEntered(cloth.told(&why)))
        };
        back(&mut next, number)?;
        // Laid with it in the same moment, it was for this cut.
        let (cut, before) = (self.ledger.get(number), self.ledger.get(number - 1));
        let together = |taken: &&ClothEntry| {
            matches!(taken.why, Why::Taken { .. })
                && cut.is_some_and(|cut| (cut.at, cut.project()) == (taken.at, taken.project()))
        };
        if before.filter(together).is_some() && self.ledger.standing().any(|(n, _)| n == number - 1) {
            back(&mut next, number - 1)?;
        }
        *self = next;
        Ok(true)
    }

    /// An entry in words.
    pub fn tell_entry(&self, entry: &ClothEntry, ruler: Ruler) -> String {
        let told = |things: &Things| (!things.is_none()).then(|| tell_all(things.all(), ruler));
        let undone = match entry.why {
            Why::TakenBack { entry } => self.ledger.get(entry).map(|e| self.tell_entry(e, ruler)).unwrap_or_default(),
            _ => String::new(),
        };
        tell(&entry.why, told(&entry.came).as_deref(), told(&entry.went).as_deref(), &undone)
    }

    /// Its things come to what its entries come to.
    pub(crate) fn adds_up(&self) -> bool {
        self.ledger.add_up() && self.ledger.there() == Things::of(&self.at_hand)
    }

    /// One more entry, and what is there after it.
    fn enter(&mut self, why: Why<()>, at: i64, came: &[AtHand], went: &[AtHand]) -> Result<(), Refused> {
        self.ledger = self.ledger.with(entry(why, at, came, went))?;
        rearrange(&mut self.at_hand, &self.ledger.there());
        Ok(())
    }

    /// Enters that what is there now is so though it was `before`; nothing where it is the same.
    fn count_again(&mut self, before: &[AtHand], at: i64) -> Result<(), Refused> {
        let (came, went) = Things::of(before).changed_to(&Things::of(&self.at_hand));
        if !came.is_none() || !went.is_none() {
            let corrected = Entry { at, why: Why::Corrected, came, went };
            self.ledger = self.ledger.with(corrected)?;
        }
        Ok(())
    }

    /// Things that come, each scrap under a letter that none in its ledger ever had; one that was there before has its own
    /// again.
    fn lettered(&self, things: &[AtHand]) -> Vec<AtHand> {
        let mut known: Vec<Scrap> = self.ledger.iter().flat_map(|e| scraps(e.came.all())).cloned().collect();
        known.extend(scraps(&self.at_hand).cloned());
        let mut things = things.to_vec();
        for thing in &mut things {
            let HandForm::Scrap(scrap) = &mut thing.form else { continue };
            if let Some(same) = known.iter().find(|k| k.is_like(scrap)) {
                scrap.label.clone_from(&same.label);
                continue;
            }
            let taken = known.iter().map(|s| s.label.as_str());
            if scrap.label.is_empty() || taken.clone().any(|label| label == scrap.label) {
                scrap.label = free_letters(taken);
            }
            known.push(scrap.clone());
        }
        things
    }

    /// What is there of what is typed, each thing by itself; `all` for everything.
    fn read_some(&self, value: &str) -> Result<Vec<AtHand>, FieldProblem> {
        if matches!(value.trim(), "all" | "everything") {
            let none = || FieldProblem::new("throw_away", value, format!("Nothing of {} is here.", self.name));
            return if self.at_hand.is_empty() { Err(none()) } else { Ok(self.at_hand.clone()) };
        }
        let things =
            self.read_things("throw_away", value, "Type what to remove, such as scrap B, 2 fat quarters, all.")?;
        let (went, missing) = taken(&mut self.at_hand.clone(), &things);
        if missing.is_empty() {
            return Ok(went);
        }
        Err(FieldProblem::new("throw_away", value, self.not_there(&missing)))
    }

    fn not_there(&self, missing: &[AtHand]) -> String {
        let system = self.own_system();
        let here = match self.at_hand.as_slice() {
            [] => "You have none of it".to_owned(),
            there => format!("Here: {}", say_all(there, system)),
        };
        format!("You have no {} of {} in one piece. {here}.", say_all(missing, system), self.name)
    }

    fn told(&self, why: &Refused) -> String {
        let say = |things: &Things| say_all(things.all(), self.own_system());
        match why {
            Refused::Nothing => "Type what to add or remove. Nothing would change.".to_owned(),
            Refused::NoSuchEntry(number) => {
                format!("Entry {number} does not exist or is undone already.")
            }
            Refused::NotWith(bag) => format!("That is not set aside for {}.", bag.name),
            Refused::NotThere | Refused::NotLeftOfIt => {
                format!("That is more of {} than you have.", self.name)
            }
            Refused::GoneSince(number) => {
                let Some(undone) = self.ledger.get(*number) else { return String::new() };
                if let Why::Taken { bag, .. } = &undone.why {
                    return format!("This entry can’t be undone, because {} no longer has it.", bag.name);
                }
                let (_, gone) = undone.came.changed_to(&self.ledger.there());
                let has = |(n, e): &(u32, &ClothEntry)| {
                    n > number && gone.all().iter().any(|thing| e.went.many(&thing.form) > 0)
                };
                let since = self.ledger.standing().filter(has).map(|(_, e)| e).next_back();
                match (&undone.why, since.map(|e| &e.why)) {
                    (Why::Used { bag: of }, Some(Why::Taken { bag: by, .. } | Why::Used { bag: by })) => {
                        format!("{} has {}, which {} left. Undo that entry first.", by.name, say(&gone), of.name)
                    }
                    (_, Some(Why::Taken { bag, .. } | Why::Used { bag })) => {
                        format!("This entry can’t be undone, because {} has {}.", bag.name, say(&gone))
                    }
                    _ => {
                        let are = if gone.all().iter().map(|t| t.count).sum::<u32>() == 1 { "is" } else { "are" };
                        format!("This entry can’t be undone, because {} {are} gone.", say(&gone))
                    }
                }
            }
        }
    }
}

/// Cloths of the cupboard once a cut is entered: all that changed, and what was cut and was not in the cupboard, by the
/// cloth's name.
pub type CutEntered = (Vec<ProjectCloth>, Vec<(String, Vec<AtHand>)>);

/// Enters what `bag` was cut from and what is `left` of it, on the cloths of the cupboard it has to do with, `known`. A cut
/// of the bag that was entered before is taken back first, from whatever cloth it was, so that none is counted twice. A
/// cloth is the one the cut was entered on before, else the one of which something is set aside for the bag, else the one
/// with its key, else the one with its name; one that is none of them is new.
///
/// # Errors
/// As [`ProjectCloth::take_cut_back`]; nothing is changed then.
pub fn enter_cuts(known: &[ProjectCloth], left: &[LeftOver], bag: &OfBag, at: i64) -> Result<CutEntered, NotEntered> {
    let mut next = known.to_vec();
    let before: Vec<String> = known.iter().filter(|c| c.is_cut_for(&bag.project)).map(|c| c.id.clone()).collect();
    for cloth in &mut next {
        cloth.take_cut_back(&bag.project, at)?;
    }
    let mut not_there = vec![];
    for cut in cut_of_each(left) {
        let of_bag = |c: &ProjectCloth| before.contains(&c.id) || !c.ledger.with_bag(&bag.project).is_none();
        let by_key = |c: &ProjectCloth| c.id == cut.cloth.id;
        let by_name = |c: &ProjectCloth| c.name == cut.cloth.name;
        let find = |is_it: &dyn Fn(&ProjectCloth) -> bool| next.iter().position(is_it);
        let at_cloth = find(&|c| by_key(c) && (of_bag(c) || by_name(c)))
            .or_else(|| find(&|c| by_name(c) && of_bag(c)))
            .or_else(|| find(&by_key))
            .or_else(|| find(&by_name));
        let Some(n) = at_cloth else {
            if !cut.kept.is_empty() {
                let mut cloth = cut.cloth.clone();
                cloth.enter_cut(bag, &cut.used, &cut.kept, at)?;
                next.push(cloth);
            }
            continue;
        };
        let missing = next[n].enter_cut(bag, &cut.used, &cut.kept, at)?;
        if !missing.is_empty() {
            not_there.push((next[n].name.clone(), missing));
        }
    }
    // The bag is cut: what is still set aside for it anywhere goes back.
    let (next, _) = put_all_back(&next, bag, at)?;
    Ok((next, not_there))
}

/// Takes back the cut of the bag `project` from every cloth it is entered on; nothing where it is entered on none.
///
/// # Errors
/// As [`ProjectCloth::take_cut_back`]; nothing is changed then.
pub fn take_cuts_back(known: &[ProjectCloth], project: &str, at: i64) -> Result<Option<Vec<ProjectCloth>>, NotEntered> {
    let mut next = known.to_vec();
    let mut any = false;
    for cloth in &mut next {
        any |= cloth.take_cut_back(project, at)?;
    }
    Ok(any.then_some(next))
}

/// Puts back all that is set aside for `bag`, on every cloth; what that was, a line each.
///
/// # Errors
/// What cannot be entered.
pub fn put_all_back(
    known: &[ProjectCloth],
    bag: &OfBag,
    at: i64,
) -> Result<(Vec<ProjectCloth>, Vec<String>), NotEntered> {
    let (mut next, mut back) = (known.to_vec(), vec![]);
    for cloth in &mut next {
        let with = cloth.ledger.with_bag(&bag.project);
        if !with.is_none() {
            cloth.put_back(bag, at)?;
            back.push(format!("{}: {}", cloth.name, say_all(with.all(), cloth.own_system())));
        }
    }
    Ok((next, back))
}

fn entry(why: Why<()>, at: i64, came: &[AtHand], went: &[AtHand]) -> ClothEntry {
    Entry { at, why, came: Things::of(came), went: Things::of(went) }
}

/// What of `things` is taken off `there`, each as it lay there, and what of them was not.
fn taken(there: &mut Vec<AtHand>, things: &[AtHand]) -> (Vec<AtHand>, Vec<AtHand>) {
    let (mut found, mut missing) = (vec![], vec![]);
    for thing in things {
        for _ in 0..thing.count {
            match take(there, &thing.form) {
                Some(one) => put(&mut found, one),
                None => put(&mut missing, AtHand { count: 1, ..thing.clone() }),
            };
        }
    }
    (found, missing)
}

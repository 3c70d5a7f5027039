//! Who plans with what is in the cupboard: a piece of cloth that two bags are to be cut from is told before one of them is.

use super::left_over::thing_of;
use super::{Project, ProjectCloth};
use crate::cloth::{AtHand, HandForm, put};
use crate::lay::Lay;
use crate::measure::{Length, Ruler};

/// What one bag is to be cut from, of what is there of a cloth.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Claim {
    /// Id of the project.
    pub project: String,
    /// What it is called.
    pub name: String,
    /// Sheets and scraps whole; of a length what is used of it.
    pub things: Vec<AtHand>,
}

/// What `lay`, this project's, is cut from of what is there, by the name of the cloth: of a length what is used of it.
pub fn claimed(project: &Project, lay: &Lay) -> Vec<(String, Vec<AtHand>)> {
    cut_from(project, lay, |form, used| match form {
        HandForm::Length { width, squared, .. } => HandForm::Length { length: used, width: *width, squared: *squared },
        whole => whole.clone(),
    })
}

/// The things that `lay`, this project's, is cut from, each whole, by the name of the cloth.
pub fn things_for(project: &Project, lay: &Lay) -> Vec<(String, Vec<AtHand>)> {
    cut_from(project, lay, |form, _| form.clone())
}

/// What a lay is cut from, each thing as `of` makes it of its form and the length that is used.
fn cut_from(project: &Project, lay: &Lay, of: fn(&HandForm, Length) -> HandForm) -> Vec<(String, Vec<AtHand>)> {
    let mut found: Vec<(String, Vec<AtHand>)> = vec![];
    for on in lay.cloths.iter().filter(|on| !on.placements.is_empty()) {
        let Some(cloth) = project.cloth(&on.cloth) else { continue };
        let Some(thing) = thing_of(cloth, &on.cloth) else { continue };
        let form = of(&thing.form, on.buy_length);
        let at = found.iter().position(|(name, _)| *name == cloth.name).unwrap_or_else(|| {
            found.push((cloth.name.clone(), vec![]));
            found.len() - 1
        });
        put(&mut found[at].1, AtHand { count: 1, form, about: thing.about });
    }
    found
}

impl ProjectCloth {
    /// Where `claims` on this cloth of the cupboard come to more than there is of it: a sentence for each thing. A bag whose
    /// part is entered as cut claims nothing more; what lies with a bag it has already.
    pub fn over_claimed(&self, claims: &[Claim], ruler: Ruler) -> Vec<String> {
        let open: Vec<&Claim> = claims.iter().filter(|c| !self.is_cut_for(&c.project)).collect();
        let mut found = Vec::new();
        for thing in distinct(open.iter().flat_map(|c| &c.things)) {
            let of = |things: &[AtHand]| -> Amount { things.iter().map(|t| amount(t, &thing.form)).fold(NONE, plus) };
            let wants = |c: &Claim| less(of(&c.things), of(self.ledger.with_bag(&c.project).all()));
            let there = of(&self.at_hand);
            let by: Vec<&&Claim> = open.iter().filter(|c| wants(c) != NONE).collect();
            let wanted = by.iter().map(|c| wants(c)).fold(NONE, plus);
            if wanted.0 <= there.0 && wanted.1 <= there.1 {
                continue;
            }
            let names: Vec<&str> = by.iter().map(|c| c.name.as_str()).collect();
            let long = |l: Length| format!("{} {}", ruler.show(l.floor_to(ruler.step())).text, ruler.system().symbol());
            let (said, left) = match (&thing.form, wanted, there) {
                (HandForm::Length { .. }, (_, wanted), NONE) => (long(wanted), "none is there".to_owned()),
                (HandForm::Length { .. }, (_, wanted), (_, there)) => {
                    (long(wanted), format!("{} is there", long(there)))
                }
                (form, (wanted, _), (there, _)) => {
                    let said = AtHand { count: wanted, ..AtHand::one(form.clone()) }.tell(ruler);
                    let left = match there {
                        0 => "none is there".to_owned(),
                        1 => "one is there".to_owned(),
                        n => format!("{n} are there"),
                    };
                    (if wanted == 1 { format!("one {said}") } else { said }, left)
                }
            };
            found.push(format!("{} planned with {said} of {}; {left}.", listed(&names), self.name));
        }
        found
    }
}

/// How many, and how long together.
type Amount = (u32, Length);

const NONE: Amount = (0, Length::ZERO);

fn plus(a: Amount, b: Amount) -> Amount {
    (a.0 + b.0, a.1 + b.1)
}

/// What of `a` is beyond `b`.
fn less(a: Amount, b: Amount) -> Amount {
    (a.0.saturating_sub(b.0), (a.1 - b.1).max(Length::ZERO))
}

/// How much of `form` a thing is: lengths of one width stand for each other, all else only for what is alike.
fn amount(thing: &AtHand, form: &HandForm) -> Amount {
    match (&thing.form, form) {
        (HandForm::Length { length, width, .. }, HandForm::Length { width: other, .. }) if width == other => {
            (0, *length * i64::from(thing.count))
        }
        (one, other) if one.is_like(other) => (thing.count, Length::ZERO),
        _ => NONE,
    }
}

/// Things no two of which stand for each other.
fn distinct<'a>(things: impl Iterator<Item = &'a AtHand>) -> Vec<&'a AtHand> {
    let mut found: Vec<&AtHand> = vec![];
    for thing in things {
        if !found.iter().any(|known| amount(thing, &known.form) != NONE) {
            found.push(thing);
        }
    }
    found
}

/// `A is`, `A and B are`, `A, B and C are`.
fn listed(names: &[&str]) -> String {
    match names {
        [] => String::new(),
        [one] => format!("{one} is"),
        [first @ .., last] => format!("{} and {last} are", first.join(", ")),
    }
}

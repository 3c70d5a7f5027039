//! What is there of a cloth: lengths off the roll, rectangles such as pre-cuts and remnants, and scraps.

use super::{Form, Scrap, free_letters};
use crate::measure::{Length, Ruler, System, show_bought, show_size};
use serde::{Deserialize, Deserializer, Serialize};

/// The form of one thing that is there. The first size runs along the selvedge, as cloth is spoken of.
#[derive(Clone, Debug, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case", deny_unknown_fields)]
pub enum HandForm {
    /// A length off the roll, selvedge to selvedge.
    Length {
        /// Along the selvedge.
        length: Length,
        /// From edge to edge, where that is not what the cloth is wide.
        width: Option<Length>,
        /// Its ends are straight already, as a strip's: nothing is lost to square them.
        squared: bool,
    },
    /// A rectangle, all of which can be used.
    Sheet {
        /// Along the selvedge.
        length: Length,
        /// Across.
        width: Length,
    },
    /// A tube lying flat, two layers: its fold at the left, its seam at the right.
    Tube {
        /// Along the threads, from opening to opening.
        length: Length,
        /// From fold to seam, as it lies.
        width: Length,
    },
    /// Any outline, with flaws.
    Scrap(Scrap),
}

/// Some things alike that are there of a cloth.
#[derive(Clone, Debug, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct AtHand {
    /// How many.
    pub count: u32,
    /// What each is.
    pub form: HandForm,
    /// Its size is a guess: about so much.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub about: bool,
}

/// Pre-cuts by name. Sizes are what can be used of them (common practice).
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum PreCut {
    /// Half a yard, halved at the fold; in metric countries half a metre.
    FatQuarter,
    /// A fat quarter halved along its length.
    FatEighth,
}

impl PreCut {
    /// Both.
    pub const ALL: [Self; 2] = [Self::FatQuarter, Self::FatEighth];

    /// What it is called, and several of it.
    pub const fn names(self) -> (&'static str, &'static str) {
        match self {
            Self::FatQuarter => ("fat quarter", "fat quarters"),
            Self::FatEighth => ("fat eighth", "fat eighths"),
        }
    }

    /// Along the selvedge and across, as shops of `system` cut it.
    pub const fn size(self, system: System) -> (Length, Length) {
        match (self, system) {
            (Self::FatQuarter, System::Inches) => (Length::inches(18, 1), Length::inches(21, 1)),
            (Self::FatQuarter, System::Centimetres) => (Length::tenth_mm(5000), Length::tenth_mm(5500)),
            (Self::FatEighth, System::Inches) => (Length::inches(9, 1), Length::inches(21, 1)),
            (Self::FatEighth, System::Centimetres) => (Length::tenth_mm(2500), Length::tenth_mm(5500)),
        }
    }
}

impl HandForm {
    /// A length as wide as its cloth, its ends still to be squared.
    pub const fn length(length: Length) -> Self {
        Self::Length { length, width: None, squared: false }
    }

    /// Along the selvedge and across; what the cloth is `wide` off the roll.
    pub fn size(&self, wide: Length) -> (Length, Length) {
        match self {
            Self::Length { length, width, .. } => (*length, width.unwrap_or(wide)),
            Self::Sheet { length, width } | Self::Tube { length, width } => (*length, *width),
            Self::Scrap(scrap) => {
                let (width, length) = scrap.outline.size();
                (length, width)
            }
        }
    }

    /// Whether one can stand for the other: a scrap is itself whatever its letter.
    pub fn is_like(&self, other: &Self) -> bool {
        match (self, other) {
            (Self::Scrap(a), Self::Scrap(b)) => a.is_like(b),
            _ => self == other,
        }
    }

    /// As a cloth of a job has it; what the cloth is `wide` off the roll.
    pub fn for_job(&self, wide: Length) -> Form {
        match self {
            Self::Length { length, width, .. } => {
                Form::Roll { width: width.unwrap_or(wide), length: Some(*length), max: None }
            }
            Self::Sheet { length, width } | Self::Tube { length, width } => {
                Form::Sheet { width: *width, height: *length, count: 1 }
            }
            Self::Scrap(scrap) => Form::Scrap { outline: scrap.outline.clone(), flaws: scrap.flaw_outlines() },
        }
    }

    /// One of it in words that are read back as the same.
    pub fn say(&self, system: System) -> String {
        match self {
            Self::Length { length, width: None, squared: false } => say_length(*length, system),
            Self::Length { length, width: None, squared: true } => format!("strip of {}", say_length(*length, system)),
            Self::Length { length, width: Some(width), .. } => {
                format!("{} of {} wide", say_length(*length, system), exactly(*width, system, show_size))
            }
            Self::Sheet { length, width } => match pre_cut(*length, *width, system) {
                Some(cut) => cut.names().0.to_owned(),
                None => say_size(*length, *width, system),
            },
            Self::Tube { length, width } => format!("tube of {}", say_size(*length, *width, system)),
            Self::Scrap(scrap) => format!("scrap {}", scrap.label),
        }
    }
}

impl AtHand {
    /// One thing, measured.
    pub const fn one(form: HandForm) -> Self {
        Self { count: 1, form, about: false }
    }

    /// In words that are read back as the same: `2 fat quarters`, `about ½ yd`, `3 of 10 × 12 in`.
    pub fn say(&self, system: System) -> String {
        let (n, one) = (self.count, self.form.say(system));
        let said = match &self.form {
            _ if n == 1 => one,
            HandForm::Scrap(_) => format!("{n} of {one}"),
            HandForm::Sheet { length, width } => match pre_cut(*length, *width, system) {
                Some(cut) => format!("{n} {}", cut.names().1),
                None => format!("{n} of {one}"),
            },
            HandForm::Tube { length, width } => format!("{n} tubes of {}", say_size(*length, *width, system)),
            HandForm::Length { length, squared: true, width: None } => {
                format!("{n} strips of {}", say_length(*length, system))
            }
            HandForm::Length { .. } => format!("{n} lengths of {one}"),
        };
        if self.about { format!("about {said}") } else { said }
    }
}

impl AtHand {
    /// In words for a list that is only read: of a scrap what it holds too.
    pub fn tell(&self, ruler: Ruler) -> String {
        let said = self.say(ruler.system());
        let down = |l: Length| ruler.show(l.floor_to(ruler.step())).text;
        match &self.form {
            HandForm::Scrap(scrap) => match scrap.holds() {
                Some((w, h)) => format!("{said}, holds {} × {} {}", down(h), down(w), ruler.system().symbol()),
                None => said,
            },
            _ => said,
        }
    }
}

/// All of `things`, one after the other, for a list that is only read.
pub fn tell_all(things: &[AtHand], ruler: Ruler) -> String {
    let between = if scraps(things).next().is_some() { "; " } else { ", " };
    things.iter().map(|t| t.tell(ruler)).collect::<Vec<_>>().join(between)
}

/// All of `things`, one after the other.
pub fn say_all(things: &[AtHand], system: System) -> String {
    things.iter().map(|t| t.say(system)).collect::<Vec<_>>().join(", ")
}

/// The scraps among `things`.
pub fn scraps(things: &[AtHand]) -> impl Iterator<Item = &Scrap> + Clone {
    things.iter().filter_map(|t| if let HandForm::Scrap(scrap) = &t.form { Some(scrap) } else { None })
}

/// Lays `thing` to `things`, beside what is alike, and gives it as it lies there: a scrap whose letter another one has
/// gets the next that is free.
pub fn put(things: &mut Vec<AtHand>, mut thing: AtHand) -> AtHand {
    if let Some(alike) = things.iter_mut().find(|t| t.form.is_like(&thing.form) && t.about == thing.about) {
        alike.count += thing.count;
        return AtHand { form: alike.form.clone(), ..thing };
    }
    if let HandForm::Scrap(scrap) = &mut thing.form {
        let taken = scraps(things).map(|s| s.label.as_str());
        if scrap.label.is_empty() || taken.clone().any(|label| label == scrap.label) {
            scrap.label = free_letters(taken);
        }
    }
    things.push(thing.clone());
    thing
}

/// Takes one thing like `form` off `things`, a measured one before a guess; nothing where there is none.
pub fn take(things: &mut Vec<AtHand>, form: &HandForm) -> Option<AtHand> {
    let there = |about: bool| things.iter().position(|t| t.form.is_like(form) && t.about == about);
    let at = there(false).or_else(|| there(true))?;
    let one = AtHand { count: 1, ..things[at].clone() };
    things[at].count -= 1;
    if things[at].count == 0 {
        things.remove(at);
    }
    Some(one)
}

fn pre_cut(length: Length, width: Length, system: System) -> Option<PreCut> {
    PreCut::ALL.into_iter().find(|cut| cut.size(system) == (length, width))
}

/// Exactly, in the system's own units where they can say it, else in the other's.
pub(super) fn exactly(length: Length, system: System, say: fn(Length, System) -> String) -> String {
    let other = if system == System::Inches { System::Centimetres } else { System::Inches };
    match [system, other].into_iter().find(|s| length.is_multiple_of(finest(*s))) {
        Some(system) => say(length, system),
        None => format!("{} {}", length.in_units(system), system.symbol()),
    }
}

fn say_length(length: Length, system: System) -> String {
    exactly(length, system, show_bought)
}

pub(super) fn say_size(length: Length, width: Length, system: System) -> String {
    let (long, wide) = (exactly(length, system, show_size), exactly(width, system, show_size));
    match (long.rsplit_once(' '), wide.rsplit_once(' ')) {
        // `3 × 20 in` could be three lengths.
        (Some((figure, _)), _) if figure.parse::<u32>().is_ok_and(|n| n <= 6) => format!("{long} × {wide}"),
        (Some((figure, unit)), Some((_, same))) if unit == same => format!("{figure} × {wide}"),
        _ => format!("{long} × {wide}"),
    }
}

/// What the words of a bought length can say.
const fn finest(system: System) -> Length {
    match system {
        System::Inches => Length::inches(1, 64),
        System::Centimetres => Length::MILLIMETRE,
    }
}

/// Reads the things there are; documents of before kept one length, or none.
pub(crate) fn kept<'de, D: Deserializer<'de>>(from: D) -> Result<Vec<AtHand>, D::Error> {
    #[derive(Deserialize)]
    #[serde(untagged)]
    enum Kept {
        Things(Vec<AtHand>),
        Owned(Option<Length>),
    }
    let things = match Kept::deserialize(from)? {
        Kept::Things(things) => things,
        Kept::Owned(length) => length.into_iter().map(|l| AtHand::one(HandForm::length(l))).collect(),
    };
    // Each copy is a cloth of a job.
    let count: u64 = things.iter().map(|t| u64::from(t.count)).sum();
    if count > MOST_KEPT {
        return Err(serde::de::Error::custom(format!("{count} things of one cloth: at most {MOST_KEPT} are read")));
    }
    Ok(things)
}

/// Things of one cloth that a document is read with: many times what is planned with.
pub(super) const MOST_KEPT: u64 = 5_000;

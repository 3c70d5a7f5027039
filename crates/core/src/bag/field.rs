//! The fields of a bag: named, grouped and bounded in one listing a family, which keeping, editing and showing all read.

use super::parts::ClothOf;
use crate::FieldProblem;
use crate::measure::{Length, Ruler, System, parse_length, split_lengths};
use crate::name::{MOST_LETTERS, clean};
use std::ops::RangeInclusive;

/// Where on the bag a field acts.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Group {
    /// Finished sizes, typed on the drawing.
    Size,
    /// The base and its corners.
    Base,
    /// The mouth: hem, casing, facing.
    Mouth,
    /// Zip, flap, button.
    Closure,
    /// How the outer is pieced or quilted.
    Front,
    /// Handles and straps.
    Straps,
    /// Drawcords.
    Cord,
    /// Pockets.
    Pocket,
    /// The lining.
    Lining,
    /// Fleece, interfacing.
    Backing,
    /// Bound edges.
    Binding,
    /// Loops, tabs, a label.
    Extras,
    /// Seam allowances.
    Seams,
}

impl Group {
    /// The group's name.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Size => "Size",
            Self::Base => "Base",
            Self::Mouth => "Mouth",
            Self::Closure => "Closure",
            Self::Front => "Front",
            Self::Straps => "Straps",
            Self::Cord => "Cord",
            Self::Pocket => "Pocket",
            Self::Lining => "Lining",
            Self::Backing => "Backing",
            Self::Binding => "Binding",
            Self::Extras => "Extras",
            Self::Seams => "Seams",
        }
    }

    /// The key it is known by outside.
    pub fn key(self) -> String {
        self.name().to_lowercase()
    }
}

/// One of the answers to a choice.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Answer {
    /// The key it is kept by.
    pub key: &'static str,
    /// What it is called.
    pub name: &'static str,
    /// What to know about it; may be empty.
    pub note: &'static str,
}

/// A choice between named answers; made by the macro `choice!`.
pub trait Choice {
    /// The answer that stands.
    fn answer(&self) -> &'static Answer;
    /// All answers.
    fn answers(&self) -> &'static [Answer];
    /// Takes the answer with `key`; false when there is none.
    fn choose(&mut self, key: &str) -> bool;
}

/// An enum whose variants are the answers to one question: `Variant = "key", "name", "note";`.
macro_rules! choice {
    ($(#[$meta:meta])* $name:ident { $($(#[$doc:meta])* $variant:ident = $key:literal, $label:literal, $note:literal;)+ }) => {
        $(#[$meta])*
        #[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
        pub enum $name { $($(#[$doc])* $variant,)+ }

        impl $name {
            const ANSWERS: &'static [$crate::bag::Answer] =
                &[$($crate::bag::Answer { key: $key, name: $label, note: $note },)+];

            /// Every answer.
            pub const ALL: &'static [Self] = &[$(Self::$variant,)+];
        }

        impl $crate::bag::Choice for $name {
            fn answer(&self) -> &'static $crate::bag::Answer {
                &Self::ANSWERS[*self as usize]
            }

            fn answers(&self) -> &'static [$crate::bag::Answer] {
                Self::ANSWERS
            }

            fn choose(&mut self, key: &str) -> bool {
                match Self::ANSWERS.iter().position(|a| a.key == key) {
                    Some(at) => {
                        *self = Self::ALL[at];
                        true
                    }
                    None => false,
                }
            }
        }

        impl serde::Serialize for $name {
            fn serialize<S: serde::Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
                serializer.serialize_str($crate::bag::Choice::answer(self).key)
            }
        }

        impl<'de> serde::Deserialize<'de> for $name {
            fn deserialize<D: serde::Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
                let key = <std::borrow::Cow<'de, str> as serde::Deserialize>::deserialize(deserializer)?;
                let mut chosen = Self::ALL[0];
                if $crate::bag::Choice::choose(&mut chosen, &key) {
                    return Ok(chosen);
                }
                let all: Vec<&str> = Self::ANSWERS.iter().map(|a| a.key).collect();
                Err(serde::de::Error::custom(format!("“{key}” is not among {}", all.join(", "))))
            }
        }
    };
}
pub(crate) use choice;

/// What a field holds and what it may be.
pub enum Slot<'a> {
    /// A length; the family says which stand.
    Length(&'a mut Length),
    /// One of several answers.
    Choice(&'a mut dyn Choice),
    /// Yes or no.
    Toggle(&'a mut bool),
    /// A number of things.
    Count(&'a mut u32, RangeInclusive<u32>),
    /// Words of the maker's own; may be empty.
    Text(&'a mut String),
    /// Several lengths in order, commas or semicolons between them; may be none.
    Lengths(&'a mut Vec<Length>),
    /// The cloths of several bands in order, by their keys with commas between them; may be none.
    Cloths(&'a mut Vec<ClothOf>),
}

/// More lengths in one field than these are a slip of the finger.
const MOST_LENGTHS: usize = 24;

/// More patches than these are no panel: twenty by twenty.
const MOST_CLOTHS: usize = 400;

/// One field of a bag.
pub struct Field<'a> {
    /// The key it is kept and edited by.
    pub key: &'static str,
    /// What it is called.
    pub label: &'static str,
    /// Where it acts.
    pub group: Group,
    /// It says nothing while another choice stands.
    pub idle: bool,
    /// It grows with the bag; seams, turns, straps and ease do not (the default of common practice).
    pub scales: bool,
    /// It reaches across the bag: with a wider bag it grows by as much.
    pub reaches: bool,
    /// What it holds.
    pub slot: Slot<'a>,
}

impl<'a> Field<'a> {
    /// A size of the bag or of a part of it.
    pub fn size(key: &'static str, label: &'static str, group: Group, value: &'a mut Length) -> Self {
        Self { key, label, group, idle: false, scales: false, reaches: false, slot: Slot::Length(value) }
    }

    /// A seam allowance or a turn.
    pub fn seam(key: &'static str, label: &'static str, value: &'a mut Length) -> Self {
        Self { key, label, group: Group::Seams, idle: false, scales: false, reaches: false, slot: Slot::Length(value) }
    }

    /// A choice.
    pub fn choice(key: &'static str, label: &'static str, group: Group, value: &'a mut dyn Choice) -> Self {
        Self { key, label, group, idle: false, scales: false, reaches: false, slot: Slot::Choice(value) }
    }

    /// Yes or no.
    pub fn toggle(key: &'static str, label: &'static str, group: Group, value: &'a mut bool) -> Self {
        Self { key, label, group, idle: false, scales: false, reaches: false, slot: Slot::Toggle(value) }
    }

    /// A number of things.
    pub fn count(
        key: &'static str,
        label: &'static str,
        group: Group,
        value: &'a mut u32,
        among: RangeInclusive<u32>,
    ) -> Self {
        Self { key, label, group, idle: false, scales: false, reaches: false, slot: Slot::Count(value, among) }
    }

    /// Words of the maker's own.
    pub fn text(key: &'static str, label: &'static str, group: Group, value: &'a mut String) -> Self {
        Self { key, label, group, idle: false, scales: false, reaches: false, slot: Slot::Text(value) }
    }

    /// Several lengths in order.
    pub fn lengths(key: &'static str, label: &'static str, group: Group, value: &'a mut Vec<Length>) -> Self {
        Self { key, label, group, idle: false, scales: false, reaches: false, slot: Slot::Lengths(value) }
    }

    /// The cloths of several bands in order.
    pub fn cloths(key: &'static str, label: &'static str, group: Group, value: &'a mut Vec<ClothOf>) -> Self {
        Self { key, label, group, idle: false, scales: false, reaches: false, slot: Slot::Cloths(value) }
    }

    /// The same field, acting elsewhere.
    #[must_use]
    pub fn within(self, group: Group) -> Self {
        Self { group, ..self }
    }

    /// The same field, growing with the bag.
    #[must_use]
    pub fn scaling(self) -> Self {
        Self { scales: true, ..self }
    }

    /// The same field, reaching across the bag.
    #[must_use]
    pub fn reaching(self) -> Self {
        Self { reaches: true, ..self }
    }

    /// The same field, silent unless `used`.
    #[must_use]
    pub fn only_if(self, used: bool) -> Self {
        Self { idle: self.idle || !used, ..self }
    }

    /// What it is called and what it holds: `Tall: 14 in`; lengths by `ruler`, `label` by itself of what has no short answer.
    pub fn told(&self, ruler: Ruler) -> String {
        let show = |l: Length| format!("{} {}", ruler.show(l).text, ruler.system().symbol());
        let holds = match &self.slot {
            Slot::Length(length) => show(**length),
            Slot::Choice(choice) => choice.answer().name.to_lowercase(),
            Slot::Toggle(on) => if **on { "yes" } else { "no" }.to_owned(),
            Slot::Count(count, _) => count.to_string(),
            Slot::Text(text) => text.to_string(),
            Slot::Lengths(lengths) => lengths.iter().map(|l| show(*l)).collect::<Vec<_>>().join(", "),
            Slot::Cloths(_) => String::new(),
        };
        // What follows a semicolon is said to whoever types.
        let name = self.label.split(';').next().unwrap_or_default();
        if holds.is_empty() { name.to_owned() } else { format!("{name}: {holds}") }
    }

    /// Takes `value` as the maker typed or chose it; a number without a unit is in `system`'s.
    ///
    /// # Errors
    /// What was typed cannot be read or is not among the answers, with what is allowed.
    pub fn set(&mut self, value: &str, system: System) -> Result<(), FieldProblem> {
        let plain = value.trim();
        let refuse = |message: String| Err(FieldProblem::new(self.key, value, message));
        match &mut self.slot {
            Slot::Length(length) => **length = read_length(self.key, plain, system)?,
            Slot::Lengths(lengths) => {
                let typed = split_lengths(plain);
                if typed.len() > MOST_LENGTHS {
                    let many = typed.len();
                    return refuse(format!("{many} lengths will not do: at most {MOST_LENGTHS} are allowed."));
                }
                **lengths = typed.into_iter().map(|t| read_length(self.key, t, system)).collect::<Result<_, _>>()?;
            }
            Slot::Cloths(cloths) => {
                let mut found = vec![];
                for typed in plain.split([',', ';']).map(str::trim).filter(|t| !t.is_empty()) {
                    let mut cloth = ClothOf::ALL[0];
                    if !cloth.choose(typed) {
                        let all: Vec<&str> = cloth.answers().iter().map(|a| a.key).collect();
                        return refuse(format!("“{typed}” is not a choice here: {}.", all.join(", ")));
                    }
                    found.push(cloth);
                }
                if found.len() > MOST_CLOTHS {
                    return refuse(format!("{} cloths will not do: at most {MOST_CLOTHS} are allowed.", found.len()));
                }
                **cloths = found;
            }
            Slot::Text(text) => {
                let words = clean(plain);
                let many = words.chars().count();
                if many > MOST_LETTERS {
                    return refuse(format!("These are {many} letters: at most {MOST_LETTERS} are allowed."));
                }
                **text = words;
            }
            Slot::Choice(choice) => {
                if !choice.choose(plain) {
                    let all: Vec<&str> = choice.answers().iter().map(|a| a.key).collect();
                    return refuse(format!("“{plain}” is not a choice here: {}.", all.join(", ")));
                }
            }
            Slot::Toggle(on) => match plain {
                "yes" | "true" => **on = true,
                "no" | "false" => **on = false,
                _ => return refuse(format!("“{plain}” is not a choice here: yes or no.")),
            },
            Slot::Count(count, among) => match plain.parse::<u32>() {
                Ok(n) if among.contains(&n) => **count = n,
                _ => {
                    let (least, most) = (among.start(), among.end());
                    return refuse(format!("“{plain}” will not do: a whole number from {least} to {most}."));
                }
            },
        }
        Ok(())
    }
}

/// The length `typed` into the field `key`.
fn read_length(key: &str, typed: &str, system: System) -> Result<Length, FieldProblem> {
    parse_length(typed, system).map_err(|e| FieldProblem::new(key, typed, sentence(&e.to_string())))
}

/// Of the field `key` among `fields`, what it is called and holds.
pub(crate) fn told(fields: &[Field<'_>], key: &str, ruler: Ruler) -> String {
    fields.iter().find(|f| f.key == key).map_or_else(|| key.to_owned(), |f| f.told(ruler))
}

/// `text` as it stands within a sentence.
pub(crate) fn within_a_sentence(text: &str) -> String {
    let mut chars = text.chars();
    let start: String = chars.next().map(|c| c.to_lowercase().collect()).unwrap_or_default();
    format!("{start}{}", chars.as_str())
}

/// `text` with a capital and a full stop.
pub(crate) fn sentence(text: &str) -> String {
    let mut chars = text.chars();
    let start: String = chars.next().map(|c| c.to_uppercase().collect()).unwrap_or_default();
    let stop = if text.ends_with(['?', '.']) { "" } else { "." };
    format!("{start}{}{stop}", chars.as_str())
}

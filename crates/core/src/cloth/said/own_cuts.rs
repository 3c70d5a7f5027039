//! Pre-cuts of one's own: what a house calls a size it always has, `swap square` or its own `fat quarter`, and what can be
//! used of one. Where such a name is said, its size is read.

use super::size::both_sides;
use super::words::{count_of, is_said_of_cloth};
use crate::FieldProblem;
use crate::cloth::at_hand::say_size;
use crate::measure::{Length, System};
use crate::name::named;
use serde::{Deserialize, Serialize};

/// A pre-cut of one's own.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct OwnCut {
    /// What one is called.
    pub name: String,
    /// Along the selvedge.
    pub length: Length,
    /// Across.
    pub width: Length,
    /// The system its size is told in.
    pub system: System,
}

/// Own pre-cuts that are kept at most.
pub const MOST_OWN_CUTS: usize = 60;

/// Letters of the shortest name: shorter ones are units and words between sizes.
const LEAST_LETTERS: usize = 3;

impl OwnCut {
    /// Reads what is typed of one: its name, and its size along the selvedge and across.
    ///
    /// # Errors
    /// A name that is none, has figures in it or is a word of cloth and sizes already; a size that is none.
    pub fn read(name: &str, size: &str, system: System) -> Result<Self, FieldProblem> {
        let name = named("name", name)?;
        let refuse = |message: String| Err(FieldProblem::new("name", &name, message));
        let letters = |c: char| c.is_alphabetic() || matches!(c, ' ' | '-' | '\'' | '’');
        if !name.chars().all(letters) || name.chars().filter(|c| c.is_alphabetic()).count() < LEAST_LETTERS {
            return refuse(format!("“{name}”: a name of {LEAST_LETTERS} letters or more, without figures."));
        }
        if name.split([' ', '-']).any(|word| word.eq_ignore_ascii_case("and")) {
            return refuse(format!("“{name}”: “and” parts one thing from the next."));
        }
        if name.split_whitespace().all(is_said_of_cloth) {
            return refuse(format!("“{name}” already means something else. Add a word to the name."));
        }
        let told = |why: String| FieldProblem::new("size", size, why);
        let sides = size.to_lowercase().replace(['×', '*'], " x ").replace(" by ", " x ");
        if sides.trim().is_empty() {
            return Err(told("Say its size, along the selvedge first: 6 x 6.".to_owned()));
        }
        let (length, width) =
            both_sides(sides.trim(), system).map_err(|why| told(format!("“{}”: {why}", size.trim())))?;
        Ok(Self { name, length, width, system })
    }

    /// Its size in words that are read back as the same.
    pub fn size(&self) -> String {
        say_size(self.length, self.width, self.system)
    }
}

/// `text` with the size of every one of `own` where its name is said by itself or counted: `3 swap squares` is `3 of 6 in ×
/// 6 in`. Where anything else is said of it, `half a swap square`, it stays as it is.
pub fn in_sizes(text: &str, own: &[OwnCut]) -> String {
    // A longer name is not taken for a shorter one in it.
    let mut longest: Vec<&OwnCut> = own.iter().collect();
    longest.sort_by_key(|cut| std::cmp::Reverse(cut.name.chars().count()));
    longest.into_iter().fold(text.to_owned(), |text, cut| with_size(&text, cut))
}

fn with_size(text: &str, cut: &OwnCut) -> String {
    let chars: Vec<char> = text.chars().collect();
    let name: Vec<char> = cut.name.chars().collect();
    let alike = |a: &char, b: &char| a == b || a.to_lowercase().eq(b.to_lowercase());
    let (mut said, mut at) = (String::new(), 0);
    while at < chars.len() {
        let begins = at == 0 || !chars[at - 1].is_alphanumeric();
        let is_it =
            begins && chars[at..].len() >= name.len() && chars[at..].iter().zip(&name).all(|(a, b)| alike(a, b));
        let counted = is_it.then(|| {
            let after: String = chars[at + name.len()..].iter().collect();
            // Of one, or of several.
            let rest =
                ["es", "s", ""].into_iter().filter_map(|s| after.strip_prefix(s)).find(|rest| stands_alone(rest))?;
            Some((before_size(&said)?, chars.len() - rest.chars().count()))
        });
        if let Some((before, end)) = counted.flatten() {
            said = before + &cut.size();
            at = end;
        } else {
            said.push(chars[at]);
            at += 1;
        }
    }
    said
}

/// Nothing is said of a thing after its name but the cloth it is of.
fn stands_alone(after: &str) -> bool {
    let rest = after.trim_start();
    let ends = rest.is_empty() || rest.starts_with([',', ';', '+', '&', '\n']);
    ends || (rest.len() < after.len() && ["of ", "and "].iter().any(|word| rest.starts_with(word)))
}

/// What is said up to a name, as it stands up to a size: a count says `of`, a single one nothing. Nothing where more than
/// how many is said before it.
fn before_size(said: &str) -> Option<String> {
    let begins = said.rfind([',', ';', '+', '&', '\n']).map_or(0, |at| at + 1);
    let begins = said[begins..].rfind(" and ").map_or(begins, |at| begins + at + " and ".len());
    let (others, mine) = said.split_at(begins);
    let lead = &mine[..mine.len() - mine.trim_start().len()];
    let words = mine.trim().to_lowercase();
    let (about, count) = match words.strip_prefix("about").or_else(|| words.strip_prefix("roughly")) {
        Some(count) if count.is_empty() || count.starts_with(' ') => ("about ", count.trim()),
        _ => ("", words.as_str()),
    };
    let many = if matches!(count, "" | "another" | "the") { 1 } else { count_of(count)? };
    let of_it = if many == 1 { String::new() } else { format!("{many} of ") };
    Some(format!("{others}{lead}{about}{of_it}"))
}

//! What people say they have, read: `2 fat quarters`, `half a yard and 60 cm`, `18 x 22`, `three squares of 5 in`.
//!
//! `and`, `+`, `&`, `;` and commas part one thing from the next; they are never summed. The first of two sizes runs along the
//! selvedge. What can be meant in two ways is asked, with what each answer would be written as; a word that is not
//! understood is named. Nothing is guessed. Readings are common practice.

mod forms;
mod length;
mod outline;
mod own_cuts;
mod size;
mod words;

use super::at_hand::{AtHand, HandForm, put, scraps};
use crate::measure::{Length, System, Unit};
use crate::problem::Answer;
use forms::{full_width, of_width, paper_size, pre_cut, squares_or_strips, tubes};
use length::length;
use outline::{by_outline, drawn, less_a_corner};
pub use own_cuts::{MOST_OWN_CUTS, OwnCut, in_sizes};
use size::size;
pub(crate) use size::{both_sides, sides};
use thiserror::Error;
pub(crate) use words::unit_of;

/// A thing that can be meant in more than one way.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Question {
    /// The words it is about.
    pub said: String,
    /// The question, a sentence.
    pub ask: String,
    /// What may be answered.
    pub answers: Vec<Answer>,
}

/// Why what was said is not taken yet.
#[derive(Clone, Debug, PartialEq, Eq, Error)]
pub enum NotRead {
    /// It can be meant in more than one way.
    #[error("{}", .0.ask)]
    Asked(Question),
    /// Words, or a size, that mean nothing here.
    #[error("“{said}”: {why}")]
    Unread {
        /// The words.
        said: String,
        /// What would do, a sentence.
        why: String,
    },
}

/// What one thing comes to.
enum Read {
    Thing(AtHand),
    /// So many of the scrap that is drawn already under this letter.
    Drawn(u32, String),
    /// The question, and for every answer its label and how the thing is written then.
    Ask(String, Vec<(String, String)>),
    Unread(String),
}

/// Most things alike that are taken as meant.
const MOST_ALIKE: u32 = 500;

/// Reads `text` of a cloth called `cloth`, bare numbers in the units of `system`. Nothing, `none` or `0` is nothing at hand.
/// A scrap that is `there` already is named by its letter.
///
/// # Errors
/// The first thing that is to be asked, or that is not understood.
pub fn read_at_hand(text: &str, cloth: &str, there: &[AtHand], system: System) -> Result<Vec<AtHand>, NotRead> {
    let items = items(text);
    if let Some(asked) = one_or_two(text, &items).or_else(|| of_each(&items)) {
        return Err(asked);
    }
    let nothing = |only: &String| matches!(only.to_lowercase().as_str(), "none" | "0" | "nothing");
    if items.len() == 1 && items.iter().all(nothing) {
        return Ok(vec![]);
    }
    let mut drawn = Vec::new();
    for (n, item) in items.iter().enumerate() {
        match read(item, cloth, system) {
            Read::Thing(thing) => drawn.push(thing),
            Read::Drawn(count, label) => match scraps(there).find(|s| s.label == label) {
                Some(scrap) => drawn.push(AtHand { count, ..AtHand::one(HandForm::Scrap(scrap.clone())) }),
                None => return Err(NotRead::Unread { said: item.clone(), why: not_drawn(&label, there) }),
            },
            Read::Ask(ask, answers) => return Err(asked(&items, n, ask, answers)),
            Read::Unread(why) => return Err(NotRead::Unread { said: item.clone(), why }),
        }
    }
    // New scraps get letters that none of those has which are named.
    let (mut things, new): (Vec<AtHand>, Vec<AtHand>) =
        drawn.into_iter().partition(|t| !scraps(std::slice::from_ref(t)).any(|s| s.label.is_empty()));
    new.into_iter().for_each(|thing| drop(put(&mut things, thing)));
    Ok(things)
}

/// What is said of a scrap that is not there.
fn not_drawn(label: &str, there: &[AtHand]) -> String {
    let known: Vec<&str> = scraps(there).map(|s| s.label.as_str()).collect();
    match known.as_slice() {
        [] => "no scrap of this cloth is drawn yet: draw it on the table, or say its size.".into(),
        known => format!("this cloth has no scrap {label}, only {}. Draw it on the table first.", known.join(", ")),
    }
}

/// The question about item `n`, every answer with the other items beside it.
fn asked(items: &[String], n: usize, ask: String, answers: Vec<(String, String)>) -> NotRead {
    let whole = |said: &str| {
        let each = items.iter().enumerate().map(|(k, other)| if k == n { said } else { other.as_str() });
        each.collect::<Vec<_>>().join(", ")
    };
    let answers = answers.into_iter().map(|(label, said)| Answer { label, text: whole(&said) }).collect();
    NotRead::Asked(Question { said: items[n].clone(), ask, answers })
}

/// Reads `text` of several `cloths`, by name: `2 fat quarters of pea stripe, half a yard of canvas`. Gives for every thing
/// which of them it is of. A few words of a name do where no other cloth has them.
///
/// # Errors
/// As [`read_at_hand`]; and a cloth that is not named where there are several, or that no cloth is called.
pub fn read_of_cloths(text: &str, cloths: &[&str], system: System) -> Result<Vec<(usize, AtHand)>, NotRead> {
    let items = items(text);
    let mut things = Vec::new();
    for (n, item) in items.iter().enumerate() {
        let asked = |ask: String, answers| asked(&items, n, ask, answers);
        let named = named(item, cloths);
        let which = |bare: &str| {
            cloths.iter().map(|name| ((*name).to_owned(), format!("{bare} of {name}"))).collect::<Vec<_>>()
        };
        let (cloth, name) = match named.as_slice() {
            [(one, _)] => (*one, cloths[*one]),
            [] if cloths.len() == 1 => (0, cloths[0]),
            [] => {
                return Err(match read(item, "", system) {
                    Read::Thing(_) | Read::Drawn(..) => asked(format!("“{item}”: of which cloth?"), which(item)),
                    Read::Ask(ask, answers) => asked(ask, answers),
                    Read::Unread(why) => NotRead::Unread { said: item.clone(), why: nothing_called(item, why) },
                });
            }
            several => {
                let bare = several.first().map_or(item.as_str(), |(_, at)| item[..*at].trim());
                let answers = several.iter().map(|(at, _)| cloths[*at]);
                let answers = answers.map(|name| (name.to_owned(), format!("{bare} of {name}"))).collect();
                return Err(asked(format!("“{item}”: which of them?"), answers));
            }
        };
        match read(item, name, system) {
            Read::Thing(thing) => things.push((cloth, thing)),
            Read::Drawn(..) => {
                let why = "draw one more scrap on the table; those that are drawn lie there already.".into();
                return Err(NotRead::Unread { said: item.clone(), why });
            }
            // The answer stays of the cloth that was named.
            Read::Ask(ask, answers) => {
                let of_it = answers.into_iter().map(|(label, said)| (label, format!("{said} of {name}")));
                return Err(asked(ask, of_it.collect()));
            }
            Read::Unread(why) => return Err(NotRead::Unread { said: item.clone(), why }),
        }
    }
    Ok(things)
}

/// The cloths that `item` may be of by its last words, and where those begin; one that is called exactly so alone.
fn named(item: &str, cloths: &[&str]) -> Vec<(usize, usize)> {
    let lower = item.to_lowercase();
    if lower.len() != item.len() {
        return vec![];
    }
    for (at, _) in lower.match_indices(" of ") {
        let said = lower[at + 4..].trim().trim_start_matches("the ").to_owned();
        let has = |name: &str| {
            let name = name.to_lowercase();
            !said.is_empty() && said.split(' ').all(|w| name.split_whitespace().any(|n| n == w))
        };
        let found: Vec<(usize, usize)> =
            cloths.iter().enumerate().filter(|(_, name)| has(name)).map(|(n, _)| (n, at)).collect();
        let exactly = found.iter().find(|(n, _)| cloths[*n].to_lowercase() == said).copied();
        if !found.is_empty() {
            return exactly.map_or(found, |one| vec![one]);
        }
    }
    vec![]
}

/// Where the words after `of` name no cloth, that is what is wrong.
fn nothing_called(item: &str, why: String) -> String {
    match item.rsplit_once(" of ") {
        Some((_, name)) if name.chars().any(char::is_alphabetic) && unit_of(&name.to_lowercase()).is_none() => {
            format!("there is no cloth called “{}” here. Add it first.", name.trim())
        }
        _ => why,
    }
}

/// Parted at `;`, new lines, `+`, `&`, `plus`, commas that are no decimal commas, and `and` where it does not go on with a
/// fraction.
fn items(text: &str) -> Vec<String> {
    let chars: Vec<char> = text.chars().collect();
    let figure = |at: Option<usize>| at.and_then(|at| chars.get(at)).is_some_and(char::is_ascii_digit);
    let mut parts = vec![String::new()];
    for (n, &c) in chars.iter().enumerate() {
        let decimal = c == ',' && figure(n.checked_sub(1)) && figure(Some(n + 1));
        if matches!(c, ';' | '\n' | '+' | '&') || (c == ',' && !decimal) {
            parts.push(String::new());
        } else if let Some(part) = parts.last_mut() {
            part.push(c);
        }
    }
    let mut found: Vec<String> = Vec::new();
    for part in parts {
        let halves = split_word(&part, "plus").into_iter().flat_map(|half| split_word(half, "and"));
        for (k, half) in halves.enumerate() {
            let half = half.trim();
            match found.last_mut() {
                // `a yard and a half`, `one and a half yards`.
                Some(before) if k > 0 && goes_on(before, half) => {
                    before.push_str(" and ");
                    before.push_str(half);
                }
                // `¾ yd, a bit short`.
                Some(before) if matches!(half, "bit short" | "a bit short" | "or so" | "roughly" | "about") => {
                    before.insert_str(0, "about ");
                }
                // `wedge 30 to 18, 40 tall`; `L, 20 x 20 less 8 x 8`.
                Some(before) if is_wedge(before) && half.ends_with(" tall") => {
                    before.push_str(" x ");
                    before.push_str(half);
                }
                Some(before) if matches!(before.as_str(), "L" | "l") => {
                    before.push(' ');
                    before.push_str(half);
                }
                _ if half.is_empty() => {}
                _ => found.push(half.to_owned()),
            }
        }
    }
    found
}

/// `2 yd and 5 in` may be one length or two: the second is less than a unit of the first.
fn one_or_two(text: &str, items: &[String]) -> Option<NotRead> {
    let lower = text.to_lowercase();
    let term = |item: &str| -> Option<(f64, Unit)> {
        let at = item.find(|c: char| !c.is_ascii_digit() && c != '.')?;
        Some((item[..at].parse().ok()?, Unit::named(item[at..].trim().trim_end_matches('.'))?))
    };
    items.windows(2).enumerate().find_map(|(n, two)| {
        let ((whole, larger), (some, smaller)) = (term(&two[0].to_lowercase())?, term(&two[1].to_lowercase())?);
        let less = some * smaller.length().0 as f64 <= larger.length().0 as f64 * 0.75;
        let joined = lower.contains(&format!("{} and {}", two[0], two[1]).to_lowercase());
        let fits = matches!(
            (larger, smaller),
            (Unit::Yard, Unit::Foot | Unit::Inch) | (Unit::Foot, Unit::Inch) | (Unit::Metre, Unit::Centimetre)
        );
        (less && joined && fits && whole.fract() == 0.0).then(|| {
            let whole = |said: String| {
                let before = items[..n].iter().cloned();
                before.chain([said]).chain(items[n + 2..].iter().cloned()).collect::<Vec<_>>().join(", ")
            };
            let (one, two) = (format!("{} {}", two[0], two[1]), format!("{}, {}", two[0], two[1]));
            let said = one.clone();
            NotRead::Asked(Question {
                ask: format!("“{one}”: one length, or two?"),
                said,
                answers: vec![
                    Answer { label: format!("one length, {one}"), text: whole(one) },
                    Answer { label: format!("two lengths, {two}"), text: whole(two) },
                ],
            })
        })
    })
}

/// `2 each of 18 x 22 and 9 x 11`: two of both, or of the first alone?
fn of_each(items: &[String]) -> Option<NotRead> {
    let (n, (count, first)) =
        items.iter().enumerate().find_map(|(n, item)| Some((n, item.split_once(" each of ")?)))?;
    let after = items.get(n + 1..).filter(|rest| !rest.is_empty())?;
    let whole = |said: Vec<String>| items[..n].iter().cloned().chain(said).collect::<Vec<_>>().join(", ");
    let all = [first].into_iter().chain(after.iter().map(String::as_str));
    let each = whole(all.map(|item| format!("{count} of {item}")).collect());
    let one = whole([format!("{count} of {first}")].into_iter().chain(after.iter().cloned()).collect());
    let answers = [each, one].map(|text| Answer { label: text.clone(), text });
    let ask = format!("“{}”: {count} of which?", items[n]);
    Some(NotRead::Asked(Question { said: items[n].clone(), ask, answers: answers.into() }))
}

fn is_wedge(said: &str) -> bool {
    let said = said.to_lowercase();
    said.contains("wedge ") && said.contains(" to ") && !said.contains(" x ")
}

fn split_word<'a>(text: &'a str, word: &str) -> Vec<&'a str> {
    let pattern = format!(" {word} ");
    // Lower case keeps the places of letters people write such lists in; where it does not, nothing is parted.
    let lower = text.to_lowercase();
    if lower.len() != text.len() {
        return vec![text];
    }
    let mut halves = Vec::new();
    let mut start = 0;
    for (at, _) in lower.match_indices(&pattern) {
        if at >= start {
            halves.push(&text[start..at]);
            start = at + pattern.len();
        }
    }
    halves.push(&text[start..]);
    halves
}

/// Whether `half` is the fraction of a length begun by `before`: one of the two says a unit, not both.
fn goes_on(before: &str, half: &str) -> bool {
    let lower = half.to_lowercase();
    let words: Vec<&str> = lower.split_whitespace().collect();
    let first = match words.as_slice() {
        ["a" | "an" | "one" | "three", rest @ ..] | rest => rest.first().copied().unwrap_or_default(),
    };
    let fraction = matches!(first, "half" | "quarter" | "quarters" | "third" | "eighth");
    let told = |text: &str| text.to_lowercase().split_whitespace().any(|w| Unit::named(w).is_some());
    let is_length =
        |text: &str| !["fat", "fq", "square", "strip", "x", "×"].iter().any(|w| text.to_lowercase().contains(w));
    fraction && told(before) != told(half) && is_length(before) && is_length(half)
}

fn read(item: &str, cloth: &str, system: System) -> Read {
    let lower = with_times(&item.to_lowercase()).replace(" by ", " x ");
    let lower = lower.split_whitespace().collect::<Vec<_>>().join(" ");
    let (about, said) = without_about(&lower);
    let said = without_cloth(&said, cloth);
    match read_one(&said, system) {
        Read::Thing(thing) if thing.count > MOST_ALIKE => {
            Read::Unread(format!("{} alike: at most {MOST_ALIKE} are planned with.", thing.count))
        }
        Read::Thing(thing) => Read::Thing(AtHand { about: thing.about || about, ..thing }),
        other => other,
    }
}

/// With an x for every sign of multiplication: close to a number after it where it stands so, else between spaces.
fn with_times(text: &str) -> String {
    let mut plain = String::with_capacity(text.len());
    let mut signs = text.chars().peekable();
    while let Some(c) = signs.next() {
        let tight = plain.ends_with(' ') && signs.peek().is_some_and(char::is_ascii_digit);
        match (c, tight) {
            ('×' | '*', true) => plain.push('x'),
            ('×' | '*', false) => plain.push_str(" x "),
            _ => plain.push(c),
        }
    }
    plain
}

/// A count close to its sign at the end, `9x14 x3`, and what there are so many of.
fn count_after(said: &str) -> Option<(&str, u32)> {
    let (rest, count) = said.rsplit_once(" x")?;
    let n = count.parse().ok().filter(|n| *n > 0)?;
    // A length before it may be a side: `60 cm x3`.
    let named = rest.ends_with(char::is_alphabetic) && unit_of(rest).is_none();
    let whole = sides(rest).is_some() || named;
    (whole && count.starts_with(|c: char| c.is_ascii_digit())).then_some((rest.trim(), n))
}

/// Without the words that make it a guess, and whether there were any.
fn without_about(said: &str) -> (bool, String) {
    const BEFORE: [&str; 10] =
        ["about ", "around ", "approximately ", "approx. ", "approx ", "roughly ", "nearly ", "almost ", "ca. ", "~"];
    const AFTER: [&str; 3] = [" or so", " roughly", "-ish"];
    let said = said.strip_prefix("i have ").unwrap_or(said).trim();
    let before = BEFORE.into_iter().find_map(|word| said.strip_prefix(word));
    let rest = before.unwrap_or(said);
    let after = AFTER.into_iter().find_map(|word| rest.strip_suffix(word));
    (before.is_some() || after.is_some(), after.unwrap_or(rest).trim().to_owned())
}

/// Without `of pea stripe` where the cloth is called so.
fn without_cloth(said: &str, cloth: &str) -> String {
    let named = cloth.to_lowercase();
    let of_it = |words: &str| !words.is_empty() && words.split(' ').all(|w| named.split_whitespace().any(|n| n == w));
    for (at, _) in said.match_indices(" of ") {
        let after = said[at + 4..].trim_start_matches("the ");
        if of_it(after) {
            return said[..at].to_owned();
        }
    }
    said.to_owned()
}

fn read_one(said: &str, system: System) -> Read {
    if let Some((rest, n)) = count_after(said) {
        return match read_one(rest, system) {
            Read::Thing(thing) if thing.count == 1 => Read::Thing(AtHand { count: n, ..thing }),
            Read::Thing(_) | Read::Drawn(..) => {
                Read::Unread("say how many there are once, such as 3 of 9 x 14.".into())
            }
            other => other,
        };
    }
    let by_name =
        [drawn, less_a_corner, by_outline, tubes, full_width, of_width, pre_cut, paper_size, squares_or_strips];
    let named = by_name.into_iter().find_map(|read| read(said, system));
    named.unwrap_or_else(|| match sides(said) {
        Some((left, right)) => size(&left, &right, system),
        None => length(said, system),
    })
}

fn thing(count: u32, form: HandForm) -> Read {
    Read::Thing(AtHand { count, ..AtHand::one(form) })
}

const fn sheet(count: u32, length: Length, width: Length) -> AtHand {
    AtHand { count, form: HandForm::Sheet { length, width }, about: false }
}

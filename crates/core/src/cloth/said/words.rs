//! The words and counts of what is said.

use crate::measure::{LONGEST, Length, ParseLengthError, Unit, number_word};

/// Whether `word` says how much, how large or of what form a piece of cloth is, by itself.
pub(super) fn is_said_of_cloth(word: &str) -> bool {
    const FORMS: [&str; 20] = [
        "square", "squares", "strip", "strips", "triangle", "wedge", "circle", "half", "less", "corner", "wide",
        "tall", "tube", "tubes", "across", "with", "and", "none", "nothing", "about",
    ];
    let word = word.to_lowercase();
    let is_in = |words: &[&str]| words.contains(&word.as_str());
    Unit::named(&word).is_some() || is_in(&NOUNS) || is_in(&TUBES) || is_in(&FORMS) || count_of(&word).is_some()
}

/// Words that name a piece of cloth and say nothing more of it.
pub(super) const NOUNS: [&str; 22] = [
    "piece",
    "pieces",
    "remnant",
    "remnants",
    "scrap",
    "scraps",
    "offcut",
    "offcuts",
    "sheet",
    "sheets",
    "rectangle",
    "rectangles",
    "panel",
    "panels",
    "bit",
    "bits",
    "each",
    "cut",
    "cuts",
    "length",
    "lengths",
    "fabric",
];

/// What may still be two layers.
pub(super) const TUBES: [&str; 12] = [
    "leg",
    "legs",
    "sleeve",
    "sleeves",
    "tube",
    "tubes",
    "pillowcase",
    "pillowcases",
    "pillow",
    "trouser",
    "jeans",
    "trousers",
];

/// The unit a side ends in, if it says one.
pub(crate) fn unit_of(side: &str) -> Option<&str> {
    if let Some(sign) = ["''", "\"", "”", "″", "’’", "'", "’", "′"].into_iter().find(|sign| side.ends_with(sign))
    {
        return Some(sign);
    }
    let word = side.rsplit(|c: char| !c.is_alphabetic()).next().filter(|w| !w.is_empty())?;
    Unit::named(word).map(|_| word)
}

/// Without words that only name a piece; and whether one of them may be a tube.
pub(super) fn without_nouns(side: &str) -> (String, bool) {
    let mut tubed = false;
    let kept: Vec<&str> = side
        .split(' ')
        .filter(|w| {
            let tube = TUBES.contains(w);
            tubed |= tube;
            !tube && !NOUNS.contains(w)
        })
        .collect();
    (kept.join(" "), tubed)
}

/// A count at the front of a size: `2 @ 18`, `two trouser legs 14`, `3 pieces 20`, `2: 18`.
pub(super) fn counted_size(left: &str) -> (Option<u32>, String) {
    let mark = left.find(['@', ':']).map(|at| (left[..at].trim().to_owned(), left[at + 1..].trim().to_owned()));
    if let Some((Some(n), rest)) = mark.map(|(n, rest)| (count_of(&n), rest)) {
        return (Some(n), rest);
    }
    if let Some((n, rest)) = left.split_once(" of ") {
        let (n, _) = without_nouns(n);
        if let Some(n) = count_of(&n) {
            return (Some(n), rest.to_owned());
        }
    }
    let words: Vec<&str> = left.split(' ').collect();
    // `two 14`: a count in words; `2 pieces 14`: a count before what it counts.
    match words.as_slice() {
        [n, rest @ ..] if !rest.is_empty() && number_word(n).is_some() => (number_word(n), rest.join(" ")),
        [n, noun, rest @ ..]
            if !rest.is_empty() && n.parse::<u32>().is_ok() && (NOUNS.contains(noun) || TUBES.contains(noun)) =>
        {
            (n.parse().ok(), words[1..].join(" "))
        }
        ["a" | "an", rest @ ..] if !rest.is_empty() => (Some(1), rest.join(" ")),
        _ => (None, left.to_owned()),
    }
}

/// A count at the front of a length: `2 lengths of 60 cm`, `three lengths of half a yard`.
pub(super) fn counted_lengths(said: &str) -> (Option<u32>, String) {
    for word in ["lengths of ", "length of ", "pieces of ", "piece of ", "cuts of ", "lengths, ", "@ "] {
        if let Some((Some(n), rest)) = said.split_once(word).map(|(n, rest)| (count_of(n.trim()), rest)) {
            return (Some(n), rest.to_owned());
        }
    }
    (None, said.to_owned())
}

/// A count, then the rest: `20 5 in`.
pub(super) fn counted(said: &str) -> (Option<u32>, String) {
    let (first, rest) = said.split_once(' ').unwrap_or((said, ""));
    let rest = rest.trim_start_matches("x ").to_owned();
    if first == "a" && rest.starts_with("dozen") {
        return (Some(12), rest.trim_start_matches("dozen").trim().to_owned());
    }
    match count_of(first) {
        Some(n) if first != "a" => (Some(n), rest),
        _ => (None, said.to_owned()),
    }
}

/// `3`, `3 x`, `three`, `a`, `a dozen`, `a couple of`.
pub(super) fn count_of(said: &str) -> Option<u32> {
    let said = said.trim_end_matches([':', '@']).trim().trim_end_matches(" x").trim_end_matches(" of").trim();
    let figures = said.trim_end_matches('x').trim_end_matches("no.").trim();
    figures.parse().ok().filter(|n| *n > 0).or_else(|| match said {
        "a" | "an" => Some(1),
        "a couple" | "a pair" | "couple" | "pair" => Some(2),
        "a dozen" => Some(12),
        _ => number_word(said),
    })
}

pub(super) fn sentence(error: &ParseLengthError) -> String {
    match error {
        ParseLengthError::Empty => "say how large: half a yard, 18 x 22, 2 fat quarters.".into(),
        ParseLengthError::Unreadable { text } => {
            format!(
                "“{text}” is not understood. Say a length (half a yard), a size (18 x 22) or pre-cuts (2 fat quarters)."
            )
        }
        ParseLengthError::Inexact { .. } | ParseLengthError::Thousands { .. } => format!("{error}."),
        ParseLengthError::Negative { .. } => "a size is never negative.".into(),
        ParseLengthError::TooLong { .. } => {
            format!("that is over {} m: is the unit right?", LONGEST.0 / Length::METRE.0)
        }
    }
}

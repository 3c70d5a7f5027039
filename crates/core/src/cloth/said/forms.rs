//! Things with a name of their own: pre-cuts, squares, strips, lengths of another width.

use super::size::{sides, size};
use super::words::{count_of, counted, counted_lengths, is_said_of_cloth, sentence, without_nouns};
use super::{Read, thing};
use crate::cloth::at_hand::{AtHand, HandForm, PreCut};
use crate::measure::{Length, System, parse_length};

/// `9" WOF`, `17 by the width`: as long as that, from selvedge to selvedge.
pub(super) fn full_width(said: &str, system: System) -> Option<Read> {
    const WORDS: [&str; 6] = [" x the width", " x width", " x wof", " wof", " width of fabric", " the full width"];
    let rest = WORDS.into_iter().find_map(|w| said.strip_suffix(w))?;
    Some(match parse_length(rest, system) {
        Ok(length) => thing(1, HandForm::length(length)),
        Err(e) => Read::Unread(sentence(&e)),
    })
}

/// `80 of 150 wide`.
pub(super) fn of_width(said: &str, system: System) -> Option<Read> {
    let (length, width) = said.strip_suffix(" wide")?.rsplit_once(" of ")?;
    let (count, length) = counted_lengths(length);
    Some(match (parse_length(&length, system), parse_length(width, system)) {
        (Ok(length), Ok(width)) => {
            thing(count.unwrap_or(1), HandForm::Length { length, width: Some(width), squared: false })
        }
        (Err(e), _) | (_, Err(e)) => Read::Unread(sentence(&e)),
    })
}

/// `tube of 32 x 14`, `2 tubes 32 x 14`: two layers, length before width, as it is told. What only may be a tube, a leg or
/// a sleeve, is asked about.
pub(super) fn tubes(said: &str, system: System) -> Option<Read> {
    let (before, after) = said.split_once("tubes ").or_else(|| said.split_once("tube "))?;
    let count = if before.trim().is_empty() { Some(1) } else { count_of(before) };
    let (left, right) = sides(after.trim_start_matches("of ").trim())?;
    // Anything else that is said of it is read as a size is.
    match size(&left, &right, system) {
        Read::Thing(AtHand { count: 1, form: HandForm::Sheet { length, width }, .. }) => {
            Some(thing(count?, HandForm::Tube { length, width }))
        }
        other => Some(other),
    }
}

/// Fat quarters and their kin.
pub(super) fn pre_cut(said: &str, system: System) -> Option<Read> {
    const NAMES: [(&str, Option<PreCut>); 13] = [
        ("fat quarters", Some(PreCut::FatQuarter)),
        ("fat quarter", Some(PreCut::FatQuarter)),
        ("fat qtrs", Some(PreCut::FatQuarter)),
        ("fat qtr", Some(PreCut::FatQuarter)),
        ("fat eighths", Some(PreCut::FatEighth)),
        ("fat eighth", Some(PreCut::FatEighth)),
        ("fqs", Some(PreCut::FatQuarter)),
        ("fq's", Some(PreCut::FatQuarter)),
        ("fq", Some(PreCut::FatQuarter)),
        ("f8s", Some(PreCut::FatEighth)),
        ("f8", Some(PreCut::FatEighth)),
        ("long quarters", None),
        ("long quarter", None),
    ];
    let (at, name, cut) = NAMES.into_iter().find_map(|(name, cut)| Some((said.find(name)?, name, cut)))?;
    let (before, after) = (said[..at].trim(), said[at + name.len()..].trim());
    let (before, of) = match before.strip_suffix("metric").or_else(|| before.strip_prefix("metric")) {
        Some(rest) => (rest.trim(), System::Centimetres),
        None => (before, system),
    };
    let tall = after == "tall" || before.ends_with("tall");
    let before = before.trim_end_matches("tall").trim();
    if matches!(before, "half" | "half a" | "1/2" | "1/2 a" | "½") {
        let (long, wide) = PreCut::FatQuarter.size(of);
        let halves = [(long / 2, wide), (long, wide / 2)];
        let answers = halves.map(|(l, w)| {
            let text = HandForm::Sheet { length: l, width: w }.say(of);
            (text.clone(), text)
        });
        let asked = cut == Some(PreCut::FatQuarter);
        return Some(if asked {
            Read::Ask("Half a fat quarter: halved along, or across?".into(), answers.into())
        } else {
            Read::Unread("half of that is best said by its size, such as 9 x 10½ in.".into())
        });
    }
    let Some(count) = (if before.is_empty() { Some(1) } else { count_of(before) }) else {
        return Some(Read::Unread(format!("“{before}” is not a count: say 2 fat quarters.")));
    };
    let times = after.strip_prefix("x ").and_then(count_of).filter(|_| before.is_empty());
    let (count, after) = times.map_or((count, after), |n| (n, ""));
    if !after.is_empty() && after != "tall" {
        return Some(Read::Unread(format!("“{after}” is not understood after {name}.")));
    }
    let Some(cut) = cut else {
        let quarter = if of == System::Inches { Length::inches(9, 1) } else { Length::tenth_mm(2500) };
        return Some(thing(count, HandForm::length(quarter)));
    };
    let (length, width) = cut.size(of);
    // Tall, a fat eighth is the other half of a fat quarter.
    let (length, width) = match (tall, cut) {
        (false, _) => (length, width),
        (true, PreCut::FatEighth) => (length * 2, width / 2),
        (true, PreCut::FatQuarter) => {
            return Some(Read::Unread("only a fat eighth is cut tall or wide.".into()));
        }
    };
    Some(thing(count, HandForm::Sheet { length, width }))
}

/// `A3`, `2 A4 sheets`: cloth for printing and felt are sold in the sizes of paper (ISO 216). Bofta takes the
/// long side along the selvedge, and shows the size that way round.
pub(super) fn paper_size(said: &str, _: System) -> Option<Read> {
    const SIZES: [(&str, i64, i64); 6] =
        [("a0", 1189, 841), ("a1", 841, 594), ("a2", 594, 420), ("a3", 420, 297), ("a4", 297, 210), ("a5", 210, 148)];
    let (said, _) = without_nouns(said);
    let (before, name) = said.rsplit_once(' ').unwrap_or(("", &said));
    let (_, long, wide) = *SIZES.iter().find(|(size, ..)| *size == name || name.strip_suffix('s') == Some(size))?;
    let count = if before.is_empty() { Some(1) } else { count_of(before) }?;
    Some(thing(count, HandForm::Sheet { length: Length::MILLIMETRE * long, width: Length::MILLIMETRE * wide }))
}

/// `3 squares of 5 in`, `20 5 in squares`, `a dozen 2½ strips`.
pub(super) fn squares_or_strips(said: &str, system: System) -> Option<Read> {
    let (word, strip) = [("squares", false), ("square", false), ("strips", true), ("strip", true)]
        .into_iter()
        .find(|(word, _)| said.split(' ').any(|w| w == *word))?;
    let (before, after) = said.split_once(word)?;
    let (before, after) = (before.trim(), after.trim());
    let one = word == "square" || word == "strip";
    let (count, side) = if after.is_empty() {
        // Figures and a fraction are one number: `2 1/2 in squares` says no count.
        match counted(before) {
            (Some(n), rest) if !rest.is_empty() && !starts_with_fraction(&rest) => (Some(n), rest),
            (Some(_), rest) if rest.is_empty() => {
                return Some(Read::Unread(format!("say how large they are too, such as {before} {word} of 5 in.")));
            }
            _ => (one.then_some(1), before.trim_start_matches("a ").to_owned()),
        }
    } else {
        let after = after.trim_start_matches("of ").trim_start_matches("@ ").trim_start_matches('@').trim();
        (if before.is_empty() && one { Some(1) } else { count_of(without_adjective(before)) }, after.to_owned())
    };
    let Some(count) = count else {
        let named = if strip { "strips" } else { "squares" };
        return Some(Read::Unread(format!("say how many there are, such as 12 {named} of {side}.")));
    };
    Some(match parse_length(&side, system) {
        Ok(length) if strip => thing(count, HandForm::Length { length, width: None, squared: true }),
        Ok(length) => thing(count, HandForm::Sheet { length, width: length }),
        Err(e) => Read::Unread(sentence(&e)),
    })
}

/// `30 swap` without the word that names the squares, which says nothing of their size.
fn without_adjective(before: &str) -> &str {
    match before.rsplit_once(' ') {
        Some((count, word))
            if count_of(count).is_some() && word.chars().all(char::is_alphabetic) && !is_said_of_cloth(word) =>
        {
            count
        }
        _ => before,
    }
}

fn starts_with_fraction(text: &str) -> bool {
    let first = text.split(' ').next().unwrap_or_default();
    first.contains('/') || first.starts_with(['½', '¼', '¾', '⅛', '⅜', '⅝', '⅞', '⅓', '⅔'])
}

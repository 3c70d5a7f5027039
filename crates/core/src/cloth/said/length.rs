//! One size: a length off the roll, said in figures or in words.

use super::words::{NOUNS, count_of, counted_lengths, sentence, unit_of, without_nouns};
use super::{Read, sheet, thing};
use crate::cloth::at_hand::{AtHand, HandForm, PreCut};
use crate::measure::{Length, System, Unit, number_word, parse_length, show_size};

/// A yard or a metre: in words, for short; and an inch or a centimetre.
const fn units(system: System) -> (&'static str, &'static str, &'static str) {
    match system {
        System::Inches => ("yard", "yd", "in"),
        System::Centimetres => ("metre", "m", "cm"),
    }
}

/// What is no thing with a name and no size: a length, or nothing that is understood.
pub(super) fn length(said: &str, system: System) -> Read {
    if let Some(read) = part_of_what(said, system) {
        return read;
    }
    let (count, rest) = counted_lengths(said);
    if let (None, Some(read)) = (count, several_parts(&rest, system)) {
        return read;
    }
    let (plain, tubed) = without_nouns(&rest);
    // `2 remnants`, `two`: how many, and not how large.
    let bare_count = count_of(&plain).is_some() && (plain != rest || number_word(&plain).is_some());
    if bare_count && !tubed {
        return Read::Unread("say how large each is, such as 2 remnants of 14 x 20.".into());
    }
    let rest = plain;
    if tubed {
        return Read::Unread("say both its sizes, such as 14 x 32.".into());
    }
    let rest = in_figures(&rest);
    if rest.is_empty() {
        return Read::Unread("say how long: half a yard, 60 cm.".into());
    }
    let bare = unit_of(&rest).is_none() && !rest.chars().any(char::is_alphabetic);
    let count = count.unwrap_or(1);
    match parse_length(&rest, system) {
        _ if bare && two_numbers(&rest).is_some() => two_bare(&rest, system),
        Err(e) => Read::Unread(sentence(&e)),
        Ok(length) if length <= Length::ZERO => {
            Read::Unread("a length is more than 0; leave the field empty where there is none.".into())
        }
        Ok(length) if bare => without_unit(&rest, length, count, system),
        Ok(length) => thing(count, HandForm::length(length)),
    }
}

/// `a quarter`, `two halves`: of what, is not said.
fn part_of_what(said: &str, system: System) -> Option<Read> {
    let (unit, short, _) = units(system);
    match said {
        "a quarter" | "quarter" | "1/4" | "¼" => {
            let long = format!("a quarter {unit}");
            let (l, w) = PreCut::FatQuarter.size(system);
            let (fat, told) = (sheet(1, l, w).say(system), format!("fat, {}", plain_size(l, w, system)));
            Some(Read::Ask("A quarter: long, or fat?".into(), vec![(format!("long, {long}"), long), (told, fat)]))
        }
        "a half" | "half" | "two halves" | "2 halves" => {
            let n = if said.ends_with("halves") { 2 } else { 1 };
            let half = parse_length(&format!("1/2 {short}"), system).unwrap_or_default();
            let text = AtHand { count: n, ..AtHand::one(HandForm::length(half)) }.say(system);
            Some(Read::Ask(format!("“{said}”: half of what?"), vec![(format!("half a {unit}"), text)]))
        }
        _ => None,
    }
}

/// `two yards`, `yard and a quarter`, `a metre`, `1 m 20` as a length is read.
fn in_figures(said: &str) -> String {
    match said.split_once(' ') {
        Some((n, unit)) if number_word(n).is_some() && Unit::named(unit).is_some() => {
            return format!("{} {unit}", number_word(n).unwrap_or(1));
        }
        _ => {}
    }
    match said {
        "a yard" | "yard" => "1 yd".to_owned(),
        "a metre" | "metre" | "a meter" | "meter" => "1 m".to_owned(),
        _ if said.starts_with("yard and ") || said.starts_with("metre and ") => format!("a {said}"),
        _ => metre_and_centimetres(said),
    }
}

/// `24 30`.
fn two_bare(said: &str, system: System) -> Read {
    let unit = units(system).2;
    let (first, second) = two_numbers(said).unwrap_or_default();
    let one = format!("{first} × {second} {unit}");
    let two = format!("{first} {unit}, {second} {unit}");
    Read::Ask(format!("“{said}”: one piece, or two lengths?"), vec![(one.clone(), one), (two.clone(), two)])
}

/// `5/8`, `3`, `36`: under one it is of a yard or a metre, few are asked about, more are in the project's own unit.
fn without_unit(said: &str, length: Length, count: u32, system: System) -> Read {
    let (unit, short, small) = units(system);
    if length < system.unit() {
        return match parse_length(&format!("{said} {short}"), system) {
            Ok(length) => thing(count, HandForm::length(length)),
            Err(e) => Read::Unread(sentence(&e)),
        };
    }
    if length <= system.unit() * 5 {
        let answers = [short, small].map(|u| (format!("{said} {u}"), format!("{said} {u}")));
        return Read::Ask(format!("“{said}”: {unit}s, or {}?", system.name()), answers.into());
    }
    thing(count, HandForm::length(length))
}

/// `3 half yards`, `2 1/4 yard cuts`: several lengths, or one?
fn several_parts(said: &str, system: System) -> Option<Read> {
    let words: Vec<&str> = said.split(' ').collect();
    let plural = |w: &&str| NOUNS.contains(w) && w.ends_with('s');
    if words.iter().any(plural) && words.len() > 2 {
        return Some(Read::Unread("say how many and how long each is, such as 2 lengths of ¼ yd.".into()));
    }
    let [n, part @ ("half" | "quarter" | "third" | "eighth"), unit] = words.as_slice() else { return None };
    let n = n.parse().ok().or_else(|| number_word(n)).filter(|n: &u32| *n > 1)?;
    let each = parse_length(&format!("a {part} {unit}"), system).ok()?;
    let several = AtHand { count: n, ..AtHand::one(HandForm::length(each)) }.say(system);
    let one = AtHand::one(HandForm::length(each * i64::from(n))).say(system);
    let answers = vec![(several.clone(), several), (format!("{one} in one length"), one)];
    Some(Read::Ask(format!("“{said}”: {n} lengths, or one?"), answers))
}

/// `1 m 20` is 120 cm whatever the project measures in.
fn metre_and_centimetres(said: &str) -> String {
    let rest =
        said.strip_suffix(|c: char| c.is_ascii_digit()).and(said.split_once(" m ").or_else(|| said.split_once("m ")));
    match rest {
        Some((metres, more)) if metres.trim().parse::<u32>().is_ok() && more.parse::<u32>().is_ok() => {
            format!("{} m {more} cm", metres.trim())
        }
        _ => said.to_owned(),
    }
}

/// Two whole or decimal numbers with nothing but a space between.
fn two_numbers(said: &str) -> Option<(&str, &str)> {
    let (first, second) = said.split_once(' ')?;
    let number = |t: &str| t.replace(',', ".").parse::<f64>().is_ok();
    (number(first) && number(second)).then_some((first, second))
}

fn plain_size(length: Length, width: Length, system: System) -> String {
    let show = |l: Length| show_size(l, system);
    format!("{} × {}", show(length).trim_end_matches(" in").trim_end_matches(" cm"), show(width))
}

//! One size: a length off the roll, said in figures or in words.

use super::words::{NOUNS, UNITS, count_word, counted_lengths, sentence, unit_of, without_nouns};
use super::{Read, sheet, thing};
use crate::cloth::at_hand::{AtHand, HandForm, PreCut};
use crate::measure::{Length, System, parse_length, show_size};

pub(super) fn length(said: &str, system: System) -> Read {
    let unit_words = match system {
        System::Inches => ("yard", "yd", "in"),
        System::Centimetres => ("metre", "m", "cm"),
    };
    match said {
        "a quarter" | "quarter" | "1/4" | "¼" => {
            let long = format!("a quarter {}", unit_words.0);
            let (l, w) = PreCut::FatQuarter.size(system);
            let fat = sheet(1, l, w).say(system);
            let told = format!("fat, {}", plain_size(l, w, system));
            return Read::Ask("A quarter: long, or fat?".into(), vec![(format!("long, {long}"), long), (told, fat)]);
        }
        "a half" | "half" | "two halves" | "2 halves" => {
            let n = if said.ends_with("halves") { 2 } else { 1 };
            let half = parse_length(&format!("1/2 {}", unit_words.1), system).unwrap_or_default();
            let text = AtHand { count: n, ..AtHand::one(HandForm::length(half)) }.say(system);
            let label = format!("half a {}", unit_words.0);
            return Read::Ask(format!("“{said}”: half of what?"), vec![(label, text)]);
        }
        _ => {}
    }
    let (count, rest) = counted_lengths(said);
    if let (None, Some(read)) = (count, several_parts(&rest, system)) {
        return read;
    }
    let (rest, tubed) = without_nouns(&rest);
    // `two yards`.
    let rest = match rest.split_once(' ') {
        Some((n, unit)) if count_word(n).is_some() && UNITS.contains(&unit) => {
            format!("{} {unit}", count_word(n).unwrap_or(1))
        }
        _ => rest,
    };
    if tubed {
        return Read::Unread("say both its sizes, such as 14 x 32.".into());
    }
    let rest = match rest.as_str() {
        "a yard" | "yard" => "1 yd".to_owned(),
        "a metre" | "metre" | "a meter" | "meter" => "1 m".to_owned(),
        other => match other.strip_prefix("yard and ").or_else(|| other.strip_prefix("metre and ")) {
            Some(_) => format!("a {other}"),
            None => metre_and_centimetres(other),
        },
    };
    if rest.is_empty() {
        return Read::Unread("say how long: half a yard, 60 cm.".into());
    }
    let bare = unit_of(&rest).is_none() && !rest.chars().any(char::is_alphabetic);
    if let (true, Some((first, second))) = (bare, two_numbers(&rest)) {
        let one = format!("{first} × {second} {}", unit_words.2);
        let two = format!("{first} {u}, {second} {u}", u = unit_words.2);
        return Read::Ask(
            format!("“{rest}”: one piece, or two lengths?"),
            vec![(one.clone(), one), (two.clone(), two)],
        );
    }
    let length = match parse_length(&rest, system) {
        Ok(length) => length,
        Err(e) => return Read::Unread(sentence(&e)),
    };
    if length <= Length::ZERO {
        return Read::Unread("a length is more than 0; leave the field empty where there is none.".into());
    }
    if bare {
        let few = length <= system.unit() * 5;
        // Under one, a fraction of cloth is a fraction of a yard or a metre.
        if length < system.unit() {
            let said = format!("{rest} {}", unit_words.1);
            return match parse_length(&said, system) {
                Ok(length) => thing(count.unwrap_or(1), HandForm::length(length)),
                Err(e) => Read::Unread(sentence(&e)),
            };
        }
        if few {
            let say = |unit: &str| format!("{rest} {unit}");
            let answers = [unit_words.1, unit_words.2].map(|u| (say(u), say(u)));
            let (large, small) = (unit_words.0, system.name());
            return Read::Ask(format!("“{rest}”: {large}s, or {small}?"), answers.into());
        }
    }
    thing(count.unwrap_or(1), HandForm::length(length))
}

/// `3 half yards`, `2 1/4 yard cuts`: several lengths, or one?
fn several_parts(said: &str, system: System) -> Option<Read> {
    let words: Vec<&str> = said.split(' ').collect();
    let plural = |w: &&str| NOUNS.contains(w) && w.ends_with('s');
    if words.iter().any(plural) && words.len() > 2 {
        return Some(Read::Unread("say how many and how long each is, such as 2 lengths of ¼ yd.".into()));
    }
    let [n, part @ ("half" | "quarter" | "third" | "eighth"), unit] = words.as_slice() else { return None };
    let n = n.parse().ok().or_else(|| count_word(n)).filter(|n: &u32| *n > 1)?;
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

//! Two sizes: a remnant, a scrap, what was a trouser leg.

use super::words::{count_of, counted_size, sentence, unit_of, without_nouns};
use super::{Read, sheet};
use crate::cloth::at_hand::{AtHand, HandForm};
use crate::measure::{Length, System, Unit, parse_length};

/// The two sides of a size, if it is one: `18x22`, `18 in x 22`.
pub(crate) fn sides(said: &str) -> Option<(String, String)> {
    let chars: Vec<char> = said.chars().collect();
    // An x between figures, units or spaces; not the x of a word.
    let is_times = |n: usize| {
        let beside = |at: Option<usize>| at.and_then(|at| chars.get(at)).copied();
        let free = |c: Option<char>| c.is_none_or(|c| !c.is_alphabetic());
        let before = beside(n.checked_sub(1));
        let after_unit = said_unit_before(&chars, n);
        chars[n] == 'x' && (free(before) || after_unit) && free(beside(Some(n + 1)))
    };
    let at = (0..chars.len()).find(|&n| is_times(n))?;
    let side = |part: &[char]| part.iter().collect::<String>().trim().to_owned();
    Some((side(&chars[..at]), side(&chars[at + 1..])))
}

/// Whether a unit stands right before place `n`: `20cmx30cm`.
fn said_unit_before(chars: &[char], n: usize) -> bool {
    let word: String = chars[..n].iter().rev().take_while(|c| c.is_alphabetic()).collect();
    let word: String = word.chars().rev().collect();
    Unit::named(&word).is_some()
}

pub(super) fn size(left: &str, right: &str, system: System) -> Read {
    if let Some((second, third)) = sides(right) {
        return three(left, &second, &third, system);
    }
    // `45 in wide x 2 yd long` says which is which.
    let side = |side: &str| -> (String, Option<bool>) {
        for (word, along) in [(" wide", false), (" across", false), (" long", true)] {
            if let Some(bare) = side.strip_suffix(word) {
                return (bare.trim().to_owned(), Some(along));
            }
        }
        (side.to_owned(), None)
    };
    if let ((left, one), (right, other)) = (side(left), side(right))
        && one.or(other).is_some()
    {
        let swapped = one == Some(false) || other == Some(true);
        return match one == other {
            true => Read::Unread("say which side is long and which is wide, such as 2 yd long x 45 in wide.".into()),
            false if swapped => size(&right, &left, system),
            false => size(&left, &right, system),
        };
    }
    // `2 x half a yard`, `3 x fat quarter` end up here too where a count is meant.
    let (right, tube_right) = without_nouns(right);
    let (count, left) = counted_size(left);
    let (left, tube_left) = without_nouns(&left);
    let opened = |t: &str| ["opened", "open", "single", "flat"].iter().any(|w| t.split(' ').any(|p| p == *w));
    let is_open = opened(&left) || opened(&right);
    let plain = |t: &str| {
        let kept: Vec<&str> =
            t.split(' ').filter(|w| !["opened", "open", "single", "flat", "out"].contains(w)).collect();
        kept.join(" ")
    };
    let (left, right) = (plain(&left), plain(&right));
    let (left_unit, right_unit) = (unit_of(&left), unit_of(&right));
    let with = |side: &str, own: Option<&str>, other: Option<&str>| match (own, other) {
        (None, Some(unit)) => format!("{side} {unit}"),
        _ => side.to_owned(),
    };
    let bare_count = left.parse::<u32>().ok().filter(|n| count.is_none() && left_unit.is_none() && (2..=6).contains(n));
    // A yard or a metre is no unit for how wide a strip is.
    let long = right_unit.is_some_and(|u| u.starts_with('y') || u == "m" || u.starts_with("me"));
    let lends = right_unit.filter(|_| !(long && bare_count.is_some()));
    let both = (
        parse_length(&with(&left, left_unit, lends), system),
        parse_length(&with(&right, right_unit, left_unit), system),
    );
    let (length, width) = match both {
        (Ok(length), Ok(width)) => (length, width),
        (Err(e), _) | (_, Err(e)) => return Read::Unread(sentence(&e)),
    };
    if length <= Length::ZERO || width <= Length::ZERO {
        return Read::Unread("both sizes are more than 0.".into());
    }
    let n = count.unwrap_or(1);
    // `½ yd x 2`: two lengths, or one piece as narrow as that?
    let copies =
        right.parse::<u32>().ok().filter(|n| left_unit.is_some() && right_unit.is_none() && (2..10).contains(n));
    if let Some(copies) = copies.filter(|_| count.is_none() && !tube_left && !tube_right) {
        let each = AtHand { count: copies, ..AtHand::one(HandForm::length(length)) }.say(system);
        let one = sheet(1, length, width).say(system);
        let answers = vec![(each.clone(), each), (format!("one piece, {one}"), one)];
        return Read::Ask(format!("{left} × {right}: {copies} lengths, or one piece?"), answers);
    }
    if tube_left || tube_right {
        if !is_open {
            return tube(n, length, width, system);
        }
    } else if let Some(lengths) = bare_count.filter(|_| width > length * 3) {
        // `3 x 20 cm`: three lengths, or one piece three wide?
        let each = AtHand { count: lengths, ..AtHand::one(HandForm::length(width)) }.say(system);
        let one = sheet(1, length, width).say(system);
        let answers = vec![(each.clone(), each), (format!("one piece, {one}"), one)];
        return Read::Ask(format!("{left} × {right}: {lengths} lengths, or one piece?"), answers);
    }
    Read::Thing(sheet(n, length, width))
}

/// `2 x 18 x 22`, `18 x 22 x 2`: the first or the last may be a count.
fn three(first: &str, second: &str, third: &str, system: System) -> Read {
    let counted = |n: &str, long: &str, wide: &str| match (count_of(n), size(long, wide, system)) {
        (Some(n), Read::Thing(one)) if one.count == 1 => Some(AtHand { count: n, ..one }.say(system)),
        _ => None,
    };
    let mut answers: Vec<String> =
        [counted(first, second, third), counted(third, first, second)].into_iter().flatten().collect();
    answers.dedup();
    if answers.is_empty() {
        return Read::Unread("three numbers: a piece of cloth has two, such as 2 of 18 x 22.".into());
    }
    let answers = answers.into_iter().map(|said| (said.clone(), said)).collect();
    Read::Ask("Three numbers: which of them is how many there are?".into(), answers)
}

/// A trouser leg, a sleeve: opened out, or two layers still?
fn tube(n: u32, length: Length, width: Length, system: System) -> Read {
    // Lying flat it is longer than wide.
    let (long, flat) = (length.max(width), length.min(width));
    let opened = sheet(n, long, flat).say(system);
    let cut_open = sheet(n, long, flat * 2).say(system);
    let as_tube = AtHand { count: n, ..AtHand::one(HandForm::Tube { length: long, width: flat }) }.say(system);
    Read::Ask(
        "Is that opened out, one layer, or a tube lying flat?".into(),
        vec![
            (format!("one layer: {opened}"), opened),
            (format!("a tube, cut as it lies, two layers: {as_tube}"), as_tube),
            (format!("a tube that is cut open along one edge: {cut_open}"), cut_open),
        ],
    )
}

/// `8 x 8`, or one size for both.
pub(crate) fn both_sides(sizes: &str, system: System) -> Result<(Length, Length), String> {
    let (first, second) = sides(sizes).unwrap_or_else(|| (sizes.to_owned(), sizes.to_owned()));
    let unit = |side: &str| unit_of(side).map(str::to_owned);
    let with = |side: &str, own: Option<String>, other: Option<String>| match (own, other) {
        (None, Some(unit)) => format!("{side} {unit}"),
        _ => side.to_owned(),
    };
    let (u1, u2) = (unit(&first), unit(&second));
    let (first, second) = (with(&first, u1.clone(), u2.clone()), with(&second, u2, u1));
    match (parse_length(&first, system), parse_length(&second, system)) {
        (Ok(a), Ok(b)) if a > Length::ZERO && b > Length::ZERO => Ok((a, b)),
        (Ok(_), Ok(_)) => Err("both sizes are more than 0.".into()),
        (Err(e), _) | (_, Err(e)) => Err(sentence(&e)),
    }
}

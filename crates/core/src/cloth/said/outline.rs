//! Scraps in words: by the letter of one that is drawn, and shapes that a word and two or three sizes tell.

use super::size::both_sides;
use super::words::{count_of, sentence};
use super::{Read, read_one, thing};
use crate::cloth::at_hand::{AtHand, HandForm};
use crate::cloth::{Scrap, ScrapShape};
use crate::measure::{Length, System, parse_length, show_size};
use crate::shape::Point;

/// `scrap B`, `2 of scrap B`.
pub(super) fn drawn(said: &str, _: System) -> Option<Read> {
    let (before, label) = said.rsplit_once("scrap ").or_else(|| said.strip_prefix("scrap ").map(|l| ("", l)))?;
    let letters = !label.is_empty() && label.len() <= 3 && label.chars().all(|c| c.is_ascii_alphabetic());
    let before = before.trim().trim_end_matches(" of");
    let count = if before.is_empty() { Some(1) } else { count_of(before) };
    // `scrap of …` says a size.
    (letters && label != "of").then_some(())?;
    count.map(|n| Read::Drawn(n, label.to_uppercase()))
}

const PLACES: [(&str, bool, bool); 4] =
    [("near left", false, false), ("near right", true, false), ("far left", false, true), ("far right", true, true)];

/// `20 x 20 less 8 x 8`, `fat quarter less a 6 in corner`: which corner is asked; `… less 8 x 8 far right` says it.
pub(super) fn less_a_corner(said: &str, system: System) -> Option<Read> {
    let said = said.strip_prefix("l ").unwrap_or(said);
    let (whole, less) = said.split_once(" less ")?;
    let place = PLACES.into_iter().find(|(name, ..)| less.ends_with(name));
    let gone = less.trim_end_matches(place.map_or("", |(name, ..)| name)).trim();
    let gone = gone.trim_start_matches("a ").trim_end_matches(" corner").trim();
    const TWO_SIZES: &str = "a corner is gone from one piece with two sizes, such as 20 x 20 less 8 x 8.";
    let (length, width) = match read_one(whole, system) {
        Read::Thing(AtHand { count: 1, form: HandForm::Sheet { length, width }, .. }) => (length, width),
        Read::Unread(why) => return Some(Read::Unread(why)),
        Read::Thing(_) | Read::Drawn(..) | Read::Ask(..) => return Some(Read::Unread(TWO_SIZES.into())),
    };
    let (long, wide) = match both_sides(gone, system) {
        Ok(sizes) => sizes,
        Err(why) => return Some(Read::Unread(why)),
    };
    if long >= length || wide >= width {
        return Some(Read::Unread("the corner that is gone is as large as the piece: what is left of it?".into()));
    }
    let Some((_, right, far)) = place else {
        let size = |a: Length, b: Length| format!("{} x {}", show_size(a, system), show_size(b, system));
        let text = |name: &str| format!("{} less {} {name}", size(length, width), size(long, wide));
        let answers = PLACES.map(|(name, ..)| (name.to_owned(), text(name))).into();
        return Some(Read::Ask(
            "Which corner is gone, seen right side up with the threads away from you?".into(),
            answers,
        ));
    };
    let shape = ScrapShape::LShape.corners(width, length, Some((wide, long)));
    let mirrored = |p: Point| Point::new(if right { p.x } else { width - p.x }, if far { p.y } else { length - p.y });
    Some(scrap(shape.into_iter().map(mirrored).collect()))
}

/// `right triangle 12 x 9`, `wedge 30 to 18 x 40`, `half circle 70`: the size along the threads first, as everywhere.
pub(super) fn by_outline(said: &str, system: System) -> Option<Read> {
    const SHAPES: [(&str, ScrapShape); 8] = [
        ("right triangle", ScrapShape::RightTriangle),
        ("even triangle", ScrapShape::EvenTriangle),
        ("triangle", ScrapShape::EvenTriangle),
        ("even wedge", ScrapShape::Wedge),
        ("one-sided wedge", ScrapShape::OneSlant),
        ("wedge", ScrapShape::Wedge),
        ("half circle", ScrapShape::HalfRound),
        ("half round", ScrapShape::HalfRound),
    ];
    let said = said.strip_prefix("a ").unwrap_or(said);
    let (word, shape) =
        SHAPES.into_iter().find(|(word, _)| said.split_once(word).is_some_and(|(b, _)| b.is_empty()))?;
    let sizes = said[word.len()..].trim().trim_start_matches("of ").trim();
    Some(match (shape, word) {
        (ScrapShape::HalfRound, _) => half_round(sizes, system),
        (ScrapShape::Wedge | ScrapShape::OneSlant, _) => wedge(word, shape, sizes, system),
        (_, "triangle") => match both_sides(sizes, system) {
            Ok(_) => Read::Ask(
                "Is one corner of it square, or are both slanted sides alike?".into(),
                ["right triangle", "even triangle"].map(|kind| (kind.to_owned(), format!("{kind} {sizes}"))).into(),
            ),
            Err(why) => Read::Unread(why),
        },
        _ => match both_sides(sizes, system) {
            Ok((length, width)) => scrap(shape.corners(width, length, None)),
            Err(why) => Read::Unread(why),
        },
    })
}

fn half_round(sizes: &str, system: System) -> Read {
    match parse_length(sizes.trim_end_matches(" across"), system) {
        Ok(across) if across > Length::ZERO => scrap(ScrapShape::HalfRound.corners(across, across / 2, None)),
        Ok(_) => Read::Unread("say how far it is across, such as half circle 70 across.".into()),
        Err(e) => Read::Unread(sentence(&e)),
    }
}

/// `30 to 18 x 40`: from so wide to so wide, so long.
fn wedge(word: &str, shape: ScrapShape, sizes: &str, system: System) -> Read {
    const SAY: &str = "say both widths and how long it is, such as wedge 30 to 18 x 40.";
    let parts = sizes.split_once(" to ").and_then(|(near, rest)| Some((near, rest.split_once(" x ")?)));
    let Some((near, (far, long))) = parts else { return Read::Unread(SAY.into()) };
    let long = ["tall", "long", "high"].into_iter().fold(long, |l, w| l.trim_end_matches(w).trim_end());
    let read = |side: &str| parse_length(side, system).map_err(|e| sentence(&e));
    let (near, far, long) = match (read(near), read(far), read(long)) {
        (Ok(near), Ok(far), Ok(long)) => (near, far, long),
        (Err(why), ..) | (_, Err(why), _) | (.., Err(why)) => return Read::Unread(why),
    };
    if far <= Length::ZERO || near <= far || long <= Length::ZERO {
        return Read::Unread(format!("give the wider end first: {SAY}"));
    }
    if word == "wedge" {
        let answers = [("both sides alike", "even wedge"), ("one side alone", "one-sided wedge")];
        return Read::Ask(
            "Is it slanted on both sides alike, or on one?".into(),
            answers.map(|(label, kind)| (label.to_owned(), format!("{kind} {sizes}"))).into(),
        );
    }
    scrap(shape.corners(near, long, Some((near - far, long))))
}

fn scrap(corners: Vec<Point>) -> Read {
    match Scrap::of(String::new(), corners) {
        Ok(scrap) => thing(1, HandForm::Scrap(scrap)),
        Err(e) => Read::Unread(format!("its outline does not stand: {e}.")),
    }
}

//! The words of cut lists: parts, shapes, counts, and what is bought and never cut from cloth.

use bofta_core::piece::Part;

/// A number as a word, or in figures.
pub(super) fn count(word: &str) -> Option<u32> {
    const WORDS: [&str; 13] =
        ["zero", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve"];
    let spelled = || WORDS.iter().position(|w| *w == word).map(|n| n as u32);
    word.parse().ok().or_else(spelled).filter(|n| *n > 0)
}

/// The part a line speaks of, by the words makers use.
pub(super) fn part_of(text: &str) -> Option<Part> {
    let lower = text.to_lowercase();
    let has = |words: &[&str]| words.iter().any(|w| lower.contains(w));
    if has(&["interfacing", "interlining", "stabiliser", "stabilizer", "fusible web", "foam"]) {
        Some(Part::Interfacing)
    } else if has(&["fleece", "batting", "wadding"]) {
        Some(Part::Backing)
    } else if has(&["binding", "bias"]) {
        Some(Part::Binding)
    } else if has(&["strap", "handle", "tab", "loop", "tie"]) {
        Some(Part::Straps)
    } else if has(&["pocket"]) {
        Some(Part::Pocket)
    } else if has(&["lining", "inner", "inside"]) {
        Some(Part::Lining)
    } else if has(&["contrast", "accent", "patch", "band", "casing"]) {
        Some(Part::Contrast)
    } else if has(&["outer", "main", "exterior", "outside"]) {
        // A panel, a base or a flap may be of anything: the heading decides, or it is the outer.
        Some(Part::Outer)
    } else {
        None
    }
}

/// What is bought and lies on no cloth, if that is what `words` speak of: a zip is bought, a zip panel is cut.
pub(super) fn bought<'a>(words: &[&'a str]) -> Option<&'a str> {
    const BOUGHT: [&str; 40] = [
        "webbing", "cord", "cording", "rope", "string", "ribbon", "elastic", "zip", "zips", "zipper", "zippers",
        "ring", "rings", "d-ring", "d-rings", "o-ring", "o-rings", "hook", "hooks", "clasp", "clasps", "snap", "snaps",
        "button", "buttons", "buckle", "buckles", "slider", "sliders", "magnet", "magnets", "toggle", "toggles",
        "eyelet", "eyelets", "grommet", "grommets", "rivet", "rivets", "velcro",
    ];
    const CUT: [&str; 26] = [
        "panel", "panels", "tab", "tabs", "cover", "covers", "casing", "casings", "facing", "facings", "gusset",
        "gussets", "pocket", "pockets", "flap", "flaps", "loop", "loops", "strap", "straps", "end", "ends", "strip",
        "strips", "channel", "placket",
    ];
    let at = words.iter().position(|w| BOUGHT.contains(w))?;
    // `zip panel`, `tab for a ring`, `strap with clasp`: the piece is of cloth.
    let is_cut = words.iter().any(|w| CUT.contains(w)) || words.iter().any(|w| part_named(w));
    (!is_cut).then(|| words[at])
}

fn part_named(word: &str) -> bool {
    matches!(word, "lining" | "outer" | "interfacing" | "fleece" | "fabric" | "cloth" | "canvas" | "cotton")
}

/// What a piece is shaped like.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Shape {
    Circle,
    HalfRound,
    Square,
}

/// The shape that `words` name, and the words that name it.
pub(super) fn shape(words: &[&str]) -> Option<(Shape, Vec<usize>)> {
    for (i, word) in words.iter().enumerate() {
        let next = words.get(i + 1).copied().unwrap_or("");
        match *word {
            "half-round" | "half-circle" | "semicircle" | "semicircles" | "semi-circle" | "half-moon" => {
                return Some((Shape::HalfRound, vec![i]));
            }
            "half" | "semi" if matches!(next, "round" | "rounds" | "circle" | "circles" | "moon") => {
                return Some((Shape::HalfRound, vec![i, i + 1]));
            }
            "circle" | "circles" | "diameter" | "dia" | "ø" | "⌀" => return Some((Shape::Circle, vec![i])),
            "square" | "squares" => return Some((Shape::Square, vec![i])),
            _ => {}
        }
    }
    // `round` alone is a shape of what is measured once: `8 in round`, not `go round`.
    None
}

/// Words that only join others, and are no part of a name.
pub(super) fn is_idle(word: &str) -> bool {
    const IDLE: [&str; 36] = [
        "cut",
        "piece",
        "pieces",
        "pcs",
        "pc",
        "of",
        "x",
        "×",
        "at",
        "each",
        "from",
        "size",
        "sizes",
        "make",
        "and",
        "with",
        "off",
        "to",
        "in",
        "cm",
        "mm",
        "by",
        "measuring",
        "no",
        "nos",
        "nr",
        "qty",
        "quantity",
        "count",
        "plus",
        "times",
        "wide",
        "tall",
        "long",
        "high",
        "measures",
    ];
    IDLE.contains(&word)
}

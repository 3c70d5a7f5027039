//! The words of cut lists: parts, shapes, counts, and what is bought and never cut from cloth.

use bofta_core::bag::GoodKind;
use bofta_core::measure::{Unit, number_word};
use bofta_core::piece::Part;

/// A number as a word, or in figures.
pub(super) fn count(word: &str) -> Option<u32> {
    word.parse().ok().or_else(|| number_word(word)).filter(|n| *n > 0)
}

/// The unit a word names, as [`parse_length`](bofta_core::measure::parse_length) takes it.
pub(super) fn unit_named(word: &str) -> Option<&'static str> {
    Unit::named(word).map(Unit::symbol)
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
    const BOUGHT: &[&str] = &[
        "webbing",
        "cord",
        "cords",
        "drawcord",
        "drawcords",
        "cording",
        "rope",
        "ropes",
        "string",
        "strings",
        "ribbon",
        "ribbons",
        "elastic",
        "zip",
        "zips",
        "zipper",
        "zippers",
        "ring",
        "rings",
        "d-ring",
        "d-rings",
        "o-ring",
        "o-rings",
        "hook",
        "hooks",
        "clasp",
        "clasps",
        "snap",
        "snaps",
        "button",
        "buttons",
        "buckle",
        "buckles",
        "slider",
        "sliders",
        "magnet",
        "magnets",
        "toggle",
        "toggles",
        "eyelet",
        "eyelets",
        "grommet",
        "grommets",
        "rivet",
        "rivets",
        "velcro",
    ];
    const CUT: [&str; 26] = [
        "panel", "panels", "tab", "tabs", "cover", "covers", "casing", "casings", "facing", "facings", "gusset",
        "gussets", "pocket", "pockets", "flap", "flaps", "loop", "loops", "strap", "straps", "end", "ends", "strip",
        "strips", "channel", "placket",
    ];
    let at = words.iter().position(|w| BOUGHT.contains(w))?;
    // `zip panel`, `tab for a ring`, `strap with a clasp`, `fleece behind the zip`: the piece is of cloth. `cord for the
    // casing` is not.
    let next = words.get(at + 1).is_some_and(|w| CUT.contains(w));
    let before = words[..at].iter().any(|w| CUT.contains(w));
    let joined = words[..at].last().is_some_and(|w| matches!(*w, "for" | "behind" | "under" | "with" | "the" | "a"));
    let behind = joined && words[..at].iter().any(|w| is_cloth(w));
    (!next && !before && !behind).then(|| words[at])
}

/// What `what` is cut off, where it is sold by the length.
pub(super) fn sold_by_the_length(what: &str) -> Option<GoodKind> {
    match what {
        "webbing" => Some(GoodKind::Webbing),
        "cord" | "cords" | "drawcord" | "drawcords" | "cording" | "rope" | "ropes" | "string" | "strings" => {
            Some(GoodKind::Cord)
        }
        "ribbon" | "ribbons" | "elastic" | "velcro" => Some(GoodKind::Tape),
        _ => None,
    }
}

fn is_cloth(word: &str) -> bool {
    matches!(word, "lining" | "outer" | "interfacing" | "fleece" | "batting" | "fabric" | "cloth" | "canvas" | "cotton")
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
    const IDLE: [&str; 57] = [
        "the",
        "an",
        "need",
        "dia",
        "ø",
        "⌀",
        "is",
        "are",
        "rectangle",
        "rectangles",
        "diameter",
        "about",
        "around",
        "approx",
        "approximately",
        "roughly",
        "finished",
        "includes",
        "included",
        "either",
        "or",
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

#[cfg(test)]
mod tests {
    use super::{Shape, bought, count, part_of, shape, unit_named};
    use bofta_core::piece::Part;
    use rstest::rstest;

    #[rstest]
    #[case("twelve", Some(12))]
    #[case("2", Some(2))]
    #[case("0", None)]
    #[case("zero", None)]
    #[case("a few", None)]
    fn counts(#[case] word: &str, #[case] n: Option<u32>) {
        assert_eq!(count(word), n);
    }

    #[test]
    fn every_way_to_write_a_unit_is_one() {
        for (unit, words) in [("in", ["in", "Inches"]), ("cm", ["CM", "centimeters"]), ("mm", ["mm", "millimetres"])] {
            assert!(words.iter().all(|w| unit_named(w) == Some(unit)), "{unit}");
        }
        assert_eq!(unit_named("furlongs"), None);
    }

    /// A zip is bought, a zip panel is cut, a strap with a hook is cut.
    #[rstest]
    #[case("webbing", Some("webbing"))]
    #[case("webbing cover", None)]
    #[case("14 in zip for the mouth", Some("zip"))]
    #[case("zip panel lining", None)]
    #[case("strap with a swivel hook", None)]
    #[case("fleece behind the zip", None)]
    #[case("cord for the casing", Some("cord"))]
    #[case("outer zip", Some("zip"))]
    #[case("two snaps", Some("snaps"))]
    fn what_is_bought(#[case] text: &str, #[case] what: Option<&str>) {
        assert_eq!(bought(&text.split(' ').collect::<Vec<_>>()), what, "{text}");
    }

    #[rstest]
    #[case("half round flap", Some(Shape::HalfRound))]
    #[case("semicircle", Some(Shape::HalfRound))]
    #[case("base circle", Some(Shape::Circle))]
    #[case("five squares", Some(Shape::Square))]
    #[case("goes round the mouth", None)]
    fn shapes(#[case] text: &str, #[case] found: Option<Shape>) {
        assert_eq!(shape(&text.split(' ').collect::<Vec<_>>()).map(|(s, _)| s), found, "{text}");
    }

    /// What lies behind decides before what it lies behind, and a pocket's lining is a pocket.
    #[rstest]
    #[case("Interfacing for the pocket", Some(Part::Interfacing))]
    #[case("Pocket lining", Some(Part::Pocket))]
    #[case("Lining for the strap", Some(Part::Straps))]
    #[case("Main panel", Some(Part::Outer))]
    #[case("Gusset", None)]
    fn parts(#[case] text: &str, #[case] part: Option<Part>) {
        assert_eq!(part_of(text), part, "{text}");
    }
}

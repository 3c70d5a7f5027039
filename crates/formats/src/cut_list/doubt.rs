//! Words that leave a row open: it is read, and asked about. Nothing that changes a size, a count or a shape is passed over.

use super::beside::Words;
use super::tokens::{Kind, Token};
use std::ops::Range;

/// What the words of `within` that are not `used` leave open, as questions.
pub(super) fn doubts(line: &Words<'_>, within: Range<usize>) -> Vec<String> {
    let Words { text, tokens, used } = *line;
    let words: Vec<&str> = within.clone().filter_map(|i| tokens[i].word()).collect();
    let free: Vec<&str> = within.clone().filter(|i| !used[*i]).filter_map(|i| tokens[i].word()).collect();
    let has = |known: &[&str]| free.iter().copied().find(|w| known.contains(w));
    let mut asks = Vec::new();
    let inexact = has(&["about", "around", "approx", "approximately", "roughly", "circa", "ca", "nearly", "almost"]);
    if inexact.is_some() || text.contains('~') {
        let word = inexact.unwrap_or("~");
        asks.push(format!("“{word}” leaves the size open. Is it exactly this?"));
    }
    if has(&["or", "either"]).is_some() {
        asks.push("the line says “or”. Which of the two do you want?".into());
    }
    const SHAPES: [&str; 30] = [
        "oval",
        "ovals",
        "ellipse",
        "ellipses",
        "triangle",
        "triangles",
        "triangular",
        "hexagon",
        "hexagons",
        "octagon",
        "octagons",
        "pentagon",
        "diamond",
        "diamonds",
        "heart",
        "hearts",
        "teardrop",
        "teardrops",
        "trapezoid",
        "trapezium",
        "wedge",
        "wedges",
        "crescent",
        "tapered",
        "tapering",
        "curved",
        "rounded",
        "kite",
        "star",
        "rhombus",
    ];
    if let Some(shape) = has(&SHAPES) {
        asks.push(format!(
            "“{shape}”: a list can hold rectangles, squares, circles and half-rounds. Is a rectangle right here? Other outlines are read from SVG or DXF."
        ));
    }
    let speaks_of_seams = has(&["seam", "seams", "allowance", "allowances", "sa"]).is_some();
    let includes = has(&["include", "includes", "included", "including", "incl", "with"]).is_some();
    let without = has(&["not", "without", "excluding", "exclude", "excludes", "excluded", "excl", "no"]).is_some();
    if (speaks_of_seams && (!includes || without)) || has(&["finished", "finishes", "finish", "sewn"]).is_some() {
        asks.push("does that size include the seam allowance? Bofta takes it as the size to cut.".into());
    }
    if has(&["folded", "folds", "doubled", "trim", "trimmed", "trims", "before", "after"]).is_some() {
        asks.push("is that the size to cut? Bofta takes it as the size to cut.".into());
    }
    const AMOUNTS: [&str; 33] = [
        "thousand", "million", "several", "some", "few", "many", "lots", "twice", "thrice", "double", "both", "half",
        "halves", "quarter", "quarters", "third", "thirds", "same", "ditto", "again", "repeat", "more", "less",
        "minus", "smaller", "larger", "bigger", "longer", "shorter", "wider", "narrower", "per", "between",
    ];
    let shape = super::words::shape(&words).map_or(vec![], |(_, at)| at.iter().map(|&i| words[i]).collect::<Vec<_>>());
    if let Some(word) = has(&AMOUNTS).filter(|w| !shape.contains(w)) {
        asks.push(format!("what does “{word}” change? It was left out."));
    }
    let number = |i: usize| matches!(tokens.get(i).map(|t| &t.kind), Some(Kind::Number { .. }));
    let times = |i: &usize| !used[*i] && tokens[*i].kind == Kind::Times;
    if within.clone().filter(times).any(|i| !number(i + 1) && (i + 1 == tokens.len() || !number(i.wrapping_sub(1)))) {
        asks.push("a × stands alone. Is a number missing?".into());
    }
    let strip = words.iter().any(|w| ["binding", "bindings", "strip", "strips", "tape", "piping"].contains(w));
    if words.contains(&"bias") && !strip {
        asks.push("is it cut on the bias? In a list, only binding is.".into());
    }
    const CLOTH: [&str; 6] = ["fabric", "cloth", "yardage", "material", "quarter", "eighth"];
    let long_unit = within.clone().any(|i| matches!(tokens[i].kind, Kind::Number { unit: Some("yd" | "m"), .. }));
    let fat = words.windows(2).any(|w| w[0] == "fat" && CLOTH.contains(&w[1])) || words.contains(&"fq");
    if fat || (long_unit && words.iter().any(|w| CLOTH.contains(w))) {
        asks.push("is that a piece to cut, or cloth to buy? Bofta takes it as a piece.".into());
    }
    if let Some(at) = range(tokens, within) {
        let range = &text[tokens[at].from..tokens[at + 2].to];
        asks.push(format!("“{range}” is a range. Which size is it?"));
    }
    asks
}

/// `6-8`, `9 to 10`: two numbers that leave a size open. Where the first of them stands.
pub(super) fn range(tokens: &[Token], within: Range<usize>) -> Option<usize> {
    let number = |i: usize| matches!(tokens.get(i).map(|t| &t.kind), Some(Kind::Number { .. }));
    within.clone().filter(|&i| number(i) && number(i + 2) && i + 2 < within.end).find(|&i| {
        let (before, sign, after) = (&tokens[i], &tokens[i + 1], &tokens[i + 2]);
        let dash = sign.kind == Kind::Dash && before.to == sign.from && sign.to == after.from;
        let to = sign.word().is_some_and(|w| matches!(w, "to" | "or"));
        dash || to
    })
}

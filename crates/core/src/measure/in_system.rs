//! Sizes of the trade that a sentence gives in both systems, `5 to 6 in (13 to 15 cm)`, brought to the one a project is in.

use super::System;
use std::borrow::Cow;

/// `text` with every size that stands in both systems, `2 to 4 in (5 to 10 cm)`, in that of `system` alone: a project in
/// centimetres speaks of no inches.
pub fn in_system(text: &str, system: System) -> Cow<'_, str> {
    const UNIT: &str = " in (";
    let mut said = String::new();
    let mut rest = text;
    while let Some(at) = rest.find(UNIT) {
        let inside = &rest[at + UNIT.len()..];
        let metric = inside.find(')').map(|end| &inside[..end]).filter(|m| m.ends_with(" cm") || m.ends_with(" mm"));
        let begins = figures_before(&rest[..at]);
        let Some(metric) = metric.filter(|_| begins < at) else {
            said.push_str(&rest[..at + UNIT.len()]);
            rest = inside;
            continue;
        };
        said.push_str(&rest[..begins]);
        said.push_str(match system {
            System::Inches => &rest[begins..at + UNIT.len() - 2],
            System::Centimetres => metric,
        });
        rest = &inside[metric.len() + 1..];
    }
    if said.is_empty() {
        return text.into();
    }
    said.push_str(rest);
    said.into()
}

/// Where the figures begin that `text` ends in: `5`, `5 to 6`, `20 or 36`.
fn figures_before(text: &str) -> usize {
    let is_figure = |word: &str| word.starts_with(|c: char| c.is_ascii_digit() || "½¼¾⅛⅜⅝⅞⅓⅔".contains(c));
    let mut begins = text.len();
    loop {
        let word = &text[..begins].trim_end()[text[..begins].trim_end().rfind(' ').map_or(0, |at| at + 1)..];
        if !is_figure(word) {
            return begins;
        }
        begins = text[..begins].trim_end().len() - word.len();
        let before = text[..begins].trim_end();
        let Some(joined) = before.strip_suffix(" to").or_else(|| before.strip_suffix(" or")) else { return begins };
        let further = joined.rfind(' ').map_or(0, |at| at + 1);
        if !is_figure(&joined[further..]) {
            return begins;
        }
        begins = joined.len();
    }
}

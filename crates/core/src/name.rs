//! Names as makers give them to projects, cloths and pieces, made fit to be drawn, printed and written to files.

use crate::FieldProblem;

/// The most letters of a name.
pub const MOST_LETTERS: usize = 80;

/// `text` without what cannot be written or would turn what is written about: control signs (a CSV cell can hold them,
/// an SVG or PDF cannot), marks that reverse the direction of what follows, and code points that are no characters.
/// Runs of white space become one space; nothing is left at the ends.
pub fn clean(text: &str) -> String {
    let kept: String = text.chars().map(|c| if c.is_whitespace() || is_unwritable(c) { ' ' } else { c }).collect();
    kept.split_whitespace().collect::<Vec<_>>().join(" ")
}

/// Signs that have no place in a name. The joiners of scripts and emoji (U+200C, U+200D) and variation selectors stay.
pub fn is_unwritable(c: char) -> bool {
    c.is_control()
        || matches!(c, '\u{200E}' | '\u{200F}' | '\u{202A}'..='\u{202E}' | '\u{2060}'..='\u{206F}' | '\u{FEFF}'
            | '\u{FFF9}'..='\u{FFFB}' | '\u{FDD0}'..='\u{FDEF}')
        || (c as u32) & 0xFFFE == 0xFFFE
}

/// The name typed into `field`, cleaned.
///
/// # Errors
/// Nothing is left of it, or it has more than [`MOST_LETTERS`].
pub fn named(field: &str, typed: &str) -> Result<String, FieldProblem> {
    let name = clean(typed);
    match name.chars().count() {
        0 => Err(FieldProblem::new(field, typed, "Give it a name.")),
        1..=MOST_LETTERS => Ok(name),
        n => Err(FieldProblem::new(
            field,
            typed,
            format!("The name has {n} characters. At most {MOST_LETTERS} are allowed."),
        )),
    }
}

#[cfg(test)]
mod tests {
    use super::{clean, named};

    #[test]
    fn what_cannot_be_written_is_taken_out_and_scripts_stay() {
        assert_eq!(clean(" Outer\u{0}\tpanel\r\n\u{1b}[31m "), "Outer panel [31m");
        assert_eq!(clean("a\u{202E}b\u{FEFF}c\u{FFFF}d"), "a b c d");
        assert_eq!(clean("袋の底 👜 حقيبة"), "袋の底 👜 حقيبة");
        assert!(named("name", "\u{1}\u{2}").is_err());
        assert!(named("name", &"a".repeat(80)).is_ok() && named("name", &"a".repeat(81)).is_err());
    }
}

//! The signs a line of a cut list is made of: numbers with their units, words, and what stands between.

use super::words::unit_named;
use winnow::Parser;
use winnow::combinator::{alt, opt, preceded, repeat};
use winnow::error::ContextError;
use winnow::stream::Location as _;
use winnow::token::{one_of, take_while};

type Input<'a> = winnow::stream::LocatingSlice<&'a str>;
type Read<T> = Result<T, ContextError>;

/// What a sign is.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) enum Kind {
    /// A number, as [`parse_length`](bofta_core::measure::parse_length) takes it, and its unit if it has one.
    Number { figures: String, unit: Option<&'static str> },
    /// Letters, in small letters; parts of it may be joined by a hyphen or an apostrophe.
    Word(String),
    /// `x`, `×`, `*` or `by`.
    Times,
    /// `@` or `at`.
    At,
    /// `,`, `;` or `+`.
    Comma,
    /// `:` or `=`.
    Colon,
    /// A dash with a space beside it.
    Dash,
    /// `(` or `[`.
    Open,
    /// `)` or `]`.
    Close,
    /// Anything else.
    Other,
}

/// A sign, and where in the line it stands, in bytes.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) struct Token {
    pub kind: Kind,
    pub from: usize,
    pub to: usize,
}

impl Token {
    pub(super) fn word(&self) -> Option<&str> {
        match &self.kind {
            Kind::Word(word) => Some(word),
            _ => None,
        }
    }
}

const FRACTIONS: &str = "½¼¾⅛⅜⅝⅞⅓⅔";

fn spaces<'a>(input: &mut Input<'a>) -> Read<&'a str> {
    take_while(0.., |c: char| c.is_whitespace()).parse_next(input)
}

fn digits<'a>(input: &mut Input<'a>) -> Read<&'a str> {
    take_while(1.., |c: char| c.is_ascii_digit()).parse_next(input)
}

/// `3/4` or `½`, with what may stand before it: a space, a hyphen, `&`, `and`.
fn fraction(input: &mut Input<'_>) -> Read<String> {
    let signed = one_of(|c: char| FRACTIONS.contains(c)).map(String::from);
    // `2/2` and `11/12` are no parts of an inch.
    let written = (digits, (spaces, one_of(['/', '⁄']), spaces), digits)
        .verify(|(over, _, under): &(&str, _, &str)| {
            let parts = |n: &str| n.parse::<u32>().ok();
            matches!(parts(under), Some(2..=5 | 8 | 10 | 16 | 32 | 64)) && parts(over) < parts(under)
        })
        .map(|(over, _, under)| format!("{over}/{under}"));
    alt((signed, written)).parse_next(input)
}

fn joined_fraction(input: &mut Input<'_>) -> Read<String> {
    let space = take_while(1.., |c: char| c == ' ').void();
    let between = alt(((spaces, alt(("&", "and")), spaces).void(), one_of(['-', '‑']).void(), space));
    preceded(opt(between), fraction).parse_next(input)
}

/// `14`, `14½`, `14-1/2`, `14 and 1/2`, `14.5`, `14,5`, `.5`, `3/4`, `½`.
fn figures(input: &mut Input<'_>) -> Read<String> {
    // The sign stays: `1,000` may be a thousand.
    let decimal = (digits, one_of(['.', ',']), digits).map(|(whole, sign, part)| format!("{whole}{sign}{part}"));
    let below_one = (one_of(['.', ',']), digits).map(|(_, part)| format!("0.{part}"));
    let mixed = (digits, joined_fraction).map(|(whole, part)| format!("{whole} {part}"));
    alt((fraction, mixed, decimal, digits.map(str::to_owned), below_one)).parse_next(input)
}

/// A unit right after a number, and no letter after it.
///
/// `after_times`: the number is the other side of a size, so that `in` is its unit whatever follows.
fn unit(input: &mut Input<'_>, after_times: bool) -> Read<&'static str> {
    let before = *input;
    let sign = opt((spaces, alt(("\"", "″", "”", "“", "''", "’’", "′′")))).parse_next(input)?;
    if sign.is_some() {
        return Ok("in");
    }
    let foot = |input: &mut Input<'_>| -> Read<()> {
        let letter = winnow::combinator::not(one_of(|c: char| c.is_alphabetic()));
        (spaces, one_of(['\'', '’', '′']), letter).void().parse_next(input)
    };
    if opt(foot).parse_next(input)?.is_some() {
        return Ok("ft");
    }
    let (_, _, letters) = (spaces, opt("-"), take_while(1.., |c: char| c.is_alphabetic())).parse_next(input)?;
    let mut known = unit_named(letters);
    // `8cmx9cm`: the × hangs on the unit.
    let hangs = letters.strip_suffix(['x', 'X', '×']).and_then(unit_named).filter(|_| known.is_none());
    if hangs.is_some() {
        known = hangs;
        *input = before;
        let _ = (spaces, opt("-"), winnow::token::take(letters.chars().count() - 1)).parse_next(input)?;
    } else {
        let _ = opt(".").parse_next(input)?;
    }
    let word = letters;
    // `2 in lining` counts two: a space before it and a word after it.
    let more = (spaces, take_while(2.., |c: char| c.is_alphabetic())).parse_next(&mut { *input }).ok();
    let beside = |word: &str| {
        matches!(
            word,
            "wide"
                | "width"
                | "tall"
                | "high"
                | "height"
                | "long"
                | "length"
                | "deep"
                | "depth"
                | "by"
                | "square"
                | "squares"
                | "circle"
                | "circles"
                | "across"
                | "diameter"
                | "round"
                | "strip"
                | "strips"
                | "and"
                | "each"
                | "from"
                | "on"
                | "cut"
                | "with"
        )
    };
    let counts = !after_times
        && word.eq_ignore_ascii_case("in")
        && before.starts_with(' ')
        && more.is_some_and(|(_, next)| !beside(&next.to_lowercase()));
    known.filter(|_| !counts).ok_or_else(|| {
        *input = before;
        ContextError::new()
    })
}

fn number(input: &mut Input<'_>, after_times: bool) -> Read<Kind> {
    (figures, opt(|input: &mut Input<'_>| unit(input, after_times)))
        .map(|(figures, unit)| Kind::Number { figures, unit })
        .parse_next(input)
}

fn word(input: &mut Input<'_>) -> Read<Kind> {
    let letters = || take_while(1.., |c: char| c.is_alphabetic());
    let more = repeat(0.., (one_of(['-', '\'', '’']), letters())).map(|_: Vec<_>| ());
    (letters(), more).take().map(|w: &str| Kind::Word(w.to_lowercase().replace('’', "'"))).parse_next(input)
}

fn sign(input: &mut Input<'_>) -> Read<Kind> {
    alt((
        one_of(['@']).value(Kind::At),
        one_of([',', ';', '+']).value(Kind::Comma),
        one_of([':', '=']).value(Kind::Colon),
        one_of(['(', '[', '{']).value(Kind::Open),
        one_of([')', ']', '}']).value(Kind::Close),
        one_of(['-', '–', '—', '−']).value(Kind::Dash),
        winnow::token::any.value(Kind::Other),
    ))
    .parse_next(input)
}

/// `x` between numbers, or after or before one: never the first letter of a word.
fn times(input: &mut Input<'_>) -> Read<()> {
    let letter = (one_of(['x', 'X']), winnow::combinator::not(one_of(|c: char| c.is_alphabetic()))).void();
    let word = (alt(("by", "By", "BY")), winnow::combinator::not(one_of(|c: char| c.is_alphabetic()))).void();
    // The Cyrillic letter looks the same and comes with copied text.
    alt((one_of(['×', '*', '✕', '✖', 'х', 'Х']).void(), letter, word)).parse_next(input)
}

/// The signs of `line`.
pub(super) fn tokens(line: &str) -> Vec<Token> {
    let mut input = Input::new(line);
    let mut found: Vec<Token> = Vec::new();
    loop {
        let _ = spaces(&mut input);
        if input.is_empty() {
            return found;
        }
        let from = input.current_token_start();
        let after_times = found.last().is_some_and(|t| t.kind == Kind::Times);
        let number = |input: &mut Input<'_>| number(input, after_times);
        let read = alt((number, times.value(Kind::Times), word, sign)).parse_next(&mut input);
        let kind = match read {
            Ok(Kind::Word(word)) if word == "at" => Kind::At,
            Ok(kind) => kind,
            Err(_) => return found,
        };
        let token = Token { kind, from, to: input.current_token_start() };
        match found.last().and_then(|before| compound(before, &token)) {
            Some(whole) => drop(found.pop().map(|_| found.push(whole))),
            None => found.push(token),
        }
    }
}

/// `4' 6"`, `1 yd 9 in`: two numbers that make one length.
fn compound(before: &Token, after: &Token) -> Option<Token> {
    let (Kind::Number { figures: more, unit: Some(larger) }, Kind::Number { figures, unit: Some(unit) }) =
        (&before.kind, &after.kind)
    else {
        return None;
    };
    let adds_up = matches!((*larger, *unit), ("ft", "in") | ("yd", "ft" | "in") | ("m", "cm" | "mm"));
    let figures = format!("{more} {larger} {figures}");
    adds_up.then_some(Token { kind: Kind::Number { figures, unit: Some(unit) }, from: before.from, to: after.to })
}

#[cfg(test)]
mod tests {
    use super::{Kind, tokens};
    use rstest::rstest;

    fn number(figures: &str, unit: Option<&'static str>) -> Kind {
        Kind::Number { figures: figures.into(), unit }
    }

    #[rstest]
    #[case("14½\"", "14 ½", Some("in"))]
    #[case("14-1/2 in", "14 1/2", Some("in"))]
    #[case("14 and 1/2", "14 1/2", None)]
    #[case("16,5cm", "16,5", Some("cm"))]
    #[case("4'", "4", Some("ft"))]
    #[case("4’ 6”", "4 ft 6", Some("in"))]
    #[case("1 yd 9 in", "1 yd 9", Some("in"))]
    #[case(".75", "0.75", None)]
    #[case("3/4”", "3/4", Some("in"))]
    #[case("20 millimetres", "20", Some("mm"))]
    fn numbers(#[case] text: &str, #[case] figures: &str, #[case] unit: Option<&'static str>) {
        let found: Vec<Kind> = tokens(text).into_iter().map(|t| t.kind).collect();
        assert_eq!(found, [number(figures, unit)], "{text}");
    }

    #[test]
    fn a_count_is_told_from_a_size() {
        let kinds = |text: &str| tokens(text).into_iter().map(|t| t.kind).collect::<Vec<_>>();
        assert_eq!((&kinds("4x9")[1], &kinds("4 by 9")[1]), (&Kind::Times, &Kind::Times));
        assert_eq!(kinds("cut 2 in lining")[1], number("2", None));
        assert_eq!(kinds("xylophone bag")[0], Kind::Word("xylophone".into()));
        assert_eq!(kinds("4 yds x 2 in binding")[2], number("2", Some("in")));
        // A comma with a space after it is none of the number's.
        assert_eq!(kinds("2, 5")[1], Kind::Comma);
    }
}

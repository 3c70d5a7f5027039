//! Reading a length as people type it: `18 1/2`, `18½`, `18.5 in`, `4 7/8"`, `47cm`, `1 1/2 yd`, `1 yd 9`.

use super::{Length, System, Unit, number_word};
use thiserror::Error;

/// The longest length taken as meant: 20 m. Beyond it is a slip of the finger, not a bag.
pub const LONGEST: Length = Length(20 * Length::METRE.0);

/// The longest reel of webbing or cord taken as meant: 200 m.
pub const LONGEST_REEL: Length = Length(200 * Length::METRE.0);

/// Why a typed length was not understood. Each message is a sentence for the person who typed it.
#[derive(Clone, Debug, PartialEq, Eq, Error)]
pub enum ParseLengthError {
    /// Nothing was typed.
    #[error("type a size, such as 18 1/2, 18.5 in or 47 cm")]
    Empty,
    /// Something in it is not a number, a fraction or a unit.
    #[error("“{text}” is not a size: write it as 18 1/2, 18½, 18.5 in or 47 cm")]
    Unreadable {
        /// What was typed.
        text: String,
    },
    /// A size that is only nearly so.
    #[error("“{text}” leaves the size open. Type the size itself, without “{word}”")]
    Inexact {
        /// What was typed.
        text: String,
        /// The word that leaves it open.
        word: String,
    },
    /// A comma or a full stop that may part thousands or decimals.
    #[error(
        "“{text}” can be read in two ways. Write the thousands without a sign, as in 1200 mm, or fewer decimals, as in 1.2 m"
    )]
    Thousands {
        /// What was typed.
        text: String,
    },
    /// A minus sign.
    #[error("“{text}” is less than nothing: a size is never negative")]
    Negative {
        /// What was typed.
        text: String,
    },
    /// Over [`LONGEST`], or of a reel over [`LONGEST_REEL`].
    #[error("“{text}” is over {metres} m: is the unit right?")]
    TooLong {
        /// What was typed.
        text: String,
        /// The most there may be.
        metres: i64,
    },
}

/// Words that leave a size open.
const INEXACT: [&str; 9] = ["about", "around", "approximately", "approx", "roughly", "nearly", "almost", "ca", "circa"];

/// Reads `text`; a number without a unit is in `default`'s unit. Terms from a larger unit to a smaller one add up: `1 yd 9
/// in`; without a unit the last one is in inches after yards and feet, in centimetres after metres.
///
/// # Errors
/// [`ParseLengthError`] when nothing, something else, a negative or an absurd size was typed.
pub fn parse_length(text: &str, default: System) -> Result<Length, ParseLengthError> {
    parse_up_to(LONGEST, text, default)
}

/// The same of what is owned by the reel, up to [`LONGEST_REEL`].
///
/// # Errors
/// As [`parse_length`].
pub fn parse_reel(text: &str, default: System) -> Result<Length, ParseLengthError> {
    parse_up_to(LONGEST_REEL, text, default)
}

fn parse_up_to(most: Length, text: &str, default: System) -> Result<Length, ParseLengthError> {
    let shown = text.trim();
    if shown.is_empty() {
        return Err(ParseLengthError::Empty);
    }
    let unreadable = || ParseLengthError::Unreadable { text: shown.to_owned() };
    if shown.starts_with(['-', '−', '–']) {
        return Err(ParseLengthError::Negative { text: shown.to_owned() });
    }
    let first = shown.split([' ', '.']).next().unwrap_or_default().to_lowercase();
    if INEXACT.contains(&first.as_str()) || shown.starts_with('~') {
        let word = if shown.starts_with('~') { "~".to_owned() } else { first };
        return Err(ParseLengthError::Inexact { text: shown.to_owned(), word });
    }
    let figures = in_figures(shown);
    let mut rest = Scanner { chars: plain_figures(figures.as_deref().unwrap_or(shown)), at: 0, was_bare: false };
    let mut total: i128 = 0;
    let mut before: Option<Unit> = None;
    loop {
        rest.skip_space();
        if rest.done() {
            break;
        }
        let number = rest.number().ok_or_else(unreadable)?;
        rest.skip_space();
        let unit = match (rest.unit().ok_or_else(unreadable)?, before) {
            (Some(unit), None) => unit,
            (Some(unit), Some(larger)) if follows(unit, larger) => unit,
            (None, None) => default_unit(default),
            (None, Some(Unit::Yard | Unit::Foot)) => Unit::Inch,
            (None, Some(Unit::Metre)) => Unit::Centimetre,
            _ => return Err(unreadable()),
        };
        if number.is_in_thousands(unit) {
            return Err(ParseLengthError::Thousands { text: shown.to_owned() });
        }
        // A bare number ends what adds up: nothing smaller follows it.
        before = Some(if total == 0 && rest.was_bare { Unit::Millimetre } else { unit });
        let unit = unit.length();
        // Twice the value plus the denominator, over twice the denominator: nearest unit, halves up.
        let scaled = number.over.checked_mul(i128::from(unit.0)).ok_or_else(unreadable)?;
        total += (2 * scaled + number.under).div_euclid(2 * number.under);
        if total > i128::from(most.0) {
            return Err(ParseLengthError::TooLong { text: shown.to_owned(), metres: most.0 / Length::METRE.0 });
        }
    }
    Ok(Length(total as i64))
}

const fn default_unit(system: System) -> Unit {
    match system {
        System::Inches => Unit::Inch,
        System::Centimetres => Unit::Centimetre,
    }
}

/// Whether a term in `unit` may follow one in `larger`: 2 ft 3 in, 1 m 20 cm.
fn follows(unit: Unit, larger: Unit) -> bool {
    match larger {
        Unit::Yard => matches!(unit, Unit::Foot | Unit::Inch),
        Unit::Foot => unit == Unit::Inch,
        Unit::Metre => matches!(unit, Unit::Centimetre | Unit::Millimetre),
        Unit::Centimetre => unit == Unit::Millimetre,
        Unit::Inch | Unit::Millimetre => false,
    }
}

/// Several lengths typed one after the other: `;`, a new line, `and`, or a comma that is no decimal comma parts them.
pub fn split_lengths(text: &str) -> Vec<&str> {
    let signs: Vec<(usize, char)> = text.char_indices().collect();
    let figure = |at: Option<usize>| at.and_then(|at| signs.get(at)).is_some_and(|(_, c)| c.is_ascii_digit());
    let mut parts = Vec::new();
    let mut start = 0;
    for (n, &(at, sign)) in signs.iter().enumerate() {
        let decimal = sign == ',' && figure(n.checked_sub(1)) && figure(Some(n + 1));
        if matches!(sign, ';' | '\n') || (sign == ',' && !decimal) {
            parts.push(&text[start..at]);
            start = at + sign.len_utf8();
        }
    }
    parts.push(&text[start..]);
    // `a yard and a half` is one length, `36 and 18` are two.
    let two = |part: &&str| part.split(" and ").all(|half| half.trim().starts_with(|c: char| c.is_ascii_digit()));
    let parted = parts.into_iter().flat_map(|part| if two(&part) { part.split(" and ").collect() } else { vec![part] });
    parted.map(str::trim).filter(|part| !part.is_empty()).collect()
}

/// A length said in words, in figures: `half a yard`, `three quarters of a metre`, `one and a half yards`, `a yard and a
/// half`. Nothing when a word is none of these.
fn in_figures(text: &str) -> Option<String> {
    let text = text.to_lowercase();
    let spoken = text.split(' ').flat_map(|w| if number_word(w).is_some() { vec![w] } else { w.split('-').collect() });
    let words: Vec<&str> = spoken.filter(|w| !w.is_empty()).collect();
    if let [only] = words[..]
        && let Some(n) = number_word(only)
    {
        return Some(n.to_string());
    }
    if !words.iter().any(|w| part_under(w).is_some() || matches!(*w, "a" | "an") || number_word(w).is_some()) {
        return None;
    }
    let whole = |word: &str| -> Option<i64> {
        match word {
            "a" | "an" => Some(1),
            _ => number_word(word).map(i64::from).or_else(|| word.parse().ok()),
        }
    };
    let (mut wholes, mut fraction, mut unit) = (0, None, None);
    let mut said: Option<i64> = None;
    for word in words {
        if let Some(under) = part_under(word) {
            if fraction.is_some() {
                return None;
            }
            fraction = Some((said.take().unwrap_or(1), under));
        } else if let Some(n) = whole(word) {
            // `half a yard`: the article says nothing more.
            let article = matches!(word, "a" | "an") && fraction.is_some() && unit.is_none();
            if said.is_some() {
                return None;
            }
            said = (!article).then_some(n);
        } else if Unit::named(word).is_some() {
            if unit.is_some() {
                return None;
            }
            wholes += said.take().unwrap_or(0);
            unit = Some(word);
        } else if matches!(word, "of" | "and") {
            if word == "and" {
                wholes += said.take().unwrap_or(0);
            }
        } else {
            return None;
        }
    }
    wholes += said.unwrap_or(0);
    // Half of what, is not said.
    let unit = unit?;
    let fraction = fraction.map(|(over, under)| format!("{over}/{under}")).unwrap_or_default();
    let wholes = if wholes > 0 { wholes.to_string() } else { String::new() };
    Some(format!("{wholes} {fraction} {}", unit).trim().to_owned())
}

/// What a part named by `word` is one over.
fn part_under(word: &str) -> Option<i64> {
    Some(match word {
        "half" => 2,
        "third" | "thirds" => 3,
        "quarter" | "quarters" => 4,
        "eighth" | "eighths" => 8,
        "sixteenth" | "sixteenths" => 16,
        _ => return None,
    })
}

/// Raised and lowered figures, as this program itself sets 2³⁄₁₆, brought back to the line.
fn plain_figures(text: &str) -> Vec<char> {
    let raised = |c: char| "⁰¹²³⁴⁵⁶⁷⁸⁹".chars().position(|r| r == c);
    let lowered = |c: char| "₀₁₂₃₄₅₆₇₈₉".chars().position(|r| r == c);
    let mut plain = Vec::with_capacity(text.len());
    let mut in_raised = false;
    for c in text.chars() {
        if let Some(figure) = raised(c) {
            if !in_raised {
                plain.push(' ');
            }
            plain.extend(char::from_digit(figure as u32, 10));
        } else if let Some(figure) = lowered(c) {
            plain.extend(char::from_digit(figure as u32, 10));
        } else {
            plain.push(c);
        }
        in_raised = raised(c).is_some();
    }
    plain
}

struct Ratio {
    over: i128,
    under: i128,
    /// The sign before three decimals, with more than nought before it: in millimetres, and after a comma, it may part
    /// thousands.
    sign: Option<char>,
}

impl Ratio {
    const fn new(over: i128, under: i128) -> Self {
        Self { over, under, sign: None }
    }

    /// Whether the sign may separate thousands. No bag measures a thousand inches, so 9,125 in can only be 9⅛ in.
    fn is_in_thousands(&self, unit: Unit) -> bool {
        match (self.sign, unit) {
            (None, _) | (_, Unit::Metre) => false,
            (Some(','), Unit::Millimetre | Unit::Centimetre) | (Some('.'), Unit::Millimetre) => true,
            (Some(sign), _) => sign == ',' && self.over % self.under == 0,
        }
    }
}

struct Scanner {
    chars: Vec<char>,
    at: usize,
    /// Whether the last number had no unit.
    was_bare: bool,
}

impl Scanner {
    fn done(&self) -> bool {
        self.at >= self.chars.len()
    }

    fn peek(&self) -> Option<char> {
        self.chars.get(self.at).copied()
    }

    fn skip_space(&mut self) {
        while self.peek().is_some_and(char::is_whitespace) {
            self.at += 1;
        }
    }

    fn digits(&mut self) -> Option<String> {
        let start = self.at;
        while self.peek().is_some_and(|c| c.is_ascii_digit()) {
            self.at += 1;
        }
        // Twelve digits are far past 20 m in any unit and keep the arithmetic from overflowing.
        (self.at > start && self.at - start <= 12).then(|| self.chars[start..self.at].iter().collect())
    }

    fn glyph(&mut self) -> Option<Ratio> {
        let (over, under) = match self.peek()? {
            '½' => (1, 2),
            '¼' => (1, 4),
            '¾' => (3, 4),
            '⅛' => (1, 8),
            '⅜' => (3, 8),
            '⅝' => (5, 8),
            '⅞' => (7, 8),
            '⅓' => (1, 3),
            '⅔' => (2, 3),
            _ => return None,
        };
        self.at += 1;
        Some(Ratio::new(over, under))
    }

    /// `a/b` at this place, or nothing and the place unchanged.
    fn fraction(&mut self) -> Option<Ratio> {
        let start = self.at;
        if let Some(glyph) = self.glyph() {
            return Some(glyph);
        }
        let read = (|| {
            let over = self.digits()?;
            self.skip_space();
            if !matches!(self.peek(), Some('/' | '⁄')) {
                return None;
            }
            self.at += 1;
            self.skip_space();
            let under: i128 = self.digits()?.parse().ok()?;
            (under > 0).then_some(Ratio::new(over.parse().ok()?, under))
        })();
        if read.is_none() {
            self.at = start;
        }
        read
    }

    fn number(&mut self) -> Option<Ratio> {
        if let Some(fraction) = self.fraction() {
            return Some(fraction);
        }
        let mut value =
            if self.peek() == Some('.') { Ratio::new(0, 1) } else { Ratio::new(self.digits()?.parse().ok()?, 1) };
        if let Some(sign @ ('.' | ',')) = self.peek() {
            self.at += 1;
            let decimals = self.digits()?;
            let under = 10_i128.pow(decimals.len() as u32);
            let sign = Some(sign).filter(|_| decimals.len() == 3 && value.over > 0);
            value = Ratio { over: value.over * under + decimals.parse::<i128>().ok()?, under, sign };
            return Some(value);
        }
        // A whole number may be followed by a fraction: `18 1/2`, `18-1/2`, `18½`.
        let before = self.at;
        self.skip_space();
        if self.peek() == Some('-') {
            self.at += 1;
        }
        match self.fraction() {
            Some(fraction) => Some(Ratio::new(value.over * fraction.under + fraction.over, fraction.under)),
            None => {
                self.at = before;
                Some(value)
            }
        }
    }

    /// The unit at this place, or none where the number stands alone; nothing where something else stands there.
    fn unit(&mut self) -> Option<Option<Unit>> {
        let start = self.at;
        let is_sign = |c: char| matches!(c, '"' | '″' | '”' | '“' | '\'' | '’' | '′');
        let signs = self.peek().is_some_and(is_sign);
        while self.peek().is_some_and(|c| if signs { is_sign(c) } else { c.is_alphabetic() }) {
            self.at += 1;
        }
        let word: String = self.chars[start..self.at].iter().collect();
        self.was_bare = word.is_empty();
        if self.peek() == Some('.') {
            self.at += 1; // `18 in.`
        }
        if word.is_empty() { Some(None) } else { Unit::named(&word).map(Some) }
    }
}

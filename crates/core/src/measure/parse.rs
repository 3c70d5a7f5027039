//! Reading a length as people type it: `18 1/2`, `18½`, `18.5 in`, `4 7/8"`, `47cm`, `1 1/2 yd`, `1 yd 9`.

use super::{Length, System};
use thiserror::Error;

/// The longest length taken as meant: 20 m. Beyond it is a slip of the finger, not a bag.
pub const LONGEST: Length = Length(20 * Length::METRE.0);

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
    /// A minus sign.
    #[error("“{text}” is less than nothing: a size is never negative")]
    Negative {
        /// What was typed.
        text: String,
    },
    /// Over [`LONGEST`].
    #[error("“{text}” is over 20 m: is the unit right?")]
    TooLong {
        /// What was typed.
        text: String,
    },
}

/// Reads `text`; a number without a unit is in `default`'s unit. Terms with units add up (`1 yd 9 in`).
///
/// # Errors
/// [`ParseLengthError`] when nothing, something else, a negative or an absurd size was typed.
pub fn parse_length(text: &str, default: System) -> Result<Length, ParseLengthError> {
    let shown = text.trim();
    if shown.is_empty() {
        return Err(ParseLengthError::Empty);
    }
    let unreadable = || ParseLengthError::Unreadable { text: shown.to_owned() };
    if shown.starts_with(['-', '−', '–']) {
        return Err(ParseLengthError::Negative { text: shown.to_owned() });
    }
    let mut rest = Scanner { chars: plain_figures(shown), at: 0 };
    let mut total: i128 = 0;
    loop {
        rest.skip_space();
        if rest.done() {
            break;
        }
        let number = rest.number().ok_or_else(unreadable)?;
        rest.skip_space();
        let unit = rest.unit(default).ok_or_else(unreadable)?;
        // Twice the value plus the denominator, over twice the denominator: nearest unit, halves up.
        let scaled = number.over.checked_mul(i128::from(unit.0)).ok_or_else(unreadable)?;
        total += (2 * scaled + number.under).div_euclid(2 * number.under);
        if total > i128::from(LONGEST.0) {
            return Err(ParseLengthError::TooLong { text: shown.to_owned() });
        }
    }
    Ok(Length(total as i64))
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
}

struct Scanner {
    chars: Vec<char>,
    at: usize,
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
        Some(Ratio { over, under })
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
            (under > 0).then_some(Ratio { over: over.parse().ok()?, under })
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
        let mut value = if self.peek() == Some('.') {
            Ratio { over: 0, under: 1 }
        } else {
            Ratio { over: self.digits()?.parse().ok()?, under: 1 }
        };
        if matches!(self.peek(), Some('.' | ',')) {
            self.at += 1;
            let decimals = self.digits()?;
            let under = 10_i128.pow(decimals.len() as u32);
            value = Ratio { over: value.over * under + decimals.parse::<i128>().ok()?, under };
            return Some(value);
        }
        // A whole number may be followed by a fraction: `18 1/2`, `18-1/2`, `18½`.
        let before = self.at;
        self.skip_space();
        if self.peek() == Some('-') {
            self.at += 1;
        }
        match self.fraction() {
            Some(fraction) => Some(Ratio { over: value.over * fraction.under + fraction.over, under: fraction.under }),
            None => {
                self.at = before;
                Some(value)
            }
        }
    }

    fn unit(&mut self, default: System) -> Option<Length> {
        let start = self.at;
        while self.peek().is_some_and(|c| c.is_alphabetic() || matches!(c, '"' | '″' | '”' | '\'')) {
            self.at += 1;
        }
        let word: String = self.chars[start..self.at].iter().collect::<String>().to_lowercase();
        if self.peek() == Some('.') {
            self.at += 1; // `18 in.`
        }
        match word.as_str() {
            "" if self.at == start => Some(default.unit()),
            "in" | "inch" | "inches" | "ins" | "\"" | "″" | "”" | "''" => Some(Length::INCH),
            "yd" | "yds" | "yard" | "yards" => Some(Length::YARD),
            "ft" | "foot" | "feet" => Some(Length::INCH * 12),
            "mm" => Some(Length::MILLIMETRE),
            "cm" => Some(Length::CENTIMETRE),
            "m" | "metre" | "metres" | "meter" | "meters" => Some(Length::METRE),
            _ => None,
        }
    }
}

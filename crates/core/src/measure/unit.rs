//! Units and numbers in words, as people type them in fields, in lists and of the cloth they have: one table for all three.

use super::Length;
use super::words::{ONES, TENS};

/// A unit of length.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum Unit {
    /// 25.4 mm.
    Inch,
    /// 12 in.
    Foot,
    /// 36 in.
    Yard,
    /// A thousandth of a metre.
    Millimetre,
    /// A hundredth of a metre.
    Centimetre,
    /// 100 cm.
    Metre,
}

impl Unit {
    /// The unit that `word` names, in any case: a word in one or more, British or American, an abbreviation without its
    /// full stop, or a sign. A single sign is feet, a double one inches, straight, curly or prime.
    pub fn named(word: &str) -> Option<Self> {
        Some(match word.to_lowercase().as_str() {
            "in" | "ins" | "inch" | "inches" | "\"" | "″" | "”" | "“" | "''" | "’’" | "′′" => Self::Inch,
            "ft" | "foot" | "feet" | "'" | "’" | "′" => Self::Foot,
            "yd" | "yds" | "yard" | "yards" => Self::Yard,
            "mm" | "mms" | "millimetre" | "millimetres" | "millimeter" | "millimeters" => Self::Millimetre,
            "cm" | "cms" | "centimetre" | "centimetres" | "centimeter" | "centimeters" => Self::Centimetre,
            "m" | "metre" | "metres" | "meter" | "meters" => Self::Metre,
            _ => return None,
        })
    }

    /// Its length.
    pub const fn length(self) -> Length {
        match self {
            Self::Inch => Length::INCH,
            Self::Foot => Length(12 * Length::INCH.0),
            Self::Yard => Length::YARD,
            Self::Millimetre => Length::MILLIMETRE,
            Self::Centimetre => Length::CENTIMETRE,
            Self::Metre => Length::METRE,
        }
    }

    /// As it is written after a number.
    pub const fn symbol(self) -> &'static str {
        match self {
            Self::Inch => "in",
            Self::Foot => "ft",
            Self::Yard => "yd",
            Self::Millimetre => "mm",
            Self::Centimetre => "cm",
            Self::Metre => "m",
        }
    }
}

/// A whole number in words, from one to ninety-nine, or `hundred`; `dozen` is twelve.
pub fn number_word(word: &str) -> Option<u32> {
    let one = |word: &str| ONES[1..].iter().position(|w| *w == word).map(|n| n as u32 + 1);
    let ten = |word: &str| TENS[2..].iter().position(|w| *w == word).map(|n| (n as u32 + 2) * 10);
    match word {
        "dozen" => Some(12),
        "hundred" => Some(100),
        _ => one(word).or_else(|| ten(word)).or_else(|| {
            let (tens, ones) = word.split_once('-')?;
            Some(ten(tens)? + one(ones).filter(|n| *n < 10)?)
        }),
    }
}

//! What a ruler can show, and rounding to it.

use super::{Length, System, words};
use serde::{Deserialize, Serialize};

/// The finest line of the ruler at the table. Sizes that are computed are brought to it before they are shown.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Ruler {
    /// 1/8 in: a quilting ruler (common practice).
    Eighth,
    /// 1/16 in.
    Sixteenth,
    /// 1 mm.
    Millimetre,
    /// 0.5 cm.
    HalfCentimetre,
}

/// A length as it is shown.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Shown {
    /// Without the unit: `18½`, `47.5`; begins with `about ` when not exact.
    pub text: String,
    /// With the unit, in words: `eighteen and a half inches`.
    pub words: String,
    /// Whether the text is the length exactly.
    pub exact: bool,
}

impl Ruler {
    /// All rulers, in the order they are offered.
    pub const ALL: [Self; 4] = [Self::Eighth, Self::Sixteenth, Self::Millimetre, Self::HalfCentimetre];

    /// The distance between two lines.
    pub const fn step(self) -> Length {
        match self {
            Self::Eighth => Length::inches(1, 8),
            Self::Sixteenth => Length::inches(1, 16),
            Self::Millimetre => Length::MILLIMETRE,
            Self::HalfCentimetre => Length::tenth_mm(50),
        }
    }

    /// The system the ruler is marked in.
    pub const fn system(self) -> System {
        match self {
            Self::Eighth | Self::Sixteenth => System::Inches,
            Self::Millimetre | Self::HalfCentimetre => System::Centimetres,
        }
    }

    /// The ruler a new project of `system` starts with.
    pub const fn default_for(system: System) -> Self {
        match system {
            System::Inches => Self::Eighth,
            System::Centimetres => Self::Millimetre,
        }
    }

    /// The step in words for people: `⅛ in`, `1 mm`.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Eighth => "⅛ in",
            Self::Sixteenth => "¹⁄₁₆ in",
            Self::Millimetre => "1 mm",
            Self::HalfCentimetre => "0.5 cm",
        }
    }

    /// The next line at or above `length`: a piece is never cut smaller than it was worked out.
    pub fn up(self, length: Length) -> Length {
        length.ceil_to(self.step())
    }

    /// The nearest 1/64 in or 0.1 mm to `length`, which [`Self::show`] shows without `about`: closer than anybody cuts.
    pub fn finest(self, length: Length) -> Length {
        length.round_to(match self.system() {
            System::Inches => Length::inches(1, 64),
            System::Centimetres => Length::tenth_mm(1),
        })
    }

    /// Shows `length` on this ruler. A length between two lines is shown by its own fraction down to 1/64 in or
    /// 0.1 mm where it has one, else as the nearest line with `about`.
    pub fn show(self, length: Length) -> Shown {
        let fine = match self.system() {
            System::Inches => Length::inches(1, 64),
            System::Centimetres => Length::tenth_mm(1),
        };
        let exact = length.is_multiple_of(fine);
        let shown = if exact { length } else { length.round_to(self.step()) };
        let (figures, said) = match self.system() {
            System::Inches => inches(shown),
            System::Centimetres => centimetres(shown),
        };
        let about = if exact { "" } else { "about " };
        Shown { text: format!("{about}{figures}"), words: format!("{about}{said}"), exact }
    }
}

/// An amount in 64ths of a whole, as people set it: `18½`, `2³⁄₁₆`.
pub(super) fn mixed_number(sixty_fourths: i64) -> String {
    let (whole, part) = (sixty_fourths / 64, sixty_fourths % 64);
    if part == 0 {
        return whole.to_string();
    }
    let (over, under) = lowest_terms(part);
    let fraction = match (over, under) {
        (1, 2) => "½".to_owned(),
        (1, 4) => "¼".to_owned(),
        (3, 4) => "¾".to_owned(),
        (1, 8) => "⅛".to_owned(),
        (3, 8) => "⅜".to_owned(),
        (5, 8) => "⅝".to_owned(),
        (7, 8) => "⅞".to_owned(),
        _ => format!("{}⁄{}", digits(over, '⁰'), digits(under, '₀')),
    };
    if whole == 0 { fraction } else { format!("{whole}{fraction}") }
}

fn lowest_terms(sixty_fourths: i64) -> (i64, i64) {
    let shift = sixty_fourths.trailing_zeros();
    (sixty_fourths >> shift, 64 >> shift)
}

/// Raised or lowered figures: no font feature is needed to set a fraction as one.
fn digits(n: i64, zero: char) -> String {
    n.to_string()
        .chars()
        .map(|c| match (zero, c) {
            ('⁰', '1') => '¹',
            ('⁰', '2') => '²',
            ('⁰', '3') => '³',
            _ => char::from_u32(zero as u32 + (c as u32 - '0' as u32)).unwrap_or(c),
        })
        .collect()
}

fn inches(length: Length) -> (String, String) {
    let sixty_fourths = length.0.abs() / Length::inches(1, 64).0;
    let sign = if length.0 < 0 { "−" } else { "" };
    let (whole, part) = (sixty_fourths / 64, sixty_fourths % 64);
    let said = match (whole, part) {
        (1, 0) => "one inch".to_owned(),
        (_, 0) => format!("{} inches", words::whole(whole)),
        (0, _) => {
            let (over, under) = lowest_terms(part);
            format!("{} inch", words::fraction(over, under)).replace("a half inch", "half an inch")
        }
        _ => {
            let (over, under) = lowest_terms(part);
            format!("{} and {} inches", words::whole(whole), words::fraction(over, under))
        }
    };
    let minus = if length.0 < 0 { "minus " } else { "" };
    (format!("{sign}{}", mixed_number(sixty_fourths)), format!("{minus}{said}"))
}

fn centimetres(length: Length) -> (String, String) {
    let hundredths = length.0.abs() / Length::tenth_mm(1).0;
    let sign = if length.0 < 0 { "−" } else { "" };
    let minus = if length.0 < 0 { "minus " } else { "" };
    let (whole, part) = (hundredths / 100, hundredths % 100);
    let figures = match part {
        0 => whole.to_string(),
        _ if part % 10 == 0 => format!("{whole}.{}", part / 10),
        _ => format!("{whole}.{part:02}"),
    };
    let said = match part {
        0 => words::whole(whole),
        _ if part % 10 == 0 => format!("{} point {}", words::whole(whole), words::whole(part / 10)),
        _ => format!("{} point {} {}", words::whole(whole), words::whole(part / 10), words::whole(part % 10)),
    };
    let unit = if (whole, part) == (1, 0) { "centimetre" } else { "centimetres" };
    (format!("{sign}{figures}"), format!("{minus}{said} {unit}"))
}

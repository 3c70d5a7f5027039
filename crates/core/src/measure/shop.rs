//! What a shop cuts: lengths come in steps, so buying is a step function.

use super::ruler::mixed_number;
use super::{Length, System};
use serde::{Deserialize, Serialize};

/// The lengths a shop sells: multiples of `step`, at least `min`.
///
/// Common practice: 1/8 yd with at least 1/4 yd, or 10 cm with at least 20 to 50 cm.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct ShopStep {
    /// The step; nothing means any length is cut.
    pub step: Option<Length>,
    /// The least that is sold.
    pub min: Length,
}

impl ShopStep {
    /// The usual step of shops in `system`: 1/8 yd from 1/4 yd, or 10 cm from 20 cm (common practice).
    pub const fn default_for(system: System) -> Self {
        match system {
            System::Inches => Self { step: Some(Length::inches(9, 2)), min: Length::inches(9, 1) },
            System::Centimetres => Self { step: Some(Length::tenth_mm(1000)), min: Length::tenth_mm(2000) },
        }
    }

    /// The shortest length sold that is at least `needed`; nothing needed, nothing bought.
    pub fn to_buy(&self, needed: Length) -> Length {
        if needed <= Length::ZERO {
            return Length::ZERO;
        }
        let at_least = needed.max(self.min);
        self.step.map_or(at_least, |step| at_least.ceil_to(step))
    }
}

/// A bought length as a shop says it: `1⅜ yd` where it is whole eighths of a yard, `1.2 m`, else `40½ in` or `35 cm`.
pub fn show_bought(length: Length, system: System) -> String {
    let eighth_yard = Length::inches(9, 2);
    match system {
        System::Inches if length.is_multiple_of(eighth_yard) => {
            format!("{} yd", mixed_number(length.0 / eighth_yard.0 * 8))
        }
        System::Centimetres if length.ceil_to(Length::MILLIMETRE) >= Length::METRE => {
            let millimetres = length.ceil_to(Length::MILLIMETRE).0 / Length::MILLIMETRE.0;
            format!("{} m", trim_zeros(millimetres as f64 / 1000.0, 3))
        }
        _ => show_size(length, system),
    }
}

/// A size of cloth, never in yards or metres: `40½ in`, `135 cm`; up to the next 1/64 in or millimetre.
pub fn show_size(length: Length, system: System) -> String {
    match system {
        System::Inches => {
            let sixty_fourth = Length::inches(1, 64);
            format!("{} in", mixed_number(length.ceil_to(sixty_fourth).0 / sixty_fourth.0))
        }
        System::Centimetres => {
            let millimetres = length.ceil_to(Length::MILLIMETRE).0 / Length::MILLIMETRE.0;
            format!("{} cm", trim_zeros(millimetres as f64 / 10.0, 1))
        }
    }
}

fn trim_zeros(value: f64, places: usize) -> String {
    format!("{value:.places$}").trim_end_matches('0').trim_end_matches('.').to_owned()
}

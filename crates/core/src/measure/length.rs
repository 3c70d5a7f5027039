//! The exact length and the area made of it.

use serde::{Deserialize, Serialize};
use std::iter::Sum;
use std::ops::{Add, AddAssign, Div, Mul, Neg, Sub, SubAssign};

/// The system a project measures in.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, Deserialize)]
pub enum System {
    /// Inches and yards.
    #[serde(rename = "in")]
    Inches,
    /// Centimetres and metres.
    #[serde(rename = "cm")]
    Centimetres,
}

impl System {
    /// Both, in the order they are offered.
    pub const ALL: [Self; 2] = [Self::Inches, Self::Centimetres];

    /// In words.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Inches => "inches",
            Self::Centimetres => "centimetres",
        }
    }

    /// One inch or one centimetre.
    pub const fn unit(self) -> Length {
        match self {
            Self::Inches => Length::INCH,
            Self::Centimetres => Length::CENTIMETRE,
        }
    }

    /// `in` or `cm`.
    pub const fn symbol(self) -> &'static str {
        match self {
            Self::Inches => "in",
            Self::Centimetres => "cm",
        }
    }
}

/// An exact length in eighths of a micrometre; may be negative, as a difference of two.
///
/// Both systems are whole in it: 1/64 in is 3175 units, 0.1 mm is 800.
/// 1 in = 25.4 mm and 1 yd = 0.9144 m exactly (international yard, 1959; NIST SP 811).
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(try_from = "i64", into = "i64")]
pub struct Length(pub i64);

/// The longest length that is read from anywhere, 1250 km: far beyond any cloth, and sums and products of such lengths
/// stay exact.
const FARTHEST_READ: u64 = 10_000_000_000_000;

impl TryFrom<i64> for Length {
    type Error = String;

    fn try_from(units: i64) -> Result<Self, String> {
        if units.unsigned_abs() <= FARTHEST_READ {
            return Ok(Self(units));
        }
        Err(format!("{units} is no length: at most {FARTHEST_READ} eighths of a micrometre are read"))
    }
}

impl From<Length> for i64 {
    fn from(length: Length) -> Self {
        length.0
    }
}

impl Length {
    /// No length.
    pub const ZERO: Self = Self(0);
    /// One millimetre.
    pub const MILLIMETRE: Self = Self(8_000);
    /// One centimetre.
    pub const CENTIMETRE: Self = Self(80_000);
    /// One metre.
    pub const METRE: Self = Self(8_000_000);
    /// One inch.
    pub const INCH: Self = Self(203_200);
    /// One yard.
    pub const YARD: Self = Self(36 * 203_200);

    /// `n / d` inches; exact when `d` divides 203 200 · `n` (all ruler fractions do), else rounded to the unit.
    pub const fn inches(n: i64, d: i64) -> Self {
        Self(n * Self::INCH.0 / d)
    }

    /// `n` tenths of a millimetre.
    pub const fn tenth_mm(n: i64) -> Self {
        Self(n * 800)
    }

    /// The nearest exact length to `value` in `system`'s unit.
    pub fn from_units(value: f64, system: System) -> Self {
        Self((value * system.unit().0 as f64).round() as i64)
    }

    /// The length as a number of `system`'s unit, for drawing and for the open formats.
    pub fn in_units(self, system: System) -> f64 {
        self.0 as f64 / system.unit().0 as f64
    }

    /// The smallest multiple of `step` that is not less than this. `step` must be positive.
    pub fn ceil_to(self, step: Self) -> Self {
        Self(self.0.div_euclid(step.0) * step.0 + if self.0.rem_euclid(step.0) == 0 { 0 } else { step.0 })
    }

    /// The largest multiple of `step` that is not more than this. `step` must be positive.
    pub fn floor_to(self, step: Self) -> Self {
        Self(self.0.div_euclid(step.0) * step.0)
    }

    /// The multiple of `step` nearest to this, halves going up. `step` must be positive.
    pub fn round_to(self, step: Self) -> Self {
        // A limit that is none, as long as lengths go, is shown too.
        Self(self.0.saturating_add(step.0 / 2)).floor_to(step)
    }

    /// Whether this is a whole number of `step`s.
    pub fn is_multiple_of(self, step: Self) -> bool {
        self.0.rem_euclid(step.0) == 0
    }

    /// This as washed cloth: shorter by `ppm` parts per million, rounded down so that a plan never counts on
    /// cloth that is not there.
    pub fn shrunk(self, ppm: u32) -> Self {
        Self((i128::from(self.0) * (1_000_000 - i128::from(ppm))).div_euclid(1_000_000) as i64)
    }

    /// The unwashed length that shrinks by `ppm` parts per million to no less than this (rounded up to the unit).
    pub fn before_shrinking(self, ppm: u32) -> Self {
        let left = 1_000_000 - i128::from(ppm);
        Self(((i128::from(self.0) * 1_000_000 + left - 1).div_euclid(left)) as i64)
    }

    /// This times `ratio`, rounded up to the unit; for lengths that are not whole, such as π·d.
    pub fn scaled_up(self, ratio: f64) -> Self {
        Self((self.0 as f64 * ratio).ceil() as i64)
    }
}

/// An exact area in square [`Length`] units.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, PartialOrd, Ord)]
pub struct Area(pub i128);

impl Area {
    /// This as a share of `whole`, 0 when `whole` is nothing.
    pub fn share_of(self, whole: Self) -> f64 {
        if whole.0 == 0 { 0.0 } else { self.0 as f64 / whole.0 as f64 }
    }
}

impl Add for Length {
    type Output = Self;
    fn add(self, other: Self) -> Self {
        Self(self.0 + other.0)
    }
}
impl Sub for Length {
    type Output = Self;
    fn sub(self, other: Self) -> Self {
        Self(self.0 - other.0)
    }
}
impl AddAssign for Length {
    fn add_assign(&mut self, other: Self) {
        self.0 += other.0;
    }
}
impl SubAssign for Length {
    fn sub_assign(&mut self, other: Self) {
        self.0 -= other.0;
    }
}
impl Neg for Length {
    type Output = Self;
    fn neg(self) -> Self {
        Self(-self.0)
    }
}
impl Mul<i64> for Length {
    type Output = Self;
    fn mul(self, times: i64) -> Self {
        Self(self.0 * times)
    }
}
/// Truncates to the unit; halving and quartering ruler fractions is exact.
impl Div<i64> for Length {
    type Output = Self;
    fn div(self, by: i64) -> Self {
        Self(self.0 / by)
    }
}
impl Mul for Length {
    type Output = Area;
    fn mul(self, other: Self) -> Area {
        Area(i128::from(self.0) * i128::from(other.0))
    }
}
impl Sum for Length {
    fn sum<I: Iterator<Item = Self>>(all: I) -> Self {
        all.fold(Self::ZERO, |a, b| a + b)
    }
}
impl Add for Area {
    type Output = Self;
    fn add(self, other: Self) -> Self {
        Self(self.0 + other.0)
    }
}
impl Sum for Area {
    fn sum<I: Iterator<Item = Self>>(all: I) -> Self {
        all.fold(Self(0), |a, b| a + b)
    }
}

/// A length in inches for inch makers and its metric neighbour for the others: (inches × 8, centimetres × 10).
pub(crate) fn default_length(system: System, eighths: i64, tenths: i64) -> Length {
    match system {
        System::Inches => Length::inches(eighths, 8),
        System::Centimetres => Length::MILLIMETRE * tenths,
    }
}

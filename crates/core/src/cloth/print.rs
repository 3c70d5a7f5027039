//! The direction of a cloth's print.

use serde::{Deserialize, Serialize};

/// What turning a cloth upside down does to its print.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Print {
    /// No direction.
    #[default]
    AllOver,
    /// Up or upside down alike, such as stripes.
    TwoWay,
    /// An up and a down; a nap counts as one.
    OneWay,
}

impl Print {
    /// All of them, in the order they are offered.
    pub const ALL: [Self; 3] = [Self::AllOver, Self::TwoWay, Self::OneWay];

    /// How a piece may stand on it.
    pub const fn name(self) -> &'static str {
        match self {
            Self::AllOver => "any way up",
            Self::TwoWay => "up or down",
            Self::OneWay => "one way up",
        }
    }
}

/// Where the print's up points on the cloth.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum PrintUp {
    /// Along the length (+y).
    #[default]
    Length,
    /// At a selvedge (+x): a railroaded print.
    Across,
}

impl PrintUp {
    /// Both, in the order they are offered.
    pub const ALL: [Self; 2] = [Self::Length, Self::Across];

    /// Where it points.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Length => "along the length",
            Self::Across => "at a selvedge",
        }
    }
}

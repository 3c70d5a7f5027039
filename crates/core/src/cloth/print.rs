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

//! How a piece may lie on the cloth.

use serde::{Deserialize, Serialize};

/// Which direction of the cloth the piece's upright axis runs along.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Grain {
    /// Along the selvedge, the strong direction.
    #[default]
    Length,
    /// Across the width.
    Across,
    /// Either of the two.
    Either,
    /// At 45°, for binding round curves.
    Bias,
    /// Any; quarter turns suffice.
    Any,
}

/// Whether the piece minds how the print stands.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum PrintRule {
    /// It stands on the bag as printed.
    #[default]
    Upright,
    /// The maker does not care which way up.
    Ignore,
}

/// Whether copies are flipped.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Mirror {
    /// None.
    #[default]
    No,
    /// Every second one.
    Pairs,
    /// Either face will do.
    Free,
}

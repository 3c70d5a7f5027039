//! Bindings: strips that close raw edges, and strips longer than the cloth. Common practice.

use super::field::choice;
use crate::measure::{Length, Ruler};
use crate::piece::{Dimension, Grain, Part, Piece, Term};
use serde::{Deserialize, Serialize};

choice! {
    /// How a binding is folded.
    BindingFold {
        /// Both edges to the middle: four times as wide.
        Double = "double", "Double fold", "cut four times as wide as it finishes";
        /// Folded in half first: six times as wide.
        Doubled = "doubled", "Doubled", "folded in half, cut six times as wide";
    }
}

/// How strips are joined end to end.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "kebab-case")]
pub enum Join {
    /// At 45°: lies flat, costs the strip's width.
    #[default]
    Diagonal,
    /// Straight across: costs two seams.
    Straight,
}

impl Join {
    /// Both, in the order they are offered.
    pub const ALL: [Self; 2] = [Self::Diagonal, Self::Straight];

    /// How it runs.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Diagonal => "on the diagonal",
            Self::Straight => "straight across",
        }
    }
}

/// What one join of strips `width` wide costs in length, with seams of `seam`.
pub fn join_costs(join: Join, width: Length, seam: Length) -> Length {
    match join {
        // The width, and half an inch of tail at both ends.
        Join::Diagonal => width + Length::INCH,
        Join::Straight => seam * 2,
    }
}

/// Strips of at most `longest` that join to `length`, each end but the outer ones losing to the join: how many.
pub fn strips(length: Length, longest: Length, join: Join, width: Length, seam: Length) -> Option<u32> {
    let lost = join_costs(join, width, seam);
    if length <= longest {
        return Some(1);
    }
    // n strips give n·longest − (n − 1)·lost.
    let gain = longest - lost;
    (gain > Length::ZERO).then(|| ((length - longest).0 + gain.0 - 1).div_euclid(gain.0) as u32 + 1)
}

/// Bias strip that a square gives: its area over the strip's width.
pub fn bias_from_square(side: Length, width: Length) -> Length {
    Length((i128::from(side.0) * i128::from(side.0) / i128::from(width.0.max(1))) as i64)
}

/// A binding for an edge `edge` long.
pub fn binding(
    id: &'static str,
    name: &'static str,
    fold: BindingFold,
    finished: Length,
    edge: Vec<Term>,
    ruler: Ruler,
) -> Piece {
    let width = match fold {
        BindingFold::Double => Term::times("finished binding, double fold", 4, finished, "binding_width"),
        BindingFold::Doubled => Term::times("finished binding, doubled", 6, finished, "binding_width"),
    };
    Piece::new(id, name, Part::Binding, Dimension::sum(vec![width], ruler), Dimension::sum(edge, ruler))
        .lying(Grain::Either)
        .noted("straight for straight edges; on the bias where the edge curves")
}

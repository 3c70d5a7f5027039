//! Shapes that scraps often have, to start a drawing from; and the words for some of them.

use crate::measure::Length;
use crate::shape::Point;
use serde::{Deserialize, Serialize};

/// A shape to start from. Common practice: what is left beside curved and slanted pieces.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "kebab-case")]
pub enum ScrapShape {
    /// Four square corners.
    Rectangle,
    /// A square corner and a slanted side.
    RightTriangle,
    /// Both slanted sides alike.
    EvenTriangle,
    /// Slanted on both sides alike, narrower at the far end.
    Wedge,
    /// Slanted on the right side alone.
    OneSlant,
    /// A rectangle that lacks its far right corner.
    LShape,
    /// Straight at the near end, half a circle beyond.
    HalfRound,
    /// Five corners and no two sides alike.
    Odd,
}

impl ScrapShape {
    /// All of them, as they are offered.
    pub const ALL: [Self; 8] = [
        Self::Rectangle,
        Self::RightTriangle,
        Self::EvenTriangle,
        Self::Wedge,
        Self::OneSlant,
        Self::LShape,
        Self::HalfRound,
        Self::Odd,
    ];

    /// In a word or two.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Rectangle => "rectangle",
            Self::RightTriangle => "triangle, one corner square",
            Self::EvenTriangle => "triangle",
            Self::Wedge => "wedge",
            Self::OneSlant => "slanted on one side",
            Self::LShape => "L, a corner gone",
            Self::HalfRound => "half round",
            Self::Odd => "odd",
        }
    }

    /// Its corners in a box `width` × `height`, counter-clockwise; what is lopsided takes `less` off: the far end of a
    /// wedge, the missing corner of an L. Nothing less than the box is half of it.
    pub fn corners(self, width: Length, height: Length, less: Option<(Length, Length)>) -> Vec<Point> {
        let (zero, p) = (Length::ZERO, Point::new);
        let (lx, ly) = less.unwrap_or((width / 2, height / 2));
        match self {
            Self::Rectangle => vec![p(zero, zero), p(width, zero), p(width, height), p(zero, height)],
            Self::RightTriangle => vec![p(zero, zero), p(width, zero), p(zero, height)],
            Self::EvenTriangle => vec![p(zero, zero), p(width, zero), p(width / 2, height)],
            Self::Wedge => {
                let side = lx / 2;
                vec![p(zero, zero), p(width, zero), p(width - side, height), p(side, height)]
            }
            Self::OneSlant => vec![p(zero, zero), p(width, zero), p(width - lx, height), p(zero, height)],
            Self::LShape => vec![
                p(zero, zero),
                p(width, zero),
                p(width, height - ly),
                p(width - lx, height - ly),
                p(width - lx, height),
                p(zero, height),
            ],
            Self::HalfRound => half_round(width, height),
            Self::Odd => vec![
                p(width / 8, zero),
                p(width * 9 / 10, height / 10),
                p(width, height * 7 / 10),
                p(width / 2, height),
                p(zero, height * 6 / 10),
            ],
        }
    }
}

/// Points on half an ellipse over a straight near end, all of them inside the curve, so that nothing is planned beyond it.
fn half_round(width: Length, height: Length) -> Vec<Point> {
    const EIGHTHS: usize = 8;
    let half = width.0 as f64 / 2.0;
    (0..=EIGHTHS)
        .map(|k| {
            let (x, y) = crate::shape::on_circle(k as u32 * 4);
            let at = |v: f64| Length(v.round() as i64);
            Point::new(at(half + half * x), at(height.0 as f64 * y))
        })
        .collect()
}

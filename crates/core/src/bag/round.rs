//! Round bases, rounded corners and gussets. Common practice.

use crate::measure::{Length, Ruler};
use crate::piece::{Dimension, Figure, From, Mark, Part, Piece, Term};

/// π times a diameter, to the unit above: a strip that is short does not go round.
pub fn circumference(diameter: Length) -> Length {
    Length((diameter.0 as f64 * std::f64::consts::PI).ceil() as i64)
}

/// The wall's strip round a circle that is cut `cut` across with seams `seam`: π·d + 2s on the seam line.
pub fn wall(cut: Length, seam: Length) -> Length {
    circumference(cut - seam * 2) + seam * 2
}

/// By how much "three times the cut circle" is short of the true strip; negative when it is too long.
pub fn three_times_is_short_by(cut: Length, seam: Length) -> Length {
    wall(cut, seam) - cut * 3
}

/// From one end of the straight edge to the other round a half-round face, on the seam line: half a circle, and the
/// straight sides of what is taller than half its width.
pub fn round_half(width: Length, height: Length) -> Length {
    Length((width.0 as f64 * std::f64::consts::FRAC_PI_2).ceil() as i64) + (height - width / 2) * 2
}

/// A circle of finished `diameter` (the bag's field and it), with `seam` (likewise) all round.
pub(super) fn circle(
    (id, name): (&'static str, &'static str),
    part: Part,
    diameter: (&'static str, Length),
    seam: (&'static str, Length),
    ruler: Ruler,
) -> Piece {
    let across = Dimension::sum(
        vec![Term::once("diameter", diameter.1, diameter.0), Term::times("seam all round", 2, seam.1, seam.0)],
        ruler,
    );
    let quarter = Mark {
        boxes: false,
        share: false,
        name: "notch at each quarter: fold it in half twice".into(),
        distance: Length::ZERO,
        from: From::Middle,
        and: None,
    };
    Piece::new(id, name, part, across.clone(), across).shaped(Figure::Circle).marked([quarter])
}

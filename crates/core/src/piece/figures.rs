//! The figures for cutting a piece that is not a rectangle, in words, for the card, the cut sheet and the tables.

use super::{Figure, Piece};
use crate::measure::{Length, Ruler};
use crate::shape::Point;

/// Of an outline with more corners the figures are not written out: it is cut by its drawing.
const MOST_CORNERS: usize = 12;

impl Piece {
    /// What it is cut to within its width and height, in words with the figures of `ruler`; nothing of a rectangle. Of a
    /// piece that is cut over, the figures once it is trimmed follow.
    pub fn figures(&self, ruler: Ruler) -> Option<String> {
        self.figures_by(&|length| ruler.show(length).text)
    }

    /// The same, every length written by `show`.
    pub fn figures_by(&self, show: &dyn Fn(Length) -> String) -> Option<String> {
        let now = figures_of(&self.figure, self.size(), show);
        let trimmed = self.trimmed.as_ref().filter(|figure| **figure != self.figure).and_then(|figure| {
            let trimmed = self.as_trimmed();
            figures_of(figure, trimmed.size(), show)
        });
        match (now, trimmed) {
            (now, None) => now,
            (None, Some(later)) => Some(format!("once trimmed: {later}")),
            (Some(now), Some(later)) => Some(format!("{now}; once trimmed: {later}")),
        }
    }
}

fn figures_of(figure: &Figure, (width, height): (Length, Length), show: &dyn Fn(Length) -> String) -> Option<String> {
    let straight = |high: Length| {
        if high > Length::ZERO { format!("sides straight for {}, then ", show(high)) } else { String::new() }
    };
    Some(match figure {
        Figure::Rectangle => return None,
        Figure::CutOut { across, up } => {
            format!("both lower corners cut out, {} across × {} up", show(across.size), show(up.size))
        }
        Figure::CutAtFold { across, up } => format!(
            "a notch in the middle of both sides, {} deep, {} above and {} below the fold",
            show(across.size),
            show(up.size),
            show(up.size)
        ),
        Figure::Circle => format!("a circle, radius {}, {} across", show(width / 2), show(width)),
        Figure::HalfRound => {
            format!("top straight, {}half a circle, radius {}", straight(height - width / 2), show(width / 2))
        }
        Figure::Rounded(radius) => format!("both lower corners rounded, radius {}", show(*radius)),
        Figure::RoundedAbove(radius) if *radius * 2 == width => {
            format!("base straight, {}half a circle, radius {}", straight(height - *radius), show(*radius))
        }
        Figure::RoundedAbove(radius) => format!("both upper corners rounded, radius {}", show(*radius)),
        Figure::Tapered(by) => {
            let less = Length(by.0.abs());
            let (top, base) = if *by > Length::ZERO { (width - less * 2, width) } else { (width, width - less * 2) };
            let narrow = if *by > Length::ZERO { "top" } else { "base" };
            format!(
                "{} wide at the top, {} at the base: in by {} at each side of the {narrow}",
                show(top),
                show(base),
                show(less)
            )
        }
        Figure::Free(corners) => free(corners, (width, height), show),
    })
}

/// An outline by its corners: what is cut out of the corners of its rectangle, or its corners one after the other.
fn free(corners: &[Point], (width, height): (Length, Length), show: &dyn Fn(Length) -> String) -> String {
    if let Some(cut) = cut_out(corners, (width, height)) {
        let first = cut[0];
        if cut.iter().all(|c| *c == first) {
            return format!("all four corners cut out, {} across × {} up", show(first.0), show(first.1));
        }
        let (upper, lower) = ((cut[2], cut[3]), (cut[0], cut[1]));
        let each = |name: &str, (across, up): (Length, Length)| {
            (across > Length::ZERO).then(|| format!("{name} cut out, {} across × {} up", show(across), show(up)))
        };
        let told: Vec<String> = if upper.0 == upper.1 && lower.0 == lower.1 {
            [each("both upper corners", upper.0), each("both lower corners", lower.0)].into_iter().flatten().collect()
        } else {
            let names = ["lower left corner", "lower right corner", "upper right corner", "upper left corner"];
            names.into_iter().zip(cut).filter_map(|(name, cut)| each(name, cut)).collect()
        };
        return told.join("; ");
    }
    if corners.len() > MOST_CORNERS {
        return format!("an outline of {} corners: cut it by its drawing or its pattern", corners.len());
    }
    let at = |p: &Point| format!("{} / {}", show(p.x), show(p.y));
    let all: Vec<String> = corners.iter().map(at).collect();
    format!("corners, from the left / up from the base: {}", all.join(", "))
}

/// What is cut out of the lower left, lower right, upper right and upper left corner of the rectangle, across and up, where
/// the outline is that and nothing else.
fn cut_out(corners: &[Point], (width, height): (Length, Length)) -> Option<[(Length, Length); 4]> {
    let zero = Length::ZERO;
    let square = |a: &Point, b: &Point| a.x == b.x || a.y == b.y;
    let n = corners.len();
    if n < 6 || !(0..n).all(|i| square(&corners[i], &corners[(i + 1) % n])) {
        return None;
    }
    // Every inner corner is one of a notch: off all four sides.
    let inner: Vec<&Point> =
        corners.iter().filter(|p| p.x > zero && p.x < width && p.y > zero && p.y < height).collect();
    let mut cut = [(zero, zero); 4];
    for p in &inner {
        let (left, low) = (p.x * 2 < width, p.y * 2 < height);
        let at = match (left, low) {
            (true, true) => 0,
            (false, true) => 1,
            (false, false) => 2,
            (true, false) => 3,
        };
        if cut[at] != (zero, zero) {
            return None;
        }
        cut[at] = (if left { p.x } else { width - p.x }, if low { p.y } else { height - p.y });
    }
    // Each takes one corner of the rectangle away and brings three.
    (n == 4 + 2 * inner.len() && !inner.is_empty()).then_some(cut)
}

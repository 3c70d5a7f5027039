//! A scrap as it lies: its outline in its print, flaws ringed and named, corners by their letters.

use super::canvas::{Canvas, Style, ink};
use super::font::{Face, text_width};
use bofta_core::cloth::{Cloth, Flaw, Form, Scrap, letters};
use bofta_core::shape::Point;

/// Letters at more corners than these would lie on each other.
const MOST_LETTERED: usize = 26;

/// The outline of `cloth` as washed, if it is a scrap, and its flaws.
pub(super) fn edges(cloth: &Cloth) -> Option<(Vec<Point>, Vec<Vec<Point>>)> {
    let Form::Scrap { outline, flaws } = &cloth.form else { return None };
    let washed = |corners: Vec<Point>| corners.into_iter().map(|p| cloth.washed(p)).collect::<Vec<_>>();
    Some((washed(outline.corners()), flaws.iter().map(|f| washed(f.corners())).collect()))
}

/// Paper and print within `corners`, the print as strong as `opacity`.
pub(super) fn ground(canvas: &mut Canvas, corners: &[(f64, f64)], fill: &str, opacity: f64, edge: Style) {
    canvas.polygon(corners, &Style::fill(ink::PAPER));
    canvas.polygon(corners, &Style::fill(fill).opacity(opacity));
    canvas.polygon(corners, &edge);
}

/// A ring round each flaw, with what it is where there is room.
pub(super) fn flaws(canvas: &mut Canvas, rings: &[(Vec<(f64, f64)>, &str)]) {
    for (ring, name) in rings {
        canvas.polygon(ring, &Style::fill(ink::PAPER).opacity(0.6));
        canvas.polygon(ring, &Style::line(ink::MADDER, 1.4).dash("3 2"));
        let range = |of: fn(&(f64, f64)) -> f64| {
            let all = || ring.iter().map(of);
            (all().fold(f64::INFINITY, f64::min), all().fold(f64::NEG_INFINITY, f64::max))
        };
        let ((left, right), (top, bottom)) = (range(|p| p.0), range(|p| p.1));
        if text_width(name, Face::Text, 13.0) < right - left && bottom - top > 16.0 {
            let middle = ((left + right) / 2.0, f64::midpoint(top, bottom) + 4.5);
            canvas.text(middle.0, middle.1, name, Face::Text, 13.0, ink::MADDER, "middle");
        }
    }
}

/// Along every side that is worth keeping, just within, a band of tape and a line.
pub(super) fn kept_edges(canvas: &mut Canvas, scrap: &Scrap, corners: &[(f64, f64)]) {
    for edge in &scrap.kept {
        let (a, b) = (corners[edge.side], corners[(edge.side + 1) % corners.len()]);
        canvas.line(a.0, a.1, b.0, b.1, &Style::line(ink::TAPE, 6.0));
        canvas.line(a.0, a.1, b.0, b.1, &Style::line(ink::INDIGO, 1.6));
    }
}

/// The letter of every corner, just outside it.
pub(super) fn corner_letters(canvas: &mut Canvas, corners: &[(f64, f64)]) {
    const OUT: f64 = 10.0;
    if corners.len() > MOST_LETTERED {
        return;
    }
    for (k, &(x, y)) in corners.iter().enumerate() {
        let (dx, dy) = outward(corners, k);
        canvas.text(x + dx * OUT, y + dy * OUT + 4.5, &letters(k), Face::Bold, 13.0, ink::CHALK, "middle");
    }
}

/// The direction out of a corner of counter-clockwise corners whose y runs down the page.
fn outward(corners: &[(f64, f64)], k: usize) -> (f64, f64) {
    let n = corners.len();
    let unit = |a: (f64, f64), b: (f64, f64)| {
        let (dx, dy) = (b.0 - a.0, b.1 - a.1);
        let long = dx.hypot(dy).max(1e-9);
        (dx / long, dy / long)
    };
    let (before, after) = (unit(corners[(k + n - 1) % n], corners[k]), unit(corners[k], corners[(k + 1) % n]));
    // Right of the way round, down the page as the y axis runs, is out.
    let out = (-(before.1 + after.1), before.0 + after.0);
    let long = out.0.hypot(out.1);
    if long < 1e-6 { (-before.1, before.0) } else { (out.0 / long, out.1 / long) }
}

/// Beside every side its length as told, where the side is long enough for it.
pub(super) fn side_lengths(canvas: &mut Canvas, corners: &[(f64, f64)], told: &[String]) {
    const SIZE: f64 = 13.0;
    let n = corners.len();
    for (k, text) in told.iter().enumerate() {
        let (a, b) = (corners[k], corners[(k + 1) % n]);
        let (dx, dy) = (b.0 - a.0, b.1 - a.1);
        let long = dx.hypot(dy);
        let wide = text_width(text, Face::Bold, SIZE);
        if long < wide + 8.0 {
            continue;
        }
        let out = (-dy / long, dx / long);
        let off = 7.0 + (out.0.abs() * wide / 2.0).max(out.1.abs() * 5.0);
        let at = (f64::midpoint(a.0, b.0) + out.0 * off, f64::midpoint(a.1, b.1) + out.1 * off);
        canvas.text(at.0, at.1 + 4.5, text, Face::Bold, SIZE, ink::CHALK, "middle");
    }
}

/// The flaws of a scrap by name.
pub(super) fn named(flaws: &[Flaw], place: impl Fn(&Point) -> (f64, f64)) -> Vec<(Vec<(f64, f64)>, &str)> {
    flaws.iter().map(|f| (f.corners.iter().map(&place).collect(), f.kind.name())).collect()
}

//! What there is of a cloth, as it lies on a table: pieces at one scale, a roll that is bought as the end of its bolt.

use super::canvas::{Canvas, Drawing, Style, ink};
use super::pattern::{paint, up_degrees};
use bofta_core::cloth::AtHand;
use bofta_core::project::ProjectCloth;

/// Pieces of a pile that are drawn; the count says how many there are.
const MOST_DRAWN: u32 = 4;

/// A piece of a pile lies so many pixels off the one below it.
const OFF: f64 = 5.0;

/// No side is drawn shorter, or it would not be seen.
const LEAST: f64 = 5.0;

/// One thing that is there of `cloth`, `scale` pixels to a unit of length; several alike as a pile.
pub fn at_hand(cloth: &ProjectCloth, thing: &AtHand, key: &str, scale: f64) -> Drawing {
    let (length, width) = thing.form.size(cloth.width);
    let (w, h) = ((width.0 as f64 * scale).max(LEAST), (length.0 as f64 * scale).max(LEAST));
    let drawn = thing.count.min(MOST_DRAWN);
    let pile = f64::from(drawn - 1) * OFF;
    let mut canvas = Canvas::default();
    let fill = paint(&mut canvas, &cloth.look, &format!("hand-{key}"), up_degrees(cloth));
    for n in (0..drawn).rev() {
        let off = f64::from(n) * OFF;
        let (x, y) = (1.0 + off, 1.0 + pile - off);
        canvas.rect(x, y, w, h, &Style::fill(ink::PAPER));
        let edge = if thing.about {
            Style::fill(fill.clone()).stroke(ink::INDIGO, 1.2).dash("4 3")
        } else {
            Style::fill(fill.clone()).stroke(ink::INDIGO, 1.0)
        };
        canvas.rect(x, y, w, h, &edge);
    }
    canvas.finish(w + pile + 2.0, h + pile + 2.0)
}

/// The end of the bolt that `cloth` is bought off.
pub fn bolt(cloth: &ProjectCloth, key: &str, scale: f64) -> Drawing {
    const ROUND: f64 = 22.0;
    const SHOWN: f64 = 52.0;
    let w = (cloth.width.0 as f64 * scale).max(LEAST);
    let mut canvas = Canvas::default();
    let fill = paint(&mut canvas, &cloth.look, &format!("bolt-{key}"), up_degrees(cloth));
    canvas.rect(7.0, ROUND - 2.0, w, SHOWN, &Style::fill(fill.clone()).opacity(0.55));
    canvas.rect(7.0, ROUND - 2.0, w, SHOWN, &Style::line(ink::SOFT, 1.0).dash("5 4"));
    canvas.rect(1.0, 1.0, w + 12.0, ROUND, &Style::fill(fill).rounded(9.0));
    canvas.rect(1.0, 1.0 + ROUND / 2.0, w + 12.0, ROUND / 2.0, &Style::fill(ink::INDIGO).opacity(0.22).rounded(9.0));
    canvas.rect(1.0, 1.0, w + 12.0, ROUND, &Style::line(ink::INDIGO, 1.0).rounded(9.0));
    canvas.finish(w + 14.0, ROUND + SHOWN)
}

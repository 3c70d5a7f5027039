//! What there is of a cloth, as it lies on a table: pieces at one scale, a roll that is bought as the end of its bolt.

use super::canvas::{Canvas, Drawing, Style, ink, num};
use super::pattern::{border_from, paint, up_degrees};
use super::scrap;
use bofta_core::cloth::{AtHand, HandForm, Scrap};
use bofta_core::measure::Ruler;
use bofta_core::project::ProjectCloth;
use bofta_core::shape::Point;

/// Pieces of a pile that are drawn; the count says how many there are.
const MOST_DRAWN: u32 = 4;

/// A piece of a pile lies so many pixels off the one below it.
const OFF: f64 = 5.0;

/// No side is drawn shorter, or it would not be seen.
const LEAST: f64 = 5.0;

/// One thing that is there of `cloth`, `scale` pixels to a unit of length; several alike as a pile. The sides of a scrap
/// are told by `ruler`.
pub fn at_hand(cloth: &ProjectCloth, thing: &AtHand, (key, ruler): (&str, Ruler), scale: f64) -> Drawing {
    if let HandForm::Scrap(scrap) = &thing.form {
        return one_scrap(cloth, scrap, thing.count, (key, ruler), scale);
    }
    let (length, width) = thing.form.size(cloth.width);
    let (w, h) = ((width.0 as f64 * scale).max(LEAST), (length.0 as f64 * scale).max(LEAST));
    let drawn = thing.count.min(MOST_DRAWN);
    let pile = f64::from(drawn - 1) * OFF;
    let mut canvas = Canvas::default();
    let whole = matches!(thing.form, HandForm::Length { .. });
    let border = border_from(cloth, 1.0, scale).filter(|_| whole);
    let fill = paint(&mut canvas, cloth, &format!("hand-{key}"), (up_degrees(cloth), scale), border);
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
    if matches!(thing.form, HandForm::Tube { .. }) {
        tube(&mut canvas, (1.0, 1.0 + pile), (w, h));
    }
    canvas.finish(w + pile + 2.0, h + pile + 2.0)
}

/// A tube lying flat at (`x`, `y`): its fold at the left, its seam stitched at the right, and the far opening.
fn tube(canvas: &mut Canvas, (x, y): (f64, f64), (w, h): (f64, f64)) {
    canvas.line(x, y, x, y + h, &Style::line(ink::CHALK, 3.0).dash("10 5"));
    canvas.line(x + w - 4.0, y, x + w - 4.0, y + h, &Style::line(ink::INDIGO, 1.2).dash("2 3"));
    let lip = (h / 8.0).min(6.0);
    canvas.path(
        &format!("M{} {}q{} {} {} 0", num(x), num(y), num(w / 2.0), num(2.0 * lip), num(w)),
        &Style::line(ink::INDIGO, 1.0),
    );
}

/// One thing as it lies in the cupboard, without its sizes.
pub fn on_shelf(cloth: &ProjectCloth, thing: &AtHand, key: &str, scale: f64) -> Drawing {
    let HandForm::Scrap(scrap) = &thing.form else { return at_hand(cloth, thing, (key, Ruler::Eighth), scale) };
    let (width, height) = scrap.outline.size();
    let (w, h) = (width.0 as f64 * scale, height.0 as f64 * scale);
    let mut canvas = Canvas::default();
    let fill = paint(&mut canvas, cloth, &format!("hand-{key}"), (up_degrees(cloth), scale), None);
    let place = |p: &Point| (1.5 + p.x.0 as f64 * scale, 1.5 + h - p.y.0 as f64 * scale);
    let at: Vec<(f64, f64)> = scrap.corners().iter().map(place).collect();
    scrap::ground(&mut canvas, &at, &fill, 1.0, Style::line(ink::INDIGO, 1.2));
    scrap::kept_edges(&mut canvas, scrap, &at);
    scrap::flaws(&mut canvas, &scrap::named(&scrap.flaws, place));
    canvas.finish(w + 3.0, h + 3.0)
}

/// Room round a scrap for the lengths of its sides.
const ROUND: f64 = 30.0;

fn one_scrap(cloth: &ProjectCloth, scrap: &Scrap, count: u32, (key, ruler): (&str, Ruler), scale: f64) -> Drawing {
    let (width, height) = scrap.outline.size();
    let (w, h) = (width.0 as f64 * scale, height.0 as f64 * scale);
    let drawn = count.min(MOST_DRAWN);
    let pile = f64::from(drawn - 1) * OFF;
    let mut canvas = Canvas::default();
    let fill = paint(&mut canvas, cloth, &format!("hand-{key}"), (up_degrees(cloth), scale), None);
    let place =
        |off: f64| move |p: &Point| (ROUND + off + p.x.0 as f64 * scale, ROUND + pile - off + h - p.y.0 as f64 * scale);
    let corners = scrap.corners();
    for n in (0..drawn).rev() {
        let at: Vec<(f64, f64)> = corners.iter().map(place(f64::from(n) * OFF)).collect();
        scrap::ground(&mut canvas, &at, &fill, 1.0, Style::line(ink::INDIGO, 1.2));
    }
    let at: Vec<(f64, f64)> = corners.iter().map(place(0.0)).collect();
    scrap::kept_edges(&mut canvas, scrap, &at);
    scrap::flaws(&mut canvas, &scrap::named(&scrap.flaws, place(0.0)));
    let n = corners.len();
    let side = |k: usize| ruler.show(scrap.side(k, (k + 1) % n).round_to(ruler.step())).text;
    scrap::side_lengths(&mut canvas, &at, &(0..n).map(side).collect::<Vec<_>>());
    canvas.finish(w + pile + 2.0 * ROUND, h + pile + 2.0 * ROUND)
}

/// The end of the bolt that `cloth` is bought off.
pub fn bolt(cloth: &ProjectCloth, key: &str, scale: f64) -> Drawing {
    const ROLLED: f64 = 22.0;
    const SHOWN: f64 = 52.0;
    let w = (cloth.width.0 as f64 * scale).max(LEAST);
    let mut canvas = Canvas::default();
    let fill =
        paint(&mut canvas, cloth, &format!("bolt-{key}"), (up_degrees(cloth), scale), border_from(cloth, 7.0, scale));
    canvas.rect(7.0, ROLLED - 2.0, w, SHOWN, &Style::fill(fill.clone()).opacity(0.55));
    canvas.rect(7.0, ROLLED - 2.0, w, SHOWN, &Style::line(ink::SOFT, 1.0).dash("5 4"));
    canvas.rect(1.0, 1.0, w + 12.0, ROLLED, &Style::fill(fill).rounded(9.0));
    canvas.rect(1.0, 1.0 + ROLLED / 2.0, w + 12.0, ROLLED / 2.0, &Style::fill(ink::INDIGO).opacity(0.22).rounded(9.0));
    canvas.rect(1.0, 1.0, w + 12.0, ROLLED, &Style::line(ink::INDIGO, 1.0).rounded(9.0));
    canvas.finish(w + 14.0, ROLLED + SHOWN)
}

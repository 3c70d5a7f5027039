//! A notion as it lies on its shelf: webbing and cord as strips and zips with their teeth at the scale of the cloths, rings by
//! their opening and anything else as a button, five times as large, or they would be dots.

use super::canvas::{Canvas, Drawing, Style, ink, num};
use super::dress::WEBBING;
use bofta_core::bag::GoodKind;
use bofta_core::measure::Length;
use bofta_core::notions::{Amount, Notion};

/// More of one thing than this is told by its number.
const MOST_DRAWN: u32 = 12;

/// A strip longer than this, in pixels, is drawn broken off.
const LONGEST: f64 = 420.0;

/// How many times as large small things are.
const SMALL_THINGS: f64 = 5.0;

/// Between two things.
const GAP: f64 = 4.0;

/// `amount` of a notion, `scale` pixels to a unit of length; of a small thing five times as many.
pub fn notion_on_shelf(notion: &Notion, amount: &Amount, scale: f64) -> Drawing {
    let px = |l: Length| l.0 as f64 * scale;
    let mut canvas = Canvas::default();
    if let Some(kind) = notion.by_length {
        let usual = if kind == GoodKind::Cord { Length::MILLIMETRE * 5 } else { Length::INCH };
        let tall = px(notion.size.unwrap_or(usual)).clamp(3.0, 40.0);
        let mut widest: f64 = 24.0;
        for (n, length) in amount.lengths.iter().take(MOST_DRAWN as usize).enumerate() {
            let long = strip(&mut canvas, kind, (1.0, 1.0 + n as f64 * (tall + GAP)), (px(*length), tall));
            widest = widest.max(long);
        }
        let rows = amount.lengths.len().clamp(1, MOST_DRAWN as usize) as f64;
        return canvas.finish(widest + 2.0, rows * (tall + GAP));
    }
    let drawn = amount.pieces.min(MOST_DRAWN);
    let is = |word: &str| notion.name.to_lowercase().contains(word);
    if let (true, Some(teeth)) = (is("zip"), notion.size) {
        let (tall, mut widest) = (px(Length::INCH), 24.0_f64);
        for n in 0..drawn {
            let at = (1.0, 1.0 + f64::from(n) * (tall + GAP));
            widest = widest.max(strip(&mut canvas, GoodKind::Zip, at, (px(teeth + Length::INCH), tall)));
        }
        return canvas.finish(widest + 2.0, f64::from(drawn.max(1)) * (tall + GAP));
    }
    // A ring by its opening, anything else by its size, and half an inch where it has none.
    let across = (px(notion.size.unwrap_or(Length::INCH / 2)) * SMALL_THINGS).clamp(6.0, 60.0);
    let each = across + 5.0 + GAP;
    for n in 0..drawn {
        let (x, y) = (3.0 + f64::from(n % 6) * each, 3.0 + f64::from(n / 6) * each);
        if is("ring") {
            if is("d-ring") {
                let (right, bow) = (num(x + across), num(y - across * 0.05));
                let d = format!(
                    "M{} {}V{}C{} {bow} {right} {bow} {right} {}V{}Z",
                    num(x),
                    num(y + across * 0.8),
                    num(y + across * 0.4),
                    num(x),
                    num(y + across * 0.4),
                    num(y + across * 0.8)
                );
                canvas.path(&d, &Style::line(ink::SOFT, 3.0));
            } else {
                canvas.rect(x, y, across, across, &Style::line(ink::SOFT, 3.0).rounded(across / 2.0));
            }
        } else {
            canvas.rect(x, y, across, across, &Style::fill(ink::TAPE).stroke(ink::INDIGO, 1.0).rounded(3.0));
            let middle = across / 2.0 - 1.5;
            canvas.rect(x + middle, y + middle, 3.0, 3.0, &Style::fill(ink::INDIGO).rounded(1.5));
        }
    }
    let (columns, rows) = (drawn.clamp(1, 6), drawn.max(1).div_ceil(6));
    canvas.finish(6.0 + f64::from(columns) * each, 6.0 + f64::from(rows) * each)
}

/// A strip so long and tall, broken off with a slant where it is longer than is drawn; gives how long it is drawn.
fn strip(canvas: &mut Canvas, kind: GoodKind, (x, y): (f64, f64), (long, tall): (f64, f64)) -> f64 {
    let (drawn, cut) = if long > LONGEST { (LONGEST, tall.min(8.0)) } else { (long, 0.0) };
    let outline = [(x, y), (x + drawn, y), (x + drawn - cut, y + tall), (x, y + tall)];
    canvas.polygon(&outline, &Style::fill(WEBBING).stroke(ink::INDIGO, 1.0));
    let middle = y + tall / 2.0;
    match kind {
        GoodKind::Zip => {
            canvas.line(x + 3.0, middle, x + drawn - 5.0, middle, &Style::line(ink::INDIGO, 2.0).dash("2 1.5"));
            canvas.rect(x + drawn - 9.0, middle - 2.5, 6.0, 5.0, &Style::fill(ink::INDIGO).rounded(1.5));
        }
        GoodKind::Webbing => {
            for along in [tall * 0.25, tall * 0.75] {
                canvas.line(x, y + along, x + drawn - cut, y + along, &Style::line(ink::SOFT, 0.7).dash("3 2"));
            }
        }
        GoodKind::Cord => canvas.line(x, middle, x + drawn, middle, &Style::line(ink::SOFT, 1.0).dash("2 3")),
        GoodKind::Tape => {}
    }
    drawn
}

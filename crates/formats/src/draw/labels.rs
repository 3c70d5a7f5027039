//! Names and sizes of pieces in a drawing: inside where there is room, upright in a narrow piece, led out to the side of
//! the cloth otherwise. No two of them overlap, and nothing is left without a name.

use super::canvas::{Canvas, Style, escape, ink, num};
use super::font::{Face, text_width};

/// Left, top, right, bottom.
type Box = [f64; 4];

/// Where text already stands.
#[derive(Default)]
pub(super) struct Labels {
    taken: Vec<Box>,
    /// Led out: the piece, its text, where it lies.
    out: Vec<(String, String, (f64, f64), u32)>,
}

impl Labels {
    pub(super) fn is_free(&self, b: Box) -> bool {
        self.taken.iter().all(|t| t[2] <= b[0] || b[2] <= t[0] || t[3] <= b[1] || b[3] <= t[1])
    }

    pub(super) fn take(&mut self, b: Box) {
        self.taken.push(b);
    }

    /// The label of the piece `id` in its box (left, top, width, height), in the largest of `sizes` that fits; otherwise it
    /// is led out later. With `shadowed` the piece is no rectangle: only its middle is used.
    pub(super) fn piece(
        &mut self,
        canvas: &mut Canvas,
        (id, name, size): (&str, &str, &str),
        (x, y, w, h): (f64, f64, f64, f64),
        sizes: &[f64],
    ) {
        let one_line = format!("{name} · {size}");
        for &font in sizes {
            let two = (name, size);
            for (first, second) in [two, (one_line.as_str(), "")] {
                let wide = text_width(first, Face::Bold, font).max(text_width(second, Face::Text, font - 1.0)) + 10.0;
                let high = 6.0 + font * 1.12 * if second.is_empty() { 1.0 } else { 2.0 };
                if let Some(at) = self.place((x, y, w, h), (wide, high)) {
                    canvas.label(at, first, second, font, (f64::INFINITY, f64::INFINITY));
                    return;
                }
                if let Some((cx, cy)) = self.place((x, y, w, h), (high, wide)) {
                    canvas.begin(&format!(r#"transform="rotate(-90 {} {})""#, num(cx), num(cy)));
                    canvas.label((cx, cy), first, second, font, (f64::INFINITY, f64::INFINITY));
                    canvas.end();
                    return;
                }
            }
        }
        let middle = (x + w / 2.0, y + h / 2.0);
        match self.out.iter_mut().find(|o| o.0 == id && o.1 == one_line) {
            Some(same) => same.3 += 1,
            None => self.out.push((id.to_owned(), one_line, middle, 1)),
        }
    }

    /// Where a text of `size` fits into a box without meeting another: its middle first, then above and below.
    fn place(&mut self, (x, y, w, h): (f64, f64, f64, f64), (wide, high): (f64, f64)) -> Option<(f64, f64)> {
        if wide > w - 2.0 || high > h - 2.0 {
            return None;
        }
        let (sx, sy) = ((w - wide) / 2.0 - 1.0, (h - high) / 2.0 - 1.0);
        let shifts = [
            (0.0, 0.0),
            (0.0, 0.5),
            (0.0, -0.5),
            (0.5, 0.0),
            (-0.5, 0.0),
            (0.0, 1.0),
            (0.0, -1.0),
            (1.0, 0.0),
            (-1.0, 0.0),
            (1.0, 1.0),
            (-1.0, 1.0),
            (1.0, -1.0),
            (-1.0, -1.0),
        ];
        for (dx, dy) in shifts {
            let (cx, cy) = (x + w / 2.0 + dx * sx, y + h / 2.0 + dy * sy);
            let b = [cx - wide / 2.0, cy - high / 2.0, cx + wide / 2.0, cy + high / 2.0];
            if self.is_free(b) {
                self.take(b);
                return Some((cx, cy));
            }
        }
        None
    }

    /// Whether anything has to be led out.
    pub(super) fn leads_out(&self) -> bool {
        !self.out.is_empty()
    }

    /// Writes what is led out in a column at `x`, between `top` and `bottom`, each with a line to its piece; pieces alike
    /// share one.
    pub(super) fn lead_out(&mut self, canvas: &mut Canvas, x: f64, (top, bottom): (f64, f64), font: f64) {
        let mut out = std::mem::take(&mut self.out);
        out.sort_by(|a, b| a.2.1.total_cmp(&b.2.1));
        let step = (font + 4.0).min((bottom - top).max(0.0) / out.len().max(1) as f64).max(font);
        let mut y = top;
        let mut left = out.len() as f64;
        for (id, text, at, count) in out {
            // As high as its piece, if those after it still find room.
            y = y.max(at.1.min(bottom - left * step));
            left -= 1.0;
            let text = if count > 1 { format!("{text}, {count} of them") } else { text };
            canvas.begin(&format!(r#"data-led="{}""#, escape(&id)));
            canvas.line(at.0, at.1, x - 4.0, y, &Style::line(ink::SOFT, 0.8));
            canvas.path(&format!("M{} {}h0.01", num(at.0), num(at.1)), &Style::line(ink::SOFT, 4.0));
            canvas.text(x, y + font * 0.35, &text, Face::Text, font, ink::INDIGO, "start");
            canvas.end();
            y += step;
        }
    }

    /// How much room the texts take that are led out, at `font`.
    pub(super) fn room_for_led_out(&self, font: f64) -> f64 {
        let wide =
            |o: &(String, String, (f64, f64), u32)| text_width(&format!("{}, 00 of them", o.1), Face::Text, font);
        self.out.iter().map(wide).fold(0.0, f64::max)
    }
}

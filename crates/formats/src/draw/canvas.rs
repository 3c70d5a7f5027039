//! Writing SVG: a few shapes and the colours of the house.

use super::font::{Face, text_width};
use bofta_core::name::is_unwritable;
use std::fmt::Write;

/// The colours, by what they are for.
pub mod ink {
    /// Lines and text.
    pub const INDIGO: &str = "#1F2A44";
    /// Lesser text.
    pub const SOFT: &str = "#5C5648";
    /// Paper.
    pub const PAPER: &str = "#FFFDF8";
    /// The ground.
    pub const CALICO: &str = "#F4EEE2";
    /// Ruled lines.
    pub const RULED: &str = "#D8CDB8";
    /// Cuts and actions.
    pub const MADDER: &str = "#A9412A";
    /// Selection and what is kept.
    pub const CHALK: &str = "#2F6F9F";
    /// Measuring tape.
    pub const TAPE: &str = "#E9C95B";
}

/// A finished drawing.
#[derive(Clone, Debug, PartialEq)]
pub struct Drawing {
    /// Width in pixels.
    pub width: f64,
    /// Height in pixels.
    pub height: f64,
    /// What is inside the `<svg>`.
    pub body: String,
}

impl Drawing {
    /// The same with ids of its own, that begin with `key`: several drawings of one kind stand on one page.
    #[must_use]
    pub fn keyed(mut self, key: &str) -> Self {
        let key: String = key.chars().map(|c| if c.is_ascii_alphanumeric() { c } else { '-' }).collect();
        self.body = self.body.replace(r#" id=""#, &format!(r#" id="{key}-"#)).replace("url(#", &format!("url(#{key}-"));
        self
    }

    /// A whole SVG file.
    pub fn to_svg(&self) -> String {
        let (w, h) = (num(self.width), num(self.height));
        format!(
            r#"<svg xmlns="http://www.w3.org/2000/svg" width="{w}" height="{h}" viewBox="0 0 {w} {h}">{}</svg>"#,
            self.body
        )
    }
}

/// How a shape is painted.
#[derive(Clone, Debug)]
pub struct Style {
    fill: String,
    stroke: Option<(String, f64)>,
    dash: Option<&'static str>,
    opacity: f64,
    radius: f64,
}

impl Style {
    /// Filled with a colour or `url(#pattern)`.
    pub fn fill(fill: impl Into<String>) -> Self {
        Self { fill: fill.into(), stroke: None, dash: None, opacity: 1.0, radius: 0.0 }
    }

    /// Only a line.
    pub fn line(colour: impl Into<String>, width: f64) -> Self {
        Self::fill("none").stroke(colour, width)
    }

    /// With a line round it.
    pub fn stroke(mut self, colour: impl Into<String>, width: f64) -> Self {
        self.stroke = Some((colour.into(), width));
        self
    }

    /// With a dashed line.
    pub fn dash(mut self, dash: &'static str) -> Self {
        self.dash = Some(dash);
        self
    }

    /// Seen through.
    pub fn opacity(mut self, opacity: f64) -> Self {
        self.opacity = opacity;
        self
    }

    /// With rounded corners.
    pub fn rounded(mut self, radius: f64) -> Self {
        self.radius = radius;
        self
    }

    fn attributes(&self) -> String {
        let mut out = format!(r#"fill="{}""#, self.fill);
        if let Some((colour, width)) = &self.stroke {
            let _ = write!(out, r#" stroke="{colour}" stroke-width="{}""#, num(*width));
        }
        if let Some(dash) = self.dash {
            let _ = write!(out, r#" stroke-dasharray="{dash}""#);
        }
        if self.opacity < 1.0 {
            let _ = write!(out, r#" opacity="{}""#, num(self.opacity));
        }
        if self.radius > 0.0 {
            let _ = write!(out, r#" rx="{}""#, num(self.radius));
        }
        out
    }
}

/// A drawing in the making.
#[derive(Default)]
pub struct Canvas {
    body: String,
    /// Patterns by their paint, with the colour under their figures.
    grounds: Vec<(String, String)>,
}

impl Canvas {
    /// Adds SVG as it is.
    pub fn raw(&mut self, svg: &str) {
        self.body.push_str(svg);
    }

    /// Defines a pattern and gives the paint to fill with. Its ground is laid under every shape painted with it, since
    /// the edges of tiles would show on paper.
    pub(super) fn define(&mut self, pattern: &str, id: &str, ground: &str) -> String {
        let paint = format!("url(#{id})");
        let _ = write!(self.body, "<defs>{pattern}</defs>");
        self.grounds.push((paint.clone(), escape(ground)));
        paint
    }

    fn ground(&self, style: &Style) -> Option<Style> {
        let (_, ground) = self.grounds.iter().find(|(paint, _)| *paint == style.fill)?;
        Some(Style { fill: ground.clone(), stroke: None, dash: None, ..style.clone() })
    }

    /// A rectangle.
    pub fn rect(&mut self, x: f64, y: f64, width: f64, height: f64, style: &Style) {
        if let Some(ground) = self.ground(style) {
            self.rect(x, y, width, height, &ground);
        }
        let (x, y, w, h) = (num(x), num(y), num(width.max(0.0)), num(height.max(0.0)));
        let _ = write!(self.body, r#"<rect x="{x}" y="{y}" width="{w}" height="{h}" {}/>"#, style.attributes());
    }

    /// A straight line.
    pub fn line(&mut self, x1: f64, y1: f64, x2: f64, y2: f64, style: &Style) {
        let (x1, y1, x2, y2) = (num(x1), num(y1), num(x2), num(y2));
        let _ = write!(self.body, r#"<line x1="{x1}" y1="{y1}" x2="{x2}" y2="{y2}" {}/>"#, style.attributes());
    }

    /// A path.
    pub fn path(&mut self, d: &str, style: &Style) {
        let _ = write!(self.body, r#"<path d="{d}" {}/>"#, style.attributes());
    }

    /// A closed polygon.
    pub fn polygon(&mut self, points: &[(f64, f64)], style: &Style) {
        if let Some(ground) = self.ground(style) {
            self.polygon(points, &ground);
        }
        let points: Vec<String> = points.iter().map(|(x, y)| format!("{},{}", num(*x), num(*y))).collect();
        let _ = write!(self.body, r#"<polygon points="{}" {}/>"#, points.join(" "), style.attributes());
    }

    /// Text from (`x`, `y`) on its base line; `anchor` is `start`, `middle` or `end`.
    #[allow(clippy::too_many_arguments)] // every one of them is said at every call
    pub fn text(&mut self, x: f64, y: f64, text: &str, face: Face, size: f64, colour: &str, anchor: &str) {
        let (x, y, s) = (num(x), num(y), num(size));
        let _ = write!(
            self.body,
            r#"<text x="{x}" y="{y}" {} font-size="{s}" fill="{colour}" text-anchor="{anchor}">{}</text>"#,
            face.attributes(),
            escape(text)
        );
    }

    /// Opens a group with `attributes`; close it with [`Canvas::end`].
    pub fn begin(&mut self, attributes: &str) {
        let _ = write!(self.body, "<g {attributes}>");
    }

    /// Opens a group of which only what lies within the polygon is seen; closed by `end`.
    pub fn clip(&mut self, id: &str, within: &[(f64, f64)]) {
        let points: Vec<String> = within.iter().map(|(x, y)| format!("{},{}", num(*x), num(*y))).collect();
        let (id, points) = (escape(id), points.join(" "));
        let _ = write!(self.body, r#"<defs><clipPath id="{id}"><polygon points="{points}"/></clipPath></defs>"#);
        self.begin(&format!(r#"clip-path="url(#{id})""#));
    }

    /// Closes a group.
    pub fn end(&mut self) {
        self.body.push_str("</g>");
    }

    /// A small arrow from its foot at (`x`, `y`), `length` long, turned clockwise by `degrees` from straight up.
    pub fn arrow(&mut self, x: f64, y: f64, length: f64, degrees: f64) {
        let (x, y, l) = (num(x), num(y), num(length));
        let _ = write!(
            self.body,
            r##"<g transform="translate({x} {y}) rotate({})"><path d="M0 0V-{l}M-4 -{b}L0 -{l}L4 -{b}" fill="none" stroke="#FFFDF8" stroke-width="5" stroke-linejoin="round"/><path d="M0 0V-{l}M-4 -{b}L0 -{l}L4 -{b}" fill="none" stroke="#1F2A44" stroke-width="1.8"/></g>"##,
            num(degrees),
            b = num(length - 5.0),
        );
    }

    /// A paper label with a bold first line and a plain second one, centred on (`x`, `y`). Returns whether it fitted
    /// into `room` (width, height); if not, nothing is drawn.
    pub fn label(&mut self, (x, y): (f64, f64), first: &str, second: &str, size: f64, room: (f64, f64)) -> bool {
        let small = size - 1.0;
        let wide = text_width(first, Face::Bold, size).max(text_width(second, Face::Text, small)) + 14.0;
        let lines = if second.is_empty() { 1.0 } else { 2.0 };
        let high = 8.0 + size * 1.12 * lines;
        if wide > room.0 || high > room.1 {
            return false;
        }
        let paper = Style::fill(ink::PAPER).opacity(0.94).rounded(3.0);
        self.rect(x - wide / 2.0, y - high / 2.0, wide, high, &paper);
        let base = y - high / 2.0 + 4.0 + size * 0.86;
        self.text(x, base, first, Face::Bold, size, ink::INDIGO, "middle");
        if !second.is_empty() {
            self.text(x, base + size * 1.1, second, Face::Text, small, ink::SOFT, "middle");
        }
        true
    }

    /// The finished drawing.
    pub fn finish(self, width: f64, height: f64) -> Drawing {
        Drawing { width, height, body: self.body }
    }
}

/// A number with at most two decimals.
pub(super) fn num(value: f64) -> String {
    let text = format!("{value:.2}");
    let text = text.trim_end_matches('0').trim_end_matches('.');
    if text == "-0" { "0".into() } else { text.into() }
}

/// Text made safe inside an element or attribute.
pub(super) fn escape(text: &str) -> String {
    let mut out = String::with_capacity(text.len());
    for c in text.chars() {
        match c {
            '&' => out.push_str("&amp;"),
            '<' => out.push_str("&lt;"),
            '>' => out.push_str("&gt;"),
            '"' => out.push_str("&quot;"),
            // XML has no place for them, however they came into an older name.
            c if is_unwritable(c) => out.push(' '),
            c => out.push(c),
        }
    }
    out
}

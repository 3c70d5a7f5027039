//! One piece of the cut list: its outline dressed in its cloth, its sizes, the grain and up arrow, and its marks.

use super::canvas::{Canvas, Drawing, Style, ink, num};
use super::font::Face;
use super::pattern::paint;
use bofta_core::bag::sewn::{Edge, runs};
use bofta_core::measure::{Length, Ruler};
use bofta_core::piece::{Figure, From, Mark, Patches, Piece, When};
use bofta_core::project::ProjectCloth;
use bofta_core::shape::Point;

const MARGIN: f64 = 26.0;

/// What a drawing of a piece shows beside its outline and sizes.
#[derive(Clone, Copy, Debug, Default)]
pub struct Shown<'a> {
    /// Its marks.
    pub marks: bool,
    /// Where a motif of its print falls on it.
    pub motif: Option<Point>,
    /// Where it is sewn: its edges, and how far from them.
    pub sewn: &'a [(Edge, Length)],
    /// Of a panel in patches, the cloth of each, row by row from the upper left; none where all are of its own.
    pub patches: &'a [Option<&'a ProjectCloth>],
}

/// Draws `piece` at `scale` pixels a length unit, so that pieces beside each other compare.
pub fn piece(
    piece: &Piece,
    cloth: Option<&ProjectCloth>,
    ruler: Ruler,
    scale: f64,
    Shown { marks, motif, sewn, patches: of }: Shown<'_>,
) -> Drawing {
    let (width, height) = piece.size();
    let (w, h) = (width.0 as f64 * scale, height.0 as f64 * scale);
    let mut canvas = Canvas::default();
    let (x, y) = (MARGIN + 10.0, 8.0);
    let id = format!("piece-{}", piece.id);
    let at = |p: Point| (x + p.x.0 as f64 * scale, y + h - p.y.0 as f64 * scale);
    let fill = match cloth {
        Some(cloth) => paint(&mut canvas, cloth, &id, (0, scale), motif.map(at)),
        None => ink::PAPER.to_owned(),
    };
    let corners: Vec<(f64, f64)> = piece.outline().corners().into_iter().map(at).collect();
    canvas.polygon(&corners, &Style::fill(fill).stroke(ink::INDIGO, 1.6));
    if let When::Pieced(patches) = piece.when {
        if let (Patches::Grid(columns, rows), false) = (patches, of.is_empty()) {
            let cells = (columns as usize, rows as usize);
            dressed(&mut canvas, of, cells, (x, y, w, h), (&id, &corners), scale);
        }
        seams(&mut canvas, patches, (x, y, w, h), (&id, &corners));
    }
    if marks {
        for mark in &piece.marks {
            draw_mark(&mut canvas, mark, (x, y, w, h), scale);
        }
    }
    for (edge, seam) in sewn {
        stitched(&mut canvas, runs(piece, *edge), *seam, at, scale);
    }
    if w > 30.0 && h > 34.0 {
        canvas.arrow(x + w / 2.0, y + h / 2.0 + 10.0, 20.0, 0.0);
    }
    let thin = Style::line(ink::SOFT, 0.9);
    canvas.line(x, y + h + 9.0, x + w, y + h + 9.0, &thin);
    canvas.text(x + w / 2.0, y + h + 24.0, &ruler.show(width).text, Face::Bold, 14.0, ink::INDIGO, "middle");
    canvas.line(x - 8.0, y, x - 8.0, y + h, &thin);
    let middle = y + h / 2.0;
    canvas.begin(&format!(r#"transform="rotate(-90 {} {})""#, num(x - 14.0), num(middle)));
    canvas.text(x - 14.0, middle, &ruler.show(height).text, Face::Bold, 14.0, ink::INDIGO, "middle");
    canvas.end();
    if let Figure::CutOut { across, up } = &piece.figure {
        let text = format!("{} × {}", ruler.show(across.size).text, ruler.show(up.size).text);
        let (nx, ny) = at(Point::new(across.size, up.size));
        if w > 90.0 {
            canvas.rect(
                nx + 3.0,
                ny - 19.0,
                super::text_width(&text, Face::Text, 12.0) + 8.0,
                16.0,
                &Style::fill(ink::PAPER).rounded(2.0),
            );
            canvas.text(nx + 7.0, ny - 7.0, &text, Face::Text, 12.0, ink::SOFT, "start");
        }
    }
    canvas.finish(w + MARGIN * 2.0 + 10.0, h + 8.0 + 32.0)
}

/// Each patch in its cloth.
fn dressed(
    canvas: &mut Canvas,
    of: &[Option<&ProjectCloth>],
    (columns, rows): (usize, usize),
    (x, y, w, h): (f64, f64, f64, f64),
    (id, outline): (&str, &[(f64, f64)]),
    scale: f64,
) {
    let mut fills: Vec<(Option<&str>, String)> = vec![];
    for cloth in of {
        let key = cloth.map(|c| c.id.as_str());
        if fills.iter().all(|(known, _)| *known != key) {
            let pattern = format!("{id}-of-{}", fills.len());
            let fill = cloth.map_or(ink::PAPER.to_owned(), |c| paint(canvas, c, &pattern, (0, scale), None));
            fills.push((key, fill));
        }
    }
    canvas.clip(&format!("{id}-patches"), outline);
    let (wide, tall) = (w / columns as f64, h / rows as f64);
    for (n, cloth) in of.iter().enumerate() {
        let (row, column) = (n / columns, n % columns);
        let key = cloth.map(|c| c.id.as_str());
        if let Some((_, fill)) = fills.iter().find(|(known, _)| *known == key) {
            let (left, top) = (x + wide * column as f64, y + tall * row as f64);
            canvas.rect(left, top, wide, tall, &Style::fill(fill.as_str()));
        }
    }
    canvas.end();
}

/// The seam line along `runs` of an outline that goes counter-clockwise: `seam` to its left, dotted as all that is sewn,
/// and not so near the edge that it cannot be told from it.
fn stitched(canvas: &mut Canvas, runs: Vec<[Point; 2]>, seam: Length, at: impl Fn(Point) -> (f64, f64), scale: f64) {
    let inwards = (seam.0 as f64 * scale).max(3.0);
    for [from, to] in runs {
        let ((x1, y1), (x2, y2)) = (at(from), at(to));
        let long = (x2 - x1).hypot(y2 - y1);
        if long <= 0.0 {
            continue;
        }
        // On the screen, where y goes down, left of the way is (dy, −dx).
        let (dx, dy) = ((y2 - y1) / long * inwards, -(x2 - x1) / long * inwards);
        canvas.line(x1 + dx, y1 + dy, x2 + dx, y2 + dy, &Style::line(ink::PAPER, 4.2));
        canvas.line(x1 + dx, y1 + dy, x2 + dx, y2 + dy, &Style::line(ink::MADDER, 2.2).dash("2.5 3"));
    }
}

/// The seams between patches, dotted as all that is sewn, within the outline.
fn seams(
    canvas: &mut Canvas,
    patches: Patches,
    (x, y, w, h): (f64, f64, f64, f64),
    (id, outline): (&str, &[(f64, f64)]),
) {
    canvas.clip(&format!("{id}-outline"), outline);
    let seam = |canvas: &mut Canvas, x1: f64, y1: f64, x2: f64, y2: f64| {
        canvas.line(x1, y1, x2, y2, &Style::line(ink::PAPER, 2.6));
        canvas.line(x1, y1, x2, y2, &Style::line(ink::INDIGO, 1.2).dash("1.5 2.5"));
    };
    let (columns, rows, halved) = match patches {
        Patches::Grid(columns, rows) => (columns, rows, false),
        Patches::Triangles(columns, rows) => (columns, rows, true),
        // Seams between bands are marks of the panel.
        Patches::Crazy | Patches::Bands => (0, 0, false),
    };
    let at = |n: u32, of: u32, from: f64, long: f64| from + long * f64::from(n) / f64::from(of.max(1));
    for n in 1..columns {
        seam(canvas, at(n, columns, x, w), y, at(n, columns, x, w), y + h);
    }
    for n in 1..rows {
        seam(canvas, x, at(n, rows, y, h), x + w, at(n, rows, y, h));
    }
    if halved {
        for (i, j) in (0..columns).flat_map(|i| (0..rows).map(move |j| (i, j))) {
            seam(canvas, at(i, columns, x, w), at(j + 1, rows, y, h), at(i + 1, columns, x, w), at(j, rows, y, h));
        }
    }
    if patches == Patches::Crazy {
        // A five-sided centre, and seams from its corners outwards.
        let (cx, cy) = (x + w / 2.0, y + h / 2.0);
        let corner = |n: u32, far: f64| {
            let angle = f64::from(n) * std::f64::consts::TAU / 5.0 + 0.3;
            (cx + w * far * angle.cos(), cy + h * far * angle.sin())
        };
        for n in 0..5 {
            let (a, b, out) = (corner(n, 0.18), corner(n + 1, 0.18), corner(n, 1.2));
            seam(canvas, a.0, a.1, b.0, b.1);
            seam(canvas, a.0, a.1, out.0, out.1);
        }
    }
    canvas.end();
}

fn draw_mark(canvas: &mut Canvas, mark: &Mark, (x, y, w, h): (f64, f64, f64, f64), scale: f64) {
    let px = |l: Length| l.0 as f64 * scale;
    let chalk = Style::line(ink::PAPER, 3.2);
    let line = Style::line(ink::CHALK, 1.4).dash("5 3");
    let mut dash = |x1: f64, y1: f64, x2: f64, y2: f64| {
        canvas.line(x1, y1, x2, y2, &chalk);
        canvas.line(x1, y1, x2, y2, &line);
    };
    let d = px(mark.distance);
    // Heights by which the second distance fixes the mark.
    let level = match mark.and {
        Some((down, From::TopEdge)) => Some(y + px(down)),
        Some((up, From::BaseEdge)) => Some(y + h - px(up)),
        _ => None,
    };
    match (mark.from, level) {
        (From::TopEdge, _) => dash(x, y + d, x + w, y + d),
        (From::BaseEdge, _) => dash(x, y + h - d, x + w, y + h - d),
        (From::LeftEdge, Some(level)) => {
            dash(x + d - 6.0, level, x + d + 6.0, level);
            dash(x + d, level - 6.0, x + d, level + 6.0);
        }
        (From::LeftEdge, None) => dash(x + d, y, x + d, y + h),
        (From::SideEdges, Some(level)) => {
            for cx in [x + d, x + w - d] {
                dash(cx - 6.0, level, cx + 6.0, level);
                dash(cx, level - 6.0, cx, level + 6.0);
            }
        }
        (From::SideEdges, None) => {
            let sides = [x + d, x + w - d];
            for cx in sides {
                dash(cx, y, cx, y + h);
            }
        }
        (From::Middle, level) => {
            for cx in [x + w / 2.0 - d, x + w / 2.0 + d] {
                match level {
                    Some(level) => dash(cx, level - 7.0, cx, level + 7.0),
                    None => dash(cx, y, cx, y + 12.0),
                }
            }
        }
    }
}

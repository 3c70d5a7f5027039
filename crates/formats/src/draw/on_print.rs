//! A piece over the print it is cut from, to be moved until it falls right: the print as one drawing, the piece as a window
//! in another that lies over it.

use super::canvas::{Canvas, Drawing, Style, ink, num};
use super::pattern::paint;
use bofta_core::cloth::PrintUp;
use bofta_core::measure::Length;
use bofta_core::piece::Piece;
use bofta_core::project::Project;
use bofta_core::shape::Point;

/// The piece takes so much of the board, at most.
const SHARE: f64 = 0.62;

/// A piece over its print.
pub struct PrintBoard {
    /// The print, larger than the board by `beyond` on every side, a motif of it where it falls on the piece.
    pub print: Drawing,
    /// What lies over it: paper with the piece cut out of it.
    pub over: Drawing,
    /// How far the print reaches beyond the board, to the sides and up and down, in pixels: moved by that it is the same.
    pub beyond: (f64, f64),
    /// Pixels for one inch or centimetre.
    pub per_unit: f64,
    /// From the piece's left and lower edge to the middle of the face it makes, where that is another place than its own
    /// middle.
    pub face_middle: Option<(Length, Length)>,
}

/// Draws `piece` over the print of the cloth it comes from, `width` × `height` pixels; nothing where that has no repeat.
pub fn print_board(project: &Project, piece: &Piece, width: f64, height: f64) -> Option<PrintBoard> {
    let cloth = project.cloth_for(piece).filter(|c| c.has_repeat())?;
    let size = piece.size();
    let scale = (width * SHARE / size.0.0 as f64).min(height * SHARE / size.1.0 as f64);
    let (across, along) = cloth.repeats();
    let (wide, tall) = match cloth.up {
        PrintUp::Length => (across, along),
        PrintUp::Across => (along, across),
    };
    let px = |l: Length| l.0 as f64 * scale;
    // In a half-drop print every other column is the same again.
    let beyond = (wide.map_or(0.0, px) * if cloth.half_drop { 2.0 } else { 1.0 }, tall.map_or(0.0, px));
    let (w, h) = (px(size.0), px(size.1));
    let (left, top) = ((width - w) / 2.0, (height - h) / 2.0);
    let middle = Point::new(Length(size.0.0 / 2), Length(size.1.0 / 2));
    let motif = project.motif_on(piece).unwrap_or(middle);
    let at = |p: Point| (left + px(p.x), top + h - px(p.y));

    let mut print = Canvas::default();
    let (mx, my) = at(motif);
    let fill = paint(&mut print, cloth, "print-board", (0, scale), Some((mx + beyond.0, my + beyond.1)));
    let (all_wide, all_tall) = (width + beyond.0 * 2.0, height + beyond.1 * 2.0);
    print.rect(0.0, 0.0, all_wide, all_tall, &Style::fill(fill));

    let mut over = Canvas::default();
    let corners: Vec<(f64, f64)> = piece.outline().corners().into_iter().map(at).collect();
    let ring: Vec<String> = corners.iter().map(|(x, y)| format!("{} {}", num(*x), num(*y))).collect();
    let d = format!("M0 0H{}V{}H0ZM{}Z", num(width), num(height), ring.join("L"));
    over.path(&d, &Style::fill(ink::PAPER).opacity(0.66));
    over.polygon(&corners, &Style::line(ink::INDIGO, 2.2));
    // What shows of it on the bag, and the middle of that.
    let face = face_of(project, piece);
    let seen = face.map_or((Point::new(Length::ZERO, Length::ZERO), Point::new(size.0, size.1)), |f| f);
    let ((fx, fy), (fr, ft)) = (at(seen.0), at(seen.1));
    if face.is_some() {
        over.rect(fx, ft, fr - fx, fy - ft, &Style::line(ink::INDIGO, 1.2).dash("6 4"));
    }
    let (cx, cy) = ((fx + fr) / 2.0, (fy + ft) / 2.0);
    let cross = Style::line(ink::MADDER, 1.4).dash("3 3");
    over.line(cx, ft, cx, fy, &cross);
    over.line(fx, cy, fr, cy, &cross);
    let face_middle = face.map(|(low, high)| (Length((low.x + high.x).0 / 2), Length((low.y + high.y).0 / 2)));
    let per_unit = project.system.unit().0 as f64 * scale;
    Some(PrintBoard {
        print: print.finish(all_wide, all_tall),
        over: over.finish(width, height),
        beyond,
        per_unit,
        face_middle,
    })
}

/// The lower left and the upper right corner of what shows of `piece` as one wall of the bag; nothing of a piece that is no
/// wall by itself.
fn face_of(project: &Project, piece: &Piece) -> Option<(Point, Point)> {
    let walls = project.bag.walls(project.ruler);
    let mut of = walls.iter().filter(|w| w.piece == Some(piece.id.as_ref()) && !w.side.is_inside());
    let wall = of.next().filter(|w| !w.across_a_seam && !w.upside_down)?;
    let (_, height) = piece.size();
    let high = height - wall.top.max(Length::ZERO);
    let low = high - wall.height;
    let fits = low >= Length::ZERO && wall.beside >= Length::ZERO;
    fits.then(|| (Point::new(wall.beside, low), Point::new(wall.beside + wall.width, high)))
}

//! Shapes of rows as the table of a cut list describes them, read back.

use crate::cut_table::RECTANGLE;
use bofta_core::bag::RowShape;
use bofta_core::measure::Length;
use bofta_core::shape::{Outline, Point};

/// The shape that a cell describes as [`Piece::figures`](bofta_core::piece::Piece::figures) writes it, of a piece so wide
/// and tall; nothing where it says another.
pub(super) fn shape_of(
    cell: &str,
    (width, height): (Length, Length),
    figure: &dyn Fn(&str) -> Option<Length>,
) -> Option<RowShape> {
    let cell = cell.trim();
    let cell = cell.split_once("once trimmed:").map_or(cell, |(now, _)| now.trim().trim_end_matches(';'));
    let across_and_up = |rest: &str| -> Option<(Length, Length)> {
        let (across, up) = rest.split_once(" across × ")?;
        Some((figure(across)?, figure(up.strip_suffix(" up")?)?))
    };
    let free = |outline: Outline| Some(RowShape::Free { corners: outline.corners() });
    let zero = Length::ZERO;
    match cell {
        "" | RECTANGLE => return Some(RowShape::Rectangle),
        _ if cell.starts_with("a circle") => return Some(RowShape::Circle),
        _ if cell.starts_with("top straight") => return Some(RowShape::HalfRound),
        _ => {}
    }
    if let Some(rest) = cell.strip_prefix("both lower corners cut out, ") {
        return across_and_up(rest).map(|(across, up)| RowShape::Notched { across, up });
    }
    if let Some(radius) = cell.strip_prefix("both lower corners rounded, radius ") {
        return figure(radius).map(|radius| RowShape::Rounded { radius });
    }
    if let Some(radius) = cell.strip_prefix("both upper corners rounded, radius ") {
        return figure(radius).and_then(|radius| free(Outline::rounded_above(width, height, radius)));
    }
    if let Some(rest) = cell.strip_prefix("base straight, ") {
        let (_, radius) = rest.rsplit_once("radius ")?;
        return figure(radius).and_then(|radius| free(Outline::rounded_above(width, height, radius)));
    }
    if cell.split("; ").all(|part| part.contains(" cut out, ")) {
        return corners_cut_out(cell, (width, height), &across_and_up).map(|corners| RowShape::Free { corners });
    }
    if let Some(rest) = cell.strip_prefix("a notch in the middle of both sides, ") {
        let (deep, rest) = rest.split_once(" deep, ")?;
        let (above, _) = rest.split_once(" above")?;
        return free(Outline::notched_at_sides(width, height, figure(deep)?, figure(above)?));
    }
    if let Some((_, rest)) = cell.split_once(": in by ") {
        let by = figure(rest.split(' ').next()?)?;
        if rest.ends_with("of the top") {
            return Some(RowShape::Tapered { by });
        }
        let corners = [(by, zero), (width - by, zero), (width, height), (zero, height)];
        return Some(RowShape::Free { corners: corners.map(|(x, y)| Point::new(x, y)).to_vec() });
    }
    let corners = cell.strip_prefix("corners, from the left / up from the base: ")?;
    let point = |corner: &str| -> Option<Point> {
        let (x, y) = corner.split_once(" / ")?;
        Some(Point::new(figure(x.trim())?, figure(y.trim())?))
    };
    corners.split(", ").map(point).collect::<Option<Vec<Point>>>().map(|corners| RowShape::Free { corners })
}

/// The outline of a rectangle with corners cut out, `both upper corners cut out, 3 across × 2 up; …`.
fn corners_cut_out(
    cell: &str,
    (width, height): (Length, Length),
    across_and_up: &dyn Fn(&str) -> Option<(Length, Length)>,
) -> Option<Vec<Point>> {
    let zero = (Length::ZERO, Length::ZERO);
    // Lower left, lower right, upper right, upper left.
    let mut cut = [zero; 4];
    for part in cell.split("; ") {
        let (which, size) = part.split_once(" cut out, ")?;
        let size = across_and_up(size)?;
        let corners: &[usize] = match which {
            "all four corners" => &[0, 1, 2, 3],
            "both upper corners" => &[2, 3],
            "both lower corners" => &[0, 1],
            "lower left corner" => &[0],
            "lower right corner" => &[1],
            "upper right corner" => &[2],
            "upper left corner" => &[3],
            _ => return None,
        };
        corners.iter().for_each(|&at| cut[at] = size);
    }
    let at = |x: Length, y: Length| Point::new(x, y);
    let (left, low) = zero;
    let [a, b, c, d] = cut;
    let mut corners = vec![
        at(left, low + a.1),
        at(a.0, a.1),
        at(a.0, low),
        at(width - b.0, low),
        at(width - b.0, b.1),
        at(width, b.1),
        at(width, height - c.1),
        at(width - c.0, height - c.1),
        at(width - c.0, height),
        at(d.0, height),
        at(d.0, height - d.1),
        at(left, height - d.1),
    ];
    // Where nothing is cut out, its three corners are one.
    corners.dedup();
    Some(corners)
}

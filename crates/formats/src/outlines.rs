//! Outlines from drawings: closed shapes of an SVG or DXF file become rows of a cut list, and a cut list becomes either.
//!
//! SVG is read by `usvg` (96 pixels to the inch, as CSS says, unless the maker gives another scale); DXF by `dxf`, its
//! unit from the header, asked for when there is none.

use bofta_core::bag::{Row, RowShape};
use bofta_core::measure::{Length, System};
use bofta_core::piece::{Part, Piece};
use bofta_core::shape::{Outline, Point};
use dxf::entities::{Entity, EntityType, LwPolyline};
use dxf::enums::{AcadVersion, Units};
use dxf::{Drawing, LwPolylineVertex};
use std::io::Cursor;
use thiserror::Error;

/// A file larger than this is no cut list.
pub const LARGEST: usize = 20 * 1024 * 1024;
/// More outlines than this are a picture, not pieces.
const MOST: usize = 400;
/// A curve is followed by so many straight steps.
const STEPS: usize = 16;

/// Why a drawing gives no pieces.
#[derive(Clone, Debug, PartialEq, Eq, Error)]
pub enum DrawingError {
    /// Too large to be a cut list.
    #[error("the file has {0} MB: at most 20 MB are read")]
    TooLarge(usize),
    /// Not what it should be.
    #[error("it cannot be read as {kind}: {why}")]
    Unreadable {
        /// `SVG` or `DXF`.
        kind: &'static str,
        /// What the reader says.
        why: String,
    },
    /// No unit in it, and none was given.
    #[error("the file does not say what unit it is drawn in: say inches, centimetres or millimetres")]
    NoUnit,
    /// Nothing closed in it.
    #[error("no closed outline is in it: pieces are closed paths, circles or closed polylines")]
    Empty,
    /// A picture.
    #[error("{0} closed outlines are in it: at most 400 are read")]
    TooMany(usize),
}

/// The rows of a drawing, and what was left out of it.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Outlines {
    /// A row an outline.
    pub rows: Vec<Row>,
    /// Texts, pictures and open lines that were left out, as sentences.
    pub left_out: Vec<String>,
}

fn checked(rows: Vec<Row>, left_out: Vec<String>) -> Result<Outlines, DrawingError> {
    match rows.len() {
        0 => Err(DrawingError::Empty),
        1..=MOST => Ok(Outlines { rows, left_out }),
        n => Err(DrawingError::TooMany(n)),
    }
}

/// A row from corners in units of length, y up; nothing when they enclose no area or cross.
fn row(name: String, corners: Vec<(f64, f64)>) -> Option<Row> {
    let points: Vec<Point> =
        corners.iter().map(|(x, y)| Point::new(Length(x.round() as i64), Length(y.round() as i64))).collect();
    let Outline::Polygon(points) = Outline::polygon(points).ok()? else { return None };
    let (left, low) = (points.iter().map(|p| p.x).min()?, points.iter().map(|p| p.y).min()?);
    let moved: Vec<Point> = points.iter().map(|p| Point::new(p.x - left, p.y - low)).collect();
    let (width, height) = (moved.iter().map(|p| p.x).max()?, moved.iter().map(|p| p.y).max()?);
    let mut row = Row::new(name, Part::Outer, 1, width, height);
    let on_box = |p: &Point| (p.x == Length::ZERO || p.x == width) && (p.y == Length::ZERO || p.y == height);
    if !(moved.len() == 4 && moved.iter().all(on_box)) {
        row.shape = RowShape::Free { corners: moved };
    }
    Some(row)
}

/// Reads the closed paths of an SVG; `pixels` is how many of its units make an inch, 96 where it says nothing else.
///
/// # Errors
/// [`DrawingError`].
pub fn read_svg(bytes: &[u8], pixels: f64) -> Result<Outlines, DrawingError> {
    if bytes.len() > LARGEST {
        return Err(DrawingError::TooLarge(bytes.len() >> 20));
    }
    let tree = usvg::Tree::from_data(bytes, &usvg::Options::default())
        .map_err(|e| DrawingError::Unreadable { kind: "SVG", why: e.to_string() })?;
    let mut rows = Vec::new();
    let (mut pictures, mut texts, mut open) = (0, 0, 0);
    let scale = Length::INCH.0 as f64 / pixels;
    walk(tree.root(), &mut |node| match node {
        usvg::Node::Path(path) => {
            let mut ring: Vec<(f64, f64)> = Vec::new();
            let transform = path.abs_transform();
            let place = |p: usvg::tiny_skia_path::Point| {
                let mut p = p;
                transform.map_point(&mut p);
                (f64::from(p.x) * scale, -f64::from(p.y) * scale)
            };
            let mut last = usvg::tiny_skia_path::Point::default();
            for segment in path.data().segments() {
                use usvg::tiny_skia_path::PathSegment as S;
                match segment {
                    S::MoveTo(p) => {
                        open += usize::from(ring.len() > 1);
                        ring = vec![place(p)];
                        last = p;
                    }
                    S::LineTo(p) => {
                        ring.push(place(p));
                        last = p;
                    }
                    S::QuadTo(a, p) => {
                        ring.extend((1..=STEPS).map(|i| {
                            let t = i as f32 / STEPS as f32;
                            let u = 1.0 - t;
                            place(
                                (
                                    u * u * last.x + 2.0 * u * t * a.x + t * t * p.x,
                                    u * u * last.y + 2.0 * u * t * a.y + t * t * p.y,
                                )
                                    .into(),
                            )
                        }));
                        last = p;
                    }
                    S::CubicTo(a, b, p) => {
                        ring.extend((1..=STEPS).map(|i| {
                            let t = i as f32 / STEPS as f32;
                            let u = 1.0 - t;
                            let at = |l: f32, a: f32, b: f32, p: f32| {
                                u * u * u * l + 3.0 * u * u * t * a + 3.0 * u * t * t * b + t * t * t * p
                            };
                            place((at(last.x, a.x, b.x, p.x), at(last.y, a.y, b.y, p.y)).into())
                        }));
                        last = p;
                    }
                    S::Close => {
                        let name = if path.id().is_empty() {
                            format!("Outline {}", rows.len() + 1)
                        } else {
                            path.id().to_owned()
                        };
                        rows.extend(row(name, std::mem::take(&mut ring)));
                    }
                }
            }
            open += usize::from(ring.len() > 1);
        }
        usvg::Node::Image(_) => pictures += 1,
        usvg::Node::Text(_) => texts += 1,
        usvg::Node::Group(_) => {}
    });
    let left_out = [(pictures, "pictures"), (texts, "texts"), (open, "open lines")]
        .into_iter()
        .filter(|(n, _)| *n > 0)
        .map(|(n, what)| format!("{n} {what} left out."))
        .collect();
    checked(rows, left_out)
}

fn walk(group: &usvg::Group, visit: &mut impl FnMut(&usvg::Node)) {
    for node in group.children() {
        visit(node);
        if let usvg::Node::Group(inner) = node {
            walk(inner, visit);
        }
    }
}

/// What one unit of a DXF file is, if its header says.
fn unit_of(units: Units) -> Option<Length> {
    Some(match units {
        Units::Inches => Length::INCH,
        Units::Feet => Length::INCH * 12,
        Units::Millimeters => Length::MILLIMETRE,
        Units::Centimeters => Length::CENTIMETRE,
        Units::Meters => Length::METRE,
        Units::Yards => Length::YARD,
        _ => return None,
    })
}

/// Reads closed polylines and circles of a DXF; `unit` stands where the header says none.
///
/// # Errors
/// [`DrawingError`].
pub fn read_dxf(bytes: &[u8], unit: Option<Length>) -> Result<Outlines, DrawingError> {
    if bytes.len() > LARGEST {
        return Err(DrawingError::TooLarge(bytes.len() >> 20));
    }
    let drawing = Drawing::load(&mut Cursor::new(bytes))
        .map_err(|e| DrawingError::Unreadable { kind: "DXF", why: e.to_string() })?;
    let scale = unit_of(drawing.header.default_drawing_units).or(unit).ok_or(DrawingError::NoUnit)?.0 as f64;
    let mut rows: Vec<Row> = Vec::new();
    let mut left = 0;
    for entity in drawing.entities() {
        let named = |rows: &[Row]| match entity.common.layer.as_str() {
            "" | "0" => format!("Outline {}", rows.len() + 1),
            layer => layer.to_owned(),
        };
        let found = match &entity.specific {
            EntityType::LwPolyline(line) if line.is_closed() => {
                row(named(&rows), bulged(line.vertices.iter().map(|v| (v.x * scale, v.y * scale, v.bulge)).collect()))
            }
            EntityType::Polyline(line) if line.is_closed() => row(
                named(&rows),
                bulged(line.vertices().map(|v| (v.location.x * scale, v.location.y * scale, v.bulge)).collect()),
            ),
            EntityType::Circle(circle) => {
                let across = Length((circle.radius * 2.0 * scale).round() as i64);
                let mut row = Row::new(named(&rows), Part::Outer, 1, across, across);
                row.shape = RowShape::Circle;
                Some(row)
            }
            _ => None,
        };
        match found {
            Some(row) => rows.push(row),
            None => left += 1,
        }
    }
    let left_out = if left > 0 { vec![format!("{left} texts, open lines and other things left out.")] } else { vec![] };
    checked(rows, left_out)
}

/// Corners of a polyline; a bulge is the tangent of a quarter of the angle its arc runs through.
fn bulged(vertices: Vec<(f64, f64, f64)>) -> Vec<(f64, f64)> {
    let n = vertices.len();
    let mut corners = Vec::with_capacity(n);
    for i in 0..n {
        let (x, y, bulge) = vertices[i];
        let (to_x, to_y, _) = vertices[(i + 1) % n];
        corners.push((x, y));
        if bulge != 0.0 {
            let angle = 4.0 * bulge.atan();
            let (dx, dy) = (to_x - x, to_y - y);
            let chord = dx.hypot(dy);
            let radius = chord / 2.0 / (angle / 2.0).sin();
            // The centre lies on the left of the chord for an arc that runs counter-clockwise.
            let off = radius * (angle / 2.0).cos();
            let (cx, cy) = ((x + to_x) / 2.0 - dy / chord * off, (y + to_y) / 2.0 + dx / chord * off);
            let start = (y - cy).atan2(x - cx);
            corners.extend((1..STEPS).map(|k| {
                let at = start + angle * k as f64 / STEPS as f64;
                (cx + radius.abs() * at.cos(), cy + radius.abs() * at.sin())
            }));
        }
    }
    corners
}

/// The outlines of `pieces` beside each other, one of each, in the unit of `system`.
pub fn write_dxf(pieces: &[Piece], system: System) -> Result<Vec<u8>, DrawingError> {
    let mut drawing = Drawing::new();
    // Older files know neither closed light polylines nor units.
    drawing.header.version = AcadVersion::R2004;
    drawing.header.default_drawing_units = match system {
        System::Inches => Units::Inches,
        System::Centimetres => Units::Centimeters,
    };
    let unit = system.unit().0 as f64;
    let mut left = 0.0;
    for piece in pieces {
        let corners = piece.outline().corners();
        let mut line = LwPolyline::default();
        line.set_is_closed(true);
        line.vertices = corners
            .iter()
            .map(|p| LwPolylineVertex {
                x: left + p.x.0 as f64 / unit,
                y: p.y.0 as f64 / unit,
                ..LwPolylineVertex::default()
            })
            .collect();
        let mut entity = Entity::new(EntityType::LwPolyline(line));
        entity.common.layer = piece.name.to_string();
        drawing.add_entity(entity);
        left += piece.size().0.0 as f64 / unit + 1.0;
    }
    let mut bytes = Vec::new();
    drawing.save(&mut bytes).map_err(|e| DrawingError::Unreadable { kind: "DXF", why: e.to_string() })?;
    Ok(bytes)
}

/// The same as an SVG at its true size: 96 pixels to the inch.
pub fn write_svg(pieces: &[Piece]) -> String {
    let pixels = |l: Length| l.0 as f64 / Length::INCH.0 as f64 * 96.0;
    let tall = pieces.iter().map(|p| p.size().1).max().unwrap_or_default();
    let mut left = 0.0;
    let mut body = String::new();
    for piece in pieces {
        let d: Vec<String> = piece
            .outline()
            .corners()
            .iter()
            .map(|p| format!("{:.4} {:.4}", left + pixels(p.x), pixels(tall - p.y)))
            .collect();
        body.push_str(&format!(
            "<path id=\"{}\" d=\"M{}Z\" fill=\"none\" stroke=\"#1F2A44\"/>\n",
            piece.id,
            d.join("L")
        ));
        left += pixels(piece.size().0) + 96.0;
    }
    let (w, h) = (left, pixels(tall));
    let inches = |px: f64| px / 96.0;
    format!(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{:.4}in\" height=\"{:.4}in\" viewBox=\"0 0 {w:.4} {h:.4}\">\n{body}</svg>\n",
        inches(w),
        inches(h)
    )
}

//! Outlines from drawings: closed shapes of an SVG or DXF file become rows of a cut list, and a cut list becomes either.
//!
//! SVG is read by `usvg` (96 pixels to the inch, as CSS says, unless the maker gives another scale); DXF by `dxf`, its
//! unit from the header, asked for when there is none.

use crate::limits::{MOST_CORNERS, MOST_ELEMENTS, MOST_NESTING, MOST_OUTLINES, guarded, inflated};
use bofta_core::bag::{Row, RowShape};
use bofta_core::measure::{Length, System};
use bofta_core::name;
use bofta_core::piece::{Part, Piece};
use bofta_core::shape::{FURTHEST, Outline, Point, simplified};
use dxf::entities::{Entity, EntityType, LwPolyline};
use dxf::enums::{AcadVersion, Units};
use dxf::{Drawing, LwPolylineVertex};
use quick_xml::events::Event;
use std::io::Cursor;
use thiserror::Error;

/// A curve is followed by so many straight steps.
const STEPS: usize = 16;
/// An outline of more corners than this is told by those of them that keep it to within [`CLOSE`].
const FINE: usize = 200;
/// How close: a twentieth of a millimetre, less than a pencil line.
const CLOSE: Length = Length(Length::MILLIMETRE.0 / 20);

/// Why a drawing gives no pieces.
#[derive(Clone, Debug, PartialEq, Eq, Error)]
pub enum DrawingError {
    /// Not what it should be.
    #[error("it cannot be read as {kind}: {why}")]
    Unreadable {
        /// `SVG` or `DXF`.
        kind: &'static str,
        /// What the reader says.
        why: String,
    },
    /// No unit in it, and none was given.
    #[error("the file does not say which unit it is drawn in. Choose inches, centimetres or millimetres")]
    NoUnit,
    /// Nothing closed in it.
    #[error("it has no closed outline. Pieces are closed paths, circles or closed polylines")]
    Empty,
    /// More than a list of pieces has, of what, and how many are read.
    #[error("it has more than {most} {what}. Bofta reads at most {most}")]
    TooMany {
        /// Outlines, corners or elements.
        what: &'static str,
        /// The limit.
        most: usize,
    },
}

/// The rows of a drawing, and what was left out of it.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Outlines {
    /// A row an outline.
    pub rows: Vec<Row>,
    /// Texts, pictures and open lines that were left out, as sentences.
    pub left_out: Vec<String>,
}

/// Rows as they are found in a drawing.
#[derive(Default)]
struct Collected {
    found: Outlines,
    corners: usize,
    /// Outlines told by fewer corners than they were drawn with.
    made_plainer: usize,
}

impl Collected {
    /// A name that is not empty and can be written.
    fn name(&self, given: &str) -> String {
        match name::clean(given) {
            name if name.is_empty() => format!("Outline {}", self.found.rows.len() + 1),
            name => name.chars().take(name::MOST_LETTERS).collect(),
        }
    }

    /// Takes an outline, given by its corners in units of length, y up.
    fn outline(&mut self, name: String, corners: &[(f64, f64)]) -> Result<(), DrawingError> {
        self.corners += corners.len();
        if self.corners > MOST_CORNERS {
            return Err(DrawingError::TooMany { what: "corners", most: MOST_CORNERS });
        }
        match self.row(&name, corners) {
            Ok(row) => self.row_found(row),
            Err(why) => {
                self.left_out(&name, &why);
                Ok(())
            }
        }
    }

    fn left_out(&mut self, name: &str, why: &str) {
        self.found.left_out.push(format!("{name} left out: {why}."));
    }

    fn row_found(&mut self, row: Row) -> Result<(), DrawingError> {
        self.found.rows.push(row);
        if self.found.rows.len() > MOST_OUTLINES {
            return Err(DrawingError::TooMany { what: "closed outlines", most: MOST_OUTLINES });
        }
        Ok(())
    }

    fn row(&mut self, name: &str, corners: &[(f64, f64)]) -> Result<Row, String> {
        let mut points = corners
            .iter()
            .map(|&(x, y)| Some(Point::new(within_reach(x)?, within_reach(y)?)))
            .collect::<Option<Vec<Point>>>()
            .ok_or("it is larger than 100 m, or its corners are not numbers")?;
        if points.len() > FINE {
            let fewer = simplified(&points, CLOSE);
            self.made_plainer += usize::from(fewer.len() < points.len());
            points = fewer;
        }
        let Outline::Polygon(points) = Outline::polygon(points).map_err(|e| e.to_string())? else {
            return Err("it is no polygon".to_owned());
        };
        let least = |of: fn(&Point) -> Length| points.iter().map(of).min().unwrap_or_default();
        let (left, low) = (least(|p| p.x), least(|p| p.y));
        let moved: Vec<Point> = points.iter().map(|p| Point::new(p.x - left, p.y - low)).collect();
        let most = |of: fn(&Point) -> Length| moved.iter().map(of).max().unwrap_or_default();
        let (width, height) = (most(|p| p.x), most(|p| p.y));
        let (name, count) = counted(name);
        let mut row = Row::new(name, Part::Outer, count, width, height);
        let on_box = |p: &Point| (p.x == Length::ZERO || p.x == width) && (p.y == Length::ZERO || p.y == height);
        if !(moved.len() == 4 && moved.iter().all(on_box)) {
            row.shape = RowShape::Free { corners: moved };
        }
        Ok(row)
    }

    /// What was found, with how many of what were left out.
    fn end(mut self, left: &[(usize, &str)]) -> Result<Outlines, DrawingError> {
        if self.found.rows.is_empty() && self.found.left_out.is_empty() {
            return Err(DrawingError::Empty);
        }
        if self.made_plainer > 0 {
            self.found.left_out.push(format!(
                "{} outlines are simplified to fewer corners, nowhere by more than 0.05 mm.",
                self.made_plainer
            ));
        }
        self.found
            .left_out
            .extend(left.iter().filter(|(n, _)| *n > 0).map(|(n, what)| format!("{n} {what} left out.")));
        Ok(self.found)
    }
}

/// A number of units as a length, if it is one that can be planned with.
fn within_reach(units: f64) -> Option<Length> {
    (units.abs() <= FURTHEST.0 as f64).then(|| Length(units.round() as i64))
}

/// Reads the closed paths of an SVG, packed or not; `pixels` is how many of its units make an inch, 96 where it says
/// nothing else. Nothing that it names is opened: no picture, no font, no other file.
///
/// # Errors
/// [`DrawingError`].
pub fn read_svg(bytes: &[u8], pixels: f64) -> Result<Outlines, DrawingError> {
    let unreadable = |why: String| DrawingError::Unreadable { kind: "SVG", why };
    let unpacked = if bytes.starts_with(b"\x1F\x8B") {
        Some(inflated(flate2::read::GzDecoder::new(bytes)).map_err(unreadable)?)
    } else {
        None
    };
    let text = std::str::from_utf8(unpacked.as_deref().unwrap_or(bytes)).map_err(|e| unreadable(e.to_string()))?;
    let pictures = looked_over(text)?;
    let options = usvg::Options {
        image_href_resolver: usvg::ImageHrefResolver {
            resolve_data: Box::new(|_, _, _| None),
            resolve_string: Box::new(|_, _| None),
        },
        ..usvg::Options::default()
    };
    let tree = guarded(|| usvg::Tree::from_str(text, &options).map_err(|e| e.to_string())).map_err(unreadable)?;
    let mut found = Collected::default();
    let (mut texts, mut open) = (0, 0);
    let scale = Length::INCH.0 as f64 / pixels;
    let mut nodes: Vec<&usvg::Node> = tree.root().children().iter().rev().collect();
    while let Some(node) = nodes.pop() {
        match node {
            usvg::Node::Path(path) => closed_paths(path, scale, &mut found, &mut open)?,
            usvg::Node::Text(_) => texts += 1,
            usvg::Node::Group(group) => nodes.extend(group.children().iter().rev()),
            usvg::Node::Image(_) => {}
        }
    }
    found.end(&[(pictures, "pictures"), (texts, "texts"), (open, "open lines")])
}

/// How many pictures an SVG names, if it is not nested too deep and has no more elements than a list of pieces needs.
fn looked_over(text: &str) -> Result<usize, DrawingError> {
    let mut reader = quick_xml::Reader::from_str(text);
    let (mut depth, mut elements, mut pictures) = (0, 0, 0);
    loop {
        let event = reader.read_event().map_err(|e| DrawingError::Unreadable { kind: "SVG", why: e.to_string() })?;
        match &event {
            Event::Start(start) | Event::Empty(start) => {
                elements += 1;
                pictures += usize::from(start.local_name().as_ref() == "image");
                depth += usize::from(matches!(event, Event::Start(_)));
            }
            Event::End(_) => depth = depth.saturating_sub(1),
            Event::Eof => return Ok(pictures),
            _ => {}
        }
        if depth > MOST_NESTING {
            return Err(DrawingError::TooMany { what: "elements in each other", most: MOST_NESTING });
        }
        if elements > MOST_ELEMENTS {
            return Err(DrawingError::TooMany { what: "elements", most: MOST_ELEMENTS });
        }
    }
}

/// Takes the closed parts of `path`; others are counted as open.
fn closed_paths(path: &usvg::Path, scale: f64, found: &mut Collected, open: &mut usize) -> Result<(), DrawingError> {
    use usvg::tiny_skia_path::{PathSegment as S, Point as P};
    let transform = path.abs_transform();
    let place = |mut p: P| {
        transform.map_point(&mut p);
        (f64::from(p.x) * scale, -f64::from(p.y) * scale)
    };
    let mut ring: Vec<(f64, f64)> = Vec::new();
    let mut last = P::default();
    let shares = || (1..=STEPS).map(|i| i as f32 / STEPS as f32);
    for segment in path.data().segments() {
        match segment {
            S::MoveTo(p) => {
                *open += usize::from(ring.len() > 1);
                ring = vec![place(p)];
                last = p;
            }
            S::LineTo(p) => {
                ring.push(place(p));
                last = p;
            }
            S::QuadTo(a, p) => {
                ring.extend(shares().map(|t| {
                    let u = 1.0 - t;
                    let at = |l: f32, a: f32, p: f32| u * u * l + 2.0 * u * t * a + t * t * p;
                    place((at(last.x, a.x, p.x), at(last.y, a.y, p.y)).into())
                }));
                last = p;
            }
            S::CubicTo(a, b, p) => {
                ring.extend(shares().map(|t| {
                    let u = 1.0 - t;
                    let at = |l: f32, a: f32, b: f32, p: f32| {
                        u * u * u * l + 3.0 * u * u * t * a + 3.0 * u * t * t * b + t * t * t * p
                    };
                    place((at(last.x, a.x, b.x, p.x), at(last.y, a.y, b.y, p.y)).into())
                }));
                last = p;
            }
            S::Close => found.outline(found.name(path.id()), &std::mem::take(&mut ring))?,
        }
        if ring.len() > MOST_CORNERS {
            return Err(DrawingError::TooMany { what: "corners", most: MOST_CORNERS });
        }
    }
    *open += usize::from(ring.len() > 1);
    Ok(())
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
    let drawing = guarded(|| Drawing::load(&mut Cursor::new(bytes)).map_err(|e| e.to_string()))
        .map_err(|why| DrawingError::Unreadable { kind: "DXF", why })?;
    let scale = unit_of(drawing.header.default_drawing_units).or(unit).ok_or(DrawingError::NoUnit)?.0 as f64;
    let mut found = Collected::default();
    let mut left = 0;
    for entity in drawing.entities() {
        let name = found.name(match entity.common.layer.as_str() {
            "0" => "",
            layer => layer,
        });
        match &entity.specific {
            EntityType::LwPolyline(line) if line.is_closed() => {
                let vertices: Vec<_> = line.vertices.iter().map(|v| (v.x * scale, v.y * scale, v.bulge)).collect();
                found.outline(name, &bulged(&vertices))?;
            }
            EntityType::Polyline(line) if line.is_closed() => {
                let vertices: Vec<_> =
                    line.vertices().map(|v| (v.location.x * scale, v.location.y * scale, v.bulge)).collect();
                found.outline(name, &bulged(&vertices))?;
            }
            EntityType::Circle(circle) => match within_reach(circle.radius * 2.0 * scale).filter(|d| *d > Length::ZERO)
            {
                Some(across) => {
                    let (name, count) = counted(&name);
                    let mut row = Row::new(name, Part::Outer, count, across, across);
                    row.shape = RowShape::Circle;
                    found.row_found(row)?;
                }
                None => found.left_out(&name, "the radius of a circle is more than 0 and at most 50 m"),
            },
            _ => left += 1,
        }
    }
    found.end(&[(left, "texts, open lines and other things")])
}

/// Corners of a polyline; a bulge is the tangent of a quarter of the angle its arc runs through.
fn bulged(vertices: &[(f64, f64, f64)]) -> Vec<(f64, f64)> {
    let n = vertices.len();
    let mut corners = Vec::with_capacity(n);
    for i in 0..n {
        let (x, y, bulge) = vertices[i];
        let (to_x, to_y, _) = vertices[(i + 1) % n];
        corners.push((x, y));
        // An arc between two points that are one has no centre; what is no number is found out by its corners.
        if bulge != 0.0 && (to_x, to_y) != (x, y) {
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

/// Stands between the name of an outline and how often it is cut.
const CUT: &str = ", cut ";

/// The name of a piece's outline: one of it is drawn, so it says how many are cut.
fn told(piece: &Piece, name: &str) -> String {
    if piece.count == 1 { name.to_owned() } else { format!("{name}{CUT}{}", piece.count) }
}

/// What [`told`] gave: the name, and how many are cut.
fn counted(name: &str) -> (&str, u32) {
    let said = name.rsplit_once(CUT).and_then(|(name, count)| Some((name, count.parse().ok()?)));
    said.filter(|(name, count): &(&str, u32)| !name.is_empty() && *count > 0).unwrap_or((name, 1))
}

/// The outlines of `pieces` beside each other, one of each, named with how many are cut, in the unit of `system`.
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
        entity.common.layer = told(piece, &piece.name);
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
            told(piece, &piece.id),
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

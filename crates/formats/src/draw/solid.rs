//! A solid bag drawn at an angle: faces in their cloths from back to front, threads, straps, and where its sizes are
//! taken hold of.

use super::anchor::{Anchor, BagDrawing};
use super::canvas::{Canvas, Drawing, Style, ink, num};
use super::dress::{Cloth, Dress, Onto, WEBBING, made_up, motif_on, part};
use bofta_core::bag::{AWAY, Draft, Family, Place, Seen, Side, Solid, ThreadKind};
use bofta_core::measure::System;
use bofta_core::piece::Part;
use bofta_core::project::Project;

/// A view of the solid: scale and where its origin lands.
struct Camera {
    scale: f64,
    left: f64,
    bottom: f64,
}

/// Without the camera: across and up.
fn flat([x, y, z]: Place) -> (f64, f64) {
    (x + AWAY.0 * z, y + AWAY.1 * z)
}

impl Camera {
    /// Fits `solid` into the frame with `margin` (left, top, right, bottom) kept clear, and what rises so far above it.
    fn fitting(solid: &Solid, rises: f64, (width, height): (f64, f64), margin: [f64; 4]) -> Self {
        let points = solid.faces.iter().flat_map(|f| &f.corners).chain(solid.threads.iter().flat_map(|t| &t.points));
        let above = solid.front.map(|[[x, y, z], _]| [x, y + rises, z]);
        let (mut low, mut high) = ((f64::MAX, f64::MAX), (f64::MIN, f64::MIN));
        for p in points.chain(&above) {
            let (x, y) = flat(*p);
            low = (low.0.min(x), low.1.min(y));
            high = (high.0.max(x), high.1.max(y));
        }
        if low.0 >= high.0 || low.1 >= high.1 {
            return Self { scale: 1.0, left: 0.0, bottom: height };
        }
        let [left, top, right, bottom] = margin;
        let room = (width - left - right, height - top - bottom);
        let scale = (room.0 / (high.0 - low.0)).min(room.1 / (high.1 - low.1));
        let spare = (room.0 - (high.0 - low.0) * scale) / 2.0;
        Self { scale, left: left + spare - low.0 * scale, bottom: height - bottom + low.1 * scale }
    }

    fn at(&self, place: Place) -> (f64, f64) {
        let (x, y) = flat(place);
        (self.left + x * self.scale, self.bottom - y * self.scale)
    }
}

fn draw(canvas: &mut Canvas, solid: &Solid, camera: &Camera, dress: &Dress, seen: &[(u32, Seen)]) {
    let of = |part: Part| dress.cloth(part);
    let path = |points: &[Place]| {
        let mut d = String::new();
        for (i, p) in points.iter().enumerate() {
            let (x, y) = camera.at(*p);
            d.push_str(&format!("{}{} {}", if i == 0 { "M" } else { "L" }, num(x), num(y)));
        }
        d
    };
    let straps: Vec<_> =
        solid.threads.iter().filter(|t| matches!(t.kind, ThreadKind::Strap | ThreadKind::Webbing)).collect();
    let strap = |canvas: &mut Canvas, t: &bofta_core::bag::Thread, dim: bool| {
        let wide = (t.width * camera.scale).max(3.0);
        let d = path(&t.points);
        let webbing = Cloth::plain(WEBBING);
        let cloth = if t.kind == ThreadKind::Webbing { &webbing } else { of(Part::Straps) };
        canvas.path(&d, &Style::line(ink::INDIGO, wide + 3.0));
        canvas.path(&d, &Style::line(cloth.ground.clone(), wide));
        canvas.path(&d, &Style::line(cloth.figures.clone(), wide));
        if dim {
            canvas.path(&d, &Style::line(ink::INDIGO, wide).opacity(0.25));
        }
    };
    for face in &solid.faces {
        if face.shade < 3 {
            continue;
        }
        polygon(canvas, &face.corners.iter().map(|p| camera.at(*p)).collect::<Vec<_>>(), &of(face.part).figures, 3);
    }
    for t in straps.iter().filter(|t| t.behind) {
        strap(canvas, t, true);
    }
    for face in solid.faces.iter().filter(|f| f.shade < 3) {
        polygon(
            canvas,
            &face.corners.iter().map(|p| camera.at(*p)).collect::<Vec<_>>(),
            &of(face.part).figures,
            face.shade,
        );
    }
    for t in &solid.threads {
        let d = path(&t.points);
        match t.kind {
            ThreadKind::Stitch => canvas.path(&d, &Style::line(ink::PAPER, 1.4).dash("2 3")),
            ThreadKind::Edge => canvas.path(&d, &Style::line(ink::INDIGO, 1.4)),
            ThreadKind::Zip => {
                canvas.path(&d, &Style::line(ink::INDIGO, 6.0));
                canvas.path(&d, &Style::line(ink::TAPE, 3.0).dash("2 2"));
            }
            ThreadKind::Cord => {
                canvas.path(&d, &Style::line(ink::INDIGO, 4.4));
                canvas.path(&d, &Style::line(ink::CALICO, 2.4));
            }
            ThreadKind::Strap | ThreadKind::Webbing => {}
        }
    }
    if let Some(front) = solid.front {
        let at = |x: f64, y: f64| on_front(front, camera, x, y);
        let onto = Onto { at: &at, scale: camera.scale };
        for (_, s) in seen.iter().filter(|(_, s)| s.side == Side::Front) {
            part(canvas, s, dress, &onto);
        }
    }
    for t in straps.iter().filter(|t| !t.behind) {
        strap(canvas, t, false);
    }
}

/// Where a place on the front, from its left and from the mouth down, is seen: down it from its upper to its lower corner,
/// which may lie nearer.
fn on_front([upper, lower]: [[f64; 3]; 2], camera: &Camera, x: f64, y: f64) -> (f64, f64) {
    let t = y / (upper[1] - lower[1]).max(1.0);
    let down = |k: usize| upper[k] + (lower[k] - upper[k]) * t;
    camera.at([down(0) + x, down(1), down(2)])
}

/// Where a motif is seen on the front, if the front has a place on its print.
fn motif_on_front(project: &Project, draft: &Draft, solid: &Solid, camera: &Camera) -> Option<(Part, (f64, f64))> {
    let walls = project.bag.walls(project.ruler);
    let (part, (x, y)) = walls.iter().find(|w| w.side == Side::Front).and_then(|w| motif_on(project, draft, w))?;
    Some((part, on_front(solid.front?, camera, x, y)))
}

fn polygon(canvas: &mut Canvas, corners: &[(f64, f64)], fill: &str, shade: u8) {
    canvas.polygon(corners, &Style::fill(fill));
    let dark = [0.0, 0.14, 0.3, 0.3][usize::from(shade.min(3))];
    if dark > 0.0 {
        canvas.polygon(corners, &Style::fill(ink::INDIGO).opacity(dark));
    }
    canvas.polygon(corners, &Style::line(ink::INDIGO, 1.8));
}

/// Draws `solid` dressed in the project's cloths.
pub(super) fn solid_bag(project: &Project, draft: &Draft, solid: &Solid, width: f64, height: f64) -> BagDrawing {
    let mut canvas = Canvas::default();
    let made = made_up(project, draft).into_iter().map(|s| (0, s));
    let seen: Vec<(u32, Seen)> = made.chain(project.bag.seen(project.ruler)).collect();
    let rises = seen.iter().map(|(_, s)| s.rises()).max().unwrap_or_default();
    let camera = Camera::fitting(solid, rises.0 as f64, (width, height), [200.0, 24.0, 200.0, 64.0]);
    let motif = motif_on_front(project, draft, solid, &camera);
    let dress = Dress::of(&mut canvas, (project, draft), "bag", camera.scale, motif);
    draw(&mut canvas, solid, &camera, &dress, &seen);
    let unit = project.system.unit().0 as f64;
    let anchors = solid
        .grips
        .iter()
        .map(|grip| {
            let ((x1, y1), (x2, y2)) = (camera.at(grip.from), camera.at(grip.to));
            let long = (0..3).map(|k| (grip.to[k] - grip.from[k]).powi(2)).sum::<f64>().sqrt().max(1.0);
            let per_unit = ((x2 - x1) / long * unit, (y2 - y1) / long * unit);
            // Off the bag: under its base, beside its left side, beyond its right.
            let (dx, dy) = match grip.field {
                "height" => (-78.0, 0.0),
                "depth" => (12.0, 12.0),
                _ => (0.0, 26.0),
            };
            Anchor { field: grip.field, x1: x1 + dx, y1: y1 + dy, x2: x2 + dx, y2: y2 + dy, per_unit }
        })
        .collect();
    BagDrawing { drawing: canvas.finish(width, height), anchors }
}

/// A family at its usual size in plain cloth, small: to choose it by.
pub fn family(family: Family, width: f64, height: f64) -> Drawing {
    let mut canvas = Canvas::default();
    let bag = family.default_for(System::Inches);
    if let Ok(draft) = bag.draft(bofta_core::measure::Ruler::Eighth) {
        let solid = bag.solid(&draft);
        if solid.faces.is_empty() {
            rows(&mut canvas, width, height);
        } else {
            let camera = Camera::fitting(&solid, 0.0, (width, height), [8.0; 4]);
            let tints = [
                (Part::Outer, "#E7D9BC"),
                (Part::Contrast, "#C9D3DE"),
                (Part::Lining, "#C3AF8A"),
                (Part::Pocket, "#D5C29B"),
                (Part::Straps, "#B98E6B"),
                (Part::Binding, "#B98E6B"),
                (Part::Base, "#A9835F"),
            ];
            let cloths = tints.map(|(part, tint)| (part, Cloth::plain(tint))).into_iter().collect();
            draw(&mut canvas, &solid, &camera, &Dress::new(cloths), &[]);
        }
    }
    canvas.finish(width, height)
}

/// A cut list is drawn as what it is: a few pieces in rows.
fn rows(canvas: &mut Canvas, width: f64, height: f64) {
    let style = Style::fill("#E7D9BC").stroke(ink::INDIGO, 1.8);
    let (w, h) = (width / 12.0, height / 12.0);
    for (x, y, wide, tall) in
        [(1.0, 1.0, 4.0, 5.0), (6.0, 1.0, 4.0, 3.0), (6.0, 5.0, 5.0, 1.4), (1.0, 7.0, 3.0, 4.0), (5.0, 7.6, 6.0, 3.4)]
    {
        canvas.rect(x * w, y * h, wide * w, tall * h, &style);
    }
}

//! The bag as it will be: flat from the front, and standing, dressed in its cloths. Anchors tell the screen where
//! sizes can be typed and dragged.

use super::anchor::{Anchor, BagDrawing};
use super::canvas::{Canvas, Style, ink, num};
use super::dress::{Dress, Onto, made_up, motif_on, part};
use super::pattern::paint;
use super::solid::solid_bag;
use bofta_core::bag::piecing::Piecing;
use bofta_core::bag::pocket::PocketKind;
use bofta_core::bag::{Body, Draft, LiningFit, Looks, Rising, Seen, Side, Tote};
use bofta_core::measure::Length;
use bofta_core::piece::Part;
use bofta_core::project::Project;

/// Draws the project's bag into `width` × `height` pixels.
pub fn bag(project: &Project, draft: &Draft, width: f64, height: f64) -> BagDrawing {
    let Body::Tote(tote) = &project.bag.body else {
        return solid_bag(project, draft, &project.bag.solid(draft), width, height);
    };
    let mut canvas = Canvas::default();
    let mut paints = Paints {
        outer: ink::PAPER.into(),
        straps: StrapPaint { ground: ink::PAPER.into(), figures: ink::PAPER.into() },
        lining: ink::CALICO.into(),
        pocket: ink::PAPER.into(),
        front: ink::PAPER.into(),
        band: ink::PAPER.into(),
    };
    let drop = draft.strap_drop.unwrap_or_default();
    // Flat: as wide as the mouth, W + D where the walls are straight. Standing: W, and D going back at an angle.
    let widest = tote.flat_mouth().max(tote.width);
    let stands = tote.mouth_face().max(tote.width).0 as f64;
    let total_wide = widest.0 as f64 + stands + tote.depth.0 as f64 * 0.6;
    // What is put on may rise higher than the bag's own straps.
    let risen = project.bag.seen(project.ruler).iter().map(|(_, s)| s.rises()).max().unwrap_or_default().max(drop);
    let total_tall = (tote.height + risen).0 as f64 + tote.depth.0 as f64 * 0.45;
    // Room is left for the height's line between the two, and for the depth's box at the right.
    let (between, aside) = (190.0, 110.0);
    let scale = ((width - 60.0 - between - aside) / total_wide).min((height - 72.0) / total_tall);
    let margin = ((width - between - aside - total_wide * scale) / 2.0).max(30.0);
    let mut shown = 0;
    for (part, slot) in [
        (Part::Outer, &mut paints.outer),
        (Part::Straps, &mut paints.straps.figures),
        (Part::Lining, &mut paints.lining),
        (Part::Pocket, &mut paints.pocket),
        (if tote.front.piecing == Piecing::Whole { Part::Outer } else { Part::Contrast }, &mut paints.front),
        (tote.band().map_or(Part::Outer, |(part, _)| part), &mut paints.band),
    ] {
        if let Some(cloth) = project.seen_cloth_of(part, &draft.pieces) {
            shown += 1;
            let id = format!("bag-{}-{shown}", part.key());
            *slot = paint(&mut canvas, cloth, &id, (0, scale), None);
        }
    }
    if let Some(cloth) = project.seen_cloth_of(Part::Straps, &draft.pieces) {
        paints.straps.ground.clone_from(&cloth.look.ground);
    }
    let unit = project.system.unit().0 as f64 * scale;
    let bottom = height - 52.0;
    let dress = Dress::of(&mut canvas, (project, draft), "bag-part", scale, None);
    let made = made_up(project, draft).into_iter().map(|s| (0, s));
    let seen: Vec<(u32, Seen)> = made.chain(project.bag.seen(project.ruler)).collect();
    let of = |side: Side| seen.iter().filter(move |(_, s)| s.side == side).map(|(_, s)| s);
    let flat = Flat { tote, scale, left: margin, bottom, spacing: draft.strap_spacing, drop };
    let (x, y) = (flat.left + (widest - tote.width).0 as f64 / 2.0 * scale, bottom - tote.height.0 as f64 * scale);
    // A motif that has its place on the front is seen there, on either drawing of it.
    let walls = project.bag.walls(project.ruler);
    let motif = walls.iter().find(|w| w.side == Side::Front).and_then(|w| motif_on(project, draft, w));
    let fronted = |canvas: &mut Canvas, paints: &Paints, id: &str, left: f64| match motif {
        Some((part, (a, b))) if tote.front.piecing == Piecing::Whole => {
            let at = Some((left + a * scale, y + b * scale));
            let front = project.seen_cloth_of(part, &draft.pieces).map(|c| paint(canvas, c, id, (0, scale), at));
            Paints { front: front.unwrap_or_else(|| paints.front.clone()), ..paints.clone() }
        }
        _ => paints.clone(),
    };
    let on_flat = fronted(&mut canvas, &paints, "bag-front-flat", x);
    let mut anchors = flat.draw(&mut canvas, &on_flat, unit);
    // Bands and patches run on to the side seams, wider towards the mouth; what is put on lies on the face.
    // The face is drawn by the width that is clear all the way up: what is put on it stands in its middle.
    let clear = walls.iter().find(|w| w.side == Side::Front).map_or(tote.width, |w| w.width);
    let inset = (tote.width - clear).0 as f64 / 2.0 * scale;
    let (wide, tall) = (tote.width.0 as f64, tote.height.0 as f64);
    let opens = tote.flat_mouth().0 as f64 / wide - 1.0;
    let to_the_seams = |a: f64, b: f64| {
        let a = a + inset / scale;
        let wider = 1.0 + opens * (1.0 - b / tall);
        (x + (wide / 2.0 + (a - wide / 2.0) * wider) * scale, y + b * scale)
    };
    let on_the_face = |a: f64, b: f64| (x + inset + a * scale, y + b * scale);
    for (id, s) in seen.iter().filter(|(_, s)| s.side == Side::Front) {
        let at: &dyn Fn(f64, f64) -> (f64, f64) =
            if *id == 0 || right_across(s, clear) { &to_the_seams } else { &on_the_face };
        part(&mut canvas, s, &dress, &Onto { at, scale });
    }
    let left = flat.left + (widest.0 as f64 + (stands - wide) / 2.0) * scale + between;
    let standing = Standing { tote, scale, left, bottom, spacing: draft.strap_spacing, drop };
    let on_standing = fronted(&mut canvas, &paints, "bag-front-standing", left);
    anchors.extend(standing.draw(&mut canvas, &on_standing, unit));
    for s in of(Side::Front) {
        part(&mut canvas, s, &dress, &Onto { at: &|a, b| (left + inset + a * scale, y + b * scale), scale });
    }
    let right = left + tote.width.0 as f64 * scale;
    for s in of(Side::Right) {
        let at = |a: f64, b: f64| (right + a * 0.6 * scale, y + (b - a * 0.34) * scale);
        part(&mut canvas, s, &dress, &Onto { at: &at, scale });
    }
    BagDrawing { drawing: canvas.finish(width, height), anchors }
}

/// A zip from seam to seam of a face `clear` wide.
fn right_across(seen: &Seen, clear: Length) -> bool {
    matches!(seen.looks, Looks::Zip { .. }) && seen.left == Length::ZERO && seen.width == clear
}

/// A stroke has no ground of its own laid under it.
#[derive(Clone)]
struct StrapPaint {
    ground: String,
    figures: String,
}

#[derive(Clone)]
struct Paints {
    outer: String,
    straps: StrapPaint,
    lining: String,
    pocket: String,
    front: String,
    band: String,
}

/// A strap as an arch between its ends, `wide` across, over `top`.
fn strap(
    canvas: &mut Canvas,
    paint: &StrapPaint,
    (x1, x2): (f64, f64),
    (mouth, top): (f64, f64),
    wide: f64,
    dim: bool,
) {
    let rise = (mouth - top) * 1.32;
    let d = format!(
        "M{} {}C{} {} {} {} {} {}",
        num(x1),
        num(mouth),
        num(x1),
        num(mouth - rise),
        num(x2),
        num(mouth - rise),
        num(x2),
        num(mouth)
    );
    canvas.path(&d, &Style::line(ink::INDIGO, wide + 3.0));
    canvas.path(&d, &Style::line(paint.ground.clone(), wide));
    canvas.path(&d, &Style::line(paint.figures.clone(), wide));
    if dim {
        canvas.path(&d, &Style::line(ink::INDIGO, wide).opacity(0.28));
    }
}

/// The folds below a mouth that is taken in: of gathers many short ones, of pleats their two edges each.
fn taken_in(canvas: &mut Canvas, tote: &Tote, (middle, mouth): (f64, f64), (top, bottom): (f64, f64), scale: f64) {
    if !tote.rise.taken_in() {
        return;
    }
    let line = Style::line(ink::INDIGO, 1.2).opacity(0.55);
    let mut fold = |x: f64, apart: f64, long: f64| {
        let foot = middle + (x - middle) * (1.0 + apart);
        canvas.line(x, top, foot, top + (bottom - top) * long, &line);
    };
    if tote.rise.is_pleated() {
        let n = f64::from(tote.rise.pleats);
        let half = if tote.rise.rising == Rising::BoxPleats { tote.rise.pleat_depth.0 as f64 * scale } else { 1.5 };
        for i in 0..tote.rise.pleats {
            let centre = middle + mouth * ((2.0 * f64::from(i) + 1.0 - n) / (2.0 * n));
            fold(centre - half, 0.0, 0.7);
            fold(centre + half, 0.0, 0.7);
        }
        return;
    }
    let folds = 17;
    for i in 0..folds {
        let x = middle + mouth * ((f64::from(i) + 0.5) / f64::from(folds) - 0.5);
        fold(x, 0.08, if i % 2 == 0 { 0.34 } else { 0.2 });
    }
}

struct Flat<'a> {
    tote: &'a Tote,
    scale: f64,
    left: f64,
    bottom: f64,
    spacing: Option<Length>,
    drop: Length,
}

impl Flat<'_> {
    fn draw(&self, canvas: &mut Canvas, paints: &Paints, unit: f64) -> Vec<Anchor> {
        let px = |l: Length| l.0 as f64 * self.scale;
        let t = self.tote;
        let (mouth_wide, base_wide) = (px(t.flat_mouth()), px(t.width));
        let widest = mouth_wide.max(base_wide);
        let middle = self.left + widest / 2.0;
        let (left, right) = (middle - mouth_wide / 2.0, middle + mouth_wide / 2.0);
        let (top, base_left) = (self.bottom - px(t.height), middle - base_wide / 2.0);
        if let Some(spacing) = self.spacing {
            let half = px(spacing) / 2.0;
            strap(
                canvas,
                &paints.straps,
                (middle - half, middle + half),
                (top, top - px(self.drop)),
                px(t.strap_width).max(3.0),
                false,
            );
        }
        let shape = [(left, top), (right, top), (base_left + base_wide, self.bottom), (base_left, self.bottom)];
        canvas.polygon(&shape, &Style::fill(paints.front.clone()).stroke(ink::INDIGO, 2.0));
        if let Some((_, deep)) = t.band() {
            let deep = px(deep);
            let in_by = deep / px(t.height) * (mouth_wide - base_wide) / 2.0;
            let band = [(left, top), (right, top), (right - in_by, top + deep), (left + in_by, top + deep)];
            canvas.polygon(&band, &Style::fill(paints.band.clone()).stroke(ink::INDIGO, 1.4));
        }
        let stitch = px(t.mouth.stitched_below()).max(6.0);
        let inset = stitch / px(t.height) * (mouth_wide - base_wide) / 2.0;
        canvas.line(left + inset, top + stitch, right - inset, top + stitch, &Style::line(ink::PAPER, 1.4).dash("2 3"));
        taken_in(canvas, t, (middle, mouth_wide), (top + stitch, self.bottom), self.scale);
        if t.pocket.kind != PocketKind::None && t.lining != LiningFit::None {
            // It hangs inside: only its outline shows through.
            let (w, h) = (px(t.pocket.width), px(t.pocket.height));
            let (x, y) = (middle - w / 2.0, top + px(t.pocket.below));
            canvas.rect(x, y, w, h, &Style::fill(ink::PAPER).opacity(0.16));
            canvas.rect(x, y, w, h, &Style::line(ink::PAPER, 1.6).dash("5 4"));
        }
        let base = self.bottom + 22.0;
        vec![
            Anchor {
                field: "width",
                x1: base_left,
                y1: base,
                x2: base_left + base_wide,
                y2: base,
                per_unit: (unit, 0.0),
            },
            Anchor {
                field: "height",
                x1: self.left + widest + 88.0,
                y1: self.bottom,
                x2: self.left + widest + 88.0,
                y2: top,
                per_unit: (0.0, -unit),
            },
        ]
    }
}

struct Standing<'a> {
    tote: &'a Tote,
    scale: f64,
    left: f64,
    bottom: f64,
    spacing: Option<Length>,
    drop: Length,
}

impl Standing<'_> {
    fn draw(&self, canvas: &mut Canvas, paints: &Paints, unit: f64) -> Vec<Anchor> {
        let px = |l: Length| l.0 as f64 * self.scale;
        let t = self.tote;
        let (w, h, d) = (px(t.width), px(t.height), px(t.depth));
        // Depth goes back to the right and up.
        let (dx, dy) = (d * 0.6, d * 0.34);
        let (x, right) = (self.left, self.left + w);
        let (bottom, top) = (self.bottom, self.bottom - h);
        let edge = Style::fill("none").stroke(ink::INDIGO, 2.0);
        // Drawn in or out at the mouth towards the middle of the bag.
        let mouth = px(t.mouth_face()) / w.max(1e-9);
        let (axis, half_back) = (x + w / 2.0 + dx / 2.0, dy / 2.0);
        let at_mouth =
            |(px, py): (f64, f64)| (axis + (px - axis) * mouth, top - half_back + (py - (top - half_back)) * mouth);
        let corners = [(x, top), (x + dx, top - dy), (right + dx, top - dy), (right, top)].map(at_mouth);
        // Inside, seen through the mouth: back panel's lining and the far side.
        let inside = corners;
        let [front_left, _, back_right, front_right] = corners;
        // A way down a wall, from its upper to its lower corner.
        let down = |upper: (f64, f64), lower: (f64, f64), by: f64| {
            let share = if h > 0.0 { by / h } else { 0.0 };
            (upper.0 + (lower.0 - upper.0) * share, upper.1 + (lower.1 - upper.1) * share)
        };
        canvas.polygon(&inside, &Style::fill(paints.lining.clone()));
        canvas.polygon(&inside, &Style::fill(ink::INDIGO).opacity(0.28));
        let strap_wide = px(t.strap_width).max(3.0);
        let middle = x + w / 2.0;
        if let Some(spacing) = self.spacing {
            let half = px(spacing) / 2.0;
            let ends = (middle + dx - half, middle + dx + half);
            strap(canvas, &paints.straps, ends, (corners[1].1, corners[1].1 - px(self.drop) * 0.96), strap_wide, true);
        }
        if t.pocket.kind != PocketKind::None && t.lining != LiningFit::None {
            let (pw, seen) = (px(t.pocket.width), (dy - px(t.pocket.below) * 0.34).max(0.0));
            if seen > 3.0 {
                let (cx, py) = (middle + dx, top - dy + px(t.pocket.below) * 0.34);
                canvas.polygon(
                    &[(cx - pw / 2.0, py), (cx + pw / 2.0, py), (cx + pw / 2.0, top), (cx - pw / 2.0, top)],
                    &Style::fill(paints.pocket.clone()).stroke(ink::INDIGO, 1.0).opacity(0.85),
                );
            }
        }
        canvas.polygon(&inside, &edge);
        let side = [front_right, back_right, (right + dx, bottom - dy), (right, bottom)];
        canvas.polygon(&side, &Style::fill(paints.outer.clone()));
        canvas.polygon(&side, &Style::fill(ink::INDIGO).opacity(0.3));
        // A soft fold down the middle of the side.
        canvas.line(
            (front_right.0 + back_right.0) / 2.0,
            (front_right.1 + back_right.1) / 2.0,
            right + dx / 2.0,
            bottom - dy / 2.0 - h * 0.25,
            &Style::line(ink::INDIGO, 1.0).opacity(0.5),
        );
        canvas.polygon(&side, &edge);
        let front = [front_left, front_right, (right, bottom), (x, bottom)];
        canvas.polygon(&front, &Style::fill(paints.front.clone()).stroke(ink::INDIGO, 2.0));
        let lower = (front[3], front[2]);
        if let Some((_, deep)) = t.band() {
            let deep = px(deep);
            let back_low = down(back_right, (right + dx, bottom - dy), deep);
            let side = [front_right, back_right, back_low, down(front_right, lower.1, deep)];
            canvas.polygon(&side, &Style::fill(paints.band.clone()));
            canvas.polygon(&side, &Style::fill(ink::INDIGO).opacity(0.3));
            canvas.polygon(&side, &Style::line(ink::INDIGO, 1.4));
            let band = [front_left, front_right, down(front_right, lower.1, deep), down(front_left, lower.0, deep)];
            canvas.polygon(&band, &Style::fill(paints.band.clone()).stroke(ink::INDIGO, 1.4));
        }
        let stitch = px(t.mouth.stitched_below()).max(6.0);
        let (from, to) = (down(front_left, lower.0, stitch), down(front_right, lower.1, stitch));
        canvas.line(from.0, from.1, to.0, to.1, &Style::line(ink::PAPER, 1.4).dash("2 3"));
        taken_in(canvas, t, ((from.0 + to.0) / 2.0, to.0 - from.0), (from.1, bottom), self.scale);
        if let Some(spacing) = self.spacing {
            let half = px(spacing) / 2.0;
            strap(
                canvas,
                &paints.straps,
                (middle - half, middle + half),
                (front_left.1, front_left.1 - px(self.drop) * 0.96),
                strap_wide,
                false,
            );
        }
        let (ax, ay) = (right + 10.0, bottom + 12.0);
        vec![Anchor { field: "depth", x1: ax, y1: ay, x2: ax + dx, y2: ay - dy, per_unit: (unit * 0.6, -unit * 0.34) }]
    }
}

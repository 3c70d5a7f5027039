//! All cuts of one cloth in one drawing, for paper: each line with its number and its direction, each part with its letter,
//! each piece with its name and size. List and drawing explain each other.

use super::canvas::{Canvas, Drawing, Style, ink, num};
use super::cut::fold_line;
use super::font::{Face, text_width};
use super::labels::Labels;
use super::pattern::{border_from, paint, up_degrees};
use super::scrap;
use bofta_core::cloth::Form;
use bofta_core::cutting::{CutKind, Kept, Marking, PartName, PartShape, Step};
use bofta_core::lay::{ClothLay, Job};
use bofta_core::measure::Length;
use bofta_core::project::Project;
use bofta_core::shape::Outline;

const SIDE: f64 = 22.0;
const EDGE: f64 = 18.0;
const TAG: f64 = 7.0;
const FONTS: [f64; 2] = [10.5, 9.0];

/// Draws the numbered cuts of `lay` into `width` × `height` points or less. `key` makes the ids of the drawing unique on
/// its page.
pub fn cut_map(
    project: &Project,
    job: &Job,
    lay: &ClothLay,
    steps: &[Step],
    (width, height): (f64, f64),
    key: &str,
) -> Option<Drawing> {
    let drawn = drawn(project, job, lay, steps, (width, height), key, SIDE)?;
    // What does not fit into its piece is led out to the right.
    if drawn.1 > 0.0 { drawn_again(project, job, lay, steps, (width, height), key, drawn.1) } else { Some(drawn.0) }
}

fn drawn_again(
    project: &Project,
    job: &Job,
    lay: &ClothLay,
    steps: &[Step],
    size: (f64, f64),
    key: &str,
    room: f64,
) -> Option<Drawing> {
    Some(drawn(project, job, lay, steps, size, key, (room + 30.0).min(size.0 * 0.45))?.0)
}

/// The drawing, and how much room at the right what is led out takes.
fn drawn(
    project: &Project,
    job: &Job,
    lay: &ClothLay,
    steps: &[Step],
    (width, height): (f64, f64),
    key: &str,
    right: f64,
) -> Option<(Drawing, f64)> {
    let cloth = project.cloth(&lay.cloth)?;
    let as_job = job.cloth(&lay.cloth)?;
    let corner = as_job.corner();
    let (wide, there) = (as_job.washed_width(), lay.on_table(as_job));
    let scale = ((width - SIDE - right) / wide.0 as f64).min((height - 2.0 * EDGE) / there.0 as f64);
    let height = there.0 as f64 * scale + 2.0 * EDGE;
    let (left, bottom) = (SIDE, height - EDGE);
    let x = |v: i64| left + (v - corner.x.0) as f64 * scale;
    let y = |v: i64| bottom - (v - corner.y.0) as f64 * scale;
    let mut canvas = Canvas::default();
    let mut labels = Labels::default();
    let pattern = format!("cuts-{}", key.replace(|c: char| !c.is_alphanumeric(), "-"));
    let motif = as_job.repeat.map(|r| (x(r.at.x.0), y(r.at.y.0)));
    let on_roll = matches!(as_job.form, Form::Roll { .. });
    let motif = motif.or_else(|| border_from(cloth, x(0), scale).filter(|_| on_roll));
    paint(&mut canvas, cloth, &pattern, (up_degrees(cloth), scale), motif);
    let (far, end) = (corner.y.0 + there.0, corner.x.0 + wide.0);
    if let Some((corners, flaws)) = scrap::edges(as_job) {
        let at: Vec<(f64, f64)> = corners.iter().map(|p| (x(p.x.0), y(p.y.0))).collect();
        scrap::ground(&mut canvas, &at, &format!("url(#{pattern})"), 0.25, Style::line(ink::INDIGO, 1.0));
        let rings: Vec<_> = flaws.iter().map(|f| (f.iter().map(|p| (x(p.x.0), y(p.y.0))).collect(), "")).collect();
        scrap::flaws(&mut canvas, &rings);
        scrap::corner_letters(&mut canvas, &at);
    } else {
        canvas.rect(
            x(corner.x.0),
            y(far),
            x(end) - x(corner.x.0),
            y(corner.y.0) - y(far),
            &Style::fill(ink::PAPER).stroke(ink::INDIGO, 1.0),
        );
    }
    for p in &lay.placements {
        let piece = job.piece(&p.piece)?;
        let axis = if p.on_fold { 0 } else { i64::MIN };
        let corners = piece.outline.placed(p.turn, p.mirrored);
        let outline: Vec<(f64, f64)> = corners.iter().map(|c| (x((c.x + p.x).0.max(axis)), y((c.y + p.y).0))).collect();
        canvas.polygon(&outline, &Style::fill(format!("url(#{pattern})")).opacity(0.28));
        canvas.polygon(&outline, &Style::line(ink::INDIGO, 0.8));
    }
    if as_job.layers == 2 {
        fold_line(&mut canvas, (x(0), y(far), y(corner.y.0)));
    }
    cuts(&mut canvas, &mut labels, steps, (&x, &y));
    letters(&mut canvas, &mut labels, steps, (&x, &y));
    for p in &lay.placements {
        let piece = job.piece(&p.piece)?;
        let (w, h) = piece.outline.extent(p.turn, p.mirrored);
        let (wide, tall) = piece.outline.size();
        let size = format!("{} × {}", project.ruler.show(wide).text, project.ruler.show(tall).text);
        let from = if p.on_fold { Length::ZERO } else { p.x };
        let (px, py) = (x(from.0), y((p.y + h).0));
        let (pw, ph) = ((p.x + w - from).0 as f64 * scale, h.0 as f64 * scale);
        // Of a shaped piece the corners of its box may belong to others.
        let inset = if matches!(piece.outline, Outline::Rect(..)) { 0.0 } else { 0.12 };
        let inside = (px + pw * inset, py + ph * inset, pw * (1.0 - 2.0 * inset), ph * (1.0 - 2.0 * inset));
        labels.piece(&mut canvas, (&p.piece, &piece.name, &size), inside, &FONTS);
    }
    let room = if labels.leads_out() { labels.room_for_led_out(9.5) } else { 0.0 };
    labels.lead_out(&mut canvas, x(end) + 16.0, (EDGE + 6.0, bottom), 9.5);
    let lies = lay.lies(as_job);
    if lies > there {
        let rest = format!(
            "goes on: {} {} in all",
            project.ruler.show(lies.floor_to(project.ruler.step())).text,
            project.system.symbol()
        );
        canvas.text(x(end), y(far) - 5.0, &rest, Face::Text, 9.5, ink::SOFT, "end");
    }
    Some((canvas.finish(width, height), room))
}

type Axes<'a> = (&'a dyn Fn(i64) -> f64, &'a dyn Fn(i64) -> f64);

/// Every straight cut as a line with its number and an arrow the way the blade runs; pieces that are marked out carry the
/// number of their step.
fn cuts(canvas: &mut Canvas, labels: &mut Labels, steps: &[Step], (x, y): Axes<'_>) {
    for (n, step) in steps.iter().enumerate() {
        match step {
            Step::Cut { cut, .. } => {
                let l = cut.line;
                let (from, to) = ((x(l.x1.0), y(l.y1.0)), (x(l.x2.0), y(l.y2.0)));
                let style = Style::line(ink::MADDER, if cut.kind == CutKind::Fold { 1.0 } else { 1.5 });
                let style = if cut.kind == CutKind::Fold { style.dash("3 2") } else { style };
                canvas.line(from.0, from.1, to.0, to.1, &style);
                number(canvas, labels, n + 1, from, to);
                if cut.kind == CutKind::Stopped {
                    let (dx, dy) = if from.0 == to.0 { (4.0, 0.0) } else { (0.0, 4.0) };
                    canvas.line(to.0 - dx, to.1 - dy, to.0 + dx, to.1 + dy, &style);
                }
            }
            Step::Outline { cut, .. } if cut.marking != Marking::Cut => {
                let a = cut.around;
                let (from, to) = ((x(a.x), y(a.top())), (x(a.right()), y(a.top())));
                number(canvas, labels, n + 1, (from.0 + 3.0, from.1 + TAG + 3.0), (to.0 - 3.0, to.1 + TAG + 3.0));
            }
            _ => {}
        }
    }
}

/// The number of a cut on its line, near where the blade goes in, clear of the others; with the arrow behind it.
fn number(canvas: &mut Canvas, labels: &mut Labels, n: usize, from: (f64, f64), to: (f64, f64)) {
    let long = (to.0 - from.0).hypot(to.1 - from.1).max(1e-9);
    let (ux, uy) = ((to.0 - from.0) / long, (to.1 - from.1) / long);
    let text = n.to_string();
    let half = (text_width(&text, Face::Bold, 9.0) / 2.0 + 2.5).max(TAG - 1.0);
    // Before its beginning first: there is nothing else at the edge of the cloth.
    let spots = std::iter::once(-half - 1.0).chain((0..40).map(|k| half + 2.0 + f64::from(k) * 6.0));
    let fitting = spots.filter(|t| *t < 0.0 || *t < long - 2.0).find(|t| {
        let (cx, cy) = (from.0 + ux * t, from.1 + uy * t);
        labels.is_free([cx - half, cy - TAG, cx + half, cy + TAG])
    });
    let t = fitting.unwrap_or(half + 2.0);
    let (cx, cy) = (from.0 + ux * t, from.1 + uy * t);
    labels.take([cx - half, cy - TAG, cx + half, cy + TAG]);
    canvas.rect(
        cx - half,
        cy - TAG + 0.5,
        half * 2.0,
        2.0 * TAG - 1.0,
        &Style::fill(ink::PAPER).stroke(ink::MADDER, 0.8).rounded(TAG - 1.0),
    );
    canvas.text(cx, cy + 3.2, &text, Face::Bold, 9.0, ink::MADDER, "middle");
    let tip = t + half.max(TAG) + 7.0;
    if tip < long {
        let (tx, ty) = (from.0 + ux * tip, from.1 + uy * tip);
        let (bx, by) = (tx - ux * 5.0, ty - uy * 5.0);
        let d = format!(
            "M{} {}L{} {}L{} {}Z",
            num(tx),
            num(ty),
            num(bx - uy * 2.6),
            num(by + ux * 2.6),
            num(bx + uy * 2.6),
            num(by - ux * 2.6)
        );
        canvas.path(&d, &Style::fill(ink::MADDER));
        labels.take([tx.min(bx) - 3.0, ty.min(by) - 3.0, tx.max(bx) + 3.0, ty.max(by) + 3.0]);
    }
}

/// The letter of every part, where it begins to be one.
fn letters(canvas: &mut Canvas, labels: &mut Labels, steps: &[Step], (x, y): Axes<'_>) {
    let mut found: Vec<(PartName, PartShape)> = vec![];
    for step in steps {
        let new = match step {
            Step::Cut { cut, .. } => cut.parts().map(|(name, shape)| (name, shape.clone())).collect(),
            _ => vec![],
        };
        let kept = step.keeps().iter().filter_map(|(name, kept)| match kept {
            Kept::Part(part) => Some((*name, PartShape::whole(part.at))),
            Kept::Shape(_) => None,
        });
        for (name, shape) in new.into_iter().chain(kept) {
            if !found.iter().any(|(known, _)| *known == name) {
                found.push((name, shape));
            }
        }
    }
    for (name, shape) in found {
        let a = shape.around;
        let text = name.to_string();
        let wide = text_width(&text, Face::Heading, 12.0) + 4.0;
        let (right, top, low) = (x(a.right()), y(a.top()), y(a.y));
        let spots = (0..12).flat_map(|k| {
            let k = f64::from(k);
            [
                (right - wide - 2.0 - k * 8.0, top + 2.0),
                (right - wide - 2.0, top + 2.0 + k * 8.0),
                (right - wide - 2.0 - k * 8.0, low - 15.0),
            ]
        });
        let fits = |(px, py): &(f64, f64)| *px >= x(a.x) && *py + 13.0 <= low + 1.0;
        let at = spots.filter(fits).find(|(px, py)| labels.is_free([*px, *py, px + wide, py + 13.0]));
        // Every part keeps its letter, even where nothing is free: the list speaks of it.
        let (px, py) = at.unwrap_or((right - wide - 2.0, top + 2.0));
        labels.take([px, py, px + wide, py + 13.0]);
        canvas.text(px + wide / 2.0, py + 11.0, &text, Face::Heading, 12.0, ink::CHALK, "middle");
    }
}

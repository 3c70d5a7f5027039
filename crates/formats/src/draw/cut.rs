//! One step at the table: the cloth as it lies, the next cut one madder line, and the reading on a ruler as the eye
//! will see it.

use super::canvas::{Canvas, Drawing, Style, escape, ink, num};
use super::font::{Face, text_width};
use super::pattern::{border_from, paint, up_degrees};
use super::scrap;
use bofta_core::cloth::{Form, letters};
use bofta_core::cutting::{Block, CornerCut, Cut, Edge, Freed, OutlineCut, Sight, Step};
use bofta_core::lay::{ClothLay, Job, Lay, Placement, Region};
use bofta_core::measure::{Length, Ruler, System};
use bofta_core::piece::Piece;
use bofta_core::project::Project;
use bofta_core::shape::Point;

/// Draws `step` into `width` × `height` pixels; `gone` are the pieces (id, copy) cut off before it.
pub fn cut_step(
    project: &Project,
    job: &Job,
    lay: &Lay,
    (pieces, blocks): (&[Piece], &[Block]),
    step: &Step,
    gone: &[(String, u32)],
    (width, height): (f64, f64),
) -> Option<Drawing> {
    let block = |id: &str| blocks.iter().find(|b| b.piece == id);
    match step {
        Step::Fuse { block: id } => {
            let block = block(id)?;
            let mut canvas = Canvas::default();
            let size = block.job.cloths.first()?;
            let whole = Region { x: 0, y: 0, width: size.washed_width().0, height: block.lay.buy_length.0 };
            on_table(&mut canvas, project, &block.job, &block.lay, (whole, &[], &[]), (width, height))?;
            Some(canvas.finish(width, height))
        }
        Step::Block { block: id, step } => {
            let block = block(id)?;
            match step.as_ref() {
                Step::Cut { cut, .. } => straight(project, &block.job, &block.lay, cut, gone, (width, height)),
                Step::Outline(round) => outline(project, &block.job, &block.lay, round, gone, (width, height)),
                _ => None,
            }
        }
        Step::Cut { cloth, cut } => {
            let lay = lay.cloths.iter().find(|c| c.cloth == *cloth)?;
            straight(project, job, lay, cut, gone, (width, height))
        }
        Step::Outline(round) => {
            let lay = lay.cloths.iter().find(|c| c.cloth == round.cloth)?;
            outline(project, job, lay, round, gone, (width, height))
        }
        Step::Corners(corners) => {
            let piece = pieces.iter().find(|p| p.id == corners.piece)?;
            Some(corner(project, piece, corners, (width, height)))
        }
    }
}

/// From the cloth to the drawing.
struct Table {
    scale: f64,
    left: f64,
    bottom: f64,
}

impl Table {
    fn x(&self, v: i64) -> f64 {
        self.left + v as f64 * self.scale
    }

    fn y(&self, v: i64) -> f64 {
        self.bottom - v as f64 * self.scale
    }

    fn outline(&self, job: &Job, p: &Placement) -> Option<Vec<(f64, f64)>> {
        let corners = job.piece(&p.piece)?.outline.placed(p.turn, p.mirrored);
        // Of what lies half on the fold the other half is below.
        let least = if p.on_fold { 0 } else { i64::MIN };
        Some(corners.into_iter().map(|c| (self.x((c.x + p.x).0.max(least)), self.y((c.y + p.y).0))).collect())
    }
}

/// The cloth as it lies before a step that works on `lies` and takes `frees` off.
fn on_table(
    canvas: &mut Canvas,
    project: &Project,
    job: &Job,
    lay: &ClothLay,
    (lies, frees, gone): (Region, &[Freed], &[(String, u32)]),
    (width, height): (f64, f64),
) -> Option<Table> {
    let cloth = project.cloth(&lay.cloth)?;
    let as_job = job.cloth(&lay.cloth)?;
    let there = lay.on_table(as_job);
    let wide = as_job.washed_width();
    let scale = ((width - 60.0) / wide.0 as f64).min((height - 50.0) / there.0 as f64);
    let table =
        Table { scale, left: (width - wide.0 as f64 * scale) / 2.0, bottom: (height + there.0 as f64 * scale) / 2.0 };
    let (x, y) = (|v| table.x(v), |v| table.y(v));
    let motif = as_job.repeat.map(|r| (table.x(r.at.x.0), table.y(r.at.y.0)));
    let whole = matches!(as_job.form, Form::Roll { .. });
    let motif = motif.or_else(|| border_from(cloth, table.x(0), scale).filter(|_| whole));
    paint(canvas, cloth, "on-table", (up_degrees(cloth), scale), motif);
    let here = (x(lies.x), y(lies.top()), x(lies.right()) - x(lies.x), y(lies.y) - y(lies.top()));
    let on_scrap = scrap::edges(as_job);
    if let Some((corners, flaws)) = &on_scrap {
        let place = |p: &Point| (x(p.x.0), y(p.y.0));
        let at: Vec<(f64, f64)> = corners.iter().map(place).collect();
        scrap::ground(canvas, &at, "url(#on-table)", 0.4, Style::line(ink::INDIGO, 1.4));
        scrap::flaws(canvas, &flaws.iter().map(|f| (f.iter().map(place).collect(), "")).collect::<Vec<_>>());
        scrap::corner_letters(canvas, &at);
    } else {
        canvas.rect(x(0), y(there.0), x(wide.0) - x(0), y(0) - y(there.0), &Style::line(ink::RULED, 1.2).dash("5 4"));
        canvas.rect(here.0, here.1, here.2, here.3, &Style::fill(ink::PAPER));
        canvas.rect(here.0, here.1, here.2, here.3, &Style::fill("url(#on-table)").opacity(0.4));
    }
    for p in &lay.placements {
        let piece = job.piece(&p.piece)?;
        let (w, h) = piece.outline.extent(p.turn);
        let inside = p.x.0.max(if p.on_fold { 0 } else { i64::MIN }) >= lies.x
            && p.y.0 >= lies.y
            && (p.x + w).0 <= lies.right()
            && (p.y + h).0 <= lies.top();
        let is_gone = gone.iter().any(|(id, copy)| *id == p.piece && *copy == p.copy);
        let left = if p.on_fold { Length::ZERO } else { p.x };
        let (px, py) = (x(left.0), y((p.y + h).0));
        let (pw, ph) = ((p.x + w - left).0 as f64 * scale, h.0 as f64 * scale);
        let freed = frees.iter().any(|f| f.piece == p.piece && f.copy == p.copy);
        let outline = table.outline(job, p)?;
        if !inside || is_gone {
            canvas.polygon(&outline, &Style::line(ink::RULED, 1.2).dash("5 4"));
            let text = if is_gone { format!("{} · cut", piece.name) } else { piece.name.clone() };
            if text_width(&text, Face::Text, 14.0) + 6.0 < pw && ph > 16.0 {
                canvas.text(px + pw / 2.0, py + ph / 2.0 + 5.0, &text, Face::Text, 14.0, ink::SOFT, "middle");
            }
            continue;
        }
        canvas.begin(&format!(r#"data-piece="{}""#, escape(&p.piece)));
        canvas.polygon(&outline, &Style::fill("url(#on-table)").stroke(ink::INDIGO, if freed { 2.2 } else { 1.0 }));
        // As it stands on the bag, like everywhere else, however it lies here.
        let (wide, tall) = piece.outline.size();
        let size = format!("{} × {}", project.ruler.show(wide).text, project.ruler.show(tall).text);
        let centre = (px + pw / 2.0, py + ph / 2.0);
        let _ = canvas.label(centre, &piece.name, &size, if freed { 17.0 } else { 14.0 }, (pw - 4.0, ph - 4.0))
            || canvas.label(centre, &piece.name, "", 12.0, (pw - 2.0, ph));
        canvas.end();
    }
    if on_scrap.is_none() {
        canvas.rect(here.0, here.1, here.2, here.3, &Style::line(ink::INDIGO, 1.4));
    }
    if as_job.layers == 2 {
        fold(canvas, (x(0), y(there.0), y(0)));
    }
    Some(table)
}

/// The fold of cloth that lies in two layers, from its far to its near end.
pub(super) fn fold_line(canvas: &mut Canvas, (x, far, near): (f64, f64, f64)) {
    canvas.line(x, far, x, near, &Style::line(ink::CHALK, 3.0).dash("10 5"));
}

/// The same, called so beside it.
fn fold(canvas: &mut Canvas, (x, far, near): (f64, f64, f64)) {
    fold_line(canvas, (x, far, near));
    let (cx, cy) = (x - 9.0, f64::midpoint(far, near));
    canvas.begin(&format!(r#"transform="rotate(-90 {} {})""#, num(cx), num(cy)));
    canvas.text(cx, cy, "fold, two layers", Face::Bold, 13.0, ink::CHALK, "middle");
    canvas.end();
}

/// A shaped piece and the way round it.
fn outline(
    project: &Project,
    job: &Job,
    lay: &ClothLay,
    round: &OutlineCut,
    gone: &[(String, u32)],
    size: (f64, f64),
) -> Option<Drawing> {
    let mut canvas = Canvas::default();
    let table = on_table(&mut canvas, project, job, lay, (round.lies, &round.frees, gone), size)?;
    let first = round.frees.first()?;
    let placed = lay.placements.iter().find(|p| p.piece == first.piece && p.copy == first.copy)?;
    canvas.polygon(&table.outline(job, placed)?, &Style::line(ink::MADDER, 4.0));
    if let Some((corners, _)) = job.cloth(&round.cloth).and_then(scrap::edges) {
        for sight in &round.sights {
            sighted(&mut canvas, project.ruler, &table, sight, &corners);
        }
    }
    Some(canvas.finish(size.0, size.1))
}

/// From the corners of a scrap to a corner of the piece, with the distances.
fn sighted(canvas: &mut Canvas, ruler: Ruler, table: &Table, sight: &Sight, corners: &[Point]) {
    let at = (table.x(sight.at.x.0), table.y(sight.at.y.0));
    for (corner, distance) in &sight.from {
        let from = (table.x(corners[*corner].x.0), table.y(corners[*corner].y.0));
        canvas.line(from.0, from.1, at.0, at.1, &Style::line(ink::MADDER, 1.3).dash("3 3"));
        let text = format!("{} {}", letters(*corner), ruler.show(distance.round_to(ruler.step())).text);
        let middle = (from.0 * 0.4 + at.0 * 0.6, from.1 * 0.4 + at.1 * 0.6);
        let _ = canvas.label(middle, &text, "", 14.0, (120.0, 40.0));
    }
    canvas.rect(at.0 - 4.0, at.1 - 4.0, 8.0, 8.0, &Style::fill(ink::MADDER));
}

fn straight(
    project: &Project,
    job: &Job,
    lay: &ClothLay,
    cut: &Cut,
    gone: &[(String, u32)],
    (width, height): (f64, f64),
) -> Option<Drawing> {
    let mut canvas = Canvas::default();
    let lies = cut.lies;
    let table = on_table(&mut canvas, project, job, lay, (lies, &cut.frees, gone), (width, height))?;
    let (x, y) = (|v| table.x(v), |v| table.y(v));
    let (x1, y1, x2, y2) = (x(cut.line.x1.0), y(cut.line.y1.0), x(cut.line.x2.0), y(cut.line.y2.0));
    let madder = Style::line(ink::MADDER, 4.0);
    // A cut that goes right through is drawn past both edges; one that stops has a bar at its end.
    let through = cut.kind != bofta_core::cutting::CutKind::Stopped;
    let past = if through { 14.0 } else { 0.0 };
    let upright = cut.from == Edge::Left;
    if upright {
        canvas.line(x1, y1 + past, x2, y2 - past, &madder);
        canvas.path(
            &format!("M{} {}l8 13M{} {}l-8 13", num(x1), num(y1 + past - 6.0), num(x1), num(y1 + past - 6.0)),
            &Style::line(ink::MADDER, 3.0),
        );
    } else {
        canvas.line(x1 - past, y1, x2 + past, y2, &madder);
        canvas.path(
            &format!("M{} {}l-13 8M{} {}l-13 -8", num(x1 - past + 6.0), num(y1), num(x1 - past + 6.0), num(y1)),
            &Style::line(ink::MADDER, 3.0),
        );
    }
    if !through {
        let (dx, dy) = if upright { (9.0, 0.0) } else { (0.0, 9.0) };
        canvas.line(x2 - dx, y2 - dy, x2 + dx, y2 + dy, &madder);
        // Where it stops, beside the bar; where it begins too, when that is not an edge.
        if let Some((begin, stop)) = cut.stretch() {
            let mut told = |length: Length, (x, y): (f64, f64)| {
                let text = project.ruler.show(length).text;
                let at = if upright { (x + 34.0, y) } else { (x, y - 24.0) };
                let _ = canvas.label(at, &text, "", 16.0, (160.0, 60.0));
            };
            told(stop, (x2, y2));
            if begin > Length::ZERO {
                told(begin, (x1, y1));
            }
        }
    }
    // The measured distance, from its edge to the line, or from the line to the motif that tells where it runs.
    let thin = Style::line(ink::MADDER, 1.3).dash("3 3");
    let motif = cut.motif.zip(job.cloth(&lay.cloth).and_then(|c| c.repeat));
    if let Some((beyond, repeat)) = motif {
        let column = x(repeat.at.x.0);
        if upright {
            let level = y(repeat.at.y.0);
            canvas.line(x1, level, x1 + beyond.0 as f64 * table.scale, level, &thin);
        } else {
            canvas.line(column, y1, column, y1 - beyond.0 as f64 * table.scale, &thin);
        }
    } else if upright {
        let level = y(lies.y) + 12.0;
        canvas.line(x(lies.x), level, x1, level, &thin);
    } else {
        let side = x(lies.right()) + 12.0;
        canvas.line(side, y(lies.y), side, y1, &thin);
    }
    Some(canvas.finish(width, height))
}

fn corner(project: &Project, piece: &Piece, cut: &CornerCut, (width, height): (f64, f64)) -> Drawing {
    let (w, h) = piece.size();
    let scale = ((width - 160.0) / w.0 as f64).min((height - 70.0) / h.0 as f64);
    let (pw, ph) = (w.0 as f64 * scale, h.0 as f64 * scale);
    let (x, y) = ((width - pw) / 2.0, (height - ph) / 2.0 - 6.0);
    let mut canvas = Canvas::default();
    let fill = match project.cloth_for(piece) {
        Some(cloth) => {
            let motif = project.motif_on(piece).filter(|_| cloth.has_repeat());
            let motif = motif.map(|m| (x + m.x.0 as f64 * scale, y + ph - m.y.0 as f64 * scale));
            paint(&mut canvas, cloth, "on-table", (0, scale), motif)
        }
        None => ink::PAPER.to_owned(),
    };
    for layer in (0..cut.layers.min(4)).rev() {
        let off = f64::from(layer) * 5.0;
        canvas.rect(x + off, y - off, pw, ph, &Style::fill(fill.clone()).stroke(ink::INDIGO, 1.4));
    }
    let (nx, ny) = (cut.across.0 as f64 * scale, cut.up.0 as f64 * scale);
    let gone = Style::fill(ink::CALICO).opacity(0.8);
    let line = Style::line(ink::MADDER, 3.4);
    // At the fold the notch reaches as far down as up, and both its levels are cut.
    let (low, tall) = if cut.at_fold { (y + ph / 2.0 + ny, ny * 2.0) } else { (y + ph, ny) };
    for (cx, inner) in [(x, x + nx), (x + pw - nx, x + pw - nx)] {
        canvas.rect(cx, low - tall, nx, tall, &gone);
        canvas.line(inner, if cut.at_fold { low } else { low + 10.0 }, inner, low - tall, &line);
    }
    for level in if cut.at_fold { vec![low - tall, low] } else { vec![low - tall] } {
        canvas.line(x - 10.0, level, x + nx, level, &line);
        canvas.line(x + pw - nx, level, x + pw + 10.0, level, &line);
    }
    let ruler = project.ruler;
    canvas.text(x + nx / 2.0, low + 26.0, &ruler.show(cut.across).text, Face::Bold, 17.0, ink::MADDER, "middle");
    canvas.text(x - 16.0, low - ny / 2.0 + 6.0, &ruler.show(cut.up).text, Face::Bold, 17.0, ink::MADDER, "end");
    let place = if cut.at_fold { "both sides, at the fold" } else { "both corners" };
    let size = format!("{} layers, {place}", cut.layers);
    let _ = canvas.label((x + pw / 2.0, y + ph / 2.0), &piece.name, &size, 18.0, (pw, ph));
    canvas.finish(width, height)
}

/// A ruler with `reading` lit, `width` pixels long: the stretch round the reading, at about four units across.
pub fn ruler_strip(reading: Length, ruler: Ruler, from: &str, width: f64) -> Drawing {
    let height = 112.0;
    let system = ruler.system();
    let unit = system.unit();
    let span = match system {
        System::Inches => 5.0,
        System::Centimetres => 10.0,
    };
    let scale = (width - 40.0) / (span * unit.0 as f64);
    let first = ((reading.0 as f64 / unit.0 as f64) - span * 0.7).max(0.0) * unit.0 as f64;
    let x = |at: f64| 20.0 + (at - first) * scale;
    let mut canvas = Canvas::default();
    canvas.rect(1.0, 9.0, width - 2.0, height - 10.0, &Style::fill(ink::TAPE).stroke("#B7951F", 1.2).rounded(4.0));
    let (fine, divisions) = match ruler {
        Ruler::Eighth => (unit / 8, 8),
        Ruler::Sixteenth => (unit / 16, 16),
        Ruler::Millimetre => (Length::MILLIMETRE, 10),
        Ruler::HalfCentimetre => (unit / 2, 2),
    };
    let start = (first / fine.0 as f64).ceil() as i64;
    let mut n = start;
    while x((fine * n).0 as f64) < width - 16.0 {
        let at = x((fine * n).0 as f64);
        let whole = n % divisions == 0;
        let half = divisions % 2 == 0 && n % (divisions / 2) == 0;
        let long = if whole {
            46.0
        } else if half {
            32.0
        } else if divisions == 16 && n % 2 == 1 {
            13.0
        } else {
            20.0
        };
        canvas.line(at, 9.0, at, 9.0 + long, &Style::line(ink::INDIGO, if whole { 1.8 } else { 1.0 }));
        if whole && at < width - 40.0 {
            canvas.text(at + 6.0, 52.0, &(n / divisions).to_string(), Face::Heading, 20.0, ink::INDIGO, "start");
        }
        n += 1;
    }
    let at = x(reading.0 as f64);
    // Beside the reading, on the side with more room.
    let (side, anchor) = if at > width / 2.0 { (20.0, "start") } else { (width - 20.0, "end") };
    canvas.text(side, 92.0, from, Face::Text, 17.0, ink::INDIGO, anchor);
    canvas.line(at, 0.0, at, height - 8.0, &Style::line(ink::MADDER, 4.0));
    let text = format!("{} {}", ruler.show(reading).text, system.symbol());
    let wide = text_width(&text, Face::Heading, 26.0) + 34.0;
    let box_x = (at - wide / 2.0).clamp(2.0, width - wide - 2.0);
    canvas.rect(box_x, 60.0, wide, 42.0, &Style::fill(ink::MADDER).rounded(4.0));
    canvas.text(box_x + wide / 2.0, 90.0, &text, Face::Heading, 26.0, ink::PAPER, "middle");
    canvas.finish(width, height)
}

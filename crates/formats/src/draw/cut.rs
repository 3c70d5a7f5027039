//! One step at the table: the cloth as it lies, the next cut one madder line, and the reading on a ruler as the eye
//! will see it.

use super::canvas::{Canvas, Drawing, Style, escape, ink, num};
use super::font::{Face, text_width};
use super::labels::Labels;
use super::pattern::{border_from, paint, up_degrees};
use super::scrap;
use bofta_core::cloth::{Form, letters};
use bofta_core::cutting::{
    Block, CornerCut, Cut, CutKind, Edge, Freed, Marking, On, OutlineCut, PartName, PartShape, Sight, Step,
    parts_before,
};
use bofta_core::lay::{ClothLay, Job, Lay, Placement, Region};
use bofta_core::measure::{Length, Ruler, System};
use bofta_core::piece::Piece;
use bofta_core::project::Project;
use bofta_core::shape::{Outline, Point};
use std::collections::BTreeMap;

/// Draws step `number` (from 1) of `steps` into `width` × `height` pixels.
pub fn cut_step(
    project: &Project,
    job: &Job,
    lay: &Lay,
    (pieces, blocks): (&[Piece], &[Block]),
    (steps, number): (&[Step], usize),
    (width, height): (f64, f64),
) -> Option<Drawing> {
    let step = steps.get(number.checked_sub(1)?)?;
    let gone: Vec<Freed> = steps[..number - 1].iter().flat_map(Step::frees).cloned().collect();
    let parts = parts_before(steps, number);
    let block = |id: &str| blocks.iter().find(|b| b.piece == id);
    let laid = |on: &On| lay.cloths.iter().find(|c| c.cloth == on.cloth && c.copy == on.copy);
    let scene = |job, lay| Scene { project, job, lay, parts: &parts, gone: &gone, size: (width, height) };
    match step {
        Step::Fuse { block: id } => {
            let block = block(id)?;
            let size = block.job.cloths.first()?;
            let whole = Region { x: 0, y: 0, width: size.washed_width().0, height: block.lay.buy_length.0 };
            let parts = BTreeMap::from([(PartName::WHOLE, PartShape::whole(whole))]);
            let scene =
                Scene { project, job: &block.job, lay: &block.lay, parts: &parts, gone: &[], size: (width, height) };
            let mut canvas = Canvas::default();
            scene.on_table(&mut canvas, (PartName::WHOLE, &[]), &[])?;
            Some(canvas.finish(width, height))
        }
        Step::Block { block: id, step } => {
            let block = block(id)?;
            match step.as_ref() {
                Step::Cut { cut, .. } => scene(&block.job, &block.lay).straight(cut),
                Step::Outline { cut, .. } => scene(&block.job, &block.lay).outline(cut),
                _ => None,
            }
        }
        Step::Cut { on, cut } => scene(job, laid(on)?).straight(cut),
        Step::Outline { on, cut } => scene(job, laid(on)?).outline(cut),
        Step::Corners(corners) => {
            let piece = pieces.iter().find(|p| p.id == corners.piece)?;
            Some(corner(project, piece, corners, (width, height)))
        }
    }
}

/// A cloth on the table before a step.
struct Scene<'a> {
    project: &'a Project,
    job: &'a Job,
    lay: &'a ClothLay,
    /// What lies there, by its letters.
    parts: &'a BTreeMap<PartName, PartShape>,
    /// Pieces cut off before.
    gone: &'a [Freed],
    size: (f64, f64),
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

impl Scene<'_> {
    /// The cloth as it lies before a step that works on `part` and takes `frees` off; labels stay clear of `lines`.
    fn on_table(&self, canvas: &mut Canvas, (part, frees): (PartName, &[Freed]), lines: &[Line2]) -> Option<Table> {
        let (project, job, lay) = (self.project, self.job, self.lay);
        let (width, height) = self.size;
        let cloth = project.cloth(&lay.cloth)?;
        let as_job = job.cloth(&lay.cloth)?;
        // Of a long length the near end is drawn, with a little of what goes on.
        let (lies, used) = (lay.lies(as_job), lay.on_table(as_job));
        let there = lies.min(used + used / 6);
        let wide = as_job.washed_width();
        let corner = as_job.corner();
        let scale = ((width - 60.0) / wide.0 as f64).min((height - 50.0) / there.0 as f64);
        let table = Table {
            scale,
            left: (width - wide.0 as f64 * scale) / 2.0 - corner.x.0 as f64 * scale,
            bottom: (height + there.0 as f64 * scale) / 2.0 + corner.y.0 as f64 * scale,
        };
        let end = corner.y.0 + there.0;
        let (x, y) = (|v| table.x(v), |v: i64| table.y(v.min(end)));
        let motif = as_job.repeat.map(|r| (table.x(r.at.x.0), table.y(r.at.y.0)));
        let whole = matches!(as_job.form, Form::Roll { .. });
        let motif = motif.or_else(|| border_from(cloth, table.x(0), scale).filter(|_| whole));
        paint(canvas, cloth, "on-table", (up_degrees(cloth), scale), motif);
        let on_scrap = scrap::edges(as_job);
        if let Some((corners, flaws)) = &on_scrap {
            let place = |p: &Point| (x(p.x.0), y(p.y.0));
            let at: Vec<(f64, f64)> = corners.iter().map(place).collect();
            scrap::ground(canvas, &at, "url(#on-table)", 0.4, Style::line(ink::INDIGO, 1.4));
            scrap::flaws(canvas, &flaws.iter().map(|f| (f.iter().map(place).collect(), "")).collect::<Vec<_>>());
            scrap::corner_letters(canvas, &at);
        }
        let mut labels = Labels::default();
        for ((x1, y1), (x2, y2)) in lines {
            let (x1, y1, x2, y2) = (x(*x1), y(*y1), x(*x2), y(*y2));
            labels.take([x1.min(x2) - 3.0, y1.min(y2) - 3.0, x1.max(x2) + 3.0, y1.max(y2) + 3.0]);
        }
        let ring = |shape: &PartShape| shape.corners().iter().map(|p| (x(p.x.0), y(p.y.0))).collect::<Vec<_>>();
        if on_scrap.is_none() {
            for (name, shape) in self.parts {
                let here = *name == part;
                canvas.polygon(&ring(shape), &Style::fill(ink::PAPER));
                canvas.polygon(&ring(shape), &Style::fill("url(#on-table)").opacity(if here { 0.4 } else { 0.18 }));
            }
        }
        for p in &lay.placements {
            self.piece(canvas, &mut labels, &table, p, frees)?;
        }
        if on_scrap.is_none() {
            for (name, shape) in self.parts {
                let here = *name == part;
                let line = if here { Style::line(ink::INDIGO, 1.8) } else { Style::line(ink::SOFT, 1.2) };
                canvas.polygon(&ring(shape), &line);
                letter(
                    canvas,
                    &mut labels,
                    *name,
                    (x(shape.around.x), y(shape.around.top()), x(shape.around.right()), y(shape.around.y)),
                    here,
                );
            }
        }
        if there < lies {
            let all = project.ruler.show(lies.floor_to(project.ruler.step())).text;
            let text = format!("goes on: {all} {} in all", project.system.symbol());
            canvas.text(x(wide.0), y(end) - 6.0, &text, Face::Text, 14.0, ink::SOFT, "end");
        }
        if as_job.layers == 2 {
            fold(canvas, (x(0), y(end), y(0)));
        }
        labels.lead_out(
            canvas,
            (x(corner.x.0 + wide.0) + 14.0).min(width - 150.0),
            (y(end) + 8.0, y(corner.y.0)),
            13.0,
        );
        Some(table)
    }

    /// A piece that is still on the cloth, or the place of one that is off.
    fn piece(
        &self,
        canvas: &mut Canvas,
        labels: &mut Labels,
        table: &Table,
        p: &Placement,
        frees: &[Freed],
    ) -> Option<()> {
        let piece = self.job.piece(&p.piece)?;
        let is_it = |f: &Freed| f.piece == p.piece && f.copy == p.copy;
        let outline = table.outline(self.job, p)?;
        if self.gone.iter().any(is_it) {
            canvas.polygon(&outline, &Style::line(ink::RULED, 1.0).dash("3 5"));
            return Some(());
        }
        let (w, h) = piece.outline.extent(p.turn, p.mirrored);
        let left = if p.on_fold { Length::ZERO } else { p.x };
        let (px, py) = (table.x(left.0), table.y((p.y + h).0));
        let (pw, ph) = ((p.x + w - left).0 as f64 * table.scale, h.0 as f64 * table.scale);
        let freed = frees.iter().any(is_it);
        canvas.begin(&format!(r#"data-piece="{}""#, escape(&p.piece)));
        canvas.polygon(&outline, &Style::fill("url(#on-table)").stroke(ink::INDIGO, if freed { 2.2 } else { 1.0 }));
        // As it stands on the bag, like everywhere else, however it lies here.
        let (wide, tall) = piece.outline.size();
        let size = format!("{} × {}", self.project.ruler.show(wide).text, self.project.ruler.show(tall).text);
        let inset = if matches!(piece.outline, Outline::Rect(..)) { 0.0 } else { 0.12 };
        let inside = (px + pw * inset, py + ph * inset, pw * (1.0 - 2.0 * inset), ph * (1.0 - 2.0 * inset));
        let fonts: &[f64] = if freed { &[17.0, 14.0, 12.0] } else { &[14.0, 12.0] };
        labels.piece(canvas, (&p.piece, &piece.name, &size), inside, fonts);
        canvas.end();
        Some(())
    }
}

/// Across and along, from one end to the other.
type Line2 = ((i64, i64), (i64, i64));

/// The letter of a part, in a corner of it that is free.
fn letter(
    canvas: &mut Canvas,
    labels: &mut Labels,
    name: PartName,
    (left, top, right, low): (f64, f64, f64, f64),
    here: bool,
) {
    let size = if here { 22.0 } else { 17.0 };
    let text = name.to_string();
    let wide = text_width(&text, Face::Heading, size) + 8.0;
    let spots = [
        (right - wide, top + 1.0),
        (left + 1.0, top + 1.0),
        (right - wide, low - size - 3.0),
        (left + 1.0, low - size - 3.0),
        (right + 3.0, (top + low - size) / 2.0),
    ];
    let free = |(x, y): &(f64, f64)| labels.is_free([*x, *y, x + wide, y + size + 2.0]);
    let (x, y) = spots.into_iter().find(free).unwrap_or(spots[4]);
    labels.take([x, y, x + wide, y + size + 2.0]);
    canvas.text(
        x + wide / 2.0,
        y + size * 0.86,
        &text,
        Face::Heading,
        size,
        if here { ink::CHALK } else { ink::SOFT },
        "middle",
    );
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

impl Scene<'_> {
    /// A piece that is marked out or cut along its line.
    fn outline(&self, round: &OutlineCut) -> Option<Drawing> {
        let mut canvas = Canvas::default();
        let a = round.around;
        let (over, up) = round.place();
        // Its distances from the two edges of its part; names stand clear of them.
        let (level, across) = (a.y + a.height / 2, a.x + a.width / 2);
        let mut lines = vec![];
        if round.marking != Marking::Cut && round.sights.is_empty() {
            if over > Length::ZERO && !round.on_fold {
                lines.push(((round.lies.around.x, level), (a.x, level)));
            }
            if up > Length::ZERO {
                lines.push(((across, round.lies.around.y), (across, a.y)));
            }
        }
        let table = self.on_table(&mut canvas, (round.part, &round.pieces), &lines)?;
        let first = round.pieces.first()?;
        let placed = self.lay.placements.iter().find(|p| p.piece == first.piece && p.copy == first.copy)?;
        let line = Style::line(ink::MADDER, 4.0);
        let line = if round.marking == Marking::Draw { Style::line(ink::MADDER, 2.6).dash("7 4") } else { line };
        canvas.polygon(&table.outline(self.job, placed)?, &line);
        if round.marking == Marking::Cut {
            return Some(canvas.finish(self.size.0, self.size.1));
        }
        if let Some((corners, _)) = self.job.cloth(&self.lay.cloth).and_then(scrap::edges) {
            for sight in &round.sights {
                sighted(&mut canvas, self.project.ruler, &table, sight, &corners);
            }
            return Some(canvas.finish(self.size.0, self.size.1));
        }
        let thin = Style::line(ink::MADDER, 1.3).dash("3 3");
        let ruler = self.project.ruler;
        let show = |l: Length| ruler.show(ruler.finest(l)).text;
        let (level, across) = (table.y(level), table.x(across));
        if over > Length::ZERO && !round.on_fold {
            canvas.line(table.x(round.lies.around.x), level, table.x(a.x), level, &thin);
            let middle = table.x(round.lies.around.x + over.0 / 2);
            let _ = canvas.label((middle, level), &show(over), "", 15.0, (160.0, 60.0));
        }
        if up > Length::ZERO {
            canvas.line(across, table.y(round.lies.around.y), across, table.y(a.y), &thin);
            let middle = table.y(round.lies.around.y + up.0 / 2);
            let _ = canvas.label((across, middle), &show(up), "", 15.0, (160.0, 60.0));
        }
        Some(canvas.finish(self.size.0, self.size.1))
    }
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

impl Scene<'_> {
    /// The cut as one line, with the edge it is measured from and the distance.
    fn straight(&self, cut: &Cut) -> Option<Drawing> {
        let (width, height) = self.size;
        let mut canvas = Canvas::default();
        let l = cut.line;
        let lines = [((l.x1.0, l.y1.0), (l.x2.0, l.y2.0))];
        let fold = [];
        let lines: &[Line2] = if cut.kind == CutKind::Fold { &fold } else { &lines };
        let table = self.on_table(&mut canvas, (cut.part, &cut.frees), lines)?;
        let (x, y) = (|v| table.x(v), |v| table.y(v));
        let (x1, y1, x2, y2) = (x(l.x1.0), y(l.y1.0).min(height), x(l.x2.0), y(l.y2.0).max(0.0));
        let madder = Style::line(ink::MADDER, 4.0);
        let upright = cut.from == Edge::Left;
        if cut.kind != CutKind::Fold {
            let e = cut.edge;
            let chalk = Style::line(ink::CHALK, 4.0);
            if upright {
                canvas.line(x(e.at), y(e.from), x(e.at), y(e.to).max(0.0), &chalk);
            } else {
                canvas.line(x(e.from), y(e.at), x(e.to), y(e.at), &chalk);
            }
        }
        // A cut that goes right through is drawn past both edges; one that stops has a bar at its end.
        let stops = cut.stops_after();
        let past = if stops.is_none() { 14.0 } else { 0.0 };
        if upright {
            canvas.line(x1, y1 + 14.0, x2, y2 - past, &madder);
            let foot = y1 + 8.0;
            canvas.path(
                &format!("M{} {}l8 13M{} {}l-8 13", num(x1), num(foot), num(x1), num(foot)),
                &Style::line(ink::MADDER, 3.0),
            );
        } else {
            canvas.line(x1 - 14.0, y1, x2 + past, y2, &madder);
            let foot = x1 - 8.0;
            canvas.path(
                &format!("M{} {}l-13 8M{} {}l-13 -8", num(foot), num(y1), num(foot), num(y1)),
                &Style::line(ink::MADDER, 3.0),
            );
        }
        if let Some(long) = stops {
            let (dx, dy) = if upright { (9.0, 0.0) } else { (0.0, 9.0) };
            canvas.line(x2 - dx, y2 - dy, x2 + dx, y2 + dy, &madder);
            let ruler = self.project.ruler;
            let text = format!("stop after {}", ruler.show(ruler.finest(long)).text);
            let at = if upright { (x2 + 74.0, y2 - 4.0) } else { (x2, y2 - 24.0) };
            let _ = canvas.label((at.0.min(width - 70.0), at.1.max(16.0)), &text, "", 16.0, (200.0, 60.0));
        }
        // The measured distance, from its edge to the line, or from the line to the motif that tells where it runs.
        let thin = Style::line(ink::MADDER, 1.3).dash("3 3");
        let motif = cut.motif.zip(self.job.cloth(&self.lay.cloth).and_then(|c| c.repeat));
        if let Some((beyond, repeat)) = motif {
            let column = x(repeat.at.x.0);
            if upright {
                let level = y(repeat.at.y.0);
                canvas.line(x1, level, x1 + beyond.0 as f64 * table.scale, level, &thin);
            } else {
                canvas.line(column, y1, column, y1 - beyond.0 as f64 * table.scale, &thin);
            }
        } else if upright {
            let level = y(cut.edge.from) + 12.0;
            canvas.line(x(cut.edge.at), level, x1, level, &thin);
        } else {
            let side = x(cut.edge.to) + 12.0;
            canvas.line(side, y(cut.edge.at), side, y1, &thin);
        }
        Some(canvas.finish(width, height))
    }
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

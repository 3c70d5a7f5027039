//! The lay of one cloth: it comes down off its bolt with the print the right way up; what becomes bag is in full
//! colour, what is left over is faded, and an offcut worth keeping is outlined in chalk with its size.

use super::canvas::{Canvas, Drawing, Style, escape, ink, num};
use super::cut::fold_line;
use super::font::{Face, text_width};
use super::labels::Labels;
use super::pattern::{border_from, paint, up_degrees};
use super::scrap;
use bofta_core::cloth::{Cloth, Form};
use bofta_core::cutting::{describe_left, left_shaped, left_whole};
use bofta_core::lay::{ClothLay, Job, Placement};
use bofta_core::measure::{Length, Ruler, ShopStep, System, show_bought};
use bofta_core::project::{Project, ProjectCloth};
use bofta_core::shape::{Outline, Point};

const LEFT: f64 = 74.0;
const RIGHT: f64 = 26.0;
const BOLT: f64 = 34.0;
const TOP: f64 = 12.0 + BOLT + 18.0;
const BOTTOM: f64 = 40.0;
/// Size of the names that are led out of small pieces.
const LED_OUT: f64 = 14.0;

struct Sheet<'a> {
    project: &'a Project,
    cloth: &'a ProjectCloth,
    as_job: &'a Cloth,
    job: &'a Job,
    lay: &'a ClothLay,
    scale: f64,
    left: f64,
    bottom: f64,
    /// Washed sizes of the cloth that is there.
    width: Length,
    length: Length,
    key: &'a str,
}

/// Draws `lay` into `width` × `height` pixels. `key` makes the ids of the drawing unique on its page.
pub fn cloth_lay(project: &Project, job: &Job, lay: &ClothLay, width: f64, height: f64, key: &str) -> Option<Drawing> {
    let (drawing, room) = drawn(project, job, lay, (width, height), key, RIGHT)?;
    if room == 0.0 {
        return Some(drawing);
    }
    // What does not fit into its piece is led out to the right.
    Some(drawn(project, job, lay, (width, height), key, (room + RIGHT + 20.0).min(width * 0.4))?.0)
}

/// The drawing with so much room at the right, and how much what is led out takes there.
fn drawn(
    project: &Project,
    job: &Job,
    lay: &ClothLay,
    (width, height): (f64, f64),
    key: &str,
    right: f64,
) -> Option<(Drawing, f64)> {
    let cloth = project.cloth(&lay.cloth)?;
    let as_job = job.cloth(&lay.cloth)?;
    let there = lay.on_table(as_job);
    let wide = as_job.washed_width();
    let scale = ((width - LEFT - right) / wide.0 as f64).min((height - TOP - BOTTOM) / there.0 as f64);
    let height = TOP + there.0 as f64 * scale + BOTTOM;
    let drawn = wide.0 as f64 * scale;
    let left = LEFT + ((width - LEFT - right) - drawn) / 2.0;
    let sheet = Sheet {
        project,
        cloth,
        as_job,
        job,
        lay,
        scale,
        left,
        bottom: height - BOTTOM,
        width: wide,
        length: there,
        key,
    };
    let mut canvas = Canvas::default();
    sheet.cloth(&mut canvas);
    let mut labels = Labels::default();
    sheet.pieces(&mut canvas, &mut labels);
    sheet.offcuts(&mut canvas);
    let room = if labels.leads_out() { labels.room_for_led_out(LED_OUT) } else { 0.0 };
    labels.lead_out(&mut canvas, left + drawn + 26.0, (TOP, height - BOTTOM), LED_OUT);
    sheet.lengths(&mut canvas);
    if as_job.layers == 2 {
        fold_line(&mut canvas, (sheet.x(Length::ZERO), sheet.y(there), sheet.bottom));
    }
    sheet.width_line(&mut canvas);
    Some((canvas.finish(width, height), room))
}

/// Only cloth and pieces, as a card on the shelf shows them.
pub fn thumbnail(project: &Project, job: &Job, lay: &ClothLay, width: f64, height: f64, key: &str) -> Option<Drawing> {
    let cloth = project.cloth(&lay.cloth)?;
    let as_job = job.cloth(&lay.cloth)?;
    let there = lay.on_table(as_job);
    let wide = as_job.washed_width();
    let scale = (width / wide.0 as f64).min(height / there.0 as f64);
    let left = (width - wide.0 as f64 * scale) / 2.0;
    let bottom = (height + there.0 as f64 * scale) / 2.0;
    let sheet = Sheet { project, cloth, as_job, job, lay, scale, left, bottom, width: wide, length: there, key };
    let mut canvas = Canvas::default();
    paint(&mut canvas, cloth, &sheet.pattern(), (up_degrees(cloth), scale), sheet.motif());
    sheet.ground(&mut canvas);
    for placement in &lay.placements {
        let style = Style::fill(format!("url(#{})", sheet.pattern())).stroke(ink::INDIGO, 1.0);
        canvas.polygon(&sheet.outline(placement), &style);
    }
    Some(canvas.finish(width, height))
}

impl Sheet<'_> {
    fn pattern(&self) -> String {
        let key = self.key.replace(|c: char| !c.is_alphanumeric(), "-");
        format!("cloth-{key}-{}", self.cloth.id)
    }

    fn x(&self, x: Length) -> f64 {
        self.left + x.0 as f64 * self.scale
    }

    fn y(&self, y: Length) -> f64 {
        self.bottom - y.0 as f64 * self.scale
    }

    /// Where a motif of its print lies, if pieces have places on it.
    fn motif(&self) -> Option<(f64, f64)> {
        let placed = self.as_job.repeat.map(|r| (self.x(r.at.x), self.y(r.at.y)));
        // What is off the roll has its border where that is; of anything else that is not known.
        let whole = matches!(self.as_job.form, Form::Roll { .. });
        placed.or_else(|| border_from(self.cloth, self.x(Length::ZERO), self.scale).filter(|_| whole))
    }

    fn placed(&self, p: &Placement) -> Option<(f64, f64, f64, f64)> {
        let (w, h) = self.job.piece(&p.piece)?.outline.extent(p.turn, p.mirrored);
        let from = if p.on_fold { Length::ZERO } else { p.x };
        let (left, top) = (self.x(from), self.y(p.y + h));
        Some((left, top, (p.x + w - from).0 as f64 * self.scale, h.0 as f64 * self.scale))
    }

    /// The corners of a placed piece.
    fn outline(&self, p: &Placement) -> Vec<(f64, f64)> {
        let corners = self.job.piece(&p.piece).map(|piece| piece.outline.placed(p.turn, p.mirrored));
        // Of what lies half on the fold the other half is below.
        let across = |x: Length| if p.on_fold { x.max(Length::ZERO) } else { x };
        corners.unwrap_or_default().into_iter().map(|c| (self.x(across(c.x + p.x)), self.y(c.y + p.y))).collect()
    }

    fn ground(&self, canvas: &mut Canvas) {
        if let Some((corners, flaws)) = scrap::edges(self.as_job) {
            let place = |p: &Point| (self.x(p.x), self.y(p.y));
            let at: Vec<(f64, f64)> = corners.iter().map(place).collect();
            let fill = format!("url(#{})", self.pattern());
            scrap::ground(canvas, &at, &fill, 0.3, Style::line(ink::SOFT, 1.2));
            let rings: Vec<_> = flaws.iter().map(|f| (f.iter().map(place).collect(), "")).collect();
            scrap::flaws(canvas, &rings);
            return;
        }
        let (x, y) = (self.x(Length::ZERO), self.y(self.length));
        let (w, h) = (self.x(self.width) - x, self.bottom - y);
        canvas.rect(x, y, w, h, &Style::fill(ink::PAPER));
        canvas.rect(x, y, w, h, &Style::fill(format!("url(#{})", self.pattern())).opacity(0.3));
        canvas.rect(x, y, w, h, &Style::line(ink::RULED, 1.0));
    }

    fn cloth(&self, canvas: &mut Canvas) {
        let pattern = self.pattern();
        paint(canvas, self.cloth, &pattern, (up_degrees(self.cloth), self.scale), self.motif());
        let (x, right) = (self.x(Length::ZERO), self.x(self.width));
        let top = self.y(self.length);
        // The bolt it comes from; an owned length lies loose, with a torn edge instead.
        let loose = self.project.is_at_hand(&self.lay.cloth);
        if self.as_job.whole_length().is_none() {
            canvas.rect(x, top - 18.0, right - x, 18.0, &Style::fill(format!("url(#{pattern})")).opacity(0.55));
        }
        if !loose {
            let bolt = Style::fill(format!("url(#{pattern})")).rounded(13.0);
            canvas.rect(x - 16.0, top - 18.0 - BOLT, right - x + 32.0, BOLT, &bolt);
            let shade = Style::fill(ink::INDIGO).opacity(0.22).rounded(13.0);
            canvas.rect(x - 16.0, top - 18.0 - BOLT / 2.0, right - x + 32.0, BOLT / 2.0, &shade);
            canvas.rect(
                x - 16.0,
                top - 18.0 - BOLT,
                right - x + 32.0,
                BOLT,
                &Style::line(ink::INDIGO, 1.0).rounded(13.0),
            );
        }
        self.ground(canvas);
        if let Some((corners, _)) = scrap::edges(self.as_job) {
            let at: Vec<(f64, f64)> = corners.iter().map(|p| (self.x(p.x), self.y(p.y))).collect();
            scrap::corner_letters(canvas, &at);
        }
        let edge = self.as_job.selvedge;
        if edge > Length::ZERO {
            let left = (self.as_job.layers == 1).then(|| self.x(edge));
            for x in left.into_iter().chain([self.x(self.width - edge)]) {
                canvas.line(x, top, x, self.bottom, &Style::line(ink::SOFT, 0.8).dash("2 3"));
            }
        }
    }

    fn pieces(&self, canvas: &mut Canvas, labels: &mut Labels) {
        let ruler = self.project.ruler;
        for p in &self.lay.placements {
            let (Some(piece), Some((x, y, w, h))) = (self.job.piece(&p.piece), self.placed(p)) else { continue };
            let (across, along) = piece.outline.size();
            let size = format!("{} × {}", ruler.show(across).text, ruler.show(along).text);
            canvas.begin(&format!(r#"data-piece="{}" data-copy="{}" class="piece""#, escape(&p.piece), p.copy));
            canvas.raw(&format!("<title>{} {}, {size}</title>", escape(&piece.name), p.copy));
            let outline = self.outline(p);
            canvas.polygon(&outline, &Style::fill(format!("url(#{})", self.pattern())).stroke(ink::PAPER, 3.0));
            canvas.polygon(&outline, &Style::line(ink::INDIGO, 1.4));
            if w > 34.0 && h > 34.0 {
                let (foot, degrees) = up_arrow(&outline, p.turn.degrees(), (x, y, w, h));
                canvas.arrow(foot.0, foot.1, 18.0, degrees);
                // The name stands clear of it.
                let turned = degrees.to_radians();
                let tip = (foot.0 + 18.0 * turned.sin(), foot.1 - 18.0 * turned.cos());
                let (low, high) = (
                    (foot.0.min(tip.0) - 5.0, foot.1.min(tip.1) - 5.0),
                    (foot.0.max(tip.0) + 5.0, foot.1.max(tip.1) + 5.0),
                );
                labels.take([low.0, low.1, high.0, high.1]);
            }
            // Of a shaped piece the corners of its box may belong to others.
            let inset = if matches!(piece.outline, Outline::Rect(..)) { 0.0 } else { 0.12 };
            let inside = (x + w * inset, y + h * inset, w * (1.0 - 2.0 * inset), h * (1.0 - 2.0 * inset));
            labels.piece(canvas, (&p.piece, &piece.name, &size), inside, &[17.0, 14.0, 13.0]);
            canvas.end();
        }
    }

    fn offcuts(&self, canvas: &mut Canvas) {
        let ruler = self.project.ruler;
        for shape in left_shaped(self.job, self.lay) {
            let corners: Vec<(f64, f64)> = shape.corners.iter().map(|p| (self.x(p.x), self.y(p.y))).collect();
            canvas.polygon(&corners, &Style::line(ink::CHALK, 1.6).dash("6 4"));
        }
        // What is left of a length lies beyond what is drawn.
        for part in left_whole(self.job, self.lay).into_iter().filter(|part| !part.length) {
            let (x, y) = (self.x(Length(part.at.x)), self.y(Length(part.at.top())));
            let (w, h) = (part.at.width as f64 * self.scale, part.at.height as f64 * self.scale);
            canvas.rect(x, y, w, h, &Style::fill(ink::PAPER).opacity(0.5));
            canvas.rect(x + 1.0, y + 1.0, w - 2.0, h - 2.0, &Style::line(ink::CHALK, 1.6).dash("6 4"));
            let text = format!("keep {}", describe_left(&part, ruler));
            if text_width(&text, Face::Bold, 14.0) + 8.0 < w && h > 18.0 {
                canvas.text(x + w / 2.0, y + h / 2.0 + 5.0, &text, Face::Bold, 14.0, ink::CHALK, "middle");
            } else if text_width(&text, Face::Bold, 13.0) + 6.0 < h && w > 16.0 {
                let (cx, cy) = (x + w / 2.0, y + h / 2.0);
                canvas.begin(&format!(r#"transform="rotate(-90 {} {})""#, num(cx), num(cy)));
                canvas.text(cx, cy + 4.5, &text, Face::Bold, 13.0, ink::CHALK, "middle");
                canvas.end();
            }
        }
    }

    /// Shop steps along the left edge, the needed and the bought length across.
    fn lengths(&self, canvas: &mut Canvas) {
        let system = self.project.system;
        let (x, right) = (self.x(Length::ZERO), self.x(self.width));
        // What comes whole is as long as it is.
        if self.as_job.whole_length().is_some() {
            let (top, middle) = (self.y(self.length), (self.y(self.length) + self.bottom) / 2.0);
            let line = Style::line(ink::SOFT, 1.2);
            for y in [top, self.bottom] {
                canvas.line(x - 14.0, y, x - 6.0, y, &line);
            }
            let shown = match self.as_job.form {
                Form::Scrap { .. } => shown_near(self.project.ruler, self.length),
                _ => shown_down(self.project.ruler, self.length),
            };
            canvas.text(x - 12.0, middle + 5.0, &shown, Face::Bold, 16.0, ink::INDIGO, "end");
            return;
        }
        let needed_y = self.y(self.lay.needed_length);
        let bought_y = self.y(self.length);
        let step = self.cloth.shop.step.unwrap_or(ShopStep::default_for(system).step.unwrap_or(system.unit()));
        let shrink = self.cloth.shrink().along;
        let mut labels_below = f64::INFINITY;
        let mut at = step;
        while at < self.lay.buy_length {
            let y = self.y(at.shrunk(shrink));
            canvas.line(x - 14.0, y, x - 6.0, y, &Style::line(ink::SOFT, 1.2));
            let clear = (y - needed_y).abs() > 15.0 && (y - bought_y).abs() > 15.0 && labels_below - y > 16.0;
            if clear {
                let text = show_bought(at, system);
                canvas.text(x - 18.0, y + 5.0, text.trim_end_matches(" yd"), Face::Text, 14.0, ink::SOFT, "end");
                labels_below = y;
            }
            at += step;
        }
        canvas.line(x - 14.0, self.bottom, x - 6.0, self.bottom, &Style::line(ink::SOFT, 1.2));
        let madder = Style::line(ink::MADDER, 1.8);
        let shown = show_bought(self.lay.buy_length, system);
        canvas.line(x - 16.0, bought_y, right + 14.0, bought_y, &madder);
        canvas.text(x - 20.0, bought_y + 5.0, &shown, Face::Bold, 16.0, ink::MADDER, "end");
        if needed_y - bought_y > 1.5 {
            canvas.line(x - 16.0, needed_y, right + 14.0, needed_y, &madder.dash("2 4"));
            if needed_y - bought_y > 17.0 {
                let needed = self.project.ruler.up(self.lay.needed_length);
                let text = self.project.ruler.show(needed).text;
                canvas.text(x - 20.0, needed_y + 5.0, &text, Face::Text, 15.0, ink::MADDER, "end");
            }
        }
    }

    fn width_line(&self, canvas: &mut Canvas) {
        let (x, right, y) = (self.x(Length::ZERO), self.x(self.width), self.bottom + 20.0);
        let ruler = self.project.ruler;
        let usable = self.as_job.usable_width();
        let text = if matches!(self.as_job.form, Form::Scrap { .. }) {
            format!("{} {} over all", shown_near(ruler, self.width), unit(self.project.system))
        } else {
            let lies = if self.as_job.layers == 2 { "in two layers, its fold at the left" } else { "wide" };
            format!(
                "{} {} {lies} · {} usable",
                shown_down(ruler, self.width),
                unit(self.project.system),
                shown_down(ruler, usable)
            )
        };
        let half = text_width(&text, Face::Text, 15.0) / 2.0 + 8.0;
        let middle = (x + right) / 2.0;
        let line = Style::line(ink::SOFT, 1.0);
        for (end, inner) in [(x, middle - half), (right, middle + half)] {
            canvas.line(end, y - 5.0, end, y + 5.0, &line);
            if (middle - inner).abs() < (middle - end).abs() {
                canvas.line(end, y, inner, y, &line);
            }
        }
        canvas.text(middle, y + 5.0, &text, Face::Text, 15.0, ink::SOFT, "middle");
    }
}

/// Where the arrow of a piece stands and how it is turned: in the corner, or below the middle of a shaped piece that has
/// nothing there. Turns are counter-clockwise, the arrow's clockwise.
fn up_arrow(outline: &[(f64, f64)], turn: u16, (x, y, w, h): (f64, f64, f64, f64)) -> ((f64, f64), f64) {
    // Clear of the label in a small piece.
    let side = if w < 72.0 { 7.0 } else { 14.0 };
    let in_corner = match turn {
        90 => (x + 28.0, y + 14.0),
        180 => (x + side, y + 8.0),
        270 => (x + 8.0, y + 14.0),
        _ => (x + side, y + 28.0),
    };
    let low = y + h * 0.5 + 30.0;
    let below = match turn {
        90 => (x + w / 2.0 + 9.0, low),
        180 => (x + w / 2.0, low),
        270 => (x + w / 2.0 - 9.0, low),
        _ => (x + w / 2.0, low + 18.0),
    };
    let foot = if covers(outline, (x + 14.0, y + 18.0)) { in_corner } else { below };
    (foot, 360.0 - f64::from(turn))
}

/// Whether a point lies inside an outline: a ray to the left crosses it an odd number of times.
fn covers(outline: &[(f64, f64)], (x, y): (f64, f64)) -> bool {
    let n = outline.len();
    let crossed = (0..n).filter(|&i| {
        let (a, b) = (outline[i], outline[(i + 1) % n]);
        (a.1 > y) != (b.1 > y) && a.0 + (y - a.1) / (b.1 - a.1) * (b.0 - a.0) < x
    });
    crossed.count() % 2 == 1
}

/// Cloth that is there is never shown as more than it is.
fn shown_near(ruler: Ruler, length: Length) -> String {
    ruler.show(length.round_to(ruler.step())).text
}

fn shown_down(ruler: Ruler, length: Length) -> String {
    ruler.show(length.floor_to(ruler.step())).text
}

const fn unit(system: System) -> &'static str {
    system.symbol()
}

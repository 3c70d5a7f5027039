//! One wall of a bag seen straight on, with the parts on it and where each can be taken hold of.

use super::canvas::{Canvas, Drawing, Style, ink};
use super::dress::{Dress, Onto, made_up, motif_on, part};
use super::pattern::paint;
use bofta_core::bag::{Choice, Draft, Group, Moves, Seen, Side, Wall};
use bofta_core::measure::Length;
use bofta_core::piece::Part;
use bofta_core::project::Project;

/// What of a bag is taken hold of.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Held {
    /// A part by its number.
    Part(u32),
    /// What the body has itself, by the group of its fields.
    Own(Group),
}

/// Where a part is on a drawing, in its pixels.
#[derive(Clone, Debug, PartialEq)]
pub struct PartPlace {
    /// What it is.
    pub held: Held,
    /// Left.
    pub x: f64,
    /// Top.
    pub y: f64,
    /// Across.
    pub width: f64,
    /// Down.
    pub height: f64,
    /// The fields that move it.
    pub moves: Moves,
}

/// A wall drawn.
#[derive(Clone, Debug, PartialEq)]
pub struct FaceDrawing {
    /// Which one.
    pub side: Side,
    /// The drawing.
    pub drawing: Drawing,
    /// The parts on it.
    pub places: Vec<PartPlace>,
    /// Pixels for one inch or centimetre.
    pub per_unit: f64,
}

/// Every wall of the project's bag, each into `width` × `height` pixels.
pub fn faces(project: &Project, draft: &Draft, width: f64, height: f64) -> Vec<FaceDrawing> {
    let walls = project.bag.walls(project.ruler);
    // How a panel is made up is nothing to take hold of.
    let panels = made_up(project, draft).into_iter().map(|s| (None, s));
    let own = project.bag.own_seen().into_iter().map(|(group, s)| (Some(Held::Own(group)), s));
    let parts = project.bag.seen(project.ruler).into_iter().map(|(part, s)| (Some(Held::Part(part)), s));
    let seen: Vec<(Option<Held>, Seen)> = panels.chain(own).chain(parts).collect();
    walls.iter().map(|wall| face(project, draft, wall, &seen, (width, height))).collect()
}

/// The outline of a wall's face, from its upper left corner: a rectangle, one that slants, or its curve.
fn outline_of(wall: &Wall, draft: &Draft) -> Vec<(f64, f64)> {
    let f = |l: Length| l.0 as f64;
    let (wide, tall) = (f(wall.width), f(wall.height));
    if let Some(curve) = wall.curve(draft) {
        return curve.into_iter().map(|p| (f(p.x), tall - f(p.y))).collect();
    }
    let [base, mouth] = wall.slants.map_or([wide, wide], |ends| ends.map(f));
    let from_middle = |end: f64| (wide / 2.0 - end / 2.0, wide / 2.0 + end / 2.0);
    let ((a, b), (c, d)) = (from_middle(mouth), from_middle(base));
    vec![(a, 0.0), (b, 0.0), (d, tall), (c, tall)]
}

fn face(
    project: &Project,
    draft: &Draft,
    wall: &Wall,
    seen: &[(Option<Held>, Seen)],
    (width, height): (f64, f64),
) -> FaceDrawing {
    let f = |l: Length| l.0 as f64;
    let mut canvas = Canvas::default();
    let on_it: Vec<&(Option<Held>, Seen)> = seen.iter().filter(|(_, s)| s.side == wall.side).collect();
    let above = on_it.iter().map(|(_, s)| f(s.rises())).fold(0.0, f64::max);
    let margin = 18.0;
    let room = (width - margin * 2.0, height - margin * 2.0);
    let outline = outline_of(wall, draft);
    let widest = wall.slants.map_or(wall.width, |[base, mouth]| base.max(mouth));
    let scale = (room.0 / f(widest)).min(room.1 / (f(wall.height) + above));
    let left = (width - f(wall.width) * scale) / 2.0;
    let top = (height - (f(wall.height) + above) * scale) / 2.0 + above * scale;
    let at = |x: f64, y: f64| (left + x * scale, top + y * scale);
    let motif = motif_on(project, draft, wall).map(|(part, (x, y))| (part, at(x, y)));
    let dress = Dress::of(&mut canvas, (project, draft), &format!("face-{}", wall.side.answer().key), scale, motif);
    let onto = Onto { at: &at, scale };
    let piece = wall.piece.and_then(|id| draft.pieces.iter().find(|p| p.id == id));
    let of_part = dress.cloth(piece.map_or(Part::Outer, |p| p.part)).figures.clone();
    let own = piece.filter(|p| project.dressing.own.contains_key(p.id.as_ref())).and_then(|p| project.cloth_for(p));
    let motif = motif.map(|(_, at)| at);
    let own = own.map(|c| paint(&mut canvas, c, &format!("face-{}-own", wall.side.answer().key), (0, scale), motif));
    let figures = own.unwrap_or(of_part);
    let (x, y) = at(0.0, 0.0);
    let (wide, tall) = (f(wall.width) * scale, f(wall.height) * scale);
    // A handle hangs behind the face it is caught in; what is sewn on lies before it.
    for (_, s) in on_it.iter().filter(|(_, s)| s.rises() > Length::ZERO && s.height == Length::ZERO) {
        part(&mut canvas, s, &dress, &onto);
    }
    let outline: Vec<(f64, f64)> = outline.into_iter().map(|(x, y)| at(x, y)).collect();
    canvas.polygon(&outline, &Style::fill(figures).stroke(ink::INDIGO, 2.0));
    if wall.side.is_inside() {
        canvas.polygon(&outline, &Style::fill(ink::INDIGO).opacity(0.12));
    }
    let made_up: Vec<&Seen> = on_it.iter().filter(|(held, _)| held.is_none()).map(|(_, s)| s).collect();
    if !made_up.is_empty() {
        // Patches and bands end where the face does.
        canvas.clip(&format!("wall-{}", wall.side.answer().key), &outline);
        made_up.into_iter().for_each(|s| part(&mut canvas, s, &dress, &onto));
        canvas.end();
    }
    if wall.across_a_seam {
        let middle = x + wide / 2.0;
        canvas.line(middle, y, middle, y + tall, &Style::line(ink::INDIGO, 1.2));
    }
    if wall.top < Length::ZERO {
        // Above this line lies a band, a facing or another piece.
        let line = y - f(wall.top) * scale;
        canvas.line(x, line, x + wide, line, &Style::line(ink::INDIGO, 1.2).dash("6 3"));
    }
    let sewn_on = |s: &Seen| s.rises() == Length::ZERO || s.height > Length::ZERO;
    for (_, s) in on_it.iter().filter(|(held, s)| held.is_some() && sewn_on(s)) {
        part(&mut canvas, s, &dress, &onto);
    }
    let place = |(held, s): &&(Option<Held>, Seen)| {
        let held = (*held)?;
        let ((x, y), (width, height)) = (at(f(s.left), f(s.down)), (f(s.width) * scale, f(s.height) * scale));
        let up = f(s.rises()) * scale;
        Some(PartPlace { held, x, y: y - up, width, height: height + up, moves: s.moves.clone() })
    };
    // Of a part that shows in several shapes the first is what is taken hold of.
    let mut places: Vec<PartPlace> = vec![];
    for found in on_it.iter().filter_map(place) {
        if !places.iter().any(|p| p.held == found.held) {
            places.push(found);
        }
    }
    let per_unit = project.system.unit().0 as f64 * scale;
    FaceDrawing { side: wall.side, drawing: canvas.finish(width, height), places, per_unit }
}

//! A zip right across a panel, from side seam to side seam, the panel in two and a pocket behind it. Common practice.
//!
//! The zip's middle m below the panel's raw edge, g of it showing, a seam to the zip: above it (panel's width) ×
//! (m − g/2 + a), below it × (panel − m − g/2 + a). The pocket, doubled: (panel's width) × (2k + 2a), its sides caught in the
//! side seams.

use super::cloth::ClothOf;
use super::{Ground, PartOn, refuse_beyond};
use crate::bag::draft::{Draft, Hardware, Notice, Stage};
use crate::bag::field::{Choice, Field, Group};
use crate::bag::order::Phase;
use crate::bag::problems::Problems;
use crate::bag::sewn::{Edge, Seam, Stretch};
use crate::bag::wall::{Looks, Moves, Seen, Side, Wall};
use crate::bag::zip::{sliders_field, with_sliders, zip};
use crate::measure::{Length, Ruler, System, default_length};
use crate::piece::{Dimension, Figure, From, Mark, Patches, Piece, Term, When};

/// A zip across a panel, and the pocket behind it.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct AddedZip {
    name: String,
    wall: Side,
    /// From the mouth down to its middle.
    below: Length,
    /// How much of it shows.
    shows: Length,
    /// How deep the pocket hangs below its middle.
    hangs: Length,
    /// Seam between panel and zip.
    seam: Length,
    sliders: u32,
    cloth: ClothOf,
}

impl AddedZip {
    /// From the panel's raw edge to the zip's middle.
    fn middle(&self, wall: &Wall) -> Length {
        wall.top + self.below
    }

    /// Both parts of `panel`, and the pocket.
    fn pieces(&self, panel: &Piece, wall: &Wall, on: &Ground<'_>) -> [Piece; 3] {
        let half = self.shows / 2;
        let seam = || on.once("seam to the zip", self.seam, "seam");
        let less = || on.times("less half of what shows of the zip", -1, half, "shows");
        let above = vec![
            Term::once("above the face, mouth and seam", wall.top, "mouth"),
            on.once("down to the middle of the zip", self.below, "below"),
            less(),
            seam(),
        ];
        let below = vec![
            Term::once("the panel", panel.height.size, "height"),
            Term::times("less what lies above the zip’s middle", -1, self.middle(wall), "mouth"),
            less(),
            seam(),
        ];
        let bag = vec![
            on.times("hangs, doubled", 2, self.hangs, "hangs"),
            on.times("seams to the zip", 2, self.seam, "seam"),
        ];
        let part = |id: &str, what: &str, height: Dimension, figure: Figure| {
            let name = format!("{}, {what}", panel.name);
            let piece = Piece::new(on.id(id), name, panel.part, panel.width.clone(), height).shaped(figure);
            Piece { grain: panel.grain, print: panel.print, patch_of: Some(panel.id.clone()), ..piece }
        };
        let pocket = Piece::new(
            on.id("pocket"),
            format!("{}, pocket", on.name),
            self.cloth.part(),
            panel.width.clone(),
            on.sum(bag),
        );
        [
            part("upper", "above the zip", on.sum(above), Figure::Rectangle),
            part("lower", "below the zip", on.sum(below), panel.figure.clone()),
            pocket.noted(
                "folded: one edge to the lower side of the zip, the other to the upper; its sides in the side seams",
            ),
        ]
    }
}

impl PartOn for AddedZip {
    fn default_for(system: System) -> Self {
        let size = |eighths, tenths| default_length(system, eighths, tenths);
        Self {
            name: String::new(),
            wall: Side::Front,
            below: size(24, 75),
            shows: size(3, 10),
            hangs: size(48, 150),
            seam: size(3, 10),
            sliders: 1,
            cloth: ClothOf::Pocket,
        }
    }

    fn fields(&mut self) -> Vec<Field<'_>> {
        let g = Group::Pocket;
        vec![
            Field::choice("wall", "Where", g, &mut self.wall),
            Field::size("below", "Its middle, below the mouth", g, &mut self.below).scaling(),
            Field::size("hangs", "The pocket hangs below it", g, &mut self.hangs).scaling(),
            Field::size("shows", "How much of the zip shows", g, &mut self.shows),
            Field::size("seam", "Seam to the zip", g, &mut self.seam),
            sliders_field(g, &mut self.sliders),
            Field::choice("cloth", "The pocket’s cloth", g, &mut self.cloth),
            Field::text("name", "What you call it", g, &mut self.name),
        ]
    }

    fn own_name(&self) -> &str {
        &self.name
    }

    fn usual_name(&self) -> String {
        format!("{} zip, right across", self.wall.before())
    }

    fn summary(&self, ruler: Ruler) -> String {
        let show = |l: Length| ruler.show(l).text;
        format!("{} below the mouth, its pocket {} deep", show(self.below), show(self.hangs))
    }

    fn sides(&self) -> Vec<Side> {
        vec![self.wall]
    }

    fn suit(&mut self, walls: &[Wall]) {
        if !walls.iter().any(|w| w.side == self.wall) {
            self.wall = walls.first().map_or(self.wall, |w| w.side);
        }
    }

    fn problems(&self, on: &Ground<'_>, problems: &mut Problems) {
        if !refuse_beyond(self.clone().fields(), problems) {
            return;
        }
        let Some(wall) = on.wall(self.wall) else { return };
        if on.refuse_across_a_seam(wall, "wall", self.below, problems) {
            return;
        }
        let shown = problems.show(self.below);
        let name = wall.side.answer().name.to_lowercase();
        let why = match () {
            () if wall.piece.is_none() => Some("the tube is there already and is not cut in two"),
            () if wall.upside_down => Some("front and back are one piece over the base: put it on the front"),
            () if wall.sides.is_none() => Some("no straight side seams are there for it to run into"),
            () if self.wall.is_inside() => Some("it divides an outside panel: inside, take a zip window"),
            () => None,
        };
        if let Some(why) = why {
            problems.refuse("wall", self.below, format!("{}, {shown} below the mouth, on “{name}”: {why}.", on.name));
            return;
        }
        problems.seam("seam", "seam to the zip", self.seam, wall.height / 4, "a quarter of the height");
        problems.between("shows", "zip that shows", self.shows, Length::ZERO, Length::INCH * 2);
        let least = (self.seam + self.shows).max(-wall.top + self.shows / 2 + self.seam);
        problems.between("below", "middle of the zip, below the mouth,", self.below, least, wall.height - least);
        let room = (wall.height - self.below).max(Length::CENTIMETRE);
        problems.between("hangs", "pocket’s depth", self.hangs, Length::CENTIMETRE * 2, room);
    }

    fn onto(&self, on: &Ground<'_>, draft: &mut Draft) {
        let Some(wall) = on.wall(self.wall) else { return };
        let Some(at) = wall.panel().and_then(|id| draft.pieces.iter().position(|p| p.id == id)) else { return };
        let why = match &draft.pieces[at].figure {
            _ if draft.pieces[at].when != When::Now => Some("is pieced or cut over already"),
            Figure::Rectangle | Figure::CutOut { .. } | Figure::Rounded(_) => None,
            Figure::CutAtFold { .. } => Some("is one piece over the base, notched there: make the bag of two panels"),
            _ => Some("has slanting or curved sides"),
        };
        if let Some(why) = why {
            let text = format!("{} is not cut: {} {why}.", on.name, draft.pieces[at].name.to_lowercase());
            draft.notices.push(on.attention("wall", text));
            return;
        }
        let mark = Mark {
            boxes: false,
            share: false,
            name: format!("{}, the middle of the zip", on.name).into(),
            distance: self.middle(wall),
            from: From::TopEdge,
            and: None,
        };
        let whole = draft.pieces[at].clone().times(1).marked([mark]);
        let behind =
            draft.pieces.iter().filter(|p| p.backs.as_deref() == wall.piece).map(|p| p.part.name().to_lowercase());
        if let Some(backing) = behind.min() {
            let text = format!(
                "{}: the {backing} behind it is cut apart at the zip, and trimmed clear of its seams.",
                on.name
            );
            draft.notices.push(on.note("below", text));
        }
        let made = if draft.pieces[at].count > 1 {
            draft.pieces[at].count -= 1;
            let name = format!("{}, {}", whole.name, wall.side.before().to_lowercase());
            let own = Piece { id: on.id("panel").into(), name: name.into(), ..whole };
            let text =
                format!("{} is a piece of its own: on the Pieces stage it is backed apart from its pair.", own.name);
            draft.notices.push(Notice { stage: Stage::Pieces, ..on.note("wall", text) });
            own
        } else {
            draft.pieces.remove(at);
            whole
        };
        let made = made.cut(When::Pieced(Patches::Bands));
        let pieces = self.pieces(&made, wall, on);
        let at = at.min(draft.pieces.len());
        draft.pieces.splice(at..at, [vec![made], pieces.to_vec()].concat());
        let teeth = wall.across().unwrap_or(wall.width);
        let bought = zip("Zip", teeth, "from side seam to side seam, its ends caught in them", on.ruler);
        let bought = with_sliders(bought, self.sliders);
        draft.hardware.push(Hardware { name: format!("{}, {}", bought.name, on.name.to_lowercase()).into(), ..bought });
        let name = wall.side.answer().name.to_lowercase();
        let text = format!(
            "{}: sew the zip between both parts of the {name}, the pocket’s edges behind it, and topstitch; baste the pocket’s sides. Stitch across both ends of the teeth before the side seams.",
            on.name
        );
        draft.add_step(on.step(Phase::Flat, text));
    }

    fn seen(&self, on: &Ground<'_>) -> Vec<Seen> {
        let Some(wall) = on.wall(self.wall) else { return vec![] };
        let down = self.below - self.shows / 2;
        vec![Seen {
            side: self.wall,
            looks: Looks::Zip { hangs: Length::ZERO },
            left: Length::ZERO,
            down,
            width: wall.width,
            height: self.shows,
            moves: Moves { down: Some(("below", self.below)), ..Moves::default() },
        }]
    }

    fn seams(&self, on: &Ground<'_>) -> Vec<Seam> {
        let side = on.wall(self.wall).and_then(|w| w.sides).map_or(Length::ZERO, |(seam, _)| seam);
        let edge =
            |piece: &str, edge| Stretch { piece: on.id(piece).into(), ..Stretch::new("", edge, self.seam, side * 2) };
        let zip = Seam::new(
            format!("{}, along both sides", on.name),
            on.prefix.to_owned(),
            edge("upper", Edge::Base),
            edge("lower", Edge::Top),
        );
        vec![zip]
    }
}

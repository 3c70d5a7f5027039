//! A bag: a body of some family, and the parts put on it.

use super::backing;
use super::field::{Field, Group, Slot};
use super::fit::{Holds, Thing, fitted};
use super::kept::{put, values_of};
use super::parts::{Added, MOST_PARTS};
use super::piecing::{Patchwork, Piecing};
use super::sewn::Seam;
use super::wall::{Seen, Wall};
use super::{Body, Draft, Family, Finished, Notice, Solid};
use crate::FieldProblem;
use crate::measure::{Length, Ruler, System};
use crate::piece::{From as Measured, Mark, Piece};
use crate::shape::Point;
use serde_json::{Map, Value};
use std::collections::BTreeSet;

/// A body and the parts put on it, kept and edited by their fields.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Bag {
    /// The body.
    pub body: Body,
    /// What is put on it, in the order it was added.
    pub parts: Vec<Added>,
}

impl From<Body> for Bag {
    fn from(body: Body) -> Self {
        Self { body, parts: vec![] }
    }
}

impl Bag {
    /// What kind of bag it is.
    pub const fn family(&self) -> Family {
        self.body.family()
    }

    /// Every field of the body, once, in the order they are shown.
    pub fn fields(&mut self) -> Vec<Field<'_>> {
        self.body.design_mut().fields()
    }

    /// Sets the body's field `key` as the maker typed or chose it.
    ///
    /// # Errors
    /// There is no such field, or what was typed cannot be read.
    pub fn set(&mut self, key: &str, value: &str, system: System) -> Result<(), FieldProblem> {
        let family = self.family();
        let design = self.body.design_mut();
        let patched = design.patchwork_mut().map(|(_, patchwork)| patchwork.clone());
        let mut fields = design.fields();
        let Some(field) = fields.iter_mut().find(|f| f.key == key) else {
            let all: Vec<&str> = fields.iter().map(|f| f.key).collect();
            let message =
                format!("A {} has no field “{key}”: it has {}.", family.name().to_lowercase(), all.join(", "));
            return Err(FieldProblem::new(key, value, message));
        };
        field.set(value, system)?;
        drop(fields);
        if let (Some((_, patchwork)), Some(before)) = (design.patchwork_mut(), patched) {
            patchwork.rearranged(&before);
        }
        design.update_dependents(key, system);
        Ok(())
    }

    /// What it is called: the family, or what makers call a bag of it.
    pub fn title(&self) -> &'static str {
        match &self.body {
            Body::Tote(tote) if tote.depth > Length::ZERO => "Boxed tote",
            _ => self.family().name(),
        }
    }

    /// The word for the finished size in the field `key`: `wide`, or `across` of a round base, whose width is its
    /// diameter.
    pub fn size_word(&self, key: &str) -> Option<&'static str> {
        match key {
            "width" if self.answer("base") == Some("round") => Some("across"),
            "width" => Some("wide"),
            "height" => Some("tall"),
            "depth" => Some("deep"),
            _ => None,
        }
    }

    /// Title and finished sizes: `Boxed tote, 15 wide × 13 tall × 5 deep (in)`.
    pub fn headline(&self, ruler: Ruler) -> String {
        let mut copy = self.clone();
        let sizes: Vec<String> = copy
            .fields()
            .into_iter()
            .filter(|f| !f.idle)
            .filter_map(|f| {
                let word = self.size_word(f.key)?;
                match f.slot {
                    Slot::Length(length) if *length > Length::ZERO => {
                        Some(format!("{} {word}", ruler.show(*length).text))
                    }
                    _ => None,
                }
            })
            .collect();
        if sizes.is_empty() {
            return self.title().to_owned();
        }
        format!("{}, {} ({})", self.title(), sizes.join(" × "), ruler.system().symbol())
    }

    /// The length in the field `key`.
    pub fn length(&self, key: &str) -> Option<Length> {
        self.clone().fields().into_iter().find(|f| f.key == key).and_then(|f| match f.slot {
            Slot::Length(length) => Some(*length),
            _ => None,
        })
    }

    /// The key of the answer in the field `key`; `yes` or `no` of a toggle.
    pub fn answer(&self, key: &str) -> Option<&'static str> {
        self.clone().fields().into_iter().find(|f| f.key == key).and_then(|f| match f.slot {
            Slot::Choice(choice) => Some(choice.answer().key),
            Slot::Toggle(on) => Some(if *on { "yes" } else { "no" }),
            _ => None,
        })
    }

    /// A bag of `family` at its usual sizes, but for the finished sizes and seams that both have and the maker has
    /// changed from what is usual here. Its parts come along; what does not fit the new body is kept aside.
    #[must_use]
    pub fn turned_into(&self, family: Family, system: System) -> Self {
        let mut next = self.body_turned_into(family, system);
        if family != Family::CutList {
            for part in &self.parts {
                next.parts.push(part.clone());
                let fits = next.draft(Ruler::default_for(system)).is_ok();
                if let Some(part) = next.parts.last_mut().filter(|_| !fits) {
                    part.aside = true;
                }
            }
        }
        next
    }

    fn body_turned_into(&self, family: Family, system: System) -> Self {
        let mut next = family.default_for(system);
        let (known, usual) = (self.values(), self.family().default_for(system).values());
        let mut fields = next.fields();
        for field in fields.iter_mut().filter(|f| matches!(f.group, Group::Size | Group::Seams)) {
            if let Some(value) = known.get(field.key).filter(|v| usual.get(field.key) != Some(*v)) {
                // What does not fit the other family stays as is usual there.
                let _ = put(field, value);
            }
        }
        drop(fields);
        // What cannot be drafted with these sizes starts from its own.
        if next.draft(Ruler::default_for(system)).is_err() { family.default_for(system) } else { next }
    }

    /// Keys of the fields that grow with the bag: its finished sizes and those of its parts.
    pub fn finished_sizes(&self) -> BTreeSet<&'static str> {
        self.clone().fields().iter().filter(|f| f.scales).map(|f| f.key).collect()
    }

    /// Drafts the bag.
    ///
    /// # Errors
    /// Every field that cannot stand, each once, with what is allowed.
    pub fn draft(&self, ruler: Ruler) -> Result<Draft, Vec<FieldProblem>> {
        let mut draft = self.body.design().draft(ruler)?;
        let mut problems = vec![];
        if self.parts.len() > MOST_PARTS {
            let message = format!("The bag has {} parts: at most {MOST_PARTS} are put on one.", self.parts.len());
            return Err(vec![FieldProblem::new("parts", self.parts.len(), message)]);
        }
        let mut walls = self.walls(ruler);
        for part in self.in_order() {
            let name = self.part_name(part);
            problems.extend(part.onto(&name, &walls, &mut draft, ruler).err().unwrap_or_default());
            // What follows on that wall goes on the piece that was split off for it.
            let own = format!("{}-panel", part.prefix());
            if part.splits_a_panel() && draft.piece(&own).is_some() {
                let of_it = walls.iter_mut().filter(|w| part.sides().contains(&w.side));
                of_it.for_each(|w| w.split_off = Some(own.clone()));
            }
        }
        if !problems.is_empty() {
            return Err(problems);
        }
        if let Some(problem) = no_room_for_a_mark(&draft.pieces, ruler) {
            return Err(vec![problem]);
        }
        draft.notices.extend(self.lying_over_each_other(ruler));
        draft.notices.extend(self.beyond_a_curve(&draft, &walls, ruler));
        backing::fuse_blocks(&mut draft, ruler);
        let show = |l: Length| format!("{} {}", ruler.show(l).text, ruler.system().symbol());
        // Cuts are brought to a line of the ruler: what that changes on the made bag is said.
        for size in self.finished_from_cut(&draft) {
            if (size.back - size.asked).0.abs() >= ruler.step().0 {
                let (asked, back, name) = (show(size.asked), show(size.back), size.name);
                let text =
                    format!("Cut to the lines of the ruler the bag comes out {back} {name}, where {asked} was asked.");
                draft.notices.push(Notice::note(size.field.clone(), text));
            }
        }
        draft.mark_on(ruler);
        draft.speak_in(ruler.system());
        Ok(draft)
    }

    /// The finished sizes, worked out back from the cut pieces of a draft of this bag.
    pub fn finished_from_cut(&self, draft: &Draft) -> Vec<Finished> {
        let trimmed = Draft { pieces: draft.pieces.iter().map(Piece::as_trimmed).collect(), ..draft.clone() };
        self.body.design().finished_from_cut(&trimmed)
    }

    /// Parts on one wall that lie over each other: who stitches one stitches through the other.
    fn lying_over_each_other(&self, ruler: Ruler) -> Vec<Notice> {
        let own = self.own_seen().into_iter().map(|(_, s)| (0, s));
        let seen: Vec<(u32, Seen)> = own.chain(self.seen(ruler)).collect();
        let name = |id| self.part(id).map_or_else(|| "the bag’s own pocket".to_owned(), |p| self.part_name(p));
        // Each part is told once, with the first it lies over: what is moved may clear the others too.
        let over = |part: &Added| {
            let (at, id) = (seen.iter().position(|(id, _)| *id == part.id)?, part.id);
            let own = || seen.iter().filter(move |(other, _)| *other == id);
            let (under, first) = seen[..at].iter().find(|(_, s)| own().any(|(_, mine)| mine.meets(s)))?;
            let text = format!(
                "{} lies over {} {}: move it beside or below, or the stitching goes through both.",
                name(id),
                name(*under),
                first.side.on()
            );
            Some(Notice::attention(format!("part-{id}.below"), text))
        };
        self.parts.iter().filter_map(over).collect()
    }

    /// Parts on a face with a curve that reach beyond it: a corner of what they take lies past the seam.
    fn beyond_a_curve(&self, draft: &Draft, walls: &[Wall], ruler: Ruler) -> Vec<Notice> {
        let past = |wall: &Wall, seen: &Seen| -> Option<bool> {
            let face = wall.curve(draft)?;
            let [left, right, down, foot] = seen.takes()?;
            // A seam is inset from its outline: half a line of the ruler is no reach.
            let slack = ruler.step().0 as f64 / 2.0;
            let corner = |x: Length, y: Length| Point::new(x, wall.height - y);
            let all = [corner(left, down), corner(right, down), corner(left, foot), corner(right, foot)];
            Some(all.iter().any(|p| beyond(&face, *p) > slack))
        };
        let over = |(id, seen): &(u32, Seen)| {
            let wall = walls.iter().find(|w| w.side == seen.side)?;
            past(wall, seen)?.then(|| {
                let name = self.part(*id).map(|p| self.part_name(p)).unwrap_or_default();
                let text = format!(
                    "{name} reaches past the curve {}: make it smaller, or move it to where the face is wide enough.",
                    seen.side.on()
                );
                Notice::attention(format!("part-{id}.width"), text)
            })
        };
        self.seen(ruler).iter().filter_map(over).collect()
    }

    /// Parts in the order they are made: webbing over what lies under it, and last what splits a panel off its pair, so that
    /// it takes marks along.
    fn in_order(&self) -> impl Iterator<Item = &Added> {
        let mut parts: Vec<&Added> = self.parts.iter().collect();
        parts.sort_by_key(|p| (p.splits_a_panel(), !p.webbing().is_empty()));
        parts.into_iter()
    }

    /// The walls that parts can be put on, with the straps from the base up that are put on them.
    pub fn walls(&self, ruler: Ruler) -> Vec<Wall> {
        let mut walls = self.body.design().walls(ruler);
        for (side, webbing) in self.parts.iter().filter(|p| !p.aside).flat_map(Added::webbing) {
            if let Some(wall) = walls.iter_mut().find(|w| w.side == side) {
                wall.webbing = Some(webbing);
            }
        }
        walls
    }

    /// The part with the number `id`.
    pub fn part(&self, id: u32) -> Option<&Added> {
        self.parts.iter().find(|p| p.id == id)
    }

    /// What a part is called on this bag: the second of one name is numbered.
    pub fn part_name(&self, part: &Added) -> String {
        let name = part.name();
        let before = self.parts.iter().take_while(|p| p.id != part.id).filter(|p| p.name() == name).count();
        if before == 0 { name } else { format!("{name} {}", before + 1) }
    }

    /// A number no part has.
    pub(crate) fn next_part(&self) -> u32 {
        self.parts.iter().map(|p| p.id).max().unwrap_or(0) + 1
    }

    /// What is seen on the walls of what the body has itself, each with the group of its fields.
    pub fn own_seen(&self) -> Vec<(Group, Seen)> {
        self.body.design().seen()
    }

    /// What is seen of the parts on the walls, each with its part's number.
    pub fn seen(&self, ruler: Ruler) -> Vec<(u32, Seen)> {
        let walls = self.walls(ruler);
        self.parts.iter().flat_map(|p| p.seen(&walls, ruler).into_iter().map(|seen| (p.id, seen))).collect()
    }

    /// The patches of the panel that the body itself makes up, if it is in patches, and that panel's id.
    pub fn own_patchwork(&self) -> Option<(&'static str, Patchwork)> {
        let mut body = self.body.clone();
        let (panel, patchwork) = body.design_mut().patchwork_mut()?;
        (patchwork.piecing != Piecing::Whole).then(|| (panel, patchwork.clone()))
    }

    /// What is sewn to what.
    pub fn seams(&self, ruler: Ruler) -> Vec<Seam> {
        let walls = self.walls(ruler);
        let of_parts = self.parts.iter().flat_map(|p| p.seams(&self.part_name(p), &walls, ruler));
        self.body.design().seams(ruler).into_iter().chain(of_parts).collect()
    }

    /// The bag as a solid, to be drawn.
    pub fn solid(&self, draft: &Draft) -> Solid {
        let mut solid = self.body.design().solid(draft);
        for part in self.parts.iter().filter(|p| !p.aside) {
            if let Some((drop, width)) = part.over_the_mouth(&solid) {
                solid = solid.over_the_mouth(drop, width);
            }
        }
        solid
    }

    /// Finished width, height and depth for `thing`, brought up to `ruler`; a bag with a depth in use is boxed as deep as
    /// the thing is thick.
    pub fn fit(&mut self, thing: Thing, ease: Length, above: Length, ruler: Ruler) {
        let round = self.answer("base") == Some("round");
        let mut fields = self.fields();
        let deep = fields
            .iter()
            .any(|f| f.key == "depth" && !f.idle && matches!(&f.slot, Slot::Length(l) if **l > Length::ZERO));
        let holds = if round {
            Holds::Round
        } else if deep {
            Holds::Boxed
        } else {
            Holds::Flat
        };
        let (width, height, depth) = fitted(thing, holds, ease, above);
        for (key, size) in [("width", width), ("height", height), ("depth", depth)] {
            let field = fields.iter_mut().find(|f| f.key == key && (key != "depth" || deep));
            if let Some(Field { slot: Slot::Length(length), .. }) = field {
                **length = ruler.up(size);
            }
        }
    }

    /// Finished lengths times `percent`/100, brought to `ruler`; seams, turns, ease, hardware and strap widths stay (the
    /// default of common practice). Returns what rounding changed, as sentences.
    ///
    /// # Errors
    /// A field that cannot stand at that scale.
    pub fn scaled(&self, percent: u32, ruler: Ruler) -> Result<(Self, Vec<String>), Vec<FieldProblem>> {
        let mut next = self.clone();
        let mut rounded = Vec::new();
        if let Body::CutList(list) = &mut next.body {
            rounded = list.scale(percent, ruler);
        }
        let mut scale = |name: &str, length: &mut Length| {
            let exact = Length(length.0 * i64::from(percent) / 100);
            let shown = exact.round_to(ruler.step());
            if shown != exact {
                let show = |l: Length| ruler.show(l).text;
                rounded.push(format!("{name}: {} brought to {}", show(exact), show(shown)));
            }
            *length = shown;
        };
        for field in &mut next.fields() {
            if let (true, Slot::Length(length)) = (field.scales, &mut field.slot) {
                scale(field.label, length);
            }
        }
        for part in &mut next.parts {
            let name = part.name();
            for field in &mut part.fields() {
                let label = format!("{name}, {}", field.label.to_lowercase());
                match &mut field.slot {
                    Slot::Length(length) if field.scales => scale(&label, length),
                    Slot::Lengths(lengths) if field.scales => lengths.iter_mut().for_each(|l| scale(&label, l)),
                    _ => {}
                }
            }
            part.scaled(ruler.system());
        }
        next.draft(ruler).map(|_| (next, rounded))
    }

    /// The fields' values, as they are kept.
    pub(super) fn values(&self) -> Map<String, Value> {
        values_of(self.clone().fields())
    }
}

/// How far `point` lies outside of a convex outline that goes counter-clockwise; less than nothing inside.
fn beyond(outline: &[Point], point: Point) -> f64 {
    let next = outline.iter().skip(1).chain(outline.first());
    let out = outline.iter().zip(next).map(|(a, b)| {
        let (dx, dy) = ((b.x - a.x).0 as f64, (b.y - a.y).0 as f64);
        let (px, py) = ((point.x - a.x).0 as f64, (point.y - a.y).0 as f64);
        (px * dy - py * dx) / dx.hypot(dy).max(1.0)
    });
    out.fold(f64::NEG_INFINITY, f64::max)
}

/// A mark that would be drawn beside its piece: a snap an inch below a mouth on a bag half an inch tall.
fn no_room_for_a_mark(pieces: &[Piece], ruler: Ruler) -> Option<FieldProblem> {
    let show = |l: Length| format!("{} {}", ruler.show(l).text, ruler.system().symbol());
    let off = |piece: &&Piece| piece.marks.iter().any(|mark| !mark.lies_on(piece.size()));
    let piece = pieces.iter().find(off)?;
    let mark = piece.marks.iter().find(|mark| !mark.lies_on(piece.size()))?;
    let (width, height) = piece.size();
    let (distance, from) = match mark.and {
        Some((distance, from)) if (Mark { and: None, ..mark.clone() }).lies_on((width, height)) => (distance, from),
        _ => (mark.distance, mark.from),
    };
    let (field, side) = match from {
        Measured::TopEdge | Measured::BaseEdge => ("height", height),
        Measured::LeftEdge | Measured::SideEdges | Measured::Middle => ("width", width),
    };
    let message = format!(
        "“{}” is {} {}, and {} is {} that way: make the bag larger, or leave off what is marked there.",
        mark.name,
        show(distance),
        from.name(),
        piece.name,
        show(side)
    );
    Some(FieldProblem::new(field, show(side), message))
}

//! A partition: a wall of two layers across the inside, hung between the side seams of the lining. Common practice.
//!
//! As wide as the bag is, W + 2s, since it runs straight from one side seam to the other; doubled 2H + 2a, folded at its top,
//! its foot closed by turning both edges in.

use super::cloth::{Behind, ClothOf};
use super::{Ground, PartOn, refuse_beyond};
use crate::bag::draft::Draft;
use crate::bag::field::{Field, Group};
use crate::bag::order::Phase;
use crate::bag::problems::Problems;
use crate::bag::sewn::{Edge, Seam, Stretch};
use crate::bag::wall::{At, Looks, Moves, Seen, Side, Wall};
use crate::measure::{Length, Ruler, System, default_length};
use crate::piece::{From, Grain, Mark, Piece, Term};

/// A partition by its finished height.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct AddedPartition {
    name: String,
    /// Finished.
    height: Length,
    /// From the mouth down to its top.
    below: Length,
    /// Edges turned in at its foot.
    turn: Length,
    cloth: ClothOf,
    behind: Behind,
}

impl AddedPartition {
    fn piece(&self, wall: &Wall, (seam, field): (Length, &'static str), on: &Ground<'_>) -> Piece {
        let wide = on.sum(vec![
            Term::once("from side seam to side seam", wall.width, "width"),
            Term::times("side seams", 2, seam, field),
        ]);
        let tall = on.sum(vec![
            on.times("tall, doubled", 2, self.height, "height"),
            on.times("turned in at its foot", 2, self.turn, "turn"),
        ]);
        let fold = Mark {
            boxes: false,
            share: false,
            name: "fold, its top edge".into(),
            distance: tall.size / 2,
            from: From::TopEdge,
            and: None,
        };
        Piece::new(on.id("partition"), on.name.to_owned(), self.cloth.part(), wide, tall)
            .marked([fold])
            .noted("folded at its top edge, its foot closed, its sides caught in the lining’s side seams")
    }

    fn backing(&self, wall: &Wall, on: &Ground<'_>) -> Option<Piece> {
        let part = self.behind.part()?;
        let wide = on.sum(vec![Term::once("from side seam to side seam", wall.width, "width")]);
        let tall = on.sum(vec![on.once("tall, finished", self.height, "height")]);
        let name = format!("{}, {}", on.name, self.behind.word());
        let piece = Piece::new(on.id(self.behind.word()), name, part, wide, tall).lying(Grain::Any);
        Some(Piece { backs: Some(on.id("partition").into()), ..piece.noted("between its layers, clear of every seam") })
    }
}

impl PartOn for AddedPartition {
    fn default_for(system: System) -> Self {
        let size = |eighths, tenths| default_length(system, eighths, tenths);
        Self {
            name: String::new(),
            height: size(56, 180),
            below: size(24, 75),
            turn: size(4, 10),
            cloth: ClothOf::Lining,
            behind: Behind::None,
        }
    }

    fn fields(&mut self) -> Vec<Field<'_>> {
        let g = Group::Pocket;
        vec![
            Field::size("height", "Tall, finished", g, &mut self.height).scaling(),
            Field::size("below", "Its top, below the mouth", g, &mut self.below).scaling(),
            Field::size("turn", "Turned in at its foot", g, &mut self.turn),
            Field::choice("cloth", "Its cloth", g, &mut self.cloth),
            Field::choice("behind", "Between its layers", g, &mut self.behind),
            Field::text("name", "What you call it", g, &mut self.name),
        ]
    }

    fn own_name(&self) -> &str {
        &self.name
    }

    fn usual_name(&self) -> String {
        "Partition".to_owned()
    }

    fn summary(&self, ruler: Ruler) -> String {
        let show = |l: Length| ruler.show(l).text;
        format!("{} tall, {} below the mouth", show(self.height), show(self.below))
    }

    fn sides(&self) -> Vec<Side> {
        vec![Side::InsideFront, Side::InsideBack]
    }

    fn problems(&self, on: &Ground<'_>, problems: &mut Problems) {
        if !refuse_beyond(self.clone().fields(), problems) {
            return;
        }
        let Some(wall) = on.wall(Side::InsideFront) else { return };
        problems.size("height", "height", self.height);
        problems.seam("turn", "turn", self.turn, self.height, "the partition’s height");
        if wall.sides.is_none() {
            let text = format!(
                "{}, {} tall: no straight side seams are there to hang it between.",
                on.name,
                problems.show(self.height)
            );
            problems.refuse("height", self.height, text);
        } else if self.below + self.height > wall.height {
            let text = format!(
                "{} below the mouth and {} tall, {} reaches below the base: the bag is {} tall.",
                problems.show(self.below),
                problems.show(self.height),
                on.name,
                problems.show(wall.height)
            );
            problems.refuse("height", self.height, text);
        } else if wall.top + self.below < Length::ZERO {
            let text = format!(
                "{} is {} below the mouth: there a band or a facing lies; at least {} is needed.",
                on.name,
                problems.show(self.below),
                problems.show(-wall.top)
            );
            problems.refuse("below", self.below, text);
        }
    }

    fn onto(&self, on: &Ground<'_>, draft: &mut Draft) {
        let Some(wall) = on.wall(Side::InsideFront) else { return };
        let Some(seam) = wall.sides else { return };
        draft.pieces.push(self.piece(wall, seam, on));
        draft.pieces.extend(self.backing(wall, on));
        let level =
            wall.mark(format!("{}, its top, at both side edges", on.name), At::EachSide(Length::ZERO), self.below);
        let (distance, from) = level.and.unwrap_or((self.below, From::TopEdge));
        on.put_mark(draft, wall, Mark { distance, from, and: None, ..level });
        let text = format!(
            "{}: fold it, turn its foot in and stitch it closed; tack its sides to the side edges of one lining panel at their marks, before the lining’s sides are sewn.",
            on.name
        );
        draft.add_step(on.step(Phase::Flat, text));
    }

    fn seen(&self, on: &Ground<'_>) -> Vec<Seen> {
        let Some(wall) = on.wall(Side::InsideFront) else { return vec![] };
        vec![Seen {
            side: Side::InsideFront,
            looks: Looks::Strip { cloth: self.cloth.part() },
            left: Length::ZERO,
            down: self.below,
            width: wall.width,
            height: self.height,
            moves: Moves { down: Some(("below", self.below)), ..Moves::default() },
        }]
    }

    fn seams(&self, on: &Ground<'_>) -> Vec<Seam> {
        let Some(wall) = on.wall(Side::InsideFront) else { return vec![] };
        let Some((seam, _)) = wall.sides else { return vec![] };
        let side = Stretch { piece: on.id("partition").into(), ..Stretch::new("", Edge::SideToFold, seam, self.turn) };
        vec![Seam::new(format!("{}, into the side seams", on.name), on.prefix.to_owned(), side.clone(), side)]
    }
}

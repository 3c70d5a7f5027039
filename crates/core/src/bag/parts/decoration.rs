//! Embroidery, appliqué or paint: by its centre on the face; embroidered before it is cut out, its panel is cut over for
//! the hoop and trimmed. Common practice.

use super::cloth::ClothOf;
use super::{Ground, PartOn, refuse_beyond};
use crate::bag::draft::{Draft, Notice, Stage};
use crate::bag::field::{Choice, Field, Group, choice};
use crate::bag::order::Phase;
use crate::bag::problems::Problems;
use crate::bag::quilting::cut_over;
use crate::bag::wall::{At, Looks, Moves, Seen, Side, Wall};
use crate::measure::{Length, Ruler, System, default_length};
use crate::piece::{From, Mark, Piece, When};

choice! {
    /// How a face is decorated.
    Technique {
        /// With a needle, in a hoop.
        Embroidery = "embroidery", "Embroidery", "in a hoop; a stabiliser behind it";
        /// Cloth on cloth.
        Applique = "applique", "Appliqué", "cloth sewn on cloth, its edges turned";
        /// With a brush or a block.
        Paint = "paint", "Paint or print", "last of all, card between the layers";
    }
}

choice! {
    /// When it is done.
    Moment {
        /// Its panel is cut over and trimmed.
        BeforeCutting = "before-cutting", "Before the panel is cut to size", "the panel is cut over for the hoop, then trimmed";
        /// On the cut panel.
        BeforeBacking = "before-backing", "On the cut panel, before its backing", "";
        /// On the backed panel.
        AfterBacking = "after-backing", "After the backing", "";
    }
}

/// A decoration by its centre and size.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct AddedDecoration {
    name: String,
    wall: Side,
    technique: Technique,
    moment: Moment,
    width: Length,
    height: Length,
    from_left: Length,
    middle: bool,
    below: Length,
    margin: Length,
    turn: Length,
    cloth: ClothOf,
}

impl AddedDecoration {
    fn cut_over(&self) -> bool {
        self.moment == Moment::BeforeCutting && self.technique != Technique::Paint
    }
}

impl AddedDecoration {
    /// Its mark on the panel while that is cut over: the raw edges lie further out by the margin until it is trimmed.
    fn on_cut_over(&self, mut mark: Mark) -> Mark {
        let further = |from: From| if from == From::Middle { Length::ZERO } else { self.margin };
        mark.distance += further(mark.from);
        if let Some((distance, from)) = &mut mark.and {
            *distance += further(*from);
        }
        mark.name = format!("{}, before it is trimmed", mark.name).into();
        mark
    }
}

impl PartOn for AddedDecoration {
    fn default_for(system: System) -> Self {
        let size = |eighths, tenths| default_length(system, eighths, tenths);
        Self {
            name: String::new(),
            wall: Side::Front,
            technique: Technique::Embroidery,
            moment: Moment::BeforeCutting,
            width: size(32, 100),
            height: size(32, 100),
            from_left: size(32, 100),
            middle: true,
            below: size(48, 150),
            margin: size(16, 50),
            turn: size(2, 6),
            cloth: ClothOf::Contrast,
        }
    }

    fn fields(&mut self) -> Vec<Field<'_>> {
        let (over, middle, worked) = (self.cut_over(), self.middle, self.technique != Technique::Paint);
        let applique = self.technique == Technique::Applique;
        let g = Group::Extras;
        vec![
            Field::choice("technique", "What it is", g, &mut self.technique),
            Field::choice("wall", "Where", g, &mut self.wall),
            Field::choice("moment", "When", g, &mut self.moment).only_if(worked),
            Field::size("width", "Wide", g, &mut self.width).scaling(),
            Field::size("height", "Tall", g, &mut self.height).scaling(),
            Field::toggle("middle", "In the middle of the face, across", g, &mut self.middle),
            Field::size("from_left", "Its centre, from the left of the face", g, &mut self.from_left)
                .scaling()
                .only_if(!middle),
            Field::size("below", "Its centre, below the mouth", g, &mut self.below).scaling(),
            Field::size("margin", "Cut over, all round, for the hoop", g, &mut self.margin).only_if(over),
            Field::size("turn", "Its edges turned under", g, &mut self.turn).only_if(applique),
            Field::choice("cloth", "Its cloth", g, &mut self.cloth).only_if(applique),
            Field::text("name", "What you call it", g, &mut self.name),
        ]
    }

    fn own_name(&self) -> &str {
        &self.name
    }

    fn usual_name(&self) -> String {
        let what = match self.technique {
            Technique::Embroidery => "embroidery",
            Technique::Applique => "appliqué",
            Technique::Paint => "painting",
        };
        format!("{} {what}", self.wall.before())
    }

    fn summary(&self, ruler: Ruler) -> String {
        let show = |l: Length| ruler.show(l).text;
        format!("{} × {}, {} below the mouth", show(self.width), show(self.height), show(self.below))
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
        if on.refuse_across_a_seam(wall, "wall", self.width, problems) {
            return;
        }
        problems.between("width", "width", self.width, Length::MILLIMETRE * 3, wall.width);
        problems.between("height", "height", self.height, Length::MILLIMETRE * 3, wall.height);
        let (half, tall) = (self.width / 2, self.height / 2);
        problems.between("below", "centre, below the mouth,", self.below, tall, wall.height - tall);
        if !self.middle {
            problems.between("from_left", "centre, from the left,", self.from_left, half, wall.width - half);
        }
        if self.cut_over() {
            problems.between("margin", "margin", self.margin, Length::MILLIMETRE * 5, Length::CENTIMETRE * 30);
        }
        if self.technique == Technique::Applique {
            problems.between("turn", "turn", self.turn, Length::ZERO, Length::CENTIMETRE * 3);
        }
    }

    fn seen(&self, on: &Ground<'_>) -> Vec<Seen> {
        let Some(wall) = on.wall(self.wall) else { return vec![] };
        let centre = if self.middle { wall.width / 2 } else { self.from_left };
        let looks = if self.technique == Technique::Applique {
            Looks::Patch { cloth: self.cloth.part(), dividers: vec![] }
        } else {
            Looks::Work
        };
        let moves = Moves {
            down: Some(("below", self.below)),
            across: Some(("from_left", centre)),
            freely: Some(("middle", "no")),
            ends: None,
        };
        let (left, down) = (centre - self.width / 2, self.below - self.height / 2);
        vec![Seen { side: self.wall, looks, left, down, width: self.width, height: self.height, moves }]
    }

    fn onto(&self, on: &Ground<'_>, draft: &mut Draft) {
        let Some(wall) = on.wall(self.wall) else { return };
        let at = if self.middle { At::Middle } else { At::FromLeft { in_by: self.from_left, wide: Length::ZERO } };
        let mark = wall.mark(format!("{}, its centre, {}", on.name, wall.side.on()), at, self.below);
        let panel = wall.panel().and_then(|id| draft.pieces.iter().position(|p| p.id == id));
        // What is quilted or pieced is cut over already, and a block is large enough for the hoop.
        let fused = draft.pieces.iter().any(|p| p.block_of.iter().any(|id| Some(id.as_ref()) == wall.panel()));
        let mut cut = "";
        match panel.filter(|at| self.cut_over() && !fused && draft.pieces[*at].when == When::Now) {
            Some(at) => {
                let of_pair = draft.pieces[at].count > 1;
                let whole = draft.pieces[at].clone().times(1).marked([self.on_cut_over(mark)]);
                let mut over = cut_over(whole, self.margin * 2, &format!("{}.margin", on.prefix), on.ruler);
                if of_pair {
                    draft.pieces[at].count -= 1;
                    over.id = on.id("panel").into();
                    over.name = format!("{}, {}", over.name, wall.side.before().to_lowercase()).into();
                    let text = format!(
                        "{} is a piece of its own: on the Pieces stage it is made up and backed apart from its pair.",
                        over.name
                    );
                    draft.pieces.insert(at + 1, over);
                    draft.notices.push(Notice { stage: Stage::Pieces, ..on.note("moment", text) });
                } else {
                    draft.pieces[at] = over;
                }
                cut = " before the panel is trimmed to size";
            }
            None => {
                if self.cut_over() {
                    let why = match panel {
                        None => "the tube is there already",
                        Some(_) if fused => "its block is embroidered before the panels are cut from it",
                        Some(_) => "the panel is pieced, or cut over already",
                    };
                    draft
                        .notices
                        .push(on.note("moment", format!("{}: nothing is cut over for the hoop, {why}.", on.name)));
                }
                on.put_mark(draft, wall, mark);
            }
        }
        if self.technique == Technique::Applique {
            let size = |name, size, key| {
                on.sum(vec![on.once(name, size, key), on.times("edges turned", 2, self.turn, "turn")])
            };
            let piece = Piece::new(
                on.id("applique"),
                on.name.to_owned(),
                self.cloth.part(),
                size("wide", self.width, "width"),
                size("tall", self.height, "height"),
            );
            draft.pieces.push(piece.noted("cut to its shape within this"));
        }
        let when = match self.moment {
            Moment::BeforeCutting | Moment::BeforeBacking => " before any backing or seam",
            Moment::AfterBacking => " through the backing, before any seam",
        };
        let place = wall.side.answer().name.to_lowercase();
        let early = if self.moment == Moment::AfterBacking { Phase::Backed } else { Phase::Bare };
        let (phase, text) = match self.technique {
            Technique::Embroidery => (
                early,
                format!("{}: embroider it{cut}{when}, its centre on the mark; try a paper print first.", on.name),
            ),
            Technique::Applique => {
                (early, format!("{}: turn its edges and sew it on the {place}{cut}{when}.", on.name))
            }
            Technique::Paint => (Phase::Last, format!("{}: paint the {place} last, card between the layers.", on.name)),
        };
        draft.add_step(on.step(phase, text));
    }
}

//! A piece of one's own beside any bag: the way out wherever a part is not known here.

use super::cloth::ClothOf;
use super::{Ground, PartOn, refuse_beyond};
use crate::bag::draft::Draft;
use crate::bag::field::{Choice, Field, Group, choice};
use crate::bag::order::Phase;
use crate::bag::problems::Problems;
use crate::bag::wall::Side;
use crate::measure::{Length, Ruler, System, default_length};
use crate::piece::{Figure, Grain, Piece, PrintRule};

choice! {
    /// The shape of a piece of one's own.
    OwnShape {
        /// All of its width and height.
        Rectangle = "rectangle", "Rectangle", "";
        /// Round; the width is its diameter.
        Circle = "circle", "Circle", "";
        /// Straight at the top, round below.
        HalfRound = "half-round", "Half-round", "straight at the top, round below";
    }
}

/// A piece by name, size and cloth.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct AddedPiece {
    name: String,
    cloth: ClothOf,
    count: u32,
    width: Length,
    height: Length,
    seam: Length,
    shape: OwnShape,
    any_way: bool,
    step: String,
}

impl PartOn for AddedPiece {
    fn default_for(system: System) -> Self {
        let size = |eighths, tenths| default_length(system, eighths, tenths);
        Self {
            name: String::new(),
            cloth: ClothOf::Outer,
            count: 1,
            width: size(32, 100),
            height: size(32, 100),
            seam: Length::ZERO,
            shape: OwnShape::Rectangle,
            any_way: false,
            step: String::new(),
        }
    }

    fn fields(&mut self) -> Vec<Field<'_>> {
        let round = self.shape == OwnShape::Circle;
        let g = Group::Extras;
        vec![
            Field::text("name", "What you call it", g, &mut self.name),
            Field::count("count", "How many", g, &mut self.count, 1..=400),
            Field::choice("shape", "Its shape", g, &mut self.shape),
            Field::size("width", if round { "Across" } else { "Wide" }, g, &mut self.width).scaling(),
            Field::size("height", "Tall", g, &mut self.height).scaling().only_if(!round),
            Field::size("seam", "Seam to add all round; 0 if the size has it", g, &mut self.seam),
            Field::choice("cloth", "Its cloth", g, &mut self.cloth),
            Field::toggle("any_way", "It may lie any way", g, &mut self.any_way),
            Field::text("step", "What is done with it", g, &mut self.step),
        ]
    }

    fn own_name(&self) -> &str {
        &self.name
    }

    fn usual_name(&self) -> String {
        "Own piece".to_owned()
    }

    fn summary(&self, ruler: Ruler) -> String {
        let show = |l: Length| ruler.show(l).text;
        let seam = if self.seam > Length::ZERO { " and seams" } else { "" };
        let tall =
            if self.shape == OwnShape::Circle { " across".to_owned() } else { format!(" × {}", show(self.height)) };
        format!("{} × {}{tall}{seam}, {}", self.count, show(self.width), self.cloth.answer().name.to_lowercase())
    }

    /// It is cut whatever the bag is like.
    fn sides(&self) -> Vec<Side> {
        vec![]
    }

    fn problems(&self, _: &Ground<'_>, problems: &mut Problems) {
        if !refuse_beyond(self.clone().fields(), problems) {
            return;
        }
        problems.size("width", "width", self.width);
        if self.shape != OwnShape::Circle {
            problems.size("height", "height", self.height);
        }
        if self.seam != Length::ZERO {
            problems.between("seam", "seam", self.seam, Length::MILLIMETRE, Length::INCH * 4);
        }
        if self.shape == OwnShape::HalfRound && self.height < self.width / 2 {
            let text = format!("{} tall: a half-round is at least half as tall as wide.", problems.show(self.height));
            problems.refuse("height", self.height, text);
        }
    }

    fn onto(&self, on: &Ground<'_>, draft: &mut Draft) {
        let part = self.cloth.part();
        let side = |name, size, key| {
            on.sum(vec![on.once(name, size, key), on.times("seams, added all round", 2, self.seam, "seam")])
        };
        let (figure, height, key) = match self.shape {
            OwnShape::Rectangle => (Figure::Rectangle, self.height, "height"),
            OwnShape::Circle => (Figure::Circle, self.width, "width"),
            OwnShape::HalfRound => (Figure::HalfRound, self.height, "height"),
        };
        let piece = Piece::new(
            on.id("piece"),
            on.name.to_owned(),
            part,
            side("wide", self.width, "width"),
            side("tall", height, key),
        )
        .times(self.count)
        .shaped(figure);
        let free = self.any_way || part.is_backing();
        let piece = Piece {
            grain: if free { Grain::Any } else { Grain::Length },
            print: if free { PrintRule::Ignore } else { PrintRule::Upright },
            ..piece
        };
        draft.pieces.push(piece);
        if !self.step.is_empty() {
            let text = format!("{}: {}", on.name, crate::bag::field::sentence(&self.step));
            draft.add_step(on.step(Phase::Last, text));
        }
    }
}

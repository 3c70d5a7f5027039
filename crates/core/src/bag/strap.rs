//! Straps and handles. Common practice.

use super::draft::{Good, GoodKind, Stack};
use super::field::choice;
use crate::measure::{Length, Ruler};
use crate::piece::{Dimension, From, Grain, Mark, Part, Piece, Term};
use std::borrow::Cow;

choice! {
    /// How a strap is made.
    StrapMake {
        /// Both edges to the middle, then in half.
        FoldedInFour = "folded-in-four", "Folded in four", "cut four times as wide";
        /// Edges turned in, then folded once.
        TurnedIn = "turned-in", "Turned in and folded once", "cut twice as wide and two turns";
        /// Two layers, their edges turned in.
        TwoLayers = "two-layers", "Two layers", "each as wide and two turns";
        /// Sewn as a tube and turned.
        Tube = "tube", "Tube", "sewn along one side and turned right side out";
        /// Raw edges to the middle, a narrower inner strap over them.
        EdgesToMiddle = "edges-to-middle", "Edges to the middle", "vinyl: twice as wide, an inner strap covers the edges";
        /// Bought by the length.
        Webbing = "webbing", "Webbing", "bought by the length, nothing to fold";
    }
}

impl StrapMake {
    /// How wide a strap finishes that is cut `cut` wide, its edges turned in by `turn`; nothing when nothing is left.
    pub fn finished(self, cut: Length, turn: Length) -> Option<Length> {
        let finished = match self {
            Self::FoldedInFour => cut / 4,
            Self::TurnedIn | Self::Tube => (cut - turn * 2) / 2,
            Self::TwoLayers => cut - turn * 2,
            Self::EdgesToMiddle => cut / 2,
            Self::Webbing => cut,
        };
        (finished > Length::ZERO).then_some(finished)
    }
}

/// The drop of a handle that shows `visible` long, its ends `apart` centre to centre: √((L/2)² − (p/2)²), to the unit
/// below; nothing when it cannot span the distance.
pub fn drop(visible: Length, apart: Length) -> Option<Length> {
    let (half, leg) = (visible.0 as f64 / 2.0, apart.0 as f64 / 2.0);
    (half > leg).then(|| Length((half * half - leg * leg).sqrt() as i64))
}

/// A strap `width` wide when finished, from the bag's fields `strap_width` and `strap_make`.
pub struct Strap {
    /// How it is made.
    pub make: StrapMake,
    /// Finished width.
    pub width: Length,
    /// What its edges are turned in by.
    pub turn: Length,
}

impl Strap {
    /// How wide it is cut.
    pub fn cut_width(&self, ruler: Ruler) -> Dimension {
        let width = |name, times| Term::times(name, times, self.width, "strap_width");
        let turns = Term::times("turned in, both edges", 2, self.turn, "seam_side");
        let terms = match self.make {
            StrapMake::FoldedInFour => vec![width("finished strap, folded in four", 4)],
            StrapMake::TurnedIn => vec![width("finished strap, front and back", 2), turns],
            StrapMake::TwoLayers => vec![width("finished strap", 1), turns],
            StrapMake::Tube => vec![width("finished strap, front and back", 2), turns],
            StrapMake::EdgesToMiddle => vec![width("finished strap, front and back", 2)],
            StrapMake::Webbing => vec![width("as it is", 1)],
        };
        Dimension::sum(terms, ruler)
    }

    /// The lines its edges are folded to.
    pub fn folds(&self) -> Vec<Mark> {
        let fold =
            |name, distance| Mark { boxes: false, share: false, name, distance, from: From::SideEdges, and: None };
        match self.make {
            StrapMake::FoldedInFour => vec![fold("fold, then both edges to it".into(), self.width * 2)],
            StrapMake::TurnedIn | StrapMake::TwoLayers => vec![fold("turn in to here".into(), self.turn * 2)],
            StrapMake::EdgesToMiddle => vec![fold("fold, the edge to the middle".into(), self.width / 2)],
            StrapMake::Tube | StrapMake::Webbing => vec![],
        }
    }

    /// `count` straps with these lengths, as pieces or as lengths of webbing.
    pub fn made(
        &self,
        id: &'static str,
        name: &'static str,
        count: u32,
        length: Vec<Term>,
        ruler: Ruler,
    ) -> (Vec<Piece>, Vec<Good>) {
        let length = Dimension::sum(length, ruler);
        if self.make == StrapMake::Webbing {
            let good = Good { kind: GoodKind::Webbing, name: name.into(), count, length, width: Some(self.width) };
            return (vec![], vec![good]);
        }
        let layers = if self.make == StrapMake::TwoLayers { 2 } else { 1 };
        let mut pieces = vec![
            Piece::new(id, name, Part::Straps, self.cut_width(ruler), length.clone())
                .times(count * layers)
                .lying(Grain::Either)
                .marked(self.folds()),
        ];
        if self.make == StrapMake::EdgesToMiddle {
            // About 1/8 in narrower than the finished strap, so that it stays out of sight.
            let narrower = Length::inches(1, 8).min(self.width / 4);
            let inner = Dimension::sum(
                vec![
                    Term::once("finished strap", self.width, "strap_width"),
                    Term::times("narrower", -1, narrower, "strap_make"),
                ],
                ruler,
            );
            pieces.push(
                Piece::new(format!("{id}-inner"), format!("{name}, inner"), Part::Straps, inner, length)
                    .times(count)
                    .lying(Grain::Either)
                    .noted("covers the raw edges"),
            );
        }
        (pieces, vec![])
    }

    /// The layers where it lies on `under`.
    pub(super) fn on(
        &self,
        place: impl Into<Cow<'static, str>>,
        field: impl Into<Cow<'static, str>>,
        under: Vec<(Part, u32)>,
    ) -> Stack {
        let layers = [vec![(Part::Straps, self.layers())], under].concat();
        Stack { place: place.into(), field: field.into(), layers }
    }

    /// Layers of cloth where it is sewn down.
    pub fn layers(&self) -> u32 {
        match self.make {
            StrapMake::FoldedInFour => 4,
            StrapMake::TurnedIn | StrapMake::TwoLayers => 4,
            StrapMake::EdgesToMiddle => 3,
            StrapMake::Tube => 2,
            StrapMake::Webbing => 1,
        }
    }
}

/// The sentence about a drop, and whether it is likely a mistake; `show` writes a length with its unit.
pub fn about_drop(drop: Length, show: &dyn Fn(Length) -> String, ruler: Ruler) -> (bool, String) {
    let inch = Length::INCH;
    let shown = show(drop.round_to(ruler.step()));
    if drop < inch * 4 {
        (true, format!("A drop of {shown} is tight even for a hand: 5 to 6 in (13 to 15 cm) is usual."))
    } else if drop > inch * 7 && drop < inch * 17 / 2 {
        let usual = "5 to 6 in (13 to 15 cm), or 9 to 11 in (23 to 28 cm)";
        (true, format!("A drop of {shown} is long for the hand and short for a shoulder: {usual}."))
    } else if drop < inch * 17 / 2 {
        (false, format!("A drop of {shown} is carried by hand, not over a shoulder."))
    } else {
        let more = "a winter coat wants 2 to 4 in (5 to 10 cm) more strap";
        (false, format!("A drop of {shown} goes over a shoulder; {more}."))
    }
}

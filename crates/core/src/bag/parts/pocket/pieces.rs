//! What a pocket is cut as.

use super::{AddedPocket, PocketMake, inch, the_wall};
use crate::bag::binding::{BindingFold, binding};
use crate::bag::parts::Ground;
use crate::bag::round;
use crate::bag::wall::Wall;
use crate::measure::Length;
use crate::piece::{Dimension, From, Grain, Mark, Piece, Term};

impl AddedPocket {
    pub(super) fn cut_width(&self, wall: &Wall, on: &Ground<'_>) -> Dimension {
        if self.make == PocketMake::Sleeve {
            return on.sum(vec![
                on.once("round what stands in it, π × across", round::circumference(self.round), "round"),
                on.once("ease", self.ease, "ease"),
                on.times("less the wall behind it", -1, self.width, "width"),
                on.times("edges turned", 2, self.turn, "turn"),
            ]);
        }
        let mut terms = match wall.sides.filter(|_| self.full_width()) {
            Some((seam, field)) => vec![
                on.once("from side seam to side seam", self.sits(wall), "place"),
                Term::times("side seams", 2, seam, field),
            ],
            None if self.behind_webbing() => {
                vec![on.once("from middle to middle of the webbing", self.sits(wall), "place")]
            }
            None => vec![on.once("wide", self.width, "width"), on.times("edges turned", 2, self.turn, "turn")],
        };
        terms.insert(1, on.once("fuller than it sits, in pleats", self.fullness(wall), "fuller"));
        on.sum(terms)
    }

    /// What it takes below its finished foot, `times` over.
    pub(super) fn at_the_foot(&self, wall: &Wall, times: i64, on: &Ground<'_>) -> Vec<Term> {
        match wall.below.as_ref().filter(|_| self.reaches_base()) {
            Some(below) => below.iter().map(|t| Term { times: t.times * times, ..t.clone() }).collect(),
            None => vec![on.times("turned at the foot", times, self.turn, "turn")],
        }
    }

    pub(super) fn cut_height(&self, wall: &Wall, on: &Ground<'_>) -> Dimension {
        let tall = |times| on.times(if times == 2 { "tall, doubled" } else { "tall" }, times, self.height, "height");
        let terms = match self.make {
            PocketMake::Hemmed => {
                [vec![tall(1), on.once("hem", self.hem, "hem")], self.at_the_foot(wall, 1, on)].concat()
            }
            PocketMake::Doubled => [vec![tall(2)], self.at_the_foot(wall, 2, on)].concat(),
            PocketMake::Lined => {
                [vec![tall(1), on.once("seam at the top", self.turn, "turn")], self.at_the_foot(wall, 1, on)].concat()
            }
            PocketMake::Bound => [vec![tall(1)], self.at_the_foot(wall, 1, on)].concat(),
            PocketMake::Sleeve => vec![tall(1), on.times("hems, top and foot", 2, self.hem, "hem")],
            PocketMake::Zip | PocketMake::Welt => vec![
                on.times("hangs below the window, doubled", 2, self.height, "height"),
                on.times("the window, doubled", 2, self.opening, "opening"),
                on.times("above the window, both ends", 2, inch(on.ruler), "make"),
            ],
        };
        on.sum(terms)
    }

    /// The pocket itself, and its inner cloth.
    pub(super) fn laid_on(&self, wall: &Wall, on: &Ground<'_>) -> Vec<Piece> {
        let (width, height) = (self.cut_width(wall, on), self.cut_height(wall, on));
        let note = match self.make {
            PocketMake::Hemmed => "its top turned to the inside and stitched",
            PocketMake::Doubled => "folded at its top edge",
            PocketMake::Lined => "seamed to its lining, turned and pressed",
            PocketMake::Bound => "lies on its lining, the top edges bound together",
            _ => "its sides stitched beside the seam, its foot left to stand out",
        };
        let note = if self.behind_webbing() {
            format!("{note}; its raw sides lie under the middle of the webbing")
        } else if self.reaches_base() && self.full_width() {
            format!("{note}; notched with the panel once it lies on it")
        } else {
            note.to_owned()
        };
        let outside = Piece::new(on.id("pocket"), on.name.to_owned(), self.cloth.part(), width.clone(), height.clone())
            .noted(note)
            .marked(self.own_marks(wall, &height));
        let mut pieces = vec![outside];
        if self.make.has_inner() {
            let name = format!("{}, lining", on.name);
            pieces.push(Piece::new(on.id("lining"), name, self.inner.part(), width.clone(), height));
        }
        if self.make == PocketMake::Bound {
            let edge = vec![on.once("as wide as the pocket is cut", width.size, "width")];
            let strip = binding("binding", "binding", BindingFold::Double, self.binding, edge, on.ruler);
            let strip = on.relabelled(strip, &[("binding_width", "binding")]);
            pieces.push(Piece { id: on.id("binding").into(), name: format!("{}, binding", on.name).into(), ..strip });
        }
        pieces
    }

    /// The bag behind a window, and the strip that edges or fills it.
    pub(super) fn window(&self, wall: &Wall, on: &Ground<'_>) -> Vec<Piece> {
        let past =
            |name, by: Length| on.sum(vec![on.once("the window", self.width, "width"), on.once(name, by, "make")]);
        let one = inch(on.ruler);
        let bag = Piece::new(
            on.id("pocket"),
            format!("{}, bag", on.name),
            self.cloth.part(),
            past("beyond it, both ends", one * 2),
            self.cut_height(wall, on),
        )
        .noted("folded, its end on its beginning above the window");
        let strip = if self.make == PocketMake::Zip {
            let tall = on.sum(vec![
                on.once("the window", self.opening, "opening"),
                on.once("beyond it, above and below", one, "make"),
            ]);
            let name = format!("{}, window facing", on.name);
            Piece::new(on.id("facing"), name, self.inner.part(), past("beyond it, both ends", one), tall)
                .noted("sewn round the window right sides together, slit, turned through")
        } else {
            let tall = on.sum(vec![
                on.times("the window, doubled", 2, self.opening, "opening"),
                on.times("seams", 2, self.turn, "turn"),
            ]);
            let name = format!("{}, welt", on.name);
            Piece::new(on.id("welt"), name, self.inner.part(), past("beyond it, both ends", one * 2), tall)
                .noted("folded along its middle; fills the window from its lower edge")
        };
        vec![bag, strip]
    }

    /// Fold, hem and dividers on the pocket itself.
    pub(super) fn own_marks(&self, wall: &Wall, height: &Dimension) -> Vec<Mark> {
        let from_top = |name: String, distance| Mark {
            boxes: false,
            share: false,
            name: name.into(),
            distance,
            from: From::TopEdge,
            and: None,
        };
        let mut marks = match self.make {
            PocketMake::Doubled => vec![from_top("fold, the pocket’s top edge".into(), height.size / 2)],
            PocketMake::Hemmed | PocketMake::Sleeve => vec![from_top("fold of the hem".into(), self.hem)],
            _ => vec![],
        };
        let edge = if self.behind_webbing() {
            Length::ZERO
        } else {
            wall.sides.filter(|_| self.full_width()).map_or(self.turn, |(seam, _)| seam)
        };
        let widths = if self.fuller.is_empty() { self.divided(self.sits(wall)) } else { self.fuller.clone() };
        let mut at = edge;
        for (n, width) in widths.iter().enumerate().take(widths.len().saturating_sub(1)) {
            at += *width;
            let name = format!("divider {}, sewn on its mark on {}", n + 1, the_wall(wall.side));
            marks.push(Mark {
                boxes: false,
                share: false,
                name: name.into(),
                distance: at,
                from: From::LeftEdge,
                and: None,
            });
        }
        marks
    }

    pub(super) fn flap_pieces(&self, wall: &Wall, on: &Ground<'_>) -> Vec<Piece> {
        if !self.flap {
            return vec![];
        }
        let wide = on.sum(vec![
            on.once("as wide as the pocket", self.sits(wall), "width"),
            on.times("less the webbing, so that it opens", -1, self.under_webbing(wall), "place"),
            on.times("seams", 2, self.turn, "turn"),
        ]);
        let deep = on.sum(vec![
            on.once("hangs down", self.flap_depth, "flap_depth"),
            on.times("seams, top and edge", 2, self.turn, "turn"),
        ]);
        let name = format!("{}, flap", on.name);
        vec![
            Piece::new(on.id("flap"), name.clone(), self.cloth.part(), wide.clone(), deep.clone()),
            Piece::new(on.id("flap-lining"), format!("{name} lining"), self.inner.part(), wide, deep),
        ]
    }

    pub(super) fn backing(&self, wall: &Wall, on: &Ground<'_>) -> Option<Piece> {
        let part = self.behind.part().filter(|_| !self.make.is_window())?;
        let wide = on.sum(vec![on.once("wide, finished", self.sits(wall) + self.fullness(wall), "width")]);
        let tall = on.sum(vec![on.once("tall, finished", self.height, "height")]);
        let name = format!("{}, {}", on.name, self.behind.word());
        let piece = Piece::new(on.id(self.behind.word()), name, part, wide, tall)
            .lying(Grain::Any)
            .noted("clear of every seam and turn");
        Some(Piece { backs: Some(on.id("pocket").into()), ..piece })
    }
}

//! A bag from a tube that is sewn already: a trouser leg, a sleeve, a pillow slip. Its girth is given, not chosen; a
//! hem worth keeping becomes the mouth.
//!
//! Finished width = girth / 2 − depth at the base; cut length = H + D/2 + b, plus the mouth's hem unless it is kept, less
//! b where the closed end is. The lining is the tube again: half its girth at mouth and base, and two seams.

use super::Design;
use super::draft::{Draft, Finished, Notice, millilitres};
use super::field::{Field, Group, choice};
use super::order::{Phase, Step, in_order};
use super::problems::Problems;
use super::solid::{Solid, ThreadKind};
use super::strap::{self, Strap, StrapMake};
use super::wall::{Looks, Moves, Seen, Side, Wall};
use crate::FieldProblem;
use crate::measure::{Length, Ruler, System, default_length};
use crate::piece::{Dimension, Figure, Part, Piece, Term, When};

choice! {
    /// Which end of the tube is kept as it is. Once it was asked only whether its hem becomes the mouth.
    KeptEdge {
        /// The hem becomes the mouth.
        Mouth = "yes", "Its own hem is the mouth", "";
        /// The closed end becomes the base.
        Base = "base", "Its own end is the base", "closed flat, nothing is taken off there";
        /// Both are cut.
        Neither = "no", "Neither", "the mouth is hemmed, the base seamed";
    }
}

/// A bag from a tube, by what is measured on the tube and what is wanted of the bag.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct FoundTube {
    /// All round the tube where the mouth will be.
    pub girth_top: Length,
    /// All round it where the base will be.
    pub girth_base: Length,
    /// How much of it there is.
    pub tube_length: Length,
    /// Finished height.
    pub height: Length,
    /// Finished depth; 0 for a flat bag.
    pub depth: Length,
    /// Which of the tube's own ends is kept.
    pub kept: KeptEdge,
    /// First turn of the mouth's hem.
    pub hem_turn: Length,
    /// The hem's depth.
    pub hem_depth: Length,
    /// Whether it is lined.
    pub lined: bool,
    /// Whether it has two straps.
    pub straps: bool,
    /// How they are made.
    pub strap_make: StrapMake,
    /// Finished width.
    pub strap_width: Length,
    /// How much of each shows.
    pub strap_length: Length,
    /// The lining's side seams.
    pub seam_side: Length,
    /// Base seam.
    pub seam_base: Length,
}

impl FoundTube {
    /// A hem turned twice is three layers of the tube, and the lining.
    fn hem_layers(&self) -> Vec<(Part, u32)> {
        vec![(Part::Outer, 3), (Part::Lining, u32::from(self.lined))]
    }

    /// Half way round where it is narrowest, without the base's depth.
    fn narrowest(&self) -> Length {
        self.girth_top.min(self.girth_base) / 2 - self.depth
    }

    /// Centre to centre of a strap's ends.
    fn strap_spacing(&self) -> Length {
        self.girth_top / 6
    }

    /// The mouth is the tube's own hem.
    fn keeps_mouth(&self) -> bool {
        self.kept == KeptEdge::Mouth
    }

    fn steps(&self, show: &dyn Fn(Length) -> String) -> Vec<Step> {
        let press = "Cut the tube to length and press it flat, its seams to the sides or wherever they look best.";
        let corners = if self.depth > Length::ZERO { "; box the corners" } else { "" };
        let base = match self.kept {
            KeptEdge::Base => format!("Stitch the closed end flat{corners}."),
            _ => format!("Sew the base, {} from the edge{corners}.", show(self.seam_base)),
        };
        let sides = show(self.seam_side);
        let lining = format!(
            "Trace the tube for the lining and add its seams; sew its sides, {sides} from the edge, and its base; drop it in."
        );
        let mouth = match (self.keeps_mouth(), self.lined) {
            (true, true) => "Catch the lining under the tube’s own hem.".to_owned(),
            (true, false) => "The tube’s own hem is the mouth: nothing is sewn there.".to_owned(),
            (false, lined) => {
                let caught = if lined { ", the lining’s edge under it" } else { "" };
                format!("Hem the mouth, {} deep{caught}.", show(self.hem_depth))
            }
        };
        let straps = self.straps.then(|| Step::new(Phase::Small, "straps", "Make the straps."));
        let last = self.straps.then(|| Step::new(Phase::Last, "strap-ends", "Stitch the straps on."));
        let lining = self.lined.then(|| Step::new(Phase::Lining, "lining", lining));
        let outer = [Step::new(Phase::Flat, "tube", press), Step::new(Phase::Outer, "outer", base)];
        let mouth = [Step::new(Phase::Together, "mouth", mouth)];
        in_order(straps.into_iter().chain(outer).chain(lining).chain(mouth).chain(last))
    }

    /// What the base takes of the tube: nothing where its own closed end is kept.
    fn base_seam(&self) -> Length {
        if self.kept == KeptEdge::Base { Length::ZERO } else { self.seam_base }
    }

    /// On its seam lines as wide as the tube at mouth and base, whichever is wider.
    fn lining(&self, ruler: Ruler) -> Piece {
        let (top, base) = (self.girth_top, self.girth_base);
        let half = if top >= base {
            Term::once("half the tube’s girth, at the mouth", top / 2, "girth_top")
        } else {
            Term::once("half the tube’s girth, at the base", base / 2, "girth_base")
        };
        let wide = Dimension::sum(vec![half, Term::times("side seams", 2, self.seam_side, "seam_side")], ruler);
        let mut tall = vec![
            Term::once("tall", self.height, "height"),
            Term::once("half the depth", self.depth / 2, "depth"),
            Term::once("base seam", self.seam_base, "seam_base"),
        ];
        if self.keeps_mouth() {
            tall.push(Term::once("its edge turned in", self.seam_base, "seam_base"));
        }
        let tall = Dimension::sum(tall, ruler);
        let by = Length((top - base).0.abs() / 4).floor_to(ruler.step());
        let figure = match by {
            Length::ZERO => Figure::Rectangle,
            _ => Figure::Tapered(if top < base { by } else { -by }),
        };
        Piece::new("lining-panel", "Lining panel", Part::Lining, wide, tall)
            .times(2)
            .shaped(figure)
            .cut(When::Measured)
            .noted("trace the tube and compare before cutting")
    }

    /// All that cannot stand, each named by its field.
    fn problems(&self, ruler: Ruler) -> Result<(), Vec<FieldProblem>> {
        let mut problems = Problems::new(ruler);
        problems.size("girth_top", "girth at the mouth", self.girth_top);
        problems.size("girth_base", "girth at the base", self.girth_base);
        problems.size("tube_length", "tube", self.tube_length);
        problems.size("height", "height", self.height);
        let least = self.girth_base.min(self.girth_top);
        problems.between("depth", "depth", self.depth, Length::ZERO, least / 4);
        problems.seam("seam_base", "base seam", self.seam_base, self.height, "the height");
        if self.lined {
            problems.seam("seam_side", "side seam", self.seam_side, least / 4, "a quarter of the girth");
        }
        if !self.keeps_mouth() {
            problems.seam("hem_turn", "first turn of the hem", self.hem_turn, self.height, "the height");
            problems.seam("hem_depth", "hem", self.hem_depth, self.height, "the height");
        }
        let cut = self.cut_length(ruler);
        if cut.size > self.tube_length {
            let message = format!(
                "The bag takes {} of the tube, which is {} long: make it lower or less deep.",
                problems.show(cut.size),
                problems.show(self.tube_length)
            );
            problems.refuse("height", self.height, message);
        }
        if self.straps {
            problems.between("strap_width", "strap", self.strap_width, Length::MILLIMETRE * 5, least / 8);
            problems.between("strap_length", "strap", self.strap_length, least / 4, Length::METRE * 5);
        }
        problems.end()
    }

    /// What is cut off the tube.
    fn cut_length(&self, ruler: Ruler) -> Dimension {
        let mut terms = vec![
            Term::once("tall", self.height, "height"),
            Term::once("half the depth", self.depth / 2, "depth"),
            Term::once("base seam", self.base_seam(), "seam_base"),
        ];
        if !self.keeps_mouth() {
            terms.push(Term::once("hem", self.hem_depth, "hem_depth"));
            terms.push(Term::once("turned under", self.hem_turn, "hem_turn"));
        }
        Dimension::sum(terms, ruler)
    }
}

impl Design for FoundTube {
    fn default_for(system: System) -> Self {
        let size = |eighths, tenths| default_length(system, eighths, tenths);
        Self {
            girth_top: size(176, 560),
            girth_base: size(152, 480),
            tube_length: size(240, 760),
            height: size(112, 360),
            depth: size(24, 80),
            kept: KeptEdge::Mouth,
            hem_turn: size(3, 10),
            hem_depth: size(10, 30),
            lined: true,
            straps: true,
            strap_make: StrapMake::FoldedInFour,
            strap_width: size(8, 25),
            strap_length: size(192, 600),
            seam_side: size(4, 10),
            seam_base: size(4, 10),
        }
    }

    fn fields(&mut self) -> Vec<Field<'_>> {
        let (kept, straps, lined) = (self.keeps_mouth(), self.straps, self.lined);
        vec![
            Field::size("girth_top", "All round, at the mouth", Group::Size, &mut self.girth_top),
            Field::size("girth_base", "All round, at the base", Group::Size, &mut self.girth_base),
            Field::size("tube_length", "How long the tube is", Group::Size, &mut self.tube_length),
            Field::size("height", "Tall, finished", Group::Size, &mut self.height).scaling(),
            Field::size("depth", "Deep; 0 for a flat bag", Group::Base, &mut self.depth).scaling(),
            Field::choice("keep_hem", "Which end of the tube is kept", Group::Mouth, &mut self.kept),
            Field::size("hem_turn", "Turned under first", Group::Mouth, &mut self.hem_turn).only_if(!kept),
            Field::size("hem_depth", "Hem", Group::Mouth, &mut self.hem_depth).only_if(!kept),
            Field::toggle("lined", "Lined", Group::Lining, &mut self.lined),
            Field::toggle("straps", "Two straps", Group::Straps, &mut self.straps),
            Field::choice("strap_make", "How they are made", Group::Straps, &mut self.strap_make).only_if(straps),
            Field::size("strap_width", "Finished width", Group::Straps, &mut self.strap_width).only_if(straps),
            Field::size("strap_length", "How much shows", Group::Straps, &mut self.strap_length)
                .reaching()
                .only_if(straps),
            Field::seam("seam_side", "The lining’s side seams", &mut self.seam_side).only_if(lined),
            Field::seam("seam_base", "Base seam", &mut self.seam_base),
        ]
    }

    fn seen(&self) -> Vec<(Group, Seen)> {
        let spacing = self.strap_spacing();
        let Some(drop) = strap::drop(self.strap_length, spacing).filter(|_| self.straps) else { return vec![] };
        let cloth = (self.strap_make != StrapMake::Webbing).then_some(Part::Straps);
        let handle = |side| Seen {
            side,
            looks: Looks::Handle { cloth, wide: self.strap_width, drop },
            left: (self.narrowest() - spacing - self.strap_width) / 2,
            down: Length::ZERO,
            width: spacing + self.strap_width,
            height: Length::ZERO,
            moves: Moves::default(),
        };
        [Side::Front, Side::Back].map(|side| (Group::Straps, handle(side))).into()
    }

    fn walls(&self, ruler: Ruler) -> Vec<Wall> {
        let tube = Wall::new(Side::Front, "tube", (self.narrowest(), self.height), self.depth / 2, Length::ZERO);
        let inch = default_length(ruler.system(), 8, 25);
        let caught = if self.keeps_mouth() {
            vec![Term::times("inside the hem, both ends", 2, inch, "keep_hem")]
        } else {
            vec![Term::times("inside the hem, both ends", 2, self.hem_depth, "hem_depth")]
        };
        // It is there already: nothing of it is cut, and what is marked is marked on the tube.
        let tube = Wall { piece: None, ..tube }.open(caught, self.hem_layers());
        vec![tube.clone(), tube.on(Side::Back)]
    }

    fn draft(&self, ruler: Ruler) -> Result<Draft, Vec<FieldProblem>> {
        self.problems(ruler)?;
        let cut = self.cut_length(ruler);
        let show = |l: Length| Problems::new(ruler).show(l);
        let mut pieces = vec![];
        let mut goods = vec![];
        if self.lined {
            pieces.push(self.lining(ruler));
        }
        let drop = strap::drop(self.strap_length, self.strap_spacing());
        let mut stacks = vec![];
        if self.straps {
            let strap = Strap { make: self.strap_make, width: self.strap_width, turn: self.seam_side };
            let ends = default_length(ruler.system(), 16, 50);
            let terms = vec![
                Term::once("showing", self.strap_length, "strap_length"),
                Term::times("tucked and stitched, both ends", 2, ends, "straps"),
            ];
            let (made, bought) = strap.made("strap", "Strap", 2, terms, ruler);
            pieces.extend(made);
            goods.extend(bought);
            stacks.push(strap.on("a strap is stitched over the hem", "strap_make", self.hem_layers()));
        }
        let mut notices = vec![Notice::note(
            "height",
            format!(
                "Cut {} off the tube{}.",
                show(cut.size),
                match self.kept {
                    KeptEdge::Mouth => ", measured from its hem",
                    KeptEdge::Base => ", measured from its closed end",
                    KeptEdge::Neither => "",
                }
            ),
        )];
        if self.straps && self.strap_make != StrapMake::Webbing {
            let rest = self.tube_length - cut.size;
            notices.push(Notice::note(
                "tube_length",
                format!("{} of the tube are left: opened up, a strip of straps may come from it.", show(rest)),
            ));
        }
        let flat = self.girth_base / 2;
        Ok(Draft {
            pieces,
            goods,
            steps: self.steps(&show),
            notices,
            stacks,
            strap_drop: if self.straps { drop } else { None },
            strap_spacing: self.straps.then(|| self.strap_spacing()),
            millilitres: millilitres(flat - self.depth, self.height, self.depth),
            ..Draft::default()
        })
    }

    fn finished_from_cut(&self, draft: &Draft) -> Vec<Finished> {
        let mut found = vec![];
        if let Some(lining) = draft.piece("lining-panel") {
            let turned = if self.keeps_mouth() { self.seam_base } else { Length::ZERO };
            let tall = lining.height.size - self.depth / 2 - self.seam_base - turned;
            found.push(Finished { name: "tall".into(), field: "height".into(), asked: self.height, back: tall });
        }
        found
    }

    /// The tube is as it was found; its lining is traced.
    fn seams(&self, _: Ruler) -> Vec<super::sewn::Seam> {
        vec![]
    }

    fn solid(&self, draft: &Draft) -> Solid {
        let (top, base) = (self.girth_top.0 as f64 / 2.0, self.girth_base.0 as f64 / 2.0);
        let (h, d) = (self.height.0 as f64, self.depth.0 as f64);
        let (wt, wb) = (top - d, base - d);
        let shift = (wt - wb) / 2.0;
        let inside = if self.lined { Part::Lining } else { Part::Outer };
        let mut solid = Solid::default();
        if d > 0.0 {
            solid = solid
                .face([[-shift, h, 0.0], [-shift, h, d], [wb + shift, h, d], [wb + shift, h, 0.0]], inside, 3)
                .face([[wb, 0.0, 0.0], [wb, 0.0, d], [wb + shift, h, d], [wb + shift, h, 0.0]], Part::Outer, 2);
        }
        solid = solid.face([[0.0; 3], [wb, 0.0, 0.0], [wb + shift, h, 0.0], [-shift, h, 0.0]], Part::Outer, 0);
        let narrow = (wb - wt.min(wb)) / 2.0;
        solid = solid.flat_front([narrow, h, 0.0], [narrow, 0.0, 0.0]);
        let hem = h - self.hem_depth.0 as f64;
        solid = solid.thread(ThreadKind::Stitch, [[-shift, hem, 0.0], [wb + shift, hem, 0.0]]);
        if let Some(drop) = draft.strap_drop {
            let (a, b) = (wb / 3.0, wb * 2.0 / 3.0);
            solid = solid.back_handle([a, h, d], [b, h, d], drop.0 as f64, self.strap_width).handle(
                [a, h, 0.0],
                [b, h, 0.0],
                drop.0 as f64,
                self.strap_width,
            );
        }
        let solid = solid.grip("height", [-shift, 0.0, 0.0], [-shift, h, 0.0]);
        if d > 0.0 { solid.grip("depth", [wb, 0.0, 0.0], [wb, 0.0, d]) } else { solid }
    }
}

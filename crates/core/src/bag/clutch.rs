//! A clutch: one body folded into front, back and flap, with a band across the flap.
//!
//! Body (W + 2s) × (2H + flap + s at the mouth + s at the flap's edge), lining alike; band W + 2s long, its finished
//! height + 2 turns.

use super::Design;
use super::backing::{Allowances, BackingChoice, BackingCloth, BackingSchool};
use super::draft::{Draft, Finished, Hardware, Notice};
use super::extras::{Extras, Place};
use super::field::{Field, Group};
use super::order::{Phase, Step, in_order};
use super::pocket::{PocketChoice, PocketKind};
use super::problems::Problems;
use super::sewn::{Edge, Seam, Stretch};
use super::solid::{Solid, ThreadKind};
use super::wall::{Seen, Side, Wall};
use crate::FieldProblem;
use crate::measure::{Length, Ruler, System, default_length};
use crate::piece::{Dimension, Figure, From, Mark, Part, Piece, Term};

/// A clutch by its finished sizes.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Clutch {
    /// Finished width.
    pub width: Length,
    /// Finished height, closed.
    pub height: Length,
    /// How far the flap hangs down the front.
    pub flap: Length,
    /// Radius of the flap's corners; 0 for square ones.
    pub radius: Length,
    /// Finished height of the band; 0 for none.
    pub band: Length,
    /// A wrist loop.
    pub loop_: bool,
    /// Its finished width.
    pub strap_width: Length,
    /// The pocket on the lining.
    pub pocket: PocketChoice,
    /// What lies behind it.
    pub backing: BackingChoice,
    /// Loops, tabs, a label, a closure.
    pub extras: Extras,
    /// Seams at the sides.
    pub seam_side: Length,
    /// Seams at mouth and flap.
    pub seam_top: Length,
}

impl Clutch {
    fn body(&self, id: &'static str, name: &'static str, part: Part, ruler: Ruler) -> Piece {
        let wide = Dimension::sum(
            vec![Term::once("wide", self.width, "width"), Term::times("side seams", 2, self.seam_side, "seam_side")],
            ruler,
        );
        let tall = Dimension::sum(
            vec![
                Term::times("tall, front and back", 2, self.height, "height"),
                Term::once("flap", self.flap, "flap"),
                Term::times("seams, mouth and flap", 2, self.seam_top, "seam_top"),
            ],
            ruler,
        );
        let fold = |name, distance| Mark { boxes: false, share: false, name, distance, from: From::TopEdge, and: None };
        let marks = [
            fold("fold of the base".into(), self.seam_top + self.height),
            fold("fold of the flap".into(), self.seam_top + self.height * 2),
        ];
        // The flap's end lies at the base edge of the piece: its corners are the lower ones.
        let figure =
            if self.radius > Length::ZERO { Figure::Rounded(self.radius + self.seam_top) } else { Figure::Rectangle };
        Piece::new(id, name, part, wide, tall).shaped(figure).marked(marks)
    }
}

impl Design for Clutch {
    fn default_for(system: System) -> Self {
        let size = |eighths, tenths| default_length(system, eighths, tenths);
        Self {
            width: size(80, 260),
            height: size(48, 150),
            flap: size(36, 110),
            radius: size(12, 40),
            band: size(10, 30),
            loop_: true,
            strap_width: size(4, 12),
            pocket: PocketChoice {
                width: size(48, 160),
                height: size(28, 90),
                below: size(8, 30),
                ..PocketChoice::default_for(PocketKind::None, system)
            },
            backing: BackingChoice { school: BackingSchool::FullSize, cloth: BackingCloth::Interfacing },
            extras: Extras::default_for(system),
            seam_side: size(3, 10),
            seam_top: size(3, 10),
        }
    }

    fn fields(&mut self) -> Vec<Field<'_>> {
        let loop_ = self.loop_;
        let mut all = vec![
            Field::size("width", "Wide", Group::Size, &mut self.width).scaling(),
            Field::size("height", "Tall, closed", Group::Size, &mut self.height).scaling(),
            Field::size("flap", "How far the flap hangs down", Group::Closure, &mut self.flap).scaling(),
            Field::size("radius", "Radius of its corners; 0 for square", Group::Closure, &mut self.radius),
            Field::size("band", "Band, finished; 0 for none", Group::Front, &mut self.band).scaling(),
            Field::toggle("loop", "A wrist loop", Group::Straps, &mut self.loop_),
            Field::size("strap_width", "Its finished width", Group::Straps, &mut self.strap_width).only_if(loop_),
        ];
        all.extend(self.pocket.fields(true));
        all.extend(self.backing.fields("Behind the outer"));
        all.extend([
            Field::seam("seam_side", "Side seams", &mut self.seam_side),
            Field::seam("seam_top", "Seams at mouth and flap", &mut self.seam_top),
        ]);
        all.extend(self.extras.fields(false));
        all
    }

    fn update_dependents(&mut self, key: &str, system: System) {
        self.pocket.update_dependents(key, system);
    }

    fn seen(&self) -> Vec<(Group, Seen)> {
        self.pocket.seen(true, self.width)
    }

    fn walls(&self, _: Ruler) -> Vec<Wall> {
        let (face, side) = ((self.width, self.height), (self.seam_side, "seam_side"));
        // The body's upper end is the front, under the flap; the back hangs from the fold of the flap.
        let front = Wall::new(Side::Front, "outer-panel", face, self.seam_side, self.seam_top).between(side);
        let inside = Wall { piece: Some("lining-panel"), ..front.on(Side::InsideFront) };
        let fold = self.seam_top + self.flap;
        vec![front.clone(), front.on(Side::Back).turned(fold), inside.clone(), inside.on(Side::InsideBack).turned(fold)]
    }

    fn draft(&self, ruler: Ruler) -> Result<Draft, Vec<FieldProblem>> {
        let mut problems = Problems::new(ruler);
        problems.size("width", "width", self.width);
        problems.size("height", "height", self.height);
        problems.between("flap", "flap", self.flap, self.height / 4, self.height);
        problems.seam("seam_side", "side seam", self.seam_side, self.width / 2, "half the width");
        problems.seam("seam_top", "seam", self.seam_top, self.flap, "the flap");
        problems.between("radius", "radius", self.radius, Length::ZERO, self.flap.min(self.width / 2));
        problems.between("band", "band", self.band, Length::ZERO, self.flap);
        self.pocket.problems(self.width, self.height, &mut problems);
        if self.loop_ {
            problems.between("strap_width", "loop", self.strap_width, Length::MILLIMETRE * 5, self.height / 2);
        }
        problems.end()?;
        let outer = self.body("outer-panel", "Body", Part::Outer, ruler);
        let within = Allowances { side: self.seam_side, top: self.seam_top, base: self.seam_top, corner: Length::ZERO };
        let backed = self.backing.behind(&outer, within, ruler);
        let mut pieces = vec![outer, self.body("lining-panel", "Lining", Part::Lining, ruler)];
        if self.band > Length::ZERO {
            let long = Dimension::sum(
                vec![
                    Term::once("wide", self.width, "width"),
                    Term::times("side seams", 2, self.seam_side, "seam_side"),
                ],
                ruler,
            );
            let tall = Dimension::sum(
                vec![
                    Term::once("band", self.band, "band"),
                    Term::times("edges turned under", 2, self.seam_top, "seam_top"),
                ],
                ruler,
            );
            pieces.push(
                Piece::new("band", "Band", Part::Contrast, long, tall)
                    .noted("its ends are caught in the side seams of the flap"),
            );
        }
        if self.loop_ {
            let strap = super::strap::Strap {
                make: super::strap::StrapMake::FoldedInFour,
                width: self.strap_width,
                turn: self.seam_side,
            };
            let terms = vec![
                Term::once("round a wrist, doubled", default_length(ruler.system(), 96, 300), "loop"),
                Term::times("caught, both ends", 2, self.seam_side, "seam_side"),
            ];
            pieces.extend(strap.made("loop", "Wrist loop", 1, terms, ruler).0);
        }
        let pocket = self.pocket.pocket(true, self.seam_side);
        pocket.onto(&mut pieces, self.width, self.seam_top + self.pocket.below, ruler);
        pieces.extend(backed);
        let mut notices = vec![Notice::note(
            "height",
            "In one piece over base and flap the front of a one-way print hangs upside down when the flap stands: choose an all-over print.",
        )];
        if self.strap_width < Length::MILLIMETRE * 10 && self.loop_ {
            notices.push(Notice::note(
                "strap_width",
                "A loop this narrow is four layers thick: use a ring that is as wide, and thin cloth.",
            ));
        }
        let show = |l: Length| Problems::new(ruler).show(l);
        notices.extend(pocket.notices(self.height - self.pocket.below, &show));
        let mut hardware = vec![Hardware {
            name: "Magnetic snap".into(),
            count: 1,
            size: None,
            note: "centred on the flap, on a scrap of firm backing".into(),
        }];
        hardware.extend(pocket.hardware(ruler));
        let band = (self.band > Length::ZERO)
            .then(|| Step::new(Phase::Flat, "band", "Turn the band’s edges under and stitch it on the flap."));
        let steps = self.backing.step().into_iter().chain(band).chain(pocket.step()).chain([
            Step::new(Phase::Flat, "snap", "Set the snap: solid surface, fingers clear, eyes protected."),
            Step::new(
                Phase::Outer,
                "outer",
                format!(
                    "Fold the body at the base and sew its sides below the flap, {} from the edge, the loop caught in one.",
                    show(self.seam_side)
                ),
            ),
            Step::new(Phase::Lining, "lining", "Sew the lining the same way, with a gap in one side."),
            Step::new(
                Phase::Together,
                "flap",
                "Sew body and lining together round flap and mouth, turn, press, topstitch.",
            ),
        ]);
        let mut draft = Draft { pieces, hardware, steps: in_order(steps), notices, ..Draft::default() };
        let place = Place {
            outer: "outer-panel",
            outer_top: self.seam_top,
            lining_top: Some(self.seam_top),
            face: self.height,
            seam: self.seam_side,
        };
        self.extras.onto(&mut draft, &place, false, ruler);
        Ok(draft)
    }

    fn finished_from_cut(&self, draft: &Draft) -> Vec<Finished> {
        let Some(body) = draft.piece("outer-panel") else { return vec![] };
        let fold = body.marks.iter().find(|m| m.name == "fold of the flap").map_or(Length::ZERO, |m| m.distance);
        let mut found = vec![
            Finished {
                name: "wide".into(),
                field: "width".into(),
                asked: self.width,
                back: body.width.size - self.seam_side * 2,
            },
            Finished {
                name: "tall".into(),
                field: "height".into(),
                asked: self.height,
                back: (fold - self.seam_top) / 2,
            },
            Finished {
                name: "flap".into(),
                field: "flap".into(),
                asked: self.flap,
                back: body.height.size - fold - self.seam_top,
            },
        ];
        if let Some(band) = draft.piece("band") {
            found.push(Finished {
                name: "band".into(),
                field: "band".into(),
                asked: self.band,
                back: band.height.size - self.seam_top * 2,
            });
        }
        found
    }

    fn seams(&self, _: Ruler) -> Vec<Seam> {
        let of = |body, edge, seam, ends| Stretch::new(body, edge, seam, ends);
        let mut seams = vec![
            Seam::new(
                "along the mouth",
                "flap",
                of("outer-panel", Edge::Top, self.seam_top, self.seam_side * 2),
                of("lining-panel", Edge::Top, self.seam_top, self.seam_side * 2),
            ),
            Seam::new(
                "sides and flap",
                "flap",
                of("outer-panel", Edge::Side, self.seam_side, self.seam_top * 2),
                of("lining-panel", Edge::Side, self.seam_side, self.seam_top * 2),
            ),
        ];
        if self.band > Length::ZERO {
            seams.push(Seam::new(
                "band across the flap",
                "band",
                of("band", Edge::Top, self.seam_top, self.seam_side * 2),
                of("outer-panel", Edge::Base, self.seam_top, self.seam_side * 2),
            ));
        }
        seams
    }

    fn solid(&self, _: &Draft) -> Solid {
        let (w, h, f) = (self.width.0 as f64, self.height.0 as f64, self.flap.0 as f64);
        let r = self.radius.0 as f64;
        let low = h - f;
        let mut flap: Vec<[f64; 3]> = vec![[w, h, 0.0], [0.0, h, 0.0]];
        for (cx, from) in [(r, 1.0), (w - r, 1.5)] {
            flap.extend((0..=8).map(|i| {
                let angle = std::f64::consts::PI * (from + f64::from(i) / 16.0);
                [cx + r * angle.cos(), low + r + r * angle.sin(), 0.0]
            }));
        }
        let mut solid = Solid::default()
            .face([[0.0; 3], [w, 0.0, 0.0], [w, h, 0.0], [0.0, h, 0.0]], Part::Outer, 1)
            .face(flap, Part::Outer, 0);
        if self.band > Length::ZERO {
            let b = self.band.0 as f64;
            let y = low + f * 0.3;
            solid = solid.face([[0.0, y, 0.0], [w, y, 0.0], [w, y + b, 0.0], [0.0, y + b, 0.0]], Part::Contrast, 0);
        }
        if self.loop_ {
            solid = solid.strap(
                [
                    [w, h * 0.8, 0.0],
                    [w * 1.12, h * 0.7, 0.0],
                    [w * 1.12, h * 0.2, 0.0],
                    [w * 1.06, h * 0.15, 0.0],
                    [w, h * 0.72, 0.0],
                ],
                self.strap_width,
            );
        }
        solid.thread(ThreadKind::Stitch, [[0.0, low + r, 0.0], [0.0, h, 0.0]]).sizes(w, h, 0.0)
    }
}

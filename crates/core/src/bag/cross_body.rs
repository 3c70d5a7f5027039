//! A cross-body bag: a pieced or plain upper, a base of faux leather, a zip at the mouth, an adjustable strap.
//!
//! Panel (W + D + 2s) × (H + D/2 + b + t) as any boxed bag, split at the height of the base: each side of that seam
//! takes one allowance. Strap: longest + round a ring and a slider; a short tab holds the other ring.

use super::Design;
use super::backing::{Allowances, BackingChoice, BackingCloth, BackingSchool};
use super::boxing::Corner;
use super::draft::{Draft, Finished, Good, Hardware, Notice, millilitres};
use super::extras::{Extras, Place};
use super::field::{Field, Group};
use super::order::{Phase, Step, in_order};
use super::piecing::{Patchwork, Piecing};
use super::pocket::{PocketChoice, PocketKind};
use super::problems::Problems;
use super::sewn::{Edge, Seam, Stretch, boxed};
use super::solid::{Solid, ThreadKind};
use super::strap::{Strap, StrapMake};
use super::wall::{Seen, Side, Wall};
use super::zip::{sliders_field, with_sliders, zip};
use crate::FieldProblem;
use crate::measure::{Length, Ruler, System, default_length};
use crate::piece::{Dimension, Figure, Part, Piece, Term};

/// A cross-body bag by its finished sizes.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct CrossBody {
    /// Finished width at the base.
    pub width: Length,
    /// Finished height.
    pub height: Length,
    /// Finished depth.
    pub depth: Length,
    /// How far the base cloth comes up the front.
    pub base_height: Length,
    /// How the upper is made up.
    pub front: Patchwork,
    /// How many sliders the zip has.
    pub zip_sliders: u32,
    /// How the strap is made.
    pub strap_make: StrapMake,
    /// Its finished width.
    pub strap_width: Length,
    /// Its longest wearing length.
    pub strap_length: Length,
    /// The pocket on the lining.
    pub pocket: PocketChoice,
    /// What lies behind it.
    pub backing: BackingChoice,
    /// Loops, tabs, a label, a closure.
    pub extras: Extras,
    /// Side seams.
    pub seam_side: Length,
    /// Base seam, and the seam of upper and base.
    pub seam_base: Length,
    /// The zip's seam.
    pub seam_top: Length,
}

impl CrossBody {
    /// Upper, base and lining, what there is to say of the upper's patches, and what lies behind it.
    fn panels(&self, ruler: Ruler) -> (Vec<Piece>, Vec<Notice>, Vec<Piece>) {
        let upper_height = Dimension::sum(
            vec![
                Term::once("tall", self.height, "height"),
                Term::times("less the base cloth", -1, self.base_height, "base_height"),
                Term::once("seam to the base", self.seam_base, "seam_base"),
                Term::once("zip seam", self.seam_top, "seam_top"),
            ],
            ruler,
        );
        let base_height = Dimension::sum(
            vec![
                Term::once("base cloth", self.base_height, "base_height"),
                Term::once("half the depth", self.depth / 2, "depth"),
                Term::times("seams, upper and base", 2, self.seam_base, "seam_base"),
            ],
            ruler,
        );
        let upper = Piece::new("upper", "Upper", Part::Outer, self.across(ruler), upper_height).times(2);
        let within =
            Allowances { side: self.seam_side, top: self.seam_top, base: self.seam_base, corner: self.seam_base };
        let backed = self.backing.behind(&upper, within, ruler);
        let (mut pieces, notices) = self.front.of(upper, ruler);
        pieces.push(
            Piece::new("base", "Base", Part::Base, self.across(ruler), base_height)
                .times(2)
                .shaped(self.corner().figure(ruler)),
        );
        let lining_height = Dimension::sum(
            vec![
                Term::once("tall", self.height, "height"),
                Term::once("half the depth", self.depth / 2, "depth"),
                Term::once("base seam", self.seam_base, "seam_base"),
                Term::once("zip seam", self.seam_top, "seam_top"),
            ],
            ruler,
        );
        pieces.push(
            Piece::new("lining-panel", "Lining panel", Part::Lining, self.across(ruler), lining_height)
                .times(2)
                .shaped(self.corner().figure(ruler)),
        );
        (pieces, notices, backed)
    }

    /// The adjustable strap and the tabs of its rings.
    fn strap(&self, ruler: Ruler) -> (Strap, Vec<Piece>, Vec<Good>) {
        let strap = Strap { make: self.strap_make, width: self.strap_width, turn: self.seam_side };
        let round = default_length(ruler.system(), 16, 50);
        let (mut pieces, mut goods) = strap.made(
            "strap",
            "Strap",
            1,
            vec![
                Term::once("longest", self.strap_length, "strap_length"),
                Term::once("round the ring", round, "strap_width"),
                Term::once("round the slider", default_length(ruler.system(), 12, 40), "strap_width"),
            ],
            ruler,
        );
        let (tabs, bought) = strap.made(
            "tab",
            "Ring tab",
            2,
            vec![Term::times("round the ring, and caught", 2, round, "strap_width")],
            ruler,
        );
        pieces.extend(tabs);
        goods.extend(bought);
        (strap, pieces, goods)
    }

    /// All that cannot stand, each named by its field.
    fn problems(&self, ruler: Ruler) -> Result<(), Vec<FieldProblem>> {
        let mut problems = Problems::new(ruler);
        for (field, value) in [("width", self.width), ("height", self.height), ("depth", self.depth)] {
            problems.size(field, field, value);
        }
        problems.between("depth", "depth", self.depth, Length::MILLIMETRE * 2, self.width);
        self.corner().problems(&mut problems);
        problems.seam("seam_side", "side seam", self.seam_side, self.width / 2, "half the width");
        problems.seam("seam_base", "base seam", self.seam_base, self.height / 4, "a quarter of the height");
        problems.seam("seam_top", "zip seam", self.seam_top, self.height / 4, "a quarter of the height");
        problems.between("base_height", "base cloth", self.base_height, self.seam_base * 2, self.height * 3 / 4);
        if self.front.piecing != Piecing::Whole {
            problems.seam(
                "patch_seam",
                "seam between patches",
                self.front.seam,
                self.width / 8,
                "an eighth of the width",
            );
        }
        problems.with(self.front.problem(ruler));
        self.pocket.problems(self.width, self.height, &mut problems);
        problems.between("strap_width", "strap", self.strap_width, Length::MILLIMETRE * 5, self.width / 2);
        problems.between("strap_length", "strap's length", self.strap_length, self.width, Length::METRE * 3);
        problems.end()
    }

    fn across(&self, ruler: Ruler) -> Dimension {
        Dimension::sum(
            vec![
                Term::once("wide", self.width, "width"),
                Term::once("deep", self.depth, "depth"),
                Term::times("side seams", 2, self.seam_side, "seam_side"),
            ],
            ruler,
        )
    }

    /// The seam across the corners is as wide as the base seam.
    fn corner(&self) -> Corner {
        let base = (self.seam_base, "seam_base");
        Corner { depth: self.depth, side: (self.seam_side, "seam_side"), base: Some(base), boxing: base }
    }
}

impl Design for CrossBody {
    fn default_for(system: System) -> Self {
        let size = |eighths, tenths| default_length(system, eighths, tenths);
        Self {
            width: size(72, 230),
            height: size(68, 220),
            depth: size(16, 50),
            base_height: size(24, 80),
            front: Patchwork::by_turns(Piecing::Grid, (4, 3), size(2, 7)),
            zip_sliders: 1,
            strap_make: StrapMake::EdgesToMiddle,
            strap_width: size(8, 25),
            strap_length: size(416, 1300),
            pocket: PocketChoice::default_for(PocketKind::None, system),
            backing: BackingChoice { school: BackingSchool::TwoStage, cloth: BackingCloth::Interfacing },
            extras: Extras::default_for(system),
            seam_side: size(3, 10),
            seam_base: size(3, 10),
            seam_top: size(3, 10),
        }
    }

    fn fields(&mut self) -> Vec<Field<'_>> {
        let mut all = vec![
            Field::size("width", "Wide, at the base", Group::Size, &mut self.width).scaling(),
            Field::size("height", "Tall", Group::Size, &mut self.height).scaling(),
            Field::size("depth", "Deep", Group::Size, &mut self.depth).scaling(),
            Field::size("base_height", "Base cloth, up the front", Group::Base, &mut self.base_height).scaling(),
        ];
        all.extend(self.front.fields("How the upper is made up"));
        all.push(sliders_field(Group::Closure, &mut self.zip_sliders));
        all.extend([
            Field::choice("strap_make", "How the strap is made", Group::Straps, &mut self.strap_make),
            Field::size("strap_width", "Finished width", Group::Straps, &mut self.strap_width),
            Field::size("strap_length", "Longest wearing length", Group::Straps, &mut self.strap_length).reaching(),
        ]);
        all.extend(self.pocket.fields(true));
        all.extend(self.backing.fields("Behind the upper"));
        all.extend([
            Field::seam("seam_side", "Side seams", &mut self.seam_side),
            Field::seam("seam_base", "Base seams", &mut self.seam_base),
            Field::seam("seam_top", "Zip seam", &mut self.seam_top),
        ]);
        all.extend(self.extras.fields(false));
        all
    }

    fn update_dependents(&mut self, key: &str, system: System) {
        self.pocket.update_dependents(key, system);
    }

    fn patchwork_mut(&mut self) -> Option<(&'static str, &mut Patchwork)> {
        Some(("upper", &mut self.front))
    }

    fn seen(&self) -> Vec<(Group, Seen)> {
        self.pocket.seen(true, self.width)
    }

    fn walls(&self, _: Ruler) -> Vec<Wall> {
        let (side, base) = ((self.seam_side, "seam_side"), (self.seam_base, "seam_base"));
        let beside = self.seam_side + self.depth / 2;
        // The upper ends where the base cloth begins: that seam catches what reaches its foot.
        let upper = (self.width, self.height - self.base_height);
        let front =
            Wall::new(Side::Front, "upper", upper, beside, self.seam_top).between(side).based(Length::ZERO, base);
        let face = (self.width, self.height);
        let inside = Wall::new(Side::InsideFront, "lining-panel", face, beside, self.seam_top);
        let inside = inside.between(side).based(self.depth / 2, base);
        vec![front.clone(), front.on(Side::Back), inside.clone(), inside.on(Side::InsideBack)]
    }

    fn draft(&self, ruler: Ruler) -> Result<Draft, Vec<FieldProblem>> {
        self.problems(ruler)?;
        let show = |l: Length| Problems::new(ruler).show(l);
        let (mut pieces, mut notices, backed) = self.panels(ruler);
        let pocket = self.pocket.pocket(true, self.seam_side);
        pocket.onto(&mut pieces, self.width, self.seam_top + self.pocket.below, ruler);
        notices.extend(pocket.notices(self.height - self.pocket.below, &show));
        let (strap, made, goods) = self.strap(ruler);
        pieces.extend(made);
        pieces.extend(backed);
        let teeth = self.width + self.depth - default_length(ruler.system(), 4, 10) * 2;
        let ring = |name, count| Hardware { name, count, size: Some(self.strap_width), note: "inside width".into() };
        let mut hardware = vec![
            with_sliders(zip("Zip", teeth, "the mouth less ½ in (1 cm) at both ends", ruler), self.zip_sliders),
            ring("D-ring".into(), 2),
            ring("Swivel hook".into(), 2),
            ring("Slider".into(), 1),
        ];
        hardware.extend(pocket.hardware(ruler));
        let shortest = (self.strap_length / 2 + self.strap_width * 2).round_to(ruler.step());
        notices.push(Notice::note(
            "strap_length",
            format!(
                "The strap wears from about {} to {}; across the body 48 to 55 in (120 to 140 cm) is usual.",
                show(shortest),
                show(self.strap_length)
            ),
        ));
        notices.push(Notice::note("base_height", "Faux leather is clipped, never pinned: holes stay. No iron on its face, and no more than four layers under the foot."));
        // Doubled round the ring, between both outers.
        let tab = vec![(Part::Straps, strap.layers()), (Part::Outer, 2)];
        let stacks = vec![strap.on("a ring tab is caught in the side seam", "strap_make", tab)];
        notices.extend(self.corner().notice(ruler));
        if self.depth > self.width / 2 {
            notices.push(Notice::attention("depth", "Boxed deeper than half the width: the bag stands squat."));
        }
        if self.base_height < self.depth / 2 {
            notices.push(Notice::attention(
                "base_height",
                "The seam of upper and base lands under the bag: take the base cloth higher than half the depth.",
            ));
        }
        let pieced = (self.front.piecing != Piecing::Whole)
            .then(|| Step::new(Phase::Bare, "piece-upper", "Piece the uppers and trim them to size."));
        let mut draft = Draft {
            pieces,
            goods,
            hardware,
            steps: in_order(pieced.into_iter().chain(self.backing.step()).chain(pocket.step()).chain([
                Step::new(Phase::Small, "straps", "Make the strap and its ring tabs."),
                Step::new(Phase::Flat, "upper", "Sew each upper to its base and topstitch."),
                Step::new(Phase::Together, "zip", "Sew the zip between outer and lining, both sides."),
                Step::new(
                    Phase::Together,
                    "sides",
                    "Open the zip. Sew outer to outer and lining to lining at the sides and the base, ring tabs caught at the sides, a gap in the lining’s base.",
                ),
                Step::new(Phase::Together, "corners", "Box the corners, turn, close the gap."),
                Step::new(Phase::Last, "strap", "Thread the strap through slider and ring."),
            ])),
            notices,
            stacks,
            millilitres: millilitres(self.width, self.height, self.depth),
            ..Draft::default()
        };
        let place = Place {
            outer: "upper",
            outer_top: self.seam_top,
            lining_top: Some(self.seam_top),
            face: self.height - self.base_height,
            seam: self.seam_side,
        };
        self.extras.onto(&mut draft, &place, false, ruler);
        Ok(draft)
    }

    fn finished_from_cut(&self, draft: &Draft) -> Vec<Finished> {
        let (Some(base), Some(lining)) = (draft.piece("base"), draft.piece("lining-panel")) else { return vec![] };
        let deep = match &base.figure {
            Figure::CutOut { up, .. } => up.size * 2,
            _ => Length::ZERO,
        };
        let mut found = vec![
            Finished {
                name: "wide".into(),
                field: "width".into(),
                asked: self.width,
                back: base.width.size - self.seam_side * 2 - deep,
            },
            Finished {
                name: "tall".into(),
                field: "height".into(),
                asked: self.height,
                back: lining.height.size - deep / 2 - self.seam_base - self.seam_top,
            },
            Finished { name: "deep".into(), field: "depth".into(), asked: self.depth, back: deep },
        ];
        if let Some(upper) = draft.piece("upper") {
            let both = upper.height.size + base.height.size - self.seam_base * 3 - self.seam_top - deep / 2;
            found.push(Finished {
                name: "tall, upper and base".into(),
                field: "height".into(),
                asked: self.height,
                back: both,
            });
        }
        found
    }

    fn seams(&self, _: Ruler) -> Vec<Seam> {
        let (side, base, top) = (self.seam_side, self.seam_base, self.seam_top);
        let mut seams = vec![Seam::new(
            "upper to base",
            "upper",
            Stretch::new("upper", Edge::Base, base, side * 2),
            Stretch::new("base", Edge::Top, base, side * 2),
        )];
        for piece in ["upper", "base", "lining-panel"] {
            seams.push(Seam::like("side seam", "sides", Stretch::new(piece, Edge::Side, side, Length::ZERO)));
        }
        for piece in ["base", "lining-panel"] {
            seams.extend(boxed(piece, ["sides", "corners"], side, base, base));
        }
        seams.push(Seam::new(
            "along the zip",
            "zip",
            Stretch::new("upper", Edge::Top, top, side * 2),
            Stretch::new("lining-panel", Edge::Top, top, side * 2),
        ));
        seams
    }

    fn solid(&self, _: &Draft) -> Solid {
        let (w, h, d, b) = (self.width.0 as f64, self.height.0 as f64, self.depth.0 as f64, self.base_height.0 as f64);
        let front = if self.front.piecing == Piecing::Whole { Part::Outer } else { Part::Contrast };
        let mut solid = Solid::closed_box(w, h, d, Part::Outer)
            .face([[0.0, b, 0.0], [w, b, 0.0], [w, h, 0.0], [0.0, h, 0.0]], front, 0)
            .face([[w, 0.0, 0.0], [w, 0.0, d], [w, b, d], [w, b, 0.0]], Part::Base, 2)
            .face([[0.0; 3], [w, 0.0, 0.0], [w, b, 0.0], [0.0, b, 0.0]], Part::Base, 0)
            .thread(ThreadKind::Zip, [[w * 0.05, h, d / 2.0], [w * 0.95, h, d / 2.0]]);
        if matches!(self.front.piecing, Piecing::Grid | Piecing::Strips | Piecing::Triangles) {
            for i in 1..self.front.columns {
                let x = w * f64::from(i) / f64::from(self.front.columns);
                solid = solid.thread(ThreadKind::Stitch, [[x, b, 0.0], [x, h, 0.0]]);
            }
            for i in 1..if self.front.piecing == Piecing::Strips { 1 } else { self.front.rows } {
                let y = b + (h - b) * f64::from(i) / f64::from(self.front.rows);
                solid = solid.thread(ThreadKind::Stitch, [[0.0, y, 0.0], [w, y, 0.0]]);
            }
        }
        solid.loose_strap((w, h, d), self.strap_width).sizes(w, h, d)
    }
}

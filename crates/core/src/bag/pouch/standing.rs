//! A pouch that stands on a flat base, half-round or rounded above, its zip round the curve. Common practice.
//!
//! Faces (W + 2s) × (H + 2s), straight at the base, their upper corners rounded by r; half-round, by W/2. Round them goes a
//! ring as long as base and curve, C = (W − 2r) + πr + 2(H − r) on the seam line: two strips with the zip between, Z + 2j long, and the base strip, W + C − Z + 2j; j joins them. A strip of the
//! zip is half of what the depth leaves beside the zip, with its seams: (D − shows)/2 + s + z.

use super::{Pouch, PouchStyle};
use crate::bag::order::{Phase, Step};
use crate::bag::problems::Problems;
use crate::bag::round;
use crate::bag::sewn::{Edge, Seam, Stretch};
use crate::bag::solid::{Solid, ThreadKind};
use crate::measure::{Length, Ruler};
use crate::piece::{Dimension, From, Mark, Part, Piece, Term};

/// Of the curve from left to right so much is turned away from who looks at the solid.
const TURNS_AWAY: f64 = 1.0 / 3.0;

impl Pouch {
    /// By how much the upper corners of a face are rounded.
    fn radius(&self) -> Length {
        if self.style == PouchStyle::StandingRounded { self.corner_radius } else { self.width / 2 }
    }

    /// From base corner to base corner over the top of a face, on the seam line.
    fn curve(&self) -> Length {
        let r = self.radius();
        round::round_half(r * 2, r) + (self.width - r * 2) + (self.height - r) * 2
    }

    pub(super) fn standing_problems(&self, problems: &mut Problems) {
        if self.style == PouchStyle::StandingRounded {
            let most = (self.width / 2).min(self.height);
            problems.between("corner_radius", "radius", self.corner_radius, Length::MILLIMETRE * 5, most);
        }
        if self.height >= self.radius() {
            let least = Length::CENTIMETRE * 5;
            problems.between("zip_round", "zip, round the curve,", self.zip_round, least, self.curve());
        }
        let most = self.depth - Length::CENTIMETRE;
        problems.between("zip_shows", "zip that shows", self.zip_shows, Length::ZERO, most.max(Length::ZERO));
    }

    /// The strips at the zip, and the one under the base and up the sides.
    pub(super) fn ring(&self, [zip_id, base_id]: [&'static str; 2], part: Part, ruler: Ruler) -> [Piece; 2] {
        let named = |name: &str| match part {
            Part::Lining => format!("Lining {}", name.to_lowercase()),
            _ => name.to_owned(),
        };
        let joins = || Term::times("joined at both ends", 2, self.seam_top, "seam_top");
        let beside = (self.depth - self.zip_shows) / 2;
        let strip = Dimension::sum(
            vec![
                Term::once("half of what the zip leaves of the depth", beside, "depth"),
                Term::once("seam round the face", self.seam_side, "seam_side"),
                Term::once("zip seam", self.seam_top, "seam_top"),
            ],
            ruler,
        );
        let along = Dimension::sum(vec![Term::once("along the zip", self.zip_round, "zip_round"), joins()], ruler);
        let wide = Dimension::sum(
            vec![Term::once("deep", self.depth, "depth"), Term::times("seams", 2, self.seam_side, "seam_side")],
            ruler,
        );
        let rest = Dimension::sum(
            vec![
                Term::once("under the base", self.width, "width"),
                Term::once("round the curve, on the seam line", self.curve(), "height"),
                Term::times("less the zip", -1, self.zip_round, "zip_round"),
                joins(),
            ],
            ruler,
        );
        let middle = |of: &Dimension, name: &'static str| Mark {
            boxes: false,
            share: true,
            name: name.into(),
            distance: of.size / 2,
            from: From::TopEdge,
            and: None,
        };
        let (top, base) = (middle(&along, "middle, at the top of the curve"), middle(&rest, "middle, under the base"));
        [
            Piece::new(zip_id, named("Zip strip"), part, strip, along).times(2).marked([top]),
            Piece::new(base_id, named("Base strip"), part, wide, rest)
                .marked([base])
                .noted("under the base and up both sides to the zip; clip it at the corners"),
        ]
    }

    pub(super) fn standing_seams(&self) -> Vec<Seam> {
        let (side, top) = (self.seam_side, self.seam_top);
        let outer = ("outer-panel", ["zip-strip", "base-strip"], ["ring", "outer"]);
        let lining = ("lining-panel", ["lining-zip-strip", "lining-base-strip"], ["lining", "lining"]);
        let along = |piece| Stretch::new(piece, Edge::Side, top, top * 2);
        let other = if self.lined { "lining-zip-strip" } else { "zip-strip" };
        let mut seams = vec![Seam::new("along the zip", "zip", along("zip-strip"), along(other))];
        for (face, [zip, base], [ring, round]) in [outer].into_iter().chain(self.lined.then_some(lining)) {
            // Between the strips what shows of the zip is sewn to the base strip too.
            let strips = Stretch::new(zip, Edge::Top, top, side + top).times(2);
            let ends = Seam::new("zip to base strip", ring, Stretch::new(base, Edge::Top, top, side * 2), strips);
            seams.push(ends.easing(self.zip_shows));
            let all_round =
                Stretch::new(zip, Edge::Side, side, top * 2).then(Stretch::new(base, Edge::Side, side, top * 2));
            seams.push(Seam::new(
                "round the face",
                round,
                Stretch::new(face, Edge::Round, side, Length::ZERO),
                all_round,
            ));
        }
        seams
    }

    pub(super) fn standing_steps(&self) -> Vec<Step> {
        let between = if self.lined { ", outer on one side of its tape and lining on the other," } else { "" };
        let zip = format!("Sew the zip between its strips{between} turn them away from the teeth, and topstitch.");
        let ring = "Sew the ends of the zip strips to those of the base strip: a ring. Open the zip.";
        let outer = "Sew one face into the ring and then the other, the middle of its base on that of the base strip; clip the strip at the corners and round the curve.";
        let lining = "Sew the lining’s base strip and faces to its zip strips the same way, a gap in its base.";
        let turn =
            if self.lined { "Turn through the gap and close it." } else { "Turn it right side out through the zip." };
        let steps = [
            Some(Step::new(Phase::Together, "zip", zip)),
            Some(Step::new(Phase::Together, "ring", ring)),
            Some(Step::new(Phase::Together, "outer", outer)),
            self.lined.then(|| Step::new(Phase::Together, "lining", lining)),
            Some(Step::new(Phase::Last, "turn", turn)),
        ];
        steps.into_iter().flatten().collect()
    }

    pub(super) fn standing_solid(&self, w: f64, h: f64, d: f64) -> Solid {
        let r = (self.radius().0 as f64).min(w / 2.0).min(h);
        // Two quarters of a circle with what is straight between them, which is passed in the middle.
        let on_curve = |share: f64, z: f64| {
            let angle = std::f64::consts::PI * share;
            let centre = if share < 0.5 { r } else { w - r };
            [centre - r * angle.cos(), h - r + r * angle.sin(), z]
        };
        let face = |z: f64| -> Vec<[f64; 3]> {
            let curve = (0..=25).rev().map(|i| on_curve(f64::from(i) / 25.0, z));
            [[0.0, 0.0, z], [w, 0.0, z]].into_iter().chain(curve).collect()
        };
        // The zip, as far down both sides as it goes round: its share of the quarters, and what is straight.
        let (turns, straight) = (std::f64::consts::PI * r, w - 2.0 * r);
        let half = (self.zip_round.0 as f64 - straight).max(0.0) / 2.0 / turns.max(1.0);
        let to = (0.5 + half).min(1.0);
        let from = (1.0 - to).max(TURNS_AWAY);
        let zip = (0..=17).map(|i| on_curve(from + (to - from) * f64::from(i) / 17.0, d / 2.0));
        let mut solid = Solid::default().face(face(d), Part::Outer, 2);
        for i in (0..25).filter(|i| f64::from(*i) / 25.0 >= TURNS_AWAY) {
            let (a, b) = (f64::from(i) / 25.0, f64::from(i + 1) / 25.0);
            solid = solid.face([on_curve(a, 0.0), on_curve(a, d), on_curve(b, d), on_curve(b, 0.0)], Part::Outer, 2);
        }
        solid
            .face([[w, 0.0, 0.0], [w, 0.0, d], [w, h - r, d], [w, h - r, 0.0]], Part::Outer, 2)
            .face(face(0.0), Part::Outer, 0)
            .flat_front([0.0, h, 0.0], [0.0; 3])
            .thread(ThreadKind::Zip, zip.collect::<Vec<_>>())
            .sizes(w, h, d)
    }
}

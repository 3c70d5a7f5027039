//! The mouth: one choice that says what outer, lining, binding and strap ends take at the top. Common practice.
//!
//! Turned through: outer and lining take the top seam. Dropped in: both are turned in, and the lining ends 1/16 in
//! below the edge. Bound: neither takes anything (t = 0). Band: a doubled strip f deep is the top of the bag, both lose
//! f and take its seam. Hem: the outer is turned twice over the lining's raw edge. Facing: cut f + t + p, the lining its
//! full height − f − t + p with t and p the top seam. Facing over a lining of full height: both take t, the facing f + t and
//! its turned edge, or a seam to a zip.

use super::binding::{self, BindingFold};
use super::boxing::Named;
use super::draft::Hardware;
use super::field::{Choice, Field, Group, choice};
use super::order::{Phase, Step};
use super::problems::Problems;
use super::solid::Solid;
use super::zip::{sliders_field, with_sliders, zip};
use crate::FieldProblem;
use crate::measure::{Length, Ruler, System, default_length};
use crate::piece::{Dimension, Grain, Part, Piece, Term};
use std::borrow::Cow;

choice! {
    /// How the mouth is finished.
    Mouth {
        /// Outer and lining joined by a seam and turned right side out through a gap.
        TurnedThrough = "turned-through", "Turned through", "outer and lining joined by a seam";
        /// The outer turned twice to the inside; a lining's raw edge is tucked under the hem.
        DoubleHem = "double-hem", "Hem", "turned twice; a lining is tucked under";
        /// A facing inside the mouth, a recessed zip caught in its lower seam.
        FacingZip = "facing-zip", "Facing and recessed zip", "a band inside the mouth, the zip panel caught below it";
        /// The lining set in, both edges turned to meet, topstitched.
        DroppedIn = "dropped-in", "Lining dropped in", "both edges turned in and topstitched together; no gap to close";
        /// Raw edges closed by a binding.
        Bound = "bound", "Bound", "raw edges closed by a binding; no allowance at the top";
        /// A facing turned in over a lining that is as tall as the outer.
        FacingOver = "facing", "Facing over the lining", "a band turned to the inside, over a lining of full height";
        /// The same, with a zip between the free edges of the band.
        ZipBand = "zip-band", "Zip in a band", "a band inside the mouth, the zip between its free edges";
        /// A doubled band over the raw edges.
        Band = "band", "Band", "a doubled strip of another cloth is the top of the bag";
    }
}

/// How far below the edge a lining that is dropped in ends: 1/16 in or 1.5 mm.
const BELOW_THE_EDGE: Length = Length(Length::MILLIMETRE.0 * 3 / 2);

/// A mouth with its sizes; which of them say something depends on its kind.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct MouthFinish {
    /// How it is finished.
    pub kind: Mouth,
    /// Seam when it is turned through, faced or banded.
    pub seam: Length,
    /// Hem: turned under first.
    pub hem_turn: Length,
    /// Hem: its depth.
    pub hem_depth: Length,
    /// Finished depth of the facing.
    pub facing_depth: Length,
    /// Dropped in: how far both edges are turned in.
    pub turned_in: Length,
    /// Finished depth of the band.
    pub band_depth: Length,
    /// Finished width of the binding.
    pub binding_width: Length,
    /// How the binding is folded.
    pub binding_fold: BindingFold,
    /// By how much the zip is shorter than the mouth.
    pub zip_short: Length,
    /// How wide each half of a recessed zip panel shows; nothing for half the depth.
    pub zip_panel: Length,
    /// How many sliders the zip has.
    pub zip_sliders: u32,
    /// How far the zip hangs out past one end, its end covered; nothing for not at all.
    pub zip_tail: Length,
}

/// The walls a mouth goes round.
pub(super) struct Around {
    /// Finished width of the front, and its field.
    pub width: Named,
    /// Finished depth.
    pub depth: Length,
    /// Seams at the sides.
    pub seam_side: Length,
    /// How wide each wall is cut, and how many of it.
    pub walls: Vec<(Dimension, u32)>,
}

impl MouthFinish {
    /// A middling one of `kind`, its seam as the bag's others.
    pub(super) fn default_for(kind: Mouth, seam: Length, system: System) -> Self {
        let size = |eighths, tenths| default_length(system, eighths, tenths);
        Self {
            kind,
            seam,
            hem_turn: size(4, 10),
            hem_depth: size(12, 40),
            facing_depth: size(20, 60),
            turned_in: size(6, 20),
            band_depth: size(16, 50),
            binding_width: size(4, 10),
            binding_fold: BindingFold::Double,
            zip_short: size(16, 50),
            zip_panel: Length::ZERO,
            zip_sliders: 1,
            zip_tail: Length::ZERO,
        }
    }

    /// Outer, or lining and outer, end in a seam here.
    pub(super) fn has_seam(&self) -> bool {
        matches!(self.kind, Mouth::TurnedThrough | Mouth::FacingZip | Mouth::Band | Mouth::FacingOver | Mouth::ZipBand)
    }

    /// A zip closes it: nothing hangs in it, and no closure is needed.
    pub(super) fn is_zipped(&self) -> bool {
        matches!(self.kind, Mouth::FacingZip | Mouth::ZipBand)
    }

    /// A facing is turned to its inside.
    fn is_faced(&self) -> bool {
        matches!(self.kind, Mouth::FacingZip | Mouth::FacingOver | Mouth::ZipBand)
    }

    /// Nothing closes it without a lining.
    pub(super) fn needs_lining(&self) -> bool {
        matches!(self.kind, Mouth::TurnedThrough | Mouth::FacingZip | Mouth::DroppedIn)
    }

    /// The bag is turned right side out through a gap.
    pub(super) fn needs_gap(&self) -> bool {
        matches!(self.kind, Mouth::TurnedThrough | Mouth::FacingZip)
    }

    /// Its fields.
    pub(super) fn fields(&mut self) -> Vec<Field<'_>> {
        let (kind, seamed, zipped, faced) = (self.kind, self.has_seam(), self.is_zipped(), self.is_faced());
        let turned = matches!(kind, Mouth::DroppedIn | Mouth::FacingOver);
        vec![
            Field::choice("mouth", "How the mouth is finished", Group::Mouth, &mut self.kind),
            Field::size("hem_turn", "Turned under first", Group::Mouth, &mut self.hem_turn)
                .only_if(kind == Mouth::DoubleHem),
            Field::size("hem_depth", "Hem", Group::Mouth, &mut self.hem_depth).only_if(kind == Mouth::DoubleHem),
            Field::size("facing_depth", "Facing, finished", Group::Mouth, &mut self.facing_depth)
                .scaling()
                .only_if(faced),
            Field::size("zip_short", "The zip is shorter than the mouth by", Group::Mouth, &mut self.zip_short)
                .only_if(zipped),
            Field::size(
                "zip_panel",
                "Each half of the zip panel; 0 for half the depth",
                Group::Mouth,
                &mut self.zip_panel,
            )
            .only_if(kind == Mouth::FacingZip),
            sliders_field(Group::Mouth, &mut self.zip_sliders).only_if(zipped),
            Field::size("zip_tail", "The zip hangs out past one end; 0 for not", Group::Mouth, &mut self.zip_tail)
                .only_if(zipped),
            Field::size(
                "turned_in",
                if kind == Mouth::FacingOver {
                    "The facing’s free edge turned under"
                } else {
                    "Both edges turned in"
                },
                Group::Mouth,
                &mut self.turned_in,
            )
            .only_if(turned),
            Field::size("band_depth", "Band, finished", Group::Mouth, &mut self.band_depth)
                .scaling()
                .only_if(kind == Mouth::Band),
            Field::size("binding_width", "Binding, finished", Group::Binding, &mut self.binding_width)
                .only_if(kind == Mouth::Bound),
            Field::choice("binding_fold", "The binding is", Group::Binding, &mut self.binding_fold)
                .only_if(kind == Mouth::Bound),
            Field::seam("seam_top", "Top seam", &mut self.seam).only_if(seamed),
        ]
    }

    /// What cannot stand on a bag this tall.
    pub(super) fn problems(&self, height: Length, problems: &mut Problems) {
        if self.has_seam() {
            problems.seam("seam_top", "top seam", self.seam, height, "the height");
        }
        let least = Length::MILLIMETRE * 20;
        match self.kind {
            Mouth::DoubleHem => {
                problems.seam("hem_turn", "first turn of the hem", self.hem_turn, height, "the height");
                problems.seam("hem_depth", "hem", self.hem_depth, height, "the height");
            }
            Mouth::FacingZip | Mouth::ZipBand => {
                problems.between("facing_depth", "facing", self.facing_depth, least, height / 2);
            }
            Mouth::FacingOver => {
                problems.between("facing_depth", "facing", self.facing_depth, least, height / 2);
                problems.seam("turned_in", "turned edge", self.turned_in, self.facing_depth, "the facing");
            }
            Mouth::DroppedIn => {
                problems.seam("turned_in", "turned edge", self.turned_in, height / 4, "a quarter of the height");
            }
            Mouth::Band => problems.between("band_depth", "band", self.band_depth, least, height / 2),
            Mouth::Bound => {
                let least = Length::MILLIMETRE * 4;
                problems.between("binding_width", "binding", self.binding_width, least, height / 4);
            }
            Mouth::TurnedThrough => {}
        }
    }

    /// A mouth that nothing closes without a lining, on a bag that has none.
    pub(super) fn unlined_problem(&self) -> FieldProblem {
        let message = "This mouth needs a lining: add one, or choose a hem, a band or a binding.";
        FieldProblem::new("mouth", self.kind.answer().key, message)
    }

    /// What the outer takes above its finished height.
    pub(super) fn outer(&self) -> Vec<Term> {
        match self.kind {
            Mouth::TurnedThrough | Mouth::FacingZip | Mouth::FacingOver | Mouth::ZipBand => {
                vec![Term::once("top seam", self.seam, "seam_top")]
            }
            Mouth::DoubleHem => vec![
                Term::once("hem", self.hem_depth, "hem_depth"),
                Term::once("turned under", self.hem_turn, "hem_turn"),
            ],
            Mouth::DroppedIn => vec![Term::once("turned in", self.turned_in, "turned_in")],
            Mouth::Bound => vec![],
            Mouth::Band => self.below_band(),
        }
    }

    /// What the outer's raw edge takes at the mouth: what a band takes off the panel is no seam of it.
    pub(super) fn edge(&self) -> Length {
        self.outer().iter().map(Term::value).filter(|v| *v > Length::ZERO).sum()
    }

    /// What the lining takes above its finished height.
    pub(super) fn lining(&self) -> Vec<Term> {
        match self.kind {
            Mouth::TurnedThrough | Mouth::FacingOver | Mouth::ZipBand => {
                vec![Term::once("top seam", self.seam, "seam_top")]
            }
            // Under a hem the lining's raw edge reaches the finished mouth and no further.
            Mouth::DoubleHem | Mouth::Bound => vec![],
            Mouth::FacingZip => vec![
                Term::times("less the facing", -1, self.facing_depth, "facing_depth"),
                Term::once("seam to the facing", self.seam, "seam_top"),
            ],
            Mouth::DroppedIn => vec![
                Term::once("turned in", self.turned_in, "turned_in"),
                Term::times("ends below the edge", -1, BELOW_THE_EDGE, "mouth"),
            ],
            Mouth::Band => self.below_band(),
        }
    }

    fn below_band(&self) -> Vec<Term> {
        vec![
            Term::times("less the band", -1, self.band_depth, "band_depth"),
            Term::once("seam to the band", self.seam, "seam_top"),
        ]
    }

    /// What the two ends of a strap take that is caught in it: past the stitching by an inch (2.5 cm), in a hem down to
    /// its stitching.
    pub(super) fn caught(&self, system: System) -> Vec<Term> {
        let past = |name, length, field| {
            let inch = default_length(system, 8, 25);
            vec![Term::times(name, 2, length, field), Term::times("past the seam, both ends", 2, inch, "strap_ends")]
        };
        match self.kind {
            Mouth::TurnedThrough | Mouth::FacingZip | Mouth::Band | Mouth::FacingOver | Mouth::ZipBand => {
                past("top seam, both ends", self.seam, "seam_top")
            }
            Mouth::DroppedIn => past("turned in, both ends", self.turned_in, "turned_in"),
            Mouth::Bound => past("under the binding, both ends", self.binding_width, "binding_width"),
            Mouth::DoubleHem => vec![Term::times("inside the hem, both ends", 2, self.hem_depth, "hem_depth")],
        }
    }

    /// The pieces and hardware of the mouth itself.
    pub(super) fn made(&self, around: &Around, ruler: Ruler) -> (Vec<Piece>, Vec<Hardware>) {
        match self.kind {
            Mouth::TurnedThrough | Mouth::DoubleHem | Mouth::DroppedIn => (vec![], vec![]),
            Mouth::Bound => {
                let edge = vec![
                    Term::times("round the mouth, wide", 2, around.width.0, around.width.1),
                    Term::times("round the mouth, deep", 2, around.depth, "depth"),
                    Term::once("to join on the bias", default_length(ruler.system(), 80, 250), "binding_fold"),
                ];
                let bound = binding::binding("binding", "Binding", self.binding_fold, self.binding_width, edge, ruler);
                (vec![bound], vec![])
            }
            Mouth::Band => {
                let deep = Dimension::sum(
                    vec![
                        Term::times("band, doubled", 2, self.band_depth, "band_depth"),
                        Term::times("seams to outer and lining", 2, self.seam, "seam_top"),
                    ],
                    ruler,
                );
                let note = "folded along its middle over the raw edges of outer and lining";
                (on_each_wall(around, "band", "Band", Part::Contrast, &deep, note), vec![])
            }
            Mouth::FacingZip => self.facing(around, ruler),
            Mouth::FacingOver | Mouth::ZipBand => self.facing_over(around, ruler),
        }
    }

    /// The teeth of a zip that is shorter than the mouth.
    fn teeth(&self, width: Length, depth: Length) -> Length {
        width + depth - self.zip_short
    }

    /// A zip that hardly opens, or that is longer than the mouth; on a bag `width` wide and `depth` deep.
    pub(super) fn zip_problems(&self, width: Length, depth: Length, problems: &mut Problems) {
        if !self.is_zipped() {
            return;
        }
        let (mouth, least) = (width + depth, Length::INCH * 3);
        problems.between("zip_short", "the zip, shorter than the mouth", self.zip_short, Length::ZERO, mouth);
        if self.zip_short >= Length::ZERO && self.teeth(width, depth) < least {
            let message = format!(
                "The mouth is {} wide and the zip {} shorter: a zip of less than {} hardly opens.",
                problems.show(mouth),
                problems.show(self.zip_short),
                problems.show(least)
            );
            problems.refuse("zip_short", self.zip_short, message);
        }
        problems.between("zip_tail", "the zip’s tail", self.zip_tail, Length::ZERO, mouth);
        if self.kind == Mouth::FacingZip && self.zip_panel != Length::ZERO {
            problems.between("zip_panel", "zip panel", self.zip_panel, Length::CENTIMETRE, mouth);
        }
    }

    /// Facing f deep over a lining of full height: f + t, and its free edge turned under or sewn to a zip.
    fn facing_over(&self, around: &Around, ruler: Ruler) -> (Vec<Piece>, Vec<Hardware>) {
        let free = match self.kind {
            Mouth::ZipBand => Term::once("seam to the zip", self.seam, "seam_top"),
            _ => Term::once("free edge, turned under", self.turned_in, "turned_in"),
        };
        let deep = Dimension::sum(
            vec![
                Term::once("facing", self.facing_depth, "facing_depth"),
                Term::once("top seam", self.seam, "seam_top"),
                free,
            ],
            ruler,
        );
        let zipped = self.kind == Mouth::ZipBand;
        let note = if zipped {
            "its free edges are sewn to the zip, and to each other past it"
        } else {
            "turned in over the lining, its free edge stitched"
        };
        let pieces = on_each_wall(around, "facing", "Facing", Part::Outer, &deep, note);
        if !zipped {
            return (pieces, vec![]);
        }
        let teeth = self.teeth(around.width.0, around.depth);
        let (end, zip) = self.zip(teeth, "in the middle of the mouth, shorter at both ends", ruler);
        (pieces.into_iter().chain(end).collect(), vec![zip])
    }

    /// The zip with its sliders and its tail, and what covers the end that hangs out.
    fn zip(&self, teeth: Length, why: &str, ruler: Ruler) -> (Option<Piece>, Hardware) {
        let show = |l: Length| format!("{} {}", ruler.show(l).text, ruler.system().symbol());
        let hangs = self.zip_tail > Length::ZERO;
        let why = if hangs { format!("{why}, {} past one end", show(self.zip_tail)) } else { why.to_owned() };
        let bought = with_sliders(zip("Zip", teeth + self.zip_tail, &why, ruler), self.zip_sliders);
        let side = |name, times, field| {
            let inch = default_length(ruler.system(), 8, 25);
            let turned = Term::times("turned in", 2, self.seam, "seam_top");
            Dimension::sum(vec![Term::times(name, times, inch, field), turned], ruler)
        };
        let cover = hangs.then(|| {
            let (wide, tall) =
                (side("as the zip is wide", 1, "zip_tail"), side("both sides of its end", 2, "zip_tail"));
            let note = "folded over the end of the zip, its edges turned in, and stitched round";
            Piece::new("zip-end", "Zip end", Part::Outer, wide, tall).lying(Grain::Any).noted(note)
        });
        (cover, bought)
    }

    /// Facing f deep: cut f + t + p; the zip panel between it and the lining, shorter than the mouth.
    fn facing(&self, around: &Around, ruler: Ruler) -> (Vec<Piece>, Vec<Hardware>) {
        let deep = Dimension::sum(
            vec![
                Term::once("facing", self.facing_depth, "facing_depth"),
                Term::once("top seam", self.seam, "seam_top"),
                Term::once("seam to the lining", self.seam, "seam_top"),
            ],
            ruler,
        );
        let note = "the zip panel is caught in its lower seam";
        let mut pieces = on_each_wall(around, "facing", "Facing", Part::Outer, &deep, note);
        let teeth = self.teeth(around.width.0, around.depth);
        let long = Dimension::sum(
            vec![
                Term::once("the zip", teeth, "width"),
                Term::times("turned in at both ends", 2, around.seam_side, "seam_side"),
            ],
            ruler,
        );
        // On a flat or shallow bag it must still be wide enough to sew: 2½ in (6.4 cm) in all.
        let shallow = Length::inches(5, 4);
        let half = if self.zip_panel > Length::ZERO {
            Term::once("half of the panel", self.zip_panel, "zip_panel")
        } else if around.depth / 2 >= shallow {
            Term::once("half the depth", around.depth / 2, "depth")
        } else {
            Term::once("half of the panel, the bag being shallow", shallow, "zip_panel")
        };
        let wide = Dimension::sum(vec![half, Term::times("seams, zip and facing", 2, self.seam, "seam_top")], ruler);
        let panel = |id: &'static str, name: &'static str, part| {
            Piece::new(id, name, part, long.clone(), wide.clone()).times(2)
        };
        pieces.push(panel("zip-panel", "Zip panel", Part::Outer));
        pieces.push(panel("zip-panel-lining", "Zip panel lining", Part::Lining));
        let (end, zip) = self.zip(teeth, "shorter than the mouth", ruler);
        pieces.extend(end);
        (pieces, vec![zip])
    }

    /// The layers where it is stitched all round.
    pub(super) fn layers(&self, lined: bool) -> Vec<(Part, u32)> {
        let lining = |n| (Part::Lining, if lined { n } else { 0 });
        match self.kind {
            // A seam that is turned and topstitched has both its allowances in it.
            Mouth::TurnedThrough | Mouth::DroppedIn => vec![(Part::Outer, 2), lining(2)],
            Mouth::DoubleHem => vec![(Part::Outer, 3), lining(1)],
            Mouth::FacingZip | Mouth::FacingOver | Mouth::ZipBand => vec![(Part::Outer, 4), lining(1)],
            Mouth::Bound => vec![(Part::Binding, 4), (Part::Outer, 1), lining(1)],
            Mouth::Band => vec![(Part::Contrast, 4), (Part::Outer, 1), lining(1)],
        }
    }

    /// How far below the mouth's edge its stitching runs.
    pub fn stitched_below(&self) -> Length {
        match self.kind {
            Mouth::TurnedThrough | Mouth::FacingZip => self.seam,
            Mouth::FacingOver | Mouth::ZipBand => Length::MILLIMETRE * 6,
            Mouth::DoubleHem => self.hem_depth,
            Mouth::DroppedIn => Length::MILLIMETRE * 3,
            Mouth::Bound => self.binding_width,
            Mouth::Band => self.band_depth,
        }
    }

    /// How far from the edge outer and lining are joined round it.
    pub(super) fn sewn_at(&self) -> Length {
        match self.kind {
            Mouth::TurnedThrough | Mouth::FacingZip | Mouth::FacingOver | Mouth::ZipBand | Mouth::Band => self.seam,
            Mouth::DoubleHem | Mouth::DroppedIn | Mouth::Bound => self.stitched_below(),
        }
    }

    fn zip_step(&self, text: &'static str) -> Cow<'static, str> {
        if self.zip_tail > Length::ZERO { format!("{text} Cover its end.").into() } else { text.into() }
    }

    /// How it is sewn, once the outer is made up: the lining first, the mouth itself at the step `mouth`.
    pub(super) fn steps(&self, lined: bool) -> Vec<Step> {
        let mouth = |text: &'static str| Step::new(Phase::Together, "mouth", text);
        let first = |key, text: Cow<'static, str>| Step::new(Phase::Together, key, text);
        if !lined {
            return vec![mouth(match self.kind {
                Mouth::Bound => "Baste the strap ends to the inside of the raw edge and bind it.",
                Mouth::Band => {
                    "Join the bands at the sides; sew one edge to the outside, strap ends between, fold it over the raw edge and stitch it down inside."
                }
                _ => "Turn the hem twice, the strap ends under it, and stitch.",
            })];
        }
        let lining = Step::new(
            Phase::Lining,
            "lining",
            match self.kind {
                Mouth::TurnedThrough | Mouth::FacingZip => "Sew the lining the same way, leaving the turning gap.",
                _ => "Sew the lining the same way, all round: it needs no gap.",
            },
        );
        let rest = match self.kind {
            Mouth::TurnedThrough => vec![mouth(
                "Outer into lining, right sides together: sew round the mouth with the straps between, turn, close the gap.",
            )],
            Mouth::DoubleHem => vec![
                first("drop-in", "Drop the lining in, wrong sides together.".into()),
                mouth("Turn the hem twice, the lining’s edge and the strap ends under it, and stitch."),
            ],
            Mouth::FacingZip => vec![
                first("zip", self.zip_step("Sew the zip between its panels; catch them in the seam of facing and lining.")),
                mouth("Facing to outer round the mouth, straps between; turn through the lining, close the gap."),
            ],
            Mouth::FacingOver => vec![
                first(
                    "drop-in",
                    "Drop the lining in, wrong sides together, strap ends between it and the outer; tack the raw edges.".into(),
                ),
                mouth(
                    "Join the facings at the sides, turn the free edge under; slip the ring over the bag, right sides together, sew round the mouth, turn it in and stitch.",
                ),
            ],
            Mouth::ZipBand => vec![
                first("drop-in", "Drop the lining in, wrong sides together; tack the raw edges.".into()),
                first(
                    "zip",
                    self.zip_step("Sew the facings’ free edges to the zip, and to each other past its ends; open the zip."),
                ),
                mouth(
                    "Join the facings at the sides; slip the ring over the bag, right sides together, sew round the mouth, turn it in and stitch.",
                ),
            ],
            Mouth::DroppedIn => vec![mouth(
                "Turn both edges in and press; drop the lining in, wrong sides together, the strap ends between, and topstitch twice round the mouth.",
            )],
            Mouth::Bound => vec![
                first(
                    "drop-in",
                    "Drop the lining in, wrong sides together, strap ends on the inside; baste the raw edges.".into(),
                ),
                mouth("Bind the raw edges round the mouth."),
            ],
            Mouth::Band => vec![
                first("drop-in", "Drop the lining in, wrong sides together.".into()),
                mouth(
                    "Join the bands at the sides; sew one edge to the outside, strap ends between, fold it over the raw edges and stitch it down inside.",
                ),
            ],
        };
        [vec![lining], rest].concat()
    }

    /// What is seen round the mouth beside the outer, and how deep.
    pub fn band(&self) -> Option<(Part, Length)> {
        match self.kind {
            Mouth::Bound => Some((Part::Binding, self.binding_width)),
            Mouth::Band => Some((Part::Contrast, self.band_depth)),
            _ => None,
        }
    }
}

/// The solid of an open box with its band, if there is one, round its mouth.
pub(super) fn banded(solid: Solid, band: Option<(Part, Length)>, (w, h, d): (f64, f64, f64)) -> Solid {
    let Some((part, deep)) = band else { return solid };
    let low = h - deep.0 as f64;
    let side = [[w, low, 0.0], [w, low, d], [w, h, d], [w, h, 0.0]];
    let solid = if d > 0.0 { solid.face(side, part, 1) } else { solid };
    solid.face([[0.0, low, 0.0], [w, low, 0.0], [w, h, 0.0], [0.0, h, 0.0]], part, 0)
}

/// A strip as wide as each wall.
fn on_each_wall(
    around: &Around,
    id: &'static str,
    name: &'static str,
    part: Part,
    deep: &Dimension,
    note: &'static str,
) -> Vec<Piece> {
    let strip = |(i, (wide, count)): (usize, &(Dimension, u32))| {
        let (id, name) =
            if i == 0 { (id.to_owned(), name.to_owned()) } else { (format!("{id}-side"), format!("{name}, side")) };
        Piece::new(id, name, part, wide.clone(), deep.clone()).times(*count).noted(note)
    };
    around.walls.iter().enumerate().map(strip).collect()
}

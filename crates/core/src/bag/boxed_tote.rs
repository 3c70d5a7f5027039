//! The boxed tote: two panels, boxed corners, lined or not, two straps.
//!
//! Signs as in docs/rules.md: finished width W at the base, height H, depth D; seams s side, b base, x boxing, t top.
//! Panel (W + D + 2s) × (H + D/2 + b + t); the mouth decides t for outer and lining together.

use super::boxing::{self, Boxing};
use super::draft::{Draft, Notice, Severity, Stage};
use super::{hem, strap};
use crate::FieldProblem;
use crate::measure::{LONGEST, Length, Ruler, System};
use crate::piece::{Corners, Dimension, From, Grain, Mark, Mirror, Part, Piece, PrintRule, Term};
use serde::{Deserialize, Serialize};

/// How the mouth is finished.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "kebab-case")]
pub enum Mouth {
    /// Outer and lining joined by a seam and turned right side out through a gap.
    TurnedThrough,
    /// The outer turned twice to the inside; a lining's raw edge is tucked under the hem.
    DoubleHem,
}

/// The lining's size.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "kebab-case")]
pub enum LiningFit {
    /// None.
    None,
    /// Cut like the outer.
    Same,
    /// 1/8 in (3 mm) smaller a side, so that it does not bag.
    Smaller,
}

/// How strap ends are fastened.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "kebab-case")]
pub enum StrapEnds {
    /// Caught in the seam or hem of the mouth.
    InMouth,
    /// Tucked under and stitched on the outside.
    Outside,
}

/// How far fleece reaches.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "kebab-case")]
pub enum BackingSchool {
    /// No fleece.
    None,
    /// Cut like the outer, caught in the seams, the bulk trimmed afterwards.
    FullSize,
    /// Cut clear of the seam allowances all round.
    ClearOfSeams,
}

/// A boxed tote by its finished sizes.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct BoxedTote {
    /// Finished width at the base.
    pub width: Length,
    /// Finished height.
    pub height: Length,
    /// Finished depth.
    pub depth: Length,
    /// Side seams.
    pub seam_side: Length,
    /// Base seam.
    pub seam_base: Length,
    /// Seam across the boxed corners.
    pub seam_boxing: Length,
    /// Seam at the mouth when it is turned through.
    pub seam_top: Length,
    /// How the corners are boxed.
    pub boxing: Boxing,
    /// How the mouth is finished.
    pub mouth: Mouth,
    /// Hem: turned under first.
    pub hem_turn: Length,
    /// Hem: its depth.
    pub hem_depth: Length,
    /// The lining.
    pub lining: LiningFit,
    /// Whether it has two straps of its own cloth, folded in four.
    pub straps: bool,
    /// Finished width of a strap.
    pub strap_width: Length,
    /// How much of a strap shows.
    pub strap_length: Length,
    /// From the edge of the face to the strap.
    pub strap_inset: Length,
    /// How strap ends are fastened.
    pub strap_ends: StrapEnds,
    /// Whether a slip pocket is sewn on the lining.
    pub pocket: bool,
    /// Finished width of the pocket.
    pub pocket_width: Length,
    /// Finished height of the pocket.
    pub pocket_height: Length,
    /// From the finished mouth down to the pocket.
    pub pocket_below: Length,
    /// Fleece behind the outer.
    pub backing: BackingSchool,
}

impl BoxedTote {
    /// A middling tote to start from: ½ in or 1 cm seams, a lining turned through, two straps.
    pub fn usual(system: System) -> Self {
        // (inches × 8, centimetres × 10)
        let size = |eighths, tenths| match system {
            System::Inches => Length::inches(eighths, 8),
            System::Centimetres => Length::MILLIMETRE * tenths,
        };
        Self {
            width: size(14 * 8, 360),
            height: size(13 * 8, 340),
            depth: size(4 * 8, 100),
            seam_side: size(4, 10),
            seam_base: size(4, 10),
            seam_boxing: size(4, 10),
            seam_top: size(4, 10),
            boxing: Boxing::CutOut,
            mouth: Mouth::TurnedThrough,
            hem_turn: size(4, 10),
            hem_depth: size(12, 40),
            lining: LiningFit::Same,
            straps: true,
            strap_width: size(8, 25),
            strap_length: size(24 * 8, 600),
            strap_inset: size(20, 60),
            strap_ends: StrapEnds::InMouth,
            pocket: true,
            pocket_width: size(7 * 8, 180),
            pocket_height: size(6 * 8, 150),
            pocket_below: size(20, 60),
            backing: BackingSchool::None,
        }
    }

    /// Centre to centre of a strap's ends.
    fn strap_spacing(&self) -> Length {
        self.width - self.strap_inset * 2 - self.strap_width
    }

    /// All that cannot stand, each named by its field; `show` writes a length with its unit.
    fn problems(&self, show: &dyn Fn(Length) -> String) -> Vec<FieldProblem> {
        let mut found = Vec::new();
        let mut refuse = |field: &str, value: Length, message: String| {
            if !found.iter().any(|p: &FieldProblem| p.field == field) {
                found.push(FieldProblem::new(field, show(value), message));
            }
        };
        for (field, value) in [("width", self.width), ("height", self.height), ("depth", self.depth)] {
            if value <= Length::ZERO {
                refuse(field, value, format!("The {field} is {}: it must be more than 0.", show(value)));
            } else if value > LONGEST {
                refuse(field, value, format!("The {field} is {}: at most 20 m is allowed.", show(value)));
            }
        }
        if self.depth > self.width {
            refuse(
                "depth",
                self.depth,
                format!(
                    "The depth is {}: at most the width, {}, is allowed. For a bag deeper than wide, swap the two.",
                    show(self.depth),
                    show(self.width)
                ),
            );
        }
        let least = Length::MILLIMETRE * 3;
        let seams = [
            ("seam_side", "side seam", self.seam_side, self.width / 2, "half the width", true),
            ("seam_base", "base seam", self.seam_base, self.height, "the height", true),
            ("seam_boxing", "boxing seam", self.seam_boxing, self.depth / 2, "half the depth", true),
            ("seam_top", "top seam", self.seam_top, self.height, "the height", self.mouth == Mouth::TurnedThrough),
            (
                "hem_turn",
                "first turn of the hem",
                self.hem_turn,
                self.height,
                "the height",
                self.mouth == Mouth::DoubleHem,
            ),
            ("hem_depth", "hem", self.hem_depth, self.height, "the height", self.mouth == Mouth::DoubleHem),
        ];
        for (field, name, value, limit, limit_name, used) in seams {
            if used && value < least {
                refuse(field, value, format!("The {name} is {}: a seam needs at least ⅛ in or 3 mm.", show(value)));
            } else if used && value >= limit {
                refuse(
                    field,
                    value,
                    format!("The {name} is {}: it must be less than {limit_name}, {}.", show(value), show(limit)),
                );
            }
        }
        if self.mouth == Mouth::TurnedThrough && self.lining == LiningFit::None {
            found.push(FieldProblem::new(
                "mouth",
                "turned-through",
                "A mouth turned through needs a lining: add one, or choose a hem.",
            ));
        }
        let mut refuse =
            |field: &str, value: Length, message: String| found.push(FieldProblem::new(field, show(value), message));
        if self.straps {
            let spacing = self.strap_spacing();
            if self.strap_width < Length::MILLIMETRE * 5 || self.strap_width > self.width / 2 {
                refuse(
                    "strap_width",
                    self.strap_width,
                    format!(
                        "The strap is {} wide: between 5 mm and half the bag's width, {}, is allowed.",
                        show(self.strap_width),
                        show(self.width / 2)
                    ),
                );
            } else if spacing < self.strap_width || self.strap_inset < Length::ZERO {
                let most = (self.width - self.strap_width * 2) / 2;
                refuse(
                    "strap_inset",
                    self.strap_inset,
                    format!(
                        "From the edge of the face to the strap is {}: between 0 and {} is allowed, or the strap’s ends meet.",
                        show(self.strap_inset),
                        show(most)
                    ),
                );
            } else if strap::drop(self.strap_length, spacing).is_none() {
                refuse(
                    "strap_length",
                    self.strap_length,
                    format!(
                        "{} of strap showing does not span the {} between its ends: make it longer.",
                        show(self.strap_length),
                        show(spacing)
                    ),
                );
            } else if self.strap_length > LONGEST / 4 {
                refuse(
                    "strap_length",
                    self.strap_length,
                    format!("{} of strap: at most 5 m is allowed.", show(self.strap_length)),
                );
            }
        }
        if self.pocket && self.lining != LiningFit::None {
            if self.pocket_width <= Length::ZERO || self.pocket_width > self.width {
                refuse(
                    "pocket_width",
                    self.pocket_width,
                    format!(
                        "The pocket is {} wide: more than 0 and at most the face, {}, is allowed.",
                        show(self.pocket_width),
                        show(self.width)
                    ),
                );
            }
            if self.pocket_height <= Length::ZERO || self.pocket_height > self.height {
                refuse(
                    "pocket_height",
                    self.pocket_height,
                    format!(
                        "The pocket is {} tall: more than 0 and at most the bag's height, {}, is allowed.",
                        show(self.pocket_height),
                        show(self.height)
                    ),
                );
            }
            if self.pocket_below < Length::ZERO || self.pocket_below >= self.height {
                refuse(
                    "pocket_below",
                    self.pocket_below,
                    format!(
                        "The pocket hangs {} below the mouth: from 0 to less than the height, {}, is allowed.",
                        show(self.pocket_below),
                        show(self.height)
                    ),
                );
            }
        }
        found
    }

    /// Drafts the bag, every size brought up to a line of `ruler`.
    ///
    /// # Errors
    /// Every field that cannot stand, each once, with what is allowed.
    pub fn draft(&self, ruler: Ruler) -> Result<Draft, Vec<FieldProblem>> {
        let unit = ruler.system().symbol();
        let show = |length: Length| format!("{} {unit}", ruler.show(length).text);
        let problems = self.problems(&show);
        if !problems.is_empty() {
            return Err(problems);
        }
        let mut pieces = vec![self.outer(ruler)];
        if self.lining != LiningFit::None {
            pieces.push(self.lining_panel(ruler));
            if self.pocket {
                pieces.push(self.slip_pocket(ruler));
            }
        }
        if self.straps {
            pieces.push(self.strap(ruler));
        }
        if self.backing != BackingSchool::None {
            pieces.push(self.fleece(ruler));
        }
        let spacing = self.straps.then(|| self.strap_spacing());
        let strap_drop = spacing.and_then(|p| strap::drop(self.strap_length, p));
        let ml =
            self.width.0 as f64 * self.height.0 as f64 * self.depth.0 as f64 / (Length::CENTIMETRE.0 as f64).powi(3);
        Ok(Draft {
            pieces,
            notices: self.notices(ruler, strap_drop, &show),
            strap_drop,
            strap_spacing: spacing,
            millilitres: ml.round() as i64,
        })
    }

    fn panel_width(&self, extra: Vec<Term>, ruler: Ruler) -> Dimension {
        let mut terms = vec![
            Term::once("wide", self.width, "width"),
            Term::once("deep", self.depth, "depth"),
            Term::times("side seams", 2, self.seam_side, "seam_side"),
        ];
        terms.extend(extra);
        Dimension::sum(terms, ruler)
    }

    fn panel_height(&self, mouth: Vec<Term>, ruler: Ruler) -> Dimension {
        let mut terms = vec![
            Term::once("tall", self.height, "height"),
            Term::once("half the depth", self.depth / 2, "depth"),
            Term::once("base seam", self.seam_base, "seam_base"),
        ];
        terms.extend(mouth);
        Dimension::sum(terms, ruler)
    }

    fn mouth_terms(&self) -> Vec<Term> {
        match self.mouth {
            Mouth::TurnedThrough => vec![Term::once("top seam", self.seam_top, "seam_top")],
            Mouth::DoubleHem => vec![
                Term::once("hem", self.hem_depth, "hem_depth"),
                Term::once("turned under", self.hem_turn, "hem_turn"),
            ],
        }
    }

    fn corners(&self, ruler: Ruler) -> Corners {
        if self.boxing != Boxing::CutOut {
            return Corners::Whole;
        }
        let notch = |seam_name, seam, field| {
            Dimension::sum(
                vec![
                    Term::once("half the depth", self.depth / 2, "depth"),
                    Term::once(seam_name, seam, field),
                    Term::times("less the boxing seam", -1, self.seam_boxing, "seam_boxing"),
                ],
                ruler,
            )
        };
        Corners::CutOut {
            across: notch("side seam", self.seam_side, "seam_side"),
            up: notch("base seam", self.seam_base, "seam_base"),
        }
    }

    fn boxing_marks(&self) -> Vec<Mark> {
        match self.boxing {
            Boxing::CutOut => vec![],
            Boxing::SeamLines => vec![Mark {
                name: "boxing square, sewn on the line",
                distance: self.seam_side + self.depth / 2,
                from: From::SideEdges,
                and: Some((self.seam_base + self.depth / 2, From::BaseEdge)),
            }],
            Boxing::SewnAcross => {
                let (_, from_tip) = boxing::across(self.depth);
                vec![Mark {
                    name: "where the seam across the corner meets the seams",
                    distance: self.seam_side + from_tip,
                    from: From::SideEdges,
                    and: Some((self.seam_base + from_tip, From::BaseEdge)),
                }]
            }
        }
    }

    fn outer(&self, ruler: Ruler) -> Piece {
        let mut marks = self.boxing_marks();
        if self.mouth == Mouth::DoubleHem {
            let (first, second) = hem::landing_lines(self.hem_turn, self.hem_depth);
            for (name, distance) in [("fold the edge to this line", first), ("fold the hem to this line", second)] {
                marks.push(Mark { name, distance, from: From::TopEdge, and: None });
            }
        }
        if self.straps {
            marks.push(Mark {
                name: "strap centre",
                distance: self.strap_spacing() / 2,
                from: From::Middle,
                and: Some((self.seam_side + self.depth / 2 + self.strap_inset + self.strap_width / 2, From::SideEdges)),
            });
        }
        Piece {
            id: "outer-panel",
            name: "Outer panel",
            part: Part::Outer,
            count: 2,
            width: self.panel_width(vec![], ruler),
            height: self.panel_height(self.mouth_terms(), ruler),
            corners: self.corners(ruler),
            grain: Grain::Length,
            print: PrintRule::Upright,
            mirror: Mirror::No,
            marks,
            note: None,
        }
    }

    /// 1/8 in, or 3 mm where the ruler is metric.
    fn lining_ease(ruler: Ruler) -> Length {
        match ruler.system() {
            System::Inches => Length::inches(1, 8),
            System::Centimetres => Length::MILLIMETRE * 3,
        }
    }

    fn lining_panel(&self, ruler: Ruler) -> Piece {
        let (mut across, mut up) = (vec![], vec![]);
        if self.lining == LiningFit::Smaller {
            let ease = Self::lining_ease(ruler);
            across.push(Term::times("smaller each side", -2, ease, "lining"));
            up.push(Term::times("smaller at the base", -1, ease, "lining"));
        }
        // Under a hem the lining's raw edge reaches the finished mouth and no further.
        let top = if self.mouth == Mouth::TurnedThrough { self.seam_top } else { Length::ZERO };
        if self.mouth == Mouth::TurnedThrough {
            up.insert(0, Term::once("top seam", self.seam_top, "seam_top"));
        }
        let mut marks = self.boxing_marks();
        if self.pocket {
            marks.push(Mark {
                name: "pocket, top corners",
                distance: self.seam_side + self.depth / 2 + (self.width - self.pocket_width) / 2,
                from: From::SideEdges,
                and: Some((top + self.pocket_below, From::TopEdge)),
            });
        }
        if self.mouth == Mouth::TurnedThrough {
            marks.push(Mark {
                name: "turning gap, left open in one base seam",
                distance: (self.width / 4).min(Length::INCH * 2).floor_to(ruler.step()),
                from: From::Middle,
                and: Some((self.seam_base, From::BaseEdge)),
            });
        }
        Piece {
            id: "lining-panel",
            name: "Lining panel",
            part: Part::Lining,
            count: 2,
            width: self.panel_width(across, ruler),
            height: self.panel_height(up, ruler),
            corners: self.corners(ruler),
            grain: Grain::Length,
            print: PrintRule::Upright,
            mirror: Mirror::No,
            marks,
            note: (self.mouth == Mouth::DoubleHem).then_some("its raw edge is tucked under the hem"),
        }
    }

    /// Doubled: folded at its top edge, seamed round the other three.
    fn slip_pocket(&self, ruler: Ruler) -> Piece {
        let seams = |name| Term::times(name, 2, self.seam_side, "seam_side");
        let height = Dimension::sum(
            vec![Term::times("tall, doubled", 2, self.pocket_height, "pocket_height"), seams("base seams")],
            ruler,
        );
        Piece {
            id: "slip-pocket",
            name: "Slip pocket",
            part: Part::Pocket,
            count: 1,
            width: Dimension::sum(
                vec![Term::once("wide", self.pocket_width, "pocket_width"), seams("side seams")],
                ruler,
            ),
            marks: vec![Mark {
                name: "fold, the pocket's top edge",
                distance: height.size / 2,
                from: From::TopEdge,
                and: None,
            }],
            height,
            corners: Corners::Whole,
            grain: Grain::Length,
            // Folded at the top, one half hangs upside down whatever is done; the front half is made to stand.
            print: PrintRule::Upright,
            mirror: Mirror::No,
            note: Some("folded at its top edge"),
        }
    }

    fn strap(&self, ruler: Ruler) -> Piece {
        let inch = |eighths: i64, tenths: i64| match ruler.system() {
            System::Inches => Length::inches(eighths, 8),
            System::Centimetres => Length::MILLIMETRE * tenths,
        };
        let mut terms = vec![Term::once("showing", self.strap_length, "strap_length")];
        match (self.strap_ends, self.mouth) {
            // Caught in the top seam: the seam and an inch; in a hem: down to the hem's stitching.
            (StrapEnds::InMouth, Mouth::TurnedThrough) => {
                terms.push(Term::times("top seam, both ends", 2, self.seam_top, "seam_top"));
                terms.push(Term::times("past the seam, both ends", 2, inch(8, 25), "strap_ends"));
            }
            (StrapEnds::InMouth, Mouth::DoubleHem) => {
                terms.push(Term::times("inside the hem, both ends", 2, self.hem_depth, "hem_depth"));
            }
            (StrapEnds::Outside, _) => {
                terms.push(Term::times("tucked and stitched, both ends", 2, inch(16, 50), "strap_ends"));
            }
        }
        let cut_width = Term::times("finished strap, folded in four", 4, self.strap_width, "strap_width");
        Piece {
            id: "strap",
            name: "Strap",
            part: Part::Straps,
            count: 2,
            width: Dimension::sum(vec![cut_width], ruler),
            height: Dimension::sum(terms, ruler),
            corners: Corners::Whole,
            grain: Grain::Either,
            print: PrintRule::Ignore,
            mirror: Mirror::No,
            marks: vec![Mark {
                name: "fold, then both edges to it",
                distance: self.strap_width * 2,
                from: From::SideEdges,
                and: None,
            }],
            note: None,
        }
    }

    fn fleece(&self, ruler: Ruler) -> Piece {
        let (width, height, corners) = if self.backing == BackingSchool::FullSize {
            (self.panel_width(vec![], ruler), self.panel_height(self.mouth_terms(), ruler), self.corners(ruler))
        } else {
            let half = || Dimension::sum(vec![Term::once("half the depth", self.depth / 2, "depth")], ruler);
            let corners = match self.boxing {
                Boxing::CutOut => Corners::CutOut { across: half(), up: half() },
                Boxing::SeamLines | Boxing::SewnAcross => Corners::Whole,
            };
            let across = vec![Term::once("wide", self.width, "width"), Term::once("deep", self.depth, "depth")];
            let up =
                vec![Term::once("tall", self.height, "height"), Term::once("half the depth", self.depth / 2, "depth")];
            (Dimension::sum(across, ruler), Dimension::sum(up, ruler), corners)
        };
        Piece {
            id: "fleece-panel",
            name: "Fleece panel",
            part: Part::Backing,
            count: 2,
            width,
            height,
            corners,
            grain: Grain::Any,
            print: PrintRule::Ignore,
            mirror: Mirror::No,
            marks: vec![],
            note: Some(match self.backing {
                BackingSchool::ClearOfSeams => "lies inside the seam allowances",
                _ => "caught in the seams; trim the bulk after sewing",
            }),
        }
    }

    fn notices(&self, ruler: Ruler, strap_drop: Option<Length>, show: &dyn Fn(Length) -> String) -> Vec<Notice> {
        let note = |field, severity, text: String| Notice { stage: Stage::Bag, field: Some(field), severity, text };
        let mut found = Vec::new();
        if self.depth > self.width / 2 {
            found.push(note(
                "depth",
                Severity::Attention,
                format!("Boxed {} deep, more than half the width: the bag stands squat.", show(self.depth)),
            ));
        }
        found.push(note(
            "depth",
            Severity::Note,
            format!("Boxing takes {} off the height; the panels are cut taller for it.", show(self.depth / 2)),
        ));
        if let Some(drop) = strap_drop {
            let inch = Length::INCH;
            let shown = show(drop.round_to(ruler.step()));
            let (severity, text) = if drop < inch * 4 {
                (
                    Severity::Attention,
                    format!("A drop of {shown} is tight even for a hand: 5 to 6 in (13 to 15 cm) is usual."),
                )
            } else if drop > inch * 7 && drop < inch * 17 / 2 {
                (
                    Severity::Attention,
                    format!(
                        "A drop of {shown} is long for the hand and short for a shoulder: 5 to 6 in, or 9 to 11 in (23 to 28 cm)."
                    ),
                )
            } else if drop < inch * 17 / 2 {
                (Severity::Note, format!("A drop of {shown} is carried by hand, not over a shoulder."))
            } else {
                (
                    Severity::Note,
                    format!(
                        "A drop of {shown} goes over a shoulder; a winter coat wants 2 to 4 in (5 to 10 cm) more strap."
                    ),
                )
            };
            found.push(note("strap_length", severity, text));
        }
        if self.pocket && self.lining != LiningFit::None && self.pocket_below + self.pocket_height > self.height {
            let over = self.pocket_below + self.pocket_height - self.height;
            found.push(note(
                "pocket_height",
                Severity::Attention,
                format!("The pocket runs {} into the boxing: raise it or make it shorter.", show(over)),
            ));
        }
        if self.boxing == Boxing::SeamLines {
            found.push(note(
                "boxing",
                Severity::Note,
                format!(
                    "The corner squares are {} from the seam lines. Drawn from the raw edges and sewn on the line they would make the bag only {} deep.",
                    show(self.depth / 2),
                    show(boxing::depth_of_square(self.depth / 2, boxing::Square::SewnFromRawEdges, self.seam_side, self.seam_boxing).max(Length::ZERO))
                ),
            ));
        }
        found
    }
}

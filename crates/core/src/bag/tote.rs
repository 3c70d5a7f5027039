//! The tote: two panels or one over the base, flat or boxed, lined or not, two straps, a pocket, a pieced front.
//!
//! Signs as in docs/rules.md: finished width W at the base, height H, depth D; seams s side, b base, x boxing, t top.
//! Panel (W + D + 2s) × (H + D/2 + b + t), over the base (W + D + 2s) × (2H + D + 2t); `mouth` decides t.

use super::backing::{Allowances, BackingChoice, BackingCloth, BackingSchool};
use super::base::BaseJoin;
use super::boxing::{self, Boxing, Corner};
use super::draft::{Draft, Finished, Notice, Stack, millilitres};
use super::extras::{Extras, Place};
use super::field::{Choice, Field, Group, choice};
use super::mouth::{Around, Mouth, MouthFinish};
use super::piecing::{Patchwork, Piecing};
use super::pocket::{Pocket, PocketChoice, PocketKind};
use super::problems::Problems;
use super::seam::SeamKind;
use super::sewn::{Edge, Seam, Stretch, boxed};
use super::solid::{Solid, ThreadKind};
use super::strap::{self, Strap, StrapMake};
use super::wall::{Looks, Moves, Seen, Side, Wall};
use super::{Design, hem, mouth, quilting};
use crate::FieldProblem;
use crate::measure::{LONGEST, Length, Ruler, System, default_length};
use crate::piece::{Dimension, Figure, From, Mark, Part, Piece, Term};

choice! {
    /// The lining's size.
    LiningFit {
        /// None.
        None = "none", "None", "";
        /// Cut like the outer.
        Same = "same", "Like the outer", "";
        /// 1/8 in (3 mm) smaller a side, so that it does not bag.
        Smaller = "smaller", "A little smaller", "⅛ in or 3 mm a side, so that it does not bag";
        /// Deeper by twice a band that shows above the outer: 1 in deeper shows ½ in.
        Border = "border", "Showing as a band", "deeper, so that a band of it shows above the outer";
        /// Either side is the outside: nothing is hidden, the gap is in the mouth.
        Reversible = "reversible", "Reversible", "either side out: the turning gap is in the mouth, topstitched shut";
    }
}

choice! {
    /// How strap ends are fastened.
    StrapEnds {
        /// Caught in the seam or hem of the mouth.
        InMouth = "in-mouth", "Caught in the mouth", "";
        /// Tucked under and stitched on the outside.
        Outside = "outside", "Stitched on the outside", "";
    }
}

/// A tote by its finished sizes.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Tote {
    /// Finished width at the base.
    pub width: Length,
    /// Finished height.
    pub height: Length,
    /// Finished depth; nothing for a flat bag.
    pub depth: Length,
    /// Two panels, or one over the base.
    pub base: BaseJoin,
    /// How the side seams of an unlined bag are sewn.
    pub seam_kind: SeamKind,
    /// Side seams.
    pub seam_side: Length,
    /// Base seam.
    pub seam_base: Length,
    /// Seam across the boxed corners.
    pub seam_boxing: Length,
    /// How the corners are boxed.
    pub boxing: Boxing,
    /// The mouth.
    pub mouth: MouthFinish,
    /// How the front is made up.
    pub front: Patchwork,
    /// Quilted: cut over, quilted, trimmed.
    pub quilted: bool,
    /// The lining.
    pub lining: LiningFit,
    /// How much of it shows as a band.
    pub lining_border: Length,
    /// Whether it has two straps.
    pub straps: bool,
    /// How they are made.
    pub strap_make: StrapMake,
    /// Finished width of a strap.
    pub strap_width: Length,
    /// How much of a strap shows.
    pub strap_length: Length,
    /// From the edge of the face to the strap.
    pub strap_inset: Length,
    /// How strap ends are fastened.
    pub strap_ends: StrapEnds,
    /// The pocket sewn on the lining.
    pub pocket: PocketChoice,
    /// What lies behind it.
    pub backing: BackingChoice,
    /// Loops, tabs, a label, a closure.
    pub extras: Extras,
}

impl Tote {
    /// Centre to centre of a strap's ends.
    fn strap_spacing(&self) -> Length {
        self.width - self.strap_inset * 2 - self.strap_width
    }

    fn lined(&self) -> bool {
        self.lining != LiningFit::None
    }

    fn boxed(&self) -> bool {
        self.depth > Length::ZERO
    }

    fn folded(&self) -> bool {
        self.base == BaseJoin::Fold
    }

    /// The panel that is seen in front.
    fn front_piece(&self) -> &'static str {
        if self.front.piecing == Piecing::Whole { "outer-panel" } else { "front-panel" }
    }

    /// Both sides of the mouth can be seen.
    fn may_be_reversed(&self) -> bool {
        matches!(self.mouth.kind, Mouth::TurnedThrough | Mouth::Bound | Mouth::Band)
    }

    fn pocket(&self) -> Pocket {
        self.pocket.pocket(self.lined(), self.seam_side)
    }

    /// All that cannot stand, each named by its field.
    fn problems(&self, ruler: Ruler) -> Result<(), Vec<FieldProblem>> {
        let mut problems = Problems::new(ruler);
        let show = |l: Length| Problems::new(ruler).show(l);
        problems.size("width", "width", self.width);
        problems.size("height", "height", self.height);
        if self.depth != Length::ZERO {
            problems.size("depth", "depth", self.depth);
        }
        if self.depth > self.width {
            let message = format!(
                "The depth is {}: at most the width, {}, is allowed. For a bag deeper than wide, swap the two.",
                show(self.depth),
                show(self.width)
            );
            problems.refuse("depth", self.depth, message);
        }
        problems.seam("seam_side", "side seam", self.seam_side, self.width / 2, "half the width");
        if !self.folded() {
            problems.seam("seam_base", "base seam", self.seam_base, self.height, "the height");
        }
        if self.boxed() {
            problems.seam("seam_boxing", "boxing seam", self.seam_boxing, self.depth / 2, "half the depth");
        }
        self.mouth.problems(self.height, &mut problems);
        self.mouth.zip_problems(self.width, self.depth, &mut problems);
        if !self.lined() {
            self.seam_kind.problems(self.seam_side, &mut problems);
        }
        let mut found = problems.end().err().unwrap_or_default();
        if self.mouth.needs_lining() && !self.lined() {
            found.push(self.mouth.unlined_problem());
        }
        if self.lining == LiningFit::Border && self.mouth.kind != Mouth::TurnedThrough {
            let message =
                "A band of lining shows above a mouth that is turned through: choose that mouth, or another lining.";
            found.push(FieldProblem::new("lining", self.lining.answer().key, message));
        }
        if self.lining == LiningFit::Reversible && !self.may_be_reversed() {
            let message = "A reversible bag is turned through, bound or banded at the mouth: a hem, a facing or a lining dropped in has a wrong side.";
            found.push(FieldProblem::new("lining", self.lining.answer().key, message));
        }
        if self.front.piecing != Piecing::Whole && self.folded() {
            found.push(FieldProblem::new(
                "front",
                self.front.piecing.answer().key,
                "A pieced front is a panel of its own: make the tote of two panels.",
            ));
        }
        if self.boxed() && self.boxing == Boxing::FoldedIn && !self.folded() {
            found.push(FieldProblem::new(
                "boxing",
                self.boxing.answer().key,
                "A base is folded in where the cloth goes on over it: make the tote in one piece, folded at the base, first.",
            ));
        }
        let mut rest = Problems::new(ruler);
        if self.front.piecing != Piecing::Whole {
            rest.seam("patch_seam", "seam between patches", self.front.seam, self.width / 4, "a quarter of the width");
        }
        self.strap_problems(&mut rest, &show);
        self.extras.problems(&mut rest);
        if self.lining == LiningFit::Border {
            rest.between(
                "lining_border",
                "band of lining",
                self.lining_border,
                Length::MILLIMETRE * 3,
                self.height / 4,
            );
        }
        if self.pocket().kind != PocketKind::None {
            self.pocket.problems(self.width, self.height, &mut rest);
        }
        found.extend(rest.end().err().unwrap_or_default());
        if found.is_empty() { Ok(()) } else { Err(found) }
    }

    fn strap_problems(&self, problems: &mut Problems, show: &dyn Fn(Length) -> String) {
        if !self.straps {
            return;
        }
        let spacing = self.strap_spacing();
        if self.strap_width < Length::MILLIMETRE * 5 || self.strap_width > self.width / 2 {
            let message = format!(
                "The strap is {} wide: between 5 mm and half the bag's width, {}, is allowed.",
                show(self.strap_width),
                show(self.width / 2)
            );
            problems.refuse("strap_width", self.strap_width, message);
        } else if spacing < self.strap_width || self.strap_inset < Length::ZERO {
            let message = format!(
                "From the edge of the face to the strap is {}: between 0 and {} is allowed, or the strap’s ends meet.",
                show(self.strap_inset),
                show((self.width - self.strap_width * 2) / 2)
            );
            problems.refuse("strap_inset", self.strap_inset, message);
        } else if strap::drop(self.strap_length, spacing).is_none() {
            let message = format!(
                "{} of strap showing does not span the {} between its ends: make it longer.",
                show(self.strap_length),
                show(spacing)
            );
            problems.refuse("strap_length", self.strap_length, message);
        } else if self.strap_length > LONGEST / 4 {
            let message = format!("{} of strap: at most 5 m is allowed.", show(self.strap_length));
            problems.refuse("strap_length", self.strap_length, message);
        }
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

    /// One panel's height, or front, base and back in one.
    fn panel_height(&self, mouth: Vec<Term>, ruler: Ruler) -> Dimension {
        let mut terms = if self.folded() {
            vec![
                Term::times("tall, front and back", 2, self.height, "height"),
                Term::once("deep, over the base", self.depth, "depth"),
            ]
        } else {
            vec![
                Term::once("tall", self.height, "height"),
                Term::once("half the depth", self.depth / 2, "depth"),
                Term::once("base seam", self.seam_base, "seam_base"),
            ]
        };
        terms.extend(mouth.into_iter().map(|t| Term { times: t.times * if self.folded() { 2 } else { 1 }, ..t }));
        Dimension::sum(terms, ruler)
    }

    fn panels(&self) -> u32 {
        if self.folded() { 1 } else { 2 }
    }

    /// A notch where the corners are cut out.
    fn figure(&self, ruler: Ruler) -> Figure {
        if self.boxing != Boxing::CutOut || !self.boxed() {
            return Figure::Rectangle;
        }
        self.corner().figure(ruler)
    }

    fn corner(&self) -> Corner {
        Corner {
            depth: self.depth,
            side: (self.seam_side, "seam_side"),
            base: (!self.folded()).then_some((self.seam_base, "seam_base")),
            boxing: (self.seam_boxing, "seam_boxing"),
        }
    }

    /// Where the corners are sewn, or the base folded in, on a panel that stands `top` above the finished mouth.
    fn boxing_marks(&self, top: Length) -> Vec<Mark> {
        if !self.boxed() {
            return vec![];
        }
        let base = if self.folded() { Length::ZERO } else { self.seam_base };
        let mark = |name, from_seam: Length| Mark {
            boxes: true,
            name,
            distance: self.seam_side + from_seam,
            from: From::SideEdges,
            and: (!self.folded()).then_some((base + from_seam, From::BaseEdge)),
        };
        match self.boxing {
            Boxing::CutOut => vec![],
            Boxing::SeamLines => vec![mark("boxing square, sewn on the line".into(), self.depth / 2)],
            Boxing::SewnAcross => {
                let (_, from_tip) = boxing::across(self.depth);
                vec![mark("where the seam across the corner meets the seams".into(), from_tip)]
            }
            // The base is as deep between the two lines, and halved by the fold that goes up between the panels.
            Boxing::FoldedIn => [From::TopEdge, From::BaseEdge]
                .map(|from| Mark {
                    boxes: true,
                    name: "fold of the base, brought down to the other".into(),
                    distance: top + self.height,
                    from,
                    and: None,
                })
                .into(),
        }
    }

    fn outer(&self, ruler: Ruler) -> (Vec<Piece>, Vec<Notice>) {
        let mut marks = self.boxing_marks(self.above_outer().iter().map(Term::value).sum());
        if self.mouth.kind == Mouth::DoubleHem {
            let (first, second) = hem::landing_lines(self.mouth.hem_turn, self.mouth.hem_depth);
            for (name, distance) in [("fold the edge to this line", first), ("fold the hem to this line", second)] {
                marks.push(Mark { boxes: false, name: name.into(), distance, from: From::TopEdge, and: None });
            }
        }
        if self.straps {
            marks.push(Mark {
                boxes: false,
                name: "strap centre".into(),
                distance: self.strap_spacing() / 2,
                from: From::Middle,
                and: Some((self.seam_side + self.depth / 2 + self.strap_inset + self.strap_width / 2, From::SideEdges)),
            });
        }
        let (width, height) = (self.panel_width(vec![], ruler), self.panel_height(self.above_outer(), ruler));
        let panel = Piece::new("outer-panel", "Outer panel", Part::Outer, width, height)
            .shaped(self.figure(ruler))
            .marked(marks);
        if self.front.piecing != Piecing::Whole {
            let front = Piece { id: "front-panel".into(), name: "Front panel".into(), ..panel.clone() };
            let (mut pieces, notices) = self.front.of(front, ruler);
            pieces.push(panel.noted("the back"));
            return (pieces, notices);
        }
        (vec![panel.times(self.panels())], vec![])
    }

    /// 1/8 in, or 3 mm where the ruler is metric.
    fn lining_ease(ruler: Ruler) -> Length {
        default_length(ruler.system(), 1, 3)
    }

    fn lining_panel(&self, ruler: Ruler) -> Piece {
        let (mut across, mut up) = (vec![], vec![]);
        if self.lining == LiningFit::Smaller {
            let ease = Self::lining_ease(ruler);
            across.push(Term::times("smaller each side", -2, ease, "lining"));
            up.push(Term::times("smaller at the base", -1, ease, "lining"));
        }
        let mut mouth = self.mouth.lining();
        if self.lining == LiningFit::Border {
            mouth.push(Term::once("band that shows", self.lining_border, "lining_border"));
        }
        let top: Length = mouth.iter().map(Term::value).sum();
        up.splice(0..0, mouth);
        let shorter = if self.lining == LiningFit::Smaller { Self::lining_ease(ruler) } else { Length::ZERO };
        let mut marks = self.boxing_marks(top - shorter);
        if self.pocket().kind != PocketKind::None {
            let edge = self.seam_side + self.depth / 2;
            marks.push(self.pocket().position(self.width, edge, (top + self.pocket.below).max(Length::ZERO)));
        }
        if self.lining == LiningFit::Reversible && self.mouth.needs_gap() {
            let half = (self.width / 4).min(Length::INCH * 2).floor_to(ruler.step());
            marks.push(Mark {
                boxes: false,
                name: "turning gap, left open in the mouth, closed by the topstitching".into(),
                distance: half,
                from: From::Middle,
                and: Some((self.mouth.seam, From::TopEdge)),
            });
        } else if self.mouth.needs_gap() {
            let most = (self.seam_base, Length::INCH * 2);
            marks.push(self.base.turning_gap((self.width, self.height), top, most, ruler));
        }
        let (width, height) = (self.panel_width(across, ruler), self.panel_height(up, ruler));
        let panel = Piece::new("lining-panel", "Lining panel", Part::Lining, width, height)
            .times(self.panels())
            .shaped(self.figure(ruler))
            .marked(marks);
        if self.mouth.kind == Mouth::DoubleHem { panel.noted("its raw edge is tucked under the hem") } else { panel }
    }

    /// What the outer takes above the finished height; a band of lining that shows is taken off it.
    fn above_outer(&self) -> Vec<Term> {
        let mut terms = self.mouth.outer();
        if self.lining == LiningFit::Border {
            terms.push(Term::times("less the band of lining", -1, self.lining_border, "lining_border"));
        }
        terms
    }

    /// What is seen round the mouth beside the outer, and how deep.
    pub fn band(&self) -> Option<(Part, Length)> {
        let of_lining = (self.lining == LiningFit::Border).then_some((Part::Lining, self.lining_border));
        of_lining.or_else(|| self.mouth.band())
    }

    /// What the mouth goes round.
    fn around(&self, ruler: Ruler) -> Around {
        let walls = vec![(self.panel_width(vec![], ruler), 2)];
        Around { width: self.width, depth: self.depth, seam_side: self.seam_side, walls }
    }

    fn strap(&self) -> Strap {
        Strap { make: self.strap_make, width: self.strap_width, turn: self.seam_side }
    }

    fn strap_terms(&self, ruler: Ruler) -> Vec<Term> {
        let mut terms = vec![Term::once("showing", self.strap_length, "strap_length")];
        match self.strap_ends {
            StrapEnds::InMouth => terms.extend(self.mouth.caught(ruler.system())),
            StrapEnds::Outside => {
                let tucked = default_length(ruler.system(), 16, 50);
                terms.push(Term::times("tucked and stitched, both ends", 2, tucked, "strap_ends"));
            }
        }
        terms
    }

    /// Where straps and mouth lie on each other.
    fn stacks(&self) -> Vec<Stack> {
        let under = match self.strap_ends {
            StrapEnds::InMouth => self.mouth.layers(self.lined()),
            // Its end is turned under, on the outer alone.
            StrapEnds::Outside => vec![(Part::Straps, self.strap().layers()), (Part::Outer, 1)],
        };
        let place = if self.strap_ends == StrapEnds::InMouth {
            "a strap goes into the mouth"
        } else {
            "a strap’s end is turned under"
        };
        self.straps.then(|| self.strap().on(place, "strap_make", under)).into_iter().collect()
    }

    fn allowances(&self) -> Allowances {
        let top: Length = self.above_outer().iter().map(Term::value).sum();
        if self.folded() {
            Allowances { side: self.seam_side, top: top * 2, base: Length::ZERO, corner: self.seam_boxing }
        } else {
            Allowances { side: self.seam_side, top, base: self.seam_base, corner: self.seam_boxing }
        }
    }

    fn backing(&self, ruler: Ruler) -> Vec<Piece> {
        let (width, height) = (self.panel_width(vec![], ruler), self.panel_height(self.above_outer(), ruler));
        let panel = Piece::new("outer-panel", "Outer panel", Part::Outer, width, height)
            .times(self.panels())
            .shaped(self.figure(ruler));
        self.backing.behind(&panel, self.allowances(), ruler)
    }

    fn notices(&self, ruler: Ruler, strap_drop: Option<Length>) -> Vec<Notice> {
        let show = |l: Length| Problems::new(ruler).show(l);
        let mut found = Vec::new();
        if self.depth > self.width / 2 {
            let text = format!("Boxed {} deep, more than half the width: the bag stands squat.", show(self.depth));
            found.push(Notice::attention("depth", text));
        }
        if self.boxed() {
            let text =
                format!("Boxing takes {} off the height; the panels are cut taller for it.", show(self.depth / 2));
            found.push(Notice::note("depth", text));
        }
        if let Some(drop) = strap_drop {
            let (likely_wrong, text) = strap::about_drop(drop, &show, ruler);
            let notice = if likely_wrong { Notice::attention } else { Notice::note };
            found.push(notice("strap_length", text));
        }
        found.extend(self.pocket().notices(self.height - self.pocket.below, &show));
        if self.boxing == Boxing::SeamLines && self.boxed() {
            let wrong = boxing::depth_of_square(
                self.depth / 2,
                boxing::Square::SewnFromRawEdges,
                self.seam_side,
                self.seam_boxing,
            );
            let text = format!(
                "The corner squares are {} from the seam lines. Drawn from the raw edges and sewn on the line they would make the bag only {} deep.",
                show(self.depth / 2),
                show(wrong.max(Length::ZERO))
            );
            found.push(Notice::note("boxing", text));
        }
        found.extend(self.base.notice());
        if (self.front.piecing != Piecing::Whole || self.quilted) && self.boxing == Boxing::CutOut && self.boxed() {
            found.push(Notice::note(
                "boxing",
                "The corners of a pieced or quilted panel are cut after it is trimmed, so nothing lies in them.",
            ));
        }
        if self.lining == LiningFit::Smaller {
            let ease = Self::lining_ease(ruler);
            let text = format!(
                "Round the mouth the lining is {} shorter than the outer: sew its side seams {} narrower in their last {}, so that both edges meet.",
                show(ease * 4),
                show(ease),
                show(default_length(ruler.system(), 8, 25))
            );
            found.push(Notice::note("lining", text));
        }
        if self.lining == LiningFit::Reversible {
            if self.strap_ends == StrapEnds::Outside && self.straps {
                let text = "Straps sewn on the outside show their stitching on the other side, which is an outside too: take them into the mouth.";
                found.push(Notice::attention("strap_ends", text));
            }
            if self.backing.is_some() {
                let text = "Neither side of a reversible bag is hidden: the backing lies between them, so its edges are trimmed before the bag is turned.";
                found.push(Notice::note("backing", text));
            }
        }
        found
    }
}

impl Design for Tote {
    /// A middling tote to start from: ½ in or 1 cm seams, a lining turned through, two straps.
    fn default_for(system: System) -> Self {
        let size = |eighths, tenths| default_length(system, eighths, tenths);
        Self {
            width: size(14 * 8, 360),
            height: size(13 * 8, 340),
            depth: size(4 * 8, 100),
            base: BaseJoin::Seam,
            seam_kind: SeamKind::Plain,
            seam_side: size(4, 10),
            seam_base: size(4, 10),
            seam_boxing: size(4, 10),
            boxing: Boxing::CutOut,
            mouth: MouthFinish::default_for(Mouth::TurnedThrough, size(4, 10), system),
            front: Patchwork { piecing: Piecing::Whole, columns: 4, rows: 4, seam: size(2, 7) },
            quilted: false,
            lining: LiningFit::Same,
            lining_border: size(4, 12),
            straps: true,
            strap_make: StrapMake::FoldedInFour,
            strap_width: size(8, 25),
            strap_length: size(24 * 8, 600),
            strap_inset: size(20, 60),
            strap_ends: StrapEnds::InMouth,
            pocket: PocketChoice::default_for(PocketKind::Slip, system),
            backing: BackingChoice { school: BackingSchool::None, cloth: BackingCloth::Fleece },
            extras: Extras::default_for(system),
        }
    }

    fn fields(&mut self) -> Vec<Field<'_>> {
        let (lined, boxed, folded) = (self.lined(), self.boxed(), self.folded());
        let (bordered, open) = (self.lining == LiningFit::Border, !self.mouth.is_zipped());
        let (straps, front) = (self.straps, self.front.piecing);
        let mut all = vec![
            Field::size("width", "Wide, at the base", Group::Size, &mut self.width).scaling(),
            Field::size("height", "Tall", Group::Size, &mut self.height).scaling(),
            Field::size("depth", "Deep; 0 for a flat bag", Group::Size, &mut self.depth).scaling(),
            Field::choice("base", "Front and back", Group::Base, &mut self.base),
            Field::choice("boxing", "How the corners are boxed", Group::Base, &mut self.boxing).only_if(boxed),
        ];
        all.extend(self.mouth.fields());
        all.extend(self.front.fields("How the front is made up"));
        all.extend([
            Field::toggle("quilted", "Quilted before it is trimmed", Group::Front, &mut self.quilted)
                .only_if(front == Piecing::Whole),
            Field::toggle("straps", "Two straps", Group::Straps, &mut self.straps),
            Field::choice("strap_make", "How they are made", Group::Straps, &mut self.strap_make).only_if(straps),
            Field::size("strap_width", "Finished width", Group::Straps, &mut self.strap_width).only_if(straps),
            Field::size("strap_length", "How much shows", Group::Straps, &mut self.strap_length)
                .reaching()
                .only_if(straps),
            Field::size("strap_inset", "In from the edge of the face", Group::Straps, &mut self.strap_inset)
                .scaling()
                .only_if(straps),
            Field::choice("strap_ends", "Their ends", Group::Straps, &mut self.strap_ends).only_if(straps),
        ]);
        all.extend(self.pocket.fields(lined));
        all.extend([
            Field::choice("lining", "Lining", Group::Lining, &mut self.lining),
            Field::size("lining_border", "The band", Group::Lining, &mut self.lining_border).only_if(bordered),
        ]);
        all.extend(self.backing.fields("Behind the outer"));
        all.extend([
            self.seam_kind.field(!lined),
            Field::seam("seam_side", "Side seams", &mut self.seam_side),
            Field::seam("seam_base", "Base seam", &mut self.seam_base).only_if(!folded),
            Field::seam("seam_boxing", "Boxing seam", &mut self.seam_boxing).only_if(boxed),
        ]);
        all.extend(self.extras.fields(open));
        all
    }

    /// A mouth with a seam needs a lining, a pieced front a panel of its own: the one choice brings the other along.
    fn update_dependents(&mut self, key: &str, system: System) {
        match key {
            "mouth" if self.mouth.needs_lining() && !self.lined() => self.lining = LiningFit::Same,
            "mouth" if self.lining == LiningFit::Reversible && !self.may_be_reversed() => {
                self.lining = LiningFit::Same;
            }
            "mouth" if self.lining == LiningFit::Border && self.mouth.kind != Mouth::TurnedThrough => {
                self.lining = LiningFit::Same;
            }
            "lining" if self.lining == LiningFit::Border => self.mouth.kind = Mouth::TurnedThrough,
            "lining" if self.mouth.needs_lining() && !self.lined() => self.mouth.kind = Mouth::DoubleHem,
            "lining" if self.lining == LiningFit::Reversible => {
                if !self.may_be_reversed() {
                    self.mouth.kind = Mouth::TurnedThrough;
                }
                self.strap_ends = StrapEnds::InMouth;
            }
            "seam_kind" => self.seam_side = self.seam_kind.default_for(system),
            "front" if self.front.piecing != Piecing::Whole => self.base = BaseJoin::Seam,
            "base" if self.folded() => self.front.piecing = Piecing::Whole,
            _ => self.pocket.update_dependents(key, system),
        }
    }

    fn draft(&self, ruler: Ruler) -> Result<Draft, Vec<FieldProblem>> {
        self.problems(ruler)?;
        let (mut pieces, mut notices) = self.outer(ruler);
        let (mut goods, mut hardware) = (vec![], vec![]);
        if self.lined() {
            pieces.push(self.lining_panel(ruler));
        }
        let (made, bought) = self.mouth.made(&self.around(ruler), ruler);
        pieces.extend(made);
        hardware.extend(bought);
        pieces.extend(self.pocket().pieces(ruler));
        hardware.extend(self.pocket().hardware(ruler));
        if self.straps {
            let (made, bought) = self.strap().made("strap", "Strap", 2, self.strap_terms(ruler), ruler);
            pieces.extend(made);
            goods.extend(bought);
        }
        pieces.extend(self.backing(ruler));
        if self.quilted && self.front.piecing == Piecing::Whole {
            quilting::quilt(&mut pieces, "outer-panel", ruler);
        }
        let spacing = self.straps.then(|| self.strap_spacing());
        let strap_drop = spacing.and_then(|p| strap::drop(self.strap_length, p));
        notices.extend(self.notices(ruler, strap_drop));
        let mut draft = Draft {
            pieces,
            goods,
            hardware,
            steps: self.steps(ruler),
            notices,
            stacks: self.stacks(),
            strap_drop,
            strap_spacing: spacing,
            millilitres: millilitres(self.width, self.height, self.depth),
        };
        let place = Place {
            outer: "outer-panel",
            outer_top: self.above_outer().iter().map(Term::value).sum(),
            lining_top: self.lined().then(|| self.mouth.lining().iter().map(Term::value).sum()),
            face: self.height,
            seam: self.seam_side,
        };
        self.extras.onto(&mut draft, &place, !self.mouth.is_zipped(), ruler);
        Ok(draft)
    }

    fn finished_from_cut(&self, draft: &Draft) -> Vec<Finished> {
        let Some(panel) = draft.piece("outer-panel") else { return vec![] };
        let (cut_width, cut_height) = panel.size();
        let depth = match &panel.figure {
            Figure::CutOut { up, .. } => (up.size + self.seam_boxing - self.seam_base) * 2,
            Figure::CutAtFold { up, .. } => (up.size + self.seam_boxing) * 2,
            _ if self.boxing == Boxing::FoldedIn => {
                panel.marks.iter().find(|m| m.boxes).map_or(Length::ZERO, |m| cut_height - m.distance * 2)
            }
            // Of a panel left whole the marks say where its corners are sewn.
            _ => panel.marks.iter().find(|m| m.boxes).map_or(Length::ZERO, |m| (m.distance - self.seam_side) * 2),
        };
        let across = match &panel.figure {
            Figure::CutOut { across, .. } | Figure::CutAtFold { across, .. } => across.size + self.seam_boxing,
            _ => self.seam_side + self.depth / 2,
        };
        let top: Length = self.above_outer().iter().map(Term::value).sum();
        let height = if self.folded() {
            (cut_height - depth - top * 2) / 2
        } else {
            cut_height - depth / 2 - top - self.seam_base
        };
        vec![
            Finished { name: "wide".into(), field: "width".into(), asked: self.width, back: cut_width - across * 2 },
            Finished { name: "tall".into(), field: "height".into(), asked: self.height, back: height },
            Finished { name: "deep".into(), field: "depth".into(), asked: self.depth, back: depth },
        ]
    }

    fn seen(&self) -> Vec<Seen> {
        let spacing = self.strap_spacing();
        let handle = |side| {
            let drop = strap::drop(self.strap_length, spacing).filter(|_| self.straps)?;
            let cloth = (self.strap_make != StrapMake::Webbing).then_some(Part::Straps);
            let height = if self.strap_ends == StrapEnds::Outside { Length::INCH * 2 } else { Length::ZERO };
            Some(Seen {
                side,
                looks: Looks::Handle { cloth, wide: self.strap_width, drop },
                left: self.strap_inset,
                down: Length::ZERO,
                width: spacing + self.strap_width,
                height,
                moves: Moves::default(),
            })
        };
        let handles = [Side::Front, Side::Back].into_iter().filter_map(handle);
        handles.chain(self.pocket.seen(self.lined(), self.width)).collect()
    }

    fn walls(&self, ruler: Ruler) -> Vec<Wall> {
        let side = (self.seam_side, "seam_side");
        let beside = self.seam_side + self.depth / 2;
        let sum = |terms: Vec<Term>| terms.iter().map(Term::value).sum::<Length>();
        let top = sum(self.above_outer());
        let based = |wall: Wall| {
            if self.folded() { wall } else { wall.based(self.depth / 2, (self.seam_base, "seam_base")) }
        };
        let open = |wall: Wall| {
            if self.mouth.is_zipped() {
                wall
            } else {
                wall.open(self.mouth.caught(ruler.system()), self.mouth.layers(self.lined()))
            }
        };
        let back = Wall::new(Side::Back, "outer-panel", (self.width, self.height), beside, top).between(side);
        let back = back.edged(&self.above_outer());
        let back = open(based(back));
        let front = Wall { piece: Some(self.front_piece()), ..back.on(Side::Front) };
        let turned = |wall: Wall| if self.folded() { wall.turned_over() } else { wall };
        let mut walls = vec![front.clone(), turned(back)];
        if self.boxed() {
            // Half of a side wall is on each panel.
            let end = Wall { width: self.depth, across_a_seam: true, piece: Some("outer-panel"), ..front };
            walls.extend([end.on(Side::Left), end.on(Side::Right)]);
        }
        if self.lined() {
            let mut above = self.mouth.lining();
            if self.lining == LiningFit::Border {
                above.push(Term::once("band that shows", self.lining_border, "lining_border"));
            }
            let ease = if self.lining == LiningFit::Smaller { Self::lining_ease(ruler) } else { Length::ZERO };
            let inside = Wall::new(
                Side::InsideFront,
                "lining-panel",
                (self.width, self.height),
                beside - ease,
                sum(above.clone()),
            )
            .edged(&above);
            let inside = based(inside.between(side));
            walls.extend([inside.clone(), turned(inside.on(Side::InsideBack))]);
        }
        walls
    }

    fn seams(&self, ruler: Ruler) -> Vec<Seam> {
        let (side, base, boxing) = (self.seam_side, self.seam_base, self.seam_boxing);
        let panels: &[&'static str] = if self.lined() { &["outer-panel", "lining-panel"] } else { &["outer-panel"] };
        let mut seams = vec![];
        for panel in panels.iter().copied() {
            if self.boxed() && self.boxing == Boxing::CutOut {
                let [along, corner] = boxed(panel, side, if self.folded() { Length::ZERO } else { base }, boxing);
                seams.extend((!self.folded()).then_some(along));
                seams.push(corner);
            }
        }
        if self.front.piecing != Piecing::Whole {
            let of = |panel, edge, seam, ends| Stretch::new(panel, edge, seam, ends);
            seams.push(Seam::new(
                "front to back, at the sides",
                of("front-panel", Edge::Side, side, Length::ZERO),
                of("outer-panel", Edge::Side, side, Length::ZERO),
            ));
            seams.push(Seam::new(
                "front to back, at the base",
                of("front-panel", Edge::Base, base, side * 2),
                of("outer-panel", Edge::Base, base, side * 2),
            ));
        }
        if self.lined() {
            let of = |panel| Stretch::new(panel, Edge::Top, self.mouth.seam, side * 2);
            let smaller = if self.lining == LiningFit::Smaller { Self::lining_ease(ruler) * 2 } else { Length::ZERO };
            seams.push(Seam::new("round the mouth", of("outer-panel"), of("lining-panel")).easing(smaller));
        }
        seams
    }

    fn solid(&self, draft: &Draft) -> Solid {
        let (w, h, d) = (self.width.0 as f64, self.height.0 as f64, self.depth.0 as f64);
        let inside = if self.lined() { Part::Lining } else { Part::Outer };
        let front = if self.front.piecing == Piecing::Whole { Part::Outer } else { Part::Contrast };
        let mut solid = Solid::open_box(w, h, d, inside, Part::Outer);
        if let Some(face) = solid.faces.last_mut() {
            face.part = front;
        }
        solid = mouth::banded(solid, self.band(), (w, h, d));
        let stitch = h - self.mouth.stitched_below().0 as f64;
        solid = solid.thread(ThreadKind::Stitch, [[0.0, stitch, 0.0], [w, stitch, 0.0]]);
        if self.mouth.is_zipped() {
            solid = solid.thread(ThreadKind::Zip, [[w * 0.06, h, d / 2.0], [w * 0.94, h, d / 2.0]]);
        }
        if let (Some(spacing), Some(drop)) = (draft.strap_spacing, draft.strap_drop) {
            let (half, drop) = (spacing.0 as f64 / 2.0, drop.0 as f64);
            let ends = |z: f64| ([w / 2.0 - half, h, z], [w / 2.0 + half, h, z]);
            let ((a, b), (c, e)) = (ends(d), ends(0.0));
            solid = solid.back_handle(a, b, drop, self.strap_width).handle(c, e, drop, self.strap_width);
        }
        solid.sizes(w, h, d)
    }
}

impl Tote {
    fn steps(&self, ruler: Ruler) -> Vec<String> {
        let mut steps: Vec<String> = Vec::new();
        let mut add = |text: &str| steps.push(text.to_owned());
        if self.front.piecing != Piecing::Whole {
            add("Piece the front and trim it to the panel’s size.");
        }
        self.backing.step().into_iter().for_each(&mut add);
        if self.quilted {
            add("Quilt the outer from the middle out, then trim it to size.");
        }
        if self.straps {
            add("Make the straps.");
        }
        if self.pocket().kind != PocketKind::None {
            add("Sew the pocket on the lining.");
        }
        let folded_in = self.boxed() && self.boxing == Boxing::FoldedIn;
        if folded_in {
            add(
                "Fold every body right sides together, its base up between the panels: both folds of the base lie on each other.",
            );
        }
        if self.lined() {
            add("Join the outer at the sides.");
        } else {
            add(&self.seam_kind.step(self.seam_side, "", ruler));
        }
        if folded_in {
            add("The side seams go through four layers at the folded base: turn, and press the base flat.");
        } else if self.boxed() {
            add("Box the corners.");
        }
        if self.lining == LiningFit::Reversible && self.mouth.needs_gap() {
            add("Sew the lining the same way, all round: there is no gap in it.");
            add(
                "Outer into lining, right sides together: sew round the mouth with the straps between, a gap between two strap ends; turn through it.",
            );
            add("Press the gap’s edges in and topstitch all round the mouth: that closes it.");
        } else {
            self.mouth.steps(self.lined()).iter().for_each(|step| add(step));
        }
        steps
    }
}

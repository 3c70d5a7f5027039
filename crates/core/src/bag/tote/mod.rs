//! The tote: two panels or one over the base, flat or boxed, straight, slanting, gathered or pleated, lined or not, two
//! straps, a pocket, a pieced front.
//!
//! Signs as in docs/rules.md: finished width W at the base, height H, depth D; seams s side, b base, x boxing, t top.
//! Panel (W + D + 2s) × (H + D/2 + b + t), over the base (W + D + 2s) × (2H + D + 2t); `mouth` decides t, `rise` how wide
//! the mouth is.

mod problems;
mod words;

use crate::FieldProblem;
use crate::bag::backing::{Allowances, BackingChoice, BackingCloth, BackingSchool};
use crate::bag::base::BaseJoin;
use crate::bag::boxing::{self, Boxing, Corner};
use crate::bag::draft::{Draft, Finished, Notice, Stack, millilitres};
use crate::bag::extras::{Extras, Place};
use crate::bag::field::{Field, Group, choice};
use crate::bag::mouth::{Around, Mouth, MouthFinish};
use crate::bag::piecing::{Patchwork, Piecing};
use crate::bag::pocket::{Pocket, PocketChoice, PocketKind};
use crate::bag::rise::{Rise, Slant};
use crate::bag::seam::SeamKind;
use crate::bag::sewn::{Edge, Seam, Stretch, boxed};
use crate::bag::solid::{Solid, ThreadKind};
use crate::bag::strap::{self, Strap, StrapMake};
use crate::bag::wall::{Ends, Looks, Moves, Seen, Side, Wall};
use crate::bag::{Design, hem, lining, mouth, quilting};
use crate::measure::{Length, Ruler, System, default_length};
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
    /// How the walls rise to the mouth.
    pub rise: Rise,
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
        self.mouth_face() - self.strap_inset * 2 - self.strap_width
    }

    /// The mouth laid flat, from side seam to side seam.
    pub fn flat_mouth(&self) -> Length {
        self.rise.flat_mouth(self.width + self.depth)
    }

    /// How wide the face is at the mouth: it keeps its share of the way round.
    pub fn mouth_face(&self) -> Length {
        self.rise.mouth_face(self.width, self.width + self.depth)
    }

    /// How wide the face is where it is narrowest, all the way up: what is put on it has its place there.
    fn clear_face(&self) -> Length {
        self.rise.clear_face(self.width, self.width + self.depth)
    }

    /// How a panel leans that takes `above` at its mouth and is smaller by `less` all round.
    fn slant(&self, above: &[Term], less: Length) -> Option<Slant> {
        let top = if self.mouth.has_seam() { self.mouth.seam } else { Length::ZERO };
        let all: Length = above.iter().map(Term::value).sum();
        let long = self.height + self.depth / 2 + all - top - less;
        self.rise.slant(self.width + self.depth, long, self.seam_side, (self.seam_base, top))
    }

    fn millilitres(&self) -> i64 {
        let straight = millilitres(self.width, self.height, self.depth) as f64;
        (straight * self.rise.holds(self.width + self.depth)).round() as i64
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

    /// A panel's width where it is widest.
    fn panel_width(&self, extra: Vec<Term>, slant: Option<&Slant>, ruler: Ruler) -> Dimension {
        let mut terms = vec![Term::once("wide", self.width, "width"), Term::once("deep", self.depth, "depth")];
        let seams = Term::times("side seams", 2, self.seam_side, "seam_side");
        if let Some(slant) = slant {
            return self.rise.widest(terms, seams, slant, extra, ruler);
        }
        terms.push(seams);
        terms.extend(extra);
        Dimension::sum(terms, ruler)
    }

    /// What it is between its side seams at the mouth, with both of them.
    fn mouth_width(&self, ruler: Ruler) -> Dimension {
        if self.rise.is_straight() {
            return self.panel_width(vec![], None, ruler);
        }
        let field = if self.rise.is_pleated() { "pleats" } else { "mouth_width" };
        let terms = vec![
            Term::once("the mouth, laid flat", self.flat_mouth(), field),
            Term::times("side seams", 2, self.seam_side, "seam_side"),
        ];
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

    /// A notch where the corners are cut out, or the sides on the slant.
    fn figure(&self, slant: Option<&Slant>, ruler: Ruler) -> Figure {
        if let Some(slant) = slant {
            return slant.figure(ruler);
        }
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
    fn boxing_marks(&self, top: Length, slant: Option<&Slant>) -> Vec<Mark> {
        if !self.boxed() {
            return vec![];
        }
        if let Some(slant) = slant {
            return vec![slant.corner(self.width, self.depth, self.seam_base)];
        }
        let base = if self.folded() { Length::ZERO } else { self.seam_base };
        let mark = |name, from_seam: Length| Mark {
            boxes: true,
            share: false,
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
                    share: false,
                    name: "fold of the base, brought down to the other".into(),
                    distance: top + self.height,
                    from,
                    and: None,
                })
                .into(),
        }
    }

    fn outer(&self, ruler: Ruler) -> (Vec<Piece>, Vec<Notice>) {
        let slant = self.slant(&self.above_outer(), Length::ZERO);
        let mut marks = self.boxing_marks(self.above_outer().iter().map(Term::value).sum(), slant.as_ref());
        marks.extend(self.rise.marks(self.width, ruler));
        if self.mouth.kind == Mouth::DoubleHem {
            let (first, second) = hem::landing_lines(self.mouth.hem_turn, self.mouth.hem_depth);
            for (name, distance) in [("fold the edge to this line", first), ("fold the hem to this line", second)] {
                marks.push(Mark {
                    boxes: false,
                    share: false,
                    name: name.into(),
                    distance,
                    from: From::TopEdge,
                    and: None,
                });
            }
        }
        if self.straps {
            let from_side = self.seam_side + self.depth / 2 + self.strap_inset + self.strap_width / 2;
            marks.push(Mark {
                boxes: false,
                share: false,
                name: if self.rise.taken_in() {
                    "strap centre, measured when the mouth is taken in".into()
                } else {
                    "strap centre".into()
                },
                distance: self.strap_spacing() / 2,
                from: From::Middle,
                // A slanting or gathered edge is nothing to measure from.
                and: self.rise.is_straight().then_some((from_side, From::SideEdges)),
            });
        }
        let width = self.panel_width(vec![], slant.as_ref(), ruler);
        let height = self.panel_height(self.above_outer(), ruler);
        let panel = Piece::new("outer-panel", "Outer panel", Part::Outer, width, height)
            .shaped(self.figure(slant.as_ref(), ruler))
            .marked(marks);
        if self.front.piecing != Piecing::Whole {
            let front = Piece { id: "front-panel".into(), name: "Front panel".into(), ..panel.clone() };
            let (mut pieces, notices) = self.front.of(front, ruler);
            pieces.push(panel.noted("the back"));
            return (pieces, notices);
        }
        (vec![panel.times(self.panels())], vec![])
    }

    fn lining_panel(&self, ruler: Ruler) -> Piece {
        let (mut across, mut up) = (vec![], vec![]);
        if self.lining == LiningFit::Smaller {
            across.push(lining::across(ruler, "lining"));
            up.push(lining::up(ruler, "lining"));
        }
        let mouth = self.above_lining();
        let top: Length = mouth.iter().map(Term::value).sum();
        up.splice(0..0, mouth.clone());
        let shorter = self.lining_shorter(ruler);
        let slant = self.slant(&mouth, shorter);
        let mut marks = self.boxing_marks(top - shorter, slant.as_ref());
        marks.extend(self.rise.marks(self.width, ruler));
        if self.pocket().kind != PocketKind::None {
            let edge = self.beside(slant.as_ref(), ruler);
            marks.push(self.pocket().position(self.clear_face(), edge, (top + self.pocket.below).max(Length::ZERO)));
        }
        if self.lining == LiningFit::Reversible && self.mouth.needs_gap() {
            let half = (self.width / 4).min(Length::INCH * 2).floor_to(ruler.step());
            marks.push(Mark {
                boxes: false,
                share: false,
                name: format!(
                    "turning gap, {} {} long, left open in the mouth, closed by the topstitching",
                    ruler.show(half * 2).text,
                    ruler.system().symbol()
                )
                .into(),
                distance: half,
                from: From::Middle,
                and: Some((self.mouth.seam, From::TopEdge)),
            });
        }
        let (width, height) = (self.panel_width(across, slant.as_ref(), ruler), self.panel_height(up, ruler));
        let panel = Piece::new("lining-panel", "Lining panel", Part::Lining, width, height)
            .times(self.panels())
            .shaped(self.figure(slant.as_ref(), ruler))
            .marked(marks);
        let panel = if self.mouth.needs_gap() && self.lining != LiningFit::Reversible {
            let gap = self.base.turning_gap(&panel, (top, self.seam_base), Length::INCH * 4, ruler);
            panel.marked([gap])
        } else {
            panel
        };
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

    /// What the lining takes above the finished height, a band of it that shows too.
    fn above_lining(&self) -> Vec<Term> {
        let mut terms = self.mouth.lining();
        if self.lining == LiningFit::Border {
            terms.push(Term::once("band that shows", self.lining_border, "lining_border"));
        }
        terms
    }

    /// By how much the lining is shorter, and narrower on each side.
    fn lining_shorter(&self, ruler: Ruler) -> Length {
        if self.lining == LiningFit::Smaller { lining::ease(ruler) } else { Length::ZERO }
    }

    /// What is seen round the mouth beside the outer, and how deep.
    pub fn band(&self) -> Option<(Part, Length)> {
        let of_lining = (self.lining == LiningFit::Border).then_some((Part::Lining, self.lining_border));
        of_lining.or_else(|| self.mouth.band())
    }

    /// What the mouth goes round.
    fn around(&self, ruler: Ruler) -> Around {
        let walls = vec![(self.mouth_width(ruler), 2)];
        let (width, depth) = if self.rise.is_straight() {
            ((self.width, "width"), self.depth)
        } else {
            ((self.flat_mouth(), if self.rise.is_pleated() { "pleats" } else { "mouth_width" }), Length::ZERO)
        };
        Around { width, depth, seam_side: self.seam_side, walls }
    }

    /// From the raw side edge of an outer panel, where it is widest, to the face that is clear all the way up.
    fn beside(&self, slant: Option<&Slant>, ruler: Ruler) -> Length {
        match slant {
            Some(slant) => (self.panel_width(vec![], Some(slant), ruler).size - self.clear_face()) / 2,
            None => self.seam_side + self.depth / 2,
        }
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
        let strap = self.straps.then(|| self.strap().on(place, "strap_make", under));
        strap.into_iter().chain(self.rise.stack(self.mouth.layers(self.lined()))).collect()
    }

    fn allowances(&self) -> Allowances {
        let top = self.mouth.edge();
        if self.folded() {
            Allowances { side: self.seam_side, top: top * 2, base: Length::ZERO, corner: self.seam_boxing }
        } else {
            Allowances { side: self.seam_side, top, base: self.seam_base, corner: self.seam_boxing }
        }
    }

    fn backing(&self, ruler: Ruler) -> Vec<Piece> {
        let slant = self.slant(&self.above_outer(), Length::ZERO);
        let width = self.panel_width(vec![], slant.as_ref(), ruler);
        let height = self.panel_height(self.above_outer(), ruler);
        let panel = Piece::new("outer-panel", "Outer panel", Part::Outer, width, height)
            .times(self.panels())
            .shaped(self.figure(slant.as_ref(), ruler));
        self.backing.behind(&panel, self.allowances(), ruler)
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
            rise: Rise::default_for(system),
            mouth: MouthFinish::default_for(Mouth::TurnedThrough, size(4, 10), system),
            front: Patchwork::by_turns(Piecing::Whole, (4, 4), size(2, 7)),
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
        all.extend(self.rise.fields());
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
            "rising" if !self.rise.is_straight() => {
                self.rise.suit(self.width + self.depth, system);
                if !self.may_be_reversed() {
                    self.mouth.kind = if self.lined() { Mouth::TurnedThrough } else { Mouth::Bound };
                }
                if self.rise.slants() {
                    self.base = BaseJoin::Seam;
                    self.boxing = Boxing::SewnAcross;
                }
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
            millilitres: self.millilitres(),
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
        if let Some(slant) = self.slant(&self.above_outer(), Length::ZERO) {
            return self.back_of_slanting(&panel.as_trimmed(), &slant);
        }
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

    fn patchwork_mut(&mut self) -> Option<(&'static str, &mut Patchwork)> {
        Some(("front-panel", &mut self.front))
    }

    fn seen(&self) -> Vec<(Group, Seen)> {
        let spacing = self.strap_spacing();
        let handle = |side| {
            let drop = strap::drop(self.strap_length, spacing).filter(|_| self.straps)?;
            let cloth = (self.strap_make != StrapMake::Webbing).then_some(Part::Straps);
            let height = if self.strap_ends == StrapEnds::Outside { Length::INCH * 2 } else { Length::ZERO };
            let ends = Ends { field: "strap_inset", is: self.strap_inset, outward: -1 };
            let seen = Seen {
                side,
                looks: Looks::Handle { cloth, wide: self.strap_width, drop },
                left: (self.clear_face() - spacing - self.strap_width) / 2,
                down: Length::ZERO,
                width: spacing + self.strap_width,
                height,
                moves: Moves { ends: Some(ends), ..Moves::default() },
            };
            Some((Group::Straps, seen))
        };
        let handles = [Side::Front, Side::Back].into_iter().filter_map(handle);
        handles.chain(self.pocket.seen(self.lined(), self.clear_face())).collect()
    }

    fn walls(&self, ruler: Ruler) -> Vec<Wall> {
        let side = (self.seam_side, "seam_side");
        let slant = self.slant(&self.above_outer(), Length::ZERO);
        let beside = self.beside(slant.as_ref(), ruler);
        let face = (self.clear_face(), self.height);
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
        let ends = self.rise.face_ends(self.width, self.width + self.depth);
        let between = |wall: Wall| wall.between(side).slanting(ends);
        // Nor can an edge that is still to be taken in.
        let open = |wall: Wall| if self.rise.taken_in() { wall } else { open(wall) };
        let back = between(Wall::new(Side::Back, "outer-panel", face, beside, top));
        let back = back.edged(&self.above_outer());
        let back = open(based(back));
        let front = Wall { piece: Some(self.front_piece()), ..back.on(Side::Front) };
        let turned = |wall: Wall| if self.folded() { wall.turned_over() } else { wall };
        let mut walls = vec![front.clone(), turned(back)];
        if self.boxed() && !self.rise.slants() {
            // Half of a side wall is on each panel.
            let end = Wall { width: self.depth, across_a_seam: true, piece: Some("outer-panel"), ..front };
            walls.extend([end.on(Side::Left), end.on(Side::Right)]);
        }
        if self.lined() {
            let above = self.above_lining();
            let ease = self.lining_shorter(ruler);
            let inside =
                Wall::new(Side::InsideFront, "lining-panel", face, beside - ease, sum(above.clone())).edged(&above);
            let inside = based(between(inside));
            walls.extend([inside.clone(), turned(inside.on(Side::InsideBack))]);
        }
        walls
    }

    fn seams(&self, ruler: Ruler) -> Vec<Seam> {
        let (side, base, boxing) = (self.seam_side, self.seam_base, self.seam_boxing);
        // On the slant a raw edge stands over its seam line by more than the side seams.
        let ends = |slant: Option<Slant>| slant.map_or(side * 2, |s| s.over_the_mouth());
        let outer_slant = self.slant(&self.above_outer(), Length::ZERO);
        let lining_slant = self.slant(&self.above_lining(), self.lining_shorter(ruler));
        let (outer_ends, lining_ends) = (ends(outer_slant), ends(lining_slant));
        let outer = ("outer-panel", ["outer", "corners"], outer_slant);
        let lining = ("lining-panel", ["lining", "lining"], lining_slant);
        let mut seams = vec![];
        for (panel, [step, corners], slant) in [outer].into_iter().chain(self.lined().then_some(lining)) {
            let cut_out = self.boxed() && self.boxing == Boxing::CutOut;
            let edge = if self.folded() { Edge::SideToFold } else { Edge::Side };
            seams.push(Seam::like("side seam", step, Stretch::new(panel, edge, side, Length::ZERO)));
            if cut_out {
                let below = if self.folded() { Length::ZERO } else { base };
                let [along, corner] = boxed(panel, [step, corners], side, below, boxing);
                seams.extend((!self.folded()).then_some(along));
                seams.push(corner);
            } else if !self.folded() {
                let ends = slant.map_or(side * 2, |s| s.over_the_base());
                seams.push(Seam::like("base seam", step, Stretch::new(panel, Edge::Base, base, ends)));
            }
        }
        if self.front.piecing != Piecing::Whole {
            let of = |panel, edge, seam, ends| Stretch::new(panel, edge, seam, ends);
            seams.push(Seam::new(
                "front to back, at the sides",
                "outer",
                of("front-panel", Edge::Side, side, Length::ZERO),
                of("outer-panel", Edge::Side, side, Length::ZERO),
            ));
            seams.push(Seam::new(
                "front to back, at the base",
                "outer",
                of("front-panel", Edge::Base, base, side * 2),
                of("outer-panel", Edge::Base, base, side * 2),
            ));
        }
        let sewn = self.mouth.sewn_at();
        if self.lined() {
            let of = |panel, ends| Stretch::new(panel, Edge::Top, sewn, ends);
            let smaller = self.lining_shorter(ruler) * 2;
            let round =
                Seam::new("round the mouth", "mouth", of("outer-panel", outer_ends), of("lining-panel", lining_ends));
            seams.push(round.easing(smaller));
        }
        let round = match self.mouth.kind {
            Mouth::Band => Some(("band to the mouth", "band")),
            Mouth::FacingOver | Mouth::FacingZip | Mouth::ZipBand => Some(("facing to the mouth", "facing")),
            _ => None,
        };
        if let Some((name, piece)) = round {
            let of = |panel, ends| Stretch::new(panel, Edge::Top, sewn, ends);
            let base = self.width + self.depth;
            let taken_in = if self.rise.taken_in() { base - self.flat_mouth() } else { Length::ZERO };
            let ring = Seam::new(name, "mouth", of("outer-panel", outer_ends), of(piece, side * 2));
            seams.push(ring.easing(taken_in));
        }
        seams
    }

    fn solid(&self, draft: &Draft) -> Solid {
        let (w, h, d) = (self.width.0 as f64, self.height.0 as f64, self.depth.0 as f64);
        let inside = if self.lined() { Part::Lining } else { Part::Outer };
        let front = if self.front.piecing == Piecing::Whole { Part::Outer } else { Part::Contrast };
        let mouth = self.rise.at_the_mouth(self.width + self.depth);
        let mut solid = Solid::open_box(w, h, d, inside, Part::Outer).drawn_in(mouth);
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
    /// The finished sizes of a bag with slanting sides, from its outer panel.
    fn back_of_slanting(&self, panel: &Piece, slant: &Slant) -> Vec<Finished> {
        let (base, mouth) = slant.ends_of(panel);
        let depth = panel.marks.iter().find(|m| m.boxes).map_or(Length::ZERO, |m| base - m.distance * 2);
        let top: Length = self.above_outer().iter().map(Term::value).sum();
        let finished = |name: &'static str, field: &'static str, asked, back| Finished {
            name: name.into(),
            field: field.into(),
            asked,
            back,
        };
        vec![
            finished("wide", "width", self.width, base - depth),
            finished("tall", "height", self.height, panel.height.size - depth / 2 - top - self.seam_base),
            finished("deep", "depth", self.depth, depth),
            finished("wide at the mouth, laid flat", "mouth_width", self.rise.mouth_width, mouth),
        ]
    }
}

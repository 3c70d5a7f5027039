//! Drawstring bags: plain or lined, the casing folded over or sewn on, the base flat, boxed, rounded or a circle.
//!
//! Unlined with a folded casing: (W + 2s) × 2(H + turn + casing) in one piece, or two panels with a base seam. Casings
//! of their own are shorter than the panel by the side seams and a clearance; round bases take a wall π·d + 2s long.

use super::backing::{Allowances, BackingChoice, BackingCloth, BackingSchool};
use super::base::gap_in_side;
use super::boxing::{self, Corner};
use super::cord::{self, CordRoute};
use super::draft::{Draft, Finished, Notice, millilitres};
use super::extras::{Extras, Place};
use super::field::{Choice, Field, Group, choice};
use super::order::{Phase, Step, in_order};
use super::pocket::{PocketChoice, PocketKind};
use super::problems::Problems;
use super::seam::SeamKind;
use super::sewn::{Edge, Seam, Stretch, boxed};
use super::solid::{Solid, ThreadKind, ring};
use super::wall::{Seen, Side, Wall};
use super::{Design, hem, round};
use crate::FieldProblem;
use crate::measure::{Length, Ruler, System, default_length};
use crate::piece::{Dimension, Figure, From, Mark, Part, Piece, Term};
use std::f64::consts::{PI, TAU};

choice! {
    /// The base.
    SackBase {
        /// One piece, folded.
        Fold = "fold", "Folded", "one piece over the base";
        /// Two panels and a seam.
        Seam = "seam", "Seamed", "two panels";
        /// Two panels, corners boxed.
        Boxed = "boxed", "Boxed", "two panels, squares cut out of the corners";
        /// Two panels with rounded corners.
        Rounded = "rounded", "Rounded corners", "two panels";
        /// A circle and a wall round it.
        Round = "round", "Round", "a circle and a wall; the width is its diameter";
    }
}

choice! {
    /// The casing the cord runs in.
    Casing {
        /// The top edge folded over.
        Folded = "folded", "Folded over", "the top turned and stitched";
        /// Strips sewn on the outside.
        SewnOn = "sewn-on", "Sewn on", "strips of their own, shorter than the bag is wide";
        /// Strips folded and caught in the top seam of a lined bag; they stand above the mouth.
        InSeam = "in-seam", "Caught in the top seam", "strips folded lengthwise, above the mouth of a lined bag";
    }
}

/// A drawstring bag by its finished sizes.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Drawstring {
    /// Finished width; of a round base, the diameter.
    pub width: Length,
    /// Finished height, base to top edge.
    pub height: Length,
    /// Finished depth when boxed.
    pub depth: Length,
    /// The base.
    pub base: SackBase,
    /// Radius of rounded corners.
    pub radius: Length,
    /// The casing.
    pub casing: Casing,
    /// First turn of a folded casing.
    pub hem_turn: Length,
    /// Depth of the casing.
    pub casing_depth: Length,
    /// How far a casing of its own stops short of the side seam.
    pub clearance: Length,
    /// From the top edge down to a casing of its own.
    pub casing_below: Length,
    /// Whether it is lined.
    pub lined: bool,
    /// Either side out: only with a casing that is seen from both.
    pub reversible: bool,
    /// The pocket on the lining.
    pub pocket: PocketChoice,
    /// What lies behind it.
    pub backing: BackingChoice,
    /// Loops, tabs, a label, a closure.
    pub extras: Extras,
    /// How the cord runs.
    pub cord: CordRoute,
    /// Left over at each end.
    pub cord_tail: Length,
    /// The cord is a strip of cloth, folded in four.
    pub cord_of_cloth: bool,
    /// Its finished width.
    pub cord_width: Length,
    /// How the side seams are sewn.
    pub seam_kind: SeamKind,
    /// Side seams.
    pub seam_side: Length,
    /// Base seam.
    pub seam_base: Length,
    /// Top seam of a lined bag.
    pub seam_top: Length,
}

impl Drawstring {
    /// Where the casing is folded, or lies.
    fn marks(&self) -> Vec<Mark> {
        let mut marks = vec![];
        if self.folded_casing() {
            let (first, second) = hem::landing_lines(self.hem_turn, self.casing_depth);
            for (name, distance) in [("fold the edge to this line", first), ("fold the casing to this line", second)] {
                marks.push(Mark {
                    boxes: false,
                    share: false,
                    name: name.into(),
                    distance,
                    from: From::TopEdge,
                    and: None,
                });
            }
            marks.push(Mark {
                boxes: false,
                share: false,
                name: "side seam stops, the slit for the cord".into(),
                distance: cord::slit(self.hem_turn, self.casing_depth),
                from: From::TopEdge,
                and: None,
            });
        } else if self.casing == Casing::InSeam {
            marks.push(Mark {
                boxes: false,
                share: false,
                name: "ends of the casing, at the top raw edge".into(),
                distance: self.seam_side + self.clearance,
                from: From::SideEdges,
                and: None,
            });
        } else {
            let top: Length = self.top().iter().map(Term::value).sum();
            let distance = top + self.casing_below;
            marks.push(Mark {
                boxes: false,
                share: false,
                name: "casing, its upper edge".into(),
                distance,
                from: From::TopEdge,
                and: None,
            });
        }
        marks
    }

    fn lining(&self, ruler: Ruler) -> Vec<Piece> {
        // Under a folded casing the lining ends at the casing's stitching and is caught by it.
        let top = if self.folded_casing() {
            vec![
                Term::times("up to the casing’s stitching", -1, self.casing_depth, "casing_depth"),
                Term::once("caught by it", self.hem_turn, "hem_turn"),
            ]
        } else {
            vec![Term::once("top seam", self.seam_top, "seam_top")]
        };
        let name = if self.round() { "Lining wall" } else { "Lining" };
        let left =
            if self.reverses() { "left open in one side seam, closed by hand" } else { "left open in one side seam" };
        let ends = (top.iter().map(Term::value).sum::<Length>().max(Length::ZERO), self.seam_base);
        let panel = self.body("lining-panel", name, Part::Lining, top, ruler);
        let gap = gap_in_side(&panel, ends, Length::INCH * 4, left, ruler);
        let mut pieces = vec![panel.marked([gap])];
        if self.round() {
            pieces.push(self.circle("lining-base", "Lining base", Part::Lining, ruler));
        }
        pieces
    }

    /// What to look at, but for the pocket.
    fn notices(&self, ruler: Ruler) -> Vec<Notice> {
        let show = |l: Length| Problems::new(ruler).show(l);
        let mut notices = vec![cord::caution()];
        if self.casing == Casing::InSeam {
            let tall = show(self.height + self.casing_depth);
            notices.push(Notice::note(
                "casing",
                format!("Its casing stands above the mouth: the bag is {tall} tall with it."),
            ));
        }
        if self.cord_of_cloth && self.casing_depth * 2 < self.cord_width * 3 {
            let text = format!(
                "A cord {} wide is tight in a casing of {}: it slides well where the casing is half as wide again.",
                show(self.cord_width),
                show(self.casing_depth)
            );
            notices.push(Notice::attention("casing_depth", text));
        }
        if self.round() {
            let cut = self.width + self.seam_base * 2;
            let short = round::three_times_is_short_by(cut, self.seam_base);
            if short > ruler.step() {
                let text = format!(
                    "Three times the cut circle would be {} short of the wall round this base.",
                    show(short.round_to(ruler.step()))
                );
                notices.push(Notice::note("width", text));
            }
        }
        if self.backing.school == BackingSchool::FullSize && self.folded_casing() {
            let text = "Full-size backing runs into the casing, where the cord must slide: cut it clear of the seams.";
            notices.push(Notice::attention("backing", text));
        }
        if self.boxed() && self.depth > self.width / 2 {
            notices.push(Notice::attention("depth", "Boxed deeper than half the width: the bag stands squat."));
        }
        if self.boxed() {
            notices.extend(self.corner().notice(ruler));
        }
        if self.base == SackBase::Fold {
            notices.push(Notice::note("base", "In one piece over the base the back of a one-way print hangs upside down: choose a seam at the base for it."));
        }
        notices
    }

    /// All that cannot stand, each named by its field.
    fn problems(&self, ruler: Ruler) -> Result<(), Vec<FieldProblem>> {
        let mut problems = Problems::new(ruler);
        problems.size("width", "width", self.width);
        problems.size("height", "height", self.height);
        let (half, tall) = (self.width / 2, self.height);
        problems.seam("seam_side", "side seam", self.seam_side, half, "half the width");
        if self.base != SackBase::Fold {
            let limit = if self.round() { half } else { tall };
            let name = if self.round() { "half the diameter" } else { "the height" };
            problems.seam("seam_base", "base seam", self.seam_base, limit, name);
        }
        if self.boxed() {
            problems.between("depth", "depth", self.depth, Length::MILLIMETRE, self.width);
            self.corner().problems(&mut problems);
        }
        if self.base == SackBase::Rounded {
            problems.between("radius", "radius", self.radius, Length::MILLIMETRE * 5, half.min(tall));
        }
        problems.seam("hem_turn", "first turn", self.hem_turn, tall / 4, "a quarter of the height");
        problems.between("casing_depth", "casing", self.casing_depth, Length::MILLIMETRE * 6, tall / 3);
        if !self.folded_casing() {
            problems.between("clearance", "clearance", self.clearance, Length::ZERO, self.width / 8);
            if self.casing == Casing::SewnOn {
                problems.between("casing_below", "distance of the casing", self.casing_below, Length::ZERO, tall / 2);
            }
            if self.lined {
                problems.seam("seam_top", "top seam", self.seam_top, tall, "the height");
            }
        }
        if self.lined {
            self.pocket.problems(self.width, self.height, &mut problems);
        } else {
            self.seam_kind.problems(self.seam_side, &mut problems);
        }
        problems.between("cord_tail", "tail", self.cord_tail, Length::ZERO, Length::METRE);
        if self.cord_of_cloth {
            problems.between("cord_width", "cord", self.cord_width, Length::MILLIMETRE * 4, self.casing_depth);
        }
        let mut found = problems.end().err().unwrap_or_default();
        if self.casing == Casing::InSeam && !self.lined {
            let message =
                "A casing caught in the top seam needs a lining to make that seam: line the bag, or sew the casing on.";
            found.push(FieldProblem::new("casing", self.casing.answer().key, message));
        }
        if found.is_empty() { Ok(()) } else { Err(found) }
    }

    fn round(&self) -> bool {
        self.base == SackBase::Round
    }

    fn boxed(&self) -> bool {
        self.base == SackBase::Boxed
    }

    /// Both sides are outsides.
    fn reverses(&self) -> bool {
        self.reversible && self.lined && self.casing == Casing::InSeam
    }

    fn folded_casing(&self) -> bool {
        self.casing == Casing::Folded
    }

    fn depth(&self) -> Length {
        if self.boxed() { self.depth } else { Length::ZERO }
    }

    /// A lined bag is turned through at the top, an unlined one has its edge turned: into the casing, or as a hem.
    fn top(&self) -> Vec<Term> {
        match (self.casing, self.lined) {
            (Casing::Folded, _) => vec![
                Term::once("casing", self.casing_depth, "casing_depth"),
                Term::once("turned under", self.hem_turn, "hem_turn"),
            ],
            (Casing::SewnOn | Casing::InSeam, true) => vec![Term::once("top seam", self.seam_top, "seam_top")],
            (Casing::SewnOn | Casing::InSeam, false) => {
                vec![Term::times("hem, turned twice", 2, self.hem_turn, "hem_turn")]
            }
        }
    }

    fn body_width(&self, ruler: Ruler) -> Dimension {
        let sides = Term::times("side seams", 2, self.seam_side, "seam_side");
        if self.round() {
            let round = Term::once("round the base, π × the diameter", round::circumference(self.width), "width");
            return Dimension::sum(vec![round, sides], ruler);
        }
        let deep = Term::once("deep", self.depth(), "depth");
        Dimension::sum(vec![Term::once("wide", self.width, "width"), deep, sides], ruler)
    }

    fn body_height(&self, top: Vec<Term>, ruler: Ruler) -> Dimension {
        let mut terms = match self.base {
            SackBase::Fold => vec![Term::times("tall, front and back", 2, self.height, "height")],
            _ => vec![
                Term::once("tall", self.height, "height"),
                Term::once("half the depth", self.depth() / 2, "depth"),
                Term::once("base seam", self.seam_base, "seam_base"),
            ],
        };
        let both = if self.base == SackBase::Fold { 2 } else { 1 };
        terms.extend(top.into_iter().map(|t| Term { times: t.times * both, ..t }));
        Dimension::sum(terms, ruler)
    }

    /// The seam across the corners is as wide as the base seam.
    fn corner(&self) -> Corner {
        let base = (self.seam_base, "seam_base");
        Corner { depth: self.depth, side: (self.seam_side, "seam_side"), base: Some(base), boxing: base }
    }

    fn figure(&self, ruler: Ruler) -> Figure {
        match self.base {
            SackBase::Boxed => self.corner().figure(ruler),
            SackBase::Rounded => Figure::Rounded(ruler.up(self.radius + self.seam_base)),
            _ => Figure::Rectangle,
        }
    }

    fn body(&self, id: &'static str, name: &'static str, part: Part, top: Vec<Term>, ruler: Ruler) -> Piece {
        let count = if matches!(self.base, SackBase::Fold | SackBase::Round) { 1 } else { 2 };
        Piece::new(id, name, part, self.body_width(ruler), self.body_height(top, ruler))
            .times(count)
            .shaped(self.figure(ruler))
    }

    fn circle(&self, id: &'static str, name: &'static str, part: Part, ruler: Ruler) -> Piece {
        round::circle((id, name), part, ("width", self.width), ("seam_base", self.seam_base), ruler)
    }

    fn casing_strips(&self, ruler: Ruler) -> Piece {
        // On a round bag each strip goes half way round.
        let panel = if self.round() { round::circumference(self.width) / 2 } else { self.width + self.depth() };
        let long = Dimension::sum(
            vec![
                Term::once("the panel, finished", panel, "width"),
                Term::times("clear of the side seams", -2, self.clearance, "clearance"),
                if self.casing == Casing::InSeam {
                    Term::times("ends turned", 2, self.hem_turn, "hem_turn")
                } else {
                    Term::times("ends turned twice", 4, self.hem_turn, "hem_turn")
                },
            ],
            ruler,
        );
        let seams = match self.casing {
            Casing::InSeam => Term::times("caught in the top seam, both layers", 2, self.seam_top, "seam_top"),
            _ => Term::times("seams", 2, self.seam_side, "seam_side"),
        };
        let tall = Dimension::sum(
            vec![Term::times("casing, front and back", 2, self.casing_depth, "casing_depth"), seams],
            ruler,
        );
        Piece::new("casing", "Casing", if self.lined { Part::Contrast } else { Part::Outer }, long, tall).times(2)
    }
}

impl Design for Drawstring {
    fn default_for(system: System) -> Self {
        let size = |eighths, tenths| default_length(system, eighths, tenths);
        Self {
            width: size(88, 280),
            height: size(112, 360),
            depth: size(24, 80),
            base: SackBase::Fold,
            radius: size(16, 50),
            casing: Casing::Folded,
            hem_turn: size(2, 10),
            casing_depth: size(10, 30),
            clearance: size(2, 6),
            casing_below: size(16, 50),
            lined: false,
            reversible: false,
            pocket: PocketChoice::default_for(PocketKind::None, system),
            backing: BackingChoice { school: BackingSchool::None, cloth: BackingCloth::Interfacing },
            extras: Extras::default_for(system),
            cord: CordRoute::Two,
            cord_tail: size(24, 80),
            cord_of_cloth: false,
            cord_width: size(3, 10),
            seam_kind: SeamKind::HemmedFirst,
            seam_side: size(4, 10),
            seam_base: size(4, 10),
            seam_top: size(4, 10),
        }
    }

    fn fields(&mut self) -> Vec<Field<'_>> {
        let (round, boxed, folded) = (self.round(), self.boxed(), self.folded_casing());
        let (rounded, lined) = (self.base == SackBase::Rounded, self.lined);
        let (seamed, sewn_on) = (self.base != SackBase::Fold, self.casing == Casing::SewnOn);
        let (in_seam, of_cloth) = (self.casing == Casing::InSeam, self.cord_of_cloth);
        let mut all = vec![
            Field::size("width", if round { "Diameter of the base" } else { "Wide" }, Group::Size, &mut self.width)
                .scaling(),
            Field::size("height", "Tall", Group::Size, &mut self.height).scaling(),
            Field::size("depth", "Deep", Group::Size, &mut self.depth).scaling().only_if(boxed),
            Field::choice("base", "The base", Group::Base, &mut self.base),
            Field::size("radius", "Radius of the corners", Group::Base, &mut self.radius).only_if(rounded),
            Field::choice("casing", "The casing", Group::Mouth, &mut self.casing),
            Field::size("casing_depth", "Casing, finished", Group::Mouth, &mut self.casing_depth),
            Field::size("hem_turn", "Turned under first", Group::Mouth, &mut self.hem_turn),
            Field::size("clearance", "Casing stops short of the side", Group::Mouth, &mut self.clearance)
                .only_if(!folded),
            Field::size("casing_below", "Casing below the top", Group::Mouth, &mut self.casing_below).only_if(sewn_on),
            Field::toggle("lined", "Lined", Group::Lining, &mut self.lined),
            Field::toggle("reversible", "Reversible, either side out", Group::Lining, &mut self.reversible)
                .only_if(lined && in_seam),
        ];
        all.extend(self.pocket.fields(lined));
        all.extend(self.backing.fields("Behind the outer"));
        all.extend([
            Field::choice("cord", "How the cord runs", Group::Cord, &mut self.cord),
            Field::size("cord_tail", "Left over at each end", Group::Cord, &mut self.cord_tail),
            Field::toggle("cord_of_cloth", "Cut from cloth, folded in four", Group::Cord, &mut self.cord_of_cloth),
            Field::size("cord_width", "Its finished width", Group::Cord, &mut self.cord_width).only_if(of_cloth),
            self.seam_kind.field(!lined),
            Field::seam("seam_side", "Side seams", &mut self.seam_side),
            Field::seam("seam_base", "Base seam", &mut self.seam_base).only_if(seamed),
            Field::seam("seam_top", "Top seam", &mut self.seam_top).only_if(lined && !folded),
        ]);
        all.extend(self.extras.fields(false));
        all
    }

    fn update_dependents(&mut self, key: &str, system: System) {
        match key {
            "seam_kind" => self.seam_side = self.seam_kind.default_for(system),
            "casing" if self.casing == Casing::InSeam => self.lined = true,
            "lined" if !self.lined && self.casing == Casing::InSeam => self.casing = Casing::SewnOn,
            _ => self.pocket.update_dependents(key, system),
        }
    }

    fn seen(&self) -> Vec<(Group, Seen)> {
        self.pocket.seen(self.lined, self.width)
    }

    fn walls(&self, _: Ruler) -> Vec<Wall> {
        let side = (self.seam_side, "seam_side");
        let top: Length = self.top().iter().map(Term::value).sum();
        let (fold, seam) = (self.base == SackBase::Fold, (self.seam_base, "seam_base"));
        let based = |wall: Wall| if fold { wall } else { wall.based(self.depth() / 2, seam) };
        // Below the stitching of a folded casing the lining begins; otherwise at its top seam.
        let inside_top = if self.folded_casing() { self.hem_turn - self.casing_depth } else { self.seam_top };
        let inside_edge = if self.folded_casing() { self.hem_turn } else { self.seam_top };
        if self.round() {
            // The wall is one piece, seamed at the back: the half round the front is its middle.
            let half = round::circumference(self.width) / 2;
            let front = Wall::new(Side::Front, "outer-panel", (half, self.height), self.seam_side + half / 2, top);
            let front = based(front);
            let inside =
                Wall { top: inside_top, edge: inside_edge, piece: Some("lining-panel"), ..front.on(Side::InsideFront) };
            return [vec![front], if self.lined { vec![inside] } else { vec![] }].concat();
        }
        let face = (self.width, self.height);
        let beside = self.seam_side + self.depth() / 2;
        let front = based(Wall::new(Side::Front, "outer-panel", face, beside, top).between(side));
        let turned = |wall: Wall| if fold { wall.turned_over() } else { wall };
        let mut walls = vec![front.clone(), turned(front.on(Side::Back))];
        if self.boxed() {
            let end = Wall { width: self.depth, across_a_seam: true, ..front.clone() };
            walls.extend([end.on(Side::Left), end.on(Side::Right)]);
        }
        if self.lined {
            // The lining is cut like the body, over the base or not.
            let inside =
                Wall { top: inside_top, edge: inside_edge, piece: Some("lining-panel"), ..front.on(Side::InsideFront) };
            walls.extend([inside.clone(), turned(inside.on(Side::InsideBack))]);
        }
        walls
    }

    fn draft(&self, ruler: Ruler) -> Result<Draft, Vec<FieldProblem>> {
        self.problems(ruler)?;
        let show = |l: Length| Problems::new(ruler).show(l);
        let mut notices = self.notices(ruler);
        let outer =
            self.body("outer-panel", if self.round() { "Wall" } else { "Outer" }, Part::Outer, self.top(), ruler);
        let allowed = self.top().iter().map(Term::value).sum();
        // In one piece over the base there is a mouth at both ends.
        let base = if self.base == SackBase::Fold { allowed } else { self.seam_base };
        let within = Allowances { side: self.seam_side, top: allowed, base, corner: self.seam_base };
        let mut backed = self.backing.behind(&outer, within, ruler);
        let mut pieces = vec![outer.marked(self.marks())];
        if self.round() {
            pieces.push(self.circle("base", "Base", Part::Outer, ruler));
        }
        if self.lined {
            pieces.extend(self.lining(ruler));
        }
        if !self.folded_casing() {
            pieces.push(self.casing_strips(ruler));
        }
        let pocket = self.pocket.pocket(self.lined, self.seam_side);
        // Below the stitching of a folded casing the lining begins; otherwise at its top seam.
        let above = if self.folded_casing() { self.hem_turn } else { self.seam_top };
        pocket.onto(&mut pieces, self.width, above + self.pocket.below, ruler);
        notices.extend(pocket.notices(self.height - self.pocket.below, &show));
        pieces.append(&mut backed);
        let flat = if self.round() { round::circumference(self.width) / 2 } else { self.width + self.depth() };
        let mut goods = vec![cord::cords(self.cord, flat, self.cord_tail, ruler)];
        if self.cord_of_cloth {
            pieces.extend(goods.drain(..).map(|cord| cord::of_cloth(&cord, self.cord_width, ruler)));
        }
        let depth = if self.round() { self.width } else { self.depth() };
        let round_less = if self.round() { PI / 4.0 } else { 1.0 };
        let mut draft = Draft {
            pieces,
            goods,
            hardware: pocket.hardware(ruler),
            steps: self.steps(ruler),
            notices,
            millilitres: (millilitres(self.width, self.height, depth) as f64 * round_less) as i64,
            ..Draft::default()
        };
        let place = Place {
            outer: "outer-panel",
            outer_top: allowed,
            lining_top: None,
            face: self.height,
            seam: self.seam_side,
        };
        self.extras.onto(&mut draft, &place, false, ruler);
        Ok(draft)
    }

    fn finished_from_cut(&self, draft: &Draft) -> Vec<Finished> {
        let Some(body) = draft.piece("outer-panel") else { return vec![] };
        let top: Length = self.top().iter().map(Term::value).sum();
        let deep = match &body.figure {
            Figure::CutOut { up, .. } => {
                boxing::depth_of_square(up.size, boxing::Square::CutFromRawEdges, self.seam_base, self.seam_base)
            }
            _ => Length::ZERO,
        };
        let width = match draft.piece("base") {
            Some(base) => base.width.size - self.seam_base * 2,
            None => body.width.size - self.seam_side * 2 - deep,
        };
        let height = if self.base == SackBase::Fold {
            body.height.size / 2 - top
        } else {
            body.height.size - self.seam_base - deep / 2 - top
        };
        let mut found = vec![
            Finished { name: "wide".into(), field: "width".into(), asked: self.width, back: width },
            Finished { name: "tall".into(), field: "height".into(), asked: self.height, back: height },
        ];
        if self.boxed() {
            found.push(Finished { name: "deep".into(), field: "depth".into(), asked: self.depth, back: deep });
        }
        if self.round() {
            // The wall on its seam line goes round the circle on its own.
            let wall = Length(((body.width.size - self.seam_side * 2).0 as f64 / PI).round() as i64);
            found.push(Finished {
                name: "across the wall".into(),
                field: "width".into(),
                asked: self.width,
                back: wall,
            });
        }
        found
    }

    fn seams(&self, _: Ruler) -> Vec<Seam> {
        let (side, base) = (self.seam_side, self.seam_base);
        let mut bodies = vec![("outer-panel", "base", ["outer", "outer-base"])];
        if self.lined {
            bodies.push(("lining-panel", "lining-base", ["lining", "lining"]));
        }
        let mut seams = vec![];
        for (body, circle, steps) in bodies {
            let edge = if self.base == SackBase::Fold { Edge::SideToFold } else { Edge::Side };
            seams.push(Seam::like("side seam", steps[0], Stretch::new(body, edge, side, Length::ZERO)));
            match self.base {
                SackBase::Boxed => seams.extend(boxed(body, [steps[1]; 2], side, base, base)),
                SackBase::Round => seams.push(Seam::new(
                    "round the base",
                    steps[1],
                    Stretch::new(circle, Edge::Round, base, Length::ZERO),
                    Stretch::new(body, Edge::Base, base, side * 2),
                )),
                SackBase::Seam | SackBase::Rounded => {
                    seams.push(Seam::like("base seam", steps[1], Stretch::new(body, Edge::Base, base, side * 2)));
                }
                SackBase::Fold => {}
            }
        }
        if self.lined {
            let of = |body| Stretch::new(body, Edge::Top, self.seam_top, side * 2);
            seams.push(Seam::new("round the top", "mouth", of("outer-panel"), of("lining-panel")));
            if self.casing == Casing::InSeam {
                // The casings stop short of the side seams on purpose.
                let strips = if self.round() { 2 } else { 1 };
                let casing = Stretch::new("casing", Edge::Top, self.seam_top, self.hem_turn * 2).times(strips as u32);
                let seam = Seam::new("casing in the top seam", "mouth", of("outer-panel"), casing);
                seams.push(seam.easing(self.clearance * (2 * strips)));
            }
        }
        seams
    }

    fn solid(&self, _: &Draft) -> Solid {
        let (w, h) = (self.width.0 as f64, self.height.0 as f64);
        let neck = h * 0.84;
        if self.round() {
            let r = w / 2.0;
            let ring = |y: f64, r: f64, from: f64, to: f64| ring([w / 2.0, y, w / 2.0], r, from, to);
            let mut wall = ring(0.0, r, PI, TAU);
            let mut upper = ring(neck, r * 0.8, PI, TAU);
            upper.reverse();
            wall.extend(upper);
            let mut frill = ring(neck, r * 0.8, PI, TAU);
            let mut edge = ring(h, r, PI, TAU);
            edge.reverse();
            frill.extend(edge);
            return Solid::default()
                .face(ring(h, r, 0.0, TAU), if self.lined { Part::Lining } else { Part::Outer }, 3)
                .face(wall, Part::Outer, 0)
                .face(frill, Part::Outer, 1)
                .thread(ThreadKind::Cord, ring(neck, r * 0.81, PI, TAU))
                .grip("width", [0.0, -r * 0.34, r], [w, -r * 0.34, r])
                .grip("height", [0.0, 0.0, r], [0.0, h, r]);
        }
        let d = self.depth().0 as f64;
        let pinch = w * 0.1;
        let front = [
            [0.0, 0.0, 0.0],
            [w, 0.0, 0.0],
            [w, neck * 0.92, 0.0],
            [w - pinch, neck, 0.0],
            [w, h, 0.0],
            [0.0, h, 0.0],
            [pinch, neck, 0.0],
            [0.0, neck * 0.92, 0.0],
        ];
        let in_seam = self.casing == Casing::InSeam;
        let deep = self.casing_depth.0 as f64;
        // Caught in the top seam it stands above the mouth, and the bag is not drawn in below it.
        let neck = if in_seam { h + deep } else { neck };
        let front = if in_seam { vec![[0.0; 3], [w, 0.0, 0.0], [w, h, 0.0], [0.0, h, 0.0]] } else { front.to_vec() };
        let solid = if d > 0.0 {
            Solid::open_box(w, h, d, Part::Outer, Part::Outer)
        } else {
            Solid::default().face(front, Part::Outer, 0).flat_front([0.0, h, 0.0], [0.0; 3])
        };
        let casing = if self.casing == Casing::Folded { Part::Outer } else { Part::Contrast };
        solid
            .face(
                [[pinch, neck - deep, 0.0], [w - pinch, neck - deep, 0.0], [w - pinch, neck, 0.0], [pinch, neck, 0.0]],
                casing,
                1,
            )
            .thread(
                ThreadKind::Cord,
                [
                    [w - pinch, neck - deep / 2.0, 0.0],
                    [w + pinch, neck - deep, 0.0],
                    [w + pinch * 0.8, neck * 0.6, 0.0],
                ],
            )
            .thread(
                ThreadKind::Cord,
                [[pinch, neck - deep / 2.0, 0.0], [-pinch, neck - deep, 0.0], [-pinch * 0.8, neck * 0.6, 0.0]],
            )
            .sizes(w, h, d)
    }
}

impl Drawstring {
    fn steps(&self, ruler: Ruler) -> Vec<Step> {
        let mut steps = vec![];
        let mut add = |phase, key: &'static str, text: &str| steps.push(Step::new(phase, key, text.to_owned()));
        if self.casing == Casing::SewnOn {
            let text = "Hem the ends of the casing strips, turn their long edges in, and stitch them on the outer.";
            add(Phase::Flat, "casing", text);
        }
        let until = if self.folded_casing() { ", down from the slit’s end" } else { "" };
        let kind = if self.lined { SeamKind::Plain } else { self.seam_kind };
        add(Phase::Outer, "outer", &kind.step(self.seam_side, until, ruler));
        let base = match self.base {
            SackBase::Round => Some(
                "Notch circle and wall in quarters, pin notch to notch, and sew with the circle up; clip the wall.",
            ),
            SackBase::Boxed => Some("Sew the base, then box the corners."),
            SackBase::Rounded => Some("Sew round the base and clip the curves."),
            SackBase::Seam => Some("Sew the base."),
            SackBase::Fold => None,
        };
        if let Some(text) = base {
            add(Phase::Outer, "outer-base", text);
        }
        if self.lined {
            add(Phase::Lining, "lining", "Sew the lining the same way, a gap in one side.");
            if self.casing == Casing::InSeam {
                let text = "Turn the casings’ ends in, fold them lengthwise and tack them to the outer’s top edge, pointing down.";
                add(Phase::Together, "casing", text);
            }
            add(Phase::Together, "mouth", "Join lining and outer round the top, turn, close the gap.");
        }
        if self.casing == Casing::Folded {
            add(Phase::Together, "casing", "Turn the top edge, then the casing, and stitch it down.");
        }
        add(Phase::Last, "cords", "Thread the cords and knot their ends.");
        in_order(self.pocket.pocket(self.lined, self.seam_side).step().into_iter().chain(steps))
    }
}

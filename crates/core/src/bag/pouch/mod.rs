//! Zip pouches: flat, boxed at the base or all four corners, or half-round on a gusset.
//!
//! Flat: two outer and two lining (W + 2s) × (H + b + z), z being the zip's seam. Boxed as any bag. Either may be wider or
//! narrower at the zip, gathered or pleated into it (`rise`). Half-round: faces
//! with a straight edge at the zip, and a gusset as long as the curve on its seam line. Standing half-round, in
//! `standing`: the zip goes round the curve instead.

mod standing;

use crate::FieldProblem;
use crate::bag::backing::{Allowances, BackingChoice, BackingCloth, BackingSchool};
use crate::bag::base::BaseJoin;
use crate::bag::boxing::{self, Corner};
use crate::bag::draft::{Draft, Finished, Notice, millilitres};
use crate::bag::extras::{Extras, Place};
use crate::bag::field::{Field, Group, choice};
use crate::bag::order::{Phase, Step, in_order};
use crate::bag::pocket::{PocketChoice, PocketKind};
use crate::bag::problems::Problems;
use crate::bag::rise::{Rise, Rising, Slant};
use crate::bag::seam::SeamKind;
use crate::bag::sewn::{Edge, Seam, Stretch, boxed};
use crate::bag::solid::{Solid, ThreadKind};
use crate::bag::wall::{Seen, Side, Wall};
use crate::bag::zip::{sliders_field, with_sliders, zip};
use crate::bag::{Design, lining, round};
use crate::measure::{Length, Ruler, System, default_length};
use crate::piece::{Dimension, Figure, From, Mark, Part, Piece, Term};
use crate::shape::Point;

choice! {
    /// What the pouch is like.
    PouchStyle {
        /// Flat.
        Flat = "flat", "Flat", "two panels and a zip";
        /// Boxed at the base.
        Boxed = "boxed", "Boxed at the base", "stands";
        /// All four corners boxed.
        AllBoxed = "all-boxed", "Boxed all round", "a small box with the zip in its lid";
        /// Two half-round faces and a gusset.
        HalfRound = "half-round", "Half-round", "two faces and a gusset round the curve";
        /// Two half-round faces on a flat base, the zip round their curve.
        Standing = "standing", "Half-round on a flat base", "stands; the zip goes round the curve";
        /// Two faces with rounded upper corners on a flat base, the zip over their top.
        StandingRounded = "standing-rounded", "Rounded on a flat base", "stands; the zip goes over the rounded top";
    }
}

/// A zip pouch by its finished sizes.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Pouch {
    /// Finished width.
    pub width: Length,
    /// Finished height.
    pub height: Length,
    /// Finished depth, where it has one.
    pub depth: Length,
    /// What it is like.
    pub style: PouchStyle,
    /// How front and back meet at the base, flat or boxed there.
    pub base: BaseJoin,
    /// How its walls rise, flat or boxed at the base.
    pub rise: Rise,
    /// Cloth tabs at the ends of the zip, so that the teeth stop short of the side seams.
    pub zip_tabs: bool,
    /// How many sliders the zip has.
    pub zip_sliders: u32,
    /// Standing and rounded: the radius of the upper corners.
    pub corner_radius: Length,
    /// Standing: how far round the curve the zip goes.
    pub zip_round: Length,
    /// Standing: how much of the zip shows between its strips.
    pub zip_shows: Length,
    /// Whether it is lined.
    pub lined: bool,
    /// The lining is a little smaller than the outer, where panels meet at straight seams.
    pub lining_smaller: bool,
    /// The pocket on the lining.
    pub pocket: PocketChoice,
    /// What lies behind it.
    pub backing: BackingChoice,
    /// Loops, tabs, a label, a closure.
    pub extras: Extras,
    /// How the side seams of an unlined pouch are sewn.
    pub seam_kind: SeamKind,
    /// Side seams.
    pub seam_side: Length,
    /// Base seam.
    pub seam_base: Length,
    /// The zip's seam.
    pub seam_top: Length,
}

impl Pouch {
    /// All that cannot stand, each named by its field.
    fn problems(&self, ruler: Ruler) -> Result<(), Vec<FieldProblem>> {
        let mut problems = Problems::new(ruler);
        problems.size("width", "width", self.width);
        problems.size("height", "height", self.height);
        problems.seam("seam_side", "side seam", self.seam_side, self.width / 2, "half the width");
        if !self.is_curved() && !self.folded() {
            problems.seam("seam_base", "base seam", self.seam_base, self.height, "the height");
        }
        problems.seam("seam_top", "zip seam", self.seam_top, self.height, "the height");
        if self.style != PouchStyle::Flat {
            problems.between("depth", "depth", self.depth, Length::MILLIMETRE * 2, self.width);
        }
        let rise = self.rise();
        rise.problems(self.flat_base(), self.width, &mut problems);
        if rise.slants() && self.folded() {
            let message = "Slanting sides meet at a base seam: make the pouch of two panels, or the walls straight up."
                .to_owned();
            problems.refuse("rising", rise.mouth_width, message);
        }
        if matches!(self.style, PouchStyle::Boxed | PouchStyle::AllBoxed) && !rise.slants() {
            self.corner().problems(&mut problems);
        }
        if self.is_curved() && self.style != PouchStyle::StandingRounded && self.height < self.width / 2 {
            let message = "A half-round face is at least half as tall as it is wide: make it taller or narrower.";
            problems.refuse("height", self.height, message);
        }
        if self.is_standing() {
            self.standing_problems(&mut problems);
        }
        if self.lined {
            self.pocket.problems(self.clear_face(), self.height, &mut problems);
        } else {
            self.seam_kind.problems(self.seam_side, &mut problems);
        }
        problems.end()
    }

    fn half_round(&self) -> bool {
        self.style == PouchStyle::HalfRound
    }

    fn is_standing(&self) -> bool {
        matches!(self.style, PouchStyle::Standing | PouchStyle::StandingRounded)
    }

    /// Faces with a curve, whichever way up.
    fn is_curved(&self) -> bool {
        self.half_round() || self.is_standing()
    }

    /// Flat or boxed at the base its walls may slant, be gathered or pleated; any other style has them straight.
    fn may_rise(&self) -> bool {
        matches!(self.style, PouchStyle::Flat | PouchStyle::Boxed)
    }

    fn rise(&self) -> Rise {
        if self.may_rise() { self.rise } else { Rise { rising: Rising::Straight, ..self.rise } }
    }

    /// Laid flat, from side seam to side seam at the base.
    fn flat_base(&self) -> Length {
        self.width + if self.style == PouchStyle::Boxed { self.depth } else { Length::ZERO }
    }

    fn clear_face(&self) -> Length {
        self.rise().clear_face(self.width, self.flat_base())
    }

    /// By how much the lining is smaller on each side and at the base.
    fn lining_less(&self, ruler: Ruler) -> Length {
        let smaller = self.lined && self.lining_smaller && !self.is_curved();
        if smaller { lining::ease(ruler) } else { Length::ZERO }
    }

    /// How a panel leans that is smaller by `less`.
    fn slant(&self, less: Length) -> Option<Slant> {
        let half = if self.style == PouchStyle::Boxed { self.depth / 2 } else { Length::ZERO };
        let long = self.height + half - less;
        self.rise().slant(self.flat_base(), long, self.seam_side, (self.seam_base, self.seam_top))
    }

    /// From the raw side edge of a panel to the face that is clear all the way up.
    fn beside(&self, ruler: Ruler) -> Length {
        match self.slant(Length::ZERO) {
            Some(slant) => (self.body_width(Part::Outer, Some(&slant), ruler).size - self.clear_face()) / 2,
            None => self.seam_side + self.depth_in_panel() / 2,
        }
    }

    /// Front and back in one over the base. What is boxed all round is seamed there, what is half-round has no base.
    fn folded(&self) -> bool {
        self.base == BaseJoin::Fold && matches!(self.style, PouchStyle::Flat | PouchStyle::Boxed)
    }

    /// The seam along the base; of a half-round face the one round its curve; none over a fold.
    fn base_seam(&self) -> Length {
        match (self.is_curved(), self.folded()) {
            (true, _) => self.seam_side,
            (_, true) => Length::ZERO,
            _ => self.seam_base,
        }
    }

    /// The seam across the corners is as wide as the base seam, or over a fold as the side seams.
    fn corner(&self) -> Corner {
        let (side, base) = ((self.seam_side, "seam_side"), (self.seam_base, "seam_base"));
        let boxing = if self.folded() { side } else { base };
        Corner { depth: self.depth, side, base: (!self.folded()).then_some(base), boxing }
    }

    fn depth(&self) -> Length {
        if self.style == PouchStyle::Flat { Length::ZERO } else { self.depth }
    }

    /// How much of the depth a panel takes across: none where a gusset does.
    fn depth_in_panel(&self) -> Length {
        if self.is_curved() { Length::ZERO } else { self.depth() }
    }

    /// The width of a panel of `part` where it is widest.
    fn body_width(&self, part: Part, slant: Option<&Slant>, ruler: Ruler) -> Dimension {
        let less = part == Part::Lining && self.lining_less(ruler) > Length::ZERO;
        let smaller: Vec<Term> = less.then(|| lining::across(ruler, "lining_smaller")).into_iter().collect();
        let mut terms = vec![Term::once("wide", self.width, "width")];
        if self.depth_in_panel() > Length::ZERO {
            terms.push(Term::once("deep", self.depth, "depth"));
        }
        let seams = Term::times("side seams", 2, self.seam_side, "seam_side");
        if let Some(slant) = slant {
            return self.rise().widest(terms, seams, slant, smaller, ruler);
        }
        terms.push(seams);
        terms.extend(smaller);
        Dimension::sum(terms, ruler)
    }

    fn body(&self, id: &'static str, name: &'static str, part: Part, ruler: Ruler) -> Piece {
        let zip = Term::once("zip seam", self.seam_top, "seam_top");
        let base = Term::once("base seam", self.seam_base, "seam_base");
        let tall = Term::once("tall", self.height, "height");
        let deep = |times| {
            Term::times(if times == 1 { "deep" } else { "deep, top and base" }, times, self.depth() / 2, "depth")
        };
        let half = |name| Term::once(name, self.depth() / 2, "depth");
        let twice = |name, size, field| Term::times(name, 2, size, field);
        let over = vec![
            twice("tall, front and back", self.height, "height"),
            twice("zip seam, at both ends", self.seam_top, "seam_top"),
        ];
        let mut height = match self.style {
            PouchStyle::Flat if self.folded() => over,
            PouchStyle::Boxed if self.folded() => {
                [over, vec![Term::once("deep, over the base", self.depth(), "depth")]].concat()
            }
            PouchStyle::Flat => vec![tall, base, zip],
            PouchStyle::Boxed => vec![tall, half("half the depth"), base, zip],
            PouchStyle::AllBoxed => vec![tall, deep(2), base, zip],
            PouchStyle::HalfRound => {
                vec![tall, Term::once("seam round the curve", self.seam_side, "seam_side"), zip]
            }
            PouchStyle::Standing | PouchStyle::StandingRounded => {
                vec![tall, Term::times("seams, curve and base", 2, self.seam_side, "seam_side")]
            }
        };
        let less = if part == Part::Lining { self.lining_less(ruler) } else { Length::ZERO };
        if less > Length::ZERO {
            let up = lining::up(ruler, "lining_smaller");
            height.push(Term { times: up.times * if self.folded() { 2 } else { 1 }, ..up });
        }
        let slant = self.slant(less);
        let (width, height) = (self.body_width(part, slant.as_ref(), ruler), Dimension::sum(height, ruler));
        let figure = match (&slant, self.style) {
            (Some(slant), _) => slant.figure(ruler),
            (_, PouchStyle::Flat) => Figure::Rectangle,
            (_, PouchStyle::Boxed) => self.corner().figure(ruler),
            (_, PouchStyle::AllBoxed) => {
                // At the zip the corner takes the zip's seam instead of the base's.
                let zip = Corner { base: Some((self.seam_top, "seam_top")), ..self.corner() };
                let (across, up) = (self.corner().across(ruler).size, self.corner().up(ruler).size);
                all_corners(width.size, height.size, across, up, zip.up(ruler).size)
            }
            (_, PouchStyle::HalfRound) => Figure::HalfRound,
            // Half-round it is rounded by half of what it is cut.
            (_, PouchStyle::Standing) => Figure::RoundedAbove(width.size / 2),
            (_, PouchStyle::StandingRounded) => Figure::RoundedAbove(self.corner_radius + self.seam_side),
        };
        let corner = slant.filter(|_| self.style == PouchStyle::Boxed);
        let corner = corner.map(|slant| slant.corner(self.width, self.depth, self.seam_base));
        Piece::new(id, name, part, width, height)
            .times(if self.folded() { 1 } else { 2 })
            .shaped(figure)
            .marked(corner)
            .marked(self.rise().marks(self.width, ruler))
    }

    fn gusset(&self, id: &'static str, name: &'static str, part: Part, ruler: Ruler) -> Piece {
        let round =
            Term::once("round the curve, on the seam line", round::round_half(self.width, self.height), "width");
        let long = Dimension::sum(vec![round, Term::times("zip seams", 2, self.seam_top, "seam_top")], ruler);
        let wide = Dimension::sum(
            vec![Term::once("deep", self.depth, "depth"), Term::times("seams", 2, self.seam_side, "seam_side")],
            ruler,
        );
        let marks = [1, 2, 3].map(|k| Mark {
            boxes: false,
            share: true,
            name: "notch, by quarters of its length".into(),
            distance: long.size * k / 4,
            from: From::TopEdge,
            and: None,
        });
        Piece::new(id, name, part, wide, long).marked(marks).noted("clip it where it goes round; sew with the face up")
    }

    /// Teeth: the edge the zip is sewn to, less a tab at both ends. Boxed all round, its corners are cut out of that
    /// edge too, and what is left is as wide as the pouch.
    fn teeth(&self, system: System) -> Length {
        if self.is_standing() {
            return self.zip_round;
        }
        let mouth = self.rise().flat_mouth(self.flat_base());
        if self.zip_tabs { mouth - default_length(system, 4, 10) * 2 } else { mouth }
    }
}

/// All four corners cut out, `across` from the sides, `up` from the base and `down` from the zip.
fn all_corners(width: Length, height: Length, across: Length, up: Length, down: Length) -> Figure {
    let p = Point::new;
    let (o, c, r, t) = (Length::ZERO, across, width - across, height - down);
    Figure::Free(vec![
        p(c, o),
        p(r, o),
        p(r, up),
        p(width, up),
        p(width, t),
        p(r, t),
        p(r, height),
        p(c, height),
        p(c, t),
        p(o, t),
        p(o, up),
        p(c, up),
    ])
}

impl Design for Pouch {
    fn default_for(system: System) -> Self {
        let size = |eighths, tenths| default_length(system, eighths, tenths);
        Self {
            width: size(64, 200),
            height: size(44, 140),
            depth: size(20, 60),
            style: PouchStyle::Flat,
            base: BaseJoin::Seam,
            rise: Rise::default_for(system),
            zip_tabs: true,
            zip_sliders: 1,
            corner_radius: size(20, 60),
            zip_round: size(80, 260),
            zip_shows: size(3, 10),
            lined: true,
            lining_smaller: false,
            pocket: PocketChoice::default_for(PocketKind::None, system),
            backing: BackingChoice { school: BackingSchool::None, cloth: BackingCloth::Interfacing },
            extras: Extras::default_for(system),
            seam_kind: SeamKind::Overlocked,
            seam_side: size(3, 10),
            seam_base: size(3, 10),
            seam_top: size(3, 7),
        }
    }

    fn fields(&mut self) -> Vec<Field<'_>> {
        let deep = self.style != PouchStyle::Flat;
        let rounded = self.style == PouchStyle::StandingRounded;
        let (lined, curved, folded, standing) = (self.lined, self.is_curved(), self.folded(), self.is_standing());
        let (plain, slants) = (self.may_rise(), self.rise().slants());
        let mut all = vec![
            Field::size("width", if slants { "Wide, at the base" } else { "Wide" }, Group::Size, &mut self.width)
                .scaling(),
            Field::size("height", "Tall", Group::Size, &mut self.height).scaling(),
            Field::size("depth", "Deep", Group::Size, &mut self.depth).scaling().only_if(deep),
            Field::choice("style", "What it is like", Group::Base, &mut self.style),
            Field::choice("base", "How front and back meet", Group::Base, &mut self.base).only_if(plain),
            Field::toggle("zip_tabs", "Tabs at the ends of the zip", Group::Closure, &mut self.zip_tabs)
                .only_if(!standing),
            Field::size("corner_radius", "Upper corners, radius", Group::Base, &mut self.corner_radius)
                .scaling()
                .only_if(rounded),
            Field::size("zip_round", "How far the zip goes round", Group::Closure, &mut self.zip_round)
                .scaling()
                .only_if(standing),
            Field::size("zip_shows", "How much of the zip shows", Group::Closure, &mut self.zip_shows)
                .only_if(standing),
            sliders_field(Group::Closure, &mut self.zip_sliders),
            Field::toggle("lined", "Lined", Group::Lining, &mut self.lined),
            Field::toggle(
                "lining_smaller",
                "A little smaller, so that it does not bag",
                Group::Lining,
                &mut self.lining_smaller,
            )
            .only_if(lined && !curved),
        ];
        all.extend(self.rise.fields().into_iter().map(|f| f.only_if(plain)));
        all.extend(self.pocket.fields(lined));
        all.extend(self.backing.fields("Behind the outer"));
        all.extend([
            self.seam_kind.field(!lined),
            Field::seam(
                "seam_side",
                if standing {
                    "Seam round the faces"
                } else if curved {
                    "Seam round the curve"
                } else {
                    "Side seams"
                },
                &mut self.seam_side,
            ),
            Field::seam("seam_base", "Base seam", &mut self.seam_base).only_if(!curved && !folded),
            Field::seam("seam_top", "Zip seam", &mut self.seam_top),
        ]);
        all.extend(self.extras.fields(false));
        all
    }

    fn update_dependents(&mut self, key: &str, system: System) {
        match key {
            "seam_kind" => self.seam_side = self.seam_kind.default_for(system),
            "rising" if !self.rise().is_straight() => {
                self.rise.suit(self.flat_base(), system);
                if self.rise.slants() {
                    self.base = BaseJoin::Seam;
                }
            }
            "base" if self.folded() && self.rise.slants() => self.rise.rising = Rising::Straight,
            _ => self.pocket.update_dependents(key, system),
        }
    }

    fn seen(&self) -> Vec<(Group, Seen)> {
        self.pocket.seen(self.lined, self.clear_face())
    }

    fn walls(&self, ruler: Ruler) -> Vec<Wall> {
        let (face, side) = ((self.clear_face(), self.height), (self.seam_side, "seam_side"));
        let below = self.depth_in_panel() / 2;
        let top = if self.style == PouchStyle::AllBoxed { below } else { Length::ZERO };
        let seam = if self.is_standing() { self.seam_side } else { self.seam_top };
        let front = Wall::new(Side::Front, "outer-panel", face, self.beside(ruler), seam + top);
        // Round a curve no straight edge can be caught.
        let front = match (self.is_curved(), self.folded()) {
            (true, _) if self.is_standing() => front.based(Length::ZERO, side),
            (true, _) => front,
            (_, true) => front.between(side),
            _ => front.between(side).based(below, (self.seam_base, "seam_base")),
        };
        let front = front.slanting(self.rise().face_ends(self.width, self.flat_base()));
        let turned = |wall: Wall| if self.folded() { wall.turned_over() } else { wall };
        let mut walls = vec![front.clone(), turned(front.on(Side::Back))];
        if self.lined {
            let beside = front.beside - self.lining_less(ruler);
            let inside = Wall { piece: Some("lining-panel"), beside, ..front };
            walls.extend([inside.on(Side::InsideFront), turned(inside.on(Side::InsideBack))]);
        }
        walls
    }

    fn draft(&self, ruler: Ruler) -> Result<Draft, Vec<FieldProblem>> {
        self.problems(ruler)?;
        let show = |l: Length| Problems::new(ruler).show(l);
        let outer = self.body("outer-panel", "Outer panel", Part::Outer, ruler);
        let allowances = Allowances {
            side: self.seam_side,
            top: if self.is_standing() {
                self.seam_side
            } else if self.folded() {
                self.seam_top * 2
            } else {
                self.seam_top
            },
            base: self.base_seam(),
            corner: self.corner().boxing.0,
        };
        let mut backed = self.backing.behind(&outer, allowances, ruler);
        let mut pieces = vec![outer];
        match self.style {
            PouchStyle::HalfRound => pieces.push(self.gusset("gusset", "Gusset", Part::Outer, ruler)),
            PouchStyle::Standing | PouchStyle::StandingRounded => {
                pieces.extend(self.ring(["zip-strip", "base-strip"], Part::Outer, ruler))
            }
            _ => {}
        }
        if self.lined {
            let base = if self.folded() { BaseJoin::Fold } else { BaseJoin::Seam };
            let panel = self.body("lining-panel", "Lining panel", Part::Lining, ruler);
            let gap = base.turning_gap(&panel, (self.seam_top, self.base_seam()), Length::INCH * 3, ruler);
            pieces.push(panel.marked([gap]));
            match self.style {
                PouchStyle::HalfRound => pieces.push(
                    self.gusset("lining-gusset", "Lining gusset", Part::Lining, ruler)
                        .cut(crate::piece::When::Measured),
                ),
                PouchStyle::Standing | PouchStyle::StandingRounded => {
                    pieces.extend(self.ring(["lining-zip-strip", "lining-base-strip"], Part::Lining, ruler));
                }
                _ => {}
            }
        }
        if self.zip_tabs && !self.is_standing() {
            let square = |name, each, field| {
                Dimension::sum(
                    vec![Term::once(name, each, field), Term::times("turned in", 2, self.seam_side, "seam_side")],
                    ruler,
                )
            };
            let inch = default_length(ruler.system(), 8, 25);
            let wide = square("as the zip is wide", inch, "zip_tabs");
            let tall = square("folded over the end", inch, "zip_tabs");
            pieces.push(
                Piece::new("zip-tab", "Zip tab", Part::Outer, wide, tall).times(2).lying(crate::piece::Grain::Any),
            );
        }
        pieces.append(&mut backed);
        let pocket = self.pocket.pocket(self.lined, self.seam_side);
        pocket.onto(&mut pieces, self.clear_face(), self.seam_top + self.pocket.below, ruler);
        let mut notices = pocket.notices(self.height - self.pocket.below, &show);
        let rise = self.rise();
        notices.extend(rise.notice(self.flat_base(), &show));
        if matches!(self.style, PouchStyle::Boxed | PouchStyle::AllBoxed) && !rise.slants() {
            notices.extend(self.corner().notice(ruler));
        }
        if self.folded() {
            notices.extend(self.base.notice());
        }
        if self.lining_less(ruler) > Length::ZERO {
            notices.push(lining::notice("Along the zip", "lining_smaller", ruler));
        }
        let teeth = self.teeth(ruler.system());
        if teeth < Length::INCH * 3 {
            notices.push(Notice::attention(
                "width",
                format!("A zip of {} hardly opens: widen the pouch or leave the tabs off.", show(teeth)),
            ));
        }
        if !self.zip_tabs && !self.is_standing() {
            notices.push(Notice::note(
                "zip_tabs",
                "Without tabs the teeth run into the side seams: sew across them slowly, by hand if need be.",
            ));
        }
        let why = match (self.is_standing(), self.zip_tabs) {
            (true, _) => "as far as it goes round the curve",
            (_, true) => "the mouth less a tab at both ends",
            (_, false) => "from side seam to side seam",
        };
        let mut hardware = vec![with_sliders(zip("Zip", teeth, why, ruler), self.zip_sliders)];
        hardware.extend(pocket.hardware(ruler));
        let round_less = match self.style {
            PouchStyle::HalfRound | PouchStyle::Standing => 0.85,
            _ => rise.holds(self.flat_base()),
        };
        let mut draft = Draft {
            pieces,
            hardware,
            steps: self.steps(ruler),
            notices,
            stacks: rise.stack(vec![(Part::Outer, 1), (Part::Lining, u32::from(self.lined))]).into_iter().collect(),
            millilitres: (millilitres(self.width, self.height, self.depth()) as f64 * round_less) as i64,
            ..Draft::default()
        };
        let top = if self.is_standing() { self.seam_side } else { self.seam_top };
        let place = Place {
            outer: "outer-panel",
            outer_top: top,
            lining_top: self.lined.then_some(top),
            face: self.height,
            seam: self.seam_side,
        };
        self.extras.onto(&mut draft, &place, false, ruler);
        Ok(draft)
    }

    fn finished_from_cut(&self, draft: &Draft) -> Vec<Finished> {
        let Some(body) = draft.piece("outer-panel") else { return vec![] };
        if let Some(slant) = self.slant(Length::ZERO) {
            return self.back_of_slanting(body, &slant);
        }
        let (cut_width, cut_height) = body.size();
        let square = match &body.figure {
            Figure::CutOut { across, .. } | Figure::CutAtFold { across, .. } => across.size,
            Figure::Free(corners) => corners.first().map_or(Length::ZERO, |p| p.x),
            _ => Length::ZERO,
        };
        let deep =
            boxing::depth_of_square(square, boxing::Square::CutFromRawEdges, self.seam_side, self.corner().boxing.0);
        let top = if self.is_standing() { self.seam_side } else { self.seam_top };
        let tall = if self.folded() { cut_height / 2 } else { cut_height } - self.base_seam() - top;
        let (wide, tall, deep) = match self.style {
            PouchStyle::Flat => (cut_width - self.seam_side * 2, tall, Length::ZERO),
            PouchStyle::Boxed => (cut_width - self.seam_side * 2 - deep, tall - deep / 2, deep),
            PouchStyle::AllBoxed => (cut_width - self.seam_side * 2 - deep, tall - deep, deep),
            PouchStyle::HalfRound | PouchStyle::Standing | PouchStyle::StandingRounded => {
                let gusset = draft.piece("gusset").or_else(|| draft.piece("base-strip"));
                let gusset = gusset.map_or(Length::ZERO, |g| g.width.size - self.seam_side * 2);
                (cut_width - self.seam_side * 2, tall, gusset)
            }
        };
        let mut found = vec![
            Finished { name: "wide".into(), field: "width".into(), asked: self.width, back: wide },
            Finished { name: "tall".into(), field: "height".into(), asked: self.height, back: tall },
        ];
        if self.style != PouchStyle::Flat {
            found.push(Finished { name: "deep".into(), field: "depth".into(), asked: self.depth, back: deep });
        }
        found
    }

    fn seams(&self, ruler: Ruler) -> Vec<Seam> {
        if self.is_standing() {
            return self.standing_seams();
        }
        let (side, base, top) = (self.seam_side, self.seam_base, self.seam_top);
        let less = self.lining_less(ruler);
        let slants = [self.slant(Length::ZERO), self.slant(less)];
        let lining = ("lining-panel", "lining-gusset", "lining");
        let bodies = [("outer-panel", "gusset", "outer")].into_iter().chain(self.lined.then_some(lining));
        let mut seams = vec![];
        for (body, gusset, round) in bodies {
            let of = |edge, seam, ends| Stretch::new(body, edge, seam, ends);
            let slant = slants[usize::from(body != "outer-panel")];
            match self.style {
                PouchStyle::Flat | PouchStyle::Boxed if slant.is_some() => {
                    seams.push(Seam::like("side seam", "outer", of(Edge::Side, side, Length::ZERO)));
                }
                PouchStyle::Flat | PouchStyle::Boxed if self.folded() => {
                    seams.push(Seam::like("side seam", "outer", of(Edge::SideToFold, side, top)));
                }
                PouchStyle::Flat => seams.push(Seam::like("side seam", "outer", of(Edge::Side, side, base + top))),
                PouchStyle::Boxed => seams.push(Seam::like("side seam", "outer", of(Edge::Side, side, top))),
                PouchStyle::AllBoxed => {
                    seams.push(Seam::like("side seam", "outer", of(Edge::Side, side, Length::ZERO)))
                }
                PouchStyle::HalfRound | PouchStyle::Standing | PouchStyle::StandingRounded => seams.push(Seam::new(
                    "round the curve",
                    round,
                    of(Edge::Round, side, top * 2),
                    Stretch::new(gusset, Edge::Side, side, top * 2),
                )),
            }
            match (slant, self.style) {
                (Some(slant), _) => {
                    seams.push(Seam::like("base seam", "outer", of(Edge::Base, base, slant.over_the_base())));
                }
                (_, PouchStyle::Flat) if !self.folded() => {
                    seams.push(Seam::like("base seam", "outer", of(Edge::Base, base, side * 2)));
                }
                (_, PouchStyle::Boxed) if self.folded() => {
                    let [_, corner] = boxed(body, ["outer", "corners"], side, Length::ZERO, side);
                    seams.push(corner);
                }
                (_, PouchStyle::Boxed | PouchStyle::AllBoxed) => {
                    seams.extend(boxed(body, ["outer", "corners"], side, base, base));
                }
                _ => {}
            }
        }
        let ends = if self.style == PouchStyle::AllBoxed { base } else { side } * 2;
        let of =
            |body, slant: Option<Slant>| Stretch::new(body, Edge::Top, top, slant.map_or(ends, |s| s.over_the_mouth()));
        let other = if self.lined { "lining-panel" } else { "outer-panel" };
        let along = Seam::new("along the zip", "zip", of("outer-panel", slants[0]), of(other, slants[1]));
        seams.push(along.easing(less * 2));
        seams
    }

    fn solid(&self, _: &Draft) -> Solid {
        let (w, h, d) = (self.width.0 as f64, self.height.0 as f64, self.depth().0 as f64);
        let mouth = self.rise().at_the_mouth(self.flat_base());
        // From the middle of the mouth to an end of the zip.
        let zip = [w * (0.5 - 0.45 * mouth), w * (0.5 + 0.45 * mouth)];
        match self.style {
            PouchStyle::Flat => Solid::default()
                .face([[0.0; 3], [w, 0.0, 0.0], [w, h, 0.0], [0.0, h, 0.0]], Part::Outer, 0)
                .drawn_in(mouth)
                .flat_front([0.0, h, 0.0], [0.0; 3])
                .thread(ThreadKind::Zip, zip.map(|x| [x, h, 0.0]))
                .sizes(w, h, 0.0),
            PouchStyle::Boxed => Solid::default()
                // Flat at the zip, deep at the base.
                .face([[w, 0.0, 0.0], [w, 0.0, d], [w, h, d / 2.0]], Part::Outer, 2)
                .face([[0.0; 3], [w, 0.0, 0.0], [w, h, d / 2.0], [0.0, h, d / 2.0]], Part::Outer, 0)
                .drawn_in(mouth)
                .flat_front([0.0, h, d / 2.0], [0.0; 3])
                .thread(ThreadKind::Zip, zip.map(|x| [x, h, d / 2.0]))
                .sizes(w, h, d),
            PouchStyle::AllBoxed => Solid::closed_box(w, h, d, Part::Outer)
                .thread(ThreadKind::Zip, [[w * 0.04, h, d / 2.0], [w * 0.96, h, d / 2.0]])
                .sizes(w, h, d),
            PouchStyle::Standing | PouchStyle::StandingRounded => self.standing_solid(w, h, d),
            PouchStyle::HalfRound => {
                let curve = |z: f64| -> Vec<[f64; 3]> {
                    let r = w / 2.0;
                    (0..=24)
                        .map(|i| {
                            let angle = std::f64::consts::PI * (1.0 + f64::from(i) / 24.0);
                            [r + r * angle.cos(), r + r * angle.sin(), z]
                        })
                        .chain([[w, h, z], [0.0, h, z]])
                        .collect()
                };
                Solid::default()
                    .face(curve(d), Part::Outer, 2)
                    .face([[w, w / 2.0, 0.0], [w, w / 2.0, d], [w, h, d], [w, h, 0.0]], Part::Outer, 2)
                    .face([[0.0, h, 0.0], [0.0, h, d], [w, h, d], [w, h, 0.0]], Part::Lining, 1)
                    .face(curve(0.0), Part::Outer, 0)
                    .flat_front([0.0, h, 0.0], [0.0; 3])
                    .thread(ThreadKind::Zip, [[w * 0.03, h, d / 2.0], [w * 0.97, h, d / 2.0]])
                    .sizes(w, h, d)
            }
        }
    }
}

impl Pouch {
    /// The finished sizes of a pouch with slanting sides, from its outer panel.
    fn back_of_slanting(&self, panel: &Piece, slant: &Slant) -> Vec<Finished> {
        let (base, mouth) = slant.ends_of(panel);
        let deep = panel.marks.iter().find(|m| m.boxes).map_or(Length::ZERO, |m| base - m.distance * 2);
        let tall = panel.height.size - deep / 2 - self.seam_base - self.seam_top;
        let finished = |name: &'static str, field: &'static str, asked, back| Finished {
            name: name.into(),
            field: field.into(),
            asked,
            back,
        };
        let mut found = vec![
            finished("wide", "width", self.width, base - deep),
            finished("tall", "height", self.height, tall),
            finished("wide at the zip, laid flat", "mouth_width", self.rise.mouth_width, mouth),
        ];
        if self.style == PouchStyle::Boxed {
            found.push(finished("deep", "depth", self.depth, deep));
        }
        found
    }

    fn steps(&self, ruler: Ruler) -> Vec<Step> {
        if self.is_standing() {
            let pocket = self.pocket.pocket(self.lined, self.seam_side).step();
            return in_order(self.backing.step().into_iter().chain(pocket).chain(self.standing_steps()));
        }
        let mut steps = vec![];
        let mut add = |phase, key: &'static str, text: &str| steps.push(Step::new(phase, key, text.to_owned()));
        if self.zip_tabs {
            add(Phase::Small, "zip-tabs", "Sew the tabs over the ends of the zip.");
        }
        if let Some(step) = self.rise().step(ruler) {
            add(Phase::Flat, "take-in", &step);
        }
        let zip = if self.lined {
            "Sew the zip between outer and lining, one side after the other, and topstitch."
        } else {
            "Sew the zip to both outer edges, turn the edges away from the teeth, and topstitch."
        };
        add(Phase::Together, "zip", zip);
        let together = Phase::Together;
        if self.half_round() {
            add(together, "outer", "Sew the gusset round one face and then the other, notch to notch, the zip open.");
            if self.lined {
                add(together, "lining", "Sew the lining’s gusset round its faces the same way, leaving a gap.");
            }
        } else if !self.lined {
            add(together, "zip-ends", "Open the zip, and sew across its ends.");
            let base = if self.folded() { "" } else { " and the base" };
            add(together, "outer", &self.seam_kind.step(self.seam_side, base, ruler));
        } else if self.folded() {
            let text =
                "Open the zip. Sew outer to outer and lining to lining at the sides, a gap in one side of the lining.";
            add(together, "outer", text);
        } else {
            add(
                together,
                "outer",
                "Open the zip. Sew outer to outer and lining to lining all round, a gap in the lining’s base.",
            );
        }
        if matches!(self.style, PouchStyle::Boxed | PouchStyle::AllBoxed) {
            let how = if self.rise().slants() {
                "Box the corners: sew across each at its marks."
            } else {
                "Box the corners."
            };
            add(together, "corners", how);
        }
        let turn =
            if self.lined { "Turn through the gap and close it." } else { "Turn it right side out through the zip." };
        add(Phase::Last, "turn", turn);
        let pocket = self.pocket.pocket(self.lined, self.seam_side).step();
        in_order(self.backing.step().into_iter().chain(pocket).chain(steps))
    }
}

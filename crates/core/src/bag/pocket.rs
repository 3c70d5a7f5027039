//! Pockets: a pocket is one thing, whatever bag it is sewn on. Common practice.

use super::draft::{Hardware, Notice};
use super::field::{Field, Group, choice};
use super::fit::{Holds, Thing, fitted};
use super::order::{Phase, Step};
use super::problems::Problems;
use super::wall::{Looks, Moves, Seen, Side};
use super::zip::zip;
use crate::measure::{Length, Ruler, System, default_length};
use crate::piece::{Dimension, From, Mark, Part, Piece, Term};

choice! {
    /// The pocket on the lining.
    PocketKind {
        /// None.
        None = "no", "None", "";
        /// Doubled, folded at its top edge.
        Slip = "yes", "Slip pocket", "doubled, folded at its top edge";
        /// Two bags behind a zip set in a box.
        Zip = "zip", "Zip pocket", "two bags behind a zip set in a box";
        /// Doubled, divided by seams, the ease in pleats.
        Divided = "divided", "Divided pocket", "doubled, with dividing seams and pleats";
    }
}

choice! {
    /// What a pocket is made for; its sizes follow, and may be changed after.
    PocketFor {
        /// Whatever the sizes say.
        Sizes = "sizes", "As sized", "";
        /// A telephone in its case.
        Phone = "phone", "A phone", "3¼ × 6½ × ½ in (8.2 × 16.5 × 1.2 cm): measure yours";
        /// A bottle of 3 in (7.5 cm) across.
        Bottle = "bottle", "A bottle", "3 in (7.5 cm) across, 9 in (23 cm) tall; it stands in half its height and more";
        /// Pens, each in a division of its own.
        Pens = "pens", "Pens", "a division of 1 in (2.5 cm) each";
        /// Cards of the size of bank cards (ISO/IEC 7810, ID-1: 85.60 × 53.98 mm).
        Cards = "cards", "Cards", "85.6 × 54 mm";
    }
}

impl PocketFor {
    /// Finished width and height, and the divisions, of a pocket of this `kind`; nothing when the sizes say it.
    ///
    /// Flat cloth goes round the thing's thickness: half of what is round it, and a little to slip in by. Common
    /// practice; the sizes of things are our own choice, but for the card's.
    fn sizes(self, divisions: u32) -> Option<(Length, Length, u32)> {
        let mm = |n: i64| Length::MILLIMETRE * n;
        let slip = mm(12);
        let flat = |width, height, thick| fitted(Thing { width, height, thick }, Holds::Flat, slip, Length::ZERO);
        match self {
            Self::Sizes => None,
            Self::Phone => {
                let (width, height, _) = flat(mm(82), mm(165), mm(12));
                // An inch looks out, to take it by.
                Some((width, height - mm(25), divisions))
            }
            Self::Bottle => {
                // Half of what is round it lies before the panel, which bends behind it.
                let half_round = Length((mm(75).0 as f64 * std::f64::consts::FRAC_PI_2).round() as i64);
                Some((half_round + slip, mm(230) * 2 / 3, divisions))
            }
            Self::Pens => Some((mm(25) * i64::from(divisions), mm(125), divisions)),
            Self::Cards => Some((Length::tenth_mm(856) + slip, Length::tenth_mm(540), divisions)),
        }
    }
}

impl PocketFor {
    /// Of a divided pocket right across a wall `wall` wide: how many divisions hold the thing, the ease of each, and the
    /// finished height; nothing when the sizes say it.
    pub(super) fn across(self, wall: Length) -> Option<(u32, Length, Length)> {
        let (each, height, _) = self.sizes(1)?;
        let fits = (wall.0 / each.0.max(1)).clamp(1, 12);
        // A thing that stands out of the wall needs more cloth than wall: as many as stand side by side, each with ease.
        let lies = match self {
            Self::Bottle => Length::MILLIMETRE * 75,
            _ => each,
        };
        let divisions = (wall.0 / lies.0.max(1)).clamp(fits, 12);
        Some((divisions as u32, (each - wall / divisions).max(Length::ZERO), height))
    }
}

/// The pocket of a bag as it is chosen: the fields every family with a pocket has.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct PocketChoice {
    /// What kind.
    pub kind: PocketKind,
    /// What it is for.
    pub holds: PocketFor,
    /// Finished width.
    pub width: Length,
    /// Finished height.
    pub height: Length,
    /// From the finished mouth down to the pocket.
    pub below: Length,
    /// Divisions of a divided pocket.
    pub divisions: u32,
    /// Ease of each, in a pleat.
    pub ease: Length,
}

impl PocketChoice {
    /// A middling one of `kind`.
    pub(super) fn default_for(kind: PocketKind, system: System) -> Self {
        let size = |eighths, tenths| default_length(system, eighths, tenths);
        Self {
            kind,
            holds: PocketFor::Sizes,
            width: size(7 * 8, 180),
            height: size(6 * 8, 150),
            below: size(20, 60),
            divisions: 3,
            ease: size(6, 20),
        }
    }

    /// Its fields, silent where there is no lining to sew it on.
    pub(super) fn fields(&mut self, on_a_lining: bool) -> [Field<'_>; 7] {
        let (has, divided) = (self.kind != PocketKind::None, self.kind == PocketKind::Divided);
        [
            Field::choice("pocket", "Pocket on the lining", Group::Pocket, &mut self.kind),
            Field::choice("pocket_for", "Made for", Group::Pocket, &mut self.holds).only_if(has),
            Field::size("pocket_width", "Wide, finished", Group::Pocket, &mut self.width).scaling().only_if(has),
            Field::size("pocket_height", "Tall, finished", Group::Pocket, &mut self.height).scaling().only_if(has),
            Field::size("pocket_below", "Below the mouth", Group::Pocket, &mut self.below).scaling().only_if(has),
            Field::count("pocket_divisions", "Divisions", Group::Pocket, &mut self.divisions, 2..=12).only_if(divided),
            Field::size("pocket_ease", "Ease of each, in a pleat", Group::Pocket, &mut self.ease).only_if(divided),
        ]
        .map(|field| field.only_if(on_a_lining))
    }

    /// After a change of the field `key`: sizes go with what it is for, until they are typed.
    pub(super) fn update_dependents(&mut self, key: &str, system: System) {
        match key {
            "pocket_width" | "pocket_height" => self.holds = PocketFor::Sizes,
            "pocket_for" | "pocket_divisions" => {
                if self.holds == PocketFor::Pens {
                    self.kind = PocketKind::Divided;
                    self.ease = Length::MILLIMETRE * 3;
                }
                if let Some((width, height, divisions)) = self.holds.sizes(self.divisions) {
                    let ruler = Ruler::default_for(system);
                    (self.width, self.height, self.divisions) = (ruler.up(width), ruler.up(height), divisions);
                }
            }
            _ => {}
        }
    }

    /// What cannot stand on a face of this size.
    pub(super) fn problems(&self, face: Length, tall: Length, problems: &mut Problems) {
        if self.kind == PocketKind::None {
            return;
        }
        let says = |problems: &Problems, size: Length, what: &str, limit: Length, name: &str| {
            format!(
                "The pocket is {} {what}: more than 0 and at most {name}, {}, is allowed.",
                problems.show(size),
                problems.show(limit)
            )
        };
        if self.width <= Length::ZERO || self.width > face {
            let message = says(problems, self.width, "wide", face, "the face");
            problems.refuse("pocket_width", self.width, message);
        }
        if self.height <= Length::ZERO || self.height > tall {
            let message = says(problems, self.height, "tall", tall, "the bag's height");
            problems.refuse("pocket_height", self.height, message);
        }
        if self.below < Length::ZERO || self.below >= tall {
            let message = format!(
                "The pocket hangs {} below the mouth: from 0 to less than the height, {}, is allowed.",
                problems.show(self.below),
                problems.show(tall)
            );
            problems.refuse("pocket_below", self.below, message);
        }
        if self.kind == PocketKind::Divided && (self.ease < Length::ZERO || self.ease > Length::INCH * 8) {
            let message = format!("The ease is {}: from 0 to 8 in (20 cm) is allowed.", problems.show(self.ease));
            problems.refuse("pocket_ease", self.ease, message);
        }
    }

    /// What is seen of it on the lining of a face `face` wide.
    pub(super) fn seen(&self, on_a_lining: bool, face: Length) -> Vec<(Group, Seen)> {
        if !on_a_lining || self.kind == PocketKind::None {
            return vec![];
        }
        let each = self.width / i64::from(self.divisions.max(1));
        let divisions = if self.kind == PocketKind::Divided { self.divisions } else { 1 };
        let dividers = (1..divisions).map(|n| each * i64::from(n)).collect();
        let (looks, height) = match self.kind {
            PocketKind::Zip => (Looks::Zip { hangs: self.height }, Length::inches(3, 8)),
            _ => (Looks::Patch { cloth: Part::Pocket, dividers }, self.height),
        };
        let left = (face - self.width) / 2;
        let moves = Moves { down: Some(("pocket_below", self.below)), ..Moves::default() };
        let seen = Seen { side: Side::InsideBack, looks, left, down: self.below, width: self.width, height, moves };
        vec![(Group::Pocket, seen)]
    }

    /// The pocket, sewn with this seam; none without a lining to sew it on.
    pub(super) fn pocket(&self, on_a_lining: bool, seam: Length) -> Pocket {
        let kind = if on_a_lining { self.kind } else { PocketKind::None };
        let (id, name) = match kind {
            PocketKind::None | PocketKind::Slip => ("slip-pocket", "Slip pocket"),
            PocketKind::Zip => ("zip-pocket", "Zip pocket bag"),
            PocketKind::Divided => ("divided-pocket", "Divided pocket"),
        };
        Pocket {
            kind,
            called: (id, name),
            count: 1,
            wide: Term::once("wide", self.width, "pocket_width"),
            height: self.height,
            divisions: self.divisions,
            ease: self.ease,
            sides: PocketSides::Seamed(seam),
            base: seam,
        }
    }
}

/// What holds a pocket's sides.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum PocketSides {
    /// A seam of its own, or the bag's.
    Seamed(Length),
    /// Webbing so wide, sewn over its raw edges.
    UnderWebbing(Length),
}

/// A pocket by its finished sizes, wherever it is sewn.
#[derive(Clone, Debug)]
pub struct Pocket {
    /// What kind.
    pub kind: PocketKind,
    /// Id and name of its piece.
    pub called: (&'static str, &'static str),
    /// How many alike.
    pub count: u32,
    /// Finished width, with the field it comes from: of a zip pocket, the zip's teeth.
    pub wide: Term,
    /// Finished height.
    pub height: Length,
    /// Divisions of a divided pocket.
    pub divisions: u32,
    /// Ease of each division: how much wider it is cut than it sits.
    pub ease: Length,
    /// What holds its sides.
    pub sides: PocketSides,
    /// Seam at its base, of both layers.
    pub base: Length,
}

impl Pocket {
    /// Finished width.
    pub fn width(&self) -> Length {
        self.wide.value()
    }

    fn side(&self) -> Length {
        match self.sides {
            PocketSides::Seamed(seam) => seam,
            PocketSides::UnderWebbing(wide) => wide / 2,
        }
    }

    fn cut_width(&self, more: Option<Term>, ruler: Ruler) -> Dimension {
        let sides = match self.sides {
            PocketSides::Seamed(seam) => Term::times("side seams", 2, seam, "seam_side"),
            PocketSides::UnderWebbing(wide) => Term::once("under the webbing, both sides", wide, "strap_width"),
        };
        Dimension::sum([self.wide.clone()].into_iter().chain(more).chain([sides]).collect(), ruler)
    }

    /// Its pieces.
    pub fn pieces(&self, ruler: Ruler) -> Vec<Piece> {
        let (id, name) = self.called;
        let doubled = || {
            let tall = Term::times("tall, doubled", 2, self.height, "pocket_height");
            Dimension::sum(vec![tall, Term::times("base seam, both layers", 2, self.base, "seam_base")], ruler)
        };
        let fold = |d: &Dimension| Mark {
            boxes: false,
            share: false,
            name: "fold, the pocket's top edge".into(),
            distance: d.size / 2,
            from: From::TopEdge,
            and: None,
        };
        match self.kind {
            PocketKind::None => vec![],
            PocketKind::Slip => {
                let height = doubled();
                let fold = fold(&height);
                let note = match self.sides {
                    PocketSides::Seamed(_) => "folded at its top edge",
                    PocketSides::UnderWebbing(_) => "folded at its top edge; its sides lie under the webbing",
                };
                let pocket = Piece::new(id, name, Part::Pocket, self.cut_width(None, ruler), height);
                vec![pocket.times(self.count).marked([fold]).noted(note)]
            }
            PocketKind::Zip => {
                // The box is as long as the teeth; the bags are wider by a seam and half an inch each side.
                let beside = Term::times("beside the box", 2, Length::inches(1, 2), "pocket");
                let tall = Term::once("tall", self.height, "pocket_height");
                let above = Term::once("above the zip", Length::inches(3, 4), "pocket");
                let seams = Term::times("seams, top and base", 2, self.base, "seam_base");
                let height = Dimension::sum(vec![tall, above, seams], ruler);
                let zip_box = Mark {
                    boxes: false,
                    share: false,
                    name: "zip box, ⅜ in (1 cm) tall, its corners cut into as triangles".into(),
                    distance: self.width() / 2,
                    from: From::Middle,
                    and: Some((self.base + Length::inches(3, 4), From::TopEdge)),
                };
                let bag = Piece::new(id, name, Part::Pocket, self.cut_width(Some(beside), ruler), height);
                vec![bag.times(2 * self.count).marked([zip_box])]
            }
            PocketKind::Divided => {
                let n = i64::from(self.divisions);
                let height = doubled();
                let fold = fold(&height);
                let ease = Term::times("ease, in pleats", n, self.ease, "pocket_ease");
                let each = self.width() / n + self.ease;
                let dividers = (1..n).map(|i| Mark {
                    boxes: false,
                    share: false,
                    name: "divider".into(),
                    distance: self.side() + each * i,
                    from: From::LeftEdge,
                    and: None,
                });
                let pocket = Piece::new(id, name, Part::Pocket, self.cut_width(Some(ease), ruler), height);
                vec![
                    pocket
                        .times(self.count)
                        .marked(dividers.chain([fold]))
                        .noted("folded at its top edge; dividers are sewn down nearer together than they lie here"),
                ]
            }
        }
    }

    /// Adds its pieces to those of a bag, and its place to the lining panel: centred on a face `face` wide, so far
    /// below the panel's raw edge.
    pub(super) fn onto(&self, pieces: &mut Vec<Piece>, face: Length, below: Length, ruler: Ruler) {
        if self.kind == PocketKind::None {
            return;
        }
        if let Some(panel) = pieces.iter_mut().find(|p| p.id == "lining-panel") {
            let beside = (panel.width.size - face) / 2;
            panel.marks.push(self.position(face, beside, below));
        }
        pieces.extend(self.pieces(ruler));
    }

    /// What is sewn before the lining is.
    pub(super) fn step(&self) -> Option<Step> {
        (self.kind != PocketKind::None).then(|| Step::new(Phase::Flat, "pocket", "Sew the pocket on the lining."))
    }

    /// What is bought for it.
    pub fn hardware(&self, ruler: Ruler) -> Vec<Hardware> {
        if self.kind != PocketKind::Zip {
            return vec![];
        }
        vec![zip("Zip, for the pocket", self.width(), "as wide as its box", ruler)]
    }

    /// The mark on the panel it is sewn to: centred on the *face*, not on the cut panel.
    pub fn position(&self, face: Length, edge: Length, below: Length) -> Mark {
        Mark {
            boxes: false,
            share: false,
            name: "pocket, top corners".into(),
            distance: edge + (face - self.width()) / 2,
            from: From::SideEdges,
            and: Some((below, From::TopEdge)),
        }
    }

    /// What to look at: the pocket against the face it sits on, `room` tall below its top edge.
    pub fn notices(&self, room: Length, show: &dyn Fn(Length) -> String) -> Vec<Notice> {
        if self.kind == PocketKind::None || self.height <= room {
            return vec![];
        }
        let over = show(self.height - room);
        let text = format!("The pocket runs {over} into the boxing: raise it or make it shorter.");
        vec![Notice::attention("pocket_height", text)]
    }
}

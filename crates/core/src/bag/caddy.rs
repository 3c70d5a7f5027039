//! Box or caddy of separate panels: front and back, sides, base; divided pockets with pleats; edges bound or hemmed.
//!
//! Front and back (W + 2s) × (H + b + t), sides (D + 2s) × the same, base (W + 2s) × (D + 2s); `mouth` decides t.

use super::Design;
use super::backing::{Allowances, BackingChoice, BackingCloth, BackingSchool};
use super::draft::{Draft, Finished, Notice, millilitres};
use super::extras::{Extras, Place};
use super::field::{Field, Group};
use super::mouth::{self, Around, Mouth, MouthFinish};
use super::order::{Phase, Step, in_order};
use super::pocket::{Pocket, PocketFor, PocketKind, PocketSides};
use super::problems::Problems;
use super::sewn::{Edge, Seam, Stretch};
use super::solid::{Solid, ThreadKind};
use super::strap::{Strap, StrapMake};
use super::wall::{Looks, Moves, Seen, Side, Wall};
use crate::FieldProblem;
use crate::measure::{Length, Ruler, System, default_length};
use crate::piece::{Dimension, From, Mark, Part, Piece, Term};

/// A caddy by its finished sizes.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Caddy {
    /// Finished width.
    pub width: Length,
    /// Finished height.
    pub height: Length,
    /// Finished depth.
    pub depth: Length,
    /// The mouth.
    pub mouth: MouthFinish,
    /// Whether front and back have a divided pocket.
    pub pocket: bool,
    /// Pockets also on the sides.
    pub side_pockets: bool,
    /// What the divisions are made for.
    pub pocket_for: PocketFor,
    /// Finished height of the pockets.
    pub pocket_height: Length,
    /// Divisions of the front's pocket.
    pub pocket_divisions: u32,
    /// Ease of each division, in a pleat.
    pub pocket_ease: Length,
    /// Dividers across the inside.
    pub dividers: u32,
    /// Whether it has a handle from side to side.
    pub handle: bool,
    /// How it is made.
    pub strap_make: StrapMake,
    /// Its finished width.
    pub strap_width: Length,
    /// How much of it shows.
    pub strap_length: Length,
    /// What lies behind it.
    pub backing: BackingChoice,
    /// Loops, tabs, a label, a closure.
    pub extras: Extras,
    /// Side seams.
    pub seam_side: Length,
    /// Base seam.
    pub seam_base: Length,
}

impl Caddy {
    /// All that cannot stand, each named by its field.
    fn problems(&self, ruler: Ruler) -> Result<(), Vec<FieldProblem>> {
        let mut problems = Problems::new(ruler);
        for (field, name, value) in
            [("width", "width", self.width), ("height", "height", self.height), ("depth", "depth", self.depth)]
        {
            problems.size(field, name, value);
        }
        let least = self.width.min(self.depth) / 2;
        problems.seam("seam_side", "side seam", self.seam_side, least, "half of width or depth");
        problems.seam("seam_base", "base seam", self.seam_base, self.height.min(least), "half of width or depth");
        self.mouth.problems(self.height, &mut problems);
        self.mouth.zip_problems(self.width, self.depth, &mut problems);
        self.extras.problems(&mut problems);
        if self.pocket {
            problems.between("pocket_height", "pocket", self.pocket_height, Length::CENTIMETRE, self.height);
            problems.between(
                "pocket_ease",
                "ease",
                self.pocket_ease,
                Length::ZERO,
                self.width / i64::from(self.pocket_divisions),
            );
        }
        if self.handle {
            problems.between("strap_width", "handle", self.strap_width, Length::MILLIMETRE * 5, self.depth);
            problems.between("strap_length", "handle's length", self.strap_length, self.width, Length::METRE * 3);
        }
        problems.end()
    }

    fn across(&self, name: &'static str, length: Length, field: &'static str, ruler: Ruler) -> Dimension {
        let seams = Term::times("side seams", 2, self.seam_side, "seam_side");
        Dimension::sum(vec![Term::once(name, length, field), seams], ruler)
    }

    fn up(&self, mouth: Vec<Term>, ruler: Ruler) -> Dimension {
        let mut terms =
            vec![Term::once("tall", self.height, "height"), Term::once("base seam", self.seam_base, "seam_base")];
        terms.extend(mouth);
        Dimension::sum(terms, ruler)
    }

    /// A side of the base, sewn in all round by the base seam.
    fn of_base(&self, name: &'static str, length: Length, field: &'static str, ruler: Ruler) -> Dimension {
        let seams = Term::times("base seams", 2, self.seam_base, "seam_base");
        Dimension::sum(vec![Term::once(name, length, field), seams], ruler)
    }

    fn panels(&self, lining: bool, ruler: Ruler) -> Vec<Piece> {
        let (ids, names, part) = if lining {
            (
                ["lining-front", "lining-side", "lining-base"],
                ["Lining front and back", "Lining side", "Lining base"],
                Part::Lining,
            )
        } else {
            (["front", "side", "base"], ["Front and back", "Side", "Base"], Part::Outer)
        };
        let wide = || self.across("wide", self.width, "width", ruler);
        let up = || self.up(if lining { self.mouth.lining() } else { self.mouth.outer() }, ruler);
        let stop = |edge| Mark {
            boxes: false,
            share: false,
            name: "stop the seam one allowance from the corner".into(),
            distance: self.seam_base,
            from: edge,
            and: None,
        };
        vec![
            Piece::new(ids[0], names[0], part, wide(), up()).times(2).marked([stop(From::BaseEdge)]),
            Piece::new(ids[1], names[1], part, self.across("deep", self.depth, "depth", ruler), up())
                .times(2)
                .marked([stop(From::BaseEdge)]),
            Piece::new(
                ids[2],
                names[2],
                part,
                self.of_base("wide", self.width, "width", ruler),
                self.of_base("deep", self.depth, "depth", ruler),
            ),
        ]
    }

    /// Pockets right across front and back, and across the sides if they have any.
    fn pockets(&self, ruler: Ruler) -> Vec<Piece> {
        let front = Pocket {
            kind: if self.pocket_divisions > 1 { PocketKind::Divided } else { PocketKind::Slip },
            called: ("pocket", "Divided pocket"),
            count: 2,
            wide: Term::once("the panel, finished", self.width, "width"),
            height: self.pocket_height,
            divisions: self.pocket_divisions,
            ease: self.pocket_ease,
            sides: PocketSides::Seamed(self.seam_side),
            base: self.seam_base,
        };
        let side = Pocket {
            kind: PocketKind::Slip,
            called: ("side-pocket", "Side pocket"),
            wide: Term::once("the side, finished", self.depth, "depth"),
            ..front.clone()
        };
        let mut made = front.pieces(ruler);
        if self.side_pockets {
            made.extend(side.pieces(ruler));
        }
        made
    }
}

impl Design for Caddy {
    fn default_for(system: System) -> Self {
        let size = |eighths, tenths| default_length(system, eighths, tenths);
        Self {
            width: size(80, 260),
            height: size(56, 180),
            depth: size(40, 130),
            mouth: MouthFinish::default_for(Mouth::Bound, size(3, 10), system),
            pocket: true,
            side_pockets: false,
            pocket_for: PocketFor::Sizes,
            pocket_height: size(32, 110),
            pocket_divisions: 3,
            pocket_ease: size(6, 20),
            dividers: 0,
            handle: true,
            strap_make: StrapMake::FoldedInFour,
            strap_width: size(8, 25),
            strap_length: size(112, 360),
            backing: BackingChoice { school: BackingSchool::ClearOfSeams, cloth: BackingCloth::Interfacing },
            extras: Extras::default_for(system),
            seam_side: size(3, 10),
            seam_base: size(3, 10),
        }
    }

    fn fields(&mut self) -> Vec<Field<'_>> {
        let (pocket, handle, open) = (self.pocket, self.handle, !self.mouth.is_zipped());
        let mut all = vec![
            Field::size("width", "Wide", Group::Size, &mut self.width).scaling(),
            Field::size("height", "Tall", Group::Size, &mut self.height).scaling(),
            Field::size("depth", "Deep", Group::Size, &mut self.depth).scaling(),
        ];
        all.extend(self.mouth.fields());
        all.extend([
            Field::toggle("pocket", "Divided pockets, front and back", Group::Pocket, &mut self.pocket),
            Field::choice("pocket_for", "Made for", Group::Pocket, &mut self.pocket_for).only_if(pocket),
            Field::size("pocket_height", "Tall, finished", Group::Pocket, &mut self.pocket_height)
                .scaling()
                .only_if(pocket),
            Field::count("pocket_divisions", "Divisions", Group::Pocket, &mut self.pocket_divisions, 1..=12)
                .only_if(pocket),
            Field::size("pocket_ease", "Ease of each, in a pleat", Group::Pocket, &mut self.pocket_ease)
                .only_if(pocket),
            Field::toggle("side_pockets", "Pockets on the sides too", Group::Pocket, &mut self.side_pockets)
                .only_if(pocket),
            Field::count("dividers", "Dividers inside", Group::Lining, &mut self.dividers, 0..=6),
            Field::toggle("handle", "A handle from side to side", Group::Straps, &mut self.handle),
            Field::choice("strap_make", "How it is made", Group::Straps, &mut self.strap_make).only_if(handle),
            Field::size("strap_width", "Finished width", Group::Straps, &mut self.strap_width).only_if(handle),
            Field::size("strap_length", "How much shows", Group::Straps, &mut self.strap_length)
                .reaching()
                .only_if(handle),
        ]);
        all.extend(self.backing.fields("Behind the outer"));
        all.extend([
            Field::seam("seam_side", "Side seams", &mut self.seam_side),
            Field::seam("seam_base", "Base seam", &mut self.seam_base),
        ]);
        all.extend(self.extras.fields(open));
        all
    }

    /// Divisions, ease and height go with what the pockets are made for, until they are typed.
    fn update_dependents(&mut self, key: &str, system: System) {
        match key {
            "pocket_height" | "pocket_divisions" | "pocket_ease" => self.pocket_for = PocketFor::Sizes,
            "pocket_for" | "width" => {
                if let Some((divisions, ease, height)) = self.pocket_for.across(self.width) {
                    let ruler = Ruler::default_for(system);
                    (self.pocket_divisions, self.pocket_ease) = (divisions, ruler.up(ease));
                    self.pocket_height = ruler.up(height).min(self.height);
                }
            }
            _ => {}
        }
    }

    fn seen(&self) -> Vec<(Group, Seen)> {
        let on = |side, width: Length, divisions: u32| {
            let each = width / i64::from(divisions.max(1));
            let dividers = (1..divisions).map(|n| each * i64::from(n)).collect();
            let seen = Seen {
                side,
                looks: Looks::Patch { cloth: Part::Pocket, dividers },
                left: Length::ZERO,
                down: self.height - self.pocket_height,
                width,
                height: self.pocket_height,
                moves: Moves::default(),
            };
            (Group::Pocket, seen)
        };
        let front = [Side::Front, Side::Back].map(|side| on(side, self.width, self.pocket_divisions));
        let sides = [Side::Left, Side::Right].map(|side| on(side, self.depth, 1));
        let sides = sides.into_iter().filter(|_| self.side_pockets);
        front.into_iter().chain(sides).filter(|_| self.pocket).collect()
    }

    fn walls(&self, ruler: Ruler) -> Vec<Wall> {
        let wall = |side, piece, wide, above: &[Term]| {
            let top = above.iter().map(Term::value).sum();
            let wall = Wall::new(side, piece, (wide, self.height), self.seam_side, top).edged(above);
            wall.between((self.seam_side, "seam_side")).based(Length::ZERO, (self.seam_base, "seam_base"))
        };
        let open = |wall: Wall| {
            if self.mouth.is_zipped() {
                wall
            } else {
                wall.open(self.mouth.caught(ruler.system()), self.mouth.layers(true))
            }
        };
        let (outer, lining) = (&self.mouth.outer()[..], &self.mouth.lining()[..]);
        vec![
            open(wall(Side::Front, "front", self.width, outer)),
            open(wall(Side::Back, "front", self.width, outer)),
            open(wall(Side::Left, "side", self.depth, outer)),
            open(wall(Side::Right, "side", self.depth, outer)),
            wall(Side::InsideFront, "lining-front", self.width, lining),
            wall(Side::InsideBack, "lining-front", self.width, lining),
        ]
    }

    fn draft(&self, ruler: Ruler) -> Result<Draft, Vec<FieldProblem>> {
        self.problems(ruler)?;
        let outer = self.panels(false, ruler);
        let top = self.mouth.edge();
        let walls = Allowances { side: self.seam_side, top, base: self.seam_base, corner: Length::ZERO };
        let flat = Allowances { side: self.seam_base, top: self.seam_base, base: self.seam_base, corner: Length::ZERO };
        let backed: Vec<Piece> = outer
            .iter()
            .flat_map(|p| {
                let within = if p.id == "base" { flat } else { walls };
                self.backing.behind(p, within, ruler)
            })
            .collect();
        let mut pieces = outer;
        pieces.extend(self.panels(true, ruler));
        let mut goods = vec![];
        let mut notices = vec![];
        if self.pocket {
            pieces.extend(self.pockets(ruler));
            if self.pocket_height > self.height * 3 / 4 {
                notices.push(Notice::note(
                    "pocket_height",
                    "Pockets this tall hide what stands in them: two thirds of the wall is usual.",
                ));
            }
        }
        if self.dividers > 0 {
            let tall = Dimension::sum(
                vec![
                    Term::times("tall, doubled", 2, self.height * 3 / 4, "height"),
                    Term::times("base seam, both layers", 2, self.seam_base, "seam_base"),
                ],
                ruler,
            );
            let deep = self.across("deep", self.depth, "depth", ruler);
            pieces.push(
                Piece::new("divider", "Divider", Part::Lining, deep, tall)
                    .times(self.dividers)
                    .noted("folded at its top edge, caught in the lining’s seams"),
            );
        }
        let walls = vec![
            (self.across("wide", self.width, "width", ruler), 2),
            (self.across("deep", self.depth, "depth", ruler), 2),
        ];
        let around = Around { width: (self.width, "width"), depth: self.depth, seam_side: self.seam_side, walls };
        let (made, hardware) = self.mouth.made(&around, ruler);
        pieces.extend(made);
        if self.handle {
            let strap = Strap { make: self.strap_make, width: self.strap_width, turn: self.seam_side };
            let terms = vec![
                Term::once("showing", self.strap_length, "strap_length"),
                Term::times("stitched down the sides, both ends", 2, default_length(ruler.system(), 16, 50), "handle"),
            ];
            let (made, bought) = strap.made("handle", "Handle", 1, terms, ruler);
            pieces.extend(made);
            goods.extend(bought);
        }
        pieces.extend(backed);
        if self.backing.school == BackingSchool::FullSize && self.backing.cloth == BackingCloth::Interfacing {
            notices.push(Notice::note(
                "backing",
                "Firm interfacing in the seams keeps the corners from turning: cut it clear of them.",
            ));
        }
        notices.push(Notice::note("width", "Many pieces are alike: pin a label on each bundle as it is cut."));
        let mut draft = Draft {
            pieces,
            goods,
            hardware,
            steps: self.steps(),
            notices,
            millilitres: millilitres(self.width, self.height, self.depth),
            ..Draft::default()
        };
        let place = Place { outer: "front", outer_top: top, lining_top: None, face: self.height, seam: self.seam_side };
        self.extras.onto(&mut draft, &place, !self.mouth.is_zipped(), ruler);
        Ok(draft)
    }

    fn finished_from_cut(&self, draft: &Draft) -> Vec<Finished> {
        let (Some(front), Some(side), Some(base)) = (draft.piece("front"), draft.piece("side"), draft.piece("base"))
        else {
            return vec![];
        };
        let top: Length = self.mouth.outer().iter().map(Term::value).sum();
        vec![
            Finished {
                name: "wide".into(),
                field: "width".into(),
                asked: self.width,
                back: front.width.size - self.seam_side * 2,
            },
            Finished {
                name: "tall".into(),
                field: "height".into(),
                asked: self.height,
                back: front.height.size - self.seam_base - top,
            },
            Finished {
                name: "deep".into(),
                field: "depth".into(),
                asked: self.depth,
                back: side.width.size - self.seam_side * 2,
            },
            Finished {
                name: "deep at the base".into(),
                field: "depth".into(),
                asked: self.depth,
                back: base.height.size - self.seam_base * 2,
            },
        ]
    }

    fn seams(&self, _: Ruler) -> Vec<Seam> {
        let (side, base, sewn) = (self.seam_side, self.seam_base, self.mouth.sewn_at());
        let mut seams = vec![];
        let (outer, lining) = (["front", "side", "base"], ["lining-front", "lining-side", "lining-base"]);
        for ([front, wall, floor], step) in [(outer, "outer"), (lining, "lining")] {
            seams.push(Seam::new(
                "side seam",
                step,
                Stretch::new(front, Edge::Side, side, base),
                Stretch::new(wall, Edge::Side, side, base),
            ));
            seams.push(Seam::new(
                "base seam, front and back",
                step,
                Stretch::new(front, Edge::Base, base, side * 2),
                Stretch::new(floor, Edge::Base, base, base * 2),
            ));
            seams.push(Seam::new(
                "base seam, sides",
                step,
                Stretch::new(wall, Edge::Base, base, side * 2),
                Stretch::new(floor, Edge::Side, base, base * 2),
            ));
        }
        for (front, lining) in [("front", "lining-front"), ("side", "lining-side")] {
            let of = |piece| Stretch::new(piece, Edge::Top, sewn, side * 2);
            seams.push(Seam::new("round the mouth", "mouth", of(front), of(lining)));
        }
        seams
    }

    fn solid(&self, _: &Draft) -> Solid {
        let (w, h, d) = (self.width.0 as f64, self.height.0 as f64, self.depth.0 as f64);
        let mut solid = Solid::open_box(w, h, d, Part::Lining, Part::Outer);
        if self.pocket {
            let p = self.pocket_height.0 as f64;
            solid = solid.face([[0.0; 3], [w, 0.0, 0.0], [w, p, 0.0], [0.0, p, 0.0]], Part::Pocket, 0);
            for i in 1..self.pocket_divisions {
                let x = w * f64::from(i) / f64::from(self.pocket_divisions);
                solid = solid.thread(ThreadKind::Stitch, [[x, 0.0, 0.0], [x, p, 0.0]]);
            }
            if self.side_pockets {
                solid = solid.face([[w, 0.0, 0.0], [w, 0.0, d], [w, p, d], [w, p, 0.0]], Part::Pocket, 2);
            }
        }
        solid = mouth::banded(solid, self.mouth.band(), (w, h, d));
        if self.handle {
            let rise = ((self.strap_length - self.width).0 as f64 * 0.45).max(w * 0.1);
            solid = solid.handle([0.0, h, d / 2.0], [w, h, d / 2.0], rise, self.strap_width);
        }
        solid.sizes(w, h, d)
    }
}

impl Caddy {
    fn steps(&self) -> Vec<Step> {
        let pockets = self.pocket.then(|| {
            let text = "Sew the dividers of the pockets on front and back, pleating the ease.";
            Step::new(Phase::Flat, "pocket", text)
        });
        let body = "Sew the sides to front and back, stopping one allowance above the base; sew in the base.";
        let handle = self.handle.then(|| Step::new(Phase::Last, "handle", "Stitch the handle down on both sides."));
        let outer = Step::new(Phase::Outer, "outer", body);
        let first = self.backing.step().into_iter().chain(pockets);
        in_order(first.chain([outer]).chain(self.mouth.steps(true)).chain(handle))
    }
}

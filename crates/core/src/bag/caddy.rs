//! Box or caddy of separate panels: front and back, sides, base; divided pockets with pleats; edges bound or hemmed.
//!
//! Front and back (W + 2s) × (H + b + t), sides (D + 2s) × the same, base (W + 2s) × (D + 2s). A bound mouth takes no
//! allowance: t = 0.

use super::Design;
use super::backing::{self, Allowances, BackingCloth, BackingSchool};
use super::binding::{self, BindingFold};
use super::draft::{Draft, Finished, Notice, millilitres};
use super::faults::Faults;
use super::field::{Field, Group, choice};
use super::solid::{Solid, ThreadKind};
use super::strap::{Strap, StrapMake};
use super::tote::usual;
use crate::FieldProblem;
use crate::measure::{Length, Ruler, System};
use crate::piece::{Dimension, From, Mark, Part, Piece, Term};

choice! {
    /// The mouth of a caddy.
    CaddyMouth {
        /// Bound.
        Bound = "bound", "Bound", "raw edges of outer and lining closed by a binding; no allowance at the top";
        /// Turned through.
        TurnedThrough = "turned-through", "Turned through", "outer and lining joined by a seam";
    }
}

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
    pub mouth: CaddyMouth,
    /// Finished width of the binding.
    pub binding_width: Length,
    /// How the binding is folded.
    pub binding_fold: BindingFold,
    /// Whether front and back have a divided pocket.
    pub pocket: bool,
    /// Pockets also on the sides.
    pub side_pockets: bool,
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
    /// How far the backing reaches.
    pub backing: BackingSchool,
    /// Backed with.
    pub backing_cloth: BackingCloth,
    /// Side seams.
    pub seam_side: Length,
    /// Base seam.
    pub seam_base: Length,
    /// Top seam.
    pub seam_top: Length,
}

/// How wide a divided pocket is cut: divisions as wide as they lie on the panel, their ease, and two seams.
pub(super) fn divided(on_panel: Length, divisions: u32, ease: Length, seam: Length, ruler: Ruler) -> Dimension {
    Dimension::sum(
        vec![
            Term::once("the panel, finished", on_panel, "width"),
            Term::times("ease, in pleats", i64::from(divisions), ease, "pocket_ease"),
            Term::times("side seams", 2, seam, "seam_side"),
        ],
        ruler,
    )
}

impl Caddy {
    fn bound(&self) -> bool {
        self.mouth == CaddyMouth::Bound
    }

    fn top(&self) -> Vec<Term> {
        if self.bound() { vec![] } else { vec![Term::once("top seam", self.seam_top, "seam_top")] }
    }

    fn across(&self, name: &'static str, length: Length, field: &'static str, ruler: Ruler) -> Dimension {
        let seams = Term::times("side seams", 2, self.seam_side, "seam_side");
        Dimension::sum(vec![Term::once(name, length, field), seams], ruler)
    }

    fn up(&self, ruler: Ruler) -> Dimension {
        let mut terms =
            vec![Term::once("tall", self.height, "height"), Term::once("base seam", self.seam_base, "seam_base")];
        terms.extend(self.top());
        Dimension::sum(terms, ruler)
    }

    fn base(&self, ruler: Ruler) -> Dimension {
        let seams = Term::times("base seams", 2, self.seam_base, "seam_base");
        Dimension::sum(vec![Term::once("deep", self.depth, "depth"), seams], ruler)
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
        let stop = |edge| Mark {
            name: "stop the seam one allowance from the corner",
            distance: self.seam_base,
            from: edge,
            and: None,
        };
        vec![
            Piece::new(ids[0], names[0], part, wide(), self.up(ruler)).times(2).marked([stop(From::BaseEdge)]),
            Piece::new(ids[1], names[1], part, self.across("deep", self.depth, "depth", ruler), self.up(ruler))
                .times(2)
                .marked([stop(From::BaseEdge)]),
            Piece::new(ids[2], names[2], part, wide(), self.base(ruler)),
        ]
    }

    fn pockets(&self, ruler: Ruler) -> Vec<Piece> {
        let height = || {
            Dimension::sum(
                vec![
                    Term::times("tall, doubled", 2, self.pocket_height, "pocket_height"),
                    Term::times("base seam, both layers", 2, self.seam_base, "seam_base"),
                ],
                ruler,
            )
        };
        let dividers = |n: u32, panel: Length| -> Vec<Mark> {
            let each = panel / i64::from(n) + self.pocket_ease;
            let mut marks: Vec<Mark> = (1..i64::from(n))
                .map(|i| Mark { name: "divider", distance: self.seam_side + each * i, from: From::LeftEdge, and: None })
                .collect();
            marks.push(Mark {
                name: "fold, the pocket's top edge",
                distance: height().size / 2,
                from: From::TopEdge,
                and: None,
            });
            marks
        };
        let n = self.pocket_divisions;
        let mut made = vec![
            Piece::new(
                "pocket",
                "Divided pocket",
                Part::Pocket,
                divided(self.width, n, self.pocket_ease, self.seam_side, ruler),
                height(),
            )
            .times(2)
            .marked(dividers(n, self.width))
            .noted("folded at its top edge; dividers are sewn down nearer together on the panel"),
        ];
        if self.side_pockets {
            let side = self.across("deep", self.depth, "depth", ruler);
            let fold = Mark {
                name: "fold, the pocket's top edge",
                distance: height().size / 2,
                from: From::TopEdge,
                and: None,
            };
            made.push(Piece::new("side-pocket", "Side pocket", Part::Pocket, side, height()).times(2).marked([fold]));
        }
        made
    }
}

impl Design for Caddy {
    fn usual(system: System) -> Self {
        let size = |eighths, tenths| usual(system, eighths, tenths);
        Self {
            width: size(80, 260),
            height: size(56, 180),
            depth: size(40, 130),
            mouth: CaddyMouth::Bound,
            binding_width: size(4, 10),
            binding_fold: BindingFold::Double,
            pocket: true,
            side_pockets: false,
            pocket_height: size(32, 110),
            pocket_divisions: 3,
            pocket_ease: size(6, 20),
            dividers: 0,
            handle: true,
            strap_make: StrapMake::FoldedInFour,
            strap_width: size(8, 25),
            strap_length: size(112, 360),
            backing: BackingSchool::ClearOfSeams,
            backing_cloth: BackingCloth::Interfacing,
            seam_side: size(3, 10),
            seam_base: size(3, 10),
            seam_top: size(3, 10),
        }
    }

    fn fields(&mut self) -> Vec<Field<'_>> {
        let (bound, pocket, handle) = (self.bound(), self.pocket, self.handle);
        let backed = self.backing != BackingSchool::None;
        vec![
            Field::size("width", "Wide", Group::Size, &mut self.width).scaling(),
            Field::size("height", "Tall", Group::Size, &mut self.height).scaling(),
            Field::size("depth", "Deep", Group::Size, &mut self.depth).scaling(),
            Field::choice("mouth", "How the mouth is finished", Group::Mouth, &mut self.mouth),
            Field::size("binding_width", "Binding, finished", Group::Binding, &mut self.binding_width).only_if(bound),
            Field::choice("binding_fold", "The binding is", Group::Binding, &mut self.binding_fold).only_if(bound),
            Field::toggle("pocket", "Divided pockets, front and back", Group::Pocket, &mut self.pocket),
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
            Field::size("strap_length", "How much shows", Group::Straps, &mut self.strap_length).only_if(handle),
            Field::choice("backing", "Behind the outer", Group::Backing, &mut self.backing),
            Field::choice("backing_cloth", "Backed with", Group::Backing, &mut self.backing_cloth).only_if(backed),
            Field::seam("seam_side", "Side seams", &mut self.seam_side),
            Field::seam("seam_base", "Base seam", &mut self.seam_base),
            Field::seam("seam_top", "Top seam", &mut self.seam_top).only_if(!bound),
        ]
    }

    fn draft(&self, ruler: Ruler) -> Result<Draft, Vec<FieldProblem>> {
        let mut faults = Faults::new(ruler);
        for (field, name, value) in
            [("width", "width", self.width), ("height", "height", self.height), ("depth", "depth", self.depth)]
        {
            faults.size(field, name, value);
        }
        let least = self.width.min(self.depth) / 2;
        faults.seam("seam_side", "side seam", self.seam_side, least, "half of width or depth");
        faults.seam("seam_base", "base seam", self.seam_base, self.height.min(least), "half of width or depth");
        if self.bound() {
            faults.between("binding_width", "binding", self.binding_width, Length::MILLIMETRE * 4, self.height / 4);
        } else {
            faults.seam("seam_top", "top seam", self.seam_top, self.height, "the height");
        }
        if self.pocket {
            faults.between("pocket_height", "pocket", self.pocket_height, Length::CENTIMETRE, self.height);
            faults.between(
                "pocket_ease",
                "ease",
                self.pocket_ease,
                Length::ZERO,
                self.width / i64::from(self.pocket_divisions),
            );
        }
        if self.handle {
            faults.between("strap_width", "handle", self.strap_width, Length::MILLIMETRE * 5, self.depth);
            faults.between("strap_length", "handle's length", self.strap_length, self.width, Length::METRE * 3);
        }
        faults.end()?;
        let show = |l: Length| Faults::new(ruler).show(l);
        let outer = self.panels(false, ruler);
        let top: Length = self.top().iter().map(Term::value).sum();
        let walls = Allowances { side: self.seam_side, top, base: self.seam_base };
        let flat = Allowances { side: self.seam_side, top: self.seam_base, base: self.seam_base };
        let backed: Vec<Piece> = outer
            .iter()
            .flat_map(|p| {
                let within = if p.id == "base" { flat } else { walls };
                backing::behind(p, self.backing, self.backing_cloth, within, ruler)
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
        if self.bound() {
            let edge = vec![
                Term::times("round the mouth, wide", 2, self.width, "width"),
                Term::times("round the mouth, deep", 2, self.depth, "depth"),
                Term::once("to join on the bias", usual(ruler.system(), 80, 250), "binding_fold"),
            ];
            pieces.push(binding::binding("binding", "Binding", self.binding_fold, self.binding_width, edge, ruler));
        }
        if self.handle {
            let strap = Strap { make: self.strap_make, width: self.strap_width, turn: self.seam_side };
            let terms = vec![
                Term::once("showing", self.strap_length, "strap_length"),
                Term::times("stitched down the sides, both ends", 2, usual(ruler.system(), 16, 50), "handle"),
            ];
            let (made, bought) = strap.made("handle", "Handle", 1, terms, ruler);
            pieces.extend(made);
            goods.extend(bought);
        }
        pieces.extend(backed);
        if self.backing == BackingSchool::FullSize && self.backing_cloth == BackingCloth::Interfacing {
            notices.push(Notice::note(
                "backing",
                "Firm interfacing in the seams keeps the corners from turning: cut it clear of them.",
            ));
        }
        let pieces_alike: u32 = pieces.iter().map(|p| p.count).sum();
        notices.push(Notice::note("width", format!("{pieces_alike} pieces, many of them alike: pin a label on each bundle as it is cut. Walls finish {} tall.", show(self.height))));
        Ok(Draft {
            pieces,
            goods,
            steps: [
                "Fuse the backing to the outer panels. Heat and steam burn: follow the sheet that came with it.",
                "Sew the dividers of the pockets on front and back, pleating the ease.",
                "Sew the sides to front and back, stopping one allowance above the base; sew in the base.",
                "Sew the lining the same way and set it in.",
                "Bind or turn the mouth; stitch the handle down.",
            ]
            .map(str::to_owned)
            .to_vec(),
            notices,
            millilitres: millilitres(self.width, self.height, self.depth),
            ..Draft::default()
        })
    }

    fn back(&self, draft: &Draft) -> Vec<Finished> {
        let (Some(front), Some(side), Some(base)) = (draft.piece("front"), draft.piece("side"), draft.piece("base"))
        else {
            return vec![];
        };
        let top: Length = self.top().iter().map(Term::value).sum();
        vec![
            Finished { name: "wide", field: "width", asked: self.width, back: front.width.size - self.seam_side * 2 },
            Finished {
                name: "tall",
                field: "height",
                asked: self.height,
                back: front.height.size - self.seam_base - top,
            },
            Finished { name: "deep", field: "depth", asked: self.depth, back: side.width.size - self.seam_side * 2 },
            Finished {
                name: "deep at the base",
                field: "depth",
                asked: self.depth,
                back: base.height.size - self.seam_base * 2,
            },
        ]
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
        if self.bound() {
            let b = self.binding_width.0 as f64;
            solid = solid.face([[w, h - b, 0.0], [w, h - b, d], [w, h, d], [w, h, 0.0]], Part::Binding, 1).face(
                [[0.0, h - b, 0.0], [w, h - b, 0.0], [w, h, 0.0], [0.0, h, 0.0]],
                Part::Binding,
                0,
            );
        }
        if self.handle {
            let rise = ((self.strap_length - self.width).0 as f64 * 0.45).max(w * 0.1);
            solid = solid.handle([0.0, h, d / 2.0], [w, h, d / 2.0], rise, self.strap_width);
        }
        solid.sizes(w, h, d)
    }
}

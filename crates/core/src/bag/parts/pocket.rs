//! A pocket on any wall: hemmed, doubled, lined, bound, behind a zip or a welt, or a sleeve over a side seam. Common
//! practice.
//!
//! Signs: w × k finished, a turned edge or small seam, g opening of a window, D depth, b base seam. Hemmed (w + 2a) ×
//! (k + a + hem). Doubled (w + 2a) × 2(k + a). Lined both (w + 2a) × (k + 2a). Bound both (w + 2a) × (k + a), nothing at
//! the top. Window: strip (w + 1) × (g + 1) in, bag (w + 2) × 2(k + g + 1) in, folded. Welt: strip (w + 2) × 2(g + a).
//! Sleeve for a thing d round on p of wall: πd + ease − p across. Into the base seam the foot takes D/2 + b instead of a;
//! full width the sides lie in the bag's side seams.

use super::cloth::{Behind, ClothOf};
use super::{Ground, PartOn, refuse_beyond};
use crate::bag::binding::{BindingFold, binding};
use crate::bag::draft::{Draft, Hardware};
use crate::bag::field::{Choice, Field, Group, choice};
use crate::bag::problems::Problems;
use crate::bag::round;
use crate::bag::sewn::{Edge, Seam, Stretch};
use crate::bag::wall::{At, Looks, Moves, Seen, Side, Wall};
use crate::bag::zip::zip;
use crate::measure::{Length, Ruler, System, default_length};
use crate::piece::{Dimension, From, Grain, Mark, Part, Piece, Term};

choice! {
    /// How a pocket is made.
    PocketMake {
        /// One layer, its top hemmed.
        Hemmed = "hemmed", "Hemmed", "one layer, its top turned twice";
        /// Folded at its top edge.
        Doubled = "doubled", "Doubled", "one piece, folded at its top edge";
        /// Two cloths seamed and turned.
        Lined = "lined", "Lined", "two cloths, seamed all round and turned";
        /// Two cloths, the top bound.
        Bound = "bound", "Bound at the top", "two cloths, a binding over the top edge";
        /// A zip in a window, the bag behind it.
        Zip = "zip", "Zip window", "a zip in a slit of the wall, the bag hangs behind it";
        /// A welt in a window.
        Welt = "welt", "Welt", "a folded strip fills a slit of the wall, the bag behind it";
        /// Over a side seam, fuller than the wall.
        Sleeve = "sleeve", "Bottle sleeve", "across a side seam, wider than the wall by what goes in";
    }
}

impl PocketMake {
    /// Its opening is a slit in the wall.
    const fn is_window(self) -> bool {
        matches!(self, Self::Zip | Self::Welt)
    }

    /// It is two cloths.
    const fn has_inner(self) -> bool {
        matches!(self, Self::Lined | Self::Bound)
    }

    /// It may reach into seams.
    const fn may_reach(self) -> bool {
        matches!(self, Self::Hemmed | Self::Doubled | Self::Lined | Self::Bound)
    }
}

choice! {
    /// Where a pocket sits across the wall.
    PocketPlace {
        /// In the middle of the face.
        Middle = "middle", "In the middle of the face", "";
        /// So far from the left.
        FromLeft = "from-left", "So far from the left of the face", "";
        /// Its sides in the side seams.
        FullWidth = "full-width", "Right across, into the side seams", "";
    }
}

choice! {
    /// What becomes of a pocket's foot.
    PocketFoot {
        /// Turned under and stitched.
        Stitched = "stitched", "Stitched on the wall", "";
        /// Caught in the base seam.
        BaseSeam = "base-seam", "Into the base seam", "it reaches the base, whatever its height";
    }
}

/// A pocket by its finished sizes.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct AddedPocket {
    name: String,
    wall: Side,
    make: PocketMake,
    place: PocketPlace,
    from_left: Length,
    below: Length,
    foot: PocketFoot,
    /// Finished; of a window, how long it is.
    width: Length,
    /// Finished; of a window, how deep the bag hangs below it.
    height: Length,
    turn: Length,
    hem: Length,
    opening: Length,
    binding: Length,
    round: Length,
    ease: Length,
    divisions: Vec<Length>,
    fuller: Vec<Length>,
    cloth: ClothOf,
    inner: ClothOf,
    behind: Behind,
    flap: bool,
    flap_depth: Length,
}

impl AddedPocket {
    fn full_width(&self) -> bool {
        self.place == PocketPlace::FullWidth && self.make.may_reach()
    }

    fn into_base(&self) -> bool {
        self.foot == PocketFoot::BaseSeam && self.make.may_reach()
    }

    /// How wide it sits on `wall`, finished.
    fn sits(&self, wall: &Wall) -> Length {
        if self.full_width() { wall.across().unwrap_or(wall.width) } else { self.width }
    }

    /// From the mouth down to its top edge.
    fn down(&self, wall: &Wall) -> Length {
        if self.into_base() { wall.height - self.height } else { self.below }
    }

    /// How wide a sleeve is cut without its turns: round what stands in it go the sleeve and the wall behind.
    fn sleeve(&self) -> Length {
        round::circumference(self.round) + self.ease - self.width
    }

    /// How much wider than it sits it is cut: unequal divisions, or what stands in a sleeve.
    fn fullness(&self) -> Length {
        let sum = |all: &[Length]| all.iter().copied().sum::<Length>();
        match self.make {
            PocketMake::Sleeve => self.sleeve() - self.width,
            _ if self.fuller.is_empty() => Length::ZERO,
            _ => sum(&self.fuller) - sum(&self.divisions),
        }
    }

    fn cut_width(&self, wall: &Wall, on: &Ground<'_>) -> Dimension {
        if self.make == PocketMake::Sleeve {
            return on.sum(vec![
                on.once("round what stands in it, π × across", round::circumference(self.round), "round"),
                on.once("ease", self.ease, "ease"),
                on.times("less the wall behind it", -1, self.width, "width"),
                on.times("edges turned", 2, self.turn, "turn"),
            ]);
        }
        let mut terms = match wall.sides.filter(|_| self.full_width()) {
            Some((seam, field)) => vec![
                on.once("from side seam to side seam", self.sits(wall), "place"),
                Term::times("side seams", 2, seam, field),
            ],
            None => vec![on.once("wide", self.width, "width"), on.times("edges turned", 2, self.turn, "turn")],
        };
        terms.insert(1, on.once("fuller than it sits, in pleats", self.fullness(), "fuller"));
        on.sum(terms)
    }

    /// What it takes below its finished foot, `times` over.
    fn at_the_foot(&self, wall: &Wall, times: i64, on: &Ground<'_>) -> Vec<Term> {
        match wall.below.as_ref().filter(|_| self.into_base()) {
            Some(below) => below.iter().map(|t| Term { times: t.times * times, ..t.clone() }).collect(),
            None => vec![on.times("turned at the foot", times, self.turn, "turn")],
        }
    }

    fn cut_height(&self, wall: &Wall, on: &Ground<'_>) -> Dimension {
        let tall = |times| on.times(if times == 2 { "tall, doubled" } else { "tall" }, times, self.height, "height");
        let terms = match self.make {
            PocketMake::Hemmed => {
                [vec![tall(1), on.once("hem", self.hem, "hem")], self.at_the_foot(wall, 1, on)].concat()
            }
            PocketMake::Doubled => [vec![tall(2)], self.at_the_foot(wall, 2, on)].concat(),
            PocketMake::Lined => {
                [vec![tall(1), on.once("seam at the top", self.turn, "turn")], self.at_the_foot(wall, 1, on)].concat()
            }
            PocketMake::Bound => [vec![tall(1)], self.at_the_foot(wall, 1, on)].concat(),
            PocketMake::Sleeve => vec![tall(1), on.times("hems, top and foot", 2, self.hem, "hem")],
            PocketMake::Zip | PocketMake::Welt => vec![
                on.times("hangs below the window, doubled", 2, self.height, "height"),
                on.times("the window, doubled", 2, self.opening, "opening"),
                on.times("above the window, both ends", 2, inch(on.ruler), "make"),
            ],
        };
        on.sum(terms)
    }

    /// The pocket itself, and its inner cloth.
    fn laid_on(&self, wall: &Wall, on: &Ground<'_>) -> Vec<Piece> {
        let (width, height) = (self.cut_width(wall, on), self.cut_height(wall, on));
        let note = match self.make {
            PocketMake::Hemmed => "its top turned to the inside and stitched",
            PocketMake::Doubled => "folded at its top edge",
            PocketMake::Lined => "seamed to its lining, turned and pressed",
            PocketMake::Bound => "lies on its lining, the top edges bound together",
            _ => "its sides stitched beside the seam, its foot left to stand out",
        };
        let note = if self.into_base() && self.full_width() {
            format!("{note}; notched with the panel once it lies on it")
        } else {
            note.to_owned()
        };
        let outside = Piece::new(on.id("pocket"), on.name.to_owned(), self.cloth.part(), width.clone(), height.clone())
            .noted(note)
            .marked(self.own_marks(wall, &height));
        let mut pieces = vec![outside];
        if self.make.has_inner() {
            let name = format!("{}, lining", on.name);
            pieces.push(Piece::new(on.id("lining"), name, self.inner.part(), width.clone(), height));
        }
        if self.make == PocketMake::Bound {
            let edge = vec![on.once("as wide as the pocket is cut", width.size, "width")];
            let strip = binding("binding", "binding", BindingFold::Double, self.binding, edge, on.ruler);
            let strip = on.relabelled(strip, &[("binding_width", "binding")]);
            pieces.push(Piece { id: on.id("binding").into(), name: format!("{}, binding", on.name).into(), ..strip });
        }
        pieces
    }

    /// The bag behind a window, and the strip that edges or fills it.
    fn window(&self, wall: &Wall, on: &Ground<'_>) -> Vec<Piece> {
        let past =
            |name, by: Length| on.sum(vec![on.once("the window", self.width, "width"), on.once(name, by, "make")]);
        let one = inch(on.ruler);
        let bag = Piece::new(
            on.id("pocket"),
            format!("{}, bag", on.name),
            self.cloth.part(),
            past("beyond it, both ends", one * 2),
            self.cut_height(wall, on),
        )
        .noted("folded, its end on its beginning above the window");
        let strip = if self.make == PocketMake::Zip {
            let tall = on.sum(vec![
                on.once("the window", self.opening, "opening"),
                on.once("beyond it, above and below", one, "make"),
            ]);
            let name = format!("{}, window facing", on.name);
            Piece::new(on.id("facing"), name, self.inner.part(), past("beyond it, both ends", one), tall)
                .noted("sewn round the window right sides together, slit, turned through")
        } else {
            let tall = on.sum(vec![
                on.times("the window, doubled", 2, self.opening, "opening"),
                on.times("seams", 2, self.turn, "turn"),
            ]);
            let name = format!("{}, welt", on.name);
            Piece::new(on.id("welt"), name, self.inner.part(), past("beyond it, both ends", one * 2), tall)
                .noted("folded along its middle; fills the window from its lower edge")
        };
        vec![bag, strip]
    }

    /// Fold, hem and dividers on the pocket itself.
    fn own_marks(&self, wall: &Wall, height: &Dimension) -> Vec<Mark> {
        let from_top =
            |name: String, distance| Mark { boxes: false, name: name.into(), distance, from: From::TopEdge, and: None };
        let mut marks = match self.make {
            PocketMake::Doubled => vec![from_top("fold, the pocket’s top edge".into(), height.size / 2)],
            PocketMake::Hemmed | PocketMake::Sleeve => vec![from_top("fold of the hem".into(), self.hem)],
            _ => vec![],
        };
        let edge = wall.sides.filter(|_| self.full_width()).map_or(self.turn, |(seam, _)| seam);
        let widths = if self.fuller.is_empty() { &self.divisions } else { &self.fuller };
        let mut at = edge;
        for (n, width) in widths.iter().enumerate().take(widths.len().saturating_sub(1)) {
            at = at + *width;
            let name = format!("divider {}, sewn on its mark on {}", n + 1, the_wall(wall.side));
            marks.push(Mark { boxes: false, name: name.into(), distance: at, from: From::LeftEdge, and: None });
        }
        marks
    }

    /// Where it goes on the wall.
    fn wall_marks(&self, wall: &Wall, on: &Ground<'_>) -> Vec<Mark> {
        let (sits, down) = (self.sits(wall), self.down(wall));
        let what = if self.make.is_window() { "window, its top corners" } else { "top corners" };
        let only = if wall.piece.is_some() { format!(", {}", wall.side.on()) } else { String::new() };
        let name = format!("{}, {what}{only}", on.name);
        let left = match self.place {
            _ if self.full_width() => {
                let level = format!("{}, its top edge{only}", on.name);
                let edge = wall.mark(level, At::EachSide(Length::ZERO), down);
                let (distance, from) = edge.and.unwrap_or((down, From::TopEdge));
                let mut marks = vec![Mark { distance, from, and: None, ..edge }];
                marks.extend(self.dividers_on(wall, (wall.width - sits) / 2, down, on));
                return marks;
            }
            _ if wall.across_a_seam => {
                // The face is half on each panel; its middle is the side seam.
                let seam = wall.sides.map_or(Length::ZERO, |(seam, _)| seam);
                let half = wall.mark(name, At::Middle, down);
                let edge = Mark { distance: seam + sits / 2, from: From::SideEdges, ..half };
                return vec![edge];
            }
            PocketPlace::FromLeft => self.from_left,
            _ => (wall.width - sits) / 2,
        };
        let at = if self.place == PocketPlace::FromLeft {
            At::FromLeft { in_by: left, wide: sits }
        } else {
            At::EachSide(left)
        };
        let mut marks = vec![wall.mark(name, at, down)];
        marks.extend(self.dividers_on(wall, left, down, on));
        marks
    }

    fn dividers_on(&self, wall: &Wall, left: Length, down: Length, on: &Ground<'_>) -> Vec<Mark> {
        let mut at = left;
        let last = self.divisions.len().saturating_sub(1);
        let divider = |(n, width): (usize, &Length)| {
            at = at + *width;
            let name = format!("{}, divider {}", on.name, n + 1);
            wall.mark(name, At::FromLeft { in_by: at, wide: Length::ZERO }, down)
        };
        self.divisions.iter().enumerate().take(last).map(divider).collect()
    }

    fn flap_pieces(&self, wall: &Wall, on: &Ground<'_>) -> Vec<Piece> {
        if !self.flap {
            return vec![];
        }
        let wide = on.sum(vec![
            on.once("as wide as the pocket", self.sits(wall), "width"),
            on.times("seams", 2, self.turn, "turn"),
        ]);
        let deep = on.sum(vec![
            on.once("hangs down", self.flap_depth, "flap_depth"),
            on.times("seams, top and edge", 2, self.turn, "turn"),
        ]);
        let name = format!("{}, flap", on.name);
        vec![
            Piece::new(on.id("flap"), name.clone(), self.cloth.part(), wide.clone(), deep.clone()),
            Piece::new(on.id("flap-lining"), format!("{name} lining"), self.inner.part(), wide, deep),
        ]
    }

    fn backing(&self, wall: &Wall, on: &Ground<'_>) -> Option<Piece> {
        let part = self.behind.part().filter(|_| !self.make.is_window())?;
        let wide = on.sum(vec![on.once("wide, finished", self.sits(wall) + self.fullness(), "width")]);
        let tall = on.sum(vec![on.once("tall, finished", self.height, "height")]);
        let name = format!("{}, {}", on.name, self.behind.word());
        let piece = Piece::new(on.id(self.behind.word()), name, part, wide, tall)
            .lying(Grain::Any)
            .noted("clear of every seam and turn");
        Some(Piece { backs: Some(on.id("pocket").into()), ..piece })
    }

    fn fits(&self, wall: &Wall, on: &Ground<'_>, problems: &mut Problems) {
        let sits = self.sits(wall);
        let width = problems.show(wall.width);
        if !self.full_width() && sits > wall.width {
            let text = format!("{} is {} wide: the face {} is {width}.", on.name, problems.show(sits), wall.side.on());
            problems.refuse("width", sits, text);
        }
        if self.place == PocketPlace::FromLeft && self.from_left + sits > wall.width {
            let text = format!(
                "{} from the left and {} wide, {} runs over the edge of the face, which is {width}.",
                problems.show(self.from_left),
                problems.show(sits),
                on.name
            );
            problems.refuse("from_left", self.from_left, text);
        }
        let tall = self.height + if self.make.is_window() { self.opening } else { Length::ZERO };
        if self.down(wall) + tall > wall.height || self.down(wall) < Length::ZERO {
            let text = format!(
                "{} below the mouth and {} tall, {} runs over the face, which is {}.",
                problems.show(self.down(wall).max(Length::ZERO)),
                problems.show(self.height),
                on.name,
                problems.show(wall.height)
            );
            problems.refuse("height", self.height, text);
        } else if wall.top + self.down(wall) < Length::ZERO {
            let text = format!(
                "{} is {} below the mouth: there a band, a facing or another piece lies; at least {} is needed.",
                on.name,
                problems.show(self.down(wall)),
                problems.show(-wall.top)
            );
            problems.refuse("below", self.below, text);
        }
    }

    fn divided_well(&self, sits: Length, problems: &mut Problems) {
        let sum: Length = self.divisions.iter().copied().sum();
        if !self.divisions.is_empty() && sum != sits {
            let text = format!(
                "The divisions come to {}, the pocket sits {} wide: they must be the same.",
                problems.show(sum),
                problems.show(sits)
            );
            problems.refuse("divisions", sum, text);
        }
        if self.fuller.is_empty() {
            return;
        }
        let cut: Length = self.fuller.iter().copied().sum();
        if self.fuller.len() != self.divisions.len() {
            let text = format!(
                "{} come to {}, but there are {} divisions: say one for each, or none.",
                self.fuller.len(),
                problems.show(cut),
                self.divisions.len()
            );
            problems.refuse("fuller", cut, text);
        } else if let Some((q, p)) = self.fuller.iter().zip(&self.divisions).find(|(q, p)| q < p) {
            let text = format!(
                "A division that sits {} wide cannot be cut {}: it is as wide or wider.",
                problems.show(*p),
                problems.show(*q)
            );
            problems.refuse("fuller", *q, text);
        }
    }

    fn steps(&self, wall: &Wall, on: &Ground<'_>) -> String {
        let (name, place) = (on.name, the_wall(wall.side));
        match self.make {
            PocketMake::Zip => format!(
                "{name}: sew its facing round the window on {place}, slit, turn through, stitch the zip under it, then the bag, its end on its beginning."
            ),
            PocketMake::Welt => format!(
                "{name}: sew the welt and the bag at the window on {place}, slit, turn through, tack the ends, close the bag."
            ),
            PocketMake::Sleeve => format!(
                "{name}: after that side seam is sewn, hem its top and foot, turn its sides under and stitch them each side of the seam; its foot stays open."
            ),
            _ => {
                let edges = match (self.full_width(), self.into_base()) {
                    (true, true) => "its sides and foot are caught in the bag’s seams",
                    (true, false) => "its foot is stitched, its sides are caught in the side seams",
                    (false, true) => "its sides are stitched, its foot is caught in the base seam",
                    (false, false) => "stitch its sides and foot",
                };
                format!("{name}: make it and lay it on {place} before the sides are joined; {edges}.")
            }
        }
    }
}

/// `the front`, `the lining of the back`.
fn the_wall(side: Side) -> String {
    match side {
        Side::InsideFront => "the lining of the front".to_owned(),
        Side::InsideBack => "the lining of the back".to_owned(),
        _ => format!("the {}", side.answer().name.to_lowercase()),
    }
}

fn inch(ruler: Ruler) -> Length {
    default_length(ruler.system(), 8, 25)
}

impl PartOn for AddedPocket {
    fn default_for(system: System) -> Self {
        let size = |eighths, tenths| default_length(system, eighths, tenths);
        Self {
            name: String::new(),
            wall: Side::Front,
            make: PocketMake::Doubled,
            place: PocketPlace::Middle,
            from_left: size(8, 25),
            below: size(24, 75),
            foot: PocketFoot::Stitched,
            width: size(48, 150),
            height: size(40, 130),
            turn: size(3, 10),
            hem: size(8, 25),
            opening: size(3, 10),
            binding: size(3, 10),
            round: size(24, 75),
            ease: size(4, 15),
            divisions: vec![],
            fuller: vec![],
            cloth: ClothOf::Pocket,
            inner: ClothOf::Lining,
            behind: Behind::None,
            flap: false,
            flap_depth: size(16, 50),
        }
    }

    fn fields(&mut self) -> Vec<Field<'_>> {
        let (make, reaches) = (self.make, self.make.may_reach());
        let (window, sleeve) = (make.is_window(), make == PocketMake::Sleeve);
        let (full, base, from_left) = (self.full_width(), self.into_base(), self.place == PocketPlace::FromLeft);
        let divided = !self.divisions.is_empty();
        let two = make.has_inner() || window || self.flap;
        let flap = self.flap;
        let g = Group::Pocket;
        vec![
            Field::choice("make", "How it is made", g, &mut self.make),
            Field::choice("wall", "Where", g, &mut self.wall),
            Field::choice("place", "Where it sits", g, &mut self.place).only_if(!sleeve),
            Field::size("from_left", "From the left of the face", g, &mut self.from_left)
                .scaling()
                .only_if(from_left && !sleeve && (!full)),
            Field::size(
                "width",
                if window {
                    "The window, long"
                } else if sleeve {
                    "Wall it stands on"
                } else {
                    "Wide, finished"
                },
                g,
                &mut self.width,
            )
            .scaling()
            .only_if(!full),
            Field::size(
                "height",
                if window { "The bag, below the window" } else { "Tall, finished" },
                g,
                &mut self.height,
            )
            .scaling(),
            Field::choice("foot", "Its foot", g, &mut self.foot).only_if(reaches),
            Field::size("below", "Below the mouth", g, &mut self.below).scaling().only_if(!base),
            Field::size("opening", "The window, tall", g, &mut self.opening).only_if(window),
            Field::size("hem", "Hem", g, &mut self.hem)
                .only_if(matches!(make, PocketMake::Hemmed | PocketMake::Sleeve)),
            Field::size("turn", "Edges turned or seamed", g, &mut self.turn),
            Field::size("binding", "Binding, finished", g, &mut self.binding).only_if(make == PocketMake::Bound),
            Field::size("round", "What stands in it, across", g, &mut self.round).only_if(sleeve),
            Field::size("ease", "Ease", g, &mut self.ease).only_if(sleeve),
            Field::lengths("divisions", "Divided, each as wide as it sits", g, &mut self.divisions)
                .scaling()
                .only_if(reaches),
            Field::lengths("fuller", "And each as wide as it is cut, if fuller", g, &mut self.fuller)
                .scaling()
                .only_if(reaches && divided),
            Field::choice("cloth", "Its cloth", g, &mut self.cloth),
            Field::choice("inner", "Lined or faced with", g, &mut self.inner).only_if(two),
            Field::choice("behind", "Behind it", g, &mut self.behind).only_if(!window),
            Field::toggle("flap", "A flap over it", g, &mut self.flap).only_if(!sleeve),
            Field::size("flap_depth", "The flap hangs down", g, &mut self.flap_depth)
                .scaling()
                .only_if(flap && !sleeve),
            Field::text("name", "What you call it", g, &mut self.name),
        ]
    }

    fn own_name(&self) -> &str {
        &self.name
    }

    fn usual_name(&self) -> String {
        let what = match self.make {
            PocketMake::Zip => "zip pocket",
            PocketMake::Welt => "welt pocket",
            PocketMake::Sleeve => "bottle sleeve",
            _ if !self.divisions.is_empty() => "divided pocket",
            _ => "pocket",
        };
        format!("{} {what}", self.wall.before())
    }

    fn summary(&self, ruler: Ruler) -> String {
        let show = |l: Length| ruler.show(l).text;
        let made = self.make.answer().name.to_lowercase();
        let size = if self.full_width() {
            format!("right across × {}", show(self.height))
        } else {
            format!("{} × {}", show(self.width), show(self.height))
        };
        format!("{made}, {size}")
    }

    fn sides(&self) -> Vec<Side> {
        vec![self.wall]
    }

    fn suit(&mut self, walls: &[Wall]) {
        let Some(wall) = walls.iter().find(|w| w.side == self.wall) else {
            self.wall = walls.first().map_or(self.wall, |w| w.side);
            return;
        };
        if wall.across_a_seam {
            self.make = PocketMake::Sleeve;
            self.width = self.width.min(wall.width);
        }
    }

    /// A sleeve stands over a side seam, everything else on one panel.
    fn update_dependents(&mut self, key: &str, _: System) {
        let at_a_side = matches!(self.wall, Side::Left | Side::Right);
        match key {
            "make" if self.make == PocketMake::Sleeve => {
                // Half of what stands in it is before the wall, half behind.
                let most = round::circumference(self.round) / 2;
                (self.width, self.wall) = (self.width.min(most), if at_a_side { self.wall } else { Side::Left });
            }
            "divisions" if self.divisions.is_empty() => self.fuller.clear(),
            _ => {}
        }
    }

    fn problems(&self, on: &Ground<'_>, problems: &mut Problems) {
        if !refuse_beyond(self.clone().fields(), problems) {
            return;
        }
        let Some(wall) = on.wall(self.wall) else { return };
        problems.size("width", "width", self.width);
        problems.size("height", "height", self.height);
        problems.seam("turn", "turn", self.turn, self.height, "the pocket’s height");
        let show = |l: Length, problems: &Problems| problems.show(l);
        if wall.across_a_seam != (self.make == PocketMake::Sleeve)
            && (wall.across_a_seam || self.make == PocketMake::Sleeve && wall.sides.is_none())
        {
            let value = show(self.width, problems);
            let text = if wall.across_a_seam {
                format!(
                    "{}, {value} wide: a seam runs up the middle of this wall, so only a bottle sleeve is sewn on it.",
                    on.name
                )
            } else {
                format!("{}, {value} wide: a bottle sleeve stands at a side.", on.name)
            };
            problems.refuse("make", self.width, text);
            return;
        }
        if self.full_width() && wall.sides.is_none() {
            let text = format!(
                "{}, {} tall: no side seam is there to catch it; give it a width.",
                on.name,
                show(self.height, problems)
            );
            problems.refuse("place", self.height, text);
            return;
        }
        if self.into_base() && wall.below.is_none() {
            let text = format!(
                "{}, {} tall: no base seam is there to catch it; stitch it on the wall.",
                on.name,
                show(self.height, problems)
            );
            problems.refuse("foot", self.height, text);
            return;
        }
        self.fits(wall, on, problems);
        match self.make {
            PocketMake::Hemmed | PocketMake::Sleeve => {
                problems.seam("hem", "hem", self.hem, self.height, "the pocket’s height")
            }
            PocketMake::Bound => {
                problems.seam("binding", "binding", self.binding, self.height / 2, "half the pocket’s height")
            }
            PocketMake::Zip | PocketMake::Welt => {
                problems.between("opening", "window", self.opening, Length::MILLIMETRE * 3, Length::INCH * 4);
            }
            _ => {}
        }
        if self.make == PocketMake::Sleeve {
            let fuller = self.sleeve();
            if fuller < self.width {
                let text = format!(
                    "What stands in it is {} across: round it and the ease give {} of sleeve, less than the {} of wall.",
                    show(self.round, problems),
                    show(fuller, problems),
                    show(self.width, problems)
                );
                problems.refuse("round", self.round, text);
            }
        }
        if self.make.may_reach() {
            self.divided_well(self.sits(wall), problems);
        }
        if self.flap && self.make != PocketMake::Sleeve {
            problems.between("flap_depth", "flap", self.flap_depth, Length::CENTIMETRE, self.height);
        }
    }

    fn onto(&self, on: &Ground<'_>, draft: &mut Draft) {
        let Some(wall) = on.wall(self.wall) else { return };
        let pieces = if self.make.is_window() { self.window(wall, on) } else { self.laid_on(wall, on) };
        draft.pieces.extend(pieces);
        if self.make != PocketMake::Sleeve {
            draft.pieces.extend(self.flap_pieces(wall, on));
        }
        draft.pieces.extend(self.backing(wall, on));
        for mark in self.wall_marks(wall, on) {
            on.put_mark(draft, wall, mark);
        }
        if self.make == PocketMake::Zip {
            let zip = zip("Zip, for a pocket", self.width, "as long as its window", on.ruler);
            draft.hardware.push(Hardware { name: format!("Zip, {}", on.name.to_lowercase()).into(), ..zip });
        }
        let at = if self.make == PocketMake::Sleeve { draft.steps.len() } else { 0 };
        draft.steps.insert(at, self.steps(wall, on));
        if self.make.is_window() {
            let text = format!(
                "{}: stay the wall behind the window with a scrap of backing 1 in (2.5 cm) larger all round before it is slit.",
                on.name
            );
            draft.notices.push(on.note("make", text));
        }
    }

    fn seen(&self, on: &Ground<'_>) -> Vec<Seen> {
        let Some(wall) = on.wall(self.wall) else { return vec![] };
        let (width, down) = (self.sits(wall), self.down(wall));
        let left = match self.place {
            PocketPlace::FromLeft if !self.full_width() && self.make != PocketMake::Sleeve => self.from_left,
            _ => (wall.width - width) / 2,
        };
        let dividers = self.divisions.iter().scan(Length::ZERO, |at, width| {
            *at = *at + *width;
            Some(*at)
        });
        let mut dividers: Vec<Length> = dividers.collect();
        dividers.pop();
        let (looks, height) = match self.make {
            PocketMake::Zip => (Looks::Zip { hangs: self.height }, self.opening),
            PocketMake::Welt => (Looks::Welt { cloth: self.inner.part(), hangs: self.height }, self.opening),
            _ => (Looks::Patch { cloth: self.cloth.part(), dividers }, self.height),
        };
        let moves = Moves {
            down: (!self.into_base()).then_some(("below", self.below)),
            across: (!self.full_width() && self.make != PocketMake::Sleeve).then_some(("from_left", left)),
            freely: Some(("place", "from-left")),
        };
        let pocket = Seen { side: self.wall, looks, left, down, width, height, moves };
        let mut seen = vec![pocket.clone()];
        if self.make == PocketMake::Bound {
            let binding = Looks::Patch { cloth: Part::Binding, dividers: vec![] };
            seen.push(Seen { looks: binding, height: self.binding, ..pocket.clone() });
        }
        if self.flap && self.make != PocketMake::Sleeve {
            let flap = Looks::Patch { cloth: self.cloth.part(), dividers: vec![] };
            seen.push(Seen { looks: flap, height: self.flap_depth, ..pocket });
        }
        seen
    }

    fn seams(&self, on: &Ground<'_>) -> Vec<Seam> {
        let Some(wall) = on.wall(self.wall) else { return vec![] };
        let side = wall.sides.filter(|_| self.full_width()).map_or(self.turn, |(seam, _)| seam);
        let mut seams = vec![];
        let stretch =
            |piece: &str, edge, seam, ends| Stretch { piece: on.id(piece).into(), edge, times: 1, seam, ends };
        if self.make.has_inner() {
            let seam = if self.make == PocketMake::Lined { self.turn } else { Length::ZERO };
            seams.push(Seam::new(
                format!("{}, to its lining", on.name),
                stretch("pocket", Edge::Top, seam, side * 2),
                stretch("lining", Edge::Top, seam, side * 2),
            ));
        }
        if let (true, Some(piece)) = (self.full_width(), wall.piece) {
            let panel = Stretch::new(piece, Edge::Across, Length::ZERO, side * 2);
            let across = format!("{}, across {}", on.name, the_wall(wall.side));
            seams.push(
                Seam::new(across, stretch("pocket", Edge::Across, Length::ZERO, side * 2), panel)
                    .easing(self.fullness()),
            );
        }
        if self.flap && self.make != PocketMake::Sleeve && !self.full_width() && !self.make.is_window() {
            let flap = stretch("flap", Edge::Top, self.turn, self.turn * 2);
            let pocket = stretch("pocket", Edge::Top, self.turn, self.turn * 2);
            seams.push(Seam::new(format!("{}, flap over its top", on.name), pocket, flap).easing(self.fullness()));
        }
        seams
    }
}

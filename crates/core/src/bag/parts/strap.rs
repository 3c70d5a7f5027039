//! Handles and straps on any bag: how long each is cut by how its ends go in. Common practice.
//!
//! With h what shows: in the mouth h and what the mouth takes; tucked h + 2 × depth; outside h + 2 × (lap + turn); from
//! the base up h + 2 × (height + half the depth + base seam); on rings h + 2 × what goes round a ring; with a slider the
//! longest it wears, round a ring and round the slider.

use super::cloth::{Behind, ClothOf};
use super::{Ground, PartOn, refuse_beyond, relabel};
use crate::bag::draft::{Draft, Hardware};
use crate::bag::field::{Choice, Field, Group, choice, within_a_sentence};
use crate::bag::order::Phase;
use crate::bag::problems::Problems;
use crate::bag::strap::{self, Strap, StrapMake};
use crate::bag::wall::{At, Ends, Looks, Moves, Seen, Side, Wall, Webbing};
use crate::measure::{Length, Ruler, System, default_length};
use crate::piece::{Grain, Part, Piece, Term};

choice! {
    /// Between what a strap runs.
    StrapWhere {
        /// One in front, one behind.
        FrontAndBack = "front-and-back", "One in front, one behind", "";
        /// From one side to the other.
        SideToSide = "side-to-side", "From side to side", "";
        /// On the front alone.
        Front = "front", "On the front", "";
        /// On the back alone.
        Back = "back", "On the back", "";
    }
}

choice! {
    /// How the ends go in.
    StrapEnd {
        /// Caught in the seam, hem or binding of the mouth.
        Mouth = "mouth", "Caught in the mouth", "";
        /// Inside the finished mouth, stitched down.
        Tucked = "tucked", "Tucked in and stitched", "inside a finished mouth, as deep as you say";
        /// Lapped over the outside.
        Outside = "outside", "Lapped over the outside", "the ends turned under and stitched in a box";
        /// Run from the base seam up.
        BaseUp = "base-up", "From the base seam up", "stitched up the body, free above";
        /// Round rings that hang on tabs.
        Rings = "rings", "Round rings on tabs", "";
        /// Hooks, a slider.
        Slider = "slider", "Hooked on, with a slider", "to be taken off and set longer or shorter";
    }
}

/// Handles or a strap by what shows of them.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct AddedStrap {
    name: String,
    runs: StrapWhere,
    count: u32,
    make: StrapMake,
    width: Length,
    shows: Length,
    end: StrapEnd,
    depth: Length,
    turn: Length,
    apart: Length,
    cloth: ClothOf,
    behind: Behind,
}

/// What goes round a ring, and round the bar of a slider: 2 in or 5 cm, 1½ in or 4 cm.
fn round_a_ring(ruler: Ruler) -> Length {
    default_length(ruler.system(), 16, 50)
}

fn round_a_slider(ruler: Ruler) -> Length {
    default_length(ruler.system(), 12, 40)
}

impl AddedStrap {
    /// How many in all.
    fn straps(&self) -> u32 {
        if self.runs == StrapWhere::FrontAndBack { 2 } else { self.count }
    }

    /// Both ends are on one face.
    fn on_a_face(&self) -> bool {
        self.runs != StrapWhere::SideToSide
    }

    fn has_rings(&self) -> bool {
        matches!(self.end, StrapEnd::Rings | StrapEnd::Slider)
    }

    fn length(&self, wall: &Wall, on: &Ground<'_>) -> Vec<Term> {
        let shows = on.once(if self.end == StrapEnd::Slider { "longest" } else { "showing" }, self.shows, "shows");
        let rest = match self.end {
            StrapEnd::Mouth => wall.caught.clone().unwrap_or_default(),
            StrapEnd::Tucked => vec![on.times("tucked in, both ends", 2, self.depth, "depth")],
            StrapEnd::Outside => vec![
                on.times("lapped over the outside, both ends", 2, self.depth, "depth"),
                on.times("turned under, both ends", 2, self.turn, "turn"),
            ],
            StrapEnd::BaseUp => {
                let twice = |t: &Term| Term { times: t.times * 2, ..t.clone() };
                let mut up = vec![Term::times("up the body, both ends", 2, wall.height, "height")];
                up.extend(wall.below.iter().flatten().map(twice));
                up
            }
            StrapEnd::Rings => vec![on.times("round the rings, both ends", 2, round_a_ring(on.ruler), "end")],
            StrapEnd::Slider => vec![
                on.times("round the hooks, both ends", 2, round_a_ring(on.ruler), "end"),
                on.once("round the slider", round_a_slider(on.ruler), "end"),
            ],
        };
        [vec![shows], rest].concat()
    }

    /// `count` strips of this strap's make and width.
    fn strips(&self, id: &'static str, count: u32, length: Vec<Term>, on: &Ground<'_>, draft: &mut Draft) {
        let keys = [("strap_width", "width"), ("strap_make", "make"), ("seam_side", "turn")];
        let strip = Strap { make: self.make, width: self.width, turn: self.turn };
        let name = if id == "tab" { format!("{}, ring tab", on.name) } else { on.name.to_owned() };
        let (pieces, goods) = strip.made(id, id, count, length, on.ruler);
        for piece in pieces {
            let named = if piece.id.ends_with("-inner") { format!("{name}, inner") } else { name.clone() };
            let own = on.id(&piece.id);
            let piece = on.relabelled(piece, &keys);
            draft.pieces.push(Piece { id: own.into(), name: named.into(), part: self.cloth.part(), ..piece });
        }
        for mut good in goods {
            relabel(&mut good.length, on.prefix, &keys);
            good.name = name.clone().into();
            draft.goods.push(good);
        }
    }

    /// Behind the strap: down the middle of one folded in four, behind one face of any other.
    fn backing(&self, wall: &Wall, on: &Ground<'_>) -> Option<Piece> {
        let part: Part = self.behind.part().filter(|_| self.make != StrapMake::Webbing)?;
        let faces = if self.make == StrapMake::FoldedInFour { 2 } else { 1 };
        let wide = on.sum(vec![on.times("the strap, finished", faces, self.width, "width")]);
        let name = format!("{}, {}", on.name, self.behind.word());
        let piece = Piece::new(on.id(self.behind.word()), name, part, wide, on.sum(self.length(wall, on)))
            .times(self.straps())
            .lying(Grain::Any)
            .noted("down the middle of the strip");
        Some(Piece { backs: Some(on.id("strap").into()), ..piece })
    }

    fn walls_of(&self) -> Vec<Side> {
        match self.runs {
            StrapWhere::FrontAndBack => vec![Side::Front, Side::Back],
            StrapWhere::SideToSide | StrapWhere::Front => vec![Side::Front],
            StrapWhere::Back => vec![Side::Back],
        }
    }

    /// Drop and width of a handle that spans `mouth` from side to side; an adjustable strap hangs as it is set.
    pub(super) fn over(&self, mouth: Length) -> Option<(Length, Length)> {
        let spans = self.runs == StrapWhere::SideToSide && self.end != StrapEnd::Slider;
        spans.then(|| strap::drop(self.shows, mouth)).flatten().map(|drop| (drop, self.width))
    }

    /// The walls it runs over from the base up.
    pub(super) fn webbing(&self) -> Vec<(Side, Webbing)> {
        let up = self.end == StrapEnd::BaseUp && self.on_a_face();
        let sides = if up { self.walls_of() } else { vec![] };
        sides.into_iter().map(|side| (side, Webbing { apart: self.apart, wide: self.width })).collect()
    }

    /// When its ends are fastened.
    fn phase(&self) -> Phase {
        match self.end {
            // Over the side seams, which are sewn by then.
            StrapEnd::Mouth if !self.on_a_face() => Phase::Outer,
            StrapEnd::Mouth | StrapEnd::Outside | StrapEnd::BaseUp => Phase::Flat,
            StrapEnd::Rings => Phase::Small,
            StrapEnd::Tucked | StrapEnd::Slider => Phase::Last,
        }
    }

    fn step(&self, on: &Ground<'_>) -> String {
        let name = on.name;
        match self.end {
            StrapEnd::Mouth if !self.on_a_face() => {
                format!("{name}: tack the ends over the side seams; they are caught when the mouth is sewn.")
            }
            StrapEnd::Mouth => format!("{name}: tack the ends at their marks; they are caught when the mouth is sewn."),
            StrapEnd::Tucked => {
                format!("{name}: tuck the ends {} into the finished mouth and stitch them down.", on.show(self.depth))
            }
            StrapEnd::Outside => format!(
                "{name}: turn the ends under, lap them {} over the outside and stitch a box, before the lining goes in.",
                on.show(self.depth)
            ),
            StrapEnd::BaseUp => format!(
                "{name}: lay it on the panels from base edge to base edge and stitch both its edges, up to 2 in (5 cm) below the top raw edge, before any seam."
            ),
            StrapEnd::Rings => {
                format!("{name}: fold each tab round its ring and tack it; fold the ends round the rings and stitch.")
            }
            StrapEnd::Slider => format!(
                "{name}: one end round the slider’s bar; the other through a hook, the slider and a second hook, then stitched; the tabs hold the rings it is hooked on."
            ),
        }
    }
}

impl PartOn for AddedStrap {
    fn default_for(system: System) -> Self {
        let size = |eighths, tenths| default_length(system, eighths, tenths);
        Self {
            name: String::new(),
            runs: StrapWhere::FrontAndBack,
            count: 1,
            make: StrapMake::FoldedInFour,
            width: size(8, 25),
            shows: size(24 * 8, 600),
            end: StrapEnd::Mouth,
            depth: size(12, 40),
            turn: size(4, 10),
            apart: size(48, 150),
            cloth: ClothOf::Straps,
            behind: Behind::None,
        }
    }

    fn fields(&mut self) -> Vec<Field<'_>> {
        let (face, two) = (self.on_a_face(), self.runs == StrapWhere::FrontAndBack);
        let deep = matches!(self.end, StrapEnd::Tucked | StrapEnd::Outside);
        let turned =
            self.end == StrapEnd::Outside || !matches!(self.make, StrapMake::FoldedInFour | StrapMake::Webbing);
        let cut = self.make != StrapMake::Webbing;
        let (slider, tucked) = (self.end == StrapEnd::Slider, self.end == StrapEnd::Tucked);
        let g = Group::Straps;
        vec![
            Field::choice("runs", "Where", g, &mut self.runs),
            Field::choice("end", "Its ends", g, &mut self.end),
            Field::choice("make", "How it is made", g, &mut self.make),
            Field::count("count", "How many", g, &mut self.count, 1..=8).only_if(!two),
            Field::size("width", "Finished width", g, &mut self.width),
            Field::size("shows", if slider { "Longest it wears" } else { "How much shows" }, g, &mut self.shows),
            Field::size("apart", "Between the middles of its ends", g, &mut self.apart).scaling().only_if(face),
            Field::size("depth", if tucked { "Tucked in" } else { "Lapped over" }, g, &mut self.depth).only_if(deep),
            Field::size("turn", "Edges turned in", g, &mut self.turn).only_if(turned),
            Field::choice("cloth", "Its cloth", g, &mut self.cloth).only_if(cut),
            Field::choice("behind", "Behind it", g, &mut self.behind).only_if(cut),
            Field::text("name", "What you call it", g, &mut self.name),
        ]
    }

    fn own_name(&self) -> &str {
        &self.name
    }

    fn usual_name(&self) -> String {
        match (self.runs, self.end) {
            (_, StrapEnd::Slider) => "Adjustable strap",
            (StrapWhere::SideToSide, _) if self.count == 1 => "Strap from side to side",
            (StrapWhere::SideToSide, _) => "Straps from side to side",
            (StrapWhere::FrontAndBack, _) => "Handles",
            (StrapWhere::Front, _) => "Front handle",
            (StrapWhere::Back, _) => "Back handle",
        }
        .to_owned()
    }

    fn summary(&self, ruler: Ruler) -> String {
        let show = |l: Length| ruler.show(l).text;
        format!("{}, {} wide, {} showing", self.end.answer().name.to_lowercase(), show(self.width), show(self.shows))
    }

    fn sides(&self) -> Vec<Side> {
        self.walls_of()
    }

    fn suit(&mut self, walls: &[Wall]) {
        let at = |side| walls.iter().find(|w| w.side == side);
        if at(Side::Back).is_none() {
            self.runs = StrapWhere::Front;
        }
        if at(Side::Front).is_some_and(|w| w.caught.is_none()) {
            self.end = StrapEnd::Outside;
        }
    }

    fn problems(&self, on: &Ground<'_>, problems: &mut Problems) {
        if !refuse_beyond(self.clone().fields(), problems) {
            return;
        }
        let Some(wall) = self.walls_of().first().and_then(|side| on.wall(*side)) else { return };
        problems.between("width", "strap", self.width, Length::MILLIMETRE * 5, wall.width / 2);
        problems.between("shows", "strap", self.shows, Length::CENTIMETRE * 5, Length::METRE * 5);
        let tall = wall.height;
        if self.end == StrapEnd::Tucked || self.end == StrapEnd::Outside {
            problems.between("depth", "strap’s end", self.depth, Length::MILLIMETRE * 5, tall);
        }
        if self.end == StrapEnd::Outside || !matches!(self.make, StrapMake::FoldedInFour | StrapMake::Webbing) {
            problems.seam("turn", "turn", self.turn, self.width * 2, "twice the strap’s width");
        }
        let refused = match self.end {
            StrapEnd::Mouth if wall.caught.is_none() => {
                Some("no open mouth is there to catch its ends: lap them over the outside, or hang it on rings")
            }
            StrapEnd::Tucked if wall.caught.is_none() => {
                Some("no open mouth is there to tuck its ends into: lap them over the outside, or hang it on rings")
            }
            StrapEnd::BaseUp if wall.below.is_none() => Some("no base seam is there for it to start from"),
            StrapEnd::BaseUp if !self.on_a_face() => Some("from the base up it runs over the front or the back"),
            _ => None,
        };
        if let Some(why) = refused {
            let text = format!("{}, {} showing: {why}.", on.name, problems.show(self.shows));
            problems.refuse("end", self.shows, text);
        }
        if self.on_a_face() {
            let most = wall.width - self.width;
            problems.between("apart", "distance between its ends", self.apart, self.width, most);
            if strap::drop(self.shows, self.apart).is_none() {
                let text = format!(
                    "{} of strap showing does not span the {} between its ends: make it longer.",
                    problems.show(self.shows),
                    problems.show(self.apart)
                );
                problems.refuse("shows", self.shows, text);
            }
        }
    }

    fn seen(&self, on: &Ground<'_>) -> Vec<Seen> {
        let handle = |side| {
            let wall = on.wall(side)?;
            let drop = strap::drop(self.shows, self.apart)?;
            let cloth = (self.make != StrapMake::Webbing).then_some(self.cloth.part());
            let height = match self.end {
                StrapEnd::Outside => self.depth,
                StrapEnd::BaseUp => wall.height,
                StrapEnd::Rings | StrapEnd::Slider => self.width,
                StrapEnd::Mouth | StrapEnd::Tucked => Length::ZERO,
            };
            let left = (wall.width - self.apart - self.width) / 2;
            let ends = Ends { field: "apart", is: self.apart, outward: 2 };
            Some(Seen {
                side,
                looks: Looks::Handle { cloth, wide: self.width, drop },
                left,
                down: Length::ZERO,
                width: self.apart + self.width,
                height,
                moves: Moves { ends: Some(ends), ..Moves::default() },
            })
        };
        // What runs from side to side is not on a face.
        if self.on_a_face() { self.walls_of().into_iter().filter_map(handle).collect() } else { vec![] }
    }

    fn onto(&self, on: &Ground<'_>, draft: &mut Draft) {
        let walls: Vec<&Wall> = self.walls_of().into_iter().filter_map(|side| on.wall(side)).collect();
        let Some(wall) = walls.first() else { return };
        self.strips("strap", self.straps(), self.length(wall, on), on, draft);
        draft.pieces.extend(self.backing(wall, on));
        if self.has_rings() {
            let (rings, ring) = (self.straps() * 2, round_a_ring(on.ruler));
            self.strips("tab", rings, vec![on.times("round the ring, and caught", 2, ring, "end")], on, draft);
            let mut buy = |name: &'static str, count, note: &'static str| {
                let note = format!("{}, {note}", on.name.to_lowercase());
                draft.hardware.push(Hardware { name: name.into(), count, size: Some(self.width), note: note.into() });
            };
            buy("D-ring", rings, "inside width");
            if self.end == StrapEnd::Slider {
                buy("Swivel hook", rings, "inside width");
                buy("Slider", self.straps(), "inside width");
            }
        }
        if self.on_a_face() {
            for wall in &walls {
                let down =
                    if matches!(self.end, StrapEnd::Tucked | StrapEnd::Outside) { self.depth } else { Length::ZERO };
                let what = match self.end {
                    StrapEnd::BaseUp => "middle line, all the way up",
                    StrapEnd::Tucked | StrapEnd::Outside => "lower ends, their middles",
                    _ => "middles of its ends",
                };
                let name = format!("{}, {what}, {}", on.name, wall.side.on());
                on.put_mark(draft, wall, wall.mark(name, At::OfMiddle(self.apart / 2), down.max(-wall.top)));
            }
            if let Some(drop) = strap::drop(self.shows, self.apart) {
                let (wrong, text) = strap::about_drop(drop, &|l| on.show(l), on.ruler);
                let text = format!("{}: {}", on.name, within_a_sentence(&text));
                draft.notices.push(if wrong { on.attention("shows", text) } else { on.note("shows", text) });
            }
        }
        let strip = Strap { make: self.make, width: self.width, turn: self.turn };
        let under = match self.end {
            StrapEnd::Mouth | StrapEnd::Tucked => wall.mouth_layers.clone(),
            StrapEnd::Outside => vec![(Part::Straps, strip.layers()), (Part::Outer, 1)],
            _ => vec![],
        };
        if !under.is_empty() {
            let place = format!("the ends of {} are sewn down", on.name.to_lowercase());
            let mut stack = strip.on(place, format!("{}.make", on.prefix), under);
            // Its cloth may be another than the straps'.
            stack
                .layers
                .iter_mut()
                .filter(|(part, _)| *part == Part::Straps)
                .for_each(|(part, _)| *part = self.cloth.part());
            draft.stacks.push(stack);
        }
        if self.end == StrapEnd::Slider {
            let shortest = on.show((self.shows / 2 + self.width * 2).round_to(on.ruler.step()));
            let text = format!("{} wears from about {shortest} to {}.", on.name, on.show(self.shows));
            draft.notices.push(on.note("shows", text));
        }
        draft.add_step(on.step(self.phase(), self.step(on)));
    }
}

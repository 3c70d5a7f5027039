//! A pocket on any wall: hemmed, doubled, lined, bound, behind a zip or a welt, or a sleeve over a side seam. Common
//! practice.
//!
//! Signs: w × k finished, a turned edge or small seam, g opening of a window, D depth, b base seam. Hemmed (w + 2a) ×
//! (k + a + hem). Doubled (w + 2a) × 2(k + a). Lined both (w + 2a) × (k + 2a). Bound both (w + 2a) × (k + a), nothing at
//! the top. Window: strip (w + 1) × (g + 1) in, bag (w + 2) × 2(k + g + 1) in, folded. Welt: strip (w + 2) × 2(g + a).
//! Sleeve for a thing d round on p of wall: πd + ease − p across. Into the base seam the foot takes D/2 + b instead of a;
//! full width the sides lie in the bag's side seams.

mod pieces;
mod place;

use super::cloth::{Behind, ClothOf};
use super::{Ground, PartOn, refuse_beyond};
use crate::bag::draft::{Draft, Hardware};
use crate::bag::field::{Choice, Field, Group, choice};
use crate::bag::order::Phase;
use crate::bag::problems::Problems;
use crate::bag::round;
use crate::bag::sewn::{Edge, Seam, Stretch};
use crate::bag::wall::{Looks, Moves, Seen, Side, Wall};
use crate::bag::zip::zip;
use crate::measure::{Length, Ruler, System, default_length};
use crate::piece::Part;

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
        /// Its raw sides under two straps from the base up.
        Webbing = "webbing", "Behind webbing", "its sides lie under two straps that run up from the base";
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

/// `divisions` brought to `width` together, each in its proportion, on lines of the ruler; the last takes the rest.
fn spread(divisions: &[Length], width: Length, system: System) -> Vec<Length> {
    let sum: i128 = divisions.iter().map(|d| i128::from(d.0)).sum();
    if sum <= 0 {
        return divisions.to_vec();
    }
    let step = Ruler::default_for(system).step();
    let share = |d: &Length| Length((i128::from(d.0) * i128::from(width.0) / sum) as i64).round_to(step).max(step);
    let mut spread: Vec<Length> = divisions.iter().map(share).collect();
    let more = width - spread.iter().copied().sum::<Length>();
    if let Some(last) = spread.last_mut() {
        *last += more;
    }
    spread
}

impl AddedPocket {
    fn full_width(&self) -> bool {
        self.place == PocketPlace::FullWidth && self.make.may_reach()
    }

    /// Its sides lie under straps.
    fn behind_webbing(&self) -> bool {
        self.place == PocketPlace::Webbing && self.make.may_reach()
    }

    /// What of its width lies under the webbing, half a strap at each side.
    fn under_webbing(&self, wall: &Wall) -> Length {
        wall.webbing.filter(|_| self.behind_webbing()).map_or(Length::ZERO, |w| w.wide)
    }

    /// Its width follows from the wall.
    fn spans(&self) -> bool {
        self.full_width() || self.behind_webbing()
    }

    fn reaches_base(&self) -> bool {
        self.foot == PocketFoot::BaseSeam && self.make.may_reach()
    }

    /// The last division takes what the pocket is wider or narrower than all of them; where nothing would be left of it,
    /// all of them are scaled in proportion. Each keeps its fullness.
    fn settle_divisions(&mut self, system: System) {
        let sum: Length = self.divisions.iter().copied().sum();
        let more = self.width - sum;
        let Some(last) = self.divisions.last().copied() else { return };
        let before = self.divisions.clone();
        if last + more <= Length::ZERO && sum > Length::ZERO && self.width > Length::ZERO {
            self.divisions = spread(&before, self.width, system);
        } else if let Some(last) = self.divisions.last_mut() {
            *last += more;
        }
        for ((fuller, was), is) in self.fuller.iter_mut().zip(before).zip(&self.divisions) {
            *fuller += *is - was;
        }
    }

    /// What each division is cut wide: where there are more of them now, or one is wider, as wide as it sits.
    fn settle_fullness(&mut self) {
        if !self.fuller.is_empty() {
            let cut = self.divisions.iter().enumerate();
            self.fuller = cut.map(|(n, sits)| self.fuller.get(n).map_or(*sits, |cut| *cut.max(sits))).collect();
        }
    }

    /// How wide it sits on `wall`, finished.
    fn sits(&self, wall: &Wall) -> Length {
        match (self.place, self.make.may_reach()) {
            (PocketPlace::FullWidth, true) => wall.across().unwrap_or(wall.width),
            (PocketPlace::Webbing, true) => wall.webbing.map_or(self.width, |w| w.apart),
            _ => self.width,
        }
    }

    /// From the mouth down to its top edge.
    fn down(&self, wall: &Wall) -> Length {
        if self.reaches_base() { wall.height - self.height } else { self.below }
    }

    /// How wide a sleeve is cut without its turns: round what stands in it go the sleeve and the wall behind.
    fn sleeve(&self) -> Length {
        round::circumference(self.round) + self.ease - self.width
    }

    /// It stands so far from the left; a sleeve stands over its seam, whatever was chosen before.
    fn stands_from_left(&self) -> Option<Length> {
        (self.place == PocketPlace::FromLeft && self.make != PocketMake::Sleeve).then_some(self.from_left)
    }

    /// Its divisions as they sit; right across, the last takes what is left of `sits`, and where nothing is left all are
    /// spread in their proportion. A window and a sleeve have none.
    fn divided(&self, sits: Length) -> Vec<Length> {
        if !self.make.may_reach() {
            return vec![];
        }
        let mut all = self.divisions.clone();
        if self.spans()
            && let Some(last) = all.pop()
        {
            let rest = sits - all.iter().copied().sum::<Length>();
            all.push(last);
            if rest > Length::ZERO {
                all.pop();
                all.push(rest);
            } else {
                let inches = all.iter().all(|d| d.0 % Length::inches(1, 16).0 == 0);
                all = spread(&all, sits, if inches { System::Inches } else { System::Centimetres });
            }
        }
        all
    }

    /// How much wider than it sits on `wall` it is cut: unequal divisions, or what stands in a sleeve.
    fn fullness(&self, wall: &Wall) -> Length {
        let sum = |all: &[Length]| all.iter().copied().sum::<Length>();
        match self.make {
            PocketMake::Sleeve => self.sleeve() - self.width,
            _ if self.fuller.is_empty() => Length::ZERO,
            _ => sum(&self.fuller) - sum(&self.divided(self.sits(wall))),
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
            _ if self.behind_webbing() => {
                let foot = if self.reaches_base() { "its foot is caught in the base seam" } else { "stitch its foot" };
                format!(
                    "{name}: make it and lay it on {place}, its raw sides where the middles of the webbing come, and baste; {foot}; the webbing is stitched over its sides."
                )
            }
            _ => {
                let edges = match (self.full_width(), self.reaches_base()) {
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
        let (full, base, from_left) = (self.spans(), self.reaches_base(), self.place == PocketPlace::FromLeft);
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
        let size = if self.behind_webbing() {
            format!("behind webbing × {}", show(self.height))
        } else if self.full_width() {
            format!("right across × {}", show(self.height))
        } else {
            format!("{} × {}", show(self.width), show(self.height))
        };
        format!("{made}, {size}")
    }

    fn sides(&self) -> Vec<Side> {
        vec![self.wall]
    }

    fn place_is_gone(&self, on: &Ground<'_>) -> Option<&'static str> {
        let bare = on.wall(self.wall).is_some_and(|w| w.webbing.is_none());
        (self.behind_webbing() && bare).then_some(
            "no two straps run up this wall from the base. Put such a strap on it, or say where else it sits",
        )
    }

    fn scaled(&mut self, system: System) {
        if !self.spans() {
            self.settle_divisions(system);
        }
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
    fn update_dependents(&mut self, key: &str, system: System) {
        let at_a_side = matches!(self.wall, Side::Left | Side::Right);
        match key {
            // A window lies within its wall.
            "make" if self.make.is_window() && self.place != PocketPlace::FromLeft => self.place = PocketPlace::Middle,
            "make" if self.make == PocketMake::Sleeve => {
                // Half of what stands in it is before the wall, half behind.
                let most = round::circumference(self.round) / 2;
                (self.width, self.wall) = (self.width.min(most), if at_a_side { self.wall } else { Side::Left });
            }
            "divisions" if self.divisions.is_empty() => self.fuller.clear(),
            // The pocket is as wide as its divisions, or the last of them takes what it is wider or narrower.
            "divisions" => {
                self.settle_fullness();
                if !self.spans() {
                    self.width = self.divisions.iter().copied().sum();
                }
            }
            "width" => self.settle_divisions(system),
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
        let (sleeve, at_a_side) = (self.make == PocketMake::Sleeve, matches!(self.wall, Side::Left | Side::Right));
        if (wall.across_a_seam && !sleeve) || (sleeve && !at_a_side) {
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
        if self.make.is_window() && matches!(self.place, PocketPlace::FullWidth | PocketPlace::Webbing) {
            let text = format!(
                "{}, {} long: a window lies within its wall; give it a place there.",
                on.name,
                show(self.width, problems)
            );
            problems.refuse("place", self.width, text);
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
        if self.reaches_base() && wall.below.is_none() {
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
        let divided = self.divided(self.sits(wall));
        if self.make.may_reach() && divided != self.divisions {
            let last = divided.last().copied().unwrap_or_default();
            let but_last = |all: &[Length]| all.iter().rev().skip(1).copied().collect::<Vec<_>>();
            let text = if but_last(&divided) == but_last(&self.divisions) {
                format!("{}: the last division takes what is left, {}.", on.name, on.show(last))
            } else {
                let widths: Vec<String> = divided.iter().map(|d| on.show(*d)).collect();
                let all = widths.join(", ");
                format!("{}: the divisions are too wide together and are spread in proportion: {all}.", on.name)
            };
            draft.notices.push(on.note("divisions", text));
        }
        let phase = if self.make == PocketMake::Sleeve { Phase::Outer } else { Phase::Flat };
        draft.add_step(on.step(phase, self.steps(wall, on)));
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
        let left = self.stands_from_left().unwrap_or((wall.width - width) / 2);
        let divided = self.divided(width);
        let dividers = divided.iter().scan(Length::ZERO, |at, width| {
            *at += *width;
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
            down: (!self.reaches_base()).then_some(("below", self.below)),
            across: (!self.spans() && self.make != PocketMake::Sleeve).then_some(("from_left", left)),
            freely: Some(("place", "from-left")),
            ends: None,
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
        let stretch = |piece: &str, edge, seam, ends| Stretch {
            piece: on.id(piece).into(),
            edge,
            times: 1,
            seam,
            ends,
            then: None,
        };
        if self.make.has_inner() {
            let seam = if self.make == PocketMake::Lined { self.turn } else { Length::ZERO };
            seams.push(Seam::new(
                format!("{}, to its lining", on.name),
                on.prefix.to_owned(),
                stretch("pocket", Edge::Top, seam, side * 2),
                stretch("lining", Edge::Top, seam, side * 2),
            ));
        }
        if let (true, Some(piece)) = (self.full_width(), wall.piece) {
            let panel = Stretch::new(piece, Edge::Across, Length::ZERO, side * 2);
            let across = format!("{}, across {}", on.name, the_wall(wall.side));
            seams.push(
                Seam::new(across, on.prefix.to_owned(), stretch("pocket", Edge::Across, Length::ZERO, side * 2), panel)
                    .easing(self.fullness(wall)),
            );
        }
        if self.flap && self.make != PocketMake::Sleeve && !self.full_width() && !self.make.is_window() {
            let flap = stretch("flap", Edge::Top, self.turn, self.turn * 2);
            let raw = if self.behind_webbing() { Length::ZERO } else { self.turn * 2 };
            let pocket = stretch("pocket", Edge::Top, self.turn, raw);
            seams.push(
                Seam::new(format!("{}, flap over its top", on.name), on.prefix.to_owned(), pocket, flap)
                    .easing(self.fullness(wall) + self.under_webbing(wall)),
            );
        }
        seams
    }
}

//! Parts: what can be put on the walls of a bag of any family, each written once. Common practice.
//!
//! A part says its fields; sizes it cannot stand with are refused under `part-3.width`. When its wall goes, a part is
//! kept aside and said so. `pocket`, `strap`, `tab`, `zip_across`, `partition`, `decoration` and `own` are one part each.

mod cloth;
mod decoration;
mod own;
mod partition;
mod pocket;
mod strap;
mod tab;
mod zip_across;

pub use cloth::{Behind, ClothOf};
pub use decoration::{AddedDecoration, Moment, Technique};
pub use own::{AddedPiece, OwnShape};
pub use partition::AddedPartition;
pub use pocket::{AddedPocket, PocketFoot, PocketMake, PocketPlace};
pub use strap::{AddedStrap, StrapEnd, StrapWhere};
pub use tab::{AddedTab, TabKind};
pub use zip_across::AddedZip;

use super::draft::{Draft, Notice};
use super::field::{Choice, Field, Slot};
use super::kept::{put_all, values_of};
use super::order::{Phase, Step};
use super::problems::Problems;
use super::sewn::Seam;
use super::solid::Solid;
use super::wall::{Seen, Side, Wall, Webbing};
use crate::FieldProblem;
use crate::measure::{Length, Ruler, System};
use crate::piece::{Dimension, Mark, Piece, Term};
use serde::de::Error;
use serde::ser::SerializeMap;
use serde::{Deserialize, Deserializer, Serialize, Serializer};
use serde_json::{Map, Value};

/// More parts than this are not one bag.
pub const MOST_PARTS: usize = 60;

/// What every kind of part can tell.
pub(super) trait PartOn {
    /// A middling one.
    fn default_for(system: System) -> Self
    where
        Self: Sized;

    /// Its fields, in the order they are shown.
    fn fields(&mut self) -> Vec<Field<'_>>;

    /// What the maker calls it; empty for what it is called anyway.
    fn own_name(&self) -> &str;

    /// What it is called anyway: `Front pocket`.
    fn usual_name(&self) -> String;

    /// What stands, in a few words; lengths shown by `ruler`.
    fn summary(&self, ruler: Ruler) -> String;

    /// The walls it needs, all of them.
    fn sides(&self) -> Vec<Side>;

    /// Why it cannot be where it is, though its wall is there.
    fn place_is_gone(&self, _on: &Ground<'_>) -> Option<&'static str> {
        None
    }

    /// After all its sizes were scaled, each brought to a line of the ruler.
    fn scaled(&mut self, _: System) {}

    /// Brings a new part to what the bag has.
    fn suit(&mut self, _walls: &[Wall]) {}

    /// After a change of the field `key`.
    fn update_dependents(&mut self, _key: &str, _system: System) {}

    /// What cannot stand, by plain keys of its fields.
    fn problems(&self, on: &Ground<'_>, problems: &mut Problems);

    /// Adds its pieces, marks, goods, hardware and steps to `draft`.
    fn onto(&self, on: &Ground<'_>, draft: &mut Draft);

    /// What is seen of it on the walls.
    fn seen(&self, _on: &Ground<'_>) -> Vec<Seen> {
        vec![]
    }

    /// What is sewn to what within it.
    fn seams(&self, _on: &Ground<'_>) -> Vec<Seam> {
        vec![]
    }
}

/// What a part stands on while it is drafted.
pub(super) struct Ground<'a> {
    /// Its name.
    pub name: &'a str,
    /// Before the ids of its pieces and the keys of its fields: `part-3`.
    pub prefix: &'a str,
    /// The walls there are.
    pub walls: &'a [Wall],
    /// The ruler sizes are brought up to.
    pub ruler: Ruler,
}

impl Ground<'_> {
    /// The wall at `side`.
    pub fn wall(&self, side: Side) -> Option<&Wall> {
        self.walls.iter().find(|w| w.side == side)
    }

    /// `each` from its own field `key`, so many times.
    pub fn times(&self, name: &'static str, times: i64, each: Length, key: &str) -> Term {
        Term { name: name.into(), times, each, field: Some(format!("{}.{key}", self.prefix).into()) }
    }

    /// The same, once.
    pub fn once(&self, name: &'static str, each: Length, key: &str) -> Term {
        self.times(name, 1, each, key)
    }

    /// Its own step, at which its seams are sewn.
    pub fn step(&self, phase: Phase, text: String) -> Step {
        Step::new(phase, self.prefix.to_owned(), text)
    }

    /// The id of one of its pieces.
    pub fn id(&self, piece: &str) -> String {
        format!("{}-{piece}", self.prefix)
    }

    /// The sum of `terms`.
    pub fn sum(&self, terms: Vec<Term>) -> Dimension {
        Dimension::sum(terms, self.ruler)
    }

    /// What a shared block drafted, its reasons leading to this part's fields: block's key, own key.
    pub fn relabelled(&self, mut piece: Piece, keys: &[(&str, &str)]) -> Piece {
        relabel(&mut piece.width, self.prefix, keys);
        relabel(&mut piece.height, self.prefix, keys);
        piece
    }

    /// About its field `key`, likely a mistake.
    pub fn attention(&self, key: &str, text: String) -> Notice {
        Notice::attention(format!("{}.{key}", self.prefix), text)
    }

    /// About its field `key`, good to know.
    pub fn note(&self, key: &str, text: String) -> Notice {
        Notice::note(format!("{}.{key}", self.prefix), text)
    }

    /// `length` with its unit.
    pub fn show(&self, length: Length) -> String {
        Problems::new(self.ruler).show(length)
    }

    /// A wall with a seam up its middle has no face: what stands on one is refused by its field. Tells whether it was.
    pub fn refuse_across_a_seam(&self, wall: &Wall, field: &str, size: Length, problems: &mut Problems) -> bool {
        if wall.across_a_seam {
            let shown = problems.show(size);
            let text = format!(
                "{}, {shown}: a seam runs up the middle of this wall, so only a bottle sleeve is sewn on it.",
                self.name
            );
            problems.refuse(field, size, text);
        }
        wall.across_a_seam
    }

    /// Puts a mark on the piece of `wall`; on a tube that is there already it is told as a step.
    pub fn put_mark(&self, draft: &mut Draft, wall: &Wall, mark: Mark) {
        let piece = wall.panel().and_then(|id| draft.pieces.iter_mut().find(|p| p.id == id));
        match piece {
            Some(piece) => piece.marks.push(mark),
            None => {
                let text = format!("Mark {}.", mark.describe(self.ruler, (wall.width, wall.height)));
                let key = format!("{}-mark", self.prefix);
                let before = draft.steps.iter().filter(|s| s.key.starts_with(&key)).count();
                draft.add_step(Step::new(Phase::Flat, format!("{key}-{}", before + 1), text));
            }
        }
    }
}

/// Leads the reasons of `dimension` that come from a block's field to the part's own.
pub(super) fn relabel(dimension: &mut Dimension, prefix: &str, keys: &[(&str, &str)]) {
    for term in &mut dimension.terms {
        let own = keys.iter().find(|(block, _)| term.field.as_deref() == Some(*block));
        if let Some((_, own)) = own {
            term.field = Some(format!("{prefix}.{own}").into());
        }
    }
}

macro_rules! kinds {
    ($($(#[$doc:meta])* $variant:ident($type:ty) = $key:literal, $name:literal, $about:literal;)+) => {
        /// A part by its kind.
        #[derive(Clone, Debug, PartialEq, Eq)]
        pub enum PartKind { $($(#[$doc])* $variant($type),)+ }

        impl PartKind {
            /// Key, name and what it is for of every kind, in the order they are offered.
            pub const CHOICES: &'static [(&'static str, &'static str, &'static str)] = &[$(($key, $name, $about),)+];

            /// The key it is kept by.
            pub const fn key(&self) -> &'static str {
                match self { $(Self::$variant(_) => $key,)+ }
            }

            /// A middling part of the kind with `key`.
            pub fn default_for(key: &str, system: System) -> Option<Self> {
                match key {
                    $($key => Some(Self::$variant(PartOn::default_for(system))),)+
                    _ => None,
                }
            }

            fn part(&self) -> &dyn PartOn {
                match self { $(Self::$variant(part) => part,)+ }
            }

            fn part_mut(&mut self) -> &mut dyn PartOn {
                match self { $(Self::$variant(part) => part,)+ }
            }
        }
    };
}

kinds! {
    /// A pocket.
    Pocket(AddedPocket) = "pocket", "Pocket", "laid on, lined, bound, zipped, welted or divided, on any wall";
    /// Handles and straps.
    Strap(AddedStrap) = "strap", "Strap or handles", "in the mouth, stitched on, from the base up, on rings";
    /// Small parts.
    Tab(AddedTab) = "tab", "Loop or tab", "loops, ring tabs, a wrist strap, a bow, a button cover";
    /// A zip that divides a panel.
    ZipAcross(AddedZip) = "zip", "Zip right across", "a panel in two, the zip between, a pocket behind";
    /// A wall across the inside.
    Partition(AddedPartition) = "partition", "Partition", "a wall across the inside, hung between the side seams";
    /// Embroidery, appliqué, paint.
    Decoration(AddedDecoration) = "decoration", "Embroidery, appliqué or paint", "on a face, by its centre";
    /// Whatever else is cut.
    Own(AddedPiece) = "piece", "A piece of your own", "by its name, size and cloth, whatever it is";
}

/// A part put on a bag.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Added {
    /// Its number within the bag, never used again while it is there.
    pub id: u32,
    /// Kept aside: it is remembered and not made.
    pub aside: bool,
    /// What it is.
    pub kind: PartKind,
}

impl Added {
    /// A middling part of the kind with `key`, numbered `id`.
    pub fn new(key: &str, id: u32, system: System) -> Option<Self> {
        Some(Self { id, aside: false, kind: PartKind::default_for(key, system)? })
    }

    /// Before the ids of its pieces and the keys of its fields.
    pub fn prefix(&self) -> String {
        format!("part-{}", self.id)
    }

    /// What it is called.
    pub fn name(&self) -> String {
        let part = self.kind.part();
        if part.own_name().is_empty() { part.usual_name() } else { part.own_name().to_owned() }
    }

    /// What stands, in a few words.
    pub fn summary(&self, ruler: Ruler) -> String {
        self.kind.part().summary(ruler)
    }

    /// Its fields, in the order they are shown.
    pub fn fields(&mut self) -> Vec<Field<'_>> {
        self.kind.part_mut().fields()
    }

    /// After all its sizes were scaled: what must add up does.
    pub(super) fn scaled(&mut self, system: System) {
        self.kind.part_mut().scaled(system);
    }

    /// Brings it to what the bag has: a wall that is there, ends that something can catch.
    pub(crate) fn suit(&mut self, walls: &[Wall]) {
        self.kind.part_mut().suit(walls);
    }

    /// The part as it is, or as much smaller as it must be to stand; what scales with the bag gets smaller.
    ///
    /// # Errors
    /// What does not stand at any size.
    pub(crate) fn sized_to(
        self,
        stands: impl Fn(&Self) -> Result<(), Vec<FieldProblem>>,
        ruler: Ruler,
    ) -> Result<Self, Vec<FieldProblem>> {
        const TRIED: [i64; 8] = [100, 75, 60, 45, 33, 25, 16, 10];
        let mut first = None;
        for percent in TRIED {
            let mut part = self.clone();
            for field in part.fields().iter_mut().filter(|f| f.scales) {
                if let Slot::Length(length) = &mut field.slot {
                    **length = ruler.up(Length(length.0 * percent / 100));
                }
            }
            match stands(&part) {
                Ok(()) => return Ok(part),
                Err(problems) => first = first.or(Some(problems)),
            }
        }
        Err(first.unwrap_or_default())
    }

    /// Lengths that changed since `before` besides the fields in `typed`, each a short sentence.
    pub(super) fn came_along(&self, before: &Self, typed: &[String], show: &dyn Fn(Length) -> String) -> Vec<String> {
        let (prefix, name) = (self.prefix(), self.name());
        let (mut now, mut then) = (self.clone(), before.clone());
        let (fields, were) = (now.fields(), then.fields());
        let changed =
            fields.iter().zip(&were).filter(|(f, _)| !f.idle && !typed.contains(&format!("{prefix}.{}", f.key)));
        changed
            .filter_map(|(f, was)| match (&f.slot, &was.slot) {
                (Slot::Length(is), Slot::Length(was)) if is != was => {
                    Some(format!("{name}, {}: {}, it was {}.", f.label.to_lowercase(), show(**is), show(**was)))
                }
                (Slot::Lengths(is), Slot::Lengths(was)) if is != was => {
                    let all = |lengths: &[Length]| lengths.iter().map(|l| show(*l)).collect::<Vec<_>>().join(", ");
                    Some(format!("{name}, {}: {}, it was {}.", f.label.to_lowercase(), all(is), all(was)))
                }
                _ => None,
            })
            .collect()
    }

    /// The walls it is on.
    pub fn sides(&self) -> Vec<Side> {
        self.kind.part().sides()
    }

    /// The walls it runs over from the base up, and where.
    pub(super) fn webbing(&self) -> Vec<(Side, Webbing)> {
        match &self.kind {
            PartKind::Strap(strap) => strap.webbing(),
            _ => vec![],
        }
    }

    /// It cuts one of two equal panels apart from the other.
    pub(super) fn splits_a_panel(&self) -> bool {
        matches!(self.kind, PartKind::Decoration(_) | PartKind::ZipAcross(_))
    }

    /// Sets the field `key` as typed or chosen.
    ///
    /// # Errors
    /// There is no such field, what was typed cannot be read, or the bag has no such wall.
    pub fn set(&mut self, key: &str, value: &str, walls: &[Wall], system: System) -> Result<(), FieldProblem> {
        let prefix = self.prefix();
        let mut fields = self.fields();
        let Some(field) = fields.iter_mut().find(|f| f.key == key) else {
            let all: Vec<&str> = fields.iter().map(|f| f.key).collect();
            let message = format!("This part has no field “{key}”: it has {}.", all.join(", "));
            return Err(FieldProblem::new(format!("{prefix}.{key}"), value, message));
        };
        field.set(value, system).map_err(|p| p.within(&prefix))?;
        drop(fields);
        self.kind.part_mut().update_dependents(key, system);
        if let Some(missing) = self.missing(walls).filter(|_| key == "wall") {
            let message = format!("This bag has no such wall; it has {}.", offered(walls));
            return Err(FieldProblem::new(format!("{prefix}.wall"), missing.answer().name, message));
        }
        Ok(())
    }

    /// The first wall it needs that is not there.
    pub fn missing(&self, walls: &[Wall]) -> Option<Side> {
        self.sides().into_iter().find(|side| !walls.iter().any(|w| w.side == *side))
    }

    /// Puts it on the bag, where it is called `name`.
    ///
    /// # Errors
    /// Every field of it that cannot stand, under `part-3.width`.
    pub(super) fn onto(
        &self,
        name: &str,
        walls: &[Wall],
        draft: &mut Draft,
        ruler: Ruler,
    ) -> Result<(), Vec<FieldProblem>> {
        let prefix = self.prefix();
        let on = Ground { name, prefix: &prefix, walls, ruler };
        if self.aside {
            draft
                .notices
                .push(on.attention("aside", format!("{name} is kept aside and not cut: put it back, or take it off.")));
            return Ok(());
        }
        if let Some(missing) = self.missing(walls) {
            let text = format!(
                "{name} is kept aside and not cut: the bag has no wall “{}” now. Put it on another, or take it off.",
                missing.answer().name.to_lowercase()
            );
            draft.notices.push(on.attention("wall", text));
            return Ok(());
        }
        if let Some(why) = self.kind.part().place_is_gone(&on) {
            draft.notices.push(on.attention("place", format!("{name} is kept aside and not cut: {why}.")));
            return Ok(());
        }
        let mut problems = Problems::new(ruler);
        self.kind.part().problems(&on, &mut problems);
        problems.end().map_err(|all| all.into_iter().map(|p| p.within(&prefix)).collect::<Vec<_>>())?;
        self.kind.part().onto(&on, draft);
        Ok(())
    }

    /// What is seen of it on the walls; nothing while it is kept aside.
    pub(super) fn seen(&self, walls: &[Wall], ruler: Ruler) -> Vec<Seen> {
        let (name, prefix) = (self.name(), self.prefix());
        let on = Ground { name: &name, prefix: &prefix, walls, ruler };
        if self.is_made(&on) { self.kind.part().seen(&on) } else { vec![] }
    }

    /// Of a strap from side to side of a bag like `solid`: its drop and width.
    pub(super) fn over_the_mouth(&self, solid: &Solid) -> Option<(Length, Length)> {
        match &self.kind {
            PartKind::Strap(strap) => strap.over(Length(solid.wide()?.round() as i64)),
            _ => None,
        }
    }

    /// What is sewn to what within it.
    pub(super) fn seams(&self, name: &str, walls: &[Wall], ruler: Ruler) -> Vec<Seam> {
        let prefix = self.prefix();
        let on = Ground { name, prefix: &prefix, walls, ruler };
        if self.is_made(&on) { self.kind.part().seams(&on) } else { vec![] }
    }

    /// It is not kept aside, by hand or because its place is gone.
    fn is_made(&self, on: &Ground<'_>) -> bool {
        !self.aside && self.missing(on.walls).is_none() && self.kind.part().place_is_gone(on).is_none()
    }
}

/// The walls there are, as they are said.
fn offered(walls: &[Wall]) -> String {
    let names: Vec<String> = walls.iter().map(|w| w.side.answer().name.to_lowercase()).collect();
    if names.is_empty() { "none".to_owned() } else { names.join("; ") }
}

impl Serialize for Added {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        let mut map = serializer.serialize_map(None)?;
        map.serialize_entry("part", self.kind.key())?;
        map.serialize_entry("id", &self.id)?;
        if self.aside {
            map.serialize_entry("aside", &true)?;
        }
        for (key, value) in values_of(self.clone().fields()) {
            map.serialize_entry(&key, &value)?;
        }
        map.end()
    }
}

impl<'de> Deserialize<'de> for Added {
    /// A field that is not kept is as usual.
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        let mut kept = Map::<String, Value>::deserialize(deserializer)?;
        let Some(Value::String(key)) = kept.remove("part") else {
            return Err(D::Error::custom("a part does not say what it is"));
        };
        let id = kept.remove("id").and_then(|v| v.as_u64()).and_then(|n| u32::try_from(n).ok());
        let Some(id) = id else { return Err(D::Error::custom(format!("a {key} has no number"))) };
        let mut part =
            Self::new(&key, id, System::Inches).ok_or_else(|| D::Error::custom(format!("there is no part “{key}”")))?;
        part.aside = kept.remove("aside") == Some(Value::Bool(true));
        put_all(part.fields(), &mut kept).map_err(D::Error::custom)?;
        match kept.keys().next() {
            Some(unknown) => Err(D::Error::custom(format!("a {key} has no field “{unknown}”"))),
            None => Ok(part),
        }
    }
}

/// The lengths in `fields` that are less than nothing or beyond any cloth are refused, whatever they are for.
pub(super) fn refuse_beyond(fields: Vec<Field<'_>>, problems: &mut Problems) -> bool {
    let mut all_well = true;
    for field in fields {
        let mut look = |length: Length| {
            if length < Length::ZERO || length > crate::measure::LONGEST {
                all_well = false;
                problems.between(field.key, &field.label.to_lowercase(), length, Length::ZERO, crate::measure::LONGEST);
            }
        };
        match &field.slot {
            Slot::Length(length) => look(**length),
            Slot::Lengths(lengths) => lengths.iter().for_each(|l| look(*l)),
            _ => {}
        }
    }
    all_well
}

//! A bag of some family, kept and edited by its fields.

use super::backing;
use super::field::{Field, Group, Slot};
use super::fit::{Holds, Thing, fitted};
use super::sewn::Seam;
use super::{
    Caddy, Clutch, CrossBody, CutList, Design, Draft, Drawstring, Duffel, Finished, FoundTube, Notice, Pouch, Solid,
    Tote,
};
use crate::FieldProblem;
use crate::measure::{Length, Ruler, System};
use serde::de::Error;
use serde::ser::SerializeMap;
use serde::{Deserialize, Deserializer, Serialize, Serializer};
use serde_json::{Map, Value};
use std::collections::BTreeSet;

macro_rules! families {
    ($($(#[$doc:meta])* $variant:ident = $key:literal, $name:literal, $about:literal;)+) => {
        /// What kind of bag it is.
        #[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
        pub enum Family { $($(#[$doc])* $variant,)+ }

        /// A bag of one of the families.
        #[derive(Clone, Debug, PartialEq, Eq)]
        pub enum Bag { $($(#[$doc])* $variant($variant),)+ }

        impl Family {
            /// All families, in the order they are offered.
            pub const ALL: &'static [Self] = &[$(Self::$variant,)+];

            /// The key it is kept by.
            pub const fn key(self) -> &'static str {
                match self { $(Self::$variant => $key,)+ }
            }

            /// What it is called.
            pub const fn name(self) -> &'static str {
                match self { $(Self::$variant => $name,)+ }
            }

            /// What bags of it are like.
            pub const fn about(self) -> &'static str {
                match self { $(Self::$variant => $about,)+ }
            }

            /// A middling bag of it to start from.
            pub fn default_for(self, system: System) -> Bag {
                match self { $(Self::$variant => Bag::$variant($variant::default_for(system)),)+ }
            }
        }

        impl Bag {
            /// What kind of bag it is.
            pub const fn family(&self) -> Family {
                match self { $(Self::$variant(_) => Family::$variant,)+ }
            }

            fn design(&self) -> &dyn Design {
                match self { $(Self::$variant(bag) => bag,)+ }
            }

            fn design_mut(&mut self) -> &mut dyn Design {
                match self { $(Self::$variant(bag) => bag,)+ }
            }
        }
    };
}

families! {
    /// Two panels or one over the base, flat or boxed.
    Tote = "tote", "Tote", "flat or boxed; its mouth hemmed, turned through, bound, banded or zipped";
    /// Drawn shut by a cord.
    Drawstring = "drawstring", "Drawstring bag", "plain or lined, casing folded or sewn on, flat, boxed or round at the base";
    /// Zipped.
    Pouch = "pouch", "Zip pouch", "flat, boxed or half-round";
    /// Built of separate panels.
    Caddy = "caddy", "Box or caddy", "panels and base, divided pockets, bound edges";
    /// A roll with round ends.
    Duffel = "duffel", "Duffel", "a body round two ends, webbing all round";
    /// A folded body with a flap.
    Clutch = "clutch", "Clutch", "one folded body with a flap and a band";
    /// Patchwork and faux leather on an adjustable strap.
    CrossBody = "cross-body", "Cross-body bag", "pieced front, firm base, adjustable strap";
    /// From a trouser leg or another tube.
    FoundTube = "found-tube", "Found tube", "from a trouser leg or another tube that is sewn already";
    /// The maker's own list.
    CutList = "cut-list", "Own cut list", "rows typed, pasted or read from a file";
}

impl Family {
    /// The family with `key`.
    pub fn of(key: &str) -> Option<Self> {
        Self::ALL.iter().copied().find(|f| f.key() == key)
    }
}

impl Bag {
    /// Every field, once, in the order they are shown.
    pub fn fields(&mut self) -> Vec<Field<'_>> {
        self.design_mut().fields()
    }

    /// Sets the field `key` as the maker typed or chose it.
    ///
    /// # Errors
    /// There is no such field, or what was typed cannot be read.
    pub fn set(&mut self, key: &str, value: &str, system: System) -> Result<(), FieldProblem> {
        let family = self.family();
        let design = self.design_mut();
        let mut fields = design.fields();
        let Some(field) = fields.iter_mut().find(|f| f.key == key) else {
            let all: Vec<&str> = fields.iter().map(|f| f.key).collect();
            let message =
                format!("A {} has no field “{key}”: it has {}.", family.name().to_lowercase(), all.join(", "));
            return Err(FieldProblem::new(key, value, message));
        };
        field.set(value, system)?;
        drop(fields);
        design.update_dependents(key, system);
        Ok(())
    }

    /// What it is called: the family, or what makers call a bag of it.
    pub fn title(&self) -> &'static str {
        match self {
            Self::Tote(tote) if tote.depth > Length::ZERO => "Boxed tote",
            _ => self.family().name(),
        }
    }

    /// The word for the finished size in the field `key`: `wide`, or `across` of a round base, whose width is its
    /// diameter.
    pub fn size_word(&self, key: &str) -> Option<&'static str> {
        match key {
            "width" if self.answer("base") == Some("round") => Some("across"),
            "width" => Some("wide"),
            "height" => Some("tall"),
            "depth" => Some("deep"),
            _ => None,
        }
    }

    /// Title and finished sizes: `Boxed tote, 15 wide × 13 tall × 5 deep (in)`.
    pub fn headline(&self, ruler: Ruler) -> String {
        let mut copy = self.clone();
        let sizes: Vec<String> = copy
            .fields()
            .into_iter()
            .filter(|f| !f.idle)
            .filter_map(|f| {
                let word = self.size_word(f.key)?;
                match f.slot {
                    Slot::Length(length) if *length > Length::ZERO => {
                        Some(format!("{} {word}", ruler.show(*length).text))
                    }
                    _ => None,
                }
            })
            .collect();
        if sizes.is_empty() {
            return self.title().to_owned();
        }
        format!("{}, {} ({})", self.title(), sizes.join(" × "), ruler.system().symbol())
    }

    /// The length in the field `key`.
    pub fn length(&self, key: &str) -> Option<Length> {
        self.clone().fields().into_iter().find(|f| f.key == key).and_then(|f| match f.slot {
            Slot::Length(length) => Some(*length),
            _ => None,
        })
    }

    /// The key of the answer in the field `key`; `yes` or `no` of a toggle.
    pub fn answer(&self, key: &str) -> Option<&'static str> {
        self.clone().fields().into_iter().find(|f| f.key == key).and_then(|f| match f.slot {
            Slot::Choice(choice) => Some(choice.answer().key),
            Slot::Toggle(on) => Some(if *on { "yes" } else { "no" }),
            _ => None,
        })
    }

    /// A bag of `family` at its usual sizes, but for the finished sizes and seams that both have and the maker has
    /// changed from what is usual here.
    #[must_use]
    pub fn turned_into(&self, family: Family, system: System) -> Self {
        let mut next = family.default_for(system);
        let (known, usual) = (self.values(), self.family().default_for(system).values());
        let mut fields = next.fields();
        for field in fields.iter_mut().filter(|f| matches!(f.group, Group::Size | Group::Seams)) {
            if let Some(value) = known.get(field.key).filter(|v| usual.get(field.key) != Some(*v)) {
                // What does not fit the other family stays as is usual there.
                let _ = put(field, value);
            }
        }
        drop(fields);
        // What cannot be drafted with these sizes starts from its own.
        if next.draft(Ruler::default_for(system)).is_err() { family.default_for(system) } else { next }
    }

    /// Keys of the fields that grow with the bag: its finished sizes and those of its parts.
    pub fn finished_sizes(&self) -> BTreeSet<&'static str> {
        self.clone().fields().iter().filter(|f| f.scales).map(|f| f.key).collect()
    }

    /// Drafts the bag.
    ///
    /// # Errors
    /// Every field that cannot stand, each once, with what is allowed.
    pub fn draft(&self, ruler: Ruler) -> Result<Draft, Vec<FieldProblem>> {
        let mut draft = self.design().draft(ruler)?;
        backing::fuse_blocks(&mut draft, ruler);
        let show = |l: Length| format!("{} {}", ruler.show(l).text, ruler.system().symbol());
        // Cuts are brought to a line of the ruler: what that changes on the made bag is said.
        for size in self.finished_from_cut(&draft) {
            if (size.back - size.asked).0.abs() >= ruler.step().0 {
                let (asked, back, name) = (show(size.asked), show(size.back), size.name);
                let text =
                    format!("Cut to the lines of the ruler the bag comes out {back} {name}, where {asked} was asked.");
                draft.notices.push(Notice::note(size.field.clone(), text));
            }
        }
        Ok(draft)
    }

    /// The finished sizes, worked out back from the cut pieces of a draft of this bag.
    pub fn finished_from_cut(&self, draft: &Draft) -> Vec<Finished> {
        self.design().finished_from_cut(draft)
    }

    /// What is sewn to what.
    pub fn seams(&self, ruler: Ruler) -> Vec<Seam> {
        self.design().seams(ruler)
    }

    /// The bag as a solid, to be drawn.
    pub fn solid(&self, draft: &Draft) -> Solid {
        self.design().solid(draft)
    }

    /// Finished width, height and depth for `thing`, brought up to `ruler`; a bag with a depth in use is boxed as deep as
    /// the thing is thick.
    pub fn fit(&mut self, thing: Thing, ease: Length, above: Length, ruler: Ruler) {
        let round = self.answer("base") == Some("round");
        let mut fields = self.fields();
        let deep = fields
            .iter()
            .any(|f| f.key == "depth" && !f.idle && matches!(&f.slot, Slot::Length(l) if **l > Length::ZERO));
        let holds = if round {
            Holds::Round
        } else if deep {
            Holds::Boxed
        } else {
            Holds::Flat
        };
        let (width, height, depth) = fitted(thing, holds, ease, above);
        for (key, size) in [("width", width), ("height", height), ("depth", depth)] {
            let field = fields.iter_mut().find(|f| f.key == key && (key != "depth" || deep));
            if let Some(Field { slot: Slot::Length(length), .. }) = field {
                **length = ruler.up(size);
            }
        }
    }

    /// Finished lengths times `percent`/100, brought to `ruler`; seams, turns, ease, hardware and strap widths stay (the
    /// default of common practice). Returns what rounding changed, as sentences.
    ///
    /// # Errors
    /// A field that cannot stand at that scale.
    pub fn scaled(&self, percent: u32, ruler: Ruler) -> Result<(Self, Vec<String>), Vec<FieldProblem>> {
        let mut next = self.clone();
        let mut rounded = Vec::new();
        if let Self::CutList(list) = &mut next {
            rounded = list.scale(percent, ruler);
        }
        for field in &mut next.fields() {
            if let (true, Slot::Length(length)) = (field.scales, &mut field.slot) {
                let exact = Length(length.0 * i64::from(percent) / 100);
                let shown = exact.round_to(ruler.step());
                if shown != exact {
                    let show = |l: Length| ruler.show(l).text;
                    rounded.push(format!("{}: {} brought to {}", field.label, show(exact), show(shown)));
                }
                **length = shown;
            }
        }
        next.draft(ruler).map(|_| (next, rounded))
    }

    /// The fields' values, as they are kept.
    fn values(&self) -> Map<String, Value> {
        values_of(self.clone().fields())
    }
}

/// The values of `fields`, as they are kept.
pub(super) fn values_of(fields: Vec<Field<'_>>) -> Map<String, Value> {
    let value = |field: &Field<'_>| match &field.slot {
        Slot::Length(length) => Value::from(length.0),
        Slot::Choice(choice) => Value::from(choice.answer().key),
        Slot::Toggle(on) => Value::from(**on),
        Slot::Count(count, _) => Value::from(**count),
    };
    fields.iter().map(|f| (f.key.to_owned(), value(f))).collect()
}

/// Puts what is kept into `fields` and takes it out of `kept`; a field that is not kept stays.
///
/// # Errors
/// A value that its field cannot be.
pub(super) fn put_all(fields: Vec<Field<'_>>, kept: &mut Map<String, Value>) -> Result<(), String> {
    for mut field in fields {
        if let Some(value) = kept.remove(field.key)
            && !put(&mut field, &value)
        {
            return Err(format!("{} cannot be {value}", field.key));
        }
    }
    Ok(())
}

/// Puts a kept value into its field; false when it is of another kind.
fn put(field: &mut Field<'_>, value: &Value) -> bool {
    match (&mut field.slot, value) {
        (Slot::Length(length), Value::Number(n)) => {
            n.as_i64().and_then(|n| Length::try_from(n).ok()).map(|n| **length = n).is_some()
        }
        (Slot::Choice(choice), Value::String(key)) => choice.choose(key),
        // What is a choice now was once yes or no.
        (Slot::Choice(choice), Value::Bool(on)) => choice.choose(if *on { "yes" } else { "no" }),
        (Slot::Toggle(on), Value::Bool(value)) => {
            **on = *value;
            true
        }
        (Slot::Count(count, among), Value::Number(n)) => {
            let found = n.as_u64().and_then(|n| u32::try_from(n).ok()).filter(|n| among.contains(n));
            found.map(|n| **count = n).is_some()
        }
        _ => false,
    }
}

impl Serialize for Bag {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        let mut map = serializer.serialize_map(None)?;
        map.serialize_entry("family", self.family().key())?;
        for (key, value) in self.values() {
            map.serialize_entry(&key, &value)?;
        }
        if let Self::CutList(list) = self {
            map.serialize_entry("rows", &list.rows)?;
        }
        map.end()
    }
}

impl<'de> Deserialize<'de> for Bag {
    /// A bag kept without a family is a tote: there was no other once. A field it does not name is as usual.
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        let mut kept = Map::<String, Value>::deserialize(deserializer)?;
        let family = match kept.remove("family") {
            None => Family::Tote,
            Some(Value::String(key)) => {
                Family::of(&key).ok_or_else(|| D::Error::custom(format!("there is no family “{key}”")))?
            }
            Some(other) => return Err(D::Error::custom(format!("{other} is not a family"))),
        };
        let mut bag = family.default_for(System::Inches);
        if let Self::CutList(list) = &mut bag {
            let rows = kept.remove("rows").unwrap_or_else(|| Value::Array(vec![]));
            list.rows = serde_json::from_value(rows).map_err(D::Error::custom)?;
        }
        put_all(bag.fields(), &mut kept).map_err(D::Error::custom)?;
        match kept.keys().next() {
            Some(unknown) => Err(D::Error::custom(format!("a {} has no field “{unknown}”", family.name()))),
            None => Ok(bag),
        }
    }
}

//! How a bag is kept: its family, the values of its fields by their keys, and its parts.

use super::field::{Choice, Field, Slot};
use super::parts::{Added, ClothOf};
use super::{Bag, Body, Family};
use crate::measure::{Length, System};
use serde::de::Error;
use serde::ser::SerializeMap;
use serde::{Deserialize, Deserializer, Serialize, Serializer};
use serde_json::{Map, Value};

impl Field<'_> {
    /// What it holds, as it is kept.
    pub fn kept(&self) -> Value {
        match &self.slot {
            Slot::Length(length) => Value::from(length.0),
            Slot::Choice(choice) => Value::from(choice.answer().key),
            Slot::Toggle(on) => Value::from(**on),
            Slot::Count(count, _) => Value::from(**count),
            Slot::Text(text) => Value::from(text.as_str()),
            Slot::Lengths(lengths) => lengths.iter().map(|l| l.0).collect(),
            Slot::Cloths(cloths) => cloths.iter().map(|c| c.answer().key).collect(),
        }
    }
}

/// The values of `fields`, as they are kept.
pub(super) fn values_of(fields: Vec<Field<'_>>) -> Map<String, Value> {
    fields.iter().map(|f| (f.key.to_owned(), f.kept())).collect()
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
pub(super) fn put(field: &mut Field<'_>, value: &Value) -> bool {
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
        (Slot::Text(text), Value::String(words)) => {
            text.clone_from(words);
            true
        }
        (Slot::Lengths(lengths), Value::Array(all)) => {
            let each = |v: &Value| v.as_i64().and_then(|n| Length::try_from(n).ok());
            let found: Option<Vec<Length>> = all.iter().map(each).collect();
            found.map(|found| **lengths = found).is_some()
        }
        (Slot::Cloths(cloths), Value::Array(all)) => {
            let each = |v: &Value| {
                let mut cloth = ClothOf::ALL[0];
                v.as_str().is_some_and(|key| cloth.choose(key)).then_some(cloth)
            };
            let found: Option<Vec<ClothOf>> = all.iter().map(each).collect();
            found.map(|found| **cloths = found).is_some()
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
        if let Body::CutList(list) = &self.body {
            map.serialize_entry("rows", &list.rows)?;
            if !list.bought.is_empty() {
                map.serialize_entry("bought", &list.bought)?;
            }
        }
        if !self.parts.is_empty() {
            map.serialize_entry("parts", &self.parts)?;
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
        let parts = kept.remove("parts").unwrap_or_else(|| Value::Array(vec![]));
        bag.parts = serde_json::from_value::<Vec<Added>>(parts).map_err(D::Error::custom)?;
        if let Body::CutList(list) = &mut bag.body {
            let rows = kept.remove("rows").unwrap_or_else(|| Value::Array(vec![]));
            list.rows = serde_json::from_value(rows).map_err(D::Error::custom)?;
            let bought = kept.remove("bought").unwrap_or_else(|| Value::Array(vec![]));
            list.bought = serde_json::from_value(bought).map_err(D::Error::custom)?;
        }
        put_all(bag.fields(), &mut kept).map_err(D::Error::custom)?;
        match kept.keys().next() {
            Some(unknown) => Err(D::Error::custom(format!("a {} has no field “{unknown}”", family.name()))),
            None => Ok(bag),
        }
    }
}

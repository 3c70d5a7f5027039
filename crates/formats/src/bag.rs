//! `bofta-bag` version 1: a family and its finished sizes, as typed. docs/formats.md describes it.

use crate::FormatError;
use crate::cut_list::read_text;
use bofta_core::FieldProblem;
use bofta_core::bag::{Added, Bag, Body, Family, Field, MadeUp, PartKind, Slot};
use bofta_core::measure::{Ruler, System};
use serde::Deserialize;
use serde_json::{Map, Value};
use std::collections::BTreeMap;

/// A bag to draft.
#[derive(Clone, Debug, PartialEq)]
pub struct Specification {
    /// What it is called.
    pub name: String,
    /// What numbers are in.
    pub system: System,
    /// The ruler sizes are brought to.
    pub ruler: Ruler,
    /// The bag.
    pub bag: Bag,
    /// How panels are made up, by their ids.
    pub made_up: BTreeMap<String, MadeUp>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct File {
    format: String,
    version: u32,
    units: String,
    family: String,
    #[serde(default)]
    name: String,
    #[serde(default)]
    ruler: Option<Ruler>,
    /// The family's fields: text, a number in `units`, or yes and no.
    #[serde(default)]
    sizes: Map<String, Value>,
    /// How panels are made up: by a panel's id the fields of it, as `sizes`.
    #[serde(default)]
    panels: BTreeMap<String, Map<String, Value>>,
    /// What is put on the bag: each `part`, a kind, and the fields of it, as `sizes`.
    #[serde(default)]
    parts: Vec<Map<String, Value>>,
    /// Rows of a cut list of one's own, as text.
    #[serde(default)]
    rows: Vec<String>,
}

/// Reads a `bofta-bag` file.
///
/// # Errors
/// The first field that cannot be read, with what it should be.
pub fn read_bag(text: &str) -> Result<Specification, FormatError> {
    let file: File = FormatError::read(text)?;
    let refuse = |field: &str, value: &str, message: String| Err(FieldProblem::new(field, value, message).into());
    if file.format != "bofta-bag" {
        return refuse("format", &file.format, format!("“{}” should be “bofta-bag”", file.format));
    }
    if file.version != 1 {
        return refuse("version", &file.version.to_string(), format!("{} is not known: 1 is", file.version));
    }
    let system = match file.units.as_str() {
        "in" => System::Inches,
        "cm" => System::Centimetres,
        other => return refuse("units", other, format!("“{other}” should be “in” or “cm”")),
    };
    let Some(family) = Family::of(&file.family) else {
        let all: Vec<&str> = Family::ALL.iter().map(|f| f.key()).collect();
        return refuse("family", &file.family, format!("“{}” should be one of {}", file.family, all.join(", ")));
    };
    let mut bag = family.default_for(system);
    set_all("sizes", &file.sizes, &mut bag, Bag::fields, |bag, key, typed| bag.set(key, typed, system))?;
    let mut made_up = BTreeMap::new();
    for (id, fields) in file.panels {
        let mut made = MadeUp::plain(system);
        let within = format!("panels.{id}");
        set_all(&within, &fields, &mut made, MadeUp::fields, |made, key, typed| made.set(key, typed, system))?;
        made_up.insert(id, made);
    }
    for (at, mut fields) in file.parts.into_iter().enumerate() {
        let within = format!("parts[{at}]");
        let kind = fields.remove("part").and_then(|v| v.as_str().map(str::to_owned)).unwrap_or_default();
        let Some(mut part) = Added::new(&kind, at as u32 + 1, system).filter(|_| family != Family::CutList) else {
            let all: Vec<&str> = PartKind::CHOICES.iter().map(|(key, ..)| *key).collect();
            let message = format!("“{kind}” should be one of {}; a cut list has rows instead", all.join(", "));
            return refuse(&format!("{within}.part"), &kind, message);
        };
        let walls = bag.walls(Ruler::default_for(system));
        set_all(&within, &fields, &mut part, Added::fields, |part, key, typed| part.set(key, typed, &walls, system))?;
        bag.parts.push(part);
    }
    if let Body::CutList(list) = &mut bag.body {
        let found = read_text(&file.rows.join("\n"), system);
        if let Some(unread) = found.unread.first() {
            return refuse(&format!("rows[{}]", unread.line - 1), &unread.text, unread.why.clone());
        }
        // Nobody is there to answer.
        if let Some(ask) = found.asks.first() {
            let line = found.lines.get(ask.row).copied().unwrap_or(1);
            let said = found.said.get(ask.row).cloned().unwrap_or_default();
            let why = format!("it can be read in two ways. {} Write the count first, then the size", ask.text);
            return refuse(&format!("rows[{}]", line - 1), &said, why);
        }
        list.rows = found.rows;
        list.bought = found.bought.into_iter().map(|b| b.bought).collect();
    }
    Ok(Specification { name: file.name, system, ruler: file.ruler.unwrap_or(Ruler::default_for(system)), bag, made_up })
}

/// Sets every one of `values` as if it were typed: choices first, since sizes follow them. What another value changes again
/// does not go with it, and is refused instead of being lost.
fn set_all<T: Clone>(
    within: &str,
    values: &Map<String, Value>,
    of: &mut T,
    fields: impl for<'a> Fn(&'a mut T) -> Vec<Field<'a>>,
    set: impl Fn(&mut T, &str, &str) -> Result<(), FieldProblem>,
) -> Result<(), FormatError> {
    let mut typed = Vec::new();
    for (key, value) in values {
        let text = match value {
            Value::String(text) => text.clone(),
            Value::Number(n) => n.to_string(),
            Value::Bool(on) => if *on { "yes" } else { "no" }.to_owned(),
            other => {
                let message = "a text, a number, or true and false";
                return Err(FieldProblem::new(format!("{within}.{key}"), other, message).into());
            }
        };
        typed.push((key.as_str(), text));
    }
    let is_choice = |of: &mut T, key: &str| {
        let found = fields(of);
        found.iter().any(|f| f.key == key && matches!(f.slot, Slot::Choice(_) | Slot::Toggle(_)))
    };
    typed.sort_by_key(|(key, _)| !is_choice(of, key));
    for (key, text) in &typed {
        set(of, key, text).map_err(|p| FormatError::Value(p.within(within)))?;
    }
    let is = |of: &mut T, key: &str| fields(of).into_iter().find(|f| f.key == key).map(|f| f.kept());
    for (key, text) in &typed {
        let now = is(of, key);
        let mut again = of.clone();
        set(&mut again, key, text).map_err(|p| FormatError::Value(p.within(within)))?;
        if is(&mut again, key) != now {
            let message = "another value changes this one, so the two can’t be used together";
            return Err(FieldProblem::new(format!("{within}.{key}"), text, message).into());
        }
    }
    Ok(())
}

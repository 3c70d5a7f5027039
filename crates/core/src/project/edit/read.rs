//! Reads what was typed or chosen.

use crate::FieldProblem;
use crate::cloth::{Money, Price};
use crate::measure::{Length, System, parse_length};
use crate::shape::{Outline, Point};
use serde::Serialize;
use serde::de::value::StrDeserializer;
use serde::de::{DeserializeOwned, IntoDeserializer};

/// The serde name of a unit variant, which is the field's name everywhere.
pub(super) fn key_of<T: Serialize + std::fmt::Debug>(field: &T) -> String {
    let mut key = String::new();
    for c in format!("{field:?}").chars() {
        if c.is_uppercase() && !key.is_empty() {
            key.push('_');
        }
        key.extend(c.to_lowercase());
    }
    key
}

pub(super) fn size(field: &str, value: &str, system: System) -> Result<Length, FieldProblem> {
    parse_length(value, system).map_err(|e| {
        let sentence = e.to_string();
        let mut chars = sentence.chars();
        let sentence = chars.next().map(|c| c.to_uppercase().collect::<String>() + chars.as_str()).unwrap_or_default();
        FieldProblem::new(field, value, format!("{sentence}{}", if sentence.ends_with('?') { "" } else { "." }))
    })
}

/// The most letters of a currency's sign.
const LONGEST_SIGN: usize = 4;

/// A currency's sign as typed, `€`, `kr` or `CHF`; nothing when it is left empty.
pub(super) fn currency(value: &str) -> Result<Option<String>, FieldProblem> {
    let sign = value.trim();
    let plain = |c: char| c.is_alphabetic() || "€£$¥₣₤₩₹₺₽₴₪฿₫₱.".contains(c);
    if sign.chars().count() > LONGEST_SIGN || !sign.chars().all(plain) {
        let message = format!("“{sign}” is not a currency’s sign: write it as €, £, kr or CHF, or leave it empty.");
        return Err(FieldProblem::new("currency", value, message));
    }
    Ok((!sign.is_empty()).then(|| sign.to_owned()))
}

/// A price as typed, and the currency's sign if it was typed with one, before or after it.
pub(super) fn price(field: &str, value: &str, system: System) -> Result<(Price, Option<String>), FieldProblem> {
    let typed = value.trim();
    let figures = |c: char| c.is_ascii_digit() || matches!(c, '.' | ',');
    let bare = typed.trim_matches(|c: char| !figures(c) && c != '-');
    let sign = match typed.split_once(bare) {
        Some((before, after)) if !bare.is_empty() => match (before.trim(), after.trim()) {
            (sign, "") | ("", sign) => currency(sign).ok(),
            _ => None,
        },
        _ => None,
    };
    let amount: Option<f64> = bare.replace(',', ".").parse().ok().filter(|_| sign.is_some());
    let (Some(amount), Some(sign)) = (amount, sign) else {
        let message = format!("“{typed}” is not a price: write it as 12, 12.50 or € 12,50.");
        return Err(FieldProblem::new(field, value, message));
    };
    if !(0.0..=100_000.0).contains(&amount) {
        return Err(FieldProblem::new(field, value, "A price is from 0 to 100000."));
    }
    let per = match system {
        System::Inches => Length::YARD,
        System::Centimetres => Length::METRE,
    };
    Ok((Price { amount: Money((amount * 100.0).round() as i64), per }, sign))
}

pub(super) fn choice<T: DeserializeOwned>(field: &str, value: &str) -> Result<T, FieldProblem> {
    let deserializer: StrDeserializer<'_, serde::de::value::Error> = value.trim().into_deserializer();
    T::deserialize(deserializer)
        .map_err(|e| FieldProblem::new(field, value, format!("“{}” is not a choice here: {e}.", value.trim())))
}

pub(super) fn yes_or_no(field: &str, value: &str) -> Result<bool, FieldProblem> {
    match value.trim() {
        "yes" | "true" => Ok(true),
        "no" | "false" => Ok(false),
        other => Err(FieldProblem::new(field, other, format!("“{other}” is not a choice here: yes or no."))),
    }
}

/// The corners of an outline as typed, moved so that it begins at 0 × 0.
pub(super) fn corners(key: &str, value: &str, system: System) -> Result<Vec<Point>, FieldProblem> {
    let mut found = Vec::new();
    for (i, typed) in value.split([';', '\n']).map(str::trim).filter(|t| !t.is_empty()).enumerate() {
        let refuse = |why: &str| {
            FieldProblem::new(key, value, format!("Corner {}, “{typed}”, {why}: write it as across × up.", i + 1))
        };
        let (across, up) = typed.split_once(['×', 'x', ',']).ok_or_else(|| refuse("is not two sizes"))?;
        let read = |text: &str| parse_length(text, system).map_err(|e| refuse(&format!("does not read ({e})")));
        found.push(Point::new(read(across)?, read(up)?));
    }
    let outline = Outline::polygon(found)
        .map_err(|e| FieldProblem::new(key, value, format!("The outline does not hold: {e}.")))?;
    let placed = outline.corners();
    let least = |of: fn(&Point) -> Length| placed.iter().map(of).min().unwrap_or_default();
    let (left, low) = (least(|p| p.x), least(|p| p.y));
    Ok(placed.iter().map(|p| Point::new(p.x - left, p.y - low)).collect())
}

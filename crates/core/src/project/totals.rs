//! What a laid project comes to, in the words that every screen and sheet uses.

use super::Project;
use crate::lay::Lay;
use crate::measure::{Length, show_bought};

/// Length to buy in all, owned cloth left out.
pub fn bought(project: &Project, lay: &Lay) -> Length {
    lay.cloths.iter().filter(|c| !project.is_at_hand(&c.cloth)).map(|c| c.buy_length).sum()
}

/// The same as a shop says it; that no cloth is bought is said only when every piece lies somewhere; zips and webbing are no part of it.
pub fn bought_text(project: &Project, lay: &Lay) -> String {
    let length = bought(project, lay);
    match (length == Length::ZERO, lay.complete()) {
        (true, true) => "no cloth to buy".into(),
        (true, false) => "not enough cloth".into(),
        (false, true) => show_bought(length, project.system),
        (false, false) => format!("{} and more", show_bought(length, project.system)),
    }
}

/// What the cloth to buy costs: nothing when no price of it is known or nothing is bought, `and more` when one is missing
/// or a piece lies nowhere.
pub fn cost_text(project: &Project, lay: &Lay) -> String {
    let bought = || lay.cloths.iter().filter(|c| !project.is_at_hand(&c.cloth)).filter_map(|c| project.cloth(&c.cloth));
    let priced = bought().filter(|c| c.price.is_some()).count();
    match bought().count() - priced {
        _ if priced == 0 => String::new(),
        0 if lay.complete() => project.money(lay.cost),
        _ => format!("{} and more", project.money(lay.cost)),
    }
}

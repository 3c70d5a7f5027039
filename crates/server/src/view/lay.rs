//! The lay of every cloth, and the shopping list that follows from it.

use super::{DrawingView, Measure};
use crate::laying::Laid;
use bofta_core::buying::{Missing, purchases, said_size, washed};
use bofta_core::cloth::Form;
use bofta_core::cutting::{CutKind, CutStyle, Step, cut_style, describe_left, left_whole};
use bofta_core::lay::{ClothLay, conditions, reason, reason_of_sheets};
use bofta_core::measure::{Length, System, show_bought};
use bofta_core::project::{Project, bought_text, cost_text};
use bofta_formats::draw::{cloth_lay, swatch};
use serde::Serialize;
use std::collections::BTreeSet;
use utoipa::ToSchema;

/// The lay of one cloth.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct ClothLayView {
    pub cloth: String,
    pub name: String,
    /// Length to buy, or to take from what is owned, as a shop says it.
    pub length: String,
    pub owned: bool,
    /// It comes whole: a fat quarter, a remnant.
    pub whole: bool,
    pub needed: Measure,
    /// What washing makes of it, when it is washed first.
    pub washed: Option<String>,
    /// In hundredths.
    pub used_percent: u32,
    pub cost: Option<String>,
    pub proven: bool,
    /// The shortest purchase that cannot be ruled out.
    pub bound: String,
    /// Why nothing shorter will do, in a sentence or two.
    pub reason: Option<String>,
    /// The rules that this rests on, each as it stands in a list.
    pub under: Vec<String>,
    /// `all edge to edge`, `some round a template` or `some stop short`.
    pub cuts: String,
    /// Different readings to set on the ruler.
    pub settings: u32,
    /// The largest piece left worth keeping.
    pub left: Option<String>,
    pub drawing: DrawingView,
}

/// The lay.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct LayView {
    pub cloths: Vec<ClothLayView>,
    /// What the lay leaves out, when it is not whole.
    pub missing: Option<MissingView>,
    pub warnings: Vec<String>,
    pub complete: bool,
    pub proven: bool,
    pub used_percent: u32,
    /// To buy in all, as a shop says it.
    pub bought: String,
    /// Empty when no price is known or nothing is bought.
    pub cost: String,
    pub iterations: u64,
}

/// Pieces that lie nowhere.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct MissingView {
    /// How many of how many.
    pub headline: String,
    /// Each piece, with its copies when there are several.
    pub pieces: Vec<String>,
    /// Which, and by how much of which cloth the plan is short.
    pub told: Vec<String>,
}

impl MissingView {
    pub(super) fn new(missing: &Missing, system: System) -> Self {
        let named = |(name, n): &(String, u32)| if *n == 1 { name.clone() } else { format!("{n} × {name}") };
        Self {
            headline: missing.headline(),
            pieces: missing.pieces.iter().map(named).collect(),
            told: missing.describe(system),
        }
    }
}

/// A line of the shopping list.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct PurchaseView {
    pub cloth: String,
    /// The cloth of the project that it is of.
    pub of: String,
    pub name: String,
    pub width: Measure,
    pub length: String,
    /// It comes whole, and its length says both its sizes.
    pub whole: bool,
    /// The steps of the shop, when it has any: `6 × ⅛ yd`.
    pub steps: Option<String>,
    pub needed: Measure,
    pub spare: Measure,
    /// What washing makes of it, when it is washed first.
    pub washed: Option<String>,
    pub owned: bool,
    pub price: Option<String>,
    pub cost: Option<String>,
    pub proven: bool,
    /// Why nothing shorter will do.
    pub reason: Option<String>,
    /// The rules that this rests on.
    pub under: Vec<String>,
    pub swatch: DrawingView,
}

/// The lay as the stage shows it.
pub fn lay_view(project: &Project, laid: &Laid, missing: Option<&Missing>, steps: &[Step]) -> LayView {
    let lay = &laid.lay;
    let cloths: Vec<ClothLayView> = lay.cloths.iter().filter_map(|c| cloth_lay_view(project, laid, c, steps)).collect();
    LayView {
        used_percent: used_percent(laid),
        missing: missing.map(|m| MissingView::new(m, project.system)),
        warnings: lay.warnings.clone(),
        complete: lay.complete(),
        proven: lay.proven,
        bought: bought_text(project, lay),
        cost: cost_text(project, lay),
        iterations: lay.iterations,
        cloths,
    }
}

/// The pieces' share of all cloth bought or taken, in hundredths.
pub(super) fn used_percent(laid: &Laid) -> u32 {
    let mut used = 0.0;
    let mut all = 0.0;
    for c in &laid.lay.cloths {
        let Some(cloth) = laid.job.cloth(&c.cloth) else { continue };
        let area = cloth.washed_width().0 as f64 * c.buy_length.0 as f64 * f64::from(cloth.layers);
        used += area * c.used_share;
        all += area;
    }
    if all > 0.0 { (used / all * 100.0).round() as u32 } else { 0 }
}

fn cloth_lay_view(project: &Project, laid: &Laid, c: &ClothLay, steps: &[Step]) -> Option<ClothLayView> {
    let as_job = laid.job.cloth(&c.cloth)?;
    let ruler = project.ruler;
    let readings: BTreeSet<Length> = steps
        .iter()
        .filter_map(|s| match s {
            Step::Cut { on, cut } if on.cloth == c.cloth && on.copy == c.copy && cut.kind != CutKind::Fold => {
                Some(cut.reads())
            }
            _ => None,
        })
        .collect();
    let is_scrap = matches!(as_job.form, Form::Scrap { .. });
    Some(ClothLayView {
        cloth: c.cloth.clone(),
        name: as_job.name.clone(),
        length: said_size(as_job, c.buy_length, ruler),
        whole: as_job.whole_length().is_some(),
        owned: as_job.owned,
        needed: Measure::new(ruler.up(c.needed_length), ruler),
        washed: washed(as_job, c.buy_length, ruler),
        used_percent: (c.used_share * 100.0).round() as u32,
        cost: (!as_job.owned && as_job.price.is_some()).then(|| project.money(as_job.cost(c.buy_length))),
        proven: c.proven(),
        bound: show_bought(c.bound, project.system),
        reason: why(laid, c),
        under: laid.job.cloth(&c.cloth).map(|cloth| conditions(&laid.job, cloth)).unwrap_or_default(),
        cuts: match cut_style(
            steps.iter().filter(|s| s.on().is_some_and(|on| on.cloth == c.cloth && on.copy == c.copy)),
        ) {
            _ if is_scrap => "round each piece, where it lies",
            CutStyle::EdgeToEdge => "all edge to edge",
            CutStyle::RoundTemplates => "some round a template",
            CutStyle::Stopped => "some stop short",
        }
        .to_owned(),
        settings: readings.len() as u32,
        left: left_whole(&laid.job, c).first().map(|part| describe_left(part, ruler)),
        drawing: cloth_lay(project, &laid.job, c, 960.0, 440.0, "stage")?.into(),
    })
}

/// Why the cloth cannot be cut shorter, or fewer sheets not do.
fn why(laid: &Laid, c: &ClothLay) -> Option<String> {
    let sheets = laid.lay.sheets.iter().find(|s| s.cloth == c.cloth);
    sheets.and_then(|s| reason_of_sheets(&laid.job, s)).or_else(|| reason(&laid.job, c))
}

pub(super) fn purchase_views(project: &Project, laid: &Laid) -> Vec<PurchaseView> {
    let (ruler, system) = (project.ruler, project.system);
    purchases(&laid.job, &laid.lay)
        .into_iter()
        .filter_map(|p| {
            let (cloth, as_job) = (project.cloth(&p.cloth)?, laid.job.cloth(&p.cloth)?);
            let steps = cloth.shop.step.filter(|s| !p.owned && p.length.is_multiple_of(*s));
            Some(PurchaseView {
                of: cloth.id.clone(),
                name: as_job.name.clone(),
                width: Measure::new(as_job.as_bought_width(), ruler),
                length: said_size(as_job, p.length, ruler),
                whole: as_job.whole_length().is_some(),
                steps: steps.map(|s| format!("{} × {}", p.length.0 / s.0, show_bought(s, system))),
                needed: Measure::new(ruler.up(p.needed), ruler),
                spare: Measure::new(p.spare.floor_to(ruler.step()), ruler),
                washed: laid.job.cloth(&p.cloth).and_then(|c| washed(c, p.length, ruler)),
                owned: p.owned,
                price: cloth.price.map(|price| project.money(price.amount)),
                cost: p.cost.map(|c| project.money(c)),
                proven: p.proven,
                reason: laid.lay.cloths.iter().find(|c| c.cloth == p.cloth).and_then(|c| why(laid, c)),
                under: laid.job.cloth(&p.cloth).map(|c| conditions(&laid.job, c)).unwrap_or_default(),
                swatch: swatch(cloth, &format!("buy-{}", cloth.id), 96.0, 64.0).into(),
                cloth: p.cloth,
            })
        })
        .collect()
}

//! A cloth of the project.

use super::{DrawingView, Measure, key};
use bofta_core::cloth::{Print, PrintUp};
use bofta_core::measure::{Length, show_bought};
use bofta_core::project::{Look, Project, ProjectCloth};
use bofta_formats::draw::swatch;
use serde::Serialize;
use utoipa::ToSchema;

/// A cloth of the project.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct ClothView {
    pub id: String,
    pub name: String,
    /// Key of the material.
    pub material: String,
    pub material_name: String,
    pub width: Measure,
    pub usable: Measure,
    pub selvedge: Measure,
    pub trim: Measure,
    pub wash_first: bool,
    /// What washing takes, in words.
    pub shrinks: String,
    pub step: Option<Measure>,
    /// `by ⅛ yd, at least ¼ yd`.
    pub shop: String,
    pub min: Measure,
    /// Of a yard or metre.
    pub price: Option<String>,
    pub owned: Option<Measure>,
    /// `all-over`, `two-way` or `one-way`.
    pub print: String,
    /// `length` or `across`.
    pub up: String,
    pub nap: bool,
    pub look: Look,
    pub swatch: DrawingView,
    /// Keys of the parts cut from it.
    pub parts: Vec<String>,
}

fn percent(ppm: u32) -> String {
    format!("{} %", f64::from(ppm) / 10_000.0)
}

pub(super) fn cloth_view(project: &Project, cloth: &ProjectCloth) -> ClothView {
    let (ruler, system) = (project.ruler, project.system);
    let down = |l: Length| Measure::new(l.floor_to(ruler.step()), ruler);
    let shrink = cloth.material.default_shrink();
    let shop = match cloth.shop.step {
        Some(step) => {
            format!("by {}, at least {}", show_bought(step, system), show_bought(cloth.shop.min.max(step), system))
        }
        None => "any length".into(),
    };
    ClothView {
        id: cloth.id.clone(),
        name: cloth.name.clone(),
        material: key(&cloth.material),
        material_name: cloth.material.name().to_owned(),
        width: Measure::new(cloth.width, ruler),
        usable: down(cloth.for_job().usable_width()),
        selvedge: Measure::new(cloth.selvedge, ruler),
        trim: Measure::new(cloth.trim, ruler),
        wash_first: cloth.wash_first,
        shrinks: if shrink.along == 0 {
            format!("{} hardly shrinks", cloth.material.name())
        } else {
            format!("{} along, {} across", percent(shrink.along), percent(shrink.across))
        },
        step: cloth.shop.step.map(|s| Measure::new(s, ruler)),
        shop,
        min: Measure::new(cloth.shop.min, ruler),
        price: cloth.price.map(|p| p.amount.show()),
        owned: cloth.owned.map(|l| Measure::new(l, ruler)),
        print: match cloth.print {
            Print::AllOver => "all-over",
            Print::TwoWay => "two-way",
            Print::OneWay => "one-way",
        }
        .to_owned(),
        up: match cloth.up {
            PrintUp::Length => "length",
            PrintUp::Across => "across",
        }
        .to_owned(),
        nap: cloth.nap,
        look: cloth.look.clone(),
        swatch: swatch(cloth, &cloth.id, 132.0, 84.0).into(),
        parts: project
            .from
            .iter()
            .filter(|(_, ids)| ids.first() == Some(&cloth.id))
            .map(|(part, _)| part.key().to_owned())
            .collect(),
    }
}

//! A cloth of the project.

use super::{DrawingView, Measure, key};
use bofta_core::cloth::{AtHand, HandForm, Print, PrintUp, ScrapDraft, Shrink, say_all};
use bofta_core::measure::{Length, System, show_bought, show_size};
use bofta_core::project::{Look, Project, ProjectCloth};
use bofta_formats::draw::{at_hand, bolt, swatch};
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
    /// What is lost before anything is cut, and why, a sentence each.
    pub taken_off: Vec<String>,
    pub selvedge: Measure,
    pub trim: Measure,
    pub wash_first: bool,
    /// What washing takes, in words.
    pub shrinks: String,
    /// Its test square: each side as cut, then along and across as washed.
    pub test_square: Option<Measure>,
    pub test_along: Option<Measure>,
    pub test_across: Option<Measure>,
    /// What it weighs, `240 g` a square metre or `7 oz` a square yard, as it is typed; empty where that is not known.
    pub weight: String,
    pub step: Option<Measure>,
    /// `by ⅛ yd, at least ¼ yd`.
    pub shop: String,
    pub min: Measure,
    /// Of a yard or metre.
    pub price: Option<String>,
    /// What of it is there, said so that it is read back as the same; empty when there is none.
    pub at_hand: String,
    /// What is there, and the roll if it is bought, drawn at one scale with all cloths of the project.
    pub things: Vec<ThingView>,
    /// The bag that leaves what is there of it, by its name.
    pub left_of: Option<String>,
    /// What is missing of it is bought.
    pub buy_more: bool,
    /// `all-over`, `two-way` or `one-way`.
    pub print: String,
    /// `length` or `across`.
    pub up: String,
    pub nap: bool,
    /// It is cut folded, selvedge on selvedge.
    pub folded: bool,
    pub look: Look,
    /// How tall one repeat of its print is, where that is measured.
    pub repeat: Option<Measure>,
    /// How wide one repeat is, where that is measured.
    pub repeat_wide: Option<Measure>,
    pub half_drop: bool,
    /// From the left edge to the middle of the first motif, where that is measured.
    pub motif_from: Option<Measure>,
    pub swatch: DrawingView,
    /// Keys of the parts cut from it.
    pub parts: Vec<String>,
}

/// One thing that is there of a cloth, or the roll it is bought off.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct ThingView {
    /// `2 fat quarters`; of a roll, how wide it is.
    pub label: String,
    /// As it is typed; empty of a roll.
    pub said: String,
    /// Along the selvedge; nothing of a roll.
    pub length: Option<Measure>,
    pub width: Measure,
    pub count: u32,
    /// Bought, not there.
    pub bought: bool,
    /// Its size is a guess.
    pub about: bool,
    /// A scrap, as it is drawn anew.
    pub scrap: Option<ScrapThing>,
    pub drawing: DrawingView,
}

/// A scrap that is there.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct ScrapThing {
    /// The letter on its pin.
    pub label: String,
    pub draft: ScrapDraft,
}

fn scrap_view(thing: &AtHand, system: System) -> Option<ScrapThing> {
    let HandForm::Scrap(scrap) = &thing.form else { return None };
    Some(ScrapThing { label: scrap.label.clone(), draft: scrap.draft(system) })
}

/// The widest thing is drawn as wide as this, in pixels.
const WIDEST: f64 = 300.0;

/// And the longest as long as this at most.
const LONGEST_DRAWN: f64 = 230.0;

/// All cloths, what is there of them at one scale.
pub(super) fn cloth_views(project: &Project) -> Vec<ClothView> {
    let of_things = project.cloths.iter().flat_map(|c| c.at_hand.iter().map(|t| t.form.size(c.width)));
    let rolls = project.cloths.iter().filter(|c| c.is_bought()).map(|c| (Length::ZERO, c.width));
    let (longest, widest) = of_things
        .chain(rolls)
        .fold((Length::ZERO, project.system.unit()), |(l, w), (length, width)| (l.max(length), w.max(width)));
    let scale = (WIDEST / widest.0 as f64).min(LONGEST_DRAWN / longest.max(Length(1)).0 as f64);
    project.cloths.iter().map(|c| cloth_view(project, c, scale)).collect()
}

fn things(project: &Project, cloth: &ProjectCloth, scale: f64) -> Vec<ThingView> {
    let ruler = project.ruler;
    let there = cloth.at_hand.iter().enumerate().map(|(n, thing)| {
        let (length, width) = thing.form.size(cloth.width);
        ThingView {
            label: thing.tell(ruler),
            said: thing.say(project.system),
            scrap: scrap_view(thing, project.system),
            length: Some(Measure::new(length, ruler)),
            width: Measure::new(width, ruler),
            count: thing.count,
            bought: false,
            about: thing.about,
            drawing: at_hand(cloth, thing, (&format!("{}-{n}", cloth.id), ruler), scale).into(),
        }
    });
    let roll = cloth.is_bought().then(|| ThingView {
        label: format!("bought, {} wide", show_size(cloth.width, project.system)),
        said: String::new(),
        length: None,
        width: Measure::new(cloth.width, ruler),
        count: 1,
        bought: true,
        about: false,
        scrap: None,
        drawing: bolt(cloth, &format!("{}-bolt", cloth.id), scale).into(),
    });
    there.chain(roll).collect()
}

fn said_weight(grams: u32, system: System) -> String {
    match system {
        System::Centimetres => format!("{grams} g"),
        System::Inches => format!("{} oz", (f64::from(grams) / 33.9057 * 10.0).round() / 10.0),
    }
}

fn percent(ppm: u32) -> String {
    format!("{} %", (f64::from(ppm) / 1_000.0).round() / 10.0)
}

fn cloth_view(project: &Project, cloth: &ProjectCloth, scale: f64) -> ClothView {
    let (ruler, system) = (project.ruler, project.system);
    let down = |l: Length| Measure::new(l.floor_to(ruler.step()), ruler);
    let shrink = cloth.shrinks();
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
        usable: down(cloth.roll().widest_piece()),
        taken_off: cloth.taken_off(ruler),
        selvedge: Measure::new(cloth.selvedge, ruler),
        trim: Measure::new(cloth.trim, ruler),
        wash_first: cloth.wash_first,
        shrinks: if shrink == Shrink::NONE {
            format!("{} hardly shrinks", cloth.material.name())
        } else {
            let by = if cloth.tested.is_some() { "by its test square " } else { "" };
            format!("{by}{} along, {} across", percent(shrink.along), percent(shrink.across))
        },
        test_square: cloth.tested.map(|t| Measure::new(t.side, ruler)),
        test_along: cloth.tested.and_then(|t| t.along).map(|l| Measure::new(l, ruler)),
        test_across: cloth.tested.and_then(|t| t.across).map(|l| Measure::new(l, ruler)),
        weight: cloth.grams.map(|g| said_weight(g, system)).unwrap_or_default(),
        step: cloth.shop.step.map(|s| Measure::new(s, ruler)),
        shop,
        min: Measure::new(cloth.shop.min, ruler),
        price: cloth.price.map(|p| p.amount.show()),
        at_hand: say_all(&cloth.at_hand, system),
        things: things(project, cloth, scale),
        left_of: cloth.left_of.as_ref().map(|l| l.name.clone()),
        buy_more: cloth.buy_more,
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
        folded: cloth.folded,
        look: cloth.look.clone(),
        repeat: cloth.repeat.map(|r| Measure::new(r, ruler)),
        repeat_wide: cloth.repeat_wide.map(|r| Measure::new(r, ruler)),
        half_drop: cloth.half_drop,
        motif_from: cloth.motif_from.map(|r| Measure::new(r, ruler)),
        swatch: swatch(cloth, &cloth.id, 132.0, 84.0).into(),
        parts: project
            .from
            .iter()
            .filter(|(_, ids)| ids.contains(&cloth.id))
            .map(|(part, _)| part.key().to_owned())
            .collect(),
    }
}

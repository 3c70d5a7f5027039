//! The shelf's cards.

use super::DrawingView;
use crate::laying::{Keep, Laid, Laying, laid};
use crate::work::Work;
use bofta_core::buying::headline;
use bofta_core::cutting::cut_list;
use bofta_core::measure::{Length, System};
use bofta_core::project::{Project, bought_text, cost_text};
use bofta_formats::draw::{swatch, thumbnail};
use bofta_store::{Named, StoreError, StoredProject};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A project on the shelf.
#[derive(Clone, Debug, Serialize, Deserialize, ToSchema)]
pub struct Card {
    pub id: String,
    pub name: String,
    /// The bag in a few words.
    pub bag: String,
    /// Where it stands, in a few words.
    pub state: String,
    /// Milliseconds since 1970.
    pub changed_at: i64,
    /// Its lay, or its cloths, drawn small.
    pub drawings: Vec<DrawingView>,
    /// Why it cannot be opened; its text can be saved all the same.
    pub unreadable: Option<String>,
    /// It is still being laid: ask again.
    pub pending: bool,
    /// The stage where one goes on.
    pub stage: String,
}

/// What version of the program drew a card: another one may draw it otherwise.
pub const PROGRAM: &str = env!("CARGO_PKG_VERSION");

/// The card of a project that is only known by name so far.
pub fn plain_card(named: &Named, state: &str) -> Card {
    Card {
        id: named.id.clone(),
        name: if named.name.is_empty() { named.id.clone() } else { named.name.clone() },
        bag: String::new(),
        state: state.to_owned(),
        changed_at: named.changed_at,
        drawings: vec![],
        unreadable: None,
        pending: false,
        stage: "lay".into(),
    }
}

/// The card of `kept`, last changed at `changed_at`.
pub fn card(work: &Work, kept: &StoredProject, changed_at: i64) -> Result<Card, StoreError> {
    let project = &kept.project;
    let laying = match project.plan() {
        Ok(planned) => laid(work, &kept.id, &planned, Keep::Yes)?,
        Err(_) => Laying::default(),
    };
    let drawings = match &laying.laid {
        Some(laid) => laid
            .lay
            .cloths
            .iter()
            .filter_map(|c| thumbnail(project, &laid.job, c, 150.0, 96.0, &kept.id))
            .map(DrawingView::from)
            .take(2)
            .collect(),
        None => project
            .cloths
            .iter()
            .take(3)
            .map(|c| swatch(c, &format!("{}-{}", kept.id, c.id), 64.0, 64.0).into())
            .collect(),
    };
    Ok(Card {
        id: kept.id.clone(),
        name: project.name.clone(),
        bag: project.bag.headline(project.ruler),
        state: match &laying {
            Laying { laid: Some(laid), .. } => state(project, laid, cut_count(project, laid)),
            Laying { failed: Some(_), .. } => "could not be laid".into(),
            _ => "needs cloth".into(),
        },
        changed_at,
        drawings,
        unreadable: None,
        pending: false,
        stage: match &laying.laid {
            Some(_) if project.steps_done > 0 => "cut",
            None if laying.failed.is_none() => "cloth",
            _ => "lay",
        }
        .into(),
    })
}

fn cut_count(project: &Project, laid: &Laid) -> usize {
    project
        .plan()
        .map_or(0, |planned| cut_list(&laid.job, &laid.lay.cloths, &planned.draft.pieces, &planned.blocks).len())
}

fn state(project: &Project, laid: &Laid, cuts: usize) -> String {
    let lay = &laid.lay;
    if let Some(short) = headline(&laid.job, lay) {
        return match project.steps_done {
            0 => short,
            n => format!("{short} · {n} of {cuts} cut"),
        };
    }
    match project.steps_done as usize {
        0 => [bought_text(project, lay), cost_text(project, lay)]
            .into_iter()
            .filter(|t| !t.is_empty())
            .collect::<Vec<_>>()
            .join(" · "),
        n if n >= cuts => "all cut".into(),
        n => format!("{n} of {cuts} cut"),
    }
}

/// The unit lengths are compared in: an eighth of a yard, or a centimetre.
pub const fn shop_unit(system: System) -> Length {
    match system {
        System::Inches => Length::inches(9, 2),
        System::Centimetres => Length::CENTIMETRE,
    }
}

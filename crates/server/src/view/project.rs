//! A whole project, as every stage needs it.

use super::bag::{BagView, bag_view, holds, strap_drop};
use super::cloth::{ClothView, cloth_views};
use super::lay::{LayView, PurchaseView, lay_view, purchase_views, used_percent};
use super::notice::{NoticeView, ProblemView, notices};
use super::piece::{PartView, PieceView, parts, pieces};
use super::seam::{SeamView, seams};
use super::shelf::shop_unit;
use super::{Measure, key};
use crate::laying::{Keep, Laid, Laying, laid, plan_and_lay};
use crate::work::Work;
use bofta_core::bag::Draft;
use bofta_core::bag::binding::Join;
use bofta_core::buying::Missing;
use bofta_core::cutting::cut_list;
use bofta_core::lay::Cuts;
use bofta_core::measure::{Length, show_bought};
use bofta_core::project::{Edit, Planned, Project, StrapLie, bought, bought_text, cost_text};
use bofta_formats::shopping_list;
use bofta_store::{StoreError, StoredProject};
use serde::Serialize;
use utoipa::ToSchema;

/// What the project needs, costs and wastes now.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct TallyView {
    /// Cloth to buy in all.
    pub cloth: Option<String>,
    /// Something is bought.
    pub buys: bool,
    /// That pieces lie nowhere: how many of how many.
    pub missing: Option<String>,
    /// What the last change did to it: `+⅛ yd`.
    pub change: Option<String>,
    pub cost: Option<String>,
    pub pieces: u32,
    pub used_percent: Option<u32>,
    pub strap_drop: Option<Measure>,
    pub holds: String,
}

/// How the maker wants it laid.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct LayChoicesView {
    /// `free` or `through`.
    pub cuts: String,
    pub print_may_lie: bool,
    pub straps: StrapLie,
    /// How strips are joined that are longer than their cloth.
    pub join: Join,
    /// Small pieces may lie in the corners cut out of panels.
    pub in_notches: bool,
}

/// A whole project.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct ProjectView {
    pub id: String,
    pub revision: i64,
    pub name: String,
    /// `in` or `cm`.
    pub system: String,
    pub ruler: String,
    pub ruler_name: String,
    /// What undo takes back.
    pub undo: Option<String>,
    /// What redo makes again.
    pub redo: Option<String>,
    /// What came along with the last change, each a sentence: sizes nobody had typed.
    pub came_along: Vec<String>,
    /// The sign prices are shown with; may be empty.
    pub currency: String,
    pub bag: BagView,
    pub pieces: Vec<PieceView>,
    /// What is sewn to what.
    pub seams: Vec<SeamView>,
    pub parts: Vec<PartView>,
    pub cloths: Vec<ClothView>,
    pub choices: LayChoicesView,
    pub lay: Option<LayView>,
    /// Why there is no lay, although every part has a cloth.
    pub lay_failed: Option<String>,
    pub purchases: Vec<PurchaseView>,
    /// The whole shopping list as text, to be copied.
    pub shopping_list: Option<String>,
    pub steps: u32,
    pub steps_done: u32,
    /// Steps of making it, and how many are done.
    pub steps_of_making: usize,
    pub steps_made: usize,
    /// Something is written down about it.
    pub has_notes: bool,
    /// How many ways of dressing it are kept.
    pub tries: usize,
    pub tally: TallyView,
    pub notices: Vec<NoticeView>,
    pub problems: Vec<ProblemView>,
}

/// A change that led to what is viewed.
#[derive(Clone, Copy)]
pub struct Change<'a> {
    pub before: &'a Project,
    pub edits: &'a [Edit],
}

/// What a view is made from.
pub struct Context<'a> {
    pub work: &'a Work,
    /// The project as it is, or as it would be.
    pub kept: &'a StoredProject,
    /// The last change, for what it did.
    pub change: Option<Change<'a>>,
    /// Whether a first answer is kept.
    pub keep: Keep,
}

/// The view of a project. A kept project always drafts, since every edit is checked; should one not, its problems are
/// all there is.
pub fn project_view(context: &Context<'_>) -> Result<ProjectView, StoreError> {
    let Context { work, kept, change, keep } = context;
    let project = &kept.project;
    let planned = project.plan().unwrap_or_else(|problems| Planned {
        draft: Draft::default(),
        finished: vec![],
        job: None,
        unassigned: vec![],
        blocks: vec![],
        fixed: None,
        problems,
    });
    let Laying { laid, failed } = laid(work, &kept.id, &planned, *keep)?;
    let ruler = project.ruler;
    let steps = laid
        .as_ref()
        .map(|l| cut_list(&l.job, &l.lay.cloths, &planned.draft.pieces, &planned.blocks))
        .unwrap_or_default();
    let missing = laid.as_ref().and_then(|l| l.missing(project, work));
    let lay = laid.as_ref().map(|l| lay_view(project, l, missing.as_ref(), &steps));
    let mut tally = tally(project, &planned, laid.as_ref());
    tally.missing = missing.as_ref().map(Missing::headline);
    if let (Some(Change { before, .. }), Some(now)) = (change, &laid)
        && let Some(was) = plan_and_lay(work, &kept.id, before)?
    {
        tally.change = difference(project, bought(project, &now.lay) - bought(before, &was.lay));
    }
    Ok(ProjectView {
        id: kept.id.clone(),
        revision: kept.revision,
        name: project.name.clone(),
        system: project.system.symbol().to_owned(),
        ruler: key(&ruler),
        ruler_name: ruler.name().to_owned(),
        undo: kept.undo.clone(),
        redo: kept.redo.clone(),
        came_along: change.map(|c| project.came_along(c.before, c.edits)).unwrap_or_default(),
        currency: project.currency.clone().unwrap_or_default(),
        bag: bag_view(project, &planned),
        pieces: pieces(project, &planned),
        seams: seams(project, &planned),
        parts: parts(project, &planned),
        cloths: cloth_views(project),
        choices: LayChoicesView {
            cuts: match project.lay.cuts {
                Cuts::Free => "free".into(),
                Cuts::Through => "through".into(),
            },
            print_may_lie: project.lay.print_may_lie,
            straps: project.lay.straps,
            join: project.lay.join,
            in_notches: project.lay.in_notches,
        },
        shopping_list: laid.as_ref().map(|l| shopping_list(project, &planned.draft, &l.job, &l.lay, missing.as_ref())),
        purchases: laid.as_ref().map(|l| purchase_views(project, l)).unwrap_or_default(),
        steps: steps.len() as u32,
        steps_done: project.steps_done,
        steps_of_making: project.steps_of_making(&planned.draft).len(),
        steps_made: project.steps_made(&planned.draft),
        has_notes: !project.notes.is_empty(),
        tries: project.tries.len(),
        tally,
        notices: notices(project, &planned, laid.as_ref(), missing.as_ref(), failed.as_deref()),
        problems: planned.problems.iter().cloned().map(ProblemView::from).collect(),
        lay_failed: failed,
        lay,
    })
}

fn tally(project: &Project, planned: &Planned, laid: Option<&Laid>) -> TallyView {
    TallyView {
        cloth: laid.map(|l| bought_text(project, &l.lay)),
        buys: laid.is_some_and(|l| bought(project, &l.lay) > Length::ZERO),
        missing: None,
        change: None,
        cost: laid.map(|l| cost_text(project, &l.lay)).filter(|t| !t.is_empty()),
        pieces: planned.draft.pieces.iter().filter(|p| p.is_bundled()).map(|p| p.count).sum(),
        used_percent: laid.map(used_percent),
        strap_drop: strap_drop(project, planned),
        holds: holds(planned),
    }
}

/// `+⅛ yd`, `−10 cm`, or nothing when it stayed.
fn difference(project: &Project, by: Length) -> Option<String> {
    let size = Length(by.0.abs());
    if size < shop_unit(project.system) / 8 {
        return None;
    }
    let sign = if by > Length::ZERO { "+" } else { "−" };
    Some(format!("{sign}{}", show_bought(size, project.system)))
}

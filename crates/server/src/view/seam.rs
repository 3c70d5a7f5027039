//! What is sewn to what, and how long it is on the seam line.

use bofta_core::bag::sewn::Told;
use bofta_core::project::{Planned, Project};
use serde::Serialize;
use utoipa::ToSchema;

/// A seam of the bag.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct SeamView {
    /// `base seam`.
    pub name: String,
    /// `Outer panel, base`.
    pub one: String,
    /// What it is sewn to; nothing where it is sewn to another of the same.
    pub other: Option<String>,
    /// How long it is on the line it is sewn on.
    pub length: String,
    /// How far from the edge it is sewn.
    pub seam: String,
    /// Both sides are equally long, but for what bringing sizes to the ruler adds.
    pub meets: bool,
    /// That one side is longer than the other by a line of the ruler or more, and what is done about it.
    pub apart: Option<String>,
}

impl From<Told> for SeamView {
    fn from(told: Told) -> Self {
        let Told { name, one, other, length, seam, meets, apart } = told;
        Self { name, one, other, length, seam, meets, apart }
    }
}

pub(super) fn seams(project: &Project, planned: &Planned) -> Vec<SeamView> {
    let seams = project.bag.seams(project.ruler);
    seams.iter().filter_map(|s| s.told(&planned.draft, project.ruler)).map(SeamView::from).collect()
}

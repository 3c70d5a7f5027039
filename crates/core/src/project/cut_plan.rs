//! The plan that is being cut. From the first cut on the draft, the job and the lay are kept as they were, so that no
//! later rule of drafting or laying moves the next cut.

use crate::bag::{Draft, Finished};
use crate::cutting::{Block, Step, cut_list};
use crate::lay::{Job, Lay};
use serde::{Deserialize, Serialize};

/// What was planned when cutting began.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct CutPlan {
    /// The bag as drafted, before anything was measured: what a measure is compared with.
    pub(super) drafted: Draft,
    /// The bag as it is cut.
    pub(super) draft: Draft,
    /// The finished sizes it comes to.
    pub(super) finished: Vec<Finished>,
    /// Blocks that panels are cut from.
    pub(super) blocks: Vec<Block>,
    /// Pieces, cloths and rules.
    pub(super) job: Job,
    /// What lies where.
    pub(super) lay: Lay,
    /// It was begun when the cuts were listed otherwise, so what is ticked off may not be what was cut.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub(super) relisted: bool,
}

// A lay compares by numbers only, none of them NaN.
impl Eq for CutPlan {}

impl CutPlan {
    /// Whether the cuts were listed otherwise when cutting began: how many are made then has to be checked by the maker.
    pub const fn is_relisted(&self) -> bool {
        self.relisted
    }

    /// The steps at the table.
    pub fn steps(&self) -> Vec<Step> {
        cut_list(&self.job, &self.lay.cloths, &self.draft.pieces, &self.blocks)
    }
}

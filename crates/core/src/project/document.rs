//! The document and what follows from it.

use super::cloth::ProjectCloth;
use crate::FieldProblem;
use crate::bag::{BoxedTote, Draft};
use crate::lay::{Cuts, Job, JobPiece, Rules};
use crate::measure::{Length, Ruler, System};
use crate::piece::{Grain, Part, PrintRule};
use crate::shape::Outline;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;

/// Which way straps run on the cloth.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "kebab-case")]
pub enum StrapLie {
    /// Whichever takes less cloth.
    #[default]
    Either,
    /// Along the selvedge, the strong direction.
    Along,
    /// Across the width.
    Across,
}

/// How the maker wants it laid.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct LayChoices {
    /// Free, or edge to edge.
    pub cuts: Cuts,
    /// The print may stand any way the grain allows.
    pub print_may_lie: bool,
    /// Which way straps run.
    pub straps: StrapLie,
    /// Corners are cut out with the panels, so small pieces may lie in them. Not where cuts run edge to edge.
    #[serde(default)]
    pub in_notches: bool,
}

/// A project as it is kept.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Project {
    /// Its name.
    pub name: String,
    /// The system it is measured in.
    pub system: System,
    /// The ruler at the table.
    pub ruler: Ruler,
    /// The bag.
    pub bag: BoxedTote,
    /// The cloths at hand or to be bought.
    pub cloths: Vec<ProjectCloth>,
    /// Cloths of each part, the first preferred.
    pub from: BTreeMap<Part, Vec<String>>,
    /// How it is laid.
    pub lay: LayChoices,
    /// Steps done at the table.
    pub steps_done: u32,
}

/// What a project comes to before it is laid.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Planned {
    /// The drafted bag.
    pub draft: Draft,
    /// The job, when every part has a cloth; else nothing.
    pub job: Option<Job>,
    /// Parts that have no cloth yet.
    pub unassigned: Vec<Part>,
    /// What keeps it from being laid.
    pub problems: Vec<FieldProblem>,
}

impl Project {
    /// A new project with a tote to start from and no cloth.
    pub fn new(name: impl Into<String>, system: System) -> Self {
        Self {
            name: name.into(),
            system,
            ruler: Ruler::usual(system),
            bag: BoxedTote::usual(system),
            cloths: vec![],
            from: BTreeMap::new(),
            lay: LayChoices::default(),
            steps_done: 0,
        }
    }

    /// The cloth with `id`.
    pub fn cloth(&self, id: &str) -> Option<&ProjectCloth> {
        self.cloths.iter().find(|c| c.id == id)
    }

    /// The cloth a part comes from in the first place.
    pub fn cloth_of(&self, part: Part) -> Option<&ProjectCloth> {
        self.from.get(&part)?.iter().find_map(|id| self.cloth(id))
    }

    /// Drafts the bag and states the lay job.
    ///
    /// # Errors
    /// The bag's fields that cannot stand.
    pub fn plan(&self) -> Result<Planned, Vec<FieldProblem>> {
        let draft = self.bag.draft(self.ruler)?;
        let unassigned: Vec<Part> = Part::ALL
            .into_iter()
            .filter(|part| draft.pieces.iter().any(|p| p.part == *part) && self.cloth_of(*part).is_none())
            .collect();
        if !unassigned.is_empty() {
            return Ok(Planned { draft, job: None, unassigned, problems: vec![] });
        }
        let job = self.job(&draft);
        let problems: Vec<FieldProblem> = job.check().err().into_iter().collect();
        let job = problems.is_empty().then_some(job);
        Ok(Planned { draft, job, unassigned, problems })
    }

    fn job(&self, draft: &Draft) -> Job {
        let pieces: Vec<JobPiece> = draft
            .pieces
            .iter()
            .map(|p| {
                let (width, height) = p.size();
                let nested = self.lay.in_notches && self.lay.cuts == Cuts::Free;
                let grain = match (p.part, self.lay.straps) {
                    (Part::Straps, StrapLie::Along) => Grain::Length,
                    (Part::Straps, StrapLie::Across) => Grain::Across,
                    _ => p.grain,
                };
                JobPiece {
                    id: p.id.to_owned(),
                    name: p.name.to_owned(),
                    count: p.count,
                    outline: if nested { p.outline() } else { Outline::Rect(width, height) },
                    grain,
                    print: if self.lay.print_may_lie { PrintRule::Ignore } else { p.print },
                    mirror: p.mirror,
                    cloths: self.from.get(&p.part).cloned().unwrap_or_default(),
                }
            })
            .collect();
        let used = |id: &str| pieces.iter().any(|p| p.cloths.iter().any(|c| c == id));
        let cloths = self.cloths.iter().filter(|c| used(&c.id)).map(ProjectCloth::for_job).collect();
        let keep = match self.system {
            System::Inches => Length::INCH * 5,
            System::Centimetres => Length::CENTIMETRE * 12,
        };
        let rules = Rules { cuts: self.lay.cuts, keep: (keep, keep), ..Rules::default() };
        Job { name: self.name.clone(), units: self.system, pieces, cloths, rules, pinned: vec![] }
    }
}

//! A project while it is being cut: its plan is fixed, and what still may change is worked out beside what is cut.

use super::cut_plan::CutPlan;
use super::document::{Planned, Project};
use crate::FieldProblem;
use crate::bag::Draft;
use crate::cloth::Cloth;
use crate::cutting::Step;
use crate::lay::{Job, Lay, verify};
use std::sync::Arc;

/// Why what is left could not be laid again beside what is cut.
#[derive(Clone, Debug, PartialEq)]
pub enum NotLaidAgain {
    /// A field that cannot stand.
    Problems(Vec<FieldProblem>),
    /// No lay was found, or it does not hold.
    NoLay(String),
}

impl Project {
    /// The project with `lay` fixed as the plan that is cut.
    ///
    /// # Errors
    /// What cannot stand, or that there is nothing to lay.
    pub fn begun(&self, lay: &Lay) -> Result<Self, Vec<FieldProblem>> {
        let (drafted, finished) = self.drafted()?;
        let planned = self.plan_of(drafted.clone(), finished);
        Ok(Self { cutting: Some(Arc::new(fixed(drafted, planned, lay.clone())?)), ..self.clone() })
    }

    /// All is cut anew, also what had been cut before something was measured.
    pub fn begin_again(&mut self) {
        self.steps_done = 0;
        self.cutting = None;
        self.measured.values_mut().for_each(|m| m.cut_before.clear());
    }

    /// The project as if nothing were cut, to try what it would be otherwise.
    #[must_use]
    pub fn uncut(&self) -> Self {
        let mut uncut = self.clone();
        uncut.begin_again();
        uncut
    }

    /// Names and prices may change while it is cut; they are all that does.
    pub(super) fn retell_cutting(&mut self) {
        // A plan of before says what is there by the cloth's own id.
        let now: Vec<Cloth> =
            self.cloths.iter().flat_map(|c| c.for_job(self.system).into_iter().chain([c.roll()])).collect();
        let Some(plan) = &mut self.cutting else { return };
        let plan = Arc::make_mut(plan);
        for cloth in &mut plan.job.cloths {
            if let Some(told) = now.iter().find(|c| c.id == cloth.id) {
                (cloth.name, cloth.price) = (told.name.clone(), told.price);
            }
        }
        plan.job.reprice(&mut plan.lay);
    }

    /// Something was measured while cutting goes on: what is cut stays as it lies, what follows from the measure and
    /// lies on cloth not begun is laid again by `lay`. `self` holds the new measures.
    ///
    /// # Errors
    /// A piece that follows from the measure and lies on cloth that is being cut; or that no lay was found.
    pub fn lay_the_rest(
        mut self,
        before: &Self,
        lay: impl FnOnce(&Job) -> Result<Lay, String>,
    ) -> Result<Self, NotLaidAgain> {
        let Some(was) = before.cutting.clone() else { return Ok(self) };
        let steps = was.steps();
        let done = &steps[..(before.steps_done as usize).min(steps.len())];
        let cut: Vec<String> = done.iter().flat_map(Step::frees).map(|f| f.piece.clone()).collect();
        for (piece, measured) in &mut self.measured {
            if before.measured.get(piece) != Some(&*measured) {
                measured.cut_before.extend(cut.iter().cloned());
            }
        }
        let now = self.plan_of(was.drafted.clone(), was.finished.clone());
        let Some(job) = &now.job else { return Err(NotLaidAgain::Problems(now.problems)) };
        let begun = |cloth: &String| done.iter().any(|s| s.on().is_some_and(|on| on.cloth == *cloth));
        for on in was.lay.cloths.iter().filter(|l| begun(&l.cloth)) {
            let changed = on.placements.iter().find(|p| job.piece(&p.piece) != was.job.piece(&p.piece));
            if let Some(piece) = changed.and_then(|p| was.job.piece(&p.piece)) {
                let cloth = before.cloth(&on.cloth).map_or(on.cloth.as_str(), |c| c.name.as_str());
                let message = format!(
                    "The size of {} follows from this measurement, and you have begun cutting {cloth}. Undo the cuts on it first, or cut the piece as planned.",
                    piece.name
                );
                return Err(NotLaidAgain::Problems(vec![FieldProblem::new("measured", &piece.name, message)]));
            }
        }
        if *job == was.job {
            let plan = fixed(was.drafted.clone(), now, was.lay.clone()).map_err(NotLaidAgain::Problems)?;
            return Ok(Self { cutting: Some(Arc::new(plan)), ..self });
        }
        let mut rest = lay(job).map_err(NotLaidAgain::NoLay)?;
        let fresh = std::mem::take(&mut rest.cloths);
        rest.cloths = was.lay.cloths.iter().filter(|l| begun(&l.cloth)).cloned().collect();
        rest.cloths.extend(fresh.into_iter().filter(|l| !begun(&l.cloth)));
        job.reprice(&mut rest);
        if !verify(job, &rest).is_empty() {
            return Err(NotLaidAgain::NoLay("Bofta found no layout for the rest of the cloth".to_owned()));
        }
        let plan = fixed(was.drafted.clone(), now, rest).map_err(NotLaidAgain::Problems)?;
        Ok(Self { cutting: Some(Arc::new(plan)), ..self })
    }
}

fn fixed(drafted: Draft, planned: Planned, lay: Lay) -> Result<CutPlan, Vec<FieldProblem>> {
    let Planned { draft, finished, job, blocks, problems, .. } = planned;
    let Some(job) = job else {
        let nothing = FieldProblem::new("steps_done", 0, "There is no layout yet. Give every part a cloth first.");
        return Err(if problems.is_empty() { vec![nothing] } else { problems });
    };
    Ok(CutPlan { drafted, draft, finished, blocks, job, lay, relisted: false })
}

//! What a scrap must be to be planned with.

use crate::FieldProblem;
use crate::measure::Length;
use crate::shape::{NoFit, Outline, SLIVER, convex_parts};

/// More flaws than these are not planned round.
pub const MOST_FLAWS: usize = 200;

/// Whether a scrap can be planned with; fields as in a job.
///
/// # Errors
/// Too many flaws, a sliver, or a flaw beside the scrap.
pub(crate) fn check_scrap(outline: &Outline, flaws: &[Outline]) -> Result<(), FieldProblem> {
    if flaws.len() > MOST_FLAWS {
        let message = format!("{} flaws: at most {MOST_FLAWS} of a scrap are planned round", flaws.len());
        return Err(FieldProblem::new("flaws", flaws.len(), message));
    }
    if outline.is_sliver() {
        return Err(FieldProblem::new("polygon", "", SLIVER));
    }
    let parts = convex_parts(&outline.corners());
    for (i, flaw) in flaws.iter().enumerate() {
        let within = convex_parts(&flaw.corners()).iter().any(|f| {
            // They overlap where neither is beside the other.
            parts
                .iter()
                .any(|p| NoFit::of(std::slice::from_ref(p), std::slice::from_ref(f), Length::ZERO).depth(0, 0) > 0.0)
        });
        if !within {
            let message = "lies outside the scrap: is it measured from the scrap's own axes?";
            return Err(FieldProblem::new(format!("flaws[{i}]"), "", message));
        }
    }
    Ok(())
}

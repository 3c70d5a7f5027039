//! Sizes measured on what is made, and what is still to be cut that follows from them.
//!
//! A drafted size is a sum of named terms. What was measured differs from what was drafted; every size still to be cut
//! in which the same finished sizes stand, so many times as often, differs by as much, so many times: a binding goes
//! twice round what a panel is once. Where only some of them stand it cannot be told which of them came out otherwise.

use crate::FieldProblem;
use crate::measure::{Length, Ruler};
use crate::piece::{Dimension, Piece, Term, When};
use serde::{Deserialize, Serialize};
use std::collections::{BTreeMap, BTreeSet};

/// A size measured on what is made.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Measured {
    /// Across, seams included.
    pub width: Length,
    /// Up, seams included.
    pub height: Length,
    /// Ids of pieces that were cut by then: they stay what they are.
    #[serde(default, skip_serializing_if = "BTreeSet::is_empty")]
    pub cut_before: BTreeSet<String>,
}

/// What was measured leaves no room for what is cut out of, or marked on, a piece that follows from it: a sentence of the first such piece.
pub(super) fn impossible(
    pieces: &[Piece],
    measured: &BTreeMap<String, Measured>,
    ruler: Ruler,
) -> Option<FieldProblem> {
    if measured.is_empty() {
        return None;
    }
    let piece = pieces.iter().find(|p| !p.can_be_cut())?;
    let show = |l: Length| ruler.show(l).text;
    let (width, height) = piece.size();
    let size = format!("{} × {} {}", show(width), show(height), ruler.system().symbol());
    let message = format!(
        "After what was measured {} would be cut {size}, too small for what is cut out of it or marked on it: measure again, or leave the measured sizes empty.",
        piece.name
    );
    Some(FieldProblem::new("measured", size, message))
}

/// Whether a piece is only known in the end by measuring it: cut to what is made, or trimmed once it is made up.
pub fn is_measured_later(piece: &Piece) -> bool {
    matches!(piece.when, When::Measured | When::OverAndTrimmed(_) | When::Pieced(_))
}

/// Brings `measured` to `pieces`: a piece cut to what is made becomes what was measured, and the others that are still
/// to be cut follow in the finished sizes (the fields of the bag in `sizes`) they share with it.
pub(super) fn propagate(
    pieces: &mut [Piece],
    measured: &BTreeMap<String, Measured>,
    sizes: &BTreeSet<&'static str>,
    ruler: Ruler,
) {
    for (id, as_made) in measured {
        let Some(at) = pieces.iter().position(|p| p.id == *id && is_measured_later(p)) else { continue };
        let drafted = pieces[at].clone();
        let over = match drafted.when {
            When::OverAndTrimmed(over) => over,
            _ => Length::ZERO,
        };
        let changed = [
            (shares(&drafted.width, sizes), as_made.width - (drafted.width.size - over)),
            (shares(&drafted.height, sizes), as_made.height - (drafted.height.size - over)),
        ];
        if drafted.when == When::Measured {
            let size = |size| Dimension { size, terms: vec![Term::once("as measured", size, "measured")] };
            pieces[at].resize(size(as_made.width), size(as_made.height));
        }
        let waits = |p: &Piece| {
            let other =
                p.id != *id && !measured.contains_key(p.id.as_ref()) && !as_made.cut_before.contains(p.id.as_ref());
            // What lies behind it was quilted or fused with it; what else is cut over is cut before it is made.
            other && p.backs.as_deref() != Some(id) && !matches!(p.when, When::OverAndTrimmed(_))
        };
        for piece in pieces.iter_mut().filter(|p| waits(p)) {
            let (mut width, mut height) = (piece.width.clone(), piece.height.clone());
            for (shared, by) in &changed {
                for side in [&mut width, &mut height] {
                    if let Some(by) = so_many_times(&shares(side, sizes), shared, *by).filter(|by| *by != Length::ZERO)
                    {
                        let mut terms: Vec<Term> = side.terms.iter().filter(|t| t.field.is_some()).cloned().collect();
                        terms.push(Term::once("as measured on the finished piece", by, "measured"));
                        *side = Dimension::sum(terms, ruler);
                    }
                }
            }
            piece.resize(width, height);
        }
    }
}

/// How much of each finished size stands in a drafted size.
fn shares<'a>(side: &'a Dimension, sizes: &BTreeSet<&'static str>) -> BTreeMap<&'a str, i64> {
    let mut found = BTreeMap::new();
    for term in &side.terms {
        if let Some(field) = term.field.as_deref().filter(|f| sizes.contains(f)) {
            *found.entry(field).or_insert(0) += term.value().0;
        }
    }
    found.retain(|_, v| *v != 0);
    found
}

/// `by` as often as all of `part` stands in `whole`, in the same proportions and whatever else stands there; nothing
/// when it does not.
fn so_many_times(whole: &BTreeMap<&str, i64>, part: &BTreeMap<&str, i64>, by: Length) -> Option<Length> {
    let (field, one) = part.first_key_value()?;
    let many = *whole.get(field)?;
    let same = part.iter().all(|(field, value)| {
        whole.get(field).is_some_and(|w| i128::from(*w) * i128::from(*one) == i128::from(*value) * i128::from(many))
    });
    (same && many.signum() == one.signum())
        .then(|| Length((i128::from(by.0) * i128::from(many) / i128::from(*one)) as i64))
}

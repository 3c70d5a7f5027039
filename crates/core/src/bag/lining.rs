//! A lining that is a little smaller than its outer on each side and at the base, so that it does not bag: by 1/8 in, or 3 mm
//! where the ruler is metric. Common practice.

use super::draft::Notice;
use super::problems::Problems;
use crate::measure::{Length, Ruler, default_length};
use crate::piece::Term;

/// By how much it is smaller, on each side and at the base.
pub(super) fn ease(ruler: Ruler) -> Length {
    default_length(ruler.system(), 1, 3)
}

/// What that takes off a panel's width, chosen in `field`.
pub(super) fn across(ruler: Ruler, field: &'static str) -> Term {
    Term::times("smaller each side", -2, ease(ruler), field)
}

/// What it takes off the height, for every end that goes down to the base.
pub(super) fn up(ruler: Ruler, field: &'static str) -> Term {
    Term::times("smaller at the base", -1, ease(ruler), field)
}

/// How both edges meet all the same along `edge`: `Round the mouth`.
pub(super) fn notice(edge: &str, field: &'static str, ruler: Ruler) -> Notice {
    let show = |l: Length| Problems::new(ruler).show(l);
    let text = format!(
        "{edge} the lining is {} shorter than the outer: sew its side seams {} narrower in their last {}, so that both edges meet.",
        show(ease(ruler) * 4),
        show(ease(ruler)),
        show(default_length(ruler.system(), 8, 25))
    );
    Notice::note(field, text)
}

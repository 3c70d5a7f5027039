//! What is sewn to what, and how long it is on the seam line.

use bofta_core::bag::sewn::Stretch;
use bofta_core::measure::Length;
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

pub(super) fn seams(project: &Project, planned: &Planned) -> Vec<SeamView> {
    let (draft, ruler) = (&planned.draft, project.ruler);
    let show = |l: Length| format!("{} {}", ruler.show(l.round_to(ruler.step())).text, project.system.symbol());
    let named = |s: &Stretch| {
        let piece = draft.piece(&s.piece).map_or(s.piece.as_ref(), |p| p.name.as_ref());
        format!("{piece}, {}", s.edge.name())
    };
    let view = |seam: bofta_core::bag::sewn::Seam| {
        let [one, other] = seam.lengths(draft)?;
        let (longer, by) = if one >= other { (&seam.sides[0], one - other) } else { (&seam.sides[1], other - one) };
        let apart = if seam.ease > Length::ZERO {
            Some(format!("{} is {} longer on purpose", named(&seam.sides[0]), show(seam.ease)))
        } else {
            (by >= ruler.step()).then(|| {
                format!("{} is {} longer, from sizes brought up to the ruler: ease it in", named(longer), show(by))
            })
        };
        // Sizes, corners and a curve are each brought up to a line.
        let meets = seam.exact(draft).is_none_or(|[one, other]| (one - other).0.abs() <= ruler.step().0 * 2);
        Some(SeamView {
            meets,
            name: seam.name.to_string(),
            one: named(&seam.sides[0]),
            other: (seam.sides[0] != seam.sides[1]).then(|| named(&seam.sides[1])),
            length: show(one),
            seam: show(seam.sides[0].seam),
            apart,
        })
    };
    project.bag.seams(ruler).into_iter().filter_map(view).collect()
}

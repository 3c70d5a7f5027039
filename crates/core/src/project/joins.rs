//! Bindings and straps longer than their cloth: strips joined end to end, on the diagonal or straight across.

use super::Project;
use crate::bag::Draft;
use crate::bag::binding::{self, Join};
use crate::measure::{Length, Ruler};
use crate::piece::{Dimension, Grain, Part, Piece, Term};

/// Joins what is longer than its cloth, as the maker joins.
pub(super) fn join(project: &Project, draft: &mut Draft) {
    let seam = project.bag.length("seam_side").unwrap_or(Length::inches(1, 2));
    let how = (project.lay.join, seam);
    for piece in &mut draft.pieces {
        let Some(cloth) = project.cloth_for(piece) else { continue };
        let (longest, fields, advice) = match piece.part {
            Part::Binding => {
                (Some(cloth.widest()), ("binding_width", "binding_fold"), "keep the joins off the corners")
            }
            Part::Straps => (
                project.longest_strap(cloth),
                ("strap_length", "strap_width"),
                "keep the joins off the shoulder and the ends",
            ),
            _ => continue,
        };
        if let Some(longest) = longest {
            join_strips(piece, longest, fields, advice, how, project.ruler);
        }
    }
}

/// The piece as strips of at most `longest` where it is longer; `advice` says where not to join.
fn join_strips(
    piece: &mut Piece,
    longest: Length,
    (of_length, of_width): (&'static str, &'static str),
    advice: &str,
    (join, seam): (Join, Length),
    ruler: Ruler,
) {
    let (width, length) = piece.size();
    let Some(n) = binding::strips(length, longest, join, width, seam).filter(|n| *n > 1) else { return };
    let lost = binding::join_costs(join, width, seam);
    let strips = i64::from(n);
    let share = |all: Length| Length((all.0 + strips - 1) / strips);
    piece.height = Dimension::sum(
        vec![
            Term::once("share of the whole length", share(length), of_length),
            Term::once("share of the joins", share(lost * (strips - 1)), of_width),
        ],
        ruler,
    );
    piece.count *= n;
    piece.grain = Grain::Either;
    piece.joined = true;
    let how = match join {
        Join::Diagonal => "on the diagonal, which lies flat",
        Join::Straight => "straight across, which takes less",
    };
    let whole = ruler.show(length).text;
    piece.note = Some(format!("each from {n} strips joined {how}: {advice}; {whole} long in all").into());
}

//! How front and back of a body meet at its base.

use super::draft::Notice;
use super::field::choice;
use crate::measure::{Length, Ruler};
use crate::piece::{From, Mark, Piece};
use crate::shape::Point;

choice! {
    /// How front and back meet at the base.
    BaseJoin {
        /// Two panels, a seam at the base.
        Seam = "seam", "Two panels", "a seam at the base; each stands as printed";
        /// One piece over the base.
        Fold = "fold", "One piece, folded at the base", "no base seam; the back of a one-way print hangs upside down";
    }
}

impl BaseJoin {
    /// What cloth that goes on over the base does to its print.
    pub(super) fn notice(self) -> Option<Notice> {
        let text = "In one piece over the base the back hangs upside down: split it at the base for a one-way print.";
        (self == Self::Fold).then(|| Notice::note("base", text))
    }

    /// Where a lining is left open to turn the bag through: in the middle of its base seam; over a fold, in one side seam.
    /// `panel` is the lining as it is cut, `seams` what is sewn at its top and at its base, and the gap is at most `most`
    /// long.
    pub(super) fn turning_gap(self, panel: &Piece, seams: (Length, Length), most: Length, ruler: Ruler) -> Mark {
        match self {
            Self::Seam => gap_in_base(panel, seams.1, most, ruler),
            Self::Fold => gap_in_side(panel, seams, most, "left open in one side seam", ruler),
        }
    }
}

/// The stretch of an outline's edge that `runs` picks, between the ends that `at` gives: the longest there is.
fn stretch(panel: &Piece, runs: fn(&Point, &Point) -> bool, at: fn(&Point) -> Length) -> (Length, Length) {
    let corners = panel.outline().corners();
    let edges = corners.iter().zip(corners.iter().cycle().skip(1)).filter(|(a, b)| runs(a, b));
    let ends = edges.map(|(a, b)| (at(a).min(at(b)), at(a).max(at(b))));
    ends.max_by_key(|(from, to)| *to - *from).unwrap_or_default()
}

fn said(length: Length, ruler: Ruler) -> String {
    format!("{} {} long", ruler.show(length).text, ruler.system().symbol())
}

/// A gap in the middle of a straight base: between what is cut out of its corners, a third of it or `most`.
fn gap_in_base(panel: &Piece, seam: Length, most: Length, ruler: Ruler) -> Mark {
    let (from, to) = stretch(panel, |a, b| a.y == Length::ZERO && b.y == Length::ZERO, |p| p.x);
    let sewn = seam.floor_to(ruler.step());
    if to <= from {
        // A round base has no straight stretch: the gap lies in the curve, about where it is lowest.
        let long = most.min(panel.width.size / 4).floor_to(ruler.step());
        let name = format!("middle of the turning gap, {} along the curved seam, left open", said(long, ruler));
        let and = Some((sewn, From::BaseEdge));
        return Mark { boxes: false, share: false, name: name.into(), distance: Length::ZERO, from: From::Middle, and };
    }
    let half = (most / 2).min((to - from) / 4).floor_to(ruler.step());
    let name = format!("turning gap, {}, left open in one base seam", said(half * 2, ruler));
    let and = Some((sewn, From::BaseEdge));
    Mark { boxes: false, share: false, name: name.into(), distance: half, from: From::Middle, and }
}

/// A gap in the middle of a side seam, above what is cut out of the corner: half of the seam or `most`.
pub(super) fn gap_in_side(
    panel: &Piece,
    (top, base): (Length, Length),
    most: Length,
    left: &str,
    ruler: Ruler,
) -> Mark {
    let upright = |a: &Point, b: &Point| (b.y - a.y).0.abs() > (b.x - a.x).0.abs();
    let (from, to) = stretch(panel, upright, |p| p.y);
    // What is sewn at the ends of the seam leaves no room for a gap.
    let (from, to) = (from + base, to - top);
    let long = most.min((to - from) / 2).floor_to(ruler.step());
    let middle = ((from + to) / 2).floor_to(ruler.step());
    let name = format!("middle of the turning gap, {}, {left}", said(long, ruler));
    let distance = (panel.height.size - middle).floor_to(ruler.step());
    Mark { boxes: false, share: false, name: name.into(), distance, from: From::TopEdge, and: None }
}

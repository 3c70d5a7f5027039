//! Boxing: making a flat bag stand by sewing its lower corners across. Common practice throughout.

use super::draft::Notice;
use super::field::choice;
use super::problems::Problems;
use crate::measure::{Length, Ruler};
use crate::piece::{Dimension, Figure, Term};

choice! {
    /// How the corners are boxed.
    Boxing {
        /// Cut out at the table, measured from the raw edges, and seamed.
        CutOut = "cut-out", "Cut out", "at the table, measured from the raw edges, then seamed";
        /// Squares drawn from the seam lines and sewn on the drawn line; trimmed after.
        SeamLines = "seam-lines", "Drawn from the seam lines", "sewn on the drawn line, trimmed after";
        /// Side seam folded on base seam and sewn across where the triangle is as wide as the bag is deep.
        SewnAcross = "sewn-across", "Sewn across", "side seam on base seam; the corner may stay in";
        /// The base folded up between the panels before the side seams, which catch its folds: as a paper bag stands.
        FoldedIn = "folded-in", "Folded in, as a paper bag", "the base folded up between the panels, caught in the side seams";
    }
}

/// Which line a drawn square of side `c` is measured from, and what is sewn.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Square {
    /// From the raw edges, cut out and seamed.
    CutFromRawEdges,
    /// From the seam lines, sewn on the drawn line.
    SewnFromSeamLines,
    /// From the raw edges but sewn on the drawn line: the usual mistake.
    SewnFromRawEdges,
}

/// The depth a square of side `square` gives, with seams `seam` at side and base and `boxing` across the corner.
pub fn depth_of_square(square: Length, drawn: Square, seam: Length, boxing: Length) -> Length {
    match drawn {
        Square::CutFromRawEdges => (square + boxing - seam) * 2,
        Square::SewnFromSeamLines => square * 2,
        Square::SewnFromRawEdges => (square - seam) * 2,
    }
}

/// Sewn across: (length of the seam across the triangle, its distance from the tip along the seams).
pub fn across(depth: Length) -> (Length, Length) {
    (depth, depth / 2)
}

/// A seam of the bag: how wide it is, and its field.
pub type Named = (Length, &'static str);

/// What is cut out of a corner so that the bag stands `depth` deep.
///
/// On the seam lines both legs of a corner are half as long as the bag is deep. A leg is cut from the raw edge, so it
/// takes the seam of its edge, and the seam across the corner takes its own allowance of it: depth/2 + side − boxing
/// across, depth/2 + base − boxing up.
#[derive(Clone, Copy, Debug)]
pub struct Corner {
    /// Finished depth.
    pub depth: Length,
    /// Side seam.
    pub side: Named,
    /// Seam along the base; nothing where the cloth goes on over it.
    pub base: Option<Named>,
    /// Seam across the corner.
    pub boxing: Named,
}

impl Corner {
    fn leg(&self, edge: Option<(&'static str, Named)>, ruler: Ruler) -> Dimension {
        let mut terms = vec![Term::once("half the depth", self.depth / 2, "depth")];
        let seam = edge.map_or(Length::ZERO, |(_, (seam, _))| seam);
        // Equal seams cancel out.
        if seam != self.boxing.0 {
            terms.extend(edge.map(|(name, (seam, field))| Term::once(name, seam, field)));
            terms.push(Term::times("less the boxing seam", -1, self.boxing.0, self.boxing.1));
        }
        Dimension::sum(terms, ruler)
    }

    /// In from the side.
    pub fn across(&self, ruler: Ruler) -> Dimension {
        self.leg(Some(("side seam", self.side)), ruler)
    }

    /// Up from the base.
    pub fn up(&self, ruler: Ruler) -> Dimension {
        self.leg(self.base.map(|base| ("base seam", base)), ruler)
    }

    /// Both lower corners of a panel cut out, or a notch at the fold.
    pub fn figure(&self, ruler: Ruler) -> Figure {
        let (across, up) = (self.across(ruler), self.up(ruler));
        if self.base.is_some() { Figure::CutOut { across, up } } else { Figure::CutAtFold { across, up } }
    }

    /// That legs differ, where they do: people expect squares.
    pub(super) fn notice(&self, ruler: Ruler) -> Option<Notice> {
        let (across, up) = (self.across(ruler).size, self.up(ruler).size);
        let show = |l: Length| Problems::new(ruler).show(l);
        (across != up).then(|| {
            let (across, up) = (show(across), show(up));
            let text = if self.base.is_some() {
                format!("Side and base seams differ, so the corners are no squares: {across} across, {up} up, and their edges meet.")
            } else {
                format!("The fold takes no seam, so the notches are no squares: {across} across, {up} to either side of the fold, and their edges meet.")
            };
            Notice::note(self.boxing.1, text)
        })
    }

    /// A seam across the corner that takes more than there is to cut out.
    pub(super) fn problems(&self, problems: &mut Problems) {
        let least = self.base.map_or(self.side.0, |(base, _)| base.min(self.side.0));
        let most = self.depth / 2 + least;
        if self.boxing.0 >= most {
            let message = format!(
                "The seam across the corners is {}: for a bag {} deep it must be less than {}, or nothing is left to cut out.",
                problems.show(self.boxing.0),
                problems.show(self.depth),
                problems.show(most)
            );
            problems.refuse(self.boxing.1, self.boxing.0, message);
        }
    }
}

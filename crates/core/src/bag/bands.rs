//! A panel in bands of different cloths: what each is cut so that together they are the panel. Common practice.
//!
//! Bands show so much of the face each, from the mouth down or from the left; the last takes the rest. The first has the
//! panel's own allowance at its outer edge, every seam between two takes its allowance of both: the cuts add up to the
//! panel + 2 × seam × (n − 1).

use super::field::choice;
use super::parts::ClothOf;
use crate::FieldProblem;
use crate::measure::{Length, Ruler};
use crate::piece::{Dimension, From, Mark, Part, Patches, Piece, Term, When};

choice! {
    /// Which way bands lie.
    BandsRun {
        /// One below the other.
        Across = "across", "One below the other", "each from side to side";
        /// One beside the other.
        Along = "along", "Side by side", "each from top to base";
    }
}

/// The bands of one panel.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Bands {
    /// How they lie.
    pub run: BandsRun,
    /// How much of each but the last shows; none for a panel in one.
    pub show: Vec<Length>,
    /// Their cloths in the same order, the last included; where it says nothing, the panel's own and the contrast by turns.
    pub cloths: Vec<ClothOf>,
}

impl Bands {
    /// A panel in one.
    pub fn none() -> Self {
        Self { run: BandsRun::Across, show: vec![], cloths: vec![] }
    }

    /// How many there are; 1 is none.
    pub fn count(&self) -> usize {
        self.show.len() + 1
    }

    /// Whose cloth the band `n` of a panel of `part` is.
    pub fn part(&self, n: usize, part: Part) -> Part {
        let other = if part == Part::Contrast { Part::Outer } else { Part::Contrast };
        self.cloths.get(n).map_or(if n.is_multiple_of(2) { part } else { other }, |c| c.part())
    }

    /// `panel`, its bands, and the seams marked on it; `edge` is what the panel has beyond its face at the side the first
    /// band lies at, `seam` what is between two.
    ///
    /// # Errors
    /// A band that shows nothing, or that nothing is left for the last.
    pub fn of(&self, panel: Piece, edge: Length, seam: Length, ruler: Ruler) -> Result<Vec<Piece>, FieldProblem> {
        let across = self.run == BandsRun::Across;
        let whole = if across { panel.height.size } else { panel.width.size };
        let shown: Length = self.show.iter().copied().sum();
        let rest = whole - edge - shown;
        let show = |l: Length| format!("{} {}", ruler.show(l).text, ruler.system().symbol());
        let name = panel.name.to_lowercase();
        if let Some(none) = self.show.iter().find(|b| **b <= Length::ZERO) {
            let message = format!("A band of {name} shows {}: it must be more than 0.", show(*none));
            return Err(FieldProblem::new("bands", show(*none), message));
        }
        if rest <= seam {
            let message = format!(
                "The bands of {name} come to {}: of {} nothing is left for the last.",
                show(shown),
                show(whole - edge)
            );
            return Err(FieldProblem::new("bands", show(shown), message));
        }
        let last = self.show.len();
        let cut = |n: usize| {
            let mut terms = vec![];
            if n == last {
                terms.push(Term::once("what is left of the panel", rest, "bands"));
                terms.push(Term::once("seam above it", seam, "patch_seam"));
            } else {
                terms.push(Term::once("shows", self.show[n], "bands"));
                terms.push(Term::once("the panel’s edge", if n == 0 { edge } else { Length::ZERO }, "bands"));
                terms.push(Term::times("seams", if n == 0 { 1 } else { 2 }, seam, "patch_seam"));
            }
            Dimension::sum(terms, ruler)
        };
        let band = |n: usize| {
            let (width, height) = if across { (panel.width.clone(), cut(n)) } else { (cut(n), panel.height.clone()) };
            let title = format!("{}, band {}", panel.name, n + 1);
            let piece =
                Piece::new(format!("{}-band-{}", panel.id, n + 1), title, self.part(n, panel.part), width, height);
            Piece { grain: panel.grain, print: panel.print, patch_of: Some(panel.id.clone()), ..piece }
                .times(panel.count)
                .noted(if n == 0 { "the first: its outer edge is the panel’s" } else { "sewn to the band before it" })
        };
        let bands: Vec<Piece> = (0..=last).map(band).collect();
        let mut at = edge;
        let marks: Vec<Mark> = self
            .show
            .iter()
            .map(|shows| {
                at += *shows;
                let from = if across { From::TopEdge } else { From::LeftEdge };
                Mark {
                    boxes: false,
                    share: false,
                    name: "seam between two bands".into(),
                    distance: at,
                    from,
                    and: None,
                }
            })
            .collect();
        let panel = panel.cut(When::Pieced(Patches::Bands)).marked(marks);
        Ok([vec![panel], bands].concat())
    }
}

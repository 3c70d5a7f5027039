//! What cannot stand on a tote, each named by its field.

use super::{LiningFit, Tote};
use crate::FieldProblem;
use crate::bag::boxing::Boxing;
use crate::bag::field::Choice;
use crate::bag::mouth::Mouth;
use crate::bag::piecing::Piecing;
use crate::bag::pocket::PocketKind;
use crate::bag::problems::Problems;
use crate::bag::strap;
use crate::measure::{LONGEST, Length, Ruler};

impl Tote {
    /// All that cannot stand, each named by its field.
    pub(super) fn problems(&self, ruler: Ruler) -> Result<(), Vec<FieldProblem>> {
        let mut problems = Problems::new(ruler);
        let show = |l: Length| Problems::new(ruler).show(l);
        problems.size("width", "width", self.width);
        problems.size("height", "height", self.height);
        if self.depth != Length::ZERO {
            problems.size("depth", "depth", self.depth);
        }
        if self.depth > self.width {
            let message = format!(
                "The depth is {}: at most the width, {}, is allowed. For a bag deeper than wide, swap the two.",
                show(self.depth),
                show(self.width)
            );
            problems.refuse("depth", self.depth, message);
        }
        problems.seam("seam_side", "side seam", self.seam_side, self.width / 2, "half the width");
        if !self.folded() {
            problems.seam("seam_base", "base seam", self.seam_base, self.height, "the height");
        }
        if self.boxed() {
            problems.seam("seam_boxing", "boxing seam", self.seam_boxing, self.depth / 2, "half the depth");
        }
        self.rise.problems(self.width + self.depth, self.width, &mut problems);
        self.mouth.problems(self.height, &mut problems);
        self.mouth.zip_problems(self.width, self.depth, &mut problems);
        if !self.lined() {
            self.seam_kind.problems(self.seam_side, &mut problems);
        }
        let mut found = problems.end().err().unwrap_or_default();
        if self.mouth.needs_lining() && !self.lined() {
            found.push(self.mouth.unlined_problem());
        }
        if self.lining == LiningFit::Border && self.mouth.kind != Mouth::TurnedThrough {
            let message =
                "A band of lining shows above a mouth that is turned through: choose that mouth, or another lining.";
            found.push(FieldProblem::new("lining", self.lining.answer().key, message));
        }
        if self.lining == LiningFit::Reversible && !self.may_be_reversed() {
            let message = "A reversible bag is turned through, bound or banded at the mouth: a hem, a facing or a lining dropped in has a wrong side.";
            found.push(FieldProblem::new("lining", self.lining.answer().key, message));
        }
        found.extend(self.rise_problems());
        if self.front.piecing != Piecing::Whole && self.folded() {
            found.push(FieldProblem::new(
                "front",
                self.front.piecing.answer().key,
                "A pieced front is a panel of its own: make the tote of two panels.",
            ));
        }
        if self.boxed() && self.boxing == Boxing::FoldedIn && !self.folded() {
            found.push(FieldProblem::new(
                "boxing",
                self.boxing.answer().key,
                "A base is folded in where the cloth goes on over it: make the tote in one piece, folded at the base, first.",
            ));
        }
        let mut rest = Problems::new(ruler);
        if self.front.piecing != Piecing::Whole {
            rest.with(self.front.problem(ruler));
            rest.seam("patch_seam", "seam between patches", self.front.seam, self.width / 4, "a quarter of the width");
        }
        self.strap_problems(&mut rest, &show);
        self.extras.problems(&mut rest);
        if self.lining == LiningFit::Border {
            rest.between(
                "lining_border",
                "band of lining",
                self.lining_border,
                Length::MILLIMETRE * 3,
                self.height / 4,
            );
        }
        if self.pocket().kind != PocketKind::None {
            self.pocket.problems(self.clear_face(), self.height, &mut rest);
        }
        found.extend(rest.end().err().unwrap_or_default());
        if found.is_empty() { Ok(()) } else { Err(found) }
    }

    /// Walls that slant or are taken in beside what can only be straight.
    fn rise_problems(&self) -> Vec<FieldProblem> {
        let (rising, mut found) = (self.rise.rising.answer(), vec![]);
        if !self.rise.is_straight() && !self.may_be_reversed() {
            let message = format!(
                "{}: a mouth that is finished with “{}” is as wide as the bag. Have it turned through, bound or banded, or the walls straight up.",
                rising.name,
                self.mouth.kind.answer().name
            );
            found.push(FieldProblem::new("rising", rising.key, message));
        }
        if self.rise.slants() && self.folded() {
            let message = "Slanting sides meet at a base seam: make the tote of two panels, or the walls straight up.";
            found.push(FieldProblem::new("rising", rising.key, message));
        }
        if self.rise.slants() && self.boxed() && self.boxing != Boxing::SewnAcross {
            let message =
                "Beside a slanting side a corner is no square: sew the corners across, or make the walls straight up.";
            found.push(FieldProblem::new("boxing", self.boxing.answer().key, message));
        }
        found
    }

    fn strap_problems(&self, problems: &mut Problems, show: &dyn Fn(Length) -> String) {
        if !self.straps {
            return;
        }
        let spacing = self.strap_spacing();
        if self.strap_width < Length::MILLIMETRE * 5 || self.strap_width > self.width / 2 {
            let message = format!(
                "The strap is {} wide: between 5 mm and half the bag's width, {}, is allowed.",
                show(self.strap_width),
                show(self.width / 2)
            );
            problems.refuse("strap_width", self.strap_width, message);
        } else if spacing < self.strap_width || self.strap_inset < Length::ZERO {
            let message = format!(
                "From the edge of the face to the strap is {}: between 0 and {} is allowed, or the strap’s ends meet.",
                show(self.strap_inset),
                show((self.mouth_face() - self.strap_width * 2) / 2)
            );
            problems.refuse("strap_inset", self.strap_inset, message);
        } else if strap::drop(self.strap_length, spacing).is_none() {
            let message = format!(
                "{} of strap showing does not span the {} between its ends: make it longer.",
                show(self.strap_length),
                show(spacing)
            );
            problems.refuse("strap_length", self.strap_length, message);
        } else if self.strap_length > LONGEST / 4 {
            let message = format!("{} of strap: at most 5 m is allowed.", show(self.strap_length));
            problems.refuse("strap_length", self.strap_length, message);
        }
    }
}

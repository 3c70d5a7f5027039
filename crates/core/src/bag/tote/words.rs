//! What a tote has to say: what to look at, and how it is sewn.

use super::{LiningFit, StrapEnds, Tote};
use crate::bag::boxing::{self, Boxing};
use crate::bag::draft::Notice;
use crate::bag::lining;
use crate::bag::order::{Phase, Step, in_order};
use crate::bag::piecing::Piecing;
use crate::bag::problems::Problems;
use crate::bag::strap;
use crate::measure::{Length, Ruler};
use std::borrow::Cow;

impl Tote {
    pub(super) fn notices(&self, ruler: Ruler, strap_drop: Option<Length>) -> Vec<Notice> {
        let show = |l: Length| Problems::new(ruler).show(l);
        let mut found = Vec::new();
        if self.depth > self.width / 2 {
            let text = format!("Boxed {} deep, more than half the width: the bag stands squat.", show(self.depth));
            found.push(Notice::attention("depth", text));
        }
        if self.boxed() {
            let text =
                format!("Boxing takes {} off the height; the panels are cut taller for it.", show(self.depth / 2));
            found.push(Notice::note("depth", text));
        }
        found.extend(self.rise.notice(self.width + self.depth, &show));
        if let Some(drop) = strap_drop {
            let (likely_wrong, text) = strap::about_drop(drop, &show, ruler);
            let notice = if likely_wrong { Notice::attention } else { Notice::note };
            found.push(notice("strap_length", text));
        }
        found.extend(self.pocket().notices(self.height - self.pocket.below, &show));
        if self.boxing == Boxing::SeamLines && self.boxed() {
            let wrong = boxing::depth_of_square(
                self.depth / 2,
                boxing::Square::SewnFromRawEdges,
                self.seam_side,
                self.seam_boxing,
            );
            let text = format!(
                "The corner squares are {} from the seam lines. Drawn from the raw edges and sewn on the line they would make the bag only {} deep.",
                show(self.depth / 2),
                show(wrong.max(Length::ZERO))
            );
            found.push(Notice::note("boxing", text));
        }
        found.extend(self.base.notice());
        if (self.front.piecing != Piecing::Whole || self.quilted) && self.boxing == Boxing::CutOut && self.boxed() {
            found.push(Notice::note(
                "boxing",
                "The corners of a pieced or quilted panel are cut after it is trimmed, so nothing lies in them.",
            ));
        }
        if self.lining == LiningFit::Smaller {
            found.push(lining::notice("Round the mouth", "lining", ruler));
        }
        if self.lining == LiningFit::Reversible {
            if self.strap_ends == StrapEnds::Outside && self.straps {
                let text = "Straps sewn on the outside show their stitching on the other side, which is an outside too: take them into the mouth.";
                found.push(Notice::attention("strap_ends", text));
            }
            if self.backing.is_some() {
                let text = "Neither side of a reversible bag is hidden: the backing lies between them, so its edges are trimmed before the bag is turned.";
                found.push(Notice::note("backing", text));
            }
        }
        found
    }

    pub(super) fn steps(&self, ruler: Ruler) -> Vec<Step> {
        let mut steps: Vec<Step> = Vec::new();
        let mut add = |phase, key: &'static str, text: Cow<'static, str>| steps.push(Step::new(phase, key, text));
        if self.front.piecing != Piecing::Whole {
            add(Phase::Bare, "piece-front-panel", "Piece the front and trim it to the panel’s size.".into());
        }
        if self.quilted {
            add(
                Phase::Backed,
                "quilt-outer-panel",
                "Quilt the outer from the middle out, then trim it to size.".into(),
            );
        }
        if self.straps {
            add(Phase::Small, "straps", "Make the straps.".into());
        }
        if let Some(step) = self.rise.step(ruler) {
            add(Phase::Flat, "take-in", step.into());
        }
        let folded_in = self.boxed() && self.boxing == Boxing::FoldedIn;
        if folded_in {
            let text = "Fold every body right sides together, its base up between the panels: both folds of the base lie on each other.";
            add(Phase::Outer, "fold-base", text.into());
        }
        let base = if self.folded() { "" } else { " and the base" };
        let sides = if self.lined() {
            format!("Join the outer at the sides{base}.").into()
        } else {
            self.seam_kind.step(self.seam_side, base, ruler).into()
        };
        add(Phase::Outer, "outer", sides);
        if folded_in {
            let text = "The side seams go through four layers at the folded base: turn, and press the base flat.";
            add(Phase::Outer, "turn-base", text.into());
        } else if self.boxed() {
            add(Phase::Outer, "corners", "Box the corners.".into());
        }
        let own = self.backing.step().into_iter().chain(self.pocket().step());
        let mouth = if self.lining == LiningFit::Reversible && self.mouth.needs_gap() {
            vec![
                Step::new(Phase::Lining, "lining", "Sew the lining the same way, all round: there is no gap in it."),
                Step::new(
                    Phase::Together,
                    "mouth",
                    "Outer into lining, right sides together: sew round the mouth with the straps between, a gap between two strap ends; turn through it.",
                ),
                Step::new(
                    Phase::Together,
                    "close-gap",
                    "Press the gap’s edges in and topstitch all round the mouth: that closes it.",
                ),
            ]
        } else {
            self.mouth.steps(self.lined())
        };
        in_order(own.chain(steps).chain(mouth))
    }
}

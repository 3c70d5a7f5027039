//! Pockets: a pocket is one thing, whatever bag it is sewn on. Common practice.

use super::draft::{Hardware, Notice};
use super::field::choice;
use super::zip::zip;
use crate::measure::{Length, Ruler};
use crate::piece::{Dimension, From, Mark, Part, Piece, Term};

choice! {
    /// The pocket on the lining.
    PocketKind {
        /// None.
        None = "no", "None", "";
        /// Doubled, folded at its top edge.
        Slip = "yes", "Slip pocket", "doubled, folded at its top edge";
        /// Two bags behind a zip set in a box.
        Zip = "zip", "Zip pocket", "two bags behind a zip set in a box";
        /// Doubled, divided by seams, the ease in pleats.
        Divided = "divided", "Divided pocket", "doubled, with dividing seams and pleats";
    }
}

/// A pocket by its finished sizes.
#[derive(Clone, Copy, Debug)]
pub struct Pocket {
    /// What kind.
    pub kind: PocketKind,
    /// Finished width: of a zip pocket, the zip's teeth.
    pub width: Length,
    /// Finished height.
    pub height: Length,
    /// Divisions of a divided pocket.
    pub divisions: u32,
    /// Ease of each division: how much wider it is cut than it sits.
    pub ease: Length,
    /// Seam allowance all round.
    pub seam: Length,
}

impl Pocket {
    fn seams(&self, name: &'static str, times: i64) -> Term {
        Term::times(name, times, self.seam, "seam_side")
    }

    /// Its pieces, `id` before each.
    pub fn pieces(&self, ruler: Ruler) -> Vec<Piece> {
        let wide = || Term::once("wide", self.width, "pocket_width");
        let doubled = || {
            let tall = Term::times("tall, doubled", 2, self.height, "pocket_height");
            Dimension::sum(vec![tall, self.seams("base seams", 2)], ruler)
        };
        let fold = |d: &Dimension| Mark {
            name: "fold, the pocket's top edge",
            distance: d.size / 2,
            from: From::TopEdge,
            and: None,
        };
        match self.kind {
            PocketKind::None => vec![],
            PocketKind::Slip => {
                let height = doubled();
                let fold = fold(&height);
                let width = Dimension::sum(vec![wide(), self.seams("side seams", 2)], ruler);
                vec![
                    Piece::new("slip-pocket", "Slip pocket", Part::Pocket, width, height)
                        .marked([fold])
                        .noted("folded at its top edge"),
                ]
            }
            PocketKind::Zip => {
                // The box is as long as the teeth; the bags are wider by a seam and half an inch each side.
                let beside = Term::times("beside the box", 2, Length::inches(1, 2), "pocket");
                let width = Dimension::sum(vec![wide(), beside, self.seams("side seams", 2)], ruler);
                let tall = Term::once("tall", self.height, "pocket_height");
                let above = Term::once("above the zip", Length::inches(3, 4), "pocket");
                let height = Dimension::sum(vec![tall, above, self.seams("seams, top and base", 2)], ruler);
                let zip_box = Mark {
                    name: "zip box, ⅜ in (1 cm) tall, its corners cut into as triangles",
                    distance: self.width / 2,
                    from: From::Middle,
                    and: Some((self.seam + Length::inches(3, 4), From::TopEdge)),
                };
                vec![Piece::new("zip-pocket", "Zip pocket bag", Part::Pocket, width, height).times(2).marked([zip_box])]
            }
            PocketKind::Divided => {
                let n = i64::from(self.divisions);
                let height = doubled();
                let fold = fold(&height);
                let ease = Term::times("ease, in pleats", n, self.ease, "pocket_ease");
                let width = Dimension::sum(vec![wide(), ease, self.seams("side seams", 2)], ruler);
                let each = self.width / n + self.ease;
                let dividers = (1..n).map(|i| Mark {
                    name: "divider",
                    distance: self.seam + each * i,
                    from: From::LeftEdge,
                    and: None,
                });
                vec![
                    Piece::new("divided-pocket", "Divided pocket", Part::Pocket, width, height)
                        .marked(dividers.chain([fold]))
                        .noted("dividers are sewn down nearer together on the panel than they lie here"),
                ]
            }
        }
    }

    /// What is bought for it.
    pub fn hardware(&self, ruler: Ruler) -> Vec<Hardware> {
        if self.kind != PocketKind::Zip {
            return vec![];
        }
        vec![zip("Zip, for the pocket", self.width, "as wide as its box", ruler)]
    }

    /// The mark on the panel it is sewn to: centred on the *face*, not on the cut panel.
    pub fn position(&self, face: Length, edge: Length, below: Length) -> Mark {
        Mark {
            name: "pocket, top corners",
            distance: edge + (face - self.width) / 2,
            from: From::SideEdges,
            and: Some((below, From::TopEdge)),
        }
    }

    /// What to look at: the pocket against the face it sits on, `room` tall below its top edge.
    pub fn notices(&self, room: Length, show: &dyn Fn(Length) -> String) -> Vec<Notice> {
        if self.kind == PocketKind::None || self.height <= room {
            return vec![];
        }
        let over = show(self.height - room);
        let text = format!("The pocket runs {over} into the boxing: raise it or make it shorter.");
        vec![Notice::attention("pocket_height", text)]
    }
}

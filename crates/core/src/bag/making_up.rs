//! How a panel is made up before it is cut to size: any panel of any bag may be pieced of patches or quilted.

use super::draft::{Draft, Notice};
use super::field::{Field, Group};
use super::kept::{put_all, values_of};
use super::piecing::{Patchwork, Piecing};
use super::quilting;
use crate::FieldProblem;
use crate::measure::{Length, Ruler, System, default_length};
use crate::piece::{Grain, Part, Piece, When};
use serde::de::Error;
use serde::{Deserialize, Deserializer, Serialize, Serializer};
use serde_json::{Map, Value};

/// How one panel is made up.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct MadeUp {
    /// Its patches.
    pub patchwork: Patchwork,
    /// Quilted: cut over, quilted, trimmed. Not where it is pieced: the patches are.
    pub quilted: bool,
}

impl MadeUp {
    /// In one piece; were it pieced, of four by four.
    pub fn plain(system: System) -> Self {
        let patchwork = Patchwork { piecing: Piecing::Whole, columns: 4, rows: 4, seam: default_length(system, 2, 7) };
        Self { patchwork, quilted: false }
    }

    /// Nothing is done to it.
    pub fn is_plain(&self) -> bool {
        self.patchwork.piecing == Piecing::Whole && !self.quilted
    }

    /// What stands, in a few words; empty when it is in one piece.
    pub fn summary(&self) -> String {
        let (columns, rows) = (self.patchwork.columns, self.patchwork.rows);
        match self.patchwork.piecing {
            Piecing::Whole if self.quilted => "quilted".to_owned(),
            Piecing::Whole => String::new(),
            Piecing::Grid => format!("{columns} × {rows} squares"),
            Piecing::Strips => format!("{columns} strips"),
            Piecing::Triangles => format!("{columns} × {rows} triangles"),
            Piecing::Crazy => "crazy".to_owned(),
        }
    }

    /// Its fields.
    pub fn fields(&mut self) -> Vec<Field<'_>> {
        let whole = self.patchwork.piecing == Piecing::Whole;
        let mut all = self.patchwork.fields("How it is made up");
        all.push(
            Field::toggle("quilted", "Quilted before it is trimmed", Group::Front, &mut self.quilted).only_if(whole),
        );
        all
    }

    /// Sets the field `key` as typed or chosen.
    ///
    /// # Errors
    /// There is no such field, or what was typed cannot be read.
    pub fn set(&mut self, key: &str, value: &str, system: System) -> Result<(), FieldProblem> {
        let mut fields = self.fields();
        let Some(field) = fields.iter_mut().find(|f| f.key == key) else {
            let all: Vec<&str> = fields.iter().map(|f| f.key).collect();
            let message = format!("There is no field “{key}” of how a panel is made up: there is {}.", all.join(", "));
            return Err(FieldProblem::new(key, value, message));
        };
        field.set(value, system)
    }

    /// Makes the panel `id` of `draft` up; the draft stays as it is when there is no such panel.
    ///
    /// # Errors
    /// The seam between patches leaves nothing of them.
    pub fn apply(&self, draft: &mut Draft, id: &str, ruler: Ruler) -> Result<(), FieldProblem> {
        let Some(at) = draft.pieces.iter().position(|p| p.id == id && may_be_made_up(p)) else { return Ok(()) };
        if self.patchwork.piecing != Piecing::Whole {
            let panel = draft.pieces[at].clone();
            let (least, seam) = (panel.width.size.min(panel.height.size), self.patchwork.seam);
            if seam < Length::MILLIMETRE * 3 || seam >= least / 8 {
                let show = |l: Length| format!("{} {}", ruler.show(l).text, ruler.system().symbol());
                let message = format!(
                    "The seam between patches of {} is {}: from ⅛ in or 3 mm to less than an eighth of the panel, {}, is allowed.",
                    panel.name.to_lowercase(),
                    show(seam),
                    show(least / 8)
                );
                return Err(FieldProblem::new("patch_seam", show(seam), message));
            }
            let step = format!("Piece {} and trim it to size.", panel.name.to_lowercase());
            let (pieces, notices) = self.patchwork.of(panel, ruler);
            draft.pieces.splice(at..=at, pieces);
            draft.notices.extend(notices.into_iter().map(|n| Notice { stage: super::Stage::Pieces, ..n }));
            draft.steps.insert(0, step);
        } else if self.quilted {
            let name = draft.pieces[at].name.to_lowercase();
            draft.steps.insert(0, format!("Quilt {name} from the middle out, then trim it to size."));
            quilting::quilt(&mut draft.pieces, id, ruler);
        }
        if !self.is_plain() {
            let name = draft.piece(id).map(|p| p.name.to_lowercase()).unwrap_or_default();
            let text = format!(
                "Measure {name} once it is made up and trimmed, and type it: what is still to be cut follows what came out."
            );
            draft.notices.push(Notice { stage: super::Stage::Pieces, ..Notice::note("measured", text) });
        }
        Ok(())
    }
}

/// Whether it is a panel that may be pieced or quilted: cut now, along the grain, of a cloth that is seen.
pub fn may_be_made_up(piece: &Piece) -> bool {
    let seen = matches!(piece.part, Part::Outer | Part::Contrast | Part::Base | Part::Lining | Part::Pocket);
    seen && piece.when == When::Now && piece.patch_of.is_none() && piece.grain == Grain::Length && !piece.spans
}

impl Serialize for MadeUp {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        let mut copy = *self;
        values_of(copy.fields()).serialize(serializer)
    }
}

impl<'de> Deserialize<'de> for MadeUp {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        let mut kept = Map::<String, Value>::deserialize(deserializer)?;
        let mut made = Self::plain(System::Inches);
        put_all(made.fields(), &mut kept).map_err(D::Error::custom)?;
        match kept.keys().next() {
            Some(unknown) => Err(D::Error::custom(format!("a panel is not made up by “{unknown}”"))),
            None => Ok(made),
        }
    }
}

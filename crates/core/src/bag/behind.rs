//! The backing of one piece by itself, whatever the bag's is: kinds as shops have them. Common practice; widths from
//! memory.

use super::backing::{self, Allowances, BackingSchool};
use super::field::choice;
use crate::FieldProblem;
use crate::measure::{Length, Ruler, System, default_length};
use crate::piece::{Part, Piece};

choice! {
    /// What one piece is backed with.
    BackedWith {
        /// As the bag says.
        AsBag = "as-bag", "As the bag says", "";
        /// Nothing.
        Nothing = "nothing", "Nothing", "";
        /// Light fusible.
        Light = "light", "Light fusible", "not woven; fused to the wrong side; sold 20 or 36 in (50 or 90 cm) wide";
        /// Medium fusible.
        Medium = "medium", "Medium fusible", "not woven; fused to the wrong side; sold 20 or 36 in (50 or 90 cm) wide";
        /// Woven fusible.
        Woven = "woven", "Woven fusible", "on the grain of its cloth; sold 20 or 44 in (50 or 112 cm) wide";
        /// Sewn in.
        SewIn = "sew-in", "Sew-in interfacing", "tacked within the seams; for what bears no iron";
        /// Firm fusible.
        Firm = "firm", "Firm fusible", "clear of the seams; sold 20 in (50 cm) wide";
        /// Peelable stabiliser.
        Stabiliser = "stabiliser", "Peelable stabiliser", "peeled off and stuck on, clear of the seams; sold 20 in (50 cm) wide";
        /// Fusible fleece.
        FusibleFleece = "fusible-fleece", "Fusible fleece", "fused to the wrong side; sold 36 or 44 in (90 or 112 cm) wide";
        /// Sewn-in fleece.
        Fleece = "fleece", "Fleece, sewn in", "tacked within the seams";
        /// Batting.
        Batting = "batting", "Batting", "quilted to its cloth";
        /// Foam.
        Foam = "foam", "Foam", "stands by itself; sold 18 to 20 or 58 in (50 or 147 cm) wide";
    }
}

impl BackedWith {
    /// The part it is cut as; nothing where it is none of its own.
    pub const fn part(self) -> Option<Part> {
        match self {
            Self::AsBag | Self::Nothing => None,
            Self::Light | Self::Medium | Self::Woven | Self::SewIn => Some(Part::Interfacing),
            Self::Firm | Self::Stabiliser => Some(Part::Stabiliser),
            Self::FusibleFleece | Self::Fleece | Self::Batting | Self::Foam => Some(Part::Backing),
        }
    }

    const fn word(self) -> &'static str {
        match self {
            Self::AsBag | Self::Nothing => "",
            Self::Light => "light fusible",
            Self::Medium => "medium fusible",
            Self::Woven => "woven fusible",
            Self::SewIn => "sew-in interfacing",
            Self::Firm => "firm fusible",
            Self::Stabiliser => "stabiliser",
            Self::FusibleFleece => "fusible fleece",
            Self::Fleece => "fleece",
            Self::Batting => "batting",
            Self::Foam => "foam",
        }
    }
}

choice! {
    /// How far the backing of one piece reaches.
    Reaches {
        /// As large as the piece.
        Full = "full", "As large as the piece", "caught in the seams";
        /// Clear of its edges.
        Clear = "clear", "Clear of its edges", "so far all round";
    }
}

/// What lies behind one piece.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct PieceBacking {
    /// With what.
    pub with: BackedWith,
    /// How far it reaches.
    pub reaches: Reaches,
    /// How far clear of the piece's edges.
    pub clear_by: Length,
    /// A second layer over all of it.
    pub over: BackedWith,
}

impl PieceBacking {
    /// As the bag says.
    pub fn as_bag(system: System) -> Self {
        Self {
            with: BackedWith::AsBag,
            reaches: Reaches::Clear,
            clear_by: default_length(system, 4, 10),
            over: BackedWith::Nothing,
        }
    }

    /// It is not as the bag says.
    pub fn is_own(&self) -> bool {
        self.with != BackedWith::AsBag
    }

    /// Puts it behind the piece `id` instead of what the bag has there.
    ///
    /// # Errors
    /// Nothing is left of it.
    pub(super) fn behind(&self, pieces: &mut Vec<Piece>, id: &str, ruler: Ruler) -> Result<(), FieldProblem> {
        let Some(piece) = pieces.iter().find(|p| p.id == id).filter(|_| self.is_own()).cloned() else { return Ok(()) };
        pieces.retain(|p| p.backs.as_deref() != Some(id));
        let least = piece.width.size.min(piece.height.size);
        if self.reaches == Reaches::Clear && (self.clear_by < Length::ZERO || self.clear_by * 2 >= least) {
            let show = |l: Length| format!("{} {}", ruler.show(l).text, ruler.system().symbol());
            let message = format!(
                "Clear of the edges of {} by {}: from 0 to less than half of it, {}, is allowed.",
                piece.name.to_lowercase(),
                show(self.clear_by),
                show(least / 2)
            );
            return Err(FieldProblem::new("backed_clear", show(self.clear_by), message));
        }
        let layers = [(self.with, self.reaches), (self.over, Reaches::Full)];
        for (n, (with, reaches)) in layers.into_iter().enumerate() {
            let Some(part) = with.part() else { continue };
            let by = self.clear_by;
            let clear = Allowances { side: by, top: by, base: by, corner: by };
            let school = if reaches == Reaches::Full { BackingSchool::FullSize } else { BackingSchool::ClearOfSeams };
            let made = backing::behind(&piece, school, (part, with.word()), clear, ruler);
            pieces.extend(made.into_iter().map(|mut p| {
                p.id = format!("{id}-backed-{}", n + 1).into();
                // The block names the bag's seams; here it is the edges that it is clear of.
                for term in [&mut p.width, &mut p.height].into_iter().flat_map(|d| &mut d.terms) {
                    if term.name.starts_with("less the ") {
                        (term.name, term.field) = ("clear of its edges".into(), Some("backing".into()));
                    }
                }
                p
            }));
        }
        Ok(())
    }
}

//! Kinds of seam and what they take. Common practice.

use super::field::{Field, Group, choice};
use super::problems::Problems;
use crate::measure::{Length, Ruler, System, default_length};

choice! {
    /// How the side seams are sewn.
    SeamKind {
        /// Sewn and pressed.
        Plain = "plain", "Plain", "sewn and pressed open";
        /// Sewn wrong sides together, then enclosed.
        French = "french", "French", "sewn twice, nothing frays: the width given is both together";
        /// Edges hemmed before they are joined.
        HemmedFirst = "hemmed-first", "Hemmed first", "each edge turned twice, then seamed inside the hem";
        /// Edges overlocked.
        Overlocked = "overlocked", "Overlocked", "edges overlocked together after sewing";
        /// Edges bound after sewing.
        Bound = "bound", "Bound", "edges bound after sewing";
    }
}

impl SeamKind {
    /// What it usually takes: French ¼ + ⅜ in (0.5 + 1.0 cm), hemmed first ¼ + ¼ in (0.5 + 0.5 cm).
    pub fn default_for(self, system: System) -> Length {
        match self {
            Self::Plain | Self::HemmedFirst => default_length(system, 4, 10),
            Self::French => default_length(system, 5, 15),
            Self::Overlocked | Self::Bound => default_length(system, 3, 10),
        }
    }

    /// The least that can be sewn: what is turned or sewn twice needs twice a seam.
    fn least(self) -> Length {
        let seam = Length::MILLIMETRE * 3;
        match self {
            Self::French | Self::HemmedFirst => seam * 3,
            Self::Plain | Self::Overlocked | Self::Bound => seam,
        }
    }

    /// The two seams of a French one `width` in all: a third first, on a line of `ruler`, then the rest.
    pub fn french(width: Length, ruler: Ruler) -> (Length, Length) {
        let first = (width / 3).round_to(ruler.step()).max(ruler.step());
        (first, width - first)
    }

    /// Its fields: the kind, silent unless raw edges are `seen` inside.
    pub(super) fn field(&mut self, seen: bool) -> Field<'_> {
        Field::choice("seam_kind", "Side seams are", Group::Seams, self).only_if(seen)
    }

    /// What cannot be sewn so narrow.
    pub(super) fn problems(self, width: Length, problems: &mut Problems) {
        if width < self.least() {
            let message = format!(
                "The side seam is {}: sewn this way it takes at least {}.",
                problems.show(width),
                problems.show(self.least())
            );
            problems.refuse("seam_side", width, message);
        }
    }

    /// How the sides are sewn, `width` in all, as a step; `until` says where it stops.
    pub(super) fn step(self, width: Length, until: &str, ruler: Ruler) -> String {
        let show = |l: Length| format!("{} {}", ruler.show(l).text, ruler.system().symbol());
        match self {
            Self::Plain => format!("Sew the sides{until}."),
            Self::French => {
                let (first, second) = Self::french(width, ruler);
                format!(
                    "Sew the sides wrong sides together, {} from the edge; trim, turn, and enclose the edges with a second seam of {}{until}.",
                    show(first),
                    show(second)
                )
            }
            Self::HemmedFirst => format!(
                "Turn the side edges twice, {} in all, and stitch; then sew the sides inside the hem{until}.",
                show(width)
            ),
            Self::Overlocked => format!("Sew the sides{until}; overlock their edges together."),
            Self::Bound => format!("Sew the sides{until}; bind their edges, thread cut short of the fold."),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::SeamKind;
    use crate::measure::{Length, Ruler, System};

    /// Common practice: 0.5 + 1.0 cm in all.
    #[test]
    fn a_french_seam_is_two_seams() {
        let cm = |tenths: i64| Length::MILLIMETRE * tenths;
        assert_eq!(
            SeamKind::french(SeamKind::French.default_for(System::Centimetres), Ruler::Millimetre),
            (cm(5), cm(10))
        );
        let eighths = |n| Length::inches(n, 8);
        assert_eq!(SeamKind::french(eighths(5), Ruler::Eighth), (eighths(2), eighths(3)));
        assert_eq!(SeamKind::french(eighths(2), Ruler::Eighth), (eighths(1), eighths(1)));
    }

    #[test]
    fn every_kind_can_be_sewn_as_usual() {
        for kind in SeamKind::ALL {
            for system in [System::Inches, System::Centimetres] {
                assert!(kind.default_for(system) >= kind.least(), "{kind:?}");
            }
        }
    }
}

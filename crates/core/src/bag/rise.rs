//! How the walls of a bag rise from its base to its mouth: straight, slanting, or as wide as below and taken in at the
//! mouth by gathers or pleats. Common practice; the geometry is derived where it stands.
//!
//! Signs: B is the width of a panel between its side seams at the base, M at the mouth, both flat; L from the base seam
//! to the seam at the mouth; s, b and t the seams at side, base and mouth. A slanting side leans by k = (M − B)/2L.

use super::draft::{Notice, Stack};
use super::field::{Field, Group, choice};
use super::problems::Problems;
use crate::measure::{Length, Ruler, System, default_length};
use crate::piece::{Dimension, Figure, From, Mark, Part, Piece, Term};

choice! {
    /// How the walls rise.
    Rising {
        /// As wide at the mouth as at the base.
        Straight = "straight", "Straight up", "";
        /// Wider or narrower at the mouth: the side seams slant.
        Slanting = "slanting", "Slanting", "wider or narrower at the mouth, the side seams on the slant";
        /// Cut as wide as the base and gathered.
        Gathered = "gathered", "Gathered at the mouth", "two rows of long stitches drawn up to the mouth’s width";
        /// Cut as wide as the base, in pleats whose folds lie away from each other.
        BoxPleats = "box-pleats", "Box pleats at the mouth", "two folds turned away from each other";
        /// Cut as wide as the base, in pleats whose folds meet.
        InvertedPleats = "inverted-pleats", "Inverted pleats at the mouth", "two folds turned to meet each other";
    }
}

/// How the walls rise, with what it takes to say so.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Rise {
    /// How.
    pub rising: Rising,
    /// Slanting or gathered: the width of the mouth, laid flat.
    pub mouth_width: Length,
    /// Pleats in each panel.
    pub pleats: u32,
    /// How far each fold of a pleat reaches under: a pleat takes four times as much.
    pub pleat_depth: Length,
}

/// A panel with slanting sides: what its widest raw edge takes over its seam line, and how much narrower its other end is.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Slant {
    /// Of the widest end, over the width on the seam line and two side seams: a seam on the slant is wider across, and
    /// past the end of the seam line the side goes on.
    pub over: Length,
    /// The other end is narrower by so much on each side; less than nothing where that is the base. Before rounding.
    pub narrower: f64,
    /// From the raw side edge to the seam line, across, at the raw edge of the base.
    pub beside_base: f64,
    /// And at the raw edge of the mouth.
    pub beside_mouth: f64,
    /// The cosine of the lean.
    pub upright: f64,
}

impl Rise {
    /// Straight up.
    pub(super) fn default_for(system: System) -> Self {
        Self {
            rising: Rising::Straight,
            mouth_width: Self::usual(default_length(system, 144, 460), system),
            pleats: 1,
            pleat_depth: default_length(system, 8, 25),
        }
    }

    /// A usual mouth of a bag that is `base` wide flat at its base: 2 in (4 cm) wider.
    fn usual(base: Length, system: System) -> Length {
        base + default_length(system, 16, 40)
    }

    /// A width of the mouth that goes with walls that rise so, where the one there is does not or nobody typed it.
    pub(super) fn suit(&mut self, base: Length, system: System) {
        let step = default_length(system, 4, 10);
        let untyped = self.mouth_width == Self::default_for(system).mouth_width;
        match self.rising {
            Rising::Slanting if untyped || self.mouth_width < base / 4 || self.mouth_width > base * 3 => {
                self.mouth_width = Self::usual(base, system);
            }
            // Half as much cloth again as the mouth is wide: common practice for light gathers.
            Rising::Gathered if untyped || self.mouth_width >= base || self.mouth_width < base / 4 => {
                self.mouth_width = (base * 2 / 3).round_to(step).max(step);
            }
            _ => {}
        }
    }

    /// Its fields.
    pub(super) fn fields(&mut self) -> Vec<Field<'_>> {
        let (typed, pleated) = (matches!(self.rising, Rising::Slanting | Rising::Gathered), self.is_pleated());
        vec![
            Field::choice("rising", "The walls rise", Group::Mouth, &mut self.rising),
            Field::size("mouth_width", "Wide at the mouth, laid flat", Group::Mouth, &mut self.mouth_width)
                .scaling()
                .only_if(typed),
            Field::count("pleats", "Pleats in each panel", Group::Mouth, &mut self.pleats, 1..=8).only_if(pleated),
            Field::size("pleat_depth", "Each fold reaches under", Group::Mouth, &mut self.pleat_depth).only_if(pleated),
        ]
    }

    /// As wide at the mouth as at the base.
    pub fn is_straight(&self) -> bool {
        self.rising == Rising::Straight
    }

    /// With side seams on the slant.
    pub fn slants(&self) -> bool {
        self.rising == Rising::Slanting
    }

    /// In pleats.
    pub fn is_pleated(&self) -> bool {
        matches!(self.rising, Rising::BoxPleats | Rising::InvertedPleats)
    }

    /// What the mouth is narrower than its panel, taken in by gathers or pleats.
    pub fn taken_in(&self) -> bool {
        self.rising == Rising::Gathered || self.is_pleated()
    }

    /// What all pleats of a panel take.
    fn in_pleats(&self) -> Length {
        self.pleat_depth * (4 * i64::from(self.pleats))
    }

    /// The mouth laid flat, of a bag that is `base` wide flat at its base.
    pub fn flat_mouth(&self, base: Length) -> Length {
        match self.rising {
            Rising::Straight => base,
            Rising::Slanting | Rising::Gathered => self.mouth_width,
            Rising::BoxPleats | Rising::InvertedPleats => base - self.in_pleats(),
        }
    }

    /// How wide a face is at the mouth that is `face` wide at a base `base` wide flat: it keeps its share of the way round.
    pub fn mouth_face(&self, face: Length, base: Length) -> Length {
        let round = i128::from(self.flat_mouth(base).0) * i128::from(face.0);
        Length((round / i128::from(base.0.max(1))) as i64)
    }

    /// How wide a face is where it is narrowest, all the way up: what is put on it has its place there.
    pub(super) fn clear_face(&self, face: Length, base: Length) -> Length {
        if self.slants() { face.min(self.mouth_face(face, base)) } else { face }
    }

    /// How wide a face is at the base and at the mouth, where it slants.
    pub(super) fn face_ends(&self, face: Length, base: Length) -> Option<[Length; 2]> {
        self.slants().then(|| [face, self.mouth_face(face, base)])
    }

    /// How many times as much as a straight bag it holds, a frustum: of a mouth r times as wide as the base (1 + r + r²)/3.
    pub(super) fn holds(&self, base: Length) -> f64 {
        let r = self.at_the_mouth(base);
        (1.0 + r + r * r) / 3.0
    }

    /// How many times as wide as at its base it is at the mouth.
    pub(super) fn at_the_mouth(&self, base: Length) -> f64 {
        self.flat_mouth(base).0 as f64 / base.0.max(1) as f64
    }

    /// What cannot stand on a bag `base` wide flat at its base, `face` of it in front.
    pub(super) fn problems(&self, base: Length, face: Length, problems: &mut Problems) {
        match self.rising {
            Rising::Straight => {}
            Rising::Slanting => {
                problems.between("mouth_width", "mouth, laid flat,", self.mouth_width, base / 4, base * 3);
            }
            Rising::Gathered if self.mouth_width >= base => {
                let message = format!(
                    "The mouth is {} wide and the bag {}: there is nothing to gather. Type less, or let the sides slant.",
                    problems.show(self.mouth_width),
                    problems.show(base)
                );
                problems.refuse("mouth_width", self.mouth_width, message);
            }
            Rising::Gathered => {
                problems.between("mouth_width", "mouth, laid flat,", self.mouth_width, base / 4, base);
            }
            Rising::BoxPleats | Rising::InvertedPleats => {
                // Open, a pleat lies three times as wide as it does folded.
                let most = face / (6 * i64::from(self.pleats.max(1)));
                let least = Length::MILLIMETRE * 5;
                if self.pleat_depth < least || self.pleat_depth > most {
                    let message = format!(
                        "The folds of {} reach {} under: between {} and {} is allowed on a face {} wide.",
                        if self.pleats == 1 { "a pleat".to_owned() } else { format!("{} pleats", self.pleats) },
                        problems.show(self.pleat_depth),
                        problems.show(least),
                        problems.show(most),
                        problems.show(face)
                    );
                    problems.refuse("pleat_depth", self.pleat_depth, message);
                }
            }
        }
    }

    /// How a panel leans whose seam line is `long` from base to mouth; nothing where its sides are upright.
    ///
    /// At a height y over the base seam the side seam is B/2 + ky from the middle, and its raw edge, s away at a right
    /// angle, s √(1 + k²) further out across.
    pub(super) fn slant(&self, base: Length, long: Length, side: Length, ends: (Length, Length)) -> Option<Slant> {
        if !self.slants() || long <= Length::ZERO {
            return None;
        }
        let k = (self.mouth_width - base).0 as f64 / 2.0 / long.0 as f64;
        let secant = (1.0 + k * k).sqrt();
        let beside = side.0 as f64 * secant;
        let (below, above) = (k * ends.0.0 as f64, k * ends.1.0 as f64);
        // The end that is wider goes on past its seam, the other gets narrower still.
        let past = if k >= 0.0 { above } else { -below };
        Some(Slant {
            over: Length((2.0 * (beside - side.0 as f64 + past)).round() as i64),
            narrower: -k * (long + ends.0 + ends.1).0 as f64,
            beside_base: beside - below,
            beside_mouth: beside + above,
            upright: 1.0 / secant,
        })
    }

    /// The width of a panel with slanting sides, at its widest end.
    pub(super) fn widest(
        &self,
        base: Vec<Term>,
        seams: Term,
        slant: &Slant,
        rest: Vec<Term>,
        ruler: Ruler,
    ) -> Dimension {
        let mut terms = if slant.narrower < 0.0 {
            vec![Term::once("wide at the mouth, laid flat", self.mouth_width, "mouth_width")]
        } else {
            base
        };
        terms.push(seams);
        terms.push(Term::once("more, for seams on the slant", slant.over, "mouth_width"));
        terms.extend(rest);
        Dimension::sum(terms, ruler)
    }

    /// Where each panel is folded into pleats at its mouth: by pairs, the same distance from the middle to both sides.
    pub(super) fn marks(&self, face: Length, ruler: Ruler) -> Vec<Mark> {
        let mark = |name: String, distance: Length| Mark {
            boxes: false,
            share: false,
            name: name.into(),
            distance,
            from: From::Middle,
            and: None,
        };
        let show = |l: Length| format!("{} {}", ruler.show(l).text, ruler.system().symbol());
        match self.rising {
            Rising::Straight | Rising::Slanting => vec![],
            Rising::Gathered => {
                let text =
                    format!("gather each edge at the mouth until its seam line is {} wide", show(self.mouth_width));
                vec![mark(text, Length::ZERO)].into_iter().map(|m| Mark { from: From::TopEdge, ..m }).collect()
            }
            Rising::BoxPleats | Rising::InvertedPleats => {
                let depth = self.pleat_depth;
                let (fold, onto) =
                    if self.rising == Rising::BoxPleats { (depth, depth * 3) } else { (depth * 2, Length::ZERO) };
                let name = if self.rising == Rising::BoxPleats { "box pleat" } else { "inverted pleat" };
                let mut marks = vec![];
                for centre in self.centres(face) {
                    let at = |from_centre: Length| [centre - from_centre, centre + from_centre];
                    let lines = |to: Length| if to == Length::ZERO { vec![centre] } else { at(to).to_vec() };
                    for distance in lines(fold).into_iter().filter(|d| *d >= Length::ZERO) {
                        marks.push(mark(format!("{name}, a fold"), distance));
                    }
                    for distance in lines(onto).into_iter().filter(|d| *d >= Length::ZERO) {
                        marks.push(mark(format!("{name}, the line its fold is brought to"), distance));
                    }
                }
                marks.dedup();
                marks
            }
        }
    }

    /// How far from the middle the centres of the pleats are on the panel, each once for both sides: evenly over the face.
    fn centres(&self, face: Length) -> Vec<Length> {
        let n = i64::from(self.pleats);
        (0..n).map(|i| face * (2 * i + 1 - n) / (2 * n)).filter(|c| *c >= Length::ZERO).collect()
    }

    /// What to know about a mouth that is taken in, of a bag `base` wide flat at its base.
    pub(super) fn notice(&self, base: Length, show: &dyn Fn(Length) -> String) -> Option<Notice> {
        let mouth = self.flat_mouth(base);
        match self.rising {
            Rising::Straight => None,
            Rising::Slanting => {
                let (wider, by) = if mouth >= base { ("wider", mouth - base) } else { ("narrower", base - mouth) };
                let text = format!("Laid flat the mouth is {} {wider} than the base.", show(by));
                Some(Notice::note("mouth_width", text))
            }
            Rising::Gathered => {
                let text = format!("{} of cloth are gathered into {}.", show(base), show(mouth));
                // Less than a fifth hardly shows; more than two and a half times is bulky under a band. Common practice.
                if base.0 * 5 < mouth.0 * 6 || base.0 * 2 > mouth.0 * 5 {
                    Some(Notice::attention(
                        "mouth_width",
                        format!("{text} From a fifth more to two and a half times as much is usual."),
                    ))
                } else {
                    Some(Notice::note("mouth_width", text))
                }
            }
            Rising::BoxPleats | Rising::InvertedPleats => {
                let text = format!(
                    "The pleats take {} of each panel: laid flat the mouth is {} wide.",
                    show(self.in_pleats()),
                    show(mouth)
                );
                Some(Notice::note("pleats", text))
            }
        }
    }

    /// Where a pleat lies in a mouth of `layers`: what is pleated lies there three times.
    pub(super) fn stack(&self, layers: Vec<(Part, u32)>) -> Option<Stack> {
        let folded =
            |(part, n): (Part, u32)| (part, if matches!(part, Part::Outer | Part::Lining) { n * 3 } else { n });
        self.is_pleated().then(|| Stack {
            place: "a pleat lies in the mouth".into(),
            field: "pleats".into(),
            layers: layers.into_iter().map(folded).collect(),
        })
    }

    /// How it is sewn, before the mouth is.
    pub(super) fn step(&self, ruler: Ruler) -> Option<String> {
        let show = |l: Length| format!("{} {}", ruler.show(l).text, ruler.system().symbol());
        match self.rising {
            Rising::Straight | Rising::Slanting => None,
            Rising::Gathered => Some(format!(
                "Sew two rows of long stitches inside the seam along each edge at the mouth, and draw them up until it is {} between its side seams; outer and lining alike.",
                show(self.mouth_width)
            )),
            Rising::BoxPleats => {
                Some("Fold the box pleats along the mouth, both folds turned away from each other, and baste them; outer and lining alike.".into())
            }
            Rising::InvertedPleats => {
                Some("Fold the inverted pleats along the mouth, both folds brought to their middle, and baste them; outer and lining alike.".into())
            }
        }
    }
}

impl Slant {
    /// The outline of a panel: narrower at one end, to a line of the ruler.
    pub(super) fn figure(&self, ruler: Ruler) -> Figure {
        let by = Length(self.narrower.round() as i64).round_to(ruler.step());
        if by == Length::ZERO { Figure::Rectangle } else { Figure::Tapered(by) }
    }

    /// Where the seam across a corner, of a bag with a `face` so wide and so `deep`, meets the base seam `below` the face and
    /// the side seam: half the depth along either from where they meet. From the middle: a side edge that slants is nothing
    /// to measure from.
    pub(super) fn corner(&self, face: Length, deep: Length, below: Length) -> Mark {
        let up = below + Length(((deep / 2).0 as f64 * self.upright).round() as i64);
        Mark {
            boxes: true,
            share: false,
            name: "where the seam across the corner meets the seams".into(),
            distance: face / 2,
            from: From::Middle,
            and: Some((up, From::BaseEdge)),
        }
    }

    /// Of a panel as it is cut: its width between the side seams at the base and at the mouth, flat. At either end the raw
    /// edges stand over the seam lines by what the lean gives.
    pub(super) fn ends_of(&self, panel: &Piece) -> (Length, Length) {
        let by = if let Figure::Tapered(by) = panel.figure { by } else { Length::ZERO };
        let base = panel.width.size - (-by).max(Length::ZERO) * 2 - self.over_the_base();
        (base, panel.width.size - by.max(Length::ZERO) * 2 - self.over_the_mouth())
    }

    /// By how much the raw edge at the base is wider than its seam line.
    pub(super) fn over_the_base(&self) -> Length {
        Length((self.beside_base * 2.0).round() as i64)
    }

    /// By how much the raw edge at the mouth is wider than its seam line.
    pub(super) fn over_the_mouth(&self) -> Length {
        Length((self.beside_mouth * 2.0).round() as i64)
    }
}

//! Which edge is sewn to which. Both edges of a seam are equally long on the line they are sewn on: lengths are worked
//! out from the cut pieces, so that a draft whose edges differ is found.

use super::draft::Draft;
use crate::measure::{Length, Ruler};
use crate::piece::{Dimension, Figure, Piece};
use crate::shape::Point;
use std::borrow::Cow;
use std::f64::consts::{FRAC_PI_2, PI};

/// An edge of a piece.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Edge {
    /// The upper one.
    Top,
    /// The lower one, between what is cut out of the corners.
    Base,
    /// One at a side, above and below what is cut out.
    Side,
    /// Of a panel that is folded at its middle, one at a side from its end to the fold.
    SideToFold,
    /// Of a corner that is cut out, the leg across.
    LegAcross,
    /// And the leg up.
    LegUp,
    /// From one raw side edge to the other, where it is widest: what is laid on it reaches as far.
    Across,
    /// All round a circle; of a half-round face, round its curve and its straight sides; of one that stands, also along
    /// the base.
    Round,
}

impl Edge {
    /// In the maker's words.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Top => "top",
            Self::Base => "base",
            Self::Side => "side",
            Self::SideToFold => "side, down to the fold",
            Self::LegAcross => "the corner’s leg across",
            Self::LegUp => "the corner’s leg up",
            Self::Across => "right across",
            Self::Round => "all round",
        }
    }
}

/// Edges of one piece that are sewn in one go.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Stretch {
    /// Id of the piece.
    pub piece: Cow<'static, str>,
    /// Which edge of it.
    pub edge: Edge,
    /// How many of them, one after the other.
    pub times: u32,
    /// How far from the edge it is sewn.
    pub seam: Length,
    /// What is taken off at its two ends together, where it runs into other seams; less than nothing where a cut-out
    /// corner opens.
    pub ends: Length,
    /// Where the seam goes on to, on the next piece.
    pub then: Option<Box<Stretch>>,
}

impl Stretch {
    /// One `edge` of `piece`, sewn `seam` from it, `ends` less at both ends together.
    pub fn new(piece: &'static str, edge: Edge, seam: Length, ends: Length) -> Self {
        Self { piece: piece.into(), edge, times: 1, seam, ends, then: None }
    }

    /// Going on along `next`.
    #[must_use]
    pub fn then(self, next: Self) -> Self {
        Self { then: Some(Box::new(next)), ..self }
    }

    /// It and what it goes on to.
    pub fn all(&self) -> impl Iterator<Item = &Self> {
        std::iter::successors(Some(self), |s| s.then.as_deref())
    }

    /// `times` of it.
    #[must_use]
    pub fn times(self, times: u32) -> Self {
        Self { times, ..self }
    }

    /// Its length on the seam line as it is cut; nothing where the draft has no such piece or the piece no such edge.
    pub fn length(&self, draft: &Draft) -> Option<Length> {
        self.by(draft, |d| d.size)
    }

    /// The same before sizes were brought up to lines of the ruler.
    pub fn exact(&self, draft: &Draft) -> Option<Length> {
        self.by(draft, |d| d.size - d.rounding())
    }

    fn by(&self, draft: &Draft, size: fn(&Dimension) -> Length) -> Option<Length> {
        let piece = draft.piece(&self.piece)?.as_trimmed();
        let own = (edge_of(&piece, self.edge, self.seam, size)? - self.ends) * i64::from(self.times);
        match &self.then {
            Some(next) => Some(own + next.by(draft, size)?),
            None => Some(own),
        }
    }
}

/// Where `edge` runs on `piece` as it is trimmed: stretches of its outline, counter-clockwise, so that the piece lies at
/// their left. None of what is laid right across, or where the piece has no such edge.
pub fn runs(piece: &Piece, edge: Edge) -> Vec<[Point; 2]> {
    let trimmed = piece.as_trimmed();
    let ((width, height), corners) = (trimmed.size(), trimmed.outline().corners());
    let next = corners.iter().skip(1).chain(corners.first());
    let along = |[a, b]: &[Point; 2]| {
        let (level, upright) = (a.y == b.y, a.x == b.x);
        match &trimmed.figure {
            Figure::Circle | Figure::RoundedAbove(_) => edge == Edge::Round,
            Figure::HalfRound if level && a.y == height => edge == Edge::Top,
            Figure::HalfRound => edge == Edge::Round,
            _ if level && a.y == height => edge == Edge::Top,
            _ if level && a.y == Length::ZERO => edge == Edge::Base,
            _ if level => edge == Edge::LegAcross,
            Figure::Rounded(_) if !upright => edge == Edge::Base,
            _ if upright && a.x > Length::ZERO && a.x < width => edge == Edge::LegUp,
            _ => matches!(edge, Edge::Side | Edge::SideToFold),
        }
    };
    corners.iter().zip(next).map(|(a, b)| [*a, *b]).filter(along).collect()
}

/// From corner to corner of the cut edge; of a curve, on the seam line.
fn edge_of(piece: &Piece, edge: Edge, seam: Length, size: fn(&Dimension) -> Length) -> Option<Length> {
    let (width, height) = (size(&piece.width), size(&piece.height));
    let round = |length: f64| Length(length.round() as i64);
    Some(match (edge, &piece.figure) {
        (Edge::Round, Figure::Circle) => round((width - seam * 2).0 as f64 * PI),
        (Edge::Round, Figure::HalfRound) => round((width - seam * 2).0 as f64 * FRAC_PI_2) + (height - width / 2) * 2,
        (Edge::Round, Figure::RoundedAbove(radius)) => {
            // Along the base, up both sides, round both corners and along what is straight between them.
            let (r, wide, tall) = (*radius - seam, width - seam * 2, height - seam * 2);
            wide + (tall - r) * 2 + round(r.0 as f64 * PI) + (wide - r * 2)
        }
        (Edge::Round, _) => return None,
        (Edge::LegAcross, Figure::CutOut { across, .. } | Figure::CutAtFold { across, .. }) => size(across),
        (Edge::LegUp, Figure::CutOut { up, .. } | Figure::CutAtFold { up, .. }) => size(up),
        (Edge::Base, Figure::CutOut { across, .. }) => width - size(across) * 2,
        (Edge::Side, Figure::CutOut { up, .. }) => height - size(up),
        (Edge::Side | Edge::SideToFold, Figure::CutAtFold { up, .. }) => height / 2 - size(up),
        (Edge::SideToFold, _) => height / 2,
        (Edge::Across, _) => width,
        (_, Figure::Free(corners)) => return of_free(corners, edge, width, height),
        (Edge::Top, Figure::Tapered(by)) => width - (*by).max(Length::ZERO) * 2,
        (Edge::Side, Figure::Tapered(by)) => round((height.0 as f64).hypot(by.0 as f64)),
        (Edge::Base, Figure::Tapered(by)) => width - (-*by).max(Length::ZERO) * 2,
        (Edge::Top | Edge::Base, _) => width,
        (Edge::Side, _) => height,
        (Edge::LegAcross | Edge::LegUp, _) => return None,
    })
}

/// Of a panel with squares out of all four corners, its corners counter-clockwise from the lower left.
fn of_free(corners: &[crate::shape::Point], edge: Edge, width: Length, height: Length) -> Option<Length> {
    let (across, up) = (corners.first()?.x, corners.get(2)?.y);
    let top = corners.get(4).map(|p| height - p.y)?;
    Some(match edge {
        Edge::Top | Edge::Base => width - across * 2,
        Edge::Side => height - up - top,
        Edge::LegAcross => across,
        Edge::LegUp => up,
        Edge::Across => width,
        Edge::Round | Edge::SideToFold => return None,
    })
}

/// A seam: what is sewn to what.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Seam {
    /// What it is called: `side seam`.
    pub name: Cow<'static, str>,
    /// One side of it, and the other.
    pub sides: [Stretch; 2],
    /// By how much the first side is longer on purpose, and gathered, pleated, or left open.
    pub ease: Length,
    /// Key of the step of making the bag at which it is sewn.
    pub step: Cow<'static, str>,
}

impl Seam {
    /// `one` to `other`, equally long, sewn at the step with the key `step`.
    pub fn new(
        name: impl Into<Cow<'static, str>>,
        step: impl Into<Cow<'static, str>>,
        one: Stretch,
        other: Stretch,
    ) -> Self {
        Self { name: name.into(), sides: [one, other], ease: Length::ZERO, step: step.into() }
    }

    /// An edge to its like on the other panel, sewn at `step`.
    pub fn like(name: &'static str, step: &'static str, edge: Stretch) -> Self {
        Self::new(name, step, edge.clone(), edge)
    }

    /// With the first side so much longer.
    #[must_use]
    pub fn easing(self, ease: Length) -> Self {
        Self { ease, ..self }
    }

    /// How long both sides are on the seam line; nothing where the draft lacks one.
    pub fn lengths(&self, draft: &Draft) -> Option<[Length; 2]> {
        let [one, other] = &self.sides;
        Some([one.length(draft)? - self.ease, other.length(draft)?])
    }

    /// The same before sizes were brought up to lines of the ruler: then they are equal.
    pub fn exact(&self, draft: &Draft) -> Option<[Length; 2]> {
        let [one, other] = &self.sides;
        Some([one.exact(draft)? - self.ease, other.exact(draft)?])
    }

    /// The seam in words; nothing where the draft lacks one of its pieces.
    pub fn told(&self, draft: &Draft, ruler: Ruler) -> Option<Told> {
        let show = |l: Length| format!("{} {}", ruler.show(l.round_to(ruler.step())).text, ruler.system().symbol());
        let name_of = |s: &Stretch| draft.piece(&s.piece).map_or(s.piece.as_ref(), |p| p.name.as_ref()).to_owned();
        let named = |s: &Stretch| {
            s.all().map(|s| format!("{}, {}", name_of(s), s.edge.name())).collect::<Vec<_>>().join(" and ")
        };
        let named_other = |s: &Stretch| match &self.sides[0] {
            first if first.piece == s.piece && s.then.is_none() => s.edge.name().to_owned(),
            _ => named(s),
        };
        let [one, other] = self.lengths(draft)?;
        let (longer, by) = if one >= other { (&self.sides[0], one - other) } else { (&self.sides[1], other - one) };
        let apart = if self.ease > Length::ZERO {
            Some(format!("{} is {} longer on purpose", named(&self.sides[0]), show(self.ease)))
        } else {
            (by >= ruler.step()).then(|| {
                format!("{} is {} longer, from sizes brought up to the ruler: ease it in", named(longer), show(by))
            })
        };
        Some(Told {
            name: self.name.to_string(),
            one: named(&self.sides[0]),
            other: (self.sides[0] != self.sides[1]).then(|| named_other(&self.sides[1])),
            length: show(one),
            seam: show(self.sides[0].seam),
            // Sizes, corners and a curve are each brought up to a line.
            meets: self.exact(draft).is_none_or(|[one, other]| (one - other).0.abs() <= ruler.step().0 * 2),
            apart,
        })
    }
}

/// A seam in words.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Told {
    /// `base seam`.
    pub name: String,
    /// `Outer panel, base`.
    pub one: String,
    /// What it is sewn to; nothing where it is sewn to another of the same.
    pub other: Option<String>,
    /// How long it is on the line it is sewn on, with its unit.
    pub length: String,
    /// How far from the edge it is sewn, with its unit.
    pub seam: String,
    /// Both sides are equally long, but for what bringing sizes to the ruler adds.
    pub meets: bool,
    /// That one side is longer than the other by a line of the ruler or more, and what is done about it.
    pub apart: Option<String>,
}

/// The seams of panels that are boxed by corners cut out: the legs of a corner meet each other. Sewn at the two `steps`.
pub(super) fn boxed(
    panel: &'static str,
    [along, across]: [&'static str; 2],
    side: Length,
    base: Length,
    boxing: Length,
) -> [Seam; 2] {
    [
        Seam::like("base seam", along, Stretch::new(panel, Edge::Base, base, boxing * 2)),
        Seam::new(
            "across the corner",
            across,
            Stretch::new(panel, Edge::LegAcross, boxing, side - boxing).times(2),
            Stretch::new(panel, Edge::LegUp, boxing, base - boxing).times(2),
        ),
    ]
}

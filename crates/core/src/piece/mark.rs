//! Marks drawn on a piece, each with what it is measured from.

use crate::measure::{Length, Ruler};
use serde::{Deserialize, Serialize};
use std::borrow::Cow;

/// The edge or line a mark is measured from.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub enum From {
    /// The raw edge at the top.
    TopEdge,
    /// The raw edge at the base.
    BaseEdge,
    /// The raw edge at the left.
    LeftEdge,
    /// The raw edges at both sides.
    SideEdges,
    /// Up and down the middle.
    Middle,
}

impl From {
    /// In the trade's words.
    pub const fn name(self) -> &'static str {
        match self {
            Self::TopEdge => "from the top raw edge",
            Self::BaseEdge => "from the base raw edge",
            Self::LeftEdge => "from the left raw edge",
            Self::SideEdges => "from each side raw edge",
            Self::Middle => "each side of the middle",
        }
    }
}

/// One thing to mark.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Mark {
    /// What it marks: `strap centre`, `fold line`.
    pub name: Cow<'static, str>,
    /// How far.
    pub distance: Length,
    /// From where.
    pub from: From,
    /// It says where a corner of the base is sewn or will be cut, so that the depth follows from it.
    #[serde(default)]
    pub boxes: bool,
    /// It is a share of the side it is measured along, such as a quarter: it moves when that is measured anew.
    #[serde(default)]
    pub share: bool,
    /// A second distance that fixes it, such as how far down from the top.
    pub and: Option<(Length, From)>,
}

impl Mark {
    /// Whether it is on a piece so wide and tall.
    pub fn lies_on(&self, (width, height): (Length, Length)) -> bool {
        let on = |distance: Length, from: From| {
            let most = match from {
                From::TopEdge | From::BaseEdge => height,
                From::LeftEdge | From::SideEdges => width,
                // An odd width has no middle of its own.
                From::Middle => width / 2 + Length(1),
            };
            distance >= Length::ZERO && distance <= most
        };
        on(self.distance, self.from) && self.and.is_none_or(|(distance, from)| on(distance, from))
    }

    /// The same on a piece that was `was` and is `now` wide and tall, where it is a share of a side.
    pub(super) fn follow(&mut self, was: (Length, Length), now: (Length, Length)) {
        if !self.share {
            return;
        }
        let (was, now) = match self.from {
            From::TopEdge | From::BaseEdge => (was.1, now.1),
            From::LeftEdge | From::SideEdges | From::Middle => (was.0, now.0),
        };
        if was > Length::ZERO {
            self.distance = Length((i128::from(self.distance.0) * i128::from(now.0) / i128::from(was.0)) as i64);
        }
    }

    /// As a line for the maker: what, how far and from where, on a piece cut `width` × `height`; where a fold finds the
    /// place too, that is said. A mark at no distance is told by its name alone.
    pub fn describe(&self, ruler: Ruler, (width, height): (Length, Length)) -> String {
        let place = |l: Length, from: From| {
            let whole = match from {
                From::TopEdge | From::BaseEdge => Some(height),
                From::LeftEdge | From::SideEdges => Some(width),
                From::Middle => None,
            };
            let fold = whole.and_then(|whole| fold_at(l, whole)).map(|fold| format!(" ({fold})")).unwrap_or_default();
            format!("{} {}{fold}", ruler.show(l).text, from.name())
        };
        match self.and {
            _ if self.distance == Length::ZERO && self.and.is_none() => self.name.to_string(),
            Some((distance, from)) if self.distance == Length::ZERO && self.from == From::Middle => {
                format!("{}: in the middle, {}", self.name, place(distance, from))
            }
            Some((distance, from)) => {
                format!("{}: {}, {}", self.name, place(self.distance, self.from), place(distance, from))
            }
            None => format!("{}: {}", self.name, place(self.distance, self.from)),
        }
    }
}

/// How `distance` is found by folding a piece `whole` long, if halves, thirds or quarters come to it within a 1/32 in.
pub fn fold_at(distance: Length, whole: Length) -> Option<&'static str> {
    const FOLDS: [(i64, i64, &str); 5] = [
        (1, 2, "the half: fold it in two"),
        (1, 3, "a third: fold it in three"),
        (2, 3, "two thirds: fold it in three"),
        (1, 4, "a quarter: fold it in two twice"),
        (3, 4, "three quarters: fold it in two twice"),
    ];
    let near = |n: i64, of: i64| (distance * of - whole * n).0.abs() <= Length::inches(1, 32).0 * of;
    FOLDS.iter().find(|(n, of, _)| whole > Length::ZERO && near(*n, *of)).map(|fold| fold.2)
}

#[cfg(test)]
mod tests {
    use super::{From, Mark, fold_at};
    use crate::measure::{Length, Ruler};

    #[test]
    fn halves_thirds_and_quarters_are_folded() {
        let at = |eighths: i64| fold_at(Length::inches(eighths, 8), Length::INCH * 12);
        assert!(at(48).is_some_and(|f| f.contains("half")));
        assert!(at(32).is_some_and(|f| f.starts_with("a third")));
        assert!(at(64).is_some_and(|f| f.starts_with("two thirds")));
        assert!(at(24).is_some_and(|f| f.starts_with("a quarter")));
        assert!(at(72).is_some_and(|f| f.starts_with("three quarters")));
        assert_eq!((at(47), at(0), at(96)), (None, None, None));
    }

    #[test]
    fn a_mark_tells_the_fold_on_the_side_it_is_measured_along() {
        let mark = Mark {
            boxes: false,
            share: false,
            name: "fold".into(),
            distance: Length::INCH * 7,
            from: From::TopEdge,
            and: None,
        };
        let told = mark.describe(Ruler::Eighth, (Length::INCH * 9, Length::INCH * 14));
        assert_eq!(told, "fold: 7 from the top raw edge (the half: fold it in two)");
        assert_eq!(
            mark.describe(Ruler::Eighth, (Length::INCH * 14, Length::INCH * 9)),
            "fold: 7 from the top raw edge"
        );
    }
}

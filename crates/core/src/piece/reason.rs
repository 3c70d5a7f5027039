//! Why a number is what it is: named terms that add up to it.

use crate::measure::{Length, Ruler};
use serde::{Deserialize, Serialize};
use std::borrow::Cow;

/// One term of a sum: `2 × ½ side seam`.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Term {
    /// What it stands for, in the trade's words.
    pub name: Cow<'static, str>,
    /// How often it counts; negative when it is taken off.
    pub times: i64,
    /// One of it.
    pub each: Length,
    /// The field of the bag it comes from, if it comes from one.
    pub field: Option<Cow<'static, str>>,
}

impl Term {
    /// `each`, once, from the bag's `field`.
    pub fn once(name: impl Into<Cow<'static, str>>, each: Length, field: &'static str) -> Self {
        Self { name: name.into(), times: 1, each, field: Some(field.into()) }
    }

    /// `times` × `each`, from the bag's `field`.
    pub fn times(name: impl Into<Cow<'static, str>>, times: i64, each: Length, field: &'static str) -> Self {
        Self { name: name.into(), times, each, field: Some(field.into()) }
    }

    /// What it adds.
    pub fn value(&self) -> Length {
        self.each * self.times
    }
}

/// A size with its reason. The terms always add up to `size`.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Dimension {
    /// The size, on a line of the ruler.
    pub size: Length,
    /// The terms, the rounding last if there was any.
    pub terms: Vec<Term>,
}

impl Dimension {
    /// The sum of `terms` that are not nothing, brought *up* to a line of `ruler`, so that rounding never makes a
    /// piece too small; what it added is the last term.
    pub fn sum(terms: Vec<Term>, ruler: Ruler) -> Self {
        let mut terms: Vec<Term> = terms.into_iter().filter(|t| t.value() != Length::ZERO).collect();
        let exact: Length = terms.iter().map(Term::value).sum();
        let size = ruler.up(exact);
        if size != exact {
            terms.push(Term { name: "rounded up to the ruler".into(), times: 1, each: size - exact, field: None });
        }
        Self { size, terms }
    }

    /// What rounding to the ruler added: the terms that come from no field, one wherever it was rounded.
    pub fn rounding(&self) -> Length {
        self.terms.iter().filter(|t| t.field.is_none()).map(Term::value).sum()
    }

    /// Its terms as they are printed: what the ruler cannot say exactly stands at its nearest line, and the last term is
    /// what is left, so that what is printed adds up.
    pub fn printed(&self, ruler: Ruler) -> Vec<PrintedTerm> {
        let mut printed: Vec<PrintedTerm> = self
            .terms
            .iter()
            .filter(|t| t.field.is_some())
            .map(|term| {
                let about = !ruler.show(term.each).exact;
                let each = if about { term.each.round_to(ruler.step()) } else { term.each };
                PrintedTerm { term: Term { each, ..term.clone() }, about }
            })
            .collect();
        let rest = self.size - printed.iter().map(|p| p.term.value()).sum::<Length>();
        if rest != Length::ZERO {
            let (name, times) =
                if rest > Length::ZERO { ("rounded up to the ruler", 1) } else { ("rounded to the ruler", -1) };
            let term = Term { name: name.into(), times, each: rest * times, field: None };
            printed.push(PrintedTerm { term, about: false });
        }
        printed
    }
}

/// A term as it is printed.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct PrintedTerm {
    /// With a length that the ruler can say.
    pub term: Term,
    /// The length is the nearest line, not its own.
    pub about: bool,
}

//! Money, and what a length costs.

use crate::measure::Length;
use serde::{Deserialize, Serialize};
use std::iter::Sum;
use std::ops::Add;

/// An amount in hundredths of the maker's currency; Bofta never asks which.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[serde(transparent)]
pub struct Money(pub i64);

impl Money {
    /// `14.50`.
    pub fn show(self) -> String {
        let sign = if self.0 < 0 { "−" } else { "" };
        let amount = self.0.unsigned_abs();
        format!("{sign}{}.{:02}", amount / 100, amount % 100)
    }
}

impl Add for Money {
    type Output = Self;
    fn add(self, other: Self) -> Self {
        Self(self.0 + other.0)
    }
}
impl Sum for Money {
    fn sum<I: Iterator<Item = Self>>(all: I) -> Self {
        all.fold(Self(0), |a, b| a + b)
    }
}

/// So much for so long a piece.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Price {
    /// What `per` costs.
    pub amount: Money,
    /// The length priced: a yard, a metre.
    pub per: Length,
}

impl Price {
    /// What `length` costs, to the nearest hundredth.
    pub fn of(&self, length: Length) -> Money {
        let (amount, per) = (i128::from(self.amount.0), i128::from(self.per.0));
        Money(((2 * amount * i128::from(length.0) + per) / (2 * per)) as i64)
    }
}

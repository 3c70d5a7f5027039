//! A stretch of a long list, and finding by name.

use super::problem::ApiError;
use serde::Deserialize;
use utoipa::IntoParams;

/// The most entries of one answer.
const MOST: u32 = 200;

/// Which part of a list: those whose name holds `find`, from the one at `from` on, at most `count`.
#[derive(Debug, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct Stretch {
    /// A part of the name, whatever the case.
    #[serde(default)]
    pub find: String,
    /// How many to pass over.
    #[serde(default)]
    #[param(minimum = 0)]
    pub from: u32,
    /// How many to give, from 1 to 200.
    #[serde(default = "usual")]
    #[param(minimum = 1, maximum = 200)]
    pub count: u32,
}

const fn usual() -> u32 {
    24
}

impl Stretch {
    /// How many of `all` are found by their name, and those of this stretch.
    pub fn of<T>(&self, all: Vec<T>, name: impl Fn(&T) -> &str) -> Result<(u32, Vec<T>), ApiError> {
        let wanted = self.find.trim().to_lowercase();
        let has = |one: &T| wanted.is_empty() || name(one).to_lowercase().contains(&wanted);
        self.part(all.into_iter().filter(has).collect())
    }

    /// How many are `found`, and those of this stretch.
    pub fn part<T>(&self, found: Vec<T>) -> Result<(u32, Vec<T>), ApiError> {
        if !(1..=MOST).contains(&self.count) {
            let message = format!("{} at once: from 1 to {MOST} are given.", self.count);
            return Err(ApiError::field("count", self.count, message));
        }
        let number = found.len() as u32;
        Ok((number, found.into_iter().skip(self.from as usize).take(self.count as usize).collect()))
    }
}

//! What is wrong with one field, as a sentence for the person who filled it in.

use thiserror::Error;

/// A value that cannot be taken: which field, what was given, what is allowed.
#[derive(Clone, Debug, PartialEq, Eq, Error)]
#[error("{field}: {message}")]
pub struct FieldProblem {
    /// The field's name as the reader knows it: `depth`, `pieces[2].outline.rect`.
    pub field: String,
    /// What was given, as given.
    pub value: String,
    /// A sentence that says what is wrong and what is allowed.
    pub message: String,
}

impl FieldProblem {
    /// A problem with `field`.
    pub fn new(field: impl Into<String>, value: impl ToString, message: impl Into<String>) -> Self {
        Self { field: field.into(), value: value.to_string(), message: message.into() }
    }

    /// The same problem seen from one level further out: `outline` becomes `pieces[2].outline`.
    pub fn within(mut self, outer: &str) -> Self {
        self.field = format!("{outer}.{}", self.field);
        self
    }
}

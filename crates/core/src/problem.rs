//! What is wrong with one field, as a sentence for the person who filled it in.

use thiserror::Error;

/// One way to answer a question about a value.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Answer {
    /// In a few words.
    pub label: String,
    /// The value to give instead.
    pub text: String,
}

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
    /// Where it is a question: what may be answered, each as the value to give instead.
    pub answers: Vec<Answer>,
}

impl FieldProblem {
    /// A problem with `field`.
    pub fn new(field: impl Into<String>, value: impl ToString, message: impl Into<String>) -> Self {
        let value = value.to_string();
        let short = excerpt(&value, LONGEST_VALUE);
        let mut message: String = message.into();
        if message.chars().count() > LONGEST_MESSAGE {
            // What was typed is quoted in most messages: it is what makes them long.
            message = message.replace(&value, &short);
            message = excerpt(&message, LONGEST_MESSAGE);
        }
        Self { field: field.into(), value: short, message, answers: vec![] }
    }

    /// The same as a question with these answers.
    #[must_use]
    pub fn with_answers(self, answers: Vec<Answer>) -> Self {
        Self { answers, ..self }
    }

    /// The same problem seen from one level further out: `outline` becomes `pieces[2].outline`.
    pub fn within(mut self, outer: &str) -> Self {
        self.field = format!("{outer}.{}", self.field);
        self
    }
}

/// The most characters of a message, whatever was typed.
const LONGEST_MESSAGE: usize = 500;
/// The most characters of a value that is quoted.
const LONGEST_VALUE: usize = 120;

/// The beginning of a text that is longer than `most` characters, with how long it is.
pub fn excerpt(text: &str, most: usize) -> String {
    let all = text.chars().count();
    if all <= most {
        return text.to_owned();
    }
    let note = format!(" … ({all} characters)");
    let begins: String = text.chars().take(most - note.chars().count()).collect();
    begins + &note
}

/// `said` with a full stop, where it does not end in one or in a question mark.
pub fn as_sentence(said: impl ToString) -> String {
    let said = said.to_string();
    if said.ends_with(['.', '?', '!']) { said } else { said + "." }
}

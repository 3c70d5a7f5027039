//! What is wrong with a file, in one line that names the field.

use bofta_core::FieldProblem;
use thiserror::Error;

/// A file that cannot be read as what it should be.
#[derive(Clone, Debug, PartialEq, Eq, Error)]
pub enum FormatError {
    /// Not JSON, cut short, a field missing, unknown or of the wrong kind.
    #[error("{field}: {message}")]
    Shape {
        /// Path of the field, such as `pieces[2].outline`.
        field: String,
        /// What is wrong there.
        message: String,
    },
    /// A field whose value cannot stand.
    #[error(transparent)]
    Value(#[from] FieldProblem),
}

impl FormatError {
    /// Reads `text` as JSON of type `T`.
    pub(crate) fn read<T: serde::de::DeserializeOwned>(text: &str) -> Result<T, Self> {
        let mut json = serde_json::Deserializer::from_str(text);
        let value: T = serde_path_to_error::deserialize(&mut json).map_err(|e| {
            let path = e.path().to_string();
            let inner = e.inner();
            let message = if inner.is_eof() {
                format!("the file ends at line {}, column {}, before it is complete", inner.line(), inner.column())
            } else {
                inner.to_string()
            };
            Self::Shape { field: if path == "." { "the file".into() } else { path }, message }
        })?;
        json.end().map_err(|e| Self::Shape {
            field: "the file".into(),
            message: format!("something follows its end: {e}"),
        })?;
        Ok(value)
    }
}

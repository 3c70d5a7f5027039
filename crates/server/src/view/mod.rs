//! What the screens are sent: every measure with its text and its words, every drawing ready to show.

mod bag;
mod cloth;
mod lay;
mod making;
mod measure;
mod notice;
mod part;
mod piece;
mod project;
mod seam;
mod shelf;
mod step;

use serde::Serialize;

pub use bag::{FamilyView, bought_text, family_views};
pub use lay::{LayView, lay_view};
pub use making::{MakingView, making_view};
pub use measure::{DimensionView, DrawingView, Measure};
pub use notice::ProblemView;
pub use project::{Change, Context, ProjectView, project_view};
pub use shelf::{Card, PROGRAM, card, plain_card};
pub use step::{StepView, step_view};

/// The serde name of a unit variant.
pub fn key<T: Serialize>(value: &T) -> String {
    serde_json::to_value(value).ok().and_then(|v| v.as_str().map(str::to_owned)).unwrap_or_default()
}

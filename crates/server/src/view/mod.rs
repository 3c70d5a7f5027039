//! What the screens are sent: every measure with its text and its words, every drawing ready to show.

mod measure;
mod project;
mod shelf;
mod step;

pub use measure::{DimensionView, DrawingView, Measure};
pub use project::{Context, FamilyView, LayView, ProblemView, ProjectView, family_views, lay_view, project_view};
pub use shelf::{Card, card};
pub use step::{StepView, step_view};

//! What to look at, and what is wrong with a field.

use crate::laying::Laid;
use bofta_core::FieldProblem;
use bofta_core::bag::{Notice, Severity, Stage};
use bofta_core::buying::Missing;
use bofta_core::project::{Planned, Project, guesses};
use serde::Serialize;
use utoipa::ToSchema;

/// What is wrong with one field.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct ProblemView {
    pub field: String,
    pub value: String,
    pub message: String,
    /// Where it is a question: what may be answered.
    pub answers: Vec<ReplyView>,
}

/// One way to answer a question about a value.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct ReplyView {
    pub label: String,
    /// The value to send instead.
    pub text: String,
}

impl std::convert::From<FieldProblem> for ProblemView {
    fn from(p: FieldProblem) -> Self {
        let answers = p.answers.into_iter().map(|a| ReplyView { label: a.label, text: a.text }).collect();
        Self { field: p.field, value: p.value, message: p.message, answers }
    }
}

/// Something to look at.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct NoticeView {
    /// Stage to put it right: `bag`, `cloth`, `lay`.
    pub stage: String,
    pub field: Option<String>,
    /// Likely a mistake, not only good to know.
    pub attention: bool,
    pub text: String,
}

pub(super) fn notices(
    project: &Project,
    planned: &Planned,
    laid: Option<&Laid>,
    missing: Option<&Missing>,
    failed: Option<&str>,
) -> Vec<NoticeView> {
    let mut all: Vec<NoticeView> = planned.problems.iter().map(|p| attention("cloth", p.to_string())).collect();
    all.extend(failed.map(|why| attention("lay", format!("{why}."))));
    for part in &planned.unassigned {
        all.push(attention("cloth", format!("{} has no cloth yet.", part.name())));
    }
    if let Some(missing) = missing {
        all.extend(missing.describe(project.system).into_iter().map(|told| attention("lay", told)));
    }
    if let Some(laid) = laid {
        all.extend(laid.lay.warnings.iter().map(|w| attention("lay", w.clone())));
        all.extend(guesses(project, &laid.job, &laid.lay).into_iter().map(|told| attention("cloth", told)));
    }
    all.extend(planned.draft.notices.iter().map(notice));
    all
}

fn attention(stage: &str, text: String) -> NoticeView {
    NoticeView { stage: stage.to_owned(), field: None, attention: true, text }
}

fn notice(n: &Notice) -> NoticeView {
    let stage = match n.stage {
        Stage::Bag => "bag",
        Stage::Pieces => "pieces",
        Stage::Cloth => "cloth",
        Stage::Lay => "lay",
        Stage::Buy => "buy",
        Stage::Cut => "cut",
    };
    NoticeView {
        stage: stage.to_owned(),
        field: n.field.as_deref().map(str::to_owned),
        attention: n.severity == Severity::Attention,
        text: n.text.clone(),
    }
}

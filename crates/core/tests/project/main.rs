//! A project: its edits, its history, what it keeps, and the plan that is being cut. One program, a file a subject.
#![allow(missing_docs)]

#[path = "../support/any_edit.rs"]
mod any_edit;
mod cut_plan;
mod histories;
mod mutations;
mod notions;
mod project;
mod systems;

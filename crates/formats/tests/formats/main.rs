//! Files, lists, drawings and sheets: read, written and looked at. One program, a file a subject.
#![allow(missing_docs)]

#[path = "../../../core/tests/support/any_edit.rs"]
mod any_edit;
mod cut_list;
mod drawings;
mod exports;
mod formats;
mod mutations;
mod paper;
mod whole_bags;

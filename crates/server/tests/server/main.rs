//! The program from outside: its command line and its HTTP interface. One program, a file a subject.
#![allow(missing_docs)]

#[path = "../../../core/tests/support/any_edit.rs"]
mod any_edit;
mod at_table;
#[path = "../../../core/tests/engine/carry.rs"]
mod carry;
mod cli;
mod cloth;
#[path = "../../../core/tests/engine/cutter.rs"]
mod cutter;
mod http;
#[path = "../support/mod.rs"]
mod support;
mod trust;

//! Bytes to core types and back: the open formats `bofta-job` and `bofta-lay`, the cut list as CSV and XLSX, drawings as SVG
//! and printed sheets as PDF. Pure functions; docs/formats.md describes the formats.

mod bag;
pub mod csv;
pub mod cut_list;
pub mod cut_table;
pub mod draw;
mod error;
mod file_kind;
pub mod gate;
mod job;
mod lay;
mod limits;
pub mod outlines;
pub mod sheet;
mod shopping;
pub mod spreadsheet;

pub use bag::{Specification, read_bag};
pub use error::FormatError;
pub use job::{read_job, write_job};
pub use lay::{read_lay, read_lay_with_cuts, write_lay};
pub use shopping::shopping_list;

//! Bytes to core types and back: the open formats `bofta-job` and `bofta-lay`, the cut list as CSV, drawings as SVG
//! and printed sheets as PDF. Pure functions; docs/formats.md describes the formats.

pub mod csv;
pub mod draw;
mod error;
mod job;
mod lay;
pub mod sheet;

pub use error::FormatError;
pub use job::{read_job, write_job};
pub use lay::{read_lay, write_lay};

//! Scraps read from a picture: a photo of scraps on a mat, with four marked corners of something whose size is known.
//!
//! `perspective` puts the picture flat, as large as life; `mat` tells cloth from mat, `edge` follows the edge of what is
//! cloth to a fraction of a pixel, and tells it by few corners. `swatch` takes the print of a cloth. `camera` is a stand-in for a camera over the table: it makes
//! such pictures, and keeps apart what is truly on them. Axes of an outline: x to the right, y up, as a scrap has them.

pub mod camera;
mod edge;
mod mat;
mod perspective;
mod swatch;
mod trace;

pub use perspective::{Marks, Reference};
pub use swatch::{Print, print_of};
pub use trace::{NotTraced, Outlined, Traced, size_of, trace};

//! The cut list: what is cut, how large and why, and the marks that go on it.
//!
//! For `bag` (which drafts pieces), `lay` (which places them) and the Pieces stage. Every dimension carries the named
//! terms that add up to it.

mod direction;
mod figures;
mod mark;
mod piece_type;
mod reason;

pub use direction::{Grain, Mirror, PrintRule};
pub use mark::{From, Mark};
pub use piece_type::{Figure, Part, Patches, Piece, When};
pub use reason::{Dimension, PrintedTerm, Term};

//! Bags: finished sizes in; pieces, goods, marks, checks and *reasons* out. A bag is a body ([`Body`], one file a family)
//! and the parts put on its walls ([`Wall`], `parts/`), over shared building blocks (`boxing`, `strap`, `pocket`, `backing`, `binding`, `cord`, `piecing`, `quilting`, `bands`, `behind`, `making_up`, `seam`, `sewn`, `hem`, `mouth`, `rise`, `extras`, `order`).
//!
//! For the Bag and Pieces stages and for `project`, which lays what is drafted here. A family lists its fields once
//! ([`Design::fields`]); keeping, editing, reading a specification and showing all go by that listing.

pub mod backing;
pub mod bands;
mod base;
pub mod behind;
pub mod binding;
pub mod boxing;
mod caddy;
mod clutch;
pub mod cord;
mod cross_body;
mod cut_list;
mod draft;
mod drawstring;
mod duffel;
pub mod extras;
mod family;
pub(crate) mod field;
pub mod fit;
mod found_tube;
pub mod hem;
mod kept;
mod lining;
pub mod making_up;
pub mod mouth;
pub mod order;
pub mod parts;
pub mod piecing;
pub mod pocket;
mod pouch;
mod problems;
pub mod quilting;
pub mod rise;
pub mod round;
pub mod seam;
pub mod sewn;
mod solid;
pub mod strap;
mod tote;
mod untouched;
pub mod wall;
mod whole;
pub mod zip;

pub use backing::{BackingChoice, BackingCloth, BackingSchool};
pub use bands::{Bands, BandsRun};
pub use base::BaseJoin;
pub use caddy::Caddy;
pub use clutch::Clutch;
pub use cross_body::CrossBody;
pub use cut_list::{Bought, CutList, MOST_ROWS, Row, RowShape};
pub use draft::{Draft, Finished, Good, GoodKind, Hardware, Notice, Severity, Stack, Stage};
pub use drawstring::Drawstring;
pub use duffel::Duffel;
pub use extras::{Closure, Extras};
pub use family::{Body, Family};
pub use field::{Answer, Choice, Field, Group, Slot};
pub use found_tube::FoundTube;
pub use making_up::MadeUp;
pub use mouth::{Mouth, MouthFinish};
pub use order::{Phase, Step};
pub use parts::{Added, PartKind};
pub use pouch::Pouch;
pub use rise::{Rise, Rising};
pub use solid::{AWAY, Face, Grip, Place, Solid, Thread, ThreadKind};
pub use strap::StrapMake;
pub use tote::{LiningFit, StrapEnds, Tote};
pub use wall::{Looks, Moves, Seen, Side, Wall};
pub use whole::Bag;

use crate::FieldProblem;
use crate::measure::{Ruler, System};
use piecing::Patchwork;
use sewn::Seam;

/// A family of bags, at certain sizes.
pub trait Design {
    /// A middling one to start from, with the habits of makers of `system`.
    fn default_for(system: System) -> Self
    where
        Self: Sized;

    /// Every field, once, in the order they are shown.
    fn fields(&mut self) -> Vec<Field<'_>>;

    /// Brings along what must follow from a change of the field `key`.
    fn update_dependents(&mut self, _key: &str, _system: System) {}

    /// Drafts the bag, every size brought up to a line of `ruler`.
    ///
    /// # Errors
    /// Every field that cannot stand, each once, with what is allowed.
    fn draft(&self, ruler: Ruler) -> Result<Draft, Vec<FieldProblem>>;

    /// The finished sizes, worked out back from the cut pieces of a draft of this bag, each as it is once trimmed.
    fn finished_from_cut(&self, draft: &Draft) -> Vec<Finished>;

    /// The walls that parts can be put on.
    fn walls(&self, _ruler: Ruler) -> Vec<Wall> {
        vec![]
    }

    /// The patches of the panel that the body itself makes up, and that panel's id.
    fn patchwork_mut(&mut self) -> Option<(&'static str, &mut Patchwork)> {
        None
    }

    /// What is seen on the walls of what the body has itself, its own straps and pocket, each with the group of its fields.
    fn seen(&self) -> Vec<(Group, Seen)> {
        vec![]
    }

    /// What is sewn to what; habits of making, such as how much smaller a lining is, go by the ruler's system.
    fn seams(&self, ruler: Ruler) -> Vec<Seam>;

    /// The bag as a solid, to be drawn.
    fn solid(&self, draft: &Draft) -> Solid;
}

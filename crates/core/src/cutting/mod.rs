//! A lay turned into an ordered list of cuts: each names the part of the cloth it cuts, the edge it is measured from, what
//! comes off and what lies on the table afterwards.
//!
//! For the Cut stage and the cut sheet. What is longer than needed is cut off first, the end is squared and the selvedge
//! taken off; then strips are cut right across and each is cross-cut before the next, so that no unlabelled strips pile
//! up. Where no line runs from edge to edge, a piece is cut out of the corner of its part by two cuts that meet. Shaped
//! pieces are marked out with their templates once straight cuts have freed the rectangle around them; on a scrap every
//! piece is marked out from the scrap's corners. Blocks of cloth fused to their backing follow the cloths, and the
//! corners of panels come last, through all panels alike at once.
//!
//! `check` looks at the cuts a lay file states, by code of its own. `part` has the outlines of parts, `apart` the order of cuts, `left` what they leave, `words` the sentences.

mod apart;
mod block;
mod check;
mod groups;
mod left;
mod part;
mod sight;
mod steps;
mod words;

pub use block::Block;
pub use check::{StatedCut, cut_faults};
pub use left::{LeftPart, LeftShape, left_shaped, left_whole};
pub use part::{CornerOut, EdgeStretch, PartName, PartShape};
pub use sight::Sight;
pub use steps::{
    CornerCut, Cut, CutKind, CutStyle, Edge, Freed, Kept, Line, Marking, On, OutlineCut, Side, Step, cut_list,
    cut_style, parts_before,
};
pub use words::{StepWords, describe, describe_left, opening};

//! A lay turned into an ordered list of cuts, each with the reading to set on the ruler and what falls off.
//!
//! For the Cut stage and the cut sheet. The end is squared, the selvedge taken off, then strips are cut right across
//! and each is cross-cut before the next, so that no unlabelled strips pile up. Where a lay cannot come apart edge to
//! edge a piece is freed by cuts that stop, a shaped one by cutting round its template; on a scrap all are cut round, each
//! found from the scrap's corners. What is cut
//! from a block of cloth fused to its backing comes after the cloths; corners are cut out last, through all panels alike
//! at once.

mod block;
mod sight;
mod steps;

pub use block::Block;
pub use sight::Sight;
pub use steps::{
    CornerCut, Cut, CutKind, CutStyle, Edge, Freed, LeftPart, LeftShape, Line, OutlineCut, Step, cut_list, cut_style,
    left_shaped, left_whole,
};

//! Shaped pieces, and cloths with an edge of their own: pieces are nested by their true outlines.
//!
//! [`problem`] states it: shapes, the ways each may lie on each bin, and where two of them overlap, all in whole
//! units. [`fill`] lays piece after piece at the lowest free place, `on_print` at the lowest where its motif falls right; [`separation`] lets pieces overlap and pushes them
//! apart; [`deep`] tries everything where cloth only just suffices; [`touching`] fits sides together; [`search`] runs them
//! all and keeps the best.

mod bare;
mod board;
mod deep;
mod fill;
mod no_fits;
mod on_print;
mod problem;
mod search;
mod separation;
mod shape;
mod touching;

pub(super) use board::KindPlacement;
pub(super) use fill::{Layout, boxes};
pub(super) use no_fits::Detail;
pub(super) use on_print::{Choose, fill_on_print};
pub(super) use problem::{ItemType, Nest, Way, all_items, parts_of, rectangle_inside};
pub(super) use search::{NestSearch, whole_left};

//! Drawings as SVG. One drawing serves the screen, the printed sheet and the file: the screen shows the fragment in a
//! `viewBox` of its size in pixels, the sheet puts it on a page.
//!
//! Axes of a drawing are the screen's (y down); cloth and pieces are turned over on the way.

mod anchor;
mod bag;
mod canvas;
mod cut;
mod cut_map;
mod dress;
mod face;
mod font;
mod labels;
mod lay;
mod notion;
mod on_print;
mod pattern;
mod picture;
mod piece;
mod scrap;
mod solid;
mod table;

pub use anchor::{Anchor, BagDrawing};
pub use bag::bag;
pub use canvas::{Canvas, Drawing, Style, ink};
pub use cut::{cut_step, ruler_strip};
pub use cut_map::cut_map;
pub use face::{FaceDrawing, Held, PartPlace, faces};
pub use font::{FONT_FILES, Face, has_sign, text_width};
pub use lay::{cloth_lay, thumbnail};
pub use notion::notion_on_shelf;
pub use on_print::{PrintBoard, print_board};
pub use pattern::swatch;
pub use picture::{NO_PICTURES, PICTURES_AT, Pictures, with_pictures};
pub use piece::{Shown, piece};
pub use solid::family;
pub use table::{at_hand, bolt, on_shelf};

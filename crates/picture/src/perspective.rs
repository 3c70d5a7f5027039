//! From the picture to the table: four marked points are the corners of a rectangle whose size is known.

use crate::trace::NotTraced;
use bofta_core::measure::Length;
use image::{Rgb, RgbImage};
use imageproc::geometric_transformations::{Interpolation, Projection, warp_into};

/// Four corners on the picture, in pixels from its upper left: upper left, upper right, lower right, lower left of the
/// rectangle, as they are seen.
pub type Marks = [(f64, f64); 4];

/// What is known of the picture.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Reference {
    /// Where the corners of the known rectangle are.
    pub marks: Marks,
    /// How wide it is.
    pub width: Length,
    /// How tall.
    pub height: Length,
}

/// A working picture is no larger than this, in pixels.
const MOST_WORKED: f64 = 1_000_000.0;

/// The known rectangle seen from straight above.
pub(crate) struct Flat {
    /// Pixels; row 0 is the far side.
    pub(crate) picture: RgbImage,
    /// Pixels to a millimetre.
    pub(crate) scale: f64,
}

fn mm(length: Length) -> f64 {
    length.0 as f64 / Length::MILLIMETRE.0 as f64
}

impl Reference {
    /// # Errors
    /// Marks that are no corners of a rectangle seen from above, or sizes that are none.
    pub(crate) fn check(&self, width: u32, height: u32) -> Result<(), NotTraced> {
        let inside = |(x, y): (f64, f64)| x.is_finite() && y.is_finite() && x >= 0.0 && y >= 0.0;
        if !self.marks.iter().all(|&m| inside(m) && m.0 <= f64::from(width) && m.1 <= f64::from(height)) {
            return Err(NotTraced::MarksOutside);
        }
        // Clockwise on a page whose y runs down, and every corner turned the same way.
        let turns = |k: usize| {
            let [a, b, c] = [self.marks[k], self.marks[(k + 1) % 4], self.marks[(k + 2) % 4]];
            (b.0 - a.0) * (c.1 - b.1) - (b.1 - a.1) * (c.0 - b.0)
        };
        if (0..4).any(|k| turns(k) < 100.0) {
            return Err(NotTraced::MarksCross);
        }
        let sizes = [self.width, self.height].map(mm);
        if sizes.iter().any(|s| !(20.0..=5_000.0).contains(s)) {
            return Err(NotTraced::KnownSize);
        }
        Ok(())
    }

    /// Pixels to a millimetre in the middle of the known rectangle, about.
    fn pixels_per_mm(&self) -> f64 {
        let far = |a: (f64, f64), b: (f64, f64)| (a.0 - b.0).hypot(a.1 - b.1);
        let [a, b, c, d] = self.marks;
        let across = (far(a, b) + far(d, c)) / 2.0 / mm(self.width);
        let along = (far(a, d) + far(b, c)) / 2.0 / mm(self.height);
        (across + along) / 2.0
    }

    /// Where places of the known rectangle, in millimetres from its upper left corner, are on the picture.
    pub(crate) fn on_picture(&self) -> Result<impl Fn((f64, f64)) -> (f64, f64), NotTraced> {
        let (wide, tall) = (mm(self.width) as f32, mm(self.height) as f32);
        let corners = [(0.0, 0.0), (wide, 0.0), (wide, tall), (0.0, tall)];
        let marks = self.marks.map(|(x, y)| (x as f32, y as f32));
        let projection = Projection::from_control_points(corners, marks).ok_or(NotTraced::MarksCross)?;
        Ok(move |(x, y): (f64, f64)| {
            let (px, py) = projection * (x as f32, y as f32);
            (f64::from(px), f64::from(py))
        })
    }

    /// The known rectangle as it is seen from straight above.
    pub(crate) fn flatten(&self, picture: &RgbImage) -> Result<Flat, NotTraced> {
        let (wide, tall) = (mm(self.width), mm(self.height));
        let most = (MOST_WORKED / (wide * tall)).sqrt();
        let scale = self.pixels_per_mm().min(most).min(4.0);
        // Many pixels of the picture to one of the table are averaged first.
        let fold = (self.pixels_per_mm() / scale).floor().max(1.0);
        let folded;
        let from = if fold >= 2.0 {
            let size = |n: u32| ((f64::from(n) / fold).round() as u32).max(1);
            folded = image::imageops::thumbnail(picture, size(picture.width()), size(picture.height()));
            &folded
        } else {
            picture
        };
        let shrunk = (
            f64::from(from.width()) / f64::from(picture.width()),
            f64::from(from.height()) / f64::from(picture.height()),
        );
        let marks = self.marks.map(|(x, y)| ((x * shrunk.0) as f32, (y * shrunk.1) as f32));
        let (right, bottom) = ((wide * scale) as f32, (tall * scale) as f32);
        let corners = [(0.0, 0.0), (right, 0.0), (right, bottom), (0.0, bottom)];
        let projection = Projection::from_control_points(marks, corners).ok_or(NotTraced::MarksCross)?;
        let mut flat = RgbImage::new(right.ceil() as u32, bottom.ceil() as u32);
        warp_into(from, &projection, Interpolation::Bilinear, Rgb([0, 0, 0]), &mut flat);
        Ok(Flat { picture: flat, scale })
    }
}

//! A picture read: decoded, put flat, told from the mat, followed.

use crate::edge::{Place, area, edges, straightened};
use crate::mat::scraps;
use crate::perspective::Reference;
use bofta_core::cloth::MOST_SCRAP_CORNERS;
use bofta_core::measure::Length;
use bofta_core::shape::Point;
use image::metadata::Orientation;
use image::{DynamicImage, ImageDecoder, ImageError, ImageReader, RgbImage};
use std::io::Cursor;
use thiserror::Error;

/// Pixels of the largest picture that is read.
const MOST_PIXELS: u64 = 26_000_000;

/// Why nothing is read from a picture. Each is a sentence that says what would do.
#[derive(Clone, Debug, PartialEq, Eq, Error)]
pub enum NotTraced {
    /// No picture, or not one of these kinds.
    #[error("Bofta can’t read this picture. Use JPEG, PNG or WebP.")]
    NotAPicture,
    /// More pixels than are worked on.
    #[error(
        "The picture has {0} megapixels, and Bofta reads at most 26. Take a smaller picture; 12 megapixels are plenty."
    )]
    TooLarge(u64),
    /// Fewer than tell an edge.
    #[error("The picture is {0} × {1} pixels, too few to find an edge.")]
    TooSmall(u32, u32),
    /// A mark that is not on the picture.
    #[error("A mark is outside the picture. Put all four on the corners of the thing you know the size of.")]
    MarksOutside,
    /// Marks in no order.
    #[error(
        "The four marks don’t form a rectangle seen from above. Mark the upper left, upper right, lower right and lower left corner."
    )]
    MarksCross,
    /// A size that cannot be.
    #[error("The marked rectangle can be 2 cm to 5 m wide and tall. Type its real size.")]
    KnownSize,
    /// The marks are too close for what is to be told.
    #[error(
        "The marks are so close together that a millimetre is less than a third of a pixel. Take the picture from closer."
    )]
    TooFar,
    /// Nothing stands out from the mat.
    #[error("Bofta sees no scrap. Lay it inside the four marks, on a mat of another colour, in even light.")]
    Nothing,
    /// All that is seen goes on beyond the picture.
    #[error("The scrap runs over the edge of the picture. Move it in, or take the picture from further away.")]
    CutOff,
}

/// One scrap as it was seen.
#[derive(Clone, Debug, PartialEq)]
pub struct Outlined {
    /// Its corners, counter-clockwise.
    pub corners: Vec<Point>,
    /// The same corners on the picture, in pixels from its upper left.
    pub on_picture: Vec<(f64, f64)>,
    /// Holes in it, in the same axes.
    pub holes: Vec<Vec<Point>>,
    /// Places smaller than half a centimetre that look like the mat and are taken as its print.
    pub specks: usize,
}

/// All that was seen.
#[derive(Clone, Debug, PartialEq)]
pub struct Traced {
    /// Largest first.
    pub scraps: Vec<Outlined>,
    /// Scraps that reach over the edge of the picture and are left out.
    pub cut_off: usize,
    /// Along the rim of what is marked something else than the mat is seen: a mark may be off its corner, and all sizes
    /// are wrong then.
    pub rim: bool,
    /// How close the outlines are told: what was asked for, or what the picture allows.
    pub tolerance: Length,
}

/// Width and height of a picture in pixels.
///
/// # Errors
/// Not a picture, or one of a size that is not read.
pub fn size_of(bytes: &[u8]) -> Result<(u32, u32), NotTraced> {
    let mut decoder = decoder(bytes)?;
    let (width, height) = decoder.dimensions();
    let (width, height) = if lies_on_its_side(upright(&mut decoder)) { (height, width) } else { (width, height) };
    let pixels = u64::from(width) * u64::from(height);
    if pixels > MOST_PIXELS {
        return Err(NotTraced::TooLarge(pixels / 1_000_000));
    }
    if width < 64 || height < 64 {
        return Err(NotTraced::TooSmall(width, height));
    }
    Ok((width, height))
}

/// The scraps on a picture, told to within `tolerance`.
///
/// # Errors
/// Any [`NotTraced`].
pub fn trace(bytes: &[u8], reference: &Reference, tolerance: Length) -> Result<Traced, NotTraced> {
    let (width, height) = size_of(bytes)?;
    reference.check(width, height)?;
    let picture = decoded(bytes)?;
    let flat = reference.flatten(&picture)?;
    let back = reference.on_picture()?;
    if flat.scale < 1.0 / 3.0 {
        return Err(NotTraced::TooFar);
    }
    // A side of one pixel cannot be told from noise.
    let pixels = (tolerance.0 as f64 / Length::MILLIMETRE.0 as f64 * flat.scale).max(1.2);
    let (all, rim) = scraps(&flat);
    let cut_off = all.iter().filter(|s| s.cut_off).count();
    let found: Vec<Outlined> = all
        .iter()
        .filter(|s| !s.cut_off)
        .filter_map(|scrap| {
            let all = edges(scrap);
            let corners = by_few(all.first()?, pixels)?;
            let holes = all.iter().skip(1).filter_map(|edge| by_few(edge, pixels)).map(|h| points(&h, flat.scale));
            let on_picture =
                counter_clockwise(&corners).iter().map(|p| back((p.0 / flat.scale, p.1 / flat.scale))).collect();
            Some(Outlined {
                corners: points(&corners, flat.scale),
                on_picture,
                holes: holes.collect(),
                specks: scrap.specks,
            })
        })
        .collect();
    match (found.is_empty(), cut_off) {
        (true, 0) => Err(NotTraced::Nothing),
        (true, _) => Err(NotTraced::CutOff),
        _ => {
            let tolerance = Length((pixels / flat.scale * Length::MILLIMETRE.0 as f64).round() as i64);
            Ok(Traced { scraps: found, cut_off, rim, tolerance })
        }
    }
}

pub(crate) fn decoded(bytes: &[u8]) -> Result<RgbImage, NotTraced> {
    let mut decoder = decoder(bytes)?;
    let turn = upright(&mut decoder);
    let mut picture = DynamicImage::from_decoder(decoder).map_err(|e: ImageError| match e {
        ImageError::Limits(_) => NotTraced::TooLarge(MOST_PIXELS / 1_000_000),
        _ => NotTraced::NotAPicture,
    })?;
    picture.apply_orientation(turn);
    Ok(picture.into_rgb8())
}

fn decoder(bytes: &[u8]) -> Result<impl ImageDecoder + '_, NotTraced> {
    let reader = ImageReader::new(Cursor::new(bytes)).with_guessed_format().map_err(|_| NotTraced::NotAPicture)?;
    reader.into_decoder().map_err(|e| match e {
        ImageError::Limits(_) => NotTraced::TooLarge(MOST_PIXELS / 1_000_000),
        _ => NotTraced::NotAPicture,
    })
}

/// How the picture has to be turned to stand as it was taken (Exif 2.3, tag 0x0112): the screen shows it so, and the marks
/// that are set there count on it.
fn upright(decoder: &mut impl ImageDecoder) -> Orientation {
    decoder.orientation().unwrap_or(Orientation::NoTransforms)
}

fn lies_on_its_side(turn: Orientation) -> bool {
    use Orientation::{Rotate90, Rotate90FlipH, Rotate270, Rotate270FlipH};
    matches!(turn, Rotate90 | Rotate270 | Rotate90FlipH | Rotate270FlipH)
}

/// Few enough corners for a scrap, told as closely as that allows.
fn by_few(edge: &[Place], tolerance: f64) -> Option<Vec<Place>> {
    let mut tolerance = tolerance;
    loop {
        let corners = straightened(edge, tolerance);
        if corners.len() < 3 || area(&corners).abs() < 20.0 {
            return None;
        }
        if corners.len() <= MOST_SCRAP_CORNERS {
            return Some(corners);
        }
        tolerance *= 1.4;
    }
}

/// Counter-clockwise as seen.
fn counter_clockwise(places: &[Place]) -> Vec<Place> {
    let clockwise = area(places) > 0.0;
    if clockwise { places.iter().rev().copied().collect() } else { places.to_vec() }
}

/// Counter-clockwise, y up.
fn points(places: &[Place], scale: f64) -> Vec<Point> {
    let whole = |v: f64| Length((v / scale * Length::MILLIMETRE.0 as f64).round() as i64);
    counter_clockwise(places).iter().map(|p| Point::new(whole(p.0), whole(-p.1))).collect()
}

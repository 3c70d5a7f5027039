//! A print taken from a picture: the marked rectangle of cloth seen from straight above, small enough to be drawn with,
//! and the two colours it has most of.

use crate::perspective::Reference;
use crate::trace::{NotTraced, decoded, size_of};
use image::codecs::jpeg::JpegEncoder;
use image::imageops::FilterType;
use image::{ExtendedColorType, Rgb, RgbImage};

/// The longer side of what is kept, in pixels.
const SIDE: u32 = 480;

/// How much of the marked rectangle, along each side, is compared with the opposite side.
const STRIP: f64 = 0.03;

/// What was taken from a picture.
#[derive(Clone, Debug, PartialEq)]
pub struct Print {
    /// What is seen, as a JPEG.
    pub jpeg: Vec<u8>,
    /// The colour it has most of.
    pub ground: [u8; 3],
    /// The colour that stands out from the ground most, by how much there is of it.
    pub figure: [u8; 3],
}

/// Takes the marked rectangle of cloth as a print. If it is `one_repeat`, light that falls off from one side to the other
/// is made even: opposite edges are the same place of the print, so that they differ by the light alone.
///
/// # Errors
/// Not a picture, or marks and sizes that cannot be: never that nothing is seen.
pub fn print_of(bytes: &[u8], reference: &Reference, one_repeat: bool) -> Result<Print, NotTraced> {
    let (width, height) = size_of(bytes)?;
    reference.check(width, height)?;
    let flat = reference.flatten(&decoded(bytes)?)?.picture;
    let by = (f64::from(SIDE) / f64::from(flat.width().max(flat.height()))).min(1.0);
    let size = |n: u32| ((f64::from(n) * by).round() as u32).max(1);
    let mut tile = image::imageops::resize(&flat, size(flat.width()), size(flat.height()), FilterType::Triangle);
    if one_repeat {
        even_light(&mut tile);
    }
    let (ground, figure) = two_colours(&tile);
    let mut jpeg = Vec::new();
    JpegEncoder::new_with_quality(&mut jpeg, 84)
        .encode(tile.as_raw(), tile.width(), tile.height(), ExtendedColorType::Rgb8)
        .map_err(|_| NotTraced::NotAPicture)?;
    Ok(Print { jpeg, ground, figure })
}

/// The mean logarithm of brightness within a share of the picture.
fn brightness(tile: &RgbImage, (left, right): (f64, f64), (top, bottom): (f64, f64)) -> f64 {
    let at = |share: f64, size: u32| (share * f64::from(size)).round() as u32;
    let (w, h) = tile.dimensions();
    let columns = at(left, w)..at(right, w).clamp(at(left, w) + 1, w.max(1));
    let (mut sum, mut count) = (0.0, 0.0);
    for y in at(top, h)..at(bottom, h).clamp(at(top, h) + 1, h.max(1)) {
        for x in columns.clone() {
            let Rgb(p) = tile.get_pixel(x.min(w - 1), y.min(h - 1));
            sum += (1.0 + p.iter().map(|&c| f64::from(c)).sum::<f64>() / 3.0).ln();
            count += 1.0;
        }
    }
    sum / f64::max(count, 1.0)
}

fn even_light(tile: &mut RgbImage) {
    let across = brightness(tile, (1.0 - STRIP, 1.0), (0.0, 1.0)) - brightness(tile, (0.0, STRIP), (0.0, 1.0));
    let down = brightness(tile, (0.0, 1.0), (1.0 - STRIP, 1.0)) - brightness(tile, (0.0, 1.0), (0.0, STRIP));
    let (w, h) = (f64::from(tile.width()), f64::from(tile.height()));
    for (x, y, pixel) in tile.enumerate_pixels_mut() {
        let share = |at: u32, size: f64| (f64::from(at) + 0.5) / size - 0.5;
        let gain = (-across * share(x, w) - down * share(y, h)).exp();
        *pixel = Rgb(pixel.0.map(|c| (f64::from(c) * gain).round().clamp(0.0, 255.0) as u8));
    }
}

/// Colours alike to a sixteenth are counted together.
fn two_colours(tile: &RgbImage) -> ([u8; 3], [u8; 3]) {
    let mut bins = vec![(0_u32, [0_u32; 3]); 4_096];
    for Rgb(p) in tile.pixels() {
        let of = p.iter().fold(0_usize, |key, &c| key * 16 + usize::from(c >> 4));
        bins[of].0 += 1;
        bins[of].1.iter_mut().zip(p).for_each(|(sum, &c)| *sum += u32::from(c));
    }
    let mean = |(count, sums): &(u32, [u32; 3])| sums.map(|s| (s / (*count).max(1)) as u8);
    let most = bins.iter().max_by_key(|b| b.0).map(mean).unwrap_or_default();
    let apart = |b: &&(u32, [u32; 3])| {
        let far: u64 = mean(b).iter().zip(most).map(|(&a, m)| u64::from(a.abs_diff(m)).pow(2)).sum();
        far * u64::from(b.0)
    };
    let figure = bins.iter().max_by_key(apart).map(mean).unwrap_or(most);
    (most, figure)
}

//! What is cloth and what is mat.
//!
//! In logarithms of brightness and of colour a shadow only darkens, and the mat is the same but for a slope of light. What
//! differs from it beyond its own noise is cloth. Then each scrap is told from the mat by the line between the two means
//! (Fisher 1936), brightness counting less, as shadows change it too; half way along it is the edge.

use crate::perspective::Flat;
use image::GrayImage;
use image::Luma;
use imageproc::distance_transform::Norm;
use imageproc::filter::gaussian_blur_f32;
use imageproc::morphology::{dilate, erode, open};
use imageproc::region_labelling::{Connectivity, connected_components};

/// Brightness and two colours, all in logarithms.
type Feature = [f32; 3];

/// How much shadows change the logarithm of brightness.
const SHADOW: f32 = 0.12;

/// So many times its noise from the mat a place is cloth.
const APART: f32 = 4.5;

/// Millimetres a line of the mat is wide at most.
const LINE: f64 = 2.4;

/// Millimetres along the rim that are no scrap by themselves.
const RIM: f64 = 12.0;

/// Square millimetres that a scrap has at least.
const LEAST: f64 = 400.0;

/// How surely each pixel is cloth: 1 as the scrap's middle, 0 as the mat, and whether it is part of this scrap.
pub(crate) struct Scrap {
    /// Where its pixels begin on the flat picture.
    pub(crate) corner: (usize, usize),
    /// Pixels to a row of it.
    pub(crate) width: usize,
    pub(crate) cloth: Vec<f32>,
    pub(crate) part: Vec<bool>,
    /// It reaches the edge of what is seen.
    pub(crate) cut_off: bool,
    /// Small places in it that look like the mat and are taken as its print.
    pub(crate) specks: usize,
}

/// The scraps on the mat, largest first; and whether something that is no mat is seen along the rim.
pub(crate) fn scraps(flat: &Flat) -> (Vec<Scrap>, bool) {
    let (width, height) = (flat.picture.width() as usize, flat.picture.height() as usize);
    let features = features(flat);
    let Some(mat) = Mat::of(&features, width) else { return (vec![], false) };
    let off: Vec<Feature> = features.iter().enumerate().map(|(i, f)| mat.off(f, i % width, i / width)).collect();
    let apart = |f: &Feature| {
        let part = |k: usize| f[k] / mat.noise[k];
        // A place that is only darker may lie in a shadow.
        let light = f[0] / if f[0] < 0.0 { mat.noise[0].max(SHADOW * 0.6) } else { mat.noise[0] };
        (light * light + part(1) * part(1) + part(2) * part(2)).sqrt()
    };
    let line = ((LINE * flat.scale / 2.0).ceil() as u8).max(1);
    let all = Window { left: 0, top: 0, width, height, whole: width };
    let cloth = all.mask(|i| apart(&off[i]) > APART);
    let opened = open(&cloth, Norm::LInf, line);
    let labels = connected_components(&opened, Connectivity::Four, Luma([0]));
    let mut areas: Vec<usize> = vec![];
    for label in labels.pixels().map(|p| p[0] as usize) {
        if label >= areas.len() {
            areas.resize(label + 1, 0);
        }
        areas[label] += 1;
    }
    let least = (LEAST * flat.scale * flat.scale) as usize;
    let mut found: Vec<(usize, u32)> = areas
        .iter()
        .enumerate()
        .skip(1)
        .filter(|(_, area)| **area >= least)
        .map(|(l, area)| (*area, l as u32))
        .collect();
    found.sort_unstable_by(|a, b| b.cmp(a));
    let scraps = found.iter().map(|&(_, own)| one(flat, &off, &mat, (labels.as_raw(), own), line));
    // Along the rim a mark that is a little off shows what the mat lies on.
    let rim = (RIM * flat.scale) as usize;
    let within = |s: &Scrap, i: usize| {
        let (x, y) = (s.corner.0 + i % s.width, s.corner.1 + i / s.width);
        x >= rim && y >= rim && x + rim < width && y + rim < height
    };
    let (scraps, rims): (Vec<Scrap>, Vec<Scrap>) =
        scraps.partition(|s| (0..s.part.len()).any(|i| s.part[i] && within(s, i)));
    (scraps, rims.iter().any(|s| s.cut_off))
}

/// The mat without anything on it: colours that are the same all over, and light that slopes.
struct Mat {
    colour: [f32; 2],
    /// Of 1, x, y, x², xy, y², places from −1 to 1.
    light: [f64; 6],
    noise: Feature,
    size: (f64, f64),
}

fn features(flat: &Flat) -> Vec<Feature> {
    const LIFT: f32 = 6.0;
    let (width, height) = flat.picture.dimensions();
    let mut planes: Vec<image::ImageBuffer<Luma<f32>, Vec<f32>>> = Vec::new();
    for k in 0..3 {
        let plane = image::ImageBuffer::from_fn(width, height, |x, y| {
            let [r, g, b] = flat.picture.get_pixel(x, y).0.map(|v| f32::from(v) + LIFT);
            Luma([match k {
                0 => (r + g + b).ln(),
                1 => (r / g).ln(),
                _ => (b / g).ln(),
            }])
        });
        planes.push(gaussian_blur_f32(&plane, 0.8));
    }
    (0..(width * height) as usize).map(|i| [0, 1, 2].map(|k| planes[k].as_raw()[i])).collect()
}

fn median(values: &mut [f32]) -> f32 {
    if values.is_empty() {
        return 0.0;
    }
    let middle = values.len() / 2;
    *values.select_nth_unstable_by(middle, f32::total_cmp).1
}

impl Mat {
    /// Learnt from a frame along the rim of the known rectangle, then from all that is like it.
    fn of(features: &[Feature], width: usize) -> Option<Self> {
        let height = features.len() / width;
        let deep = (width.min(height) / 14).max(3);
        let in_frame = |i: usize| {
            let (x, y) = (i % width, i / width);
            x < deep || x >= width - deep || y < deep || y >= height - deep
        };
        let size = (width as f64, (features.len() / width) as f64);
        let sampled: Vec<usize> = (0..features.len()).step_by(5).collect();
        let mut like: Vec<usize> = sampled.iter().copied().filter(|&i| in_frame(i)).collect();
        let mut mat = Self { colour: [0.0; 2], light: [0.0; 6], noise: [1.0; 3], size };
        for round in 0..5 {
            if like.len() < 200 {
                return None;
            }
            mat.learn(features, &like, width);
            if round < 4 {
                let is_like = |i: usize| {
                    let off = mat.off(&features[i], i % width, i / width);
                    (0..3).all(|k| off[k].abs() < 3.0 * mat.noise[k])
                };
                like = sampled.iter().copied().filter(|&i| is_like(i)).collect();
            }
        }
        Some(mat)
    }

    fn learn(&mut self, features: &[Feature], like: &[usize], width: usize) {
        let of = |k: usize| like.iter().map(|&i| features[i][k]).collect::<Vec<f32>>();
        self.colour = [median(&mut of(1)), median(&mut of(2))];
        let terms = |i: usize| self.terms(i % width, i / width);
        let rows: Vec<([f64; 6], f64)> = like.iter().map(|&i| (terms(i), f64::from(features[i][0]))).collect();
        self.light = least_squares(&rows).unwrap_or(self.light);
        // The median of what is off, as wide as noise of that median (1.4826: common practice).
        let spread = |k: usize| {
            let mut off: Vec<f32> =
                like.iter().map(|&i| self.off(&features[i], i % width, i / width)[k].abs()).collect();
            (median(&mut off) * 1.4826).max(0.004)
        };
        self.noise = [spread(0), spread(1), spread(2)];
    }

    fn terms(&self, x: usize, y: usize) -> [f64; 6] {
        let (x, y) = (x as f64 / self.size.0 * 2.0 - 1.0, y as f64 / self.size.1 * 2.0 - 1.0);
        [1.0, x, y, x * x, x * y, y * y]
    }

    /// How a place differs from the mat there.
    fn off(&self, f: &Feature, x: usize, y: usize) -> Feature {
        let light: f64 = self.terms(x, y).iter().zip(&self.light).map(|(t, c)| t * c).sum();
        [f[0] - light as f32, f[1] - self.colour[0], f[2] - self.colour[1]]
    }
}

fn least_squares(rows: &[([f64; 6], f64)]) -> Option<[f64; 6]> {
    let mut table = [[0.0_f64; 7]; 6];
    for (terms, value) in rows {
        for (line, a) in table.iter_mut().zip(terms) {
            line.iter_mut().zip(terms).for_each(|(cell, b)| *cell += a * b);
            line[6] += a * value;
        }
    }
    for k in 0..6 {
        let pivot = (k..6).max_by(|&a, &b| table[a][k].abs().total_cmp(&table[b][k].abs()))?;
        if table[pivot][k].abs() < 1e-9 {
            return None;
        }
        table.swap(k, pivot);
        let row = table[k];
        for (other, line) in table.iter_mut().enumerate() {
            if other != k {
                let factor = line[k] / row[k];
                line.iter_mut().zip(&row).for_each(|(v, r)| *v -= factor * r);
            }
        }
    }
    Some([0, 1, 2, 3, 4, 5].map(|k| table[k][6] / table[k][k]))
}

/// A box of the flat picture, in pixels.
#[derive(Clone, Copy)]
struct Window {
    left: usize,
    top: usize,
    width: usize,
    height: usize,
    /// Width of the whole picture.
    whole: usize,
}

impl Window {
    /// Round the pixels with a label, with so much room as there is up to `room`.
    fn round(labels: &[u32], own: u32, whole: usize, room: usize) -> Self {
        let (mut left, mut right, mut top, mut bottom) = (usize::MAX, 0, usize::MAX, 0);
        for i in (0..labels.len()).filter(|&i| labels[i] == own) {
            let (x, y) = (i % whole, i / whole);
            (left, right, top, bottom) = (left.min(x), right.max(x), top.min(y), bottom.max(y));
        }
        let (left, top) = (left.saturating_sub(room), top.saturating_sub(room));
        let (right, bottom) = ((right + room + 1).min(whole), (bottom + room + 1).min(labels.len() / whole));
        Self { left, top, width: right - left, height: bottom - top, whole }
    }

    fn pixels(&self) -> usize {
        self.width * self.height
    }

    /// The pixel of the whole picture that is pixel `i` here.
    fn of(&self, i: usize) -> usize {
        (self.top + i / self.width) * self.whole + self.left + i % self.width
    }

    fn mask(&self, is: impl Fn(usize) -> bool) -> GrayImage {
        let mut mask = GrayImage::new(self.width as u32, self.height as u32);
        mask.pixels_mut().enumerate().for_each(|(i, p)| *p = Luma([if is(i) { 255 } else { 0 }]));
        mask
    }
}

/// The scrap that has the label `own`, told from the mat by its own mean.
fn one(flat: &Flat, off: &[Feature], mat: &Mat, (labels, own): (&[u32], u32), line: u8) -> Scrap {
    let window = Window::round(labels, own, flat.picture.width() as usize, 3 * usize::from(line) + 4);
    let off = |i: usize| &off[window.of(i)];
    let all = || 0..window.pixels();
    let is = |mask: &GrayImage, i: usize| mask.as_raw()[i] > 0;
    let opened = window.mask(|i| labels[window.of(i)] == own);
    let core = erode(&opened, Norm::LInf, line + 1);
    let mut inside: Vec<usize> = all().filter(|&i| is(&core, i)).collect();
    if inside.len() < 50 {
        inside = all().filter(|&i| is(&opened, i)).collect();
    }
    let means = [0, 1, 2].map(|k| inside.iter().map(|&i| off(i)[k]).sum::<f32>() / inside.len() as f32);
    // Blotched light makes brightness less sure than colour.
    let noise = [mat.noise[0].hypot(SHADOW * 0.5), mat.noise[1], mat.noise[2]];
    let weights = [0, 1, 2].map(|k| means[k] / (noise[k] * noise[k]));
    let whole: f32 = weights.iter().zip(&means).map(|(w, m)| w * m).sum::<f32>().max(1e-6);
    // Corners that the opening took come back; other scraps stay away.
    let reach = dilate(&opened, Norm::LInf, line + 2);
    let sure = |i: usize| {
        let other = ![0, own].contains(&labels[window.of(i)]);
        if other { 0.0 } else { weights.iter().zip(off(i)).map(|(w, f)| w * f).sum::<f32>() / whole }
    };
    let cloth: Vec<f32> = all().map(sure).collect();
    let mask = window.mask(|i| cloth[i] > 0.5 && is(&reach, i));
    // Stubs of the mat's lines go, and what is no longer tied to the rest.
    let trimmed = open(&mask, Norm::LInf, line);
    let back = dilate(&trimmed, Norm::L1, line + 1);
    let mut part: Vec<bool> = all().map(|i| is(&mask, i) && is(&back, i)).collect();
    keep_largest(&mut part, window.width);
    let specks = fill_small(&mut part, window.width, (flat.scale * flat.scale * 25.0) as usize);
    let tall = labels.len() / window.whole;
    let at_edge = |i: usize| {
        let (x, y) = (window.of(i) % window.whole, window.of(i) / window.whole);
        x == 0 || y == 0 || x + 1 == window.whole || y + 1 == tall
    };
    let cut_off = all().any(|i| part[i] && at_edge(i));
    Scrap { corner: (window.left, window.top), width: window.width, cloth, part, cut_off, specks }
}

fn labelled(part: &[bool], width: usize, of: bool) -> (Vec<u32>, Vec<usize>) {
    let mut mask = GrayImage::new(width as u32, (part.len() / width) as u32);
    mask.pixels_mut().zip(part).for_each(|(p, is)| *p = Luma([if *is == of { 255 } else { 0 }]));
    let labels = connected_components(&mask, Connectivity::Four, Luma([0])).into_raw();
    let mut areas = vec![0_usize; labels.iter().copied().max().unwrap_or(0) as usize + 1];
    labels.iter().for_each(|l| areas[*l as usize] += 1);
    (labels, areas)
}

fn keep_largest(part: &mut [bool], width: usize) {
    let (labels, areas) = labelled(part, width, true);
    let largest = (1..areas.len()).max_by_key(|&l| areas[l]).unwrap_or(0) as u32;
    part.iter_mut().zip(labels).for_each(|(is, l)| *is = *is && l == largest);
}

/// Holes smaller than `least` pixels are figures of the print, or noise: filled, and counted.
fn fill_small(part: &mut [bool], width: usize, least: usize) -> usize {
    let (labels, areas) = labelled(part, width, false);
    part.iter_mut().zip(labels).for_each(|(is, l)| *is = *is || (l > 0 && areas[l as usize] < least));
    areas.iter().skip(1).filter(|area| **area < least).count()
}

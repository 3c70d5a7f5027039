//! A stand-in for a camera over the table. It takes pictures of scraps on a mat as a camera would: from an angle, through
//! a lens, in uneven light, with shadows and noise; what is truly there is kept apart.

use crate::perspective::{Marks, Reference};
use bofta_core::lay::Random;
use bofta_core::measure::Length;
use image::codecs::jpeg::JpegEncoder;
use image::{ExtendedColorType, Rgb, RgbImage};

/// A colour, red, green and blue.
pub type Colour = [u8; 3];

/// A scrap on the mat, places in millimetres from the mat's lower left corner, y up.
#[derive(Clone, Debug, PartialEq)]
pub struct Laid {
    /// Its corners, counter-clockwise.
    pub corners: Vec<(f64, f64)>,
    /// Its ground.
    pub colour: Colour,
    /// Dots of another colour, so many millimetres apart, or none.
    pub dots: Option<(Colour, f64)>,
}

/// A printed cloth that covers all that is seen: a motif in the middle of each repeat, on a ground.
#[derive(Clone, Debug, PartialEq)]
pub struct Printed {
    /// Across and along, in millimetres.
    pub repeat: (f64, f64),
    /// Its ground.
    pub ground: Colour,
    /// What stands in the middle of each repeat.
    pub motif: Motif,
}

/// A motif that is printed.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Motif {
    /// One on its stem, 70 mm tall.
    Tulip,
    /// A sprig of them, upright.
    Berries,
}

impl Motif {
    /// Its colour so far from its middle, in millimetres; nothing beside it.
    fn colour(self, at: (f64, f64)) -> Option<Colour> {
        match self {
            Self::Tulip => tulip(at),
            Self::Berries => berries(at),
        }
    }
}

impl Printed {
    /// The colour at a place, a repeat beginning at the lower left corner of what is marked.
    pub fn colour(&self, (x, y): (f64, f64)) -> Colour {
        let off = |v: f64, repeat: f64| v.rem_euclid(repeat) - repeat / 2.0;
        self.motif.colour((off(x, self.repeat.0), off(y, self.repeat.1))).unwrap_or(self.ground)
    }
}

/// What is in front of the camera, and how it looks at it.
#[derive(Clone, Debug, PartialEq)]
pub struct Scene {
    /// What lies there.
    pub scraps: Vec<Laid>,
    /// A printed cloth over mat and all; then `mat` is what is marked on it.
    pub print: Option<Printed>,
    /// Width and height of the mat in millimetres.
    pub mat: (f64, f64),
    /// Its colour.
    pub mat_colour: Colour,
    /// Lines on the mat, so many millimetres apart.
    pub grid: Option<f64>,
    /// From straight above, in degrees.
    pub tilt: f64,
    /// Towards which side it is tilted, in degrees round the mat.
    pub towards: f64,
    /// Pixels to a millimetre in the middle of the mat.
    pub scale: f64,
    /// How much the lens bends the corners of the picture outward, as a share.
    pub lens: f64,
    /// Noise of each pixel, of 255.
    pub noise: f64,
    /// How much of the light a shadow takes, as a share.
    pub shadow: f64,
    /// What light falls off from one side to the other, as a share.
    pub falls_off: f64,
    /// The same number makes the same noise.
    pub seed: u64,
}

/// What was taken, and where the mat's corners are on it.
#[derive(Clone, Debug)]
pub struct Shot {
    /// The picture.
    pub picture: RgbImage,
    /// The corners of the mat on it.
    pub marks: Marks,
}

/// How far above the mat the camera is, in millimetres.
const ABOVE: f64 = 900.0;

/// A shadow falls this far to the lower right, in millimetres, and is soft for as much again.
const FALLS: f64 = 2.5;

/// Points of the table on the picture and back.
struct View {
    focal: f64,
    middle: (f64, f64),
    centre: (f64, f64),
    turn: (f64, f64),
    tilt: (f64, f64),
    lens: f64,
    rim: f64,
}

impl View {
    fn of(scene: &Scene, centre: (f64, f64)) -> Self {
        let (towards, tilt) = (scene.towards.to_radians(), scene.tilt.to_radians());
        Self {
            focal: scene.scale * ABOVE,
            middle: (scene.mat.0 / 2.0, scene.mat.1 / 2.0),
            centre,
            turn: (towards.cos(), towards.sin()),
            tilt: (tilt.cos(), tilt.sin()),
            lens: scene.lens,
            rim: scene.mat.0.hypot(scene.mat.1) / 2.0 * scene.scale,
        }
    }

    /// Where a place of the mat is seen, before the picture is given its frame.
    fn seen(&self, (x, y): (f64, f64)) -> (f64, f64) {
        let (x, y) = (x - self.middle.0, y - self.middle.1);
        let (c, s) = self.turn;
        let (across, along) = (x * c + y * s, y * c - x * s);
        let depth = ABOVE + along * self.tilt.1;
        let (u, v) = (self.focal * across / depth, self.focal * along * self.tilt.0 / depth);
        // The camera is turned back, so that the picture stands as the mat does.
        let (u, v) = (u * c - v * s, u * s + v * c);
        let bent = 1.0 + self.lens * (u * u + v * v) / (self.rim * self.rim);
        (self.centre.0 + u * bent, self.centre.1 - v * bent)
    }

    /// The place of the mat that is seen there.
    fn place(&self, (px, py): (f64, f64)) -> Option<(f64, f64)> {
        let (u0, v0) = (px - self.centre.0, self.centre.1 - py);
        let (mut u, mut v) = (u0, v0);
        for _ in 0..4 {
            let bent = 1.0 + self.lens * (u * u + v * v) / (self.rim * self.rim);
            (u, v) = (u0 / bent, v0 / bent);
        }
        let (c, s) = self.turn;
        let (u, v) = (u * c + v * s, v * c - u * s);
        let away = self.focal * self.tilt.0 - v * self.tilt.1;
        if away <= 0.0 {
            return None;
        }
        let along = v * ABOVE / away;
        let across = u * (ABOVE + along * self.tilt.1) / self.focal;
        Some((across * c - along * s + self.middle.0, across * s + along * c + self.middle.1))
    }
}

impl Scene {
    /// Takes the picture.
    pub fn shot(&self) -> Shot {
        let (wide, tall) = self.mat;
        let corners = [(0.0, tall), (wide, tall), (wide, 0.0), (0.0, 0.0)];
        let bare = View::of(self, (0.0, 0.0));
        let seen = corners.map(|c| bare.seen(c));
        let room = 0.06 * wide.max(tall) * self.scale;
        let low = |of: fn(&(f64, f64)) -> f64| seen.iter().map(of).fold(f64::INFINITY, f64::min) - room;
        let high = |of: fn(&(f64, f64)) -> f64| seen.iter().map(of).fold(f64::NEG_INFINITY, f64::max) + room;
        let (left, top) = (low(|p| p.0), low(|p| p.1));
        let size = ((high(|p| p.0) - left).ceil() as u32, (high(|p| p.1) - top).ceil() as u32);
        let view = View::of(self, (-left, -top));
        let marks = corners.map(|c| view.seen(c));
        let mut random = Random::new(self.seed);
        let mut noise = Noise::new(&mut random, self.noise);
        let picture = RgbImage::from_fn(size.0, size.1, |x, y| {
            // Four looks within a pixel.
            const LOOKS: [(f64, f64); 4] = [(-0.25, -0.25), (0.25, -0.25), (-0.25, 0.25), (0.25, 0.25)];
            let mut sum = [0.0_f64; 3];
            for (dx, dy) in LOOKS {
                let colour = view.place((f64::from(x) + dx, f64::from(y) + dy)).map_or([90.0; 3], |p| self.colour(p));
                sum.iter_mut().zip(colour).for_each(|(s, c)| *s += c / LOOKS.len() as f64);
            }
            Rgb(sum.map(|s| (s + noise.next()).round().clamp(0.0, 255.0) as u8))
        });
        Shot { picture, marks }
    }

    /// What is known of the picture: the mat, and where its corners are.
    pub fn reference(&self, shot: &Shot) -> Reference {
        let whole = |mm: f64| Length((mm * Length::MILLIMETRE.0 as f64).round() as i64);
        Reference { marks: shot.marks, width: whole(self.mat.0), height: whole(self.mat.1) }
    }

    fn colour(&self, p: (f64, f64)) -> [f64; 3] {
        let (wide, tall) = self.mat;
        let light = 1.0 - self.falls_off * ((p.0 / wide + p.1 / tall) / 2.0).clamp(-0.2, 1.2);
        let lit = |c: Colour, by: f64| c.map(|v| f64::from(v) * light * by);
        if let Some(print) = &self.print {
            return lit(print.colour(p), 1.0);
        }
        if let Some(scrap) = self.scraps.iter().find(|s| covers(&s.corners, p)) {
            let dotted = scrap.dots.filter(|(_, apart)| {
                let off = |v: f64| (v / apart).fract().abs() - 0.5;
                off(p.0).hypot(off(p.1)) * apart < apart * 0.18
            });
            return lit(dotted.map_or(scrap.colour, |(dot, _)| dot), 1.0);
        }
        let on_mat = p.0 >= 0.0 && p.1 >= 0.0 && p.0 <= wide && p.1 <= tall;
        if !on_mat {
            return lit([176, 148, 112], 1.0);
        }
        let shade = [1.0, 0.7, 0.4].into_iter().map(|k| (p.0 - FALLS * k, p.1 + FALLS * k));
        let shaded = shade.filter(|q| self.scraps.iter().any(|s| covers(&s.corners, *q))).count() as f64 / 3.0;
        let line = self.grid.is_some_and(|apart| {
            let near = |v: f64| (v + apart / 2.0).rem_euclid(apart) - apart / 2.0;
            near(p.0).abs() < 0.5 || near(p.1).abs() < 0.5
        });
        let ground = if line { self.mat_colour.map(|v| v.saturating_add(38)) } else { self.mat_colour };
        lit(ground, 1.0 - self.shadow * shaded)
    }
}

/// Noise of a bell shape: the sum of four even ones, as wide as asked for.
struct Noise<'a> {
    random: &'a mut Random,
    wide: f64,
}

impl<'a> Noise<'a> {
    fn new(random: &'a mut Random, wide: f64) -> Self {
        Self { random, wide }
    }

    fn next(&mut self) -> f64 {
        let bits = self.random.next_u64();
        let even = |k: u32| f64::from((bits >> (16 * k)) as u16) / 65_536.0 - 0.5;
        // Four even shares have a deviation of the square root of a third.
        (even(0) + even(1) + even(2) + even(3)) * 3.0_f64.sqrt() * self.wide
    }
}

fn covers(corners: &[(f64, f64)], p: (f64, f64)) -> bool {
    let n = corners.len();
    let mut odd = false;
    for i in 0..n {
        let (a, b) = (corners[i], corners[(i + 1) % n]);
        if (a.1 > p.1) != (b.1 > p.1) && p.0 < a.0 + (p.1 - a.1) / (b.1 - a.1) * (b.0 - a.0) {
            odd = !odd;
        }
    }
    odd
}

/// The picture as a camera gives it.
pub fn jpeg(picture: &RgbImage, quality: u8) -> Vec<u8> {
    let mut bytes = Vec::new();
    let written = JpegEncoder::new_with_quality(&mut bytes, quality).encode(
        picture.as_raw(),
        picture.width(),
        picture.height(),
        ExtendedColorType::Rgb8,
    );
    if written.is_err() {
        bytes.clear();
    }
    bytes
}

/// The pictures the camera over the demo's table takes, one after the other: invented scraps, cloths and light.
pub fn table(number: u64) -> Scene {
    const CLOTHS: [(Colour, Option<(Colour, f64)>); 5] = [
        ([205, 120, 84], None),
        ([240, 222, 186], Some(([184, 92, 58], 18.0))),
        ([96, 120, 150], None),
        ([232, 206, 108], Some(([143, 107, 29], 24.0))),
        ([176, 76, 96], None),
    ];
    let mut random = Random::new(number.wrapping_mul(7_919) + 11);
    let mut even = |low: f64, high: f64| low + (high - low) * (random.next_u64() >> 11) as f64 / (1_u64 << 53) as f64;
    let count = 1 + (number % 3) as usize;
    let scraps = (0..count).map(|k| {
        let (cx, cy) = (600.0 / (count as f64 + 1.0) * (k as f64 + 1.0), even(185.0, 215.0));
        let most = if count == 1 { 150.0 } else { 195.0 / count as f64 };
        let corners = 5 + (number as usize + k) % 3;
        let round = (0..corners).map(|n| {
            let turn = (n as f64 + even(-0.22, 0.22)) / corners as f64 * std::f64::consts::TAU;
            let r = most * even(0.6, 0.98);
            (cx + r * turn.cos(), cy + r * turn.sin())
        });
        let round = round.collect();
        let (colour, dots) = CLOTHS[(number as usize + k) % CLOTHS.len()];
        Laid { corners: round, colour, dots }
    });
    let scraps = scraps.collect();
    Scene {
        scraps,
        print: None,
        mat: (600.0, 400.0),
        mat_colour: [74, 108, 92],
        grid: Some(50.0),
        tilt: even(4.0, 18.0),
        towards: even(0.0, 360.0),
        scale: 1.6,
        lens: 0.002,
        noise: 4.0,
        shadow: 0.25,
        falls_off: 0.18,
        seed: number,
    }
}

fn tulip((x, y): (f64, f64)) -> Option<Colour> {
    let within = |cx: f64, cy: f64, rx: f64, ry: f64| ((x - cx) / rx).powi(2) + ((y - cy) / ry).powi(2) <= 1.0;
    match () {
        () if within(0.0, 16.0, 5.0, 15.0) => Some([214, 120, 84]),
        () if within(-8.0, 15.0, 6.0, 16.0) || within(8.0, 15.0, 6.0, 16.0) => Some([176, 66, 58]),
        () if x.abs() < 1.4 && (-36.0..2.0).contains(&y) => Some([74, 104, 66]),
        () if within(-9.0, -20.0, 8.0, 4.0) || within(9.0, -26.0, 8.0, 4.0) => Some([98, 132, 84]),
        () => None,
    }
}

fn berries((x, y): (f64, f64)) -> Option<Colour> {
    let within = |cx: f64, cy: f64, r: f64| (x - cx).hypot(y - cy) <= r;
    match () {
        () if within(0.0, 12.0, 4.5) || within(-7.0, 6.0, 4.5) || within(7.0, 4.0, 4.5) => Some([156, 44, 72]),
        () if (x + y / 4.0).abs() < 1.1 && (-16.0..10.0).contains(&y) => Some([70, 92, 70]),
        () => None,
    }
}

/// The printed cloths the camera sees, one after the other: one repeat is marked, a motif in the middle of it.
pub fn printed(number: u64) -> Scene {
    let print = if number.is_multiple_of(2) {
        Printed { repeat: (60.0, 50.0), ground: [232, 226, 206], motif: Motif::Berries }
    } else {
        Printed { repeat: (110.0, 95.0), ground: [236, 214, 168], motif: Motif::Tulip }
    };
    let mat = print.repeat;
    Scene { scraps: vec![], print: Some(print), mat, scale: 6.0, shadow: 0.0, falls_off: 0.12, ..table(number) }
}

//! The bag as a solid: faces, threads and the sizes that can be taken hold of, for whoever draws it.
//!
//! Axes: x to the right, y up, z away from the eye; in the units of `Length`. Faces are listed from back to front.

use crate::measure::Length;
use crate::piece::Part;

/// A place on the solid.
pub type Place = [f64; 3];

/// A face dressed in the cloth of a part.
#[derive(Clone, Debug, PartialEq)]
pub struct Face {
    /// Its corners, flat or nearly so.
    pub corners: Vec<Place>,
    /// The part whose cloth is seen.
    pub part: Part,
    /// How far it lies in shade: 0 lit to 3 inside.
    pub shade: u8,
}

/// What a line is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum ThreadKind {
    /// Stitching.
    Stitch,
    /// A zip.
    Zip,
    /// A cord.
    Cord,
    /// A strap of the straps' cloth, as wide as it says.
    Strap,
    /// The same of bought webbing.
    Webbing,
    /// An edge between two faces.
    Edge,
}

/// A line on the solid.
#[derive(Clone, Debug, PartialEq)]
pub struct Thread {
    /// Where it runs.
    pub points: Vec<Place>,
    /// What it is.
    pub kind: ThreadKind,
    /// How wide; nothing for a thread.
    pub width: f64,
    /// It lies behind the faces that are seen from outside.
    pub behind: bool,
}

/// A size that can be taken hold of: dragging `to` away from `from` makes the field larger.
#[derive(Clone, Debug, PartialEq)]
pub struct Grip {
    /// The bag's field.
    pub field: &'static str,
    /// One end.
    pub from: Place,
    /// The other.
    pub to: Place,
}

/// A bag to be drawn.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Solid {
    /// From back to front.
    pub faces: Vec<Face>,
    /// Over the faces.
    pub threads: Vec<Thread>,
    /// Sizes.
    pub grips: Vec<Grip>,
    /// The upper and the lower left corner of a flat front, on which parts are seen; nothing where the front is round.
    pub front: Option<[Place; 2]>,
}

/// How what lies behind is seen: one away goes so far to the right and so far up.
pub const AWAY: (f64, f64) = (0.6, 0.34);

/// A circle that lies flat, from one angle to another, its front half below its middle; drawn so that it is seen as an
/// upright ellipse, which the slanted view alone would lean over.
pub(super) fn ring(centre: Place, radius: f64, from: f64, to: f64) -> Vec<Place> {
    const STEPS: usize = 24;
    (0..=STEPS)
        .map(|i| {
            let angle = from + (to - from) * i as f64 / STEPS as f64;
            let away = radius * angle.sin() * 0.9;
            [centre[0] + radius * angle.cos() - AWAY.0 * away, centre[1], centre[2] + away]
        })
        .collect()
}

impl Solid {
    pub(super) fn face(mut self, corners: impl Into<Vec<Place>>, part: Part, shade: u8) -> Self {
        self.faces.push(Face { corners: corners.into(), part, shade });
        self
    }

    pub(super) fn thread(mut self, kind: ThreadKind, points: impl Into<Vec<Place>>) -> Self {
        self.threads.push(Thread { points: points.into(), kind, width: 0.0, behind: false });
        self
    }

    pub(super) fn strap(mut self, points: impl Into<Vec<Place>>, width: Length) -> Self {
        let kind = ThreadKind::Strap;
        self.threads.push(Thread { points: points.into(), kind, width: width.0 as f64, behind: false });
        self
    }

    /// A handle at the back of an open bag.
    pub(super) fn back_handle(self, from: Place, to: Place, drop: f64, width: Length) -> Self {
        let mut solid = self.handle(from, to, drop, width);
        if let Some(handle) = solid.threads.last_mut() {
            handle.behind = true;
        }
        solid
    }

    pub(super) fn grip(mut self, field: &'static str, from: Place, to: Place) -> Self {
        self.grips.push(Grip { field, from, to });
        self
    }

    /// Sizes along the front's lower edge, up its left side, and away at its right.
    pub(super) fn sizes(self, w: f64, h: f64, d: f64) -> Self {
        let sized = self.grip("width", [0.0, 0.0, 0.0], [w, 0.0, 0.0]).grip("height", [0.0; 3], [0.0, h, 0.0]);
        if d > 0.0 { sized.grip("depth", [w, 0.0, 0.0], [w, 0.0, d]) } else { sized }
    }

    /// With a flat front between these two corners at its left.
    pub(super) fn flat_front(self, upper: Place, lower: Place) -> Self {
        Self { front: Some([upper, lower]), ..self }
    }

    /// A box open at the top: inside, right side and front.
    pub(super) fn open_box(w: f64, h: f64, d: f64, inside: Part, outside: Part) -> Self {
        Self::default()
            .face([[0.0, h, 0.0], [0.0, h, d], [w, h, d], [w, h, 0.0]], inside, 3)
            .face([[w, 0.0, 0.0], [w, 0.0, d], [w, h, d], [w, h, 0.0]], outside, 2)
            .face([[0.0; 3], [w, 0.0, 0.0], [w, h, 0.0], [0.0, h, 0.0]], outside, 0)
            .flat_front([0.0, h, 0.0], [0.0; 3])
    }

    /// Its upper corners drawn in towards its middle, or out: `mouth` times as far from it as below.
    pub(super) fn drawn_in(mut self, mouth: f64) -> Self {
        let corners = || self.faces.iter().flat_map(|f| &f.corners);
        let far = |axis: usize| corners().map(|c| c[axis]).fold(0.0, f64::max);
        let (w, h, d) = (far(0), far(1), far(2));
        let drawn = |p: &mut Place| {
            let at = 1.0 + (mouth - 1.0) * if h > 0.0 { p[1] / h } else { 0.0 };
            (p[0], p[2]) = (w / 2.0 + (p[0] - w / 2.0) * at, d / 2.0 + (p[2] - d / 2.0) * at);
        };
        self.faces.iter_mut().flat_map(|f| &mut f.corners).for_each(drawn);
        self
    }

    /// A closed box: top, right side and front.
    pub(super) fn closed_box(w: f64, h: f64, d: f64, part: Part) -> Self {
        Self::default()
            .face([[0.0, h, 0.0], [0.0, h, d], [w, h, d], [w, h, 0.0]], part, 1)
            .face([[w, 0.0, 0.0], [w, 0.0, d], [w, h, d], [w, h, 0.0]], part, 2)
            .face([[0.0; 3], [w, 0.0, 0.0], [w, h, 0.0], [0.0, h, 0.0]], part, 0)
            .flat_front([0.0, h, 0.0], [0.0; 3])
    }

    /// A strap to be worn across, hanging loose from both sides and behind a bag so wide, tall and deep.
    pub(super) fn loose_strap(mut self, (w, h, d): (f64, f64, f64), width: Length) -> Self {
        let points: Vec<Place> = (0..=24)
            .map(|i| {
                let angle = std::f64::consts::PI * f64::from(i) / 24.0;
                let out = 1.0 + 1.4 * angle.sin();
                [w / 2.0 - w / 2.0 * angle.cos() * out, h - 0.85 * h * angle.sin(), d / 2.0]
            })
            .collect();
        self = self.strap(points, width);
        if let Some(strap) = self.threads.last_mut() {
            strap.behind = true;
        }
        self
    }

    /// How wide it is, by its grips.
    pub(super) fn wide(&self) -> Option<f64> {
        self.grips.iter().find(|g| g.field == "width").map(|g| g.to[0] - g.from[0])
    }

    /// With a handle from side to side over the middle of its mouth.
    pub(super) fn over_the_mouth(self, drop: Length, width: Length) -> Self {
        let size = |field: &str, axis: usize| self.grips.iter().find(|g| g.field == field).map(|g| g.to[axis]);
        let (Some(w), Some(h)) = (size("width", 0), size("height", 1)) else { return self };
        let middle = size("depth", 2).unwrap_or(0.0) / 2.0;
        self.handle([0.0, h, middle], [w, h, middle], drop.0 as f64, width)
    }

    /// An arch over a line, as a handle hangs.
    pub(super) fn handle(self, from: Place, to: Place, drop: f64, width: Length) -> Self {
        let points: Vec<Place> = (0..=20)
            .map(|i| {
                let t = f64::from(i) / 20.0;
                let at = |k: usize| from[k] + (to[k] - from[k]) * t;
                // Steep at the ends, round at the top.
                let rise = (1.0 - (2.0 * t - 1.0).abs().powf(2.6)).max(0.0);
                [at(0), at(1) + drop * rise, at(2)]
            })
            .collect();
        self.strap(points, width)
    }
}

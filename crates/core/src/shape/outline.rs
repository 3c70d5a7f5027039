//! A piece's outline and its turns.

use super::circle::on_circle;
use super::convex::without_idle_corners;
use crate::measure::{Area, Length};
use serde::{Deserialize, Serialize};
use thiserror::Error;

/// A place on a piece or a cloth.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Point {
    /// To the right.
    pub x: Length,
    /// Up.
    pub y: Length,
}

impl Point {
    /// The point at (`x`, `y`).
    pub const fn new(x: Length, y: Length) -> Self {
        Self { x, y }
    }
}

/// A counter-clockwise turn by a multiple of 45°: quarter turns for the grain, the rest for the bias.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[serde(transparent)]
pub struct Turn(u16);

impl Turn {
    /// As it stands.
    pub const NONE: Self = Self(0);

    /// The turn by `degrees`, if they are a multiple of 45 below 360.
    pub const fn new(degrees: u16) -> Option<Self> {
        if degrees < 360 && degrees.is_multiple_of(45) { Some(Self(degrees)) } else { None }
    }

    /// Degrees counter-clockwise.
    pub const fn degrees(self) -> u16 {
        self.0
    }

    /// The turn the other way: how the layer below comes to lie where cloth is folded lengthwise.
    pub const fn opposite(self) -> Self {
        Self((360 - self.0) % 360)
    }

    /// `point` turned about the origin. Exact for quarter turns, else rounded to the unit.
    pub fn of(self, point: Point) -> Point {
        let Point { x, y } = point;
        let diagonal = |value: i64| Length((value as f64 * std::f64::consts::FRAC_1_SQRT_2).round() as i64);
        match self.0 {
            0 => point,
            90 => Point::new(-y, x),
            180 => Point::new(-x, -y),
            270 => Point::new(y, -x),
            45 => Point::new(diagonal(x.0 - y.0), diagonal(x.0 + y.0)),
            135 => Point::new(diagonal(-x.0 - y.0), diagonal(x.0 - y.0)),
            225 => Point::new(diagonal(y.0 - x.0), diagonal(-x.0 - y.0)),
            _ => Point::new(diagonal(x.0 + y.0), diagonal(y.0 - x.0)),
        }
    }
}

/// Points on a circle, by 32nds of it counter-clockwise from the right.
fn arc(centre: Point, radius: Length, thirty_seconds: std::ops::RangeInclusive<u32>) -> impl Iterator<Item = Point> {
    thirty_seconds.map(move |k| {
        let (x, y) = on_circle(k * 2);
        let at = |c: Length, of: f64| Length((c.0 as f64 + radius.0 as f64 * of).round() as i64);
        Point::new(at(centre.x, x), at(centre.y, y))
    })
}

/// The most corners of an outline: a curve drawn to a tenth of a millimetre takes some dozen.
pub const MOST_CORNERS: usize = 400;
/// The furthest a corner may lie from the origin: areas and sums of such lengths stay exact.
pub const FURTHEST: Length = Length(100 * Length::METRE.0);

/// What is wrong with one that [is a sliver](Outline::is_sliver).
pub(crate) const SLIVER: &str = "is a sliver, thinner than a tenth of a millimetre: nothing can be cut so thin";

/// What is wrong with an outline.
#[derive(Clone, Debug, PartialEq, Eq, Error)]
pub enum OutlineError {
    /// A side or a diameter is nothing or less.
    #[error("a size must be more than 0")]
    NotPositive,
    /// Fewer than three corners.
    #[error("a polygon needs at least three corners, this has {0}")]
    TooFewCorners(usize),
    /// Two sides cross.
    #[error("side {0} crosses side {1}")]
    Crosses(usize, usize),
    /// More corners than a piece is planned with.
    #[error("it has {0} corners: at most {MOST_CORNERS} are planned with")]
    TooManyCorners(usize),
    /// A corner further out than any cloth.
    #[error("corner {0} lies further than 100 m away: is the unit right?")]
    TooFar(usize),
    /// It encloses nothing.
    #[error("the corners enclose no area")]
    NoArea,
}

/// The shape of a piece as it stands on the bag.
#[derive(Clone, Debug, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Outline {
    /// Width and height.
    Rect(Length, Length),
    /// Diameter.
    Circle(Length),
    /// Corners in counter-clockwise order.
    Polygon(Vec<Point>),
}

impl Outline {
    /// A rectangle.
    ///
    /// # Errors
    /// [`OutlineError::NotPositive`].
    pub fn rect(width: Length, height: Length) -> Result<Self, OutlineError> {
        if width <= Length::ZERO || height <= Length::ZERO {
            return Err(OutlineError::NotPositive);
        }
        Ok(Self::Rect(width, height))
    }

    /// A circle by its diameter.
    ///
    /// # Errors
    /// [`OutlineError::NotPositive`].
    pub fn circle(diameter: Length) -> Result<Self, OutlineError> {
        if diameter <= Length::ZERO { Err(OutlineError::NotPositive) } else { Ok(Self::Circle(diameter)) }
    }

    /// A simple polygon; clockwise corners are put the other way round, and a corner given twice in a row counts once.
    ///
    /// # Errors
    /// Too few corners or too many, one too far away, crossing sides (all numbered from 1), or no area.
    pub fn polygon(mut corners: Vec<Point>) -> Result<Self, OutlineError> {
        if let Some(i) = corners.iter().position(|p| !within_reach(p.x) || !within_reach(p.y)) {
            return Err(OutlineError::TooFar(i + 1));
        }
        corners.dedup();
        while corners.len() > 1 && corners.first() == corners.last() {
            corners.pop();
        }
        if corners.len() > MOST_CORNERS {
            return Err(OutlineError::TooManyCorners(corners.len()));
        }
        if corners.len() < 3 {
            return Err(OutlineError::TooFewCorners(corners.len()));
        }
        let n = corners.len();
        for i in 0..n {
            for j in i + 2..n {
                if i == 0 && j == n - 1 {
                    continue; // neighbours share a corner
                }
                if segments_meet(corners[i], corners[i + 1], corners[j], corners[(j + 1) % n]) {
                    return Err(OutlineError::Crosses(i + 1, j + 1));
                }
            }
        }
        let doubled: i128 = (0..n).map(|i| cross(corners[i], corners[(i + 1) % n])).sum();
        match doubled {
            0 => return Err(OutlineError::NoArea),
            ..0 => corners.reverse(),
            _ => {}
        }
        Ok(Self::Polygon(corners))
    }

    /// A panel with both lower corners cut out, `notch_width` × `notch_height` each.
    pub fn notched(width: Length, height: Length, notch_width: Length, notch_height: Length) -> Self {
        let (right, zero) = (width - notch_width, Length::ZERO);
        Self::Polygon(vec![
            Point::new(notch_width, zero),
            Point::new(right, zero),
            Point::new(right, notch_height),
            Point::new(width, notch_height),
            Point::new(width, height),
            Point::new(zero, height),
            Point::new(zero, notch_height),
            Point::new(notch_width, notch_height),
        ])
    }

    /// A panel whose base is a fold: a notch in the middle of both sides, `across` deep, `up` above and below the fold.
    pub fn notched_at_sides(width: Length, height: Length, across: Length, up: Length) -> Self {
        let (zero, right, middle) = (Length::ZERO, width - across, height / 2);
        let (low, high) = (middle - up, middle + up);
        Self::Polygon(vec![
            Point::new(zero, zero),
            Point::new(width, zero),
            Point::new(width, low),
            Point::new(right, low),
            Point::new(right, high),
            Point::new(width, high),
            Point::new(width, height),
            Point::new(zero, height),
            Point::new(zero, high),
            Point::new(across, high),
            Point::new(across, low),
            Point::new(zero, low),
        ])
    }

    /// A rectangle whose lower corners are rounded by quarters of a circle of `radius`.
    pub fn rounded(width: Length, height: Length, radius: Length) -> Self {
        let radius = radius.min(width / 2).min(height);
        let mut corners = vec![Point::new(width, height), Point::new(Length::ZERO, height)];
        corners.extend(arc(Point::new(radius, radius), radius, 16..=24));
        corners.extend(arc(Point::new(width - radius, radius), radius, 24..=32));
        Self::Polygon(without_idle_corners(&corners))
    }

    /// Straight at the top, half a circle below; what is taller than half the width stands on straight sides.
    pub fn half_round(width: Length, height: Length) -> Self {
        Self::rounded(width, height, width / 2)
    }

    /// A rectangle whose upper corners are rounded.
    pub fn rounded_above(width: Length, height: Length, radius: Length) -> Self {
        match Self::rounded(width, height, radius) {
            // Turned half round, so that the corners still go counter-clockwise.
            Self::Polygon(corners) => {
                Self::Polygon(corners.into_iter().map(|p| Point::new(width - p.x, height - p.y)).collect())
            }
            other => other,
        }
    }

    /// The corners; a circle as 64 points on it, for drawing and checking.
    pub fn corners(&self) -> Vec<Point> {
        match self {
            Self::Rect(w, h) => {
                let zero = Length::ZERO;
                vec![Point::new(zero, zero), Point::new(*w, zero), Point::new(*w, *h), Point::new(zero, *h)]
            }
            Self::Circle(d) => {
                let r = d.0 as f64 / 2.0;
                (0..64)
                    .map(|i| {
                        let (x, y) = on_circle(i);
                        Point::new(Length((r + r * x).round() as i64), Length((r + r * y).round() as i64))
                    })
                    .collect()
            }
            Self::Polygon(corners) => corners.clone(),
        }
    }

    /// The corners as placed: mirrored (x → −x) if asked, then turned, then moved so that the lower left corner of
    /// the bounding box is the origin.
    pub fn placed(&self, turn: Turn, mirrored: bool) -> Vec<Point> {
        // However it is turned a circle stays the same; its drawn corners, rounded on the bias, would not.
        let turn = if matches!(self, Self::Circle(_)) { Turn::NONE } else { turn };
        let placing = self.placing(turn, mirrored);
        let mut corners: Vec<Point> = self.corners().into_iter().map(placing).collect();
        if mirrored {
            corners.reverse(); // stays counter-clockwise
        }
        corners
    }

    /// Where `point` of the outline comes to lie when it [is placed](Self::placed). Exact for quarter turns.
    pub fn placed_point(&self, point: Point, turn: Turn, mirrored: bool) -> Point {
        self.placing(turn, mirrored)(point)
    }

    /// Turned about the origin, then moved so that the lower left corner of its box lies there.
    fn placing(&self, turn: Turn, mirrored: bool) -> impl Fn(Point) -> Point {
        let corners = self.corners();
        // Mirrored within its own width, so that a symmetric outline stays the same to the unit at any turn.
        let right = corners.iter().map(|p| p.x).max().unwrap_or_default();
        let turned = move |p: Point| turn.of(if mirrored { Point::new(right - p.x, p.y) } else { p });
        let left = corners.iter().map(|p| turned(*p).x).min().unwrap_or_default();
        let low = corners.iter().map(|p| turned(*p).y).min().unwrap_or_default();
        move |p| {
            let p = turned(p);
            Point::new(p.x - left, p.y - low)
        }
    }

    /// The area enclosed; a circle's to the nearest square unit.
    pub fn area(&self) -> Area {
        match self {
            Self::Rect(w, h) => *w * *h,
            Self::Circle(d) => Area((d.0 as f64 * d.0 as f64 * std::f64::consts::FRAC_PI_4).round() as i128),
            Self::Polygon(corners) => {
                let n = corners.len();
                Area((0..n).map(|i| cross(corners[i], corners[(i + 1) % n])).sum::<i128>() / 2)
            }
        }
    }

    /// Less area than a strip a tenth of a millimetre wide along its longer side.
    pub fn is_sliver(&self) -> bool {
        let (width, height) = self.size();
        self.area().0 < (width.max(height) * Length::tenth_mm(1)).0
    }

    /// Width and height of the bounding box as it stands.
    pub fn size(&self) -> (Length, Length) {
        self.extent(Turn::NONE, false)
    }

    /// Whether it is its own mirror image about an upright line as it lies, turned by `turn`: what lies half on a fold
    /// opens to the piece only then.
    pub fn is_symmetric(&self, turn: Turn) -> bool {
        match self {
            Self::Circle(_) => true,
            Self::Rect(..) if turn.degrees().is_multiple_of(90) => true,
            Self::Rect(..) | Self::Polygon(_) => {
                let lies = without_idle_corners(&self.placed(turn, false));
                let width = lies.iter().map(|p| p.x).max().unwrap_or_default();
                let sorted = |at: &dyn Fn(&Point) -> Point| {
                    let mut corners: Vec<Point> = lies.iter().map(at).collect();
                    corners.sort_unstable_by_key(|p| (p.x, p.y));
                    corners
                };
                sorted(&|p| *p) == sorted(&|p| Point::new(width - p.x, p.y))
            }
        }
    }

    /// Width and height of the bounding box when mirrored, if so, and turned. On the bias the box of the mirror image is
    /// another.
    pub fn extent(&self, turn: Turn, mirrored: bool) -> (Length, Length) {
        if let Self::Circle(d) = self {
            return (*d, *d);
        }
        let corners = self.placed(turn, mirrored);
        let right = corners.iter().map(|p| p.x).max().unwrap_or_default();
        let top = corners.iter().map(|p| p.y).max().unwrap_or_default();
        (right, top)
    }
}

fn cross(a: Point, b: Point) -> i128 {
    i128::from(a.x.0) * i128::from(b.y.0) - i128::from(a.y.0) * i128::from(b.x.0)
}

fn side_of(a: Point, b: Point, p: Point) -> i128 {
    cross(Point::new(b.x - a.x, b.y - a.y), Point::new(p.x - a.x, p.y - a.y)).signum()
}

fn within_reach(of: Length) -> bool {
    (-FURTHEST..=FURTHEST).contains(&of)
}

fn segments_meet(a: Point, b: Point, c: Point, d: Point) -> bool {
    // Most sides of an outline are nowhere near each other.
    let beyond =
        |of: fn(&Point) -> Length| of(&a).max(of(&b)) < of(&c).min(of(&d)) || of(&c).max(of(&d)) < of(&a).min(of(&b));
    if beyond(|p| p.x) || beyond(|p| p.y) {
        return false;
    }
    let within = |p: Point, q: Point, r: Point| {
        r.x >= p.x.min(q.x) && r.x <= p.x.max(q.x) && r.y >= p.y.min(q.y) && r.y <= p.y.max(q.y)
    };
    let (s1, s2, s3, s4) = (side_of(a, b, c), side_of(a, b, d), side_of(c, d, a), side_of(c, d, b));
    (s1 != s2 && s3 != s4)
        || (s1 == 0 && within(a, b, c))
        || (s2 == 0 && within(a, b, d))
        || (s3 == 0 && within(c, d, a))
        || (s4 == 0 && within(c, d, b))
}

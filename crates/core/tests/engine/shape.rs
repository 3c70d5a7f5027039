//! Outlines and turns, against geometry of the `geo` crate and by their own symmetries.
#![allow(missing_docs)]

use bofta_core::measure::Length;
use bofta_core::shape::{Outline, OutlineError, Point, Turn, outset};
use geo::{Area, Contains, LineString, Polygon};
use proptest::prelude::*;
use rstest::rstest;

fn at(x: i64, y: i64) -> Point {
    Point::new(Length::INCH * x, Length::INCH * y)
}

fn polygon(corners: &[(i64, i64)]) -> Result<Outline, OutlineError> {
    Outline::polygon(corners.iter().map(|&(x, y)| at(x, y)).collect())
}

fn as_geo(outline: &Outline) -> Polygon<f64> {
    let ring: Vec<(f64, f64)> = outline.corners().iter().map(|p| (p.x.0 as f64, p.y.0 as f64)).collect();
    Polygon::new(LineString::from(ring), vec![])
}

#[rstest]
#[case(&[(0, 0), (9, 5), (9, 0), (0, 5)], OutlineError::Crosses(1, 3))]
#[case(&[(0, 0), (5, 0)], OutlineError::TooFewCorners(2))]
#[case(&[(0, 0), (5, 0), (9, 0)], OutlineError::NoArea)]
fn a_polygon_that_cannot_stand_says_where(#[case] corners: &[(i64, i64)], #[case] error: OutlineError) {
    assert_eq!(polygon(corners), Err(error));
}

#[test]
fn clockwise_corners_are_put_the_other_way_round() {
    let clockwise = polygon(&[(0, 0), (0, 5), (9, 5), (9, 0)]).expect("simple");
    assert!(clockwise.area().0 > 0);
    assert_eq!(clockwise.area(), (Length::INCH * 9) * (Length::INCH * 5));
}

#[test]
fn sizes_of_nothing_are_refused() {
    assert_eq!(Outline::rect(Length::ZERO, Length::INCH), Err(OutlineError::NotPositive));
    assert_eq!(Outline::circle(-Length::INCH), Err(OutlineError::NotPositive));
    assert_eq!(Turn::new(30), None);
    assert_eq!(Turn::new(360), None);
}

/// A 17 × 15 panel with 2 × 2 corners out has 255 − 8 square inches.
#[test]
fn a_notched_panel_has_the_area_that_is_left() {
    let inch = |n: i64| Length::INCH * n;
    let notched = Outline::notched(inch(17), inch(15), inch(2), inch(2));
    let square_inches = notched.area().0 / (Length::INCH * Length::INCH).0;
    assert_eq!(square_inches, 247);
    assert!((as_geo(&notched).unsigned_area() - notched.area().0 as f64).abs() < 1.0);
    assert_eq!(notched.extent(Turn::NONE, false), (inch(17), inch(15)));
    // Its corners at the base are out, those at the mouth are not.
    let inside = |x: f64, y: f64| {
        let unit = Length::INCH.0 as f64;
        as_geo(&notched).contains(&geo::Point::new(x * unit, y * unit))
    };
    assert!(!inside(1.0, 1.0) && !inside(16.0, 1.0) && inside(1.0, 14.0) && inside(3.0, 1.0));
}

#[test]
fn on_the_bias_a_square_is_as_wide_as_its_diagonal() {
    let square = Outline::Rect(Length::INCH * 10, Length::INCH * 10);
    let (w, h) = square.extent(Turn::new(45).expect("a turn"), false);
    let diagonal = Length::INCH.0 as f64 * 200.0_f64.sqrt();
    assert!((w.0 as f64 - diagonal).abs() <= 2.0 && (h.0 as f64 - diagonal).abs() <= 2.0);
}

fn any_outline() -> impl Strategy<Value = Outline> {
    let size = 1_000_i64..8_000_000;
    (size.clone(), size, 0..3_usize, 1_i64..40).prop_map(|(w, h, kind, part)| match kind {
        0 => Outline::Rect(Length(w), Length(h)),
        1 => Outline::Circle(Length(w)),
        _ => Outline::notched(Length(w), Length(h), Length(w * part / 100), Length(h * part / 100)),
    })
}

proptest! {
    /// Four quarter turns bring everything back; a quarter turn swaps width and height; areas stay.
    #[test]
    fn quarter_turns_are_exact(outline in any_outline(), mirrored in any::<bool>()) {
        let turn = |d| Turn::new(d).expect("a turn");
        let (w, h) = outline.extent(turn(0), false);
        prop_assert_eq!(outline.extent(turn(180), false), (w, h));
        prop_assert_eq!(outline.extent(turn(90), false), (h, w));
        prop_assert_eq!(outline.extent(turn(270), false), (h, w));
        for degrees in [0, 90, 180, 270] {
            let placed = Outline::polygon(outline.placed(turn(degrees), mirrored)).expect("still simple");
            let (before, after) = (outline.area().0 as f64, placed.area().0 as f64);
            // A circle is 64 corners on it: 0.2 % less.
            prop_assert!((before - after).abs() <= before * 0.003);
            let corners = placed.corners();
            prop_assert_eq!(corners.iter().map(|p| p.x).min(), Some(Length::ZERO));
            prop_assert_eq!(corners.iter().map(|p| p.y).min(), Some(Length::ZERO));
        }
    }

    /// Two turns one after the other are one turn by their sum, for quarter turns exactly.
    #[test]
    fn turns_add_up(x in -9_000_000_i64..9_000_000, y in -9_000_000_i64..9_000_000, a in 0_u16..4, b in 0_u16..4) {
        let turn = |quarters: u16| Turn::new(quarters % 4 * 90).expect("a turn");
        let p = Point::new(Length(x), Length(y));
        prop_assert_eq!(turn(b).of(turn(a).of(p)), turn(a + b).of(p));
    }

    /// Eighth turns keep distances to the unit's rounding.
    #[test]
    fn eighth_turns_keep_distances(x in -9_000_000_i64..9_000_000, y in -9_000_000_i64..9_000_000, eighths in 0_u16..8) {
        let p = Turn::new(eighths * 45).expect("a turn").of(Point::new(Length(x), Length(y)));
        let far = |x: f64, y: f64| x.hypot(y);
        prop_assert!((far(p.x.0 as f64, p.y.0 as f64) - far(x as f64, y as f64)).abs() < 1.5);
    }

    /// The polygon's own area is that of the `geo` crate.
    #[test]
    fn areas_agree(radii in prop::collection::vec(200_000_i64..4_000_000, 3..12)) {
        // Corners round a centre never cross.
        let n = radii.len() as f64;
        let corners = radii.iter().enumerate().map(|(i, r)| {
            let angle = i as f64 * std::f64::consts::TAU / n;
            Point::new(Length((*r as f64 * angle.cos()) as i64), Length((*r as f64 * angle.sin()) as i64))
        }).collect();
        let star = Outline::polygon(corners).expect("a star does not cross itself");
        let theirs = as_geo(&star).unsigned_area();
        prop_assert!((star.area().0 as f64 - theirs).abs() <= theirs * 1e-9 + 1.0);
    }
}

use crate::shapes;

proptest! {
    /// Seam added: every corner of the outline is inside by the seam at least, and no edge of the cut piece is further
    /// from the outline than the seam, but for pointed corners. Distances by the `geo` crate.
    #[test]
    fn a_seam_added_is_as_wide_as_asked(outline in shapes::any_shape(), eighths in 1_i64..9) {
        use geo::Distance as _;
        let (corners, by) = (outline.corners(), Length::inches(eighths, 8));
        let grown = outset(&corners, by).expect("one outline");
        let far = |of: fn(&Point) -> Length, points: &[Point]| points.iter().map(of).max().expect("corners");
        // Moved from the origin back to where it lies round the outline, by what was added at the left and below.
        let (left, low) = (far(|p| p.x, &grown) - far(|p| p.x, &corners), far(|p| p.y, &grown) - far(|p| p.y, &corners));
        prop_assert!(left >= by * 2 - Length(4) && low >= by * 2 - Length(4));
        if left <= by * 2 + Length(4) && low <= by * 2 + Length(4) {
            let ring: Vec<(f64, f64)> = grown.iter().map(|p| ((p.x - by).0 as f64, (p.y - by).0 as f64)).collect();
            let around = Polygon::new(LineString::from(ring), vec![]);
            let inside = as_geo(&outline);
            for p in &corners {
                let from_edge = geo::Euclidean.distance(around.exterior(), &geo::Point::new(p.x.0 as f64, p.y.0 as f64));
                prop_assert!(from_edge >= by.0 as f64 - 8.0, "{from_edge} of {by:?}");
            }
            for edge in around.exterior().lines() {
                let middle = geo::Point::new((edge.start.x + edge.end.x) / 2.0, (edge.start.y + edge.end.y) / 2.0);
                let away = geo::Euclidean.distance(&middle, inside.exterior());
                prop_assert!(away >= by.0 as f64 - 8.0, "{away} of {by:?}");
            }
        }
    }
}

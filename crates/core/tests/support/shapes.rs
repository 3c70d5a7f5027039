//! Random shapes for property tests.
#![allow(missing_docs, unreachable_pub)]

use bofta_core::measure::Length;
use bofta_core::shape::{Outline, Point};
use proptest::prelude::*;

/// The shapes bags are made of, 2 to 14 in across: rectangles, circles, notched panels, trapezoids, half-rounds, free
/// polygons.
pub fn any_shape() -> impl Strategy<Value = Outline> {
    (0..6_usize, 16_i64..112, 16_i64..112, 2_i64..8, 1_i64..7).prop_map(|(kind, w, h, n, skew)| {
        let e = |n: i64| Length::inches(n, 8);
        let corners = |of: &[(i64, i64)]| of.iter().map(|&(x, y)| Point::new(e(x), e(y))).collect::<Vec<_>>();
        let polygon = |of: &[(i64, i64)]| Outline::polygon(corners(of)).expect("a simple polygon");
        match kind {
            0 => Outline::Rect(e(w), e(h)),
            1 => Outline::Circle(e(w)),
            2 => Outline::notched(e(w), e(h), e(w / (n + 2)), e(h / (n + 2))),
            3 => polygon(&[(0, 0), (w, 0), (w - w / (skew + 2), h), (w / (skew + 3), h)]),
            4 => {
                let r = e(w).0 as f64 / 2.0;
                let arc = (0..=12).map(|i| {
                    let angle = std::f64::consts::PI * f64::from(i) / 12.0;
                    Point::new(Length((r + r * angle.cos()).round() as i64), Length((r * angle.sin()).round() as i64))
                });
                Outline::polygon(arc.collect()).expect("a half-round")
            }
            _ => polygon(&[(0, 0), (w, 0), (w, h / 2), (w * 2 / 3, h / 3), (w / 2, h), (w / 4, h / 2), (0, h * 3 / 4)]),
        }
    })
}

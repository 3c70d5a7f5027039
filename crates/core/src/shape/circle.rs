//! Points of the unit circle, the same on any machine: the sines of the system's mathematical library may differ in
//! their last digit.

/// The sines of 0 to 16 sixty-fourths of a turn.
#[rustfmt::skip]
const SINES: [f64; 17] = [
    0.0,
    0.0980171403295606,
    0.19509032201612828,
    0.2902846772544624,
    0.3826834323650898,
    0.47139673682599764,
    0.5555702330196022,
    0.6343932841636455,
    std::f64::consts::FRAC_1_SQRT_2,
    0.773010453362737,
    0.8314696123025452,
    0.881921264348355,
    0.9238795325112867,
    0.9569403357322088,
    0.9807852804032304,
    0.9951847266721969,
    1.0,
];

/// Across and up of the point so many sixty-fourths of a turn counter-clockwise from the right.
pub(crate) fn on_circle(sixty_fourths: u32) -> (f64, f64) {
    let k = sixty_fourths % 64;
    let (at, rest) = (k / 16, (k % 16) as usize);
    let (sine, cosine) = (SINES[rest], SINES[16 - rest]);
    match at {
        0 => (cosine, sine),
        1 => (-sine, cosine),
        2 => (-cosine, -sine),
        _ => (sine, -cosine),
    }
}

#[cfg(test)]
mod tests {
    use super::on_circle;

    #[test]
    fn points_are_those_of_sine_and_cosine() {
        for k in 0..130_u32 {
            let angle = f64::from(k) * std::f64::consts::TAU / 64.0;
            let (x, y) = on_circle(k);
            assert!((x - angle.cos()).abs() < 1e-14 && (y - angle.sin()).abs() < 1e-14, "{k}");
            assert!((x * x + y * y - 1.0).abs() < 1e-15);
        }
        assert_eq!((on_circle(0), on_circle(16), on_circle(32)), ((1.0, 0.0), (0.0, 1.0), (-1.0, 0.0)));
    }
}

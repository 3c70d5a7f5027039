//! Straps. Common practice.

use crate::measure::Length;

/// The drop of a handle that shows `visible` long, its ends `apart` centre to centre: √((L/2)² − (p/2)²), to the unit
/// below; nothing when it cannot span the distance.
pub fn drop(visible: Length, apart: Length) -> Option<Length> {
    let (half, leg) = (visible.0 as f64 / 2.0, apart.0 as f64 / 2.0);
    (half > leg).then(|| Length((half * half - leg * leg).sqrt() as i64))
}

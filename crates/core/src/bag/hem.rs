//! Hems. Common practice.

use crate::measure::Length;

/// Where the raw edge lands, measured from it, when it is turned `first` and then `hem`: draw both lines and fold the
/// edge to the one, then the fold to the other.
pub fn landing_lines(first: Length, hem: Length) -> (Length, Length) {
    (first * 2, first + hem * 2)
}

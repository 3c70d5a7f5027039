//! Which turns a piece may take on a cloth: the grain rule, then the print rule.

use crate::cloth::{Cloth, Print, PrintUp};
use crate::piece::{Grain, PrintRule};
use crate::shape::Turn;

/// The turns that are allowed, best first.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Allowed {
    /// Never empty.
    pub turns: Vec<Turn>,
    /// Grain and print left none together, and the print won.
    pub against_grain: bool,
}

/// The turns of a piece with `grain` and `print` on `cloth`.
///
/// The grain names the cloth direction of the piece's upright axis; on a directed print an upright piece then keeps
/// only the turns that stand it as printed. When nothing is left the print rule wins and the lay warns.
pub fn allowed_turns(grain: Grain, print: PrintRule, cloth: &Cloth) -> Allowed {
    let by_grain: &[u16] = match grain {
        Grain::Length => &[0, 180],
        Grain::Across => &[90, 270],
        Grain::Either | Grain::Any => &[0, 90, 180, 270],
        Grain::Bias => &[45, 135, 225, 315],
    };
    // Piece-up is +y; a turn by 270° counter-clockwise points it at +x.
    let upright: u16 = match cloth.up {
        PrintUp::Length => 0,
        PrintUp::Across => 270,
    };
    let by_print: Option<Vec<u16>> = match (print, cloth.direction()) {
        (PrintRule::Ignore, _) | (_, Print::AllOver) => None,
        (PrintRule::Upright, Print::OneWay) => Some(vec![upright]),
        (PrintRule::Upright, Print::TwoWay) => Some(vec![upright, (upright + 180) % 360]),
    };
    let (degrees, against_grain) = match by_print {
        None => (by_grain.to_vec(), false),
        Some(print) => {
            let both: Vec<u16> = print.iter().copied().filter(|t| by_grain.contains(t)).collect();
            if both.is_empty() { (print, true) } else { (both, false) }
        }
    };
    Allowed { turns: degrees.into_iter().filter_map(Turn::new).collect(), against_grain }
}

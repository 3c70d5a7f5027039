//! How cloths are drawn: each weave or print with a direction of its own, so that upside down is seen.

use super::canvas::{Canvas, Drawing, Style, escape};
use bofta_core::cloth::PrintUp;
use bofta_core::measure::Length;
use bofta_core::project::{Pattern, ProjectCloth};

/// What a print's tile is tall where nobody measured it: so many pixels of the tile to an inch.
const USUAL: f64 = 16.0;

/// A tile is drawn no smaller than this share of how it is drawn by itself: below it figures run together, and cloths can
/// no longer be told apart.
const SMALLEST: f64 = 0.3;

/// Defines the pattern of `cloth` under `id` and gives the paint; its up points `degrees` clockwise from the drawing's up,
/// its figures are as large as they are, `scale` pixels to a unit of length.
pub(super) fn paint(canvas: &mut Canvas, cloth: &ProjectCloth, id: &str, degrees: i32, scale: f64) -> String {
    let look = &cloth.look;
    let figure = escape(&look.figure);
    let (width, height, figures) = match look.pattern {
        Pattern::Plain => {
            (4.0, 4.0, format!(r#"<path d="M0 1H4M1 0V4" stroke="{figure}" stroke-width=".6" opacity=".35"/>"#))
        }
        Pattern::Seeds => (
            26.0,
            26.0,
            format!(
                r#"<g fill="{figure}"><circle cx="6" cy="7" r="2.1"/><circle cx="19" cy="12" r="1.5"/><circle cx="11" cy="21" r="1.8"/><circle cx="23" cy="23" r="1.2"/></g>"#
            ),
        ),
        Pattern::Ticking => (
            18.0,
            18.0,
            format!(
                r#"<g fill="{figure}"><rect x="3" width="4" height="18"/><rect x="9" width="1.1" height="18"/><rect x="12" width="1.1" height="18"/></g>"#
            ),
        ),
        Pattern::Check => (
            24.0,
            24.0,
            format!(
                r#"<g fill="{figure}"><rect width="10" height="24" opacity=".42"/><rect width="24" height="10" opacity=".42"/></g>"#
            ),
        ),
        Pattern::Sprig => (44.0, 44.0, sprig(&figure, 12.0, 14.0) + &sprig(&figure, 34.0, 36.0)),
        Pattern::Cans => (48.0, 40.0, can(&figure, 4.0, 4.0) + &can(&figure, 28.0, 24.0)),
        Pattern::Fleece => (
            12.0,
            12.0,
            format!(
                r#"<path d="M2 3q2 -2 4 0M8 9q2 -2 4 0M7 2l1 1M2 9l1 -1" fill="none" stroke="{figure}" stroke-width=".8" opacity=".6"/>"#
            ),
        ),
    };
    let tall = cloth.repeat.map_or(Length::INCH.0 as f64 * height / USUAL, |r| r.0 as f64) * scale;
    // A hundredth would be a whole figure out at the far end of a lay.
    let by = format!("{:.5}", (tall / height).max(SMALLEST));
    let pattern = format!(
        r#"<pattern id="{id}" patternUnits="userSpaceOnUse" width="{width}" height="{height}" patternTransform="rotate({degrees}) scale({by})">{figures}</pattern>"#
    );
    canvas.define(&pattern, id, &look.ground)
}

/// A stem with two leaves and a bud, standing up.
fn sprig(figure: &str, x: f64, y: f64) -> String {
    format!(
        r##"<g transform="translate({x} {y})"><path d="M0 8V-4" stroke="{figure}" stroke-width="1.5"/><path d="M0 4q-7 0 -8 -6q7 0 8 6M0 5q7 0 8 -6q-7 0 -8 6" fill="{figure}"/><circle cy="-7" r="2.9" fill="#E0A58C"/></g>"##
    )
}

/// A watering can, standing up.
fn can(figure: &str, x: f64, y: f64) -> String {
    format!(
        r#"<g transform="translate({x} {y})"><path d="M3 4h9v9H3z" fill="{figure}"/><path d="M12 9L18 3M16.4 1.6L19.6 4.6M5 4q2.5 -6 5 0M3 6q-5 2 0 5" fill="none" stroke="{figure}" stroke-width="1.5"/></g>"#
    )
}

/// Clockwise degrees from the drawing's up to the print's up, when the cloth's length runs up the drawing.
pub(super) const fn up_degrees(cloth: &ProjectCloth) -> i32 {
    match cloth.up {
        PrintUp::Length => 0,
        PrintUp::Across => 90,
    }
}

/// A square of cloth for lists, an inch of it as wide as a usual tile says, with a pattern id that is unique by `key`.
pub fn swatch(cloth: &ProjectCloth, key: &str, width: f64, height: f64) -> Drawing {
    let mut canvas = Canvas::default();
    let id = format!("swatch-{key}");
    let paint = paint(&mut canvas, cloth, &id, up_degrees(cloth), USUAL / Length::INCH.0 as f64);
    canvas.rect(0.0, 0.0, width, height, &Style::fill(paint));
    canvas.finish(width, height)
}

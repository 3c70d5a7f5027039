//! How cloths are drawn: each weave or print with a direction of its own, so that upside down is seen.

use super::canvas::{Canvas, Drawing, Style, escape};
use bofta_core::cloth::PrintUp;
use bofta_core::project::{Look, Pattern, ProjectCloth};

/// Defines the pattern of `look` under `id` and gives the paint; its up points `degrees` clockwise from the drawing's up. Tiles have a fixed size
/// in the drawing: prints are drawn to be told apart, not to scale.
pub(super) fn paint(canvas: &mut Canvas, look: &Look, id: &str, degrees: i32) -> String {
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
    let pattern = format!(
        r#"<pattern id="{id}" patternUnits="userSpaceOnUse" width="{width}" height="{height}" patternTransform="rotate({degrees})">{figures}</pattern>"#
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

/// A square of cloth for lists, `size` pixels wide, with a pattern id that is unique by `key`.
pub fn swatch(cloth: &ProjectCloth, key: &str, width: f64, height: f64) -> Drawing {
    let mut canvas = Canvas::default();
    let id = format!("swatch-{key}");
    let paint = paint(&mut canvas, &cloth.look, &id, up_degrees(cloth));
    canvas.rect(0.0, 0.0, width, height, &Style::fill(paint));
    canvas.finish(width, height)
}

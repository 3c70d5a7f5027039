//! How cloths are drawn: each weave or print with a direction of its own, so that upside down is seen.

use super::canvas::{Canvas, Drawing, Style, escape, num};
use super::picture::PICTURES_AT;
use bofta_core::cloth::PrintUp;
use bofta_core::measure::Length;
use bofta_core::project::{Pattern, ProjectCloth, Swatch};

/// What a print's tile is tall where nobody measured it: so many pixels of the tile to an inch.
const USUAL: f64 = 16.0;

/// A tile is drawn no smaller than this share of how it is drawn by itself: below it figures run together, and cloths can
/// no longer be told apart.
const SMALLEST: f64 = 0.3;

/// A drawn tile: how wide and tall it is, and its figures.
struct Tile {
    width: f64,
    height: f64,
    figures: String,
    /// Its figures keep their shape and stand in the middle of a repeat, however wide or tall that is.
    figured: bool,
}

/// The tile of a look; `alone` has one figure where the usual tile has two, a step apart.
fn tile(pattern: Pattern, figure: &str, alone: bool) -> Tile {
    let (width, height, figures) = match pattern {
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
        Pattern::Sprig if alone => (22.0, 24.0, sprig(figure, 11.0, 13.0)),
        Pattern::Sprig => (44.0, 44.0, sprig(figure, 12.0, 14.0) + &sprig(figure, 34.0, 36.0)),
        Pattern::Cans if alone => (24.0, 18.0, can(figure, 2.0, 2.0)),
        Pattern::Cans => (48.0, 40.0, can(figure, 4.0, 4.0) + &can(figure, 28.0, 24.0)),
        Pattern::Flower => (96.0, 104.0, flower(figure, 48.0, 52.0)),
        Pattern::Border => (24.0, BORDER * USUAL, border(figure)),
        Pattern::Fleece => (
            12.0,
            12.0,
            format!(
                r#"<path d="M2 3q2 -2 4 0M8 9q2 -2 4 0M7 2l1 1M2 9l1 -1" fill="none" stroke="{figure}" stroke-width=".8" opacity=".6"/>"#
            ),
        ),
    };
    let figured =
        matches!(pattern, Pattern::Seeds | Pattern::Sprig | Pattern::Cans | Pattern::Flower | Pattern::Border);
    Tile { width, height, figures, figured }
}

/// A picture of cloth as a tile: what is seen of it, as large as a usual tile says.
fn pictured(picture: &Swatch) -> Tile {
    let size = |l: Length| l.0 as f64 / Length::INCH.0 as f64 * USUAL;
    let (width, height) = (size(picture.width), size(picture.height));
    let figures = format!(
        r#"<image href="{PICTURES_AT}{}" width="{}" height="{}" preserveAspectRatio="none"/>"#,
        escape(&picture.key),
        exact(width),
        exact(height)
    );
    Tile { width, height, figures, figured: false }
}

/// Defines the pattern of `cloth` under `id` and gives the paint; its up points `degrees` clockwise from the drawing's up,
/// its figures are as large as they are, `scale` pixels to a unit of length, and the middle of one falls on `motif`, a
/// point of the drawing, if that is given.
pub(super) fn paint(
    canvas: &mut Canvas,
    cloth: &ProjectCloth,
    id: &str,
    (degrees, scale): (i32, f64),
    motif: Option<(f64, f64)>,
) -> String {
    let look = &cloth.look;
    let tile = match &look.picture {
        Some(picture) => pictured(picture),
        None => tile(look.pattern, &escape(&look.figure), cloth.repeat_wide.is_some()),
    };
    // Where the border falls is not known: the cloth beyond it.
    if cloth.has_border() && motif.is_none() {
        return canvas.define(
            &format!(r#"<pattern id="{id}" patternUnits="userSpaceOnUse" width="1" height="1"/>"#),
            id,
            &look.ground,
        );
    }
    let px = |l: Length| l.0 as f64 * scale;
    let aspect = tile.width / tile.height;
    let of_it = look.picture.as_ref().filter(|p| !p.one_repeat).map(|p| (p.width, p.height));
    let (mut wide, mut tall) = match of_it.map_or((cloth.repeat_wide, cloth.repeat), |(w, h)| (Some(w), Some(h))) {
        (Some(wide), Some(tall)) => (px(wide), px(tall)),
        (Some(wide), None) => (px(wide), px(wide) / aspect),
        (None, Some(tall)) => (px(tall) * aspect, px(tall)),
        (None, None) => (px(Length::INCH) * tile.width / USUAL, px(Length::INCH) * tile.height / USUAL),
    };
    // Where a figure has its place it is as large as it is, whatever becomes of it.
    let least = (SMALLEST * tile.height / tall).max(1.0);
    if motif.is_none() && look.picture.is_none() {
        (wide, tall) = (wide * least, tall * least);
    }
    if cloth.has_border() {
        (wide, tall) = (cloth.repeat_wide.map_or(px(Length::INCH) * tile.width / USUAL, px), px(cloth.width));
    }
    let (mut by_x, mut by_y) = (wide / tile.width, tall / tile.height);
    if tile.figured {
        by_x = by_x.min(by_y);
        by_y = by_x;
    }
    // The repeat in the tile's own units, its figures in the middle of it.
    let (w, h) = (wide / by_x, tall / by_y);
    let centred = |x: f64, y: f64| {
        let (x, y) = ((w - tile.width) / 2.0 + x, (h - tile.height) / 2.0 + y);
        if (x, y) == (0.0, 0.0) {
            tile.figures.clone()
        } else {
            format!(r#"<g transform="translate({} {})">{}</g>"#, num(x), num(y), tile.figures)
        }
    };
    let (figures, width) = if cloth.half_drop && of_it.is_none() {
        (centred(0.0, 0.0) + &centred(w, h / 2.0) + &centred(w, -h / 2.0), w * 2.0)
    } else {
        (centred(0.0, 0.0), w)
    };
    let place = motif.map_or_else(String::new, |(x, y)| format!("translate({} {}) ", num(x), num(y)));
    let middle = motif.map_or_else(String::new, |_| format!(" translate({} {})", num(-w / 2.0), num(-h / 2.0)));
    // A hundredth would be a whole figure out at the far end of a lay.
    let by = if by_x == by_y { format!("{by_x:.5}") } else { format!("{by_x:.5} {by_y:.5}") };
    let pattern = format!(
        r#"<pattern id="{id}" patternUnits="userSpaceOnUse" width="{}" height="{}" patternTransform="{place}rotate({degrees}) scale({by}){middle}">{figures}</pattern>"#,
        exact(width),
        exact(h)
    );
    canvas.define(&pattern, id, &look.ground)
}

/// A tile's size to a ten-thousandth, without idle noughts.
fn exact(size: f64) -> String {
    let text = format!("{size:.4}");
    text.trim_end_matches('0').trim_end_matches('.').to_owned()
}

/// How many inches a border is tall where it is drawn.
const BORDER: f64 = 4.0;

/// Where the middle of a border falls on cloth whose edge is at `left` of a drawing, `scale` pixels to a unit of length; as
/// if the border began at the edge where that is not measured. Nothing of cloth without one.
pub(super) fn border_from(cloth: &ProjectCloth, left: f64, scale: f64) -> Option<(f64, f64)> {
    let usual = Length((BORDER / 2.0 * Length::INCH.0 as f64) as i64);
    cloth.has_border().then(|| (left + cloth.motif_from.unwrap_or(usual).0 as f64 * scale, 0.0))
}

/// Leaves over two lines, standing on the lower edge.
fn border(figure: &str) -> String {
    format!(
        r#"<g fill="none" stroke="{figure}" stroke-width="2"><path d="M0 62H24M0 56H24M12 54V24"/><path d="M0 8q6 -7 12 0t12 0" stroke-width="1.4"/></g><path d="M12 44q-9 -1 -10 -11q9 1 10 11M12 44q9 -1 10 -11q-9 1 -10 11M12 25q-5 -5 0 -12q5 7 0 12" fill="{figure}"/>"#
    )
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

/// A large flower head on its stem, standing up.
fn flower(figure: &str, x: f64, y: f64) -> String {
    let petals: String =
        (0..12).map(|n| format!(r#"<ellipse cy="-23" rx="6.4" ry="13" transform="rotate({})"/>"#, n * 30)).collect();
    format!(
        r##"<g transform="translate({x} {y})"><path d="M0 12V50M0 47q-20 1 -24 -13q18 -2 24 13M0 50q16 0 20 -11q-15 -3 -20 11" stroke="{figure}" stroke-width="3" fill="{figure}" opacity=".75"/><g fill="{figure}">{petals}</g><circle r="13" fill="#5B4632"/><circle r="8" fill="none" stroke="#E0A58C" stroke-width="1.6" stroke-dasharray="1.6 2.4"/></g>"##
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
    let scale = USUAL / Length::INCH.0 as f64;
    let paint = paint(&mut canvas, cloth, &id, (up_degrees(cloth), scale), border_from(cloth, 0.0, scale));
    canvas.rect(0.0, 0.0, width, height, &Style::fill(paint));
    canvas.finish(width, height)
}

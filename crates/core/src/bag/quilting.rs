//! Quilted panels: quilting draws cloth in, so they are cut over in each direction, quilted and trimmed. Common practice.

use crate::measure::{Length, Ruler, default_length};
use crate::piece::{Dimension, Figure, From, Mark, Piece, Term, When};

/// How much over a panel is cut in each direction: an inch, or 2.5 cm.
pub fn over(ruler: Ruler) -> Length {
    default_length(ruler.system(), 8, 25)
}

/// Quilts the panel `id` and what lies behind it at full size: fleece or batting is quilted with it.
pub fn quilt(pieces: &mut [Piece], id: &str, ruler: Ruler) {
    let Some(size) = pieces.iter().find(|p| p.id == id).map(Piece::size) else { return };
    for piece in pieces.iter_mut() {
        if piece.id == id {
            *piece = quilted(piece.clone(), ruler);
        } else if piece.backs.as_deref() == Some(id) && piece.size() == size {
            *piece = quilted(piece.clone(), ruler).noted("quilted with its panel, then trimmed with it");
        }
    }
}

fn quilted(panel: Piece, ruler: Ruler) -> Piece {
    let note = format!(
        "quilt, trim to {} × {}, then mark it",
        ruler.show(panel.width.size).text,
        ruler.show(panel.height.size).text
    );
    let lines = Mark {
        boxes: false,
        share: false,
        name: "quilting lines so far apart, from the middle out".into(),
        distance: default_length(ruler.system(), 8, 25),
        from: From::Middle,
        and: None,
    };
    larger(panel, over(ruler), "over, trimmed after quilting", "quilted").marked([lines]).noted(note)
}

/// `panel` cut `over` larger in each direction, for the reason in the field `key`, worked on and trimmed; what is cut
/// out of it is marked and cut then.
pub(super) fn cut_over(panel: Piece, over: Length, key: &str, ruler: Ruler) -> Piece {
    let note = format!(
        "cut over; trim to {} × {} when it is worked, then mark it",
        ruler.show(panel.width.size).text,
        ruler.show(panel.height.size).text
    );
    larger(panel, over, "over, trimmed when it is worked", key).noted(note)
}

fn larger(panel: Piece, over: Length, why: &'static str, key: &str) -> Piece {
    let add = |d: &Dimension| {
        let mut terms = d.terms.clone();
        terms.push(Term { name: why.into(), times: 1, each: over, field: Some(key.to_owned().into()) });
        Dimension { size: d.size + over, terms }
    };
    let (figure, corners) = trimmed_later(&panel.figure);
    let (width, height) = (add(&panel.width), add(&panel.height));
    let trimmed = Some(panel.figure.clone());
    Piece { width, height, figure, trimmed, ..panel }.cut(When::OverAndTrimmed(over)).marked(corners)
}

/// What a panel that is cut over looks like at the table, and the marks that keep what is cut out of it or off it once
/// it is trimmed. A circle stays one.
fn trimmed_later(figure: &Figure) -> (Figure, Option<Mark>) {
    let boxes = matches!(figure, Figure::CutOut { .. } | Figure::CutAtFold { .. });
    let mark = |name: std::borrow::Cow<'static, str>, across: Length, up: Option<Length>| {
        Some(Mark {
            boxes,
            share: false,
            name,
            distance: across,
            from: From::SideEdges,
            and: up.map(|up| (up, From::BaseEdge)),
        })
    };
    match figure {
        Figure::Circle => (Figure::Circle, None),
        Figure::Rectangle => (Figure::Rectangle, None),
        Figure::CutOut { across, up } => {
            let name = "corner square, cut out when the panel is trimmed";
            (Figure::Rectangle, mark(name.into(), across.size, Some(up.size)))
        }
        Figure::CutAtFold { across, .. } => (
            Figure::Rectangle,
            mark("corner notch at the fold, cut out when the panel is trimmed".into(), across.size, None),
        ),
        Figure::Rounded(radius) => {
            (Figure::Rectangle, mark("lower corners, rounded when the panel is trimmed: radius".into(), *radius, None))
        }
        Figure::Tapered(by) => {
            let end = if *by < Length::ZERO { "base" } else { "top" };
            let name = format!("narrower at the {end}, when the panel is trimmed: by");
            (Figure::Rectangle, mark(name.into(), Length(by.0.abs()), None))
        }
        Figure::HalfRound | Figure::RoundedAbove(_) | Figure::Free(_) => {
            (Figure::Rectangle, mark("cut round its template when it is trimmed".into(), Length::ZERO, None))
        }
    }
}

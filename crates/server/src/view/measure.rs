//! Measures, reasons and drawings.

use bofta_core::measure::{Length, Ruler};
use bofta_core::piece::{Dimension, PrintedTerm};
use bofta_formats::draw::Drawing;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A length as it is shown.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct Measure {
    /// Exact, in eighths of a micrometre.
    pub exact: i64,
    /// Without the unit.
    pub text: String,
    /// In words, with the unit.
    pub words: String,
}

impl Measure {
    pub fn new(length: Length, ruler: Ruler) -> Self {
        let shown = ruler.show(length);
        Self { exact: length.0, text: shown.text, words: shown.words }
    }
}

/// One term of a reason.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct TermView {
    pub name: String,
    /// How often it counts.
    pub times: i64,
    pub each: Measure,
    pub value: Measure,
    /// The bag's field it comes from.
    pub field: Option<String>,
}

/// A size with its reason.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct DimensionView {
    pub size: Measure,
    pub terms: Vec<TermView>,
}

impl DimensionView {
    pub fn new(dimension: &Dimension, ruler: Ruler) -> Self {
        let terms = dimension
            .printed(ruler)
            .iter()
            .map(|PrintedTerm { term: t, about }| {
                let measure = |l: Length| {
                    let shown = Measure::new(l, ruler);
                    let said = |text: String| if *about { format!("about {text}") } else { text };
                    Measure { text: said(shown.text), words: said(shown.words), ..shown }
                };
                TermView {
                    name: t.name.to_string(),
                    times: t.times,
                    each: measure(t.each),
                    value: measure(t.value()),
                    field: t.field.as_deref().map(str::to_owned),
                }
            })
            .collect();
        Self { size: Measure::new(dimension.size, ruler), terms }
    }
}

/// A drawing: what goes inside an `<svg>` with this `viewBox`.
#[derive(Clone, Debug, Serialize, Deserialize, ToSchema)]
pub struct DrawingView {
    pub width: f64,
    pub height: f64,
    pub body: String,
}

impl From<Drawing> for DrawingView {
    fn from(d: Drawing) -> Self {
        Self { width: d.width, height: d.height, body: d.body }
    }
}

//! The fonts that ship with the program, and how wide a text is in them.

use std::sync::LazyLock;

/// Font files: text regular, text bold, headings. Each under the SIL Open Font License, see `fonts/`.
pub const FONT_FILES: [&[u8]; 3] = [
    include_bytes!("../../fonts/AlegreyaSans_400Regular.ttf"),
    include_bytes!("../../fonts/AlegreyaSans_700Bold.ttf"),
    include_bytes!("../../fonts/BricolageGrotesque_700Bold.ttf"),
];

/// A face of the project.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Face {
    /// Text.
    Text,
    /// Text that stands out.
    Bold,
    /// Headings.
    Heading,
}

impl Face {
    pub(super) const fn attributes(self) -> &'static str {
        match self {
            Self::Text => r#"font-family="Alegreya Sans" font-weight="400""#,
            Self::Bold => r#"font-family="Alegreya Sans" font-weight="700""#,
            Self::Heading => r#"font-family="Bricolage Grotesque" font-weight="700""#,
        }
    }
}

static FACES: LazyLock<Vec<Option<ttf_parser::Face<'static>>>> =
    LazyLock::new(|| FONT_FILES.iter().map(|data| ttf_parser::Face::parse(data, 0).ok()).collect());

/// Whether the fonts that ship with the program have a sign for `c`.
pub fn has_sign(c: char) -> bool {
    c.is_whitespace() || FACES.iter().flatten().all(|font| font.glyph_index(c).is_some())
}

/// Width of `text` at `size`, in the unit of `size`.
pub fn text_width(text: &str, face: Face, size: f64) -> f64 {
    let Some(Some(font)) = FACES.get(face as usize) else { return text.chars().count() as f64 * size * 0.5 };
    let advance = |c: char| font.glyph_index(c).and_then(|g| font.glyph_hor_advance(g)).unwrap_or(500);
    let units: f64 = text.chars().map(|c| f64::from(advance(c))).sum();
    units * size / f64::from(font.units_per_em())
}

//! What a file is, by its content.

/// What a file is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum FileKind {
    /// Lines of text, or cells with commas, semicolons or tabs between them.
    Text,
    /// A spreadsheet of Office Open XML (ECMA-376).
    Xlsx,
    /// An OpenDocument spreadsheet (ISO/IEC 26300).
    Ods,
    /// A spreadsheet in the older binary form.
    Xls,
    /// Scalable Vector Graphics, packed or not.
    Svg,
    /// A drawing exchange file.
    Dxf,
}

impl FileKind {
    /// What it is called.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Text => "text",
            Self::Xlsx => "an XLSX workbook",
            Self::Ods => "an ODS spreadsheet",
            Self::Xls => "an XLS workbook",
            Self::Svg => "an SVG drawing",
            Self::Dxf => "a DXF drawing",
        }
    }

    /// Whether files of this kind end so.
    pub(crate) fn ends(self, ending: &str) -> bool {
        match self {
            Self::Text => matches!(ending, "txt" | "csv" | "tsv" | "md" | "list" | "text"),
            Self::Xlsx => matches!(ending, "xlsx" | "xlsm"),
            Self::Ods => ending == "ods",
            Self::Xls => ending == "xls",
            Self::Svg => matches!(ending, "svg" | "svgz"),
            Self::Dxf => ending == "dxf",
        }
    }

    /// What `bytes` are, by their content; nothing when they are none of these.
    pub fn of(bytes: &[u8]) -> Option<Self> {
        const COMPOUND: &[u8] = b"\xD0\xCF\x11\xE0\xA1\xB1\x1A\xE1";
        if bytes.starts_with(b"PK") {
            let has = |name: &[u8]| bytes.windows(name.len()).any(|w| w == name);
            return if has(b"application/vnd.oasis.opendocument.spreadsheet") {
                Some(Self::Ods)
            } else if has(b"xl/workbook") || has(b"[Content_Types].xml") {
                Some(Self::Xlsx)
            } else {
                None
            };
        }
        if bytes.starts_with(COMPOUND) {
            return Some(Self::Xls);
        }
        if bytes.starts_with(b"\x1F\x8B") {
            return Some(Self::Svg);
        }
        if bytes.starts_with(b"AutoCAD Binary DXF") {
            return Some(Self::Dxf);
        }
        let text = std::str::from_utf8(bytes).ok().map(|t| t.trim_start_matches('\u{feff}').trim_start());
        match text {
            Some(text) if text.starts_with('<') => text.contains("<svg").then_some(Self::Svg),
            Some(text) if is_dxf(text) => Some(Self::Dxf),
            Some(text) if !text.contains('\0') => Some(Self::Text),
            Some(_) => None,
            // Older drawings are written in code pages.
            None => is_dxf(&String::from_utf8_lossy(&bytes[..bytes.len().min(4096)])).then_some(Self::Dxf),
        }
    }
}

/// A drawing exchange file begins with a group code on one line and its value on the next: a comment, or a section.
fn is_dxf(text: &str) -> bool {
    let mut lines = text.lines().map(str::trim);
    match (lines.next(), lines.next()) {
        (Some("999"), _) => true,
        (Some("0"), Some(value)) => value.eq_ignore_ascii_case("SECTION"),
        _ => false,
    }
}

//! Pages of SVG as one PDF.

use crate::draw::{Drawing, FONT_FILES, Pictures, has_sign, with_pictures};
use bofta_core::lay::Stop;
use pdf_writer::{Content, Finish, Name, Pdf, Rect, Ref};
use std::collections::{BTreeSet, HashMap};
use std::sync::Arc;
use svg2pdf::usvg;
use thiserror::Error;

/// A sheet that could not be made into PDF.
#[derive(Debug, Error)]
pub enum SheetError {
    /// A page that cannot be converted, which is a fault of this program.
    #[error("the sheet could not be drawn: {0}")]
    Drawing(String),
    /// It was stopped.
    #[error(
        "the sheet has {pages} pages, and only {done} could be drawn in time. Save the cut list as CSV instead, or plan fewer pieces at once"
    )]
    OutOfTime {
        /// So many would be needed.
        pages: usize,
        /// So many were done.
        done: usize,
    },
}

/// The signs of names that no font has, neither those that ship with the program nor, looked for only where they fail,
/// those of this machine.
fn unknown_signs(pages: &[Drawing], fonts: &mut usvg::fontdb::Database) -> BTreeSet<char> {
    let mut unknown: BTreeSet<char> =
        pages.iter().flat_map(|p| p.body.chars()).filter(|c| !c.is_ascii() && !has_sign(*c)).collect();
    if !unknown.is_empty() {
        fonts.load_system_fonts();
        let faces: Vec<usvg::fontdb::ID> = fonts.faces().map(|face| face.id).collect();
        for id in faces {
            let known = fonts.with_face_data(id, |data, index| {
                let face = ttf_parser::Face::parse(data, index).ok()?;
                Some(unknown.iter().copied().filter(|c| face.glyph_index(*c).is_some()).collect::<Vec<char>>())
            });
            known.flatten().unwrap_or_default().iter().for_each(|c| {
                unknown.remove(c);
            });
        }
    }
    unknown
}

/// Signs without a glyph would vanish: they are spelled out by their numbers (Unicode's `U+1F45C`), so that a label is
/// never empty.
fn spelled_out(text: String, unknown: &BTreeSet<char>) -> String {
    if unknown.is_empty() {
        return text;
    }
    let mut out = String::with_capacity(text.len());
    for c in text.chars() {
        if unknown.contains(&c) { out.push_str(&format!("[U+{:04X}]", c as u32)) } else { out.push(c) }
    }
    out
}

/// Puts each drawing on a page of its size, one unit a point.
pub(super) fn to_pdf(pages: &[Drawing], pictures: Pictures<'_>, stop: &Stop) -> Result<Vec<u8>, SheetError> {
    let mut options = usvg::Options::default();
    let fonts = Arc::make_mut(&mut options.fontdb);
    for data in FONT_FILES {
        fonts.load_font_data(data.to_vec());
    }
    let unknown = unknown_signs(pages, fonts);
    let mut next = 1;
    let mut fresh = || {
        next += 1;
        Ref::new(next - 1)
    };
    let (catalog, tree) = (fresh(), fresh());
    let mut pdf = Pdf::new();
    let mut page_ids = Vec::new();
    for (done, drawing) in pages.iter().enumerate() {
        if stop.asked() {
            return Err(SheetError::OutOfTime { pages: pages.len(), done });
        }
        let fault = |e: &dyn std::fmt::Display| SheetError::Drawing(e.to_string());
        let text = with_pictures(&spelled_out(drawing.to_svg(), &unknown), pictures);
        let parsed = usvg::Tree::from_str(&text, &options).map_err(|e| fault(&e))?;
        let (chunk, svg) = svg2pdf::to_chunk(&parsed, svg2pdf::ConversionOptions::default()).map_err(|e| fault(&e))?;
        let mut renamed = HashMap::new();
        let chunk = chunk.renumber(|old| *renamed.entry(old).or_insert_with(&mut fresh));
        let svg = renamed.get(&svg).copied().ok_or_else(|| fault(&"the page is empty"))?;
        let (page_id, content_id) = (fresh(), fresh());
        page_ids.push(page_id);
        let (w, h) = (drawing.width as f32, drawing.height as f32);
        let mut page = pdf.page(page_id);
        page.media_box(Rect::new(0.0, 0.0, w, h)).parent(tree).contents(content_id);
        page.resources().x_objects().pair(Name(b"S"), svg);
        page.finish();
        // The drawing is one unit square; stretch it over the page.
        let mut content = Content::new();
        content.transform([w, 0.0, 0.0, h, 0.0, 0.0]).x_object(Name(b"S"));
        pdf.stream(content_id, &content.finish());
        pdf.extend(&chunk);
    }
    pdf.catalog(catalog).pages(tree);
    pdf.pages(tree).count(page_ids.len() as i32).kids(page_ids);
    Ok(pdf.finish())
}

//! The cut list as a table for a spreadsheet.

use bofta_core::measure::Ruler;
use bofta_core::piece::Piece;

/// `piece,part,count,width,height,unit,note`, one row a piece, sizes as decimal numbers in the ruler's system.
pub fn cut_list(pieces: &[Piece], ruler: Ruler) -> String {
    let mut writer = csv::Writer::from_writer(Vec::new());
    let unit = ruler.system();
    let rows = pieces.iter().map(|p| {
        [
            p.name.to_string(),
            p.part.name().to_owned(),
            p.count.to_string(),
            p.width.size.in_units(unit).to_string(),
            p.height.size.in_units(unit).to_string(),
            unit.symbol().to_owned(),
            p.note.clone().unwrap_or_default().into_owned(),
        ]
    });
    let header = ["piece", "part", "count", "width", "height", "unit", "note"].map(str::to_owned);
    for row in std::iter::once(header).chain(rows) {
        // Writing to memory cannot fail.
        let _ = writer.write_record(&row);
    }
    writer.into_inner().ok().and_then(|bytes| String::from_utf8(bytes).ok()).unwrap_or_default()
}

//! Pictures of cloth in drawings. A drawing names a picture by its address on the server; what is taken away, a file or a
//! printed sheet, has the pictures in itself.

use base64::Engine as _;
use base64::prelude::BASE64_STANDARD;

/// Gives the picture with a key, a JPEG; nothing where it is gone.
pub type Pictures<'a> = &'a (dyn Fn(&str) -> Option<Vec<u8>> + Send + Sync);

/// Where pictures of cloth are had from, followed by their key.
pub const PICTURES_AT: &str = "/api/pictures/";

/// No pictures at all: what has one is drawn in the colour of its ground.
pub const NO_PICTURES: Pictures<'static> = &|_| None;

/// `svg` with its pictures in itself, so that it can be opened anywhere; one that is gone is left out.
pub fn with_pictures(svg: &str, pictures: Pictures<'_>) -> String {
    const HREF: &str = r#"href="/api/pictures/"#;
    let mut out = String::with_capacity(svg.len());
    let mut rest = svg;
    while let Some((before, after)) = rest.split_once(HREF) {
        let (key, after) = after.split_once('"').unwrap_or((after, ""));
        let data = pictures(key).map(|jpeg| BASE64_STANDARD.encode(jpeg));
        out.push_str(before);
        out.push_str(
            &data.map_or_else(|| r#"href=""#.to_owned(), |data| format!(r#"href="data:image/jpeg;base64,{data}"#)),
        );
        out.push('"');
        rest = after;
    }
    out + rest
}

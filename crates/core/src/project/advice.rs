//! What follows from the cloths that were chosen: how the outer is backed, what folds, what hangs upside down. Common
//! practice; nothing is forbidden, every line says why.

use super::Project;
use super::cloth::ProjectCloth;
use crate::bag::{Body, Draft, Notice, Row, RowShape, Stack, Stage};
use crate::cloth::{Material, Print};
use crate::measure::Length;
use crate::piece::Part;

/// The advice for `draft`, cut from the project's cloths.
pub(super) fn advice(project: &Project, draft: &Draft) -> Vec<Notice> {
    let has = |part| draft.pieces.iter().any(|p| p.part == part);
    let cloth = |part| project.cloth_of(part).filter(|_| has(part));
    let mut found = Vec::new();
    if let Some(outer) = cloth(Part::Outer) {
        found.extend(backing(project, outer, &has));
        found.extend(contrast(outer, cloth(Part::Contrast), &has));
    }
    if let Some(straps) = cloth(Part::Straps)
        && straps.material == Material::Vinyl
        && project.bag.answer("strap_make") == Some("folded-in-four")
    {
        let text = format!(
            "{} is faux leather, too thick to fold in four: take its edges to the middle, or webbing.",
            straps.name
        );
        found.push(Notice::attention("strap_make", text));
    }
    found.extend(draft.stacks.iter().filter_map(|stack| too_thick(project, stack)));
    if let Body::CutList(list) = &project.bag.body {
        found.extend(which_way_up(project, &list.rows));
    }
    let stands = |c: &&ProjectCloth| c.print == Print::OneWay || c.nap;
    if draft.piece("slip-pocket").is_some() && cloth(Part::Pocket).filter(stands).is_some() {
        let text = "The pocket is folded at its top edge: the back of a one-way print hangs upside down, out of sight.";
        found.push(Notice { stage: Stage::Cloth, field: None, ..Notice::note("pocket", text) });
    }
    found
}

/// What lies behind the outer, by what the outer is.
fn backing(project: &Project, outer: &ProjectCloth, has: &dyn Fn(Part) -> bool) -> Option<Notice> {
    // A bag that cannot be backed has no such choice.
    let backed = project.bag.answer("backing")? != "none";
    let fusible = has(Part::Interfacing);
    match (outer.material, backed) {
        (Material::Cotton | Material::Linen, false) => Some(Notice::note(
            "backing",
            "A cotton outer usually needs interfacing for body, or fleece for padding. Canvas stands by itself.",
        )),
        (Material::Canvas, true) if fusible => Some(Notice::note(
            "backing",
            "Canvas stands by itself: interfacing adds bulk in its seams. Fleece, if a padded body is wanted.",
        )),
        (Material::Vinyl, true) => Some(Notice::attention(
            "backing",
            "Faux leather stands by itself and melts under the iron: leave fusibles out, or slip the fleece in loose.",
        )),
        _ => None,
    }
}

/// A thin print beside a heavier cloth is backed to match it.
fn contrast(outer: &ProjectCloth, contrast: Option<&ProjectCloth>, has: &dyn Fn(Part) -> bool) -> Option<Notice> {
    let thin = contrast.filter(|c| c.material == Material::Cotton)?;
    let heavy = matches!(outer.material, Material::Canvas | Material::Vinyl);
    (heavy && !has(Part::Interfacing)).then(|| {
        let text =
            format!("{} is thinner than {} beside it: back it with interfacing to match.", thin.name, outer.name);
        Notice { stage: Stage::Cloth, field: None, ..Notice::note("backing", text) }
    })
}

/// How many layers of a cloth pass under a presser foot: eight of cotton, four of denim, two of faux leather. Common
/// practice; a layer of backing is reckoned as one of cotton, which is this project's own choice.
const fn most_layers(material: Material) -> u32 {
    match material {
        Material::Cotton | Material::Linen | Material::Fleece | Material::Interfacing | Material::Stabiliser => 8,
        Material::Canvas => 4,
        Material::Vinyl => 2,
    }
}

/// Where more layers lie on each other than can be sewn through, for the cloths that are chosen; a part without a cloth is
/// taken for cotton.
fn too_thick(project: &Project, stack: &Stack) -> Option<Notice> {
    let material = |part| project.cloth_of(part).map_or(Material::Cotton, |c| c.material);
    // In eighths of what passes.
    let thick: u32 = stack.layers.iter().map(|(part, n)| n * 8 / most_layers(material(*part))).sum();
    let layers: u32 = stack.layers.iter().map(|(_, n)| n).sum();
    (thick > 8).then(|| {
        let text = format!(
            "Where {} {layers} layers lie on each other: of these cloths more than passes under a foot (eight of cotton, four of canvas or denim, two of faux leather). Webbing or a tube is thinner.",
            stack.place
        );
        Notice::note(stack.field.clone(), text)
    })
}

/// Which number of a listed row is its width is told by edges that must match; where nothing tells it and the print has
/// one way up, it is asked.
fn which_way_up(project: &Project, rows: &[Row]) -> Vec<Notice> {
    let one_way = |part| project.cloth_of(part).is_some_and(|c| c.print == Print::OneWay || c.nap);
    let told = |at: usize, row: &Row| {
        // Another row as wide: panel and band, or panel and lining, share an edge.
        rows.iter().enumerate().any(|(i, other)| i != at && other.width == row.width)
    };
    let asked = rows.iter().enumerate().filter(|(at, row)| {
        let free = row.any_way || matches!(row.part, Part::Straps | Part::Binding) || row.part.is_backing();
        let plain = matches!(row.shape, RowShape::Rectangle) && row.width.is_some_and(|w| w != row.height);
        plain && !free && one_way(row.part) && !told(*at, row)
    });
    let show = |l: Length| project.ruler.show(l).text;
    asked
        .map(|(_, row)| {
            let text = format!(
                "{} is taken to be {} wide and {} tall, and nothing else in the list says so: on a one-way print turn it if it stands the other way.",
                row.name,
                row.width.map(show).unwrap_or_default(),
                show(row.height)
            );
            Notice { stage: Stage::Bag, field: None, ..Notice::attention("rows", text) }
        })
        .collect()
}

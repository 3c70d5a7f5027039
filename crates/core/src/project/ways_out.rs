//! Ways out when the cloth runs short, least seen first; and how large the bag can be from what there is.

use super::ProjectCloth;
use super::document::{Planned, Project};
use super::edit::{ClothField, Edit, LayField};
use super::ways::{Way, other_ways};
use crate::bag::binding::Join;
use crate::bag::making_up::may_be_made_up;
use crate::buying::shown_names;
use crate::lay::Lay;
use crate::piece::{Part, Piece};
use std::collections::BTreeSet;

/// A size of the bag is scaled down to this at least, in hundredths.
const SMALLEST: u32 = 50;

/// And up to this at most.
const LARGEST: u32 = 400;

/// What might lay the pieces that `lay` leaves out: the rest bought, another cloth where it does not show and then where it
/// does, a join where it is not seen, a rule of the lay let go. Whether a way helps is found by laying it.
pub fn ways_out(project: &Project, planned: &Planned, lay: &Lay) -> Vec<Way> {
    let left_out = |id: &str| lay.unplaced.iter().any(|u| u.piece == id);
    let short: BTreeSet<Part> =
        planned.draft.pieces.iter().filter(|p| left_out(p.id.as_ref())).map(|p| p.part).collect();
    let mut ways = Vec::new();
    let way = |name: String, edit: Edit| Way { name, edits: vec![edit], only_if_less: false };
    let from = |part: &Part| project.from.get(part).into_iter().flatten();
    let bought: BTreeSet<&String> = short.iter().flat_map(from).collect();
    let rest: Vec<&ProjectCloth> = project.cloths.iter().filter(|c| bought.contains(&c.id) && !c.is_bought()).collect();
    let buy =
        |cloth: &ProjectCloth| Edit::Cloth { cloth: cloth.id.clone(), field: ClothField::BuyMore, value: "yes".into() };
    ways.extend(rest.iter().map(|cloth| way(format!("Buy the rest of {}", cloth.name), buy(cloth))));
    if rest.len() > 1 {
        let names: Vec<String> = rest.iter().map(|c| c.name.clone()).collect();
        let edits = rest.iter().map(|cloth| buy(cloth)).collect();
        ways.push(Way { name: format!("Buy the rest of {}", shown_names(&names)), edits, only_if_less: false });
    }
    let mut parts: Vec<Part> = short.iter().copied().collect();
    parts.sort_by_key(|part| part.shows());
    for part in parts {
        let known: Vec<&String> = from(&part).collect();
        for cloth in project
            .cloths
            .iter()
            .filter(|c| c.material.suits(part) && !known.contains(&&c.id) && !project.dressing.forbids(part, &c.id))
        {
            let seen = if part.shows() { ", where it shows" } else { "" };
            ways.push(way(
                format!("Cut the {} from {} as well{seen}", part.name().to_lowercase(), cloth.name),
                Edit::AssignAlso { part: part.key().to_owned(), cloth: cloth.id.clone() },
            ));
        }
    }
    ways.extend(planned.draft.pieces.iter().filter(|p| left_out(p.id.as_ref())).filter_map(|p| in_two(project, p)));
    if planned.draft.pieces.iter().any(|p| p.joined) && project.lay.join == Join::Diagonal {
        let edit = Edit::Lay { field: LayField::Join, value: "straight".into() };
        ways.push(way("Use straight joins, which need less cloth".into(), edit));
    }
    ways.extend(other_ways(project, planned).into_iter().map(|way| Way { only_if_less: false, ..way }));
    ways
}

/// A piece that is not seen, from two halves joined across its longer side: the seam is added. Nothing of what shows, or is
/// made up otherwise already.
fn in_two(project: &Project, piece: &Piece) -> Option<Way> {
    if piece.part.shows() || !may_be_made_up(piece) || project.made_up.contains_key(piece.id.as_ref()) {
        return None;
    }
    let (width, height) = piece.size();
    let (columns, rows) = if width > height { ("2", "1") } else { ("1", "2") };
    let set = |field: &str, value: &str| Edit::MakeUp {
        piece: piece.id.to_string(),
        field: field.to_owned(),
        value: value.to_owned(),
    };
    let own = piece.part.key();
    let edits = [("front", "grid"), ("columns", columns), ("rows", rows), ("patch_cloths", own)];
    Some(Way {
        name: format!("Join {} from two halves", piece.name),
        edits: edits.map(|(field, value)| set(field, value)).to_vec(),
        only_if_less: false,
    })
}

/// A bag of another size.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Sized {
    /// Its sizes, in hundredths of what they are now.
    pub percent: u32,
    /// Pieces that find no place when it is a hundredth larger; empty where it may be larger than is looked for.
    pub limits: Vec<String>,
}

/// What trying a size came to.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Tried {
    /// Every piece lies somewhere.
    Whole,
    /// The names of those that do not.
    Short(Vec<String>),
    /// It is no bag at that size.
    NoBag,
}

/// The largest bag that comes from what there is, by halving: `try_size` lays it at so many hundredths. Nothing when it does
/// not come at half its size either.
pub fn largest(mut try_size: impl FnMut(u32) -> Tried) -> Option<Sized> {
    let (mut fits, mut low, mut high, mut limits) = match try_size(100) {
        Tried::Whole => (Some(100), 100, LARGEST + 1, vec![]),
        Tried::Short(limits) => (None, SMALLEST - 1, 100, limits),
        Tried::NoBag => return None,
    };
    while high - low > 1 {
        let middle = low + (high - low) / 2;
        match try_size(middle) {
            Tried::Whole => (fits, low) = (Some(middle), middle),
            Tried::Short(names) => (high, limits) = (middle, names),
            // Too small for its own seams, or too large for any cloth.
            Tried::NoBag if middle < 100 => low = middle,
            Tried::NoBag => (high, limits) = (middle, vec![]),
        }
    }
    fits.map(|percent| Sized { percent, limits })
}

//! Other ways to lay a project: one rule of it changed at a time.

use super::document::{Planned, Project, StrapLie};
use super::edit::{Edit, LayField, Lies};
use crate::cloth::Print;
use crate::lay::Cuts;
use crate::piece::{Figure, Grain, Part, Piece, PrintRule};

/// So many pieces are tried turned, the longest first.
const MOST_TURNED: usize = 4;

/// Another way to lay a project.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Way {
    /// In a few words.
    pub name: String,
    /// What chooses it.
    pub edits: Vec<Edit>,
    /// Worth telling only where it takes less cloth.
    pub only_if_less: bool,
}

/// The ways there are besides how it is laid now.
pub fn other_ways(project: &Project, planned: &Planned) -> Vec<Way> {
    let lay = |name: &str, field, value: &str| Way {
        name: name.to_owned(),
        edits: vec![Edit::Lay { field, value: value.to_owned() }],
        only_if_less: false,
    };
    let pieces = &planned.draft.pieces;
    let mut ways = vec![match project.lay.cuts {
        Cuts::Free => lay("Edge to edge", LayField::Cuts, "through"),
        Cuts::Through => lay("Cut freely", LayField::Cuts, "free"),
    }];
    let directed = project.cloths.iter().any(|c| c.print != Print::AllOver || c.nap);
    if project.lay.print_may_lie {
        ways.push(lay("Print upright", LayField::PrintMayLie, "no"));
    } else if directed {
        ways.push(lay("Any way up", LayField::PrintMayLie, "yes"));
    }
    let notched = pieces.iter().any(|p| p.is_square_cut() && p.figure != Figure::Rectangle);
    if project.lay.in_notches {
        ways.push(lay("Corners cut last", LayField::InNotches, "no"));
    } else if notched && project.lay.cuts == Cuts::Free {
        ways.push(lay("Small pieces in the corners", LayField::InNotches, "yes"));
    }
    if pieces.iter().any(|p| p.part == Part::Straps) && project.cloth_of(Part::Straps).is_some() {
        for (name, value, lie) in [
            ("Straps along", "along", StrapLie::Along),
            ("Straps across", "across", StrapLie::Across),
            ("Straps either way", "either", StrapLie::Either),
        ] {
            if project.lay.straps != lie {
                ways.push(lay(name, LayField::Straps, value));
            }
        }
    }
    ways.extend(off_the_print(project, pieces));
    ways.extend(turned(project, pieces));
    ways
}

/// Pieces that have their place on a print, let go of it.
fn off_the_print(project: &Project, pieces: &[Piece]) -> Vec<Way> {
    let placed = pieces.iter().filter(|p| p.when.is_laid() && project.motif_on(p).is_some());
    placed
        .map(|p| Way {
            name: format!("{} anywhere on its print", p.name),
            edits: vec![Edit::PlaceOnPrint { piece: p.id.to_string(), across: String::new(), up: String::new() }],
            only_if_less: true,
        })
        .collect()
}

/// Pieces that are held to one direction, let go of it.
fn turned(project: &Project, pieces: &[Piece]) -> Vec<Way> {
    let held = |p: &&Piece| {
        let locked = matches!(p.grain, Grain::Length | Grain::Across) && p.part != Part::Straps;
        let (width, height) = p.size();
        locked && p.when.is_laid() && width != height && !minds_the_print(project, p)
    };
    let mut held: Vec<&Piece> = pieces.iter().filter(held).collect();
    held.sort_by_key(|p| std::cmp::Reverse(p.width.size.max(p.height.size)));
    held.into_iter()
        .take(MOST_TURNED)
        .map(|p| Way {
            name: format!("{} either way", p.name),
            edits: vec![Edit::Turn { piece: p.id.to_string(), lies: Lies::Either }],
            only_if_less: true,
        })
        .collect()
}

/// Whether the print keeps a piece upright whatever its grain.
pub fn minds_the_print(project: &Project, piece: &Piece) -> bool {
    let directed = project.cloth_for(piece).is_some_and(|c| c.print != Print::AllOver || c.nap);
    directed && piece.print == PrintRule::Upright && !project.lay.print_may_lie
}

//! The shortest lay of few pieces that can be cut edge to edge, by trying all cuts.
//!
//! A lay that comes apart edge to edge is two smaller ones side by side or one above the other. So for every set of
//! pieces, smallest first, it is enough to know its outline sizes no other undercuts; two sets side by side are as wide
//! as both together for each height, one above the other as high for each width (shape functions: Stockmeyer 1983,
//! "Optimal orientations of cells in slicing floorplan designs"; over all sets of pieces, as there is no floorplan).

use super::strip::{Laid, Strip};

/// Ways of splitting sets in two beyond which trying all of them takes too long: about 12 different pieces.
const MOST_SPLITS: u64 = 300_000;

/// A block of pieces that no other of the same pieces undercuts in width and height.
#[derive(Clone, Copy)]
struct Block {
    width: i64,
    height: i64,
    made: Made,
}

/// How a block comes about; blocks by their set and their place in its list.
#[derive(Clone, Copy)]
enum Made {
    Piece { kind: usize, choice: usize },
    Beside((usize, usize), (usize, usize)),
    Above((usize, usize), (usize, usize)),
}

/// The shortest lay of all of `strip` that is cut edge to edge and not longer than `longest`, if there are few enough
/// pieces to tell, with how many divisions were looked at. None also when even the shortest is longer, or it was stopped.
pub(super) fn shortest(strip: &Strip, longest: i64) -> Option<(Vec<Laid>, u64)> {
    let counts: Vec<usize> = strip.kinds.iter().map(|k| k.count).collect();
    let splits = counts.iter().try_fold(1u64, |n, &c| {
        let c = c as u64;
        n.checked_mul((c + 1) * (c + 2) / 2).filter(|n| *n <= 2 * MOST_SPLITS)
    });
    if splits.is_none() || counts.iter().sum::<usize>() == 0 {
        return None;
    }
    let sets: usize = counts.iter().map(|c| c + 1).product();
    let mut blocks: Vec<Vec<Block>> = vec![Vec::new(); sets];
    let mut divisions = 0;
    let fits = |b: &Block| b.width <= strip.width && b.height <= longest + strip.gap;
    for set in 1..sets {
        if strip.stop.asked() {
            return None;
        }
        let has = digits(set, &counts);
        let mut found = Vec::new();
        if has.iter().sum::<usize>() == 1 {
            let kind = has.iter().position(|n| *n == 1)?;
            let choices = strip.kinds[kind].choices.iter().enumerate();
            found.extend(choices.map(|(choice, c)| Block {
                width: c.width,
                height: c.height,
                made: Made::Piece { kind, choice },
            }));
        }
        each_part(&has, &counts, |part| {
            let rest = set - part;
            if part <= rest {
                divisions += 1;
                join((part, &blocks[part]), (rest, &blocks[rest]), &mut found);
            }
        });
        found.retain(fits);
        blocks[set] = undercut_by_none(found);
    }
    let all = sets - 1;
    let lowest = (0..blocks[all].len()).min_by_key(|&i| blocks[all][i].height)?;
    let mut lay = Vec::with_capacity(strip.pieces());
    place(&blocks, (all, lowest), (0, 0), &mut lay);
    Some((lay, divisions))
}

/// How many of each kind are in `set`.
fn digits(mut set: usize, counts: &[usize]) -> Vec<usize> {
    counts
        .iter()
        .map(|c| {
            let digit = set % (c + 1);
            set /= c + 1;
            digit
        })
        .collect()
}

/// Calls `visit` with every part of a set but nothing and all of it.
fn each_part(has: &[usize], counts: &[usize], mut visit: impl FnMut(usize)) {
    let mut part = vec![0; has.len()];
    loop {
        let mut i = 0;
        while i < has.len() && part[i] == has[i] {
            part[i] = 0;
            i += 1;
        }
        if i == has.len() {
            return;
        }
        part[i] += 1;
        if part != has {
            visit(part.iter().zip(counts).rev().fold(0, |n, (p, c)| n * (c + 1) + p));
        }
    }
}

/// Blocks of two sets, side by side and one above the other. Both lists run from narrow and high to wide and low.
fn join(a: (usize, &[Block]), b: (usize, &[Block]), found: &mut Vec<Block>) {
    let ((set_a, list_a), (set_b, list_b)) = (a, b);
    if list_a.is_empty() || list_b.is_empty() {
        return;
    }
    // For every height the narrowest of each that is no higher.
    let (mut i, mut j) = (0, 0);
    while i < list_a.len() && j < list_b.len() {
        let (x, y) = (&list_a[i], &list_b[j]);
        let made = Made::Beside((set_a, i), (set_b, j));
        found.push(Block { width: x.width + y.width, height: x.height.max(y.height), made });
        // Only the higher of the two can make it lower.
        if x.height >= y.height { i += 1 } else { j += 1 }
    }
    // For every width the lowest of each that is no wider.
    let (mut i, mut j) = (list_a.len() - 1, list_b.len() - 1);
    loop {
        let (x, y) = (&list_a[i], &list_b[j]);
        let made = Made::Above((set_a, i), (set_b, j));
        found.push(Block { width: x.width.max(y.width), height: x.height + y.height, made });
        let wider = if x.width >= y.width { &mut i } else { &mut j };
        if *wider == 0 {
            return;
        }
        *wider -= 1;
    }
}

/// From narrow and high to wide and low.
fn undercut_by_none(mut found: Vec<Block>) -> Vec<Block> {
    found.sort_by_key(|b| (b.width, b.height));
    let mut lowest = i64::MAX;
    found.retain(|b| {
        let lower = b.height < lowest;
        lowest = lowest.min(b.height);
        lower
    });
    found
}

fn place(blocks: &[Vec<Block>], (set, index): (usize, usize), (x, y): (i64, i64), lay: &mut Vec<Laid>) {
    match blocks[set][index].made {
        Made::Piece { kind, choice } => lay.push(Laid { kind, choice, x, y }),
        Made::Beside(a, b) => {
            place(blocks, a, (x, y), lay);
            place(blocks, b, (x + blocks[a.0][a.1].width, y), lay);
        }
        Made::Above(a, b) => {
            place(blocks, a, (x, y), lay);
            place(blocks, b, (x, y + blocks[a.0][a.1].height), lay);
        }
    }
}

#[cfg(test)]
mod tests {
    use super::super::strip::{Choice, Kind, Strip};
    use super::shortest;
    use crate::shape::Turn;
    use proptest::prelude::*;

    fn strip(width: i64, sides: &[(i64, i64)]) -> Strip {
        let kinds = sides
            .iter()
            .enumerate()
            .map(|(piece, &(w, h))| {
                let choice = |width, height| Choice { turn: Turn::NONE, width, height };
                let mut choices = vec![choice(w, h)];
                if w != h {
                    choices.push(choice(h, w));
                }
                choices.retain(|c| c.width <= width);
                Kind { piece, count: 1, choices }
            })
            .collect();
        Strip { through: true, ..Strip::of(width, kinds) }
    }

    /// Every size a set of rectangles can be cut from, by trying all splits and both ways to join, undercut or not.
    fn all_sizes(sides: &[(i64, i64)], most: i64) -> Vec<(i64, i64)> {
        if let [(w, h)] = sides {
            return [(*w, *h), (*h, *w)].into_iter().filter(|s| s.0 <= most).collect();
        }
        let mut found = std::collections::BTreeSet::new();
        // The first stays in the first half, so that no split is tried twice.
        for mask in 0..(1_usize << (sides.len() - 1)) - 1 {
            let pick = |inside: bool| -> Vec<(i64, i64)> {
                let chosen = sides.iter().enumerate().filter(|(i, _)| (*i == 0 || mask >> (i - 1) & 1 == 1) == inside);
                chosen.map(|(_, s)| *s).collect()
            };
            for a in all_sizes(&pick(true), most) {
                for b in all_sizes(&pick(false), most) {
                    found.insert((a.0 + b.0, a.1.max(b.1)));
                    found.insert((a.0.max(b.0), a.1 + b.1));
                }
            }
        }
        found.into_iter().filter(|s| s.0 <= most).collect()
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(120))]

        #[test]
        fn the_shortest_is_that_of_all_cuts(sides in prop::collection::vec((1_i64..12, 1_i64..12), 1..6), width in 12_i64..24) {
            let strip = strip(width, &sides);
            let lay = shortest(&strip, 1_000).expect("few enough");
            let least = all_sizes(&sides, width).into_iter().map(|s| s.1).min();
            prop_assert_eq!(Some(strip.length(&lay.0)), least);
            prop_assert_eq!(lay.0.len(), sides.len());
        }
    }

    #[test]
    fn too_many_pieces_are_left_to_others() {
        let many: Vec<(i64, i64)> = (1..=16).map(|n| (n, n + 1)).collect();
        assert!(shortest(&strip(40, &many), 1_000).is_none());
        assert!(shortest(&strip(40, &many[..4]), 1).is_none(), "not as short as that");
    }
}

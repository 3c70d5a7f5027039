//! The engine against an exhaustive search of its own on strips small enough for it: integer rectangles, every order,
//! every turn, every place. Shares no code with the engine.
#![allow(missing_docs)]

use crate::support::{job, piece};
use bofta_core::lay::{Budget, Job, JobPiece, Silent, solve, verify};
use bofta_core::measure::{Length, ShopStep, System};
use bofta_core::piece::Grain;
use proptest::prelude::*;

/// Width, height, and whether it may be turned.
type Rectangle = (usize, usize, bool);

/// The ways a rectangle may lie, as (width, height).
fn ways(&(w, h, free): &Rectangle) -> Vec<(usize, usize)> {
    if free && w != h { vec![(w, h), (h, w)] } else { vec![(w, h)] }
}

/// The shortest length on which `pieces` (width, height, may be turned) fit a strip `width` wide, by trying the next
/// piece at every place of a grid. Integer sizes may be assumed at integer places: pushed left and down, every piece
/// stands on sums of others.
fn shortest(width: usize, pieces: &[Rectangle]) -> Option<usize> {
    let most: usize = pieces.iter().map(|p| p.0.max(p.1)).sum();
    let area: usize = pieces.iter().map(|p| p.0 * p.1).sum();
    (area.div_ceil(width)..=most).find(|&length| {
        let mut grid = vec![vec![false; width]; length];
        place(&mut grid, pieces)
    })
}

fn place(grid: &mut [Vec<bool>], rest: &[Rectangle]) -> bool {
    let Some((first, rest)) = rest.split_first() else { return true };
    let (length, width) = (grid.len(), grid[0].len());
    for (w, h) in ways(first) {
        if w > width || h > length {
            continue;
        }
        for y in 0..=length - h {
            for x in 0..=width - w {
                if grid[y..y + h].iter().any(|row| row[x..x + w].iter().any(|taken| *taken)) {
                    continue;
                }
                let mark = |grid: &mut [Vec<bool>], to| {
                    for row in &mut grid[y..y + h] {
                        row[x..x + w].fill(to);
                    }
                };
                mark(grid, true);
                if place(grid, rest) {
                    return true;
                }
                mark(grid, false);
            }
        }
    }
    false
}

#[test]
fn the_exhaustive_search_itself_knows_a_few_answers() {
    assert_eq!(shortest(3, &[(2, 2, false); 3]), Some(6));
    assert_eq!(shortest(5, &[(2, 2, false); 5]), Some(6));
    assert_eq!(shortest(4, &[(1, 4, true), (1, 4, true), (4, 1, true)]), Some(3));
    // The pinwheel: no cut goes through it, and it fills the square.
    assert_eq!(shortest(3, &[(2, 1, false), (1, 2, false), (2, 1, false), (1, 2, false), (1, 1, false)]), Some(3));
}

fn inch(n: usize) -> Length {
    Length::INCH * n as i64
}

/// The same strip as a job for the engine.
fn strip_job(width: usize, pieces: &[Rectangle]) -> Job {
    let pieces = pieces.iter().enumerate().map(|(i, &(w, h, free))| {
        let grain = if free { Grain::Either } else { Grain::Length };
        JobPiece { grain, ..piece(format!("p{i}"), inch(w), inch(h), 1) }
    });
    job(inch(width), pieces.collect())
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(60))]

    /// On strips of up to five pieces the search finds the shortest length, and no bound is above it.
    #[test]
    fn small_strips_are_laid_as_short_as_possible(
        width in 4_usize..8,
        pieces in prop::collection::vec((1_usize..5, 1_usize..5, any::<bool>()), 1..6),
    ) {
        let best = shortest(width, &pieces).expect("a strip as long as all of them holds them");
        let job = strip_job(width, &pieces);
        let lay = solve(&job, Budget::iterations(2_000), &mut Silent).expect("a sound job");
        prop_assert_eq!(verify(&job, &lay), vec![]);
        prop_assert_eq!(lay.cloths[0].needed_length, inch(best));
        prop_assert!(lay.bound.length <= inch(best));
    }

    /// After trying everything, what is called proven is the shortest there is; some pieces stand away from every wall.
    #[test]
    fn exhausted_searches_prove_the_shortest(
        width in 5_usize..9,
        pieces in prop::collection::vec((1_usize..6, 1_usize..6, any::<bool>()), 4..7),
    ) {
        let best = shortest(width, &pieces).expect("a strip as long as all of them holds them");
        let job = strip_job(width, &pieces);
        let lay = solve(&job, Budget::iterations(400), &mut Silent).expect("a sound job");
        prop_assert!(lay.proven, "so few are exhausted");
        prop_assert_eq!(lay.cloths[0].needed_length, inch(best));
    }

    /// What is called proven is what the exhaustive search would buy too, in a shop's steps.
    #[test]
    fn proven_purchases_are_the_least(
        width in 4_usize..8,
        pieces in prop::collection::vec((1_usize..5, 1_usize..5, any::<bool>()), 1..6),
        step in 1_i64..4,
    ) {
        let best = shortest(width, &pieces).expect("a strip as long as all of them holds them");
        let mut job = strip_job(width, &pieces);
        job.cloths[0].shop = ShopStep { step: Some(Length::INCH * step), min: Length::ZERO };
        // The constructors alone, so that some answers are not the best and must not be called so.
        let lay = solve(&job, Budget::iterations(0), &mut Silent).expect("a sound job");
        let least = job.cloths[0].shop.to_buy(inch(best));
        prop_assert!(lay.bought() >= least);
        prop_assert!(!lay.proven || lay.bought() == least, "{} is called proven, {} would do",
            lay.bought().in_units(System::Inches), least.in_units(System::Inches));
    }
}

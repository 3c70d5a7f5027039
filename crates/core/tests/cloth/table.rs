//! The cut list carried out: cloth as rectangles on a table, each cut taking one of them apart.
#![allow(missing_docs)]

use crate::support::{dissection, job, piece};
use bofta_core::cloth::Cloth;
use bofta_core::cutting::{Cut, CutKind, Edge, Step, cut_list};
use bofta_core::lay::{Budget, Cuts, Job, JobPiece, Lay, Offcut, Random, Region, Silent, solve};
use bofta_core::measure::{Length, ShopStep, System};
use bofta_core::piece::Grain;
use proptest::prelude::*;

fn cuts(job: &Job, lay: &Lay) -> Vec<Cut> {
    let steps = cut_list(job, &lay.cloths, &[], &[]).into_iter();
    steps.filter_map(|s| if let Step::Cut { cut, .. } = s { Some(cut) } else { None }).collect()
}

/// Carries out cuts that run edge to edge; gives the rectangles that lie there in the end.
fn carry_out(whole: Region, cuts: &[Cut]) -> Vec<Region> {
    let mut table = vec![whole];
    for cut in cuts {
        let at = table.iter().position(|r| *r == cut.lies.around).expect("what is cut lies on the table");
        let lies = table.remove(at);
        let (near, far) = match cut.from {
            Edge::Near => lies.split_across(lies.y + cut.reading.0),
            Edge::Left => lies.split_along(lies.x + cut.reading.0),
        };
        assert!(near.width > 0 && near.height > 0 && far.width > 0 && far.height > 0, "a cut takes something off");
        table.extend([near, far]);
    }
    table
}

fn whole_cloth(job: &Job, lay: &Lay) -> Region {
    let cloth = &job.cloths[0];
    let there = lay.cloths[0].buy_length.shrunk(cloth.shrink.along).max(lay.cloths[0].needed_length);
    Region { x: 0, y: 0, width: cloth.washed_width().0, height: there.0 }
}

#[test]
fn a_tote_is_cut_in_the_order_of_the_table() {
    let inch = |n: i64| Length::INCH * n;
    let half = Length::inches(1, 2);
    let mut tote = job(
        inch(54),
        vec![
            JobPiece { grain: Grain::Length, ..piece("panel", inch(22), inch(17), 2) },
            JobPiece { grain: Grain::Across, ..piece("strap", inch(5), inch(26), 2) },
        ],
    );
    tote.cloths[0] =
        Cloth { selvedge: half, trim: half, shop: ShopStep::default_for(System::Inches), ..tote.cloths[0].clone() };
    let lay = solve(&tote, Budget::iterations(300), &mut Silent).expect("laid");
    let list = cuts(&tote, &lay);
    let kinds: Vec<CutKind> = list.iter().map(|c| c.kind).collect();
    assert_eq!(kinds[..2], [CutKind::SquareEnd, CutKind::Selvedge]);
    assert!(kinds[2..].iter().all(|k| *k == CutKind::Through));
    // Readings are the pieces' own sizes, set from the last cut each time: a strip, then the pieces of that strip.
    let readings: Vec<f64> = list[2..].iter().map(|c| c.reading.in_units(System::Inches)).collect();
    let mut strips: Vec<&[f64]> = readings.chunks(3).collect();
    strips.sort_by(|a, b| a[0].total_cmp(&b[0]));
    assert_eq!(strips, [[5.0, 26.0, 26.0], [17.0, 22.0, 22.0]]);
    let mut freed: Vec<String> =
        list.iter().flat_map(|c| &c.frees).map(|f| format!("{} {}", f.piece, f.copy)).collect();
    freed.sort();
    assert_eq!(freed, ["panel 1", "panel 2", "strap 1", "strap 2"]);
    assert_eq!(carry_out(whole_cloth(&tote, &lay), &list).len(), list.len() + 1);
}

#[test]
fn a_piece_as_wide_as_the_cloth_needs_one_cut() {
    let inch = |n: i64| Length::INCH * n;
    let mut strip = job(inch(44), vec![JobPiece { grain: Grain::Length, ..piece("strip", inch(44), inch(3), 1) }]);
    strip.cloths[0].shop = ShopStep { step: Some(inch(9)), min: Length::ZERO };
    let lay = solve(&strip, Budget::iterations(0), &mut Silent).expect("laid");
    let list = cuts(&strip, &lay);
    assert_eq!(list.len(), 1);
    assert_eq!((list[0].reading, list[0].from, list[0].frees.len()), (inch(3), Edge::Near, 1));
    // Bought exactly, there is nothing to cut at all.
    strip.cloths[0].shop = ShopStep { step: None, min: Length::ZERO };
    let lay = solve(&strip, Budget::iterations(0), &mut Silent).expect("laid");
    assert!(cuts(&strip, &lay).is_empty());
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(80))]

    /// Carried out cut by cut, an edge-to-edge list leaves every piece on the table at its size.
    #[test]
    fn every_piece_lies_on_the_table_in_the_end(seed in any::<u64>(), n in 1_usize..16, trim in 0_i64..6, selvedge in 0_i64..6) {
        let mut random = Random::new(seed);
        let (width, height) = (8 * (12 + random.below(30) as i64), 8 * (8 + random.below(40) as i64));
        let mut job = dissection(width, height, n, &mut random);
        job.rules.cuts = Cuts::Through;
        let eighths = |n: i64| Length::inches(n, 8);
        job.cloths[0] = Cloth {
            selvedge: eighths(selvedge),
            trim: eighths(trim),
            shop: ShopStep::default_for(System::Inches),
            ..Cloth::roll("roll", eighths(width + 2 * selvedge))
        };
        let lay = solve(&job, Budget::iterations(40), &mut Silent).expect("a sound job");
        let list = cuts(&job, &lay);
        let mut table = carry_out(whole_cloth(&job, &lay), &list);
        for p in &lay.cloths[0].placements {
            let (w, h) = job.piece(&p.piece).expect("known").outline.extent(p.turn, p.mirrored);
            let region = Region { x: p.x.0, y: p.y.0, width: w.0, height: h.0 };
            let at = table.iter().position(|r| *r == region);
            prop_assert!(at.is_some(), "{} {} does not come off", p.piece, p.copy);
            table.remove(at.unwrap_or(0));
        }
        // What is left over is all the rest.
        let area = |r: &Region| i128::from(r.width) * i128::from(r.height);
        let used: i128 = job.pieces.iter().map(|p| p.outline.area().0).sum();
        prop_assert_eq!(table.iter().map(area).sum::<i128>() + used, area(&whole_cloth(&job, &lay)));
    }

    /// Offcuts that are kept are bare, apart from each other, and large enough one way round.
    #[test]
    fn offcuts_are_worth_keeping(seed in any::<u64>(), n in 1_usize..14, keep_w in 1_i64..8, keep_h in 1_i64..8) {
        let mut random = Random::new(seed);
        let mut job = dissection(8 * 30, 8 * (10 + random.below(20) as i64), n, &mut random);
        job.cloths[0].shop = ShopStep::default_for(System::Inches);
        job.rules.keep = (Length::INCH * keep_w, Length::INCH * keep_h);
        let lay = solve(&job, Budget::iterations(20), &mut Silent).expect("a sound job");
        let offcuts: Vec<Region> = lay.cloths[0].offcuts.iter().filter_map(|o| match *o {
            Offcut::Rect { x, y, width, height } => {
                Some(Region { x: x.0, y: y.0, width: width.0, height: height.0 })
            }
            Offcut::Polygon(_) => None,
        }).collect();
        for (i, o) in offcuts.iter().enumerate() {
            let (a, b) = (job.rules.keep.0.0, job.rules.keep.1.0);
            prop_assert!((o.width >= a && o.height >= b) || (o.width >= b && o.height >= a));
            for p in &offcuts[i + 1..] {
                let apart = o.right() <= p.x || p.right() <= o.x || o.top() <= p.y || p.top() <= o.y;
                prop_assert!(apart);
            }
            prop_assert!(o.top() <= lay.cloths[0].buy_length.0 && o.right() <= Length::INCH.0 * 30);
        }
        // Largest first.
        let area = |o: &Region| i128::from(o.width) * i128::from(o.height);
        prop_assert!(offcuts.windows(2).all(|w| area(&w[0]) >= area(&w[1])));
    }
}

//! Blocks of cloth fused to their backing: laid as one, cut as one, every panel off it once.
#![allow(missing_docs)]

use bofta_core::bag::Family;
use bofta_core::bag::backing::{ROUND_THE_BLOCK, block_rows, block_size};
use bofta_core::cutting::{CutKind, Edge, Step, cut_list};
use bofta_core::lay::{Budget, Silent, solve, verify};
use bofta_core::measure::{Length, Ruler, System};
use bofta_core::piece::{Dimension, Part, Piece, Term, When};
use bofta_core::project::{ClothField, Edit, Planned, Project};
use proptest::prelude::*;
use std::collections::BTreeMap;

fn inch(n: i64, d: i64) -> Length {
    Length::inches(n, d)
}

fn caddy(fields: &[(&str, &str)], interfacing: &str) -> Project {
    let mut project = Project::new("Caddy", System::Inches);
    project.bag = Family::Caddy.default_for(System::Inches);
    let set = |field: &str, value: &str| Edit::Bag { field: field.into(), value: value.into() };
    let edits = [
        Edit::AddCloth { name: "Moss".into(), material: "canvas".into() },
        Edit::AddCloth { name: "Stiff".into(), material: "interfacing".into() },
        Edit::Cloth { cloth: "stiff".into(), field: ClothField::Width, value: interfacing.into() },
        set("backing", "block"),
    ];
    let typed = fields.iter().map(|(field, value)| set(field, value));
    edits.into_iter().chain(typed).fold(project, |p, e| p.edited(&e).unwrap_or_else(|why| panic!("{e:?}: {why:?}")).0)
}

fn steps(planned: &Planned) -> Vec<Step> {
    let job = planned.job.as_ref().expect("a job");
    let lay = solve(job, Budget::iterations(30), &mut Silent).expect("laid");
    assert!(lay.complete() && verify(job, &lay).is_empty());
    cut_list(job, &lay.cloths, &planned.draft.pieces, &planned.blocks)
}

#[test]
fn all_panels_of_one_cloth_and_backing_share_a_block() {
    let planned = caddy(&[], "20").plan().expect("drafts");
    let blocks: Vec<&Piece> = planned.draft.pieces.iter().filter(|p| !p.block_of.is_empty()).collect();
    assert_eq!(blocks.len(), 2, "one of cloth, one of backing");
    assert_eq!(blocks[0].size(), blocks[1].size());
    assert_eq!(blocks[0].block_of, ["front", "side", "base"]);
    let parts: Vec<Part> = blocks.iter().map(|p| p.part).collect();
    assert_eq!(parts, [Part::Outer, Part::Interfacing]);
    for id in ["front", "side", "base"] {
        assert_eq!(planned.draft.piece(id).expect("a panel").when, When::FromBlock);
    }
    // The lining is backed with nothing: it is laid as it is.
    assert_eq!(planned.draft.piece("lining-front").expect("a lining").when, When::Now);
}

#[test]
fn the_block_is_fused_before_it_is_cut_and_corners_come_last() {
    let planned = caddy(&[], "20").plan().expect("drafts");
    let steps = steps(&planned);
    let fused = steps.iter().position(|s| matches!(s, Step::Fuse { .. })).expect("it is fused");
    let last_on_cloth = steps.iter().rposition(|s| s.on().is_some()).expect("cloth is cut");
    let first_cut = steps.iter().position(|s| matches!(s, Step::Block { .. })).expect("it is cut");
    assert!(last_on_cloth < fused && fused < first_cut);
    // Every cut of the block runs right across what lies there, read from an edge.
    for step in &steps {
        let Step::Block { step, .. } = step else { continue };
        let Step::Cut { cut, .. } = step.as_ref() else { panic!("a caddy's panels are square") };
        assert_eq!(cut.kind, CutKind::Through);
        let along = match cut.from {
            Edge::Left => cut.line.x1.0 - cut.lies.around.x,
            Edge::Near => cut.line.y1.0 - cut.lies.around.y,
        };
        assert_eq!(cut.reading.0, along);
    }
}

/// Half-round panels come off their block round a template; nothing of it is taken for a cut of the cloth.
#[test]
fn shaped_panels_of_a_block_are_cut_round() {
    let mut project = caddy(&[], "20");
    let edits = [("style", "half-round"), ("backing_cloth", "interfacing"), ("backing", "block")]
        .map(|(field, value)| Edit::Bag { field: field.into(), value: value.into() });
    for edit in [Edit::Family { family: "pouch".into() }].iter().chain(&edits) {
        project = project.edited(edit).unwrap_or_else(|why| panic!("{edit:?}: {why:?}")).0;
    }
    let planned = project.plan().expect("drafts");
    let steps = steps(&planned);
    let fused = steps.iter().position(|s| matches!(s, Step::Fuse { .. })).expect("it is fused");
    assert!(steps[fused..].iter().all(|s| s.on().is_none()));
    let round = |s: &Step| matches!(s, Step::Block { step, .. } if matches!(**step, Step::Outline { .. }));
    assert_eq!(steps.iter().filter(|s| round(s)).count(), 2);
    assert_eq!(steps[fused..].iter().flat_map(Step::frees).filter(|f| f.piece == "outer-panel").count(), 2);
}

#[test]
fn boxed_panels_of_a_block_lose_their_corners_after_it_is_cut() {
    let mut project = caddy(&[], "20");
    for edit in [
        Edit::Family { family: "tote".into() },
        Edit::Bag { field: "backing_cloth".into(), value: "interfacing".into() },
        Edit::Bag { field: "backing".into(), value: "block".into() },
    ] {
        project = project.edited(&edit).expect("stands").0;
    }
    let planned = project.plan().expect("drafts");
    let corners: Vec<_> = steps(&planned)
        .into_iter()
        .filter_map(|s| if let Step::Corners(c) = s { Some(c.piece) } else { None })
        .collect();
    assert!(corners.contains(&"outer-panel".to_owned()), "{corners:?}");
}

proptest! {
    /// Whatever the sizes: the panels lie inside their block, not on each other, half an inch clear all round; the cuts
    /// free every one of them once.
    #[test]
    fn every_panel_comes_off_once(w in 40_i64..120, h in 30_i64..90, d in 24_i64..80, stiff in 16_i64..44) {
        let typed = |n: i64| format!("{n}/8");
        let (w, h, d) = (typed(w), typed(h), typed(d));
        let project = caddy(&[], &stiff.to_string());
        let edits = [("width", &w), ("height", &h), ("depth", &d)].map(|(f, v)| Edit::Bag { field: f.into(), value: v.clone() });
        let mut sized = project;
        for edit in &edits {
            match sized.edited(edit) {
                Ok((next, _)) => sized = next,
                Err(_) => return Ok(()),
            }
        }
        let planned = sized.plan().expect("it stood");
        let block = planned.blocks.first().expect("a block");
        let cut = planned.draft.piece("outer-block").expect("a block of cloth");
        let whole = block.job.cloths[0].whole_length().expect("a sheet");
        prop_assert_eq!((block.job.cloths[0].washed_width(), whole), cut.size());
        let boxes: Vec<(Length, Length, Length, Length)> = block.lay.placements.iter().map(|p| {
            let (width, height) = block.job.piece(&p.piece).expect("a panel").outline.size();
            (p.x, p.y, p.x + width, p.y + height)
        }).collect();
        for (i, a) in boxes.iter().enumerate() {
            prop_assert!(a.0 >= ROUND_THE_BLOCK && a.1 >= ROUND_THE_BLOCK);
            prop_assert!(a.2 + ROUND_THE_BLOCK <= cut.width.size && a.3 + ROUND_THE_BLOCK <= cut.height.size);
            for b in &boxes[i + 1..] {
                prop_assert!(a.2 <= b.0 || b.2 <= a.0 || a.3 <= b.1 || b.3 <= a.1, "{:?} {:?}", a, b);
            }
        }
        let steps = cut_list(&block.job, &[], &planned.draft.pieces, &planned.blocks);
        let mut freed: BTreeMap<(String, u32), u32> = BTreeMap::new();
        for f in steps.iter().flat_map(Step::frees) {
            *freed.entry((f.piece.clone(), f.copy)).or_default() += 1;
        }
        prop_assert!(freed.values().all(|n| *n == 1));
        let panels: u32 = ["front", "side", "base"].iter().map(|id| planned.draft.piece(id).expect("a panel").count).sum();
        prop_assert_eq!(freed.len() as u32, panels);
    }

    /// Rows hold every copy, no wider than what is usable where more than one lies side by side, and no row is empty.
    #[test]
    fn rows_hold_every_copy(sizes in prop::collection::vec((8_i64..200, 8_i64..200, 1_u32..9), 1..6), usable in 60_i64..480) {
        let side = |n: i64| Dimension::sum(vec![Term::once("side", inch(n, 8), "rows")], Ruler::Eighth);
        let panels: Vec<Piece> = sizes.iter().enumerate()
            .map(|(i, (w, h, n))| Piece::new(format!("p{i}"), "Panel", Part::Outer, side(*w), side(*h)).times(*n)).collect();
        let usable = inch(usable, 8);
        let rows = block_rows(&panels, usable);
        let (width, height) = block_size(&rows, Ruler::Eighth);
        let mut tall = ROUND_THE_BLOCK * 2;
        for (row, panel) in rows.iter().zip(&panels) {
            prop_assert!(row.across * row.rows >= row.count && row.across * (row.rows - 1) < row.count);
            let wide = panel.width.size * i64::from(row.across) + ROUND_THE_BLOCK * 2;
            prop_assert!(row.across == 1 || wide <= usable);
            prop_assert!(wide <= width.size);
            // One more would not fit, unless there is none.
            prop_assert!(row.across == row.count || wide + panel.width.size > usable);
            tall += panel.height.size * i64::from(row.rows);
        }
        prop_assert_eq!(height.size, tall);
    }
}

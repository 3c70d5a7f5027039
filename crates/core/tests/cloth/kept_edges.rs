//! Edges of scraps that are worth keeping, and the pieces that are laid along them.

use bofta_core::cloth::{EdgeKind, HandForm, KeptEdge, Scrap, ScrapDraft};
use bofta_core::lay::{Budget, Job, Lay, Silent, solve, verify};
use bofta_core::measure::{Length, Ruler, System};
use bofta_core::project::{ClothField, Edit, PieceEdge, Project, left_over};
use bofta_core::shape::Point;
use proptest::prelude::*;
use rstest::rstest;

fn made(project: &Project, edits: &[Edit]) -> Project {
    edits.iter().fold(project.clone(), |p, e| p.edited(e).unwrap_or_else(|why| panic!("{e:?}: {why:?}")).0)
}

fn points(corners: &[(f64, f64)]) -> Vec<Point> {
    let inch = |v: f64| Length((v * Length::INCH.0 as f64).round() as i64);
    corners.iter().map(|&(x, y)| Point::new(inch(x), inch(y))).collect()
}

fn draft(corners: &[(f64, f64)], kept: &[(EdgeKind, usize)]) -> ScrapDraft {
    let kept = kept.iter().map(|&(kind, side)| KeptEdge { kind, side }).collect();
    ScrapDraft { corners: points(corners), kept, ..ScrapDraft::default() }
}

fn read(draft: &ScrapDraft) -> Scrap {
    draft.read("A".into(), (System::Inches, Ruler::Eighth)).expect("a scrap").0
}

/// A flat pouch of jeans, of which there is this scrap; the rest is bought.
fn pouch(scrap: ScrapDraft) -> Project {
    let mut project = Project::new("Pouch", System::Inches);
    project.bag = bofta_core::bag::Family::Pouch.default_for(System::Inches);
    let assign = |part: &str| Edit::Assign { part: part.into(), cloth: "jeans".into() };
    made(
        &project,
        &[
            Edit::AddCloth { name: "Jeans".into(), material: "canvas".into() },
            assign("outer"),
            assign("lining"),
            Edit::DrawScrap { cloth: "jeans".into(), label: None, count: 1, draft: scrap },
            Edit::Cloth { cloth: "jeans".into(), field: ClothField::BuyMore, value: "yes".into() },
        ],
    )
}

fn on(edge: PieceEdge) -> Edit {
    Edit::OnKeptEdge { piece: "outer-panel".into(), edge: Some(edge) }
}

fn laid(project: &Project) -> (Job, Lay) {
    let job = project.plan().expect("drafts").job.expect("a job");
    let lay = solve(&job, Budget::iterations(40), &mut Silent).expect("laid");
    assert!(verify(&job, &lay).is_empty(), "{:?}", verify(&job, &lay));
    (job, lay)
}

const SQUARE: [(f64, f64); 4] = [(0.0, 0.0), (26.0, 0.0), (26.0, 22.0), (0.0, 22.0)];

/// By arithmetic of its own: the chosen edge of every copy on the scrap lies on the line of the kept side, between its ends.
#[rstest]
#[case(PieceEdge::Base, 0, "bottom")]
#[case(PieceEdge::Top, 0, "bottom")]
#[case(PieceEdge::Base, 2, "top")]
#[case(PieceEdge::Top, 2, "top")]
fn pieces_lie_along_the_edge_they_are_chosen_for(#[case] edge: PieceEdge, #[case] side: usize, #[case] at: &str) {
    let project = made(&pouch(draft(&SQUARE, &[(EdgeKind::Hem, side)])), &[on(edge)]);
    let (job, lay) = laid(&project);
    let panel = job.piece("outer-panel").expect("a panel");
    assert_eq!(job.pinned.len() as u32, panel.count, "each has its place");
    let found: Vec<_> = lay.cloths.iter().flat_map(|c| &c.placements).filter(|p| p.piece == "outer-panel").collect();
    assert_eq!(found.len() as u32, panel.count);
    let mut spans = vec![];
    for p in found {
        let (width, height) = panel.outline.extent(p.turn, p.mirrored);
        let line = if at == "bottom" { p.y } else { p.y + height };
        assert_eq!(line, if at == "bottom" { Length::ZERO } else { Length::INCH * 22 });
        // Which edge that is, follows from how it is turned.
        let down = if p.turn.degrees() == 0 { PieceEdge::Base } else { PieceEdge::Top };
        assert_eq!(down == edge, at == "bottom");
        spans.push((p.x, p.x + width));
        assert!(project.told_edge(&job, "outer-panel", p.copy).is_some_and(|told| told.contains("hem")));
    }
    spans.sort();
    assert!(spans.windows(2).all(|w| w[0].1 <= w[1].0), "{spans:?}");
    assert!(made(&project, &[Edit::OnKeptEdge { piece: "outer-panel".into(), edge: None }]).on_edge.is_empty());
}

#[rstest]
// Too short for any panel; off the threads; in the way a one-way print does not stand.
#[case(&[(0.0, 0.0), (4.0, 0.0), (26.0, 6.0), (26.0, 22.0), (0.0, 22.0)], 0)]
#[case(&[(0.0, 0.0), (26.0, 5.0), (26.0, 24.0), (0.0, 24.0)], 0)]
fn what_finds_no_edge_says_so_and_lies_anywhere(#[case] corners: &[(f64, f64)], #[case] side: usize) {
    let project = made(&pouch(draft(corners, &[(EdgeKind::Border, side)])), &[on(PieceEdge::Base)]);
    let planned = project.plan().expect("drafts");
    assert!(planned.job.as_ref().expect("a job").pinned.is_empty());
    let told = planned.draft.notices.iter().find(|n| n.text.contains("no kept edge")).expect("it is told");
    assert!(told.text.contains("2 of 2 find"), "{}", told.text);
    assert!(laid(&project).1.complete());
}

#[test]
fn a_flaw_on_the_edge_is_gone_round() {
    let mut scrap = draft(&SQUARE, &[(EdgeKind::Hem, 0)]);
    scrap.flaws = vec![bofta_core::cloth::Flaw {
        kind: bofta_core::cloth::FlawKind::Stain,
        corners: points(&[(3.0, 0.0), (4.0, 0.0), (4.0, 1.0), (3.0, 1.0)]),
    }];
    let project = made(&pouch(scrap), &[on(PieceEdge::Base)]);
    let (job, _) = laid(&project);
    assert_eq!(job.pinned.len(), 2);
    let (width, _) = job.piece("outer-panel").expect("a panel").outline.size();
    for pin in &job.pinned {
        let clear = pin.placement.x + width <= Length::INCH * 3 || pin.placement.x >= Length::INCH * 4;
        assert!(clear, "{:?}", pin.placement.x);
    }
}

#[test]
fn what_cannot_be_is_refused_by_name() {
    let plain = pouch(draft(&SQUARE, &[]));
    let named = |project: &Project, edit: &Edit| project.edited(edit).expect_err("refused")[0].field.clone();
    assert_eq!(named(&plain, &on(PieceEdge::Top)), "piece");
    let other = Edit::OnKeptEdge { piece: "no-such".into(), edge: Some(PieceEdge::Top) };
    assert_eq!(named(&pouch(draft(&SQUARE, &[(EdgeKind::Hem, 0)])), &other), "piece");
    let by = (System::Inches, Ruler::Eighth);
    for kept in [vec![(EdgeKind::Hem, 4)], vec![(EdgeKind::Hem, 1), (EdgeKind::Loops, 1)]] {
        let why = draft(&SQUARE, &kept).read("A".into(), by).expect_err("refused");
        assert!(why.field.starts_with("kept["), "{}", why.field);
    }
    let text = serde_json::to_string(&plain).expect("written");
    assert!(!text.contains("on_edge") && !text.contains("kept"), "documents of before say none of it");
}

/// A scrap that is cut into keeps what is left of its edge.
#[test]
fn a_remnant_keeps_what_is_left_of_its_edge() {
    let project = made(&pouch(draft(&SQUARE, &[(EdgeKind::Hem, 0)])), &[on(PieceEdge::Base)]);
    let (_, lay) = laid(&project);
    let mut begun = project.begun(&lay).expect("begun");
    begun.steps_done = begun.cutting.as_ref().expect("a plan").steps().len() as u32;
    let left = left_over(&begun);
    let scraps = left.iter().flat_map(|l| &l.kept).filter_map(|t| match &t.form {
        HandForm::Scrap(scrap) => Some(scrap),
        _ => None,
    });
    for scrap in scraps {
        let corners = scrap.corners();
        for edge in &scrap.kept {
            let (a, b) = (corners[edge.side], corners[(edge.side + 1) % corners.len()]);
            assert_eq!((edge.kind, a.y, b.y), (EdgeKind::Hem, Length::ZERO, Length::ZERO));
        }
        let bottom = (0..corners.len())
            .any(|k| corners[k].y == Length::ZERO && corners[(k + 1) % corners.len()].y == Length::ZERO);
        assert!(!bottom || !scrap.kept.is_empty() || scrap.outline.size().1 < Length::INCH * 22);
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(40))]

    /// Whichever way round it is drawn, a kept side is the same two corners.
    #[test]
    fn a_kept_side_stays_between_its_corners(side in 0_usize..5, turned in any::<bool>()) {
        let corners = [(0.0, 0.0), (14.0, 1.0), (16.0, 9.0), (7.0, 13.0), (-1.0, 8.0)];
        let ends = |k: usize| [corners[k], corners[(k + 1) % 5]];
        let mut drawn = corners.to_vec();
        let mut at = side;
        if turned {
            drawn.reverse();
            at = (4 + 5 - (side + 1)) % 5;
        }
        let scrap = read(&draft(&drawn, &[(EdgeKind::Fringe, at)]));
        let found = scrap.corners();
        let kept = scrap.kept[0].side;
        let mut is = [found[kept], found[(kept + 1) % 5]];
        let mut should: Vec<Point> = points(&ends(side)).iter().map(|p| Point::new(p.x + Length::INCH, p.y)).collect();
        is.sort_by_key(|p| (p.x, p.y));
        should.sort_by_key(|p| (p.x, p.y));
        prop_assert_eq!(is.to_vec(), should);
    }
}

/// Two hundred scraps, none of whose edges holds a panel: a plan is made all the same, and says what was not looked at.
#[test]
fn very_many_edges_are_not_all_looked_at_and_that_is_said() {
    // A hole beside the edge leaves no place for a panel.
    let mut scrap = draft(&SQUARE, &[(EdgeKind::Hem, 0), (EdgeKind::Hem, 2)]);
    scrap.flaws = [5.0, 12.0, 19.0]
        .iter()
        .flat_map(|x| [0.0, 20.0].map(|y| (*x, y)))
        .map(|(x, y)| bofta_core::cloth::Flaw {
            kind: bofta_core::cloth::FlawKind::Hole,
            corners: points(&[(x, y), (x + 1.0, y), (x + 1.0, y + 1.9), (x, y + 1.9)]),
        })
        .collect();
    let project = pouch(scrap.clone());
    let many = made(
        &project,
        &[
            Edit::DrawScrap { cloth: "jeans".into(), label: Some("A".into()), count: 200, draft: scrap },
            on(PieceEdge::Base),
        ],
    );
    let planned = many.plan().expect("drafts");
    assert!(planned.job.as_ref().expect("a job").pinned.is_empty());
    assert!(planned.draft.notices.iter().any(|n| n.text.contains("as far as they were looked at")));
}

//! Cloth that lies in two layers: folded selvedge on selvedge, and tubes as they are.

use bofta_core::cloth::{AtHand, Form, HandForm};
use bofta_core::cutting::{CutKind, Step, cut_list, left_whole};
use bofta_core::lay::{Budget, Job, Lay, Silent, solve, verify};
use bofta_core::measure::{Length, System};
use bofta_core::project::{ClothField, Edit, Look, Pattern, Project, ProjectCloth, cut_up, left_over};
use proptest::prelude::*;
use rstest::rstest;
use std::collections::BTreeSet;

fn made(project: &Project, edits: &[Edit]) -> Project {
    edits.iter().fold(project.clone(), |p, e| p.edited(e).unwrap_or_else(|why| panic!("{e:?}: {why:?}")).0)
}

fn set(field: ClothField, value: &str) -> Edit {
    Edit::Cloth { cloth: "moss".into(), field, value: value.into() }
}

/// A tote all of one canvas.
fn tote(edits: &[Edit]) -> Project {
    let canvas = Edit::AddCloth { name: "Moss".into(), material: "canvas".into() };
    let assigned =
        ["outer", "lining", "straps", "pocket"].map(|part| Edit::Assign { part: part.into(), cloth: "moss".into() });
    let all: Vec<Edit> = std::iter::once(canvas).chain(assigned).chain(edits.iter().cloned()).collect();
    made(&Project::new("Tote", System::Inches), &all)
}

fn laid(project: &Project) -> (Job, Lay) {
    let planned = project.plan().expect("a plan");
    let job = planned.job.expect("a job");
    let lay = solve(&job, Budget::iterations(60), &mut Silent).expect("a lay");
    assert!(verify(&job, &lay).is_empty(), "{:?}", verify(&job, &lay));
    (job, lay)
}

/// Every copy comes off once, and what lies at the fold is slit, whatever else is done.
fn comes_apart(job: &Job, lay: &Lay) {
    let steps = cut_list(job, &lay.cloths, &[], &[]);
    let freed: Vec<(String, u32)> = steps.iter().flat_map(|s| s.frees()).map(|f| (f.piece.clone(), f.copy)).collect();
    let all: BTreeSet<(String, u32)> = freed.iter().cloned().collect();
    let wanted: BTreeSet<(String, u32)> =
        job.pieces.iter().flat_map(|p| (1..=p.count).map(move |n| (p.id.clone(), n))).collect();
    assert_eq!(freed.len(), all.len(), "none comes off twice: {freed:?}");
    assert_eq!(all, wanted);
    let slit: Vec<(Length, Length)> = steps
        .iter()
        .filter_map(|s| match s {
            Step::Cut { cut, .. } if cut.kind == CutKind::Fold => Some((cut.line.y1, cut.line.y2)),
            _ => None,
        })
        .collect();
    let at_fold: Vec<(Length, Length)> = lay
        .cloths
        .iter()
        .filter(|on| job.cloth(&on.cloth).is_some_and(|c| c.layers == 2))
        .flat_map(|on| &on.placements)
        .filter(|p| p.x == Length::ZERO && !p.on_fold)
        .map(|p| (p.y, p.y + job.piece(&p.piece).expect("known").outline.extent(p.turn, p.mirrored).1))
        .collect();
    let sorted = |mut all: Vec<(Length, Length)>| {
        all.sort();
        all
    };
    assert_eq!(sorted(slit), sorted(at_fold));
}

#[test]
fn a_folded_roll_is_cut_two_at_once() {
    let single = tote(&[]);
    let folded = tote(&[set(ClothField::Folded, "yes")]);
    let (job, lay) = laid(&folded);
    let cloth = job.cloth("moss").expect("the roll");
    assert_eq!(
        (cloth.layers, cloth.washed_width(), cloth.bought_width()),
        (2, Length::INCH * 27, Some(Length::INCH * 54))
    );
    comes_apart(&job, &lay);
    let (flat, flat_lay) = laid(&single);
    let cuts = |job: &Job, lay: &Lay| {
        let all = cut_list(job, &lay.cloths, &[], &[]);
        all.iter().filter(|s| matches!(s, Step::Cut { cut, .. } if cut.kind != CutKind::Fold)).count()
    };
    assert!(cuts(&job, &lay) < cuts(&flat, &flat_lay), "{} and {}", cuts(&job, &lay), cuts(&flat, &flat_lay));
    // The share that becomes bag is of both layers.
    let used = lay.cloths[0].used_share;
    assert!(used > 0.4 && used <= 1.0, "{used}");
}

/// A fold is worth nothing to a piece that has its place on the print: below it the print is not seen.
#[test]
fn what_has_its_place_on_a_print_is_not_cut_folded() {
    let placed = tote(&[
        Edit::ClothLook { cloth: "moss".into(), look: Look::new(Pattern::Flower, "#efe3c8", "#c7762b") },
        set(ClothField::Repeat, "6"),
        set(ClothField::RepeatWide, "6"),
        Edit::PlaceOnPrint { piece: "outer-panel".into(), across: "middle".into(), up: "middle".into() },
        set(ClothField::Folded, "yes"),
    ]);
    let planned = placed.plan().expect("a plan");
    assert!(planned.job.is_none());
    assert!(planned.problems.iter().any(|p| p.message.contains("Lay it single")), "{:?}", planned.problems);
}

#[rstest]
#[case("tube of 40 x 20", (40, 20))]
#[case("2 tubes of 30 x 18", (30, 18))]
fn a_tube_lies_in_two_layers(#[case] said: &str, #[case] (long, wide): (i64, i64)) {
    let project = tote(&[set(ClothField::AtHand, said)]);
    let (length, width) = (Length::INCH * long, Length::INCH * wide);
    assert_eq!(project.cloths[0].at_hand[0].form, HandForm::Tube { length, width });
    let cloths = project.cloths[0].for_job(System::Inches);
    assert_eq!(cloths.len(), project.cloths[0].at_hand[0].count as usize);
    assert!(cloths.iter().all(|c| c.layers == 2 && matches!(c.form, Form::Sheet { .. })));
    // Its seam is cut off, at the right only.
    assert_eq!(cloths[0].usable_width(), width - Length::inches(1, 2));
    assert_eq!(cloths[0].left_edge(), Length::ZERO);
    assert_eq!(project.cloths[0].at_hand[0].say(System::Inches), said.replace(" x ", " × ") + " in");
}

/// A tube holds what is twice as wide as it lies, cut half on the fold.
#[test]
fn a_tube_holds_what_it_is_wide_opened() {
    let cloth = &tote(&[]).cloths[0];
    let tube = HandForm::Tube { length: Length::INCH * 30, width: Length::INCH * 10 };
    let holds = |along: i64, across: i64| cloth.thing_holds(&tube, (Length::INCH * along, Length::INCH * across));
    assert!(holds(30, 19) && holds(19, 30));
    assert!(!holds(30, 20), "its seam is lost");
    assert!(!holds(31, 5));
}

/// What is left at the fold is opened out, what is left beyond it comes twice.
#[test]
fn what_is_left_of_two_layers_is_told_as_it_is_then() {
    let project = tote(&[
        set(ClothField::AtHand, "tube of 40 x 30, 2 yd"),
        set(ClothField::Folded, "yes"),
        Edit::Bag { field: "pocket".into(), value: "no".into() },
    ]);
    let (job, lay) = laid(&project);
    comes_apart(&job, &lay);
    for on in &lay.cloths {
        let cloth = job.cloth(&on.cloth).expect("known");
        for part in left_whole(&job, on) {
            let (count, width) = if part.at.x == 0 { (1, part.at.width * 2) } else { (2, part.at.width) };
            assert_eq!(cloth.layers, 2);
            assert_eq!((part.count, part.width), (count, Length(width)));
        }
    }
    let mut project = project.begun(&lay).expect("begun");
    project.steps_done = project.cutting.as_ref().expect("a plan").steps().len() as u32;
    let parts = cut_up(&project).expect("all is cut");
    assert!(parts.bag.0 + parts.kept.0 <= parts.cut.0, "{parts:?}");
    let left = left_over(&project);
    let kept: Vec<&AtHand> = left.iter().flat_map(|l| &l.kept).collect();
    // A length that is left is as wide as the cloth, whichever way it lay.
    for thing in kept {
        if let HandForm::Length { width, .. } = &thing.form {
            assert_eq!(*width, None);
        }
    }
}

#[test]
fn a_tube_as_narrow_as_its_seam_is_refused() {
    let why = tote(&[]).edited(&set(ClothField::AtHand, "tube of 30 x 1/2")).expect_err("refused");
    assert_eq!(why[0].field, "at_hand");
    assert!(why[0].message.contains("seam"), "{}", why[0].message);
}

#[test]
fn documents_of_before_are_not_folded() {
    let cloth = &tote(&[]).cloths[0];
    let text = serde_json::to_string(cloth).expect("written");
    assert!(!text.contains("folded"));
    assert_eq!(serde_json::from_str::<ProjectCloth>(&text).expect("read"), *cloth);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]

    #[test]
    fn any_tote_comes_apart_whatever_lies_folded(
        (width, height, depth) in (6_i64..26, 5_i64..20, 2_i64..7),
        folded in any::<bool>(),
        there in prop::sample::select(vec!["", "2 yd", "tube of 40 x 20", "tube of 25 x 12, 1 yd", "3 tubes of 30 x 16"]),
    ) {
        let mut edits: Vec<Edit> = [("width", width), ("height", height), ("depth", depth)]
            .map(|(field, v)| Edit::Bag { field: field.into(), value: v.to_string() })
            .into();
        if !there.is_empty() {
            edits.extend([set(ClothField::AtHand, there), set(ClothField::BuyMore, "yes")]);
        }
        if folded {
            edits.push(set(ClothField::Folded, "yes"));
        }
        let (job, lay) = laid(&tote(&edits));
        if lay.complete() {
            comes_apart(&job, &lay);
        }
    }
}

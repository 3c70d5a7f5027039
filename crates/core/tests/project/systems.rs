//! Random bags in the other system, and in other sizes: what is finished stays what it is, or follows as it is said.
#![allow(missing_docs)]

use bofta_core::bag::{Bag, Slot};
use bofta_core::lay::Random;
use bofta_core::measure::{Length, System};
use bofta_core::project::{Edit, Project, ProjectField};

use crate::any_edit;

use any_edit::{any_beginning, any_edit};

/// A project after some edits that stood.
fn any_project(number: u64) -> Project {
    let random = &mut Random::new(number);
    let mut project = any_beginning(random);
    for _ in 0..25 {
        if let Ok((next, _)) = project.edited(&any_edit(&project, random)) {
            project = next;
        }
    }
    project
}

/// Every length of a bag by its field, and whether it scales with the bag.
fn lengths(bag: &Bag) -> Vec<(&'static str, Length, bool)> {
    let mut copy = bag.clone();
    let of = |field: bofta_core::bag::Field<'_>| match field.slot {
        Slot::Length(length) => Some((field.key, *length, field.scales)),
        _ => None,
    };
    copy.fields().into_iter().filter_map(of).collect()
}

fn in_system(project: &Project, system: &str) -> Project {
    let edit = Edit::Project { field: ProjectField::System, value: system.into() };
    project.edited(&edit).unwrap_or_else(|p| panic!("{p:?}")).0
}

/// A project changes its system, and no size of its bag and no cloth changes with it; changed back it is the same bag.
#[test]
fn a_change_of_system_changes_no_size() {
    for number in 0..60 {
        let project = any_project(number);
        let (own, other) = match project.system {
            System::Inches => ("in", "cm"),
            System::Centimetres => ("cm", "in"),
        };
        let there = in_system(&project, other);
        assert_ne!(there.system, project.system);
        assert_eq!(there.ruler.system(), there.system, "{number}: a ruler of the other system");
        assert_eq!(there.bag, project.bag, "{number}");
        let cloths =
            |p: &Project| -> Vec<(Length, Length)> { p.cloths.iter().map(|c| (c.width, c.selvedge)).collect() };
        assert_eq!(cloths(&there), cloths(&project), "{number}");
        let back = in_system(&there, own);
        assert_eq!((&back.bag, back.system, &back.from), (&project.bag, project.system, &project.from), "{number}");
        // Drafted with another ruler each cut is the same to a line of the coarser one, up from what is exact.
        let (Ok(here), Ok(there)) = (project.plan(), there.plan()) else { panic!("{number}: a plan is lost") };
        let line = Length::MILLIMETRE * 5;
        for piece in &here.draft.pieces {
            let Some(same) = there.draft.piece(&piece.id) else { panic!("{number}: {} is lost", piece.id) };
            // Each join takes the strip's width, which is a line wider in one system: of many strips that is one more.
            assert!(piece.joined && same.joined || same.count == piece.count, "{number}, {}", piece.id);
            if piece.block_of.is_empty() && piece.patch_of.is_none() && !piece.joined && !piece.spans {
                let exact = |p: &bofta_core::piece::Piece| {
                    [p.width.size - p.width.rounding(), p.height.size - p.height.rounding()]
                };
                for (a, b) in exact(piece).into_iter().zip(exact(same)) {
                    // What a maker is used to is another length in either system: an inch, or 2.5 cm.
                    assert!((a - b).0.abs() <= (line * 8).0, "{number}, {}: {a:?} and {b:?}", piece.id);
                }
            }
        }
    }
}

/// At a hundred hundredths a bag is the same; at another size its finished sizes follow to a line of the ruler, and what does
/// not scale, seams above all, stays.
#[test]
fn a_scaled_bag_keeps_its_seams() {
    let (mut stood, mut refused) = (0, 0);
    for number in 100..200 {
        let project = any_project(number);
        let same = project.edited(&Edit::Scale { percent: 100 }).map(|(p, _)| p.bag);
        if let Ok(bag) = same {
            let step = project.ruler.step();
            for ((key, was, scales), (_, now, _)) in lengths(&project.bag).into_iter().zip(lengths(&bag)) {
                let apart = Length((was - now).0.abs());
                assert!(apart <= if scales { step } else { Length::ZERO }, "{number}, {key}: {was:?} became {now:?}");
            }
        }
        for percent in [60, 90, 150] {
            let Ok((scaled, _)) = project.edited(&Edit::Scale { percent }) else {
                refused += 1;
                continue;
            };
            stood += 1;
            for ((key, was, scales), (_, now, _)) in lengths(&project.bag).into_iter().zip(lengths(&scaled.bag)) {
                let wanted = if scales { was * i64::from(percent) / 100 } else { was };
                let apart = Length((now - wanted).0.abs());
                let line = if scales { project.ruler.step() } else { Length::ZERO };
                assert!(apart <= line, "{number}, {percent} in the hundred, {key}: {was:?} became {now:?}");
            }
        }
    }
    assert!(stood > refused, "{stood} stood, {refused} refused");
}

/// A size that can be scaled down to nothing is refused, not brought to some size of its own.
#[test]
fn absurd_scales_are_refused() {
    let project = any_project(1);
    for percent in [0, 1, 100_000, u32::MAX] {
        let refused = project.edited(&Edit::Scale { percent });
        let Err(problems) = refused else { panic!("{percent} in the hundred stood") };
        assert!(!problems[0].field.is_empty() && problems[0].message.len() > 10, "{problems:?}");
    }
}

//! Random histories of edits of every kind, right and wrong ones: whatever is typed, what stands is a whole plan that is kept
//! and read back, and what is refused says which field and why.
//!
//! `BOFTA_HISTORIES` says how many histories are gone through instead of 120.
#![allow(missing_docs)]

use bofta_core::cutting::{Step, cut_list};
use bofta_core::lay::{Budget, ClothLay, Job, Random, Silent, solve, verify};
use bofta_core::measure::Length;
use bofta_core::piece::{From, Mark, Piece};
use bofta_core::project::Planned;
use bofta_core::project::kept::{read_project, write_project};
use std::collections::BTreeSet;

use crate::any_edit;

use any_edit::{any_beginning, any_edit};

/// Where a mark says it is, it is on the piece.
fn lies_on(mark: &Mark, piece: &Piece) -> bool {
    let (wide, tall) = piece.size();
    let on = |distance: Length, from: From| {
        let most = match from {
            From::TopEdge | From::BaseEdge => tall,
            From::LeftEdge | From::SideEdges => wide,
            From::Middle => wide / 2 + Length(1),
        };
        distance >= Length::ZERO && distance <= most
    };
    on(mark.distance, mark.from) && mark.and.is_none_or(|(distance, from)| on(distance, from))
}

/// What is wrong with a plan, whatever it is a plan of.
fn wrong(planned: &Planned) -> Option<String> {
    // What cannot be cut is said, and nothing is laid.
    if planned.problems.iter().any(|p| p.field == "measured") {
        return planned.job.as_ref().map(|_| "it cannot be cut, and is laid".into());
    }
    let pieces = &planned.draft.pieces;
    let ids: BTreeSet<&str> = pieces.iter().map(|p| p.id.as_ref()).collect();
    if ids.len() < pieces.len() {
        return Some("two pieces have one id".into());
    }
    for piece in pieces {
        let (wide, tall) = piece.size();
        if wide <= Length::ZERO || tall <= Length::ZERO || piece.count == 0 || piece.name.trim().is_empty() {
            return Some(format!("{} is {wide:?} × {tall:?}, {} of {:?}", piece.id, piece.count, piece.name));
        }
        let corners = piece.outline().corners();
        if corners.iter().any(|p| p.x < Length::ZERO || p.x > wide || p.y < Length::ZERO || p.y > tall) {
            return Some(format!("the outline of {} leaves its size: {corners:?}", piece.id));
        }
        if let Some(mark) = piece.marks.iter().find(|m| !lies_on(m, piece)) {
            return Some(format!("{} of {wide:?} × {tall:?} has a mark beside it: {mark:?}", piece.id));
        }
    }
    let steps: BTreeSet<&str> = planned.draft.steps.iter().map(|s| s.key.as_ref()).collect();
    if steps.len() < planned.draft.steps.len() || !planned.draft.steps.iter().map(|s| s.phase).is_sorted() {
        return Some(format!("the steps are not in order, or two have one key: {:?}", planned.draft.steps));
    }
    let Some(job) = &planned.job else { return None };
    for piece in pieces.iter().filter(|p| p.when.is_laid()) {
        let laid: u32 = job.pieces.iter().filter(|p| p.id == piece.id).map(|p| p.count).sum();
        if laid != piece.count {
            return Some(format!("{} is cut {} times and laid {laid} times", piece.id, piece.count));
        }
    }
    let strays = job.pieces.iter().find(|p| !ids.contains(p.id.as_str()));
    strays.map(|p| format!("{} is laid and not drafted", p.id))
}

/// What is wrong with the lay and the cut list of a plan, each after a glance.
fn wrong_when_laid(planned: &Planned, job: &Job) -> Option<String> {
    let lay = solve(job, Budget::iterations(20), &mut Silent).ok()?;
    if let Some(fault) = verify(job, &lay).first() {
        return Some(format!("the lay does not hold: {fault}"));
    }
    for piece in &job.pieces {
        let on = |c: &ClothLay| c.placements.iter().filter(|p| p.piece == piece.id).count() as u32;
        let laid: u32 = lay.cloths.iter().map(on).sum();
        let left: u32 = lay.unplaced.iter().filter(|u| u.piece == piece.id).map(|u| u.count).sum();
        if laid + left != piece.count {
            return Some(format!("of {} {} {laid} are laid and {left} left out", piece.count, piece.id));
        }
    }
    let steps = cut_list(job, &lay.cloths, &planned.draft.pieces, &planned.blocks);
    let mut freed: Vec<(&str, u32)> = steps.iter().flat_map(Step::frees).map(|f| (f.piece.as_str(), f.copy)).collect();
    freed.sort_unstable();
    let twice = freed.windows(2).find(|w| w[0] == w[1]);
    twice.map(|w| format!("{:?} comes off the cloth twice", w[0]))
}

#[test]
fn whatever_is_typed_the_plan_stays_whole() {
    let histories: u64 = std::env::var("BOFTA_HISTORIES").ok().and_then(|n| n.parse().ok()).unwrap_or(120);
    let (mut stood, mut refused, mut jobs, mut laid) = (0, 0, 0, 0);
    for number in 0..histories {
        let random = &mut Random::new(number);
        let mut project = any_beginning(random);
        let mut history = vec![];
        for _ in 0..40 {
            let edit = any_edit(&project, random);
            history.push(edit.clone());
            let told = || format!("history {number}, after {} edits, the last {edit:?}", history.len());
            match project.edited(&edit) {
                Err(problems) => {
                    refused += 1;
                    assert!(!problems.is_empty(), "{}: refused without a word", told());
                    for p in &problems {
                        let sentence = p.message.ends_with(['.', '?']) && p.message.len() > 10 && p.message.len() < 600;
                        assert!(sentence && !p.field.is_empty(), "{}: {p:?}", told());
                    }
                }
                Ok((next, _)) => {
                    stood += 1;
                    let kept = write_project(&next).unwrap_or_else(|e| panic!("{}: {e}", told()));
                    let read = read_project(&kept).unwrap_or_else(|e| panic!("{}: {e}", told()));
                    assert_eq!(read, next, "{}", told());
                    let planned = next.plan().unwrap_or_else(|p| panic!("{}: it stood, and is no plan: {p:?}", told()));
                    jobs += usize::from(planned.job.is_some());
                    if let Some(why) = wrong(&planned) {
                        panic!("{}: {why}\n{:?}", told(), next.bag);
                    }
                    // Laying takes longer than typing: now and then.
                    if let Some(job) = planned.job.as_ref().filter(|_| stood % 60 == 0) {
                        laid += 1;
                        if let Some(why) = wrong_when_laid(&planned, job) {
                            panic!("{}: {why}", told());
                        }
                    }
                    project = next;
                }
            }
        }
    }
    // A test in which everything is refused, or nothing, shows little.
    assert!(
        stood > refused / 3 && refused > stood / 10 && jobs > 200 && laid > 5,
        "{stood} stood, {refused} refused, {jobs} jobs, {laid} laid"
    );
}

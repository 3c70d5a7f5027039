//! The plan that is being cut: what moves it and what does not.
#![allow(missing_docs)]

use bofta_core::FieldProblem;
use bofta_core::bag::{Body, Family};
use bofta_core::cloth::Money;
use bofta_core::lay::{Budget, Lay, Silent, solve, verify};
use bofta_core::measure::System;
use bofta_core::project::kept::{read_cut_plan, write_cut_plan};
use bofta_core::project::{ClothField, Edit, LayField, Look, NotLaidAgain, Pattern, Project, ProjectField};
use rstest::rstest;

fn made(project: &Project, edits: &[Edit]) -> Project {
    edits.iter().fold(project.clone(), |p, e| p.edited(e).unwrap_or_else(|why| panic!("{e:?}: {why:?}")).0)
}

fn refused(project: &Project, edit: &Edit) -> FieldProblem {
    project.edited(edit).expect_err("refused").remove(0)
}

fn bag(field: &str, value: &str) -> Edit {
    Edit::Bag { field: field.into(), value: value.into() }
}

fn cloth(field: ClothField, value: &str) -> Edit {
    Edit::Cloth { cloth: "moss-canvas".into(), field, value: value.into() }
}

fn cut(count: u32) -> Edit {
    Edit::StepsDone { count }
}

fn laid(project: &Project) -> Lay {
    let job = project.plan().expect("drafts").job.expect("every part has a cloth");
    solve(&job, Budget::iterations(40), &mut Silent).expect("laid")
}

/// A bag of `family` with its cloths, laid and ready to be cut.
fn ready(family: Family) -> Project {
    let add = |name: &str, material: &str| Edit::AddCloth { name: name.into(), material: material.into() };
    let mut project = Project::new("Bag", System::Inches);
    project.bag = family.default_for(System::Inches);
    let project = made(&project, &[add("Moss canvas", "canvas"), add("Fleece", "fleece"), add("Stiff", "interfacing")]);
    let project = made(&project, &[cloth(ClothField::Price, "12")]);
    project.begun(&laid(&project)).unwrap_or_else(|why| panic!("{family:?}: {why:?}"))
}

#[rstest]
fn a_plan_that_is_cut_does_not_move(#[values(0, 1, 2, 3, 4, 5, 6, 7)] family: usize) {
    let family = Family::ALL[family];
    let begun = made(&ready(family), &[cut(1)]);
    let plan = begun.plan().expect("planned");
    // As if a later version drafted otherwise: the bag is another, and what is cut is not.
    let mut later = begun.clone();
    later.bag = if family == Family::Tote { Family::Pouch } else { Family::Tote }.default_for(System::Centimetres);
    later.from.clear();
    assert_eq!(later.plan().expect("planned"), plan);
    assert_ne!(later.uncut().plan().expect("planned").draft, plan.draft);
    // It reads back as it was written, every reason and notice in it.
    let kept = begun.cutting.as_deref().expect("a plan");
    assert_eq!(read_cut_plan(&write_cut_plan(kept).expect("written")).as_ref(), Ok(kept));
}

#[test]
fn begun_it_takes_no_change_of_the_plan_and_says_so() {
    let begun = made(&ready(Family::Tote), &[cut(2)]);
    let closed = [
        bag("width", "14"),
        cloth(ClothField::Width, "44"),
        cloth(ClothField::AtHand, "30"),
        Edit::Lay { field: LayField::Cuts, value: "through".into() },
        Edit::RemoveCloth { cloth: "moss-canvas".into() },
        Edit::Project { field: ProjectField::Ruler, value: "sixteenth".into() },
        Edit::Scale { percent: 90 },
    ];
    for edit in closed {
        let problem = refused(&begun, &edit);
        assert_eq!(problem.field, "steps_done", "{edit:?}");
        assert!(problem.message.contains("2 steps"), "{}", problem.message);
    }
    let before = begun.plan().expect("planned");
    let named = made(&begun, &[cloth(ClothField::Name, "Donated canvas")]);
    assert_eq!(named.plan().expect("planned").fixed, before.fixed, "nothing lies otherwise");
    assert_eq!(named.plan().expect("planned").job.expect("a job").cloths[0].name, "Donated canvas");
}

#[test]
fn a_price_may_change_and_the_cost_follows() {
    let begun = made(&ready(Family::Tote), &[cut(1)]);
    let lay = begun.plan().expect("planned").fixed.expect("fixed");
    let dearer = made(&begun, &[cloth(ClothField::Price, "24")]).plan().expect("planned");
    let (job, told) = (dearer.job.expect("a job"), dearer.fixed.expect("fixed"));
    assert_eq!(told.cost, Money(lay.cost.0 * 2));
    assert_eq!(told.bound.cost, Money(lay.bound.cost.0 * 2));
    assert_eq!(told.cloths, lay.cloths);
    assert_eq!(verify(&job, &told), []);
    let free = made(&begun, &[cloth(ClothField::Price, "")]).plan().expect("planned");
    assert_eq!(free.fixed.expect("fixed").cost, Money(0));
}

#[test]
fn colours_may_change_and_a_pattern_that_stands_otherwise_may_not() {
    let begun = made(&ready(Family::Tote), &[cut(1)]);
    let look =
        |pattern| Edit::ClothLook { cloth: "moss-canvas".into(), look: Look::new(pattern, "#112233", "#445566") };
    let print = begun.cloths[0].print;
    assert_eq!(made(&begun, &[look(Pattern::Seeds)]).cloths[0].print, print);
    assert_eq!(refused(&begun, &look(Pattern::Cans)).field, "pattern");
    assert_ne!(made(&made(&begun, &[cut(0)]), &[look(Pattern::Cans)]).cloths[0].print, print);
}

#[test]
fn steps_are_those_of_the_plan() {
    let ready = ready(Family::Drawstring);
    let steps = ready.cutting.as_ref().expect("a plan").steps().len() as u32;
    assert_eq!(made(&ready, &[cut(steps)]).steps_done, steps);
    assert!(refused(&ready, &cut(steps + 1)).message.contains(&format!("the plan has {steps}")));
    let again = made(&made(&ready, &[cut(steps)]), &[cut(0)]);
    assert_eq!((again.steps_done, again.cutting), (0, None));
    let nothing = Project::new("Bag", System::Inches);
    assert_eq!(refused(&nothing, &cut(1)).message, "There is no layout yet, so there is nothing to cut.");
}

/// A measure while cutting goes on is compared with what was drafted when it began, whatever drafts otherwise by now.
#[test]
fn a_measure_follows_what_was_drafted() {
    let quilt = Edit::MakeUp { piece: "outer-panel".into(), field: "quilted".into(), value: "yes".into() };
    let add = Edit::AddCloth { name: "Lining cotton".into(), material: "cotton".into() };
    let lining = Edit::Assign { part: "lining".into(), cloth: "lining-cotton".into() };
    let project = made(&ready(Family::Tote).uncut(), &[quilt, add, lining]);
    let begun = made(&project.begun(&laid(&project)).expect("begun"), &[cut(1)]);
    let size = |p: &Project, id: &str| p.plan().expect("planned").draft.piece(id).expect("there").size();
    let was = size(&begun, "lining-panel");
    let mut later = begun.clone();
    if let Body::Tote(tote) = &mut later.bag.body {
        tote.height = tote.height * 2;
    }
    let show = |l| later.ruler.show(l).text;
    let width = was.0 - bofta_core::measure::Length::inches(1, 2);
    let measure = Edit::Measured { piece: "outer-panel".into(), width: show(width), height: show(was.1) };
    let (next, _) = later.edited(&measure).expect("may be measured");
    let lay = |job: &_| solve(job, Budget::iterations(40), &mut Silent).map_err(|e| format!("{e:?}"));
    let after = next.clone().lay_the_rest(&later, lay).expect("laid again");
    assert_eq!(size(&after, "lining-panel"), (width, was.1));
    assert!(after.measured["outer-panel"].cut_before.len() <= 1);
    // What could not be laid leaves the sentence of whoever tried.
    let grief = next.lay_the_rest(&later, |_| Err("no time".into()));
    assert_eq!(grief, Err(NotLaidAgain::NoLay("no time".into())));
}

/// A plan begun by a version that listed the cuts otherwise opens as it was, and says that the cuts made are to be checked,
/// until the next one is ticked off.
#[test]
fn a_plan_of_before_asks_how_many_cuts_are_made() {
    let begun = made(&ready(Family::Tote), &[cut(2)]);
    let text = write_cut_plan(begun.cutting.as_deref().expect("a plan")).expect("written");
    let before = text.replacen("\"version\":2", "\"version\":1", 1);
    assert_ne!(before, text);
    let read = read_cut_plan(&before).expect("read");
    assert!(read.is_relisted());
    let opened = Project { cutting: Some(std::sync::Arc::new(read)), ..begun.clone() };
    let asks = |p: &Project| p.plan().expect("planned").draft.notices.iter().any(|n| n.text.contains("in a new way"));
    assert!(asks(&opened) && !asks(&begun));
    assert_eq!(opened.plan().expect("planned").fixed, begun.plan().expect("planned").fixed);
    assert!(!asks(&made(&opened, &[cut(3)])));
}

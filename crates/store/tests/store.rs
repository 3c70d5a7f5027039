//! Keeping, undo, conflicts, and surviving a reopening.
#![allow(missing_docs)]

use bofta_core::lay::{Budget, Silent, solve};
use bofta_core::measure::{Length, System};
use bofta_core::project::{Edit, Project};
use bofta_store::{Store, StoreError};

fn store() -> (tempfile::TempDir, Store) {
    let folder = tempfile::tempdir().expect("a folder");
    let store = Store::open(&folder.path().join("bofta.db")).expect("a store");
    (folder, store)
}

fn wider(project: &Project, inches: i64) -> (Project, String) {
    project.edited(&Edit::Bag { field: "width".into(), value: format!("{inches} in") }).expect("a sound edit")
}

#[test]
fn undo_and_redo_survive_reopening() {
    let (folder, store) = store();
    let first = store.create("tote", &Project::new("Tote", System::Inches)).expect("created");
    let (p, label) = wider(&first.project, 15);
    let second = store.change("tote", first.revision, &label, &p).expect("changed");
    let (p, label) = wider(&second.project, 16);
    let third = store.change("tote", second.revision, &label, &p).expect("changed");
    assert_eq!(third.undo.as_deref(), Some("width 16 in"));
    drop(store);
    let store = Store::open(&folder.path().join("bofta.db")).expect("reopened");
    let undone = store.undo("tote", third.revision).expect("undone");
    assert_eq!(undone.project, second.project);
    assert_eq!(undone.redo.as_deref(), Some("width 16 in"));
    let redone = store.redo("tote", undone.revision).expect("redone");
    assert_eq!(redone.project, third.project);
    assert!(matches!(store.redo("tote", redone.revision), Err(StoreError::Nothing("redo"))));
    // A new change after undo forgets what was undone.
    let undone = store.undo("tote", redone.revision).expect("undone");
    let (p, label) = wider(&undone.project, 20);
    let changed = store.change("tote", undone.revision, &label, &p).expect("changed");
    assert_eq!(changed.redo, None);
}

#[test]
fn a_change_on_an_old_revision_is_refused_with_the_present_state() {
    let (_folder, store) = store();
    let first = store.create("tote", &Project::new("Tote", System::Inches)).expect("created");
    let (mine, label) = wider(&first.project, 15);
    let kept = store.change("tote", first.revision, &label, &mine).expect("changed");
    let (theirs, label) = wider(&first.project, 18);
    match store.change("tote", first.revision, &label, &theirs) {
        Err(StoreError::Conflict { based_on, now }) => {
            assert_eq!(based_on, first.revision);
            assert_eq!(*now, kept);
        }
        other => panic!("expected a conflict, got {other:?}"),
    }
    assert_eq!(store.project("tote").expect("there").project.bag.length("width"), Some(Length::INCH * 15));
}

#[test]
fn a_project_put_away_can_be_restored() {
    let (_folder, store) = store();
    store.create("tote", &Project::new("Tote", System::Centimetres)).expect("created");
    store.put_away("tote").expect("put away");
    assert!(store.projects().expect("listed").is_empty());
    assert!(matches!(store.project("tote"), Err(StoreError::NotFound(_))));
    store.restore("tote").expect("restored");
    assert_eq!(store.projects().expect("listed").len(), 1);
    assert!(matches!(store.put_away("other"), Err(StoreError::NotFound(_))));
}

#[test]
fn lays_cloths_and_backups_come_back_as_they_were() {
    let (folder, store) = store();
    let mut project = Project::new("Tote", System::Inches);
    for (name, material) in [("Moss canvas", "canvas"), ("Fleece", "fleece")] {
        let edit = Edit::AddCloth { name: name.into(), material: material.into() };
        project = project.edited(&edit).expect("a sound edit").0;
    }
    store.create("tote", &project).expect("created");
    let job = project.plan().expect("planned").job.expect("every part has a cloth");
    let lay = solve(&job, Budget::iterations(10), &mut Silent).expect("laid");
    store.keep_lay("tote", "key", &lay).expect("kept");
    assert_eq!(store.lay("tote", "key").expect("read"), Some(lay));
    assert_eq!(store.lay("tote", "other").expect("read"), None);
    store.keep_cloth(&project.cloths[0]).expect("kept");
    assert_eq!(store.cloths().expect("read"), [project.cloths[0].clone()]);
    let copy = folder.path().join("copy.db");
    store.backup(&copy).expect("copied");
    assert_eq!(Store::open(&copy).expect("opened").project("tote").expect("there").project, project);
    store.drop_cloth("moss-canvas").expect("dropped");
    assert!(store.cloths().expect("read").is_empty());
    assert!(store.keep_lay("nobody", "key", &solve(&job, Budget::iterations(0), &mut Silent).expect("laid")).is_err());
}

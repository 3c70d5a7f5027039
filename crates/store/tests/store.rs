//! Keeping, undo, conflicts, and surviving a reopening.
#![allow(missing_docs)]

use bofta_core::cloth::{Material, OwnCut};
use bofta_core::lay::{Budget, Silent, solve};
use bofta_core::ledger::What;
use bofta_core::measure::{Length, System};
use bofta_core::notions::{Amount, Entry, Ledger, Need, Notion, OfBag, Why};
use bofta_core::project::{Edit, Look, Pattern, Project, ProjectCloth, Swatch};
use bofta_store::{Held, Store, StoreError, StoredLay, Which, backup};
use rusqlite::Connection;
use std::path::Path;

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
    assert_eq!(third.undo.as_deref(), Some("Wide, at the base: 16 in"));
    drop(store);
    let store = Store::open(&folder.path().join("bofta.db")).expect("reopened");
    let undone = store.undo("tote", third.revision).expect("undone");
    assert_eq!(undone.project, second.project);
    assert_eq!(undone.redo.as_deref(), Some("Wide, at the base: 16 in"));
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

fn plans(folder: &tempfile::TempDir) -> i64 {
    let c = Connection::open(folder.path().join("bofta.db")).expect("opened");
    c.query_row("SELECT COUNT(*) FROM cut_plans", [], |row| row.get(0)).expect("counted")
}

/// While one cuts, the states share one plan; undo and redo bring it back, and what no state is cut by is forgotten.
#[test]
fn the_plan_that_is_cut_is_kept_once_and_comes_back() {
    let (folder, store) = store();
    let add = Edit::AddCloth { name: "Canvas".into(), material: "canvas".into() };
    let (project, _) = Project::new("Tote", System::Inches).edited(&add).expect("sound");
    let first = store.create("tote", &project).expect("created");
    let lay = solve(&project.plan().expect("drafts").job.expect("a job"), Budget::iterations(20), &mut Silent);
    let ready = project.begun(&lay.expect("laid")).expect("begun");
    let mut last = first.clone();
    for count in 1..=4 {
        let from = if count == 1 { &ready } else { &last.project };
        let (next, label) = from.edited(&Edit::StepsDone { count }).expect("a cut");
        last = store.change("tote", last.revision, &label, &next).expect("kept");
        assert_eq!(last.project, next);
    }
    assert_eq!(plans(&folder), 1);
    drop(store);
    let store = Store::open(&folder.path().join("bofta.db")).expect("reopened");
    assert_eq!(store.project("tote").expect("there").project.cutting, ready.cutting);
    let mut at = last.revision;
    for _ in 0..4 {
        at = store.undo("tote", at).expect("undone").revision;
    }
    assert_eq!(store.project("tote").expect("there").project.cutting, None);
    assert_eq!(store.redo("tote", at).expect("redone").project.cutting, ready.cutting);
    let at = store.undo("tote", at + 1).expect("undone").revision;
    let (other, label) = wider(&project, 9);
    store.change("tote", at, &label, &other).expect("changed");
    assert_eq!(plans(&folder), 0, "nothing can be gone back to that is cut by it");
}

/// A plan that cannot be read is told as such; nothing is drafted in its place.
#[test]
fn a_broken_plan_is_told() {
    let (folder, store) = store();
    let add = Edit::AddCloth { name: "Canvas".into(), material: "canvas".into() };
    let (project, _) = Project::new("Tote", System::Inches).edited(&add).expect("sound");
    let lay = solve(&project.plan().expect("drafts").job.expect("a job"), Budget::iterations(20), &mut Silent);
    store.create("tote", &project.begun(&lay.expect("laid")).expect("begun")).expect("created");
    sql(&folder.path().join("bofta.db"), "UPDATE cut_plans SET document = substr(document, 1, 90)");
    assert!(matches!(store.project("tote"), Err(StoreError::Unreadable { .. })));
}

#[test]
fn a_project_put_away_can_be_restored() {
    let (_folder, store) = store();
    store.create("tote", &Project::new("Tote", System::Centimetres)).expect("created");
    store.archive("tote").expect("put away");
    assert!(store.named().expect("listed").is_empty());
    assert!(matches!(store.project("tote"), Err(StoreError::NotFound(_))));
    store.restore("tote").expect("restored");
    assert_eq!(store.named().expect("listed").len(), 1);
    assert!(matches!(store.archive("other"), Err(StoreError::NotFound(_))));
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
    assert_eq!(store.lay("tote", "key").expect("read"), Some(StoredLay::Lay(Box::new(lay))));
    store.keep_failure("tote", "hopeless", "No lay was found").expect("kept");
    assert_eq!(store.lay("tote", "hopeless").expect("read"), Some(StoredLay::Failed("No lay was found".into())));
    assert_eq!(store.lay("tote", "other").expect("read"), None);
    store.keep_cloth(&project.cloths[0]).expect("kept");
    assert_eq!(store.cloth("moss-canvas").expect("read"), Some(project.cloths[0].clone()));
    assert_eq!(store.cloth_names().expect("read"), [("moss-canvas".to_owned(), "Moss canvas".to_owned())]);
    let copy = folder.path().join("copy.db");
    store.backup(&copy).expect("copied");
    assert_eq!(Store::open(&copy).expect("opened").project("tote").expect("there").project, project);
    store.archive_cloth("moss-canvas").expect("put away");
    assert!(store.cloth_names().expect("read").is_empty());
    assert!(store.keep_lay("nobody", "key", &solve(&job, Budget::iterations(0), &mut Silent).expect("laid")).is_err());
}

/// A card is good for one revision, one version of the program, and until a better lay is found.
#[test]
fn cards_are_kept_as_long_as_they_are_true() {
    let (_folder, store) = store();
    let first = store.create("tote", &Project::new("Tote", System::Inches)).expect("created");
    let ids = ["tote".to_owned()];
    let cards = |program: &str| store.cards(&ids, program).expect("read").len();
    store.keep_card("tote", first.revision, "1", "{}").expect("kept");
    assert_eq!((cards("1"), cards("2")), (1, 0));
    let (p, label) = wider(&first.project, 15);
    let second = store.change("tote", first.revision, &label, &p).expect("changed");
    assert_eq!(cards("1"), 0, "the project has changed");
    store.keep_card("tote", second.revision, "1", "{}").expect("kept");
    store.keep_failure("tote", "key", "No lay was found").expect("kept");
    assert_eq!(cards("1"), 0, "its lay has changed");
}

#[test]
fn names_follow_changes_undo_and_redo() {
    let (_folder, store) = store();
    let name = || store.named().expect("listed")[0].name.clone();
    let first = store.create("tote", &Project::new("Tote", System::Inches)).expect("created");
    let rename = Edit::Project { field: bofta_core::project::ProjectField::Name, value: "Onion bag".into() };
    let (p, label) = first.project.edited(&rename).expect("a sound edit");
    let second = store.change("tote", first.revision, &label, &p).expect("changed");
    assert_eq!(name(), "Onion bag");
    let undone = store.undo("tote", second.revision).expect("undone");
    assert_eq!(name(), "Tote");
    store.redo("tote", undone.revision).expect("redone");
    assert_eq!(name(), "Onion bag");
}

fn sql(path: &Path, text: &str) {
    Connection::open(path).expect("opened").execute_batch(text).expect("done");
}

/// A database as the first version made it: it is brought up to date, and what is in it comes out as it was.
#[test]
fn a_database_of_the_first_version_opens_as_it_was() {
    let folder = tempfile::tempdir().expect("a folder");
    let path = folder.path().join("bofta.db");
    sql(&path, include_str!("../migrations/2026-11-25-000001_first/up.sql"));
    let document = include_str!("../../core/tests/kept/project-0-tote.json").replace('\'', "''");
    let cloth = include_str!("../../core/tests/kept/cloth-0.json").replace('\'', "''");
    sql(
        &path,
        &format!(
            "CREATE TABLE __diesel_schema_migrations (version VARCHAR(50) PRIMARY KEY NOT NULL, run_on TIMESTAMP NOT NULL \
             DEFAULT CURRENT_TIMESTAMP); INSERT INTO __diesel_schema_migrations (version) VALUES ('20261125000001'); \
             INSERT INTO projects VALUES ('tote', 1, 0, 5, 0); INSERT INTO states VALUES ('tote', 0, 'begin', '{document}'); \
             INSERT INTO projects VALUES ('lost', 1, 0, 6, 0); INSERT INTO states VALUES ('lost', 0, 'begin', '{{\"na'); \
             INSERT INTO cloths VALUES ('moss', '{cloth}');"
        ),
    );
    let store = Store::open(&path).expect("brought up to date");
    let tote = store.project("tote").expect("read");
    assert_eq!(tote.project, bofta_core::project::kept::read_project(&document.replace("''", "'")).expect("kept"));
    let names: Vec<String> = store.named().expect("listed").into_iter().map(|n| n.name).collect();
    assert_eq!(names, ["".to_owned(), tote.project.name.clone()]);
    assert!(store.cloth("moss").expect("read").is_some());
    // What cannot be read is told as such; the rest opens, and its text is there.
    assert!(matches!(store.project("lost"), Err(StoreError::Unreadable { .. })));
    assert_eq!(store.document("lost").expect("there"), "{\"na");
    // A change of the other keeps it in the present form.
    let (p, label) = wider(&tote.project, 15);
    store.change("tote", tote.revision, &label, &p).expect("changed");
    assert!(store.document("tote").expect("there").contains("bofta-project"));
}

#[test]
fn a_newer_a_foreign_and_a_broken_database_are_refused_unwritten() {
    let (folder, kept) = store();
    kept.create("tote", &Project::new("Tote", System::Inches)).expect("created");
    drop(kept);
    let at = |name: &str| folder.path().join(name);
    sql(&at("bofta.db"), "PRAGMA wal_checkpoint(TRUNCATE); PRAGMA journal_mode = DELETE;");
    let newer = at("newer.db");
    std::fs::copy(at("bofta.db"), &newer).expect("copied");
    sql(&newer, "INSERT INTO __diesel_schema_migrations (version) VALUES ('20990101000000');");
    let before = std::fs::read(&newer).expect("read");
    assert!(matches!(Store::open(&newer), Err(StoreError::Newer(v)) if v == "20990101000000"));
    assert_eq!(std::fs::read(&newer).expect("read"), before, "not a byte is written");
    let foreign = at("foreign.db");
    sql(&foreign, "CREATE TABLE recipes (id INTEGER); INSERT INTO recipes VALUES (1);");
    assert!(matches!(Store::open(&foreign), Err(StoreError::Foreign(_))));
    std::fs::write(at("text.db"), "This is no database, but a letter to the plot holders. ".repeat(200))
        .expect("written");
    assert!(matches!(Store::open(&at("text.db")), Err(StoreError::Damaged(_))));
    // A page in the middle overwritten, as by a failing disk.
    let broken = at("broken.db");
    let mut bytes = std::fs::read(at("bofta.db")).expect("read");
    let middle = bytes.len() / 2;
    bytes[middle..middle + 4096].fill(0x5A);
    std::fs::write(&broken, &bytes).expect("written");
    assert!(matches!(Store::open(&broken), Err(StoreError::Damaged(_))));
    assert_eq!(std::fs::read(&broken).expect("read"), bytes, "not a byte is written");
}

#[test]
fn a_folder_serves_one_at_a_time() {
    let folder = tempfile::tempdir().expect("a folder");
    let held = Held::folder(folder.path()).expect("held");
    assert!(matches!(Held::folder(folder.path()), Err(StoreError::Busy)));
    drop(held);
    assert!(Held::folder(folder.path()).is_ok());
}

/// A copy brought back is the database of then; what was there is set aside with all that was in its journal.
#[test]
fn a_copy_is_brought_back_and_nothing_is_thrown_away() {
    let (folder, kept) = store();
    let first = kept.create("tote", &Project::new("Tote", System::Inches)).expect("created");
    let copy = folder.path().join("copy.db");
    kept.backup(&copy).expect("copied");
    assert!(matches!(kept.backup(&copy), Err(StoreError::File { .. })), "it is there already");
    let (p, label) = wider(&first.project, 15);
    let second = kept.change("tote", first.revision, &label, &p).expect("changed");
    drop(kept);
    let held = Held::folder(folder.path()).expect("held");
    let aside = backup::restore(&held, folder.path(), "bofta.db", &copy).expect("restored").expect("set aside");
    let back = Store::open(&folder.path().join("bofta.db")).expect("opened");
    assert_eq!(back.project("tote").expect("there").project, first.project);
    assert_eq!(Store::open(&aside).expect("opened").project("tote").expect("there").project, second.project);
    // A damaged copy takes nobody's place.
    std::fs::write(folder.path().join("bad.db"), "no").expect("written");
    drop(back);
    assert!(backup::restore(&held, folder.path(), "bofta.db", &folder.path().join("bad.db")).is_err());
    assert!(Store::open(&folder.path().join("bofta.db")).expect("opened").project("tote").is_ok());
}

#[test]
fn copies_are_made_when_due_and_are_whole() {
    let (folder, store) = store();
    store.create("tote", &Project::new("Tote", System::Inches)).expect("created");
    let made = store.back_up_when_due().expect("copied").expect("the first is due");
    assert_eq!(Store::open(&made).expect("whole").named().expect("listed").len(), 1);
    assert_eq!(store.back_up_when_due().expect("looked"), None, "the newest is not an hour old");
    assert_eq!(backup::copies(folder.path()).expect("listed").len(), 1);
}

/// A full disk and another program in the way are told as what they are, and nothing of the change stays.
#[test]
fn what_cannot_be_kept_is_told_and_leaves_what_was() {
    let folder = tempfile::tempdir().expect("a folder");
    let path = folder.path().join("bofta.db");
    drop(Store::open(&path).expect("a store"));
    let store = Store::open_within(&path, Some(60)).expect("a small disk");
    let mut kept = store.create("tote", &Project::new("Tote", System::Inches)).expect("created");
    let mut full = None;
    for inches in 0..2_000 {
        let (p, label) = wider(&kept.project, 10 + inches % 9);
        match store.change("tote", kept.revision, &label, &p) {
            Ok(next) => kept = next,
            Err(e) => {
                full = Some(e);
                break;
            }
        }
    }
    assert!(matches!(full, Some(StoreError::Full)), "{full:?}");
    assert_eq!(store.project("tote").expect("there"), kept, "the last that was kept is there");
    // With room again it goes on.
    drop(store);
    let store = Store::open(&path).expect("a larger disk");
    let (p, label) = wider(&kept.project, 20);
    let kept = store.change("tote", kept.revision, &label, &p).expect("changed");
    let other = Connection::open(&path).expect("opened");
    other.execute_batch("BEGIN IMMEDIATE").expect("held");
    let (p, label) = wider(&kept.project, 21);
    assert!(matches!(store.change("tote", kept.revision, &label, &p), Err(StoreError::Busy)));
    assert_eq!(store.project("tote").expect("reading goes on"), kept);
    other.execute_batch("ROLLBACK").expect("let go");
    assert!(store.change("tote", kept.revision, &label, &p).is_ok());
}

/// What a project should be after any history: its states, which of them is shown, and where it is.
struct Model {
    states: Vec<Project>,
    at: usize,
    revision: i64,
    away: bool,
}

impl Model {
    fn now(&self) -> &Project {
        &self.states[self.at]
    }

    /// The store says of a project what the model says of it.
    fn is(&self, kept: &bofta_store::StoredProject, told: &str) {
        assert_eq!(&kept.project, self.now(), "{told}");
        assert_eq!(kept.revision, self.revision, "{told}");
        assert_eq!(kept.undo.is_some(), self.at > 0, "{told}");
        assert_eq!(kept.redo.is_some(), self.at + 1 < self.states.len(), "{told}");
    }
}

/// Random histories of several projects against a model of them: changes on the present and on old revisions, undo, redo,
/// putting away and back, throwing away, and the program ended and begun again in between. Nothing is lost, nothing comes
/// back that was not there, and what is refused changes nothing.
#[test]
fn random_histories_are_kept_as_they_were_made() {
    let random = &mut bofta_core::lay::Random::new(20_261_127);
    let (folder, mut store) = store();
    let mut models: std::collections::BTreeMap<String, Model> = std::collections::BTreeMap::new();
    let (mut conflicts, mut undone, mut redone) = (0, 0, 0);
    for number in 0..400 {
        let ids: Vec<String> = models.keys().cloned().collect();
        let told = format!("step {number}");
        if ids.len() < 2 || random.below(40) == 0 {
            let id = format!("bag-{number}");
            let project = Project::new(format!("Bag {number}"), System::Inches);
            let kept = store.create(&id, &project).expect("created");
            models.insert(id, Model { states: vec![project], at: 0, revision: kept.revision, away: false });
            continue;
        }
        let id = &ids[random.below(ids.len())];
        let model = models.get_mut(id).expect("one of them");
        let old = model.revision - 1 - random.below(3) as i64;
        match random.below(12) {
            0..5 => {
                let (next, label) = wider(model.now(), 8 + random.below(30) as i64);
                let stale = random.below(5) == 0;
                let on = if stale { old } else { model.revision };
                match store.change(id, on, &label, &next) {
                    Ok(kept) => {
                        assert!(!stale && !model.away, "{told}: kept on an old revision, or of a bag put away");
                        model.states.truncate(model.at + 1);
                        model.states.push(next);
                        model.at += 1;
                        assert!(kept.revision > model.revision, "{told}");
                        model.revision = kept.revision;
                        model.is(&kept, &told);
                    }
                    Err(StoreError::Conflict { now, .. }) => {
                        conflicts += 1;
                        assert!(stale, "{told}: refused on the present revision");
                        model.is(&now, &told);
                    }
                    Err(StoreError::NotFound(_)) => assert!(model.away, "{told}"),
                    Err(e) => panic!("{told}: {e}"),
                }
            }
            step @ 5..9 => {
                let back = step < 7;
                let answer = if back { store.undo(id, model.revision) } else { store.redo(id, model.revision) };
                let may = if back { model.at > 0 } else { model.at + 1 < model.states.len() };
                match answer {
                    Ok(kept) => {
                        assert!(may && !model.away, "{told}");
                        if back {
                            model.at -= 1;
                            undone += 1;
                        } else {
                            model.at += 1;
                            redone += 1;
                        }
                        model.revision = kept.revision;
                        model.is(&kept, &told);
                    }
                    Err(StoreError::Nothing(_)) => assert!(!may, "{told}"),
                    Err(StoreError::NotFound(_)) => assert!(model.away, "{told}"),
                    Err(e) => panic!("{told}: {e}"),
                }
            }
            9 => {
                store.archive(id).expect("put away");
                model.away = true;
            }
            10 if model.away && random.below(3) == 0 => {
                store.throw_away(id).expect("thrown away");
                models.remove(id);
            }
            10 => {
                store.restore(id).expect("put back");
                model.away = false;
            }
            _ => {
                drop(store);
                store = Store::open(&folder.path().join("bofta.db")).expect("opened again");
            }
        }
        // All of them, not only the one that was changed, and where they should be.
        let shelf: Vec<String> = store.named().expect("names").into_iter().map(|n| n.id).collect();
        let drawer: Vec<String> = store.projects_in_the_drawer().expect("names").into_iter().map(|n| n.id).collect();
        assert_eq!(shelf.len() + drawer.len(), models.len(), "{told}");
        for (id, model) in &models {
            assert_eq!(shelf.contains(id), !model.away, "{told}, {id}");
            assert_eq!(drawer.contains(id), model.away, "{told}, {id}");
            if !model.away {
                let kept = store.project(id).unwrap_or_else(|e| panic!("{told}, {id}: {e}"));
                assert_eq!((&kept.project, kept.revision), (model.now(), model.revision), "{told}, {id}");
            }
        }
    }
    assert!(conflicts > 5 && undone > 20 && redone > 5, "{conflicts} conflicts, {undone} undone, {redone} redone");
}

/// A file without a table is no copy of anything: brought back it would put an empty database in the place of a full one.
#[test]
fn an_empty_copy_is_not_brought_back() {
    let folder = tempfile::tempdir().expect("a folder");
    let at = folder.path();
    let store = Store::open(&at.join("bofta.db")).expect("a store");
    store.create("tote", &Project::new("Tote", System::Inches)).expect("created");
    drop(store);
    std::fs::write(at.join("empty.db"), b"").expect("written");
    Connection::open(at.join("bare.db")).expect("made").execute_batch("PRAGMA user_version = 3").expect("set");
    let held = Held::folder(at).expect("held");
    for name in ["empty.db", "bare.db"] {
        let refused = backup::restore(&held, at, "bofta.db", &at.join(name));
        assert!(matches!(refused, Err(StoreError::Foreign(_))), "{name}: {refused:?}");
    }
    let store = Store::open(&at.join("bofta.db")).expect("as it was");
    assert_eq!(store.project("tote").expect("there").project.name, "Tote");
}

/// A database that was emptied beside its copies is told as damaged, so that one of them is brought back; an empty file alone
/// is a new database.
#[test]
fn a_database_that_was_emptied_is_not_begun_anew() {
    let folder = tempfile::tempdir().expect("a folder");
    let path = folder.path().join("bofta.db");
    std::fs::write(&path, b"").expect("written");
    let store = Store::open(&path).expect("a new one");
    store.create("tote", &Project::new("Tote", System::Inches)).expect("created");
    assert!(store.back_up_when_due().expect("looked at").is_some(), "a copy is made");
    drop(store);
    for ending in ["-wal", "-shm"] {
        let _ = std::fs::remove_file(folder.path().join(format!("bofta.db{ending}")));
    }
    std::fs::write(&path, b"").expect("emptied");
    let told = Store::open(&path).err();
    assert!(matches!(&told, Some(StoreError::Damaged(why)) if why.contains("copies")), "{told:?}");
}

/// A missing database beside its copies, or beside its journal, is damage too; one of another name has no copies there.
#[test]
fn a_database_that_is_gone_is_not_begun_anew() {
    let (folder, store) = store();
    store.create("tote", &Project::new("Tote", System::Inches)).expect("created");
    assert!(store.back_up_when_due().expect("looked at").is_some(), "a copy is made");
    drop(store);
    let at = |name: &str| folder.path().join(name);
    for ending in ["", "-wal", "-shm"] {
        let _ = std::fs::remove_file(at(&format!("bofta.db{ending}")));
    }
    let told = Store::open(&at("bofta.db")).err();
    assert!(matches!(&told, Some(StoreError::Damaged(why)) if why.contains("missing")), "{told:?}");
    assert!(!at("bofta.db").exists(), "nothing was begun");
    assert!(Store::open(&at("demo.db")).is_ok());
    std::fs::remove_dir_all(at("backups")).expect("gone");
    std::fs::write(at("bofta.db-wal"), b"what was changed last").expect("written");
    let told = Store::open(&at("bofta.db")).err();
    assert!(matches!(&told, Some(StoreError::Damaged(why)) if why.contains("journal")), "{told:?}");
}

/// Killed after any of its steps, a restore leaves the old database or the new one, whole: before the note is written the
/// old, from then on the new.
#[test]
fn a_restore_that_was_broken_off_is_finished() {
    let (folder, kept) = store();
    let first = kept.create("tote", &Project::new("Tote", System::Inches)).expect("created");
    let copy = folder.path().join("copy.db");
    kept.backup(&copy).expect("copied");
    let (p, label) = wider(&first.project, 15);
    let second = kept.change("tote", first.revision, &label, &p).expect("changed");
    // As a kill leaves it: with its journal.
    let files = ["bofta.db", "bofta.db-wal", "bofta.db-shm"];
    let there: Vec<(&str, Vec<u8>)> =
        files.iter().map(|f| (*f, std::fs::read(folder.path().join(f)).expect("a file"))).collect();
    let arriving = std::fs::read(&copy).expect("a copy");
    for step in 0..=7 {
        let other = tempfile::tempdir().expect("a folder");
        let at = |name: &str| other.path().join(name);
        there.iter().for_each(|(name, bytes)| std::fs::write(at(name), bytes).expect("written"));
        let aside = at("bofta.db.set-aside-then");
        let set_aside = |ending: &str| {
            std::fs::rename(at(&format!("bofta.db{ending}")), format!("{}{ending}", aside.display())).expect("moved");
        };
        // Half the copy, all of it, half the note, the note, then one file after the other.
        std::fs::write(at("bofta.db.arriving"), &arriving[..if step == 0 { 500 } else { arriving.len() }])
            .expect("written");
        if step == 2 {
            std::fs::write(at("bofta.db.restoring.part"), b"/ha").expect("written");
        }
        if step >= 3 {
            std::fs::write(at("bofta.db.restoring"), "bofta.db.set-aside-then").expect("written");
        }
        for (n, ending) in ["-wal", "-shm", ""].into_iter().enumerate() {
            if step >= 4 + n {
                set_aside(ending);
            }
        }
        if step == 7 {
            std::fs::rename(at("bofta.db.arriving"), at("bofta.db")).expect("moved");
        }
        let back = Store::open(&at("bofta.db")).unwrap_or_else(|e| panic!("step {step}: {e}"));
        let wanted = if step < 3 { &second.project } else { &first.project };
        assert_eq!(&back.project("tote").expect("there").project, wanted, "step {step}");
        assert!(!at("bofta.db.restoring").exists(), "step {step}");
        if step >= 3 {
            let kept = Store::open(&aside).expect("set aside, whole").project("tote").expect("there").project;
            assert_eq!(kept, second.project, "step {step}");
        }
    }
}

/// Nothing is acknowledged into a folder that was moved away, deleted or replaced while it was open.
#[test]
fn a_folder_that_was_replaced_is_noticed() {
    let (folder, store) = store();
    let first = store.create("tote", &Project::new("Tote", System::Inches)).expect("created");
    let (p, label) = wider(&first.project, 15);
    let path = folder.path().join("bofta.db");
    let away = folder.path().join("away.db");
    let replaced = |store: &Store| {
        let told = store.change("tote", first.revision, &label, &p).err();
        assert!(matches!(told, Some(StoreError::Replaced(_))), "{told:?}");
    };
    std::fs::rename(&path, &away).expect("moved away");
    replaced(&store);
    std::fs::copy(&away, &path).expect("another in its place");
    replaced(&store);
    std::fs::rename(&away, &path).expect("put back");
    assert!(store.change("tote", first.revision, &label, &p).is_ok());
}

/// A copy dated in the future by a clock that was wrong keeps no other from being made.
#[test]
fn a_copy_of_the_future_hinders_none() {
    let (folder, store) = store();
    store.create("tote", &Project::new("Tote", System::Inches)).expect("created");
    let made = store.back_up_when_due().expect("copied").expect("the first is due");
    let later = std::time::SystemTime::now() + std::time::Duration::from_secs(90 * 86_400);
    std::fs::File::options().write(true).open(&made).and_then(|f| f.set_modified(later)).expect("dated");
    assert!(store.back_up_when_due().expect("looked").is_some());
    assert_eq!(backup::copies(folder.path()).expect("listed").len(), 2);
}

/// A ledger is kept with its entries, changed under one lock, and forgotten; what a change refuses leaves it as it was.
#[test]
fn ledgers_are_added_to() {
    let (_folder, store) = store();
    let notion = Notion::read("piece", "D-ring", "1", "tin", System::Inches).expect("read");
    let entry = |why, came, went| Entry { at: 7, why, came: Amount::pieces(came), went: Amount::pieces(went) };
    let ledger = Ledger::new(notion).with(entry(Why::PutIn, 12, 0)).expect("put in");
    store.keep_ledger("d-ring", &ledger).expect("kept");
    assert!(store.keep_ledger("d-ring", &ledger).is_err(), "a key is taken once");
    let bag = || OfBag { project: "bag".into(), name: "Bag".into() };
    let need = || Need::Pieces { name: "D-ring".into(), size: Some(Length::INCH) };
    let take = |many| {
        let taken = entry(Why::Taken { bag: bag(), need: need() }, 0, many);
        store.record("d-ring", |ledger| ledger.with(taken)).expect("recorded").expect("it is there")
    };
    assert_eq!(take(2).expect("there are twelve").entries.there(), Amount::pieces(10));
    assert!(take(11).expect_err("there are ten").message.contains(": 10."));
    let kept = store.ledger("d-ring").expect("read").expect("there");
    assert_eq!((kept.entries.len(), kept.entries.with_bag("bag")), (2, Amount::pieces(2)));
    assert_eq!(store.ledgers_of("bag").expect("read"), std::slice::from_ref(&kept));
    assert_eq!(store.ledgers_of("another").expect("read"), []);
    let moved = store.record("d-ring", |mut ledger| ledger.notion.set_place("jar").map(|()| ledger));
    assert_eq!(moved.expect("recorded").expect("there").expect("moved").notion.place, "jar");
    let all = store.ledgers().expect("read");
    assert!(all.len() == 1 && all[0].1.as_ref().is_ok_and(|l| l.notion.place == "jar" && l.entries == kept.entries));
    assert!(store.record("zip", Ok).expect("asked").is_none());
    assert_eq!(store.forget_notion("d-ring", |_| false).expect("asked"), Some(false), "there is some of it");
    assert_eq!(store.forget_notion("d-ring", |_| true).expect("deleted"), Some(true));
    assert!(store.ledger("d-ring").expect("asked").is_none() && store.ledgers_of("bag").expect("asked").is_empty());
}

/// Two who take the last ones at the same time do not both have them.
#[test]
fn nothing_is_taken_twice() {
    let (_folder, store) = store();
    let notion = Notion::read("piece", "Zip", "8", "", System::Inches).expect("read");
    let put_in = Entry { at: 0, why: Why::PutIn, came: Amount::pieces(4), went: Amount::default() };
    store.keep_ledger("zip", &Ledger::new(notion).with(put_in).expect("put in")).expect("kept");
    let takers: Vec<_> = (0..8)
        .map(|n| {
            let store = store.clone();
            std::thread::spawn(move || {
                let bag = OfBag { project: format!("bag-{n}"), name: format!("Bag {n}") };
                let need = Need::Pieces { name: "Zip".into(), size: Some(Length::INCH * 8) };
                let why = Why::Taken { bag, need };
                let entry = Entry { at: 0, why, came: Amount::default(), went: Amount::pieces(1) };
                store.record("zip", |ledger| ledger.with(entry)).expect("asked").expect("there").is_ok()
            })
        })
        .collect();
    let had = takers.into_iter().map(|t| t.join().expect("no panic")).filter(|had| *had).count();
    assert_eq!(had, 4);
    assert!(store.ledger("zip").expect("read").expect("there").entries.there().is_none());
}

/// A picture is let go of a day after nothing has it any more: no cloth of the cupboard, no state undo could bring back.
#[test]
fn pictures_stay_as_long_as_a_cloth_has_them() {
    let (folder, store) = store();
    let keys: Vec<String> = ["a", "b", "c", "d"].iter().map(|k| k.repeat(32)).collect();
    for key in &keys {
        store.keep_picture(key, key.as_bytes()).expect("kept");
    }
    let look = |key: &str| Look {
        picture: Some(Swatch { key: key.into(), width: Length::INCH, height: Length::INCH, one_repeat: false }),
        ..Look::new(Pattern::Plain, "#112233", "#445566")
    };
    // The first is in a state before the present one, the second in the cupboard, the third nowhere, the fourth new.
    let project = Project::new("Tote", System::Inches);
    let add = Edit::AddCloth { name: "Moss".into(), material: "cotton".into() };
    let (with, _) = project.edited(&add).expect("a cloth");
    let (drawn, label) = with.edited(&Edit::ClothLook { cloth: "moss".into(), look: look(&keys[0]) }).expect("a look");
    let first = store.create("tote", &with).expect("created");
    let second = store.change("tote", first.revision, &label, &drawn).expect("changed");
    store.undo("tote", second.revision).expect("undone");
    let mut kept = with.cloths[0].clone();
    kept.look = look(&keys[1]);
    store.keep_cloth(&kept).expect("kept");
    assert_eq!(store.drop_unused_pictures().expect("tidied"), 0, "all of them are new");
    let aged = Connection::open(folder.path().join("bofta.db")).expect("opened");
    aged.execute("UPDATE pictures SET kept_at = 0 WHERE key <> ?1", [&keys[3]]).expect("aged");
    assert_eq!(store.drop_unused_pictures().expect("tidied"), 1);
    let there: Vec<bool> = keys.iter().map(|k| store.picture(k).expect("looked").is_some()).collect();
    assert_eq!(there, [true, true, false, true]);
    assert_eq!(store.picture(&keys[1]).expect("looked"), Some(keys[1].as_bytes().to_vec()));
}

/// Eight who each throw away one of the last four at one time: four did, and each of them is an entry.
#[test]
fn no_change_of_a_cloth_is_lost() {
    let (_folder, store) = store();
    let new = ProjectCloth::default_for("lawn".into(), "Lawn".into(), Material::Cotton, System::Inches);
    let new = new.changed_in_cupboard(What::PutIn, "4 fat quarters", 1).expect("put in");
    let add = |name: &str| {
        let cloth = ProjectCloth { name: name.into(), ..new.clone() };
        store
            .change_cloths(Which::Called(&[name]), |_| Ok::<_, ()>(vec![cloth]))
            .expect("kept")
            .expect("new")
            .remove(0)
            .id
    };
    assert_eq!((add("Lawn"), add("Lawn, washed"), add("Lawn, cut")), ("lawn".into(), "lawn-2".into(), "lawn-3".into()));
    let gone: usize = std::thread::scope(|s| {
        let away = || {
            let all = store.change_cloths(Which::Key("lawn"), |there| {
                there[0].changed_in_cupboard(What::ThrowAway, "fat quarter", 2).map(|next| vec![next])
            });
            usize::from(all.expect("written").is_ok())
        };
        let all: Vec<_> = (0..8).map(|_| s.spawn(away)).collect();
        all.into_iter().map(|one| one.join().expect("it ends")).sum()
    });
    let lawn = store.cloth("lawn").expect("read").expect("there");
    assert_eq!((gone, lawn.at_hand.len(), lawn.ledger.len()), (4, 0, 5));
    // Refused, none of several is changed.
    let both = store.change_cloths(Which::Called(&["Lawn, cut", "Lawn, washed"]), |there| {
        there
            .iter()
            .map(|c| c.changed_in_cupboard(What::ThrowAway, "3 fat quarters", 3))
            .chain([Err(bofta_core::FieldProblem::new("value", "", "No."))])
            .collect()
    });
    assert!(both.expect("written").is_err());
    for id in ["lawn-2", "lawn-3"] {
        assert_eq!(store.cloth(id).expect("read").expect("there").at_hand[0].count, 4);
    }
}

/// Pre-cuts of one's own: one of a name, so many at most; one that somebody damaged is told by itself.
#[test]
fn own_pre_cuts_are_kept() {
    let (folder, store) = store();
    let cut = |name: &str, size: &str| OwnCut::read(name, size, System::Inches).expect("it is read");
    assert!(store.keep_own_cut(&cut("Swap square", "6 x 6"), 2).expect("written"));
    assert!(store.keep_own_cut(&cut("swap SQUARE", "7 x 7"), 2).expect("written"));
    assert!(store.keep_own_cut(&cut("Long strip", "2 x 40"), 2).expect("written"));
    assert!(!store.keep_own_cut(&cut("Patch", "3 x 3"), 2).expect("written"), "there are two");
    let damaged = Connection::open(folder.path().join("bofta.db")).expect("opened");
    damaged.execute("UPDATE own_cuts SET document = '{' WHERE key = 'long strip'", []).expect("damaged");
    let all = store.own_cuts().expect("listed");
    assert!(matches!(&all[0], (key, Err(StoreError::Unreadable { .. })) if key == "long strip"));
    assert_eq!(all[1].1.as_ref().expect("read"), &cut("swap SQUARE", "7 x 7"));
    assert!(store.forget_own_cut("LONG strip").expect("written"));
    assert!(!store.forget_own_cut("long strip").expect("written"));
}

//! Kept documents and edits as nobody meant to write them: read, drafted and planned without a panic.
#![allow(missing_docs)]

use bofta_core::cloth::scraps;
use bofta_core::project::kept::{KeptError, read_cloth, read_project, write_cloth, write_project};
use bofta_core::project::{Edit, Project};
use bofta_mutations::try_all;
use std::path::Path;

fn kept(name: &str) -> String {
    std::fs::read_to_string(Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/kept").join(name)).expect("kept")
}

const PROJECTS: [&str; 5] = [
    "project-0-tote.json",
    "project-0-list.json",
    "project-1-tote.json",
    "project-1-list.json",
    "project-1-scraps.json",
];
const CLOTHS: [&str; 3] = ["cloth-0.json", "cloth-1.json", "cloth-1-cut.json"];

/// Every version that was ever kept is read, and comes to the same.
#[test]
fn what_was_kept_is_read() {
    let projects: Vec<Project> = PROJECTS.iter().map(|n| read_project(&kept(n)).expect(n)).collect();
    assert_eq!((&projects[0], &projects[1]), (&projects[2], &projects[3]));
    for project in &projects {
        assert!(project.plan().expect("drafts").job.is_some(), "{}", project.name);
        assert_eq!(read_project(&write_project(project).expect("written")).as_ref(), Ok(project));
    }
    let cloths: Vec<_> = CLOTHS.iter().map(|n| read_cloth(&kept(n)).expect(n)).collect();
    assert_eq!(cloths[0], cloths[1]);
    for cloth in &cloths {
        assert_eq!(read_cloth(&write_cloth(cloth).expect("written")).as_ref(), Ok(cloth));
    }
    assert!(cloths[2].is_cut_for("bean-sack") && cloths[2].at_hand.len() == 2);
}

#[test]
fn what_is_newer_or_something_else_is_told() {
    let newer = kept("project-1-tote.json").replacen("\"version\": 1", "\"version\": 99", 1);
    assert_eq!(read_project(&newer), Err(KeptError::Newer { found: 99, newest: 1 }));
    assert!(matches!(read_project(&kept("cloth-1.json")), Err(KeptError::Damaged(_))));
    assert!(matches!(read_project("{"), Err(KeptError::Damaged(_))));
    // A length beyond any cloth is found on reading, not when it is added to another.
    let far = kept("project-0-list.json").replacen("\"height\": ", "\"height\": 9223372036854775807, \"x\": ", 1);
    assert!(matches!(read_project(&far), Err(KeptError::Damaged(_))));
}

#[test]
fn mutated_project_documents() {
    let seeds: Vec<Vec<u8>> = PROJECTS.iter().map(|n| kept(n).into_bytes()).collect();
    try_all("project documents", &seeds, 1, |bytes| {
        if let Ok(project) = read_project(&String::from_utf8_lossy(bytes)) {
            let _ = project.plan();
            for cloth in &project.cloths {
                scraps(&cloth.at_hand).for_each(|s| drop((s.holds(), s.draft(project.system))));
            }
        }
    });
}

/// A length no cloth has is refused wherever it stands, in the fields of the bag too.
#[test]
fn a_kept_length_beyond_any_cloth_is_refused() {
    let text = kept("project-1-list.json");
    let at = text.find("\"seam_side\":").expect("a stated seam allowance") + "\"seam_side\":".len();
    let end = at + text[at..].find([',', '}', '\n']).expect("an end");
    let changed = format!("{}{}{}", &text[..at], i64::MAX, &text[end..]);
    assert!(read_project(&text).is_ok() && read_project(&changed).is_err());
}

#[test]
fn mutated_edits() {
    let project = read_project(&kept("project-1-list.json")).expect("kept");
    let edits = [
        r#"{"edit":"bag","field":"width","value":"18 1/2"}"#,
        r#"{"edit":"rows","rows":[{"name":"Outer","part":"outer","count":2,"width":3000000,"height":4000000,"shape":{"shape":"rounded","radius":200000},"seam":80000}]}"#,
        r#"{"edit":"rows","rows":[{"name":"Flap","part":"outer","count":1,"width":2032000,"height":2032000,"shape":{"shape":"free","corners":[{"x":0,"y":0},{"x":2032000,"y":0},{"x":1016000,"y":2032000}]},"seam":0,"pairs":true}]}"#,
        r#"{"edit":"row","row":0,"field":"corners","value":"0 × 0; 9 × 0; 9 × 12 1/2; 4 × 14"}"#,
        r#"{"edit":"row","row":0,"field":"height","value":"47cm"}"#,
        r#"{"edit":"fit","width":"9","height":"12","thick":"2 1/2","ease":"1/2","above":"2"}"#,
        r#"{"edit":"scale","percent":250}"#,
        r#"{"edit":"cloth","cloth":"moss-canvas","field":"width","value":"54"}"#,
        r#"{"edit":"cloth","cloth":"moss-canvas","field":"at_hand","value":"2 fat quarters, half a yard"}"#,
        r#"{"edit":"cloth","cloth":"moss-canvas","field":"repeat","value":"6"}"#,
        r#"{"edit":"draw-scrap","cloth":"moss-canvas","count":2,"draft":{"corners":[{"x":0,"y":0},{"x":2336800,"y":0},{"x":2438400,"y":1879600},{"x":0,"y":1727200}],"measured":[{"from":0,"to":1,"length":"11 1/2"},{"from":1,"to":2,"length":"9 1/4"},{"from":0,"to":2,"length":"15"}],"flaws":[{"kind":"stain","corners":[{"x":1879600,"y":1270000},{"x":2133600,"y":1270000},{"x":2133600,"y":1524000}]}],"threads":{"foot":{"x":0,"y":0},"head":{"x":10,"y":2000000}},"flaw_size":{"flaw":0,"size":"1 x 2"}}}"#,
        r#"{"edit":"lengths-at-hand","kind":"webbing","width":203200,"lengths":"36, 18 1/2"}"#,
        r#"{"edit":"family","family":"duffel"}"#,
        r#"{"edit":"project","field":"system","value":"cm"}"#,
        r#"{"edit":"steps-done","count":3}"#,
    ];
    let seeds: Vec<Vec<u8>> = edits.iter().map(|e| e.as_bytes().to_vec()).collect();
    try_all("edits", &seeds, 1, |bytes| {
        if let Ok(edit) = serde_json::from_slice::<Edit>(bytes)
            && let Ok((next, _)) = project.edited(&edit)
        {
            // What holds is kept, and read again.
            assert_eq!(read_project(&write_project(&next).expect("written")), Ok(next));
        }
    });
}

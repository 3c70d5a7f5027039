//! `bofta lay`, `check` and `backup` as a user runs them.
#![allow(missing_docs)]

use crate::support;

use crate::support::PROGRAM;
use std::path::Path;
use std::process::{Command, Output};

fn bofta(folder: &Path, args: &[&str]) -> Output {
    Command::new(PROGRAM).args(args).current_dir(folder).output().expect("it runs")
}

fn job(pieces: &str) -> String {
    format!(
        r#"{{ "format": "bofta-job", "version": 1, "units": "in", "name": "Twelve", "pieces": [{pieces}],
            "cloths": [{{ "id": "c", "kind": "roll", "width": 44, "selvedge": 0.5, "trim": 0.5, "step": 4.5, "min": 9 }}] }}"#
    )
}

fn rect(id: &str, width: f64, height: f64) -> String {
    format!(
        r#"{{ "id": "{id}", "count": 1, "outline": {{ "rect": [{width}, {height}] }}, "grain": "either", "print": "ignore", "cloths": ["c"] }}"#
    )
}

fn twelve() -> String {
    let pieces: Vec<String> =
        (0..12).map(|i| rect(&format!("p{i}"), 5.0 + f64::from(i), 4.5 + f64::from(i % 5) * 2.0)).collect();
    job(&pieces.join(","))
}

#[test]
fn a_job_is_laid_and_checked() {
    let folder = tempfile::tempdir().expect("a folder");
    let at = folder.path();
    std::fs::write(at.join("job.json"), twelve()).expect("written");
    let laid = bofta(at, &["lay", "job.json", "-o", "lay.json", "--seconds", "5", "--iterations", "300", "--progress"]);
    assert_eq!(laid.status.code(), Some(0), "{laid:?}");
    assert!(String::from_utf8_lossy(&laid.stderr).contains("iterations"));
    let checked = bofta(at, &["check", "job.json", "lay.json"]);
    assert_eq!(checked.status.code(), Some(0), "{checked:?}");
    // The same seed and iterations: the same lay.
    let again = bofta(at, &["lay", "job.json", "--seconds", "5", "--iterations", "300"]);
    let without_time =
        |text: &str| text.lines().filter(|l| !l.contains("\"seconds\"")).map(str::to_owned).collect::<Vec<_>>();
    let first = std::fs::read_to_string(at.join("lay.json")).expect("written");
    assert_eq!(without_time(&first), without_time(&String::from_utf8_lossy(&again.stdout)));
}

/// One benchmark job of each kind, laid and checked.
#[test]
fn a_job_of_each_kind_is_laid_and_checked() {
    let folder = tempfile::tempdir().expect("a folder");
    let at = folder.path();
    let jobs = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../bench/jobs");
    for name in [
        "rect-caddy",
        "cut-33x32",
        "through-duffel",
        "shape-flaps",
        "mix-boxed-totes",
        "fold-boxed",
        "scrap-3",
        "several-cloths",
    ] {
        let job = jobs.join(format!("{name}.json"));
        let job = job.to_str().expect("a path");
        let laid = bofta(at, &["lay", job, "-o", "lay.json", "--iterations", "60"]);
        assert_eq!(laid.status.code(), Some(0), "{name}: {laid:?}");
        let checked = bofta(at, &["check", job, "lay.json"]);
        assert_eq!(checked.status.code(), Some(0), "{name}: {checked:?}");
    }
}

/// Cuts and offcuts are looked at as well: whatever is wrong with them, the check says so.
#[test]
fn cuts_and_offcuts_that_are_wrong_are_rejected() {
    use serde_json::{Value, json};
    let folder = tempfile::tempdir().expect("a folder");
    let at = folder.path();
    std::fs::write(at.join("job.json"), twelve()).expect("written");
    assert_eq!(bofta(at, &["lay", "job.json", "-o", "lay.json", "--iterations", "100"]).status.code(), Some(0));
    let lay: Value = serde_json::from_str(&std::fs::read_to_string(at.join("lay.json")).expect("read")).expect("JSON");
    let said = |change: &dyn Fn(&mut Value)| -> (Option<i32>, String) {
        let mut wrong = lay.clone();
        change(&mut wrong["cloths"][0]);
        std::fs::write(at.join("wrong.json"), wrong.to_string()).expect("written");
        let checked = bofta(at, &["check", "job.json", "wrong.json"]);
        (checked.status.code(), String::from_utf8_lossy(&checked.stdout).into_owned())
    };
    assert_eq!(said(&|_| {}).0, Some(0));
    let freeing = |cloth: &Value| {
        let frees = |cut: &Value| cut["frees"].as_array().is_some_and(|f| !f.is_empty());
        cloth["cuts"].as_array().and_then(|cuts| cuts.iter().position(frees)).expect("a cut that frees")
    };
    type Wrong<'a> = (&'a str, &'a dyn Fn(&mut Value));
    let cases: [Wrong<'_>; 8] = [
        ("no cut frees", &|cloth| cloth["cuts"] = json!([])),
        ("which is not there", &|cloth| cloth["cuts"][0]["frees"] = json!(["p99 1"])),
        ("off already", &|cloth| {
            let n = freeing(cloth);
            let twice = cloth["cuts"][n].clone();
            cloth["cuts"].as_array_mut().expect("cuts").insert(n, twice);
        }),
        ("runs through", &|cloth| {
            let first = &cloth["placements"][0];
            let (x, y) = (first["x"].as_f64().unwrap_or(0.0) + 1.0, first["y"].as_f64().unwrap_or(0.0) + 1.0);
            cloth["cuts"][0]["line"] = json!([x - 1.0, y, x + 3.0, y]);
        }),
        ("still hangs", &|cloth| {
            let n = freeing(cloth);
            let early = cloth["cuts"][n]["frees"].clone();
            cloth["cuts"][n]["frees"] = json!([]);
            cloth["cuts"][0]["frees"] = early;
        }),
        ("lie over each other", &|cloth| {
            let one = json!({ "rect": [1.0, 1.0, 0.1, 0.1] });
            cloth["offcuts"] = json!([one, one]);
            // Off every piece: at the end of the cloth.
            let end = cloth["needed_length"].as_f64().unwrap_or(0.0) - 0.45;
            for n in 0..2 {
                cloth["offcuts"][n]["rect"] = json!([1.0, end, 5.0, 0.4]);
            }
        }),
        ("lies off the cloth", &|cloth| cloth["offcuts"] = json!([{ "rect": [60.0, 1.0, 5.0, 5.0] }])),
        ("used_share", &|cloth| cloth["used_share"] = json!(0.99)),
    ];
    for (says, change) in cases {
        let (status, text) = said(change);
        assert_eq!(status, Some(1), "{says}: {text}");
        assert!(text.contains(says), "{says}: {text}");
    }
}

/// Any one placement moved by 1/64 in into a neighbour or over the edge is rejected.
#[test]
fn a_moved_placement_is_rejected() {
    let folder = tempfile::tempdir().expect("a folder");
    let at = folder.path();
    // Three squares fill the usable width of 43 in, so every move sideways meets a neighbour or a selvedge.
    let pieces = [rect("a", 14.0, 10.0), rect("b", 15.0, 10.0), rect("c", 14.0, 10.0)].join(",");
    std::fs::write(at.join("job.json"), job(&pieces)).expect("written");
    assert_eq!(bofta(at, &["lay", "job.json", "-o", "lay.json", "--seconds", "0"]).status.code(), Some(0));
    let text = std::fs::read_to_string(at.join("lay.json")).expect("written");
    let lay: serde_json::Value = serde_json::from_str(&text).expect("JSON");
    for i in 0..3 {
        for nudge in [1.0 / 64.0, -1.0 / 64.0] {
            let mut moved = lay.clone();
            let x = &mut moved["cloths"][0]["placements"][i]["x"];
            *x = (x.as_f64().expect("a number") + nudge).into();
            std::fs::write(at.join("moved.json"), moved.to_string()).expect("written");
            let checked = bofta(at, &["check", "job.json", "moved.json"]);
            assert_eq!(checked.status.code(), Some(1), "piece {i} moved by {nudge}");
            assert!(!checked.stdout.is_empty(), "it says what is wrong");
        }
    }
}

#[test]
fn what_does_not_fit_exits_3_and_still_writes_the_lay() {
    let folder = tempfile::tempdir().expect("a folder");
    let at = folder.path();
    let pieces = [rect("wide", 50.0, 60.0), rect("small", 5.0, 5.0)].join(",");
    std::fs::write(at.join("job.json"), job(&pieces)).expect("written");
    let laid = bofta(at, &["lay", "job.json", "-o", "lay.json", "--seconds", "0"]);
    assert_eq!(laid.status.code(), Some(3));
    assert!(String::from_utf8_lossy(&laid.stderr).contains("wide"));
    assert_eq!(bofta(at, &["check", "job.json", "lay.json"]).status.code(), Some(0));
}

#[test]
fn bad_input_exits_2_with_one_line_and_writes_nothing() {
    let folder = tempfile::tempdir().expect("a folder");
    let at = folder.path();
    let good = twelve();
    for (name, text, field) in [
        ("truncated", good[..good.len() / 2].to_owned(), "ends at line"),
        ("unknown key", good.replacen("\"units\"", "\"unit\"", 1), "unit"),
        ("negative", good.replacen("[5,", "[-5,", 1), "pieces[0].outline"),
        ("narrow", good.replacen("\"width\": 44", "\"width\": 0.75", 1), "cloths[0].width"),
        (
            "a gap wider than the cloth",
            good.replacen("\"cloths\": [{", "\"rules\": { \"gap\": 50 }, \"cloths\": [{", 1),
            "rules.gap",
        ),
    ] {
        std::fs::write(at.join("bad.json"), text).expect("written");
        let laid = bofta(at, &["lay", "bad.json", "-o", "never.json", "--seconds", "0"]);
        assert_eq!(laid.status.code(), Some(2), "{name}");
        let said = String::from_utf8_lossy(&laid.stderr).into_owned();
        assert!(said.contains(field), "{name}: {said}");
        assert_eq!(said.trim().lines().count(), 1, "{said}");
        assert!(!at.join("never.json").exists());
    }
    assert_eq!(bofta(at, &["lay", "missing.json"]).status.code(), Some(2));
    assert_eq!(bofta(at, &["lay", "bad.json", "--seconds", "-1"]).status.code(), Some(2));
}

#[test]
fn a_database_is_backed_up() {
    let folder = tempfile::tempdir().expect("a folder");
    let data = folder.path().join("data");
    let server = support::Server::start("serve", &data);
    server.post("/api/projects", &serde_json::json!({ "name": "Tote", "system": "cm" }));
    let data = data.to_str().expect("plain");
    let done = bofta(folder.path(), &["backup", "copy.db", "--data", data]);
    assert_eq!(done.status.code(), Some(0), "{done:?}");
    assert_eq!(
        bofta(folder.path(), &["backup", "copy.db", "--data", data]).status.code(),
        Some(2),
        "it is there already"
    );
    assert_eq!(bofta(folder.path(), &["backup", "other.db", "--data", "nowhere"]).status.code(), Some(2));
}

/// Each family's specification is drafted with reasons, and its finished size worked out back.
#[test]
fn every_family_is_drafted() {
    let folder = tempfile::tempdir().expect("a folder");
    let at = folder.path();
    for family in ["tote", "drawstring", "pouch", "caddy", "duffel", "clutch", "cross-body", "found-tube"] {
        let spec = format!(r#"{{"format":"bofta-bag","version":1,"units":"in","family":"{family}"}}"#);
        std::fs::write(at.join("bag.json"), spec).expect("written");
        let drafted = bofta(at, &["draft", "bag.json"]);
        let said = String::from_utf8_lossy(&drafted.stdout).into_owned();
        assert_eq!(drafted.status.code(), Some(0), "{drafted:?}");
        assert!(said.contains(" = ") && said.contains("    wide "), "{family}: {said}");
        assert_eq!(said.contains("sewn, "), !matches!(family, "found-tube" | "cut-list"), "{family}: {said}");
        let back = bofta(at, &["draft", "bag.json", "--back"]);
        assert_eq!(back.status.code(), Some(0), "{back:?}");
        assert!(String::from_utf8_lossy(&back.stdout).contains("the pieces give"));
    }
    std::fs::write(
        at.join("bag.json"),
        r#"{"format":"bofta-bag","version":1,"units":"in","family":"tote","sizes":{"depth":"40"}}"#,
    )
    .expect("written");
    let refused = bofta(at, &["draft", "bag.json"]);
    assert_eq!(refused.status.code(), Some(2));
    assert!(String::from_utf8_lossy(&refused.stderr).contains("depth: The depth is 40 in"), "{refused:?}");
}

/// Every command, given what it cannot use: exit status 2, one sentence or clap's own usage, nothing written, no panic.
#[test]
fn what_a_command_cannot_use_is_told_in_a_line() {
    let folder = tempfile::tempdir().expect("a folder");
    let at = folder.path();
    std::fs::create_dir(at.join("a-folder")).expect("made");
    let files: [(&str, &[u8]); 6] = [
        ("empty.json", b""),
        ("spaces.json", b"   \n\n "),
        ("binary.json", &[0, 159, 146, 150, 255, 0, 1]),
        ("list.json", b"[]"),
        ("other.json", br#"{"format":"something","version":1}"#),
        ("newer.json", br#"{"format":"bofta-job","version":99,"units":"in","name":"x","pieces":[],"cloths":[]}"#),
    ];
    for (name, bytes) in files {
        std::fs::write(at.join(name), bytes).expect("written");
    }
    let named = files.iter().map(|(name, _)| *name).chain(["a-folder", "no-such-file.json"]);
    for name in named {
        for args in [
            vec!["lay", name, "-o", "never.json", "--seconds", "0"],
            vec!["check", name, name],
            vec!["draft", name],
            vec!["restore", name, "--data", "nowhere"],
        ] {
            let ended = bofta(at, &args);
            let said = String::from_utf8_lossy(&ended.stderr).into_owned();
            assert_eq!(ended.status.code(), Some(2), "{args:?}: {said}");
            assert!(!said.contains("panicked") && said.len() > 15, "{args:?}: {said}");
            assert!(said.trim().lines().count() <= 2, "{args:?}: {said}");
        }
    }
    assert!(!at.join("never.json").exists() && !at.join("nowhere/bofta.db").exists());
}

/// Options that are none, numbers that are none: told by name.
#[test]
fn options_are_checked() {
    let folder = tempfile::tempdir().expect("a folder");
    let at = folder.path();
    std::fs::write(at.join("job.json"), twelve()).expect("written");
    for (args, says) in [
        (vec!["lay", "job.json", "--seconds", "soon"], "seconds"),
        (vec!["lay", "job.json", "--iterations", "some"], "iterations"),
        (vec!["lay", "job.json", "--colour", "red"], "--colour"),
        (vec!["lay"], "JOB"),
        (vec!["draft"], "BAG"),
        (vec!["serve", "--listen", "here"], "listen"),
        (vec!["sew"], "sew"),
    ] {
        let ended = bofta(at, &args);
        let said = String::from_utf8_lossy(&ended.stderr).to_lowercase();
        assert_eq!(ended.status.code(), Some(2), "{args:?}: {said}");
        assert!(said.contains(&says.to_lowercase()), "{args:?}: {said}");
    }
    // What it can do is told by itself.
    let help = bofta(at, &["--help"]);
    let said = String::from_utf8_lossy(&help.stdout).into_owned();
    assert_eq!(help.status.code(), Some(0));
    for command in ["serve", "demo", "lay", "check", "draft", "backup", "restore"] {
        assert!(said.contains(command), "{command} is not told: {said}");
    }
}

/// A lay that fits nothing of its job is found out, whatever was done to it: another job's, a piece less, one twice.
#[test]
fn a_lay_of_another_job_is_rejected() {
    let folder = tempfile::tempdir().expect("a folder");
    let at = folder.path();
    std::fs::write(at.join("job.json"), twelve()).expect("written");
    let other = job(&[rect("x", 6.0, 6.0), rect("y", 7.0, 7.0)].join(","));
    std::fs::write(at.join("other.json"), other).expect("written");
    for (file, lay) in [("job.json", "lay.json"), ("other.json", "other-lay.json")] {
        assert_eq!(bofta(at, &["lay", file, "-o", lay, "--seconds", "0"]).status.code(), Some(0));
    }
    assert_eq!(bofta(at, &["check", "job.json", "other-lay.json"]).status.code(), Some(1));
    let text = std::fs::read_to_string(at.join("lay.json")).expect("written");
    let lay: serde_json::Value = serde_json::from_str(&text).expect("JSON");
    let changed = |change: &dyn Fn(&mut serde_json::Value)| {
        let mut changed = lay.clone();
        change(&mut changed);
        std::fs::write(at.join("changed.json"), changed.to_string()).expect("written");
        bofta(at, &["check", "job.json", "changed.json"])
    };
    let placements = |lay: &mut serde_json::Value| -> Vec<serde_json::Value> {
        lay["cloths"][0]["placements"].as_array().expect("placements").clone()
    };
    let untouched = changed(&|_| {});
    assert_eq!(untouched.status.code(), Some(0), "{untouched:?}");
    let one_less = changed(&|lay| {
        let mut all = placements(lay);
        all.pop();
        lay["cloths"][0]["placements"] = all.into();
    });
    assert_eq!(one_less.status.code(), Some(1), "{one_less:?}");
    let twice = changed(&|lay| {
        let mut all = placements(lay);
        all.push(all[0].clone());
        lay["cloths"][0]["placements"] = all.into();
    });
    assert_eq!(twice.status.code(), Some(1), "{twice:?}");
    let shorter = changed(&|lay| {
        let length = lay["cloths"][0]["buy_length"].as_f64().expect("a length");
        lay["cloths"][0]["buy_length"] = (length / 2.0).into();
    });
    assert_eq!(shorter.status.code(), Some(1), "{shorter:?}");
}

/// `bofta openapi | head`: when nobody reads on, the program ends without a word and without a fault.
#[test]
fn it_ends_quietly_when_its_reader_closes_the_pipe() {
    let script = r#"("$0" openapi; echo "ended with $?" >&2) | head -c 10 > /dev/null"#;
    let run = std::process::Command::new("sh").args(["-c", script, PROGRAM]).output().expect("a shell");
    assert_eq!(String::from_utf8_lossy(&run.stderr), "ended with 0\n");
}

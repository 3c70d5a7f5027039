//! Cloth that is there: said, laid down, short with its ways out, and what is left of it in the cupboard.
#![allow(missing_docs)]

mod support;

use serde_json::{Value, json};
use support::Server;

fn demo() -> (tempfile::TempDir, Server) {
    let folder = tempfile::tempdir().expect("a folder");
    let server = Server::start("demo", folder.path());
    (folder, server)
}

fn cloth<'a>(view: &'a Value, id: &str) -> &'a Value {
    view["cloths"].as_array().expect("cloths").iter().find(|c| c["id"] == id).expect("the cloth")
}

fn have(cloth: &str, value: &str) -> Value {
    json!([{ "edit": "cloth", "cloth": cloth, "field": "at_hand", "value": value }])
}

#[test]
fn what_is_said_is_laid_down_or_asked_about() {
    let (_folder, server) = demo();
    let (status, view) =
        server.edit("potting-bench-tote", have("seed-tray-check", "2 fat quarters and about half a yard"));
    assert_eq!(status, 200, "{view}");
    let check = cloth(&view, "seed-tray-check");
    assert_eq!(check["at_hand"], "2 fat quarters, about ½ yd");
    let things = check["things"].as_array().expect("things");
    assert_eq!(things.len(), 2, "no roll where nothing is bought");
    assert_eq!(
        (&things[0]["count"], &things[0]["about"], &things[1]["about"]),
        (&json!(2), &json!(false), &json!(true))
    );
    // All at one scale: half a yard is twice as wide and as long as a fat quarter is long.
    let of = |n: usize, side: &str| things[n]["drawing"][side].as_f64().expect("pixels");
    assert!((of(1, "height") - 2.0) / (of(0, "height") - 7.0) < 1.01 && of(1, "width") > of(0, "width") * 1.8);

    let (status, asked) = server.edit("potting-bench-tote", have("seed-tray-check", "a quarter"));
    assert_eq!(status, 422);
    assert_eq!(asked["problems"][0]["answers"].as_array().map(Vec::len), Some(2));
    let text = asked["problems"][0]["answers"][1]["text"].as_str().expect("an answer");
    assert_eq!(server.edit("potting-bench-tote", have("seed-tray-check", text)).0, 200);
    for wrong in ["a bag of crumbs", "900 fat quarters", "0 x 9", "12 fat quarters of gingham", &"9 x 9, ".repeat(300)]
    {
        let (status, refused) = server.edit("potting-bench-tote", have("seed-tray-check", wrong));
        assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!("at_hand")), "{wrong}: {refused}");
    }

    let lay_down = |text: &str| json!([{ "edit": "lay-down", "text": text }]);
    let (_, view) = server.edit("potting-bench-tote", lay_down("half a yard of ticking, 9 x 9 of seed-tray check"));
    assert_eq!(cloth(&view, "twine-ticking")["at_hand"], "½ yd");
    assert_eq!(cloth(&view, "seed-tray-check")["at_hand"], "fat quarter, 9 × 9 in");
    for (text, wanted) in
        [("half a yard", "of which cloth"), ("1 yd of gingham", "add it first"), (" ", "Say what there is")]
    {
        let (status, refused) = server.edit("potting-bench-tote", lay_down(text));
        assert_eq!(status, 422);
        assert!(refused["message"].as_str().is_some_and(|m| m.contains(wanted)), "{text}: {refused}");
    }
}

#[test]
fn ways_out_are_told_with_their_price_and_hold_what_they_say() {
    let (_folder, server) = demo();
    let (status, ways) = server.get("/api/projects/windfall-tote/ways-out");
    assert_eq!(status, 200);
    let ways = ways.as_array().expect("ways").clone();
    let whole: Vec<&Value> = ways.iter().filter(|w| w["whole"] == true).collect();
    assert_eq!(whole.len(), 2, "{ways:?}");
    assert!(whole[1]["told"].as_str().is_some_and(|t| t.ends_with(", 4.80")), "{ways:?}");
    for way in &whole {
        let (status, view) = server.edit("windfall-tote", way["edits"].clone());
        assert_eq!((status, &view["lay"]["missing"]), (200, &Value::Null), "{way}");
        assert!(server.get("/api/projects/windfall-tote/ways-out").1.as_array().is_some_and(Vec::is_empty));
        let undone = server.post("/api/projects/windfall-tote/undo", &json!({ "based_on": view["revision"] }));
        assert_eq!(undone.0, 200);
    }
    let (_, sized) = server.get("/api/projects/windfall-tote/largest");
    let percent = sized["percent"].as_u64().expect("a size");
    assert!(percent < 100 && sized["limited"].as_str().is_some_and(|l| l.contains("Lining panel")), "{sized}");
    let (_, view) = server.edit("windfall-tote", sized["edits"].clone());
    assert_eq!(view["lay"]["missing"], Value::Null, "what is said to fit, fits");
    assert_eq!(server.get("/api/projects/nobodys/ways-out").0, 404);
    assert_eq!(server.get("/api/projects/nobodys/largest").0, 404);
}

#[test]
fn what_is_left_is_entered_once_and_taken_back() {
    let (_folder, server) = demo();
    let path = "/api/projects/swap-table-pouch/left-over";
    let cupboard = || {
        let (_, found) = server.get("/api/cupboard?find=Radish");
        found["cloths"][0].clone()
    };
    let before = cupboard();
    assert_eq!((&before["owned"], before["account"].as_array().map(Vec::len)), (&json!("2 fat quarters"), Some(0)));
    let (status, refused) = server.post(path, &json!({}));
    assert_eq!(status, 409, "{refused}");
    let (_, view) = server.get("/api/projects/swap-table-pouch");
    server.edit("swap-table-pouch", json!([{ "edit": "steps-done", "count": view["steps"] }]));
    for _ in 0..2 {
        let (status, left) = server.post(path, &json!({}));
        assert_eq!((status, &left["in_cupboard"]), (200, &json!(true)), "{left}");
        let now = cupboard();
        assert!(now["owned"].as_str().is_some_and(|o| o.starts_with("fat quarter, ")), "{now}");
        assert_eq!(now["account"].as_array().map(Vec::len), Some(1), "entered twice it is there once");
    }
    // Taken into a project, the account stays in the cupboard.
    let (_, tote) = server.get("/api/projects/harvest-tote");
    let take = json!({ "based_on": tote["revision"], "cloth": before["id"] });
    let (status, tote) = server.post("/api/projects/harvest-tote/take", &take);
    assert_eq!(status, 200);
    assert!(cloth(&tote, "radish-dot")["at_hand"].as_str().is_some_and(|t| t.starts_with("fat quarter, ")));
    assert_eq!(server.delete(path), 200);
    assert_eq!(cupboard(), before);
}

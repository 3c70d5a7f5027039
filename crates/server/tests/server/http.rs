//! The server through its real interface.
#![allow(missing_docs)]

use crate::support;

use crate::any_edit;

use crate::support::Server;
use serde_json::{Value, json};
use std::io::{BufRead, BufReader};
use std::time::{Duration, Instant};

fn demo() -> (tempfile::TempDir, Server) {
    let folder = tempfile::tempdir().expect("a folder");
    let server = Server::start("demo", folder.path());
    (folder, server)
}

fn bag(field: &str, value: &str) -> Value {
    json!([{ "edit": "bag", "field": field, "value": value }])
}

fn size(view: &Value, field: &str) -> String {
    let groups = view["bag"]["groups"].as_array().expect("groups");
    let mut fields = groups.iter().flat_map(|g| g["fields"].as_array().expect("fields"));
    let size = fields.find(|s| s["key"] == field).expect("the field");
    size["length"]["text"].as_str().expect("text").to_owned()
}

#[test]
fn the_demo_has_fifteen_projects_that_are_laid() {
    let (_folder, server) = demo();
    let (status, shelf) = server.get("/api/projects");
    assert_eq!(status, 200);
    let cards = shelf["cards"].as_array().expect("cards");
    assert_eq!((cards.len(), &shelf["found"], &shelf["total"]), (17, &json!(17), &json!(17)));
    for card in cards {
        let (_, view) = server.get(&format!("/api/projects/{}", card["id"].as_str().expect("id")));
        // One is short on purpose, and says so.
        assert_eq!(view["lay"]["complete"], card["id"] != "windfall-tote", "{}", card["name"]);
        assert!(view["problems"].as_array().is_some_and(Vec::is_empty));
    }
}

#[test]
fn from_nothing_to_the_sheet() {
    let folder = tempfile::tempdir().expect("a folder");
    let server = Server::start("serve", folder.path());
    assert_eq!(server.get("/api/projects").1, json!({ "cards": [], "found": 0, "total": 0 }));
    let (status, view) = server.post("/api/projects", &json!({ "name": "Own tote", "system": "in" }));
    assert_eq!(status, 200);
    let id = view["id"].as_str().expect("id").to_owned();
    assert!(view["lay"].is_null());
    assert_eq!(server.get(&format!("/api/projects/{id}/steps/1")).0, 409, "nothing is laid yet");
    let (status, view) = server.edit(
        &id,
        json!([
            { "edit": "bag", "field": "width", "value": "15" },
            { "edit": "bag", "field": "height", "value": "13" },
            { "edit": "bag", "field": "depth", "value": "5" },
            { "edit": "add-cloth", "name": "Pea canvas", "material": "canvas" },
            { "edit": "cloth", "cloth": "pea-canvas", "field": "print", "value": "one-way" },
            { "edit": "cloth", "cloth": "pea-canvas", "field": "price", "value": "12" },
        ]),
    );
    assert_eq!(status, 200, "{view}");
    // (15 + 5 + 2 × ½) × (13 + 2½ + ½ + ½)
    assert_eq!(view["pieces"][0]["width"]["size"]["text"], "21");
    assert_eq!(view["pieces"][0]["height"]["size"]["text"], "16½");
    assert_eq!(view["lay"]["complete"], true);
    assert_eq!(view["purchases"].as_array().map(Vec::len), Some(1));
    let (status, step) = server.get(&format!("/api/projects/{id}/steps/3"));
    assert_eq!((status, &step["number"]), (200, &json!(3)));
    assert!(step["reading"]["words"].as_str().is_some_and(|w| w.ends_with("inches")));
    let total = view["steps"].as_u64().expect("steps");
    assert_eq!(server.get(&format!("/api/projects/{id}/steps/{}", total + 1)).0, 404);
    // How it is made: each step with its seams, to be ticked off.
    let (status, making) = server.get(&format!("/api/projects/{id}/making"));
    assert_eq!((status, &making["done"]), (200, &json!(0)));
    let outer = making["steps"].as_array().and_then(|s| s.iter().find(|s| s["key"] == "outer")).expect("a step");
    assert_eq!((&outer["phase"], &outer["seams"][0]["seam"]), (&json!("outer"), &json!("½ in")));
    assert!(outer["pieces"][0]["drawing"]["body"].as_str().is_some_and(|b| b.contains("stroke-dasharray")));
    let (status, view) = server.edit(&id, json!([{ "edit": "made", "step": "outer", "done": true }]));
    assert_eq!((status, &view["steps_made"]), (200, &json!(1)), "{view}");
    let (status, refused) = server.edit(&id, json!([{ "edit": "made", "step": "steam", "done": true }]));
    assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!("step")), "{refused}");
    for (file, kind, start) in [
        ("cut-sheet.pdf", "application/pdf", "%PDF-"),
        ("making-sheet.pdf", "application/pdf", "%PDF-"),
        ("cut-list.csv", "text/csv; charset=utf-8", "piece,part"),
        ("job.json", "application/json", "{"),
        ("lay.json", "application/json", "{"),
        ("lay/pea-canvas.svg", "image/svg+xml", "<svg"),
    ] {
        let (status, of_kind, body) = server.bytes(&format!("/api/projects/{id}/{file}"));
        assert_eq!((status, of_kind.as_str()), (200, kind));
        assert!(body.starts_with(start.as_bytes()), "{file}");
    }
    assert_eq!(server.bytes(&format!("/api/projects/{id}/lay/silk.svg")).0, 404);
}

/// Poppler measures the sheet independently: Letter is 8½ × 11 in (ANSI), A4 210 × 297 mm (ISO 216).
#[test]
fn the_sheet_is_printed_at_paper_size() {
    let (folder, server) = demo();
    for (id, size) in [("harvest-tote", "612 x 792 pts (letter)"), ("seed-swap-tote", "595.28 x 841.89 pts (A4)")] {
        let (_, _, pdf) = server.bytes(&format!("/api/projects/{id}/cut-sheet.pdf"));
        let file = folder.path().join("sheet.pdf");
        std::fs::write(&file, pdf).expect("written");
        let out = std::process::Command::new("pdfinfo").arg(&file).output().expect("pdfinfo is installed");
        let text = String::from_utf8_lossy(&out.stdout).into_owned();
        assert!(text.contains(size), "{text}");
    }
}

#[test]
fn bad_input_names_the_field_and_changes_nothing() {
    let (_folder, server) = demo();
    let (_, before) = server.get("/api/projects/harvest-tote");
    for (edits, field) in [
        (bag("width", "0"), "width"),
        (bag("width", "wide"), "width"),
        (bag("height", "-4"), "height"),
        (bag("height", "900 yd"), "height"),
        (bag("depth", "16"), "depth"),
        (bag("seam_side", "9"), "seam_side"),
        (json!([{ "edit": "cloth", "cloth": "oat-ticking", "field": "width", "value": "1/2" }]), "width"),
        (json!([{ "edit": "assign", "part": "outer", "cloth": "silk" }]), "cloth"),
        (json!([]), "edits"),
    ] {
        let (status, body) = server.edit("harvest-tote", edits.clone());
        assert_eq!(status, 422, "{edits}: {body}");
        assert_eq!(body["problems"][0]["field"], field, "{body}");
        assert!(body["message"].as_str().is_some_and(|m| m.len() > 10));
    }
    // The second edit cannot stand, so the first is not made either.
    let both =
        json!([{ "edit": "bag", "field": "width", "value": "18" }, { "edit": "bag", "field": "depth", "value": "x" }]);
    assert_eq!(server.edit("harvest-tote", both).0, 422);
    for broken in [
        "{",
        "{\"based_on\":1}",
        "{\"based_on\":1,\"edits\":[{\"edit\":\"fly\"}]}",
        "{\"based_on\":1,\"edits\":[],\"colour\":2}",
    ] {
        let (status, body) = server.post_text("/api/projects/harvest-tote/edits", broken);
        assert_eq!(status, if broken == "{" { 400 } else { 422 }, "{broken}");
        assert_eq!(body["problems"][0]["field"], "body");
    }
    assert_eq!(server.get("/api/projects/harvest-tote").1, before, "the last good state stays");
    assert_eq!(server.post("/api/projects", &json!({ "name": " ", "system": "in" })).1["problems"][0]["field"], "name");
    assert_eq!(
        server.post("/api/projects", &json!({ "name": "Tote", "system": "ell" })).1["problems"][0]["field"],
        "system"
    );
    assert_eq!(server.get("/api/projects/nobody").0, 404);
    assert_eq!(server.get("/api/nothing").0, 404);
}

#[test]
fn a_piece_that_fits_no_cloth_is_said_and_the_rest_is_laid() {
    let (_folder, server) = demo();
    let wide = json!([
        { "edit": "bag", "field": "strap_length", "value": "80" },
        { "edit": "bag", "field": "width", "value": "60" },
    ]);
    let (status, view) = server.edit("harvest-tote", wide);
    assert_eq!(status, 200, "{view}");
    assert_eq!(view["lay"]["complete"], false);
    let notices = view["notices"].to_string();
    assert!(notices.contains("Outer panel is 66½"), "{notices}");
}

/// A plan with too little of an owned cloth says so wherever it is shown, and is never called all cut or all bought.
#[test]
fn a_plan_that_is_not_whole_says_so_everywhere() {
    let (_folder, server) = demo();
    let own = json!([{ "edit": "cloth", "cloth": "donated-potato-sack-check", "field": "at_hand", "value": "25" }]);
    let (status, view) = server.edit("bulb-sack", own);
    assert_eq!(status, 200, "{view}");
    let headline = view["lay"]["missing"]["headline"].as_str().expect("it is short").to_owned();
    assert!(headline.ends_with("fit"), "{headline}");
    let told = view["lay"]["missing"]["told"][0].as_str().expect("a sentence");
    assert!(told.contains("yd more of"), "{told}");
    let tally = &view["tally"];
    assert_eq!((&tally["missing"], &tally["cloth"]), (&json!(headline), &json!("not enough cloth")));
    assert!(view["notices"].as_array().expect("notices").iter().any(|n| n["text"] == told && n["attention"] == true));
    let list = view["shopping_list"].as_str().expect("a list");
    assert!(list.contains(&headline) && list.contains(told), "{list}");
    let card = |server: &Server| {
        let (_, shelf) = server.get("/api/projects");
        let cards = shelf["cards"].as_array().expect("cards").clone();
        cards.into_iter().find(|c| c["id"] == "bulb-sack").expect("on the shelf")["state"].clone()
    };
    assert_eq!(card(&server), json!(headline));
    let (status, _, pdf) = server.bytes("/api/projects/bulb-sack/cut-sheet.pdf");
    assert_eq!(status, 200);
    let text = support::pdf_text(&pdf);
    assert!(text.contains("Not enough cloth") && text.contains(&headline), "{text}");
    let (_, lay) = server.get("/api/projects/bulb-sack/lay.json");
    assert!(lay["unplaced"].as_array().is_some_and(|u| !u.is_empty()) && lay["proven"] == false);
    // Cut as far as it goes, it is still not the whole bag.
    let steps = view["steps"].as_u64().expect("steps");
    let (_, view) = server.edit("bulb-sack", json!([{ "edit": "steps-done", "count": steps }]));
    assert_eq!(view["lay"]["missing"]["headline"], json!(headline));
    assert_eq!(card(&server), json!(format!("{headline} · {steps} of {steps} cut")));
}

/// A piece may be turned by hand; each way is told with what it changes.
#[test]
fn turns_of_a_piece_are_told_with_what_they_cost() {
    let (_folder, server) = demo();
    let (_, view) = server.get("/api/projects/kneeler-tote");
    let piece = view["pieces"][0]["id"].as_str().expect("an id").to_owned();
    let (status, turns) = server.get(&format!("/api/projects/kneeler-tote/pieces/{piece}/turns"));
    assert_eq!(status, 200, "{turns}");
    let turns = turns.as_array().expect("a list").clone();
    let lies: Vec<&str> = turns.iter().map(|t| t["lies"].as_str().expect("a key")).collect();
    assert_eq!(lies, ["drafted", "along", "across", "either", "bias"]);
    assert_eq!(turns.iter().filter(|t| t["chosen"] == true).count(), 1);
    assert!(turns.iter().any(|t| t["difference"].as_str().is_some_and(|d| d.starts_with('+'))), "{turns:?}");
    assert_eq!(server.get("/api/projects/kneeler-tote/pieces/none/turns").0, 404);
    let turned = json!([{ "edit": "turn", "piece": piece, "lies": "across" }]);
    let (status, view) = server.edit("kneeler-tote", turned);
    assert_eq!((status, &view["pieces"][0]["lies"]), (200, &json!("across")));
    assert_eq!(view["pieces"][0]["grain"], "across the width");
}

/// A piece is placed on its print, on a board that tells what that costs and how many the cloth holds.
#[test]
fn a_piece_is_placed_on_its_print() {
    let (_folder, server) = demo();
    let board = "/api/projects/flower-show-tote/pieces/outer-panel/print";
    let (status, seen) = server.get(board);
    assert_eq!((status, &seen["placed"], &seen["across"]["middle"]), (200, &json!(true), &json!(true)));
    assert_eq!(seen["up"]["size"]["text"], "22");
    assert!(seen["costs"].as_str().is_some_and(|c| c.starts_with('+')), "{}", seen["costs"]);
    assert!(seen["holds"].as_str().is_some_and(|h| h.contains("holds 2 of it")), "{}", seen["holds"]);
    let place = |across: &str, up: &str| {
        server.edit(
            "flower-show-tote",
            json!([{ "edit": "place-on-print", "piece": "outer-panel", "across": across, "up": up }]),
        )
    };
    let (status, view) = place("51", "");
    assert_eq!((status, &view["pieces"][0]["placed"]), (200, &json!("a motif 21 from the left, half way up")));
    let (status, refused) = place("3 ells", "2");
    assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!("across")));
    assert_eq!(place("", "").1["pieces"][0]["placed"], Value::Null);
    let (_, seen) = server.get(board);
    assert_eq!((&seen["placed"], &seen["holds"]), (&json!(false), &Value::Null));
    assert!(seen["costs"].as_str().is_some_and(|c| c.starts_with('+')), "what it would cost: {}", seen["costs"]);
    assert_eq!(server.get("/api/projects/flower-show-tote/pieces/sail/print").0, 404);
    let (status, refused) = server.get("/api/projects/flower-show-tote/pieces/lining-panel/print");
    assert_eq!(status, 409);
    assert!(refused["message"].as_str().is_some_and(|m| m.contains("Measure one repeat")), "{refused}");
}

/// What is called proven carries its reason, and the lay that is taken away its certificate, which is checked.
#[test]
fn proofs_are_told_and_taken_along() {
    let (_folder, server) = demo();
    let (_, view) = server.get("/api/projects/harvest-tote");
    let proven: Vec<&Value> =
        view["purchases"].as_array().expect("a list").iter().filter(|p| p["proven"] == true).collect();
    assert!(!proven.is_empty());
    for purchase in proven {
        let reason = purchase["reason"].as_str().expect("a reason");
        assert!(reason.ends_with('.') && reason.contains(" in"), "{reason}");
    }
    let (_, lay) = server.get("/api/projects/harvest-tote/lay.json");
    let certificates = lay["cloths"].as_array().expect("cloths").iter().filter(|c| !c["proof"]["by"].is_null()).count();
    assert!(certificates > 0, "{lay}");
}

#[test]
fn two_tabs_cannot_overwrite_each_other() {
    let (_folder, server) = demo();
    let (_, first) = server.get("/api/projects/harvest-tote");
    let on = |value: &str| json!({ "based_on": first["revision"], "edits": bag("height", value) });
    let (status, mine) = server.post("/api/projects/harvest-tote/edits", &on("14"));
    assert_eq!(status, 200);
    let (status, body) = server.post("/api/projects/harvest-tote/edits", &on("15"));
    assert_eq!(status, 409);
    assert_eq!(body["current"]["revision"], mine["revision"]);
    assert_eq!(size(&body["current"], "height"), "14", "the later one is shown what is there");
    let again = json!({ "based_on": body["current"]["revision"], "edits": bag("height", "15") });
    assert_eq!(server.post("/api/projects/harvest-tote/edits", &again).0, 200, "and can make the change on top");
}

#[test]
fn undo_and_redo_go_through_the_edits() {
    let (_folder, server) = demo();
    let (_, same) = server.edit("bulb-sack", bag("width", "11 in"));
    assert!(same["undo"].is_null() && same["revision"] == 1, "typed again as it was");
    let (_, one) = server.edit("bulb-sack", bag("width", "12"));
    assert_eq!(one["undo"], "Wide, at the base: 12 in");
    assert!(one["tally"]["cloth"].is_string());
    let (status, undone) = server.post("/api/projects/bulb-sack/undo", &json!({ "based_on": one["revision"] }));
    assert_eq!(
        (status, size(&undone, "width").as_str(), &undone["redo"]),
        (200, "11", &json!("Wide, at the base: 12 in"))
    );
    assert_eq!(server.post("/api/projects/bulb-sack/undo", &json!({ "based_on": undone["revision"] })).0, 409);
    let (_, redone) = server.post("/api/projects/bulb-sack/redo", &json!({ "based_on": undone["revision"] }));
    assert_eq!(size(&redone, "width"), "12");
}

#[test]
fn a_preview_keeps_nothing() {
    let (_folder, server) = demo();
    let (_, before) = server.get("/api/projects/harvest-tote");
    let body = json!({ "based_on": before["revision"], "edits": bag("depth", "7") });
    let (status, preview) = server.post("/api/projects/harvest-tote/preview", &body);
    assert_eq!((status, size(&preview, "depth").as_str()), (200, "7"));
    let change = preview["tally"]["change"].as_str().expect("a deeper bag takes more cloth");
    assert!(change.starts_with('+') && change.ends_with("yd"), "{change}");
    assert_eq!(server.get("/api/projects/harvest-tote").1, before);
}

/// The last acknowledged edit is there after SIGKILL in the middle of edits.
#[test]
fn acknowledged_edits_survive_a_kill() {
    let folder = tempfile::tempdir().expect("a folder");
    let mut id = None;
    let mut expected = String::new();
    // Two hundred in the long form: see scripts/fuzz.
    let rounds: u32 = std::env::var("BOFTA_KILLS").ok().and_then(|n| n.parse().ok()).unwrap_or(4);
    for round in 0..rounds {
        let server = Server::start("serve", folder.path());
        let id = id.get_or_insert_with(|| {
            let (_, view) = server.post("/api/projects", &json!({ "name": "Tote", "system": "in" }));
            view["id"].as_str().expect("id").to_owned()
        });
        let (_, found) = server.get(&format!("/api/projects/{id}"));
        if round > 0 {
            assert_eq!(size(&found, "height"), expected);
        }
        for n in 0..12 {
            expected = (10 + (round * 12 + n) % 40).to_string();
            assert_eq!(server.edit(id, bag("height", &expected)).0, 200);
        }
        server.kill();
    }
}

#[test]
fn cutting_freezes_the_plan() {
    let (_folder, server) = demo();
    let done = |count: u32| json!([{ "edit": "steps-done", "count": count }]);
    assert_eq!(server.edit("harvest-tote", done(2)).0, 200);
    let (status, body) = server.edit("harvest-tote", bag("width", "14"));
    assert_eq!((status, body["problems"][0]["field"].as_str()), (422, Some("steps_done")));
    assert_eq!(server.edit("harvest-tote", done(500)).0, 422, "more steps than the plan has");
    assert_eq!(server.get("/api/projects/harvest-tote/search").0, 409);
    let rename = json!([{ "edit": "project", "field": "name", "value": "Harvest tote, the second" }]);
    assert_eq!(server.edit("harvest-tote", rename).0, 200, "a name is no part of the plan");
    assert_eq!(server.edit("harvest-tote", done(0)).0, 200);
    assert_eq!(server.edit("harvest-tote", bag("width", "14")).0, 200);
}

#[test]
fn other_ways_and_other_widths_are_told() {
    let (_folder, server) = demo();
    let (status, ways) = server.get("/api/projects/harvest-tote/alternatives");
    assert_eq!(status, 200);
    let ways = ways.as_array().expect("ways");
    assert_eq!(ways[0]["chosen"], true);
    let names: Vec<_> = ways.iter().filter_map(|w| w["name"].as_str()).collect();
    assert!(names.contains(&"Edge to edge") && names.contains(&"Straps along"), "{names:?}");
    let along = ways.iter().find(|w| w["name"] == "Straps along").expect("there");
    let (status, view) = server.edit("harvest-tote", along["edits"].clone());
    assert_eq!((status, view["choices"]["straps"].as_str()), (200, Some("along")));
    let (_, widths) = server.get("/api/projects/harvest-tote/other-widths");
    assert_eq!(widths.as_array().map(Vec::len), Some(3), "one entry for each cloth bought");
}

#[test]
fn the_cupboard_lends_cloth_to_any_project() {
    let (_folder, server) = demo();
    let (_, before) = server.get("/api/projects/bulb-sack");
    let take = json!({ "based_on": before["revision"], "cloth": "seed-dot-lawn" });
    let (status, view) = server.post("/api/projects/bulb-sack/take", &take);
    assert_eq!(status, 200);
    assert_eq!(view["cloths"].as_array().map(Vec::len), Some(2));
    assert_eq!(view["cloths"][1]["look"]["pattern"], "seeds");
    assert_eq!(server.post("/api/projects/bulb-sack/take", &json!({ "based_on": 9, "cloth": "silk" })).0, 404);
    assert_eq!(server.post("/api/projects/bulb-sack/cloths/seed-dot-lawn/keep", &json!({})).0, 200);
    let (_, kept) = server.get("/api/cupboard");
    assert_eq!(server.delete("/api/cupboard/seed-dot-lawn"), 204);
    let (_, now) = server.get("/api/cupboard");
    assert_eq!(now["total"].as_u64(), kept["total"].as_u64().map(|k| k - 1));
    let (_, moss) = server.get("/api/cupboard?find=MOSS");
    assert!(
        moss["cloths"].as_array().is_some_and(|c| c.iter().all(|c| c["name"].to_string().contains("Moss"))),
        "{moss}"
    );
}

#[test]
fn projects_are_put_away_and_put_back() {
    let (_folder, server) = demo();
    assert_eq!(server.delete("/api/projects/bulb-sack"), 204);
    assert_eq!(server.get("/api/projects/bulb-sack").0, 404);
    assert_eq!(server.post("/api/projects/bulb-sack/restore", &json!({})).0, 204);
    assert_eq!(server.get("/api/projects/bulb-sack").0, 200);
    assert_eq!(server.delete("/api/projects/nobody"), 404);
}

/// Each better lay, progress and the end come as events; what was found is kept.
#[test]
fn the_search_streams_and_ends() {
    let (_folder, server) = demo();
    let stream = reqwest::blocking::Client::builder().timeout(Duration::from_secs(30)).build().expect("a client");
    let answer =
        stream.get(format!("{}/api/projects/seed-swap-tote/search?seconds=1", server.base)).send().expect("a stream");
    assert_eq!(answer.status(), 200);
    let lines: Vec<String> = BufReader::new(answer).lines().map_while(Result::ok).collect();
    let count = |name: &str| lines.iter().filter(|l| **l == format!("event: {name}")).count();
    assert!(count("lay") >= 1 && count("done") == 1, "{lines:?}");
    assert!((1..=12).contains(&count("progress")), "at most ten a second");
    let data = lines.iter().rev().find(|l| l.starts_with("data: ")).expect("the end");
    let done: Value = serde_json::from_str(&data[6..]).expect("JSON");
    assert!(done["iterations"].as_u64().is_some_and(|n| n > 100));
    let (_, view) = server.get("/api/projects/seed-swap-tote");
    assert_eq!(view["lay"]["complete"], true);
}

/// Leaving stops the search: the server is soon idle again and still answers.
#[test]
fn closing_the_stream_stops_the_search() {
    let (_folder, server) = demo();
    for _ in 0..8 {
        let answer = reqwest::blocking::get(format!("{}/api/projects/seed-swap-tote/search?seconds=600", server.base))
            .expect("a stream");
        let mut first = String::new();
        BufReader::new(answer).read_line(&mut first).expect("an event");
        assert!(first.starts_with("event:"));
    }
    // Eight searches of ten minutes would hold both threads; a glance answers as before once they have stopped.
    let start = Instant::now();
    assert_eq!(server.get("/api/projects/harvest-tote/alternatives").0, 200);
    assert!(start.elapsed() < Duration::from_secs(60), "searches go on after their streams were closed");
}

#[test]
fn pages_are_served_for_any_place_in_the_application() {
    let (_folder, server) = demo();
    for path in ["/", "/projects/harvest-tote/lay", "/cupboard"] {
        let (status, kind, body) = server.bytes(path);
        assert_eq!((status, kind.as_str()), (200, "text/html"));
        let page = String::from_utf8_lossy(&body).into_owned();
        assert!(page.contains("<div id=\"root\">"));
        assert!(
            !page.contains("http://") && !page.contains("https://") || page.contains("www.w3.org"),
            "nothing is fetched from elsewhere"
        );
    }
}

/// By the rules of OpenAPI, as a validator of its own reads them; and every answer says what it is.
#[test]
fn the_document_is_valid() {
    let web = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("../../web");
    let script = "import { createConfig, lintFromString } from '@redocly/openapi-core'; import { readFileSync } from 'node:fs'; \
        const config = await createConfig({ extends: ['spec'] }); \
        const found = await lintFromString({ source: readFileSync('openapi.json', 'utf8'), config }); \
        for (const p of found) console.log(p.ruleId, p.message, p.location[0]?.pointer); process.exit(found.length === 0 ? 0 : 1);";
    let validated = std::process::Command::new("node")
        .args(["--input-type=module", "-e", script])
        .current_dir(&web)
        .output()
        .expect("node is there");
    assert!(validated.status.success(), "{}", String::from_utf8_lossy(&validated.stdout));
    let document: Value =
        serde_json::from_slice(&std::fs::read(web.join("openapi.json")).expect("read")).expect("JSON");
    for (path, item) in document["paths"].as_object().expect("paths") {
        for (method, operation) in item.as_object().expect("calls") {
            let responses = operation["responses"].as_object().expect("responses");
            for status in ["400", "403", "421", "500", "503", "507"] {
                assert!(responses.contains_key(status), "{method} {path} does not tell {status}");
            }
            assert!(
                responses.values().all(|r| r["description"].as_str().is_some_and(|d| !d.is_empty())),
                "{method} {path}"
            );
        }
    }
}

/// The committed document and the types made from it are those of this code.
#[test]
fn the_generated_types_are_current() {
    let web = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("../../web");
    let now = std::process::Command::new(support::PROGRAM).arg("openapi").output().expect("it runs").stdout;
    let now = String::from_utf8(now).expect("text");
    let committed = std::fs::read_to_string(web.join("openapi.json")).expect("committed");
    assert_eq!(committed.trim(), now.trim(), "run `bofta openapi > web/openapi.json` and `npm run api`");
    let folder = tempfile::tempdir().expect("a folder");
    let fresh = folder.path().join("schema.ts");
    let made = std::process::Command::new("npx")
        .args(["openapi-typescript", "openapi.json", "-o"])
        .arg(&fresh)
        .current_dir(&web)
        .output()
        .expect("npx is there");
    assert!(made.status.success(), "{}", String::from_utf8_lossy(&made.stderr));
    let types = std::fs::read_to_string(web.join("src/api/generated/schema.ts")).expect("committed");
    assert_eq!(types, std::fs::read_to_string(fresh).expect("made"), "run `npm run api` in web");
}

/// The view says each measure in figures and in words, each reason's terms add up, each mark says from where.
#[test]
fn the_view_tells_every_measure_and_reason() {
    let (_folder, server) = demo();
    for id in ["harvest-tote", "seed-swap-tote", "bulb-sack"] {
        let (_, view) = server.get(&format!("/api/projects/{id}"));
        for piece in view["pieces"].as_array().expect("pieces") {
            for side in ["width", "height"] {
                let dimension = &piece[side];
                let terms = dimension["terms"].as_array().expect("terms");
                let sum: i64 = terms.iter().filter_map(|t| t["value"]["exact"].as_i64()).sum();
                assert_eq!(Some(sum), dimension["size"]["exact"].as_i64(), "{id} {} {side}", piece["name"]);
                let words = dimension["size"]["words"].as_str().expect("words");
                assert!(words.ends_with("inches") || words.ends_with("centimetres"), "{words}");
            }
            for mark in piece["marks"].as_array().expect("marks") {
                let text = mark.as_str().expect("text");
                assert!(text.contains("raw edge") || text.contains("of the middle"), "{text}");
            }
        }
    }
}

#[test]
fn notices_say_what_is_likely_wrong_and_where() {
    let (_folder, server) = demo();
    let attention = |view: &Value, stage: &str| {
        let notices = view["notices"].as_array().expect("notices").iter();
        notices.filter(|n| n["stage"] == stage && n["attention"] == true).count()
    };
    let (_, before) = server.get("/api/projects/harvest-tote");
    assert_eq!(attention(&before, "bag"), 0);
    let (_, view) = server.edit("harvest-tote", bag("pocket_height", "12"));
    assert_eq!(attention(&view, "bag"), 1, "the pocket runs into the boxing");
    let remove = json!([{ "edit": "remove-cloth", "cloth": "oat-ticking" }]);
    let (_, view) = server.edit("harvest-tote", remove);
    assert_eq!(attention(&view, "cloth"), 2, "lining and pocket have no cloth");
    assert!(view["lay"].is_null() && view["purchases"].as_array().is_some_and(Vec::is_empty));
    // A tightly needed, unsquared cloth is warned of.
    let trim = json!([{ "edit": "cloth", "cloth": "donated-potato-sack-check", "field": "trim", "value": "0" }]);
    let (status, _) = server.edit("bulb-sack", trim);
    assert_eq!(status, 200);
}

/// Steps lead from the whole cloth to the last corner; bundles fill up as pieces come off.
#[test]
fn steps_fill_the_bundles() {
    let (_folder, server) = demo();
    let (_, view) = server.get("/api/projects/harvest-tote");
    let total = view["steps"].as_u64().expect("steps");
    let mut freed = 0;
    for n in 1..=total {
        let (status, step) = server.get(&format!("/api/projects/harvest-tote/steps/{n}"));
        assert_eq!(status, 200);
        let cut: u64 = step["bundles"].as_array().expect("bundles").iter().filter_map(|b| b["cut"].as_u64()).sum();
        assert_eq!(cut, freed, "before step {n}");
        freed += step["frees"].as_array().map_or(0, |f| f.len() as u64);
        assert!(step["before"].as_array().is_some_and(|b| !b.is_empty()), "each step has its checks");
        let straight = step["reading"].is_object();
        assert_eq!(straight, step["ruler"].is_object(), "a reading is shown on the ruler");
        assert!(step["drawing"]["body"].as_str().is_some_and(|b| b.contains("#A9412A")), "the cut is lit");
    }
    assert_eq!(freed, view["tally"]["pieces"].as_u64().expect("pieces"));
}

/// A preview that cannot stand is refused like an edit, and a stale take is told of the present state.
#[test]
fn previews_and_takes_are_checked_too() {
    let (_folder, server) = demo();
    let (_, view) = server.get("/api/projects/harvest-tote");
    let body = json!({ "based_on": view["revision"], "edits": bag("depth", "40") });
    let (status, refusal) = server.post("/api/projects/harvest-tote/preview", &body);
    assert_eq!((status, refusal["problems"][0]["field"].as_str()), (422, Some("depth")));
    server.edit("harvest-tote", bag("depth", "5"));
    let take = json!({ "based_on": view["revision"], "cloth": "seed-dot-lawn" });
    let (status, refusal) = server.post("/api/projects/harvest-tote/take", &take);
    assert_eq!((status, size(&refusal["current"], "depth").as_str()), (409, "5"));
}

#[test]
fn every_family_is_chosen_and_drawn() {
    let folder = tempfile::tempdir().expect("a folder");
    let server = Server::start("serve", folder.path());
    let (_, view) = server.post("/api/projects", &json!({ "name": "Own bag", "system": "in" }));
    let id = view["id"].as_str().expect("id").to_owned();
    server.edit(
        &id,
        json!([{ "edit": "add-cloth", "name": "Pea canvas", "material": "canvas" },
        { "edit": "add-cloth", "name": "Stiff", "material": "interfacing" }]),
    );
    let (status, families) = server.get("/api/families");
    assert_eq!(status, 200);
    for family in families.as_array().expect("families") {
        assert!(family["drawing"]["body"].as_str().is_some_and(|b| b.len() > 100), "{family}");
        let (status, view) = server.edit(&id, json!([{ "edit": "family", "family": family["key"] }]));
        assert_eq!(status, 200, "{view}");
        assert_eq!(view["bag"]["family"], family["key"]);
        if family["key"] != "cut-list" {
            assert_eq!(view["lay"]["complete"], true, "{}", family["key"]);
            assert!(!view["bag"]["anchors"].as_array().expect("anchors").is_empty());
            for f in view["bag"]["finished"].as_array().expect("sizes") {
                let off =
                    f["back"]["exact"].as_i64().expect("a length") - f["asked"]["exact"].as_i64().expect("a length");
                assert!(off.abs() < 4 * 25_400, "{f}");
            }
        }
    }
    let (status, refused) = server.edit(&id, json!([{ "edit": "family", "family": "rucksack" }]));
    assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!("family")));
    let (status, refused) = server.edit(&id, json!([{ "edit": "scale", "percent": 5 }]));
    assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!("percent")));
}

/// A line that can be read in two ways comes with its question, its own words and the other readings; a reading that is
/// chosen is a row like any other.
#[test]
fn a_line_of_two_readings_is_asked_about() {
    let folder = tempfile::tempdir().expect("a folder");
    let server = Server::start("serve", folder.path());
    let text = "outer 15 x 16 x 2\nwebbing 2 x 24\n2 @ 4 x 26 straps\nFor the lining";
    let (status, found) = server.post("/api/cut-list/text", &json!({ "text": text, "system": "in" }));
    assert_eq!((status, found["rows"].as_array().map(Vec::len)), (200, Some(2)), "{found}");
    let asked = &found["rows"][0];
    assert_eq!((&asked["said"], &asked["text"]), (&json!("outer 15 x 16 x 2"), &json!("2 × Outer, 15 × 16 in")));
    assert!(asked["asks"].as_str().is_some_and(|ask| ask.ends_with('?')), "{asked}");
    let others: Vec<&str> =
        asked["others"].as_array().expect("others").iter().filter_map(|o| o["text"].as_str()).collect();
    assert_eq!(others, ["15 × Outer, 16 × 2 in", "1 × Outer, 15 × 16 in"]);
    assert_eq!((&found["rows"][1]["asks"], &found["rows"][1]["row"]["count"]), (&Value::Null, &json!(2)));
    assert!(found["unread"][0]["why"].as_str().is_some_and(|why| why.contains("is bought")), "{found}");
    assert!(found["notes"][0].as_str().is_some_and(|note| note.contains("“For the lining”")), "{found}");
    let (_, view) = server.post("/api/projects", &json!({ "name": "From a page", "system": "in" }));
    let id = view["id"].as_str().expect("id").to_owned();
    let rows = json!([asked["others"][0]["row"], found["rows"][1]["row"]]);
    let (status, view) = server.edit(&id, json!([{ "edit": "rows", "rows": rows }]));
    assert_eq!((status, &view["pieces"][0]["count"]), (200, &json!(15)), "{view}");
}

/// Every family but a list says what is sewn to what, in lengths of the ruler; a lining that is smaller says by how much.
#[test]
fn a_bag_says_what_is_sewn_to_what() {
    let folder = tempfile::tempdir().expect("a folder");
    let server = Server::start("serve", folder.path());
    let (_, view) = server.post("/api/projects", &json!({ "name": "Seams", "system": "in", "family": "pouch" }));
    let id = view["id"].as_str().expect("id").to_owned();
    let field = |key: &str, value: &str| json!({ "edit": "bag", "field": key, "value": value });
    let edits = json!([field("style", "all-boxed"), field("width", "8"), field("height", "4"), field("depth", "3")]);
    let (status, view) = server.edit(&id, edits);
    assert_eq!(status, 200, "{view}");
    let named = |view: &Value, name: &str| {
        let seams = view["seams"].as_array().expect("seams").clone();
        seams.into_iter().find(|s| s["name"] == name).unwrap_or(Value::Null)
    };
    let zip = named(&view, "along the zip");
    assert_eq!((&zip["length"], &zip["apart"]), (&json!("8 in"), &Value::Null), "{view}");
    let corner = named(&view, "across the corner");
    assert_eq!((&corner["one"], &corner["length"]), (&json!("Outer panel, the corner’s leg across"), &json!("3 in")));
    let (status, view) = server.edit(&id, json!([{ "edit": "family", "family": "tote" }]));
    assert_eq!(status, 200, "{view}");
    let edits = json!([field("width", "14"), field("height", "13"), field("depth", "4"), field("lining", "smaller")]);
    let (status, view) = server.edit(&id, edits);
    let mouth = named(&view, "round the mouth");
    assert!(status == 200 && mouth["apart"].as_str().is_some_and(|a| a.contains("¼ in longer on purpose")), "{view}");
}

#[test]
fn a_pasted_list_becomes_pieces() {
    let folder = tempfile::tempdir().expect("a folder");
    let server = Server::start("serve", folder.path());
    let (_, view) = server.post("/api/projects", &json!({ "name": "From a page", "system": "in" }));
    let id = view["id"].as_str().expect("id").to_owned();
    let text = "Outer: cut 2, 15 x 16 1/2\nLining: 2, 15 x 16 1/2\n3 pretty buttons";
    let (status, found) = server.post("/api/cut-list/text", &json!({ "text": text, "system": "in" }));
    assert_eq!(
        (status, found["rows"].as_array().map(Vec::len), found["bought"][0]["line"].as_u64()),
        (200, Some(2), Some(3))
    );
    let rows: Vec<&Value> = found["rows"].as_array().expect("rows").iter().map(|r| &r["row"]).collect();
    let (status, view) = server.edit(&id, json!([{ "edit": "rows", "rows": rows }]));
    assert_eq!((status, view["pieces"].as_array().map(Vec::len)), (200, Some(2)), "{view}");
    // A row is edited alone, and refused alone.
    let row = |field: &str, value: &str| json!([{ "edit": "row", "row": 1, "field": field, "value": value }]);
    let (_, view) = server.edit(&id, row("shape", "notched"));
    assert_eq!(view["bag"]["rows"][1]["shape"], "notched");
    let (status, refused) = server.edit(&id, row("height", "0"));
    assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!("rows[1].height")));
    let (status, refused) = server.edit(&id, json!([{ "edit": "row", "row": 7, "field": "name", "value": "x" }]));
    assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!("rows[7].name")));
    let (_, view) = server.edit(&id, row("count", "1"));
    let said = view["notices"].to_string();
    assert!(said.contains("counts differ"), "{said}");
    // Out as outlines, and in again.
    let (status, kind, dxf) = server.bytes(&format!("/api/projects/{id}/outlines.dxf"));
    assert_eq!((status, kind.as_str()), (200, "image/vnd.dxf"));
    let read = |name: &str, body: Vec<u8>| {
        let answer = reqwest::blocking::Client::new()
            .post(format!("{}/api/cut-list/file?name={name}&system=in", server.base))
            .header("content-type", "application/octet-stream")
            .body(body)
            .send()
            .expect("an answer");
        (answer.status().as_u16(), answer.json::<Value>().unwrap_or(Value::Null))
    };
    let (status, again) = read("list.dxf", dxf);
    assert_eq!((status, again["rows"].as_array().map(Vec::len)), (200, Some(2)), "{again}");
    for (name, body) in [
        ("list.xlsx", b"PK\x03\x04 xl/workbook".to_vec()),
        ("list.svg", b"<svg".to_vec()),
        ("list.odt", vec![]),
        ("list.csv", vec![0xff, 0xfe]),
    ] {
        let (status, refused) = read(name, body);
        assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!("file")), "{name}");
    }
    // A file too large is read to its end, so that the sentence reaches whoever sends it.
    let (status, refused) = read("large.dxf", vec![b' '; 50 << 20]);
    assert_eq!((status, &refused["problems"][0]["field"]), (413, &json!("file")), "{refused}");
}

#[test]
fn measured_sizes_lengths_at_hand_and_typed_corners_change_the_plan() {
    let (_folder, server) = demo();
    let (_, view) = server.get("/api/projects/kneeler-duffel");
    let reel = view["bag"]["reels"][0].clone();
    assert!(reel["length"].is_string() && reel["at_hand"] == "", "{reel}");
    let at_hand = |lengths: &str| json!([{ "edit": "lengths-at-hand", "kind": reel["key"], "width": reel["width"]["exact"], "lengths": lengths }]);
    let (status, view) = server.edit("kneeler-duffel", at_hand("500"));
    let (enough, laid) = (&view["bag"]["reels"][0], &view["lay"]["complete"]);
    assert_eq!((status, laid), (200, &json!(true)));
    assert!(
        enough["length"].is_null() && enough["from_hand"][0].as_str().is_some_and(|f| f.contains("left")),
        "{enough}"
    );
    let (status, refused) = server.edit("kneeler-duffel", at_hand("500, much"));
    assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!("lengths")));
    // The caddy has nothing that is measured: a piece that cannot be is refused by its field.
    let measured = json!([{ "edit": "measured", "piece": "outer-panel", "width": "4", "height": "4" }]);
    let (status, refused) = server.edit("bottle-caddy", measured);
    assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!("piece")));
    let row = |field: &str, value: &str| json!([{ "edit": "row", "row": 0, "field": field, "value": value }]);
    let (status, view) = server.edit("tool-roll-list", row("corners", "0 × 0; 16 × 0; 14 × 9 1/2; 2 × 9 1/2"));
    assert_eq!((status, view["bag"]["rows"][0]["corners"].as_str()), (200, Some("0 × 0; 16 × 0; 14 × 9½; 2 × 9½")));
    let before = view["pieces"][0]["width"]["size"]["exact"].as_i64().expect("a width");
    let (_, view) = server.edit("tool-roll-list", row("seam", "3/8"));
    assert!(view["pieces"][0]["width"]["size"]["exact"].as_i64().expect("a width") > before);
    let (status, refused) = server.edit("tool-roll-list", row("corners", "0 × 0; 4 × 4; 4 × 0; 0 × 4"));
    assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!("rows[0].corners")));
}

fn named<'a>(view: &'a Value, id: &str) -> &'a Value {
    let pieces = view["pieces"].as_array().expect("pieces");
    pieces.iter().find(|p| p["id"] == id).unwrap_or_else(|| panic!("there is a {id}"))
}

/// A panel is quilted; while its cloth is being cut it is measured, and the lining, on another cloth, follows; what is on
/// the cloth that is being cut may not.
#[test]
fn a_panel_measured_while_cutting_goes_on() {
    let (_folder, server) = demo();
    let id = "harvest-tote";
    let up = json!([{ "edit": "make-up", "piece": "outer-panel", "field": "quilted", "value": "yes" }]);
    let (status, view) = server.edit(id, up);
    assert_eq!((status, &named(&view, "outer-panel")["made_up"]["summary"]), (200, &json!("quilted")), "{view}");
    let (cloths, steps) =
        (view["lay"]["cloths"].as_array().expect("cloths").clone(), view["steps"].as_u64().expect("steps"));
    assert!(cloths.len() > 1 && steps > 4);
    let (status, _) = server.edit(id, json!([{ "edit": "steps-done", "count": 2 }]));
    assert_eq!(status, 200);
    let exact =
        |view: &Value, piece: &str, side: &str| named(view, piece)[side]["size"]["exact"].as_i64().expect("a size");
    let typed = |units: i64| format!("{}/8", units / 25_400);
    let size = (exact(&view, "lining-panel", "width") - 2 * 25_400, exact(&view, "lining-panel", "height"));
    let outer =
        json!([{ "edit": "measured", "piece": "outer-panel", "width": typed(size.0), "height": typed(size.1) }]);
    let (status, after) = server.edit(id, outer);
    assert_eq!(status, 200, "{after}");
    assert_eq!(exact(&after, "lining-panel", "width"), size.0);
    assert_eq!((&after["steps_done"], &after["lay"]["complete"]), (&json!(2), &json!(true)));
    // The cloth that is begun lies as it lay.
    assert_eq!(after["lay"]["cloths"][0]["needed"], cloths[0]["needed"]);
    assert_eq!(after["lay"]["cloths"][0]["drawing"]["body"], cloths[0]["drawing"]["body"]);
    // Any other change waits until the cutting is begun again.
    let (status, refused) = server.edit(id, bag("width", "16"));
    assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!("steps_done")));
    // Begun again it may change, and what was measured stays known.
    let (status, again) = server.edit(id, json!([{ "edit": "steps-done", "count": 0 }]));
    assert_eq!((status, &named(&again, "outer-panel")["measured"]["is"]), (200, &json!(true)));
}

/// What follows from the measure lies on cloth that is being cut: refused with the piece's name.
#[test]
fn a_measure_that_changes_what_is_being_cut_is_refused() {
    let (_folder, server) = demo();
    let id = "harvest-tote";
    let up =
        |field: &str, value: &str| json!({ "edit": "make-up", "piece": "outer-panel", "field": field, "value": value });
    let (_, before) = server.get(&format!("/api/projects/{id}"));
    let cloth = named(&before, "outer-panel")["cloth"].clone();
    let lining = json!({ "edit": "assign", "part": "lining", "cloth": cloth });
    let (status, view) = server.edit(id, json!([up("quilted", "yes"), lining]));
    assert_eq!(status, 200, "{view}");
    let begun = view["lay"]["cloths"].as_array().expect("cloths").iter().position(|c| c["cloth"] == cloth);
    assert_eq!(begun, Some(0), "the cloth is cut first");
    server.edit(id, json!([{ "edit": "steps-done", "count": 1 }]));
    let small = json!([{ "edit": "measured", "piece": "outer-panel", "width": "10", "height": "10" }]);
    let (status, refused) = server.edit(id, small);
    assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!("measured")), "{refused}");
}

/// All panels of the caddy with one backing are cut from one block: the steps say fuse, then cut through both.
#[test]
fn a_fused_block_is_cut_at_the_table() {
    let (_folder, server) = demo();
    let id = "bottle-caddy";
    let (status, view) = server.edit(id, bag("backing", "block"));
    assert_eq!(status, 200, "{view}");
    assert_eq!(view["lay"]["complete"], true, "{view}");
    let steps = view["steps"].as_u64().expect("steps");
    let of_block: Vec<Value> = (1..=steps)
        .map(|n| server.get(&format!("/api/projects/{id}/steps/{n}")).1)
        .filter(|s| s["title"].as_str().is_some_and(|t| t.starts_with("Block of")))
        .collect();
    assert!(of_block[0]["how"].as_str().is_some_and(|h| h.starts_with("Fuse it")), "{:?}", of_block[0]);
    assert!(of_block.iter().all(|s| s["drawing"]["body"].as_str().is_some_and(|b| b.len() > 100)));
    let freed: usize = of_block.iter().map(|s| s["frees"].as_array().map_or(0, Vec::len)).sum();
    let panels = ["front", "side", "base"].map(|p| named(&view, p)["count"].as_u64().expect("a count"));
    assert_eq!(freed as u64, panels.iter().sum::<u64>());
    // What the last step frees makes every bundle whole.
    let (_, last) = server.get(&format!("/api/projects/{id}/steps/{steps}"));
    for bundle in last["bundles"].as_array().expect("bundles") {
        let freed = last["frees"].as_array().expect("frees").iter().filter(|f| f["bundle"] == bundle["name"]).count();
        assert_eq!(bundle["cut"].as_u64().map(|n| n + freed as u64), bundle["of"].as_u64(), "{bundle}");
    }
}

/// Of a half-round panel the block is cut round a template, and every step of it is drawn.
#[test]
fn a_shaped_panel_is_cut_from_its_block() {
    let (_folder, server) = demo();
    let id = "seed-packet-pouch";
    let whole = json!({ "edit": "make-up", "piece": "outer-panel", "field": "front", "value": "whole" });
    let block = json!({ "edit": "bag", "field": "backing", "value": "block" });
    let (status, view) = server.edit(id, json!([whole, block]));
    assert_eq!((status, &view["lay"]["complete"]), (200, &json!(true)), "{view}");
    assert!(named(&view, "outer-panel")["made_up"].is_null(), "what is cut from a block is in one piece");
    let all: Vec<Value> = (1..=view["steps"].as_u64().expect("steps"))
        .map(|n| server.get(&format!("/api/projects/{id}/steps/{n}")).1)
        .collect();
    assert!(all.iter().all(|s| s["drawing"]["body"].as_str().is_some_and(|b| b.len() > 100)));
    let round = |s: &&Value| {
        s["title"] == "Block of outer" && s["how"].as_str().is_some_and(|h| h.starts_with("Lay the template for"))
    };
    assert_eq!(all.iter().filter(round).count(), 2);
}

#[test]
fn a_listed_strap_is_asked_how_it_is_folded() {
    let (_folder, server) = demo();
    let id = "tool-roll-list";
    let row = |field: &str, value: &str| json!({ "edit": "row", "row": 0, "field": field, "value": value });
    let strap = json!([row("part", "straps"), row("shape", "rectangle"), row("width", "5"), row("height", "24")]);
    let (status, view) = server.edit(id, strap);
    assert_eq!(status, 200, "{view}");
    let folds = view["bag"]["rows"][0]["folds"].as_array().expect("folds").clone();
    // Common practice: 5 in folded in four finishes 1¼.
    assert!(folds.iter().any(|f| f["key"] == "folded-in-four" && f["note"] == "1¼ wide when finished"), "{folds:?}");
    assert!(view["notices"].to_string().contains("Say how it is folded"));
    let (_, view) = server.edit(id, json!([row("fold", "folded-in-four")]));
    assert_eq!(view["bag"]["rows"][0]["fold"], "folded-in-four");
    assert!(named(&view, "row-1")["note"].as_str().is_some_and(|n| n.contains("1¼ wide")));
    let (status, refused) = server.edit(id, json!([row("fold", "in half")]));
    assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!("rows[0].fold")));
}

#[test]
fn a_bag_is_fitted_and_scaled() {
    let (_folder, server) = demo();
    let fit = json!([{ "edit": "fit", "width": "9", "height": "12", "thick": "3", "ease": "1/2", "above": "1" }]);
    let (status, view) = server.edit("harvest-tote", fit);
    assert_eq!(status, 200, "{view}");
    assert_eq!(["width", "height", "depth"].map(|f| size(&view, f)), ["9½", "13", "3½"].map(str::to_owned));
    let (status, refused) = server.edit(
        "harvest-tote",
        json!([{ "edit": "fit", "width": "broad", "height": "12", "thick": "3", "ease": "0", "above": "1" }]),
    );
    assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!("width")));
    let (_, view) = server.edit("harvest-tote", json!([{ "edit": "scale", "percent": 200 }]));
    assert_eq!(size(&view, "width"), "19");
}

/// What is put away can be put back later, or thrown away for good, and only from the drawer.
#[test]
fn the_drawer_keeps_what_is_put_away() {
    let (_folder, server) = demo();
    assert_eq!(server.get("/api/drawer").1, json!({ "projects": [], "cloths": [] }));
    let (_, cupboard) = server.get("/api/cupboard");
    let cloth = cupboard["cloths"][0]["id"].as_str().expect("a cloth").to_owned();
    assert_eq!(server.delete("/api/projects/onion-sack"), 204);
    assert_eq!(server.delete(&format!("/api/cupboard/{cloth}")), 204);
    let (_, drawer) = server.get("/api/drawer");
    assert_eq!((&drawer["projects"][0]["id"], &drawer["cloths"][0]["id"]), (&json!("onion-sack"), &json!(cloth)));
    assert_eq!(server.get("/api/projects/onion-sack").0, 404);
    assert_eq!(server.get("/api/cupboard").1["total"], json!(cupboard["total"].as_u64().expect("a number") - 1));
    assert_eq!(server.delete("/api/drawer/projects/harvest-tote"), 404, "it is on the shelf, not in the drawer");
    server.post("/api/projects/onion-sack/restore", &json!({}));
    server.post(&format!("/api/cupboard/{cloth}/restore"), &json!({}));
    assert_eq!(server.get("/api/projects/onion-sack").0, 200);
    assert_eq!(server.get("/api/cupboard").1["total"], cupboard["total"]);
    assert_eq!(server.delete(&format!("/api/drawer/cloths/{cloth}")), 204);
    assert_eq!(server.get("/api/cupboard").1["total"], cupboard["total"], "what is in use is not thrown away");
    assert_eq!(server.delete("/api/projects/onion-sack"), 204);
    assert_eq!(server.delete("/api/drawer/projects/onion-sack"), 200);
    assert_eq!(server.get("/api/drawer").1["projects"], json!([]));
}

#[test]
fn a_conflict_names_both_changes() {
    let (_folder, server) = demo();
    let id = "bulb-sack";
    let (_, view) = server.get(&format!("/api/projects/{id}"));
    let based_on = view["revision"].clone();
    assert_eq!(server.edit(id, bag("width", "12")).0, 200);
    let path = format!("/api/projects/{id}/edits");
    let (status, refused) = server.post(&path, &json!({ "based_on": based_on, "edits": bag("height", "14") }));
    assert_eq!((status, &refused["yours"]), (409, &json!("Tall: 14 in")));
    assert_eq!(refused["current"]["undo"], json!("Wide, at the base: 12 in"));
    // What could not stand in any case is refused as a conflict all the same, without a name.
    let (status, refused) = server.post(&path, &json!({ "based_on": based_on, "edits": bag("height", "tall") }));
    assert_eq!((status, &refused["yours"]), (409, &Value::Null));
}

#[test]
fn a_bag_begins_with_its_kind_and_sizes_go_along() {
    let folder = tempfile::tempdir().expect("a folder");
    let server = Server::start("serve", folder.path());
    let new = |family: &str| json!({ "name": "Bag", "system": "cm", "family": family });
    let (_, families) = server.get("/api/families");
    for family in families.as_array().expect("families") {
        let key = family["key"].as_str().expect("a key");
        let (status, view) = server.post("/api/projects", &new(key));
        assert_eq!((status, &view["bag"]["family"], &view["undo"]), (200, &json!(key), &Value::Null));
    }
    let (status, refused) = server.post("/api/projects", &new("hammock"));
    assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!("family")));
    let (_, tote) = server.post("/api/projects", &new("tote"));
    let id = tote["id"].as_str().expect("an id");
    let (status, view) = server.edit(id, bag("width", "12"));
    assert_eq!(status, 200, "{view}");
    let told = view["came_along"].as_array().expect("sentences");
    assert!(told.iter().any(|t| t.as_str().is_some_and(|t| t.starts_with("Pocket, wide"))), "{told:?}");
    assert_eq!(server.get(&format!("/api/projects/{id}")).1["came_along"], json!([]), "told once");
}

#[test]
fn prices_have_the_currency_they_were_typed_in() {
    let (_folder, server) = demo();
    let id = "harvest-tote";
    let (_, view) = server.get(&format!("/api/projects/{id}"));
    let cloth = view["cloths"][0]["id"].clone();
    let price = |typed: &str| json!([{ "edit": "cloth", "cloth": cloth, "field": "price", "value": typed }]);
    let (status, view) = server.edit(id, price("12,50 €"));
    assert_eq!((status, &view["currency"]), (200, &json!("€")));
    assert!(view["tally"]["cost"].as_str().expect("a cost").starts_with("€ "));
    assert!(view["shopping_list"].as_str().expect("a list").contains(", € "));
    let (status, refused) = server.edit(id, price("$9"));
    assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!("price")));
    assert!(refused["message"].as_str().expect("a sentence").contains("are in €, this one is in $"));
    assert_eq!(server.edit(id, price("9")).0, 200);
    let pounds = json!([{ "edit": "project", "field": "currency", "value": "£" }]);
    assert_eq!(server.edit(id, pounds).1["currency"], json!("£"));
    for no in ["12 kr 50", "€", "1.2.3", "-4", "€ 12 $", "1e9"] {
        assert_eq!(server.edit(id, price(no)).0, 422, "{no}");
    }
}

/// Every list of choices the screens offer is the server's, and every key of it can be sent back.
#[test]
fn choices_are_told_by_the_server() {
    let (_folder, server) = demo();
    let (_, choices) = server.get("/api/choices");
    let keys = |list: &str| -> Vec<String> {
        let all = choices[list].as_array().unwrap_or_else(|| panic!("{list}"));
        all.iter().map(|c| c["key"].as_str().expect("a key").to_owned()).collect()
    };
    assert!(keys("materials").contains(&"interfacing".to_owned()));
    let cloth = |field: &str, value: &str| json!([{ "edit": "cloth", "cloth": "bean-flower-canvas", "field": field, "value": value }]);
    for (list, field) in [("materials", "material"), ("prints", "print"), ("print_up", "up")] {
        for key in keys(list) {
            assert_eq!(server.edit("harvest-tote", cloth(field, &key)).0, 200, "{field} {key}");
        }
    }
    for key in keys("rulers") {
        let edits = json!([{ "edit": "project", "field": "ruler", "value": key }]);
        let inch =
            choices["rulers"].as_array().expect("rulers").iter().any(|r| r["key"] == *key && r["system"] == "in");
        assert_eq!(server.edit("harvest-tote", edits).0, if inch { 200 } else { 422 }, "{key}");
    }
    let shapes = keys("row_shapes");
    for key in &shapes {
        let edits = json!([{ "edit": "row", "row": 0, "field": "shape", "value": key }]);
        assert_eq!(server.edit("tool-roll-list", edits).0, 200, "{key}");
    }
}

/// Parts come and go through the same edits as everything else, and are seen on their walls.
#[test]
fn parts_are_put_on_moved_and_refused() {
    let (_folder, server) = demo();
    let (status, view) = server.edit("harvest-tote", json!([{ "edit": "add-part", "part": "pocket", "wall": "back" }]));
    assert_eq!(status, 200);
    assert_eq!((&view["bag"]["parts"][0]["name"], &view["bag"]["parts"][0]["id"]), (&json!("Back pocket"), &json!(1)));
    let faces = view["bag"]["faces"].as_array().expect("faces");
    let back = faces.iter().find(|f| f["wall"] == "back").expect("a back");
    let places = back["places"].as_array().expect("places");
    let of = |key: &str, value: Value| places.iter().find(|p| p[key] == value).expect("it is on the wall").clone();
    assert_eq!(of("part", json!(1))["down"]["field"], "below");
    // The straps the body has itself are there too: an end moved outward brings them nearer to the edge.
    let straps = of("own", json!("straps"));
    assert_eq!((&straps["ends"]["field"], &straps["ends"]["outward"]), (&json!("strap_inset"), &json!(-1)));
    // Only walls the bag has are offered.
    let fields = view["bag"]["parts"][0]["fields"].as_array().expect("fields");
    let wall = fields.iter().find(|f| f["key"] == "wall").expect("where");
    assert_eq!(wall["answers"].as_array().map(Vec::len), Some(faces.len()));
    let bad = [
        (json!([{ "edit": "part", "id": 1, "field": "width", "value": "70" }]), "part-1.width"),
        (json!([{ "edit": "part", "id": 1, "field": "width", "value": "wide" }]), "part-1.width"),
        (json!([{ "edit": "part", "id": 1, "field": "lid", "value": "1" }]), "part-1.lid"),
        (json!([{ "edit": "part", "id": 7, "field": "width", "value": "1" }]), "id"),
        (json!([{ "edit": "add-part", "part": "wing" }]), "part"),
        (json!([{ "edit": "add-part", "part": "pocket", "wall": "lid" }]), "part-1.wall"),
        (json!([{ "edit": "take-part-off", "id": 9 }]), "id"),
    ];
    for (edit, field) in bad {
        let (status, refused) = server.edit("harvest-tote", edit.clone());
        assert_eq!(status, 422, "{edit}");
        let named = refused["problems"][0]["field"].as_str().expect("a field");
        assert!(named == field || named.ends_with(&field[6..]), "{edit}: {named}");
    }
    let (_, view) =
        server.edit("harvest-tote", json!([{ "edit": "copy-part", "id": 1 }, { "edit": "take-part-off", "id": 1 }]));
    assert_eq!(view["bag"]["parts"][0]["name"], "Front pocket");
    // A part named in a bag file is drafted; one nobody knows is refused by its place.
    let (status, list) = server.edit("tool-roll-list", json!([{ "edit": "add-part", "part": "pocket" }]));
    assert_eq!((status, &list["problems"][0]["field"]), (422, &json!("part")));
}

/// Edits of every kind, undo and redo over the interface against the same made by the core alone: what stands there stands
/// here, what is refused is refused with the same fields, a preview says the same and keeps nothing, and what is kept in the
/// end is the same document.
#[test]
fn a_history_over_the_interface_is_the_one_of_the_core() {
    use any_edit::any_edit;
    use bofta_core::lay::Random;
    use bofta_core::measure::System;
    use bofta_core::project::Project;
    use bofta_core::project::kept::{read_project, write_project};

    let folder = tempfile::tempdir().expect("a folder");
    let server = Server::start("serve", folder.path());
    let (mut stood, mut refused, mut back) = (0, 0, 0);
    for number in 0..5 {
        let random = &mut Random::new(90 + number);
        let (status, begun) = server.post("/api/projects", &json!({ "name": "Trial", "system": "in" }));
        assert_eq!(status, 200, "{begun}");
        let id = begun["id"].as_str().expect("an id").to_owned();
        let mut revision = begun["revision"].as_i64().expect("a revision");
        let mut states: Vec<Project> = vec![Project::new("Trial", System::Inches)];
        let mut at = 0;
        for step in 0..45 {
            let told = format!("history {number}, step {step}");
            if random.below(6) == 0 {
                let way = ["undo", "redo"][random.below(2)];
                let may = if way == "undo" { at > 0 } else { at + 1 < states.len() };
                let (status, view) =
                    server.post(&format!("/api/projects/{id}/{way}"), &json!({ "based_on": revision }));
                assert_eq!(status, if may { 200 } else { 409 }, "{told}: {view}");
                if may {
                    back += 1;
                    at = if way == "undo" { at - 1 } else { at + 1 };
                    revision = view["revision"].as_i64().expect("a revision");
                    assert_eq!(view["name"], states[at].name, "{told}");
                }
                continue;
            }
            let edit = any_edit(&states[at], random);
            let body = json!({ "based_on": revision, "edits": [edit] });
            let before = server.get(&format!("/api/projects/{id}")).1;
            let (looked, preview) = server.post(&format!("/api/projects/{id}/preview"), &body);
            assert_eq!(
                server.get(&format!("/api/projects/{id}")).1["revision"],
                before["revision"],
                "{told}: looking kept something"
            );
            let (status, view) = server.post(&format!("/api/projects/{id}/edits"), &body);
            match states[at].edited(&edit) {
                Ok((next, _)) => {
                    assert_eq!((looked, status), (200, 200), "{told}, {edit:?}: {view}");
                    assert_eq!(view["pieces"], preview["pieces"], "{told}, {edit:?}");
                    assert_eq!(view["bag"]["finished"], preview["bag"]["finished"], "{told}, {edit:?}");
                    if next != states[at] {
                        stood += 1;
                        states.truncate(at + 1);
                        states.push(next);
                        at += 1;
                    }
                }
                Err(problems) => {
                    refused += 1;
                    assert_eq!((looked, status), (422, 422), "{told}, {edit:?}: {view}");
                    let fields: Vec<&str> = problems.iter().map(|p| p.field.as_str()).collect();
                    let said: Vec<&str> = view["problems"]
                        .as_array()
                        .expect("problems")
                        .iter()
                        .filter_map(|p| p["field"].as_str())
                        .collect();
                    assert_eq!(said, fields, "{told}, {edit:?}");
                }
            }
            if status == 200 {
                revision = view["revision"].as_i64().expect("a revision");
            }
        }
        let (status, _, kept) = server.bytes(&format!("/api/projects/{id}/document.json"));
        assert_eq!(status, 200);
        let kept = read_project(&String::from_utf8(kept).expect("text")).expect("read");
        // As it is kept: what a document does not say is left out on both sides.
        let model = read_project(&write_project(&states[at]).expect("written")).expect("read");
        assert_eq!(kept, model, "history {number}");
    }
    assert!(stood > 60 && refused > 30 && back > 10, "{stood} stood, {refused} refused, {back} back and forth");
}

/// What is there by the piece is told, kept, counted and taken back; the file of the list says the same as the screen.
#[test]
fn what_is_there_by_the_piece_comes_off_the_list() {
    let (_folder, server) = demo();
    let hardware = |view: &Value, name: &str| -> Value {
        let all = view["bag"]["hardware"].as_array().expect("hardware");
        all.iter().find(|h| h["name"] == name).unwrap_or_else(|| panic!("no {name}")).clone()
    };
    let (_, view) = server.get("/api/projects/kneeler-duffel");
    let ring = hardware(&view, "D-ring");
    assert_eq!(
        (&ring["count"], &ring["at_hand"], &ring["taken"], &ring["buy"]),
        (&json!(2), &json!(0), &json!(0), &json!(2))
    );
    let size = ring["size"]["exact"].clone();
    let have = |count: &str| json!([{ "edit": "pieces-at-hand", "name": "D-ring", "size": size, "count": count }]);
    let (status, view) = server.edit("kneeler-duffel", have("3"));
    assert_eq!(status, 200, "{view}");
    let ring = hardware(&view, "D-ring");
    assert_eq!((&ring["at_hand"], &ring["taken"], &ring["buy"]), (&json!(3), &json!(2), &json!(0)));
    // Nothing else is changed by it: not the lay, not what another thing has.
    assert_eq!(hardware(&view, "Swivel hook")["buy"], json!(2));
    let (status, refused) = server.edit("kneeler-duffel", have("a pair"));
    assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!("count")), "{refused}");
    assert_eq!(hardware(&server.get("/api/projects/kneeler-duffel").1, "D-ring")["at_hand"], json!(3));
    let (_, now) = server.get("/api/projects/kneeler-duffel");
    let (status, undone) = server.post("/api/projects/kneeler-duffel/undo", &json!({ "based_on": now["revision"] }));
    assert_eq!((status, &hardware(&undone, "D-ring")["buy"]), (200, &json!(2)), "{undone}");
}

/// The hardware line `name` of a view.
fn line(view: &Value, name: &str) -> Value {
    let all = view["bag"]["hardware"].as_array().expect("hardware");
    all.iter().find(|h| h["name"] == name).unwrap_or_else(|| panic!("no {name}")).clone()
}

/// What the cupboard offers for the lines by the piece and by the length of a bag, the first of each that is named.
fn offer(server: &Server, project: &str, list: &str, label: &str) -> (Value, Value) {
    let (status, beside) = server.get(&format!("/api/projects/{project}/notions"));
    assert_eq!(status, 200, "{beside}");
    let lines = beside[list].as_array().expect("lines").clone();
    let found = lines.iter().find_map(|line| {
        let offers = line["offers"].as_array()?;
        Some((line["need"].clone(), offers.iter().find(|o| o["label"] == label)?.clone()))
    });
    found.unwrap_or_else(|| panic!("no {label}: {beside}"))
}

/// Notions: put in, found, laid with a bag whose purchase they come off, put back, used, taken back; two bags never have
/// the same, and what is undone in a bag leaves the cupboard as it is.
#[test]
fn notions_are_kept_and_laid_with_bags() {
    let (_folder, server) = demo();
    let lay = |project: &str, notion: &str, body: &Value| {
        server.post(&format!("/api/projects/{project}/notions/{notion}"), body)
    };
    let there = |id: &str| -> Value {
        let (_, all) = server.get("/api/notions?count=200");
        all["notions"].as_array().expect("notions").iter().find(|n| n["id"] == id).expect("it is there").clone()
    };
    assert_eq!(there("d-rings-1")["there"], "9");
    assert_eq!(there("d-rings-1")["with_bags"], json!(["2 with Raffle cross-body"]));
    // The demo laid two with the cross-body: nothing of them is bought.
    let (_, view) = server.get("/api/projects/raffle-cross-body");
    assert_eq!((&line(&view, "D-ring")["buy"], &line(&view, "D-ring")["at_hand"]), (&json!(0), &json!(0)));
    // A longer zip does for the pouch; taken, it is on the list no more, and another bag cannot have it.
    let (need, zip) = offer(&server, "swap-table-pouch", "hardware", "Zip, 12 in");
    assert_eq!(
        (&zip["fits"], &zip["take"]),
        (&json!("1 in longer, so shorten it"), &json!([{ "text": "1", "amount": "1" }]))
    );
    let take = |need: &Value, amount: &str| json!({ "what": "take", "amount": amount, "need": need });
    let (status, view) = lay("swap-table-pouch", "zips-12", &take(&need, "1"));
    assert_eq!((status, &line(&view, "Zip")["buy"]), (200, &json!(0)), "{view}");
    let (status, refused) = lay("swap-table-pouch", "zips-12", &take(&need, "5"));
    assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!("amount")), "{refused}");
    assert!(refused["message"].as_str().expect("told").contains("You have Zip, 12 in: 1"), "{refused}");
    // A ring does for no zip.
    assert_eq!(lay("swap-table-pouch", "d-rings-1", &take(&need, "1")).0, 422);
    let (status, shopping) = server.get("/api/projects/swap-table-pouch/notions");
    assert_eq!((status, &shopping["idle"]), (200, &json!([])));
    // Smaller, the bag needs another zip: the one that lies with it is told, and goes back.
    let (_, view) = server.edit("swap-table-pouch", bag("width", "8"));
    assert_eq!(line(&view, "Zip")["buy"], json!(1));
    let (_, beside) = server.get("/api/projects/swap-table-pouch/notions");
    assert_eq!(beside["idle"][0]["with_bag"], "1", "{beside}");
    assert_eq!(lay("swap-table-pouch", "zips-12", &json!({ "what": "put-back" })).0, 200);
    assert_eq!(there("zips-12")["there"], "2");
    // Webbing by the length: the whole length is laid there, and what is left comes back.
    let (need, webbing) = offer(&server, "kneeler-duffel", "reels", "Webbing, 4 cm wide");
    assert_eq!(
        webbing["take"],
        json!([{ "text": "300 cm", "amount": "300 cm" }, { "text": "150 cm", "amount": "150 cm" }])
    );
    let before = server.get("/api/projects/kneeler-duffel").1["bag"]["reels"][0]["length"].clone();
    let (status, view) = lay("kneeler-duffel", "webbing-4", &take(&need, "300 cm"));
    assert_eq!(status, 200, "{view}");
    assert!(view["bag"]["reels"][0]["length"] != before, "{view}");
    let (_, lies) = offer(&server, "kneeler-duffel", "reels", "Webbing, 4 cm wide");
    assert_eq!(lies["with_bag"], "300 cm");
    let used = |left: &str| json!({ "what": "used", "amount": left });
    assert_eq!(lay("kneeler-duffel", "webbing-4", &used("400")).0, 422);
    assert_eq!(lay("kneeler-duffel", "webbing-4", &used("20")).0, 200);
    let kept = there("webbing-4");
    assert_eq!(
        (&kept["there"], &kept["entries"][0]["text"]),
        (&json!("150 cm, 20 cm"), &json!("300 cm cut for Kneeler duffel, 20 cm left"))
    );
    // Taken back, it lies with the bag again.
    let number = kept["entries"][0]["number"].to_string();
    let (status, back) = server.post("/api/notions/webbing-4", &json!({ "what": "take-back", "value": number }));
    assert_eq!((status, &back["with_bags"]), (200, &json!(["300 cm with Kneeler duffel"])), "{back}");
}

/// What is typed into the cupboard: more of one kind is laid to it, fields that cannot stand are named, what is there is not
/// forgotten, and the rest is there when one cannot be read.
#[test]
fn what_is_typed_of_notions() {
    let (_folder, server) = demo();
    let new = |kind: &str, name: &str, size: &str, amount: &str| {
        let body =
            json!({ "kind": kind, "name": name, "size": size, "amount": amount, "place": "new tin", "system": "in" });
        server.post("/api/notions", &body)
    };
    let (status, rings) = new("piece", "d-rings", "1", "4");
    assert_eq!(
        (status, &rings["id"], &rings["there"], &rings["place"]),
        (200, &json!("d-rings-1"), &json!("13"), &json!("new tin"))
    );
    let (status, other) = new("piece", "D-ring", "1 1/4", "4");
    assert!(status == 200 && other["id"] != "d-rings-1", "{other}");
    for (kind, name, size, amount, field) in [
        ("piece", "", "1", "4", "name"),
        ("piece", "Zip", "long", "4", "size"),
        ("piece", "Zip", "8", "many", "amount"),
        ("piece", "Zip", "8", "", "amount"),
        ("webbing", "", "1", "3 yd, x", "amount"),
        ("rope", "", "1", "3 yd", "kind"),
    ] {
        let (status, refused) = new(kind, name, size, amount);
        assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!(field)), "{refused}");
    }
    let change = |what: &str, value: &str| server.post("/api/notions/snaps", &json!({ "what": what, "value": value }));
    assert_eq!(change("throw-away", "2").1["there"], "4");
    assert_eq!(change("correct", "7").1["entries"][0]["text"], "counted: 3 more");
    assert_eq!((change("correct", "7").0, change("throw-away", "8").0, change("take-back", "x").0), (422, 422, 422));
    assert_eq!(server.delete("/api/notions/snaps"), 409);
    assert_eq!(change("correct", "none").1["there"], "none");
    assert_eq!(server.delete("/api/notions/snaps"), 204);
    assert_eq!((server.delete("/api/notions/snaps"), change("put-in", "1").0), (404, 404));
    let (_, found) = server.get("/api/notions?find=zip%20jar");
    assert_eq!((&found["found"], found["total"].as_u64()), (&json!(4), Some(12)));
}

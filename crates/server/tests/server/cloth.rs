//! Cloth that is there: said, laid down, short with its ways out, and what is left of it in the cupboard.
#![allow(missing_docs)]

use crate::support;

use crate::support::Server;
use serde_json::{Value, json};

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

/// Two bags that are to be cut from one fat quarter are told, in both of them and in the cupboard; cut and entered, the
/// other one is told that none is there.
#[test]
fn what_two_bags_plan_with_is_told() {
    let (_folder, server) = demo();
    let new = json!({ "name": "Shared stripe", "material": "cotton", "system": "in", "at_hand": "2 yd", "place": "" });
    let (status, cloth) = server.post("/api/cupboard", &new);
    assert_eq!(status, 200, "{cloth}");
    let id = cloth["id"].as_str().expect("an id");
    let take = |project: &str| {
        let (_, view) = server.get(&format!("/api/projects/{project}"));
        let body = json!({ "based_on": view["revision"], "cloth": id });
        let (status, view) = server.post(&format!("/api/projects/{project}/take"), &body);
        assert_eq!(status, 200, "{view}");
        let parts = ["outer", "lining", "straps", "pocket"];
        let all: Vec<Value> = parts.iter().map(|p| json!({ "edit": "assign", "part": p, "cloth": id })).collect();
        assert_eq!(server.edit(project, Value::Array(all)).0, 200);
    };
    let over = |from: &str, cloth: &str| -> Vec<String> {
        let (status, all) = server.get(from);
        assert_eq!(status, 200, "{all}");
        let of = all.as_array().expect("a list").iter().find(|c| c["cloth"] == cloth);
        of.map_or(vec![], |c| {
            c["over"].as_array().expect("lines").iter().filter_map(|l| l.as_str().map(str::to_owned)).collect()
        })
    };
    take("harvest-tote");
    assert_eq!(over("/api/projects/harvest-tote/claims", id), Vec::<String>::new());
    take("kneeler-tote");
    for from in ["/api/projects/harvest-tote/claims", "/api/projects/kneeler-tote/claims", "/api/cupboard/claims"] {
        let told = over(from, id);
        assert_eq!(told.len(), 1, "{from}");
        let both = told[0].contains("Harvest tote") && told[0].contains("Kneeler tote");
        assert!(both && told[0].ends_with("72 in is there."), "{told:?}");
    }
    // Laid with the first bag it is that bag's: the other is told that none is there, and nothing is promised twice.
    let aside = |bag: &str, what: &str| {
        server.post(&format!("/api/projects/{bag}/cloths/{id}/aside"), &json!({ "what": what }))
    };
    let mine = |bag: &str| {
        let (_, all) = server.get(&format!("/api/projects/{bag}/claims"));
        all.as_array().expect("a list").iter().find(|c| c["cloth"] == id).expect("planned with").clone()
    };
    assert_eq!((&mine("harvest-tote")["laid"], &mine("harvest-tote")["to_lay"]), (&json!(""), &json!("2 yd")));
    assert_eq!(aside("harvest-tote", "lay").0, 204);
    assert_eq!((&mine("harvest-tote")["laid"], &mine("harvest-tote")["to_lay"]), (&json!("2 yd"), &json!("")));
    assert_eq!(mine("kneeler-tote")["to_lay"], "");
    let told = over("/api/projects/kneeler-tote/claims", id);
    assert!(
        told.len() == 1 && told[0].starts_with("Kneeler tote is") && told[0].ends_with("none is there."),
        "{told:?}"
    );
    for (bag, what) in [("harvest-tote", "lay"), ("kneeler-tote", "lay"), ("kneeler-tote", "put-back")] {
        let (status, refused) = aside(bag, what);
        assert_eq!(status, 409, "{bag} {what}: {refused}");
    }
    assert_eq!(aside("harvest-tote", "borrow").0, 422);
    assert_eq!(server.post("/api/projects/harvest-tote/cloths/nothing/aside", &json!({ "what": "lay" })).0, 404);
    let (_, found) = server.get("/api/cupboard?find=Shared");
    assert_eq!(found["cloths"][0]["with_bags"], json!(["2 yd with Harvest tote"]));
    assert_eq!(aside("harvest-tote", "put-back").0, 204);
    assert_eq!(over("/api/projects/kneeler-tote/claims", id).len(), 1);
    // Of a bag that is not laid it is not known what it plans with: that is said, and counted as nothing.
    let bare = json!([{ "edit": "unassign", "part": "outer", "cloth": id }]);
    assert_eq!(server.edit("kneeler-tote", bare).0, 200);
    assert!(over("/api/cupboard/claims", id).is_empty());
    let (_, all) = server.get("/api/cupboard/claims");
    let of = all.as_array().expect("a list").iter().find(|c| c["cloth"] == id).expect("it is planned with");
    let told = of["planned"].to_string();
    assert!(told.contains("Kneeler tote lists this cloth and has no layout yet"), "{told}");
    // A bag that is put away plans with nothing.
    assert!((200..300).contains(&server.delete("/api/projects/kneeler-tote")));
    assert!(over("/api/cupboard/claims", id).is_empty());
    assert_eq!(server.get("/api/projects/none/claims").0, 404);
}

/// Ways of dressing the bag are held beside each other, each with its drawing and what it takes; none is chosen twice.
#[test]
fn tries_are_held_side_by_side() {
    let (_folder, server) = demo();
    let of = "/api/projects/harvest-tote/tries";
    let (status, only) = server.get(of);
    assert_eq!(
        (status, only.as_array().map(Vec::len), &only[0]["chosen"], &only[0]["name"]),
        (200, Some(1), &json!(true), &json!(""))
    );
    let (_, view) = server.get("/api/projects/harvest-tote");
    let cloths: Vec<&str> =
        view["cloths"].as_array().expect("cloths").iter().filter_map(|c| c["id"].as_str()).collect();
    let edits = json!([
        { "edit": "keep-try", "name": "As drawn" },
        { "edit": "swap-cloths", "one": cloths[0], "other": cloths[1] },
    ]);
    assert_eq!(server.edit("harvest-tote", edits).1["tries"], 1);
    let (_, tries) = server.get(of);
    let tries = tries.as_array().expect("a list");
    let names: Vec<&str> = tries.iter().filter_map(|t| t["name"].as_str()).collect();
    assert_eq!((names, tries.iter().filter(|t| t["chosen"] == true).count()), (vec!["", "As drawn"], 1));
    assert_ne!(tries[0]["drawing"]["body"], tries[1]["drawing"]["body"]);
    assert!(tries.iter().all(|t| t["bought"] != "" && t["lacks"].is_null()), "{tries:?}");
    assert_eq!(tries[1]["cloths"][0], "Bean-flower canvas: outer, straps");
    assert!(tries[1]["difference"].as_str().is_some_and(|d| !d.is_empty()) && tries[0]["difference"] == "");
    // Two drawings stand on one page: no id is in both.
    let ids = |t: &Value| -> Vec<String> {
        let body = t["drawing"]["body"].as_str().expect("drawn").to_owned();
        body.split(" id=\"").skip(1).filter_map(|rest| rest.split('"').next().map(str::to_owned)).collect()
    };
    assert!(!ids(&tries[0]).is_empty() && ids(&tries[0]).iter().all(|id| !ids(&tries[1]).contains(id)));
    // Taken, it is the one that is chosen, and has its name.
    server.edit("harvest-tote", json!([{ "edit": "take-try", "name": "As drawn" }]));
    let (_, tries) = server.get(of);
    assert_eq!((&tries[0]["name"], tries.as_array().map(Vec::len)), (&json!("As drawn"), Some(1)));
    // A part without a cloth keeps it from being laid, and says so; it is drawn all the same.
    server.edit("harvest-tote", json!([{ "edit": "unassign", "part": "outer", "cloth": cloths[0] }]));
    let (_, tries) = server.get(of);
    assert!(tries[0]["lacks"].as_str().is_some_and(|l| l.contains("No cloth yet for outer")), "{}", tries[0]["lacks"]);
    assert_eq!((&tries[1]["chosen"], &tries[1]["difference"]), (&json!(false), &json!("")));
    assert_eq!(server.get("/api/projects/none/tries").0, 404);
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
        [("half a yard", "of which cloth"), ("1 yd of gingham", "Add it first"), (" ", "Say what there is")]
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
    assert_eq!((&before["owned"], &before["entries"]), (&json!("2 fat quarters"), &json!(1)));
    let (status, refused) = server.post(path, &json!({}));
    assert_eq!(status, 409, "{refused}");
    let (_, view) = server.get("/api/projects/swap-table-pouch");
    server.edit("swap-table-pouch", json!([{ "edit": "steps-done", "count": view["steps"] }]));
    // What became of the cloth is told for the bag, and beside it for all bags that are cut to the end: this one.
    let (_, left) = server.get(path);
    let became = left["became"].as_str().expect("all is cut");
    assert!(became.contains("is in the bag") && became.contains("waste"), "{became}");
    let (status, waste) = server.get("/api/waste");
    assert_eq!((status, waste["bags"].as_array().map(Vec::len)), (200, Some(1)), "{waste}");
    assert_eq!((&waste["bags"][0]["became"], &waste["together"]), (&left["became"], &left["became"]));
    for _ in 0..2 {
        let (status, left) = server.post(path, &json!({}));
        assert_eq!((status, &left["in_cupboard"]), (200, &json!(true)), "{left}");
        let now = cupboard();
        assert!(now["owned"].as_str().is_some_and(|o| o.starts_with("fat quarter, ")), "{now}");
    }
    let ledger = |which: &str| -> Vec<Value> {
        let (status, all) = server.get(&format!("/api/cupboard/{which}/ledger"));
        assert_eq!(status, 200, "{all}");
        all.as_array().expect("entries").clone()
    };
    let stand: Vec<Value> = ledger("radish-dot").into_iter().filter(|e| e["taken_back"] == false).collect();
    let cuts = stand.iter().filter(|e| e["text"].as_str().is_some_and(|t| t.contains(" cut for Swap-table pouch, ")));
    assert_eq!(cuts.filter(|e| !e["text"].as_str().is_some_and(|t| t.starts_with("undone"))).count(), 1);
    // Taken into a project, the account stays in the cupboard.
    let (_, tote) = server.get("/api/projects/harvest-tote");
    let take = json!({ "based_on": tote["revision"], "cloth": before["id"] });
    let (status, tote) = server.post("/api/projects/harvest-tote/take", &take);
    assert_eq!(status, 200);
    assert!(cloth(&tote, "radish-dot")["at_hand"].as_str().is_some_and(|t| t.starts_with("fat quarter, ")));
    assert_eq!(server.delete(path), 200);
    assert_eq!((&cupboard()["at_hand"], &cupboard()["with_bags"]), (&before["at_hand"], &json!([])));
    // What the bag left and is thrown away is not taken back in silence, nor entered anew.
    assert_eq!(server.post(path, &json!({})).0, 200);
    let gone = server.post("/api/cupboard/radish-dot", &json!({ "what": "throw-away", "value": "all" }));
    assert_eq!((gone.0, &gone.1["owned"]), (200, &Value::Null), "{}", gone.1);
    let refused = server.post(path, &json!({}));
    assert_eq!((refused.0, server.delete(path)), (409, 409));
    assert!(refused.1["message"].as_str().is_some_and(|m| m.contains("gone")), "{}", refused.1);
    let number = ledger("radish-dot")[0]["number"].to_string();
    let back = server.post("/api/cupboard/radish-dot", &json!({ "what": "take-back", "value": number }));
    assert_eq!(back.0, 200, "{}", back.1);
    assert_eq!(server.delete(path), 200);
    assert_eq!(server.get("/api/cupboard/nothing/ledger").0, 404);
    // What was cut into and was not there is told.
    let none = server.post("/api/cupboard/radish-dot", &json!({ "what": "correct", "value": "none" }));
    assert_eq!(none.0, 200, "{}", none.1);
    let (_, left) = server.post(path, &json!({}));
    let told = left["not_there"][0].as_str().expect("a sentence");
    assert!(told.contains("Radish dot: ") && told.ends_with("which the cupboard did not have."), "{told}");
}

/// A pre-cut of one's own is kept, read in bags and in the cupboard, said otherwise anew, and forgotten.
#[test]
fn own_pre_cuts_are_kept_and_read() {
    let (_folder, server) = demo();
    assert_eq!(server.get("/api/pre-cuts"), (200, json!([])));
    let keep =
        |name: &str, size: &str| server.post("/api/pre-cuts", &json!({ "name": name, "size": size, "system": "in" }));
    assert_eq!(
        keep("Swap square", "6 x 6"),
        (200, json!([{ "name": "Swap square", "size": "6 in × 6 in", "unreadable": null }]))
    );
    let (status, refused) = keep("yards", "6 x 6");
    assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!("name")));
    assert_eq!(keep("swap square", "7 x 7").1.as_array().map(Vec::len), Some(1), "of one name there is one");
    let (status, view) = server.edit("swap-table-pouch", have("radish-dot", "2 swap squares, fat quarter"));
    assert_eq!((status, &cloth(&view, "radish-dot")["at_hand"]), (200, &json!("2 of 7 × 7 in, fat quarter")));
    let (status, there) =
        server.post("/api/cupboard/radish-dot", &json!({ "what": "put-in", "value": "a swap square" }));
    assert_eq!((status, &there["at_hand"]), (200, &json!("2 fat quarters, 7 × 7 in")));
    let new = json!({ "name": "Other", "material": "cotton", "system": "cm", "at_hand": "swap square", "place": "" });
    assert_eq!(server.post("/api/cupboard", &new).1["at_hand"], "7 × 7 in");
    assert_eq!(server.delete("/api/pre-cuts/Swap%20square"), 204);
    assert_eq!(server.delete("/api/pre-cuts/swap%20square"), 404);
    assert_eq!(server.edit("swap-table-pouch", have("radish-dot", "2 swap squares")).0, 422);
}

/// What another bag leaves as it is planned is taken into this one; entered in the cupboard, it is taken from there.
#[test]
fn what_other_bags_leave_can_be_taken() {
    let (_folder, server) = demo();
    let path = "/api/projects/harvest-tote/left-by-others";
    let of_pouch = || -> Option<Value> {
        let (status, all) = server.get(path);
        assert_eq!(status, 200, "{all}");
        all.as_array().expect("bags").iter().find(|b| b["project"] == "swap-table-pouch").cloned()
    };
    let dot = |bag: &Value| -> Value {
        let cloths = bag["cloths"].as_array().expect("cloths");
        cloths.iter().find(|c| c["name"] == "Radish dot").expect("of it").clone()
    };
    let pouch = of_pouch().expect("it leaves something");
    assert_eq!((&dot(&pouch)["taken_as"], &pouch["begun"]), (&Value::Null, &json!(false)));
    let (_, view) = server.get("/api/projects/harvest-tote");
    let take = |project: &str, cloth: &str| {
        server.post(path, &json!({ "based_on": view["revision"], "project": project, "cloth": cloth }))
    };
    for (project, name, status) in [
        ("swap-table-pouch", "No such cloth", 422),
        ("harvest-tote", "Oat ticking", 422),
        ("no-such-bag", "Radish dot", 404),
    ] {
        assert_eq!(take(project, name).0, status, "{project} {name}");
    }
    let (status, taken) = take("swap-table-pouch", "Radish dot");
    assert_eq!(status, 200, "{taken}");
    let mine = cloth(&taken, "radish-dot");
    assert_eq!((&mine["left_of"], mine["buy_more"].as_bool()), (&json!("Swap-table pouch"), Some(false)));
    let again = dot(&of_pouch().expect("still"));
    assert_eq!((&again["taken_as"], &again["same"]), (&json!("radish-dot"), &json!(true)));
    assert_eq!(take("swap-table-pouch", "Radish dot").0, 409, "changed since");
    // Cut to the end and entered, it is in the cupboard.
    let (_, view) = server.get("/api/projects/swap-table-pouch");
    server.edit("swap-table-pouch", json!([{ "edit": "steps-done", "count": view["steps"] }]));
    assert_eq!(of_pouch().expect("it is cut")["begun"], true);
    assert_eq!(server.post("/api/projects/swap-table-pouch/left-over", &json!({})).0, 200);
    assert!(of_pouch().is_none());
}

/// A corner so many inches across and up.
fn corner(x: f64, y: f64) -> Value {
    json!({ "x": (x * 203_200.0) as i64, "y": (y * 203_200.0) as i64 })
}

fn outline(corners: &[(f64, f64)]) -> Value {
    corners.iter().map(|&(x, y)| corner(x, y)).collect()
}

#[test]
fn a_scrap_is_drawn_planned_cut_and_left() {
    let (_folder, server) = demo();
    let path = "/api/projects/swap-table-pouch";
    let (status, shapes) = server.get(&format!("{path}/scrap-shapes"));
    assert_eq!((status, shapes.as_array().map(Vec::len)), (200, Some(8)));
    let ask = |draft: Value| server.post(&format!("{path}/scrap-draft"), &draft);
    for shape in shapes.as_array().expect("shapes") {
        let (status, drawn) = ask(shape["draft"].clone());
        assert_eq!((status, &drawn["problem"]), (200, &Value::Null), "{shape}: {drawn}");
    }
    // Four sides leave it loose: which distance fixes it is told, and taken.
    let square = outline(&[(0.0, 0.0), (12.5, 0.0), (12.0, 11.0), (0.0, 12.0)]);
    let side = |from: u32, to: u32, length: &str| json!({ "from": from, "to": to, "length": length });
    let sides = [side(0, 1, "12"), side(1, 2, "12"), side(2, 3, "12"), side(3, 0, "12")];
    let (_, drawn) = ask(json!({ "corners": square, "measured": sides }));
    assert!(["A–C", "B–D"].contains(&drawn["next"]["name"].as_str().unwrap_or_default()), "{drawn}");
    let fixed = [&sides[..], &[side(0, 2, "17")]].concat();
    let (_, drawn) = ask(json!({ "corners": square, "measured": fixed }));
    assert_eq!((&drawn["next"], &drawn["sides"][0]["text"]), (&Value::Null, &json!("12")));
    assert!(drawn["holds"].as_str().is_some_and(|h| h.ends_with(" in")), "{drawn}");
    // Wrong in any way it is an answer that names the field, and what was drawn comes back as it was.
    let wrong = [&sides[..], &[side(0, 2, "30")]].concat();
    let (status, drawn) = ask(json!({ "corners": square, "measured": wrong }));
    assert_eq!((status, &drawn["draft"]["corners"]), (200, &square));
    assert!(drawn["problem"]["field"].as_str().is_some_and(|f| f.starts_with("measured[")), "{drawn}");
    for body in [json!({}), json!({ "corners": "square" }), json!({ "corners": [{ "x": 1 }] })] {
        let (status, refused) = ask(body);
        assert!((400..=422).contains(&status) && refused["message"].is_string(), "{refused}");
    }

    let scrap = json!({ "corners": outline(&[(0.0, 2.0), (20.0, 0.0), (21.0, 15.0), (8.0, 17.0)]),
        "flaws": [{ "kind": "stain", "corners": outline(&[(18.0, 12.0), (19.0, 12.0), (19.0, 13.0), (18.0, 13.0)]) }] });
    let only = json!([
        { "edit": "cloth", "cloth": "radish-dot", "field": "at_hand", "value": "none" },
        { "edit": "draw-scrap", "cloth": "radish-dot", "count": 1, "draft": scrap },
        { "edit": "draw-scrap", "cloth": "radish-dot", "count": 2, "draft": scrap },
        { "edit": "cloth", "cloth": "radish-dot", "field": "buy_more", "value": "no" },
    ]);
    let (status, view) = server.edit("swap-table-pouch", only);
    assert_eq!(status, 200, "{view}");
    let dot = cloth(&view, "radish-dot");
    assert_eq!(dot["at_hand"], "scrap A, 2 of scrap B");
    assert_eq!((&dot["things"][0]["scrap"]["label"], &dot["things"][1]["count"]), (&json!("A"), &json!(2)));
    let on: Vec<&Value> = view["lay"]["cloths"].as_array().expect("cloths").iter().collect();
    let scrap = on.iter().find(|c| c["name"].as_str().is_some_and(|n| n.contains("scrap"))).expect("a scrap is used");
    assert_eq!(scrap["cuts"], "round each piece, where it lies");
    assert!(scrap["length"].as_str().is_some_and(|l| l.ends_with(" in over all")), "{scrap}");
    let (_, step) = server.get(&format!("{path}/steps/1"));
    let how = step["how"].as_str().expect("how it is cut");
    assert!(how.contains(" from corner ") && how.contains("the opposite corner"), "{how}");
    let (status, kind, sheet) = server.bytes(&format!("{path}/cut-sheet.pdf"));
    assert_eq!((status, kind.as_str()), (200, "application/pdf"));
    let text = support::pdf_text(&sheet);
    assert!(text.contains("corners of the scrap") && text.contains("over all"), "{text}");
    let (status, refused) =
        server.edit("swap-table-pouch", json!([{ "edit": "remove-scrap", "cloth": "radish-dot", "label": "Z" }]));
    assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!("scrap")));
}

#[test]
fn scraps_are_traced_from_a_picture() {
    let (_folder, server) = demo();
    let (status, kind, picture) = server.bytes("/api/camera/2");
    assert_eq!((status, kind.as_str()), (200, "image/jpeg"));
    let known = bofta_picture::camera::table(2);
    let marks = known.shot().marks.map(|(x, y)| format!("{x},{y}")).join(" ");
    let send = |bytes: &[u8], query: &[(&str, &str)]| {
        let query = query.iter().map(|(k, v)| format!("{k}={}", v.replace(' ', "%20"))).collect::<Vec<_>>().join("&");
        server.post_bytes(&format!("/api/projects/swap-table-pouch/picture?{query}"), bytes)
    };
    let all = [("marks", marks.as_str()), ("width", "60 cm"), ("height", "40 cm"), ("tolerance", "2 mm")];
    let (status, seen) = send(&picture, &all);
    assert_eq!(status, 200, "{seen}");
    let scraps = seen["scraps"].as_array().expect("scraps");
    assert_eq!((scraps.len(), &seen["cut_off"], &seen["rim"]), (known.scraps.len(), &json!(0), &json!(false)));
    let edits: Vec<Value> = scraps
        .iter()
        .map(|s| json!({ "edit": "draw-scrap", "cloth": "radish-dot", "count": 1, "draft": s["draft"] }))
        .collect();
    let (status, view) = server.edit("swap-table-pouch", json!(edits));
    assert_eq!(status, 200, "{view}");
    assert!(cloth(&view, "radish-dot")["at_hand"].as_str().is_some_and(|h| h.contains("scrap A, scrap B, scrap C")));

    let with = |key: &str, value: &str| {
        let mut other = all.map(|(k, v)| (k.to_owned(), v.to_owned()));
        other.iter_mut().filter(|(k, _)| k == key).for_each(|(_, v)| *v = value.to_owned());
        let query: Vec<(&str, &str)> = other.iter().map(|(k, v)| (k.as_str(), v.as_str())).collect();
        send(&picture, &query)
    };
    for (key, value, field) in [
        ("width", "wide", "width"),
        ("width", "0", "width"),
        ("height", "90 m", "height"),
        ("marks", "1,1 2,2", "marks"),
        ("marks", "1,1 9000,1 9000,9000 1,900", "marks"),
        ("tolerance", "10 in", "tolerance"),
    ] {
        let (status, refused) = with(key, value);
        assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!(field)), "{key} {value}: {refused}");
    }
    let (status, refused) = send(b"%PDF-1.4 not a picture", &all);
    assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!("picture")), "{refused}");
}

/// A print is taken from a picture, drawn wherever its cloth is drawn, and travels with what is printed or saved.
#[test]
fn a_cloth_is_drawn_by_its_picture_on_screen_and_paper() {
    let (_folder, server) = demo();
    let (status, kind, shot) = server.bytes("/api/camera/cloth/1");
    assert_eq!((status, kind.as_str()), (200, "image/jpeg"));
    let marks = bofta_picture::camera::printed(1).shot().marks.map(|(x, y)| format!("{x},{y}")).join(" ");
    let send = |bytes: &[u8], query: &[(&str, &str)]| {
        let query = query.iter().map(|(k, v)| format!("{k}={}", v.replace(' ', "%20"))).collect::<Vec<_>>().join("&");
        server.post_bytes(&format!("/api/swatches?{query}"), bytes)
    };
    let all = [("marks", marks.as_str()), ("width", "11"), ("height", "9.5"), ("system", "cm"), ("one_repeat", "true")];
    let (status, taken) = send(&shot, &all);
    assert_eq!(status, 200, "{taken}");
    let key = taken["picture"]["key"].as_str().expect("a key").to_owned();
    assert_eq!(send(&shot, &all).1, taken, "the same picture has the same key");
    let address = format!("/api/pictures/{key}");
    let (status, kind, jpeg) = server.bytes(&address);
    assert_eq!((status, kind.as_str()), (200, "image/jpeg"));

    let (_, before) = server.get("/api/projects/harvest-tote");
    let (_, _, plain) = server.bytes("/api/projects/harvest-tote/cut-sheet.pdf");
    let mut look = cloth(&before, "bean-flower-canvas")["look"].clone();
    for part in ["picture", "ground", "figure"] {
        look[part] = taken[part].clone();
    }
    let edit = json!([
        { "edit": "cloth-look", "cloth": "bean-flower-canvas", "look": look },
        { "edit": "cloth", "cloth": "bean-flower-canvas", "field": "repeat", "value": "9.5 cm" },
    ]);
    let (status, view) = server.edit("harvest-tote", edit);
    assert_eq!(status, 200, "{view}");
    let swatch = cloth(&view, "bean-flower-canvas")["swatch"].to_string();
    assert!(swatch.contains(&address), "{swatch}");
    let (_, _, pdf) = server.bytes("/api/projects/harvest-tote/cut-sheet.pdf");
    let holds = |pdf: &[u8], part: &[u8]| pdf.windows(part.len()).any(|w| w == part);
    // A JPEG is put into a PDF as it is.
    assert!(holds(&pdf, &jpeg) && !holds(&plain, &jpeg), "{} and {} bytes", pdf.len(), plain.len());
    let (_, _, svg) = server.bytes("/api/projects/harvest-tote/lay/bean-flower-canvas.svg");
    let svg = String::from_utf8(svg).expect("text");
    assert!(svg.contains("data:image/jpeg;base64,") && !svg.contains("/api/pictures/"));

    let with = |key: &str, value: &str| {
        let query: Vec<(&str, &str)> = all.iter().map(|(k, v)| (*k, if *k == key { value } else { *v })).collect();
        send(&shot, &query)
    };
    for (key, value, field) in [
        ("width", "", "width"),
        ("width", "1 mm", "width"),
        ("height", "9 m", "height"),
        ("height", "-3", "height"),
        ("marks", "1,1 2,2 3,3 4,4", "marks"),
        ("marks", "NaN,1 2,2 3,3 4,4", "marks"),
    ] {
        let (status, refused) = with(key, value);
        assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!(field)), "{key} {value}: {refused}");
    }
    assert_eq!(send(b"no picture", &all).0, 422);
    assert_eq!(server.get("/api/pictures/0123").0, 404);
}

#[test]
fn the_cupboard_is_filled_put_right_and_searched() {
    let (_folder, server) = demo();
    let find = |text: &str| server.get(&format!("/api/cupboard?count=200&find={}", text.replace(' ', "%20")));
    let (_, all) = find("");
    let holding = |view: &Value| -> usize {
        let cloths = view["cloths"].as_array().expect("cloths").iter();
        cloths.map(|c| c["things"].as_array().expect("things").iter().filter(|t| t["holds"] == true).count()).sum()
    };
    assert_eq!(holding(&all), 0, "nothing is looked for");
    let (status, found) = find("holds 9 x 12 in, blue crate");
    assert_eq!(status, 200, "{found}");
    assert!(found["found"].as_u64() < all["found"].as_u64() && holding(&found) >= 3, "{found}");
    assert!(found["cloths"].as_array().expect("cloths").iter().all(|c| c["place"] == "blue crate"));
    let (status, asked) = find("9 x 12");
    assert_eq!((status, asked["problems"][0]["answers"].as_array().map(Vec::len)), (422, Some(2)), "{asked}");
    assert_eq!(find("green").0, 200);
    assert_eq!(find("no such cloth").1["found"], 0);

    let new = |name: &str, material: &str, system: &str, there: &str| {
        let body = json!({ "name": name, "material": material, "system": system, "at_hand": there, "place": "tin" });
        server.post("/api/cupboard", &body)
    };
    let (status, added) = new("Gooseberry gauze", "cotton", "cm", "40 x 60, half circle 30 across");
    assert_eq!((status, &added["id"], &added["place"]), (200, &json!("gooseberry-gauze"), &json!("tin")), "{added}");
    for (name, material, system, there, field) in [
        ("Gooseberry gauze", "cotton", "cm", "", "name"),
        ("", "cotton", "cm", "", "name"),
        ("Other", "tin", "cm", "", "material"),
        ("Other", "cotton", "ell", "", "system"),
        ("Other", "cotton", "in", "plenty", "at_hand"),
    ] {
        let (status, refused) = new(name, material, system, there);
        assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!(field)), "{name} {field}: {refused}");
    }
    let change = |what: &str, value: &str| {
        server.post("/api/cupboard/gooseberry-gauze", &json!({ "what": what, "value": value }))
    };
    assert_eq!(change("put-in", "2 of 40 x 60").1["at_hand"], "3 of 40 × 60 cm, scrap A");
    assert_eq!(change("throw-away", "40 x 60").1["at_hand"], "2 of 40 × 60 cm, scrap A");
    assert_eq!(change("take-back", "3").1["at_hand"], "3 of 40 × 60 cm, scrap A");
    assert_eq!(change("correct", "scrap A").1["at_hand"], "scrap A");
    let (_, ledger) = server.get("/api/cupboard/gooseberry-gauze/ledger");
    assert_eq!(ledger[0]["text"], "counted: 3 of 40 × 60 cm fewer");
    let can: Vec<bool> = ledger.as_array().expect("entries").iter().map(|e| e["can_be_taken_back"] == true).collect();
    assert_eq!(can, [true, false, false, false, false]);
    assert!(ledger[4]["at"].as_i64().is_some_and(|at| at > 1_700_000_000_000), "{ledger}");
    assert_eq!(change("place", "").1["place"], "");
    // Kept again from a project that knows of no place, a cloth stays where it was said to be.
    let moved = server.post("/api/cupboard/radish-dot", &json!({ "what": "place", "value": "hall" }));
    assert_eq!((moved.0, &moved.1["place"]), (200, &json!("hall")));
    let keep = || server.post("/api/projects/swap-table-pouch/cloths/radish-dot/keep", &json!({}));
    assert_eq!(keep(), (200, json!({ "entered": [] })));
    assert_eq!(server.edit("swap-table-pouch", have("radish-dot", "3 fat quarters")).0, 200);
    assert_eq!(keep(), (200, json!({ "entered": ["counted: fat quarter more"] })));
    let kept = find("radish dot").1["cloths"][0]["place"].clone();
    assert_eq!(kept, "hall");
    for (what, value) in [("put-in", "a lot"), ("throw-away", "1 m"), ("correct", "a lot"), ("take-back", "99")] {
        let (status, refused) = change(what, value);
        assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!("value")), "{what}: {refused}");
    }
    assert_eq!(change("give", "1 m").0, 422);
    assert_eq!(server.post("/api/cupboard/nothing", &json!({ "what": "place", "value": "tin" })).0, 404);
    // A name that was used before and lies in the drawer has a key of its own.
    assert_eq!(server.delete("/api/cupboard/gooseberry-gauze"), 204);
    assert_eq!(new("Gooseberry gauze", "cotton", "cm", "").1["id"], "gooseberry-gauze-2");
}

/// What could be made of a crate: the bags that are named come from it whole, and begun they are cut from it.
#[test]
fn what_could_be_made_is_begun_and_comes_out_whole() {
    let (_folder, server) = demo();
    let (status, all) = server.get("/api/cupboard/makes?find=pumpkin");
    assert_eq!(status, 200, "{all}");
    assert_eq!(all["cloths"], 1);
    let found = all["makes"].as_array().expect("some");
    assert!(!found.is_empty() && !all["not"].as_array().expect("names").is_empty(), "{all}");
    for make in found {
        let begin = json!({ "find": "pumpkin", "which": make["which"], "percent": make["percent"] });
        let (status, view) = server.post("/api/cupboard/makes", &begin);
        assert_eq!(status, 200, "{view}");
        assert!(view["name"].as_str().is_some_and(|n| n.contains("from the cupboard")), "{view}");
        assert!(view["lay"]["unplaced"].as_array().is_none_or(Vec::is_empty), "{}", view["lay"]["unplaced"]);
        // Of the cloth itself nothing is bought.
        let pumpkin = cloth(&view, "pumpkin-cotton");
        assert_eq!(pumpkin["buy_more"], false, "{pumpkin}");
    }
    // The bags on the shelf are as they were.
    let (_, shelf) = server.get("/api/projects");
    assert_eq!(shelf["total"], 17 + found.len());
}

#[test]
fn what_cannot_be_begun_is_refused_by_name() {
    let (_folder, server) = demo();
    let refused = |begin: Value, status: u16, says: &str| {
        let (got, body) = server.post("/api/cupboard/makes", &begin);
        assert_eq!(got, status, "{body}");
        assert!(body.to_string().contains(says), "{body}");
    };
    let usual = json!({ "usual": "pouch" });
    refused(json!({ "find": "pumpkin", "which": { "usual": "hat" }, "percent": 100 }), 422, "hat");
    refused(json!({ "find": "pumpkin", "which": { "shelf": "no-such-bag" }, "percent": 100 }), 404, "not on the shelf");
    refused(json!({ "find": "pumpkin", "which": usual, "percent": 77 }), 422, "65");
    refused(json!({ "find": "no such cloth", "which": usual, "percent": 100 }), 422, "no longer have enough");
    refused(json!({ "find": "holds 9 x 9", "which": usual, "percent": 100 }), 422, "centimetres");
    refused(json!({ "find": "snowdrop", "which": usual, "percent": 100 }), 422, "no longer have enough");
    let (status, none) = server.get("/api/cupboard/makes?find=no%20such%20cloth");
    assert_eq!((status, &none["cloths"], &none["makes"]), (200, &json!(0), &json!([])), "{none}");
    let (status, body) = server.get("/api/cupboard/makes?look=pumpkin");
    assert_eq!(status, 400, "{body}");
    assert_eq!(server.get("/api/projects").1["total"], 17, "nothing was begun");
}

/// A name that is as long as it may be is not made longer: the bag that is begun can be renamed like any other.
#[test]
fn a_long_name_stays_one_that_may_be_typed() {
    let (_folder, server) = demo();
    let long = "x".repeat(80);
    let (status, pouch) = server.post("/api/projects", &json!({ "name": long, "system": "in", "family": "pouch" }));
    assert_eq!(status, 200, "{pouch}");
    let begin = json!({ "find": "top shelf", "which": { "shelf": pouch["id"] }, "percent": 100 });
    let (status, begun) = server.post("/api/cupboard/makes", &begin);
    assert_eq!((status, &begun["name"]), (200, &json!(long)), "{begun}");
    assert_ne!(begun["id"], pouch["id"]);
}

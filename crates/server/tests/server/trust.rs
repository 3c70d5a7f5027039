//! What docs/trust.md promises: nothing ends the server, no one else gets in, nothing kept is lost.
#![allow(missing_docs)]

use crate::support;

use crate::support::{PROGRAM, Server};
use serde_json::{Value, json};
use std::io::{BufRead, BufReader, Read as _, Write as _};
use std::net::TcpStream;
use std::process::{Command, Stdio};
use std::time::{Duration, Instant};

const IN: i64 = 203_200;

fn serve() -> (tempfile::TempDir, Server) {
    let folder = tempfile::tempdir().expect("a folder");
    let server = Server::start("serve", folder.path());
    (folder, server)
}

fn begin(server: &Server, name: &str) -> String {
    let (status, view) = server.post("/api/projects", &json!({ "name": name, "system": "in" }));
    assert_eq!(status, 200, "{view}");
    view["id"].as_str().expect("id").to_owned()
}

fn row(name: &str, width: i64, height: i64, count: u32) -> Value {
    json!({ "name": name, "part": "outer", "count": count, "width": width, "height": height, "shape": { "shape": "rectangle" } })
}

fn with_cloth(rows: &[Value]) -> Value {
    json!([{ "edit": "rows", "rows": rows }, { "edit": "add-cloth", "name": "Canvas", "material": "canvas" }])
}

/// Lists within every limit that once ended the server, and ended it again at every start.
#[test]
fn long_lists_are_laid_and_opened_again() {
    let (folder, server) = serve();
    let twenty: Vec<Value> = (0..20).map(|i| row(&format!("r{i}"), (20 + i) * IN / 10, 3 * IN, 200)).collect();
    let many: Vec<Value> = (0..240).map(|i| row(&format!("r{i}"), (200 + i) * IN / 100, 3 * IN, 10)).collect();
    let circles: Vec<Value> = (0..300)
        .map(|i| {
            let mut row = row(&format!("c{i}"), (200 + i) * IN / 100, (200 + i) * IN / 100, 1);
            row["shape"] = json!({ "shape": "circle" });
            row
        })
        .collect();
    for (name, rows) in [("Twenty", &twenty), ("Many", &many), ("Circles", &circles)] {
        let id = begin(&server, name);
        let (status, view) = server.edit(&id, with_cloth(rows));
        assert_eq!(status, 200, "{name}");
        assert_eq!(view["lay"]["complete"], true, "{name}: {}", view["lay_failed"]);
        assert_eq!(server.get(&format!("/api/projects/{id}/steps/1")).0, 200);
    }
    server.kill();
    let server = Server::start("serve", folder.path());
    let (status, shelf) = server.get("/api/projects");
    assert_eq!((status, &shelf["found"]), (200, &json!(3)));
    for card in shelf["cards"].as_array().expect("cards") {
        assert!(card["drawings"].as_array().is_some_and(|d| !d.is_empty()), "{}", card["state"]);
        assert_eq!(server.get(&format!("/api/projects/{}", card["id"].as_str().expect("id"))).0, 200);
    }
}

/// Figures no cloth has are refused by their field, whole and short, and the last good state stays.
#[test]
fn absurd_figures_are_refused_by_name() {
    let (_folder, server) = serve();
    let id = begin(&server, "Tote");
    let before = server.get(&format!("/api/projects/{id}")).1;
    let corner = |x: i64| {
        let mut row = row("Flap", 4 * IN, 4 * IN, 1);
        row["shape"] =
            json!({ "shape": "free", "corners": [{ "x": 0, "y": 0 }, { "x": x, "y": 0 }, { "x": 0, "y": IN }] });
        json!([{ "edit": "rows", "rows": [row] }])
    };
    for edits in [
        corner(i64::MAX),
        corner(9_000_000_000_000),
        json!([{ "edit": "rows", "rows": [row("x", i64::MIN, IN, 1)] }]),
        json!([{ "edit": "rows", "rows": [row("x", IN, IN, 401)] }]),
        json!([{ "edit": "rows", "rows": [row(&"x".repeat(90), IN, IN, 1)] }]),
        json!([{ "edit": "rows", "rows": (0..401).map(|i| row(&format!("r{i}"), IN, IN, 1)).collect::<Vec<_>>() }]),
        json!([{ "edit": "bag", "field": "width", "value": "1e308" }]),
        json!([{ "edit": "bag", "field": "width", "value": "9".repeat(300) }]),
        json!([{ "edit": "scale", "percent": 4_294_967_295_u32 }]),
        json!([{ "edit": "steps-done", "count": 4_294_967_295_u32 }]),
        json!(vec![json!({ "edit": "bag", "field": "width", "value": "9" }); 51]),
    ] {
        let (status, refused) = server.edit(&id, edits.clone());
        assert_eq!(status, 422, "{refused}");
        let message = refused["message"].as_str().expect("a sentence");
        assert!(
            message.len() < 500 && refused["problems"][0]["field"].as_str().is_some_and(|f| !f.is_empty()),
            "{message}"
        );
    }
    for query in ["seconds=NaN", "seconds=-1", "seconds=1e308", "seconds=soon", "speed=2"] {
        let (status, refused) = server.get(&format!("/api/projects/{id}/search?{query}"));
        assert!(matches!(status, 400 | 422), "{query}: {status} {refused}");
    }
    assert_eq!(server.get("/api/projects?count=100000").0, 422);
    assert_eq!(server.get("/api/projects?from=-1").0, 400);
    assert_eq!(server.get(&format!("/api/projects/{id}")).1, before);
}

fn read_file(server: &Server, name: &str, body: Vec<u8>) -> (u16, Value) {
    let client = reqwest::blocking::Client::new();
    let request = client
        .post(format!("{}/api/cut-list/file", server.base))
        .query(&[("name", name), ("system", "in")])
        .header("content-type", "application/octet-stream");
    let answer = request.body(body).send().expect("an answer");
    (answer.status().as_u16(), answer.json().unwrap_or(Value::Null))
}

/// A reader that dies, or goes on and on, is a sentence at the file; the next file is read.
#[test]
fn a_reader_that_comes_to_grief_is_a_sentence() {
    let (_folder, server) = serve();
    // Thirty levels of two uses each: a thousand million shapes, from a file of three kilobytes.
    let mut svg = String::from(
        r#"<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink"><defs><path id="u0" d="M0 0H9V9H0Z"/>"#,
    );
    for i in 1..30 {
        svg.push_str(&format!(r##"<g id="u{i}"><use xlink:href="#u{0}"/><use xlink:href="#u{0}" x="9"/></g>"##, i - 1));
    }
    svg.push_str(r##"</defs><use xlink:href="#u29"/></svg>"##);
    let begun = Instant::now();
    let (status, refused) = read_file(&server, "uses.svg", svg.into_bytes());
    assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!("file")), "{refused}");
    assert!(begun.elapsed() < Duration::from_secs(12), "{:?}", begun.elapsed());
    // The old binary form, its parts claimed to be anywhere.
    let mut xls = b"\xD0\xCF\x11\xE0\xA1\xB1\x1A\xE1".to_vec();
    xls.extend([0xFF; 5_000]);
    let (status, refused) = read_file(&server, "old.xls", xls);
    assert_eq!((status, &refused["problems"][0]["field"]), (422, &json!("file")), "{refused}");
    let (status, found) = read_file(&server, "--system=cm", b"2 x 15 x 16 outer".to_vec());
    assert_eq!((status, found["rows"].as_array().map(Vec::len)), (200, Some(1)), "{found}");
    assert_eq!(server.get("/api/projects").0, 200);
}

/// Control signs go, other scripts stay, and no cell begins a formula.
#[test]
fn names_can_be_drawn_printed_and_opened_elsewhere() {
    let (_folder, server) = serve();
    let id = begin(&server, "袋 \u{202E}\u{0007}👜 حقيبة");
    let rows = [row("=SUM(A1)\u{0}\u{1b}", 9 * IN, 12 * IN, 2), row("袋の底", 9 * IN, 9 * IN, 1)];
    let (status, view) = server.edit(&id, with_cloth(&rows));
    assert_eq!((status, &view["name"]), (200, &json!("袋 👜 حقيبة")), "{view}");
    assert_eq!(view["pieces"][0]["name"], "=SUM(A1)");
    let (_, _, csv) = server.bytes(&format!("/api/projects/{id}/cut-list.csv"));
    assert!(String::from_utf8_lossy(&csv).contains("\n'=SUM(A1),"), "{}", String::from_utf8_lossy(&csv));
    let (status, again) = read_file(&server, "list.csv", csv);
    assert_eq!((status, &again["rows"][0]["row"]["name"]), (200, &json!("=SUM(A1)")), "{again}");
    let text = support::pdf_text(&server.bytes(&format!("/api/projects/{id}/cut-sheet.pdf")).2);
    // Set in a face of this machine, or spelled out: never left away.
    assert!(text.contains('袋') || text.contains("U+888B"), "{text}");
    assert!(text.contains('👜') || text.contains("U+1F45C"), "{text}");
}

fn raw(server: &Server, request: &str) -> String {
    let mut stream = TcpStream::connect(server.base.trim_start_matches("http://")).expect("connected");
    stream.set_read_timeout(Some(Duration::from_secs(5))).expect("set");
    stream.write_all(request.as_bytes()).expect("sent");
    let mut answer = String::new();
    let _ = stream.read_to_string(&mut answer);
    answer
}

/// Names that are not the server's, pages of other origins, kinds of body a form of another page can send.
#[test]
fn no_one_else_gets_in() {
    let (_folder, server) = serve();
    let host = server.base.trim_start_matches("http://").to_owned();
    let port = host.rsplit(':').next().expect("a port").to_owned();
    let ask = |method: &str, path: &str, headers: &str| -> u16 {
        let answer = raw(
            &server,
            &format!("{method} {path} HTTP/1.1\r\n{headers}Connection: close\r\nContent-Length: 0\r\n\r\n"),
        );
        answer.split(' ').nth(1).and_then(|s| s.parse().ok()).unwrap_or(0)
    };
    let own = format!("Host: {host}\r\n");
    assert_eq!(ask("GET", "/api/projects", &own), 200);
    assert_eq!(ask("GET", "/api/projects", &format!("Host: localhost:{port}\r\n")), 200);
    assert_eq!(ask("GET", "/api/projects", &format!("Host: [::1]:{port}\r\n")), 200);
    for name in ["evil.example", "127.0.0.1.evil.example", "localhost.evil.example", "0.0.0.0", ""] {
        assert_eq!(ask("GET", "/api/projects", &format!("Host: {name}\r\n")), 421, "{name}");
        assert_eq!(ask("GET", "/", &format!("Host: {name}\r\n")), 421, "{name}");
    }
    for from in ["http://evil.example", "null", "http://127.0.0.1:1", &format!("https://evil.example?{host}")] {
        for (method, path) in
            [("POST", "/api/projects"), ("DELETE", "/api/projects/x"), ("GET", "/api/projects/x/search")]
        {
            assert_eq!(ask(method, path, &format!("{own}Origin: {from}\r\n")), 403, "{from} {path}");
        }
    }
    for site in ["cross-site", "same-site"] {
        assert_eq!(ask("GET", "/api/projects", &format!("{own}Sec-Fetch-Site: {site}\r\n")), 403, "{site}");
        assert_eq!(
            ask("GET", "/", &format!("{own}Sec-Fetch-Site: {site}\r\n")),
            200,
            "a link to the application opens it"
        );
    }
    assert_eq!(
        ask("POST", "/api/projects", &format!("{own}Origin: http://{host}\r\nContent-Type: text/plain\r\n")),
        415
    );
    for kind in ["text/plain", "multipart/form-data; boundary=x", "application/x-www-form-urlencoded"] {
        let headers = format!("{own}Content-Type: {kind}\r\n");
        assert_eq!(ask("POST", "/api/cut-list/file?name=a&system=in", &headers), 415, "{kind}");
    }
    assert_eq!(ask("PUT", "/api/projects", &own), 405);
    assert_eq!(ask("POST", "/", &own), 405);
    assert_eq!(ask("GET", "/assets/gone.js", &own), 404);
    assert_eq!(ask("GET", "/wp-login.php", &own), 404);
    assert_eq!(ask("GET", "/../../etc/passwd", &own), 404);
    let page = raw(&server, &format!("GET / HTTP/1.1\r\n{own}Connection: close\r\n\r\n")).to_lowercase();
    for header in [
        "content-security-policy: default-src 'none'; script-src 'self';",
        "frame-ancestors 'none'",
        "x-frame-options: deny",
        "x-content-type-options: nosniff",
        "referrer-policy: same-origin",
    ] {
        assert!(page.contains(header), "{header} in {page}");
    }
    let data = raw(&server, &format!("GET /api/projects HTTP/1.1\r\n{own}Connection: close\r\n\r\n")).to_lowercase();
    assert!(data.contains("cache-control: no-store"), "{data}");
}

#[test]
fn beyond_this_machine_it_listens_only_when_told() {
    let folder = tempfile::tempdir().expect("a folder");
    let refused = Command::new(PROGRAM)
        .args(["serve", "--listen", "0.0.0.0:0", "--data"])
        .arg(folder.path())
        .output()
        .expect("it runs");
    assert_eq!(refused.status.code(), Some(2));
    assert!(String::from_utf8_lossy(&refused.stderr).contains("say --network"), "{refused:?}");
    let mut child = Command::new(PROGRAM)
        .args(["serve", "--listen", "0.0.0.0:0", "--network", "--host", "sewing-room", "--data"])
        .arg(folder.path())
        .stdout(Stdio::piped())
        .spawn()
        .expect("it starts");
    let mut line = String::new();
    BufReader::new(child.stdout.take().expect("piped")).read_line(&mut line).expect("it says where");
    let port = line.trim().rsplit(':').next().expect("a port").to_owned();
    let client = reqwest::blocking::Client::new();
    let status = |host: &str| {
        let url = format!("http://127.0.0.1:{port}/api/projects");
        client.get(url).header("host", host).send().expect("an answer").status().as_u16()
    };
    assert_eq!((status("sewing-room"), status("Sewing-Room:80"), status("other")), (200, 200, 421));
    child.kill().expect("running");
    child.wait().expect("ended");
}

/// A search runs, a request is half sent, a file is being read: asked to end, it ends within three seconds.
#[test]
fn it_ends_when_asked_whatever_is_open() {
    let folder = tempfile::tempdir().expect("a folder");
    let mut child = Command::new(PROGRAM)
        .args(["demo", "--listen", "127.0.0.1:0", "--data"])
        .arg(folder.path())
        .stdout(Stdio::piped())
        .spawn()
        .expect("it starts");
    let mut line = String::new();
    BufReader::new(child.stdout.take().expect("piped")).read_line(&mut line).expect("it says where");
    let host = line.trim().rsplit('/').next().expect("an address").to_owned();
    let mut half = TcpStream::connect(&host).expect("connected");
    half.write_all(format!("POST /api/projects HTTP/1.1\r\nHost: {host}\r\nContent-Type: application/json\r\nContent-Length: 500\r\n\r\n{{").as_bytes())
        .expect("sent");
    let mut searches: Vec<TcpStream> = (0..3)
        .map(|_| {
            let mut search = TcpStream::connect(&host).expect("connected");
            search
                .write_all(
                    format!("GET /api/projects/bottle-caddy/search?seconds=60 HTTP/1.1\r\nHost: {host}\r\n\r\n")
                        .as_bytes(),
                )
                .expect("sent");
            search
        })
        .collect();
    let mut some = [0; 64];
    searches[0].read_exact(&mut some).expect("it has begun");
    let begun = Instant::now();
    let asked = Command::new("kill").args(["-TERM", &child.id().to_string()]).status().expect("kill is there");
    assert!(asked.success());
    let status = child.wait().expect("it ends");
    assert!(begun.elapsed() < Duration::from_secs(3), "{:?}", begun.elapsed());
    assert!(status.success(), "{status}");
}

#[test]
fn a_second_server_on_the_same_folder_is_refused() {
    let (folder, server) = serve();
    let second = Command::new(PROGRAM)
        .args(["serve", "--listen", "127.0.0.1:0", "--data"])
        .arg(folder.path())
        .output()
        .expect("it runs");
    assert_eq!(second.status.code(), Some(2));
    assert!(String::from_utf8_lossy(&second.stderr).contains("already running"), "{second:?}");
    assert_eq!(server.get("/api/projects").0, 200);
    let copy = folder.path().join("copy.db");
    let restore =
        Command::new(PROGRAM).arg("restore").arg(&copy).arg("--data").arg(folder.path()).output().expect("runs");
    assert_eq!(restore.status.code(), Some(2), "not while it is served");
}

/// One damaged document is a card that says so; its text is there, and the rest of the shelf opens.
#[test]
fn one_project_that_cannot_be_read_keeps_nothing_else_from_opening() {
    let (folder, server) = serve();
    let (good, bad) = (begin(&server, "Good"), begin(&server, "Bad"));
    server.kill();
    let database = rusqlite::Connection::open(folder.path().join("bofta.db")).expect("opened");
    database.execute("UPDATE states SET document = '{\"format\":' WHERE project_id = ?1", [&bad]).expect("spoilt");
    drop(database);
    let server = Server::start("serve", folder.path());
    let (_, shelf) = server.get("/api/projects");
    let card =
        |id: &str| shelf["cards"].as_array().expect("cards").iter().find(|c| c["id"] == id).expect("there").clone();
    assert!(
        card(&good)["unreadable"].is_null() && card(&bad)["unreadable"].as_str().is_some_and(|w| w.contains("damaged"))
    );
    assert_eq!(server.get(&format!("/api/projects/{good}")).0, 200);
    let (status, refused) = server.get(&format!("/api/projects/{bad}"));
    assert_eq!(status, 422, "{refused}");
    assert_eq!(server.bytes(&format!("/api/projects/{bad}/document.json")).2, b"{\"format\":");
    assert_eq!(server.delete(&format!("/api/projects/{bad}")), 204, "it can be put away");
}

/// `restore` is killed at forty moments: what opens then is the old database or the copy, whole.
#[test]
fn a_restore_that_is_killed_leaves_one_of_the_two() {
    let folder = tempfile::tempdir().expect("a folder");
    let at = |name: &str| folder.path().join(name);
    let server = Server::start("serve", folder.path());
    begin(&server, "Old");
    server.kill();
    let run = |arguments: &[&str]| {
        let mut command = Command::new(PROGRAM);
        command.args(arguments).arg("--data").arg(folder.path()).stdout(Stdio::null()).stderr(Stdio::null());
        command
    };
    let copy = at("copy.db").display().to_string();
    assert!(run(&["backup", &copy]).status().expect("it runs").success());
    let server = Server::start("serve", folder.path());
    begin(&server, "New");
    server.kill();
    let names = |folder: &std::path::Path| -> usize {
        let server = Server::start("serve", folder);
        let found = server.get("/api/projects").1["total"].as_u64().unwrap_or(0) as usize;
        server.kill();
        found
    };
    let whole = std::fs::read(at("bofta.db")).expect("read");
    let journal = std::fs::read(at("bofta.db-wal")).ok();
    let (mut old, mut new) = (0, 0);
    for kill in 0..40_u64 {
        for file in std::fs::read_dir(folder.path()).expect("listed").flatten() {
            let name = file.file_name().to_string_lossy().into_owned();
            if name.starts_with("bofta.db") {
                std::fs::remove_file(file.path()).expect("removed");
            }
        }
        std::fs::write(at("bofta.db"), &whole).expect("written");
        if let Some(journal) = &journal {
            std::fs::write(at("bofta.db-wal"), journal).expect("written");
        }
        let mut child = run(&["restore", &copy]).spawn().expect("it starts");
        std::thread::sleep(Duration::from_micros(500 + kill * 500));
        child.kill().expect("it was started");
        child.wait().expect("it ended");
        match names(folder.path()) {
            1 => new += 1,
            2 => old += 1,
            n => panic!("kill {kill}: {n} projects"),
        }
    }
    assert_eq!(old + new, 40, "{old} old, {new} new");
}

/// Requests that are sent by halves are ended, the head as well as the body, and others are answered meanwhile.
#[test]
fn half_sent_requests_are_ended() {
    let (_folder, server) = serve();
    let host = server.base.trim_start_matches("http://").to_owned();
    let head = format!("POST /api/projects HTTP/1.1\r\nHost: {host}\r\n");
    let body = format!("{head}Content-Type: application/json\r\nContent-Length: 500\r\n\r\n{{");
    let begun = Instant::now();
    let open: Vec<TcpStream> = [head, body]
        .into_iter()
        .map(|half| {
            let mut stream = TcpStream::connect(&host).expect("connected");
            stream.set_read_timeout(Some(Duration::from_secs(20))).expect("set");
            stream.write_all(half.as_bytes()).expect("sent");
            stream
        })
        .collect();
    assert_eq!(server.get("/api/projects").0, 200);
    for mut stream in open {
        let mut answer = String::new();
        stream.read_to_string(&mut answer).expect("ended by the server");
        assert!(!answer.contains(" 200 ") && !answer.contains(" 201 "), "{answer}");
    }
    assert!(begun.elapsed() < Duration::from_secs(15), "{:?}", begun.elapsed());
}

/// The program’s file is replaced while it runs: what it starts for uploads is still itself.
#[test]
fn a_file_is_read_after_the_program_was_replaced() {
    let folder = tempfile::tempdir().expect("a folder");
    let program = folder.path().join("bofta");
    std::fs::copy(PROGRAM, &program).expect("copied");
    let server = Server::start_program(&program, "serve", &folder.path().join("data"), &[]);
    std::fs::remove_file(&program).expect("removed");
    std::fs::write(&program, "#!/bin/sh\nexit 3\n").expect("another in its place");
    let (status, found) = read_file(&server, "list.txt", b"2 outer 9 x 11".to_vec());
    assert_eq!((status, found["rows"][0]["row"]["count"].as_u64()), (200, Some(2)), "{found}");
}

/// The data folder is moved away while it is served: nothing is acknowledged then, and nothing is lost once it is back.
#[test]
fn a_change_is_not_acknowledged_into_a_folder_that_is_gone() {
    let folder = tempfile::tempdir().expect("a folder");
    let (data, away) = (folder.path().join("data"), folder.path().join("away"));
    let server = Server::start("serve", &data);
    let id = begin(&server, "Kept");
    std::fs::rename(&data, &away).expect("moved");
    let edit = json!([{ "edit": "bag", "field": "width", "value": "15" }]);
    let (status, answer) = server.edit(&id, edit.clone());
    assert!(status == 503 && answer["message"].as_str().is_some_and(|m| m.contains("moved")), "{status} {answer}");
    std::fs::rename(&away, &data).expect("back");
    assert_eq!(server.edit(&id, edit).0, 200);
}

/// A damaged database: one page says so and brings a copy back, without a restart; what was damaged is set aside.
#[test]
fn a_damaged_database_is_told_and_a_copy_brought_back() {
    let (folder, server) = serve();
    begin(&server, "Kept");
    let copies = folder.path().join("backups");
    std::fs::create_dir_all(&copies).expect("a folder");
    let copy = copies.join("bofta-2026-11-25T10-00-00.000.db");
    let done =
        Command::new(PROGRAM).arg("backup").arg(&copy).arg("--data").arg(folder.path()).output().expect("it runs");
    assert_eq!(done.status.code(), Some(0), "{done:?}");
    server.kill();
    let database = folder.path().join("bofta.db");
    // All of it into the one file, which is then spoilt from its middle on.
    let connection = rusqlite::Connection::open(&database).expect("opened");
    connection.query_row("PRAGMA wal_checkpoint(TRUNCATE)", [], |_| Ok(())).expect("brought in");
    connection.query_row("PRAGMA journal_mode = DELETE", [], |_| Ok(())).expect("one file");
    drop(connection);
    let mut bytes = std::fs::read(&database).expect("read");
    let middle = bytes.len() / 2;
    bytes[middle..].fill(0xA5);
    std::fs::write(&database, &bytes).expect("written");
    let server = Server::start("serve", folder.path());
    let (status, _, page) = server.bytes("/");
    let page = String::from_utf8_lossy(&page).into_owned();
    assert!(status == 503 && page.contains("damaged") && page.contains("bofta-2026-11-25T10-00-00.000.db"), "{page}");
    assert_eq!(server.get("/api/projects").0, 503);
    let client = reqwest::blocking::Client::new();
    let restore = |copy: &str, origin: &str| {
        let request = client.post(format!("{}/restore", server.base)).header("origin", origin);
        request.form(&[("copy", copy)]).send().expect("an answer").status().as_u16()
    };
    let name = "bofta-2026-11-25T10-00-00.000.db";
    assert_eq!(restore(name, "http://evil.example"), 403);
    assert_eq!(restore("../bofta.db", &server.base), 409, "only a copy that is there");
    assert_eq!(restore(name, &server.base), 200);
    let begun = Instant::now();
    let back = loop {
        if let Ok(answer) = client.get(format!("{}/api/projects", server.base)).send()
            && answer.status().is_success()
        {
            break answer.json::<Value>().expect("the shelf");
        }
        assert!(begun.elapsed() < Duration::from_secs(10), "the shelf does not come back");
        std::thread::sleep(Duration::from_millis(50));
    };
    assert_eq!(back["cards"][0]["name"], "Kept");
    let aside = std::fs::read_dir(folder.path()).expect("read").filter_map(Result::ok);
    let aside: Vec<_> = aside.filter(|e| e.file_name().to_string_lossy().contains("set-aside")).collect();
    assert_eq!(std::fs::read(aside[0].path()).expect("read"), bytes, "what was damaged is still there");
}

/// A full disk is told as 507 and another program in the way as 503, both before anything is half kept.
#[test]
fn what_cannot_be_kept_is_told_by_its_status() {
    let folder = tempfile::tempdir().expect("a folder");
    drop(Server::start("serve", folder.path()));
    let server = Server::start_with("serve", folder.path(), &["--pages", "70"]);
    let id = begin(&server, "Tote");
    let mut last = json!(null);
    let refused = (0..400).find_map(|n| {
        let edits = json!([{ "edit": "bag", "field": "width", "value": (10 + n % 9).to_string() }]);
        let (status, body) = server.edit(&id, edits);
        if status == 200 {
            last = body;
            return None;
        }
        Some((status, body))
    });
    let (status, body) = refused.expect("it fills up");
    assert_eq!(status, 507, "{body}");
    assert!(body["message"].as_str().is_some_and(|m| m.contains("disk is full")), "{body}");
    assert_eq!(server.get(&format!("/api/projects/{id}")).1["revision"], last["revision"]);
    drop(server);
    let server = Server::start("serve", folder.path());
    let other = rusqlite::Connection::open(folder.path().join("bofta.db")).expect("opened");
    other.execute_batch("BEGIN IMMEDIATE").expect("held");
    let edits = json!([{ "edit": "bag", "field": "width", "value": "20" }]);
    let (status, body) = server.edit(&id, edits.clone());
    assert_eq!(status, 503, "{body}");
    other.execute_batch("ROLLBACK").expect("let go");
    assert_eq!(server.edit(&id, edits).0, 200);
}

/// However many searches are open, what is read and changed beside them is answered.
#[test]
fn searches_take_turns_and_starve_nobody() {
    let folder = tempfile::tempdir().expect("a folder");
    let server = Server::start("demo", folder.path());
    let host = server.base.trim_start_matches("http://").to_owned();
    let searches: Vec<TcpStream> = (0..20)
        .map(|_| {
            let mut search = TcpStream::connect(&host).expect("connected");
            let request = format!("GET /api/projects/bottle-caddy/search?seconds=30 HTTP/1.1\r\nHost: {host}\r\n\r\n");
            search.write_all(request.as_bytes()).expect("sent");
            search
        })
        .collect();
    std::thread::sleep(Duration::from_millis(500));
    for width in ["14", "15", "16"] {
        let (status, view) = server.edit("harvest-tote", json!([{ "edit": "bag", "field": "width", "value": width }]));
        assert_eq!((status, &view["lay"]["complete"]), (200, &json!(true)));
    }
    // Each of them has been told something, since each gets its turn.
    for mut search in searches {
        search.set_read_timeout(Some(Duration::from_secs(20))).expect("set");
        let mut text = String::new();
        let mut part = [0; 4096];
        while !text.contains("event: lay") {
            let n = search.read(&mut part).expect("told in time");
            assert!(n > 0, "{text}");
            text.push_str(&String::from_utf8_lossy(&part[..n]));
        }
    }
}

/// The shelf in stretches, and found by name.
#[test]
fn a_long_shelf_comes_in_stretches() {
    let (_folder, server) = serve();
    for n in 0..30 {
        begin(&server, &format!("Pouch {n:02}, for {}", if n % 3 == 0 { "Édith" } else { "seeds" }));
    }
    let names = |query: &str| -> (Vec<String>, u64) {
        let (status, shelf) = server.get(&format!("/api/projects?{query}"));
        assert_eq!(status, 200, "{shelf}");
        let names =
            shelf["cards"].as_array().expect("cards").iter().map(|c| c["name"].as_str().expect("name").to_owned());
        (names.collect(), shelf["found"].as_u64().expect("found"))
    };
    let (first, found) = names("count=20");
    let (rest, _) = names("from=20&count=20");
    assert_eq!((first.len(), rest.len(), found), (20, 10, 30));
    assert!(first[0].starts_with("Pouch 29") && rest[9].starts_with("Pouch 00"), "the one changed last first");
    assert_eq!(names("find=%C3%A9DITH").1, 10, "whatever the case");
    assert_eq!(names("find=nothing%20so%20called"), (vec![], 0));
}

/// Every path of the interface, asked for what is not there or with a body that is none: a refusal with a sentence, never a
/// fault, and nothing is kept of it. The paths are those of the document the program gives out itself.
#[test]
fn every_path_refuses_what_it_does_not_know_with_a_sentence() {
    let (_folder, server) = serve();
    let document = std::process::Command::new(support::PROGRAM).arg("openapi").output().expect("the document");
    let document: Value = serde_json::from_slice(&document.stdout).expect("JSON");
    let paths = document["paths"].as_object().expect("paths");
    let (mut asked, mut with_names) = (0, 0);
    // The stand-in for the camera makes a picture for any number.
    for (path, operations) in paths.iter().filter(|(path, _)| !path.starts_with("/api/camera")) {
        let unknown = path
            .replace("{id}", "no-such-bag")
            .replace("{cloth}", "no-such-cloth")
            .replace("{piece}", "no-such-piece")
            .replace("{number}", "999999")
            .replace("{key}", "no-such-key");
        let names = unknown != *path;
        for method in operations.as_object().expect("operations").keys() {
            let (status, body) = match method.as_str() {
                "get" => server.get(&unknown),
                "delete" => (server.delete(&unknown), Value::Null),
                _ => server.post_text(&unknown, "{ \"what\": 1"),
            };
            asked += 1;
            let told = || format!("{method} {unknown}: {status} {body}");
            assert!(status < 500, "{}", told());
            if method == "post" {
                // Undo and restore take no body, or one that says on what.
                assert!((400..500).contains(&status) || (status == 204 && unknown.ends_with("/restore")), "{}", told());
            }
            if method == "get" && names {
                with_names += 1;
                assert!((400..500).contains(&status), "{}", told());
            }
            if (400..500).contains(&status) && method != "delete" {
                let message = body["message"].as_str().unwrap_or_default();
                assert!(message.len() > 10 && message.ends_with(['.', '?']), "{}", told());
            }
            let promised = &operations[method]["responses"];
            let told_of = promised.get(status.to_string()).is_some() || status < 300;
            assert!(told_of, "{} is not in the document", told());
        }
    }
    assert!(asked > 40 && with_names > 10, "{asked} asked, {with_names} with names");
    let (_, shelf) = server.get("/api/projects");
    assert_eq!(shelf["total"], 0, "something was kept: {shelf}");
}

/// Looking changes nothing and never fails: every view of every bag of the demo, twice, with the same answer.
#[test]
fn looking_at_everything_changes_nothing() {
    let folder = tempfile::tempdir().expect("a folder");
    let server = Server::start("demo", folder.path());
    let (_, shelf) = server.get("/api/projects?count=200");
    let cards = shelf["cards"].as_array().expect("cards");
    assert!(cards.len() > 10);
    for card in cards {
        let id = card["id"].as_str().expect("an id");
        let (status, before) = server.get(&format!("/api/projects/{id}"));
        assert_eq!(status, 200, "{before}");
        let pieces = before["pieces"].as_array().expect("pieces");
        let mut views: Vec<String> =
            ["alternatives", "claims", "tries", "ways-out", "other-widths", "left-over", "steps/1", "scrap-shapes"]
                .iter()
                .map(|v| format!("/api/projects/{id}/{v}"))
                .collect();
        views.extend(
            pieces
                .iter()
                .take(3)
                .filter_map(|p| p["id"].as_str())
                .map(|p| format!("/api/projects/{id}/pieces/{p}/turns")),
        );
        for view in views {
            let (status, body) = server.get(&view);
            // Before all is cut nothing is left over; a piece that is made up of others lies on no cloth to be turned on.
            let refused = [404, 409, 422].contains(&status) && body["message"].is_string();
            assert!(status == 200 || refused, "{view}: {status} {body}");
        }
        let (_, after) = server.get(&format!("/api/projects/{id}"));
        assert_eq!(before["revision"], after["revision"], "{id} was changed by looking");
        assert_eq!(before["bag"], after["bag"], "{id}");
        assert_eq!(before["pieces"], after["pieces"], "{id}");
    }
}

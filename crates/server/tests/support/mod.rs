//! A server of the real program on a port of its own, with a database of its own.
#![allow(dead_code, missing_docs)]

use serde_json::{Value, json};
use std::io::{BufRead, BufReader};
use std::path::Path;
use std::process::{Child, Command, Stdio};

pub const PROGRAM: &str = env!("CARGO_BIN_EXE_bofta");

pub struct Server {
    child: Child,
    pub base: String,
    client: reqwest::blocking::Client,
}

impl Server {
    pub fn start(command: &str, data: &Path) -> Self {
        Self::start_with(command, data, &[])
    }

    pub fn start_with(command: &str, data: &Path, more: &[&str]) -> Self {
        Self::start_program(Path::new(PROGRAM), command, data, more)
    }

    /// Of a copy of the program.
    pub fn start_program(program: &Path, command: &str, data: &Path, more: &[&str]) -> Self {
        let mut child = Command::new(program)
            .args([command, "--listen", "127.0.0.1:0", "--data"])
            .arg(data)
            .args(more)
            .stdout(Stdio::piped())
            .spawn()
            .expect("the program starts");
        let mut line = String::new();
        let stdout = child.stdout.take().expect("piped");
        BufReader::new(stdout).read_line(&mut line).expect("it says where it is");
        let base = line.trim().rsplit(' ').next().expect("an address").to_owned();
        Self { child, base, client: reqwest::blocking::Client::new() }
    }

    pub fn get(&self, path: &str) -> (u16, Value) {
        let answer = self.client.get(format!("{}{path}", self.base)).send().expect("an answer");
        (answer.status().as_u16(), answer.json().unwrap_or(Value::Null))
    }

    pub fn bytes(&self, path: &str) -> (u16, String, Vec<u8>) {
        let answer = self.client.get(format!("{}{path}", self.base)).send().expect("an answer");
        let kind = answer.headers().get("content-type").and_then(|v| v.to_str().ok()).unwrap_or_default().to_owned();
        (answer.status().as_u16(), kind, answer.bytes().expect("a body").to_vec())
    }

    pub fn post(&self, path: &str, body: &Value) -> (u16, Value) {
        let answer = self.client.post(format!("{}{path}", self.base)).json(body).send().expect("an answer");
        (answer.status().as_u16(), answer.json().unwrap_or(Value::Null))
    }

    pub fn post_text(&self, path: &str, body: &str) -> (u16, Value) {
        let request = self.client.post(format!("{}{path}", self.base)).header("content-type", "application/json");
        let answer = request.body(body.to_owned()).send().expect("an answer");
        (answer.status().as_u16(), answer.json().unwrap_or(Value::Null))
    }

    pub fn post_bytes(&self, path: &str, body: &[u8]) -> (u16, Value) {
        let request =
            self.client.post(format!("{}{path}", self.base)).header("content-type", "application/octet-stream");
        let answer = request.body(body.to_vec()).send().expect("an answer");
        (answer.status().as_u16(), answer.json().unwrap_or(Value::Null))
    }

    pub fn delete(&self, path: &str) -> u16 {
        self.client.delete(format!("{}{path}", self.base)).send().expect("an answer").status().as_u16()
    }

    /// Makes edits on the present revision.
    pub fn edit(&self, id: &str, edits: Value) -> (u16, Value) {
        let (_, now) = self.get(&format!("/api/projects/{id}"));
        self.post(&format!("/api/projects/{id}/edits"), &json!({ "based_on": now["revision"], "edits": edits }))
    }

    /// SIGKILL: nothing is finished or put away.
    pub fn kill(mut self) {
        self.child.kill().expect("it was running");
        self.child.wait().expect("it ended");
    }
}

impl Drop for Server {
    fn drop(&mut self) {
        let _ = self.child.kill();
        let _ = self.child.wait();
    }
}

/// What a PDF says, as poppler reads it.
pub fn pdf_text(pdf: &[u8]) -> String {
    let folder = tempfile::tempdir().expect("a folder");
    let file = folder.path().join("sheet.pdf");
    std::fs::write(&file, pdf).expect("written");
    let read = Command::new("pdftotext").args(["-layout"]).arg(&file).arg("-").output().expect("poppler is installed");
    String::from_utf8_lossy(&read.stdout).into_owned()
}

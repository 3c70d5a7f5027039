//! The real interface in headless Chromium, driven by Playwright from Node: see e2e/.
#![allow(missing_docs)]

mod support;

use std::path::Path;
use std::process::Command;

#[test]
fn the_interface_works_in_a_browser() {
    let e2e = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../e2e");
    let status = Command::new("npx")
        .args(["playwright", "test"])
        .current_dir(e2e)
        .env("BOFTA_PROGRAM", support::PROGRAM)
        .status()
        .expect("npx is there");
    assert!(status.success(), "the browser tests failed; their report is above");
}

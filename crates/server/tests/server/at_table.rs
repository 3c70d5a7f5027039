//! Every plan of the demo cut by somebody who has only the sheet.

use crate::carry::carry_out;
use crate::support::{self, Server};
use bofta_core::cutting::{cut_list, describe, opening};
use bofta_core::measure::Ruler;
use bofta_formats::{read_job, read_lay};

/// What is printed, without the breaks between lines.
fn squeezed(text: &str) -> String {
    text.split_whitespace().collect::<String>()
}

#[test]
fn every_plan_of_the_demo_can_be_cut_from_its_sheet() {
    let folder = tempfile::tempdir().expect("a folder");
    let server = Server::start("demo", folder.path());
    let (_, shelf) = server.get("/api/projects");
    let mut cut = 0;
    for card in shelf["cards"].as_array().expect("cards") {
        let id = card["id"].as_str().expect("an id");
        let path = format!("/api/projects/{id}");
        let (_, _, job) = server.bytes(&format!("{path}/job.json"));
        let (status, _, lay) = server.bytes(&format!("{path}/lay.json"));
        if status != 200 {
            continue;
        }
        let job = read_job(&String::from_utf8(job).expect("text")).unwrap_or_else(|e| panic!("{id}: {e}"));
        let lay = read_lay(&String::from_utf8(lay).expect("text")).unwrap_or_else(|e| panic!("{id}: {e}"));
        let (_, view) = server.get(&path);
        let ruler = match view["ruler"].as_str() {
            Some("eighth") => Ruler::Eighth,
            Some("sixteenth") => Ruler::Sixteenth,
            Some("millimetre") => Ruler::Millimetre,
            other => panic!("{other:?}"),
        };
        let sheet = squeezed(&support::pdf_text(&server.bytes(&format!("{path}/cut-sheet.pdf")).2));
        for on in &lay.cloths {
            carry_out(&job, on, ruler).unwrap_or_else(|why| panic!("{id}, {}: {why}", on.cloth));
            cut += 1;
            // The same sentences stand on the sheet; names of pieces come from the draft, so only their figures are looked for.
            let begins = squeezed(&opening(&job, on, ruler));
            assert!(sheet.contains(&begins), "{id}: “{begins}” is not on the sheet");
            for step in cut_list(&job, std::slice::from_ref(on), &[], &[]) {
                let words = describe(&step, &job, &[], ruler);
                assert!(sheet.contains(&squeezed(&words.reading)), "{id}: {}", words.reading);
            }
        }
    }
    assert!(cut > 15, "{cut} cloths of the demo were cut");
}

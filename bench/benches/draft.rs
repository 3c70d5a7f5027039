//! How long a draft takes: of a plain tote, and of the largest bag, a tote with as many parts of every kind as one takes.
#![allow(missing_docs)]

use bofta_core::bag::parts::MOST_PARTS;
use bofta_core::bag::{Bag, Family, PartKind};
use bofta_core::measure::{Ruler, System};
use bofta_core::project::{Edit, Project};
use criterion::{BenchmarkId, Criterion, criterion_group, criterion_main};

/// A tote with 60 parts, of every kind by turns on every wall that takes it; as the editing puts them on.
fn largest() -> Bag {
    let mut project = Project::new("Largest", System::Inches);
    let mut edit = |edit: Edit| {
        // What cannot stand where it is put is left off.
        if let Ok((edited, _)) = project.edited(&edit) {
            project = edited;
        }
        project.bag.parts.len()
    };
    for (field, value) in [("width", "30"), ("height", "24"), ("depth", "8")] {
        edit(Edit::Bag { field: field.into(), value: value.into() });
    }
    let walls = ["front", "back", "inside-front", "inside-back"];
    let kinds = PartKind::CHOICES.iter().map(|(key, ..)| *key).cycle();
    for (n, part) in kinds.enumerate() {
        let wall = Some(walls[n % walls.len()].to_owned());
        let put_on = edit(Edit::AddPart { part: part.into(), wall });
        if put_on == MOST_PARTS || edit(Edit::AddPart { part: part.into(), wall: None }) == MOST_PARTS {
            break;
        }
    }
    project.bag
}

fn draft(c: &mut Criterion) {
    let mut group = c.benchmark_group("draft");
    let ruler = Ruler::default_for(System::Inches);
    for bag in [Family::Tote.default_for(System::Inches), largest()] {
        let id = BenchmarkId::new("parts", bag.parts.len());
        group.bench_with_input(id, &bag, |b, bag| b.iter(|| bag.draft(ruler).map(|draft| draft.pieces.len())));
    }
    group.finish();
}

criterion_group!(benches, draft);
criterion_main!(benches);

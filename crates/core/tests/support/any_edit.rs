//! Edits of every kind, right and wrong ones, as somebody might make them.
#![allow(dead_code, missing_docs, unreachable_pub)]

use bofta_core::bag::{Family, GoodKind, PartKind, Slot};
use bofta_core::lay::Random;
use bofta_core::measure::{Length, System};
use bofta_core::piece::Part;
use bofta_core::project::{
    ClothField, Edit, LayField, Lies, Look, Pattern, PieceEdge, Project, ProjectField, RowField,
};

const SIZES: &[&str] = &[
    "", "0", "1/4", "3/8", "1", "2 1/2", "4", "7.25", "9", "11 1/2", "13", "16", "20 cm", "1 yd", "60", "-3", "wide",
    "3 x 4", "900", "1e9", "½", "12,5", "٣",
];
const SAID: &[&str] = &[
    "2 fat quarters",
    "1 yd",
    "half a yard",
    "18 x 22",
    "3 squares of 5 in",
    "a quarter",
    "1.2 m, 60 cm",
    "right triangle 15 x 12",
    "two trouser legs 14 x 32",
    "about ½ yd",
    "0",
    "none",
    "mud",
    "5000 fat quarters",
    "12 x",
    "½ yd of Moss canvas",
];
const WORDS: &[&str] = &[
    "",
    "Trial",
    "Moss canvas",
    "yes",
    "no",
    "cotton",
    "fleece",
    "one-way",
    "two-way",
    "length",
    "free",
    "through",
    "x y z",
    "€",
];

fn pick<'a>(all: &[&'a str], random: &mut Random) -> &'a str {
    all[random.below(all.len())]
}

fn any(random: &mut Random) -> String {
    let pool = [SIZES, SAID, WORDS][random.below(3)];
    pick(pool, random).to_owned()
}

/// Something that might be typed into a slot; now and then anything at all.
fn for_slot(slot: &Slot<'_>, random: &mut Random) -> String {
    if random.below(6) == 0 {
        return any(random);
    }
    match slot {
        Slot::Choice(choice) => choice.answers()[random.below(choice.answers().len())].key.to_owned(),
        Slot::Toggle(_) => ["yes", "no"][random.below(2)].to_owned(),
        Slot::Count(_, among) => {
            (among.start() + random.below((among.end() - among.start() + 2) as usize) as u32).to_string()
        }
        _ => pick(SIZES, random).to_owned(),
    }
}

fn edit_of_the_bag(project: &Project, random: &mut Random) -> Edit {
    let mut bag = project.bag.clone();
    let fields = bag.fields();
    match fields.get(random.below(fields.len().max(1))) {
        Some(field) => Edit::Bag { field: field.key.to_owned(), value: for_slot(&field.slot, random) },
        None => Edit::Bag { field: "width".into(), value: "9".into() },
    }
}

fn edit_of_a_part(project: &Project, random: &mut Random) -> Edit {
    let mut bag = project.bag.clone();
    let n = bag.parts.len();
    let Some(added) = bag.parts.get_mut(random.below(n.max(1))) else {
        let part = PartKind::CHOICES[random.below(PartKind::CHOICES.len())].0.to_owned();
        return Edit::AddPart {
            part,
            wall: [None, Some("front".into()), Some("attic".into())][random.below(3)].clone(),
        };
    };
    let id = added.id;
    match random.below(6) {
        0 => Edit::TakePartOff { id },
        1 => Edit::CopyPart { id },
        2 => Edit::PutPartBack { id: id + random.below(2) as u32 },
        _ => {
            let fields = added.fields();
            let field = &fields[random.below(fields.len())];
            Edit::Part { id, field: field.key.to_owned(), value: for_slot(&field.slot, random) }
        }
    }
}

fn edit_of_a_cloth(project: &Project, random: &mut Random) -> Edit {
    const FIELDS: &[ClothField] = &[
        ClothField::Name,
        ClothField::Material,
        ClothField::Width,
        ClothField::Selvedge,
        ClothField::Trim,
        ClothField::WashFirst,
        ClothField::Step,
        ClothField::Min,
        ClothField::Price,
        ClothField::AtHand,
        ClothField::BuyMore,
        ClothField::Print,
        ClothField::Up,
        ClothField::Nap,
        ClothField::Folded,
        ClothField::TestSquare,
        ClothField::TestAlong,
        ClothField::TestAcross,
        ClothField::Weight,
        ClothField::Repeat,
        ClothField::RepeatWide,
        ClothField::HalfDrop,
        ClothField::MotifFrom,
    ];
    let id = |random: &mut Random| {
        let all = &project.cloths;
        all.get(random.below(all.len() + 1)).map_or_else(|| "no-such-cloth".to_owned(), |c| c.id.clone())
    };
    let part = Part::ALL[random.below(Part::ALL.len())].key().to_owned();
    match random.below(16) {
        15 => Edit::MatchPrint { cloth: id(random) },
        14 => Edit::PutRight { cloth: id(random), thing: random.below(4), text: pick(SAID, random).to_owned() },
        12 => Edit::AnyCloth { part, any: random.below(2) == 0 },
        13 => Edit::NeverFrom { part, cloth: id(random), never: random.below(3) > 0 },
        0 => Edit::AddCloth {
            name: format!("Cloth {}", random.below(5)),
            material: pick(&["cotton", "canvas", "fleece", "interfacing", "vinyl", "silk"], random).into(),
        },
        1 => Edit::RemoveCloth { cloth: id(random) },
        2 => Edit::LayDown { text: pick(SAID, random).to_owned() },
        3 => Edit::Assign { part, cloth: id(random) },
        4 => Edit::AssignAlso { part, cloth: id(random) },
        5 => Edit::Unassign { part, cloth: id(random) },
        6 => Edit::SwapCloths { one: id(random), other: id(random) },
        7 => {
            let ground = pick(&["#a9bfa3", "#000000", "green", ""], random).to_owned();
            let pattern = Pattern::ALL[random.below(Pattern::ALL.len())];
            Edit::ClothLook { cloth: id(random), look: Look::new(pattern, ground, "#123456") }
        }
        8 => Edit::Cloth { cloth: id(random), field: ClothField::AtHand, value: pick(SAID, random).to_owned() },
        _ => Edit::Cloth { cloth: id(random), field: FIELDS[random.below(FIELDS.len())], value: any(random) },
    }
}

fn edit_of_a_piece(project: &Project, random: &mut Random) -> Edit {
    let draft = project.plan().map(|planned| planned.draft).unwrap_or_default();
    let id = draft
        .pieces
        .get(random.below(draft.pieces.len() + 1))
        .map_or_else(|| "no-such-piece".into(), |p| p.id.to_string());
    match random.below(8) {
        7 => {
            let edge = [None, Some(PieceEdge::Top), Some(PieceEdge::Base)][random.below(3)];
            Edit::OnKeptEdge { piece: id, edge }
        }
        6 => {
            let all = &project.cloths;
            let cloth = all.get(random.below(all.len() + 1)).map(|c| c.id.clone());
            Edit::AssignPiece { piece: id, cloth }
        }
        5 => Edit::SizeByPatches { piece: id, width: pick(SIZES, random).into(), height: pick(SIZES, random).into() },
        0 => Edit::Turn { piece: id, lies: Lies::ALL[random.below(Lies::ALL.len())] },
        1 => Edit::Measured { piece: id, width: pick(SIZES, random).into(), height: pick(SIZES, random).into() },
        2 => Edit::PlaceOnPrint {
            piece: id,
            across: pick(&["middle", "", "3", "wide"], random).into(),
            up: pick(&["face", "middle", "", "5"], random).into(),
        },
        _ => {
            let field = pick(
                &[
                    "front",
                    "columns",
                    "rows",
                    "patch_seam",
                    "quilted",
                    "quilted_pieced",
                    "patch_cloths",
                    "patch_over",
                    "bands",
                    "band_cloths",
                    "bands_run",
                    "backed",
                    "backed_clear",
                    "nothing",
                ],
                random,
            );
            let value = pick(
                &[
                    "grid",
                    "strips",
                    "triangles",
                    "crazy",
                    "whole",
                    "yes",
                    "no",
                    "3",
                    "2, 3",
                    "outer, lining",
                    "base, outer, lining, pocket",
                    "light",
                    "fleece",
                    "1/2",
                    "900",
                ],
                random,
            );
            Edit::MakeUp { piece: id, field: field.into(), value: value.into() }
        }
    }
}

/// Any edit of `project`; about a third of them cannot stand.
pub fn any_edit(project: &Project, random: &mut Random) -> Edit {
    match random.below(20) {
        0..7 => edit_of_the_bag(project, random),
        7..10 => edit_of_a_part(project, random),
        10..14 => edit_of_a_cloth(project, random),
        14..16 => edit_of_a_piece(project, random),
        16 => Edit::Family {
            family: [Family::ALL[random.below(Family::ALL.len())].key(), "hat"][usize::from(random.below(9) == 0)]
                .to_owned(),
        },
        17 => match random.below(5) {
            0 => Edit::KeepTry { name: pick(WORDS, random).into() },
            1 => Edit::TakeTry { name: pick(WORDS, random).into() },
            2 => Edit::ForgetTry { name: pick(WORDS, random).into() },
            3 if random.below(2) == 0 => {
                let step = pick(&["straps", "outer", "mouth", "part-1", "nothing"], random).into();
                Edit::Made { step, done: random.below(3) > 0 }
            }
            3 if random.below(2) == 0 => Edit::OwnSteps { text: any(random) },
            3 => Edit::Notes { text: any(random) },
            _ => Edit::Scale { percent: [0, 1, 50, 90, 100, 130, 400, 90_000][random.below(8)] },
        },
        18 => match random.below(4) {
            0 => Edit::Project { field: ProjectField::System, value: pick(&["in", "cm", "ell"], random).into() },
            1 => Edit::Project { field: ProjectField::Name, value: any(random) },
            2 => Edit::Lay {
                field: [LayField::Cuts, LayField::PrintMayLie, LayField::Straps, LayField::Join, LayField::InNotches]
                    [random.below(5)],
                value: pick(&["free", "through", "yes", "no", "along", "across", "straight", "diagonal"], random)
                    .into(),
            },
            3 if random.below(2) == 0 => {
                let size = [None, Some(Length::INCH)][random.below(2)];
                Edit::PiecesAtHand { name: pick(WORDS, random).into(), size, count: any(random) }
            }
            _ => Edit::LengthsAtHand {
                kind: [GoodKind::Webbing, GoodKind::Cord][random.below(2)],
                width: None,
                lengths: pick(SAID, random).into(),
            },
        },
        _ => match random.below(3) {
            0 => Edit::AddRow {
                name: any(random),
                part: "outer".into(),
                count: pick(&["1", "2", "0", "many"], random).into(),
                width: pick(SIZES, random).into(),
                height: pick(SIZES, random).into(),
            },
            1 => Edit::Row {
                row: random.below(3),
                field: [
                    RowField::Name,
                    RowField::Count,
                    RowField::Width,
                    RowField::Height,
                    RowField::Shape,
                    RowField::Seam,
                    RowField::Fold,
                    RowField::Remove,
                ][random.below(8)],
                value: any(random),
            },
            _ => Edit::Fit {
                width: pick(SIZES, random).into(),
                height: pick(SIZES, random).into(),
                thick: pick(SIZES, random).into(),
                ease: "1".into(),
                above: "2".into(),
            },
        },
    }
}

/// A project with one cloth, in either system.
pub fn any_beginning(random: &mut Random) -> Project {
    let system = [System::Inches, System::Centimetres][random.below(2)];
    let start = Edit::AddCloth { name: "Moss canvas".into(), material: "canvas".into() };
    Project::new("Trial", system).edited(&start).expect("a cloth").0
}

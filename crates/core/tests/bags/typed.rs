//! What is typed and chosen, as people write it: prices and currencies, rows, cloths for parts, sizes by their word.
#![allow(missing_docs)]

use bofta_core::FieldProblem;
use bofta_core::bag::{Body, Family, RowShape};
use bofta_core::buying::washed;
use bofta_core::cloth::{Material, Money};
use bofta_core::measure::{Length, Ruler, System};
use bofta_core::piece::Part;
use bofta_core::project::kept::{read_project, write_project};
use bofta_core::project::{ClothField, Edit, Project, ProjectField, RowField};
use rstest::rstest;

fn made(project: &Project, edits: &[Edit]) -> Project {
    edits.iter().fold(project.clone(), |p, e| p.edited(e).unwrap_or_else(|why| panic!("{e:?}: {why:?}")).0)
}

fn refused(project: &Project, edit: &Edit) -> FieldProblem {
    project.edited(edit).expect_err("refused").remove(0)
}

fn add_cloth(name: &str, material: &str) -> Edit {
    Edit::AddCloth { name: name.into(), material: material.into() }
}

fn with_canvas(system: System) -> Project {
    made(&Project::new("Tote", system), &[add_cloth("Canvas", "canvas")])
}

fn price(typed: &str) -> Edit {
    Edit::Cloth { cloth: "canvas".into(), field: ClothField::Price, value: typed.into() }
}

fn currency(sign: &str) -> Edit {
    Edit::Project { field: ProjectField::Currency, value: sign.into() }
}

#[rstest]
#[case("12", 1_200, None)]
#[case("12.5", 1_250, None)]
#[case("12,50", 1_250, None)]
#[case(" 0 ", 0, None)]
#[case("€ 12,50", 1_250, Some("€"))]
#[case("12,50 €", 1_250, Some("€"))]
#[case("£9", 900, Some("£"))]
#[case("$ 9.99", 999, Some("$"))]
#[case("120 kr", 12_000, Some("kr"))]
#[case("CHF 7", 700, Some("CHF"))]
#[case("100000", 10_000_000, None)]
fn a_price_is_read_with_its_sign(#[case] typed: &str, #[case] amount: i64, #[case] sign: Option<&str>) {
    for system in System::ALL {
        let project = made(&with_canvas(system), &[price(typed)]);
        let found = project.cloths[0].price.expect("a price");
        let per = if system == System::Inches { Length::YARD } else { Length::METRE };
        assert_eq!((found.amount, found.per), (Money(amount), per));
        assert_eq!(project.currency.as_deref(), sign);
    }
}

#[rstest]
fn what_is_no_price_is_refused_and_changes_nothing(
    #[values("dear", "12 kr 50", "€", "1.2.3", "€ 12 $", "1e9", "12/yd", "--5", "١٢", "12 €€€€€")] typed: &str,
) {
    let project = made(&with_canvas(System::Inches), &[price("8")]);
    let problem = refused(&project, &price(typed));
    assert_eq!(problem.field, "price");
    assert!(problem.message.contains(typed) || problem.message.contains("from 0 to 100000"), "{}", problem.message);
}

#[rstest]
#[case("-1")]
#[case("100000.01")]
fn a_price_out_of_bounds_says_the_bounds(#[case] typed: &str) {
    let problem = refused(&with_canvas(System::Centimetres), &price(typed));
    assert_eq!(problem.message, "A price is from 0 to 100000.");
}

#[test]
fn a_project_has_one_currency() {
    let euros = made(&with_canvas(System::Centimetres), &[price("€ 12")]);
    assert_eq!(euros.money(Money(1_234)), "€ 12.34");
    let problem = refused(&euros, &price("$ 12"));
    assert_eq!(problem.field, "price");
    assert!(problem.message.contains("are in €, this one is in $"), "{}", problem.message);
    // Without a sign it is in the project's.
    assert_eq!(made(&euros, &[price("13")]).currency.as_deref(), Some("€"));
    // Changed by hand, the amounts stay; taken away, none is shown.
    let pounds = made(&euros, &[currency(" £ ")]);
    assert_eq!((pounds.money(Money(5)), pounds.cloths[0].price), ("£ 0.05".to_owned(), euros.cloths[0].price));
    assert_eq!(made(&pounds, &[currency("")]).money(Money(-150)), "−1.50");
    for no in ["a dollar", "12", "€ 1", "<b>", "€€€€€"] {
        assert_eq!(refused(&euros, &currency(no)).field, "currency", "{no}");
    }
    // Kept and read back; a project kept before there were currencies has none.
    assert_eq!(read_project(&write_project(&pounds).expect("written")).as_ref(), Ok(&pounds));
    let none = made(&pounds, &[currency("")]);
    assert!(!write_project(&none).expect("written").contains("currency"));
}

#[test]
fn each_backing_asks_for_its_own_cloth() {
    let set = |field: &str, value: &str| Edit::Bag { field: field.into(), value: value.into() };
    let project = made(&with_canvas(System::Inches), &[set("backing", "full-size"), add_cloth("Fleece", "fleece")]);
    assert_eq!(project.plan().expect("planned").unassigned, []);
    // Turned to interfacing it asks for interfacing, not for the fleece there is.
    let stiff = made(&project, &[set("backing_cloth", "interfacing")]);
    assert_eq!(stiff.plan().expect("planned").unassigned, [Part::Interfacing]);
    let stiff = made(&stiff, &[add_cloth("Stiff", "interfacing")]);
    assert_eq!(stiff.cloth_of(Part::Interfacing).map(|c| c.name.as_str()), Some("Stiff"));
    assert_eq!(stiff.cloth_of(Part::Backing).map(|c| c.name.as_str()), Some("Fleece"));
    for material in Material::ALL {
        let suited: Vec<Part> = Part::ALL.into_iter().filter(|p| material.suits(*p)).collect();
        match material {
            Material::Fleece => assert_eq!(suited, [Part::Backing]),
            Material::Interfacing => assert_eq!(suited, [Part::Interfacing]),
            Material::Stabiliser => assert_eq!(suited, [Part::Stabiliser]),
            _ => assert_eq!(suited.len(), Part::ALL.len() - 3, "{material:?} suits what is seen"),
        }
    }
}

fn row(fields: [&str; 5]) -> Edit {
    let [count, name, part, width, height] = fields.map(str::to_owned);
    Edit::AddRow { name, part, count, width, height }
}

fn list(system: System) -> Project {
    made(&Project::new("List", system), &[Edit::Family { family: "cut-list".into() }])
}

#[test]
fn rows_are_typed_one_by_one() {
    let empty = list(System::Centimetres);
    let planned = empty.plan().expect("an empty list is no mistake");
    assert_eq!((planned.job, planned.problems, planned.unassigned), (None, vec![], vec![]));
    let two =
        made(&empty, &[row(["2", "Front", "outer", "38", "40,5"]), row(["1", "Binding", "binding", "WOF", "6 cm"])]);
    let Body::CutList(found) = &two.bag.body else { panic!("a cut list") };
    assert_eq!(found.rows[0].width, Some(Length::CENTIMETRE * 38));
    assert_eq!(found.rows[0].height, Length::MILLIMETRE * 405);
    assert_eq!((found.rows[1].width, found.rows[1].part), (None, Part::Binding), "right across the cloth");
}

#[rstest]
#[case(["two", "Front", "outer", "10", "10"], "count")]
#[case(["-1", "Front", "outer", "10", "10"], "count")]
#[case(["1", "  ", "outer", "10", "10"], "name")]
#[case(["1", "Front", "inside", "10", "10"], "part")]
#[case(["1", "Front", "outer", "wide", "10"], "width")]
#[case(["1", "Front", "outer", "10", ""], "height")]
fn a_row_that_cannot_stand_names_its_field(#[case] typed: [&str; 5], #[case] field: &str) {
    let problem = refused(&list(System::Inches), &row(typed));
    assert_eq!(problem.field, field, "{problem:?}");
}

#[test]
fn a_row_that_is_nothing_is_refused_by_the_list() {
    for (typed, field) in [
        (["0", "Front", "outer", "10", "10"], "rows[0].count"),
        (["1", "Front", "outer", "0", "10"], "rows[0].width"),
        (["1", "Front", "outer", "10", "30 m"], "height"),
    ] {
        assert_eq!(refused(&list(System::Inches), &row(typed)).field, field);
    }
    assert_eq!(refused(&Project::new("Tote", System::Inches), &row(["1", "F", "outer", "1", "1"])).field, "rows");
}

/// Every shape that is offered can be chosen, and comes back as its own key.
#[test]
fn every_shape_of_a_row_can_be_chosen() {
    let one = made(&list(System::Inches), &[row(["2", "Flap", "outer", "12", "8"])]);
    for (key, _) in RowShape::CHOICES {
        let edit = Edit::Row { row: 0, field: RowField::Shape, value: key.into() };
        let Body::CutList(found) = made(&one, &[edit]).bag.body else { panic!("a cut list") };
        let kept = serde_json::to_value(&found.rows[0].shape).expect("kept");
        assert_eq!(kept["shape"], key);
    }
    let other = Edit::Row { row: 0, field: RowField::Shape, value: "star".into() };
    assert!(refused(&one, &other).message.contains("half-round, free"));
}

/// A round base has a diameter; its circle is as wide as that and its seam.
#[test]
fn a_round_bag_is_so_far_across() {
    let round = Edit::Bag { field: "base".into(), value: "round".into() };
    let mut sack = Project::new("Sack", System::Inches);
    sack.bag = Family::Drawstring.default_for(System::Inches);
    assert_eq!(sack.bag.size_word("width"), Some("wide"));
    let sack = made(&sack, &[round, Edit::Bag { field: "width".into(), value: "9".into() }]);
    assert_eq!(sack.bag.size_word("width"), Some("across"));
    assert!(sack.bag.headline(Ruler::Eighth).contains("9 across"), "{}", sack.bag.headline(Ruler::Eighth));
    let mut bag = sack.bag.clone();
    let label = bag.fields().into_iter().find(|f| f.key == "width").map(|f| f.label);
    assert_eq!(label, Some("Diameter of the base"));
    let draft = sack.plan().expect("planned").draft;
    let circle = draft.pieces.iter().find(|p| p.id.contains("base") && p.part == Part::Outer).expect("a base");
    let seam = sack.bag.length("seam_base").expect("a seam");
    assert_eq!(circle.width.size, Length::INCH * 9 + seam * 2);
}

/// What washing takes is told with both sizes, and by the table of docs/rules.md.
#[rstest]
// 44 in less 2 % are 43.12, a yard less 3 % 34.92.
#[case(
    Material::Cotton,
    44,
    "washed before cutting: a width of 44 in comes out at 43 in, a length of 1 yd comes out at 34⅞ in"
)]
// 54 in less 3 % are 52.38, a yard less 5 % 34.2.
#[case(
    Material::Canvas,
    54,
    "washed before cutting: a width of 54 in comes out at 52⅜ in, a length of 1 yd comes out at 34⅛ in"
)]
fn washing_is_told_with_both_sizes(#[case] material: Material, #[case] width: i64, #[case] told: &str) {
    let mut cloth = with_canvas(System::Inches).cloths.remove(0);
    (cloth.material, cloth.width, cloth.wash_first) = (material, Length::INCH * width, true);
    let found = washed(&cloth.roll(), Length::YARD, Ruler::Eighth);
    // Down to a line: what is not there is not promised.
    assert_eq!(found.as_deref(), Some(told));
    (cloth.material, cloth.wash_first) = (Material::Vinyl, true);
    assert_eq!(washed(&cloth.roll(), Length::YARD, Ruler::Eighth), None, "vinyl does not shrink");
}

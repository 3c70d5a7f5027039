//! Projects: edits that hold or name their field, and what a project comes to.
#![allow(missing_docs)]

use bofta_core::bag::{GoodKind, Row};
use bofta_core::buying::{other_widths, purchases};
use bofta_core::cloth::{AtHand, HandForm, Money, Price};
use bofta_core::cutting::{CutStyle, Step, cut_list, cut_style};
use bofta_core::lay::{Budget, Silent, Stop, solve, verify};
use bofta_core::measure::{Length, ShopStep, System, show_bought};
use bofta_core::piece::{Grain, Part, When};
use bofta_core::project::{
    ClothField, Edit, LayField, Lies, Look, Pattern, Project, ProjectField, RowField, Swatch, bought_text, cost_text,
    other_ways,
};
use bofta_core::shape::{Outline, Turn};
use rstest::rstest;

fn bag(field: &str, value: &str) -> Edit {
    Edit::Bag { field: field.into(), value: value.into() }
}

fn cloth(field: ClothField, value: &str) -> Edit {
    Edit::Cloth { cloth: "moss-canvas".into(), field, value: value.into() }
}

fn made(project: &Project, edits: &[Edit]) -> Project {
    edits.iter().fold(project.clone(), |p, e| p.edited(e).unwrap_or_else(|why| panic!("{e:?}: {why:?}")).0)
}

fn with_cloth() -> Project {
    let add = Edit::AddCloth { name: "Moss canvas".into(), material: "canvas".into() };
    made(&Project::new("Tote", System::Inches), &[add])
}

#[test]
fn a_new_project_asks_for_cloth_and_then_is_laid() {
    let project = Project::new("Tote", System::Inches);
    let planned = project.plan().expect("drafts");
    assert!(planned.job.is_none());
    assert_eq!(planned.unassigned, [Part::Outer, Part::Lining, Part::Pocket, Part::Straps]);
    let planned = with_cloth().plan().expect("drafts");
    assert!(planned.unassigned.is_empty());
    let job = planned.job.expect("a job");
    let lay = solve(&job, Budget::iterations(50), &mut Silent).expect("laid");
    assert_eq!(verify(&job, &lay), []);
    // Corners are a step each for outer and lining, through both layers at once.
    let steps = cut_list(&job, &lay.cloths, &planned.draft.pieces, &[]);
    let corners: Vec<_> = steps.iter().filter_map(|s| if let Step::Corners(c) = s { Some(c) } else { None }).collect();
    assert_eq!(corners.len(), 2);
    assert!(corners.iter().all(|c| c.layers == 2 && c.across == Length::INCH * 2));
}

#[test]
fn fleece_comes_from_fleece_and_cloth_from_cloth() {
    let project = made(&with_cloth(), &[bag("backing", "full-size")]);
    assert_eq!(project.plan().expect("drafts").unassigned, [Part::Backing]);
    let project = made(&project, &[Edit::AddCloth { name: "Fleece".into(), material: "fleece".into() }]);
    assert_eq!(project.cloth_of(Part::Backing).map(|c| c.id.as_str()), Some("fleece"));
    assert_eq!(project.cloth_of(Part::Outer).map(|c| c.id.as_str()), Some("moss-canvas"));
    // Taking the fleece away leaves its part without.
    let project = made(&project, &[Edit::RemoveCloth { cloth: "fleece".into() }]);
    assert_eq!(project.plan().expect("drafts").unassigned, [Part::Backing]);
}

#[test]
fn a_size_typed_in_the_other_system_is_converted() {
    let project = made(&with_cloth(), &[bag("width", "38.1 cm")]);
    assert_eq!(project.bag.length("width"), Some(Length::INCH * 15));
    let project = made(&project, &[Edit::Project { field: ProjectField::System, value: "cm".into() }]);
    assert_eq!((project.system, project.bag.length("width")), (System::Centimetres, Some(Length::INCH * 15)));
    let refused = project.edited(&Edit::Project { field: ProjectField::Ruler, value: "eighth".into() });
    assert_eq!(refused.expect_err("never mix systems")[0].field, "ruler");
}

#[test]
fn a_change_of_system_brings_the_shops_along() {
    let project = made(&with_cloth(), &[cloth(ClothField::Price, "9.14")]);
    let metric = made(&project, &[Edit::Project { field: ProjectField::System, value: "cm".into() }]);
    let now = &metric.cloths[0];
    assert_eq!(now.shop, ShopStep::default_for(System::Centimetres));
    // 9.14 a yard of 0.9144 m is 9.9956 a metre.
    assert_eq!(now.price, Some(Price { amount: Money(1_000), per: Length::METRE }));
    let own = made(&project, &[cloth(ClothField::Step, "9")]);
    let metric = made(&own, &[Edit::Project { field: ProjectField::System, value: "cm".into() }]);
    assert_eq!(metric.cloths[0].shop.step, Some(Length::INCH * 9), "a step of one's own stays");
}

#[rstest]
#[case(bag("width", ""), "width")]
#[case(bag("width", "wide"), "width")]
#[case(bag("height", "-3"), "height")]
#[case(bag("depth", "30 m"), "depth")]
#[case(bag("depth", "15"), "depth")]
#[case(bag("seam_side", "8"), "seam_side")]
#[case(bag("boxing", "round"), "boxing")]
#[case(bag("straps", "perhaps"), "straps")]
#[case(cloth(ClothField::Width, "0"), "width")]
#[case(cloth(ClothField::Width, "6 m"), "width")]
#[case(cloth(ClothField::Width, "1"), "width")]
#[case(cloth(ClothField::Selvedge, "27"), "selvedge")]
#[case(cloth(ClothField::Price, "dear"), "price")]
#[case(cloth(ClothField::Price, "-1"), "price")]
#[case(cloth(ClothField::Step, "0"), "step")]
#[case(cloth(ClothField::Repeat, "0"), "repeat")]
#[case(cloth(ClothField::Repeat, "210"), "repeat")]
#[case(cloth(ClothField::RepeatWide, "60"), "repeat_wide")]
#[case(cloth(ClothField::MotifFrom, "55"), "motif_from")]
#[case(cloth(ClothField::Repeat, "large"), "repeat")]
#[case(cloth(ClothField::AtHand, "1"), "at_hand")]
#[case(cloth(ClothField::AtHand, "1 in"), "at_hand")]
#[case(cloth(ClothField::AtHand, "900 squares of 5 in"), "at_hand")]
#[case(cloth(ClothField::AtHand, "half a yard of ticking"), "at_hand")]
#[case(Edit::AssignAlso { part: "outer".into(), cloth: "moss-canvas".into() }, "cloth")]
#[case(Edit::Unassign { part: "interfacing".into(), cloth: "moss-canvas".into() }, "cloth")]
#[case(cloth(ClothField::Name, " "), "name")]
#[case(Edit::AddCloth { name: "Moss canvas".into(), material: "canvas".into() }, "name")]
#[case(Edit::AddCloth { name: "Silk".into(), material: "silk".into() }, "material")]
#[case(Edit::Assign { part: "outer".into(), cloth: "silk".into() }, "cloth")]
#[case(Edit::Assign { part: "sail".into(), cloth: "moss-canvas".into() }, "part")]
#[case(Edit::Lay { field: LayField::Cuts, value: "zigzag".into() }, "cuts")]
#[case(Edit::Project { field: ProjectField::Name, value: "x".repeat(81) }, "name")]
#[case(Edit::ClothLook { cloth: "moss-canvas".into(), look: Look::new(Pattern::Plain, "green", "#000000") }, "ground")]
fn an_edit_that_cannot_stand_names_its_field(#[case] edit: Edit, #[case] field: &str) {
    let problems = with_cloth().edited(&edit).expect_err("it cannot stand");
    assert_eq!(problems[0].field, field, "{problems:?}");
    assert!(problems[0].message.len() > 10 && problems[0].message.ends_with(['.', '?']), "{problems:?}");
}

#[test]
fn the_pattern_brings_its_direction() {
    let look = Look::new(Pattern::Sprig, "#4F6F52", "#C9D8BE");
    let project = made(&with_cloth(), &[Edit::ClothLook { cloth: "moss-canvas".into(), look }]);
    assert_eq!(project.cloths[0].print, bofta_core::cloth::Print::OneWay);
}

#[test]
fn documents_read_back_and_unknown_keys_are_refused() {
    let project = with_cloth();
    let text = serde_json::to_string(&project).expect("written");
    assert_eq!(serde_json::from_str::<Project>(&text).expect("read"), project);
    let odd = text.replacen("{", "{\"colour\":1,", 1);
    assert!(serde_json::from_str::<Project>(&odd).is_err());
}

#[test]
fn the_shopping_list_knows_steps_prices_and_what_is_owned() {
    let project = made(&with_cloth(), &[cloth(ClothField::Price, "12,50"), cloth(ClothField::WashFirst, "yes")]);
    let job = project.plan().expect("drafts").job.expect("a job");
    let lay = solve(&job, Budget::iterations(200), &mut Silent).expect("laid");
    let list = purchases(&job, &lay);
    assert_eq!(list.len(), 1);
    let line = &list[0];
    assert!(line.length >= line.needed && line.length.is_multiple_of(Length::inches(9, 2)));
    assert_eq!(line.spare, line.length - line.needed);
    assert_eq!(line.cost, Some(lay.cost));
    // Washing takes 5 %, so more than the washed length is needed.
    assert!(line.needed > lay.cloths[0].needed_length);
    let owned = made(&project, &[cloth(ClothField::AtHand, "3 yd")]);
    let job = owned.plan().expect("drafts").job.expect("a job");
    let lay = solve(&job, Budget::iterations(200), &mut Silent).expect("laid");
    let line = &purchases(&job, &lay)[0];
    assert!(line.owned && line.cost.is_none() && lay.cost.0 == 0);
}

#[test]
fn other_widths_leave_out_the_own_one() {
    let project = with_cloth();
    let job = project.plan().expect("drafts").job.expect("a job");
    let widths = other_widths(&job, "moss-canvas", 50, &Stop::new());
    let names: Vec<_> = widths.iter().map(|w| w.width.in_units(System::Inches)).collect();
    assert_eq!(names, [44.0, 60.0]);
    assert!(widths.iter().all(|w| w.length.is_some_and(|l| show_bought(l, System::Inches).ends_with("yd"))));
}

/// Asked to lie in the corners cut out of the panels, small pieces save cloth; the panels then come off round their
/// template and their corners are no step of their own. Edge to edge the corners stay for last.
#[test]
fn small_pieces_lie_in_the_corners_when_asked() {
    let mut project = Project::new("Tote", System::Inches);
    for edit in [
        Edit::AddCloth { name: "Duck".into(), material: "canvas".into() },
        bag("depth", "8"),
        bag("strap_width", "3/4"),
        Edit::Lay { field: LayField::InNotches, value: "yes".into() },
    ] {
        project = project.edited(&edit).expect("a sound edit").0;
    }
    let planned = project.plan().expect("drafts");
    let job = planned.job.expect("a job");
    assert!(job.pieces.iter().any(|p| matches!(p.outline, Outline::Polygon(_))));
    let lay = solve(&job, Budget::iterations(100), &mut Silent).expect("laid");
    assert_eq!(verify(&job, &lay), []);
    let steps = cut_list(&job, &lay.cloths, &planned.draft.pieces, &[]);
    assert!(steps.iter().any(|s| matches!(s, Step::Outline { .. })));
    assert!(!steps.iter().any(|s| matches!(s, Step::Corners(_))));
    assert_ne!(cut_style(&steps), CutStyle::EdgeToEdge);
    let straight: Vec<Step> = steps.into_iter().filter(|s| !matches!(s, Step::Outline { .. })).collect();
    assert_ne!(cut_style(&straight), CutStyle::RoundTemplates, "without a template there is none to cut round");
    let through = Edit::Lay { field: LayField::Cuts, value: "through".into() };
    let job = project.edited(&through).expect("a sound edit").0.plan().expect("drafts").job.expect("a job");
    assert!(job.pieces.iter().all(|p| matches!(p.outline, Outline::Rect(..))));
}

/// A binding of 48 in from cloth 20 in wide: strips with their share of the joins, none longer than the cloth is wide.
#[test]
fn a_long_binding_is_joined_from_strips() {
    let edits = [
        Edit::Family { family: "caddy".into() },
        cloth(ClothField::Width, "21"),
        bag("width", "11"),
        bag("depth", "8"),
        bag("binding_width", "1/2"),
        bag("backing", "none"),
    ];
    let planned = made(&with_cloth(), &edits).plan().expect("drafts");
    let binding = planned.draft.piece("binding").expect("a binding").clone();
    // 2 × 11 + 2 × 8 + 10 in round, 2 in wide: a join loses 3 in, 20 in are between the selvedges.
    let whole = Length::INCH * 48;
    assert_eq!(binding.count, 3);
    assert!(binding.height.size <= Length::INCH * 20);
    assert!(binding.height.size * 3 - Length::INCH * 3 * 2 >= whole);
    assert_eq!(binding.height.terms.iter().map(|t| t.value()).sum::<Length>(), binding.height.size);
    let job = planned.job.expect("a job");
    let lay = solve(&job, Budget::iterations(20), &mut Silent).expect("laid");
    assert!(lay.complete() && verify(&job, &lay).is_empty());
}

fn refused(project: &Project, edit: &Edit) -> String {
    project.edited(edit).expect_err("refused")[0].field.clone()
}

/// A found tube's lining is cut to the tube as it is: until it is measured it is as drafted.
#[test]
fn a_measured_size_takes_the_place_of_the_drafted_one() {
    let tube = made(&with_cloth(), &[Edit::Family { family: "found-tube".into() }, bag("lined", "yes")]);
    let waiting = |p: &Project| {
        let draft = p.plan().expect("drafts").draft;
        draft.pieces.into_iter().find(|p| p.when == When::Measured).expect("cut to what is made")
    };
    let piece = waiting(&tube);
    let id = piece.id.to_string();
    let measure = |w: &str, h: &str| Edit::Measured { piece: id.clone(), width: w.into(), height: h.into() };
    let measured = made(&tube, &[measure("15 3/8", "17")]);
    assert_eq!(waiting(&measured).size(), (Length::inches(123, 8), Length::INCH * 17));
    let job = measured.plan().expect("drafts").job.expect("a job");
    assert_eq!(
        job.pieces.iter().find(|p| p.id == id).expect("laid").outline.extent(Turn::NONE, false).0,
        Length::inches(123, 8)
    );
    assert_eq!(waiting(&made(&measured, &[measure("", "")])).size(), piece.size());
    assert_eq!(refused(&tube, &measure("0", "17")), "width");
    assert_eq!(refused(&tube, &measure("15", "tall")), "height");
    let other = Edit::Measured { piece: "outer-panel".into(), width: "9".into(), height: "9".into() };
    assert_eq!(refused(&tube, &other), "piece");
}

/// An outline by its corners follows a measure too, and what is cut out of its corners stays: a pouch boxed all round whose
/// quilted panel came out 1 in narrower has linings 1 in narrower, their corners as large as before.
#[test]
fn an_outline_follows_what_was_measured() {
    let edits = [
        Edit::Family { family: "pouch".into() },
        bag("style", "all-boxed"),
        Edit::MakeUp { piece: "outer-panel".into(), field: "quilted".into(), value: "yes".into() },
    ];
    let pouch = made(&with_cloth(), &edits);
    let lining = |p: &Project| p.plan().expect("drafts").draft.piece("lining-panel").expect("a lining").clone();
    let before = lining(&pouch);
    let outer = pouch.plan().expect("drafts").draft.piece("outer-panel").expect("a panel").as_trimmed();
    let ruler = pouch.ruler;
    let typed = |l: Length| format!("{} in", ruler.show(l).text);
    let measured = Edit::Measured {
        piece: "outer-panel".into(),
        width: typed(outer.width.size - Length::INCH),
        height: typed(outer.height.size),
    };
    let after = lining(&made(&pouch, &[measured]));
    assert_eq!(after.width.size, before.width.size - Length::INCH);
    let far = |p: &bofta_core::piece::Piece| p.outline().corners().iter().map(|c| c.x).max();
    assert_eq!(far(&after), Some(after.width.size));
    let low =
        |p: &bofta_core::piece::Piece| p.outline().corners().iter().filter(|c| c.y == Length::ZERO).map(|c| c.x).min();
    assert_eq!(low(&after), low(&before), "the corner is as large");
}

#[test]
fn lengths_at_hand_are_kept_by_kind_and_width() {
    let at_hand = |lengths: &str, width: Option<Length>| Edit::LengthsAtHand {
        kind: GoodKind::Webbing,
        width,
        lengths: lengths.into(),
    };
    let inch = Some(Length::INCH);
    let project = made(&with_cloth(), &[at_hand("40, 25 1/2", inch), at_hand("9", None)]);
    assert_eq!(project.typed_lengths(GoodKind::Webbing, inch), [Length::INCH * 40, Length::inches(51, 2)]);
    assert_eq!(project.typed_lengths(GoodKind::Webbing, None), [Length::INCH * 9]);
    assert_eq!(project.typed_lengths(GoodKind::Cord, inch), []);
    let none = made(&project, &[at_hand(" ", inch)]);
    assert_eq!((none.typed_lengths(GoodKind::Webbing, inch), none.lengths_at_hand.len()), (&[][..], 1));
    assert_eq!(refused(&project, &at_hand("40, long", inch)), "lengths");
    assert_eq!(made(&project, &[at_hand("0", inch)]).typed_lengths(GoodKind::Webbing, inch), []);
    let metric = made(&project, &[at_hand("1,5 m; 2 m, half a metre", inch)]);
    let metres = [150, 200, 50].map(|cm| Length::CENTIMETRE * cm);
    assert_eq!(metric.typed_lengths(GoodKind::Webbing, inch), metres);
    assert_eq!(refused(&project, &at_hand(&"1, ".repeat(41), inch)), "lengths");
    // Kept and read again, with projects that were kept before there were any.
    let kept = serde_json::to_string(&project).expect("written");
    assert_eq!(serde_json::from_str::<Project>(&kept).expect("read"), project);
    let mut before: serde_json::Value = serde_json::from_str(&kept).expect("read");
    before.as_object_mut().expect("an object").remove("lengths_at_hand");
    assert_eq!(serde_json::from_value::<Project>(before).expect("read").lengths_at_hand, []);
}

#[test]
fn the_corners_of_an_outline_are_typed() {
    let rows = vec![Row::new("Flap", Part::Outer, 1, Length::INCH * 9, Length::INCH * 5)];
    let project = made(&with_cloth(), &[Edit::Rows { rows, bought: vec![] }]);
    let edit = |field: RowField, value: &str| Edit::Row { row: 0, field, value: value.into() };
    let outline = |p: &Project| p.plan().expect("drafts").draft.pieces[0].outline();
    // Clockwise and away from the origin as typed: put right.
    let typed = "1 × 1; 2 1/2 x 6; 8 1/2 x 6; 10, 1";
    let free = made(&project, &[edit(RowField::Corners, typed)]);
    assert_eq!(outline(&free).extent(Turn::NONE, false), (Length::INCH * 9, Length::INCH * 5));
    // A trapezoid 9 in and 6 in wide, 5 in tall.
    assert_eq!(outline(&free).area(), Length::inches(15, 2) * (Length::INCH * 5));
    // Any shape becomes corners, and looks as before.
    let round = made(&project, &[edit(RowField::Shape, "half-round"), edit(RowField::Shape, "free")]);
    assert!(matches!(outline(&round), Outline::Polygon(p) if p.len() > 8));
    for wrong in ["0 × 0; 4 × 4", "0 × 0; 4 × 4; 4 × 0; 0 × 4", "0 × 0; 4; 4 × 4", "0 × 0; a × 4; 4 × 4"] {
        assert_eq!(refused(&project, &edit(RowField::Corners, wrong)), "rows[0].corners", "{wrong}");
    }
    let seamed = made(&free, &[edit(RowField::Seam, "3/8")]);
    assert!(outline(&seamed).area().0 > outline(&free).area().0);
}

/// A strap longer than the cloth at hand is joined, on the diagonal; on cloth that is bought it is cut in one.
#[test]
fn straps_longer_than_their_cloth_are_joined() {
    let long = made(&with_cloth(), &[bag("strap_length", "60"), cloth(ClothField::Width, "44")]);
    let strap = |p: &Project| {
        let pieces = p.plan().expect("drafts").draft.pieces;
        pieces.into_iter().find(|p| p.part == Part::Straps).expect("a strap")
    };
    let whole = strap(&long);
    assert_eq!(whole.count, 2);
    let short = made(&long, &[cloth(ClothField::AtHand, "54")]);
    let joined = strap(&short);
    assert_eq!(joined.count, 4);
    assert!(joined.note.as_ref().is_some_and(|n| n.contains("off the shoulder")), "{:?}", joined.note);
    // Two strips, less what the join takes: the strap's width and an inch of tails (common practice).
    let lost = whole.width.size + Length::INCH;
    let both = joined.height.size * 2 - lost;
    assert!(both >= whole.height.size && both < whole.height.size + Length::INCH, "{both:?}");
    // Across the width only, it is joined whatever is bought.
    let across = made(&long, &[Edit::Lay { field: LayField::Straps, value: "across".into() }]);
    assert!(strap(&across).count > 2);
}

/// One block of cloth fused to one of interfacing and cut once: the panels themselves are not laid.
#[test]
fn a_block_is_fused_and_cut_once() {
    let facing = Edit::AddCloth { name: "Stiff".into(), material: "interfacing".into() };
    let edits = [facing, bag("backing_cloth", "interfacing"), bag("backing", "block")];
    let project = made(&with_cloth(), &edits);
    let planned = project.plan().expect("drafts");
    let piece = |id: &str| planned.draft.piece(id).unwrap_or_else(|| panic!("there is a {id}")).clone();
    let panel = piece("outer-panel");
    let (cloth_block, stiff) = (piece("outer-block"), piece("interfacing-outer-block"));
    assert_eq!(panel.when, When::FromBlock);
    assert_eq!(cloth_block.size(), stiff.size());
    // Half an inch to spare all round; side by side as the narrower of both cloths allows.
    let usable = |id: &str| project.cloth(id).expect("a cloth").roll().usable_width();
    let narrow = usable("moss-canvas").min(usable("stiff"));
    let across = ((narrow - Length::INCH).0 / panel.width.size.0).clamp(1, i64::from(panel.count));
    assert_eq!(stiff.width.size, panel.width.size * across + Length::INCH);
    assert_eq!(stiff.height.size, panel.height.size * (i64::from(panel.count) / across) + Length::INCH);
    let job = planned.job.as_ref().expect("a job");
    assert!(job.pieces.iter().all(|p| p.id != "outer-panel") && job.pieces.iter().any(|p| p.id == "outer-block"));
    let lay = solve(job, Budget::iterations(50), &mut Silent).expect("laid");
    assert!(lay.complete() && verify(job, &lay).is_empty());
    assert!(planned.draft.steps[0].text.starts_with("Fuse each block"));
    // On a narrower interfacing the panels stand one above the other.
    let narrow = made(&project, &[Edit::Cloth { cloth: "stiff".into(), field: ClothField::Width, value: "20".into() }]);
    let stood = narrow.plan().expect("drafts").draft.piece("outer-block").expect("a block").clone();
    assert_eq!(stood.height.size, panel.height.size * 2 + Length::INCH);
    // What is quilted is cut over anyway: its backing is cut like it.
    let quilted = made(&project, &[bag("quilted", "yes")]);
    let draft = quilted.plan().expect("drafts").draft;
    assert!(draft.pieces.iter().all(|p| p.block_of.is_empty() && p.when != When::FromBlock));
}

/// Common practice: cotton is backed, canvas and faux leather stand by themselves, vinyl is too thick to fold in four, a thin
/// print is backed to match a heavier cloth.
#[test]
fn cloths_that_are_chosen_are_advised_on() {
    let said = |material: &str, more: &[Edit]| {
        let add = Edit::AddCloth { name: "Front".into(), material: material.into() };
        let fusible = Edit::AddCloth { name: "Stiff".into(), material: "interfacing".into() };
        let project = made(&made(&Project::new("Tote", System::Inches), &[add, fusible]), more);
        let notices = project.plan().expect("drafts").draft.notices;
        notices.into_iter().map(|n| n.text).collect::<Vec<_>>().join(" ")
    };
    let backed = [bag("backing_cloth", "interfacing"), bag("backing", "full-size")];
    assert!(said("cotton", &[]).contains("usually needs interfacing"));
    assert!(!said("cotton", &backed).contains("usually needs interfacing"));
    assert!(!said("canvas", &[]).contains("stands by itself"));
    assert!(said("canvas", &backed).contains("adds bulk in its seams"));
    assert!(said("vinyl", &backed).contains("melts under the iron"));
    let four = [bag("strap_make", "folded-in-four")];
    let middle = [bag("strap_make", "edges-to-middle")];
    assert!(
        said("vinyl", &four).contains("too thick to fold in four")
            && !said("canvas", &four).contains("too thick to fold")
    );
    assert!(!said("vinyl", &middle).contains("too thick to fold"));
    let thin = Edit::AddCloth { name: "Thin print".into(), material: "cotton".into() };
    let beside = Edit::Assign { part: "contrast".into(), cloth: "thin-print".into() };
    let pieced = [thin, beside, bag("front", "grid")];
    assert!(said("canvas", &pieced).contains("Thin print is thinner than Front"));
    // Of a part that is not cut nothing is said.
    assert!(!said("canvas", &pieced[..2]).contains("Thin print is thinner"));
}

/// A listed row on a one-way print whose numbers no other row confirms is asked about; beside one as wide it is not.
#[test]
fn which_number_is_the_width_is_asked_where_the_print_matters() {
    let row = |name: &str, w: i64, h: i64| Row::new(name, Part::Outer, 1, Length::INCH * w, Length::INCH * h);
    let with = |rows: Vec<Row>, print: &str| {
        let list = made(&with_cloth(), &[Edit::Rows { rows, bought: vec![] }, cloth(ClothField::Print, print)]);
        let notices = list.plan().expect("drafts").draft.notices;
        notices.iter().filter(|n| n.text.contains("turn it if it stands the other way")).count()
    };
    assert_eq!(with(vec![row("Flap", 9, 5)], "one-way"), 1);
    assert_eq!(with(vec![row("Flap", 9, 5)], "all-over"), 0);
    assert_eq!(with(vec![row("Flap", 9, 5), row("Band", 9, 2)], "one-way"), 0, "panel and band share a length");
    assert_eq!(with(vec![row("Flap", 9, 9)], "one-way"), 0);
    let free = Row { any_way: true, ..row("Flap", 9, 5) };
    assert_eq!(with(vec![free], "one-way"), 0);
}

/// Joined straight across, a strip takes two seams a join; on the diagonal its width and an inch (common practice).
#[test]
fn strips_are_joined_as_the_maker_joins() {
    let long = [bag("strap_length", "60"), cloth(ClothField::Width, "44"), cloth(ClothField::AtHand, "54")];
    let diagonal = made(&with_cloth(), &long);
    let straight = made(&diagonal, &[Edit::Lay { field: LayField::Join, value: "straight".into() }]);
    let strap = |p: &Project| p.plan().expect("drafts").draft.piece("strap").expect("a strap").clone();
    let (a, b) = (strap(&diagonal), strap(&straight));
    assert!(a.joined && b.joined && (a.count, b.count) == (4, 4));
    // Two strips each: half of what the one join takes more.
    let seams = Length::INCH;
    let half = (a.width.size + Length::INCH - seams) / 2;
    assert!((a.height.size - b.height.size - half).0.abs() <= Length::inches(1, 8).0, "{:?} {:?}", a.height, b.height);
    assert!(b.note.as_ref().is_some_and(|n| n.contains("straight across")));
    assert_eq!(refused(&diagonal, &Edit::Lay { field: LayField::Join, value: "glued".into() }), "join");
}

fn turn(piece: &str, lies: Lies) -> Edit {
    Edit::Turn { piece: piece.into(), lies }
}

fn grain_of(project: &Project, piece: &str) -> Grain {
    project.plan().expect("drafts").job.expect("a job").piece(piece).expect("there").grain
}

#[test]
fn a_piece_is_turned_by_hand_and_back() {
    let tote = with_cloth();
    let id = tote.plan().expect("drafts").draft.pieces[0].id.to_string();
    let drafted = grain_of(&tote, &id);
    for (lies, grain) in [(Lies::Across, Grain::Across), (Lies::Either, Grain::Either), (Lies::Bias, Grain::Bias)] {
        let turned = made(&tote, &[turn(&id, lies)]);
        assert_eq!(grain_of(&turned, &id), grain);
        // It is kept, and read again.
        let text = bofta_core::project::kept::write_project(&turned).expect("written");
        assert_eq!(bofta_core::project::kept::read_project(&text).expect("read"), turned);
        assert_eq!(made(&turned, &[turn(&id, Lies::Drafted)]), tote);
    }
    assert_eq!(drafted, Grain::Length);
    assert_eq!(refused(&tote, &turn("no-such", Lies::Across)), "piece");
    // Another family has other pieces.
    let turned = made(&tote, &[turn(&id, Lies::Across), Edit::Family { family: "drawstring".into() }]);
    assert!(turned.turned.is_empty());
}

/// A strap turned by hand lies so whatever is said of all straps.
#[test]
fn a_hand_goes_before_what_is_said_of_all_straps() {
    let along = made(&with_cloth(), &[Edit::Lay { field: LayField::Straps, value: "along".into() }]);
    assert_eq!(grain_of(&along, "strap"), Grain::Length);
    assert_eq!(grain_of(&made(&along, &[turn("strap", Lies::Across)]), "strap"), Grain::Across);
}

#[test]
fn other_ways_change_one_rule_each() {
    let tote = made(&with_cloth(), &[bag("height", "20")]);
    let names = |project: &Project| -> Vec<String> {
        other_ways(project, &project.plan().expect("drafts")).into_iter().map(|w| w.name).collect()
    };
    let all = names(&tote);
    assert!(all.contains(&"Edge to edge".to_owned()) && all.contains(&"Outer panel either way".to_owned()), "{all:?}");
    assert!(!all.contains(&"Any way up".to_owned()), "nothing is printed: {all:?}");
    for way in other_ways(&tote, &tote.plan().expect("drafts")) {
        assert_ne!(made(&tote, &way.edits), tote, "{}", way.name);
        assert_eq!(
            way.only_if_less,
            way.name.ends_with("either way") && !way.name.starts_with("Straps"),
            "{}",
            way.name
        );
    }
    // A print that stands up keeps its pieces upright: to turn them is no way, to let them lie is.
    let look = Look::new(Pattern::Sprig, "#446644", "#ffffff");
    let printed = made(&tote, &[Edit::ClothLook { cloth: "moss-canvas".into(), look }]);
    let printed = made(&printed, &[cloth(ClothField::Print, "one-way")]);
    let all = names(&printed);
    assert!(all.contains(&"Any way up".to_owned()) && !all.contains(&"Outer panel either way".to_owned()), "{all:?}");
}

/// Nothing is bought, or no more is, is only said of a plan that is whole; and no total of prices that are not known.
#[test]
fn totals_say_when_they_are_not_all() {
    let tote = made(&with_cloth(), &[cloth(ClothField::AtHand, "20")]);
    let job = tote.plan().expect("drafts").job.expect("a job");
    let lay = solve(&job, Budget::iterations(20), &mut Silent).expect("laid");
    assert!(!lay.complete());
    assert_eq!((bought_text(&tote, &lay), cost_text(&tote, &lay)), ("not enough cloth".into(), String::new()));
    let enough = made(&tote, &[cloth(ClothField::AtHand, "3 yd")]);
    let job = enough.plan().expect("drafts").job.expect("a job");
    let lay = solve(&job, Budget::iterations(20), &mut Silent).expect("laid");
    assert_eq!(bought_text(&enough, &lay), "no cloth to buy");
}

/// What is typed into a cloth's fields is understood as elsewhere, or says what is wanted.
#[test]
fn a_cloths_fields_read_what_people_type() {
    let there = |value: &str| made(&with_cloth(), &[cloth(ClothField::AtHand, value)]).cloths[0].at_hand.clone();
    assert_eq!(there("half a yard"), [AtHand::one(HandForm::length(Length::INCH * 18))]);
    assert_eq!((there("0"), there("none")), (vec![], vec![]));
    for typed in ["€ 12,50", "12.50 €", "£12.50", "$12.5"] {
        let price = made(&with_cloth(), &[cloth(ClothField::Price, typed)]).cloths[0].price.expect("a price");
        assert_eq!(price.amount, Money(1_250), "{typed}");
    }
    assert!(with_cloth().edited(&cloth(ClothField::Price, "twelve")).is_err());
}

#[test]
fn every_new_cloth_looks_like_no_other() {
    let add = |i: u32| Edit::AddCloth { name: format!("Cloth {i}"), material: "cotton".into() };
    let many = made(&with_cloth(), &(0..10).map(add).collect::<Vec<_>>());
    let mut grounds: Vec<&str> = many.cloths.iter().map(|c| c.look.ground.as_str()).collect();
    grounds.sort_unstable();
    grounds.dedup();
    assert_eq!(grounds.len(), many.cloths.len());
}

/// Common practice: eight layers of cotton, four of denim, two of faux leather pass under a foot. A strap folded in four on a
/// hem turned twice is 4 + 3 layers: 7 of 8 in cotton, 7 of 4 in canvas; of webbing it is 1 + 3 of canvas, which pass.
#[rstest]
#[case("cotton", "folded-in-four", false)]
#[case("canvas", "folded-in-four", true)]
#[case("canvas", "webbing", false)]
#[case("vinyl", "webbing", true)]
fn layers_are_weighed_by_their_cloths(#[case] material: &str, #[case] make: &str, #[case] told: bool) {
    let cloth = Edit::AddCloth { name: "Cloth".into(), material: material.into() };
    let edits = [cloth, bag("lining", "none"), bag("mouth", "double-hem"), bag("strap_make", make)];
    let tote = made(&Project::new("Thick", System::Inches), &edits);
    let notices = tote.plan().expect("drafts").draft.notices;
    let found = notices.iter().find(|n| n.text.contains("layers lie on each other"));
    assert_eq!(found.is_some(), told, "{notices:?}");
    assert!(found.is_none_or(|n| n.field.as_deref() == Some("strap_make")));
}

/// A look may have a picture; one that cannot be a picture is refused by what is wrong with it, and an older look, which
/// knew none, is read as it was.
#[test]
fn a_cloth_may_have_a_picture() {
    let picture = |key: &str, width: Length, height: Length| Edit::ClothLook {
        cloth: "moss-canvas".into(),
        look: Look {
            picture: Some(Swatch { key: key.into(), width, height, one_repeat: true }),
            ..Look::new(Pattern::Sprig, "#446644", "#ffffff")
        },
    };
    let (key, inch) = ("0f".repeat(16), Length::INCH);
    let project = with_cloth();
    let drawn = made(&project, &[picture(&key, inch * 4, inch * 3)]);
    assert_eq!(drawn.cloths[0].look.picture.as_ref().map(|p| p.key.as_str()), Some(key.as_str()));
    for (edit, field) in [
        (picture("../../etc", inch * 4, inch * 3), "picture"),
        (picture(&key.to_uppercase(), inch * 4, inch * 3), "picture"),
        (picture(&key, Length::MILLIMETRE, inch), "width"),
        (picture(&key, inch, Length::METRE * 3), "height"),
        (picture(&key, inch * -4, inch), "width"),
    ] {
        assert_eq!(refused(&project, &edit), field);
    }
    let older = r##"{"pattern":"sprig","ground":"#446644","figure":"#ffffff"}"##;
    let read: Look = serde_json::from_str(older).expect("read");
    assert_eq!(read, Look::new(Pattern::Sprig, "#446644", "#ffffff"));
    assert_eq!(serde_json::to_string(&read).expect("written"), older);
}

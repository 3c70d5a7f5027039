//! Patches in an order of one's own, cut over, quilted once they are pieced, and the bag sized by them. Worked out by hand.

use bofta_core::bag::{Draft, Family};
use bofta_core::measure::{Length, Ruler, System};
use bofta_core::piece::Part;
use bofta_core::project::{Edit, Project};
use proptest::prelude::*;
use rstest::rstest;

const LINING: &str = "lining-panel";

fn project(family: Family, system: System) -> Project {
    Project { bag: family.default_for(system), ..Project::new("Trial", system) }
}

fn make_up(field: &str, value: &str) -> Edit {
    Edit::MakeUp { piece: LINING.into(), field: field.into(), value: value.into() }
}

fn made(project: &Project, edits: &[Edit]) -> Project {
    edits.iter().fold(project.clone(), |p, e| p.edited(e).unwrap_or_else(|why| panic!("{e:?}: {why:?}")).0)
}

fn pieced(edits: &[(&str, &str)]) -> Project {
    let edits: Vec<Edit> = edits.iter().map(|(f, v)| make_up(f, v)).collect();
    made(&project(Family::Tote, System::Inches), &edits)
}

fn draft(project: &Project) -> Draft {
    project.plan().expect("planned").draft
}

/// How many patches of each part's cloth there are.
fn counts(draft: &Draft) -> Vec<(Part, u32)> {
    draft.pieces.iter().filter(|p| p.patch_of.is_some()).map(|p| (p.part, p.count)).collect()
}

/// Three by two patches, two panels alike. By turns of three each row begins one further on: outer, lining, contrast;
/// lining, contrast, outer. Patch by patch they are as they are said.
#[test]
fn cloths_go_by_turns_or_patch_by_patch() {
    let grid = [("front", "grid"), ("columns", "3"), ("rows", "2")];
    let with = |cloths: &str| pieced(&[&grid[..], &[("patch_cloths", cloths)]].concat());
    let turns = with("outer, lining, contrast");
    assert_eq!(counts(&draft(&turns)), [(Part::Outer, 4), (Part::Lining, 4), (Part::Contrast, 4)]);
    let order = turns.patchwork_of(LINING).expect("patches").0.order(Part::Lining);
    use Part::{Base, Contrast, Lining, Outer};
    assert_eq!(order, [Outer, Lining, Contrast, Lining, Contrast, Outer]);
    let each = with("base, base, outer, base, lining, base");
    assert_eq!(
        each.patchwork_of(LINING).expect("patches").0.order(Part::Lining),
        [Base, Base, Outer, Base, Lining, Base]
    );
    assert_eq!(counts(&draft(&each)), [(Part::Base, 8), (Part::Outer, 2), (Part::Lining, 2)]);
    // Nothing said: the contrast and the panel's own, as it always was.
    assert_eq!(counts(&draft(&pieced(&grid))), [(Part::Contrast, 6), (Part::Lining, 6)]);
}

/// A column more or a row less keeps every patch where it was.
#[test]
fn an_arrangement_stays_when_the_grid_changes() {
    let start = pieced(&[
        ("front", "grid"),
        ("columns", "2"),
        ("rows", "2"),
        ("patch_cloths", "outer, base, lining, contrast"),
    ]);
    use Part::{Base, Contrast, Lining, Outer};
    let order = |p: &Project| p.patchwork_of(LINING).expect("patches").0.order(Part::Lining);
    let wider = made(&start, &[make_up("columns", "3")]);
    assert_eq!(order(&wider), [Outer, Base, Base, Lining, Contrast, Contrast]);
    let lower = made(&wider, &[make_up("rows", "1")]);
    assert_eq!(order(&lower), [Outer, Base, Base]);
}

#[rstest]
#[case::neither_turns_nor_all(&[("front", "grid"), ("columns", "3"), ("rows", "3")], "patch_cloths", "outer, base, lining, pocket", "4 cloths for 3 × 3 patches")]
#[case::three_in_triangles(&[("front", "triangles")], "patch_cloths", "outer, base, lining", "made of two")]
#[case::cut_far_over(&[("front", "triangles")], "patch_over", "5", "from 0 to 2 in is allowed")]
#[case::no_such_cloth(&[("front", "grid")], "patch_cloths", "outer, tartan", "tartan")]
fn what_cannot_be_pieced_is_refused(
    #[case] before: &[(&str, &str)],
    #[case] field: &str,
    #[case] value: &str,
    #[case] says: &str,
) {
    let refused = pieced(before).edited(&make_up(field, value)).expect_err("refused");
    assert!(refused[0].field == field && refused[0].message.contains(says), "{refused:?}");
}

/// Whatever a square for triangles is, cut ¼ in over it is ¼ in larger each way, and its unit is trimmed to what it was.
#[test]
fn triangles_may_be_cut_over() {
    let exact = draft(&pieced(&[("front", "triangles")]));
    let over = draft(&pieced(&[("front", "triangles"), ("patch_over", "1/4"), ("patch_cloths", "base, outer")]));
    let square = |d: &Draft| d.pieces.iter().find(|p| p.id.contains("triangle")).expect("a square").clone();
    let (was, is) = (square(&exact), square(&over));
    assert_eq!(
        (is.width.size - was.width.size, is.height.size - was.height.size),
        (Length::inches(1, 4), Length::inches(1, 4))
    );
    assert!(is.note.as_deref().is_some_and(|n| n.contains("trimmed to")), "{:?}", is.note);
    assert_eq!(counts(&over).iter().map(|(part, _)| *part).collect::<Vec<_>>(), [Part::Base, Part::Outer]);
}

/// Quilted once it is pieced: the patches join to an inch more each way, the panel is trimmed to what it was. Two across a
/// panel w wide with ¼ in seams are cut (w + 1 + ½) / 2.
#[test]
fn what_is_pieced_may_be_quilted_over() {
    let plain = pieced(&[("front", "grid"), ("columns", "2"), ("rows", "1")]);
    let quilted = made(&plain, &[make_up("quilted_pieced", "yes")]);
    let (flat, over) = (draft(&plain), draft(&quilted));
    let panel = |d: &Draft| d.piece(LINING).expect("a panel").size();
    assert_eq!(panel(&flat), panel(&over));
    let patch = over.pieces.iter().find(|p| p.patch_of.is_some()).expect("a patch");
    let (wide, tall) = panel(&over);
    assert_eq!(patch.width.size, Ruler::Eighth.up((wide + Length::inches(3, 2)) / 2));
    assert_eq!(patch.height.size, Ruler::Eighth.up(tall + Length::INCH));
    let keys: Vec<&str> = over.steps.iter().map(|s| s.key.as_ref()).collect();
    let at = |key: &str| keys.iter().position(|k| *k == key).expect("a step");
    assert!(at("piece-lining-panel") < at("quilt-lining-panel"), "{keys:?}");
}

/// The default tote: the lining panel is wide + deep + 2 × ½ across and tall + half the depth + 2 × ½ up, seams between
/// patches ¼ in. Five by four squares that show 4 in need a panel of 20½ × 16½, so the bag is 20½ − 1 − deep wide and
/// 16½ − 1 − half the depth tall.
#[test]
fn a_bag_is_as_large_as_its_patches_make_it() {
    let start = pieced(&[("front", "grid"), ("columns", "5"), ("rows", "4")]);
    let by = |w: &str, h: &str| Edit::SizeByPatches { piece: LINING.into(), width: w.into(), height: h.into() };
    let sized = made(&start, &[by("4", "4")]);
    let eighths = |n| Length::inches(n, 8);
    assert_eq!(draft(&sized).piece(LINING).expect("a panel").size(), (eighths(164), eighths(132)));
    let deep = start.bag.length("depth").expect("a depth");
    assert_eq!(sized.bag.length("width"), Some(eighths(164 - 8) - deep));
    assert_eq!(sized.bag.length("height"), Some(eighths(132 - 8) - deep / 2));
    let patch = draft(&sized).pieces.iter().find(|p| p.patch_of.is_some()).expect("a patch").clone();
    assert_eq!(patch.size(), (eighths(36), eighths(36)));
    for (edit, field) in [(by("0", "4"), "width"), (by("4", "ell"), "height"), (by("900", "4"), "width")] {
        assert_eq!(start.edited(&edit).expect_err("refused")[0].field, field);
    }
    let plain = project(Family::Tote, System::Inches);
    assert!(plain.edited(&by("4", "4")).expect_err("refused")[0].message.contains("not in squares"));
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(60))]
    /// Whatever is said of a patch, in either system, the panel of any body follows to a line of the ruler, or it is refused.
    #[test]
    fn the_panel_follows_the_patches(
        family in 0usize..3, metric: bool, columns in 1u32..8, rows in 1u32..8, wide in 3i64..20, tall in 3i64..20,
    ) {
        let family = [Family::Tote, Family::Pouch, Family::Caddy][family];
        let system = if metric { System::Centimetres } else { System::Inches };
        let panel = if family == Family::Caddy { "front" } else { "outer-panel" };
        let set = |field: &str, value: String| Edit::MakeUp { piece: panel.into(), field: field.into(), value };
        let edits = [set("front", "grid".into()), set("columns", columns.to_string()), set("rows", rows.to_string())];
        let start = made(&project(family, system), &edits);
        let halves = |n: i64| format!("{}.{}", n / 2, n % 2 * 5);
        let edit = Edit::SizeByPatches { piece: panel.into(), width: halves(wide), height: halves(tall) };
        if let Ok((sized, _)) = start.edited(&edit) {
            let unit = if metric { Length::CENTIMETRE } else { Length::INCH };
            let seam = start.patchwork_of(panel).expect("patches").0.seam;
            let meant = |n: u32, halves: i64| unit * halves * i64::from(n) / 2 + seam * 2;
            let (w, h) = draft(&sized).piece(panel).expect("a panel").size();
            let step = sized.ruler.step();
            prop_assert!((w - meant(columns, wide)).0.abs() <= step.0, "{w:?} {:?}", meant(columns, wide));
            prop_assert!((h - meant(rows, tall)).0.abs() <= step.0, "{h:?} {:?}", meant(rows, tall));
        }
    }
}

//! What runs from seam to seam: a pocket behind webbing, a partition, a zip right across a panel. Worked out by hand.

use bofta_core::bag::{Draft, Family};
use bofta_core::measure::{Length, System};
use bofta_core::piece::{Part, Patches, When};
use bofta_core::project::{Edit, Project};

/// A boxed tote 15 × 13 × 4 with ½ in seams throughout: panels 20 × 16, 14 in of which are above the base seam's corner.
fn tote(fields: &[(&str, &str)]) -> Project {
    let start = Project { bag: Family::Tote.default_for(System::Inches), ..Project::new("Trial", System::Inches) };
    let sizes = [("width", "15"), ("height", "13"), ("depth", "4"), ("pocket", "no"), ("straps", "no")];
    let edits = sizes.iter().chain(fields).map(|(k, v)| Edit::Bag { field: (*k).into(), value: (*v).into() });
    edits.fold(start, |p, e| p.edited(&e).unwrap_or_else(|why| panic!("{e:?}: {why:?}")).0)
}

fn with(project: &Project, part: &str, wall: Option<&str>, fields: &[(&str, &str)]) -> Project {
    let add = Edit::AddPart { part: part.into(), wall: wall.map(Into::into) };
    let added = project.edited(&add).unwrap_or_else(|why| panic!("{why:?}")).0;
    let id = added.bag.parts.last().expect("a part").id;
    let set = |p: Project, (field, value): &(&str, &str)| {
        let edit = Edit::Part { id, field: (*field).into(), value: (*value).into() };
        p.edited(&edit).unwrap_or_else(|why| panic!("{field} {value}: {why:?}")).0
    };
    fields.iter().fold(added, set)
}

fn draft(project: &Project) -> Draft {
    project.plan().expect("planned").draft
}

fn size(draft: &Draft, id: &str) -> (u32, Length, Length) {
    let p = draft
        .piece(id)
        .unwrap_or_else(|| panic!("no {id} in {:?}", draft.pieces.iter().map(|p| &p.id).collect::<Vec<_>>()));
    (p.count, p.width.size, p.height.size)
}

fn eighths(n: i64) -> Length {
    Length::inches(n, 8)
}

fn says(draft: &Draft, words: &str) -> bool {
    draft.notices.iter().any(|n| n.text.contains(words))
}

/// Webbing 1 in wide, 6 in from middle to middle: the pocket is cut 6 in across, each raw side ½ in under its strap; 5 in
/// tall and doubled into the base seam it is cut 2 × (5 + 2 + ½).
#[test]
fn a_pocket_lies_behind_webbing() {
    let straps =
        with(&tote(&[]), "strap", None, &[("end", "base-up"), ("width", "1"), ("apart", "6"), ("make", "webbing")]);
    let fields = [("make", "doubled"), ("place", "webbing"), ("height", "5"), ("foot", "base-seam")];
    let both = with(&straps, "pocket", Some("front"), &fields);
    let made = draft(&both);
    assert_eq!(size(&made, "part-2-pocket"), (1, eighths(48), eighths(120)));
    // The webbing goes on once the pocket lies there.
    let at = |key: &str| made.steps.iter().position(|s| s.key == key).expect("a step");
    assert!(at("part-2") < at("part-1") && at("part-1") < at("outer"), "{:?}", made.steps);
    // Moved, the pocket follows; gone, it is kept aside and said so; back, it is there again.
    let strap = |p: &Project, field: &str, value: &str| {
        p.edited(&Edit::Part { id: 1, field: field.into(), value: value.into() }).expect("set").0
    };
    assert_eq!(size(&draft(&strap(&both, "apart", "8")), "part-2-pocket").1, eighths(64));
    let gone = strap(&both, "end", "mouth");
    assert!(draft(&gone).piece("part-2-pocket").is_none() && says(&draft(&gone), "no two straps run up this wall"));
    assert!(draft(&strap(&gone, "end", "base-up")).piece("part-2-pocket").is_some());
    // Too narrow to cover an edge.
    let narrow = Edit::Part { id: 1, field: "width".into(), value: "3/8".into() };
    let refused = both.edited(&narrow).expect_err("refused");
    assert!(refused[0].field == "part-2.place" && refused[0].message.contains("at least ½ in"), "{refused:?}");
}

/// 15 in from side seam to side seam, 8 in tall: 15 + 1 across, 2 × 8 + 2 × ½ up, folded 8½ in down; its fleece 15 × 8.
#[test]
fn a_partition_hangs_between_the_side_seams() {
    let fields = [("height", "8"), ("below", "3"), ("turn", "1/2"), ("behind", "fleece")];
    let project = with(&tote(&[]), "partition", None, &fields);
    let made = draft(&project);
    assert_eq!(size(&made, "part-1-partition"), (1, eighths(128), eighths(136)));
    assert_eq!(size(&made, "part-1-fleece"), (1, eighths(120), eighths(64)));
    assert_eq!(made.piece("part-1-partition").expect("a piece").marks[0].distance, eighths(68));
    let lining = made.piece("lining-panel").expect("a lining");
    // 3 in below the mouth, whose seam takes ½.
    assert!(
        lining.marks.iter().any(|m| m.name.contains("Partition") && m.distance == eighths(28)),
        "{:?}",
        lining.marks
    );
    let deep = Edit::Part { id: 1, field: "below".into(), value: "6".into() };
    assert_eq!(project.edited(&deep).expect_err("refused")[0].field, "part-1.height");
    // Without a lining it is kept aside.
    let unlined = [("lining", "none"), ("mouth", "double-hem")];
    let edits = unlined.iter().rev().map(|(k, v)| Edit::Bag { field: (*k).into(), value: (*v).into() });
    let bare = edits.fold(project, |p, e| p.edited(&e).unwrap_or_else(|why| panic!("{why:?}")).0);
    assert!(draft(&bare).piece("part-1-partition").is_none() && says(&draft(&bare), "kept aside"));
}

/// 4 in below the mouth, ½ in of zip showing, ½ in to the zip; the front panel is 20 × 16, its top seam ½.
/// Above: ½ + 4 − ¼ + ½ = 4¾; below: 16 − 4½ − ¼ + ½ = 11¾; together 16½, the panel and two seams less the zip.
/// The pocket, 6 in deep: 20 × (12 + 1). The zip runs 15 + 4 = 19 in from side seam to side seam.
#[test]
fn a_zip_divides_a_panel() {
    let fields = [("below", "4"), ("shows", "1/2"), ("seam", "1/2"), ("hangs", "6"), ("sliders", "2")];
    let fields: Vec<(&str, &str)> =
        fields.iter().map(|(k, v)| (if *k == "sliders" { "zip_sliders" } else { k }, *v)).collect();
    let project = with(&tote(&[]), "zip", Some("front"), &fields);
    let made = draft(&project);
    assert_eq!(size(&made, "part-1-upper"), (1, eighths(160), eighths(38)));
    assert_eq!(size(&made, "part-1-lower"), (1, eighths(160), eighths(94)));
    assert_eq!(size(&made, "part-1-pocket"), (1, eighths(160), eighths(104)));
    // The back stays one piece; the front is made of both parts and no longer cut.
    assert_eq!(size(&made, "outer-panel"), (1, eighths(160), eighths(128)));
    assert_eq!(made.piece("part-1-panel").expect("the front").when, When::Pieced(Patches::Bands));
    let zip = made.hardware.iter().find(|h| h.name.contains("right across")).expect("a zip");
    assert_eq!(zip.size, Some(Length::INCH * 19));
    assert!(zip.name.starts_with("Zip with two sliders"), "{}", zip.name);
    // Corners are cut out of the lower part only.
    assert_eq!(
        made.piece("part-1-lower").expect("lower").figure,
        draft(&tote(&[])).piece("outer-panel").expect("a panel").figure
    );
    for finished in project.bag.finished_from_cut(&made) {
        assert_eq!(finished.asked, finished.back, "{finished:?}");
    }
    let parts: Vec<Part> =
        ["part-1-upper", "part-1-lower"].iter().map(|id| made.piece(id).expect("a part").part).collect();
    assert_eq!(parts, [Part::Outer, Part::Outer]);
}

#[test]
fn a_zip_that_cannot_divide_its_panel_says_why() {
    let refused = |project: &Project, wall: &str| {
        let add = Edit::AddPart { part: "zip".into(), wall: Some(wall.into()) };
        project.edited(&add).err().map(|p| p[0].message.clone()).unwrap_or_default()
    };
    assert!(refused(&tote(&[]), "inside-front").contains("zip window"));
    let folded = tote(&[("base", "fold"), ("depth", "0")]);
    assert!(refused(&folded, "back").contains("one piece over the base"));
    // Two of them on one wall: the second is not cut, and says so.
    let twice =
        with(&with(&tote(&[]), "zip", Some("front"), &[]), "zip", Some("front"), &[("below", "6"), ("hangs", "4")]);
    assert!(says(&draft(&twice), "pieced or cut over already"));
    assert!(
        refused(&tote(&[("rising", "slanting"), ("mouth_width", "22")]), "front").contains("no straight side seams")
    );
    // What was chosen for a panel that is divided now is kept aside, and said so.
    let bands = Edit::MakeUp { piece: "outer-panel".into(), field: "front".into(), value: "strips".into() };
    let pieced =
        with(&tote(&[("base", "fold"), ("depth", "0")]).edited(&bands).expect("pieced").0, "zip", Some("front"), &[]);
    assert!(says(&draft(&pieced), "How outer panel is made up is kept aside"), "{:?}", draft(&pieced).notices);
}

/// Worked on one after the other, two embroideries of the front are both on the piece that was cut over for the first; the
/// back stays as it was.
#[test]
fn what_is_split_off_for_a_wall_is_split_once() {
    let fields = [("moment", "before-cutting"), ("width", "3"), ("height", "3"), ("below", "4")];
    let one = with(&tote(&[]), "decoration", Some("front"), &fields);
    let two = with(
        &one,
        "decoration",
        Some("front"),
        &[("moment", "before-cutting"), ("width", "3"), ("height", "3"), ("below", "9")],
    );
    let made = draft(&two);
    let back = made.piece("outer-panel").expect("the back");
    assert_eq!((back.count, back.when), (1, When::Now));
    let front = made.piece("part-1-panel").expect("the front");
    assert!(matches!(front.when, When::OverAndTrimmed(_)));
    assert_eq!(front.marks.iter().filter(|m| m.name.contains("its centre")).count(), 2, "{:?}", front.marks);
    assert!(made.piece("part-2-panel").is_none());
}

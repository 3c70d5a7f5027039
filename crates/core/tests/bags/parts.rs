//! Parts on bags: every size against what makers cut, or worked out by hand.
//!
//! Checks marked *common practice* are sizes makers state for parts of this kind; the others are worked out beside them.
#![allow(missing_docs)]

use bofta_core::bag::{Bag, Draft, Family, Group, Severity};
use bofta_core::measure::{Length, Ruler, System};
use bofta_core::piece::{From, Mark, Part, Piece, When};
use bofta_core::project::{Edit, Project};
use rstest::rstest;

const IN: System = System::Inches;
const CM: System = System::Centimetres;

fn project(family: Family, system: System, sizes: &[(&str, &str)]) -> Project {
    let mut project = Project { bag: family.default_for(system), ..Project::new("Parts", system) };
    for (key, value) in sizes {
        project.bag.set(key, value, system).unwrap_or_else(|p| panic!("{key} {value}: {p}"));
    }
    project
}

fn edited(project: &Project, edit: Edit) -> Project {
    project.edited(&edit).unwrap_or_else(|p| panic!("{edit:?}: {p:?}")).0
}

/// A part with these fields set one after the other.
fn put_on(project: &Project, part: &str, fields: &[(&str, &str)]) -> Project {
    let mut project = edited(project, Edit::AddPart { part: part.to_owned(), wall: None });
    let id = project.bag.parts.last().expect("it was added").id;
    for (field, value) in fields {
        project = edited(&project, Edit::Part { id, field: (*field).to_owned(), value: (*value).to_owned() });
    }
    project
}

fn drafted(project: &Project) -> Draft {
    project.bag.draft(project.ruler).unwrap_or_else(|p| panic!("{p:?}"))
}

fn refused(project: &Project, id: u32, field: &str, value: &str) -> String {
    let edit = Edit::Part { id, field: field.to_owned(), value: value.to_owned() };
    let problems = project.edited(&edit).expect_err("refused");
    let problem = problems.first().expect("one");
    assert!(problem.field.starts_with(&format!("part-{id}.")), "{problem:?}");
    format!("{}: {}", problem.field, problem.message)
}

/// Width and height of the piece whose id ends so, in its units.
fn size(draft: &Draft, id: &str, system: System) -> (f64, f64) {
    let piece = piece(draft, id);
    (piece.width.size.in_units(system), piece.height.size.in_units(system))
}

fn piece<'a>(draft: &'a Draft, id: &str) -> &'a Piece {
    let ids: Vec<&str> = draft.pieces.iter().map(|p| p.id.as_ref()).collect();
    draft.pieces.iter().find(|p| p.id.ends_with(id)).unwrap_or_else(|| panic!("no {id} in {ids:?}"))
}

fn mark<'a>(piece: &'a Piece, name: &str) -> &'a Mark {
    let names: Vec<&str> = piece.marks.iter().map(|m| m.name.as_ref()).collect();
    piece.marks.iter().find(|m| m.name.contains(name)).unwrap_or_else(|| panic!("no {name} in {names:?}"))
}

fn eighths(n: i64) -> Length {
    Length::inches(n, 8)
}

#[rstest]
// Worked out: 6 + 2 × ⅜ by 5 + ⅜ + 1.
#[case::hemmed(&[("make", "hemmed"), ("width", "6"), ("height", "5"), ("turn", "3/8"), ("hem", "1")], "pocket", (6.75, 6.375))]
// Worked out: 6 + 2 × ⅜ by 2 × 5 + 2 × ⅜.
#[case::doubled(&[("make", "doubled"), ("width", "6"), ("height", "5"), ("turn", "3/8")], "pocket", (6.75, 10.75))]
// Worked out: both cloths 6 + 2 × ½ by 5 + 2 × ½.
#[case::lined(&[("make", "lined"), ("width", "6"), ("height", "5"), ("turn", "1/2")], "lining", (7.0, 6.0))]
// Worked out: nothing at the top; the binding 4 × ⅜ wide and as long as the pocket is cut.
#[case::bound(&[("make", "bound"), ("width", "6"), ("height", "5"), ("turn", "1/2")], "pocket", (7.0, 5.5))]
#[case::bound_binding(&[("make", "bound"), ("width", "6"), ("height", "5"), ("turn", "1/2")], "binding", (1.5, 7.0))]
// Common practice: a bag of 10 × 16 in behind a window of 8 × ½, 6½ deep.
#[case::zip(&[("make", "zip"), ("width", "8"), ("opening", "1/2"), ("height", "6 1/2")], "pocket", (10.0, 16.0))]
// Common practice: a window of 7 × ⅜ is faced by 8 × 1⅜.
#[case::zip_facing(&[("make", "zip"), ("width", "7"), ("opening", "3/8"), ("height", "5")], "facing", (8.0, 1.375))]
// Worked out: a welt 7 long fills ½ with ½ in seams: 9 × 2 in.
#[case::welt(&[("make", "welt"), ("width", "7"), ("opening", "1/2"), ("turn", "1/2"), ("height", "4")], "welt", (9.0, 2.0))]
// Worked out: divisions of 3, 5 and 7 that are cut 4, 5½ and 8½: 18 and ½ in seams on 15.
#[case::divided(&[("width", "15"), ("turn", "1/2"), ("divisions", "3, 5, 7"), ("fuller", "4, 5 1/2, 8 1/2")], "pocket", (19.0, 11.0))]
fn a_pocket_is_cut_so(#[case] fields: &[(&str, &str)], #[case] id: &str, #[case] cut: (f64, f64)) {
    let tote = project(Family::Tote, IN, &[("width", "17"), ("height", "14"), ("depth", "4")]);
    let draft = drafted(&put_on(&tote, "pocket", fields));
    assert_eq!(size(&draft, &format!("part-1-{id}"), IN), cut);
}

/// Worked out: sits on 3, 5, 7, cut 4, 5½, 8½, seams ½: on the pocket the dividers are 4½ and 10 from its edge; on the face,
/// 15 of 17 wide, they are 1 + 3 and 1 + 8 from its left edge, which is s + D/2 = 2½ in from the panel's.
#[test]
fn dividers_are_marked_on_pocket_and_panel() {
    let tote = project(Family::Tote, IN, &[("width", "17"), ("height", "14"), ("depth", "4"), ("seam_side", "1/2")]);
    let fields = [("width", "15"), ("turn", "1/2"), ("divisions", "3, 5, 7"), ("fuller", "4, 5 1/2, 8 1/2")];
    let draft = drafted(&put_on(&tote, "pocket", &fields));
    let on_pocket = piece(&draft, "part-1-pocket");
    assert_eq!(mark(on_pocket, "divider 1").distance, eighths(36));
    assert_eq!(mark(on_pocket, "divider 2").distance, eighths(80));
    let panel = piece(&draft, "outer-panel");
    assert_eq!((mark(panel, "divider 1").distance, mark(panel, "divider 1").from), (eighths(52), From::LeftEdge));
    assert_eq!(mark(panel, "divider 2").distance, eighths(92));
}

/// Common practice: what stands 2¾ across, with ½ ease, on 4 in of wall asks for 5⅛ of sleeve; and 2 × ½ turned.
#[test]
fn a_sleeve_is_fuller_than_its_wall() {
    let tote = project(Family::Tote, IN, &[("depth", "5"), ("width", "15"), ("height", "14")]);
    let fields = [
        ("make", "sleeve"),
        ("width", "4"),
        ("round", "2 3/4"),
        ("ease", "1/2"),
        ("turn", "1/2"),
        ("hem", "1/2"),
        ("height", "6"),
    ];
    let draft = drafted(&put_on(&tote, "pocket", &fields));
    let (wide, tall) = size(&draft, "part-1-pocket", IN);
    assert_eq!((wide, tall), (6.25, 7.0), "5.14 + 1 brought up to an eighth");
    // Half of it is on each panel: 2 in from the side seam, which is ½ in from the edge.
    let at = mark(piece(&draft, "outer-panel"), "top corners");
    assert_eq!((at.distance, at.from), (eighths(20), From::SideEdges));
}

/// Common practice: right across and into the base seam, doubled. P = 14 + 4 + 2 × ½ = 19 wide; 6 tall, half the depth and ½
/// at the base, twice over: 17.
#[test]
fn a_pocket_right_across_lies_in_the_bags_seams() {
    let tote = project(
        Family::Tote,
        IN,
        &[("width", "14"), ("depth", "4"), ("height", "13"), ("seam_side", "1/2"), ("seam_base", "1/2")],
    );
    let made = put_on(&tote, "pocket", &[("place", "full-width"), ("foot", "base-seam"), ("height", "6")]);
    let draft = drafted(&made);
    assert_eq!(size(&draft, "part-1-pocket", IN), (19.0, 17.0));
    let seam = made.bag.seams(Ruler::Eighth).into_iter().find(|s| s.name.contains("across the front")).expect("a seam");
    let [pocket, panel] = seam.lengths(&draft).expect("both");
    assert_eq!((pocket, panel), (Length::INCH * 18, Length::INCH * 18));
    // From the mouth down to its top edge: 13 − 6, and the top seam.
    assert_eq!(mark(piece(&draft, "outer-panel"), "top edge").distance, eighths(60));
}

#[rstest]
// Common practice: 24½ showing, ¼ in top seam and an inch past it at both ends: 27.
#[case::mouth(&[("end", "mouth"), ("shows", "24 1/2"), ("apart", "6")], 27.0)]
// Common practice: 21 showing, tucked 1½: 24.
#[case::tucked(&[("end", "tucked"), ("shows", "21"), ("depth", "1 1/2"), ("apart", "6")], 24.0)]
// Common practice: 35 showing, lapped 2 and turned ½: 40.
#[case::outside(&[("end", "outside"), ("shows", "35"), ("depth", "2"), ("turn", "1/2"), ("apart", "6")], 40.0)]
// Worked out: 17 + 3/2 + ½ = 19 up the body, twice, and 20½ showing: 58½.
#[case::base_up(&[("end", "base-up"), ("shows", "20 1/2"), ("apart", "6")], 58.5)]
// Worked out: 2 in round a ring at both ends.
#[case::rings(&[("end", "rings"), ("shows", "20"), ("apart", "6")], 24.0)]
// Worked out: 48 and 2 in round both hooks, 1½ round the slider.
#[case::slider(&[("runs", "side-to-side"), ("end", "slider"), ("shows", "48")], 53.5)]
fn a_strap_is_cut_so(#[case] fields: &[(&str, &str)], #[case] long: f64) {
    let sizes = [
        ("width", "15"),
        ("height", "17"),
        ("depth", "3"),
        ("straps", "no"),
        ("seam_top", "1/4"),
        ("seam_base", "1/2"),
    ];
    let draft = drafted(&put_on(&project(Family::Tote, IN, &sizes), "strap", fields));
    let (wide, tall) = size(&draft, "part-1-strap", IN);
    assert_eq!((wide, tall), (4.0, long));
}

/// Common practice, in centimetres: a caddy's ring-jointed strap of 50 on two rings, 5 round each, is cut 60; a wrist strap
/// 16½ long and 2¼ wide of 35 × 9; a loop 6½ long of 15.
#[test]
fn metric_straps_and_loops() {
    let caddy = project(Family::Caddy, CM, &[("handle", "no")]);
    let made =
        put_on(&caddy, "strap", &[("runs", "side-to-side"), ("end", "rings"), ("shows", "50"), ("width", "2.5")]);
    let made = put_on(&made, "tab", &[("what", "wrist"), ("length", "16.5"), ("width", "2.25"), ("turn", "1")]);
    let made = put_on(&made, "tab", &[("length", "6.5"), ("width", "2"), ("turn", "1")]);
    let draft = drafted(&made);
    assert_eq!(size(&draft, "part-1-strap", CM), (10.0, 60.0));
    assert_eq!(size(&draft, "part-2-tab", CM), (9.0, 35.0));
    assert_eq!(size(&draft, "part-3-tab", CM).1, 15.0);
    let rings: u32 = draft.hardware.iter().filter(|h| h.name == "D-ring").map(|h| h.count).sum();
    assert_eq!(rings, 2);
}

/// Worked out: an embroidery on the front only, 2 in over all round: one of two panels is cut 4 in larger each way, the other
/// stays; the finished size is as asked, and its centre is half the panel across, t + 5 and the 2 in over down.
#[test]
fn an_embroidered_panel_is_cut_over_and_its_pair_is_not() {
    let tote = project(Family::Tote, IN, &[("width", "14"), ("height", "13"), ("depth", "4"), ("seam_top", "1/2")]);
    let before = drafted(&tote);
    let made = put_on(&tote, "decoration", &[("margin", "2"), ("below", "5"), ("width", "4"), ("height", "4")]);
    let draft = drafted(&made);
    let (panel, over) = (piece(&draft, "outer-panel"), piece(&draft, "part-1-panel"));
    assert_eq!((panel.count, over.count), (1, 1));
    assert_eq!(panel.size(), piece(&before, "outer-panel").size());
    assert_eq!(over.size(), (panel.size().0 + Length::INCH * 4, panel.size().1 + Length::INCH * 4));
    assert_eq!(over.when, When::OverAndTrimmed(Length::INCH * 4));
    assert_eq!(mark(over, "its centre").and, Some((eighths(60), From::TopEdge)));
    assert!(made.bag.finished_from_cut(&draft).iter().all(|f| f.asked == f.back));
}

#[test]
fn a_piece_of_ones_own_is_cut_beside_any_bag() {
    for family in Family::ALL.iter().filter(|f| **f != Family::CutList) {
        let fields = [
            ("name", "Kneeler pad"),
            ("count", "3"),
            ("width", "9"),
            ("height", "12"),
            ("seam", "1/2"),
            ("cloth", "lining"),
        ];
        let draft = drafted(&put_on(&project(*family, IN, &[]), "piece", &fields));
        let own = piece(&draft, "part-1-piece");
        assert_eq!((own.name.as_ref(), own.count, own.part), ("Kneeler pad", 3, Part::Lining), "{family:?}");
        assert_eq!(size(&draft, "part-1-piece", IN), (10.0, 13.0));
    }
}

/// What is one over the base has its back upside down: the pocket's corners are measured from the lower edge, and what is an
/// inch from the left of the back is at the right of the piece. Worked out: 12 + 2 × ½ wide, a pocket 5 wide 1 from the left:
/// 13 − ½ − 1 − 5 = 6½.
#[test]
fn on_a_folded_back_a_pocket_stands_with_the_bag() {
    let sack =
        project(Family::Drawstring, IN, &[("width", "12"), ("height", "16"), ("seam_side", "1/2"), ("base", "fold")]);
    let fields =
        [("wall", "back"), ("place", "from-left"), ("from_left", "1"), ("width", "5"), ("height", "5"), ("below", "6")];
    let draft = drafted(&put_on(&sack, "pocket", &fields));
    let at = mark(piece(&draft, "outer-panel"), "top corners");
    assert_eq!((at.distance, at.from), (eighths(52), From::LeftEdge));
    assert_eq!(at.and.map(|(_, from)| from), Some(From::BaseEdge));
}

#[rstest]
#[case("width", "30", "part-1.width")]
#[case("height", "14", "part-1.height")]
#[case("divisions", "9, 9", "part-1.width")]
#[case("fuller", "3, 3", "part-1.fuller")]
#[case("width", "-3", "part-1.width")]
#[case("width", "50 m", "part-1.width")]
#[case("turn", "1 mm", "part-1.turn")]
#[case("colour", "red", "part-1.colour")]
#[case("wall", "lid", "part-1.wall")]
fn what_does_not_fit_is_refused_by_its_field(#[case] field: &str, #[case] value: &str, #[case] named: &str) {
    let tote = project(Family::Tote, IN, &[("width", "14"), ("height", "13")]);
    let made = put_on(&tote, "pocket", &[("width", "6"), ("height", "5")]);
    let said = refused(&made, 1, field, value);
    assert!(said.starts_with(named), "{said}");
}

#[test]
fn contradictions_name_the_part_and_what_would_do() {
    // A sleeve stands at a side, a division has a width.
    let tote = project(Family::Tote, IN, &[("width", "14"), ("height", "13"), ("depth", "4")]);
    let sleeve = put_on(&tote, "pocket", &[("make", "sleeve")]);
    assert!(refused(&sleeve, 1, "wall", "front").contains("stands at a side"));
    let pocket = put_on(&tote, "pocket", &[("width", "6")]);
    assert!(refused(&pocket, 1, "divisions", "0, 6").contains("more than 0"));
    // A pouch is closed by its zip, an unlined sack has no inside, a folded one no base seam.
    let pouch = put_on(&project(Family::Pouch, IN, &[]), "strap", &[]);
    assert!(refused(&pouch, 1, "end", "mouth").contains("no open mouth"));
    let sack = put_on(&project(Family::Drawstring, IN, &[("base", "fold")]), "pocket", &[]);
    assert!(refused(&sack, 1, "foot", "base-seam").contains("no base seam"));
    assert!(refused(&sack, 1, "wall", "inside-front").contains("it has front; back."));
    // Under the facing the outer is the facing's: on a band no pocket can lie.
    let banded = project(Family::Tote, IN, &[("mouth", "band"), ("band_depth", "3"), ("height", "13")]);
    let banded = put_on(&banded, "pocket", &[("below", "3")]);
    assert!(refused(&banded, 1, "below", "1").contains("at least"));
}

/// A part whose wall goes is remembered, not made, and told; it is made again when the wall comes back.
#[test]
fn a_part_whose_wall_goes_is_kept_aside_and_said_so() {
    let tote = project(Family::Tote, IN, &[]);
    let made = put_on(&tote, "pocket", &[("wall", "inside-back"), ("make", "zip")]);
    assert!(drafted(&made).pieces.iter().any(|p| p.id.starts_with("part-1")));
    let unlined = edited(&made, Edit::Bag { field: "lining".into(), value: "none".into() });
    let draft = drafted(&unlined);
    assert!(!draft.pieces.iter().any(|p| p.id.starts_with("part-1")));
    let told = draft.notices.iter().find(|n| n.text.contains("kept aside")).expect("told");
    assert_eq!((told.severity, told.field.as_deref()), (Severity::Attention, Some("part-1.wall")));
    let lined = edited(&unlined, Edit::Bag { field: "lining".into(), value: "same".into() });
    assert!(drafted(&lined).pieces.iter().any(|p| p.id.starts_with("part-1")));
}

/// Every part comes along into every family, or is kept aside and said so: none is lost.
#[test]
fn another_kind_of_bag_keeps_every_part() {
    let mut made = project(Family::Tote, IN, &[]);
    for part in ["pocket", "strap", "tab", "decoration", "piece"] {
        made = put_on(&made, part, &[]);
    }
    for family in Family::ALL.iter().filter(|f| **f != Family::CutList) {
        let turned = edited(&made, Edit::Family { family: family.key().into() });
        assert_eq!(turned.bag.parts.len(), 5, "{family:?}");
        let draft = drafted(&turned);
        for part in &turned.bag.parts {
            let made = draft.pieces.iter().any(|p| p.id.starts_with(&part.prefix()))
                || draft.notices.iter().any(|n| n.text.contains(&part.name()));
            let marked = draft.steps.iter().any(|s| s.text.contains(&part.name()));
            assert!(made || marked, "{family:?} lost {}", part.name());
        }
    }
}

#[test]
fn parts_are_copied_taken_off_and_scaled() {
    let tote = project(Family::Tote, IN, &[("width", "14"), ("height", "13")]);
    let made = put_on(&tote, "pocket", &[("width", "6"), ("height", "5")]);
    let both = edited(&made, Edit::CopyPart { id: 1 });
    assert_eq!(both.bag.parts[1].sides(), both.bag.parts[0].sides().iter().map(|s| s.opposite()).collect::<Vec<_>>());
    let one = edited(&both, Edit::TakePartOff { id: 1 });
    assert_eq!(one.bag.parts.iter().map(|p| p.id).collect::<Vec<_>>(), [2]);
    let half = edited(&made, Edit::Scale { percent: 50 });
    assert_eq!(size(&drafted(&half), "part-1-pocket", IN).0, 3.0 + 0.75);
    assert!(made.edited(&Edit::TakePartOff { id: 9 }).is_err());
    assert!(made.edited(&Edit::AddPart { part: "wing".into(), wall: None }).is_err());
}

/// Worked out: a pocket 5 tall 3 below the mouth ends 8 down; a window 6 down lies over it, at 8½ it does not, nor does one on
/// the other side.
#[rstest]
#[case("front", "6", true)]
#[case("front", "8 1/2", false)]
#[case("back", "6", false)]
fn parts_that_lie_over_each_other_are_told(#[case] wall: &str, #[case] below: &str, #[case] told: bool) {
    let tote = project(Family::Tote, IN, &[("width", "14"), ("height", "13")]);
    let made = put_on(&tote, "pocket", &[("width", "6"), ("below", "3"), ("height", "5")]);
    let made = put_on(&made, "pocket", &[("wall", wall), ("make", "zip"), ("height", "3"), ("below", below)]);
    let found = drafted(&made).notices.into_iter().find(|n| n.text.contains("lies over"));
    assert_eq!(found.is_some(), told);
    assert!(found.is_none_or(|n| n.field.as_deref() == Some("part-2.below")));
}

/// What was chosen brings sizes along that nobody typed, and says so: a side 2 in deep holds no sleeve as wide as the pocket.
#[test]
fn a_choice_brings_sizes_along_and_tells() {
    let tote = project(Family::Tote, IN, &[("width", "14"), ("height", "13"), ("depth", "2")]);
    let made = put_on(&tote, "pocket", &[("width", "6"), ("height", "5")]);
    let edit = Edit::Part { id: 1, field: "make".into(), value: "sleeve".into() };
    let after = edited(&made, edit.clone());
    let told = after.came_along(&made, &[edit]);
    assert!(told.iter().any(|t| t.contains("wall it stands on")), "{told:?}");
    assert!(size(&drafted(&after), "part-1-pocket", IN).0 > 3.0);
}

/// A side that is halved by a seam has no face: what would be marked in the middle of it would stand on the front.
#[rstest]
#[case("decoration", &[])]
#[case("tab", &[("what", "button")])]
fn nothing_stands_on_a_seam(#[case] part: &str, #[case] fields: &[(&str, &str)]) {
    let tote = project(Family::Tote, IN, &[("width", "14"), ("height", "13"), ("depth", "6")]);
    let made = put_on(&tote, part, fields);
    assert!(refused(&made, 1, "wall", "left").contains("a seam runs up the middle"));
    // A caddy's side is a panel of its own.
    let caddy = put_on(&project(Family::Caddy, IN, &[]), part, fields);
    edited(&caddy, Edit::Part { id: 1, field: "wall".into(), value: "left".into() });
}

/// What was chosen for another make says nothing any more: a sleeve stands over its seam though the pocket stood 4 in from the
/// left, a window has no dividers, and it lies within its wall though the pocket reached right across.
#[test]
fn what_another_make_left_behind_does_nothing() {
    let tote = project(Family::Tote, IN, &[("width", "14"), ("height", "13"), ("depth", "5"), ("seam_side", "1/2")]);
    let left = [("width", "4"), ("place", "from-left"), ("from_left", "9"), ("divisions", "1, 3"), ("make", "sleeve")];
    let sleeve = put_on(&tote, "pocket", &left);
    let draft = drafted(&sleeve);
    assert!(piece(&draft, "part-1-pocket").marks.iter().all(|m| !m.name.contains("divider")));
    assert_eq!(mark(piece(&draft, "outer-panel"), "top corners").from, From::SideEdges);
    let window = put_on(&tote, "pocket", &[("place", "full-width"), ("divisions", "9, 10"), ("make", "zip")]);
    let draft = drafted(&window);
    assert!(piece(&draft, "outer-panel").marks.iter().all(|m| !m.name.contains("divider")));
    assert!(!draft.notices.iter().any(|n| n.text.contains("last division")), "{:?}", draft.notices);
    assert!(refused(&window, 1, "place", "full-width").contains("within its wall"));
}

/// What is pieced, quilted or fused as a block is not cut over again, and says so; what is split off its pair says that too.
#[rstest]
#[case(&[("front", "grid")], "the panel is pieced")]
#[case(&[("quilted", "yes")], "cut over already")]
#[case(&[("backing", "block")], "its block is embroidered")]
fn a_hoop_needs_no_more_where_there_is_enough(#[case] fields: &[(&str, &str)], #[case] why: &str) {
    let made = put_on(&project(Family::Tote, IN, fields), "decoration", &[]);
    let draft = drafted(&made);
    assert!(!draft.pieces.iter().any(|p| p.id == "part-1-panel"));
    assert!(
        draft.notices.iter().any(|n| n.text.contains("nothing is cut over") && n.text.contains(why)),
        "{:?}",
        draft.notices
    );
    let plain = drafted(&put_on(&project(Family::Tote, IN, &[]), "decoration", &[]));
    assert!(plain.notices.iter().any(|n| n.text.contains("a piece of its own")));
}

/// Sixty pockets on one spot are told sixty times at most, not once for every pair.
#[test]
fn a_pile_of_parts_is_told_once_each() {
    let mut bag = put_on(&project(Family::Tote, IN, &[("width", "14")]), "pocket", &[]).bag;
    for id in 2..=60 {
        let again = bofta_core::bag::Added { id, ..bag.parts[0].clone() };
        bag.parts.push(again);
    }
    let draft = bag.draft(Ruler::Eighth).expect("drafts");
    let over = draft.notices.iter().filter(|n| n.text.contains("lies over")).count();
    assert_eq!(over, 59);
}

/// A divided pocket can be made wider, and its divisions changed: the one brings the other along and says so. Right across, the
/// last division takes what is left, so that the bag can still change its width.
#[test]
fn width_and_divisions_go_together() {
    let tote = project(Family::Tote, IN, &[("width", "14"), ("height", "13"), ("depth", "4")]);
    let made = put_on(&tote, "pocket", &[("width", "8"), ("divisions", "3, 5"), ("fuller", "4, 6")]);
    let edit = Edit::Part { id: 1, field: "width".into(), value: "9".into() };
    let wider = edited(&made, edit.clone());
    let told = wider.came_along(&made, &[edit]);
    assert!(told.iter().any(|t| t.contains("3 in, 6 in")) && told.iter().any(|t| t.contains("4 in, 7 in")), "{told:?}");
    let edit = Edit::Part { id: 1, field: "divisions".into(), value: "4, 3".into() };
    let other = edited(&put_on(&tote, "pocket", &[("width", "8"), ("divisions", "3, 5")]), edit.clone());
    assert!((size(&drafted(&other), "part-1-pocket", IN).0 - 7.75).abs() < 0.01);
    // Where nothing is left for the last, all are spread in proportion, and none is refused.
    let edit = Edit::Part { id: 1, field: "width".into(), value: "2".into() };
    let told = edited(&made, edit.clone()).came_along(&made, &[edit]);
    assert!(told.iter().any(|t| t.contains("3/4 in, 1 1/4 in") || t.contains("¾ in, 1¼ in")), "{told:?}");
    // One division more is cut as wide as it sits.
    let edit = Edit::Part { id: 1, field: "divisions".into(), value: "3, 5, 2".into() };
    let told = edited(&made, edit.clone()).came_along(&made, &[edit]);
    assert!(told.iter().any(|t| t.contains("4 in, 6 in, 2 in")), "{told:?}");
    // 18 from side seam to side seam: 6, 6 and what is left.
    let across = put_on(&tote, "pocket", &[("place", "full-width"), ("divisions", "6, 6, 6")]);
    let narrower = edited(&across, Edit::Bag { field: "width".into(), value: "13".into() });
    let draft = drafted(&narrower);
    assert!(
        draft.notices.iter().any(|n| n.text.contains("the last division takes what is left, 5 in")),
        "{:?}",
        draft.notices
    );
    let tight = edited(&across, Edit::Bag { field: "width".into(), value: "6".into() });
    let draft = drafted(&tight);
    assert!(draft.notices.iter().any(|n| n.text.contains("spread in proportion")), "{:?}", draft.notices);
    let half = edited(&made, Edit::Scale { percent: 75 });
    assert!(drafted(&half).pieces.iter().any(|p| p.id == "part-1-pocket"));
}

/// What is kept is read again as it was.
#[test]
fn parts_are_kept() {
    let mut made = project(Family::Caddy, CM, &[]);
    for part in ["pocket", "strap", "tab", "decoration", "piece"] {
        made = put_on(&made, part, &[("name", "Täschchen „klein“")]);
    }
    made = put_on(&made, "pocket", &[("width", "12"), ("divisions", "4; 8")]);
    let kept = serde_json::to_string(&made.bag).expect("kept");
    let again: Bag = serde_json::from_str(&kept).expect("read");
    assert_eq!(again, made.bag);
    let unknown = kept.replacen("\"part\":\"pocket\"", "\"part\":\"wing\"", 1);
    assert!(serde_json::from_str::<Bag>(&unknown).is_err());
}

/// A bag with as many parts as may be is drafted; one more is refused.
#[test]
fn so_many_parts_and_no_more() {
    let mut made = project(Family::Tote, IN, &[]);
    for _ in 0..60 {
        made = edited(&made, Edit::AddPart { part: "piece".into(), wall: None });
    }
    assert_eq!(drafted(&made).pieces.iter().filter(|p| p.id.starts_with("part-")).count(), 60);
    let refused = made.edited(&Edit::AddPart { part: "piece".into(), wall: None }).expect_err("refused");
    assert!(refused[0].message.contains("60"));
}

/// Two ends that are moved outward by a quarter inch stand a quarter inch further out each: of a strap put on, and of the
/// straps a body has itself.
#[rstest]
#[case::put_on(Family::Caddy, true)]
#[case::tote(Family::Tote, false)]
#[case::duffel(Family::Duffel, false)]
fn ends_are_moved_by_what_is_said(#[case] family: Family, #[case] as_a_part: bool) {
    let mut made = project(family, IN, &[]);
    if as_a_part {
        made = put_on(&made, "strap", &[("runs", "front")]);
    }
    let seen = |bag: &Bag| {
        let own = bag.own_seen().into_iter().map(|(_, seen)| seen);
        own.chain(bag.seen(Ruler::Eighth).into_iter().map(|(_, seen)| seen)).find(|s| s.moves.ends.is_some())
    };
    let before = seen(&made.bag).expect("a strap is seen");
    let ends = before.moves.ends.expect("its ends move");
    let quarter = Length::inches(1, 4);
    let value = made.ruler.show(ends.is + quarter * ends.outward).text;
    let field = ends.field.to_owned();
    let moved = if as_a_part { Edit::Part { id: 1, field, value } } else { Edit::Bag { field, value } };
    let after = seen(&edited(&made, moved).bag).expect("still seen");
    assert_eq!(after.left, before.left - quarter);
    assert_eq!(after.width, before.width + quarter * 2);
}

/// The pocket a body has itself moves down by its own field, and lies over what is put there: that is told.
#[test]
fn the_own_pocket_is_moved_and_lain_over() {
    let tote = project(Family::Tote, IN, &[("pocket", "yes")]);
    let pocket = |p: &Project| {
        let of = |(group, seen)| (group == Group::Pocket).then_some(seen);
        p.bag.own_seen().into_iter().find_map(of).expect("a pocket is seen")
    };
    let down = pocket(&tote).moves.down.expect("it moves down");
    assert_eq!(down.0, "pocket_below");
    let lower = edited(&tote, Edit::Bag { field: down.0.into(), value: "4".into() });
    assert_eq!(pocket(&lower).down, Length::INCH * 4);
    // Of a caddy they stand at the foot of the wall, right across it.
    let caddy = project(Family::Caddy, IN, &[("height", "8"), ("pocket_height", "5"), ("width", "12")]);
    let seen = pocket(&caddy);
    assert_eq!((seen.down, seen.height, seen.width), (Length::INCH * 3, Length::INCH * 5, Length::INCH * 12));
    let over = put_on(&caddy, "pocket", &[("wall", "front")]);
    let told = drafted(&over).notices.iter().any(|n| n.text.contains("the bag’s own pocket"));
    assert!(told, "{:?}", drafted(&over).notices);
}

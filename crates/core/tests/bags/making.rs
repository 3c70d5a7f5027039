//! The order of making: what is sewn when, which pieces are in hand, and what is ticked off and written down.

use bofta_core::bag::sewn::{Edge, runs};
use bofta_core::bag::{Bag, Draft, Family, Phase, Step};
use bofta_core::measure::{Length, Ruler, System};
use bofta_core::piece::Figure;
use bofta_core::project::{Edit, Project};
use rstest::rstest;

fn project(family: Family, fields: &[(&str, &str)]) -> Project {
    let start = Project { bag: family.default_for(System::Inches), ..Project::new("Trial", System::Inches) };
    let edits = fields.iter().map(|(k, v)| Edit::Bag { field: (*k).into(), value: (*v).into() });
    edits.fold(start, |p, e| p.edited(&e).unwrap_or_else(|why| panic!("{e:?}: {why:?}")).0)
}

fn draft(project: &Project) -> Draft {
    project.plan().expect("planned").draft
}

fn tick(project: &Project, step: &str, done: bool) -> Project {
    project.edited(&Edit::Made { step: step.into(), done }).expect("ticked").0
}

/// How a bag is made in such cases is common practice: the order is that of any pattern for one.
#[rstest]
#[case::tote(Family::Tote, &[], &["straps", "pocket", "outer", "corners", "lining", "mouth"])]
#[case::hemmed(Family::Tote, &[("mouth", "double-hem")], &["straps", "pocket", "outer", "corners", "lining", "drop-in", "mouth"])]
#[case::unlined(Family::Tote, &[("lining", "none"), ("mouth", "double-hem")], &["straps", "outer", "corners", "mouth"])]
#[case::flat_pouch(Family::Pouch, &[], &["zip-tabs", "zip", "outer", "turn"])]
#[case::half_round(Family::Pouch, &[("style", "half-round")], &["zip-tabs", "zip", "outer", "lining", "turn"])]
#[case::sack(Family::Drawstring, &[("lined", "yes"), ("casing", "in-seam")], &["outer", "lining", "casing", "mouth", "cords"])]
#[case::bare_duffel(Family::Duffel, &[("pocket", "no"), ("lined", "no"), ("shoulder", "0")], &["webbing", "zip", "ends", "bind"])]
#[case::tube(Family::FoundTube, &[("lined", "no"), ("straps", "no")], &["tube", "outer", "mouth"])]
fn steps_are_those_of_the_bag(#[case] family: Family, #[case] fields: &[(&str, &str)], #[case] expected: &[&str]) {
    let draft = draft(&project(family, fields));
    let keys: Vec<&str> = draft.steps.iter().map(|s| s.key.as_ref()).filter(|k| *k != "fuse").collect();
    assert_eq!(keys, expected, "{:?}", draft.steps);
}

/// What is not there is not spoken of.
#[test]
fn steps_speak_only_of_what_is_there() {
    let text = |family, fields: &[(&str, &str)]| -> String {
        draft(&project(family, fields)).steps.iter().map(|s| s.text.to_lowercase()).collect::<Vec<_>>().join(" ")
    };
    let duffel = text(Family::Duffel, &[("pocket", "no"), ("lined", "no"), ("shoulder", "0")]);
    assert!(!duffel.contains("pocket") && !duffel.contains("lining") && !duffel.contains("tab"), "{duffel}");
    let tube = text(Family::FoundTube, &[("lined", "no"), ("straps", "no"), ("depth", "0")]);
    assert!(!tube.contains("lining") && !tube.contains("strap") && !tube.contains("corner"), "{tube}");
}

/// Worked out by hand: a boxed tote 15 × 13 × 4 with ½ in seams: its side seam runs from the mouth's raw edge to the notch,
/// 13 + 2 + 2 × ½ − 2 = 14 in, its base seam 15 in between the corners, 4 in across each.
#[test]
fn a_step_tells_its_seams_and_how_long_they_are() {
    let project = project(Family::Tote, &[("width", "15"), ("height", "13"), ("depth", "4")]);
    let draft = draft(&project);
    let making = project.making(&draft);
    let told = |key: &str| -> Vec<(String, String, String)> {
        let step = making.iter().find(|m| m.step.key == key).expect("a step");
        let told = step.seams.iter().filter_map(|s| s.told(&draft, Ruler::Eighth));
        told.map(|t| (t.name, t.seam, t.length)).collect()
    };
    let half = |name: &str, length: &str| (name.to_owned(), "½ in".to_owned(), length.to_owned());
    assert_eq!(told("outer"), [half("side seam", "14 in"), half("base seam", "15 in")]);
    // Two legs, one after the other.
    assert_eq!(told("corners"), [half("across the corner", "4 in")]);
    let hand = &making.iter().find(|m| m.step.key == "outer").expect("a step").pieces;
    let half_inch = Length::inches(1, 2);
    assert_eq!(hand, &[("outer-panel".to_owned(), vec![(Edge::Side, half_inch), (Edge::Base, half_inch)])]);
}

/// A folded body's side seam runs down to the fold: worked out by hand, a sack 13 tall cut twice that and its casings.
#[test]
fn a_side_seam_ends_at_the_fold() {
    let project = project(Family::Drawstring, &[("base", "fold")]);
    let draft = draft(&project);
    let panel = draft.piece("outer-panel").expect("a panel");
    let seam = project.bag.seams(Ruler::Eighth).into_iter().find(|s| s.name == "side seam").expect("a side seam");
    assert_eq!(seam.lengths(&draft), Some([panel.height.size / 2; 2]));
}

/// Every step of every usual bag that sews something shows a piece, and the lines it is sewn on lie on its outline: the
/// straight ones together as long as the edge.
#[rstest]
#[case(System::Inches)]
#[case(System::Centimetres)]
fn what_is_sewn_is_drawn_where_it_is(#[case] system: System) {
    let mut lines = 0;
    for family in Family::ALL {
        let bag: Bag = family.default_for(system);
        let project = Project { bag, ..Project::new("Trial", system) };
        let draft = draft(&project);
        for making in project.making(&draft) {
            assert_eq!(making.seams.is_empty(), making.pieces.iter().all(|(_, sewn)| sewn.is_empty()), "{making:?}");
            for (id, sewn) in &making.pieces {
                let piece = draft.piece(id).expect("a piece in hand").as_trimmed();
                for (edge, _) in sewn.iter().filter(|(e, _)| *e != Edge::Across) {
                    let runs = runs(&piece, *edge);
                    lines += runs.len();
                    let long: f64 = runs.iter().map(|[a, b]| ((a.x - b.x).0 as f64).hypot((a.y - b.y).0 as f64)).sum();
                    let (w, h) = (piece.width.size.0 as f64, piece.height.size.0 as f64);
                    let expected = match (edge, &piece.figure) {
                        (Edge::Round, Figure::Circle) => std::f64::consts::PI * w,
                        (Edge::Round, _) => std::f64::consts::FRAC_PI_2 * w + 2.0 * (h - w / 2.0),
                        (Edge::Base, Figure::Rounded(r)) => w + (std::f64::consts::PI - 2.0) * r.0 as f64,
                        (Edge::Top | Edge::Base, Figure::Rectangle | Figure::Rounded(_)) => w,
                        (Edge::Side | Edge::SideToFold, Figure::Rectangle) => 2.0 * h,
                        _ => continue,
                    };
                    // Arcs are drawn by chords.
                    assert!(
                        (long - expected).abs() < expected * 0.01,
                        "{family:?}, {id}, {edge:?}: {long} for {expected}"
                    );
                }
            }
        }
    }
    assert!(lines > 60, "{lines} lines");
}

#[test]
fn ticks_are_kept_by_step_and_outlive_a_change_of_the_bag() {
    let start = project(Family::Tote, &[]);
    let ticked = tick(&tick(&start, "straps", true), "outer", true);
    let done =
        |p: &Project| p.making(&draft(p)).iter().filter(|m| m.done).map(|m| m.step.key.to_string()).collect::<Vec<_>>();
    assert_eq!(done(&ticked), ["straps", "outer"]);
    assert_eq!(ticked.steps_made(&draft(&ticked)), 2);
    // Without straps there is no such step; with straps again it is done as it was.
    let set =
        |p: &Project, value: &str| p.edited(&Edit::Bag { field: "straps".into(), value: value.into() }).expect("set").0;
    let without = set(&ticked, "no");
    assert_eq!(done(&without), ["outer"]);
    assert_eq!(done(&set(&without, "yes")), ["straps", "outer"]);
    assert_eq!(done(&tick(&ticked, "straps", false)), ["outer"]);
    // Kept and read back.
    let kept = serde_json::to_string(&ticked).expect("kept");
    assert_eq!(serde_json::from_str::<Project>(&kept).expect("read"), ticked);
}

/// Cutting that is begun again, or whose only cut is taken back, leaves what is ticked off of the sewing.
#[test]
fn ticks_are_not_lost_with_the_cuts() {
    let ticked = tick(&project(Family::Tote, &[]), "straps", true);
    let again = ticked.edited(&Edit::StepsDone { count: 0 }).expect("begun again").0;
    assert_eq!(again.steps_made(&draft(&again)), 1);
}

/// What backs one piece by itself is a step too, after it is pieced, with both in hand.
#[test]
fn a_piece_that_is_backed_by_itself_has_a_step_for_it() {
    let make_up = |field: &str, value: &str| Edit::MakeUp {
        piece: "lining-panel".into(),
        field: field.into(),
        value: value.into(),
    };
    let start = project(Family::Tote, &[]);
    let backed = [make_up("front", "strips"), make_up("backed", "light")];
    let made = backed.iter().fold(start, |p, e| p.edited(e).expect("made up").0);
    let making = made.making(&draft(&made));
    let at = |key: &str| making.iter().position(|m| m.step.key == key).unwrap_or_else(|| panic!("no {key}"));
    assert!(at("piece-lining-panel") < at("back-lining-panel") && at("back-lining-panel") < at("lining"));
    let hand: Vec<&str> = making[at("back-lining-panel")].pieces.iter().map(|(id, _)| id.as_str()).collect();
    assert!(hand.contains(&"lining-panel") && hand.len() == 2, "{hand:?}");
    // Not backed, there is nothing to lay behind it.
    let bare = made.edited(&make_up("backed", "nothing")).expect("bare").0;
    assert!(draft(&bare).steps.iter().all(|s| s.key != "back-lining-panel"));
}

#[test]
fn an_unknown_step_and_notes_without_end_are_refused() {
    let start = project(Family::Tote, &[]);
    let refused = start.edited(&Edit::Made { step: "turn-it-blue".into(), done: true }).expect_err("refused");
    assert!(refused[0].field == "step" && refused[0].message.contains("turn-it-blue"), "{refused:?}");
    let long = start.edited(&Edit::Notes { text: "a".repeat(4001) }).expect_err("refused");
    assert!(long[0].field == "notes" && long[0].message.contains("4001"), "{long:?}");
    let noted = start.edited(&Edit::Notes { text: "Needle 90\u{0}\nWalk the foot  \n\n".into() }).expect("kept").0;
    assert_eq!(noted.notes, "Needle 90\nWalk the foot");
}

/// A list of one's own has no steps but those one writes; two alike are two.
#[test]
fn own_steps_follow_those_of_the_bag_and_are_ticked_like_them() {
    let written = |p: &Project, text: &str| p.edited(&Edit::OwnSteps { text: text.into() });
    let start = project(Family::Tote, &[]);
    let own = written(&start, "Press it.\n\n  Sew on\tthe badge. \nPress it.\n").expect("written").0;
    assert_eq!(own.own_steps, ["Press it.", "Sew on the badge.", "Press it."]);
    let making = own.making(&draft(&own));
    let last: Vec<(&str, Phase)> =
        making.iter().rev().take(3).rev().map(|m| (m.step.key.as_ref(), m.step.phase)).collect();
    assert_eq!(
        last,
        [("own: Press it.", Phase::Own), ("own: Sew on the badge.", Phase::Own), ("own: Press it. · 2", Phase::Own)]
    );
    let ticked = tick(&own, "own: Sew on the badge.", true);
    assert_eq!(ticked.steps_made(&draft(&ticked)), 1);
    // Moved among the others it stays done; gone, it is done no more.
    let moved = written(&ticked, "Sew on the badge.\nPress it.").expect("written").0;
    assert_eq!(moved.steps_made(&draft(&moved)), 1);
    assert_eq!(written(&moved, "Press it.").expect("written").0.steps_made(&draft(&moved)), 0);
    for (text, says) in [("x\n".repeat(61), "61 steps"), ("y".repeat(301), "301 characters")] {
        let refused = written(&start, &text).expect_err("refused");
        assert!(refused[0].field == "own_steps" && refused[0].message.contains(says), "{refused:?}");
    }
    let list = written(&project(Family::CutList, &[]), "Hem it.").expect("written").0;
    assert_eq!(list.making(&draft(&list)).len(), 1);
}

/// Plans that were kept before steps had keys hold sentences.
#[test]
fn steps_of_older_plans_are_sentences() {
    let steps: Vec<Step> = serde_json::from_str(r#"["Box the corners.", "Turn."]"#).expect("read");
    assert_eq!(steps[1], Step::new(Phase::Together, "Turn.", "Turn."));
    let now = Step::new(Phase::Flat, "pocket", "Sew the pocket.");
    let kept = serde_json::to_string(&now).expect("kept");
    assert_eq!(serde_json::from_str::<Step>(&kept).expect("read"), now);
}

//! What is sewn together is equally long, and what lies behind a panel no larger than it: for random bags of every family,
//! in both systems, whatever is chosen.
//!
//! `BOFTA_SEAMS` says how many bags are drafted instead of 20,000.
#![allow(missing_docs)]

use bofta_core::bag::sewn::{Edge, Seam, Stretch};
use bofta_core::bag::{Bag, Choice, Draft, Family, Field, PartKind, Phase, Slot};
use bofta_core::lay::Random;
use bofta_core::measure::{Length, Ruler, System};
use bofta_core::piece::{Dimension, Figure, Term};
use bofta_core::project::{Edit, Project};
use rstest::rstest;
use std::collections::BTreeSet;

/// What may be typed or chosen in a field.
enum Kind {
    Size(Length),
    Seam,
    Answers(Vec<String>),
}

fn kinds(fields: &[Field<'_>]) -> Vec<(&'static str, Kind)> {
    let of = |key: &str, slot: &Slot<'_>| match slot {
        Slot::Choice(choice) => Kind::Answers(choice.answers().iter().map(|a| a.key.to_owned()).collect()),
        Slot::Toggle(_) => Kind::Answers(vec!["yes".into(), "no".into()]),
        Slot::Count(_, among) => Kind::Answers((*among.start()..=*among.end()).map(|n| n.to_string()).collect()),
        Slot::Length(_) if key.starts_with("seam") => Kind::Seam,
        Slot::Length(length) => Kind::Size(**length),
        Slot::Text(_) => Kind::Answers(vec![String::new(), "Seed tin".into()]),
        Slot::Cloths(_) => Kind::Answers(vec![String::new(), "outer, lining".into()]),
        Slot::Lengths(_) => Kind::Answers(vec![String::new(), "1, 2".into(), "1 1/2, 1 1/2, 3".into()]),
    };
    fields.iter().map(|f| (f.key, of(f.key, &f.slot))).collect()
}

/// Something to type into a field.
fn any_value(kind: Kind, system: System, random: &mut Random) -> String {
    let step = Ruler::default_for(system).step();
    let typed = |length: Length| format!("{} {}", length.in_units(system), system.symbol());
    match kind {
        Kind::Size(usual) => typed((usual * (40 + random.below(140) as i64) / 100).round_to(step)),
        // From 1/8 to 7/8 in.
        Kind::Seam => typed((Length::inches(1 + random.below(7) as i64, 8)).round_to(step)),
        Kind::Answers(answers) => answers[random.below(answers.len())].clone(),
    }
}

/// The bag with up to three parts put on it, about half of their fields typed anew; what is refused stays as it was.
fn with_parts(bag: Bag, system: System, random: &mut Random) -> Bag {
    let mut project = Project { bag, ..Project::new("Seams", system) };
    for _ in 0..random.below(4) {
        let part = PartKind::CHOICES[random.below(PartKind::CHOICES.len())].0.to_owned();
        let walls = project.bag.walls(project.ruler);
        let wall = walls.get(random.below(walls.len() + 1)).map(|w| w.side.answer().key.to_owned());
        let wall = wall.filter(|_| part == "pocket" || part == "decoration");
        let Ok((next, _)) = project.edited(&Edit::AddPart { part, wall }) else { continue };
        project = next;
        let Some(added) = project.bag.parts.last().cloned() else { continue };
        for (field, kind) in kinds(&added.clone().fields()) {
            if random.below(2) == 0 {
                let value = any_value(kind, system, random);
                let edit = Edit::Part { id: added.id, field: field.to_owned(), value };
                project = project.edited(&edit).map_or(project, |(next, _)| next);
            }
        }
    }
    project.bag
}

/// A bag with about half of its fields typed anew.
pub fn any_bag(family: Family, system: System, random: &mut Random) -> Bag {
    let mut bag = family.default_for(system);
    for (key, kind) in kinds(&bag.clone().fields()) {
        if random.below(2) == 0 {
            continue;
        }
        let value = any_value(kind, system, random);
        // What cannot be read is tested elsewhere.
        let _ = bag.set(key, &value, system);
    }
    bag
}

/// Equal before rounding, but for a unit or two of π; where a shape is kept by its corners or its slant, to a line of the ruler at each.
fn unequal(seam: &Seam, draft: &Draft, ruler: Ruler) -> Option<String> {
    let [one, other] = seam.exact(draft)?;
    let by_corners = |s: &Stretch| {
        draft.piece(&s.piece).is_some_and(|p| matches!(p.as_trimmed().figure, Figure::Free(_) | Figure::Tapered(_)))
    };
    let allowed = if seam.sides.iter().any(by_corners) { ruler.step() * 2 } else { Length(4) };
    let apart = Length((one - other).0.abs());
    (apart > allowed).then(|| format!("{}: {one:?} is sewn to {other:?}", seam.name))
}

/// A reason whose printed terms are no lengths of the ruler, or do not add up to what is printed.
fn does_not_add_up(size: &Dimension, ruler: Ruler) -> Option<String> {
    let printed = size.printed(ruler);
    let sum: Length = printed.iter().map(|p| p.term.each * p.term.times).sum();
    let can_be_said = printed.iter().all(|p| ruler.show(p.term.each).exact);
    (sum != size.size || !can_be_said).then(|| format!("{size:?} is printed as {printed:?}"))
}

/// A seam that no step sews, two steps of one key, or a step that comes before what it needs.
fn not_in_order(bag: &Bag, draft: &Draft, ruler: Ruler) -> Option<String> {
    let keys: BTreeSet<&str> = draft.steps.iter().map(|s| s.key.as_ref()).collect();
    let phases: Vec<Phase> = draft.steps.iter().map(|s| s.phase).collect();
    if keys.len() != draft.steps.len() || !phases.is_sorted() {
        return Some(format!("the steps are {:?}", draft.steps));
    }
    let seam = bag.seams(ruler).into_iter().find(|s| s.lengths(draft).is_some() && !keys.contains(s.step.as_ref()))?;
    Some(format!("{} is sewn at “{}”: the steps are {keys:?}", seam.name, seam.step))
}

/// Worked out by hand: 4 × 12.8437 in + 46 = 97.375 in. 12.8437 is printed as about 12⅞, four of which and 46 are 97½: the
/// last term takes the eighth back.
#[test]
fn a_printed_reason_adds_up() {
    let part = Length::inches(128_437, 10_000);
    let size = Dimension::sum(
        vec![Term::times("round", 4, part, "width"), Term::once("rest", Length::INCH * 46, "height")],
        Ruler::Eighth,
    );
    assert_eq!(size.size, Length::inches(779, 8));
    let printed = size.printed(Ruler::Eighth);
    let said: Vec<(i64, Length, bool)> = printed.iter().map(|p| (p.term.times, p.term.each, p.about)).collect();
    let eighths = |n| Length::inches(n, 8);
    assert_eq!(said, [(4, eighths(103), true), (1, eighths(368), false), (-1, eighths(1), false)]);
    assert_eq!(does_not_add_up(&size, Ruler::Eighth), None);
}

#[test]
fn both_edges_of_a_seam_are_equally_long() {
    let bags: u64 = std::env::var("BOFTA_SEAMS").ok().and_then(|n| n.parse().ok()).unwrap_or(20_000);
    let families: Vec<Family> = Family::ALL.iter().copied().filter(|f| *f != Family::CutList).collect();
    let (mut drafted, mut seams, mut parts, mut backed) = (0, 0, 0, 0);
    for number in 0..bags {
        let random = &mut Random::new(number);
        let family = families[number as usize % families.len()];
        let system = [System::Inches, System::Centimetres][random.below(2)];
        let ruler = Ruler::default_for(system);
        let bag = any_bag(family, system, random);
        if bag.draft(ruler).is_err() {
            continue;
        }
        let bag = with_parts(bag, system, random);
        let draft = bag.draft(ruler).unwrap_or_else(|p| panic!("{number}: {p:?}\n{bag:?}"));
        drafted += 1;
        parts += bag.parts.len();
        for finished in bag.finished_from_cut(&draft) {
            let apart = (finished.back - finished.asked).0.abs();
            assert!(apart <= ruler.step().0 * 2, "{number}, {family:?}: {finished:?}\n{bag:?}");
        }
        let sizes =
            draft.pieces.iter().flat_map(|p| [&p.width, &p.height]).chain(draft.goods.iter().map(|g| &g.length));
        for size in sizes {
            let off = does_not_add_up(size, ruler);
            assert!(off.is_none(), "{number}, {family:?}: {off:?}");
        }
        for behind in &draft.pieces {
            let Some(panel) = behind.backs.as_deref().and_then(|id| draft.piece(id)) else { continue };
            backed += 1;
            let (within, of) = (behind.as_trimmed().size(), panel.as_trimmed().size());
            // Strips run along an edge: they may be as long as either side.
            let (short, long) = (within.0.min(within.1), within.0.max(within.1));
            let strips = behind.id.ends_with("-sides") || behind.id.ends_with("-ends");
            let lies_on_it = if strips {
                short <= of.0.min(of.1) && long <= of.0.max(of.1)
            } else {
                within.0 <= of.0 && within.1 <= of.1
            };
            assert!(lies_on_it, "{number}, {family:?}: {} {within:?} behind {of:?}\n{bag:?}", behind.id);
        }
        for seam in bag.seams(ruler) {
            seams += usize::from(seam.lengths(&draft).is_some());
            let found = unequal(&seam, &draft, ruler);
            assert!(found.is_none(), "{number}, {family:?}: {}\n{bag:?}", found.unwrap_or_default());
        }
        let unsewn = not_in_order(&bag, &draft, ruler);
        assert!(unsewn.is_none(), "{number}, {family:?}: {}\n{bag:?}", unsewn.unwrap_or_default());
    }
    // A test that drafts hardly any bag shows nothing.
    let enough = drafted * 3 >= bags && seams > bags as usize && parts > drafted as usize && backed * 2 > drafted;
    assert!(enough, "{drafted} of {bags} drafted, {seams} seams, {parts} parts, {backed} backed");
}

/// Every seam of the usual bags is there: a name that no piece has would never be compared.
#[rstest]
#[case(System::Inches)]
#[case(System::Centimetres)]
fn the_pieces_of_every_seam_are_there(#[case] system: System) {
    for family in Family::ALL.iter().filter(|f| !matches!(f, Family::CutList | Family::FoundTube)) {
        let bag = family.default_for(system);
        let ruler = Ruler::default_for(system);
        let draft = bag.draft(ruler).expect("drafted");
        let compared = bag.seams(ruler).iter().filter(|s| s.lengths(&draft).is_some()).count();
        assert!(compared > 0, "{family:?}");
    }
}

fn with(family: Family, fields: &[(&str, &str)]) -> (Bag, Draft) {
    let mut bag = family.default_for(System::Inches);
    for (key, value) in fields {
        bag.set(key, value, System::Inches).unwrap_or_else(|p| panic!("{key} {value}: {p}"));
    }
    let draft = bag.draft(Ruler::Eighth).unwrap_or_else(|p| panic!("{p:?}"));
    (bag, draft)
}

/// Worked out by hand: 2 in deep, side seams ½ in, base seam ¼ in. From the side seam line to the corner's seam line is an
/// inch, so 1 + ½ − ¼ = 1¼ in is cut from the raw edge across and 1 + ¼ − ¼ = 1 in up.
#[rstest]
#[case(Family::Pouch, "style", "boxed", "outer-panel")]
#[case(Family::Drawstring, "base", "boxed", "outer-panel")]
#[case(Family::CrossBody, "width", "9", "base")]
fn corners_meet_where_side_and_base_seams_differ(
    #[case] family: Family,
    #[case] key: &str,
    #[case] value: &str,
    #[case] panel: &str,
) {
    let fields = [(key, value), ("depth", "2"), ("seam_side", "1/2"), ("seam_base", "1/4")];
    let (_, draft) = with(family, &fields);
    let outline = draft.piece(panel).expect("a panel").outline().corners();
    let eighths = |n| Length::inches(n, 8);
    assert!(outline.iter().any(|p| p.x == eighths(10) && p.y == eighths(8)), "{outline:?}");
}

/// Worked out by hand: 8 in wide, 3 deep, boxed all round: the corners take the depth off the edge the zip is sewn to,
/// which is 8 in again; a tab of ½ in at each end leaves 7.
#[test]
fn the_zip_of_a_pouch_boxed_all_round_is_as_long_as_its_edge() {
    let (bag, draft) = with(Family::Pouch, &[("style", "all-boxed"), ("width", "8"), ("depth", "3")]);
    assert_eq!(draft.hardware[0].size, Some(Length::INCH * 7));
    let seam = bag.seams(Ruler::Eighth).into_iter().find(|s| s.name == "along the zip").expect("a seam at the zip");
    assert_eq!(seam.lengths(&draft).map(|l| l[0]), Some(Length::INCH * 8));
}

/// Worked out by hand: 9 × 6 in, 3 deep, ⅜ in seams, in one piece: 9 + 3 + ¾ = 12¾ wide, 6 + 6 + 3 + ¾ = 15¾ long, a notch
/// of 1½ in from the side and 1⅛ up from the fold each way, where the seam across takes ⅜ of half the depth.
#[test]
fn a_pouch_in_one_piece_is_notched_at_its_fold() {
    let fields = [("style", "boxed"), ("base", "fold"), ("width", "9"), ("height", "6"), ("depth", "3")];
    let (bag, draft) = with(Family::Pouch, &fields);
    for id in ["outer-panel", "lining-panel"] {
        let piece = draft.piece(id).expect("front and back in one");
        assert_eq!((piece.size(), piece.count), ((Length::inches(51, 4), Length::inches(63, 4)), 1));
        assert!(
            matches!(&piece.figure, Figure::CutAtFold { across, up }
                if (across.size, up.size) == (Length::inches(3, 2), Length::inches(9, 8))),
            "{:?}",
            piece.figure
        );
    }
    assert!(bag.seams(Ruler::Eighth).iter().any(|s| s.name == "across the corner"));
    assert!(draft.notices.iter().any(|n| n.field.as_deref() == Some("base") && n.text.contains("upside down")));
}

/// Worked out by hand: 6 in wide and 5 tall, half-round: π · 3 + 2 · 2 = 13.42 in round the curve, whatever the base seam of
/// the style before was.
#[test]
fn a_gusset_is_as_long_as_the_face_it_goes_round() {
    let fields = [("seam_base", "3/4"), ("style", "half-round"), ("width", "6"), ("height", "5"), ("seam_side", "3/8")];
    let (bag, draft) = with(Family::Pouch, &fields);
    let seam = bag.seams(Ruler::Eighth).into_iter().find(|s| s.name == "round the curve").expect("a curve");
    let [face, gusset] = seam.lengths(&draft).expect("both");
    assert!((face.in_units(System::Inches) - 13.42).abs() < 0.01, "{face:?}");
    assert!(gusset >= face && gusset < face + Length::inches(1, 8), "{gusset:?}");
}

/// Worked out by hand: a caddy 10 × 5 in at the base with ½ in side and ¼ in base seams has a base of 10½ × 5½.
#[test]
fn a_base_is_sewn_in_by_its_own_seam() {
    let fields = [("width", "10"), ("depth", "5"), ("seam_side", "1/2"), ("seam_base", "1/4")];
    let (_, draft) = with(Family::Caddy, &fields);
    assert_eq!(draft.piece("base").expect("a base").size(), (Length::inches(21, 2), Length::inches(11, 2)));
}

/// The check bites: an edge that is half an inch too long is found.
#[test]
fn a_seam_that_does_not_meet_is_told() {
    let (_, draft) = with(Family::CrossBody, &[]);
    let side = Length::inches(3, 8);
    let right = Stretch::new("upper", Edge::Base, side, side * 2);
    let wrong = Stretch::new("base", Edge::Top, side, side * 2 + Length::inches(1, 2));
    assert!(unequal(&Seam::like("right", "outer", right.clone()), &draft, Ruler::Eighth).is_none());
    assert!(unequal(&Seam::new("wrong", "outer", right, wrong), &draft, Ruler::Eighth).is_some());
}

//! The boxed tote: check values of common practice, and the finished size computed back from the pieces.
#![allow(missing_docs)]

use crate::support;

use bofta_core::bag::boxing::{self, Boxing, Square};
use bofta_core::bag::pocket::PocketChoice;
use bofta_core::bag::{
    BackingChoice, BackingSchool, Bag, BaseJoin, Body, Design, LiningFit, Mouth, MouthFinish, StrapEnds, Tote, hem,
    strap,
};
use bofta_core::measure::{Length, Ruler, System};
use bofta_core::piece::{Figure, From, Mark, Part, Piece, Term};
use proptest::prelude::*;
use rstest::rstest;

fn inch(n: i64, d: i64) -> Length {
    Length::inches(n, d)
}

fn tote() -> Tote {
    Tote::default_for(System::Inches)
}

fn piece(tote: &Tote, id: &str) -> Piece {
    let draft = tote.draft(Ruler::Eighth).expect("a sound tote");
    draft.pieces.into_iter().find(|p| p.id == id).expect("the piece")
}

/// Common practice: squares cut out give twice their side in depth when the seams are equal.
#[rstest]
#[case(inch(2, 1), inch(4, 1))]
#[case(inch(3, 2), inch(3, 1))]
#[case(inch(7, 2), inch(7, 1))]
fn squares_cut_out(#[case] square: Length, #[case] depth: Length) {
    let seam = inch(1, 2);
    assert_eq!(boxing::depth_of_square(square, Square::CutFromRawEdges, seam, seam), depth);
    // Drafted for that depth, the panel has the same squares out of its corners.
    match piece(&Tote { depth, ..tote() }, "outer-panel").figure {
        Figure::CutOut { across, up } => assert_eq!((across.size, up.size), (square, square)),
        _ => panic!("corners are cut out"),
    }
}

/// Common practice: sewn across 3¼ in gives 3¼ in, 6 cm gives 6 cm, 4 in gives 4 in, half of it from the tip.
#[rstest]
#[case(inch(13, 4))]
#[case(Length::CENTIMETRE * 6)]
#[case(inch(4, 1))]
fn sewn_across(#[case] depth: Length) {
    assert_eq!(boxing::across(depth), (depth, depth / 2));
}

/// Common practice: a 1 in square with ⅜ in seams, drawn three ways.
#[test]
fn three_ways_to_draw_a_square() {
    let (square, seam) = (Length::INCH, inch(3, 8));
    assert_eq!(boxing::depth_of_square(square, Square::CutFromRawEdges, seam, seam), inch(2, 1));
    assert_eq!(boxing::depth_of_square(square, Square::SewnFromSeamLines, seam, seam), inch(2, 1));
    assert_eq!(boxing::depth_of_square(square, Square::SewnFromRawEdges, seam, seam), inch(5, 4));
}

/// Common practice: 1 + 3 cm turns land at 2 and 7 cm.
#[test]
fn hem_lines_land() {
    let cm = |n| Length::CENTIMETRE * n;
    assert_eq!(hem::landing_lines(cm(1), cm(3)), (cm(2), cm(7)));
}

/// Common practice: 6 in cut is a 1½ in strap, 5 a 1¼.
#[rstest]
#[case(inch(3, 2), inch(6, 1))]
#[case(inch(5, 4), inch(5, 1))]
fn straps_folded_in_four(#[case] finished: Length, #[case] cut: Length) {
    let tote = Tote { strap_width: finished, ..tote() };
    assert_eq!(piece(&tote, "strap").width.size, cut);
}

/// Common practice: a 24 in strap tucked in 1½ in at each end, 7¼ in apart, drops 9.9 in.
#[test]
fn a_strap_drops() {
    let drop = strap::drop(inch(21, 1), inch(29, 4)).expect("it spans");
    assert!((drop.in_units(System::Inches) - 9.9).abs() < 0.05, "{drop:?}");
    assert_eq!(strap::drop(inch(7, 1), inch(8, 1)), None);
}

/// Two panels for a tote 12 wide, 12 tall, 4 deep with ½ in seams: (12 + 4 + 1) × (12 + 2 + ½ + ½).
#[test]
fn panels_follow_the_rule() {
    let tote = Tote { width: inch(12, 1), height: inch(12, 1), depth: inch(4, 1), ..tote() };
    let outer = piece(&tote, "outer-panel");
    assert_eq!((outer.width.size, outer.height.size, outer.count), (inch(17, 1), inch(15, 1), 2));
    assert_eq!(outer.size(), piece(&tote, "lining-panel").size());
    match outer.figure {
        Figure::CutOut { across, up } => assert_eq!((across.size, up.size), (inch(2, 1), inch(2, 1))),
        _ => panic!("corners are cut out"),
    }
    // The slip pocket is doubled: 2 × 6 + 2 × ½ tall.
    assert_eq!(piece(&tote, "slip-pocket").size(), (inch(8, 1), inch(13, 1)));
}

fn hemmed(mouth: MouthFinish) -> Tote {
    Tote { mouth: MouthFinish { kind: Mouth::DoubleHem, ..mouth }, ..tote() }
}

#[test]
fn the_mouth_decides_outer_and_lining_together() {
    let hemmed = hemmed(tote().mouth);
    let through = piece(&tote(), "outer-panel").height.size;
    assert_eq!(
        piece(&hemmed, "outer-panel").height.size,
        through - hemmed.mouth.seam + hemmed.mouth.hem_turn + hemmed.mouth.hem_depth
    );
    // Under the hem the lining ends at the finished mouth.
    assert_eq!(piece(&hemmed, "lining-panel").height.size, through - hemmed.mouth.seam);
}

fn backed(school: BackingSchool) -> Tote {
    Tote { backing: BackingChoice { school, ..tote().backing }, ..tote() }
}

#[test]
fn fleece_lies_clear_of_the_seams_or_fills_them() {
    let clear = backed(BackingSchool::ClearOfSeams);
    assert_eq!(piece(&clear, "fleece-panel").size(), (clear.width + clear.depth, clear.height + clear.depth / 2));
    let full = backed(BackingSchool::FullSize);
    assert_eq!(piece(&full, "fleece-panel").size(), piece(&full, "outer-panel").size());
}

#[test]
fn both_boxing_schools_are_the_same_bag_from_different_pieces() {
    let cut = piece(&tote(), "outer-panel");
    let across = piece(&Tote { boxing: Boxing::SewnAcross, ..tote() }, "outer-panel");
    assert_eq!(cut.size(), across.size());
    assert!(matches!(cut.figure, Figure::CutOut { .. }));
    assert!(matches!(across.figure, Figure::Rectangle) && !across.marks.is_empty());
}

#[rstest]
#[case("width", Tote { width: Length::ZERO, ..tote() })]
#[case("height", Tote { height: inch(-3, 1), ..tote() })]
#[case("height", Tote { height: Length::METRE * 21, ..tote() })]
#[case("depth", Tote { depth: inch(29, 2), ..tote() })]
#[case("seam_side", Tote { seam_side: inch(7, 1), ..tote() })]
#[case("seam_side", Tote { seam_side: Length::ZERO, ..tote() })]
#[case("seam_base", Tote { seam_base: inch(13, 1), ..tote() })]
#[case("seam_boxing", Tote { seam_boxing: inch(2, 1), ..tote() })]
#[case("hem_depth", hemmed(MouthFinish { hem_depth: inch(13, 1), ..tote().mouth }))]
#[case("mouth", Tote { lining: LiningFit::None, ..tote() })]
#[case("strap_width", Tote { strap_width: inch(8, 1), ..tote() })]
#[case("strap_inset", Tote { strap_inset: inch(7, 1), ..tote() })]
#[case("strap_length", Tote { strap_length: inch(5, 1), ..tote() })]
#[case("pocket_width", Tote { pocket: PocketChoice { width: inch(15, 1), ..tote().pocket }, ..tote() })]
#[case("pocket_height", Tote { pocket: PocketChoice { height: inch(14, 1), ..tote().pocket }, ..tote() })]
#[case("pocket_below", Tote { pocket: PocketChoice { below: inch(13, 1), ..tote().pocket }, ..tote() })]
fn a_field_that_cannot_stand_is_named(#[case] field: &str, #[case] tote: Tote) {
    let problems = tote.draft(Ruler::Eighth).expect_err("it cannot stand");
    assert!(problems.iter().any(|p| p.field == field), "{problems:?}");
    for p in &problems {
        assert!(p.message.ends_with('.') && support::says_its_value(p), "{p:?}");
    }
}

#[test]
fn notices_see_the_usual_surprises() {
    let about = |tote: &Tote, field: &str| {
        let draft = tote.draft(Ruler::Eighth).expect("a sound tote");
        draft
            .notices
            .iter()
            .any(|n| n.field.as_deref() == Some(field) && n.severity == bofta_core::bag::Severity::Attention)
    };
    assert!(!about(&tote(), "depth") && !about(&tote(), "pocket_height"));
    assert!(about(&Tote { depth: inch(15, 2), ..tote() }, "depth"), "deeper than half the width");
    assert!(
        about(&Tote { pocket: PocketChoice { height: inch(12, 1), ..tote().pocket }, ..tote() }, "pocket_height"),
        "pocket runs into the boxing"
    );
    assert!(about(&Tote { strap_length: inch(17, 1), ..tote() }, "strap_length"), "neither hand nor shoulder");
}

/// By hand: 12 tall, 4 deep, turned through with ½ in: 12 + 12 + 4 + 1 = 29; the folds of the base 12½ from either end,
/// 4 in apart, and the panel 14 + 4 + 1 = 19 wide as any boxed one. Common practice of paper bags.
#[test]
fn a_base_folded_in_stands_as_deep_as_its_folds_are_apart() {
    let tote = Tote {
        width: inch(14, 1),
        height: inch(12, 1),
        depth: inch(4, 1),
        base: BaseJoin::Fold,
        boxing: Boxing::FoldedIn,
        ..tote()
    };
    let panel = piece(&tote, "outer-panel");
    assert_eq!((panel.size(), panel.count), ((inch(19, 1), inch(29, 1)), 1));
    let folds: Vec<_> = panel.marks.iter().filter(|m| m.boxes).map(|m| (m.distance, m.from)).collect();
    assert_eq!(folds, [(inch(25, 2), From::TopEdge), (inch(25, 2), From::BaseEdge)]);
    assert_eq!(panel.figure, Figure::Rectangle);

    let split = Tote { base: BaseJoin::Seam, ..tote };
    let problems = split.draft(Ruler::Eighth).expect_err("two panels have no base to fold in");
    assert!(problems.iter().any(|p| p.field == "boxing" && p.message.contains("in one piece")), "{problems:?}");
}

/// Any sound tote on a ruler of either system, at odd sizes between its lines too.
fn any_tote() -> impl Strategy<Value = (Tote, Ruler)> {
    let sizes = (80_i64..480, 60_i64..480, 16_i64..80, 2_i64..10, 2_i64..10, 2_i64..7);
    let options = (0..4_usize, any::<bool>(), 0..3_usize, any::<bool>(), 0..3_usize, 0..4_usize, 0_i64..100);
    (sizes, options).prop_map(|((w, h, d, s, b, x), (boxing, hem, lining, outside, backing, ruler, odd))| {
        let ruler = [Ruler::Eighth, Ruler::Sixteenth, Ruler::Millimetre, Ruler::HalfCentimetre][ruler];
        let base = Tote::default_for(ruler.system());
        let eighths = |n: i64| inch(n, 8);
        let tote = Tote {
            width: eighths(w) + Length(odd * 37),
            height: eighths(h) + Length(odd * 11),
            depth: eighths(d) + Length(odd * 5),
            seam_side: eighths(s),
            seam_base: eighths(b),
            seam_boxing: eighths(x),
            boxing: [Boxing::CutOut, Boxing::SeamLines, Boxing::SewnAcross, Boxing::FoldedIn][boxing],
            base: if boxing == 3 { BaseJoin::Fold } else { base.base },
            mouth: MouthFinish { kind: if hem { Mouth::DoubleHem } else { Mouth::TurnedThrough }, ..base.mouth },
            lining: [LiningFit::Same, LiningFit::Smaller, LiningFit::None][if hem { lining } else { lining % 2 }],
            strap_ends: if outside { StrapEnds::Outside } else { StrapEnds::InMouth },
            backing: BackingChoice {
                school: [BackingSchool::None, BackingSchool::FullSize, BackingSchool::ClearOfSeams][backing],
                ..base.backing
            },
            // Long enough to span any bag, so that nearly every one is drafted.
            strap_length: eighths(2 * w),
            pocket: PocketChoice { width: eighths(w / 2), height: eighths(h / 2), below: eighths(8), ..base.pocket },
            ..base
        };
        (tote, ruler)
    })
}

proptest! {
    #[test]
    fn every_reason_adds_up_and_rounding_goes_up((tote, ruler) in any_tote()) {
        // Odd sizes may leave too little room for the usual straps; that is refused by name, not drafted.
        let Ok(draft) = tote.draft(ruler) else { return Ok(()) };
        for p in &draft.pieces {
            for dimension in [&p.width, &p.height] {
                prop_assert_eq!(dimension.terms.iter().map(Term::value).sum::<Length>(), dimension.size);
                prop_assert!(dimension.size.is_multiple_of(ruler.step()));
                prop_assert!(dimension.rounding() >= Length::ZERO && dimension.rounding() < ruler.step());
            }
        }
    }

    /// Taking seams, boxing and mouth off the cut panel gives back the finished size, or more by the rounding.
    #[test]
    fn the_finished_size_comes_back((tote, ruler) in any_tote()) {
        let Ok(draft) = tote.draft(ruler) else { return Ok(()) };
        let outer = draft.pieces.iter().find(|p| p.part == Part::Outer).expect("an outer");
        let mouth = match tote.mouth.kind {
            Mouth::DoubleHem => tote.mouth.hem_turn + tote.mouth.hem_depth,
            _ => tote.mouth.seam,
        };
        let around = outer.width.size - tote.seam_side * 2;
        let height = match tote.base {
            BaseJoin::Seam => outer.height.size - mouth - tote.seam_base - tote.depth / 2,
            BaseJoin::Fold => (outer.height.size - mouth * 2 - tote.depth) / 2,
        };
        let over = |found: Length, wanted: Length| found >= wanted && found - wanted < ruler.step();
        prop_assert!(over(around - tote.depth, tote.width));
        prop_assert!(over(height, tote.height));
        if let Figure::CutOut { across, up } = &outer.figure {
            // What the notch leaves of side and base seam are of one length, or the corner cannot be closed.
            let along_base = across.size + tote.seam_boxing - tote.seam_side;
            let along_side = up.size + tote.seam_boxing - tote.seam_base;
            prop_assert!(over(along_base, tote.depth / 2) && over(along_side, tote.depth / 2));
        }
    }

    #[test]
    fn lining_and_outer_meet_at_the_mouth((tote, ruler) in any_tote()) {
        let Ok(draft) = tote.draft(ruler) else { return Ok(()) };
        let size = |part| draft.pieces.iter().find(|p| p.part == part).map(|p| p.width.size);
        let (Some(outer), Some(lining)) = (size(Part::Outer), size(Part::Lining)) else { return Ok(()) };
        let ease = if tote.lining == LiningFit::Smaller { Length::INCH / 4 + ruler.step() } else { Length::ZERO };
        prop_assert!(lining <= outer && outer - lining <= ease);
    }

    /// Whatever the sizes, drafting ends in pieces or in named fields.
    #[test]
    fn drafting_never_fails_badly(sizes in prop::array::uniform15(-2_000_000_i64..170_000_000)) {
        let l = |i: usize| Length(sizes[i]);
        let tote = Tote {
            width: l(0), height: l(1), depth: l(2), seam_side: l(3), seam_base: l(4), seam_boxing: l(5),
            mouth: MouthFinish { seam: l(6), hem_turn: l(7), hem_depth: l(8), ..tote().mouth }, strap_width: l(9), strap_length: l(10), strap_inset: l(11),
            pocket: PocketChoice { width: l(12), height: l(13), below: l(14), ..tote().pocket }, ..tote()
        };
        match tote.draft(Ruler::Eighth) {
            Ok(draft) => prop_assert!(draft.pieces.iter().all(|p| p.width.size > Length::ZERO && p.height.size > Length::ZERO)),
            Err(problems) => prop_assert!(!problems.is_empty()),
        }
    }
}

/// Neither side of a reversible bag is hidden: no gap in its lining, no hem, straps in the mouth.
#[test]
fn a_reversible_tote_has_no_hidden_side() {
    let system = System::Inches;
    let mut bag = Bag::from(Body::Tote(Tote { strap_ends: StrapEnds::Outside, ..hemmed(tote().mouth) }));
    bag.set("lining", "reversible", system).expect("a choice");
    let Body::Tote(made) = &bag.body else { panic!("a tote") };
    assert_eq!((made.mouth.kind, made.strap_ends), (Mouth::TurnedThrough, StrapEnds::InMouth));
    let draft = bag.draft(Ruler::Eighth).expect("drafts");
    let sizes = |id: &str| draft.piece(id).expect("a panel").size();
    assert_eq!(sizes("outer-panel"), sizes("lining-panel"));
    let marks = &draft.piece("lining-panel").expect("a lining").marks;
    let gaps: Vec<&Mark> = marks.iter().filter(|m| m.name.contains("turning gap")).collect();
    assert!(gaps.len() == 1 && gaps[0].name.contains("in the mouth"), "{gaps:?}");
    // Another mouth makes it an ordinary lining again; asked for together they are refused.
    bag.set("mouth", "facing-zip", system).expect("a choice");
    assert!(matches!(&bag.body, Body::Tote(t) if t.lining == LiningFit::Same));
    let both = Tote { lining: LiningFit::Reversible, ..hemmed(tote().mouth) };
    assert_eq!(both.draft(Ruler::Eighth).expect_err("refused")[0].field, "lining");
}

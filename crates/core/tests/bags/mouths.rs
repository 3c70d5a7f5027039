//! Every mouth on the bags that have one: the finished size comes back, outer and lining end where they should, and what
//! the mouth itself is made of goes round it.
#![allow(missing_docs)]

use bofta_core::bag::{Bag, Draft, Family, Mouth};
use bofta_core::measure::{Length, Ruler, System};
use bofta_core::piece::{Part, Piece};
use proptest::prelude::*;
use rstest::rstest;

const MOUTHS: [&str; 8] =
    ["turned-through", "double-hem", "facing-zip", "dropped-in", "bound", "band", "facing", "zip-band"];

fn inch(n: i64, d: i64) -> Length {
    Length::inches(n, d)
}

fn with(family: Family, fields: &[(&str, &str)]) -> Bag {
    let mut bag = family.default_for(System::Inches);
    for (key, value) in fields {
        bag.set(key, value, System::Inches).unwrap_or_else(|p| panic!("{key} {value}: {p}"));
    }
    bag
}

fn drafted(bag: &Bag) -> Draft {
    bag.draft(Ruler::Eighth).unwrap_or_else(|p| panic!("{p:?}"))
}

fn piece(draft: &Draft, id: &str) -> Piece {
    draft.piece(id).unwrap_or_else(|| panic!("there is a {id}")).clone()
}

#[test]
fn every_mouth_there_is_is_tried() {
    assert_eq!(MOUTHS.len(), Mouth::ALL.len());
}

/// Common practice, each worked out by hand for a bag 13 tall of 4 deep with ½ in seams: panel above H + D/2 + b = 15½,
/// lining above the same.
#[rstest]
#[case("turned-through", inch(1, 2), inch(1, 2))]
#[case("double-hem", inch(2, 1), Length::ZERO)]
#[case("facing-zip", inch(1, 2), inch(-2, 1))]
#[case("dropped-in", inch(3, 4), inch(3, 4))]
#[case("bound", Length::ZERO, Length::ZERO)]
#[case("facing", inch(1, 2), inch(1, 2))]
#[case("zip-band", inch(1, 2), inch(1, 2))]
#[case("band", inch(-3, 2), inch(-3, 2))]
fn what_the_mouth_takes(#[case] mouth: &str, #[case] outer: Length, #[case] lining: Length) {
    let sizes = [("height", "13"), ("depth", "4"), ("seam_base", "1/2"), ("seam_top", "1/2"), ("mouth", mouth)];
    let fields = [("hem_turn", "1/2"), ("hem_depth", "1 1/2"), ("facing_depth", "2 1/2"), ("turned_in", "3/4")];
    let draft = drafted(&with(Family::Tote, &[&sizes[..], &fields[..], &[("band_depth", "2")]].concat()));
    let plain = inch(31, 2);
    assert_eq!(piece(&draft, "outer-panel").height.size, plain + outer);
    // Dropped in it ends 1/16 in below the edge, which the ruler of eighths rounds up again.
    assert_eq!(piece(&draft, "lining-panel").height.size, plain + lining);
}

#[test]
fn a_lining_dropped_in_ends_below_the_edge() {
    let bag = with(Family::Tote, &[("mouth", "dropped-in")]);
    let draft = bag.draft(Ruler::Sixteenth).expect("drafts");
    let short = piece(&draft, "outer-panel").height.size - piece(&draft, "lining-panel").height.size;
    assert!(short == Length::inches(1, 16) || short == Length::ZERO, "{short:?}");
    let exact: Length = piece(&draft, "lining-panel")
        .height
        .terms
        .iter()
        .filter(|t| t.field.as_deref() == Some("mouth"))
        .map(|t| t.value())
        .sum();
    assert_eq!(exact, Length::MILLIMETRE * -3 / 2);
}

#[test]
fn what_closes_a_mouth_goes_round_it() {
    for (family, walls) in [(Family::Tote, 1), (Family::Caddy, 2)] {
        let sizes = [("width", "12"), ("depth", "5"), ("height", "10")];
        let of = |mouth: &str| drafted(&with(family, &[&sizes[..], &[("mouth", mouth)]].concat()));
        let bound = of("bound");
        // Round the mouth and 10 in to join on the bias (common practice).
        assert_eq!(piece(&bound, "binding").height.size, inch(44, 1));
        let band = of("band");
        let bands: Vec<&Piece> = band.pieces.iter().filter(|p| p.id.starts_with("band")).collect();
        assert_eq!(bands.len(), walls);
        let panels = if walls == 1 { ["outer-panel", ""] } else { ["front", "side"] };
        for (band_piece, panel) in bands.iter().zip(panels) {
            let wall = piece(&band, panel);
            assert_eq!((band_piece.width.size, band_piece.count), (wall.width.size, wall.count));
            // Doubled, and a seam at each edge.
            let seam = if walls == 1 { inch(1, 2) } else { inch(3, 8) };
            assert_eq!(band_piece.height.size, inch(4, 1) + seam * 2);
        }
        let faced = of("facing-zip");
        assert!(faced.hardware.iter().any(|h| h.name == "Zip"));
        assert_eq!(faced.pieces.iter().filter(|p| p.id.starts_with("facing")).count(), walls);
    }
}

/// What nothing closes without a lining is refused without one; the others are not.
#[rstest]
#[case("turned-through", false)]
#[case("double-hem", true)]
#[case("facing-zip", false)]
#[case("dropped-in", false)]
#[case("bound", true)]
#[case("band", true)]
fn a_mouth_without_a_lining(#[case] mouth: &str, #[case] stands: bool) {
    let mut bag = with(Family::Tote, &[("mouth", mouth)]);
    bag.set("lining", "none", System::Inches).expect("a choice");
    // The one choice brings the other along: a mouth that needs a lining becomes a hem.
    assert_eq!(bag.answer("mouth") == Some(mouth), stands);
    let draft = drafted(&bag);
    assert!(draft.pieces.iter().all(|p| p.part != Part::Lining));
    assert!(draft.steps.iter().all(|s| !s.text.to_lowercase().contains("lining")), "{:?}", draft.steps);
}

/// Only a gap that is needed is marked.
#[test]
fn only_what_is_turned_has_a_gap() {
    for mouth in MOUTHS {
        let draft = drafted(&with(Family::Tote, &[("mouth", mouth)]));
        let gap = piece(&draft, "lining-panel").marks.iter().any(|m| m.name.contains("turning gap"));
        assert_eq!(gap, matches!(mouth, "turned-through" | "facing-zip"), "{mouth}");
    }
    // Bound or banded, a reversible bag shows no gap either.
    for mouth in ["bound", "band"] {
        let bag = with(Family::Tote, &[("mouth", mouth), ("lining", "reversible")]);
        assert_eq!(bag.answer("mouth"), Some(mouth));
        assert!(piece(&drafted(&bag), "lining-panel").marks.iter().all(|m| !m.name.contains("turning gap")));
    }
}

#[rstest]
#[case("dropped-in", "turned_in", "9")]
#[case("band", "band_depth", "8")]
#[case("bound", "binding_width", "0")]
#[case("facing-zip", "facing_depth", "1/4")]
fn a_size_that_cannot_stand_is_named(#[case] mouth: &str, #[case] field: &str, #[case] value: &str) {
    for family in [Family::Tote, Family::Caddy] {
        let bag = with(family, &[("mouth", mouth), (field, value)]);
        let problems = bag.draft(Ruler::Eighth).expect_err("refused");
        assert_eq!(problems[0].field, field, "{problems:?}");
    }
}

proptest! {
    /// Whatever the mouth, the finished height comes back, and outer and lining are as tall when they are closed.
    #[test]
    fn the_finished_height_comes_back(
        mouth in 0..MOUTHS.len(),
        caddy in any::<bool>(),
        height in 64_i64..200,
        top in 2_i64..9,
        deep in 6_i64..20,
    ) {
        let family = if caddy { Family::Caddy } else { Family::Tote };
        let typed = |eighths: i64| format!("{eighths}/8");
        let (h, t, d) = (typed(height), typed(top), typed(deep));
        let fields = [
            ("height", h.as_str()), ("mouth", MOUTHS[mouth]), ("seam_top", &t), ("hem_turn", &t), ("hem_depth", &d),
            ("facing_depth", &d), ("turned_in", &t), ("band_depth", &d), ("binding_width", &t),
        ];
        let bag = with(family, &fields);
        let Ok(draft) = bag.draft(Ruler::Sixteenth) else { return Ok(()) };
        let tall = bag.finished_from_cut(&draft).into_iter().find(|f| f.name == "tall").expect("a height");
        prop_assert!(tall.back >= tall.asked && tall.back - tall.asked < Ruler::Sixteenth.step() * 2, "{tall:?}");
        let id = if caddy { ("front", "lining-front") } else { ("outer-panel", "lining-panel") };
        let (outer, lining) = (piece(&draft, id.0), piece(&draft, id.1));
        prop_assert_eq!(outer.width.size, lining.width.size);
        // Taking from each what the mouth takes of it leaves one height.
        let of = |n: i64| inch(n, 8);
        let (above_outer, above_lining) = match MOUTHS[mouth] {
            "turned-through" => (of(top), of(top)),
            "double-hem" => (of(top) + of(deep), Length::ZERO),
            "facing-zip" => (of(top), of(top) - of(deep)),
            "dropped-in" => (of(top), of(top) - Length::MILLIMETRE * 3 / 2),
            "bound" => (Length::ZERO, Length::ZERO),
            _ => (of(top) - of(deep), of(top) - of(deep)),
        };
        let apart = (outer.height.size - above_outer) - (lining.height.size - above_lining);
        prop_assert!(apart.0.abs() < Ruler::Sixteenth.step().0, "{apart:?}");
    }
}

/// Common practice: 1 in deeper shows as a band of ½ in.
#[test]
fn a_lining_that_shows_as_a_band() {
    let plain = with(Family::Tote, &[("mouth", "turned-through")]);
    let bag = with(Family::Tote, &[("lining", "border"), ("lining_border", "1/2")]);
    let (was, draft) = (drafted(&plain), drafted(&bag));
    let tall = |d: &Draft, id: &str| piece(d, id).height.size;
    assert_eq!(tall(&draft, "lining-panel") - tall(&draft, "outer-panel"), inch(1, 1));
    // Bottom to the top of the band it is as tall as it was asked.
    assert_eq!(tall(&was, "outer-panel") - tall(&draft, "outer-panel"), inch(1, 2));
    assert!(bag.finished_from_cut(&draft).iter().all(|f| f.back >= f.asked));
    // Another mouth has no band of lining above it.
    let mut hemmed = bag;
    hemmed.set("mouth", "double-hem", System::Inches).expect("a choice");
    assert_eq!(hemmed.answer("lining"), Some("same"));
}

/// What is added to a bag is pieces, marks, hardware and a step, and changes nothing else.
#[rstest]
#[case("closure", "ties", "tie", 2)]
#[case("closure", "button", "button-loop", 1)]
#[case("key_loop", "yes", "key-loop", 1)]
#[case("ring_tabs", "yes", "ring-tab", 2)]
fn what_is_added(#[case] field: &str, #[case] value: &str, #[case] id: &str, #[case] count: u32) {
    for family in [Family::Tote, Family::Caddy] {
        let plain = drafted(&with(family, &[]));
        let more = drafted(&with(family, &[(field, value)]));
        let added = piece(&more, id);
        assert_eq!((added.count, added.part), (count, Part::Straps));
        // Folded in four: cut four times ½ in wide.
        assert_eq!(added.width.size, inch(2, 1));
        let rest: Vec<_> = more.pieces.iter().filter(|p| p.id != id).map(|p| (p.id.clone(), p.size())).collect();
        assert_eq!(rest, plain.pieces.iter().map(|p| (p.id.clone(), p.size())).collect::<Vec<_>>());
        assert_eq!(more.steps.len(), plain.steps.len() + 1);
    }
}

#[test]
fn snap_and_label_are_marks_in_the_middle() {
    let draft = drafted(&with(Family::Tote, &[("closure", "snap"), ("label", "yes"), ("height", "12")]));
    let told = |id: &str, what: &str| {
        let piece = piece(&draft, id);
        let mark = piece.marks.iter().find(|m| m.name.starts_with(what)).unwrap_or_else(|| panic!("{what} on {id}"));
        mark.describe(Ruler::Eighth, piece.size())
    };
    assert_eq!(
        told("lining-panel", "magnetic snap"),
        "magnetic snap, its centre: in the middle, 2 from the top raw edge"
    );
    // The middle of the face, not of the cut panel: ½ in seam and half of 12.
    assert_eq!(told("outer-panel", "label"), "label, its centre: in the middle, 6½ from the top raw edge");
    assert!(draft.hardware.iter().any(|h| h.name == "Magnetic snap"));
    // A faced mouth has its zip: nothing else closes it.
    let faced = drafted(&with(Family::Tote, &[("mouth", "facing-zip"), ("closure", "snap")]));
    assert!(faced.hardware.iter().all(|h| h.name != "Magnetic snap"));
}

#[rstest]
#[case("tie_length", "1")]
#[case("tie_length", "50")]
fn ties_of_no_use_are_refused(#[case] field: &str, #[case] value: &str) {
    let bag = with(Family::Tote, &[("closure", "ties"), (field, value)]);
    assert_eq!(bag.draft(Ruler::Eighth).expect_err("refused")[0].field, field);
}

/// Common practice: panels 21 wide (16 + 4 + 2 × ½), a facing of 21 × 3 in, 2 in finished with ½ in at top and free edge; and a
/// zip of 18 in for a mouth of 20.
#[test]
fn a_facing_over_a_full_lining_and_a_zip_in_it() {
    let sizes = [("width", "16"), ("depth", "4"), ("seam_side", "1/2"), ("seam_top", "1/2"), ("facing_depth", "2")];
    let faced = with(Family::Tote, &[&sizes[..], &[("mouth", "facing"), ("turned_in", "1/2")]].concat());
    let draft = drafted(&faced);
    assert_eq!((piece(&draft, "facing").size(), piece(&draft, "facing").count), ((inch(21, 1), inch(3, 1)), 2));
    assert_eq!(piece(&draft, "lining-panel").size(), piece(&draft, "outer-panel").size());
    let zipped = with(Family::Tote, &[&sizes[..], &[("mouth", "zip-band")]].concat());
    let draft = drafted(&zipped);
    assert_eq!(draft.hardware.iter().find(|h| h.name == "Zip").and_then(|h| h.size), Some(inch(18, 1)));
}

/// Nothing is clamped: a mouth of 4 in has no room for a zip 2 in shorter, which is told by its field and stands once it is
/// typed; a zip panel of 1½ in is cut 1½ and two seams.
#[test]
fn a_short_zip_is_told_and_a_typed_one_taken() {
    let mut bag = with(Family::Tote, &[("straps", "no"), ("pocket", "no"), ("mouth", "facing-zip"), ("depth", "0")]);
    bag.set("width", "4", System::Inches).expect("read");
    let problems = bag.draft(Ruler::Eighth).expect_err("too short");
    assert!(problems.iter().any(|p| p.field == "zip_short" && p.message.contains("hardly opens")), "{problems:?}");
    for (key, value) in [("zip_short", "1"), ("zip_panel", "1 1/2"), ("seam_top", "1/4")] {
        bag.set(key, value, System::Inches).expect("read");
    }
    let draft = drafted(&bag);
    assert_eq!(draft.hardware[0].size, Some(inch(3, 1)));
    assert_eq!(piece(&draft, "zip-panel").height.size, inch(2, 1));
}

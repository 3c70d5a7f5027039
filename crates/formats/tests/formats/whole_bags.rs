//! Whole bags as files, every piece of each against sizes worked out by hand: between them they use every family and every
//! kind of part. Invented; W wide, H tall, D deep, s side, b base, t top seam.
#![allow(missing_docs)]

use bofta_core::bag::Draft;
use bofta_core::measure::System;
use bofta_core::project::Project;
use bofta_formats::read_bag;
use rstest::rstest;

fn drafted(sizes: &str) -> (Draft, System) {
    let text = format!("{{ \"format\": \"bofta-bag\", \"version\": 1, {sizes} }}");
    let read = read_bag(&text).unwrap_or_else(|e| panic!("{e}\n{text}"));
    let project = Project { bag: read.bag, made_up: read.made_up, ..Project::new(read.name, read.system) };
    (project.plan().unwrap_or_else(|p| panic!("{p:?}\n{text}")).draft, project.system)
}

/// `2 outer-panel 19 × 16`, sorted.
fn pieces(draft: &Draft, system: System) -> Vec<String> {
    let of = |p: &bofta_core::piece::Piece| {
        let (w, h) = (p.width.size.in_units(system), p.height.size.in_units(system));
        format!("{} {} {w} × {h}", p.count, p.id)
    };
    let mut all: Vec<String> = draft.pieces.iter().map(of).collect();
    all.sort();
    all
}

#[rstest]
// 14 + 4 + 1 by 13 + 2 + ½ + ½. Straps 4 × 1 by 24 + 2 × ½ + 2. Pocket 7 + 1 by 2 × 6 + 1.
#[case::lined_tote(
    r#""units": "in", "family": "tote", "sizes": { "width": 14, "height": 13, "depth": 4, "strap_length": 24, "strap_width": 1, "pocket_width": 7, "pocket_height": 6 }"#,
    &["2 outer-panel 19 × 16", "2 lining-panel 19 × 16", "2 strap 4 × 27", "1 slip-pocket 8 × 13"]
)]
// French seams of ⅝: 12 + 1¼; 14 + ½ + ½ + 1½ of hem. Straps into the hem: 24 + 2 × 1½.
#[case::unlined_hemmed_tote(
    r#""units": "in", "family": "tote", "sizes": { "width": 12, "height": 14, "depth": 0, "lining": "none", "mouth": "double-hem", "hem_turn": "1/2", "hem_depth": "1 1/2", "seam_kind": "french", "seam_side": "5/8", "strap_length": 24, "strap_width": 1 }"#,
    &["2 outer-panel 13.25 × 16.5", "2 strap 4 × 27"]
)]
// In one over the base: 12 + 3 + 1 by 2 × 10 + 3 + 2 × ½.
#[case::tote_folded_at_the_base(
    r#""units": "in", "family": "tote", "sizes": { "width": 12, "height": 10, "depth": 3, "base": "fold", "straps": false, "pocket": "no" }"#,
    &["1 outer-panel 16 × 24", "1 lining-panel 16 × 24"]
)]
// Facing over a full lining: 16 + 4 + 1 = 21; 2 + ½ + ¾.
#[case::faced_tote(
    r#""units": "in", "family": "tote", "sizes": { "width": 16, "height": 15, "depth": 4, "mouth": "facing", "facing_depth": 2, "turned_in": "3/4", "straps": false, "pocket": "no" }"#,
    &["2 outer-panel 21 × 18", "2 lining-panel 21 × 18", "2 facing 21 × 3.25"]
)]
// A band of another cloth 2 high, doubled: 2 × 2 + 2 × ½; the panels lose it and take its seam: 13 + 2 + ½ − 2 + ½ = 14.
#[case::banded_mouth(
    r#""units": "in", "family": "tote", "sizes": { "width": 14, "height": 13, "depth": 4, "mouth": "band", "band_depth": 2, "straps": false, "pocket": "no" }"#,
    &["2 outer-panel 19 × 14", "2 lining-panel 19 × 14", "2 band 19 × 5"]
)]
// 19 × 16 as above. Bound pocket 9¼ + ¾ by 7½ + ⅜, its lining the same, binding 4 × ⅜ by 10. Zip: 8 + 2 by
// 2 (5 + ½ + 1), faced by 9 × 1½. Sleeve: π × 2¾ + ½ − 4 = 5.14, + ¾ → 6; 6 + 2 × 1. Key loop 4 × ½ by 2 (4 + ½).
#[case::tote_of_pockets(
    r#""units": "in", "family": "tote", "sizes": { "width": 14, "height": 13, "depth": 4, "straps": false, "pocket": "no" },
       "parts": [
         { "part": "pocket", "make": "bound", "width": "9 1/4", "height": "7 1/2", "turn": "3/8", "binding": "3/8" },
         { "part": "pocket", "wall": "inside-back", "make": "zip", "width": 8, "height": 5, "opening": "1/2" },
         { "part": "pocket", "make": "sleeve", "wall": "left", "width": 4, "round": "2 3/4", "ease": "1/2", "turn": "3/8", "height": 6, "hem": 1 },
         { "part": "tab", "what": "key-loop", "width": "1/2", "length": 4, "turn": "1/2" } ]"#,
    &["2 outer-panel 19 × 16", "2 lining-panel 19 × 16", "1 part-1-pocket 10 × 7.875", "1 part-1-lining 10 × 7.875", "1 part-1-binding 1.5 × 10",
      "1 part-2-pocket 10 × 13", "1 part-2-facing 9 × 1.5", "1 part-3-pocket 6 × 8", "1 part-4-tab 2 × 9"]
)]
// Hemmed right across into the base seam: 19 wide; 6 + 1 + 2 + ½. Lined pocket with a flap: 6 + 1 by 5 + 1; flap 7 × 2 + 1.
#[case::pocket_right_across_and_a_flap(
    r#""units": "in", "family": "tote", "sizes": { "width": 14, "height": 13, "depth": 4, "straps": false, "pocket": "no" },
       "parts": [
         { "part": "pocket", "wall": "back", "make": "hemmed", "place": "full-width", "foot": "base-seam", "height": 6, "hem": 1 },
         { "part": "pocket", "make": "lined", "width": 6, "height": 5, "turn": "1/2", "flap": true, "flap_depth": 2, "behind": "fleece" } ]"#,
    &["2 outer-panel 19 × 16", "2 lining-panel 19 × 16", "1 part-1-pocket 19 × 9.5", "1 part-2-pocket 7 × 6", "1 part-2-lining 7 × 6",
      "1 part-2-flap 7 × 3", "1 part-2-flap-lining 7 × 3", "1 part-2-fleece 6 × 5"]
)]
// Slanting: B = 16, M = 22, L = 12, k = ¼, √(1 + k²) = 1.0308. At the mouth 22 + 1.0308 + ¼ = 23.28 → 23⅜; 13 tall. The
// band is 22 + 1 by 2 × 2 + 1; it takes 2 of the 12 and gives a seam: L = 10, k = 0.3, √ = 1.0440: 22 + 1.0440 + 0.3 → 23⅜.
#[case::slanting_tote_with_a_band(
    r#""units": "in", "family": "tote", "sizes": { "width": 12, "height": 10, "depth": 4, "rising": "slanting", "boxing": "sewn-across", "mouth_width": 22, "mouth": "band", "band_depth": 2, "straps": false, "pocket": "no" }"#,
    &["2 outer-panel 23.375 × 11", "2 lining-panel 23.375 × 11", "2 band 23 × 5"]
)]
// Three inverted pleats reaching ½ under take 3 × 4 × ½ of 16: bound, 2 × 10 + 10 long.
#[case::pleated_and_bound(
    r#""units": "in", "family": "tote", "sizes": { "width": 12, "height": 10, "depth": 4, "rising": "inverted-pleats", "pleats": 3, "pleat_depth": "1/2", "mouth": "bound", "binding_width": "1/2", "straps": false, "pocket": "no" }"#,
    &["2 outer-panel 17 × 12.5", "2 lining-panel 17 × 12.5", "1 binding 2 × 30"]
)]
// A welt of 6 with ½ in a window of ½: 8 by 2 (½ + ½); its bag 8 by 2 (4 + ½ + 1).
#[case::welt(
    r#""units": "in", "family": "tote", "sizes": { "width": 12, "height": 12, "depth": 0, "straps": false, "pocket": "no" },
       "parts": [ { "part": "pocket", "make": "welt", "width": 6, "height": 4, "opening": "1/2", "turn": "1/2" } ]"#,
    &["2 outer-panel 13 × 13", "2 lining-panel 13 × 13", "1 part-1-pocket 8 × 11", "1 part-1-welt 8 × 2"]
)]
// Bands of 3 and 6, ¼ seams, of 16: 3 + ½ + ¼; 6 + ½; 6½ + ¼. Firm ½ clear: 18 × 15; light all over it.
#[case::bands_and_backing(
    r#""units": "in", "family": "tote", "sizes": { "width": 14, "height": 13, "depth": 4, "straps": false, "pocket": "no", "lining": "none", "mouth": "bound", "binding_width": "1/2", "seam_kind": "overlocked", "seam_side": "1/2" },
       "panels": { "outer-panel": { "bands": "3, 6", "band_cloths": "outer, contrast, base", "patch_seam": "1/4", "backed": "firm", "backed_clear": "1/2", "backed_over": "light" } }"#,
    // Bound, nothing is taken at the top: 15½ tall, 3 + ¼, 6 + ½, 6½ + ¼. Binding 4 × ½ by 2 × 14 + 2 × 4 + 10.
    &["2 outer-panel 19 × 15.5", "2 outer-panel-band-1 19 × 3.25", "2 outer-panel-band-2 19 × 6.5", "2 outer-panel-band-3 19 × 6.75",
      "2 outer-panel-backed-1 18 × 14.5", "2 outer-panel-backed-2 19 × 15.5", "1 binding 2 × 46"]
)]
// 11 + 1 by 2 (14 + ¼ + 1¼).
#[case::plain_sack(
    r#""units": "in", "family": "drawstring", "sizes": { "width": 11, "height": 14, "base": "fold", "seam_side": "1/2", "hem_turn": "1/4", "casing_depth": "1 1/4" }"#,
    &["1 outer-panel 12 × 31"]
)]
// Wall π × 9 + 1 = 29.27 by 16 + ½ + 1½; circle 9 + 1.
#[case::round_sack(
    r#""units": "in", "family": "drawstring", "sizes": { "width": 9, "height": 16, "base": "round", "seam_side": "1/2", "seam_base": "1/2", "hem_turn": "1/4", "casing_depth": "1 1/4" }"#,
    &["1 outer-panel 29.375 × 18", "1 base 10 × 10"]
)]
// 9 + 3 + 1 by 12 + 1½ + 1. Casing 12 − 1 + ½ by 2 × 1 + 2 × ½. Cords 4 × ⅜ by 2 × 12 + 2 × 6.
#[case::two_way_sack(
    r#""units": "in", "family": "drawstring", "sizes": { "width": 9, "height": 12, "base": "boxed", "depth": 3, "casing": "in-seam", "lined": true, "reversible": true, "casing_depth": 1, "clearance": "1/2", "hem_turn": "1/4", "cord_of_cloth": true, "cord_width": "3/8", "cord_tail": 6 }"#,
    &["2 outer-panel 13 × 14.5", "2 lining-panel 13 × 14.5", "2 casing 11.5 × 3", "2 cord 1.5 × 36"]
)]
// 8 + ¾ by 5½ + ⅜ + ⅜; tabs 1 + ¾ square. A wrist strap 4 × ¾ by 2 (6½ + ⅜).
#[case::flat_pouch(
    r#""units": "in", "family": "pouch", "sizes": { "style": "flat", "width": 8, "height": "5 1/2" },
       "parts": [ { "part": "tab", "what": "wrist", "width": "3/4", "length": "6 1/2", "turn": "3/8" } ]"#,
    &["2 outer-panel 8.75 × 6.25", "2 lining-panel 8.75 × 6.25", "2 zip-tab 1.75 × 1.75", "1 part-1-tab 3 × 13.75"]
)]
// 8 + 2 + ¾ by 5 + 1 + ¾. A bow 7 × 4 with ½ in seams; its knot 2 by 4 + 2; a button of 1 covered by 2.
#[case::boxed_pouch_with_a_bow(
    r#""units": "in", "family": "pouch", "sizes": { "style": "boxed", "width": 8, "height": 5, "depth": 2, "zip_tabs": false },
       "parts": [ { "part": "tab", "what": "bow", "length": 7, "width": 4, "turn": "1/2", "below": 2 }, { "part": "tab", "what": "button", "width": 1, "below": 2 } ]"#,
    &["2 outer-panel 10.75 × 6.75", "2 lining-panel 10.75 × 6.75", "2 part-1-bow 8 × 5", "1 part-1-knot 2 × 6", "1 part-2-cover 2 × 2"]
)]
// Faces 6 + ¾ by 5 + ¾; gusset π × 3 + 2 × 2 + ¾ = 14.17 by 2 + ¾.
#[case::half_round_pouch(
    r#""units": "in", "family": "pouch", "sizes": { "style": "half-round", "width": 6, "height": 5, "depth": 2, "zip_tabs": false }"#,
    &["2 outer-panel 6.75 × 5.75", "1 gusset 2.75 × 14.25", "2 lining-panel 6.75 × 5.75", "1 lining-gusset 2.75 × 14.25"]
)]
// 10 + ¾, 5 + ¾ by 7 + ⅜; base 10¾ × 5¾; binding 4 × ⅜ by 2 × 15 + 10. Two ring-jointed straps 20 showing: 24; four tabs 4.
#[case::caddy_with_two_handles(
    r#""units": "in", "family": "caddy", "sizes": { "width": 10, "height": 7, "depth": 5, "binding_width": "3/8", "pocket": false, "handle": false, "backing": "none" },
       "parts": [ { "part": "strap", "runs": "front-and-back", "end": "rings", "shows": 20, "apart": 5, "width": 1 } ]"#,
    &["2 front 10.75 × 7.375", "2 side 5.75 × 7.375", "1 base 10.75 × 5.75", "2 lining-front 10.75 × 7.375", "2 lining-side 5.75 × 7.375",
      "1 lining-base 10.75 × 5.75", "1 binding 1.5 × 40", "2 part-1-strap 4 × 24", "4 part-1-tab 4 × 4"]
)]
// 20 + 1 by π × 10 − ¾ + 1 = 31.67; ends 10 + 1. A doubled pocket on the back: 8 + ¾ by 2 × 6 + ¾.
#[case::duffel(
    r#""units": "in", "family": "duffel", "sizes": { "width": 20, "height": 10, "zip_shows": "3/4", "lined": false, "pocket": false, "shoulder": 0 },
       "parts": [ { "part": "pocket", "wall": "back", "width": 8, "height": 6, "turn": "3/8", "below": 3 } ]"#,
    &["1 outer-panel 21 × 31.75", "2 end 11 × 11", "1 part-1-pocket 8.75 × 12.75"]
)]
// 10 + ¾ by 2 × 6 + 4½ + ¾.
#[case::clutch(
    r#""units": "in", "family": "clutch", "sizes": { "width": 10, "height": 6, "flap": "4 1/2", "radius": 0, "band": 0, "loop": false, "backing": "none" }"#,
    &["1 outer-panel 10.75 × 17.25", "1 lining-panel 10.75 × 17.25"]
)]
// 9 + 2 + ¾; upper 8 − 3 + ¾; base 3 + 1 + ¾; lining 8 + 1 + ¾. Strap 2 × 1 by 52 + 2 + 1½, inner ⅛ narrower; tabs 2 × 2.
#[case::cross_body(
    r#""units": "in", "family": "cross-body", "sizes": { "width": 9, "height": 8, "depth": 2, "base_height": 3, "front": "whole", "strap_length": 52, "strap_width": 1, "backing": "none" }"#,
    &["2 upper 11.75 × 5.75", "2 base 11.75 × 4.75", "2 lining-panel 11.75 × 9.75", "1 strap 2 × 55.5", "1 strap-inner 0.875 × 55.5",
      "2 tab 2 × 4", "2 tab-inner 0.875 × 4"]
)]
// Half of 20 + 1 at the mouth; 14 + ½ and ½ turned in. Straps 4 × 1 by 24 + 2 × 2.
#[case::found_tube(
    r#""units": "in", "family": "found-tube", "sizes": { "girth_top": 20, "girth_base": 16, "height": 14, "depth": 0, "seam_side": "1/2", "seam_base": "1/2", "strap_length": 24, "strap_width": 1 }"#,
    &["2 lining-panel 11 × 15", "2 strap 4 × 28"]
)]
// Bound, pocketed inside right across: 10 + 2 + 1 = 13 by 9 + 1 + ½; binding 4 × ⅜ by 2 × 12 + 10. Slip pocket doubled,
// 13 by 2 (5 + ½).
#[case::bound_with_a_pocket_right_across(
    r#""units": "in", "family": "tote", "sizes": { "width": 10, "height": 9, "depth": 2, "mouth": "bound", "binding_width": "3/8", "straps": false, "pocket": "no" },
       "parts": [ { "part": "pocket", "wall": "inside-front", "make": "doubled", "place": "full-width", "height": 5, "turn": "1/2" } ]"#,
    &["2 outer-panel 13 × 10.5", "2 lining-panel 13 × 10.5", "1 binding 1.5 × 34", "1 part-1-pocket 13 × 11"]
)]
// Smaller lining: ⅛ in less on each side and at the base. Straps in two layers, 1 + 2 × ½ each, four; 20 + 2 × (½ + 1).
#[case::smaller_lining_and_straps_of_two_layers(
    r#""units": "in", "family": "tote", "sizes": { "width": 12, "height": 12, "depth": 4, "lining": "smaller", "strap_make": "two-layers", "strap_width": 1, "strap_length": 20, "pocket": "no" }"#,
    &["2 outer-panel 17 × 15", "2 lining-panel 16.75 × 14.875", "4 strap 2 × 23"]
)]
// A band of lining ½ shows: the outer ½ shorter, the lining ½ longer.
#[case::lining_showing_as_a_band(
    r#""units": "in", "family": "tote", "sizes": { "width": 12, "height": 12, "depth": 0, "lining": "border", "lining_border": "1/2", "straps": false, "pocket": "no" }"#,
    &["2 outer-panel 13 × 12.5", "2 lining-panel 13 × 13.5"]
)]
// Reversible, gathered into a mouth of 12: panels stay 12 + 4 + 1 wide.
#[case::reversible_and_gathered(
    r#""units": "in", "family": "tote", "sizes": { "width": 12, "height": 12, "depth": 4, "lining": "reversible", "rising": "gathered", "mouth_width": 12, "straps": false, "pocket": "no" }"#,
    &["2 outer-panel 17 × 15", "2 lining-panel 17 × 15"]
)]
// Metric, in one piece over the base: 30 + 8 + 2 by 2 × 28 + 8 + 2; straps 4 × 3 by 55 + 2 × (1 + 2.5).
#[case::metric_tote_in_one_piece(
    r#""units": "cm", "family": "tote", "sizes": { "width": 30, "height": 28, "depth": 8, "base": "fold", "strap_width": 3, "strap_length": 55, "pocket": "no" }"#,
    &["1 outer-panel 40 × 66", "1 lining-panel 40 × 66", "2 strap 12 × 62"]
)]
// Rounded base corners: 10 + 1 by 13 + ½ + 1¼ + ¼.
#[case::sack_with_rounded_corners(
    r#""units": "in", "family": "drawstring", "sizes": { "width": 10, "height": 13, "base": "rounded", "seam_side": "1/2", "seam_base": "1/2", "hem_turn": "1/4", "casing_depth": "1 1/4" }"#,
    &["2 outer-panel 11 × 15"]
)]
// Metric round sack, lined, its casing in the seam: wall π × 18 + 2 = 58.55 → 58.6 by 25 + 1 + 1; casings half way round,
// 28.27 − 2 × 0.5 + 2 × 1 = 29.27 → 29.3 by 2 × 3 + 2.
#[case::metric_round_sack(
    r#""units": "cm", "family": "drawstring", "sizes": { "width": 18, "height": 25, "base": "round", "casing": "in-seam", "lined": true, "casing_depth": 3, "clearance": "0.5", "hem_turn": 1, "seam_side": 1, "seam_base": 1, "seam_top": 1 }"#,
    &["1 outer-panel 58.6 × 27", "1 base 20 × 20", "1 lining-panel 58.6 × 27", "1 lining-base 20 × 20", "2 casing 29.3 × 8"]
)]
// Boxed all round: 8 + 2 + ¾ by 4 + 2 × 1 + ⅜ + ⅜.
#[case::pouch_boxed_all_round(
    r#""units": "in", "family": "pouch", "sizes": { "style": "all-boxed", "width": 8, "height": 4, "depth": 2, "zip_tabs": false, "lined": false, "seam_kind": "plain", "seam_side": "3/8" }"#,
    &["2 outer-panel 10.75 × 6.75"]
)]
// Boxed 6 deep, 26 wide flat at the base and 30 at the zip, 17 from seam to seam: k = 4/34, √(1 + k²) = 1.0069. At the zip's raw edge
// 30 + 2 × 1.0069 + 1.4 k = 32.18; 14 + 3 + 1 + 0.7 tall. The lining 0.3 shorter: k = 4/33.4, 30 + 2 × 1.0071 + 1.4 k − 0.6 = 31.58.
#[case::metric_pouch_wider_at_its_zip(
    r#""units": "cm", "family": "pouch", "sizes": { "style": "boxed", "width": 20, "height": 14, "depth": 6, "rising": "slanting", "mouth_width": 30, "seam_side": 1, "seam_base": 1, "seam_top": "0.7", "lining_smaller": true }"#,
    &["2 outer-panel 32.2 × 18.7", "2 lining-panel 31.6 × 18.4", "2 zip-tab 4.5 × 4.5"]
)]
// Flat in one piece: 8 + ¾ by 2 × 5 + 2 × ⅜. A ring tab of 1 wide: 4 × 1 by 2 (1½ + ½).
#[case::flat_pouch_in_one_piece(
    r#""units": "in", "family": "pouch", "sizes": { "style": "flat", "base": "fold", "width": 8, "height": 5, "zip_tabs": false },
       "parts": [ { "part": "tab", "what": "loop", "width": 1, "length": "1 1/2", "turn": "1/2" } ]"#,
    &["1 outer-panel 8.75 × 10.75", "1 lining-panel 8.75 × 10.75", "1 part-1-tab 4 × 4"]
)]
// Fronts 8 + ¾ by 6 + ⅜ − 1 + ⅜: a band 1 deep, 2 × 1 + 2 × ⅜ tall, on each wall as wide as it is cut.
#[case::caddy_with_a_banded_mouth(
    r#""units": "in", "family": "caddy", "sizes": { "width": 8, "height": 6, "depth": 4, "mouth": "band", "band_depth": 1, "pocket": false, "handle": false, "backing": "none" }"#,
    &["2 front 8.75 × 5.75", "2 side 4.75 × 5.75", "1 base 8.75 × 4.75", "2 lining-front 8.75 × 5.75", "2 lining-side 4.75 × 5.75",
      "1 lining-base 8.75 × 4.75", "2 band 8.75 × 2.75", "2 band-side 4.75 × 2.75"]
)]
// A clutch with a band of 1 and a loop ½ wide: 9 + ¾; 2 × 5½ + 4 + ¾; band 1 + ¾; loop 4 × ½ by 12 + ¾.
#[case::clutch_with_band_and_loop(
    r#""units": "in", "family": "clutch", "sizes": { "width": 9, "height": "5 1/2", "flap": 4, "radius": 0, "band": 1, "loop": true, "strap_width": "1/2", "backing": "none" }"#,
    &["1 outer-panel 9.75 × 15.75", "1 lining-panel 9.75 × 15.75", "1 band 9.75 × 1.75", "1 loop 2 × 12.75"]
)]
// In centimetres: 40 + 12 + 2 by 35 + 6 + 1 + 1. The zip 10 below the mouth, 1 of it showing, 1 to it: above it 1 + 10 − ½ + 1,
// below it 43 − 11 − ½ + 1; its pocket 2 × 15 + 2. A partition 40 + 2 by 2 × 20 + 2.
#[case::metric_tote_with_a_zip_across_and_a_partition(
    r#""units": "cm", "family": "tote", "sizes": { "width": 40, "height": 35, "depth": 12, "straps": false, "pocket": "no" },
       "parts": [
         { "part": "zip", "below": 10, "shows": 1, "seam": 1, "hangs": 15 },
         { "part": "partition", "height": 20, "below": 5, "turn": 1 } ]"#,
    &["1 outer-panel 54 × 43", "2 lining-panel 54 × 43", "1 part-1-panel 54 × 43", "1 part-1-upper 54 × 11.5", "1 part-1-lower 54 × 32.5",
      "1 part-1-pocket 54 × 32", "1 part-2-partition 42 × 42"]
)]
// The curve is π × 10 / 2 + 2 × 2 = 19.71. Faces 10 + 1 by 7 + 1; zip strips (4 − ⅜) / 2 + ½ + ⅜ → 2¾ by 12 + ¾; base strip
// 4 + 1 by 10 + 19.71 − 12 + ¾ → 18½.
#[case::pouch_that_stands(
    r#""units": "in", "family": "pouch", "sizes": { "style": "standing", "width": 10, "height": 7, "depth": 4, "zip_round": 12, "zip_shows": "3/8", "seam_side": "1/2", "seam_top": "3/8", "lined": false, "seam_kind": "plain" }"#,
    &["2 outer-panel 11 × 8", "2 zip-strip 2.75 × 12.75", "1 base-strip 5 × 18.5"]
)]
// Webbing 1 wide, 6 apart: the pocket 6 across, 6 + 1 + 2 + ½ up, hemmed, into the base seam.
#[case::pocket_behind_webbing(
    r#""units": "in", "family": "tote", "sizes": { "width": 14, "height": 13, "depth": 4, "straps": false, "pocket": "no" },
       "parts": [
         { "part": "strap", "end": "base-up", "make": "webbing", "width": 1, "apart": 6, "shows": 22 },
         { "part": "pocket", "make": "hemmed", "place": "webbing", "foot": "base-seam", "height": 6, "hem": 1 } ]"#,
    &["2 outer-panel 19 × 16", "2 lining-panel 19 × 16", "1 part-2-pocket 6 × 9.5"]
)]
// The lining of 3 × 2 patches of three cloths by turns, ¼ seams: (19 + 1) / 3 → 6¾ by (16 + ½) / 2.
#[case::lining_in_patches_of_three_cloths(
    r#""units": "in", "family": "tote", "sizes": { "width": 14, "height": 13, "depth": 4, "straps": false, "pocket": "no" },
       "panels": { "lining-panel": { "front": "grid", "columns": 3, "rows": 2, "patch_seam": "1/4", "patch_cloths": "outer, lining, contrast" } }"#,
    &["2 outer-panel 19 × 16", "2 lining-panel 19 × 16", "4 lining-panel-patch-outer 6.75 × 8.25", "4 lining-panel-patch-lining 6.75 × 8.25",
      "4 lining-panel-patch-contrast 6.75 × 8.25"]
)]
// In centimetres: 36 + 10 + 2 by 34 + 5 + 1 + 1. Embroidered in front, 5 over all round: one of two is 58 × 51. A pad of
// 30 × 20 with 1 cm seams. Straps tucked 4: 60 + 8 by 4 × 2.5.
#[case::metric_tote(
    r#""units": "cm", "family": "tote", "sizes": { "width": 36, "height": 34, "depth": 10, "straps": false, "pocket": "no" },
       "parts": [
         { "part": "decoration", "width": 10, "height": 10, "below": 15, "margin": 5 },
         { "part": "piece", "name": "Pad", "count": 2, "width": 30, "height": 20, "seam": 1, "cloth": "lining" },
         { "part": "strap", "end": "tucked", "depth": 4, "shows": 60, "apart": 15, "width": "2.5" } ]"#,
    &["1 outer-panel 48 × 41", "1 part-1-panel 58 × 51", "2 lining-panel 48 × 41", "2 part-2-piece 32 × 22", "2 part-3-strap 10 × 68"]
)]
fn every_piece_of(#[case] sizes: &str, #[case] cut: &[&str]) {
    let (draft, system) = drafted(sizes);
    let mut expected: Vec<String> = cut.iter().map(|s| (*s).to_owned()).collect();
    expected.sort();
    assert_eq!(pieces(&draft, system), expected);
}

/// What is given is what is drafted, in whatever order the file has it: a bow of 5 in is not made the usual 7 by the word that
/// makes it a bow; a mouth that does not go with the lining is refused, not exchanged.
#[test]
fn nothing_that_is_given_is_lost() {
    let (draft, system) = drafted(
        r#""units": "in", "family": "tote", "sizes": { "straps": false, "pocket": "no", "seam_side": "3/4", "seam_kind": "french", "lining": "none", "mouth": "double-hem", "width": 10, "depth": 0 },
           "parts": [ { "part": "tab", "length": 5, "what": "bow", "width": 2, "turn": "1/2" } ]"#,
    );
    let all = pieces(&draft, system);
    assert!(all.iter().any(|p| p == "2 part-1-bow 6 × 3"), "{all:?}");
    assert!(all.iter().any(|p| p.starts_with("2 outer-panel 11.5 ×")), "{all:?}");
    let text = r#"{ "format": "bofta-bag", "version": 1, "units": "in", "family": "tote", "sizes": { "lining": "border", "mouth": "bound" } }"#;
    let problem = read_bag(text).expect_err("refused").to_string();
    assert!(problem.contains("sizes.lining") && problem.contains("can’t be used together"), "{problem}");
}

/// Webbing from the base up is bought by the length: 22 + 2 (13 + 2 + ½) = 53, twice; and no piece is cut for it.
#[test]
fn webbing_from_the_base_up_is_bought() {
    let (draft, system) = drafted(
        r#""units": "in", "family": "tote", "sizes": { "width": 14, "height": 13, "depth": 4, "straps": false, "pocket": "no" },
           "parts": [ { "part": "strap", "end": "base-up", "make": "webbing", "shows": 22, "apart": 6 } ]"#,
    );
    assert_eq!(pieces(&draft, system).len(), 2);
    let good = draft.goods.first().expect("webbing");
    assert_eq!((good.count, good.length.size.in_units(system)), (2, 53.0));
}

#[rstest]
#[case(r#""parts": [ { "part": "wing" } ]"#, "parts[0].part")]
#[case(r#""parts": [ { "part": "pocket" }, { "part": "pocket", "wide": 3 } ]"#, "parts[1]")]
#[case(r#""parts": [ { "part": "pocket", "wall": "lid" } ]"#, "parts[0]")]
#[case(r#""parts": [ { "part": "pocket", "width": [1] } ]"#, "parts[0].width")]
#[case(r#""parts": [ { "part": "piece", "count": 0 } ]"#, "count")]
fn a_part_that_cannot_be_read_is_named(#[case] parts: &str, #[case] field: &str) {
    let text = format!(r#"{{ "format": "bofta-bag", "version": 1, "units": "in", "family": "tote", {parts} }}"#);
    let problem = read_bag(&text).expect_err("refused").to_string();
    assert!(problem.contains(field), "{problem}");
}

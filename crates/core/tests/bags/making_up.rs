//! Any panel may be pieced or quilted, and what is measured on it changes what is still to be cut.
#![allow(missing_docs)]

use bofta_core::FieldProblem;
use bofta_core::bag::making_up::may_be_made_up;
use bofta_core::bag::piecing::joined;
use bofta_core::bag::{Bag, Draft, Family, MadeUp};
use bofta_core::measure::{Length, Ruler, System};
use bofta_core::piece::{Figure, Part, Patches, Piece, When};
use bofta_core::project::{Edit, Project};
use proptest::prelude::*;

fn inch(n: i64, d: i64) -> Length {
    Length::inches(n, d)
}

fn project(family: Family, fields: &[(&str, &str)]) -> Project {
    let mut project = Project::new("Trial", System::Inches);
    project.bag = family.default_for(System::Inches);
    for (key, value) in fields {
        project.bag.set(key, value, System::Inches).unwrap_or_else(|p| panic!("{key} {value}: {p}"));
    }
    project
}

fn made(project: &Project, edits: &[Edit]) -> Project {
    edits.iter().fold(project.clone(), |p, edit| p.edited(edit).unwrap_or_else(|e| panic!("{edit:?}: {e:?}")).0)
}

fn make_up(piece: &str, field: &str, value: &str) -> Edit {
    Edit::MakeUp { piece: piece.into(), field: field.into(), value: value.into() }
}

fn measured(piece: &str, width: &str, height: &str) -> Edit {
    Edit::Measured { piece: piece.into(), width: width.into(), height: height.into() }
}

fn draft(project: &Project) -> Draft {
    project.plan().expect("drafts").draft
}

fn piece(project: &Project, id: &str) -> Piece {
    draft(project).piece(id).unwrap_or_else(|| panic!("there is a {id}")).clone()
}

fn refused(project: &Project, edit: &Edit) -> FieldProblem {
    project.edited(edit).expect_err("refused").remove(0)
}

#[test]
fn a_lining_pieced_in_strips() {
    let plain = project(Family::Tote, &[]);
    let pieced = made(&plain, &[make_up("lining-panel", "front", "strips"), make_up("lining-panel", "columns", "5")]);
    let panel = piece(&pieced, "lining-panel");
    assert_eq!(panel.when, When::Pieced(Patches::Grid(5, 1)));
    assert_eq!(panel.size(), piece(&plain, "lining-panel").size(), "the panel stays what it is, marks and all");
    assert_eq!(panel.marks, piece(&plain, "lining-panel").marks);
    let (light, dark) = (piece(&pieced, "lining-panel-patch-light"), piece(&pieced, "lining-panel-patch-dark"));
    assert_eq!((light.part, dark.part), (Part::Contrast, Part::Lining));
    // Five strips for each of two panels.
    assert_eq!(light.count + dark.count, 10);
    let across = joined(5, light.width.size, inch(1, 4));
    assert!(across >= panel.width.size && across < panel.width.size + inch(5, 4));
    assert!(draft(&pieced).steps[0].text.starts_with("Piece lining panel"));
    // Whole again there is nothing left of it.
    let whole = made(&pieced, &[make_up("lining-panel", "front", "whole")]);
    assert!(whole.made_up.is_empty());
    assert_eq!(draft(&whole), draft(&plain));
}

#[test]
fn two_panels_made_up_differently() {
    let edits = [make_up("outer-panel", "front", "grid"), make_up("lining-panel", "quilted", "yes")];
    let both = made(&project(Family::Tote, &[]), &edits);
    assert_eq!(piece(&both, "outer-panel").when, When::Pieced(Patches::Grid(4, 4)));
    let lining = piece(&both, "lining-panel");
    assert_eq!(lining.when, When::OverAndTrimmed(Length::INCH));
    assert_eq!(lining.figure, Figure::Rectangle, "no notch before it is trimmed");
    assert!(lining.marks.iter().any(|m| m.name.contains("corner square")));
    // The finished size is what the bag is, whatever its panels are made of.
    assert!(both.plan().expect("drafts").finished.iter().all(|f| f.back >= f.asked));
}

#[test]
fn what_lies_behind_a_quilted_panel_is_quilted_with_it() {
    let fields = [("backing", "full-size"), ("backing_cloth", "fleece")];
    let quilted = made(&project(Family::Tote, &fields), &[make_up("outer-panel", "quilted", "yes")]);
    assert_eq!(piece(&quilted, "fleece-panel").size(), piece(&quilted, "outer-panel").size());
    // Clear of the seams it is what it was: it is fused after trimming.
    let fields = [("backing", "clear-of-seams"), ("backing_cloth", "interfacing")];
    let plain = project(Family::Tote, &fields);
    let quilted = made(&plain, &[make_up("outer-panel", "quilted", "yes")]);
    assert_eq!(piece(&quilted, "interfacing-panel").size(), piece(&plain, "interfacing-panel").size());
}

#[test]
fn only_panels_are_made_up() {
    let tote = project(Family::Tote, &[("backing", "full-size")]);
    for id in ["strap", "fleece-panel", "nothing"] {
        assert_eq!(refused(&tote, &make_up(id, "front", "grid")).field, "piece", "{id}");
    }
    assert_eq!(refused(&tote, &make_up("outer-panel", "colour", "red")).field, "colour");
    assert_eq!(refused(&tote, &make_up("outer-panel", "columns", "0")).field, "columns");
    let pieced = made(&tote, &[make_up("outer-panel", "front", "grid")]);
    assert_eq!(refused(&pieced, &make_up("outer-panel", "patch_seam", "4")).field, "patch_seam");
    assert_eq!(refused(&pieced, &make_up("outer-panel", "patch_seam", "0")).field, "patch_seam");
}

#[test]
fn how_panels_are_made_up_is_kept() {
    let edits = [make_up("outer-panel", "front", "triangles"), make_up("outer-panel", "columns", "6")];
    let project = made(&project(Family::Tote, &[]), &edits);
    let text = serde_json::to_string(&project).expect("writes");
    let read: Project = serde_json::from_str(&text).expect("reads");
    assert_eq!(read, project);
    assert!(serde_json::from_str::<MadeUp>(r#"{"front":"grid","colour":"red"}"#).is_err());
    // Another family has other panels.
    let other = made(&project, &[Edit::Family { family: "pouch".into() }]);
    assert!(other.made_up.is_empty());
}

/// The outer came out ¼ in narrower and ⅛ in shorter once it was quilted: lining, band and facing follow.
#[test]
fn what_is_still_to_be_cut_follows_what_was_measured() {
    let quilted = made(&project(Family::Tote, &[("mouth", "band")]), &[make_up("outer-panel", "quilted", "yes")]);
    let (width, height) = {
        let lining = piece(&quilted, "lining-panel");
        (lining.width.size, lining.height.size)
    };
    let show = |l: Length| Ruler::Eighth.show(l).text;
    let trimmed = measured("outer-panel", &show(width - inch(1, 4)), &show(height - inch(1, 8)));
    let after = made(&quilted, &[trimmed]);
    assert_eq!(piece(&after, "lining-panel").size(), (width - inch(1, 4), height - inch(1, 8)));
    assert_eq!(piece(&after, "band").width.size, width - inch(1, 4));
    assert_eq!(piece(&after, "band").height, piece(&quilted, "band").height);
    // What was cut over is cut; straps and pocket do not hang on the panel's size.
    for id in ["outer-panel", "strap", "slip-pocket"] {
        assert_eq!(piece(&after, id), piece(&quilted, id), "{id}");
    }
    let forgotten = made(&after, &[measured("outer-panel", "", "")]);
    assert_eq!(draft(&forgotten), draft(&quilted));
}

/// A binding goes twice round what the panel is once: it follows twice.
#[test]
fn a_binding_follows_the_made_edge() {
    let bound = made(&project(Family::Tote, &[("mouth", "bound")]), &[make_up("outer-panel", "quilted", "yes")]);
    let before = piece(&bound, "binding").height.size;
    let outer = piece(&bound, "lining-panel").size();
    let show = |l: Length| Ruler::Eighth.show(l).text;
    let after = made(&bound, &[measured("outer-panel", &show(outer.0 + inch(3, 8)), &show(outer.1))]);
    assert_eq!(piece(&after, "binding").height.size, before + inch(3, 4));
}

#[test]
fn what_was_cut_before_it_was_measured_stays() {
    let mut quilted = made(&project(Family::Tote, &[]), &[make_up("outer-panel", "quilted", "yes")]);
    let lining = piece(&quilted, "lining-panel");
    let show = |l: Length| Ruler::Eighth.show(l).text;
    quilted =
        made(&quilted, &[measured("outer-panel", &show(lining.width.size - inch(1, 2)), &show(lining.height.size))]);
    assert_ne!(piece(&quilted, "lining-panel").size(), lining.size());
    quilted.measured.get_mut("outer-panel").expect("measured").cut_before.insert("lining-panel".into());
    assert_eq!(piece(&quilted, "lining-panel").size(), lining.size());
    // Begun again, all is cut anew.
    let again = made(&quilted, &[Edit::StepsDone { count: 0 }]);
    assert_ne!(piece(&again, "lining-panel").size(), lining.size());
    assert_eq!(refused(&quilted, &measured("strap", "4", "20")).field, "piece", "a strap is as it is cut");
    assert_eq!(refused(&quilted, &measured("outer-panel", "0", "20")).field, "width");
}

/// Rows of a list move up when one above is taken out, and what is kept of them moves with them.
#[test]
fn rows_that_move_up_keep_how_they_are_made_up() {
    let row = |name: &str| bofta_core::bag::Row::new(name, Part::Outer, 1, inch(10, 1), inch(12, 1));
    let list = Edit::Rows { rows: vec![row("First"), row("Second"), row("Third")], bought: vec![] };
    let project = made(&project(Family::Tote, &[]), &[list, make_up("row-3", "front", "grid")]);
    let remove = |row| Edit::Row { row, field: bofta_core::project::RowField::Remove, value: String::new() };
    let moved = made(&project, &[remove(0)]);
    assert_eq!(moved.made_up.keys().collect::<Vec<_>>(), ["row-2"]);
    assert_eq!(piece(&moved, "row-2").name, "Third");
    assert!(made(&project, &[remove(2)]).made_up.is_empty());
}

fn any_family() -> impl Strategy<Value = Bag> {
    let families: Vec<Family> = Family::ALL.iter().copied().filter(|f| *f != Family::CutList).collect();
    (0..families.len(), any::<bool>())
        .prop_map(move |(n, metric)| families[n].default_for(if metric { System::Centimetres } else { System::Inches }))
}

proptest! {
    /// Whatever panel of whatever bag is pieced in a grid, its patches join to at least the panel, and to less than two
    /// lines of the ruler over for every patch; nothing else changes.
    #[test]
    fn patches_cover_any_panel(bag in any_family(), which in 0..20_usize, columns in 1_u32..7, rows in 1_u32..7) {
        let system = if bag == bag.family().default_for(System::Inches) { System::Inches } else { System::Centimetres };
        let ruler = Ruler::default_for(system);
        let whole = bag.draft(ruler).expect("usual sizes stand");
        let panels: Vec<&Piece> = whole.pieces.iter().filter(|p| may_be_made_up(p)).collect();
        prop_assume!(!panels.is_empty());
        let panel = panels[which % panels.len()];
        let mut up = MadeUp::plain(system);
        for (key, value) in [("front", "grid".to_owned()), ("columns", columns.to_string()), ("rows", rows.to_string())] {
            up.set(key, &value, system).expect("a field");
        }
        let mut pieced = whole.clone();
        if up.apply(&mut pieced, &panel.id, &[], ruler).is_err() {
            return Ok(());
        }
        let patches: Vec<&Piece> = pieced.pieces.iter().filter(|p| p.id.starts_with(&format!("{}-patch", panel.id))).collect();
        prop_assert_eq!(patches.iter().map(|p| p.count).sum::<u32>(), columns * rows * panel.count);
        let seam = up.patchwork.seam;
        let (across, up_) = (joined(columns, patches[0].width.size, seam), joined(rows, patches[0].height.size, seam));
        let most = |n: u32| ruler.step() * 2 * i64::from(n);
        prop_assert!(across >= panel.width.size && across - panel.width.size < most(columns));
        prop_assert!(up_ >= panel.height.size && up_ - panel.height.size < most(rows));
        let others = |d: &Draft| d.pieces.iter().filter(|p| !p.id.starts_with(panel.id.as_ref())).cloned().collect::<Vec<_>>();
        prop_assert_eq!(others(&pieced), others(&whole));
    }

    /// What follows from a measure is what a bag drafted that much wider and taller would have: the one worked out from
    /// the reasons, the other from the rules.
    #[test]
    fn following_a_measure_is_drafting_the_bag_that_came_out(
        mouth in 0..5_usize, caddy in any::<bool>(), quarters in (24_i64..80, 24_i64..80, 8_i64..20), off in (-6_i64..6, -6_i64..6),
    ) {
        let typed = |eighths: i64| format!("{eighths}/8");
        // Even eighths, so that no half of them needs rounding.
        let (w, h, d) = (quarters.0 * 2, quarters.1 * 2, quarters.2 * 4);
        let mouths = ["turned-through", "double-hem", "dropped-in", "bound", "band"];
        let (family, panel) = if caddy { (Family::Caddy, "front") } else { (Family::Tote, "outer-panel") };
        let bag = |w: i64, h: i64| {
            let (w, h, d) = (typed(w), typed(h), typed(d));
            let sizes = [("width", w.as_str()), ("height", h.as_str()), ("depth", d.as_str()), ("mouth", mouths[mouth])];
            let mut bag = family.default_for(System::Inches);
            sizes.iter().all(|(k, v)| bag.set(k, v, System::Inches).is_ok()).then_some(bag)
        };
        let (Some(asked), Some(came_out)) = (bag(w, h), bag(w + off.0, h + off.1)) else { return Ok(()) };
        if asked.draft(Ruler::Eighth).is_err() || came_out.draft(Ruler::Eighth).is_err() {
            return Ok(());
        }
        let mut project = Project::new("Trial", System::Inches);
        project.bag = asked;
        let quilted = made(&project, &[make_up(panel, "quilted", "yes")]);
        let trimmed = came_out.draft(Ruler::Eighth).expect("it stood").piece(panel).expect("a panel").size();
        let show = |l: Length| Ruler::Eighth.show(l).text;
        let after = made(&quilted, &[measured(panel, &show(trimmed.0), &show(trimmed.1))]);
        let wanted = came_out.draft(Ruler::Eighth).expect("it stood");
        for id in ["lining-panel", "lining-front", "band", "binding"] {
            let (Some(found), Some(right)) = (draft(&after).piece(id).cloned(), wanted.piece(id)) else { continue };
            prop_assert_eq!(found.size(), right.size(), "{} of {:?} {}", id, family, mouths[mouth]);
        }
    }
}

/// Worked out: a front 13 in tall and 4 deep, ½ in at top and base, is 13 + 2 + ½ + ½ = 16 cut. Bands that show 3 and 6 of it,
/// the rest 16 − ½ − 9 = 6½ to the raw edge, seams of ¼: 3 + ½ + ¼, 6 + 2 × ¼, 6½ + ¼; together 17 = 16 + 2 × ¼ × 2.
#[test]
fn a_panel_in_bands_of_three_cloths() {
    let sizes = [("width", "14"), ("height", "13"), ("depth", "4"), ("seam_top", "1/2"), ("seam_base", "1/2")];
    let plain = project(Family::Tote, &sizes);
    let banded = made(
        &plain,
        &[
            make_up("outer-panel", "patch_seam", "1/4"),
            make_up("outer-panel", "bands", "3, 6"),
            make_up("outer-panel", "band_cloths", "outer, lining, base"),
        ],
    );
    let heights = [inch(15, 4), inch(13, 2), inch(27, 4)];
    let parts = [Part::Outer, Part::Lining, Part::Base];
    for (n, (height, part)) in heights.into_iter().zip(parts).enumerate() {
        let band = piece(&banded, &format!("outer-panel-band-{}", n + 1));
        assert_eq!((band.height.size, band.width.size, band.count, band.part), (height, inch(19, 1), 2, part), "{n}");
    }
    let panel = piece(&banded, "outer-panel");
    assert_eq!(panel.when, When::Pieced(Patches::Bands));
    let seams: Vec<Length> =
        panel.marks.iter().filter(|m| m.name.contains("seam between")).map(|m| m.distance).collect();
    assert_eq!(seams, [inch(7, 2), inch(19, 2)]);
    // A band is pieced or quilted in its turn.
    let both = made(&banded, &[make_up("outer-panel-band-2", "front", "strips")]);
    assert_eq!(piece(&both, "outer-panel-band-2").when, When::Pieced(Patches::Grid(4, 1)));
    assert!(piece(&both, "outer-panel-band-2-patch-light").count > 0);
    // More than the panel is refused, by the field.
    let problem = refused(&plain, &make_up("outer-panel", "bands", "10, 8"));
    assert!(problem.message.contains("nothing is left"), "{problem:?}");
}

/// Side by side the first band has what the panel has beside its face: 18 in across, s + D/2 = 2½ each side of 14.
#[test]
fn bands_side_by_side() {
    let plain = project(Family::Tote, &[("width", "14"), ("depth", "4"), ("seam_side", "1/2")]);
    let edits = [
        make_up("outer-panel", "patch_seam", "1/4"),
        make_up("outer-panel", "bands", "5"),
        make_up("outer-panel", "bands_run", "along"),
    ];
    let banded = made(&plain, &edits);
    let widths: Vec<Length> = (1..=2).map(|n| piece(&banded, &format!("outer-panel-band-{n}")).width.size).collect();
    assert_eq!(widths, [inch(31, 4), inch(47, 4)], "5 + 2½ + ¼, 19 − 7½ + ¼");
    assert_eq!(widths[0] + widths[1], inch(19, 1) + inch(1, 2));
}

/// Worked out: a panel 19 × 16 with corners of 2 in, firm stabiliser ½ clear all round and a light layer over all of it; a
/// corner's edge moves in with the rest, so the corner stays 2 × 2.
#[test]
fn one_piece_is_backed_by_itself() {
    let sizes = [("width", "14"), ("height", "13"), ("depth", "4"), ("backing", "full-size")];
    let plain = project(Family::Tote, &sizes);
    let backed = made(
        &plain,
        &[
            make_up("outer-panel", "backed", "stabiliser"),
            make_up("outer-panel", "backed_clear", "1/2"),
            make_up("outer-panel", "backed_over", "light"),
            make_up("strap", "backed", "woven"),
            make_up("strap", "backed_reach", "full"),
            make_up("lining-panel", "backed", "nothing"),
        ],
    );
    let (firm, light) = (piece(&backed, "outer-panel-backed-1"), piece(&backed, "outer-panel-backed-2"));
    assert_eq!((firm.size(), firm.part), ((inch(18, 1), inch(15, 1)), Part::Stabiliser));
    assert_eq!((light.size(), light.part), ((inch(19, 1), inch(16, 1)), Part::Interfacing));
    let Figure::CutOut { across, up } = &firm.figure else { panic!("{:?}", firm.figure) };
    assert_eq!((across.size, up.size), (inch(2, 1), inch(2, 1)));
    assert!(draft(&backed).piece("fleece-panel").is_none(), "the bag's own backing gives way");
    assert_eq!(piece(&backed, "strap-backed-1").size(), piece(&backed, "strap").size());
    // What is a backing itself, and what would be clear of everything.
    assert!(
        refused(&backed, &make_up("outer-panel-backed-1", "backed", "light")).message.contains("Nothing lies behind")
    );
    assert_eq!(refused(&backed, &make_up("strap", "front", "strips")).field, "piece");
    let narrow = made(&backed, &[make_up("strap", "backed_reach", "full")]);
    assert_eq!(refused(&narrow, &make_up("outer-panel", "backed_clear", "9")).field, "backed_clear");
}

/// A fleece that is clear of the seams is clear of the seam across the corner too. Worked out: 4 in deep, side and base seams
/// ½, boxing ¼: 2 + ½ − ¼ = 2¼ is cut from the panel; from the seam lines the corner's seam line is 2 in, and so is the
/// fleece's corner.
#[test]
fn fleece_is_clear_of_the_boxing_seam() {
    let sizes = [("depth", "4"), ("seam_boxing", "1/4"), ("backing", "clear-of-seams"), ("boxing", "cut-out")];
    let backed = project(Family::Tote, &sizes);
    let Figure::CutOut { across, up } = piece(&backed, "fleece-panel").figure else { panic!("corners") };
    assert_eq!((across.size, up.size), (inch(2, 1), inch(2, 1)));
}

/// Worked out: under a band 2 in high, ½ in seams, the panel is 13 − 2 + ½ + 2 + ½ = 14. A band that shows 3 below it takes the
/// panel's seam of ½ and ¼ between bands: 3¾; the rest 14 − 3½ + ¼ = 10¾. It is seen from 2 to 5 in below the mouth.
#[test]
fn a_band_below_a_banded_mouth_shows_all_it_should() {
    let sizes = [("height", "13"), ("depth", "4"), ("mouth", "band"), ("band_depth", "2"), ("seam_top", "1/2")];
    let plain = project(Family::Tote, &[&sizes[..], &[("seam_base", "1/2")]].concat());
    let edits = [make_up("outer-panel", "patch_seam", "1/4"), make_up("outer-panel", "bands", "3")];
    let banded = made(&plain, &edits);
    let heights: Vec<Length> = (1..=2).map(|n| piece(&banded, &format!("outer-panel-band-{n}")).height.size).collect();
    assert_eq!(heights, [inch(15, 4), inch(43, 4)]);
    let walls = banded.bag.walls(banded.ruler);
    let seen = banded.made_up["outer-panel"].seen(&walls[0], Part::Outer);
    assert_eq!((seen[0].down + seen[0].height, seen[1].down), (inch(5, 1), inch(5, 1)));
}

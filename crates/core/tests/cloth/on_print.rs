//! Pieces that are cut where a print falls right: places worked out by hand, against every way of choosing places, and as
//! properties over random jobs.
#![allow(missing_docs)]

use crate::support::{job, piece};
use bofta_core::cloth::{Cloth, Form, Print, PrintUp, Repeat};
use bofta_core::cutting::{CutKind, Step, cut_list, left_whole};
use bofta_core::lay::{Budget, ClothLay, Cuts, Fault, Job, JobPiece, Lay, Placement, Silent, Stop, solve, verify};
use bofta_core::measure::{Length, System};
use bofta_core::piece::{Grain, Mirror, PrintRule};
use bofta_core::project::{ClothField, Edit, Look, MotifAt, Pattern, Project, holds_on_print, other_ways};
use bofta_core::shape::{Outline, Point};
use proptest::prelude::*;
use rstest::rstest;

fn cm(n: i64) -> Length {
    Length::CENTIMETRE * n
}

fn at(x: i64, y: i64) -> Point {
    Point::new(cm(x), cm(y))
}

fn lay(job: &Job) -> Lay {
    let lay = solve(job, Budget::iterations(40), &mut Silent).expect("a sound job");
    assert_eq!(verify(job, &lay), []);
    lay
}

/// Panels 38 × 40 with their motif in the middle, on a print that comes again after 30 across and 24 along; the first
/// motif stands so that one panel lies in the corner.
fn panels(count: u32, width: i64) -> Job {
    let panel = JobPiece { on_print: Some(at(19, 20)), ..piece("panel", cm(38), cm(40), count) };
    let mut job = job(cm(width), vec![JobPiece { print: PrintRule::Upright, grain: Grain::Length, ..panel }]);
    job.cloths[0].print = Print::OneWay;
    job.cloths[0].repeat = Some(Repeat { across: Some(cm(30)), along: Some(cm(24)), drop: cm(0), at: at(19, 20) });
    job
}

/// By hand: 38 is more than one repeat across, so columns stand 60 apart, and 40 is more than one along, so rows stand 48
/// apart. On 140 two panels lie side by side (0 to 38, 60 to 98, the next would end at 158), on 160 three.
#[rstest]
#[case(140, 1, 40)]
#[case(140, 2, 40)]
#[case(140, 4, 88)]
#[case(160, 4, 88)]
#[case(160, 3, 40)]
#[case(97, 2, 88)]
#[case(98, 2, 40)]
fn a_centred_motif_asks_for_whole_repeats(#[case] width: i64, #[case] count: u32, #[case] length: i64) {
    let job = panels(count, width);
    let found = lay(&job);
    assert!(found.complete());
    assert_eq!(found.cloths[0].needed_length, cm(length));
}

/// The handbook's worked case, all motifs of a whole piece of cloth: 36 long and 42 wide, motifs 5, 17 and 29 up, 7, 21 and
/// 35 over. Squares of 10 are cut round all nine. Panels 13 tall want 6½ below the motif, which 5 has not, and two of them
/// do not lie between 17 and 29: three.
#[rstest]
#[case(10, 9)]
#[case(13, 3)]
fn whole_motifs_on_a_piece_of_cloth(#[case] tall: i64, #[case] holds: u32) {
    let inch = |n: i64| Length::INCH * n;
    let on_print = Some(Point::new(inch(5), Length::inches(tall, 2)));
    let panel = JobPiece { on_print, grain: Grain::Length, ..piece("panel", inch(10), inch(tall), 20) };
    let mut job = job(inch(42), vec![panel]);
    job.cloths[0].form = Form::Sheet { width: inch(42), height: inch(36), count: 1 };
    job.cloths[0].owned = true;
    let at = Point::new(inch(7), inch(5));
    job.cloths[0].repeat = Some(Repeat { across: Some(inch(14)), along: Some(inch(12)), drop: Length::ZERO, at });
    let found = lay(&job);
    assert_eq!(found.cloths[0].placements.len() as u32, holds);
    assert_eq!(found.unplaced[0].count, 20 - holds);
}

/// In a half-drop print the next column stands 12 further: two panels beside each other end at 52.
#[test]
fn a_half_drop_moves_every_other_column() {
    let mut job = panels(2, 98);
    let repeat = job.cloths[0].repeat.as_mut().expect("it has one");
    (repeat.across, repeat.drop) = (Some(cm(20)), cm(12));
    // Columns 20 apart: two of them are 40, wide enough for 38, and an even column stands no further along.
    assert_eq!(lay(&job).cloths[0].needed_length, cm(40));
    // Columns 40 apart are neighbours.
    job.cloths[0].repeat.as_mut().expect("it has one").across = Some(cm(40));
    assert_eq!(lay(&job).cloths[0].needed_length, cm(52));
}

/// Stripes along the length leave the length free: panels follow each other without a gap. Stripes across leave the
/// width free.
#[test]
fn stripes_bind_one_way_only() {
    let mut job = panels(4, 98);
    job.cloths[0].repeat = Some(Repeat { across: Some(cm(30)), along: None, drop: cm(0), at: at(19, 20) });
    assert_eq!(lay(&job).cloths[0].needed_length, cm(80));
    job.cloths[0].repeat = Some(Repeat { across: None, along: Some(cm(24)), drop: cm(0), at: at(19, 20) });
    let found = lay(&job);
    assert_eq!(found.cloths[0].needed_length, cm(88));
    assert!(found.cloths[0].placements.iter().any(|p| p.x == cm(38)), "edge to edge across");
}

/// What has no place on the print lies between the panels: strips of 20 fill the 22 beside them.
#[test]
fn the_rest_lies_between() {
    let mut with = panels(4, 140);
    with.pieces.push(JobPiece { grain: Grain::Length, ..piece("side", cm(20), cm(40), 4) });
    let found = lay(&with);
    assert!(found.complete());
    assert_eq!(found.cloths[0].needed_length, cm(88), "they take nothing more");
}

/// A shape is flipped with its motif: of a pair the second has it at the other side.
#[test]
fn the_motif_of_a_pair_is_flipped() {
    let skew = Outline::polygon(vec![at(0, 0), at(30, 0), at(20, 20), at(0, 20)]).expect("an outline");
    let mut job = panels(1, 140);
    job.pieces[0].outline = skew;
    (job.pieces[0].count, job.pieces[0].mirror, job.pieces[0].on_print) = (2, Mirror::Pairs, Some(at(8, 10)));
    let found = lay(&job);
    let [a, b] = found.cloths[0].placements.as_slice() else { panic!("two lie there") };
    let motif = |p: &Placement| if p.mirrored { p.x + cm(22) } else { p.x + cm(8) };
    assert_eq!((a.mirrored, b.mirrored), (a.copy == 2, b.copy == 2));
    for placed in [a, b] {
        assert_eq!((motif(placed) - cm(19)).0 % cm(30).0, 0);
    }
}

/// Cut edge to edge, a round piece that would roll into the bay beside a slanted one lies above it instead; it used to be
/// left out.
#[test]
fn round_pieces_lie_above_slanted_ones_edge_to_edge() {
    let slanted = Outline::polygon(vec![at(0, 0), at(38, 0), at(33, 16), at(0, 16)]).expect("an outline");
    let flap = JobPiece { outline: slanted, on_print: Some(at(5, 0)), ..piece("flap", cm(1), cm(1), 3) };
    let base = JobPiece { outline: Outline::circle(cm(16)).expect("a circle"), ..piece("base", cm(1), cm(1), 3) };
    let mut job = job(cm(69), vec![base, JobPiece { mirror: Mirror::Free, grain: Grain::Length, ..flap }]);
    job.cloths[0].repeat = Some(Repeat { across: Some(cm(8)), along: None, drop: cm(0), at: at(21, 0) });
    job.rules.cuts = Cuts::Through;
    assert!(lay(&job).complete());
}

#[test]
fn a_motif_that_does_not_fall_right_is_a_fault() {
    let job = panels(2, 140);
    let mut found = lay(&job);
    found.cloths[0].placements[1].x += Length(1);
    assert!(verify(&job, &found).contains(&Fault::Print { piece: "panel 2".into(), cloth: "roll".into() }));
}

/// A cloth without a repeat takes what finds no place on the print; without one it is told.
#[test]
fn what_finds_no_place_is_told_or_lies_elsewhere() {
    let mut job = panels(3, 140);
    job.cloths[0].form = Form::Roll { width: cm(140), length: Some(cm(60)), max: None };
    job.cloths[0].owned = true;
    let found = lay(&job);
    assert_eq!(found.unplaced[0].count, 1);
    assert!(
        found.unplaced[0].why.contains("no place on roll where the motif falls right"),
        "{}",
        found.unplaced[0].why
    );
    job.cloths.push(Cloth::roll("plain", cm(140)));
    job.pieces[0].cloths.push("plain".into());
    let found = lay(&job);
    assert!(found.complete() && !found.proven);
    assert_eq!(found.cloths[1].placements.len(), 1);
}

#[rstest]
#[case::off_it(|j: &mut Job| j.pieces[0].on_print = Some(at(39, 3)), "pieces[0].on_print")]
#[case::on_the_bias(|j: &mut Job| j.pieces[0].grain = Grain::Bias, "pieces[0].on_print")]
#[case::folded(|j: &mut Job| j.cloths[0].layers = 2, "pieces[0].on_print")]
#[case::too_many(|j: &mut Job| j.pieces[0].count = 401, "pieces[0].on_print")]
#[case::no_repeat(|j: &mut Job| j.cloths[0].repeat.as_mut().expect("one").along = Some(Length(3)), "cloths[0].repeat.along")]
#[case::a_long_drop(|j: &mut Job| j.cloths[0].repeat.as_mut().expect("one").drop = cm(24), "cloths[0].repeat.drop")]
#[case::far_away(|j: &mut Job| j.cloths[0].repeat.as_mut().expect("one").at.x = Length(i64::MIN), "cloths[0].repeat.at")]
fn what_cannot_stand_names_its_field(#[case] spoil: fn(&mut Job), #[case] field: &str) {
    let mut job = panels(1, 140);
    spoil(&mut job);
    assert_eq!(job.check().expect_err("it cannot stand").field, field);
}

/// Four hundred panels on a print that comes again every other millimetre have a first answer soon, and it holds.
#[test]
fn the_largest_job_is_laid() {
    let mut job = panels(400, 140);
    let tiny = Length::MILLIMETRE * 2;
    job.cloths[0].repeat = Some(Repeat { across: Some(tiny), along: Some(tiny), drop: Length::ZERO, at: at(19, 20) });
    let found = solve(&job, Budget::iterations(0), &mut Silent).expect("a sound job");
    assert_eq!(verify(&job, &found), []);
    assert_eq!(found.cloths[0].needed_length, cm(40 * 134), "three side by side");
}

/// The least length of rectangles on a lattice, by trying every place for every piece, in whole centimetres.
fn least(sizes: &[(i64, i64)], motifs: &[(i64, i64)], width: i64, (across, along, drop): (i64, i64, i64)) -> i64 {
    fn go(
        sizes: &[(i64, i64)],
        motifs: &[(i64, i64)],
        of: (i64, i64, i64, i64),
        laid: &mut Vec<[i64; 4]>,
        best: &mut i64,
    ) {
        let (width, across, along, drop) = of;
        let top = laid.iter().map(|b| b[3]).max().unwrap_or(0);
        if top >= *best {
            return;
        }
        let Some((&(w, h), rest)) = sizes.split_first() else {
            *best = top;
            return;
        };
        for x in 0..=width - w {
            for y in 0..*best - h {
                let (mx, my) = (x + motifs[0].0, y + motifs[0].1);
                if mx % across != 0 || (my - mx / across * drop) % along != 0 {
                    continue;
                }
                let clear = laid.iter().all(|b| x >= b[2] || x + w <= b[0] || y >= b[3] || y + h <= b[1]);
                if clear {
                    laid.push([x, y, x + w, y + h]);
                    go(rest, &motifs[1..], of, laid, best);
                    laid.pop();
                }
            }
        }
    }
    let mut best = 1 + sizes.iter().map(|s| s.1 + 2 * along).sum::<i64>();
    go(sizes, motifs, (width, across, along, drop), &mut vec![], &mut best);
    best
}

/// Width, height and motif of each rectangle; the width of the cloth; repeat across and along; half drop.
type Rectangles = (Vec<(i64, i64, i64, i64)>, i64, i64, i64, bool);

fn any_rectangles() -> impl Strategy<Value = Rectangles> {
    let rectangle = (3_i64..9, 3_i64..9, 0_i64..9, 0_i64..9);
    (prop::collection::vec(rectangle, 1..5), 9_i64..18, 2_i64..7, 2_i64..7, any::<bool>())
}

fn any_outline() -> impl Strategy<Value = Outline> {
    prop_oneof![
        (4_i64..40, 4_i64..40).prop_map(|(w, h)| Outline::Rect(cm(w), cm(h))),
        (6_i64..40, 6_i64..40, 1_i64..6).prop_map(|(w, h, cut)| {
            let corners = vec![at(0, 0), at(w, 0), at(w - cut.min(w / 2), h), at(0, h)];
            Outline::polygon(corners).expect("a right trapezoid")
        }),
        (6_i64..30).prop_map(|d| Outline::circle(cm(d)).expect("a circle")),
    ]
}

fn any_job() -> impl Strategy<Value = Job> {
    let one = (any_outline(), 1_u32..4, 0_usize..3, 0_usize..3, any::<bool>(), 0_i64..101, 0_i64..101);
    let print = (0_i64..5, 0_i64..40, 0_i64..40, any::<bool>(), 0_usize..3);
    let repeat = (prop::option::of(3_i64..60), prop::option::of(3_i64..60));
    (prop::collection::vec(one, 1..5), 45_i64..150, repeat, print, any::<u64>(), any::<bool>(), any::<bool>()).prop_map(
        |(kinds, width, (across, along), (gap, x, y, half, print), seed, through, two)| {
            let pieces = kinds
                .into_iter()
                .enumerate()
                .map(|(i, (outline, count, grain, mirror, placed, px, py))| {
                    let (w, h) = outline.size();
                    let on = Point::new(Length(w.0 * px / 100), Length(h.0 * py / 100));
                    JobPiece {
                        outline,
                        grain: [Grain::Length, Grain::Across, Grain::Either][grain],
                        mirror: [Mirror::No, Mirror::Pairs, Mirror::Free][mirror],
                        print: PrintRule::Upright,
                        on_print: placed.then_some(on),
                        ..piece(format!("p{i}"), cm(1), cm(1), count)
                    }
                })
                .collect();
            let mut job = job(cm(width), pieces);
            let drop = Length(along.map_or(0, |a| if half { cm(a).0 / 2 } else { 0 }));
            job.cloths[0].repeat = Some(Repeat { across: across.map(cm), along: along.map(cm), drop, at: at(x, y) });
            job.cloths[0].print = [Print::AllOver, Print::TwoWay, Print::OneWay][print];
            job.cloths[0].selvedge = cm(1);
            job.rules.gap = Length::MILLIMETRE * gap;
            job.rules.seed = seed;
            if through {
                job.rules.cuts = Cuts::Through;
            }
            if two {
                let owned = Form::Sheet { width: cm(50), height: cm(45), count: 2 };
                let sheet =
                    Cloth { form: owned, owned: true, repeat: job.cloths[0].repeat, ..Cloth::roll("fq", cm(50)) };
                job.cloths.push(sheet);
                job.pieces.iter_mut().for_each(|p| p.cloths.push("fq".into()));
            }
            job
        },
    )
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(60))]

    /// Few rectangles lie as short as any choice of places lets them.
    #[test]
    fn few_pieces_lie_as_short_as_their_motifs_allow((rectangles, width, across, along, half) in any_rectangles()) {
        let drop = if half && along % 2 == 0 { along / 2 } else { 0 };
        let sizes: Vec<(i64, i64)> = rectangles.iter().map(|r| (r.0, r.1)).collect();
        let motifs: Vec<(i64, i64)> = rectangles.iter().map(|r| (r.2.min(r.0), r.3.min(r.1))).collect();
        let pieces = sizes.iter().zip(&motifs).enumerate().map(|(i, (s, m))| JobPiece {
            grain: Grain::Length,
            on_print: Some(at(m.0, m.1)),
            ..piece(format!("p{i}"), cm(s.0), cm(s.1), 1)
        });
        let mut job = job(cm(width), pieces.collect());
        job.cloths[0].print = Print::OneWay;
        job.pieces.iter_mut().for_each(|p| p.print = PrintRule::Upright);
        job.cloths[0].repeat =
            Some(Repeat { across: Some(cm(across)), along: Some(cm(along)), drop: cm(drop), at: at(0, 0) });
        let found = solve(&job, Budget::iterations(0), &mut Silent).expect("a sound job");
        prop_assert_eq!(verify(&job, &found), vec![]);
        let fits = sizes.iter().zip(&motifs).all(|(s, m)| (0..=width - s.0).any(|x| (x + m.0) % across == 0));
        if fits {
            prop_assert_eq!(found.cloths[0].needed_length, cm(least(&sizes, &motifs, width, (across, along, drop))));
        } else {
            prop_assert!(!found.complete());
        }
    }

    /// Whatever the outlines, faces, turns, gap and cloths: every motif falls right, by separate arithmetic, the same on
    /// one thread and two, and never shorter than what is shown for the pieces without a print.
    #[test]
    fn every_motif_falls_right(job in any_job()) {
        let one = solve(&job, Budget::iterations(20), &mut Silent).expect("a sound job");
        prop_assert_eq!(verify(&job, &one), vec![]);
        let two = solve(&job, Budget { threads: 2, ..Budget::iterations(20) }, &mut Silent).expect("a sound job");
        prop_assert_eq!(&one, &two);
        let mut free = job.clone();
        free.pieces.iter_mut().for_each(|p| p.on_print = None);
        let free = solve(&free, Budget::iterations(20), &mut Silent).expect("a sound job");
        if one.complete() && job.pieces[0].cloths.len() == 1 {
            prop_assert!(job.bought(&one) >= free.bound.length);
        }
    }
}

fn made(project: &Project, edits: &[Edit]) -> Project {
    edits.iter().fold(project.clone(), |p, edit| p.edited(edit).expect("it holds").0)
}

fn cloth(field: ClothField, value: &str) -> Edit {
    Edit::Cloth { cloth: "marigold".into(), field, value: value.into() }
}

fn placed(across: &str, up: &str) -> Edit {
    Edit::PlaceOnPrint { piece: "outer-panel".into(), across: across.into(), up: up.into() }
}

/// A tote 34 × 36 × 6 whose panels are 42 × 41, from a print 30 × 24 on cloth 140 wide with a selvedge of 1.
fn tote() -> Project {
    let bag = [("width", "34"), ("height", "36"), ("depth", "6"), ("backing", "none"), ("lining", "none")];
    let bag = bag.map(|(field, value)| Edit::Bag { field: field.into(), value: value.into() });
    let look = Look::new(Pattern::Flower, "#efe3c8", "#c7762b");
    let project = made(&Project::new("Flowers", System::Centimetres), &bag);
    made(
        &project,
        &[
            Edit::AddCloth { name: "Marigold".into(), material: "canvas".into() },
            Edit::ClothLook { cloth: "marigold".into(), look },
            cloth(ClothField::Width, "140"),
            cloth(ClothField::Repeat, "24"),
            cloth(ClothField::RepeatWide, "30"),
        ],
    )
}

fn job_of(project: &Project) -> Job {
    project.plan().expect("it stands").job.expect("it is laid")
}

#[test]
fn half_a_repeat_stays_free_at_each_edge_until_it_is_measured() {
    let plain = job_of(&tote());
    assert_eq!((plain.cloths[0].repeat, plain.cloths[0].trim), (None, cm(1)), "nothing is placed yet");
    let project = made(&tote(), &[placed("middle", "22")]);
    let here = job_of(&project).cloths[0].clone();
    assert_eq!((here.trim, here.selvedge), (cm(13), cm(16)), "1 + 24 ÷ 2, 1 + 30 ÷ 2");
    // The first panel lies in the corner, its motif 21 and 22 further.
    let repeat = here.repeat.expect("it has one");
    assert_eq!((repeat.across, repeat.along, repeat.at), (Some(cm(30)), Some(cm(24)), at(16 + 21, 13 + 22)));
    let measured = made(&project, &[cloth(ClothField::MotifFrom, "25")]);
    let here = job_of(&measured).cloths[0].clone();
    assert_eq!((here.selvedge, here.repeat.expect("it has one").at.x), (cm(1), cm(25)));
    // Two panels beside each other, 60 apart.
    let found = lay(&job_of(&measured));
    let panels: Vec<Point> =
        found.cloths[0].placements.iter().filter(|p| p.piece == "outer-panel").map(|p| Point::new(p.x, p.y)).collect();
    assert_eq!(panels, [at(4, 13), at(64, 13)]);
}

#[test]
fn the_middle_stays_the_middle() {
    let project = made(&tote(), &[placed("middle", "22")]);
    let wider = made(&project, &[Edit::Bag { field: "width".into(), value: "40".into() }]);
    let motif = |p: &Project| p.plan().expect("it stands").draft.piece("outer-panel").and_then(|of| p.motif_on(of));
    assert_eq!((motif(&project), motif(&wider)), (Some(at(21, 22)), Some(at(24, 22))));
    // Lower than that the panel has no such place any more: it is said, and laid anywhere.
    let low = made(&wider, &[Edit::Bag { field: "height".into(), value: "10".into() }]);
    assert_eq!(motif(&low), None);
    let told = low.plan().expect("it stands").draft.notices;
    assert!(told.iter().any(|n| n.text.contains("too small for its place on the print")), "{told:?}");
    assert_eq!(job_of(&low).cloths[0].repeat, None);
}

/// A border is once across the cloth, its up pointing to the other selvedge: the panel, 42 × 41, lies on its side, and where
/// its border stands 10 above its foot and 12 from the edge, its foot is 2 from there, whatever lies along the length.
#[test]
fn a_border_falls_where_it_is_wanted() {
    let look = |pattern| Edit::ClothLook { cloth: "marigold".into(), look: Look::new(pattern, "#efe3c8", "#c7762b") };
    let plain = [cloth(ClothField::Repeat, ""), cloth(ClothField::RepeatWide, "")];
    let project = made(&made(&tote(), &plain), &[look(Pattern::Border)]);
    assert_eq!((project.cloths[0].print, project.cloths[0].up), (Print::OneWay, PrintUp::Across));
    // Where it is on the cloth has to be measured before anything can be placed on it.
    let refused = project.edited(&placed("middle", "10")).expect_err("it is not measured");
    assert!(refused[0].message.contains("from the edge to the middle of its border"), "{refused:?}");
    let measured = made(&project, &[cloth(ClothField::MotifFrom, "12"), placed("middle", "10")]);
    let unmeasured = made(&measured, &[cloth(ClothField::MotifFrom, "")]);
    let told = unmeasured.plan().expect("it stands").draft.notices;
    assert!(told.iter().any(|n| n.text.contains("how far its border is from the edge is not measured")), "{told:?}");
    let job = job_of(&measured);
    assert_eq!(job.cloths[0].repeat.map(|r| (r.across, r.along)), Some((Some(cm(140)), None)));
    let found = lay(&job);
    let panels: Vec<&Placement> = found.cloths[0].placements.iter().filter(|p| p.piece == "outer-panel").collect();
    assert_eq!(panels.iter().map(|p| p.x).collect::<Vec<_>>(), [cm(2), cm(2)]);
    assert_eq!((panels[0].y - panels[1].y).max(panels[1].y - panels[0].y), cm(42), "side by side along the length");
    // On what was cut off nobody knows where the border is, or whether: only the length holds what is placed.
    let with = made(&measured, &[cloth(ClothField::AtHand, "50 x 60, 90 of 60 wide, 2 m")]);
    let found = lay(&job_of(&with));
    let on: Vec<&str> = found.cloths.iter().filter(|c| !c.placements.is_empty()).map(|c| c.cloth.as_str()).collect();
    assert!(found.complete() && on.contains(&"marigold#3.1"), "{on:?}");
    let panels = |c: &&ClothLay| c.placements.iter().any(|p| p.piece == "outer-panel");
    assert_eq!(found.cloths.iter().filter(panels).map(|c| c.cloth.as_str()).collect::<Vec<_>>(), ["marigold#3.1"]);
    let told = with.plan().expect("it stands").draft.notices;
    assert!(told.iter().any(|n| n.text.contains("not as wide as the cloth is left out for Outer panel")), "{told:?}");
    let bare = made(&measured, &[cloth(ClothField::AtHand, "2 of 50 x 60")]).plan().expect("it stands");
    assert!(bare.problems[0].message.contains("only pieces that are not as wide as the cloth"), "{:?}", bare.problems);
    // Drawn otherwise, the print stands as it usually does.
    let flowers = made(&measured, &[look(Pattern::Flower)]);
    assert_eq!((flowers.cloths[0].up, flowers.cloths[0].has_border()), (PrintUp::Length, false));
}

/// A place beside the piece is the same as one on it by whole repeats.
#[rstest]
#[case("51", "70", MotifAt::From(cm(21)), MotifAt::From(cm(22)))]
#[case("centre", "", MotifAt::Middle, MotifAt::Middle)]
#[case("0", "41", MotifAt::From(cm(0)), MotifAt::From(cm(41)))]
fn places_are_read(#[case] across: &str, #[case] up: &str, #[case] x: MotifAt, #[case] y: MotifAt) {
    let project = made(&tote(), &[placed(across, up)]);
    let place = project.on_print["outer-panel"];
    assert_eq!((place.across, place.up), (x, y));
    let kept = serde_json::to_string(&project).expect("it is written");
    assert_eq!(serde_json::from_str::<Project>(&kept).expect("it is read"), project);
    assert!(made(&project, &[placed("", "")]).on_print.is_empty());
}

#[rstest]
#[case(placed("wide", "3"), "across")]
#[case(placed("3", "9 ells"), "up")]
#[case(Edit::PlaceOnPrint { piece: "sail".into(), across: "1".into(), up: "1".into() }, "piece")]
#[case(cloth(ClothField::RepeatWide, "141"), "repeat_wide")]
#[case(cloth(ClothField::Repeat, "600"), "repeat")]
#[case(cloth(ClothField::MotifFrom, "-1"), "motif_from")]
#[case(cloth(ClothField::HalfDrop, "perhaps"), "half_drop")]
fn a_place_that_cannot_stand_names_its_field(#[case] edit: Edit, #[case] field: &str) {
    assert_eq!(tote().edited(&edit).expect_err("it cannot stand")[0].field, field);
}

#[test]
fn without_a_repeat_nothing_is_placed() {
    let project = made(&tote(), &[cloth(ClothField::Repeat, ""), cloth(ClothField::RepeatWide, "")]);
    let refused = project.edited(&placed("middle", "middle")).expect_err("nothing is known of the print");
    assert!(refused[0].message.contains("how wide and how tall one repeat is"), "{}", refused[0].message);
    // Forgotten later, the piece keeps its place for when it is known again, and that is said.
    let forgot =
        made(&tote(), &[placed("middle", "22"), cloth(ClothField::Repeat, ""), cloth(ClothField::RepeatWide, "")]);
    let told = forgot.plan().expect("it stands").draft.notices;
    assert!(told.iter().any(|n| n.text.contains("one repeat of it is not measured")), "{told:?}");
}

#[rstest]
#[case(&[cloth(ClothField::RepeatWide, "140")], "motif_from")]
#[case(&[cloth(ClothField::AtHand, "20 cm")], "repeat")]
fn a_repeat_that_leaves_nothing_is_told(#[case] edits: &[Edit], #[case] field: &str) {
    let project = made(&made(&tote(), &[placed("middle", "22")]), edits);
    let planned = project.plan().expect("it stands");
    assert_eq!((planned.problems[0].field.as_str(), planned.job.is_none()), (field, true));
    assert!(planned.problems[0].message.contains("nothing"), "{}", planned.problems[0].message);
}

/// Where motifs lie on a scrap is seen: what is placed is not laid on it, what is not may be.
#[test]
fn nothing_is_placed_on_a_scrap() {
    let project = made(&tote(), &[placed("middle", "22"), cloth(ClothField::AtHand, "right triangle 120 x 120")]);
    let planned = project.plan().expect("it stands");
    assert_eq!((planned.problems[0].field.as_str(), planned.job.is_none()), ("on_print", true));
    assert!(planned.problems[0].message.contains("only scraps of it"), "{}", planned.problems[0].message);
    let bought = made(&project, &[cloth(ClothField::BuyMore, "yes")]);
    let job = job_of(&bought);
    let on = |piece: &str| job.piece(piece).expect("a piece").cloths.len();
    assert_eq!((on("outer-panel"), on("strap")), (1, 2));
    assert!(job.cloths.iter().all(|c| matches!(c.form, Form::Scrap { .. }) != c.repeat.is_some()));
    let found = lay(&job);
    assert!(found.complete() && found.cloths.len() == 2, "the straps lie on the scrap");
    let told = bought.plan().expect("it stands").draft.notices;
    assert!(told.iter().any(|n| n.text.contains("scraps are left out for Outer panel")), "{told:?}");
    // Anywhere, the panels may lie on the scrap too.
    assert_eq!(job_of(&made(&bought, &[placed("", "")])).piece("outer-panel").map(|p| p.cloths.len()), Some(2));
}

/// A print that lies on its side has its half drop across the cloth: (30, 0) and (15, 24) turned a quarter.
#[test]
fn a_half_drop_turns_with_the_print() {
    let half = made(&tote(), &[placed("middle", "22"), cloth(ClothField::HalfDrop, "yes")]);
    let upright = job_of(&half).cloths[0].repeat.expect("it has one");
    assert_eq!((upright.across, upright.along, upright.drop), (Some(cm(30)), Some(cm(24)), cm(12)));
    let aside = made(&half, &[cloth(ClothField::Up, "across")]);
    let aside = job_of(&aside).cloths[0].repeat.expect("it has one");
    assert_eq!((aside.across, aside.along, aside.drop), (Some(cm(12)), Some(cm(60)), cm(30)));
}

/// The first cut is not just enough to be square: it is told from the print, and what it takes off is no size to keep.
#[test]
fn the_first_cuts_are_told_by_the_print() {
    let project = made(&tote(), &[placed("middle", "22"), cloth(ClothField::MotifFrom, "25")]);
    let job = job_of(&project);
    let found = lay(&job);
    let steps = cut_list(&job, &found.cloths, &[], &[]);
    let told: Vec<(CutKind, Option<Length>)> = steps
        .iter()
        .filter_map(|s| if let Step::Cut { cut, .. } = s { Some((cut.kind, cut.motif)) } else { None })
        .collect();
    // The panel begins at the cut: its motif is 22 beyond it. The selvedge is 1 wide, a motif 24 beyond.
    assert_eq!(told[..2], [(CutKind::SquareEnd, Some(cm(22))), (CutKind::Selvedge, Some(cm(24)))]);
    assert!(told[2..].iter().all(|(_, motif)| motif.is_none()));
    assert!(left_whole(&job, &found.cloths[0]).iter().all(|r| r.at.y >= cm(13).0), "the end is not counted on");
}

/// What a place on the print costs stands among the other ways to lay it.
#[test]
fn letting_go_of_the_print_is_another_way() {
    let project = made(&tote(), &[placed("middle", "22")]);
    let ways = |project: &Project| other_ways(project, &project.plan().expect("it stands"));
    let found = ways(&project);
    let way = found.iter().find(|w| w.name == "Outer panel anywhere on its print").expect("it is offered");
    assert!(way.only_if_less);
    let free = made(&project, &way.edits);
    assert!(job_of(&free).cloths[0].repeat.is_none() && !ways(&free).iter().any(|w| w.name.contains("on its print")));
}

#[test]
fn how_many_a_length_holds_is_counted() {
    let project = made(&tote(), &[placed("middle", "22"), cloth(ClothField::MotifFrom, "25")]);
    let job = job_of(&project);
    let found = lay(&job);
    // Panels 42 wide stand 60 apart: at 4 and 64; a third would end at 166.
    assert_eq!(holds_on_print(&job, &found, "outer-panel", &Stop::new()), Some(2));
    assert_eq!(holds_on_print(&job, &found, "strap", &Stop::new()), None);
}

//! The lay engine: rules of grain and print, worked cases, and properties over random jobs.
#![allow(missing_docs)]

use crate::support;

use crate::support::{job, piece, squares};
use bofta_core::cloth::{Cloth, Form, Money, Price, Print, PrintUp, Shrink};
use bofta_core::cutting::{CutKind, Step, cut_list};
use bofta_core::lay::{
    Budget, Cuts, Fault, Job, JobPiece, Lay, NoLay, Observer, Offcut, Random, Region, Silent, Stop, allowed_turns,
    comes_apart, solve, verify,
};
use bofta_core::measure::{Length, ShopStep, System, show_bought};
use bofta_core::piece::{Grain, Mirror, PrintRule};
use bofta_core::shape::{Outline, Turn};
use proptest::prelude::*;
use rstest::rstest;
use std::ops::ControlFlow;

fn inch(n: i64) -> Length {
    Length::INCH * n
}

fn cm(n: i64) -> Length {
    Length::CENTIMETRE * n
}

fn lay(job: &Job, iterations: u64) -> Lay {
    let lay = solve(job, Budget::iterations(iterations), &mut Silent).expect("a sound job");
    assert_eq!(verify(job, &lay), []);
    lay
}

fn degrees(grain: Grain, print: PrintRule, cloth: &Cloth) -> (Vec<u16>, bool) {
    let allowed = allowed_turns(grain, print, cloth);
    (allowed.turns.into_iter().map(Turn::degrees).collect(), allowed.against_grain)
}

#[rstest]
#[case(Grain::Length, PrintRule::Ignore, Print::OneWay, PrintUp::Length, &[0, 180], false)]
#[case(Grain::Across, PrintRule::Upright, Print::AllOver, PrintUp::Length, &[90, 270], false)]
#[case(Grain::Either, PrintRule::Upright, Print::AllOver, PrintUp::Length, &[0, 90, 180, 270], false)]
#[case(Grain::Bias, PrintRule::Ignore, Print::OneWay, PrintUp::Length, &[45, 135, 225, 315], false)]
#[case(Grain::Length, PrintRule::Upright, Print::OneWay, PrintUp::Length, &[0], false)]
#[case(Grain::Length, PrintRule::Upright, Print::TwoWay, PrintUp::Length, &[0, 180], false)]
#[case(Grain::Either, PrintRule::Upright, Print::OneWay, PrintUp::Across, &[270], false)]
#[case(Grain::Either, PrintRule::Upright, Print::TwoWay, PrintUp::Across, &[270, 90], false)]
#[case(Grain::Across, PrintRule::Upright, Print::OneWay, PrintUp::Length, &[0], true)]
fn grain_and_print_leave_these_turns(
    #[case] grain: Grain,
    #[case] print: PrintRule,
    #[case] of_cloth: Print,
    #[case] up: PrintUp,
    #[case] turns: &[u16],
    #[case] against_grain: bool,
) {
    let cloth = Cloth { print: of_cloth, up, ..Cloth::roll("roll", inch(44)) };
    let (found, against) = degrees(grain, print, &cloth);
    assert_eq!((found.as_slice(), against), (turns, against_grain));
}

#[test]
fn a_nap_counts_as_one_way() {
    let cloth = Cloth { nap: true, ..Cloth::roll("roll", inch(44)) };
    assert_eq!(degrees(Grain::Either, PrintRule::Upright, &cloth), (vec![0], false));
}

/// Piece-up turned by the one allowed turn points where the print's up points.
#[test]
fn a_railroaded_print_stands_up() {
    let turn = Turn::new(270).expect("a turn");
    let up = turn.of(bofta_core::shape::Point::new(Length::ZERO, inch(1)));
    assert_eq!(up, bofta_core::shape::Point::new(inch(1), Length::ZERO));
}

/// Common practice: 1 yd of 44 in cloth, unsquared, turns allowed, gives four 12 × 28 in bags, and not an inch less.
#[test]
fn four_bags_from_a_yard() {
    let mut four = job(inch(44), vec![piece("bag", inch(12), inch(28), 4)]);
    four.cloths[0].shop = ShopStep::default_for(System::Inches);
    let found = lay(&four, 500);
    assert_eq!(show_bought(found.cloths[0].buy_length, System::Inches), "1 yd");
    assert_eq!(found.cloths[0].needed_length, inch(36));
    // Squared at both ends, the yard no longer holds them: the step after it is bought.
    four.cloths[0].trim = Length::inches(1, 2);
    assert_eq!(show_bought(lay(&four, 500).cloths[0].buy_length, System::Inches), "1⅛ yd");
}

/// Common practice: ½ yd of 42 in holds two 14 × 16 in panels, one-way.
#[test]
fn half_a_yard_for_a_small_tote() {
    let mut tote = job(
        inch(42),
        vec![JobPiece { grain: Grain::Length, print: PrintRule::Upright, ..piece("panel", inch(14), inch(16), 2) }],
    );
    tote.cloths[0].print = Print::OneWay;
    tote.cloths[0].shop = ShopStep::default_for(System::Inches);
    let found = lay(&tote, 100);
    assert_eq!(show_bought(found.cloths[0].buy_length, System::Inches), "½ yd");
    assert!(found.proven);
    assert!(found.cloths[0].placements.iter().all(|p| p.turn == Turn::NONE));
}

/// Common practice: two 68 × 50 cm panels lie side by side on 140 cm; 50 cm are used of the 60 a printed list bought.
#[test]
fn two_panels_side_by_side() {
    let mut panels = job(cm(140), vec![JobPiece { grain: Grain::Length, ..piece("panel", cm(68), cm(50), 2) }]);
    panels.cloths[0].shop = ShopStep::default_for(System::Centimetres);
    let found = lay(&panels, 100);
    assert_eq!((found.cloths[0].needed_length, found.cloths[0].buy_length), (cm(50), cm(50)));
    assert!(found.proven);
}

/// Two 22 × 17 panels and two 5 × 26 straps on 53 in: by area 22½ in of roll might do, but in 21½ in the straps only
/// lie across, and no length is left beside the panels for both.
#[test]
fn a_purchase_is_ruled_out_by_widths_and_heights_together() {
    let mut tote = job(
        inch(54),
        vec![
            JobPiece { grain: Grain::Length, ..piece("panel", inch(22), inch(17), 2) },
            piece("strap", inch(5), inch(26), 2),
        ],
    );
    let half = Length::inches(1, 2);
    tote.cloths[0] =
        Cloth { selvedge: half, trim: half, shop: ShopStep::default_for(System::Inches), ..tote.cloths[0].clone() };
    let found = lay(&tote, 200);
    assert_eq!(show_bought(found.cloths[0].buy_length, System::Inches), "¾ yd");
    assert!(found.proven);
    // One strap fewer and the shorter purchase does hold them: nothing that is possible is ruled out.
    tote.pieces.truncate(1);
    assert_eq!(show_bought(lay(&tote, 200).cloths[0].buy_length, System::Inches), "½ yd");
}

/// Equal pieces that fill the width exactly, halves and thirds of it above all: the bound is their length, not more.
#[rstest]
fn bounds_allow_equal_pieces_side_by_side(#[values(1, 2, 3, 4, 5, 7)] across: u32, #[values(1, 2, 3)] along: u32) {
    let grid = job(inch(12) * i64::from(across), vec![piece("p", inch(12), inch(7), across * along)]);
    let upright = Job { pieces: vec![JobPiece { grain: Grain::Length, ..grid.pieces[0].clone() }], ..grid };
    let found = lay(&upright, 60);
    assert_eq!(found.cloths[0].needed_length, inch(7) * i64::from(along));
    assert_eq!(found.bound.length, found.cloths[0].needed_length);
    assert!(found.proven);
}

#[test]
fn what_is_left_over_lies_together() {
    let mut sack = job(
        inch(35),
        vec![
            JobPiece { grain: Grain::Length, ..piece("panel", inch(18), inch(18), 2) },
            piece("strap", inch(4), inch(17), 2),
        ],
    );
    sack.rules.keep = (inch(5), inch(5));
    let found = lay(&sack, 100);
    let largest = &found.cloths[0].offcuts[0];
    let area = |w: Length, h: Length| w.in_units(System::Inches) * h.in_units(System::Inches);
    // Straps beside each other leave 9 in of width over the whole length; apart they would not.
    let Offcut::Rect { width, height, .. } = *largest else { panic!("rectangles come first") };
    assert!(area(width, height) >= area(inch(9), found.cloths[0].needed_length), "{largest:?}");
}

#[test]
fn selvedge_trim_shrinkage_and_step_are_reckoned() {
    let mut one = job(inch(44), vec![JobPiece { grain: Grain::Length, ..piece("p", inch(20), inch(30), 2) }]);
    one.cloths[0] = Cloth {
        selvedge: Length::inches(1, 2),
        trim: Length::inches(1, 2),
        shrink: Shrink { along: 30_000, across: 20_000 },
        shop: ShopStep::default_for(System::Inches),
        price: Some(Price { amount: Money(1_000), per: Length::YARD }),
        ..Cloth::roll("roll", inch(44))
    };
    let found = lay(&one, 100);
    // 44 × 0.98 − 1 = 42.12 in usable: side by side. 31 in washed is 31.96 in bought: 1 yd.
    assert_eq!(found.cloths[0].needed_length, inch(31));
    assert_eq!(show_bought(found.cloths[0].buy_length, System::Inches), "1 yd");
    assert_eq!(found.cost, Money(1_000));
    assert!(found.cloths[0].placements.iter().all(|p| p.x >= Length::inches(1, 2) && p.y == Length::inches(1, 2)));
}

#[test]
fn pairs_are_flipped_every_second_copy() {
    let pairs = job(inch(40), vec![JobPiece { mirror: Mirror::Pairs, ..piece("p", inch(10), inch(10), 4) }]);
    let found = lay(&pairs, 10);
    assert_eq!(found.cloths[0].placements.iter().filter(|p| p.mirrored).count(), 2);
}

#[test]
fn a_piece_that_fits_no_cloth_is_named_and_the_rest_is_laid() {
    let mut wide = job(
        inch(44),
        vec![
            JobPiece { grain: Grain::Length, ..piece("wide", inch(50), inch(10), 2) },
            piece("small", inch(5), inch(5), 1),
        ],
    );
    let found = lay(&wide, 50);
    assert_eq!(found.unplaced.len(), 1);
    assert_eq!((found.unplaced[0].piece.as_str(), found.unplaced[0].count), ("wide", 2));
    assert!(found.unplaced[0].why.contains("44"), "{}", found.unplaced[0].why);
    assert_eq!(found.cloths[0].placements.len(), 1);
    assert!(!found.proven);
    // Turned, it fits.
    wide.pieces[0].grain = Grain::Either;
    assert!(lay(&wide, 50).complete());
}

#[test]
fn what_does_not_fit_an_owned_length_moves_to_the_next_cloth() {
    let mut two = job(
        inch(20),
        vec![JobPiece { cloths: vec!["own".into(), "roll".into()], ..piece("p", inch(10), inch(10), 6) }],
    );
    two.cloths.push(Cloth {
        owned: true,
        form: Form::Roll { width: inch(20), length: Some(inch(21)), max: None },
        ..Cloth::roll("own", inch(20))
    });
    let found = lay(&two, 50);
    assert!(found.complete());
    let on = |id: &str| found.cloths.iter().find(|c| c.cloth == id).map(|c| c.placements.len());
    assert_eq!((on("own"), on("roll")), (Some(4), Some(2)));
    assert!(!found.proven, "with a choice of cloths no bound is claimed");
    // With nowhere to go they are named.
    two.pieces[0].cloths = vec!["own".into()];
    let found = lay(&two, 50);
    assert_eq!(found.unplaced[0].count, 2);
}

#[test]
fn a_lay_needed_to_its_full_length_is_warned_of() {
    let mut tight = job(inch(44), vec![piece("p", inch(40), inch(36), 1)]);
    tight.cloths[0].shop = ShopStep::default_for(System::Inches);
    assert_eq!(lay(&tight, 10).warnings.len(), 1);
    tight.cloths[0].trim = Length::inches(1, 2);
    assert!(lay(&tight, 10).warnings.is_empty());
}

#[rstest]
#[case::no_pieces(|j: &mut Job| j.pieces.clear(), "pieces")]
#[case::no_count(|j: &mut Job| j.pieces[0].count = 0, "pieces[0].count")]
#[case::too_many(|j: &mut Job| j.pieces[0].count = 10_001, "pieces[0].count")]
#[case::same_id(|j: &mut Job| j.pieces[1].id = "s0".into(), "pieces[1].id")]
#[case::unknown_cloth(|j: &mut Job| j.pieces[0].cloths = vec!["silk".into()], "pieces[0].cloths")]
#[case::no_cloth(|j: &mut Job| j.pieces[0].cloths.clear(), "pieces[0].cloths")]
#[case::no_size(|j: &mut Job| j.pieces[0].outline = Outline::Rect(inch(0), inch(5)), "pieces[0].outline")]
#[case::absurd_size(|j: &mut Job| j.pieces[0].outline = Outline::Rect(inch(5), Length::METRE * 21), "pieces[0].outline")]
#[case::all_selvedge(|j: &mut Job| j.cloths[0].selvedge = inch(10), "cloths[0].width")]
#[case::negative_trim(|j: &mut Job| j.cloths[0].trim = inch(-1), "cloths[0].trim")]
#[case::no_step(|j: &mut Job| j.cloths[0].shop.step = Some(Length::ZERO), "cloths[0].step")]
#[case::negative_gap(|j: &mut Job| j.rules.gap = inch(-1), "rules.gap")]
#[case::all_trim(|j: &mut Job| { j.cloths[0].trim = inch(6); j.cloths[0].form = Form::Roll { width: inch(20), length: Some(inch(12)), max: None } }, "cloths[0].length")]
fn a_job_that_cannot_stand_names_its_field(#[case] spoil: impl Fn(&mut Job), #[case] field: &str) {
    let mut job = squares(20, &[5, 4]);
    spoil(&mut job);
    match solve(&job, Budget::iterations(0), &mut Silent) {
        Err(NoLay::Field(problem)) => assert_eq!(problem.field, field, "{problem}"),
        other => panic!("{other:?}"),
    }
}

/// Random jobs of bag-like pieces on a roll with everything a roll can have.
fn any_job() -> impl Strategy<Value = Job> {
    let pieces =
        prop::collection::vec((8_i64..160, 8_i64..160, 1_u32..4, 0..4_usize, any::<bool>(), any::<bool>()), 1..9);
    let cloth = (200_i64..480, 0_i64..8, 0_i64..8, 0..3_usize, any::<bool>(), 0_u32..60_000, any::<bool>(), 0_i64..5);
    (pieces, cloth, any::<bool>(), any::<u64>()).prop_map(|(pieces, cloth, through, seed)| {
        let (width, selvedge, trim, print, across, shrink, step, gap) = cloth;
        let eighths = |n: i64| Length::inches(n, 8);
        let pieces = pieces
            .into_iter()
            .enumerate()
            .map(|(i, (w, h, count, grain, ignore, pairs))| JobPiece {
                count,
                grain: [Grain::Length, Grain::Across, Grain::Either, Grain::Bias][grain],
                print: if ignore { PrintRule::Ignore } else { PrintRule::Upright },
                mirror: if pairs { Mirror::Pairs } else { Mirror::No },
                ..piece(format!("p{i}"), eighths(w), eighths(h), 1)
            })
            .collect();
        let mut job = job(eighths(width), pieces);
        job.cloths[0] = Cloth {
            selvedge: eighths(selvedge),
            trim: eighths(trim),
            print: [Print::AllOver, Print::TwoWay, Print::OneWay][print],
            up: if across { PrintUp::Across } else { PrintUp::Length },
            shrink: Shrink { along: shrink, across: shrink / 2 },
            shop: if step { ShopStep::default_for(System::Inches) } else { ShopStep { step: None, min: Length::ZERO } },
            price: Some(Price { amount: Money(1_250), per: Length::YARD }),
            ..Cloth::roll("roll", eighths(width))
        };
        job.rules.cuts = if through { Cuts::Through } else { Cuts::Free };
        job.rules.gap = eighths(gap);
        job.rules.seed = seed;
        job
    })
}

/// Remembers every lay it is shown and stops after so many ticks.
struct Watch(Vec<Lay>, u64);

impl Observer for Watch {
    fn tick(&mut self, iterations: u64) -> ControlFlow<()> {
        if iterations >= self.1 { ControlFlow::Break(()) } else { ControlFlow::Continue(()) }
    }
    fn better(&mut self, lay: &Lay) {
        self.0.push(lay.clone());
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(120))]

    /// No overlap, nothing outside, allowed turns only, counts and figures right: for every lay that is shown.
    #[test]
    fn every_lay_verifies(job in any_job()) {
        let mut watch = Watch(vec![], 120);
        let last = solve(&job, Budget::iterations(500), &mut watch).expect("a sound job");
        // It stops at the end of the round, and as many iterations without a stop give the same.
        prop_assert!(last.iterations >= 120 || last.iterations == watch.0.last().map_or(0, |l| l.iterations) || last.proven);
        let again = solve(&job, Budget::iterations(last.iterations), &mut Silent).expect("a sound job");
        prop_assert_eq!(&again, &last);
        for lay in watch.0.iter().chain([&last]) {
            prop_assert_eq!(verify(&job, lay), vec![]);
        }
        // Better means better: never a longer purchase than the lay before, never below the bound.
        for pair in watch.0.windows(2) {
            prop_assert!(pair[1].bought() <= pair[0].bought());
        }
        prop_assert!(last.bought() >= last.bound.length, "the bound is above a lay that is there");
        if last.proven {
            prop_assert_eq!(last.bought(), last.bound.length);
        }
    }

    #[test]
    fn the_same_seed_and_iterations_give_the_same_lay(job in any_job()) {
        let once = solve(&job, Budget::iterations(60), &mut Silent).expect("a sound job");
        let twice = solve(&job, Budget::iterations(60), &mut Silent).expect("a sound job");
        prop_assert_eq!(once, twice);
    }

    /// Through means through: the cut tree exists, its leaves are the pieces, and no cut of the list stops short.
    #[test]
    fn through_cuts_are_really_edge_to_edge(mut job in any_job()) {
        job.rules.cuts = Cuts::Through;
        job.rules.gap = Length::ZERO;
        let lay = solve(&job, Budget::iterations(60), &mut Silent).expect("a sound job");
        for cloth in &lay.cloths {
            prop_assert!(cloth.through);
        }
        for step in cut_list(&job, &lay.cloths, &[], &[]) {
            if let Step::Cut { cut, .. } = step {
                prop_assert!(cut.kind != CutKind::Stopped);
            }
        }
    }

    /// Every piece comes off exactly once, every reading is a distance inside what lies there, and each cut but the
    /// stopped ones runs right across it.
    #[test]
    fn the_cut_list_frees_every_piece(mut job in any_job()) {
        job.rules.gap = Length::ZERO;
        let lay = solve(&job, Budget::iterations(60), &mut Silent).expect("a sound job");
        let mut freed: Vec<(String, u32)> = Vec::new();
        for step in cut_list(&job, &lay.cloths, &[], &[]) {
            freed.extend(step.frees().iter().map(|f| (f.piece.clone(), f.copy)));
            let Step::Cut { cut, .. } = step else { continue };
            let across = cut.line.y1 == cut.line.y2;
            let around = cut.lies.around;
            let room = if across { around.height } else { around.width };
            prop_assert!(cut.reading > Length::ZERO && cut.reading.0 < room);
            let whole = if across { around.width } else { around.height };
            prop_assert!(cut.line.length().0 == whole || cut.kind == CutKind::Stopped || !cut.lies.is_whole());
        }
        let mut laid: Vec<(String, u32)> =
            lay.cloths.iter().flat_map(|c| c.placements.iter().map(|p| (p.piece.clone(), p.copy))).collect();
        freed.sort();
        laid.sort();
        // A lay that fills what lies there to its edges frees its last piece with the cut before.
        let missing: Vec<_> = laid.iter().filter(|p| !freed.contains(p)).collect();
        let only_piece = lay.cloths.iter().all(|c| c.placements.len() <= 1);
        prop_assert!(missing.is_empty() || only_piece, "{missing:?} never come off");
        let twice = freed.windows(2).any(|w| w[0] == w[1]);
        prop_assert!(!twice);
    }

    /// A bound is never above a lay that exists: cut a rectangle up and ask for its own length.
    #[test]
    fn no_bound_is_above_a_known_lay(seed in any::<u64>(), n in 2_usize..14) {
        let mut random = Random::new(seed);
        let height = 8 * (10 + random.below(40) as i64);
        let job = support::dissection(8 * (20 + random.below(30) as i64), height, n, &mut random);
        let found = solve(&job, Budget::iterations(0), &mut Silent).expect("a sound job");
        prop_assert!(found.bound.length <= Length::inches(height, 8));
    }

    /// A moved piece is seen: any placement pushed by 1/64 in into a neighbour or over the edge.
    #[test]
    fn a_moved_piece_is_seen(job in any_job(), pick in any::<prop::sample::Index>()) {
        let lay = solve(&job, Budget::iterations(30), &mut Silent).expect("a sound job");
        let Some(cloth) = lay.cloths.first() else { return Ok(()) };
        let nudge = Length::inches(1, 64);
        let i = pick.index(cloth.placements.len());
        for (dx, dy) in [(nudge, Length::ZERO), (-nudge, Length::ZERO), (Length::ZERO, nudge), (Length::ZERO, -nudge)] {
            let mut moved = lay.clone();
            moved.cloths[0].placements[i].x += dx;
            moved.cloths[0].placements[i].y += dy;
            if touches(&job, &lay, i, (dx, dy)) {
                prop_assert!(!verify(&job, &moved).is_empty());
            }
        }
    }
}

/// Whether piece `i` of the first cloth has a neighbour or an edge right where it is pushed; by bounding boxes, exactly.
fn touches(job: &Job, lay: &Lay, i: usize, (dx, dy): (Length, Length)) -> bool {
    let cloth = &job.cloths[0];
    let region = |n: usize, (dx, dy): (Length, Length)| {
        let p = &lay.cloths[0].placements[n];
        let (w, h) = job.piece(&p.piece).expect("known").outline.extent(p.turn, p.mirrored);
        Region { x: (p.x + dx).0, y: (p.y + dy).0, width: w.0, height: h.0 }
    };
    let on_bias = |n: usize| !lay.cloths[0].placements[n].turn.degrees().is_multiple_of(90);
    let me = region(i, (dx, dy));
    if me.x < cloth.selvedge.0 || me.y < cloth.trim.0 {
        return true;
    }
    (0..lay.cloths[0].placements.len()).filter(|&n| n != i && !on_bias(n) && !on_bias(i)).any(|n| {
        let other = region(n, (Length::ZERO, Length::ZERO));
        me.x < other.right() && other.x < me.right() && me.y < other.top() && other.y < me.top()
    })
}

#[test]
fn verify_sees_each_kind_of_fault() {
    let mut job = squares(20, &[5, 4]);
    job.cloths[0].print = Print::OneWay;
    job.pieces[0] = JobPiece { print: PrintRule::Upright, ..job.pieces[0].clone() };
    let good = lay(&job, 20);
    let spoilt = |spoil: &dyn Fn(&mut Lay)| {
        let mut bad = good.clone();
        spoil(&mut bad);
        verify(&job, &bad)
    };
    let first = |l: &mut Lay| l.cloths[0].placements.iter().position(|p| p.piece == "s0").expect("laid");
    assert!(matches!(
        spoilt(&|l| {
            let i = first(l);
            l.cloths[0].placements[i].turn = Turn::new(180).expect("a turn")
        })[..],
        [Fault::Turn { .. }]
    ));
    assert!(matches!(spoilt(&|l| l.cloths[0].placements[0].mirrored = true)[..], [Fault::Mirror { .. }]));
    assert!(matches!(spoilt(&|l| l.cost = Money(5))[..], [Fault::Figure { .. }]));
    assert!(matches!(
        spoilt(&|l| l.cloths[0].buy_length += Length(1))[..],
        [Fault::Figure { .. }, Fault::Proof { .. }]
    ));
    assert!(
        spoilt(&|l| {
            l.cloths[0].placements.pop();
        })
        .iter()
        .any(|f| matches!(f, Fault::Count { found: 0, wanted: 1, .. }))
    );
    assert!(
        spoilt(&|l| l.cloths[0].placements[0].piece = "else".into()).iter().any(|f| matches!(f, Fault::Unknown { .. }))
    );
    assert!(spoilt(&|l| l.cloths[0].cloth = "silk".into()).iter().any(|f| matches!(f, Fault::Cloth { .. })));
    assert!(
        spoilt(&|l| l.cloths[0].placements[0].x = inch(18))
            .iter()
            .any(|f| matches!(f, Fault::Outside { edge: "right selvedge", .. }))
    );
    let offcut_over_pieces = spoilt(&|l| {
        l.cloths[0].offcuts =
            vec![bofta_core::lay::Offcut::Rect { x: inch(0), y: inch(0), width: inch(6), height: inch(5) }]
    });
    assert!(offcut_over_pieces.iter().any(|f| matches!(f, Fault::Overlap { .. })));
}

#[test]
fn a_pinwheel_does_not_come_apart_edge_to_edge() {
    let square = |x, y, width, height| Region { x, y, width, height };
    let pinwheel = [square(0, 0, 2, 1), square(2, 0, 1, 2), square(1, 2, 2, 1), square(0, 1, 1, 2), square(1, 1, 1, 1)];
    assert!(!comes_apart(square(0, 0, 3, 3), &pinwheel));
    assert!(comes_apart(square(0, 0, 3, 3), &pinwheel[..1]));
}

/// A hundred and more pieces answer at once; the engine does not stall on 2,000.
#[test]
fn many_pieces_are_laid() {
    let mut random = Random::new(7);
    let pieces = (0..40)
        .map(|i| piece(format!("p{i}"), inch(2 + random.below(12) as i64), inch(2 + random.below(12) as i64), 50))
        .collect();
    let many = job(inch(54), pieces);
    let found = lay(&many, 3);
    assert_eq!(found.cloths[0].placements.len(), 2_000);
    let full = found.bound.length.0 as f64 / found.cloths[0].needed_length.0 as f64;
    assert!(full > 0.9, "first answer within 10 % of the bound, is {full}");
}

/// Different edges of all pieces, across and along: settings of the ruler.
fn settings(lay: &Lay, job: &Job) -> usize {
    let (mut across, mut along) = (std::collections::BTreeSet::new(), std::collections::BTreeSet::new());
    for p in lay.cloths.iter().flat_map(|c| &c.placements) {
        let (width, height) = job.piece(&p.piece).expect("a piece").outline.extent(p.turn, p.mirrored);
        across.insert(p.x + width);
        along.insert(p.y + height);
    }
    across.len() + along.len()
}

/// Six of 10 × 4 and six of 10 × 6 on 30 in fill 20 in in many ways; sorted by rows the ruler is set four times down
/// the length and three across, no way takes fewer. Mixed up along three columns it would take more.
#[test]
fn of_lays_as_short_the_one_with_fewest_settings_stays() {
    let job = job(
        inch(30),
        vec![
            JobPiece { grain: Grain::Length, ..piece("low", inch(10), inch(4), 6) },
            JobPiece { grain: Grain::Length, ..piece("high", inch(10), inch(6), 6) },
        ],
    );
    let lay = lay(&job, 3_000);
    assert!(lay.proven && lay.bought() == inch(20));
    assert_eq!(settings(&lay, &job), 7);
    // Of those, copies lie together: two rows of each kind, one above the other.
    for id in ["low", "high"] {
        let feet: Vec<Length> = lay.cloths[0].placements.iter().filter(|p| p.piece == id).map(|p| p.y).collect();
        let (least, most) = (feet.iter().min().expect("laid"), feet.iter().max().expect("laid"));
        assert_eq!(*most - *least, inch(if id == "low" { 4 } else { 6 }), "{id}");
    }
}

/// Searching on takes fewer settings for lays that are as short, over twenty random jobs together.
#[test]
fn more_time_takes_fewer_settings() {
    let (mut at_first, mut after) = (0, 0);
    for seed in 0..20 {
        let mut random = Random::new(seed);
        let mut side = || inch(3 + random.below(9) as i64);
        let pieces = (0..6).map(|i| piece(format!("p{i}"), side(), side(), 1 + i % 3)).collect();
        let job = job(inch(24), pieces);
        let (first, later) = (lay(&job, 1), lay(&job, 1_000));
        if first.bought() == later.bought() && is_through_all(&first, &job) == is_through_all(&later, &job) {
            at_first += settings(&first, &job);
            after += settings(&later, &job);
        }
    }
    assert!(at_first > 0 && after < at_first, "{after} after {at_first}");
}

fn is_through_all(lay: &Lay, job: &Job) -> bool {
    lay.cloths.iter().all(|c| {
        let pieces: Vec<Region> = c
            .placements
            .iter()
            .map(|p| {
                let (width, height) = job.piece(&p.piece).expect("a piece").outline.extent(p.turn, p.mirrored);
                Region { x: p.x.0, y: p.y.0, width: width.0, height: height.0 }
            })
            .collect();
        let (right, top) = (pieces.iter().map(Region::right).max(), pieces.iter().map(Region::top).max());
        comes_apart(Region { x: 0, y: 0, width: right.unwrap_or(0), height: top.unwrap_or(0) }, &pieces)
    })
}

/// A row of thousands is as many cuts one after the other: no stack grows with it, and every piece comes off once.
#[rstest]
#[case(4_000, true)]
#[case(4_000, false)]
#[case(10_000, false)]
fn thousands_of_pieces_are_cut_on_a_small_stack(#[case] count: u32, #[case] across: bool) {
    let work = move || {
        // One above the other along the roll, or all beside each other across a wide one, none like the next.
        let (width, height) = if across { (inch(1) / 16, inch(3)) } else { (inch(40), inch(1) / 8) };
        let roll = if across { width * i64::from(count) } else { inch(44) };
        let many = job(roll, vec![JobPiece { grain: Grain::Length, ..piece("strip", width, height, count) }]);
        let found = solve(&many, Budget::iterations(0), &mut Silent).expect("laid");
        assert!(found.complete());
        let steps = cut_list(&many, &found.cloths, &[], &[]);
        let freed: usize = steps.iter().map(|s| s.frees().len()).sum();
        assert_eq!(freed, count as usize);
        assert_eq!(verify(&many, &found), []);
    };
    let thread = std::thread::Builder::new().stack_size(256 * 1024).spawn(work).expect("a thread");
    thread.join().expect("the stack holds");
}

/// Pieces of which no line frees one after the other: a pinwheel of pinwheels.
#[test]
fn stopped_cuts_free_every_piece_once_however_many() {
    let eighth = |n: i64| Length::inches(n, 8);
    let mut random = Random::new(11);
    let kinds: Vec<JobPiece> = (0..200)
        .map(|i| piece(format!("p{i}"), eighth(20 + random.below(60) as i64), eighth(20 + random.below(60) as i64), 4))
        .collect();
    let many = job(inch(60), kinds);
    let found = lay(&many, 0);
    let steps = cut_list(&many, &found.cloths, &[], &[]);
    let mut freed: Vec<(String, u32)> =
        steps.iter().flat_map(|s| s.frees()).map(|f| (f.piece.clone(), f.copy)).collect();
    freed.sort();
    freed.dedup();
    assert_eq!(freed.len(), 800);
}

/// A job of many circles, none as large as another.
fn circles(n: i64) -> Job {
    let circle = |i: i64| Outline::Circle(Length::inches(i + 32, 16));
    job(inch(54), (0..n).map(|i| support::shaped(format!("c{i}"), circle(i), 1)).collect())
}

/// Asked to stop, a search ends within some milliseconds wherever it is, claims no proof it has not finished, and what
/// it gives holds.
#[rstest]
#[case(circles(300))]
#[case(circles(60))]
#[case(support::dissection(400, 320, 40, &mut Random::new(3)))]
fn stopped_it_ends_soon_and_claims_nothing(#[case] job: Job) {
    for after in [0, 5, 40, 200] {
        let stop = Stop::new();
        let (asking, begun) = (stop.clone(), std::time::Instant::now());
        let asker = std::thread::spawn(move || {
            std::thread::sleep(std::time::Duration::from_millis(after));
            asking.ask();
            std::time::Instant::now()
        });
        let found = solve(&job, Budget::endless().until(&stop), &mut Silent);
        let ended = std::time::Instant::now();
        let asked = asker.join().expect("asked");
        match found {
            Ok(lay) => {
                assert_eq!(verify(&job, &lay), []);
                assert!(lay.complete(), "what was not tried is not said to fit nowhere");
            }
            Err(e) => assert_eq!(e, NoLay::OutOfTime),
        }
        // On a busy machine a thread may wait for its turn; beyond a second it is not that.
        let late = ended.saturating_duration_since(asked);
        assert!(late < std::time::Duration::from_secs(1), "{late:?} after it was asked at {:?}", asked - begun);
    }
}

/// Laid by hulls or boxes for want of memory, a lay says so and its bound is none of the boxes'.
#[test]
fn too_many_outlines_are_laid_by_plainer_ones_and_that_is_said() {
    let found = lay(&circles(200), 0);
    assert!(found.complete());
    assert!(found.warnings.iter().any(|w| w.contains("by the boxes around them")), "{:?}", found.warnings);
    assert!(found.cloths[0].bound < found.cloths[0].buy_length, "a bound of boxes would be too high");
    assert!(!lay(&circles(60), 0).warnings.iter().any(|w| w.contains("outlines")));
}

#[test]
fn what_a_job_holds_too_much_of_is_named() {
    let refused = |job: &Job| match solve(job, Budget::iterations(0), &mut Silent) {
        Err(NoLay::Field(problem)) => problem.field,
        other => panic!("{other:?}"),
    };
    assert_eq!(refused(&circles(401)), "pieces");
    let mut dear = job(inch(44), vec![piece("a", inch(4), inch(4), 1)]);
    dear.cloths[0].price = Some(Price { amount: Money(i64::MAX), per: Length::YARD });
    assert_eq!(refused(&dear), "cloths[0].price.amount");
    dear.cloths[0].price = Some(Price { amount: Money(1), per: Length(1) });
    assert_eq!(refused(&dear), "cloths[0].price.per");
    let corners: Vec<bofta_core::shape::Point> =
        (0..500).map(|i| bofta_core::shape::Point::new(Length(i * 1000), Length(i * i))).collect();
    assert!(Outline::polygon(corners).expect_err("refused").to_string().contains("at most 400"));
}

/// A job whose pieces have a choice of cloths: a sheet, a scrap with a bay, and a roll to buy.
fn a_choice() -> Job {
    let mut random = Random::new(5);
    let mut side = || inch(2 + random.below(7) as i64);
    let mut pieces: Vec<JobPiece> = (0..7).map(|i| piece(format!("p{i}"), side(), side(), 1 + i % 2)).collect();
    pieces.push(support::shaped("base", Outline::Circle(inch(5)), 2));
    for piece in &mut pieces {
        piece.cloths = vec!["sheet".into(), "scrap".into(), "roll".into()];
    }
    let mut job = job(inch(30), pieces);
    let p = |x: i64, y: i64| bofta_core::shape::Point::new(inch(x), inch(y));
    let bay = Outline::polygon(vec![p(0, 0), p(16, 0), p(16, 14), p(9, 14), p(8, 9), p(0, 12)]).expect("a scrap");
    let owned = |form| Cloth { form, owned: true, ..Cloth::roll("", inch(1)) };
    let sheet = Form::Sheet { width: inch(18), height: inch(9), count: 1 };
    job.cloths.push(Cloth { id: "sheet".into(), ..owned(sheet) });
    job.cloths.push(Cloth { id: "scrap".into(), ..owned(Form::Scrap { outline: bay, flaws: vec![] }) });
    job
}

/// Some of it lies on what is at hand, the rest is bought; a share is tried that is known already.
fn cloth_at_hand() -> Job {
    let mut job = job(inch(44), vec![piece("panel", inch(14), inch(12), 4), piece("strap", inch(3), inch(20), 2)]);
    job.pieces.push(support::shaped("flap", Outline::Circle(inch(9)), 2));
    job.pieces.push(piece("tab", inch(3), inch(3), 6));
    for piece in &mut job.pieces {
        piece.cloths = vec!["scrap".into(), "fat quarter".into(), "roll".into()];
    }
    let p = |x: i64, y: i64| bofta_core::shape::Point::new(inch(x), inch(y));
    let scrap = Outline::polygon(vec![p(0, 0), p(14, 0), p(53, 9), p(6, 11), p(0, 7)]).expect("a scrap");
    let owned = |form| Cloth { form, owned: true, ..Cloth::roll("", inch(1)) };
    let quarter = Form::Sheet { width: inch(21), height: inch(18), count: 3 };
    job.cloths.push(Cloth { id: "fat quarter".into(), ..owned(quarter) });
    job.cloths.push(Cloth { id: "scrap".into(), ..owned(Form::Scrap { outline: scrap, flaws: vec![] }) });
    job
}

/// Stopped at every look there is at the flag: either there is no lay, or it holds every piece, claims what holds and no
/// more. Never a plan with pieces missing that looks whole.
#[rstest]
#[case(squares(20, &[9, 8, 7, 5, 4, 4, 3]))]
#[case(support::dissection(96, 80, 12, &mut Random::new(9)))]
#[case(circles(9))]
#[case(a_choice())]
#[case(cloth_at_hand())]
fn stopped_at_any_moment_nothing_is_missing(#[case] job: Job) {
    let whole = solve(&job, Budget::iterations(200), &mut Silent).expect("laid");
    let owned = |id: &str| job.cloth(id).is_some_and(|c| c.owned);
    let bought = |lay: &Lay| lay.cloths.iter().filter(|c| !owned(&c.cloth)).map(|c| c.buy_length).sum::<Length>();
    let (mut none, mut some, mut looks) = (0, 0, 0);
    while looks < 20_000 {
        match solve(&job, Budget::iterations(200).until(&Stop::after(looks)), &mut Silent) {
            Err(e) => {
                assert_eq!(e, NoLay::OutOfTime);
                none += 1;
            }
            Ok(lay) => {
                assert_eq!(verify(&job, &lay), [], "stopped at look {looks}");
                assert!(lay.complete(), "stopped at look {looks}: {:?}", lay.unplaced);
                assert!(
                    !lay.proven || bought(&lay) <= bought(&whole),
                    "stopped at look {looks}: proven, and yet longer"
                );
                some += 1;
            }
        }
        looks += 1 + looks / 12;
    }
    assert!(none > 0 && some > 10, "{none} {some}");
}

/// Four boards about a square, none of which comes off by a cut right across: each cut that stops says where, and that is
/// the corner of the piece it frees.
#[test]
fn a_stopped_cut_says_where_it_stops() {
    let board =
        |i: i64| JobPiece { grain: bofta_core::piece::Grain::Either, ..piece(format!("b{i}"), inch(6), inch(9), 1) };
    let mut pieces: Vec<JobPiece> = (0..4).map(board).collect();
    pieces.push(piece("square", inch(3), inch(3), 1));
    let wheel = job(inch(15), pieces);
    let found = lay(&wheel, 4_000);
    assert_eq!(found.cloths[0].needed_length, inch(15));
    let steps = bofta_core::cutting::cut_list(&wheel, &found.cloths, &[], &[]);
    let mut stopped = 0;
    for step in &steps {
        let bofta_core::cutting::Step::Cut { cut, .. } = step else { continue };
        assert_eq!(cut.stops_after().is_some(), cut.kind == bofta_core::cutting::CutKind::Stopped);
        if let Some(side) = cut.stops_after() {
            stopped += 1;
            assert!([inch(3), inch(6), inch(9)].contains(&side), "{side:?}");
        }
    }
    assert!(stopped > 0, "a pinwheel has no cut right across");
}

/// Any number of planners gives a lay that holds, the same on one thread and on several; more are no worse than one at
/// as many rounds.
#[rstest]
fn planners_side_by_side_give_the_same_on_any_threads(#[values(1, 2, 3, 5)] planners: u32) {
    for seed in 1..4 {
        let random = &mut Random::new(seed);
        let mut side = || inch(2 + random.below(11) as i64);
        let pieces = (0..14).map(|i| piece(format!("p{i}"), side(), side(), 1)).collect();
        let mut job = job(inch(44), pieces);
        (job.rules.seed, job.rules.planners) = (seed, planners);
        let with = |threads: usize, rounds: u64| {
            let budget = Budget { threads, ..Budget::iterations(rounds * u64::from(planners)) };
            solve(&job, budget, &mut Silent).expect("laid")
        };
        let one = with(1, 60);
        assert_eq!(verify(&job, &one), []);
        for threads in [2, 4, 16] {
            assert_eq!(with(threads, 60), one, "{planners} planners on {threads} threads");
        }
        let mut alone = job.clone();
        alone.rules.planners = 1;
        let alone = solve(&alone, Budget::iterations(60), &mut Silent).expect("laid");
        assert!(one.cloths[0].needed_length <= alone.cloths[0].needed_length);
    }
}

#[test]
fn too_many_or_no_planners_are_refused_by_name() {
    for n in [0, 17, u32::MAX] {
        let mut job = squares(40, &[10, 10]);
        job.rules.planners = n;
        assert_eq!(job.check().expect_err("refused").field, "rules.planners");
    }
}

/// What is called worth keeping is bare, and no cut of the plan runs through it.
#[test]
fn what_is_kept_stays_whole() {
    let mut kept = 0;
    for seed in 0..30 {
        let random = &mut Random::new(seed);
        let mut side = || inch(3 + random.below(15) as i64);
        let pieces = (0..8).map(|i| piece(format!("p{i}"), side(), side(), 1)).collect();
        let mut job = job(inch(44), pieces);
        job.cloths[0].shop = ShopStep { step: Some(inch(18)), min: Length::ZERO };
        (job.cloths[0].selvedge, job.cloths[0].trim) = (inch(1), inch(1));
        let found = lay(&job, 60);
        let cloth = &found.cloths[0];
        let parts: Vec<_> = bofta_core::cutting::left_whole(&job, cloth).into_iter().map(|p| p.at).collect();
        kept += parts.len();
        for (n, part) in parts.iter().enumerate() {
            // Neither the selvedges nor the trimmed ends are kept.
            assert!(part.x >= inch(1).0 && part.right() <= inch(43).0 && part.y >= inch(1).0);
            assert!(part.top() <= (cloth.buy_length - inch(1)).0);
            let apart = |x: i64, y: i64, right: i64, top: i64| {
                right <= part.x || x >= part.right() || top <= part.y || y >= part.top()
            };
            for p in &cloth.placements {
                let (w, h) = job.piece(&p.piece).expect("there").outline.extent(p.turn, p.mirrored);
                assert!(apart(p.x.0, p.y.0, (p.x + w).0, (p.y + h).0), "{} lies on what is kept", p.piece);
            }
            for other in &parts[n + 1..] {
                assert!(apart(other.x, other.y, other.right(), other.top()), "two parts share cloth");
            }
            for step in bofta_core::cutting::cut_list(&job, &found.cloths, &[], &[]) {
                let bofta_core::cutting::Step::Cut { cut, .. } = step else { continue };
                let line = cut.line;
                let within = line.x1.0.max(line.x2.0) > part.x
                    && line.x1.0.min(line.x2.0) < part.right()
                    && line.y1.0.max(line.y2.0) > part.y
                    && line.y1.0.min(line.y2.0) < part.top();
                assert!(!within, "a cut runs through what is kept: {line:?} {part:?}");
            }
        }
    }
    assert!(kept > 10, "{kept}");
}

/// Where bare cloth lies both beside and beyond the pieces, the cuts keep the larger of the two in one.
#[rstest]
// Beside two of 10 × 20, side by side, 34 in × the whole length is kept, not 34 × 20 and a strip beyond.
#[case(10, 40, (34, 27))]
// Beyond a strip 45 wide and 10 long nothing reaches up beside it that is larger.
#[case(45, 10, (54, 8))]
// A strip 50 wide leaves 4 in beside it: too narrow to keep, however long.
#[case(50, 37, (54, 8))]
fn the_larger_part_is_kept_whole(#[case] width: i64, #[case] height: i64, #[case] kept: (i64, i64)) {
    let half = inch(height) / 2;
    let mut job = job(inch(54), vec![piece("near", inch(width), half, 1), piece("far", inch(width), half, 1)]);
    for piece in &mut job.pieces {
        piece.grain = Grain::Length;
    }
    // 45 in for the first, 18 for the second: longer than the pieces by some.
    job.cloths[0].shop = ShopStep { step: Some(inch(9)), min: Length::ZERO };
    let found = lay(&job, 60);
    let parts = bofta_core::cutting::left_whole(&job, &found.cloths[0]);
    let (w, h) = (parts[0].width, parts[0].height);
    assert_eq!((w, h), (inch(kept.0), inch(kept.1)), "{parts:?}");
    // All pieces come off all the same.
    let freed: usize = cut_list(&job, &found.cloths, &[], &[]).iter().map(|s| s.frees().len()).sum();
    assert_eq!(freed, 2);
}

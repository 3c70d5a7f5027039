//! Shaped pieces: no-fit regions against another geometry library, lays by true outlines, and what they must reach.
#![allow(missing_docs)]

use crate::shapes;

use crate::support::{job, piece, shaped};
use bofta_core::cloth::{Cloth, Print};
use bofta_core::cutting::{Step, cut_list};
use bofta_core::lay::{Aim, Budget, Cuts, Job, JobPiece, Lay, Random, Silent, solve, verify};
use bofta_core::measure::{Length, ShopStep, System};
use bofta_core::piece::{Grain, Mirror, PrintRule};
use bofta_core::shape::{
    NoFit, Outline, Point, Turn, area_below, convex_hull, convex_parts, inner_rectangle, is_convex,
};
use geo::{Area as _, BooleanOps, LineString, Polygon};
use proptest::prelude::*;
use shapes::any_shape;

fn inch(n: i64) -> Length {
    Length::INCH * n
}

fn polygon(corners: &[Point], x: i64, y: i64) -> Polygon<f64> {
    let ring: Vec<(f64, f64)> = corners.iter().map(|p| ((p.x.0 + x) as f64, (p.y.0 + y) as f64)).collect();
    Polygon::new(LineString::from(ring), vec![])
}

fn lay(job: &Job, iterations: u64) -> Lay {
    let lay = solve(job, Budget::iterations(iterations), &mut Silent).expect("a sound job");
    assert_eq!(verify(job, &lay), []);
    lay
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(150))]

    /// Convex parts are convex, and together are the outline: checked by area and against the boolean operations of
    /// the `geo` crate.
    #[test]
    fn convex_parts_cover_the_outline(outline in any_shape(), turn in 0_u16..4, mirrored in any::<bool>()) {
        let corners = outline.placed(Turn::new(turn * 90).expect("a turn"), mirrored);
        let parts = convex_parts(&corners);
        let whole = polygon(&corners, 0, 0);
        let mut area = 0.0;
        for part in &parts {
            prop_assert!(is_convex(part));
            let part = polygon(part, 0, 0);
            area += part.unsigned_area();
            let outside = part.difference(&whole).unsigned_area();
            prop_assert!(outside < 1e-6 * whole.unsigned_area(), "{outside} lies outside");
        }
        prop_assert!((area - whole.unsigned_area()).abs() < 1e-9 * area);
        let hull = convex_hull(&corners);
        prop_assert!(is_convex(&hull) && polygon(&hull, 0, 0).unsigned_area() >= area * (1.0 - 1e-9));
        // Cut at a level, what is below and what is above add up.
        let (_, height) = outline.extent(Turn::new(turn * 90).expect("a turn"), false);
        let below: f64 = parts.iter().map(|p| area_below(p, height.0 / 3)).sum();
        let band = geo::Rect::new((-1e7, -1e7), (1e8, (height.0 / 3) as f64)).to_polygon();
        prop_assert!((below - whole.intersection(&band).unsigned_area()).abs() < 1e-6 * area);
    }

    /// Two shapes overlap exactly where the no-fit region says so; where it says how deep, moving that far parts a
    /// convex pair.
    #[test]
    fn no_fit_regions_agree_with_boolean_operations(
        a in any_shape(), b in any_shape(), x in -140_i64..140, y in -140_i64..140,
    ) {
        let none = Turn::NONE;
        let (ca, cb) = (a.placed(none, false), b.placed(none, false));
        let nofit = NoFit::of(&convex_parts(&ca), &convex_parts(&cb), Length::ZERO);
        let (x, y) = (Length::inches(x, 8).0, Length::inches(y, 8).0);
        let shared = polygon(&ca, 0, 0).intersection(&polygon(&cb, x, y)).unsigned_area();
        let depth = nofit.depth(x, y);
        // A sliver of a unit along the edges is touching.
        let sliver = 1e9;
        prop_assert_eq!(depth > 0.0, shared > 0.0 || depth > 8.0, "depth {}, shared {}", depth, shared);
        if depth == 0.0 {
            prop_assert!(shared < sliver, "{shared} shared where nothing should be");
        }
    }

    /// The rectangle found inside a shape really is inside.
    #[test]
    fn an_inner_rectangle_is_inside(outline in any_shape()) {
        let corners = outline.placed(Turn::NONE, false);
        if let Some([.., w, h]) = inner_rectangle(&corners) {
            prop_assert!((w * h).0 <= outline.area().0);
            let (width, height) = outline.size();
            prop_assert!(w <= width && h <= height);
            if let Outline::Rect(..) = outline {
                prop_assert_eq!((w, h), (width, height));
            }
        }
    }
}

/// Random jobs of shapes and rectangles on a roll with everything a roll can have.
fn any_shaped_job() -> impl Strategy<Value = Job> {
    let kinds = prop::collection::vec((any_shape(), 1_u32..4, 0..4_usize, any::<bool>(), 0..3_usize), 1..6);
    (
        kinds,
        200_i64..420,
        0_i64..6,
        0_i64..6,
        0..3_usize,
        0_u32..60_000,
        any::<bool>(),
        0..3_i64,
        any::<u64>(),
        0..5_usize,
    )
        .prop_map(|(kinds, width, selvedge, trim, print, shrink, step, gap, seed, aim)| {
            let eighths = |n: i64| Length::inches(n, 8);
            let pieces = kinds
                .into_iter()
                .enumerate()
                .map(|(i, (outline, count, grain, ignore, mirror))| JobPiece {
                    outline,
                    count,
                    grain: [Grain::Length, Grain::Across, Grain::Either, Grain::Any][grain],
                    print: if ignore { PrintRule::Ignore } else { PrintRule::Upright },
                    mirror: [Mirror::No, Mirror::Pairs, Mirror::Free][mirror],
                    ..piece(format!("p{i}"), inch(1), inch(1), 1)
                })
                .collect();
            let mut job = job(eighths(width), pieces);
            job.cloths[0] = Cloth {
                selvedge: eighths(selvedge),
                trim: eighths(trim),
                print: [Print::AllOver, Print::TwoWay, Print::OneWay][print],
                shrink: bofta_core::cloth::Shrink { along: shrink, across: shrink / 2 },
                shop: if step { ShopStep::default_for(System::Inches) } else { job.cloths[0].shop },
                ..job.cloths[0].clone()
            };
            job.rules.gap = eighths(gap);
            job.rules.seed = seed;
            job.rules.aim = [Aim::BuyLeast, Aim::FewCuts, Aim::KeepBig, Aim::ScrapsFirst, Aim::FreshCloth][aim];
            job
        })
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(60))]

    /// Inside, apart, turned and flipped as allowed, all figures right: by the separate checker; the same again on two
    /// threads; and never longer than the bounding boxes laid as rectangles from the same seed. With a gap that is a lay
    /// that comes apart by cuts from edge to edge: laid freely the boxes are nested too, corner past corner, and that
    /// search may go another way than the one of the shapes.
    #[test]
    fn shaped_lays_verify(job in any_shaped_job()) {
        let one = solve(&job, Budget { threads: 1, ..Budget::iterations(60) }, &mut Silent).expect("a sound job");
        prop_assert_eq!(verify(&job, &one), vec![]);
        let two = solve(&job, Budget { threads: 2, ..Budget::iterations(60) }, &mut Silent).expect("a sound job");
        prop_assert_eq!(&one, &two);
        prop_assert!(one.bought() >= one.bound.length);
        let mut boxes = job.clone();
        for p in &mut boxes.pieces {
            let (w, h) = p.outline.size();
            p.outline = Outline::Rect(w, h);
        }
        if job.rules.gap > Length::ZERO {
            boxes.rules.cuts = Cuts::Through;
        }
        let boxes = solve(&boxes, Budget::iterations(0), &mut Silent).expect("a sound job");
        if job.rules.aim != Aim::FewCuts {
            prop_assert!(one.bought() <= boxes.bought(), "{} bought, {} as boxes", one.bought().0, boxes.bought().0);
        }
    }

    /// More iterations never give a longer purchase.
    #[test]
    fn more_time_is_never_worse(job in any_shaped_job()) {
        if job.rules.aim == Aim::FewCuts {
            return Ok(());
        }
        let mut last = Length(i64::MAX);
        for iterations in [0, 20, 60] {
            let lay = solve(&job, Budget::iterations(iterations), &mut Silent).expect("a sound job");
            prop_assert!(lay.bought() <= last);
            last = lay.bought();
        }
    }

    /// Cut edge to edge, even shapes come off by straight cuts through what lies there, then round their outline.
    #[test]
    fn shapes_come_off_edge_to_edge(mut job in any_shaped_job()) {
        job.rules.cuts = Cuts::Through;
        job.rules.gap = Length::ZERO;
        let lay = solve(&job, Budget::iterations(30), &mut Silent).expect("a sound job");
        prop_assert_eq!(verify(&job, &lay), vec![]);
        let steps = cut_list(&job, &lay.cloths, &[], &[]);
        let stopped = |s: &Step| matches!(s, Step::Cut { cut, .. } if cut.kind == bofta_core::cutting::CutKind::Stopped);
        prop_assert!(!steps.iter().any(stopped));
        let laid: usize = lay.cloths.iter().map(|c| c.placements.len()).sum();
        let freed: usize = steps.iter().map(|s| s.frees().len()).sum();
        prop_assert!(freed == laid || laid == 1, "{freed} of {laid} come off");
    }
}

/// Two notched panels and four tabs the size of their notches: the tabs lie in the notches and take no length.
#[test]
fn tabs_nest_in_the_notches() {
    let mut job = job(
        inch(36),
        vec![
            JobPiece {
                outline: Outline::notched(inch(18), inch(16), inch(3), inch(3)),
                grain: Grain::Length,
                ..piece("panel", inch(1), inch(1), 2)
            },
            piece("tab", inch(3), inch(3), 4),
        ],
    );
    let found = lay(&job, 200);
    assert_eq!(found.cloths[0].needed_length, inch(16));
    assert!(found.proven, "no lay is shorter than the panel");
    // Laid as full rectangles, as when the notches are cut after the seams, the tabs need 3 in more.
    job.pieces[0].outline = Outline::Rect(inch(18), inch(16));
    assert_eq!(lay(&job, 200).cloths[0].needed_length, inch(19));
}

/// Two half-rounds flat side to flat side, or two wedges one upside down, share an edge exactly.
#[test]
fn edges_that_can_be_shared_are_shared() {
    let wedge = Outline::polygon(vec![
        Point::new(inch(0), inch(0)),
        Point::new(inch(9), inch(0)),
        Point::new(inch(6), inch(5)),
        Point::new(inch(3), inch(5)),
    ])
    .expect("a trapezoid");
    let wedges = job(inch(15), vec![shaped("wedge", wedge, 2)]);
    // Beside each other, one turned round, they are 9 + 6 in wide: exactly the roll.
    let found = lay(&wedges, 300);
    assert!(found.cloths[0].needed_length <= inch(5) + Length(2), "{:?}", found.cloths[0].needed_length);
}

/// A lay of rectangles with a shape among them does not come out a hair crooked: every rectangle still lies on edges
/// that are sums of the sizes.
#[test]
fn rectangles_among_shapes_stay_aligned() {
    let mut random = Random::new(7);
    let mut pieces = vec![shaped("base", Outline::circle(inch(8)).expect("a circle"), 1)];
    pieces.extend(
        (0..6).map(|i| piece(format!("p{i}"), inch(3 + random.below(9) as i64), inch(3 + random.below(9) as i64), 1)),
    );
    let job = job(inch(26), pieces);
    let found = lay(&job, 400);
    // The first row stands on the cut end, the first piece of it at the left edge, to the unit.
    let row: Vec<_> = found.cloths[0].placements.iter().filter(|p| p.y == Length::ZERO).collect();
    assert!(row.len() > 1 && row.iter().any(|p| p.x == Length::ZERO));
    let whole = found.cloths[0].placements.iter().filter(|p| p.piece != "base");
    let aligned =
        whole.clone().filter(|p| p.x.is_multiple_of(Length::inches(1, 8)) && p.y.is_multiple_of(Length::inches(1, 8)));
    // Only what leans on the circle may lie between the marks of the ruler.
    assert!(aligned.count() + 2 >= whole.count(), "{:?}", found.cloths[0].placements);
}

/// A circle's bound is that of the polygon it is laid by: squares of circles side by side are called proven rightly.
#[test]
fn circles_in_a_row_are_proven() {
    let job = job(inch(24), vec![shaped("base", Outline::circle(inch(8)).expect("a circle"), 3)]);
    let found = lay(&job, 50);
    assert_eq!(found.cloths[0].needed_length, inch(8));
    assert!(found.proven);
}

/// Sixty shapes, a first answer: all laid.
#[test]
fn sixty_shapes_are_laid_at_once() {
    let kinds = [
        Outline::notched(inch(12), inch(10), inch(2), inch(2)),
        Outline::circle(inch(7)).expect("a circle"),
        Outline::polygon(vec![
            Point::new(inch(0), inch(0)),
            Point::new(inch(9), inch(0)),
            Point::new(inch(7), inch(5)),
            Point::new(inch(2), inch(5)),
        ])
        .expect("a trapezoid"),
    ];
    let pieces = (0..60).map(|i| shaped(format!("s{i}"), kinds[i % 3].clone(), 1)).collect();
    let found = lay(&job(inch(44), pieces), 0);
    assert!(found.complete());
}

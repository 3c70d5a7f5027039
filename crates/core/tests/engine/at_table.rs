//! The cut list, carried out by somebody who has nothing else: `cutter` reads the printed sentences alone, and what it
//! obtains is compared with the pieces of the job.
#![allow(missing_docs, clippy::unwrap_used)]

use crate::carry::{carry_out, compare, plain};
use crate::cutter::Cutter;
use crate::support;
use bofta_core::cloth::{Cloth, Form, Print, Shrink};
use bofta_core::cutting::{
    Freed, LeftPart, Marking, PartShape, StatedCut, Step, cut_faults, cut_list, describe, left_shaped, left_whole,
    opening,
};
use bofta_core::lay::{Budget, ClothLay, Cuts, Job, Lay, Offcut, Random, Region, Silent, solve, verify};
use bofta_core::measure::{Length, Ruler, ShopStep, System};
use bofta_core::piece::{Grain, Mirror, PrintRule};
use bofta_core::shape::{Outline, Point};
use std::collections::BTreeMap;

fn ruler_of(job: &Job) -> Ruler {
    match job.units {
        System::Inches => Ruler::Sixteenth,
        System::Centimetres => Ruler::Millimetre,
    }
}

fn check(job: &Job, lay: &Lay) -> Result<(), String> {
    let faults = verify(job, lay);
    if !faults.is_empty() {
        return Err(format!("the lay does not hold: {}", faults[0]));
    }
    lay.cloths.iter().try_for_each(|on| carry_out(job, on, ruler_of(job)))?;
    // What `bofta check` looks at holds, too.
    let faults: Vec<String> =
        lay.cloths.iter().flat_map(|on| cut_faults(job, &left_by_cuts(job, on), &stated(job, on))).collect();
    faults.first().map_or(Ok(()), |fault| Err(format!("stated: {fault}")))
}

/// The cuts of a cloth as a lay file states them.
fn stated(job: &Job, on: &ClothLay) -> Vec<StatedCut> {
    let labels = |freed: &[Freed]| freed.iter().map(|f| format!("{} {}", f.piece, f.copy)).collect();
    let as_stated = |step| match step {
        Step::Cut { cut, .. } => Some(StatedCut {
            outline: false,
            line: [cut.line.x1, cut.line.y1, cut.line.x2, cut.line.y2],
            frees: labels(&cut.frees),
        }),
        Step::Outline { cut, .. } if cut.marking != Marking::Draw => {
            let around = [cut.around.x, cut.around.y, cut.around.right(), cut.around.top()].map(Length);
            Some(StatedCut { outline: true, line: around, frees: labels(&cut.pieces) })
        }
        _ => None,
    };
    cut_list(job, std::slice::from_ref(on), &[], &[]).into_iter().filter_map(as_stated).collect()
}

/// The lay of a cloth with what its cuts leave.
fn left_by_cuts(job: &Job, on: &ClothLay) -> ClothLay {
    let rect = |left: LeftPart| Offcut::Rect {
        x: Length(left.at.x),
        y: Length(left.at.y),
        width: Length(left.at.width),
        height: Length(left.at.height),
    };
    let rects = left_whole(job, on).into_iter().map(rect);
    let offcuts = rects.chain(left_shaped(job, on).into_iter().map(|left| Offcut::Polygon(left.corners))).collect();
    ClothLay { offcuts, ..on.clone() }
}

/// Lengths on lines of the ruler, at least one.
fn some(random: &mut Random, system: System, least: usize, most: usize) -> Length {
    let quarter = match system {
        System::Inches => Length::inches(1, 4),
        System::Centimetres => Length::MILLIMETRE * 5,
    };
    quarter * (least + random.below(most - least)) as i64
}

fn any_outline(random: &mut Random, system: System) -> Outline {
    let (w, h) = (some(random, system, 6, 40), some(random, system, 6, 40));
    let zero = Length::ZERO;
    let point = Point::new;
    match random.below(9) {
        0 => Outline::Circle(w),
        1 => Outline::notched(w, h, w / 4, h / 4),
        2 => Outline::polygon(vec![point(zero, zero), point(w, zero), point(w - w / 4, h), point(w / 4, h)]).unwrap(),
        3 => Outline::polygon(vec![point(zero, zero), point(w, zero), point(zero, h)]).unwrap(),
        4 => Outline::rounded(w, h, w / 4),
        _ => Outline::Rect(w, h),
    }
}

fn any_cloth(random: &mut Random, system: System, id: &str) -> Cloth {
    let inch = |n: i64| Length::INCH * n;
    let width = some(random, system, 60, 180);
    let mut cloth = Cloth::roll(id, width);
    if random.below(3) == 0 {
        cloth.selvedge = some(random, system, 1, 4);
        cloth.trim = some(random, system, 1, 5);
    }
    if random.below(4) == 0 {
        cloth.shrink = Shrink { along: 30_000, across: 20_000 };
    }
    if random.below(3) == 0 {
        cloth.shop = ShopStep::default_for(system);
    }
    cloth.print = [Print::AllOver, Print::TwoWay, Print::OneWay][random.below(3)];
    match random.below(7) {
        0 | 1 => {
            cloth.form = Form::Roll { width, length: Some(some(random, system, 60, 500)), max: None };
            cloth.owned = true;
        }
        2 => {
            cloth.form =
                Form::Sheet { width: some(random, system, 40, 90), height: some(random, system, 40, 90), count: 3 };
            (cloth.selvedge, cloth.trim) = (Length::ZERO, Length::ZERO);
        }
        3 => {
            let (w, h) = (some(random, system, 40, 90), some(random, system, 40, 90));
            let cut = w / 4;
            let corners = vec![
                Point::new(Length::ZERO, Length::ZERO),
                Point::new(w, inch(1)),
                Point::new(w, h),
                Point::new(cut, h),
                Point::new(Length::ZERO, h / 2),
            ];
            cloth.form = Form::Scrap { outline: Outline::polygon(corners).unwrap(), flaws: vec![] };
            (cloth.selvedge, cloth.trim, cloth.owned) = (Length::ZERO, Length::ZERO, true);
            cloth.shop = ShopStep { step: None, min: Length::ZERO };
        }
        4 | 5 => cloth.layers = 2,
        _ => {}
    }
    cloth
}

fn any_job(random: &mut Random) -> Job {
    let system = if random.below(2) == 0 { System::Inches } else { System::Centimetres };
    let cloths: Vec<Cloth> =
        (0..1 + random.below(2)).map(|n| any_cloth(random, system, &format!("cloth{n}"))).collect();
    let straight = random.below(2) == 0;
    let pieces = (0..1 + random.below(7))
        .map(|n| {
            let outline = any_outline(random, system);
            let (w, h) = outline.size();
            let outline = if straight { Outline::Rect(w, h) } else { outline };
            let own = random.below(cloths.len());
            let mut piece = support::shaped(format!("p{n}"), outline, 1 + random.below(5) as u32);
            piece.cloths = if random.below(2) == 0 {
                vec![format!("cloth{own}")]
            } else {
                cloths.iter().map(|c| c.id.clone()).collect()
            };
            piece.grain = [Grain::Length, Grain::Across, Grain::Either, Grain::Bias, Grain::Any][random.below(5)];
            piece.print = [PrintRule::Ignore, PrintRule::Upright][random.below(2)];
            piece.mirror = [Mirror::No, Mirror::Pairs, Mirror::Free][random.below(3)];
            piece
        })
        .collect();
    let mut job = Job { units: system, cloths, ..support::job(Length::INCH, pieces) };
    job.rules.cuts = if random.below(4) == 0 { Cuts::Through } else { Cuts::Free };
    if random.below(4) == 0 {
        job.rules.gap = some(random, system, 1, 3);
    }
    job
}

/// Cases of a random run: a short run on every push, a long one with `BOFTA_CASES` set.
fn cases(short: u64) -> u64 {
    std::env::var("BOFTA_CASES").ok().and_then(|n| n.parse().ok()).unwrap_or(short)
}

/// Where it begins: `BOFTA_SEED` for other cases, or for one that failed.
fn first() -> u64 {
    std::env::var("BOFTA_SEED").ok().and_then(|n| n.parse().ok()).unwrap_or(0)
}

#[test]
fn what_is_printed_gives_every_piece_on_any_cloth() {
    let mut cut = 0;
    let mut faults = vec![];
    for seed in first()..first() + cases(250) {
        let mut random = Random::new(seed);
        let job = any_job(&mut random);
        let Ok(lay) = solve(&job, Budget::iterations(12), &mut Silent) else { continue };
        cut += lay.cloths.len();
        if let Err(why) = check(&job, &lay) {
            faults.push(format!("seed {seed}: {why}"));
        }
    }
    assert!(faults.is_empty(), "{} of {cut} cloths: {:#?}", faults.len(), &faults[..faults.len().min(12)]);
    assert!(cut > 0, "something is cut");
}

/// Dissections hold pinwheels, which no cut from edge to edge takes apart.
#[test]
fn what_no_cut_from_edge_to_edge_takes_apart_is_cut_corner_by_corner() {
    let mut stopped = 0;
    for seed in 0..cases(60) {
        let mut random = Random::new(seed);
        let job = support::dissection(200, 160, 5 + random.below(20), &mut random);
        let lay = solve(&job, Budget::iterations(30), &mut Silent).unwrap();
        check(&job, &lay).unwrap_or_else(|why| panic!("seed {seed}: {why}"));
        let steps = cut_list(&job, &lay.cloths, &[], &[]);
        stopped += steps.iter().filter(|s| describe(s, &job, &[], Ruler::Eighth).how.contains("stop after")).count();
    }
    assert!(stopped > 0, "some of them need cuts that stop");
}

/// A swapped order, a wrong reading, a wrong stop: the cutter notices.
#[test]
fn a_cut_list_that_is_wrong_is_noticed() {
    let mut random = Random::new(3);
    let job = support::dissection(200, 160, 12, &mut random);
    let lay = solve(&job, Budget::iterations(30), &mut Silent).unwrap();
    let on = &lay.cloths[0];
    let ruler = Ruler::Eighth;
    let words: Vec<_> = cut_list(&job, &lay.cloths, &[], &[]).iter().map(|s| describe(s, &job, &[], ruler)).collect();
    let cloth = &job.cloths[0];
    let size = (plain(&job, cloth.washed_width()), plain(&job, on.buy_length));
    let carried = |words: &[bofta_core::cutting::StepWords]| -> Result<(), String> {
        let line = (job.units.symbol(), 0.125);
        let mut cutter = Cutter::new(&opening(&job, on, ruler), size, vec![], line, BTreeMap::new(), (0.0, 0.0))?;
        words.iter().try_for_each(|w| cutter.step(&w.how, &w.then))?;
        compare(&job, cloth, on, &cutter)
    };
    assert_eq!(carried(&words), Ok(()));
    for n in 0..words.len() - 1 {
        let mut swapped = words.clone();
        swapped.swap(n, n + 1);
        // Cuts on two parts that both lie there do not depend on each other.
        let part = |w: &bofta_core::cutting::StepWords| w.how.split(' ').nth(1).map(str::to_owned);
        let apart = part(&words[n]) != part(&words[n + 1]);
        assert!(carried(&swapped).is_err() || apart, "steps {n} and {} swapped", n + 1);
        let mut missing = words.clone();
        missing.remove(n);
        assert!(carried(&missing).is_err(), "step {n} left out");
    }
}

#[test]
fn a_corner_cut_out_and_what_remains_make_the_part() {
    let region = |x: i64, y: i64, width: i64, height: i64| Region { x, y, width, height };
    let doubled = |shape: &PartShape| -> i64 {
        let c = shape.corners();
        (0..c.len()).map(|i| c[i].x.0 * c[(i + 1) % c.len()].y.0 - c[(i + 1) % c.len()].x.0 * c[i].y.0).sum()
    };
    let part = PartShape::whole(region(10, 20, 100, 80));
    let (one, rest) = part.without_corner(40, 90);
    assert_eq!((doubled(&one), doubled(&rest)), (2 * 30 * 70, 2 * (8_000 - 2_100)));
    let (two, rest) = rest.without_corner(70, 50);
    assert_eq!((doubled(&two), doubled(&rest)), (2 * 30 * 30, 2 * (8_000 - 2_100 - 900)));
    for (across, at) in [(true, 30), (true, 50), (true, 70), (true, 95), (false, 30), (false, 55), (false, 80)] {
        let (near, far) = rest.split(across, at);
        assert_eq!(doubled(&near) + doubled(&far), doubled(&rest), "{across} {at}");
    }
}

//! Jobs made from a lay that is known: whatever is claimed to be the least, it is never above it.
//!
//! `BOFTA_KNOWN` says how many jobs are tried of all kinds together; `scripts/fuzz` tries 5,000.
#![allow(missing_docs)]

use crate::support::{job, piece, shaped};
use bofta_core::cloth::{Cloth, Form, Money, Price};
use bofta_core::lay::{Budget, Cuts, Fault, Job, JobPiece, Lay, Random, Rule, Silent, Whole, solve, verify};
use bofta_core::measure::{Length, ShopStep, System};
use bofta_core::piece::{Grain, Mirror};
use bofta_core::shape::{Outline, Point};

fn eighths(n: i64) -> Length {
    Length::inches(n, 8)
}

fn point(x: i64, y: i64) -> Point {
    Point::new(eighths(x), eighths(y))
}

fn between(random: &mut Random, low: i64, high: i64) -> i64 {
    low + random.below((high - low + 1) as usize) as i64
}

/// A job and a lay that is known to hold it: so long, or on so many sheets.
struct Known {
    job: Job,
    length: Length,
    sheets: usize,
}

impl Known {
    fn roll(job: Job, length: i64) -> Self {
        Self { job, length: eighths(length), sheets: 1 }
    }
}

fn upright(piece: JobPiece) -> JobPiece {
    JobPiece { grain: Grain::Length, ..piece }
}

/// Rows of two trapezoids whose slanted sides meet: a row is as wide as the cloth.
fn slanted_pairs(random: &mut Random) -> Known {
    let (width, rows) = (between(random, 60, 300), between(random, 1, 4));
    let height = between(random, 30, 120);
    let mut pieces = Vec::new();
    for row in 0..rows {
        let (foot, top) = (between(random, 0, width - 8), between(random, 8, width - 8));
        let left = vec![point(0, 0), point(foot, 0), point(top, height), point(0, height)];
        let right = vec![point(foot, 0), point(width, 0), point(width, height), point(top, height)];
        for (name, ring) in [("left", left), ("right", right)] {
            pieces.push(shaped(format!("{name} {row}"), moved(ring), 1));
        }
    }
    let pieces = if random.below(2) == 0 { pieces.into_iter().map(upright).collect() } else { pieces };
    Known::roll(job(eighths(width), pieces), rows * height)
}

/// An outline from its corners, moved to the origin.
fn moved(ring: Vec<Point>) -> Outline {
    let left = ring.iter().map(|p| p.x).min().expect("corners");
    let low = ring.iter().map(|p| p.y).min().expect("corners");
    let mut corners: Vec<Point> = ring.iter().map(|p| Point::new(p.x - left, p.y - low)).collect();
    corners.dedup();
    if corners.first() == corners.last() {
        corners.pop();
    }
    Outline::polygon(corners).expect("a simple polygon")
}

/// Rows of pairs of one trapezoid, one copy the mirror image of the other.
fn mirrored_pairs(random: &mut Random) -> Known {
    let (half, height) = (between(random, 40, 150), between(random, 30, 120));
    let top = between(random, 8, half);
    let rows = between(random, 1, 4);
    let ring = vec![point(0, 0), point(half, 0), point(half, height), point(half - top, height)];
    let pair = JobPiece { mirror: Mirror::Pairs, ..shaped("side", moved(ring), 2 * rows as u32) };
    Known::roll(job(eighths(2 * half), vec![upright(pair)]), rows * height)
}

/// A rectangle cut from side to side again and again into quadrilaterals and triangles.
fn tiles(random: &mut Random) -> Known {
    let n = between(random, 3, 12);
    tiles_of(random, n)
}

fn tiles_of(random: &mut Random, n: i64) -> Known {
    let (width, height) = (between(random, 80, 300), between(random, 40, 300));
    let mut rings = vec![vec![point(0, 0), point(width, 0), point(width, height), point(0, height)]];
    while (rings.len() as i64) < n {
        let at = (0..rings.len()).max_by_key(|&i| Outline::Polygon(rings[i].clone()).area().0).expect("a part");
        let ring = rings.swap_remove(at);
        let (i, j) = (random.below(ring.len()), 1 + random.below(ring.len() - 1));
        let j = (i + j) % ring.len();
        let (i, j) = (i.min(j), i.max(j));
        let mut within = |i: usize| {
            let (a, b) = (ring[i], ring[(i + 1) % ring.len()]);
            let share = between(random, 2, 6);
            Point::new(a.x + (b.x - a.x) * share / 8, a.y + (b.y - a.y) * share / 8)
        };
        let (p, q) = (within(i), within(j));
        let one = [p].into_iter().chain(ring[i + 1..=j].iter().copied()).chain([q]);
        let two = [q].into_iter().chain(ring[j + 1..].iter().copied()).chain(ring[..=i].iter().copied()).chain([p]);
        let (one, two) = (one.collect(), two.collect());
        rings.extend([one, two]);
    }
    // A corner on a slanted side is rounded to a unit, so that tiles may overlap by one: they lie apart by as much again.
    const ROUNDED: Length = Length(64);
    let pieces = rings.into_iter().enumerate().map(|(i, ring)| upright(shaped(format!("p{i}"), moved(ring), 1)));
    let known = Known::roll(job(eighths(width), pieces.collect()), height);
    Known { length: known.length + ROUNDED, ..known }
}

/// Rectangles that climb across the cloth, each corner to corner with the next, just as far apart as asked.
fn corner_to_corner(random: &mut Random) -> Known {
    // Legs of right triangles in whole eighths, and their hypotenuse.
    let (dx, dy, gap) = [(3, 4, 5), (4, 3, 5), (5, 12, 13), (12, 5, 13), (8, 6, 10)][random.below(5)];
    let n = between(random, 2, 4);
    let sides: Vec<(i64, i64)> = (0..n).map(|_| (between(random, 16, 90), between(random, 16, 90))).collect();
    let width = sides.iter().map(|s| s.0).sum::<i64>() + dx * (n - 1);
    let length = sides.iter().map(|s| s.1).sum::<i64>() + dy * (n - 1);
    let pieces = sides.iter().enumerate().map(|(i, &(w, h))| {
        let piece = piece(format!("p{i}"), eighths(w), eighths(h), 1);
        if i % 2 == 0 { upright(piece) } else { piece }
    });
    let mut known = Known::roll(job(eighths(width), pieces.collect()), length);
    known.job.rules.gap = eighths(gap);
    if random.below(3) == 0 {
        known.job.rules.cuts = Cuts::Through;
    }
    known
}

/// A rectangle cut edge to edge.
fn parts_of(width: i64, height: i64, n: usize, random: &mut Random) -> Vec<(i64, i64)> {
    let mut parts = vec![(width, height)];
    while parts.len() < n {
        parts.sort_by_key(|(w, h)| w * h);
        let (w, h) = parts.pop().expect("a part");
        let mut at = |side: i64| side / 4 + random.below((side / 2).max(1) as usize) as i64;
        if w >= h {
            let at = at(w);
            parts.extend([(at, h), (w - at, h)]);
        } else {
            let at = at(h);
            parts.extend([(w, at), (w, h - at)]);
        }
    }
    parts
}

fn cut_edge_to_edge(random: &mut Random) -> Known {
    let (width, height) = (between(random, 90, 320), between(random, 60, 300));
    let n = 2 + random.below(12);
    let parts = parts_of(width, height, n, random);
    let pieces = parts.iter().enumerate().map(|(i, &(w, h))| piece(format!("p{i}"), eighths(w), eighths(h), 1));
    let mut known = Known::roll(job(eighths(width), pieces.collect()), height);
    if random.below(2) == 0 {
        known.job.rules.cuts = Cuts::Through;
    }
    known
}

/// Sheets used up to the last corner.
fn whole_sheets(random: &mut Random) -> Known {
    let (width, height, sheets) = (between(random, 60, 180), between(random, 60, 180), between(random, 2, 4));
    let mut pieces = Vec::new();
    for sheet in 0..sheets {
        let n = 1 + random.below(3);
        for (i, (w, h)) in parts_of(width, height, n, random).into_iter().enumerate() {
            let made = piece(format!("p{sheet} {i}"), eighths(w), eighths(h), 1);
            pieces.push(if random.below(2) == 0 { upright(made) } else { made });
        }
    }
    let mut made = job(eighths(width), pieces);
    made.cloths[0].form = Form::Sheet { width: eighths(width), height: eighths(height), count: 2 * sheets as u32 };
    made.cloths[0].price = Some(Price { amount: Money(500), per: eighths(height) });
    if random.below(2) == 0 {
        made.rules.cuts = Cuts::Through;
    }
    Known { job: made, length: eighths(height), sheets: sheets as usize }
}

/// Folded cloth: pieces come in pairs over both layers, one lies half on the fold.
fn folded(random: &mut Random) -> Known {
    let (width, height) = (between(random, 80, 200), between(random, 60, 240));
    let n = 2 + random.below(6);
    // The first row begins at the fold with half of one piece.
    let (first, beside) = (between(random, 10, width - 20), between(random, 20, 90));
    let mut pieces = vec![
        upright(piece("on the fold", eighths(2 * first), eighths(beside), 1)),
        upright(piece("beside", eighths(width - first), eighths(beside), 2)),
    ];
    for (i, (w, h)) in parts_of(width, height, n, random).into_iter().enumerate() {
        pieces.push(upright(piece(format!("p{i}"), eighths(w), eighths(h), 2)));
    }
    let mut made = job(eighths(2 * width), pieces);
    made.cloths[0].layers = 2;
    Known::roll(made, height + beside)
}

type Make = fn(&mut Random) -> Known;

const KINDS: [(&str, Make); 7] = [
    ("slanted pairs", slanted_pairs),
    ("mirrored pairs", mirrored_pairs),
    ("tiles", tiles),
    ("corner to corner", corner_to_corner),
    ("cut edge to edge", cut_edge_to_edge),
    ("whole sheets", whole_sheets),
    ("folded", folded),
];

fn laid(job: &Job, iterations: u64) -> Lay {
    solve(job, Budget::iterations(iterations), &mut Silent).expect("laid")
}

#[test]
fn no_claim_goes_above_what_is_known() {
    let jobs: u64 = std::env::var("BOFTA_KNOWN").ok().and_then(|n| n.parse().ok()).unwrap_or(300);
    let mut proven = [0; KINDS.len()];
    for number in 0..jobs {
        let kind = number as usize % KINDS.len();
        let random = &mut Random::new(number.wrapping_mul(0x9E37_79B9).wrapping_add(7));
        let Known { mut job, length, sheets } = (KINDS[kind].1)(random);
        let what = format!("{} {number}", KINDS[kind].0);
        if job.cloths[0].price.is_none() {
            let step = [1, 3, 4, 9, 36][random.below(5)];
            job.cloths[0].shop = ShopStep { step: Some(Length::INCH * step), min: Length::ZERO };
        }
        let lay = laid(&job, 220);
        assert_eq!(verify(&job, &lay), [], "{what}");
        assert!(lay.complete(), "{what}: {:?}", lay.unplaced);
        let cloth = &job.cloths[0];
        let possible = cloth.buy_length(cloth.needed_length(length)) * sheets as i64;
        assert!(
            lay.bound.length <= possible,
            "{what}: {:?} is said to be needed, {possible:?} do: {:?}",
            lay.bound.length,
            lay.cloths[0].proof
        );
        for needed in &lay.sheets {
            assert!(needed.least as usize <= sheets, "{what}: {} sheets, {sheets} do", needed.least);
        }
        if lay.proven {
            proven[kind] += 1;
            assert!(lay.bought() <= possible, "{what}: proven, and longer than what is possible");
        }
    }
    // What is never proven would be shown by never claiming anything.
    let each = jobs as usize / KINDS.len();
    for (kind, n) in proven.iter().enumerate() {
        assert!(*n * 5 >= each, "{}: {n} of {each} proven", KINDS[kind].0);
    }
    println!("{jobs} jobs, proven of each {each}: {proven:?}");
}

/// Two squares of 6 in on 12.8 in, an inch apart: corner to corner they take 12.6 in, not 13.
#[test]
fn a_gap_is_held_corner_to_corner() {
    let mut two = job(Length::INCH * 64 / 5, vec![piece("square", Length::INCH * 6, Length::INCH * 6, 2)]);
    two.rules.gap = Length::INCH;
    let lay = laid(&two, 400);
    assert_eq!(verify(&two, &lay), []);
    let (took, least) = (lay.cloths[0].needed_length.in_units(System::Inches), lay.bound.length);
    assert!(took < 12.63, "{took}");
    assert!(least <= Length::INCH * 63 / 5, "{least:?} is ruled out, 12.6 in are possible");
}

/// Three of 10 × 6 and three of 10 × 4 fill three sheets of 10 × 10, cut edge to edge.
#[test]
fn bought_sheets_are_shared_as_few_as_they_can_be() {
    for cuts in [Cuts::Through, Cuts::Free] {
        let inch = |n| Length::INCH * n;
        let mut six = job(inch(10), vec![piece("six", inch(10), inch(6), 3), piece("four", inch(10), inch(4), 3)]);
        six.cloths[0].form = Form::Sheet { width: inch(10), height: inch(10), count: 6 };
        six.rules.cuts = cuts;
        let lay = laid(&six, 200);
        assert_eq!((lay.cloths.len(), lay.proven), (3, true), "{cuts:?}");
        assert_eq!(lay.sheets[0].least, 3);
        assert_eq!(verify(&six, &lay), []);
    }
}

/// Five squares of 6 on sheets of 10 need five, though their area would go on two: two never go on one.
#[test]
fn sheets_are_counted_by_what_fits_together() {
    let inch = |n| Length::INCH * n;
    let mut five = job(inch(10), vec![piece("square", inch(6), inch(6), 5)]);
    five.cloths[0].form = Form::Sheet { width: inch(10), height: inch(10), count: 8 };
    let lay = laid(&five, 50);
    assert_eq!((lay.cloths.len(), lay.sheets[0].least, lay.proven), (5, 5, true));
    // Three of 5 × 9 and one of 4 × 10 leave no sheet of 10 × 10 that holds three of them: no weights tell that.
    let mut odd = job(inch(10), vec![piece("a", inch(7), inch(3), 5), piece("b", inch(5), inch(5), 2)]);
    odd.cloths[0].form = Form::Sheet { width: inch(10), height: inch(10), count: 6 };
    let lay = laid(&odd, 200);
    assert_eq!(verify(&odd, &lay), []);
    assert!(lay.proven, "{:?}", lay.sheets);
}

/// Fourteen right trapezoids 6 in wide, 9 and 10 in high, fill 42 in of width seven by seven: 19 in.
#[test]
fn slices_that_come_to_a_point_rule_nothing_out_that_is_possible() {
    let inch = |n: i64| Length::INCH * n;
    let p = |x: i64, y: i64| Point::new(inch(x), inch(y));
    let trapezoid = |name: &str, low: i64, high: i64| {
        let ring = vec![p(0, 0), p(6, 0), p(6, high), p(0, low)];
        upright(shaped(name, Outline::polygon(ring).expect("simple"), 14))
    };
    let fourteen = job(inch(42), vec![trapezoid("a", 9, 10)]);
    let lay = laid(&fourteen, 400);
    assert_eq!(verify(&fourteen, &lay), []);
    assert!(lay.bound.length <= inch(19), "{:?}", lay.bound.length);
}

/// A job that is proven by each rule, and the rule.
fn proven_by() -> Vec<(&'static str, Job)> {
    let inch = |n| Length::INCH * n;
    // Narrow at one end: most of two of them does not fit side by side, though the rectangles inside them would.
    let corners = vec![(0, 0), (18, 0), (16, 16), (2, 16)];
    let corners = corners.into_iter().map(|(x, y)| Point::new(inch(x), inch(y))).collect();
    let tapered = upright(shaped("tapered", Outline::polygon(corners).expect("simple"), 2));
    let mut slanted = job(inch(30), vec![tapered]);
    slanted.cloths[0].shop = ShopStep { step: Some(inch(9)), min: Length::ZERO };
    let tried: Vec<JobPiece> = [(7, 5), (6, 4), (5, 5), (4, 3), (3, 3)]
        .iter()
        .enumerate()
        .map(|(i, &(w, h))| piece(format!("p{i}"), inch(w), inch(h), 1))
        .collect();
    let mut through = job(inch(11), tried.clone());
    through.rules.cuts = Cuts::Through;
    vec![
        ("area", job(inch(20), vec![shaped("disc", Outline::Circle(inch(9)), 6)])),
        ("longest", job(inch(20), vec![upright(piece("a", inch(3), inch(30), 1)), piece("b", inch(2), inch(2), 2)])),
        ("weights", job(inch(10), vec![upright(piece("wide", inch(6), inch(7), 3))])),
        (
            "sums",
            job(inch(10), vec![upright(piece("a", inch(4), inch(6), 3)), upright(piece("b", inch(1), inch(6), 1))]),
        ),
        ("slices", slanted),
        ("tried", job(inch(11), tried)),
        ("tried", through),
    ]
}

fn named(rule: &Rule) -> &'static str {
    match rule {
        Rule::Area { .. } => "area",
        Rule::Longest { .. } => "longest",
        Rule::Weights(_) => "weights",
        Rule::Sums { .. } => "sums",
        Rule::Slices(_) => "slices",
        Rule::Tried { .. } => "tried",
    }
}

/// Every rule leaves a certificate that holds; of those that arithmetic can check, one that claims more does not.
#[test]
fn certificates_are_checked_and_a_false_one_is_found() {
    let mut found: Vec<&str> = Vec::new();
    for (wanted, job) in proven_by() {
        let lay = laid(&job, 2_000);
        assert_eq!(verify(&job, &lay), [], "{wanted}");
        let certificate = lay.cloths[0].proof.clone().expect("a certificate");
        found.push(named(&certificate.by));
        let faults = |change: &dyn Fn(&mut Lay)| {
            let mut changed = lay.clone();
            change(&mut changed);
            verify(&job, &changed).iter().any(|f| matches!(f, Fault::Proof { .. }))
        };
        assert!(faults(&|lay| lay.cloths[0].proof = None), "{wanted}: a bound with nothing to show it");
        assert!(
            faults(&|lay| lay.cloths[0].proof.as_mut().expect("one").excluded.0 -= Length::INCH.0 * 40),
            "{wanted}"
        );
        if !matches!(certificate.by, Rule::Tried { .. }) {
            let longer = |lay: &mut Lay| {
                lay.cloths[0].proof.as_mut().expect("one").excluded = lay.cloths[0].needed_length + Length::INCH;
            };
            assert!(faults(&longer), "{wanted}: more is ruled out than can be");
        }
        let other = |lay: &mut Lay| match &mut lay.cloths[0].proof.as_mut().expect("one").by {
            Rule::Slices(slices) => slices.dearest -= 1 + slices.dearest / 8,
            Rule::Longest { piece } => *piece += 1,
            Rule::Sums { from, .. } => *from += Length::INCH,
            Rule::Weights(weights) => weights.boxes.gap = bofta_core::lay::GapCounted::Across,
            Rule::Area { covered } => *covered = Whole(0),
            Rule::Tried { what, .. } => *what = bofta_core::lay::Tried::Shares,
        };
        // What pieces cover is worked out anew, and without a gap it is the same wherever it is counted.
        let told_anew = matches!(certificate.by, Rule::Area { .. } | Rule::Weights(_));
        assert_eq!(faults(&other), !told_anew, "{wanted}: {:?}", certificate.by);
    }
    found.sort_unstable();
    found.dedup();
    assert_eq!(found, ["area", "longest", "slices", "sums", "tried", "weights"]);
}

/// Of every rule there is a sentence, in both systems, that names a length and ends as sentences do.
#[test]
fn every_rule_is_told_in_words() {
    for system in [System::Inches, System::Centimetres] {
        for (wanted, mut job) in proven_by() {
            job.units = system;
            let lay = laid(&job, 2_000);
            let told = bofta_core::lay::reason(&job, &lay.cloths[0]).expect("a reason");
            println!("{wanted}: {told}");
            let length = format!(" {}", system.symbol());
            assert!(told.ends_with('.') && (told.contains(&length) || wanted == "tried"), "{told}");
        }
    }
}

#[test]
fn what_a_proof_rests_on_is_told() {
    let inch = |n| Length::INCH * n;
    let mut one =
        job(inch(20), vec![upright(piece("gusset", inch(3), inch(18), 1)), piece("tab", inch(2), inch(2), 2)]);
    assert_eq!(bofta_core::lay::conditions(&one, &one.cloths[0]), ["“gusset” along the selvedge"]);
    one.rules.cuts = Cuts::Through;
    one.rules.gap = inch(1) / 2;
    one.cloths[0] = Cloth { layers: 2, ..one.cloths[0].clone() };
    let all = bofta_core::lay::conditions(&one, &one.cloths[0]);
    assert_eq!(
        all[1..],
        ["every cut from edge to edge", "½ in between pieces", "the cloth folded lengthwise"].map(str::to_owned)
    );
}

/// Cut from one length without waste, irregular tiles only go back onto it side by side as they were cut; and onto a
/// scrap, each a hundredth smaller.
#[test]
fn tiles_go_back_onto_what_they_were_cut_from() {
    let (mut on_length, mut on_scrap) = (0, 0);
    for number in 0..10_u64 {
        let Known { mut job, length, .. } = tiles_of(&mut Random::new(100 + number), 12);
        let lay = laid(&job, 300);
        assert_eq!(verify(&job, &lay), [], "{number}");
        on_length += usize::from(lay.cloths[0].needed_length <= length);
        let roll = job.cloths[0].clone();
        let form = Form::Scrap { outline: Outline::Rect(roll.usable_width(), length), flaws: vec![] };
        job.cloths.insert(0, Cloth { form, owned: true, ..Cloth::roll("scrap", Length::ZERO) });
        for piece in &mut job.pieces {
            let smaller = |p: &Point| Point::new(Length(p.x.0 * 99 / 100), Length(p.y.0 * 99 / 100));
            piece.outline = Outline::Polygon(piece.outline.corners().iter().map(smaller).collect());
            piece.cloths.insert(0, "scrap".into());
        }
        let lay = laid(&job, 300);
        assert_eq!(verify(&job, &lay), [], "{number}, on a scrap");
        on_scrap += usize::from(lay.complete() && lay.cloths.iter().all(|c| c.cloth == "scrap"));
    }
    // Onto their length, with nothing at all to spare, five in six come back in so many steps, whatever the seed.
    assert!(on_length >= 7 && on_scrap >= 9, "of 10, {on_length} on their length, {on_scrap} on their scrap");
}

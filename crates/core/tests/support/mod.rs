//! Jobs the tests are run on.
#![allow(dead_code, missing_docs, unreachable_pub)]

use bofta_core::cloth::Cloth;
use bofta_core::lay::{Job, JobPiece, Random, Rules};
use bofta_core::measure::{Length, System};
use bofta_core::piece::{Grain, Mirror, PrintRule};
use bofta_core::shape::Outline;

/// A piece of `width` × `height` on the cloth `roll`.
pub fn piece(id: impl Into<String>, width: Length, height: Length, count: u32) -> JobPiece {
    let id = id.into();
    JobPiece {
        name: id.clone(),
        id,
        count,
        outline: Outline::Rect(width, height),
        grain: Grain::Either,
        print: PrintRule::Ignore,
        mirror: Mirror::No,
        cloths: vec!["roll".into()],
        any_cloth: false,
        on_print: None,
    }
}

/// A piece of any outline on the cloth `roll`.
pub fn shaped(id: impl Into<String>, outline: Outline, count: u32) -> JobPiece {
    JobPiece { outline, ..piece(id, Length::INCH, Length::INCH, count) }
}

/// A job of `pieces` on one plain roll of `width`, sold in any length.
pub fn job(width: Length, pieces: Vec<JobPiece>) -> Job {
    Job {
        name: "test".into(),
        units: System::Inches,
        pieces,
        cloths: vec![Cloth::roll("roll", width)],
        rules: Rules::default(),
        pinned: vec![],
    }
}

/// Squares of whole inches.
pub fn squares(width: i64, sides: &[i64]) -> Job {
    let inch = |n| Length::INCH * n;
    let pieces = sides.iter().enumerate().map(|(i, s)| piece(format!("s{i}"), inch(*s), inch(*s), 1)).collect();
    job(inch(width), pieces)
}

/// A `width` × `height` rectangle (in eighths of an inch) cut at random into `n` pieces, each turned at random: the best
/// length is `height` by construction (the method of Hopper and Turton 2001). A part, the largest tending to come
/// first, is split in two by a line or in five as a pinwheel, which no cuts from edge to edge take apart.
pub fn dissection(width: i64, height: i64, n: usize, random: &mut Random) -> Job {
    let eighth = |n: i64| Length::inches(n, 8);
    let mut parts = vec![(width, height)];
    while parts.len() < n {
        let (mut best, mut most) = (0, 0);
        for _ in 0..3 {
            let i = random.below(parts.len());
            let area = parts[i].0 * parts[i].1;
            if area > most {
                (best, most) = (i, area);
            }
        }
        let (w, h) = parts[best];
        if w >= 32 && h >= 32 && parts.len() + 4 <= n && random.below(3) == 0 {
            let mut within = |side: i64| {
                let a = side / 5 + random.below((side / 5) as usize) as i64;
                (a, a + side / 5 + random.below((side / 4) as usize) as i64)
            };
            let ((x1, x2), (y1, y2)) = (within(w), within(h));
            parts[best] = (x2, y1);
            parts.extend([(w - x2, y2), (w - x1, h - y2), (x1, h - y1), (x2 - x1, y2 - y1)]);
            continue;
        }
        let along = if w > h {
            true
        } else if h > w {
            false
        } else {
            random.below(2) == 0
        };
        let side = if along { w } else { h };
        if side < 8 {
            continue;
        }
        let at = side / 4 + random.below((side / 2) as usize) as i64;
        let (a, b) = if along { ((at, h), (w - at, h)) } else { ((w, at), (w, h - at)) };
        parts[best] = a;
        parts.push(b);
    }
    random.shuffle(&mut parts);
    let pieces = parts
        .iter()
        .enumerate()
        .map(|(i, &(w, h))| {
            let (w, h) = if random.below(2) == 0 { (w, h) } else { (h, w) };
            piece(format!("p{i}"), eighth(w), eighth(h), 1)
        })
        .collect();
    job(eighth(width), pieces)
}

/// Whether a refusal says the figure it refuses, not only that something will not do; a choice is told by its reason.
pub fn says_its_value(problem: &bofta_core::FieldProblem) -> bool {
    let figure = problem.value.contains(|c: char| c.is_ascii_digit());
    if figure { problem.message.contains(&problem.value) } else { problem.message.len() > 20 }
}

//! How many random dissections are closed in a few seconds each: `dissections [FROM TO CASES SECONDS]`.

use bofta_bench::dissection;
use bofta_core::lay::{Budget, Lay, Observer, Random, solve, verify};
use bofta_core::measure::Length;
use std::ops::ControlFlow;
use std::time::Instant;

struct Until {
    best: Length,
    reached: bool,
    start: Instant,
    seconds: f64,
}

impl Observer for Until {
    fn tick(&mut self, _: u64) -> ControlFlow<()> {
        let over = self.start.elapsed().as_secs_f64() > self.seconds;
        if self.reached || over { ControlFlow::Break(()) } else { ControlFlow::Continue(()) }
    }

    fn better(&mut self, lay: &Lay) {
        self.reached |= lay.cloths[0].needed_length <= self.best;
    }
}

fn main() {
    let given: Vec<f64> = std::env::args().skip(1).filter_map(|a| a.parse().ok()).collect();
    let &[from, to, cases, seconds] = given.as_slice() else {
        eprintln!("dissections FROM TO CASES SECONDS, as in: dissections 12 20 90 5");
        return;
    };
    let (from, to, cases) = (from as usize, to as usize, cases as usize);
    let mut random = Random::new(2001);
    let (mut closed, mut ratios, mut spent) = (0, 0.0, 0.0);
    for case in 0..cases {
        let n = from + case * (to - from + 1) / cases;
        let (job, best) = dissection(n, &mut random);
        let mut until = Until { best, reached: false, start: Instant::now(), seconds };
        let Ok(lay) = solve(&job, Budget::endless(), &mut until) else { continue };
        assert!(verify(&job, &lay).is_empty(), "case {case} does not hold");
        let ratio = lay.cloths[0].needed_length.0 as f64 / best.0 as f64;
        closed += usize::from(lay.cloths[0].needed_length == best);
        ratios += ratio;
        spent += until.start.elapsed().as_secs_f64();
        if ratio > 1.0 {
            println!("{n} pieces: {ratio:.4} of the best");
        }
    }
    let mean = |sum: f64| sum / cases as f64;
    println!("closed {closed} of {cases}; mean length {:.4} of the best; mean time {:.2} s", mean(ratios), mean(spent));
}

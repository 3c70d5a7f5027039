//! Time to the first answer and how it grows with the number of pieces, rectangles and shapes.
#![allow(missing_docs)]

use bofta_bench::{bag_like, shaped_like};
use bofta_core::lay::{Budget, Silent, solve};
use criterion::{BenchmarkId, Criterion, criterion_group, criterion_main};

fn first_answer(c: &mut Criterion) {
    let mut group = c.benchmark_group("first answer");
    group.sample_size(10);
    for n in [12, 60, 250, 1_000, 2_000] {
        let job = bag_like(n, 7);
        group.bench_with_input(BenchmarkId::new("rectangles", n), &job, |b, job| {
            b.iter(|| solve(job, Budget::iterations(0), &mut Silent));
        });
    }
    for n in [12, 60, 250, 1_000] {
        let job = shaped_like(n, 7);
        group.bench_with_input(BenchmarkId::new("shapes", n), &job, |b, job| {
            b.iter(|| solve(job, Budget::iterations(0), &mut Silent));
        });
    }
    group.finish();
}

criterion_group!(benches, first_answer);
criterion_main!(benches);

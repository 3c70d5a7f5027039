//! Time to the first answer and how it grows with the number of pieces.
#![allow(missing_docs)]

use bofta_bench::bag_like;
use bofta_core::lay::{Budget, Silent, solve};
use criterion::{BenchmarkId, Criterion, criterion_group, criterion_main};

fn first_answer(c: &mut Criterion) {
    let mut group = c.benchmark_group("first answer");
    group.sample_size(10);
    for n in [12, 60, 250, 1_000] {
        let job = bag_like(n, 7);
        group.bench_with_input(BenchmarkId::from_parameter(n), &job, |b, job| {
            b.iter(|| solve(job, Budget { iterations: 0 }, &mut Silent));
        });
    }
    group.finish();
}

criterion_group!(benches, first_answer);
criterion_main!(benches);

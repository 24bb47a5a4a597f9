//! How well and how fast parts are laid out on sheets, beside a general-purpose allocator of rectangles that is tried
//! again in random orders for the same time.

use std::{
    hint::black_box,
    time::{Duration, Instant},
};

use criterion::{BenchmarkId, Criterion, criterion_group};
use guillotiere::{AllocatorOptions, AtlasAllocator, size2};
use hummock_core::{
    cutting::{CutPart, CuttingJob, StockSheet},
    quantity::Length,
};
use rust_decimal::{Decimal, prelude::ToPrimitive};

/// Sheets at one price by area.
const SHEETS: [(i32, i32); 3] = [(2440, 1220), (1400, 1000), (1020, 760)];
const SETS: u64 = 20;

fn sides(parts: usize, set: u64) -> Vec<(i32, i32)> {
    let mut rng = fastrand::Rng::with_seed(1000 + set);
    (0..parts)
        .map(|_| (rng.i32(80..=900), rng.i32(80..=900)))
        .collect()
}

fn job(sides: &[(i32, i32)], steps: u64) -> CuttingJob {
    let sheet = |(w, h): (i32, i32)| StockSheet {
        width: Length::mm(f64::from(w)),
        height: Length::mm(f64::from(h)),
        price: Decimal::new(i64::from(w) * i64::from(h), 6),
        count: None,
    };
    let part = |&(w, h): &(i32, i32)| CutPart {
        width: Length::mm(f64::from(w)),
        height: Length::mm(f64::from(h)),
        count: 1,
        may_turn: true,
    };
    CuttingJob {
        sheets: SHEETS.into_iter().map(sheet).collect(),
        parts: sides.iter().map(part).collect(),
        kerf: Length::ZERO,
        seed: 1,
        steps,
    }
}

fn area(sides: &[(i32, i32)]) -> f64 {
    sides
        .iter()
        .map(|(w, h)| f64::from(*w) * f64::from(*h) / 1e6)
        .sum()
}

/// The cheapest of what the allocator makes of random orders, until time is up.
fn allocated(sides: &[(i32, i32)], time: Duration) -> f64 {
    let begun = Instant::now();
    let mut rng = fastrand::Rng::with_seed(1);
    let mut least = f64::INFINITY;
    while least.is_infinite() || begun.elapsed() < time {
        let noise = if least.is_infinite() { 0.0 } else { 0.4 };
        let mut order: Vec<(f64, (i32, i32))> = sides
            .iter()
            .map(|&(w, h)| {
                (
                    f64::from(w) * f64::from(h) * (1.0 + noise * (rng.f64() - 0.5)),
                    (w, h),
                )
            })
            .collect();
        order.sort_by(|one, other| other.0.total_cmp(&one.0));
        let (mut open, mut cost) = (Vec::new(), 0.0);
        for (_, (w, h)) in order {
            let put = |on: &mut AtlasAllocator| {
                on.allocate(size2(w, h)).is_some() || on.allocate(size2(h, w)).is_some()
            };
            if open.iter_mut().any(put) {
                continue;
            }
            let fits: Vec<(i32, i32)> = SHEETS
                .into_iter()
                .filter(|&(long, wide)| w.max(h) <= long && w.min(h) <= wide)
                .collect();
            let (long, wide) = fits[if noise > 0.0 {
                rng.usize(0..fits.len())
            } else {
                0
            }];
            let options = AllocatorOptions {
                alignment: size2(1, 1),
                ..AllocatorOptions::default()
            };
            let mut sheet = AtlasAllocator::with_options(size2(long, wide), &options);
            assert!(put(&mut sheet), "it was asked whether it fits");
            cost += f64::from(long) * f64::from(wide) / 1e6;
            open.push(sheet);
        }
        least = least.min(cost);
    }
    least
}

/// Prints what the sheets cost over the area of the parts, and the time for that.
fn compared() {
    println!("parts  steps  over the area  ms  allocator, same time");
    for (parts, steps) in [
        (20, 500),
        (20, 10_000),
        (100, 50),
        (100, 2000),
        (500, 15),
        (500, 24),
        (500, 300),
    ] {
        let (mut ours, mut theirs, mut spent) = (0.0, 0.0, Duration::ZERO);
        for set in 0..SETS {
            let sides = sides(parts, set);
            let begun = Instant::now();
            let plan = job(&sides, steps)
                .cut(&mut || false)
                .expect("every part fits");
            let time = begun.elapsed();
            spent += time;
            ours += plan.cost.to_f64().expect("money") / area(&sides);
            theirs += allocated(&sides, time) / area(&sides);
        }
        let sets = f64::from(u32::try_from(SETS).expect("few sets"));
        let over = |sum: f64| (sum / sets - 1.0) * 100.0;
        println!(
            "{parts:5}  {steps:5}  {:.2} %  {:.0}  {:.2} %",
            over(ours),
            spent.as_secs_f64() * 1e3 / sets,
            over(theirs)
        );
    }
}

fn growth(criterion: &mut Criterion) {
    let mut group = criterion.benchmark_group("cutting, 50 steps");
    group.sample_size(10);
    for parts in [20, 100, 500] {
        let job = job(&sides(parts, 0), 50);
        group.bench_with_input(BenchmarkId::from_parameter(parts), &job, |bencher, job| {
            bencher.iter(|| black_box(job.cut(&mut || false)));
        });
    }
    group.finish();
}

criterion_group!(benches, growth);

fn main() {
    if std::env::args().any(|argument| argument == "--bench") {
        compared();
    }
    benches();
    Criterion::default().configure_from_args().final_summary();
}

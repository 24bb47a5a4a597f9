//! How fast a parcel is priced, and how far it is to the next price found, over forty services.

use std::hint::black_box;

use criterion::{Criterion, criterion_group, criterion_main};
use hummock_core::{
    freight::{Contents, Parcel, QuoteRequest, Shape, Tariff},
    place::Destination,
    quantity::{Length, LengthUnit, Mass, read_length},
    space::Envelope,
};
use rust_decimal::Decimal;

/// The demo studio's tariffs, again and again until there are forty services.
fn forty_services() -> Vec<Tariff> {
    let texts = [
        include_str!("../../../demo/tariffs/gannet-post.json"),
        include_str!("../../../demo/tariffs/swiftlane.json"),
        include_str!("../../../demo/tariffs/overland-quay.json"),
        include_str!("../../../demo/tariffs/marram.json"),
    ];
    let all = texts.map(|text| serde_json::from_str::<Tariff>(text).expect("a tariff"));
    let services: usize = all.iter().map(|tariff| tariff.services.len()).sum();
    assert_eq!(40 % services, 0, "{services} services");
    let times = 40 / services;
    all.iter()
        .cycle()
        .take(all.len() * times)
        .cloned()
        .collect()
}

fn pricing(criterion: &mut Criterion) {
    let tariffs = forty_services();
    let parcel = Parcel {
        outside: Envelope {
            across: Length::mm(610.0),
            up: Length::mm(910.0),
            through: Length::mm(112.0),
        },
        mass: Mass::kg(4.2),
        value: Some(Decimal::from(320)),
        buys_cover: true,
        shape: Shape::Rectangular,
        contents: Contents::default(),
    };
    let place = Destination {
        country: "XS".into(),
        postcode: "LM4 1".into(),
    };
    let mut group = criterion.benchmark_group("freight");
    group.bench_function("reading one size (the baseline)", |bencher| {
        bencher.iter(|| black_box(read_length(black_box("35 1/2 in"), LengthUnit::Mm)));
    });
    group.bench_function("one parcel, forty services", |bencher| {
        bencher.iter(|| {
            let asked = QuoteRequest::now(&parcel, &place);
            let quotes = tariffs
                .iter()
                .map(|tariff| tariff.quotes(black_box(&asked)));
            black_box(quotes.map(|quotes| quotes.len()).sum::<usize>())
        });
    });
    group.bench_function("steps and room, forty services", |bencher| {
        bencher.iter(|| {
            let asked = QuoteRequest::now(&parcel, &place);
            let steps = tariffs.iter().map(|tariff| tariff.steps(black_box(&asked)));
            black_box(steps.map(|steps| steps.len()).sum::<usize>())
        });
    });
    group.finish();
}

criterion_group!(benches, pricing);
criterion_main!(benches);

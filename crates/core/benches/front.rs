//! The front of ways: the first of it, and as many ways as somebody waits for, beside one plan made from nothing.

use criterion::{Criterion, criterion_group, criterion_main};
use hummock_core::{
    shipment::{House, ShipmentInputs, Workings},
    ways::Explorer,
};

fn house() -> House {
    let tariff = |text| serde_json::from_str(text).expect("a tariff of the demo studio");
    House {
        rules: serde_json::from_str(include_str!("../../../demo/house-rules.json")).expect("rules"),
        catalogue: serde_json::from_str(include_str!("../../../demo/catalogue.json"))
            .expect("a catalogue"),
        tariffs: vec![
            tariff(include_str!("../../../demo/tariffs/gannet-post.json")),
            tariff(include_str!("../../../demo/tariffs/swiftlane.json")),
            tariff(include_str!("../../../demo/tariffs/overland-quay.json")),
            tariff(include_str!("../../../demo/tariffs/marram.json")),
        ],
        presets: Vec::new(),
        references: std::sync::Arc::default(),
        now: None,
    }
}

fn canvas() -> ShipmentInputs {
    serde_json::from_value(serde_json::json!({
        "title": "Kelp Ladder", "value": "640",
        "buyer": { "postcode": "TB1", "country": "XS" },
        "piece": {
            "construction": "stretched_canvas", "medium": "acrylic", "finished": "2026-10-01",
            "width": "600 mm", "height": "800 mm", "depth": "38 mm"
        }
    }))
    .expect("inputs")
}

fn looked_at(inputs: &ShipmentInputs, house: &House, ways: u32) -> u32 {
    let explorer = Explorer::of(inputs, house, u32::MAX).expect("it can be made");
    let mut explorer = explorer.expect("it goes somewhere");
    while !explorer.is_done() && explorer.front().looked_at < ways {
        explorer.go_on(2);
    }
    explorer.front().looked_at
}

fn ways(criterion: &mut Criterion) {
    let (house, inputs) = (house(), canvas());
    let mut group = criterion.benchmark_group("front");
    group.sample_size(10);
    group.bench_function("one plan from nothing (the baseline)", |bencher| {
        bencher.iter(|| Workings::out(&inputs, &house));
    });
    group.bench_function("the first front", |bencher| {
        bencher.iter(|| looked_at(&inputs, &house, 1));
    });
    for many in [2_500, 5_000, 10_000] {
        group.bench_function(format!("{many} ways on two threads"), |bencher| {
            bencher.iter(|| looked_at(&inputs, &house, many));
        });
    }
    group.finish();
}

criterion_group!(benches, ways);
criterion_main!(benches);

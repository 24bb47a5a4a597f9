//! How long a plan takes, beside reading one size as the baseline.

use std::hint::black_box;

use criterion::{Criterion, criterion_group, criterion_main};
use hummock_core::{
    plan::Plan,
    quantity::{LengthUnit, TypedSize},
    shipment::{House, ShipmentInputs, Worked},
};

fn house() -> House {
    House {
        rules: serde_json::from_str(include_str!("../../../demo/house-rules.json")).expect("rules"),
        catalogue: serde_json::from_str(include_str!("../../../demo/catalogue.json"))
            .expect("a catalogue"),
        tariffs: vec![
            serde_json::from_str(include_str!("../../../demo/tariffs/gannet-post.json"))
                .expect("a tariff"),
        ],
    }
}

fn canvas() -> ShipmentInputs {
    serde_json::from_value(serde_json::json!({
        "buyer": { "country": "XS", "postcode": "TB11 4" },
        "value": "1450",
        "piece": {
            "construction": "stretched_canvas", "medium": "acrylic", "paint": "raised",
            "width": "900 mm", "height": "1200 mm", "depth": "38 mm"
        }
    }))
    .expect("inputs")
}

fn plan(criterion: &mut Criterion) {
    let (house, inputs) = (house(), canvas());
    let mut group = criterion.benchmark_group("preview");
    group.bench_function("baseline: read one size", |bencher| {
        bencher.iter(|| TypedSize::read(black_box("35 1/2 x 47 1/4 x 1 1/2 in"), LengthUnit::Mm));
    });
    let piece = inputs.piece().expect("a size").expect("a whole piece");
    group.bench_function("plan of one canvas", |bencher| {
        bencher.iter(|| Plan::design(black_box(&piece), &house.rules, &house.catalogue));
    });
    group.bench_function("plan and quotes of one canvas", |bencher| {
        bencher.iter(|| Worked::out(black_box(&inputs), black_box(&house)));
    });
    group.finish();
}

criterion_group!(benches, plan);
criterion_main!(benches);

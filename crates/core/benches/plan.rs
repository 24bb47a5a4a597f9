//! How long a plan takes, beside reading one size as the baseline.

use std::hint::black_box;

use criterion::{Criterion, criterion_group, criterion_main};
use hummock_core::{
    arrange::{Flat, Keeping, Layings},
    plan::{Plan, References},
    quantity::{Length, LengthUnit, TypedSize},
    shipment::{House, ShipmentInputs, Workings},
    space::{Envelope, LayerSlot},
    ways::{alternatives, changes, styles},
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
        presets: Vec::new(),
        references: std::sync::Arc::default(),
        now: None,
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

/// The mirror of the demo studio, shaped, under glass and boxed twice, with every layer that may be added.
fn hardest() -> ShipmentInputs {
    serde_json::from_value(serde_json::json!({
        "buyer": { "country": "XS", "postcode": "MR6 1" },
        "value": "690",
        "piece": {
            "construction": "mirror", "outline": "arched", "weight": "11.2 kg",
            "width": "780 mm", "height": "1050 mm", "depth": "30 mm"
        },
        "choices": {
            "layers": {
                "binding": true, "bag": true, "face_pads": true, "edge_pads": true, "corner_blocks": true,
                "outer_boards": true, "second_box": true
            },
            "pad_area_cm2": 700.0, "pad_thickness": "65 mm"
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
    let references = References::default();
    group.bench_function("plan of one canvas", |bencher| {
        bencher.iter(|| {
            Plan::judged(
                black_box(&piece),
                &house.rules,
                &house.catalogue,
                &references,
            )
        });
    });
    group.bench_function("plan of one canvas, its reference too", |bencher| {
        bencher.iter(|| Plan::design(black_box(&piece), &house.rules, &house.catalogue));
    });
    let hard = hardest();
    let rules = house.rules.with(&hard.choices).expect("choices in range");
    let mirror = hard.piece().expect("a size").expect("a whole piece");
    group.bench_function("plan of the hardest piece, all checks", |bencher| {
        bencher.iter(|| Plan::judged(black_box(&mirror), &rules, &house.catalogue, &references));
    });
    group.bench_function("alternatives of one layer", |bencher| {
        bencher.iter(|| alternatives(black_box(&inputs), &house, LayerSlot::FaceBoards));
    });
    group.bench_function("more and less protection", |bencher| {
        bencher.iter(|| changes(black_box(&inputs), &house));
    });
    group.bench_function("every style of box for one canvas", |bencher| {
        bencher.iter(|| styles(black_box(&inputs), &house, LayerSlot::Box));
    });
    group.bench_function("plan and quotes of one canvas", |bencher| {
        bencher.iter(|| Workings::out(black_box(&inputs), black_box(&house)));
    });
    group.finish();
}

/// Twelve or six wrapped pieces of unlike sides and like depths, so that each could lie beside any other: the hardest to lay.
fn flats(count: u32) -> Vec<Flat> {
    (0..count)
        .map(|at| Flat {
            across: Length::mm(f64::from(200 + at * 37 % 260)),
            up: Length::mm(f64::from(260 + at * 53 % 310)),
            through: Length::mm(f64::from(70 + at % 5 * 3)),
            may_turn: true,
        })
        .collect()
}

fn tiers(criterion: &mut Criterion) {
    let keeping = Keeping {
        gap: Length::mm(20.0),
        depths_within: Length::mm(15.0),
        board: Length::mm(4.0),
    };
    let price = |envelope: Envelope| {
        let long = envelope.across.max(envelope.up).as_m();
        envelope.volume().as_m3() * 20.0 + envelope.surface().as_m2() + long
    };
    let mut group = criterion.benchmark_group("several pieces");
    group.sample_size(10);
    group.bench_function("baseline: read one size", |bencher| {
        bencher.iter(|| TypedSize::read(black_box("35 1/2 x 47 1/4 x 1 1/2 in"), LengthUnit::Mm));
    });
    for count in [6, 12] {
        let flats = flats(count);
        group.bench_function(format!("tiers of {count}"), |bencher| {
            bencher.iter(|| {
                Layings::of(black_box(&flats), keeping)?
                    .cheapest(&price)
                    .cloned()
            });
        });
    }
    group.finish();
}

criterion_group!(benches, plan, tiers);
criterion_main!(benches);

//! The bench: every step of packing a plan with what was ticked, and several pieces arranged, beside one plan made from nothing.

use criterion::{Criterion, criterion_group, criterion_main};
use hummock_core::{
    arrange::{Arrangement, Member, MemberFace, Parting},
    quantity::{Length, Mass},
    shipment::{House, ShipmentInputs, Workings, packing, refused_by_hands},
};

fn house() -> House {
    House {
        rules: serde_json::from_str(include_str!("../../../demo/house-rules.json")).expect("rules"),
        catalogue: serde_json::from_str(include_str!("../../../demo/catalogue.json"))
            .expect("a catalogue"),
        tariffs: Vec::new(),
        presets: Vec::new(),
        references: std::sync::Arc::default(),
        now: None,
    }
}

fn canvas() -> ShipmentInputs {
    serde_json::from_value(serde_json::json!({
        "title": "Kelp Ladder", "value": "640",
        "piece": {
            "width": "900 mm", "height": "1200 mm", "depth": "38 mm",
            "construction": "stretched_canvas", "medium": "acrylic", "certificate": true,
        },
        "enclosures": { "kit": { "kind": "hanging_kit" } },
    }))
    .expect("inputs")
}

/// Canvases, panels and glass, each of another depth and weight.
fn members(count: u32) -> Vec<Member> {
    let faces = [MemberFace::Bare, MemberFace::Glazed, MemberFace::Stiff];
    (0..count)
        .map(|at| {
            let more = f64::from(at);
            Member {
                across: Length::mm(500.0 + 40.0 * more),
                up: Length::mm(700.0 - 20.0 * more),
                through: Length::mm(20.0 + 3.0 * more),
                mass: Mass::g(900.0 + 350.0 * f64::from(at * 7 % 5)),
                face: faces[at as usize % faces.len()],
                hardware: at % 2 == 0,
                stiffness: f64::from(at * 5 % 4),
                folded: false,
                several: false,
            }
        })
        .collect()
}

fn pack(criterion: &mut Criterion) {
    let (house, inputs) = (house(), canvas());
    let parting = Parting {
        board: Length::mm(4.0),
        pad: Length::mm(10.0),
        fold: Length::mm(5.0),
    };
    criterion.bench_function("pack/a plan from nothing", |bencher| {
        bencher.iter(|| Workings::out(&inputs, &house));
    });
    criterion.bench_function("pack/every step", |bencher| {
        bencher.iter(|| packing(&inputs, &house));
    });
    for (name, clearance) in [
        ("a choice that hands can follow", "20 mm"),
        ("one that they can't", "6 mm"),
    ] {
        let mut chosen = inputs.clone();
        chosen.choices.clearance = Some(clearance.to_owned());
        let worked = Workings::out(&chosen, &house).expect("a canvas is planned");
        criterion.bench_function(
            &format!("pack/rehearsed as it is stored, {name}"),
            |bencher| {
                bencher.iter(|| refused_by_hands(&inputs, (&chosen, worked.plan.as_ref()), &house));
            },
        );
    }
    for count in [6, 12] {
        let members = members(count);
        criterion.bench_function(&format!("pack/{count} pieces arranged"), |bencher| {
            bencher.iter(|| Arrangement::best(&members, parting));
        });
    }
}

criterion_group!(benches, pack);
criterion_main!(benches);

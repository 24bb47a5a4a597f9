use super::*;
use crate::{
    cushion::{CushionCurve, EnergyRange},
    quantity::{Area, EnergyDensity, Stress},
};

fn layer([a, b, least]: [f64; 3], cm2: f64, mm: f64) -> SeriesLayer {
    SeriesLayer {
        curve: CushionCurve {
            tested: Some(EnergyRange {
                least: EnergyDensity::kj_m3(least),
                most: EnergyDensity::kj_m3(1e9),
            }),
            ..CushionCurve::endless(Stress::kpa(a), b)
        },
        area: Area::m2(cm2 / 1e4),
        thickness: Length::mm(mm),
    }
}

const BUBBLE: [f64; 3] = [17.0, 0.100, 2.0];
const KRAFT: [f64; 3] = [20.0, 0.075, 3.0];
const CARD: [f64; 3] = [110.0, 0.006, 20.0];

/// A canvas 600 × 800 × 38, as the Standard pack of it.
fn canvas() -> Faller {
    Faller {
        mass: Mass::kg(2.6),
        parcel: Mass::kg(4.2),
        longest: Length::mm(910.0),
        across: Length::mm(600.0),
        up: Length::mm(800.0),
        through: Length::mm(38.0),
        limit: Shock::times_gravity(50.0),
        frequency: Frequency::hz(20.0),
        plane_factor: 2.5,
        back_factor: 1.0,
    }
}

/// Its sides, with a share of the bubble.
fn wrapped(bubble: f64) -> FallSides {
    let edge = |cm2, card| {
        vec![
            layer(CARD, cm2, card),
            layer(BUBBLE, cm2, 27.0 * bubble),
            layer(KRAFT, cm2, 15.0),
        ]
    };
    let front = vec![
        layer(CARD, 4800.0, 8.0),
        layer(BUBBLE, 4800.0, 18.0 * bubble),
    ];
    let mut back = front.clone();
    back.push(layer(KRAFT, 4800.0, 10.0));
    FallSides {
        front,
        back,
        up: edge(228.0, 12.0),
        across: edge(304.0, 8.0),
    }
}

#[track_caller]
fn close(found: f64, wanted: f64) {
    assert!(
        (found / wanted - 1.0).abs() < 5e-6,
        "{found:e} for {wanted:e}"
    );
}

// The numbers below were worked by an independent program from the same description.

#[test]
fn a_canvas_in_its_standard_pack() {
    let danger = danger_of_falls(&canvas(), &wrapped(1.0));
    close(danger.flat, 7.700_93e-4);
    close(danger.edges, 5.307_91e-5);
    close(danger.parts.edge_up, 2.209_51e-5);
    close(danger.parts.edge_across, 2.426_22e-5);
    close(danger.parts.corner, 4.721_79e-6);
}

#[test]
fn a_frailer_canvas_and_a_sturdier_one() {
    for (limit, flat, edges) in [
        (25.0, 4.290_41e-3, 8.063_40e-4),
        (100.0, 8.314_06e-5, 3.859_36e-6),
    ] {
        let faller = Faller {
            limit: Shock::times_gravity(limit),
            ..canvas()
        };
        let danger = danger_of_falls(&faller, &wrapped(1.0));
        close(danger.flat, flat);
        close(danger.edges, edges);
    }
}

#[test]
fn half_the_bubble_a_second_box_and_a_bare_box() {
    let thin = danger_of_falls(&canvas(), &wrapped(0.5));
    // A canvas that falls flat swings by its own frequency, whatever the wrap.
    close(thin.flat, 7.700_93e-4);
    close(thin.edges, 1.860_22e-4);

    let mut twice = wrapped(1.0);
    for (side, cm2) in [
        (&mut twice.front, 4800.0),
        (&mut twice.back, 4800.0),
        (&mut twice.up, 228.0),
        (&mut twice.across, 304.0),
    ] {
        side.extend([layer(KRAFT, cm2, 40.0), layer(CARD, cm2, 4.0)]);
    }
    close(danger_of_falls(&canvas(), &twice).edges, 5.549_22e-6);

    let box_alone = FallSides {
        front: vec![layer(CARD, 4800.0, 4.0)],
        back: vec![layer(CARD, 4800.0, 4.0)],
        up: vec![layer(CARD, 228.0, 4.0)],
        across: vec![layer(CARD, 304.0, 4.0)],
    };
    close(danger_of_falls(&canvas(), &box_alone).edges, 1.461_75e-2);
}

#[test]
fn a_glazed_frame_takes_more_on_its_back_than_on_its_glass() {
    let frame = Faller {
        mass: Mass::kg(2.2),
        parcel: Mass::kg(3.4),
        longest: Length::mm(570.0),
        across: Length::mm(340.0),
        up: Length::mm(460.0),
        through: Length::mm(24.0),
        limit: Shock::times_gravity(73.665_95),
        frequency: Frequency::hz(51.178_45),
        plane_factor: 1.5,
        back_factor: 2.0,
    };
    let edge = |cm2, card| {
        vec![
            layer(CARD, cm2, card),
            layer(BUBBLE, cm2, 27.0),
            layer(KRAFT, cm2, 15.0),
        ]
    };
    let front = vec![layer(CARD, 1564.0, 8.0), layer(BUBBLE, 1564.0, 18.0)];
    let mut back = front.clone();
    back.push(layer(KRAFT, 1564.0, 10.0));
    let sides = FallSides {
        front,
        back,
        up: edge(81.6, 12.0),
        across: edge(110.4, 8.0),
    };
    let danger = danger_of_falls(&frame, &sides);
    close(danger.flat, 1.237_29e-3);
    close(danger.edges, 7.462_37e-5);
}

#[test]
fn a_bare_side_leaves_the_speed_alone_to_decide() {
    let bare = danger_of_falls(&canvas(), &FallSides::default());
    let wrapped = danger_of_falls(&canvas(), &wrapped(1.0));
    assert!(bare.flat.is_finite() && bare.edges.is_finite());
    assert!(bare.flat >= wrapped.flat && bare.edges > wrapped.edges);
}

#[test]
fn heavy_and_long_parcels_fall_from_lower() {
    // 6 kg: 220 × (200/220)^(ln 1.2/ln 1.5) = 210.771; 18 kg: 160 × 0.75^(ln (18/14)/ln (24/14)) = 139.917, and at 1400 mm
    // 0.85 × (0.7/0.85)^(ln 1.12/ln 1.28) = 0.777514 of it.
    for (kg, longest, mm) in [
        (4.9, 900.0, 220.0),
        (5.0, 900.0, 220.0),
        (6.0, 900.0, 210.771),
        (7.5, 1000.0, 200.0),
        (24.0, 1250.0, 102.0),
        (18.0, 1400.0, 108.786),
        (44.0, 1700.0, 63.0),
    ] {
        let height = median_height(Mass::kg(kg), Length::mm(longest));
        assert!((height.as_mm() - mm).abs() < 1e-3, "{kg} kg, {longest} mm");
    }
}

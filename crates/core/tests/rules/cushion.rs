//! Laws that cushion design keeps, over random masses, falls, limits and materials.

use hummock_core::{
    cushion::{CushionCurve, EnergyRange, Pad, Plate, Series, SeriesLayer, compression_strength},
    quantity::{Area, EdgeCrush, EnergyDensity, Force, Length, Mass, Shock, Stiffness, Stress},
};
use proptest::prelude::*;

/// A material between the softest and the stiffest of the starting catalogue, tested or not.
fn any_curve() -> impl Strategy<Value = CushionCurve> {
    (10.0..300.0_f64, 2.8..5.0_f64, any::<bool>()).prop_map(|(start, efficiency, tested)| {
        let growth = efficiency / (std::f64::consts::E * start);
        let range = EnergyRange {
            least: EnergyDensity::kj_m3(0.1 / growth),
            most: EnergyDensity::kj_m3(3.0 / growth),
        };
        CushionCurve {
            tested: tested.then_some(range),
            ..CushionCurve::endless(Stress::kpa(start), growth)
        }
    })
}

/// A mass, a fall and a limit.
fn any_fall() -> impl Strategy<Value = (Mass, Length, Shock)> {
    (0.2..40.0_f64, 200.0..1200.0_f64, 25.0..120.0_f64).prop_map(|(mass, drop, limit)| {
        (
            Mass::kg(mass),
            Length::mm(drop),
            Shock::times_gravity(limit),
        )
    })
}

fn pad(curve: CushionCurve, area: f64, thickness: f64) -> Pad {
    Pad {
        curve,
        area: Area::m2(area),
        thickness: Length::mm(thickness),
    }
}

fn layer(pad: Pad) -> SeriesLayer {
    SeriesLayer {
        curve: pad.curve,
        area: pad.area,
        thickness: pad.thickness,
    }
}

fn near(one: f64, other: f64, share: f64) -> bool {
    (one - other).abs() <= share * one.abs().max(other.abs()).max(1.0)
}

proptest! {
    #![proptest_config(ProptestConfig { failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn shock_falls_or_stays_as_thickness_grows(
        curve in any_curve(), (mass, drop, _) in any_fall(), area in 0.001..0.5_f64,
        thickness in 5.0..150.0_f64, more in 0.0..100.0_f64,
    ) {
        let thin = pad(curve, area, thickness).peak(mass, drop);
        let thick = pad(curve, area, thickness + more).peak(mass, drop);
        if let Some(thin) = thin {
            let thick = thick.expect("a thicker pad takes less energy, so it is tested too");
            prop_assert!(thick.as_times_gravity() <= thin.as_times_gravity() * (1.0 + 1e-12));
        }
    }

    #[test]
    fn no_area_at_the_best_thickness_is_better_than_the_best(
        curve in any_curve(), (mass, drop, limit) in any_fall(),
        factors in prop::collection::vec(0.1..10.0_f64, 1000),
    ) {
        let curve = CushionCurve { tested: None, ..curve };
        let best = curve.best_pad(mass, drop, limit);
        let at = |area: f64| {
            pad(curve, area, best.thickness.as_mm()).peak(mass, drop).expect("no range").as_times_gravity()
        };
        let lowest = at(best.area.as_m2());
        prop_assert!(near(lowest, limit.as_times_gravity(), 1e-9));
        for factor in factors {
            prop_assert!(at(best.area.as_m2() * factor) >= lowest * (1.0 - 1e-9), "{factor} is better");
        }
    }

    #[test]
    fn the_drop_survived_gives_the_limit_back(
        curve in any_curve(), (mass, _, limit) in any_fall(), area in 0.001..0.5_f64, thickness in 5.0..150.0_f64,
    ) {
        let pad = pad(curve, area, thickness);
        if let Some(drop) = pad.survives(mass, limit) {
            let back = pad.peak(mass, drop).expect("within the range").as_times_gravity();
            let ended = curve.most_tested().is_some_and(|most| near(pad.energy(mass, drop) / most, 1.0, 1e-9));
            prop_assert!(near(back, limit.as_times_gravity(), 1e-6) || ended && back < limit.as_times_gravity());
        }
    }

    #[test]
    fn the_thickness_needed_gives_the_limit_back(
        curve in any_curve(), (mass, drop, limit) in any_fall(), area in 0.001..0.5_f64,
    ) {
        let thin = pad(curve, area, 1.0);
        if let Some(needed) = thin.needed_thickness(mass, drop, limit) {
            let pad = pad(curve, area, needed.as_mm());
            let back = pad.peak(mass, drop).expect("within the range").as_times_gravity();
            let ended = curve.most_tested().is_some_and(|most| near(pad.energy(mass, drop) / most, 1.0, 1e-9));
            prop_assert!(near(back, limit.as_times_gravity(), 1e-6) || ended && back < limit.as_times_gravity());
        }
    }

    #[test]
    fn two_halves_of_a_material_are_the_whole(
        curve in any_curve(), (mass, drop, _) in any_fall(), area in 0.001..0.1_f64,
        thickness in 5.0..150.0_f64, share in 0.05..0.95_f64,
    ) {
        let parts = [share, 1.0 - share].map(|share| layer(pad(curve, area, thickness * share)));
        let halves = Series::fall(&parts, mass, drop).expect("two layers");
        let whole = Series::fall(&[layer(pad(curve, area, thickness))], mass, drop).expect("one layer");
        prop_assert!(near(halves.force.as_n(), whole.force.as_n(), 1e-9));
    }

    #[test]
    fn a_series_is_what_bisection_on_equal_force_finds(
        (mass, drop, _) in any_fall(),
        parts in prop::collection::vec((any_curve(), 0.002..0.2_f64, 4.0..80.0_f64), 1..5),
    ) {
        let layers: Vec<SeriesLayer> = parts
            .into_iter()
            .map(|(curve, area, thickness)| layer(pad(curve, area, thickness)))
            .collect();
        let series = Series::fall(&layers, mass, drop).expect("there are layers");
        let wanted = Force::weight_of(mass).as_n() * drop.as_m();
        // Joules taken up at a force: A·T·ln(F/(a·A))/b by each layer past the start of its range, and
        // A·T·ε_min·(F/F_min)² before it.
        let taken = |force: f64| -> f64 {
            layers
                .iter()
                .map(|layer| {
                    let start = (layer.curve.start * layer.area).as_n();
                    let volume = layer.area.as_m2() * layer.thickness.as_m() * 1e3;
                    let growth = layer.curve.growth;
                    let least = layer.curve.tested.map_or(0.0, |range| range.least.as_kj_m3());
                    let bend = start * (growth * least).exp();
                    if force < bend {
                        volume * least * (force / bend).powi(2)
                    } else {
                        (force / start).ln().max(0.0) * volume / growth
                    }
                })
                .sum()
        };
        // Forces past e^460 are held there.
        let (mut low, mut high) = (-60.0_f64, 460.0_f64);
        for _ in 0..200 {
            let middle = f64::midpoint(low, high);
            if taken(middle.exp()) < wanted { low = middle } else { high = middle }
        }
        prop_assert!(near(series.force.as_n().ln(), low, 1e-9), "{} for {}", series.force.as_n(), low.exp());
        prop_assert!(series.energies.iter().all(|energy| *energy >= EnergyDensity::ZERO));
    }

    #[test]
    fn more_or_thicker_layers_never_raise_the_force(
        (mass, drop, _) in any_fall(),
        parts in prop::collection::vec((any_curve(), 1e-4..2.0_f64, 0.5..80.0_f64), 1..6),
        thicker in 0..6_usize, by in 0.0..50.0_f64,
    ) {
        let layers: Vec<SeriesLayer> = parts
            .into_iter()
            .map(|(curve, area, thickness)| layer(pad(curve, area, thickness)))
            .collect();
        let force = |layers: &[SeriesLayer]| {
            Series::fall(layers, mass, drop).expect("there are layers").force.as_n()
        };
        let whole = force(&layers);
        let fewer = &layers[..layers.len() - 1];
        prop_assert!(fewer.is_empty() || whole <= force(fewer) * (1.0 + 1e-9));
        let mut grown = layers.clone();
        let place = thicker % layers.len();
        grown[place].thickness += Length::mm(by);
        prop_assert!(force(&grown) <= whole * (1.0 + 1e-9));
    }

    #[test]
    fn a_series_survives_to_its_limit(
        (mass, _, limit) in any_fall(),
        parts in prop::collection::vec((any_curve(), 0.002..0.05_f64, 4.0..80.0_f64), 1..4),
    ) {
        let layers: Vec<SeriesLayer> = parts
            .into_iter()
            .map(|(curve, area, thickness)| {
                layer(pad(CushionCurve { tested: None, ..curve }, area, thickness))
            })
            .collect();
        let drop = Series::survives(&layers, mass, limit);
        if drop > Length::mm(1e-3) {
            let back = Series::fall(&layers, mass, drop).expect("there are layers");
            prop_assert!(near(back.force.shock_on(mass).as_times_gravity(), limit.as_times_gravity(), 1e-6));
        }
    }

    #[test]
    fn deflection_falls_with_stiffness(
        side_a in 100.0..2500.0_f64, side_b in 100.0..2500.0_f64, stiffness in 0.5..400.0_f64,
        factor in 1.0..20.0_f64, stretch in prop::option::of(1.0..20.0_f64), load in 10.0..1000.0_f64,
    ) {
        let plate = |stiffness| Plate {
            side_a: Length::mm(side_a),
            side_b: Length::mm(side_b),
            stiffness: Stiffness::nm(stiffness),
            stretch_thickness: stretch.map(Length::mm),
        };
        let soft = plate(stiffness).under(Force::n(load));
        let stiff = plate(stiffness * factor).under(Force::n(load));
        prop_assert!(stiff.deflection <= soft.deflection * (1.0 + 1e-12));
        prop_assert!(soft.deflection <= soft.linear * (1.0 + 1e-9));
        if let Some(stretch) = stretch {
            let ratio = soft.deflection.as_mm() / stretch;
            prop_assert!(near(ratio + 0.272 * ratio.powi(3), soft.linear.as_mm() / stretch, 1e-9));
        }
    }

    #[test]
    fn compression_strength_rises_with_caliper_and_perimeter(
        crush in 1.0..12.0_f64, caliper in 1.0..12.0_f64, perimeter in 200.0..6000.0_f64, more in 1.0..3.0_f64,
    ) {
        let strength = |caliper: f64, perimeter: f64| {
            compression_strength(EdgeCrush::kn_m(crush), Length::mm(caliper), Length::mm(perimeter))
        };
        let least = strength(caliper, perimeter);
        prop_assert!(strength(caliper * more, perimeter) >= least);
        prop_assert!(strength(caliper, perimeter * more) >= least);
    }
}

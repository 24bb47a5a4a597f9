//! The scale: what a reading says about everyday plans, what prices rest on then, and densities found again from readings.

use std::collections::BTreeMap;

use hummock_core::{
    house::Choices,
    material::MaterialId,
    pack::StepTick,
    quantity::{LengthUnit, Mass, Weight},
    shipment::{Figures, ParcelInputs, ShipmentInputs, Workings},
    ways::price_steps,
    weigh::{WeighedPlan, corrections},
};
use jiff::civil::date;
use proptest::prelude::*;

use crate::studio::{four_carriers, house, sent_pieces};

fn weighing(inputs: &ShipmentInputs, mass: Mass) -> ShipmentInputs {
    ShipmentInputs {
        parcel: ParcelInputs {
            weight: Some(format!("{:.3} kg", mass.as_kg())),
            ..ParcelInputs::default()
        },
        ..inputs.clone()
    }
}

fn planned(worked: &Workings) -> Weight {
    worked.plan.as_ref().expect("it is measured").tally.weight
}

#[test]
fn a_reading_within_the_doubt_is_as_planned_and_one_past_it_is_not() {
    let house = four_carriers();
    for (name, inputs) in sent_pieces() {
        let plan = planned(&Workings::out(&inputs, &house).expect(&name));
        let off = [-1.5, -0.9, 0.0, 0.9, 1.5].map(|share| {
            let read = plan.mass + plan.plus_minus.max(Mass::g(20.0)) * share;
            let found = Workings::out(&weighing(&inputs, read), &house).expect(&name);
            let found = found.found.expect("it was weighed");
            found.verdict.expect("it was weighed").as_planned
        });
        assert_eq!(off, [false, true, true, true, false], "{name}");
    }
}

/// Whoever packs with a heavier board in place of the planned one is told so.
#[test]
fn a_heavier_board_is_among_what_explains_it() {
    let house = four_carriers();
    let heavier = MaterialId::new("double-wall-bc");
    let board = house.catalogue.board(&heavier).expect("it is on the shelf");
    let mut told = 0;
    for (name, inputs) in sent_pieces() {
        let now = Workings::out(&inputs, &house).expect(&name);
        let mut packed = inputs.clone();
        packed.choices = packed.choices.patched(&Choices {
            box_board: Some(heavier.clone()),
            ..Choices::default()
        });
        let Ok(packed) = Workings::out(&packed, &house) else {
            continue;
        };
        if packed.fingerprint == now.fingerprint {
            continue;
        }
        let found = Workings::out(&weighing(&inputs, planned(&packed).mass), &house).expect(&name);
        let verdict = found.found.and_then(|found| found.verdict);
        let verdict = verdict.expect("it was weighed");
        if verdict.as_planned {
            continue;
        }
        let named = |one: &hummock_core::weigh::Explanation| one.says.starts_with(&board.name);
        assert!(verdict.explained.iter().any(named), "{name}: {verdict:?}");
        told += 1;
    }
    assert!(told >= 5, "only {told}");
}

#[test]
fn prices_rest_on_the_reading_while_the_plan_is_the_one_that_was_packed() {
    let house = four_carriers();
    let (mut dearer, mut moved) = (0, 0);
    for (name, inputs) in sent_pieces() {
        let now = Workings::out(&inputs, &house).expect(&name);
        let read = planned(&now).mass + Mass::kg(4.0);
        let kept = weighing(&inputs, read).to_be_kept(Some(&inputs), &house);
        let noted = kept.parcel.as_packed.as_deref().unwrap_or_default();
        assert!(noted.starts_with("box-"), "{name}: {noted}");
        let measured = Workings::out(&kept, &house).expect(&name);
        assert_eq!(measured.rests_on.mass, Figures::Measured);
        assert_eq!(measured.rests_on.size, Figures::Planned);
        // Nothing of the plan moves, and no price falls for four kilograms more.
        assert_eq!(
            measured.plan.as_ref().map(|plan| &plan.tally),
            now.plan.as_ref().map(|plan| &plan.tally)
        );
        let price = |worked: &Workings, id: &str| {
            let quote = worked.quotes.iter().find(|quote| quote.id == id);
            quote.and_then(|quote| quote.total().map(|total| total.amount))
        };
        for quote in &now.quotes {
            if let Some((before, after)) = price(&now, &quote.id).zip(price(&measured, &quote.id)) {
                assert!(after >= before, "{name}: {}", quote.id);
                dearer += usize::from(after > before);
            }
        }
        // Other house rules plan another box from now on; the packed one is what it was.
        let mut stricter = house.clone();
        stricter.rules.allowances.first_turns += 1;
        let by_them = Workings::out(&kept, &stricter).expect(&name);
        assert_eq!(by_them.rests_on.mass, Figures::Measured, "{name}");
        moved += usize::from(by_them.fingerprint != now.fingerprint);
        let noticed = ShipmentInputs {
            gift: !kept.gift,
            title: "Under another title".to_owned(),
            ..kept.clone()
        };
        let noticed = noticed.to_be_kept(Some(&kept), &stricter);
        let noticed = Workings::out(&noticed, &stricter).expect(&name);
        assert_eq!(
            noticed.found.map(|found| found.stands),
            Some(noticed.fingerprint == by_them.fingerprint),
            "{name}"
        );
        // Planned otherwise, it was never weighed so.
        let mut other = kept.clone();
        let turns = other.choices.first_turns.unwrap_or(1) + 2;
        other.choices.first_turns = Some(turns);
        let other = other.to_be_kept(Some(&kept), &house);
        let back = ShipmentInputs {
            choices: kept.choices.clone(),
            ..other.clone()
        };
        let back = back.to_be_kept(Some(&other), &house);
        assert_eq!(back.parcel, kept.parcel, "{name}: changed back");
        let replanned = Workings::out(&other, &house).expect(&name);
        if replanned.fingerprint != now.fingerprint {
            let found = replanned.found.as_ref().expect("it was weighed");
            assert!(!found.stands, "{name}");
            assert_eq!(replanned.rests_on, Default::default());
            let never = Workings::out(
                &ShipmentInputs {
                    parcel: ParcelInputs::default(),
                    ..other
                },
                &house,
            )
            .expect(&name);
            assert_eq!(replanned.quotes, never.quotes, "{name}");
        }
    }
    assert!(
        dearer > 20,
        "four kilograms more cost more only {dearer} times"
    );
    assert!(moved > 10, "other rules planned only {moved} otherwise");
}

/// A tick that is taken back opens the box and ends the reading; ticking the step again does not bring the reading back.
#[test]
fn a_tick_that_is_taken_back_ends_a_reading_and_one_more_does_not() {
    let house = four_carriers();
    let (name, inputs) = sent_pieces().next().expect("a piece");
    let tick = |step: &str| (step.to_owned(), StepTick::default());
    let weighed = ShipmentInputs {
        packed: [tick("wrap")].into(),
        ..weighing(&inputs, Mass::kg(4.0))
    };
    let weighed = weighed.to_be_kept(None, &house);
    let stands = |inputs: &ShipmentInputs| {
        let found = Workings::out(inputs, &house).expect(&name).found;
        found.expect("it was weighed").stands
    };
    let with = |before: &ShipmentInputs, packed: BTreeMap<String, StepTick>| {
        let ticked = ShipmentInputs {
            packed,
            ..before.clone()
        };
        ticked.to_be_kept(Some(before), &house)
    };
    let more = with(&weighed, [tick("wrap"), tick("label")].into());
    assert!(stands(&weighed) && stands(&more));
    let opened = with(&more, [tick("label")].into());
    assert!(!stands(&opened));
    let closed = with(&opened, more.packed.clone());
    assert!(!stands(&closed));
    let again = weighing(&closed, Mass::kg(4.1)).to_be_kept(Some(&closed), &house);
    assert!(stands(&again));
}

#[test]
fn a_measured_size_is_priced_in_place_of_the_planned_one() {
    let house = four_carriers();
    let (name, inputs) = sent_pieces().next().expect("a piece");
    let now = Workings::out(&inputs, &house).expect(&name);
    let outside = now.plan.expect("it is measured").tally.outside;
    let mut taped = inputs.clone();
    taped.parcel.up = Some(format!("{} mm", outside.up.as_mm() + 13.0));
    let taped = taped
        .checked(LengthUnit::Mm, date(2027, 3, 4))
        .expect("a side");
    let found = Workings::out(&taped, &house).expect(&name);
    assert_eq!(found.rests_on.size, Figures::Measured);
    let off = found
        .found
        .and_then(|found| found.off_mm)
        .expect("it was measured");
    assert_eq!(off.map(|off| off.as_mm().round()), [0.0, 13.0, 0.0]);
}

#[test]
fn nonsense_about_the_parcel_is_refused_at_its_field() {
    let (_, inputs) = sent_pieces().next().expect("a piece");
    for (weight, across, field) in [
        (Some("a lot"), None, "parcel.weight"),
        (Some("0"), None, "parcel.weight"),
        (Some("1,200 g"), None, "parcel.weight"),
        (None, Some("wide"), "parcel.across"),
        (None, Some("2 mm"), "parcel.across"),
        (None, Some("9 m"), "parcel.across"),
    ] {
        let mut typed = inputs.clone();
        typed.parcel.weight = weight.map(str::to_owned);
        typed.parcel.across = across.map(str::to_owned);
        let refused = typed
            .checked(LengthUnit::Mm, date(2027, 3, 4))
            .expect_err(field);
        let fields: Vec<&str> = refused.iter().map(|one| one.field.as_str()).collect();
        assert_eq!(fields, [field], "{weight:?} {across:?}");
    }
}

/// A price that the doubt could move says where to; one that was weighed has no doubt.
#[test]
fn what_the_doubt_could_do_is_what_a_reading_at_its_end_does() {
    let mut house = four_carriers();
    // Most flat parcels are billed by their size: a piece that nobody knows the weight of is not.
    house.rules.allowances.piece_doubt = 1.0;
    let mut told = 0;
    for (name, mut inputs) in sent_pieces() {
        inputs.piece.count = Some(6);
        for ladder in price_steps(&inputs, &house).expect(&name) {
            let Some(spread) = ladder.spread else {
                continue;
            };
            assert_ne!(spread.at_least, spread.at_most, "{name}");
            let found = weighing(&inputs, spread.most);
            let quotes = Workings::out(&found, &house).expect(&name).quotes;
            let quote = quotes.iter().find(|quote| quote.id == ladder.steps.id);
            // Cover may be bought or not by the heavier price; the ladder stays with what there was.
            let total = quote
                .and_then(|quote| quote.total())
                .map(|total| total.amount);
            let at_most = spread.at_most.as_ref().map(|most| most.amount);
            if house.rules.schools.cover != hummock_core::house::CoverRule::WherePays {
                assert_eq!(total, at_most, "{name}: {}", ladder.steps.id);
            }
            told += 1;
            let weighed = price_steps(&found, &house).expect(&name);
            assert!(
                weighed.iter().all(|ladder| ladder.spread.is_none()),
                "{name}"
            );
        }
    }
    assert!(told > 5, "only {told}");
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(32))]

    /// The densities that readings were made by are found again, to within a few per cent, from thirty weighed parcels.
    #[test]
    fn planted_densities_are_recovered(
        shares in prop::collection::vec(prop::collection::vec(100.0..2500.0_f64, 4), 30),
        noise in prop::collection::vec(-8.0..8.0_f64, 30),
        moved in prop::collection::vec(0.85..1.15_f64, 4),
    ) {
        let catalogue = house().catalogue;
        let ids: Vec<MaterialId> = catalogue.boards.iter().map(|board| board.id.clone())
            .chain(catalogue.cushion_wraps.iter().map(|wrap| wrap.id.clone())).take(4).collect();
        let parcels: Vec<WeighedPlan> = shares.iter().zip(&noise).map(|(masses, noise)| {
            let by_material: BTreeMap<MaterialId, Mass> =
                ids.iter().cloned().zip(masses.iter().map(|mass| Mass::g(*mass))).collect();
            let piece = Mass::g(1800.0);
            let truly: f64 = masses.iter().zip(&moved).map(|(mass, moved)| mass * moved).sum();
            WeighedPlan {
                title: "a parcel".to_owned(),
                read: piece + Mass::g(truly + noise),
                rest: Weight::with_doubt(piece, 0.005),
                by_material,
            }
        }).collect();
        let found = corrections(&parcels, &catalogue, |_| 0.08);
        for (id, moved) in ids.iter().zip(&moved) {
            let row = found.materials.iter().find(|row| row.material == *id).expect("it is in every parcel");
            let factor = row.then / row.now;
            prop_assert!((factor - moved).abs() < 0.03, "{id}: {factor} for {moved}");
            prop_assert_eq!(row.weighings, 30);
        }
        prop_assert!(found.off_then <= found.off_now + Mass::g(1.0));
        // Taken, they are what the stores say, and nothing is left to correct.
        let taken: BTreeMap<MaterialId, f64> = found.materials.iter().filter(|row| row.proposed)
            .map(|row| (row.material.clone(), row.then)).collect();
        let corrected = catalogue.with_densities(&taken);
        let replanned: Vec<WeighedPlan> = parcels.iter().map(|parcel| WeighedPlan {
            by_material: parcel.by_material.iter().map(|(id, mass)| {
                let row = found.materials.iter().find(|row| row.material == *id).expect("known");
                let share = taken.get(id).map_or(1.0, |then| then / row.now);
                (id.clone(), *mass * share)
            }).collect(),
            ..parcel.clone()
        }).collect();
        let again = corrections(&replanned, &corrected, |_| 0.08);
        for row in &again.materials {
            prop_assert!((row.then / row.now - 1.0).abs() < 0.03, "{:?}", row);
        }
    }

    /// Without readings, and with readings just as planned, nothing is proposed.
    #[test]
    fn what_reads_as_planned_moves_nothing(masses in prop::collection::vec(100.0..2500.0_f64, 2..12)) {
        let catalogue = house().catalogue;
        let id = catalogue.boards[0].id.clone();
        let parcels: Vec<WeighedPlan> = masses.iter().map(|mass| WeighedPlan {
            title: String::new(),
            read: Mass::g(mass + 900.0),
            rest: Weight::with_doubt(Mass::g(900.0), 0.2),
            by_material: [(id.clone(), Mass::g(*mass))].into(),
        }).collect();
        let found = corrections(&parcels, &catalogue, |_| 0.08);
        prop_assert!(found.materials.iter().all(|row| !row.proposed));
        prop_assert!(found.off_now < Mass::g(1e-6));
    }
}

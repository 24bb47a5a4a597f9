use rust_decimal_macros::dec;

use super::*;
use crate::{
    freight::{
        Along, BillableBy, Content, Contents, Cover, DiscountTier, Exclusion, Format, Gauge,
        Governs, Limits, Over, OverStep, Parcel, PerKgOf, QuoteRequest, Refuses, Rule, Service,
        Shape, Tariff, WeightStep, WithCover, Zone, ZonePrice,
    },
    place::Destination,
    quantity::Currency,
    space::Envelope,
};

fn tariff() -> Tariff {
    Tariff {
        id: "post".into(),
        carrier: "Post".into(),
        currency: Currency::try_from("EUR".to_owned()).expect("a currency"),
        valid_from: None,
        valid_to: None,
        zones: vec![
            Zone {
                name: "Near".into(),
                countries: vec!["XS".into()],
                postcode_prefixes: vec!["NQ".into()],
                postcode_ranges: vec![],
            },
            Zone {
                name: "Home".into(),
                countries: vec!["XS".into()],
                postcode_prefixes: vec![],
                postcode_ranges: vec![],
            },
        ],
        fuel_percent: dec!(7.5),
        fuel_on: vec![LineKind::Base, LineKind::Further, LineKind::Surcharge],
        tax_percent: dec!(20),
        tax_on: vec![
            LineKind::Base,
            LineKind::Further,
            LineKind::Surcharge,
            LineKind::Fuel,
        ],
        discount_tiers: vec![],
        tier: None,
        collection: None,
        claims: None,
        rules: vec![],
        services: vec![Service {
            id: "slow".into(),
            name: "Slow".into(),
            days_from: 3,
            days_to: 5,
            handover: Handover::DropOff,
            collection: None,
            tracked: true,
            route: None,
            roughness: 1.0,
            billable: BillableBy {
                divisor_cm3_per_kg: 6000.0,
                volumetric_above: None,
                size_step: Length::mm(10.0),
                weight_step: Mass::g(500.0),
                minimum: Mass::ZERO,
            },
            limits: Limits {
                mass: Mass::kg(30.0),
                longest: Length::mm(1500.0),
                second: None,
                length_plus_girth: Length::mm(3000.0),
                glass: true,
            },
            refuses: vec![],
            formats: vec![],
            prices: vec![ZonePrice {
                zone: "Home".into(),
                steps: vec![
                    WeightStep {
                        up_to: Mass::kg(5.0),
                        price: dec!(8),
                    },
                    WeightStep {
                        up_to: Mass::kg(10.0),
                        price: dec!(12),
                    },
                ],
                per_further_kg: Some(dec!(0.9)),
            }],
            rules: vec![Rule {
                name: "Long parcel".into(),
                when: When::Over(Over {
                    gauge: Gauge::Longest,
                    number: 1000.0,
                }),
                what: What::Sum { price: dec!(5.5) },
                replaces: vec![],
            }],
            cover: Cover {
                included: dec!(100),
                step: dec!(100),
                price_per_step: dec!(1.2),
                most: dec!(1000),
                excludes_glass: false,
                exclusions: vec![],
            },
            with_cover: None,
        }],
    }
}

fn parcel(sides: [f64; 3], kg: f64, value: Decimal) -> Parcel {
    let [across, up, through] = sides.map(Length::mm);
    Parcel {
        outside: Envelope {
            across,
            up,
            through,
        },
        mass: Mass::kg(kg),
        value: Some(value),
        buys_cover: true,
        shape: Shape::Rectangular,
        contents: Contents::default(),
    }
}

fn to(postcode: &str) -> Destination {
    Destination {
        country: "XS".into(),
        postcode: postcode.into(),
    }
}

fn asked(tariff: &Tariff, parcel: &Parcel, to: &Destination) -> Quote {
    tariff
        .quote("slow", &QuoteRequest::now(parcel, to))
        .expect("it has that service")
}

fn amounts(quote: &Quote) -> Vec<(&str, String)> {
    let Offer::Priced { lines, .. } = &quote.offer else {
        panic!("{:?}", quote.offer)
    };
    lines
        .iter()
        .map(|line| (line.name.as_str(), line.amount.amount.to_string()))
        .collect()
}

#[test]
fn every_line_builds_on_those_before() {
    // 1040 × 840 × 110 → 104 × 84 × 11 cm = 96 096 cm³ ÷ 6000 = 16.016 → 16.5 kg.
    // Base 12.00; 6.5 kg over 10 begins 7 × 0.90 = 6.30; long 5.50: 23.80.
    // Fuel 7.5 % = 1.785 → 1.79; tax 20 % of 25.59 = 5.118 → 5.12.
    // Cover 450 − 100 = 350 → 4 steps × 1.20 = 4.80. Total 35.51.
    let tariff = tariff();
    let quote = asked(
        &tariff,
        &parcel([1040.0, 840.0, 110.0], 6.0, dec!(450)),
        &to("LM4"),
    );
    assert_eq!(quote.billable.billable, Mass::kg(16.5));
    let shown = amounts(&quote);
    let wanted = [
        ("Base", "12.00"),
        ("Further kilograms", "6.30"),
        ("Long parcel", "5.50"),
        ("Fuel", "1.79"),
        ("Tax", "5.12"),
        ("Cover", "4.80"),
    ];
    assert_eq!(
        shown,
        wanted.map(|(name, amount)| (name, amount.to_owned()))
    );
    assert_eq!(quote.total().map(|total| total.amount), Some(dec!(35.51)));
}

#[test]
fn a_parcel_on_a_step_pays_that_step() {
    let tariff = tariff();
    let quote = asked(
        &tariff,
        &parcel([300.0, 300.0, 100.0], 5.0, dec!(0)),
        &to("LM4"),
    );
    // 8.00; fuel 0.60; tax 20 % of 8.60 = 1.72
    assert_eq!(quote.total().map(|total| total.amount), Some(dec!(10.32)));
}

#[test]
fn every_limit_that_is_broken_is_named() {
    let tariff = tariff();
    let quote = asked(
        &tariff,
        &parcel([1600.0, 1100.0, 150.0], 31.0, dec!(0)),
        &to("LM4"),
    );
    let Offer::Refused { reasons } = quote.offer else {
        panic!("taken")
    };
    // 1600 + 2 × (1100 + 150) = 4100
    assert_eq!(
        reasons,
        [
            Reason::TooHeavy {
                mass: Mass::kg(31.0),
                most: Mass::kg(30.0)
            },
            Reason::TooLong {
                longest: Length::mm(1600.0),
                most: Length::mm(1500.0)
            },
            Reason::TooLarge {
                length_plus_girth: Length::mm(4100.0),
                most: Length::mm(3000.0)
            },
        ]
    );
}

#[test]
fn a_zone_without_prices_is_not_served() {
    let tariff = tariff();
    let quote = asked(
        &tariff,
        &parcel([300.0, 300.0, 100.0], 5.0, dec!(0)),
        &to("nq1 2"),
    );
    assert_eq!(
        quote.offer,
        Offer::Refused {
            reasons: vec![Reason::NotServed]
        }
    );
}

#[test]
fn cover_stops_at_the_most_and_leaves_out_glass_where_it_says_so() {
    let mut tariff = tariff();
    let small = parcel([300.0, 300.0, 100.0], 5.0, dec!(5000));
    let Offer::Priced { covered, .. } = asked(&tariff, &small, &to("LM4")).offer else {
        panic!("refused")
    };
    assert_eq!(covered.amount, dec!(1000));
    tariff.services[0].cover.excludes_glass = true;
    let glazed = Parcel {
        contents: Contents::default().with(Content::Glass),
        ..small
    };
    let Offer::Priced { covered, .. } = asked(&tariff, &glazed, &to("LM4")).offer else {
        panic!("refused")
    };
    assert_eq!(covered.amount, dec!(0));
}

fn rule(name: &str, when: When, what: What, replaces: &[&str]) -> Rule {
    Rule {
        name: name.into(),
        when,
        what,
        replaces: replaces.iter().map(|name| (*name).to_owned()).collect(),
    }
}

#[test]
fn rules_add_replace_and_raise_and_a_tier_takes_off_the_table_alone() {
    // 1040 × 840 × 110: 16.5 kg by size, as above; length and girth 1040 + 2 × 950 = 2940.
    // Large parcel takes the place of Long parcel and bills at least 20 kg: base 12.00, 10 further × 0.90 = 9.00.
    // Large 14.00; per begun kilogram of 6.2 weighed 7 × 0.10 = 0.70; 10 % of base (21.00) and Large (14.00) 3.50;
    // over 2900 of length and girth 4.00. Tier 8 % off 21.00 = 1.68.
    // Fuel 7.5 % of 21.00 + 14.00 + 0.70 + 3.50 + 4.00 − 1.68 = 41.52 → 3.114 → 3.11.
    // Tax 20 % of 41.52 + 3.11 = 44.63 → 8.926 → 8.93. Total 53.56.
    let mut tariff = tariff();
    let large = || {
        When::Over(Over {
            gauge: Gauge::LengthPlusGirth,
            number: 2900.0,
        })
    };
    tariff.services[0].rules.extend([
        rule(
            "Large parcel",
            large(),
            What::Sum { price: dec!(14) },
            &["Long parcel"],
        ),
        rule(
            "Least",
            large(),
            What::Minimum {
                billable: Mass::kg(20.0),
            },
            &[],
        ),
        rule(
            "By weight",
            When::Always,
            What::PerKg {
                price: dec!(0.10),
                of: PerKgOf::Actual,
            },
            &[],
        ),
        rule(
            "Peak",
            When::Zone(vec!["Home".into()]),
            What::Percent {
                percent: dec!(10),
                of: vec!["base".into(), "Large parcel".into()],
            },
            &[],
        ),
        rule(
            "Steps",
            When::Any(vec![When::Glass, When::Always]),
            What::Steps {
                by: Gauge::LengthPlusGirth,
                steps: vec![
                    OverStep {
                        over: 2500.0,
                        price: dec!(2),
                    },
                    OverStep {
                        over: 2900.0,
                        price: dec!(4),
                    },
                    OverStep {
                        over: 3500.0,
                        price: dec!(9),
                    },
                ],
            },
            &[],
        ),
    ]);
    tariff.discount_tiers = vec![DiscountTier {
        name: "Workshop".into(),
        percent: dec!(8),
        of: vec![LineKind::Base, LineKind::Further],
    }];
    tariff.tier = Some("Workshop".into());
    tariff.fuel_on.push(LineKind::Discount);
    tariff.tax_on.push(LineKind::Discount);
    assert_eq!(tariff.checked(), Ok(()));
    let quote = asked(
        &tariff,
        &parcel([1040.0, 840.0, 110.0], 6.2, dec!(0)),
        &to("LM4"),
    );
    let wanted = [
        ("Base", "12.00"),
        ("Further kilograms", "9.00"),
        ("Large parcel", "14.00"),
        ("By weight", "0.70"),
        ("Peak", "3.50"),
        ("Steps", "4.00"),
        ("Workshop", "-1.68"),
        ("Fuel", "3.11"),
        ("Tax", "8.93"),
    ];
    assert_eq!(
        amounts(&quote),
        wanted.map(|(name, amount)| (name, amount.to_owned()))
    );
    assert_eq!(quote.total().map(|total| total.amount), Some(dec!(53.56)));
    assert_eq!(
        (quote.billable.billable, quote.billable.governs),
        (Mass::kg(20.0), Governs::Minimum)
    );
}

fn over(gauge: Gauge, number: f64) -> When {
    When::Over(Over { gauge, number })
}

#[test]
fn what_is_replaced_brings_nothing_back() {
    // 1600 mm: "Long" 5 gives way to "Longer" 9, and that to "Longest" 14: 14 alone is paid, not 5 and 14.
    let mut tariff = tariff();
    tariff.services[0].limits.longest = Length::mm(2000.0);
    tariff.services[0].rules = vec![
        rule(
            "Long",
            over(Gauge::Longest, 1000.0),
            What::Sum { price: dec!(5) },
            &[],
        ),
        rule(
            "Longer",
            over(Gauge::Longest, 1200.0),
            What::Sum { price: dec!(9) },
            &["Long"],
        ),
        rule(
            "Longest",
            over(Gauge::Longest, 1500.0),
            What::Sum { price: dec!(14) },
            &["Longer"],
        ),
    ];
    assert_eq!(tariff.checked(), Ok(()));
    // Each is dearer than what it takes the place of.
    assert_eq!(tariff.dips(), []);
    for (longest, paid) in [
        (900.0, None),
        (1100.0, Some("Long")),
        (1300.0, Some("Longer")),
        (1600.0, Some("Longest")),
    ] {
        let quote = asked(
            &tariff,
            &parcel([longest, 100.0, 100.0], 2.0, dec!(0)),
            &to("LM4"),
        );
        let shown = amounts(&quote);
        let mut surcharges = shown
            .iter()
            .map(|(name, _)| *name)
            .filter(|name| name.starts_with("Long"));
        assert_eq!(
            (surcharges.next(), surcharges.next()),
            (paid, None),
            "{longest}"
        );
    }
    // Cheaper than the first of the three it is said to be a dip, though not cheaper than the second.
    tariff.services[0].rules[0].what = What::Sum { price: dec!(20) };
    let places: Vec<String> = tariff.dips().into_iter().map(|dip| dip.place).collect();
    assert_eq!(places, ["services/0/rules/1", "services/0/rules/2"]);
}

#[test]
fn one_minimum_raises_the_next_and_refusals_and_cover_are_asked_of_what_is_billed() {
    // 300 × 300 × 100 at 2 kg: "Long side" raises to 6 kg, which is over 5 kg, so that "Heavy" raises to 12 kg:
    // 8 kg and more are not taken, and over 11 kg nothing is covered.
    let mut tariff = tariff();
    let minimum = |kg| What::Minimum {
        billable: Mass::kg(kg),
    };
    tariff.services[0].rules = vec![
        rule("Heavy", over(Gauge::Billable, 5000.0), minimum(12.0), &[]),
        rule("Long side", over(Gauge::Longest, 250.0), minimum(6.0), &[]),
    ];
    let small = parcel([300.0, 300.0, 100.0], 2.0, dec!(450));
    let quote = asked(&tariff, &small, &to("LM4"));
    assert_eq!(
        (quote.billable.billable, quote.billable.governs),
        (Mass::kg(12.0), Governs::Minimum)
    );
    // 12.00 and 2 further kilograms, 1.80; fuel 1.035 → 1.04; tax 20 % of 14.84 = 2.968 → 2.97; cover 4 × 1.20.
    let wanted = [
        ("Base", "12.00"),
        ("Further kilograms", "1.80"),
        ("Fuel", "1.04"),
        ("Tax", "2.97"),
        ("Cover", "4.80"),
    ];
    assert_eq!(
        amounts(&quote),
        wanted.map(|(name, amount)| (name, amount.to_owned()))
    );
    tariff.services[0].cover.exclusions = vec![Exclusion {
        name: "heavy parcels".into(),
        when: over(Gauge::Billable, 11_000.0),
    }];
    let quote = asked(&tariff, &small, &to("LM4"));
    assert_eq!(
        amounts(&quote).len(),
        4,
        "no cover is sold that the carrier refuses"
    );
    let Offer::Priced {
        covered, excluded, ..
    } = quote.offer
    else {
        panic!("refused")
    };
    assert_eq!(
        (covered.amount, excluded),
        (dec!(0), vec!["heavy parcels".to_owned()])
    );
    // What is shorter is billed 2 kg, and covered again: 51 mm less cost cover, and that is in the price of the step.
    let longer = parcel([300.0, 200.0, 100.0], 2.0, dec!(450));
    let place = to("LM4");
    let steps = tariff.steps(&QuoteRequest::now(&longer, &place)).remove(0);
    let step = steps
        .steps
        .iter()
        .find(|step| step.along == Along::Across)
        .expect("it is long");
    let shorter = parcel([250.0, 200.0, 100.0], 2.0, dec!(450));
    let then = asked(&tariff, &shorter, &place);
    assert_eq!(step.less_mm, Some(Length::mm(50.0)));
    assert_eq!(Some(&step.becomes), then.total());
    assert!(amounts(&then).iter().any(|(name, _)| *name == "Cover"));
    tariff.services[0].refuses = vec![Refuses {
        name: "over 8 kg".into(),
        when: over(Gauge::Billable, 8000.0),
    }];
    let quote = asked(&tariff, &small, &to("LM4"));
    let reasons = vec![Reason::Excluded {
        name: "over 8 kg".into(),
    }];
    assert_eq!(quote.offer, Offer::Refused { reasons });
}

#[test]
fn the_cheapest_container_that_it_goes_into_sets_the_price_and_size_counts_for_nothing_in_it() {
    let mut tariff = tariff();
    let flat = |name: &str, sides: [f64; 3], price| {
        let [length, width, height] = sides.map(Length::mm);
        Format {
            name: name.into(),
            length,
            width,
            height,
            prices: vec![ZonePrice {
                zone: "Home".into(),
                steps: vec![WeightStep {
                    up_to: Mass::kg(4.0),
                    price,
                }],
                per_further_kg: None,
            }],
        }
    };
    tariff.services[0].formats = vec![
        flat("Small flat", [450.0, 350.0, 60.0], dec!(4.80)),
        flat("Large flat", [650.0, 460.0, 90.0], dec!(7.20)),
    ];
    // 640 × 440 × 80 goes into the large one (as rounded up to 640 × 440 × 80): 7.20, fuel 0.54, tax 20 % of 7.74 = 1.548 → 1.55.
    let quote = asked(
        &tariff,
        &parcel([80.0, 640.0, 440.0], 3.9, dec!(0)),
        &to("LM4"),
    );
    assert_eq!(
        amounts(&quote),
        [
            ("Large flat", "7.20".to_owned()),
            ("Fuel", "0.54".to_owned()),
            ("Tax", "1.55".to_owned())
        ]
    );
    // A gram too heavy for it: by the table, 640 × 440 × 80 = 22 528 cm³ ÷ 6000 = 3.755 → 4.001 weighs more → 4.5 kg: 8.00.
    let heavy = asked(
        &tariff,
        &parcel([80.0, 640.0, 440.0], 4.001, dec!(0)),
        &to("LM4"),
    );
    assert_eq!(amounts(&heavy)[0], ("Base", "8.00".to_owned()));
}

#[test]
fn a_service_that_becomes_another_with_cover_says_so_and_dates_are_kept() {
    let mut tariff = tariff();
    tariff.services[0].with_cover = Some(WithCover {
        days_from: 1,
        days_to: 2,
        tracked: false,
    });
    let small = parcel([300.0, 300.0, 100.0], 2.0, dec!(450));
    let bought = asked(&tariff, &small, &to("LM4"));
    assert_eq!(
        (bought.days_from, bought.days_to, bought.tracked),
        (1, 2, false)
    );
    let plain = Parcel {
        buys_cover: false,
        ..small
    };
    let plain = asked(&tariff, &plain, &to("LM4"));
    assert_eq!(
        (plain.days_from, plain.days_to, plain.tracked),
        (3, 5, true)
    );
    tariff.valid_to = Some(jiff::civil::date(2027, 3, 31));
    let on = |day| {
        let place = to("LM4");
        let asked = QuoteRequest {
            on: Some(day),
            ..QuoteRequest::now(&small, &place)
        };
        tariff
            .quote("slow", &asked)
            .expect("it has that service")
            .total()
            .is_some()
    };
    assert!(on(jiff::civil::date(2027, 3, 31)) && !on(jiff::civil::date(2027, 4, 1)));
}

#[test]
fn the_way_to_the_next_price_is_told_in_millimetres_and_grams() {
    // 600 × 800 × 112 as measured → 60 × 80 × 12 cm: 57 600 cm³ ÷ 6000 = 9.6 → 10 kg: the step up to 10 kg, 12.00.
    // To 5 kg by size: 60 × 80 × c ≤ 30 000 cm³, c ≤ 6.25 → 60 mm: 52 less through.
    // Up: 130 × 60 × 80 = 62 400 ÷ 6000 = 10.4 → 10.5 kg, a further kilogram: from 112 there are 8 mm to 120.
    // By weight: 3.42 may grow to 10.0 kg.
    let tariff = tariff();
    let box_ = parcel([600.0, 800.0, 112.0], 3.42, dec!(0));
    let steps = tariff
        .steps(&QuoteRequest::now(&box_, &to("LM4")))
        .remove(0);
    let down: Vec<_> = steps
        .steps
        .iter()
        .map(|step| (step.along, step.less_mm))
        .collect();
    // Across: 600 → a × 80 × 12 ≤ 30 000, a ≤ 31.25 → 310: 290 less. Up: 800 → 41.67 → 410: 390 less.
    assert_eq!(
        down,
        [
            (Along::Across, Some(Length::mm(290.0))),
            (Along::Up, Some(Length::mm(390.0))),
            (Along::Through, Some(Length::mm(52.0))),
        ]
    );
    // 8.00 + 0.60 fuel + 1.72 tax = 10.32 in place of 12.00 + 0.90 + 2.58 = 15.48.
    assert_eq!(
        steps.steps[2].saves.as_ref().map(|saves| saves.amount),
        Some(dec!(5.16))
    );
    let room: Vec<_> = steps
        .room
        .iter()
        .map(|room| (room.along, room.more_mm, room.more_g))
        .collect();
    assert!(
        room.contains(&(Along::Through, Some(Length::mm(8.0)), None)),
        "{room:?}"
    );
    assert!(
        room.contains(&(Along::Mass, None, Some(Mass::g(6580.0)))),
        "{room:?}"
    );
    assert!(steps.room.iter().all(|room| !room.dip));
}

#[test]
fn the_largest_thing_that_can_be_asked_about_is_refused_at_once() {
    // A cube of 10 m at 500 cm³ per kg counts for 2 000 000 kg; each kilogram would be a step of its own.
    let mut tariff = tariff();
    tariff.services[0].billable.divisor_cm3_per_kg = 500.0;
    tariff.services[0].rules.push(rule(
        "By weight",
        When::Always,
        What::PerKg {
            price: dec!(0.10),
            of: PerKgOf::Billable,
        },
        &[],
    ));
    let huge = parcel([10_000.0, 10_000.0, 10_000.0], 1000.0, dec!(0));
    let steps = tariff
        .steps(&QuoteRequest::now(&huge, &to("LM4")))
        .remove(0);
    assert_eq!((steps.steps, steps.room), (vec![], vec![]));
}

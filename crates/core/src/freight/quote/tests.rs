use rust_decimal_macros::dec;

use super::*;
use crate::{
    freight::{
        BillableBy, Content, Contents, Cover, Destination, Limits, Parcel, PriceStep, Rule,
        Service, Shape, Zone, ZonePrice,
    },
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
                    PriceStep {
                        up_to: Mass::kg(5.0),
                        price: dec!(8),
                    },
                    PriceStep {
                        up_to: Mass::kg(10.0),
                        price: dec!(12),
                    },
                ],
                per_further_kg: Some(dec!(0.9)),
            }],
            rules: vec![Rule {
                name: "Long parcel".into(),
                when: When::LongestOver {
                    over: Length::mm(1000.0),
                },
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
        .quote("slow", &Asked::now(parcel, to))
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

#[test]
fn the_cheapest_comes_first_and_the_refused_last() {
    let mut tariff = tariff();
    let mut dear = tariff.services[0].clone();
    dear.id = "a-dear".into();
    dear.prices[0].steps[0].price = dec!(80);
    let mut refused = tariff.services[0].clone();
    refused.id = "a-refused".into();
    refused.limits.mass = Mass::kg(1.0);
    tariff.services.splice(0..0, [refused, dear]);
    let small = parcel([300.0, 300.0, 100.0], 5.0, dec!(0));
    let found = quotes(&Asked::now(&small, &to("LM4")), &[tariff]);
    let ids: Vec<&str> = found.iter().map(|quote| quote.id.as_str()).collect();
    assert_eq!(ids, ["post/slow", "post/a-dear", "post/a-refused"]);
}

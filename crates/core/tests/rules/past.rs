//! The parcels of the demo studio's months before, drawn with a seed, so that its log has something to tell.
//!
//! Sixty-eight of them stand in `demo/log.json`; with the twelve of `demo/weighed.json` they are eighty over fourteen months. Weights
//! are off by as much as their plans leave open, minutes by about 20 %, and one arrived damaged: what the odds give eighty parcels.

#![allow(
    clippy::cast_possible_truncation,
    clippy::cast_sign_loss,
    clippy::cast_precision_loss,
    reason = "every number that is drawn is small"
)]

use hummock_core::shipment::{ShipmentInputs, Workings};
use jiff::{ToSpan as _, civil::Date, civil::Weekday, civil::date};
use proptest::{
    prelude::*,
    test_runner::{RngAlgorithm, TestRng},
};
use serde_json::{Value, json};

use crate::studio::four_carriers;

const SEED: [u8; 32] = *b"eighty parcels of a small studio";
const PARCELS: usize = 68;
/// On which the dates of the demo studio are right, and the first of these left.
const AS_OF: Date = date(2027, 3, 4);
const FIRST: Date = date(2025, 12, 18);
/// Days from one parcel to the next, on average.
const EVERY_DAYS: f64 = 5.85;
const MINUTES_OFF: f64 = 0.2;

const FIRST_WORDS: [&str; 12] = [
    "Early", "Late", "Grey", "Still", "Low", "Far", "Cold", "Long", "Salt", "Wet", "Pale", "Last",
];
const SECOND_WORDS: [&str; 12] = [
    "Slipway",
    "Tide",
    "Sandbar",
    "Reeds",
    "Mooring",
    "Causeway",
    "Lamp",
    "Creek",
    "Shingle",
    "Oyster Beds",
    "Pilings",
    "Groyne",
];
/// Construction, medium, depth, kilograms a square metre without anything else, and how often of a hundred.
const KINDS: [(&str, &str, &str, f64, u32); 7] = [
    ("stretched_canvas", "acrylic", "20 mm", 2.2, 24),
    ("stretched_canvas", "oil", "38 mm", 3.4, 20),
    ("framed_unglazed", "oil", "30 mm", 6.2, 16),
    ("framed_under_acrylic", "print", "24 mm", 6.0, 12),
    ("framed_under_glass", "print", "24 mm", 8.5, 10),
    ("cradled_panel", "acrylic", "24 mm", 6.6, 12),
    ("rigid_board", "print", "5 mm", 3.0, 6),
];
const SIDES: [(u32, u32); 12] = [
    (300, 300),
    (300, 400),
    (420, 300),
    (400, 500),
    (500, 400),
    (500, 500),
    (500, 700),
    (600, 450),
    (600, 800),
    (700, 500),
    (760, 560),
    (900, 700),
];
const BUYERS: [[&str; 5]; 12] = [
    ["Hesper Rowan", "4 Tern Row", "Sallow Hythe", "SH2 7", "XS"],
    [
        "Ivo Calder",
        "19 Weir Street",
        "Tarrow Bridge",
        "TB1 4",
        "XS",
    ],
    ["Maud Penhale", "2 The Slip", "Netherby Quay", "NQ1 2", "XS"],
    [
        "Bran Aldous",
        "7 Cooper Hill",
        "Sallow Hythe",
        "SH1 3",
        "XS",
    ],
    ["Oona Fell", "31 Mill Lane", "Tarrow Bridge", "TB2 9", "XS"],
    [
        "Tam Ferrier",
        "12 Rope Yard",
        "Netherby Quay",
        "NQ2 8",
        "XS",
    ],
    ["Greta Moss", "5 Kiln Road", "Upper Cray", "UC4 1", "XS"],
    ["Silas Quill", "88 Long Acre", "Upper Cray", "UC1 6", "XS"],
    ["Nell Harker", "3 Fen End", "Tarrow Bridge", "TB4 4", "XS"],
    ["Jory Pike", "26 Gull Street", "Sallow Hythe", "SH4 2", "XS"],
    ["Annika Vold", "Lindgata 14", "Vestmark", "4410", "XV"],
    ["Piet Haas", "Havnevei 9", "Nordholm", "2280", "XV"],
];

/// Draws of one seed, the same on every machine.
struct Drawn(TestRng);

impl Drawn {
    /// From 0 to less than 1.
    fn share(&mut self) -> f64 {
        const BITS: u32 = 53;
        let share = (self.0.next_u64() >> (u64::BITS - BITS)) as f64;
        share / f64::from(BITS).exp2()
    }

    fn one_of<T: Copy>(&mut self, of: &[T]) -> T {
        let at = (self.share() * of.len() as f64) as usize;
        of[at]
    }

    /// About none, as far off as that on average, never more than three times as far.
    fn off(&mut self, by: f64) -> f64 {
        // Twelve draws between 0 and 1 are six on average, and one off.
        let sum: f64 = (0..12).map(|_| self.share()).sum();
        by * (sum - 6.0).clamp(-3.0, 3.0)
    }

    fn kind(&mut self) -> (&'static str, &'static str, &'static str, f64) {
        let mut left = self.share() * 100.0;
        for (construction, medium, depth, weighs, of_hundred) in KINDS {
            left -= f64::from(of_hundred);
            if left < 0.0 {
                return (construction, medium, depth, weighs);
            }
        }
        unreachable!("they are a hundred")
    }
}

fn working_day(day: Date) -> Date {
    match day.weekday() {
        Weekday::Saturday => day.saturating_add(2.days()),
        Weekday::Sunday => day.saturating_add(1.day()),
        _ => day,
    }
}

/// Returns the parcels as a start file holds them.
fn parcels() -> Value {
    let house = four_carriers();
    let mut drawn = Drawn(TestRng::from_seed(RngAlgorithm::ChaCha, &SEED));
    let mut titles: Vec<String> = FIRST_WORDS
        .iter()
        .flat_map(|first| SECOND_WORDS.map(|second| format!("{first} {second}")))
        .collect();
    let mut made = Vec::new();
    let mut day = f64::from((FIRST - date(2025, 1, 1)).get_days());
    while made.len() < PARCELS {
        let (construction, medium, depth, weighs) = drawn.kind();
        let (width, height) = drawn.one_of(&SIDES);
        let [name, street, town, postcode, country] = drawn.one_of(&BUYERS);
        let square_metres = f64::from(width * height) / 1e6;
        let weighs = weighs * square_metres + 0.4 + drawn.share() * 0.3;
        let worth = 20 * (4 + (square_metres * 60.0 + drawn.share() * 14.0).round() as u32);
        let title = {
            let at = (drawn.share() * titles.len() as f64) as usize;
            titles.swap_remove(at)
        };
        day += EVERY_DAYS * (0.4 + 1.2 * drawn.share());
        let left = working_day(date(2025, 1, 1).saturating_add((day as i64).days()));
        let mut parcel = json!({
            "title": title,
            "buyer": {
                "name": name, "street": street, "town": town, "postcode": postcode, "country": country,
            },
            "promised": left.saturating_add(9.days()).to_string(),
            "value": format!("{worth}.00"),
            "piece": {
                "construction": construction, "width": format!("{width} mm"), "height": format!("{height} mm"),
                "depth": depth, "medium": medium, "finished": left.saturating_sub(280.days()).to_string(),
                "weight": format!("{weighs:.2} kg"),
            },
        });
        let inputs: ShipmentInputs = serde_json::from_value(parcel.clone()).expect("inputs");
        let worked = Workings::out(&inputs, &house).expect("it can be made");
        let plan = worked.plan.as_ref().expect("it is measured");
        let quote = worked
            .quotes
            .first()
            .filter(|quote| quote.total().is_some());
        let quote = quote.unwrap_or_else(|| panic!("nobody takes {title}"));
        let weight = plan.tally.weight;
        let mass = (weight.mass.as_g() + drawn.off(weight.plus_minus.as_g())) / 1000.0;
        let minutes = plan.tally.minutes.as_min() * (1.0 + drawn.off(MINUTES_OFF));
        let days = i64::from(quote.days_from)
            + (drawn.share() * f64::from(1 + quote.days_to - quote.days_from)) as i64;
        let at = made.len();
        parcel["service"] = json!(quote.id);
        parcel["parcel"] = json!({ "weight": format!("{mass:.3} kg") });
        parcel["sending"] = json!({
            "receipt": format!("R {}", 400 + 7 * at), "handed_over": left.to_string(),
        });
        let on = working_day(left.saturating_add(days.days())).to_string();
        parcel["after"] =
            json!({ "outcome": "arrived", "on": on, "minutes": minutes.round() as u32 });
        made.push(parcel);
    }
    json!({ "as_of": AS_OF.to_string(), "shipments": made })
}

#[test]
fn the_log_of_the_demo_studio_is_drawn_from_its_seed() {
    let parcels = parcels();
    let path = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/log.json");
    if std::env::var_os("HUMMOCK_WRITE").is_some() {
        let rows: Vec<String> = parcels["shipments"]
            .as_array()
            .expect("parcels")
            .iter()
            .map(Value::to_string)
            .collect();
        let text = format!(
            "{{\"as_of\": {}, \"shipments\": [\n{}\n]}}\n",
            parcels["as_of"],
            rows.join(",\n")
        );
        std::fs::write(path, text).expect("it can be written");
    }
    let kept = std::fs::read_to_string(path).expect("it is there");
    let kept: Value = serde_json::from_str(&kept).expect("JSON");
    assert_eq!(
        kept, parcels,
        "demo/log.json is behind: run this test with HUMMOCK_WRITE=1"
    );
}

/// A parcel of the demo's past, beside what its plan said before it was weighed.
struct Past {
    /// How far its weight is from the planned one, in the plan's own ±.
    weight_off: f64,
    minutes_off: f64,
    said_damaged: f64,
    outcome: String,
}

impl Past {
    fn of(row: &Value) -> Self {
        let mut unweighed = row.clone();
        unweighed["parcel"] = json!({});
        let inputs: ShipmentInputs = serde_json::from_value(unweighed).expect("inputs");
        let worked = Workings::out(&inputs, &four_carriers()).expect("it can be made");
        let plan = worked.plan.expect("a plan");
        let weighed: f64 = row["parcel"]["weight"]
            .as_str()
            .and_then(|text| text.strip_suffix(" kg")?.parse().ok())
            .expect("kilograms");
        let weight = plan.tally.weight;
        let took = row["after"]["minutes"].as_f64().expect("minutes");
        Self {
            weight_off: (weighed * 1000.0 - weight.mass.as_g()) / weight.plus_minus.as_g(),
            minutes_off: took / plan.tally.minutes.as_min() - 1.0,
            said_damaged: plan.odds.probability,
            outcome: row["after"]["outcome"]
                .as_str()
                .expect("an outcome")
                .to_owned(),
        }
    }
}

#[test]
fn the_drawn_parcels_scatter_as_their_plans_say() {
    // Of 68 draws the scatter itself is off by about one in twelve (1/√136 = 0.086): three times that is 26 %.
    let parcels = parcels();
    let rows = parcels["shipments"].as_array().expect("parcels");
    let past: Vec<Past> = rows.iter().map(Past::of).collect();
    for (what, off, wanted) in [
        (
            "weights",
            past.iter().map(|one| one.weight_off).collect::<Vec<_>>(),
            1.0,
        ),
        (
            "minutes",
            past.iter().map(|one| one.minutes_off).collect(),
            MINUTES_OFF,
        ),
    ] {
        let many = off.len() as f64;
        let mean = off.iter().sum::<f64>() / many;
        let scatter = (off.iter().map(|one| (one - mean).powi(2)).sum::<f64>() / many).sqrt();
        assert!((scatter / wanted - 1.0).abs() < 0.26, "{what}: {scatter}");
        assert!(mean.abs() < 3.0 * wanted / many.sqrt(), "{what}: {mean}");
    }
}

/// The demo's whole past testifies for the model and not against it. Kills a log that is drawn with other odds or another ± than the
/// plans have.
#[test]
fn the_whole_past_of_the_demo_lies_where_its_plans_say() {
    let shipped: Value =
        serde_json::from_str(include_str!("../../../../demo/weighed.json")).expect("JSON");
    let drawn = parcels();
    let rows = [&drawn, &shipped].map(|file| file["shipments"].as_array().expect("parcels"));
    let past: Vec<Past> = rows.into_iter().flatten().map(Past::of).collect();
    assert_eq!(past.len(), 80);

    // ± is one deviation: 68.3 of a hundred weights lie inside. Of 80 that is 54.6, with a deviation of √(80 × 0.683 × 0.317) = 4.16,
    // and 95 % of such logs have 46.5 to 62.8 inside.
    let inside = past
        .iter()
        .filter(|one| one.weight_off.abs() <= 1.0)
        .count();
    assert!((47..=62).contains(&inside), "{inside} of 80 weights");

    // How many arrive damaged is Poisson's: one is neither fewer nor more than 95 % of such logs have.
    let expected: f64 = past.iter().map(|one| one.said_damaged).sum();
    let damaged = past.iter().filter(|one| one.outcome == "damaged").count();
    assert_eq!(damaged, 1);
    let none = (-expected).exp();
    let at_least_one = 1.0 - none;
    let at_most_one = none * (1.0 + expected);
    assert!(
        at_least_one > 0.025 && at_most_one > 0.025,
        "{expected} expected"
    );
    // It was claimed.
    let claims = rows
        .into_iter()
        .flatten()
        .filter(|row| row["after"]["claim"].is_object());
    assert_eq!(claims.count(), 1);
}

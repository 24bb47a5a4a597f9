//! The parcels of the demo studio's months before, drawn with a seed, so that its log has something to tell.
//!
//! Sixty-eight of them stand in `demo/log.json`; with the twelve of `demo/weighed.json` they are eighty over fourteen months:
//! one was lost and one more arrived damaged, weights are off by about 3 %, minutes by about 20 %.

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
const WEIGHT_OFF: f64 = 0.03;
const MINUTES_OFF: f64 = 0.2;
/// Which of them came to harm.
const LOST: usize = 26;
const DAMAGED: usize = 49;

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

/// What came of a parcel that left on a day and was underway for some.
fn came(at: usize, left: Date, days: i64, worth: u32) -> Value {
    let on = working_day(left.saturating_add(days.days())).to_string();
    let sent = |after: i64| left.saturating_add(after.days()).to_string();
    match at {
        LOST => json!({
            "outcome": "lost", "on": sent(31),
            "claim": {
                "asked": format!("{worth}.00"), "sent_on": sent(32), "number": "C 161",
                "decided_on": sent(61), "paid": format!("{worth}.00"),
            },
            "lesson": "Ask the carrier after a week, not after a month",
        }),
        DAMAGED => json!({
            "outcome": "damaged", "on": on,
            "damage": "A fork or a table edge pressed into the face; the board behind the wrap is creased, the picture has a dent.",
            "failed": "face_boards",
            "claim": {
                "asked": format!("{worth}.00"), "sent_on": sent(days + 1), "number": "C 187",
                "decided_on": sent(days + 19), "paid": format!("{}.00", worth / 2),
            },
            "lesson": "A stiffer board in front for anything over half a metre",
        }),
        _ => json!({ "outcome": "arrived", "on": on }),
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
        let mass = plan.tally.weight.mass.as_g() / 1000.0 * (1.0 + drawn.off(WEIGHT_OFF));
        let minutes = plan.tally.minutes.as_min() * (1.0 + drawn.off(MINUTES_OFF));
        let days = i64::from(quote.days_from)
            + (drawn.share() * f64::from(1 + quote.days_to - quote.days_from)) as i64;
        let at = made.len();
        parcel["service"] = json!(quote.id);
        parcel["parcel"] = json!({ "weight": format!("{mass:.3} kg") });
        parcel["sending"] = json!({
            "receipt": format!("R {}", 400 + 7 * at), "handed_over": left.to_string(),
        });
        let mut after = came(at, left, days, worth);
        after["minutes"] = json!(minutes.round() as u32);
        parcel["after"] = after;
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

#[test]
fn the_drawn_parcels_scatter_as_real_ones_do() {
    // Of 68 draws the scatter itself is off by about one in twelve (1/√136 = 0.086): three times that is 26 %.
    let house = four_carriers();
    let parcels = parcels();
    let rows = parcels["shipments"].as_array().expect("parcels");
    let (mut weights, mut minutes) = (Vec::new(), Vec::new());
    for row in rows {
        let mut unweighed = row.clone();
        unweighed["parcel"] = json!({});
        let inputs: ShipmentInputs = serde_json::from_value(unweighed).expect("inputs");
        let worked = Workings::out(&inputs, &house).expect("it can be made");
        let tally = worked.plan.expect("a plan").tally;
        let weighed: f64 = row["parcel"]["weight"]
            .as_str()
            .and_then(|text| text.strip_suffix(" kg")?.parse().ok())
            .expect("kilograms");
        weights.push(weighed * 1000.0 / tally.weight.mass.as_g() - 1.0);
        let took = row["after"]["minutes"].as_f64().expect("minutes");
        minutes.push(took / tally.minutes.as_min() - 1.0);
    }
    for (what, off, wanted) in [
        ("weights", weights, WEIGHT_OFF),
        ("minutes", minutes, MINUTES_OFF),
    ] {
        let many = off.len() as f64;
        let mean = off.iter().sum::<f64>() / many;
        let scatter = (off.iter().map(|one| (one - mean).powi(2)).sum::<f64>() / many).sqrt();
        assert!((scatter / wanted - 1.0).abs() < 0.26, "{what}: {scatter}");
        assert!(mean.abs() < 3.0 * wanted / many.sqrt(), "{what}: {mean}");
    }
    let ended = |how: &str| {
        rows.iter()
            .filter(|row| row["after"]["outcome"] == how)
            .count()
    };
    assert_eq!(
        [
            ended("arrived"),
            ended("damaged"),
            ended("lost"),
            rows.len()
        ],
        [66, 1, 1, 68]
    );
}

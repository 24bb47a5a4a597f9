use serde_json::json;

use super::*;
use crate::{
    freight::Tariff,
    quantity::{DecimalMark, LengthUnit, MassUnit, Telling},
};

fn demo() -> Tariff {
    let text = include_str!("../../../../../demo/tariffs/gannet-post.json");
    serde_json::from_str(text).expect("a tariff")
}

fn refused(change: impl FnOnce(&mut TariffSheet)) -> Vec<(String, String)> {
    let telling = Telling::default();
    let mut sheet = TariffSheet::of(&demo(), telling);
    change(&mut sheet);
    let refusals = sheet.read(telling).err().unwrap_or_default().into_iter();
    refusals.map(|one| (one.field, one.message)).collect()
}

#[test]
fn what_is_opened_and_kept_is_the_same_in_every_way_of_writing() {
    for text in [
        include_str!("../../../../../demo/tariffs/gannet-post.json"),
        include_str!("../../../../../demo/tariffs/overland-quay.json"),
        include_str!("../../../../../docs/tariff-example.json"),
    ] {
        let tariff: Tariff = serde_json::from_str(text).expect("a tariff");
        for (length, mass, decimal) in [
            (LengthUnit::Mm, MassUnit::Kg, DecimalMark::Point),
            (LengthUnit::Cm, MassUnit::Kg, DecimalMark::Comma),
            (LengthUnit::In, MassUnit::Lb, DecimalMark::Point),
        ] {
            let telling = Telling {
                length,
                mass,
                decimal,
                ..Telling::default()
            };
            let kept = TariffSheet::of(&tariff, telling).read(telling);
            assert_eq!(kept.as_ref(), Ok(&tariff), "{telling:?}");
        }
    }
}

#[test]
fn what_is_wrong_is_told_at_its_cell() {
    assert_eq!(refused(|_| {}), []);
    // The third weight of the second zone.
    let wrong = refused(|sheet| {
        sheet.services[0].prices.zones[1].prices[2] = "6,2O".to_owned();
    });
    let says = "\"6,2O\" is not a number: write it as 6.20 or 6,20".to_owned();
    let cell = "services/0/prices/zones/1/prices/2".to_owned();
    assert_eq!(wrong, [(cell, says)]);
    // A column without prices is no zone of the tariff; the places of those behind it stay those of the form.
    let places = |change: fn(&mut TariffSheet)| -> Vec<String> {
        refused(change)
            .into_iter()
            .map(|(place, _)| place)
            .collect()
    };
    let wrong = places(|sheet| {
        let table = &mut sheet.services[0].prices;
        table.zones[0].prices.fill(String::new());
        table.zones[0].further.clear();
        table.zones[2].prices[1] = "-5".to_owned();
        table.zones[2].further = "0.001".to_owned();
    });
    assert_eq!(
        wrong,
        [
            "services/0/prices/zones/2/prices/1",
            "services/0/prices/zones/2/further"
        ]
    );
    // The second weight is lighter than the first.
    let wrong = places(|sheet| sheet.services[0].prices.weights[1] = "1 kg".to_owned());
    assert_eq!(wrong[0], "services/0/prices/weights/1");
    let wrong = places(|sheet| {
        sheet.zones[0].postcodes[1] = PostcodeLine::BeginsWith {
            with: "n_q".to_owned(),
        };
    });
    assert_eq!(wrong, ["zones/0/postcodes/1"]);
    let wrong = places(|sheet| sheet.services[0].billable.divisor = "100".to_owned());
    assert_eq!(wrong, ["services/0/billable/divisor"]);
    let wrong = places(|sheet| {
        sheet.services[0].rules[0].when.of = vec![ConditionSheet::Zone {
            is: vec!["Nowhere".to_owned()],
        }];
    });
    assert_eq!(wrong, ["services/0/rules/0/when"]);
    let wrong = places(|sheet| {
        sheet.services[0].rules[0].when.of = vec![];
        sheet.services[0].limits.mass = "heavy".to_owned();
        sheet.services[0].days_to = "soon".to_owned();
    });
    assert_eq!(
        wrong,
        [
            "services/0/days_to",
            "services/0/limits/mass",
            "services/0/rules/0/when"
        ]
    );
}

#[test]
fn a_name_is_shortened_where_none_is_given() {
    let mut sheet = TariffSheet::of(&demo(), Telling::default());
    sheet.id = String::new();
    sheet.carrier = "Øst & Væst Fragt, A/S".to_owned();
    sheet.services[0].id = String::new();
    sheet.services[0].name = "Next day (signed)".to_owned();
    let read = sheet.read(Telling::default()).expect("it holds together");
    assert_eq!(
        (read.id.as_str(), read.services[0].id.as_str()),
        ("st-v-st-fragt-a-s", "next-day-signed")
    );
}

#[test]
fn a_condition_without_a_form_is_kept() {
    let nested = json!({ "kind": "any", "of": [
        { "kind": "glass" },
        { "kind": "all", "of": [{ "kind": "longest_over", "over_mm": 900 }, { "kind": "glass" }] }
    ] });
    let mut tariff = demo();
    tariff.services[0].rules[0].when = serde_json::from_value(nested).expect("a condition");
    let sheet = TariffSheet::of(&tariff, Telling::default());
    let of = &sheet.services[0].rules[0].when.of;
    assert_eq!(of[0], ConditionSheet::Glass);
    assert!(matches!(of[1], ConditionSheet::Kept { .. }));
    assert_eq!(sheet.read(Telling::default()), Ok(tariff));
}

#[test]
fn cells_of_a_spreadsheet_make_a_table() {
    let rows = |text: &str| -> Vec<Vec<String>> {
        let lines = text.lines();
        lines
            .map(|line| line.split('\t').map(str::to_owned).collect())
            .collect()
    };
    let zones = ["Home".to_owned(), "Abroad".to_owned()];
    let pasted = PastedPrices::read(
        &rows(
            "Weight\tHOME\tIslands\nup to 2 kg\t4,90\t7,10\n5\t6,70\t\neach further kg\t0,70\t1,10",
        ),
        &zones,
        Telling::default(),
    );
    assert_eq!(pasted.new_zones, ["Islands"]);
    assert_eq!(pasted.table.weights, ["2 kg", "5 kg"]);
    let columns: Vec<(&str, Vec<&str>, &str)> = pasted
        .table
        .zones
        .iter()
        .map(|zone| {
            (
                zone.zone.as_str(),
                zone.prices.iter().map(String::as_str).collect(),
                zone.further.as_str(),
            )
        })
        .collect();
    assert_eq!(
        columns,
        [
            ("Home", vec!["4,90", "6,70"], "0,70"),
            ("Islands", vec!["7,10", ""], "1,10")
        ]
    );
    // Without a head the columns follow the zones.
    let bare = PastedPrices::read(
        &rows("2\t4.90\t5.60\t9\n5 lb\t6\tx\t"),
        &zones,
        Telling::default(),
    );
    assert_eq!(bare.new_zones, ["Zone 3"]);
    assert_eq!(bare.table.weights, ["2 kg", "5 lb"]);
    assert_eq!(bare.table.zones[1].prices, ["5.60", "x"]);
}

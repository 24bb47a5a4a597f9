//! A studio that counts in other money from a day on.

use hummock_core::{
    house::{ExchangeRate, MoneyChange},
    material::{Catalogue, MaterialClass},
    quantity::{Currency, Sum},
    shipment::{QuotationInputs, ShipmentInputs, Workings},
};
use jiff::civil::{Date, date};
use proptest::prelude::*;
use rust_decimal::Decimal;
use rust_decimal_macros::dec;
use serde_json::{Value, json};

use crate::studio::{catalogue, everyday, house, rules};

const DAY: Date = date(2027, 3, 4);

fn money(code: &str) -> Currency {
    Currency::try_from(code.to_owned()).expect("money")
}

fn change(to: &str, rate: Decimal) -> MoneyChange {
    MoneyChange::new(money("EUR"), money(to), rate, DAY).expect("a rate")
}

/// 1 EUR = 1.08 USD: an hour 24 → 25.92, a mailer up to 250 → 270, two boxes over 2000 → 2160. 1 EUR = 162.5 JPY: an hour 3900,
/// and 250 → 40 625.
#[test]
fn limits_and_wages_are_put_into_the_new_money() {
    for (to, rate, hour, mailer, twice) in [
        ("USD", dec!(1.08), 25.92, 270.0, 2160.0),
        ("JPY", dec!(162.5), 3900.0, 40_625.0, 325_000.0),
    ] {
        let then = change(to, rate).rules(&rules());
        assert_eq!(then.allowances.labour_per_hour, Sum::new(hour));
        assert_eq!(then.allowances.mailer_value, Sum::new(mailer));
        // 2000, 400 and 200 over which, 100 up to which a shipment begins otherwise.
        let bounds: Vec<Sum> = then
            .beginnings
            .iter()
            .flat_map(|line| [line.value_over, line.value_up_to])
            .flatten()
            .collect();
        let shares = [1.0, 0.2, 0.1, 0.05].map(|share| Sum::new(twice * share));
        assert_eq!(bounds, shares);
        assert!(then.check().is_ok(), "{:?}", then.check());
        // Shares, lengths and minutes stay.
        assert_eq!(then.allowances.clearance, rules().allowances.clearance);
        assert_eq!(
            then.allowances.loss_hours.to_bits(),
            rules().allowances.loss_hours.to_bits()
        );
    }
}

/// A price keeps four digits, and at least the decimals of its money: 2.10 EUR is 2.268 USD, 0.043 is 0.04644 (four decimals more
/// than cents would be six), 12.345 is 13.33; in yen 0.18 is 29.25, 3.10 is 503.75 and so 503.8, 48 is 7800.
#[test]
fn prices_keep_four_digits() {
    for (to, rate, prices) in [
        (
            "USD",
            dec!(1.08),
            [("2.10", "2.268"), ("0.043", "0.04644"), ("12.345", "13.33")],
        ),
        (
            "JPY",
            dec!(162.5),
            [("0.18", "29.25"), ("3.10", "503.8"), ("48", "7800")],
        ),
    ] {
        let change = change(to, rate);
        for (before, after) in prices {
            let price: Decimal = before.parse().expect("a price");
            assert_eq!(
                change.price(price).to_string(),
                after,
                "{before} EUR in {to}"
            );
        }
    }
}

/// The money before has its rate afterwards, and a rate that was kept is worth the same: a crown of 0.09 EUR is 0.0972 USD.
#[test]
fn rates_follow_and_the_money_before_has_one() {
    let mut before = rules();
    before.rates = vec![
        ExchangeRate {
            currency: money("SEK"),
            rate: dec!(0.09),
            on: DAY,
        },
        ExchangeRate {
            currency: money("USD"),
            rate: dec!(0.93),
            on: DAY,
        },
    ];
    let usd = money("USD");
    let then = change("USD", dec!(1.08)).rules(&before);
    assert_eq!(then.rate(&money("SEK"), &usd), Some(dec!(0.0972)));
    assert_eq!(then.rate(&money("EUR"), &usd), Some(dec!(1.08)));
    assert!(
        then.rates.iter().all(|known| known.currency != usd),
        "its own money needs no rate"
    );
    assert!(then.check().is_ok());
}

#[test]
fn what_is_no_rate_is_refused_where_it_is_typed() {
    for rate in [dec!(0), dec!(-1), dec!(1000001), dec!(0.12345678901)] {
        let refused = MoneyChange::new(money("EUR"), money("USD"), rate, DAY).expect_err("no rate");
        assert_eq!(refused.field, "rate", "{rate}");
    }
    // A million to the euro makes an hour of a million worth a million millions.
    let mut dear = rules();
    dear.allowances.labour_per_hour = Sum::new(1e6);
    let refused = change("JPY", dec!(1000000))
        .check(&dear)
        .expect_err("too much");
    assert!(
        refused.iter().all(|refusal| refusal.field == "rate"),
        "{refused:?}"
    );
}

fn typed() -> ShipmentInputs {
    let mut inputs = ShipmentInputs {
        value: Some("640.00".to_owned()),
        ..ShipmentInputs::default()
    };
    inputs.quotations.insert(
        "packer".to_owned(),
        QuotationInputs {
            price: Some("140,50".to_owned()),
            covers: Some("640".to_owned()),
            ..QuotationInputs::default()
        },
    );
    inputs.after.claim.asked = Some("100".to_owned());
    inputs
}

/// 640 EUR · 1.08 = 691.20 USD, 140.50 → 151.74, 100 → 108.
#[test]
fn what_is_at_work_is_put_into_the_new_money_and_what_left_keeps_the_old_one() {
    let change = change("USD", dec!(1.08));
    let then = typed().after_change(&change);
    assert_eq!(then.currency, None);
    assert_eq!(then.value.as_deref(), Some("691.20"));
    assert_eq!(then.quotations["packer"].price.as_deref(), Some("151.74"));
    assert_eq!(then.quotations["packer"].covers.as_deref(), Some("691.20"));
    assert_eq!(then.after.claim.asked.as_deref(), Some("108.00"));

    let mut left = typed();
    left.sending.handed_over = Some("2027-03-01".to_owned());
    let kept = left.clone().after_change(&change);
    assert_eq!(
        kept,
        ShipmentInputs {
            currency: Some(money("EUR")),
            ..left
        }
    );
    assert_eq!(kept.money(&money("USD")).code(), "EUR");
    // A second change leaves it as it is.
    let yen = MoneyChange::new(money("USD"), money("JPY"), dec!(150), DAY).expect("a rate");
    assert_eq!(kept.clone().after_change(&yen), kept);
    // Once it is at work again it is read by the rate that was kept; with none it is refused at the money.
    let kept_rates = change.rules(&rules());
    let read = kept
        .clone()
        .in_money_of(&kept_rates, &money("USD"))
        .expect("a rate is kept");
    assert_eq!(
        (read.value.as_deref(), read.currency),
        (Some("691.20"), None)
    );
    let refused = kept
        .in_money_of(&rules(), &money("USD"))
        .expect_err("no rate");
    assert_eq!(refused.field, "currency");
}

proptest! {
    /// There and back again every sum is what it was, to the half of a minor unit of both kinds of money.
    #[test]
    fn a_sum_survives_the_way_there_and_back(cents in 0_i64..100_000_000, thousandths in 50_i64..200_000) {
        let (amount, rate) = (Decimal::new(cents, 2), Decimal::new(thousandths, 3));
        let there = change("USD", rate).amount(amount);
        let back = (Decimal::ONE / rate).round_dp(10);
        let again = MoneyChange::new(money("USD"), money("EUR"), back, DAY).expect("a rate").amount(there);
        // Half a cent there is half a cent · 1/rate here, half a cent more by the rounding here, and what the rate was rounded by.
        let most = dec!(0.005) / rate + dec!(0.005) + there * dec!(0.0000000001);
        prop_assert!((again - amount).abs() <= most, "{amount} is {there} and then {again}");
    }
}

/// Every everyday piece costs in the new money what it cost before, times the rate: each part is rounded to a minor unit in both,
/// and a price is off by at most half of its fourth digit. No measure changes.
#[test]
fn a_plan_costs_what_it_did() {
    let before = house();
    for (to, rate) in [
        ("USD", dec!(1.08)),
        ("JPY", dec!(162.5)),
        ("SEK", dec!(11.2)),
    ] {
        let change = change(to, rate);
        let mut after = before.clone();
        after.rules = change.rules(&before.rules);
        after.catalogue = change.catalogue(&before.catalogue);
        for each in everyday() {
            let inputs = each.inputs.clone().after_change(&change);
            let one = Workings::out_or_refused(&each.inputs, &before).plan;
            let other = Workings::out_or_refused(&inputs, &after).plan;
            let (Some(one), Some(other)) = (one, other) else {
                panic!("{} has a plan in one money only", each.inputs.title);
            };
            assert_eq!(other.tally.materials.currency.code(), to);
            let parts = Decimal::from(one.layers.len() * 8);
            let half = Decimal::new(5, money(to).decimals() + 1);
            let (was, is) = (
                one.tally.materials.amount * rate,
                other.tally.materials.amount,
            );
            let most = was * dec!(0.0005) + parts * (half + dec!(0.005) * rate);
            assert!(
                (was - is).abs() <= most,
                "{}: {was} is {is}, more than {most} apart",
                each.inputs.title
            );
            assert_eq!(
                one.tally.outside, other.tally.outside,
                "{}",
                each.inputs.title
            );
        }
    }
}

#[test]
fn ten_sums_are_shown_before_they_are_changed() {
    let shown = change("USD", dec!(1.08)).shown(&rules(), &catalogue());
    assert_eq!(shown.len(), 10);
    let hour = shown
        .iter()
        .find(|sum| sum.name == "an hour of work")
        .expect("it is a sum of the rules");
    assert_eq!((hour.before, hour.after), (dec!(24.00), dec!(25.92)));
    let names: Vec<String> = catalogue()
        .prices()
        .into_iter()
        .map(|price| price.name)
        .collect();
    let materials = shown.iter().filter(|sum| names.contains(&sum.name));
    assert_eq!(materials.count(), 2, "{shown:?}");
    assert!(
        names.iter().any(|name| name.ends_with(", a metre")),
        "{names:?}"
    );
}

/// What the program brings is on nobody's shelf, and each price of it is to be looked at until somebody changes the material.
#[test]
fn prices_of_the_program_are_to_be_looked_at() {
    let shipped = catalogue();
    let nobody = shipped.of_nobody();
    let boards = |catalogue: &Catalogue| {
        let written = serde_json::to_value(catalogue).expect("JSON");
        written["boards"].as_array().cloned().expect("boards")
    };
    assert!(
        boards(&shipped)
            .iter()
            .any(|board| board["shelf"]["supplier"].is_string())
    );
    for board in boards(&nobody) {
        let shelf = &board["shelf"];
        assert_eq!(shelf["to_check"], true, "{board}");
        assert_eq!(
            (&shelf["stock"], &shelf["supplier"]),
            (&Value::Null, &Value::Null)
        );
    }
    // As it stands nobody has looked at it; with another price somebody has, at this one only.
    let first = boards(&nobody)[0].clone();
    assert_eq!(
        nobody.with(MaterialClass::Boards, first.clone()).as_ref(),
        Ok(&nobody)
    );
    let mut dearer = first.clone();
    dearer["sheets"][0]["price"] = Value::from("9.99");
    let then = nobody.with(MaterialClass::Boards, dearer).expect("a price");
    let (now, others) = (boards(&then)[0].clone(), boards(&then)[1].clone());
    assert_eq!(
        (&now["shelf"]["to_check"], &others["shelf"]["to_check"]),
        (&Value::Null, &json!(true))
    );
    assert!(
        boards(&nobody.all_looked_at())
            .iter()
            .all(|board| board["shelf"]["to_check"].is_null())
    );
}

//! What sending costs, over everyday pieces and four carriers that differ in kind: each step in reach is pressed, cover pays
//! where it is said to, and what it comes to adds up.

use hummock_core::{
    freight::{Offer, Quote},
    house::{BoxRule, CoverRule, SchoolChoices},
    plan::FindingLevel,
    quantity::Money,
    shipment::{House, ShipmentInputs, Worked, charge},
    ways::price_steps,
};
use rust_decimal::Decimal;

use crate::studio::{everyday, house};

fn four_carriers() -> House {
    let tariff = |text| serde_json::from_str(text).expect("a tariff of the demo studio");
    House {
        tariffs: vec![
            tariff(include_str!("../../../../demo/tariffs/gannet-post.json")),
            tariff(include_str!("../../../../demo/tariffs/swiftlane.json")),
            tariff(include_str!("../../../../demo/tariffs/overland-quay.json")),
            tariff(include_str!("../../../../demo/tariffs/marram.json")),
        ],
        ..house()
    }
}

/// One of so many, so that every kind is among them and the test is short.
const EVERY: usize = 4;

fn pieces() -> impl Iterator<Item = (String, ShipmentInputs)> {
    everyday().into_iter().step_by(EVERY).map(|each| {
        let mut inputs = each.inputs;
        inputs.buyer.country = "XS".to_owned();
        inputs.value.get_or_insert_with(|| "480".to_owned());
        (each.name, inputs)
    })
}

fn amount(money: Option<&Money>) -> Option<Decimal> {
    money.map(|money| money.amount)
}

fn quote<'a>(worked: &'a Worked, id: &str) -> &'a Quote {
    let mut quotes = worked.quotes.iter();
    quotes
        .find(|quote| quote.id == id)
        .expect("each service is asked")
}

#[test]
fn every_step_in_reach_is_pressed_and_saves_what_it_says() {
    let house = four_carriers();
    let mut pressed = 0;
    for (name, inputs) in pieces() {
        let now = Worked::out(&inputs, &house).expect(&name);
        let plan = now.plan.as_ref().expect("it is measured");
        for ladder in price_steps(&inputs, &house).expect(&name) {
            let id = &ladder.steps.id;
            for reach in &ladder.reachable {
                let then = ShipmentInputs {
                    choices: inputs.choices.patched(&reach.choices),
                    ..inputs.clone()
                };
                let then = Worked::out(&then, &house).expect(&reach.label);
                let other = then.plan.as_ref().expect("it is measured");
                let (before, after) = (quote(&now, id), quote(&then, id));
                let cheaper = amount(before.total_here.as_ref())
                    .zip(amount(after.total_here.as_ref()))
                    .map(|(before, after)| before - after);
                assert_eq!(
                    cheaper,
                    amount(reach.carriage.as_ref()),
                    "{name}: {}",
                    reach.label
                );
                assert!(after.total().is_some(), "{name}: {}", reach.label);
                assert!(
                    reach
                        .saves
                        .as_ref()
                        .is_none_or(|saves| saves.amount > Decimal::ZERO)
                );
                // No new Stop or Mind, and the odds at most a tenth worse.
                let loud = |plan: &hummock_core::plan::Plan| -> Vec<&str> {
                    let findings = plan.findings.iter();
                    let loud = findings.filter(|finding| finding.level != FindingLevel::Note);
                    loud.map(|finding| finding.code).collect()
                };
                let known = loud(plan);
                assert!(
                    loud(other).iter().all(|code| known.contains(code)),
                    "{name}: {}",
                    reach.label
                );
                assert!(other.odds.probability <= plan.odds.probability * 1.1 + 1e-12);
                pressed += 1;
            }
        }
    }
    assert!(pressed > 12, "only {pressed} were in reach");
}

#[test]
fn cover_is_bought_where_it_pays_back_and_the_rule_is_never_the_dearest() {
    let house = four_carriers();
    let by = |inputs: &ShipmentInputs, rule| {
        let mut inputs = inputs.clone();
        inputs.choices.schools = SchoolChoices {
            cover: Some(rule),
            // Another box would be another plan.
            box_style: Some(BoxRule::Usual),
            ..inputs.choices.schools
        };
        Worked::out(&inputs, &house)
            .expect("it was planned before")
            .quotes
    };
    let (mut bought, mut left) = (0, 0);
    for (name, inputs) in pieces() {
        let [full, included, pays] = [CoverRule::Full, CoverRule::Included, CoverRule::WherePays]
            .map(|rule| by(&inputs, rule));
        for quote in &pays {
            let told = |quotes: &[Quote]| {
                let found = quotes.iter().find(|other| other.id == quote.id);
                amount(found.and_then(|found| found.all_told.as_ref()))
            };
            let least = told(&full).min(told(&included));
            assert_eq!(told(&pays), least, "{name}: {}", quote.id);
            if let Some(cover) = &quote.cover {
                assert_eq!(
                    cover.bought,
                    cover.pays_back.amount > cover.premium.amount,
                    "{name}"
                );
                let covered = |quotes: &[Quote]| match &quotes
                    .iter()
                    .find(|other| other.id == quote.id)?
                    .offer
                {
                    Offer::Priced { covered, .. } => Some(covered.amount),
                    Offer::Refused { .. } => None,
                };
                assert!(covered(&full) > covered(&included), "{name}: {}", quote.id);
                if cover.bought { bought += 1 } else { left += 1 }
            }
        }
    }
    assert!(bought + left > 30 && left > 0, "{bought} and {left}");
}

#[test]
fn other_money_is_told_in_the_studios_and_never_compared_bare() {
    // 910.00 NOK at 0.0862 are 78.442 → 78.44 EUR.
    let rules = house().rules;
    let [nok, eur] = ["NOK", "EUR"].map(|code| {
        hummock_core::quantity::Currency::try_from(code.to_owned()).expect("a currency")
    });
    let told = rules.converted(&Money::new(Decimal::from(910), &nok), &eur);
    assert_eq!(amount(told.as_ref()), Some(Decimal::new(7844, 2)));
    let mut without = four_carriers();
    without.rules.rates.clear();
    for (name, inputs) in pieces() {
        let quotes = Worked::out(&inputs, &without).expect(&name).quotes;
        let taken = quotes.iter().filter(|quote| quote.total().is_some());
        let compared: Vec<bool> = taken.map(|quote| quote.all_told.is_some()).collect();
        // What no rate is known of stands behind what is compared, whatever its number.
        assert!(
            compared.is_sorted_by(|one, other| one >= other),
            "{name}: {compared:?}"
        );
    }
}

#[test]
fn what_it_comes_to_adds_up_by_every_rule() {
    let house = four_carriers();
    for (name, inputs) in pieces() {
        let worked = Worked::out(&inputs, &house).expect(&name);
        let plan = worked.plan.as_ref().expect("it is measured");
        let charge = charge(&inputs, &house)
            .expect(&name)
            .expect("it is measured");
        let sum: Decimal = charge.lines.iter().map(|line| line.amount.amount).sum();
        assert_eq!(sum, charge.costs.amount, "{name}");
        let carried: Decimal = charge
            .lines
            .iter()
            .filter(|line| {
                use hummock_core::shipment::CostKind::{Carriage, Cover, Tax};
                matches!(line.kind, Carriage | Cover | Tax)
            })
            .map(|line| line.amount.amount)
            .sum();
        let best = worked
            .quotes
            .iter()
            .find(|quote| quote.total_here.is_some());
        assert_eq!(
            Some(carried),
            amount(best.and_then(|best| best.total_here.as_ref())),
            "{name}"
        );
        for policy in &charge.policies {
            assert_eq!(
                policy.gain.amount,
                policy.pays.amount - charge.costs.amount,
                "{name}"
            );
        }
        let paid = |rule| {
            let found = charge.policies.iter().find(|policy| policy.rule == rule);
            found.expect("every rule is told").pays.amount
        };
        use hummock_core::house::ChargeRule::{AtCost, Flat, Included, WithMaterials, WithTime};
        assert_eq!(paid(AtCost), carried, "{name}");
        assert_eq!(
            paid(WithMaterials),
            carried + plan.tally.materials.amount,
            "{name}"
        );
        assert!(paid(WithTime) > paid(WithMaterials), "{name}");
        assert_eq!(
            (paid(Flat), paid(Included)),
            (Decimal::from(25), Decimal::ZERO),
            "{name}"
        );
        assert!(charge.saved_by_reuse.amount >= Decimal::ZERO, "{name}");
        // A tube is cut from no sheet, and a mailer may be bought.
        assert!(charge.sheets > 0 || plan.carton().is_none(), "{name}");
    }
}

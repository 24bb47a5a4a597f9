//! What sending costs, over everyday pieces and four carriers that differ in kind: each step in reach is pressed, cover pays
//! where it is said to, and what it comes to adds up.

use hummock_core::{
    freight::{
        Collection, Handover, LineKind, Offer, Quote, QuoteLine, QuoteRequest, SentParcel, Weekday,
        dearer,
    },
    house::{BoxRule, CoverRule, SchoolChoices},
    piece::{Construction, Medium},
    place::Route,
    plan::FindingLevel,
    quantity::{LengthUnit, Money},
    shipment::{
        CarrierAsk, House, QuotationInputs, ShipmentInputs, Workings, arrivals, charge, rough_quote,
    },
    ways::price_steps,
};
use jiff::{
    ToSpan as _,
    civil::{Date, date, time},
};
use rust_decimal::Decimal;

use serde_json::Value;

use crate::studio::{catalogue, four_carriers, house, sent_pieces};

fn amount(money: Option<&Money>) -> Option<Decimal> {
    money.map(|money| money.amount)
}

fn quote<'a>(worked: &'a Workings, id: &str) -> &'a Quote {
    let mut quotes = worked.quotes.iter();
    quotes
        .find(|quote| quote.id == id)
        .expect("each service is asked")
}

#[test]
fn every_step_in_reach_is_pressed_and_saves_what_it_says() {
    let house = four_carriers();
    let mut pressed = 0;
    for (name, inputs) in sent_pieces() {
        let now = Workings::out(&inputs, &house).expect(&name);
        let plan = now.plan.as_ref().expect("it is measured");
        for ladder in price_steps(&inputs, &house).expect(&name) {
            let id = &ladder.steps.id;
            for reach in &ladder.reachable {
                let then = ShipmentInputs {
                    choices: inputs.choices.patched(&reach.choices),
                    ..inputs.clone()
                };
                let then = Workings::out(&then, &house).expect(&reach.label);
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

/// Kills a part that is left out or counted twice, and a weight by size that is told where the scale decides.
#[test]
fn the_parts_of_what_a_service_costs_more_add_up_to_it() {
    let house = four_carriers();
    let (mut told, mut by_size) = (0, 0);
    for (name, inputs) in sent_pieces() {
        let quotes = Workings::out(&inputs, &house).expect(&name).quotes;
        let total = |quote: &Quote| quote.cost.as_ref().map(|cost| cost.total.amount);
        let best = quotes.iter().find_map(total);
        let costs: Vec<(&str, Option<Decimal>)> = quotes
            .iter()
            .filter(|quote| quote.cost.is_some())
            .skip(1)
            .map(|quote| (quote.id.as_str(), total(quote)))
            .collect();
        let dearer = dearer(&quotes);
        let more: Vec<(&str, Option<Decimal>)> = dearer
            .iter()
            .map(|one| (one.id.as_str(), best.map(|best| best + one.more.amount)))
            .collect();
        assert_eq!(more, costs, "{name}");
        for one in &dearer {
            let parts: Vec<Decimal> = one.parts.iter().map(|part| part.more.amount).collect();
            assert_eq!(
                parts.iter().sum::<Decimal>(),
                one.more.amount,
                "{name}: {}",
                one.id
            );
            assert!(
                parts.is_sorted_by(|more, less| more >= less),
                "{name}: {parts:?}"
            );
            told += 1;
            if let Some(mass) = one.billed_by_size {
                let billable = quotes
                    .iter()
                    .find(|quote| quote.id == one.id)
                    .expect("it is one of them")
                    .billable;
                assert!(
                    billable.actual < mass && mass == billable.billable,
                    "{name}: {}",
                    one.id
                );
                by_size += 1;
            }
        }
    }
    assert!(told > 30 && by_size > 0, "{told} and {by_size}");
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
        Workings::out(&inputs, &house)
            .expect("it was planned before")
            .quotes
    };
    let (mut bought, mut left) = (0, 0);
    for (name, inputs) in sent_pieces() {
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
    for (name, inputs) in sent_pieces() {
        let quotes = Workings::out(&inputs, &without).expect(&name).quotes;
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
    for (name, inputs) in sent_pieces() {
        let worked = Workings::out(&inputs, &house).expect(&name);
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

/// Every board and fill of the studio is one that it had: what that comes to is told once more from the list of parts.
#[test]
fn what_was_used_before_is_told_in_money_grams_and_litres() {
    use hummock_core::part::Take;

    let new = four_carriers();
    let mut house = four_carriers();
    let boards = house
        .catalogue
        .boards
        .iter_mut()
        .map(|board| &mut board.shelf);
    let fills = house.catalogue.fills.iter_mut().map(|fill| &mut fill.shelf);
    boards.chain(fills).for_each(|shelf| shelf.reused = true);
    let is_before = |id: &str| {
        let catalogue = &house.catalogue;
        catalogue.boards.iter().any(|board| board.id.as_str() == id)
            || catalogue.fills.iter().any(|fill| fill.id.as_str() == id)
    };
    let mut pieces = 0;
    for (name, inputs) in sent_pieces() {
        let plan = Workings::out(&inputs, &house)
            .expect("it can be made")
            .plan
            .expect("it is measured");
        let parts = || {
            let parts = plan.layers.iter().flat_map(|layer| &layer.parts);
            parts.filter(|part| is_before(part.material.as_str()))
        };
        let grams: f64 = parts().map(|part| part.mass.as_g()).sum();
        let litres: f64 = parts()
            .map(|part| {
                let one = match part.take {
                    Take::Piece {
                        thickness_mm,
                        area_m2,
                        ..
                    } => area_m2.as_m2() * thickness_mm.as_mm(),
                    Take::Loose { volume_m3 } => volume_m3.as_m3() * 1000.0,
                    Take::Run { .. } | Take::Each => 0.0,
                };
                one * f64::from(part.count)
            })
            .sum();
        let said = charge(&inputs, &house)
            .expect("it can be made")
            .expect("it is measured");
        assert!(
            (said.used_again.as_g() - grams).abs() < 1e-6,
            "{name}: {said:?} {grams}"
        );
        assert!(
            (said.used_again_litres - litres).abs() < 1e-6,
            "{name}: {said:?} {litres}"
        );
        // What goes in a tube has no board and no fill.
        if plan.carton().is_some() {
            assert!(grams > 0.0 && litres > 0.0, "{name}");
            assert!(said.saved_by_reuse.amount > Decimal::ZERO, "{name}");
            pieces += 1;
        }
        let bought = charge(&inputs, &new)
            .expect("it can be made")
            .expect("it is measured");
        // The demo studio keeps saved card, which few plans take.
        assert!(bought.used_again.as_g() <= said.used_again.as_g(), "{name}");
    }
    assert!(pieces > 5);
}

/// A packer's price stands among the carriers', with its own way and cover, and can be chosen as one of theirs.
#[test]
fn a_quotation_stands_among_the_carriers() {
    let house = four_carriers();
    let (name, mut inputs) = sent_pieces().last().expect("a piece");
    inputs.value = Some("1000".to_owned());
    let quotation = |price: &str, route| QuotationInputs {
        from: "Brae Crating".to_owned(),
        what: "crated and carried".to_owned(),
        price: Some(price.to_owned()),
        covers: Some("800".to_owned()),
        days_from: Some(3),
        days_to: Some(5),
        until: Some("2027-03-10".to_owned()),
        route,
    };
    inputs.quotations = [
        (
            "crated".to_owned(),
            quotation("0.50", Some(Route::ArtCourier)),
        ),
        ("by-road".to_owned(), quotation("0.50", None)),
        ("unpriced".to_owned(), QuotationInputs::default()),
    ]
    .into();
    let inputs = inputs
        .checked(LengthUnit::Mm, date(2027, 3, 4))
        .expect("they can stand");
    let worked = Workings::out(&inputs, &house).expect(&name);
    let (crated, by_road) = (
        quote(&worked, "quoted/crated"),
        quote(&worked, "quoted/by-road"),
    );
    assert!(
        !worked
            .quotes
            .iter()
            .any(|quote| quote.id == "quoted/unpriced")
    );
    assert_eq!(
        amount(crated.total_here.as_ref()),
        Some(Decimal::new(50, 2))
    );
    // 1000 less 800 is left to the studio.
    assert_eq!(amount(crated.uncovered.as_ref()), Some(Decimal::from(200)));
    assert!(
        amount(crated.expected_loss.as_ref()) < amount(by_road.expected_loss.as_ref()),
        "the gentler way loses less"
    );
    assert!(amount(crated.all_told.as_ref()) < amount(by_road.all_told.as_ref()));
    // Chosen, it is what the plan is judged and charged by.
    let mut chosen = inputs.clone();
    chosen.service = Some("quoted/crated".to_owned());
    let sent = Workings::out(&chosen, &house).expect(&name);
    let odds = |worked: &Workings| {
        worked
            .plan
            .as_ref()
            .expect("it is measured")
            .odds
            .probability
    };
    assert!(odds(&sent) < odds(&worked));
    let charge = charge(&chosen, &house)
        .expect(&name)
        .expect("there is a plan");
    assert_eq!(
        charge.service.as_deref(),
        Some("Brae Crating crated and carried")
    );
    // 3 and 5 working days from Thursday the 11th of March: Tuesday the 16th and Thursday the 18th; by then it is over.
    let on = |day: Date| House {
        now: Some(day.at(9, 0, 0, 0)),
        ..house.clone()
    };
    let arrived = arrivals(&chosen, &sent, &on(date(2027, 3, 11)));
    let arrival = arrived
        .iter()
        .find(|one| one.id == "quoted/crated")
        .expect("it names days");
    assert_eq!(
        (arrival.way.earliest, arrival.way.latest),
        (date(2027, 3, 16), date(2027, 3, 18))
    );
    assert!(arrival.over);
    // That it is over is said of one that names no days too.
    let mut unnamed = chosen.clone();
    let quotation = unnamed.quotations.get_mut("crated").expect("it is there");
    (quotation.days_from, quotation.days_to) = (None, None);
    let said = |day| {
        let arrived = arrivals(&unnamed, &sent, &on(day));
        arrived.into_iter().find(|one| one.id == "quoted/crated")
    };
    assert!(said(date(2027, 3, 11)).is_some_and(|one| one.over));
    assert_eq!(said(date(2027, 3, 10)), None);
    assert!(
        !arrivals(&chosen, &sent, &on(date(2027, 3, 10)))
            .iter()
            .any(|one| one.over)
    );
}

#[test]
fn nonsense_in_a_quotation_is_refused_at_its_field() {
    let (_, inputs) = sent_pieces().next().expect("a piece");
    let with = |typed: QuotationInputs| {
        let mut inputs = inputs.clone();
        inputs.quotations.insert("packer".to_owned(), typed);
        let refused = inputs
            .checked(LengthUnit::Mm, date(2027, 3, 4))
            .expect_err("it can't stand");
        refused.into_iter().map(|one| one.field).collect::<Vec<_>>()
    };
    let text = |text: &str| Some(text.to_owned());
    assert_eq!(
        with(QuotationInputs {
            price: text("cheap"),
            ..Default::default()
        }),
        ["quotations.packer.price"]
    );
    assert_eq!(
        with(QuotationInputs {
            covers: text("-1"),
            ..Default::default()
        }),
        ["quotations.packer.covers"]
    );
    assert_eq!(
        with(QuotationInputs {
            until: text("soon"),
            ..Default::default()
        }),
        ["quotations.packer.until"]
    );
    assert_eq!(
        with(QuotationInputs {
            days_to: Some(400),
            ..Default::default()
        }),
        ["quotations.packer.days_to"]
    );
    let turned = QuotationInputs {
        days_from: Some(5),
        days_to: Some(3),
        ..Default::default()
    };
    assert_eq!(with(turned), ["quotations.packer.days_to"]);
    let mut inputs = inputs;
    inputs
        .quotations
        .insert("No name".to_owned(), QuotationInputs::default());
    assert!(inputs.checked(LengthUnit::Mm, date(2027, 3, 4)).is_err());
}

/// What an account would save is what its tier takes off each parcel, told beside the one that the studio has.
#[test]
fn an_account_saves_what_its_tier_takes_off_every_parcel() {
    let house = four_carriers();
    let tariff = &house.tariffs[0];
    let asks: Vec<CarrierAsk<'_>> = sent_pieces()
        .filter_map(|(_, inputs)| {
            let asks = CarrierAsk::of(&inputs, &house).expect("it can be made");
            asks.into_iter().find(|ask| ask.tariff.id == tariff.id)
        })
        .collect();
    let sent: Vec<SentParcel> = asks
        .iter()
        .map(|ask| SentParcel {
            parcel: ask.parcel,
            place: ask.place.clone(),
            service: Some("parcel".to_owned()),
            on: None,
        })
        .collect();
    let savings = tariff.account_savings(&sent);
    assert_eq!(
        usize::try_from(savings.parcels + savings.not_taken),
        Ok(sent.len())
    );
    assert_eq!(savings.tiers.len(), tariff.discount_tiers.len());
    for tier in &savings.tiers {
        let by_hand: Decimal = asks
            .iter()
            .filter_map(|ask| {
                let asked = QuoteRequest {
                    tier: tier.tier.as_deref(),
                    ..QuoteRequest::now(&ask.parcel, &ask.place)
                };
                Some(tariff.quote("parcel", &asked)?.total()?.amount)
            })
            .sum();
        assert_eq!(tier.total.amount, by_hand, "{:?}", tier.tier);
        assert_eq!(tier.own, tier.tier == tariff.tier);
        assert!(!tier.own || tier.saves.amount.is_zero());
        assert!(
            tier.saves.amount >= Decimal::ZERO,
            "every other tier takes something off"
        );
    }
    let most = savings.tiers.iter().map(|tier| tier.saves.amount).max();
    assert!(most > Some(Decimal::ZERO), "{savings:?}");
    // Without a service named, the cheapest that takes it.
    let cheapest: Vec<SentParcel> = sent
        .iter()
        .map(|one| SentParcel {
            service: None,
            ..one.clone()
        })
        .collect();
    let cheaper = tariff.account_savings(&cheapest);
    assert!(cheaper.parcels >= savings.parcels);
}

/// On the phone: a size and a country are enough, and what it costs lies between what its kinds cost.
#[test]
fn a_rough_quote_spans_everything_that_a_piece_could_be() {
    let house = four_carriers();
    let mut inputs = ShipmentInputs::default();
    let refused = rough_quote(&inputs, &house).expect_err("nothing is known");
    let fields: Vec<&str> = refused.iter().map(|one| one.field.as_str()).collect();
    assert_eq!(fields, ["piece.width", "piece.height", "buyer.country"]);
    inputs.piece.width = Some("600 mm".to_owned());
    inputs.piece.height = Some("800 mm".to_owned());
    inputs.buyer.country = "XS".to_owned();
    inputs.value = Some("480".to_owned());
    let rough = rough_quote(&inputs, &house).expect("it is enough");
    assert_eq!(rough.cases.len(), 4);
    let (least, most) = (amount(rough.least.as_ref()), amount(rough.most.as_ref()));
    assert!(least.is_some() && least <= most, "{rough:?}");
    for case in &rough.cases {
        let pays = amount(case.pays.as_ref());
        assert!(pays >= least && pays <= most, "{case:?}");
        assert!(case.service.is_some() && case.outside.is_some(), "{case:?}");
    }
    // Once it is known what it is, it is what a shipment of it says.
    inputs.piece.construction = Some(Construction::StretchedCanvas);
    inputs.piece.medium = Some(Medium::Acrylic);
    inputs.piece.depth = Some("38 mm".to_owned());
    let known = rough_quote(&inputs, &house).expect("it is enough");
    assert_eq!(known.cases.len(), 1);
    let said = charge(&inputs, &house)
        .expect("it can be made")
        .expect("it is measured");
    assert_eq!(amount(known.least.as_ref()), Some(said.pays.amount));
}

/// In other money nothing costs anything until somebody says what it costs, and nothing else about a material changes.
#[test]
fn stores_in_other_money_have_no_prices() {
    let yen = hummock_core::quantity::Currency::try_from("JPY".to_owned()).expect("money");
    // That every price is to be looked at is told beside it.
    let before = serde_json::to_value(catalogue().all_looked_at()).expect("JSON");
    let after = catalogue().unpriced(yen).all_looked_at();
    let after = serde_json::to_value(after).expect("JSON");
    assert_eq!(after["currency"], "JPY");
    let mut priced = 0;
    same_but_for_prices(&before, &after, "", &mut priced);
    assert!(priced > 40, "only {priced} prices");
}

fn same_but_for_prices(before: &Value, after: &Value, at: &str, priced: &mut u32) {
    match (before, after) {
        (Value::Object(before), Value::Object(after)) => {
            assert_eq!(before.len(), after.len(), "{at}");
            for (key, value) in before {
                let at = format!("{at}/{key}");
                if key.starts_with("price") {
                    assert_eq!(after[key], "0", "{at}");
                    *priced += 1;
                } else if at != "/currency" {
                    same_but_for_prices(value, &after[key], &at, priced);
                }
            }
        }
        (Value::Array(before), Value::Array(after)) => {
            assert_eq!(before.len(), after.len(), "{at}");
            for (one, other) in before.iter().zip(after) {
                same_but_for_prices(one, other, at, priced);
            }
        }
        _ => assert_eq!(before, after, "{at}"),
    }
}

/// One sum with one name: for every quote of every everyday piece the parts of its cost add up to its sums, as they are written; what
/// the carrier is paid is the quote's own total, and the whole is what the quotes are ordered by with making added.
#[test]
fn what_a_parcel_costs_adds_up_with_every_service() {
    let mut house = four_carriers();
    // One carrier is paid in other money, and has a rate; another one has none.
    let crown = hummock_core::quantity::Currency::try_from("NOK".to_owned()).expect("money");
    let pound = hummock_core::quantity::Currency::try_from("GBP".to_owned()).expect("money");
    house.tariffs[1].currency = crown;
    house.tariffs[2].currency = pound;
    house.rules.rates = vec![hummock_core::house::ExchangeRate {
        currency: crown,
        rate: Decimal::new(874, 4),
        on: date(2027, 3, 1),
    }];
    let (mut told, mut untold) = (0, 0);
    for (name, inputs) in sent_pieces() {
        let worked = Workings::out(&inputs, &house).expect("it can be made");
        let plan = worked.plan.as_ref().expect("it is measured");
        for quote in &worked.quotes {
            let Some(cost) = &quote.cost else {
                assert_eq!(quote.total_here, None, "{}: {}", name, quote.id);
                untold += usize::from(quote.total().is_some());
                continue;
            };
            told += 1;
            let at = format!("{}, {}: {cost:?}", name, quote.id);
            let [materials, work, overhead] = [&cost.materials, &cost.work, &cost.overhead];
            assert_eq!(
                (materials, work),
                (&plan.tally.materials, &plan.tally.labour),
                "{at}"
            );
            let parts = [&cost.carriage, &cost.surcharges, &cost.tax, &cost.cover];
            let to_carrier: Decimal = parts.iter().map(|part| part.amount).sum();
            assert_eq!(to_carrier, cost.to_carrier.amount, "{at}");
            assert_eq!(Some(&cost.to_carrier), quote.total_here.as_ref(), "{at}");
            assert_eq!(
                work.amount + overhead.amount,
                cost.work_and_overhead.amount,
                "{at}"
            );
            let making = materials.amount + work.amount + overhead.amount;
            assert_eq!(making + to_carrier, cost.to_send.amount, "{at}");
            assert_eq!(
                cost.to_send.amount + cost.expected_loss.amount,
                cost.total.amount,
                "{at}"
            );
            assert_eq!(
                amount(quote.all_told.as_ref()),
                Some(cost.total.amount - making),
                "{at}"
            );
            // Nothing is paid to carry that takes money back: no part is under zero but for a cent of converting.
            let least = parts
                .iter()
                .map(|part| part.amount)
                .min()
                .expect("four parts");
            assert!(least >= Decimal::new(-1, 2), "{at}");
        }
        let sent_by = worked
            .quotes
            .first()
            .filter(|quote| quote.total().is_some());
        match sent_by {
            Some(quote) => assert_eq!(worked.cost, quote.cost, "{}", name),
            // Nothing is paid to a carrier before one takes it; making it costs what it costs.
            None => {
                let cost = worked.cost.as_ref().expect("making costs something");
                assert_eq!(cost.to_carrier.amount, Decimal::ZERO, "{}", name);
                assert_eq!(
                    cost.to_send.amount,
                    cost.materials.amount + cost.work_and_overhead.amount
                );
                assert_eq!(cost.materials, plan.tally.materials, "{}", name);
            }
        }
        let told = charge(&inputs, &house)
            .expect("it can be made")
            .expect("it is measured");
        let lines: Decimal = told.lines.iter().map(|line| line.amount.amount).sum();
        assert_eq!(
            (lines, Some(&told.costs)),
            (
                told.costs.amount,
                worked.cost.as_ref().map(|cost| &cost.total)
            ),
            "{}",
            name
        );
    }
    assert!(
        told >= 60 && untold >= 10,
        "{told} told, {untold} without a rate"
    );
}

/// Base, further kilograms and discounts are carriage; what rules add and fuel are surcharges; tax and cover stand for themselves.
#[test]
fn parts_of_a_price_are_told_apart() {
    let house = four_carriers();
    let adds = |line: &QuoteLine| matches!(line.kind, LineKind::Surcharge | LineKind::Fuel);
    let quotes = sent_pieces().flat_map(|(_, inputs)| {
        let worked = Workings::out(&inputs, &house).expect("it can be made");
        worked.quotes
    });
    let mut seen = 0;
    for quote in quotes {
        let Offer::Priced { lines, total, .. } = &quote.offer else {
            continue;
        };
        let cost = quote.cost.as_ref().expect("it is in the studio's money");
        // Lines are in the carrier's money, and its sums by rate in the studio's: only where both are one they are the same.
        if total.currency != cost.total.currency {
            continue;
        }
        let of = |kinds: &[LineKind]| -> Decimal {
            let lines = lines.iter().filter(|line| kinds.contains(&line.kind));
            lines.map(|line| line.amount.amount).sum()
        };
        let carriage = of(&[LineKind::Base, LineKind::Further, LineKind::Discount]);
        assert_eq!(cost.carriage.amount, carriage, "{}", quote.id);
        let surcharges = of(&[LineKind::Surcharge, LineKind::Fuel]);
        assert_eq!(cost.surcharges.amount, surcharges, "{}", quote.id);
        assert_eq!(cost.tax.amount, of(&[LineKind::Tax]), "{}", quote.id);
        assert_eq!(cost.cover.amount, of(&[LineKind::Cover]), "{}", quote.id);
        seen += usize::from(lines.iter().any(adds));
    }
    assert!(seen >= 10, "{seen} prices with something added");
}

/// Over everyday pieces, promised for one of the next days, at an hour before and after the cut-offs: no service that is too late
/// stands before one that is not, and what a late one saves is the difference of what both cost in all.
#[test]
fn a_service_that_is_too_late_is_never_the_best_while_one_can_arrive() {
    let mut passed_over = 0;
    for hour in [9, 22] {
        // Thursday.
        let house = House {
            now: Some(date(2027, 3, 4).at(hour, 0, 0, 0)),
            ..four_carriers()
        };
        for (name, mut inputs) in sent_pieces() {
            for days in 0..8 {
                let promised = date(2027, 3, 5).saturating_add(days.days());
                inputs.promised = Some(promised.to_string());
                let worked = Workings::out(&inputs, &house).expect(&name);
                let arrived = arrivals(&inputs, &worked, &house);
                let arrival = |quote: &Quote| {
                    let mut arrived = arrived.iter();
                    arrived.find(|one| one.id == quote.id).expect("it takes it")
                };
                let is_late = |quote: &Quote| arrival(quote).way.earliest > promised;
                let taken: Vec<&Quote> = worked
                    .quotes
                    .iter()
                    .filter(|quote| quote.total_here.is_some())
                    .collect();
                let late: Vec<bool> = taken.iter().map(|quote| is_late(quote)).collect();
                assert!(late.is_sorted(), "{name}, {promised}: {late:?}");
                let told = |quote: &Quote| quote.cost.as_ref().map(|cost| cost.total.amount);
                let best = taken.first().filter(|quote| !is_late(quote));
                for quote in &taken {
                    let saves = best.and_then(|best| Some(told(best)? - told(quote)?));
                    let saves = saves.filter(|saves| is_late(quote) && *saves > Decimal::ZERO);
                    assert_eq!(amount(arrival(quote).would_save.as_ref()), saves, "{name}");
                    passed_over += usize::from(saves.is_some());
                }
                // It stands so until the clock passes a cut-off, or midnight.
                let until = worked.holds_until.expect("a day is promised");
                assert!(Some(until) >= house.now && until.date() == date(2027, 3, 4));
            }
        }
    }
    assert!(passed_over > 20, "{passed_over}");
}

/// Thursday 4 March 2027: the courier fetches until its cut-off; at the next minute nothing is promised for that day any more.
#[test]
fn after_its_cut_off_a_service_is_promised_for_its_next_day() {
    let (name, inputs) = sent_pieces().next().expect("a piece");
    let mut house = four_carriers();
    for tariff in &mut house.tariffs {
        for service in &mut tariff.services {
            service.handover = Handover::Collection;
            service.collection = Some(Collection {
                days: vec![Weekday::Thu, Weekday::Fri],
                cut_off: time(14, 30, 0, 0),
            });
        }
    }
    for (minute, day) in [(30, date(2027, 3, 4)), (31, date(2027, 3, 5))] {
        house.now = Some(date(2027, 3, 4).at(14, minute, 0, 0));
        let worked = Workings::out(&inputs, &house).expect(&name);
        let arrived = arrivals(&inputs, &worked, &house);
        assert!(!arrived.is_empty());
        for arrival in arrived {
            assert_eq!(arrival.way.handed_over, day, "{}", arrival.id);
        }
    }
}

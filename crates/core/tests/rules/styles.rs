//! Every style of box, pressed for every everyday piece.

use crate::studio::{Everyday, everyday, house};
use hummock_core::{
    carton::SheetNeed,
    container::Carton,
    house::{BoxRule, Carriage, CartonStyle, Choices},
    layer::Make,
    plan::Plan,
    quantity::{Currency, Length, Sum},
    shipment::{House, ShipmentInputs, Workings},
    space::{Envelope, LayerSlot},
    ways::{bought, styles},
};

fn pressed(inputs: &ShipmentInputs, choices: &Choices, house: &House) -> Workings {
    let then = ShipmentInputs {
        choices: inputs.choices.patched(choices),
        ..inputs.clone()
    };
    Workings::out(&then, house).expect("what is offered can be planned")
}

fn inner_box(plan: &Plan) -> Option<&Carton> {
    plan.layers.iter().find_map(|layer| layer.make.carton())
}

fn around_the_box(plan: &Plan) -> [Envelope; 2] {
    let at = plan
        .layers
        .iter()
        .position(|layer| layer.make.carton().is_some())
        .expect("it is boxed");
    [at - 1, at].map(|at| plan.layers[at].envelope)
}

#[test]
fn every_style_that_is_offered_is_what_it_says() {
    let house = house();
    let (mut tried, mut kept) = (0, 0);
    for each in everyday()
        .into_iter()
        .filter(Everyday::is_left_to_the_rules)
    {
        let now = pressed(&each.inputs, &Choices::default(), &house);
        let plan = now.plan.as_ref().expect("a plan");
        let offers = styles(&each.inputs, &house, LayerSlot::Box).expect("offers");
        if plan.carriage == Carriage::Padded {
            // From its mailer it could go into any box.
            assert_eq!(offers.len(), CartonStyle::ALL.len(), "{}", each.name);
            continue;
        }
        if inner_box(plan).is_none() {
            assert!(
                offers.is_empty(),
                "{}: a tube or a mailer is bought",
                each.name
            );
            continue;
        }
        assert_eq!(offers.len(), CartonStyle::ALL.len(), "{}", each.name);
        assert_eq!(offers.iter().filter(|offer| offer.chosen).count(), 1);
        for offer in &offers {
            let says = format!("{}: {}", each.name, offer.name);
            let worked = pressed(&each.inputs, &offer.choices, &house);
            let then = worked.plan.as_ref().expect("a plan");
            let carton = inner_box(then).expect("a box");
            assert_eq!(carton.style, offer.style, "{says}");
            assert_eq!(then.tally.outside, offer.outside, "{says}");
            // What is inside is held with the room that it had, whatever is around it.
            let [held, closed] = around_the_box(then);
            assert_eq!(held, around_the_box(plan)[0], "{says}");
            let mut sides = [held.across, held.up];
            sides.sort();
            let mut inside = [carton.inside_length, carton.inside_width];
            inside.sort();
            assert_eq!(
                (inside, carton.inside_height),
                (sides, held.through),
                "{says}"
            );
            assert!(closed.holds(held), "{says}");
            let refused = carton.style.unfit(carton.size()).is_some() || !carton.can_be_cut();
            assert_eq!(offer.refused.is_some(), refused, "{says}");
            assert_eq!(offer.sheets.is_some(), carton.can_be_cut(), "{says}");
            if offer.keeps {
                assert!(
                    then.odds.probability <= plan.odds.probability * 1.1 + 1e-12,
                    "{says}"
                );
                kept += 1;
            }
            tried += 1;
        }
        // Nothing that does not fit stands before what does, nor a dearer one before a cheaper one that keeps as well.
        for pair in offers.windows(2) {
            let rank = |at: usize| {
                (
                    pair[at].refused.is_some(),
                    !pair[at].keeps,
                    pair[at].cost.amount,
                )
            };
            assert!(rank(0) <= rank(1), "{}", each.name);
        }
    }
    // Five styles for each of the pieces that go in a box; what is there keeps at least.
    assert!(tried >= 200 && kept * 5 >= tried, "{kept} of {tried}");
}

#[test]
fn the_box_that_nobody_chose_is_the_cheapest_that_is_as_safe() {
    let house = house();
    let mut usual_house = house.clone();
    usual_house.rules.schools.box_style = BoxRule::Usual;
    let least = usual_house.rules.allowances.least_saving.amount();
    let (mut otherwise, mut tried) = (0, 0);
    for each in everyday() {
        let offers = styles(&each.inputs, &house, LayerSlot::Box).expect("offers");
        let Some(chosen) = offers.iter().find(|offer| offer.chosen) else {
            continue;
        };
        tried += 1;
        let says = format!("{}: {}", each.name, chosen.name);
        let now = pressed(&each.inputs, &Choices::default(), &house);
        let usual = pressed(&each.inputs, &Choices::default(), &usual_house);
        let Some(by) = &now.box_by_rule else {
            assert_eq!(plan_of(&now).layers, plan_of(&usual).layers, "{says}");
            // Of its own board no other would save what is worth it: money, with nothing riskier.
            let better = offers.iter().find(|offer| {
                let another_board = offer.choices.box_board.is_some();
                offer.refused.is_none()
                    && offer.keeps
                    && !another_board
                    && offer.cost.amount <= -least
            });
            assert_eq!(better, None, "{says}");
            continue;
        };
        otherwise += 1;
        assert!(usual.box_by_rule.is_none(), "{says}");
        assert_eq!((by.style, chosen.refused.as_ref()), (chosen.style, None));
        assert_eq!(
            inner_box(plan_of(&usual)).map(|carton| carton.style),
            Some(by.instead_of),
            "{says}"
        );
        // It says what it saves: what the one costs to send, less what the other does.
        let paid = |worked: &Workings| {
            let cost = worked.cost.as_ref().expect("making costs something");
            cost.to_send.amount
        };
        assert_eq!(by.saves.amount, paid(&usual) - paid(&now), "{says}");
        assert!(by.saves.amount >= least, "{says}");
        let [before, after] = [&usual, &now].map(|worked| plan_of(worked).odds.probability);
        assert!(after <= before * 1.1 + 1e-12, "{says}");
        // Chosen by hand, the usual one stays.
        let by_hand = Choices {
            box_style: Some(by.instead_of),
            ..Choices::default()
        };
        let kept = pressed(&each.inputs, &by_hand, &house);
        assert_eq!(inner_box(plan_of(&kept)), inner_box(plan_of(&usual)));
        assert_eq!(kept.box_by_rule, None, "{says}");
    }
    assert!(otherwise >= 2 && tried >= 40, "{otherwise} of {tried}");
}

/// A house that counts in other money with no rate: no material has a price, an hour of work none, and every saving is worth it.
fn unpriced_house() -> House {
    let dollars = Currency::try_from("USD".to_owned()).expect("money");
    let mut house = house();
    house.catalogue = house.catalogue.unpriced(dollars);
    house.rules.allowances.least_saving = Sum::default();
    house.rules.allowances.labour_per_hour = Sum::default();
    house
}

/// Kills the rule that compares what has no price (every canvas became a telescope), and a material that is left out of the list.
#[test]
fn without_prices_the_usual_box_is_taken_and_the_prices_that_are_missing_are_named() {
    let unpriced = unpriced_house();
    let mut usual = unpriced.clone();
    usual.rules.schools.box_style = BoxRule::Usual;
    let mut named = 0;
    for each in everyday() {
        let now = pressed(&each.inputs, &Choices::default(), &unpriced);
        let by_hand = pressed(&each.inputs, &Choices::default(), &usual);
        let plan = plan_of(&now);
        assert_eq!(now.box_by_rule, None, "{}", each.name);
        assert_eq!(now.tiers_by_rule, None, "{}", each.name);
        assert_eq!(plan.layers, plan_of(&by_hand).layers, "{}", each.name);
        let parts = plan.every_layer().flat_map(|layer| &layer.parts);
        let mut made_of: Vec<_> = parts
            .filter(|part| part.unpriced)
            .map(|part| part.material.clone())
            .collect();
        let mut missing: Vec<_> = plan
            .unpriced
            .iter()
            .map(|one| one.material.clone())
            .collect();
        made_of.sort();
        made_of.dedup();
        missing.sort();
        assert_eq!(missing, made_of, "{}", each.name);
        named += missing.len();
        // Offers say nothing of money, and none is made for the money that it would save.
        for offer in styles(&each.inputs, &unpriced, LayerSlot::Box).expect("offers") {
            assert!(!offer.priced, "{}: {}", each.name, offer.name);
        }
        // With their prices nothing is missing.
        let priced = pressed(&each.inputs, &Choices::default(), &house());
        assert_eq!(plan_of(&priced).unpriced, [], "{}", each.name);
    }
    assert!(named > 300, "only {named} prices were missing");
}

/// Kills `>=` in place of `>` at a saving of nothing: materials that are free save nothing, however they are laid.
#[test]
fn a_saving_is_more_than_nothing() {
    let mut free = house();
    free.catalogue = free.catalogue.with_prices(|_| rust_decimal::Decimal::ZERO);
    free.rules.allowances.least_saving = Sum::default();
    free.rules.allowances.labour_per_hour = Sum::default();
    for each in everyday() {
        let now = pressed(&each.inputs, &Choices::default(), &free);
        assert_eq!(plan_of(&now).unpriced, [], "what is free has a price");
        if let Some(by) = &now.box_by_rule {
            assert!(!by.saves.amount.is_zero(), "{}", each.name);
        }
    }
    let euros = Currency::try_from("EUR".to_owned()).expect("money");
    let yen = Currency::try_from("JPY".to_owned()).expect("money");
    let allowances = &mut free.rules.allowances;
    let hundredths = |hundredths| rust_decimal::Decimal::new(hundredths, 2);
    assert_eq!(allowances.worth_saving(&euros), hundredths(1));
    assert_eq!(allowances.worth_saving(&yen), hundredths(100));
    allowances.least_saving = Sum::new(0.5);
    assert_eq!(allowances.worth_saving(&euros), hundredths(50));
}

#[test]
fn what_is_bought_holds_what_goes_in_and_gives_way_to_a_box_that_is_cut() {
    let house = house();
    let (mut fitted, mut refused) = (0, 0);
    for each in everyday()
        .into_iter()
        .filter(Everyday::is_left_to_the_rules)
    {
        let now = pressed(&each.inputs, &Choices::default(), &house);
        let plan = now.plan.as_ref().expect("a plan");
        if plan.carriage == Carriage::Padded {
            continue;
        }
        let offers = bought(&each.inputs, &house).expect("offers");
        assert_eq!(
            offers.is_empty(),
            inner_box(plan).is_none(),
            "{}",
            each.name
        );
        for offer in offers {
            let says = format!("{}: {}", each.name, offer.name);
            let then = ShipmentInputs {
                choices: each.inputs.choices.patched(&offer.choices),
                ..each.inputs.clone()
            };
            if offer.refused.is_some() {
                assert!(Workings::out(&then, &house).is_err(), "{says}");
                refused += 1;
                continue;
            }
            let worked = Workings::out(&then, &house).expect(&says);
            let plan = worked.plan.as_ref().expect("a plan");
            assert_eq!(Some(plan.tally.outside), offer.outside, "{says}");
            let at = plan
                .layers
                .iter()
                .position(|layer| layer.slot == LayerSlot::Box);
            let at = at.expect("a box");
            let held = plan.layers[at - 1].envelope;
            assert!(plan.layers[at].envelope.holds(held), "{says}");
            if let Make::BoughtBox(carton) = &plan.layers[at].make {
                // What it has over is filled, to the last millimetre.
                let dust = |one: Length, other: Length| (one - other).as_mm().abs() < 1e-9;
                let ways = [held.across, held.up];
                let set = [carton.inside_length, carton.inside_width];
                let alike =
                    |one: usize, other: usize| dust(set[0], ways[one]) && dust(set[1], ways[other]);
                assert!(alike(0, 1) || alike(1, 0), "{says}: {set:?}, {ways:?}");
                assert!(dust(carton.inside_height, held.through), "{says}");
            }
            // A box that is cut takes its place again.
            let again = styles(&then, &house, LayerSlot::Box).expect("offers");
            let before = inner_box(plan_of(&now)).map(|carton| carton.style);
            let edge = again.iter().find(|offer| Some(offer.style) == before);
            let cut = pressed(&then, &edge.expect("it can be cut").choices, &house);
            let cut = cut.plan.as_ref().expect("a plan");
            assert_eq!(inner_box(cut), inner_box(plan_of(&now)), "{says}");
            fitted += 1;
        }
    }
    assert!(
        fitted > 60 && refused > 100,
        "{fitted} fit, {refused} do not"
    );
}

fn plan_of(worked: &Workings) -> &Plan {
    worked.plan.as_ref().expect("a plan")
}

#[test]
fn no_everyday_piece_is_left_without_a_box() {
    let house = house();
    let mut answered = Vec::new();
    for each in everyday() {
        let now = pressed(&each.inputs, &Choices::default(), &house);
        let plan = now.plan.as_ref().expect("a plan");
        let cut = |plan: &Plan| {
            plan.layers
                .iter()
                .all(|layer| layer.make.carton().is_none_or(Carton::can_be_cut))
        };
        if cut(plan) {
            continue;
        }
        let finding = plan
            .findings
            .iter()
            .find(|finding| finding.code == "no-sheet-for-blank");
        let remedy = finding
            .and_then(|finding| finding.remedy.as_ref())
            .expect(&each.name);
        let then = pressed(&each.inputs, &remedy.choices, &house);
        let plan = then.plan.as_ref().expect("a plan");
        assert!(cut(plan), "{}: {}", each.name, remedy.label);
        assert!(
            plan.findings
                .iter()
                .all(|finding| finding.code != "no-sheet-for-blank")
        );
        answered.push(each.name);
    }
    // What no sheet takes as a slotted box is made otherwise by itself.
    assert_eq!(answered, Vec::<String>::new());
}

#[test]
fn a_blank_is_joined_at_scores_that_part_it_and_nowhere_else() {
    let house = house();
    let mut joined = 0;
    for each in everyday() {
        for style in CartonStyle::ALL {
            let choices = Choices {
                box_style: Some(style),
                ..Choices::default()
            };
            let worked = pressed(&each.inputs, &choices, &house);
            let plan = worked.plan.as_ref().expect("a plan");
            let Some(carton) = inner_box(plan) else {
                continue;
            };
            for (blank, sheet) in carton.parts() {
                let SheetNeed::Joined {
                    parts,
                    cut_at_mm,
                    sheet,
                    ..
                } = sheet
                else {
                    continue;
                };
                joined += 1;
                assert_eq!(parts.len(), cut_at_mm.len() + 1);
                let lap = house.rules.allowances.sheet_lap;
                // A lap, and a board less half of one where a wall is moved out and the next is cut back.
                let laps: Length = cut_at_mm.iter().map(|_| lap + carton.caliper / 2.0).sum();
                let widths: Length = parts.iter().map(|part| part.width).sum();
                assert!((widths - laps - blank.width).as_mm().abs() < 1e-6);
                for at in cut_at_mm {
                    assert!(blank.runs_across.contains(at), "{}: not a score", each.name);
                    let crossed = blank.panels.iter().any(|panel| {
                        let across = || panel.outline.iter().map(|point| point.x);
                        across().any(|x| x < *at) && across().any(|x| x > *at)
                    });
                    assert!(!crossed, "{}: through a panel", each.name);
                }
                for part in parts {
                    assert!(part.width <= sheet.width && part.height <= sheet.height);
                }
            }
        }
    }
    assert!(joined >= 10, "{joined}");
}

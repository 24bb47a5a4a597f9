//! The front of ways, over everyday pieces and four carriers: nothing on it is beaten, and each way gives what it says.

use std::collections::BTreeSet;

use hummock_core::{
    house::Choices,
    plan::{FindingLevel, Plan},
    shipment::{House, ShipmentInputs, Workings},
    ways::{Explorer, Front, Way},
};

use serde_json::json;

use crate::studio::{four_carriers, sent_pieces};

/// As many plans as a test can wait for.
const PLANS: u32 = 160;

fn explored(inputs: &ShipmentInputs, house: &House, most: u32, threads: usize) -> Front {
    let explorer = Explorer::of(inputs, house, most).expect("it can be made");
    let mut explorer = explorer.expect("it is measured, and known where it goes");
    while !explorer.is_done() {
        explorer.go_on(threads);
    }
    explorer.front()
}

/// Not all of them, for each takes a hundred plans.
fn some() -> impl Iterator<Item = (String, ShipmentInputs)> {
    sent_pieces().step_by(5)
}

#[test]
fn no_way_on_the_front_is_beaten_by_another() {
    let house = four_carriers();
    let mut many = 0;
    for (name, inputs) in some() {
        let front = explored(&inputs, &house, PLANS, 2);
        let unbeaten: Vec<&Way> = front.ways.iter().filter(|way| way.unbeaten).collect();
        for (at, way) in unbeaten.iter().enumerate() {
            for (other_at, other) in unbeaten.iter().enumerate() {
                assert!(
                    at == other_at || !other.is_as_good_as(way),
                    "{name}: {:?} is beaten by {:?}",
                    way.parts,
                    other.parts
                );
            }
        }
        let now = front.ways.iter().filter(|way| way.is_now).count();
        assert_eq!(now, 1, "{name}: the plan there is stands among them once");
        // Where it is beaten, something that is at least as good stands on the front.
        for way in front.ways.iter().filter(|way| !way.unbeaten) {
            assert!(
                way.is_now && unbeaten.iter().any(|other| other.is_as_good_as(way)),
                "{name}"
            );
        }
        assert!(
            front.looked_at > front.plans,
            "{name}: several services each"
        );
        let shown = front.ways.iter().filter(|way| way.leads || way.is_now);
        assert!(shown.count() <= 7, "{name}: a short list is short");
        assert!(
            unbeaten.first().is_none_or(|cheapest| cheapest.leads),
            "{name}: the cheapest leads"
        );
        many += unbeaten.len();
    }
    assert!(many > 20, "only {many}");
}

#[test]
fn every_way_on_the_front_is_taken_and_gives_the_figures_shown() {
    let house = four_carriers();
    for (name, inputs) in some() {
        let now = Workings::out(&inputs, &house).expect(&name);
        let front = explored(&inputs, &house, PLANS, 2);
        for way in &front.ways {
            let taken = ShipmentInputs {
                choices: inputs.choices.patched(&way.choices),
                service: Some(way.service.clone()),
                ..inputs.clone()
            };
            let told = format!("{name}: {:?} by {}", way.parts, way.service);
            let worked = Workings::out(&taken, &house).expect(&told);
            let plan = worked.plan.as_ref().expect(&told);
            assert_eq!(plan.odds.one_in, way.odds, "{told}");
            assert_eq!(
                plan.tally.minutes.as_min().round(),
                way.minutes.as_min(),
                "{told}"
            );
            assert_eq!(
                plan.tally.plastic.as_g().round(),
                way.plastic.as_g(),
                "{told}"
            );
            let quote = worked
                .quotes
                .iter()
                .find(|quote| quote.id == way.service)
                .expect(&told);
            let cost = quote.cost.as_ref().expect(&told);
            assert_eq!(cost.total, way.cost, "{told}");
            if way.is_now {
                continue;
            }
            // The house accepts these odds on the way that the service goes.
            assert!(plan.odds.probability <= plan.odds.accepted, "{told}");
            // No new Stop or Mind.
            let known: Vec<&str> = now
                .plan
                .iter()
                .flat_map(|plan| &plan.findings)
                .map(|finding| finding.code)
                .collect();
            for finding in plan
                .findings
                .iter()
                .filter(|finding| finding.level != FindingLevel::Note)
            {
                assert!(known.contains(&finding.code), "{told}: {}", finding.says);
            }
        }
    }
}

#[test]
fn what_is_found_is_the_same_on_any_number_of_threads_and_grows_no_worse() {
    let house = four_carriers();
    let (_, inputs) = some().nth(2).expect("a piece");
    let one = explored(&inputs, &house, PLANS, 1);
    assert_eq!(one, explored(&inputs, &house, PLANS, 3));
    // More plans never lose anything: whatever was unbeaten is there still, or something as good is.
    let more = explored(&inputs, &house, PLANS * 2, 2);
    for way in &one.ways {
        assert!(
            more.ways.iter().any(|other| other.is_as_good_as(way)),
            "{:?}",
            way.parts
        );
    }
}

/// A box that is closer at the sides or in depth, by half or as far as it goes, and a folder that laps: each of them that the
/// rules allow is on the front, or no better than a plan there.
#[test]
fn no_closer_box_and_no_lapped_folder_beats_what_is_shown() {
    let house = four_carriers();
    let mut depth_alone = 0;
    let mut matched = 0;
    for (name, inputs) in sent_pieces().step_by(2) {
        let now = Workings::out(&inputs, &house).expect(&name);
        let front = explored(&inputs, &house, PLANS, 2);
        depth_alone += front
            .ways
            .iter()
            .filter(|way| way.parts == ["snug in depth"])
            .count();
        let Some(carton) = now.plan.as_ref().and_then(Plan::carton) else {
            continue;
        };
        // Every way names its style.
        let styled = Choices {
            box_style: Some(carton.style),
            ..Choices::default()
        };
        for change in [
            json!({ "clearance": "3 mm" }),
            json!({ "clearance": "9 mm" }),
            json!({ "depth_clearance": "3 mm" }),
            json!({ "depth_clearance": "7 mm" }),
            json!({ "box_style": "folder_lapped" }),
        ] {
            let choices = serde_json::from_value(change.clone()).expect("choices");
            let taken = ShipmentInputs {
                choices: inputs.choices.patched(&styled).patched(&choices),
                ..inputs.clone()
            };
            let Ok(worked) = Workings::out(&taken, &house) else {
                continue;
            };
            let Some(plan) = worked
                .plan
                .as_ref()
                .filter(|plan| stands_beside(&now, plan))
            else {
                continue;
            };
            let told = worked.quotes.first().and_then(|quote| quote.cost.as_ref());
            let Some(cost) = told.map(|cost| cost.total.amount) else {
                continue;
            };
            matched += 1;
            assert!(
                front.ways.iter().any(|way| way.cost.amount <= cost
                    && way.odds.about >= plan.odds.one_in.about
                    && way.minutes.as_min() <= plan.tally.minutes.as_min().round()
                    && way.plastic.as_g() <= plan.tally.plastic.as_g().round()),
                "{name}: {change} for {cost} at 1 in {}",
                plan.odds.one_in.about
            );
        }
    }
    assert!(matched > 20, "only {matched}");
    assert!(depth_alone > 0);
}

/// Whether a plan raises no new Stop or Mind, and the house accepts its odds.
fn stands_beside(now: &Workings, plan: &Plan) -> bool {
    let loud = |plan: &Plan| -> BTreeSet<&'static str> {
        let findings = plan.findings.iter();
        let loud = findings.filter(|finding| finding.level != FindingLevel::Note);
        loud.map(|finding| finding.code).collect()
    };
    let known = now.plan.as_ref().map(loud).unwrap_or_default();
    loud(plan).is_subset(&known) && plan.odds.probability <= plan.odds.accepted
}

#[test]
fn before_it_is_known_where_it_goes_there_is_nothing_to_compare() {
    let (_, mut inputs) = some().next().expect("a piece");
    inputs.buyer.country.clear();
    assert!(
        Explorer::of(&inputs, &four_carriers(), PLANS)
            .expect("it can be made")
            .is_none()
    );
}

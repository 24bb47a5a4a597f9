use super::*;

fn demo() -> serde_json::Value {
    let text = include_str!("../../../../../demo/tariffs/gannet-post.json");
    serde_json::from_str(text).expect("the demo tariff is JSON")
}

fn refused(change: impl FnOnce(&mut serde_json::Value)) -> Vec<String> {
    let mut document = demo();
    change(&mut document);
    let tariff: Tariff = serde_json::from_value(document).expect("it is a tariff all the same");
    let refusals = tariff.checked().err().unwrap_or_default();
    refusals.into_iter().map(|refusal| refusal.field).collect()
}

#[test]
fn each_thing_that_is_wrong_is_named_with_its_place() {
    use serde_json::json;
    type Change = fn(&mut serde_json::Value);
    let changes: [(&str, Change); 14] = [
        ("services/0/billable/divisor_cm3_per_kg", |t| {
            t["services"][0]["billable"]["divisor_cm3_per_kg"] = json!(0)
        }),
        ("services/0/prices/1/steps/1/up_to_g", |t| {
            t["services"][0]["prices"][1]["steps"][1]["up_to_g"] = json!(1500)
        }),
        ("services/0/prices/1/zone", |t| {
            t["services"][0]["prices"][1]["zone"] = json!("Nowhere")
        }),
        ("services/0/prices/0/per_further_kg", |t| {
            t["services"][0]["prices"][0]["per_further_kg"] = json!("0.001")
        }),
        ("zones/3/countries/0", |t| {
            t["zones"][3]["countries"] = json!(["XS"])
        }),
        ("zones/1/name", |t| {
            t["zones"][1]["name"] = json!("Harbour coast")
        }),
        ("tier", |t| t["tier"] = json!("Palace")),
        ("valid_to", |t| {
            t["valid_from"] = json!("2027-05-01");
            t["valid_to"] = json!("2027-04-30");
        }),
        ("services/1/id", |t| {
            t["services"][1]["id"] = json!("parcel")
        }),
        ("services/0/rules/0/when/of/1/is/0", |t| {
            t["services"][0]["rules"][0]["when"] = json!({ "kind": "all", "of": [
                { "kind": "always" }, { "kind": "zone", "is": ["Nowhere"] },
            ] });
        }),
        ("services/0/rules/0/replaces/0", |t| {
            t["services"][0]["rules"][0]["replaces"] = json!(["Nothing before it"])
        }),
        ("services/0/rules/0/what/of/0", |t| {
            t["services"][0]["rules"][0]["what"] =
                json!({ "kind": "percent", "percent": "5", "of": ["fuel"] });
        }),
        ("services/0/cover/step", |t| {
            t["services"][0]["cover"]["step"] = json!("0")
        }),
        ("fuel_on/0", |t| t["fuel_on"] = json!(["tax"])),
    ];
    assert_eq!(refused(|_| {}), Vec::<String>::new());
    for (place, change) in changes {
        assert_eq!(refused(change).first().map(String::as_str), Some(place));
    }
}

#[test]
fn conditions_in_conditions_end_somewhere() {
    let mut when = serde_json::json!({ "kind": "always" });
    for _ in 0..20 {
        when = serde_json::json!({ "kind": "any", "of": [when] });
    }
    let places = refused(|t| t["services"][0]["rules"][0]["when"] = when);
    assert_eq!(places, ["services/0/rules/0/when"]);
}

#[test]
fn a_dip_is_told_where_it_is() {
    let mut tariff: Tariff = serde_json::from_value(demo()).expect("a tariff");
    assert_eq!(tariff.dips(), []);
    // 5 kg cost 6.70 on the Harbour coast, and 10 kg now 6.00.
    tariff.services[0].prices[0].steps[2].price = Decimal::new(600, 2);
    let places: Vec<String> = tariff.dips().into_iter().map(|dip| dip.place).collect();
    assert_eq!(places, ["services/0/prices/0/steps/2"]);
}

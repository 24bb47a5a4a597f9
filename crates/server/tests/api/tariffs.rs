//! Tariffs over HTTP: kept one by one, looked over, tried on a parcel, and their prices as a table.

use super::*;
use test_context::test_context;

use crate::{Demo, NoShipments};

const TARIFFS: &str = "/api/v1/tariffs";
const QUOTE: &str = "/api/v1/sums/quote";

fn example() -> Value {
    let text = include_str!("../../../../docs/tariff-example.json");
    serde_json::from_str(text).expect("the example is JSON")
}

fn parcel() -> Value {
    json!({ "length_mm": 1040, "width_mm": 840, "height_mm": 110, "mass_kg": 6.2 })
}

fn fields(problem: &Value) -> Vec<String> {
    let errors = problem["errors"].as_array().into_iter().flatten();
    errors.map(|error| text(&error["field"])).collect()
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_parcel_is_priced_line_by_line_by_a_tariff_that_is_sent_or_kept(
    NoShipments(database): &NoShipments,
) {
    let api = Api::start(database.pool(), false).await;
    // The example of docs/tariffs.md, worked there by hand: 53.56.
    let asked = json!({
        "tariff": example(), "parcel": parcel(), "destination": { "country": "XS", "postcode": "LM4 1" }, "value": "0",
    });
    let (status, answer) = api.post(QUOTE, asked.clone()).await;
    assert_eq!(status, StatusCode::OK, "{answer}");
    let service = &answer["services"][0];
    let lines: Vec<(String, String)> = service["lines"]
        .as_array()
        .into_iter()
        .flatten()
        .map(|line| (text(&line["name"]), text(&line["amount"])))
        .collect();
    let wanted = [
        ("Base", "12.00"),
        ("Further kilograms", "9.00"),
        ("Large parcel", "14.00"),
        ("By weight", "0.70"),
        ("Peak", "3.50"),
        ("Steps", "4.00"),
        ("Workshop", "-1.68"),
        ("Fuel", "3.11"),
        ("Tax", "8.93"),
    ];
    assert_eq!(
        lines,
        wanted.map(|(name, amount)| (name.to_owned(), amount.to_owned()))
    );
    assert_eq!(service["total"], "53.56");
    assert_eq!(
        (&service["billable_kg"], &service["governs"]),
        (&json!(20.0), &json!("minimum"))
    );
    assert_eq!(service["lines"][2]["rule"], "services/0/rules/1");
    // The same once it is kept, by its id; another tier than its own takes nothing off.
    let path = format!("{TARIFFS}/example");
    let (status, kept) = api.put(&path, json!({ "tariff": example() })).await;
    assert_eq!(
        (status, &kept["version"]),
        (StatusCode::OK, &json!(1)),
        "{kept}"
    );
    let mut by_id = asked.clone();
    by_id.as_object_mut().expect("an object").remove("tariff");
    by_id["tariff_id"] = json!("example");
    assert_eq!(api.post(QUOTE, by_id.clone()).await.1, answer);
    by_id["discount_tier"] = json!("Palace");
    let (status, problem) = api.post(QUOTE, by_id).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(fields(&problem), ["discount_tier"]);
}

#[test_context(Demo)]
#[tokio::test]
async fn what_does_not_hold_together_is_named_with_its_place_and_changes_nothing(
    Demo(database): &Demo,
) {
    let api = Api::start(database.pool(), true).await;
    let before = api.get(TARIFFS).await;
    let mut broken = before[0]["tariff"].clone();
    broken["services"][0]["billable"]["divisor_cm3_per_kg"] = json!(0);
    broken["services"][0]["prices"][0]["zone"] = json!("Nowhere");
    let path = format!("{TARIFFS}/{}", text(&broken["id"]));
    let (status, problem) = api
        .put(&path, json!({ "version": 1, "tariff": broken.clone() }))
        .await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(
        fields(&problem),
        [
            "services/0/billable/divisor_cm3_per_kg",
            "services/0/prices/0/zone"
        ]
    );
    let mut unknown = before[0]["tariff"].clone();
    unknown["services"][0]["billable"]["weight_stop_g"] = json!(5);
    let (status, problem) = api
        .put(&path, json!({ "version": 1, "tariff": unknown }))
        .await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(
        fields(&problem)[0].starts_with("services/0/billable"),
        "{problem}"
    );
    let asked = json!({ "tariff": broken, "parcel": parcel(), "destination": { "country": "XS" } });
    let (_, problem) = api.post(QUOTE, asked).await;
    assert_eq!(
        fields(&problem)[0],
        "tariff/services/0/billable/divisor_cm3_per_kg"
    );
    assert_eq!(api.get(TARIFFS).await, before);
}

#[test_context(Demo)]
#[tokio::test]
async fn of_two_hands_on_a_tariff_the_second_is_told(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let mut tariff = api.get(TARIFFS).await[0]["tariff"].clone();
    let id = text(&tariff["id"]);
    let path = format!("{TARIFFS}/{id}");
    tariff["fuel_percent"] = json!("11");
    let dry = json!({ "version": 1, "tariff": tariff.clone(), "dry_run": true });
    let (status, told) = api.put(&path, dry).await;
    assert_eq!(status, StatusCode::OK, "{told}");
    // Dearer fuel changes what is on the bench, and nothing is kept yet.
    assert!(
        told["affected"]
            .as_array()
            .is_some_and(|affected| !affected.is_empty()),
        "{told}"
    );
    let change = json!({ "version": 1, "tariff": tariff });
    assert_eq!(api.put(&path, change.clone()).await.1["version"], 2);
    let (status, problem) = api.put(&path, change).await;
    assert_eq!(
        (status, text(&problem["type"])),
        (StatusCode::CONFLICT, "/problems/stale".into())
    );
    assert_eq!(
        api.delete(&format!("{path}?version=1")).await,
        StatusCode::CONFLICT
    );
    assert_eq!(
        api.delete(&format!("{path}?version=2")).await,
        StatusCode::NO_CONTENT
    );
    assert_eq!(
        api.delete(&format!("{path}?version=2")).await,
        StatusCode::NOT_FOUND
    );
}

#[test_context(Demo)]
#[tokio::test]
async fn prices_go_out_as_a_table_and_come_in_again(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let path = format!("{TARIFFS}/gannet-post/table");
    let given = api.client.get(format!("{}{path}", api.base)).send();
    let given = given.await.expect("an answer");
    let table = given.text().await.expect("a table");
    let (status, same) = api
        .post(
            &path,
            json!({ "version": 1, "csv": table.clone(), "dry_run": true }),
        )
        .await;
    assert_eq!(status, StatusCode::OK, "{same}");
    let kept = api.get(TARIFFS).await;
    let gannet = kept
        .as_array()
        .into_iter()
        .flatten()
        .find(|one| one["tariff"]["id"] == "gannet-post");
    assert_eq!(Some(&same["tariff"]), gannet.map(|one| &one["tariff"]));
    // The post's parcel within the harbour coast, dearer, with a decimal comma.
    let dearer = "service;format;zone;up_to_g;price;per_further_kg\nparcel;;Harbour coast;2000;5,10;\nparcel;;Harbour coast;5000;6,90;0,80\n";
    let (status, made) = api
        .post(&path, json!({ "version": 1, "csv": dearer }))
        .await;
    assert_eq!(status, StatusCode::OK, "{made}");
    assert_eq!(
        made["tariff"]["services"][0]["prices"][0],
        json!({
            "zone": "Harbour coast", "per_further_kg": "0.80",
            "steps": [{ "up_to_g": 2000.0, "price": "5.10" }, { "up_to_g": 5000.0, "price": "6.90" }],
        })
    );
    let wrong = "service,format,zone,up_to_g,price,per_further_kg\nparcel,,Harbour coast,5000,6.90,\nparcel,,Harbour coast,2000,5.10,\nnone,,Saltmark,1,1,\n";
    let (_, problem) = api.post(&path, json!({ "version": 2, "csv": wrong })).await;
    assert_eq!(fields(&problem), ["line 4, service"]);
    let unsorted = wrong.replace("none,,Saltmark,1,1,\n", "");
    let (_, problem) = api
        .post(&path, json!({ "version": 2, "csv": unsorted }))
        .await;
    assert_eq!(fields(&problem), ["line 3, up_to_g"]);
    let (_, problem) = api.post(&path, json!({ "version": 2, "csv": "service,format,zone,up_to_g,price,per_further_kg\nparcel,,Saltmark,2000,dear,\n" })).await;
    assert_eq!(fields(&problem), ["line 2, price"]);
}

#[test_context(NoShipments)]
#[tokio::test]
async fn the_schema_of_a_tariff_stands_alone(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    let schema = api.get("/api/schemas/tariff.json").await;
    let whole = schema.to_string();
    // Everything that it names is in it.
    let mut named = 0;
    for rest in whole.split("\"#/$defs/").skip(1) {
        let name = rest.split('"').next().expect("a name");
        assert!(schema["$defs"][name].is_object(), "{name}");
        named += 1;
    }
    assert!(named > 20, "{named}");
    let services = &schema["$defs"]["Service"]["properties"];
    for field in ["formats", "rules", "prices", "with_cover", "refuses"] {
        assert!(services[field].is_object(), "{field}");
    }
    // Two schemas of one name would take each other's place.
    assert_eq!(
        schema["$defs"]["WeightStep"]["properties"]["up_to_g"]["$ref"],
        "#/$defs/Mass"
    );
}

#[test_context(Demo)]
#[tokio::test]
async fn an_account_is_compared_over_the_archive_or_a_table(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let path = "/api/v1/tariffs/gannet-post/account";
    // The demo's archive went with this carrier's parcel service.
    let (status, savings) = api.post(path, json!({})).await;
    assert_eq!(status, StatusCode::OK, "{savings}");
    assert!(savings["parcels"].as_u64() >= Some(10), "{savings}");
    let own = savings["tiers"]
        .as_array()
        .expect("tiers")
        .iter()
        .find(|tier| tier["own"] == true);
    assert_eq!(own.expect("the studio has one")["saves"]["amount"], "0.00");
    let table = "length_mm,width_mm,height_mm,mass_kg,country,postcode,service,value\n600,400,100,3.6,XS,TB1,parcel,\n910,610,112,4.2,xs,,,320\n";
    let (status, of_table) = api.post(path, json!({ "csv": table })).await;
    assert_eq!(status, StatusCode::OK, "{of_table}");
    assert_eq!(
        of_table["parcels"]
            .as_u64()
            .zip(of_table["not_taken"].as_u64())
            .map(|(one, other)| one + other),
        Some(2)
    );
    let broken = "length_mm;width_mm;height_mm;mass_kg;country;service\nlong;400;100;3,6;XS;parcel\n600;400;100;0;XS;post\n";
    let (status, problem) = api.post(path, json!({ "csv": broken })).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    let fields: Vec<&str> = problem["errors"]
        .as_array()
        .expect("errors")
        .iter()
        .filter_map(|error| error["field"].as_str())
        .collect();
    assert_eq!(
        fields,
        ["line 2, length_mm", "line 3, service"],
        "{problem}"
    );
    let (status, problem) = api
        .post(path, json!({ "csv": "width_mm,pigeons\n1,2\n" }))
        .await;
    assert_eq!(
        (status, problem["errors"].as_array().map(Vec::len)),
        (StatusCode::UNPROCESSABLE_ENTITY, Some(5)),
        "{problem}"
    );
    let (status, _) = api.post("/api/v1/tariffs/nobody/account", json!({})).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_rough_quote_needs_a_size_and_a_country(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    let (status, problem) = api
        .post("/api/v1/plans/rough", json!({ "inputs": {} }))
        .await;
    assert_eq!(
        (status, problem["errors"].as_array().map(Vec::len)),
        (StatusCode::UNPROCESSABLE_ENTITY, Some(3)),
        "{problem}"
    );
    let inputs = json!({ "piece": { "width": "24 in", "height": "32 in" }, "buyer": { "country": "XS" }, "value": "480" });
    let (status, rough) = api
        .post("/api/v1/plans/rough", json!({ "inputs": inputs }))
        .await;
    assert_eq!(status, StatusCode::OK, "{rough}");
    assert_eq!(rough["cases"].as_array().map(Vec::len), Some(4));
    assert!(rough["least"]["amount"].is_string(), "{rough}");
}

/// A shape that is begun, typed in and kept prices a parcel of the demo at once; what nobody typed prices none.
#[test_context(Demo)]
#[tokio::test]
async fn a_price_list_begins_in_a_shape_and_prices_once_one_price_is_typed(Demo(database): &Demo) {
    let api = Api::start(database.pool(), false).await;
    let shapes = api.get("/api/v1/tariffs/shapes").await;
    let shapes = shapes.as_array().expect("a list");
    let named: Vec<String> = shapes.iter().map(|one| text(&one["shape"])).collect();
    assert_eq!(
        named,
        ["weights", "zones_and_weights", "volume", "flat_boxes"]
    );
    for one in shapes {
        let mut sheet = one["sheet"].clone();
        assert_eq!(sheet["currency"], "EUR");
        let (status, refused) = api.post(TARIFFS, json!({ "sheet": sheet })).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{}", one["shape"]);
        assert!(!fields(&refused).is_empty());

        // The zones without a country are left to whoever knows where the carrier goes.
        let zones = sheet["zones"].as_array_mut().expect("zones");
        zones.retain(|zone| zone["countries"] != json!([]));
        let service = &mut sheet["services"][0];
        if let Some(columns) = service["prices"]["zones"].as_array_mut() {
            columns.truncate(1);
        }
        let place = if one["shape"] == "flat_boxes" {
            "/formats/2/prices/zones/0/prices/0"
        } else {
            "/prices/zones/0/prices/4"
        };
        *service.pointer_mut(place).expect("a cell") = json!("7.77");
        sheet["carrier"] = json!(format!("Carrier of {}", text(&one["shape"])));
        let (status, kept) = api.post(TARIFFS, json!({ "sheet": sheet })).await;
        assert_eq!(status, StatusCode::OK, "{kept}");
    }
    // Each of them offers to take a print that goes into the largest box, for what was typed.
    let inputs = json!({
        "piece": { "construction": "loose_paper", "width": "297 mm", "height": "420 mm", "depth": "1 mm", "medium": "print" },
        "value": "40", "buyer": { "country": "XS" },
    });
    let (status, worked) = api
        .post("/api/v1/plans/preview", json!({ "inputs": inputs }))
        .await;
    assert_eq!(status, StatusCode::OK, "{worked}");
    let quotes = worked["worked"]["quotes"].as_array().expect("quotes");
    let own = quotes
        .iter()
        .filter(|quote| text(&quote["carrier"]).starts_with("Carrier of"));
    let prices: Vec<String> = own
        .map(|quote| text(&quote["offer"]["total"]["amount"]))
        .collect();
    assert_eq!(prices, ["7.77"; 4]);

    // What each costs more than the best one is told part by part.
    let (_, priced) = api
        .post("/api/v1/plans/price", json!({ "inputs": inputs }))
        .await;
    let dearer = priced["dearer"].as_array().expect("a list");
    let costed = quotes.iter().filter(|quote| quote["cost"].is_object());
    assert_eq!(dearer.len() + 1, costed.count());
}

/// Kills a list that leaves out more than it was asked to, and one that leaves nothing out.
#[test_context(Demo)]
#[tokio::test]
async fn a_list_leaves_out_what_its_reader_does_not_show(Demo(database): &Demo) {
    let api = Api::start(database.pool(), false).await;
    for place in ["bench", "archive"] {
        let whole = api.get(&format!("/api/v1/shipments?place={place}")).await;
        let less = format!("/api/v1/shipments?place={place}&without=section");
        let mut expected = whole.clone();
        let rows = expected["rows"].as_array_mut().expect("rows");
        assert!(!rows.is_empty(), "{place}");
        for row in rows {
            if row["summary"].is_object() {
                assert_ne!(row["summary"]["section"], json!([]), "{place}");
                row["summary"]["section"] = json!([]);
            }
        }
        assert_eq!(api.get(&less).await, expected, "{place}");
    }
    let unknown = format!("{}/api/v1/shipments?without=everything", api.base);
    let unknown = api.client.get(unknown).send().await.expect("an answer");
    assert_eq!(unknown.status(), StatusCode::UNPROCESSABLE_ENTITY);
    let unknown: Value = unknown.json().await.expect("JSON");
    assert_eq!(fields(&unknown), ["without"]);
}

//! A studio's settings: where it is, where it sends to, and how it writes.

use test_context::test_context;

use super::*;
use crate::{Demo, NoShipments};

const PATH: &str = "/api/v1/studio/settings";

fn fields(problem: &Value) -> Vec<&str> {
    let errors = problem["errors"]
        .as_array()
        .map(Vec::as_slice)
        .unwrap_or_default();
    errors
        .iter()
        .filter_map(|error| error["field"].as_str())
        .collect()
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_studio_moves_to_portland_and_sends_to_real_countries(
    NoShipments(database): &NoShipments,
) {
    let api = Api::start(database.pool(), false).await;
    let before = api.get(PATH).await;
    assert_eq!(before["sender"]["country"], "XS");
    assert_eq!(
        (&before["length"], &before["fraction"], &before["label"]),
        (&json!("mm"), &json!(16), &json!("100x150"))
    );
    // Its three countries are of its own making, with a format.
    let own = &before["countries"][0];
    assert_eq!(
        (&own["code"], &own["name"]),
        (&json!("XS"), &json!("Saltmark"))
    );
    assert_eq!(own["format"]["lines"][3], "{town} {postcode}");
    let portland = json!({
        "name": "Dana Whitlock", "street": "1420 SE Oak St", "town": "Portland", "region": "OR", "postcode": "97214",
        "country": "US",
    });
    let change = json!({
        "sender": portland, "length": "in", "mass": "lb", "paper": "letter", "label": "4x6", "date_order": "mdy",
        "time_zone": "America/Los_Angeles", "tax": { "other": "EIN 12-3456789" },
        "countries": [
            { "code": "US" }, { "code": "CA", "wet_months": [11, 12], "hot_months": [7] }, { "code": "DE" }, { "code": "FR", "route": "abroad" },
            { "code": "XS", "name": "Saltmark" },
        ],
    });
    let (status, after) = api.put(PATH, change).await;
    assert_eq!(status, StatusCode::OK, "{after}");
    assert_eq!(after["name"], before["name"], "what is left out stays");
    assert_eq!(after["sender"]["region"], "OR");
    let routes: Vec<&str> = after["countries"]
        .as_array()
        .expect("countries")
        .iter()
        .filter_map(|one| one["route"].as_str())
        .collect();
    // The studio's own country, a neighbour, the rest of the world, and as somebody said; XS had a line in the house rules.
    assert_eq!(routes[..4], ["national", "abroad", "overseas", "abroad"]);
    assert_eq!(after["countries"][1]["wet_months"], json!([11, 12]));
    assert_eq!(after["countries"][1]["hot_months"], json!([7]));
    // One stored value: the sender's page shows the same.
    let sender = api.get("/api/v1/studio/sender").await;
    assert_eq!(sender["sender"]["address"], after["sender"]);
    assert_eq!(sender["town"], "Portland");
    let studio = api.get("/api/v1/studio").await;
    assert_eq!(studio["unit"], "in");
    let names: Vec<&str> = studio["countries"]
        .as_array()
        .expect("countries")
        .iter()
        .filter_map(|one| one["name"].as_str())
        .collect();
    assert_eq!(
        names,
        ["United States", "Canada", "Germany", "France", "Saltmark"]
    );
    let places = studio["rules"]["odds"]["places"]
        .as_array()
        .expect("places");
    assert!(
        places
            .iter()
            .any(|place| place["country"] == "DE" && place["route"] == "overseas"),
        "{places:?}"
    );
    // A block without a country is one of the studio's own.
    let block = json!({ "block": "Jo Reed\n88 Pier Ave\nSanta Fe, NM 87501" });
    let (_, parted) = api.post("/api/v1/addresses", block).await;
    assert_eq!(
        (&parted["buyer"]["region"], &parted["buyer"]["country"]),
        (&json!("NM"), &json!("US"))
    );
}

#[test_context(NoShipments)]
#[tokio::test]
async fn what_can_not_stand_is_refused_at_its_field_and_nothing_is_kept(
    NoShipments(database): &NoShipments,
) {
    let api = Api::start(database.pool(), false).await;
    let before = api.get(PATH).await;
    for (change, field) in [
        (
            json!({ "countries": [{ "code": "QQ" }] }),
            "countries[0].code",
        ),
        (
            json!({ "countries": [{ "code": "DE" }, { "code": "DE" }] }),
            "countries[1].code",
        ),
        (
            json!({ "countries": [{ "code": "de" }] }),
            "countries[0].code",
        ),
        (
            json!({ "countries": [{ "code": "DE", "name": "Mine" }] }),
            "countries[0].name",
        ),
        (
            json!({ "countries": [{ "code": "QM", "name": "Mine", "format": { "lines": ["{town}"] } }] }),
            "countries[0].format.lines",
        ),
        (
            json!({ "countries": [{ "code": "QM", "name": "Mine", "format": { "lines": ["{name}", "{street}"], "postcode": "[" } }] }),
            "countries[0].format.postcode",
        ),
        (
            json!({ "countries": [{ "code": "DE", "wet_months": [13] }] }),
            "countries[0].wet_months",
        ),
        (
            json!({ "countries": [{ "code": "DE", "hot_months": [0] }] }),
            "countries[0].hot_months",
        ),
        (json!({ "sender": { "country": "QQ" } }), "sender.country"),
        (json!({ "currency": "XAU" }), "currency"),
        (json!({ "currency": "euro" }), "currency"),
        (json!({ "time_zone": "Middle/Earth" }), "time_zone"),
        (json!({ "fraction": 10 }), "fraction"),
        (json!({ "name": " " }), "name"),
    ] {
        let (status, problem) = api.put(PATH, change.clone()).await;
        assert_eq!(
            status,
            StatusCode::UNPROCESSABLE_ENTITY,
            "{change}: {problem}"
        );
        assert!(fields(&problem).contains(&field), "{change}: {problem}");
    }
    // Words that are no choice are refused where they stand.
    for (change, field) in [
        (json!({ "length": "furlong" }), "length"),
        (
            json!({ "countries": [{ "code": "DE", "route": "sideways" }] }),
            "countries[0].route",
        ),
    ] {
        let (status, problem) = api.put(PATH, change.clone()).await;
        assert_eq!(
            status,
            StatusCode::UNPROCESSABLE_ENTITY,
            "{change}: {problem}"
        );
        assert!(fields(&problem).contains(&field), "{change}: {problem}");
    }
    assert_eq!(api.get(PATH).await, before);
    // The sender's page drops no country in silence.
    let sender = api.get("/api/v1/studio/sender").await;
    let mut change = json!({ "version": sender["version"], "name": "A", "town": "B", "sender": sender["sender"], "certificate": sender["certificate"] });
    change["countries"] = json!([{ "code": "FR", "name": "France", "postcode": "before_town" }]);
    let (status, problem) = api.put("/api/v1/studio/sender", change).await;
    assert_eq!(
        (status, fields(&problem)),
        (StatusCode::UNPROCESSABLE_ENTITY, vec!["countries[0].code"]),
        "{problem}"
    );
    // Whoever names a version changes that one.
    let (status, _) = api.put(PATH, json!({ "version": 99, "name": "C" })).await;
    assert_eq!(status, StatusCode::CONFLICT);
}

#[test_context(Demo)]
#[tokio::test]
async fn all_countries_are_told_the_studios_own_first(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let told = api.get("/api/v1/countries").await;
    let all = told.as_array().expect("countries");
    assert_eq!(all.len(), 249 + 3);
    let codes: Vec<&str> = all.iter().filter_map(|one| one["code"].as_str()).collect();
    assert_eq!(codes[..4], ["XS", "XV", "XO", "AF"]);
    assert!(
        all[..3]
            .iter()
            .all(|one| one["own"] == true && one["listed"] == true)
    );
    let germany = all
        .iter()
        .find(|one| one["code"] == "DE")
        .expect("it is there");
    assert_eq!(
        (&germany["name"], &germany["own"]),
        (&json!("Germany"), &json!(false))
    );
    assert_eq!(germany["format"]["postcode"], "\\d{5}");
    assert_eq!(
        germany["format"]["required"],
        json!(["street", "town", "postcode"])
    );
    let brazil = all
        .iter()
        .find(|one| one["code"] == "BR")
        .expect("it is there");
    assert_eq!(brazil["format"]["lines"][4], "{town}-{region}");
    assert_eq!(brazil["currency"], "BRL");
    // A real country's address is written as its post reads it, on the pack sheet's line too.
    let inputs = json!({ "title": "Tideline", "buyer": {
        "name": "Anna Weber", "company": "Galerie Nord GmbH", "street": "Hafenstraße 12", "town": "Hamburg", "postcode": "20457",
        "country": "DE",
    } });
    let (status, made) = api
        .post("/api/v1/shipments", json!({ "inputs": inputs }))
        .await;
    assert_eq!(status, StatusCode::CREATED, "{made}");
    let id = made["id"].as_str().expect("an id");
    let leaving = api.get(&format!("/api/v1/shipments/{id}/leaving")).await;
    assert_eq!(
        leaving["to"],
        json!([
            "Anna Weber",
            "Galerie Nord GmbH",
            "Hafenstraße 12",
            "20457 Hamburg",
            "GERMANY"
        ]),
        "{leaving}"
    );
}

/// A studio that is nobody's is begun beside the demo and set up in yen; neither sees anything of the other.
/// Kills a studio that is made before its settings are read: a nameless one would be left behind.
#[test_context(Demo)]
#[tokio::test]
async fn a_set_up_that_is_refused_makes_no_studio(Demo(database): &Demo) {
    const SET_UP: &str = "/api/v1/studios/set-up";
    let api = Api::start(database.pool(), true).await;
    let demo = api.get("/api/v1/studios").await;
    for (typed, refused) in [
        (json!({ "currency": "Gold" }), "currency"),
        (
            json!({ "name": "Marram", "countries": [{ "code": "Norway" }] }),
            "countries[0].code",
        ),
        (
            json!({ "name": "Marram", "time_zone": "Atlantis/Port" }),
            "time_zone",
        ),
    ] {
        let (status, problem) = api.post(SET_UP, typed).await;
        assert_eq!(
            (status, fields(&problem)),
            (StatusCode::UNPROCESSABLE_ENTITY, vec![refused]),
            "{problem}"
        );
        assert_eq!(api.get("/api/v1/studios").await, demo, "{refused}");
    }
    // A version says which settings were seen, and a new studio has none yet.
    let typed = json!({ "name": "Marram", "version": 7, "sender": { "name": "Idun Vik", "country": "NO" } });
    let (status, rows) = api.post(SET_UP, typed).await;
    assert_eq!(status, StatusCode::CREATED, "{rows}");
    let shown = |row: &Value| (row["name"].clone(), row["shown"].clone());
    let rows: Vec<_> = rows.as_array().expect("rows").iter().map(shown).collect();
    assert_eq!(rows[1..], [(json!("Marram"), json!(true))]);
    assert_eq!(rows[0].1, false);
}

#[test_context(Demo)]
#[tokio::test]
async fn a_studio_of_ones_own_is_begun_beside_the_demo(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let demo = api.get("/api/v1/studio").await;
    assert_eq!(
        (&demo["demo"], &demo["set_up"]),
        (&json!(true), &json!(true))
    );
    // The money of a studio with sums in it changes with a rate only.
    let (status, problem) = api.put(PATH, json!({ "currency": "JPY" })).await;
    assert_eq!(
        (status, fields(&problem)),
        (StatusCode::UNPROCESSABLE_ENTITY, vec!["rate"]),
        "{problem}"
    );
    let begun = api
        .client
        .post(format!("{}/api/v1/studios", api.base))
        .send()
        .await
        .expect("an answer");
    assert_eq!(begun.status(), StatusCode::CREATED);
    let cookie = begun.headers()["set-cookie"]
        .to_str()
        .expect("text")
        .to_owned();
    assert!(
        cookie.contains("SameSite=Strict") && cookie.contains("HttpOnly"),
        "{cookie}"
    );
    let cookie = cookie.split(';').next().expect("a pair").to_owned();
    let as_own =
        async |method: reqwest::Method, path: &str, body: Option<Value>| -> (StatusCode, Value) {
            let asked = api
                .client
                .request(method, format!("{}{path}", api.base))
                .header("cookie", &cookie);
            let asked = match body {
                Some(body) => asked.json(&body),
                None => asked,
            };
            answer(asked.send().await.expect("an answer")).await
        };
    let get = reqwest::Method::GET;
    let (_, own) = as_own(get.clone(), "/api/v1/studio", None).await;
    assert_eq!(
        (&own["demo"], &own["set_up"], &own["name"]),
        (&json!(false), &json!(false), &json!(""))
    );
    assert_eq!(own["countries"], json!([]));
    let (_, rows) = as_own(get.clone(), "/api/v1/shipments", None).await;
    assert_eq!(rows["total"], 0, "{rows}");
    let (_, tariffs) = as_own(get.clone(), "/api/v1/tariffs", None).await;
    assert_eq!(tariffs, json!([]));
    // Its shelves are empty, and prices that the program brought are to be looked at until somebody says that they are right.
    let (_, stores) = as_own(get.clone(), "/api/v1/stores", None).await;
    let marked = |stores: &Value| {
        let boards = stores["catalogue"]["boards"]
            .as_array()
            .expect("boards")
            .clone();
        let marked = boards
            .iter()
            .filter(|board| board["shelf"]["to_check"] == true);
        (marked.count(), boards.len())
    };
    let (to_check, all) = marked(&stores);
    assert!(to_check == all && all > 5, "{to_check} of {all}");
    let looked = json!({ "version": stores["version"] });
    let path = "/api/v1/stores/prices-checked";
    let (status, stores) = as_own(reqwest::Method::POST, path, Some(looked)).await;
    assert_eq!((status, marked(&stores).0), (StatusCode::OK, 0), "{stores}");
    let kyoto = json!({
        "name": "Shiokusa", "currency": "JPY",
        "sender": { "name": "Shiokusa", "street": "4-5-6 Gion", "region": "京都府", "postcode": "605-0074", "country": "JP" },
        "countries": [{ "code": "JP" }, { "code": "KR" }, { "code": "FR" }],
    });
    let (status, kept) = as_own(reqwest::Method::PUT, PATH, Some(kyoto)).await;
    assert_eq!(status, StatusCode::OK, "{kept}");
    assert_eq!(kept["currency"], "JPY");
    let (_, own) = as_own(get.clone(), "/api/v1/studio", None).await;
    assert_eq!(
        (&own["set_up"], &own["catalogue"]["currency"]),
        (&json!(true), &json!("JPY"))
    );
    // Nothing costs anything yet; sums in yen have no decimals.
    let inputs = json!({ "title": "Reed Bed", "piece": canvas(), "buyer": {
        "name": "Camille Roux", "street": "14 rue des Tanneurs", "town": "Lyon", "postcode": "69001", "country": "FR",
    } });
    let (status, made) = as_own(
        reqwest::Method::POST,
        "/api/v1/shipments",
        Some(json!({ "inputs": inputs })),
    )
    .await;
    assert_eq!(status, StatusCode::CREATED, "{made}");
    assert_eq!(
        made["summary"]["materials"],
        json!({ "amount": "0", "currency": "JPY" })
    );
    // The other one is as it was, and begun again it is still the one that was never set up.
    assert_eq!(
        api.get("/api/v1/studio").await["countries"],
        demo["countries"]
    );
    let (_, all) = as_own(get, "/api/v1/studios", None).await;
    let all = all.as_array().expect("studios");
    assert_eq!(all.len(), 2);
    assert_eq!(
        (&all[1]["name"], &all[1]["shown"], &all[0]["demo"]),
        (&json!("Shiokusa"), &json!(true), &json!(true))
    );
    let demo_id = all[0]["id"].clone();
    let back = api
        .client
        .put(format!("{}/api/v1/studios/shown", api.base))
        .header("cookie", &cookie)
        .json(&json!({ "id": demo_id }))
        .send()
        .await
        .expect("an answer");
    assert_eq!(back.status(), StatusCode::NO_CONTENT);
    let shown = back.headers()["set-cookie"].to_str().expect("text");
    assert!(shown.contains(demo_id.as_str().expect("an id")), "{shown}");
    let nowhere = json!({ "id": "018f0000-0000-7000-8000-000000000000" });
    let (status, _) = as_own(reqwest::Method::PUT, "/api/v1/studios/shown", Some(nowhere)).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
}

async fn house_version(database: &Database) -> i32 {
    sqlx::query_scalar("SELECT min(version) FROM house")
        .fetch_one(database.pool())
        .await
        .expect("there is a house")
}

/// A studio with shipments, some of which left, counts in dollars from a day on: 1 EUR is 1.08 USD. What is at work follows in one
/// version of the house, what left stays in euros and says so.
#[test_context(Demo)]
#[tokio::test]
async fn a_studio_counts_in_other_money_from_a_day_on(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let asked = |body: Value| api.put(PATH, body);
    for (rate, field) in [("0", "rate"), ("1000001", "rate")] {
        let (status, problem) = asked(json!({ "currency": "USD", "rate": rate })).await;
        assert_eq!(
            (status, fields(&problem)),
            (StatusCode::UNPROCESSABLE_ENTITY, vec![field])
        );
    }
    let shown = api
        .get(&format!("{PATH}/money?currency=USD&rate=1.08"))
        .await;
    assert_eq!(
        (&shown["from"], &shown["to"]),
        (&json!("EUR"), &json!("USD"))
    );
    let sums = shown["sums"].as_array().expect("sums");
    assert_eq!(sums.len(), 10);
    let hour = sums
        .iter()
        .find(|sum| sum["name"] == "an hour of work")
        .expect("an hour");
    assert_eq!(
        (&hour["before"], &hour["after"]),
        (&json!("24.00"), &json!("25.92"))
    );

    let before = api.get("/api/v1/studio").await;
    let rows = api.rows().await;
    let of = |rows: &Value, title: &str| {
        let rows = rows.as_array().expect("rows");
        rows.iter()
            .find(|row| row["inputs"]["title"] == title)
            .cloned()
            .expect("it is there")
    };
    let open = of(&rows, "Kelp Ladder");
    let at = format!("/api/v1/shipments/{}", text(&open["id"]));
    // A state to go back to, in the money before.
    let stored = api.get(&at).await;
    let (status, edited) = api
        .patch(
            &at,
            json!({ "version": stored["version"], "change": { "value": "1000" } }),
        )
        .await;
    assert_eq!(status, StatusCode::OK, "{edited}");
    let reckoned = api.get("/api/v1/log/reckoning").await;
    let version = house_version(database).await;
    let (status, then) = asked(json!({ "currency": "USD", "rate": "1.08" })).await;
    assert_eq!(
        (status, &then["currency"]),
        (StatusCode::OK, &json!("USD")),
        "{then}"
    );

    // One version of the house: rules, stores and shipments together.
    assert_eq!(house_version(database).await, version + 1);
    let after = api.get("/api/v1/studio").await;
    let rules = |studio: &Value| studio["rules"]["version"].as_i64().expect("a version");
    assert_eq!(rules(&after), rules(&before) + 1);
    assert_eq!(
        after["rules"]["allowances"]["labour_per_hour"],
        json!(25.92)
    );
    let rates = after["rules"]["rates"].as_array().expect("rates");
    let euro = json!({ "currency": "EUR", "rate": "1.08", "on": "2027-03-04" });
    assert!(rates.contains(&euro), "{rates:?}");
    assert_eq!(after["catalogue"]["currency"], "USD");
    // An edit that was begun before is told how it stands now; to go back leads to the sum before, in the new money.
    let stale = json!({ "version": edited["version"], "change": { "value": "1200" } });
    assert_eq!(api.patch(&at, stale).await.0, StatusCode::CONFLICT);
    let now = api.get(&at).await;
    assert_eq!(now["inputs"]["value"], "1080.00");
    let (status, back) = api
        .post(&format!("{at}/undo"), json!({ "version": now["version"] }))
        .await;
    assert_eq!(status, StatusCode::OK, "{back}");
    let value =
        |shipment: &Value| -> f64 { text(&shipment["inputs"]["value"]).parse().expect("a sum") };
    assert!(
        (value(&back) - value(&stored) * 1.08).abs() < 0.01,
        "{back}"
    );
    assert_eq!(back["summary"]["materials"]["currency"], "USD");

    // What left is told in euros, its claim as well; what all of it comes to is told in dollars: 120 EUR are 129.60 USD.
    let left = &api.get("/api/v1/log?search=herons").await["rows"][0];
    assert_eq!(
        (&left["paid"], &left["currency"]),
        (&json!("120.00"), &json!("EUR"))
    );
    let sum = |reckoned: &Value, key: &str| -> f64 { text(&reckoned[key]).parse().expect("a sum") };
    let again = api.get("/api/v1/log/reckoning").await;
    assert!(
        (sum(&again, "paid") - sum(&reckoned, "paid") * 1.08).abs() < 0.02,
        "{again}"
    );
    let sent = format!("/api/v1/shipments/{}", text(&left["id"]));
    let herons = api.get(&sent).await;
    assert_eq!(herons["inputs"]["currency"], "EUR");
    let (status, herons) = api
        .put(&format!("{sent}/place"), json!({ "place": "bench" }))
        .await;
    assert_eq!(
        (status, &herons["place"]),
        (StatusCode::OK, &json!("sent")),
        "it left: {herons}"
    );
    let noted = json!({ "version": herons["version"], "change": { "after": { "cost": "20.50" } } });
    let (status, noted) = api.patch(&sent, noted).await;
    assert_eq!(
        (status, &noted["inputs"]["currency"]),
        (StatusCode::OK, &json!("EUR")),
        "{noted}"
    );
    // At work again, it is read in the studio's money.
    let taken_back =
        json!({ "version": noted["version"], "change": { "sending": { "handed_over": null } } });
    let (status, open) = api.patch(&sent, taken_back).await;
    assert_eq!(status, StatusCode::OK, "{open}");
    assert_eq!(open["inputs"]["currency"], Value::Null);
    assert!(
        (value(&open) - value(&herons) * 1.08).abs() < 0.01,
        "{open}"
    );
    // What it was before it left is not gone back to: its sums are in the money before.
    assert_eq!(open["can_undo"], false);
    let (status, undone) = api
        .post(
            &format!("{sent}/undo"),
            json!({ "version": open["version"] }),
        )
        .await;
    assert_eq!(
        (status, &undone["type"]),
        (StatusCode::CONFLICT, &json!("/problems/no-state")),
        "{undone}"
    );
}

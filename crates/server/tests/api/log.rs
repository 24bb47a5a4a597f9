//! The log: every parcel that left, found, reckoned up, and out as tables.

use super::*;
use test_context::test_context;

use crate::Demo;

async fn page(api: &Api, query: &str) -> Value {
    api.get(&format!("/api/v1/log?{query}")).await
}

fn titles(page: &Value) -> Vec<String> {
    let rows = page["rows"].as_array().expect("rows");
    rows.iter().map(|row| text(&row["title"])).collect()
}

#[test_context(Demo)]
#[tokio::test]
async fn what_left_is_found_filtered_sorted_and_told_a_page_at_a_time(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let all = page(&api, "").await;
    // Twelve parcels of the demo studio went out before.
    assert_eq!(all["total"], 12, "{all}");
    let days: Vec<String> = all["rows"]
        .as_array()
        .expect("rows")
        .iter()
        .map(|row| text(&row["left_on"]))
        .collect();
    assert!(days.is_sorted_by(|one, other| one >= other), "{days:?}");
    let oldest = page(&api, "sort=oldest").await;
    let mut turned = titles(&oldest);
    turned.reverse();
    assert_eq!(turned, titles(&all));
    // Page by page they are the same, each once.
    let mut seen = Vec::new();
    for skip in [0, 5, 10] {
        let part = page(&api, &format!("skip={skip}&most=5")).await;
        assert_eq!(part["total"], 12);
        seen.extend(titles(&part));
    }
    assert_eq!(seen, titles(&all));
    assert_eq!(titles(&page(&api, "search=herons").await), ["Two Herons"]);
    let damaged = page(&api, "outcome=damaged").await;
    assert_eq!(titles(&damaged), ["Two Herons"]);
    assert_eq!(damaged["rows"][0]["paid"], "120.00");
    assert_eq!(page(&api, "outcome=none").await["total"], 0);
    let panels = page(&api, "class=panel").await;
    assert_eq!(panels["total"], 2, "{panels}");
    assert_eq!(
        page(&api, "from=2027-02-10&to=2027-02-14").await["total"],
        2
    );
    assert_eq!(page(&api, "carrier=Gannet%20Post").await["total"], 12);
    let off = page(&api, "sort=weight_off").await;
    let shares: Vec<f64> = off["rows"]
        .as_array()
        .expect("rows")
        .iter()
        .map(|row| {
            let of = |key: &str| row[key].as_f64().expect("grams");
            (of("weighed_g") / of("planned_g") - 1.0).abs()
        })
        .collect();
    assert!(shares.is_sorted_by(|one, other| one >= other), "{shares:?}");
    for query in [
        "most=0",
        "outcome=tea",
        "from=soon",
        "sort=tea",
        "colour=red",
    ] {
        let (status, problem) = answer(
            api.client
                .get(format!("{}/api/v1/log?{query}", api.base))
                .send()
                .await
                .expect("an answer"),
        )
        .await;
        assert_eq!(
            status,
            StatusCode::UNPROCESSABLE_ENTITY,
            "{query}: {problem}"
        );
    }
}

#[test_context(Demo)]
#[tokio::test]
async fn a_parcel_is_in_the_log_from_the_day_it_left_and_counts_once_it_is_known(
    Demo(database): &Demo,
) {
    let api = Api::start(database.pool(), true).await;
    let before = api.get("/api/v1/log/reckoning").await;
    assert_eq!(before["counted"]["parcels"], 12);
    assert_eq!(before["counted"]["damaged"], 1);
    let inputs =
        json!({ "title": "Slack Tide II", "piece": canvas(), "buyer": { "country": "XS" } });
    let (_, made) = api
        .post("/api/v1/shipments", json!({ "inputs": inputs }))
        .await;
    let path = format!("/api/v1/shipments/{}", text(&made["id"]));
    let change = async |change: Value| {
        let version = api.get(&path).await["version"].clone();
        let (status, view) = api
            .patch(&path, json!({ "version": version, "change": change }))
            .await;
        assert_eq!(status, StatusCode::OK, "{view}");
        view
    };
    change(json!({ "sending": { "handed_over": "2027-03-03" } })).await;
    assert_eq!(titles(&page(&api, "outcome=none").await), ["Slack Tide II"]);
    let told = api.get("/api/v1/log/reckoning").await;
    assert_eq!(
        (&told["parcels"], &told["counted"]["parcels"]),
        (&json!(13), &json!(12))
    );
    let view =
        change(json!({ "after": { "outcome": "damaged", "on": "2027-03-04", "minutes": 61 } }))
            .await;
    let told = api.get("/api/v1/log/reckoning").await;
    assert_eq!(
        (&told["counted"]["parcels"], &told["counted"]["damaged"]),
        (&json!(13), &json!(2))
    );
    let expected = told["counted"]["expected"].as_f64().expect("a number");
    let first = before["counted"]["expected"].as_f64().expect("a number");
    let own = view["handed"]["intensity"].as_f64().expect("a number");
    assert!((expected - first - own).abs() < 1e-12);
    let row = page(&api, "search=slack%20tide%20ii").await["rows"][0].clone();
    assert_eq!(
        (&row["took"], &row["outcome"]),
        (&json!(61.0), &json!("damaged"))
    );
    // Taken back, it never left.
    change(json!({ "sending": { "handed_over": null } })).await;
    assert_eq!(page(&api, "").await["total"], 12);
    let told = api.get("/api/v1/log/reckoning").await;
    assert_eq!(told["counted"], before["counted"]);
}

#[test_context(Demo)]
#[tokio::test]
async fn the_counts_are_taken_over_and_take_the_place_of_those_before(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let told = api.get("/api/v1/log/reckoning").await;
    let odds = async || {
        let rows = api.rows().await;
        let row = rows
            .as_array()
            .expect("rows")
            .iter()
            .find(|row| row["inputs"]["title"] == "Kelp Ladder")
            .expect("it is there")
            .clone();
        let shown = api
            .get(&format!("/api/v1/shipments/{}", text(&row["id"])))
            .await;
        shown["worked"]["plan"]["odds"]["k"]
            .as_f64()
            .expect("a number")
    };
    assert!((odds().await - 1.0).abs() < 1e-12);
    // One damaged of what was expected of twelve: k = 5/(4 + S).
    let expected = told["counted"]["expected"].as_f64().expect("a number");
    for _ in 0..2 {
        let mut rules = api.get("/api/v1/studio").await["rules"].clone();
        rules["odds"]["counted"] = told["counted"].clone();
        let (status, said) = api
            .put("/api/v1/studio/rules", json!({ "rules": rules }))
            .await;
        assert_eq!(status, StatusCode::OK, "{said}");
        let k = odds().await;
        assert!((k - 5.0 / (4.0 + expected)).abs() < 1e-9, "{k}");
    }
    let mut rules = api.get("/api/v1/studio").await["rules"].clone();
    rules["odds"]["counted"] = json!({ "parcels": 2, "expected": 0.1, "damaged": 3 });
    let (status, problem) = api
        .put("/api/v1/studio/rules", json!({ "rules": rules }))
        .await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["errors"][0]["field"], "odds.counted");
}

#[test_context(Demo)]
#[tokio::test]
async fn a_table_of_the_log_holds_no_formula_and_reads_back(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let inputs = json!({ "title": "=1+1", "piece": canvas(), "buyer": { "name": "-Oda, \"M\"", "country": "XS" },
        "sending": { "handed_over": "2027-03-03" } });
    let (status, made) = api
        .post("/api/v1/shipments", json!({ "inputs": inputs }))
        .await;
    assert_eq!(status, StatusCode::CREATED, "{made}");
    let response = api
        .client
        .get(format!("{}/api/v1/log.csv", api.base))
        .send()
        .await
        .expect("an answer");
    assert_eq!(response.status(), StatusCode::OK);
    let bytes = response.bytes().await.expect("a table");
    let mut reader = csv::Reader::from_reader(bytes.as_ref());
    let head = reader.headers().expect("a head").clone();
    let at = |name: &str| {
        head.iter()
            .position(|known| known == name)
            .expect("it is a column")
    };
    let rows: Vec<csv::StringRecord> = reader.records().map(|row| row.expect("a row")).collect();
    assert_eq!(rows.len(), 13);
    assert_eq!(
        (&rows[0][at("title")], &rows[0][at("buyer")]),
        ("'=1+1", "'-Oda, \"M\"")
    );
    let whole = api.get("/api/v1/log.json").await;
    let whole = whole.as_array().expect("a list");
    // Whatever stands in a row has its column.
    for field in whole
        .iter()
        .flat_map(|line| line.as_object().expect("a line").keys())
    {
        let columns = match field.as_str() {
            "id" => vec!["shipment".to_owned()],
            "planned_mm" | "measured_mm" => ["across", "up", "through"]
                .map(|side| field.replace("_mm", &format!("_{side}_mm")))
                .to_vec(),
            other => vec![other.to_owned()],
        };
        for column in columns {
            assert!(
                head.iter().any(|known| known == column),
                "{column} is no column"
            );
        }
    }
    // The same to every figure.
    for (row, line) in rows.iter().zip(whole) {
        let told: f64 = row[at("probability")].parse().expect("a number");
        assert_eq!(json!(told), line["probability"]);
        assert_eq!(&row[at("left_on")], text(&line["left_on"]));
    }
    let some = api
        .client
        .get(format!("{}/api/v1/log.csv?outcome=damaged", api.base))
        .send()
        .await
        .expect("an answer");
    assert_eq!(some.text().await.expect("text").lines().count(), 2);
}

/// The months before the demo studio's last ones are drawn with a seed: 68 parcels beside the twelve that every other test has. They stand
/// in the log, and nothing is counted by them before somebody takes them over: k is 1.
#[tokio::test]
async fn the_demo_studio_has_eighty_parcels_that_count_once_they_are_taken_over() {
    let database = crate::filled("whole", hummock_server::Fill::Everything).await;
    let api = Api::start(database.pool(), true).await;
    let all = page(&api, "most=200").await;
    assert_eq!(all["total"], 80);
    let days: Vec<String> = all["rows"]
        .as_array()
        .expect("rows")
        .iter()
        .map(|row| text(&row["left_on"]))
        .collect();
    // From December to February, fourteen months later.
    let (last, first) = (days.first().expect("a day"), days.last().expect("a day"));
    assert!(
        first.starts_with("2025-12") && last.starts_with("2027-02"),
        "{first} to {last}"
    );
    let reckoned = api.get("/api/v1/log/reckoning").await;
    let told = ["parcels", "damaged", "lost", "on_the_way"].map(|key| reckoned[key].clone());
    assert_eq!(told, [80, 1, 0, 0].map(|count| json!(count)));
    let studio = api.get("/api/v1/studio").await;
    assert!(
        studio["rules"]["odds"]["counted"].is_null()
            || studio["rules"]["odds"]["counted"]["parcels"] == 0,
        "{}",
        studio["rules"]["odds"]
    );
    // As somebody presses it.
    let mut rules = studio["rules"].clone();
    rules["odds"]["counted"] = reckoned["counted"].clone();
    let (status, kept) = api
        .put("/api/v1/studio/rules", json!({ "rules": rules }))
        .await;
    assert_eq!(status, StatusCode::OK, "{kept}");
    let studio = api.get("/api/v1/studio").await;
    assert_eq!(studio["rules"]["odds"]["counted"]["parcels"], 80);
    database.drop().await;
}

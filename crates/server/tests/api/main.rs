//! The API over real HTTP: a small server on a free port, a database of its own.

mod away;
mod backup;
mod bookings;
mod boxes;
mod carrier_service;
mod commands;
mod cutting;
mod desks;
mod doors;
mod house;
mod leaving;
mod left;
mod log;
mod network;
mod packing;
mod photographs;
mod printed;
mod races;
mod settings;
mod shelf;
mod starting;
mod stores;
mod tariffs;
mod ways;
mod weigh;

use std::{
    path::{Path, PathBuf},
    time::Duration,
};

use hummock_server::{Clock, Fill, PageFile, Running, STUDIO, ServeOptions, Waits, import, serve};
use hummock_store::Store;
use hummock_test_database::{Database, url_of};
use jiff::civil::date;
use reqwest::{Client, Response, StatusCode};
use serde_json::{Value, json};
use sqlx::PgPool;
use test_context::AsyncTestContext;
use test_context::test_context;

struct Api {
    base: String,
    client: Client,
    running: Option<Running>,
}

/// A busy machine is no fault of what is tested; what is about waiting sets its own.
const UNHURRIED: Waits = Waits {
    answer: Duration::from_secs(60),
    document: Duration::from_secs(59),
    database: Duration::from_secs(60),
    claim: Duration::from_secs(3),
    head: Duration::from_secs(3),
};

/// The day on which the demo studio's dates are as written.
const TODAY: Clock = Clock::standing_on(date(2027, 3, 4));

fn demo() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo")
}

const fn fill(with_shipments: bool) -> Fill {
    if with_shipments {
        Fill::WithoutLog
    } else {
        Fill::NoShipments
    }
}

async fn filled(template: &str, fill: Fill) -> Database {
    Database::like(template, async |url: String| {
        let store = Store::open(&url, UNHURRIED.database).await.expect("tables");
        let imported = import(&store, STUDIO, &demo(), fill, TODAY).await;
        assert!(imported.expect("the demo studio").created);
        store.close().await;
    })
    .await
}

/// A database with the demo studio.
struct Demo(Database);

impl AsyncTestContext for Demo {
    async fn setup() -> Self {
        Self(filled("demo", fill(true)).await)
    }

    async fn teardown(self) {
        self.0.drop().await;
    }
}

/// A database with the demo studio, before it had any shipment.
struct NoShipments(Database);

impl AsyncTestContext for NoShipments {
    async fn setup() -> Self {
        Self(filled("no_shipments", fill(false)).await)
    }

    async fn teardown(self) {
        self.0.drop().await;
    }
}

/// A web build of two files.
fn page(path: &str) -> Option<PageFile> {
    let (text, digit) = match path {
        "index.html" => ("<!doctype html><title>Hummock</title>".to_owned(), 1),
        "assets/app-1.js" => ("let peat = 'moss';\n".repeat(400), 2),
        _ => return None,
    };
    Some(PageFile {
        bytes: text.into_bytes().into(),
        digest: [digit; 32],
    })
}

impl Api {
    async fn start(pool: &PgPool, with_shipments: bool) -> Self {
        Self::start_with(pool, with_shipments, |_| ()).await
    }

    async fn start_with(
        pool: &PgPool,
        with_shipments: bool,
        change: impl FnOnce(&mut ServeOptions),
    ) -> Self {
        // What went wrong inside is printed with a test that fails.
        let _ = tracing_subscriber::fmt()
            .with_max_level(tracing::Level::WARN)
            .with_writer(std::io::stderr)
            .try_init();
        let mut options = ServeOptions {
            start_with: demo(),
            fill: fill(with_shipments),
            clock: TODAY,
            allow_hosts: vec!["studio.example".to_owned()],
            waits: UNHURRIED,
            origins: vec!["https://bench.example".to_owned()],
            ..ServeOptions::on_loopback(url_of(&pool.connect_options()), page)
        };
        change(&mut options);
        let running = serve(&options).await.expect("it serves");
        Self {
            base: format!("http://{}", running.address()),
            client: Client::new(),
            running: Some(running),
        }
    }

    async fn get(&self, path: &str) -> Value {
        let response = self
            .client
            .get(format!("{}{path}", self.base))
            .send()
            .await
            .expect("an answer");
        let status = response.status();
        let body: Value = response.json().await.expect("JSON");
        assert_eq!(status, StatusCode::OK, "{path}: {body}");
        body
    }

    /// The first page of the bench.
    async fn rows(&self) -> Value {
        self.get("/api/v1/shipments").await["rows"].take()
    }

    async fn send(&self, method: reqwest::Method, path: &str, body: &Value) -> (StatusCode, Value) {
        let request = self
            .client
            .request(method, format!("{}{path}", self.base))
            .json(body);
        answer(request.send().await.expect("an answer")).await
    }

    async fn post(&self, path: &str, body: Value) -> (StatusCode, Value) {
        self.send(reqwest::Method::POST, path, &body).await
    }

    async fn patch(&self, path: &str, body: Value) -> (StatusCode, Value) {
        self.send(reqwest::Method::PATCH, path, &body).await
    }

    async fn put(&self, path: &str, body: Value) -> (StatusCode, Value) {
        self.send(reqwest::Method::PUT, path, &body).await
    }

    async fn delete(&self, path: &str) -> StatusCode {
        let request = self.client.delete(format!("{}{path}", self.base));
        request.send().await.expect("an answer").status()
    }

    /// The fields and messages of a refused preview.
    async fn refusals(&self, inputs: Value) -> Vec<(String, String)> {
        let (status, problem) = self
            .post("/api/v1/plans/preview", json!({ "inputs": inputs }))
            .await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
        assert_eq!(problem["type"], "/problems/refused");
        let errors = problem["errors"].as_array().expect("errors").iter();
        errors
            .map(|error| (text(&error["field"]), text(&error["message"])))
            .collect()
    }
}

fn text(value: &Value) -> String {
    value.as_str().unwrap_or_default().to_owned()
}

async fn answer(response: Response) -> (StatusCode, Value) {
    let status = response.status();
    let kind = response
        .headers()
        .get("content-type")
        .map(|kind| kind.to_str().expect("ASCII").to_owned());
    if !status.is_success() {
        assert_eq!(
            kind.as_deref(),
            Some("application/problem+json"),
            "{status}"
        );
    }
    let body: Value = response.json().await.expect("JSON");
    assert!(!status.is_server_error(), "{status}: {body}");
    (status, body)
}

fn canvas() -> Value {
    json!({
        "construction": "stretched_canvas", "medium": "acrylic", "finished": "2027-01-10",
        "width": "900", "height": "1200", "depth": "38"
    })
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_preview_leaves_out_what_it_is_told_to_and_nothing_else(
    NoShipments(database): &NoShipments,
) {
    let api = Api::start(database.pool(), false).await;
    let path = "/api/v1/plans/preview";
    let body = json!({ "inputs": { "buyer": { "country": "XS" }, "piece": canvas() } });
    let (_, whole) = api.post(path, body.clone()).await;
    let mut folded = whole.clone();
    let plan = &mut folded["worked"]["plan"];
    assert!(!plan["slots"].as_array().expect("a list").is_empty());
    plan["slots"] = json!([]);
    let fragility = plan["survival"]["fragility"].clone();
    assert!(
        !plan["survival"]["falls"]
            .as_array()
            .expect("a list")
            .is_empty()
    );
    plan["survival"] = json!({
        "fragility": fragility, "boundary": null, "cushioned_g": 0.0, "falls": [], "face": [], "press": null, "stack": null
    });
    for quote in folded["worked"]["quotes"].as_array_mut().expect("quotes") {
        if quote["offer"]["kind"] == "priced" {
            quote["offer"]["lines"] = json!([]);
            quote["cost"] = json!(null);
        }
    }
    let parts = format!("{path}?without=survival,lines,slots");
    assert_eq!(api.post(&parts, body.clone()).await.1, folded);
    let none = format!("{path}?without=");
    assert_eq!(api.post(&none, body.clone()).await.1, whole);
    let unknown = format!("{path}?without=lines,sums");
    let (status, problem) = api.post(&unknown, body).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["errors"][0]["field"], "without");
}

#[test_context(Demo)]
#[tokio::test]
async fn the_bench_of_the_demo_studio_has_its_figures(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let rows = api.rows().await;
    let rows = rows.as_array().expect("a list");
    assert!(rows.len() >= 4);
    for row in rows {
        assert!(
            row["summary"]["outside"]["across_mm"]
                .as_f64()
                .is_some_and(|side| side > 0.0),
            "{row}"
        );
        assert!(
            row["summary"]["best"]["total"]["amount"].is_string(),
            "{row}"
        );
        assert!(row["inputs"]["promised"].is_string(), "{row}");
    }
    let ropewalk = rows
        .iter()
        .find(|row| row["inputs"]["title"] == "The Ropewalk")
        .expect("it is there");
    // Oil, thin, finished 2026-12-02: six months
    assert_eq!(ropewalk["line"]["next"]["cured_on"], "2027-06-02");
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_preview_stores_nothing_and_repeats_itself(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    let inputs = json!({ "piece": canvas(), "buyer": { "country": "XS" } });
    let (status, first) = api
        .post("/api/v1/plans/preview", json!({ "inputs": inputs }))
        .await;
    assert_eq!(status, StatusCode::OK);
    assert_eq!(first["inputs"]["piece"]["width"], "900 mm");
    assert_eq!(
        first["worked"]["plan"]["layers"].as_array().map(Vec::len),
        Some(9)
    );
    assert_eq!(first["worked"]["quotes"].as_array().map(Vec::len), Some(8));
    let (_, second) = api
        .post("/api/v1/plans/preview", json!({ "inputs": inputs }))
        .await;
    assert_eq!(first, second);
    assert_eq!(api.rows().await, json!([]));
}

#[test_context(NoShipments)]
#[tokio::test]
async fn bad_values_are_refused_at_their_field(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    let with = |field: &str, value: Value| {
        let mut piece = canvas();
        piece[field] = value;
        json!({ "piece": piece })
    };
    for (inputs, field, says) in [
        (
            with("width", json!("40 m")),
            "piece.width",
            "crating service",
        ),
        (
            with("width", json!("-900")),
            "piece.width",
            "can't be negative",
        ),
        (with("width", json!("0")), "piece.width", "from 20"),
        (
            with("width", json!("nine")),
            "piece.width",
            "not understood",
        ),
        (
            with("width", json!("9 ells")),
            "piece.width",
            "not a known unit",
        ),
        (with("depth", json!("1000")), "piece.depth", "from 1"),
        (
            with("finished", json!("2027-03-05")),
            "piece.finished",
            "in the future",
        ),
        (
            with("medium", json!("jam")),
            "piece.medium",
            "unknown variant",
        ),
        (
            with("width", json!(900)),
            "piece.width",
            "expected a string",
        ),
        (
            json!({ "piece": canvas(), "choices": { "first_turns": 9 } }),
            "choices.first_turns",
            "from 1 to 6",
        ),
        (
            json!({ "piece": canvas(), "choices": { "first_turns": -1 } }),
            "choices.first_turns",
            "not understood",
        ),
        (
            json!({ "piece": canvas(), "choices": { "box_board": "gold" } }),
            "choices.box_board",
            "choose another",
        ),
        (json!({ "value": "2e9" }), "value", "an amount"),
    ] {
        let refusals = api.refusals(inputs).await;
        assert_eq!(refusals.len(), 1, "{refusals:?}");
        assert_eq!(refusals[0].0, field);
        assert!(refusals[0].1.contains(says), "{refusals:?}");
    }
}

#[test_context(NoShipments)]
#[tokio::test]
async fn several_bad_values_are_named_together(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    let refusals = api
        .refusals(json!({ "promised": "soon", "piece": { "width": "wide", "height": "high" } }))
        .await;
    let fields: Vec<&str> = refusals.iter().map(|(field, _)| field.as_str()).collect();
    assert_eq!(fields, ["piece.width", "piece.height", "promised"]);
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_shipment_is_made_edited_undone_and_redone(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    let (status, made) = api
        .post(
            "/api/v1/shipments",
            json!({ "inputs": { "title": "Slack Tide", "piece": canvas() } }),
        )
        .await;
    assert_eq!((status, &made["version"]), (StatusCode::CREATED, &json!(1)));
    let path = format!("/api/v1/shipments/{}", text(&made["id"]));
    let across = |shipment: &Value| {
        shipment["summary"]["outside"]["across_mm"]
            .as_f64()
            .expect("a plan")
    };

    let change =
        json!({ "version": 1, "unit": "in", "change": { "choices": { "clearance": "1" } } });
    let (status, edited) = api.patch(&path, change).await;
    assert_eq!((status, &edited["version"]), (StatusCode::OK, &json!(2)));
    assert_eq!(edited["inputs"]["choices"]["clearance"], "1 in");
    // 25.4 in place of 15 at both edges
    assert!((across(&edited) - across(&made) - 20.8).abs() < 1e-6);

    let (_, undone) = api
        .post(&format!("{path}/undo"), json!({ "version": 2 }))
        .await;
    assert_eq!(undone["inputs"], made["inputs"]);
    assert_eq!(undone["worked"], made["worked"]);
    assert_eq!(
        (&undone["can_undo"], &undone["can_redo"]),
        (&json!(false), &json!(true))
    );
    let (_, redone) = api
        .post(&format!("{path}/redo"), json!({ "version": 3 }))
        .await;
    assert_eq!(redone["inputs"], edited["inputs"]);
    assert_eq!(api.get(&path).await["version"], 4);

    let (status, problem) = api
        .post(&format!("{path}/redo"), json!({ "version": 4 }))
        .await;
    assert_eq!(
        (status, text(&problem["type"])),
        (StatusCode::CONFLICT, "/problems/no-state".to_owned())
    );
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_choice_that_no_hand_can_pack_is_refused_at_its_field(
    NoShipments(database): &NoShipments,
) {
    let api = Api::start(database.pool(), false).await;
    let (_, made) = api
        .post(
            "/api/v1/shipments",
            json!({ "inputs": { "title": "Slack Tide", "piece": canvas() } }),
        )
        .await;
    let path = format!("/api/v1/shipments/{}", text(&made["id"]));
    let clearance =
        |gap: &str| json!({ "version": 1, "change": { "choices": { "clearance": gap } } });

    let (status, problem) = api.patch(&path, clearance("6 mm")).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["errors"][0]["field"], "choices.clearance");
    let says = text(&problem["errors"][0]["message"]);
    assert!(says.contains("The nearest that can be packed is"), "{says}");
    assert_eq!(api.get(&path).await["version"], 1);

    let (status, edited) = api.patch(&path, clearance("20 mm")).await;
    assert_eq!((status, &edited["version"]), (StatusCode::OK, &json!(2)));
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_stale_edit_is_answered_with_the_newer_state(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    let (_, made) = api
        .post("/api/v1/shipments", json!({ "inputs": { "title": "One" } }))
        .await;
    let path = format!("/api/v1/shipments/{}", text(&made["id"]));
    let retitle = |title: &str| json!({ "version": 1, "change": { "title": title } });
    let (status, problem) = api
        .patch(&path, json!({ "version": 1, "change": null }))
        .await;
    assert_eq!(
        (status.as_u16(), text(&problem["errors"][0]["field"])),
        (422, "change".to_owned())
    );
    api.patch(&path, retitle("Theirs")).await;
    let (status, problem) = api.patch(&path, retitle("Mine")).await;
    assert_eq!(
        (status, text(&problem["type"])),
        (StatusCode::CONFLICT, "/problems/stale".to_owned())
    );
    assert_eq!(problem["current"]["inputs"]["title"], "Theirs");
    assert_eq!(api.get(&path).await["inputs"]["title"], "Theirs");
}

/// A tablet ticks while a desk types: neither has seen what the other did, and both stand.
#[test_context(NoShipments)]
#[tokio::test]
async fn edits_of_different_fields_and_different_ticks_both_stand(
    NoShipments(database): &NoShipments,
) {
    let api = Api::start(database.pool(), false).await;
    let inputs = json!({ "title": "One", "value": "12", "piece": canvas() });
    let (_, made) = api
        .post("/api/v1/shipments", json!({ "inputs": inputs }))
        .await;
    let path = format!("/api/v1/shipments/{}", text(&made["id"]));
    let edit = |change: Value| {
        let body = json!({ "version": 1, "change": change });
        let (api, path) = (&api, &path);
        async move { api.patch(path, body).await }
    };
    let tick = |at: &str| json!({ "at": at, "print": "00112233" });
    let (noon, later) = ("2027-03-04T12:00:00Z", "2027-03-04T12:00:09Z");
    for change in [
        json!({ "value": "640" }),
        json!({ "packed": { "set_up/bench": tick(noon) } }),
        json!({ "packed": { "look/piece": tick(noon) } }),
        json!({ "buyer": { "name": "Oda Marsh" } }),
        // The same step, ticked on a second tablet: it is done, and was done first at noon.
        json!({ "packed": { "look/piece": tick(later) } }),
        // What stands there already is no second value.
        json!({ "value": "640", "buyer": { "town": "Tern Bight" } }),
    ] {
        let (status, view) = edit(change).await;
        assert_eq!(status, StatusCode::OK, "{view}");
    }
    let now = api.get(&path).await;
    assert_eq!(now["version"], 6, "one for each that changed something");
    let inputs = &now["inputs"];
    assert_eq!(inputs["value"], "640");
    assert_eq!(
        (&inputs["buyer"]["name"], &inputs["buyer"]["town"]),
        (&json!("Oda Marsh"), &json!("Tern Bight"))
    );
    assert_eq!(inputs["packed"]["look/piece"]["at"], noon);
    assert_eq!(
        inputs["packed"].as_object().map(serde_json::Map::len),
        Some(2)
    );
    // One field, two values; and an undo is of what its own window saw.
    for change in [
        json!({ "value": "700", "title": "Two" }),
        json!({ "packed": { "look/piece": null } }),
        json!({ "buyer": null }),
    ] {
        let (status, problem) = edit(change).await;
        assert_eq!(
            (status, text(&problem["type"])),
            (StatusCode::CONFLICT, "/problems/stale".to_owned()),
            "{problem}"
        );
    }
    let (status, _) = api
        .post(&format!("{path}/undo"), json!({ "version": 1 }))
        .await;
    assert_eq!(status, StatusCode::CONFLICT);
    // A version that there never was.
    let (status, _) = api
        .patch(&path, json!({ "version": 99, "change": { "gift": true } }))
        .await;
    assert_eq!(status, StatusCode::CONFLICT);
    assert_eq!(api.get(&path).await["inputs"], *inputs);
}

#[test_context(NoShipments)]
#[tokio::test]
async fn the_number_of_an_order_is_one_in_both_of_its_places(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    let order = json!({ "order_number": "1042", "order": { "paid": "12,50", "sku": "WR-A3" } });
    let (status, made) = api
        .post("/api/v1/shipments", json!({ "inputs": order }))
        .await;
    assert_eq!(status, StatusCode::CREATED, "{made}");
    let path = format!("/api/v1/shipments/{}", text(&made["id"]));
    let numbers = |view: &Value| {
        let inputs = &view["inputs"];
        (
            text(&inputs["order"]["number"]),
            text(&inputs["order_number"]),
        )
    };
    assert_eq!(numbers(&made), ("1042".into(), "1042".into()));
    let rows = api.rows().await;
    assert_eq!(rows[0]["order_number"], "1042");
    let found = api.get("/api/v1/shipments?search=1042%20wr-a3").await;
    assert_eq!(found["total"], 1);
    for change in [
        json!({ "order": { "number": "1043" } }),
        json!({ "order_number": "1043" }),
    ] {
        let version = api.get(&path).await["version"].clone();
        let (_, view) = api
            .patch(&path, json!({ "version": version, "change": change }))
            .await;
        assert_eq!(numbers(&view), ("1043".into(), "1043".into()), "{change}");
    }
    let (_, view) = api
        .patch(&path, json!({ "version": 2, "change": { "order": null } }))
        .await;
    assert!(view["inputs"]["order_number"].is_null() && view["inputs"]["order"].is_null());
    let (status, problem) = api
        .patch(
            &path,
            json!({ "version": 3, "change": { "order": { "paid": "a lot", "shop": "x".repeat(81) } } }),
        )
        .await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    let fields: Vec<String> = problem["errors"]
        .as_array()
        .expect("errors")
        .iter()
        .map(|error| text(&error["field"]))
        .collect();
    assert_eq!(fields, ["order.shop", "order.paid"]);
}

#[test_context(NoShipments)]
#[tokio::test]
async fn an_edit_that_changes_nothing_adds_no_history(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    let (_, made) = api
        .post(
            "/api/v1/shipments",
            json!({ "inputs": { "piece": canvas() } }),
        )
        .await;
    let path = format!("/api/v1/shipments/{}", text(&made["id"]));
    // The same width, its unit not written.
    let (_, same) = api
        .patch(
            &path,
            json!({ "version": 1, "change": { "piece": { "width": "900" } } }),
        )
        .await;
    assert_eq!(
        (&same["version"], &same["can_undo"]),
        (&json!(1), &json!(false))
    );
}

#[test_context(NoShipments)]
#[tokio::test]
async fn markup_is_kept_as_text_and_the_pages_run_only_their_own_scripts(
    NoShipments(database): &NoShipments,
) {
    let api = Api::start(database.pool(), false).await;
    let name = "<script>alert(1)</script>";
    let (_, made) = api
        .post(
            "/api/v1/shipments",
            json!({ "inputs": { "buyer": { "name": name } } }),
        )
        .await;
    assert_eq!(made["inputs"]["buyer"]["name"], name);
    let page = api
        .client
        .get(format!("{}/shipments/x/measure", api.base))
        .send()
        .await
        .expect("a page");
    let policy = page
        .headers()
        .get("content-security-policy")
        .expect("a policy")
        .to_str()
        .expect("ASCII");
    assert!(policy.contains("default-src 'self'"), "{policy}");
}

#[test_context(NoShipments)]
#[tokio::test]
async fn what_can_not_be_read_is_a_problem_too(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    let url = format!("{}/api/v1/plans/preview", api.base);
    let json = "application/json";
    for (kind, body, status) in [
        (json, "{\"inputs\":".to_owned(), 400),
        ("text/plain", "{}".to_owned(), 415),
        (json, " ".repeat(300_000), 413),
        (
            json,
            format!("{}{}", "[".repeat(5000), "]".repeat(5000)),
            400,
        ),
    ] {
        let request = api
            .client
            .post(&url)
            .header("content-type", kind)
            .body(body);
        let (found, problem) = answer(request.send().await.expect("an answer")).await;
        assert_eq!(found.as_u16(), status, "{problem}");
    }
    for path in ["/api/v1/nothing", "/api/v1/shipments/nonsense"] {
        let found = api
            .client
            .get(format!("{}{path}", api.base))
            .send()
            .await
            .expect("an answer");
        assert_eq!(answer(found).await.0, StatusCode::NOT_FOUND, "{path}");
    }
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_size_in_one_field_is_read_side_by_side(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    let read = |text: &str| {
        api.post(
            "/api/v1/measures/read",
            json!({ "text": text, "unit": "mm" }),
        )
    };
    let (_, size) = read("35 1/2 x 47 1/4 x 1 1/2 in").await;
    // 35.5, 47.25 and 1.5 inches, kept to 0.01 mm
    let sides = ["width", "height", "depth"].map(|side| size[side]["length_mm"].as_f64());
    assert_eq!(sides, [Some(901.7), Some(1200.15), Some(38.1)]);
    // Two of three are taken, and the third is still to be asked.
    let (status, size) = read("40x50 cm").await;
    assert_eq!((status.as_u16(), &size["depth"]), (200, &Value::Null));
    assert_eq!(size["height"]["length_mm"], 500.0);
    let (status, problem) = read("35").await;
    assert_eq!(
        (status.as_u16(), text(&problem["errors"][0]["field"])),
        (422, "text".to_owned())
    );
}

#[test]
fn the_description_that_is_kept_is_up_to_date() {
    let kept: Value = serde_json::from_str(include_str!("../../../../docs/openapi.json"))
        .expect("docs/openapi.json");
    let fresh = hummock_server::description();
    assert_eq!(
        kept, fresh,
        "docs/openapi.json is behind: run bin/describe-api"
    );
}

#[test_context(NoShipments)]
#[tokio::test]
async fn the_api_describes_itself(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    let description = api.get("/api/openapi.json").await;
    assert!(description["paths"]["/api/v1/plans/preview"]["post"].is_object());
    let page = api
        .client
        .get(format!("{}/api/docs/", api.base))
        .send()
        .await
        .expect("a page");
    assert_eq!(page.status(), StatusCode::OK);
}

#[test_context(NoShipments)]
#[tokio::test]
async fn scripts_can_ask_for_a_sum(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    // 65 mm legs on a 520 mm side; a wall of 24 + 4 + 1 under one flap and a board more under the other.
    let (status, pocket) = api
        .post(
            "/api/v1/sums/corner-pocket",
            json!({ "short_side_mm": 520, "depth_mm": 24, "board_mm": 4 }),
        )
        .await;
    assert_eq!(status, StatusCode::OK, "{pocket}");
    assert_eq!(
        (&pocket["leg_mm"], &pocket["blank_b_mm"]),
        (&json!(65.0), &json!(163.0))
    );

    for (path, body, field) in [
        (
            "corner-pocket",
            json!({ "short_side_mm": 520, "depth_mm": 24 }),
            "board_mm",
        ),
        (
            "roll",
            json!({ "inner_mm": 0, "length_mm": 1000, "thickness_mm": 0.9 }),
            "inner_mm",
        ),
        (
            "roll",
            json!({ "inner_mm": "wide", "length_mm": 1000, "thickness_mm": 0.9 }),
            "inner_mm",
        ),
        (
            "series",
            json!({ "mass_kg": 3, "drop_mm": 760, "layers": [{ "a_kpa": 25 }] }),
            "layers[0].b_m3_per_kj",
        ),
        (
            "box",
            json!({ "style": "round", "length_mm": 9, "width_mm": 9, "height_mm": 9, "caliper_mm": 4 }),
            "style",
        ),
        (
            "stack",
            json!({ "edge_crush_kn_m": 5, "caliper_mm": 4, "perimeter_mm": 1700, "margin": 2 }),
            "margin",
        ),
    ] {
        let (status, problem) = api.post(&format!("/api/v1/sums/{path}"), body).await;
        assert_eq!(
            status,
            StatusCode::UNPROCESSABLE_ENTITY,
            "{path}: {problem}"
        );
        assert_eq!(problem["errors"][0]["field"], field, "{problem}");
    }
}

//! The scale, the carriers' own services, and what the readings say about the stores.

use std::time::Duration;

use hummock_server::{Outside, Patience};
use hummock_standins::{FaultKind, OnIt, Running, read_tariffs};
use test_context::test_context;

use super::*;

async fn standins() -> Running {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo/tariffs");
    let tariffs = read_tariffs(&folder).expect("the demo's tariffs");
    let address = ([127, 0, 0, 1], 0).into();
    hummock_standins::serve(address, tariffs)
        .await
        .expect("a free port")
}

async fn beside(pool: &PgPool, standins: &Running) -> Api {
    let outside = Outside {
        scale: Some(standins.scale_url()),
        carriers: Some(standins.carrier_url()),
        stand_in: true,
        patience: Patience {
            answer: Duration::from_secs(2),
            pause: Duration::from_millis(1),
            ..Patience::default()
        },
        ..Outside::default()
    };
    Api::start_with(pool, true, |options| options.outside = outside).await
}

/// Reads what the scale says until one reading is as wanted.
async fn until(api: &Api, path: &str, wanted: impl Fn(&Value) -> bool) -> Value {
    let response = api.client.get(format!("{}{path}", api.base)).send().await;
    let response = response.expect("an answer");
    assert_eq!(response.status(), StatusCode::OK);
    let mut text = String::new();
    let mut response = response;
    while let Some(part) = response.chunk().await.expect("a part") {
        text += std::str::from_utf8(&part).expect("text");
        while let Some((line, rest)) = text.split_once('\n') {
            if let Some(data) = line.strip_prefix("data:") {
                let reading: Value = serde_json::from_str(data.trim()).expect("JSON");
                if wanted(&reading) {
                    return reading;
                }
            }
            text = rest.to_owned();
        }
    }
    panic!("the readings ended");
}

fn on_it(mass_g: f64) -> OnIt {
    OnIt {
        mass_g,
        ..OnIt::default()
    }
}

async fn shipment(api: &Api, title: &str) -> Value {
    let rows = api.rows().await;
    let rows = rows.as_array().expect("rows");
    let row = rows.iter().find(|row| row["inputs"]["title"] == title);
    let id = row.expect("it is in the demo")["id"].clone();
    let path = format!("/api/v1/shipments/{}", id.as_str().expect("an id"));
    api.get(&path).await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_reading_rests_less_its_tare_and_is_held_against_the_plan(Demo(database): &Demo) {
    let standins = standins().await;
    let api = beside(database.pool(), &standins).await;
    let kelp = shipment(&api, "Kelp Ladder").await;
    let planned = kelp["summary"]["weight"]["mass_g"].as_f64().expect("grams");
    standins.scale.lay(on_it((planned + 500.0).round()));
    let path = format!(
        "/api/v1/scale/readings?tare_g=400&shipment={}",
        kelp["id"].as_str().expect("an id")
    );
    let reading = until(&api, &path, |reading| reading["state"] == "stable").await;
    let net = reading["net_g"].as_f64().expect("grams");
    assert!((net - planned - 100.0).abs() < 6.0, "{reading}");
    assert!(
        (reading["off_g"].as_f64().expect("grams") - 100.0).abs() < 6.0,
        "{reading}"
    );
    assert_eq!(reading["planned"]["mass_g"], planned);
    // What is not at rest, or too heavy, is no weight.
    standins.scale.lay(OnIt {
        noise_g: 60.0,
        ..on_it(3000.0)
    });
    let reading = until(&api, &path, |reading| reading["state"] == "unstable").await;
    assert_eq!(reading["off_g"], Value::Null);
    standins.scale.lay(on_it(90_000.0));
    let reading = until(&api, &path, |reading| reading["state"] == "overload").await;
    assert_eq!(reading["net_g"], Value::Null);
}

#[test_context(Demo)]
#[tokio::test]
async fn a_scale_whose_cable_is_pulled_is_away_and_comes_back(Demo(database): &Demo) {
    let standins = standins().await;
    let api = beside(database.pool(), &standins).await;
    assert_eq!(api.get("/api/v1/scale").await["connected"], true);
    standins.scale.lay(on_it(1200.0));
    let path = "/api/v1/scale/readings";
    let scale = std::sync::Arc::clone(&standins.scale);
    let pulled = std::sync::atomic::AtomicBool::new(false);
    // One and the same listener sees it rest, go away, and rest again.
    let away = std::sync::atomic::AtomicBool::new(false);
    let last = until(&api, path, |reading| {
        use std::sync::atomic::Ordering::SeqCst;
        match reading["state"].as_str() {
            Some("stable") if !pulled.load(SeqCst) => {
                scale.lay(OnIt {
                    unplugged: true,
                    ..on_it(1200.0)
                });
                pulled.store(true, SeqCst);
                false
            }
            Some("away") if pulled.load(SeqCst) => {
                scale.lay(on_it(1300.0));
                away.store(true, SeqCst);
                false
            }
            Some("stable") => away.load(SeqCst),
            _ => false,
        }
    })
    .await;
    let gross = last["gross_g"].as_f64().expect("grams");
    assert!((gross - 1300.0).abs() < 6.0, "{last}");
    let (status, problem) = answer(
        api.client
            .get(format!("{}{path}?tare_g=-1", api.base))
            .send()
            .await
            .expect("an answer"),
    )
    .await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["errors"][0]["field"], "tare_g");
}

#[test_context(Demo)]
#[tokio::test]
async fn without_a_scale_it_is_away_and_without_carriers_none_is_asked(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    assert_eq!(
        api.get("/api/v1/scale").await,
        json!({ "connected": false, "stand_in": null })
    );
    let reading = until(&api, "/api/v1/scale/readings", |_| true).await;
    assert_eq!(reading["state"], "away");
    let kelp = shipment(&api, "Kelp Ladder").await;
    let (status, said) = api
        .post(
            "/api/v1/plans/carriers",
            json!({ "inputs": kelp["inputs"] }),
        )
        .await;
    assert_eq!((status, &said["asked"]), (StatusCode::OK, &json!(false)));
}

#[test_context(Demo)]
#[tokio::test]
async fn a_weight_that_was_read_is_priced_until_the_plan_is_another(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let kelp = shipment(&api, "Kelp Ladder").await;
    let path = format!("/api/v1/shipments/{}", kelp["id"].as_str().expect("an id"));
    let edit = |version: &Value, change: Value| json!({ "version": version, "change": change });
    let (status, weighed) = api
        .patch(
            &path,
            edit(&kelp["version"], json!({ "parcel": { "weight": "31.2" } })),
        )
        .await;
    assert_eq!(status, StatusCode::OK, "{weighed}");
    assert_eq!(weighed["inputs"]["parcel"]["weight"], "31.2 kg");
    let noted = text(&weighed["inputs"]["parcel"]["as_packed"]);
    assert!(noted.starts_with("box-"), "{noted}");
    assert_eq!(
        weighed["worked"]["rests_on"],
        json!({ "mass": "measured", "size": "planned" })
    );
    let actual = |view: &Value| view["worked"]["quotes"][0]["billable"]["actual_g"].clone();
    assert_eq!(actual(&weighed), json!(31200.0));
    // Another plan was never weighed so; taken back, it was.
    let (_, turned) = api
        .patch(
            &path,
            edit(
                &weighed["version"],
                json!({ "choices": { "first_turns": 4 } }),
            ),
        )
        .await;
    assert_eq!(turned["worked"]["found"]["stands"], false);
    assert_eq!(turned["worked"]["rests_on"]["mass"], "planned");
    let (_, back) = api
        .post(
            &format!("{path}/undo"),
            json!({ "version": turned["version"] }),
        )
        .await;
    assert_eq!(back["worked"]["rests_on"]["mass"], "measured");
    let (status, problem) = api
        .patch(
            &path,
            edit(
                &back["version"],
                json!({ "parcel": { "weight": "heavy", "up": "1 mm" } }),
            ),
        )
        .await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    let mut fields: Vec<&str> = problem["errors"]
        .as_array()
        .expect("errors")
        .iter()
        .filter_map(|error| error["field"].as_str())
        .collect();
    fields.sort_unstable();
    assert_eq!(fields, ["parcel.up", "parcel.weight"]);
}

#[test_context(Demo)]
#[tokio::test]
async fn a_carrier_that_agrees_differs_or_is_away_is_told_beside_its_tariff(Demo(database): &Demo) {
    let standins = standins().await;
    let api = beside(database.pool(), &standins).await;
    let kelp = shipment(&api, "Kelp Ladder").await;
    let ask = async || {
        let body = json!({ "inputs": kelp["inputs"] });
        let (status, said) = api.post("/api/v1/plans/carriers", body).await;
        assert_eq!(status, StatusCode::OK, "{said}");
        assert_eq!(said["asked"], true);
        said["services"].as_array().expect("services").clone()
    };
    let says = |services: &[Value], carrier: &str| -> Vec<String> {
        let of = services
            .iter()
            .filter(|one| one["id"].as_str().is_some_and(|id| id.starts_with(carrier)));
        of.map(|one| one["says"].as_str().expect("a word").to_owned())
            .collect()
    };
    let services = ask().await;
    assert!(services.len() >= 8, "{services:?}");
    assert!(
        services.iter().all(|one| one["says"] == "agrees"),
        "{services:?}"
    );
    // The first carrier is asked first: its total is a tenth too high, where it takes the parcel at all.
    standins.carrier.fails(FaultKind::WrongTotal, 1);
    let services = ask().await;
    let first = services[0]["id"]
        .as_str()
        .and_then(|id| id.split_once('/'))
        .expect("an id")
        .0
        .to_owned();
    for one in &services {
        let differs = one["id"].as_str().is_some_and(|id| id.starts_with(&first))
            && one["by_tariff"] != Value::Null;
        assert_eq!(one["says"] == "differs", differs, "{one}");
    }
    // Twice no answer is one too few to give up.
    standins.carrier.fails(FaultKind::Unavailable, 2);
    assert!(ask().await.iter().all(|one| one["says"] == "agrees"));
    standins.carrier.fails(FaultKind::Unavailable, 1000);
    let services = ask().await;
    assert!(
        services.iter().all(|one| one["says"] == "nothing"),
        "{services:?}"
    );
    assert!(says(&services, &first).iter().all(|says| says == "nothing"));
    assert!(standins.carrier.booked().is_empty());
}

#[test_context(NoShipments)]
#[tokio::test]
async fn readings_that_agree_are_proposed_as_a_density_and_taken_once(
    NoShipments(database): &NoShipments,
) {
    let api = Api::start(database.pool(), false).await;
    let version = |view: &Value| view["version"].clone();
    // Twelve canvases of twelve sizes, each weighed on its own; the boxes' board is 12 % heavier than the stores say.
    for at in 0..12 {
        let inputs = json!({
            "title": format!("Slack Tide {at}"),
            "piece": {
                "construction": "stretched_canvas", "medium": "acrylic", "finished": "2026-10-01",
                "width": format!("{} mm", 400 + 40 * at), "height": format!("{} mm", 900 - 25 * at),
                "depth": "20 mm", "weight": "2.4 kg"
            }
        });
        let (status, made) = api
            .post("/api/v1/shipments", json!({ "inputs": inputs }))
            .await;
        assert_eq!(status, StatusCode::CREATED, "{made}");
        let layers = made["worked"]["plan"]["layers"].as_array().expect("layers");
        let parts = layers
            .iter()
            .flat_map(|layer| layer["parts"].as_array().expect("parts"));
        let board: f64 = parts
            .filter(|part| part["material"] == "corrugated-c")
            .filter_map(|part| part["mass_g"].as_f64())
            .sum();
        let planned = made["summary"]["weight"]["mass_g"].as_f64().expect("grams");
        let reads = format!("{:.3} kg", (planned + board * 0.12) / 1000.0);
        let path = format!("/api/v1/shipments/{}", made["id"].as_str().expect("an id"));
        let body =
            json!({ "version": version(&made), "change": { "parcel": { "weight": reads } } });
        let (status, weighed) = api.patch(&path, body).await;
        assert_eq!(status, StatusCode::OK, "{weighed}");
    }
    let said = api.get("/api/v1/weighings").await;
    assert_eq!(said["weighings"].as_array().map(Vec::len), Some(12));
    let row = said["materials"]
        .as_array()
        .expect("materials")
        .iter()
        .find(|row| row["material"] == "corrugated-c");
    let row = row.expect("it is in every box").clone();
    assert_eq!(row["proposed"], true, "{said}");
    let (now, then) = (
        row["now"].as_f64().expect("a density"),
        row["then"].as_f64().expect("a density"),
    );
    assert!((then / now - 1.12).abs() < 0.03, "{row}");
    assert!(
        said["off_then_g"].as_f64() < said["off_now_g"].as_f64(),
        "{said}"
    );
    let body = json!({ "version": said["version"], "materials": ["corrugated-c", "bubble-large"] });
    let (status, stores) = api.post("/api/v1/weighings/densities", body.clone()).await;
    assert_eq!(status, StatusCode::OK, "{stores}");
    let boards = stores["catalogue"]["boards"].as_array().expect("boards");
    let board = boards
        .iter()
        .find(|board| board["id"] == "corrugated-c")
        .expect("it is there");
    assert_eq!(board["areal_density_g_m2"].as_f64(), Some(then));
    let (status, _) = api.post("/api/v1/weighings/densities", body).await;
    assert_eq!(
        status,
        StatusCode::CONFLICT,
        "it was proposed for other stores"
    );
    let again = api.get("/api/v1/weighings").await;
    assert!(
        again["off_now_g"].as_f64() < said["off_now_g"].as_f64(),
        "{again}"
    );
}

/// However many read the scale, it is called once; and once more when somebody comes back after all have left.
#[test_context(Demo)]
#[tokio::test]
async fn all_who_read_the_scale_share_one_line(Demo(database): &Demo) {
    use std::sync::{
        Arc,
        atomic::{AtomicUsize, Ordering},
    };

    use axum::{Router, body::Body, routing::get};
    use futures_util::stream;

    let lines = Arc::new(AtomicUsize::new(0));
    let open = Arc::new(AtomicUsize::new(0));
    struct Open(Arc<AtomicUsize>);
    impl Drop for Open {
        fn drop(&mut self) {
            self.0.fetch_sub(1, Ordering::SeqCst);
        }
    }
    let (called, standing) = (Arc::clone(&lines), Arc::clone(&open));
    let readings = move || {
        called.fetch_add(1, Ordering::SeqCst);
        standing.fetch_add(1, Ordering::SeqCst);
        let line = Open(Arc::clone(&standing));
        async move {
            let samples = stream::unfold(line, |line| async {
                tokio::time::sleep(Duration::from_millis(5)).await;
                Some((
                    Ok::<_, std::io::Error>("data:{\"kind\":\"reads\",\"mass_g\":1200.0}\n"),
                    line,
                ))
            });
            Body::from_stream(samples)
        }
    };
    let scale = Router::new().route("/readings", get(readings));
    let listener = tokio::net::TcpListener::bind("127.0.0.1:0")
        .await
        .expect("a free port");
    let url = format!("http://{}", listener.local_addr().expect("an address"));
    let served = tokio::spawn(async move { axum::serve(listener, scale).await });
    let api = Api::start_with(database.pool(), true, |options| {
        options.outside.scale = Some(url);
    })
    .await;
    let path = "/api/v1/scale/readings?tare_g=0";
    let follow = async || {
        let response = api.client.get(format!("{}{path}", api.base)).send().await;
        let mut response = response.expect("an answer");
        response
            .chunk()
            .await
            .expect("a reading")
            .expect("it goes on");
        response
    };
    let mut readers = Vec::new();
    for _ in 0..8 {
        readers.push(follow().await);
    }
    assert_eq!(lines.load(Ordering::SeqCst), 1);
    drop(readers);
    while open.load(Ordering::SeqCst) > 0 {
        tokio::task::yield_now().await;
    }
    drop(follow().await);
    assert_eq!(lines.load(Ordering::SeqCst), 2);
    served.abort();
}

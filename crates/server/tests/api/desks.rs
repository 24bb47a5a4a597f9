//! Two studios in one process, at the same version of their houses and with the same ids: each has its own.

use std::time::Duration;

use hummock_server::{Outside, Patience};
use reqwest::{
    Client, StatusCode,
    header::{COOKIE, HeaderMap, HeaderValue},
};
use serde_json::{Value, json};
use test_context::test_context;
use uuid::Uuid;

use super::*;
use crate::photographs::{jpeg, send_to};

const STUDIO: &str = "x-hummock-studio";
const SHIPMENT: Uuid = Uuid::from_u128(7);
const PICTURE: Uuid = Uuid::from_u128(8);
const ITEM: Uuid = Uuid::from_u128(9);
const LAYOUT: Uuid = Uuid::from_u128(10);
const BOOKING: Uuid = Uuid::from_u128(11);

/// The same server, as a browser asks it that shows another studio.
fn showing(api: &Api, studio: &str) -> Api {
    let cookie = HeaderValue::try_from(format!("theme=peat; hummock-studio={studio}"));
    let headers = HeaderMap::from_iter([(COOKIE, cookie.expect("ASCII"))]);
    let client = Client::builder().default_headers(headers).build();
    Api {
        base: api.base.clone(),
        client: client.expect("a client"),
        running: None,
    }
}

async fn shown(api: &Api) -> String {
    let asked = api.client.get(format!("{}/api/v1/health", api.base));
    let answer = asked.send().await.expect("an answer");
    let studio = answer.headers().get(STUDIO).expect("whose it is");
    studio.to_str().expect("an id").to_owned()
}

/// Sets what an hour of work costs.
async fn priced(api: &Api, rate: f64) {
    let mut rules = api.get("/api/v1/studio").await["rules"].clone();
    rules["allowances"]["labour_per_hour"] = json!(rate);
    let (status, now) = api
        .put("/api/v1/studio/rules", json!({ "rules": rules }))
        .await;
    assert_eq!(status, StatusCode::OK, "{now}");
    assert_eq!(now["version"], 2);
}

async fn made(api: &Api, title: &str) -> Value {
    let inputs = json!({
        "title": title,
        "value": "320",
        "promised": "2027-03-20",
        "buyer": { "name": "Oda Marsh", "street": "4 Weir Lane", "town": "Tern Bight", "postcode": "TB1 2AA", "country": "XS" },
        "piece": {
            "construction": "stretched_canvas", "medium": "acrylic", "finished": "2026-10-01",
            "width": "400 mm", "height": "500 mm", "depth": "18 mm"
        },
        "service": "gannet-post/parcel"
    });
    let body = json!({ "id": SHIPMENT, "edit": Uuid::from_u128(12), "inputs": inputs });
    let (status, made) = api.post("/api/v1/shipments", body).await;
    assert_eq!(status, StatusCode::CREATED, "{made}");
    made
}

fn path(below: &str) -> String {
    format!("/api/v1/shipments/{SHIPMENT}{below}")
}

async fn hour(api: &Api) -> Value {
    api.get("/api/v1/studio").await["rules"]["allowances"]["labour_per_hour"].clone()
}

#[test_context(NoShipments)]
#[tokio::test]
async fn two_studios_in_one_process_have_each_their_own(NoShipments(database): &NoShipments) {
    let store = Store::open(&database.url(), UNHURRIED.database).await;
    let annexe = import(
        &store.expect("tables"),
        "annexe",
        &demo(),
        fill(false),
        TODAY,
    )
    .await;
    assert!(annexe.as_ref().expect("another studio").created);
    let annexe = annexe.expect("another studio").studio.to_string();
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo/tariffs");
    let tariffs = hummock_standins::read_tariffs(&folder).expect("tariffs");
    let standins = hummock_standins::serve(([127, 0, 0, 1], 0).into(), tariffs).await;
    let standins = standins.expect("a free port");
    let api = Api::start_with(database.pool(), false, |options| {
        options.outside = Outside {
            carriers: Some(standins.carrier_url()),
            stand_in: true,
            patience: Patience {
                answer: Duration::from_secs(20),
                ..Patience::default()
            },
            ..Outside::default()
        };
    })
    .await;
    let there = showing(&api, &annexe);
    let here = shown(&api).await;
    assert_eq!(shown(&there).await, annexe);
    assert_ne!(here, annexe);
    // A studio that is gone, and a cookie that is none: what was opened at the start.
    for nobody in [Uuid::from_u128(1).to_string(), "nobody".to_owned()] {
        assert_eq!(shown(&showing(&api, &nobody)).await, here);
    }

    // Rules, at equal versions, in alternating requests.
    priced(&api, 30.0).await;
    priced(&there, 60.0).await;
    for _ in 0..3 {
        assert_eq!(hour(&api).await, 30.0);
        assert_eq!(hour(&there).await, 60.0);
    }

    // Shipments of one id.
    let (ours, theirs) = (
        made(&api, "Kelp Ladder").await,
        made(&there, "Low Water").await,
    );
    assert_eq!(ours["id"], theirs["id"]);
    for _ in 0..2 {
        assert_eq!(api.get(&path("")).await["inputs"]["title"], "Kelp Ladder");
        assert_eq!(there.get(&path("")).await["inputs"]["title"], "Low Water");
    }
    let body = json!({ "inputs": ours["inputs"] });
    let charged = async |api: &Api| {
        let (status, priced) = api.post("/api/v1/plans/price", body.clone()).await;
        assert_eq!(status, StatusCode::OK, "{priced}");
        priced["charge"].clone()
    };
    let charges = [
        charged(&api).await,
        charged(&there).await,
        charged(&api).await,
    ];
    assert_ne!(charges[0], charges[1]);
    assert_eq!(charges[0], charges[2]);

    // The shelf.
    let item = |left: i64| json!({ "id": ITEM, "kind": "offcut", "material": "corrugated-b", "name": format!("left over {left}"), "width_mm": 777, "height_mm": 888, "left": left });
    for (api, left) in [(&api, 3), (&there, 5)] {
        let (status, said) = api.post("/api/v1/shelf", item(left)).await;
        assert_eq!(status, StatusCode::CREATED, "{said}");
    }
    let left = async |api: &Api| {
        let shelf = api.get("/api/v1/shelf").await;
        let mut items = shelf["items"].as_array().expect("a list").iter();
        let one = items.find(|one| one["id"] == ITEM.to_string());
        one.expect("it is counted")["left"].clone()
    };
    assert_eq!((left(&api).await, left(&there).await), (json!(3), json!(5)));

    // Layouts: the one is there, the other is not.
    let wanted = json!({ "id": LAYOUT, "shipments": [SHIPMENT] });
    let (status, layout) = api.post("/api/v1/cuttings", wanted).await;
    assert_eq!(status, StatusCode::CREATED, "{layout}");
    let count = async |api: &Api| {
        let all = api.get("/api/v1/cuttings").await;
        all.as_array().expect("a list").len()
    };
    assert_eq!((count(&api).await, count(&there).await), (1, 0));

    // Photographs of one id.
    let (small, large) = (jpeg(16), jpeg(48));
    for (api, picture) in [(&api, small), (&there, large)] {
        let (status, said) = send_to(api, &path(""), PICTURE, picture).await;
        assert!(status.is_success(), "{said}");
    }
    let picture = async |api: &Api| {
        let at = path(&format!("/photographs/{PICTURE}"));
        let asked = api.client.get(format!("{}{at}", api.base)).send().await;
        asked.expect("an answer").bytes().await.expect("a picture")
    };
    assert_ne!(picture(&api).await, picture(&there).await);

    // The backup that was made is one studio's.
    let backup = "/api/v1/studio/backup";
    let (status, said) = api.post(backup, json!({})).await;
    assert_eq!(status, StatusCode::ACCEPTED, "{said}");
    while api.get(backup).await["made"].is_null() {
        tokio::task::yield_now().await;
    }
    assert_eq!(there.get(backup).await["made"], Value::Null);

    // Ways.
    let told = async |api: &Api| {
        let at = format!("{}{}", api.base, path("/ways?most=1"));
        let asked = api.client.get(at).send().await.expect("an answer");
        asked.text().await.expect("events")
    };
    assert_ne!(told(&api).await, told(&there).await);

    // Bookings of one id: two parcels, each with its own number.
    for api in [&api, &there] {
        let on = api.get(&path("/leaving")).await["days"][0]["on"].clone();
        let version = api.get(&path("")).await["version"].clone();
        let body = json!({ "id": BOOKING, "version": version, "on": on });
        let (status, said) = api.post(&path("/booking"), body).await;
        assert!(status.is_success(), "{said}");
        assert_eq!(said["booking"]["state"], "booked", "{said}");
    }
    let number = async |api: &Api| api.get(&path("/leaving")).await["booking"]["tracking"].clone();
    assert_ne!(number(&api).await, number(&there).await);
    assert_eq!(standins.carrier.booked().len(), 2);

    // Whoever takes one away takes it away here.
    let status = api.delete(&format!("/api/v1/shelf/{ITEM}")).await;
    assert_eq!(status, StatusCode::OK);
    assert_eq!(left(&there).await, json!(5));
}

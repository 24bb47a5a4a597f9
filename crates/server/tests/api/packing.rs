//! The steps at the bench over HTTP, what is ticked of them, and an address that was pasted.

use reqwest::StatusCode;
use serde_json::{Value, json};
use sqlx::PgPool;

use crate::{Api, canvas, text};

async fn steps(api: &Api, inputs: &Value) -> Value {
    let (status, view) = api
        .post("/api/v1/plans/packing", json!({ "inputs": inputs }))
        .await;
    assert_eq!(status, StatusCode::OK, "{view}");
    view["packing"].clone()
}

#[sqlx::test(migrations = false)]
async fn a_tick_is_kept_with_the_shipment_and_a_wrong_one_is_named(pool: PgPool) {
    let api = Api::start(&pool, false).await;
    let created = json!({ "inputs": { "title": "Slack Tide", "piece": canvas() } });
    let (status, made) = api.post("/api/v1/shipments", created).await;
    assert_eq!(status, StatusCode::CREATED, "{made}");
    let at = format!("/api/v1/shipments/{}", text(&made["id"]));
    let first = steps(&api, &made["inputs"]).await["steps"][0].clone();
    let key = text(&first["key"]);
    let ticked = |at: &str| json!({ &key: { "at": at, "print": first["print"] } });
    let edit = json!({ "version": 1, "change": { "packed": ticked("2027-03-04T10:15:00Z") } });
    let (status, stored) = api.patch(&at, edit).await;
    assert_eq!(status, StatusCode::OK, "{stored}");
    assert_eq!(stored["summary"]["packed"]["done"], 1);
    let packing = steps(&api, &stored["inputs"]).await;
    assert_eq!(packing["steps"][0]["state"], "done");
    assert_eq!(packing["next"], packing["steps"][1]["key"]);
    // Undo takes a tick back like anything else.
    let (_, undone) = api
        .post(&format!("{at}/undo"), json!({ "version": 2 }))
        .await;
    assert_eq!(undone["summary"]["packed"], Value::Null);
    for (packed, field) in [
        (ticked("this morning"), format!("packed.{key}.at")),
        (
            json!({ "a b": { "at": "2027-03-04T10:15:00Z", "print": "x" } }),
            "packed".to_owned(),
        ),
        (
            json!({ "a": { "at": "2027-03-04T10:15:00Z", "print": "" } }),
            "packed".to_owned(),
        ),
    ] {
        let edit = json!({ "version": undone["version"], "change": { "packed": packed } });
        let (status, problem) = api.patch(&at, edit).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
        assert_eq!(text(&problem["errors"][0]["field"]), field);
    }
    // What is no piece yet has no steps.
    assert_eq!(
        steps(&api, &json!({ "title": "Nothing" })).await,
        Value::Null
    );
}

#[sqlx::test(migrations = false)]
async fn an_address_is_parted_into_fields_and_one_that_is_none_is_named(pool: PgPool) {
    let api = Api::start(&pool, false).await;
    let block = "Corrie Vane\n14 Ferry Stairs\nSallow Hythe SH2 7\nSaltmark\ncorrie@example.org";
    let (status, parted) = api
        .post("/api/v1/addresses", json!({ "block": block }))
        .await;
    assert_eq!(status, StatusCode::OK, "{parted}");
    assert_eq!(
        parted,
        json!({
            "buyer": {
                "name": "Corrie Vane", "street": "14 Ferry Stairs", "town": "Sallow Hythe", "postcode": "SH2 7",
                "country": "XS",
            },
            "left": ["corrie@example.org"],
            "doubts": [],
        })
    );
    let (status, problem) = api
        .post("/api/v1/addresses", json!({ "block": "x".repeat(2001) }))
        .await;
    assert_eq!(
        (status, text(&problem["errors"][0]["field"])),
        (StatusCode::UNPROCESSABLE_ENTITY, "block".into())
    );
}

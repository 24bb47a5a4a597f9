//! How a studio begins, and begins again.

use test_context::test_context;

use crate::{Api, Demo, NoShipments};

/// A start that was killed while it took the start files in is done anew by the next, and nothing is there twice.
#[test_context(NoShipments)]
#[tokio::test]
async fn what_was_taken_in_half_way_is_taken_in_anew(NoShipments(database): &NoShipments) {
    let pool = database.pool();
    sqlx::query("UPDATE studio SET taken_in = false")
        .execute(pool)
        .await
        .expect("it was killed");
    let api = Api::start(pool, true).await;
    let count = api.get("/api/v1/shipments").await["total"].clone();
    assert!(count.as_i64().is_some_and(|count| count > 5), "{count}");
    drop(api);
    let again = Api::start(pool, true).await;
    assert_eq!(again.get("/api/v1/shipments").await["total"], count);
    let studios: i64 = sqlx::query_scalar("SELECT count(*) FROM studio")
        .fetch_one(pool)
        .await
        .expect("a count");
    assert_eq!(studios, 1);
}

#[test_context(Demo)]
#[tokio::test]
async fn a_studio_that_is_there_needs_its_start_files_no_more(Demo(database): &Demo) {
    let api = Api::start_with(database.pool(), true, |options| {
        options.start_with = "nowhere".into();
    })
    .await;
    assert_ne!(api.rows().await, serde_json::json!([]));
}

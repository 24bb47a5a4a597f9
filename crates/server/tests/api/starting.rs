//! How a studio begins, and begins again.

use hummock_server::{ServeOptions, Upgrade, serve};
use sqlx::PgPool;
use test_context::test_context;

use crate::{Api, Demo, NoShipments, demo, page};

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

/// Takes the tables of a database back to what they were at edition 10.
async fn taken_back(pool: &PgPool) {
    for undone in [
        "ALTER TABLE studio DROP COLUMN held, DROP COLUMN taken_in, DROP COLUMN name, DROP COLUMN order_tables",
        "ALTER TABLE photograph DROP COLUMN kept_digest",
        "ALTER TABLE shipment ALTER CONSTRAINT shipment_rules NOT DEFERRABLE",
        "ALTER TABLE shipment RENAME CONSTRAINT shipment_rules TO shipment_studio_id_rules_version_fkey",
        "DROP TABLE carrier_service",
        "DROP INDEX shipment_by_title, shipment_state_by_sku, cutting_of_shipment",
        "ALTER TABLE shipment DROP COLUMN recent, DROP COLUMN plan_edition, DROP COLUMN record",
        "ALTER TABLE shipment ALTER COLUMN worked SET NOT NULL",
        "DROP TABLE handover_record",
        "ALTER TABLE booking DROP COLUMN tries, DROP COLUMN looks, DROP COLUMN look_at",
        "DELETE FROM _sqlx_migrations WHERE version > 10",
    ] {
        sqlx::query(undone)
            .execute(pool)
            .await
            .expect("it is undone");
    }
}

/// Tables of an earlier edition are changed once every studio in them is saved, and the file can be read in again. Kills an upgrade that
/// goes on without one.
#[test_context(Demo)]
#[tokio::test]
async fn a_studio_is_saved_before_its_tables_are_changed(Demo(database): &Demo) {
    let pool = database.pool();
    taken_back(pool).await;
    let folder = tempfile::tempdir().expect("a folder");
    let saved = || {
        let entries = std::fs::read_dir(folder.path()).expect("a folder");
        entries
            .map(|entry| entry.expect("an entry").path())
            .collect::<Vec<_>>()
    };
    let start = async || {
        Api::start_with(pool, true, |options| {
            options.upgrade = Upgrade::Saved(folder.path().to_owned());
        })
        .await
    };
    let api = start().await;
    let rows = api.rows().await.as_array().expect("rows").len();
    drop(api);
    let [file] = &saved()[..] else {
        panic!("{:?}", saved())
    };
    let name = file
        .file_name()
        .and_then(std::ffi::OsStr::to_str)
        .expect("a name");
    assert!(name.ends_with("-2027-03-04-edition-10.zip"), "{name}");
    let backup = std::fs::read(file).expect("it is there");
    let list = crate::backup::lines_of(&backup, "shipments.jsonl");
    assert!(list.len() >= rows && rows > 5, "{rows}");
    // The tables are up to date by now.
    drop(start().await);
    assert_eq!(saved().len(), 1);
    let again = crate::backup::empty(pool).await;
    let read = crate::backup::bring_in(&again, &backup).await;
    assert_eq!(read["failed"], serde_json::Value::Null, "{read}");
    let all = crate::backup::lines_of(&backup, "shipments.jsonl").len();
    assert_eq!(read["read"]["shipments"], serde_json::json!(all));
}

#[test_context(Demo)]
#[tokio::test]
async fn tables_that_can_not_be_saved_are_changed_by_their_owners_word_alone(
    Demo(database): &Demo,
) {
    let pool = database.pool();
    taken_back(pool).await;
    let edition = async || -> i64 {
        let asked = sqlx::query_scalar("SELECT max(version) FROM _sqlx_migrations");
        asked.fetch_one(pool).await.expect("an edition")
    };
    let folder = tempfile::tempdir().expect("a folder");
    let file = folder.path().join("no-folder");
    std::fs::write(&file, "dear").expect("a file");
    let url = hummock_test_database::url_of(&pool.connect_options());
    let with = |upgrade: Upgrade| ServeOptions {
        upgrade,
        start_with: demo(),
        ..ServeOptions::on_loopback(url.clone(), page)
    };
    let refused = serve(&with(Upgrade::Saved(file))).await;
    let says = format!("{:#}", refused.expect_err("it can't be saved"));
    assert!(says.contains("--without-backup"), "{says}");
    assert_eq!(edition().await, 10);
    // Nor are those from before the first that a backup can be made of.
    sqlx::query("DELETE FROM _sqlx_migrations WHERE version > 9")
        .execute(pool)
        .await
        .expect("it is undone");
    let saved = Upgrade::Saved(folder.path().to_owned());
    let refused = serve(&with(saved)).await;
    let says = format!("{:#}", refused.expect_err("they are too old"));
    assert!(says.contains("edition 9"), "{says}");
    assert_eq!(edition().await, 9);
    sqlx::query("ALTER TABLE shipment DROP COLUMN logged, DROP COLUMN left_on")
        .execute(pool)
        .await
        .expect("it is undone");
    let running = serve(&with(Upgrade::WithoutBackup)).await;
    running
        .expect("by its owner's word")
        .stop()
        .await
        .expect("it stops");
    assert!(edition().await > 10);
}

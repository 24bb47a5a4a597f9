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

/// A studio whose tables are of an earlier edition is saved before they are changed, once.
#[test_context(Demo)]
#[tokio::test]
async fn a_studio_is_saved_before_its_tables_are_changed(Demo(database): &Demo) {
    let pool = database.pool();
    // As they were at edition 11.
    for undone in [
        "ALTER TABLE studio DROP COLUMN held, DROP COLUMN taken_in",
        "ALTER TABLE photograph DROP COLUMN kept_digest",
        "ALTER TABLE shipment ALTER CONSTRAINT shipment_rules NOT DEFERRABLE",
        "ALTER TABLE shipment RENAME CONSTRAINT shipment_rules TO shipment_studio_id_rules_version_fkey",
        "DROP TABLE carrier_service",
        "DROP INDEX shipment_by_title, shipment_state_by_sku, cutting_of_shipment",
        "ALTER TABLE shipment DROP COLUMN recent",
        "ALTER TABLE studio DROP COLUMN order_tables",
        "ALTER TABLE booking DROP COLUMN tries, DROP COLUMN looks, DROP COLUMN look_at",
        "DELETE FROM _sqlx_migrations WHERE version > 11",
    ] {
        sqlx::query(undone)
            .execute(pool)
            .await
            .expect("it is undone");
    }
    let folder = tempfile::tempdir().expect("a folder");
    let saved = || {
        let entries = std::fs::read_dir(folder.path()).expect("a folder");
        entries
            .map(|entry| entry.expect("an entry").path())
            .collect::<Vec<_>>()
    };
    let start = async || {
        Api::start_with(pool, true, |options| {
            options.upgrade_backups = folder.path().to_owned();
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
    assert!(name.ends_with("-2027-03-04-edition-11.zip"), "{name}");
    let file = std::fs::File::open(file).expect("it is there");
    let mut archive = zip::ZipArchive::new(file).expect("a backup");
    let list = archive.by_name("shipments.jsonl").expect("a list");
    let list = std::io::read_to_string(list).expect("text");
    assert!(list.lines().count() >= rows && rows > 5, "{rows}");
    // The tables are up to date by now.
    drop(start().await);
    assert_eq!(saved().len(), 1);
}

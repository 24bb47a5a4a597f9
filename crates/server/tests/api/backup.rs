//! A whole studio out as one file and in again, over HTTP.

use std::io::{Cursor, Read as _, Write as _};

use hummock_server::Pictures;
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};
use sqlx::PgPool;
use test_context::test_context;
use uuid::Uuid;
use zip::{CompressionMethod, ZipArchive, ZipWriter, write::SimpleFileOptions};

use crate::{
    Api, answer,
    photographs::{jpeg, send_to},
    text,
};

use crate::{Demo, NoShipments};

const BACKUP: &str = "/api/v1/studio/backup";
const RESTORE: &str = "/api/v1/studio/restore";

/// Waits until nothing is being done.
async fn settled(api: &Api) -> Value {
    loop {
        let view = api.get(BACKUP).await;
        if view["doing"].is_null() {
            return view;
        }
        tokio::task::yield_now().await;
    }
}

async fn bytes(api: &Api, path: &str) -> Vec<u8> {
    let response = api.client.get(format!("{}{path}", api.base)).send().await;
    let response = response.expect("an answer");
    assert_eq!(response.status(), StatusCode::OK, "{path}");
    response.bytes().await.expect("bytes").to_vec()
}

pub(crate) async fn made(api: &Api) -> Vec<u8> {
    let (status, _) = api.post(BACKUP, Value::Null).await;
    assert_eq!(status, StatusCode::ACCEPTED);
    let view = settled(api).await;
    assert_eq!(view["failed"], Value::Null);
    let file = bytes(api, &format!("{BACKUP}/file")).await;
    assert_eq!(view["made"]["bytes"], json!(file.len()));
    file
}

async fn part(api: &Api, id: &str, from: usize, bytes: &[u8]) -> (StatusCode, Value) {
    let url = format!("{}{RESTORE}/{id}?from={from}", api.base);
    let request = api.client.request(Method::PUT, url).body(bytes.to_vec());
    answer(request.send().await.expect("an answer")).await
}

/// Sends a file in one part and waits for what comes of it.
pub(crate) async fn bring_in(api: &Api, file: &[u8]) -> Value {
    let (status, view) = api.post(RESTORE, json!({ "bytes": file.len() })).await;
    assert_eq!(status, StatusCode::CREATED, "{view}");
    let (status, view) = part(api, &text(&view["id"]), 0, file).await;
    assert_eq!(status, StatusCode::OK, "{view}");
    settled(api).await
}

/// Everything that pages read of a studio.
async fn told(api: &Api) -> Vec<(String, Vec<u8>)> {
    let mut paths: Vec<String> = [
        "/studio",
        "/studio/sender",
        "/studio/mark",
        "/stores",
        "/shelf",
        "/log",
        "/log/reckoning",
        "/log.csv",
        "/log.json",
        "/tariffs",
        "/studio/presets",
        "/shipments",
        "/shipments?place=archive",
        "/shipments?place=sent",
        "/shipments?place=bin",
    ]
    .map(|path| format!("/api/v1{path}"))
    .into();
    for place in ["bench", "archive", "sent", "bin"] {
        let page = api
            .get(&format!("/api/v1/shipments?place={place}&most=200"))
            .await;
        for row in page["rows"].as_array().expect("rows") {
            let id = text(&row["id"]);
            for of in ["", "/photographs", "/leaving", "/after"] {
                paths.push(format!("/api/v1/shipments/{id}{of}"));
            }
            let photographs = api
                .get(&format!("/api/v1/shipments/{id}/photographs"))
                .await;
            for photograph in photographs.as_array().expect("a list") {
                let photograph = text(&photograph["id"]);
                paths.push(format!("/api/v1/shipments/{id}/photographs/{photograph}"));
            }
        }
    }
    let mut all = Vec::new();
    for path in paths {
        let response = api.client.get(format!("{}{path}", api.base)).send().await;
        let response = response.expect("an answer");
        let status = response.status();
        let body = response.bytes().await.expect("bytes").to_vec();
        all.push((format!("{path} {status}"), body));
    }
    all
}

/// The demo studio, with photographs, an edit that was taken back, and one shipment in the bin.
async fn studio(pool: &PgPool) -> Api {
    let api = Api::start(pool, true).await;
    let rows = api.rows().await;
    let rows = rows.as_array().expect("rows");
    for (row, side) in rows.iter().zip([40, 64, 128]) {
        let shipment = format!("/api/v1/shipments/{}", text(&row["id"]));
        let (status, view) =
            send_to(&api, &shipment, Uuid::from_u128(side.into()), jpeg(side)).await;
        assert_eq!(status, StatusCode::OK, "{view}");
    }
    let mark = api.client.put(format!("{}/api/v1/studio/mark", api.base));
    let mark = mark.body(jpeg(32)).send().await.expect("an answer");
    assert!(mark.status().is_success(), "{mark:?}");
    let path = format!("/api/v1/shipments/{}", text(&rows[0]["id"]));
    let first = api.get(&path).await;
    let change = json!({ "version": first["version"], "edit": Uuid::from_u128(7), "change": { "title": "=1+1, „Überfahrt“" } });
    let (status, edited) = api.patch(&path, change).await;
    assert_eq!(status, StatusCode::OK, "{edited}");
    let (status, _) = api
        .post(
            &format!("{path}/undo"),
            json!({ "version": edited["version"] }),
        )
        .await;
    assert_eq!(status, StatusCode::OK);
    let last = rows.last().expect("a row");
    let path = format!("/api/v1/shipments/{}/place", text(&last["id"]));
    let (status, view) = api.put(&path, json!({ "place": "bin" })).await;
    assert_eq!(status, StatusCode::OK, "{view}");
    api
}

/// Has the records of all that left written: whatever is asked of a parcel writes its own first.
async fn recorded(api: &Api) {
    for place in ["sent", "archive"] {
        let page = api
            .get(&format!("/api/v1/shipments?place={place}&most=200"))
            .await;
        for row in page["rows"].as_array().expect("rows") {
            let id = text(&row["id"]);
            api.get(&format!("/api/v1/shipments/{id}")).await;
        }
    }
}

/// Another studio on the same database server, where nothing was kept before.
pub(crate) async fn empty(pool: &PgPool) -> Api {
    sqlx::query("DELETE FROM studio")
        .execute(pool)
        .await
        .expect("it is emptied");
    Api::start(pool, false).await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_studio_comes_back_as_it_was_to_the_byte(Demo(database): &Demo) {
    let here = studio(database.pool()).await;
    let was = told(&here).await;
    for (path, _) in &was {
        assert!(path.ends_with("200 OK"), "{path}");
    }
    assert!(
        was.iter()
            .filter(|(path, _)| path.contains("/photographs/"))
            .count()
            == 3
    );
    let file = made(&here).await;
    // Made twice it is the same.
    assert_eq!(file, made(&here).await);
    drop(here);

    let there = empty(database.pool()).await;
    assert_eq!(there.get(BACKUP).await["empty"], json!(true));
    let (status, view) = there.post(RESTORE, json!({ "bytes": file.len() })).await;
    assert_eq!(status, StatusCode::CREATED, "{view}");
    let id = text(&view["id"]);
    // A lost answer sends a part twice, and a part that came too early waits for its turn.
    let third = file.len() / 3;
    for (from, to, received) in [
        (0, third, third),
        (0, third, third),
        (2 * third, file.len(), third),
        (third, 2 * third, 2 * third),
    ] {
        let (status, view) = part(&there, &id, from, &file[from..to]).await;
        assert_eq!(status, StatusCode::OK, "{view}");
        assert_eq!(view["received"], json!(received));
    }
    let (status, _) = part(&there, &id, 2 * third, &file).await;
    assert_eq!(
        status,
        StatusCode::UNPROCESSABLE_ENTITY,
        "longer than was said"
    );
    let (status, _) = part(&there, &id, 2 * third, &file[2 * third..]).await;
    assert_eq!(status, StatusCode::OK);
    let view = settled(&there).await;
    assert_eq!(view["failed"], Value::Null);
    assert_eq!(view["read"]["photographs"], json!(3));
    assert_eq!(view["read"]["shipments"], view["shipments"]);
    // But for carriers, of whom it asks first.
    let (status, view) = there
        .post("/api/v1/leaving/carriers/speak", Value::Null)
        .await;
    assert_eq!((status, &view["held"]), (StatusCode::OK, &json!(false)));
    let is = told(&there).await;
    for (was, is) in was.iter().zip(&is) {
        assert_eq!(was.0, is.0);
        assert_eq!(
            String::from_utf8_lossy(&was.1),
            String::from_utf8_lossy(&is.1),
            "{}",
            was.0
        );
    }
    assert_eq!(was.len(), is.len());
    assert_eq!(file, made(&there).await);
    // It is not empty any more.
    let (status, problem) = there.post(RESTORE, json!({ "bytes": 10 })).await;
    assert_eq!(
        (status, text(&problem["type"])),
        (StatusCode::CONFLICT, "/problems/not-empty".to_owned())
    );
    // And what was done is undone there as it would have been here.
    let path = format!("/api/v1/shipments/{}", text(&there.rows().await[0]["id"]));
    let first = there.get(&path).await;
    let (status, again) = there
        .post(
            &format!("{path}/redo"),
            json!({ "version": first["version"] }),
        )
        .await;
    assert_eq!(status, StatusCode::OK, "{again}");
    assert_eq!(again["inputs"]["title"], "=1+1, „Überfahrt“");
}

/// The files of an archive, some of them otherwise; those that are nothing are left out.
fn changed(file: &[u8], change: impl Fn(&str, Vec<u8>) -> Option<Vec<u8>>) -> Vec<u8> {
    let mut archive = ZipArchive::new(Cursor::new(file)).expect("an archive");
    let mut made = ZipWriter::new(Cursor::new(Vec::new()));
    for at in 0..archive.len() {
        let mut entry = archive.by_index(at).expect("a file of it");
        let name = entry.name().expect("a name").into_owned();
        let mut bytes = Vec::new();
        entry.read_to_end(&mut bytes).expect("its bytes");
        if let Some(bytes) = change(&name, bytes) {
            let options =
                SimpleFileOptions::default().compression_method(CompressionMethod::Stored);
            made.start_file(name, options).expect("a file");
            made.write_all(&bytes).expect("its bytes");
        }
    }
    made.finish().expect("an archive").into_inner()
}

#[test_context(Demo)]
#[tokio::test]
async fn what_is_no_backup_changes_nothing_and_says_why(Demo(database): &Demo) {
    let here = studio(database.pool()).await;
    let file = made(&here).await;
    let (status, _) = here.post(RESTORE, json!({ "bytes": file.len() })).await;
    assert_eq!(status, StatusCode::CONFLICT, "something is kept there");
    drop(here);
    let there = empty(database.pool()).await;
    let was = told(&there).await;
    let replaced = |name: &'static str, from: &'static str, to: &'static str| {
        changed(&file, move |is, bytes| {
            let text = String::from_utf8(bytes.clone()).ok();
            match text.filter(|_| is == name) {
                Some(text) => Some(text.replacen(from, to, 1).into_bytes()),
                None => Some(bytes),
            }
        })
    };
    let is_picture = |name: &str| name.starts_with("photographs/");
    let cases = [
        (b"dear studio".to_vec(), "not a zip file"),
        (file[..file.len() - 40].to_vec(), "not a zip file"),
        (
            replaced("about.json", "a whole studio", "half a studio"),
            "not a Hummock backup",
        ),
        (
            replaced("about.json", "\"edition\": ", "\"edition\": 9"),
            "newer Hummock",
        ),
        (
            changed(&file, |name, bytes| {
                (name != "shelf.jsonl").then_some(bytes)
            }),
            "shelf.jsonl is missing",
        ),
        (
            changed(&file, |name, bytes| {
                (name != "shipment-states.jsonl").then_some(bytes)
            }),
            "is missing",
        ),
        (
            changed(&file, |name, bytes| {
                Some(if name == "stores.jsonl" {
                    Vec::new()
                } else {
                    bytes
                })
            }),
            "stores.jsonl has 0 lines",
        ),
        (
            changed(&file, |name, bytes| {
                Some(match name {
                    "studio.jsonl" => Vec::new(),
                    _ => bytes,
                })
            }),
            "studio.jsonl has 0 lines",
        ),
        (
            replaced("shipments.jsonl", "{", "["),
            "line 1 of shipments.jsonl",
        ),
        (replaced("tariffs.jsonl", "\n", ""), "tariffs.jsonl"),
    ];
    for (spoiled, says) in cases {
        let view = bring_in(&there, &spoiled).await;
        let failed = text(&view["failed"]);
        assert!(failed.contains(says), "{says}: {failed}");
        assert_eq!(
            (&view["empty"], &view["read"]),
            (&json!(true), &Value::Null),
            "{says}"
        );
        assert!(was == told(&there).await, "{says}");
    }
    for bytes in [json!(0), json!(1_u64 << 40)] {
        let (status, problem) = there.post(RESTORE, json!({ "bytes": bytes })).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
        assert_eq!(problem["errors"][0]["field"], "bytes");
    }
    // A picture that was lost long ago is no reason to lose the rest.
    let view = bring_in(
        &there,
        &changed(&file, |name, bytes| (!is_picture(name)).then_some(bytes)),
    )
    .await;
    assert_eq!(view["failed"], Value::Null);
    assert_eq!(view["read"]["without_picture"], json!(3));
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_server_that_never_made_one_has_none_to_fetch(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    let url = format!("{}{BACKUP}/file", api.base);
    let (status, _) = answer(api.client.get(url).send().await.expect("an answer")).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
    let (status, _) = part(&api, "no-id", 0, b"x").await;
    assert_eq!(status, StatusCode::NOT_FOUND);
    // Another one that is announced takes the place of the one before.
    let (_, first) = api.post(RESTORE, json!({ "bytes": 10 })).await;
    let (_, second) = api.post(RESTORE, json!({ "bytes": 10 })).await;
    let (status, _) = part(&api, &text(&first["id"]), 0, b"x").await;
    assert_eq!(status, StatusCode::NOT_FOUND);
    let (status, view) = part(&api, &text(&second["id"]), 0, b"xyz").await;
    assert_eq!((status, &view["received"]), (StatusCode::OK, &json!(3)));
    let doing = api.get(BACKUP).await["doing"].take();
    assert_eq!(doing, json!({ "what": "receiving", "done": 3, "of": 10 }));
}

#[test_context(Demo)]
#[tokio::test]
async fn a_backup_with_broken_pictures_is_read_in_once_somebody_says_so(Demo(database): &Demo) {
    let here = studio(database.pool()).await;
    let file = made(&here).await;
    let titles: Vec<String> = here
        .rows()
        .await
        .as_array()
        .expect("rows")
        .iter()
        .map(|row| text(&row["inputs"]["title"]))
        .collect();
    drop(here);
    // One is cut off, one is another one of the same length, and one is whole.
    let at = std::cell::Cell::new(0);
    let spoiled = changed(&file, |name, mut bytes| {
        if name.starts_with("photographs/") {
            at.set(at.get() + 1);
            match at.get() {
                1 => drop(bytes.pop()),
                2 => bytes[40] ^= 1,
                _ => {}
            }
        }
        Some(bytes)
    });
    let there = empty(database.pool()).await;
    let view = bring_in(&there, &spoiled).await;
    assert_eq!(
        (&view["failed"], &view["read"]),
        (&Value::Null, &Value::Null)
    );
    assert_eq!(view["empty"], true);
    let waiting = &view["waiting"];
    assert_eq!(
        (&waiting["broken_pictures"], &waiting["sealed"]),
        (&json!(2), &json!(false))
    );
    for broken in waiting["broken"].as_array().expect("a list") {
        assert_eq!(broken["why"], "changed");
        assert!(titles.contains(&text(&broken["title"])), "{broken}");
    }
    let path = format!("{RESTORE}/{}", text(&waiting["id"]));
    let (status, _) = there
        .post(&format!("{RESTORE}/{}", Uuid::nil()), json!({}))
        .await;
    assert_eq!(status, StatusCode::NOT_FOUND);
    // Without a word for it nothing is left out.
    let (status, _) = there.post(&path, json!({})).await;
    assert_eq!(status, StatusCode::ACCEPTED);
    assert_eq!(
        settled(&there).await["waiting"]["broken_pictures"],
        json!(2)
    );
    let (status, _) = there.post(&path, json!({ "without_broken": true })).await;
    assert_eq!(status, StatusCode::ACCEPTED);
    let view = settled(&there).await;
    assert_eq!(
        (&view["failed"], &view["waiting"]),
        (&Value::Null, &Value::Null)
    );
    assert_eq!(
        (
            &view["read"]["photographs"],
            &view["read"]["without_picture"]
        ),
        (&json!(1), &json!(2))
    );
    assert_eq!(view["read"]["broken"].as_array().map(Vec::len), Some(2));
    // A backup of what is left says the same.
    let (status, _) = there.post(BACKUP, Value::Null).await;
    assert_eq!(status, StatusCode::ACCEPTED);
    let view = settled(&there).await;
    assert_eq!(view["made"]["without_picture"], json!(2));
    assert_eq!(view["made"]["broken"][0]["why"], "missing");
    assert_eq!(view["failed"], Value::Null);
}

/// A file sealed as the command line seals it.
/// A backup of each edition of the tables that was released, made by that release: three shipments, one of them weighed and measured, one
/// handed over. This program reads each, and its own edition is among them, so that the next one can.
#[test_context(Demo)]
#[tokio::test]
async fn backups_of_every_release_are_read_in(Demo(database): &Demo) {
    let folder = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("testdata/backups");
    let edition: i64 = sqlx::query_scalar("SELECT max(version) FROM _sqlx_migrations")
        .fetch_one(database.pool())
        .await
        .expect("an edition");
    let mut files: Vec<_> = std::fs::read_dir(&folder)
        .expect("a folder")
        .map(|entry| entry.expect("an entry").path())
        .collect();
    files.sort();
    let own = folder.join(format!("tables-{edition}.zip"));
    assert!(
        files.contains(&own),
        "make {} by this program",
        own.display()
    );
    // It was made by this program, and not by the one before: its lines name every column that a backup holds.
    let columns: Vec<String> = sqlx::query_scalar(
        "SELECT column_name::text FROM information_schema.columns WHERE table_schema = 'public' AND table_name = 'shipment'
             AND column_name <> ALL('{studio_id,house_version,claimed_until,claimed_for}')",
    )
    .fetch_all(database.pool())
    .await
    .expect("columns");
    let newest = lines_of(&std::fs::read(&own).expect("a file"), "shipments.jsonl");
    for column in &columns {
        assert!(
            newest.iter().all(|line| line.get(column).is_some()),
            "{column}"
        );
    }
    for path in files {
        let name = path.display().to_string();
        let file = std::fs::read(&path).expect("a file");
        let api = empty(database.pool()).await;
        let read = bring_in(&api, &file).await;
        assert_eq!(read["failed"], Value::Null, "{name}");
        assert_eq!(read["read"]["shipments"], 3, "{name}");
        let handed = lines_of(&file, "shipments.jsonl");
        for row in api.rows().await.as_array().expect("rows") {
            let view = api
                .get(&format!("/api/v1/shipments/{}", text(&row["id"])))
                .await;
            let weighed = view["inputs"]["title"] == "Heron 15";
            // What the scale read then is what the parcel weighs.
            assert_eq!(
                view["worked"]["found"]["stands"],
                if weighed { json!(true) } else { Value::Null },
                "{name}: {}",
                view["inputs"]["title"]
            );
        }
        let sent = api.get("/api/v1/shipments?place=sent").await["rows"].take();
        let [sent] = &sent.as_array().expect("rows")[..] else {
            panic!("{name}: {sent}")
        };
        let left = api
            .get(&format!("/api/v1/shipments/{}", text(&sent["id"])))
            .await;
        let kept = handed.iter().find(|line| line["id"] == sent["id"]);
        let kept = kept.expect("it is in the backup");
        for field in ["weight", "outside", "carriage", "carrier"] {
            assert_eq!(
                left["handed"][field], kept["handed"][field],
                "{name}: {field}"
            );
        }
        // Its plan is the one that it left with, whichever edition worked it out.
        assert_eq!(left["left"]["record"], "whole", "{name}");
        for part in ["worked", "summary"] {
            if kept[part].is_object() {
                assert_eq!(left[part], kept[part], "{name}: {part}");
            }
        }
        assert_eq!(api.get("/api/v1/log").await["total"], 1, "{name}");
    }
}

pub(crate) fn lines_of(file: &[u8], list: &str) -> Vec<Value> {
    let mut archive = ZipArchive::new(Cursor::new(file)).expect("a backup");
    let mut lines = String::new();
    let mut entry = archive.by_name(list).expect("a list");
    entry.read_to_string(&mut lines).expect("text");
    let read = |line: &str| serde_json::from_str(line).expect("a line");
    lines.lines().map(read).collect()
}

fn sealed(file: &[u8], passphrase: &str) -> Vec<u8> {
    let mut folder = std::env::current_exe().expect("it runs");
    folder.pop();
    if folder.ends_with("deps") {
        folder.pop();
    }
    let mut process = std::process::Command::new(folder.join("hummock-documents"))
        .arg("seal")
        .stdin(std::process::Stdio::piped())
        .stdout(std::process::Stdio::piped())
        .spawn()
        .expect("it was built");
    let mut question = process.stdin.take().expect("a pipe");
    let asked = [passphrase.as_bytes(), b"\n", file].concat();
    let asks = std::thread::spawn(move || question.write_all(&asked));
    let made = process.wait_with_output().expect("it ends");
    asks.join().expect("it asks").expect("it is heard");
    assert!(made.status.success());
    made.stdout
}

#[test_context(Demo)]
#[tokio::test]
async fn a_sealed_backup_is_opened_by_its_passphrase_alone(Demo(database): &Demo) {
    let here = studio(database.pool()).await;
    let file = made(&here).await;
    drop(here);
    sqlx::query("DELETE FROM studio")
        .execute(database.pool())
        .await
        .expect("it is emptied");
    let there = Api::start_with(database.pool(), false, |options| {
        options.documents = crate::leaving::documents();
    })
    .await;
    let view = bring_in(&there, &sealed(&file, "three terns on a sill")).await;
    assert_eq!(
        (
            &view["waiting"]["sealed"],
            &view["waiting"]["wrong_passphrase"]
        ),
        (&json!(true), &json!(false))
    );
    let path = format!("{RESTORE}/{}", text(&view["waiting"]["id"]));
    let (status, problem) = there
        .post(&path, json!({ "passphrase": "two\nlines" }))
        .await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["errors"][0]["field"], "passphrase");
    for (passphrase, opens) in [
        ("three terns on a hill", false),
        ("three terns on a sill", true),
    ] {
        let (status, _) = there.post(&path, json!({ "passphrase": passphrase })).await;
        assert_eq!(status, StatusCode::ACCEPTED);
        let view = settled(&there).await;
        assert_eq!(view["failed"], Value::Null);
        assert_eq!(view["waiting"]["wrong_passphrase"] == json!(true), !opens);
        assert_eq!(view["read"]["photographs"] == json!(3), opens);
    }
    assert_eq!(file, made(&there).await);
    // What waits can be given up.
    sqlx::query("DELETE FROM shipment")
        .execute(database.pool())
        .await
        .expect("they are gone");
    sqlx::query("DELETE FROM stock")
        .execute(database.pool())
        .await
        .expect("it is gone");
    sqlx::query("DELETE FROM cutting")
        .execute(database.pool())
        .await
        .expect("they are gone");
    let view = bring_in(&there, &sealed(&file, "three terns on a sill")).await;
    let path = format!("{RESTORE}/{}", text(&view["waiting"]["id"]));
    let given_up = there
        .client
        .delete(format!("{}{path}", there.base))
        .send()
        .await;
    let (status, view) = answer(given_up.expect("an answer")).await;
    assert_eq!((status, &view["waiting"]), (StatusCode::OK, &Value::Null));
    let (status, _) = there.post(&path, json!({})).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
}

#[test_context(Demo)]
#[tokio::test]
async fn a_backup_is_made_every_night_and_read_once(Demo(database): &Demo) {
    use hummock_server::Nightly;

    let folder = tempfile::tempdir().expect("a folder");
    let kept = folder.path().join("backups");
    let into = |passphrase: Option<&str>| {
        let nightly = Nightly::into(kept.clone(), passphrase.map(str::to_owned));
        let nightly = nightly.expect("a folder");
        Some(nightly.looking_every(std::time::Duration::from_millis(20)))
    };
    std::fs::create_dir_all(&kept).expect("a folder");
    let own: Uuid = sqlx::query_scalar("SELECT id FROM studio")
        .fetch_one(database.pool())
        .await
        .expect("a studio");
    // What somebody else keeps there stays, and backups that are kept no longer go.
    std::fs::write(kept.join("letter.txt"), "dear").expect("a file");
    for day in 1..=9 {
        let name = format!("hummock-{own}-2026-12-0{day}.zip");
        std::fs::write(kept.join(name), "old").expect("a file");
    }
    let made = async |api: &Api| {
        loop {
            let view = api.get(BACKUP).await;
            if view["nightly"]["last"]["days_ago"] == json!(0) {
                return view["nightly"].clone();
            }
            assert_eq!(view["nightly"]["failed"], Value::Null);
            tokio::task::yield_now().await;
        }
    };
    let pictures = Pictures::in_folder(folder.path().join("photographs")).expect("a folder");
    let with_records = Api::start_with(database.pool(), true, |options| {
        options.pictures = pictures.clone();
    });
    recorded(&with_records.await).await;
    let api = Api::start_with(database.pool(), true, |options| {
        options.pictures = pictures.clone();
        options.nightly = into(None);
    })
    .await;
    let view = made(&api).await;
    let file = kept.join(text(&view["last"]["file"]));
    assert_eq!(
        view["last"]["bytes"],
        json!(std::fs::metadata(&file).expect("it is there").len())
    );
    assert_eq!(
        (&view["sealed"], &view["last"]["on"]),
        (&json!(false), &json!("2027-03-04"))
    );
    assert!(ZipArchive::new(std::fs::File::open(&file).expect("it is there")).is_ok());
    // It holds what one made by hand holds, but for where its pictures and records are.
    let by_hand = self::made(&api).await;
    let by_night = std::fs::read(&file).expect("it is there");
    let names = |file: &[u8]| -> Vec<String> {
        let archive = ZipArchive::new(Cursor::new(file)).expect("a zip file");
        archive
            .file_names()
            .map(|name| name.expect("a name").into_owned())
            .filter(|name| !name.starts_with("handover-records/"))
            .collect()
    };
    assert_eq!(names(&by_night), names(&by_hand));
    for list in names(&by_hand)
        .iter()
        .filter(|name| name.ends_with(".jsonl"))
    {
        assert_eq!(
            lines_of(&by_night, list),
            lines_of(&by_hand, list),
            "{list}"
        );
    }
    drop(api);
    // Of ten, the last seven days: 4 March and 4 to 9 December; the weeks of 30 November and 7 December end among them.
    let mut names: Vec<String> = std::fs::read_dir(&kept)
        .expect("a folder")
        .map(|entry| {
            entry
                .expect("an entry")
                .file_name()
                .into_string()
                .expect("a name")
        })
        .collect();
    names.sort();
    let mut wanted: Vec<String> = (4..=9)
        .map(|day| format!("hummock-{own}-2026-12-0{day}.zip"))
        .collect();
    wanted.extend([
        format!("hummock-{own}-2027-03-04.zip"),
        format!("hummock-{own}-2027-03-04.zip.pictures"),
        "letter.txt".to_owned(),
        "pictures".to_owned(),
    ]);
    assert_eq!(names, wanted);

    // Sealed, it is none that anybody can read.
    std::fs::remove_file(&file).expect("it is there");
    let api = Api::start_with(database.pool(), true, |options| {
        options.nightly = into(Some("three terns on a sill"));
        options.documents = crate::leaving::documents();
    })
    .await;
    let view = made(&api).await;
    assert_eq!(view["sealed"], true);
    let file = std::fs::read(kept.join(text(&view["last"]["file"]))).expect("it is there");
    assert!(text(&view["last"]["file"]).ends_with(".zip.age"));
    assert!(file.starts_with(b"age-encryption.org/v1"));
    drop(api);

    // A folder that takes nothing is told.
    std::fs::remove_dir_all(&kept).expect("it is there");
    std::fs::write(&kept, "doesn't name a folder").expect("a file");
    let nightly = Nightly::into(folder.path().join("another"), None).expect("a folder");
    std::fs::remove_dir(folder.path().join("another")).expect("it is there");
    let api = Api::start_with(database.pool(), true, |options| {
        options.nightly = Some(nightly.looking_every(std::time::Duration::from_millis(20)));
    })
    .await;
    loop {
        let failed = api.get(BACKUP).await["nightly"]["failed"].take();
        if !failed.is_null() {
            assert!(text(&failed).contains("No such file"), "{failed}");
            break;
        }
        tokio::task::yield_now().await;
    }
}

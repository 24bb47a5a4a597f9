//! What the command line does with studios that are kept: backups of all of them, and how they come back.

use std::{
    collections::BTreeMap,
    ffi::OsString,
    path::{Path, PathBuf},
};

use hummock_server::{Nightly, Pictures, command_of};
use hummock_test_database::url_of;
use reqwest::StatusCode;
use serde_json::{Value, json};
use sqlx::PgPool;
use test_context::test_context;
use uuid::Uuid;

use crate::{
    Api, Demo, answer, canvas, demo,
    leaving::documents_program,
    page,
    photographs::{jpeg, send_to},
    text,
};

/// A machine with a database, a folder of photographs and one of backups.
struct Machine<'a> {
    pool: &'a PgPool,
    folder: tempfile::TempDir,
}

impl Machine<'_> {
    fn at(&self, name: &str) -> PathBuf {
        self.folder.path().join(name)
    }

    /// The demo studio with three photographs, of which two are of one picture, and another studio with a shipment.
    async fn with_two_studios(&self) -> [Uuid; 2] {
        let api = Api::start_with(self.pool, true, |options| {
            options.pictures = Pictures::in_folder(self.at("photographs")).expect("a folder");
        })
        .await;
        let rows = api.rows().await;
        let rows = rows.as_array().expect("rows");
        for (row, (id, side)) in rows.iter().zip([(1, 40), (2, 40), (3, 64)]) {
            let shipment = format!("/api/v1/shipments/{}", text(&row["id"]));
            let sent = send_to(&api, &shipment, Uuid::from_u128(id), jpeg(side)).await;
            assert_eq!(sent.0, StatusCode::OK, "{}", sent.1);
        }
        another_studio(&api).await;
        let ids = sqlx::query_scalar("SELECT id FROM studio ORDER BY name = '', id");
        let ids: Vec<Uuid> = ids.fetch_all(self.pool).await.expect("studios");
        ids.try_into().expect("two of them")
    }

    /// Does what the command line says.
    async fn told(&self, words: &[&str]) -> Result<(), String> {
        let mut all: Vec<OsString> = ["hummock"]
            .iter()
            .chain(words)
            .map(OsString::from)
            .collect();
        if words[0] != "verify" {
            all.extend([
                "--database-url".into(),
                url_of(&self.pool.connect_options()).into(),
            ]);
        }
        if words[0] == "restore" {
            all.extend(["--start-with".into(), demo().into()]);
            all.extend(["--photographs".into(), self.at("restored").into()]);
        }
        if words[0] == "backup" {
            all.extend(["--today".into(), "2027-03-04".into()]);
            all.extend(["--photographs".into(), self.at("photographs").into()]);
        }
        if words[0] != "passphrase" {
            all.extend(["--documents".into(), documents_program().into()]);
        }
        let done = command_of(all, page).await;
        done.map_err(|error| format!("{error:#}"))
    }

    async fn emptied(&self) {
        let emptied = sqlx::query("DELETE FROM studio").execute(self.pool).await;
        emptied.expect("it is emptied");
    }

    async fn photographs(&self) -> i64 {
        let count = sqlx::query_scalar("SELECT count(*) FROM photograph");
        count.fetch_one(self.pool).await.expect("a count")
    }
}

async fn another_studio(api: &Api) {
    let begun = api.client.post(format!("{}/api/v1/studios", api.base));
    let begun = begun.send().await.expect("an answer");
    assert_eq!(begun.status(), StatusCode::CREATED);
    let cookie = begun.headers()["set-cookie"].to_str().expect("text");
    let cookie = cookie.split(';').next().expect("a pair").to_owned();
    let made = api
        .client
        .post(format!("{}/api/v1/shipments", api.base))
        .header("cookie", cookie)
        .json(&json!({ "inputs": { "piece": canvas() } }));
    let (status, made) = answer(made.send().await.expect("an answer")).await;
    assert_eq!(status, StatusCode::CREATED, "{made}");
}

/// The files of a folder and of those in it, each with when it was written.
fn files(folder: &Path) -> BTreeMap<String, std::time::SystemTime> {
    let mut found = BTreeMap::new();
    for entry in walk(folder) {
        let name = entry.strip_prefix(folder).expect("it is in it");
        let written = std::fs::metadata(&entry).and_then(|found| found.modified());
        found.insert(name.display().to_string(), written.expect("a time"));
    }
    found
}

/// How many of the files are photographs.
fn photographs(folder: &Path) -> usize {
    let all = files(folder);
    all.keys().filter(|name| name.ends_with(".jpg")).count()
}

fn walk(folder: &Path) -> Vec<PathBuf> {
    let entries = std::fs::read_dir(folder).expect("a folder");
    entries
        .map(|entry| entry.expect("an entry").path())
        .flat_map(|path| match path.is_dir() {
            true => walk(&path),
            false => vec![path],
        })
        .collect()
}

/// A picture is copied once, however many photographs and backups it is of, and comes back from the folder. Kills a backup that copies
/// what is there, one that leaves the other studio out, and a restore that looks in the file alone.
#[test_context(Demo)]
#[tokio::test]
async fn every_studio_is_saved_and_each_picture_once(Demo(database): &Demo) {
    let folder = tempfile::tempdir().expect("a folder");
    let machine = Machine {
        pool: database.pool(),
        folder,
    };
    let [own, other] = machine.with_two_studios().await;
    let backups = machine.at("backups");
    let into = backups.to_str().expect("text");
    machine
        .told(&["backup", "--all", into])
        .await
        .expect("saved");
    let first = files(&backups);
    let file = |studio: Uuid| format!("hummock-{studio}-2027-03-04.zip");
    for studio in [own, other] {
        assert!(first.contains_key(&file(studio)), "{first:?}");
        assert!(
            first.contains_key(&format!("{}.pictures", file(studio))),
            "{first:?}"
        );
    }
    let pictures = |files: &BTreeMap<String, std::time::SystemTime>| {
        let copied = files.clone().into_iter();
        copied
            .filter(|(name, _)| name.starts_with("pictures/") && name.ends_with(".jpg"))
            .collect::<Vec<_>>()
    };
    assert_eq!(pictures(&first).len(), 2);
    machine
        .told(&["backup", "--all", into])
        .await
        .expect("saved");
    assert_eq!(pictures(&files(&backups)), pictures(&first));

    let saved = backups.join(file(own));
    let saved = saved.to_str().expect("text");
    machine.told(&["verify", saved]).await.expect("it is whole");
    // A browser has the file alone.
    machine.emptied().await;
    let empty = Api::start(machine.pool, false).await;
    let read = crate::backup::bring_in(&empty, &std::fs::read(saved).expect("a file")).await;
    assert!(
        text(&read["failed"]).contains("`hummock restore`"),
        "{read}"
    );
    drop(empty);
    machine.emptied().await;
    machine
        .told(&["restore", saved])
        .await
        .expect("it is read in");
    assert_eq!(machine.photographs().await, 3);
    assert_eq!(photographs(&machine.at("restored")), 3);

    // A picture that was changed is told, and one whose folder is gone is asked for.
    let (changed, _) = &pictures(&first)[0];
    std::fs::write(backups.join(changed), "no picture").expect("it is written");
    let says = machine
        .told(&["verify", saved])
        .await
        .expect_err("it is broken");
    assert!(says.contains("missing or broken"), "{says}");
    std::fs::remove_dir_all(backups.join("pictures")).expect("it is there");
    machine.emptied().await;
    let says = machine
        .told(&["restore", saved])
        .await
        .expect_err("they are gone");
    assert!(says.contains("--without-broken"), "{says}");
    assert_eq!(machine.photographs().await, 0);
    machine
        .told(&["restore", "--without-broken", saved])
        .await
        .expect("it is read in");
    assert_eq!(machine.photographs().await, 3);
}

#[test_context(Demo)]
#[tokio::test]
async fn sealed_pictures_come_back_by_their_passphrase_alone(Demo(database): &Demo) {
    let folder = tempfile::tempdir().expect("a folder");
    let machine = Machine {
        pool: database.pool(),
        folder,
    };
    let [own, _] = machine.with_two_studios().await;
    let (backups, passphrase) = (machine.at("backups"), machine.at("passphrase"));
    let (into, by) = (
        backups.to_str().expect("text"),
        passphrase.to_str().expect("text"),
    );
    let name = |words: &str| std::fs::write(&passphrase, words).expect("a file");
    let save = async || {
        machine
            .told(&["backup", "--all", "--passphrase-file", by, into])
            .await
    };
    name("three terns on a sill\n");
    save().await.expect("saved");
    let saved = backups.join(format!("hummock-{own}-2027-03-04.zip.age"));
    let kept = std::fs::read(&saved).expect("a file");
    for (file, _) in files(&backups)
        .iter()
        .filter(|(file, _)| file.contains("pictures-sealed/"))
    {
        let bytes = std::fs::read(backups.join(file)).expect("it is there");
        assert!(bytes.starts_with(b"age-encryption.org/v1"), "{file}");
    }
    // Another passphrase begins another folder; what the former one sealed stays as it is.
    name("two herons\n");
    save().await.expect("saved");
    let there = files(&backups);
    for album in ["pictures-sealed", "pictures-sealed-2"] {
        let many = there
            .keys()
            .filter(|file| file.starts_with(&format!("{album}/")))
            // Whether what left has its record by now is another matter.
            .filter(|file| !file.contains(".json.zst"))
            .count();
        assert_eq!(many, 3, "a key and two pictures in {album}");
    }
    machine.emptied().await;
    let saved = saved.to_str().expect("text");
    let restore = async || {
        machine
            .told(&["restore", "--passphrase-file", by, saved])
            .await
    };
    name("three terns on a sill\n");
    let says = restore()
        .await
        .expect_err("it is sealed by another one by now");
    assert!(says.contains("wrong passphrase"), "{says}");
    std::fs::write(saved, kept).expect("it is written");
    restore().await.expect("it is read in");
    assert_eq!(machine.photographs().await, 3);
    assert_eq!(photographs(&machine.at("restored")), 3);
}

/// A studio that can't be read is told on its own page, and the others are saved and follow their house.
#[test_context(Demo)]
#[tokio::test]
async fn one_studio_that_can_not_be_read_keeps_no_other_from_anything(Demo(database): &Demo) {
    let folder = tempfile::tempdir().expect("a folder");
    let machine = Machine {
        pool: database.pool(),
        folder,
    };
    let [own, other] = machine.with_two_studios().await;
    let pool = machine.pool;
    for damage in [
        "UPDATE house_rules SET rules = '[]' WHERE studio_id = $1",
        "UPDATE shipment SET plan_edition = 0 WHERE studio_id <> $1 AND handed IS NULL",
    ] {
        sqlx::query(damage)
            .bind(other)
            .execute(pool)
            .await
            .expect("done");
    }
    let backups = machine.at("backups");
    let api = Api::start_with(pool, true, |options| {
        let nightly = Nightly::into(backups.clone(), None).expect("a folder");
        options.nightly = Some(nightly.looking_every(std::time::Duration::from_millis(20)));
        options.pictures = Pictures::in_folder(machine.at("photographs")).expect("a folder");
    })
    .await;
    let behind = async || -> i64 {
        let behind = "SELECT count(*) FROM shipment WHERE studio_id = $1 AND plan_edition = 0";
        sqlx::query_scalar(behind)
            .bind(own)
            .fetch_one(pool)
            .await
            .expect("a count")
    };
    while behind().await > 0 {
        tokio::task::yield_now().await;
    }
    let saved = backups.join(format!("hummock-{own}-2027-03-04.zip"));
    while !saved.exists() {
        tokio::task::yield_now().await;
    }
    assert_eq!(
        api.get("/api/v1/studio/backup").await["nightly"]["failed"],
        Value::Null
    );
    assert!(
        !backups
            .join(format!("hummock-{other}-2027-03-04.zip"))
            .exists()
    );
}

#[test_context(Demo)]
#[tokio::test]
async fn a_passphrase_made_on_the_machine_takes_the_place_of_the_former_one(Demo(database): &Demo) {
    let folder = tempfile::tempdir().expect("a folder");
    let machine = Machine {
        pool: database.pool(),
        folder,
    };
    let kept = async || -> Vec<String> {
        let hashes = sqlx::query_scalar("SELECT hash FROM passphrase");
        hashes.fetch_all(machine.pool).await.expect("hashes")
    };
    assert_eq!(kept().await.len(), 0);
    machine.told(&["passphrase"]).await.expect("it is made");
    let first = kept().await;
    machine.told(&["passphrase"]).await.expect("it is made");
    let second = kept().await;
    assert_eq!((first.len(), second.len()), (1, 1));
    assert_ne!(first, second);
    let says = machine.told(&["passphrase", "--studio", "Nowhere"]).await;
    assert!(says.expect_err("there is none").contains("Nowhere"));
}

/// Plans are long: reading them all would keep the program from listening. Kills a statement of the start that reads what was worked out.
#[test_context(Demo)]
#[tokio::test]
async fn a_start_reads_no_plan(Demo(database): &Demo) {
    let pool = database.pool();
    let rename = async |from: &str, to: &str| {
        let renamed = format!("ALTER TABLE shipment RENAME COLUMN {from} TO {to}");
        sqlx::query(sqlx::AssertSqlSafe(renamed))
            .execute(pool)
            .await
            .expect("renamed");
    };
    rename("worked", "hidden").await;
    let api = Api::start(pool, true).await;
    let (status, _) = answer(
        api.client
            .get(format!("{}/api/v1/studio", api.base))
            .send()
            .await
            .expect("an answer"),
    )
    .await;
    assert_eq!(status, StatusCode::OK);
    rename("hidden", "worked").await;
    assert_ne!(api.rows().await, json!([]));
}

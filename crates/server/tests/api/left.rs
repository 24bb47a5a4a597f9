//! What has left stays as it went: its handover record holds it, whatever becomes of the house, its prices and the program.

use std::path::{Path, PathBuf};

use hummock_server::Pictures;
use proptest::{prelude::*, strategy::ValueTree, test_runner::TestRunner};
use test_context::test_context;

use super::{
    backup::{bring_in, empty, made},
    leaving::{at, bytes, change, documents, ready, words},
    *,
};

/// What is asked of a parcel, and answered from its handover record.
const ASKED: [&str; 6] = ["", "/leaving", "/after", "/as-it-left", "/again", "/shelf"];
/// Its papers.
const PAPERS: [&str; 8] = [
    "/pack-sheet",
    "/unpacking-guide",
    "/papers/marks",
    "/papers/slip",
    "/papers/certificate",
    "/papers/addresses",
    "/papers/crating",
    "/papers/condition",
];

/// With pictures in a folder, and a program that makes documents.
async fn start(pool: &PgPool, folder: &Path) -> Api {
    Api::start_with(pool, true, |options| {
        options.pictures = Pictures::in_folder(folder).expect("a folder");
        options.documents = documents();
    })
    .await
}

/// Everything that is answered of a parcel.
async fn answers(api: &Api, shipment: &Value) -> Vec<(&'static str, Value)> {
    let mut all = Vec::new();
    for asked in ASKED {
        all.push((asked, api.get(&at(shipment, asked)).await));
    }
    all
}

async fn papers(api: &Api, shipment: &Value) -> Vec<(&'static str, String)> {
    let mut all = Vec::new();
    for paper in PAPERS {
        let (status, document) = bytes(api, &at(shipment, paper)).await;
        assert_eq!(status, StatusCode::OK, "{paper}");
        all.push((paper, words(&document)));
    }
    all
}

async fn hand_over(api: &Api, shipment: &Value) -> Value {
    let gone = json!({ "sending": { "handed_over": "2027-03-04" } });
    let (status, left) = change(api, shipment, gone).await;
    assert_eq!(
        (status, &left["place"]),
        (StatusCode::OK, &json!("sent")),
        "{left}"
    );
    left
}

async fn take_back(api: &Api, shipment: &Value) -> Value {
    let here = json!({ "sending": { "handed_over": null } });
    let (status, here) = change(api, shipment, here).await;
    assert_eq!(
        (status, &here["place"]),
        (StatusCode::OK, &json!("bench")),
        "{here}"
    );
    here
}

/// Something that happens to a studio after a parcel has left.
#[derive(Debug, Clone, Copy)]
enum Happens {
    /// Its house rules change.
    Rules(u8),
    /// A material gets heavier and dearer.
    Material(u8),
    /// Its carrier gets dearer and hears of damage for a shorter time.
    Tariff(u8),
    /// It moves and is called otherwise.
    Sender(u8),
    /// Its program is replaced by one that plans otherwise.
    Edition,
    /// Another parcel is edited, leaves and comes back.
    Another,
    /// The server is started anew.
    Restart,
    /// It is put into the archive and taken out of it.
    Archive,
}

fn happens() -> impl Strategy<Value = Happens> {
    prop_oneof![
        (1..40_u8).prop_map(Happens::Rules),
        (1..40_u8).prop_map(Happens::Material),
        (1..40_u8).prop_map(Happens::Tariff),
        (1..40_u8).prop_map(Happens::Sender),
        Just(Happens::Edition),
        Just(Happens::Another),
        Just(Happens::Restart),
        Just(Happens::Archive),
    ]
}

async fn put(api: &Api, path: &str, body: Value) {
    let (status, said) = api.put(path, body).await;
    assert!(status.is_success(), "{path}: {said}");
}

impl Happens {
    async fn to(self, mut api: Api, pool: &PgPool, folder: &Path, shipment: &Value) -> Api {
        match self {
            Self::Rules(by) => {
                let mut rules = api.get("/api/v1/studio").await["rules"].take();
                rules["allowances"]["clearance_mm"] = json!(f64::from(by));
                put(&api, "/api/v1/studio/rules", json!({ "rules": rules })).await;
            }
            Self::Material(by) => {
                let stores = api.get("/api/v1/stores").await;
                let mut wrap = stores["catalogue"]["cushion_wraps"][0].clone();
                wrap["gsm"] = json!(20.0 + f64::from(by));
                let path = format!("/api/v1/stores/cushion_wraps/{}", text(&wrap["id"]));
                let asked = json!({ "version": stores["version"], "material": wrap });
                put(&api, &path, asked).await;
            }
            Self::Tariff(by) => {
                let path = "/api/v1/tariffs/gannet-post";
                let all = api.get("/api/v1/tariffs").await;
                let mut all = all.as_array().expect("a list").iter();
                let known = all.find(|one| one["tariff"]["id"] == "gannet-post");
                let known = known.expect("it is there").clone();
                let mut tariff = known["tariff"].clone();
                tariff["claims"] = json!({ "damage_days": by, "loss_days": by });
                tariff["carrier"] = json!(format!("Gannet Post {by}"));
                let asked = json!({ "version": known["version"], "tariff": tariff });
                put(&api, path, asked).await;
            }
            Self::Sender(by) => {
                let mut sender = api.get("/api/v1/studio/sender").await;
                sender["name"] = json!(format!("Studio {by}"));
                sender["sender"]["address"]["street"] = json!(format!("{by} New Quay"));
                let fields = sender.as_object_mut().expect("fields");
                fields.remove("has_mark");
                fields.remove("countries");
                put(&api, "/api/v1/studio/sender", sender).await;
            }
            Self::Edition => {
                sqlx::query("UPDATE shipment SET plan_edition = 0, house_version = 0 WHERE handed IS NOT NULL")
                    .execute(pool)
                    .await
                    .expect("it is older");
            }
            Self::Another => {
                let other = ready(&api, "XS").await;
                hand_over(&api, &other).await;
                take_back(&api, &other).await;
            }
            Self::Restart => {
                drop(api);
                api = start(pool, folder).await;
            }
            Self::Archive => {
                for place in ["archive", "bench"] {
                    put(&api, &at(shipment, "/place"), json!({ "place": place })).await;
                }
            }
        }
        api
    }
}

/// It fails where rework forgets that a parcel has left, and where a page or a paper asks the house of today.
#[test_context(Demo)]
#[tokio::test]
async fn whatever_happens_what_has_left_is_told_as_it_was(Demo(database): &Demo) {
    let (pool, folder) = (database.pool(), tempfile::tempdir().expect("a folder"));
    let mut api = start(pool, folder.path()).await;
    let mut random = TestRunner::deterministic();
    // Each happens once, then as it comes.
    let first = [
        Happens::Rules(31),
        Happens::Material(29),
        Happens::Tariff(23),
        Happens::Sender(19),
        Happens::Edition,
        Happens::Another,
        Happens::Archive,
        Happens::Restart,
    ];
    let drawn = prop::collection::vec(happens(), 16);
    let drawn = drawn.new_tree(&mut random).expect("a history").current();
    let left = ready(&api, "XS").await;
    hand_over(&api, &left).await;
    let (told, printed) = (answers(&api, &left).await, papers(&api, &left).await);
    for happens in first.into_iter().chain(drawn) {
        api = happens.to(api, pool, folder.path(), &left).await;
        for (before, now) in told.iter().zip(answers(&api, &left).await) {
            let (asked, then) = before;
            let changed = told_otherwise(then, &now.1);
            assert!(changed.is_empty(), "{asked} after {happens:?}: {changed:?}");
        }
    }
    assert_eq!(papers(&api, &left).await, printed);
    // Counting in other money from now on, too.
    let money = json!({ "currency": "USD", "rate": "1.08" });
    put(&api, "/api/v1/studio/settings", money).await;
    for (before, now) in told.iter().zip(answers(&api, &left).await) {
        let changed = told_otherwise(&before.1, &now.1);
        assert!(changed.is_empty(), "{} in dollars: {changed:?}", before.0);
    }
}

/// The places at which an answer says something else than it did.
fn told_otherwise(then: &Value, now: &Value) -> Vec<String> {
    /// What counts on, and what looks at the day.
    const MAY: [&str; 2] = ["version", "line"];
    fn look(then: &Value, now: &Value, at: &str, found: &mut Vec<String>) {
        match (then, now) {
            (Value::Object(then), Value::Object(now)) => {
                for (key, value) in then.iter().filter(|(key, _)| !MAY.contains(&key.as_str())) {
                    let at = format!("{at}.{key}");
                    look(value, now.get(key).unwrap_or(&Value::Null), &at, found);
                }
            }
            _ if then == now => {}
            _ => found.push(format!("{at}: {then} is {now}")),
        }
    }
    let mut found = Vec::new();
    look(then, now, "", &mut found);
    found
}

/// Where the records of a parcel lie.
fn records(folder: &Path, shipment: &Value) -> Vec<PathBuf> {
    let studio = std::fs::read_dir(folder)
        .expect("a folder")
        .flatten()
        .next();
    let Some(studio) = studio else {
        return Vec::new();
    };
    let records = std::fs::read_dir(studio.path().join("handover-records"));
    let records = records
        .into_iter()
        .flatten()
        .flatten()
        .map(|record| record.path());
    let its = |record: &PathBuf| record.to_string_lossy().contains(&text(&shipment["id"]));
    records.filter(its).collect()
}

#[test_context(Demo)]
#[tokio::test]
async fn undo_ends_when_it_leaves_and_goes_on_where_it_was_once_it_is_back(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let shipment = ready(&api, "XS").await;
    let (_, named) = change(&api, &shipment, json!({ "title": "Slack Tide II" })).await;
    assert_eq!(named["can_undo"], true);
    let left = hand_over(&api, &shipment).await;
    assert_eq!(
        (&left["can_undo"], &left["can_redo"]),
        (&json!(false), &json!(false))
    );
    let asked = json!({ "version": left["version"] });
    let (status, problem) = api.post(&at(&shipment, "/undo"), asked).await;
    assert_eq!(status, StatusCode::CONFLICT, "{problem}");
    assert_eq!(problem["type"], "/problems/no-state");
    // What comes of it is written down, and there is still nothing to go back to.
    let (_, arrived) = change(
        &api,
        &shipment,
        json!({ "after": { "outcome": "arrived" } }),
    )
    .await;
    assert_eq!(
        (&arrived["can_undo"], &arrived["handed"]),
        (&json!(false), &left["handed"])
    );
    let here = take_back(&api, &shipment).await;
    assert_eq!(
        (&here["handed"], &here["left"]),
        (&Value::Null, &Value::Null)
    );
    assert_eq!(
        (&here["can_undo"], &here["inputs"]["title"]),
        (&json!(true), &json!("Slack Tide II"))
    );
    let undo = async |version: &Value| {
        let asked = json!({ "version": version });
        api.post(&at(&shipment, "/undo"), asked).await.1
    };
    // The state before it left, and the one before that.
    let before = undo(&here["version"]).await;
    assert_eq!(
        (&before["place"], &before["inputs"]["title"]),
        (&json!("bench"), &json!("Slack Tide II"))
    );
    let first = undo(&before["version"]).await;
    assert_eq!(
        (&first["inputs"]["title"], &first["can_undo"]),
        (&json!("Slack Tide"), &json!(false))
    );
}

#[test_context(Demo)]
#[tokio::test]
async fn each_time_that_it_leaves_has_a_record_of_its_own(Demo(database): &Demo) {
    let folder = tempfile::tempdir().expect("a folder");
    let api = start(database.pool(), folder.path()).await;
    let shipment = ready(&api, "XS").await;
    let left = hand_over(&api, &shipment).await;
    assert_eq!(left["left"]["record"], "whole", "{left}");
    assert_eq!(records(folder.path(), &shipment).len(), 1);
    let (worked, states): (Option<Value>, i64) = sqlx::query_as(
        "SELECT worked, (SELECT count(*) FROM shipment_state WHERE shipment_id = id) FROM shipment WHERE id = $1",
    )
    .bind(text(&shipment["id"]).parse::<uuid::Uuid>().expect("an id"))
    .fetch_one(database.pool())
    .await
    .expect("a row");
    assert_eq!((worked, states), (None, 1));
    take_back(&api, &shipment).await;
    change(&api, &shipment, json!({ "choices": { "first_turns": 3 } })).await;
    let again = hand_over(&api, &shipment).await;
    assert_eq!(records(folder.path(), &shipment).len(), 2);
    assert_ne!(
        again["worked"]["fingerprint"],
        left["worked"]["fingerprint"]
    );
}

#[test_context(Demo)]
#[tokio::test]
async fn a_record_that_is_gone_or_changed_is_said_and_the_log_still_tells_of_it(
    Demo(database): &Demo,
) {
    let folder = tempfile::tempdir().expect("a folder");
    let mut api = start(database.pool(), folder.path()).await;
    let shipment = ready(&api, "XS").await;
    let left = hand_over(&api, &shipment).await;
    let [record] = records(folder.path(), &shipment)
        .try_into()
        .expect("one record");
    let whole = std::fs::read(&record).expect("its bytes");
    let half = whole[..whole.len() / 2].to_vec();
    for (bytes, stands) in [
        (Some(half), "broken"),
        (None, "missing"),
        (Some(whole), "whole"),
    ] {
        drop(api);
        match &bytes {
            Some(bytes) => std::fs::write(&record, bytes).expect("it is written"),
            None => std::fs::remove_file(&record).expect("it is gone"),
        }
        api = start(database.pool(), folder.path()).await;
        let now = api.get(&at(&shipment, "")).await;
        assert_eq!(now["left"]["record"], stands);
        assert_eq!(now["summary"], left["summary"]);
        for (field, then) in left["handed"].as_object().expect("fields") {
            // How it is unpacked is in the record alone.
            let known = stands == "whole" || field != "unpacking";
            assert_eq!(now["handed"][field] == *then, known, "{field}");
        }
        assert_eq!(
            now["worked"]["plan"] == left["worked"]["plan"],
            stands == "whole"
        );
        for asked in ["/leaving", "/after", "/as-it-left"] {
            api.get(&at(&shipment, asked)).await;
        }
        let log = api.get("/api/v1/log").await;
        assert_eq!(log["rows"][0]["title"], "Slack Tide", "{log}");
    }
}

/// What was printed lies in the box: it is given again as it was, by a program that can draw nothing.
#[test_context(Demo)]
#[tokio::test]
async fn a_paper_that_was_printed_is_kept_as_it_was_printed(Demo(database): &Demo) {
    let (pool, folder) = (database.pool(), tempfile::tempdir().expect("a folder"));
    let mut api = start(pool, folder.path()).await;
    let shipment = ready(&api, "XS").await;
    let print = async |api: &Api, paper: &str| bytes(api, &at(&shipment, paper)).await;
    // One that was printed for another buyer is not the parcel's.
    let (status, _) = print(&api, "/papers/addresses").await;
    assert_eq!(status, StatusCode::OK);
    change(
        &api,
        &shipment,
        json!({ "buyer": { "street": "9 Staithe Lane" } }),
    )
    .await;
    let papers = ["/papers/slip", "/papers/marks", "/pack-sheet"];
    let mut printed = Vec::new();
    for paper in papers {
        let (status, document) = print(&api, paper).await;
        assert_eq!(status, StatusCode::OK, "{paper}");
        printed.push(document);
    }
    // It is weighed and ticked after that.
    change(&api, &shipment, json!({ "parcel": { "weight": "2.4 kg" } })).await;
    hand_over(&api, &shipment).await;
    drop(api);
    api = Api::start_with(pool, true, |options| {
        options.pictures = Pictures::in_folder(folder.path()).expect("a folder");
        options.documents = hummock_server::Documents::by("nowhere".into());
    })
    .await;
    for (paper, before) in papers.into_iter().zip(printed) {
        let (status, document) = print(&api, paper).await;
        assert_eq!(
            (status, document == before),
            (StatusCode::OK, true),
            "{paper}"
        );
    }
    let (status, _) = print(&api, "/papers/addresses").await;
    assert_eq!(status, StatusCode::SERVICE_UNAVAILABLE);
}

/// What left before there were records is in its row alone, planned by an earlier edition.
#[test_context(Demo)]
#[tokio::test]
async fn what_left_before_there_were_records_is_kept_as_it_is_stored(Demo(database): &Demo) {
    let (pool, folder) = (database.pool(), tempfile::tempdir().expect("a folder"));
    let api = start(pool, folder.path()).await;
    let shipment = ready(&api, "XS").await;
    let left = hand_over(&api, &shipment).await;
    drop(api);
    let mut worked = left["worked"].clone();
    worked["edition"] = json!(3);
    worked["plan"]["tally"]["weight"]["mass_g"] = json!(4321.0);
    sqlx::query("UPDATE shipment SET worked = $1, record = NULL, plan_edition = 3, house_version = 0 WHERE title = 'Slack Tide'")
        .bind(&worked)
        .execute(pool)
        .await
        .expect("it is as it was before");
    let api = start(pool, folder.path()).await;
    let now = api.get(&at(&shipment, "")).await;
    assert_eq!(now["worked"], worked);
    assert_eq!(
        now["left"],
        json!({ "record": "whole", "edition": 3, "earlier": true })
    );
    // What says nothing of the plan is printed, and what does is not made up.
    for (paper, there) in [("slip", true), ("addresses", true), ("crating", false)] {
        let (status, _) = bytes(&api, &at(&shipment, &format!("/papers/{paper}"))).await;
        assert_eq!(status == StatusCode::OK, there, "{paper}: {status}");
    }
    let (status, _) = bytes(&api, &at(&shipment, "/pack-sheet")).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
    let (status, _) = bytes(&api, &at(&shipment, "/unpacking-guide")).await;
    assert_eq!(status, StatusCode::OK);
    assert_eq!(
        api.get(&at(&shipment, "/as-it-left")).await["packing"],
        Value::Null
    );
}

#[test_context(Demo)]
#[tokio::test]
async fn a_program_killed_before_it_wrote_the_row_ends_its_work_at_the_next_start(
    Demo(database): &Demo,
) {
    let (pool, folder) = (database.pool(), tempfile::tempdir().expect("a folder"));
    let api = start(pool, folder.path()).await;
    let shipment = ready(&api, "XS").await;
    let left = hand_over(&api, &shipment).await;
    drop(api);
    // As it stands between the file and the row: handed over, its plan in the row, its record in nobody's.
    sqlx::query("UPDATE shipment SET worked = $1, record = NULL WHERE title = 'Slack Tide'")
        .bind(&left["worked"])
        .execute(pool)
        .await
        .expect("it is as it was");
    let api = start(pool, folder.path()).await;
    // It is written without anybody asking for it.
    loop {
        let open: i64 = sqlx::query_scalar(
            "SELECT count(*) FROM shipment WHERE handed IS NOT NULL AND record IS NULL",
        )
        .fetch_one(pool)
        .await
        .expect("a count");
        if open == 0 {
            break;
        }
        tokio::task::yield_now().await;
    }
    assert_eq!(api.get(&at(&shipment, "")).await["worked"], left["worked"]);
}

#[test_context(Demo)]
#[tokio::test]
async fn a_backup_carries_records_and_says_which_of_them_are_broken(Demo(database): &Demo) {
    let (pool, folder) = (database.pool(), tempfile::tempdir().expect("a folder"));
    let api = start(pool, folder.path()).await;
    let shipment = ready(&api, "XS").await;
    let gone = ready(&api, "XS").await;
    hand_over(&api, &shipment).await;
    hand_over(&api, &gone).await;
    let told = answers(&api, &shipment).await;
    let [lost] = records(folder.path(), &gone)
        .try_into()
        .expect("one record");
    std::fs::remove_file(lost).expect("it is gone");
    let file = made(&api).await;
    let state = api.get("/api/v1/studio/backup").await;
    let broken = &state["made"]["broken"];
    assert_eq!(broken[0]["what"], "handover_record", "{state}");
    assert_eq!(broken[0]["shipment"], gone["id"]);
    drop(api);
    let api = empty(pool).await;
    bring_in(&api, &file).await;
    for (before, now) in told.iter().zip(answers(&api, &shipment).await) {
        // It speaks to no carrier before somebody says so.
        let mut now = now.1;
        if let Some(held) = now.get_mut("held") {
            *held = json!(false);
        }
        let changed = told_otherwise(&before.1, &now);
        assert!(changed.is_empty(), "{}: {changed:?}", before.0);
    }
    assert_eq!(api.get(&at(&gone, "")).await["left"]["record"], "missing");
}

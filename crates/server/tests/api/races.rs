//! What the server promises while several people, and several processes, change the same things at once.

use std::sync::Arc;

use hummock_core::shipment::{House, ShipmentInputs, Workings};
use hummock_server::STUDIO;
use hummock_store::{Place, Sort, Store, Wanted};
use jiff::civil::date;
use proptest::{prelude::*, strategy::ValueTree, test_runner::TestRunner};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};
use sqlx::PgPool;
use test_context::test_context;
use uuid::Uuid;

use crate::{Api, Demo, NoShipments, canvas, text};

/// Waits until no plan on the bench is behind the house.
async fn caught_up(api: &Api) {
    loop {
        if api.get("/api/v1/studio/progress").await["behind"] == 0 {
            return;
        }
        tokio::task::yield_now().await;
    }
}

/// Fails unless every plan that is stored is the one that its inputs and the house as it is lead to.
async fn nothing_is_stale(pool: &PgPool, after: &str) {
    let store = Store::over(pool.clone());
    let studio = store.studio_named(STUDIO).await.expect("it answers");
    let store = store.of(studio.expect("a studio"));
    let mut house: House = store.house(Arc::default()).await.expect("a house").house;
    // By the minute at which the server's clock stands.
    house.now = Some(date(2027, 3, 4).at(9, 0, 0, 0));
    let rows: Vec<(Uuid, Value, Value)> = sqlx::query_as(
        "SELECT shipment.id, inputs, worked FROM shipment
         JOIN shipment_state ON shipment_id = shipment.id AND state = at_state WHERE place = 'bench'",
    )
    .fetch_all(pool)
    .await
    .expect("rows");
    assert!(!rows.is_empty());
    for (id, inputs, stored) in rows {
        let inputs = ShipmentInputs::from_stored(1, inputs);
        let anew = serde_json::to_value(Workings::out_or_refused(&inputs, &house)).expect("JSON");
        assert_eq!(stored, anew, "shipment {id} is stale after {after}");
    }
}

/// Something that one of two writers does.
#[derive(Debug, Clone, Copy)]
enum Writer {
    Rules(u32),
    Material(u32),
    Preset,
    Create,
    Edit,
    Undo,
    PutAway,
    Look,
}

impl Writer {
    /// Does it, as a person would: based on what stands there, and again when told that it changed.
    async fn write(self, api: &Api, id: &str) {
        loop {
            match self.try_to(api, id).await {
                StatusCode::CONFLICT => {}
                status if status.is_success() => return,
                status => panic!("{self:?} is answered with {status}"),
            }
        }
    }

    async fn try_to(self, api: &Api, id: &str) -> StatusCode {
        let version = async || api.get(&format!("/api/v1/shipments/{id}")).await["version"].clone();
        let path = |end: &str| format!("/api/v1/shipments/{id}{end}");
        match self {
            Self::Rules(turns) => {
                let mut rules = api.get("/api/v1/studio").await["rules"].take();
                rules["allowances"]["first_turns"] = turns.into();
                let asked = json!({ "rules": rules });
                api.put("/api/v1/studio/rules", asked).await.0
            }
            Self::Material(price) => {
                let stores = api.get("/api/v1/stores").await;
                let mut wrap = stores["catalogue"]["cushion_wraps"][0].clone();
                wrap["price_per_m"] = format!("0.{price}").into();
                let at = format!("/api/v1/stores/cushion_wraps/{}", text(&wrap["id"]));
                let asked = json!({ "version": stores["version"], "material": wrap });
                api.put(&at, asked).await.0
            }
            Self::Preset => {
                let mut rules = api.get("/api/v1/studio").await["rules"].take();
                rules["name"] = "Show week".into();
                rules["allowances"]["second_turns"] = 3.into();
                let asked = json!({ "rules": rules });
                let request = api
                    .client
                    .post(format!("{}/api/v1/studio/presets", api.base));
                request
                    .json(&asked)
                    .send()
                    .await
                    .expect("an answer")
                    .status()
            }
            Self::Create => {
                let inputs = json!({ "piece": canvas(), "choices": { "preset": "Show week" } });
                api.post("/api/v1/shipments", json!({ "inputs": inputs }))
                    .await
                    .0
            }
            Self::Edit => {
                let change = json!({ "piece": { "depth": "41 mm" }, "title": Uuid::now_v7() });
                let asked = json!({ "version": version().await, "change": change });
                api.patch(&path(""), asked).await.0
            }
            Self::Undo => {
                let asked = json!({ "version": version().await });
                let (status, problem) = api.post(&path("/undo"), asked).await;
                if problem["type"] == "/problems/no-state" {
                    return StatusCode::OK;
                }
                status
            }
            Self::PutAway => {
                api.put(&path("/place"), json!({ "place": "archive" }))
                    .await;
                api.put(&path("/place"), json!({ "place": "bench" }))
                    .await
                    .0
            }
            Self::Look => {
                api.rows().await;
                StatusCode::OK
            }
        }
    }
}

const WRITERS: [Writer; 8] = [
    Writer::Rules(3),
    Writer::Material(31),
    Writer::Preset,
    Writer::Create,
    Writer::Edit,
    Writer::Undo,
    Writer::PutAway,
    Writer::Look,
];

async fn made(api: &Api) -> String {
    let inputs = json!({ "title": "Kelp Ladder", "piece": canvas(), "buyer": { "country": "XS" } });
    let (status, view) = api
        .post("/api/v1/shipments", json!({ "inputs": inputs }))
        .await;
    assert_eq!(status, StatusCode::CREATED, "{view}");
    text(&view["id"])
}

#[test_context(Demo)]
#[tokio::test]
async fn no_two_writers_leave_a_plan_that_follows_neither(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let id = made(&api).await;
    for (place, one) in WRITERS.into_iter().enumerate() {
        for other in &WRITERS[place..] {
            tokio::join!(one.write(&api, &id), other.write(&api, &id));
            caught_up(&api).await;
            nothing_is_stale(database.pool(), &format!("{one:?} beside {other:?}")).await;
        }
    }
}

#[test_context(Demo)]
#[tokio::test]
async fn whatever_many_writers_do_and_whichever_process_dies_no_plan_is_stale(
    Demo(database): &Demo,
) {
    let mut runner = TestRunner::deterministic();
    let writer = prop_oneof![
        (1_u32..4).prop_map(Writer::Rules),
        (10_u32..90).prop_map(Writer::Material),
        prop::sample::select(WRITERS.to_vec()),
    ];
    let crowd = prop::collection::vec(writer, 2..6);
    let survivor = Api::start(database.pool(), true).await;
    let id = made(&survivor).await;
    for _ in 0..4 {
        let crowd = crowd.new_tree(&mut runner).expect("a crowd").current();
        // A second process on the same database, which dies half-way without a word.
        let other = Api::start(database.pool(), false).await;
        let writing = crowd.iter().enumerate().map(|(place, writer)| {
            let api = if place % 2 == 0 { &survivor } else { &other };
            writer.write(api, &id)
        });
        futures_util::future::join_all(writing).await;
        drop(other);
        caught_up(&survivor).await;
        nothing_is_stale(database.pool(), &format!("{crowd:?}")).await;
    }
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_shipment_that_is_behind_is_worked_out_before_it_is_shown(
    NoShipments(database): &NoShipments,
) {
    let api = Api::start(database.pool(), false).await;
    let id = made(&api).await;
    let seen = api.get(&format!("/api/v1/shipments/{id}")).await;
    // As a process leaves it that was killed between a change of the house and its plans: nobody works it out, since
    // somebody is said to be at it.
    let left_behind = "UPDATE house SET version = version + 1;
        UPDATE shipment SET worked = '{}', summary = NULL, claimed_until = now() + interval '1 day',
            claimed_for = house_version + 1;";
    // Both at once: what works in the background finds neither without the other.
    sqlx::raw_sql(left_behind)
        .execute(database.pool())
        .await
        .expect("it is written");
    assert_eq!(api.rows().await[0]["summary"], seen["summary"]);
    let behind_again = "UPDATE house SET version = version + 1; UPDATE shipment SET worked = '{}';";
    sqlx::raw_sql(behind_again)
        .execute(database.pool())
        .await
        .expect("it is written");
    assert_eq!(api.get(&format!("/api/v1/shipments/{id}")).await, seen);
}

#[test_context(NoShipments)]
#[tokio::test]
async fn what_is_archived_keeps_the_plan_that_it_had_until_it_is_back(
    NoShipments(database): &NoShipments,
) {
    let api = Api::start(database.pool(), false).await;
    let id = made(&api).await;
    let at = format!("/api/v1/shipments/{id}");
    let (status, away) = api
        .put(&format!("{at}/place"), json!({ "place": "archive" }))
        .await;
    assert_eq!(
        (status, &away["place"]),
        (StatusCode::OK, &json!("archive"))
    );
    Writer::Rules(1).write(&api, &id).await;
    caught_up(&api).await;
    assert_eq!(api.get(&at).await["worked"], away["worked"]);
    let asked = json!({ "version": away["version"], "change": { "title": "Other" } });
    let (status, problem) = api.patch(&at, asked).await;
    assert_eq!(
        (status, &problem["type"]),
        (StatusCode::CONFLICT, &json!("/problems/put-away"))
    );
    let (_, back) = api
        .put(&format!("{at}/place"), json!({ "place": "bench" }))
        .await;
    assert_ne!(back["worked"], away["worked"]);
    let (status, _) = api
        .put(&format!("{at}/place"), json!({ "place": "attic" }))
        .await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
}

#[test_context(Demo)]
#[tokio::test]
async fn two_editors_and_a_rules_saver_are_never_answered_with_a_server_error(
    Demo(database): &Demo,
) {
    let api = Api::start(database.pool(), true).await;
    let id = made(&api).await;
    let many = async |writer: Writer| {
        let mut answers = Vec::new();
        for _ in 0..12 {
            answers.push(writer.try_to(&api, &id).await);
        }
        answers
    };
    let (one, other, rules) = tokio::join!(
        many(Writer::Edit),
        many(Writer::Undo),
        many(Writer::Rules(3))
    );
    for status in one.into_iter().chain(other).chain(rules) {
        assert!(
            status.is_success() || status == StatusCode::CONFLICT,
            "{status}"
        );
    }
    caught_up(&api).await;
    nothing_is_stale(database.pool(), "two editors and a rules-saver").await;
}

#[test_context(NoShipments)]
#[tokio::test]
async fn an_edit_whose_answer_was_lost_is_sent_again_without_a_conflict(
    NoShipments(database): &NoShipments,
) {
    let api = Api::start(database.pool(), false).await;
    let id = made(&api).await;
    let at = format!("/api/v1/shipments/{id}");
    let edit = json!({ "version": 1, "edit": Uuid::now_v7(), "change": { "title": "Slack Tide" } });
    let (status, stored) = api.patch(&at, edit.clone()).await;
    assert_eq!((status, &stored["version"]), (StatusCode::OK, &json!(2)));
    let (status, again) = api.patch(&at, edit).await;
    assert_eq!((status, again), (StatusCode::OK, stored));
    let undo = json!({ "version": 2, "edit": Uuid::now_v7() });
    let (_, undone) = api.post(&format!("{at}/undo"), undo.clone()).await;
    let (status, again) = api.post(&format!("{at}/undo"), undo).await;
    assert_eq!((status, again), (StatusCode::OK, undone));
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_shipment_that_can_no_longer_be_planned_can_still_be_put_right(
    NoShipments(database): &NoShipments,
) {
    let api = Api::start(database.pool(), false).await;
    let id = made(&api).await;
    let at = format!("/api/v1/shipments/{id}");
    let edit = json!({ "version": 1, "change": { "choices": { "face_board": "foam-core-5" } } });
    let (status, problem) = api.patch(&at, edit).await;
    let board = if status == StatusCode::OK {
        "foam-core-5".to_owned()
    } else {
        // Whichever board there is.
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
        let stores = api.get("/api/v1/stores").await;
        let board = text(&stores["catalogue"]["boards"][1]["id"]);
        let edit = json!({ "version": 1, "change": { "choices": { "face_board": board } } });
        assert_eq!(api.patch(&at, edit).await.0, StatusCode::OK);
        board
    };
    // The board is gone from the shelf, as when two people were at it, past what refuses that.
    sqlx::query(
        "UPDATE catalogue SET materials = jsonb_set(materials, '{boards}', (
             SELECT jsonb_agg(board) FROM jsonb_array_elements(materials->'boards') AS board WHERE board->>'id' <> $1
         ))",
    )
    .bind(&board)
    .execute(database.pool())
    .await
    .expect("it is written");
    sqlx::query("UPDATE house SET version = version + 1")
        .execute(database.pool())
        .await
        .expect("it is written");
    let stuck = api.get(&at).await;
    assert_eq!(stuck["worked"]["plan"], Value::Null, "{board}");
    let says = text(&stuck["worked"]["refusals"][0]["message"]);
    assert!(says.contains(&board), "{says}");
    assert_eq!(api.rows().await[0]["summary"], Value::Null);
    // The buyer's name is put right all the same; what is newly wrong is still refused.
    let edit = json!({ "version": 2, "change": { "buyer": { "name": "Ivo Tern" } } });
    let (status, named) = api.patch(&at, edit).await;
    assert_eq!(
        (status, &named["inputs"]["buyer"]["name"]),
        (StatusCode::OK, &json!("Ivo Tern"))
    );
    let edit = json!({ "version": 3, "change": { "choices": { "first_turns": 99 } } });
    let (status, problem) = api.patch(&at, edit).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
    // Undo goes through the state that has no plan, to the one that has.
    let (_, undone) = api
        .post(&format!("{at}/undo"), json!({ "version": 3 }))
        .await;
    assert_eq!(undone["worked"]["plan"], Value::Null);
    let (status, undone) = api
        .post(&format!("{at}/undo"), json!({ "version": 4 }))
        .await;
    assert_eq!(status, StatusCode::OK);
    assert!(undone["worked"]["plan"].is_object());
    let (status, redone) = api
        .post(&format!("{at}/redo"), json!({ "version": 5 }))
        .await;
    assert_eq!(status, StatusCode::OK);
    assert_eq!(redone["worked"]["plan"], Value::Null);
}

#[test_context(Demo)]
#[tokio::test]
async fn a_list_is_asked_for_in_pages_and_refuses_what_is_none(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let all = api.get("/api/v1/shipments?sort=title&most=200").await;
    let rows = all["rows"].as_array().expect("rows");
    assert_eq!(all["total"], rows.len());
    let first = api.get("/api/v1/shipments?sort=title&most=2").await;
    assert_eq!(first["rows"].as_array().map(Vec::len), Some(2));
    let next = text(&first["next"]);
    let second = api
        .get(&format!("/api/v1/shipments?sort=title&most=2&after={next}"))
        .await;
    assert_eq!(second["rows"][0], rows[2]);
    let found = api.get("/api/v1/shipments?search=rope").await;
    assert_eq!(found["rows"][0]["inputs"]["title"], "The Ropewalk");
    for (query, field) in [
        ("most=0", "most"),
        ("most=201", "most"),
        ("search=%00", "search"),
        ("sort=colour", "sort"),
        ("place=attic", "place"),
        ("after=yesterday", "after"),
    ] {
        let (status, problem) = api
            .send(
                Method::GET,
                &format!("/api/v1/shipments?{query}"),
                &Value::Null,
            )
            .await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{query}");
        assert_eq!(problem["errors"][0]["field"], field, "{problem}");
    }
}

/// A wanted page that takes everything.
const EVERYTHING: Wanted = Wanted {
    place: Place::Bench,
    search: String::new(),
    sort: Sort::Promised,
    after: None,
    most: 200,
    without_section: false,
};

#[test_context(Demo)]
#[tokio::test]
async fn a_plan_comes_back_bit_for_bit(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let store = Store::over(database.pool().clone());
    let studio = store.studio_named(STUDIO).await.expect("it answers");
    let store = store.of(studio.expect("a studio"));
    let house = store.house(Arc::default()).await.expect("a house");
    let page = store.shipments(&EVERYTHING).await.expect("a page");
    // What is on the bench is looked at by the clock, in what the demo begins with too.
    let today = date(2027, 3, 4);
    let by_clock = hummock_core::shipment::House {
        now: Some(today.at(9, 0, 0, 0)),
        ..house.house.clone()
    };
    for row in page.rows {
        let left = row.inputs.handed_over().is_some();
        let at = if left { &house.house } else { &by_clock };
        let worked = Workings::out_or_refused(&row.inputs, at);
        let response = api
            .client
            .get(format!("{}/api/v1/shipments/{}", api.base, row.id))
            .send();
        let shown: Value = response
            .await
            .expect("an answer")
            .json()
            .await
            .expect("JSON");
        // Equal numbers are the same to the last bit.
        assert_eq!(
            shown["worked"],
            serde_json::to_value(&worked).expect("JSON")
        );
    }
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_preview_follows_a_change_at_once_here_and_soon_elsewhere(
    NoShipments(database): &NoShipments,
) {
    let here = Api::start(database.pool(), false).await;
    let elsewhere = Api::start(database.pool(), false).await;
    let turns = async |api: &Api| {
        let body = json!({ "inputs": { "piece": canvas() } });
        let (_, preview) = api.post("/api/v1/plans/preview", body).await;
        let layers = preview["worked"]["plan"]["layers"].as_array().cloned();
        let mut layers = layers.expect("layers").into_iter();
        let wrap = layers.find(|layer| layer["slot"] == "first_wrap");
        wrap.expect("it is wrapped")["make"]["turns"].clone()
    };
    for now in [3, 2, 1] {
        // Both know the house as it was a moment ago.
        let before = turns(&here).await;
        assert_eq!(turns(&elsewhere).await, before);
        let mut rules = here.get("/api/v1/studio").await["rules"].take();
        rules["allowances"]["first_turns"] = now.into();
        let body = json!({ "rules": rules });
        let (status, answer) = here.put("/api/v1/studio/rules", body).await;
        assert_eq!(status, StatusCode::OK, "{answer}");
        assert_ne!(before, now);
        assert_eq!(turns(&here).await, now);
        while turns(&elsewhere).await != now {
            tokio::task::yield_now().await;
        }
    }
}

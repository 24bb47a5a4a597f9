//! Bookings: never twice and never lost, whatever goes wrong between the studio and its carriers.

use std::{collections::HashSet, path::Path, process::Stdio};

use hummock_standins::FaultKind;
use proptest::{prelude::*, strategy::ValueTree, test_runner::TestRunner};
use test_context::test_context;
use tokio::{
    io::{AsyncBufReadExt as _, BufReader},
    process::{Child, Command},
};
use uuid::Uuid;

use super::{
    leaving::{at, beside, book, first_day, hasty, ready, standins, stands, tariffs},
    *,
};

const WITH_CARRIERS: &str = "/api/v1/leaving/carriers";

/// Settles whatever is other here than there, until all is the same.
async fn agreed(api: &Api) {
    loop {
        let view = api.get(WITH_CARRIERS).await;
        let apart = view["apart"].as_array().expect("a list").clone();
        let Some(first) = apart.first() else {
            return;
        };
        let asked = json!({ "tariff": first["tariff"], "key": first["key"] });
        let (status, view) = api.post(&format!("{WITH_CARRIERS}/settle"), asked).await;
        assert_eq!(status, StatusCode::OK, "{view}");
    }
}

#[test_context(Demo)]
#[tokio::test]
async fn whatever_happens_on_the_way_it_is_booked_once(Demo(database): &Demo) {
    let standins = standins().await;
    let api = beside(database.pool(), standins.carrier_url()).await;
    for (fault, times) in [
        (FaultKind::None, 0),
        (FaultKind::LostReply, 2),
        (FaultKind::Unavailable, 2),
        (FaultKind::WrongTotal, 1),
        (FaultKind::Slow, 1),
        (FaultKind::SlowReply, 1),
    ] {
        let shipment = ready(&api, "XS").await;
        let before = standins.carrier.booked().len();
        standins.carrier.fails(fault, times);
        let key = Uuid::now_v7();
        // Two presses at once, and a third after them.
        let (first, second) = tokio::join!(book(&api, &shipment, key), book(&api, &shipment, key));
        assert!(
            first.0.is_success() && second.0.is_success(),
            "{fault:?}: {first:?} {second:?}"
        );
        standins.carrier.fails(FaultKind::None, 0);
        let (status, leaving) = book(&api, &shipment, key).await;
        assert_eq!(status, StatusCode::OK, "{leaving}");
        assert_eq!(
            leaving["booking"]["state"], "booked",
            "{fault:?}: {leaving}"
        );
        assert_eq!(standins.carrier.booked().len(), before + 1, "{fault:?}");
        let differs = fault == FaultKind::WrongTotal;
        assert_eq!(
            leaving["booking"]["differs"], differs,
            "{fault:?}: {leaving}"
        );
        // Another key is another booking, of which there may be none beside this.
        let (status, problem) = book(&api, &shipment, Uuid::now_v7()).await;
        assert_eq!(status, StatusCode::CONFLICT);
        assert_eq!(problem["type"], "/problems/booked-already");
    }
}

/// What may happen while a parcel is booked.
#[derive(Debug, Clone)]
enum Happens {
    /// The next few questions go wrong at the carrier, in one way and then in another.
    Faults(Vec<(FaultKind, u32)>),
    /// Somebody presses once more.
    Again,
    /// Twice at once.
    Twice,
    /// Somebody who knows nothing of it presses on another page.
    Another,
    /// Both at once.
    Both,
    /// It is cancelled.
    Cancel,
    /// The server is killed while it asks, and started again.
    Killed,
}

fn happens() -> impl Strategy<Value = Happens> {
    let fault = (proptest::sample::select(FaultKind::ALL.to_vec()), 1..4_u32);
    prop_oneof![
        4 => proptest::collection::vec(fault, 1..4).prop_map(Happens::Faults),
        3 => Just(Happens::Again),
        2 => Just(Happens::Twice),
        2 => Just(Happens::Another),
        2 => Just(Happens::Both),
        2 => Just(Happens::Cancel),
        1 => Just(Happens::Killed),
    ]
}

async fn cancel(api: &Api, shipment: &Value) {
    let request = api
        .client
        .delete(format!("{}{}", api.base, at(shipment, "/booking")));
    // There may be nothing to cancel.
    answer(request.send().await.expect("an answer")).await;
}

/// Whatever happens, in whatever order: once it is quiet, the carrier has what the studio shows, and nothing else.
#[test_context(Demo)]
#[tokio::test]
async fn in_any_order_of_faults_and_presses_it_is_booked_once(Demo(database): &Demo) {
    let standins = standins().await;
    let mut api = hasty(database.pool(), standins.carrier_url()).await;
    let mut runner = TestRunner::default();
    let (mut booked, mut cancelled) = (0, 0);
    for _ in 0..12 {
        let all = proptest::collection::vec(happens(), 2..9);
        let all = all.new_tree(&mut runner).expect("a way").current();
        standins.carrier.fails(FaultKind::None, 0);
        let shipment = ready(&api, "XS").await;
        let before = standins.carrier.booked().len();
        let mut keys = vec![Uuid::now_v7()];
        for one in &all {
            let last = *keys.last().expect("a key");
            match one {
                Happens::Faults(faults) => standins.carrier.fails_in_turn(faults),
                Happens::Again => drop(book(&api, &shipment, last).await),
                Happens::Twice => {
                    let _ = tokio::join!(book(&api, &shipment, last), book(&api, &shipment, last));
                }
                Happens::Another => {
                    keys.push(Uuid::now_v7());
                    drop(book(&api, &shipment, *keys.last().expect("a key")).await);
                }
                Happens::Both => {
                    keys.push(Uuid::now_v7());
                    let other = *keys.last().expect("a key");
                    let _ = tokio::join!(book(&api, &shipment, last), book(&api, &shipment, other));
                }
                Happens::Cancel => cancel(&api, &shipment).await,
                Happens::Killed => {
                    let asked = standins.carrier.asked();
                    let until_asked = async {
                        while standins.carrier.asked() == asked {
                            tokio::task::yield_now().await;
                        }
                    };
                    tokio::select! {
                        _ = book(&api, &shipment, last) => {}
                        () = until_asked => {}
                    }
                    drop(api);
                    api = hasty(database.pool(), standins.carrier_url()).await;
                }
            }
        }
        standins.carrier.fails(FaultKind::None, 0);
        quiet(&api, &shipment).await;
        // One press settles whatever the carrier has forgotten.
        agreed(&api).await;
        let leaving = api.get(&at(&shipment, "/leaving")).await;
        let there = standins.carrier.booked().split_off(before);
        let keys_there: HashSet<&str> = there.iter().map(|one| one.key.as_str()).collect();
        assert_eq!(keys_there.len(), there.len(), "no key twice: {all:?}");
        let stand: Vec<_> = there.iter().filter(|one| !one.cancelled).collect();
        cancelled += there.len() - stand.len();
        let shown = api.get(&at(&shipment, "")).await["tracking"].take();
        if leaving["booking"]["state"] == "booked" {
            booked += 1;
            assert_eq!(stand.len(), 1, "{all:?}: {there:?}");
            // The carrier knows it by studio and booking together.
            let id = text(&leaving["booking"]["id"]);
            assert!(stand[0].key.ends_with(&format!(".{id}")), "{all:?}");
            assert_eq!(json!(stand[0].tracking), shown, "{all:?}");
        } else {
            assert!(stand.is_empty(), "{all:?}: {leaving} {there:?}");
            assert_eq!(shown, Value::Null, "{all:?}");
        }
    }
    assert!(booked + cancelled > 0, "something was booked");
}

/// Asks on, as the page and the background do, until a booking is neither asked nor being cancelled.
async fn quiet(api: &Api, shipment: &Value) -> Value {
    loop {
        let leaving = api.get(&at(shipment, "/leaving")).await;
        match leaving["booking"]["state"].as_str() {
            Some("asked") => {
                let id = text(&leaving["booking"]["id"]).parse().expect("an id");
                drop(book(api, shipment, id).await);
            }
            Some("cancelling") => cancel(api, shipment).await,
            _ => return leaving,
        }
    }
}

/// A carrier that booked and answered too late may say anything after that: it is asked what it holds before a refusal stands.
#[test_context(Demo)]
#[tokio::test]
async fn a_refusal_after_silence_books_no_second_parcel(Demo(database): &Demo) {
    let standins = standins().await;
    let api = hasty(database.pool(), standins.carrier_url()).await;
    for silence in [FaultKind::SlowReply, FaultKind::LostReply] {
        for refusal in [
            FaultKind::InProgress,
            FaultKind::Busy,
            FaultKind::Forbidden,
            FaultKind::Conflict,
        ] {
            let shipment = ready(&api, "XS").await;
            let before = standins.carrier.booked().len();
            standins
                .carrier
                .fails_in_turn(&[(silence, 1), (refusal, 1)]);
            let (status, leaving) = book(&api, &shipment, Uuid::now_v7()).await;
            assert!(status.is_success(), "{silence:?} {refusal:?}: {leaving}");
            assert_ne!(
                leaving["booking"]["state"], "refused",
                "{silence:?} {refusal:?}"
            );
            // Somebody who presses on another page asks by the same key.
            let first = leaving["booking"]["id"].clone();
            let (status, answered) = book(&api, &shipment, Uuid::now_v7()).await;
            if status == StatusCode::OK {
                assert_eq!(answered["booking"]["id"], first, "{refusal:?}");
            } else {
                // It was found by itself meanwhile.
                assert_eq!(answered["type"], "/problems/booked-already");
            }
            let leaving = quiet(&api, &shipment).await;
            assert_eq!(
                leaving["booking"]["state"], "booked",
                "{silence:?} {refusal:?}: {leaving}"
            );
            let there = standins.carrier.booked().split_off(before);
            assert_eq!(there.len(), 1, "{silence:?} {refusal:?}: {there:?}");
            assert_eq!(leaving["booking"]["tracking"], json!(there[0].tracking));
        }
    }
}

/// A carrier was silent at a first try and answered 409 without a word at a second, and one press later it held two live bookings. No
/// booking counts as refused before the carrier was asked three times what it holds, and a press meanwhile asks by the same key.
///
/// Kills a refusal that stands after one look, and a second key while the first is not answered.
#[test_context(Demo)]
#[tokio::test]
async fn a_carrier_that_is_silent_then_busy_holds_one_booking(Demo(database): &Demo) {
    let standins = standins().await;
    let api = hasty(database.pool(), standins.carrier_url()).await;
    for presses in [0, 1, 3] {
        let shipment = ready(&api, "XS").await;
        let before = standins.carrier.booked().len();
        standins.carrier.fails(FaultKind::BooksLater, 1);
        let (status, leaving) = book(&api, &shipment, Uuid::now_v7()).await;
        assert_eq!(status, StatusCode::OK, "{leaving}");
        let first = leaving["booking"]["id"].clone();
        for _ in 0..presses {
            let (_, leaving) = book(&api, &shipment, Uuid::now_v7()).await;
            assert_ne!(leaving["booking"]["state"], "refused", "{leaving}");
        }
        // Nobody presses any more: it is found by itself.
        let leaving = stands(&api, &shipment, "booked").await;
        assert_eq!(leaving["booking"]["id"], first);
        let there = standins.carrier.booked().split_off(before);
        let live = there.iter().filter(|booked| !booked.cancelled).count();
        assert_eq!(live, 1, "{presses} presses: {there:?}");
    }
}

/// Kills a refusal in doubt that is never final, and one that waits although the carrier says that nothing stands.
#[test_context(Demo)]
#[tokio::test]
async fn a_refusal_in_doubt_is_final_once_the_carrier_holds_nothing(Demo(database): &Demo) {
    let standins = standins().await;
    let api = hasty(database.pool(), standins.carrier_url()).await;
    let shipment = ready(&api, "XS").await;
    standins
        .carrier
        .fails_in_turn(&[(FaultKind::Unavailable, 1), (FaultKind::Conflict, 1)]);
    let (_, leaving) = book(&api, &shipment, Uuid::now_v7()).await;
    assert_eq!(leaving["booking"]["state"], "asked", "{leaving}");
    let leaving = stands(&api, &shipment, "refused").await;
    let says = text(&leaving["booking"]["says"]);
    assert_eq!(says, "something stands against it");
    // Refused, a press is a new booking by a key of its own.
    let (_, again) = book(&api, &shipment, Uuid::now_v7()).await;
    assert_eq!(again["booking"]["state"], "booked", "{again}");
    assert_ne!(again["booking"]["id"], leaving["booking"]["id"]);

    let other = ready(&api, "XS").await;
    standins
        .carrier
        .fails_in_turn(&[(FaultKind::Unavailable, 1), (FaultKind::RefusesForGood, 1)]);
    let (_, leaving) = book(&api, &other, Uuid::now_v7()).await;
    assert_eq!(leaving["booking"]["state"], "refused", "{leaving}");
    assert_eq!(text(&leaving["booking"]["says"]), "it is not taken");
}

/// What the carrier never answered is cancelled, or asked about again; it never stands as booked without a number.
#[test_context(Demo)]
#[tokio::test]
async fn cancelling_what_was_never_answered_ends_in_one_state(Demo(database): &Demo) {
    let standins = standins().await;
    let api = hasty(database.pool(), standins.carrier_url()).await;
    for (held, faults) in [
        // It never heard of it, and does not let itself be cancelled at first.
        (
            false,
            vec![(FaultKind::Unavailable, 3), (FaultKind::Forbidden, 1)],
        ),
        // It booked, its answer was lost three times, and it says once that it can't be cancelled.
        (
            true,
            vec![(FaultKind::LostReply, 3), (FaultKind::Conflict, 1)],
        ),
    ] {
        let shipment = ready(&api, "XS").await;
        standins.carrier.fails_in_turn(&faults);
        let (_, leaving) = book(&api, &shipment, Uuid::now_v7()).await;
        assert_eq!(leaving["booking"]["state"], "asked", "{leaving}");
        cancel(&api, &shipment).await;
        let leaving = quiet(&api, &shipment).await;
        let state = text(&leaving["booking"]["state"]);
        // Asked about again, the carrier takes it where it did not hold it.
        assert_eq!(state, "booked", "held {held}: {leaving}");
        assert_ne!(leaving["booking"]["tracking"], Value::Null, "{leaving}");
        cancel(&api, &shipment).await;
        let leaving = quiet(&api, &shipment).await;
        assert_eq!(leaving["booking"]["state"], "cancelled", "{leaving}");
    }
    assert!(
        standins
            .carrier
            .booked()
            .iter()
            .all(|booked| booked.cancelled)
    );
}

/// A day that the tariff knows of may be full: the carrier says so when it is asked, and the page offers the others.
#[test_context(Demo)]
#[tokio::test]
async fn what_a_killed_server_began_is_found_and_booked_once(Demo(database): &Demo) {
    let standins = standins().await;
    let api = beside(database.pool(), standins.carrier_url()).await;
    let shipment = ready(&api, "XS").await;
    standins.carrier.fails(FaultKind::SlowReply, 100);
    let key = Uuid::now_v7();
    let on = first_day(&api, &shipment).await;
    let body = json!({ "id": key, "version": shipment["version"], "on": on });
    let asked = api
        .client
        .post(format!("{}{}", api.base, at(&shipment, "/booking")))
        .json(&body)
        .send();
    // The carrier has booked it and does not say so; then the server is gone, with whatever it was about to write.
    let until_booked = async {
        while standins.carrier.booked().is_empty() {
            tokio::task::yield_now().await;
        }
    };
    tokio::select! {
        answered = asked => panic!("it answered: {answered:?}"),
        () = until_booked => {}
    }
    drop(api);
    standins.carrier.fails(FaultKind::None, 0);
    let api = beside(database.pool(), standins.carrier_url()).await;
    // Nobody presses anything.
    let leaving = stands(&api, &shipment, "booked").await;
    assert_eq!(leaving["booking"]["id"], json!(key));
    assert_eq!(standins.carrier.booked().len(), 1);
    let shown = api.get(&at(&shipment, "")).await;
    assert_eq!(
        shown["tracking"],
        json!(standins.carrier.booked()[0].tracking)
    );
}

/// The stand-ins as a process of their own, with their books in a file.
async fn carrier_process(books: &Path, port: u16) -> (Child, String) {
    let mut program = std::env::current_exe().expect("it runs");
    program.pop();
    if program.ends_with("deps") {
        program.pop();
    }
    let mut process = Command::new(program.join("hummock-standins"))
        .args(["--port", &port.to_string(), "--tariffs"])
        .arg(tariffs())
        .arg("--books")
        .arg(books)
        .stdout(Stdio::piped())
        .kill_on_drop(true)
        .spawn()
        .expect("it starts");
    let out = process.stdout.take().expect("it speaks");
    let said = BufReader::new(out)
        .lines()
        .next_line()
        .await
        .expect("a line")
        .expect("a line");
    let (_, address) = said.rsplit_once(' ').expect("it says where it is");
    let address = address.to_owned();
    (process, address)
}

#[test_context(Demo)]
#[tokio::test]
async fn a_carrier_that_is_killed_after_it_booked_books_no_second_time(Demo(database): &Demo) {
    let folder = tempfile::tempdir().expect("a folder");
    let books = folder.path().join("books.json");
    let (mut process, address) = carrier_process(&books, 0).await;
    let api = beside(database.pool(), format!("{address}/carrier")).await;
    let shipment = ready(&api, "XS").await;
    let fault = api.client.put(format!("{address}/carrier/fault"));
    let fault = fault
        .json(&json!({ "kind": "slow_reply", "times": 100 }))
        .send()
        .await;
    assert!(fault.expect("an answer").status().is_success());
    let key = Uuid::now_v7();
    let on = first_day(&api, &shipment).await;
    let body = json!({ "id": key, "version": shipment["version"], "on": on });
    let path = at(&shipment, "/booking");
    let asked = api.post(&path, body);
    let kill = async {
        while !books.exists() {
            tokio::task::yield_now().await;
        }
        // It is in its books, and it never says so.
        process.kill().await.expect("it is killed");
    };
    let ((status, leaving), ()) = tokio::join!(asked, kill);
    assert_eq!(
        (status, &leaving["booking"]["state"]),
        (StatusCode::OK, &json!("asked")),
        "{leaving}"
    );
    let port = address
        .rsplit(':')
        .next()
        .and_then(|port| port.parse().ok())
        .expect("a port");
    let (_process, address) = carrier_process(&books, port).await;
    let leaving = {
        let (status, leaving) = book(&api, &shipment, key).await;
        assert_eq!(status, StatusCode::OK, "{leaving}");
        leaving
    };
    assert_eq!(leaving["booking"]["state"], "booked", "{leaving}");
    let booked = api
        .client
        .get(format!("{address}/carrier/bookings"))
        .send()
        .await
        .expect("an answer");
    let booked: Value = booked.json().await.expect("JSON");
    assert_eq!(booked.as_array().map(Vec::len), Some(1), "{booked}");
}

#[test_context(Demo)]
#[tokio::test]
async fn a_cancelled_booking_is_never_made_after_all(Demo(database): &Demo) {
    let standins = standins().await;
    let api = beside(database.pool(), standins.carrier_url()).await;
    let shipment = ready(&api, "XS").await;
    // Asked while nobody answers, and cancelled before anybody did.
    standins.carrier.fails(FaultKind::Unavailable, 10_000);
    let key = Uuid::now_v7();
    let (_, leaving) = book(&api, &shipment, key).await;
    assert_eq!(leaving["booking"]["state"], "asked", "{leaving}");
    let cancel = format!("{}{}", api.base, at(&shipment, "/booking"));
    let request = api.client.delete(&cancel);
    let (status, leaving) = answer(request.send().await.expect("an answer")).await;
    assert_eq!(
        (status, &leaving["booking"]["state"]),
        (StatusCode::OK, &json!("cancelling")),
        "{leaving}"
    );
    standins.carrier.fails(FaultKind::None, 0);
    // It is asked for again by itself.
    stands(&api, &shipment, "cancelled").await;
    // The first question arrives late: the carrier knows that it is cancelled.
    let (_, leaving) = book(&api, &shipment, key).await;
    assert_eq!(leaving["booking"]["state"], "cancelled");
    assert!(
        standins
            .carrier
            .booked()
            .iter()
            .all(|booked| booked.cancelled)
    );
    // A new one is a new one; cancelled, nothing follows it any more.
    let (_, leaving) = book(&api, &shipment, Uuid::now_v7()).await;
    assert_eq!(leaving["booking"]["state"], "booked");
    assert!(api.get(&at(&shipment, "")).await["tracking"].is_string());
    let request = api
        .client
        .delete(format!("{}{}", api.base, at(&shipment, "/booking")));
    answer(request.send().await.expect("an answer")).await;
    assert!(api.get(&at(&shipment, "")).await["tracking"].is_null());
}

#[test_context(Demo)]
#[tokio::test]
async fn what_is_here_and_not_there_and_the_reverse_is_settled_by_a_press(Demo(database): &Demo) {
    let standins = standins().await;
    let api = beside(database.pool(), standins.carrier_url()).await;
    let view = api.get(WITH_CARRIERS).await;
    let lists = |view: &Value| -> Vec<String> {
        let carriers = view["carriers"].as_array().expect("a list").iter();
        carriers.map(|one| text(&one["list"])).collect()
    };
    assert!(lists(&view).iter().all(|list| list == "listed"), "{view}");
    assert_eq!((&view["apart"], &view["held"]), (&json!([]), &json!(false)));

    // One is as it should be, one the carrier forgot, one was cancelled here while the carrier held it.
    let [kept, forgotten, cancelled] = [
        ready(&api, "XS").await,
        ready(&api, "XS").await,
        ready(&api, "XS").await,
    ];
    let agree = view["agree"].as_u64().expect("a count");
    for (shipment, fault) in [
        (&kept, FaultKind::None),
        (&forgotten, FaultKind::Forgets),
        (&cancelled, FaultKind::None),
    ] {
        standins.carrier.fails(fault, 1);
        let (status, leaving) = book(&api, shipment, Uuid::now_v7()).await;
        assert_eq!(
            (status, &leaving["booking"]["state"]),
            (StatusCode::OK, &json!("booked"))
        );
    }
    standins.carrier.fails(FaultKind::None, 0);
    sqlx::query("UPDATE booking SET state = 'cancelled' WHERE shipment_id = $1")
        .bind(text(&cancelled["id"]).parse::<Uuid>().expect("an id"))
        .execute(database.pool())
        .await
        .expect("it is written");
    let view = api.get(WITH_CARRIERS).await;
    assert_eq!(view["agree"], json!(agree + 1));
    let apart = view["apart"].as_array().expect("a list");
    let found: Vec<(&str, &Value)> = apart
        .iter()
        .map(|one| (one["what"].as_str().expect("a word"), &one["shipment"]))
        .collect();
    assert_eq!(
        found,
        [
            ("here_only", &forgotten["id"]),
            ("there_only", &cancelled["id"])
        ]
    );
    assert_eq!(apart[0]["title"], forgotten["inputs"]["title"]);
    assert!(apart[1]["total"]["amount"].is_string(), "{view}");
    agreed(&api).await;
    // What nobody would have fetched can be booked anew, and what nobody wanted is not paid for.
    let leaving = api.get(&at(&forgotten, "/leaving")).await;
    assert_eq!(leaving["booking"]["state"], "cancelled");
    assert_eq!(api.get(&at(&forgotten, "")).await["tracking"], Value::Null);
    let held = standins.carrier.booked();
    assert_eq!(held.iter().filter(|one| !one.cancelled).count(), 1);
    let (_, leaving) = book(&api, &forgotten, Uuid::now_v7()).await;
    assert_eq!(leaving["booking"]["state"], "booked");

    // Bookings of others are theirs, and one that lists nothing is told.
    let settle = format!("{WITH_CARRIERS}/settle");
    let other =
        json!({ "tariff": "gannet-post", "key": format!("{}.{}", Uuid::nil(), Uuid::nil()) });
    let (status, _) = api.post(&settle, other).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
    // Nor is a key that leads elsewhere in the carrier's addresses one of this studio's, nor a carrier that it does not know.
    let studio: Uuid = sqlx::query_scalar("SELECT id FROM studio")
        .fetch_one(database.pool())
        .await
        .expect("there is one");
    let asked = standins.carrier.asked();
    for (tariff, key) in [
        ("gannet-post", format!("{studio}./../x.{}", Uuid::nil())),
        ("gannet-post", format!("{studio}.x")),
        ("../tracking", format!("{studio}.{}", Uuid::nil())),
    ] {
        let (status, _) = api
            .post(&settle, json!({ "tariff": tariff, "key": key }))
            .await;
        assert_eq!(status, StatusCode::NOT_FOUND, "{tariff} {key}");
    }
    assert_eq!(standins.carrier.asked(), asked, "nobody was asked");
    standins.carrier.fails(FaultKind::NoList, 1);
    assert_eq!(lists(&api.get(WITH_CARRIERS).await)[0], "no_list");
    standins.carrier.fails(FaultKind::Unavailable, 100);
    let view = api.get(WITH_CARRIERS).await;
    assert!(lists(&view).iter().all(|list| list == "silent"), "{view}");
    assert_eq!(view["apart"], json!([]), "who is silent has lost nothing");
}

#[test_context(Demo)]
#[tokio::test]
async fn a_restored_copy_asks_before_it_speaks_to_a_carrier(Demo(database): &Demo) {
    let standins = standins().await;
    let api = beside(database.pool(), standins.carrier_url()).await;
    let [booked, asked] = [ready(&api, "XS").await, ready(&api, "XS").await];
    assert!(book(&api, &booked, Uuid::now_v7()).await.0.is_success());
    standins.carrier.fails(FaultKind::Unavailable, 100);
    let key = Uuid::now_v7();
    let (_, leaving) = book(&api, &asked, key).await;
    assert_eq!(leaving["booking"]["state"], "asked");
    drop(api);
    standins.carrier.fails(FaultKind::None, 0);
    // As it is once it was read in from a backup.
    sqlx::query("UPDATE studio SET held = 'restored'")
        .execute(database.pool())
        .await
        .expect("it is written");
    let api = beside(database.pool(), standins.carrier_url()).await;
    let before = standins.carrier.asked();
    // Whatever is pressed or looked at, nobody is asked.
    let view = api.get(WITH_CARRIERS).await;
    assert_eq!(
        (&view["held"], &view["carriers"]),
        (&json!(true), &json!([]))
    );
    let leaving = api.get(&at(&booked, "/leaving")).await;
    assert_eq!(
        (&leaving["held"], &leaving["bookable"]),
        (&json!(true), &json!(false))
    );
    let cancel = api
        .client
        .delete(format!("{}{}", api.base, at(&booked, "/booking")));
    let (status, problem) = answer(cancel.send().await.expect("an answer")).await;
    assert_eq!(
        (status, text(&problem["type"])),
        (StatusCode::CONFLICT, "/problems/copy-asks-first".to_owned())
    );
    let another = ready(&api, "XS").await;
    assert_eq!(
        book(&api, &another, Uuid::now_v7()).await.0,
        StatusCode::CONFLICT
    );
    // What was asked before stays asked.
    let (_, leaving) = book(&api, &asked, key).await;
    assert_eq!(leaving["booking"]["state"], "asked");
    api.get(&at(&booked, "/slots")).await;
    api.get(&at(&booked, "/after")).await;
    let settle = json!({ "tariff": "gannet-post", "key": "x" });
    assert_eq!(
        api.post(&format!("{WITH_CARRIERS}/settle"), settle).await.0,
        StatusCode::CONFLICT
    );
    assert_eq!(standins.carrier.asked(), before);
    assert_eq!(standins.carrier.booked().len(), 1);
    // Once its owner says so, it speaks, and what was asked is found out.
    let (status, view) = api
        .post(&format!("{WITH_CARRIERS}/speak"), Value::Null)
        .await;
    assert_eq!((status, &view["held"]), (StatusCode::OK, &json!(false)));
    let (_, leaving) = book(&api, &asked, key).await;
    assert_eq!(leaving["booking"]["state"], "booked");
    let cancel = api
        .client
        .delete(format!("{}{}", api.base, at(&booked, "/booking")));
    let (status, leaving) = answer(cancel.send().await.expect("an answer")).await;
    assert_eq!(
        (status, &leaving["booking"]["state"]),
        (StatusCode::OK, &json!("cancelled"))
    );
}

/// Texts, numbers and lists that no carrier should send.
#[test_context(Demo)]
#[tokio::test]
async fn what_a_carrier_answers_is_cleaned_and_bounded(Demo(database): &Demo) {
    use axum::{Router, routing::post};

    let long = "9".repeat(200 << 10);
    let answer = json!({
        "tracking": format!("GP\u{0}\n\u{202e}12{long}"), "total": "-7.5", "currency": "EURO\u{feff}",
        "label": [format!("a\r\nb\u{2066}c{long}"), "d"],
    });
    let stranger = Router::new().route(
        "/{tariff}/bookings",
        post(|| async move { axum::Json(answer) }),
    );
    let listener = tokio::net::TcpListener::bind("127.0.0.1:0")
        .await
        .expect("a free port");
    let url = format!("http://{}", listener.local_addr().expect("an address"));
    let served = tokio::spawn(async move { axum::serve(listener, stranger).await });
    let api = beside(database.pool(), url).await;
    let shipment = ready(&api, "XS").await;
    let (status, leaving) = book(&api, &shipment, Uuid::now_v7()).await;
    assert_eq!(
        (status, &leaving["booking"]["state"]),
        (StatusCode::OK, &json!("booked")),
        "{leaving}"
    );
    let tracking = text(&leaving["booking"]["tracking"]);
    assert!(
        tracking.starts_with("GP 12") || tracking.starts_with("GP12"),
        "{tracking}"
    );
    assert!(tracking.chars().count() <= 60);
    assert!(
        tracking
            .chars()
            .all(|letter| letter.is_ascii_alphanumeric() || letter == ' ')
    );
    let kept: Value = sqlx::query_scalar("SELECT answer FROM booking WHERE shipment_id = $1")
        .bind(text(&shipment["id"]).parse::<Uuid>().expect("an id"))
        .fetch_one(database.pool())
        .await
        .expect("it is kept");
    assert_eq!(kept["total"], "0");
    assert_eq!(text(&kept["currency"]).chars().count(), 3);
    let line = text(&kept["label"][0]);
    assert!(
        line.chars().count() <= 120 && !line.contains(['\n', '\r', '\u{2066}']),
        "{line}"
    );
    served.abort();
}

//! A parcel leaves and is followed: booked once whatever happens on the way, with its papers, frozen as it went, and claimed.

use std::{
    collections::HashSet,
    io::{Cursor, Read as _},
    path::PathBuf,
    time::Duration,
};

use hummock_core::sending::Fate;
use hummock_server::{Documents, Outside, Patience};
use hummock_standins::{FaultKind, Running, read_tariffs};
use test_context::test_context;
use uuid::Uuid;

use super::*;

/// The program that makes documents, where it was built.
pub(crate) fn documents_program() -> PathBuf {
    let mut folder = std::env::current_exe().expect("it runs");
    folder.pop();
    if folder.ends_with("deps") {
        folder.pop();
    }
    folder.join("hummock-documents")
}

pub(crate) fn documents() -> Documents {
    Documents::by(documents_program()).within(Duration::from_secs(60))
}

pub(crate) fn tariffs() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo/tariffs")
}

pub(crate) async fn standins() -> Running {
    let address = ([127, 0, 0, 1], 0).into();
    let tariffs = read_tariffs(&tariffs()).expect("the demo's tariffs");
    hummock_standins::serve(address, tariffs)
        .await
        .expect("a free port")
}

pub(crate) async fn beside(pool: &PgPool, carriers: String) -> Api {
    waiting(pool, carriers, Duration::from_millis(1500)).await
}

/// Beside carriers that are waited for so long at a time.
pub(crate) async fn waiting(pool: &PgPool, carriers: String, answer: Duration) -> Api {
    Api::start_with(pool, true, |options| {
        options.outside = Outside {
            carriers: Some(carriers),
            stand_in: true,
            patience: Patience {
                answer,
                pause: Duration::from_millis(1),
                opens_after: 10_000,
                looks: [20, 40, 60].map(Duration::from_millis),
                ..Patience::default()
            },
            ..Outside::default()
        };
        options.documents = documents();
    })
    .await
}

pub(crate) async fn hasty(pool: &PgPool, carriers: String) -> Api {
    waiting(pool, carriers, Duration::from_millis(150)).await
}

/// A small canvas to a neighbouring town, with its service chosen.
pub(crate) async fn ready(api: &Api, country: &str) -> Value {
    let inputs = json!({
        "title": "Slack Tide",
        "value": "320",
        "promised": "2027-03-20",
        "buyer": { "name": "Oda Marsh", "street": "4 Weir Lane", "town": "Tern Bight", "postcode": "TB1 2AA", "country": country },
        "piece": {
            "construction": "stretched_canvas", "medium": "acrylic", "finished": "2026-10-01",
            "width": "400 mm", "height": "500 mm", "depth": "18 mm", "certificate": true,
            "facts": { "artist": "Ilse Fenn", "year": "2026" }
        },
        "service": "gannet-post/parcel"
    });
    let (status, made) = api
        .post("/api/v1/shipments", json!({ "inputs": inputs }))
        .await;
    assert_eq!(status, StatusCode::CREATED, "{made}");
    made
}

pub(crate) fn at(shipment: &Value, path: &str) -> String {
    format!("/api/v1/shipments/{}{path}", text(&shipment["id"]))
}

/// The first day on which it can leave.
pub(crate) async fn first_day(api: &Api, shipment: &Value) -> String {
    let leaving = api.get(&at(shipment, "/leaving")).await;
    text(&leaving["days"][0]["on"])
}

pub(crate) async fn book(api: &Api, shipment: &Value, key: Uuid) -> (StatusCode, Value) {
    let on = first_day(api, shipment).await;
    let version = api.get(&at(shipment, "")).await["version"].clone();
    let body = json!({ "id": key, "version": version, "on": on });
    api.post(&at(shipment, "/booking"), body).await
}

pub(crate) async fn change(api: &Api, shipment: &Value, change: Value) -> (StatusCode, Value) {
    let version = api.get(&at(shipment, "")).await["version"].clone();
    api.patch(
        &at(shipment, ""),
        json!({ "version": version, "change": change }),
    )
    .await
}

/// Waits until the booking stands so.
pub(crate) async fn stands(api: &Api, shipment: &Value, state: &str) -> Value {
    loop {
        let leaving = api.get(&at(shipment, "/leaving")).await;
        if leaving["booking"]["state"] == state {
            return leaving;
        }
        tokio::task::yield_now().await;
    }
}

pub(crate) async fn bytes(api: &Api, path: &str) -> (StatusCode, Vec<u8>) {
    let response = api
        .client
        .get(format!("{}{path}", api.base))
        .send()
        .await
        .expect("an answer");
    let status = response.status();
    (status, response.bytes().await.expect("its body").to_vec())
}

pub(crate) fn words(pdf: &[u8]) -> String {
    let document = lopdf::Document::load_mem(pdf).expect("a PDF");
    let pages: Vec<u32> = document.get_pages().keys().copied().collect();
    let text = document.extract_text(&pages).expect("text");
    text.split_whitespace().collect::<Vec<_>>().join(" ")
}

#[test_context(Demo)]
#[tokio::test]
async fn the_carriers_own_days_are_offered_and_its_tariffs_where_it_is_silent(
    Demo(database): &Demo,
) {
    let standins = standins().await;
    let api = hasty(database.pool(), standins.carrier_url()).await;
    let shipment = ready(&api, "XS").await;
    let days = |slots: &Value| -> Vec<String> {
        let days = slots["days"].as_array().expect("days").iter();
        days.map(|day| text(&day["on"])).collect()
    };
    let slots = api.get(&at(&shipment, "/slots")).await;
    let leaving = api.get(&at(&shipment, "/leaving")).await;
    assert_eq!(slots["by_carrier"], json!(true));
    let by_tariff = days(&leaving);
    assert_eq!(days(&slots), by_tariff[..days(&slots).len()]);
    let full: jiff::civil::Date = by_tariff[0].parse().expect("a day");
    standins.carrier.is_full_on(full);
    let slots = api.get(&at(&shipment, "/slots")).await;
    assert_eq!(days(&slots)[0], by_tariff[1]);
    // Whoever had the page open before is told so by the carrier, and books another day.
    let (status, leaving) = book_on(&api, &shipment, &by_tariff[0]).await;
    assert_eq!(status, StatusCode::OK, "{leaving}");
    assert_eq!(leaving["booking"]["state"], "refused");
    assert!(
        text(&leaving["booking"]["says"]).contains("full"),
        "{leaving}"
    );
    let (_, leaving) = book_on(&api, &shipment, &by_tariff[1]).await;
    assert_eq!(leaving["booking"]["state"], "booked", "{leaving}");
    // 7 March 2027 is a Sunday, of which its tariff knows nothing: it is refused until the carrier says that it comes.
    let (sunday, other) = ("2027-03-07", ready(&api, "XS").await);
    assert!(!by_tariff.iter().any(|day| day == sunday), "{by_tariff:?}");
    let (status, problem) = book_on(&api, &other, sunday).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["errors"][0]["field"], "on");
    standins
        .carrier
        .also_comes_on(sunday.parse().expect("a day"));
    assert!(days(&api.get(&at(&other, "/slots")).await).contains(&sunday.to_owned()));
    let (_, leaving) = book_on(&api, &other, sunday).await;
    assert_eq!(
        (&leaving["booking"]["state"], &leaving["booking"]["on"]),
        (&json!("booked"), &json!(sunday))
    );
    standins.carrier.fails(FaultKind::Unavailable, 1000);
    let slots = api.get(&at(&shipment, "/slots")).await;
    assert_eq!(
        (&slots["by_carrier"], days(&slots)),
        (&json!(false), by_tariff)
    );
}

#[test_context(Demo)]
#[tokio::test]
async fn what_is_missing_is_named_before_a_carrier_is_asked(Demo(database): &Demo) {
    let standins = standins().await;
    let api = beside(database.pool(), standins.carrier_url()).await;
    let shipment = ready(&api, "XS").await;
    let fields = |problem: &Value| -> Vec<String> {
        let errors = problem["errors"].as_array().expect("errors");
        errors.iter().map(|error| text(&error["field"])).collect()
    };
    change(
        &api,
        &shipment,
        json!({ "buyer": { "street": "Weir Lane", "postcode": "" } }),
    )
    .await;
    let (status, problem) = book(&api, &shipment, Uuid::now_v7()).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(fields(&problem), ["buyer.postcode", "buyer.street"]);
    change(
        &api,
        &shipment,
        json!({ "buyer": { "street": "4 Weir Lane", "postcode": "TB1" } }),
    )
    .await;
    let version = api.get(&at(&shipment, "")).await["version"].clone();
    for (on, says) in [
        ("2027-03-01", "is past"),
        ("2027-03-06", "doesn't collect on that day"),
    ] {
        let body = json!({ "id": Uuid::now_v7(), "version": version, "on": on });
        let (status, problem) = api.post(&at(&shipment, "/booking"), body).await;
        assert_eq!(
            (status, fields(&problem)),
            (StatusCode::UNPROCESSABLE_ENTITY, vec!["on".to_owned()])
        );
        assert!(text(&problem["detail"]).contains(says), "{problem}");
    }
    change(&api, &shipment, json!({ "service": null })).await;
    let body = json!({ "id": Uuid::now_v7(), "version": 1, "on": "2027-03-05" });
    let (status, _) = api.post(&at(&shipment, "/booking"), body).await;
    assert_eq!(status, StatusCode::CONFLICT, "it changed since");
    let (status, problem) = book_on(&api, &shipment, "2027-03-05").await;
    assert_eq!(
        (status, fields(&problem)),
        (StatusCode::UNPROCESSABLE_ENTITY, vec!["service".to_owned()])
    );
    assert_eq!(standins.carrier.booked().len(), 0);
}

pub(crate) async fn book_on(api: &Api, shipment: &Value, on: &str) -> (StatusCode, Value) {
    let version = api.get(&at(shipment, "")).await["version"].clone();
    let body = json!({ "id": Uuid::now_v7(), "version": version, "on": on });
    api.post(&at(shipment, "/booking"), body).await
}

#[test_context(Demo)]
#[tokio::test]
async fn what_is_not_dry_is_not_handed_over_before_that_is_answered(Demo(database): &Demo) {
    let standins = standins().await;
    let api = beside(database.pool(), standins.carrier_url()).await;
    let shipment = ready(&api, "XS").await;
    // Acrylic of yesterday needs two weeks.
    change(
        &api,
        &shipment,
        json!({ "piece": { "finished": "2027-03-03" } }),
    )
    .await;
    let stops = api.get(&at(&shipment, "")).await["worked"]["plan"]["findings"].clone();
    assert_eq!(
        (&stops[0]["code"], &stops[0]["level"], &stops[0]["about"]),
        (&json!("cure"), &json!("stop"), &json!("piece"))
    );
    let leaving = api.get(&at(&shipment, "/leaving")).await;
    assert_eq!(leaving["checks"][0]["key"], "answered");
    assert_eq!(leaving["checks"][0]["done"], false, "{leaving}");
    let gone = json!({ "sending": { "handed_over": "2027-03-04" } });
    let (status, problem) = change(&api, &shipment, gone.clone()).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
    assert_eq!(problem["errors"][0]["field"], "sending.handed_over");
    let says = text(&problem["errors"][0]["message"]);
    assert!(says.contains("isn't dry until"), "{problem}");
    let lifted = json!({ "lifted": { "cure": "the buyer hangs it in the open" } });
    change(&api, &shipment, lifted).await;
    let (status, left) = change(&api, &shipment, gone).await;
    assert_eq!(status, StatusCode::OK, "{left}");
}

#[test_context(Demo)]
#[tokio::test]
async fn what_has_left_keeps_its_plan_until_it_is_taken_back(Demo(database): &Demo) {
    let standins = standins().await;
    let api = beside(database.pool(), standins.carrier_url()).await;
    let shipment = ready(&api, "XS").await;
    let planned = shipment["summary"]["weight"]["mass_g"].clone();
    let (status, left) = change(
        &api,
        &shipment,
        json!({ "sending": { "handed_over": "2027-03-04" } }),
    )
    .await;
    assert_eq!(
        (status, &left["place"]),
        (StatusCode::OK, &json!("sent")),
        "{left}"
    );
    assert_eq!(left["handed"]["weight"]["mass_g"], planned);
    assert_eq!(left["handed"]["carrier"], "Gannet Post");
    let (_, guide) = bytes(&api, &at(&shipment, "/unpacking-guide")).await;
    assert_eq!(left["line"]["next"]["kind"], "follow");
    // What is typed about it afterwards is kept; what would change its plan is refused at its field.
    let (status, noted) = change(
        &api,
        &shipment,
        json!({ "after": { "lesson": "Two turns" } }),
    )
    .await;
    assert_eq!(
        (status, &noted["inputs"]["after"]["lesson"]),
        (StatusCode::OK, &json!("Two turns"))
    );
    let (status, problem) =
        change(&api, &shipment, json!({ "choices": { "first_turns": 3 } })).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["errors"][0]["field"], "choices");
    // The house changes: what is on the bench follows, what has left does not.
    let rules = api.get("/api/v1/studio").await["rules"].clone();
    let mut heavier = rules.clone();
    heavier["allowances"]["clearance_mm"] = json!(40.0);
    heavier["schools"]["padding"] = json!("lean");
    let (status, said) = api
        .put("/api/v1/studio/rules", json!({ "rules": heavier }))
        .await;
    assert_eq!(status, StatusCode::OK, "{said}");
    // Its buyer unpacks what was packed.
    let (_, guide_now) = bytes(&api, &at(&shipment, "/unpacking-guide")).await;
    assert_eq!(words(&guide_now), words(&guide));
    let after = api.get(&at(&shipment, "")).await;
    assert_eq!(after["summary"]["weight"]["mass_g"], planned);
    assert_eq!(
        after["worked"]["plan"]["rules_version"],
        shipment["worked"]["plan"]["rules_version"]
    );
    // It is written down all the same, though the house moved.
    let (status, noted) = change(&api, &shipment, json!({ "after": { "minutes": 41 } })).await;
    assert_eq!(
        (status, &noted["summary"]["weight"]["mass_g"]),
        (StatusCode::OK, &planned),
        "{noted}"
    );
    let beside = api.get(&at(&shipment, "/after")).await["beside"].clone();
    assert_eq!(beside["minutes"]["was"], 41.0);
    assert_eq!(beside["mass_g"]["planned"], planned);
    // Away and back again it is still on its way.
    api.put(&at(&shipment, "/place"), json!({ "place": "archive" }))
        .await;
    let (_, back) = api
        .put(&at(&shipment, "/place"), json!({ "place": "bench" }))
        .await;
    assert_eq!(back["place"], "sent");
    // Taken back, it follows the house as it is by now.
    let (status, here) = change(
        &api,
        &shipment,
        json!({ "sending": { "handed_over": null } }),
    )
    .await;
    assert_eq!((status, &here["place"]), (StatusCode::OK, &json!("bench")));
    assert!(here["handed"].is_null());
    assert_ne!(here["summary"]["weight"]["mass_g"], planned);
    let (_, guide_here) = bytes(&api, &at(&shipment, "/unpacking-guide")).await;
    assert_ne!(words(&guide_here), words(&guide));
}

#[test_context(Demo)]
#[tokio::test]
async fn parcels_of_a_day_share_a_collection_and_a_list_to_sign(Demo(database): &Demo) {
    let standins = standins().await;
    let api = beside(database.pool(), standins.carrier_url()).await;
    let (first, second) = (ready(&api, "XS").await, ready(&api, "XS").await);
    let on = first_day(&api, &first).await;
    book_on(&api, &first, &on).await;
    let leaving = api.get(&at(&second, "/leaving")).await;
    assert_eq!(leaving["days"][0]["others"], 1);
    book_on(&api, &second, &on).await;
    let day = api.get(&format!("/api/v1/leaving?on={on}")).await;
    assert_eq!(day.as_array().map(Vec::len), Some(1));
    let parcels = day[0]["parcels"].as_array().expect("parcels");
    let numbers: HashSet<String> = parcels
        .iter()
        .map(|parcel| text(&parcel["tracking"]))
        .collect();
    assert_eq!(numbers.len(), 2, "{day}");
    let (status, list) = bytes(
        &api,
        &format!("/api/v1/leaving/hand-over-list?on={on}&tariff=gannet-post"),
    )
    .await;
    assert_eq!(status, StatusCode::OK);
    let said = words(&list);
    for number in &numbers {
        assert!(said.contains(number.as_str()), "{number}: {said}");
    }
    assert!(
        said.contains("2 parcels") && said.contains("Taken by, for the carrier"),
        "{said}"
    );
    let (status, _) = bytes(
        &api,
        "/api/v1/leaving/hand-over-list?on=2027-04-01&tariff=gannet-post",
    )
    .await;
    assert_eq!(status, StatusCode::NOT_FOUND);
}

#[test_context(Demo)]
#[tokio::test]
async fn every_paper_says_what_it_has_to(Demo(database): &Demo) {
    let standins = standins().await;
    let api = beside(database.pool(), standins.carrier_url()).await;
    let shipment = ready(&api, "XV").await;
    let leaving = api.get(&at(&shipment, "/leaving")).await;
    let to: Vec<String> = leaving["to"]
        .as_array()
        .expect("lines")
        .iter()
        .map(text)
        .collect();
    assert_eq!(
        to,
        ["Oda Marsh", "4 Weir Lane", "TB1 2AA Tern Bight", "VENNLAND"]
    );
    assert_eq!(leaving["from"][3], "Netherby Quay NQ1 4AB");
    assert_eq!(leaving["abroad"], true);
    let (status, _) = bytes(&api, &at(&shipment, "/papers/label")).await;
    assert_eq!(status, StatusCode::NOT_FOUND, "it has no number yet");
    change(&api, &shipment, json!({ "sending": { "protected": "some", "protected_what": "mother-of-pearl", "tracking": "X 12" } })).await;
    let other = ready(&api, "XS").await;
    let both = format!(
        "/api/v1/leaving/labels?of={},{}",
        text(&shipment["id"]),
        text(&other["id"])
    );
    let (status, _) = bytes(&api, &both).await;
    assert_eq!(
        status,
        StatusCode::NOT_FOUND,
        "one of them has no number yet"
    );
    change(&api, &other, json!({ "sending": { "tracking": "X 13" } })).await;
    for (on, sheet) in [("", false), ("&sheet=true", true)] {
        let (status, document) = bytes(&api, &format!("{both}{on}")).await;
        assert_eq!(status, StatusCode::OK);
        let document = lopdf::Document::load_mem(&document).expect("a PDF");
        assert_eq!(document.get_pages().len(), 2);
        for (page, number) in [(1, "X 12"), (2, "X 13")] {
            let says = document.extract_text(&[page]).expect("text");
            assert!(says.contains(number), "{says}");
            assert_eq!(says.contains("100 %"), sheet, "{says}");
        }
    }
    for paper in ["labels", "materials-list"] {
        let wrong = format!("/api/v1/leaving/{paper}?of=kelp");
        let (status, _) = bytes(&api, &wrong).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{paper}");
    }
    // What both take is on one list, with what there is of it.
    let gathered = both.replace("labels", "materials-list");
    let (status, document) = bytes(&api, &gathered).await;
    assert_eq!(status, StatusCode::OK);
    let said = words(&document);
    for word in [
        "Materials for 2 shipments",
        "Slack Tide",
        "Corrugated C",
        "Polypropylene tape",
        "1, 2",
    ] {
        assert!(said.contains(word), "{word}: {said}");
    }
    for (paper, says) in [
        ("label", vec!["X 12", "Oda Marsh", "VENNLAND"]),
        ("label_a4", vec!["X 12", "Print at 100 %", "100 mm"]),
        ("marks", vec!["This side up", "Fragile", "Do not lay flat"]),
        ("slip", vec!["Packing slip", "Slack Tide", "acrylic"]),
        ("addresses", vec!["Oda Marsh", "From", "VENNLAND"]),
        (
            "thank_you",
            vec!["Thank you, Oda Marsh", "Slack Tide, Ilse Fenn"],
        ),
        (
            "certificate",
            vec![
                "Certificate of authenticity",
                "Ilse Fenn",
                "Signature",
                "Seal",
            ],
        ),
        (
            "condition",
            vec!["Condition report", "Sound", "No photographs"],
        ),
        (
            "customs",
            vec![
                "Customs declaration",
                "Slack Tide",
                "320.00 EUR",
                "Saltmark",
                "mother-of-pearl",
            ],
        ),
        (
            "crating",
            vec!["Brief for a crating service", "Slack Tide", "upright"],
        ),
    ] {
        let (status, file) = bytes(&api, &at(&shipment, &format!("/papers/{paper}"))).await;
        assert_eq!(
            status,
            StatusCode::OK,
            "{paper}: {}",
            String::from_utf8_lossy(&file)
        );
        let said = words(&file);
        for word in says {
            assert!(said.contains(word), "{paper}: {word}: {said}");
        }
        // No slip names a price.
        assert!(paper != "slip" || !said.contains("320"), "{said}");
    }
    let (status, _) = bytes(&api, &at(&shipment, "/papers/tea")).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
    let (status, _) = bytes(&api, &at(&shipment, "/papers/claim")).await;
    assert_eq!(status, StatusCode::NOT_FOUND, "it has not left");
}

#[test_context(Demo)]
#[tokio::test]
async fn the_days_are_read_by_another_calendar(Demo(database): &Demo) {
    let standins = standins().await;
    let api = beside(database.pool(), standins.carrier_url()).await;
    let shipment = ready(&api, "XS").await;
    change(
        &api,
        &shipment,
        json!({ "title": "Tide, slack; and \\ the \"rest\"" }),
    )
    .await;
    let on = first_day(&api, &shipment).await;
    book_on(&api, &shipment, &on).await;
    let (status, file) = bytes(&api, &at(&shipment, "/calendar.ics")).await;
    assert_eq!(status, StatusCode::OK);
    let mut read = ical::IcalParser::new(Cursor::new(file));
    let calendar = read.next().expect("one").expect("a calendar");
    let told: Vec<(String, String)> = calendar
        .events
        .iter()
        .map(|event| {
            let of = |name: &str| {
                let mut found = event.properties.iter();
                let found = found.find(|property| property.name == name);
                found
                    .and_then(|property| property.value.clone())
                    .unwrap_or_default()
            };
            (of("DTSTART"), of("SUMMARY"))
        })
        .collect();
    let days: Vec<&str> = told.iter().map(|(day, _)| day.as_str()).collect();
    assert!(days.contains(&"20270320"), "{told:?}");
    assert!(days.contains(&on.replace('-', "").as_str()), "{told:?}");
    // A comma and a semicolon are marked, or a reader takes them for its own.
    assert!(
        told.iter()
            .all(|(_, says)| says.contains("Tide\\, slack\\; and")),
        "{told:?}"
    );
}

#[test_context(Demo)]
#[tokio::test]
async fn damage_is_claimed_in_time_with_everything_in_one_file(Demo(database): &Demo) {
    let standins = standins().await;
    let api = beside(database.pool(), standins.carrier_url()).await;
    let shipment = ready(&api, "XS").await;
    // It left on 22 February and was delivered crushed: three to five working days after that, 1 March.
    let on = first_day(&api, &shipment).await;
    let (_, leaving) = book_on(&api, &shipment, &on).await;
    let number = text(&leaving["booking"]["tracking"]);
    standins.carrier.decide(&number, Fate::Damaged, None);
    let (status, left) = change(
        &api,
        &shipment,
        json!({ "sending": { "handed_over": "2027-02-22", "receipt": "GP 118" } }),
    )
    .await;
    assert_eq!(status, StatusCode::OK, "{left}");
    let after = api.get(&at(&shipment, "/after")).await;
    // Nothing is delivered yet: loss counts from the hand-over, 30 days by the tariff: 24 March, 20 days on.
    assert_eq!(after["deadline"]["kind"], "loss");
    assert_eq!(after["deadline"]["last_day"], "2027-03-24");
    assert_eq!(after["deadline"]["days_left"], 20);
    let typed = json!({ "after": {
        "outcome": "damaged", "on": "2027-03-01", "damage": "One corner crushed, the stretcher cracked.",
        "failed": "corners", "claim": { "sent_on": "2027-03-03", "number": "C 7" },
    } });
    let (status, said) = change(&api, &shipment, typed).await;
    assert_eq!(status, StatusCode::OK, "{said}");
    assert_eq!(said["line"]["next"]["kind"], "await_claim");
    let after = api.get(&at(&shipment, "/after")).await;
    // Seven days after 1 March.
    assert_eq!(after["deadline"]["last_day"], "2027-03-08");
    assert_eq!(after["deadline"]["days_left"], 4);
    let photograph = {
        let picture = image::RgbImage::from_fn(1600, 1200, |x, y| {
            image::Rgb([(x % 255) as u8, (y % 255) as u8, 80])
        });
        let mut file = Cursor::new(Vec::new());
        image::DynamicImage::ImageRgb8(picture)
            .write_to(&mut file, image::ImageFormat::Jpeg)
            .expect("a picture");
        file.into_inner()
    };
    let path = at(
        &shipment,
        &format!(
            "/photographs/{}?step=after/damage&taken_at=2027-03-02T09:00:00Z",
            Uuid::now_v7()
        ),
    );
    let kept = api
        .client
        .put(format!("{}{path}", api.base))
        .body(photograph)
        .send()
        .await
        .expect("an answer");
    assert_eq!(kept.status(), StatusCode::OK);
    let (status, file) = bytes(&api, &at(&shipment, "/papers/claim")).await;
    assert_eq!(status, StatusCode::OK, "{}", String::from_utf8_lossy(&file));
    let told = words(&file);
    for word in [
        "Claim: Slack Tide",
        "320.00 EUR",
        "8 Mar 2027",
        "One corner crushed",
        number.as_str(),
        "GP 118",
        "22 Feb 2027",
        "The damage",
        "How it was packed",
        "Gannet Post",
    ] {
        assert!(told.contains(word), "{word}: {told}");
    }
    let (status, file) = bytes(&api, &at(&shipment, "/claim.zip")).await;
    assert_eq!(status, StatusCode::OK);
    let mut archive = zip::ZipArchive::new(Cursor::new(file)).expect("an archive");
    let names: Vec<String> = archive
        .file_names()
        .map(|name| name.expect("a name").into_owned())
        .collect();
    assert!(names.iter().any(|name| name == "claim.pdf"), "{names:?}");
    assert!(
        names
            .iter()
            .any(|name| name == "photographs/01-after-damage.jpg"),
        "{names:?}"
    );
    let mut record = String::new();
    archive
        .by_name("record.json")
        .expect("it is there")
        .read_to_string(&mut record)
        .expect("text");
    let record: Value = serde_json::from_str(&record).expect("JSON");
    assert_eq!(record["inputs"]["after"]["failed"], "corners");
    // Paid, nothing is left; and a like piece is told of what was learned.
    change(
        &api,
        &shipment,
        json!({ "after": { "claim": { "paid": "280" }, "lesson": "Deeper corner pockets" } }),
    )
    .await;
    let shown = api.get(&at(&shipment, "")).await;
    assert_eq!(shown["line"]["next"]["kind"], "put_away");
    let like = ready(&api, "XS").await;
    let lessons = api.get(&at(&like, "/lessons")).await;
    assert_eq!(lessons[0]["says"], "Deeper corner pockets");
    assert_eq!(lessons[0]["outcome"], "damaged");
}

#[test_context(Demo)]
#[tokio::test]
async fn what_is_held_says_its_paper_and_its_days(Demo(database): &Demo) {
    let standins = standins().await;
    let later = Clock::standing_on(date(2027, 3, 24));
    let carriers = standins.carrier_url();
    let first = beside(database.pool(), carriers.clone()).await;
    let shipment = ready(&first, "XV").await;
    let on = first_day(&first, &shipment).await;
    let (_, leaving) = book_on(&first, &shipment, &on).await;
    let number = text(&leaving["booking"]["tracking"]);
    standins.carrier.decide(
        &number,
        Fate::Held,
        Some("an invoice with your tax number".into()),
    );
    change(
        &first,
        &shipment,
        json!({ "sending": { "handed_over": "2027-03-04" } }),
    )
    .await;
    drop(first);
    // Some days on.
    let api = Api::start_with(database.pool(), true, |options| {
        options.clock = later;
        options.outside = Outside {
            carriers: Some(carriers),
            ..Outside::default()
        };
    })
    .await;
    let after = api.get(&at(&shipment, "/after")).await;
    assert_eq!(after["following"]["fate"], "held", "{after}");
    assert_eq!(
        after["following"]["paper"],
        "an invoice with your tax number"
    );
    let events = after["events"].as_array().expect("events");
    let until: jiff::civil::Date = text(&events.last().expect("it is held")["until"])
        .parse()
        .expect("a day");
    let left = (until - date(2027, 3, 24)).get_days();
    assert_eq!(after["following"]["days_left"], left);
    // The carrier is away: what it said last still stands.
    standins.carrier.fails(FaultKind::Unavailable, 100);
    let later = api.get(&at(&shipment, "/after")).await;
    assert_eq!(
        (&later["answered"], &later["following"]["fate"]),
        (&json!(false), &json!("held"))
    );
}

#[test_context(Demo)]
#[tokio::test]
async fn who_sends_is_changed_by_one_at_a_time_and_refused_at_its_field(Demo(database): &Demo) {
    let api = Api::start_with(database.pool(), true, |options| {
        options.documents = documents()
    })
    .await;
    let sender = api.get("/api/v1/studio/sender").await;
    let asked = |street: &str, width: f64| {
        json!({
            "version": sender["version"], "name": "Saltgrass", "town": "Netherby Quay",
            "sender": { "address": { "name": "Saltgrass", "street": street, "town": "Netherby Quay", "postcode": "NQ1", "country": "XS" },
                "telephone": "", "email": "bench" },
            "certificate": { "width_mm": width, "height_mm": 105.0 },
        })
    };
    let (status, problem) = api
        .put("/api/v1/studio/sender", asked("3 Capstan Row", 20.0))
        .await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    let fields: Vec<&Value> = problem["errors"]
        .as_array()
        .expect("errors")
        .iter()
        .map(|one| &one["field"])
        .collect();
    assert_eq!(fields, ["sender.email", "certificate.width_mm"]);
    let mut right = asked("3 Capstan Row", 210.0);
    right["sender"]["email"] = json!("bench@saltgrass.example");
    let (status, kept) = api.put("/api/v1/studio/sender", right.clone()).await;
    assert_eq!(
        (status, &kept["certificate"]["width_mm"]),
        (StatusCode::OK, &json!(210.0)),
        "{kept}"
    );
    let (status, problem) = api.put("/api/v1/studio/sender", right).await;
    assert_eq!(
        (status, &problem["type"]),
        (StatusCode::CONFLICT, &json!("/problems/sender-changed"))
    );
    // Its mark is kept as PNG; what is no picture is not.
    let mark = |body: Vec<u8>| {
        api.client
            .put(format!("{}/api/v1/studio/mark", api.base))
            .body(body)
            .send()
    };
    let refused = mark(b"tea".to_vec()).await.expect("an answer");
    assert_eq!(refused.status(), StatusCode::UNPROCESSABLE_ENTITY);
    let large = mark(vec![0; (4 << 20) + 1]).await.expect("an answer");
    let (status, problem) = answer(large).await;
    assert_eq!(status, StatusCode::PAYLOAD_TOO_LARGE);
    assert!(text(&problem["detail"]).contains("over 4 MB"), "{problem}");
    let mut png = Cursor::new(Vec::new());
    image::DynamicImage::new_rgba8(40, 20)
        .write_to(&mut png, image::ImageFormat::Png)
        .expect("a picture");
    let taken = mark(png.into_inner()).await.expect("an answer");
    assert_eq!(taken.status(), StatusCode::NO_CONTENT);
    let shipment = ready(&api, "XS").await;
    let (status, file) = bytes(&api, &at(&shipment, "/papers/certificate")).await;
    assert_eq!(status, StatusCode::OK, "{}", String::from_utf8_lossy(&file));
    let document = lopdf::Document::load_mem(&file).expect("a PDF");
    let page = document.get_pages()[&1];
    let sides = document
        .get_dictionary(page)
        .and_then(|page| page.get(b"MediaBox"))
        .and_then(lopdf::Object::as_array)
        .expect("its size");
    let mm = |at: usize| f64::from(sides[at].as_float().expect("a number")) * 25.4 / 72.0;
    assert!((mm(2) - 210.0).abs() < 0.1 && (mm(3) - 105.0).abs() < 0.1);
    assert_eq!(
        api.delete("/api/v1/studio/mark").await,
        StatusCode::NO_CONTENT
    );
}

/// A price list that the studio made itself, of which no service outside knows.
pub(crate) async fn own_carrier(api: &Api) {
    let file = tariffs().join("gannet-post.json");
    let mut own: Value =
        serde_json::from_str(&std::fs::read_to_string(file).expect("a tariff")).expect("JSON");
    own["id"] = json!("buckeye-parcel");
    own["carrier"] = json!("Buckeye Parcel");
    let (status, kept) = api
        .put("/api/v1/tariffs/buckeye-parcel", json!({ "tariff": own }))
        .await;
    assert!(status.is_success(), "{kept}");
}

/// Kills a simulated carrier that speaks for every price list, a parcel without a booking that leaves on no list, and one that is listed
/// on every day.
#[test_context(Demo)]
#[tokio::test]
async fn a_parcel_with_a_price_list_of_the_studio_leaves_without_a_booking(Demo(database): &Demo) {
    let standins = standins().await;
    let api = beside(database.pool(), standins.carrier_url()).await;
    own_carrier(&api).await;
    let service = |id: &'static str| {
        let api = &api;
        async move { text(&api.get(&format!("/api/v1/tariffs/{id}/service")).await["reach"]) }
    };
    assert_eq!(service("buckeye-parcel").await, "none");
    assert_eq!(service("gannet-post").await, "simulated");

    let shipment = ready(&api, "XS").await;
    let (status, _) = change(
        &api,
        &shipment,
        json!({ "service": "buckeye-parcel/parcel" }),
    )
    .await;
    assert_eq!(status, StatusCode::OK);
    let asked = standins.carrier.asked();
    let leaving = api.get(&at(&shipment, "/leaving")).await;
    assert_eq!(
        (&leaving["reach"], &leaving["bookable"]),
        (&json!("none"), &json!(false))
    );
    let (status, problem) = book(&api, &shipment, Uuid::now_v7()).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
    assert_eq!(standins.carrier.asked(), asked, "nobody was asked");
    let tracking = |leaving: &Value| {
        let mut checks = leaving["checks"].as_array().expect("a list").iter();
        let found = checks.find(|check| check["key"] == "tracking").cloned();
        found.expect("it is looked at")["done"].clone()
    };
    assert_eq!(tracking(&leaving), json!(false));

    // It is on the list of its day and on no other, with its number, or with none.
    let day = first_day(&api, &shipment).await;
    let sending = json!({ "on": day, "no_number": true });
    change(&api, &shipment, json!({ "sending": sending })).await;
    assert_eq!(
        tracking(&api.get(&at(&shipment, "/leaving")).await),
        json!(true)
    );
    let on = |day: String| {
        let api = &api;
        async move { api.get(&format!("/api/v1/leaving?on={day}")).await }
    };
    let there = on(day.clone()).await;
    assert_eq!(there[0]["carrier"], "Buckeye Parcel", "{there}");
    let parcel = &there[0]["parcels"][0];
    assert_eq!(
        (&parcel["shipment"], &parcel["booked"], &parcel["tracking"]),
        (&shipment["id"], &json!(false), &json!(""))
    );
    assert_eq!(on("2027-03-29".to_owned()).await, json!([]));
    let list = format!("/api/v1/leaving/hand-over-list?on={day}&tariff=buckeye-parcel");
    let (status, pdf) = bytes(&api, &list).await;
    assert_eq!(status, StatusCode::OK);
    assert!(words(&pdf).contains("Slack Tide"), "{}", words(&pdf));

    let (status, gone) = change(
        &api,
        &shipment,
        json!({ "sending": { "handed_over": "2027-03-04", "tracking": "BP 7" } }),
    )
    .await;
    assert_eq!(status, StatusCode::OK, "{gone}");
    assert_eq!(
        (&gone["place"], &gone["against"]),
        (&json!("sent"), &json!([]))
    );
    let there = on("2027-03-04".to_owned()).await;
    assert_eq!(there[0]["parcels"][0]["tracking"], "BP 7", "{there}");
}

/// Kills a list that leaves out what is in the way: the shipment, its row on the bench and a preview of its inputs tell the same.
#[test_context(Demo)]
#[tokio::test]
async fn everybody_tells_the_same_that_is_in_the_way(Demo(database): &Demo) {
    let standins = standins().await;
    let api = beside(database.pool(), standins.carrier_url()).await;
    let rows = api.get("/api/v1/shipments?most=200").await;
    let (mut told, mut short) = (0, 0);
    for row in rows["rows"].as_array().expect("a list") {
        let shipment = api.get(&at(row, "")).await;
        assert_eq!(
            shipment["against"], row["against"],
            "{}",
            row["inputs"]["title"]
        );
        let asked = json!({ "inputs": row["inputs"], "shipment": row["id"] });
        let (status, preview) = api.post("/api/v1/plans/preview", asked).await;
        assert_eq!(status, StatusCode::OK, "{preview}");
        assert_eq!(
            preview["against"], row["against"],
            "{}",
            row["inputs"]["title"]
        );
        let matters = row["against"].as_array().expect("a list");
        if !matters.is_empty() {
            let (status, sheet) = bytes(&api, &at(row, "/pack-sheet")).await;
            assert_eq!(status, StatusCode::OK);
            // Lines of a sheet break anywhere.
            let letters = |text: &str| text.split_whitespace().collect::<String>();
            let sheet = letters(&words(&sheet));
            for matter in matters {
                let says = letters(&text(&matter["says"]));
                assert!(sheet.contains(&says), "{says} is not on {sheet}");
            }
        }
        told += matters.len();
        let lacking = matters.iter().filter(|matter| matter["kind"] == "short");
        short += lacking.count();
        // A Stop keeps it here, in the same words.
        if let Some(stop) = matters.iter().find(|matter| matter["level"] == "stop") {
            let (status, problem) = change(
                &api,
                row,
                json!({ "sending": { "handed_over": "2027-03-04" } }),
            )
            .await;
            assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
            assert!(
                text(&problem["detail"]).contains(&text(&stop["says"])),
                "{problem}"
            );
        }
    }
    assert!(told >= 3 && short >= 1, "{told} matters, {short} short");
    // What was taken for it is no longer short.
    let lacking = rows["rows"].as_array().expect("a list").iter().find(|row| {
        let mut matters = row["against"].as_array().expect("a list").iter();
        matters.any(|matter| matter["kind"] == "short")
    });
    let lacking = lacking.expect("one is short of something");
    let (status, _) = api.put(&at(lacking, "/shelf"), Value::Null).await;
    assert_eq!(status, StatusCode::OK);
    let kinds = |answer: &Value| -> Vec<String> {
        let matters = answer["against"].as_array().expect("a list").iter();
        matters.map(|matter| text(&matter["kind"])).collect()
    };
    assert!(!kinds(&api.get(&at(lacking, "")).await).contains(&"short".to_owned()));
    let asked = json!({ "inputs": lacking["inputs"], "shipment": lacking["id"] });
    let (_, preview) = api.post("/api/v1/plans/preview", asked).await;
    assert!(!kinds(&preview).contains(&"short".to_owned()));
}

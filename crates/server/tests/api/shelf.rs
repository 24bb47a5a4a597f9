//! The shelf, the pile, layouts and their documents over HTTP.

use futures_util::future::join_all;
use test_context::test_context;

use super::*;
use crate::leaving::{at, change, ready};

const SHELF: &str = "/api/v1/shelf";

async fn items(api: &Api) -> Vec<Value> {
    let shelf = api.get(SHELF).await;
    shelf["items"].as_array().expect("items").clone()
}

/// How much there is of a material and size, and which it is.
async fn left(api: &Api, material: &str, width: f64) -> (i64, Value) {
    let found = items(api).await.into_iter().find(|item| {
        item["material"] == material
            && (width == 0.0 || item["width_mm"] == width)
            && item["kind"] != "offcut"
    });
    let found = found.expect("it is on the shelf");
    (found["left"].as_i64().expect("a count"), found)
}

/// The shelf as a table.
async fn table_of(api: &Api) -> String {
    let asked = api.client.get(format!("{}{SHELF}/table", api.base));
    let given = asked.send().await.expect("an answer");
    given.text().await.expect("text")
}

/// The head of a table with the lines of one kind.
fn lines_of(table: &str, kind: &str) -> String {
    let lines = table.lines().enumerate();
    lines
        .filter(|(at, line)| *at == 0 || line.starts_with(kind))
        .map(|(_, line)| format!("{line}\n"))
        .collect()
}

pub(crate) async fn named(api: &Api, title: &str) -> String {
    let rows = api.rows().await;
    let row = rows
        .as_array()
        .expect("rows")
        .iter()
        .find(|row| row["inputs"]["title"] == title);
    text(&row.expect("it is on the bench")["id"])
}

/// Everything that is counted, but for when and how it came there.
async fn counts(api: &Api) -> Vec<(String, String, i64)> {
    let mut counts: Vec<_> = items(api)
        .await
        .iter()
        .map(|item| {
            let what = format!(
                "{} {} {} {}",
                item["kind"], item["material"], item["width_mm"], item["height_mm"]
            );
            (
                what,
                text(&item["name"]),
                item["left"].as_i64().expect("a count"),
            )
        })
        .collect();
    counts.sort();
    counts
}

#[test_context(Demo)]
#[tokio::test]
async fn a_count_is_never_written_over_one_that_was_not_seen(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let (seven, item) = left(&api, "corrugated-c", 1600.0).await;
    assert_eq!(seven, 7);
    let path = format!("{SHELF}/{}", text(&item["id"]));
    let count = |was: i64, left: i64| json!({ "was": was, "kind": "sheet", "material": "corrugated-c", "width_mm": 1600, "height_mm": 1200, "left": left });
    let (status, _) = api.put(&path, count(7, 12)).await;
    assert_eq!(status, StatusCode::OK);
    let (status, problem) = api.put(&path, count(7, 3)).await;
    assert_eq!(
        (status, text(&problem["type"])),
        (StatusCode::CONFLICT, "/problems/recounted".into())
    );
    assert!(
        text(&problem["detail"]).contains("counted elsewhere"),
        "{problem}"
    );
    let (status, problem) = api.put(&path, count(12, -1)).await;
    assert_eq!(
        (status, text(&problem["errors"][0]["field"])),
        (StatusCode::UNPROCESSABLE_ENTITY, "left".into())
    );
    let record = api.get(&format!("{path}/record")).await;
    assert_eq!(
        (&record[0]["change"], &record[0]["why"]),
        (&json!(5), &json!("counted"))
    );
    // What only the stores say becomes a count of its own the first time.
    let (status, shelf) = api
        .post(
            SHELF,
            json!({ "kind": "roll", "material": "low-tack-50", "left": 12_500 }),
        )
        .await;
    assert_eq!(status, StatusCode::CREATED, "{shelf}");
    let (metres, item) = left(&api, "low-tack-50", 0.0).await;
    assert!(metres == 12_500 && item["id"].is_string());
}

#[test_context(Demo)]
#[tokio::test]
async fn the_shelf_goes_out_as_a_table_and_in_again_and_a_bad_line_is_named(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let before = counts(&api).await;
    let table = table_of(&api).await;
    let only = |kind: &str| lines_of(&table, kind);
    // Counts are written anew, so nothing changes; an offcut is added once more.
    for kind in ["sheet", "roll", "loose"] {
        let (status, result) = api
            .post(&format!("{SHELF}/table"), json!({ "csv": only(kind) }))
            .await;
        assert_eq!(status, StatusCode::OK, "{result}");
        assert_eq!(result["added"], 0);
    }
    assert_eq!(counts(&api).await, before);
    let (_, result) = api
        .post(
            &format!("{SHELF}/table"),
            json!({ "csv": only("offcut"), "dry_run": true }),
        )
        .await;
    assert_eq!(
        (&result["added"], counts(&api).await),
        (&json!(4), before.clone())
    );
    let bad = "kind;material;left;width_mm;height_mm;length_mm;depth_mm;board\n\
               sheet;corrugated-c;2;1600;1200;;;\n\
               sheet;corrugated-c;2;1601;1200;;;\n\
               carton;;1;700;;900;ninety;corrugated-c\n\
               roll;no-such-tape;3;;;;;\n\
               sheet;corrugated-c;3;1600;1200;;;\n\
               sheet;corrugated-b;1.5;1600;1200;;;\n";
    let (status, problem) = api
        .post(&format!("{SHELF}/table"), json!({ "csv": bad }))
        .await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    let fields: Vec<String> = problem["errors"]
        .as_array()
        .expect("errors")
        .iter()
        .map(|error| text(&error["field"]))
        .collect();
    assert_eq!(
        fields,
        [
            "line 3, width_mm",
            "line 4, depth_mm",
            "line 5, material",
            "line 6, kind",
            "line 7, left"
        ]
    );
    assert_eq!(counts(&api).await, before);
}

#[test_context(Demo)]
#[tokio::test]
async fn a_sheet_is_drawn_once_and_given_back_to_the_last_offcut(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let before = counts(&api).await;
    let kelp = named(&api, "Kelp Ladder").await;
    let lantern = named(&api, "Lantern Room").await;
    let id = "01890a5d-ac96-774b-bcce-b302099a8057";
    let ask = json!({ "id": id, "shipments": [kelp, lantern, kelp] });
    let (status, cutting) = api.post("/api/v1/cuttings", ask.clone()).await;
    assert_eq!(status, StatusCode::CREATED, "{cutting}");
    let (_, again) = api.post("/api/v1/cuttings", ask).await;
    assert_eq!(
        (&again, cutting["shipments"].as_array().map(Vec::len)),
        (&cutting, Some(2))
    );
    // Who looked at another layout cuts nothing.
    let (status, problem) = api
        .put(
            &format!("/api/v1/cuttings/{id}/sheets/1"),
            json!({ "print": "0011223344556677" }),
        )
        .await;
    assert_eq!(
        (status, text(&problem["type"])),
        (StatusCode::CONFLICT, "/problems/laid-out-anew".into())
    );
    let print = &cutting["print"];
    let sheets: Vec<Value> = cutting["laid"]["materials"]
        .as_array()
        .expect("materials")
        .iter()
        .flat_map(|cut| {
            let sheets = cut["sheets"].as_array().expect("sheets").iter();
            sheets.map(|sheet| {
                let mut sheet = sheet.clone();
                sheet["material"] = cut["material"].clone();
                sheet
            })
        })
        .collect();
    for sheet in &sheets {
        let keep: Vec<usize> = (0..sheet["rest"].as_array().map_or(0, Vec::len)).collect();
        let path = format!("/api/v1/cuttings/{id}/sheets/{}", sheet["n"]);
        // A press of which the answer was lost is pressed again.
        let presses = join_all((0..3).map(|_| {
            api.put(
                &path,
                json!({ "keep": keep, "place": "rack", "print": print }),
            )
        }))
        .await;
        assert!(
            presses.iter().all(|(status, _)| *status == StatusCode::OK),
            "{presses:?}"
        );
    }
    let then = counts(&api).await;
    let total = |counts: &[(String, String, i64)], kind: &str| -> i64 {
        counts
            .iter()
            .filter(|(what, ..)| what.starts_with(&format!("\"{kind}\"")))
            .map(|(.., left)| left)
            .sum()
    };
    // A size that nobody counts is not drawn.
    let counted = |sheet: &&Value| {
        let what = format!(
            "\"sheet\" {} {} {}",
            sheet["material"], sheet["width_mm"], sheet["height_mm"]
        );
        before.iter().any(|(known, ..)| *known == what)
    };
    let opened = sheets.iter().filter(|sheet| sheet["offcut"].is_null());
    let offcuts = sheets.len() - opened.clone().count();
    let new = opened.filter(counted).count();
    let used = i64::try_from(offcuts).expect("few");
    assert!(new > 1 && used > 0, "{new} new sheets, {used} offcuts");
    let kept: usize = sheets
        .iter()
        .map(|sheet| sheet["rest"].as_array().map_or(0, Vec::len))
        .sum();
    assert_eq!(
        total(&before, "sheet") - total(&then, "sheet"),
        i64::try_from(new).expect("few")
    );
    assert_eq!(
        total(&then, "offcut"),
        total(&before, "offcut") - used + i64::try_from(kept).expect("few")
    );
    let (status, problem) = api
        .post(
            &format!("/api/v1/cuttings/{id}/again"),
            json!({ "seed": 2 }),
        )
        .await;
    assert_eq!(
        (status, text(&problem["type"])),
        (StatusCode::CONFLICT, "/problems/begun".into())
    );
    for sheet in &sheets {
        let path = format!("/api/v1/cuttings/{id}/sheets/{}", sheet["n"]);
        assert_eq!(api.delete(&path).await, StatusCode::OK);
        assert_eq!(api.delete(&path).await, StatusCode::OK);
    }
    assert_eq!(counts(&api).await, before);
    assert_eq!(
        api.delete(&format!("/api/v1/cuttings/{id}/sheets/99"))
            .await,
        StatusCode::NOT_FOUND
    );
    let (status, _) = api
        .put(
            &format!("/api/v1/cuttings/{id}/sheets/1"),
            json!({ "keep": [99] }),
        )
        .await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
}

#[test_context(Demo)]
#[tokio::test]
async fn two_benches_never_cut_more_sheets_than_there_are(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    // Two sheets of 1600 × 1200, and six benches that cut one each; without offcuts to begin with.
    for item in items(&api)
        .await
        .iter()
        .filter(|item| item["kind"] == "offcut")
    {
        assert_eq!(
            api.delete(&format!("{SHELF}/{}", text(&item["id"]))).await,
            StatusCode::OK
        );
    }
    let blank = json!({ "name": "panel", "material": "corrugated-b", "count": 1,
        "outline_mm": [[[0, 0], [1500, 0]], [[1500, 0], [1500, 1100]], [[1500, 1100], [0, 1100]], [[0, 1100], [0, 0]]] });
    let two = json!({ "kind": "sheet", "material": "corrugated-b", "width_mm": 1600, "height_mm": 1200, "left": 2 });
    api.post(SHELF, two).await;
    let mut paths = Vec::new();
    for _ in 0..6 {
        let (status, cutting) = api
            .post("/api/v1/cuttings", json!({ "blanks": [blank] }))
            .await;
        assert_eq!(status, StatusCode::CREATED, "{cutting}");
        assert_eq!(
            cutting["laid"]["materials"][0]["sheets"][0]["width_mm"],
            1600.0
        );
        paths.push(format!(
            "/api/v1/cuttings/{}/sheets/1",
            text(&cutting["id"])
        ));
    }
    let cut = join_all(paths.iter().map(|path| api.put(path, json!({})))).await;
    let done = cut
        .iter()
        .filter(|(status, _)| *status == StatusCode::OK)
        .count();
    let none = cut
        .iter()
        .filter(|(status, problem)| {
            *status == StatusCode::CONFLICT && problem["type"] == "/problems/none-left"
        })
        .count();
    assert_eq!((done, none), (2, 4), "{cut:?}");
    assert_eq!(left(&api, "corrugated-b", 1600.0).await.0, 0);
    // An offcut that was kept and is used holds the sheet that it came from.
    let spare = json!({ "kind": "sheet", "material": "corrugated-b", "width_mm": 1600, "height_mm": 1200, "left": 5 });
    api.post(SHELF, spare).await;
    let narrow = json!({ "name": "narrow", "material": "corrugated-b", "count": 1,
        "outline_mm": [[[0, 0], [700, 0]], [[700, 0], [700, 1150]], [[700, 1150], [0, 1150]], [[0, 1150], [0, 0]]] });
    let (_, first) = api
        .post("/api/v1/cuttings", json!({ "blanks": [narrow] }))
        .await;
    let first = format!("/api/v1/cuttings/{}/sheets/1", text(&first["id"]));
    let (_, kept) = api.put(&first, json!({ "keep": [0, 1] })).await;
    assert_eq!(
        kept["done"][0]["kept"].as_array().map(Vec::len),
        Some(2),
        "{kept}"
    );
    let (_, second) = api
        .post("/api/v1/cuttings", json!({ "blanks": [narrow] }))
        .await;
    assert!(
        second["laid"]["materials"][0]["sheets"][0]["offcut"]["name"].is_string(),
        "{second}"
    );
    assert_eq!(second["laid"]["cost"], "0");
    let second = format!("/api/v1/cuttings/{}/sheets/1", text(&second["id"]));
    assert_eq!(api.put(&second, json!({})).await.0, StatusCode::OK);
    let (status, problem) = api.send(reqwest::Method::DELETE, &first, &json!({})).await;
    assert_eq!(
        (status, text(&problem["type"])),
        (StatusCode::CONFLICT, "/problems/used-since".into())
    );
    assert_eq!(api.delete(&second).await, StatusCode::OK);
    assert_eq!(api.delete(&first).await, StatusCode::OK);
}

#[test_context(Demo)]
#[tokio::test]
async fn what_packing_takes_is_given_back_as_it_was(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let ropewalk = named(&api, "The Ropewalk").await;
    let path = format!("/api/v1/shipments/{ropewalk}/shelf");
    let shelf = api.get(&path).await;
    let short: Vec<String> = shelf["lines"]
        .as_array()
        .expect("lines")
        .iter()
        .filter(|line| line["short"].as_i64() > Some(0))
        .map(|line| text(&line["material"]))
        .collect();
    // Two sheets of double wall and 2.5 m of large bubble are there; it takes four, and nearly eight metres.
    assert_eq!(short, ["double-wall-bc", "bubble-large"], "{shelf}");
    assert_eq!(shelf["lines"][1]["substitute"]["material"], "bubble-small");
    // Promised for the 30th: five days on the way at worst, one to pack, five until it comes.
    assert!(shelf["lines"][0]["order_by"].is_string() && shelf["lines"][0]["too_late"] == false);
    let before = counts(&api).await;
    let takes = join_all((0..3).map(|_| api.put(&path, json!({})))).await;
    assert!(
        takes.iter().all(|(status, _)| *status == StatusCode::OK),
        "{takes:?}"
    );
    let (bubble, _) = left(&api, "bubble-large", 0.0).await;
    assert_eq!(bubble, 0, "all that there was");
    let taken = api.get(&path).await;
    assert_eq!(taken["changed"], false);
    assert!(
        taken["taken"]
            .as_array()
            .expect("lines")
            .iter()
            .any(|line| line["amount"].as_i64() < line["wanted"].as_i64())
    );
    assert_eq!(api.delete(&path).await, StatusCode::OK);
    assert_eq!(api.delete(&path).await, StatusCode::OK);
    let then: Vec<_> = counts(&api).await;
    assert_eq!(then, before);
}

/// The steps of a shipment as they stand.
async fn steps_of(api: &Api, shipment: &Value) -> Vec<Value> {
    let inputs = api.get(&at(shipment, "")).await["inputs"].clone();
    let asked = json!({ "inputs": inputs });
    let (status, view) = api.post("/api/v1/plans/packing", asked).await;
    assert_eq!(status, StatusCode::OK, "{view}");
    view["packing"]["steps"].as_array().expect("steps").clone()
}

async fn ticked(api: &Api, shipment: &Value, steps: &[Value]) {
    let ticks: serde_json::Map<String, Value> = steps
        .iter()
        .map(|step| {
            let tick = json!({ "at": "2027-03-04T10:15:00Z", "print": step["print"] });
            (text(&step["key"]), tick)
        })
        .collect();
    let (status, view) = change(api, shipment, json!({ "packed": ticks })).await;
    assert_eq!(status, StatusCode::OK, "{view}");
}

/// What of a material is gone since.
fn gone(before: &[(String, String, i64)], now: &[(String, String, i64)], kind: &str) -> i64 {
    let total = |counts: &[(String, String, i64)]| -> i64 {
        let of_kind = counts.iter().filter(|(what, ..)| what.starts_with(kind));
        of_kind.map(|(.., left)| left).sum()
    };
    total(before) - total(now)
}

#[test_context(Demo)]
#[tokio::test]
async fn the_first_tick_takes_the_materials_and_the_last_one_taken_back_gives_them_back(
    Demo(database): &Demo,
) {
    let api = Api::start(database.pool(), true).await;
    let tide = ready(&api, "XS").await;
    let before = counts(&api).await;
    let shelf = api.get(&at(&tide, "/shelf")).await;
    assert!(shelf["taken"].is_null(), "nothing before the first tick");
    let steps = steps_of(&api, &tide).await;
    ticked(&api, &tide, &steps[..1]).await;
    let shelf = api.get(&at(&tide, "/shelf")).await;
    let taken = shelf["taken"].as_array().expect("it was taken");
    let wanted = shelf["lines"]
        .as_array()
        .expect("lines")
        .iter()
        .filter(|line| line["left"].is_i64())
        .count();
    assert_eq!((taken.len(), &shelf["changed"]), (wanted, &json!(false)));
    let then = counts(&api).await;
    assert!(gone(&before, &then, "\"sheet\"") > 0, "sheets too");
    // More ticks take nothing more.
    ticked(&api, &tide, &steps[1..3]).await;
    assert_eq!(counts(&api).await, then);
    // Undo is as good as taking the ticks back.
    for _ in 0..2 {
        let version = api.get(&at(&tide, "")).await["version"].clone();
        let (status, _) = api
            .post(&at(&tide, "/undo"), json!({ "version": version }))
            .await;
        assert_eq!(status, StatusCode::OK);
    }
    assert_eq!(counts(&api).await, before);
    let version = api.get(&at(&tide, "")).await["version"].clone();
    api.post(&at(&tide, "/redo"), json!({ "version": version }))
        .await;
    assert_eq!(counts(&api).await, then);
    let (status, _) = change(&api, &tide, json!({ "packed": null })).await;
    assert_eq!(status, StatusCode::OK);
    assert_eq!(counts(&api).await, before);
    assert!(api.get(&at(&tide, "/shelf")).await["taken"].is_null());
}

#[test_context(Demo)]
#[tokio::test]
async fn what_a_layout_has_cut_is_done_at_the_bench_and_not_taken_twice(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let tide = ready(&api, "XS").await;
    let before = counts(&api).await;
    let asked = json!({ "shipments": [tide["id"]] });
    let (status, cutting) = api.post("/api/v1/cuttings", asked).await;
    assert_eq!(status, StatusCode::CREATED, "{cutting}");
    let sheets: Vec<Value> = cutting["laid"]["materials"]
        .as_array()
        .expect("materials")
        .iter()
        .flat_map(|cut| cut["sheets"].as_array().expect("sheets").clone())
        .collect();
    let sheet = |n: &Value| format!("/api/v1/cuttings/{}/sheets/{n}", text(&cutting["id"]));
    for one in &sheets {
        let (status, view) = api.put(&sheet(&one["n"]), json!({})).await;
        assert_eq!(status, StatusCode::OK, "{view}");
    }
    let cut = counts(&api).await;
    let steps = steps_of(&api, &tide).await;
    let of_sheets = |step: &&Value| {
        let parts = step["parts"].as_array().expect("parts");
        step["stage"] == "cut" && parts.iter().all(|part| part["kind"] == "piece")
    };
    let cutting_steps: Vec<&Value> = steps.iter().filter(of_sheets).collect();
    assert!(!cutting_steps.is_empty());
    for step in &cutting_steps {
        assert_eq!(step["state"], "done", "{step}");
        assert!(text(&step["sheet"]).starts_with("sheet "), "{step}");
    }
    // A layout is no beginning: wraps and tapes lie there until somebody packs.
    assert!(api.get(&at(&tide, "/shelf")).await["taken"].is_null());
    ticked(&api, &tide, &steps[..1]).await;
    let packed = counts(&api).await;
    assert_eq!(
        gone(&cut, &packed, "\"sheet\""),
        0,
        "no sheet is taken twice"
    );
    assert_ne!(packed, cut, "what is no sheet is taken");
    // A sheet that is not cut after all is one that packing takes.
    for one in &sheets {
        assert_eq!(api.delete(&sheet(&one["n"])).await, StatusCode::OK);
    }
    let open = steps_of(&api, &tide).await;
    assert!(
        open.iter()
            .filter(of_sheets)
            .all(|step| step["state"] != "done")
    );
    assert!(gone(&before, &counts(&api).await, "\"sheet\"") > 0);
    change(&api, &tide, json!({ "packed": null })).await;
    assert_eq!(counts(&api).await, before);
}

/// Ticks, layouts and undo in any order: a parcel that is packed to the end has taken what its parts come to, and one of which
/// nothing is done has taken nothing.
#[test_context(Demo)]
#[tokio::test]
async fn a_parcel_packed_to_the_end_has_taken_what_its_parts_come_to(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let tide = ready(&api, "XS").await;
    let before = counts(&api).await;
    let (_, cutting) = api
        .post("/api/v1/cuttings", json!({ "shipments": [tide["id"]] }))
        .await;
    let sheets: Vec<Value> = cutting["laid"]["materials"]
        .as_array()
        .expect("materials")
        .iter()
        .flat_map(|cut| cut["sheets"].as_array().expect("sheets").clone())
        .collect();
    let sheet = |n: usize| format!("/api/v1/cuttings/{}/sheets/{n}", text(&cutting["id"]));
    // What a parcel takes that was packed by hand, and by the layout.
    let all = async |api: &Api| {
        let steps = steps_of(api, &tide).await;
        let open: Vec<Value> = steps
            .into_iter()
            .filter(|step| step["state"] != "done")
            .collect();
        ticked(api, &tide, &open).await;
    };
    all(&api).await;
    let by_hand = counts(&api).await;
    change(&api, &tide, json!({ "packed": null })).await;
    assert_eq!(counts(&api).await, before);
    let mut random = proptest::test_runner::TestRunner::deterministic();
    for _ in 0..6 {
        for _ in 0..8 {
            use proptest::strategy::{Strategy as _, ValueTree as _};
            let act = (0..5_usize, 0..sheets.len().max(1)).new_tree(&mut random);
            let (what, which) = act.expect("an act").current();
            let n = usize::try_from(sheets[which]["n"].as_u64().expect("a number")).expect("few");
            match what {
                0 => {
                    let steps = steps_of(&api, &tide).await;
                    ticked(&api, &tide, &steps[which..=which]).await;
                }
                1 => {
                    let steps = steps_of(&api, &tide).await;
                    let key = text(&steps[which]["key"]);
                    change(&api, &tide, json!({ "packed": { key: null } })).await;
                }
                2 => assert_eq!(api.put(&sheet(n), json!({})).await.0, StatusCode::OK),
                3 => assert_eq!(api.delete(&sheet(n)).await, StatusCode::OK),
                _ => {
                    let now = api.get(&at(&tide, "")).await;
                    let way = if now["can_redo"] == true && which % 2 == 1 {
                        "redo"
                    } else {
                        "undo"
                    };
                    let asked = json!({ "version": now["version"] });
                    api.post(&at(&tide, &format!("/{way}")), asked).await;
                }
            }
        }
        // Without a layout it has taken as much as by hand.
        for one in &sheets {
            api.delete(&format!(
                "/api/v1/cuttings/{}/sheets/{}",
                text(&cutting["id"]),
                one["n"]
            ))
            .await;
        }
        all(&api).await;
        assert_eq!(counts(&api).await, by_hand);
        change(&api, &tide, json!({ "packed": null })).await;
        assert_eq!(counts(&api).await, before);
    }
}

#[test_context(Demo)]
#[tokio::test]
async fn what_is_about_to_be_packed_waits_for_materials_that_are_short(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let made = ready(&api, "XS").await;
    let print = made["worked"]["fingerprint"].clone();
    let settled = json!({ "settled": { "guard": print, "box": print }, "order_number": "1042-B" });
    let (status, settled) = change(&api, &made, settled).await;
    assert_eq!(status, StatusCode::OK, "{settled}");
    let row = async || {
        let found = api.get("/api/v1/shipments?search=1042-b").await;
        assert_eq!(found["total"], 1, "{found}");
        found["rows"][0].clone()
    };
    let there = row().await;
    assert_eq!(
        (&there["line"]["group"], &there["lacks"]),
        (&json!("cut"), &json!([]))
    );
    // No roll of tape is left of the one that it takes.
    let shelf = api.get(&at(&made, "/shelf")).await;
    let lines = shelf["lines"].as_array().expect("lines");
    let tape = lines
        .iter()
        .find(|line| line["kind"] == "roll" && line["left"].is_i64());
    let tape = tape.expect("it takes from a roll that is counted");
    let material = text(&tape["material"]);
    let (was, _) = left(&api, &material, 0.0).await;
    let none = json!({ "kind": "roll", "material": material, "left": 0 });
    let (status, _) = api.post(SHELF, none).await;
    assert_eq!(status, StatusCode::CREATED);
    let (_, item) = left(&api, &material, 0.0).await;
    let count = format!("{SHELF}/{}", text(&item["id"]));
    let recount = |was: i64, left: i64| json!({ "was": was, "kind": "roll", "material": material, "left": left });
    let waits = row().await;
    assert_eq!(waits["line"]["group"], "materials", "{}", waits["line"]);
    assert_eq!(waits["lacks"][0]["name"], tape["name"]);
    assert_eq!(waits["lacks"][0]["short"], tape["needs"]);
    // It came; and what was taken once is not asked about again, however little is left.
    api.put(&count, recount(0, was)).await;
    assert_eq!(row().await["line"]["group"], "cut");
    let (status, _) = api.put(&at(&made, "/shelf"), json!({})).await;
    assert_eq!(status, StatusCode::OK);
    let (now, _) = left(&api, &material, 0.0).await;
    api.put(&count, recount(now, 0)).await;
    assert_eq!(row().await["line"]["group"], "cut");
}

#[test_context(Demo)]
#[tokio::test]
async fn a_carton_of_the_pile_is_chosen_taken_and_opened(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let lantern = named(&api, "Lantern Room").await;
    let shipment = format!("/api/v1/shipments/{lantern}");
    let view = api.get(&shipment).await;
    // Strips on its border need no wider boards.
    let bordered = json!({
        "version": view["version"], "change": { "piece": { "bare_border": "40 mm" } },
    });
    let (status, view) = api.patch(&shipment, bordered).await;
    assert_eq!(status, StatusCode::OK, "{view}");
    let (status, fits) = api
        .post("/api/v1/plans/pile", json!({ "inputs": view["inputs"] }))
        .await;
    assert_eq!(status, StatusCode::OK, "{fits}");
    let mirror = fits["fits"]
        .as_array()
        .and_then(|fits| {
            let mut fits = fits.iter();
            fits.find(|fit| fit["name"] == "Tall carton from Ormside")
        })
        .expect("it does for it");
    assert_eq!(mirror["way"], "cut_down");
    let edit = json!({ "version": view["version"], "change": { "choices": mirror["choices"] } });
    let (status, chosen) = api
        .patch(&format!("/api/v1/shipments/{lantern}"), edit)
        .await;
    assert_eq!(status, StatusCode::OK, "{chosen}");
    let shelf = format!("/api/v1/shipments/{lantern}/shelf");
    api.put(&shelf, json!({})).await;
    let pile = |items: Vec<Value>| {
        items
            .into_iter()
            .find(|item| item["name"] == "Tall carton from Ormside")
    };
    assert_eq!(pile(items(&api).await), None, "the last one is in use");
    assert_eq!(api.get(&shelf).await["changed"], false);
    api.delete(&shelf).await;
    let mirror = pile(items(&api).await).expect("it is back");
    let open = format!("{SHELF}/{}/open", text(&mirror["id"]));
    let (_, panels) = api.post(&open, json!({ "dry_run": true })).await;
    let good: Vec<String> = panels
        .as_array()
        .expect("panels")
        .iter()
        .filter(|panel| panel["kept"] == true)
        .map(|panel| text(&panel["name"]))
        .collect();
    assert!(good.len() >= 4, "{panels}");
    let (status, problem) = api.post(&open, json!({ "bad": ["lid"] })).await;
    assert_eq!(
        (status, text(&problem["errors"][0]["field"])),
        (StatusCode::UNPROCESSABLE_ENTITY, "bad".into())
    );
    let before = items(&api)
        .await
        .iter()
        .filter(|item| item["kind"] == "offcut")
        .count();
    api.post(&open, json!({ "bad": [good[0]], "place": "rack" }))
        .await;
    let offcuts = items(&api)
        .await
        .iter()
        .filter(|item| item["kind"] == "offcut")
        .count();
    assert_eq!(offcuts, before + good.len() - 1);
    let (status, _) = api.post(&open, json!({})).await;
    assert_eq!(status, StatusCode::CONFLICT, "there was one");
}

#[test_context(Demo)]
#[tokio::test]
async fn two_alike_of_the_pile_are_taken_together_and_given_back(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let kelp = named(&api, "Kelp Ladder").await;
    let door = json!({
        "kind": "carton", "length_mm": 1200, "width_mm": 1060, "depth_mm": 160, "board": "corrugated-c",
        "name": "Door box", "place": "loft", "left": 2,
    });
    let (status, kept) = api.post(SHELF, door).await;
    assert_eq!(status, StatusCode::CREATED, "{kept}");
    let at = format!("/api/v1/shipments/{kelp}");
    let view = api.get(&at).await;
    let asked = json!({ "inputs": view["inputs"] });
    let (_, fits) = api.post("/api/v1/plans/pile", asked).await;
    let both = fits["fits"]
        .as_array()
        .and_then(|fits| fits.iter().find(|fit| fit["way"] == "joined"))
        .expect("two of them do");
    assert_eq!(text(&both["second"]["name"]), "Door box");
    let edit = json!({ "version": view["version"], "change": { "choices": both["choices"] } });
    let (status, chosen) = api.patch(&at, edit).await;
    assert_eq!(status, StatusCode::OK, "{chosen}");
    let left = async || {
        let items = items(&api).await;
        let door = items.iter().find(|item| item["name"] == "Door box");
        door.map_or(0, |door| door["left"].as_i64().expect("a count"))
    };
    let shelf = format!("{at}/shelf");
    assert_eq!(left().await, 2);
    for _ in 0..2 {
        api.put(&shelf, json!({})).await;
        assert_eq!(left().await, 0, "taken once, however often it is asked");
    }
    assert_eq!(api.get(&shelf).await["changed"], false);
    // A plan with one of them takes something else.
    let now = api.get(&at).await;
    let choices = json!({
        "second_saved_length": "", "second_saved_width": "", "second_saved_height": "", "saved_length": "1400 mm",
    });
    let edit = json!({ "version": now["version"], "change": { "choices": choices } });
    let (status, changed) = api.patch(&at, edit).await;
    assert_eq!(status, StatusCode::OK, "{changed}");
    assert_eq!(api.get(&shelf).await["changed"], true);
    api.delete(&shelf).await;
    assert_eq!(left().await, 2);
}

#[test_context(Demo)]
#[tokio::test]
async fn drawings_and_lists_go_out_and_a_dxf_comes_in(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let kelp = named(&api, "Kelp Ladder").await;
    assert_eq!(
        api.get("/api/v1/documents").await["ready"],
        true,
        "cargo build -p hummock-documents"
    );
    let (_, cutting) = api
        .post(
            "/api/v1/cuttings",
            json!({ "shipments": [kelp], "tool": "saw" }),
        )
        .await;
    let id = text(&cutting["id"]);
    let fetch = |path: String| {
        let request = api.client.get(format!("{}{path}", api.base));
        async move {
            let response = request.send().await.expect("an answer");
            let (status, kind) = (
                response.status(),
                response.headers()["content-type"]
                    .to_str()
                    .expect("text")
                    .to_owned(),
            );
            (status, kind, response.bytes().await.expect("a body"))
        }
    };
    for (path, kind, begins) in [
        (
            format!("/api/v1/shipments/{kelp}/pack-sheet?at=http://127.0.0.1:7373"),
            "application/pdf",
            "%PDF-",
        ),
        (
            format!("/api/v1/cuttings/{id}/drawings/pdf?paper=a3"),
            "application/pdf",
            "%PDF-",
        ),
        (
            format!("/api/v1/cuttings/{id}/drawings/pdf?part=1"),
            "application/pdf",
            "%PDF-",
        ),
        (
            format!("/api/v1/cuttings/{id}/drawings/svg?part=1"),
            "image/svg+xml",
            "<svg",
        ),
        (
            format!("/api/v1/shipments/{kelp}/drawings/dxf"),
            "image/vnd.dxf",
            "  0\r\nSECTION",
        ),
        (
            format!("/api/v1/cuttings/{id}/list.csv"),
            "text/csv; charset=utf-8",
            "sheet,material",
        ),
    ] {
        let (status, told, body) = fetch(path.clone()).await;
        assert_eq!(
            (status, told.as_str()),
            (StatusCode::OK, kind),
            "{path}: {}",
            String::from_utf8_lossy(&body)
        );
        assert!(
            body.starts_with(begins.as_bytes()),
            "{path}: {:?}",
            &body[..20]
        );
    }
    for path in [
        format!("/api/v1/cuttings/{id}/drawings/png"),
        format!("/api/v1/cuttings/{id}/drawings/svg?part=99"),
        "/api/v1/cuttings/nonsense/list.csv".to_owned(),
    ] {
        assert_eq!(fetch(path.clone()).await.0, StatusCode::NOT_FOUND, "{path}");
    }
    let (_, _, dxf) = fetch(format!("/api/v1/shipments/{kelp}/drawings/dxf")).await;
    let (status, read) = api
        .post(
            "/api/v1/documents/dxf",
            json!({ "dxf": String::from_utf8_lossy(&dxf) }),
        )
        .await;
    assert_eq!(status, StatusCode::OK, "{read}");
    let of = |layers: &[&str]| -> Vec<Value> {
        let lines = read["lines"].as_array().expect("lines").iter();
        lines
            .filter(|line| layers.contains(&line["layer"].as_str().unwrap_or_default()))
            .map(|line| json!([line["from"], line["to"]]))
            .collect()
    };
    let blank = json!({ "name": "as Kelp", "material": "double-wall-bc", "count": 1,
        "outline_mm": of(&["CUT"]), "scores_mm": of(&["SCORE_TOWARD", "SCORE_AWAY"]) });
    let (status, cutting) = api
        .post("/api/v1/cuttings", json!({ "blanks": [blank] }))
        .await;
    assert_eq!(status, StatusCode::CREATED, "{cutting}");
    // It weighs what the plan says that its board weighs: the box of Kelp Ladder is of the same board.
    let view = api.get(&format!("/api/v1/shipments/{kelp}")).await;
    let layers = view["worked"]["plan"]["layers"]
        .as_array()
        .expect("layers")
        .clone();
    let part = layers
        .iter()
        .find(|layer| layer["slot"] == "box")
        .map(|layer| layer["parts"][0].clone())
        .expect("a box");
    let (one, other) = (
        cutting["blanks"][0]["mass_g"].as_f64(),
        part["mass_g"].as_f64(),
    );
    assert!(
        one.zip(other)
            .is_some_and(|(one, other)| (one - other).abs() < 0.01),
        "{one:?} {other:?}"
    );
    let (status, problem) = api
        .post("/api/v1/documents/dxf", json!({ "dxf": "hello" }))
        .await;
    assert_eq!(
        (status, text(&problem["errors"][0]["field"])),
        (StatusCode::UNPROCESSABLE_ENTITY, "dxf".into())
    );
}

#[test_context(Demo)]
#[tokio::test]
async fn without_the_program_that_draws_all_else_works(Demo(database): &Demo) {
    let api = Api::start_with(database.pool(), true, |options| {
        options.documents = hummock_server::Documents::by("/nowhere/hummock-documents".into())
    })
    .await;
    let kelp = named(&api, "Kelp Ladder").await;
    let (_, cutting) = api
        .post("/api/v1/cuttings", json!({ "shipments": [kelp] }))
        .await;
    let id = text(&cutting["id"]);
    assert_eq!(api.get("/api/v1/documents").await["ready"], false);
    let response = api
        .client
        .get(format!("{}/api/v1/cuttings/{id}/drawings/pdf", api.base))
        .send()
        .await
        .expect("an answer");
    let (status, problem): (_, Value) = (response.status(), response.json().await.expect("JSON"));
    assert_eq!(
        (status, text(&problem["type"])),
        (
            StatusCode::SERVICE_UNAVAILABLE,
            "/problems/no-documents-yet".into()
        )
    );
    // One that fails takes nothing with it.
    for program in ["/bin/false", "/bin/true"] {
        let broken = Api::start_with(database.pool(), true, |options| {
            options.documents = hummock_server::Documents::by(program.into())
        })
        .await;
        let response = broken
            .client
            .get(format!("{}/api/v1/cuttings/{id}/drawings/pdf", broken.base))
            .send()
            .await
            .expect("an answer");
        let (status, problem): (_, Value) =
            (response.status(), response.json().await.expect("JSON"));
        assert_eq!(
            (status, text(&problem["type"])),
            (
                StatusCode::INTERNAL_SERVER_ERROR,
                "/problems/document-failed".into()
            )
        );
        let list = broken
            .client
            .get(format!("{}/api/v1/cuttings/{id}/list.csv", broken.base))
            .send()
            .await
            .expect("an answer");
        assert_eq!(list.status(), StatusCode::OK);
    }
}

/// One that never ends has its time; who waited for a turn meanwhile is told to come again.
#[test_context(Demo)]
#[tokio::test]
async fn whoever_waits_for_a_turn_at_drawing_is_told_to_come_again(Demo(database): &Demo) {
    use std::os::unix::fs::PermissionsExt as _;

    let folder = tempfile::tempdir().expect("a folder");
    let slow = folder.path().join("slow");
    std::fs::write(&slow, "#!/bin/sh\nexec sleep 600\n").expect("a file");
    std::fs::set_permissions(&slow, std::fs::Permissions::from_mode(0o755)).expect("it is run");
    let api = Api::start_with(database.pool(), true, |options| {
        options.documents = hummock_server::Documents::by(slow);
        // Far shorter than its answer: however busy the machine is, the document is given up first.
        options.waits.document = std::time::Duration::from_millis(500);
    })
    .await;
    let kelp = named(&api, "Kelp Ladder").await;
    let (_, cutting) = api
        .post("/api/v1/cuttings", json!({ "shipments": [kelp] }))
        .await;
    let url = format!(
        "{}/api/v1/cuttings/{}/drawings/pdf",
        api.base,
        text(&cutting["id"])
    );
    let all = futures_util::future::join_all((0..6).map(|_| api.client.get(&url).send())).await;
    let mut said = Vec::new();
    for response in all {
        let response = response.expect("an answer");
        let wait = response.headers().get("retry-after").is_some();
        said.push((response.status().as_u16(), wait));
    }
    said.sort_unstable();
    assert_eq!(said[..2], [(500, false); 2], "those that had their time");
    // Whoever's turn comes in the last moment of its time has had a turn.
    assert_eq!(said[4..], [(503, true); 2], "those that had no turn");
    assert!(
        said.iter()
            .all(|one| [(500, false), (503, true)].contains(one)),
        "{said:?}"
    );
}

/// A case that was built for a parcel goes on the shelf as it was built, is offered to another that it takes, and is taken off when packing
/// begins.
#[test_context(Demo)]
#[tokio::test]
async fn a_case_that_came_back_is_offered_and_taken(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let id = named(&api, "Kelp Ladder").await;
    let built = json!({ "choices": { "travel_case": true, "case_empty": "19.2 kg" } });
    let (status, shipment) = change(&api, &json!({ "id": id }), built).await;
    assert_eq!(status, StatusCode::OK, "{shipment}");
    let keep = &shipment["worked"]["case_back"]["keep"];
    assert_eq!(keep["empty_g"], 19_200.0);
    let mut item = keep.clone();
    let more = json!({ "id": id, "kind": "case", "name": "Case for Kelp Ladder", "place": "loft", "left": 1 });
    for (key, value) in more.as_object().expect("fields") {
        item[key] = value.clone();
    }
    // Asked twice, one stands there.
    for _ in 0..2 {
        let (status, problem) = api.post(SHELF, item.clone()).await;
        assert_eq!(status, StatusCode::CREATED, "{problem}");
    }
    let cases = items(&api).await;
    let cases: Vec<&Value> = cases.iter().filter(|item| item["kind"] == "case").collect();
    assert_eq!(cases.len(), 1);
    assert_eq!(cases[0]["outside_length_mm"], keep["outside_length_mm"]);
    // In the table, and back from it.
    let table = lines_of(&table_of(&api).await, "case");
    assert!(table.contains("Case for Kelp Ladder"), "{table}");
    let asked = json!({ "csv": table, "dry_run": true });
    let (status, read) = api.post(&format!("{SHELF}/table"), asked).await;
    assert_eq!(
        (status, &read["added"]),
        (StatusCode::OK, &json!(1)),
        "{read}"
    );
    let mut thin = item.clone();
    thin["id"] = json!(null);
    thin["outside_depth_mm"] = json!(20);
    let (status, problem) = api.post(SHELF, thin).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["errors"][0]["field"], "outside_depth_mm");

    // The same piece goes in it again, as if it were another.
    let inputs = json!({ "inputs": shipment["inputs"] });
    let (_, fits) = api.post("/api/v1/plans/pile", inputs).await;
    let fit = &fits["cases"][0];
    assert_eq!(
        (&fit["name"], &fit["refused"]),
        (&json!("Case for Kelp Ladder"), &json!(null)),
        "{fits}"
    );
    let choices = json!({ "choices": fit["choices"] });
    let (status, taken) = change(&api, &shipment, choices).await;
    assert_eq!(status, StatusCode::OK, "{taken}");
    let made = &taken["worked"]["plan"]["layers"];
    let made = made
        .as_array()
        .expect("layers")
        .iter()
        .find(|layer| layer["slot"] == "box");
    assert_eq!(made.expect("a box")["make"]["kept"], true);
    let (status, problem) = api
        .put(&format!("/api/v1/shipments/{id}/shelf"), json!({}))
        .await;
    assert_eq!(status, StatusCode::OK, "{problem}");
    let left = items(&api).await;
    let left = left
        .iter()
        .find(|item| item["kind"] == "case")
        .expect("it has its line");
    assert_eq!(left["left"], 0);
}

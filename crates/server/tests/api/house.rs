//! Rules of the house, presets and alternatives over HTTP.

use super::*;
use test_context::test_context;

use crate::{Demo, NoShipments};

async fn rules(api: &Api) -> Value {
    api.get("/api/v1/studio").await["rules"].clone()
}

#[test_context(Demo)]
#[tokio::test]
async fn a_change_of_rules_is_shown_before_it_is_made(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let mut lean = rules(&api).await;
    let preview = "/api/v1/studio/rules/preview";
    let (status, effects) = api.post(preview, json!({ "rules": lean.clone() })).await;
    assert_eq!(status, StatusCode::OK, "{effects}");
    assert_eq!(effects["affected"], json!([]));

    lean["schools"]["padding"] = json!("lean");
    let (_, effects) = api.post(preview, json!({ "rules": lean.clone() })).await;
    let affected = effects["affected"].as_array().expect("a list");
    let kelp = affected
        .iter()
        .find(|one| one["title"] == "Kelp Ladder")
        .expect("one wrap less changes the canvas");
    // One turn of bubble wrap less: 9 in front, 9 and a seam of 2 behind.
    assert!((kelp["impact"]["change"]["through_mm"].as_f64().expect("mm") + 20.0).abs() < 1e-6);
    assert!(kelp["impact"]["change"]["mass_g"].as_f64().expect("g") < -100.0);
    assert!(
        !affected.iter().any(|one| one["title"] == "Estuary Scroll"),
        "a roll has its own turns"
    );
    assert_eq!(rules(&api).await["version"], 1);
}

#[test_context(Demo)]
#[tokio::test]
async fn applied_rules_work_out_the_bench_again(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let through = || async {
        let rows = api.rows().await;
        let kelp = rows.as_array().expect("a list").iter();
        let kelp = kelp
            .filter(|row| row["inputs"]["title"] == "Kelp Ladder")
            .map(|row| {
                row["summary"]["outside"]["through_mm"]
                    .as_f64()
                    .expect("mm")
            });
        kelp.sum::<f64>()
    };
    let before = through().await;
    let mut lean = rules(&api).await;
    lean["schools"]["padding"] = json!("lean");
    let (status, applied) = api
        .put("/api/v1/studio/rules", json!({ "rules": lean.clone() }))
        .await;
    assert_eq!(status, StatusCode::OK, "{applied}");
    assert_eq!(applied["version"], 2);
    assert!((before - through().await - 20.0).abs() < 1e-6);

    // The same change again is based on rules that are not the newest.
    let (status, problem) = api
        .put("/api/v1/studio/rules", json!({ "rules": lean }))
        .await;
    assert_eq!(status, StatusCode::CONFLICT);
    assert_eq!(problem["type"], "/problems/stale");
}

#[test_context(Demo)]
#[tokio::test]
async fn rules_out_of_range_are_refused_at_their_field(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let good = rules(&api).await;
    let api = &api;
    let refused = |rules: Value| async move {
        let (status, problem) = api
            .put("/api/v1/studio/rules", json!({ "rules": rules }))
            .await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
        text(&problem["errors"][0]["field"])
    };
    for (pointer, value, field) in [
        (
            "/allowances/clearance_mm",
            json!(500),
            "allowances.clearance_mm",
        ),
        (
            "/allowances/clearance_mm",
            json!("wide"),
            "rules.allowances.clearance_mm",
        ),
        ("/materials/fill", json!("gold-leaf"), "materials.fill"),
        ("/schools/padding", json!("royal"), "rules.schools.padding"),
        ("/name", json!(" "), "name"),
        (
            "/odds/classes/canvas/base_percent",
            json!(0),
            "odds.classes.canvas.base_percent",
        ),
        (
            "/beginnings/0/start_from",
            json!("Nobody's"),
            "beginnings[0].start_from",
        ),
    ] {
        let mut bad = good.clone();
        *bad.pointer_mut(pointer).expect("it is there") = value;
        assert_eq!(refused(bad).await, field);
    }
    assert_eq!(rules(api).await["version"], 1);
}

#[test_context(Demo)]
#[tokio::test]
async fn presets_are_kept_followed_and_dropped(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let names = || async {
        let presets = api.get("/api/v1/studio/presets").await;
        let presets = presets.as_array().expect("a list").iter();
        presets
            .map(|preset| text(&preset["rules"]["name"]))
            .collect::<Vec<_>>()
    };
    let given = ["Lean", "Standard", "Twice boxed", "Board pair", "Rolled"];
    assert_eq!(names().await, given);

    let mut own = rules(&api).await;
    own["name"] = json!("Show week");
    own["schools"]["fit"] = json!("snug");
    let keep = |rules: Value| {
        api.client
            .post(format!("{}/api/v1/studio/presets", api.base))
            .json(&json!({ "rules": rules }))
            .send()
    };
    assert_eq!(
        keep(own.clone()).await.expect("an answer").status(),
        StatusCode::NO_CONTENT
    );
    assert_eq!(names().await.len(), 6);
    let presets = api.get("/api/v1/studio/presets").await;
    assert_eq!(presets[5]["choices"]["schools"]["fit"], "snug");
    own["name"] = json!("Lean");
    assert_eq!(
        keep(own).await.expect("an answer").status(),
        StatusCode::UNPROCESSABLE_ENTITY
    );
    assert_eq!(
        api.delete("/api/v1/studio/presets/Show%20week").await,
        StatusCode::NO_CONTENT
    );
    assert_eq!(
        api.delete("/api/v1/studio/presets/Show%20week").await,
        StatusCode::NOT_FOUND
    );
    assert_eq!(names().await, given);
}

#[test_context(Demo)]
#[tokio::test]
async fn alternatives_say_what_each_would_change(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let body = json!({ "inputs": { "piece": canvas() }, "slot": "contact" });
    let (status, offers) = api.post("/api/v1/plans/alternatives", body).await;
    assert_eq!(status, StatusCode::OK, "{offers}");
    let offer = |name: &str| {
        let offers = offers.as_array().expect("a list").iter();
        offers
            .clone()
            .find(|offer| text(&offer["label"]).starts_with(name))
            .cloned()
            .unwrap_or_default()
    };
    assert_eq!(offer("Glassine")["chosen"], true);
    assert!(text(&offer("Polythene")["refused"]).contains("must never touch"));
    assert!(
        offer("Acid-free tissue")["change"]["mass_g"]
            .as_f64()
            .expect("g")
            < 0.0
    );

    let unmeasured = json!({ "inputs": {}, "slot": "contact" });
    let (_, none) = api.post("/api/v1/plans/alternatives", unmeasured).await;
    assert_eq!(none, json!([]));
    let nowhere = json!({ "inputs": { "piece": canvas() }, "slot": "roof" });
    let (status, problem) = api.post("/api/v1/plans/alternatives", nowhere).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["errors"][0]["field"], "slot");
}

#[test_context(NoShipments)]
#[tokio::test]
async fn what_the_job_forbids_is_refused_at_its_layer(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    let with = |choices: Value| json!({ "piece": canvas(), "choices": choices });
    for (choices, field) in [
        (
            json!({ "layers": { "contact": false } }),
            "choices.layers.contact",
        ),
        (
            json!({ "layers": { "glass_tape": true } }),
            "choices.layers.glass_tape",
        ),
        (
            json!({ "contact_paper": "polythene-sheet" }),
            "choices.contact_paper",
        ),
        (json!({ "carriage": "rolled" }), "choices.carriage"),
        (json!({ "layers": { "roof": true } }), "choices.layers.?"),
    ] {
        let refusals = api.refusals(with(choices)).await;
        assert_eq!(refusals[0].0, field, "{refusals:?}");
    }
}

#[test_context(Demo)]
#[tokio::test]
async fn what_an_earlier_edition_stored_is_brought_up_to_date_once(Demo(database): &Demo) {
    drop(Api::start(database.pool(), true).await);
    // As an edition that knew no foams, no curves and no slots had left it.
    for statement in [
        "UPDATE catalogue SET edition = 1, materials = jsonb_set(materials, '{foams}', '[]')",
        "UPDATE catalogue SET materials = materials #- '{cushion_wraps,0,curve}'",
        "UPDATE shipment SET worked = worked - 'edition' #- '{plan,slots}'",
    ] {
        sqlx::query(statement)
            .execute(database.pool())
            .await
            .expect("it is changed");
    }
    let api = Api::start(database.pool(), true).await;
    let stores = api.get("/api/v1/stores").await;
    assert!(
        !stores["catalogue"]["foams"]
            .as_array()
            .expect("a list")
            .is_empty()
    );
    assert!(stores["catalogue"]["cushion_wraps"][0]["curve"].is_object());
    let rows = api.rows().await;
    for row in rows.as_array().expect("a list") {
        let shipment = api
            .get(&format!("/api/v1/shipments/{}", text(&row["id"])))
            .await;
        assert!(
            shipment["worked"]["plan"]["slots"].is_array(),
            "{}",
            row["inputs"]["title"]
        );
        assert_eq!(shipment["version"], 1, "nobody edited it");
    }
    drop(api);
    // A shelf that is emptied on purpose stays empty.
    sqlx::query("UPDATE catalogue SET materials = jsonb_set(materials, '{tubes}', '[]')")
        .execute(database.pool())
        .await
        .expect("it is changed");
    let api = Api::start(database.pool(), true).await;
    let stores = api.get("/api/v1/stores").await;
    assert_eq!(stores["catalogue"]["tubes"], json!([]));
}

/// A canvas for a country and a value, with choices.
fn begun(country: &str, value: &str, choices: Value) -> Value {
    json!({ "inputs": {
        "title": "Slack Tide", "piece": canvas(), "value": value, "choices": choices,
        "buyer": { "name": "A", "street": "B", "town": "C", "postcode": "", "country": country },
    } })
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_plan_names_the_line_that_it_began_from_and_keeps_its_preset(
    NoShipments(database): &NoShipments,
) {
    let api = Api::start(database.pool(), false).await;
    let make = |body: Value| {
        let api = &api;
        async move { api.post("/api/v1/shipments", body).await.1 }
    };
    let home = make(begun("XS", "500", json!({}))).await;
    assert_eq!(home["worked"]["plan"]["began"]["preset"], "Standard");
    assert_eq!(home["inputs"]["choices"]["preset"], Value::Null);
    let path = format!("/api/v1/shipments/{}", text(&home["id"]));

    // While only piece, value and route change, the table is asked again.
    let change = json!({ "version": 1, "change": { "buyer": { "country": "XO" } } });
    let (_, overseas) = api.patch(&path, change).await;
    assert_eq!(overseas["worked"]["plan"]["began"]["preset"], "Twice boxed");
    assert_eq!(overseas["worked"]["plan"]["began"]["line"], 5);
    assert_eq!(overseas["worked"]["plan"]["odds"]["route"], 2.5);

    // A layer is chosen: the preset picked until then is kept, also when it goes elsewhere after all.
    let change = json!({ "version": 2, "change": {
        "buyer": { "country": "XS" }, "choices": { "first_turns": 2 },
    } });
    let (_, kept) = api.patch(&path, change).await;
    assert_eq!(kept["inputs"]["choices"]["preset"], "Twice boxed");
    assert_eq!(
        kept["worked"]["plan"]["began"]["says"],
        "chosen for this shipment"
    );

    // Whoever takes the preset away asks the table again.
    let change = json!({ "version": 3, "change": { "choices": { "preset": null } } });
    let (_, asked) = api.patch(&path, change).await;
    assert_eq!(asked["inputs"]["choices"]["preset"], "Standard");

    // A preview keeps nothing: what names no preset asks the table.
    let (_, preview) = api
        .post(
            "/api/v1/plans/preview",
            begun("XO", "500", json!({ "first_turns": 2 })),
        )
        .await;
    assert_eq!(preview["worked"]["plan"]["began"]["line"], 5);
    assert_eq!(preview["inputs"]["choices"]["preset"], Value::Null);
}

#[test_context(NoShipments)]
#[tokio::test]
async fn changes_are_worked_out_when_they_are_asked_for(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    let body = begun("XS", "400", json!({}));
    let (_, preview) = api.post("/api/v1/plans/preview", body.clone()).await;
    let odds = &preview["worked"]["plan"]["odds"];
    // A canvas 900 × 1200 in its Standard pack, nationally, is its own reference: 0.3 × 4^(ln 1.2/ln 1.6) %.
    assert!((odds["factor"].as_f64().expect("a factor") - 1.0).abs() < 1e-9);
    let base = odds["base_percent"].as_f64().expect("a base");
    assert!((base - 0.513_653).abs() < 1e-6, "{base}");
    assert_eq!(odds["hazards"][0]["kind"], "flat");
    let (status, changes) = api.post("/api/v1/plans/changes", body).await;
    assert_eq!(status, StatusCode::OK, "{changes}");
    let first = &changes["more"][0];
    let (before, after) = (&first["probability_before"], &first["probability_after"]);
    assert_eq!(before, &odds["probability"]);
    assert!(after.as_f64() < before.as_f64().map(|before| before * 0.94));
    assert_eq!(first["choices"]["preset"], "Standard");

    // With a layer, its alternatives come along, as they are told by themselves.
    assert_eq!(changes["alternatives"], Value::Null);
    let mut of_layer = begun("XS", "400", json!({}));
    of_layer["slot"] = json!("contact");
    let (_, alone) = api
        .post("/api/v1/plans/alternatives", of_layer.clone())
        .await;
    let (_, both) = api.post("/api/v1/plans/changes", of_layer).await;
    assert_eq!(both["more"], changes["more"]);
    assert_eq!(both["alternatives"], alone);
    assert!(alone.as_array().is_some_and(|offers| offers.len() > 1));

    let nothing = json!({ "inputs": { "title": "Not measured" } });
    let (status, none) = api.post("/api/v1/plans/changes", nothing).await;
    assert_eq!((status, none), (StatusCode::OK, Value::Null));
    let wide = json!({ "inputs": { "piece": { "width": "wide" } } });
    let (status, problem) = api.post("/api/v1/plans/changes", wide).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["errors"][0]["field"], "piece.width");
}

#[test_context(Demo)]
#[tokio::test]
async fn a_record_moves_the_odds_of_the_whole_bench(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let one_in = || async {
        let rows = api.rows().await;
        let rows = rows.as_array().expect("a list").iter();
        rows.filter(|row| row["inputs"]["title"] == "Low Water, March")
            .map(|row| row["summary"]["one_in"]["about"].as_u64().expect("odds"))
            .sum::<u64>()
    };
    let before = one_in().await;
    let mut rules = rules(&api).await;
    // 400 small panes sent nationally, of which 4 would be expected damaged, and none was.
    rules["odds"]["record"] =
        json!([{ "class": "glass_small", "route": "national", "sent": 400, "damaged": 0 }]);
    let (status, _) = api
        .put("/api/v1/studio/rules", json!({ "rules": rules }))
        .await;
    assert_eq!(status, StatusCode::OK);
    // k is 4 of 8: half as likely, to the digits in which it is said.
    assert!(
        one_in().await.abs_diff(before * 2) <= 5,
        "{before} became {}",
        one_in().await
    );
}

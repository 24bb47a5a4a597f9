//! Rules of the house, presets and alternatives over HTTP.

use super::*;

async fn rules(api: &Api) -> Value {
    api.get("/api/v1/studio").await["rules"].clone()
}

#[sqlx::test(migrations = false)]
async fn a_change_of_rules_is_shown_before_it_is_made(pool: PgPool) {
    let api = Api::start(&pool, true).await;
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
    // One turn of bubble wrap less: 9 in front and 18 behind.
    assert!((kelp["impact"]["change"]["through_mm"].as_f64().expect("mm") + 27.0).abs() < 1e-6);
    assert!(kelp["impact"]["change"]["mass_g"].as_f64().expect("g") < -100.0);
    assert!(
        !affected.iter().any(|one| one["title"] == "Estuary Scroll"),
        "a roll has its own turns"
    );
    assert_eq!(rules(&api).await["version"], 1);
}

#[sqlx::test(migrations = false)]
async fn applied_rules_work_out_the_bench_again(pool: PgPool) {
    let api = Api::start(&pool, true).await;
    let through = || async {
        let rows = api.get("/api/v1/shipments").await;
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
    assert!((before - through().await - 27.0).abs() < 1e-6);

    // The same change again is based on rules that are not the newest.
    let (status, problem) = api
        .put("/api/v1/studio/rules", json!({ "rules": lean }))
        .await;
    assert_eq!(status, StatusCode::CONFLICT);
    assert_eq!(problem["type"], "/problems/stale");
}

#[sqlx::test(migrations = false)]
async fn rules_out_of_range_are_refused_at_their_field(pool: PgPool) {
    let api = Api::start(&pool, true).await;
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
    ] {
        let mut bad = good.clone();
        *bad.pointer_mut(pointer).expect("it is there") = value;
        assert_eq!(refused(bad).await, field);
    }
    assert_eq!(rules(api).await["version"], 1);
}

#[sqlx::test(migrations = false)]
async fn presets_are_kept_followed_and_dropped(pool: PgPool) {
    let api = Api::start(&pool, true).await;
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

#[sqlx::test(migrations = false)]
async fn alternatives_say_what_each_would_change(pool: PgPool) {
    let api = Api::start(&pool, true).await;
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

#[sqlx::test(migrations = false)]
async fn what_the_job_forbids_is_refused_at_its_layer(pool: PgPool) {
    let api = Api::start(&pool, false).await;
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

#[sqlx::test(migrations = false)]
async fn what_an_earlier_edition_stored_is_brought_up_to_date_once(pool: PgPool) {
    drop(Api::start(&pool, true).await);
    // As an edition that knew no foams, no curves and no slots had left it.
    for statement in [
        "UPDATE catalogue SET edition = 1, materials = jsonb_set(materials, '{foams}', '[]')",
        "UPDATE catalogue SET materials = materials #- '{cushion_wraps,0,curve}'",
        "UPDATE shipment SET worked = worked - 'edition' #- '{plan,slots}'",
    ] {
        sqlx::query(statement)
            .execute(&pool)
            .await
            .expect("it is changed");
    }
    let api = Api::start(&pool, true).await;
    let stores = api.get("/api/v1/stores").await;
    assert!(
        !stores["catalogue"]["foams"]
            .as_array()
            .expect("a list")
            .is_empty()
    );
    assert!(stores["catalogue"]["cushion_wraps"][0]["curve"].is_object());
    let rows = api.get("/api/v1/shipments").await;
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
        .execute(&pool)
        .await
        .expect("it is changed");
    let api = Api::start(&pool, true).await;
    let stores = api.get("/api/v1/stores").await;
    assert_eq!(stores["catalogue"]["tubes"], json!([]));
}

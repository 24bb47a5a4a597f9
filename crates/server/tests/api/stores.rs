//! The stores over HTTP: one material, tables, and cushion curves.

use super::*;
use test_context::test_context;

use crate::{Demo, NoShipments};

const TAPES: &str = "/api/v1/stores/tapes";

fn cloth_tape() -> Value {
    json!({
        "id": "cloth-48", "name": "Cloth tape", "linear_density_g_m": 9.0, "price_per_m": "0.11",
        "holds_on": ["card", "wood"]
    })
}

async fn version(api: &Api) -> i64 {
    api.get("/api/v1/stores").await["version"]
        .as_i64()
        .expect("a version")
}

#[test_context(Demo)]
#[tokio::test]
async fn a_material_is_added_changed_and_deleted(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let path = format!("{TAPES}/cloth-48");
    let put = |version: i64, material: Value| {
        let (api, path) = (&api, &path);
        async move {
            let body = json!({ "version": version, "material": material });
            api.put(path, body).await
        }
    };
    let (status, stores) = put(1, cloth_tape()).await;
    assert_eq!(status, StatusCode::OK, "{stores}");
    assert_eq!(stores["version"], 2);
    let mut dearer = cloth_tape();
    dearer["price_per_m"] = json!("0.19");
    let (status, problem) = put(1, dearer.clone()).await;
    assert_eq!(
        (status, text(&problem["type"])),
        (StatusCode::CONFLICT, "/problems/stale".into())
    );
    let (_, stores) = put(2, dearer).await;
    let tapes = stores["catalogue"]["tapes"]
        .as_array()
        .expect("a list")
        .iter();
    let prices: Vec<&Value> = tapes
        .filter(|tape| tape["id"] == "cloth-48")
        .map(|tape| &tape["price_per_m"])
        .collect();
    assert_eq!(prices, ["0.19"]);
    assert_eq!(
        api.delete(&format!("{path}?version=3")).await,
        StatusCode::OK
    );
    assert_eq!(
        api.delete(&format!("{path}?version=4")).await,
        StatusCode::NOT_FOUND
    );
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_material_that_can_not_stand_is_refused_at_its_field(
    NoShipments(database): &NoShipments,
) {
    let api = Api::start(database.pool(), false).await;
    for (field, value) in [
        ("linear_density_g_m", json!(-3)),
        ("price_per_m", json!("dear")),
        ("name", json!("")),
        ("harms", json!("wood")),
    ] {
        let mut tape = cloth_tape();
        tape[field] = value;
        let body = json!({ "version": 1, "material": tape });
        let (status, problem) = api.put(&format!("{TAPES}/cloth-48"), body).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
        assert_eq!(problem["errors"][0]["field"], field);
    }
    let body = json!({ "version": 1, "material": cloth_tape() });
    let (status, _) = api.put("/api/v1/stores/ropes/cloth-48", body.clone()).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
    let (status, _) = api.put(&format!("{TAPES}/another"), body).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(version(&api).await, 1);
}

#[test_context(Demo)]
#[tokio::test]
async fn a_material_in_use_can_only_be_retired(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let request = api.client.delete(format!(
        "{}/api/v1/stores/boards/double-wall-bc?version=1",
        api.base
    ));
    let (status, problem) = answer(request.send().await.expect("an answer")).await;
    assert_eq!(status, StatusCode::CONFLICT);
    assert_eq!(problem["type"], "/problems/in-use");
    let says = text(&problem["detail"]);
    assert!(
        says.contains("Kelp Ladder") && says.contains("retire it"),
        "{says}"
    );

    let stores = api.get("/api/v1/stores").await;
    let boards = stores["catalogue"]["boards"]
        .as_array()
        .expect("a list")
        .iter();
    let mut board = boards
        .clone()
        .find(|board| board["id"] == "double-wall-bc")
        .cloned()
        .expect("it is there");
    board["shelf"]["retired"] = json!(true);
    let body = json!({ "version": 1, "material": board });
    let (status, _) = api.put("/api/v1/stores/boards/double-wall-bc", body).await;
    assert_eq!(status, StatusCode::OK);
    // The canvas keeps it, and nothing else is offered it.
    let rows = api.rows().await;
    let kelp = rows
        .as_array()
        .expect("a list")
        .iter()
        .find(|row| row["inputs"]["title"] == "Kelp Ladder")
        .expect("it is on the bench");
    assert!(kelp["summary"].is_object());
    let body = json!({ "inputs": { "piece": canvas() }, "slot": "box" });
    let (_, offers) = api.post("/api/v1/plans/alternatives", body).await;
    let names: Vec<String> = offers
        .as_array()
        .expect("a list")
        .iter()
        .map(|offer| text(&offer["label"]))
        .collect();
    assert!(names.iter().any(|name| name == "Corrugated C"), "{names:?}");
    assert!(
        !names.iter().any(|name| name.starts_with("Double wall")),
        "{names:?}"
    );
}

#[test_context(Demo)]
#[tokio::test]
async fn a_table_goes_out_and_comes_back(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let response = api
        .client
        .get(format!("{}{TAPES}/table", api.base))
        .send()
        .await
        .expect("an answer");
    let kind = response.headers()["content-type"].to_str().expect("ASCII");
    assert_eq!(kind, "text/csv; charset=utf-8");
    let table = response.text().await.expect("a table");
    assert!(table.starts_with("id,name,"), "{table}");

    let read = |csv: String, dry_run: bool| {
        let api = &api;
        async move {
            let body = json!({ "version": version(api).await, "csv": csv, "dry_run": dry_run });
            api.post(&format!("{TAPES}/table"), body).await
        }
    };
    let (status, same) = read(table.clone(), false).await;
    assert_eq!(status, StatusCode::OK, "{same}");
    assert_eq!(
        (same["added"].clone(), same["changed"].clone()),
        (json!([]), json!([]))
    );

    let heavier = "id,name,linear_density_g_m,price_per_m\npolypropylene-50,Polypropylene tape,40,0.05\nnew-tape,New tape,2,0.03\n";
    let (_, seen) = read(heavier.into(), true).await;
    assert_eq!(seen["added"], json!(["new-tape"]));
    assert_eq!(seen["changed"], json!(["polypropylene-50"]));
    assert!(!seen["affected"].as_array().expect("a list").is_empty());
    let before = version(&api).await;
    let (_, done) = read(heavier.into(), false).await;
    assert_eq!(done["stores"]["version"], before + 1);

    let (status, problem) = read(
        "id,name,linear_density_g_m,price_per_m\nx,X,-4,0.1\n".into(),
        false,
    )
    .await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["errors"][0]["field"], "line 2, linear_density_g_m");
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_suppliers_points_become_a_curve(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    // σ = 20·e^(0.06·ε) at ε = 10, 20, 30, on 50 mm from 500 mm: s = ε/10, G = σ/s
    let mut csv = String::from("material,thickness_mm,drop_mm,static_stress_kpa,peak_g\n");
    for energy in [10.0_f64, 20.0, 30.0] {
        let stress = energy / 10.0;
        let shock = 20.0 * (0.06 * energy).exp() / stress;
        csv.push_str(&format!("harbour foam,50,500,{stress},{shock}\n"));
    }
    let (status, curves) = api.post("/api/v1/curves/fit", json!({ "csv": csv })).await;
    assert_eq!(status, StatusCode::OK, "{curves}");
    let fitted = &curves[0]["fitted"];
    let number = |value: &Value| value.as_f64().expect("a number");
    assert!((number(&fitted["curve"]["a_kpa"]) - 20.0).abs() < 1e-6);
    assert!((number(&fitted["curve"]["b_m3_per_kj"]) - 0.06).abs() < 1e-9);
    assert!((number(&fitted["r_squared"]) - 1.0).abs() < 1e-9);
    // The line ends at the most that was tested: 20·e^1.8 = 120.993
    assert!((number(&fitted["ends"][0]["stress_kpa"]) - 20.0).abs() < 1e-6);
    assert!((number(&fitted["ends"][1]["stress_kpa"]) - 120.993).abs() < 1e-3);

    for (csv, says) in [
        ("material,peak_g\nfoam,3\n", "missing field"),
        (
            "material,thickness_mm,drop_mm,static_stress_kpa,peak_g\nfoam,50,500,1,40\n",
            "at least three",
        ),
        ("", "no points"),
    ] {
        let (status, problem) = api.post("/api/v1/curves/fit", json!({ "csv": csv })).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
        assert!(text(&problem["detail"]).contains(says), "{problem}");
    }
}

//! Laying parts out on sheets over the API.

use reqwest::StatusCode;
use serde_json::json;
use test_context::test_context;

use crate::{Api, NoShipments};

const CUTTING: &str = "/api/v1/sums/cutting";

#[test_context(NoShipments)]
#[tokio::test]
async fn parts_are_laid_out_and_the_cuts_are_numbered(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    // Two blanks of 1500 × 600 fill a sheet of 1600 × 1200 upward; 100 is left over beside them.
    let job = json!({
        "sheets": [{ "width_mm": 1600, "height_mm": 1200, "price": "2.35" }],
        "parts": [{ "name": "blank", "width_mm": 1500, "height_mm": 600, "count": 2, "may_rotate": false }],
    });
    let (status, answer) = api.post(CUTTING, job).await;
    assert_eq!(status, StatusCode::OK, "{answer}");
    assert_eq!(answer["cost"], 2.35);
    assert_eq!(answer["lower_bound_cost"], 2.35);
    assert_eq!(answer["stopped_early"], false);
    let sheet = &answer["sheets_used"][0];
    assert_eq!(
        sheet["placements"].as_array().map(Vec::len),
        Some(2),
        "{answer}"
    );
    assert_eq!(sheet["cuts"].as_array().map(Vec::len), Some(2), "{answer}");
    assert_eq!(
        sheet["remainder"],
        json!([{ "x_mm": 1500.0, "y_mm": 0.0, "width_mm": 100.0, "height_mm": 1200.0 }])
    );
    assert!((answer["utilisation"].as_f64().expect("a share") - 1.8 / 1.92).abs() < 1e-12);
}

#[test_context(NoShipments)]
#[tokio::test]
async fn what_can_not_be_cut_is_named_at_its_field(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    let job = json!({
        "sheets": [{ "width_mm": 1600, "height_mm": 1200, "price": 2.35 }],
        "parts": [{ "name": "lid", "width_mm": 300, "height_mm": 200 },
            { "name": "blank", "width_mm": 1709, "height_mm": 662, "may_rotate": true }],
    });
    let (status, problem) = api.post(CUTTING, job).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["errors"][0]["field"], "parts.1", "{problem}");
    let says = problem["errors"][0]["message"].as_str().expect("a message");
    assert!(
        says.contains("blank") && says.contains("larger than every sheet"),
        "{says}"
    );
    let wrong = json!({
        "sheets": [{ "width_mm": 0, "height_mm": 1200, "price": "-1", "count": 0 }],
        "parts": [{ "name": "lid", "width_mm": 300, "height_mm": 200, "count": 0 }],
        "kerf_mm": 21, "effort": 1_000_001, "budget_ms": 0,
    });
    let (status, problem) = api.post(CUTTING, wrong).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    let fields: Vec<&str> = problem["errors"]
        .as_array()
        .into_iter()
        .flatten()
        .filter_map(|error| error["field"].as_str())
        .collect();
    assert_eq!(
        fields,
        [
            "kerf_mm",
            "effort",
            "budget_ms",
            "sheets.0.width_mm",
            "sheets.0.price",
            "sheets.0.count",
            "parts.0.count"
        ]
    );
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_budget_stops_a_search_that_would_go_on(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    let parts: Vec<_> = (0..60)
        .map(|at| json!({ "name": format!("part {at}"), "width_mm": 83 + 13 * at, "height_mm": 870 - 11 * at, "may_rotate": true }))
        .collect();
    let job = json!({
        "sheets": [{ "width_mm": 2440, "height_mm": 1220, "price": 8 }, { "width_mm": 1400, "height_mm": 1000, "price": 4 }],
        "parts": parts, "effort": 1_000_000, "budget_ms": 50,
    });
    let (status, answer) = api.post(CUTTING, job).await;
    assert_eq!(status, StatusCode::OK, "{answer}");
    assert_eq!(answer["stopped_early"], true);
    let placed = answer["sheets_used"].as_array().into_iter().flatten();
    let placed: usize = placed
        .filter_map(|sheet| sheet["placements"].as_array().map(Vec::len))
        .sum();
    assert_eq!(placed, 60);
}

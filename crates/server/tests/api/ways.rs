//! The front of ways, told while it grows.

use super::*;
use test_context::test_context;

use crate::Demo;

async fn told(api: &Api, path: &str, most_events: usize) -> Vec<Value> {
    let response = api.client.get(format!("{}{path}", api.base)).send().await;
    let mut response = response.expect("an answer");
    assert_eq!(response.status(), StatusCode::OK);
    let mut text = String::new();
    let mut fronts = Vec::new();
    while let Some(part) = response.chunk().await.expect("a part") {
        text += std::str::from_utf8(&part).expect("text");
        while let Some((line, rest)) = text.split_once('\n') {
            if let Some(data) = line.strip_prefix("data:") {
                fronts.push(serde_json::from_str(data.trim()).expect("JSON"));
            }
            text = rest.to_owned();
            if fronts.len() == most_events {
                return fronts;
            }
        }
    }
    fronts
}

#[test_context(Demo)]
#[tokio::test]
async fn the_front_is_told_while_it_grows_and_a_way_of_it_is_taken(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let rows = api.rows().await;
    let row = rows
        .as_array()
        .expect("rows")
        .iter()
        .find(|row| row["inputs"]["title"] == "Kelp Ladder")
        .expect("it is there");
    let id = row["id"].as_str().expect("an id");
    let path = format!("/api/v1/shipments/{id}");
    let fronts = told(&api, &format!("{path}/ways?most=120"), usize::MAX).await;
    let last = fronts.last().expect("a front");
    assert_eq!(
        (&last["done"], &last["plans"]),
        (&json!(true), &json!(120)),
        "{last}"
    );
    let ways = last["ways"].as_array().expect("ways");
    assert_eq!(ways.iter().filter(|way| way["is_now"] == true).count(), 1);
    let way = ways
        .iter()
        .find(|way| way["is_now"] == false)
        .expect("another way");
    let shipment = api.get(&path).await;
    let change = json!({ "choices": way["choices"], "service": way["service"] });
    let (status, taken) = api
        .patch(
            &path,
            json!({ "version": shipment["version"], "change": change }),
        )
        .await;
    assert_eq!(status, StatusCode::OK, "{taken}");
    assert_eq!(taken["summary"]["one_in"], way["odds"]);
    assert_eq!(taken["summary"]["best"]["id"], way["service"]);
    // Whoever goes away stops it: the next one gets a turn.
    let first = told(&api, &format!("{path}/ways?most=5000"), 1).await;
    assert_eq!(first.len(), 1);
    let next = told(&api, &format!("{path}/ways?most=1"), usize::MAX).await;
    assert_eq!(next.last().expect("a front")["plans"], 1);
    let (status, problem) = answer(
        api.client
            .get(format!("{}{path}/ways?most=0", api.base))
            .send()
            .await
            .expect("an answer"),
    )
    .await;
    assert_eq!(
        (status, &problem["errors"][0]["field"]),
        (StatusCode::UNPROCESSABLE_ENTITY, &json!("most"))
    );
    // Half a piece has no ways.
    let (_, made) = api
        .post(
            "/api/v1/shipments",
            json!({ "inputs": { "title": "Half" } }),
        )
        .await;
    let half = format!(
        "/api/v1/shipments/{}/ways",
        made["id"].as_str().expect("an id")
    );
    let nothing = told(&api, &half, usize::MAX).await;
    assert_eq!((nothing.len(), &nothing[0]["done"]), (1, &json!(true)));
}

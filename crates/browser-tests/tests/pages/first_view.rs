//! What a page asks for before anything is shown.

use anyhow::{Result, ensure};
use hummock_browser_tests::Studio;
use serde_json::json;
use test_context::test_context;

use crate::{Demo, words};

/// What a page reads first is asked for before the program itself is there: the program then takes that answer, and asks no second time.
///
/// Kills an address in the page that is not the one that is read, and one that is asked for in another way.
#[test_context(Demo)]
#[tokio::test]
async fn what_a_page_reads_first_is_asked_for_once(Demo(database): &Demo) -> Result<()> {
    const ASKED: &str = "return performance.getEntriesByType('resource')
        .map(({ name }) => name.replace(location.origin, ''))
        .filter((name) => name === '/api/v1/studio' || /^.api.v1.shipments([/][^/]+$|[?]place)/.test(name))
        .sort()";
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    let place = page.open("Kelp Ladder", "guard").await?;
    page.sees("main", words::HAZARDS).await?;
    let asked = page.asks(ASKED).await?;
    ensure!(
        asked == json!([format!("/api/v1{place}"), "/api/v1/studio"]),
        "{asked}"
    );
    page.goto("/").await?;
    page.sees("main", "Kelp Ladder").await?;
    let asked = page.asks(ASKED).await?;
    let rows = "/api/v1/shipments?place=bench&search=&sort=promised&without=section";
    ensure!(asked == json!([rows, "/api/v1/studio"]), "{asked}");
    studio.close().await
}

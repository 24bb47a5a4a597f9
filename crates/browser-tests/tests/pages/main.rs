//! The pages, as a person uses them.

mod acts;
mod boxes;
mod everyone;
mod first_price;
mod first_view;
mod guard;
mod hands;
mod hanging;
mod house;
mod journeys;
mod log;
mod moving;
mod network;
mod own_carrier;
mod pack;
mod paper;
mod rates;
mod sending;
mod shelf;
mod shipment;
mod short;
mod together;
mod typing;
mod weigh;
mod words;

use anyhow::Result;
use hummock_browser_tests::{Page, with_the_demo_studio};
use hummock_test_database::Database;
use test_context::AsyncTestContext;

/// A database with the demo studio.
struct Demo(Database);

impl AsyncTestContext for Demo {
    async fn setup() -> Self {
        Self(with_the_demo_studio().await)
    }

    async fn teardown(self) {
        self.0.drop().await;
    }
}

/// Waits until an address of the page answers with a file of a kind.
async fn gives(page: &Page, link: &str, kind: &str) -> Result<()> {
    let script = format!(
        "const link = document.querySelector(\"{link}\");
         return link === null ? 'no link' : fetch(link.href).then((got) => got.headers.get('content-type').split(';')[0]);"
    );
    page.comes_to(&script, kind).await
}

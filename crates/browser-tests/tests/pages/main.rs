//! The pages, as a person uses them.

mod boxes;
mod everyone;
mod guard;
mod hanging;
mod house;
mod log;
mod moving;
mod network;
mod pack;
mod rates;
mod sending;
mod shelf;
mod shipment;
mod together;
mod typing;
mod weigh;

use hummock_browser_tests::with_the_demo_studio;
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

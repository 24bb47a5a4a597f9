//! What is kept, in a real database.

mod backup;
mod devices;
mod history;
mod house;
mod shelf;

use std::time::Duration;

use hummock_store::Store;
use hummock_test_database::Database;
use test_context::AsyncTestContext;

/// A database with all tables and nothing in them.
struct Tables(Database);

impl AsyncTestContext for Tables {
    async fn setup() -> Self {
        let database = Database::like("tables", async |url: String| {
            let store = Store::open(&url, Duration::from_secs(60)).await;
            store.expect("tables").close().await;
        });
        Self(database.await)
    }

    async fn teardown(self) {
        self.0.drop().await;
    }
}

//! A database of its own for every test. What many tests begin with is written once, into a template of which PostgreSQL
//! makes copies in a few hundredths of a second.

use std::{
    hash::{DefaultHasher, Hash as _, Hasher as _},
    path::PathBuf,
    time::SystemTime,
};

use sqlx::{
    AssertSqlSafe, Connection as _, PgConnection, PgPool,
    postgres::{PgConnectOptions, PgPoolOptions},
};
use uuid::Uuid;

/// A test takes a few connections, and many tests run side by side.
const MOST_CONNECTIONS: u32 = 5;

/// A database that one test has for itself.
#[derive(Debug)]
pub struct Database {
    name: String,
    pool: PgPool,
}

impl Database {
    /// Makes one that holds what `fill` writes into the database at the address it is given.
    ///
    /// The first test of a program that asks for a template of this name has it filled; all others get a copy. `fill` closes
    /// its connections before it returns.
    ///
    /// # Panics
    /// When `DATABASE_URL` names no server, or that server refuses.
    pub async fn like(template: &str, fill: impl AsyncFnOnce(String)) -> Self {
        let template = format!("hummock_template_{template}_{:016x}", this_program());
        let name = format!("hummock_test_{}", Uuid::new_v4().simple());
        let mut server = PgConnection::connect(&server_url())
            .await
            .expect("PostgreSQL");
        if !is_there(&mut server, &template).await {
            make(&mut server, &template, fill).await;
        }
        order(
            &mut server,
            &format!("CREATE DATABASE {name} TEMPLATE {template}"),
        )
        .await;
        server.close().await.expect("a goodbye");
        let pool = PgPoolOptions::new()
            .max_connections(MOST_CONNECTIONS)
            .connect(&url_named(&name))
            .await
            .expect("the copy");
        Self { name, pool }
    }

    /// Returns connections to it.
    #[must_use]
    pub const fn pool(&self) -> &PgPool {
        &self.pool
    }

    /// Returns its address.
    #[must_use]
    pub fn url(&self) -> String {
        url_named(&self.name)
    }

    /// Takes it away, whoever is still connected.
    ///
    /// # Panics
    /// When the server refuses.
    pub async fn drop(self) {
        self.pool.close().await;
        let mut server = PgConnection::connect(&server_url())
            .await
            .expect("PostgreSQL");
        order(
            &mut server,
            &format!("DROP DATABASE {} WITH (FORCE)", self.name),
        )
        .await;
    }
}

/// Returns the address of the database that connections go to.
///
/// # Panics
/// When `DATABASE_URL` names no server.
#[must_use]
pub fn url_of(connections: &PgConnectOptions) -> String {
    let database = connections.get_database();
    url_named(database.expect("a test has a database of its own"))
}

/// Fills a template while no other process does. A half-filled one has another name, and is begun anew.
async fn make(server: &mut PgConnection, template: &str, fill: impl AsyncFnOnce(String)) {
    let mut hasher = DefaultHasher::new();
    template.hash(&mut hasher);
    let lock = hasher.finish().cast_signed();
    let query = sqlx::query("SELECT pg_advisory_lock($1)").bind(lock);
    query.execute(&mut *server).await.expect("a lock");
    if !is_there(server, template).await {
        let half = format!("{template}_half");
        order(
            server,
            &format!("DROP DATABASE IF EXISTS {half} WITH (FORCE)"),
        )
        .await;
        order(server, &format!("CREATE DATABASE {half}")).await;
        fill(url_named(&half)).await;
        order(
            server,
            &format!("ALTER DATABASE {half} RENAME TO {template}"),
        )
        .await;
    }
    let query = sqlx::query("SELECT pg_advisory_unlock($1)").bind(lock);
    query
        .execute(&mut *server)
        .await
        .expect("the lock is given back");
}

async fn is_there(server: &mut PgConnection, database: &str) -> bool {
    sqlx::query_scalar("SELECT EXISTS (SELECT FROM pg_database WHERE datname = $1)")
        .bind(database)
        .fetch_one(server)
        .await
        .expect("an answer")
}

/// Names of databases can't be parameters; those here are made of letters, digits and underscores.
async fn order(server: &mut PgConnection, sql: &str) {
    sqlx::query(AssertSqlSafe(sql.to_owned()))
        .execute(server)
        .await
        .unwrap_or_else(|error| panic!("{sql}: {error}"));
}

/// What a template was filled by: another build of the program fills another one.
fn this_program() -> u64 {
    let program: PathBuf = std::env::current_exe().expect("a test is a program");
    let written: SystemTime = std::fs::metadata(&program)
        .and_then(|about| about.modified())
        .expect("it lies in a folder");
    let mut hasher = DefaultHasher::new();
    (program, written).hash(&mut hasher);
    hasher.finish()
}

fn server_url() -> String {
    std::env::var("DATABASE_URL").expect("DATABASE_URL names a server: run bin/test")
}

fn url_named(database: &str) -> String {
    let given = server_url();
    let (server, _) = given.rsplit_once('/').expect("a database URL has a path");
    format!("{server}/{database}")
}

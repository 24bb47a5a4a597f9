//! A database that goes away, comes back, or is somewhere else.

use std::{net::SocketAddr, sync::Arc};

use hummock_server::Waits;
use hummock_test_database::url_of;
use reqwest::StatusCode;
use sqlx::postgres::PgConnectOptions;
use test_context::test_context;
use tokio::{
    net::{TcpListener, TcpStream},
    task::{JoinHandle, JoinSet},
};

use crate::{Api, Demo};

/// An address at which the database is found until this is dropped.
struct Way {
    address: SocketAddr,
    carrying: JoinHandle<()>,
}

impl Way {
    async fn to(options: Arc<PgConnectOptions>, at: SocketAddr) -> Self {
        let listener = TcpListener::bind(at).await.expect("a port");
        let address = listener.local_addr().expect("an address");
        let carrying = tokio::spawn(async move {
            // They end with the task.
            let mut carried = JoinSet::new();
            while let Ok((mut from, _)) = listener.accept().await {
                let target = (options.get_host().to_owned(), options.get_port());
                carried.spawn(async move {
                    if let Ok(mut to) = TcpStream::connect(target).await {
                        let _ = tokio::io::copy_bidirectional(&mut from, &mut to).await;
                    }
                });
            }
        });
        Self { address, carrying }
    }

    fn url(&self, options: &PgConnectOptions) -> String {
        let direct = format!("{}:{}", options.get_host(), options.get_port());
        url_of(options).replace(&direct, &self.address.to_string())
    }

    async fn vanish(self) {
        self.carrying.abort();
        let _ = self.carrying.await;
    }
}

impl Api {
    async fn health(&self) -> StatusCode {
        let asked = self
            .client
            .get(format!("{}/api/v1/health", self.base))
            .send();
        asked.await.expect("an answer").status()
    }

    /// Asks until the answer is the one that is awaited; each takes its time where the database is away.
    async fn is_well(&self, status: StatusCode) {
        while self.health().await != status {}
    }
}

const ANY: ([u8; 4], u16) = ([127, 0, 0, 1], 0);

#[test_context(Demo)]
#[tokio::test]
async fn a_database_that_moved_is_found_where_the_file_says(Demo(database): &Demo) {
    let options = database.pool().connect_options();
    let here = Way::to(options.clone(), ANY.into()).await;
    let file = std::env::temp_dir().join(format!("hummock-database-{}", uuid::Uuid::now_v7()));
    let url = here.url(&options);
    std::fs::write(&file, &url).expect("a file");
    let api = Api::start_with(database.pool(), true, |serve| {
        serve.waits = Waits::default();
        serve.database_url = url;
        serve.database_file = Some(file.clone());
    })
    .await;
    assert_eq!(api.health().await, StatusCode::OK);
    let rows = api.rows().await;

    let there = Way::to(options.clone(), ANY.into()).await;
    here.vanish().await;
    api.is_well(StatusCode::SERVICE_UNAVAILABLE).await;
    std::fs::write(&file, "not an address\n").expect("a file");
    assert_eq!(api.health().await, StatusCode::SERVICE_UNAVAILABLE);
    std::fs::write(&file, format!("{}\n", there.url(&options))).expect("a file");
    api.is_well(StatusCode::OK).await;
    assert_eq!(api.rows().await, rows);
    std::fs::remove_file(file).expect("it is there");
}

#[test_context(Demo)]
#[tokio::test]
async fn a_database_that_came_back_is_found_again(Demo(database): &Demo) {
    let options = database.pool().connect_options();
    let way = Way::to(options.clone(), ANY.into()).await;
    let (url, address) = (way.url(&options), way.address);
    let api = Api::start_with(database.pool(), true, |serve| {
        serve.waits = Waits::default();
        serve.database_url = url;
    })
    .await;
    let rows = api.rows().await;
    way.vanish().await;
    api.is_well(StatusCode::SERVICE_UNAVAILABLE).await;
    let _back = Way::to(options, address).await;
    api.is_well(StatusCode::OK).await;
    assert_eq!(api.rows().await, rows);
}

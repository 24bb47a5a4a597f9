//! A carrier's own service behind TLS, which asks for a key.

use std::{net::TcpListener, sync::Arc};

use axum::{
    Router,
    extract::Request,
    middleware::{Next, from_fn},
    response::IntoResponse as _,
};
use axum_server::{Handle, tls_rustls::RustlsConfig};
use hummock_server::Outside;
use hummock_standins::{Carrier, read_tariffs, router};
use test_context::test_context;
use uuid::Uuid;

use super::{
    leaving::{at, book, ready, tariffs},
    *,
};

const HEADER: &str = "x-studio-key";
const KEY: &str = "salt-and-reed-4711";
const SERVICE: &str = "/api/v1/tariffs/gannet-post/service";

/// A carrier behind TLS that answers nobody without the key.
struct Guarded {
    address: String,
    /// Who vouches for it.
    authority: Vec<u8>,
    carrier: Arc<Carrier>,
    handle: Handle<std::net::SocketAddr>,
}

impl Drop for Guarded {
    fn drop(&mut self) {
        self.handle.shutdown();
    }
}

async fn knows(request: Request, next: Next) -> axum::response::Response {
    let key = request.headers().get(HEADER);
    if key.is_some_and(|key| key == KEY) {
        next.run(request).await
    } else {
        StatusCode::UNAUTHORIZED.into_response()
    }
}

async fn guarded() -> Guarded {
    let _ = rustls::crypto::ring::default_provider().install_default();
    let made = rcgen::generate_simple_self_signed(["localhost".to_owned()]).expect("made");
    let (chain, key) = (made.cert.pem(), made.signing_key.serialize_pem());
    let config = RustlsConfig::from_pem(chain.clone().into_bytes(), key.into_bytes());
    let config = config.await.expect("a certificate and its key");
    let tariffs = read_tariffs(&tariffs()).expect("the demo's tariffs");
    let carrier = Arc::new(Carrier::by(tariffs));
    let answers: Router = router(&carrier).layer(from_fn(knows));
    let listener = TcpListener::bind("127.0.0.1:0").expect("a free port");
    listener.set_nonblocking(true).expect("it waits for nobody");
    let port = listener.local_addr().expect("it has one").port();
    let handle = Handle::new();
    let server = axum_server::from_tcp_rustls(listener, config).expect("it listens");
    let server = server.handle(handle.clone());
    tokio::spawn(server.serve(answers.into_make_service()));
    Guarded {
        address: format!("https://localhost:{port}/carrier"),
        authority: chain.into_bytes(),
        carrier,
        handle,
    }
}

async fn beside(pool: &PgPool, authority: Option<Vec<u8>>) -> Api {
    Api::start_with(pool, true, |options| {
        options.outside = Outside {
            authority,
            ..Outside::default()
        };
    })
    .await
}

async fn says(api: &Api, shipment: &Value) -> Vec<(String, String)> {
    let inputs = api.get(&at(shipment, "")).await["inputs"].clone();
    let asked = json!({ "inputs": inputs });
    let (status, said) = api.post("/api/v1/plans/carriers", asked).await;
    assert_eq!(status, StatusCode::OK, "{said}");
    let services = said["services"].as_array().expect("a list");
    let one = |service: &Value| (text(&service["id"]), text(&service["says"]));
    services.iter().map(one).collect()
}

#[test_context(Demo)]
#[tokio::test]
async fn a_carrier_is_asked_over_tls_with_the_studios_key(Demo(database): &Demo) {
    let guarded = guarded().await;
    let api = beside(database.pool(), Some(guarded.authority.clone())).await;
    let shipment = ready(&api, "XS").await;
    assert_eq!(says(&api, &shipment).await, [], "nobody can be asked yet");
    let leaving = api.get(&at(&shipment, "/leaving")).await;
    assert_eq!(leaving["bookable"], false);

    let kept = json!({ "address": guarded.address, "header": "X-Studio-Key", "key": KEY });
    let (status, view) = api.put(SERVICE, kept).await;
    assert_eq!(status, StatusCode::OK, "{view}");
    assert_eq!(
        view,
        json!({ "address": guarded.address, "header": HEADER, "has_key": true, "reach": "own" })
    );
    // The carriers that have no service here are not said to be away.
    let said = says(&api, &shipment).await;
    assert!(!said.is_empty());
    for (service, says) in said {
        assert!(service.starts_with("gannet-post/"), "{service}");
        assert_eq!(says, "agrees", "{service}");
    }
    let leaving = api.get(&at(&shipment, "/leaving")).await;
    assert_eq!(leaving["bookable"], true);
    let (status, leaving) = book(&api, &shipment, Uuid::now_v7()).await;
    assert!(status.is_success(), "{leaving}");
    assert_eq!(leaving["booking"]["state"], "booked");
    assert_eq!(guarded.carrier.booked().len(), 1);

    // The key is told nowhere, and stays where the header alone is changed.
    for path in [
        SERVICE,
        "/api/v1/tariffs",
        "/api/v1/studio",
        "/api/v1/studio/settings",
    ] {
        assert!(!api.get(path).await.to_string().contains(KEY), "{path}");
    }
    let (status, view) = api
        .put(
            SERVICE,
            json!({ "address": guarded.address, "header": HEADER }),
        )
        .await;
    assert_eq!((status, &view["has_key"]), (StatusCode::OK, &json!(true)));
    // Another address needs its own key: none is sent to somebody else.
    let (status, refused) = api
        .put(SERVICE, json!({ "address": "https://elsewhere.example" }))
        .await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{refused}");
    assert_eq!(refused["errors"][0]["field"], "key");
    let (status, refused) = api
        .put(
            SERVICE,
            json!({ "address": "http://elsewhere.example", "key": KEY }),
        )
        .await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{refused}");
    assert_eq!(refused["errors"][0]["field"], "address");
    assert!(!refused.to_string().contains(KEY));

    // A wrong key is a refusal, and the tariff alone is what there is.
    let wrong = json!({ "address": guarded.address, "header": HEADER, "key": "salt" });
    assert_eq!(api.put(SERVICE, wrong).await.0, StatusCode::OK);
    let said = says(&api, &shipment).await;
    assert!(said.iter().all(|(_, says)| says == "nothing"), "{said:?}");
    assert_eq!(api.delete(SERVICE).await, StatusCode::NO_CONTENT);
    assert_eq!(says(&api, &shipment).await, []);
}

#[test_context(Demo)]
#[tokio::test]
async fn nobody_is_asked_whom_nobody_vouches_for(Demo(database): &Demo) {
    let guarded = guarded().await;
    let api = beside(database.pool(), None).await;
    let shipment = ready(&api, "XS").await;
    let kept = json!({ "address": guarded.address, "header": HEADER, "key": KEY });
    assert_eq!(api.put(SERVICE, kept).await.0, StatusCode::OK);
    let said = says(&api, &shipment).await;
    assert!(
        !said.is_empty() && said.iter().all(|(_, says)| says == "nothing"),
        "{said:?}"
    );
}

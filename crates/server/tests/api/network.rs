//! The local network: TLS by an authority of the studio, the passphrase, and what an uninvited device can do.

use std::{
    os::unix::fs::PermissionsExt as _,
    path::{Path, PathBuf},
};

use hummock_server::{Certificate, Listen, import};
use hummock_store::Store;
use reqwest::{Certificate as Trusted, Client, Method, StatusCode, header};
use serde_json::{Value, json};
use sqlx::PgPool;
use test_context::test_context;

use crate::{Api, Demo, TODAY, UNHURRIED, answer, demo, text};

/// A folder of its own, gone when the test is over.
struct Folder(PathBuf);

impl Folder {
    fn new() -> Self {
        let name = format!("hummock-keys-{}", uuid::Uuid::now_v7());
        Self(std::env::temp_dir().join(name))
    }

    fn file(&self, name: &str, text: &str) -> PathBuf {
        std::fs::create_dir_all(&self.0).expect("a folder");
        let path = self.0.join(name);
        std::fs::write(&path, text).expect("a file");
        path
    }
}

impl Drop for Folder {
    fn drop(&mut self) {
        let _ = std::fs::remove_dir_all(&self.0);
    }
}

const LISTEN: Listen = Listen(std::net::SocketAddr::new(
    std::net::IpAddr::V4(std::net::Ipv4Addr::LOCALHOST),
    0,
));

async fn open(pool: &PgPool, keys: &Path) -> Api {
    open_with(pool, Certificate::Studio(keys.to_owned())).await
}

async fn open_with(pool: &PgPool, certificate: Certificate) -> Api {
    Api::start_with(pool, true, |options| {
        options.listen = Some(LISTEN);
        options.certificate = certificate;
    })
    .await
}

/// A device that trusts one certificate and nothing else.
struct Tablet {
    base: String,
    client: Client,
    cookie: Option<String>,
}

impl Tablet {
    /// One that has installed the studio's certificate, as it is handed out.
    async fn of(api: &Api) -> Self {
        let path = format!("{}/api/v1/devices/authority.crt", api.base);
        let handed = api.client.get(path).send().await.expect("an answer");
        assert_eq!(
            handed.headers()["content-type"],
            "application/x-x509-ca-cert"
        );
        let der = handed.bytes().await.expect("a certificate");
        Self::trusting(api, Trusted::from_der(&der).expect("a certificate"))
    }

    fn trusting(api: &Api, certificate: Trusted) -> Self {
        let network = api
            .running
            .as_ref()
            .and_then(hummock_server::Running::network)
            .expect("it is open");
        Self {
            base: network.addresses[0].clone(),
            client: Client::builder()
                .tls_certs_only([certificate])
                .build()
                .expect("a client"),
            cookie: None,
        }
    }

    async fn ask(&self, method: Method, path: &str, body: &Value) -> reqwest::Response {
        let mut request = self.client.request(method, format!("{}{path}", self.base));
        if !body.is_null() {
            request = request.json(body);
        }
        if let Some(cookie) = &self.cookie {
            request = request.header(header::COOKIE, cookie);
        }
        request.send().await.expect("an answer")
    }

    async fn status(&self, path: &str) -> StatusCode {
        self.ask(Method::GET, path, &Value::Null).await.status()
    }

    async fn give(&mut self, passphrase: &str, name: &str) -> (StatusCode, Value) {
        let body = json!({ "passphrase": passphrase, "name": name });
        let response = self.ask(Method::POST, "/api/v1/devices", &body).await;
        let Some(cookie) = response.headers().get(header::SET_COOKIE) else {
            return answer(response).await;
        };
        let cookie = cookie.to_str().expect("ASCII").to_owned();
        for part in ["Secure", "HttpOnly", "SameSite=Strict", "Path=/"] {
            assert!(cookie.contains(part), "{cookie}");
        }
        self.cookie = cookie.split(';').next().map(str::to_owned);
        (response.status(), Value::Null)
    }
}

fn first_passphrase(api: &Api) -> String {
    let network = api
        .running
        .as_ref()
        .and_then(hummock_server::Running::network)
        .expect("it is open");
    network.first_passphrase.clone().expect("there was none")
}

/// The server answers under a further name, and its certificate is for that name too, and for no other.
#[test_context(Demo)]
#[tokio::test]
async fn the_certificate_is_for_the_names_that_are_allowed(Demo(database): &Demo) {
    let keys = Folder::new();
    let api = open(database.pool(), &keys.0).await;
    let known = Tablet::of(&api).await;
    let address: std::net::SocketAddr = known.base["https://".len()..].parse().expect("an address");
    let path = format!("{}/api/v1/devices/authority.crt", api.base);
    let der = api.client.get(path).send().await.expect("an answer");
    let authority = Trusted::from_der(&der.bytes().await.expect("bytes")).expect("a certificate");
    let ask = async |name: &str| {
        let client = Client::builder()
            .tls_certs_only([authority.clone()])
            .resolve(name, address)
            .build()
            .expect("a client");
        let url = format!("https://{name}:{}/", address.port());
        client.get(url).send().await.map(|answer| answer.status())
    };
    assert_eq!(
        ask("studio.example").await.expect("an answer"),
        StatusCode::OK
    );
    assert!(ask("bank.example").await.is_err());
}

#[test_context(Demo)]
#[tokio::test]
async fn a_device_that_is_not_signed_in_is_told_nothing(Demo(database): &Demo) {
    let keys = Folder::new();
    let api = open(database.pool(), &keys.0).await;
    let tablet = Tablet::of(&api).await;
    let description = hummock_server::description();
    let mut asked = 0;
    for (path, methods) in description["paths"].as_object().expect("paths") {
        for method in methods.as_object().expect("methods").keys() {
            if matches!(
                (path.as_str(), method.as_str()),
                ("/api/v1/devices", "post") | ("/api/v1/devices/authority.crt", "get")
            ) {
                continue;
            }
            let path = path.replace(['{', '}'], "");
            let method = Method::try_from(method.to_uppercase().as_str()).expect("a method");
            let response = tablet.ask(method, &path, &json!({})).await;
            let (status, problem) = answer(response).await;
            assert_eq!(
                (status, &problem["type"]),
                (StatusCode::UNAUTHORIZED, &json!("/problems/signed-out")),
                "{path}"
            );
            asked += 1;
        }
    }
    assert!(asked > 30, "{asked}");
    for path in ["/api/openapi.json", "/api/v1/shipments?search=a"] {
        assert_eq!(
            tablet.status(path).await,
            StatusCode::UNAUTHORIZED,
            "{path}"
        );
    }
    // The pages hold nothing of the studio, and ask for the passphrase.
    for path in ["/", "/studio", "/assets/app-1.js"] {
        assert_eq!(tablet.status(path).await, StatusCode::OK, "{path}");
    }
    for path in [
        "//api/v1/shipments",
        "/%61pi/v1/shipments",
        "/api/v1/./shipments",
        "/api/v1/shipments/",
    ] {
        let body = tablet
            .ask(Method::GET, path, &Value::Null)
            .await
            .text()
            .await
            .expect("a text");
        assert!(!body.contains("Ropewalk"), "{path}: {body}");
    }
    assert!(
        !api.rows().await.as_array().expect("rows").is_empty(),
        "at the machine nothing is asked"
    );
}

#[test_context(Demo)]
#[tokio::test]
async fn a_device_sees_the_studio_that_it_signed_in_to_whatever_it_asks_for(Demo(database): &Demo) {
    let store = Store::open(&database.url(), UNHURRIED.database).await;
    let annexe = import(
        &store.expect("tables"),
        "annexe",
        &demo(),
        crate::fill(false),
        TODAY,
    )
    .await;
    let annexe = annexe.expect("another studio").studio;
    let keys = Folder::new();
    let api = open(database.pool(), &keys.0).await;
    let mut tablet = Tablet::of(&api).await;
    let (status, _) = tablet.give(&first_passphrase(&api), "Tablet").await;
    assert_eq!(status, StatusCode::CREATED);
    let known = tablet.cookie.take().expect("it is known");
    let mut shown = Vec::new();
    for cookie in [known.clone(), format!("hummock-studio={annexe}; {known}")] {
        tablet.cookie = Some(cookie);
        let answer = tablet
            .ask(Method::GET, "/api/v1/shipments", &Value::Null)
            .await;
        assert_eq!(answer.status(), StatusCode::OK);
        shown.push(answer.headers()["x-hummock-studio"].clone());
    }
    assert_eq!(shown[0], shown[1]);
    assert_ne!(shown[1], annexe.to_string());
}

#[test_context(Demo)]
#[tokio::test]
async fn a_device_is_let_in_once_listed_and_signed_out(Demo(database): &Demo) {
    let keys = Folder::new();
    let api = open(database.pool(), &keys.0).await;
    let passphrase = first_passphrase(&api);
    let mut tablet = Tablet::of(&api).await;
    let (status, problem) = tablet.give(&passphrase, " ").await;
    assert_eq!(
        (status.as_u16(), &problem["errors"][0]["field"]),
        (422, &json!("name"))
    );
    let (status, problem) = tablet.give("not the one at all", "Tablet").await;
    assert_eq!(
        (status.as_u16(), &problem["errors"][0]["field"]),
        (422, &json!("passphrase"))
    );
    let (status, _) = tablet
        .give(&passphrase, " Tablet at the packing table ")
        .await;
    assert_eq!(status, StatusCode::CREATED);
    assert_eq!(tablet.status("/api/v1/shipments").await, StatusCode::OK);
    let (_, made) = answer(
        tablet
            .ask(
                Method::POST,
                "/api/v1/shipments",
                &json!({ "inputs": { "title": "From the tablet" } }),
            )
            .await,
    )
    .await;
    assert_eq!(made["inputs"]["title"], "From the tablet");

    let mut other = Tablet::of(&api).await;
    assert_eq!(
        other.give(&passphrase, "Phone").await.0,
        StatusCode::CREATED
    );
    let (_, seen) = answer(
        tablet
            .ask(Method::GET, "/api/v1/devices", &Value::Null)
            .await,
    )
    .await;
    let names: Vec<(String, bool)> = seen["devices"]
        .as_array()
        .expect("devices")
        .iter()
        .map(|device| (text(&device["name"]), device["this"] == true))
        .collect();
    assert_eq!(
        names,
        [
            ("Phone".to_owned(), false),
            ("Tablet at the packing table".to_owned(), true)
        ]
    );
    let at_machine = api.get("/api/v1/devices").await;
    assert_eq!(
        (
            &at_machine["open"],
            &at_machine["may_change_passphrase"],
            &seen["may_change_passphrase"]
        ),
        (&json!(true), &json!(true), &json!(false))
    );
    assert_eq!(at_machine["addresses"], json!([tablet.base]));
    let picture = api
        .client
        .get(format!("{}/api/v1/devices/address.svg", api.base));
    let picture = picture.send().await.expect("an answer");
    assert_eq!(picture.headers()["content-type"], "image/svg+xml");

    let phone = format!("/api/v1/devices/{}", text(&seen["devices"][0]["id"]));
    assert_eq!(
        tablet
            .ask(Method::DELETE, &phone, &Value::Null)
            .await
            .status(),
        StatusCode::NO_CONTENT
    );
    assert_eq!(
        other.status("/api/v1/shipments").await,
        StatusCode::UNAUTHORIZED
    );
    assert_eq!(tablet.status("/api/v1/shipments").await, StatusCode::OK);
    assert_eq!(api.delete(&phone).await, StatusCode::NOT_FOUND);
    assert_eq!(
        api.delete("/api/v1/devices/nonsense").await,
        StatusCode::NOT_FOUND
    );
}

/// What a device has open ends when it is signed out, by whomever.
#[test_context(Demo)]
#[tokio::test]
async fn what_a_signed_out_device_has_open_ends(Demo(database): &Demo) {
    let keys = Folder::new();
    let api = open(database.pool(), &keys.0).await;
    let passphrase = first_passphrase(&api);
    let mut tablets = [Tablet::of(&api).await, Tablet::of(&api).await];
    let mut open = Vec::new();
    for tablet in &mut tablets {
        assert_eq!(
            tablet.give(&passphrase, "Tablet").await.0,
            StatusCode::CREATED
        );
        let path = "/api/v1/scale/readings?tare_g=0";
        let mut stream = tablet.ask(Method::GET, path, &Value::Null).await;
        assert!(stream.chunk().await.expect("a part").is_some());
        open.push(stream);
    }
    let mut second = open.pop().expect("two are open");
    let mut first = open.pop().expect("two are open");
    let devices = tablets[0]
        .ask(Method::GET, "/api/v1/devices", &Value::Null)
        .await;
    let devices: Value = devices.json().await.expect("JSON");
    let of = |this: bool| {
        let devices = devices["devices"].as_array().expect("a list");
        let found = devices.iter().find(|device| device["this"] == this);
        text(&found.expect("it is listed")["id"])
    };
    let url = format!("{}/api/v1/devices/{}", api.base, of(true));
    let out = api.client.delete(url).send().await.expect("an answer");
    assert_eq!(out.status(), StatusCode::NO_CONTENT);
    while first.chunk().await.expect("it ends as a whole").is_some() {}
    // The other one goes on.
    assert!(second.chunk().await.expect("a part").is_some());
    // Signed out by another process, which rings nobody here.
    sqlx::query("DELETE FROM device")
        .execute(database.pool())
        .await
        .expect("it is gone");
    while second.chunk().await.expect("it ends as a whole").is_some() {}
}

#[test_context(Demo)]
#[tokio::test]
async fn whoever_guesses_is_slowed_down(Demo(database): &Demo) {
    let keys = Folder::new();
    let api = open(database.pool(), &keys.0).await;
    let mut tablet = Tablet::of(&api).await;
    for guess in 0..5 {
        let (status, _) = tablet
            .give(&format!("guess number {guess}"), "Tablet")
            .await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{guess}");
    }
    // Even the right one has to wait then.
    let body = json!({ "passphrase": first_passphrase(&api), "name": "Tablet" });
    let response = tablet.ask(Method::POST, "/api/v1/devices", &body).await;
    assert!(["1", "2"].contains(&response.headers()["retry-after"].to_str().expect("digits")));
    let (status, problem) = answer(response).await;
    assert_eq!(
        (status.as_u16(), &problem["type"]),
        (429, &json!("/problems/too-often"))
    );
    assert!(text(&problem["detail"]).contains("wait"), "{problem}");
}

#[test_context(Demo)]
#[tokio::test]
async fn a_changed_passphrase_signs_every_device_out(Demo(database): &Demo) {
    let keys = Folder::new();
    let api = open(database.pool(), &keys.0).await;
    let first = first_passphrase(&api);
    let mut tablet = Tablet::of(&api).await;
    tablet.give(&first, "Tablet").await;
    let change = json!({ "passphrase": "heron on the far bank" });
    let (status, problem) =
        answer(tablet.ask(Method::PUT, "/api/v1/passphrase", &change).await).await;
    assert_eq!(
        (status.as_u16(), &problem["type"]),
        (403, &json!("/problems/at-the-machine-only"))
    );
    let (status, problem) = api
        .put("/api/v1/passphrase", json!({ "passphrase": "heron" }))
        .await;
    assert_eq!(
        (status.as_u16(), &problem["errors"][0]["field"]),
        (422, &json!("passphrase"))
    );
    assert_eq!(tablet.status("/api/v1/shipments").await, StatusCode::OK);

    let url = format!("{}/api/v1/passphrase", api.base);
    let changed = api
        .client
        .put(url)
        .json(&change)
        .send()
        .await
        .expect("an answer");
    assert_eq!(changed.status(), StatusCode::NO_CONTENT);
    assert_eq!(
        tablet.status("/api/v1/shipments").await,
        StatusCode::UNAUTHORIZED
    );
    assert_eq!(
        tablet.give(&first, "Tablet").await.0,
        StatusCode::UNPROCESSABLE_ENTITY
    );
    assert_eq!(
        tablet.give("heron on the far bank", "Tablet").await.0,
        StatusCode::CREATED
    );
    assert_eq!(tablet.status("/api/v1/shipments").await, StatusCode::OK);
}

#[test_context(Demo)]
#[tokio::test]
async fn the_certificate_is_installed_once(Demo(database): &Demo) {
    let keys = Folder::new();
    let api = open(database.pool(), &keys.0).await;
    let first = Tablet::of(&api).await;
    let fingerprint = api.get("/api/v1/devices").await["fingerprint"].clone();
    assert_eq!(text(&fingerprint).len(), 32 * 3 - 1);
    let key = std::fs::metadata(keys.0.join("authority.key")).expect("a key");
    assert_eq!(key.permissions().mode() & 0o777, 0o600);
    let folder = std::fs::metadata(&keys.0).expect("a folder");
    assert_eq!(folder.permissions().mode() & 0o777, 0o700);
    // Nothing is said without TLS.
    let plain = first.base.replace("https:", "http:");
    assert!(Client::new().get(plain).send().await.is_err());
    // Whoever did not install it does not take it for this server.
    let elsewhere = rcgen::generate_simple_self_signed(["127.0.0.1".to_owned()]).expect("made");
    let stranger = Tablet::trusting(
        &api,
        Trusted::from_der(elsewhere.cert.der()).expect("a certificate"),
    );
    assert!(stranger.client.get(&stranger.base).send().await.is_err());
    api.running
        .expect("it is its own")
        .stop()
        .await
        .expect("it stops");

    let again = open(database.pool(), &keys.0).await;
    let network = again
        .running
        .as_ref()
        .and_then(hummock_server::Running::network)
        .expect("it is open");
    assert_eq!(network.first_passphrase, None, "there is one");
    assert_eq!(network.fingerprint(), fingerprint.as_str());
    let known = Tablet {
        base: network.addresses[0].clone(),
        ..first
    };
    assert_eq!(known.status("/").await, StatusCode::OK);
}

#[test_context(Demo)]
#[tokio::test]
async fn the_door_of_the_network_is_guarded_like_the_other(Demo(database): &Demo) {
    let keys = Folder::new();
    let api = open(database.pool(), &keys.0).await;
    let mut tablet = Tablet::of(&api).await;
    tablet.give(&first_passphrase(&api), "Tablet").await;
    let send = async |name: &str, value: &str| {
        let request = tablet
            .client
            .post(format!("{}/api/v1/shipments", tablet.base))
            .header(header::COOKIE, tablet.cookie.as_deref().expect("a cookie"))
            .header(name, value)
            .json(&json!({ "inputs": {} }));
        request.send().await.expect("an answer").status()
    };
    assert_eq!(
        send("host", "evil.example").await,
        StatusCode::MISDIRECTED_REQUEST
    );
    assert_eq!(
        send("origin", "https://evil.example").await,
        StatusCode::FORBIDDEN
    );
    assert_eq!(
        send("sec-fetch-site", "cross-site").await,
        StatusCode::FORBIDDEN
    );
    assert_eq!(send("origin", &tablet.base).await, StatusCode::CREATED);
}

#[test_context(Demo)]
#[tokio::test]
async fn a_studio_may_bring_its_own_certificate(Demo(database): &Demo) {
    let files = Folder::new();
    let made = rcgen::generate_simple_self_signed(["studio.example".to_owned()]).expect("made");
    let own = Certificate::Own {
        chain: files.file("chain.pem", &made.cert.pem()),
        key: files.file("key.pem", &made.signing_key.serialize_pem()),
    };
    let api = open_with(database.pool(), own).await;
    let network = api
        .running
        .as_ref()
        .and_then(hummock_server::Running::network)
        .expect("it is open");
    assert!(
        network.addresses[0].starts_with("https://studio.example:"),
        "{:?}",
        network.addresses
    );
    assert_eq!(network.fingerprint(), None);
    let path = format!("{}/api/v1/devices/authority.crt", api.base);
    let handed = api.client.get(path).send().await.expect("an answer");
    assert_eq!(handed.status(), StatusCode::NOT_FOUND);
    let port = network.addresses[0]
        .rsplit(':')
        .next()
        .expect("a port")
        .parse()
        .expect("digits");
    let client = Client::builder()
        .tls_certs_only([Trusted::from_der(made.cert.der()).expect("a certificate")])
        .resolve("studio.example", ([127, 0, 0, 1], port).into())
        .build()
        .expect("a client");
    let page = client
        .get(&network.addresses[0])
        .send()
        .await
        .expect("an answer");
    assert_eq!(page.status(), StatusCode::OK);
}

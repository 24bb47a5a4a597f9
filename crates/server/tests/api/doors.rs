//! Who is let in, what goes out with an answer, and what a hostile or broken client can do.

use std::time::Duration;

use reqwest::{Method, RequestBuilder, StatusCode};
use serde_json::{Value, json};
use test_context::test_context;
use tokio::{
    io::{AsyncReadExt, AsyncWriteExt},
    net::TcpStream,
};

use hummock_server::MostConnections;

use crate::{Api, Demo, NoShipments, answer, canvas, text};

impl Api {
    fn ask(&self, method: Method, path: &str) -> RequestBuilder {
        self.client.request(method, format!("{}{path}", self.base))
    }

    async fn connected(&self) -> TcpStream {
        let address = self.base.trim_start_matches("http://");
        TcpStream::connect(address).await.expect("a connection")
    }
}

/// Sends it, and returns status, problem and headers.
async fn answered(request: RequestBuilder) -> (StatusCode, Value, reqwest::header::HeaderMap) {
    let response = request.send().await.expect("an answer");
    let (status, headers) = (response.status(), response.headers().clone());
    let bytes = response.bytes().await.expect("a body");
    let body = serde_json::from_slice(&bytes).unwrap_or_default();
    (status, body, headers)
}

#[test_context(Demo)]
#[tokio::test]
async fn a_name_that_is_not_ours_reads_nothing(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    for path in [
        "/api/v1/shipments",
        "/api/v1/health",
        "/",
        "/assets/app-1.js",
        "/api/openapi.json",
    ] {
        for name in [
            "evil.example",
            "127.0.0.1.evil.example",
            "localhost@evil.example",
        ] {
            let (status, problem, _) =
                answered(api.ask(Method::GET, path).header("host", name)).await;
            assert_eq!(status, StatusCode::MISDIRECTED_REQUEST, "{name}{path}");
            assert_eq!(problem["type"], "/problems/not-this-host");
        }
        for name in ["localhost:9", "studio.example", "bench.example:443"] {
            let (status, _, _) = answered(api.ask(Method::GET, path).header("host", name)).await;
            assert_eq!(status, StatusCode::OK, "{name}{path}");
        }
    }
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_page_of_another_origin_changes_nothing(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    let make = || api.ask(Method::POST, "/api/v1/shipments").json(&json!({}));
    for (name, value) in [
        ("origin", "https://evil.example"),
        ("origin", "null"),
        ("origin", "http://127.0.0.1:1"),
        ("sec-fetch-site", "cross-site"),
    ] {
        let (status, problem, _) = answered(make().header(name, value)).await;
        assert_eq!(status, StatusCode::FORBIDDEN, "{name}: {value}");
        assert_eq!(problem["type"], "/problems/not-this-origin");
    }
    assert_eq!(api.rows().await, json!([]));
    for (name, value) in [
        ("origin", api.base.as_str()),
        ("origin", "https://bench.example"),
        ("sec-fetch-site", "same-origin"),
    ] {
        let (status, ..) = answered(make().header(name, value)).await;
        assert_eq!(status, StatusCode::CREATED, "{name}: {value}");
    }
}

#[test_context(NoShipments)]
#[tokio::test]
async fn every_answer_says_how_far_it_may_go(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    for (path, keep) in [
        ("/", "no-cache"),
        ("/shipments/new", "no-cache"),
        ("/assets/app-1.js", "public, max-age=31536000, immutable"),
        ("/api/v1/shipments", "no-store"),
        ("/api/v1/nowhere", "no-store"),
        ("/api/openapi.json", "no-store"),
    ] {
        let (_, _, headers) = answered(api.ask(Method::GET, path)).await;
        let says = |name: &str| {
            text(&json!(
                headers.get(name).and_then(|value| value.to_str().ok())
            ))
        };
        assert_eq!(says("cache-control"), keep, "{path}");
        assert_eq!(says("referrer-policy"), "same-origin", "{path}");
        assert_eq!(says("x-content-type-options"), "nosniff", "{path}");
        let policy = says("content-security-policy");
        assert!(policy.contains("default-src 'self'"), "{path}: {policy}");
        assert!(
            policy.contains("frame-ancestors 'none'"),
            "{path}: {policy}"
        );
    }
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_file_of_the_pages_goes_out_once_and_small(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    let file = || api.ask(Method::GET, "/assets/app-1.js");
    let (status, _, headers) = answered(file()).await;
    assert_eq!(
        (status, headers.get("content-encoding")),
        (StatusCode::OK, None)
    );
    let tag = headers.get("etag").expect("a tag").clone();
    let small = file()
        .header("accept-encoding", "br, gzip")
        .send()
        .await
        .expect("an answer");
    assert_eq!(small.headers()["content-encoding"], "gzip");
    assert_eq!(small.headers()["etag"], tag);
    // 400 lines of 19 bytes
    assert!(small.bytes().await.expect("a body").len() < 7600 / 10);
    let (status, ..) = answered(file().header("if-none-match", &tag)).await;
    assert_eq!(status, StatusCode::NOT_MODIFIED);
    let (status, ..) = answered(file().header("if-none-match", "\"other\"")).await;
    assert_eq!(status, StatusCode::OK);
    let (status, ..) = answered(api.ask(Method::GET, "/assets/gone.js")).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_text_that_nobody_can_read_is_refused_at_its_field(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    let post = async |path: &str, body: String| {
        let request = api
            .ask(Method::POST, path)
            .header("content-type", "application/json")
            .body(body);
        let (status, problem, _) = answered(request).await;
        (status, text(&problem["errors"][0]["field"]))
    };
    for bad in [
        "\\u0000", "\\u0007", "\\u202e", "\\u2066", "\\ud800", "\\ud800x", "\\udc00", "\u{202e}",
    ] {
        for (path, body, field) in [
            (
                "/shipments",
                format!(r#"{{"inputs":{{"title":"a{bad}b"}}}}"#),
                "title",
            ),
            (
                "/plans/preview",
                format!(r#"{{"inputs":{{"buyer":{{"name":"{bad}"}}}}}}"#),
                "buyer.name",
            ),
            (
                "/shipments",
                format!(r#"{{"inputs":{{"choices":{{"face_board":"{bad}"}}}}}}"#),
                "choices.face_board",
            ),
            ("/measures/read", format!(r#"{{"text":"{bad}"}}"#), "text"),
            (
                "/stores/tapes/table",
                format!(r#"{{"version":1,"csv":"id,name\n{bad},b"}}"#),
                "csv",
            ),
            (
                "/curves/fit",
                format!(r#"{{"csv":"material{bad}"}}"#),
                "csv",
            ),
        ] {
            let (status, at) = post(&format!("/api/v1{path}"), body.clone()).await;
            assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{body}");
            assert_eq!(at, field, "{body}");
        }
    }
    for path in [
        "/studio/presets/a%00b",
        "/stores/tapes/a%00b?version=1",
        "/studio/presets/%E2%80%AE",
    ] {
        let (status, problem, _) =
            answered(api.ask(Method::DELETE, &format!("/api/v1{path}"))).await;
        assert_eq!(
            status,
            StatusCode::UNPROCESSABLE_ENTITY,
            "{path}: {problem}"
        );
    }
    // Names of any script, and several lines in a note, are only text.
    let inputs = json!({ "title": "林 静, Østre Gård, שרה", "piece": { "notes": "one\n\ttwo" } });
    let (status, _) = api
        .post("/api/v1/shipments", json!({ "inputs": inputs }))
        .await;
    assert_eq!(status, StatusCode::CREATED);
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_deep_or_huge_document_is_refused_and_the_process_lives(
    NoShipments(database): &NoShipments,
) {
    let api = Api::start(database.pool(), false).await;
    let post = |path: &str, body: String| {
        api.ask(Method::POST, path)
            .header("content-type", "application/json")
            .body(body)
    };
    let deep = format!(
        r#"{{"inputs":{}1{}}}"#,
        "[".repeat(100_000),
        "]".repeat(100_000)
    );
    let dots = json!({ "version": 1, "csv": format!("id,{}\na,1", "x.".repeat(100_000)) });
    for (path, body, wanted) in [
        ("/api/v1/plans/preview", deep, StatusCode::BAD_REQUEST),
        (
            "/api/v1/stores/tapes/table",
            dots.to_string(),
            StatusCode::UNPROCESSABLE_ENTITY,
        ),
        (
            "/api/v1/plans/preview",
            " ".repeat(300 * 1024),
            StatusCode::PAYLOAD_TOO_LARGE,
        ),
    ] {
        let (status, ..) = answered(post(path, body)).await;
        assert_eq!(status, wanted, "{path}");
    }
    api.get("/api/v1/health").await;
}

#[test_context(NoShipments)]
#[tokio::test]
async fn whoever_sends_half_a_request_does_not_hold_up_the_end(
    NoShipments(database): &NoShipments,
) {
    let api = Api::start(database.pool(), false).await;
    let mut half_a_head = api.connected().await;
    half_a_head
        .write_all(b"POST /api/v1/shipments HTTP/1.1\r\nHost: 127")
        .await
        .expect("it is sent");
    let mut half_a_body = api.connected().await;
    half_a_body
        .write_all(b"POST /api/v1/shipments HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/json\r\nContent-Length: 99\r\n\r\n{")
        .await
        .expect("it is sent");
    api.get("/api/v1/health").await;
    // It is given four seconds; a minute is far beyond them.
    tokio::time::timeout(
        Duration::from_secs(60),
        api.running.expect("it is its own").stop(),
    )
    .await
    .expect("it ends by itself")
    .expect("it served well");
    let mut rest = Vec::new();
    half_a_head.read_to_end(&mut rest).await.ok();
    assert_eq!(String::from_utf8_lossy(&rest), "");
}

/// Who says nothing, or half of what another version of the protocol begins with, holds no connection for ever; and who opens
/// more than may stand is hung up on at once.
#[test_context(NoShipments)]
#[tokio::test]
async fn silent_connections_are_few_and_short(NoShipments(database): &NoShipments) {
    let most = MostConnections { in_all: 6, each: 6 };
    let api = Api::start_with(database.pool(), false, |options| {
        options.most_connections.machine = most;
    })
    .await;
    let mut silent = Vec::new();
    for said in [&b""[..], b"P", b"PRI * HTTP/2.0", b"G", b"\r\n", b""] {
        let mut stream = api.connected().await;
        stream.write_all(said).await.expect("it is sent");
        silent.push(stream);
    }
    let mut rest = Vec::new();
    api.connected().await.read_to_end(&mut rest).await.ok();
    assert!(rest.is_empty(), "one too many is hung up on without a word");
    for mut stream in silent {
        let mut said = Vec::new();
        stream.read_to_end(&mut said).await.ok();
        let said = String::from_utf8_lossy(&said).into_owned();
        assert!(!said.starts_with("HTTP/1.1 2"), "{said}");
    }
    api.get("/api/v1/health").await;
}

/// A page of elsewhere can't have this machine work for it, nor show what it reads.
#[test_context(NoShipments)]
#[tokio::test]
async fn a_page_of_another_site_reads_nothing_of_the_api(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    let get = |path: &str| api.ask(Method::GET, path);
    let (status, problem, headers) =
        answered(get("/api/v1/shipments").header("sec-fetch-site", "cross-site")).await;
    assert_eq!(status, StatusCode::FORBIDDEN);
    assert_eq!(problem["type"], "/problems/not-this-origin");
    assert_eq!(headers["cross-origin-resource-policy"], "same-origin");
    // A link to a page of the studio is followed from anywhere.
    let (status, ..) = answered(get("/").header("sec-fetch-site", "cross-site")).await;
    assert_eq!(status, StatusCode::OK);
}

#[test_context(NoShipments)]
#[tokio::test]
async fn half_a_head_and_half_a_body_are_hung_up_on(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    for sent in [
        "GET /api/v1/health HTTP/1.1\r\nHost: 127".to_owned(),
        "POST /api/v1/shipments HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/json\r\nContent-Length: 99\r\n\r\n{".to_owned(),
    ] {
        let mut half = api.connected().await;
        half.write_all(sent.as_bytes()).await.expect("it is sent");
        // It ends when the server hangs up, with an answer or without.
        let mut rest = Vec::new();
        half.read_to_end(&mut rest).await.ok();
        let said = String::from_utf8_lossy(&rest).into_owned();
        assert!(!said.starts_with("HTTP/1.1 2"), "{said}");
    }
    let (status, _) = api
        .post(
            "/api/v1/plans/preview",
            json!({ "inputs": { "piece": canvas() } }),
        )
        .await;
    assert_eq!(status, StatusCode::OK);
}

/// Whoever opens a link to print gets a page that says what is the matter; a program gets the document.
#[test_context(NoShipments)]
#[tokio::test]
async fn a_problem_is_a_page_where_somebody_opened_its_address(
    NoShipments(database): &NoShipments,
) {
    let api = Api::start(database.pool(), false).await;
    let path = format!(
        "{}/api/v1/shipments/018f0000-0000-7000-8000-000000000000/pack-sheet",
        api.base
    );
    let opened = api
        .client
        .get(&path)
        .header("sec-fetch-dest", "document")
        .send()
        .await
        .expect("an answer");
    assert_eq!(opened.status(), StatusCode::NOT_FOUND);
    assert_eq!(opened.headers()["content-type"], "text/html; charset=utf-8");
    let page = opened.text().await.expect("text");
    assert!(
        page.contains("<h1>") && page.contains("Try again") && page.contains("href=\"/\""),
        "{page}"
    );
    let asked = api
        .client
        .get(&path)
        .header("sec-fetch-dest", "empty")
        .send()
        .await
        .expect("an answer");
    let (status, problem) = answer(asked).await;
    assert_eq!(
        (status, problem["status"].clone()),
        (StatusCode::NOT_FOUND, json!(404))
    );
}

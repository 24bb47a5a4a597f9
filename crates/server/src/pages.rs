//! The web build, carried in the binary.

use axum::{
    http::{HeaderValue, StatusCode, Uri, header},
    response::{IntoResponse, Response},
};
use rust_embed::{EmbeddedFile, RustEmbed};

use crate::problem::Problem;

#[derive(RustEmbed)]
#[folder = "../../web/dist"]
#[allow_missing = true]
struct WebBuild;

const FIRST_PAGE: &str = "index.html";
/// Files under here are named by what is in them, so they never change.
const NAMED_BY_CONTENT: &str = "assets/";
const FOR_EVER: HeaderValue = HeaderValue::from_static("public, max-age=31536000, immutable");
const ASK_AGAIN: HeaderValue = HeaderValue::from_static("no-cache");
const OWN_SCRIPTS_ONLY: HeaderValue = HeaderValue::from_static(
    "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; frame-ancestors 'none'; base-uri 'none'; form-action 'self'",
);

/// Answers with a file of the web build; any other path is a place in the application.
pub(crate) async fn page(uri: Uri) -> Response {
    let path = uri.path().trim_start_matches('/');
    if path.starts_with("api/") {
        return Problem::not_found("such path in the API").into_response();
    }
    match WebBuild::get(path) {
        Some(file) => with_headers(path, file),
        None if path.starts_with(NAMED_BY_CONTENT) => {
            Problem::not_found("such file").into_response()
        }
        None => first_page(),
    }
}

fn first_page() -> Response {
    match WebBuild::get(FIRST_PAGE) {
        Some(file) => with_headers(FIRST_PAGE, file),
        None => (
            StatusCode::NOT_FOUND,
            "the pages are not built: run bin/start",
        )
            .into_response(),
    }
}

fn with_headers(path: &str, file: EmbeddedFile) -> Response {
    let kind = mime_guess::from_path(path).first_or_octet_stream();
    let keep = if path.starts_with(NAMED_BY_CONTENT) {
        FOR_EVER
    } else {
        ASK_AGAIN
    };
    let mut response = file.data.into_owned().into_response();
    let headers = response.headers_mut();
    if let Ok(kind) = HeaderValue::from_str(kind.as_ref()) {
        headers.insert(header::CONTENT_TYPE, kind);
    }
    headers.insert(header::CACHE_CONTROL, keep);
    headers.insert(header::CONTENT_SECURITY_POLICY, OWN_SCRIPTS_ONLY);
    response
}

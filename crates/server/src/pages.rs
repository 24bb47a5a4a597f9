//! Handing out the web build: named by what is in it, compressed once.

use std::{
    borrow::Cow,
    collections::HashMap,
    io::Write as _,
    sync::{Arc, PoisonError, RwLock},
};

use axum::{
    body::Bytes,
    extract::State,
    http::{HeaderMap, HeaderValue, StatusCode, Uri, header},
    response::{IntoResponse, Response},
};
use flate2::{Compression, write::GzEncoder};
use rust_embed::EmbeddedFile;

use crate::problem::Problem;

/// A file of the web build.
#[derive(Debug, Clone)]
pub struct PageFile {
    /// What is in it.
    pub bytes: Cow<'static, [u8]>,
    /// The SHA-256 digest of that.
    pub digest: [u8; 32],
}

impl From<EmbeddedFile> for PageFile {
    fn from(file: EmbeddedFile) -> Self {
        Self {
            digest: file.metadata.sha256_hash(),
            bytes: file.data,
        }
    }
}

/// Finds a file of the web build by its path, as `index.html`.
pub type Pages = fn(&str) -> Option<PageFile>;

/// The web build with what was compressed of it.
#[derive(Debug)]
pub struct PageShelf {
    pages: Pages,
    ready: RwLock<HashMap<String, Arc<Ready>>>,
}

/// A file as it goes out.
#[derive(Debug)]
struct Ready {
    digest: [u8; 32],
    kind: HeaderValue,
    tag: HeaderValue,
    plain: Bytes,
    /// Where that is smaller.
    gzip: Option<Bytes>,
}

const FIRST_PAGE: &str = "index.html";
/// Files under here are named by what is in them, so they never change.
const NAMED_BY_CONTENT: &str = "assets/";
const FOR_EVER: HeaderValue = HeaderValue::from_static("public, max-age=31536000, immutable");
const ASK_AGAIN: HeaderValue = HeaderValue::from_static("no-cache");
const GZIP: HeaderValue = HeaderValue::from_static("gzip");
const VARIES: HeaderValue = HeaderValue::from_static("accept-encoding");
/// How many bytes of the digest tell one file from another.
const TAG_BYTES: usize = 12;

impl PageShelf {
    /// Makes an empty shelf.
    #[must_use]
    pub fn of(pages: Pages) -> Self {
        Self {
            pages,
            ready: RwLock::default(),
        }
    }

    fn get(&self, path: &str) -> Option<Arc<Ready>> {
        let file = (self.pages)(path)?;
        let known = self
            .ready
            .read()
            .unwrap_or_else(PoisonError::into_inner)
            .get(path)
            .cloned();
        // While it is being worked on, a file changes under its path.
        if let Some(ready) = known.filter(|ready| ready.digest == file.digest) {
            return Some(ready);
        }
        let ready = Arc::new(Ready::of(path, file));
        self.ready
            .write()
            .unwrap_or_else(PoisonError::into_inner)
            .insert(path.to_owned(), Arc::clone(&ready));
        Some(ready)
    }
}

impl Ready {
    fn of(path: &str, file: PageFile) -> Self {
        let kind = mime_guess::from_path(path).first_or_octet_stream();
        let tag: String = file
            .digest
            .iter()
            .take(TAG_BYTES)
            .map(|byte| format!("{byte:02x}"))
            .collect();
        let plain = Bytes::from(file.bytes.into_owned());
        Self {
            digest: file.digest,
            kind: HeaderValue::from_str(kind.as_ref())
                .unwrap_or(HeaderValue::from_static("application/octet-stream")),
            tag: HeaderValue::from_str(&format!("\"{tag}\"")).expect("it is plain letters"),
            gzip: compressed(&plain).filter(|gzip| gzip.len() < plain.len()),
            plain,
        }
    }

    fn answer(&self, path: &str, asked: &HeaderMap) -> Response {
        let keep = if path.starts_with(NAMED_BY_CONTENT) {
            FOR_EVER
        } else {
            ASK_AGAIN
        };
        let named = [
            (header::ETAG, self.tag.clone()),
            (header::CACHE_CONTROL, keep),
            (header::VARY, VARIES),
        ];
        if has_it(asked, &self.tag) {
            return (StatusCode::NOT_MODIFIED, named).into_response();
        }
        let kind = [(header::CONTENT_TYPE, self.kind.clone())];
        match &self.gzip {
            Some(gzip) if takes_gzip(asked) => {
                let encoding = [(header::CONTENT_ENCODING, GZIP)];
                (named, kind, encoding, gzip.clone()).into_response()
            }
            _ => (named, kind, self.plain.clone()).into_response(),
        }
    }
}

fn compressed(plain: &[u8]) -> Option<Bytes> {
    let mut encoder = GzEncoder::new(Vec::new(), Compression::best());
    encoder.write_all(plain).ok()?;
    encoder.finish().ok().map(Bytes::from)
}

fn has_it(asked: &HeaderMap, tag: &HeaderValue) -> bool {
    asked
        .get_all(header::IF_NONE_MATCH)
        .iter()
        .filter_map(|tags| tags.to_str().ok())
        .flat_map(|tags| tags.split(','))
        .any(|known| known.trim().trim_start_matches("W/").as_bytes() == tag.as_bytes())
}

fn takes_gzip(asked: &HeaderMap) -> bool {
    asked
        .get_all(header::ACCEPT_ENCODING)
        .iter()
        .filter_map(|codings| codings.to_str().ok())
        .flat_map(|codings| codings.split(','))
        .any(|coding| {
            let (name, weight) = coding.split_once(';').unwrap_or((coding, ""));
            name.trim() == "gzip"
                && !matches!(weight.trim(), "q=0" | "q=0.0" | "q=0.00" | "q=0.000")
        })
}

/// Answers with a file of the web build; any other path is a place in the application.
pub(crate) async fn page(
    State(pages): State<Arc<PageShelf>>,
    uri: Uri,
    asked: HeaderMap,
) -> Response {
    let path = uri.path().trim_start_matches('/');
    if path == "api" || path.starts_with("api/") {
        return Problem::not_found("such path in the API").into_response();
    }
    match pages.get(path) {
        Some(ready) => ready.answer(path, &asked),
        None if path.starts_with(NAMED_BY_CONTENT) => {
            Problem::not_found("such file").into_response()
        }
        None => match pages.get(FIRST_PAGE) {
            Some(ready) => ready.answer(FIRST_PAGE, &asked),
            None => (
                StatusCode::NOT_FOUND,
                "the pages are not built: run bin/start",
            )
                .into_response(),
        },
    }
}

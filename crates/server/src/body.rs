//! Reading a request's JSON, with the field that does not fit.

use std::collections::HashMap;

use axum::{
    body::Bytes,
    extract::{FromRequest, FromRequestParts, Path, Request},
    http::{HeaderMap, StatusCode, header::CONTENT_TYPE, request::Parts},
};
use hummock_core::{
    Refusal, Refusals,
    json::{self, Misfit},
    text::{UnreadableText, refused_text},
};
use serde::{
    Deserialize, Deserializer,
    de::{DeserializeOwned, IntoDeserializer as _},
};
use serde_json::Value;
use uuid::Uuid;

use crate::problem::Problem;

/// A JSON body; what does not fit is refused with its field.
#[derive(Debug)]
pub(crate) struct Body<T>(pub(crate) T);

impl<T: DeserializeOwned, S: Send + Sync> FromRequest<S> for Body<T> {
    type Rejection = Problem;

    async fn from_request(request: Request, state: &S) -> Result<Self, Problem> {
        if !is_json(request.headers()) {
            return Err(Problem::unreadable(
                StatusCode::UNSUPPORTED_MEDIA_TYPE,
                "the body must be JSON: send it with the content type application/json",
            ));
        }
        let bytes = Bytes::from_request(request, state)
            .await
            .map_err(|rejection| Problem::unreadable(rejection.status(), rejection.body_text()))?;
        let document: Value = serde_json::from_slice(&bytes).map_err(|_| no_document(&bytes))?;
        let mut refusals = Refusals::default();
        look_for_unreadable(&document, "", &mut refusals);
        refusals.done()?;
        json::read(document)
            .map(Self)
            .map_err(|misfit| Problem::refused(vec![refusal_for(&misfit)]))
    }
}

/// Reads a list of words that are separated by commas, as an address writes them.
pub(crate) fn listed<'de, D: Deserializer<'de>, T: Deserialize<'de>>(
    from: D,
) -> Result<Vec<T>, D::Error> {
    let text = String::deserialize(from)?;
    let parts = text.split(',').filter(|part| !part.is_empty());
    parts
        .map(|part| T::deserialize(part.to_owned().into_deserializer()))
        .collect()
}

/// What stands behind the question mark; what does not fit is refused with its field.
#[derive(Debug)]
pub(crate) struct Asked<T>(pub(crate) T);

impl<T: DeserializeOwned, S: Send + Sync> FromRequestParts<S> for Asked<T> {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, _: &S) -> Result<Self, Problem> {
        let pairs = form_urlencoded::parse(parts.uri.query().unwrap_or_default().as_bytes());
        let deserializer = serde_urlencoded::Deserializer::new(pairs);
        json::read_from(deserializer)
            .map(Self)
            .map_err(|misfit| Problem::refused(vec![refusal_for(&misfit)]))
    }
}

fn is_json(headers: &HeaderMap) -> bool {
    let kind = headers
        .get(CONTENT_TYPE)
        .and_then(|value| value.to_str().ok())
        .unwrap_or_default();
    kind.split(';')
        .next()
        .is_some_and(|kind| kind.trim().eq_ignore_ascii_case("application/json"))
}

/// A document is never deeper than its reader lets it be.
fn look_for_unreadable(value: &Value, path: &str, refusals: &mut Refusals) {
    let inside = |key: &str| match path {
        "" | "inputs" => key.to_owned(),
        _ => format!("{path}.{key}"),
    };
    match value {
        Value::String(text) => {
            refusals
                .extend(UnreadableText::in_paragraph(text).map(|what| Refusal::new(path, what)));
        }
        Value::Array(parts) => {
            for (place, part) in parts.iter().enumerate() {
                look_for_unreadable(part, &format!("{path}[{place}]"), refusals);
            }
        }
        Value::Object(fields) => {
            for (key, part) in fields {
                if let Some(what) = UnreadableText::in_line(key) {
                    refusals.refuse(path, what);
                } else {
                    look_for_unreadable(part, &inside(key), refusals);
                }
            }
        }
        _ => {}
    }
}

/// Says why a body is no document, and where, when that is half of a letter, as `\ud800`: well formed, and no text.
fn no_document(bytes: &[u8]) -> Problem {
    let mut json = serde_json::Deserializer::from_slice(bytes);
    match serde_path_to_error::deserialize::<_, Value>(&mut json) {
        Err(error) if is_half_a_letter(error.inner()) => {
            let path = error.path().to_string();
            let field = path.strip_prefix("inputs.").unwrap_or(&path);
            Problem::refused(vec![Refusal::new(field, UnreadableText::Control)])
        }
        Err(error) => {
            let says = format!("the body is not JSON: {}", error.inner());
            Problem::unreadable(StatusCode::BAD_REQUEST, says)
        }
        Ok(_) => Problem::unreadable(StatusCode::BAD_REQUEST, "the body is not one JSON document"),
    }
}

fn is_half_a_letter(error: &serde_json::Error) -> bool {
    let says = error.to_string();
    says.contains("surrogate") || says.contains("unexpected end of hex escape")
}

/// Makes a refusal for a value that does not fit its field.
pub(crate) fn refusal_for(misfit: &Misfit) -> Refusal {
    let (path, text) = (misfit.path.to_string(), &misfit.says);
    // Fields are named as in the inputs, wherever in the body those stand.
    let field = path.strip_prefix("inputs.").unwrap_or(&path);
    if let Some(missing) = missing_field(text) {
        let inside = if field == "." { "" } else { field };
        let dot = if inside.is_empty() { "" } else { "." };
        return Refusal::new(format!("{inside}{dot}{missing}"), "a value is missing");
    }
    // The place in the body says nothing to whoever typed the value; the field does.
    let says = text.split(" at line ").next().unwrap_or(text);
    Refusal::new(field, format!("not understood: {says}"))
}

/// Names the field that a body left out; such an error is about the whole and not about the field.
fn missing_field(text: &str) -> Option<&str> {
    text.strip_prefix("missing field `")?.split('`').next()
}

/// The id of a shipment in the path; one that is not an id is not found.
#[derive(Debug, Clone, Copy)]
pub(crate) struct ShipmentId(pub(crate) Uuid);

impl<S: Send + Sync> FromRequestParts<S> for ShipmentId {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Self, Problem> {
        id_in(parts, state, "shipment of that id").await.map(Self)
    }
}

/// Returns the id in a path, which may name more besides; one that is none is not found.
pub(crate) async fn id_in<S: Send + Sync>(
    parts: &mut Parts,
    state: &S,
    what: &str,
) -> Result<Uuid, Problem> {
    let found: Result<Path<HashMap<String, String>>, _> =
        Path::from_request_parts(parts, state).await;
    found
        .ok()
        .and_then(|Path(path)| path.get("id")?.parse().ok())
        .ok_or_else(|| Problem::not_found(what))
}

/// A name in the path.
#[derive(Debug, Clone)]
pub(crate) struct NameInPath(pub(crate) String);

impl<S: Send + Sync> FromRequestParts<S> for NameInPath {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Self, Problem> {
        let Path(name) = Path::<String>::from_request_parts(parts, state)
            .await
            .map_err(|_| Problem::refused(vec![Refusal::new("name", UnreadableText::Control)]))?;
        match refused_text("name", &name) {
            Some(refusal) => Err(Problem::refused(vec![refusal])),
            None => Ok(Self(name)),
        }
    }
}

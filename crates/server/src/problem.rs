//! Errors as problem documents (RFC 9457).

use std::time::Duration;

use axum::{
    Json,
    body::Body,
    extract::Request,
    http::{
        HeaderName, HeaderValue, StatusCode,
        header::{CACHE_CONTROL, CONTENT_LENGTH, CONTENT_TYPE, RETRY_AFTER},
    },
    middleware::Next,
    response::{IntoResponse, Response},
};
use hummock_core::{Refusal, Refusals};
use hummock_store::{SettingRefused, ShelfRefused, StoreError, WriteRefused};
use serde::Serialize;
use serde_json::value::{RawValue, to_raw_value};

/// An error, in the form of RFC 9457.
#[derive(Debug, Clone, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct Problem {
    /// What kind of problem it is; stable.
    #[serde(rename = "type")]
    #[cfg_attr(feature = "schema", schema(schema_with = kinds))]
    kind: &'static str,
    /// The kind in words.
    title: &'static str,
    /// The status of the response.
    status: u16,
    /// What happened this time.
    detail: String,
    /// Each value that was refused, with its field.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    errors: Vec<Refusal>,
    /// How the shipment stands now, when an edit was based on an older version.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "schema", schema(value_type = Option<crate::shipments::ShipmentView>))]
    current: Option<Box<RawValue>>,
    /// How many seconds to wait before asking again.
    #[serde(skip)]
    wait: Option<u64>,
}

/// The description of `type`: every kind, with its status and its title.
#[cfg(feature = "schema")]
fn kinds() -> utoipa::openapi::Object {
    let kinds: std::collections::BTreeSet<&str> = KINDS.iter().map(|(kind, ..)| *kind).collect();
    let listed = KINDS
        .iter()
        .map(|(kind, status, title)| format!("- `{kind}`, {}: {title}", status.as_u16()));
    let listed: std::collections::BTreeSet<String> = listed.collect();
    let listed: Vec<String> = listed.into_iter().collect();
    utoipa::openapi::ObjectBuilder::new()
        .schema_type(utoipa::openapi::schema::Type::String)
        .enum_values(Some(kinds))
        .examples(["/problems/refused"])
        .description(Some(format!(
            "What kind of problem it is; stable. Each with its status and its title:\n\n{}",
            listed.join("\n")
        )))
        .build()
}

impl Problem {
    fn new(
        status: StatusCode,
        kind: &'static str,
        title: &'static str,
        detail: impl Into<String>,
    ) -> Self {
        Self {
            kind,
            title,
            status: status.as_u16(),
            detail: detail.into(),
            errors: Vec::new(),
            current: None,
            wait: None,
        }
    }
}

/// Declares the kinds of problems: the function that makes one, its status, the end of its `type`, its title, and what it
/// says. One of several that share a `type` takes its place in the description by its own title.
macro_rules! problems {
    ($($name:ident($($of:ident: $type:ty),*) = $status:ident, $kind:literal, $title:literal: $detail:expr;)*) => {
        impl Problem {
            $(
                pub(crate) fn $name($($of: $type),*) -> Self {
                    Self::new(StatusCode::$status, concat!("/problems/", $kind), $title, $detail)
                }
            )*
        }

        /// Every kind: its `type`, its status, and its title.
        #[cfg(feature = "schema")]
        pub(crate) const KINDS: &[(&str, StatusCode, &str)] =
            &[$((concat!("/problems/", $kind), StatusCode::$status, $title),)*];
    };
}

problems! {
    unreadable_as(detail: String) = BAD_REQUEST, "unreadable", "The request can't be read": detail;
    refused_as(detail: String) = UNPROCESSABLE_ENTITY, "refused", "Invalid value": detail;
    stale_edit(version: i32, based_on: i32) = CONFLICT, "stale", "The shipment changed meanwhile":
        format!("the shipment is at version {version}, and this edit was based on version {based_on}: check the changes and edit again");
    too_many_tries(wait: String) = TOO_MANY_REQUESTS, "too-often", "Wait a little":
        format!("too many wrong passphrases: wait {wait}, and try again");
    not_found(what: &str) = NOT_FOUND, "not-found", "Not found": format!("there is no {what} here");
    put_away() = CONFLICT, "put-away", "The shipment is put away":
        "the shipment is archived: move it back to the bench to change it";
    booked_already() = CONFLICT, "booked-already", "Already booked":
        "a booking of it stands already: cancel that first, or go on with it";
    copy_asks_first() = CONFLICT, "copy-asks-first", "Which of the two speaks to carriers?":
        "this studio was read in from a backup, and the one that it was made of may still run: say under “Carrier bookings” that this one speaks to them";
    carrier_silent() = BAD_GATEWAY, "carrier-silent", "No answer from the carrier":
        "the carrier didn't answer, or refused: nothing changed; try again later";
    not_empty() = CONFLICT, "not-empty", "The studio is not empty":
        "this studio isn't empty: restore a backup into an empty one";
    backup_under_way() = CONFLICT, "backup-under-way", "One at a time":
        "a backup is being made or read in: wait until that is done";
    disk_full() = INSUFFICIENT_STORAGE, "disk-full", "No disk space":
        "the disk is full: free some space on the machine that runs Hummock, and try again";
    sender_changed() = CONFLICT, "sender-changed", "The address changed meanwhile":
        "the studio's address was changed elsewhere: check it, and change it again";
    studios_full() = CONFLICT, "studios-full", "There are enough":
        "this server already has twenty studios: open one of them, or start another server with its own database";
    busy() = SERVICE_UNAVAILABLE, "busy", "Too much at once":
        "the house rules keep changing; your entries stay on the page and are saved shortly";
    much_to_draw() = SERVICE_UNAVAILABLE, "busy", "Too much at once":
        "many documents and photographs are being made at once: this one is asked for again in a few seconds";
    much_to_take() = SERVICE_UNAVAILABLE, "busy", "Too much at once":
        "many files are being sent at once: send this one again in a few seconds";
    signed_out() = UNAUTHORIZED, "signed-out", "Not signed in":
        "this device isn't signed in: enter the studio’s passphrase; your entries stay on the page";
    at_the_machine_only() = FORBIDDEN, "at-the-machine-only", "Not from here":
        "do this on the machine that runs Hummock, not from a tablet";
    not_this_host() = MISDIRECTED_REQUEST, "not-this-host", "Not under that name":
        "this server doesn't answer under that name: open the address that bin/start printed, or start it with --allow-host";
    not_this_origin() = FORBIDDEN, "not-this-origin", "Not from there":
        "a page of another origin may change nothing here: set HUMMOCK_ORIGIN where this stands behind a proxy";
    too_long() = GATEWAY_TIMEOUT, "too-long", "It took too long":
        "the answer took too long; your entries are still on the page";
    no_state() = CONFLICT, "no-state", "Nothing to undo or redo": "nothing more to undo or redo";
    stale_setting(current: i32) = CONFLICT, "stale", "They changed meanwhile":
        format!("changed elsewhere, now at version {current}: check and repeat your change");
    recounted() = CONFLICT, "recounted", "The count changed meanwhile":
        "it was counted elsewhere, or used for a shipment: check the amount, and count again";
    none_left(what: &str) = CONFLICT, "none-left", "None left":
        format!("the shelf counts no {what} any more: count it again, or lay the parts out anew");
    used_since(what: &str) = CONFLICT, "used-since", "It was used since":
        format!("{what} was kept then and has been used since, so it stays as it is");
    counted_already() = CONFLICT, "counted-already", "Already counted":
        "there is a count of that material and size already: change that one";
    no_documents_yet() = SERVICE_UNAVAILABLE, "no-documents-yet", "Drawings are not ready yet":
        "the program that makes drawings is still being built: try again in a few minutes; the cut list can be printed meanwhile";
    pictures_away() = SERVICE_UNAVAILABLE, "photographs-away", "Photographs can't be reached":
        "the photograph storage doesn't answer: photographs stay in this browser and are sent again";
    another_photograph() = CONFLICT, "another-photograph", "Id already in use":
        "another photograph has that id: send this one with a new id";
    document_failed() = INTERNAL_SERVER_ERROR, "document-failed", "The drawing failed":
        "the drawing could not be made; nothing else is touched by it";
    laid_out_anew() = CONFLICT, "laid-out-anew", "The layout changed meanwhile":
        "the layout was made anew since you looked at it: look again before you cut";
    begun() = CONFLICT, "begun", "Cutting has begun":
        "parts of it are already cut: undo that first, or make a new layout";
    in_use(uses: &[String]) = CONFLICT, "in-use", "The material is in use":
        format!("used by {}: retire it instead, and it is no longer offered", uses.join(", "));
    slip() = INTERNAL_SERVER_ERROR, "slip", "Something went wrong":
        "internal error; your entries are still on the page";
    away() = SERVICE_UNAVAILABLE, "away", "The database is away":
        "the database can't be reached; your entries stay on the page and are saved when it is back";
}

impl Problem {
    /// A request that can't be read, with the status that says why.
    pub(crate) fn unreadable(status: StatusCode, detail: impl Into<String>) -> Self {
        Self {
            status: status.as_u16(),
            ..Self::unreadable_as(detail.into())
        }
    }

    pub(crate) fn refused(errors: Vec<Refusal>) -> Self {
        let says: Vec<&str> = errors
            .iter()
            .map(|refusal| refusal.message.as_str())
            .collect();
        let problem = Self::refused_as(says.join("; "));
        Self { errors, ..problem }
    }

    /// With the shipment as it stands now, at its version.
    pub(crate) fn stale(based_on: i32, (version, current): (i32, &impl Serialize)) -> Self {
        Self {
            current: to_raw_value(current).ok(),
            ..Self::stale_edit(version, based_on)
        }
    }

    /// Says in how many seconds to ask again.
    pub(crate) fn after(self, seconds: u64) -> Self {
        Self {
            wait: Some(seconds),
            ..self
        }
    }

    pub(crate) fn too_often(wait: Duration) -> Self {
        let seconds = wait.as_secs() + 1;
        let (number, unit) = if seconds < 120 {
            (seconds, "second")
        } else {
            (seconds.div_ceil(60), "minute")
        };
        let plural = if number == 1 { "" } else { "s" };
        Self {
            wait: Some(seconds),
            ..Self::too_many_tries(format!("{number} {unit}{plural}"))
        }
    }
}

impl From<Vec<Refusal>> for Problem {
    fn from(errors: Vec<Refusal>) -> Self {
        Self::refused(errors)
    }
}

impl From<Refusals> for Problem {
    fn from(refusals: Refusals) -> Self {
        Self::refused(refusals.into())
    }
}

impl From<StoreError> for Problem {
    fn from(error: StoreError) -> Self {
        tracing::error!(%error, source = ?std::error::Error::source(&error), "the store failed");
        match error {
            StoreError::Away(_) => Self::away(),
            StoreError::Crossed(_) => Self::busy(),
            StoreError::Refused(_) | StoreError::Tables(_) | StoreError::Document(_) => {
                Self::slip()
            }
        }
    }
}

impl From<ShelfRefused> for Problem {
    fn from(refused: ShelfRefused) -> Self {
        match refused {
            ShelfRefused::NotFound => Self::not_found("thing of that id on the shelf"),
            ShelfRefused::Moved { .. } => Self::recounted(),
            ShelfRefused::NoneLeft { what } => Self::none_left(&what),
            ShelfRefused::UsedSince { what } => Self::used_since(&what),
            ShelfRefused::Counted => Self::counted_already(),
            ShelfRefused::LaidOutAnew => Self::laid_out_anew(),
            ShelfRefused::Store(error) => error.into(),
        }
    }
}

impl From<SettingRefused> for Problem {
    fn from(refused: SettingRefused) -> Self {
        match refused {
            SettingRefused::Stale { current } => Self::stale_setting(current),
            SettingRefused::NotFound => Self::not_found("such thing of the studio’s own"),
            // Handlers look at the house again and repeat the change.
            SettingRefused::HouseMoved => Self::busy(),
            SettingRefused::Store(error) => error.into(),
        }
    }
}

impl From<WriteRefused> for Problem {
    fn from(refused: WriteRefused) -> Self {
        match refused {
            WriteRefused::NotFound => Self::not_found("shipment"),
            WriteRefused::NoState => Self::no_state(),
            WriteRefused::PutAway => Self::put_away(),
            WriteRefused::HouseMoved => Self::busy(),
            WriteRefused::Store(error) => error.into(),
            // Handlers that can be stale answer with the shipment as their view shows it.
            WriteRefused::Stale { .. } => Self::slip(),
        }
    }
}

/// What a browser wants an answer for.
const SEC_FETCH_DEST: HeaderName = HeaderName::from_static("sec-fetch-dest");

/// A problem for whoever opened its address in a browser, as a link to print does.
#[derive(Debug, Clone)]
struct ProblemPage {
    title: &'static str,
    detail: String,
}

impl ProblemPage {
    fn html(&self) -> String {
        let escaped = |text: &str| {
            let text = text.replace('&', "&amp;").replace('<', "&lt;");
            text.replace('>', "&gt;").replace('"', "&quot;")
        };
        let (title, detail) = (escaped(self.title), escaped(&self.detail));
        format!(
            "<!doctype html><html lang=\"en\"><meta charset=\"utf-8\"><meta name=\"viewport\" content=\"width=device-width\">\
             <title>{title}</title><h1>{title}</h1><p>{detail}.</p>\
             <p><a href=\"\">Try again</a></p><p><a href=\"/\">To the bench</a></p></html>"
        )
    }
}

/// Tells people of a problem in a page where they opened its address; programs and pages get the document.
pub(crate) async fn told_to_people(request: Request, next: Next) -> Response {
    let opened = request.headers().get(SEC_FETCH_DEST);
    let opened = opened.is_some_and(|into| into == "document");
    let mut response = next.run(request).await;
    let page = response.extensions_mut().remove::<ProblemPage>();
    let Some(page) = page.filter(|_| opened) else {
        return response;
    };
    let (mut parts, _) = response.into_parts();
    parts.headers.remove(CONTENT_LENGTH);
    let html = HeaderValue::from_static("text/html; charset=utf-8");
    parts.headers.insert(CONTENT_TYPE, html);
    Response::from_parts(parts, Body::from(page.html()))
}

impl IntoResponse for Problem {
    fn into_response(self) -> Response {
        let status = StatusCode::from_u16(self.status).unwrap_or(StatusCode::INTERNAL_SERVER_ERROR);
        let wait = self.wait;
        let page = ProblemPage {
            title: self.title,
            detail: self.detail.clone(),
        };
        let mut response = (status, Json(self)).into_response();
        response.extensions_mut().insert(page);
        response.headers_mut().insert(
            CONTENT_TYPE,
            HeaderValue::from_static("application/problem+json"),
        );
        response
            .headers_mut()
            .insert(CACHE_CONTROL, HeaderValue::from_static("no-store"));
        if let Some(wait) = wait {
            response.headers_mut().insert(RETRY_AFTER, wait.into());
        }
        response
    }
}

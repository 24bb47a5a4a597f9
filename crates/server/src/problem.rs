//! Errors as problem documents (RFC 9457).

use std::time::Duration;

use axum::{
    Json,
    http::{
        HeaderValue, StatusCode,
        header::{CACHE_CONTROL, CONTENT_TYPE, RETRY_AFTER},
    },
    response::{IntoResponse, Response},
};
use hummock_core::Refusal;
use hummock_store::{SettingRefused, ShelfRefused, StoreError, WriteRefused};
use serde::Serialize;
use serde_json::value::{RawValue, to_raw_value};

/// An error, in the form of RFC 9457.
#[derive(Debug, Clone, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct Problem {
    /// What kind of problem it is; stable.
    #[serde(rename = "type")]
    #[cfg_attr(feature = "schema", schema(example = "/problems/refused"))]
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

    pub(crate) fn not_found(what: &str) -> Self {
        let detail = format!("there is no {what} here");
        Self::new(
            StatusCode::NOT_FOUND,
            "/problems/not-found",
            "Not found",
            detail,
        )
    }

    pub(crate) fn unreadable(status: StatusCode, detail: impl Into<String>) -> Self {
        Self::new(
            status,
            "/problems/unreadable",
            "The request can't be read",
            detail,
        )
    }

    pub(crate) fn refused(errors: Vec<Refusal>) -> Self {
        let detail = errors
            .iter()
            .map(|refusal| refusal.message.as_str())
            .collect::<Vec<_>>()
            .join("; ");
        let kind = "/problems/refused";
        Self {
            errors,
            ..Self::new(
                StatusCode::UNPROCESSABLE_ENTITY,
                kind,
                "A value was not taken",
                detail,
            )
        }
    }

    /// With how it stands now, at its version.
    pub(crate) fn stale(based_on: i32, (version, current): (i32, &impl Serialize)) -> Self {
        let detail = format!(
            "the shipment is at version {version}, and the edit was based on version {based_on}: look at what changed and edit again"
        );
        let problem = Self::new(
            StatusCode::CONFLICT,
            "/problems/stale",
            "The shipment changed meanwhile",
            detail,
        );
        Self {
            current: to_raw_value(current).ok(),
            ..problem
        }
    }

    pub(crate) fn put_away() -> Self {
        let detail = "the shipment is put away: take it back to the bench, and change it there";
        Self::new(
            StatusCode::CONFLICT,
            "/problems/put-away",
            "The shipment is put away",
            detail,
        )
    }

    pub(crate) fn booked_already() -> Self {
        let detail = "a booking of it stands already: cancel that first, or go on with it";
        Self::new(
            StatusCode::CONFLICT,
            "/problems/booked-already",
            "It is booked already",
            detail,
        )
    }

    pub(crate) fn not_empty() -> Self {
        let detail = "something is kept here already: a backup is read into a studio that is empty";
        Self::new(
            StatusCode::CONFLICT,
            "/problems/not-empty",
            "The studio is not empty",
            detail,
        )
    }

    pub(crate) fn backup_under_way() -> Self {
        let detail = "a backup is being made or read in: wait until that is done";
        Self::new(
            StatusCode::CONFLICT,
            "/problems/backup-under-way",
            "One at a time",
            detail,
        )
    }

    pub(crate) fn disk_full() -> Self {
        let detail = "the disk takes no more of it: make room on the machine that Hummock runs on, and try again";
        Self::new(
            StatusCode::INSUFFICIENT_STORAGE,
            "/problems/disk-full",
            "There is no room for it",
            detail,
        )
    }

    pub(crate) fn sender_changed() -> Self {
        let detail = "somebody else changed the studio's address meanwhile: look at it as it stands, and change it again";
        Self::new(
            StatusCode::CONFLICT,
            "/problems/sender-changed",
            "The address changed meanwhile",
            detail,
        )
    }

    pub(crate) fn busy() -> Self {
        let detail = "the house is being changed over and over; what was typed is kept in the page and saved a little later";
        Self::new(
            StatusCode::SERVICE_UNAVAILABLE,
            "/problems/busy",
            "Too much at once",
            detail,
        )
    }

    pub(crate) fn signed_out() -> Self {
        let detail = "this device is not signed in: give the studio’s passphrase; what was typed is kept in the page";
        Self::new(
            StatusCode::UNAUTHORIZED,
            "/problems/signed-out",
            "Not signed in",
            detail,
        )
    }

    pub(crate) fn at_the_machine_only() -> Self {
        let detail = "that is done at the machine that Hummock runs on, not from a tablet";
        Self::new(
            StatusCode::FORBIDDEN,
            "/problems/at-the-machine-only",
            "Not from here",
            detail,
        )
    }

    pub(crate) fn too_often(wait: Duration) -> Self {
        let seconds = wait.as_secs() + 1;
        let (number, unit) = if seconds < 120 {
            (seconds, "second")
        } else {
            (seconds.div_ceil(60), "minute")
        };
        let plural = if number == 1 { "" } else { "s" };
        let detail =
            format!("too many wrong passphrases: wait {number} {unit}{plural}, and try again");
        let problem = Self::new(
            StatusCode::TOO_MANY_REQUESTS,
            "/problems/too-often",
            "Wait a little",
            detail,
        );
        Self {
            wait: Some(seconds),
            ..problem
        }
    }

    pub(crate) fn not_this_host() -> Self {
        let detail = "this server does not answer under that name: open it at the address that its start printed, or start it with --allow-host";
        Self::new(
            StatusCode::MISDIRECTED_REQUEST,
            "/problems/not-this-host",
            "Not under that name",
            detail,
        )
    }

    pub(crate) fn not_this_origin() -> Self {
        let detail = "a page of another origin may change nothing here: set HUMMOCK_ORIGIN where this stands behind a proxy";
        Self::new(
            StatusCode::FORBIDDEN,
            "/problems/not-this-origin",
            "Not from there",
            detail,
        )
    }

    pub(crate) fn too_long() -> Self {
        let detail =
            "the answer took too long and was given up; what was typed is still in the page";
        Self::new(
            StatusCode::GATEWAY_TIMEOUT,
            "/problems/too-long",
            "It took too long",
            detail,
        )
    }

    pub(crate) fn no_state() -> Self {
        let detail = "there is nothing further to undo or redo that way";
        Self::new(
            StatusCode::CONFLICT,
            "/problems/no-state",
            "Nothing to undo or redo",
            detail,
        )
    }

    pub(crate) fn stale_setting(current: i32) -> Self {
        let detail = format!(
            "somebody changed them since, and they are at version {current}: look again and repeat the change"
        );
        Self::new(
            StatusCode::CONFLICT,
            "/problems/stale",
            "They changed meanwhile",
            detail,
        )
    }

    pub(crate) fn recounted() -> Self {
        let detail = "it was counted elsewhere meanwhile, or taken for a shipment: see how much there is now, and count once more";
        Self::new(
            StatusCode::CONFLICT,
            "/problems/recounted",
            "The count changed meanwhile",
            detail,
        )
    }

    pub(crate) fn none_left(what: &str) -> Self {
        let detail = format!(
            "the shelf counts no {what} any more: count it again, or lay the parts out anew"
        );
        Self::new(
            StatusCode::CONFLICT,
            "/problems/none-left",
            "There is none left",
            detail,
        )
    }

    pub(crate) fn used_since(what: &str) -> Self {
        let detail = format!("{what} was kept then and has been used since, so it stays as it is");
        Self::new(
            StatusCode::CONFLICT,
            "/problems/used-since",
            "It was used since",
            detail,
        )
    }

    pub(crate) fn counted_already() -> Self {
        let detail = "there is a count of that material and size already: change that one";
        Self::new(
            StatusCode::CONFLICT,
            "/problems/counted-already",
            "It is counted already",
            detail,
        )
    }

    pub(crate) fn no_documents_yet() -> Self {
        let detail = "the program that makes drawings is still being built: try again in a few minutes; the cut list can be printed meanwhile";
        Self::new(
            StatusCode::SERVICE_UNAVAILABLE,
            "/problems/no-documents-yet",
            "Drawings are not ready yet",
            detail,
        )
    }

    pub(crate) fn pictures_away() -> Self {
        Self::new(
            StatusCode::SERVICE_UNAVAILABLE,
            "/problems/photographs-away",
            "Photographs can't be reached",
            "the place where photographs are kept does not answer: they stay in this browser and are sent again",
        )
    }

    pub(crate) fn another_photograph() -> Self {
        Self::new(
            StatusCode::CONFLICT,
            "/problems/another-photograph",
            "That id is taken",
            "another photograph was kept under that id: send this one under an id of its own",
        )
    }

    pub(crate) fn document_failed() -> Self {
        let detail = "the drawing could not be made; nothing else is touched by it";
        Self::new(
            StatusCode::INTERNAL_SERVER_ERROR,
            "/problems/document-failed",
            "The drawing failed",
            detail,
        )
    }

    pub(crate) fn laid_out_anew() -> Self {
        let detail = "the layout was made anew since you looked at it: look again before you cut";
        Self::new(
            StatusCode::CONFLICT,
            "/problems/laid-out-anew",
            "The layout changed meanwhile",
            detail,
        )
    }

    pub(crate) fn begun() -> Self {
        let detail = "some of it is cut already: take that back first, or make a new layout";
        Self::new(
            StatusCode::CONFLICT,
            "/problems/begun",
            "Cutting has begun",
            detail,
        )
    }

    pub(crate) fn in_use(uses: &[String]) -> Self {
        let detail = format!(
            "it is used by {}: retire it, and it is offered no more",
            uses.join(", ")
        );
        Self::new(
            StatusCode::CONFLICT,
            "/problems/in-use",
            "The material is in use",
            detail,
        )
    }

    pub(crate) fn slip() -> Self {
        let detail = "something went wrong inside; what was typed is still in the page";
        Self::new(
            StatusCode::INTERNAL_SERVER_ERROR,
            "/problems/slip",
            "Something went wrong",
            detail,
        )
    }

    fn away() -> Self {
        let detail = "the database can't be reached; what was typed is kept in the page and saved once it is back";
        Self::new(
            StatusCode::SERVICE_UNAVAILABLE,
            "/problems/away",
            "The database is away",
            detail,
        )
    }
}

impl From<Vec<Refusal>> for Problem {
    fn from(errors: Vec<Refusal>) -> Self {
        Self::refused(errors)
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

impl IntoResponse for Problem {
    fn into_response(self) -> Response {
        let status = StatusCode::from_u16(self.status).unwrap_or(StatusCode::INTERNAL_SERVER_ERROR);
        let wait = self.wait;
        let mut response = (status, Json(self)).into_response();
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

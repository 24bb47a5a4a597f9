//! Photographs of a shipment: each arrives once, is looked over by the program that makes documents, and lies in a folder beside
//! the data or in an S3-compatible store.

use std::time::Duration;

use anyhow::Result;
use axum::{
    Json,
    body::Bytes,
    extract::{DefaultBodyLimit, FromRequest, FromRequestParts, Path, Request},
    http::{HeaderMap, HeaderValue, StatusCode, header, request::Parts},
    response::{IntoResponse, Response},
};
use hummock_core::{Refusal, Refusals};
use hummock_store::{Photograph, PictureKey};
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use sha2::{Digest as _, Sha256};
use tokio::sync::{Semaphore, SemaphorePermit};
use uuid::Uuid;

use crate::{
    body::{Asked, ShipmentId},
    desk::Desk,
    pictures::{LARGEST, Pictures},
    problem::Problem,
    routes::{Routes, routes},
};

/// No shipment has more of them.
const MOST: usize = 200;
const LONGEST_STEP: usize = 80;
const JPEG: &str = "image/jpeg";

/// A photograph.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct PhotographView {
    /// The id of the photograph.
    id: Uuid,
    /// The key of the step that it was taken at.
    step: String,
    /// When, as its camera's clock wrote it.
    taken_at: String,
    /// In points, upright.
    width: i32,
    /// In points, upright.
    height: i32,
    /// Of the picture that is kept.
    bytes: i32,
}

impl From<Photograph> for PhotographView {
    fn from(photograph: Photograph) -> Self {
        Self {
            id: photograph.id,
            step: photograph.step,
            taken_at: photograph.taken_at,
            width: photograph.width,
            height: photograph.height,
            bytes: photograph.bytes,
        }
    }
}

/// What is said of a photograph that is sent.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::IntoParams))]
#[cfg_attr(feature = "schema", into_params(parameter_in = Query))]
#[serde(deny_unknown_fields)]
pub(crate) struct TakenQuery {
    /// The key of the step at the bench, as `look/photographs`.
    step: String,
    /// When it was taken, as `2027-03-04T10:15:00Z`.
    taken_at: String,
}

impl TakenQuery {
    fn refused(&self) -> Vec<Refusal> {
        let mut refusals = Refusals::default();
        let plain = self.step.chars().all(|one| one.is_ascii_graphic());
        if !plain || !(1..=LONGEST_STEP).contains(&self.step.len()) {
            refusals.refuse("step", "it doesn't name a step");
        }
        if self.taken_at.parse::<Timestamp>().is_err() {
            let says = format!(
                "\"{}\" is not a time: write it as 2027-03-04T10:15:00Z",
                self.taken_at
            );
            refusals.refuse("taken_at", says);
        }
        refusals.into()
    }
}

/// A photograph in the path.
pub(crate) struct PhotographId(Uuid);

impl<S: Send + Sync> FromRequestParts<S> for PhotographId {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Self, Problem> {
        let found: Result<Path<std::collections::HashMap<String, String>>, _> =
            Path::from_request_parts(parts, state).await;
        found
            .ok()
            .and_then(|Path(path)| path.get("photograph")?.parse().ok())
            .map(Self)
            .ok_or_else(|| Problem::not_found("photograph of that id"))
    }
}

/// A file as it is sent, of so many bytes at most; all of those that are being worked on at once take a bounded room.
pub(crate) struct File<const LIMIT: usize> {
    /// What was sent.
    pub(crate) bytes: Bytes,
    _room: SemaphorePermit<'static>,
}

/// So many parts of 64 kB are in work at once: as much as eight of the largest photographs.
static ROOM: Semaphore = Semaphore::const_new(ROOM_PARTS);
const ROOM_PARTS: usize = 8 * LARGEST / PART;
const PART: usize = 64 << 10;
/// Whoever waits longer for room sends it again.
const LONGEST_WAIT: Duration = Duration::from_secs(6);
const SECONDS_OFF: u64 = 5;

/// Waits for room for a request's body, of which no more is known than its head says.
async fn room(headers: &HeaderMap, limit: usize) -> Result<SemaphorePermit<'static>, Problem> {
    let says = headers.get(header::CONTENT_LENGTH);
    let says = says.and_then(|says| says.to_str().ok()?.parse().ok());
    let bytes = says.unwrap_or(limit).min(limit);
    let parts = u32::try_from(bytes.div_ceil(PART)).unwrap_or(u32::MAX);
    match tokio::time::timeout(LONGEST_WAIT, ROOM.acquire_many(parts)).await {
        Ok(Ok(room)) => Ok(room),
        _ => Err(Problem::much_to_take().after(SECONDS_OFF)),
    }
}

impl<S: Send + Sync, const LIMIT: usize> FromRequest<S> for File<LIMIT> {
    type Rejection = Problem;

    async fn from_request(request: Request, state: &S) -> Result<Self, Problem> {
        let room = room(request.headers(), LIMIT).await?;
        let read = Bytes::from_request(request, state).await;
        let bytes = read.map_err(|rejection| {
            let says = if rejection.status() == StatusCode::PAYLOAD_TOO_LARGE {
                format!("over {} MB: send a smaller one", LIMIT >> 20)
            } else {
                rejection.body_text()
            };
            Problem::unreadable(rejection.status(), says)
        })?;
        Ok(Self { bytes, _room: room })
    }
}

/// What the program that looks photographs over says of one, in the line before it.
#[derive(Debug, Deserialize)]
struct LookedOver {
    width: i32,
    height: i32,
}

/// Keeps a photograph, upright and without what says where it was taken.
///
/// The body is the file as it is: JPEG, PNG or WebP, at most 12 MB and 50 million points. Sent again under its id it is kept once;
/// another file under the same id is a conflict.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "keep_photograph", put, path = "/shipments/{id}/photographs/{photograph}", tag = "photographs",
    params(
        ("id" = Uuid, Path, description = "The shipment"),
        ("photograph" = Uuid, Path, description = "Chosen by whoever took it"),
        TakenQuery,
    ),
    request_body(content = Vec<u8>, content_type = "image/jpeg"),
    responses(
        (status = 200, description = "It is kept", body = PhotographView),
        (status = 404, description = "There is no such shipment", body = Problem),
        (status = 409, description = "Another photograph has that id", body = Problem),
        (status = 413, description = "It is over 12 MB", body = Problem),
        (status = 422, description = "It is no picture, has too many points, or breaks off", body = Problem),
        (status = 503, description = "The program that looks photographs over is still being made, or many are sent at once: send it again", body = Problem),
    ),
))]
async fn keep(
    desk: Desk,
    ShipmentId(shipment): ShipmentId,
    PhotographId(id): PhotographId,
    Asked(taken): Asked<TakenQuery>,
    file: File<LARGEST>,
) -> Result<Json<PhotographView>, Problem> {
    let refused = taken.refused();
    if !refused.is_empty() {
        return Err(refused.into());
    }
    let digest = Sha256::digest(&file.bytes).to_vec();
    if let Some(known) = desk.store.photograph(id).await? {
        return desk.the_same(known, shipment, &digest);
    }
    if desk.store.shipment(shipment).await?.is_none() {
        return Err(Problem::not_found("shipment of that id"));
    }
    if desk.store.photographs(shipment).await?.len() >= MOST {
        let says = format!("it has {MOST} photographs already: delete some first");
        return Err(vec![Refusal::new("file", says)].into());
    }
    let made = desk.app.documents.photograph(&file.bytes).await?;
    let (line, picture) = made
        .iter()
        .position(|byte| *byte == b'\n')
        .map(|at| (&made[..at], &made[at + 1..]))
        .ok_or_else(Problem::document_failed)?;
    let looked: LookedOver =
        serde_json::from_slice(line).map_err(|_| Problem::document_failed())?;
    let bytes = i32::try_from(picture.len()).map_err(|_| Problem::document_failed())?;
    let kept = Bytes::copy_from_slice(picture);
    let key = Pictures::key_of(id, picture);
    desk.app.pictures.keep(desk.studio(), &key, kept).await?;
    let photograph = Photograph {
        id,
        shipment,
        step: taken.step,
        taken_at: taken.taken_at,
        width: looked.width,
        height: looked.height,
        bytes,
        digest: digest.clone(),
        picture: key.clone(),
    };
    desk.store.keep_photograph(&photograph).await?;
    // Two that were sent at once: whichever was written down stands.
    let known = desk.store.photograph(id).await?.unwrap_or(photograph);
    if known.picture != key {
        desk.app.pictures.forget(desk.studio(), &key).await;
    }
    desk.the_same(known, shipment, &digest)
}

impl Desk {
    /// Returns a picture as it is kept.
    pub(crate) async fn picture(&self, key: &PictureKey) -> Result<Bytes, Problem> {
        let found = self.app.pictures.read(self.studio(), key).await?;
        found.ok_or_else(Problem::pictures_away)
    }

    fn the_same(
        &self,
        known: Photograph,
        shipment: Uuid,
        digest: &[u8],
    ) -> Result<Json<PhotographView>, Problem> {
        if known.shipment == shipment && known.digest == digest {
            Ok(Json(known.into()))
        } else {
            Err(Problem::another_photograph())
        }
    }

    async fn photograph_of(&self, shipment: Uuid, id: Uuid) -> Result<Photograph, Problem> {
        let known = self.store.photograph(id).await?;
        known
            .filter(|known| known.shipment == shipment)
            .ok_or_else(|| Problem::not_found("photograph of that id"))
    }
}

/// Lists the photographs of a shipment, in the order in which they were taken.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "list_photographs", get, path = "/shipments/{id}/photographs", tag = "photographs",
    params(("id" = Uuid, Path, description = "The shipment")),
    responses((status = 200, description = "None for a shipment that is not there either", body = [PhotographView])),
))]
async fn list(
    desk: Desk,
    ShipmentId(shipment): ShipmentId,
) -> Result<Json<Vec<PhotographView>>, Problem> {
    let kept = desk.store.photographs(shipment).await?;
    Ok(Json(kept.into_iter().map(Into::into).collect()))
}

/// Returns a photograph as it is kept.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "read_photograph", get, path = "/shipments/{id}/photographs/{photograph}", tag = "photographs",
    params(
        ("id" = Uuid, Path, description = "The shipment"),
        ("photograph" = Uuid, Path, description = "Which"),
    ),
    responses(
        (status = 200, description = "The picture", body = Vec<u8>, content_type = "image/jpeg"),
        (status = 404, description = "There is no such photograph", body = Problem),
    ),
))]
async fn read(
    desk: Desk,
    ShipmentId(shipment): ShipmentId,
    PhotographId(id): PhotographId,
) -> Result<Response, Problem> {
    let photograph = desk.photograph_of(shipment, id).await?;
    let picture = desk.picture(&photograph.picture).await?;
    // Nothing of it stays in a browser's cache, as with all else that names people.
    let headers = [(header::CONTENT_TYPE, HeaderValue::from_static(JPEG))];
    Ok((headers, picture).into_response())
}

/// Takes a photograph away.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "drop_photograph", delete, path = "/shipments/{id}/photographs/{photograph}", tag = "photographs",
    params(
        ("id" = Uuid, Path, description = "The shipment"),
        ("photograph" = Uuid, Path, description = "Which"),
    ),
    responses(
        (status = 204, description = "It is gone"),
        (status = 404, description = "There is no such photograph", body = Problem),
    ),
))]
async fn drop_one(
    desk: Desk,
    ShipmentId(shipment): ShipmentId,
    PhotographId(id): PhotographId,
) -> Result<StatusCode, Problem> {
    let photograph = desk.photograph_of(shipment, id).await?;
    desk.store.drop_photograph(id).await?;
    let pictures = &desk.app.pictures;
    pictures.forget(desk.studio(), &photograph.picture).await;
    Ok(StatusCode::NO_CONTENT)
}

pub(crate) fn routes() -> Routes {
    routes![
        put "/shipments/{id}/photographs/{photograph}" => keep,
    ]
    .limited(DefaultBodyLimit::max(LARGEST))
    .merge(routes![
        get "/shipments/{id}/photographs" => list,
        get "/shipments/{id}/photographs/{photograph}" => read,
        delete "/shipments/{id}/photographs/{photograph}" => drop_one,
    ])
}

//! The lines of a drawing that somebody made elsewhere.

use axum::Json;
use serde::{Deserialize, Serialize};
use serde_json::json;

use crate::{body::Body, desk::Desk, problem::Problem};

/// A DXF file to read.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct DxfRequest {
    /// The file.
    pub(super) dxf: String,
}

/// The lines of a DXF file.
#[derive(Debug, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct DxfRead {
    /// Each with its layer, in the file's own unit.
    pub(super) lines: Vec<DxfLine>,
    /// What was not read, and why.
    pub(super) unread: Vec<DxfUnread>,
}

/// A straight line of a DXF file.
#[derive(Debug, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct DxfLine {
    /// Its layer.
    pub(super) layer: String,
    /// One end.
    pub(super) from: [f64; 2],
    /// The other.
    pub(super) to: [f64; 2],
}

/// Something in a DXF file that is not read.
#[derive(Debug, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct DxfUnread {
    /// Counted from 1, in the order of the file.
    pub(super) entity: usize,
    /// Its layer.
    pub(super) layer: String,
    /// The reason, in words.
    pub(super) says: String,
}

/// Reads the lines of a DXF file; nothing is stored. Lay them out with `POST /cuttings`, the outline and the scores apart.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "read_dxf", post, path = "/documents/dxf", tag = "documents", request_body = DxfRequest,
    responses(
        (status = 200, description = "Its lines, layer by layer", body = DxfRead),
        (status = 422, description = "It is no DXF file", body = Problem),
        (status = 503, description = "The program that reads it is not there yet", body = Problem),
    ),
))]
pub(crate) async fn read_dxf(
    desk: Desk,
    Body(request): Body<DxfRequest>,
) -> Result<Json<DxfRead>, Problem> {
    let asked = json!({ "make": "read_dxf", "text": request.dxf });
    let answer = desk
        .app
        .documents
        .make(desk.studio(), &asked, "dxf")
        .await?;
    serde_json::from_slice(&answer).map(Json).map_err(|error| {
        tracing::error!(%error, "the lines of a file can't be read");
        Problem::document_failed()
    })
}

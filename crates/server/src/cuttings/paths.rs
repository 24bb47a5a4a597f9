//! Which layout, and which of its sheets, as a path names them.

use axum::extract::Path;
use uuid::Uuid;

use crate::{body::id_in, problem::Problem};

/// The id in the path; one that is none is not found.
pub(crate) struct CuttingId(pub(crate) Uuid);

impl<S: Send + Sync> axum::extract::FromRequestParts<S> for CuttingId {
    type Rejection = Problem;

    async fn from_request_parts(
        parts: &mut axum::http::request::Parts,
        state: &S,
    ) -> Result<Self, Problem> {
        id_in(parts, state, "layout of that id").await.map(Self)
    }
}

/// A sheet of a layout; one that is none is not found.
pub(crate) struct SheetPath {
    pub(super) cutting: Uuid,
    pub(super) n: usize,
}

impl<S: Send + Sync> axum::extract::FromRequestParts<S> for SheetPath {
    type Rejection = Problem;

    async fn from_request_parts(
        parts: &mut axum::http::request::Parts,
        state: &S,
    ) -> Result<Self, Problem> {
        let found: Result<Path<(Uuid, usize)>, _> = Path::from_request_parts(parts, state).await;
        found
            .map(|Path((cutting, n))| Self { cutting, n })
            .map_err(|_| Problem::not_found("sheet of that number in the layout"))
    }
}

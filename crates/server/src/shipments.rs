//! Shipments: the bench, one shipment, edits, undo and redo.

use axum::{Json, extract::State, http::StatusCode};
use hummock_core::{
    quantity::LengthUnit,
    shipment::{ShipmentInputs, Summary, WorkLine, Worked},
};
use hummock_store::{Listed, Move, NewShipment, Stored, WriteRefused};
use serde::{Deserialize, Serialize};
use serde_json::{Map, Value};
use utoipa::ToSchema;
use uuid::Uuid;

use crate::{
    app::{App, Kept},
    body::{Body, ShipmentId, refusal_at},
    problem::Problem,
};

/// A shipment with everything that was worked out for it.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct ShipmentView {
    /// Which.
    id: Uuid,
    /// Counts up with every edit, undo and redo; send it back with the next edit.
    pub(crate) version: i32,
    /// What was typed.
    inputs: ShipmentInputs,
    /// Plan and quotes, as computed when the inputs last changed.
    #[schema(value_type = Worked)]
    worked: Value,
    /// The figures of the bench, once there is a plan.
    summary: Option<Summary>,
    /// Where it stands today.
    line: WorkLine,
    /// Whether there is an edit to take back.
    can_undo: bool,
    /// Whether there is one to make again.
    can_redo: bool,
}

/// A shipment on the bench.
#[derive(Debug, Serialize, ToSchema)]
pub(crate) struct BenchRow {
    /// Which.
    id: Uuid,
    /// What was typed.
    inputs: ShipmentInputs,
    /// The figures, once there is a plan.
    summary: Option<Summary>,
    /// Where it stands today.
    line: WorkLine,
}

/// A shipment to make.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct NewRequest {
    /// Chosen by the caller, so that asking twice makes one; made here when absent.
    #[serde(default)]
    id: Option<Uuid>,
    /// What was typed.
    #[serde(default)]
    inputs: ShipmentInputs,
    /// What a bare number is in.
    #[serde(default)]
    unit: LengthUnit,
}

/// An edit of a shipment.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct EditRequest {
    /// The version that it is based on.
    version: i32,
    /// What changes, as a JSON merge patch (RFC 7396) on the inputs: `null` takes a value away.
    #[schema(value_type = Object, example = json!({ "choices": { "first_turns": 2 } }))]
    change: Map<String, Value>,
    /// What a bare number is in.
    #[serde(default)]
    unit: LengthUnit,
}

/// A move through the history of a shipment.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct MoveRequest {
    /// The version that it is based on.
    version: i32,
}

impl App {
    fn view(&self, stored: Stored) -> ShipmentView {
        let line = WorkLine::on(
            self.clock.today(),
            &stored.inputs,
            stored.computed.summary.as_ref(),
        );
        ShipmentView {
            id: stored.id,
            version: stored.version,
            inputs: stored.inputs,
            worked: stored.computed.worked,
            summary: stored.computed.summary,
            line,
            can_undo: stored.can_undo,
            can_redo: stored.can_redo,
        }
    }

    fn row(&self, listed: Listed) -> BenchRow {
        let line = WorkLine::on(self.clock.today(), &listed.inputs, listed.summary.as_ref());
        BenchRow {
            id: listed.id,
            inputs: listed.inputs,
            summary: listed.summary,
            line,
        }
    }

    async fn stored(&self, id: Uuid) -> Result<Stored, Problem> {
        self.store
            .shipment(self.studio, id)
            .await?
            .ok_or_else(|| Problem::not_found("shipment of that id"))
    }

    /// Maps what the store said to a write, a stale one with the shipment as it stands.
    fn written(&self, result: Result<Stored, WriteRefused>) -> Result<Json<ShipmentView>, Problem> {
        match result {
            Ok(stored) => Ok(Json(self.view(stored))),
            Err(WriteRefused::Stale { based_on, current }) => {
                Err(Problem::stale(based_on, self.view(*current)))
            }
            Err(refused) => Err(refused.into()),
        }
    }

    async fn step(
        &self,
        id: Uuid,
        based_on: i32,
        towards: Move,
    ) -> Result<Json<ShipmentView>, Problem> {
        let stored = self.stored(id).await?;
        if stored.version != based_on {
            return Err(Problem::stale(based_on, self.view(stored)));
        }
        let inputs = self.store.inputs_after(self.studio, id, towards).await?;
        let outcome = self.outcome(inputs, LengthUnit::Mm, Kept::Asked).await?;
        let moved = self
            .store
            .step(
                self.studio,
                id,
                based_on,
                towards,
                &outcome.inputs,
                &outcome.computed(),
            )
            .await;
        self.written(moved)
    }
}

/// Returns the shipments on the bench, the one promised first before the others.
#[utoipa::path(
    operation_id = "list_shipments", get, path = "/shipments", tag = "shipments",
    responses((status = 200, description = "Every shipment", body = [BenchRow])),
)]
pub(crate) async fn list(State(app): State<App>) -> Result<Json<Vec<BenchRow>>, Problem> {
    let listed = app.store.shipments(app.studio).await?;
    Ok(Json(
        listed.into_iter().map(|listed| app.row(listed)).collect(),
    ))
}

/// Makes a shipment; asking again with the same id returns the one that is there.
#[utoipa::path(
    operation_id = "create_shipment", post, path = "/shipments", tag = "shipments", request_body = NewRequest,
    responses(
        (status = 201, description = "The shipment", body = ShipmentView),
        (status = 422, description = "Values that can't stand, each with its field", body = Problem),
    ),
)]
pub(crate) async fn create(
    State(app): State<App>,
    Body(request): Body<NewRequest>,
) -> Result<(StatusCode, Json<ShipmentView>), Problem> {
    let outcome = app
        .outcome(request.inputs, request.unit, Kept::Since(None))
        .await?;
    let computed = outcome.computed();
    let new = NewShipment {
        id: request.id.unwrap_or_else(Uuid::now_v7),
        inputs: outcome.inputs,
        computed,
    };
    let view = app.written(app.store.create(app.studio, &new).await)?;
    Ok((StatusCode::CREATED, view))
}

/// Returns one shipment.
#[utoipa::path(
    operation_id = "show_shipment", get, path = "/shipments/{id}", tag = "shipments", params(("id" = Uuid, Path, description = "Which")),
    responses(
        (status = 200, description = "The shipment", body = ShipmentView),
        (status = 404, description = "There is none of that id", body = Problem),
    ),
)]
pub(crate) async fn show(
    State(app): State<App>,
    ShipmentId(id): ShipmentId,
) -> Result<Json<ShipmentView>, Problem> {
    Ok(Json(app.view(app.stored(id).await?)))
}

/// Changes a shipment and works it out again.
#[utoipa::path(
    operation_id = "edit_shipment", patch, path = "/shipments/{id}", tag = "shipments", request_body = EditRequest,
    params(("id" = Uuid, Path, description = "Which")),
    responses(
        (status = 200, description = "The shipment as it stands now", body = ShipmentView),
        (status = 404, description = "There is none of that id", body = Problem),
        (status = 409, description = "It changed since; `current` is how it stands", body = Problem),
        (status = 422, description = "Values that can't stand, each with its field", body = Problem),
    ),
)]
pub(crate) async fn edit(
    State(app): State<App>,
    ShipmentId(id): ShipmentId,
    Body(request): Body<EditRequest>,
) -> Result<Json<ShipmentView>, Problem> {
    let stored = app.stored(id).await?;
    if stored.version != request.version {
        return Err(Problem::stale(request.version, app.view(stored)));
    }
    let changed = merged(&stored.inputs, request.change)?;
    let outcome = app
        .outcome(changed, request.unit, Kept::Since(Some(&stored.inputs)))
        .await?;
    if outcome.inputs == stored.inputs {
        return Ok(Json(app.view(stored)));
    }
    let computed = outcome.computed();
    app.written(
        app.store
            .edit(app.studio, id, request.version, &outcome.inputs, &computed)
            .await,
    )
}

/// Takes back the last edit.
#[utoipa::path(
    operation_id = "undo_shipment", post, path = "/shipments/{id}/undo", tag = "shipments", request_body = MoveRequest,
    params(("id" = Uuid, Path, description = "Which")),
    responses(
        (status = 200, description = "The shipment as it was before", body = ShipmentView),
        (status = 409, description = "It changed since, or there is nothing to undo", body = Problem),
    ),
)]
pub(crate) async fn undo(
    State(app): State<App>,
    ShipmentId(id): ShipmentId,
    Body(request): Body<MoveRequest>,
) -> Result<Json<ShipmentView>, Problem> {
    app.step(id, request.version, Move::Undo).await
}

/// Makes again the edit that was taken back.
#[utoipa::path(
    operation_id = "redo_shipment", post, path = "/shipments/{id}/redo", tag = "shipments", request_body = MoveRequest,
    params(("id" = Uuid, Path, description = "Which")),
    responses(
        (status = 200, description = "The shipment as it was after", body = ShipmentView),
        (status = 409, description = "It changed since, or there is nothing to redo", body = Problem),
    ),
)]
pub(crate) async fn redo(
    State(app): State<App>,
    ShipmentId(id): ShipmentId,
    Body(request): Body<MoveRequest>,
) -> Result<Json<ShipmentView>, Problem> {
    app.step(id, request.version, Move::Redo).await
}

fn merged(inputs: &ShipmentInputs, change: Map<String, Value>) -> Result<ShipmentInputs, Problem> {
    let mut document = serde_json::to_value(inputs).expect("inputs can be written");
    json_patch::merge(&mut document, &Value::Object(change));
    serde_path_to_error::deserialize(document).map_err(|error| {
        Problem::refused(vec![refusal_at(&error.path().to_string(), error.inner())])
    })
}

//! Shipments: the bench, one shipment, edits, undo and redo.

mod in_the_way;
mod lacking;
mod left;
mod views;

pub(crate) use views::{
    BenchPage, BenchRow, EditRequest, ListQuery, MoveRequest, NewRequest, PlaceRequest, RowPart,
    ShipmentView,
};
#[cfg(feature = "schema")]
pub(crate) use views::{PlaceName, SortName};

use axum::{Json, http::StatusCode};
use hummock_core::{
    Refusal, json,
    quantity::LengthUnit,
    shipment::{Matter, ShipmentInputs, WorkLine, Workings, clashing},
    text::refused_text,
};
use hummock_store::{
    Edit, LeftEdit, Listed, Move, NewShipment, Place, Stored, Wanted, WriteRefused,
};
use serde_json::{Map, Value};
use uuid::Uuid;

use crate::{
    body::{Asked, Body, ShipmentId, refusal_for},
    desk::{Desk, Follows, computed},
    left::LeftView,
    problem::Problem,
};

pub(crate) use in_the_way::{Known, gaps_between};
pub(crate) use lacking::Lacks;
use left::{handed_over, may_leave};
use views::Figures;

const LARGEST_PAGE: u32 = 200;

/// An edit that was based on an older version, with the shipment as it stands.
pub(crate) fn stale(based_on: i32, now: &ShipmentView) -> Problem {
    Problem::stale(based_on, (now.version, now))
}

/// Returns what somebody typed that it is followed by.
fn typed_tracking(inputs: &ShipmentInputs) -> Option<String> {
    let number = inputs.sending.tracking.trim();
    (!number.is_empty()).then(|| number.to_owned())
}

impl Desk {
    pub(crate) async fn view(&self, stored: Stored) -> Result<ShipmentView, Problem> {
        let (stored, found) = self.as_it_left(stored).await?;
        let left = found.map(|found| LeftView::of(&found, &stored.computed.worked));
        let against = self.against(&stored).await?;
        let line = WorkLine::on(
            self.clock.today(),
            &stored.inputs,
            stored.computed.summary.as_ref(),
        );
        let typed = typed_tracking(&stored.inputs);
        Ok(ShipmentView {
            id: stored.id,
            version: stored.version,
            inputs: stored.inputs,
            worked: stored.computed.worked,
            summary: Figures::of(stored.computed.summary, stored.summary_then),
            line,
            against,
            can_undo: stored.can_undo,
            can_redo: stored.can_redo,
            place: stored.place,
            tracking: stored.tracking.or(typed),
            handed: stored.handed,
            left,
        })
    }

    fn row(&self, listed: Listed, against: Vec<Matter>) -> BenchRow {
        let line = WorkLine::on(self.clock.today(), &listed.inputs, listed.summary.as_ref());
        let typed = typed_tracking(&listed.inputs);
        BenchRow {
            tracking: listed.tracking.or(typed),
            id: listed.id,
            order_number: listed.inputs.order_number().to_owned(),
            inputs: listed.inputs,
            summary: Figures::of(listed.summary, listed.summary_then),
            line,
            against,
            lacks: Vec::new(),
        }
    }

    /// Maps what the store said to a write: nothing when the house changed meanwhile, and one that is stale with the
    /// shipment as it stands.
    async fn written(
        &self,
        result: Result<Stored, WriteRefused>,
    ) -> Result<Option<Json<ShipmentView>>, Problem> {
        match result {
            Ok(stored) => Ok(Some(Json(self.view(stored).await?))),
            Err(WriteRefused::HouseMoved) => Ok(None),
            Err(WriteRefused::Stale { based_on, current }) => {
                Err(stale(based_on, &self.view(*current).await?))
            }
            Err(refused) => Err(refused.into()),
        }
    }

    /// Returns the shipment that a change is made of; as it is shown where that change was made already.
    async fn basis(
        &self,
        id: Uuid,
        edit: Option<Uuid>,
    ) -> Result<Result<Stored, Json<ShipmentView>>, Problem> {
        let stored = self.stored(id).await?;
        if let Some(edit) = edit
            && self.store.was_made(id, edit).await?
        {
            return Ok(Err(Json(self.view(stored).await?)));
        }
        if matches!(stored.place, Place::Bench | Place::Sent) {
            Ok(Ok(stored))
        } else {
            Err(Problem::put_away())
        }
    }

    /// Makes a shipment, or returns the one that is there where the same change made it.
    pub(crate) async fn made(
        &self,
        id: Uuid,
        edit: Option<Uuid>,
        inputs: &ShipmentInputs,
        unit: LengthUnit,
    ) -> Result<Json<ShipmentView>, Problem> {
        let mut tries = self.tries();
        loop {
            let house = tries.next().await?;
            let outcome = self.outcome(house, inputs.clone(), unit, Follows::Nothing)?;
            let new = NewShipment {
                id,
                edit,
                handed: handed_over(&outcome.inputs, &outcome.house)?,
                computed: outcome.computed(),
                inputs: outcome.inputs,
            };
            let made = self.store.create(&new).await;
            if let Err(WriteRefused::Stale { based_on, .. }) = made {
                return Err(stale(based_on, &self.view(self.stored(id).await?).await?));
            }
            if let Some(view) = self.written(made).await? {
                return Ok(view);
            }
        }
    }

    /// Writes down what is typed of a parcel that has left; the shipment as it stands where somebody else wrote first.
    async fn noted(
        &self,
        stored: &Stored,
        changed: ShipmentInputs,
        (edit, unit): (Option<Uuid>, LengthUnit),
    ) -> Result<Written, Problem> {
        let today = self.clock.today();
        let bare = self.house().await?.house.rules.bare(unit);
        let inputs = changed.checked_since(&stored.inputs, bare, today)?;
        let refused = inputs.changed_after_leaving(&stored.inputs);
        if !refused.is_empty() {
            return Err(refused.into());
        }
        if inputs == stored.inputs {
            return Ok(Ok(Json(self.view(stored.clone()).await?)));
        }
        let edit = LeftEdit {
            shipment: stored.id,
            based_on: stored.version,
            id: edit,
            inputs: &inputs,
        };
        match self.store.edit_left(edit).await {
            Err(WriteRefused::Stale { current, .. }) => Ok(Err(current)),
            // The house is not asked.
            edited => self
                .written(edited)
                .await?
                .map(Ok)
                .ok_or_else(Problem::busy),
        }
    }

    /// Writes a shipment anew with its plan, and takes off the shelf what it wants from then on; the shipment as it stands where
    /// somebody else wrote first.
    pub(crate) async fn rewritten(
        &self,
        stored: &Stored,
        changed: &ShipmentInputs,
        (edit, unit): (Option<Uuid>, LengthUnit),
    ) -> Result<Written, Problem> {
        let mut tries = self.tries();
        let history = self.history_of(stored).await?;
        loop {
            let house = tries.next().await?;
            let follows = Follows::Stored(&stored.inputs);
            let outcome = self.outcome(house, changed.clone(), unit, follows)?;
            if outcome.inputs == stored.inputs {
                return Ok(Ok(Json(self.view(stored.clone()).await?)));
            }
            let computed = outcome.computed();
            may_leave(
                &stored.inputs,
                (&outcome.inputs, computed.summary.as_ref()),
                (self.clock.today(), outcome.house.house.rules.told_in),
            )?;
            let handed = handed_over(&outcome.inputs, &outcome.house)?;
            let moved = (&stored.inputs, &outcome.inputs);
            let draws = self.draws_between(moved, &outcome.house).await?;
            let edit = Edit {
                shipment: stored.id,
                based_on: stored.version,
                id: edit,
                inputs: &outcome.inputs,
                computed: &computed,
                handed: handed.as_ref(),
                history: history.as_deref(),
                draws: draws.as_deref(),
            };
            match self.store.edit(edit).await {
                Err(WriteRefused::Stale { current, .. }) => return Ok(Err(current)),
                edited => {
                    if let Some(view) = self.written(edited).await? {
                        return Ok(Ok(view));
                    }
                }
            }
        }
    }

    async fn step(
        &self,
        id: Uuid,
        request: &MoveRequest,
        towards: Move,
    ) -> Result<Json<ShipmentView>, Problem> {
        let stored = match self.basis(id, request.edit).await? {
            Ok(stored) => stored,
            Err(made) => return Ok(made),
        };
        // An undo is of what its own window saw.
        if stored.version != request.version {
            return Err(stale(request.version, &self.view(stored).await?));
        }
        let inputs = self.store.inputs_after(id, towards).await?;
        let mut tries = self.tries();
        loop {
            let house = tries.next().await?;
            if let Some(money) = inputs.currency {
                let says = format!(
                    "this version has amounts in {}, and the studio has changed its currency: it can't be restored",
                    money.code()
                );
                return Err(vec![Refusal::new("currency", says)].into());
            }
            let handed = handed_over(&inputs, &house)?;
            // What stood there once can always stand there again, with a plan or without.
            let worked = Workings::out_or_refused(&inputs, &house.house);
            let draws = self
                .draws_between((&stored.inputs, &inputs), &house)
                .await?;
            let edit = Edit {
                shipment: id,
                based_on: request.version,
                id: request.edit,
                inputs: &inputs,
                computed: &computed(&worked, &inputs, &house),
                handed: handed.as_ref(),
                history: None,
                draws: draws.as_deref(),
            };
            let moved = self.store.step(towards, edit).await;
            if let Some(view) = self.written(moved).await? {
                return Ok(view);
            }
        }
    }
}

/// Returns shipments a page at a time: searched, sorted, from the bench or from where they were put away.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "list_shipments", get, path = "/shipments", tag = "shipments", params(ListQuery),
    responses(
        (status = 200, description = "A page", body = BenchPage),
        (status = 422, description = "Values that were refused, each with its field", body = Problem),
    ),
))]
pub(crate) async fn list(
    desk: Desk,
    Asked(query): Asked<ListQuery>,
) -> Result<Json<BenchPage>, Problem> {
    if !(1..=LARGEST_PAGE).contains(&query.most) {
        let says = format!(
            "{} is out of range: a page has 1 to {LARGEST_PAGE} rows",
            query.most
        );
        return Err(vec![Refusal::new("most", says)].into());
    }
    refused_text("search", &query.search).map_or(Ok(()), |refusal| Err(vec![refusal]))?;
    let wanted = Wanted {
        place: query.place,
        search: query.search,
        sort: query.sort,
        after: query.after,
        most: query.most,
        without_section: query.without.contains(&RowPart::Section),
    };
    let (page, rows) = if query.place == Place::Bench {
        // Neither needs the other.
        let (page, shelf) = tokio::join!(desk.page(&wanted), desk.shelf_now());
        let mut page = page?;
        let listed = std::mem::take(&mut page.rows);
        (page, desk.bench_rows(listed, shelf?).await?)
    } else {
        let mut page = desk.page(&wanted).await?;
        let listed = std::mem::take(&mut page.rows);
        let rows = listed.into_iter().map(|one| desk.row(one, Vec::new()));
        (page, rows.collect())
    };
    Ok(Json(BenchPage {
        rows,
        total: page.total,
        next: page.next,
    }))
}

/// Makes a shipment; asking again with the same id returns the one that is there.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "create_shipment", post, path = "/shipments", tag = "shipments", request_body = NewRequest,
    responses(
        (status = 201, description = "The shipment", body = ShipmentView),
        (status = 409, description = "It was made already by another change; `current` is how it stands", body = Problem),
        (status = 422, description = "Values that were refused, each with its field", body = Problem),
    ),
))]
pub(crate) async fn create(
    desk: Desk,
    Body(request): Body<NewRequest>,
) -> Result<(StatusCode, Json<ShipmentView>), Problem> {
    let id = request.id.unwrap_or_else(Uuid::now_v7);
    let view = desk
        .made(id, request.edit, &request.inputs, request.unit)
        .await?;
    Ok((StatusCode::CREATED, view))
}

/// Returns one shipment.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "show_shipment", get, path = "/shipments/{id}", tag = "shipments", params(("id" = Uuid, Path, description = "Which")),
    responses(
        (status = 200, description = "The shipment", body = ShipmentView),
        (status = 404, description = "There is none of that id", body = Problem),
    ),
))]
pub(crate) async fn show(
    desk: Desk,
    ShipmentId(id): ShipmentId,
) -> Result<Json<ShipmentView>, Problem> {
    Ok(Json(desk.view(desk.stored(id).await?).await?))
}

/// Changes a shipment and works it out again.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "edit_shipment", patch, path = "/shipments/{id}", tag = "shipments", request_body = EditRequest,
    params(("id" = Uuid, Path, description = "Which")),
    responses(
        (status = 200, description = "The shipment as it stands now", body = ShipmentView),
        (status = 404, description = "There is none of that id", body = Problem),
        (status = 409, description = "It changed since; `current` is how it stands", body = Problem),
        (status = 422, description = "Values that were refused, each with its field", body = Problem),
    ),
))]
pub(crate) async fn edit(
    desk: Desk,
    ShipmentId(id): ShipmentId,
    Body(request): Body<EditRequest>,
) -> Result<Json<ShipmentView>, Problem> {
    let mut left = TRIES;
    loop {
        left -= 1;
        let stored = match desk.basis(id, request.edit).await? {
            Ok(stored) => stored,
            Err(made) => return Ok(made),
        };
        let changed = merged(&stored.inputs, request.laid_on(&stored, &desk).await?)?;
        let edit = (request.edit, request.unit);
        let written = if stored.place == Place::Sent && changed.handed_over().is_some() {
            desk.noted(&stored, changed, edit).await?
        } else {
            desk.rewritten(&stored, &changed, edit).await?
        };
        match written {
            Ok(view) => return Ok(view),
            // Somebody was faster by a moment: what they wrote is looked at, too.
            Err(_) if left > 0 => {}
            Err(now) => return Err(stale(request.version, &desk.view(*now).await?)),
        }
    }
}

/// So often an edit is laid on what others wrote in the same moment.
const TRIES: u32 = 8;

/// Puts a shipment on the bench, in the archive or in the bin; asking twice is as good as once.
///
/// One that is put away can't be edited, and keeps the plan that it had; back on the bench it follows the house again.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "place_shipment", put, path = "/shipments/{id}/place", tag = "shipments", request_body = PlaceRequest,
    params(("id" = Uuid, Path, description = "Which")),
    responses(
        (status = 200, description = "The shipment as it stands now", body = ShipmentView),
        (status = 404, description = "There is none of that id", body = Problem),
    ),
))]
pub(crate) async fn place(
    desk: Desk,
    ShipmentId(id): ShipmentId,
    Body(request): Body<PlaceRequest>,
) -> Result<Json<ShipmentView>, Problem> {
    desk.store.put(id, request.place).await?;
    Ok(Json(desk.view(desk.stored(id).await?).await?))
}

/// Takes back the last edit.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "undo_shipment", post, path = "/shipments/{id}/undo", tag = "shipments", request_body = MoveRequest,
    params(("id" = Uuid, Path, description = "Which")),
    responses(
        (status = 200, description = "The shipment as it was before", body = ShipmentView),
        (status = 409, description = "It changed since, or there is nothing to undo", body = Problem),
    ),
))]
pub(crate) async fn undo(
    desk: Desk,
    ShipmentId(id): ShipmentId,
    Body(request): Body<MoveRequest>,
) -> Result<Json<ShipmentView>, Problem> {
    desk.step(id, &request, Move::Undo).await
}

/// Makes again the edit that was taken back.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "redo_shipment", post, path = "/shipments/{id}/redo", tag = "shipments", request_body = MoveRequest,
    params(("id" = Uuid, Path, description = "Which")),
    responses(
        (status = 200, description = "The shipment as it was after", body = ShipmentView),
        (status = 409, description = "It changed since, or there is nothing to redo", body = Problem),
    ),
))]
pub(crate) async fn redo(
    desk: Desk,
    ShipmentId(id): ShipmentId,
    Body(request): Body<MoveRequest>,
) -> Result<Json<ShipmentView>, Problem> {
    desk.step(id, &request, Move::Redo).await
}

impl EditRequest {
    /// Returns what it changes of a shipment as it stands: both edits stand where this one was based on an older version and they touch
    /// different fields or different ticks.
    ///
    /// # Errors
    /// A [`Problem`] with the shipment as it stands, where one field has two values, or where it is not known any more what was
    /// changed since.
    async fn laid_on(&self, stored: &Stored, desk: &Desk) -> Result<Map<String, Value>, Problem> {
        let mut change = self.change.clone();
        ShipmentInputs::one_number_in(&mut change);
        if stored.version == self.version {
            return Ok(change);
        }
        let now = serde_json::to_value(&stored.inputs).expect("inputs can be written");
        let since = stored.changed_since(self.version);
        if since.is_some_and(|since| clashing(&now, &mut change, &since).is_empty()) {
            Ok(change)
        } else {
            let stands = desk.view(stored.clone()).await?;
            Err(stale(self.version, &stands))
        }
    }
}

/// What came of an edit: the shipment as it is shown, or as it stands where somebody else wrote first.
type Written = Result<Json<ShipmentView>, Box<Stored>>;

fn merged(inputs: &ShipmentInputs, change: Map<String, Value>) -> Result<ShipmentInputs, Problem> {
    let mut document = serde_json::to_value(inputs).expect("inputs can be written");
    json_patch::merge(&mut document, &Value::Object(change));
    json::read(document).map_err(|misfit| Problem::refused(vec![refusal_for(&misfit)]))
}

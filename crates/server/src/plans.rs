//! Working out a plan without storing anything.

use axum::{Json, http::header::CONTENT_TYPE, response::IntoResponse};
use hummock_core::{
    Refusal,
    freight::{Dearer, dearer},
    pack::PackView,
    plan::Detail,
    quantity::LengthUnit,
    shipment::{
        Arrival, Charge, House, Preview, RoughQuote, ShipmentInputs, Workings, arrivals, charge,
        packing as packing_of, rough_quote,
    },
    space::LayerSlot,
    ways::{self, Alternative, Changes, InTwo, ServiceLadder},
};
use serde::{Deserialize, Serialize};

use crate::{
    body::{Asked, Body, listed},
    desk::{Desk, Follows},
    problem::Problem,
    rework::beside,
};

/// Inputs to work out.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct PreviewRequest {
    /// What was typed; a `piece` with size, construction and medium is enough for a plan, and a
    /// `buyer.country` for prices.
    pub(crate) inputs: ShipmentInputs,
    /// What a bare number is in.
    #[serde(default)]
    pub(crate) unit: LengthUnit,
    /// The shipment that these are inputs of, where there is one: a preview then knows whether its materials were taken already.
    #[serde(default)]
    pub(crate) shipment: Option<uuid::Uuid>,
}

/// Inputs to find other ways for.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct ChangesRequest {
    /// What was typed, with the choices as they are.
    inputs: ShipmentInputs,
    /// What a bare number is in.
    #[serde(default)]
    unit: LengthUnit,
    /// A layer whose alternatives are wanted with them, as `list_alternatives` gives them.
    slot: Option<LayerSlot>,
}

/// A layer to find alternatives for.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct AlternativesRequest {
    /// What was typed, with the choices as they are.
    inputs: ShipmentInputs,
    /// Which layer.
    slot: LayerSlot,
    /// What a bare number is in.
    #[serde(default)]
    unit: LengthUnit,
}

/// Says what else a layer could be, and what each would change; nothing is stored.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "list_alternatives", post, path = "/plans/alternatives", tag = "plans", request_body = AlternativesRequest,
    responses(
        (status = 200, description = "Each with the choices that make it; none before the piece is measured", body = [Alternative]),
        (status = 422, description = "Values that were refused, each with its field", body = Problem),
    ),
))]
pub(crate) async fn alternatives(
    desk: Desk,
    Body(request): Body<AlternativesRequest>,
) -> Result<Json<Vec<Alternative>>, Problem> {
    let house = desk.house().await?;
    let inputs = desk.asked_inputs(&house, request.inputs, request.unit)?;
    Ok(Json(ways::alternatives(
        &inputs,
        &house.house,
        request.slot,
    )?))
}

/// Says what would protect a shipment more, and what could be left out; nothing is stored.
///
/// *More* takes at least a tenth off the chance of damage; *less* saves money, grams or minutes while the chance
/// stays accepted. Either raises no new finding and can be cut from the shelf; the best worth less cost comes
/// first. With a `slot`, what else that layer could be is told too; with `box` or `second_box`, every style of that box as well, and with `box` what is on the shelf in place of one.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "list_changes", post, path = "/plans/changes", tag = "plans", request_body = ChangesRequest,
    responses(
        (status = 200, description = "Each with what it costs, what it is worth, and the choices that make it; null before the piece is measured", body = Option<Changes>),
        (status = 422, description = "Values that were refused, each with its field", body = Problem),
    ),
))]
pub(crate) async fn changes(
    desk: Desk,
    Body(request): Body<ChangesRequest>,
) -> Result<Json<Option<Changes>>, Problem> {
    let house = desk.house().await?;
    let inputs = desk.asked_inputs(&house, request.inputs, request.unit)?;
    let mut changes = ways::changes(&inputs, &house.house)?;
    if let (Some(changes), Some(slot)) = (&mut changes, request.slot) {
        changes.alternatives = Some(ways::alternatives(&inputs, &house.house, slot)?);
        if matches!(slot, LayerSlot::Box | LayerSlot::SecondBox) {
            changes.styles = Some(ways::styles(&inputs, &house.house, slot)?);
        }
        if slot == LayerSlot::Box {
            changes.bought = Some(ways::bought(&inputs, &house.house)?);
            changes.case = ways::travel_case(&inputs, &house.house)?;
        }
    }
    Ok(Json(changes))
}

/// Says what several pieces come to in one parcel and in two, each with its best price; nothing is stored.
///
/// Of up to six pieces every way to part them is tried, of more each by itself and one after the other; the three that are
/// cheapest in all are told.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "part_in_two", post, path = "/plans/in-two", tag = "plans", request_body = PreviewRequest,
    responses(
        (status = 200, description = "One parcel and two; null for one piece, or before all are measured", body = Option<InTwo>),
        (status = 422, description = "Values that were refused, each with its field", body = Problem),
    ),
))]
pub(crate) async fn in_two(
    desk: Desk,
    Body(request): Body<PreviewRequest>,
) -> Result<Json<Option<InTwo>>, Problem> {
    let house = desk.house().await?;
    let inputs = desk.asked_inputs(&house, request.inputs, request.unit)?;
    Ok(Json(
        beside(move || ways::in_two(&inputs, &house.house)).await?,
    ))
}

/// How far it is to other prices, and what the buyer pays.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct Pricing {
    /// Each service that goes there, between its prices.
    ladders: Vec<ServiceLadder>,
    /// When it would arrive with each service that takes it, handed over on the first day on which it can be.
    arrivals: Vec<Arrival>,
    /// What each service costs more than the best one, part by part.
    dearer: Vec<Dearer>,
    /// What it costs and what the buyer pays; `None` before there is a plan.
    charge: Option<Charge>,
}

impl Pricing {
    /// Returns what is told of inputs that were checked.
    ///
    /// # Errors
    /// A [`Refusal`] when there can be no plan.
    pub(crate) fn of(inputs: &ShipmentInputs, house: &House) -> Result<Self, Vec<Refusal>> {
        let worked = Workings::out(inputs, house)?;
        Ok(Self {
            arrivals: arrivals(inputs, &worked, house),
            dearer: dearer(&worked.quotes),
            ladders: ways::price_steps(inputs, house)?,
            charge: charge(inputs, house)?,
        })
    }
}

/// Says how far it is to the next prices of each service, what of the plan gets there, and what the buyer pays; nothing is stored.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "price_plan", post, path = "/plans/price", tag = "plans", request_body = PreviewRequest,
    responses(
        (status = 200, description = "Nothing of either before the piece is measured", body = Pricing),
        (status = 422, description = "Values that were refused, each with its field", body = Problem),
    ),
))]
pub(crate) async fn price(
    desk: Desk,
    Body(request): Body<PreviewRequest>,
) -> Result<Json<Pricing>, Problem> {
    let house = desk.house().await?;
    let inputs = desk.asked_inputs(&house, request.inputs, request.unit)?;
    let priced = beside(move || Pricing::of(&inputs, &house.house));
    Ok(Json(priced.await?))
}

/// Says roughly what a piece would cost to send, from its size, destination and value alone, over everything that it could be;
/// nothing is stored.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "quote_roughly", post, path = "/plans/rough", tag = "plans", request_body = PreviewRequest,
    responses(
        (status = 200, description = "Each thing that it could be, the cheapest first", body = RoughQuote),
        (status = 422, description = "Values that were refused or are missing, each with its field", body = Problem),
    ),
))]
pub(crate) async fn rough(
    desk: Desk,
    Body(request): Body<PreviewRequest>,
) -> Result<Json<RoughQuote>, Problem> {
    let house = desk.house().await?;
    let inputs = desk.asked_inputs(&house, request.inputs, request.unit)?;
    Ok(Json(
        beside(move || rough_quote(&inputs, &house.house)).await?,
    ))
}

/// The steps of packing a shipment, or why there are none.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct PackingView {
    /// Every step beside what was ticked; `None` while there is no plan.
    packing: Option<PackView>,
}

/// Says every step of packing a shipment, in the order of the job, beside what was ticked; nothing is stored.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "list_pack_steps", post, path = "/plans/packing", tag = "plans", request_body = PreviewRequest,
    responses(
        (status = 200, description = "Each step with what it waits for", body = PackingView),
        (status = 422, description = "Values that were refused, each with its field", body = Problem),
    ),
))]
pub(crate) async fn packing(
    desk: Desk,
    Body(request): Body<PreviewRequest>,
) -> Result<Json<PackingView>, Problem> {
    let house = desk.house().await?;
    let inputs = desk.asked_inputs(&house, request.inputs, request.unit)?;
    let packing = beside(move || packing_of(&inputs, &house.house)).await?;
    Ok(Json(PackingView { packing }))
}

/// A part of a preview that can be left out.
#[derive(Debug, Clone, Copy, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub(crate) enum PreviewPart {
    /// The engineer's view: `plan.survival` then only says what the piece can take.
    Survival,
    /// The lines of the quotes: `lines` of each is then empty, and its `cost` is absent.
    Lines,
    /// How every layer stands: `plan.slots` is then empty.
    Slots,
}

/// How much of a preview is told.
#[derive(Debug, Default, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::IntoParams))]
#[cfg_attr(feature = "schema", into_params(parameter_in = Query))]
#[serde(default)]
pub(crate) struct PreviewQuery {
    /// Parts that are left out, separated by commas: they are neither made nor sent. None when it is left out.
    #[serde(deserialize_with = "listed")]
    #[cfg_attr(feature = "schema", param(value_type = Vec<PreviewPart>, required = false, style = Form, explode = false))]
    without: Vec<PreviewPart>,
}

impl PreviewQuery {
    fn detail(&self) -> Detail {
        let mut detail = Detail::WHOLE;
        for part in &self.without {
            match part {
                PreviewPart::Survival => detail.survival = false,
                PreviewPart::Lines => detail.lines = false,
                PreviewPart::Slots => detail.slots = false,
            }
        }
        detail
    }
}

/// Works out plan and quotes by the studio's rules; nothing is stored.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "preview_plan", post, path = "/plans/preview", tag = "plans", params(PreviewQuery),
    request_body = PreviewRequest,
    responses(
        (status = 200, description = "What follows from the inputs", body = Preview),
        (status = 422, description = "Values that were refused, each with its field", body = Problem),
    ),
))]
pub(crate) async fn preview(
    desk: Desk,
    Asked(query): Asked<PreviewQuery>,
    Body(request): Body<PreviewRequest>,
) -> Result<impl IntoResponse, Problem> {
    let house = desk.house_lately().await?;
    let follows = Follows::Asked(query.detail());
    let outcome = desk.outcome(house, request.inputs, request.unit, follows)?;
    let (inputs, worked) = (outcome.inputs, outcome.worked);
    let known = desk
        .known_lately(&inputs, &worked, request.shipment)
        .await?;
    let told = Preview::of(inputs, worked, &known.circumstances());
    Ok(([(CONTENT_TYPE, "application/json")], told.to_json()))
}

//! An address that was pasted as a block.

use axum::Json;
use hummock_core::{
    Refusal,
    place::{PartedAddress, part_address},
};
use serde::Deserialize;

use crate::{
    body::Body,
    desk::Desk,
    problem::Problem,
    routes::{Routes, routes},
};

/// An address as it was copied from somewhere.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct AddressRequest {
    /// Line by line, or in one line with commas; up to 2000 characters.
    block: String,
}

/// No address is longer.
const LONGEST_BLOCK: usize = 2000;

/// Parts an address that was pasted as a block into its fields, to be looked over; nothing is stored.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "part_address", post, path = "/addresses", tag = "shipments", request_body = AddressRequest,
    responses(
        (status = 200, description = "Its fields, what belongs to none, and what is a guess", body = PartedAddress),
        (status = 422, description = "It is too long", body = Problem),
    ),
))]
async fn part(
    desk: Desk,
    Body(request): Body<AddressRequest>,
) -> Result<Json<PartedAddress>, Problem> {
    let letters = request.block.chars().count();
    if letters > LONGEST_BLOCK {
        let says = format!(
            "{letters} characters are too many: paste only the address, up to {LONGEST_BLOCK}"
        );
        return Err(vec![Refusal::new("block", says)].into());
    }
    let settings = desk.store.settings().await?;
    Ok(Json(part_address(
        &request.block,
        &settings.known_countries(),
    )))
}

pub(crate) fn routes() -> Routes {
    routes![
        post "/addresses" => part,
    ]
}

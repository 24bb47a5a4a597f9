//! The countries of the world, and those of the studio's own making.

use axum::Json;
use hummock_core::place::{AddressFormat, Country};
use serde::Serialize;

use crate::{
    desk::Desk,
    problem::Problem,
    routes::{Routes, routes},
};

/// A country that parcels can go to.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct CountryRow {
    /// Two capital letters.
    code: String,
    /// In English.
    name: String,
    /// Whether it is of the studio's own making.
    own: bool,
    /// Whether the studio sends to it, or from it.
    listed: bool,
    /// How its addresses are written.
    format: AddressFormat,
    /// A postcode of it, for people to look at; null where it has none, or none is known.
    example: Option<String>,
    /// Its regions as they stand in an address; empty where they are not written, or not known.
    regions: Vec<String>,
    /// The currency of the country, as a code of ISO 4217; null if it has none of its own.
    currency: Option<String>,
    /// Whether its paper is Letter.
    letter: bool,
}

/// Returns every country: the studio's own first, then those that it sends to, then the rest by name.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "list_countries", get, path = "/countries", tag = "studio",
    responses((status = 200, description = "All countries of ISO 3166-1, and the studio's own", body = [CountryRow])),
))]
async fn list(desk: Desk) -> Result<Json<Vec<CountryRow>>, Problem> {
    let known = desk.store.settings().await?.known_countries();
    let listed: Vec<&str> = known.listed().collect();
    let row = |code: &str| {
        let format = known.format(code);
        let real = Country::of(code);
        CountryRow {
            code: code.to_owned(),
            name: known.name(code).to_owned(),
            own: real.is_none(),
            listed: listed.contains(&code),
            format: format.format.clone(),
            example: format.example.map(str::to_owned),
            regions: format
                .regions
                .iter()
                .map(|region| region.written().to_owned())
                .collect(),
            currency: real
                .and_then(|real| real.currency)
                .map(|currency| currency.code().to_owned()),
            letter: real.is_some_and(|real| real.letter),
        }
    };
    let mut rest: Vec<&Country> = Country::all().iter().collect();
    rest.retain(|country| !listed.contains(&country.code.as_str()));
    rest.sort_by(|one, other| one.name.cmp(&other.name));
    let own = known.own().iter().map(|own| own.code.as_str());
    let own = own.filter(|code| !listed.contains(code));
    let codes = listed
        .iter()
        .copied()
        .chain(own)
        .chain(rest.iter().map(|country| country.code.as_str()));
    Ok(Json(codes.map(row).collect()))
}

pub(crate) fn routes() -> Routes {
    routes![
        get "/countries" => list,
    ]
}

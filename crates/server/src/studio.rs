//! The studio: what the pages need to offer choices.

use axum::Json;
use hummock_core::{
    house::{ALLOWANCES, Allowance, HouseRules, Manners, SCHOOLS, SchoolQuestion},
    material::Catalogue,
    odds::PieceClass,
    place::Route,
    quantity::LengthUnit,
    shipment::{FieldHint, hints},
    space::LayerSlot,
};
use jiff::civil::Date;
use serde::Serialize;

use crate::{desk::Desk, problem::Problem};

/// A studio and what it works with.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct StudioView {
    /// Its name.
    name: String,
    /// Where it is.
    town: String,
    /// What its bare numbers are in.
    unit: LengthUnit,
    /// Whether it is the demo: its carriers are invented, and nothing is really booked.
    demo: bool,
    /// Whether the carriers and the scale that are asked are only stand-ins.
    stand_ins: bool,
    /// Whether somebody has said whose it is and where it is.
    set_up: bool,
    /// How it writes masses, numbers and dates, and on which paper.
    manners: Manners,
    /// The day, where the studio is.
    #[cfg_attr(feature = "schema", schema(value_type = String, example = "2027-03-04"))]
    today: Date,
    /// Where it ships to.
    countries: Vec<CountryView>,
    /// Its house rules.
    rules: HouseRules,
    /// Every allowance with its name, unit, default, range and reason.
    allowances: &'static [Allowance],
    /// Every question that practitioners answer differently, with its schools.
    schools: &'static [SchoolQuestion],
    /// What stands for fields of a shipment that are left empty.
    hints: Vec<FieldHint>,
    /// Every layer that a plan can have, from the art outward.
    slots: Vec<SlotName>,
    /// Every kind of piece that has odds of its own.
    classes: Vec<ClassName>,
    /// Every route, the gentlest first.
    routes: Vec<RouteName>,
    /// Its shelf.
    catalogue: Catalogue,
}

/// What a layer is called.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct SlotName {
    /// The place of the layer.
    slot: LayerSlot,
    /// What people call it.
    name: &'static str,
}

/// What a kind of piece is called in the table of odds.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct ClassName {
    /// The class of pieces.
    class: PieceClass,
    /// What people call it.
    name: &'static str,
}

/// What a route is called.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct RouteName {
    /// The route.
    route: Route,
    /// What people call it.
    name: &'static str,
}

/// A country that the studio ships to.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct CountryView {
    /// Two capital letters.
    code: String,
    /// What people call it.
    name: String,
}

/// Returns the studio with its rules and its shelf.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "show_studio", get, path = "/studio", tag = "studio",
    responses((status = 200, description = "The studio", body = StudioView)),
))]
pub(crate) async fn show(desk: Desk) -> Result<Json<StudioView>, Problem> {
    let settings = desk.store.settings().await?;
    let house = desk.house().await?;
    let known = settings.known_countries();
    let view = |code: &str| CountryView {
        code: code.to_owned(),
        name: known.name(code).to_owned(),
    };
    let countries = settings
        .countries
        .iter()
        .map(|country| view(&country.code))
        .collect();
    Ok(Json(StudioView {
        demo: settings.demo,
        stand_ins: desk.demo && desk.app.outside.stand_in,
        set_up: settings.is_set_up(),
        manners: settings.manners,
        name: settings.name,
        town: settings.town,
        unit: settings.unit,
        today: desk.clock.today(),
        countries,
        rules: house.house.rules.clone(),
        allowances: ALLOWANCES,
        schools: SCHOOLS,
        hints: hints(&house.house.rules),
        slots: LayerSlot::ALL
            .map(|slot| SlotName {
                slot,
                name: slot.name(),
            })
            .into(),
        classes: PieceClass::ALL
            .iter()
            .map(|&class| ClassName {
                class,
                name: class.name(),
            })
            .collect(),
        routes: Route::ALL
            .iter()
            .map(|&route| RouteName {
                route,
                name: route.name(),
            })
            .collect(),
        catalogue: house.house.catalogue.clone(),
    }))
}

/// How far the plans on the bench have followed the last change of the house.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct ProgressView {
    /// Shipments that are still to be worked out by it; each is worked out at once when it is looked at.
    behind: i64,
    /// Shipments on the bench.
    open: i64,
}

/// Tells how far the plans on the bench have followed the last change of rules, stores or presets.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "show_progress", get, path = "/studio/progress", tag = "studio",
    responses((status = 200, description = "How many are still to be worked out", body = ProgressView)),
))]
pub(crate) async fn progress(desk: Desk) -> Result<Json<ProgressView>, Problem> {
    let progress = desk.store.progress().await?;
    Ok(Json(ProgressView {
        behind: progress.behind,
        open: progress.open,
    }))
}

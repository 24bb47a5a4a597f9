//! The studios of one program: which there are, which one a browser at the machine shows, and beginning one of one's own.

use axum::{
    Json,
    http::{HeaderMap, HeaderValue, StatusCode, header},
    response::{IntoResponse, Response},
};
use hummock_store::{Settings, StudioId};
use serde::{Deserialize, Serialize};
use uuid::Uuid;

use crate::{
    body::{Body, ShipmentId},
    desk::Desk,
    import::nobodys_house,
    network::{Caller, studio_cookie},
    problem::Problem,
    routes::{Routes, routes},
    settings::{SettingsRequest, SettingsView},
};

/// A studio of this program.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct StudioRow {
    /// Which one.
    id: Uuid,
    /// What it is called; empty until somebody says so.
    name: String,
    /// Whether it is the demo.
    demo: bool,
    /// Whether this browser shows it.
    shown: bool,
}

/// Which studio is to be shown.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct ShownRequest {
    /// Its id.
    id: Uuid,
}

/// Nobody has more than that; each is a name of its own.
const MOST_STUDIOS: usize = 20;

impl Desk {
    /// Devices of the network see the studio that they signed in to, and no other.
    fn at_the_machine(&self) -> Result<(), Problem> {
        match self.caller {
            Caller::Machine => Ok(()),
            Caller::Device(_) => Err(Problem::at_the_machine_only()),
        }
    }

    /// Returns a studio that is nobody's yet: one that was begun and never set up, else a new one.
    async fn blank_studio(&self) -> Result<StudioId, Problem> {
        self.at_the_machine()?;
        let store = &self.app.store;
        let there = store.studios().await?;
        for studio in &there {
            let settings = store.of(*studio).settings().await?;
            if !settings.demo && !settings.is_set_up() {
                return Ok(*studio);
            }
        }
        if there.len() >= MOST_STUDIOS {
            return Err(Problem::studios_full());
        }
        let name = format!("studio {}", Uuid::now_v7());
        let (studio, _) = store
            .create_studio(&name, &Settings::of_nobody(), &nobodys_house())
            .await?;
        Ok(studio)
    }

    async fn studios(&self) -> Result<Vec<StudioRow>, Problem> {
        let mut rows = Vec::new();
        for studio in self.app.store.studios().await? {
            let settings = self.app.store.of(studio).settings().await?;
            rows.push(StudioRow {
                id: studio.id(),
                name: settings.name,
                demo: settings.demo,
                shown: studio == self.studio(),
            });
        }
        Ok(rows)
    }
}

/// Returns an answer after which the browser shows a studio.
fn showing(studio: StudioId, answer: impl IntoResponse) -> Response {
    let cookie =
        HeaderValue::try_from(studio_cookie(studio)).expect("an id is made of letters and dashes");
    (HeaderMap::from_iter([(header::SET_COOKIE, cookie)]), answer).into_response()
}

/// Returns the studios of this program, the oldest first; a device of the network sees its own alone.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "list_studios", get, path = "/studios", tag = "studio",
    responses((status = 200, description = "Each with its name, and which one is shown", body = [StudioRow])),
))]
async fn list(desk: Desk) -> Result<Json<Vec<StudioRow>>, Problem> {
    let mut rows = desk.studios().await?;
    rows.retain(|row| row.shown || desk.caller == Caller::Machine);
    Ok(Json(rows))
}

/// Returns the settings that a new studio begins with, before anybody types any; nothing is kept.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "show_new_studio", get, path = "/studios/new", tag = "studio",
    responses((status = 200, description = "As every studio begins", body = SettingsView)),
))]
async fn blank() -> Json<SettingsView> {
    Json(SettingsView::of(0, Settings::of_nobody(), &nobodys_house()))
}

/// Returns the studio of this program that holds a shipment, whichever is shown.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "find_studio_of_shipment", get, path = "/shipments/{id}/studio", tag = "studio",
    params(("id" = Uuid, Path, description = "Which shipment")),
    responses(
        (status = 200, description = "Its studio", body = StudioRow),
        (status = 403, description = "A device of the network asked", body = Problem),
        (status = 404, description = "No studio of this program holds it", body = Problem),
    ),
))]
async fn holding(desk: Desk, ShipmentId(id): ShipmentId) -> Result<Json<StudioRow>, Problem> {
    desk.at_the_machine()?;
    let found = desk.app.store.studio_with_shipment(id).await?;
    let found = found.ok_or_else(|| Problem::not_found("shipment of that id"))?;
    let settings = desk.app.store.of(found).settings().await?;
    Ok(Json(StudioRow {
        id: found.id(),
        name: settings.name,
        demo: settings.demo,
        shown: found == desk.studio(),
    }))
}

/// Begins a studio that is nobody's yet beside those that there are, and shows it in this browser: the usual rules and materials,
/// no sender, no carriers, no shipments. One that was begun and never set up is taken again.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "begin_studio", post, path = "/studios", tag = "studio",
    responses(
        (status = 201, description = "It is there, and shown from now on", body = [StudioRow]),
        (status = 403, description = "A device of the network asked", body = Problem),
        (status = 409, description = "There are twenty already", body = Problem),
    ),
))]
async fn begin(desk: Desk) -> Result<Response, Problem> {
    let studio = desk.blank_studio().await?;
    let own = Desk::of(&desk.app, studio, desk.caller).await?;
    Ok(showing(
        studio,
        (StatusCode::CREATED, Json(own.studios().await?)),
    ))
}

/// Begins a studio with the settings that somebody typed, and shows it in this browser; where they are refused the studio that is shown
/// stays shown.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "set_up_studio", post, path = "/studios/set-up", tag = "studio", request_body = SettingsRequest,
    responses(
        (status = 201, description = "It is there, and shown from now on", body = [StudioRow]),
        (status = 403, description = "A device of the network asked", body = Problem),
        (status = 409, description = "There are twenty already", body = Problem),
        (status = 422, description = "Values that were refused, each with its field", body = Problem),
    ),
))]
async fn set_up(desk: Desk, Body(request): Body<SettingsRequest>) -> Result<Response, Problem> {
    desk.at_the_machine()?;
    // Refused before there is a studio: otherwise a nameless one would be left behind.
    let today = desk.clock.today();
    request.laid_over_all(&nobodys_house(), &mut Settings::of_nobody(), (false, today))?;
    let studio = desk.blank_studio().await?;
    let own = Desk::of(&desk.app, studio, desk.caller).await?;
    own.change_settings(&request.of_new_studio()).await?;
    Ok(showing(
        studio,
        (StatusCode::CREATED, Json(own.studios().await?)),
    ))
}

/// Shows another studio in this browser; nothing of either changes.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "show_studio_of", put, path = "/studios/shown", tag = "studio", request_body = ShownRequest,
    responses(
        (status = 204, description = "It is shown from now on"),
        (status = 403, description = "A device of the network asked", body = Problem),
        (status = 404, description = "There is no such studio", body = Problem),
    ),
))]
async fn show(desk: Desk, Body(request): Body<ShownRequest>) -> Result<Response, Problem> {
    desk.at_the_machine()?;
    let studio = desk.app.store.studio_of(request.id).await?;
    let studio = studio.ok_or_else(|| Problem::not_found("studio"))?;
    Ok(showing(studio, StatusCode::NO_CONTENT))
}

pub(crate) fn routes() -> Routes {
    routes![
        get "/studios" => list,
        get "/studios/new" => blank,
        get "/shipments/{id}/studio" => holding,
        post "/studios" => begin,
        post "/studios/set-up" => set_up,
        put "/studios/shown" => show,
    ]
}

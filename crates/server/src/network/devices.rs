//! Devices of the local network: letting them in, listing them, signing them out.

use std::{net::SocketAddr, time::Instant};

use axum::{
    Json,
    extract::{ConnectInfo, Path, rejection::PathRejection},
    http::{StatusCode, header},
    response::{IntoResponse, Response},
};
use hummock_core::{Refusal, text::UnreadableText};
use hummock_store::Device;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::{
    Passphrase,
    door::{Caller, Token},
    passphrase::is_it,
};
use crate::{
    body::Body,
    desk::{Desk, Doorstep},
    problem::Problem,
    routes::{Routes, routes},
};

/// For whoever is known.
pub(crate) fn routes() -> Routes {
    routes![
        get "/devices" => list,
        delete "/devices/{id}" => sign_out,
        put "/passphrase" => change_passphrase,
        get "/devices/address.svg" => picture,
    ]
}

/// For whoever is at the door.
pub(crate) fn open_routes() -> Routes {
    routes![
        post "/devices" => sign_in,
        get "/devices/authority.crt" => authority,
    ]
}

/// A device, and what it gives to be let in.
#[derive(Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct SignIn {
    /// The studio's passphrase.
    passphrase: String,
    /// What its user calls it, up to 60 letters.
    #[cfg_attr(feature = "schema", schema(example = "Tablet at the packing table"))]
    name: String,
}

/// A device that is signed in.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct DeviceView {
    /// The id of the device.
    id: Uuid,
    /// What its user calls it.
    name: String,
    /// When it gave the passphrase.
    #[cfg_attr(feature = "schema", schema(value_type = String, example = "2027-03-04T09:30:00Z"))]
    signed_in: Timestamp,
    /// When it last asked for anything, to the minute.
    #[cfg_attr(feature = "schema", schema(value_type = String, example = "2027-03-04T09:30:00Z"))]
    seen: Timestamp,
    /// Whether it is the one that asks.
    this: bool,
}

/// How tablets reach this server, and which do.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct DevicesView {
    /// Whether it was started to answer on the local network.
    open: bool,
    /// Its addresses there, the one to type first.
    #[cfg_attr(feature = "schema", schema(example = json!(["https://192.168.1.20:7443"])))]
    addresses: Vec<String>,
    /// The SHA-256 fingerprint of the studio's authority; null when it brought a certificate of its own.
    fingerprint: Option<String>,
    /// Whether there is a passphrase.
    has_passphrase: bool,
    /// Whether whoever asks may change it: at the machine itself only.
    may_change_passphrase: bool,
    /// Devices that are signed in, the newest first.
    devices: Vec<DeviceView>,
}

/// A new passphrase.
#[derive(Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct NewPassphrase {
    /// 12 to 200 letters; blanks around it don't count.
    #[cfg_attr(feature = "schema", schema(min_length = 12, max_length = 200))]
    passphrase: String,
}

const LONGEST_NAME: usize = 60;

fn name_of(text: &str) -> Result<String, Refusal> {
    let text = text.trim();
    let letters = text.chars().count();
    let refused = if let Some(unreadable) = UnreadableText::in_line(text) {
        unreadable.to_string()
    } else if text.is_empty() {
        "give the device a name, such as tablet at the packing table".to_owned()
    } else if letters > LONGEST_NAME {
        format!("{letters} characters are too many: use at most {LONGEST_NAME}")
    } else {
        return Ok(text.to_owned());
    };
    Err(Refusal::new("name", refused))
}

/// Lets a device in that knows the passphrase; a cookie is what it is known by from then on.
#[cfg_attr(feature = "schema", utoipa::path(
    post, path = "/devices", tag = "devices", request_body = SignIn,
    responses(
        (status = 201, description = "It is let in, until it is signed out or silent for 90 days"),
        (status = 422, description = "That is not the passphrase, or the device has no name", body = Problem),
        (status = 429, description = "Too many wrong ones: Retry-After says how many seconds to wait", body = Problem),
    ),
))]
pub(crate) async fn sign_in(
    door: Doorstep,
    ConnectInfo(from): ConnectInfo<SocketAddr>,
    Body(given): Body<SignIn>,
) -> Result<Response, Problem> {
    let from = from.ip();
    let patience = || match door.app.entrance.attempts.to_wait(from, Instant::now()) {
        Some(wait) => Err(Problem::too_often(wait)),
        None => Ok(()),
    };
    // Whoever has to wait does not take the turn of others.
    patience()?;
    let name = name_of(&given.name).map_err(|refusal| vec![refusal])?;
    let _turn = door
        .app
        .entrance
        .turns
        .0
        .acquire()
        .await
        .map_err(|_| Problem::busy())?;
    patience()?;
    let kept = door.store.passphrase().await?.unwrap_or_default();
    let (typed, against) = (given.passphrase, kept.clone());
    let right = tokio::task::spawn_blocking(move || is_it(&typed, &against))
        .await
        .unwrap_or(false);
    let token = Token::drawn().map_err(|_| Problem::slip())?;
    let device = match right {
        true => door.store.sign_in(&name, &token.digest(), &kept).await?,
        false => None,
    };
    if device.is_none() {
        door.app.entrance.attempts.was_wrong(from, Instant::now());
        let refused = "wrong passphrase: bin/start printed the right one";
        return Err(vec![Refusal::new("passphrase", refused)].into());
    }
    door.app.entrance.attempts.was_right(from);
    Ok((StatusCode::CREATED, [(header::SET_COOKIE, token.cookie())]).into_response())
}

/// Tells how tablets reach this server, and which are signed in.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "list_devices", get, path = "/devices", tag = "devices",
    responses((status = 200, description = "Addresses and devices", body = DevicesView)),
))]
pub(crate) async fn list(desk: Desk) -> Result<Json<DevicesView>, Problem> {
    let devices = desk.store.devices().await?;
    let network = desk.app.entrance.network.as_deref();
    Ok(Json(DevicesView {
        open: network.is_some(),
        addresses: network.map_or_else(Vec::new, |network| network.addresses.clone()),
        fingerprint: network
            .and_then(|network| network.fingerprint())
            .map(str::to_owned),
        has_passphrase: desk.store.passphrase().await?.is_some(),
        may_change_passphrase: desk.caller == Caller::Machine,
        devices: devices
            .into_iter()
            .map(|device| view(device, desk.caller))
            .collect(),
    }))
}

fn view(device: Device, caller: Caller) -> DeviceView {
    let moment = |seconds| Timestamp::from_second(seconds).unwrap_or_default();
    DeviceView {
        this: caller == Caller::Device(device.id),
        id: device.id,
        name: device.name,
        signed_in: moment(device.signed_in),
        seen: moment(device.seen),
    }
}

/// Signs a device out: it is asked for the passphrase again.
#[cfg_attr(feature = "schema", utoipa::path(
    delete, path = "/devices/{id}", tag = "devices", params(("id" = Uuid, Path, description = "Which")),
    responses(
        (status = 204, description = "It is signed out"),
        (status = 404, description = "No such device is signed in", body = Problem),
    ),
))]
pub(crate) async fn sign_out(
    desk: Desk,
    id: Result<Path<Uuid>, PathRejection>,
) -> Result<StatusCode, Problem> {
    let none = || Problem::not_found("device that is signed in");
    let Path(id) = id.map_err(|_| none())?;
    match desk.store.sign_out(id).await? {
        true => {
            desk.app.entrance.signed_out.notify_waiters();
            Ok(StatusCode::NO_CONTENT)
        }
        false => Err(none()),
    }
}

/// Changes the passphrase, at the machine itself; every device is signed out.
#[cfg_attr(feature = "schema", utoipa::path(
    put, path = "/passphrase", tag = "devices", request_body = NewPassphrase,
    responses(
        (status = 204, description = "It is changed, and every device is asked for it"),
        (status = 403, description = "A device may not do that", body = Problem),
        (status = 422, description = "It is too short or too long", body = Problem),
    ),
))]
pub(crate) async fn change_passphrase(
    desk: Desk,
    Body(given): Body<NewPassphrase>,
) -> Result<StatusCode, Problem> {
    if desk.caller != Caller::Machine {
        return Err(Problem::at_the_machine_only());
    }
    let passphrase = Passphrase::chosen(&given.passphrase).map_err(|refusal| vec![refusal])?;
    let hash = passphrase.hashed().await.map_err(|_| Problem::slip())?;
    desk.store.change_passphrase(&hash).await?;
    desk.app.entrance.signed_out.notify_waiters();
    Ok(StatusCode::NO_CONTENT)
}

/// Draws the address to type, for the camera of a tablet.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "draw_address", get, path = "/devices/address.svg", tag = "devices",
    responses(
        (status = 200, description = "A QR code", body = String, content_type = "image/svg+xml"),
        (status = 404, description = "It was not started to answer on the local network", body = Problem),
    ),
))]
pub(crate) async fn picture(desk: Desk) -> Result<Response, Problem> {
    let drawn = desk
        .app
        .entrance
        .network
        .as_deref()
        .and_then(|network| network.picture());
    let svg = drawn.ok_or_else(|| Problem::not_found("address on the local network"))?;
    Ok(([(header::CONTENT_TYPE, "image/svg+xml")], svg).into_response())
}

/// Hands out the certificate of the studio's authority, which a tablet installs once.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "show_authority", get, path = "/devices/authority.crt", tag = "devices",
    responses(
        (status = 200, description = "The certificate, as devices install it", content_type = "application/x-x509-ca-cert"),
        (status = 404, description = "There is none", body = Problem),
    ),
))]
pub(crate) async fn authority(door: Doorstep) -> Result<Response, Problem> {
    let trust = door
        .app
        .entrance
        .network
        .as_deref()
        .and_then(|network| network.authority.as_ref());
    let trust = trust.ok_or_else(|| Problem::not_found("authority of the studio"))?;
    let kind = [
        (header::CONTENT_TYPE, "application/x-x509-ca-cert"),
        (
            header::CONTENT_DISPOSITION,
            "attachment; filename=\"hummock-studio.crt\"",
        ),
    ];
    Ok((kind, trust.certificate.to_vec()).into_response())
}

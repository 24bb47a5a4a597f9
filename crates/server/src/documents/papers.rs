//! Pack sheet and unpacking guide, with their codes.

use axum::response::Response;
use hummock_core::{Refusal, shipment::unpacking_guide};
use serde::Deserialize;
use serde_json::json;

use super::file_of;
use crate::{
    body::{Asked, ShipmentId},
    desk::Desk,
    left::{KeptPaper, PACK_SHEET},
    press::{Page, Printed},
    problem::Problem,
};

/// Where the page was opened.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::IntoParams))]
#[cfg_attr(feature = "schema", into_params(parameter_in = Query))]
#[serde(deny_unknown_fields)]
pub(crate) struct SheetQuery {
    /// The address that the code on the sheet begins with, as `http://192.168.1.20:7373`; no code without one.
    pub(super) at: Option<String>,
}

/// No address is longer.
const LONGEST_ADDRESS: usize = 200;

/// Returns the code that leads back to the packing of a shipment, as a picture.
fn code_to(at: &str, id: uuid::Uuid) -> Result<String, Problem> {
    let refused = |says: &str| Problem::from(vec![Refusal::new("at", says)]);
    let plain = at.len() <= LONGEST_ADDRESS && at.chars().all(|one| one.is_ascii_graphic());
    if !plain || !(at.starts_with("http://") || at.starts_with("https://")) {
        return Err(refused(
            "give the address of this page, as http://192.168.1.20:7373",
        ));
    }
    let leads = format!("{}/shipments/{id}/pack", at.trim_end_matches('/'));
    code_of(&leads).map_err(|()| refused("too long for a QR code"))
}

/// Returns a text as a code that a camera reads, as SVG.
pub(crate) fn code_of(text: &str) -> Result<String, ()> {
    let code = qrcode::QrCode::new(text).map_err(|_| ())?;
    Ok(code.render::<qrcode::render::svg::Color<'_>>().build())
}

/// Returns the steps of packing a shipment on paper: cut list, steps with boxes to tick, the box, and a code that leads back.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "print_pack_sheet", get, path = "/shipments/{id}/pack-sheet", tag = "documents",
    params(("id" = uuid::Uuid, Path, description = "Which shipment"), SheetQuery),
    responses(
        (status = 200, description = "One page of A4, or a few", body = String, content_type = "application/pdf"),
        (status = 404, description = "There is no such shipment, or no plan of it yet", body = Problem),
        (status = 422, description = "The address can't be one", body = Problem),
        (status = 503, description = "The program that makes documents is not there yet", body = Problem),
    ),
))]
pub(crate) async fn pack_sheet(
    desk: Desk,
    ShipmentId(id): ShipmentId,
    Asked(query): Asked<SheetQuery>,
) -> Result<Response, Problem> {
    let leaves = desk.to_leave(id).await?;
    let code = query.at.map(|at| code_to(&at, id)).transpose()?;
    let kept = leaves.kept_paper(PACK_SHEET);
    let mut says = match kept {
        Some(kept) => kept.says.clone(),
        None => leaves.pack_sheet(&desk.known_of(&leaves.stored).await?)?,
    };
    says["code"] = json!(code);
    if let Some(document) = kept.and_then(|kept| kept.document(&says)) {
        return Ok(file_of("pack-sheet.pdf", "application/pdf", document));
    }
    let printed = Printed {
        kind: PACK_SHEET,
        says: &says,
        pictures: &[],
        page: Page::of(&leaves.facts.settings),
    };
    let document = desk.app.documents.paper(desk.studio(), printed).await?;
    let printed = KeptPaper::new(PACK_SHEET.to_owned(), says, Vec::new());
    desk.keep_printed(&leaves, PACK_SHEET, (printed, &document))
        .await;
    Ok(file_of("pack-sheet.pdf", "application/pdf", document))
}

/// Returns how a parcel is unpacked, for whoever gets it: the plan backwards, which tape peels, and which side is the face.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "print_unpacking_guide", get, path = "/shipments/{id}/unpacking-guide", tag = "documents",
    params(("id" = uuid::Uuid, Path, description = "Which shipment")),
    responses(
        (status = 200, description = "One page of A4, or two", body = String, content_type = "application/pdf"),
        (status = 404, description = "There is no such shipment, or no plan of it yet", body = Problem),
        (status = 503, description = "The program that makes documents is not there yet", body = Problem),
    ),
))]
pub(crate) async fn unpacking(desk: Desk, ShipmentId(id): ShipmentId) -> Result<Response, Problem> {
    let stored = desk.stored(id).await?;
    // What has left is unpacked as it was packed, whatever the house does by now.
    let kept = stored
        .handed
        .as_ref()
        .and_then(|handed| handed.unpacking.clone());
    let guide = match kept {
        Some(kept) => kept,
        None => {
            let house = desk.house().await?;
            let guide = unpacking_guide(&stored.inputs, &house.house)?;
            json!(guide.ok_or_else(|| Problem::not_found("plan of it yet"))?)
        }
    };
    let settings = &desk.to_leave(id).await?.facts.settings;
    let page = Page::of(settings);
    let says = json!({ "studio": settings.name, "guide": guide });
    let printed = Printed {
        kind: "unpacking_guide",
        says: &says,
        pictures: &[],
        page,
    };
    let document = desk.app.documents.paper(desk.studio(), printed).await?;
    Ok(file_of("unpacking-guide.pdf", "application/pdf", document))
}

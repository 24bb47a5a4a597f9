//! A sheet that is cut, and what is kept of it.

use axum::Json;
use hummock_core::{
    Refusals,
    shipment::{SheetPart, ShipmentInputs, ticks_with_layouts},
    stock::{BatchPlan, BatchSheet, Goods, MaterialCut, SheetGoods, StockItem},
};
use hummock_store::{Draw, DrawnFrom, Place};
use jiff::Timestamp;
use uuid::Uuid;

use super::{
    goods_of,
    paths::SheetPath,
    print_of,
    views::{CutRequest, CuttingView, Kept},
};
use crate::{body::Body, desk::Desk, problem::Problem, rework::beside, shelf::said_of};

/// Notes that a sheet was cut: it is drawn from the shelf, and what is kept of it is put there. Once, however often it is
/// asked.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "sheet_is_cut", put, path = "/cuttings/{id}/sheets/{n}", tag = "cuttings", request_body = CutRequest,
    params(("id" = Uuid, Path, description = "Which layout"), ("n" = usize, Path, description = "Which sheet, counted from 1")),
    responses(
        (status = 200, description = "The layout as it is now", body = CuttingView),
        (status = 404, description = "There is no such sheet", body = Problem),
        (status = 409, description = "The shelf has none left: another bench was first", body = Problem),
        (status = 422, description = "Values that were refused, each with its field", body = Problem),
    ),
))]
pub(crate) async fn cut(
    desk: Desk,
    SheetPath { cutting, n }: SheetPath,
    Body(request): Body<CutRequest>,
) -> Result<Json<CuttingView>, Problem> {
    let (stored, kept) = desk.kept(cutting).await?;
    if request
        .print
        .as_ref()
        .is_some_and(|print| *print != print_of(&stored.body))
    {
        return Err(Problem::laid_out_anew());
    }
    let house = desk.house().await?;
    let (of, sheet) = sheet_of(&kept.laid, n)?;
    let mut refusals: Refusals = hummock_core::text::refused_text("place", &request.place)
        .into_iter()
        .collect();
    let mut keep = request.keep;
    keep.sort_unstable();
    keep.dedup();
    if let Some(strange) = keep.iter().find(|at| **at >= sheet.rest.len()) {
        let says = format!(
            "sheet {n} leaves {} pieces: {strange} doesn't exist",
            sheet.rest.len()
        );
        refusals.refuse("keep", says);
    }
    refusals.done()?;
    let offcuts: Vec<StockItem> = keep
        .into_iter()
        .map(|at| StockItem {
            id: String::new(),
            goods: Goods::Offcut(SheetGoods {
                material: of.material.clone(),
                width: sheet.rest[at].piece.width,
                height: sheet.rest[at].piece.height,
                thickness: sheet.thickness,
            }),
            name: String::new(),
            place: request.place.trim().to_owned(),
            left: 1,
        })
        .collect();
    let from = match &sheet.offcut {
        Some(offcut) => {
            DrawnFrom::Offcut(offcut.id.parse().unwrap_or_default(), offcut.name.clone())
        }
        None => {
            let goods = goods_of(of, sheet);
            let size = format!(
                "{} of {} × {} mm",
                of.name,
                sheet.width.as_mm(),
                sheet.height.as_mm()
            );
            DrawnFrom::New(Draw {
                said: said_of(&goods, &house.house.catalogue),
                goods,
                name: size,
                amount: 1,
                item: None,
            })
        }
    };
    let about = about(&kept);
    desk.store
        .sheet_is_cut((cutting, whole(n), &about), (&from, &stored.body), &offcuts)
        .await?;
    desk.tick_cuts(&kept).await?;
    Ok(Json(desk.cutting_view(cutting).await?))
}

/// Takes back that a sheet was cut: the shelf is as it was before.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "sheet_is_not_cut", delete, path = "/cuttings/{id}/sheets/{n}", tag = "cuttings",
    params(("id" = Uuid, Path, description = "Which layout"), ("n" = usize, Path, description = "Which sheet, counted from 1")),
    responses(
        (status = 200, description = "The layout as it is now", body = CuttingView),
        (status = 404, description = "There is no such sheet", body = Problem),
        (status = 409, description = "What was kept of it was used since", body = Problem),
    ),
))]
pub(crate) async fn not_cut(
    desk: Desk,
    SheetPath { cutting, n }: SheetPath,
) -> Result<Json<CuttingView>, Problem> {
    let (_, kept) = desk.kept(cutting).await?;
    sheet_of(&kept.laid, n)?;
    let about = about(&kept);
    desk.store
        .sheet_is_not_cut((cutting, whole(n), &about))
        .await?;
    desk.tick_cuts(&kept).await?;
    Ok(Json(desk.cutting_view(cutting).await?))
}

fn sheet_of(laid: &BatchPlan, n: usize) -> Result<(&MaterialCut, &BatchSheet), Problem> {
    laid.sheets()
        .find(|(_, sheet)| sheet.n == n)
        .ok_or_else(|| Problem::not_found("sheet of that number in the layout"))
}

pub(super) fn titles(kept: &Kept) -> Vec<String> {
    let shipments = kept.shipments.iter().map(|one| one.title.clone());
    let blanks = kept.blanks.iter().map(|blank| blank.name.clone());
    shipments.chain(blanks).collect()
}

fn about(kept: &Kept) -> String {
    titles(kept).join(", ")
}

fn whole(n: usize) -> i32 {
    i32::try_from(n).unwrap_or(i32::MAX)
}

/// So often a tick is laid on what others wrote in the same moment.
const TRIES: u32 = 8;

impl Desk {
    /// Ticks the cutting steps whose parts lie cut by now, of every shipment of a layout, and opens those again whose parts do not.
    async fn tick_cuts(&self, kept: &Kept) -> Result<(), Problem> {
        for one in &kept.shipments {
            self.tick_cuts_of(one.id).await?;
        }
        Ok(())
    }

    async fn tick_cuts_of(&self, shipment: Uuid) -> Result<(), Problem> {
        for _ in 0..TRIES {
            let Some(stored) = self.store.shipment(shipment).await? else {
                return Ok(());
            };
            if stored.place != Place::Bench {
                return Ok(());
            }
            let cut = self.cut_parts(shipment).await?;
            let house = self.house().await?;
            let at = Timestamp::now().strftime("%FT%TZ").to_string();
            let inputs = stored.inputs.clone();
            let ticks = beside(move || ticks_with_layouts(&inputs, &house.house, &cut, &at)).await;
            // A plan that can't be made has no steps to tick.
            let Ok(packed) = ticks else { return Ok(()) };
            if packed == stored.inputs.packed {
                return Ok(());
            }
            let changed = ShipmentInputs {
                packed,
                ..stored.inputs.clone()
            };
            let unit = self.store.settings().await?.unit;
            if self
                .rewritten(&stored, &changed, (None, unit))
                .await?
                .is_ok()
            {
                return Ok(());
            }
        }
        Err(Problem::busy())
    }

    /// Returns the parts of a shipment that lie cut, from every layout.
    async fn cut_parts(&self, shipment: Uuid) -> Result<Vec<SheetPart>, Problem> {
        let mut parts = Vec::new();
        for (body, done) in self.store.cut_for(shipment).await? {
            // One of an earlier program that can't be read any more cuts nothing.
            let Ok(kept) = serde_json::from_value::<Kept>(body) else {
                continue;
            };
            let done: Vec<usize> = done
                .into_iter()
                .filter_map(|n| usize::try_from(n).ok())
                .collect();
            for (at, _) in kept
                .shipments
                .iter()
                .enumerate()
                .filter(|(_, one)| one.id == shipment)
            {
                parts.extend(SheetPart::of(&kept.laid, at, &done));
            }
        }
        Ok(parts)
    }
}

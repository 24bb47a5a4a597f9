//! A sheet that is cut, and what is kept of it.

use axum::Json;
use hummock_core::{
    Refusals,
    stock::{BatchPlan, BatchSheet, Goods, MaterialCut, SheetGoods, StockItem},
};
use hummock_store::{Draw, DrawnFrom};

use super::{
    goods_of,
    paths::SheetPath,
    print_of,
    views::{CutRequest, CuttingView, Kept},
};
use crate::{body::Body, desk::Desk, problem::Problem, shelf::said_of};

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
            "sheet {n} leaves {} pieces; there is no {strange}",
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

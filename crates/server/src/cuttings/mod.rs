//! Layouts: the parts of one shipment, or of several that are cut together, on what is on the shelf; and the sheets of
//! them that were cut.

mod cut;
mod paths;
mod views;

pub(crate) use paths::CuttingId;
pub(crate) use views::{
    AgainRequest, CutDone, CuttingRequest, CuttingRow, CuttingShipment, CuttingView, Lacking,
};

use std::time::{Duration, Instant};

use axum::{Json, http::StatusCode};
use hummock_core::{
    Refusal, Refusals,
    material::Catalogue,
    shipment::Workings,
    stock::{
        Batch, BatchPlan, BatchSheet, BatchShipment, CutTool, DrawnBlank, DrawnLines, Goods,
        LayoutOf, MaterialCut, OffcutHere, SheetGoods, StockItem,
    },
    ways::left_of,
};
use hummock_store::{HouseAt, StoredCutting};
use serde_json::Value;
use sha2::{Digest as _, Sha256};
use uuid::Uuid;

use crate::{
    body::Body,
    cutting::searched,
    desk::Desk,
    problem::Problem,
    rework::beside,
    routes::{Routes, routes},
};

use cut::titles;
use views::{Kept, KeptShipment};

const MOST_SHIPMENTS: usize = 20;

const MOST_EFFORT: u64 = 100_000;

/// A first layout is there at once.
const FIRST_BUDGET: Duration = Duration::from_secs(3);

const AGAIN_BUDGET: Duration = Duration::from_secs(5);

const LONGEST_BUDGET_MS: u64 = 20_000;

impl Desk {
    /// Lays parts out by the plans as they are now.
    async fn lay_out(
        &self,
        (ids, blanks): (&[Uuid], Vec<DrawnBlank>),
        (of, tool): (LayoutOf, CutTool),
        (seed, effort, budget): (u64, u64, Duration),
    ) -> Result<Kept, Problem> {
        let mut shipments = Vec::with_capacity(ids.len());
        let mut inputs = Vec::with_capacity(ids.len());
        for (at, id) in ids.iter().enumerate() {
            let stored = self.stored(*id).await?;
            let summary = stored.computed.summary.as_ref();
            let Some(fingerprint) = summary.map(|summary| summary.fingerprint.clone()) else {
                let says = format!(
                    "\u{201c}{}\u{201d} has no plan yet: give its size, its make and its surface first",
                    stored.inputs.title
                );
                return Err(vec![Refusal::new(format!("shipments[{at}]"), says)].into());
            };
            shipments.push(KeptShipment {
                id: *id,
                title: stored.inputs.title.clone(),
                fingerprint,
            });
            inputs.push(stored.inputs);
        }
        let house = self.house().await?;
        let currency = house.house.catalogue.currency;
        let offcuts = OffcutHere::on(&self.store.stock().await?);
        let drawn = blanks.clone();
        let laid = searched(move |left| {
            let plans: Result<Vec<_>, _> = inputs
                .iter()
                .map(|inputs| Workings::out(inputs, &house.house))
                .collect();
            let plans = plans?;
            let batch = Batch {
                shipments: plans
                    .iter()
                    .filter_map(|worked| worked.plan.as_ref())
                    .map(|plan| BatchShipment { plan })
                    .collect(),
                blanks: &blanks,
                of,
                tool,
                offcuts,
                catalogue: &house.house.catalogue,
                allowances: &house.house.rules.allowances,
                seed,
                steps: effort,
            };
            let begun = Instant::now();
            Ok::<_, Vec<Refusal>>(batch.lay_out(&mut || left() || begun.elapsed() > budget))
        })
        .await??;
        Ok(Kept {
            of,
            tool,
            seed,
            shipments,
            blanks: drawn,
            currency: Some(currency),
            laid,
        })
    }

    async fn kept(&self, id: Uuid) -> Result<(StoredCutting, Kept), Problem> {
        let stored = self
            .store
            .cutting(id)
            .await?
            .ok_or_else(|| Problem::not_found("layout of that id"))?;
        let kept = serde_json::from_value(stored.body.clone()).map_err(|error| {
            tracing::error!(%error, "a stored layout can't be read");
            Problem::slip()
        })?;
        Ok((stored, kept))
    }

    async fn cutting_view(&self, id: Uuid) -> Result<CuttingView, Problem> {
        let (stored, kept) = self.kept(id).await?;
        let house = self.house().await?;
        let mut shipments = Vec::with_capacity(kept.shipments.len());
        for one in &kept.shipments {
            let now = self.store.shipment(one.id).await?;
            let summary = now.as_ref().and_then(|now| now.computed.summary.as_ref());
            shipments.push(CuttingShipment {
                id: one.id,
                title: one.title.clone(),
                changed: summary.is_none_or(|summary| summary.fingerprint != one.fingerprint),
                wrapped: now.is_some_and(|now| {
                    let typed = now.inputs.choices.wrapped_through;
                    typed.is_some_and(|text| !text.is_empty())
                }),
            });
        }
        let stock = self.store.stock().await?;
        let name_of = |id: &Uuid| {
            let id = id.to_string();
            stock
                .iter()
                .find(|item| item.id == id)
                .map(|item| item.name.clone())
        };
        let done: Vec<CutDone> = stored
            .done
            .iter()
            .map(|done| CutDone {
                n: usize::try_from(done.n).unwrap_or_default(),
                at: done.at,
                kept: done.kept.iter().filter_map(name_of).collect(),
            })
            .collect();
        let lacks = lacking(&kept.laid, &done, &stock, &house);
        Ok(CuttingView {
            id,
            made_at: stored.made_at,
            print: print_of(&stored.body),
            of: kept.of,
            tool: kept.tool,
            kerf_mm: kept.tool.kerf(&house.house.rules.allowances).as_mm(),
            gap: kept.laid.gap(),
            currency: kept.currency.unwrap_or(house.house.catalogue.currency),
            shipments,
            blanks: kept.blanks,
            laid: kept.laid,
            done,
            lacks,
        })
    }
}

/// Returns the new sheets that are not cut yet and not on the shelf.
fn lacking(
    laid: &BatchPlan,
    done: &[CutDone],
    stock: &[StockItem],
    house: &HouseAt,
) -> Vec<Lacking> {
    let mut lacks = Vec::new();
    for cut in &laid.materials {
        for open in &cut.opens {
            let open_sheets = cut.sheets.iter().filter(|sheet| {
                let same = sheet.width == open.width && sheet.height == open.height;
                same && sheet.offcut.is_none() && done.iter().all(|done| done.n != sheet.n)
            });
            let needs = u32::try_from(open_sheets.clone().count()).unwrap_or(u32::MAX);
            let Some(sheet) = open_sheets.clone().next() else {
                continue;
            };
            let goods = goods_of(cut, sheet);
            let left = left_of(&goods, stock, &house.house.catalogue);
            if let Some(left) = left.filter(|left| *left < i64::from(needs)) {
                lacks.push(Lacking {
                    name: cut.name.clone(),
                    width_mm: open.width.as_mm(),
                    height_mm: open.height.as_mm(),
                    needs,
                    left,
                });
            }
        }
    }
    lacks
}

fn goods_of(cut: &MaterialCut, sheet: &BatchSheet) -> Goods {
    Goods::Sheet(SheetGoods {
        material: cut.material.clone(),
        width: sheet.width,
        height: sheet.height,
        thickness: sheet.thickness,
    })
}

/// Lays parts out on offcuts and new sheets, and keeps the layout.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "make_cutting", post, path = "/cuttings", tag = "cuttings", request_body = CuttingRequest,
    responses(
        (status = 201, description = "The layout", body = CuttingView),
        (status = 404, description = "There is no such shipment", body = Problem),
        (status = 422, description = "Values that were refused, each with its field", body = Problem),
    ),
))]
pub(crate) async fn make(
    desk: Desk,
    Body(request): Body<CuttingRequest>,
) -> Result<(StatusCode, Json<CuttingView>), Problem> {
    let id = request.id.unwrap_or_else(Uuid::now_v7);
    if desk.store.cutting(id).await?.is_some() {
        return Ok((StatusCode::CREATED, Json(desk.cutting_view(id).await?)));
    }
    let mut ids = request.shipments;
    let mut seen = std::collections::BTreeSet::new();
    ids.retain(|id| seen.insert(*id));
    if ids.len() > MOST_SHIPMENTS
        || request.blanks.len() > MOST_SHIPMENTS
        || ids.len() + request.blanks.len() == 0
    {
        let says = format!("name 1 to {MOST_SHIPMENTS} shipments, or give a blank");
        return Err(vec![Refusal::new("shipments", says)].into());
    }
    effort_fits(request.effort)?;
    let how = (1, request.effort, FIRST_BUDGET);
    let house = desk.house().await?;
    let lines = request.blanks;
    let blanks = beside(move || looked_over(&lines, &house.house.catalogue)).await?;
    let kept = desk
        .lay_out((&ids, blanks), (request.of, request.tool), how)
        .await?;
    keep(&desk, id, &kept).await?;
    Ok((StatusCode::CREATED, Json(desk.cutting_view(id).await?)))
}

/// Looks over blanks that were drawn elsewhere.
fn looked_over(
    lines: &[DrawnLines],
    catalogue: &Catalogue,
) -> Result<Vec<DrawnBlank>, Vec<Refusal>> {
    let mut blanks = Vec::with_capacity(lines.len());
    let mut refusals = Refusals::default();
    for (at, lines) in lines.iter().enumerate() {
        match lines.checked(catalogue) {
            Ok(blank) => blanks.push(blank),
            Err(refused) => refusals.extend(refused.into_iter().map(|refusal| {
                Refusal::new(format!("blanks[{at}].{}", refusal.field), refusal.message)
            })),
        }
    }
    refusals.or(blanks)
}

/// Tells one layout of an id from another.
fn print_of(body: &Value) -> String {
    const BYTES: usize = 8;
    Sha256::digest(body.to_string())
        .iter()
        .take(BYTES)
        .map(|byte| format!("{byte:02x}"))
        .collect()
}

fn effort_fits(effort: u64) -> Result<(), Problem> {
    if effort <= MOST_EFFORT {
        return Ok(());
    }
    let says = format!("{effort} is out of range: give 0 to {MOST_EFFORT} steps");
    Err(vec![Refusal::new("effort", says)].into())
}

async fn keep(desk: &Desk, id: Uuid, kept: &Kept) -> Result<(), Problem> {
    let body = serde_json::to_value(kept).expect("a layout can be written");
    if desk.store.keep_cutting(id, &body).await? {
        Ok(())
    } else {
        Err(Problem::begun())
    }
}

/// Looks once more: by the plans and the shelf as they are now. Where neither plans nor parts nor tool changed, the better of
/// the two layouts stays.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "cut_again", post, path = "/cuttings/{id}/again", tag = "cuttings", request_body = AgainRequest,
    params(("id" = Uuid, Path, description = "Which")),
    responses(
        (status = 200, description = "The layout", body = CuttingView),
        (status = 404, description = "There is no such layout, or a shipment is gone", body = Problem),
        (status = 409, description = "Some of it is cut already", body = Problem),
        (status = 422, description = "Values that were refused, each with its field", body = Problem),
    ),
))]
pub(crate) async fn again(
    desk: Desk,
    CuttingId(id): CuttingId,
    Body(request): Body<AgainRequest>,
) -> Result<Json<CuttingView>, Problem> {
    effort_fits(request.effort)?;
    let budget = match request.budget_ms {
        Some(ms) if !(1..=LONGEST_BUDGET_MS).contains(&ms) => {
            let says = format!("{ms} is out of range: give 1 to {LONGEST_BUDGET_MS} ms");
            return Err(vec![Refusal::new("budget_ms", says)].into());
        }
        Some(ms) => Duration::from_millis(ms),
        None => AGAIN_BUDGET,
    };
    let (stored, before) = desk.kept(id).await?;
    if !stored.done.is_empty() {
        return Err(Problem::begun());
    }
    let ids: Vec<Uuid> = before.shipments.iter().map(|one| one.id).collect();
    let what = (
        request.of.unwrap_or(before.of),
        request.tool.unwrap_or(before.tool),
    );
    let how = (request.seed, request.effort, budget);
    let now = desk
        .lay_out((&ids, before.blanks.clone()), what, how)
        .await?;
    let same_prints = before
        .shipments
        .iter()
        .zip(&now.shipments)
        .all(|(before, now)| before.fingerprint == now.fingerprint);
    let stock = desk.store.stock().await?;
    let there = before.laid.sheets().all(|(_, sheet)| {
        let offcut = sheet.offcut.as_ref();
        offcut.is_none_or(|offcut| stock.iter().any(|item| item.id == offcut.id))
    });
    let same = same_prints && there && what == (before.of, before.tool);
    let rank = |kept: &Kept| (kept.laid.cost, kept.laid.sheets().count());
    let better = !same || rank(&now) < rank(&before);
    if better {
        keep(&desk, id, &now).await?;
    }
    Ok(Json(desk.cutting_view(id).await?))
}

/// Returns a layout.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "show_cutting", get, path = "/cuttings/{id}", tag = "cuttings",
    params(("id" = Uuid, Path, description = "Which")),
    responses(
        (status = 200, description = "The layout", body = CuttingView),
        (status = 404, description = "There is no such layout", body = Problem),
    ),
))]
pub(crate) async fn show(
    desk: Desk,
    CuttingId(id): CuttingId,
) -> Result<Json<CuttingView>, Problem> {
    Ok(Json(desk.cutting_view(id).await?))
}

/// Returns the newest layouts, 50 at most.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "list_cuttings", get, path = "/cuttings", tag = "cuttings",
    responses((status = 200, description = "The newest first", body = [CuttingRow])),
))]
pub(crate) async fn list(desk: Desk) -> Result<Json<Vec<CuttingRow>>, Problem> {
    let rows = desk.store.cuttings().await?;
    let row = |stored: StoredCutting| {
        let kept: Kept = serde_json::from_value(stored.body).ok()?;
        Some(CuttingRow {
            id: stored.id,
            made_at: stored.made_at,
            titles: titles(&kept),
            of: kept.of,
            sheets: kept.laid.sheets().count(),
        })
    };
    Ok(Json(rows.into_iter().filter_map(row).collect()))
}

/// Returns whose parts a layout has, and the layout.
pub(crate) async fn told_layout(
    desk: &Desk,
    id: Uuid,
) -> Result<(Vec<String>, BatchPlan), Problem> {
    let (_, kept) = desk.kept(id).await?;
    Ok((titles(&kept), kept.laid))
}

pub(crate) fn routes() -> Routes {
    routes![
        post "/cuttings" => make,
        get "/cuttings" => list,
        get "/cuttings/{id}" => show,
        post "/cuttings/{id}/again" => again,
        put "/cuttings/{id}/sheets/{n}" => cut::cut,
        delete "/cuttings/{id}/sheets/{n}" => cut::not_cut,
    ]
}

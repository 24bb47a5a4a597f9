//! Layouts: the parts of one shipment, or of several that are cut together, on what is on the shelf; and the sheets of
//! them that were cut.

use std::time::{Duration, Instant};

use axum::{Json, extract::Path, http::StatusCode};
use hummock_core::{
    Refusal, Refusals,
    material::Catalogue,
    quantity::Currency,
    shipment::Worked,
    stock::{
        Batch, BatchPlan, BatchSheet, BatchShipment, CutTool, DrawnBlank, DrawnLines, Goods,
        LayoutOf, MaterialCut, OffcutHere, SheetGoods, StockItem,
    },
    ways::left_of,
};
use hummock_store::{Draw, DrawnFrom, HouseAt, StoredCutting};
use serde::{Deserialize, Serialize};
use serde_json::Value;
use sha2::{Digest as _, Sha256};
use uuid::Uuid;

use crate::{
    body::{Body, id_in},
    cutting::searched,
    desk::Desk,
    problem::Problem,
    rework::beside,
    routes::{Routes, routes},
    shelf::said_of,
};

/// What to lay out.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct CuttingRequest {
    /// Chosen by the caller, so that asking twice makes one.
    #[serde(default)]
    id: Option<Uuid>,
    /// Whose parts, 20 at most; none where only blanks that were drawn elsewhere are cut.
    #[serde(default)]
    shipments: Vec<Uuid>,
    /// Blanks that were drawn elsewhere, 20 at most.
    #[serde(default)]
    blanks: Vec<DrawnLines>,
    /// Which of their parts; all when left out.
    #[serde(default)]
    of: LayoutOf,
    /// What cuts; a knife when left out.
    #[serde(default)]
    tool: CutTool,
    /// Steps for each choice of sheets, 0 to 100 000; 1000 when left out.
    #[serde(default = "thousand")]
    effort: u64,
}

/// What to look for once more.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct AgainRequest {
    /// Another seed finds another layout; the better of the two stays, unless a plan has changed.
    seed: u64,
    /// Steps for each choice of sheets, 0 to 100 000; 1000 when left out.
    #[serde(default = "thousand")]
    effort: u64,
    /// Stopped after so many milliseconds with the best so far, 1 to 20 000; after 5000 when left out.
    #[serde(default)]
    budget_ms: Option<u64>,
    /// What cuts; as before when left out.
    #[serde(default)]
    tool: Option<CutTool>,
    /// Which parts; as before when left out.
    #[serde(default)]
    of: Option<LayoutOf>,
}

const fn thousand() -> u64 {
    1000
}

/// What is kept of a sheet that was cut.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct CutRequest {
    /// Each piece of its rest that is kept, counted from 0.
    #[serde(default)]
    keep: Vec<usize>,
    /// Where they are put.
    #[serde(default)]
    place: String,
    /// The `print` of the layout that was looked at; whatever it is by now when left out.
    #[serde(default)]
    print: Option<String>,
}

/// A layout as it is stored.
#[derive(Debug, Clone, Serialize, Deserialize)]
struct Kept {
    of: LayoutOf,
    tool: CutTool,
    seed: u64,
    shipments: Vec<KeptShipment>,
    #[serde(default)]
    blanks: Vec<DrawnBlank>,
    laid: BatchPlan,
}

#[derive(Debug, Clone, Serialize, Deserialize)]
struct KeptShipment {
    id: Uuid,
    title: String,
    fingerprint: String,
}

/// A layout.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct CuttingView {
    /// Which.
    id: Uuid,
    /// In seconds since 1970.
    made_at: i64,
    /// Changes whenever it is laid out anew; send it with a sheet that is cut.
    print: String,
    /// Which parts it is of.
    of: LayoutOf,
    /// What cuts.
    tool: CutTool,
    /// What the blade takes away beyond each line.
    kerf_mm: f64,
    /// Whose parts they are; a part names one by its place here.
    shipments: Vec<CuttingShipment>,
    /// Blanks that were drawn elsewhere; their parts name the shipment after the last.
    blanks: Vec<DrawnBlank>,
    /// The sheets, material by material.
    laid: BatchPlan,
    /// How far it is over the least that it could cost, as a share; nothing where no new sheet is opened.
    gap: Option<f64>,
    /// Of every price.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    currency: Currency,
    /// The sheets that were cut.
    done: Vec<CutDone>,
    /// New sheets that the shelf lacks for what is not cut yet.
    lacks: Vec<Lacking>,
}

/// A shipment whose parts are cut.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct CuttingShipment {
    /// Which.
    id: Uuid,
    /// What it is called.
    title: String,
    /// Whether its plan has changed since, or it is gone.
    changed: bool,
    /// Whether its wrapped piece was measured, so that its box fits what is there.
    wrapped: bool,
}

/// A sheet that was cut.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct CutDone {
    /// Which, counted from 1.
    n: usize,
    /// In seconds since 1970.
    at: i64,
    /// What was kept of it, as it is called.
    kept: Vec<String>,
}

/// Sheets of a size that the shelf lacks.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct Lacking {
    /// What they are of.
    name: String,
    /// Across.
    width_mm: f64,
    /// Up.
    height_mm: f64,
    /// How many are still to be opened.
    needs: u32,
    /// How many there are.
    left: i64,
}

/// A layout among others.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct CuttingRow {
    /// Which.
    id: Uuid,
    /// In seconds since 1970.
    made_at: i64,
    /// Whose parts.
    titles: Vec<String>,
    /// Which parts it is of.
    of: LayoutOf,
    /// How many sheets it takes.
    sheets: usize,
}

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
        let offcuts = OffcutHere::on(&self.store.stock().await?);
        let drawn = blanks.clone();
        let laid = searched(move |left| {
            let plans: Result<Vec<_>, _> = inputs
                .iter()
                .map(|inputs| Worked::out(inputs, &house.house))
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
            currency: house.house.catalogue.currency,
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
    let says = format!("it is {effort}; try 0 to {MOST_EFFORT} steps");
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
            let says = format!("it is {ms}; give 1 to {LONGEST_BUDGET_MS}");
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
                width: sheet.rest[at].width,
                height: sheet.rest[at].height,
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

/// Returns whose parts a layout has, and the layout.
pub(crate) async fn told_layout(
    desk: &Desk,
    id: Uuid,
) -> Result<(Vec<String>, BatchPlan), Problem> {
    let (_, kept) = desk.kept(id).await?;
    Ok((titles(&kept), kept.laid))
}

fn titles(kept: &Kept) -> Vec<String> {
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

/// The id in the path; one that is none is not found.
pub(crate) struct CuttingId(pub(crate) Uuid);

impl<S: Send + Sync> axum::extract::FromRequestParts<S> for CuttingId {
    type Rejection = Problem;

    async fn from_request_parts(
        parts: &mut axum::http::request::Parts,
        state: &S,
    ) -> Result<Self, Problem> {
        id_in(parts, state, "layout of that id").await.map(Self)
    }
}

/// A sheet of a layout; one that is none is not found.
pub(crate) struct SheetPath {
    cutting: Uuid,
    n: usize,
}

impl<S: Send + Sync> axum::extract::FromRequestParts<S> for SheetPath {
    type Rejection = Problem;

    async fn from_request_parts(
        parts: &mut axum::http::request::Parts,
        state: &S,
    ) -> Result<Self, Problem> {
        let found: Result<Path<(Uuid, usize)>, _> = Path::from_request_parts(parts, state).await;
        found
            .map(|Path((cutting, n))| Self { cutting, n })
            .map_err(|_| Problem::not_found("sheet of that number in the layout"))
    }
}

pub(crate) fn routes() -> Routes {
    routes![
        post "/cuttings" => make,
        get "/cuttings" => list,
        get "/cuttings/{id}" => show,
        post "/cuttings/{id}/again" => again,
        put "/cuttings/{id}/sheets/{n}" => cut,
        delete "/cuttings/{id}/sheets/{n}" => not_cut,
    ]
}

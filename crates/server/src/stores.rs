//! Stores: the catalogue by class, one material at a time or as a table.

use std::sync::Arc;

use axum::{
    Json,
    extract::{FromRequestParts, Path},
    http::{HeaderValue, header, request::Parts},
    response::{IntoResponse, Response},
};
use hummock_core::{
    Refusal, Refusals,
    material::{Catalogue, MaterialClass, MaterialId},
    shipment::{House, Workings},
    text::refused_text,
};
use hummock_store::HouseAt;
use serde::{Deserialize, Serialize};
use serde_json::Value;

use crate::{
    body::{Asked, Body},
    desk::Desk,
    house::Affected,
    problem::Problem,
    rework::beside,
    table::{read_table, write_table},
};

/// The stores at a version.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct StoresView {
    /// Counts up with every change; send it back with the next one.
    version: i32,
    /// Every material.
    catalogue: Catalogue,
}

impl StoresView {
    fn of(house: &HouseAt) -> Self {
        Self {
            version: house.stores_version,
            catalogue: house.house.catalogue.clone(),
        }
    }
}

/// A material to put on the shelf.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct MaterialRequest {
    /// The version of the stores that it is based on.
    version: i32,
    /// The material, with the fields of its class.
    #[cfg_attr(feature = "schema", schema(value_type = Object))]
    material: Value,
}

/// A table of materials to read in.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct TableRequest {
    /// The version of the stores that it is based on.
    version: i32,
    /// Comma-separated values with a head, as the table that is given out.
    csv: String,
    /// Whether to only say what would happen.
    #[serde(default)]
    dry_run: bool,
}

/// What a table does, or would do.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct TableResult {
    /// Ids that are new.
    added: Vec<String>,
    /// Ids that change.
    changed: Vec<String>,
    /// Ids that stay as they are.
    same: usize,
    /// The shipments that change with them.
    affected: Vec<Affected>,
    /// The stores as they are now.
    stores: StoresView,
}

/// Which version a change is based on.
#[derive(Debug, Deserialize)]
pub(crate) struct BasedOn {
    version: i32,
}

/// The class in the path; one that there is not is not found.
#[derive(Debug, Clone)]
pub(crate) struct ClassPath {
    class: MaterialClass,
    id: Option<MaterialId>,
}

impl<S: Send + Sync> FromRequestParts<S> for ClassPath {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Self, Problem> {
        let Path(path) =
            Path::<std::collections::HashMap<String, String>>::from_request_parts(parts, state)
                .await
                .map_err(|_| Problem::not_found("class of that name"))?;
        let class = path
            .get("class")
            .and_then(|key| MaterialClass::of_key(key))
            .ok_or_else(|| Problem::not_found("class of that name"))?;
        if let Some(refusal) = path.get("id").and_then(|id| refused_text("id", id)) {
            return Err(vec![refusal].into());
        }
        let id = path.get("id").map(MaterialId::new);
        Ok(Self { class, id })
    }
}

impl Desk {
    /// Writes other stores in place of those of a house; `None` if the house changed meanwhile.
    pub(crate) async fn changed_to(
        &self,
        house: &HouseAt,
        based_on: i32,
        catalogue: Catalogue,
    ) -> Result<Option<StoresView>, Problem> {
        let made = self
            .store
            .change_catalogue(house.version, based_on, &catalogue)
            .await;
        Ok(self
            .changed(made)?
            .map(|version| StoresView { version, catalogue }))
    }

    /// Names what uses a material: a rule of the house, presets and shipments on the bench.
    async fn uses_of(&self, house: Arc<HouseAt>, id: &MaterialId) -> Result<Vec<String>, Problem> {
        let names = |rules: &hummock_core::house::HouseRules| {
            rules
                .materials
                .named()
                .iter()
                .any(|(_, named)| *named == id)
        };
        let mut uses = Vec::new();
        if names(&house.house.rules) {
            uses.push("the house rules".to_owned());
        }
        for preset in &house.house.presets {
            if names(preset) {
                uses.push(format!("the preset {}", preset.name));
            }
        }
        let open = self.store.on_the_bench().await?;
        let id = id.clone();
        let titles = beside(move || {
            open.into_iter()
                .filter(|shipment| {
                    let plan = Workings::out(&shipment.inputs, &house.house)
                        .ok()
                        .and_then(|worked| worked.plan);
                    plan.is_some_and(|plan| plan.is_made_of(&id))
                        || shipment.inputs.choices.name_material(&id)
                })
                .map(|shipment| format!("\u{201c}{}\u{201d}", shipment.inputs.title))
                .collect::<Vec<_>>()
        });
        uses.extend(titles.await);
        Ok(uses)
    }
}

/// Returns the stores.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "show_stores", get, path = "/stores", tag = "stores",
    responses((status = 200, description = "Every material", body = StoresView)),
))]
pub(crate) async fn show(desk: Desk) -> Result<Json<StoresView>, Problem> {
    Ok(Json(StoresView::of(&*desk.house().await?)))
}

/// Puts a material on the shelf, in place of the one of its id.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "put_material", put, path = "/stores/{class}/{id}", tag = "stores", request_body = MaterialRequest,
    params(("class" = String, Path, description = "As `boards`"), ("id" = String, Path, description = "As `corrugated-c`")),
    responses(
        (status = 200, description = "The stores as they are now", body = StoresView),
        (status = 404, description = "There is no such class", body = Problem),
        (status = 409, description = "The stores changed since", body = Problem),
        (status = 422, description = "Values that were refused, each with its field", body = Problem),
    ),
))]
pub(crate) async fn put(
    desk: Desk,
    ClassPath { class, id }: ClassPath,
    Body(request): Body<MaterialRequest>,
) -> Result<Json<StoresView>, Problem> {
    if request.material["id"].as_str() != id.as_ref().map(MaterialId::as_str) {
        return Err(vec![Refusal::new("id", "it differs from the id in the address")].into());
    }
    let mut tries = desk.tries();
    loop {
        let house = tries.next().await?;
        let material = request.material.clone();
        let catalogue = house.house.catalogue.with(class, material)?;
        if let Some(stores) = desk.changed_to(&house, request.version, catalogue).await? {
            return Ok(Json(stores));
        }
    }
}

/// Which version of the stores somebody looked at.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct CheckedRequest {
    /// The version of the stores.
    version: i32,
}

/// Says that every price in the stores is right as it stands: none is marked as to be checked any more.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "prices_are_checked", post, path = "/stores/prices-checked", tag = "stores", request_body = CheckedRequest,
    responses(
        (status = 200, description = "The stores as they are now", body = StoresView),
        (status = 409, description = "The stores changed since", body = Problem),
    ),
))]
pub(crate) async fn prices_checked(
    desk: Desk,
    Body(request): Body<CheckedRequest>,
) -> Result<Json<StoresView>, Problem> {
    let mut tries = desk.tries();
    loop {
        let house = tries.next().await?;
        let catalogue = house.house.catalogue.all_looked_at();
        if let Some(stores) = desk.changed_to(&house, request.version, catalogue).await? {
            return Ok(Json(stores));
        }
    }
}

/// Takes a material off the shelf for good; one that is in use can only be retired.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "delete_material", delete, path = "/stores/{class}/{id}", tag = "stores",
    params(
        ("class" = String, Path, description = "As `boards`"), ("id" = String, Path, description = "As `corrugated-c`"),
        ("version" = i32, Query, description = "The version of the stores that it is based on"),
    ),
    responses(
        (status = 200, description = "The stores as they are now", body = StoresView),
        (status = 404, description = "There is no such material", body = Problem),
        (status = 409, description = "It is in use, or the stores changed since", body = Problem),
    ),
))]
pub(crate) async fn delete(
    desk: Desk,
    ClassPath { class, id }: ClassPath,
    Asked(based_on): Asked<BasedOn>,
) -> Result<Json<StoresView>, Problem> {
    let mut tries = desk.tries();
    loop {
        let house = tries.next().await?;
        let id = id
            .as_ref()
            .filter(|id| house.house.catalogue.holds(class, id))
            .ok_or_else(|| Problem::not_found("material of that id"))?;
        let uses = desk.uses_of(Arc::clone(&house), id).await?;
        if !uses.is_empty() {
            return Err(Problem::in_use(&uses));
        }
        let less = house.house.catalogue.without(class, id);
        if let Some(stores) = desk.changed_to(&house, based_on.version, less).await? {
            return Ok(Json(stores));
        }
    }
}

/// Returns a class as comma-separated values with a head.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "show_table", get, path = "/stores/{class}/table", tag = "stores",
    params(("class" = String, Path, description = "As `boards`")),
    responses(
        (status = 200, description = "A table", body = String, content_type = "text/csv"),
        (status = 404, description = "There is no such class", body = Problem),
    ),
))]
pub(crate) async fn show_table(
    desk: Desk,
    ClassPath { class, .. }: ClassPath,
) -> Result<Response, Problem> {
    let table = write_table(&desk.house().await?.house.catalogue.class(class));
    let name = format!("attachment; filename=\"{}.csv\"", class.key());
    let named = HeaderValue::from_str(&name).expect("keys of classes are plain letters");
    let kind = HeaderValue::from_static("text/csv; charset=utf-8");
    let headers = [
        (header::CONTENT_TYPE, kind),
        (header::CONTENT_DISPOSITION, named),
    ];
    Ok((headers, table).into_response())
}

/// Reads a table in: materials of known ids change, the others are added, none is taken away.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "read_table", post, path = "/stores/{class}/table", tag = "stores", request_body = TableRequest,
    params(("class" = String, Path, description = "As `boards`")),
    responses(
        (status = 200, description = "What it did, or would do", body = TableResult),
        (status = 404, description = "There is no such class", body = Problem),
        (status = 409, description = "The stores changed since", body = Problem),
        (status = 422, description = "Values that were refused, each with its line and column", body = Problem),
    ),
))]
pub(crate) async fn take_table(
    desk: Desk,
    ClassPath { class, .. }: ClassPath,
    Body(request): Body<TableRequest>,
) -> Result<Json<TableResult>, Problem> {
    let lines = read_table(class, &request.csv)?;
    let mut tries = desk.tries();
    loop {
        let house = tries.next().await?;
        let Read {
            catalogue,
            added,
            changed,
            same,
        } = Read::of(&house.house.catalogue, class, &lines)?;
        let then = House {
            catalogue: catalogue.clone(),
            ..house.house.clone()
        };
        let affected = desk.effects_of(Arc::clone(&house), then).await?.affected;
        let stores = if request.dry_run {
            let version = request.version;
            Some(StoresView { version, catalogue })
        } else {
            desk.changed_to(&house, request.version, catalogue).await?
        };
        if let Some(stores) = stores {
            return Ok(Json(TableResult {
                added,
                changed,
                same,
                affected,
                stores,
            }));
        }
    }
}

/// A catalogue with the lines of a table, and what they did to it.
struct Read {
    catalogue: Catalogue,
    added: Vec<String>,
    changed: Vec<String>,
    same: usize,
}

impl Read {
    fn of(
        catalogue: &Catalogue,
        class: MaterialClass,
        lines: &[(u64, Value)],
    ) -> Result<Self, Vec<Refusal>> {
        let mut read = Self {
            catalogue: catalogue.clone(),
            added: Vec::new(),
            changed: Vec::new(),
            same: 0,
        };
        let mut refusals = Refusals::default();
        for (line, material) in lines {
            let id = MaterialId::new(material["id"].as_str().unwrap_or_default());
            match read.catalogue.with(class, material.clone()) {
                Ok(next) if next == read.catalogue => read.same += 1,
                Ok(next) => {
                    let list = if read.catalogue.holds(class, &id) {
                        &mut read.changed
                    } else {
                        &mut read.added
                    };
                    list.push(id.to_string());
                    read.catalogue = next;
                }
                Err(refused) => refusals.extend(refused.into_iter().map(|refusal| {
                    Refusal::new(format!("line {line}, {}", refusal.field), refusal.message)
                })),
            }
        }
        refusals.or(read)
    }
}

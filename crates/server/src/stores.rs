//! Stores: the catalogue by class, one material at a time or as a table.

use axum::{
    Json,
    extract::{FromRequestParts, Path, Query, State},
    http::{HeaderValue, header, request::Parts},
    response::{IntoResponse, Response},
};
use hummock_core::{
    Refusal,
    material::{Catalogue, MaterialClass, MaterialId},
    shipment::{House, Worked},
};
use serde::{Deserialize, Serialize};
use serde_json::Value;
use utoipa::ToSchema;

use crate::{
    app::App,
    body::Body,
    house::Affected,
    problem::Problem,
    table::{read_table, write_table},
};

/// The stores at a version.
#[derive(Debug, Serialize, ToSchema)]
pub(crate) struct StoresView {
    /// Counts up with every change; send it back with the next one.
    version: i32,
    /// Every material.
    catalogue: Catalogue,
}

/// A material to put on the shelf.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct MaterialRequest {
    /// The version of the stores that it is based on.
    version: i32,
    /// The material, with the fields of its class.
    #[schema(value_type = Object)]
    material: Value,
}

/// A table of materials to read in.
#[derive(Debug, Deserialize, ToSchema)]
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
#[derive(Debug, Serialize, ToSchema)]
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
        let id = path.get("id").map(MaterialId::new);
        Ok(Self { class, id })
    }
}

impl App {
    async fn changed_to(&self, based_on: i32, catalogue: Catalogue) -> Result<StoresView, Problem> {
        let house = self.house().await?;
        let then = House { catalogue, ..house };
        let recomputed = self.recomputed(&then).await?;
        let version = self
            .store
            .change_catalogue(self.studio, based_on, &then.catalogue, &recomputed)
            .await?;
        Ok(StoresView {
            version,
            catalogue: then.catalogue,
        })
    }

    /// Names what uses a material: a rule of the house, presets and shipments.
    async fn uses_of(&self, id: &MaterialId) -> Result<Vec<String>, Problem> {
        let house = self.house().await?;
        let names = |rules: &hummock_core::house::HouseRules| {
            rules
                .materials
                .named()
                .iter()
                .any(|(_, named)| *named == id)
        };
        let mut uses = Vec::new();
        if names(&house.rules) {
            uses.push("the house rules".to_owned());
        }
        for preset in self.store.presets(self.studio).await? {
            if names(&preset) {
                uses.push(format!("the preset {}", preset.name));
            }
        }
        for shipment in self.store.shipments(self.studio).await? {
            let plan = Worked::out(&shipment.inputs, &house)
                .ok()
                .and_then(|worked| worked.plan);
            let made_of = plan.is_some_and(|plan| plan.is_made_of(id));
            if made_of || shipment.inputs.choices.name_material(id) {
                uses.push(format!("\u{201c}{}\u{201d}", shipment.inputs.title));
            }
        }
        Ok(uses)
    }
}

/// Returns the stores.
#[utoipa::path(
    operation_id = "show_stores", get, path = "/stores", tag = "stores",
    responses((status = 200, description = "Every material", body = StoresView)),
)]
pub(crate) async fn show(State(app): State<App>) -> Result<Json<StoresView>, Problem> {
    let version = app.store.catalogue_version(app.studio).await?;
    let catalogue = app.house().await?.catalogue;
    Ok(Json(StoresView { version, catalogue }))
}

/// Puts a material on the shelf, in place of the one of its id.
#[utoipa::path(
    operation_id = "put_material", put, path = "/stores/{class}/{id}", tag = "stores", request_body = MaterialRequest,
    params(("class" = String, Path, description = "As `boards`"), ("id" = String, Path, description = "As `corrugated-c`")),
    responses(
        (status = 200, description = "The stores as they are now", body = StoresView),
        (status = 404, description = "There is no such class", body = Problem),
        (status = 409, description = "The stores changed since", body = Problem),
        (status = 422, description = "Values that can't stand, each with its field", body = Problem),
    ),
)]
pub(crate) async fn put(
    State(app): State<App>,
    ClassPath { class, id }: ClassPath,
    Body(request): Body<MaterialRequest>,
) -> Result<Json<StoresView>, Problem> {
    if request.material["id"].as_str() != id.as_ref().map(MaterialId::as_str) {
        return Err(vec![Refusal::new("id", "it differs from the id in the address")].into());
    }
    let catalogue = app.house().await?.catalogue.with(class, request.material)?;
    Ok(Json(app.changed_to(request.version, catalogue).await?))
}

/// Takes a material off the shelf for good; one that is in use can only be retired.
#[utoipa::path(
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
)]
pub(crate) async fn delete(
    State(app): State<App>,
    ClassPath { class, id }: ClassPath,
    Query(based_on): Query<BasedOn>,
) -> Result<Json<StoresView>, Problem> {
    let catalogue = app.house().await?.catalogue;
    let id = id
        .filter(|id| catalogue.holds(class, id))
        .ok_or_else(|| Problem::not_found("material of that id"))?;
    let uses = app.uses_of(&id).await?;
    if !uses.is_empty() {
        return Err(Problem::in_use(&uses));
    }
    let less = catalogue.without(class, &id);
    Ok(Json(app.changed_to(based_on.version, less).await?))
}

/// Returns a class as comma-separated values with a head.
#[utoipa::path(
    operation_id = "show_table", get, path = "/stores/{class}/table", tag = "stores",
    params(("class" = String, Path, description = "As `boards`")),
    responses(
        (status = 200, description = "A table", body = String, content_type = "text/csv"),
        (status = 404, description = "There is no such class", body = Problem),
    ),
)]
pub(crate) async fn show_table(
    State(app): State<App>,
    ClassPath { class, .. }: ClassPath,
) -> Result<Response, Problem> {
    let table = write_table(&app.house().await?.catalogue.class(class));
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
#[utoipa::path(
    operation_id = "read_table", post, path = "/stores/{class}/table", tag = "stores", request_body = TableRequest,
    params(("class" = String, Path, description = "As `boards`")),
    responses(
        (status = 200, description = "What it did, or would do", body = TableResult),
        (status = 404, description = "There is no such class", body = Problem),
        (status = 409, description = "The stores changed since", body = Problem),
        (status = 422, description = "Values that can't stand, each with its line and column", body = Problem),
    ),
)]
pub(crate) async fn take_table(
    State(app): State<App>,
    ClassPath { class, .. }: ClassPath,
    Body(request): Body<TableRequest>,
) -> Result<Json<TableResult>, Problem> {
    let house = app.house().await?;
    let (mut added, mut changed, mut same) = (Vec::new(), Vec::new(), 0);
    let mut refusals = Vec::new();
    let mut catalogue = house.catalogue.clone();
    for (line, material) in read_table(&request.csv)? {
        let id = MaterialId::new(material["id"].as_str().unwrap_or_default());
        match catalogue.with(class, material) {
            Ok(next) if next == catalogue => same += 1,
            Ok(next) => {
                let list = if catalogue.holds(class, &id) {
                    &mut changed
                } else {
                    &mut added
                };
                list.push(id.to_string());
                catalogue = next;
            }
            Err(refused) => refusals.extend(refused.into_iter().map(|refusal| {
                Refusal::new(format!("line {line}, {}", refusal.field), refusal.message)
            })),
        }
    }
    if !refusals.is_empty() {
        return Err(refusals.into());
    }
    let then = House { catalogue, ..house };
    let affected = app.effects_of(&then).await?.affected;
    let stores = if request.dry_run {
        StoresView {
            version: request.version,
            catalogue: then.catalogue,
        }
    } else {
        app.changed_to(request.version, then.catalogue).await?
    };
    Ok(Json(TableResult {
        added,
        changed,
        same,
        affected,
        stores,
    }))
}

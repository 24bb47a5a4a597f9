//! Documents: true-scale drawings and cut lists. What is drawn comes from the core; PDF, SVG and DXF are made by a small
//! process of their own, which may come later than this one, and which takes nothing with it when it fails.

mod cut_list;
mod lines;
mod papers;

pub(crate) use papers::code_of;

use axum::response::IntoResponse as _;
use axum::{
    Json,
    extract::{FromRequestParts, Path},
    http::{HeaderValue, header, request::Parts},
    response::Response,
};
use hummock_core::{
    container::Carton,
    drawing::Drawing,
    layer::Make,
    plan::Plan,
    quantity::Telling,
    shipment::{ShipmentInputs, Workings},
    stock::{BatchSheet, MaterialCut},
};
use serde::{Deserialize, Serialize};
use serde_json::{Value, json};

use crate::{
    body::{Asked, ShipmentId},
    cuttings::{CuttingId, told_layout},
    desk::Desk,
    press::Page,
    problem::Problem,
    routes::{Routes, routes},
};

/// Whether documents can be made.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct DocumentsView {
    /// The program that makes them is there; after a first start it takes some minutes.
    ready: bool,
}

/// What a drawing is written as.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Format {
    Pdf,
    Svg,
    Dxf,
}

impl Format {
    fn of(key: &str) -> Option<Self> {
        match key {
            "pdf" => Some(Self::Pdf),
            "svg" => Some(Self::Svg),
            "dxf" => Some(Self::Dxf),
            _ => None,
        }
    }

    const fn content_type(self) -> &'static str {
        match self {
            Self::Pdf => "application/pdf",
            Self::Svg => "image/svg+xml",
            Self::Dxf => "image/vnd.dxf",
        }
    }

    const fn key(self) -> &'static str {
        match self {
            Self::Pdf => "pdf",
            Self::Svg => "svg",
            Self::Dxf => "dxf",
        }
    }
}

/// Which drawing, and on what.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::IntoParams))]
#[cfg_attr(feature = "schema", into_params(parameter_in = Query))]
#[serde(deny_unknown_fields)]
pub(crate) struct DrawingQuery {
    /// Which sheet of a layout, or which part of a box, counted from 1; all of them in a PDF, the first otherwise.
    #[serde(default)]
    part: Option<usize>,
    /// What a PDF is printed on: one page as large as the drawing, or tiles.
    #[serde(default)]
    paper: PaperName,
    /// Of a shipment, what is drawn: the blanks of its boxes, or its corner pocket.
    #[serde(default)]
    of: DrawnOf,
}

/// What of a shipment is drawn.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub(crate) enum DrawnOf {
    /// The blanks of its boxes.
    #[default]
    Blank,
    /// Its corner pockets, each kind once.
    Pocket,
}

/// What a PDF is printed on.
#[derive(Debug, Clone, Copy, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub(crate) enum PaperName {
    /// One page as large as the drawing.
    #[default]
    Sheet,
    /// Tiles with register marks.
    A4,
    /// Tiles with register marks.
    A3,
    /// Tiles with register marks.
    Letter,
    /// Tiles with register marks, 11 × 17 in.
    Tabloid,
}

/// The format in the path; one that there is not is not found.
pub(crate) struct FormatPath(Format);

impl<S: Send + Sync> FromRequestParts<S> for FormatPath {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Self, Problem> {
        let Path(path) =
            Path::<std::collections::HashMap<String, String>>::from_request_parts(parts, state)
                .await
                .map_err(|_| Problem::not_found("document of that name"))?;
        path.get("format")
            .and_then(|format| Format::of(format))
            .map(Self)
            .ok_or_else(|| Problem::not_found("document of that name"))
    }
}

impl DrawnOf {
    /// Returns by what name a record keeps it.
    pub(crate) const fn key(self) -> &'static str {
        match self {
            Self::Blank => "blank",
            Self::Pocket => "pocket",
        }
    }
}

/// Returns what is drawn of a shipment.
pub(crate) fn drawings_of(
    worked: &Workings,
    of: DrawnOf,
    inputs: &ShipmentInputs,
    telling: Telling,
) -> Vec<Value> {
    let title = inputs.title.as_str();
    let plan = worked.plan.iter();
    match of {
        DrawnOf::Blank => plan
            .flat_map(|plan| &plan.layers)
            .filter_map(|layer| layer.make.carton())
            .flat_map(Carton::cut_blanks)
            .map(|blank| json!(Drawing::of_blank(blank, title, telling)))
            .collect(),
        DrawnOf::Pocket => plan
            .flat_map(Plan::every_layer)
            .filter_map(|layer| match &layer.make {
                Make::CardPockets(pocket) => {
                    Some(json!(Drawing::of_pocket(pocket, title, telling)))
                }
                _ => None,
            })
            .collect(),
    }
}

impl Desk {
    /// Has drawings made into one document.
    async fn drawn(
        &self,
        (name, format): (&str, Format),
        query: &DrawingQuery,
        drawings: Vec<Value>,
        list: Vec<Value>,
    ) -> Result<Response, Problem> {
        let wanted = query.part.unwrap_or(1);
        let one = || {
            drawings
                .get(wanted.wrapping_sub(1))
                .ok_or_else(|| Problem::not_found("drawing of that number"))
        };
        let asked = match format {
            Format::Pdf => {
                let chosen = match query.part {
                    Some(_) => vec![one()?.clone()],
                    None => drawings,
                };
                let settings = self.store.settings().await?;
                json!({
                    "make": "pdf",
                    "studio": settings.name,
                    "list": list,
                    "drawings": chosen,
                    "paper": query.paper,
                    "page": Page::of(&settings),
                })
            }
            Format::Svg => json!({ "make": "svg", "drawing": one()? }),
            Format::Dxf => json!({ "make": "dxf", "drawing": one()? }),
        };
        let document = self
            .app
            .documents
            .make(self.studio(), &asked, "paper")
            .await?;
        let file = format!("{name}.{}", format.key());
        Ok(file_of(&file, format.content_type(), document))
    }
}

/// A file to be kept, under a name of plain letters.
pub(crate) fn file_of(
    name: &str,
    kind: &'static str,
    bytes: impl Into<axum::body::Body>,
) -> Response {
    let plain: String = name
        .chars()
        .map(|letter| {
            let keeps = letter.is_ascii_alphanumeric() || matches!(letter, '.' | '-');
            if keeps { letter } else { '-' }
        })
        .collect();
    let named = HeaderValue::from_str(&format!("attachment; filename=\"{plain}\""))
        .unwrap_or_else(|_| HeaderValue::from_static("attachment"));
    let headers = [
        (header::CONTENT_TYPE, HeaderValue::from_static(kind)),
        (header::CONTENT_DISPOSITION, named),
    ];
    (headers, bytes.into()).into_response()
}

/// Tells whether drawings can be made.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "show_documents", get, path = "/documents", tag = "documents",
    responses((status = 200, description = "Whether the program that makes them is there", body = DocumentsView)),
))]
pub(crate) async fn show(desk: Desk) -> Json<DocumentsView> {
    desk.app.documents.start_ahead();
    Json(DocumentsView {
        ready: desk.app.documents.is_ready(),
    })
}

/// Returns the sheets of a layout at true scale; a PDF begins with the cut list.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "draw_cutting", get, path = "/cuttings/{id}/drawings/{format}", tag = "documents",
    params(
        ("id" = uuid::Uuid, Path, description = "Which layout"),
        ("format" = String, Path, description = "`pdf`, `svg` or `dxf` (R12, millimetres)"), DrawingQuery,
    ),
    responses(
        (status = 200, description = "The document", body = String, content_type = "application/pdf"),
        (status = 404, description = "There is no such layout, sheet or format", body = Problem),
        (status = 422, description = "It would have too many pages", body = Problem),
        (status = 503, description = "The program that makes documents is not there yet", body = Problem),
    ),
))]
pub(crate) async fn of_cutting(
    desk: Desk,
    CuttingId(id): CuttingId,
    FormatPath(format): FormatPath,
    Asked(query): Asked<DrawingQuery>,
) -> Result<Response, Problem> {
    let (titles, laid) = told_layout(&desk, id).await?;
    let telling = desk.house().await?.house.rules.told_in;
    let sheets: Vec<(&MaterialCut, &BatchSheet)> = laid.sheets().collect();
    let list = sheets
        .iter()
        .filter(|(_, sheet)| query.part.is_none_or(|part| part == sheet.n))
        .map(|(cut, sheet)| list_of(cut, sheet, &titles, telling))
        .collect();
    let drawings = sheets
        .iter()
        .map(|(cut, sheet)| json!(Drawing::of_sheet(cut, sheet, telling)))
        .collect();
    desk.drawn(("layout", format), &query, drawings, list).await
}

/// A sheet's cuts and parts in words.
fn list_of(cut: &MaterialCut, sheet: &BatchSheet, titles: &[String], telling: Telling) -> Value {
    let size = |width, height| {
        format!(
            "{} \u{d7} {}",
            telling.length(width),
            telling.length(height)
        )
    };
    let from = sheet.offcut.as_ref().map_or_else(
        || "new".to_owned(),
        |offcut| format!("{}, {}", offcut.name, offcut.place),
    );
    let parts: Vec<[String; 3]> = sheet
        .parts
        .iter()
        .map(|part| {
            let whose = titles.get(part.shipment).map_or("", String::as_str);
            [
                part.code.clone(),
                format!("{} ({whose})", part.words()),
                size(part.width, part.height),
            ]
        })
        .collect();
    let cuts: Vec<String> = sheet
        .cuts
        .iter()
        .map(|one| one.words(sheet, telling))
        .collect();
    json!({
        "title": format!("Sheet {}: {}", sheet.n, cut.name),
        "says": format!("{}, {from}. Flutes run up; measure from the lower left corner.", size(sheet.width, sheet.height)),
        "cuts": cuts,
        "parts": parts,
    })
}

/// Returns the blanks of a shipment's box, or its corner pocket, at true scale, seen from the inner face.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "draw_blanks", get, path = "/shipments/{id}/drawings/{format}", tag = "documents",
    params(
        ("id" = uuid::Uuid, Path, description = "Which shipment"),
        ("format" = String, Path, description = "`pdf`, `svg` or `dxf` (R12, millimetres)"), DrawingQuery,
    ),
    responses(
        (status = 200, description = "The document", body = String, content_type = "application/pdf"),
        (status = 404, description = "There is no such shipment or format, or its plan has no box that is cut and no folded pocket", body = Problem),
        (status = 422, description = "It would have too many pages", body = Problem),
        (status = 503, description = "The program that makes documents is not there yet", body = Problem),
    ),
))]
pub(crate) async fn of_shipment(
    desk: Desk,
    ShipmentId(id): ShipmentId,
    FormatPath(format): FormatPath,
    Asked(query): Asked<DrawingQuery>,
) -> Result<Response, Problem> {
    let leaves = desk.to_leave(id).await?;
    let drawings = match (leaves.live(), leaves.record()) {
        (Some(live), _) => drawings_of(
            &live.worked,
            query.of,
            &leaves.stored.inputs,
            leaves.telling(),
        ),
        (None, Some(record)) => {
            let kept = record.told.drawings.get(query.of.key());
            kept.cloned().unwrap_or_default()
        }
        (None, None) => Vec::new(),
    };
    let what = match query.of {
        DrawnOf::Blank => ("blank", "box that is cut for it"),
        DrawnOf::Pocket => ("corner-pocket", "corner pocket that is folded for it"),
    };
    if drawings.is_empty() {
        return Err(Problem::not_found(what.1));
    }
    desk.drawn((what.0, format), &query, drawings, Vec::new())
        .await
}

pub(crate) fn routes() -> Routes {
    routes![
        get "/documents" => show,
        get "/cuttings/{id}/drawings/{format}" => of_cutting,
        get "/cuttings/{id}/list.csv" => cut_list::cut_list,
        get "/shipments/{id}/drawings/{format}" => of_shipment,
        get "/shipments/{id}/pack-sheet" => papers::pack_sheet,
        get "/shipments/{id}/unpacking-guide" => papers::unpacking,
        post "/documents/dxf" => lines::read_dxf,
    ]
}

//! Documents: true-scale drawings and cut lists. What is drawn comes from the core; PDF, SVG and DXF are made by a small
//! process of their own, which may come later than this one, and which takes nothing with it when it fails.

use axum::{
    Json,
    extract::{FromRequestParts, Path},
    http::{HeaderValue, header, request::Parts},
    response::{IntoResponse, Response},
};
use hummock_core::{
    Refusal,
    drawing::Drawing,
    layer::Make,
    quantity::{Length, LengthUnit, show_length},
    shipment::{Worked, pack_sheet as pack_sheet_of, unpacking_guide},
    stock::{BatchSheet, MaterialCut},
};
use serde::{Deserialize, Serialize};
use serde_json::{Value, json};

use crate::{
    body::{Asked, Body, ShipmentId},
    csv_rows::{not_a_formula, table_of},
    cuttings::{CuttingId, told_layout},
    desk::Desk,
    press::Printed,
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

impl Desk {
    /// Has drawings made into one document.
    async fn drawn(
        &self,
        (name, format): (&str, Format),
        query: &DrawingQuery,
        drawings: Vec<Drawing>,
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
                let studio = self.store.settings().await?.name;
                json!({ "make": "pdf", "studio": studio, "list": list, "drawings": chosen, "paper": query.paper })
            }
            Format::Svg => json!({ "make": "svg", "drawing": one()? }),
            Format::Dxf => json!({ "make": "dxf", "drawing": one()? }),
        };
        let document = self.app.documents.make(&asked, "paper").await?;
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
    let unit = desk.house().await?.house.rules.told_in;
    let sheets: Vec<(&MaterialCut, &BatchSheet)> = laid.sheets().collect();
    let list = sheets
        .iter()
        .filter(|(_, sheet)| query.part.is_none_or(|part| part == sheet.n))
        .map(|(cut, sheet)| list_of(cut, sheet, &titles, unit))
        .collect();
    let drawings = sheets
        .iter()
        .map(|(cut, sheet)| Drawing::of_sheet(cut, sheet, unit))
        .collect();
    desk.drawn(("layout", format), &query, drawings, list).await
}

/// A sheet's cuts and parts in words.
fn list_of(cut: &MaterialCut, sheet: &BatchSheet, titles: &[String], unit: LengthUnit) -> Value {
    let size = |width, height| {
        format!(
            "{} \u{d7} {}",
            show_length(width, unit),
            show_length(height, unit)
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
        .map(|one| one.words(sheet, unit))
        .collect();
    json!({
        "title": format!("Sheet {}: {}", sheet.n, cut.name),
        "says": format!("{}, {from}. Flutes run up; measure from the lower left corner.", size(sheet.width, sheet.height)),
        "cuts": cuts,
        "parts": parts,
    })
}

/// A line of the cut list: its fields are the columns.
#[derive(Default, Serialize)]
struct CutCells {
    sheet: String,
    material: String,
    sheet_width_mm: String,
    sheet_height_mm: String,
    kind: String,
    number: String,
    what: String,
    #[serde(rename = "for")]
    whose: String,
    direction: String,
    at_mm: String,
    from_mm: String,
    to_mm: String,
    size: String,
}

/// Returns the cut list of a layout as comma-separated values: a line for each cut and each part, in millimetres.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "list_cuts", get, path = "/cuttings/{id}/list.csv", tag = "documents",
    params(("id" = uuid::Uuid, Path, description = "Which layout")),
    responses(
        (status = 200, description = "A table", body = String, content_type = "text/csv"),
        (status = 404, description = "There is no such layout", body = Problem),
    ),
))]
pub(crate) async fn cut_list(desk: Desk, CuttingId(id): CuttingId) -> Result<Response, Problem> {
    let (titles, laid) = told_layout(&desk, id).await?;
    let mut lines = Vec::new();
    for (cut, sheet) in laid.sheets() {
        let of_sheet = || CutCells {
            sheet: sheet.n.to_string(),
            material: not_a_formula(&cut.name),
            sheet_width_mm: sheet.width.as_mm().to_string(),
            sheet_height_mm: sheet.height.as_mm().to_string(),
            ..CutCells::default()
        };
        let mm = |length: Length| length.as_mm().to_string();
        let cuts = sheet.cuts.iter().map(|one| CutCells {
            kind: "cut".into(),
            number: one.n.to_string(),
            direction: if one.upright {
                "from the left"
            } else {
                "from below"
            }
            .into(),
            at_mm: mm(one.at),
            from_mm: mm(one.from),
            to_mm: mm(one.to),
            ..of_sheet()
        });
        let parts = sheet.parts.iter().map(|part| CutCells {
            kind: "part".into(),
            number: part.code.clone(),
            what: not_a_formula(&part.words()),
            whose: titles
                .get(part.shipment)
                .map_or_else(String::new, |title| not_a_formula(title)),
            from_mm: mm(part.x),
            to_mm: mm(part.y),
            size: format!("{} x {}", part.width.as_mm(), part.height.as_mm()),
            ..of_sheet()
        });
        lines.extend(cuts.chain(parts));
    }
    let bytes = table_of(lines);
    Ok(file_of("cut-list.csv", "text/csv; charset=utf-8", bytes))
}

/// Returns the blanks of a shipment's box at true scale, seen from the inner face.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "draw_blanks", get, path = "/shipments/{id}/drawings/{format}", tag = "documents",
    params(
        ("id" = uuid::Uuid, Path, description = "Which shipment"),
        ("format" = String, Path, description = "`pdf`, `svg` or `dxf` (R12, millimetres)"), DrawingQuery,
    ),
    responses(
        (status = 200, description = "The document", body = String, content_type = "application/pdf"),
        (status = 404, description = "There is no such shipment or format, or its box is not cut", body = Problem),
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
    let stored = desk.stored(id).await?;
    let house = desk.house().await?;
    let worked = Worked::out_or_refused(&stored.inputs, &house.house);
    let unit = house.house.rules.told_in;
    let title = stored.inputs.title.as_str();
    let drawings: Vec<Drawing> = worked
        .plan
        .iter()
        .flat_map(|plan| &plan.layers)
        .filter_map(|layer| match &layer.make {
            Make::SlottedBox(carton) | Make::CutBox(carton) => Some(carton),
            _ => None,
        })
        .flat_map(|carton| {
            carton
                .parts()
                .map(|(blank, _)| Drawing::of_blank(blank, title, unit))
        })
        .collect();
    if drawings.is_empty() {
        return Err(Problem::not_found("box that is cut for it"));
    }
    desk.drawn(("blank", format), &query, drawings, Vec::new())
        .await
}

/// Where the page was opened.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::IntoParams))]
#[cfg_attr(feature = "schema", into_params(parameter_in = Query))]
#[serde(deny_unknown_fields)]
pub(crate) struct SheetQuery {
    /// The address that the code on the sheet begins with, as `http://192.168.1.20:7373`; no code without one.
    at: Option<String>,
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
    code_of(&leads).map_err(|()| refused("it is too long for a code"))
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
    let stored = desk.stored(id).await?;
    let house = desk.house().await?;
    let unit = house.house.rules.told_in;
    let code = query.at.map(|at| code_to(&at, id)).transpose()?;
    let sheet = pack_sheet_of(&stored.inputs, &house.house, unit)?
        .ok_or_else(|| Problem::not_found("plan of it yet"))?;
    let studio = desk.store.settings().await?.name;
    let says = json!({ "studio": studio, "sheet": sheet, "code": code });
    let printed = Printed {
        kind: "pack_sheet",
        says: &says,
        pictures: &[],
    };
    let document = desk.app.documents.paper(printed).await?;
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
    let studio = desk.store.settings().await?.name;
    let says = json!({ "studio": studio, "guide": guide });
    let printed = Printed {
        kind: "unpacking_guide",
        says: &says,
        pictures: &[],
    };
    let document = desk.app.documents.paper(printed).await?;
    Ok(file_of("unpacking-guide.pdf", "application/pdf", document))
}

/// A DXF file to read.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct DxfRequest {
    /// The file.
    dxf: String,
}

/// The lines of a DXF file.
#[derive(Debug, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct DxfRead {
    /// Each with its layer, in the file's own unit.
    lines: Vec<DxfLine>,
    /// What was not read, and why.
    unread: Vec<DxfUnread>,
}

/// A straight line of a DXF file.
#[derive(Debug, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct DxfLine {
    /// Its layer.
    layer: String,
    /// One end.
    from: [f64; 2],
    /// The other.
    to: [f64; 2],
}

/// Something in a DXF file that is not read.
#[derive(Debug, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct DxfUnread {
    /// Counted from 1, in the order of the file.
    entity: usize,
    /// Its layer.
    layer: String,
    /// Why.
    says: String,
}

/// Reads the lines of a DXF file; nothing is stored. Lay them out with `POST /cuttings`, the outline and the scores apart.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "read_dxf", post, path = "/documents/dxf", tag = "documents", request_body = DxfRequest,
    responses(
        (status = 200, description = "Its lines, layer by layer", body = DxfRead),
        (status = 422, description = "It is no DXF file", body = Problem),
        (status = 503, description = "The program that reads it is not there yet", body = Problem),
    ),
))]
pub(crate) async fn read_dxf(
    desk: Desk,
    Body(request): Body<DxfRequest>,
) -> Result<Json<DxfRead>, Problem> {
    let asked = json!({ "make": "read_dxf", "text": request.dxf });
    let answer = desk.app.documents.make(&asked, "dxf").await?;
    serde_json::from_slice(&answer).map(Json).map_err(|error| {
        tracing::error!(%error, "the lines of a file can't be read");
        Problem::document_failed()
    })
}

pub(crate) fn routes() -> Routes {
    routes![
        get "/documents" => show,
        get "/cuttings/{id}/drawings/{format}" => of_cutting,
        get "/cuttings/{id}/list.csv" => cut_list,
        get "/shipments/{id}/drawings/{format}" => of_shipment,
        get "/shipments/{id}/pack-sheet" => pack_sheet,
        get "/shipments/{id}/unpacking-guide" => unpacking,
        post "/documents/dxf" => read_dxf,
    ]
}

//! The cut list of a layout as a table.

use axum::response::Response;
use hummock_core::quantity::Length;
use serde::Serialize;

use super::file_of;
use crate::{
    csv_rows::{not_a_formula, table_of},
    cuttings::{CuttingId, told_layout},
    desk::Desk,
    problem::Problem,
};

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

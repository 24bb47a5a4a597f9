//! Fitting cushion curves to a supplier's points.

use axum::Json;
use hummock_core::{
    Refusal,
    cushion::{CurvePoint, FittedCurve, fit_curve},
};
use serde::{Deserialize, Serialize};

use crate::{body::Body, problem::Problem};

/// Points as a supplier prints them.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct PointsRequest {
    /// Comma-separated values with the head `material,thickness_mm,drop_mm,static_stress_kpa,peak_g`.
    #[cfg_attr(
        feature = "schema",
        schema(
            example = "material,thickness_mm,drop_mm,static_stress_kpa,peak_g\nsoft foam,50,760,1.0,58\nsoft foam,50,760,1.5,52\nsoft foam,50,760,2.2,55"
        )
    )]
    csv: String,
}

/// The curve of one material.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct MaterialCurve {
    /// What was tested.
    material: String,
    /// What was fitted.
    fitted: FittedCurve,
}

const MOST_POINTS: usize = 2000;

/// Fits a curve to the points of each material, by least squares on ln σ = ln a + b·ε.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "fit_curves", post, path = "/curves/fit", tag = "stores", request_body = PointsRequest,
    responses(
        (status = 200, description = "A curve for each material", body = [MaterialCurve]),
        (status = 422, description = "Points that can't be read or fitted, with their line", body = Problem),
    ),
))]
pub(crate) async fn fit(
    Body(request): Body<PointsRequest>,
) -> Result<Json<Vec<MaterialCurve>>, Problem> {
    let groups = read_points(&request.csv)?;
    let mut curves = Vec::new();
    for (material, points) in groups {
        let fitted = fit_curve(&points)
            .map_err(|error| vec![Refusal::new("csv", format!("{material}: {error}"))])?;
        curves.push(MaterialCurve { material, fitted });
    }
    Ok(Json(curves))
}

/// The points of each material, in the order in which the materials come.
fn read_points(text: &str) -> Result<Vec<(String, Vec<CurvePoint>)>, Vec<Refusal>> {
    let mut reader = csv::ReaderBuilder::new()
        .trim(csv::Trim::All)
        .from_reader(text.trim_start_matches('\u{feff}').as_bytes());
    let mut groups: Vec<(String, Vec<CurvePoint>)> = Vec::new();
    for (place, point) in reader.deserialize::<CurvePoint>().enumerate() {
        let point = point.map_err(|error| {
            vec![Refusal::new(
                "csv",
                format!("{error}: write the columns material, thickness_mm, drop_mm, static_stress_kpa, peak_g"),
            )]
        })?;
        if place >= MOST_POINTS {
            let says = format!("more than {MOST_POINTS} points: split the table");
            return Err(vec![Refusal::new("csv", says)]);
        }
        match groups
            .iter_mut()
            .find(|(material, _)| *material == point.material)
        {
            Some((_, points)) => points.push(point),
            None => groups.push((point.material.clone(), vec![point])),
        }
    }
    if groups.is_empty() {
        return Err(vec![Refusal::new(
            "csv",
            "no points found: write a header row and a row for each point",
        )]);
    }
    Ok(groups)
}

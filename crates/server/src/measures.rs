//! Reading sizes as they are typed.

use std::collections::BTreeMap;

use axum::Json;
use hummock_core::{
    Refusal, Refusals,
    quantity::{LengthUnit, TypedLength, TypedSize},
};
use serde::{Deserialize, Serialize};

use crate::{body::Body, problem::Problem};

/// A size as typed in one field.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct SizeText {
    /// Width × height × depth.
    #[cfg_attr(feature = "schema", schema(example = "35 1/2 x 47 1/4 x 1 1/2 in"))]
    text: String,
    /// What a bare number is in.
    #[serde(default)]
    unit: LengthUnit,
}

/// The sides of a size.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct SizeRead {
    width: SideRead,
    height: SideRead,
    /// `None` if two sides were typed: it is still to be asked.
    depth: Option<SideRead>,
    /// What else it could be, where the numbers stand without a unit and would make a strange piece (a side under 100 mm or over
    /// 3 m, or thinner than 5 mm); null where there is nothing to ask.
    doubt: Option<SizeDoubt>,
}

/// A size that can be read in several units.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct SizeDoubt {
    /// The one in the unit of bare numbers first, then each that is more usual.
    readings: Vec<SizeReading>,
}

/// A size in one unit.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct SizeReading {
    /// The unit that the numbers are read in.
    unit: LengthUnit,
    /// The sides as they are read, each with this unit behind it.
    #[cfg_attr(feature = "schema", schema(example = "80 cm × 60 cm × 2 cm"))]
    text: String,
    width_mm: f64,
    height_mm: f64,
    /// `None` if two sides were typed.
    depth_mm: Option<f64>,
}

impl From<(LengthUnit, TypedSize)> for SizeReading {
    fn from((unit, size): (LengthUnit, TypedSize)) -> Self {
        let sides = [Some(&size.width), Some(&size.height), size.depth.as_ref()];
        let texts: Vec<&str> = sides.into_iter().flatten().map(TypedLength::text).collect();
        Self {
            unit,
            text: texts.join(" × "),
            width_mm: size.width.length().as_mm(),
            height_mm: size.height.length().as_mm(),
            depth_mm: size.depth.map(|depth| depth.length().as_mm()),
        }
    }
}

/// One side of a size.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct SideRead {
    /// As typed, with its unit.
    #[cfg_attr(feature = "schema", schema(example = "35 1/2 in"))]
    text: String,
    /// What that is.
    length_mm: f64,
}

impl From<&TypedLength> for SideRead {
    fn from(typed: &TypedLength) -> Self {
        Self {
            text: typed.text().to_owned(),
            length_mm: typed.length().as_mm(),
        }
    }
}

/// Reads a size typed in one field: width × height × depth, or the first two of them, in any units.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "read_size", post, path = "/measures/read", tag = "measures", request_body = SizeText,
    responses(
        (status = 200, description = "The sides", body = SizeRead),
        (status = 422, description = "The text was not understood; the field is `text`", body = Problem),
    ),
))]
pub(crate) async fn read(Body(size): Body<SizeText>) -> Result<Json<SizeRead>, Problem> {
    let read = TypedSize::read(&size.text, size.unit)
        .map_err(|error| vec![Refusal::new("text", error)])?;
    Ok(Json(SizeRead {
        width: (&read.width).into(),
        height: (&read.height).into(),
        depth: read.depth.as_ref().map(SideRead::from),
        doubt: TypedSize::doubt(&size.text, size.unit).map(|readings| SizeDoubt {
            readings: readings.into_iter().map(SizeReading::from).collect(),
        }),
    }))
}

/// Lengths as typed, each in a field of its own.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct LengthTexts {
    /// By the field that each was typed in, 20 at most.
    #[cfg_attr(feature = "schema", schema(example = json!({ "width_mm": "35 1/2 in", "height_mm": "61.5 cm" })))]
    texts: BTreeMap<String, String>,
    /// What a bare number is in.
    #[serde(default)]
    unit: LengthUnit,
}

/// What they are.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct LengthsRead {
    /// In millimetres, by the same fields.
    lengths_mm: BTreeMap<String, f64>,
}

const MOST_TEXTS: usize = 20;

/// Reads lengths, each typed in a field of its own, in any units.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "read_lengths", post, path = "/measures/lengths", tag = "measures", request_body = LengthTexts,
    responses(
        (status = 200, description = "Each in millimetres", body = LengthsRead),
        (status = 422, description = "Texts that were not understood, each with its field", body = Problem),
    ),
))]
pub(crate) async fn lengths(Body(typed): Body<LengthTexts>) -> Result<Json<LengthsRead>, Problem> {
    if typed.texts.len() > MOST_TEXTS {
        let says = format!(
            "{} given: read at most {MOST_TEXTS} at once",
            typed.texts.len()
        );
        return Err(vec![Refusal::new("texts", says)].into());
    }
    let mut refusals = Refusals::default();
    let mut lengths_mm = BTreeMap::new();
    for (field, text) in typed.texts {
        match TypedLength::read(&text, typed.unit) {
            Ok(read) => {
                lengths_mm.insert(field, read.length().as_mm());
            }
            Err(error) => refusals.refuse(field, error),
        }
    }
    refusals.or(())?;
    Ok(Json(LengthsRead { lengths_mm }))
}

//! Billable weight.

use serde::{Deserialize, Serialize};

use super::{
    Sum,
    checked::{ALLOWANCE, DIVISOR, MASS, SIDE, WEIGHT_STEP},
};
use crate::{
    Refusal, Refusals,
    freight::{BillableBy, Contents, Governs, Parcel, Shape},
    quantity::{Length, Mass},
    space::Envelope,
};

/// What a carrier bills.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct BillableSum {
    /// Outside, 1 to 10 000, in any order of sides.
    pub length_mm: f64,
    /// Outside, 1 to 10 000.
    pub width_mm: f64,
    /// Outside, 1 to 10 000.
    pub height_mm: f64,
    /// 0.001 to 1000.
    pub mass_kg: f64,
    /// 100 to 20 000.
    pub divisor_cm3_per_kg: f64,
    /// Each side is rounded up to it, 0 to 1000; as measured when left out.
    #[serde(default)]
    pub size_step_mm: Option<f64>,
    /// The weight is rounded up to it, 0 to 100; unrounded when left out.
    #[serde(default)]
    pub weight_step_kg: Option<f64>,
    /// The least that is billed, 0 to 100; `None` if left out.
    #[serde(default)]
    pub minimum_kg: Option<f64>,
}

/// The weights side by side.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BillableAnswer {
    /// What the scale reads.
    pub actual_kg: f64,
    /// What the size counts for.
    pub volumetric_kg: f64,
    /// What is billed.
    pub billable_kg: f64,
    /// Which of them it came from.
    pub governs: Governs,
    /// Twice the sum of the two shorter sides.
    pub girth_mm: f64,
    /// The longest side and the girth.
    pub length_plus_girth_mm: f64,
}

impl Sum for BillableSum {
    type Answer = BillableAnswer;

    fn work(&self) -> Result<BillableAnswer, Vec<Refusal>> {
        Refusals::default()
            .number("length_mm", self.length_mm, SIDE)
            .number("width_mm", self.width_mm, SIDE)
            .number("height_mm", self.height_mm, SIDE)
            .number("mass_kg", self.mass_kg, MASS)
            .number("divisor_cm3_per_kg", self.divisor_cm3_per_kg, DIVISOR)
            .if_given("size_step_mm", self.size_step_mm, ALLOWANCE)
            .if_given("weight_step_kg", self.weight_step_kg, WEIGHT_STEP)
            .if_given("minimum_kg", self.minimum_kg, WEIGHT_STEP)
            .done()?;
        let [across, up, through] = [self.length_mm, self.width_mm, self.height_mm].map(Length::mm);
        let by = BillableBy {
            divisor_cm3_per_kg: self.divisor_cm3_per_kg,
            volumetric_above: None,
            size_step: Length::mm(self.size_step_mm.unwrap_or(0.0)),
            weight_step: Mass::kg(self.weight_step_kg.unwrap_or(0.0)),
            minimum: Mass::kg(self.minimum_kg.unwrap_or(0.0)),
        };
        let billable = by.weigh(&Parcel {
            outside: Envelope {
                across,
                up,
                through,
            },
            mass: Mass::kg(self.mass_kg),
            value: None,
            buys_cover: false,
            shape: Shape::Rectangular,
            contents: Contents::default(),
        });
        Ok(BillableAnswer {
            actual_kg: billable.actual.as_kg(),
            volumetric_kg: billable.volumetric.as_kg(),
            billable_kg: billable.billable.as_kg(),
            governs: billable.governs,
            girth_mm: billable.girth.as_mm(),
            length_plus_girth_mm: billable.length_plus_girth.as_mm(),
        })
    }
}

//! Press-in, stack, and roll and tube.

use serde::{Deserialize, Serialize};

use super::{
    Sum,
    checked::{ALLOWANCE, EDGE_CRUSH, LOAD, SAFETY, SIDE, STIFFNESS, THIN},
};
use crate::{
    Refusal, Refusals,
    cushion::{Plate, compression_strength, plate_factor},
    layer::RollSize,
    quantity::{EdgeCrush, Force, Length, Stiffness},
};

/// About what a parcel of 10 kg rests on a corner with.
const CORNER_LOAD: Force = Force::n(100.0);
/// What a box bears on the way is a fifth of what it bears in the press.
const STACK_SAFETY: f64 = 5.0;

/// A corner of a parcel that rests on boards.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct PressInSum {
    /// 1 to 10 000.
    pub side_a_mm: f64,
    /// 1 to 10 000.
    pub side_b_mm: f64,
    /// The flexural stiffness of all boards that touch, together, 0.001 to 100 000.
    pub stiffness_nm: f64,
    /// 0.1 to 100 000; 100 when left out.
    #[serde(default)]
    pub load_n: Option<f64>,
    /// 1.73 × caliper for corrugated, 0.01 to 500; it only bends when left out.
    #[serde(default)]
    pub stretch_thickness_mm: Option<f64>,
}

/// How far they give.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PressInAnswer {
    /// The factor of the plate.
    pub alpha: f64,
    /// By bending alone.
    pub linear_deflection_mm: f64,
    /// With stretching.
    pub deflection_mm: f64,
}

impl Sum for PressInSum {
    type Answer = PressInAnswer;

    fn work(&self) -> Result<PressInAnswer, Vec<Refusal>> {
        Refusals::default()
            .number("side_a_mm", self.side_a_mm, SIDE)
            .number("side_b_mm", self.side_b_mm, SIDE)
            .number("stiffness_nm", self.stiffness_nm, STIFFNESS)
            .if_given("load_n", self.load_n, LOAD)
            .if_given("stretch_thickness_mm", self.stretch_thickness_mm, THIN)
            .done()?;
        let plate = Plate {
            side_a: Length::mm(self.side_a_mm),
            side_b: Length::mm(self.side_b_mm),
            stiffness: Stiffness::nm(self.stiffness_nm),
            stretch_thickness: self.stretch_thickness_mm.map(Length::mm),
        };
        let press = plate.under(self.load_n.map_or(CORNER_LOAD, Force::n));
        Ok(PressInAnswer {
            alpha: plate_factor(plate.side_a, plate.side_b),
            linear_deflection_mm: press.linear.as_mm(),
            deflection_mm: press.deflection.as_mm(),
        })
    }
}

/// What a corrugated box bears, flutes upright.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct StackSum {
    /// Of the board, 0.1 to 100.
    pub edge_crush_kn_m: f64,
    /// Of the board, 0.01 to 500.
    pub caliper_mm: f64,
    /// Around the box, 1 to 10 000.
    pub perimeter_mm: f64,
    /// 1 to 50; 5 when left out.
    #[serde(default)]
    pub safety: Option<f64>,
}

/// What it bears.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StackAnswer {
    /// Before it crushes.
    pub bct_n: f64,
    /// On the way.
    pub allowed_n: f64,
}

impl Sum for StackSum {
    type Answer = StackAnswer;

    fn work(&self) -> Result<StackAnswer, Vec<Refusal>> {
        Refusals::default()
            .number("edge_crush_kn_m", self.edge_crush_kn_m, EDGE_CRUSH)
            .number("caliper_mm", self.caliper_mm, THIN)
            .number("perimeter_mm", self.perimeter_mm, SIDE)
            .if_given("safety", self.safety, SAFETY)
            .done()?;
        let strength = compression_strength(
            EdgeCrush::kn_m(self.edge_crush_kn_m),
            Length::mm(self.caliper_mm),
            Length::mm(self.perimeter_mm),
        );
        Ok(StackAnswer {
            bct_n: strength.as_n(),
            allowed_n: strength.as_n() / self.safety.unwrap_or(STACK_SAFETY),
        })
    }
}

/// A rolled sheet and its tube.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct RollSum {
    /// The inner diameter, 1 to 10 000.
    pub inner_mm: f64,
    /// Of the side that is rolled up, 1 to 10 000.
    pub length_mm: f64,
    /// Of the sheet with its interleaves, 0.01 to 500.
    pub thickness_mm: f64,
    /// Around the roll, 0 to 1000; none when left out.
    #[serde(default)]
    pub wrap_mm: Option<f64>,
}

impl Sum for RollSum {
    type Answer = RollAnswer;

    fn work(&self) -> Result<RollAnswer, Vec<Refusal>> {
        Refusals::default()
            .number("inner_mm", self.inner_mm, SIDE)
            .number("length_mm", self.length_mm, SIDE)
            .number("thickness_mm", self.thickness_mm, THIN)
            .if_given("wrap_mm", self.wrap_mm, ALLOWANCE)
            .done()?;
        let roll = RollSize::of(
            Length::mm(self.inner_mm),
            Length::mm(self.length_mm),
            Length::mm(self.thickness_mm),
            Length::mm(self.wrap_mm.unwrap_or(0.0)),
        );
        Ok(RollAnswer {
            outer_mm: roll.outer.as_mm(),
            tube_inside_mm: roll.tube_inside.as_mm(),
            triangle_side_mm: roll.triangle_side.as_mm(),
        })
    }
}

/// The roll and its tube.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct RollAnswer {
    /// The diameter of the roll.
    pub outer_mm: f64,
    /// The least a round tube is wide inside.
    pub tube_inside_mm: f64,
    /// The least a side of a triangular tube is inside.
    pub triangle_side_mm: f64,
}

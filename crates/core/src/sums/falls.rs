//! Falls on an edge or corner, and the damage boundary.

use serde::{Deserialize, Serialize};

use super::{
    Sum,
    checked::{AREA, DROP, FREQUENCY, LIMIT, MASS, REBOUND, SIDE, THIN},
    cushions::{check_curve, curve},
};
use crate::{
    Refusal, Refusals,
    cushion::{DamageBoundary, FallAxis, fall_shock},
    quantity::{Area, Frequency, Length, Mass, Shock},
};

const CM2_PER_M2: f64 = 1e4;

/// A fall on an edge or a corner.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct FallSum {
    /// Inside the cushions, 0.001 to 1000.
    pub mass_kg: f64,
    /// 1 to 5000.
    pub drop_mm: f64,
    /// Two for an edge, three for a corner.
    pub axes: Vec<FallPart>,
}

/// One of the axes that meet where it lands.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct FallPart {
    /// Of the parcel along it, 1 to 10 000.
    pub outside_mm: f64,
    /// Of the material, 0.1 to 10 000.
    pub a_kpa: f64,
    /// Of the material, 0.0001 to 10.
    pub b_m3_per_kj: f64,
    /// 0.1 to 1 000 000.
    pub area_cm2: f64,
    /// 0.01 to 500.
    pub thickness_mm: f64,
    /// Where the tested range begins, 0 to 10 000; everywhere when left out.
    #[serde(default)]
    pub epsilon_min: Option<f64>,
}

/// What the fall does.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FallAnswer {
    /// On the mass, all axes together.
    pub peak_g: f64,
    /// The share of the fall that each axis takes, n².
    pub shares: Vec<f64>,
}

impl Sum for FallSum {
    type Answer = FallAnswer;

    fn work(&self) -> Result<FallAnswer, Vec<Refusal>> {
        let mut checked = Refusals::default();
        checked
            .number("mass_kg", self.mass_kg, MASS)
            .number("drop_mm", self.drop_mm, DROP);
        if !(2..=3).contains(&self.axes.len()) {
            checked.refuse(
                "axes",
                format!(
                    "{} given: give two for an edge or three for a corner",
                    self.axes.len()
                ),
            );
        }
        for (place, part) in self.axes.iter().enumerate() {
            let at = format!("axes[{place}].");
            check_curve(
                &mut checked,
                &at,
                [part.a_kpa, part.b_m3_per_kj],
                [part.epsilon_min, None],
            );
            checked
                .number(format!("{at}outside_mm"), part.outside_mm, SIDE)
                .number(format!("{at}area_cm2"), part.area_cm2, AREA)
                .number(format!("{at}thickness_mm"), part.thickness_mm, THIN);
        }
        checked.done()?;
        let axes: Vec<FallAxis> = self.axes.iter().map(FallPart::axis).collect();
        let peak = fall_shock(&axes, Mass::kg(self.mass_kg), Length::mm(self.drop_mm))
            .expect("no axis has an end to its range");
        let diagonal: f64 = self.axes.iter().map(|axis| axis.outside_mm.powi(2)).sum();
        Ok(FallAnswer {
            peak_g: peak.as_times_gravity(),
            shares: self
                .axes
                .iter()
                .map(|axis| axis.outside_mm.powi(2) / diagonal)
                .collect(),
        })
    }
}

impl FallPart {
    fn axis(&self) -> FallAxis {
        FallAxis {
            outside: Length::mm(self.outside_mm),
            curve: curve([self.a_kpa, self.b_m3_per_kj], [self.epsilon_min, None]),
            area: Area::m2(self.area_cm2 / CM2_PER_M2),
            thickness: Length::mm(self.thickness_mm),
        }
    }
}

/// The damage boundary of a piece.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct BoundarySum {
    /// That the piece takes, 1 to 1000 times gravity.
    pub limit_g: f64,
    /// Its own in that direction, 0.1 to 10 000.
    pub frequency_hz: f64,
    /// The share of speed kept in bouncing, 0 to 1; 0.3 when left out.
    #[serde(default)]
    pub rebound: Option<f64>,
}

/// The corner of the boundary.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BoundaryAnswer {
    /// Velocity changes up to this do no harm.
    pub critical_velocity_m_s: f64,
    /// Falls from up to here are survived whatever the cushion.
    pub survives_mm: f64,
}

impl Sum for BoundarySum {
    type Answer = BoundaryAnswer;

    fn work(&self) -> Result<BoundaryAnswer, Vec<Refusal>> {
        Refusals::default()
            .number("limit_g", self.limit_g, LIMIT)
            .number("frequency_hz", self.frequency_hz, FREQUENCY)
            .if_given("rebound", self.rebound, REBOUND)
            .done()?;
        let boundary = DamageBoundary::of(
            Shock::times_gravity(self.limit_g),
            Frequency::hz(self.frequency_hz),
            self.rebound.unwrap_or(DamageBoundary::REBOUND),
        );
        Ok(BoundaryAnswer {
            critical_velocity_m_s: boundary.critical_velocity.as_m_s(),
            survives_mm: boundary.survives.as_mm(),
        })
    }
}

//! Fitting a curve to a supplier's points.

use serde::{Deserialize, Serialize};

use super::{CushionCurve, EnergyRange, curve::energy_of};
use crate::quantity::{EnergyDensity, Length, Shock, Stress};

/// One measured point of a cushion curve.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CurvePoint {
    /// What was tested.
    pub material: String,
    /// Of the sample.
    #[serde(rename = "thickness_mm")]
    pub thickness: Length,
    /// That it fell from.
    #[serde(rename = "drop_mm")]
    pub drop: Length,
    /// Under the resting mass.
    #[serde(rename = "static_stress_kpa")]
    pub static_stress: Stress,
    /// That was measured.
    #[serde(rename = "peak_g")]
    pub peak: Shock,
}

/// A curve fitted to points, and how well it fits.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FittedCurve {
    /// With the range that the points cover.
    pub curve: CushionCurve,
    /// The share of the spread that the curve explains.
    pub r_squared: f64,
    /// G·T/H at the best area, e·a·b; below 2.7 no real cushion is known.
    pub efficiency: f64,
    /// Each point as it was fitted: its energy and its dynamic stress.
    pub points: Vec<FittedPoint>,
    /// The curve at no energy and at the most that was tested: on a logarithmic axis of stress, the ends of
    /// a straight line.
    pub ends: [FittedPoint; 2],
    /// What to be wary of.
    pub warnings: Vec<String>,
}

/// A point as it was fitted.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FittedPoint {
    /// ε = s·H/T.
    #[serde(rename = "energy_kj_m3")]
    pub energy: EnergyDensity,
    /// σ = G·s.
    #[serde(rename = "stress_kpa")]
    pub stress: Stress,
}

/// Why no curve could be fitted.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
pub enum FitRefused {
    /// Too few points.
    #[error("{0} points given: a curve needs at least three, at different energies")]
    TooFew(usize),
    /// A number that is not above nothing.
    #[error("point {0}: thickness, drop, stress and shock must be positive")]
    NotPositive(usize),
    /// Points that say nothing of how stress grows.
    #[error("all points lie at one energy: test at other thicknesses, drops or loads")]
    OneEnergy,
    /// Stress that falls with energy.
    #[error("stress falls as energy grows: check the columns, static_stress_kpa and peak_g")]
    Falling,
}

/// No real cushion is known below this e·a·b.
const LEAST_EFFICIENCY: f64 = 2.7;
const FEWEST_POINTS: usize = 3;
/// Below this share the points do not lie on one curve.
const POOR_FIT: f64 = 0.9;

/// Returns the curve through points, by least squares on ln σ = ln a + b·ε, with σ = G·s and ε = s·H/T.
///
/// # Errors
/// [`FitRefused`] for fewer than three points, a number not above nothing, points at one energy only, or
/// stress that falls with energy.
pub fn fit_curve(points: &[CurvePoint]) -> Result<FittedCurve, FitRefused> {
    if points.len() < FEWEST_POINTS {
        return Err(FitRefused::TooFew(points.len()));
    }
    let fitted = points
        .iter()
        .enumerate()
        .map(|(place, point)| fitted_point(place + 1, point))
        .collect::<Result<Vec<_>, _>>()?;
    let line = Line::through(&fitted).ok_or(FitRefused::OneEnergy)?;
    if line.slope <= 0.0 {
        return Err(FitRefused::Falling);
    }
    let energies = fitted.iter().map(|point| point.energy);
    let curve = CushionCurve {
        start: Stress::kpa(line.start.exp()),
        growth: line.slope,
        tested: energies
            .clone()
            .min()
            .zip(energies.max())
            .map(|(least, most)| EnergyRange { least, most }),
        creep: None,
    };
    let most = curve.tested.map_or(EnergyDensity::ZERO, |range| range.most);
    Ok(FittedCurve {
        ends: [EnergyDensity::ZERO, most].map(|energy| FittedPoint {
            energy,
            stress: Stress::kpa((line.start + line.slope * energy.as_kj_m3()).exp()),
        }),
        warnings: warnings(&curve, line.r_squared),
        curve,
        r_squared: line.r_squared,
        efficiency: curve.efficiency(),
        points: fitted,
    })
}

fn fitted_point(number: usize, point: &CurvePoint) -> Result<FittedPoint, FitRefused> {
    let positive = [
        point.thickness.as_mm(),
        point.drop.as_mm(),
        point.static_stress.as_kpa(),
        point.peak.as_times_gravity(),
    ]
    .into_iter()
    .all(|number| number > 0.0);
    if !positive {
        return Err(FitRefused::NotPositive(number));
    }
    Ok(FittedPoint {
        energy: energy_of(point.static_stress, point.drop, point.thickness),
        stress: point.static_stress * point.peak.as_times_gravity(),
    })
}

fn warnings(curve: &CushionCurve, r_squared: f64) -> Vec<String> {
    let mut warnings = Vec::new();
    let efficiency = curve.efficiency();
    if efficiency < LEAST_EFFICIENCY {
        warnings.push(format!(
            "e·a·b is {efficiency:.2}. Below {LEAST_EFFICIENCY} no cushion performs that well; check the units."
        ));
    }
    if r_squared < POOR_FIT {
        warnings.push(format!(
            "R² is {r_squared:.2}: the points don't fit one curve. Check that all are first impacts on one material."
        ));
    }
    warnings
}

/// A straight line through ln σ over ε.
struct Line {
    start: f64,
    slope: f64,
    r_squared: f64,
}

impl Line {
    fn through(points: &[FittedPoint]) -> Option<Self> {
        let count = points.iter().fold(0.0, |count, _| count + 1.0);
        let pairs = || {
            points
                .iter()
                .map(|point| (point.energy.as_kj_m3(), point.stress.as_kpa().ln()))
        };
        let mean_x = pairs().map(|(x, _)| x).sum::<f64>() / count;
        let mean_y = pairs().map(|(_, y)| y).sum::<f64>() / count;
        let spread_x: f64 = pairs().map(|(x, _)| (x - mean_x).powi(2)).sum();
        let spread_y: f64 = pairs().map(|(_, y)| (y - mean_y).powi(2)).sum();
        let together: f64 = pairs().map(|(x, y)| (x - mean_x) * (y - mean_y)).sum();
        if spread_x <= f64::EPSILON * mean_x * mean_x {
            return None;
        }
        let slope = together / spread_x;
        let r_squared = if spread_y > 0.0 {
            together * together / (spread_x * spread_y)
        } else {
            1.0
        };
        Some(Self {
            start: mean_y - slope * mean_x,
            slope,
            r_squared,
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn point(thickness: f64, static_stress: f64, peak: f64) -> CurvePoint {
        CurvePoint {
            material: "foam".into(),
            thickness: Length::mm(thickness),
            drop: Length::mm(760.0),
            static_stress: Stress::kpa(static_stress),
            peak: Shock::times_gravity(peak),
        }
    }

    /// Points that lie on a curve exactly.
    fn on(a: f64, b: f64) -> Vec<CurvePoint> {
        [(25.0, 0.5), (40.0, 1.0), (50.0, 2.0)]
            .into_iter()
            .map(|(thickness, stress)| {
                let energy = stress * 760.0 / thickness;
                point(thickness, stress, a * f64::exp(b * energy) / stress)
            })
            .collect()
    }

    #[test]
    fn points_on_a_curve_give_that_curve() {
        let fitted = fit_curve(&on(25.5, 0.048)).expect("three points");
        assert!((fitted.curve.start.as_kpa() - 25.5).abs() < 1e-9);
        assert!((fitted.curve.growth - 0.048).abs() < 1e-12);
        assert!((fitted.r_squared - 1.0).abs() < 1e-12);
        // 0.5 × 760/25 = 15.2 and 2 × 760/50 = 30.4
        let range = fitted.curve.tested.expect("from the points");
        assert!((range.least.as_kj_m3() - 15.2).abs() < 1e-9);
        assert!((range.most.as_kj_m3() - 30.4).abs() < 1e-9);
        assert!(fitted.warnings.is_empty());
    }

    #[test]
    fn a_curve_too_good_to_be_true_is_warned_about() {
        // e × 25.5 × 0.03 = 2.079
        let fitted = fit_curve(&on(25.5, 0.03)).expect("three points");
        assert!(fitted.warnings[0].starts_with("e·a·b is 2.08"));
    }

    #[test]
    fn points_that_make_no_curve_are_refused() {
        let good = point(40.0, 1.0, 60.0);
        assert_eq!(
            fit_curve(std::slice::from_ref(&good)),
            Err(FitRefused::TooFew(1))
        );
        assert_eq!(
            fit_curve(&[good.clone(), good.clone(), good.clone()]),
            Err(FitRefused::OneEnergy)
        );
        assert_eq!(
            fit_curve(&[good.clone(), point(40.0, 0.0, 60.0), good.clone()]),
            Err(FitRefused::NotPositive(2))
        );
        assert_eq!(
            fit_curve(&[good, point(40.0, 2.0, 20.0), point(40.0, 3.0, 9.0)]),
            Err(FitRefused::Falling)
        );
    }
}

//! One cushion, cushions in series, and the curve that is drawn of one.

use serde::{Deserialize, Serialize};

use super::{
    Sum,
    checked::{AREA, DROP, ENERGY, GROWTH, LIMIT, MASS, START, THIN},
};
use crate::{
    Refusal, Refusals,
    cushion::{CushionCurve, EnergyRange, Pad, Series, SeriesLayer},
    quantity::{Area, EnergyDensity, Length, Mass, Shock, Stress},
};

const CM2_PER_M2: f64 = 1e4;

/// One cushion under one mass.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct CushionSum {
    /// Of the material, 0.1 to 10 000.
    pub a_kpa: f64,
    /// Of the material, 0.0001 to 10.
    pub b_m3_per_kj: f64,
    /// Inside the cushion, 0.001 to 1000.
    pub mass_kg: f64,
    /// Against what is stiff, 0.1 to 1 000 000.
    pub area_cm2: f64,
    /// Free, or loaded for bubble, 0.01 to 500.
    pub thickness_mm: f64,
    /// 1 to 5000.
    pub drop_mm: f64,
    /// That the piece takes, 1 to 1000 times gravity; without it nothing is designed.
    #[serde(default)]
    pub limit_g: Option<f64>,
    /// Where the tested range begins, 0 to 10 000.
    #[serde(default)]
    pub epsilon_min: Option<f64>,
    /// Where it ends.
    #[serde(default)]
    pub epsilon_max: Option<f64>,
}

/// What a fall does, and what would do.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CushionAnswer {
    /// Under the resting mass.
    pub static_kpa: f64,
    /// Taken up in the fall.
    pub energy_kj_m3: f64,
    /// Nothing above the tested range.
    pub dynamic_kpa: Option<f64>,
    /// Nothing above the tested range.
    pub peak_g: Option<f64>,
    /// The highest fall within the limit; `None` if the cushion never gives, or without a limit.
    pub survives_mm: Option<f64>,
    /// For this fall and area; `None` if G·s ≤ a, too much area, or without a limit.
    pub needed_thickness_mm: Option<f64>,
    /// The thinnest pad, wherever the exponential leads; `None` without a limit.
    pub best: Option<BestAnswer>,
}

/// The thinnest pad.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BestAnswer {
    /// s*.
    pub static_kpa: f64,
    /// T*.
    pub thickness_mm: f64,
    /// A*.
    pub area_cm2: f64,
}

/// Checks a curve's four numbers and makes it.
pub(super) fn check_curve(
    checked: &mut Refusals,
    at: &str,
    [a, b]: [f64; 2],
    [least, most]: [Option<f64>; 2],
) {
    checked
        .number(format!("{at}a_kpa"), a, START)
        .number(format!("{at}b_m3_per_kj"), b, GROWTH)
        .if_given(format!("{at}epsilon_min"), least, ENERGY)
        .if_given(format!("{at}epsilon_max"), most, ENERGY);
    if let (Some(least), Some(most)) = (least, most)
        && least >= most
    {
        checked.refuse(
            format!("{at}epsilon_max"),
            format!(
                "{most} is not above the start, {least}: the tested range must end above its start"
            ),
        );
    }
}

/// The end of a range that was not given: no fall drives a cushion so far.
const NO_END: f64 = 1e9;

pub(super) fn curve([a, b]: [f64; 2], [least, most]: [Option<f64>; 2]) -> CushionCurve {
    let tested = (least.is_some() || most.is_some()).then(|| EnergyRange {
        least: EnergyDensity::kj_m3(least.unwrap_or(0.0)),
        most: EnergyDensity::kj_m3(most.unwrap_or(NO_END)),
    });
    CushionCurve {
        tested,
        ..CushionCurve::endless(Stress::kpa(a), b)
    }
}

impl CushionSum {
    fn check(&self) -> Result<(), Vec<Refusal>> {
        let mut checked = Refusals::default();
        check_curve(
            &mut checked,
            "",
            [self.a_kpa, self.b_m3_per_kj],
            [self.epsilon_min, self.epsilon_max],
        );
        checked
            .number("mass_kg", self.mass_kg, MASS)
            .number("area_cm2", self.area_cm2, AREA)
            .number("thickness_mm", self.thickness_mm, THIN)
            .number("drop_mm", self.drop_mm, DROP)
            .if_given("limit_g", self.limit_g, LIMIT)
            .done()
    }
}

impl Sum for CushionSum {
    type Answer = CushionAnswer;

    fn work(&self) -> Result<CushionAnswer, Vec<Refusal>> {
        self.check()?;
        let pad = Pad {
            curve: curve(
                [self.a_kpa, self.b_m3_per_kj],
                [self.epsilon_min, self.epsilon_max],
            ),
            area: Area::m2(self.area_cm2 / CM2_PER_M2),
            thickness: Length::mm(self.thickness_mm),
        };
        let (mass, drop) = (Mass::kg(self.mass_kg), Length::mm(self.drop_mm));
        let limit = self.limit_g.map(Shock::times_gravity);
        let energy = pad.energy(mass, drop);
        let best = limit.map(|limit| pad.curve.best_pad(mass, drop, limit));
        Ok(CushionAnswer {
            static_kpa: pad.static_stress(mass).as_kpa(),
            energy_kj_m3: energy.as_kj_m3(),
            dynamic_kpa: pad.curve.stress_at(energy).map(Stress::as_kpa),
            peak_g: pad.peak(mass, drop).map(Shock::as_times_gravity),
            survives_mm: limit
                .and_then(|limit| pad.survives(mass, limit))
                .map(Length::as_mm),
            needed_thickness_mm: limit
                .and_then(|limit| pad.needed_thickness(mass, drop, limit))
                .map(Length::as_mm),
            best: best.map(|best| BestAnswer {
                static_kpa: best.static_stress.as_kpa(),
                thickness_mm: best.thickness.as_mm(),
                area_cm2: best.area.as_m2() * CM2_PER_M2,
            }),
        })
    }
}

/// Cushions one behind the other, with something stiff between where their areas differ.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct SeriesSum {
    /// Inside the cushions, 0.001 to 1000.
    pub mass_kg: f64,
    /// 1 to 5000.
    pub drop_mm: f64,
    /// One to twenty.
    pub layers: Vec<SeriesPart>,
}

/// One cushion of a series.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct SeriesPart {
    /// Of the material, 0.1 to 10 000.
    pub a_kpa: f64,
    /// Of the material, 0.0001 to 10.
    pub b_m3_per_kj: f64,
    /// 0.1 to 1 000 000.
    pub area_cm2: f64,
    /// 0.01 to 500.
    pub thickness_mm: f64,
    /// Where the tested range begins, in kJ/m³, 0 to 10 000; 0 when left out. Below it the stress falls with
    /// the root of the energy.
    #[serde(default)]
    pub epsilon_min: f64,
}

impl SeriesPart {
    /// Checks its numbers, under a name for its place.
    pub(super) fn check(&self, checked: &mut Refusals, at: &str) {
        check_curve(
            checked,
            at,
            [self.a_kpa, self.b_m3_per_kj],
            [Some(self.epsilon_min), None],
        );
        checked
            .number(format!("{at}area_cm2"), self.area_cm2, AREA)
            .number(format!("{at}thickness_mm"), self.thickness_mm, THIN);
    }

    pub(super) fn layer(&self) -> SeriesLayer {
        let least = Some(self.epsilon_min).filter(|&least| least > 0.0);
        SeriesLayer {
            curve: curve([self.a_kpa, self.b_m3_per_kj], [least, None]),
            area: Area::m2(self.area_cm2 / CM2_PER_M2),
            thickness: Length::mm(self.thickness_mm),
        }
    }
}

/// What a fall does to a series.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SeriesAnswer {
    /// Through every layer.
    pub force_n: f64,
    /// On the mass.
    pub peak_g: f64,
    /// Taken up by each layer; nothing by one that never starts to give.
    pub energies_kj_m3: Vec<f64>,
}

pub(super) const MOST_PARTS: usize = 20;

impl Sum for SeriesSum {
    type Answer = SeriesAnswer;

    fn work(&self) -> Result<SeriesAnswer, Vec<Refusal>> {
        let mut checked = Refusals::default();
        checked
            .number("mass_kg", self.mass_kg, MASS)
            .number("drop_mm", self.drop_mm, DROP);
        if self.layers.is_empty() || self.layers.len() > MOST_PARTS {
            checked.refuse(
                "layers",
                format!("{} given: give 1 to {MOST_PARTS}", self.layers.len()),
            );
        }
        for (place, part) in self.layers.iter().enumerate() {
            part.check(&mut checked, &format!("layers[{place}]."));
        }
        checked.done()?;
        let layers: Vec<SeriesLayer> = self.layers.iter().map(SeriesPart::layer).collect();
        let mass = Mass::kg(self.mass_kg);
        let series = Series::fall(&layers, mass, Length::mm(self.drop_mm))
            .expect("at least one layer was checked for");
        Ok(SeriesAnswer {
            force_n: series.force.as_n(),
            peak_g: series.force.shock_on(mass).as_times_gravity(),
            energies_kj_m3: series
                .energies
                .iter()
                .map(|energy| energy.as_kj_m3())
                .collect(),
        })
    }
}

/// A cushion curve to draw: G over static stress at one fall and one thickness.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct CurveSum {
    /// Of the material, 0.1 to 10 000.
    pub a_kpa: f64,
    /// Of the material, 0.0001 to 10.
    pub b_m3_per_kj: f64,
    /// Free, or loaded for bubble, 0.01 to 500.
    pub thickness_mm: f64,
    /// 1 to 5000.
    pub drop_mm: f64,
    /// Where the tested range begins, 0 to 10 000.
    #[serde(default)]
    pub epsilon_min: Option<f64>,
    /// Where it ends.
    #[serde(default)]
    pub epsilon_max: Option<f64>,
}

/// The curve, from little stress to much.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CurveAnswer {
    /// Evenly spread on a logarithmic axis of stress.
    pub points: Vec<CurveAt>,
}

/// A point of a curve.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CurveAt {
    /// Under the resting mass.
    pub static_kpa: f64,
    /// On the mass.
    pub peak_g: f64,
    /// Whether its energy lies within what was tested.
    pub tested: bool,
}

const DRAWN_POINTS: u32 = 72;
/// The stress at which energy reaches 1/b is the lowest point of an exponential; drawn from this share…
const DRAWN_FROM: f64 = 0.02;
/// …to this many times of it.
const DRAWN_TO: f64 = 6.0;

impl Sum for CurveSum {
    type Answer = CurveAnswer;

    fn work(&self) -> Result<CurveAnswer, Vec<Refusal>> {
        let mut checked = Refusals::default();
        let (numbers, range) = (
            [self.a_kpa, self.b_m3_per_kj],
            [self.epsilon_min, self.epsilon_max],
        );
        check_curve(&mut checked, "", numbers, range);
        checked
            .number("thickness_mm", self.thickness_mm, THIN)
            .number("drop_mm", self.drop_mm, DROP)
            .done()?;
        let curve = curve(numbers, range);
        let lowest = self.thickness_mm / (self.b_m3_per_kj * self.drop_mm);
        let span: f64 = DRAWN_TO / DRAWN_FROM;
        let points = (0..=DRAWN_POINTS)
            .map(|step| {
                let share = f64::from(step) / f64::from(DRAWN_POINTS);
                let static_kpa = lowest * DRAWN_FROM * span.powf(share);
                let energy = EnergyDensity::kj_m3(static_kpa * self.drop_mm / self.thickness_mm);
                CurveAt {
                    static_kpa,
                    peak_g: curve.stress_beyond(energy).as_kpa() / static_kpa,
                    tested: curve
                        .tested
                        .is_none_or(|range| (range.least..=range.most).contains(&energy)),
                }
            })
            .collect();
        Ok(CurveAnswer { points })
    }
}

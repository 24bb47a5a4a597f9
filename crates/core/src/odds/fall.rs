//! What falls do on a journey: the chance that one of them harms, over the ways a parcel lands and the
//! heights it falls from.

use std::sync::LazyLock;

use serde::Serialize;
use statrs::{
    distribution::{ContinuousCDF, Normal},
    function::erf::erfc,
};

use crate::{
    cushion::{DamageBoundary, SeriesLayer, Springs},
    piece::PLANE_FREQUENCY,
    quantity::{Force, Frequency, GRAVITY_M_S2, Length, Mass, Shock, straight_in_logs},
};

/// What falls, and what it can take.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Faller {
    /// Inside the innermost cushion.
    pub mass: Mass,
    /// Of the whole parcel: it sets the heights.
    pub parcel: Mass,
    /// Longest side of the parcel: a long one is carried lower.
    pub longest: Length,
    /// Of the piece itself, along its width.
    pub across: Length,
    /// …its height.
    pub up: Length,
    /// …and its depth.
    pub through: Length,
    /// What one piece in twenty would not take on its face.
    pub limit: Shock,
    /// How quickly it answers there.
    pub frequency: Frequency,
    /// How many times that it takes in its own plane.
    pub plane_factor: f64,
    /// …and on its back.
    pub back_factor: f64,
}

/// What lies on each side of it, in any order; nothing at all leaves the side bare.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct FallSides {
    /// Before the face.
    pub front: Vec<SeriesLayer>,
    /// Behind.
    pub back: Vec<SeriesLayer>,
    /// Above and below.
    pub up: Vec<SeriesLayer>,
    /// At the left and the right.
    pub across: Vec<SeriesLayer>,
}

/// How likely one fall is to harm.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FallDanger {
    /// Landing flat, with what nothing prevents.
    pub flat: f64,
    /// Landing on an edge or a corner, likewise.
    pub edges: f64,
    /// What they are made of: the share of each way to land, times the chance that it harms.
    pub parts: FallParts,
}

/// The parts of it by how it lands.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FallParts {
    /// Flat on the face.
    pub face: f64,
    /// Flat on the back.
    pub back: f64,
    /// Tipped over onto the face.
    pub tip_front: f64,
    /// Tipped over onto the back.
    pub tip_back: f64,
    /// On the top or bottom edge.
    pub edge_up: f64,
    /// On the left or right edge.
    pub edge_across: f64,
    /// On a corner.
    pub corner: f64,
}

/// What no packing prevents.
const NEVER_NOTHING: f64 = 2e-6;
/// How parcels land, by share. Source: trade judgement.
const FACE: f64 = 0.015;
const TIPPED: f64 = 0.06;
const EDGE: f64 = 0.30;
const CORNER: f64 = 0.25;
/// What of a square fall's shock and speed a real one passes on: it rarely lands square. Source: trade
/// judgement.
const FLAT_SHOCK: f64 = 0.6;
const TIPPED_SHOCK: f64 = 0.3;
const TIPPED_SPEED: f64 = 0.3;
const EDGE_SHOCK: f64 = 0.5;
/// How widely pieces of a kind differ in what they take, on a logarithm; the limit is what one in twenty
/// would not take, 1.645 deviations under the middle.
const SPREAD: f64 = 0.8;
const ONE_IN_TWENTY: f64 = 1.645;
/// Heights of falls are log-normal; the median is by the parcel's mass, in kilograms and millimetres.
/// Straight in the logarithms of both between two masses.
const MEDIANS: [[f64; 2]; 5] = [
    [5.0, 220.0],
    [7.5, 200.0],
    [14.0, 160.0],
    [24.0, 120.0],
    [36.0, 90.0],
];
/// A long parcel is carried lower, by its longest side in millimetres.
const LENGTHS: [[f64; 2]; 3] = [[1000.0, 1.0], [1250.0, 0.85], [1600.0, 0.7]];
const HEIGHTS_SPREAD: f64 = 0.6;
const STEPS: u32 = 60;

/// e^(0.6·z) at the mid-points of equal steps of probability, the highest first.
static HEIGHTS: LazyLock<Vec<f64>> = LazyLock::new(|| {
    let normal = Normal::standard();
    (0..STEPS)
        .rev()
        .map(|step| normal.inverse_cdf((f64::from(step) + 0.5) / f64::from(STEPS)))
        .map(|z| (HEIGHTS_SPREAD * z).exp())
        .collect()
});

/// Returns how likely one fall of a journey is to harm, flat and on edges.
///
/// The mean over the heights of one fall of Φ((ln r − ln m)/0.8), r = min(G/G₅, V/V₅), weighted by how
/// parcels land. A side without any layer leaves the shock without a bound, and the speed alone decides.
/// Adding or thickening a layer never raises it. Source: packaging engineering practice for the shock, trade
/// judgement for how often and how parcels fall.
#[must_use]
pub fn danger_of_falls(faller: &Faller, sides: &FallSides) -> FallDanger {
    let study = Study::of(faller);
    let [front, back, up, across] =
        [&sides.front, &sides.back, &sides.up, &sides.across].map(|side| study.square(side));
    let limit = faller.limit.as_times_gravity();
    let face = (limit, faller.frequency);
    let behind = (limit * faller.back_factor, faller.frequency);
    let plane = (limit * faller.plane_factor, PLANE_FREQUENCY);
    let Faller {
        across: w,
        up: h,
        through: d,
        ..
    } = *faller;
    let parts = FallParts {
        face: FACE * study.harm(&front, face, FLAT_SHOCK, 1.0),
        back: FACE * study.harm(&back, behind, FLAT_SHOCK, 1.0),
        tip_front: TIPPED * study.harm(&front, face, TIPPED_SHOCK, TIPPED_SPEED),
        tip_back: TIPPED * study.harm(&back, behind, TIPPED_SHOCK, TIPPED_SPEED),
        edge_up: EDGE * study.harm(&meeting(&[(h, &up), (d, &front)]), plane, EDGE_SHOCK, 1.0),
        edge_across: EDGE
            * study.harm(
                &meeting(&[(w, &across), (d, &front)]),
                plane,
                EDGE_SHOCK,
                1.0,
            ),
        corner: CORNER
            * study.harm(
                &meeting(&[(h, &up), (w, &across), (d, &front)]),
                plane,
                EDGE_SHOCK,
                1.0,
            ),
    };
    FallDanger {
        flat: NEVER_NOTHING + parts.face + parts.back + parts.tip_front + parts.tip_back,
        edges: NEVER_NOTHING + parts.edge_up + parts.edge_across + parts.corner,
        parts,
    }
}

/// Shocks at each height, as multiples of gravity; `None` if there is no bound.
type Shocks = Option<Vec<f64>>;

/// The falls of one parcel.
struct Study {
    weight: Force,
    /// In metres, the highest first.
    heights: Vec<f64>,
}

impl Study {
    fn of(faller: &Faller) -> Self {
        let median = median_height(faller.parcel, faller.longest).as_m();
        Self {
            weight: Force::weight_of(faller.mass),
            heights: HEIGHTS.iter().map(|times| median * times).collect(),
        }
    }

    /// The shock of a fall square onto one side, at each height.
    fn square(&self, side: &[SeriesLayer]) -> Shocks {
        let springs = Springs::of(side)?;
        let weight = self.weight.as_n();
        let energies = self.heights.iter().map(|height| weight * height);
        let forces = springs.forces_at(energies);
        Some(forces.into_iter().map(|force| force / weight).collect())
    }

    /// The chance that a fall harms, with the shock and the frequency that one in twenty would not take.
    fn harm(
        &self,
        shocks: &Shocks,
        (limit, frequency): (f64, Frequency),
        shock_passed: f64,
        speed_passed: f64,
    ) -> f64 {
        let critical = limit * GRAVITY_M_S2 / (std::f64::consts::TAU * frequency.as_hz());
        let by_speed = speed_passed * (1.0 + DamageBoundary::REBOUND) / critical;
        let chances = self.heights.iter().enumerate().map(|(place, height)| {
            let speed = by_speed * (2.0 * GRAVITY_M_S2 * height).sqrt();
            let ratio = shocks.as_ref().map_or(speed, |shocks| {
                speed.min(shocks[place] * shock_passed / limit)
            });
            chance_of_harm(ratio)
        });
        chances.sum::<f64>() / f64::from(STEPS)
    }
}

/// Φ((ln r − ln m)/0.8), with ln m = 1.645·0.8.
fn chance_of_harm(ratio: f64) -> f64 {
    let deviations = ratio.ln() / SPREAD - ONE_IN_TWENTY;
    erfc(-deviations * std::f64::consts::FRAC_1_SQRT_2) / 2.0
}

/// Each side takes its share n² of the fall on its share n² of the area, so that G = √Σ(n²·G)².
fn meeting(sides: &[(Length, &Shocks)]) -> Shocks {
    let square = |side: Length| side.as_mm() * side.as_mm();
    let diagonal: f64 = sides.iter().map(|(side, _)| square(*side)).sum();
    let mut sums = vec![0.0; HEIGHTS.len()];
    for (side, shocks) in sides {
        let share = square(*side) / diagonal;
        for (sum, shock) in sums.iter_mut().zip(shocks.as_ref()?) {
            *sum += (share * shock) * (share * shock);
        }
    }
    Some(sums.into_iter().map(f64::sqrt).collect())
}

/// Returns the height that half of a parcel's falls stay under.
fn median_height(parcel: Mass, longest: Length) -> Length {
    let of = |points: &[[f64; 2]], x: f64| straight_in_logs(points, x).expect("there are points");
    Length::mm(of(&MEDIANS, parcel.as_kg()) * of(&LENGTHS, longest.as_mm()))
}

#[cfg(test)]
mod tests;

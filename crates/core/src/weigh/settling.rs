//! What a scale says while it comes to rest.

use std::collections::VecDeque;

use serde::{Deserialize, Serialize};

use crate::quantity::Mass;

/// What a scale sends.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum Sample {
    /// What lies on it, with its own tare.
    Reads {
        /// Less than nothing when something was taken off since it was set to nothing.
        #[serde(rename = "mass_g")]
        mass: Mass,
    },
    /// More lies on it than it bears.
    Overload,
}

/// How far a reading can be relied on.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum ScaleState {
    /// It has not come to rest.
    Unstable,
    /// It rests.
    Stable,
    /// More lies on it than it bears.
    Overload,
    /// It does not answer: it is switched off or its cable is out.
    Away,
}

/// What the scale says now.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LiveReading {
    /// How far it can be relied on.
    pub state: ScaleState,
    /// All that lies on it; `None` if it says nothing.
    #[serde(rename = "gross_g")]
    pub gross: Option<Mass>,
    /// The same less the tare.
    #[serde(rename = "net_g")]
    pub net: Option<Mass>,
}

impl LiveReading {
    /// What is said of a scale that does not answer.
    pub const AWAY: Self = Self {
        state: ScaleState::Away,
        gross: None,
        net: None,
    };
}

/// It rests when everything within this time lies within the tolerance.
const REST_MS: u64 = 1200;
/// That many readings at least, however far apart they come.
const REST_READINGS: usize = 5;
/// Within so much, or that share of what lies on it.
const TOLERANCE: Mass = Mass::g(10.0);
const TOLERANCE_SHARE: f64 = 0.002;
/// No more readings than these are looked at, however fast they come.
const MOST_READINGS: usize = 256;

/// A scale as it comes to rest: it takes one sample after the other and says whether the last ones agree.
///
/// It rests when all readings of the last 1.2 s, five at least, lie within 10 g or 0.2 % of each other, whichever is
/// more; what it then says is their mean. A scale that drifts steadily never rests by this while it drifts faster than the
/// tolerance in that time. Source: house rule.
#[derive(Debug, Clone, Default)]
pub struct Settling {
    /// When, in milliseconds of any clock that only goes forward, and what.
    last: VecDeque<(u64, Mass)>,
}

impl Settling {
    /// Takes a sample and says what the scale says now, with so much as tare.
    pub fn takes(&mut self, at_ms: u64, sample: Sample, tare: Mass) -> LiveReading {
        let Sample::Reads { mass } = sample else {
            self.last.clear();
            return LiveReading {
                state: ScaleState::Overload,
                gross: None,
                net: None,
            };
        };
        self.last.push_back((at_ms, mass));
        // One from before that time is kept: without it nobody knows that it is over.
        while self.last.len() > MOST_READINGS
            || self
                .last
                .get(1)
                .is_some_and(|(at, _)| at + REST_MS <= at_ms)
        {
            self.last.pop_front();
        }
        let rests = self.rests(at_ms);
        let count = f64::from(u32::try_from(self.last.len()).unwrap_or(u32::MAX));
        let mean = self.last.iter().map(|(_, mass)| *mass).sum::<Mass>() * (1.0 / count);
        let gross = if rests { mean } else { mass };
        LiveReading {
            state: if rests {
                ScaleState::Stable
            } else {
                ScaleState::Unstable
            },
            gross: Some(gross),
            net: Some(gross - tare),
        }
    }

    fn rests(&self, now: u64) -> bool {
        let Some((since, _)) = self.last.front() else {
            return false;
        };
        let masses = self.last.iter().map(|(_, mass)| *mass);
        let (Some(least), Some(most)) = (masses.clone().min(), masses.max()) else {
            return false;
        };
        let tolerance = TOLERANCE.max(most * TOLERANCE_SHARE);
        self.last.len() >= REST_READINGS && since + REST_MS <= now && most - least <= tolerance
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn fed(masses: impl IntoIterator<Item = f64>, every_ms: u64) -> LiveReading {
        let mut scale = Settling::default();
        let mut last = LiveReading::AWAY;
        for (at, mass) in masses.into_iter().enumerate() {
            let mass = Mass::g(mass);
            last = scale.takes(at as u64 * every_ms, Sample::Reads { mass }, Mass::g(250.0));
        }
        last
    }

    #[test]
    fn what_stays_within_ten_grams_for_its_time_rests_at_its_mean() {
        // 0, 200 … 1200 ms: seven readings, 3608 and 3612 in turn, their mean (4·3608 + 3·3612)/7 = 3609.714
        let reading = fed(
            [3608.0, 3612.0, 3608.0, 3612.0, 3608.0, 3612.0, 3608.0],
            200,
        );
        assert_eq!(reading.state, ScaleState::Stable);
        let gross = reading.gross.expect("a reading").as_g();
        assert!((gross - 25_268.0 / 7.0).abs() < 1e-9, "{gross}");
        assert_eq!(
            reading.net,
            reading.gross.map(|gross| gross - Mass::g(250.0))
        );
    }

    #[test]
    fn neither_too_short_a_time_nor_too_few_readings_are_rest() {
        assert_eq!(fed([3600.0; 6], 200).state, ScaleState::Unstable, "1000 ms");
        assert_eq!(fed([3600.0; 4], 600).state, ScaleState::Unstable, "four");
        assert_eq!(fed([3600.0; 5], 300).state, ScaleState::Stable);
    }

    #[test]
    fn what_swings_or_drifts_does_not_rest() {
        assert_eq!(
            fed(
                [3600.0, 3611.0, 3600.0, 3611.0, 3600.0, 3611.0, 3600.0],
                200
            )
            .state,
            ScaleState::Unstable
        );
        // 12 g in 1.2 s
        assert_eq!(
            fed((0..40).map(|at| 3600.0 + 2.0 * f64::from(at)), 200).state,
            ScaleState::Unstable
        );
        // 0.2 % of 20 kg is 40 g
        assert_eq!(
            fed(
                [
                    20_000.0, 20_035.0, 20_000.0, 20_035.0, 20_000.0, 20_035.0, 20_000.0
                ],
                200
            )
            .state,
            ScaleState::Stable
        );
    }

    #[test]
    fn what_was_before_an_overload_does_not_count() {
        let mut scale = Settling::default();
        let reads = Sample::Reads {
            mass: Mass::g(500.0),
        };
        for at in 0..10 {
            scale.takes(at * 200, reads, Mass::ZERO);
        }
        assert_eq!(
            scale.takes(2000, Sample::Overload, Mass::ZERO).state,
            ScaleState::Overload
        );
        assert_eq!(
            scale.takes(2200, reads, Mass::ZERO).state,
            ScaleState::Unstable
        );
    }
}

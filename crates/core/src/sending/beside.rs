//! What a parcel really weighed, measured, cost and took, beside what was planned for it.

use jiff::Timestamp;
use serde::Serialize;

use super::HandedParcel;
use crate::{
    quantity::{Length, Mass, Minutes, Money},
    shipment::ShipmentInputs,
};

/// A figure as it was planned, and as it turned out.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema), schema(as = Beside))]
pub struct Comparison<T> {
    /// As planned.
    pub planned: T,
    /// As it turned out; `None` if nobody wrote it down.
    pub was: Option<T>,
}

/// A parcel as it was planned, and as it turned out.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ParcelBeside {
    /// Of the closed box.
    #[serde(rename = "mass_g")]
    pub mass: Comparison<Mass>,
    /// How far the plan said that it may be off.
    #[serde(rename = "plus_minus_g")]
    pub plus_minus: Mass,
    /// Of the closed box, across.
    #[serde(rename = "across_mm")]
    pub across: Comparison<Length>,
    /// Up.
    #[serde(rename = "up_mm")]
    pub up: Comparison<Length>,
    /// Through.
    #[serde(rename = "through_mm")]
    pub through: Comparison<Length>,
    /// Carriage, in the studio's money; `None` if no price was chosen.
    pub cost: Option<Comparison<Money>>,
    /// What the buyer paid the shop for it; `None` where no order says it.
    pub paid: Option<Money>,
    /// Of packing: what somebody wrote down, else what the ticks say.
    pub minutes: Comparison<Minutes>,
    /// What its ticks say that packing took, without the breaks.
    pub ticked_minutes: Option<Minutes>,
}

/// Whoever ticks nothing for so long does something else.
const BREAK_SECONDS: f64 = 900.0;
const MINUTE: f64 = 60.0;

impl ParcelBeside {
    /// Returns a parcel that was handed over, with what was written down since.
    #[must_use]
    pub fn of(handed: &HandedParcel, inputs: &ShipmentInputs) -> Self {
        let HandedParcel {
            weight,
            outside,
            weighed,
            measured,
            carriage,
            minutes,
            ..
        } = handed;
        let billed = inputs.billed();
        let took = inputs.after.minutes.map(f64::from).map(Minutes::min_of);
        let by_ticks = handed.ticked_minutes();
        Self {
            mass: Comparison {
                planned: weight.mass,
                was: *weighed,
            },
            plus_minus: weight.plus_minus,
            across: Comparison {
                planned: outside.across,
                was: measured.map(|measured| measured.across),
            },
            up: Comparison {
                planned: outside.up,
                was: measured.map(|measured| measured.up),
            },
            through: Comparison {
                planned: outside.through,
                was: measured.map(|measured| measured.through),
            },
            cost: carriage.as_ref().map(|planned| Comparison {
                planned: planned.clone(),
                was: billed.map(|amount| Money {
                    amount,
                    ..planned.clone()
                }),
            }),
            paid: inputs
                .paid_for_carriage()
                .map(|amount| Money::new(amount, &handed.currency())),
            minutes: Comparison {
                planned: *minutes,
                was: took.or(by_ticks),
            },
            ticked_minutes: by_ticks,
        }
    }
}

impl HandedParcel {
    /// Returns what the ticks of its steps say that packing took, without the breaks.
    #[must_use]
    pub fn ticked_minutes(&self) -> Option<Minutes> {
        ticked(self.steps.iter().filter_map(|step| step.at.as_deref()))
    }
}

/// Returns the minutes between the first tick and the last, of which none counts more than a quarter of an hour; `None` if fewer
/// than three were made, or all at once.
fn ticked<'a>(times: impl Iterator<Item = &'a str>) -> Option<Minutes> {
    let mut times: Vec<Timestamp> = times.filter_map(|at| at.parse().ok()).collect();
    times.sort();
    if times.len() < 3 {
        return None;
    }
    let seconds: f64 = times
        .windows(2)
        .map(|pair| {
            let gap = pair[1].duration_since(pair[0]).as_secs_f64();
            gap.min(BREAK_SECONDS)
        })
        .sum();
    (seconds >= MINUTE).then(|| Minutes::min_of((seconds / MINUTE).round()))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn ticks_say_how_long_it_took_without_the_lunch() {
        // 10:00, 10:06, 10:12, then lunch, 11:30 (a quarter of an hour counts), 11:36: 6 + 6 + 15 + 6
        let times = ["10:00", "10:12", "10:06", "11:30", "11:36"];
        let times: Vec<String> = times
            .iter()
            .map(|time| format!("2027-03-04T{time}:00Z"))
            .collect();
        let took = ticked(times.iter().map(String::as_str)).expect("five ticks");
        assert!((took.as_min() - 33.0).abs() < 1e-9);
        // All at once, as somebody does who packs without looking.
        let at_once = ["2027-03-04T10:00:00Z"; 5];
        assert_eq!(ticked(at_once.into_iter()), None);
        assert_eq!(
            ticked(["2027-03-04T10:00:00Z", "2027-03-04T11:00:00Z"].into_iter()),
            None
        );
    }
}

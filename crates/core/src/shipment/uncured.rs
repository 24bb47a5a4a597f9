//! Paint or varnish that is not dry enough: a Stop on every plan, from one function.

use jiff::civil::{Date, DateTime};

use super::{ShipmentInputs, Summary};
use crate::{
    piece::Cure,
    plan::{Finding, FindingLevel, Plan},
    quantity::Telling,
};

/// The code of the Stop, under which the reason is kept why such a piece travels all the same.
pub(super) const CURE: &str = "cure";

/// What stands against a shipment on a day.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Against {
    /// What is answered first.
    pub says: String,
    /// How many other Stops must be answered besides.
    pub more: usize,
    /// When what is not dry has cured, where that comes first.
    pub cure: Option<Cure>,
}

impl Summary {
    /// Returns what stands against a shipment on a day: what is not dry first, then the Stops of its plan; `None` if nothing does.
    ///
    /// Bench, work line, every stop, Send and the pack sheet ask here.
    #[must_use]
    pub fn against(&self, today: Date, telling: Telling) -> Option<Against> {
        let wet = self
            .cure
            .as_ref()
            .filter(|cure| is_uncured(cure, today) && !self.cure_lifted);
        match (wet, &self.stop) {
            (Some(cure), _) => Some(Against {
                says: says(cure, None, telling),
                more: self.stops,
                cure: Some(cure.clone()),
            }),
            (None, Some(stop)) => Some(Against {
                says: stop.clone(),
                more: self.stops.saturating_sub(1),
                cure: None,
            }),
            (None, None) => None,
        }
    }
}

/// Tells whether something is still wet on a day, or may be, since nobody said when it was finished.
fn is_uncured(cure: &Cure, today: Date) -> bool {
    !cure.is_cured_by(today)
}

/// Returns the Stop of a plan whose piece is not dry on a day, however it was answered; `None` once it is.
pub(super) fn uncured(
    plan: &Plan,
    inputs: &ShipmentInputs,
    today: Date,
    telling: Telling,
) -> Option<Finding> {
    let cure = plan.cure.as_ref().filter(|cure| is_uncured(cure, today))?;
    let promised = inputs.promised_for();
    Some(Finding::piece(
        FindingLevel::Stop,
        CURE,
        says(cure, promised, telling),
    ))
}

/// Returns the last minute at which a plan says what it says: the day on which it has cured takes the Stop away.
pub(super) fn says_so_until(plan: &Plan, now: DateTime) -> Option<DateTime> {
    let cured_on = plan.cure.as_ref()?.cured_on?;
    let day_before = cured_on.yesterday().ok()?;
    (cured_on > now.date()).then(|| day_before.at(23, 59, 0, 0))
}

fn says(cure: &Cure, promised: Option<Date>, telling: Telling) -> String {
    let out = "or lay a sheet on it that may touch it wet, and write why it travels so";
    match (cure.cured_on, promised) {
        (Some(day), Some(promised)) if promised < day => format!(
            "It is not dry before {}, and promised for {}. Promise a later day, {out}.",
            telling.day(day),
            telling.day(promised)
        ),
        (Some(day), _) => format!(
            "It is not dry before {}. Send it later, {out}.",
            telling.day(day)
        ),
        (None, _) => format!(
            "It needs {} to dry, and nobody said since when. Type the day at Measure, {out}.",
            cure.needs
        ),
    }
}

#[cfg(test)]
mod tests {
    use jiff::civil::date;

    use super::*;

    #[test]
    fn what_is_not_dry_says_the_day_and_the_ways_out() {
        let cure = |cured_on| Cure {
            cured_on,
            needs: "6 months".to_owned(),
        };
        let telling = Telling::default();
        let dry = date(2027, 3, 4);
        let says =
            |cure: &Cure, promised| super::says(cure, promised, telling).replace('\u{a0}', " ");
        assert!(
            says(&cure(Some(dry)), None)
                .starts_with("It is not dry before 4 Mar 2027. Send it later")
        );
        assert!(
            says(&cure(Some(dry)), Some(date(2027, 3, 1)))
                .contains("promised for 1 Mar 2027. Promise a later day")
        );
        // A promise on the day itself is none too early.
        assert!(!says(&cure(Some(dry)), Some(dry)).contains("promised"));
        assert!(
            says(&cure(None), None)
                .contains("needs 6 months to dry, and nobody said since when. Type the day")
        );
        assert!(is_uncured(&cure(None), dry) && !is_uncured(&cure(Some(dry)), dry));
    }
}

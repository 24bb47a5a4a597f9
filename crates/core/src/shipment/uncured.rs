//! Paint or varnish that is not dry enough: a Stop on every plan, from one function.

use jiff::civil::{Date, DateTime};

use super::ShipmentInputs;
use crate::{
    piece::Cure,
    plan::{Finding, FindingLevel, Plan},
    quantity::Telling,
};

/// The code of the Stop, under which the reason is kept why such a piece travels all the same.
pub(super) const CURE: &str = "cure";

/// Tells whether something is still wet on a day, or may be, since nobody said when it was finished.
pub(super) fn is_uncured(cure: &Cure, today: Date) -> bool {
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
        format!(
            "{} {}",
            fact(cure, promised, telling),
            ways_out(cure, promised)
        ),
    ))
}

/// Returns the last minute at which a plan says what it says: the day on which it has cured takes the Stop away.
pub(super) fn says_so_until(plan: &Plan, now: DateTime) -> Option<DateTime> {
    let cured_on = plan.cure.as_ref()?.cured_on?;
    let day_before = cured_on.yesterday().ok()?;
    (cured_on > now.date()).then(|| day_before.at(23, 59, 0, 0))
}

/// Returns when it is dry, in one sentence.
pub(super) fn fact(cure: &Cure, promised: Option<Date>, telling: Telling) -> String {
    match (cure.cured_on, promised) {
        (Some(day), Some(promised)) if promised < day => format!(
            "It dries by {}, but is promised for {}.",
            telling.day(day),
            telling.day(promised)
        ),
        (Some(day), _) => format!("It isn't dry until {}.", telling.day(day)),
        (None, _) => format!(
            "It needs {} to dry, and the day it was finished is missing.",
            cure.needs
        ),
    }
}

/// Returns what can be done about it, in one sentence.
fn ways_out(cure: &Cure, promised: Option<Date>) -> String {
    let first = match (cure.cured_on, promised) {
        (Some(day), Some(promised)) if promised < day => "Promise a later day",
        (Some(_), _) => "Send it later",
        (None, _) => "Enter the day",
    };
    format!("{first}, or use a sheet that may touch wet paint and write the reason.")
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
        let says = |cure: &Cure, promised| {
            let said = format!(
                "{} {}",
                fact(cure, promised, telling),
                ways_out(cure, promised)
            );
            said.replace('\u{a0}', " ")
        };
        assert!(
            says(&cure(Some(dry)), None)
                .starts_with("It isn't dry until 4 Mar 2027. Send it later")
        );
        assert!(
            says(&cure(Some(dry)), Some(date(2027, 3, 1)))
                .contains("promised for 1 Mar 2027. Promise a later day")
        );
        // A promise on the day itself is none too early.
        assert!(!says(&cure(Some(dry)), Some(dry)).contains("promised"));
        assert!(says(&cure(None), None).contains(
            "needs 6 months to dry, and the day it was finished is missing. Enter the day"
        ));
        assert!(is_uncured(&cure(None), dry) && !is_uncured(&cure(Some(dry)), dry));
    }
}

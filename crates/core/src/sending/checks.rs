//! What is looked at before a parcel leaves.

use jiff::civil::Date;
use serde::Serialize;

use super::AddressGap;
use crate::{
    pack::PackProgress,
    quantity::{Money, Telling},
    shipment::{ProtectedLook, ShipmentInputs, Stop, Summary},
};

/// Something that is looked at before a parcel leaves.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LeavingCheck {
    /// Which; stable.
    pub key: &'static str,
    /// What is so, or what is to be done, in a sentence.
    pub says: String,
    /// Whether it is as it should be.
    pub done: bool,
    /// Whether nothing leaves without it.
    pub needed: bool,
    /// The stop at which it is put right; `None` if that is here.
    pub at: Option<Stop>,
    /// Whether a person confirms it at Send, where nothing stands in the way of that: a box to tick rather than a fact.
    pub confirm: bool,
}

/// What is known of a parcel that is to leave.
#[derive(Debug, Clone, Copy)]
pub struct Inspection<'a> {
    /// What was typed.
    pub inputs: &'a ShipmentInputs,
    /// What follows from it; `None` before there is a plan.
    pub summary: Option<&'a Summary>,
    /// The day on which it is looked at.
    pub today: Date,
    /// How quantities and days are told.
    pub telling: Telling,
    /// What both addresses want.
    pub gaps: &'a [AddressGap],
    /// What both addresses are known by.
    pub print: &'a str,
    /// What both were known by when the carrier was told them; `None` before it is booked.
    pub booked_print: Option<&'a str>,
    /// What it is followed by, booked or typed.
    pub tracking: Option<&'a str>,
    /// Whether its service can be followed at all.
    pub tracked: bool,
    /// Whether its carrier can be asked to book it from here.
    pub bookable: bool,
    /// Whether it meets customs on its way.
    pub customs: bool,
}

impl Inspection<'_> {
    /// Tells whether a service was chosen that takes the parcel.
    fn is_chosen(&self) -> bool {
        let best = self.summary.and_then(|summary| summary.best.as_ref());
        best.is_some_and(|best| best.chosen)
    }
}

/// Returns what is looked at before a parcel leaves, in the order in which people do it: what is planned, what is packed and weighed, the
/// addresses, then number and label.
#[must_use]
pub fn leaving_checks(over: &Inspection<'_>) -> Vec<LeavingCheck> {
    let mut checks = vec![
        answered(over),
        chosen(over),
        covered(over),
        packed(over),
        weighed(over),
        addressed(over),
    ];
    if over.customs {
        checks.push(protected(over.inputs));
    }
    checks.extend([followed(over), marked(over.inputs)]);
    if over.inputs.handed_over().is_some() {
        checks.push(receipt(over.inputs));
    }
    checks
}

fn check(key: &'static str, done: bool, says: impl Into<String>) -> LeavingCheck {
    LeavingCheck {
        key,
        says: says.into(),
        done,
        needed: false,
        at: None,
        confirm: false,
    }
}

impl LeavingCheck {
    fn needed(self) -> Self {
        Self {
            needed: true,
            ..self
        }
    }

    /// A person confirms it.
    fn confirmed(self) -> Self {
        Self {
            confirm: true,
            ..self
        }
    }

    fn at(self, stop: Stop) -> Self {
        Self {
            at: Some(stop),
            ..self
        }
    }
}

fn answered(over: &Inspection<'_>) -> LeavingCheck {
    match over.summary {
        None => check("answered", false, "Measure the piece first.").at(Stop::Measure),
        Some(summary) => {
            let stopped = summary.stopped(over.inputs, over.today, over.telling);
            match stopped.split_first() {
                Some((first, others)) => {
                    let more = match others.len() {
                        0 => String::new(),
                        1 => " 1 more Stop is open.".to_owned(),
                        more => format!(" {more} more Stops are open."),
                    };
                    let says = format!("Answer first: {}{more}", first.says);
                    check("answered", false, says).at(first.at)
                }
                None => check("answered", true, "No Stop of the plan is open."),
            }
        }
    }
    .needed()
}

fn packed(over: &Inspection<'_>) -> LeavingCheck {
    let summary = over.summary;
    let steps = summary.and_then(|summary| summary.packed);
    match steps {
        Some(PackProgress { touched, .. }) if touched > 0 => check(
            "packed",
            false,
            "The plan changed after packing began. Check which steps to repeat.",
        ),
        Some(PackProgress { steps, done, .. }) if done == steps => {
            check("packed", true, format!("All {steps} steps are done."))
        }
        Some(packed) if packed.is_done() => check(
            "packed",
            true,
            format!(
                "All checks are done; {} of {} steps are ticked.",
                packed.done, packed.steps
            ),
        ),
        Some(PackProgress { steps, done, .. }) => check(
            "packed",
            false,
            format!("{done} of {steps} steps are done. Finish the rest at Pack."),
        ),
        None => check("packed", false, "Packing hasn't begun."),
    }
    .at(Stop::Pack)
}

fn weighed(over: &Inspection<'_>) -> LeavingCheck {
    match over.summary.and_then(|summary| summary.weighed) {
        Some(weighed) if weighed.stands => {
            check("weighed", true, "Weighed; the price uses this weight.")
        }
        Some(_) => check(
            "weighed",
            false,
            "The plan changed after weighing. Weigh it again.",
        ),
        None => check(
            "weighed",
            false,
            "Not weighed yet. If the carrier finds it heavier, you pay a surcharge.",
        ),
    }
    .at(Stop::Weigh)
}

fn addressed(over: &Inspection<'_>) -> LeavingCheck {
    if let Some(gap) = over.gaps.first() {
        return check(
            "addresses",
            false,
            format!("Check the addresses: {}.", gap.says),
        )
        .needed();
    }
    if over.booked_print.is_some_and(|booked| booked != over.print) {
        return check(
            "addresses",
            false,
            "An address changed after booking. Cancel and book again, or restore the address.",
        )
        .needed();
    }
    let read = over.inputs.sending.addresses_read.as_deref() == Some(over.print);
    let says = "Both addresses match the order, letter by letter.";
    check("addresses", read, says).needed().confirmed()
}

fn protected(inputs: &ShipmentInputs) -> LeavingCheck {
    let sending = &inputs.sending;
    match sending.protected {
        None => check(
            "protected",
            false,
            "It crosses a border. Check the piece and its frame for ivory, shell, horn, protected wood or skin.",
        ),
        Some(ProtectedLook::None) => check("protected", true, "No protected materials."),
        Some(ProtectedLook::Some) if sending.protected_what.trim().is_empty() => check(
            "protected",
            false,
            "Name the protected material: the customs paper lists it.",
        ),
        Some(ProtectedLook::Some) => check(
            "protected",
            true,
            format!("Contains {}. Add its permit to the papers.", sending.protected_what.trim()),
        ),
    }
    .needed()
}

fn chosen(over: &Inspection<'_>) -> LeavingCheck {
    let best = over.summary.and_then(|summary| summary.best.as_ref());
    match best.filter(|best| best.chosen) {
        Some(best) => check(
            "service",
            true,
            format!("It goes with {} {}.", best.carrier, best.service),
        ),
        None => check("service", false, "Choose a service that takes it."),
    }
    .needed()
    .at(Stop::Price)
}

fn covered(over: &Inspection<'_>) -> LeavingCheck {
    let best = over.summary.and_then(|summary| summary.best.as_ref());
    let Some(best) = best.filter(|best| best.chosen) else {
        return check("cover", false, "Choose a service to see its cover.").at(Stop::Price);
    };
    match (best.uncovered.as_ref(), over.inputs.worth().ok().flatten()) {
        (Some(Money { amount, currency }), _) => check(
            "cover",
            false,
            format!("Cover is {amount} {} below its value.", currency.code()),
        ),
        (None, Some(_)) => check("cover", true, "The full value is covered."),
        (None, None) => check(
            "cover",
            false,
            "No value entered: only the included cover applies.",
        ),
    }
    .at(Stop::Price)
}

fn followed(over: &Inspection<'_>) -> LeavingCheck {
    match over.tracking {
        Some(number) => check("tracking", true, format!("Tracking number {number}.")),
        None if over.inputs.sending.no_number => check(
            "tracking",
            true,
            "No tracking number: you can't follow the parcel, and a loss is hard to prove.",
        ),
        None if !over.is_chosen() => check(
            "tracking",
            false,
            "Tracking depends on the service. Choose one first.",
        ),
        None if over.bookable => check(
            "tracking",
            false,
            "No tracking number yet. Book the parcel, or enter its number if you booked elsewhere.",
        ),
        None if over.tracked => check(
            "tracking",
            false,
            "No tracking number yet. Enter the carrier's number, or confirm that it has none.",
        ),
        None => check(
            "tracking",
            false,
            "This service has no tracking. Enter the receipt number, or confirm that it has none.",
        ),
    }
}

fn marked(inputs: &ShipmentInputs) -> LeavingCheck {
    let says = "Label and marks are on: the label flat on the largest side, away from seams.";
    check("marked", inputs.sending.marked, says).confirmed()
}

fn receipt(inputs: &ShipmentInputs) -> LeavingCheck {
    let there = !inputs.sending.receipt.trim().is_empty();
    let says = if there {
        "Receipt number saved."
    } else {
        "Enter the receipt number. It proves that the carrier has the parcel."
    };
    check("receipt", there, says)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn over<'a>(inputs: &'a ShipmentInputs, gaps: &'a [AddressGap]) -> Inspection<'a> {
        Inspection {
            inputs,
            summary: None,
            today: jiff::civil::date(2027, 3, 4),
            telling: Telling::default(),
            gaps,
            print: "ab12",
            booked_print: None,
            tracking: None,
            tracked: true,
            bookable: true,
            customs: false,
        }
    }

    fn state(checks: &[LeavingCheck], key: &str) -> bool {
        let found = checks.iter().find(|check| check.key == key);
        found.unwrap_or_else(|| panic!("{key} is looked at")).done
    }

    #[test]
    fn addresses_are_read_again_when_a_letter_changes() {
        let mut inputs = ShipmentInputs::default();
        assert!(!state(&leaving_checks(&over(&inputs, &[])), "addresses"));
        inputs.sending.addresses_read = Some("ab12".into());
        assert!(state(&leaving_checks(&over(&inputs, &[])), "addresses"));
        let other = Inspection {
            print: "cd34",
            ..over(&inputs, &[])
        };
        assert!(!state(&leaving_checks(&other), "addresses"));
        // The carrier was told another one.
        let booked = Inspection {
            booked_print: Some("cd34"),
            ..over(&inputs, &[])
        };
        assert!(!state(&leaving_checks(&booked), "addresses"));
        let gap = [AddressGap {
            field: "buyer.street".into(),
            says: "the street is missing".into(),
        }];
        assert!(!state(&leaving_checks(&over(&inputs, &gap)), "addresses"));
    }

    #[test]
    fn at_a_border_protected_materials_are_looked_for() {
        let mut inputs = ShipmentInputs::default();
        let home = leaving_checks(&over(&inputs, &[]));
        assert!(home.iter().all(|check| check.key != "protected"));
        let state = |inputs: &ShipmentInputs| {
            let abroad = Inspection {
                customs: true,
                ..over(inputs, &[])
            };
            state(&leaving_checks(&abroad), "protected")
        };
        assert!(!state(&inputs));
        inputs.sending.protected = Some(ProtectedLook::None);
        assert!(state(&inputs));
        inputs.sending.protected = Some(ProtectedLook::Some);
        assert!(!state(&inputs));
        inputs.sending.protected_what = "mother-of-pearl inlay".into();
        assert!(state(&inputs));
    }

    #[test]
    fn a_receipt_is_asked_for_once_it_left() {
        let mut inputs = ShipmentInputs::default();
        let asks = |inputs: &ShipmentInputs| {
            let checks = leaving_checks(&over(inputs, &[]));
            checks
                .iter()
                .any(|check| check.key == "receipt" && !check.done)
        };
        assert!(!asks(&inputs));
        inputs.sending.handed_over = Some("2027-03-04".into());
        assert!(asks(&inputs));
        inputs.sending.receipt = "GP 118".into();
        assert!(!asks(&inputs));
    }
}

//! What is settled when a parcel leaves, and what comes of it, as typed.

use jiff::civil::Date;
use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use super::{
    ShipmentInputs,
    dates::read_day,
    inputs::{blank_is_none, read_amount, refused_long},
};
use crate::{Refusal, Refusals, space::LayerSlot, text::refused_text};

/// What is settled when a parcel leaves.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct SendingInputs {
    /// The day on which it is fetched, or taken to the counter, as 2027-03-05.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub on: Option<String>,
    /// What it is followed by, where it was not booked here.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub tracking: String,
    /// Whether its carrier gave no number to follow it by.
    #[serde(skip_serializing_if = "std::ops::Not::not")]
    pub no_number: bool,
    /// The number of the receipt from counter or driver.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub receipt: String,
    /// What both addresses were known by when somebody read them against the order.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub addresses_read: Option<String>,
    /// Whether label and marks are on it.
    #[serde(skip_serializing_if = "std::ops::Not::not")]
    pub marked: bool,
    /// What was found when somebody looked for protected materials; `None` before that.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub protected: Option<ProtectedLook>,
    /// Which they are.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub protected_what: String,
    /// The country's code where it was made; the studio's own when absent.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub origin: Option<String>,
    /// The day on which the carrier took it, as 2027-03-05; from then on its plan stays as it went.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub handed_over: Option<String>,
}

/// What was found when somebody looked for ivory, shell, and woods and skins that may not pass a border without a paper.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum ProtectedLook {
    /// Nothing of the kind.
    None,
    /// Something: its permit goes with it.
    Some,
}

/// What came of a parcel.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct AfterInputs {
    /// What; `None` while it is on its way.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub outcome: Option<Outcome>,
    /// The day on which it arrived, came back or was said to be lost, as 2027-03-09.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub on: Option<String>,
    /// What is broken, as it was seen.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub damage: String,
    /// The layer that failed.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub failed: Option<LayerSlot>,
    /// What is asked of the carrier.
    #[serde(skip_serializing_if = "ClaimInputs::is_nothing")]
    pub claim: ClaimInputs,
    /// What carriage came to, by the carrier's bill, in the studio's currency.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub cost: Option<String>,
    /// The minutes that packing took.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub minutes: Option<u32>,
    /// What to do otherwise the next time.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub lesson: String,
}

/// What came of a parcel.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Outcome {
    /// Whole.
    Arrived,
    /// Damaged.
    Damaged,
    /// It did not arrive.
    Lost,
    /// It came back.
    Returned,
}

/// What is asked of a carrier for damage or loss.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct ClaimInputs {
    /// How much, in the studio's currency; what it is worth when absent.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub asked: Option<String>,
    /// The day on which it was sent to the carrier, as 2027-03-11.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub sent_on: Option<String>,
    /// By which the carrier knows it.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub number: String,
    /// The day on which the carrier decided.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub decided_on: Option<String>,
    /// What it paid, in the studio's currency; 0 where it refused.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub paid: Option<String>,
}

impl ClaimInputs {
    /// Tells whether nothing was typed about it.
    #[must_use]
    pub fn is_nothing(&self) -> bool {
        *self == Self::default()
    }

    /// Tells whether the carrier has decided.
    #[must_use]
    pub const fn is_closed(&self) -> bool {
        self.paid.is_some()
    }
}

/// What is damaged, and what was learned of it, is a paragraph.
const LONGEST_PARAGRAPH: usize = 2000;
const MOST_MINUTES: u32 = 6000;
/// No print is longer.
const LONGEST_PRINT: usize = 32;

impl SendingInputs {
    pub(super) fn blanks_are_none(&mut self) {
        for text in [
            &mut self.on,
            &mut self.addresses_read,
            &mut self.origin,
            &mut self.handed_over,
        ] {
            blank_is_none(text);
        }
    }

    pub(super) fn refused(&self, today: Date) -> Vec<Refusal> {
        let mut refusals: Refusals = [
            ("sending.tracking", &self.tracking),
            ("sending.receipt", &self.receipt),
            ("sending.protected_what", &self.protected_what),
        ]
        .into_iter()
        .filter_map(|(field, text)| refused_text(field, text))
        .collect();
        refusals.extend(read_day("sending.on", self.on.as_deref()).err());
        let handed = past("sending.handed_over", self.handed_over.as_deref(), today);
        refusals.extend(handed.err());
        let print = self.addresses_read.as_deref().unwrap_or_default();
        if print.len() > LONGEST_PRINT || !print.bytes().all(|byte| byte.is_ascii_hexdigit()) {
            refusals.refuse(
                "sending.addresses_read",
                "this is not the fingerprint of two addresses",
            );
        }
        let code = self.origin.as_deref().unwrap_or("XX");
        if code.len() != 2 || !code.bytes().all(|byte| byte.is_ascii_uppercase()) {
            let says = format!("\"{code}\" is not a country code: write two capital letters");
            refusals.refuse("sending.origin", says);
        }
        refusals.into()
    }
}

impl AfterInputs {
    pub(super) fn blanks_are_none(&mut self) {
        for text in [
            &mut self.on,
            &mut self.cost,
            &mut self.claim.asked,
            &mut self.claim.sent_on,
            &mut self.claim.decided_on,
            &mut self.claim.paid,
        ] {
            blank_is_none(text);
        }
    }

    pub(super) fn refused(&self, today: Date) -> Vec<Refusal> {
        let claim = &self.claim;
        let mut refusals: Refusals = [
            ("after.on", &self.on),
            ("after.claim.sent_on", &claim.sent_on),
            ("after.claim.decided_on", &claim.decided_on),
        ]
        .into_iter()
        .filter_map(|(field, text)| past(field, text.as_deref(), today).err())
        .collect();
        for (field, text) in [
            ("after.cost", &self.cost),
            ("after.claim.asked", &claim.asked),
            ("after.claim.paid", &claim.paid),
        ] {
            refusals.extend(read_amount(field, text.as_deref()).err());
        }
        for (field, text) in [
            ("after.damage", &self.damage),
            ("after.lesson", &self.lesson),
        ] {
            refusals.extend(refused_long(field, text, LONGEST_PARAGRAPH));
        }
        refusals.extend(refused_text("after.claim.number", &claim.number));
        if let Some(minutes) = self.minutes.filter(|minutes| *minutes > MOST_MINUTES) {
            let says = format!("{minutes} is out of range: give at most {MOST_MINUTES} minutes");
            refusals.refuse("after.minutes", says);
        }
        refusals.into()
    }
}

/// Reads a day that is over.
fn past(field: &str, text: Option<&str>, today: Date) -> Result<Option<Date>, Refusal> {
    match read_day(field, text)? {
        Some(day) if day > today => Err(Refusal::new(
            field,
            format!("{day} is in the future: give the day on which it happened"),
        )),
        day => Ok(day),
    }
}

impl ShipmentInputs {
    /// Returns the day on which the carrier took it; from then on its plan stays as it went.
    #[must_use]
    pub fn handed_over(&self) -> Option<Date> {
        read_day("", self.sending.handed_over.as_deref()).ok()?
    }

    /// Returns the day on which it is to be fetched, or taken to the counter.
    #[must_use]
    pub fn leaves_on(&self) -> Option<Date> {
        read_day("", self.sending.on.as_deref()).ok()?
    }

    /// Returns the day on which its outcome was known.
    #[must_use]
    pub fn outcome_on(&self) -> Option<Date> {
        read_day("", self.after.on.as_deref()).ok()?
    }

    /// Returns what carriage came to by the carrier's bill.
    #[must_use]
    pub fn billed(&self) -> Option<Decimal> {
        read_amount("", self.after.cost.as_deref()).ok()?
    }

    /// Returns what the carrier paid for damage or loss.
    #[must_use]
    pub fn claim_paid(&self) -> Option<Decimal> {
        read_amount("", self.after.claim.paid.as_deref()).ok()?
    }

    /// Returns what is asked of the carrier: as typed, else what everything is worth.
    #[must_use]
    pub fn claim_asked(&self) -> Option<Decimal> {
        let typed = read_amount("", self.after.claim.asked.as_deref())
            .ok()
            .flatten();
        typed.or_else(|| self.worth().ok().flatten())
    }

    /// Returns a [`Refusal`] for each part that differs although the parcel left: then only what is typed about its leaving and
    /// afterwards changes.
    #[must_use]
    pub fn changed_after_leaving(&self, before: &Self) -> Vec<Refusal> {
        let as_before = Self {
            sending: before.sending.clone(),
            after: before.after.clone(),
            ..self.clone()
        };
        if as_before == *before {
            return Vec::new();
        }
        let written = |inputs: &Self| {
            let document = serde_json::to_value(inputs).expect("inputs can be written");
            document.as_object().cloned().unwrap_or_default()
        };
        let (then, now) = (written(before), written(&as_before));
        let mut keys: Vec<&String> = then.keys().chain(now.keys()).collect();
        keys.sort();
        keys.dedup();
        keys.into_iter()
            .filter(|key| then.get(*key) != now.get(*key))
            .map(|key| {
                Refusal::new(
                    key,
                    "the parcel has left, so its plan can't change: undo the handover at Send first",
                )
            })
            .collect()
    }
}

#[cfg(test)]
mod tests {
    use jiff::civil::date;

    use super::*;
    use crate::quantity::LengthUnit;

    const TODAY: Date = date(2027, 3, 4);

    fn refused(change: impl FnOnce(&mut ShipmentInputs)) -> Vec<String> {
        let mut inputs = ShipmentInputs::default();
        change(&mut inputs);
        let refusals = inputs
            .checked(LengthUnit::Mm, TODAY)
            .err()
            .unwrap_or_default();
        refusals.into_iter().map(|refusal| refusal.field).collect()
    }

    #[test]
    fn what_has_happened_did_so_until_today() {
        let tomorrow = || Some("2027-03-05".to_owned());
        assert_eq!(
            refused(|inputs| inputs.sending.handed_over = tomorrow()),
            ["sending.handed_over"]
        );
        assert_eq!(refused(|inputs| inputs.after.on = tomorrow()), ["after.on"]);
        assert_eq!(
            refused(|inputs| inputs.after.claim.sent_on = tomorrow()),
            ["after.claim.sent_on"]
        );
        // It is fetched tomorrow.
        assert!(refused(|inputs| inputs.sending.on = tomorrow()).is_empty());
        assert!(refused(|inputs| inputs.after.on = Some("2027-03-04".into())).is_empty());
    }

    #[test]
    fn nonsense_is_refused_at_its_field() {
        assert_eq!(
            refused(|inputs| inputs.after.claim.paid = Some("all of it".into())),
            ["after.claim.paid"]
        );
        assert_eq!(
            refused(|inputs| inputs.after.lesson = "x".repeat(2001)),
            ["after.lesson"]
        );
        assert_eq!(
            refused(|inputs| inputs.sending.tracking = "a\nb".into()),
            ["sending.tracking"]
        );
        assert_eq!(
            refused(|inputs| inputs.sending.origin = Some("Vennland".into())),
            ["sending.origin"]
        );
        assert_eq!(
            refused(|inputs| inputs.sending.addresses_read = Some("yes".into())),
            ["sending.addresses_read"]
        );
    }

    #[test]
    fn once_it_left_only_its_leaving_and_after_change() {
        let before = ShipmentInputs {
            title: "Kelp Ladder".into(),
            ..ShipmentInputs::default()
        };
        let mut now = before.clone();
        now.sending.receipt = "R 12".into();
        now.after.lesson = "Two turns".into();
        assert!(now.changed_after_leaving(&before).is_empty());
        now.title.push('!');
        now.value = Some("12".into());
        let fields: Vec<String> = now
            .changed_after_leaving(&before)
            .into_iter()
            .map(|refusal| refusal.field)
            .collect();
        assert_eq!(fields, ["title", "value"]);
    }
}

//! How long a carrier hears of damage or loss.

use serde::{Deserialize, Serialize};

use crate::Refusal;

/// How long a carrier lets people wait before they claim.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct ClaimTerms {
    /// Days after the one on which it was delivered, for damage.
    pub damage_days: u32,
    /// Days after the one on which it was handed over, for loss.
    pub loss_days: u32,
}

const LONGEST: u32 = 730;

impl ClaimTerms {
    /// What most carriers give, for one whose tariff names nothing. House rule.
    pub const USUAL: Self = Self {
        damage_days: 7,
        loss_days: 30,
    };

    /// Returns a [`Refusal`] for each number that can't stand.
    pub(crate) fn refused(self) -> Vec<Refusal> {
        [
            ("claims/damage_days", self.damage_days),
            ("claims/loss_days", self.loss_days),
        ]
        .into_iter()
        .filter(|(_, days)| !(1..=LONGEST).contains(days))
        .map(|(field, days)| {
            Refusal::new(
                field,
                format!("{days} is out of range: give 1 to {LONGEST} days"),
            )
        })
        .collect()
    }
}

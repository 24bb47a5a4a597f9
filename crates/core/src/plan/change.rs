//! What one plan comes to, less what another does.

use serde::Serialize;

use super::{FindingLevel, OneIn, Plan};
use crate::quantity::{Length, Mass, Minutes, Money};

/// What a plan would come to, less what it comes to.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Change {
    /// Of the outside.
    #[serde(rename = "across_mm")]
    pub across: Length,
    /// Of the outside.
    #[serde(rename = "up_mm")]
    pub up: Length,
    /// Of the outside.
    #[serde(rename = "through_mm")]
    pub through: Length,
    /// Of the parcel.
    #[serde(rename = "mass_g")]
    pub mass: Mass,
    /// Of the materials.
    pub cost: Money,
    /// Whether every material of both plans has a price; where one has none, `cost` says nothing.
    pub priced: bool,
    /// Of the work.
    pub minutes: Minutes,
    /// Of the plastic.
    #[serde(rename = "plastic_g")]
    pub plastic: Mass,
    /// Open Stops more, or fewer.
    pub stops: i32,
    /// Minds more, or fewer.
    pub minds: i32,
    /// Of the lowest share that any fall survives of its custom: 0.1 is a tenth more.
    pub survives_share: f64,
    /// How likely it is to arrive damaged now.
    pub odds_before: OneIn,
    /// How likely it would be then.
    pub odds_after: OneIn,
    /// The one over the other: 0.5 is half as likely.
    pub odds_times: f64,
}

impl Change {
    /// Tells whether nothing would change, to a tenth of a millimetre and a tenth of a gram.
    #[must_use]
    pub fn is_nothing(&self) -> bool {
        const TENTH: f64 = 0.1;
        let sizes = [self.across, self.up, self.through].map(Length::as_mm);
        let rest = [
            self.mass.as_g(),
            self.minutes.as_min(),
            self.plastic.as_g(),
            self.survives_share * 1e3,
            (self.odds_times - 1.0) * 1e2,
        ];
        sizes.into_iter().chain(rest).all(|by| by.abs() < TENTH)
            && self.cost.amount.is_zero()
            && (self.stops, self.minds) == (0, 0)
    }

    /// Returns what one plan comes to less what another does.
    #[must_use]
    pub fn between(now: &Plan, then: &Plan) -> Self {
        let (one, other) = (&now.tally, &then.tally);
        let count = |plan: &Plan, level| {
            let found = plan
                .findings
                .iter()
                .filter(|finding| finding.level == level);
            i32::try_from(found.count()).unwrap_or(i32::MAX)
        };
        let more = |level| count(then, level) - count(now, level);
        let weakest = |plan: &Plan| {
            plan.survival
                .falls
                .iter()
                .map(|fall| (fall.survives / fall.customary).min(1.0))
                .fold(1.0, f64::min)
        };
        Self {
            across: other.outside.across - one.outside.across,
            up: other.outside.up - one.outside.up,
            through: other.outside.through - one.outside.through,
            mass: other.weight.mass - one.weight.mass,
            cost: Money {
                amount: other.materials.amount - one.materials.amount,
                currency: one.materials.currency,
            },
            priced: now.unpriced.is_empty() && then.unpriced.is_empty(),
            minutes: other.minutes - one.minutes,
            plastic: other.plastic - one.plastic,
            stops: more(FindingLevel::Stop),
            minds: more(FindingLevel::Mind),
            survives_share: weakest(then) - weakest(now),
            odds_before: now.odds.one_in,
            odds_after: then.odds.one_in,
            odds_times: then.odds.probability / now.odds.probability,
        }
    }
}

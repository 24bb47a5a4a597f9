//! How far it is to the next price: what a little less in one direction saves, and how much more costs nothing.
//!
//! Nothing is probed: along one side, or the weight, a price can only change where something that the tariff looks at passes
//! one of its own thresholds, and each of those is found by halving, in whole micrometres and milligrams.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use super::{
    Gauge, PerKgOf, QuoteRequest, Tariff, What,
    measured::{MG_PER_KG, Measured, Whole, as_length, as_mass, mg, stepped, um},
    price::{Fare, HEAVIEST_BILLED, further_kg},
};
use crate::quantity::{Length, Mass, Money};

/// What is made less or more.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Along {
    /// The side across.
    Across,
    /// The side from bottom to top.
    Up,
    /// The side from front to back.
    Through,
    /// What it weighs.
    Mass,
}

/// A little less that is billed less.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Step {
    /// In which direction.
    pub along: Along,
    /// How much less, where it is a side.
    pub less_mm: Option<Length>,
    /// How much less, where it is the weight.
    pub less_g: Option<Mass>,
    /// What that saves; `None` if the service does not take the parcel as it is.
    pub saves: Option<Money>,
    /// What it then comes to.
    pub becomes: Money,
}

/// How much more costs nothing.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Room {
    /// In which direction.
    pub along: Along,
    /// How much more, where it is a side.
    pub more_mm: Option<Length>,
    /// How much more, where it is the weight.
    pub more_g: Option<Mass>,
    /// What it comes to just beyond; `None` if it is no longer taken.
    pub beyond: Option<Money>,
    /// Whether the tariff has a dip there, so that more costs less.
    pub dip: bool,
}

/// A weight and what the table takes up to it.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Rung {
    /// Up to this much that is billed.
    #[serde(rename = "up_to_g")]
    pub up_to: Mass,
    /// The table's price, with kilograms above its last step.
    pub price: Money,
}

/// Where a parcel stands between a service's prices.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ServiceSteps {
    /// Tariff and service, as `gannet-post/tracked`.
    pub id: String,
    /// The nearest cheaper price in each direction that has one.
    pub steps: Vec<Step>,
    /// The room that there is in each direction, where the price jumps at all.
    pub room: Vec<Room>,
    /// The table by what is billed; empty where a format sets the price.
    pub ladder: Vec<Rung>,
}

const EVERY: [Along; 4] = [Along::Across, Along::Up, Along::Through, Along::Mass];
/// Nobody asks how much room there is beyond this.
const FARTHEST_UM: Whole = 10_000_000;
const HEAVIEST_MG: Whole = 1_000_000_000;
/// How many rungs are shown above where the parcel stands.
const RUNGS_ABOVE: usize = 4;

impl Tariff {
    /// Returns how far it is to the next prices of each service; nothing for one that does not go there.
    #[must_use]
    pub fn steps(&self, asked: &QuoteRequest<'_>) -> Vec<ServiceSteps> {
        let zone = self
            .zone_of(asked.destination)
            .map(|zone| zone.name.as_str());
        let postcode = asked.destination.postcode.trim().to_uppercase();
        (0..self.services.len())
            .filter_map(|at| {
                let fare = self.fare(at, asked, zone, &postcode).ok()?;
                let walk = Walk::of(&fare, asked);
                Some(ServiceSteps {
                    id: format!("{}/{}", self.id, fare.service.id),
                    steps: EVERY
                        .into_iter()
                        .filter_map(|along| walk.down(along))
                        .collect(),
                    room: EVERY
                        .into_iter()
                        .filter_map(|along| walk.up(along))
                        .collect(),
                    ladder: walk.ladder(),
                })
            })
            .collect()
    }
}

/// One parcel at one service, while sides and weight are moved.
struct Walk<'a> {
    fare: &'a Fare<'a>,
    /// As a tape reads them: across, up, through; and what it weighs.
    is: [Whole; 4],
    /// What a side is rounded up to.
    unit: Whole,
    /// The sides in such units.
    counts: [Whole; 3],
    thresholds: Vec<(Gauge, Whole)>,
    now: Option<Decimal>,
}

impl<'a> Walk<'a> {
    fn of(fare: &'a Fare<'a>, asked: &QuoteRequest<'_>) -> Self {
        let outside = asked.parcel.outside;
        let [across, up, through] = [outside.across, outside.up, outside.through].map(um);
        let unit = um(fare.service.billable.size_step).max(1);
        let mut walk = Self {
            fare,
            is: [across, up, through, mg(asked.parcel.mass)],
            unit,
            counts: [across, up, through].map(|side| stepped(side, unit) / unit),
            thresholds: Vec::new(),
            now: None,
        };
        let now = walk.at(Along::Across, walk.whole(Along::Across));
        walk.now = fare.total(&now);
        walk.thresholds = fare.thresholds();
        walk
    }

    /// In whole units: a side's steps, or milligrams.
    fn whole(&self, along: Along) -> Whole {
        match along {
            Along::Mass => self.is[3],
            side => self.counts[side as usize],
        }
    }

    /// The parcel with one thing otherwise.
    fn at(&self, along: Along, count: Whole) -> Measured {
        let mut counts = self.counts;
        let mut mass = self.is[3];
        match along {
            Along::Mass => mass = count,
            side => counts[side as usize] = count,
        }
        Measured::sorted(counts.map(|count| count * self.unit), mass)
    }

    /// The weights at which one kilogram more is begun, up to so much that is billed, and weighed.
    fn by_the_kilogram(&self, billed: Whole, mass: Whole) -> Vec<(Gauge, Whole)> {
        let fare = self.fare;
        let table = fare.table();
        // Beyond that nothing is priced.
        let (billed, mass) = (billed.min(HEAVIEST_BILLED), mass.min(HEAVIEST_BILLED));
        let mut found: Vec<(Gauge, Whole)> = table
            .into_iter()
            .flat_map(|prices| further_kg(prices, billed))
            .map(|at| (Gauge::Billable, at))
            .collect();
        for (_, prices) in fare.formats() {
            found.extend(further_kg(prices, mass).map(|at| (Gauge::Mass, at)));
        }
        for (_, rule) in fare.rules() {
            if let What::PerKg { of, .. } = rule.what {
                let most = match of {
                    PerKgOf::Billable => billed,
                    PerKgOf::Actual => mass,
                };
                found.extend((1..=most / MG_PER_KG).map(|kg| (of.gauge(), kg * MG_PER_KG)));
            }
        }
        found.sort_unstable();
        found.dedup();
        found
    }

    /// The most that is billed for a parcel, should any rule raise it.
    fn billed(&self, measured: &Measured) -> Whole {
        let raised = self
            .fare
            .rules()
            .filter_map(|(_, rule)| rule.what.minimum());
        let by = &self.fare.service.billable;
        by.billed(measured, raised.max().unwrap_or_default())
    }

    fn is_over(&self, along: Along, count: Whole, (gauge, at): (Gauge, Whole)) -> bool {
        let measured = self.at(along, count);
        // What rules raise only changes where another threshold is passed.
        let billed = match gauge {
            Gauge::Billable => self.fare.service.billable.billed(&measured, 0),
            _ => 0,
        };
        measured.gauge(gauge, billed) > at
    }

    /// The most of a range that is not over a threshold; `None` if even its least is.
    fn most_below(
        &self,
        along: Along,
        least: Whole,
        most: Whole,
        threshold: (Gauge, Whole),
    ) -> Option<Whole> {
        if self.is_over(along, least, threshold) {
            return None;
        }
        let (mut below, mut over) = (least, most + 1);
        while over - below > 1 {
            let middle = below + (over - below) / 2;
            if self.is_over(along, middle, threshold) {
                over = middle;
            } else {
                below = middle;
            }
        }
        Some(below)
    }

    /// The nearest cheaper price.
    fn down(&self, along: Along) -> Option<Step> {
        let count = self.whole(along);
        let now = self.at(along, count);
        let mut places: Vec<Whole> = self
            .by_the_kilogram(self.billed(&now), now.mass)
            .iter()
            .chain(&self.thresholds)
            .filter(|threshold| self.is_over(along, count, **threshold))
            .filter_map(|threshold| self.most_below(along, 1, count, *threshold))
            .collect();
        places.sort_unstable_by(|one, other| other.cmp(one));
        places.dedup();
        let (place, becomes) = places.into_iter().find_map(|place| {
            let total = self.fare.total(&self.at(along, place))?;
            self.now
                .is_none_or(|now| total < now)
                .then_some((place, total))
        })?;
        let currency = &self.fare.tariff.currency;
        let (less_mm, less_g) =
            self.apart(along, self.is[along as usize] - self.measure(along, place));
        Some(Step {
            along,
            less_mm,
            less_g,
            saves: self.now.map(|now| Money::new(now - becomes, currency)),
            becomes: Money::new(becomes, currency),
        })
    }

    /// How much more until the price is another.
    fn up(&self, along: Along) -> Option<Room> {
        let now = self.now?;
        let count = self.whole(along);
        let most = match along {
            Along::Mass => HEAVIEST_MG,
            _ => FARTHEST_UM / self.unit,
        };
        let places = |thresholds: &[(Gauge, Whole)]| -> Vec<Whole> {
            thresholds
                .iter()
                .filter(|threshold| !self.is_over(along, count, **threshold))
                .filter_map(|threshold| self.most_below(along, count, most, *threshold))
                .filter(|below| *below < most)
                .collect()
        };
        let standing = places(&self.thresholds);
        let is = self.at(along, count);
        // Kilograms are gone through a few at a time: where each changes the price, the first is enough.
        let mut reach = 2 * MG_PER_KG + mg(self.fare.service.billable.weight_step);
        let (below, beyond) = loop {
            let (billed, mass) = (self.billed(&is) + reach, is.mass + reach);
            let mut ahead = places(&self.by_the_kilogram(billed, mass));
            ahead.extend(&standing);
            ahead.sort_unstable();
            ahead.dedup();
            let found = ahead.into_iter().find_map(|below| {
                let total = self.fare.total(&self.at(along, below + 1));
                (total != Some(now)).then_some((below, total))
            });
            // Nothing was passed over as long as the kilograms that were gone through lead beyond it.
            let seen = found.is_some_and(|(below, _)| {
                let then = self.at(along, below + 1);
                self.billed(&then) <= billed && then.mass <= mass
            });
            if seen || reach > HEAVIEST_MG {
                break found?;
            }
            reach *= 2;
        };
        let (more_mm, more_g) =
            self.apart(along, self.measure(along, below) - self.is[along as usize]);
        Some(Room {
            along,
            more_mm,
            more_g,
            beyond: beyond.map(|total| Money::new(total, &self.fare.tariff.currency)),
            dip: beyond.is_some_and(|total| total < now),
        })
    }

    fn measure(&self, along: Along, count: Whole) -> Whole {
        match along {
            Along::Mass => count,
            _ => count * self.unit,
        }
    }

    fn apart(&self, along: Along, by: Whole) -> (Option<Length>, Option<Mass>) {
        match along {
            Along::Mass => (None, Some(as_mass(by))),
            _ => (Some(as_length(by)), None),
        }
    }

    /// The table from its first step to a little beyond where the parcel stands.
    fn ladder(&self) -> Vec<Rung> {
        let currency = &self.fare.tariff.currency;
        let Some(prices) = self.fare.table() else {
            return Vec::new();
        };
        let now = self.at(Along::Across, self.whole(Along::Across));
        let billed = self.fare.service.billable.billed(&now, 0);
        let steps = prices.steps.iter().map(|step| (mg(step.up_to), step.price));
        let last = prices.steps.last();
        let further = last
            .zip(prices.per_further_kg)
            .into_iter()
            .flat_map(|(last, per_kg)| {
                (1..).map(move |count: Whole| {
                    let above = per_kg * Decimal::from_i128_with_scale(count, 0);
                    (mg(last.up_to) + count * MG_PER_KG, last.price + above)
                })
            });
        let mut above = 0;
        steps
            .chain(further)
            .take_while(|(up_to, _)| {
                above += usize::from(*up_to >= billed);
                above <= RUNGS_ABOVE
            })
            .map(|(up_to, price)| Rung {
                up_to: as_mass(up_to),
                price: Money::new(price, currency),
            })
            .collect()
    }
}

//! The itemised price of each service, or why it does not take the parcel.

use rust_decimal::Decimal;
use serde::Serialize;

use super::{
    Billable, Cover, Destination, Handover, Parcel, Service, SurchargeWhen, Tariff, ZonePrice,
};
use crate::quantity::{Currency, Length, Mass, Money, ceil_count, round_to_cents};

/// What one service says to a parcel.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Quote {
    /// Tariff and service, as `gannet-post/tracked`.
    pub id: String,
    /// The carrier's name.
    pub carrier: String,
    /// The service's name.
    pub service: String,
    /// Working days at best.
    pub days_from: u32,
    /// Working days at worst.
    pub days_to: u32,
    /// How it leaves the studio.
    pub handover: Handover,
    /// Whether it can be followed.
    pub tracked: bool,
    /// The weights side by side.
    pub billable: Billable,
    /// The price, or the reasons against it.
    pub offer: Offer,
    /// What a journey with it costs on average in damage and loss beyond its cover; nothing without a value.
    pub expected_loss: Option<Money>,
    /// How far its cover falls short of the value; nothing where it does not.
    pub uncovered: Option<Money>,
}

/// A price, or the reasons against it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum Offer {
    /// The service takes the parcel.
    Priced {
        /// The zone that it goes to.
        zone: String,
        /// Every line, in the order in which they build on each other.
        lines: Vec<QuoteLine>,
        /// Their sum.
        total: Money,
        /// What is paid out at most when it is lost.
        covered: Money,
    },
    /// It does not.
    Refused {
        /// Every reason.
        reasons: Vec<Reason>,
    },
}

/// One line of a quote.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct QuoteLine {
    /// What it is for.
    pub name: String,
    /// The rule that it follows.
    pub rule: LineRule,
    /// What it comes to.
    pub amount: Money,
}

/// The rule behind a line.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum LineRule {
    /// The price of a weight step.
    Step {
        /// Its upper end.
        #[serde(rename = "up_to_g")]
        up_to: Mass,
    },
    /// Kilograms above the last step.
    Further {
        /// How many are begun.
        count_kg: u32,
    },
    /// A surcharge on its condition.
    Surcharge {
        /// The condition.
        when: SurchargeWhen,
    },
    /// A share of the lines before it.
    Percent {
        /// The share.
        #[cfg_attr(feature = "schema", schema(value_type = String))]
        percent: Decimal,
    },
    /// Cover beyond what is included.
    Cover {
        /// How many steps of it.
        steps: u32,
        /// What is included without it.
        included: Money,
    },
}

/// Why a service does not take a parcel.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum Reason {
    /// It does not go there.
    NotServed,
    /// It weighs too much.
    TooHeavy {
        /// What it weighs.
        #[serde(rename = "mass_g")]
        mass: Mass,
        /// What is taken.
        #[serde(rename = "most_g")]
        most: Mass,
    },
    /// Its longest side is too long.
    TooLong {
        /// What it is.
        #[serde(rename = "longest_mm")]
        longest: Length,
        /// What is taken.
        #[serde(rename = "most_mm")]
        most: Length,
    },
    /// Longest side and girth together are too long.
    TooLarge {
        /// What they are.
        #[serde(rename = "length_plus_girth_mm")]
        length_plus_girth: Length,
        /// What is taken.
        #[serde(rename = "most_mm")]
        most: Length,
    },
    /// There is glass in it.
    GlassRefused,
    /// The box belongs to another carrier's service.
    OthersCarton {
        /// Whose it is.
        carrier: String,
    },
    /// No price stands for so much billable weight.
    NoPrice {
        /// What would be billed.
        #[serde(rename = "billable_g")]
        billable: Mass,
    },
}

/// Returns what every service of the tariffs says to a parcel: the cheapest first, the refused last.
#[must_use]
pub fn quotes(parcel: &Parcel, destination: &Destination, tariffs: &[Tariff]) -> Vec<Quote> {
    let mut found: Vec<Quote> = tariffs
        .iter()
        .flat_map(|tariff| {
            tariff
                .services
                .iter()
                .map(move |service| tariff.quote(service, parcel, destination))
        })
        .collect();
    found.sort_by(|one, other| one.rank().cmp(&other.rank()));
    found
}

/// Has every other carrier refuse a parcel whose carton belongs to one.
pub fn only_taken_by(quotes: &mut [Quote], carrier: &str) {
    for quote in quotes.iter_mut().filter(|quote| quote.carrier != carrier) {
        let reason = Reason::OthersCarton {
            carrier: carrier.to_owned(),
        };
        match &mut quote.offer {
            Offer::Refused { reasons } => reasons.push(reason),
            offer @ Offer::Priced { .. } => {
                *offer = Offer::Refused {
                    reasons: vec![reason],
                }
            }
        }
    }
    quotes.sort_by(|one, other| one.rank().cmp(&other.rank()));
}

impl Quote {
    /// Returns the price, when the service takes the parcel.
    #[must_use]
    pub fn total(&self) -> Option<&Money> {
        match &self.offer {
            Offer::Priced { total, .. } => Some(total),
            Offer::Refused { .. } => None,
        }
    }

    fn rank(&self) -> (bool, Option<Decimal>, &str) {
        let total = self.total().map(|money| money.amount);
        (total.is_none(), total, &self.id)
    }
}

impl Tariff {
    /// Returns what one of its services says to a parcel.
    #[must_use]
    pub fn quote(&self, service: &Service, parcel: &Parcel, destination: &Destination) -> Quote {
        let billable = service.billable.weigh(parcel);
        let measured = parcel.measured_to(service.billable.size_step);
        let zone = self.zone_of(destination).map(|zone| zone.name.as_str());
        let price = zone.and_then(|zone| service.prices.iter().find(|price| price.zone == zone));
        let mut reasons = service.reasons_against(&measured);
        let base = price.map(|price| price.base(billable.billable, &self.currency));
        let offer = match base {
            Some(Some(base)) if reasons.is_empty() => {
                self.priced(service, &measured, base, zone.unwrap_or_default())
            }
            Some(Some(_)) => Offer::Refused { reasons },
            Some(None) => {
                reasons.push(Reason::NoPrice {
                    billable: billable.billable,
                });
                Offer::Refused { reasons }
            }
            None => Offer::Refused {
                reasons: vec![Reason::NotServed],
            },
        };
        Quote {
            id: format!("{}/{}", self.id, service.id),
            carrier: self.carrier.clone(),
            service: service.name.clone(),
            days_from: service.days_from,
            days_to: service.days_to,
            handover: service.handover,
            tracked: service.tracked,
            billable,
            offer,
            expected_loss: None,
            uncovered: None,
        }
    }

    /// Adds surcharges, fuel, tax and cover to the base lines, each rounded as it is written.
    fn priced(
        &self,
        service: &Service,
        measured: &Parcel,
        base: Vec<QuoteLine>,
        zone: &str,
    ) -> Offer {
        let mut lines = base;
        lines.extend(
            service
                .surcharges
                .iter()
                .filter(|surcharge| surcharge.when.applies(measured))
                .map(|surcharge| {
                    let rule = LineRule::Surcharge {
                        when: surcharge.when,
                    };
                    line(&surcharge.name, rule, surcharge.price, &self.currency)
                }),
        );
        lines.extend(self.share("Fuel", self.fuel_percent, &lines));
        lines.extend(self.share("Tax", self.tax_percent, &lines));
        let (cover, covered) = service.cover.line(measured, &self.currency);
        lines.extend(cover);
        let total = lines.iter().map(|line| line.amount.amount).sum();
        Offer::Priced {
            zone: zone.to_owned(),
            lines,
            total: Money::new(total, &self.currency),
            covered,
        }
    }

    fn share(&self, name: &str, percent: Decimal, of: &[QuoteLine]) -> Option<QuoteLine> {
        let sum: Decimal = of.iter().map(|line| line.amount.amount).sum();
        let amount = sum * percent / Decimal::ONE_HUNDRED;
        (!percent.is_zero())
            .then(|| line(name, LineRule::Percent { percent }, amount, &self.currency))
    }
}

impl Service {
    fn reasons_against(&self, measured: &Parcel) -> Vec<Reason> {
        let limits = self.limits;
        let (longest, around) = (measured.sides()[0], measured.length_plus_girth());
        let mut reasons = Vec::new();
        if measured.mass > limits.mass {
            reasons.push(Reason::TooHeavy {
                mass: measured.mass,
                most: limits.mass,
            });
        }
        if longest > limits.longest {
            reasons.push(Reason::TooLong {
                longest,
                most: limits.longest,
            });
        }
        if around > limits.length_plus_girth {
            reasons.push(Reason::TooLarge {
                length_plus_girth: around,
                most: limits.length_plus_girth,
            });
        }
        if measured.has_glass && !limits.glass {
            reasons.push(Reason::GlassRefused);
        }
        reasons
    }
}

impl ZonePrice {
    /// Returns the base lines for a billable weight; nothing when it is over the last step and no
    /// further kilograms are sold.
    fn base(&self, billable: Mass, currency: &Currency) -> Option<Vec<QuoteLine>> {
        if let Some(step) = self.steps.iter().find(|step| billable <= step.up_to) {
            return Some(vec![line(
                "Base",
                LineRule::Step { up_to: step.up_to },
                step.price,
                currency,
            )]);
        }
        let (last, per_kg) = (self.steps.last()?, self.per_further_kg?);
        let count_kg = ceil_count((billable - last.up_to).as_kg());
        Some(vec![
            line(
                "Base",
                LineRule::Step { up_to: last.up_to },
                last.price,
                currency,
            ),
            line(
                "Further kilograms",
                LineRule::Further { count_kg },
                per_kg * Decimal::from(count_kg),
                currency,
            ),
        ])
    }
}

impl Cover {
    /// Returns the line for the cover that has to be bought, if any, and what is then covered.
    fn line(&self, parcel: &Parcel, currency: &Currency) -> (Option<QuoteLine>, Money) {
        if self.excludes_glass && parcel.has_glass {
            return (None, Money::new(Decimal::ZERO, currency));
        }
        let wanted = parcel.value.unwrap_or_default().min(self.most);
        let steps = steps_over(wanted - self.included, self.step);
        let bought = self.price_per_step * Decimal::from(steps);
        let included = Money::new(self.included, currency);
        let line = (steps > 0).then(|| {
            line(
                "Cover",
                LineRule::Cover { steps, included },
                bought,
                currency,
            )
        });
        let covered = (self.included + self.step * Decimal::from(steps)).min(self.most);
        (line, Money::new(covered, currency))
    }
}

/// Returns how many steps cover an amount.
fn steps_over(amount: Decimal, step: Decimal) -> u32 {
    if amount <= Decimal::ZERO || step <= Decimal::ZERO {
        return 0;
    }
    u32::try_from((amount / step).ceil()).unwrap_or(u32::MAX)
}

fn line(name: &str, rule: LineRule, amount: Decimal, currency: &Currency) -> QuoteLine {
    QuoteLine {
        name: name.to_owned(),
        rule,
        amount: Money::new(round_to_cents(amount), currency),
    }
}

#[cfg(test)]
mod tests;

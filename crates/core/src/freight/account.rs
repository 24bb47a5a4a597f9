//! What a tier of a carrier's account would have saved over parcels that were sent.

use jiff::civil::Date;
use rust_decimal::Decimal;
use serde::Serialize;

use super::{Parcel, QuoteRequest, Tariff};
use crate::{place::Destination, quantity::Money};

/// A parcel that was sent, or could have been.
#[derive(Debug, Clone, PartialEq)]
pub struct SentParcel {
    /// What was sent, with what it was worth in the carrier's money.
    pub parcel: Parcel,
    /// Where to.
    pub place: Destination,
    /// By which of its services, by the id in the tariff; the cheapest that takes it where none is named.
    pub service: Option<String>,
    /// On which day; a tariff's dates are not looked at where it is not known.
    pub on: Option<Date>,
}

/// What parcels come to on an account.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct AccountTier {
    /// Its name; nothing for no account at all.
    pub tier: Option<String>,
    /// Whether it is the one that the studio has.
    pub own: bool,
    /// What all of them come to.
    pub total: Money,
    /// What that is less than on the studio's own account; less than zero where it is more.
    pub saves: Money,
}

/// What each tier of an account makes of parcels.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct AccountSavings {
    /// Every tier; first none at all, where the studio has none.
    pub tiers: Vec<AccountTier>,
    /// How many parcels were priced.
    pub parcels: u32,
    /// So many the carrier does not take.
    pub not_taken: u32,
}

/// The tier that nobody has: it takes nothing off.
const NO_TIER: &str = "";

impl Tariff {
    /// Returns what each tier of the account would make of parcels, by the service that each went with, or the cheapest.
    #[must_use]
    pub fn account_savings(&self, sent: &[SentParcel]) -> AccountSavings {
        let own = self.tier.as_deref();
        // Who has no account is compared as one more tier.
        let tiers: Vec<Option<&str>> = Some(None)
            .filter(|_| own.is_none())
            .into_iter()
            .chain(
                self.discount_tiers
                    .iter()
                    .map(|tier| Some(tier.name.as_str())),
            )
            .collect();
        let mut not_taken = 0;
        let mut totals = vec![Decimal::ZERO; tiers.len()];
        for parcel in sent {
            let priced: Option<Vec<Decimal>> = tiers
                .iter()
                .map(|tier| self.price_on(parcel, *tier))
                .collect();
            match priced {
                Some(priced) => {
                    for (total, price) in totals.iter_mut().zip(priced) {
                        *total += price;
                    }
                }
                None => not_taken += 1,
            }
        }
        let now = tiers.iter().position(|tier| *tier == own).unwrap_or(0);
        let here = totals[now];
        let money = |amount| Money::new(amount, &self.currency);
        AccountSavings {
            tiers: tiers
                .iter()
                .enumerate()
                .map(|(at, tier)| AccountTier {
                    tier: tier.map(str::to_owned),
                    own: at == now,
                    total: money(totals[at]),
                    saves: money(here - totals[at]),
                })
                .collect(),
            parcels: u32::try_from(sent.len()).unwrap_or(u32::MAX) - not_taken,
            not_taken,
        }
    }

    fn price_on(&self, sent: &SentParcel, tier: Option<&str>) -> Option<Decimal> {
        let asked = QuoteRequest {
            parcel: &sent.parcel,
            destination: &sent.place,
            on: sent.on,
            tier: Some(tier.unwrap_or(NO_TIER)),
        };
        let by_name = sent
            .service
            .as_deref()
            .and_then(|service| self.quote(service, &asked));
        match by_name {
            Some(quote) => quote.total().map(|total| total.amount),
            None => self
                .quotes(&asked)
                .iter()
                .filter_map(|quote| quote.total().map(|total| total.amount))
                .min(),
        }
    }
}

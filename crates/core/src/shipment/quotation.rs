//! A price that somebody quoted: a packer, or a carrier without a tariff. It stands beside those that tariffs give.

use jiff::civil::Date;
use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use super::{ShipmentInputs, dates::read_day, inputs::read_amount};
use crate::{
    Refusal, Refusals,
    freight::{
        Billable, Governs, Handover, LineKind, LineRule, Offer, Parcel, Place, Quote, QuoteLine,
    },
    place::Route,
    quantity::{Currency, Length, Mass, Money},
    text::refused_text,
};

/// A price that somebody quoted for this shipment, as typed; in the studio's currency.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct QuotationInputs {
    /// Who quoted it.
    pub from: String,
    /// For what, in a few words.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub what: String,
    /// What they take, all together, as `140.00`.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub price: Option<String>,
    /// What they pay at most when it is damaged or lost; `None` if left out.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub covers: Option<String>,
    /// Working days at best, 0 to 365.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub days_from: Option<u32>,
    /// Working days at worst, 0 to 365.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub days_to: Option<u32>,
    /// The last day on which it holds, as 2027-03-31.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub until: Option<String>,
    /// How it travels with them; by the destination when left out.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub route: Option<Route>,
}

/// What the ids of quotations begin with, where those of services begin with their tariff.
const QUOTED: &str = "quoted/";
const MOST_DAYS: u32 = 365;
/// How many are kept of one shipment.
const MOST: usize = 12;
const LONGEST_KEY: usize = 40;

impl QuotationInputs {
    fn refusals(&self, key: &str) -> Vec<Refusal> {
        let at = |field: &str| format!("quotations.{key}.{field}");
        let mut refusals: Refusals = [("from", &self.from), ("what", &self.what)]
            .into_iter()
            .filter_map(|(field, text)| refused_text(&at(field), text))
            .collect();
        for (field, text) in [("price", &self.price), ("covers", &self.covers)] {
            refusals.extend(read_amount(&at(field), text.as_deref()).err());
        }
        for (field, days) in [("days_from", self.days_from), ("days_to", self.days_to)] {
            if let Some(days) = days.filter(|days| *days > MOST_DAYS) {
                let says = format!("{days} is out of range: give 0 to {MOST_DAYS} working days");
                refusals.refuse(at(field), says);
            }
        }
        if let (Some(from), Some(to)) = (self.days_from, self.days_to)
            && from > to
        {
            let says = format!(
                "the longest time, {to} days, is shorter than the shortest, {from}: swap them"
            );
            refusals.refuse(at("days_to"), says);
        }
        refusals.extend(read_day(&at("until"), self.until.as_deref()).err());
        refusals.into()
    }

    /// Returns what it costs, once that is typed.
    fn price(&self) -> Option<Decimal> {
        read_amount("price", self.price.as_deref()).ok().flatten()
    }

    /// Returns what is paid at most.
    pub(super) fn covers(&self) -> Decimal {
        let covers = read_amount("covers", self.covers.as_deref()).ok().flatten();
        covers.unwrap_or_default()
    }

    pub(super) const fn names_days(&self) -> bool {
        self.days_from.is_some() || self.days_to.is_some()
    }

    /// Returns the last day on which it holds.
    pub(super) fn until(&self) -> Option<Date> {
        read_day("until", self.until.as_deref()).ok().flatten()
    }

    /// Returns it as a quote beside those of the tariffs; `None` while there is no price.
    fn quote(&self, key: &str, parcel: &Parcel, own: &Currency) -> Option<Quote> {
        let total = Money::new(self.price()?, own);
        let sides = [
            parcel.outside.across,
            parcel.outside.up,
            parcel.outside.through,
        ];
        let longest = sides.into_iter().max().unwrap_or_default();
        let girth = (sides.into_iter().sum::<Length>() - longest) * 2.0;
        let (from, to) = (
            self.days_from.or(self.days_to),
            self.days_to.or(self.days_from),
        );
        let from_name = match self.from.trim() {
            "" => "Quoted",
            name => name,
        };
        let what = match self.what.trim() {
            "" => "as quoted",
            what => what,
        };
        Some(Quote {
            id: format!("{QUOTED}{key}"),
            carrier: from_name.to_owned(),
            service: what.to_owned(),
            days_from: from.unwrap_or_default(),
            days_to: to.unwrap_or_default(),
            handover: Handover::Collection,
            tracked: true,
            billable: Billable {
                actual: parcel.mass,
                volumetric: Mass::ZERO,
                billable: parcel.mass,
                governs: Governs::Actual,
                girth,
                length_plus_girth: longest + girth,
            },
            offer: Offer::Priced {
                zone: String::new(),
                lines: vec![QuoteLine {
                    kind: LineKind::Base,
                    name: "as quoted".to_owned(),
                    rule: LineRule::Quoted {
                        until: self.until(),
                    },
                    place: Place::Quotation,
                    amount: total.clone(),
                }],
                covered: Money::new(self.covers(), own),
                excluded: Vec::new(),
                total,
            },
            total_here: None,
            expected_loss: None,
            all_told: None,
            uncovered: None,
            cost: None,
            cover: None,
        })
    }
}

impl ShipmentInputs {
    /// Returns the quotation of an id, as `quoted/packer`.
    #[must_use]
    pub fn quotation(&self, id: &str) -> Option<&QuotationInputs> {
        self.quotations.get(id.strip_prefix(QUOTED)?)
    }

    /// Returns every price that somebody quoted, as it stands beside the tariffs.
    pub(super) fn quoted(&self, parcel: &Parcel, own: &Currency) -> Vec<(Quote, &QuotationInputs)> {
        self.quotations
            .iter()
            .filter_map(|(key, typed)| Some((typed.quote(key, parcel, own)?, typed)))
            .collect()
    }

    pub(super) fn quotations_refused(&self) -> Vec<Refusal> {
        let mut refusals = Refusals::default();
        if self.quotations.len() > MOST {
            let says = format!("{} given: keep at most {MOST}", self.quotations.len());
            refusals.refuse("quotations", says);
        }
        for (key, typed) in &self.quotations {
            let plain =
                |byte: u8| byte.is_ascii_lowercase() || byte.is_ascii_digit() || byte == b'-';
            if key.is_empty() || key.len() > LONGEST_KEY || !key.bytes().all(plain) {
                let says = format!(
                    "a quotation's key has up to {LONGEST_KEY} lower-case letters and digits"
                );
                refusals.refuse("quotations", says);
                continue;
            }
            refusals.extend(typed.refusals(key));
        }
        refusals.into()
    }
}

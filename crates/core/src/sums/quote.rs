//! What a carrier takes for a parcel, by its tariff.

use jiff::civil::Date;
use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use super::checked::{MASS, SIDE};
use crate::{
    Refusal, Refusals,
    freight::{
        Content, Dip, Governs, LineKind, Offer, Parcel, QuoteRequest, ServiceSteps, Shape, Tariff,
    },
    place::Destination,
    quantity::{Length, Mass},
    space::Envelope,
    text::refused_text,
};

/// A parcel to be priced.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct QuoteParcel {
    /// Outside, 1 to 10 000, in any order of sides.
    pub length_mm: f64,
    /// Outside, 1 to 10 000.
    pub width_mm: f64,
    /// Outside, 1 to 10 000.
    pub height_mm: f64,
    /// 0.001 to 1000.
    pub mass_kg: f64,
    /// Rectangular when left out.
    #[serde(default)]
    pub shape: Shape,
    /// What of it carriers ask about.
    #[serde(default)]
    pub contents: Vec<Content>,
}

/// Where a parcel is to go.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct QuotePlace {
    /// A two-letter code.
    pub country: String,
    /// As on the label; may be left out.
    #[serde(default)]
    pub postcode: String,
}

/// What is asked beside the tariff.
#[derive(Debug, Clone, PartialEq)]
pub struct QuoteSum<'a> {
    /// What is sent.
    pub parcel: &'a QuoteParcel,
    /// Where to.
    pub destination: &'a QuotePlace,
    /// What it is worth, in the tariff's currency; cover is bought for it. Nothing is covered beyond what is included when
    /// there is none.
    pub value: Option<Decimal>,
    /// A tier by its name; the tariff's own when there is none.
    pub discount_tier: Option<&'a str>,
    /// On which day; a tariff's dates are not looked at when there is none.
    pub date: Option<Date>,
}

/// What each service takes.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct QuoteAnswer {
    /// In the order of the tariff.
    pub services: Vec<QuotedService>,
    /// Where the tariff lets more cost less.
    pub dips: Vec<Dip>,
}

/// What one service takes.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct QuotedService {
    /// Its id in the tariff.
    pub service: String,
    /// What people call it.
    pub name: String,
    /// Why it does not take the parcel; `None` if it does.
    pub refused: Option<String>,
    /// Every line, in the order in which they build on each other.
    pub lines: Vec<QuotedLine>,
    /// What the scale reads.
    pub actual_kg: f64,
    /// What the size counts for.
    pub volumetric_kg: f64,
    /// What is billed.
    pub billable_kg: f64,
    /// Which of them it came from.
    pub governs: Governs,
    /// The sum of the lines, in the tariff's currency; `None` if it is refused.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>))]
    pub total: Option<Decimal>,
    /// What is paid out at most, in the tariff's currency.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>))]
    pub covered: Option<Decimal>,
    /// How far it is to the next prices; across, up and through are length, width and height. Nothing where it does not go there.
    pub steps: Option<ServiceSteps>,
}

/// A line of a quote.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct QuotedLine {
    /// What kind of line it is.
    pub kind: LineKind,
    /// What it is for.
    pub name: String,
    /// What it comes to, in the tariff's currency.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub amount: Decimal,
    /// Where its rule stands in the tariff, as `services/0/rules/2`.
    pub rule: String,
}

const MOST_VALUE: Decimal = Decimal::from_parts(1_000_000_000, 0, 0, false, 0);

impl QuoteSum<'_> {
    /// Returns what each service of a tariff takes; the tariff was looked over.
    ///
    /// # Errors
    /// A [`Refusal`] for each value out of its range.
    pub fn by(&self, tariff: &Tariff) -> Result<QuoteAnswer, Vec<Refusal>> {
        let (parcel, destination) = self.sent(tariff)?;
        let asked = QuoteRequest {
            parcel: &parcel,
            destination: &destination,
            on: self.date,
            tier: self.discount_tier,
        };
        let mut steps = tariff.steps(&asked);
        let services = tariff
            .quotes(&asked)
            .into_iter()
            .zip(&tariff.services)
            .map(|(quote, service)| {
                let found = steps.iter().position(|steps| steps.id == quote.id);
                let (refused, lines, covered) = match &quote.offer {
                    Offer::Priced { lines, covered, .. } => {
                        (None, &lines[..], Some(covered.amount))
                    }
                    Offer::Refused { reasons } => {
                        let says: Vec<String> = reasons.iter().map(ToString::to_string).collect();
                        (Some(says.join("; ")), &[][..], None)
                    }
                };
                QuotedService {
                    service: service.id.clone(),
                    name: service.name.clone(),
                    refused,
                    lines: lines
                        .iter()
                        .map(|line| QuotedLine {
                            kind: line.kind,
                            name: line.name.clone(),
                            amount: line.amount.amount,
                            rule: line.place.to_string(),
                        })
                        .collect(),
                    actual_kg: quote.billable.actual.as_kg(),
                    volumetric_kg: quote.billable.volumetric.as_kg(),
                    billable_kg: quote.billable.billable.as_kg(),
                    governs: quote.billable.governs,
                    total: quote.total().map(|total| total.amount),
                    covered,
                    steps: found.map(|at| steps.swap_remove(at)),
                }
            })
            .collect();
        Ok(QuoteAnswer {
            services,
            dips: tariff.dips(),
        })
    }

    /// Returns what is sent, and where to, as a tariff is asked.
    ///
    /// # Errors
    /// A [`Refusal`] for each value out of its range.
    pub fn sent(&self, tariff: &Tariff) -> Result<(Parcel, Destination), Vec<Refusal>> {
        self.check(tariff)?;
        let [across, up, through] = [
            self.parcel.length_mm,
            self.parcel.width_mm,
            self.parcel.height_mm,
        ]
        .map(Length::mm);
        let parcel = Parcel {
            outside: Envelope {
                across,
                up,
                through,
            },
            mass: Mass::kg(self.parcel.mass_kg),
            value: self.value,
            buys_cover: true,
            shape: self.parcel.shape,
            contents: self.parcel.contents.iter().copied().collect(),
        };
        let destination = Destination {
            country: self.destination.country.clone(),
            postcode: self.destination.postcode.clone(),
        };
        Ok((parcel, destination))
    }

    fn check(&self, tariff: &Tariff) -> Result<(), Vec<Refusal>> {
        let mut checked = Refusals::default();
        checked
            .number("parcel.length_mm", self.parcel.length_mm, SIDE)
            .number("parcel.width_mm", self.parcel.width_mm, SIDE)
            .number("parcel.height_mm", self.parcel.height_mm, SIDE)
            .number("parcel.mass_kg", self.parcel.mass_kg, MASS);
        let country = &self.destination.country;
        if country.len() != 2 || !country.bytes().all(|byte| byte.is_ascii_uppercase()) {
            let says = format!("\"{country}\" is not a country code: write two capital letters");
            checked.refuse("destination.country", says);
        }
        if let Some(refused) = refused_text("destination.postcode", &self.destination.postcode) {
            checked.refuse(refused.field, refused.message);
        }
        if let Some(value) = self
            .value
            .filter(|value| !(Decimal::ZERO..=MOST_VALUE).contains(value))
        {
            checked.refuse(
                "value",
                format!("{value} is out of range: give an amount from 0 to {MOST_VALUE}"),
            );
        }
        if let Some(tier) = self.discount_tier {
            let known: Vec<&str> = tariff
                .discount_tiers
                .iter()
                .map(|tier| tier.name.as_str())
                .collect();
            if !known.contains(&tier) {
                let says = format!(
                    "the tariff has no tier \"{tier}\", only {}",
                    if known.is_empty() {
                        "none".to_owned()
                    } else {
                        known.join(", ")
                    }
                );
                checked.refuse("discount_tier", says);
            }
        }
        checked.done()
    }
}

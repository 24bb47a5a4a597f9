//! How a studio writes: masses, numbers, dates, paper, and the numbers that customs ask for. Lengths are [`LengthUnit`].

use jiff::tz::{TimeZone, TimeZoneDatabase};
use serde::{Deserialize, Serialize};

pub use crate::quantity::{DateOrder, DecimalMark, MassUnit};
use crate::{
    Refusal, Refusals,
    quantity::{InchParts, LengthUnit, Telling},
    text::refused_text,
};

macro_rules! choice {
    ($(#[$doc:meta])* $name:ident: $($(#[$each:meta])* $value:ident;)*) => {
        $(#[$doc])*
        #[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
        #[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
        #[serde(rename_all = "lowercase")]
        pub enum $name {
            $($(#[$each])* $value,)*
        }
    };
}

choice! {
    /// What pages are printed on.
    PaperSize:
    /// 210 × 297 mm.
    #[default]
    A4;
    /// 8 1/2 × 11 in.
    Letter;
}

/// What labels are printed on.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub enum LabelSize {
    /// 100 × 150 mm.
    #[default]
    #[serde(rename = "100x150")]
    Metric,
    /// 4 × 6 in.
    #[serde(rename = "4x6")]
    Inches,
}

choice! {
    /// How prices are told.
    Prices:
    /// Without tax.
    #[default]
    Net;
    /// With tax.
    Gross;
}

/// The numbers that a customs paper has of the studio; empty where it has none.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct TaxNumbers {
    /// For value added tax.
    pub vat: String,
    /// For traders across a border of the European customs union.
    pub eori: String,
    /// For small parcels into the European Union, where the buyer paid the tax to the studio.
    pub ioss: String,
    /// Any other, with what it is.
    pub other: String,
    /// Whether prices are with or without tax.
    pub prices: Prices,
}

/// A number that customs ask for.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct TaxNumber<'a> {
    /// Its field in the settings.
    pub field: &'static str,
    /// What customs call it.
    pub name: &'static str,
    /// The number as it was typed; empty where there is none.
    pub text: &'a str,
}

impl TaxNumbers {
    /// Returns every number, in the order in which customs papers have them.
    #[must_use]
    pub fn numbers(&self) -> [TaxNumber<'_>; 4] {
        let Self {
            vat,
            eori,
            ioss,
            other,
            prices: _,
        } = self;
        [
            ("tax.vat", "VAT number", vat),
            ("tax.eori", "EORI number", eori),
            ("tax.ioss", "IOSS number", ioss),
            ("tax.other", "Other number", other),
        ]
        .map(|(field, name, text)| TaxNumber { field, name, text })
    }
}

/// How a studio writes.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default)]
pub struct Manners {
    /// Its time zone, as Europe/Paris; empty for that of the machine.
    pub time_zone: String,
    /// To which part of an inch inches are told: 8, 16 or 32.
    pub fraction: u8,
    /// What masses are read in.
    pub mass: MassUnit,
    /// What stands before decimals.
    pub decimal: DecimalMark,
    /// In which order a date is written.
    pub date_order: DateOrder,
    /// What pages are printed on.
    pub paper: PaperSize,
    /// What labels are printed on.
    pub label: LabelSize,
    /// Numbers that customs ask for.
    pub tax: TaxNumbers,
}

impl Default for Manners {
    fn default() -> Self {
        Self {
            time_zone: String::new(),
            fraction: InchParts::default().number(),
            mass: MassUnit::default(),
            decimal: DecimalMark::default(),
            date_order: DateOrder::default(),
            paper: PaperSize::default(),
            label: LabelSize::default(),
            tax: TaxNumbers::default(),
        }
    }
}

impl Manners {
    /// Returns how quantities are told by these manners, with lengths in a unit.
    #[must_use]
    pub fn telling(&self, length: LengthUnit) -> Telling {
        Telling {
            length,
            inch_parts: InchParts::of(self.fraction).unwrap_or_default(),
            mass: self.mass,
            decimal: self.decimal,
            dates: self.date_order,
        }
    }

    /// Returns the studio's time zone; `None` where it named none.
    #[must_use]
    pub fn zone(&self) -> Option<TimeZone> {
        TimeZoneDatabase::bundled().get(&self.time_zone).ok()
    }

    /// Returns a [`Refusal`] for each value that nobody can write by.
    #[must_use]
    pub fn refused(&self) -> Vec<Refusal> {
        let mut refusals = Refusals::default();
        if !self.time_zone.is_empty() && self.zone().is_none() {
            let says = format!(
                "\"{}\" is not a time zone: write it as Europe/Paris",
                self.time_zone
            );
            refusals.refuse("time_zone", says);
        }
        if InchParts::of(self.fraction).is_none() {
            let says = format!(
                "{} is not a ruler division: choose 8, 16 or 32 parts to the inch",
                self.fraction
            );
            refusals.refuse("fraction", says);
        }
        refusals.extend(
            self.tax
                .numbers()
                .into_iter()
                .filter_map(|number| refused_text(number.field, number.text)),
        );
        refusals.into()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_nobody_can_write_by_is_refused_at_its_field() {
        assert!(Manners::default().refused().is_empty());
        let paris = Manners {
            time_zone: "Europe/Paris".into(),
            fraction: 32,
            ..Manners::default()
        };
        assert!(paris.refused().is_empty());
        let wrong = Manners {
            time_zone: "Middle/Earth".into(),
            fraction: 10,
            tax: TaxNumbers {
                vat: "DE\u{7}123".into(),
                ..TaxNumbers::default()
            },
            ..Manners::default()
        };
        let fields: Vec<String> = wrong
            .refused()
            .into_iter()
            .map(|refusal| refusal.field)
            .collect();
        assert_eq!(fields, ["time_zone", "fraction", "tax.vat"]);
    }

    #[test]
    fn choices_are_written_as_the_api_has_them() {
        let told = serde_json::to_value(Manners::default()).expect("JSON");
        assert_eq!(told["label"], "100x150");
        assert_eq!(told["mass"], "kg");
        assert!(serde_json::from_str::<MassUnit>("\"stone\"").is_err());
    }
}

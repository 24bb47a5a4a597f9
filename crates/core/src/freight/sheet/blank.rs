//! A price list that nothing is typed in yet.

use super::{
    BillableSheet, CoverSheet, LimitsSheet, PriceTable, ServiceSheet, TariffSheet, ZoneColumn,
    ZoneSheet,
};
use crate::{
    freight::{
        Handover,
        tariff::{fuel_on, tax_on},
    },
    quantity::{Currency, MassUnit, Telling},
};

/// What most carriers' parcel services have, by the kilogram and by the pound: weights, divisor, steps of size and weight, heaviest,
/// longest, length and girth.
struct Usual {
    weights: &'static [&'static str],
    divisor: &'static str,
    steps: [&'static str; 2],
    limits: [&'static str; 3],
}

const METRIC: Usual = Usual {
    weights: &["2 kg", "5 kg", "10 kg", "20 kg", "30 kg"],
    divisor: "5000 cm³/kg",
    steps: ["1 cm", "0.5 kg"],
    limits: ["30 kg", "120 cm", "300 cm"],
};
const BY_THE_POUND: Usual = Usual {
    weights: &["1 lb", "5 lb", "10 lb", "20 lb", "50 lb"],
    divisor: "139 in³/lb",
    steps: ["1 in", "1 lb"],
    limits: ["70 lb", "48 in", "108 in"],
};

impl TariffSheet {
    /// Returns the form of a new carrier: one zone, the studio's own country, and one service without prices.
    #[must_use]
    pub fn blank(currency: &Currency, home: &str, telling: Telling) -> Self {
        let usual = match telling.mass {
            MassUnit::Kg => METRIC,
            MassUnit::Lb => BY_THE_POUND,
        };
        let zone = "Home";
        let nothing = String::new;
        let weights: Vec<String> = usual.weights.iter().map(|one| (*one).to_owned()).collect();
        let [size_step, weight_step] = usual.steps.map(str::to_owned);
        let [mass, longest, length_plus_girth] = usual.limits.map(str::to_owned);
        Self {
            id: nothing(),
            carrier: nothing(),
            currency: currency.code().to_owned(),
            valid_from: nothing(),
            valid_to: nothing(),
            zones: vec![ZoneSheet {
                name: zone.to_owned(),
                countries: Some(home.to_owned())
                    .filter(|home| !home.is_empty())
                    .into_iter()
                    .collect(),
                postcodes: Vec::new(),
            }],
            fuel_percent: nothing(),
            fuel_on: fuel_on(),
            tax_percent: nothing(),
            tax_on: tax_on(),
            discount_tiers: Vec::new(),
            tier: nothing(),
            collection: None,
            claims: None,
            rules: Vec::new(),
            services: vec![ServiceSheet {
                id: nothing(),
                name: "Parcel".to_owned(),
                days_from: "2".to_owned(),
                days_to: "4".to_owned(),
                handover: Handover::DropOff,
                collection: None,
                tracked: true,
                route: None,
                roughness: nothing(),
                billable: BillableSheet {
                    divisor: usual.divisor.to_owned(),
                    volumetric_above: nothing(),
                    size_step,
                    weight_step,
                    minimum: nothing(),
                },
                limits: LimitsSheet {
                    mass,
                    longest,
                    second: nothing(),
                    length_plus_girth,
                    glass: true,
                },
                refuses: Vec::new(),
                formats: Vec::new(),
                prices: PriceTable {
                    zones: vec![ZoneColumn {
                        zone: zone.to_owned(),
                        prices: vec![String::new(); weights.len()],
                        further: nothing(),
                    }],
                    weights,
                },
                rules: Vec::new(),
                cover: CoverSheet {
                    included: nothing(),
                    step: nothing(),
                    price_per_step: nothing(),
                    most: nothing(),
                    excludes_glass: false,
                    exclusions: Vec::new(),
                },
                with_cover: None,
            }],
        }
    }
}

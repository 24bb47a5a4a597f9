//! A tariff as its form shows it.

use jiff::civil::Date;
use rust_decimal::Decimal;

use super::{
    BillableSheet, ClaimsSheet, CollectionSheet, ConditionSheet, CoverSheet, ExceptionSheet,
    FormatSheet, Joined, LimitsSheet, OverStepSheet, PostcodeLine, PriceTable, RuleSheet,
    ServiceSheet, TariffSheet, TierSheet, WhatSheet, WhenSheet, WithCoverSheet, ZoneColumn,
    ZoneSheet,
    figures::{Figures, Kind},
    read::condition,
};
use crate::{
    freight::{
        Collection, Cover, Format, OverStep, Rule, Service, Tariff, What, When, Zone, ZonePrice,
    },
    quantity::{Bare, Length, Mass, Telling},
};

impl TariffSheet {
    /// Returns a tariff as a studio's form shows it.
    #[must_use]
    pub fn of(tariff: &Tariff, telling: Telling) -> Self {
        let write = Figures::of(telling);
        let day = |day: Option<Date>| day.map(|day| day.to_string()).unwrap_or_default();
        Self {
            id: tariff.id.clone(),
            carrier: tariff.carrier.clone(),
            currency: tariff.currency.code().to_owned(),
            valid_from: day(tariff.valid_from),
            valid_to: day(tariff.valid_to),
            zones: tariff.zones.iter().map(zone).collect(),
            fuel_percent: write.amount(tariff.fuel_percent),
            fuel_on: tariff.fuel_on.clone(),
            tax_percent: write.amount(tariff.tax_percent),
            tax_on: tariff.tax_on.clone(),
            discount_tiers: tariff
                .discount_tiers
                .iter()
                .map(|tier| TierSheet {
                    name: tier.name.clone(),
                    percent: write.amount(tier.percent),
                    of: tier.of.clone(),
                })
                .collect(),
            tier: tariff.tier.clone().unwrap_or_default(),
            collection: tariff.collection.as_ref().map(collection),
            claims: tariff.claims.map(|claims| ClaimsSheet {
                damage_days: claims.damage_days.to_string(),
                loss_days: claims.loss_days.to_string(),
            }),
            rules: write.rules(&tariff.rules),
            services: tariff
                .services
                .iter()
                .map(|service| write.service(service))
                .collect(),
        }
    }
}

fn zone(zone: &Zone) -> ZoneSheet {
    let begins = zone.postcode_prefixes.iter();
    let begins = begins.map(|with| PostcodeLine::BeginsWith { with: with.clone() });
    let ranges = zone
        .postcode_ranges
        .iter()
        .map(|range| PostcodeLine::FromTo {
            from: range.from.clone(),
            to: range.to.clone(),
        });
    ZoneSheet {
        name: zone.name.clone(),
        countries: zone.countries.clone(),
        postcodes: begins.chain(ranges).collect(),
    }
}

fn collection(collection: &Collection) -> CollectionSheet {
    let text = collection.cut_off.to_string();
    // A second belongs to no cut-off that anybody types, and is kept where there is one.
    let minute = text
        .strip_suffix(":00")
        .filter(|_| text.len() == "14:30:00".len());
    CollectionSheet {
        days: collection.days.clone(),
        cut_off: minute.unwrap_or(&text).to_owned(),
    }
}

impl Figures {
    pub(super) const fn of(telling: Telling) -> Self {
        Self {
            bare: Bare {
                length: telling.length,
                mass: telling.mass,
            },
            mark: telling.decimal,
        }
    }

    fn length(self, length: Length) -> String {
        self.figure(Kind::Length, length.as_mm())
    }

    fn mass(self, mass: Mass) -> String {
        self.figure(Kind::Mass, mass.as_g())
    }

    fn service(self, service: &Service) -> ServiceSheet {
        let (by, limits) = (&service.billable, &service.limits);
        let exceptions = |all: Vec<(&String, &When)>| -> Vec<ExceptionSheet> {
            let each = all.into_iter();
            each.map(|(name, when)| ExceptionSheet {
                name: name.clone(),
                when: self.when(when),
            })
            .collect()
        };
        let refuses = service.refuses.iter();
        ServiceSheet {
            id: service.id.clone(),
            name: service.name.clone(),
            days_from: service.days_from.to_string(),
            days_to: service.days_to.to_string(),
            handover: service.handover,
            collection: service.collection.as_ref().map(collection),
            tracked: service.tracked,
            route: service.route,
            roughness: self.number(service.roughness),
            billable: BillableSheet {
                divisor: self.figure(Kind::Divisor, by.divisor_cm3_per_kg),
                volumetric_above: by
                    .volumetric_above
                    .map(|above| self.figure(Kind::Volume, above.as_m3()))
                    .unwrap_or_default(),
                size_step: self.length(by.size_step),
                weight_step: self.mass(by.weight_step),
                minimum: self.mass(by.minimum),
            },
            limits: LimitsSheet {
                mass: self.mass(limits.mass),
                longest: self.length(limits.longest),
                second: limits
                    .second
                    .map(|second| self.length(second))
                    .unwrap_or_default(),
                length_plus_girth: self.length(limits.length_plus_girth),
                glass: limits.glass,
            },
            refuses: exceptions(refuses.map(|one| (&one.name, &one.when)).collect()),
            formats: service
                .formats
                .iter()
                .map(|format| self.format(format))
                .collect(),
            prices: self.table(&service.prices),
            rules: self.rules(&service.rules),
            cover: self.cover(&service.cover, exceptions),
            with_cover: service.with_cover.map(|with| WithCoverSheet {
                days_from: with.days_from.to_string(),
                days_to: with.days_to.to_string(),
                tracked: with.tracked,
            }),
        }
    }

    fn cover(
        self,
        cover: &Cover,
        exceptions: impl Fn(Vec<(&String, &When)>) -> Vec<ExceptionSheet>,
    ) -> CoverSheet {
        let left_out = cover.exclusions.iter();
        CoverSheet {
            included: self.amount(cover.included),
            step: self.amount(cover.step),
            price_per_step: self.amount(cover.price_per_step),
            most: self.amount(cover.most),
            excludes_glass: cover.excludes_glass,
            exclusions: exceptions(left_out.map(|one| (&one.name, &one.when)).collect()),
        }
    }

    fn format(self, format: &Format) -> FormatSheet {
        FormatSheet {
            name: format.name.clone(),
            length: self.length(format.length),
            width: self.length(format.width),
            height: self.length(format.height),
            prices: self.table(&format.prices),
        }
    }

    /// A row for every weight that any zone has a price for.
    pub(super) fn table(self, prices: &[ZonePrice]) -> PriceTable {
        let steps = prices.iter().flat_map(|price| &price.steps);
        let mut weights: Vec<Mass> = steps.map(|step| step.up_to).collect();
        weights.sort_by(|one, other| one.as_g().total_cmp(&other.as_g()));
        weights.dedup();
        let cell = |price: &ZonePrice, weight: &Mass| {
            let mut steps = price.steps.iter();
            let step = steps.find(|step| step.up_to == *weight);
            step.map(|step| self.amount(step.price)).unwrap_or_default()
        };
        let zones = prices.iter().map(|price| ZoneColumn {
            zone: price.zone.clone(),
            prices: weights.iter().map(|weight| cell(price, weight)).collect(),
            further: self.if_any(price.per_further_kg),
        });
        PriceTable {
            zones: zones.collect(),
            weights: weights.iter().map(|weight| self.mass(*weight)).collect(),
        }
    }

    fn if_any(self, amount: Option<Decimal>) -> String {
        amount.map(|amount| self.amount(amount)).unwrap_or_default()
    }

    fn rules(self, rules: &[Rule]) -> Vec<RuleSheet> {
        let rules = rules.iter().map(|rule| RuleSheet {
            name: rule.name.clone(),
            when: self.when(&rule.when),
            what: self.what(&rule.what),
            replaces: rule.replaces.clone(),
        });
        rules.collect()
    }

    fn what(self, what: &What) -> WhatSheet {
        match what {
            What::Sum { price } => WhatSheet::Sum {
                price: self.amount(*price),
            },
            What::PerKg { price, of } => WhatSheet::PerKg {
                price: self.amount(*price),
                of: *of,
            },
            What::Percent { percent, of } => WhatSheet::Percent {
                percent: self.amount(*percent),
                of: of.clone(),
            },
            What::Minimum { billable } => WhatSheet::Minimum {
                billable: self.mass(*billable),
            },
            What::Steps { by, steps } => WhatSheet::Steps {
                by: *by,
                steps: steps
                    .iter()
                    .map(|OverStep { over, price }| OverStepSheet {
                        over: self.figure(Kind::of(*by), *over),
                        price: self.amount(*price),
                    })
                    .collect(),
            },
        }
    }

    fn when(self, when: &When) -> WhenSheet {
        let (joined, of) = match when {
            // One that is joined with nothing would come back as itself alone.
            When::All(of) if of.len() > 1 => (Joined::All, of.as_slice()),
            When::Any(of) if of.len() > 1 => (Joined::Any, of.as_slice()),
            one => (Joined::All, std::slice::from_ref(one)),
        };
        WhenSheet {
            joined,
            of: of.iter().map(|when| self.condition(when)).collect(),
        }
    }

    fn condition(self, when: &When) -> ConditionSheet {
        let kept = || ConditionSheet::Kept { when: when.clone() };
        let form = match when {
            When::Always => ConditionSheet::Always,
            When::All(_) | When::Any(_) => return kept(),
            When::Over(over) => ConditionSheet::Over {
                gauge: over.gauge,
                over: self.figure(Kind::of(over.gauge), over.number),
            },
            When::Glass => ConditionSheet::Glass,
            When::Shape(is) => ConditionSheet::Shape { is: is.clone() },
            When::Contents(any_of) => ConditionSheet::Contents {
                any_of: any_of.clone(),
            },
            When::Without(any_of) => ConditionSheet::Without {
                any_of: any_of.clone(),
            },
            When::Zone(is) => ConditionSheet::Zone { is: is.clone() },
            When::Postcode(prefixes) => ConditionSheet::Postcode {
                prefixes: prefixes.join(", "),
            },
            When::ValueOver(over) => ConditionSheet::ValueOver {
                over: self.amount(*over),
            },
        };
        // What its form can't hold to the last digit is kept as it is.
        if condition(self, &form).is_ok_and(|read| read == *when) {
            form
        } else {
            kept()
        }
    }
}

//! What a form says, as a tariff; what is wrong is named by its place in the form, in plain words.

use std::collections::BTreeMap;

use jiff::civil::{Date, Time};
use rust_decimal::Decimal;

use super::{
    CollectionSheet, ConditionSheet, ExceptionSheet, FormatSheet, Joined, PostcodeLine, PriceTable,
    RuleSheet, ServiceSheet, TariffSheet, WhatSheet, WhenSheet, ZoneSheet,
    figures::{Figures, Kind, read_amount},
};
use crate::{
    Refusal,
    freight::{
        BillableBy, ClaimTerms, Collection, Cover, DiscountTier, Exclusion, Format, Limits, Over,
        OverStep, PostcodeRange, Refuses, Rule, Service, Tariff, WeightStep, What, When, WithCover,
        Zone, ZonePrice,
    },
    quantity::{Currency, Length, Mass, Telling, Volume},
};

impl TariffSheet {
    /// Returns the tariff that the form says, looked over as a whole.
    ///
    /// # Errors
    /// A [`Refusal`] for each cell that can't be read, or else for each thing that is wrong, by its place in the form, as
    /// `services/0/prices/zones/1/prices/2`.
    pub fn read(&self, telling: Telling) -> Result<Tariff, Vec<Refusal>> {
        let mut form = Form {
            write: Figures::of(telling),
            wrong: Vec::new(),
            places: BTreeMap::new(),
        };
        let tariff = form.tariff(self);
        let (wrong, places) = (form.wrong, form.places);
        let Some(tariff) = tariff.filter(|_| wrong.is_empty()) else {
            return Err(wrong);
        };
        tariff.checked().map_err(|refusals| {
            let placed = refusals.into_iter().map(|refusal| {
                let field = in_form(&refusal.field, &places);
                Refusal::new(field, refusal.message)
            });
            placed.collect::<Vec<_>>()
        })?;
        Ok(tariff)
    }
}

/// What stands at the end of a tariff's field, and not of the form's: the form's texts have their own units.
const UNITS: [&str; 4] = ["_cm3_per_kg", "_mm", "_m3", "_g"];

/// The place of a tariff's field in its form.
fn in_form(place: &str, places: &BTreeMap<String, String>) -> String {
    let mut found = place.to_owned();
    let mut known: Vec<_> = places.iter().collect();
    known.sort_by_key(|(tariff, _)| std::cmp::Reverse(tariff.len()));
    for (tariff, form) in known {
        let rest = place.strip_prefix(tariff.as_str());
        if let Some(rest) = rest.filter(|rest| rest.is_empty() || rest.starts_with('/')) {
            let keeps = !form.contains("/prices/zones/") || rest.ends_with("/zone");
            found = if keeps {
                format!("{form}{rest}")
            } else {
                form.clone()
            };
            break;
        }
    }
    // A condition is shown as one line.
    if let Some(at) = found.find("/when/") {
        found.truncate(at + "/when".len());
    }
    let parts = found.split('/').map(|part| {
        let cut = UNITS.iter().find_map(|unit| part.strip_suffix(unit));
        cut.unwrap_or(part)
    });
    parts.collect::<Vec<_>>().join("/")
}

/// A form while it is read.
struct Form {
    write: Figures,
    wrong: Vec<Refusal>,
    /// Where a place of the tariff stands in the form, where that is another one.
    places: BTreeMap<String, String>,
}

/// A short name of small letters, figures and hyphens, from what people call it.
fn short_name(name: &str) -> String {
    let plain = name.to_lowercase();
    let words = plain
        .split(|c: char| !c.is_ascii_alphanumeric())
        .filter(|word| !word.is_empty());
    let short: String = words.collect::<Vec<_>>().join("-");
    short
        .chars()
        .take(40)
        .collect::<String>()
        .trim_end_matches('-')
        .to_owned()
}

fn named(id: &str, name: &str) -> String {
    let id = id.trim();
    if id.is_empty() {
        short_name(name)
    } else {
        id.to_owned()
    }
}

impl Form {
    fn refuse(&mut self, at: impl Into<String>, says: impl ToString) {
        self.wrong.push(Refusal::new(at, says));
    }

    /// What was read; nothing, and a word at its place, where it was not.
    fn take<T>(&mut self, at: impl Into<String>, read: Result<T, String>) -> Option<T> {
        match read {
            Ok(read) => Some(read),
            Err(says) => {
                self.refuse(at, says);
                None
            }
        }
    }

    fn amount(&mut self, at: impl Into<String>, text: &str) -> Option<Decimal> {
        self.take(at, read_amount(text))
    }

    fn amount_or_none(&mut self, at: String, text: &str) -> Decimal {
        if text.trim().is_empty() {
            return Decimal::ZERO;
        }
        self.amount(at, text).unwrap_or_default()
    }

    fn figure(&mut self, kind: Kind, at: impl Into<String>, text: &str) -> Option<f64> {
        let read = self.write.read_figure(kind, text);
        self.take(at, read)
    }

    fn length(&mut self, at: impl Into<String>, text: &str) -> Option<Length> {
        let at = at.into();
        let number = self.figure(Kind::Length, at.clone(), text)?;
        self.take(
            at,
            Length::try_from(number).map_err(|error| error.to_string()),
        )
    }

    fn mass(&mut self, at: impl Into<String>, text: &str) -> Option<Mass> {
        let at = at.into();
        let number = self.figure(Kind::Mass, at.clone(), text)?;
        self.take(
            at,
            Mass::try_from(number).map_err(|error| error.to_string()),
        )
    }

    fn days(&mut self, at: impl Into<String>, text: &str) -> Option<u32> {
        let typed = text.trim();
        let read = typed
            .parse()
            .map_err(|_| format!("\"{typed}\" is not a number of days: write it as 3"));
        self.take(at, read)
    }

    fn day(&mut self, at: &str, text: &str) -> Option<Date> {
        let typed = text.trim();
        if typed.is_empty() {
            return None;
        }
        let read = typed
            .parse()
            .map_err(|_| format!("\"{typed}\" is not a date: write it as 2027-03-04"));
        self.take(at, read)
    }

    fn tariff(&mut self, sheet: &TariffSheet) -> Option<Tariff> {
        let currency = Currency::try_from(sheet.currency.trim().to_uppercase());
        let currency = currency.map_err(|error| error.to_string());
        let currency = self.take("currency", currency);
        let tiers = sheet.discount_tiers.iter().enumerate();
        let discount_tiers = tiers.map(|(at, tier)| DiscountTier {
            name: tier.name.trim().to_owned(),
            percent: self
                .amount(format!("discount_tiers/{at}/percent"), &tier.percent)
                .unwrap_or_default(),
            of: tier.of.clone(),
        });
        let discount_tiers = discount_tiers.collect();
        let claims = sheet.claims.as_ref().and_then(|claims| {
            let damage_days = self.days("claims/damage_days", &claims.damage_days);
            let loss_days = self.days("claims/loss_days", &claims.loss_days);
            Some(ClaimTerms {
                damage_days: damage_days?,
                loss_days: loss_days?,
            })
        });
        let zones = sheet.zones.iter().enumerate();
        let zones = zones.map(|(at, zone)| self.zone(at, zone)).collect();
        let fuel_percent = self.amount_or_none("fuel_percent".to_owned(), &sheet.fuel_percent);
        let tax_percent = self.amount_or_none("tax_percent".to_owned(), &sheet.tax_percent);
        let collection = self.collection("collection", sheet.collection.as_ref());
        let rules = self.rules("rules", &sheet.rules);
        let services = sheet.services.iter().enumerate();
        let services: Vec<Option<Service>> = services
            .map(|(at, service)| self.service(&format!("services/{at}"), service))
            .collect();
        Some(Tariff {
            id: named(&sheet.id, &sheet.carrier),
            carrier: sheet.carrier.trim().to_owned(),
            currency: currency?,
            valid_from: self.day("valid_from", &sheet.valid_from),
            valid_to: self.day("valid_to", &sheet.valid_to),
            zones,
            fuel_percent,
            fuel_on: sheet.fuel_on.clone(),
            tax_percent,
            tax_on: sheet.tax_on.clone(),
            discount_tiers,
            tier: Some(sheet.tier.clone()).filter(|tier| !tier.is_empty()),
            collection,
            claims,
            rules,
            services: services.into_iter().collect::<Option<_>>()?,
        })
    }

    fn zone(&mut self, at: usize, zone: &ZoneSheet) -> Zone {
        let place = format!("zones/{at}");
        let mut read = Zone {
            name: zone.name.trim().to_owned(),
            countries: zone.countries.clone(),
            postcode_prefixes: Vec::new(),
            postcode_ranges: Vec::new(),
        };
        for (index, line) in zone.postcodes.iter().enumerate() {
            let (list, number) = match line {
                PostcodeLine::BeginsWith { with } => {
                    read.postcode_prefixes.push(with.trim().to_uppercase());
                    ("postcode_prefixes", read.postcode_prefixes.len())
                }
                PostcodeLine::FromTo { from, to } => {
                    read.postcode_ranges.push(PostcodeRange {
                        from: from.trim().to_uppercase(),
                        to: to.trim().to_uppercase(),
                    });
                    ("postcode_ranges", read.postcode_ranges.len())
                }
            };
            self.places.insert(
                format!("{place}/{list}/{}", number - 1),
                format!("{place}/postcodes/{index}"),
            );
        }
        read
    }

    fn collection(&mut self, at: &str, sheet: Option<&CollectionSheet>) -> Option<Collection> {
        let sheet = sheet?;
        let typed = sheet.cut_off.trim();
        let read = typed.parse::<Time>();
        let read = read.map_err(|_| format!("\"{typed}\" is not a time: write it as 14:30"));
        Some(Collection {
            days: sheet.days.clone(),
            cut_off: self.take(format!("{at}/cut_off"), read)?,
        })
    }

    fn service(&mut self, at: &str, sheet: &ServiceSheet) -> Option<Service> {
        let days_from = self.days(format!("{at}/days_from"), &sheet.days_from);
        let days_to = self.days(format!("{at}/days_to"), &sheet.days_to);
        let typed = sheet.roughness.trim();
        let roughness = if typed.is_empty() {
            Some(1.0)
        } else {
            let read = super::figures::plain(typed).and_then(|number| {
                number
                    .parse()
                    .map_err(|_| format!("\"{typed}\" is not a number: write it as 1.2"))
            });
            self.take(format!("{at}/roughness"), read)
        };
        let billable = self.billable(at, sheet);
        let limits = self.limits(at, sheet);
        let refuses = self.exceptions(&format!("{at}/refuses"), &sheet.refuses);
        let refuses = refuses.into_iter();
        let formats = sheet.formats.iter().enumerate();
        let formats: Vec<Option<Format>> = formats
            .map(|(index, format)| self.format(&format!("{at}/formats/{index}"), format))
            .collect();
        let prices = self.table(&format!("{at}/prices"), &sheet.prices);
        let mut sold = formats.iter().flatten();
        if prices.is_empty() && !formats.is_empty() && sold.all(|format| format.prices.is_empty()) {
            let first = format!("{at}/formats/0/prices/zones/0/prices/0");
            self.refuse(first, "give the price of at least one container");
        }
        let rules = self.rules(&format!("{at}/rules"), &sheet.rules);
        let cover = self.cover(&format!("{at}/cover"), sheet);
        let collection = self.collection(&format!("{at}/collection"), sheet.collection.as_ref());
        let with_cover = match &sheet.with_cover {
            None => None,
            Some(with) => {
                let place = format!("{at}/with_cover");
                let from = self.days(format!("{place}/days_from"), &with.days_from);
                let to = self.days(format!("{place}/days_to"), &with.days_to);
                Some(WithCover {
                    days_from: from?,
                    days_to: to?,
                    tracked: with.tracked,
                })
            }
        };
        Some(Service {
            id: named(&sheet.id, &sheet.name),
            name: sheet.name.trim().to_owned(),
            days_from: days_from?,
            days_to: days_to?,
            handover: sheet.handover,
            collection,
            tracked: sheet.tracked,
            route: sheet.route,
            roughness: roughness?,
            billable: billable?,
            limits: limits?,
            refuses: refuses.map(|(name, when)| Refuses { name, when }).collect(),
            formats: formats.into_iter().collect::<Option<_>>()?,
            prices,
            rules,
            cover,
            with_cover,
        })
    }

    fn billable(&mut self, at: &str, sheet: &ServiceSheet) -> Option<BillableBy> {
        let (by, place) = (&sheet.billable, format!("{at}/billable"));
        let divisor = self.figure(Kind::Divisor, format!("{place}/divisor"), &by.divisor);
        let above = match by.volumetric_above.trim() {
            "" => Some(None),
            text => {
                let at = format!("{place}/volumetric_above");
                let number = self.figure(Kind::Volume, at.clone(), text);
                let volume = number
                    .map(|number| Volume::try_from(number).map_err(|error| error.to_string()));
                volume.and_then(|volume| self.take(at, volume)).map(Some)
            }
        };
        let mut step = |field: &str, text: &str| match text.trim() {
            "" => Some(Mass::ZERO),
            text => self.mass(format!("{place}/{field}"), text),
        };
        let weight_step = step("weight_step", &by.weight_step);
        let minimum = step("minimum", &by.minimum);
        let size_step = match by.size_step.trim() {
            "" => Some(Length::ZERO),
            text => self.length(format!("{place}/size_step"), text),
        };
        Some(BillableBy {
            divisor_cm3_per_kg: divisor?,
            volumetric_above: above?,
            size_step: size_step?,
            weight_step: weight_step?,
            minimum: minimum?,
        })
    }

    fn limits(&mut self, at: &str, sheet: &ServiceSheet) -> Option<Limits> {
        let (limits, place) = (&sheet.limits, format!("{at}/limits"));
        let mass = self.mass(format!("{place}/mass"), &limits.mass);
        let longest = self.length(format!("{place}/longest"), &limits.longest);
        let second = match limits.second.trim() {
            "" => Some(None),
            text => self.length(format!("{place}/second"), text).map(Some),
        };
        let around = self.length(
            format!("{place}/length_plus_girth"),
            &limits.length_plus_girth,
        );
        Some(Limits {
            mass: mass?,
            longest: longest?,
            second: second?,
            length_plus_girth: around?,
            glass: limits.glass,
        })
    }

    fn cover(&mut self, at: &str, sheet: &ServiceSheet) -> Cover {
        let cover = &sheet.cover;
        let mut amount =
            |field: &str, text: &str| self.amount_or_none(format!("{at}/{field}"), text);
        let (included, step) = (
            amount("included", &cover.included),
            amount("step", &cover.step),
        );
        let price_per_step = amount("price_per_step", &cover.price_per_step);
        let most = amount("most", &cover.most);
        let left_out = self.exceptions(&format!("{at}/exclusions"), &cover.exclusions);
        let left_out = left_out.into_iter();
        Cover {
            included,
            step,
            price_per_step,
            most,
            excludes_glass: cover.excludes_glass,
            exclusions: left_out
                .map(|(name, when)| Exclusion { name, when })
                .collect(),
        }
    }

    fn exceptions(&mut self, at: &str, sheets: &[ExceptionSheet]) -> Vec<(String, When)> {
        let mut read = Vec::with_capacity(sheets.len());
        for (index, one) in sheets.iter().enumerate() {
            if let Some(when) = self.when(&format!("{at}/{index}/when"), &one.when) {
                read.push((one.name.trim().to_owned(), when));
            }
        }
        read
    }

    fn format(&mut self, at: &str, sheet: &FormatSheet) -> Option<Format> {
        let length = self.length(format!("{at}/length"), &sheet.length);
        let width = self.length(format!("{at}/width"), &sheet.width);
        let height = self.length(format!("{at}/height"), &sheet.height);
        let prices = self.table(&format!("{at}/prices"), &sheet.prices);
        Some(Format {
            name: sheet.name.trim().to_owned(),
            length: length?,
            width: width?,
            height: height?,
            prices,
        })
    }

    /// The prices of each zone that has any.
    fn table(&mut self, at: &str, table: &PriceTable) -> Vec<ZonePrice> {
        let weights: Vec<Option<Mass>> = table
            .weights
            .iter()
            .enumerate()
            .map(|(row, text)| {
                let priced = |column: &super::ZoneColumn| {
                    column
                        .prices
                        .get(row)
                        .is_some_and(|price| !price.trim().is_empty())
                };
                // A row without any price need not say its weight yet.
                if text.trim().is_empty() && !table.zones.iter().any(priced) {
                    return None;
                }
                self.mass(format!("{at}/weights/{row}"), text)
            })
            .collect();
        let mut read: Vec<ZonePrice> = Vec::new();
        for (index, column) in table.zones.iter().enumerate() {
            let place = format!("{at}/zones/{index}");
            let mut rows = Vec::new();
            let mut steps = Vec::new();
            for (row, text) in column.prices.iter().enumerate() {
                if text.trim().is_empty() {
                    continue;
                }
                let price = self.amount(format!("{place}/prices/{row}"), text);
                let weight = weights.get(row).copied().flatten();
                if let (Some(price), Some(up_to)) = (price, weight) {
                    rows.push(row);
                    steps.push(WeightStep { up_to, price });
                }
            }
            let per_further_kg = match column.further.trim() {
                "" => None,
                text => self.amount(format!("{place}/further"), text),
            };
            if steps.is_empty() && per_further_kg.is_none() {
                continue;
            }
            let tariff = format!("{at}/{}", read.len());
            self.places.insert(tariff.clone(), place.clone());
            self.places.insert(
                format!("{tariff}/per_further_kg"),
                format!("{place}/further"),
            );
            for (step, row) in rows.iter().enumerate() {
                self.places.insert(
                    format!("{tariff}/steps/{step}"),
                    format!("{place}/prices/{row}"),
                );
                self.places.insert(
                    format!("{tariff}/steps/{step}/up_to_g"),
                    format!("{at}/weights/{row}"),
                );
            }
            read.push(ZonePrice {
                zone: column.zone.trim().to_owned(),
                steps,
                per_further_kg,
            });
        }
        read
    }

    fn rules(&mut self, at: &str, sheets: &[RuleSheet]) -> Vec<Rule> {
        let mut rules = Vec::with_capacity(sheets.len());
        for (index, sheet) in sheets.iter().enumerate() {
            let place = format!("{at}/{index}");
            let when = self.when(&format!("{place}/when"), &sheet.when);
            let what = self.what(&format!("{place}/what"), &sheet.what);
            if let (Some(when), Some(what)) = (when, what) {
                rules.push(Rule {
                    name: sheet.name.trim().to_owned(),
                    when,
                    what,
                    replaces: sheet.replaces.clone(),
                });
            }
        }
        rules
    }

    fn what(&mut self, at: &str, sheet: &WhatSheet) -> Option<What> {
        Some(match sheet {
            WhatSheet::Sum { price } => What::Sum {
                price: self.amount(format!("{at}/price"), price)?,
            },
            WhatSheet::PerKg { price, of } => What::PerKg {
                price: self.amount(format!("{at}/price"), price)?,
                of: *of,
            },
            WhatSheet::Percent { percent, of } => What::Percent {
                percent: self.amount(format!("{at}/percent"), percent)?,
                of: of.clone(),
            },
            WhatSheet::Minimum { billable } => What::Minimum {
                billable: self.mass(format!("{at}/billable"), billable)?,
            },
            WhatSheet::Steps { by, steps } => {
                let steps = steps.iter().enumerate();
                let steps: Vec<Option<OverStep>> = steps
                    .map(|(index, step)| {
                        let place = format!("{at}/steps/{index}");
                        let over = self.figure(Kind::of(*by), format!("{place}/over"), &step.over);
                        let price = self.amount(format!("{place}/price"), &step.price);
                        Some(OverStep {
                            over: over?,
                            price: price?,
                        })
                    })
                    .collect();
                What::Steps {
                    by: *by,
                    steps: steps.into_iter().collect::<Option<_>>()?,
                }
            }
        })
    }

    fn when(&mut self, at: &str, sheet: &WhenSheet) -> Option<When> {
        let write = self.write;
        let mut read = Vec::with_capacity(sheet.of.len());
        for one in &sheet.of {
            read.push(self.take(at, condition(write, one)));
        }
        let mut read = read.into_iter().collect::<Option<Vec<When>>>()?;
        match (read.len(), sheet.joined) {
            (0, _) => {
                self.refuse(at, "give the condition");
                None
            }
            (1, _) => read.pop(),
            (_, Joined::All) => Some(When::All(read)),
            (_, Joined::Any) => Some(When::Any(read)),
        }
    }
}

/// Reads one condition.
pub(super) fn condition(write: Figures, sheet: &ConditionSheet) -> Result<When, String> {
    Ok(match sheet {
        ConditionSheet::Always => When::Always,
        ConditionSheet::Over { gauge, over } => When::Over(Over {
            gauge: *gauge,
            number: write.read_figure(Kind::of(*gauge), over)?,
        }),
        ConditionSheet::Glass => When::Glass,
        ConditionSheet::Shape { is } => When::Shape(is.clone()),
        ConditionSheet::Contents { any_of } => When::Contents(any_of.clone()),
        ConditionSheet::Without { any_of } => When::Without(any_of.clone()),
        ConditionSheet::Zone { is } => When::Zone(is.clone()),
        ConditionSheet::Postcode { prefixes } => {
            let each = prefixes
                .split([',', ';'])
                .map(|prefix| prefix.trim().to_uppercase());
            When::Postcode(each.filter(|prefix| !prefix.is_empty()).collect())
        }
        ConditionSheet::ValueOver { over } => When::ValueOver(read_amount(over)?),
        ConditionSheet::Kept { when } => when.clone(),
    })
}

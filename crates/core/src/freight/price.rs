//! What a service takes for a parcel, line by line.

use jiff::civil::Date;
use rust_decimal::Decimal;

use super::{
    Billable, Content, DiscountTier, Format, LineKind, LineRule, Offer, Parcel, Place, Quote,
    QuoteLine, Reason, Rule, Service, Tariff, What, ZonePrice,
    measured::{MG_PER_KG, Measured, Whole, as_length, as_mass, mg, um, um3},
    rule::kg_begun,
    when::Facts,
};
use crate::{
    place::Destination,
    quantity::{Currency, Mass, Money},
};

/// What is asked of a tariff.
#[derive(Debug, Clone, Copy)]
pub struct QuoteRequest<'a> {
    /// What is sent.
    pub parcel: &'a Parcel,
    /// Where to.
    pub destination: &'a Destination,
    /// On which day; a tariff's dates are not looked at where it is not known.
    pub on: Option<Date>,
    /// Which tier of the account, by its name; the tariff's own where none is named.
    pub tier: Option<&'a str>,
}

impl<'a> QuoteRequest<'a> {
    /// Asks for the studio's own account, whatever the day.
    #[must_use]
    pub const fn now(parcel: &'a Parcel, destination: &'a Destination) -> Self {
        Self {
            parcel,
            destination,
            on: None,
            tier: None,
        }
    }
}

/// One service on the way to one zone, with all that does not change with size and weight.
pub(super) struct Fare<'a> {
    pub tariff: &'a Tariff,
    pub service: &'a Service,
    at: usize,
    zone: &'a str,
    parcel: &'a Parcel,
    /// In capitals.
    postcode: &'a str,
    tier: Option<(usize, &'a DiscountTier)>,
}

/// A line before it is written out.
pub(super) struct Line<'a> {
    kind: LineKind,
    name: &'a str,
    place: Place,
    by: By<'a>,
    amount: Decimal,
}

#[derive(Clone, Copy)]
enum By<'a> {
    Step(Mass),
    Format(&'a str, Mass),
    Further(Whole),
    Rule(&'a Rule),
    Tier(&'a DiscountTier),
    Percent(Decimal),
    Cover(u32, Decimal),
}

/// What is taken by weight: the step, and the kilograms above the last one.
#[derive(Clone, Copy)]
struct ByWeight {
    step: usize,
    up_to: Mass,
    price: Decimal,
    further: Option<(Whole, Decimal)>,
}

impl Tariff {
    /// Returns what each of its services says to a parcel, in the order of the tariff.
    #[must_use]
    pub fn quotes(&self, asked: &QuoteRequest<'_>) -> Vec<Quote> {
        let zone = self
            .zone_of(asked.destination)
            .map(|zone| zone.name.as_str());
        let postcode = asked.destination.postcode.trim().to_uppercase();
        (0..self.services.len())
            .map(|at| self.quote_in(at, asked, zone, &postcode))
            .collect()
    }

    /// Returns what one of its services says to a parcel; `None` if it has none of that id.
    #[must_use]
    pub fn quote(&self, service: &str, asked: &QuoteRequest<'_>) -> Option<Quote> {
        let at = self.services.iter().position(|known| known.id == service)?;
        let zone = self
            .zone_of(asked.destination)
            .map(|zone| zone.name.as_str());
        let postcode = asked.destination.postcode.trim().to_uppercase();
        Some(self.quote_in(at, asked, zone, &postcode))
    }

    fn quote_in(
        &self,
        at: usize,
        asked: &QuoteRequest<'_>,
        zone: Option<&str>,
        postcode: &str,
    ) -> Quote {
        let service = &self.services[at];
        let measured = Measured::of(asked.parcel, service.billable.size_step);
        let (billable, offer, bought) = match self.fare(at, asked, zone, postcode) {
            Ok(fare) => fare.said(&measured),
            Err(reason) => (
                service.billable.weighed(&measured, 0),
                Offer::Refused {
                    reasons: vec![reason],
                },
                false,
            ),
        };
        let with_cover = service.with_cover.filter(|_| bought);
        Quote {
            id: [self.id.as_str(), service.id.as_str()].join("/"),
            carrier: self.carrier.clone(),
            service: service.name.clone(),
            days_from: with_cover.map_or(service.days_from, |with| with.days_from),
            days_to: with_cover.map_or(service.days_to, |with| with.days_to),
            handover: service.handover,
            tracked: with_cover.map_or(service.tracked, |with| with.tracked),
            billable,
            offer,
            total_here: None,
            expected_loss: None,
            all_told: None,
            uncovered: None,
            cost: None,
            cover: None,
        }
    }

    /// Looks up what does not change with the size of a parcel.
    pub(super) fn fare<'a>(
        &'a self,
        at: usize,
        asked: &QuoteRequest<'a>,
        zone: Option<&'a str>,
        postcode: &'a str,
    ) -> Result<Fare<'a>, Reason> {
        if asked.on.is_some_and(|day| !self.holds_on(day)) {
            return Err(Reason::NotInForce {
                from: self.valid_from,
                to: self.valid_to,
            });
        }
        let service = &self.services[at];
        let serves = |zone: &str| {
            let to = |prices: &[ZonePrice]| prices.iter().any(|price| price.zone == zone);
            to(&service.prices) || service.formats.iter().any(|format| to(&format.prices))
        };
        let zone = zone.filter(|zone| serves(zone)).ok_or(Reason::NotServed)?;
        let tier = asked.tier.or(self.tier.as_deref());
        Ok(Fare {
            tariff: self,
            service,
            at,
            zone,
            parcel: asked.parcel,
            postcode,
            tier: self
                .discount_tiers
                .iter()
                .enumerate()
                .find(|(_, known)| Some(known.name.as_str()) == tier),
        })
    }
}

impl<'a> Fare<'a> {
    /// The weights, the price or what is against it, and whether cover is bought.
    fn said(&self, measured: &Measured) -> (Billable, Offer, bool) {
        let by = &self.service.billable;
        let volumetric = by.volumetric(measured);
        let (rules, raised) = self.applying(measured, volumetric);
        let billable = by.weighed_by(measured, volumetric, raised);
        let billed = by.billed_by(measured.mass, volumetric, raised);
        let facts = self.facts(measured, billed);
        let mut reasons = self.reasons_against(&facts);
        let lines = self.lines(&rules, &facts);
        if lines.is_empty() {
            let billable = billable.billable;
            reasons.push(match self.table() {
                Some(_) => Reason::NoPrice { billable },
                None => Reason::NoFormat,
            });
        }
        if !reasons.is_empty() {
            return (billable, Offer::Refused { reasons }, false);
        }
        let currency = &self.tariff.currency;
        let total = lines.iter().map(|line| line.amount).sum();
        let (_, covered) = self.cover(&facts);
        let bought = lines.iter().any(|line| line.kind == LineKind::Cover);
        let offer = Offer::Priced {
            zone: self.zone.to_owned(),
            lines: lines.iter().map(|line| line.written(currency)).collect(),
            total: Money::new(total, currency),
            covered: Money::new(covered, currency),
            excluded: self.excluded(&facts).map(str::to_owned).collect(),
        };
        (billable, offer, bought)
    }

    /// What it comes to; `None` if the parcel is not taken.
    pub(super) fn total(&self, measured: &Measured) -> Option<Decimal> {
        let by = &self.service.billable;
        let volumetric = by.volumetric(measured);
        let (rules, raised) = self.applying(measured, volumetric);
        let billed = by.billed_by(measured.mass, volumetric, raised);
        let facts = self.facts(measured, billed);
        if !self.reasons_against(&facts).is_empty() {
            return None;
        }
        let lines = self.lines(&rules, &facts);
        (!lines.is_empty()).then(|| lines.iter().map(|line| line.amount).sum())
    }

    pub(super) fn facts(&self, measured: &Measured, billable: Whole) -> Facts<'a> {
        Facts {
            measured: *measured,
            billable,
            shape: self.parcel.shape,
            contents: self.parcel.contents,
            zone: self.zone,
            postcode: self.postcode,
            value: self.parcel.value,
        }
    }

    pub(super) fn rules(&self) -> impl DoubleEndedIterator<Item = (Place, &'a Rule)> + use<'a> {
        let service = self.at;
        let for_all = self.tariff.rules.iter().enumerate();
        let own = self.service.rules.iter().enumerate();
        for_all
            .map(|(rule, one)| (Place::Rule { rule }, one))
            .chain(own.map(move |(rule, one)| (Place::ServiceRule { service, rule }, one)))
    }

    /// The rules that apply, in their order, and the least that they have billed.
    ///
    /// What is billed is itself something that rules ask for: the least is raised, and the rules are asked again, until nothing is
    /// raised any more. No rule lowers what another has raised, so that each is asked once more at most.
    fn applying(&self, measured: &Measured, volumetric: Whole) -> (Vec<(Place, &'a Rule)>, Whole) {
        let by = &self.service.billable;
        let mut raised = 0;
        loop {
            let billed = by.billed_by(measured.mass, volumetric, raised);
            let rules = self.applying_at(&self.facts(measured, billed));
            let minimums = rules.iter().filter_map(|(_, rule)| rule.what.minimum());
            match minimums.max() {
                Some(least) if least > raised => raised = least,
                _ => return (rules, raised),
            }
        }
    }

    fn applying_at(&self, facts: &Facts<'_>) -> Vec<(Place, &'a Rule)> {
        let mut replaced: Vec<&str> = Vec::new();
        let mut applying: Vec<(Place, &Rule)> = Vec::new();
        for (place, rule) in self.rules().rev() {
            if rule.when.holds(facts) {
                if !replaced.contains(&rule.name.as_str()) {
                    applying.push((place, rule));
                }
                // One that is itself replaced brings nothing back.
                replaced.extend(rule.replaces.iter().map(String::as_str));
            }
        }
        applying.reverse();
        applying
    }

    /// Every line, each rounded as it is written; none where nothing prices it.
    fn lines(&self, rules: &[(Place, &'a Rule)], facts: &Facts<'_>) -> Vec<Line<'a>> {
        let currency = &self.tariff.currency;
        let (measured, billed) = (&facts.measured, facts.billable);
        let mut lines = self.base(measured, billed);
        if lines.is_empty() {
            return lines;
        }
        for &(place, rule) in rules {
            let amount = match &rule.what {
                What::Percent { percent, of } => Some(share(*percent, &lines, |line| {
                    of.iter().any(|name| line.is_named(name))
                })),
                what => what.adds(measured, billed),
            };
            // Shares of shares of shares grow past every number.
            let amount = amount.map(|amount| amount.clamp(-MOST_OF_A_LINE, MOST_OF_A_LINE));
            lines.extend(amount.map(|amount| Line {
                kind: LineKind::Surcharge,
                name: &rule.name,
                place,
                by: By::Rule(rule),
                amount: currency.round(amount),
            }));
        }
        if let Some((at, tier)) = self.tier.filter(|(_, tier)| !tier.percent.is_zero()) {
            let amount = -share(tier.percent, &lines, |line| tier.of.contains(&line.kind));
            lines.push(Line {
                kind: LineKind::Discount,
                name: &tier.name,
                place: Place::Tier { tier: at },
                by: By::Tier(tier),
                amount: currency.round(amount),
            });
        }
        let percent = |kind, name, place, percent: Decimal, of: &[LineKind], lines: &[Line<'_>]| {
            (!percent.is_zero()).then(|| Line {
                kind,
                name,
                place,
                by: By::Percent(percent),
                amount: currency.round(share(percent, lines, |line| of.contains(&line.kind))),
            })
        };
        let tariff = self.tariff;
        let fuel = percent(
            LineKind::Fuel,
            "Fuel",
            Place::Fuel,
            tariff.fuel_percent,
            &tariff.fuel_on,
            &lines,
        );
        lines.extend(fuel);
        // Cover is written last, but may be taxed.
        lines.extend(self.cover(facts).0);
        let tax = percent(
            LineKind::Tax,
            "Tax",
            Place::Tax,
            tariff.tax_percent,
            &tariff.tax_on,
            &lines,
        );
        let at = lines.len()
            - usize::from(
                lines
                    .last()
                    .is_some_and(|line| line.kind == LineKind::Cover),
            );
        if let Some(tax) = tax {
            lines.insert(at, tax);
        }
        lines
    }

    /// The least of the prices that hold: the table's, and those of the formats that it goes into.
    fn base(&self, measured: &Measured, billed: Whole) -> Vec<Line<'a>> {
        let service = self.at;
        let table = of_zone(&self.service.prices, self.zone)
            .and_then(|(price, prices)| Some((None, price, by_weight(prices, billed)?)));
        let formats = self
            .service
            .formats
            .iter()
            .enumerate()
            .filter_map(|(at, format)| {
                let (price, prices) = of_zone(&format.prices, self.zone)?;
                let taken = format.takes(measured);
                Some((
                    Some((at, format)),
                    price,
                    by_weight(prices, measured.mass).filter(|_| taken)?,
                ))
            });
        let Some((format, price, by)) = table
            .into_iter()
            .chain(formats)
            .min_by_key(|(_, _, by)| by.amount())
        else {
            return Vec::new();
        };
        let step = by.step;
        let (place, name, rule) = match format {
            None => (
                Place::Step {
                    service,
                    price,
                    step,
                },
                "Base",
                By::Step(by.up_to),
            ),
            Some((format, of)) => (
                Place::FormatStep {
                    service,
                    format,
                    price,
                    step,
                },
                of.name.as_str(),
                By::Format(&of.name, by.up_to),
            ),
        };
        let currency = &self.tariff.currency;
        // Room for the rules, fuel, tax and cover.
        let mut lines = Vec::with_capacity(8);
        lines.push(Line {
            kind: LineKind::Base,
            name,
            place,
            by: rule,
            amount: currency.round(by.price),
        });
        lines.extend(by.further.map(|(count, amount)| Line {
            kind: LineKind::Further,
            name: "Further kilograms",
            place: Place::Further { service, price },
            by: By::Further(count),
            amount: currency.round(amount),
        }));
        lines
    }

    /// What its cover leaves out of a parcel.
    fn excluded(&self, facts: &Facts<'_>) -> impl Iterator<Item = &'a str> {
        let cover = &self.service.cover;
        let glass = cover.excludes_glass && self.parcel.contents.hold(Content::Glass);
        glass.then_some("glass").into_iter().chain(
            cover
                .exclusions
                .iter()
                .filter(move |one| one.when.holds(facts))
                .map(|one| one.name.as_str()),
        )
    }

    /// The line for the cover that has to be bought, if any, and what is then covered.
    fn cover(&self, facts: &Facts<'_>) -> (Option<Line<'a>>, Decimal) {
        if self.excluded(facts).next().is_some() {
            return (None, Decimal::ZERO);
        }
        let cover = &self.service.cover;
        let wanted = self.parcel.value.filter(|_| self.parcel.buys_cover);
        let wanted = wanted.unwrap_or_default().min(cover.most);
        let steps = steps_over(wanted - cover.included, cover.step);
        let line = (steps > 0).then(|| Line {
            kind: LineKind::Cover,
            name: "Cover",
            place: Place::Cover { service: self.at },
            by: By::Cover(steps, cover.included),
            amount: self
                .tariff
                .currency
                .round(cover.price_per_step * Decimal::from(steps)),
        });
        let covered = (cover.included + cover.step * Decimal::from(steps)).min(cover.most);
        (line, covered)
    }

    /// What is against a parcel, by what is billed once everything is raised.
    fn reasons_against(&self, facts: &Facts<'_>) -> Vec<Reason> {
        let limits = self.service.limits;
        let measured = &facts.measured;
        let [longest, second, _] = measured.sides;
        let around = longest + measured.girth();
        let mut reasons = Vec::new();
        if measured.mass > mg(limits.mass) {
            reasons.push(Reason::TooHeavy {
                mass: as_mass(measured.mass),
                most: limits.mass,
            });
        }
        if longest > um(limits.longest) {
            reasons.push(Reason::TooLong {
                longest: as_length(longest),
                most: limits.longest,
            });
        }
        if let Some(most) = limits.second.filter(|most| second > um(*most)) {
            reasons.push(Reason::TooWide {
                second: as_length(second),
                most,
            });
        }
        if around > um(limits.length_plus_girth) {
            reasons.push(Reason::TooLarge {
                length_plus_girth: as_length(around),
                most: limits.length_plus_girth,
            });
        }
        if self.parcel.contents.hold(Content::Glass) && !limits.glass {
            reasons.push(Reason::GlassRefused);
        }
        let refused = self.service.refuses.iter();
        reasons.extend(
            refused
                .filter(|one| one.when.holds(facts))
                .map(|one| Reason::Excluded {
                    name: one.name.clone(),
                }),
        );
        reasons
    }

    /// The prices by what is billed, where the table has some for this zone.
    pub(super) fn table(&self) -> Option<&'a ZonePrice> {
        of_zone(&self.service.prices, self.zone).map(|(_, prices)| prices)
    }

    /// The prices of the formats that go to this zone.
    pub(super) fn formats(&self) -> impl Iterator<Item = (&'a Format, &'a ZonePrice)> {
        let zone = self.zone;
        self.service
            .formats
            .iter()
            .filter_map(move |format| Some((format, of_zone(&format.prices, zone)?.1)))
    }

    /// Where anything changes that goes by size or weight, kilograms above a table and by the kilogram apart.
    pub(super) fn thresholds(&self) -> Vec<(super::Gauge, Whole)> {
        use super::Gauge::{Billable, LengthPlusGirth, Longest, Mass, Second, Shortest, Volume};
        let service = self.service;
        let limits = service.limits;
        let mut found = vec![
            (Billable, HEAVIEST_BILLED),
            (Mass, HEAVIEST_BILLED),
            (Mass, mg(limits.mass)),
            (Longest, um(limits.longest)),
            (LengthPlusGirth, um(limits.length_plus_girth)),
        ];
        found.extend(limits.second.map(|most| (Second, um(most))));
        found.extend(
            service
                .billable
                .volumetric_above
                .map(|above| (Volume, um3(above))),
        );
        for when in service.refuses.iter().map(|one| &one.when) {
            when.thresholds(&mut found);
        }
        for when in service.cover.exclusions.iter().map(|one| &one.when) {
            when.thresholds(&mut found);
        }
        for (_, rule) in self.rules() {
            rule.when.thresholds(&mut found);
            rule.what.thresholds(&mut found);
        }
        let steps = self.table().into_iter().flat_map(|prices| &prices.steps);
        found.extend(steps.map(|step| (Billable, mg(step.up_to))));
        for (format, prices) in self.formats() {
            found.push((Longest, um(format.length)));
            found.push((Second, um(format.width)));
            found.push((Shortest, um(format.height)));
            found.extend(prices.steps.iter().map(|step| (Mass, mg(step.up_to))));
        }
        found
    }
}

impl Format {
    fn takes(&self, measured: &Measured) -> bool {
        let room = [self.length, self.width, self.height].map(um);
        measured
            .sides
            .iter()
            .zip(room)
            .all(|(side, room)| *side <= room)
    }
}

impl ByWeight {
    fn amount(&self) -> Decimal {
        self.price + self.further.map_or(Decimal::ZERO, |(_, amount)| amount)
    }
}

fn of_zone<'a>(prices: &'a [ZonePrice], zone: &str) -> Option<(usize, &'a ZonePrice)> {
    prices
        .iter()
        .enumerate()
        .find(|(_, price)| price.zone == zone)
}

/// What a table takes for a weight; `None` if that is over the last step and no further kilograms are sold.
fn by_weight(prices: &ZonePrice, weight: Whole) -> Option<ByWeight> {
    if weight > HEAVIEST_BILLED {
        return None;
    }
    if let Some((step, found)) = prices
        .steps
        .iter()
        .enumerate()
        .find(|(_, step)| weight <= mg(step.up_to))
    {
        return Some(ByWeight {
            step,
            up_to: found.up_to,
            price: found.price,
            further: None,
        });
    }
    let (last, per_kg) = (prices.steps.last()?, prices.per_further_kg?);
    let count = kg_begun(weight - mg(last.up_to));
    Some(ByWeight {
        step: prices.steps.len() - 1,
        up_to: last.up_to,
        price: last.price,
        further: Some((count, per_kg * Decimal::from_i128_with_scale(count, 0))),
    })
}

/// The weights above a table's last step at which a further kilogram begins, up to one.
pub(super) fn further_kg(prices: &ZonePrice, most: Whole) -> impl Iterator<Item = Whole> {
    let last = prices
        .steps
        .last()
        .filter(|_| prices.per_further_kg.is_some());
    let last = last.map(|last| mg(last.up_to));
    last.into_iter()
        .flat_map(move |last| (0..).map(move |count| last + count * MG_PER_KG))
        .take_while(move |weight| *weight <= most)
}

/// No line comes to more.
const MOST_OF_A_LINE: Decimal = Decimal::from_parts(1_000_000_000, 0, 0, false, 0);
/// Nothing that is billed as more is a parcel.
pub(super) const HEAVIEST_BILLED: Whole = 20_000 * MG_PER_KG;

/// A share of the lines that are meant.
fn share(percent: Decimal, lines: &[Line<'_>], meant: impl Fn(&Line<'_>) -> bool) -> Decimal {
    let sum: Decimal = lines
        .iter()
        .filter(|line| meant(line))
        .map(|line| line.amount)
        .sum();
    // Two more places after the point are a hundredth, without a division.
    let mut hundredth = percent;
    match hundredth.set_scale(percent.scale() + 2) {
        Ok(()) => sum * hundredth,
        Err(_) => sum * percent / Decimal::ONE_HUNDRED,
    }
}

/// Returns how many steps cover an amount.
fn steps_over(amount: Decimal, step: Decimal) -> u32 {
    if amount <= Decimal::ZERO || step <= Decimal::ZERO {
        return 0;
    }
    // Both in the same smallest part, which is divided as whole numbers where it fits.
    let scale = amount.scale().max(step.scale());
    let parts = |sum: Decimal| {
        let factor = 10_u64.checked_pow(scale - sum.scale())?;
        u64::try_from(sum.mantissa()).ok()?.checked_mul(factor)
    };
    if let (Some(amount), Some(step)) = (parts(amount), parts(step)) {
        return u32::try_from(amount.div_ceil(step)).unwrap_or(u32::MAX);
    }
    let steps = amount.checked_div(step).map(|steps| steps.ceil());
    steps
        .and_then(|steps| u32::try_from(steps).ok())
        .unwrap_or(u32::MAX)
}

impl Line<'_> {
    /// Whether a rule that names lines means this one.
    fn is_named(&self, name: &str) -> bool {
        match name {
            "base" => matches!(self.kind, LineKind::Base | LineKind::Further),
            "surcharge" => self.kind == LineKind::Surcharge,
            _ => self.kind == LineKind::Surcharge && self.name == name,
        }
    }

    fn written(&self, currency: &Currency) -> QuoteLine {
        let count = |whole: Whole| u32::try_from(whole).unwrap_or(u32::MAX);
        let rule = match self.by {
            By::Step(up_to) => LineRule::Step { up_to },
            By::Format(format, up_to) => LineRule::Format {
                format: format.to_owned(),
                up_to,
            },
            By::Further(kg) => LineRule::Further {
                count_kg: count(kg),
            },
            By::Rule(Rule {
                when,
                what: What::Sum { .. },
                ..
            }) => LineRule::Surcharge { when: when.clone() },
            By::Rule(Rule { when, what, .. }) => LineRule::Ruled {
                when: when.clone(),
                what: what.clone(),
            },
            By::Tier(tier) => LineRule::Tier {
                tier: tier.name.clone(),
                percent: tier.percent,
            },
            By::Percent(percent) => LineRule::Percent { percent },
            By::Cover(steps, included) => LineRule::Cover {
                steps,
                included: Money::new(included, currency),
            },
        };
        QuoteLine {
            kind: self.kind,
            name: self.name.to_owned(),
            rule,
            place: self.place,
            amount: Money {
                amount: self.amount,
                currency: *currency,
            },
        }
    }
}

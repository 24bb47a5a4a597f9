//! A tariff looked over as a whole before it is taken, with the place of whatever is wrong in it; and where it has a dip, so
//! that more costs less.

use std::collections::BTreeSet;

use rust_decimal::Decimal;
use serde::Serialize;

use super::{
    Collection, LineKind, Rule, Service, Tariff, What, When, Zone, ZonePrice, measured::mg,
    zone::parted,
};
use crate::{
    Refusal, Refusals,
    quantity::{Currency, Length},
    refusal::Span,
};

/// A place in a tariff where more may cost less.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Dip {
    /// Where, as `services/0/prices/1/steps/2`.
    pub place: String,
    /// What is odd there.
    pub says: String,
}

const PERCENT: Decimal = Decimal::ONE_HUNDRED;
/// Nothing that is carried costs as much.
const MOST_MONEY: Decimal = Decimal::from_parts(1_000_000_000, 0, 0, false, 0);
/// Of a price or a share.
const PLACES: u32 = 6;
/// Of cover.
const LEAST_STEP: Decimal = Decimal::ONE;
const LONGEST_NAME: usize = 80;
const LONGEST_ID: usize = 40;
const MOST_DAYS: u32 = 365;
const MOST_ROUGH: f64 = 10.0;
const DIVISORS: std::ops::RangeInclusive<f64> = 500.0..=20_000.0;
const MOST_SIDE_MM: f64 = 20_000.0;
const MOST_MASS_G: f64 = 5_000_000.0;
const MOST_SIZE_STEP_MM: f64 = 1000.0;
const MOST_WEIGHT_STEP_G: f64 = 100_000.0;
/// Of services, zones, rules, steps: more than any carrier has, few enough to be looked over.
const MOST: usize = 2000;

/// What a tariff is made of, looked over.
impl Refusals {
    fn id(&mut self, at: &str, id: &str) {
        let letters = id
            .bytes()
            .all(|byte| byte.is_ascii_lowercase() || byte.is_ascii_digit() || byte == b'-');
        self.demand(
            letters && (1..=LONGEST_ID).contains(&id.len()),
            at,
            format!("\"{id}\": write small letters, figures and hyphens, at most {LONGEST_ID}"),
        );
    }

    fn money(&mut self, at: &str, amount: Decimal) {
        self.demand(
            (Decimal::ZERO..=MOST_MONEY).contains(&amount) && amount.scale() <= PLACES,
            at,
            format!("{amount} is out of range: give an amount from 0 to {MOST_MONEY}, to {PLACES} places"),
        );
    }

    /// What is taken for each kilogram: nothing, or enough to be paid.
    fn per_kg(&mut self, at: &str, amount: Decimal, currency: &Currency) {
        self.either_way(at, amount);
        let least = Decimal::new(1, currency.decimals());
        self.demand(
            amount.is_zero() || amount.abs() >= least,
            at,
            format!(
                "{amount} is less than {least} {}, the smallest coin",
                currency.code()
            ),
        );
    }

    /// A rule may also give something back.
    fn either_way(&mut self, at: &str, amount: Decimal) {
        self.demand(
            (-MOST_MONEY..=MOST_MONEY).contains(&amount) && amount.scale() <= PLACES,
            at,
            format!(
                "{amount} is out of range: give an amount below {MOST_MONEY}, to {PLACES} places"
            ),
        );
    }

    fn percent(&mut self, at: &str, percent: Decimal) {
        self.demand(
            (Decimal::ZERO..=PERCENT).contains(&percent) && percent.scale() <= PLACES,
            at,
            format!("{percent} is out of range: give a percentage from 0 to 100"),
        );
    }

    fn few(&mut self, at: &str, count: usize) {
        self.demand(
            count <= MOST,
            at,
            format!("{count} given: at most {MOST} are allowed"),
        );
    }

    /// Every name once.
    fn once<'a>(&mut self, names: impl Iterator<Item = (String, &'a str)>, what: &str) {
        let mut seen = BTreeSet::new();
        for (at, name) in names {
            self.demand(
                seen.insert(name),
                &at,
                format!("an earlier {what} is already called \"{name}\""),
            );
        }
    }
}

impl Tariff {
    /// Looks it over as a whole.
    ///
    /// # Errors
    /// A [`Refusal`] for each thing that is wrong, with its place, as `services/0/billable/divisor_cm3_per_kg`.
    pub fn checked(&self) -> Result<(), Vec<Refusal>> {
        let mut look = Refusals::default();
        look.id("id", &self.id);
        look.named("carrier", &self.carrier, LONGEST_NAME);
        if let (Some(from), Some(to)) = (self.valid_from, self.valid_to) {
            look.demand(
                from <= to,
                "valid_to",
                format!("it ends on {to}, before it begins on {from}"),
            );
        }
        self.check_zones(&mut look);
        look.percent("fuel_percent", self.fuel_percent);
        look.percent("tax_percent", self.tax_percent);
        use LineKind::{Cover, Fuel, Tax};
        for (at, kinds, never) in [
            ("fuel_on", &self.fuel_on, &[Fuel, Tax, Cover][..]),
            ("tax_on", &self.tax_on, &[Tax][..]),
        ] {
            for (index, kind) in kinds.iter().enumerate() {
                look.demand(
                    !never.contains(kind),
                    format!("{at}/{index}"),
                    format!(
                        "{} can't be calculated from {}",
                        at.trim_end_matches("_on"),
                        kind.key()
                    ),
                );
            }
        }
        self.check_tiers(&mut look);
        check_collection(self.collection.as_ref(), "collection", &mut look);
        look.extend(self.claims.iter().flat_map(|claims| claims.refused()));
        self.check_rules(&self.rules, &[], "rules", &mut look);
        look.demand(
            !self.services.is_empty(),
            "services",
            "give at least one service",
        );
        look.few("services", self.services.len());
        look.once(
            self.services
                .iter()
                .enumerate()
                .map(|(at, service)| (format!("services/{at}/id"), service.id.as_str())),
            "service",
        );
        for (at, service) in self.services.iter().enumerate() {
            self.check_service(service, &format!("services/{at}"), &mut look);
        }
        look.or(())
    }

    fn check_zones(&self, look: &mut Refusals) {
        look.demand(!self.zones.is_empty(), "zones", "give at least one zone");
        look.few("zones", self.zones.len());
        look.once(
            self.zones
                .iter()
                .enumerate()
                .map(|(at, zone)| (format!("zones/{at}/name"), zone.name.as_str())),
            "zone",
        );
        for (at, zone) in self.zones.iter().enumerate() {
            let place = format!("zones/{at}");
            zone.check(&place, look);
            // The first zone that takes a destination is the one: what another takes whole before it is never reached.
            for before in &self.zones[..at] {
                for (index, country) in zone.countries.iter().enumerate() {
                    let whole =
                        before.postcode_prefixes.is_empty() && before.postcode_ranges.is_empty();
                    let taken = before.countries.contains(country);
                    look.demand(
                        !(whole && taken),
                        format!("{place}/countries/{index}"),
                        format!("zone \"{}\" already covers all of {country}", before.name),
                    );
                    for (index, prefix) in zone.postcode_prefixes.iter().enumerate() {
                        look.demand(
                            !(taken && before.postcode_prefixes.contains(prefix)),
                            format!("{place}/postcode_prefixes/{index}"),
                            format!("zone \"{}\" already covers \"{prefix}\"", before.name),
                        );
                    }
                }
            }
        }
    }

    fn check_tiers(&self, look: &mut Refusals) {
        look.once(
            self.discount_tiers
                .iter()
                .enumerate()
                .map(|(at, tier)| (format!("discount_tiers/{at}/name"), tier.name.as_str())),
            "tier",
        );
        for (at, tier) in self.discount_tiers.iter().enumerate() {
            let place = format!("discount_tiers/{at}");
            look.named(format!("{place}/name"), &tier.name, LONGEST_NAME);
            look.percent(&format!("{place}/percent"), tier.percent);
            for (index, kind) in tier.of.iter().enumerate() {
                use LineKind::{Base, Further, Surcharge};
                look.demand(
                    [Base, Further, Surcharge].contains(kind),
                    format!("{place}/of/{index}"),
                    format!(
                        "a discount applies to base, further or surcharge, not {}",
                        kind.key()
                    ),
                );
            }
        }
        if let Some(tier) = &self.tier {
            look.demand(
                self.discount_tiers.iter().any(|known| known.name == *tier),
                "tier",
                format!("discount_tiers has no tier \"{tier}\""),
            );
        }
    }

    fn check_service(&self, service: &Service, at: &str, look: &mut Refusals) {
        look.id(&format!("{at}/id"), &service.id);
        look.named(format!("{at}/name"), &service.name, LONGEST_NAME);
        check_days(service.days_from, service.days_to, at, look);
        if let Some(with) = service.with_cover {
            check_days(
                with.days_from,
                with.days_to,
                &format!("{at}/with_cover"),
                look,
            );
        }
        check_collection(
            service.collection.as_ref(),
            &format!("{at}/collection"),
            look,
        );
        look.number(
            format!("{at}/roughness"),
            service.roughness,
            Span::new(0.0, MOST_ROUGH, ""),
        );
        let by = &service.billable;
        look.number(
            format!("{at}/billable/divisor_cm3_per_kg"),
            by.divisor_cm3_per_kg,
            Span::new(*DIVISORS.start(), *DIVISORS.end(), "cm³ per kg"),
        );
        look.number(
            format!("{at}/billable/size_step_mm"),
            by.size_step.as_mm(),
            Span::new(0.0, MOST_SIZE_STEP_MM, "mm"),
        );
        for (field, mass) in [("weight_step_g", by.weight_step), ("minimum_g", by.minimum)] {
            look.number(
                format!("{at}/billable/{field}"),
                mass.as_g(),
                Span::new(0.0, MOST_WEIGHT_STEP_G, "g"),
            );
        }
        let limits = service.limits;
        look.number(
            format!("{at}/limits/mass_g"),
            limits.mass.as_g(),
            Span::new(1.0, MOST_MASS_G, "g"),
        );
        let sides = [
            ("longest_mm", Some(limits.longest)),
            ("second_mm", limits.second),
            ("length_plus_girth_mm", Some(limits.length_plus_girth)),
        ];
        for (field, side) in sides {
            if let Some(side) = side {
                look.number(
                    format!("{at}/limits/{field}"),
                    side.as_mm(),
                    Span::new(1.0, 3.0 * MOST_SIDE_MM, "mm"),
                );
            }
        }
        for (index, refuses) in service.refuses.iter().enumerate() {
            let place = format!("{at}/refuses/{index}");
            look.named(format!("{place}/name"), &refuses.name, LONGEST_NAME);
            self.check_when(&refuses.when, &format!("{place}/when"), look);
        }
        look.demand(
            !service.prices.is_empty() || !service.formats.is_empty(),
            format!("{at}/prices"),
            "give prices by weight, or formats",
        );
        self.check_prices(&service.prices, &format!("{at}/prices"), look);
        for (index, format) in service.formats.iter().enumerate() {
            let place = format!("{at}/formats/{index}");
            look.named(format!("{place}/name"), &format.name, LONGEST_NAME);
            let sides = [
                ("length_mm", format.length),
                ("width_mm", format.width),
                ("height_mm", format.height),
            ];
            let mut most = Length::mm(MOST_SIDE_MM);
            for (field, side) in sides {
                look.number(
                    format!("{place}/{field}"),
                    side.as_mm(),
                    Span::new(1.0, most.as_mm(), "mm"),
                );
                most = side;
            }
            self.check_prices(&format.prices, &format!("{place}/prices"), look);
        }
        self.check_rules(&service.rules, &self.rules, &format!("{at}/rules"), look);
        self.check_cover(service, at, look);
    }

    fn check_cover(&self, service: &Service, at: &str, look: &mut Refusals) {
        let cover = &service.cover;
        let place = format!("{at}/cover");
        for (field, amount) in [
            ("included", cover.included),
            ("step", cover.step),
            ("price_per_step", cover.price_per_step),
            ("most", cover.most),
        ] {
            look.money(&format!("{place}/{field}"), amount);
        }
        look.demand(
            cover.included <= cover.most,
            format!("{place}/most"),
            format!(
                "{} is less than the {} included",
                cover.most, cover.included
            ),
        );
        look.demand(
            if cover.most > cover.included {
                cover.step >= LEAST_STEP
            } else {
                cover.step.is_zero() || cover.step >= LEAST_STEP
            },
            format!("{place}/step"),
            format!("cover beyond the included sum is sold in steps: give the size of a step, at least {LEAST_STEP}"),
        );
        for (index, exclusion) in cover.exclusions.iter().enumerate() {
            let place = format!("{place}/exclusions/{index}");
            look.named(format!("{place}/name"), &exclusion.name, LONGEST_NAME);
            self.check_when(&exclusion.when, &format!("{place}/when"), look);
        }
    }

    fn check_prices(&self, prices: &[ZonePrice], at: &str, look: &mut Refusals) {
        look.few(at, prices.len());
        look.once(
            prices
                .iter()
                .enumerate()
                .map(|(index, price)| (format!("{at}/{index}/zone"), price.zone.as_str())),
            "price for zone",
        );
        for (index, price) in prices.iter().enumerate() {
            let place = format!("{at}/{index}");
            self.check_zone(&price.zone, &format!("{place}/zone"), look);
            look.demand(
                !price.steps.is_empty(),
                format!("{place}/steps"),
                "give at least one step",
            );
            look.few(&format!("{place}/steps"), price.steps.len());
            let mut before = 0;
            for (index, step) in price.steps.iter().enumerate() {
                let place = format!("{place}/steps/{index}");
                look.number(
                    format!("{place}/up_to_g"),
                    step.up_to.as_g(),
                    Span::new(1.0, MOST_MASS_G, "g"),
                );
                look.demand(
                    mg(step.up_to) > before,
                    format!("{place}/up_to_g"),
                    format!(
                        "{} g is not more than the step before: list the lightest first",
                        step.up_to.as_g()
                    ),
                );
                before = mg(step.up_to);
                look.money(&format!("{place}/price"), step.price);
            }
            if let Some(per_kg) = price.per_further_kg {
                let at = format!("{place}/per_further_kg");
                look.money(&at, per_kg);
                look.per_kg(&at, per_kg, &self.currency);
            }
        }
    }

    fn check_zone(&self, zone: &str, at: &str, look: &mut Refusals) {
        look.demand(
            self.zones.iter().any(|known| known.name == zone),
            at,
            format!("zone \"{zone}\" doesn't exist"),
        );
    }

    fn check_rules(&self, rules: &[Rule], before: &[Rule], at: &str, look: &mut Refusals) {
        look.few(at, rules.len());
        let mut known: Vec<&str> = before.iter().map(|rule| rule.name.as_str()).collect();
        for (index, rule) in rules.iter().enumerate() {
            let place = format!("{at}/{index}");
            look.named(format!("{place}/name"), &rule.name, LONGEST_NAME);
            look.demand(
                !known.contains(&rule.name.as_str()),
                format!("{place}/name"),
                format!("an earlier rule is already called \"{}\"", rule.name),
            );
            self.check_when(&rule.when, &format!("{place}/when"), look);
            let named = format!("{place}/what");
            match &rule.what {
                What::Sum { price } => look.either_way(&format!("{named}/price"), *price),
                What::PerKg { price, .. } => {
                    look.per_kg(&format!("{named}/price"), *price, &self.currency);
                }
                What::Percent { percent, of } => {
                    look.demand(
                        (-PERCENT..=Decimal::ONE_THOUSAND).contains(percent)
                            && percent.scale() <= PLACES,
                        format!("{named}/percent"),
                        format!("{percent} is out of range: give a percentage from -100 to 1000"),
                    );
                    look.demand(
                        !of.is_empty(),
                        format!("{named}/of"),
                        "list the lines it is a share of",
                    );
                    for (index, name) in of.iter().enumerate() {
                        look.demand(
                            ["base", "surcharge"].contains(&name.as_str())
                                || known.contains(&name.as_str()),
                            format!("{named}/of/{index}"),
                            format!("\"{name}\" is not base, surcharge or an earlier rule"),
                        );
                    }
                }
                What::Minimum { billable } => {
                    look.number(
                        format!("{named}/billable_g"),
                        billable.as_g(),
                        Span::new(1.0, MOST_MASS_G, "g"),
                    );
                }
                What::Steps { by, steps } => {
                    look.demand(
                        !steps.is_empty(),
                        format!("{named}/steps"),
                        "give at least one step",
                    );
                    look.few(&format!("{named}/steps"), steps.len());
                    let mut before = -1;
                    for (index, step) in steps.iter().enumerate() {
                        let place = format!("{named}/steps/{index}");
                        look.number(
                            format!("{place}/over"),
                            step.over,
                            Span::new(0.0, MOST_MASS_G, ""),
                        );
                        let over = if step.over.is_finite() {
                            by.whole(step.over)
                        } else {
                            0
                        };
                        look.demand(
                            over > before,
                            format!("{place}/over"),
                            format!(
                                "{} is not more than the step before: list the smallest first",
                                step.over
                            ),
                        );
                        before = over;
                        look.either_way(&format!("{place}/price"), step.price);
                    }
                }
            }
            for (index, name) in rule.replaces.iter().enumerate() {
                look.demand(
                    known.contains(&name.as_str()),
                    format!("{place}/replaces/{index}"),
                    format!("\"{name}\" is not an earlier rule"),
                );
            }
            known.push(&rule.name);
        }
    }

    fn check_when(&self, when: &When, at: &str, look: &mut Refusals) {
        if when.depth() > DEEPEST {
            look.refuse(
                at,
                format!("conditions are nested more than {DEEPEST} deep"),
            );
            return;
        }
        let mut each = Vec::new();
        when.each(at, &mut each);
        look.demand(!each.is_empty(), at, "say which conditions");
        look.few(at, each.len());
        for (place, when) in each {
            let some = match when {
                When::Shape(is) => !is.is_empty(),
                When::Contents(any_of) | When::Without(any_of) => !any_of.is_empty(),
                When::Postcode(prefixes) => {
                    check_prefixes(prefixes, &format!("{place}/prefixes"), look);
                    !prefixes.is_empty()
                }
                When::Zone(is) => {
                    for (index, zone) in is.iter().enumerate() {
                        self.check_zone(zone, &format!("{place}/is/{index}"), look);
                    }
                    !is.is_empty()
                }
                When::ValueOver(over) => {
                    look.money(&format!("{place}/over"), *over);
                    true
                }
                When::Over(over) => {
                    look.demand(over.whole() >= 0, &place, "give a number from 0");
                    true
                }
                When::Always | When::Glass | When::All(_) | When::Any(_) => true,
            };
            look.demand(some, &place, "give at least one");
        }
    }

    /// Returns every place where more may cost less, judged by the tariff alone: prices that fall, rules that take something
    /// off as a parcel grows, and rules that take the place of dearer ones.
    #[must_use]
    pub fn dips(&self) -> Vec<Dip> {
        let mut dips = Vec::new();
        let mut falls = |place: String, says: String| dips.push(Dip { place, says });
        for (at, service) in self.services.iter().enumerate() {
            let tables = std::iter::once((format!("services/{at}/prices"), &service.prices)).chain(
                service.formats.iter().enumerate().map(|(index, format)| {
                    (
                        format!("services/{at}/formats/{index}/prices"),
                        &format.prices,
                    )
                }),
            );
            for (place, prices) in tables {
                for (index, price) in prices.iter().enumerate() {
                    for (step, pair) in price.steps.windows(2).enumerate() {
                        if pair[1].price < pair[0].price {
                            falls(
                                format!("{place}/{index}/steps/{}", step + 1),
                                format!(
                                    "{}: {} g costs {}, less than the {} for {} g",
                                    price.zone,
                                    pair[1].up_to.as_g(),
                                    pair[1].price,
                                    pair[0].price,
                                    pair[0].up_to.as_g()
                                ),
                            );
                        }
                    }
                }
            }
            if service.cover.price_per_step > Decimal::ZERO {
                for (index, exclusion) in service.cover.exclusions.iter().enumerate() {
                    if exclusion.when.grows() {
                        falls(
                            format!("services/{at}/cover/exclusions/{index}"),
                            format!(
                                "\"{}\" is not covered, so a larger parcel would pay less for cover",
                                exclusion.name
                            ),
                        );
                    }
                }
            }
            let own = service.rules.iter().enumerate();
            let all: Vec<(String, &Rule)> = self
                .rules
                .iter()
                .enumerate()
                .map(|(index, rule)| (format!("rules/{index}"), rule))
                .chain(own.map(|(index, rule)| (format!("services/{at}/rules/{index}"), rule)))
                .collect();
            let mut before: Vec<Gone> = Vec::with_capacity(all.len());
            for (index, (place, rule)) in all.iter().enumerate() {
                before.push(Gone::by(rule, &all[..index], &before));
                // Those for every service are told once.
                let told = at > 0 && place.starts_with("rules/") && rule.replaces.is_empty();
                if let Some(says) = rule.dip(&all, &before[index]).filter(|_| !told) {
                    falls(place.clone(), says);
                }
            }
        }
        dips.dedup();
        dips
    }
}

const DEEPEST: usize = 8;

impl When {
    fn depth(&self) -> usize {
        let within = self.of().unwrap_or_default().iter().map(Self::depth);
        1 + within.max().unwrap_or_default()
    }

    /// Whether a larger or heavier parcel may come under it.
    fn grows(&self) -> bool {
        let mut found = Vec::new();
        self.thresholds(&mut found);
        !found.is_empty()
    }
}

/// What is not paid where a rule holds.
struct Gone {
    /// The rules that it replaces, and those that they replace, by where they stand.
    rules: BTreeSet<usize>,
    /// The most that may have been paid in their place; `None` where one of them is no sum.
    sum: Option<Decimal>,
    /// The most that may have been paid up to this rule, it among them.
    with_it: Option<Decimal>,
}

impl Gone {
    /// Returns what goes where a rule applies; `gone` says the same of every rule before it.
    fn by(rule: &Rule, before: &[(String, &Rule)], gone: &[Self]) -> Self {
        let replaced = before.iter().enumerate();
        let replaced = replaced.filter(|(_, (_, other))| rule.replaces.contains(&other.name));
        let mut rules = BTreeSet::new();
        let mut sum = Some(Decimal::ZERO);
        for (index, _) in replaced {
            rules.insert(index);
            rules.extend(&gone[index].rules);
            sum = sum.zip(gone[index].with_it).map(|(sum, one)| sum + one);
        }
        let with_it = rule.sum().zip(sum).map(|(own, sum)| own.max(sum));
        Self {
            rules,
            sum,
            with_it,
        }
    }
}

impl Rule {
    /// Says where it may make more cost less, by all rules of its service and those that it takes the place of.
    fn dip(&self, all: &[(String, &Self)], gone: &Gone) -> Option<String> {
        let name = &self.name;
        let gives = match &self.what {
            What::Sum { price } => *price < Decimal::ZERO && self.when.grows(),
            What::PerKg { price, .. } => *price < Decimal::ZERO,
            What::Percent { percent, .. } => *percent < Decimal::ZERO && self.when.grows(),
            What::Minimum { .. } => false,
            What::Steps { steps, .. } => {
                steps[..]
                    .first()
                    .is_some_and(|step| step.price < Decimal::ZERO)
                    || steps.windows(2).any(|pair| pair[1].price < pair[0].price)
            }
        };
        if gives {
            return Some(format!("\"{name}\" makes a larger parcel cheaper"));
        }
        // A share of lines that may themselves be negative grows with what they take off.
        if let What::Percent { of, .. } = &self.what {
            let negative = all.iter().any(|(_, other)| {
                (of.contains(&other.name) || of.iter().any(|name| name == "surcharge"))
                    && other.may_be_negative()
            });
            if negative {
                return Some(format!("\"{name}\" is a share of a deduction"));
            }
        }
        if self.replaces.is_empty() || !self.when.grows() {
            return None;
        }
        let replaced: Vec<&Self> = gone.rules.iter().map(|index| all[*index].1).collect();
        // A share of what is replaced goes with it, unless it is of the new one too.
        let shared = all.iter().any(|(_, other)| match &other.what {
            What::Percent { of, .. } => {
                replaced.iter().any(|rule| of.contains(&rule.name)) && !of.contains(&self.name)
            }
            _ => false,
        });
        let dearer =
            |now, before| now >= before && replaced.iter().all(|rule| !rule.may_be_negative());
        match (self.sum(), gone.sum) {
            (Some(now), Some(before)) if !shared && dearer(now, before) => None,
            _ => Some(format!(
                "\"{name}\" replaces {}, which may have cost more",
                self.replaces.join(", ")
            )),
        }
    }

    fn sum(&self) -> Option<Decimal> {
        match self.what {
            What::Sum { price } => Some(price),
            What::PerKg { .. }
            | What::Percent { .. }
            | What::Steps { .. }
            | What::Minimum { .. } => None,
        }
    }

    fn may_be_negative(&self) -> bool {
        match &self.what {
            What::Sum { price } | What::PerKg { price, .. } => *price < Decimal::ZERO,
            What::Percent { percent, .. } => *percent < Decimal::ZERO,
            What::Minimum { .. } => false,
            What::Steps { steps, .. } => steps.iter().any(|step| step.price < Decimal::ZERO),
        }
    }
}

impl Zone {
    fn check(&self, at: &str, look: &mut Refusals) {
        look.named(format!("{at}/name"), &self.name, LONGEST_NAME);
        look.demand(
            !self.countries.is_empty(),
            format!("{at}/countries"),
            "give at least one country",
        );
        for (index, country) in self.countries.iter().enumerate() {
            look.demand(
                country.len() == 2 && country.bytes().all(|byte| byte.is_ascii_uppercase()),
                format!("{at}/countries/{index}"),
                format!("\"{country}\" is not a country code: write two capital letters"),
            );
        }
        look.few(
            &format!("{at}/postcode_prefixes"),
            self.postcode_prefixes.len(),
        );
        check_prefixes(
            &self.postcode_prefixes,
            &format!("{at}/postcode_prefixes"),
            look,
        );
        look.few(&format!("{at}/postcode_ranges"), self.postcode_ranges.len());
        for (index, range) in self.postcode_ranges.iter().enumerate() {
            let (from_letters, from) = parted(&range.from);
            let (to_letters, to) = parted(&range.to);
            let number = |text: &str| text.parse::<u64>().ok();
            let place = format!("{at}/postcode_ranges/{index}");
            let whole = |code: &str, letters: &str, figures: &str| {
                !figures.is_empty()
                    && code.len() == letters.len() + figures.len()
                    && letters.chars().all(char::is_uppercase)
            };
            look.demand(
                whole(&range.from, from_letters, from)
                    && whole(&range.to, to_letters, to)
                    && from_letters == to_letters,
                &place,
                format!(
                    "\"{}\" to \"{}\": begin both with the same letters, as in PO30 to PO41",
                    range.from, range.to
                ),
            );
            look.demand(
                from.len() <= to.len() && number(from) <= number(to) && number(to).is_some(),
                &place,
                format!("\"{}\" comes after \"{}\"", range.from, range.to),
            );
        }
    }
}

fn check_prefixes(prefixes: &[String], at: &str, look: &mut Refusals) {
    for (index, prefix) in prefixes.iter().enumerate() {
        let open = prefix.strip_suffix('*').unwrap_or(prefix);
        look.demand(
            !open.is_empty() && open.chars().all(|c| c.is_uppercase() || c.is_ascii_digit() || c == ' ' || c == '-'),
            format!("{at}/{index}"),
            format!("\"{prefix}\": use capital letters and digits; end with * to match every code that begins with it"),
        );
    }
}

fn check_days(from: u32, to: u32, at: &str, look: &mut Refusals) {
    look.demand(
        from <= to && to <= MOST_DAYS,
        format!("{at}/days_to"),
        format!("{from} to {to} days: give the shorter time first, and at most {MOST_DAYS} days"),
    );
}

fn check_collection(collection: Option<&Collection>, at: &str, look: &mut Refusals) {
    if let Some(collection) = collection {
        look.demand(
            !collection.days.is_empty(),
            format!("{at}/days"),
            "choose the days on which the carrier collects",
        );
    }
}

#[cfg(test)]
mod tests;

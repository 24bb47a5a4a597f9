//! Laws of tariffs: over any tables, rules, formats, discounts and currencies, and parcels of any shape and side.

use hummock_core::{
    freight::{
        Along, BillableBy, Content, Contents, Cover, DiscountTier, Exclusion, Format, Gauge,
        Handover, Limits, LineKind, Offer, Over, OverStep, Parcel, PerKgOf, Place, Quote,
        QuoteLine, QuoteRequest, Reason, Refuses, Rule, Service, Shape, Tariff, TariffSheet,
        WeightStep, What, When, Zone, ZonePrice,
    },
    place::Destination,
    quantity::{Currency, DecimalMark, Length, LengthUnit, Mass, MassUnit, Telling, Volume},
    space::Envelope,
};
use proptest::{collection::vec, prelude::*, sample::select, test_runner::TestCaseError};
use rust_decimal::{Decimal, prelude::ToPrimitive as _};

const HERE: &str = "Here";

fn cents(range: std::ops::Range<i64>) -> impl Strategy<Value = Decimal> {
    range.prop_map(|cents| Decimal::new(cents, 2))
}

fn mm(range: std::ops::Range<u32>) -> impl Strategy<Value = Length> {
    range.prop_map(|whole| Length::mm(f64::from(whole)))
}

/// Whole tens of grams.
fn grams(range: std::ops::Range<u32>) -> impl Strategy<Value = Mass> {
    range.prop_map(|tens| Mass::g(f64::from(tens) * 10.0))
}

/// That a measure is over a number of its unit, from nothing to more than most parcels have.
fn over() -> impl Strategy<Value = When> {
    (select(Gauge::ALL.to_vec()), 0_u32..1000).prop_map(|(gauge, thousandths)| {
        let most = match gauge {
            Gauge::Longest | Gauge::Second | Gauge::Shortest => 450.0,
            Gauge::Girth | Gauge::LengthPlusGirth => 1200.0,
            Gauge::Volume => 0.05,
            Gauge::Mass | Gauge::Billable => 9000.0,
        };
        When::Over(Over {
            gauge,
            number: most * f64::from(thousandths) / 1000.0,
        })
    })
}

fn one_condition() -> impl Strategy<Value = When> {
    prop_oneof![
        1 => Just(When::Always),
        8 => over(),
        1 => Just(When::Glass),
        1 => select(vec![Shape::Rectangular, Shape::Tube, Shape::Triangular]).prop_map(|shape| When::Shape(vec![shape])),
        1 => select(Content::ALL.to_vec()).prop_map(|content| When::Contents(vec![content])),
        1 => select(Content::ALL.to_vec()).prop_map(|content| When::Without(vec![content])),
        1 => Just(When::Zone(vec![HERE.to_owned()])),
        1 => select(vec!["NQ", "NQ1", "TB"]).prop_map(|prefix| When::Postcode(vec![prefix.to_owned()])),
        1 => cents(0..90_000).prop_map(When::ValueOver),
    ]
}

fn condition() -> impl Strategy<Value = When> {
    prop_oneof![
        3 => one_condition(),
        1 => vec(one_condition(), 1..4).prop_map(When::All),
        1 => vec(one_condition(), 1..4).prop_map(When::Any),
    ]
}

const GAUGES: [Gauge; 4] = [Gauge::Longest, Gauge::Girth, Gauge::Mass, Gauge::Billable];

/// What a rule does; `odd` ones may take something off.
fn effect(odd: bool) -> impl Strategy<Value = What> {
    let least = if odd { -400 } else { 0 };
    let steps = (
        select(&GAUGES[..]),
        vec((20_u32..900, least..2000_i64), 1..4),
    );
    prop_oneof![
        3 => cents(least..2000).prop_map(|price| What::Sum { price }),
        1 => (cents(least..100), any::<bool>()).prop_map(|(price, actual)| What::PerKg {
            price,
            of: if actual { PerKgOf::Actual } else { PerKgOf::Billable },
        }),
        1 => cents(least..3000).prop_map(|percent| What::Percent {
            percent,
            of: vec!["base".to_owned(), "surcharge".to_owned()],
        }),
        1 => grams(1..700).prop_map(|billable| What::Minimum { billable }),
        1 => steps.prop_map(move |(by, mut steps)| {
            steps.sort_unstable();
            steps.dedup_by_key(|(over, _)| *over);
            let mut prices: Vec<i64> = steps.iter().map(|(_, price)| *price).collect();
            if !odd {
                prices.sort_unstable();
            }
            let scale = if matches!(by, Gauge::Mass | Gauge::Billable) { 10.0 } else { 1.0 };
            let step = |((over, _), price): (&(u32, i64), i64)| OverStep {
                over: f64::from(*over) * scale,
                price: Decimal::new(price, 2),
            };
            What::Steps { by, steps: steps.iter().zip(prices).map(step).collect() }
        }),
    ]
}

fn rules(odd: bool) -> impl Strategy<Value = Vec<Rule>> {
    vec(
        (
            condition(),
            effect(odd),
            any::<prop::sample::Index>(),
            any::<bool>(),
        ),
        0..5,
    )
    .prop_map(move |found| {
        let mut rules: Vec<Rule> = Vec::new();
        for (at, (when, what, other, replaces)) in found.into_iter().enumerate() {
            let replaces = match at {
                0 => vec![],
                _ if odd && replaces => vec![rules[other.index(at)].name.clone()],
                _ => vec![],
            };
            let name = format!("Rule {at}");
            rules.push(Rule {
                name,
                when,
                what,
                replaces,
            });
        }
        rules
    })
}

/// What a service does not take, or cover; in an odd tariff.
fn exceptions(odd: bool) -> impl Strategy<Value = Vec<(String, When)>> {
    vec(over(), 0..=if odd { 2 } else { 0 }).prop_map(|found| {
        let named = found.into_iter().enumerate();
        named
            .map(|(at, when)| (format!("Exception {at}"), when))
            .collect()
    })
}

fn table(odd: bool) -> impl Strategy<Value = ZonePrice> {
    (
        vec((1_u32..1200, 100_i64..4000), 1..6),
        proptest::option::of(cents(0..300)),
    )
        .prop_map(move |(mut steps, per_further_kg)| {
            steps.sort_unstable();
            steps.dedup_by_key(|(up_to, _)| *up_to);
            let mut prices: Vec<i64> = steps.iter().map(|(_, price)| *price).collect();
            if !odd {
                prices.sort_unstable();
            }
            let step = |((up_to, _), price): (&(u32, i64), i64)| WeightStep {
                up_to: Mass::g(f64::from(*up_to) * 10.0),
                price: Decimal::new(price, 2),
            };
            ZonePrice {
                zone: HERE.to_owned(),
                steps: steps.iter().zip(prices).map(step).collect(),
                per_further_kg,
            }
        })
}

fn format(odd: bool) -> impl Strategy<Value = Format> {
    ([60_u32..400, 40..300, 5..200], table(odd)).prop_map(|(mut sides, prices)| {
        sides.sort_unstable();
        let [height, width, length] = sides.map(|side| Length::mm(f64::from(side)));
        Format {
            name: "Flat".to_owned(),
            length,
            width,
            height,
            prices: vec![prices],
        }
    })
}

fn billable() -> impl Strategy<Value = BillableBy> {
    (
        select(&[4000.0, 5000.0, 6000.0][..]),
        proptest::option::of(1_u32..20),
        select(&[0.0, 5.0, 10.0, 25.0][..]),
        select(&[0.0, 100.0, 500.0, 1000.0][..]),
        grams(0..200),
    )
        .prop_map(
            |(divisor_cm3_per_kg, above, size_step, weight_step, minimum)| BillableBy {
                divisor_cm3_per_kg,
                volumetric_above: above.map(|litres| Volume::m3(f64::from(litres) / 1000.0)),
                size_step: Length::mm(size_step),
                weight_step: Mass::g(weight_step),
                minimum,
            },
        )
}

fn limits() -> impl Strategy<Value = Limits> {
    (
        grams(100..3000),
        mm(150..500),
        proptest::option::of(mm(100..400)),
        mm(400..1600),
    )
        .prop_map(|(mass, longest, second, length_plus_girth)| Limits {
            mass,
            longest,
            second,
            length_plus_girth,
            glass: true,
        })
}

fn tariff(odd: bool) -> impl Strategy<Value = Tariff> {
    let service = (
        billable(),
        limits(),
        vec(format(odd), 0..3),
        table(odd),
        rules(odd),
        cents(0..20_000),
        (exceptions(odd), exceptions(odd)),
    );
    let account = (
        select(&["EUR", "JPY", "KWD"][..]),
        cents(0..3000),
        cents(0..3000),
        any::<bool>(),
    );
    (service, account, rules(odd)).prop_map(
        |(
            (billable, limits, formats, table, rules, included, (refuses, exclusions)),
            (code, fuel, off, tiered),
            mut for_all,
        )| {
            for rule in &mut for_all {
                rule.name = format!("All {}", rule.name);
                for name in &mut rule.replaces {
                    *name = format!("All {name}");
                }
            }
            // Nothing below its minor unit can be paid for a kilogram.
            let currency = Currency::try_from(code.to_owned()).expect("a currency");
            let payable = |price: &mut Decimal| {
                *price = price.round_dp(currency.decimals());
            };
            let mut table = table;
            let mut formats = formats;
            let mut rules = rules;
            let tables = formats.iter_mut().flat_map(|format| &mut format.prices);
            for prices in tables.chain([&mut table]) {
                prices.per_further_kg.iter_mut().for_each(payable);
            }
            for rule in rules.iter_mut().chain(&mut for_all) {
                if let What::PerKg { price, .. } = &mut rule.what {
                    payable(price);
                }
            }
            Tariff {
                id: "any".to_owned(),
                carrier: "Any".to_owned(),
                currency,
                valid_from: None,
                valid_to: None,
                zones: vec![Zone {
                    name: HERE.to_owned(),
                    countries: vec!["XS".to_owned()],
                    postcode_prefixes: vec![],
                    postcode_ranges: vec![],
                }],
                fuel_percent: fuel,
                fuel_on: vec![LineKind::Base, LineKind::Surcharge, LineKind::Discount],
                tax_percent: Decimal::from(20),
                tax_on: vec![
                    LineKind::Base,
                    LineKind::Further,
                    LineKind::Surcharge,
                    LineKind::Discount,
                    LineKind::Fuel,
                ],
                discount_tiers: vec![DiscountTier {
                    name: "Regular".to_owned(),
                    percent: off,
                    of: vec![LineKind::Base, LineKind::Further],
                }],
                tier: tiered.then(|| "Regular".to_owned()),
                collection: None,
                claims: None,
                rules: for_all,
                services: vec![Service {
                    id: "one".to_owned(),
                    name: "One".to_owned(),
                    days_from: 1,
                    days_to: 3,
                    handover: Handover::DropOff,
                    collection: None,
                    tracked: true,
                    route: None,
                    roughness: 1.0,
                    billable,
                    limits,
                    refuses: refuses
                        .into_iter()
                        .map(|(name, when)| Refuses { name, when })
                        .collect(),
                    formats,
                    prices: vec![table],
                    rules,
                    cover: Cover {
                        included,
                        step: Decimal::ONE_HUNDRED,
                        price_per_step: Decimal::new(115, 2),
                        most: included + Decimal::from(500),
                        excludes_glass: false,
                        exclusions: exclusions
                            .into_iter()
                            .map(|(name, when)| Exclusion { name, when })
                            .collect(),
                    },
                    with_cover: None,
                }],
            }
        },
    )
}

/// Sides in whole millimetres, thin ones too, and tens of grams.
fn parcel() -> impl Strategy<Value = Parcel> {
    (
        [5_u32..420, 5..420, 2..200],
        2_u32..1200,
        proptest::option::of(cents(0..90_000)),
        any::<bool>(),
        select(&[Shape::Rectangular, Shape::Tube][..]),
        any::<bool>(),
    )
        .prop_map(|(sides, tens, value, buys_cover, shape, glass)| Parcel {
            outside: envelope(sides),
            mass: Mass::g(f64::from(tens) * 10.0),
            value,
            buys_cover,
            shape,
            contents: Contents::default().and(Content::Glass, glass),
        })
}

fn envelope(sides: [u32; 3]) -> Envelope {
    let [across, up, through] = sides.map(|side| Length::mm(f64::from(side)));
    Envelope {
        across,
        up,
        through,
    }
}

fn here() -> Destination {
    Destination {
        country: "XS".to_owned(),
        postcode: "NQ1".to_owned(),
    }
}

fn quote(tariff: &Tariff, parcel: &Parcel) -> Quote {
    tariff
        .quote("one", &QuoteRequest::now(parcel, &here()))
        .expect("it has that service")
}

fn total(tariff: &Tariff, parcel: &Parcel) -> Option<Decimal> {
    quote(tariff, parcel).total().map(|total| total.amount)
}

fn lines(quote: &Quote) -> &[QuoteLine] {
    match &quote.offer {
        Offer::Priced { lines, .. } => lines,
        Offer::Refused { .. } => &[],
    }
}

/// A parcel so many millimetres, or tens of grams, more or less.
fn moved(parcel: &Parcel, along: Along, by: i32) -> Option<Parcel> {
    let by = f64::from(by);
    let mut moved = *parcel;
    let side = match along {
        Along::Across => &mut moved.outside.across,
        Along::Up => &mut moved.outside.up,
        Along::Through => &mut moved.outside.through,
        Along::Mass => {
            let mass = parcel.mass.as_g() + 10.0 * by;
            return (mass > 0.0).then(|| Parcel {
                mass: Mass::g(mass),
                ..moved
            });
        }
    };
    let length = side.as_mm() + by;
    *side = Length::mm(length.max(0.0));
    (length > 0.0).then_some(moved)
}

/// Where the table or the rule of a line stands in its tariff.
fn written(place: Place) -> String {
    let place = place.to_string();
    let ends = ["/steps/", "/per_further_kg"].map(|end| place.find(end));
    let end = ends.into_iter().flatten().min();
    place[..end.unwrap_or(place.len())].to_owned()
}

/// A tariff of one table without rules, reckoned in whole millionths of its money, millimetres and milligrams.
struct ByHand<'a>(&'a Tariff, &'a Parcel);

/// Rounded up to whole parts of a size; as it is where the size is nothing.
fn parts(amount: i128, size: i128) -> i128 {
    if size == 0 {
        amount
    } else {
        (amount + size - 1) / size * size
    }
}

impl ByHand<'_> {
    fn millionths(amount: Decimal) -> i128 {
        (amount * Decimal::from(1_000_000))
            .to_i128()
            .expect("six places do")
    }

    /// Half up, away from nothing, to the minor unit.
    fn rounded(&self, millionths: i128) -> i128 {
        let unit = 10_i128.pow(6 - self.0.currency.decimals());
        let half_more = millionths.abs() * 2 + unit;
        half_more / (unit * 2) * unit * millionths.signum()
    }

    /// A share of an amount, in hundredths of a per cent.
    fn share(&self, percent: Decimal, of: i128) -> i128 {
        let hundredths = (percent * Decimal::ONE_HUNDRED)
            .to_i128()
            .expect("two places do");
        // A share has ten places; half a millionth more never moves a minor unit of three.
        let exact = of * hundredths;
        let unit = 10_i128.pow(6 - self.0.currency.decimals()) * 10_000;
        (exact.abs() * 2 + unit) / (unit * 2) * (unit / 10_000) * exact.signum()
    }

    fn billed_mg(&self) -> i128 {
        let by = &self.0.services[0].billable;
        let whole = |number: f64| {
            Decimal::try_from(number)
                .expect("a number")
                .round()
                .to_i128()
                .expect("whole")
        };
        let side = |side: Length| parts(whole(side.as_mm()), whole(by.size_step.as_mm()));
        let Envelope {
            across,
            up,
            through,
        } = self.1.outside;
        let volume = side(across) * side(up) * side(through);
        let counts = by
            .volumetric_above
            .is_none_or(|above| volume > whole(above.as_m3() * 1e9));
        // mm³ over cm³/kg is grams: a thousand times as many milligrams.
        let divisor = whole(by.divisor_cm3_per_kg);
        let volumetric = if counts {
            (volume * 1000 + divisor - 1) / divisor
        } else {
            0
        };
        parts(
            Self::mg(self.1.mass)
                .max(volumetric)
                .max(Self::mg(by.minimum)),
            Self::mg(by.weight_step),
        )
    }

    fn mg(mass: Mass) -> i128 {
        let mg = Decimal::try_from(mass.as_g() * 1000.0);
        mg.expect("a number").round().to_i128().expect("whole")
    }

    fn total(&self) -> Decimal {
        let service = &self.0.services[0];
        let table = &service.prices[0];
        let up_to = |step: &WeightStep| {
            Decimal::try_from(step.up_to.as_g() * 1000.0)
                .expect("a mass")
                .round()
                .to_i128()
                .expect("whole")
        };
        let billed = self.billed_mg();
        let last = table.steps.last().expect("a step");
        let step = table.steps.iter().find(|step| billed <= up_to(step));
        let base = self.rounded(Self::millionths(step.unwrap_or(last).price));
        let further = match (step, table.per_further_kg) {
            (None, Some(per_kg)) => {
                (billed - up_to(last) + 999_999) / 1_000_000 * Self::millionths(per_kg)
            }
            _ => 0,
        };
        let further = self.rounded(further);
        let tier = self
            .0
            .tier
            .is_some()
            .then(|| self.0.discount_tiers[0].percent);
        let off = tier.map_or(0, |percent| -self.share(percent, base + further));
        let fuel = self.share(self.0.fuel_percent, base + off);
        let cover = &service.cover;
        let wanted = self
            .1
            .value
            .filter(|_| self.1.buys_cover)
            .unwrap_or_default()
            .min(cover.most);
        let beyond = Self::millionths(wanted - cover.included).max(0);
        let steps = (beyond + 99_999_999) / 100_000_000;
        let covered = self.rounded(steps * Self::millionths(cover.price_per_step));
        let tax = self.share(self.0.tax_percent, base + further + off + fuel);
        Decimal::from_i128_with_scale(base + further + off + fuel + covered + tax, 6)
    }
}

/// A tariff's rules read one after the other, as its text says, with nothing shared with the program but the reading of a tape.
struct AsRead<'a>(&'a Tariff, &'a Parcel);

impl AsRead<'_> {
    fn rules(&self) -> Vec<&Rule> {
        let own = &self.0.services[0].rules;
        self.0.rules.iter().chain(own).collect()
    }

    /// A measure in thousandths of its unit's mm, g or litres.
    fn gauge(&self, gauge: Gauge, billed_mg: i128) -> f64 {
        let step = self.0.services[0].billable.size_step.as_mm();
        let rounded = |side: Length| match step {
            0.0 => side.as_mm(),
            step => (side.as_mm() / step).ceil() * step,
        };
        let Envelope {
            across,
            up,
            through,
        } = self.1.outside;
        let mut sides = [across, up, through].map(rounded);
        sides.sort_by(|one, other| other.total_cmp(one));
        let [longest, second, shortest] = sides;
        let girth = 2.0 * (second + shortest);
        match gauge {
            Gauge::Longest => longest,
            Gauge::Second => second,
            Gauge::Shortest => shortest,
            Gauge::Girth => girth,
            Gauge::LengthPlusGirth => longest + girth,
            Gauge::Volume => longest * second * shortest / 1e9,
            Gauge::Mass => self.1.mass.as_g(),
            Gauge::Billable => Decimal::from_i128_with_scale(billed_mg, 3)
                .to_f64()
                .expect("it is a number"),
        }
    }

    fn holds(&self, when: &When, billed_mg: i128) -> bool {
        match when {
            When::Always => true,
            When::All(of) => of.iter().all(|when| self.holds(when, billed_mg)),
            When::Any(of) => of.iter().any(|when| self.holds(when, billed_mg)),
            // A tape reads no finer than the dust of binary fractions.
            When::Over(Over { gauge, number }) => self.gauge(*gauge, billed_mg) > number + 1e-9,
            When::Glass => self.1.contents.hold(Content::Glass),
            When::Shape(is) => is.contains(&self.1.shape),
            When::Contents(any_of) => any_of.iter().any(|one| self.1.contents.hold(*one)),
            When::Without(any_of) => any_of.iter().any(|one| !self.1.contents.hold(*one)),
            When::Zone(is) => is.iter().any(|zone| zone == HERE),
            // It goes to NQ1.
            When::Postcode(prefixes) => prefixes.iter().any(|one| one == "NQ" || one == "NQ1"),
            When::ValueOver(over) => self.1.value.is_some_and(|value| value > *over),
        }
    }

    /// The rules that hold, and no other takes the place of.
    fn stand(&self, billed_mg: i128) -> Vec<&Rule> {
        let rules = self.rules().into_iter();
        let hold: Vec<&Rule> = rules
            .filter(|rule| self.holds(&rule.when, billed_mg))
            .collect();
        let gone = |rule: &&Rule| hold.iter().any(|other| other.replaces.contains(&rule.name));
        hold.iter().filter(|rule| !gone(rule)).copied().collect()
    }

    /// What is billed once no rule raises it any more.
    fn billed_mg(&self) -> i128 {
        let step = ByHand::mg(self.0.services[0].billable.weight_step);
        let mut billed = ByHand(self.0, self.1).billed_mg();
        for _ in self.rules() {
            for rule in self.stand(billed) {
                if let What::Minimum { billable } = rule.what {
                    billed = billed.max(parts(ByHand::mg(billable), step));
                }
            }
        }
        billed
    }
}

const EVERY: [Along; 4] = [Along::Across, Along::Up, Along::Through, Along::Mass];

proptest! {
    #![proptest_config(ProptestConfig { cases: 400, ..ProptestConfig::default() })]

    #[test]
    fn whatever_the_generator_makes_is_a_whole_tariff_and_comes_back_from_its_text(tariff in tariff(true)) {
        prop_assert_eq!(tariff.checked(), Ok(()));
        let text = serde_json::to_string(&tariff).expect("a tariff is JSON");
        let read: Tariff = serde_json::from_str(&text).expect("it is a tariff");
        prop_assert_eq!(read, tariff);
    }

    #[test]
    fn what_is_opened_in_its_form_and_kept_is_the_same_json_and_the_same_prices(
        tariff in tariff(true),
        parcel in parcel(),
        inches in any::<bool>(),
        comma in any::<bool>(),
    ) {
        let telling = Telling {
            length: if inches { LengthUnit::In } else { LengthUnit::Cm },
            mass: if inches { MassUnit::Lb } else { MassUnit::Kg },
            decimal: if comma { DecimalMark::Comma } else { DecimalMark::Point },
            ..Telling::default()
        };
        // As a page has it: through JSON.
        let sheet = serde_json::to_string(&TariffSheet::of(&tariff, telling)).expect("a form is JSON");
        let sheet: TariffSheet = serde_json::from_str(&sheet).expect("it is a form");
        let kept = sheet.read(telling);
        prop_assert!(kept.is_ok(), "{kept:?}");
        let kept = kept.unwrap_or(Tariff { zones: vec![], ..tariff.clone() });
        let text = |tariff: &Tariff| serde_json::to_string(tariff).expect("a tariff is JSON");
        prop_assert_eq!(text(&kept), text(&tariff));
        let (before, after) = (quote(&tariff, &parcel), quote(&kept, &parcel));
        prop_assert_eq!(lines(&before), lines(&after));
    }

    #[test]
    fn a_tariff_without_rules_comes_to_what_its_table_says(tariff in tariff(true), parcel in parcel()) {
        let mut tariff = tariff;
        tariff.rules.clear();
        for service in &mut tariff.services {
            service.rules.clear();
            service.formats.clear();
            service.refuses.clear();
            service.cover.exclusions.clear();
            // What is too large for it is refused, and says nothing of prices.
            service.limits.longest = Length::mm(5000.0);
            service.limits.second = None;
            service.limits.length_plus_girth = Length::mm(20_000.0);
            service.limits.mass = Mass::kg(100.0);
        }
        let Some(total) = total(&tariff, &parcel) else {
            return Err(TestCaseError::reject("it is not taken"));
        };
        prop_assert_eq!(total.normalize(), ByHand(&tariff, &parcel).total().normalize());
    }

    #[test]
    fn rules_hold_as_they_read(tariff in tariff(true), parcel in parcel()) {
        let read = AsRead(&tariff, &parcel);
        let billed = read.billed_mg();
        let quote = quote(&tariff, &parcel);
        let billable = Decimal::try_from(quote.billable.billable.as_g() * 1000.0).expect("a number");
        prop_assert_eq!(billable.round().to_i128(), Some(billed));
        let service = &tariff.services[0];
        let refused: Vec<&str> = service.refuses.iter()
            .filter(|one| read.holds(&one.when, billed))
            .map(|one| one.name.as_str())
            .collect();
        let left_out: Vec<&str> = service.cover.exclusions.iter()
            .filter(|one| read.holds(&one.when, billed))
            .map(|one| one.name.as_str())
            .collect();
        match &quote.offer {
            Offer::Refused { reasons } => {
                let said: Vec<&str> = reasons.iter().filter_map(|reason| match reason {
                    Reason::Excluded { name } => Some(name.as_str()),
                    _ => None,
                }).collect();
                prop_assert_eq!(said, refused);
            }
            Offer::Priced { lines, excluded, covered, .. } => {
                prop_assert_eq!(refused, Vec::<&str>::new());
                let named: Vec<&str> = lines.iter()
                    .filter(|line| line.kind == LineKind::Surcharge)
                    .map(|line| line.name.as_str())
                    .collect();
                // A rule that raises, or whose measure is over none of its steps, has no line.
                let stand = read.stand(billed).into_iter().filter(|rule| match &rule.what {
                    What::Minimum { .. } => false,
                    What::Steps { by, steps } => steps.iter().any(|step| read.gauge(*by, billed) > step.over + 1e-9),
                    What::Sum { .. } | What::PerKg { .. } | What::Percent { .. } => true,
                });
                prop_assert_eq!(named, stand.map(|rule| rule.name.as_str()).collect::<Vec<_>>());
                prop_assert_eq!(excluded.iter().map(String::as_str).collect::<Vec<_>>(), left_out.clone());
                let bought = lines.iter().any(|line| line.kind == LineKind::Cover);
                prop_assert!(left_out.is_empty() || !bought && covered.amount.is_zero());
            }
        }
    }

    #[test]
    fn every_line_is_in_whole_units_of_its_currency_and_they_add_up(
        tariff in tariff(true),
        parcel in parcel(),
    ) {
        let quote = quote(&tariff, &parcel);
        let unit = Decimal::new(1, tariff.currency.decimals());
        let mut units = 0;
        for line in lines(&quote) {
            let amount = line.amount.amount;
            prop_assert_eq!(amount.scale(), tariff.currency.decimals(), "{}", line.name);
            units += (amount / unit).to_i128().expect("whole");
        }
        let total = quote.total().map_or(Decimal::ZERO, |total| total.amount);
        prop_assert_eq!(total / unit, Decimal::from_i128_with_scale(units, 0));
    }

    #[test]
    fn the_order_of_the_sides_is_nothing_to_a_carrier(tariff in tariff(true), parcel in parcel()) {
        let Envelope { across, up, through } = parcel.outside;
        let one = quote(&tariff, &parcel);
        for outside in [
            Envelope { across: up, up: through, through: across },
            Envelope { across: through, up, through: across },
        ] {
            prop_assert_eq!(&quote(&tariff, &Parcel { outside, ..parcel }), &one);
        }
    }

    #[test]
    fn more_never_costs_less_unless_the_tariff_is_said_to_have_a_dip(
        (tariff, plain) in prop_oneof![tariff(true).prop_map(|one| (one, false)), tariff(false).prop_map(|one| (one, true))],
        parcel in parcel(),
        more in [0_i32..200, 0..200, 0..100, 0..600],
    ) {
        let dips = tariff.dips();
        // One that only ever adds, and whose prices rise, has none.
        prop_assert!(!plain || dips.is_empty(), "{dips:?}");
        let larger = EVERY.into_iter().zip(more).fold(parcel, |grown, (along, by)| {
            moved(&grown, along, by).expect("it grew")
        });
        if let (Some(less), Some(more)) = (total(&tariff, &parcel), total(&tariff, &larger))
            && more < less {
                // A table or a rule that makes the difference is said to have a dip.
                let (before, after) = (quote(&tariff, &parcel), quote(&tariff, &larger));
                let differ = |one: &Quote, other: &Quote| -> Vec<String> {
                    let changed = lines(one).iter().filter(|line| !lines(other).contains(line));
                    changed.map(|line| written(line.place)).collect()
                };
                let mut at = [differ(&before, &after), differ(&after, &before)].concat();
                if after.billable.billable < before.billable.billable {
                    // What raised the smaller one gave way to another rule.
                    at.extend(["rules/".to_owned(), "services/0/rules/".to_owned()]);
                }
                let told = dips.iter().any(|dip| at.iter().any(|place| dip.place.starts_with(place)));
                prop_assert!(told, "{less} and then {more}: {at:?} beside {dips:?}");
            }
    }

    #[test]
    fn a_discount_comes_off_its_base_and_off_nothing_else(tariff in tariff(true), parcel in parcel()) {
        let without = Tariff { tier: None, ..tariff.clone() };
        let with = Tariff { tier: Some("Regular".to_owned()), ..tariff };
        let (plain, less) = (quote(&without, &parcel), quote(&with, &parcel));
        let before = |quote: &Quote| -> Vec<QuoteLine> {
            lines(quote)
                .iter()
                .filter(|line| matches!(line.kind, LineKind::Base | LineKind::Further | LineKind::Surcharge | LineKind::Cover))
                .cloned()
                .collect()
        };
        prop_assert_eq!(before(&plain), before(&less));
        let base: Decimal = lines(&less)
            .iter()
            .filter(|line| matches!(line.kind, LineKind::Base | LineKind::Further))
            .map(|line| line.amount.amount)
            .sum();
        let off: Vec<Decimal> = lines(&less)
            .iter()
            .filter(|line| line.kind == LineKind::Discount)
            .map(|line| line.amount.amount)
            .collect();
        if less.total().is_some() {
            // A tier that takes nothing off has no line.
            let percent = with.discount_tiers[0].percent;
            let wanted = (!percent.is_zero()).then(|| with.currency.round(-base * percent / Decimal::ONE_HUNDRED));
            prop_assert_eq!(off, wanted.into_iter().collect::<Vec<_>>());
        }
    }
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 200, ..ProptestConfig::default() })]

    #[test]
    fn the_nearest_cheaper_price_is_where_a_tape_finds_it_millimetre_by_millimetre(
        tariff in tariff(true),
        parcel in parcel(),
    ) {
        let found = tariff.steps(&QuoteRequest::now(&parcel, &here())).remove(0);
        let now = total(&tariff, &parcel);
        for along in EVERY {
            let cheaper = |parcel: &Parcel| {
                total(&tariff, parcel).is_some_and(|then| now.is_none_or(|now| then < now))
            };
            let by_hand = (1..)
                .map_while(|by| Some((by, moved(&parcel, along, -by)?)))
                .find(|(_, less)| cheaper(less))
                .map(|(by, _)| by);
            let step = found.steps.iter().find(|step| step.along == along);
            // Where the tape reads whole millimetres, the next one that is enough.
            let by_sum = step.map(|step| match (step.less_mm, step.less_g) {
                (Some(mm), _) => mm.as_mm(),
                (_, Some(g)) => g.as_g() / 10.0,
                _ => f64::NAN,
            });
            match (by_hand, by_sum) {
                (Some(by_hand), Some(by_sum)) => {
                    let by_hand = f64::from(by_hand);
                    prop_assert!(by_sum <= by_hand && by_hand < by_sum + 1.0, "{along:?}: {by_sum} and {by_hand}");
                }
                // A price that lasts for less than a millimetre is met by no whole one.
                (None, Some(by_sum)) => {
                    let below = moved(&parcel, along, -whole(by_sum.ceil()));
                    prop_assert!(below.is_none_or(|below| !cheaper(&below)), "{along:?}: {by_sum}");
                }
                (found, None) => prop_assert_eq!(found, None, "{:?}", along),
            }
        }
    }

    #[test]
    fn so_much_more_costs_nothing_and_no_millimetre_beyond(tariff in tariff(true), parcel in parcel()) {
        let found = tariff.steps(&QuoteRequest::now(&parcel, &here())).remove(0);
        let Some(now) = total(&tariff, &parcel) else {
            prop_assert!(found.room.is_empty());
            return Ok(());
        };
        for along in EVERY {
            let by_hand = (1..700).find(|by| {
                moved(&parcel, along, *by).is_none_or(|more| total(&tariff, &more) != Some(now))
            });
            let room = found.room.iter().find(|room| room.along == along).map(|room| {
                match (room.more_mm, room.more_g) {
                    (Some(mm), _) => mm.as_mm(),
                    (_, Some(g)) => g.as_g() / 10.0,
                    _ => f64::NAN,
                }
            });
            match (by_hand, room) {
                (Some(by_hand), Some(room)) => {
                    let first = f64::from(by_hand);
                    prop_assert!(room < first && first <= room.floor() + 1.0, "{along:?}: {room} and {first}");
                }
                (None, Some(room)) => prop_assert!(room >= 699.0, "{along:?}: {room}"),
                (found, None) => prop_assert_eq!(found, None, "{:?}", along),
            }
        }
    }
}

#[expect(clippy::cast_possible_truncation, reason = "a few hundred")]
fn whole(number: f64) -> i32 {
    number as i32
}

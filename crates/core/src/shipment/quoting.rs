//! What every service says to the parcel of a plan: with cover by the house's rule, told in the studio's own money, the best
//! first.

use rust_decimal::Decimal;

use super::{House, ShipmentInputs, arriving::Calendar, loss::Loss};
use crate::{
    freight::{
        Content, Contents, Cost, CoverChoice, Making, Offer, Parcel, Quote, QuoteRequest, Service,
        Shape, Tariff, only_taken_by,
    },
    house::{CoverRule, HouseRules},
    layer::Make,
    odds::WayRisk,
    piece::{Construction, Glazing},
    place::Destination,
    plan::Plan,
    quantity::{Currency, Money},
    space::LayerSlot,
};

/// One shipment on its way to a place.
pub(super) struct Quoting<'a> {
    pub inputs: &'a ShipmentInputs,
    pub house: &'a House,
    pub rules: &'a HouseRules,
    pub loss: &'a Loss<'a>,
    /// What making the parcel costs.
    pub making: Making,
    pub place: &'a Destination,
    /// The only carrier that takes it, where its carton belongs to one.
    pub only: Option<&'a str>,
    /// By which services are too late; none is by a house without a clock.
    pub calendar: Option<Calendar<'a>>,
}

impl Quoting<'_> {
    /// Returns what every service says to a parcel, the best first: those that can arrive by the promised day before those that are
    /// too late; where the house wants full cover, those that give it before those that do not; then by what it costs the studio
    /// with the loss to expect; the refused last.
    pub(super) fn quotes(&self, parcel: &Parcel) -> Vec<Quote> {
        let mut quotes: Vec<Quote> = self
            .house
            .tariffs
            .iter()
            .flat_map(|tariff| self.quoted_by(tariff, parcel))
            .collect();
        let own = &self.house.catalogue.currency;
        let quoted = self.inputs.quoted(parcel, own).into_iter();
        quotes.extend(quoted.map(|(quote, typed)| {
            let way = self.house.way_of(self.inputs, Some(&quote.id));
            self.told_on(quote, way, typed.covers(), own)
        }));
        if let Some(carrier) = self.only {
            only_taken_by(&mut quotes, carrier);
        }
        let full = self.rules.schools.cover == CoverRule::Full;
        quotes.sort_by_cached_key(|quote| {
            let here = quote.all_told.as_ref().map(|told| told.amount);
            let short = full && quote.uncovered.is_some();
            let calendar = self.calendar.as_ref();
            let late = calendar.is_some_and(|calendar| calendar.is_too_late(quote));
            (
                quote.total().is_none(),
                here.is_none(),
                late,
                short,
                here,
                quote.id.clone(),
            )
        });
        quotes
    }

    fn quoted_by(&self, tariff: &Tariff, parcel: &Parcel) -> Vec<Quote> {
        let own = &self.house.catalogue.currency;
        // What it is worth in the carrier's money; cover is sold in it.
        let value = parcel.value.and_then(|worth| {
            self.rules
                .converted(&Money::new(worth, own), &tariff.currency)
        });
        let parcel = |buys_cover| Parcel {
            value: value.as_ref().map(|value| value.amount),
            buys_cover,
            ..*parcel
        };
        let (without, with) = (parcel(false), parcel(true));
        let included = tariff.quotes(&QuoteRequest::now(&without, self.place));
        let covered = tariff.quotes(&QuoteRequest::now(&with, self.place));
        included
            .into_iter()
            .zip(covered)
            .zip(&tariff.services)
            .map(|((without, with), service)| {
                let without = self.told(without, service, own);
                let with = self.told(with, service, own);
                self.by_rule(without, with, own)
            })
            .collect()
    }

    /// Tells a quote in the studio's money what it comes to, what it leaves uncovered and what that costs on average.
    fn told(&self, quote: Quote, service: &Service, own: &Currency) -> Quote {
        let covered = match &quote.offer {
            Offer::Priced { covered, .. } => self.rules.converted(covered, own),
            Offer::Refused { .. } => return quote,
        };
        let covered = covered.map_or(Decimal::ZERO, |covered| covered.amount);
        let way = self.house.way(self.inputs, Some(service));
        self.told_on(quote, way, covered, own)
    }

    fn told_on(&self, mut quote: Quote, way: WayRisk, covered: Decimal, own: &Currency) -> Quote {
        quote.total_here = quote
            .total()
            .and_then(|total| self.rules.converted(total, own));
        quote.expected_loss = self.loss.on(way, covered);
        quote.uncovered = self.loss.beyond(covered);
        let loss = quote.expected_loss.as_ref();
        let loss = loss.map_or(Decimal::ZERO, |loss| loss.amount);
        let told = quote.total_here.as_ref();
        quote.all_told = told.map(|total| Money::new(total.amount + loss, own));
        quote.cost = self.cost(&quote, own);
        quote
    }

    fn cost(&self, quote: &Quote, own: &Currency) -> Option<Cost> {
        let Offer::Priced { lines, total, .. } = &quote.offer else {
            return None;
        };
        let rate = self.rules.rate(&total.currency, own)?;
        let here = quote.total_here.as_ref()?;
        let loss = quote.expected_loss.as_ref();
        Some(Cost::carried(self.making, (lines, here, rate), loss))
    }

    /// The one of two quotes, without and with cover bought, that the house's rule takes; it tells what cover would do.
    fn by_rule(&self, without: Quote, with: Quote, own: &Currency) -> Quote {
        let sum = |quote: &Quote| {
            let loss = quote.expected_loss.as_ref()?;
            Some((quote.total_here.as_ref()?.amount, loss.amount))
        };
        let Some(((plain, risk), (dear, less_risk))) = sum(&without).zip(sum(&with)) else {
            return match self.rules.schools.cover {
                CoverRule::Full => with,
                CoverRule::Included | CoverRule::WherePays => without,
            };
        };
        if without.offer == with.offer {
            return without;
        }
        let (premium, pays_back) = (dear - plain, risk - less_risk);
        let bought = match self.rules.schools.cover {
            CoverRule::Full => true,
            CoverRule::Included => false,
            CoverRule::WherePays => pays_back > premium,
        };
        let at_worst = without.uncovered.clone();
        let (mut quote, at_worst_bought) = if bought {
            let left = with.uncovered.clone();
            (with, left)
        } else {
            (without, with.uncovered)
        };
        let gone = |money: Option<Money>| money.map_or(Decimal::ZERO, |money| money.amount);
        quote.cover = Some(CoverChoice {
            bought,
            premium: Money::new(premium, own),
            pays_back: Money::new(pays_back, own),
            pays_at_worst: Money::new(gone(at_worst) - gone(at_worst_bought), own),
        });
        quote
    }
}

/// The parcel of a plan, as carriers ask about it.
/// Of several pieces what any of them is counts, so that the strictest exclusion holds.
pub(super) fn parcel_of(
    plan: &Plan,
    constructions: &[Construction],
    value: Option<Decimal>,
) -> Parcel {
    let second = plan
        .layers
        .iter()
        .any(|layer| layer.slot == LayerSlot::SecondBox);
    let tube = plan.layers.iter().find_map(|layer| match &layer.make {
        Make::Tube(tube) => Some(tube.triangular),
        _ => None,
    });
    let is_paper = |construction: &Construction| match construction {
        Construction::LoosePaper
        | Construction::FramedUnderGlass
        | Construction::FramedUnderAcrylic => true,
        Construction::StretchedCanvas
        | Construction::CradledPanel
        | Construction::RigidBoard
        | Construction::FramedUnglazed
        | Construction::Mirror
        | Construction::LooseCanvas
        | Construction::PanelSet => false,
    };
    let any = |of: &dyn Fn(&Construction) -> bool| constructions.iter().any(of);
    Parcel {
        outside: plan.tally.outside,
        mass: plan.tally.weight.mass,
        value,
        buys_cover: false,
        shape: match tube {
            None => Shape::Rectangular,
            Some(false) => Shape::Tube,
            Some(true) => Shape::Triangular,
        },
        contents: Contents::default()
            .and(
                Content::Glass,
                any(&|construction| construction.glazing() == Glazing::Glass),
            )
            .and(Content::Paper, any(&is_paper))
            .and(
                Content::Painting,
                any(&|construction| {
                    !is_paper(construction) && *construction != Construction::Mirror
                }),
            )
            .and(Content::DoubleBoxed, second),
    }
}

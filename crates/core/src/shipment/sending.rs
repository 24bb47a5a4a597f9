//! Findings about sending a parcel: its address, its tracking, its cover and its price.

use rust_decimal::Decimal;

use super::{Buyer, House, ShipmentInputs};
use crate::{
    freight::{Destination, Offer, Parcel, Quote, quotes},
    house::Choices,
    layer::{Envelope, Layer, LayerSlot, Make},
    plan::{Finding, FindingLevel::Mind},
    quantity::Length,
};

/// What is known about sending a parcel.
pub(super) struct Sending<'a> {
    pub inputs: &'a ShipmentInputs,
    pub house: &'a House,
    pub parcel: &'a Parcel,
    pub place: &'a Destination,
    pub quotes: &'a [Quote],
    pub worth: Option<Decimal>,
    pub layers: &'a [Layer],
}

/// Returns every finding about sending.
pub(super) fn findings(sending: &Sending<'_>) -> Vec<Finding> {
    [
        half_an_address(&sending.inputs.buyer),
        untracked(sending),
        covered_below_value(sending),
        price_step(sending),
    ]
    .into_iter()
    .flatten()
    .collect()
}

fn half_an_address(buyer: &Buyer) -> Option<Finding> {
    let missing: Vec<&str> = [
        ("the buyer's name", &buyer.name),
        ("the street", &buyer.street),
        ("the town", &buyer.town),
    ]
    .into_iter()
    .filter_map(|(what, text)| text.trim().is_empty().then_some(what))
    .collect();
    (!missing.is_empty()).then(|| {
        Finding::parcel(
            Mind,
            "half-an-address",
            format!(
                "Of the address, {} is missing: check it before wrapping begins, not at the counter.",
                missing.join(" and ")
            ),
        )
    })
}

impl Sending<'_> {
    /// The service that was chosen, when it takes the parcel.
    fn chosen(&self) -> Option<&Quote> {
        let id = self.inputs.service.as_deref()?;
        self.quotes
            .iter()
            .find(|quote| quote.id == id && quote.total().is_some())
    }
}

fn untracked(sending: &Sending<'_>) -> Option<Finding> {
    let quote = sending.chosen().filter(|quote| !quote.tracked)?;
    let says = format!(
        "{} {} can't be followed: without tracking nothing shows that it arrived.",
        quote.carrier, quote.service
    );
    Some(Finding::parcel(Mind, "untracked", says))
}

fn covered_below_value(sending: &Sending<'_>) -> Option<Finding> {
    let worth = sending.worth?;
    let quote = sending.chosen()?;
    let Offer::Priced { covered, .. } = &quote.offer else {
        return None;
    };
    (covered.amount < worth).then(|| {
        Finding::parcel(
            Mind,
            "cover-below-value",
            format!(
                "{} {} pays at most {} {} for a piece worth {worth}: the rest is the studio's risk.",
                quote.carrier,
                quote.service,
                covered.amount,
                covered.currency.code()
            ),
        )
    })
}

/// A parcel this much smaller on every side is still the same parcel.
const A_FEW_MM: [f64; 5] = [2.0, 4.0, 6.0, 8.0, 10.0];

/// Tells when a few millimetres less would be billed less.
fn price_step(sending: &Sending<'_>) -> Option<Finding> {
    let best = |quotes: &[Quote]| quotes.iter().find_map(|quote| quote.total().cloned());
    let now = best(sending.quotes)?;
    let less = |mm: f64| {
        let side = |side: Length| (side - Length::mm(mm)).max(Length::ZERO);
        let Envelope {
            across,
            up,
            through,
        } = sending.parcel.outside;
        let smaller = Parcel {
            outside: Envelope {
                across: side(across),
                up: side(up),
                through: side(through),
            },
            ..*sending.parcel
        };
        best(&quotes(&smaller, sending.place, &sending.house.tariffs))
    };
    let saves = |mm: f64| less(mm).filter(|then| then.amount < now.amount);
    saves(A_FEW_MM[A_FEW_MM.len() - 1])?;
    let (mm, then) = A_FEW_MM.into_iter().find_map(|mm| Some((mm, saves(mm)?)))?;
    let finding = Finding::parcel(
        Mind,
        "price-step",
        format!(
            "It is just over a price step: {mm:.0}\u{a0}mm less on every side would save {} {}.",
            now.amount - then.amount,
            now.currency.code()
        ),
    );
    Some(match closer_fit(sending, Length::mm(mm)) {
        Some(clearance) => finding.answered_by(
            format!("Leave {:.1}\u{a0}mm of clearance", clearance.as_mm()),
            Choices {
                clearance: Some(format!("{:.1} mm", clearance.as_mm())),
                ..Choices::default()
            },
        ),
        None => finding,
    })
}

/// The clearance with which every side is so much shorter, where a hand still gets in.
fn closer_fit(sending: &Sending<'_>, less: Length) -> Option<Length> {
    let fill = sending.layers.iter().find_map(|layer| match &layer.make {
        Make::EdgeFill(fill) if layer.slot == LayerSlot::Fill => Some(fill.clearance),
        _ => None,
    })?;
    let snug = sending.house.rules.allowances.snug_clearance;
    Some(fill - less / 2.0).filter(|&clearance| clearance >= snug)
}

//! A rough quote, for a buyer on the phone: from size, destination and value alone, before anybody has looked at the piece.

use serde::Serialize;

use super::{House, ShipmentInputs, Workings, charge::charge};
use crate::{
    Refusal,
    piece::{Construction, Medium},
    quantity::{Mass, Money},
    space::Envelope,
};

/// What it would cost, over everything that the piece could be.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct RoughQuote {
    /// Each thing that it could be, the cheapest first.
    pub cases: Vec<RoughCase>,
    /// What the buyer would pay at least; `None` if nobody takes any of them.
    pub least: Option<Money>,
    /// What the buyer would pay at most.
    pub most: Option<Money>,
}

/// One thing that the piece could be.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct RoughCase {
    /// What it would be.
    pub construction: Construction,
    /// The parcel outside; `None` if it can't be packed so.
    pub outside: Option<Envelope>,
    /// Of the parcel.
    #[serde(rename = "mass_g")]
    pub mass: Option<Mass>,
    /// The best service, as `Gannet Post Parcel`; `None` if none takes it.
    pub service: Option<String>,
    /// What the carrier takes, in the studio's money.
    pub carriage: Option<Money>,
    /// What it costs the studio in all.
    pub costs: Option<Money>,
    /// What the buyer pays by the studio's rule; `None` if no service takes it.
    pub pays: Option<Money>,
    /// Why it can't be packed so.
    pub refused: Option<String>,
}

/// What is asked about while nobody knows what the piece is, with how deep it usually is.
const COULD_BE: [(Construction, &str, Medium); 4] = [
    (Construction::StretchedCanvas, "38 mm", Medium::Acrylic),
    (Construction::FramedUnglazed, "30 mm", Medium::Acrylic),
    (Construction::FramedUnderGlass, "30 mm", Medium::Print),
    (Construction::CradledPanel, "22 mm", Medium::Acrylic),
];
const USUAL_DEPTH: &str = "30 mm";

/// Returns what a piece would roughly cost to send, over everything that it could be; what was typed of it is taken as it is.
///
/// # Errors
/// A [`Refusal`] for a width, height or country that is missing.
pub fn rough_quote(inputs: &ShipmentInputs, house: &House) -> Result<RoughQuote, Vec<Refusal>> {
    let missing: Vec<Refusal> = [
        ("piece.width", inputs.piece.width.is_none(), "the width"),
        ("piece.height", inputs.piece.height.is_none(), "the height"),
        (
            "buyer.country",
            inputs.buyer.country.is_empty(),
            "the country",
        ),
    ]
    .into_iter()
    .filter(|(_, missing, _)| *missing)
    .map(|(field, _, what)| {
        Refusal::new(field, format!("{what} missing: it is needed for a price"))
    })
    .collect();
    if !missing.is_empty() {
        return Err(missing);
    }
    let known = inputs.piece.construction;
    let could_be = COULD_BE
        .into_iter()
        .filter(|(construction, ..)| known.is_none_or(|known| known == *construction));
    let mut asked: Vec<(Construction, &str, Medium)> = could_be.collect();
    if let (Some(known), true) = (known, asked.is_empty()) {
        asked.push((known, USUAL_DEPTH, Medium::Print));
    }
    let mut cases: Vec<RoughCase> = asked
        .into_iter()
        .map(|(construction, depth, medium)| {
            let mut typed = inputs.clone();
            typed.piece.construction = Some(construction);
            typed.piece.depth.get_or_insert_with(|| depth.to_owned());
            typed.piece.medium.get_or_insert(medium);
            case(construction, &typed, house)
        })
        .collect();
    let pays = |case: &RoughCase| case.pays.as_ref().map(|pays| pays.amount);
    cases.sort_by_key(|case| (pays(case).is_none(), pays(case)));
    let paid = || cases.iter().filter_map(|case| case.pays.clone());
    Ok(RoughQuote {
        least: paid().min_by_key(|pays| pays.amount),
        most: paid().max_by_key(|pays| pays.amount),
        cases,
    })
}

fn case(construction: Construction, inputs: &ShipmentInputs, house: &House) -> RoughCase {
    let nothing = RoughCase {
        construction,
        outside: None,
        mass: None,
        service: None,
        carriage: None,
        costs: None,
        pays: None,
        refused: None,
    };
    let made = Workings::out(inputs, house).and_then(|worked| Ok((worked, charge(inputs, house)?)));
    let (worked, charge) = match made {
        Ok((worked, Some(charge))) => (worked, charge),
        Ok((_, None)) => return nothing,
        Err(refusals) => {
            return RoughCase {
                refused: refusals.into_iter().next().map(|refusal| refusal.message),
                ..nothing
            };
        }
    };
    let tally = worked.plan.as_ref().map(|plan| &plan.tally);
    let best = worked.chosen_or_best(inputs);
    let carried = best.and_then(|quote| quote.total_here.clone());
    RoughCase {
        outside: tally.map(|tally| tally.outside),
        mass: tally.map(|tally| tally.weight.mass),
        service: charge.service.clone().filter(|_| carried.is_some()),
        costs: carried.is_some().then(|| charge.costs.clone()),
        pays: carried.is_some().then(|| charge.pays.clone()),
        carriage: carried,
        ..nothing
    }
}

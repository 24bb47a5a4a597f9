//! Several pieces in one parcel or in two: what each comes to.

use rust_decimal::Decimal;
use serde::Serialize;

use crate::{
    Refusal,
    plan::{FIRST, OneIn},
    quantity::{Mass, Money},
    shipment::{House, ShipmentInputs, TogetherInputs, Workings},
    space::Envelope,
};

/// A shipment of several pieces in one parcel, and parted in two.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct InTwo {
    /// All in one parcel, as it is planned.
    pub together: PartedParcel,
    /// Parted, what costs least in all first; at most three.
    pub parted: Vec<PartedWay>,
}

/// A shipment parted in two parcels.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PartedWay {
    /// What stays, with the first piece.
    pub stays: PartedParcel,
    /// What goes by itself.
    pub goes: PartedParcel,
    /// What a shipment of its own starts from for that.
    pub inputs: ShipmentInputs,
    /// What both cost in all; `None` if no price is known for one of them.
    pub all_told: Option<Money>,
    /// What it saves against one parcel, less than nothing where it costs more.
    pub saves: Option<Money>,
}

/// One of the parcels.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PartedParcel {
    /// The pieces in it: `first`, or their names among the others.
    pub pieces: Vec<String>,
    /// As a tape reads it.
    pub outside: Envelope,
    /// With everything.
    #[serde(rename = "mass_g")]
    pub mass: Mass,
    /// How likely it is to arrive damaged.
    pub one_in: OneIn,
    /// By whom: the service that was chosen where it takes it, else the best; `None` if none takes it.
    pub service: Option<String>,
    /// What that takes, in the studio's money.
    pub carriage: Option<Money>,
    /// What it costs in all: the `total` of its `cost`; `None` without a carriage.
    pub all_told: Option<Money>,
}

/// Up to so many others every way to part them is tried; beyond, each by itself and the largest together.
const ALL_WAYS: usize = 5;
/// How many are told.
const TOLD: usize = 3;

impl ShipmentInputs {
    /// Returns these inputs with some of their pieces only, for a parcel of their own: what was packed, weighed and settled of
    /// all together is left behind. The first of `keys` is the piece that it begins with.
    #[must_use]
    pub fn with_pieces(&self, keys: &[&str]) -> Self {
        let (first, rest) = keys.split_first().unwrap_or((&FIRST, &[]));
        let begun = self.others.get(*first);
        let plain = self.again();
        let choices = match begun {
            Some(other) => plain.choices.patched(&other.choices.as_choices()),
            None => plain.choices,
        };
        let others = rest.iter().filter_map(|key| {
            let other = self.others.get(*key)?;
            Some(((*key).to_owned(), other.clone()))
        });
        Self {
            title: begun.map_or(&self.title, |other| &other.title).clone(),
            value: begun.map_or(&self.value, |other| &other.value).clone(),
            piece: begun.map_or(&self.piece, |other| &other.piece).clone(),
            others: others.collect(),
            together: TogetherInputs {
                order: None,
                ..self.together.clone()
            },
            choices,
            buyer: self.buyer.clone(),
            promised: self.promised.clone(),
            service: self.service.clone(),
            gift: self.gift,
            ..plain
        }
    }
}

/// Returns what several pieces come to in one parcel and in two; nothing for one piece, or before there is a plan.
///
/// # Errors
/// A [`Refusal`] when the plan as it is can't be made.
pub fn in_two(inputs: &ShipmentInputs, house: &House) -> Result<Option<InTwo>, Vec<Refusal>> {
    let inputs = &inputs.unweighed();
    if inputs.others.is_empty() {
        return Ok(None);
    }
    let all: Vec<&str> = [FIRST]
        .into_iter()
        .chain(inputs.others.keys().map(String::as_str))
        .collect();
    let worked = Workings::out(inputs, house)?;
    let Some(together) = parcel(&all, inputs, &worked) else {
        return Ok(None);
    };
    let mut parted: Vec<PartedWay> = ways(&all[1..])
        .into_iter()
        .filter_map(|goes| {
            let stays: Vec<&str> = all
                .iter()
                .copied()
                .filter(|key| !goes.contains(key))
                .collect();
            let made = |keys: &[&str]| {
                let inputs = inputs.with_pieces(keys);
                let worked = Workings::out(&inputs, house).ok()?;
                Some((parcel(keys, &inputs, &worked)?, inputs))
            };
            let ((stays, _), (goes, inputs)) = (made(&stays)?, made(&goes)?);
            let both = stays.all_told.as_ref().zip(goes.all_told.as_ref());
            let all_told = both.map(|(one, other)| Money {
                amount: one.amount + other.amount,
                ..one.clone()
            });
            let saves = together
                .all_told
                .as_ref()
                .zip(all_told.as_ref())
                .map(|(one, two)| Money {
                    amount: one.amount - two.amount,
                    ..one.clone()
                });
            Some(PartedWay {
                stays,
                goes,
                inputs,
                all_told,
                saves,
            })
        })
        .collect();
    let cost = |way: &PartedWay| {
        let told = way.all_told.as_ref().map(|told| told.amount);
        (
            told.is_none(),
            told.unwrap_or(Decimal::MAX),
            way.goes.pieces.len(),
        )
    };
    parted.sort_by_key(cost);
    parted.truncate(TOLD);
    Ok(Some(InTwo { together, parted }))
}

/// The ways to part others from the first: every one of few, of many each by itself and one after the other.
fn ways<'a>(others: &[&'a str]) -> Vec<Vec<&'a str>> {
    if others.len() <= ALL_WAYS {
        return (1_usize..1 << others.len())
            .map(|held| {
                let kept = others
                    .iter()
                    .enumerate()
                    .filter(|(at, _)| held & (1 << at) != 0);
                kept.map(|(_, key)| *key).collect()
            })
            .collect();
    }
    let alone = others.iter().map(|key| vec![*key]);
    let runs = (2..=others.len()).map(|count| others[..count].to_vec());
    alone.chain(runs).collect()
}

fn parcel(keys: &[&str], inputs: &ShipmentInputs, worked: &Workings) -> Option<PartedParcel> {
    let plan = worked.plan.as_ref()?;
    let best = worked.chosen_or_best(inputs);
    let carriage = best.and_then(|best| best.total_here.clone());
    let all_told = best.and_then(|best| Some(best.cost.as_ref()?.total.clone()));
    Some(PartedParcel {
        pieces: keys.iter().map(|key| (*key).to_owned()).collect(),
        outside: plan.tally.outside,
        mass: plan.tally.weight.mass,
        one_in: plan.odds.one_in,
        service: best.map(|best| format!("{} {}", best.carrier, best.service)),
        carriage,
        all_told,
    })
}

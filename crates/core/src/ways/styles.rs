//! How else a box could be made: every style, with what it would change, the best by the house's rule first.

use serde::Serialize;

use super::{MoreCost, choosing};
use crate::{
    Refusal,
    carton::{Blank, Carton, CartonStyle, SheetNeed, Unfit},
    house::Choices,
    layer::Layer,
    plan::{Change, FindingLevel, Plan},
    quantity::{Area, LengthUnit, Minutes, Money, show_length},
    shipment::{Commission, House, ShipmentInputs, Worked},
    space::Envelope,
    space::LayerSlot,
};

/// A style that the box could be made in.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StyleOffer {
    /// How it is made.
    pub style: CartonStyle,
    /// What it is called.
    pub name: &'static str,
    /// Why one would make it.
    pub why: &'static str,
    /// The choices to merge into those of the shipment.
    pub choices: Choices,
    /// Whether the box is made so.
    pub chosen: bool,
    /// Whether it raises no new Stop or Mind, and the odds are as good as the house asks for.
    pub keeps: bool,
    /// Why it does not fit.
    pub refused: Option<String>,
    /// What it is cut to, part by part.
    pub blanks: Vec<Blank>,
    /// Of board that stays in it.
    #[serde(rename = "board_m2")]
    pub board: Area,
    /// How many sheets are opened for it; nothing where no sheet takes a part.
    pub sheets: Option<u32>,
    /// To make and close it.
    pub minutes: Minutes,
    /// The parcel outside.
    pub outside: Envelope,
    /// All told: materials, carriage and work; less than zero where it saves.
    pub cost: Money,
    /// What it would change.
    pub change: Change,
}

/// Returns every style that the box of a shipment, or the second one around it, could be made in; nothing before the piece is known, or where it
/// goes in no box that is cut.
///
/// First come those that fit, raise no new Stop or Mind, and leave the odds as good as the house asks for; of them
/// the cheapest in money and work. Source: house rule.
///
/// # Errors
/// A [`Refusal`] when the plan as it is can't be made.
pub fn styles(
    inputs: &ShipmentInputs,
    house: &House,
    slot: LayerSlot,
) -> Result<Vec<StyleOffer>, Vec<Refusal>> {
    let Some(piece) = inputs.piece()? else {
        return Ok(Vec::new());
    };
    let commission = Commission::of(inputs, piece, house)?;
    let worked = Worked::out(inputs, house)?;
    let Some((plan, _, carton)) = worked.plan.as_ref().and_then(|plan| with_box(plan, slot)) else {
        return Ok(Vec::new());
    };
    let mut offers = Vec::with_capacity(CartonStyle::ALL.len());
    for style in CartonStyle::ALL {
        let choices = match slot {
            LayerSlot::SecondBox => Choices {
                second_style: Some(style),
                ..Choices::default()
            },
            _ => Choices {
                box_style: Some(style),
                ..Choices::default()
            },
        };
        let (choices, then) = choosing(inputs, Some(&commission.began), choices);
        let made = Worked::out(&then, house)?;
        let Some((other, layer, box_then)) =
            made.plan.as_ref().and_then(|plan| with_box(plan, slot))
        else {
            continue;
        };
        let cost = MoreCost::between(inputs, (&worked, plan), (&made, other)).whole;
        let allowances = &commission.rules.allowances;
        offers.push(StyleOffer {
            style,
            name: style.name(),
            why: style.why(),
            choices,
            chosen: style == carton.style,
            keeps: keeps(plan, other, allowances.odds_worsening),
            refused: refused(box_then, house.rules.told_in),
            blanks: box_then.parts().map(|(blank, _)| blank.clone()).collect(),
            board: box_then.board(allowances.sheet_lap),
            sheets: sheets(box_then),
            minutes: layer.minutes,
            outside: other.tally.outside,
            cost,
            change: Change::between(plan, other),
        });
    }
    offers.sort_by_key(|offer| (offer.refused.is_some(), !offer.keeps, offer.cost.amount));
    Ok(offers)
}

/// The plan with the box in a place.
fn with_box(plan: &Plan, slot: LayerSlot) -> Option<(&Plan, &Layer, &Carton)> {
    let layer = plan.layers.iter().find(|layer| layer.slot == slot)?;
    Some((plan, layer, layer.make.carton()?))
}

fn keeps(now: &Plan, then: &Plan, worsening: f64) -> bool {
    let heavy = |plan: &Plan| {
        plan.findings
            .iter()
            .filter(|finding| finding.level != FindingLevel::Note)
            .map(|finding| finding.code)
            .collect::<Vec<_>>()
    };
    let known = heavy(now);
    heavy(then).iter().all(|code| known.contains(code))
        && then.odds.probability <= now.odds.probability * (1.0 + worsening)
}

/// Why a box is not made so: it does not fit the size, or no sheet takes a part.
fn refused(carton: &Carton, unit: LengthUnit) -> Option<String> {
    let told = |length| show_length(length, unit);
    match carton.style.unfit(carton.size()) {
        Some(Unfit::TooSmall { what, found, least }) => {
            return Some(format!(
                "its {what} would be {}: under {} they can't be folded by hand",
                told(found),
                told(least)
            ));
        }
        Some(Unfit::TooLong { what, found, most }) => {
            return Some(format!(
                "its {what} would be {} long: over {} it bows between its tapes",
                told(found),
                told(most)
            ));
        }
        None => {}
    }
    let (blank, _) = carton
        .parts()
        .find(|(_, sheet)| **sheet == SheetNeed::NoSheet)?;
    Some(format!(
        "no sheet of this board takes {} × {}, even joined at its scores",
        told(blank.width),
        told(blank.height)
    ))
}

fn sheets(carton: &Carton) -> Option<u32> {
    carton
        .parts()
        .map(|(_, sheet)| match sheet {
            SheetNeed::One { .. } => Some(1),
            SheetNeed::Joined { sheets, .. } => Some(*sheets),
            SheetNeed::NoSheet => None,
        })
        .sum()
}

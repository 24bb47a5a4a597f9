//! What else a layer could be, and what each would change.

use serde::Serialize;

use super::choosing;
use crate::{
    Refusal,
    house::{CartonStyle, Choices, HouseRules},
    layer::{Layer, Offer, Offering, kind_of},
    material::Catalogue,
    piece::Piece,
    plan::{Change, Plan, Standing, standing},
    shipment::{Commission, House, ShipmentInputs, Workings},
    space::LayerSlot,
};

/// Something that a layer could be instead.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Alternative {
    /// What it is.
    pub label: String,
    /// The choices to merge into those of the shipment.
    pub choices: Choices,
    /// Whether the plan has it already.
    pub chosen: bool,
    /// Why it can't be.
    pub refused: Option<String>,
    /// What it would change.
    pub change: Option<Change>,
}

/// Returns what else a layer could be, each with what it would change; a layer that is not there can be
/// added, one that the job does not ask for can be left out. Nothing before the piece is known.
///
/// # Errors
/// A [`Refusal`] when the plan as it is can't be made.
pub fn alternatives(
    inputs: &ShipmentInputs,
    house: &House,
    slot: LayerSlot,
) -> Result<Vec<Alternative>, Vec<Refusal>> {
    // Other plans are compared as they are planned, whatever this one was found to weigh.
    let inputs = &inputs.unweighed();
    let Some(piece) = inputs.piece()? else {
        return Ok(Vec::new());
    };
    let commission = Commission::of(inputs, piece, house)?;
    let worked = Workings::out(inputs, house)?;
    let Some(now) = worked.plan else {
        return Ok(Vec::new());
    };
    let options = options(
        &commission.piece,
        &commission.rules,
        &house.catalogue,
        &now,
        slot,
    );
    let offered = |(label, choices): Offer| {
        let (choices, then) = choosing(inputs, Some(&commission.began), choices);
        let planned = Workings::out(&then, house).map(|worked| worked.plan);
        match planned {
            Ok(plan) => Alternative {
                label,
                choices,
                chosen: plan.as_ref().is_some_and(|plan| same_build(&now, plan)),
                refused: None,
                change: plan.map(|plan| Change::between(&now, &plan)),
            },
            Err(refusals) => Alternative {
                label,
                choices,
                chosen: false,
                refused: refusals.into_iter().next().map(|refusal| refusal.message),
                change: None,
            },
        }
    };
    let mut all: Vec<Alternative> = options.into_iter().map(offered).collect();
    // Where two of them are what there is, neither makes a difference: a tube that is bought is of no board.
    if all.iter().filter(|one| one.chosen).count() > 1 {
        all.retain(|one| !one.chosen);
    }
    Ok(all)
}

/// Two plans are built alike when every layer is of the same stuff and as large.
fn same_build(one: &Plan, other: &Plan) -> bool {
    one.layers.len() == other.layers.len()
        && one.layers.iter().zip(&other.layers).all(|(one, other)| {
            one.material == other.material
                && style(one) == style(other)
                && one.make.kind() == other.make.kind()
                && one.envelope == other.envelope
                && one.area == other.area
                && one.tape == other.tape
        })
}

fn style(layer: &Layer) -> Option<CartonStyle> {
    layer.make.carton().map(|carton| carton.style)
}

pub(super) fn options(
    piece: &Piece,
    rules: &HouseRules,
    catalogue: &Catalogue,
    now: &Plan,
    slot: LayerSlot,
) -> Vec<Offer> {
    let there = now.layers.iter().any(|layer| layer.slot == slot);
    let kind = kind_of(slot);
    let mut options = if there || kind.swaps_add {
        (kind.swaps)(&Offering {
            catalogue,
            piece,
            carriage: now.carriage,
        })
    } else {
        Vec::new()
    };
    let stands = standing(slot, piece, now.carriage, rules);
    match stands {
        Standing::On | Standing::Off if there => {
            options.push(("Leave it out".to_owned(), Choices::layer(slot, false)));
        }
        _ if !there => options.push((format!("Add {}", slot.name()), Choices::layer(slot, true))),
        _ => {}
    }
    options
}

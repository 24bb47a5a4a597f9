//! The steps at the bench for a shipment, and how far somebody got with them.

use std::collections::BTreeMap;

use super::{Commission, House, ShipmentInputs, Workings, against};
use crate::{
    Refusal,
    pack::{PackStep, PackView, StepTick, pack_steps},
    piece::Piece,
    plan::{Detail, Plan},
    rehearsal::Rehearsal,
    shipment::{PackSheet, SheetEnds, SheetPart, UnpackingGuide, cut_already::ticked_by_layouts},
};

/// Returns every step of packing a shipment beside what was ticked; `None` while there is no plan.
///
/// # Errors
/// A [`Refusal`] when the plan can't be made.
pub fn packing(inputs: &ShipmentInputs, house: &House) -> Result<Option<PackView>, Vec<Refusal>> {
    Ok(planned(inputs, house)?.map(|(_, view)| view))
}

/// Returns the steps as they are printed, with both ends of the parcel; `None` while there is no plan.
///
/// # Errors
/// A [`Refusal`] when the plan can't be made.
pub fn pack_sheet(
    (inputs, ends): (&ShipmentInputs, SheetEnds<'_>),
    house: &House,
) -> Result<Option<PackSheet>, Vec<Refusal>> {
    let worked = Workings::out(inputs, house)?;
    let telling = house.rules.told_in;
    let summary = worked.summary(inputs);
    let against = against(inputs, summary.as_ref(), &ends.around);
    let Some(plan) = worked.plan else {
        return Ok(None);
    };
    let list = rehearsed(&plan, inputs, house)?;
    let view = PackView::of(list.steps, &inputs.packed).seen(list.rehearsal.stills);
    let sheet = PackSheet::of(&view, &plan, (inputs, ends, against), telling);
    Ok(Some(sheet))
}

/// Returns how whoever gets it unpacks a shipment; `None` while there is no plan.
///
/// # Errors
/// A [`Refusal`] when the plan can't be made.
pub fn unpacking_guide(
    inputs: &ShipmentInputs,
    house: &House,
) -> Result<Option<UnpackingGuide>, Vec<Refusal>> {
    let worked = Workings::out(inputs, house)?;
    Ok(worked.plan.map(|plan| UnpackingGuide::of(&plan, inputs)))
}

fn planned(
    inputs: &ShipmentInputs,
    house: &House,
) -> Result<Option<(Plan, PackView)>, Vec<Refusal>> {
    let worked = Workings::out(inputs, house)?;
    let Some(plan) = worked.plan else {
        return Ok(None);
    };
    let list = rehearsed(&plan, inputs, house)?;
    let view = PackView::of(list.steps, &inputs.packed).seen(list.rehearsal.stills);
    Ok(Some((plan, view)))
}

/// A packing list with its rehearsal.
#[derive(Debug, Clone)]
pub struct Rehearsed {
    /// The pieces, in the order of the plan.
    pub pieces: Vec<Piece>,
    /// Every step.
    pub steps: Vec<PackStep>,
    /// What hands make of them.
    pub rehearsal: Rehearsal,
}

/// Returns the steps of packing a plan of a shipment, and what a rehearsal of them comes to.
///
/// # Errors
/// A [`Refusal`] when the piece can't be read.
pub fn rehearsed(
    plan: &Plan,
    inputs: &ShipmentInputs,
    house: &House,
) -> Result<Rehearsed, Vec<Refusal>> {
    let commission = match inputs.piece()? {
        Some(piece) => Some(Commission::of(inputs, piece, house)?),
        None => None,
    };
    let pieces = commission.iter().flat_map(Commission::pieces);
    let pieces: Vec<&Piece> = pieces.collect();
    let steps = match &commission {
        Some(commission) => pack_steps(plan, &pieces, &commission.rules, &house.catalogue),
        None => Vec::new(),
    };
    Ok(Rehearsed {
        rehearsal: Rehearsal::of(&steps, &pieces),
        pieces: pieces.into_iter().cloned().collect(),
        steps,
    })
}

/// Returns the steps of packing a plan of a shipment.
///
/// # Errors
/// A [`Refusal`] when the piece can't be read.
pub(crate) fn steps_of(
    plan: &Plan,
    inputs: &ShipmentInputs,
    house: &House,
) -> Result<Vec<PackStep>, Vec<Refusal>> {
    let Some(piece) = inputs.piece()? else {
        return Ok(Vec::new());
    };
    let commission = Commission::of(inputs, piece, house)?;
    Ok(pack_steps(
        plan,
        &commission.pieces(),
        &commission.rules,
        &house.catalogue,
    ))
}

/// Returns the ticks of a shipment once it is known what layouts have cut for it, their cutting steps done.
///
/// # Errors
/// A [`Refusal`] when the plan can't be made.
pub fn ticks_with_layouts(
    inputs: &ShipmentInputs,
    house: &House,
    cut: &[SheetPart],
    at: &str,
) -> Result<BTreeMap<String, StepTick>, Vec<Refusal>> {
    let worked = Workings::out_in(inputs, house, Detail::LEAST)?;
    let steps = match &worked.plan {
        Some(plan) => steps_of(plan, inputs, house)?,
        None => Vec::new(),
    };
    Ok(ticked_by_layouts(&inputs.packed, &steps, cut, at))
}

impl ShipmentInputs {
    /// Tells whether somebody has begun to pack it: a step was ticked by hand. What a layout cut is taken off the shelf by the layout.
    #[must_use]
    pub fn is_begun(&self) -> bool {
        self.packed.values().any(|tick| tick.sheet.is_empty())
    }
}

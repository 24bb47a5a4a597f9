//! The pads that would meet a fall, as the studio can cut them.

use serde::Serialize;

use super::fall::{FRONT, Study};
use crate::{
    layer::{LONGEST_LEG, Layer, Supplies},
    material::{Foam, MaterialId},
    quantity::{Area, Force, Length, Shock, Stress},
    space::LayerSlot,
};

/// Pads that would meet a fall, of the foam of the house.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PadAnswer {
    /// What they are added as.
    pub slot: LayerSlot,
    /// Of which foam.
    pub foam: MaterialId,
    /// What that is called.
    pub foam_name: String,
    /// How far corner blocks reach along each edge; nothing for face pads.
    #[serde(rename = "leg_mm")]
    pub leg: Option<Length>,
    /// Worked out.
    #[serde(rename = "thickness_mm")]
    pub thickness: Length,
    /// As the studio can cut it.
    #[serde(rename = "cut_mm")]
    pub cut: Length,
    /// On one side, all pads together.
    #[serde(rename = "area_cm2")]
    pub area_cm2: f64,
    /// Whether long load, and not the fall, set the area.
    pub held_by_creep: bool,
    /// Whether so light a piece wants less area and not more foam.
    pub too_much_area: bool,
}

/// The pads that would meet a fall by themselves: of the house's foam, or of the first other one of which
/// four pads stand firm.
pub(super) fn answer(
    study: &Study<'_>,
    (struck, limit): (usize, Shock),
    drop: Length,
    supplies: &Supplies<'_>,
    layers: &[Layer],
) -> Option<PadAnswer> {
    let house = &supplies.rules.materials.pad_foam;
    let shelf = &supplies.catalogue.foams;
    let first = shelf.iter().filter(|foam| foam.id == *house);
    let others = shelf
        .iter()
        .filter(|foam| foam.id != *house && !foam.shelf.retired && !foam.sheds);
    let wanted: Vec<PadAnswer> = first
        .chain(others)
        .filter_map(|foam| answer_of(study, (struck, limit), drop, foam, layers))
        .collect();
    let firm = wanted.iter().find(|answer| answer.stands_firm());
    firm.or(wanted.first()).cloned()
}

fn answer_of(
    study: &Study<'_>,
    (struck, limit): (usize, Shock),
    drop: Length,
    foam: &Foam,
    layers: &[Layer],
) -> Option<PadAnswer> {
    let best = foam.curve.best_within(study.mass, drop, limit)?;
    let face = struck == FRONT;
    let cut = foam.thickness_from(best.pad.thickness)?;
    let slot = if face {
        LayerSlot::FacePads
    } else {
        LayerSlot::CornerBlocks
    };
    let stress = layers
        .iter()
        .find(|layer| layer.slot == slot && layer.material == foam.id)
        .and_then(|layer| layer.cushioning)
        .and_then(|cushioning| {
            if face {
                cushioning.front
            } else {
                cushioning.up
            }
        })
        .and_then(|there| there.area)
        .map(|area| Stress::of(Force::weight_of(study.mass), area));
    let too_much_area =
        stress.is_some_and(|stress| stress * limit.as_times_gravity() <= foam.curve.start);
    let leg = (!face).then(|| leg_for(best.pad.area, cut, study, layers));
    // What needs more than this of the short edge is a pad all along it.
    let short = study.outside.across.min(study.outside.up);
    let (slot, leg) = match leg {
        Some(leg) if leg > short * LONGEST_LEG => (LayerSlot::EdgePads, None),
        leg => (slot, leg),
    };
    // Four pads lie within the face.
    if face && best.pad.area > study.outside.face() * WITHIN_FACE {
        return None;
    }
    Some(PadAnswer {
        slot,
        foam: foam.id.clone(),
        foam_name: foam.name.clone(),
        leg,
        thickness: best.pad.thickness,
        cut,
        area_cm2: best.pad.area.as_m2() * CM2_PER_M2,
        held_by_creep: best.held_by_creep,
        too_much_area,
    })
}

/// The leg with which two blocks on an edge bear on an area beside what lies within the cushion.
fn leg_for(area: Area, thickness: Length, study: &Study<'_>, layers: &[Layer]) -> Length {
    let core = layers
        .iter()
        .take_while(|layer| !layer.is_cushion())
        .filter(|layer| layer.slot < LayerSlot::Box)
        .last()
        .map_or(study.outside, |layer| layer.envelope);
    let bears = Length::mm(area.as_m2() / 2.0 / core.through.as_m() * MM_PER_M);
    (thickness + bears)
        .max(thickness * 2.0)
        .rounded_up_to(WHOLE_MM)
}

/// Four pads that lie apart cover at most so much of a face.
const WITHIN_FACE: f64 = 0.81;
const WHOLE_MM: Length = Length::mm(1.0);
/// How many pads lie on the face, at its corners.
const PADS: f64 = 4.0;

impl PadAnswer {
    /// Tells whether each of four pads is wide enough for its thickness not to lean.
    fn stands_firm(&self) -> bool {
        let side = self.cut.as_mm() * LEAST_PAD_SIDE;
        const MM2_PER_CM2: f64 = 100.0;
        self.slot != LayerSlot::FacePads || self.area_cm2 / PADS >= side * side / MM2_PER_CM2
    }
}

/// A pad narrower than so many times its thickness leans.
pub(in crate::plan) const LEAST_PAD_SIDE: f64 = 1.33;

const CM2_PER_M2: f64 = 1e4;
const MM_PER_M: f64 = 1e3;

//! What a plan survives: falls in five ways, a corner that presses in, and a stack.

mod answer;
mod fall;
mod load;

pub use answer::PadAnswer;
pub use fall::{FallCase, FallReport};
pub use load::{PressReport, StackReport};

pub(super) use answer::LEAST_PAD_SIDE;

use serde::Serialize;

use super::recipe::Recipe;
use crate::{
    cushion::{CushionCurve, DamageBoundary, drop_by},
    house::Carriage,
    layer::{Envelope, Layer, LayerSlot, Supplies},
    material::MaterialId,
    piece::{Fragility, Piece},
    quantity::{Force, Length, Mass, Stress},
};
use fall::{FRONT, Sides, Study};

/// A cushion before the face, as it stands on its curve.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FaceCushion {
    /// The first layer of it.
    pub slot: LayerSlot,
    /// What it is.
    pub material: MaterialId,
    /// What that is called.
    pub material_name: String,
    /// How it takes up a fall.
    pub curve: CushionCurve,
    /// Of all layers of it together.
    #[serde(rename = "thickness_mm")]
    pub thickness: Length,
    /// Under what it carries.
    #[serde(rename = "static_kpa")]
    pub static_stress: Stress,
}

/// What a plan survives.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Survival {
    /// What the piece can take.
    pub fragility: Fragility,
    /// The corner of its damage boundary, for knocks on the face.
    pub boundary: DamageBoundary,
    /// Inside the cushion.
    #[serde(rename = "cushioned_g")]
    pub cushioned: Mass,
    /// Each way to fall; none where nothing cushions, or past the weight that is dropped by custom.
    pub falls: Vec<FallReport>,
    /// The cushions before the face, from the art outward.
    pub face: Vec<FaceCushion>,
    /// A corner that presses in; nothing where the boards' stiffness is not known.
    pub press: Option<PressReport>,
    /// What the box bears on its edge; nothing where it can't be reckoned.
    pub stack: Option<StackReport>,
}

impl Survival {
    /// Returns what a plan survives.
    ///
    /// Source: packaging engineering practice and plate theory, as their modules say.
    pub(super) fn of(
        piece: &Piece,
        supplies: &Supplies<'_>,
        recipe: &Recipe,
        layers: &[Layer],
        parcel: (Envelope, Mass),
        piece_mass: Mass,
    ) -> Self {
        let (outside, parcel_mass) = parcel;
        let rolled = recipe.carriage == Carriage::Rolled;
        let fragility = Fragility::of(piece, rolled);
        let sides = Sides::of(layers);
        let cushioned = piece_mass
            + layers
                .iter()
                .take_while(|layer| layer.cushioning.is_none())
                .map(|layer| layer.weight.mass)
                .sum();
        let study = Study {
            sides: &sides,
            outside,
            mass: cushioned,
            fragility,
        };
        let custom = drop_by(supplies.allowances().drop_heights(), parcel_mass)
            .map(|drop| drop * supplies.allowances().drop_factor);
        let falls = custom
            .filter(|_| !rolled)
            .map(|custom| fall::falls(&study, custom, supplies, layers))
            .unwrap_or_default();
        Self {
            fragility,
            boundary: study.boundary(&[FRONT]),
            cushioned,
            falls,
            face: face_cushions(layers, cushioned),
            press: load::press(piece, supplies, layers),
            stack: load::stack(supplies, layers, parcel_mass),
        }
    }
}

/// The cushions before the face; layers of one material that lie on each other are one.
fn face_cushions(layers: &[Layer], mass: Mass) -> Vec<FaceCushion> {
    let mut found: Vec<FaceCushion> = Vec::new();
    for layer in layers {
        let Some((curve, face)) = layer
            .cushioning
            .and_then(|cushioning| Some((cushioning.curve, cushioning.front?)))
        else {
            continue;
        };
        let stress = Stress::of(Force::weight_of(mass), face.area);
        match found.last_mut() {
            Some(last) if last.material == layer.material => {
                last.thickness += face.thickness;
                last.static_stress = last.static_stress.max(stress);
            }
            _ => found.push(FaceCushion {
                slot: layer.slot,
                material: layer.material.clone(),
                material_name: layer.material_name.clone(),
                curve,
                thickness: face.thickness,
                static_stress: stress,
            }),
        }
    }
    found
}

//! Materials of a plan whose price in the studio's money nobody has typed yet.

use serde::Serialize;

use super::Plan;
use crate::material::{Catalogue, MaterialClass, MaterialId};

/// A material whose price is not known yet.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct UnpricedMaterial {
    /// The material.
    pub material: MaterialId,
    /// Name of the material.
    pub name: String,
    /// List of the catalogue that holds it, where its price is typed.
    pub class: MaterialClass,
}

/// Returns the materials of a plan that have no price yet, each once, from the art outward.
pub(super) fn of(plan: &Plan, catalogue: &Catalogue) -> Vec<UnpricedMaterial> {
    let mut all: Vec<UnpricedMaterial> = Vec::new();
    let parts = plan.every_layer().flat_map(|layer| &layer.parts);
    for part in parts.filter(|part| part.unpriced) {
        if all.iter().any(|known| known.material == part.material) {
            continue;
        }
        let mut classes = MaterialClass::ALL.into_iter();
        if let Some(class) = classes.find(|class| catalogue.holds(*class, &part.material)) {
            all.push(UnpricedMaterial {
                material: part.material.clone(),
                name: part.material_name.clone(),
                class,
            });
        }
    }
    all
}

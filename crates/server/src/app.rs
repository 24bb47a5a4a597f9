//! What every handler works with.

use std::sync::Arc;

use hummock_core::{
    plan::References,
    quantity::LengthUnit,
    shipment::{House, ShipmentInputs, Worked},
};
use hummock_store::{Computed, Recomputed, Store, StudioId};

use crate::{clock::Clock, problem::Problem};

/// The studio that is served, where it is kept, and what day it is.
#[derive(Debug, Clone)]
pub struct App {
    /// Where everything is kept.
    pub store: Store,
    /// Whose it is.
    pub studio: StudioId,
    /// What day it is.
    pub clock: Clock,
    /// The Standard packs that plans are compared with; they follow from the pieces alone.
    pub references: Arc<References>,
}

/// Whether a shipment keeps the preset that was picked for it, once something is chosen by hand.
#[derive(Debug, Clone, Copy)]
pub(crate) enum Kept<'a> {
    /// Nothing is stored: the table is asked.
    Asked,
    /// It is stored, and this is what it was before.
    Since(Option<&'a ShipmentInputs>),
}

/// Inputs that can stand, with what follows from them.
pub(crate) struct Outcome {
    pub inputs: ShipmentInputs,
    pub worked: Worked,
    pub rules_version: u32,
}

impl App {
    pub(crate) async fn house(&self) -> Result<House, Problem> {
        let references = Arc::clone(&self.references);
        Ok(self.store.house(self.studio, references).await?)
    }

    /// Works out every shipment by a house; one that it can't plan keeps what it has.
    pub(crate) async fn recomputed(&self, house: &House) -> Result<Vec<Recomputed>, Problem> {
        let listed = self.store.shipments(self.studio).await?;
        let recomputed = listed.into_iter().filter_map(|shipment| {
            let worked = Worked::out(&shipment.inputs, house).ok()?;
            Some(Recomputed {
                id: shipment.id,
                version: shipment.version,
                computed: computed(&worked, &shipment.inputs, house.rules.version),
            })
        });
        Ok(recomputed.collect())
    }

    /// Checks inputs and works out what follows, by the rules of the house as they are now.
    pub(crate) async fn outcome(
        &self,
        inputs: ShipmentInputs,
        unit: LengthUnit,
        kept: Kept<'_>,
    ) -> Result<Outcome, Problem> {
        let house = self.house().await?;
        let mut inputs = inputs.checked(unit, self.clock.today())?;
        if let Kept::Since(before) = kept {
            inputs = inputs.keeping_preset(before, &house);
        }
        let worked = Worked::out(&inputs, &house)?;
        Ok(Outcome {
            inputs,
            worked,
            rules_version: house.rules.version,
        })
    }
}

impl Outcome {
    pub(crate) fn computed(&self) -> Computed {
        computed(&self.worked, &self.inputs, self.rules_version)
    }
}

/// Returns what is stored of what was worked out.
pub(crate) fn computed(worked: &Worked, inputs: &ShipmentInputs, rules_version: u32) -> Computed {
    Computed {
        worked: serde_json::to_value(worked).expect("what is worked out can be written"),
        summary: worked.summary(inputs),
        rules_version,
    }
}

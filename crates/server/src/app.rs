//! What every handler works with.

use hummock_core::{
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
}

/// Inputs that can stand, with what follows from them.
pub(crate) struct Outcome {
    pub inputs: ShipmentInputs,
    pub worked: Worked,
    pub rules_version: u32,
}

impl App {
    pub(crate) async fn house(&self) -> Result<House, Problem> {
        Ok(self.store.house(self.studio).await?)
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
    ) -> Result<Outcome, Problem> {
        let house = self.house().await?;
        let inputs = inputs.checked(unit, self.clock.today())?;
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

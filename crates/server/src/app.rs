//! What every handler works with.

use std::{sync::Arc, time::Duration};

use hummock_core::{
    Refusal,
    quantity::LengthUnit,
    shipment::{House, ShipmentInputs, Worked},
};
use hummock_store::{Computed, HouseAt, Store, StudioId};

use crate::{
    backup::Backups,
    clock::Clock,
    documents::Documents,
    houses::Houses,
    network::{Attempts, Network, OneAtATime},
    outside::{Carriers, Scale},
    pages::PageShelf,
    photographs::Pictures,
    problem::Problem,
    rework::Bell,
    ways::Exploring,
};

/// The studio that is served, where it is kept, and what day it is.
#[derive(Debug, Clone)]
pub struct App {
    /// Where everything is kept.
    pub store: Store,
    /// Whose it is.
    pub studio: StudioId,
    /// What day it is.
    pub clock: Clock,
    /// The house, as it was last read.
    pub houses: Arc<Houses>,
    /// Rung when the house has changed.
    pub bell: Bell,
    /// The web build.
    pub pages: Arc<PageShelf>,
    /// How devices of the local network reach it, when they may.
    pub network: Option<Arc<Network>>,
    /// Who makes documents.
    pub documents: Documents,
    /// Where photographs lie.
    pub pictures: Pictures,
    /// An answer that takes longer is given up.
    pub(crate) longest_answer: Duration,
    /// The scale on the bench.
    pub(crate) scale: Scale,
    /// The carriers' own services.
    pub(crate) carriers: Carriers,
    /// Whoever looks for ways takes every core: one at a time.
    pub(crate) exploring: Exploring,
    /// Whether both are only stand-ins.
    pub(crate) stand_in: bool,
    /// Backups of the whole studio.
    pub(crate) backups: Backups,
    /// Wrong passphrases.
    pub(crate) attempts: Arc<Attempts>,
    /// Turns at having a passphrase looked at.
    pub(crate) turns: OneAtATime,
}

/// What inputs follow on.
#[derive(Debug, Clone, Copy)]
pub(crate) enum Follows<'a> {
    /// Nothing, and nothing is stored.
    Asked,
    /// Nothing: they are to be stored.
    Nothing,
    /// These, which are stored.
    Stored(&'a ShipmentInputs),
}

/// Inputs that can stand, with what follows from them by a house.
pub(crate) struct Outcome {
    pub inputs: ShipmentInputs,
    pub worked: Worked,
    pub house: Arc<HouseAt>,
}

/// Work that met a change of the house is done this often at most.
const ATTEMPTS: u32 = 16;

/// Attempts at work that depends on the house.
pub(crate) struct Tries<'a> {
    app: &'a App,
    left: u32,
}

impl Tries<'_> {
    /// Returns the house to do it by.
    ///
    /// # Errors
    /// A [`Problem`] when it has been done often enough.
    pub(crate) async fn next(&mut self) -> Result<Arc<HouseAt>, Problem> {
        self.left = self.left.checked_sub(1).ok_or_else(Problem::busy)?;
        self.app.house().await
    }
}

impl App {
    /// Returns the house as it is now.
    pub(crate) async fn house(&self) -> Result<Arc<HouseAt>, Problem> {
        Ok(self.houses.now(&self.store, self.studio).await?)
    }

    /// Begins work that depends on the house, and that is done again where it changed meanwhile.
    pub(crate) const fn tries(&self) -> Tries<'_> {
        Tries {
            app: self,
            left: ATTEMPTS,
        }
    }

    /// Checks inputs and works out what follows from them by a house.
    ///
    /// A plan that can't be made is a refusal, unless what they follow on had none for the same reason: then it is
    /// stored that way, so that everything else can still be put right.
    pub(crate) fn outcome(
        &self,
        house: Arc<HouseAt>,
        inputs: ShipmentInputs,
        unit: LengthUnit,
        follows: Follows<'_>,
    ) -> Result<Outcome, Problem> {
        let today = self.clock.today();
        let (inputs, before) = match follows {
            Follows::Asked => (inputs.checked(unit, today)?, None),
            Follows::Nothing => {
                let inputs = inputs.checked(unit, today)?;
                (inputs.to_be_kept(None, &house.house), None)
            }
            Follows::Stored(before) => {
                let inputs = inputs.checked_since(before, unit, today)?;
                (inputs.to_be_kept(Some(before), &house.house), Some(before))
            }
        };
        let worked = Worked::out_or_refused(&inputs, &house.house);
        let anew = newly_refused(&inputs, &worked, before, &house.house);
        if !anew.is_empty() {
            return Err(anew.into());
        }
        Ok(Outcome {
            inputs,
            worked,
            house,
        })
    }
}

/// Returns what an edit would bring about that stands against a plan: everything where there was a plan before, else
/// what it changed itself.
fn newly_refused(
    inputs: &ShipmentInputs,
    worked: &Worked,
    before: Option<&ShipmentInputs>,
    house: &House,
) -> Vec<Refusal> {
    if worked.refusals.is_empty() {
        return Vec::new();
    }
    let mut refusals = worked.refusals.clone();
    let Some(before) = before else {
        return refusals;
    };
    let known = Worked::out_or_refused(before, house).refusals;
    if !known.is_empty() {
        let document = |inputs| serde_json::to_value(inputs).expect("inputs can be written");
        let (then, now) = (document(before), document(inputs));
        refusals.retain(|refusal| {
            let path = format!("/{}", refusal.field.replace('.', "/"));
            !known.contains(refusal) && then.pointer(&path) != now.pointer(&path)
        });
    }
    refusals
}

impl Outcome {
    pub(crate) fn computed(&self) -> Computed {
        computed(&self.worked, &self.inputs, &self.house)
    }
}

/// Returns what is stored of what was worked out by a house.
pub(crate) fn computed(worked: &Worked, inputs: &ShipmentInputs, house: &HouseAt) -> Computed {
    Computed {
        worked: serde_json::to_value(worked).expect("what is worked out can be written"),
        summary: worked.summary(inputs),
        rules_version: house.house.rules.version,
        house: house.version,
    }
}

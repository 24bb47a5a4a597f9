//! The desk that a request is answered at: whose studio it is, and who asks.

use std::{sync::Arc, time::Duration};

use axum::{extract::FromRequestParts, http::request::Parts};
use hummock_core::{
    Refusal, Refusals,
    plan::Detail,
    quantity::LengthUnit,
    shipment::{House, ShipmentInputs, Workings, refused_by_hands},
};
use hummock_store::{Computed, HouseAt, StoreError, StudioId, StudioStore, Written};

use crate::{app::App, clock::StudioClock, network::Caller, outside::Carriers, problem::Problem};

/// A device that is signed out by another process is noticed after this.
const LOOKS_AFTER_DEVICES: Duration = Duration::from_secs(5);

/// One studio, as one request works with it.
#[derive(Debug, Clone)]
pub(crate) struct Desk {
    /// What the process has for all studios.
    pub app: App,
    /// What this studio keeps.
    pub store: StudioStore,
    /// Who asks.
    pub caller: Caller,
    /// What day it is where the studio is.
    pub clock: StudioClock,
    /// Whether the studio is the demo.
    pub demo: bool,
}

impl FromRequestParts<App> for Desk {
    type Rejection = Problem;

    /// The door says whose it is and who asks, before any handler runs.
    async fn from_request_parts(parts: &mut Parts, app: &App) -> Result<Self, Problem> {
        let studio = parts.extensions.get::<StudioId>();
        let caller = parts.extensions.get::<Caller>();
        let (studio, caller) = studio.zip(caller).ok_or_else(Problem::slip)?;
        Ok(Self::of(app, *studio, *caller).await?)
    }
}

/// Where somebody stands who is not let in yet.
#[derive(Debug, Clone)]
pub(crate) struct Doorstep {
    /// What the process has for all studios.
    pub app: App,
    /// What the studio keeps behind this door.
    pub store: StudioStore,
}

impl FromRequestParts<App> for Doorstep {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, app: &App) -> Result<Self, Problem> {
        let studio = parts.extensions.get::<StudioId>();
        let studio = *studio.ok_or_else(Problem::slip)?;
        Ok(Self {
            app: app.clone(),
            store: app.store.of(studio),
        })
    }
}

/// What inputs follow on.
#[derive(Debug, Clone, Copy)]
pub(crate) enum Follows<'a> {
    /// Nothing, and nothing is stored: it is told in some detail.
    Asked(Detail),
    /// Nothing: they are to be stored.
    Nothing,
    /// These, which are stored.
    Stored(&'a ShipmentInputs),
}

/// Inputs that can stand, with what follows from them by a house.
pub(crate) struct Outcome {
    pub inputs: ShipmentInputs,
    pub worked: Workings,
    pub house: Arc<HouseAt>,
}

/// Work that met a change of the house is done this often at most.
const ATTEMPTS: u32 = 16;

/// Attempts at work that depends on the house.
pub(crate) struct Tries<'a> {
    desk: &'a Desk,
    left: u32,
}

impl Tries<'_> {
    /// Returns the house to do it by.
    ///
    /// # Errors
    /// A [`Problem`] when it has been done often enough.
    pub(crate) async fn next(&mut self) -> Result<Arc<HouseAt>, Problem> {
        self.left = self.left.checked_sub(1).ok_or_else(Problem::busy)?;
        self.desk.house().await
    }
}

impl Desk {
    /// Returns the desk of a studio for somebody.
    ///
    /// # Errors
    /// [`StoreError`].
    pub(crate) async fn of(
        app: &App,
        studio: StudioId,
        caller: Caller,
    ) -> Result<Self, StoreError> {
        let store = app.store.of(studio);
        let house = app.jobs.houses.lately(&store).await?;
        let zone = house.zone.clone();
        Ok(Self {
            demo: house.demo,
            app: app.clone(),
            store,
            caller,
            clock: app.clock.of(zone),
        })
    }

    /// Returns whose it is.
    pub(crate) const fn studio(&self) -> StudioId {
        self.store.studio()
    }

    /// Waits until whoever asks is signed out; the machine itself never is.
    ///
    /// Somebody who signs them out here is noticed at once, and through another process within seconds.
    pub(crate) fn until_signed_out(&self) -> impl Future<Output = ()> + Send + 'static + use<> {
        let (caller, store) = (self.caller, self.store.clone());
        let rung = Arc::clone(&self.app.entrance.signed_out);
        async move {
            let Caller::Device(id) = caller else {
                return std::future::pending().await;
            };
            loop {
                let ring = rung.notified();
                // Where the database can't say, the stream goes on until it can.
                if matches!(store.is_signed_in(id).await, Ok(false)) {
                    return;
                }
                tokio::select! {
                    () = ring => {}
                    () = tokio::time::sleep(LOOKS_AFTER_DEVICES) => {}
                }
            }
        }
    }

    /// Returns the carriers' own services; none of them can be asked while the studio is held.
    pub(crate) async fn carriers(&self) -> Result<Carriers, Problem> {
        let services = self.store.carrier_services().await?;
        let whose = (self.studio(), self.demo);
        let carriers = self.app.outside.carriers.of(whose, services);
        Ok(match self.store.is_held().await? {
            true => carriers.held(),
            false => carriers,
        })
    }

    /// Says whether the studio may ask a carrier to do something.
    ///
    /// # Errors
    /// A [`Problem`] while the studio, read in from a backup, waits for its owner's word.
    pub(crate) async fn may_speak(&self) -> Result<(), Problem> {
        match self.store.is_held().await? {
            true => Err(Problem::copy_asks_first()),
            false => Ok(()),
        }
    }

    /// Returns the house as it is now.
    pub(crate) async fn house(&self) -> Result<Arc<HouseAt>, Problem> {
        Ok(self.app.jobs.houses.now(&self.store).await?)
    }

    /// Returns the house for what is told and not kept: a change that another process made is seen within a second.
    pub(crate) async fn house_lately(&self) -> Result<Arc<HouseAt>, Problem> {
        Ok(self.app.jobs.houses.lately(&self.store).await?)
    }

    /// Begins work that depends on the house, and that is done again where it changed meanwhile.
    pub(crate) const fn tries(&self) -> Tries<'_> {
        Tries {
            desk: self,
            left: ATTEMPTS,
        }
    }

    /// Checks inputs that something is asked about, and puts their sums into the studio's money.
    pub(crate) fn asked_inputs(
        &self,
        house: &HouseAt,
        inputs: ShipmentInputs,
        unit: LengthUnit,
    ) -> Result<ShipmentInputs, Problem> {
        let bare = house.house.rules.bare(unit);
        Ok(in_own_money(inputs, &house.house)?.checked(bare, self.clock.today())?)
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
        let bare = house.house.rules.bare(unit);
        let inputs = in_own_money(inputs, &house.house)?;
        let (inputs, before, detail) = match follows {
            Follows::Asked(detail) => (inputs.checked(bare, today)?, None, detail),
            Follows::Nothing => {
                let inputs = inputs.checked(bare, today)?;
                let kept = inputs.to_be_kept(None, &house.house);
                (kept, None, Detail::WHOLE)
            }
            Follows::Stored(before) => {
                let inputs = inputs.checked_since(before, bare, today)?;
                let kept = inputs.to_be_kept(Some(before), &house.house);
                (kept, Some(before), Detail::WHOLE)
            }
        };
        let worked = Workings::out_or_refused_in(&inputs, &house.house, detail);
        let anew = newly_refused(&inputs, &worked, before, &house.house);
        if !anew.is_empty() {
            return Err(anew.into());
        }
        if let Some(before) = before {
            let chosen = (&inputs, worked.plan.as_ref());
            let by_hands = refused_by_hands(before, chosen, &house.house);
            if !by_hands.is_empty() {
                return Err(by_hands.into());
            }
        }
        Ok(Outcome {
            inputs,
            worked,
            house,
        })
    }
}

/// Returns inputs with their sums in the studio's money.
pub(crate) fn in_own_money(
    inputs: ShipmentInputs,
    house: &House,
) -> Result<ShipmentInputs, Vec<Refusal>> {
    let own = &house.catalogue.currency;
    inputs
        .in_money_of(&house.rules, own)
        .map_err(|refusal| vec![refusal])
}

/// Returns what an edit would bring about that stands against a plan: everything where there was a plan before, else
/// what it changed itself.
fn newly_refused(
    inputs: &ShipmentInputs,
    worked: &Workings,
    before: Option<&ShipmentInputs>,
    house: &House,
) -> Vec<Refusal> {
    if worked.refusals.is_empty() {
        return Vec::new();
    }
    let mut refusals = Refusals::from(worked.refusals.clone());
    let Some(before) = before else {
        return refusals.into();
    };
    let known = Workings::out_or_refused(before, house).refusals;
    if !known.is_empty() {
        let document = |inputs| serde_json::to_value(inputs).expect("inputs can be written");
        let (then, now) = (document(before), document(inputs));
        refusals.retain(|refusal| {
            let path = format!("/{}", refusal.field.replace('.', "/"));
            !known.contains(refusal) && then.pointer(&path) != now.pointer(&path)
        });
    }
    refusals.into()
}

impl Outcome {
    pub(crate) fn computed(&self) -> Computed {
        computed(&self.worked, &self.inputs, &self.house)
    }
}

/// Returns what is stored of what was worked out by a house.
pub(crate) fn computed(worked: &Workings, inputs: &ShipmentInputs, house: &HouseAt) -> Computed {
    Computed {
        worked: Written::of(worked),
        summary: worked.summary(inputs),
        rules_version: house.house.rules.version,
        house: house.version,
    }
}

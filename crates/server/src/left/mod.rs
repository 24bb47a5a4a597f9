//! Parcels that left. A parcel's plan, prices and papers are written to one file when it is handed over: its handover record. Every page
//! and paper of the parcel is told from that file, so that a change of the program, the house rules or the prices does not touch them.

mod printed;
mod record;
mod recording;
mod views;

pub(crate) use record::{KeptPaper, Record, opens};
pub(crate) use recording::{PACK_SHEET, keep_records};
pub(crate) use views::{LeftView, routes};

use std::sync::Arc;

use hummock_core::shipment::{ShipmentInputs, Workings};
use hummock_store::{PastState, RecordKey, Stored, Written};
use quick_cache::sync::Cache;

use crate::{desk::Desk, problem::Problem};

/// How many records are kept in memory: an open parcel asks for its own several times over.
const MOST_KEPT: usize = 32;

/// The records that were read last.
#[derive(Debug, Clone)]
pub(crate) struct Records(Arc<Cache<RecordKey, Arc<Record>>>);

impl Default for Records {
    fn default() -> Self {
        Self(Arc::new(Cache::new(MOST_KEPT)))
    }
}

/// How the record of a parcel that left was found.
#[derive(Debug, Clone)]
pub(crate) enum Recorded {
    /// As it was written.
    Whole(Arc<Record>),
    /// There is no file of it.
    Missing,
    /// Its file is not what its name says.
    Broken,
    /// It is not written yet: its row holds what there is.
    NotYet,
}

impl Recorded {
    pub(crate) fn whole(&self) -> Option<&Arc<Record>> {
        match self {
            Self::Whole(record) => Some(record),
            Self::Missing | Self::Broken | Self::NotYet => None,
        }
    }
}

impl Desk {
    /// Returns the handover record of a parcel; `None` while it is at work.
    pub(crate) async fn record_of(&self, stored: &Stored) -> Result<Option<Recorded>, Problem> {
        if stored.handed.is_none() {
            return Ok(None);
        }
        let Some(key) = &stored.record else {
            return Ok(Some(Recorded::NotYet));
        };
        let Records(known) = &self.app.jobs.records;
        if let Some(record) = known.get(key) {
            return Ok(Some(Recorded::Whole(record)));
        }
        let pictures = &self.app.pictures;
        let Some(bytes) = pictures.read(self.studio(), key).await? else {
            return Ok(Some(Recorded::Missing));
        };
        let Some(record) = Record::read(key, &bytes) else {
            return Ok(Some(Recorded::Broken));
        };
        let record = Arc::new(record);
        known.insert(key.clone(), Arc::clone(&record));
        Ok(Some(Recorded::Whole(record)))
    }

    /// Returns a parcel that left with the plan that it left with; its record is written first where there is none yet.
    pub(crate) async fn as_it_left(
        &self,
        mut stored: Stored,
    ) -> Result<(Stored, Option<Recorded>), Problem> {
        if stored.handed.is_some() && stored.record.is_none() {
            let id = stored.id;
            // It is seldom and large: nobody who only reads holds the room for it.
            match Box::pin(self.write_record(id)).await {
                Ok(()) => {
                    let now = self.store.shipment(id).await?;
                    stored = now.ok_or_else(|| Problem::not_found("shipment of that id"))?;
                }
                // Its row still holds what it was.
                Err(error) => {
                    tracing::error!(shipment = %id, ?error, "the record of a parcel can't be written")
                }
            }
        }
        let found = self.record_of(&stored).await?;
        match &found {
            Some(Recorded::Whole(record)) => {
                stored.computed.worked = Written::of(record.worked());
                if let Some(handed) = &mut stored.handed {
                    handed.unpacking = record.unpacking().or(handed.unpacking.take());
                }
            }
            Some(Recorded::Missing | Recorded::Broken) => {
                stored.computed.worked = self.nothing_planned().await?;
            }
            Some(Recorded::NotYet) | None => {}
        }
        Ok((stored, found))
    }

    /// Returns the states that a parcel can be taken back to once it is at work again; `None` while it is. There are none where the studio
    /// counts in other money since: their sums are in the former one.
    pub(crate) async fn history_of(
        &self,
        stored: &Stored,
    ) -> Result<Option<Vec<PastState>>, Problem> {
        let Some(found) = self.record_of(stored).await? else {
            return Ok(None);
        };
        let house = self.house().await?;
        let own = house.house.catalogue.currency;
        let record = found.whole().filter(|record| record.facts.currency == own);
        Ok(Some(
            record.map(|record| record.history()).unwrap_or_default(),
        ))
    }

    /// Returns an empty plan, to be shown for a parcel whose handover record is missing or broken.
    async fn nothing_planned(&self) -> Result<Written, Problem> {
        let house = self.house_lately().await?;
        let nothing = Workings::out_or_refused(&ShipmentInputs::default(), &house.house);
        let nothing = Workings {
            missing: Vec::new(),
            ..nothing
        };
        Ok(Written::of(&nothing))
    }
}

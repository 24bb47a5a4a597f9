//! Writing handover records: once a parcel is handed over, all that it was is written to one file, and its row drops what the file holds.

use std::time::{Duration, Instant};

use hummock_core::{material::MaterialClass, shipment::packing};
use hummock_store::{HouseAt, StoreError, Stored};
use serde_json::{Value, json};
use uuid::Uuid;

use super::record::{KeptPaper, PlannedBy, Record, Rows, Told};
use crate::{
    app::App,
    desk::Desk,
    documents::{DrawnOf, drawings_of},
    leaving::{ParcelPaper, ToLeave},
    network::Caller,
    plans::Pricing,
    problem::Problem,
    rework::beside,
};

/// How many parcels without a record are fetched at a time.
const BATCH: u32 = 50;
/// What could not be written is tried again after this.
const LOOK_AGAIN: Duration = Duration::from_secs(60);
/// A parcel that others write to is read so often at most.
const TRIES: u32 = 8;
/// The name of the pack sheet among the papers of a record.
pub(crate) const PACK_SHEET: &str = "pack_sheet";

/// Writes the records that are missing, as long as the program runs: of what left before there were any, and those that could not be written
/// at the handover.
pub(crate) async fn keep_records(app: App) {
    loop {
        match app.store.studios().await {
            Ok(studios) => {
                for studio in studios {
                    let written = async {
                        let desk = Desk::of(&app, studio, Caller::Machine).await?;
                        desk.write_all().await
                    };
                    match written.await {
                        Ok(0) => {}
                        Ok(many) => tracing::info!(
                            parcels = many,
                            "records of parcels that left are written"
                        ),
                        // One that can't be read is no reason to leave out the others.
                        Err(error) => {
                            tracing::error!(%studio, %error, "the records of its parcels can't be written");
                        }
                    }
                }
            }
            Err(error) => tracing::warn!(%error, "parcels that left can't be looked for"),
        }
        tokio::time::sleep(LOOK_AGAIN).await;
    }
}

impl Desk {
    async fn write_all(&self) -> Result<usize, StoreError> {
        let (mut written, mut last) = (0, None);
        loop {
            let ids = self.store.all_unrecorded(last, BATCH).await?;
            let Some(end) = ids.last() else {
                return Ok(written);
            };
            last = Some(*end);
            for id in ids {
                let begun = Instant::now();
                match self.write_record(id).await {
                    Ok(()) => written += 1,
                    Err(error) => {
                        tracing::error!(shipment = %id, ?error, "the record of a parcel can't be written");
                    }
                }
                // Half of the time belongs to whoever works meanwhile.
                tokio::time::sleep(begun.elapsed()).await;
            }
        }
    }

    /// Writes the record of a parcel that left, if there is none: its file is on the disk before its row says so.
    pub(super) async fn write_record(&self, id: Uuid) -> Result<(), Problem> {
        for _ in 0..TRIES {
            let Some(unrecorded) = self.store.unrecorded(id).await? else {
                return Ok(());
            };
            let stored = self.store.shipment(id).await?;
            let Some(stored) = stored.filter(|stored| stored.version == unrecorded.version) else {
                continue;
            };
            let rows: Rows = serde_json::from_value(unrecorded.record).map_err(|error| {
                tracing::error!(shipment = %id, %error, "the rows of a parcel can't be read");
                Problem::slip()
            })?;
            let record = self.record_now(stored, rows).await?;
            let (key, bytes) = beside(move || record.written()).await;
            let size = bytes.len();
            let pictures = &self.app.pictures;
            pictures.keep(self.studio(), &key, bytes.into()).await?;
            if self
                .store
                .keep_record(&key, unrecorded.version, size)
                .await?
            {
                let papers = ParcelPaper::ALL.map(ParcelPaper::key);
                let papers = papers.into_iter().chain([PACK_SHEET]);
                self.forget_printed(id, papers).await;
                return Ok(());
            }
            // Somebody was faster; who wrote the very same names it too.
            let known = self.store.known_records(std::slice::from_ref(&key.digest));
            if known.await?.is_empty() {
                pictures.forget(self.studio(), &key).await;
            }
        }
        Err(Problem::busy())
    }

    async fn record_now(&self, stored: Stored, rows: Rows) -> Result<Record, Problem> {
        let leaves = self.leaves_now(stored).await?;
        let mark = self.store.mark().await?;
        let told = Box::pin(self.told_of(&leaves)).await?;
        Ok(Record::of(rows, leaves.facts, told, mark.as_deref()))
    }

    /// Returns what pages and papers say of a parcel. What follows from its plan is kept only if the plan is the very one that it left
    /// with: what an earlier program planned, this one may plan otherwise.
    async fn told_of(&self, leaves: &ToLeave) -> Result<Told, Problem> {
        let mut told = Told {
            leaving: Some(json!(self.leaving_now(leaves).await?)),
            ..Told::default()
        };
        let Some(live) = leaves.live() else {
            return Ok(told);
        };
        let was = &leaves.stored.computed.worked.read();
        let now = serde_json::to_value(&live.worked).map_err(|_| Problem::slip())?;
        let same = |part: &str| was[part] == now[part];
        let same_plan = same("plan") && !was["plan"].is_null();
        for paper in ParcelPaper::ALL {
            if !same_plan && paper.follows_the_plan() || paper == ParcelPaper::Claim {
                continue;
            }
            let kept = match self.printed_last(leaves, paper.key()).await? {
                Some(printed) => Some(printed),
                None => self.says(leaves, paper).await.ok(),
            };
            told.papers
                .extend(kept.map(|kept| (paper.key().to_owned(), kept)));
        }
        if !same_plan {
            return Ok(told);
        }
        let sheet = match self.printed_last(leaves, PACK_SHEET).await? {
            Some(printed) => Some(printed),
            None => {
                let known = self.known_of(&leaves.stored).await?;
                let sheet = leaves.pack_sheet(&known).ok();
                sheet.map(|says| KeptPaper::new(PACK_SHEET.to_owned(), says, Vec::new()))
            }
        };
        told.papers
            .extend(sheet.map(|sheet| (PACK_SHEET.to_owned(), sheet)));
        let (inputs, house) = (leaves.stored.inputs.clone(), live.house.clone());
        let both = beside(move || {
            let steps = packing(&inputs, &house.house).ok().flatten();
            let priced = Pricing::of(&inputs, &house.house).ok();
            (json!(steps), priced.map(|priced| json!(priced)))
        });
        let (steps, priced) = both.await;
        told.packing = Some(steps).filter(|steps| !steps.is_null());
        told.pricing = priced.filter(|_| same("quotes"));
        for of in [DrawnOf::Blank, DrawnOf::Pocket] {
            let drawings = drawings_of(&live.worked, of, &leaves.stored.inputs, leaves.telling());
            told.drawings.insert(of.key().to_owned(), drawings);
        }
        told.planned_by = Some(planned_by(&live.house, was));
        Ok(told)
    }
}

/// Returns the rules and the materials that a plan follows from.
fn planned_by(house: &HouseAt, worked: &Value) -> PlannedBy {
    let mut named = std::collections::BTreeSet::new();
    named_materials(worked, &mut named);
    let catalogue = &house.house.catalogue;
    let all = MaterialClass::ALL
        .into_iter()
        .flat_map(|class| catalogue.class(class));
    let is_in_it = |material: &Value| material["id"].as_str().is_some_and(|id| named.contains(id));
    PlannedBy {
        rules: json!(house.house.rules),
        materials: all.filter(is_in_it).collect(),
    }
}

/// Gathers the ids that stand for materials, wherever they are.
fn named_materials<'a>(of: &'a Value, named: &mut std::collections::BTreeSet<&'a str>) {
    match of {
        Value::Object(fields) => {
            for (key, value) in fields {
                match value {
                    Value::String(id) if key == "material" => {
                        named.insert(id);
                    }
                    other => named_materials(other, named),
                }
            }
        }
        Value::Array(list) => list.iter().for_each(|one| named_materials(one, named)),
        _ => {}
    }
}

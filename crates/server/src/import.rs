//! Loading a studio from a folder of open data files.
//!
//! The folder holds `studio.json`, `house-rules.json`, `catalogue.json`, `tariffs/*.json` and, if wanted,
//! `shipments.json` and, with them, what is on the shelf: `shelf.csv`, and the parcels that left before: `weighed.json` and
//! `log.json`.

use std::{
    collections::{BTreeMap, BTreeSet},
    path::Path,
    sync::Arc,
};

use anyhow::{Context, Result, bail};
use hummock_core::{
    house::HouseRules,
    material::{Catalogue, MaterialClass},
    pack::StepTick,
    quantity::LengthUnit,
    sending::HandedParcel,
    shipment::{EDITION, House, ShipmentInputs, Workings, packing},
};
use hummock_store::{
    HouseAt, NewShipment, Place, SettingRefused, Settings, Store, StudioId, StudioStore,
};
use jiff::{SignedDuration, ToSpan, civil::Date};
use serde::{Deserialize, de::DeserializeOwned};
use uuid::Uuid;

use crate::{clock::Clock, desk::computed, shelf_table::read_shelf};

/// What an import did.
#[derive(Debug, Clone, Copy)]
pub struct Imported {
    /// The studio of that name.
    pub studio: StudioId,
    /// Whether it was created now; one that was there already is left as it is.
    pub created: bool,
    /// How many shipments were added.
    pub shipments: usize,
}

/// Shipments in a file, with the day on which their dates were right.
#[derive(Debug, Deserialize)]
#[serde(deny_unknown_fields)]
struct ShipmentFile {
    /// Dates are moved along with it, so that a demonstration never goes stale.
    #[serde(default)]
    as_of: Option<Date>,
    shipments: Vec<ShipmentInputs>,
}

/// What a new studio begins with.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Fill {
    /// All that the folder has.
    Everything,
    /// All but `log.json`: the parcels of the months before last.
    WithoutLog,
    /// All but shipments and shelf.
    NoShipments,
    /// Nothing of anybody's: the usual rules and materials alone.
    Nobody,
}

/// Returns the house of a studio that is nobody's: the usual rules, the materials, no carriers, no rates of exchange, and no
/// places.
///
/// # Panics
/// Never: what is in the program was read by its tests.
#[must_use]
pub(crate) fn nobodys_house() -> House {
    let rules = serde_json::from_str(include_str!("../../../demo/house-rules.json"));
    let mut rules: HouseRules = rules.expect("the rules are in the program");
    rules.odds = Arc::default();
    rules.rates = Vec::new();
    let catalogue = serde_json::from_str(include_str!("../../../demo/catalogue.json"));
    let catalogue: Catalogue = catalogue.expect("the materials are in the program");
    House {
        rules,
        catalogue: catalogue.of_nobody(),
        tariffs: Vec::new(),
        presets: Vec::new(),
        references: Arc::default(),
        now: None,
    }
}

/// Loads a studio from a folder when the database has none of that name.
///
/// # Errors
/// When a file is missing or is not what it should be (the message names it), or the database fails.
pub async fn import(
    store: &Store,
    name: &str,
    folder: &Path,
    fill: Fill,
    clock: Clock,
) -> Result<Imported> {
    // Two that start at once take it in one after the other; who is killed lets go of it.
    let _turn = store.turn_to_take_in(name).await?;
    if let Some(studio) = store.studio_named(name).await? {
        if store.is_taken_in(studio).await? {
            if fill == Fill::Nobody {
                tracing::warn!(
                    "a studio is kept here already: it is opened as it is; for an empty one beside it press \"Set up my own studio\", or name another folder with --data"
                );
            }
            // The folder may be gone by now: the studio has all that it needs.
            if let Ok(house) = read_house(folder) {
                top_up(&store.of(studio), &house.catalogue).await?;
            }
            return Ok(Imported {
                studio,
                created: false,
                shipments: 0,
            });
        }
        tracing::warn!("the start files were taken in half-way: they are taken in anew");
        store.drop_half_taken_in(studio).await?;
    }
    let (settings, house) = match fill {
        Fill::Nobody => (Settings::of_nobody(), nobodys_house()),
        Fill::Everything | Fill::WithoutLog | Fill::NoShipments => {
            (read(&folder.join("studio.json"))?, read_house(folder)?)
        }
    };
    let studio = store.begin_studio(name, &settings, &house).await?;
    let shipments = take_in(&store.of(studio), folder, &settings, fill, clock).await?;
    store.mark_taken_in(studio).await?;
    Ok(Imported {
        studio,
        created: true,
        shipments,
    })
}

/// Takes shipments and shelf of a folder into a studio that was just begun; returns how many shipments.
async fn take_in(
    store: &StudioStore,
    folder: &Path,
    settings: &Settings,
    fill: Fill,
    clock: Clock,
) -> Result<usize> {
    let left: &[&str] = match fill {
        Fill::Everything => &["weighed.json", "log.json"],
        Fill::WithoutLog => &["weighed.json"],
        Fill::NoShipments | Fill::Nobody => return Ok(0),
    };
    let file = folder.join("shipments.json");
    if !file.exists() {
        return Ok(0);
    }
    let shipments = read_shipments(&file, clock.today())?;
    let house = store.house(Arc::default()).await?;
    let shelf = folder.join("shelf.csv");
    if shelf.exists() {
        read_in(store, &shelf, &house.house.catalogue).await?;
    }
    // What is at work is looked at by the minute that it is there: a promise may be missed.
    let mut at_work = house.clone();
    at_work.house.now = Some(clock.of(house.zone.clone()).now());
    for inputs in &shipments {
        let new = worked_out(inputs, &at_work, settings.unit, clock)
            .with_context(|| format!("\"{}\" in {}", inputs.title, file.display()))?;
        store.create(&new).await?;
    }
    for file in left {
        put_away(store, &folder.join(file), &house, (settings.unit, clock)).await?;
    }
    Ok(shipments.len())
}

/// Takes parcels that went out before, each as it was weighed, into the archive.
async fn put_away(
    store: &StudioStore,
    file: &Path,
    house: &HouseAt,
    (unit, clock): (LengthUnit, Clock),
) -> Result<()> {
    if !file.exists() {
        return Ok(());
    }
    for inputs in read_shipments(file, clock.today())? {
        let inputs = &all_ticked(inputs, &house.house)?;
        let new = worked_out(inputs, house, unit, clock)
            .with_context(|| format!("\"{}\" in {}", inputs.title, file.display()))?;
        store.create(&new).await?;
        store.put(new.id, Place::Archive).await?;
    }
    Ok(())
}

/// Ticks every step of a parcel that left, one after the other on the day before, as long as each takes.
fn all_ticked(inputs: ShipmentInputs, house: &House) -> Result<ShipmentInputs> {
    let Some(day) = inputs.handed_over().and_then(|day| day.yesterday().ok()) else {
        return Ok(inputs);
    };
    let view = packing(&inputs, house).map_err(|refusals| refused(&refusals))?;
    let mut at = day.at(9, 0, 0, 0);
    let mut packed = BTreeMap::new();
    for one in view.into_iter().flat_map(|view| view.steps) {
        let tick = StepTick {
            at: at.strftime("%Y-%m-%dT%H:%M:%SZ").to_string(),
            print: one.step.print,
            sheet: String::new(),
        };
        packed.insert(one.step.key, tick);
        at = at.checked_add(SignedDuration::from_secs_f64(
            one.step.minutes.as_min() * 60.0,
        ))?;
    }
    Ok(ShipmentInputs { packed, ..inputs })
}

/// Puts on the shelf what a table says.
async fn read_in(store: &StudioStore, file: &Path, catalogue: &Catalogue) -> Result<()> {
    let table = std::fs::read_to_string(file)
        .with_context(|| format!("{} can't be read", file.display()))?;
    let items = read_shelf(&table, catalogue).map_err(|refusals| {
        let says: Vec<String> = refusals.iter().map(ToString::to_string).collect();
        anyhow::anyhow!("{}: {}", file.display(), says.join("; "))
    })?;
    store.put_on_shelf(&items).await?;
    Ok(())
}

/// Fills what stores of an earlier edition do not record from the starting catalogue: whole classes, and fields of materials of the same
/// id. Shares of hazards that nobody changed become those of today. What is there besides is left as it is.
async fn top_up(store: &StudioStore, start: &Catalogue) -> Result<()> {
    if store.catalogue_edition().await? >= EDITION {
        return Ok(());
    }
    let HouseAt { version, house, .. } = store.house(Arc::default()).await?;
    let odds = house.rules.odds.with_pierced();
    if odds != *house.rules.odds {
        let rules = HouseRules {
            version: house.rules.version + 1,
            odds: Arc::new(odds),
            ..house.rules
        };
        match store.change_rules(version, &rules).await {
            // Another process of this edition was first.
            Err(SettingRefused::Stale { .. } | SettingRefused::HouseMoved) => return Ok(()),
            Err(refused) => return Err(refused.into()),
            Ok(()) => {}
        }
    }
    let HouseAt {
        version,
        stores_version,
        house,
        ..
    } = store.house(Arc::default()).await?;
    let mut stores = serde_json::to_value(&house.catalogue)?;
    let start = serde_json::to_value(start)?;
    for class in MaterialClass::ALL {
        let (Some(shelf), Some(first)) = (
            stores[class.key()].as_array_mut(),
            start[class.key()].as_array(),
        ) else {
            continue;
        };
        if shelf.is_empty() {
            shelf.clone_from(first);
        }
        for material in shelf {
            let known = first.iter().find(|known| known["id"] == material["id"]);
            if let (Some(fields), Some(known)) = (
                material.as_object_mut(),
                known.and_then(serde_json::Value::as_object),
            ) {
                for (key, value) in known {
                    fields.entry(key).or_insert_with(|| value.clone());
                }
            }
        }
    }
    let topped_up: Catalogue = serde_json::from_value(stores)?;
    match store
        .change_catalogue(version, stores_version, &topped_up)
        .await
    {
        // Another process of this edition was first.
        Ok(_) | Err(SettingRefused::Stale { .. } | SettingRefused::HouseMoved) => Ok(()),
        Err(refused) => Err(refused.into()),
    }
}

/// Returns the ids of the price lists that start files hold; none where there are no such files.
pub(crate) fn tariffs_of_demo(folder: &Path) -> BTreeSet<String> {
    let house = read_house(folder);
    let tariffs = house.map(|house| house.tariffs).unwrap_or_default();
    tariffs.into_iter().map(|tariff| tariff.id).collect()
}

fn read_house(folder: &Path) -> Result<House> {
    let mut tariffs = Vec::new();
    let mut files: Vec<_> = std::fs::read_dir(folder.join("tariffs"))
        .with_context(|| format!("there are no tariffs in {}", folder.display()))?
        .collect::<Result<_, _>>()?;
    files.sort_by_key(std::fs::DirEntry::file_name);
    for file in files {
        tariffs.push(read(&file.path())?);
    }
    let house = House {
        rules: read(&folder.join("house-rules.json"))?,
        catalogue: read(&folder.join("catalogue.json"))?,
        tariffs,
        presets: Vec::new(),
        references: Arc::default(),
        now: None,
    };
    for tariff in &house.tariffs {
        if let Err(refusals) = tariff.checked() {
            bail!("the tariff {}: {}", tariff.id, sentences(&refusals));
        }
    }
    if let Err(refusals) = house.rules.check() {
        bail!("house-rules.json: {}", sentences(&refusals));
    }
    Ok(house)
}

fn read_shipments(file: &Path, today: Date) -> Result<Vec<ShipmentInputs>> {
    let ShipmentFile {
        as_of,
        mut shipments,
    } = read(file)?;
    let days = as_of.map_or(0, |day| (today - day).get_days());
    for inputs in &mut shipments {
        move_day(&mut inputs.promised, days)?;
        move_day(&mut inputs.piece.finished, days)?;
        move_day(&mut inputs.piece.varnished_on, days)?;
        move_day(&mut inputs.sending.handed_over, days)?;
        move_day(&mut inputs.after.on, days)?;
        move_day(&mut inputs.after.claim.sent_on, days)?;
        move_day(&mut inputs.after.claim.decided_on, days)?;
    }
    Ok(shipments)
}

fn move_day(day: &mut Option<String>, days: i32) -> Result<()> {
    if let Some(text) = day {
        let read: Date = text
            .parse()
            .with_context(|| format!("\"{text}\" is not a date"))?;
        *text = read.checked_add(days.days())?.to_string();
    }
    Ok(())
}

fn worked_out(
    inputs: &ShipmentInputs,
    house: &HouseAt,
    unit: LengthUnit,
    clock: Clock,
) -> Result<NewShipment> {
    let inputs = inputs
        .clone()
        .checked(house.house.rules.bare(unit), clock.today())
        .map_err(|refusals| refused(&refusals))?
        .to_be_kept(None, &house.house);
    let out = |house: &House| Workings::out(&inputs, house).map_err(|refusals| refused(&refusals));
    let mut worked = out(&house.house)?;
    // What is not dry says so on the day.
    let cure = worked.plan.as_ref().and_then(|plan| plan.cure.as_ref());
    if cure.is_some_and(|cure| !cure.is_cured_by(clock.today())) {
        worked = out(&House {
            now: Some(clock.of(None).now()),
            ..house.house.clone()
        })?;
    }
    let computed = computed(&worked, &inputs, house);
    Ok(NewShipment {
        edit: None,
        id: Uuid::now_v7(),
        handed: match inputs.handed_over() {
            Some(_) => {
                HandedParcel::of(&inputs, &house.house).map_err(|refusals| refused(&refusals))?
            }
            None => None,
        },
        inputs,
        computed,
    })
}

fn refused(refusals: &[hummock_core::Refusal]) -> anyhow::Error {
    anyhow::anyhow!(sentences(refusals))
}

fn sentences(refusals: &[hummock_core::Refusal]) -> String {
    refusals
        .iter()
        .map(ToString::to_string)
        .collect::<Vec<_>>()
        .join("; ")
}

fn read<T: DeserializeOwned>(file: &Path) -> Result<T> {
    let text = std::fs::read_to_string(file)
        .with_context(|| format!("{} can't be read", file.display()))?;
    serde_json::from_str(&text)
        .with_context(|| format!("{} is not what it should be", file.display()))
}

//! A backup of every studio every night, into a folder: a few of each are kept.

use std::{
    collections::{BTreeMap, HashMap},
    io,
    path::{Path, PathBuf},
    sync::{Arc, Mutex, PoisonError},
    time::Duration,
};

use hummock_store::StudioId;
use jiff::{Zoned, civil::Date};
use serde::Serialize;
use uuid::Uuid;

use super::{
    album, sealing,
    state::Count,
    terminal::{self, Place, Saving},
};
use crate::{app::App, clock::Clock};

/// Where backups are written of themselves, and by what they are sealed.
#[derive(Clone)]
pub struct Nightly {
    folder: PathBuf,
    passphrase: Option<String>,
    looks: Duration,
    /// Why the last one of a studio was not made, where it wasn't.
    failed: Arc<Mutex<HashMap<StudioId, String>>>,
}

/// Never told: it holds the passphrase.
impl std::fmt::Debug for Nightly {
    fn fmt(&self, to: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        to.debug_struct("Nightly")
            .field("folder", &self.folder)
            .finish_non_exhaustive()
    }
}

/// From this hour on, while hardly anybody works.
const HOUR: i8 = 2;
const LOOKS: Duration = Duration::from_secs(60);
/// As many days, weeks and months are kept, each by its last backup.
const DAYS: usize = 7;
const WEEKS: usize = 4;
const MONTHS: usize = 12;

/// How backups of every night stand.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct NightlyView {
    /// The folder that they are written into.
    folder: String,
    /// Whether they are sealed with a passphrase.
    sealed: bool,
    /// The last one that is there; `None` if there is none yet.
    last: Option<NightView>,
    /// How many are there.
    kept: usize,
    /// Why the last one was not made; `None` if it was.
    failed: Option<String>,
}

/// A backup of a night.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct NightView {
    /// The day on which it was made.
    #[cfg_attr(feature = "schema", schema(value_type = String, format = Date))]
    on: Date,
    /// How many days ago that was.
    days_ago: i32,
    /// Its size.
    bytes: u64,
    /// The name of its file.
    file: String,
}

impl Nightly {
    /// Into a folder, sealed where there is a passphrase.
    ///
    /// # Errors
    /// When the folder can't be made, or the passphrase is none.
    pub fn into(folder: PathBuf, passphrase: Option<String>) -> anyhow::Result<Self> {
        use anyhow::Context as _;

        std::fs::create_dir_all(&folder)
            .with_context(|| format!("backups can't be kept in {}", folder.display()))?;
        if let Some(passphrase) = &passphrase {
            anyhow::ensure!(
                sealing::is_one(passphrase),
                "a passphrase is one line of 1 to 1000 characters"
            );
        }
        Ok(Self {
            folder,
            passphrase,
            looks: LOOKS,
            failed: Arc::default(),
        })
    }

    /// Looks this often whether one is due.
    #[must_use]
    pub fn looking_every(self, looks: Duration) -> Self {
        Self { looks, ..self }
    }

    fn failed(&self) -> std::sync::MutexGuard<'_, HashMap<StudioId, String>> {
        self.failed.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// Returns the days of the backups of a studio that are there, each with the name of its file.
    fn there(&self, studio: StudioId) -> io::Result<BTreeMap<Date, String>> {
        let mut found = BTreeMap::new();
        for entry in std::fs::read_dir(&self.folder)? {
            let Ok(name) = entry?.file_name().into_string() else {
                continue;
            };
            if let Some(day) = day_of(studio.id(), &name) {
                found.insert(day, name);
            }
        }
        Ok(found)
    }

    fn file_of(&self, studio: StudioId, day: Date) -> PathBuf {
        file_in(&self.folder, studio.id(), day, self.passphrase.is_some())
    }

    /// Tells how the backups of a studio stand.
    pub(super) fn view(&self, studio: StudioId, today: Date) -> NightlyView {
        let there = self.there(studio);
        let failed = match &there {
            Err(error) => Some(format!("the folder can't be read: {error}")),
            Ok(_) => self.failed().get(&studio).cloned(),
        };
        let there = there.unwrap_or_default();
        let last = there.last_key_value().map(|(on, file)| NightView {
            on: *on,
            days_ago: (today - *on).get_days(),
            bytes: std::fs::metadata(self.folder.join(file)).map_or(0, |found| found.len()),
            file: file.clone(),
        });
        NightlyView {
            folder: self.folder.display().to_string(),
            sealed: self.passphrase.is_some(),
            last,
            kept: there.len(),
            failed,
        }
    }

    /// Makes today's backup of a studio, if it is due and not there, and takes away what is kept no longer.
    async fn look(&self, app: &App, studio: StudioId) -> anyhow::Result<()> {
        let (clock, today) = (app.clock, app.clock.today());
        let is_late = match clock {
            Clock::Machine => Zoned::now().hour() >= HOUR,
            Clock::Standing(_) => true,
        };
        let there = self.there(studio)?;
        // Somebody who was away for a night or a week is not left without until the next one.
        let newest = there.last_key_value().map(|(day, _)| *day);
        let is_behind = newest.is_none_or(|day| (today - day).get_days() > 1);
        if there.contains_key(&today) || !(is_late || is_behind) {
            return Ok(());
        }
        let store = &app.store.of(studio);
        if store.holdings().await?.is_empty() {
            return Ok(());
        }
        let saving = Saving {
            pictures: &app.pictures,
            documents: &app.documents,
            clock,
        };
        let file = self.file_of(studio, today);
        let count = Arc::new(Count::default());
        let passphrase = self.passphrase.as_deref();
        let place = Place::InFolder(file);
        let (_, broken) = terminal::written_to(store, &saving, passphrase, &place, &count).await?;
        if !broken.is_empty() {
            tracing::warn!(
                many = broken.len(),
                "pictures or handover records are missing in the backup of the night"
            );
        }
        self.thin_out(studio)?;
        Ok(())
    }

    /// Takes away what is kept no longer.
    fn thin_out(&self, studio: StudioId) -> io::Result<()> {
        let there = self.there(studio)?;
        let days: Vec<Date> = there.keys().copied().collect();
        let kept = kept_of(&days);
        for (day, name) in there {
            if !kept.contains(&day) {
                let file = self.folder.join(name);
                std::fs::remove_file(&file)?;
                // One of before lists none.
                let _ = std::fs::remove_file(album::list_of(&file));
            }
        }
        album::clear_unlisted(&self.folder)
    }
}

/// Makes a backup of every studio every night, until it is dropped.
pub(crate) async fn every_night(app: App) {
    let Some(nightly) = &app.nightly else {
        return;
    };
    let folder = nightly.folder.clone();
    let cleared = tokio::task::spawn_blocking(move || terminal::clear_unfinished(&folder)).await;
    if let Ok(Err(error)) = cleared {
        tracing::warn!(%error, "unfinished backups can't be taken away");
    }
    let mut looks = tokio::time::interval(nightly.looks);
    looks.set_missed_tick_behavior(tokio::time::MissedTickBehavior::Delay);
    loop {
        looks.tick().await;
        let studios = match app.store.studios().await {
            Ok(studios) => studios,
            Err(error) => {
                tracing::error!(%error, "no backup of the night can be made");
                continue;
            }
        };
        for studio in studios {
            // One that can't be saved is no reason to leave out the others.
            match nightly.look(&app, studio).await {
                Ok(()) => nightly.failed().remove(&studio),
                Err(error) => {
                    tracing::error!(%studio, %error, "the backup of the night was not made");
                    nightly.failed().insert(studio, format!("{error:#}"))
                }
            };
        }
    }
}

const ENDS: &str = ".zip";

/// Where the backup of a studio and a day lies.
pub(super) fn file_in(folder: &Path, studio: Uuid, day: Date, sealed: bool) -> PathBuf {
    let sealed = if sealed { sealing::ENDS } else { "" };
    folder.join(format!("{}-{day}{ENDS}{sealed}", name_of(studio)))
}

/// What the names of the backups of a studio begin with. Two names of studios may read alike once a folder can hold them; ids don't.
pub(super) fn name_of(studio: Uuid) -> String {
    format!("hummock-{studio}")
}

fn day_of(studio: Uuid, name: &str) -> Option<Date> {
    let rest = name.strip_prefix(&name_of(studio))?.strip_prefix('-')?;
    let rest = rest.strip_suffix(sealing::ENDS).unwrap_or(rest);
    rest.strip_suffix(ENDS)?.parse().ok()
}

/// Returns which of some days, the first one first, keep their backup: the last seven, and the last day of each of the last
/// four weeks and twelve months that have one.
fn kept_of(days: &[Date]) -> Vec<Date> {
    fn last_of<K: PartialEq>(days: &[Date], most: usize, of: impl Fn(Date) -> K) -> Vec<Date> {
        let mut kept: Vec<Date> = Vec::new();
        for day in days.iter().rev() {
            if kept.last().is_none_or(|last| of(*last) != of(*day)) {
                kept.push(*day);
            }
        }
        kept.truncate(most);
        kept
    }
    let week = |day: Date| {
        let week = day.iso_week_date();
        (week.year(), week.week())
    };
    let mut kept = last_of(days, DAYS, |day| day);
    kept.extend(last_of(days, WEEKS, week));
    kept.extend(last_of(days, MONTHS, |day| (day.year(), day.month())));
    kept.sort();
    kept.dedup();
    kept
}

#[cfg(test)]
mod tests {
    use jiff::{ToSpan as _, civil::date};
    use proptest::{collection::vec, prelude::*};

    use super::*;

    #[test]
    fn the_names_of_files_say_whose_and_of_which_day() {
        let [own, other] = [7, 8].map(Uuid::from_u128);
        let day = date(2027, 3, 4);
        let name = format!("{}-2027-03-04.zip", name_of(own));
        assert_eq!(
            name,
            "hummock-00000000-0000-0000-0000-000000000007-2027-03-04.zip"
        );
        assert_eq!(day_of(own, &name), Some(day));
        assert_eq!(day_of(own, &format!("{name}.age")), Some(day));
        assert_eq!(day_of(other, &name), None);
        for strange in [
            format!("{name}.part"),
            name.replace("03-04", "02-30"),
            name.replace("hummock-", ""),
        ] {
            assert_eq!(day_of(own, &strange), None, "{strange}");
        }
    }

    #[test]
    fn a_year_of_nights_leaves_seven_days_four_weeks_and_twelve_months() {
        // From 1 January 2026 to 4 March 2027, a Thursday: 26 February to 4 March; of the weeks that end on 28 February, 21 February
        // and 14 February their Sundays, of which the first is among the days; and the last days of April 2026 to February 2027.
        let mut kept: Vec<Date> = Vec::new();
        let mut day = date(2026, 1, 1);
        while day <= date(2027, 3, 4) {
            kept.push(day);
            kept = kept_of(&kept);
            day = day.tomorrow().expect("a day");
        }
        let mut wanted: Vec<Date> = (0..7).map(|ago| date(2027, 3, 4) - ago.days()).collect();
        wanted.extend([date(2027, 2, 21), date(2027, 2, 14)]);
        wanted.extend((4..=12).map(|month| date(2026, month, 1).last_of_month()));
        wanted.extend([date(2027, 1, 31), date(2027, 2, 28)]);
        wanted.sort();
        wanted.dedup();
        assert_eq!(kept, wanted);
    }

    proptest! {
        /// With nights left out at random: what was thinned out night by night keeps what all of them together would, never more than
        /// twenty-three, and the newest always.
        #[test]
        fn thinning_out_every_night_loses_nothing_that_thinning_out_once_keeps(gaps in vec(1_i64..40, 1..200)) {
            let mut all = Vec::new();
            let mut kept: Vec<Date> = Vec::new();
            let mut day = date(2026, 1, 1);
            for gap in gaps {
                day = day.checked_add(gap.days()).expect("a day");
                all.push(day);
                kept.push(day);
                kept = kept_of(&kept);
                prop_assert_eq!(kept.last(), Some(&day));
                prop_assert!(kept.len() <= DAYS + WEEKS + MONTHS);
                prop_assert_eq!(&kept, &kept_of(&all));
            }
        }
    }
}

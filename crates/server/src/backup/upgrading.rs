//! Tables brought up to date, once every studio in them is saved.

use std::{path::PathBuf, sync::Arc};

use anyhow::{Context as _, Result, bail};
use hummock_store::Store;

use super::{
    nightly::name_of,
    state::Count,
    terminal::{self, Saving},
};

/// Tables of earlier editions hold other lists than a backup is made of.
const FIRST_EDITION: i64 = 10;

/// What becomes of tables of an earlier edition.
#[derive(Debug, Clone)]
pub enum Upgrade {
    /// Each studio is written to this folder first, and read back.
    Saved(PathBuf),
    /// They are changed without a backup: their owner said so.
    WithoutBackup,
}

/// Brings the tables up to date. Where they are of an earlier edition, every studio is saved first; returns how many were.
///
/// # Errors
/// When a studio can't be saved, or its tables are too old for that: they are as they were then, and the message says what to do.
pub(crate) async fn brought_up_to_date(
    store: &Store,
    upgrade: &Upgrade,
    saving: &Saving<'_>,
) -> Result<usize> {
    let saved = match (store.earlier_edition().await?, upgrade) {
        (Some(edition), Upgrade::Saved(folder)) => {
            saved_before(store, edition, folder, saving).await?
        }
        (Some(edition), Upgrade::WithoutBackup) => {
            tracing::warn!(
                edition,
                "the tables are brought up to date without a backup"
            );
            0
        }
        (None, _) => 0,
    };
    store.bring_up_to_date().await?;
    Ok(saved)
}

async fn saved_before(
    store: &Store,
    edition: i64,
    folder: &std::path::Path,
    saving: &Saving<'_>,
) -> Result<usize> {
    if edition < FIRST_EDITION {
        bail!(
            "the tables are of edition {edition}, and only those from edition {FIRST_EDITION} on can be saved before they are changed: \
             make a copy of the database with pg_dump, then start once with --without-backup"
        );
    }
    std::fs::create_dir_all(folder).with_context(|| {
        format!(
            "{} can't be made: name another folder with --upgrade-backups, or --without-backup to change the tables without one",
            folder.display()
        )
    })?;
    let studios = store.studios().await?;
    for studio in &studios {
        let store = &store.of(*studio);
        let name = format!(
            "{}-{}-edition-{edition}.zip",
            name_of(studio.id()),
            saving.clock.today()
        );
        let file = folder.join(name);
        let count = Arc::new(Count::default());
        // The release whose tables these are reads it again: it knows of no pictures beside a file.
        let place = terminal::Place::File(file.clone());
        terminal::written_to(store, saving, None, &place, &count)
            .await
            .with_context(|| {
                format!(
                    "the studio can't be saved to {} before its tables are changed, so they are left as they are; mend that, or start \
                     once with --without-backup",
                    file.display()
                )
            })?;
        tracing::warn!(file = %file.display(), "saved before its tables are changed");
    }
    Ok(studios.len())
}

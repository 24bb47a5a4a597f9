//! A backup of every studio before its tables are changed.

use std::{path::Path, sync::Arc};

use anyhow::{Context as _, Result};
use hummock_store::Store;

use super::{nightly::plain_name, state::Count, terminal};
use crate::{clock::Clock, pictures::Pictures, press::Documents};

/// Tables of earlier editions hold other lists than a backup is made of.
const FIRST_EDITION: i64 = 11;

/// Writes every studio that has shipments to a folder, if the tables are of an earlier edition than the program; returns how many were.
///
/// # Errors
/// When a backup can't be made: the tables are as they were.
pub(crate) async fn saved_before(
    store: &Store,
    pictures: &Pictures,
    documents: &Documents,
    clock: Clock,
    folder: &Path,
) -> Result<usize> {
    let Some(edition) = store.earlier_edition().await? else {
        return Ok(0);
    };
    if edition < FIRST_EDITION {
        tracing::warn!(
            edition,
            "tables of so early an edition are brought up to date without a backup"
        );
        return Ok(0);
    }
    let mut saved = 0;
    for studio in store.studios().await? {
        let store = &store.of(studio);
        if store.holdings().await?.shipments == 0 {
            continue;
        }
        std::fs::create_dir_all(folder)
            .with_context(|| format!("{} can't be made", folder.display()))?;
        let name = plain_name(&studio.to_string());
        let file = folder.join(format!("{name}-{}-edition-{edition}.zip", clock.today()));
        let from = terminal::Studio {
            store,
            pictures,
            documents,
        };
        let count = Arc::new(Count::default());
        terminal::written_to(&from, clock, None, &file, &count)
            .await
            .with_context(|| {
                format!(
                    "the studio can't be saved to {} before its tables are changed, so they are left as they are",
                    file.display()
                )
            })?;
        tracing::warn!(file = %file.display(), "saved before its tables are changed");
        saved += 1;
    }
    Ok(saved)
}

//! Where photographs lie, and handover records: in a folder beside the data, or in an S3-compatible store.

use std::{
    collections::HashMap,
    io::{ErrorKind, Write as _},
    path::{Path, PathBuf},
    sync::{Arc, Mutex, PoisonError},
};

use anyhow::{Context as _, Result};
use axum::body::Bytes;
use hummock_store::{PictureKey, RecordKey, StudioId};
#[cfg(feature = "s3")]
use object_store::{ObjectStore, ObjectStoreExt as _, PutPayload, path::Path as Place};
use sha2::{Digest as _, Sha256};

use crate::problem::Problem;

/// No file is larger; a browser sends less.
pub(crate) const LARGEST: usize = 12 << 20;

/// Where pictures and handover records lie.
#[derive(Debug, Clone)]
pub struct Pictures(Arc<Kept>);

/// What names a file in the folder of its studio.
pub(crate) trait Filed {
    /// Returns where it lies in that folder.
    fn name(&self) -> String;
}

impl Filed for PictureKey {
    fn name(&self) -> String {
        match &self.digest {
            Some(digest) => format!("{}-{}.jpg", self.id, hex(digest)),
            None => format!("{}.jpg", self.id),
        }
    }
}

impl Filed for RecordKey {
    fn name(&self) -> String {
        format!("{RECORDS}/{}-{}{RECORD}", self.shipment, hex(&self.digest))
    }
}

/// The folder of a studio's handover records.
const RECORDS: &str = "handover-records";
/// What the name of a record says at its end.
const RECORD: &str = ".json.zst";

/// Reads bytes from digits.
pub(crate) fn bytes_of(digits: &str) -> Option<Vec<u8>> {
    let byte = |at: usize| u8::from_str_radix(digits.get(at..at + 2)?, 16).ok();
    (0..digits.len()).step_by(2).map(byte).collect()
}

/// Writes bytes as digits.
pub(crate) fn hex(bytes: &[u8]) -> String {
    bytes.iter().map(|byte| format!("{byte:02x}")).collect()
}

#[derive(Debug)]
enum Kept {
    /// A folder for each studio, in this one.
    Folder(PathBuf),
    Memory(Mutex<HashMap<String, Bytes>>),
    #[cfg(feature = "s3")]
    Bucket(Box<dyn ObjectStore>),
}

impl Pictures {
    /// In a folder, which is made where it is missing.
    ///
    /// # Errors
    /// When it can't be made or used.
    pub fn in_folder(folder: impl Into<PathBuf>) -> Result<Self> {
        let folder = folder.into();
        let says = || format!("photographs can't be kept in {}", folder.display());
        std::fs::create_dir_all(&folder).with_context(says)?;
        Ok(Self(Arc::new(Kept::Folder(folder))))
    }

    /// In memory, for as long as it is served: for tests.
    #[must_use]
    pub fn in_memory() -> Self {
        Self(Arc::new(Kept::Memory(Mutex::default())))
    }

    /// Where a setting says: a folder, or `s3://bucket/prefix` with what AWS's own names in the surroundings say about it.
    ///
    /// # Errors
    /// When it is neither, or can't be used.
    pub fn at(place: &str) -> Result<Self> {
        if !place.starts_with("s3://") {
            return Self::in_folder(place);
        }
        Self::in_bucket(place, std::env::vars())
    }

    /// In an S3-compatible bucket, with what AWS's own names say about it.
    ///
    /// # Errors
    /// When it is no address of a bucket, or something is missing.
    #[cfg(feature = "s3")]
    pub fn in_bucket(
        place: &str,
        settings: impl IntoIterator<Item = (String, String)>,
    ) -> Result<Self> {
        // As all else here; it may have been settled before.
        let _ = rustls::crypto::ring::default_provider().install_default();
        let url: url::Url = place.parse().context("not the address of a bucket")?;
        let known = settings.into_iter().filter_map(|(name, value)| {
            let key: object_store::aws::AmazonS3ConfigKey =
                name.to_ascii_lowercase().parse().ok()?;
            name.starts_with("AWS_").then_some((key, value))
        });
        let store = known
            .fold(
                object_store::aws::AmazonS3Builder::new().with_url(place),
                |builder, (key, value)| builder.with_config(key, value),
            )
            .build()
            .context("the bucket can't be used")?;
        let store = object_store::prefix::PrefixStore::new(store, url.path());
        Ok(Self(Arc::new(Kept::Bucket(Box::new(store)))))
    }

    /// Returns where a file lies, from where all of them lie: in the folder of its studio.
    fn place_of(studio: StudioId, key: &impl Filed) -> String {
        format!("{studio}/{}", key.name())
    }

    /// Returns what names the file of a picture.
    pub(crate) fn key_of(id: uuid::Uuid, picture: &[u8]) -> PictureKey {
        PictureKey {
            id,
            digest: Some(Sha256::digest(picture).to_vec()),
        }
    }

    /// Returns a file as it is kept, where it is.
    pub(crate) async fn read(
        &self,
        studio: StudioId,
        key: &impl Filed,
    ) -> Result<Option<Bytes>, Away> {
        let place = Self::place_of(studio, key);
        match &*self.0 {
            Kept::Folder(folder) => match tokio::fs::read(folder.join(place)).await {
                Ok(picture) => Ok(Some(picture.into())),
                Err(error) if error.kind() == ErrorKind::NotFound => Ok(None),
                Err(error) => Err(error.into()),
            },
            Kept::Memory(all) => {
                let all = all.lock().unwrap_or_else(PoisonError::into_inner);
                Ok(all.get(&place).cloned())
            }
            #[cfg(feature = "s3")]
            Kept::Bucket(bucket) => match bucket.get(&Place::from(place)).await {
                Ok(found) => Ok(Some(found.bytes().await?)),
                Err(object_store::Error::NotFound { .. }) => Ok(None),
                Err(error) => Err(error.into()),
            },
        }
    }

    /// Puts a file in its place.
    pub(crate) async fn keep(
        &self,
        studio: StudioId,
        key: &impl Filed,
        picture: Bytes,
    ) -> Result<(), Away> {
        let place = Self::place_of(studio, key);
        match &*self.0 {
            Kept::Folder(folder) => {
                let file = folder.join(place);
                let written =
                    tokio::task::spawn_blocking(move || write_whole(&file, &picture)).await;
                written.map_err(std::io::Error::other)??;
            }
            Kept::Memory(all) => {
                let mut all = all.lock().unwrap_or_else(PoisonError::into_inner);
                all.insert(place, picture);
            }
            #[cfg(feature = "s3")]
            Kept::Bucket(bucket) => {
                let payload = PutPayload::from_bytes(picture);
                bucket.put(&Place::from(place), payload).await?;
            }
        }
        Ok(())
    }

    /// Takes a file away; one that nothing names any more takes room and does no other harm.
    pub(crate) async fn forget(&self, studio: StudioId, key: &impl Filed) {
        let place = Self::place_of(studio, key);
        let forgotten: Result<(), Away> = match &*self.0 {
            Kept::Folder(folder) => match tokio::fs::remove_file(folder.join(place)).await {
                Err(error) if error.kind() != ErrorKind::NotFound => Err(error.into()),
                _ => Ok(()),
            },
            Kept::Memory(all) => {
                let mut all = all.lock().unwrap_or_else(PoisonError::into_inner);
                all.remove(&place);
                Ok(())
            }
            #[cfg(feature = "s3")]
            Kept::Bucket(bucket) => {
                let removed = bucket.delete(&Place::from(place)).await;
                removed.map_err(Away::from)
            }
        };
        if let Err(error) = forgotten {
            tracing::warn!(%error, "a picture was left behind");
        }
    }

    #[cfg(not(feature = "s3"))]
    fn in_bucket(_: &str, _: std::env::Vars) -> Result<Self> {
        anyhow::bail!(
            "this build keeps photographs in a folder only: build it with `--features hummock-server/s3`"
        )
    }
}

/// Writes a file whole or not at all: it is on the disk, under its name, before anybody is told that it is kept.
pub(crate) fn write_whole(file: &Path, picture: &[u8]) -> std::io::Result<()> {
    let folder = file.parent().unwrap_or(file);
    if !folder.exists() {
        std::fs::create_dir_all(folder)?;
        folder.parent().map_or(Ok(()), on_disk)?;
    }
    let mut written = tempfile::NamedTempFile::new_in(folder)?;
    written.write_all(picture)?;
    written.as_file().sync_all()?;
    written.persist(file)?;
    on_disk(folder)
}

/// Has the names in a folder written too.
fn on_disk(folder: &Path) -> std::io::Result<()> {
    std::fs::File::open(folder)?.sync_all()
}

/// The place where pictures lie does not do what was asked.
#[derive(Debug, thiserror::Error)]
pub(crate) enum Away {
    #[error(transparent)]
    Folder(#[from] std::io::Error),
    #[cfg(feature = "s3")]
    #[error(transparent)]
    Bucket(#[from] object_store::Error),
}

impl From<Away> for Problem {
    fn from(error: Away) -> Self {
        tracing::error!(%error, "photographs can't be kept or read");
        Self::pictures_away()
    }
}

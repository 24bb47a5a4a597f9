//! Where photographs lie: in a folder beside the data, or in an S3-compatible store.

use std::{path::PathBuf, sync::Arc};

use anyhow::{Context as _, Result};
use axum::body::Bytes;
use hummock_store::{PictureKey, StudioId};
use object_store::{
    ObjectStore, ObjectStoreExt as _, PutPayload, local::LocalFileSystem, path::Path as Place,
};

use sha2::{Digest as _, Sha256};

use crate::problem::Problem;

/// No file is larger; a browser sends less.
pub(crate) const LARGEST: usize = 12 << 20;

/// Where pictures lie.
#[derive(Debug, Clone)]
pub struct Pictures {
    store: Arc<dyn ObjectStore>,
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
        let store = LocalFileSystem::new_with_prefix(&folder)
            .with_context(says)?
            // A photograph is on the disk before anybody is told that it is kept.
            .with_fsync(true);
        Ok(Self {
            store: Arc::new(store),
        })
    }

    /// In memory, for as long as it is served: for tests.
    #[must_use]
    pub fn in_memory() -> Self {
        Self {
            store: Arc::new(object_store::memory::InMemory::new()),
        }
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
        let url: url::Url = place.parse().context("that is no address of a bucket")?;
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
        Ok(Self {
            store: Arc::new(store),
        })
    }

    fn place_of(studio: StudioId, PictureKey { id, digest }: &PictureKey) -> Place {
        let Some(digest) = digest else {
            return Place::from(format!("{studio}/{id}.jpg"));
        };
        let digest: String = digest.iter().map(|byte| format!("{byte:02x}")).collect();
        Place::from(format!("{studio}/{id}-{digest}.jpg"))
    }

    /// Returns what names the file of a picture.
    pub(crate) fn key_of(id: uuid::Uuid, picture: &[u8]) -> PictureKey {
        PictureKey {
            id,
            digest: Some(Sha256::digest(picture).to_vec()),
        }
    }

    /// Returns a picture as it is kept, where it is.
    pub(crate) async fn picture(
        &self,
        studio: StudioId,
        key: &PictureKey,
    ) -> Result<Option<Bytes>, Away> {
        match self.store.get(&Self::place_of(studio, key)).await {
            Ok(found) => Ok(Some(found.bytes().await?)),
            Err(object_store::Error::NotFound { .. }) => Ok(None),
            Err(error) => Err(error.into()),
        }
    }

    /// Puts a picture in its place.
    pub(crate) async fn keep(
        &self,
        studio: StudioId,
        key: &PictureKey,
        picture: Bytes,
    ) -> Result<(), Away> {
        let payload = PutPayload::from_bytes(picture);
        self.store
            .put(&Self::place_of(studio, key), payload)
            .await?;
        Ok(())
    }

    /// Takes a picture away; one that nothing names any more takes room and does no other harm.
    pub(crate) async fn forget(&self, studio: StudioId, key: &PictureKey) {
        if let Err(error) = self.store.delete(&Self::place_of(studio, key)).await {
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

/// The place where pictures lie does not do what was asked.
#[derive(Debug, thiserror::Error)]
#[error(transparent)]
pub(crate) struct Away(#[from] object_store::Error);

impl From<Away> for Problem {
    fn from(Away(error): Away) -> Self {
        tracing::error!(%error, "photographs can't be kept or read");
        Self::pictures_away()
    }
}

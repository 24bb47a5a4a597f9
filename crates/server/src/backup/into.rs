//! A backup read into a studio that holds nothing: all of it, or none.

use std::fs::File;

use axum::body::Bytes;
use hummock_store::{BackupList, BackupRefused, PictureKey, RecordKey, StudioStore};
use tokio::sync::mpsc;

use super::{
    Count, Failed,
    look::{BrokenWhat, BrokenWhy, Found, PicturesIn, look_over, look_through},
    state::ReadIn,
};
use crate::pictures::Pictures;

/// How much that was found waits for the database.
const WAITING: usize = 4;

/// Reads a backup in; when that fails, the studio is as it was.
///
/// # Errors
/// [`Failed::Broken`] with the pictures that were changed or cut off, unless it is to go on without them.
pub(crate) async fn read(
    store: &StudioStore,
    pictures: &Pictures,
    (file, pictures_in): (File, PicturesIn),
    without_broken: bool,
    count: &Count,
) -> Result<ReadIn, Failed> {
    if !store.holdings().await?.is_empty() {
        return Err(Failed::Refused(BackupRefused::NotEmpty));
    }
    if !without_broken {
        // All of them are told at once, before anything is written.
        let (again, pictures_in) = (file.try_clone()?, pictures_in.clone());
        let looked =
            tokio::task::spawn_blocking(move || look_over(again, pictures_in, &Count::default()));
        let mut broken = looked.await.map_err(|_| Failed::Slip)??.broken;
        broken.retain(|broken| broken.why == BrokenWhy::Changed);
        if !broken.is_empty() {
            return Err(Failed::Broken(broken));
        }
    }
    let (send, receive) = mpsc::channel(WAITING);
    let searching = tokio::task::spawn_blocking(move || {
        let put = &mut |found| send.blocking_send(found).map_err(|_| Failed::Slip);
        look_through(file, &pictures_in, put)
    });
    let mut put = Put::default();
    let taken = take_in(store, pictures, receive, &mut put, count, searching).await;
    // Whose commit got no answer may be there all the same: its pictures stay, as they do while nobody can be asked.
    if taken.is_err() && store.holdings().await?.is_empty() {
        for key in put.pictures {
            pictures.forget(store.studio(), &key).await;
        }
        for key in put.records {
            pictures.forget(store.studio(), &key).await;
        }
    }
    let read = taken?;
    // Every start does so too, and the studio is here by now.
    if let Err(error) = store.catch_up_log().await {
        tracing::warn!(%error, "what was read in is brought up to date at the next start");
    }
    Ok(read)
}

/// What was put in its place.
#[derive(Default)]
struct Put {
    pictures: Vec<PictureKey>,
    records: Vec<RecordKey>,
}

async fn take_in(
    store: &StudioStore,
    pictures: &Pictures,
    mut found: mpsc::Receiver<Found>,
    put: &mut Put,
    count: &Count,
    searching: tokio::task::JoinHandle<Result<(), Failed>>,
) -> Result<ReadIn, Failed> {
    let mut into = store.restore().await?;
    let mut read = ReadIn {
        shipments: 0,
        photographs: 0,
        broken: Vec::new(),
    };
    while let Some(next) = found.recv().await {
        match next {
            Found::About(about) => count.is_of(about.holdings()),
            Found::Lines(list, first, lines) => {
                if list == BackupList::Shipments {
                    read.shipments += lines.len() as u64;
                    lines.iter().for_each(|_| count.one_more());
                }
                into.take(list, first, lines).await?;
            }
            Found::Mark(png) => into.mark(png),
            Found::Picture(key, picture) => {
                put.pictures.push(key.clone());
                let picture = Bytes::from(picture);
                pictures.keep(store.studio(), &key, picture).await?;
                read.photographs += 1;
                count.one_more();
            }
            // Nothing is read in without reading its pictures.
            Found::Copied => {}
            Found::Record(key, record) => {
                put.records.push(key.clone());
                pictures.keep(store.studio(), &key, record.into()).await?;
            }
            Found::Broken(broken) => {
                if broken.what == BrokenWhat::Photograph {
                    count.one_more();
                }
                read.broken.push(broken);
            }
        }
    }
    searching.await.map_err(|_| Failed::Slip)??;
    into.finish().await?;
    Ok(read)
}

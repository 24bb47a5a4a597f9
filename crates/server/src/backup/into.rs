//! A backup read into a studio that holds nothing: all of it, or none.

use std::{
    fs::File,
    io::{BufRead as _, BufReader, Read as _},
};

use axum::body::Bytes;
use hummock_core::shipment::EDITION;
use hummock_store::{BackupList, PictureKey, StudioStore};
use serde::Deserialize;
use tokio::sync::mpsc;
use uuid::Uuid;
use zip::{ZipArchive, read::ZipFile, result::ZipError};

use super::{About, Count, Failed, picture_name, state::ReadIn};
use crate::pictures::{LARGEST, Pictures};

/// What was found next.
enum Found {
    /// What it says of itself.
    About(About),
    /// Lines of a list, with the number of the first.
    Lines(BackupList, usize, Vec<String>),
    /// The studio's own mark.
    Mark(Vec<u8>),
    /// A picture.
    Picture(PictureKey, Vec<u8>),
    /// A photograph of which it has no picture.
    NoPicture,
}

type Archive = ZipArchive<BufReader<File>>;

/// How much that was found waits for the database.
const WAITING: usize = 4;
/// Lines are written together up to so many, or so many bytes.
const TOGETHER: (usize, usize) = (200, 1 << 20);
/// No line is longer.
const LONGEST_LINE: u64 = 32 << 20;
/// The mark is no larger, and what it says of itself neither.
const LARGEST_MARK: u64 = 8 << 20;

/// Reads a backup in; when that fails, the studio is as it was.
pub(crate) async fn read(
    store: &StudioStore,
    pictures: &Pictures,
    file: File,
    count: &Count,
) -> Result<ReadIn, Failed> {
    let (send, receive) = mpsc::channel(WAITING);
    let searching = tokio::task::spawn_blocking(move || search(file, &send));
    let mut put = Vec::new();
    let taken = take_in(store, pictures, receive, &mut put, count, searching).await;
    // Whose commit got no answer may be there all the same: its pictures stay, as they do while nobody can be asked.
    if taken.is_err() && store.holdings().await?.is_empty() {
        for key in put {
            pictures.forget(store.studio(), &key).await;
        }
    }
    let read = taken?;
    // What an earlier edition of the program worked out is worked out again; every start does so too, and the studio is here by now.
    let caught_up = async {
        store.mark_worked_out_before(EDITION).await?;
        store.catch_up_log().await
    };
    if let Err(error) = caught_up.await {
        tracing::warn!(%error, "what was read in is brought up to date at the next start");
    }
    Ok(read)
}

async fn take_in(
    store: &StudioStore,
    pictures: &Pictures,
    mut found: mpsc::Receiver<Found>,
    put: &mut Vec<PictureKey>,
    count: &Count,
    searching: tokio::task::JoinHandle<Result<(), Failed>>,
) -> Result<ReadIn, Failed> {
    let mut into = store.restore().await?;
    let mut read = ReadIn {
        shipments: 0,
        photographs: 0,
        without_picture: 0,
    };
    while let Some(next) = found.recv().await {
        match next {
            Found::About(about) => count.is_of(about.holdings()),
            Found::Lines(list, first, lines) => {
                into.take(list, first, &lines).await?;
                if list == BackupList::Shipments {
                    read.shipments += lines.len() as u64;
                    lines.iter().for_each(|_| count.one_more());
                }
            }
            Found::Mark(png) => into.mark(&png).await?,
            Found::Picture(key, picture) => {
                put.push(key.clone());
                let picture = Bytes::from(picture);
                pictures.keep(store.studio(), &key, picture).await?;
                read.photographs += 1;
                count.one_more();
            }
            Found::NoPicture => {
                read.without_picture += 1;
                count.one_more();
            }
        }
    }
    searching.await.map_err(|_| Failed::Slip)??;
    into.finish().await?;
    Ok(read)
}

/// Looks through the file, in the order in which it is written down.
fn search(file: File, to: &mpsc::Sender<Found>) -> Result<(), Failed> {
    let put = |found| to.blocking_send(found).map_err(|_| Failed::Slip);
    let mut archive = ZipArchive::new(BufReader::new(file))
        .map_err(|_| Failed::said("it is no zip file, or it breaks off"))?;
    let about = whole(&mut archive, "about.json", LARGEST_MARK)?
        .and_then(|bytes| serde_json::from_slice::<About>(&bytes).ok())
        .filter(About::is_ours)
        .ok_or_else(|| {
            Failed::said("it is no backup of a studio: about.json in it does not say so")
        })?;
    if about.is_newer() {
        return Err(Failed::said(
            "it was made by a newer Hummock than this one: bring this one up to date first",
        ));
    }
    put(Found::About(about))?;
    let mut photographs = Vec::new();
    for list in BackupList::ALL {
        lines_of(&mut archive, list, &mut |first, lines: Vec<String>| {
            if list == BackupList::Photographs {
                photographs.extend(lines.iter().filter_map(|line| named(line)));
            }
            put(Found::Lines(list, first, lines))
        })?;
    }
    if let Some(mark) = whole(&mut archive, "mark.png", LARGEST_MARK)? {
        put(Found::Mark(mark))?;
    }
    for Named {
        id,
        shipment_id,
        bytes,
        kept_digest,
    } in photographs
    {
        let name = picture_name(shipment_id, id);
        match whole(&mut archive, &name, LARGEST as u64)? {
            Some(picture) if picture.len() == bytes => {
                let mut key = Pictures::key_of(id, &picture);
                match kept_digest.map(|kept| Some(kept) == key.digest.as_deref().map(as_written)) {
                    Some(true) => {}
                    Some(false) => return Err(changed(&name)),
                    // Of before digests of pictures were written down: its file has its id alone.
                    None => key.digest = None,
                }
                put(Found::Picture(key, picture))?;
            }
            Some(_) => return Err(changed(&name)),
            None => put(Found::NoPicture)?,
        }
    }
    Ok(())
}

/// A photograph, as its line names it.
#[derive(Deserialize)]
struct Named {
    id: Uuid,
    shipment_id: Uuid,
    bytes: usize,
    /// As PostgreSQL writes bytes; absent or null in backups of before.
    #[serde(default)]
    kept_digest: Option<String>,
}

/// As PostgreSQL writes bytes.
fn as_written(digest: &[u8]) -> String {
    let digits: String = digest.iter().map(|byte| format!("{byte:02x}")).collect();
    format!("\\x{digits}")
}

fn changed(name: &str) -> Failed {
    Failed::said(format!(
        "{name} in it is not the picture that photographs.jsonl tells of: it was changed or cut off"
    ))
}

/// Reads it; a line that says nothing of the kind is refused by the database.
fn named(line: &str) -> Option<Named> {
    serde_json::from_str(line).ok()
}

fn entry<'a>(
    archive: &'a mut Archive,
    name: &str,
) -> Result<Option<ZipFile<'a, BufReader<File>>>, Failed> {
    match archive.by_name(name) {
        Ok(entry) => Ok(Some(entry)),
        Err(ZipError::FileNotFound) => Ok(None),
        Err(error) => Err(Failed::said(format!("{name} in it can't be read: {error}"))),
    }
}

/// Reads a file of it that is no larger than so much.
fn whole(archive: &mut Archive, name: &str, most: u64) -> Result<Option<Vec<u8>>, Failed> {
    let Some(entry) = entry(archive, name)? else {
        return Ok(None);
    };
    let mut bytes = Vec::new();
    let read = entry.take(most + 1).read_to_end(&mut bytes);
    read.map_err(|error| Failed::said(format!("{name} in it can't be read: {error}")))?;
    if bytes.len() as u64 > most {
        let says = format!("{name} in it is over {} MB", most >> 20);
        return Err(Failed::said(says));
    }
    Ok(Some(bytes))
}

fn lines_of(
    archive: &mut Archive,
    list: BackupList,
    put: &mut dyn FnMut(usize, Vec<String>) -> Result<(), Failed>,
) -> Result<(), Failed> {
    let name = format!("{}.jsonl", list.name());
    let entry = entry(archive, &name)?
        .ok_or_else(|| Failed::said(format!("it is no whole studio: {name} is missing in it")))?;
    let mut reader = BufReader::new(entry);
    let (mut first, mut together, mut bytes) = (1, Vec::new(), 0);
    loop {
        let at = first + together.len();
        let mut line = Vec::new();
        let read = (&mut reader)
            .take(LONGEST_LINE)
            .read_until(b'\n', &mut line)
            .map_err(|error| Failed::said(format!("{name} in it can't be read: {error}")))?;
        if read == 0 {
            break;
        }
        if line.pop_if(|last| *last == b'\n').is_none() {
            let says = format!(
                "line {at} of {name} breaks off, or is over {} MB",
                LONGEST_LINE >> 20
            );
            return Err(Failed::said(says));
        }
        let line = String::from_utf8(line)
            .map_err(|_| Failed::said(format!("line {at} of {name} is no text")))?;
        bytes += line.len();
        together.push(line);
        if together.len() >= TOGETHER.0 || bytes >= TOGETHER.1 {
            let lines = std::mem::take(&mut together);
            let next = first + lines.len();
            put(first, lines)?;
            (first, bytes) = (next, 0);
        }
    }
    if together.is_empty() {
        return Ok(());
    }
    put(first, together)
}

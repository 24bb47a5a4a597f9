//! A backup's file looked through in the order in which it is written down, line by line and picture by picture.

use std::{
    collections::HashMap,
    fs::File,
    io::{BufRead as _, BufReader, Read as _},
};

use hummock_store::{BackupList, PictureKey, RecordKey};
use serde::{Deserialize, Serialize};
use uuid::Uuid;
use zip::{ZipArchive, read::ZipFile, result::ZipError};

use super::{
    About, Count, Failed, WITH_RECORDS,
    album::{Album, Kind},
    picture_name, record_name,
};
use crate::{
    left::opens,
    pictures::{LARGEST, Pictures, bytes_of, hex},
};

/// What was found next.
pub(super) enum Found {
    /// What it says of itself.
    About(About),
    /// Lines of a list, with the number of the first.
    Lines(BackupList, usize, Vec<String>),
    /// The studio's own mark.
    Mark(Vec<u8>),
    /// A picture.
    Picture(PictureKey, Vec<u8>),
    /// A picture that lies beside the file and is not read.
    Copied,
    /// What a parcel was when it was handed over.
    Record(RecordKey, Vec<u8>),
    /// Something that it names and has not, or has otherwise.
    Broken(Broken),
}

/// Where the pictures of a file are looked for.
#[derive(Debug, Clone)]
pub(super) enum PicturesIn {
    /// In it alone.
    File,
    /// In it and in the folder that it names, if that is there.
    Folder(Option<Album>),
    /// In it and in the folder that they were copied to: whether they are there is enough.
    Copied(Album),
}

/// A photograph whose picture is not there as it was kept, or a parcel whose handover record is not.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[cfg_attr(feature = "schema", schema(as = BrokenPicture))]
pub(crate) struct Broken {
    /// The shipment that it is of.
    pub shipment: Uuid,
    /// The title of that shipment.
    pub title: String,
    /// The photograph; all zeros where it is the handover record of the parcel.
    pub photograph: Uuid,
    /// What it is.
    pub what: BrokenWhat,
    /// What is wrong with it.
    pub why: BrokenWhy,
}

impl Broken {
    /// The handover record of a parcel.
    pub(super) const fn record(shipment: Uuid, title: String, why: BrokenWhy) -> Self {
        Self {
            shipment,
            title,
            photograph: Uuid::nil(),
            what: BrokenWhat::HandoverRecord,
            why,
        }
    }
}

/// What is not as it was kept.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub(crate) enum BrokenWhat {
    /// A photograph's picture.
    Photograph,
    /// What a parcel was when it was handed over.
    HandoverRecord,
}

/// What is wrong with a picture or a record.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub(crate) enum BrokenWhy {
    /// There is none.
    Missing,
    /// It is not the one that was kept: it was changed, or cut off.
    Changed,
}

/// What a backup holds, once all of it was read.
#[derive(Debug)]
pub(crate) struct Looked {
    pub shipments: u64,
    pub photographs: u64,
    /// Photographs without their picture.
    pub broken: Vec<Broken>,
}

type Archive = ZipArchive<BufReader<File>>;

/// Lines are handed on together up to so many, or so many bytes.
const TOGETHER: (usize, usize) = (200, 1 << 20);
/// No line is longer.
const LONGEST_LINE: u64 = 32 << 20;
/// The mark is no larger, and what it says of itself neither.
const LARGEST_MARK: u64 = 8 << 20;

/// Reads all of a file, as reading it in would, and keeps nothing of it: every line is one that this program can work with.
///
/// # Errors
/// [`Failed`] when it is no whole backup.
pub(super) fn look_over(
    file: File,
    pictures_in: PicturesIn,
    count: &Count,
) -> Result<Looked, Failed> {
    let mut looked = Looked {
        shipments: 0,
        photographs: 0,
        broken: Vec::new(),
    };
    look_through(file, &pictures_in, &mut |found| {
        match found {
            Found::About(about) => count.is_of(about.holdings()),
            Found::Lines(list, first, lines) => {
                for (line, at) in lines.iter().zip(first..) {
                    list.fault(line).map_err(|error| {
                        Failed::said(format!(
                            "line {at} of {}.jsonl can't be read: {error}",
                            list.name()
                        ))
                    })?;
                }
                if list == BackupList::Shipments {
                    looked.shipments += lines.len() as u64;
                    lines.iter().for_each(|_| count.one_more());
                }
            }
            Found::Mark(_) | Found::Record(..) => {}
            Found::Picture(..) | Found::Copied => {
                looked.photographs += 1;
                count.one_more();
            }
            Found::Broken(broken) => {
                if broken.what == BrokenWhat::Photograph {
                    count.one_more();
                }
                looked.broken.push(broken);
            }
        }
        Ok(())
    })?;
    Ok(looked)
}

/// Opens a file, with what it says of itself.
fn begun(file: File) -> Result<(Archive, About), Failed> {
    let mut archive = ZipArchive::new(BufReader::new(file))
        .map_err(|_| Failed::said("not a zip file, or an incomplete one"))?;
    let about = whole(&mut archive, "about.json", LARGEST_MARK)?
        .and_then(|bytes| serde_json::from_slice::<About>(&bytes).ok())
        .filter(About::is_ours)
        .ok_or_else(|| Failed::said("not a Hummock backup: its about.json doesn't match"))?;
    if about.is_newer() {
        return Err(Failed::said(
            "made by a newer Hummock: update this one first",
        ));
    }
    Ok((archive, about))
}

/// Returns the folder beside a file that it says its pictures lie in; `None` where they are in it.
///
/// # Errors
/// [`Failed`] when it is no backup.
pub(super) fn pictures_of(file: File) -> Result<Option<String>, Failed> {
    Ok(begun(file)?.1.pictures)
}

/// Looks through a file.
///
/// # Errors
/// [`Failed`] when it is no whole backup, or with the error that `put` returns.
pub(super) fn look_through(
    file: File,
    pictures_in: &PicturesIn,
    put: &mut dyn FnMut(Found) -> Result<(), Failed>,
) -> Result<(), Failed> {
    let (mut archive, about) = begun(file)?;
    let lie_beside = about.pictures.is_some();
    let knows_records = about.edition >= WITH_RECORDS;
    if lie_beside && matches!(pictures_in, PicturesIn::File) {
        return Err(Failed::said(
            "its pictures are in a folder next to it: restore it on the machine itself with `hummock restore`",
        ));
    }
    put(Found::About(about))?;
    let mut titles = HashMap::new();
    let (mut photographs, mut records) = (Vec::new(), Vec::new());
    for list in BackupList::ALL {
        if list == BackupList::HandoverRecords && !knows_records {
            continue;
        }
        let mut many = 0;
        lines_of(&mut archive, list, &mut |first, lines: Vec<String>| {
            many += lines.len();
            match list {
                BackupList::Shipments => {
                    titles.extend(lines.iter().filter_map(|line| titled(line)))
                }
                BackupList::Photographs => {
                    photographs.extend(lines.iter().filter_map(|line| named(line)));
                }
                BackupList::HandoverRecords => {
                    records.extend(lines.iter().filter_map(|line| record_key(line)))
                }
                _ => {}
            }
            put(Found::Lines(list, first, lines))
        })?;
        let (least, most) = list.length();
        if !(least..=most).contains(&many) {
            return Err(Failed::said(format!(
                "the studio is incomplete: {}.jsonl has {many} lines",
                list.name()
            )));
        }
    }
    if let Some(mark) = whole(&mut archive, "mark.png", LARGEST_MARK)? {
        put(Found::Mark(mark))?;
    }
    for named in photographs {
        let name = picture_name(named.shipment_id, named.id);
        let digest = named.digest().filter(|_| lie_beside);
        if let (Some(digest), PicturesIn::Copied(album)) = (&digest, pictures_in)
            && album.holds(Kind::Picture, digest)
        {
            put(Found::Copied)?;
            continue;
        }
        let picture = match (
            whole(&mut archive, &name, LARGEST as u64),
            digest,
            pictures_in,
        ) {
            (Ok(None), Some(digest), PicturesIn::Folder(Some(album))) => {
                album.read(Kind::Picture, &digest)
            }
            (found, ..) => found,
        };
        let broken = |why| {
            Found::Broken(Broken {
                shipment: named.shipment_id,
                title: titles.get(&named.shipment_id).cloned().unwrap_or_default(),
                photograph: named.id,
                what: BrokenWhat::Photograph,
                why,
            })
        };
        put(match picture {
            Ok(None) => broken(BrokenWhy::Missing),
            // The file says where it lies, and there is something else.
            Err(_) => broken(BrokenWhy::Changed),
            Ok(Some(picture)) => match named.key_of(&picture) {
                Some(key) => Found::Picture(key, picture),
                None => broken(BrokenWhy::Changed),
            },
        })?;
    }
    for key in records {
        if let PicturesIn::Copied(album) = pictures_in
            && album.holds(Kind::Record, &key.digest)
        {
            continue;
        }
        let found = whole(&mut archive, &record_name(&key.digest), LARGEST as u64);
        let found = match (found, pictures_in) {
            (Ok(None), PicturesIn::Folder(Some(album))) if lie_beside => {
                album.read(Kind::Record, &key.digest)
            }
            (found, _) => found,
        };
        let broken = |why| {
            let title = titles.get(&key.shipment).cloned().unwrap_or_default();
            Found::Broken(Broken::record(key.shipment, title, why))
        };
        put(match found {
            Ok(None) => broken(BrokenWhy::Missing),
            Ok(Some(record)) if opens(&key, &record) => Found::Record(key, record),
            Ok(Some(_)) | Err(_) => broken(BrokenWhy::Changed),
        })?;
    }
    Ok(())
}

/// Reads what names a handover record; a line that says nothing of the kind is refused when it is read in.
fn record_key(line: &str) -> Option<RecordKey> {
    #[derive(Deserialize)]
    struct Line {
        shipment_id: Uuid,
        digest: String,
    }
    let Line {
        shipment_id,
        digest,
    } = serde_json::from_str(line).ok()?;
    Some(RecordKey {
        shipment: shipment_id,
        digest: written_bytes(&digest)?,
    })
}

/// Reads bytes as PostgreSQL writes them.
fn written_bytes(written: &str) -> Option<Vec<u8>> {
    bytes_of(written.strip_prefix("\\x")?)
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

impl Named {
    /// Returns the digest of its picture, where it was written down.
    fn digest(&self) -> Option<Vec<u8>> {
        written_bytes(self.kept_digest.as_deref()?)
    }

    /// Returns what names the file of its picture; `None` if that is not its picture.
    fn key_of(&self, picture: &[u8]) -> Option<PictureKey> {
        let key = Pictures::key_of(self.id, picture);
        if picture.len() != self.bytes {
            return None;
        }
        match &self.kept_digest {
            Some(kept) => {
                (key.digest.as_deref().map(as_written).as_ref() == Some(kept)).then_some(key)
            }
            // Of before digests of pictures were written down: its file has its id alone.
            None => Some(PictureKey {
                digest: None,
                ..key
            }),
        }
    }
}

/// As PostgreSQL writes bytes.
fn as_written(digest: &[u8]) -> String {
    format!("\\x{}", hex(digest))
}

/// Reads it; a line that says nothing of the kind is refused when it is read in.
fn named(line: &str) -> Option<Named> {
    serde_json::from_str(line).ok()
}

fn titled(line: &str) -> Option<(Uuid, String)> {
    #[derive(Deserialize)]
    struct Titled {
        id: Uuid,
        title: String,
    }
    let Titled { id, title } = serde_json::from_str(line).ok()?;
    Some((id, title))
}

fn entry<'a>(
    archive: &'a mut Archive,
    name: &str,
) -> Result<Option<ZipFile<'a, BufReader<File>>>, Failed> {
    match archive.by_name(name) {
        Ok(entry) => Ok(Some(entry)),
        Err(ZipError::FileNotFound) => Ok(None),
        Err(error) => Err(Failed::said(format!("its {name} can't be read: {error}"))),
    }
}

/// Reads a file of it that is no larger than so much.
fn whole(archive: &mut Archive, name: &str, most: u64) -> Result<Option<Vec<u8>>, Failed> {
    let Some(entry) = entry(archive, name)? else {
        return Ok(None);
    };
    let mut bytes = Vec::new();
    let read = entry.take(most + 1).read_to_end(&mut bytes);
    read.map_err(|error| Failed::said(format!("its {name} can't be read: {error}")))?;
    if bytes.len() as u64 > most {
        let says = format!("its {name} is over {} MB", most >> 20);
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
        .ok_or_else(|| Failed::said(format!("the studio is incomplete: {name} is missing")))?;
    let mut reader = BufReader::new(entry);
    let (mut first, mut together, mut bytes) = (1, Vec::new(), 0);
    loop {
        let at = first + together.len();
        let mut line = Vec::new();
        let read = (&mut reader)
            .take(LONGEST_LINE)
            .read_until(b'\n', &mut line)
            .map_err(|error| Failed::said(format!("its {name} can't be read: {error}")))?;
        if read == 0 {
            break;
        }
        if line.pop_if(|last| *last == b'\n').is_none() {
            let says = format!(
                "line {at} of {name} is incomplete, or over {} MB",
                LONGEST_LINE >> 20
            );
            return Err(Failed::said(says));
        }
        let line = String::from_utf8(line)
            .map_err(|_| Failed::said(format!("line {at} of {name} is not text")))?;
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

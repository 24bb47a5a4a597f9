//! A studio written to a file, list by list and picture by picture; no more of it is in memory than a few lines or one picture.

use std::{
    fs::File,
    io::{self, Write as _},
    path::PathBuf,
    sync::Arc,
};

use futures_util::StreamExt as _;
use hummock_store::{
    BackupList, BackupOut, Holdings, PhotographOut, RecordKey, RecordOut, StudioStore,
};
use sha2::{Digest as _, Sha256};
use tokio::sync::mpsc;
use uuid::Uuid;
use zip::{CompressionMethod, ZipWriter, write::SimpleFileOptions};

use super::{
    About, Count, Failed,
    album::{self, Album, Kind},
    look::{Broken, BrokenWhat, BrokenWhy, PicturesIn, look_over},
    picture_name, record_name,
};
use crate::{
    clock::Clock,
    pictures::{Pictures, hex},
};

/// What goes into the file next.
enum Piece {
    /// A file of it begins, pressed small or not.
    Begin(String, CompressionMethod),
    /// How much more of that.
    More(Vec<u8>),
}

/// How many pieces wait for the disk.
const WAITING: usize = 8;
/// Lines are handed on together up to so many bytes.
const TOGETHER: usize = 1 << 20;
/// Photographs are asked for so many at a time.
const AT_ONCE: u32 = 500;

/// What was written.
pub(crate) struct Written {
    /// The file, nothing of it read yet.
    pub file: File,
    /// How much it holds.
    pub holdings: Holdings,
    /// Photographs whose picture is gone or is another one.
    pub broken: Vec<Broken>,
}

impl Written {
    /// Reads what was written, from its beginning to its end. Pictures that lie beside it were read once when they were copied.
    ///
    /// # Errors
    /// [`Failed`] when it can't be read in again, or holds something else than was written.
    pub(super) async fn read_once(
        &self,
        album: Option<Album>,
        count: &Arc<Count>,
    ) -> Result<(), Failed> {
        let (file, count) = (self.file.try_clone()?, Arc::clone(count));
        let pictures_in = album.map_or(PicturesIn::File, PicturesIn::Copied);
        let looked = tokio::task::spawn_blocking(move || look_over(file, pictures_in, &count));
        let looked = looked.await.map_err(|_| Failed::Slip)?;
        let looked = looked
            .map_err(|failed| Failed::said(format!("the backup can't be read back: {failed}")))?;
        let shipments = looked.shipments == self.holdings.shipments.unsigned_abs();
        let broken = looked.broken.iter();
        let broken = broken.filter(|broken| broken.what == BrokenWhat::Photograph);
        let all = looked.photographs + broken.count() as u64;
        let photographs = all == self.holdings.photographs.unsigned_abs();
        if !shipments || !photographs || looked.broken.len() != self.broken.len() {
            return Err(Failed::said(
                "the backup differs from the studio: its disk may be failing",
            ));
        }
        Ok(())
    }
}

/// What is written out.
pub(super) struct Out<'a> {
    pub(super) store: &'a StudioStore,
    pub(super) pictures: &'a Pictures,
    pub(super) clock: Clock,
    pub(super) beside: Option<Beside>,
}

/// Where pictures are copied to that are not in the file.
#[derive(Debug, Clone)]
pub(super) struct Beside {
    pub(super) album: Album,
    /// The backup, as it is named once it is finished: they are listed beside it.
    pub(super) backup: PathBuf,
}

/// Writes a studio, as it stands now, to a file.
pub(super) async fn write(out: &Out<'_>, file: File, count: &Count) -> Result<Written, Failed> {
    let (send, receive) = mpsc::channel(WAITING);
    let writing = tokio::task::spawn_blocking(move || write_down(file, receive));
    let fed = feed(out, &send, count).await;
    drop(send);
    // Whoever feeds it is only cut off by the disk, which says why.
    let file = writing.await.map_err(|_| Failed::Slip)??;
    let (holdings, broken) = fed?;
    Ok(Written {
        file,
        holdings,
        broken,
    })
}

fn write_down(file: File, mut pieces: mpsc::Receiver<Piece>) -> io::Result<File> {
    let mut zip = ZipWriter::new(file);
    while let Some(piece) = pieces.blocking_recv() {
        match piece {
            Piece::Begin(name, method) => {
                let options = SimpleFileOptions::default()
                    .compression_method(method)
                    // A list may be longer than the older form of the format has room for.
                    .large_file(method == CompressionMethod::Deflated);
                zip.start_file(name, options)?;
            }
            Piece::More(bytes) => zip.write_all(&bytes)?,
        }
    }
    let file = zip.finish()?;
    file.sync_data()?;
    Ok(file)
}

async fn feed(
    from: &Out<'_>,
    to: &mpsc::Sender<Piece>,
    count: &Count,
) -> Result<(Holdings, Vec<Broken>), Failed> {
    let Out {
        store,
        pictures,
        clock,
        beside,
    } = from;
    let put = async |piece| to.send(piece).await.map_err(|_| Failed::Slip);
    let whole = async |name: &str, bytes: Vec<u8>, method| {
        put(Piece::Begin(name.to_owned(), method)).await?;
        put(Piece::More(bytes)).await
    };
    let mut out = store.back_up().await?;
    let holdings = out.holdings().await?;
    count.is_of(holdings);
    let album = beside.as_ref().map(|beside| &beside.album);
    let has_records = out.has_records().await?;
    let about = About::of((holdings, has_records), clock.today(), album);
    let about = serde_json::to_vec_pretty(&about).map_err(|_| Failed::Slip)?;
    whole("about.json", about, CompressionMethod::Stored).await?;
    let read_me = include_str!("read-me.txt").as_bytes().to_vec();
    whole("read-me.txt", read_me, CompressionMethod::Stored).await?;
    for list in BackupList::ALL {
        let name = format!("{}.jsonl", list.name());
        put(Piece::Begin(name, CompressionMethod::Deflated)).await?;
        let mut lines = std::pin::pin!(out.lines(list));
        let mut together = Vec::new();
        while let Some(line) = lines.next().await {
            together.extend(line?.into_bytes());
            together.push(b'\n');
            if list == BackupList::Shipments {
                count.one_more();
            }
            if together.len() >= TOGETHER {
                put(Piece::More(std::mem::take(&mut together))).await?;
            }
        }
        put(Piece::More(together)).await?;
    }
    if let Some(mark) = out.mark().await? {
        whole("mark.png", mark, CompressionMethod::Stored).await?;
    }
    if let Some(beside) = beside {
        listed(&mut out, beside).await?;
    }
    let mut last: Option<Uuid> = None;
    let mut broken = Vec::new();
    loop {
        let next = out.photographs(last, AT_ONCE).await?;
        let Some(end) = next.last().map(|last| last.picture.id) else {
            break;
        };
        for photograph in next {
            let key = &photograph.picture;
            let into = album.zip(key.digest.as_deref());
            if into.is_some_and(|(album, digest)| album.holds(Kind::Picture, digest)) {
                count.one_more();
                continue;
            }
            let picture = pictures.read(store.studio(), key).await?;
            let why = match &picture {
                None => Some(BrokenWhy::Missing),
                Some(picture) => (!is_whole(picture, &photograph)).then_some(BrokenWhy::Changed),
            };
            match picture.filter(|_| why.is_none()) {
                Some(picture) => match into {
                    Some((album, digest)) => {
                        copied(album, (Kind::Picture, digest), picture.to_vec()).await?;
                    }
                    // A photograph is as small as it gets.
                    None => {
                        let name = picture_name(photograph.shipment, key.id);
                        whole(&name, picture.to_vec(), CompressionMethod::Stored).await?;
                    }
                },
                None => broken.push(Broken {
                    what: BrokenWhat::Photograph,
                    shipment: photograph.shipment,
                    title: photograph.title.clone(),
                    photograph: key.id,
                    why: why.unwrap_or(BrokenWhy::Missing),
                }),
            }
            count.one_more();
        }
        last = Some(end);
    }
    let mut last: Option<RecordKey> = None;
    loop {
        let next = out.records(last.as_ref(), AT_ONCE).await?;
        let Some(end) = next.last().map(|last| last.key.clone()) else {
            break;
        };
        for RecordOut { key, title } in next {
            if album.is_some_and(|album| album.holds(Kind::Record, &key.digest)) {
                continue;
            }
            let why = match pictures.read(store.studio(), &key).await? {
                Some(record) if Sha256::digest(&record).as_slice() == key.digest => {
                    match album {
                        Some(album) => {
                            copied(album, (Kind::Record, &key.digest), record.to_vec()).await?;
                        }
                        None => {
                            let name = record_name(&key.digest);
                            whole(&name, record.to_vec(), CompressionMethod::Stored).await?;
                        }
                    }
                    continue;
                }
                Some(_) => BrokenWhy::Changed,
                None => BrokenWhy::Missing,
            };
            broken.push(Broken::record(key.shipment, title, why));
        }
        last = Some(end);
    }
    Ok((holdings, broken))
}

/// Copies a file into the folder beside the backup.
async fn copied(
    album: &Album,
    (kind, digest): (Kind, &[u8]),
    bytes: Vec<u8>,
) -> Result<(), Failed> {
    let (album, digest) = (album.clone(), digest.to_vec());
    let put = tokio::task::spawn_blocking(move || album.put(kind, &digest, &bytes));
    put.await.map_err(|_| Failed::Slip)?
}

/// Lists all pictures and records that will lie beside the file.
async fn listed(out: &mut BackupOut, beside: &Beside) -> Result<(), Failed> {
    let mut digests = Vec::new();
    let mut last: Option<Uuid> = None;
    loop {
        let next = out.photographs(last, AT_ONCE).await?;
        let Some(end) = next.last() else {
            break;
        };
        last = Some(end.picture.id);
        let named = next.iter().filter_map(|one| one.picture.digest.as_deref());
        digests.extend(named.map(hex));
    }
    let mut last: Option<RecordKey> = None;
    loop {
        let next = out.records(last.as_ref(), AT_ONCE).await?;
        digests.extend(next.iter().map(|one| hex(&one.key.digest)));
        match next.into_iter().last() {
            Some(end) => last = Some(end.key),
            None => break,
        }
    }
    let backup = beside.backup.clone();
    let listed = tokio::task::spawn_blocking(move || album::list(&backup, &digests));
    Ok(listed.await.map_err(|_| Failed::Slip)??)
}

/// Whether a picture is the one that was kept: by its size, and by its digest where that was written down.
fn is_whole(picture: &[u8], photograph: &PhotographOut) -> bool {
    let size = usize::try_from(photograph.bytes).is_ok_and(|bytes| bytes == picture.len());
    let kept = photograph.picture.digest.as_deref();
    size && kept.is_none_or(|kept| Sha256::digest(picture).as_slice() == kept)
}

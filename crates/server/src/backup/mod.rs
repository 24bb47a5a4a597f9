//! The whole studio out as one open file, and in again.

mod into;
mod out;
pub(crate) mod state;

use std::{
    fs::File,
    io::{self, Write as _},
    os::unix::fs::FileExt as _,
    path::Path,
    sync::Arc,
};

use anyhow::Context as _;
use axum::{
    Json,
    body::{Body as Sent, Bytes},
    extract::{DefaultBodyLimit, Path as Named},
    http::{StatusCode, header},
    response::{IntoResponse, Response},
};
use futures_util::stream;
use hummock_core::Refusal;
use hummock_store::{Holdings, StudioStore};
use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use uuid::Uuid;

use self::state::{Backups, Count, Doing, Failed, Made, Receiving, Work, told};
use crate::{
    body::{Asked, Body},
    clock::Clock,
    desk::Desk,
    photographs,
    pictures::Pictures,
    problem::Problem,
    routes::{Routes, routes},
};

/// The shape of the file; one of a later edition is not read.
const EDITION: u32 = 1;
const WHAT: &str = "a whole studio of Hummock";
/// A part of a file that is sent is no larger.
const LARGEST_PART: usize = 4 << 20;
/// No file is larger: a hundred thousand photographs.
const LARGEST: u64 = 64 << 30;
/// It is read from the disk in pieces of so many bytes.
const PIECE: usize = 256 << 10;

/// What a backup says of itself.
#[derive(Debug, Serialize, Deserialize)]
pub(crate) struct About {
    what: String,
    edition: u32,
    made_on: Date,
    made_by: String,
    shipments: i64,
    photographs: i64,
}

impl About {
    fn of(holdings: Holdings, made_on: Date) -> Self {
        Self {
            what: WHAT.to_owned(),
            edition: EDITION,
            made_on,
            made_by: format!("Hummock {}", env!("CARGO_PKG_VERSION")),
            shipments: holdings.shipments,
            photographs: holdings.photographs,
        }
    }

    fn is_ours(&self) -> bool {
        self.what == WHAT
    }

    const fn is_newer(&self) -> bool {
        self.edition > EDITION
    }

    fn holdings(&self) -> Holdings {
        Holdings {
            shipments: self.shipments,
            photographs: self.photographs,
            others: 0,
        }
    }
}

/// Where a picture lies in the file.
fn picture_name(shipment: Uuid, id: Uuid) -> String {
    format!("photographs/{shipment}/{id}.jpg")
}

/// How backups stand.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct BackupView {
    /// Shipments of this studio, wherever they are kept.
    shipments: i64,
    /// Its photographs.
    photographs: i64,
    /// Whether a backup can be read in: nothing is kept here yet.
    empty: bool,
    /// What is being done, and how far that is.
    doing: Option<DoingView>,
    /// The one that was made last, until the server stops.
    made: Option<MadeView>,
    /// What was read in last, by this server.
    read: Option<ReadView>,
    /// Why the last one was not made or not read in.
    failed: Option<String>,
}

/// How far it is.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct DoingView {
    what: Doing,
    /// Shipments and photographs so far; bytes while it is being sent.
    done: u64,
    /// Of so many in all.
    of: u64,
}

/// A backup that can be fetched.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct MadeView {
    /// Its size.
    bytes: u64,
    /// The day on which it was made.
    #[cfg_attr(feature = "schema", schema(value_type = String, format = Date))]
    on: Date,
    shipments: i64,
    photographs: i64,
    /// Photographs in it of which the picture was gone.
    without_picture: u64,
}

/// What was read in.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct ReadView {
    shipments: u64,
    photographs: u64,
    /// Photographs of which the file had no picture.
    without_picture: u64,
}

impl Desk {
    fn backups(&self) -> Backups {
        self.app.jobs.backups.of(self.studio())
    }

    async fn backup_view(&self) -> Result<BackupView, Problem> {
        // First how they stand: what is said to be read in by then is among what is counted afterwards.
        let standing = self.backups_standing();
        let holdings = self.store.holdings().await?;
        Ok(BackupView {
            shipments: holdings.shipments,
            photographs: holdings.photographs,
            empty: holdings.is_empty(),
            ..standing
        })
    }

    /// Returns how backups stand, as of a studio that holds nothing.
    fn backups_standing(&self) -> BackupView {
        let backups = self.backups();
        let standing = backups.standing();
        let doing = match (&standing.working, &standing.receiving) {
            (Some((what, count)), _) => {
                let (done, of) = count.so_far();
                let what = *what;
                Some(DoingView { what, done, of })
            }
            (None, Some(receiving)) => Some(DoingView {
                what: Doing::Receiving,
                done: receiving.received,
                of: receiving.bytes,
            }),
            (None, None) => None,
        };
        BackupView {
            shipments: 0,
            photographs: 0,
            empty: true,
            doing,
            made: standing.made.as_ref().map(|made| MadeView {
                bytes: made.bytes,
                on: made.on,
                shipments: made.holdings.shipments,
                photographs: made.holdings.photographs,
                without_picture: made.without_picture,
            }),
            read: standing.read.map(|read| ReadView {
                shipments: read.shipments,
                photographs: read.photographs,
                without_picture: read.without_picture,
            }),
            failed: standing.failed.clone(),
        }
    }

    async fn make_backup(self, work: Work) {
        let made = async {
            let file = tokio::task::spawn_blocking(tempfile::tempfile).await;
            let file = file.map_err(|_| Failed::Slip)??;
            let from = &self.store;
            let written =
                out::write(from, &self.app.pictures, self.app.clock, file, &work.count).await?;
            let bytes = written.file.metadata()?.len();
            Ok(Made {
                file: Arc::new(written.file),
                bytes,
                on: self.app.clock.today(),
                holdings: written.holdings,
                without_picture: written.without_picture,
            })
        };
        let made = made.await;
        work.end(made, |standing, made| standing.made = Some(made));
    }

    async fn read_backup(self, file: File, work: Work) {
        let into = &self.store;
        let read = into::read(into, &self.app.pictures, file, &work.count).await;
        // Plans that are behind are worked out.
        self.app.jobs.bell.notify_one();
        work.end(read, |standing, read| standing.read = Some(read));
    }
}

/// Tells how backups stand: whether one is being made or read in, and how far that is.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "show_backup", get, path = "/studio/backup", tag = "studio",
    responses((status = 200, description = "How they stand", body = BackupView)),
))]
async fn show(desk: Desk) -> Result<Json<BackupView>, Problem> {
    Ok(Json(desk.backup_view().await?))
}

/// Begins to make a backup of the whole studio, as it stands now; whoever asks again while it is made is told how far it is.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "make_backup", post, path = "/studio/backup", tag = "studio",
    responses(
        (status = 202, description = "It is being made", body = BackupView),
        (status = 409, description = "A backup is being read in", body = Problem),
    ),
))]
async fn make(desk: Desk) -> Result<(StatusCode, Json<BackupView>), Problem> {
    let begun = {
        let backups = desk.backups();
        let mut standing = backups.standing();
        let making = matches!(standing.working, Some((Doing::Making, _)));
        let work = (!making).then(|| Work::begin(&backups, &mut standing, Doing::Making));
        work.transpose()?
    };
    if let Some(work) = begun {
        tokio::spawn(desk.clone().make_backup(work));
    }
    Ok((StatusCode::ACCEPTED, Json(desk.backup_view().await?)))
}

/// Returns the backup that was made last: a zip file of JSON lines and pictures, which `read-me.txt` in it tells of.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "fetch_backup", get, path = "/studio/backup/file", tag = "studio",
    responses(
        (status = 200, description = "The file", body = Vec<u8>, content_type = "application/zip"),
        (status = 404, description = "None was made since the server started", body = Problem),
    ),
))]
async fn fetch(desk: Desk) -> Result<Response, Problem> {
    let (file, bytes, on) = {
        let backups = desk.backups();
        let standing = backups.standing();
        let made = standing.made.as_ref();
        let made = made.ok_or_else(|| Problem::not_found("backup that was made yet"))?;
        (Arc::clone(&made.file), made.bytes, made.on)
    };
    // Whoever else fetches it reads at a place of their own.
    let pieces = stream::try_unfold(0_u64, move |at| {
        let file = Arc::clone(&file);
        async move {
            if at >= bytes {
                return Ok(None);
            }
            let read = tokio::task::spawn_blocking(move || {
                let left = usize::try_from(bytes - at).unwrap_or(PIECE);
                let mut piece = vec![0; PIECE.min(left)];
                file.read_exact_at(&mut piece, at).map(|()| piece)
            });
            let piece = read.await.map_err(io::Error::other)??;
            let next = at + piece.len() as u64;
            Ok::<_, io::Error>(Some((Bytes::from(piece), next)))
        }
    });
    let headers = [
        (header::CONTENT_TYPE, "application/zip".to_owned()),
        (header::CONTENT_LENGTH, bytes.to_string()),
        (
            header::CONTENT_DISPOSITION,
            format!("attachment; filename=\"hummock-{on}.zip\""),
        ),
    ];
    Ok((headers, Sent::from_stream(pieces)).into_response())
}

/// A backup that is going to be sent.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct Announced {
    /// The size of the file, 1 to 68 719 476 736.
    bytes: u64,
}

/// How much of a backup is here.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct ReceivedView {
    /// By which its parts are sent.
    id: Uuid,
    /// How much is here, from its beginning: send on from there.
    received: u64,
    /// Of so much in all; once it is here it is read in.
    bytes: u64,
}

/// Announces a backup that is to be read into this studio, which must be empty; then it is sent part by part.
///
/// Another one that was announced before and is not here yet is forgotten.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "announce_backup", post, path = "/studio/restore", tag = "studio", request_body = Announced,
    responses(
        (status = 201, description = "Send its parts", body = ReceivedView),
        (status = 409, description = "Something is kept here already, or a backup is being made or read in", body = Problem),
        (status = 422, description = "It is too large, or holds nothing", body = Problem),
    ),
))]
async fn announce(
    desk: Desk,
    Body(announced): Body<Announced>,
) -> Result<(StatusCode, Json<ReceivedView>), Problem> {
    let bytes = announced.bytes;
    if !(1..=LARGEST).contains(&bytes) {
        let says = format!("a backup is 1 byte to {} GB long", LARGEST >> 30);
        return Err(vec![Refusal::new("bytes", says)].into());
    }
    if !desk.store.holdings().await?.is_empty() {
        return Err(Problem::not_empty());
    }
    let file = tempfile::tempfile().map_err(|error| full(&error))?;
    let id = Uuid::new_v4();
    let backups = desk.backups();
    let mut standing = backups.standing();
    if standing.working.is_some() {
        return Err(Problem::backup_under_way());
    }
    standing.failed = None;
    standing.receiving = Some(Receiving {
        id,
        file,
        received: 0,
        bytes,
    });
    drop(standing);
    let view = ReceivedView {
        id,
        received: 0,
        bytes,
    };
    Ok((StatusCode::CREATED, Json(view)))
}

fn full(error: &io::Error) -> Problem {
    tracing::error!(%error, "a backup can't be put down");
    Problem::disk_full()
}

/// Where a part begins.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::IntoParams))]
#[cfg_attr(feature = "schema", into_params(parameter_in = Query))]
#[serde(deny_unknown_fields)]
pub(crate) struct PartQuery {
    /// In bytes from the beginning of the file.
    from: u64,
}

/// Takes the next part of a backup, at most 4 MB; with the last one it begins to be read in.
///
/// A part that is here already, or that leaves a gap, changes nothing: the answer says where to go on. So a lost answer does no harm.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "send_backup", put, path = "/studio/restore/{id}", tag = "studio",
    params(("id" = Uuid, Path, description = "As it was announced"), PartQuery),
    request_body(content = Vec<u8>, content_type = "application/octet-stream"),
    responses(
        (status = 200, description = "So much is here", body = ReceivedView),
        (status = 404, description = "None of that id is being sent, or it is here as a whole", body = Problem),
        (status = 409, description = "A backup is being made: send the last part again once that is done", body = Problem),
        (status = 413, description = "The part is over 4 MB", body = Problem),
        (status = 422, description = "It is longer than was announced", body = Problem),
    ),
))]
async fn take_part(
    desk: Desk,
    Named(id): Named<String>,
    Asked(query): Asked<PartQuery>,
    photographs::File(part): photographs::File<LARGEST_PART>,
) -> Result<Json<ReceivedView>, Problem> {
    let backups = desk.backups();
    let mut standing = backups.standing();
    let working = standing.working.is_some();
    let receiving = standing
        .receiving
        .as_mut()
        .filter(|receiving| id.parse() == Ok(receiving.id))
        .ok_or_else(|| Problem::not_found("backup of that id that is being sent"))?;
    if query.from == receiving.received {
        let end = receiving.received + part.len() as u64;
        if end > receiving.bytes {
            let says = format!(
                "it is longer than the {} bytes that were announced",
                receiving.bytes
            );
            return Err(vec![Refusal::new("from", says)].into());
        }
        // It would be read in with this part.
        if end == receiving.bytes && working {
            return Err(Problem::backup_under_way());
        }
        receiving
            .file
            .write_all(&part)
            .map_err(|error| full(&error))?;
        receiving.received = end;
    }
    let view = ReceivedView {
        id: receiving.id,
        received: receiving.received,
        bytes: receiving.bytes,
    };
    if view.received == view.bytes
        && let Some(receiving) = standing.receiving.take()
    {
        standing.read = None;
        let work = Work::begin(&backups, &mut standing, Doing::Reading)?;
        tokio::spawn(desk.clone().read_backup(receiving.file, work));
    }
    drop(standing);
    Ok(Json(view))
}

pub(crate) fn routes() -> Routes {
    routes![
        put "/studio/restore/{id}" => take_part,
    ]
    .limited(DefaultBodyLimit::max(LARGEST_PART))
    .merge(routes![
        get "/studio/backup" => show,
        post "/studio/backup" => make,
        get "/studio/backup/file" => fetch,
        post "/studio/restore" => announce,
    ])
}

/// Writes a backup of the studio of a database to a file, and says how far it is.
///
/// # Errors
/// When the file can't be written, or the database or the photographs can't be reached.
pub(crate) async fn write_to(
    store: &StudioStore,
    pictures: &Pictures,
    clock: Clock,
    file: &Path,
) -> anyhow::Result<String> {
    // What is half done never stands under its name.
    let folder = file.parent().filter(|folder| *folder != Path::new(""));
    let folder = folder.unwrap_or_else(|| Path::new("."));
    let says = || format!("{} can't be written", file.display());
    let unfinished = tempfile::NamedTempFile::new_in(folder).with_context(says)?;
    let count = Arc::new(Count::default());
    let telling = Telling::of(&count);
    let handle = unfinished.reopen()?;
    let written = out::write(store, pictures, clock, handle, &count).await?;
    drop(telling);
    unfinished.persist(file).with_context(says)?;
    let Holdings {
        shipments,
        photographs,
        ..
    } = written.holdings;
    Ok(format!(
        "{shipments} shipments and {photographs} photographs are in {}",
        file.display()
    ))
}

/// Reads a backup from a file into the studio of a database, which must be empty.
///
/// # Errors
/// When it is none, or something is kept there already; nothing of it is kept then.
pub(crate) async fn read_from(
    store: &StudioStore,
    pictures: &Pictures,
    file: &Path,
) -> anyhow::Result<String> {
    let opened = File::open(file).with_context(|| format!("{} can't be read", file.display()))?;
    let count = Arc::new(Count::default());
    let telling = Telling::of(&count);
    let read = into::read(store, pictures, opened, &count).await;
    drop(telling);
    let read = read.map_err(|failed| anyhow::anyhow!("{}", told(&failed)))?;
    Ok(format!(
        "{} shipments and {} photographs were read in",
        read.shipments, read.photographs
    ))
}

/// Says on the terminal how far it is, until it is dropped.
struct Telling(tokio::task::JoinHandle<()>);

impl Telling {
    fn of(count: &Arc<Count>) -> Self {
        let count = Arc::clone(count);
        Self(tokio::spawn(async move {
            let mut ticks = tokio::time::interval(std::time::Duration::from_secs(1));
            ticks.tick().await;
            loop {
                ticks.tick().await;
                let (done, of) = count.so_far();
                eprintln!("{done} of {of} shipments and photographs");
            }
        }))
    }
}

impl Drop for Telling {
    fn drop(&mut self) {
        self.0.abort();
    }
}

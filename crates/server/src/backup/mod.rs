//! The whole studio out as one open file, and in again.

mod album;
mod into;
mod look;
pub(crate) mod nightly;
mod out;
mod sealing;
pub(crate) mod state;
pub(crate) mod terminal;
pub(crate) mod upgrading;

use std::{io, os::unix::fs::FileExt as _, sync::Arc};

use axum::{
    Json,
    body::{Body as Sent, Bytes},
    extract::{DefaultBodyLimit, Path as Named},
    http::{StatusCode, header},
    response::{IntoResponse, Response},
};
use futures_util::stream;
use hummock_core::Refusal;
use hummock_store::Holdings;
use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use uuid::Uuid;

use self::{
    album::Album,
    look::{Broken, PicturesIn},
    nightly::NightlyView,
    state::{Backups, Came, Count, Doing, Failed, Made, ReadIn, Receiving, Waiting, Why, Work},
};
use crate::{
    body::{Asked, Body},
    desk::Desk,
    photographs,
    pictures::hex,
    problem::Problem,
    routes::{Routes, routes},
};

/// The edition of a file whose pictures are in it.
const WITH_PICTURES: u32 = 1;
/// …of one whose pictures lie in a folder beside it…
const WITHOUT_PICTURES: u32 = 2;
/// …and of one with handover records, wherever they lie. No later one is read.
const WITH_RECORDS: u32 = 3;
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
    /// The folder beside it that pictures lie in; left out where they are in it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pictures: Option<String>,
}

impl About {
    fn of((holdings, has_records): (Holdings, bool), made_on: Date, album: Option<&Album>) -> Self {
        Self {
            what: WHAT.to_owned(),
            // A studio without any is read by programs that know of none.
            edition: match (has_records, album) {
                (true, _) => WITH_RECORDS,
                (false, Some(_)) => WITHOUT_PICTURES,
                (false, None) => WITH_PICTURES,
            },
            pictures: album.map(|album| album.name().to_owned()),
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
        self.edition > WITH_RECORDS
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

/// Where a handover record lies in the file.
fn record_name(digest: &[u8]) -> String {
    format!("handover-records/{}.json.zst", hex(digest))
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
    /// One that is here and waits for a word before it is read in.
    waiting: Option<WaitingView>,
    /// Why the last one was not made or not read in.
    failed: Option<String>,
    /// Those that are made every night; `None` if none are.
    nightly: Option<NightlyView>,
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
    /// Photographs in it whose picture was gone or broken.
    without_picture: u64,
    /// The first of them.
    broken: Vec<Broken>,
}

/// What was read in.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct ReadView {
    shipments: u64,
    photographs: u64,
    /// Photographs of which the file had no picture, or a broken one.
    without_picture: u64,
    /// The first of them.
    broken: Vec<Broken>,
}

/// A backup that is here and waits for a word.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct WaitingView {
    /// By which it was sent.
    id: Uuid,
    /// It is sealed: its passphrase is wanted.
    sealed: bool,
    /// The passphrase that was given last is another one.
    wrong_passphrase: bool,
    /// How many pictures in it are broken: it is read in without them once somebody says so.
    broken_pictures: usize,
    /// The first of them.
    broken: Vec<Broken>,
}

impl Desk {
    fn backups(&self) -> Backups {
        self.app.jobs.backups.of(self.studio())
    }

    async fn backup_view(&self) -> Result<BackupView, Problem> {
        // First how they stand: what is said to be read in by then is among what is counted afterwards.
        let standing = self.backups_standing();
        let holdings = self.store.holdings().await?;
        let (app, own) = (self.app.clone(), self.studio());
        let nightly = tokio::task::spawn_blocking(move || {
            let nightly = app.nightly.as_ref()?;
            Some(nightly.view(own, app.clock.today()))
        });
        Ok(BackupView {
            nightly: nightly.await.map_err(|_| Problem::slip())?,
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
                without_picture: made.broken.len() as u64,
                broken: first_of(&made.broken),
            }),
            read: standing.read.as_ref().map(|read| ReadView {
                shipments: read.shipments,
                photographs: read.photographs,
                without_picture: read.broken.len() as u64,
                broken: first_of(&read.broken),
            }),
            waiting: standing.waiting.as_ref().map(|waiting| WaitingView {
                id: waiting.came.id,
                sealed: waiting.sealed(),
                wrong_passphrase: matches!(waiting.why, Why::WrongPassphrase),
                broken_pictures: waiting.broken().len(),
                broken: first_of(waiting.broken()),
            }),
            failed: standing.failed.clone(),
            nightly: None,
        }
    }

    async fn make_backup(self, work: Work) {
        let made = self.backup_made(&work).await;
        work.end(made, |standing, made| standing.made = Some(made));
    }

    /// Makes a backup and reads it once.
    async fn backup_made(&self, work: &Work) -> Result<Made, Failed> {
        let file = tokio::task::spawn_blocking(tempfile::tempfile).await;
        let file = file.map_err(|_| Failed::Slip)??;
        let (from, pictures) = (&self.store, &self.app.pictures);
        let out = out::Out {
            store: from,
            pictures,
            clock: self.app.clock,
            beside: None,
        };
        let written = out::write(&out, file, &work.count).await?;
        let count = work.goes_on(Doing::Checking);
        written.read_once(None, &count).await?;
        let bytes = written.file.metadata()?.len();
        Ok(Made {
            file: Arc::new(written.file),
            bytes,
            on: self.app.clock.today(),
            holdings: written.holdings,
            broken: written.broken,
        })
    }

    /// Reads a backup in that is here; one that waits for a word is kept until then.
    async fn read_backup(self, mut came: Came, word: GoOn, work: Work) {
        let read = self.backup_read(&mut came, word, &work).await;
        // Plans that are behind are worked out.
        self.app.jobs.bell.notify_one();
        let waits = |why| Waiting { came, why };
        match read {
            Err(Failed::Sealed) => work.waits(waits(Why::Sealed)),
            Err(Failed::WrongPassphrase) => work.waits(waits(Why::WrongPassphrase)),
            Err(Failed::Broken(broken)) => work.waits(waits(Why::Broken(broken))),
            read => work.end(read, |standing, read| standing.read = Some(read)),
        }
    }

    async fn backup_read(
        &self,
        came: &mut Came,
        word: GoOn,
        work: &Work,
    ) -> Result<ReadIn, Failed> {
        if sealing::is_sealed(&came.file)? {
            let passphrase = word.passphrase.ok_or(Failed::Sealed)?;
            let sealed = came.file.try_clone()?;
            // Asked a second time, it is not opened again.
            came.file = self.app.documents.opened(sealed, &passphrase).await?;
        }
        let file = came.file.try_clone()?;
        let (into, pictures) = (&self.store, &self.app.pictures);
        let without = word.without_broken;
        into::read(
            into,
            pictures,
            (file, PicturesIn::File),
            without,
            &work.count,
        )
        .await
    }
}

/// A few are enough to look at.
const FIRST: usize = 50;

fn first_of(broken: &[Broken]) -> Vec<Broken> {
    broken.iter().take(FIRST).cloned().collect()
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
    standing.waiting = None;
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
    part: photographs::File<LARGEST_PART>,
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
        let end = receiving.received + part.bytes.len() as u64;
        if end > receiving.bytes {
            let says = format!("longer than the {} bytes announced", receiving.bytes);
            return Err(vec![Refusal::new("from", says)].into());
        }
        // It would be read in with this part.
        if end == receiving.bytes && working {
            return Err(Problem::backup_under_way());
        }
        // Where the last byte really is: a disk that was full may have taken some of a part.
        receiving
            .file
            .write_all_at(&part.bytes, receiving.received)
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
        let came = Came {
            id: receiving.id,
            file: receiving.file,
        };
        tokio::spawn(desk.clone().read_backup(came, GoOn::default(), work));
    }
    drop(standing);
    Ok(Json(view))
}

/// What somebody says about a backup that waits for a word.
#[derive(Default, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct GoOn {
    /// It is read in without the pictures that are broken; the photographs are told of all the same.
    #[serde(default)]
    without_broken: bool,
    /// By which it was sealed.
    #[serde(default)]
    passphrase: Option<String>,
}

/// Goes on with a backup that is here and waits for a word: its passphrase, or that it is read in without what is broken.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "go_on_with_backup", post, path = "/studio/restore/{id}", tag = "studio", request_body = GoOn,
    params(("id" = Uuid, Path, description = "As it was announced")),
    responses(
        (status = 202, description = "It is being read in", body = BackupView),
        (status = 404, description = "None of that id waits for a word", body = Problem),
        (status = 409, description = "A backup is being made or read in", body = Problem),
        (status = 422, description = "The passphrase is no line of text", body = Problem),
    ),
))]
async fn go_on(
    desk: Desk,
    Named(id): Named<String>,
    Body(word): Body<GoOn>,
) -> Result<(StatusCode, Json<BackupView>), Problem> {
    if let Some(passphrase) = &word.passphrase
        && !sealing::is_one(passphrase)
    {
        let says = "give a passphrase of 1 to 1000 characters on one line";
        return Err(vec![Refusal::new("passphrase", says)].into());
    }
    let (came, work) = {
        let backups = desk.backups();
        let mut standing = backups.standing();
        let is = |waiting: &mut Waiting| id.parse() == Ok(waiting.came.id);
        let waits = standing.waiting.take_if(is);
        let waiting = waits.ok_or_else(|| Problem::not_found("backup that waits for a word"))?;
        match Work::begin(&backups, &mut standing, Doing::Reading) {
            Ok(work) => {
                standing.read = None;
                (waiting.came, work)
            }
            Err(problem) => {
                standing.waiting = Some(waiting);
                return Err(problem);
            }
        }
    };
    tokio::spawn(desk.clone().read_backup(came, word, work));
    Ok((StatusCode::ACCEPTED, Json(desk.backup_view().await?)))
}

/// Gives up a backup that is being sent or waits for a word.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "give_up_backup", delete, path = "/studio/restore/{id}", tag = "studio",
    params(("id" = Uuid, Path, description = "As it was announced")),
    responses(
        (status = 200, description = "It is forgotten", body = BackupView),
        (status = 404, description = "None of that id is here", body = Problem),
    ),
))]
async fn give_up(desk: Desk, Named(id): Named<String>) -> Result<Json<BackupView>, Problem> {
    {
        let backups = desk.backups();
        let mut standing = backups.standing();
        let is = |other: Uuid| id.parse() == Ok(other);
        let waited = standing.waiting.take_if(|waiting| is(waiting.came.id));
        let waited = waited.is_some();
        let received = standing.receiving.take_if(|one| is(one.id)).is_some();
        if !waited && !received {
            return Err(Problem::not_found("backup of that id"));
        }
    }
    Ok(Json(desk.backup_view().await?))
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
        post "/studio/restore/{id}" => go_on,
        delete "/studio/restore/{id}" => give_up,
    ])
}

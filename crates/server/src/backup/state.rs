//! How the backups of a studio stand: what is being done, how far that is, and what came of the last one.

use std::{
    fs::File,
    io,
    sync::{
        Arc, Mutex, PoisonError,
        atomic::{AtomicU64, Ordering},
    },
};

use hummock_store::{BackupRefused, Holdings, StoreError};
use jiff::civil::Date;
use serde::Serialize;
use uuid::Uuid;

use super::look::{Broken, BrokenWhat};
use crate::{pictures, problem::Problem};

/// Why a backup was not made or not read in.
#[derive(Debug, thiserror::Error)]
pub(crate) enum Failed {
    /// The file is not what it should be, or something is kept here already.
    #[error(transparent)]
    Refused(#[from] BackupRefused),
    /// The file is not what it should be.
    #[error("{0}")]
    Said(String),
    /// The database is away.
    #[error(transparent)]
    Store(#[from] StoreError),
    /// The disk did not do what was asked.
    #[error("the disk: {0}")]
    Disk(#[from] io::Error),
    /// Photographs can't be reached.
    #[error("the photograph storage doesn't answer")]
    Pictures(#[from] pictures::Away),
    /// It is sealed, and nobody said by which passphrase.
    #[error("it is encrypted: enter its passphrase")]
    Sealed,
    /// It was sealed by another passphrase.
    #[error("wrong passphrase")]
    WrongPassphrase,
    /// Something in it was changed or cut off, and nobody said to go on without it.
    #[error("not as they were kept: {}", listed(.0))]
    Broken(Vec<Broken>),
    /// It broke off.
    #[error("it broke off")]
    Slip,
}

impl From<zip::result::ZipError> for Failed {
    fn from(error: zip::result::ZipError) -> Self {
        Self::Disk(error.into())
    }
}

impl Failed {
    pub(super) fn said(says: impl Into<String>) -> Self {
        Self::Said(says.into())
    }
}

/// Says how many pictures and handover records are not as they were kept, and of which shipments.
pub(super) fn listed(broken: &[Broken]) -> String {
    let many = |what, one: &str| {
        let many = broken.iter().filter(|broken| broken.what == what).count();
        match many {
            0 => None,
            1 => Some(format!("1 {one}")),
            many => Some(format!("{many} {one}s")),
        }
    };
    let all = [
        many(BrokenWhat::Photograph, "picture"),
        many(BrokenWhat::HandoverRecord, "handover record"),
    ];
    let all: Vec<String> = all.into_iter().flatten().collect();
    format!("{} {}", all.join(" and "), titles(broken))
}

/// The titles of shipments, each once, and a few of them only.
fn titles(broken: &[Broken]) -> String {
    const FEW: usize = 5;
    let mut titles: Vec<&str> = broken.iter().map(|broken| broken.title.as_str()).collect();
    titles.dedup();
    let more = titles.len().saturating_sub(FEW);
    titles.truncate(FEW);
    let named: Vec<String> = titles.iter().map(|title| format!("“{title}”")).collect();
    let more = match more {
        0 => String::new(),
        more => format!(" and of {more} more"),
    };
    format!("of {}{more}", named.join(", "))
}

pub(super) fn told(failed: &Failed) -> String {
    match failed {
        Failed::Refused(BackupRefused::NotEmpty) => {
            "this studio isn't empty: restore a backup into an empty one".to_owned()
        }
        Failed::Refused(BackupRefused::Store(_)) | Failed::Store(_) => {
            "the database stopped meanwhile, and nothing was restored: try again".to_owned()
        }
        Failed::Slip => {
            "the upload was interrupted, and nothing was restored: try again".to_owned()
        }
        other => other.to_string(),
    }
}

/// How far it is: shipments and photographs, one by one.
#[derive(Debug, Default)]
pub(crate) struct Count {
    done: AtomicU64,
    of: AtomicU64,
}

impl Count {
    pub(super) fn is_of(&self, holdings: Holdings) {
        let of = holdings.shipments.saturating_add(holdings.photographs);
        self.of.store(of.unsigned_abs(), Ordering::Relaxed);
    }

    pub(super) fn one_more(&self) {
        self.done.fetch_add(1, Ordering::Relaxed);
    }

    /// How many are done, and of how many; never more than there are.
    pub(super) fn so_far(&self) -> (u64, u64) {
        let of = self.of.load(Ordering::Relaxed);
        (self.done.load(Ordering::Relaxed).min(of), of)
    }
}

/// What is done with backups just now.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub(super) enum Doing {
    /// One is being made.
    Making,
    /// The one that was made is read once.
    Checking,
    /// One is being sent here.
    Receiving,
    /// One is being read in.
    Reading,
}

#[derive(Debug)]
pub(super) struct Made {
    pub(super) file: Arc<File>,
    pub(super) bytes: u64,
    pub(super) on: Date,
    pub(super) holdings: Holdings,
    pub(super) broken: Vec<Broken>,
}

/// A backup that is here as a whole.
#[derive(Debug)]
pub(super) struct Came {
    pub(super) id: Uuid,
    /// What was sealed in it, once it was opened.
    pub(super) file: File,
}

/// A backup that is here and waits for a word.
#[derive(Debug)]
pub(super) struct Waiting {
    pub(super) came: Came,
    pub(super) why: Why,
}

/// Why a backup waits.
#[derive(Debug)]
pub(super) enum Why {
    Sealed,
    WrongPassphrase,
    Broken(Vec<Broken>),
}

impl Waiting {
    pub(super) const fn sealed(&self) -> bool {
        matches!(self.why, Why::Sealed | Why::WrongPassphrase)
    }

    pub(super) fn broken(&self) -> &[Broken] {
        match &self.why {
            Why::Broken(broken) => broken,
            Why::Sealed | Why::WrongPassphrase => &[],
        }
    }
}

#[derive(Debug)]
pub(super) struct Receiving {
    pub(super) id: Uuid,
    pub(super) file: File,
    pub(super) received: u64,
    pub(super) bytes: u64,
}

#[derive(Debug, Default)]
pub(super) struct Standing {
    pub(super) working: Option<(Doing, Arc<Count>)>,
    pub(super) receiving: Option<Receiving>,
    pub(super) made: Option<Made>,
    pub(super) read: Option<ReadIn>,
    pub(super) waiting: Option<Waiting>,
    pub(super) failed: Option<String>,
}

/// The backups of a studio: one is made or read in at a time, and the last one made is kept until the next.
#[derive(Debug, Clone, Default)]
pub(crate) struct Backups(Arc<Mutex<Standing>>);

impl Backups {
    pub(super) fn standing(&self) -> std::sync::MutexGuard<'_, Standing> {
        self.0.lock().unwrap_or_else(PoisonError::into_inner)
    }
}

/// Something that is being done. Whatever ends it, a panic too, the next can begin.
#[derive(Debug)]
pub(super) struct Work {
    pub(super) backups: Backups,
    pub(super) count: Arc<Count>,
    pub(super) ended: bool,
}

impl Work {
    /// Begins something, unless something is being done already.
    pub(super) fn begin(
        backups: &Backups,
        standing: &mut Standing,
        what: Doing,
    ) -> Result<Self, Problem> {
        if standing.working.is_some() {
            return Err(Problem::backup_under_way());
        }
        let count = Arc::new(Count::default());
        standing.working = Some((what, Arc::clone(&count)));
        standing.failed = None;
        Ok(Self {
            backups: backups.clone(),
            count,
            ended: false,
        })
    }

    /// Goes on with something else of its own, counted anew.
    pub(super) fn goes_on(&self, what: Doing) -> Arc<Count> {
        let count = Arc::new(Count::default());
        self.backups.standing().working = Some((what, Arc::clone(&count)));
        count
    }

    /// Ends it until somebody says a word.
    pub(super) fn waits(mut self, waiting: Waiting) {
        let mut standing = self.backups.standing();
        standing.working = None;
        standing.waiting = Some(waiting);
        drop(standing);
        self.ended = true;
    }

    /// Ends it with what came of it.
    pub(super) fn end<T>(mut self, came: Result<T, Failed>, keep: impl FnOnce(&mut Standing, T)) {
        let mut standing = self.backups.standing();
        standing.working = None;
        match came {
            Ok(made) => keep(&mut standing, made),
            Err(error) => {
                tracing::warn!(%error, "a backup was not made or not read in");
                standing.failed = Some(told(&error));
            }
        }
        drop(standing);
        self.ended = true;
    }
}

impl Drop for Work {
    fn drop(&mut self) {
        if !self.ended {
            let mut standing = self.backups.standing();
            standing.working = None;
            standing.failed = Some(told(&Failed::Slip));
        }
    }
}

/// What was read in.
#[derive(Debug, Clone)]
pub(crate) struct ReadIn {
    pub shipments: u64,
    pub photographs: u64,
    pub broken: Vec<Broken>,
}

//! What can go wrong between this program and the database.

/// The database did not do what was asked.
#[derive(Debug, thiserror::Error)]
pub enum StoreError {
    /// It could not be reached, or was shut down half-way.
    #[error("the database can't be reached")]
    Away(#[source] sqlx::Error),
    /// Two transactions crossed, and it gave this one up; nothing of it was written.
    #[error("another change crossed this one: {0}")]
    Crossed(#[source] sqlx::Error),
    /// It answered with something this program does not expect.
    #[error("the database refused: {0}")]
    Refused(#[source] sqlx::Error),
    /// Its tables could not be brought up to date.
    #[error("the database's tables could not be brought up to date: {0}")]
    Tables(#[from] sqlx::migrate::MigrateError),
    /// A document in it can't be read by this version of the program.
    #[error("a stored document can't be read: {0}")]
    Document(#[from] serde_json::Error),
}

impl From<sqlx::Error> for StoreError {
    fn from(error: sqlx::Error) -> Self {
        match &error {
            sqlx::Error::Io(_)
            | sqlx::Error::PoolTimedOut
            | sqlx::Error::PoolClosed
            | sqlx::Error::Tls(_) => Self::Away(error),
            sqlx::Error::Database(refused) => match refused.code().as_deref() {
                // The server is shutting down or starting up.
                Some(code) if code.starts_with("57P") => Self::Away(error),
                // A deadlock, or two transactions that can't be put one after the other.
                Some("40P01" | "40001") => Self::Crossed(error),
                _ => Self::Refused(error),
            },
            _ => Self::Refused(error),
        }
    }
}

/// An error after which the same may be asked again, since nothing was written.
pub(crate) trait MayRepeat {
    /// Tells whether it is one.
    fn may_repeat(&self) -> bool;
}

impl MayRepeat for StoreError {
    fn may_repeat(&self) -> bool {
        matches!(self, Self::Crossed(_))
    }
}

/// How often a transaction that crosses others is run before it is given up.
const ATTEMPTS: u32 = 5;

/// Counts how often a transaction was run.
#[derive(Debug, Default)]
pub(crate) struct Tries(u32);

impl Tries {
    /// Tells whether to run a transaction again after an error.
    pub(crate) fn again(&mut self, error: &impl MayRepeat) -> bool {
        self.0 += 1;
        self.0 < ATTEMPTS && error.may_repeat()
    }
}

//! What can go wrong between this program and the database.

/// The database did not do what was asked.
#[derive(Debug, thiserror::Error)]
pub enum StoreError {
    /// It could not be reached, or was shut down half-way.
    #[error("the database can't be reached")]
    Away(#[source] sqlx::Error),
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
        let away = match &error {
            sqlx::Error::Io(_)
            | sqlx::Error::PoolTimedOut
            | sqlx::Error::PoolClosed
            | sqlx::Error::Tls(_) => true,
            // 57P: the server is shutting down or starting up.
            sqlx::Error::Database(refused) => {
                refused.code().is_some_and(|code| code.starts_with("57P"))
            }
            _ => false,
        };
        if away {
            Self::Away(error)
        } else {
            Self::Refused(error)
        }
    }
}

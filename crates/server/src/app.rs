//! What a process has for all the studios that it serves.

use std::{ops::Deref, sync::Arc, time::Duration};

use axum::extract::FromRef;
use hummock_store::Store;

use crate::{
    backup::nightly::Nightly, clock::Clock, jobs::Jobs, network::entrance::Entrance,
    outside::Beside, pages::PageShelf, pictures::Pictures, press::Documents,
};

/// Where studios are kept, what day it is, and who is asked for what. Every request has it in hand several times over.
#[derive(Debug, Clone)]
pub struct App(Arc<Parts>);

impl App {
    pub(crate) fn of(parts: Parts) -> Self {
        Self(Arc::new(parts))
    }
}

impl Deref for App {
    type Target = Parts;

    fn deref(&self) -> &Parts {
        &self.0
    }
}

/// What an application is made of.
#[derive(Debug)]
pub struct Parts {
    /// Where everything is kept.
    pub(crate) store: Store,
    /// What day it is.
    pub(crate) clock: Clock,
    /// What goes on beside the answers.
    pub(crate) jobs: Jobs,
    /// The scale and the carriers.
    pub(crate) outside: Beside,
    /// The door of the local network.
    pub(crate) entrance: Entrance,
    /// The web build.
    pub(crate) pages: Arc<PageShelf>,
    /// Who makes documents.
    pub(crate) documents: Documents,
    /// Where photographs lie.
    pub(crate) pictures: Pictures,
    /// Backups of every night, where they are wanted.
    pub(crate) nightly: Option<Nightly>,
    /// An answer that takes longer is given up.
    pub(crate) longest_answer: Duration,
    /// Work that another process claimed longer ago is done here.
    pub(crate) longest_claim: Duration,
}

impl FromRef<App> for Arc<PageShelf> {
    fn from_ref(app: &App) -> Self {
        Self::clone(&app.pages)
    }
}

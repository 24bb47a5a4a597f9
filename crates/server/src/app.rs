//! What a process has for all the studios that it serves.

use std::{sync::Arc, time::Duration};

use hummock_store::Store;

use crate::{
    backup::Backups,
    clock::Clock,
    documents::Documents,
    houses::Houses,
    network::{Attempts, Network, OneAtATime},
    outside::{AllCarriers, Scale},
    pages::PageShelf,
    per_studio::PerStudio,
    photographs::Pictures,
    rework::Bell,
    ways::Exploring,
};

/// Where studios are kept, what day it is, and who is asked for what.
#[derive(Debug, Clone)]
pub struct App {
    /// Where everything is kept.
    pub store: Store,
    /// What day it is.
    pub clock: Clock,
    /// The house, as it was last read.
    pub houses: Arc<Houses>,
    /// Rung when the house has changed.
    pub bell: Bell,
    /// The web build.
    pub pages: Arc<PageShelf>,
    /// How devices of the local network reach it, when they may.
    pub network: Option<Arc<Network>>,
    /// Who makes documents.
    pub documents: Documents,
    /// Where photographs lie.
    pub pictures: Pictures,
    /// An answer that takes longer is given up.
    pub(crate) longest_answer: Duration,
    /// Work that another process claimed longer ago is done here.
    pub(crate) longest_claim: Duration,
    /// The scale on the bench.
    pub(crate) scale: Scale,
    /// The carriers' own services.
    pub(crate) carriers: AllCarriers,
    /// Whoever looks for ways takes every core: one at a time.
    pub(crate) exploring: Exploring,
    /// Whether both are only stand-ins.
    pub(crate) stand_in: bool,
    /// Backups of each studio as a whole.
    pub(crate) backups: PerStudio<Backups>,
    /// Wrong passphrases.
    pub(crate) attempts: Arc<Attempts>,
    /// Turns at having a passphrase looked at.
    pub(crate) turns: OneAtATime,
}

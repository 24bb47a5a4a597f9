//! Serving the application until it is told to stop.

use std::{
    net::{IpAddr, SocketAddr, TcpListener},
    path::PathBuf,
    sync::Arc,
    time::{Duration, Instant},
};

use anyhow::{Context, Result};
use axum_server::{
    Handle, Server,
    tls_rustls::{RustlsAcceptor, RustlsConfig},
};
use hummock_store::{Store, StudioStore};
use hyper_util::rt::TokioTimer;
use tokio::task::JoinHandle;

use crate::{
    Documents, api,
    app::{App, Parts},
    backup::{
        nightly::{Nightly, every_night},
        terminal::Saving,
        upgrading::{Upgrade, brought_up_to_date},
    },
    clock::Clock,
    guard::Ours,
    import::{Fill, import, tariffs_of_demo},
    jobs::Jobs,
    leaving::keep_asking,
    left::keep_records,
    network::{
        Capped, Certificate, Door, Listen, MostConnections, Network, Passphrase, entrance::Entrance,
    },
    outside::{AllCarriers, Beside, Patience, Scale},
    pages::{PageShelf, Pages},
    pictures::Pictures,
    rework::keep_up,
};

/// What to serve, and where.
#[derive(Debug, Clone)]
pub struct ServeOptions {
    /// The database.
    pub database_url: String,
    /// A file with its address, which is followed when it says another.
    pub database_file: Option<PathBuf>,
    /// Where to listen; port 0 takes any that is free.
    pub address: SocketAddr,
    /// Which studio is opened, by the name that the database knows it by.
    pub studio: String,
    /// What it is filled from if there is none of that name.
    pub start_with: PathBuf,
    /// What of that is taken.
    pub fill: Fill,
    /// What day it is.
    pub clock: Clock,
    /// The web build.
    pub pages: Pages,
    /// Further names that it answers under.
    pub allow_hosts: Vec<String>,
    /// Origins of pages that reach it through a proxy.
    pub origins: Vec<String>,
    /// Where to listen on the local network besides.
    pub listen: Option<Listen>,
    /// What devices there know it by.
    pub certificate: Certificate,
    /// Who makes documents.
    pub documents: Documents,
    /// Where photographs lie.
    pub pictures: Pictures,
    /// Where a backup is written every night; `None` if nowhere.
    pub nightly: Option<Nightly>,
    /// What becomes of tables of an earlier edition.
    pub upgrade: Upgrade,
    /// What stands outside.
    pub outside: Outside,
    /// How long anybody is kept waiting.
    pub waits: Waits,
    /// How many connections may stand.
    pub most_connections: Budgets,
}

/// How many connections may stand at once, each door by itself: no stranger takes the places of the machine's own pages.
#[derive(Debug, Clone, Copy)]
pub struct Budgets {
    /// Of the machine itself.
    pub machine: MostConnections,
    /// Of the local network.
    pub network: MostConnections,
}

impl Default for Budgets {
    fn default() -> Self {
        Self {
            machine: MostConnections::MACHINE,
            network: MostConnections::NETWORK,
        }
    }
}

/// How long whoever asks is kept waiting before being told that it did not work.
#[derive(Debug, Clone, Copy)]
pub struct Waits {
    /// For an answer.
    pub answer: Duration,
    /// For a document; shorter than for an answer, so that there is a word about it.
    pub document: Duration,
    /// For a connection to the database.
    pub database: Duration,
    /// For the work that another process took upon itself and may have died over.
    pub claim: Duration,
    /// For the head of a request; whoever has not sent the whole of it by then is hung up on.
    pub head: Duration,
}

impl Default for Waits {
    fn default() -> Self {
        Self {
            answer: Duration::from_secs(10),
            document: Duration::from_secs(9),
            database: Duration::from_secs(6),
            // Far longer than a batch takes.
            claim: Duration::from_secs(20),
            head: Duration::from_secs(10),
        }
    }
}

/// What stands outside the program.
#[derive(Debug, Clone, Default)]
pub struct Outside {
    /// The address of the scale, as `http://127.0.0.1:7374/scale`.
    pub scale: Option<String>,
    /// The address of the carriers' own service.
    pub carriers: Option<String>,
    /// Whom carriers' services may be vouched for by, beside those that the machine trusts (PEM).
    pub authority: Option<Vec<u8>>,
    /// Whether both are only stand-ins.
    pub stand_in: bool,
    /// How long they are waited for.
    pub patience: Patience,
}

impl ServeOptions {
    /// On a free port of loopback alone, from the demo files of the working folder.
    #[must_use]
    pub fn on_loopback(database_url: impl Into<String>, pages: Pages) -> Self {
        Self {
            database_url: database_url.into(),
            database_file: None,
            address: ([127, 0, 0, 1], 0).into(),
            studio: STUDIO.to_owned(),
            start_with: "demo".into(),
            fill: Fill::Everything,
            clock: Clock::Machine,
            pages,
            allow_hosts: Vec::new(),
            origins: Vec::new(),
            listen: None,
            certificate: Certificate::Studio("keys".into()),
            documents: Documents::beside_this_program(),
            pictures: Pictures::in_memory(),
            nightly: None,
            upgrade: Upgrade::Saved("before-upgrades".into()),
            outside: Outside::default(),
            waits: Waits::default(),
            most_connections: Budgets::default(),
        }
    }
}

/// The name of the studio that is opened unless another is asked for.
pub const STUDIO: &str = "studio";
/// The file that says where the database is, is looked at this often.
const LOOK_EVERY: Duration = Duration::from_secs(1);
/// Whoever is still being answered when it is to stop has so long.
const LONGEST_GOODBYE: Duration = Duration::from_secs(4);

/// Returns the carriers' own services; a simulated one speaks for the price lists that the demo comes with.
fn carriers_beside(options: &ServeOptions) -> AllCarriers {
    let outside = &options.outside;
    let carriers = AllCarriers::at(
        outside.carriers.as_deref(),
        outside.patience,
        outside.authority.as_deref(),
    );
    match outside.stand_in {
        true => carriers.simulated(tariffs_of_demo(&options.start_with)),
        false => carriers,
    }
}

/// An application that is being served.
#[derive(Debug)]
pub struct Running {
    address: SocketAddr,
    network: Option<Arc<Network>>,
    handle: Handle<SocketAddr>,
    servers: Vec<JoinHandle<std::io::Result<()>>>,
    _keeping_up: EndsWith,
    _asking: EndsWith,
    _recording: EndsWith,
    _saving: EndsWith,
    _following: Option<EndsWith>,
}

/// Work that ends when this is dropped.
#[derive(Debug)]
struct EndsWith(JoinHandle<()>);

impl Drop for EndsWith {
    fn drop(&mut self) {
        self.0.abort();
    }
}

/// Fills the database if it is empty, and serves until told to stop.
///
/// # Errors
/// When the database can't be reached, the start files can't be read, or the address is taken.
pub async fn serve(options: &ServeOptions) -> Result<Running> {
    // Whoever else in this process speaks TLS does it the same way; it may have been settled before.
    let _ = rustls::crypto::ring::default_provider().install_default();
    // A connection is a file; what can't be raised stays as it is.
    let _ = rlimit::increase_nofile_limit(u64::MAX);
    // Before anything is stored or printed: who finds the port taken has changed nothing.
    let listener = bound(options.address, "--port")?;
    let nearby = options.listen.map(|listen| bound(listen.0, "--listen"));
    let nearby = nearby.transpose()?;
    let store = Store::connect(&options.database_url, options.waits.database).await?;
    let (pictures, documents) = (&options.pictures, &options.documents);
    let saving = Saving {
        pictures,
        documents,
        clock: options.clock,
    };
    brought_up_to_date(&store, &options.upgrade, &saving).await?;
    let imported = import(
        &store,
        &options.studio,
        &options.start_with,
        options.fill,
        options.clock,
    )
    .await?;
    tracing::info!(
        created = imported.created,
        shipments = imported.shipments,
        "the studio is open"
    );
    for studio in store.studios().await? {
        // One that can't be read is no reason for the others to stay closed.
        if let Err(error) = store.of(studio).catch_up_log().await {
            tracing::error!(%studio, %error, "the log of a studio can't be brought up to date");
        }
    }
    let following = options.database_file.clone().map(|file| {
        EndsWith(tokio::spawn(follow(
            store.clone(),
            file,
            options.database_url.clone(),
        )))
    });
    let network = match options.listen.zip(nearby) {
        Some((listen, listener)) => {
            let own = store.of(imported.studio);
            Some(open_network(listen, listener, options, &own).await?)
        }
        None => None,
    };
    let app = App::of(Parts {
        store,
        clock: options.clock,
        jobs: Jobs::by(options.clock),
        outside: Beside {
            scale: Scale::at(options.outside.scale.as_deref()),
            carriers: carriers_beside(options),
            stand_in: options.outside.stand_in,
        },
        entrance: Entrance {
            network: network.as_ref().map(|open| open.network.clone()),
            ..Entrance::default()
        },
        pages: Arc::new(PageShelf::of(options.pages)),
        documents: options.documents.clone().within(options.waits.document),
        pictures: options.pictures.clone(),
        nightly: options.nightly.clone(),
        longest_answer: options.waits.answer,
        longest_claim: options.waits.claim,
    });
    let keeping_up = EndsWith(tokio::spawn(keep_up(app.clone())));
    let asking = EndsWith(tokio::spawn(keep_asking(app.clone(), Instant::now())));
    let recording = EndsWith(tokio::spawn(keep_records(app.clone())));
    let saving = EndsWith(tokio::spawn(every_night(app.clone())));
    let handle = Handle::new();
    let address = listener.local_addr()?;
    let ours = |ips: &[IpAddr]| Ours::of(ips, &options.allow_hosts, &options.origins);
    let server = axum_server::from_tcp(listener)?.handle(handle.clone());
    let server = server.map(|inner| Capped::new(inner, options.most_connections.machine));
    let server = patient(server, options.waits.head);
    let router = api::router(
        app.clone(),
        ours(&[address.ip()])?,
        Door::Machine(imported.studio),
    );
    let service = router.into_make_service_with_connect_info::<SocketAddr>();
    let mut servers = vec![tokio::spawn(server.serve(service))];
    if let Some(open) = network {
        let tls = RustlsConfig::from_config(open.tls);
        let server = axum_server::from_tcp(open.listener)?.handle(handle.clone());
        let server = server.map(|_| {
            let tls = RustlsAcceptor::new(tls).handshake_timeout(options.waits.head);
            Capped::new(tls, options.most_connections.network)
        });
        let server = patient(server, options.waits.head);
        let router = api::router(
            app.clone(),
            ours(&open.ips)?,
            Door::Network(imported.studio),
        );
        let service = router.into_make_service_with_connect_info::<SocketAddr>();
        servers.push(tokio::spawn(server.serve(service)));
    }
    Ok(Running {
        address,
        network: app.entrance.network.clone(),
        handle,
        servers,
        _keeping_up: keeping_up,
        _asking: asking,
        _recording: recording,
        _saving: saving,
        _following: following,
    })
}

/// Goes where the database goes, as a file says.
async fn follow(store: Store, file: PathBuf, mut address: String) {
    let mut looks = tokio::time::interval(LOOK_EVERY);
    loop {
        looks.tick().await;
        let Ok(says) = tokio::fs::read_to_string(&file).await else {
            continue;
        };
        let says = says.trim();
        if says.is_empty() || says == address {
            continue;
        }
        address = says.to_owned();
        match store.move_to(says) {
            Ok(()) => tracing::warn!("the database is at another address now"),
            Err(error) => tracing::error!(%error, "the file names no database"),
        }
    }
}

/// The local network, before anybody is answered on it.
struct OpenNetwork {
    listener: TcpListener,
    ips: Vec<IpAddr>,
    tls: Arc<rustls::ServerConfig>,
    network: Arc<Network>,
}

async fn open_network(
    listen: Listen,
    listener: TcpListener,
    options: &ServeOptions,
    store: &StudioStore,
) -> Result<OpenNetwork> {
    let prepared = listen.prepare(&options.certificate, &options.allow_hosts)?;
    let addresses = prepared.origins(&options.allow_hosts, listener.local_addr()?.port());
    let mut first_passphrase = None;
    if store.passphrase().await?.is_none() {
        let made = Passphrase::made()?;
        let shown = made.shown().to_owned();
        if store.keep_first_passphrase(&made.hashed().await?).await? {
            first_passphrase = Some(shown);
        }
    }
    Ok(OpenNetwork {
        listener,
        ips: prepared.ips,
        tls: prepared.tls,
        network: Arc::new(Network {
            addresses,
            authority: prepared.authority,
            first_passphrase,
        }),
    })
}

fn bound(address: SocketAddr, option: &str) -> Result<TcpListener> {
    let listener = TcpListener::bind(address)
        .with_context(|| format!("{address} can't be listened on: choose another with {option}"))?;
    listener.set_nonblocking(true)?;
    Ok(listener)
}

/// Speaks HTTP/1.1 alone and waits for a slow head, but not for ever: who says nothing is hung up on.
fn patient<A>(server: Server<SocketAddr, A>, head: Duration) -> Server<SocketAddr, A> {
    let mut server = server.http1_only().first_request_timeout(head);
    server
        .http_builder()
        .http1()
        .timer(TokioTimer::new())
        .header_read_timeout(head);
    server
}

impl Running {
    /// Returns where it listens.
    #[must_use]
    pub const fn address(&self) -> SocketAddr {
        self.address
    }

    /// Returns how it is reached on the local network, when it is.
    #[must_use]
    pub fn network(&self) -> Option<&Network> {
        self.network.as_deref()
    }

    /// Tells it to finish what it is doing and stop; whoever keeps it waiting is hung up on.
    ///
    /// # Errors
    /// When serving had failed.
    pub async fn stop(mut self) -> Result<()> {
        self.handle.graceful_shutdown(Some(LONGEST_GOODBYE));
        for server in std::mem::take(&mut self.servers) {
            server.await??;
        }
        Ok(())
    }
}

impl Drop for Running {
    /// Whoever lets go of it without a word hangs up on everybody, so that nothing holds the database on.
    fn drop(&mut self) {
        self.handle.shutdown();
        for server in &self.servers {
            server.abort();
        }
    }
}

//! The command line: serves the application, and does the chores around it.

use std::{io::IsTerminal as _, net::SocketAddr, path::PathBuf};

use anyhow::{Context as _, Result};
use clap::{Args, Parser, Subcommand};
use hummock_store::{Store, StudioId};
use jiff::civil::Date;
use tracing::Level;
use tracing_subscriber::{
    filter::Targets, layer::SubscriberExt as _, util::SubscriberInitExt as _,
};

use crate::{
    Certificate, Clock, Documents, Fill, Listen, Network, Outside, Pages, Pictures, ServeOptions,
    Waits,
    backup::{
        nightly::Nightly,
        terminal::{self, Saving},
        upgrading::{Upgrade, brought_up_to_date},
    },
    description::DESCRIPTION,
    import,
    network::Passphrase,
    serve,
    serve::{Budgets, STUDIO},
};

/// Packing and shipping for the people who make and frame flat art.
#[derive(Debug, Parser)]
#[command(version)]
struct Command {
    #[command(subcommand)]
    task: Task,
}

#[derive(Debug, Subcommand)]
#[expect(clippy::large_enum_variant, reason = "there is one of it")]
enum Task {
    /// Serves the application until Ctrl-C.
    Serve {
        #[command(flatten)]
        studio: StudioArgs,
        /// A file that holds the address of the database; when it says another, the server goes there.
        #[arg(long, value_name = "FILE")]
        database_file: Option<PathBuf>,
        /// Port on 127.0.0.1; 0 takes any that is free.
        #[arg(long, default_value_t = 7373)]
        port: u16,
        /// A further name that it answers under, as studio.example; may be given more than once.
        #[arg(long = "allow-host")]
        allow_hosts: Vec<String>,
        /// The origin of its pages behind a proxy, as https://studio.example; several are separated by commas.
        #[arg(long = "origin", env = "HUMMOCK_ORIGIN", value_delimiter = ',')]
        origins: Vec<String>,
        #[command(flatten)]
        documents: DocumentsArgs,
        #[command(flatten)]
        photographs: PhotographArgs,
        /// A folder that a backup of every studio is written into every night: seven days, four weeks and twelve months are kept, and each
        /// picture once.
        #[arg(long, value_name = "FOLDER", env = "HUMMOCK_BACKUPS")]
        backups: Option<PathBuf>,
        #[command(flatten)]
        sealing: SealingArgs,
        #[command(flatten)]
        upgrade: UpgradeArgs,
        #[command(flatten)]
        outside: OutsideArgs,
        #[command(flatten)]
        network: NetworkArgs,
    },
    /// Fills an empty database from a folder of data files.
    Import {
        #[command(flatten)]
        studio: StudioArgs,
        #[command(flatten)]
        saving: SavingArgs,
    },
    /// Writes a whole studio, with its photographs, to one open file. Tables of an earlier edition stay as they are.
    Backup {
        #[command(flatten)]
        studio: StudioArgs,
        #[command(flatten)]
        photographs: PhotographArgs,
        #[command(flatten)]
        sealing: SealingArgs,
        #[command(flatten)]
        documents: DocumentsArgs,
        /// Writes every studio of the database, to a folder: each to a file that is named by its id and the day, with its pictures in a
        /// folder beside it. A picture that is there already is not copied again.
        #[arg(long, conflicts_with = "studio")]
        all: bool,
        /// As studio.zip; with --all a folder.
        file: PathBuf,
    },
    /// Reads such a file into an empty database, with the pictures that lie beside it.
    Restore {
        #[command(flatten)]
        studio: StudioArgs,
        #[command(flatten)]
        saving: SavingArgs,
        #[command(flatten)]
        sealing: SealingArgs,
        /// Reads it in although pictures in it are broken, without those.
        #[arg(long)]
        without_broken: bool,
        /// As studio.zip.
        file: PathBuf,
    },
    /// Reads all of such a file, as reading it in would, and changes nothing.
    Verify {
        #[command(flatten)]
        sealing: SealingArgs,
        #[command(flatten)]
        documents: DocumentsArgs,
        /// As studio.zip.
        file: PathBuf,
    },
    /// Brings the tables of the database up to date, and saves every studio before that.
    Migrate {
        /// The database.
        #[arg(long, env = "DATABASE_URL")]
        database_url: String,
        #[command(flatten)]
        saving: SavingArgs,
        /// Takes this for the day, as 2027-03-04; for demonstrations.
        #[arg(long)]
        today: Option<Date>,
    },
    /// Makes a new passphrase for the tablets of a studio and shows it once; each of them is asked for it before it is told anything more.
    Passphrase {
        #[command(flatten)]
        studio: StudioArgs,
    },
    /// Prints the description of the API.
    Openapi,
}

#[derive(Debug, Args)]
struct PhotographArgs {
    /// Where photographs lie: a folder, or s3://bucket/prefix with AWS_ENDPOINT, AWS_ACCESS_KEY_ID and what else it takes in the
    /// surroundings, in a build with that feature.
    #[arg(
        long,
        value_name = "PLACE",
        env = "HUMMOCK_PHOTOGRAPHS",
        default_value = "photographs"
    )]
    photographs: String,
}

#[derive(Debug, Args)]
struct DocumentsArgs {
    /// The program that makes documents, and seals and opens backups; beside this one when left out. It may come later.
    #[arg(long, value_name = "FILE", env = "HUMMOCK_DOCUMENTS")]
    documents: Option<PathBuf>,
}

impl DocumentsArgs {
    fn documents(self) -> Documents {
        self.documents
            .map_or_else(Documents::beside_this_program, Documents::by)
    }
}

/// What happens before an upgrade changes the tables of a database.
#[derive(Debug, Args)]
struct UpgradeArgs {
    /// A folder that every studio is saved to before an upgrade changes its tables.
    #[arg(long, value_name = "FOLDER", default_value = "before-upgrades")]
    upgrade_backups: PathBuf,
    /// Changes the tables without saving anything.
    #[arg(long)]
    without_backup: bool,
}

impl UpgradeArgs {
    fn upgrade(self) -> Upgrade {
        if self.without_backup {
            Upgrade::WithoutBackup
        } else {
            Upgrade::Saved(self.upgrade_backups)
        }
    }
}

/// What a database is opened with whose tables may be of an earlier edition.
#[derive(Debug, Args)]
struct SavingArgs {
    #[command(flatten)]
    photographs: PhotographArgs,
    #[command(flatten)]
    documents: DocumentsArgs,
    #[command(flatten)]
    upgrade: UpgradeArgs,
}

impl SavingArgs {
    /// Opens a database with its tables up to date.
    async fn opened(self, database_url: &str, clock: Clock) -> Result<Opened> {
        let store = Store::connect(database_url, Waits::default().database).await?;
        let opened = Opened {
            store,
            pictures: Pictures::at(&self.photographs.photographs)?,
            documents: self.documents.documents(),
            clock,
        };
        let upgrade = self.upgrade.upgrade();
        let saved = brought_up_to_date(&opened.store, &upgrade, &opened.saving()).await?;
        if saved > 0 {
            println!("saved {saved} studios before the tables were changed");
        }
        Ok(opened)
    }
}

/// A database whose tables are up to date, with what studios are read and written by.
struct Opened {
    store: Store,
    pictures: Pictures,
    documents: Documents,
    clock: Clock,
}

impl Opened {
    const fn saving(&self) -> Saving<'_> {
        Saving {
            pictures: &self.pictures,
            documents: &self.documents,
            clock: self.clock,
        }
    }
}

#[derive(Debug, Args)]
struct SealingArgs {
    /// A file whose first line is the passphrase that backups are sealed with, in the age format.
    #[arg(long, value_name = "FILE", env = "HUMMOCK_BACKUP_PASSPHRASE_FILE")]
    passphrase_file: Option<PathBuf>,
}

impl SealingArgs {
    /// # Errors
    /// When the file can't be read, or its first line is empty.
    fn passphrase(&self) -> Result<Option<String>> {
        let Some(file) = &self.passphrase_file else {
            return Ok(None);
        };
        let says = || format!("the passphrase can't be read from {}", file.display());
        let text = std::fs::read_to_string(file).with_context(says)?;
        let first = text.lines().next().unwrap_or_default();
        anyhow::ensure!(
            !first.is_empty(),
            "the first line of {} is empty",
            file.display()
        );
        Ok(Some(first.to_owned()))
    }
}

#[derive(Debug, Args)]
struct OutsideArgs {
    /// The scale on the bench, as http://127.0.0.1:8010/scale: it sends its readings as server-sent events under /readings.
    #[arg(long, value_name = "ADDRESS")]
    scale: Option<String>,
    /// The carriers' own service.
    #[arg(long, value_name = "ADDRESS")]
    carriers: Option<String>,
    /// An authority that vouches for carriers' services, beside those that this machine trusts (PEM).
    #[arg(long, value_name = "FILE")]
    carriers_authority: Option<PathBuf>,
    /// The stand-ins for both, as http://127.0.0.1:7374, for demonstrations.
    #[arg(long, value_name = "ADDRESS", conflicts_with_all = ["scale", "carriers"])]
    stand_ins: Option<String>,
}

impl OutsideArgs {
    fn outside(self) -> Result<Outside> {
        let at = |path: &str| {
            Some(format!(
                "{}{path}",
                self.stand_ins.as_deref()?.trim_end_matches('/')
            ))
        };
        let authority = self.carriers_authority.as_ref().map(|file| {
            std::fs::read(file).with_context(|| format!("{} can't be read", file.display()))
        });
        Ok(Outside {
            scale: at("/scale").or(self.scale.clone()),
            carriers: at("/carrier").or(self.carriers.clone()),
            stand_in: self.stand_ins.is_some(),
            authority: authority.transpose()?,
            ..Outside::default()
        })
    }
}

#[derive(Debug, Args)]
struct NetworkArgs {
    /// An address of this machine to answer on for tablets of the local network too, always by TLS and only after the
    /// studio's passphrase: 192.168.1.20, or 0.0.0.0 for all of them; a port other than 7443 may follow.
    #[arg(long, value_name = "ADDRESS")]
    listen: Option<Listen>,
    /// Where the studio's authority is kept, whose certificate a tablet installs once.
    #[arg(long, value_name = "FOLDER", default_value = "keys")]
    keys: PathBuf,
    /// A certificate of your own in place of it, with those that it rests on (PEM).
    #[arg(long, value_name = "FILE", requires = "certificate_key")]
    certificate: Option<PathBuf>,
    /// The private key of your own certificate (PEM).
    #[arg(long, value_name = "FILE", requires = "certificate")]
    certificate_key: Option<PathBuf>,
}

impl NetworkArgs {
    fn certificate(self) -> Certificate {
        match (self.certificate, self.certificate_key) {
            (Some(chain), Some(key)) => Certificate::Own { chain, key },
            _ => Certificate::Studio(self.keys),
        }
    }
}

#[derive(Debug, Args)]
struct StudioArgs {
    /// The database.
    #[arg(long, env = "DATABASE_URL")]
    database_url: String,
    /// Which studio of the database; it is made if there is none of that name.
    #[arg(long, value_name = "NAME", default_value = STUDIO)]
    studio: String,
    /// What a new one is filled from.
    #[arg(long, default_value = "demo")]
    start_with: PathBuf,
    /// Begins with nothing of anybody's: the usual rules and materials alone.
    #[arg(long)]
    empty: bool,
    /// Takes this for the day, as 2027-03-04; for demonstrations.
    #[arg(long)]
    today: Option<Date>,
}

impl StudioArgs {
    fn fill(&self) -> Fill {
        match self.empty {
            true => Fill::Nobody,
            false => Fill::Everything,
        }
    }

    fn clock(&self) -> Clock {
        self.today.map_or(Clock::Machine, Clock::standing_on)
    }
}

/// Does what the command line says, with the pages that are handed in.
///
/// # Errors
/// When that fails; the message says what to do.
#[tokio::main]
pub async fn command(pages: Pages) -> Result<()> {
    let wanted = std::env::var("RUST_LOG").ok();
    let wanted = wanted.and_then(|wanted| wanted.parse().ok());
    tracing_subscriber::registry()
        .with(wanted.unwrap_or_else(|| Targets::new().with_default(Level::WARN)))
        .with(tracing_subscriber::fmt::layer().with_writer(std::io::stderr))
        .init();
    done(Command::parse(), pages).await
}

/// Does what some words say, as [`command`] does what the command line says.
///
/// # Errors
/// When they are no command, or that fails.
pub async fn command_of<W>(words: impl IntoIterator<Item = W>, pages: Pages) -> Result<()>
where
    W: Into<std::ffi::OsString> + Clone,
{
    done(Command::try_parse_from(words)?, pages).await
}

async fn done(command: Command, pages: Pages) -> Result<()> {
    match command.task {
        Task::Serve {
            studio,
            database_file,
            port,
            allow_hosts,
            origins,
            documents,
            photographs,
            backups,
            sealing,
            upgrade,
            outside,
            network,
        } => {
            let passphrase = sealing.passphrase()?;
            let nightly = backups.map(|folder| Nightly::into(folder, passphrase));
            let (clock, fill) = (studio.clock(), studio.fill());
            serve_until_told(&ServeOptions {
                database_url: studio.database_url,
                database_file,
                address: SocketAddr::from(([127, 0, 0, 1], port)),
                studio: studio.studio,
                start_with: studio.start_with,
                fill,
                clock,
                pages,
                allow_hosts,
                origins,
                listen: network.listen,
                certificate: network.certificate(),
                documents: documents.documents(),
                pictures: Pictures::at(&photographs.photographs)?,
                nightly: nightly.transpose()?,
                upgrade: upgrade.upgrade(),
                outside: outside.outside()?,
                waits: Waits::default(),
                most_connections: Budgets::default(),
            })
            .await
        }
        Task::Import { studio, saving } => {
            let opened = saving.opened(&studio.database_url, studio.clock()).await?;
            let imported = import(
                &opened.store,
                &studio.studio,
                &studio.start_with,
                studio.fill(),
                studio.clock(),
            )
            .await?;
            match imported.created {
                true => println!("imported the studio with {} shipments", imported.shipments),
                false => {
                    println!("the database has a studio of that name already; nothing was imported")
                }
            }
            Ok(())
        }
        Task::Backup {
            studio,
            photographs,
            sealing,
            documents,
            all,
            file,
        } => {
            let store = Store::connect(&studio.database_url, Waits::default().database).await?;
            let passphrase = sealing.passphrase()?;
            let opened = Opened {
                store,
                pictures: Pictures::at(&photographs.photographs)?,
                documents: documents.documents(),
                clock: studio.clock(),
            };
            let (store, saving) = (&opened.store, opened.saving());
            if all {
                println!(
                    "{}",
                    terminal::write_all_to(store, &saving, passphrase.as_deref(), &file).await?
                );
                return Ok(());
            }
            let kept = studio_named(store, &studio.studio).await?;
            let place = terminal::Place::File(file);
            println!(
                "{}",
                terminal::write_to(&store.of(kept), &saving, passphrase.as_deref(), &place).await?
            );
            Ok(())
        }
        Task::Restore {
            studio,
            saving,
            sealing,
            without_broken,
            file,
        } => {
            let opened = saving.opened(&studio.database_url, studio.clock()).await?;
            let into = import(
                &opened.store,
                &studio.studio,
                &studio.start_with,
                Fill::Nobody,
                studio.clock(),
            )
            .await?;
            let store = &opened.store.of(into.studio);
            let passphrase = sealing.passphrase()?;
            println!(
                "{}",
                terminal::read_from(
                    store,
                    &opened.saving(),
                    passphrase.as_deref(),
                    without_broken,
                    &file
                )
                .await?
            );
            Ok(())
        }
        Task::Verify {
            sealing,
            documents,
            file,
        } => {
            let passphrase = sealing.passphrase()?;
            let documents = documents.documents();
            println!(
                "{}",
                terminal::look_over_at(&documents, passphrase.as_deref(), &file).await?
            );
            Ok(())
        }
        Task::Migrate {
            database_url,
            saving,
            today,
        } => {
            let clock = today.map_or(Clock::Machine, Clock::standing_on);
            saving.opened(&database_url, clock).await?;
            println!("the tables are up to date");
            Ok(())
        }
        Task::Passphrase { studio } => {
            let store = Store::connect(&studio.database_url, Waits::default().database).await?;
            println!("{}", new_passphrase(&store, &studio.studio).await?);
            Ok(())
        }
        Task::Openapi => {
            print!("{DESCRIPTION}");
            Ok(())
        }
    }
}

/// Returns the studio of a name.
async fn studio_named(store: &Store, name: &str) -> Result<StudioId> {
    let found = store.studio_named(name).await?;
    found.with_context(|| format!("the database has no studio named {name}"))
}

/// Gives a studio another passphrase, and returns it: where nobody sits at the machine itself, as in a container, nobody else can.
async fn new_passphrase(store: &Store, name: &str) -> Result<String> {
    let studio = studio_named(store, name).await?;
    let made = Passphrase::made()?;
    let shown = made.shown().to_owned();
    store
        .of(studio)
        .change_passphrase(&made.hashed().await?)
        .await?;
    Ok(shown)
}

async fn serve_until_told(options: &ServeOptions) -> Result<()> {
    let running = serve(options).await?;
    println!("Hummock is open at http://{}", running.address());
    if let Some(network) = running.network() {
        print!("{}", told(network));
    }
    told_to_stop().await?;
    running.stop().await
}

/// Says how a tablet gets in.
fn told(network: &Network) -> String {
    let mut says = format!("Tablets open it at {}\n", network.addresses.join(" or "));
    if let Some(drawn) = network.drawn() {
        // Cameras want it dark on light, whatever the terminal is.
        let (on, off) = match std::io::stdout().is_terminal() {
            true => ("\u{1b}[30;107m", "\u{1b}[0m"),
            false => ("", ""),
        };
        for line in drawn.lines() {
            says += &format!("{on}{line}{off}\n");
        }
    }
    match &network.first_passphrase {
        Some(made) => {
            says += &format!(
                "and are asked once for this passphrase, which is not shown again: {made}\n"
            );
        }
        None => says += "and are asked once for the studio's passphrase.\n",
    }
    if let Some(fingerprint) = network.fingerprint() {
        says += &format!("The studio's certificate has the fingerprint {fingerprint}\n");
    }
    says
}

/// Waits for Ctrl-C, or for the polite signal of whoever started it.
async fn told_to_stop() -> Result<()> {
    let mut polite = tokio::signal::unix::signal(tokio::signal::unix::SignalKind::terminate())?;
    tokio::select! {
        interrupted = tokio::signal::ctrl_c() => interrupted?,
        _ = polite.recv() => {}
    }
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::*;

    const UNIT: &str = include_str!("../../../deploy/hummock.service");
    const CONTAINER: &str = include_str!("../../../deploy/Containerfile");

    fn is_served(words: &[&str]) {
        let asked = [
            &["hummock"],
            words,
            &["--database-url", "postgres://nowhere"],
        ]
        .concat();
        let command = Command::try_parse_from(asked).expect("the command line is one");
        assert!(matches!(command.task, Task::Serve { .. }));
    }

    #[test]
    fn what_is_deployed_serves_by_a_command_line_that_there_is() {
        let line = UNIT
            .lines()
            .find_map(|line| line.strip_prefix("ExecStart="));
        let words: Vec<&str> = line
            .expect("it starts something")
            .split_whitespace()
            .collect();
        is_served(&words[1..]);
        let line = CONTAINER
            .lines()
            .find_map(|line| line.strip_prefix("ENTRYPOINT "));
        let words: Vec<&str> =
            serde_json::from_str(line.expect("it starts something")).expect("a list");
        is_served(&words[1..]);
        assert!(CONTAINER.lines().any(|line| line == "USER 10001"));
    }

    /// The sandbox of the unit: a user of its own, a root that is only read, no new rights, a filter of system calls.
    #[test]
    fn the_unit_has_nothing_of_the_machine_but_its_folder() {
        let said: Vec<&str> = UNIT.lines().collect();
        for wanted in [
            "DynamicUser=yes",
            "NoNewPrivileges=yes",
            "ProtectSystem=strict",
            "ProtectHome=yes",
            "PrivateTmp=yes",
            "PrivateDevices=yes",
            "CapabilityBoundingSet=",
            "MemoryDenyWriteExecute=yes",
            "RestrictAddressFamilies=AF_INET AF_INET6 AF_UNIX",
            "SystemCallFilter=@system-service",
            "LimitNOFILE=65536",
            "StateDirectory=hummock",
            "UMask=0077",
        ] {
            assert!(said.contains(&wanted), "{wanted}");
        }
        // Whatever it writes lies in that folder.
        let line = said
            .iter()
            .find(|line| line.starts_with("ExecStart="))
            .expect("it starts something");
        for folder in ["--keys", "--photographs", "--backups", "--upgrade-backups"] {
            let at = line
                .split_whitespace()
                .skip_while(|word| *word != folder)
                .nth(1);
            assert!(
                at.is_some_and(|at| at.starts_with("/var/lib/hummock/")),
                "{folder}"
            );
        }
    }
}

//! Backups from the command line: made, looked over and read in.

use std::{
    fs::File,
    io::Seek as _,
    path::{Path, PathBuf},
    sync::Arc,
};

use anyhow::Context as _;
use hummock_store::{Holdings, Store, StudioStore};

use super::{
    album::{self, Album},
    into,
    look::{Broken, PicturesIn, look_over, pictures_of},
    nightly,
    out::{self, Beside, Out},
    sealing,
    state::{Count, Failed, listed, told},
};
use crate::{clock::Clock, pictures::Pictures, press::Documents};

/// What backups are made and read with, beside the database.
pub(crate) struct Saving<'a> {
    pub(crate) pictures: &'a Pictures,
    pub(crate) documents: &'a Documents,
    pub(crate) clock: Clock,
}

/// Where a backup is written.
pub(crate) enum Place {
    /// To a file, with its pictures in it.
    File(PathBuf),
    /// To a file of a folder, with its pictures beside it.
    InFolder(PathBuf),
}

impl Place {
    fn file(&self) -> &Path {
        let (Self::File(file) | Self::InFolder(file)) = self;
        file
    }

    fn folder(&self) -> &Path {
        folder_of(self.file())
    }
}

fn folder_of(file: &Path) -> &Path {
    let folder = file.parent().filter(|folder| *folder != Path::new(""));
    folder.unwrap_or_else(|| Path::new("."))
}

/// Writes a backup of a studio, sealed where there is a passphrase, and reads it once.
///
/// # Errors
/// When the file can't be written or read again, or the database or the photographs can't be reached.
pub(crate) async fn write_to(
    store: &StudioStore,
    saving: &Saving<'_>,
    passphrase: Option<&str>,
    place: &Place,
) -> anyhow::Result<String> {
    let count = Arc::new(Count::default());
    let telling = Telling::of(&count);
    let written = written_to(store, saving, passphrase, place, &count).await;
    drop(telling);
    let (holdings, broken) = written?;
    let Holdings {
        shipments,
        photographs,
        ..
    } = holdings;
    let without = match broken.len() {
        0 => String::new(),
        _ => format!("; without {}", listed(&broken)),
    };
    Ok(format!(
        "{shipments} shipments and {photographs} photographs are in {}{without}",
        place.file().display()
    ))
}

/// What a backup is named while it is written.
const UNFINISHED: &str = ".hummock-unfinished-";

/// Takes away what programs that were killed left half written in a folder.
///
/// # Errors
/// When the folder can't be read, or one of them not be taken away.
pub(super) fn clear_unfinished(folder: &Path) -> std::io::Result<()> {
    for entry in std::fs::read_dir(folder)? {
        let entry = entry?;
        let is_unfinished = entry.file_name().to_string_lossy().starts_with(UNFINISHED);
        if is_unfinished && album::is_given_up(&entry.path())? {
            std::fs::remove_file(entry.path())?;
        }
    }
    Ok(())
}

/// Writes a backup of every studio to a folder, each under its id, and pictures that are not there yet.
///
/// # Errors
/// As [`write_to`], with all that went wrong: those that can be written are.
pub(crate) async fn write_all_to(
    store: &Store,
    saving: &Saving<'_>,
    passphrase: Option<&str>,
    folder: &Path,
) -> anyhow::Result<String> {
    std::fs::create_dir_all(folder)
        .with_context(|| format!("{} can't be made", folder.display()))?;
    let (mut said, mut failed) = (Vec::new(), Vec::new());
    for studio in store.studios().await? {
        let file = nightly::file_in(
            folder,
            studio.id(),
            saving.clock.today(),
            passphrase.is_some(),
        );
        let place = Place::InFolder(file);
        match write_to(&store.of(studio), saving, passphrase, &place).await {
            Ok(says) => said.push(says),
            Err(error) => failed.push(format!("{error:#}")),
        }
    }
    anyhow::ensure!(
        failed.is_empty(),
        "{} of {} studios were not saved: {}",
        failed.len(),
        failed.len() + said.len(),
        failed.join("; ")
    );
    Ok(said.join("\n"))
}

/// Writes it; what is half done never stands under its name.
///
/// # Errors
/// As [`write_to`].
pub(super) async fn written_to(
    store: &StudioStore,
    saving: &Saving<'_>,
    passphrase: Option<&str>,
    place: &Place,
    count: &Arc<Count>,
) -> anyhow::Result<(Holdings, Vec<Broken>)> {
    let (file, folder) = (place.file(), place.folder());
    let says = || format!("{} can't be written", file.display());
    let unfinished = tempfile::Builder::new()
        .prefix(UNFINISHED)
        .tempfile_in(folder)
        .with_context(says)?;
    let plain = match passphrase {
        None => unfinished.reopen()?,
        // There is room for it where there is room for the backup.
        Some(_) => tempfile::tempfile_in(folder).with_context(says)?,
    };
    let beside = match place {
        Place::File(_) => None,
        Place::InFolder(_) => {
            let (folder, documents) = (folder.to_owned(), saving.documents.clone());
            let passphrase = passphrase.map(str::to_owned);
            let album = tokio::task::spawn_blocking(move || {
                Album::to_add_to(&folder, &documents, passphrase.as_deref())
            });
            Some(Beside {
                album: album.await??,
                backup: file.to_owned(),
            })
        }
    };
    let album = beside.as_ref().map(|beside| beside.album.clone());
    let out = Out {
        store,
        pictures: saving.pictures,
        clock: saving.clock,
        beside,
    };
    let written = out::write(&out, plain, count).await?;
    written.read_once(album, count).await?;
    if let Some(passphrase) = passphrase {
        let sealed = saving
            .documents
            .sealed(written.file.try_clone()?, passphrase)
            .await?;
        // That it opens again is seen before it is kept.
        let opened = saving
            .documents
            .opened(sealed.try_clone()?, passphrase)
            .await?;
        let same = opened.metadata()?.len() == written.file.metadata()?.len();
        anyhow::ensure!(
            same,
            "the encrypted backup doesn't decrypt to the same data"
        );
        let mut to = unfinished.reopen()?;
        tokio::task::spawn_blocking(move || {
            let mut sealed = sealed;
            sealed.rewind()?;
            std::io::copy(&mut sealed, &mut to)?;
            to.sync_data()
        })
        .await??;
    }
    unfinished.persist(file).with_context(says)?;
    Ok((written.holdings, written.broken))
}

/// Reads a backup from a file into a studio, which must be empty.
///
/// # Errors
/// When it is none, or something is kept there already; nothing of it is kept then.
pub(crate) async fn read_from(
    store: &StudioStore,
    saving: &Saving<'_>,
    passphrase: Option<&str>,
    without_broken: bool,
    file: &Path,
) -> anyhow::Result<String> {
    let (opened, pictures_in) = plain(saving.documents, passphrase, file).await?;
    if let (PicturesIn::Folder(None), false) = (&pictures_in, without_broken) {
        anyhow::bail!(
            "its pictures lie in a folder beside it, which is not in {}: bring it there, or read it in without them with --without-broken",
            folder_of(file).display()
        );
    }
    let count = Arc::new(Count::default());
    let telling = Telling::of(&count);
    let read = into::read(
        store,
        saving.pictures,
        (opened, pictures_in),
        without_broken,
        &count,
    )
    .await;
    drop(telling);
    let read = read.map_err(|failed| match failed {
        Failed::Broken(_) => {
            anyhow::anyhow!("{failed}; --without-broken reads it in without them")
        }
        failed => anyhow::anyhow!("{}", told(&failed)),
    })?;
    let without = match read.broken.len() {
        0 => String::new(),
        _ => format!("; without {}", listed(&read.broken)),
    };
    Ok(format!(
        "{} shipments and {} photographs were read in{without}",
        read.shipments, read.photographs
    ))
}

/// Reads all of a backup and keeps nothing of it.
///
/// # Errors
/// When it could not be read in.
pub(crate) async fn look_over_at(
    documents: &Documents,
    passphrase: Option<&str>,
    file: &Path,
) -> anyhow::Result<String> {
    let (opened, pictures_in) = plain(documents, passphrase, file).await?;
    let count = Arc::new(Count::default());
    let telling = Telling::of(&count);
    let counted = Arc::clone(&count);
    let looked =
        tokio::task::spawn_blocking(move || look_over(opened, pictures_in, &counted)).await?;
    drop(telling);
    let looked = looked.map_err(|failed| anyhow::anyhow!("{}", told(&failed)))?;
    let says = format!(
        "{} shipments and {} photographs with their pictures are in {}",
        looked.shipments,
        looked.photographs,
        file.display()
    );
    match looked.broken.len() {
        0 => Ok(says),
        _ => anyhow::bail!("{says}; missing or broken: {}", listed(&looked.broken)),
    }
}

/// Opens a backup, a sealed one by its passphrase, and the folder that its pictures lie in.
async fn plain(
    documents: &Documents,
    passphrase: Option<&str>,
    file: &Path,
) -> anyhow::Result<(File, PicturesIn)> {
    let says = || format!("{} can't be read", file.display());
    let found = File::open(file).with_context(says)?;
    let opened = if sealing::is_sealed(&found).with_context(says)? {
        let passphrase = passphrase
            .context("it is encrypted: name the file with its passphrase by --passphrase-file")?;
        documents.opened(found, passphrase).await?
    } else {
        found
    };
    let (again, folder) = (opened.try_clone()?, folder_of(file).to_owned());
    let (documents, passphrase) = (documents.clone(), passphrase.map(str::to_owned));
    let pictures_in = tokio::task::spawn_blocking(move || match pictures_of(again)? {
        None => Ok(PicturesIn::File),
        Some(name) => {
            Album::named(&folder, &name, &documents, passphrase.as_deref()).map(PicturesIn::Folder)
        }
    });
    let pictures_in = pictures_in
        .await?
        .map_err(|failed| anyhow::anyhow!("{}", told(&failed)))?;
    Ok((opened, pictures_in))
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

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_a_killed_program_left_half_written_is_taken_away() {
        let folder = tempfile::tempdir().expect("a folder");
        let long_ago = std::time::SystemTime::now() - 2 * album::GIVEN_UP;
        let names = [
            (".hummock-unfinished-old", true, false),
            // Somebody writes to it still.
            (".hummock-unfinished-new", false, true),
            ("letter.txt", true, true),
        ];
        for (name, old, _) in names {
            let file = File::create(folder.path().join(name)).expect("a file");
            if old {
                file.set_modified(long_ago).expect("it is set");
            }
        }
        clear_unfinished(folder.path()).expect("they are taken away");
        for (name, _, stays) in names {
            assert_eq!(folder.path().join(name).exists(), stays, "{name}");
        }
    }
}

//! The pictures of backups in a folder: each is copied once, beside the files that list it.

use std::{
    collections::HashSet,
    fs::File,
    io::{self, BufRead as _, BufReader, Read as _},
    path::{Path, PathBuf},
    sync::{Arc, Mutex, PoisonError},
    time::Duration,
};

use super::{Failed, sealing::Lock};
use crate::{
    pictures::{LARGEST, hex, write_whole},
    press::Documents,
};

/// A folder of pictures beside backups, each under its digest.
#[derive(Debug, Clone)]
pub(super) struct Album {
    /// As a backup names it.
    name: String,
    folder: PathBuf,
    /// By what its pictures are sealed.
    lock: Option<Arc<Mutex<Lock>>>,
}

const OPEN: &str = "pictures";
const SEALED: &str = "pictures-sealed";
/// The key of sealed pictures, itself sealed with a passphrase.
const KEY: &str = "key.age";
/// What the name of the list of a backup's pictures says at its end.
const LISTS: &str = ".pictures";
/// What nobody wrote to for so long was left by a program that was killed.
pub(super) const GIVEN_UP: Duration = Duration::from_secs(3600);

/// Tells whether a name is one that a backup gives its pictures; anything else could lead out of the folder.
fn is_name(name: &str) -> bool {
    let number = name.strip_prefix(SEALED).map(|rest| {
        rest.is_empty()
            || rest
                .strip_prefix('-')
                .is_some_and(|number| number.parse::<u32>().is_ok())
    });
    name == OPEN || number.unwrap_or(false)
}

/// What lies in it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Kind {
    /// The picture of a photograph.
    Picture,
    /// What a parcel was when it was handed over.
    Record,
}

impl Kind {
    const fn ending(self) -> &'static str {
        match self {
            Self::Picture => "jpg",
            Self::Record => "json.zst",
        }
    }
}

impl Album {
    /// Opens the one that more pictures are put into: for a passphrase the one whose key it opens, or a new one.
    ///
    /// # Errors
    /// [`Failed`] when the folder can't be used, or no program is there to seal with.
    pub(super) fn to_add_to(
        folder: &Path,
        documents: &Documents,
        passphrase: Option<&str>,
    ) -> Result<Self, Failed> {
        let Some(passphrase) = passphrase else {
            return Self::new(folder, OPEN.to_owned(), None);
        };
        for number in 1.. {
            let name = match number {
                1 => SEALED.to_owned(),
                number => format!("{SEALED}-{number}"),
            };
            let key = folder.join(&name).join(KEY);
            let kept = read_if_there(&key)?;
            match documents.lock("seal-each", passphrase, kept.as_deref()) {
                Ok((lock, made)) => {
                    if kept.is_none() {
                        write_whole(&key, &made)?;
                    }
                    return Self::new(folder, name, Some(lock));
                }
                // Whoever named another passphrase since then keeps what was sealed with the former one.
                Err(Failed::WrongPassphrase) => {}
                Err(failed) => return Err(failed),
            }
        }
        Err(Failed::Slip)
    }

    /// Opens the one that a backup names; `None` where it is not there.
    ///
    /// # Errors
    /// [`Failed`] when the passphrase is another one or none, or the name leads elsewhere.
    pub(super) fn named(
        folder: &Path,
        name: &str,
        documents: &Documents,
        passphrase: Option<&str>,
    ) -> Result<Option<Self>, Failed> {
        if !is_name(name) {
            return Err(Failed::said(
                "its about.json doesn't name a folder of pictures",
            ));
        }
        if !folder.join(name).is_dir() {
            return Ok(None);
        }
        let lock = match name {
            OPEN => None,
            _ => {
                let key = read_if_there(&folder.join(name).join(KEY))?;
                let key = key.ok_or_else(|| {
                    Failed::said(format!("{KEY} is missing in the folder {name} beside it"))
                })?;
                let passphrase = passphrase.ok_or(Failed::Sealed)?;
                Some(documents.lock("open-each", passphrase, Some(&key))?.0)
            }
        };
        Self::new(folder, name.to_owned(), lock).map(Some)
    }

    fn new(folder: &Path, name: String, lock: Option<Lock>) -> Result<Self, Failed> {
        let folder = folder.join(&name);
        std::fs::create_dir_all(&folder)?;
        let lock = lock.map(|lock| Arc::new(Mutex::new(lock)));
        Ok(Self { name, folder, lock })
    }

    /// Returns what a backup calls it.
    pub(super) fn name(&self) -> &str {
        &self.name
    }

    fn file_of(&self, kind: Kind, digest: &[u8]) -> PathBuf {
        let sealed = if self.lock.is_some() {
            super::sealing::ENDS
        } else {
            ""
        };
        let name = format!("{}.{}{sealed}", hex(digest), kind.ending());
        self.folder.join(name)
    }

    /// Tells whether something is there; it is not read.
    pub(super) fn holds(&self, kind: Kind, digest: &[u8]) -> bool {
        let found = std::fs::metadata(self.file_of(kind, digest));
        found.is_ok_and(|found| found.len() > 0)
    }

    /// Puts something there.
    ///
    /// # Errors
    /// [`Failed`] when it can't be sealed or written.
    pub(super) fn put(&self, kind: Kind, digest: &[u8], bytes: &[u8]) -> Result<(), Failed> {
        let file = self.file_of(kind, digest);
        match &self.lock {
            None => write_whole(&file, bytes)?,
            Some(_) => write_whole(&file, &self.passed(bytes)?)?,
        }
        Ok(())
    }

    /// Returns something as it was put there, where it is.
    ///
    /// # Errors
    /// [`Failed`] when it can't be read or opened.
    pub(super) fn read(&self, kind: Kind, digest: &[u8]) -> Result<Option<Vec<u8>>, Failed> {
        let Some(found) = read_if_there(&self.file_of(kind, digest))? else {
            return Ok(None);
        };
        match &self.lock {
            None => Ok(Some(found)),
            Some(_) => self.passed(&found).map(Some),
        }
    }

    fn passed(&self, file: &[u8]) -> Result<Vec<u8>, Failed> {
        let lock = self.lock.as_ref().ok_or(Failed::Slip)?;
        let mut lock = lock.lock().unwrap_or_else(PoisonError::into_inner);
        lock.pass(file)
    }
}

/// Returns a file that is no larger than a picture; `None` where there is none.
fn read_if_there(file: &Path) -> io::Result<Option<Vec<u8>>> {
    let found = match File::open(file) {
        Ok(found) => found,
        Err(error) if error.kind() == io::ErrorKind::NotFound => return Ok(None),
        Err(error) => return Err(error),
    };
    let mut bytes = Vec::new();
    found.take(2 * LARGEST as u64).read_to_end(&mut bytes)?;
    Ok(Some(bytes))
}

/// Where the list of a backup's pictures lies.
pub(super) fn list_of(backup: &Path) -> PathBuf {
    let mut name = backup.as_os_str().to_owned();
    name.push(LISTS);
    name.into()
}

/// Writes which pictures and handover records a backup names that lie beside it: a digest on each line. It is written before any of them is copied, so
/// that no picture is deleted while the backup is made.
///
/// # Errors
/// When it can't be written.
pub(super) fn list(backup: &Path, digests: &[String]) -> io::Result<()> {
    let mut lines = digests.join("\n");
    lines.push('\n');
    write_whole(&list_of(backup), lines.as_bytes())
}

/// Takes away every picture in a folder of backups that none of them lists, and lists of backups that are gone.
///
/// # Errors
/// When a list can't be read, which leaves all pictures as they are, or one of them can't be taken away.
pub(super) fn clear_unlisted(folder: &Path) -> io::Result<()> {
    let mut listed = HashSet::new();
    let mut albums = Vec::new();
    for entry in std::fs::read_dir(folder)? {
        let entry = entry?;
        let path = entry.path();
        let name = entry.file_name().to_string_lossy().into_owned();
        if entry.file_type()?.is_dir() {
            if is_name(&name) {
                albums.push(path);
            }
            continue;
        }
        let Some(backup) = name.strip_suffix(LISTS) else {
            continue;
        };
        // One without its backup may be of a backup that is being made.
        if !folder.join(backup).exists() && is_given_up(&path)? {
            std::fs::remove_file(path)?;
            continue;
        }
        for line in BufReader::new(File::open(path)?).lines() {
            listed.insert(line?);
        }
    }
    for album in albums {
        for entry in std::fs::read_dir(album)? {
            let path = entry?.path();
            let name = path.file_name().unwrap_or_default().to_string_lossy();
            let digest = name.split_once('.').map_or("", |(digest, _)| digest);
            let goes = if is_digest(digest) {
                !listed.contains(digest)
            } else {
                name != KEY && is_given_up(&path)?
            };
            if goes {
                std::fs::remove_file(path)?;
            }
        }
    }
    Ok(())
}

/// Tells whether a text is the digest that names something in an album.
fn is_digest(text: &str) -> bool {
    text.len() == 64 && text.bytes().all(|byte| byte.is_ascii_hexdigit())
}

/// Tells whether nobody wrote to a file for long.
pub(super) fn is_given_up(file: &Path) -> io::Result<bool> {
    let written = std::fs::metadata(file)?.modified()?;
    Ok(written.elapsed().unwrap_or_default() > GIVEN_UP)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn only_its_own_names_are_folders_of_pictures() {
        for name in ["pictures", "pictures-sealed", "pictures-sealed-2"] {
            assert!(is_name(name), "{name}");
        }
        for strange in [
            "",
            "..",
            "pictures/..",
            "pictures-sealed-",
            "pictures-sealed-x",
            "/etc",
            "photographs",
        ] {
            assert!(!is_name(strange), "{strange}");
        }
    }

    #[test]
    fn a_picture_goes_with_the_last_backup_that_lists_it() {
        let folder = tempfile::tempdir().expect("a folder");
        let (folder, documents) = (folder.path(), Documents::by("none".into()));
        let album = Album::to_add_to(folder, &documents, None).expect("a folder of pictures");
        let [one, both, none] = [[1; 32], [2; 32], [3; 32]];
        for digest in [one, both, none] {
            album
                .put(Kind::Picture, &digest, &digest)
                .expect("it is kept");
        }
        let backup = |day: &str| folder.join(format!("hummock-{day}.zip"));
        for (day, digests) in [("03-04", vec![one, both]), ("03-05", vec![both])] {
            std::fs::write(backup(day), "a backup").expect("a file");
            let digests: Vec<String> = digests.iter().map(|digest| hex(digest)).collect();
            list(&backup(day), &digests).expect("a list");
        }
        // A list whose backup is still being made holds its pictures too.
        list(&backup("03-06"), &[hex(&none)]).expect("a list");
        let there = || [one, both, none].map(|digest| album.holds(Kind::Picture, &digest));
        clear_unlisted(folder).expect("it is cleared");
        assert_eq!(there(), [true, true, true]);
        for file in [backup("03-04"), list_of(&backup("03-04"))] {
            std::fs::remove_file(file).expect("it is there");
        }
        let long_ago = std::time::SystemTime::now() - 2 * GIVEN_UP;
        let made = File::open(list_of(&backup("03-06"))).expect("it is there");
        made.set_modified(long_ago).expect("it is set");
        clear_unlisted(folder).expect("it is cleared");
        assert_eq!(there(), [false, true, false]);
        assert_eq!(
            album.read(Kind::Picture, &both).expect("it is read"),
            Some(both.to_vec())
        );
        let gone = album.read(Kind::Picture, &one).expect("it is read");
        assert_eq!(gone, None);
    }
}

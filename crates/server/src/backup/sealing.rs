//! Backups sealed with a passphrase, and opened again, by the program that makes documents.

use std::{
    fs::File,
    io::{self, Read as _, Seek as _, Write as _},
    os::unix::fs::FileExt as _,
    process::{Child, ChildStdin, ChildStdout, Command, Stdio},
};

use super::Failed;
use crate::press::Documents;

/// What every sealed file begins with.
const BEGINS: &[u8] = b"age-encryption.org/v1";
/// What the end of its name says.
pub(super) const ENDS: &str = ".age";
const LONGEST_PASSPHRASE: usize = 1000;
/// It ends so where the passphrase is another one.
const WRONG_PASSPHRASE: i32 = 3;

/// Whether a file is sealed.
pub(super) fn is_sealed(file: &File) -> io::Result<bool> {
    let mut begins = [0; BEGINS.len()];
    match file.read_exact_at(&mut begins, 0) {
        Ok(()) => Ok(begins == BEGINS),
        Err(error) if error.kind() == io::ErrorKind::UnexpectedEof => Ok(false),
        Err(error) => Err(error),
    }
}

/// Whether a text can be a passphrase: one line that is not empty.
pub(super) fn is_one(passphrase: &str) -> bool {
    (1..=LONGEST_PASSPHRASE).contains(&passphrase.len()) && !passphrase.contains(['\n', '\r', '\0'])
}

impl Documents {
    /// Returns a file sealed with a passphrase.
    pub(super) async fn sealed(&self, file: File, passphrase: &str) -> Result<File, Failed> {
        self.passed_on("seal", file, passphrase).await
    }

    /// Returns what is sealed in a file.
    pub(super) async fn opened(&self, file: File, passphrase: &str) -> Result<File, Failed> {
        self.passed_on("open", file, passphrase).await
    }

    fn seals(&self) -> Result<(), Failed> {
        if self.is_ready() {
            return Ok(());
        }
        Err(Failed::said(
            "the program that encrypts backups is still being built: try again in a few minutes",
        ))
    }

    /// Begins to seal or open pictures one after another, by a key that is sealed with a passphrase, or by a new one. Returns the key
    /// as it is to be kept, too.
    ///
    /// # Errors
    /// [`Failed::WrongPassphrase`] where it does not open the key.
    pub(super) fn lock(
        &self,
        task: &str,
        passphrase: &str,
        key: Option<&[u8]>,
    ) -> Result<(Lock, Vec<u8>), Failed> {
        self.seals()?;
        let mut process = Command::new(self.program())
            .arg(task)
            .env_clear()
            .stdin(Stdio::piped())
            .stdout(Stdio::piped())
            .stderr(Stdio::null())
            .spawn()?;
        let (Some(mut to), Some(from)) = (process.stdin.take(), process.stdout.take()) else {
            return Err(Failed::Slip);
        };
        writeln!(to, "{passphrase}")?;
        let mut lock = Lock { process, to, from };
        let key = lock.pass(key.unwrap_or_default())?;
        Ok((lock, key))
    }

    async fn passed_on(
        &self,
        task: &'static str,
        mut file: File,
        passphrase: &str,
    ) -> Result<File, Failed> {
        self.seals()?;
        let (program, passphrase) = (self.program().to_owned(), passphrase.to_owned());
        let passed = tokio::task::spawn_blocking(move || {
            let to = tempfile::tempfile()?;
            let mut process = Command::new(program)
                .arg(task)
                .env_clear()
                .stdin(Stdio::piped())
                .stdout(to.try_clone()?)
                .stderr(Stdio::piped())
                .spawn()?;
            file.rewind()?;
            let written = process.stdin.take().map_or(Ok(0), |mut question| {
                writeln!(question, "{passphrase}")?;
                io::copy(&mut file, &mut question)
            });
            let ended = process.wait_with_output()?;
            match ended.status.code() {
                Some(0) => written.map(drop)?,
                Some(WRONG_PASSPHRASE) => return Err(Failed::WrongPassphrase),
                _ => {
                    let says = String::from_utf8_lossy(&ended.stderr).trim().to_owned();
                    return Err(Failed::Said(says));
                }
            }
            to.sync_data()?;
            Ok(to)
        });
        passed.await.map_err(|_| Failed::Slip)?
    }
}

/// Pictures are sealed or opened by it one after another.
#[derive(Debug)]
pub(super) struct Lock {
    process: Child,
    to: ChildStdin,
    from: ChildStdout,
}

/// A picture that is sealed is little longer.
const LONGEST_ANSWER: u32 = 64 << 20;

impl Lock {
    /// Returns a picture sealed or opened.
    ///
    /// # Errors
    /// [`Failed`] where it can't be; the next one can be asked for all the same, unless the program is gone.
    pub(super) fn pass(&mut self, file: &[u8]) -> Result<Vec<u8>, Failed> {
        let answered = self.answered(file);
        let (code, answer) = match answered {
            Ok(answer) => answer,
            Err(error) => {
                // It says why by how it ended.
                let ended = self.process.wait()?;
                return Err(match ended.code() {
                    Some(WRONG_PASSPHRASE) => Failed::WrongPassphrase,
                    _ => Failed::Disk(error),
                });
            }
        };
        match code {
            0 => Ok(answer),
            _ => Err(Failed::Said(String::from_utf8_lossy(&answer).into_owned())),
        }
    }

    fn answered(&mut self, file: &[u8]) -> io::Result<(u8, Vec<u8>)> {
        let length = u32::try_from(file.len()).map_err(io::Error::other)?;
        self.to.write_all(&length.to_be_bytes())?;
        self.to.write_all(file)?;
        self.to.flush()?;
        let mut head = [0; 5];
        self.from.read_exact(&mut head)?;
        let [code, length @ ..] = head;
        let length = u32::from_be_bytes(length).min(LONGEST_ANSWER);
        let mut answer = vec![0; length as usize];
        self.from.read_exact(&mut answer)?;
        Ok((code, answer))
    }
}

impl Drop for Lock {
    fn drop(&mut self) {
        // What it was asked for is there: nothing is lost with it.
        let _ = self.process.kill();
        let _ = self.process.wait();
    }
}

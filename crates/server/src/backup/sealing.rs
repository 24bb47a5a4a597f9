//! Backups sealed with a passphrase, and opened again, by the program that makes documents.

use std::{
    fs::File,
    io::{self, Seek as _, Write as _},
    os::unix::fs::FileExt as _,
    process::{Command, Stdio},
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

    async fn passed_on(
        &self,
        task: &'static str,
        mut file: File,
        passphrase: &str,
    ) -> Result<File, Failed> {
        if !self.is_ready() {
            return Err(Failed::said(
                "the program that seals and opens backups is still being made: try again in a few minutes",
            ));
        }
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

//! A backup sealed with a passphrase, and opened again: in the age format, so that any program which reads that can open it.
//!
//! The first line of what comes in is the passphrase; the file follows, and goes out piece by piece.

use std::io::{self, BufRead, BufReader, Read, Write};

use age::{DecryptError, Decryptor, Encryptor, scrypt, secrecy::SecretString};

/// What guessing a passphrase costs: half a second and 128 MB for each guess.
const WORK: u8 = 17;
/// Opening a file never takes more than this much work: the exponent of scrypt's cost. A second's worth is 18 or so.
const MOST_WORK: u8 = 19;
const LONGEST_PASSPHRASE: u64 = 1024;

/// Whether a file is sealed or opened.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Way {
    Seal,
    Open,
}

/// Why a file was not handed on.
#[derive(Debug, PartialEq, Eq)]
pub(crate) enum Trouble {
    /// The file was sealed with another passphrase.
    Passphrase,
    /// Something else, in a sentence.
    Said(String),
}

/// Hands a file on, sealed or opened, with the passphrase that is its first line.
///
/// # Errors
/// [`Trouble`]: the passphrase is another one, the file breaks off or was changed, or a pipe broke.
pub(crate) fn handed_on(
    way: Way,
    from: &mut (impl Read + ?Sized),
    to: &mut impl Write,
) -> Result<(), Trouble> {
    let mut from = BufReader::new(from);
    let passphrase = first_line(&mut from)?;
    let broke = |error: io::Error| {
        Trouble::Said(match error.kind() {
            io::ErrorKind::InvalidData | io::ErrorKind::UnexpectedEof => {
                "the file breaks off, or was changed".to_owned()
            }
            _ => format!("it can't be read or written: {error}"),
        })
    };
    match way {
        Way::Seal => {
            let mut lock = scrypt::Recipient::new(passphrase);
            lock.set_work_factor(WORK);
            let locks = std::iter::once(&lock as &dyn age::Recipient);
            let sealer = Encryptor::with_recipients(locks)
                .map_err(|error| Trouble::Said(format!("it can't be sealed: {error}")))?;
            let mut sealed = sealer.wrap_output(to).map_err(broke)?;
            io::copy(&mut from, &mut sealed).map_err(broke)?;
            sealed.finish().and_then(Write::flush).map_err(broke)
        }
        Way::Open => {
            let opener = Decryptor::new_buffered(from)
                .map_err(|_| Trouble::Said("it is no sealed file, or it breaks off".to_owned()))?;
            let mut key = scrypt::Identity::new(passphrase);
            key.set_max_work_factor(MOST_WORK);
            let keys = std::iter::once(&key as &dyn age::Identity);
            let mut opened = opener.decrypt(keys).map_err(|error| match error {
                DecryptError::DecryptionFailed
                | DecryptError::KeyDecryptionFailed
                | DecryptError::NoMatchingKeys => Trouble::Passphrase,
                other => Trouble::Said(format!("it can't be opened: {other}")),
            })?;
            io::copy(&mut opened, to).map_err(broke)?;
            to.flush().map_err(broke)
        }
    }
}

fn first_line(from: &mut impl BufRead) -> Result<SecretString, Trouble> {
    let mut line = Vec::new();
    let read = from.take(LONGEST_PASSPHRASE).read_until(b'\n', &mut line);
    let whole = read.is_ok() && line.pop() == Some(b'\n') && !line.is_empty();
    let text = String::from_utf8(line).ok().filter(|_| whole);
    text.map(SecretString::from).ok_or_else(|| {
        let longest = LONGEST_PASSPHRASE - 1;
        Trouble::Said(format!("a passphrase is a line of 1 to {longest} bytes"))
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    fn passed(way: Way, passphrase: &str, file: &[u8]) -> Result<Vec<u8>, Trouble> {
        let whole = [passphrase.as_bytes(), b"\n", file].concat();
        let mut out = Vec::new();
        handed_on(way, &mut whole.as_slice(), &mut out).map(|()| out)
    }

    #[test]
    fn only_the_passphrase_that_sealed_a_file_opens_it() {
        // Longer than one part of the format, which is 64 KiB.
        let file: Vec<u8> = (0..200_000_u32).map(|at| (at % 251) as u8).collect();
        let sealed = passed(Way::Seal, "three terns on a sill", &file).expect("it is sealed");
        assert!(sealed.starts_with(b"age-encryption.org/v1"));
        assert!(!sealed.windows(16).any(|part| part == &file[..16]));
        let opened = passed(Way::Open, "three terns on a sill", &sealed);
        assert_eq!(opened.as_deref(), Ok(file.as_slice()));
        let other = passed(Way::Open, "three terns on a hill", &sealed);
        assert_eq!(other, Err(Trouble::Passphrase));
        // Cut off, and changed in its last part.
        let says =
            |file: &[u8]| passed(Way::Open, "three terns on a sill", file).expect_err("broken");
        let broken = Trouble::Said("the file breaks off, or was changed".to_owned());
        assert_eq!(says(&sealed[..sealed.len() - 7]), broken);
        let mut changed = sealed.clone();
        *changed.last_mut().expect("a byte") ^= 1;
        assert_eq!(says(&changed), broken);
        assert!(matches!(says(b"PK no such file"), Trouble::Said(_)));
        assert!(matches!(
            passed(Way::Seal, "", &file),
            Err(Trouble::Said(_))
        ));
    }
}

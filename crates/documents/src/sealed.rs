//! A backup sealed with a passphrase, and opened again: in the age format, so that any program which reads that can open it.
//!
//! The first line of what comes in is the passphrase; the file follows, and goes out piece by piece.
//!
//! Many small files are sealed and opened one after another by a key of their own: opening each by a passphrase would take a second
//! each. After the passphrase comes the key as it is kept, sealed with that passphrase, or nothing where there is none yet; then the
//! files. Each comes as its length in four bytes, the highest first, and its bytes. What goes out has a byte before each length that says
//! how it went: first the key as it is to be kept, then the files.

use std::{
    io::{self, BufRead, BufReader, Read, Write},
    str::FromStr as _,
};

use age::{
    DecryptError, Decryptor, Encryptor, scrypt,
    secrecy::{ExposeSecret as _, SecretString},
    x25519,
};

/// What guessing a passphrase costs: half a second and 128 MB for each guess.
const WORK: u8 = 17;
/// Opening a file never takes more than this much work: the exponent of scrypt's cost. A second's worth is 18 or so.
const MOST_WORK: u8 = 19;
const LONGEST_PASSPHRASE: u64 = 1024;
/// Of many small ones, no file is larger.
const LARGEST_FILE: u64 = 32 << 20;

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
    match way {
        Way::Seal => seal(&locked_by(passphrase), from, to),
        Way::Open => open(&opened_by(passphrase), from, to),
    }
}

/// Hands many files on, one after another, until there are no more.
///
/// # Errors
/// [`Trouble`]: the passphrase does not open the key, or a pipe broke. A file that can't be opened is told in its place.
pub(crate) fn each_handed_on(
    way: Way,
    from: &mut (impl Read + ?Sized),
    to: &mut impl Write,
) -> Result<(), Trouble> {
    let mut from = BufReader::new(from);
    let passphrase = first_line(&mut from)?;
    let kept = next_file(&mut from)?.ok_or_else(|| Trouble::Said("there is no key".to_owned()))?;
    let (key, kept) = if kept.is_empty() {
        let key = x25519::Identity::generate();
        let mut sealed = Vec::new();
        let secret = key.to_string();
        seal(
            &locked_by(passphrase),
            secret.expose_secret().as_bytes(),
            &mut sealed,
        )?;
        (key, sealed)
    } else {
        let mut secret = Vec::new();
        open(&opened_by(passphrase), kept.as_slice(), &mut secret)?;
        let secret = String::from_utf8(secret).unwrap_or_default();
        let key = x25519::Identity::from_str(&secret);
        let key = key.map_err(|says| Trouble::Said(format!("the key is none: {says}")))?;
        (key, kept)
    };
    answer(to, &Ok(kept))?;
    while let Some(file) = next_file(&mut from)? {
        let mut passed = Vec::new();
        let done = match way {
            Way::Seal => sealed_for_good(&key, &file, &mut passed),
            Way::Open => open(&key, file.as_slice(), &mut passed),
        };
        answer(to, &done.map(|()| passed))?;
    }
    Ok(())
}

/// Seals a file, and sees that it opens again as it was.
fn sealed_for_good(
    key: &x25519::Identity,
    file: &[u8],
    sealed: &mut Vec<u8>,
) -> Result<(), Trouble> {
    seal(&key.to_public(), file, sealed)?;
    let mut opened = Vec::new();
    open(key, sealed.as_slice(), &mut opened)?;
    match opened == file {
        true => Ok(()),
        false => Err(Trouble::Said("it does not open as it was".to_owned())),
    }
}

/// Reads the next file; `None` once there are no more.
fn next_file(from: &mut impl Read) -> Result<Option<Vec<u8>>, Trouble> {
    let broken = |error: io::Error| Trouble::Said(format!("a file breaks off: {error}"));
    let mut length = [0; 4];
    match from.read_exact(&mut length[..1]) {
        Ok(()) => {}
        Err(error) if error.kind() == io::ErrorKind::UnexpectedEof => return Ok(None),
        Err(error) => return Err(broken(error)),
    }
    from.read_exact(&mut length[1..]).map_err(broken)?;
    let length = u64::from(u32::from_be_bytes(length));
    if length > LARGEST_FILE {
        return Err(Trouble::Said("a file is too long".to_owned()));
    }
    let mut file = Vec::new();
    from.take(length).read_to_end(&mut file).map_err(broken)?;
    match u64::try_from(file.len()) == Ok(length) {
        true => Ok(Some(file)),
        false => Err(Trouble::Said("a file breaks off".to_owned())),
    }
}

fn answer(to: &mut impl Write, done: &Result<Vec<u8>, Trouble>) -> Result<(), Trouble> {
    let (code, bytes) = match done {
        Ok(file) => (0, file.as_slice()),
        Err(Trouble::Passphrase) => (1, b"the key is another one".as_slice()),
        Err(Trouble::Said(says)) => (1, says.as_bytes()),
    };
    let length = u32::try_from(bytes.len()).unwrap_or(u32::MAX);
    let written = to
        .write_all(&[code])
        .and_then(|()| to.write_all(&length.to_be_bytes()))
        .and_then(|()| to.write_all(bytes))
        .and_then(|()| to.flush());
    written.map_err(|error| Trouble::Said(format!("a file can't be handed on: {error}")))
}

fn locked_by(passphrase: SecretString) -> scrypt::Recipient {
    let mut lock = scrypt::Recipient::new(passphrase);
    lock.set_work_factor(WORK);
    lock
}

fn opened_by(passphrase: SecretString) -> scrypt::Identity {
    let mut key = scrypt::Identity::new(passphrase);
    key.set_max_work_factor(MOST_WORK);
    key
}

fn broke(error: io::Error) -> Trouble {
    Trouble::Said(match error.kind() {
        io::ErrorKind::InvalidData | io::ErrorKind::UnexpectedEof => {
            "the file breaks off, or was changed".to_owned()
        }
        _ => format!("it can't be read or written: {error}"),
    })
}

fn seal(
    lock: &dyn age::Recipient,
    mut from: impl Read,
    to: &mut impl Write,
) -> Result<(), Trouble> {
    let sealer = Encryptor::with_recipients(std::iter::once(lock))
        .map_err(|error| Trouble::Said(format!("it can't be sealed: {error}")))?;
    let mut sealed = sealer.wrap_output(to).map_err(broke)?;
    io::copy(&mut from, &mut sealed).map_err(broke)?;
    sealed.finish().and_then(Write::flush).map_err(broke)
}

fn open(key: &dyn age::Identity, from: impl BufRead, to: &mut impl Write) -> Result<(), Trouble> {
    let opener = Decryptor::new_buffered(from)
        .map_err(|_| Trouble::Said("it is no sealed file, or it breaks off".to_owned()))?;
    let mut opened = opener
        .decrypt(std::iter::once(key))
        .map_err(|error| match error {
            DecryptError::DecryptionFailed
            | DecryptError::KeyDecryptionFailed
            | DecryptError::NoMatchingKeys => Trouble::Passphrase,
            other => Trouble::Said(format!("it can't be opened: {other}")),
        })?;
    io::copy(&mut opened, to).map_err(broke)?;
    to.flush().map_err(broke)
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

    /// Hands files on and returns how each went, the key first.
    fn each(
        way: Way,
        passphrase: &str,
        files: &[&[u8]],
    ) -> Result<Vec<Result<Vec<u8>, String>>, Trouble> {
        let mut whole = format!("{passphrase}\n").into_bytes();
        for file in files {
            let length = u32::try_from(file.len()).expect("it is short");
            whole.extend(length.to_be_bytes());
            whole.extend(*file);
        }
        let mut out = Vec::new();
        each_handed_on(way, &mut whole.as_slice(), &mut out)?;
        let mut rest = out.as_slice();
        let mut answers = Vec::new();
        while let [code, more @ ..] = rest {
            let (length, more) = more.split_first_chunk::<4>().expect("a length");
            let (bytes, more) = more.split_at(u32::from_be_bytes(*length) as usize);
            answers.push(match code {
                0 => Ok(bytes.to_vec()),
                _ => Err(String::from_utf8(bytes.to_vec()).expect("a sentence")),
            });
            rest = more;
        }
        Ok(answers)
    }

    #[test]
    fn pictures_are_opened_by_the_key_that_their_passphrase_opens() {
        let [one, other] = [b"a heron".as_slice(), b"a tern".as_slice()];
        let sealed = each(Way::Seal, "three terns on a sill", &[b"", one, other]).expect("sealed");
        let [Ok(key), Ok(first), Ok(second)] = sealed.as_slice() else {
            panic!("a key and two pictures: {sealed:?}");
        };
        assert!(!first.windows(one.len()).any(|part| part == one));
        // The key stays as it is kept; what breaks off is told in its place, and the rest goes on.
        let cut = &first[..first.len() - 3];
        let opened = each(
            Way::Open,
            "three terns on a sill",
            &[key, second, cut, first],
        )
        .expect("opened");
        assert_eq!(opened[0].as_ref(), Ok(key));
        assert_eq!(opened[1].as_deref(), Ok(other));
        assert!(opened[2].is_err());
        assert_eq!(opened[3].as_deref(), Ok(one));
        let wrong = each(Way::Open, "three terns on a hill", &[key, first]);
        assert_eq!(wrong, Err(Trouble::Passphrase));
        // Another night's pictures are sealed by the same key.
        let again = each(Way::Seal, "three terns on a sill", &[key, one]).expect("sealed");
        let later = again[1].as_ref().expect("a picture");
        let opened = each(Way::Open, "three terns on a sill", &[key, later]).expect("opened");
        assert_eq!(opened[1].as_deref(), Ok(one));
        let other_key = each(Way::Seal, "three terns on a sill", &[b""]).expect("a key");
        let other_key = other_key[0].as_ref().expect("a key");
        let strange = each(Way::Open, "three terns on a sill", &[other_key, first]);
        assert!(strange.expect("a key")[1].is_err());
    }
}

//! The studio's passphrase.

use argon2::{
    Argon2,
    password_hash::{PasswordHasher as _, PasswordVerifier as _, phc::PasswordHash},
};
use hummock_core::{Refusal, text::UnreadableText};

/// A passphrase that may be kept.
#[derive(Clone)]
pub(crate) struct Passphrase(String);

/// Nobody guesses as many in the time that attempts are given.
const SHORTEST: usize = 12;
const LONGEST: usize = 200;
/// A passphrase that the program makes has 16 letters, in four groups with dashes between them.
const MADE_LETTERS: usize = 16;
const GROUP_LETTERS: usize = 4;

/// Letters and digits that nobody mistakes for each other.
const LETTERS: &[u8; 32] = b"abcdefghjkmnpqrstuvwxyz23456789_";

impl std::fmt::Debug for Passphrase {
    fn fmt(&self, formatter: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        formatter.write_str("Passphrase")
    }
}

impl Passphrase {
    /// Takes one that somebody chose.
    pub(crate) fn chosen(text: &str) -> Result<Self, Refusal> {
        let text = text.trim();
        let letters = text.chars().count();
        let refused = if let Some(unreadable) = UnreadableText::in_line(text) {
            unreadable.to_string()
        } else if letters < SHORTEST {
            format!("{letters} characters are too few: use at least {SHORTEST}, such as four words")
        } else if letters > LONGEST {
            format!("{letters} characters are too many: use at most {LONGEST}")
        } else {
            return Ok(Self(text.to_owned()));
        };
        Err(Refusal::new("passphrase", refused))
    }

    /// Makes one: sixteen letters in four groups, 78 bits.
    pub(crate) fn made() -> Result<Self, getrandom::Error> {
        let mut letters = String::new();
        while letters.len() < MADE_LETTERS {
            let mut byte = [0];
            getrandom::fill(&mut byte)?;
            // Whatever falls on the last place is drawn again, so that each letter is as likely.
            let letter = LETTERS[usize::from(byte[0] % 32)];
            if letter != b'_' {
                letters.push(char::from(letter));
            }
        }
        Ok(Self(in_groups(&letters)))
    }

    /// Returns it in the clear, to be shown once.
    pub(crate) fn shown(&self) -> &str {
        &self.0
    }

    /// Returns what is kept of it, beside the threads that answer requests.
    ///
    /// # Errors
    /// When there is no room for it.
    pub(crate) async fn hashed(self) -> anyhow::Result<String> {
        Ok(tokio::task::spawn_blocking(move || self.hash()).await??)
    }

    /// Slow, as it is meant to be.
    fn hash(&self) -> Result<String, argon2::password_hash::Error> {
        let hash = Argon2::default().hash_password(self.0.as_bytes())?;
        Ok(hash.to_string())
    }
}

/// Sixteen letters as they are shown: in four groups.
fn in_groups(letters: &str) -> String {
    let letters: Vec<char> = letters.chars().collect();
    let groups = letters.chunks(GROUP_LETTERS);
    let groups: Vec<String> = groups.map(|group| group.iter().collect()).collect();
    groups.join("-")
}

/// Returns a typed passphrase in the form in which the program shows those that it makes: small letters, in groups with dashes.
/// `None` for a text that the program does not make.
fn as_made(typed: &str) -> Option<String> {
    let letters = typed
        .chars()
        .filter(|letter| !letter.is_whitespace() && *letter != '-');
    let letters: String = letters.flat_map(char::to_lowercase).collect();
    let made =
        letters.len() == MADE_LETTERS && letters.bytes().all(|letter| LETTERS.contains(&letter));
    made.then(|| in_groups(&letters))
}

/// Tells whether a typed passphrase is the one that is kept; slow, as it is meant to be. Of a passphrase that the program made,
/// capitals, spaces and dashes do not count.
pub(crate) fn is_it(typed: &str, kept: &str) -> bool {
    let typed = typed.trim();
    let Ok(kept) = PasswordHash::new(kept) else {
        return false;
    };
    let is = |text: &str| {
        Argon2::default()
            .verify_password(text.as_bytes(), &kept)
            .is_ok()
    };
    is(typed) || as_made(typed).is_some_and(|made| made != typed && is(&made))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn only_the_one_that_was_kept_is_it() {
        let kept = Passphrase::chosen(" heron on the far bank ")
            .expect("long enough")
            .hash()
            .expect("a hash");
        assert!(is_it("heron on the far bank", &kept));
        assert!(is_it("heron on the far bank ", &kept));
        for typed in [
            "",
            "heron on the far ban",
            "Heron on the far bank",
            kept.as_str(),
        ] {
            assert!(!is_it(typed, &kept), "{typed}");
        }
        assert!(!is_it("heron on the far bank", "no hash"));
    }

    #[test]
    fn one_that_was_made_is_typed_from_paper_by_cold_hands() {
        let made = Passphrase::made().expect("chance");
        let kept = made.hash().expect("a hash");
        let letters = made.shown().replace('-', "");
        for typed in [
            made.shown().to_owned(),
            made.shown().to_uppercase(),
            letters.clone(),
            made.shown().replace('-', " "),
            format!("{} {}", &letters[..8], &letters[8..]),
        ] {
            assert!(is_it(&typed, &kept), "{typed}");
        }
        assert!(!is_it(&letters[..15], &kept));
        assert!(!is_it(&format!("{}_", &letters[..15]), &kept));
        // One that somebody chose stays as it was chosen, though it has sixteen letters.
        let chosen = Passphrase::chosen("Heronsbankfarshy")
            .expect("long enough")
            .hash()
            .expect("a hash");
        assert!(is_it("Heronsbankfarshy", &chosen) && !is_it("heronsbankfarshy", &chosen));
    }

    #[test]
    fn one_that_is_guessed_in_an_evening_is_refused() {
        for (text, says) in [
            ("", "0 characters"),
            ("tea for two", "11 characters"),
            ("           heron", "5 characters"),
            ("heron on\u{0} the far bank", "control"),
        ] {
            let refused = Passphrase::chosen(text).expect_err("too weak");
            assert_eq!(refused.field, "passphrase");
            assert!(refused.message.contains(says), "{refused}");
        }
        assert!(Passphrase::chosen(&"é".repeat(200)).is_ok());
        assert!(Passphrase::chosen(&"é".repeat(201)).is_err());
    }

    #[test]
    fn what_is_made_can_be_typed_from_paper() {
        let made = Passphrase::made().expect("chance");
        let groups: Vec<&str> = made.shown().split('-').collect();
        assert_eq!(groups.len(), 4);
        for group in groups {
            assert_eq!(group.len(), 4);
            assert!(
                group.chars().all(|letter| !"il1o0_".contains(letter)),
                "{group}"
            );
        }
        assert!(Passphrase::chosen(made.shown()).is_ok());
        assert_ne!(made.shown(), Passphrase::made().expect("chance").shown());
    }
}

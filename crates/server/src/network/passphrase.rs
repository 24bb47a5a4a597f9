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
            format!("it has {letters} letters: take at least {SHORTEST}, such as four words")
        } else if letters > LONGEST {
            format!("it has {letters} letters: take at most {LONGEST}")
        } else {
            return Ok(Self(text.to_owned()));
        };
        Err(Refusal::new("passphrase", refused))
    }

    /// Makes one: sixteen letters in four groups, 78 bits.
    pub(crate) fn made() -> Result<Self, getrandom::Error> {
        let mut letters = String::new();
        while letters.len() < 16 {
            let mut byte = [0];
            getrandom::fill(&mut byte)?;
            // Whatever falls on the last place is drawn again, so that each letter is as likely.
            let letter = LETTERS[usize::from(byte[0] % 32)];
            if letter != b'_' {
                letters.push(char::from(letter));
            }
        }
        let groups: Vec<&str> = (0..16).step_by(4).map(|at| &letters[at..at + 4]).collect();
        Ok(Self(groups.join("-")))
    }

    /// Returns it in the clear, to be shown once.
    pub(crate) fn shown(&self) -> &str {
        &self.0
    }

    /// Returns what is kept of it; slow, as it is meant to be.
    pub(crate) fn hash(&self) -> Result<String, argon2::password_hash::Error> {
        let hash = Argon2::default().hash_password(self.0.as_bytes())?;
        Ok(hash.to_string())
    }
}

/// Tells whether what was typed is the one that is kept; slow, as it is meant to be.
pub(crate) fn is_it(typed: &str, kept: &str) -> bool {
    PasswordHash::new(kept).is_ok_and(|kept| {
        Argon2::default()
            .verify_password(typed.trim().as_bytes(), &kept)
            .is_ok()
    })
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
    fn one_that_is_guessed_in_an_evening_is_refused() {
        for (text, says) in [
            ("", "0 letters"),
            ("tea for two", "11 letters"),
            ("           heron", "5 letters"),
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

//! The country of a block: the one that it names, or the one whose postcode it has.

use super::{
    Countries, MOST_NAME_WORDS, Reading,
    lines::{trimmed, unbracketed},
};
use crate::place::fold::is_latin;

/// Countries are guessed by what stands before a postcode, as on old letters.
const BEFORE_POSTCODES: &[(&str, &str)] = &[
    ("D", "DE"),
    ("A", "AT"),
    ("CH", "CH"),
    ("F", "FR"),
    ("FR", "FR"),
    ("I", "IT"),
    ("L", "LU"),
    ("B", "BE"),
    ("NL", "NL"),
    ("DK", "DK"),
    ("S", "SE"),
    ("SE", "SE"),
    ("N", "NO"),
    ("NO", "NO"),
    ("E", "ES"),
    ("P", "PT"),
    ("PL", "PL"),
    ("CZ", "CZ"),
    ("FI", "FI"),
];
/// What makes a postcode sure to be of a country.
#[derive(Debug, Clone, Copy)]
enum Sure {
    /// Its shape: no other country writes one so.
    Shape,
    /// A region of the country before it: five figures are many countries' postcodes.
    RegionBefore,
    /// The country's own letters, or its mark, anywhere in the block.
    OwnLetters,
}

/// Countries that are known by a postcode.
const TOLD_BY_POSTCODE: &[(&str, Sure)] = &[
    ("GB", Sure::Shape),
    ("CA", Sure::Shape),
    ("NL", Sure::Shape),
    ("BR", Sure::Shape),
    ("US", Sure::RegionBefore),
    ("JP", Sure::OwnLetters),
];

impl Reading {
    /// Takes the country off: a line of its own (the last one, or else the first), or the end of the last one.
    pub(super) fn take_country(&mut self, countries: &Countries) -> Option<String> {
        if let Some(named) = self.country.take() {
            if let Some(code) = countries.named(&named) {
                return Some(code.to_owned());
            }
            self.lines.push(named);
        }
        let last = self.lines.len().checked_sub(1)?;
        for at in [last, 0] {
            // A name by itself is somebody's: "Jordan" is no country where nothing else stands.
            if self.lines.len() > 1
                && let Some(code) = countries.named(unbracketed(&self.lines[at]))
            {
                let code = code.to_owned();
                self.lines.remove(at);
                return Some(code);
            }
        }
        let line = self.lines[last].clone();
        let words: Vec<&str> = line.split_whitespace().collect();
        let home = countries.format(countries.home());
        for count in (1..=MOST_NAME_WORDS.min(words.len().saturating_sub(1))).rev() {
            let (before, behind) = words.split_at(words.len() - count);
            let name = behind.join(" ");
            let name = unbracketed(&name);
            // Two letters at the end of a line are a state's as well as a country's: only the state has a postcode behind it.
            let is_code = name.chars().count() <= 2 && name != "UK";
            let written = name
                .chars()
                .next()
                .is_some_and(|letter| !letter.is_lowercase());
            if is_code || !written || home.region(name).is_some() {
                continue;
            }
            if let Some(code) = countries.named(name) {
                let code = code.to_owned();
                name.clone_into(&mut self.inline);
                self.lines[last] = trimmed(&before.join(" ")).to_owned();
                return Some(code);
            }
        }
        // "Singapore 238801".
        if let [city, postcode] = words[..]
            && postcode.chars().all(|one| one.is_ascii_digit())
            && let Some(code) = countries.named(city).filter(|_| city.chars().count() > 2)
        {
            let code = code.to_owned();
            city.clone_into(&mut self.inline);
            postcode.clone_into(&mut self.lines[last]);
            return Some(code);
        }
        // "D-10115 Berlin".
        self.lines.iter().rev().find_map(|line| {
            let word = line.split_whitespace().next()?;
            let (letters, code) = word.split_once('-')?;
            let figures = code.len() >= 4 && code.chars().all(|one| one.is_ascii_digit());
            let known = BEFORE_POSTCODES.iter().find(|(known, _)| *known == letters);
            known
                .filter(|_| figures)
                .map(|(_, country)| (*country).to_owned())
        })
    }

    /// Guesses the country of a block that names none: the studio's own where its postcode is there, else one whose postcodes
    /// nobody else writes so.
    pub(super) fn guess(&self, countries: &Countries) -> Option<String> {
        let has = |code: &str, sure: Sure| {
            let format = countries.format(code);
            let found = self.find_postcode(&format)?;
            let told = match sure {
                Sure::Shape => true,
                Sure::RegionBefore => format
                    .region(found.before.split_whitespace().last()?)
                    .is_some(),
                Sure::OwnLetters => self
                    .lines
                    .iter()
                    .any(|line| line.contains('〒') || !is_latin(line)),
            };
            told.then_some(())
        };
        let home = countries.home();
        let of_home = TOLD_BY_POSTCODE.iter().find(|(code, _)| *code == home);
        let sure = of_home.map_or(Sure::Shape, |(_, sure)| *sure);
        if !home.is_empty() && has(home, sure).is_some() {
            return Some(home.to_owned());
        }
        let told = TOLD_BY_POSTCODE
            .iter()
            .find(|(code, sure)| *code != home && has(code, *sure).is_some());
        told.map(|(code, _)| (*code).to_owned())
    }
}

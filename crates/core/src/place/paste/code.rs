//! The postcode of a block, wherever its country writes it.

use super::{AddressPart, FullFormat, Reading, has_figure, lines::trimmed};

/// No postcode of a country whose postcodes have no known shape is longer, its gap included.
const LONGEST_POSTCODE: usize = 10;
/// The longest postcode has three words.
const MOST_CODE_WORDS: usize = 3;
/// A word for a postcode before it, on one line with it.
const POSTCODE_WORDS: &[&str] = &[
    "cep", "pin", "zip", "postcode", "eircode", "plz", "cp", "c.p",
];

/// A postcode in a line: the words before it, itself, and the words behind.
#[derive(Debug)]
pub(super) struct Found {
    pub(super) line: usize,
    pub(super) before: String,
    pub(super) code: String,
    pub(super) behind: String,
}

impl Reading {
    /// Finds the postcode: the lowest line wins, then the side on which the country writes it.
    pub(super) fn find_postcode(&self, format: &FullFormat<'_>) -> Option<Found> {
        if !format.has(AddressPart::Postcode) {
            return None;
        }
        let Some(shape) = &format.format.postcode else {
            let lines = &self.lines;
            return (1..lines.len()).rev().take(3).find_map(|at| {
                let (code, town) = unshaped(&lines[at], at + 1 == lines.len())?;
                Some(Found {
                    line: at,
                    before: town,
                    code,
                    behind: String::new(),
                })
            });
        };
        let first = format.postcode_first();
        let native = self.is_native(format);
        let mut best: Option<(usize, Found)> = None;
        let glued = format.is_glued();
        for (at, line) in self.lines.iter().enumerate() {
            let line = if glued {
                line.replace('-', " ")
            } else {
                line.clone()
            };
            let words: Vec<&str> = line.split_whitespace().collect();
            for from in 0..words.len() {
                for to in from + 1..=words.len().min(from + MOST_CODE_WORDS) {
                    let typed = words[from..to].join(" ");
                    let Some(code) = coded(&typed, format.prefix)
                        .into_iter()
                        .find(|code| shape.takes(code))
                    else {
                        continue;
                    };
                    let (starts, ends) = (from == 0, to == words.len());
                    let alone = starts && ends;
                    // A street's number stands where a postcode does not.
                    let aside = if first { !starts && !ends } else { !ends };
                    if (aside && !alone && !format.has(AddressPart::Region))
                        || (at == 0 && !alone && !native)
                    {
                        continue;
                    }
                    if !first && starts && !ends {
                        continue;
                    }
                    let side = alone || if first { starts } else { ends };
                    let score = at * 20
                        + usize::from(side) * 8
                        + usize::from(!typed.chars().any(char::is_lowercase)) * 4
                        + (to - from);
                    if best.as_ref().is_none_or(|(most, _)| score > *most) {
                        let mut before = &words[..from];
                        if before.last().is_some_and(|word| is_postcode_word(word)) {
                            before = &before[..before.len() - 1];
                        }
                        best = Some((
                            score,
                            Found {
                                line: at,
                                before: trimmed(&before.join(" ")).to_owned(),
                                code,
                                behind: trimmed(&words[to..].join(" ")).to_owned(),
                            },
                        ));
                    }
                }
            }
        }
        best.map(|(_, found)| found)
    }
}

fn is_postcode_word(word: &str) -> bool {
    POSTCODE_WORDS.contains(&word.trim_end_matches([':', '.']).to_lowercase().as_str())
}

/// What of a text may be a postcode, in capitals: as it is, and without a country's letters before it. It has a figure.
fn coded(typed: &str, prefix: Option<&str>) -> Vec<String> {
    let text = typed
        .trim_matches(|one: char| ",.()〒-".contains(one))
        .trim();
    let prefix = prefix
        .map(|prefix| prefix.trim().trim_end_matches('-'))
        .unwrap_or_default();
    let own = text.strip_prefix(prefix).filter(|_| !prefix.is_empty());
    let own = own.map(|rest| rest.trim_start_matches(['-', ' ']));
    let bare = text.split_once('-').filter(|(letters, rest)| {
        let named =
            (1..=3).contains(&letters.len()) && letters.chars().all(|one| one.is_ascii_uppercase());
        named && rest.trim().starts_with(|one: char| one.is_ascii_digit())
    });
    let both = [Some(text), own, bare.map(|(_, rest)| rest.trim())];
    let both = both.into_iter().flatten().filter(|text| has_figure(text));
    both.map(str::to_uppercase).collect()
}

/// A postcode of no known shape at an end of a line, and what stands beside it. A house number before or after a street is none,
/// so that only the last line may have one that is all of short figures.
fn unshaped(line: &str, is_last: bool) -> Option<(String, String)> {
    let words: Vec<&str> = line
        .split_whitespace()
        .map(|word| word.trim_matches(','))
        .collect();
    let coded = |word: &str| {
        let figures = word.chars().any(|one| one.is_ascii_digit());
        let plain = word
            .chars()
            .all(|one| one.is_ascii_digit() || one.is_ascii_uppercase() || one == '-');
        figures && plain && word.len() <= LONGEST_POSTCODE
    };
    // The second half of a code with a gap begins with a figure.
    let behind = words
        .iter()
        .rev()
        .take_while(|word| coded(word))
        .count()
        .min(2);
    let before = words.iter().take_while(|word| coded(word)).count().min(2);
    let (code, town) = match (before, behind) {
        (0, 0) => return None,
        (_, behind) if behind > 0 => {
            let (town, code) = words.split_at(words.len() - behind);
            (code, town)
        }
        (before, _) => words.split_at(before),
    };
    let code = code.join(" ");
    let is_number = code.len() < 4 && code.chars().all(|one| one.is_ascii_digit());
    // "Flat 2B" and "12 Quay" have short ones too; a code by itself has the line to itself.
    if code.len() > LONGEST_POSTCODE || (is_number && (!is_last || town.is_empty())) {
        return None;
    }
    if !is_last && !town.is_empty() && code.len() < 4 {
        return None;
    }
    Some((code, town.join(" ")))
}

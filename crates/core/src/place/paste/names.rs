//! Who gets a parcel: a person, a firm, or a person of a firm.

use super::{Reading, has_figure, lines::trimmed};

/// Who of a firm is meant.
const ATTENTION: &[&str] = &[
    "attn",
    "attn.",
    "attention",
    "att",
    "att.",
    "fao",
    "z. hd.",
    "z.hd.",
    "t.a.v.",
];
/// Words by which a firm is told from a person.
const FIRM_WORDS: &[&str] = &[
    "ltd",
    "limited",
    "llc",
    "llp",
    "inc",
    "corp",
    "plc",
    "gmbh",
    "ag",
    "kg",
    "ohg",
    "gbr",
    "ug",
    "e.k",
    "bv",
    "b.v",
    "nv",
    "n.v",
    "sarl",
    "sas",
    "s.a",
    "sa",
    "srl",
    "s.r.l",
    "spa",
    "s.p.a",
    "oy",
    "ab",
    "as",
    "a/s",
    "aps",
    "kk",
    "k.k",
    "ltda",
    "lda",
    "s.l",
    "gallery",
    "galerie",
    "galería",
    "galleria",
    "museum",
    "studio",
    "framers",
    "株式会社",
];

impl Reading {
    /// Takes the name, and a firm beside it.
    pub(super) fn take_names(&mut self, native: bool) {
        if native {
            if self.buyer.name.is_empty() && self.lines.len() > 1 {
                let name = self.lines.pop().unwrap_or_default();
                trimmed(name.trim_end_matches(['様', '殿'])).clone_into(&mut self.buyer.name);
            }
            let firm = self
                .lines
                .iter()
                .rposition(|line| is_firm(line))
                .filter(|at| *at > 0);
            if let Some(at) = firm {
                self.buyer.company = self.lines.remove(at);
            }
        }
        let meant = self.lines.iter().position(|line| attention(line).is_some());
        if let Some(at) = meant {
            let name = self.lines.remove(at);
            attention(&name)
                .unwrap_or_default()
                .clone_into(&mut self.buyer.name);
            if at > 0 && self.buyer.company.is_empty() {
                self.buyer.company = self.lines.remove(0);
            }
        }
        if !self.buyer.name.is_empty() || self.lines.is_empty() {
            return;
        }
        self.buyer.name = self.lines.remove(0);
        let Some(second) = self.lines.first().filter(|_| self.buyer.company.is_empty()) else {
            return;
        };
        if is_firm(&self.buyer.name) {
            if self.lines.len() > 1 && is_person(second) {
                let person = self.lines.remove(0);
                self.buyer.company = std::mem::replace(&mut self.buyer.name, person);
            }
        } else if is_firm(second)
            && self.lines.len() > 1
            && !second.to_lowercase().starts_with("c/o")
        {
            self.buyer.company = self.lines.remove(0);
        }
    }
}

fn is_firm(line: &str) -> bool {
    let lower = line.to_lowercase();
    let told = lower
        .split([' ', ','])
        .any(|word| FIRM_WORDS.contains(&word.trim_end_matches('.')));
    told || lower.contains("株式会社") || lower.contains(" & co")
}

/// Two or three words with capitals, and no number.
fn is_person(line: &str) -> bool {
    const PLACES: &[&str] = &[
        "the", "house", "mill", "court", "building", "centre", "center", "unit", "floor", "haus",
        "hof", "c/o", "suite", "villa",
    ];
    let words: Vec<&str> = line.split_whitespace().collect();
    let named = |word: &&str| word.chars().next().is_some_and(char::is_uppercase);
    (2..=4).contains(&words.len())
        && words.iter().filter(|word| named(word)).count() >= 2
        && !has_figure(line)
        && !words
            .iter()
            .any(|word| PLACES.contains(&word.to_lowercase().as_str()))
}

/// Whom of a firm a line names.
fn attention(line: &str) -> Option<&str> {
    let lower = line.to_lowercase();
    let label = ATTENTION.iter().find(|label| {
        lower
            .strip_prefix(*label)
            .is_some_and(|rest| rest.starts_with([' ', ':']))
    })?;
    let rest = line.get(label.len()..)?;
    Some(rest.trim_start_matches([':', '.', ' ']).trim())
}

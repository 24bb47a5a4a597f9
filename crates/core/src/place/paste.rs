//! An address pasted as a block, parted into its fields by how its country writes them.

use serde::Serialize;

use super::{AddressPart, Buyer, Countries, FullFormat, fold::is_latin};
use crate::text::LONGEST_TEXT;

/// What was read out of a block, to be looked over by whoever pasted it.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PartedAddress {
    /// Its fields; empty where nothing was found.
    pub buyer: Buyer,
    /// Lines that belong to no field: telephone, mail, and what is too much.
    pub left: Vec<String>,
    /// Fields that are a guess, or that nothing was found for.
    pub doubts: Vec<&'static str>,
}

/// A label holds for more.
const MOST_LINES: usize = 12;
/// No postcode of a country whose postcodes have no known shape is longer, its gap included.
const LONGEST_POSTCODE: usize = 10;
/// A postcode, a region's name and a country's have at most so many words.
const MOST_CODE_WORDS: usize = 3;
const MOST_NAME_WORDS: usize = 6;
/// A region's short name, as `NSW`.
const LONGEST_KEY: usize = 3;
/// What stands before a colon on forms, and the part that it names.
const LABELS: &[(&str, Option<AddressPart>)] = &[
    ("ship to", None),
    ("deliver to", None),
    ("deliver", None),
    ("send to", None),
    ("to", None),
    ("recipient", Some(AddressPart::Name)),
    ("name", Some(AddressPart::Name)),
    ("full name", Some(AddressPart::Name)),
    ("company", Some(AddressPart::Company)),
    ("firma", Some(AddressPart::Company)),
    ("address", None),
    ("address line 1", None),
    ("address line 2", None),
    ("street", None),
    ("straße", None),
    ("neighbourhood", Some(AddressPart::Neighbourhood)),
    ("neighborhood", Some(AddressPart::Neighbourhood)),
    ("bairro", Some(AddressPart::Neighbourhood)),
    ("town", Some(AddressPart::Town)),
    ("city", Some(AddressPart::Town)),
    ("ort", Some(AddressPart::Town)),
    ("ville", Some(AddressPart::Town)),
    ("state", Some(AddressPart::Region)),
    ("province", Some(AddressPart::Region)),
    ("county", Some(AddressPart::Region)),
    ("region", Some(AddressPart::Region)),
    ("prefecture", Some(AddressPart::Region)),
    ("postcode", Some(AddressPart::Postcode)),
    ("postal code", Some(AddressPart::Postcode)),
    ("zip", Some(AddressPart::Postcode)),
    ("zip code", Some(AddressPart::Postcode)),
    ("plz", Some(AddressPart::Postcode)),
    ("cep", Some(AddressPart::Postcode)),
    ("eircode", Some(AddressPart::Postcode)),
];
const COUNTRY_LABELS: &[&str] = &["country", "land", "pays", "país"];
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
/// A word for a postcode before it, on one line with it.
const POSTCODE_WORDS: &[&str] = &[
    "cep", "pin", "zip", "postcode", "eircode", "plz", "cp", "c.p",
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
/// Countries whose postcodes no other one writes so.
const TOLD_BY_POSTCODE: &[&str] = &["GB", "CA", "NL", "BR", "US", "JP"];
/// Parts of Great Britain that are written below a town, though the post asks for none.
const SHIRES: &[&str] = &[
    "kent",
    "essex",
    "surrey",
    "east sussex",
    "west sussex",
    "sussex",
    "norfolk",
    "suffolk",
    "cornwall",
    "devon",
    "dorset",
    "somerset",
    "cumbria",
    "county durham",
    "co durham",
    "northumberland",
    "merseyside",
    "greater manchester",
    "tyne and wear",
    "west midlands",
    "middlesex",
    "fife",
];

/// Parts an address that was pasted as a block, or as one line with commas.
///
/// The country is its name in English, in its own language, or its code, on a line of its own or at the end of the last one;
/// without one it is the studio's own. By that country's format the postcode is found wherever it stands, then region and town
/// beside or above it; the first line is the name (the last one where the country writes it so), firms are told from people, and
/// what is left is the street. Telephone numbers and mail addresses are laid aside. Source: the kept formats; house rule.
#[must_use]
pub fn part_address(block: &str, countries: &Countries) -> PartedAddress {
    let mut reading = Reading::of(block);
    let found = reading.take_country(countries);
    let guessed = || {
        reading
            .guess(countries)
            .unwrap_or_else(|| countries.home().to_owned())
    };
    let country = found.clone().unwrap_or_else(guessed);
    let format = countries.format(&country);
    reading.buyer.country.clone_from(&country);
    reading.part_by(&format);
    let Reading {
        buyer,
        left,
        street_lines,
        ..
    } = reading;
    let mut doubts: Vec<&'static str> = [
        ("buyer.name", AddressPart::Name),
        ("buyer.street", AddressPart::Street),
        ("buyer.town", AddressPart::Town),
        ("buyer.postcode", AddressPart::Postcode),
        ("buyer.region", AddressPart::Region),
    ]
    .into_iter()
    .filter(|(_, part)| {
        let text = part.of(&buyer);
        let wanted = match part {
            AddressPart::Region => format.format.required.contains(part),
            _ => format.has(*part),
        };
        (text.is_empty() && wanted) || text.chars().count() > LONGEST_TEXT
    })
    .map(|(field, _)| field)
    .collect();
    // Where it is made of several lines, one of them may be something else.
    if street_lines > 1 && !doubts.contains(&"buyer.street") {
        doubts.push("buyer.street");
    }
    if found.is_none() {
        doubts.push("buyer.country");
    }
    PartedAddress {
        buyer,
        left,
        doubts,
    }
}

/// A block while it is read: what is still to be placed, and what was.
#[derive(Debug, Default)]
struct Reading {
    lines: Vec<String>,
    buyer: Buyer,
    left: Vec<String>,
    country: Option<String>,
    /// A country's name that stood in a line with something else.
    inline: String,
    street_lines: usize,
}

/// A postcode in a line: the words before it, itself, and the words behind.
#[derive(Debug)]
struct Found {
    line: usize,
    before: String,
    code: String,
    behind: String,
}

impl Reading {
    /// Parts a block into lines; what a form names is placed at once, what is no place is laid aside.
    fn of(block: &str) -> Self {
        let by_line: Vec<&str> = block
            .lines()
            .map(str::trim)
            .filter(|line| !line.is_empty())
            .collect();
        let parts: Vec<&str> = match by_line[..] {
            [one] => one.split([',', ';']).collect(),
            _ => by_line,
        };
        let mut reading = Self::default();
        for part in parts {
            let line = trimmed(part);
            if line.is_empty() {
                continue;
            }
            if is_no_place(line) {
                reading.left.push(line.to_owned());
                continue;
            }
            let labelled = line
                .split_once(':')
                .map(|(label, rest)| (label.trim().to_lowercase(), trimmed(rest)));
            let known = labelled.as_ref().and_then(|(label, rest)| {
                let part = LABELS.iter().find(|(known, _)| known == label)?;
                Some((part.1, *rest))
            });
            match (known, labelled) {
                (Some((_, "")), _) => {}
                (Some((Some(part), rest)), _) if part.of(&reading.buyer).is_empty() => {
                    rest.clone_into(part.of_mut(&mut reading.buyer));
                }
                (Some((_, rest)), _) => reading.lines.push(rest.to_owned()),
                (None, Some((label, rest))) if COUNTRY_LABELS.contains(&label.as_str()) => {
                    reading.country = Some(rest.to_owned());
                }
                _ => reading.lines.push(line.to_owned()),
            }
        }
        if reading.lines.len() > MOST_LINES {
            reading.left.extend(reading.lines.split_off(MOST_LINES));
        }
        reading
    }

    /// Takes the country off: a line of its own (the last one, or else the first), or the end of the last one.
    fn take_country(&mut self, countries: &Countries) -> Option<String> {
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
    fn guess(&self, countries: &Countries) -> Option<String> {
        let has = |code: &str| {
            let format = countries.format(code);
            let found = self.find_postcode(&format)?;
            // Five figures are many countries' postcodes, and a state before them is one's.
            let told = match code {
                "US" => format
                    .region(found.before.split_whitespace().last()?)
                    .is_some(),
                "JP" => self
                    .lines
                    .iter()
                    .any(|line| line.contains('〒') || !is_latin(line)),
                _ => true,
            };
            told.then_some(())
        };
        let home = countries.home();
        if !home.is_empty() && has(home).is_some() {
            return Some(home.to_owned());
        }
        let told = TOLD_BY_POSTCODE
            .iter()
            .find(|code| **code != home && has(code).is_some());
        told.map(|code| (*code).to_owned())
    }

    /// Finds the postcode: the lowest line wins, then the side on which the country writes it.
    fn find_postcode(&self, format: &FullFormat<'_>) -> Option<Found> {
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

    /// Whether it is written in the country's own letters, which have an order of their own.
    fn is_native(&self, format: &FullFormat<'_>) -> bool {
        !format.latin.is_empty() && !self.lines.iter().all(|line| is_latin(line))
    }

    /// Parts what is left by a country's format.
    fn part_by(&mut self, format: &FullFormat<'_>) {
        let native = self.is_native(format);
        if native {
            self.take_native_region(format);
        }
        let found = self
            .find_postcode(format)
            .filter(|_| self.buyer.postcode.is_empty());
        let at = found.as_ref().map(|found| found.line);
        if let Some(found) = found {
            self.buyer.postcode = found.code;
            let beside = [found.before, found.behind];
            let beside: Vec<String> = beside.into_iter().filter(|text| !text.is_empty()).collect();
            self.lines.remove(found.line);
            self.take_beside(&beside.join(" "), found.line, format);
        }
        if !native {
            self.take_region_line(format);
            self.take_town(at, format);
        }
        self.take_names(native);
        self.take_neighbourhood(format);
        if !native && format.latin.is_empty() {
            self.buyer.region = format.written_region(&self.buyer.region).to_owned();
        }
        if self.buyer.town.is_empty() && format.has(AddressPart::Town) {
            // "98000 Monaco" named both.
            self.buyer.town = std::mem::take(&mut self.inline);
        }
        self.street_lines = self.lines.len();
        let street = self.lines.join(", ");
        self.buyer.street = match (self.buyer.street.is_empty(), street.is_empty()) {
            (true, _) => street,
            (false, true) => std::mem::take(&mut self.buyer.street),
            (false, false) => format!("{}, {street}", self.buyer.street),
        };
    }

    /// Places what stands beside the postcode: town and region, and what of a street came with them.
    fn take_beside(&mut self, beside: &str, at: usize, format: &FullFormat<'_>) {
        let mut rest = trimmed(beside).to_owned();
        if rest.is_empty() {
            return;
        }
        if format.has(AddressPart::Region) && self.buyer.region.is_empty() {
            let above = at.checked_sub(1).and_then(|above| self.lines.get(above));
            // The town above is no street, and not the name.
            let town_above = at > 1 && above.is_some_and(|line| !has_figure(line));
            if let Some((town, region)) = region_at_end(&rest, format) {
                self.buyer.region = region;
                rest = town;
                if rest.is_empty() && !town_above && format.has(AddressPart::Town) {
                    let spelled = beside.trim().chars().count() > LONGEST_KEY;
                    if spelled {
                        // "New York 10001": a town that is called as its state.
                        trimmed(beside).clone_into(&mut rest);
                    }
                }
            }
        }
        let mut pieces: Vec<String> = rest
            .split(',')
            .map(|piece| trimmed(piece).to_owned())
            .collect();
        pieces.retain(|piece| !piece.is_empty());
        let has_town = format.has(AddressPart::Town);
        let streets = pieces
            .first()
            .is_some_and(|first| has_figure(first) && pieces.len() > 1);
        let town = if streets || format.has(AddressPart::Neighbourhood) || !has_town {
            pieces.pop()
        } else {
            (!pieces.is_empty()).then(|| pieces.remove(0))
        };
        if let Some(town) = town {
            if has_town && self.buyer.town.is_empty() {
                self.buyer.town = town;
            } else {
                // "SINGAPORE 546080" names the country again.
                let again = town.to_lowercase() == "singapore";
                if !again {
                    pieces.push(town);
                }
            }
        }
        if pieces.is_empty() {
            return;
        }
        let others = pieces.join(", ");
        if streets || !has_town {
            let at = at.min(self.lines.len());
            self.lines.insert(at, others);
        } else if format.has(AddressPart::Neighbourhood) && self.buyer.neighbourhood.is_empty() {
            self.buyer.neighbourhood = others;
        } else if self.buyer.region.is_empty() {
            self.buyer.region = others;
        } else {
            let at = at.min(self.lines.len());
            self.lines.insert(at, others);
        }
    }

    /// Takes a region that has a line of its own, or stands behind the town with a comma.
    fn take_region_line(&mut self, format: &FullFormat<'_>) {
        if !format.has(AddressPart::Region) || !self.buyer.region.is_empty() {
            return;
        }
        for at in (1..self.lines.len()).rev() {
            if let Some((town, region)) = region_at_end(&self.lines[at], format) {
                // "New York" by itself is more often the town, unless one is there.
                let whole = town.is_empty();
                if whole && self.buyer.town.is_empty() && at == 1 && !format.is_town_first() {
                    continue;
                }
                self.buyer.region = region;
                self.lines.remove(at);
                if !whole {
                    if self.buyer.town.is_empty()
                        && format.has(AddressPart::Town)
                        && !has_figure(&town)
                    {
                        self.buyer.town = town;
                    } else {
                        self.lines.insert(at, town);
                    }
                }
                return;
            }
        }
    }

    /// Takes a region in the country's own letters off the beginning of a line.
    fn take_native_region(&mut self, format: &FullFormat<'_>) {
        for line in &mut self.lines {
            let text = line
                .trim_start_matches(|one: char| one == '〒' || one.is_ascii_digit() || one == '-')
                .trim_start();
            let region = format
                .regions
                .iter()
                .find(|region| text.starts_with(region.written()));
            if let Some(region) = region {
                region.written().clone_into(&mut self.buyer.region);
                let rest = text
                    .trim_start_matches(region.written())
                    .trim_start()
                    .to_owned();
                let before = line[..line.len() - text.len()].trim().to_owned();
                *line = if before.is_empty() {
                    rest
                } else {
                    format!("{before} {rest}")
                };
                break;
            }
        }
        self.lines.retain(|line| !line.trim().is_empty());
    }

    /// Takes the town where it did not stand beside the postcode: below a postcode that stands first, else the last line.
    fn take_town(&mut self, at: Option<usize>, format: &FullFormat<'_>) {
        if !format.has(AddressPart::Town) || !self.buyer.town.is_empty() {
            return;
        }
        let below = at.filter(|at| format.postcode_first() && *at < self.lines.len() && *at > 0);
        let above = at
            .map_or(self.lines.len(), |at| at.min(self.lines.len()))
            .checked_sub(1);
        // Hungary writes the town above the street.
        let first = (format.is_town_first() && self.lines.len() > 2).then_some(1);
        let Some(at) = first.or(below).or(above).filter(|at| *at > 0) else {
            return;
        };
        // Of a name and one line more that line is the street, where it has a number.
        if self.lines.len() == 2 && has_figure(&self.lines[at]) {
            return;
        }
        let mut at = at;
        let line = self.lines[at].to_lowercase();
        let is_shire = line.ends_with("shire") || SHIRES.contains(&line.as_str());
        if is_shire && at > 1 && !has_figure(&self.lines[at - 1]) && self.buyer.region.is_empty() {
            self.buyer.region = self.lines.remove(at);
            at -= 1;
        }
        let line = self.lines.remove(at);
        match line.rsplit_once(',') {
            // "14 High Street, Oxford" above the postcode.
            Some((street, town)) if has_figure(street) => {
                self.lines.insert(at, trimmed(street).to_owned());
                trimmed(town).clone_into(&mut self.buyer.town);
            }
            Some((town, region)) if self.buyer.region.is_empty() => {
                trimmed(town).clone_into(&mut self.buyer.town);
                trimmed(region).clone_into(&mut self.buyer.region);
            }
            _ => self.buyer.town = line,
        }
    }

    /// Takes the name, and a firm beside it.
    fn take_names(&mut self, native: bool) {
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

    /// Takes a neighbourhood: the last line above the town where it has no number, or what stands behind a dash.
    fn take_neighbourhood(&mut self, format: &FullFormat<'_>) {
        if !format.has(AddressPart::Neighbourhood) || !self.buyer.neighbourhood.is_empty() {
            return;
        }
        if self.lines.len() > 1 && self.lines.last().is_some_and(|line| !has_figure(line)) {
            let in_front = self.lines[..self.lines.len() - 1]
                .iter()
                .any(|line| has_figure(line));
            if in_front {
                self.buyer.neighbourhood = self.lines.pop().unwrap_or_default();
            }
            return;
        }
        if let Some(line) = self.lines.last_mut()
            && let Some((street, neighbourhood)) = line.rsplit_once(" - ")
            && !has_figure(neighbourhood)
        {
            trimmed(neighbourhood).clone_into(&mut self.buyer.neighbourhood);
            *line = trimmed(street).to_owned();
        }
    }
}

/// Commas, dashes and brackets around a part belong to none.
fn trimmed(text: &str) -> &str {
    text.trim()
        .trim_matches([',', ';'])
        .trim()
        .trim_end_matches(['-', '/', '–'])
        .trim_end()
}

/// "(France)".
fn unbracketed(text: &str) -> &str {
    let text = text.trim();
    let inside = text
        .strip_prefix('(')
        .map(|rest| rest.trim_end_matches(')'));
    inside.unwrap_or(text).trim()
}

fn has_figure(text: &str) -> bool {
    text.chars().any(char::is_numeric)
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

/// A region at the end of a line, and what stands before it.
fn region_at_end(line: &str, format: &FullFormat<'_>) -> Option<(String, String)> {
    let loose = line.replace(['(', ')'], " ");
    let words: Vec<&str> = loose.split_whitespace().collect();
    for count in (1..=MOST_NAME_WORDS.min(words.len())).rev() {
        let (before, behind) = words.split_at(words.len() - count);
        let name = behind.join(" ");
        let short = name.chars().count() <= 2;
        // "OR" is a state, "or" a word.
        if format.region(trimmed(&name)).is_some()
            && !(short && name.chars().any(char::is_lowercase))
        {
            let before = before.join(" ");
            return Some((trimmed(&before).to_owned(), trimmed(&name).to_owned()));
        }
    }
    // "São Paulo/SP", "São Paulo-SP".
    let (before, behind) = loose.rsplit_once(['/', '-'])?;
    format.region(trimmed(behind))?;
    Some((trimmed(before).to_owned(), trimmed(behind).to_owned()))
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

/// A telephone, or mail.
fn is_no_place(line: &str) -> bool {
    let lower = line.to_lowercase();
    let said = [
        "tel",
        "phone",
        "telephone",
        "mobile",
        "mob",
        "mail",
        "e-mail",
        "email",
        "fax",
    ]
    .iter()
    .any(|label| lower.split([':', '.', ' ']).next() == Some(label));
    let figures = line.chars().filter(char::is_ascii_digit).count();
    let only_figures = line
        .chars()
        .all(|one| one.is_ascii_digit() || " +()-/".contains(one));
    // Nine or ten figures with a dash behind the fifth are a postcode.
    let is_long_code = matches!(line.split_once('-'), Some((first, rest)) if first.len() == 5 && matches!(rest.len(), 4 | 5));
    said || line.contains('@') || (only_figures && figures > 8 && !is_long_code)
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

#[cfg(test)]
mod tests;

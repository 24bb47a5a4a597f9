//! An address pasted as a block, parted into its fields by how its country writes them.

use serde::Serialize;

mod code;
mod country;
mod lines;
mod names;

use self::lines::trimmed;
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

/// The name of a country or of a region has at most six words.
const MOST_NAME_WORDS: usize = 6;
/// A region's short name, as `NSW`.
const LONGEST_KEY: usize = 3;
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

impl Reading {
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

fn has_figure(text: &str) -> bool {
    text.chars().any(char::is_numeric)
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

#[cfg(test)]
mod tests;

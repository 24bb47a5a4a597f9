//! The lines of a block: what a form names is placed at once, what is no place is laid aside.

use super::{AddressPart, Reading};

/// A label holds for more.
const MOST_LINES: usize = 12;
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

impl Reading {
    /// Parts a block into lines; what a form names is placed at once, what is no place is laid aside.
    pub(super) fn of(block: &str) -> Self {
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
}

/// Commas, dashes and brackets around a part belong to none.
pub(super) fn trimmed(text: &str) -> &str {
    text.trim()
        .trim_matches([',', ';'])
        .trim()
        .trim_end_matches(['-', '/', '–'])
        .trim_end()
}

/// "(France)".
pub(super) fn unbracketed(text: &str) -> &str {
    let text = text.trim();
    let inside = text
        .strip_prefix('(')
        .map(|rest| rest.trim_end_matches(')'));
    inside.unwrap_or(text).trim()
}

/// No telephone has fewer figures; a postcode has no more than five in a row behind a town that is called Mob.
const FEWEST_OF_A_TELEPHONE: usize = 6;

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
    .filter_map(|label| lower.strip_prefix(label))
    .any(|rest| {
        let figures = rest.chars().filter(char::is_ascii_digit).count();
        let many = rest.starts_with(' ') && figures >= FEWEST_OF_A_TELEPHONE;
        rest.starts_with([':', '.']) || many
    });
    let figures = line.chars().filter(char::is_ascii_digit).count();
    let only_figures = line
        .chars()
        .all(|one| one.is_ascii_digit() || " +()-/".contains(one));
    // Nine or ten figures with a dash behind the fifth are a postcode.
    let is_long_code = matches!(line.split_once('-'), Some((first, rest)) if first.len() == 5 && matches!(rest.len(), 4 | 5));
    said || line.contains('@') || (only_figures && figures > 8 && !is_long_code)
}

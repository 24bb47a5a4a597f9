//! An address pasted as a block, parted into its fields.

use serde::Serialize;

use super::Buyer;
use crate::text::LONGEST_TEXT;

/// A country that the studio sends to.
#[derive(Debug, Clone, Copy)]
pub struct NamedCountry<'a> {
    /// Two letters.
    pub code: &'a str,
    /// What it is called.
    pub name: &'a str,
}

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
/// No postcode is longer, its gap included.
const LONGEST_POSTCODE: usize = 10;
/// What stands before a colon on forms.
const LABELS: [&str; 14] = [
    "ship to",
    "deliver to",
    "to",
    "name",
    "address",
    "street",
    "town",
    "city",
    "postcode",
    "zip",
    "country",
    "recipient",
    "deliver",
    "attention",
];

/// Parts an address that was pasted as a block, or as one line with commas.
///
/// The last line may name a country; a postcode is the letters and figures at one end of a line of the last two, or such a
/// line by itself, and the town is what stands beside or above it; the first line is the name, and what is left between is
/// the street. Telephone numbers and mail addresses are laid aside. Source: how the local customs write it; house rule.
#[must_use]
pub fn part_address(block: &str, countries: &[NamedCountry<'_>]) -> PartedAddress {
    let mut lines = lines_of(block);
    let mut parted = PartedAddress::default();
    lines.retain(|line| {
        let aside = is_no_place(line);
        if aside {
            parted.left.push(line.clone());
        }
        !aside
    });
    if lines.len() > MOST_LINES {
        parted.left.extend(lines.split_off(MOST_LINES));
    }
    let buyer = &mut parted.buyer;
    if let Some(code) = lines.last().and_then(|line| country_of(line, countries)) {
        code.clone_into(&mut buyer.country);
        lines.pop();
    }
    if !lines.is_empty() {
        buyer.name = lines.remove(0);
    }
    // From below: the first line that holds a postcode.
    let found = (0..lines.len())
        .rev()
        .take(3)
        .find_map(|at| postcode_in(&lines[at], at + 1 == lines.len()).map(|found| (at, found)));
    if let Some((at, (postcode, town))) = found {
        buyer.postcode = postcode;
        buyer.town = town;
        lines.remove(at);
        if buyer.town.is_empty() && lines.len() > 1 {
            // It stands by itself: the town is above it, or below it.
            let town_at = if at < lines.len() { at } else { at - 1 };
            buyer.town = lines.remove(town_at);
        }
    } else if lines.len() > 1 {
        buyer.town = lines.pop().unwrap_or_default();
    }
    buyer.street = lines.join(", ");
    let fields = [
        ("buyer.name", &buyer.name),
        ("buyer.street", &buyer.street),
        ("buyer.town", &buyer.town),
        ("buyer.postcode", &buyer.postcode),
        ("buyer.country", &buyer.country),
    ];
    let mut doubts: Vec<&'static str> = fields
        .into_iter()
        .filter(|(_, text)| text.is_empty() || text.chars().count() > LONGEST_TEXT)
        .map(|(field, _)| field)
        .collect();
    // Where it is made of several lines, one of them may be something else.
    if lines.len() > 1 && !doubts.contains(&"buyer.street") {
        doubts.push("buyer.street");
    }
    parted.doubts = doubts;
    parted
}

fn lines_of(block: &str) -> Vec<String> {
    let by_line: Vec<&str> = block
        .lines()
        .map(str::trim)
        .filter(|line| !line.is_empty())
        .collect();
    let parts: Vec<&str> = match by_line[..] {
        [one] => one.split([',', ';']).collect(),
        _ => by_line,
    };
    parts
        .into_iter()
        .map(|line| {
            let line = line.trim().trim_end_matches([',', ';']).trim();
            let unlabelled = line
                .split_once(':')
                .filter(|(label, _)| LABELS.contains(&label.trim().to_lowercase().as_str()));
            unlabelled.map_or(line, |(_, rest)| rest.trim()).to_owned()
        })
        .filter(|line| !line.is_empty())
        .collect()
}

/// A telephone, or mail.
fn is_no_place(line: &str) -> bool {
    let lower = line.to_lowercase();
    let said = ["tel", "phone", "mobile", "mail", "e-mail", "email", "fax"]
        .iter()
        .any(|label| lower.split([':', '.', ' ']).next() == Some(label));
    let figures = line.chars().filter(char::is_ascii_digit).count();
    let only_figures = line
        .chars()
        .all(|one| one.is_ascii_digit() || " +()-/".contains(one));
    said || line.contains('@') || (only_figures && figures > 8)
}

fn country_of<'a>(line: &str, countries: &[NamedCountry<'a>]) -> Option<&'a str> {
    let line = line.trim_end_matches('.').to_lowercase();
    countries
        .iter()
        .find(|country| country.name.to_lowercase() == line || country.code.to_lowercase() == line)
        .map(|country| country.code)
}

/// A postcode at an end of a line, and what stands beside it. A house number before or after a street is none, so that only
/// the last line may have one that is all of short figures.
fn postcode_in(line: &str, is_last: bool) -> Option<(String, String)> {
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
mod tests {
    use proptest::prelude::*;

    use super::*;

    const COUNTRIES: [NamedCountry<'_>; 2] = [
        NamedCountry {
            code: "XS",
            name: "Saltmark",
        },
        NamedCountry {
            code: "XV",
            name: "Vestholm",
        },
    ];

    fn fields(block: &str) -> [String; 5] {
        let Buyer {
            name,
            street,
            town,
            postcode,
            country,
        } = part_address(block, &COUNTRIES).buyer;
        [name, street, town, postcode, country]
    }

    #[test]
    fn local_customs_are_read() {
        for (block, wanted) in [
            (
                "Corrie Vane\n14 Ferry Stairs\nSallow Hythe SH2 7\nSaltmark",
                [
                    "Corrie Vane",
                    "14 Ferry Stairs",
                    "Sallow Hythe",
                    "SH2 7",
                    "XS",
                ],
            ),
            (
                "Ship to: Ines Tollard\r\nKaigata 3B,\r\n4120 Grindvik\r\nXV\r\nTel: +47 555 01 23\r\n",
                ["Ines Tollard", "Kaigata 3B", "Grindvik", "4120", "XV"],
            ),
            (
                "Brannoch & Lyle, 3 Tollgate Row, Tarrow Bridge, TB11 4, saltmark",
                [
                    "Brannoch & Lyle",
                    "3 Tollgate Row",
                    "Tarrow Bridge",
                    "TB11 4",
                    "XS",
                ],
            ),
            (
                "Oda Marsh\nc/o Reed & Sons\n9 Long Quay\nNetherby\nNQ1 2AB",
                [
                    "Oda Marsh",
                    "c/o Reed & Sons, 9 Long Quay",
                    "Netherby",
                    "NQ1 2AB",
                    "",
                ],
            ),
            ("Oda Marsh", ["Oda Marsh", "", "", "", ""]),
            ("", ["", "", "", "", ""]),
        ] {
            assert_eq!(fields(block), wanted, "{block}");
        }
        let parted = part_address(
            "Oda Marsh\n9 Long Quay\nNetherby\n0555 123 456 78",
            &COUNTRIES,
        );
        assert_eq!(parted.left, ["0555 123 456 78"]);
        assert_eq!(parted.doubts, ["buyer.postcode", "buyer.country"]);
        assert_eq!(parted.buyer.town, "Netherby");
    }

    proptest! {
        #[test]
        fn what_is_put_together_by_a_custom_is_parted_again(
            name in "[A-Z][a-z]{2,9} [A-Z][a-z]{2,9}", street in "[1-9][0-9]{0,2} [A-Z][a-z]{3,9} (Road|Quay|Row)",
            town in "[A-Z][a-z]{2,9}( [A-Z][a-z]{2,9})?", postcode in "[A-Z]{1,2}[1-9] [1-9][A-Z]{2}|[1-9][0-9]{3,4}",
            custom in 0..4, country in prop::option::of(0..2_usize),
        ) {
            let place = match custom {
                0 => format!("{town} {postcode}"),
                1 => format!("{postcode} {town}"),
                2 => format!("{town}\n{postcode}"),
                _ => format!("{town}, {postcode}"),
            };
            let last = country.map(|at| COUNTRIES[at]);
            let mut block = format!("{name}\n{street}\n{place}");
            if let Some(country) = last {
                block.push('\n');
                block.push_str(country.name);
            }
            let code = last.map_or("", |country| country.code);
            let wanted = [name.as_str(), &street, &town, &postcode, code];
            prop_assert_eq!(fields(&block), wanted, "{}", block);
        }

        #[test]
        fn nothing_of_a_block_is_lost(block in "[A-Za-z0-9 ,.\n:+-]{0,200}") {
            let parted = part_address(&block, &COUNTRIES);
            let Buyer { name, street, town, postcode, .. } = &parted.buyer;
            let all = [name, street, town, postcode].map(String::as_str).join(" ") + &parted.left.join(" ");
            // Every word with a figure in it, which no label and no country is, stands somewhere.
            for word in block.split([' ', '\n', ',', ';', ':']).filter(|word| word.contains(|one: char| one.is_ascii_digit())) {
                let word = word.trim_matches(|one: char| !one.is_ascii_alphanumeric());
                prop_assert!(all.contains(word), "{word} of {block:?}: {parted:?}");
            }
        }
    }
}

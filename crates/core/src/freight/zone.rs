//! Where a carrier goes.

use serde::{Deserialize, Serialize};

use crate::place::Destination;

/// A zone: countries, or the postcodes of some of them.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Zone {
    /// What people call it.
    pub name: String,
    /// Two-letter codes.
    pub countries: Vec<String>,
    /// When there are some, only postcodes that begin so, or lie in a range. One of letters means that area: `N` takes `N1` and
    /// not `NQ`; `N*` takes both.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub postcode_prefixes: Vec<String>,
    /// When there are some, only postcodes that lie in one of them, or begin as a prefix says.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub postcode_ranges: Vec<PostcodeRange>,
}

/// Postcodes from one to another, both included; letters before the number have to be the same.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct PostcodeRange {
    /// The first, as `PO30` or `10000`.
    pub from: String,
    /// The last.
    pub to: String,
}

impl Zone {
    pub(super) fn takes(&self, destination: &Destination) -> bool {
        self.countries.contains(&destination.country)
            && (self.postcode_prefixes.is_empty() && self.postcode_ranges.is_empty()
                || self.takes_postcode(&destination.postcode))
    }

    fn takes_postcode(&self, postcode: &str) -> bool {
        let postcode = postcode.trim().to_uppercase();
        begins(&postcode, &self.postcode_prefixes)
            || self
                .postcode_ranges
                .iter()
                .any(|range| range.takes(&postcode))
    }
}

/// Tells whether a postcode in capitals begins as one of the prefixes says.
pub(super) fn begins(postcode: &str, prefixes: &[String]) -> bool {
    prefixes.iter().any(|prefix| begins_with(postcode, prefix))
}

fn begins_with(postcode: &str, prefix: &str) -> bool {
    if let Some(open) = prefix.strip_suffix('*') {
        return postcode.starts_with(open);
    }
    let Some(rest) = postcode.strip_prefix(prefix) else {
        return false;
    };
    let (Some(last), Some(next)) = (prefix.chars().last(), rest.chars().next()) else {
        return true;
    };
    // A letter more is another area; in a code with a gap, so is a figure more after letters and figures.
    let other_area = last.is_alphabetic() && next.is_alphabetic();
    let other_district = last.is_ascii_digit()
        && next.is_ascii_digit()
        && prefix.starts_with(char::is_alphabetic)
        && rest.contains(' ');
    !other_area && !other_district
}

/// The letters before the first figure, and the figures.
pub(super) fn parted(code: &str) -> (&str, &str) {
    let letters = code
        .find(|c: char| c.is_ascii_digit())
        .unwrap_or(code.len());
    let (letters, rest) = code.split_at(letters);
    let figures = rest
        .find(|c: char| !c.is_ascii_digit())
        .unwrap_or(rest.len());
    (letters, &rest[..figures])
}

impl PostcodeRange {
    fn takes(&self, postcode: &str) -> bool {
        let (letters, figures) = parted(postcode);
        let (from_letters, from) = parted(&self.from);
        let (_, to) = parted(&self.to);
        // Where a gap ends the figures, all of them count: PO3 lies before PO30. Else as many as the range writes.
        let figures = if postcode.contains(' ') && !letters.is_empty() {
            figures
        } else {
            figures.get(..to.len()).unwrap_or(figures)
        };
        let number = |text: &str| text.parse::<u64>().ok();
        let (Some(number_of), Some(from), Some(to)) = (number(figures), number(from), number(to))
        else {
            return false;
        };
        letters == from_letters && (from..=to).contains(&number_of)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn zone(prefixes: &[&str], ranges: &[(&str, &str)]) -> Zone {
        Zone {
            name: "Here".to_owned(),
            countries: vec!["XS".to_owned()],
            postcode_prefixes: prefixes.iter().map(|one| (*one).to_owned()).collect(),
            postcode_ranges: ranges
                .iter()
                .map(|(from, to)| PostcodeRange {
                    from: (*from).to_owned(),
                    to: (*to).to_owned(),
                })
                .collect(),
        }
    }

    fn takes(zone: &Zone, postcode: &str) -> bool {
        zone.takes(&Destination {
            country: "XS".to_owned(),
            postcode: postcode.to_owned(),
        })
    }

    #[test]
    fn a_prefix_means_its_own_area_unless_it_says_more() {
        let north = zone(&["N"], &[]);
        for (postcode, taken) in [
            ("N1 4AB", true),
            ("n22", true),
            ("N", true),
            ("NQ4 1AA", false),
            ("", false),
        ] {
            assert_eq!(takes(&north, postcode), taken, "{postcode}");
        }
        assert!(takes(&zone(&["N*"], &[]), "NQ4 1AA"));
        let district = zone(&["N1"], &[]);
        assert!(takes(&district, "N1 4AB") && !takes(&district, "N12 4AB"));
        // Codes of figures alone have no areas of their own.
        assert!(takes(&zone(&["10"], &[]), "10115"));
    }

    #[test]
    fn a_range_holds_its_ends_and_keeps_to_its_letters() {
        let island = zone(&[], &[("PO30", "PO41")]);
        for (postcode, taken) in [
            ("PO30 1AA", true),
            ("PO41 9ZZ", true),
            ("PO42 1AA", false),
            ("PO3 1AA", false),
            ("SO30 1AA", false),
            ("PO", false),
        ] {
            assert_eq!(takes(&island, postcode), taken, "{postcode}");
        }
        let figures = zone(&[], &[("10000", "14999")]);
        assert!(takes(&figures, "12345") && !takes(&figures, "15000"));
        // As many figures as the range writes: 10 to 14 takes 14999.
        let short = zone(&[], &[("10", "14")]);
        assert!(takes(&short, "14999") && !takes(&short, "15000"));
    }
}

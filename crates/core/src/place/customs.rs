//! Where a parcel meets customs on its way: by the territory that each end lies in, which is not always its country.
//!
//! The territories are those of the Union Customs Code and of the VAT directive for the European Union (a parcel from the mainland
//! to Tenerife has a customs paper, although both ends are Spain), of the customs treaty of 1923 for Liechtenstein, of the customs
//! agreement with the Isle of Man, and of the Windsor Framework for Northern Ireland.

use super::Buyer;

/// What customs take for one land.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Territory<'a> {
    /// The European Union, as far as its customs and its value added tax reach.
    Union,
    /// Northern Ireland, which is of both the Union and of Great Britain.
    Both,
    /// Great Britain and the Isle of Man.
    Britain,
    /// Switzerland and Liechtenstein.
    Alpine,
    /// The United States and Puerto Rico.
    States,
    /// A country by itself.
    Country(&'a str),
    /// A part of a country that customs take for a land of its own.
    Part(&'static str),
}

/// The members of the Union, and Monaco, which is of its territory.
const UNION: [&str; 28] = [
    "AT", "BE", "BG", "CY", "CZ", "DE", "DK", "EE", "ES", "FI", "FR", "GR", "HR", "HU", "IE", "IT",
    "LT", "LU", "LV", "MC", "MT", "NL", "PL", "PT", "RO", "SE", "SI", "SK",
];

/// Parts of countries outside the Union's customs or its tax: the country, how their postcodes begin, what they are called.
const PARTS: [(&str, &str, &str); 16] = [
    ("ES", "35", "the Canary Islands"),
    ("ES", "38", "the Canary Islands"),
    ("ES", "51", "Ceuta"),
    ("ES", "52", "Melilla"),
    ("DE", "78266", "Büsingen"),
    ("DE", "27498", "Heligoland"),
    ("IT", "23041", "Livigno"),
    ("IT", "22061", "Campione"),
    ("GR", "63086", "Mount Athos"),
    ("FI", "22", "Åland"),
    ("FR", "971", "Guadeloupe"),
    ("FR", "972", "Martinique"),
    ("FR", "973", "French Guiana"),
    ("FR", "974", "Réunion"),
    ("FR", "976", "Mayotte"),
    ("FR", "975", "Saint Pierre and Miquelon"),
];

impl<'a> Territory<'a> {
    fn of(address: &'a Buyer) -> Self {
        let country = address.country.as_str();
        // The codes of all these countries are digits; whoever writes D-78266 means 78266.
        let digits: String = address
            .postcode
            .chars()
            .filter(char::is_ascii_digit)
            .collect();
        let part = PARTS
            .iter()
            .find(|(of, begins, _)| *of == country && digits.starts_with(begins));
        if let Some((_, _, called)) = part {
            return Self::Part(called);
        }
        match country {
            "GB" if in_northern_ireland(&address.postcode) => Self::Both,
            "GB" | "IM" => Self::Britain,
            "CH" | "LI" => Self::Alpine,
            "US" | "PR" => Self::States,
            _ if UNION.contains(&country) => Self::Union,
            _ => Self::Country(country),
        }
    }
}

/// Tells whether a British postcode is one of Northern Ireland.
fn in_northern_ireland(postcode: &str) -> bool {
    let area = postcode.trim_start().get(..2);
    area.is_some_and(|area| area.eq_ignore_ascii_case("BT"))
}

/// Tells whether customs ask for a paper between two addresses; not while the country of either is unknown.
#[must_use]
pub fn meets_customs(from: &Buyer, to: &Buyer) -> bool {
    use Territory::{Both, Britain, Union};
    if from.country.is_empty() || to.country.is_empty() {
        return false;
    }
    match (Territory::of(from), Territory::of(to)) {
        (Both, Union | Britain) | (Union | Britain, Both) => false,
        (one, other) => one != other,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn at(place: &str) -> Buyer {
        let (country, postcode) = place.split_once(' ').unwrap_or((place, ""));
        Buyer {
            country: country.to_owned(),
            postcode: postcode.to_owned(),
            ..Buyer::default()
        }
    }

    /// Each pair both ways; the postcode tells parts of a country from the rest.
    #[test]
    fn a_paper_is_asked_for_between_territories_and_not_between_countries() {
        for (one, other, paper) in [
            ("DE 50667", "FR 69001", false),
            ("DE 50667", "DE 80331", false),
            ("DE 50667", "CH 8001", true),
            ("CH 8001", "LI 9490", false),
            ("FR 06000", "MC 98000", false),
            // Spain to its own islands, and past the bound of their codes: 34 and 36 are mainland.
            ("ES 28013", "ES 38001", true),
            ("ES 28013", "ES 35001", true),
            ("ES 28013", "ES 34001", false),
            ("ES 28013", "ES 36201", false),
            // Only this village of its country, in any way in which the code is typed.
            ("DE 50667", "DE 78266", true),
            ("DE 50667", "DE D-78266", true),
            ("DE 50667", "DE 78267", false),
            ("FI 00100", "FI 22100", true),
            ("FR 75001", "FR 97400", true),
            ("FR 97400", "FR 97411", false),
            ("GB BT1 5GS", "IE D02 X285", false),
            ("GB BT1 5GS", "GB M1 1AE", false),
            ("GB M1 1AE", "IE D02 X285", true),
            ("GB M1 1AE", "IM IM1 1AA", false),
            ("GB M1 1AE", "JE JE2 3AB", true),
            ("US 97214", "PR 00901", false),
            ("US 97214", "CA V5K 0A1", true),
            ("JP 605-0074", "JP 100-0001", false),
            ("XS NQ1 4AB", "XM 4077", true),
            ("XS NQ1 4AB", "XS", false),
            ("DE 50667", "", false),
        ] {
            assert_eq!(
                meets_customs(&at(one), &at(other)),
                paper,
                "{one} to {other}"
            );
            assert_eq!(
                meets_customs(&at(other), &at(one)),
                paper,
                "{other} to {one}"
            );
        }
    }

    #[test]
    fn every_member_is_a_country_of_the_world() {
        for code in UNION {
            assert!(super::super::Country::of(code).is_some(), "{code}");
        }
        for (country, _, called) in PARTS {
            assert!(UNION.contains(&country), "{called}");
        }
    }
}

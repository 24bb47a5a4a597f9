//! Addresses as the custom of their country writes them, and what is missing of one.

use serde::{Deserialize, Serialize};
use sha2::{Digest as _, Sha256};

use crate::{
    Refusal, Refusals,
    place::{AddressPart, Buyer, Countries, FullFormat},
    text::refused_text,
};

/// How addresses of a country are written.
#[derive(Debug, Clone, Copy)]
pub struct AddressForm<'a> {
    /// What the country is called.
    pub country: &'a str,
    /// Which lines, and what must be there.
    pub format: FullFormat<'a>,
    /// Whether a house may have a name in place of a number.
    pub named_houses: bool,
}

/// Whose parcels these are, as it stands on a label.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct Sender {
    /// Name and place.
    pub address: Buyer,
    /// A number that a driver can call.
    pub telephone: String,
    /// Where a carrier or buyer writes to.
    pub email: String,
}

/// Whose address is meant.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum AddressOf {
    /// The studio's.
    Sender,
    /// The buyer's.
    Buyer,
}

impl AddressOf {
    const fn prefix(self) -> &'static str {
        match self {
            Self::Sender => "sender.address",
            Self::Buyer => "buyer",
        }
    }

    const fn whose(self) -> &'static str {
        match self {
            Self::Sender => "your own address",
            Self::Buyer => "the buyer's address",
        }
    }
}

/// Something that an address wants before a parcel can go there.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct AddressGap {
    /// The field, as `buyer.street`.
    pub field: String,
    /// What is wrong with it.
    pub says: String,
}

/// Countries in which many houses have a name and no number.
const NAMED_HOUSES: [&str; 6] = ["GB", "IE", "GG", "JE", "IM", "AE"];

impl<'a> AddressForm<'a> {
    /// Returns how addresses of the country of a code are written, among those that a studio knows.
    #[must_use]
    pub fn of(countries: &'a Countries, code: &'a str) -> Self {
        Self {
            country: countries.name(code),
            format: countries.format(code),
            named_houses: NAMED_HOUSES.contains(&code),
        }
    }

    /// Returns the lines of an address, from the name down; the country in capitals for whoever sends from elsewhere.
    #[must_use]
    pub fn lines(&self, address: &Buyer, from_elsewhere: bool) -> Vec<String> {
        let mut lines = self.format.lines(address);
        if from_elsewhere {
            lines.push(self.country.to_uppercase());
        }
        lines
    }

    /// Returns what an address wants before a parcel can go there.
    #[must_use]
    pub fn gaps(&self, address: &Buyer, of: AddressOf) -> Vec<AddressGap> {
        let gap = |field: &str, says: String| AddressGap {
            field: format!("{}.{field}", of.prefix()),
            says,
        };
        let missing =
            |field: &str, called: &str| gap(field, format!("{} needs a {called}", of.whose()));
        let required = &self.format.format.required;
        let mut gaps: Vec<AddressGap> = AddressPart::ALL
            .iter()
            .filter(|part| **part == AddressPart::Name || required.contains(part))
            .filter(|part| part.of(address).is_empty())
            .map(|part| missing(part.key(), part.called()))
            .collect();
        if address.country.trim().is_empty() {
            gaps.push(missing("country", "country"));
        }
        let street = AddressPart::Street.of(address);
        if !street.is_empty() && !self.named_houses && !street.chars().any(char::is_numeric) {
            let says = format!("{} has no house number: add it for the driver", of.whose());
            gaps.push(gap("street", says));
        }
        let postcode = AddressPart::Postcode.of(address);
        let shape = self.format.format.postcode.as_ref();
        if !postcode.is_empty() && shape.is_some_and(|shape| !shape.takes(postcode)) {
            let like = self.format.example.map(|example| format!(", as {example}"));
            let says = format!(
                "\"{postcode}\" is not a postcode of {}: write it{}",
                self.country,
                like.unwrap_or_default()
            );
            gaps.push(gap("postcode", says));
        }
        let region = AddressPart::Region.of(address);
        let known = self.format.regions;
        if !region.is_empty()
            && required.contains(&AddressPart::Region)
            && !known.is_empty()
            && self.format.region(region).is_none()
        {
            let says = format!(
                "\"{region}\" is not a region of {}: write it as {}",
                self.country,
                known.first().map_or("", |first| first.written())
            );
            gaps.push(gap("region", says));
        }
        gaps
    }
}

impl Sender {
    /// Returns a [`Refusal`] for each text of it that does not fit on a label.
    #[must_use]
    pub fn refused(&self) -> Vec<Refusal> {
        let mut refusals = Refusals::default();
        refusals.extend(self.address.refused("sender.address"));
        let texts = [
            ("sender.telephone", &self.telephone),
            ("sender.email", &self.email),
        ];
        refusals.extend(
            texts
                .into_iter()
                .filter_map(|(field, text)| refused_text(field, text)),
        );
        if !self.email.is_empty() && !self.email.contains('@') {
            let says = format!("\"{}\" is not an email address", self.email);
            refusals.refuse("sender.email", says);
        }
        refusals.into()
    }
}

/// Returns what two addresses are known by: it changes with every letter of either.
#[must_use]
pub fn address_print(from: &Buyer, to: &Buyer) -> String {
    let both = (Printed::of(from), Printed::of(to));
    let text = serde_json::to_vec(&both).expect("an address can be written");
    let digest = Sha256::digest(text);
    digest
        .iter()
        .take(8)
        .map(|byte| format!("{byte:02x}"))
        .collect()
}

/// What of an address a print is made of: a part that came later is in it only where it is filled in, so that prints of before
/// stand.
#[derive(Serialize)]
struct Printed<'a> {
    name: &'a str,
    street: &'a str,
    town: &'a str,
    postcode: &'a str,
    country: &'a str,
    #[serde(skip_serializing_if = "str::is_empty")]
    company: &'a str,
    #[serde(skip_serializing_if = "str::is_empty")]
    neighbourhood: &'a str,
    #[serde(skip_serializing_if = "str::is_empty")]
    region: &'a str,
}

impl<'a> Printed<'a> {
    fn of(address: &'a Buyer) -> Self {
        let Buyer {
            name,
            company,
            street,
            neighbourhood,
            town,
            region,
            postcode,
            country,
        } = address;
        Self {
            name,
            street,
            town,
            postcode,
            country,
            company,
            neighbourhood,
            region,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::place::PostcodePlace;

    fn oda() -> Buyer {
        Buyer {
            name: "Oda Marsh".into(),
            street: "Sluice House, 4 Weir Lane".into(),
            town: "Tern Bight".into(),
            postcode: "TB1 2AA".into(),
            country: "XS".into(),
            ..Buyer::default()
        }
    }

    fn form(postcode: PostcodePlace) -> AddressForm<'static> {
        AddressForm {
            country: "Saltmark",
            format: FullFormat::plain(postcode.format()),
            named_houses: false,
        }
    }

    fn at(code: &str, parts: &[(AddressPart, &str)]) -> Vec<String> {
        let mut address = Buyer::default();
        for (part, text) in parts {
            (*text).clone_into(part.of_mut(&mut address));
        }
        let countries = Countries::default();
        AddressForm::of(&countries, code).lines(&address, true)
    }

    #[test]
    fn real_countries_are_written_as_their_post_reads_them() {
        use AddressPart::{Company, Name, Neighbourhood, Postcode, Region, Street, Town};
        let oda = (Name, "Oda Marsh");
        assert_eq!(
            at(
                "US",
                &[
                    oda,
                    (Street, "1420 SE Oak St, Apt 4"),
                    (Town, "Portland"),
                    (Region, "Oregon"),
                    (Postcode, "97214")
                ]
            ),
            [
                "Oda Marsh",
                "1420 SE Oak St",
                "Apt 4",
                "Portland, OR 97214",
                "UNITED STATES"
            ]
        );
        assert_eq!(
            at(
                "DE",
                &[
                    oda,
                    (Company, "Galerie Nord GmbH"),
                    (Street, "Hafenstraße 5"),
                    (Town, "Köln"),
                    (Postcode, "50667")
                ]
            ),
            [
                "Oda Marsh",
                "Galerie Nord GmbH",
                "Hafenstraße 5",
                "50667 Köln",
                "GERMANY"
            ]
        );
        assert_eq!(
            at(
                "GB",
                &[
                    oda,
                    (Street, "The Old Mill"),
                    (Town, "Oxford"),
                    (Postcode, "ox1 4ab"),
                    (Region, "Oxfordshire")
                ]
            ),
            [
                "Oda Marsh",
                "The Old Mill",
                "Oxford",
                "Oxfordshire",
                "OX1 4AB",
                "UNITED KINGDOM"
            ]
        );
        assert_eq!(
            at(
                "BR",
                &[
                    oda,
                    (Street, "Rua Augusta 1500"),
                    (Neighbourhood, "Consolação"),
                    (Town, "São Paulo"),
                    (Region, "SP"),
                    (Postcode, "01304-001")
                ]
            ),
            [
                "Oda Marsh",
                "Rua Augusta 1500",
                "Consolação",
                "São Paulo-SP",
                "01304-001",
                "BRAZIL"
            ]
        );
        // Japan has an order of its own, and another one in Latin letters; Singapore has no town.
        assert_eq!(
            at(
                "JP",
                &[
                    (Name, "山田花子"),
                    (Street, "渋谷区神宮前1-2-3"),
                    (Region, "東京都"),
                    (Postcode, "150-0001")
                ]
            ),
            [
                "〒150-0001",
                "東京都",
                "渋谷区神宮前1-2-3",
                "山田花子",
                "JAPAN"
            ]
        );
        assert_eq!(
            at(
                "JP",
                &[
                    (Name, "Hanako Yamada"),
                    (Street, "1-2-3 Jingumae"),
                    (Region, "Tokyo"),
                    (Postcode, "150-0001")
                ]
            ),
            [
                "Hanako Yamada",
                "1-2-3 Jingumae, Tokyo",
                "150-0001",
                "JAPAN"
            ]
        );
        assert_eq!(
            at(
                "SG",
                &[oda, (Street, "12 Orchard Road"), (Postcode, "238801")]
            ),
            [
                "Oda Marsh",
                "12 Orchard Road",
                "SINGAPORE 238801",
                "SINGAPORE"
            ]
        );
    }

    #[test]
    fn a_postcode_and_a_region_are_looked_over_by_their_country() {
        let countries = Countries::default();
        let fields = |code: &str, postcode: &str, region: &str| -> Vec<String> {
            let address = Buyer {
                postcode: postcode.into(),
                region: region.into(),
                country: code.into(),
                ..oda()
            };
            let gaps = AddressForm::of(&countries, code).gaps(&address, AddressOf::Buyer);
            gaps.into_iter().map(|gap| gap.field).collect()
        };
        assert!(fields("DE", "50667", "").is_empty());
        assert_eq!(fields("DE", "5066", ""), ["buyer.postcode"]);
        assert_eq!(fields("US", "97214", ""), ["buyer.region"]);
        assert_eq!(fields("US", "97214", "Oregonia"), ["buyer.region"]);
        assert!(fields("US", "97214-1234", "oregon").is_empty());
        // Ireland asks for no postcode, Hong Kong has none.
        assert!(fields("IE", "", "").is_empty());
        assert!(fields("HK", "", "Kowloon").is_empty());
    }

    #[test]
    fn a_print_of_before_companies_stands() {
        // As {"name":"A","street":"","town":"","postcode":"","country":""} and "B" were printed: sha256 of the pair.
        let named = |name: &str| Buyer {
            name: name.into(),
            ..Buyer::default()
        };
        let (from, to) = (named("A"), named("B"));
        let pair = br#"[{"name":"A","street":"","town":"","postcode":"","country":""},{"name":"B","street":"","town":"","postcode":"","country":""}]"#;
        let digest = Sha256::digest(pair);
        let print: String = digest
            .iter()
            .take(8)
            .map(|byte| format!("{byte:02x}"))
            .collect();
        assert_eq!(address_print(&from, &to), print);
        let firm = Buyer {
            company: "C".into(),
            ..to.clone()
        };
        assert_ne!(address_print(&from, &to), address_print(&from, &firm));
    }

    #[test]
    fn each_custom_has_the_postcode_where_it_belongs() {
        let lines = |place, away| form(place).lines(&oda(), away);
        assert_eq!(
            lines(PostcodePlace::AfterTown, false),
            [
                "Oda Marsh",
                "Sluice House",
                "4 Weir Lane",
                "Tern Bight TB1 2AA"
            ]
        );
        assert_eq!(
            lines(PostcodePlace::BeforeTown, false)[3],
            "TB1 2AA Tern Bight"
        );
        assert_eq!(
            lines(PostcodePlace::OwnLine, true)[3..],
            ["Tern Bight", "TB1 2AA", "SALTMARK"]
        );
        assert_eq!(lines(PostcodePlace::None, false)[3], "Tern Bight");
    }

    #[test]
    fn what_is_missing_is_named_at_its_field() {
        let form = form(PostcodePlace::BeforeTown);
        assert!(form.gaps(&oda(), AddressOf::Buyer).is_empty());
        let bare = Buyer {
            street: "Weir Lane".into(),
            postcode: " ".into(),
            ..oda()
        };
        let gaps = form.gaps(&bare, AddressOf::Buyer);
        let fields: Vec<&str> = gaps.iter().map(|gap| gap.field.as_str()).collect();
        assert_eq!(fields, ["buyer.postcode", "buyer.street"]);
        // Where there are no postcodes none is missing.
        let none = AddressForm {
            format: FullFormat::plain(PostcodePlace::None.format()),
            ..form
        };
        assert_eq!(
            none.gaps(&bare, AddressOf::Sender)[0].field,
            "sender.address.street"
        );
    }

    #[test]
    fn another_letter_in_either_is_another_print() {
        let mut other = oda();
        other.street.push('a');
        assert_ne!(address_print(&oda(), &oda()), address_print(&oda(), &other));
        assert_ne!(address_print(&oda(), &other), address_print(&other, &oda()));
    }
}

//! Addresses as the custom of their country writes them, and what is missing of one.

use serde::{Deserialize, Serialize};
use sha2::{Digest as _, Sha256};

use crate::{Refusal, Refusals, shipment::Buyer, text::refused_text};

/// Where a country's custom has the postcode.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum PostcodePlace {
    /// `4120 Vennhaven`.
    #[default]
    BeforeTown,
    /// `Netherby Quay NQ1 4AB`.
    AfterTown,
    /// On a line of its own below the town.
    OwnLine,
    /// It has none.
    None,
}

/// How addresses of a country are written.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct AddressForm<'a> {
    /// What the country is called.
    pub country: &'a str,
    /// Where its postcode stands.
    pub postcode: PostcodePlace,
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

impl AddressForm<'_> {
    /// Returns the lines of an address, from the name down; the country in capitals for whoever sends from elsewhere.
    #[must_use]
    pub fn lines(&self, address: &Buyer, from_elsewhere: bool) -> Vec<String> {
        let Buyer {
            name,
            street,
            town,
            postcode,
            ..
        } = address;
        let (town, postcode) = (town.trim(), postcode.trim());
        let mut lines = vec![name.trim().to_owned()];
        // A street that was typed in parts takes a line for each.
        lines.extend(street.split(',').map(|part| part.trim().to_owned()));
        match self.postcode {
            PostcodePlace::BeforeTown => lines.push(format!("{postcode} {town}")),
            PostcodePlace::AfterTown => lines.push(format!("{town} {postcode}")),
            PostcodePlace::OwnLine => lines.extend([town.to_owned(), postcode.to_owned()]),
            PostcodePlace::None => lines.push(town.to_owned()),
        }
        if from_elsewhere {
            lines.push(self.country.to_uppercase());
        }
        let lines = lines.into_iter().map(|line| line.trim().to_owned());
        lines.filter(|line| !line.is_empty()).collect()
    }

    /// Returns what an address wants before a parcel can go there.
    #[must_use]
    pub fn gaps(&self, address: &Buyer, of: AddressOf) -> Vec<AddressGap> {
        let Buyer {
            name,
            street,
            town,
            postcode,
            country,
        } = address;
        let mut wanted = vec![
            ("name", "name", name),
            ("street", "street and number", street),
            ("town", "town", town),
            ("country", "country", country),
        ];
        if self.postcode != PostcodePlace::None {
            wanted.push(("postcode", "postcode", postcode));
        }
        let gap = |field: &str, says: String| AddressGap {
            field: format!("{}.{field}", of.prefix()),
            says,
        };
        let mut gaps: Vec<AddressGap> = wanted
            .into_iter()
            .filter(|(.., text)| text.trim().is_empty())
            .map(|(field, called, _)| {
                gap(field, format!("the {called} is missing in {}", of.whose()))
            })
            .collect();
        let numbered = street.chars().any(char::is_numeric);
        if !street.trim().is_empty() && !numbered {
            gaps.push(gap(
                "street",
                format!("{} has no house number: a driver looks for one", of.whose()),
            ));
        }
        gaps
    }
}

impl Sender {
    /// Returns a [`Refusal`] for each text of it that does not fit on a label.
    #[must_use]
    pub fn refused(&self) -> Vec<Refusal> {
        let Buyer {
            name,
            street,
            town,
            postcode,
            country,
        } = &self.address;
        let mut refusals: Refusals = [
            ("sender.address.name", name),
            ("sender.address.street", street),
            ("sender.address.town", town),
            ("sender.address.postcode", postcode),
            ("sender.telephone", &self.telephone),
            ("sender.email", &self.email),
        ]
        .into_iter()
        .filter_map(|(field, text)| refused_text(field, text))
        .collect();
        let is_code = country.len() == 2 && country.bytes().all(|byte| byte.is_ascii_uppercase());
        if !country.is_empty() && !is_code {
            let says = format!("\"{country}\" is not a country's code: it has two capital letters");
            refusals.refuse("sender.address.country", says);
        }
        if !self.email.is_empty() && !self.email.contains('@') {
            let says = format!("\"{}\" is no address to write to: it has an @", self.email);
            refusals.refuse("sender.email", says);
        }
        refusals.into()
    }
}

/// Returns what two addresses are known by: it changes with every letter of either.
#[must_use]
pub fn address_print(from: &Buyer, to: &Buyer) -> String {
    let text = serde_json::to_vec(&(from, to)).expect("an address can be written");
    let digest = Sha256::digest(text);
    digest
        .iter()
        .take(8)
        .map(|byte| format!("{byte:02x}"))
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    fn oda() -> Buyer {
        Buyer {
            name: "Oda Marsh".into(),
            street: "Sluice House, 4 Weir Lane".into(),
            town: "Tern Bight".into(),
            postcode: "TB1 2AA".into(),
            country: "XS".into(),
        }
    }

    fn form(postcode: PostcodePlace) -> AddressForm<'static> {
        AddressForm {
            country: "Saltmark",
            postcode,
        }
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
            postcode: PostcodePlace::None,
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

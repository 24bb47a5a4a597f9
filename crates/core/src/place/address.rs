//! Who gets a parcel, and where: the parts that an address can have.

use serde::{Deserialize, Serialize};

use super::AddressPart;
use crate::{Refusal, Refusals, text::refused_text};

/// Who gets it, and where.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct Buyer {
    /// A person or a house.
    pub name: String,
    /// A firm, beside a person.
    pub company: String,
    /// Street and number.
    pub street: String,
    /// Part of a town, in countries that write it.
    pub neighbourhood: String,
    /// Town.
    pub town: String,
    /// State, province, prefecture or county, in countries that write it.
    pub region: String,
    /// Postcode, where there is one.
    pub postcode: String,
    /// The country's two-letter code.
    pub country: String,
}

impl Buyer {
    /// Returns a [`Refusal`] for each text of it that nobody can read or print, and for a country that is no code, each at its
    /// field under a place.
    #[must_use]
    pub fn refused(&self, at: &str) -> Vec<Refusal> {
        let mut refusals: Refusals = AddressPart::ALL
            .iter()
            .filter_map(|part| refused_text(&format!("{at}.{}", part.key()), part.raw(self)))
            .collect();
        let country = &self.country;
        let is_code = country.len() == 2 && country.bytes().all(|byte| byte.is_ascii_uppercase());
        if !country.is_empty() && !is_code {
            let says = format!("\"{country}\" is not a country code: write two capital letters");
            refusals.refuse(format!("{at}.country"), says);
        }
        refusals.into()
    }
}

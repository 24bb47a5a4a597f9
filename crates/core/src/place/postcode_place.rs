//! Where a country of somebody's own making has its postcode.

use std::sync::LazyLock;

use serde::{Deserialize, Serialize};
use strum::{EnumCount, VariantArray};

use super::{AddressFormat, AddressPart};

/// Where a country's custom has the postcode.
#[derive(
    Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize, EnumCount, VariantArray,
)]
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

static FORMATS: LazyLock<[AddressFormat; PostcodePlace::COUNT]> =
    LazyLock::new(|| std::array::from_fn(|at| PostcodePlace::VARIANTS[at].made()));

impl PostcodePlace {
    /// Returns how addresses are written with the postcode there.
    #[must_use]
    pub fn format(self) -> &'static AddressFormat {
        &FORMATS[self as usize]
    }

    fn made(self) -> AddressFormat {
        let town: &[&str] = match self {
            Self::BeforeTown => &["{postcode} {town}"],
            Self::AfterTown => &["{town} {postcode}"],
            Self::OwnLine => &["{town}", "{postcode}"],
            Self::None => &["{town}"],
        };
        let lines = ["{name}", "{company}", "{street}"];
        let lines = lines.iter().chain(town);
        let lines = lines.map(|line| (*line).to_owned().try_into().expect("a line"));
        let mut required = vec![AddressPart::Street, AddressPart::Town];
        if self != Self::None {
            required.push(AddressPart::Postcode);
        }
        AddressFormat {
            lines: lines.collect(),
            required,
            postcode: None,
        }
    }
}

//! The hand-over list: a carrier's parcels of one day, with room to sign.

use serde::Serialize;

use super::about::Letterhead;
use crate::quantity::{Mass, Telling};

/// A carrier's parcels of one day.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
pub struct HandOverList {
    /// Whose they are.
    pub head: Letterhead,
    /// Who takes them.
    pub carrier: String,
    /// The day.
    pub on: String,
    /// Every parcel.
    pub rows: Vec<HandOverRow>,
    /// How many, and what they weigh together.
    pub total: String,
}

/// One parcel.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
pub struct HandOverRow {
    /// What it is followed by.
    pub tracking: String,
    /// The service.
    pub service: String,
    /// The piece, as its tag says.
    pub title: String,
    /// Who gets it, and where.
    pub to: String,
    /// What it weighs.
    pub mass: String,
}

impl HandOverList {
    /// Returns the list of parcels with what each weighs.
    #[must_use]
    pub fn of(
        head: Letterhead,
        carrier: &str,
        on: &str,
        parcels: Vec<(HandOverRow, Mass)>,
        telling: Telling,
    ) -> Self {
        let together = parcels
            .iter()
            .fold(Mass::ZERO, |sum, (_, mass)| sum + *mass);
        let many = match parcels.len() {
            1 => "1 parcel".to_owned(),
            many => format!("{many} parcels"),
        };
        Self {
            head,
            carrier: carrier.to_owned(),
            on: on.to_owned(),
            rows: parcels
                .into_iter()
                .map(|(row, mass)| HandOverRow {
                    mass: telling.mass(mass),
                    ..row
                })
                .collect(),
            total: format!("{many}, {}", telling.mass(together)),
        }
    }
}

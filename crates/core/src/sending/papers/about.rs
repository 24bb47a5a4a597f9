//! What several papers say alike: who sends, who gets it, what the pieces are.

use rust_decimal::Decimal;
use serde::Serialize;

use crate::{
    piece::Medium,
    plan::FIRST,
    quantity::{Length, LengthUnit, Telling},
    shipment::{PieceInputs, ShipmentInputs},
};

/// Whose paper it is.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
pub struct Letterhead {
    /// The studio's name.
    pub studio: String,
    /// Its address, telephone and mail, line by line.
    pub lines: Vec<String>,
}

/// Both ends of a journey, line by line.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
pub struct Ends {
    /// Who sends.
    pub from: Vec<String>,
    /// Who gets it.
    pub to: Vec<String>,
}

/// A piece as papers name it.
#[derive(Debug, Clone, Copy)]
pub(super) struct Named<'a> {
    pub key: &'a str,
    pub piece: &'a PieceInputs,
    pub value: Option<&'a str>,
}

/// Returns every piece of a shipment, the first one first.
pub(super) fn pieces(inputs: &ShipmentInputs) -> Vec<Named<'_>> {
    let first = Named {
        key: FIRST,
        piece: &inputs.piece,
        value: inputs.value.as_deref(),
    };
    let others = inputs.others.iter().map(|(key, other)| Named {
        key,
        piece: &other.piece,
        value: other.value.as_deref(),
    });
    std::iter::once(first).chain(others).collect()
}

impl Named<'_> {
    /// In what and on what it is made: as its certificate words it, else as it was chosen.
    pub(super) fn made(&self) -> String {
        let worded = self.piece.facts.medium.trim();
        if !worded.is_empty() {
            return worded.to_owned();
        }
        let medium = self.piece.medium.map(Medium::name);
        let construction = self
            .piece
            .construction
            .map(crate::piece::Construction::name);
        [medium, construction]
            .into_iter()
            .flatten()
            .collect::<Vec<_>>()
            .join(", ")
    }

    /// What it is worth, where that was given and is an amount.
    pub(super) fn worth(&self) -> Option<Decimal> {
        self.value?.trim().replace(',', ".").parse().ok()
    }

    /// Its sides over everything, across, up and through, as far as they are known.
    pub(super) fn sides(&self) -> Vec<Length> {
        let sides = [&self.piece.width, &self.piece.height, &self.piece.depth];
        sides
            .into_iter()
            .flatten()
            .filter_map(|text| crate::quantity::TypedLength::read(text, LengthUnit::Mm).ok())
            .map(|typed| typed.length())
            .collect()
    }

    /// How many like ones there are.
    pub(super) fn count(&self) -> u32 {
        self.piece.count.unwrap_or(1)
    }

    /// Its number in the edition.
    pub(super) fn edition(&self) -> String {
        let facts = &self.piece.facts;
        match (facts.edition, facts.edition_of) {
            (Some(number), Some(of)) => format!("{number} of {of}"),
            (None, Some(of)) => format!("edition of {of}"),
            (Some(number), None) => format!("number {number}"),
            (None, None) => String::new(),
        }
    }

    /// Who made it, when, in what, how large: line by line.
    pub(super) fn lines(&self, telling: Telling) -> Vec<String> {
        let facts = &self.piece.facts;
        let who = [facts.artist.trim(), facts.year.trim()]
            .into_iter()
            .filter(|text| !text.is_empty());
        let many = match self.count() {
            1 => String::new(),
            count => format!("{count} like pieces"),
        };
        [
            who.collect::<Vec<_>>().join(", "),
            self.made(),
            telling.sides(&self.sides()),
            self.edition(),
            many,
        ]
        .into_iter()
        .filter(|line| !line.is_empty())
        .collect()
    }
}

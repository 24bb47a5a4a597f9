//! A card of thanks that goes with a piece, with room to write by hand.

use serde::Serialize;

use super::about::{Named, pieces};
use crate::shipment::ShipmentInputs;

/// What a card of thanks says.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
pub struct ThankYou {
    /// The buyer's name; empty while it is not known.
    pub to: String,
    /// What they have now, piece by piece.
    pub pieces: Vec<String>,
}

/// Returns the card of a shipment.
#[must_use]
pub fn thank_you(inputs: &ShipmentInputs) -> ThankYou {
    let named = |piece: Named<'_>| {
        let title = inputs.title_of(piece.key);
        let artist = piece.piece.facts.artist.trim();
        if artist.is_empty() {
            title
        } else {
            format!("{title}, {artist}")
        }
    };
    ThankYou {
        to: inputs.buyer.name.trim().to_owned(),
        pieces: pieces(inputs).into_iter().map(named).collect(),
    }
}

//! The condition report: how each piece looked before it was packed, with its photographs.

use jiff::civil::Date;
use serde::Serialize;

use super::about::{Letterhead, pieces};
use crate::{piece::Condition as State, quantity::Telling, shipment::ShipmentInputs};

/// How pieces looked before they were packed.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
pub struct Condition {
    /// Whose it is.
    pub head: Letterhead,
    /// The day.
    pub on: String,
    /// Every piece.
    pub pieces: Vec<ConditionPiece>,
    /// Its photographs, in the order in which they follow.
    pub photographs: Vec<PictureLine>,
}

/// One piece.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
pub struct ConditionPiece {
    /// Its title.
    pub title: String,
    /// What it is, line by line.
    pub lines: Vec<String>,
    /// Its surface.
    pub surface: &'static str,
    /// What was seen on it.
    pub notes: String,
}

/// What stands under a photograph.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
pub struct PictureLine {
    /// What it was taken of.
    pub says: String,
    /// When.
    pub taken_at: String,
}

impl PictureLine {
    /// Returns the line of a photograph that was taken at a step; one of a step that there is no longer is called a photograph.
    #[must_use]
    pub fn of(title: Option<&str>, taken_at: &str) -> Self {
        // To the minute, as its camera wrote it.
        let when = taken_at.get(..16).unwrap_or(taken_at).replace('T', " ");
        Self {
            says: title.unwrap_or("Photograph").to_owned(),
            taken_at: when,
        }
    }
}

/// Returns the condition report of a shipment.
#[must_use]
pub fn condition(
    inputs: &ShipmentInputs,
    head: Letterhead,
    on: Date,
    photographs: Vec<PictureLine>,
    telling: Telling,
) -> Condition {
    let told = pieces(inputs).into_iter().map(|piece| ConditionPiece {
        title: inputs.title_of(piece.key),
        lines: piece.lines(telling),
        surface: match piece.piece.condition {
            State::Sound => "Sound: nothing is loose.",
            State::Flaking => "Paint, pigment or gilding is loose.",
        },
        notes: piece.piece.notes.trim().to_owned(),
    });
    Condition {
        head,
        on: telling.day(on),
        pieces: told.collect(),
        photographs,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_photograph_says_its_step_and_minute() {
        let line = PictureLine::of(Some("Photograph the piece"), "2027-03-04T10:15:00.123Z");
        assert_eq!(
            (line.says.as_str(), line.taken_at.as_str()),
            ("Photograph the piece", "2027-03-04 10:15")
        );
        assert_eq!(PictureLine::of(None, "x").says, "Photograph");
    }
}

//! What one shipment does otherwise than the house.

use serde::{Deserialize, Serialize};

use super::{Allowances, HouseRules};
use crate::{
    Refusal,
    material::MaterialId,
    quantity::{Length, LengthRange, LengthUnit, TypedLength},
};

/// The choices of a shipment; what is absent follows the house rules.
///
/// Lengths are texts as typed, as `6 mm` or `1/4 in`.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct Choices {
    /// Turns of the first wrap.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub first_turns: Option<u32>,
    /// Turns of the second wrap; none leaves it out.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub second_turns: Option<u32>,
    /// The board in front and behind.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub face_board: Option<MaterialId>,
    /// How far the face boards stand proud of the piece.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub board_proud: Option<String>,
    /// The leg of the corner pockets.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub pocket_leg: Option<String>,
    /// The room left on each side in the box.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub clearance: Option<String>,
    /// The board of the box.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub box_board: Option<MaterialId>,
}

impl Choices {
    /// Returns the choices with the unit written after each bare number.
    ///
    /// # Errors
    /// A [`Refusal`] for each length that was not understood.
    pub fn with_units(mut self, bare: LengthUnit) -> Result<Self, Vec<Refusal>> {
        let mut refusals = Vec::new();
        for (field, text) in [
            ("choices.board_proud", &mut self.board_proud),
            ("choices.pocket_leg", &mut self.pocket_leg),
            ("choices.clearance", &mut self.clearance),
        ] {
            write_unit(field, text, bare, &mut refusals);
        }
        if refusals.is_empty() {
            Ok(self)
        } else {
            Err(refusals)
        }
    }

    pub(super) fn applied_to(&self, house: &HouseRules) -> Result<HouseRules, Vec<Refusal>> {
        let mut rules = house.clone();
        let mut refusals = Vec::new();
        let mut length = |field: &'static str, key: &str, text: &Option<String>| {
            let read = checked_length(field, range_of(key), text.as_deref()?);
            read.map_err(|refusal| refusals.push(refusal)).ok()
        };
        if let Some(proud) = length("choices.board_proud", "board_proud_mm", &self.board_proud) {
            rules.allowances.board_proud = proud;
        }
        if let Some(clearance) = length("choices.clearance", "clearance_mm", &self.clearance) {
            rules.allowances.clearance = clearance;
        }
        rules.pocket_leg = length("choices.pocket_leg", "pocket_leg_most_mm", &self.pocket_leg);
        for (field, key, turns, rule) in [
            (
                "choices.first_turns",
                "first_turns",
                self.first_turns,
                &mut rules.allowances.first_turns,
            ),
            (
                "choices.second_turns",
                "second_turns",
                self.second_turns,
                &mut rules.allowances.second_turns,
            ),
        ] {
            let Some(turns) = turns else { continue };
            match Allowances::about(key).check(f64::from(turns)) {
                Ok(_) => *rule = turns,
                Err(out) => refusals.push(Refusal::new(field, out)),
            }
        }
        set(&mut rules.materials.face_board, self.face_board.as_ref());
        set(&mut rules.materials.box_board, self.box_board.as_ref());
        if refusals.is_empty() {
            Ok(rules)
        } else {
            Err(refusals)
        }
    }
}

fn set(rule: &mut MaterialId, choice: Option<&MaterialId>) {
    if let Some(id) = choice {
        rule.clone_from(id);
    }
}

/// Writes the unit after a bare number, or says why the text is not a length.
pub(crate) fn write_unit(
    field: &str,
    text: &mut Option<String>,
    bare: LengthUnit,
    refusals: &mut Vec<Refusal>,
) {
    let Some(typed) = text else { return };
    match TypedLength::read(typed, bare) {
        Ok(read) => read.text().clone_into(typed),
        Err(error) => refusals.push(Refusal::new(field, error)),
    }
}

fn range_of(key: &str) -> LengthRange {
    let allowance = Allowances::about(key);
    LengthRange {
        name: allowance.name,
        // The shortest leg a shipment may set is where its tape still lands, not the house's most.
        least: if key == "pocket_leg_most_mm" {
            SHORTEST_LEG
        } else {
            Length::mm(allowance.least)
        },
        most: Length::mm(allowance.most),
        remedy: allowance
            .reason
            .strip_suffix('.')
            .unwrap_or(allowance.reason),
    }
}

/// Tape needs 25 mm to land on.
const SHORTEST_LEG: Length = Length::mm(25.0);

fn checked_length(field: &str, range: LengthRange, text: &str) -> Result<Length, Refusal> {
    let typed =
        TypedLength::read(text, LengthUnit::Mm).map_err(|error| Refusal::new(field, error))?;
    range
        .check(typed.length(), typed.unit())
        .map_err(|out| Refusal::new(field, out))
}

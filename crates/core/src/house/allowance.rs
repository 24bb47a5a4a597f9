//! The table of allowances: each with its key, name, unit, default, range and reason.
//!
//! It is declared once, here, and feeds the defaults, the checks, their messages, the settings and the
//! documents.

use serde::{Deserialize, Serialize};

use crate::{
    Refusal,
    quantity::{Length, Mass, Minutes, ceil_count},
};

/// What is known of one allowance.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Allowance {
    /// Its key in the house rules, ending in its unit.
    pub key: &'static str,
    /// What people call it.
    pub name: &'static str,
    /// Its unit; empty for a share.
    pub unit: &'static str,
    /// What a studio starts with.
    pub default: f64,
    /// The least allowed.
    pub least: f64,
    /// The most allowed.
    pub most: f64,
    /// Why it is there, in one sentence.
    pub reason: &'static str,
}

/// A value was outside the range of its allowance.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
#[error("{name} is {given}; it must be from {least} to {most}{unit}: {reason}")]
pub struct OutOfAllowance {
    name: &'static str,
    given: f64,
    least: f64,
    most: f64,
    unit: String,
    reason: &'static str,
}

impl Allowance {
    /// Returns the value when it lies in the range.
    ///
    /// # Errors
    /// [`OutOfAllowance`], with the range and its reason.
    pub fn check(&self, value: f64) -> Result<f64, OutOfAllowance> {
        if (self.least..=self.most).contains(&value) {
            return Ok(value);
        }
        let unit = if self.unit.is_empty() {
            String::new()
        } else {
            format!("\u{a0}{}", self.unit)
        };
        Err(OutOfAllowance {
            name: self.name,
            given: value,
            least: self.least,
            most: self.most,
            unit,
            reason: self.reason,
        })
    }
}

/// A type that an allowance can have.
trait Allowed: Copy {
    fn of(number: f64) -> Self;
    fn number(self) -> f64;
}

impl Allowed for Length {
    fn of(number: f64) -> Self {
        Self::mm(number)
    }
    fn number(self) -> f64 {
        self.as_mm()
    }
}

impl Allowed for Mass {
    fn of(number: f64) -> Self {
        Self::g(number)
    }
    fn number(self) -> f64 {
        self.as_g()
    }
}

impl Allowed for Minutes {
    fn of(number: f64) -> Self {
        Self::min_of(number)
    }
    fn number(self) -> f64 {
        self.as_min()
    }
}

impl Allowed for f64 {
    fn of(number: f64) -> Self {
        number
    }
    fn number(self) -> f64 {
        self
    }
}

impl Allowed for u32 {
    fn of(number: f64) -> Self {
        ceil_count(number)
    }
    fn number(self) -> f64 {
        f64::from(self)
    }
}

macro_rules! allowances {
    ($($field:ident $key:literal: $type:ty, $name:literal, $unit:literal, $default:literal in $least:literal to $most:literal, $reason:literal;)*) => {
        /// Every allowance of a studio, typed.
        #[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
        #[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
        #[serde(default)]
        pub struct Allowances {
            $(
                #[doc = $reason]
                #[serde(rename = $key)]
                pub $field: $type,
            )*
        }

        /// Every allowance with its default, range and reason, in the order of the work.
        pub const ALLOWANCES: &[Allowance] = &[
            $(Allowance { key: $key, name: $name, unit: $unit, default: $default, least: $least, most: $most, reason: $reason },)*
        ];

        impl Default for Allowances {
            fn default() -> Self {
                Self { $($field: <$type as Allowed>::of($default),)* }
            }
        }

        impl Allowances {
            /// Returns the number that stands under each key.
            fn numbers(&self) -> Vec<f64> {
                vec![$(self.$field.number(),)*]
            }
        }
    };
}

allowances! {
    contact_turn "contact_turn_mm": Length, "turn of the contact sheet", "mm", 40.0 in 15.0 to 150.0, "The sheet is folded this far onto the back, so that its tape never comes near the face.";
    contact_lap "contact_lap_mm": Length, "lap of two contact strips", "mm", 20.0 in 10.0 to 60.0, "Strips from a narrow roll overlap this far and are taped on the outer side.";
    tape_tab "tape_tab_mm": Length, "tape tab", "mm", 60.0 in 20.0 to 200.0, "Each tab of tape on a flap or a turn is this long, its end folded over.";
    tape_tab_every "tape_tab_every_mm": Length, "distance of tape tabs", "mm", 400.0 in 100.0 to 1000.0, "A flap longer than this gets one more tab.";
    pocket_leg_share "pocket_leg_share": f64, "short sides to a pocket leg", "", 8.0 in 4.0 to 16.0, "A corner pocket's leg is the short side divided by this: long enough to hold, short enough to leave the edge free.";
    pocket_leg_least "pocket_leg_least_mm": Length, "shortest pocket leg", "mm", 40.0 in 25.0 to 120.0, "A shorter leg slides off the corner.";
    pocket_leg_most "pocket_leg_most_mm": Length, "longest pocket leg", "mm", 120.0 in 40.0 to 300.0, "A longer leg is board and grams without more hold.";
    pocket_play "pocket_play_mm": Length, "play in a pocket", "mm", 1.0 in 0.0 to 5.0, "A pocket folded to the very depth of the piece does not go on.";
    board_proud "board_proud_mm": Length, "proud margin of a face board", "mm", 5.0 in 0.0 to 60.0, "The board, and not the frame, meets a knock when it stands this far beyond the piece.";
    first_turns "first_turns": u32, "turns of the first wrap", "turns", 1.0 in 1.0 to 6.0, "Each turn puts one thickness of cushion on the face, the back and two edges.";
    second_turns "second_turns": u32, "turns of the second wrap", "turns", 1.0 in 0.0 to 6.0, "A second wrap at right angles pads the edges that the first one leaves to its rolled ends.";
    rolled_ends_per_turn "rolled_ends_per_turn": f64, "thicknesses in a rolled end, a turn", "", 2.0 in 1.0 to 4.0, "The sheet that stands past the piece is rolled in, this many thicknesses for each turn.";
    wrap_overlap "wrap_overlap_mm": Length, "overlap of a wrap", "mm", 100.0 in 30.0 to 300.0, "The end of a wrap laps its start this far, so that tape holds cushion to cushion.";
    wrap_lap "wrap_lap_mm": Length, "lap of two wrap strips", "mm", 50.0 in 20.0 to 150.0, "Strips side by side overlap this far, so that no gap opens between them.";
    clearance "clearance_mm": Length, "clearance on each side", "mm", 15.0 in 0.0 to 80.0, "A little room, filled, gives way in a fall and lets the buyer in without a knife.";
    fill_settling "fill_settling": f64, "share that fill keeps", "", 0.75 in 0.5 to 1.0, "Crumpled paper settles on the way, so more goes in than the gap is wide.";
    box_tab "box_tab_mm": Length, "joining tab of a box", "mm", 35.0 in 20.0 to 80.0, "The tab that closes the ring of a slotted box, before the board's own thickness is taken off.";
    box_slot_play "box_slot_play_mm": Length, "play in a slot", "mm", 2.0 in 1.0 to 8.0, "A slot this much wider than the board lets its flaps fold past each other.";
    box_bulge "box_bulge_mm": Length, "bulge of a filled box", "mm", 3.0 in 0.0 to 20.0, "A tape laid over a filled box reads this much more than its board adds up to.";
    seal_return "seal_return_mm": Length, "return of sealing tape", "mm", 50.0 in 20.0 to 150.0, "Sealing tape goes this far around the edge at both ends of a seam.";
    sheet_lap "sheet_lap_mm": Length, "lap of a joined blank", "mm", 40.0 in 20.0 to 120.0, "A blank larger than the sheet is split at a score and lapped this far.";
    sheet_doubt "sheet_doubt": f64, "doubt about sheet goods", "", 0.08 in 0.0 to 0.5, "Board, paper and wrap differ by this share from what the catalogue says.";
    fill_doubt "fill_doubt": f64, "doubt about fill", "", 0.20 in 0.0 to 1.0, "Nobody crumples paper the same way twice.";
    piece_doubt "piece_doubt": f64, "doubt about a piece not weighed", "", 0.20 in 0.0 to 1.0, "Wood, paint and glass differ by this share from piece to piece.";
    contact_minutes "contact_minutes": Minutes, "minutes for a contact sheet", "min", 6.0 in 0.0 to 60.0, "Cut, laid without a wrinkle, turned and taped.";
    pocket_minutes "pocket_minutes": Minutes, "minutes for one corner pocket", "min", 3.0 in 0.0 to 30.0, "Cut, scored, folded and set.";
    board_minutes "board_minutes": Minutes, "minutes for one face board", "min", 4.0 in 0.0 to 60.0, "Cut, wiped clean of dust and bound on.";
    wrap_turn_minutes "wrap_turn_minutes": Minutes, "minutes for a turn of wrap", "min", 3.0 in 0.0 to 30.0, "Cut, wound without pressure, its ends rolled in.";
    fill_minutes "fill_minutes": Minutes, "minutes for the fill", "min", 4.0 in 0.0 to 60.0, "Crumpled and set at the edges and behind.";
    box_minutes "box_minutes": Minutes, "minutes for a cut box", "min", 14.0 in 0.0 to 120.0, "Measured, cut, scored, folded and joined.";
    seal_minutes "seal_minutes": Minutes, "minutes to seal", "min", 4.0 in 0.0 to 60.0, "Every seam taped and rubbed down.";
    two_people_mass "two_people_mass_g": Mass, "one person lifts up to", "g", 20000.0 in 5000.0 to 40000.0, "Above this a parcel is lifted by two.";
    two_people_length "two_people_length_mm": Length, "one person carries up to", "mm", 1500.0 in 500.0 to 3000.0, "A longer parcel is carried by two.";
}

impl Allowances {
    /// Returns a refusal for each allowance outside its range.
    ///
    /// # Errors
    /// The list of [`Refusal`]s, when there are any.
    pub fn check(&self) -> Result<(), Vec<Refusal>> {
        let refusals: Vec<Refusal> = ALLOWANCES
            .iter()
            .zip(self.numbers())
            .filter_map(|(allowance, number)| {
                allowance
                    .check(number)
                    .err()
                    .map(|out| Refusal::new(format!("allowances.{}", allowance.key), out))
            })
            .collect();
        if refusals.is_empty() {
            Ok(())
        } else {
            Err(refusals)
        }
    }

    /// Returns what is known of the allowance of that key.
    ///
    /// # Panics
    /// When there is no such key; keys are written in this crate only.
    #[must_use]
    pub fn about(key: &str) -> &'static Allowance {
        ALLOWANCES
            .iter()
            .find(|allowance| allowance.key == key)
            .expect("an allowance is looked up by a key of the table")
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_default_lies_in_its_range_and_has_a_reason() {
        for allowance in ALLOWANCES {
            assert!(
                allowance.check(allowance.default).is_ok(),
                "{}",
                allowance.key
            );
            assert!(
                allowance.reason.ends_with('.'),
                "{} has no sentence",
                allowance.key
            );
        }
        assert_eq!(Allowances::default().check(), Ok(()));
    }

    #[test]
    fn an_allowance_out_of_range_is_named_with_its_reason() {
        let allowances = Allowances {
            clearance: Length::mm(500.0),
            ..Allowances::default()
        };
        let refused = allowances.check().expect_err("half a metre of clearance");
        assert_eq!(refused.len(), 1);
        assert_eq!(refused[0].field, "allowances.clearance_mm");
        assert!(
            refused[0].message.contains("from 0 to 80\u{a0}mm"),
            "{}",
            refused[0].message
        );
    }

    #[test]
    fn keys_are_written_as_they_are_listed() {
        let written = serde_json::to_value(Allowances::default()).expect("allowances are JSON");
        for allowance in ALLOWANCES {
            assert_eq!(
                written[allowance.key].as_f64(),
                Some(allowance.default),
                "{}",
                allowance.key
            );
        }
    }
}

//! A travel case that was built for an earlier shipment, and stands in the studio.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use super::{Catalogue, MaterialId};
use crate::{
    Refusal, Refusals,
    quantity::{Length, Mass, Minutes},
    refusal::Span,
};

/// A travel case that was built before, measured between its linings and outside, and weighed empty.
#[derive(Debug, Clone, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct KeptCase {
    /// Free between its linings, along its long side.
    #[serde(rename = "length_mm")]
    pub length: Length,
    /// Free between its linings, along its short side.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Free between its linings, from the floor to the lid.
    #[serde(rename = "depth_mm")]
    pub depth: Length,
    /// How thick its lining is.
    #[serde(rename = "lining_mm")]
    pub lining: Length,
    /// Outside, along its long side.
    #[serde(rename = "outside_length_mm")]
    pub outside_length: Length,
    /// Outside, along its short side, feet included.
    #[serde(rename = "outside_width_mm")]
    pub outside_width: Length,
    /// Outside, through both faces and their battens.
    #[serde(rename = "outside_depth_mm")]
    pub outside_depth: Length,
    /// The board of its faces.
    pub board: MaterialId,
    /// What it weighs empty, with its lid, lining and screws.
    #[serde(rename = "empty_g")]
    pub empty: Mass,
    /// How many screws hold its lid.
    pub lid_screws: u32,
    /// Whether its battens are heat-treated and stamped.
    #[serde(default)]
    pub treated: bool,
    /// What of its materials a journey bears, in the studio's money.
    #[serde(default)]
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub journey_cost: Decimal,
    /// What of the time that it took to build a journey bears.
    #[serde(rename = "journey_minutes", default)]
    pub journey_minutes: Minutes,
}

/// What each number of a case may be. Source: what a bench can build and two people can carry.
const SIDE: Span = Span::new(50.0, 4000.0, "mm");
const LINING: Span = Span::new(0.0, 150.0, "mm");
const EMPTY: Span = Span::new(100.0, 300_000.0, "g");
const SCREWS: Span = Span::new(1.0, 200.0, "screws");
const MINUTES: Span = Span::new(0.0, 1000.0, "minutes");

impl KeptCase {
    /// Returns its sides between the linings: along its long side, its short one, and deep.
    #[must_use]
    pub const fn clear(&self) -> [Length; 3] {
        [self.length, self.width, self.depth]
    }

    /// Returns its sides outside, in the same order.
    #[must_use]
    pub const fn outside(&self) -> [Length; 3] {
        [self.outside_length, self.outside_width, self.outside_depth]
    }

    /// Returns why it can't be one, field by field.
    #[must_use]
    pub fn refusals(&self, catalogue: &Catalogue) -> Vec<Refusal> {
        let mut refusals = Refusals::from(self.misfits());
        if catalogue.board(&self.board).is_err() {
            refusals.refuse("board", "choose the board of its faces from Materials");
        }
        refusals.into()
    }

    /// Returns which of its numbers can't be, whatever is in Materials.
    #[must_use]
    pub fn misfits(&self) -> Vec<Refusal> {
        let mut refusals = Refusals::default();
        let sides = [
            ("length_mm", self.length, self.outside_length),
            ("width_mm", self.width, self.outside_width),
            ("depth_mm", self.depth, self.outside_depth),
        ];
        for (field, clear, outside) in sides {
            refusals.number(field, clear.as_mm(), SIDE);
            let least = clear + self.lining * 2.0;
            let says = format!(
                "measure it outside: it can't be under {}\u{a0}mm, the room between the linings and the lining on both sides",
                least.as_mm()
            );
            refusals.demand(outside >= least, format!("outside_{field}"), says);
            refusals.number(format!("outside_{field}"), outside.as_mm(), SIDE);
        }
        refusals.number("lining_mm", self.lining.as_mm(), LINING);
        refusals.number("empty_g", self.empty.as_g(), EMPTY);
        refusals.number("lid_screws", f64::from(self.lid_screws), SCREWS);
        refusals.number("journey_minutes", self.journey_minutes.as_min(), MINUTES);
        let costs = self.journey_cost >= Decimal::ZERO;
        refusals.demand(costs, "journey_cost", "give 0 or more");
        refusals.into()
    }
}

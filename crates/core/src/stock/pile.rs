//! A carton kept from an earlier delivery.

use serde::{Deserialize, Serialize};

use crate::{
    Refusal, Refusals,
    carton::{BoxSize, SavedCarton},
    house::Allowances,
    material::{Catalogue, MaterialId},
    quantity::Length,
    space::Opens,
    text::refused_text,
};

/// A carton of the pile, slotted; measured inside.
#[derive(Debug, Clone, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PileCarton {
    /// Inside, along its opening.
    #[serde(rename = "length_mm")]
    pub length: Length,
    /// Inside, across its opening.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Inside, how deep it is.
    #[serde(rename = "depth_mm")]
    pub depth: Length,
    /// On which side it opens, by the art that would lie in it.
    #[serde(default)]
    pub opens: Opens,
    /// The board of the stores that is most like its own.
    pub board: MaterialId,
    /// How it came through its first journey.
    #[serde(default)]
    pub condition: Condition,
    /// What stands on it.
    #[serde(default)]
    pub markings: Markings,
    /// Where it comes from.
    #[serde(default)]
    pub origin: Origin,
    /// The carrier that it belongs to; empty for anybody's.
    #[serde(default)]
    pub carrier: String,
}

/// How a carton came through its first journey.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema), schema(as = CartonCondition))]
#[serde(rename_all = "snake_case")]
pub enum Condition {
    /// It stands and closes as when it was new.
    #[default]
    Sound,
    /// A corner or an edge is crushed: no box, but raw card.
    CrushedCorner,
    /// It was wet: no box, but what is dry and stiff is raw card.
    WasWet,
}

/// What stands on a carton.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Markings {
    /// Nothing.
    #[default]
    Plain,
    /// Labels or marks that are covered.
    Labels,
    /// Print all over: it is turned inside out.
    Printed,
}

/// Where a carton comes from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Origin {
    /// Something came to the studio in it.
    #[default]
    Delivery,
    /// Somebody gave it.
    Given,
    /// It was found, and its owner was asked.
    Found,
}

/// A panel of a carton that was opened, without its creases.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct RawPanel {
    /// The name of the panel.
    pub name: &'static str,
    /// Across the flutes.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Along them.
    #[serde(rename = "height_mm")]
    pub height: Length,
    /// Whether the house would keep it.
    pub worth_keeping: bool,
}

const LONGEST_SIDE: Length = Length::mm(3000.0);
const SHORTEST_SIDE: Length = Length::mm(20.0);

impl PileCarton {
    /// Returns why it can't be one, field by field.
    pub(super) fn refusals(&self, catalogue: &Catalogue) -> Vec<Refusal> {
        let sides = [
            ("length_mm", self.length),
            ("width_mm", self.width),
            ("depth_mm", self.depth),
        ];
        let mut refusals: Refusals = sides
            .into_iter()
            .filter(|(_, side)| !(SHORTEST_SIDE..=LONGEST_SIDE).contains(side))
            .map(|(field, _)| {
                let says = format!(
                    "measure it inside: {} to {} mm",
                    SHORTEST_SIDE.as_mm(),
                    LONGEST_SIDE.as_mm()
                );
                Refusal::new(field, says)
            })
            .collect();
        if catalogue.folding_board(&self.board).is_err() {
            refusals.refuse(
                "board",
                "choose a folding board from Materials, the one most like the carton's",
            );
        }
        refusals.extend(refused_text("carrier", &self.carrier));
        refusals.into()
    }

    /// Returns it as a carton that a box can be made of; the longer of its two sides lies along its opening.
    ///
    /// # Errors
    /// Nothing where its board is not in the stores any more.
    #[must_use]
    pub fn carton(&self, catalogue: &Catalogue) -> Option<SavedCarton> {
        let board = catalogue.folding_board(&self.board).ok()?;
        Some(SavedCarton(BoxSize {
            length: self.length.max(self.width),
            width: self.length.min(self.width),
            height: self.depth,
            caliper: board.caliper,
        }))
    }

    /// Returns why it is no box any more; `None` if it is one.
    #[must_use]
    pub const fn spoilt(&self) -> Option<&'static str> {
        match self.condition {
            Condition::Sound => None,
            Condition::CrushedCorner => {
                Some("a crushed corner: cut the carton open and keep it as raw card")
            }
            Condition::WasWet => Some(
                "a wet carton has lost its strength: open it, and keep the panels that are dry and stiff",
            ),
        }
    }

    /// Returns its panels as raw card, each without its creases and the crushed board beside them: one board's thickness on
    /// every side. Source: house rule.
    #[must_use]
    pub fn opened(&self, catalogue: &Catalogue, allowances: &Allowances) -> Vec<RawPanel> {
        let Some(carton) = self.carton(catalogue) else {
            return Vec::new();
        };
        let less = carton.0.caliper * 2.0;
        let blank = carton.blank(allowances);
        blank
            .panels
            .iter()
            .map(|panel| {
                let span = |of: fn(&crate::carton::Point) -> Length| {
                    let low = panel.outline.iter().map(of).min().unwrap_or_default();
                    let high = panel.outline.iter().map(of).max().unwrap_or_default();
                    (high - low - less).max(Length::ZERO)
                };
                let (width, height) = (span(|point| point.x), span(|point| point.y));
                RawPanel {
                    name: panel.name,
                    width,
                    height,
                    worth_keeping: allowances.is_offcut(width, height),
                }
            })
            .collect()
    }
}

//! The box of a plan, made in its other styles, without a plan around each.

use super::{CarriedHow, Plan, tally::labour_of};
use crate::{
    Refusal,
    container::Carton,
    house::{CartonStyle, HouseRules},
    layer::{Layer, Pack, Supplies, boxed},
    material::Catalogue,
    piece::Piece,
    quantity::{Mass, Money},
    space::{Direction, Envelope, LayerSlot},
};

/// What a box in another style would come to, less what the box of the plan does.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct OtherBox {
    pub style: CartonStyle,
    /// Materials and work.
    pub cost: Money,
    /// What a tape would read around the whole parcel.
    pub outside: Envelope,
    /// Of the whole parcel.
    pub mass: Mass,
}

impl Plan {
    /// Returns the box in every other style that its board takes, that fits its size and that its sheets give; `None`
    /// if the plan's box is not the usual one of its board.
    ///
    /// # Errors
    /// As [`Plan::design`].
    pub(crate) fn other_boxes(
        &self,
        piece: &Piece,
        rules: &HouseRules,
        catalogue: &Catalogue,
    ) -> Result<Vec<OtherBox>, Refusal> {
        let Some((held, layer, carton)) = self.box_with_what_it_holds() else {
            return Ok(Vec::new());
        };
        let mut supplies = Supplies::find(piece, rules, catalogue)?;
        if let Some(by) = self.strength.as_ref().and_then(|one| one.by.as_ref())
            && by.how != CarriedHow::Outer
        {
            supplies.first.doubled = by.how == CarriedHow::Doubled;
            if let Ok(board) = catalogue.board(&by.board) {
                supplies.first.board = board;
            }
        }
        if carton.style != CartonStyle::usual_of(supplies.first.board) {
            return Ok(Vec::new());
        }
        let long_way = if carton.inside_length == held.up {
            Direction::Up
        } else {
            Direction::Across
        };
        let made = |style| {
            let pack = Pack {
                style: Some(style),
                ..supplies.first
            };
            boxed(&supplies, &pack, (long_way, held))
        };
        let now = made(carton.style);
        // Two people carry a heavy one, in any style.
        let hands = layer.minutes / now.minutes;
        let labour = |layer: &Layer| labour_of(layer.minutes * hands, &rules.allowances);
        let others = CartonStyle::ALL.into_iter().filter(|style| {
            *style != carton.style
                && style.takes(supplies.first.board)
                && style.unfit(carton.size()).is_none()
        });
        Ok(others
            .map(|style| (style, made(style)))
            .filter(|(_, other)| other.make.carton().is_some_and(Carton::can_be_cut))
            .map(|(style, other)| OtherBox {
                style,
                cost: Money::new(
                    other.cost.amount - now.cost.amount + labour(&other) - labour(&now),
                    &now.cost.currency,
                ),
                outside: self.tally.outside.shifted(now.envelope, other.envelope),
                mass: self.tally.weight.mass + other.weight.mass - now.weight.mass,
            })
            .collect())
    }

    fn box_with_what_it_holds(&self) -> Option<(Envelope, &Layer, &Carton)> {
        let at = self
            .layers
            .iter()
            .position(|layer| layer.slot == LayerSlot::Box)?;
        let carton = self.layers[at].make.carton()?;
        let held = self.layers[at.checked_sub(1)?].envelope;
        Some((held, &self.layers[at], carton))
    }
}

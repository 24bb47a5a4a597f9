//! Bought corners that slip on.

use serde::Serialize;

use super::{Cushioning, Layer, Make, Making, Sides, Supplies};
use crate::{
    Refusal,
    part::{Need, StripId},
    quantity::Length,
    space::{Addition, Envelope, LayerSlot},
};

/// Bought corners on a piece.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SlipOns {
    /// One a corner, or a bearing point.
    pub count: u32,
    /// Along each edge.
    #[serde(rename = "leg_mm")]
    pub leg: Length,
    /// The thinnest that they hold.
    #[serde(rename = "depth_from_mm")]
    pub depth_from: Length,
    /// The thickest that goes in.
    #[serde(rename = "depth_to_mm")]
    pub depth_to: Length,
    /// What is to go in.
    #[serde(rename = "depth_mm")]
    pub depth: Length,
    /// Whether it does.
    pub fits: bool,
}

impl SlipOns {
    pub(crate) fn layer(
        supplies: &Supplies<'_>,
        count: u32,
        inside: Envelope,
    ) -> Result<Layer, Refusal> {
        let corner = supplies.slip_on_corner_for(inside.through)?;
        let allowances = supplies.allowances();
        let corners = Self {
            count,
            leg: corner.leg,
            depth_from: corner.depth_from,
            depth_to: corner.depth_to,
            depth: inside.through,
            fits: corner.fits(inside.through),
        };
        let wall = corner.wall;
        Ok(supplies.layer(Making {
            slot: LayerSlot::Corners,
            needs: vec![
                Need::slip_on(corner).times(count),
                Need::tape(
                    supplies.card_tape,
                    StripId::FromCornerToCorner,
                    allowances.tape_tab,
                )
                .times(2 * count),
            ],
            adds: Addition::new(wall, wall, wall, wall),
            inside,
            minutes: allowances.tag_minutes * f64::from(count),
            why: "Corners break first; a bought corner of the right depth is set in a moment.",
            make: Make::SlipOns(corners),
            cushioning: Some(Cushioning::of_board(Sides {
                across: wall,
                up: wall,
                ..Sides::default()
            })),
        }))
    }
}

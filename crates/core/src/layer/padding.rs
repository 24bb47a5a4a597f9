//! Flat sheets behind, in a box that is too deep.

use serde::Serialize;

use super::bought::left_to_fill;
use super::kind::{Kind, Nature, Offer, Offering, Standing, from_shelf};
use super::{Layer, Make, Making, Sides, Supplies};
use crate::{
    Refusal,
    container::WayIn,
    part::{Need, PartId, StripId},
    quantity::{Length, floor_count},
    space::{Addition, Envelope, LayerSlot},
};

/// Sheets laid flat behind the piece.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PaddingSheets {
    /// How many.
    pub count: u32,
    /// Of one.
    #[serde(rename = "thickness_mm")]
    pub thickness: Length,
    /// Across.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Up.
    #[serde(rename = "height_mm")]
    pub height: Length,
    /// Behind, that they go into.
    #[serde(rename = "gap_mm")]
    pub gap: Length,
}

/// They slide in with the piece, held at their four sides.
const STRIPS: u32 = 4;
const TABS_A_STRIP: f64 = 2.0;

/// Flat sheets behind.
pub(super) const KIND: Kind = Kind::new(
    Nature::PLAIN,
    |asked| asked.boxed(|| Standing::Off),
    |around| {
        let supplies = around.supplies;
        let gap = match supplies.bought()? {
            Some(bought) => left_to_fill(around, bought, Addition::default())?.back,
            None => supplies.allowances().depth_clearance,
        };
        let inside = around.inside();
        let filled = inside.grown(Addition {
            back: gap,
            ..Addition::default()
        });
        let slides = matches!(
            around.way_into(&supplies.first, filled)?,
            WayIn::Edge | WayIn::ShortEdge | WayIn::Halves
        );
        PaddingSheets::layer(supplies, (gap, slides), inside)
    },
)
.or(swaps);

fn swaps(offering: &Offering<'_>) -> Vec<Offer> {
    let shelf = offering.catalogue;
    from_shelf!(shelf.foams, padding_sheet)
        .chain(from_shelf!(shelf.cushion_wraps, padding_sheet))
        .chain(from_shelf!(shelf.boards, padding_sheet))
        .collect()
}

impl PaddingSheets {
    /// Returns as many sheets as go into a gap; the rest of it is filled. Source: house rule.
    #[must_use]
    pub fn behind(inside: Envelope, gap: Length, thickness: Length) -> Option<Self> {
        let count = floor_count(gap / thickness);
        (count > 0).then_some(Self {
            count,
            thickness,
            width: inside.across,
            height: inside.up,
            gap,
        })
    }

    fn layer(
        supplies: &Supplies<'_>,
        (gap, slides): (Length, bool),
        inside: Envelope,
    ) -> Result<Option<Layer>, Refusal> {
        let goods = supplies.sheet_goods(
            "choices.padding_sheet",
            &supplies.rules.materials.padding_sheet,
        )?;
        let allowances = supplies.allowances();
        let Some(sheets) = Self::behind(inside, gap, goods.thickness()) else {
            return Ok(None);
        };
        let behind = sheets.thickness * f64::from(sheets.count);
        let sides = Sides {
            back: behind,
            ..Sides::default()
        };
        Ok(Some(
            supplies.layer(Making {
                slot: LayerSlot::PaddingSheets,
                needs: [goods
                    .need(PartId::PaddingSheet, [sheets.width, sheets.height])
                    .times(sheets.count)]
                .into_iter()
                .chain(slides.then(|| {
                    let strip = allowances.tape_tab * TABS_A_STRIP;
                    Need::tape(supplies.wrap_tape, StripId::AtItsFourSides, strip).times(STRIPS)
                }))
                .collect(),
                adds: Addition {
                    back: behind,
                    ..Addition::default()
                },
                inside,
                minutes: allowances.padding_minutes * f64::from(sheets.count),
                why: "Flat sheets fill the spare depth, which is too small for crumpled paper.",
                make: Make::PaddingSheets(sheets),
                cushioning: goods.cushioning(sides),
            }),
        ))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn as_many_sheets_as_go_in_lie_behind() {
        // A gap of 40: one sheet of 25, thirteen of 3, none of 50.
        let [across, up, through, gap] = [500.0, 700.0, 80.0, 40.0].map(Length::mm);
        let inside = Envelope {
            across,
            up,
            through,
        };
        let count = |thick: f64| {
            PaddingSheets::behind(inside, gap, Length::mm(thick)).map(|sheets| sheets.count)
        };
        assert_eq!([25.0, 3.0, 50.0].map(count), [Some(1), Some(13), None]);
    }
}

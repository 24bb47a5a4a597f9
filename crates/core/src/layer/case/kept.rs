//! A travel case that was built before: measured between its linings, filled beside and behind with flat sheets.

use super::{CLEARANCE, LID_SCREW, LOADING, TravelCase, flat_sheets};
use crate::{
    Refusal,
    layer::{Cushioning, Layer, Make, Making, Sides, kind::Around},
    material::KeptCase,
    part::{Need, PartId},
    quantity::{Length, Mass, Minutes},
    space::{Addition, Direction, LayerSlot},
};

/// What has more room beside it at an edge goes into a smaller case. Source: house rule.
const MOST_BESIDE: Length = Length::mm(100.0);

impl TravelCase {
    /// Returns the layer of a case that was built before, around what is there.
    ///
    /// # Errors
    /// A [`Refusal`] where that has no room in it, or far too much.
    pub(super) fn kept(around: &Around<'_, '_>, case: &KeptCase) -> Result<Layer, Refusal> {
        let (supplies, inside) = (around.supplies, around.inside());
        let telling = supplies.rules.told_in;
        let refuse = |says: String| Refusal::new("choices.travel_case", says);
        let panel = supplies.board("choices.travel_case", &case.board)?;
        let foam = supplies.foam("choices.lining_foam", &supplies.rules.materials.lining_foam)?;
        let long_way = around.long_way();
        let (long, short) = match long_way {
            Direction::Up => (inside.up, inside.across),
            Direction::Across => (inside.across, inside.up),
        };
        let held = [long, short, inside.through];
        let clear = case.clear();
        let edges = [CLEARANCE * 2.0, CLEARANCE * 2.0, Length::ZERO];
        let over = [0, 1, 2].map(|way| {
            let needed = (held[way] + edges[way]).snapped_to(clear[way]);
            clear[way] - needed
        });
        if over.iter().any(|over| *over < Length::ZERO) {
            return Err(refuse(format!(
                "the case holds {} between its linings, and {} goes in with {} at each edge: take a larger one, or build one",
                telling.sides(&clear),
                telling.sides(&held),
                telling.length(CLEARANCE)
            )));
        }
        let beside = [over[0] / 2.0, over[1] / 2.0];
        if let Some(gap) = beside.into_iter().find(|gap| *gap > MOST_BESIDE) {
            return Err(refuse(format!(
                "the case leaves {} at each edge, and sheets fill {} there at most: take a smaller one, or build one",
                telling.length(gap),
                telling.length(MOST_BESIDE)
            )));
        }
        let stuff = (foam, supplies.first.board);
        let sheets = |part, gap, sides| flat_sheets(part, (gap, sides), stuff);
        // Across both ends first, then along both sides between them, then behind.
        let along = case.length - beside[0] * 2.0;
        let across = case.width - beside[1] * 2.0;
        let mut needs = vec![Need::kept_case(panel, case.empty, case.journey_cost)];
        let ends = sheets(PartId::SheetBeside, beside[0], [case.width, case.depth]);
        let sides = sheets(PartId::SheetBeside, beside[1], [along, case.depth]);
        let around_it: Vec<Need<'_>> = ends.into_iter().chain(sides).collect();
        let sheets_beside = around_it.iter().any(|need| !need.is_nothing());
        needs.extend(around_it.into_iter().map(|need| need.each(2)));
        let behind = sheets(PartId::SheetBehind, over[2], [along, across]);
        let sheets_behind = behind.iter().any(|need| !need.is_nothing());
        needs.extend(behind);
        let outside = case.outside();
        let beyond = [0, 1].map(|way| (outside[way] - held[way]) / 2.0);
        let front = (case.outside_depth - case.depth) / 2.0;
        let back = case.outside_depth - inside.through - front;
        let adds = match long_way {
            Direction::Up => Addition::new(beyond[1], beyond[0], front, back),
            Direction::Across => Addition::new(beyond[0], beyond[1], front, back),
        };
        let frame = clear.map(|side| side + case.lining * 2.0);
        Ok(supplies.layer(Making {
            slot: LayerSlot::Box,
            needs,
            adds,
            inside,
            minutes: case.journey_minutes + LOADING + LID_SCREW * f64::from(case.lid_screws),
            why: "The case stands in the studio: a journey bears its share of it, and nothing is built.",
            make: Make::TravelCase(Self {
                inside_mm: frame,
                face_mm: [case.outside_length, case.outside_width],
                caliper: panel.caliper,
                batten: ((case.outside_length - frame[0]) / 2.0).max(Length::ZERO),
                lining: case.lining,
                deeper: over[2],
                sheet_mm: [along, across],
                sheets_behind,
                sheets_beside,
                kept: true,
                treated: case.treated,
                heights_mm: vec![frame[2]],
                lengths_of_a_side: [1, 1],
                parts_of_a_face: 1,
                middle: 0,
                flat: Length::ZERO,
                battens: Vec::new(),
                stock: Vec::new(),
                least_lengths: 0,
                joints: Vec::new(),
                glue: Mass::ZERO,
                screws: case.lid_screws,
                lid_screws: case.lid_screws,
                braces: 0,
                handles: 0,
                feet: 0,
                empty: case.empty,
                journeys: supplies.allowances().case_journeys,
                build: Minutes::ZERO,
            }),
            cushioning: Some(Cushioning::covering(foam.curve, Sides::all(case.lining))),
        }))
    }
}

//! A cushion wound around, its ends rolled in.

use serde::Serialize;

use super::kind::{Around, Kind, Nature, Offer, Offering, Standing, from_shelf};
use super::{
    Cushioning, Layer, Make, Making, Sides, Supplies,
    contact::{strip_of, strips_across},
};
use crate::{
    house::{Allowances, Carriage},
    part::{Need, PartId, Run, StripId},
    quantity::{Area, Length, ceil_count},
    space::{Addition, Direction, Envelope, LayerSlot},
};

/// The room between the rolled end of an outer turn and the middle of the edge, so that the ends meet.
const ENDS_MEET: Length = Length::mm(25.0);
/// Each end of the sheet covers at least this share of what lies through.
const END_SHARE: f64 = 0.75;
/// The outer turns of n lie this many thicknesses further out, a turn.
const OUTER_THICKNESSES_A_TURN: f64 = 3.0;
/// …less the two that the first turn and the middle take.
const OUTER_THICKNESSES_LESS: f64 = 2.0;
/// The way around grows by eight thicknesses a turn: two for each of four sides.
const LONGER_EACH_TURN: f64 = 8.0;

/// One wrap, as the sheet to cut for it.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct WrapStrip {
    /// Which way it runs.
    pub direction: Direction,
    /// How many times it goes around.
    pub turns: u32,
    /// Of one turn, under light load.
    #[serde(rename = "loaded_thickness_mm")]
    pub loaded_thickness: Length,
    /// To cut off the roll, for each strip.
    #[serde(rename = "length_mm")]
    pub length: Length,
    /// Across the roll, both rolled ends included.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Strips side by side.
    pub strips: u32,
    /// Of all strips with their laps.
    #[serde(rename = "area_m2")]
    pub area: Area,
}

/// What is wound, and how.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Winding {
    /// Which way.
    pub direction: Direction,
    /// How many times around.
    pub turns: u32,
    /// Of one turn.
    pub loaded_thickness: Length,
    /// Of the roll.
    pub roll_width: Length,
}

impl WrapStrip {
    /// Returns the sheet to cut for a wrap around an envelope.
    ///
    /// Turn i, from 0, is 2·(along + through) + 8·e·(i + ½) long; the sum takes the overlap once. The
    /// sheet is across + 2·max(¾·through, through/2 + (3n − 2)·e + 25) wide, so that the outer turns'
    /// ends meet too. A narrower roll takes strips that lap. Source: packaging engineering practice.
    #[must_use]
    pub fn around(inside: Envelope, winding: Winding, allowances: &Allowances) -> Self {
        let Winding {
            direction,
            turns,
            loaded_thickness,
            roll_width,
        } = winding;
        let (along, across) = match direction {
            Direction::Up => (inside.up, inside.across),
            Direction::Across => (inside.across, inside.up),
        };
        let first = (along + inside.through) * 2.0;
        let length: Length = (0..turns)
            .map(|turn| first + loaded_thickness * (LONGER_EACH_TURN * (f64::from(turn) + 0.5)))
            .sum::<Length>()
            + allowances.wrap_overlap;
        let width = across + end_sheet(inside.through, turns, loaded_thickness) * 2.0;
        let strips = strips_across(width, roll_width, allowances.wrap_lap);
        let laps = allowances.wrap_lap * f64::from(strips - 1);
        Self {
            direction,
            turns,
            loaded_thickness,
            length,
            width,
            strips,
            area: length * (width + laps),
        }
    }

    /// Returns what it adds: its turns on the face, the back and the two edges it runs over, its rolled
    /// ends on the other two, and behind what its pressed seam takes.
    fn adds(self, rolled_ends_per_turn: f64, seam: Length) -> Addition {
        let turns = f64::from(self.turns);
        let wound = self.loaded_thickness * turns;
        let rolled = self.loaded_thickness * (turns * rolled_ends_per_turn);
        let (across, up) = match self.direction {
            Direction::Up => (rolled, wound),
            Direction::Across => (wound, rolled),
        };
        Addition::new(across, up, wound, wound + seam)
    }

    /// Returns the layer of a wrap in a direction, when it has any turns.
    pub(crate) fn layer(
        supplies: &Supplies<'_>,
        slot: LayerSlot,
        (direction, turns): (Direction, u32),
        inside: Envelope,
    ) -> Option<Layer> {
        if turns == 0 {
            return None;
        }
        let cushion = supplies.cushion_wrap;
        let allowances = supplies.allowances();
        let winding = Winding {
            direction,
            turns,
            loaded_thickness: cushion.loaded_thickness,
            roll_width: cushion.roll_width,
        };
        let strip = Self::around(inside, winding, allowances).torn_at(cushion.tear_pitch);
        let adds = strip.adds(allowances.rolled_ends_per_turn, allowances.wrap_seam);
        let wound = cushion.loaded_thickness * f64::from(turns);
        // The seam is air and tape: it takes room, and gives nothing.
        let sides = Sides {
            front: wound,
            back: wound,
            across: adds.left,
            up: adds.top,
        };
        Some(
            supplies.layer(Making {
                slot,
                needs: [
                    Need::wrap(PartId::Wrap, cushion, strip.run(allowances.wrap_lap))
                        .times(strip.strips),
                ]
                .into_iter()
                .chain(strip.taped(supplies, inside))
                .collect(),
                adds,
                inside,
                minutes: (allowances.wrap_turn_minutes
                    + allowances.wrap_turn_minutes_per_m
                        * (strip.length / f64::from(turns) + strip.width).as_m())
                    * f64::from(turns),
                why: why(slot, cushion.bubbles),
                make: Make::Wrap(strip),
                cushioning: cushion
                    .curve
                    .map(|curve| Cushioning::covering(curve, sides)),
            }),
        )
    }

    /// Returns the layer of a wrap that has no rolled ends of its own and fills what lies between others'.
    fn inset(
        supplies: &Supplies<'_>,
        winding: (Direction, u32),
        between: Envelope,
        inside: Envelope,
    ) -> Option<Layer> {
        let (direction, turns) = winding;
        let layer = Self::layer(supplies, LayerSlot::InsetWrap, winding, between)?;
        let Make::Wrap(strip) = layer.make else {
            return None;
        };
        // It is cut to what lies between, and nothing of it is rolled in.
        let cushion = supplies.cushion_wrap;
        let allowances = supplies.allowances();
        let width = match direction {
            Direction::Up => between.across,
            Direction::Across => between.up,
        };
        let strips = strips_across(width, cushion.roll_width, allowances.wrap_lap);
        let laps = allowances.wrap_lap * f64::from(strips - 1);
        let strip = Self {
            width,
            strips,
            area: strip.length * (width + laps),
            ..strip
        };
        let wound = cushion.loaded_thickness * f64::from(turns);
        let (across, up) = match direction {
            Direction::Up => (Length::ZERO, wound),
            Direction::Across => (wound, Length::ZERO),
        };
        let adds = Addition::new(across, up, wound, wound + allowances.wrap_seam);
        let sides = Sides {
            front: wound,
            back: wound,
            across,
            up,
        };
        Some(supplies.layer(Making {
            slot: LayerSlot::InsetWrap,
            needs: [
                Need::wrap(PartId::InsetWrap, cushion, strip.run(allowances.wrap_lap)).times(strips),
            ]
            .into_iter()
            .chain(strip.taped(supplies, between))
            .collect(),
            adds,
            inside,
            minutes: layer.minutes,
            why: "Rolled ends stand higher than the face between them: an inset fills the hollow so the whole face is supported.",
            make: Make::Wrap(strip),
            cushioning: cushion
                .curve
                .map(|curve| Cushioning::covering(curve, sides)),
        }))
    }

    /// Returns the layer around a roll, which is as wide as it is through and needs no rolled ends.
    pub(crate) fn around_roll(
        supplies: &Supplies<'_>,
        turns: u32,
        inside: Envelope,
    ) -> Option<Layer> {
        let winding = (Direction::Across, turns);
        let layer = Self::layer(supplies, LayerSlot::FirstWrap, winding, inside)?;
        let wound = supplies.cushion_wrap.loaded_thickness * f64::from(turns);
        let adds = Addition::new(wound, Length::ZERO, wound, wound);
        Some(Layer {
            adds,
            envelope: inside.grown(adds),
            why: "A tube passes every knock to the roll; the wrap keeps the roll off its wall.",
            ..layer
        })
    }

    /// Returns how many strips tack its seam and each rolled end, at a distance.
    fn tacks(self, inside: Envelope, allowances: &Allowances) -> [u32; 2] {
        let end = match self.direction {
            Direction::Up => inside.up,
            Direction::Across => inside.across,
        };
        [self.width, end].map(|along| ceil_count(along / allowances.wrap_tab_every).max(1))
    }

    /// Returns the tape that holds it: the seam and both rolled ends.
    fn taped<'a>(self, supplies: &Supplies<'a>, inside: Envelope) -> [Need<'a>; 2] {
        let allowances = supplies.allowances();
        let [seam, end] = self.tacks(inside, allowances);
        [
            (StripId::AlongTheSeam, seam),
            (StripId::AlongBothRolledEnds, end * 2),
        ]
        .map(|(on, count)| Need::tab(supplies.wrap_tape, on, allowances.wrap_tab).times(count))
    }

    /// Returns one strip of it, as wide as all of them are alike.
    fn run(self, lap: Length) -> Run {
        strip_of(self.strips, [self.length, self.width], lap)
    }

    /// Returns the strip as it comes off a roll that tears at a pitch: rounded up to it.
    fn torn_at(self, pitch: Option<Length>) -> Self {
        let Some(pitch) = pitch else { return self };
        let length = self.length.rounded_up_to(pitch);
        Self {
            length,
            area: Area::m2(self.area.as_m2() * (length / self.length)),
            ..self
        }
    }
}

const fn why(slot: LayerSlot, bubbles: bool) -> &'static str {
    match (slot, bubbles) {
        (LayerSlot::SecondWrap, _) => {
            "At right angles to the first, it pads the two thinner edges."
        }
        (LayerSlot::BoxWrap, _) => {
            "Between two boxes it cushions the inner one and keeps their edges apart."
        }
        (_, true) => {
            "Flat side in, bubbles out: the turns cushion the face, the rolled ends two edges."
        }
        (_, false) => "The turns cushion the face, the rolled ends two edges.",
    }
}

/// Returns how far the sheet stands past each end of the piece.
fn end_sheet(through: Length, turns: u32, loaded_thickness: Length) -> Length {
    let outer = f64::from(turns) * OUTER_THICKNESSES_A_TURN - OUTER_THICKNESSES_LESS;
    (through * END_SHARE).max(through / 2.0 + loaded_thickness * outer + ENDS_MEET)
}

/// The wrap that runs the long way, or around a roll.
pub(super) const FIRST: Kind = Kind::new(
    Nature::PLAIN.hiding().wrapping().tried(0),
    |asked| match asked.carriage {
        Carriage::Rolled | Carriage::Padded => Standing::On,
        _ => asked.boxed(|| Standing::On),
    },
    |around| {
        if let Some(fit) = around.tube_fit() {
            return Ok(WrapStrip::around_roll(
                around.supplies,
                fit.turns,
                around.inside(),
            ));
        }
        let turns = around.supplies.allowances().first_turns;
        Ok(wound(
            around,
            LayerSlot::FirstWrap,
            (around.long_way(), turns),
        ))
    },
)
.or(cushions);

/// The wrap at right angles to it.
pub(super) const SECOND: Kind = Kind::new(
    Nature::PLAIN.hiding().wrapping().tried(1),
    |asked| match asked.carriage {
        Carriage::Padded => Standing::Off,
        _ => asked.boxed(|| Standing::On),
    },
    |around| {
        let turns = around.supplies.allowances().second_turns;
        let across = around.long_way().turned();
        Ok(wound(around, LayerSlot::SecondWrap, (across, turns)))
    },
)
.or(cushions);

/// A wrap between the thick rolled ends of another.
pub(super) const INSET: Kind = Kind::new(
    Nature::PLAIN.wrapping(),
    |asked| asked.boxed(|| Standing::Off),
    |around| Ok(inset(around)),
)
.or(cushions);

/// A wrap around the inner one of two boxes, before the fill between them.
pub(super) const INNER_BOX: Kind = Kind::new(
    Nature::PLAIN,
    |asked| asked.around_inner_box(),
    |around| {
        Ok(wound(
            around,
            LayerSlot::BoxWrap,
            (around.long_way(), ONCE_AROUND_A_BOX),
        ))
    },
)
.or(cushions);

/// Around an inner box one turn lies; the fill between the boxes does the rest. Source: house rule.
const ONCE_AROUND_A_BOX: u32 = 1;

/// As many turns as the thicker of the wraps that are there, its way, as wide as what lies between its rolled ends.
fn inset(around: &Around<'_, '_>) -> Option<Layer> {
    let wraps = around.layers.iter().filter_map(|layer| match layer.make {
        Make::Wrap(strip) => Some((strip, layer.adds)),
        _ => None,
    });
    let thickest = wraps.max_by_key(|(strip, _)| strip.turns);
    let (strip, ends) = thickest?;
    let mut between = around.inside();
    match strip.direction {
        Direction::Up => between.across = between.across - ends.left - ends.right,
        Direction::Across => between.up = between.up - ends.top - ends.bottom,
    }
    WrapStrip::inset(
        around.supplies,
        (strip.direction, strip.turns),
        between,
        around.inside(),
    )
}

/// A wrap that somebody asked for has a turn, even where the school has none.
fn wound(
    around: &Around<'_, '_>,
    slot: LayerSlot,
    (direction, turns): (Direction, u32),
) -> Option<Layer> {
    let asked = around.supplies.rules.layers.get(&slot) == Some(&true);
    let winding = (direction, turns.max(u32::from(asked)));
    WrapStrip::layer(around.supplies, slot, winding, around.inside())
}

fn cushions(offering: &Offering<'_>) -> Vec<Offer> {
    from_shelf!(offering.catalogue.cushion_wraps, cushion_wrap).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    fn strip(roll: f64) -> WrapStrip {
        let [across, up, through] = [520.0, 700.0, 32.0].map(Length::mm);
        WrapStrip::around(
            Envelope {
                across,
                up,
                through,
            },
            Winding {
                direction: Direction::Up,
                turns: 2,
                loaded_thickness: Length::mm(9.0),
                roll_width: Length::mm(roll),
            },
            &Allowances::default(),
        )
    }

    #[test]
    fn two_turns_of_bubble_around_a_panel() {
        // 2 × (700 + 32) = 1464; turns 1464 + 36 = 1500 and 1464 + 108 = 1572; with overlap 3172.
        // Ends: max(24, 16 + 4 × 9 + 25 = 77); 520 + 154 = 674.
        let strip = strip(1200.0);
        assert_eq!(
            (strip.length, strip.width, strip.strips),
            (Length::mm(3172.0), Length::mm(674.0), 1)
        );
        // 3.172 × 0.674 = 2.137928
        assert!((strip.area.as_m2() - 2.137_928).abs() < 1e-12);
    }

    #[test]
    fn a_narrow_roll_takes_strips_that_lap() {
        // (674 − 50)/(500 − 50) = 1.39: two strips; 3.172 × (0.674 + 0.05) = 2.296528
        let strip = strip(500.0);
        assert_eq!(strip.strips, 2);
        assert!((strip.area.as_m2() - 2.296_528).abs() < 1e-12);
    }

    #[test]
    fn the_rolled_ends_pad_the_other_two_edges() {
        // Two turns of 9: 18 where it runs over; ends of 2 × 2 × 9 = 36; the pressed seam 2 more behind.
        let adds = strip(1200.0).adds(2.0, Length::mm(2.0));
        assert_eq!(
            (adds.top, adds.bottom),
            (Length::mm(18.0), Length::mm(18.0))
        );
        assert_eq!(
            (adds.left, adds.right),
            (Length::mm(36.0), Length::mm(36.0))
        );
        assert_eq!(
            (adds.front, adds.back),
            (Length::mm(18.0), Length::mm(20.0))
        );
    }

    #[test]
    fn a_wrap_is_tacked_along_its_seam_and_its_ends() {
        // Around 520 × 700 × 32, one turn: 520 + 2 × (16 + 9 + 25) = 620 wide: 3 strips on the seam, 3 on each end of 700.
        let inside = Envelope {
            across: Length::mm(520.0),
            up: Length::mm(700.0),
            through: Length::mm(32.0),
        };
        let winding = Winding {
            direction: Direction::Up,
            turns: 1,
            loaded_thickness: Length::mm(9.0),
            roll_width: Length::mm(1200.0),
        };
        let allowances = Allowances::default();
        let strip = WrapStrip::around(inside, winding, &allowances);
        assert_eq!(strip.tacks(inside, &allowances), [3, 3]);
    }
}

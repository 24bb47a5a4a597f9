//! Folded card corner pockets.

use serde::Serialize;

use super::cradle::{has_no_corners, held_by, is_held_away, stands_off};
use super::kind::{Around, Kind, Nature, Offer, Offering, Standing, StandingQuestion, from_shelf};
use super::{
    CornerBlocks, Cushioning, FoamCollar, Layer, Make, Making, RimStrip, Sides, SlipOns, Supplies,
};
use crate::{
    Refusal,
    carton::PocketNet,
    house::{Allowances, Choices, CornerStyle, SchoolChoices, ShapedHold},
    part::{Cut, Need, PartId, StripId},
    piece::{FrameFinish, PieceSize},
    quantity::{Area, Length},
    space::{Addition, Envelope, LayerSlot},
};

/// A back flap is trimmed by half the board and this much, so that it slides past the other wall.
const FLAP_TRIM_PLAY: Length = Length::mm(1.0);

/// A corner pocket, folded from a square of board with one quarter taken out.
///
/// Seen from the inside, the front face `leg × leg` lies in one corner of the blank, a wall beside each
/// of its two inner sides, and a back flap `leg` wide beyond each wall. The quarter beyond both walls
/// goes, but for a tab on wall A that laps outside wall B and closes the corner.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CardPocket {
    /// How far it reaches along each edge.
    #[serde(rename = "leg_mm")]
    pub leg: Length,
    /// The wall under the inner back flap.
    #[serde(rename = "wall_a_mm")]
    pub wall_a: Length,
    /// The wall under the outer back flap.
    #[serde(rename = "wall_b_mm")]
    pub wall_b: Length,
    /// The blank, along wall A: twice the leg and the wall.
    #[serde(rename = "blank_a_mm")]
    pub blank_a: Length,
    /// The blank, along wall B: twice the leg and the wall.
    #[serde(rename = "blank_b_mm")]
    pub blank_b: Length,
    /// The tab on wall A.
    #[serde(rename = "tab_mm")]
    pub tab: Length,
    /// What is trimmed off each back flap at the other wall.
    #[serde(rename = "flap_trim_mm")]
    pub flap_trim: Length,
    /// Its blank, to draw and to cut by.
    pub lines: PocketLines,
}

/// The lines of a pocket's blank, from the corner with the face, along wall A and along wall B.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PocketLines {
    /// Where the knife turns, around the blank.
    pub cut_mm: [[Length; 2]; 10],
    /// Each score from where to where.
    pub scores_mm: [[[Length; 2]; 2]; 5],
    /// Where the knife goes in, between the tab's wall and the other wall.
    pub slit_mm: [[Length; 2]; 2],
}

impl PocketLines {
    fn of([leg, wall_a, wall_b, tab, trim, board]: [Length; 6]) -> Self {
        // The tab is creased a board beyond the face, to lie outside wall B.
        let crease = leg + board;
        let (far_a, far_b) = (leg + wall_a, leg + wall_b);
        // Each back flap ends short of the other wall.
        let flap = leg - trim;
        let none = Length::ZERO;
        Self {
            cut_mm: [
                [none, none],
                [far_a + leg, none],
                [far_a + leg, flap],
                [far_a, flap],
                [far_a, crease + tab],
                [leg, crease + tab],
                [leg, far_b],
                [flap, far_b],
                [flap, far_b + leg],
                [none, far_b + leg],
            ],
            scores_mm: [
                [[leg, none], [leg, leg]],
                [[far_a, none], [far_a, flap]],
                [[none, leg], [leg, leg]],
                [[none, far_b], [flap, far_b]],
                [[leg, crease], [far_a, crease]],
            ],
            slit_mm: [[leg, leg], [leg, crease + tab]],
        }
    }
}

/// How many corners a rectangle has.
const CORNERS: u32 = 4;
/// How far a strip of tape reaches onto a pocket.
const ONTO_POCKET: Length = Length::mm(30.0);

impl CardPocket {
    /// Returns the leg that the house gives a pocket on a short side, never past the middle of the side.
    #[must_use]
    pub fn leg_for(short_side: Length, allowances: &Allowances) -> Length {
        (short_side / allowances.pocket_leg_share)
            .clamped(allowances.pocket_leg_least, allowances.pocket_leg_most)
            .min(short_side / 2.0)
    }

    /// Returns the pocket for a depth, folded from a board, with the play that lets it go on.
    ///
    /// Wall A is depth + board + play, wall B a board more, for the flap that it passes over. Source:
    /// house rule.
    ///
    /// ```
    /// use hummock_core::{layer::CardPocket, quantity::Length};
    ///
    /// let [leg, depth, board, play] = [65.0, 24.0, 4.0, 1.0].map(Length::mm);
    /// let pocket = CardPocket::fold(leg, depth, board, play);
    /// assert_eq!((pocket.blank_a, pocket.blank_b), (Length::mm(159.0), Length::mm(163.0)));
    /// ```
    #[must_use]
    pub fn fold(leg: Length, depth: Length, board: Length, play: Length) -> Self {
        let wall_a = depth + board + play;
        let wall_b = wall_a + board;
        let tab = leg.min(wall_a);
        let flap_trim = board / 2.0 + FLAP_TRIM_PLAY;
        Self {
            leg,
            wall_a,
            wall_b,
            blank_a: leg * 2.0 + wall_a,
            blank_b: leg * 2.0 + wall_b,
            tab,
            flap_trim,
            lines: PocketLines::of([leg, wall_a, wall_b, tab, flap_trim, board]),
        }
    }

    /// Returns it as a net, which is folded again to see that it closes.
    #[must_use]
    pub fn net(self) -> PocketNet {
        PocketNet {
            leg: self.leg,
            wall_a: self.wall_a,
            wall_b: self.wall_b,
            tab: self.tab,
            flap_trim: self.flap_trim,
            caliper: self.wall_b - self.wall_a,
        }
    }

    /// Returns the area of one pocket's board: the face, two walls, two trimmed flaps and the tab, which is creased
    /// a board beyond the face.
    #[must_use]
    pub fn area(self) -> Area {
        let flap = self.leg * (self.leg - self.flap_trim).max(Length::ZERO);
        let board = self.wall_b - self.wall_a;
        self.leg * self.leg
            + self.leg * (self.wall_a + self.wall_b)
            + flap * 2.0
            + (self.tab + board) * self.wall_a
    }

    /// Returns the tape that holds four pockets to each other across the back, as how long a strip is and how many: along each of the
    /// four edges the gap between two, and 30 onto each. Source: house rule.
    #[must_use]
    pub fn tape_between(self, size: PieceSize) -> [(Length, u32); 2] {
        [size.width, size.height].map(|side| (self.strip_along(side), 2))
    }

    /// Returns one strip between two pockets of an edge.
    #[must_use]
    pub fn strip_along(self, side: Length) -> Length {
        (side - self.leg * 2.0).max(Length::ZERO) + ONTO_POCKET * 2.0
    }

    /// Returns what four pockets add: one board in front, two and the play behind, one beside the long
    /// sides and two beside the short sides, where the tabs lap.
    fn adds(size: PieceSize, board: Length, play: Length) -> Addition {
        let (across, up) = if size.width <= size.height {
            (board, board * 2.0)
        } else {
            (board * 2.0, board)
        };
        Addition::new(across, up, board, board * 2.0 + play)
    }

    /// Returns the layer of a pocket on each corner.
    pub(crate) fn layer(
        supplies: &Supplies<'_>,
        size: PieceSize,
        inside: Envelope,
    ) -> Result<Layer, Refusal> {
        let board = supplies.pocket_board()?;
        let allowances = supplies.allowances();
        let house_leg = Self::leg_for(size.short_side(), allowances);
        let leg = supplies.rules.shipment.pocket_leg.unwrap_or(house_leg);
        let pocket = Self::fold(leg, inside.through, board.caliper, allowances.pocket_play);
        let each = f64::from(CORNERS);
        let cut = Cut::of([pocket.blank_a, pocket.blank_b]).staying(pocket.area());
        let adds = Self::adds(size, board.caliper, allowances.pocket_play);
        let sides = Sides {
            across: adds.left,
            up: adds.top,
            ..Sides::default()
        };
        Ok(supplies.layer(Making {
            slot: LayerSlot::Corners,
            needs: vec![Need::board(PartId::CornerPocket, board, cut).times(CORNERS)]
                .into_iter()
                .chain(pocket.tape_between(size).map(|(length, strips)| {
                    Need::tape(supplies.card_tape, StripId::FromPocketToPocket, length)
                        .times(strips)
                }))
                .collect(),
            adds,
            inside,
            minutes: (allowances.pocket_minutes + allowances.pocket_minutes_per_m * leg.as_m())
                * each,
            why: "Corners break first; a pocket folded to the piece's depth can't slide off.",
            make: Make::CardPockets(pocket),
            cushioning: Some(Cushioning::of_board(sides)),
        }))
    }
}

/// Something around each corner.
pub(super) const KIND: Kind = Kind::new(
    Nature::PLAIN
        .tried(3)
        .left_out(super::kind::Family::Corners, "Without corner protectors"),
    stands,
    around_each,
)
.or(swaps)
.added_by_swaps();

fn stands(asked: &StandingQuestion<'_>) -> Standing {
    asked.flat(|| {
        if has_no_corners(asked.piece) {
            match asked.rules.schools.shaped {
                ShapedHold::Cradle => {
                    Standing::Never("it has no corners: chocks on a cradle board hold it")
                }
                ShapedHold::Rim => Standing::On,
            }
        } else if asked.piece.frame_finish().is_left_free() && !asked.piece.needs_spacer() {
            Standing::Must("nothing may rub on this frame: foam keeps boards, tape and wrap off it")
        } else {
            Standing::On
        }
    })
}

fn around_each(around: &Around<'_, '_>) -> Result<Option<Layer>, Refusal> {
    let (supplies, inside) = (around.supplies, around.inside());
    if has_no_corners(around.piece) {
        return RimStrip::layer(around).map(Some);
    }
    let style = || supplies.corner_style_for(inside.through);
    // Bars beside the piece hold everything off its frame, too.
    let finish = if around.is_held_off() {
        FrameFinish::Plain
    } else {
        around.piece.frame_finish()
    };
    match finish {
        FrameFinish::Plain | FrameFinish::Old => match style()? {
            CornerStyle::CardPockets => CardPocket::layer(supplies, around.body(), inside),
            CornerStyle::SlipOn => SlipOns::layer(supplies, CORNERS, inside),
        },
        // Blocks leave the sides free, and so can't hold a board far off the face.
        FrameFinish::Ornate if !is_held_away(around.piece) => {
            let body = (around.body(), around.bearing_depth());
            CornerBlocks::behind_corners(supplies, body, inside)
        }
        FrameFinish::Delicate | FrameFinish::Ornate => FoamCollar::layer(
            supplies,
            stands_off(around.piece, supplies.allowances()),
            inside,
        ),
    }
    .map(Some)
}

fn swaps(offering: &Offering<'_>) -> Vec<Offer> {
    if has_no_corners(offering.piece) {
        return from_shelf!(offering.catalogue.foams, pad_foam)
            .chain([held_by("Chocks on a cradle board", ShapedHold::Cradle)])
            .collect();
    }
    if offering.piece.frame_finish().is_left_free() && !offering.piece.needs_spacer() {
        return from_shelf!(offering.catalogue.foams, pad_foam).collect();
    }
    let style = |corners| SchoolChoices {
        corners: Some(corners),
        ..SchoolChoices::default()
    };
    let boards = offering
        .catalogue
        .boards
        .iter()
        .filter(|board| board.folds && !board.shelf.retired)
        .map(|board| {
            let choices = Choices {
                pocket_board: Some(board.id.clone()),
                schools: style(CornerStyle::CardPockets),
                layers: [(LayerSlot::Corners, true)].into(),
                ..Choices::default()
            };
            (format!("Pockets of {}", board.name), choices)
        });
    let bought = from_shelf!(
        offering.catalogue.slip_on_corners,
        slip_on_corner,
        schools: style(CornerStyle::SlipOn),
        layers: [(LayerSlot::Corners, true)].into()
    );
    boards.chain(bought).collect()
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    #[test]
    fn pockets_are_held_to_each_other_along_the_back() {
        // 600 × 800, leg 75: two of 450 + 2 × 30, two of 650 + 2 × 30, 2440 in all.
        let [leg, depth, board] = [75.0, 40.0, 4.0].map(Length::mm);
        let pocket = CardPocket::fold(leg, depth, board, Length::mm(1.0));
        let size = PieceSize {
            width: Length::mm(600.0),
            height: Length::mm(800.0),
            depth,
        };
        assert_eq!(
            pocket.tape_between(size),
            [(Length::mm(510.0), 2), (Length::mm(710.0), 2)]
        );
    }

    proptest! {
        #[test]
        fn the_blank_that_is_cut_has_the_area_that_is_weighed(
            leg in 5.0..200.0, depth in 1.0..300.0, board in 0.3..8.0, play in 0.0..5.0,
        ) {
            let [leg, depth, board, play] = [leg, depth, board, play].map(Length::mm);
            let pocket = CardPocket::fold(leg, depth, board, play);
            prop_assume!(pocket.flap_trim < leg);
            // Twice the area within a line around it is the sum of x·y' − x'·y.
            let cut = pocket.lines.cut_mm.map(|[along, up]| (along.as_mm(), up.as_mm()));
            let next = cut.iter().cycle().skip(1);
            let twice: f64 = cut.iter().zip(next).map(|((x, y), (x2, y2))| x * y2 - x2 * y).sum();
            prop_assert!((twice / 2.0 / 1e6 - pocket.area().as_m2()).abs() < 1e-9);
            // Its sides are the blank's.
            let far = |pick: fn(&(f64, f64)) -> f64| cut.iter().map(pick).fold(0.0, f64::max);
            prop_assert!((far(|at| at.0) - pocket.blank_a.as_mm()).abs() < 1e-9);
            prop_assert!((far(|at| at.1) - pocket.blank_b.as_mm()).abs() < 1e-9);
        }
    }

    #[test]
    fn a_pocket_is_folded_to_depth_and_board() {
        // Short side 520: 520 / 8 = 65. Walls 24 + 4 + 1 = 29 and 24 + 8 + 1 = 33.
        // Blank 130 + 29 = 159 by 130 + 33 = 163.
        let leg = CardPocket::leg_for(Length::mm(520.0), &Allowances::default());
        let pocket = CardPocket::fold(leg, Length::mm(24.0), Length::mm(4.0), Length::mm(1.0));
        assert_eq!(pocket.leg, Length::mm(65.0));
        assert_eq!(
            (pocket.wall_a, pocket.wall_b),
            (Length::mm(29.0), Length::mm(33.0))
        );
        assert_eq!(
            (pocket.blank_a, pocket.blank_b),
            (Length::mm(159.0), Length::mm(163.0))
        );
        assert_eq!(
            (pocket.tab, pocket.flap_trim),
            (Length::mm(29.0), Length::mm(3.0))
        );
        // 65² = 4225; 65 × 62 = 4030; two flaps 65 × 62 = 8060; tab 29 × (29 + 4) = 957: 17 272 mm²
        assert!((pocket.area().as_m2() - 0.017_272).abs() < 1e-12);
    }

    #[test]
    fn a_leg_is_held_between_its_bounds_and_never_meets_its_neighbour() {
        for (short_side, leg) in [(200.0, 40.0), (520.0, 65.0), (1200.0, 120.0), (60.0, 30.0)] {
            let found = CardPocket::leg_for(Length::mm(short_side), &Allowances::default());
            assert_eq!(found, Length::mm(leg), "{short_side}");
        }
    }

    #[test]
    fn tabs_stand_on_the_short_sides() {
        let size = |width, height| PieceSize {
            width: Length::mm(width),
            height: Length::mm(height),
            depth: Length::mm(24.0),
        };
        let board = Length::mm(4.0);
        let portrait = CardPocket::adds(size(380.0, 520.0), board, Length::mm(1.0));
        assert_eq!((portrait.left, portrait.top), (board, board * 2.0));
        let landscape = CardPocket::adds(size(520.0, 380.0), board, Length::mm(1.0));
        assert_eq!((landscape.left, landscape.top), (board * 2.0, board));
        assert_eq!((portrait.front, portrait.back), (board, Length::mm(9.0)));
    }
}

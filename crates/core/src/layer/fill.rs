//! Fill in the gaps between what lies in a box and the box, share by share, each laid while a hand reaches its gap.

use serde::Serialize;

use super::bought::left_to_fill;
use super::kind::{Around, Kind, Nature, Standing, from_shelf};
use super::{Cushioning, Layer, Make, Making, PackOf, Sides, Supplies};
use crate::{
    container::WayIn,
    house::Carriage,
    part::{Need, PartId, StripId},
    quantity::{Length, Volume, ceil_count},
    space::{Addition, BoxSide, Direction, Envelope, LayerSlot},
};

/// The fill between what lies in a box and the box.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct EdgeFill {
    /// Room left on each edge.
    #[serde(rename = "clearance_mm")]
    pub clearance: Length,
    /// Room behind, all of it there, since nothing is pressed against the face.
    #[serde(rename = "behind_mm")]
    pub behind: Length,
    /// The gaps to fill.
    #[serde(rename = "gap_m3")]
    pub gap: Volume,
    /// What goes in, loose, before it settles.
    #[serde(rename = "loose_m3")]
    pub loose: Volume,
    /// The same in whole litres, rounded up, as it is poured.
    pub loose_litres: u32,
    /// How many, where it comes by the piece.
    pub pieces: Option<u32>,
    /// How what lies in the box gets in, which says when each gap is filled.
    pub way_in: WayIn,
    /// Each gap with its share, in the order in which they are filled.
    pub places: Vec<FillPlace>,
    /// Tape that holds pads where loose fill would drop down.
    pub pad_tape: Vec<PadTape>,
}

/// When a share of the fill is laid.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum FillTurn {
    /// Into the empty box.
    Before,
    /// Fixed to what goes in, before it does.
    OnPiece,
    /// Once it is in.
    After,
}

/// A gap of a box, as it stands or lies while it is packed.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum FillGap {
    /// Under the edge that it stands on.
    Floor,
    /// Beside both edges that stand up.
    Walls,
    /// Along all four edges.
    Edges,
    /// Before the face.
    Front,
    /// Behind the back.
    Behind,
    /// Over the edge that is up.
    Top,
    /// All round a roll.
    Around,
}

/// One gap with its share of the fill.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FillPlace {
    /// Where.
    pub gap: FillGap,
    /// When.
    pub turn: FillTurn,
    /// How wide the gap is.
    #[serde(rename = "gap_mm")]
    pub wide: Length,
    /// How thick the fill lies before it settles.
    #[serde(rename = "loose_mm")]
    pub thick: Length,
    /// What goes in there, loose, in whole litres, rounded up.
    pub loose_litres: u32,
    /// How many, where it comes by the piece.
    pub pieces: Option<u32>,
    /// What goes in there, loose.
    #[serde(skip)]
    pub(crate) loose: Volume,
    /// How wide the gap is between corner blocks; where there are none, as wide as it is.
    #[serde(skip)]
    pub(crate) between: Length,
}

/// Strips that hold a pad of fill.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PadTape {
    /// When they are stuck.
    pub turn: FillTurn,
    /// What they hold.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub on: StripId,
    /// How many.
    pub count: u32,
    /// How long each is torn.
    #[serde(rename = "length_mm")]
    pub length: Length,
}

/// What is to be filled, and how the box around it is entered.
struct Gaps {
    inside: Envelope,
    adds: Addition,
    hollow: Hollow,
    way_in: WayIn,
    long_way: Direction,
}

/// What corner blocks leave open between them along the four edges.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
struct Hollow {
    room: Volume,
    wide: Length,
}

/// A gap on one or two sides of a box.
struct Gap {
    turn: FillTurn,
    of: FillGap,
    wide: Length,
    between: Length,
    room: Volume,
}

impl FillTurn {
    /// Every turn, in the order of the work.
    pub const ALL: [Self; 3] = [Self::Before, Self::OnPiece, Self::After];

    /// Returns what its share is called among the parts of a layer.
    #[must_use]
    pub const fn part(self) -> PartId {
        match self {
            Self::Before => PartId::FillToLayFirst,
            Self::OnPiece => PartId::FillForPads,
            Self::After => PartId::Fill,
        }
    }
}

impl Gaps {
    fn wide(&self, side: BoxSide) -> Length {
        match side {
            BoxSide::Front => self.adds.front,
            BoxSide::Back => self.adds.back,
            BoxSide::Left => self.adds.left,
            BoxSide::Right => self.adds.right,
            BoxSide::Top => self.adds.top,
            BoxSide::Bottom => self.adds.bottom,
        }
    }

    /// The room on a side: front and back reach over the whole face of the box, left and right from its lower to its upper wall.
    fn room(&self, side: BoxSide) -> Volume {
        let Envelope { across, up, .. } = self.inside.grown(self.adds);
        let through = self.inside.through;
        let wide = self.wide(side);
        let edge = |length: Length, share: Length| {
            let around = (self.inside.across + self.inside.up) * 2.0;
            length * through * wide + self.hollow.room * (share / around)
        };
        match side {
            BoxSide::Front | BoxSide::Back => across * up * wide,
            BoxSide::Left | BoxSide::Right => edge(up, self.inside.up),
            BoxSide::Top | BoxSide::Bottom => edge(self.inside.across, self.inside.across),
        }
    }

    /// When a gap is filled: after what lies in the box where a hand still reaches it, else before; what would be pushed along as the
    /// piece slides in, or has no wall to lie against, is fixed to the piece. No hand tapes a pad to the wall of a box that is deeper
    /// than an arm or thinner than a hand. Source: bench practice.
    fn turn(&self, side: BoxSide) -> FillTurn {
        let floor = self.way_in.opening(self.long_way).opposite();
        let slides = matches!(self.way_in, WayIn::Edge | WayIn::ShortEdge | WayIn::Halves);
        if self.way_in.reaches(side, self.long_way) {
            FillTurn::After
        } else if slides && side != floor || !self.way_in.has_walls() {
            FillTurn::OnPiece
        } else {
            FillTurn::Before
        }
    }

    /// What a side is called while the box stands or lies open.
    fn gap(&self, side: BoxSide) -> FillGap {
        let opening = self.way_in.opening(self.long_way);
        match (self.way_in, side) {
            (WayIn::End, _) => FillGap::Around,
            (_, BoxSide::Front) => FillGap::Front,
            (_, BoxSide::Back) => FillGap::Behind,
            (WayIn::Face | WayIn::Blank, _) => FillGap::Edges,
            (WayIn::Edge | WayIn::ShortEdge | WayIn::Halves, side) if side == opening => {
                FillGap::Top
            }
            (WayIn::Edge | WayIn::ShortEdge | WayIn::Halves, side)
                if side == opening.opposite() =>
            {
                FillGap::Floor
            }
            (WayIn::Edge | WayIn::ShortEdge | WayIn::Halves, _) => FillGap::Walls,
        }
    }

    /// How wide a side is where no corner block stands.
    fn between(&self, side: BoxSide) -> Length {
        match side {
            BoxSide::Front | BoxSide::Back => self.wide(side),
            BoxSide::Left | BoxSide::Right | BoxSide::Top | BoxSide::Bottom => {
                self.wide(side) + self.hollow.wide
            }
        }
    }

    /// Each gap with its room, in the order in which they are filled.
    fn each(&self) -> Vec<Gap> {
        let mut found: Vec<Gap> = Vec::new();
        for side in BoxSide::ALL {
            let (turn, of) = (self.turn(side), self.gap(side));
            let (wide, between, room) = (self.wide(side), self.between(side), self.room(side));
            if room == Volume::ZERO {
                continue;
            }
            match found
                .iter_mut()
                .find(|gap| (gap.turn, gap.of) == (turn, of))
            {
                Some(gap) => {
                    gap.wide = wide.max(gap.wide);
                    gap.between = between.max(gap.between);
                    gap.room += room;
                }
                None => found.push(Gap {
                    turn,
                    of,
                    wide,
                    between,
                    room,
                }),
            }
        }
        found.sort_by_key(|gap| (gap.turn, gap.of));
        found
    }
}

/// A pad as large as a face is held at its four sides, one beside an edge at both its ends.
const STRIPS_A_FACE: u32 = 4;
const STRIPS_BESIDE: u32 = 4;
/// As much of a strip lies on the pad as beside it.
const TABS_A_STRIP: f64 = 2.0;

impl EdgeFill {
    /// Returns the fill of some gaps, of a stuff that keeps a share of its volume.
    ///
    /// Loose fill = gap ÷ the share that it keeps; what comes by the piece keeps its shape and goes in as it is. Source: house rule.
    fn of(gaps: &Gaps, keeps: f64, each_litres: Option<f64>, tab: Length) -> Self {
        let keeps = if each_litres.is_some() { 1.0 } else { keeps };
        let places: Vec<FillPlace> = gaps
            .each()
            .into_iter()
            .map(|gap| FillPlace {
                gap: gap.of,
                turn: gap.turn,
                wide: gap.wide,
                thick: gap.wide / keeps,
                loose_litres: litres(gap.room / keeps),
                pieces: each_litres.map(|one| ceil_count(gap.room.as_m3() * LITRES_PER_M3 / one)),
                loose: gap.room / keeps,
                between: gap.between,
            })
            .collect();
        let loose: Volume = places.iter().map(|place| place.loose).sum();
        let pad_tape = places
            .iter()
            .filter_map(|place| {
                let (on, count) = held(place)?;
                Some(PadTape {
                    turn: place.turn,
                    on,
                    count,
                    length: tab * TABS_A_STRIP,
                })
            })
            .collect();
        Self {
            clearance: gaps.adds.left.min(gaps.adds.top),
            behind: gaps.adds.back,
            gap: loose * keeps,
            loose,
            loose_litres: litres(loose),
            pieces: each_litres.map(|_| places.iter().filter_map(|place| place.pieces).sum()),
            way_in: gaps.way_in,
            places,
            pad_tape,
        }
    }

    /// Returns the strips that hold the pads of a share.
    pub(crate) fn taped_at(&self, place: &FillPlace) -> Vec<StripId> {
        let on = held(place).map(|(on, _)| on);
        let torn = |on: &StripId| self.pad_tape.iter().any(|tape| tape.on == *on);
        on.into_iter().filter(torn).collect()
    }

    /// Returns the shares that are laid in a turn.
    pub fn laid(&self, turn: FillTurn) -> impl Iterator<Item = &FillPlace> {
        self.places.iter().filter(move |place| place.turn == turn)
    }

    /// What it takes: the share of each turn, and the tape of its pads.
    fn needs<'a>(&self, supplies: &Supplies<'a>, of: PackOf) -> Vec<Need<'a>> {
        let stuff = supplies.pack(of).fill;
        let shares = FillTurn::ALL.into_iter().filter_map(|turn| {
            let loose: Volume = self.laid(turn).map(|place| place.loose).sum();
            (loose > Volume::ZERO).then(|| Need::fill(stuff, loose).called(turn.part()))
        });
        let tape = self.pad_tape.iter().map(|strip| {
            let tape = match of {
                PackOf::Pack => supplies.card_tape,
                PackOf::Piece => supplies.wrap_tape,
            };
            Need::tape(tape, strip.on, strip.length)
                .times(strip.count)
                .called(PartId::TapeForPads)
        });
        shares.chain(tape).collect()
    }

    fn made(
        supplies: &Supplies<'_>,
        (of, why): (PackOf, &'static str),
        gaps: &Gaps,
    ) -> Option<Layer> {
        let stuff = supplies.pack(of).fill;
        let allowances = supplies.allowances();
        let fill = Self::of(
            gaps,
            allowances.fill_settling,
            stuff.each_litres,
            allowances.tape_tab,
        );
        let needs = fill.needs(supplies, of);
        if needs.is_empty() {
            return None;
        }
        let Gaps { inside, adds, .. } = *gaps;
        Some(supplies.layer(Making {
            slot: of.fill_slot(),
            needs,
            adds,
            inside,
            minutes: allowances.fill_minutes
                + allowances.fill_minutes_per_m * ((inside.across + inside.up) * 2.0).as_m(),
            why,
            make: Make::EdgeFill(fill),
            cushioning: stuff.curve.map(|curve| {
                let sides = Sides {
                    front: adds.front,
                    back: adds.back,
                    across: adds.left,
                    up: adds.top,
                };
                Cushioning::covering(curve, sides)
            }),
        }))
    }
}

/// What the tape of a pad holds and with how many strips; `None` for what lies where it is put.
fn held(place: &FillPlace) -> Option<(StripId, u32)> {
    match (place.turn, place.gap) {
        (FillTurn::OnPiece, FillGap::Front) => Some((StripId::OverThePadInFront, STRIPS_A_FACE)),
        (FillTurn::OnPiece, FillGap::Behind) => Some((StripId::OverThePadBehind, STRIPS_A_FACE)),
        (FillTurn::OnPiece, FillGap::Walls) => {
            Some((StripId::OverThePadsAtBothSides, STRIPS_BESIDE))
        }
        // What lies on a floor or on top is held by its weight or by the flaps; what goes in beside something stays by its fit.
        (
            _,
            FillGap::Floor
            | FillGap::Walls
            | FillGap::Front
            | FillGap::Behind
            | FillGap::Edges
            | FillGap::Top
            | FillGap::Around,
        ) => None,
    }
}

/// Returns a volume in whole litres, rounded up.
fn litres(volume: Volume) -> u32 {
    ceil_count(volume.as_m3() * LITRES_PER_M3)
}

const LITRES_PER_M3: f64 = 1000.0;

/// Less than this is air.
const LEAST_GAP: Length = Length::mm(3.0);

/// Fill around what goes into the first box.
fn in_first_box(around: &Around<'_, '_>) -> Result<Option<Layer>, crate::Refusal> {
    let (supplies, inside) = (around.supplies, around.inside());
    let allowances = supplies.allowances();
    if let Some(fit) = around.tube_fit() {
        let gap = fit.gap();
        let gaps = Gaps {
            inside,
            adds: Addition::new(gap, Length::ZERO, gap, gap),
            hollow: Hollow::default(),
            way_in: WayIn::End,
            long_way: Direction::Up,
        };
        let why = "Fill in the tube keeps the roll from sliding and rattling.";
        return Ok(if gap < LEAST_GAP {
            None
        } else {
            EdgeFill::made(supplies, (PackOf::Piece, why), &gaps)
        });
    }
    let taken = taken(around);
    let bought = supplies.bought()?;
    let (adds, why) = match bought {
        Some(bought) => (
            left_to_fill(around, bought, taken)?,
            "Fill takes up the spare room of the bought box; none of it touches the face.",
        ),
        None => {
            let left = |room: Length, taken: Length| (room - taken).max(Length::ZERO);
            let clearance = left(allowances.clearance, taken.left);
            let behind = left(allowances.depth_clearance, taken.back);
            (
                Addition::new(clearance, clearance, Length::ZERO, behind),
                "Fill stops the piece from moving and cushions a fall; none of it touches the face.",
            )
        }
    };
    let gaps = Gaps {
        inside,
        adds,
        hollow: hollow(around),
        way_in: around.way_into(&supplies.first, inside.grown(adds))?,
        long_way: around.long_way(),
    };
    Ok(EdgeFill::made(supplies, (PackOf::Piece, why), &gaps))
}

/// Fill between two boxes, the same on all six sides: a box bears on its face.
fn between_boxes(around: &Around<'_, '_>) -> Result<Option<Layer>, crate::Refusal> {
    let (supplies, inside) = (around.supplies, around.inside());
    let gap = supplies.allowances().second_gap;
    let adds = Addition::new(gap, gap, gap, gap);
    let gaps = Gaps {
        inside,
        adds,
        hollow: Hollow::default(),
        way_in: around.way_into(&supplies.second, inside.grown(adds))?,
        long_way: around.long_way(),
    };
    let why = "The second box takes the knocks; a cushion on every side protects the first.";
    Ok(EdgeFill::made(supplies, (PackOf::Pack, why), &gaps))
}

/// Fill at the edges and behind, or around a roll.
pub(super) const KIND: Kind = Kind::new(
    Nature::PLAIN.tried(8),
    |asked| match asked.carriage {
        Carriage::Rolled => Standing::On,
        _ => asked.boxed(|| Standing::On),
    },
    in_first_box,
)
.or(|offering| from_shelf!(offering.catalogue.fills, fill).collect());

/// Fill between two boxes.
pub(super) const BETWEEN: Kind = Kind::new(
    Nature::PLAIN,
    |asked| {
        asked.boxed(|| match asked.rules.layers.get(&LayerSlot::SecondBox) {
            Some(true) => Standing::Must("it cushions the first box inside the second"),
            _ => Standing::Never("it belongs to the second box: add or remove that one"),
        })
    },
    between_boxes,
)
.or(|offering| from_shelf!(offering.catalogue.fills, second_fill).collect());

/// What stands along the edges and behind in place of fill.
fn taken(around: &Around<'_, '_>) -> Addition {
    let there = around.layers.iter();
    there
        .filter(|layer| matches!(layer.slot, LayerSlot::Edges | LayerSlot::PaddingSheets))
        .fold(Addition::default(), |sum, layer| sum + layer.adds)
}

/// What corner blocks leave hollow between them.
fn hollow(around: &Around<'_, '_>) -> Hollow {
    let mut layers = around.layers.windows(2);
    let blocks = layers.find_map(|pair| match &pair[1].make {
        Make::CornerBlocks(blocks) => Some(Hollow {
            room: blocks.hollow(pair[0].envelope),
            wide: blocks.thickness,
        }),
        _ => None,
    });
    blocks.unwrap_or_default()
}

#[cfg(test)]
mod tests {
    use super::*;

    fn gaps(way_in: WayIn, [edge, front, back]: [f64; 3]) -> Gaps {
        let [across, up, through] = [100.0, 200.0, 50.0].map(Length::mm);
        let [edge, front, back] = [edge, front, back].map(Length::mm);
        Gaps {
            inside: Envelope {
                across,
                up,
                through,
            },
            adds: Addition::new(edge, edge, front, back),
            hollow: Hollow::default(),
            way_in,
            long_way: Direction::Up,
        }
    }

    fn laid(fill: &EdgeFill) -> Vec<(FillTurn, FillGap, f64)> {
        let cubic_mm = |volume: Volume| (volume.as_m3() * 1e9).round();
        fill.places
            .iter()
            .map(|place| (place.turn, place.gap, cubic_mm(place.loose * 0.8)))
            .collect()
    }

    #[test]
    fn the_gap_is_what_the_box_holds_beyond_the_piece() {
        // 100 × 200 × 50 with 10, 20 behind: 120 × 220 × 70 = 1 848 000 − 1 000 000 = 848 000 mm³;
        // at a share of 0.8 that takes 1 060 000 loose, and 20 behind is 25 before it settles.
        let fill = EdgeFill::of(
            &gaps(WayIn::Edge, [10.0, 0.0, 20.0]),
            0.8,
            None,
            Length::mm(60.0),
        );
        assert!((fill.gap.as_m3() - 0.000_848).abs() < 1e-15);
        assert!((fill.loose.as_m3() - 0.001_06).abs() < 1e-15);
        // 1.06 litres are poured from two.
        assert_eq!(fill.loose_litres, 2);
        assert_eq!(fill.behind, Length::mm(20.0));
        let mut pads = fill.laid(FillTurn::OnPiece);
        let behind = pads.find(|pad| pad.gap == FillGap::Behind).expect("a pad");
        assert_eq!(behind.thick, Length::mm(25.0));
    }

    #[test]
    fn each_gap_is_filled_while_a_hand_reaches_it() {
        // Left and right 10 × 220 × 50 = 110 000 each, above and below 100 × 10 × 50 = 50 000 each, behind 120 × 220 × 20 = 528 000.
        // A portrait slides in through its right edge: the left one is the floor, above and below it carries its pads.
        use FillGap::{Behind, Edges, Floor, Front, Top, Walls};
        use FillTurn::{After, Before, OnPiece};
        let of = |way_in, sizes| {
            let fill = EdgeFill::of(&gaps(way_in, sizes), 0.8, None, Length::mm(60.0));
            (
                laid(&fill),
                fill.pad_tape.iter().map(|tape| tape.count).sum::<u32>(),
            )
        };
        let plain = [10.0, 0.0, 20.0];
        assert_eq!(
            of(WayIn::Edge, plain),
            (
                vec![
                    (Before, Floor, 110_000.0),
                    (OnPiece, Walls, 100_000.0),
                    (OnPiece, Behind, 528_000.0),
                    (After, Top, 110_000.0),
                ],
                8
            )
        );
        assert_eq!(
            of(WayIn::Face, plain),
            (
                vec![(Before, Behind, 528_000.0), (After, Edges, 320_000.0)],
                0
            )
        );
        // On a blank there are no walls to fill against before; the lids close behind it.
        assert_eq!(
            of(WayIn::Blank, plain),
            (
                vec![(After, Edges, 320_000.0), (After, Behind, 528_000.0)],
                0
            )
        );
        // A telescope stands on its lower edge, and both halves are pushed over the same pads.
        assert_eq!(
            of(WayIn::Halves, plain),
            (
                vec![
                    (Before, Floor, 50_000.0),
                    (OnPiece, Walls, 220_000.0),
                    (OnPiece, Behind, 528_000.0),
                    (After, Top, 50_000.0),
                ],
                8
            )
        );
        // Between two boxes front and back are padded on the inner box: 120 × 220 × 10 = 264 000 each.
        assert_eq!(
            of(WayIn::Edge, [10.0, 10.0, 10.0]).0[2],
            (OnPiece, Front, 264_000.0)
        );
    }

    #[test]
    fn what_comes_by_the_piece_is_counted_gap_by_gap() {
        // Pillows of 0.1 litre, as they are: floor 0.11 takes two, walls 0.1 one, behind 0.528 six, top two.
        let fill = EdgeFill::of(
            &gaps(WayIn::Edge, [10.0, 0.0, 20.0]),
            0.8,
            Some(0.1),
            Length::mm(60.0),
        );
        let pieces: Vec<Option<u32>> = fill.places.iter().map(|place| place.pieces).collect();
        assert_eq!(pieces, [Some(2), Some(1), Some(6), Some(2)]);
        assert_eq!(fill.pieces, Some(11));
    }
}

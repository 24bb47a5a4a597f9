//! The seal of a closed box, strip by strip: every seam first, then corners and edges, then the narrow sides.

use serde::Serialize;

use crate::{
    carton::{Beyond, BoxSize, Tray},
    house::{CartonStyle, SealRule},
    part::StripId,
    quantity::{Length, ceil_count},
};

/// One strip of tape on the closed box.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SealStrip {
    /// What it closes or covers; strips of one kind are alike.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub on: StripId,
    /// When it is laid: all of one number before any of the next.
    pub order: u32,
    /// Whether it is filament, which holds two halves together.
    pub filament: bool,
    /// Whether it belongs to the making of the box: it is laid before something lies in it.
    pub first: bool,
    /// How long it is torn, its ends turned over edges.
    #[serde(rename = "length_mm")]
    pub length: Length,
    /// Where it goes on the box outside, from corner to corner: along its length, across it, and through it. Empty for one that joins two parts
    /// of a blank.
    pub path_mm: Vec<[Length; 3]>,
}

pub(crate) const SEAMS: u32 = 1;
const EDGES: u32 = 2;
const FLOOR: [StripId; 2] = [StripId::OverTheFloor, StripId::OverTheFloorsEnds];
const OPENING: [StripId; 2] = [StripId::OverTheOpening, StripId::OverItsEnds];
const CLOSED: [StripId; 2] = [StripId::OverEachClosedEnd, StripId::OverItsEnds];
const SIDES: u32 = 3;
/// Where two halves meet, tape goes round so often.
const TWICE_ROUND: usize = 2;
/// A strip is this wide, and laps the one beside it by the rest.
const STRIP_PITCH: Length = Length::mm(48.0);

/// A seal while it is laid, in shares of the box's three sides: 0 is its near end, 1 its far one.
struct Laying {
    size: BoxSize,
    beyond: Beyond,
    tape_return: Length,
    /// Whether what is laid belongs to the making of the box.
    first: bool,
    strips: Vec<SealStrip>,
}

/// A place on the box in shares of its length, width and height.
type Share = [f64; 3];

impl Laying {
    fn outside(&self) -> [Length; 3] {
        let Beyond {
            length,
            width,
            front,
            back,
        } = self.beyond;
        [
            self.size.length + length[0] + length[1],
            self.size.width + width[0] + width[1],
            self.size.height + front + back,
        ]
    }

    /// Lays a strip from one place to another, as long as the inside sides that it follows and its returns.
    fn lay(&mut self, on: StripId, order: u32, [from, to]: [Share; 2]) {
        let sides = [self.size.length, self.size.width, self.size.height];
        let along: Length = sides
            .into_iter()
            .enumerate()
            .map(|(way, side)| side * (to[way] - from[way]).abs())
            .sum();
        self.strip(on, order, along + self.tape_return * 2.0, &[from, to]);
    }

    fn strip(&mut self, on: StripId, order: u32, length: Length, path: &[Share]) {
        let outside = self.outside();
        let at = |share: Share| [0, 1, 2].map(|way: usize| outside[way] * share[way]);
        self.strips.push(SealStrip {
            on,
            order,
            filament: false,
            first: self.first,
            length,
            path_mm: path.iter().copied().map(at).collect(),
        });
    }

    /// Lays strips that belong to the making of the box: its joint and what is closed before something lies in it.
    fn first(&mut self, lays: impl FnOnce(&mut Self)) {
        self.first = true;
        lays(self);
        self.first = false;
    }

    /// An H over an opening: its seam along one way in the middle of another, and both its ends.
    fn h(&mut self, [seam, ends]: [StripId; 2], [along, across, normal]: [usize; 3], at: f64) {
        let place = |a: f64, b: f64| {
            let mut share = [0.0; 3];
            (share[along], share[across], share[normal]) = (a, b, at);
            share
        };
        self.lay(seam, SEAMS, [place(0.0, 0.5), place(1.0, 0.5)]);
        for end in [0.0, 1.0] {
            self.lay(ends, SEAMS, [place(end, 0.0), place(end, 1.0)]);
        }
    }

    /// Edges along one way, at some of the four corners of the other two.
    fn edges(&mut self, on: StripId, order: u32, way: usize, corners: &[[f64; 2]]) {
        let others = [[1, 2], [0, 2], [0, 1]][way];
        for corner in corners {
            let place = |along: f64| {
                let mut share = [0.0; 3];
                share[way] = along;
                share[others[0]] = corner[0];
                share[others[1]] = corner[1];
                share
            };
            self.lay(on, order, [place(0.0), place(1.0)]);
        }
    }

    /// Once around the face at one end of the height.
    fn around(&mut self, on: StripId, order: u32, at: f64) {
        for side in [0.0, 1.0] {
            self.lay(on, order, [[0.0, side, at], [1.0, side, at]]);
            self.lay(on, order, [[side, 0.0, at], [side, 1.0, at]]);
        }
    }
}

const ALONG: usize = 0;
const ACROSS: usize = 1;
const THROUGH: usize = 2;
const CORNERS: [[f64; 2]; 4] = [[0.0, 0.0], [1.0, 0.0], [0.0, 1.0], [1.0, 1.0]];
/// All corners but the one at which the joint is taped already.
const OTHERS: [[f64; 2]; 3] = [[0.0, 0.0], [1.0, 0.0], [1.0, 1.0]];
const JOINT: [[f64; 2]; 1] = [[0.0, 1.0]];

/// Puts like strips together: each kind with how many there are of it, in the order in which they are laid.
pub(crate) fn alike(seal: &[SealStrip]) -> Vec<(&SealStrip, u32)> {
    let what = |one: &SealStrip| (one.on, one.length, one.filament, one.first);
    let mut alike: Vec<(&SealStrip, u32)> = Vec::new();
    for strip in seal {
        match alike
            .iter_mut()
            .find(|(known, _)| what(known) == what(strip))
        {
            Some((_, count)) => *count += 1,
            None => alike.push((strip, 1)),
        }
    }
    alike
}

impl CartonStyle {
    /// Returns every strip of tape on a closed box, in the order in which they are laid, their ends turned over edges by a
    /// return.
    ///
    /// Openings are closed in an H, joints along their length; with every seam taped the edges that nothing else closes
    /// too, and against a wet floor the narrow sides whole. Where two halves meet, filament goes around. Source: packaging
    /// engineering practice.
    #[must_use]
    pub fn seal(self, size: BoxSize, tape_return: Length, rule: SealRule) -> Vec<SealStrip> {
        let mut laying = Laying {
            size,
            beyond: self.beyond(size),
            tape_return,
            first: false,
            strips: Vec::new(),
        };
        self.lay_seams(&mut laying);
        if rule != SealRule::H {
            self.lay_edges(&mut laying);
        }
        if rule == SealRule::Covered {
            cover_sides(&mut laying);
        }
        laying.strips
    }

    fn lay_seams(self, laying: &mut Laying) {
        match self {
            Self::SlottedEdge => {
                laying.first(|laying| {
                    laying.h(FLOOR, [ALONG, THROUGH, ACROSS], 0.0);
                    laying.edges(StripId::AlongTheJoint, SEAMS, ACROSS, &JOINT);
                });
                laying.h(OPENING, [ALONG, THROUGH, ACROSS], 1.0);
            }
            Self::SlottedFace => {
                laying.first(|laying| {
                    laying.h(FLOOR, [ALONG, ACROSS, THROUGH], 0.0);
                    laying.edges(StripId::AlongTheJoint, SEAMS, THROUGH, &JOINT);
                });
                laying.h(OPENING, [ALONG, ACROSS, THROUGH], 1.0);
            }
            Self::TrayAndLid | Self::SlitTray => {
                laying
                    .first(|laying| laying.edges(StripId::AtTheCorners, SEAMS, THROUGH, &CORNERS));
                laying.around(StripId::AroundTheLid, SEAMS, 1.0);
            }
            Self::TrayAndTray => {
                laying.first(|laying| {
                    laying.edges(StripId::AtTheTraysCorners, SEAMS, THROUGH, &CORNERS);
                });
                let over = Tray(laying.size).tray_over();
                let low = 1.0 - (over.0.height / laying.size.height).min(1.0);
                for [x, y] in CORNERS {
                    let length = over.0.height + laying.tape_return * 2.0;
                    laying.strip(
                        StripId::AtTheLidsCorners,
                        SEAMS,
                        length,
                        &[[x, y, low], [x, y, 1.0]],
                    );
                }
                laying.around(StripId::AroundTheLidsEdge, SEAMS, low);
            }
            Self::Folder | Self::FolderLapped => {
                laying.lay(
                    StripId::OverTheMiddle,
                    SEAMS,
                    [[0.0, 0.5, 1.0], [1.0, 0.5, 1.0]],
                );
                for end in [0.0, 1.0] {
                    laying.lay(
                        StripId::OverBothEnds,
                        SEAMS,
                        [[end, 0.0, 1.0], [end, 1.0, 1.0]],
                    );
                }
                laying.edges(StripId::AtTheCorners, SEAMS, THROUGH, &CORNERS);
            }
            Self::Telescope => telescoped(laying),
        }
    }

    fn lay_edges(self, laying: &mut Laying) {
        let on = StripId::AlongTheEdges;
        match self {
            Self::SlottedEdge => {
                laying.edges(on, EDGES, ALONG, &CORNERS);
                laying.edges(on, EDGES, ACROSS, &OTHERS);
            }
            Self::SlottedFace => {
                laying.edges(on, EDGES, ALONG, &CORNERS);
                laying.edges(on, EDGES, THROUGH, &OTHERS);
            }
            Self::TrayAndLid | Self::TrayAndTray | Self::SlitTray => laying.around(on, EDGES, 0.0),
            Self::Folder | Self::FolderLapped => {
                laying.edges(on, EDGES, ALONG, &[[0.0, 1.0], [1.0, 1.0]]);
            }
            Self::Telescope => {
                let way = longer_section(laying.size);
                for end in [0.0, 1.0] {
                    for side in [0.0, 1.0] {
                        let place = |along: f64| {
                            let mut share = [end, side, side];
                            share[way] = along;
                            share
                        };
                        laying.lay(on, EDGES, [place(0.0), place(1.0)]);
                    }
                }
            }
        }
    }
}

/// The longer way across a telescope's section.
fn longer_section(size: BoxSize) -> usize {
    if size.width >= size.height {
        ACROSS
    } else {
        THROUGH
    }
}

/// Two halves: an H at either closed end, the joint of each, and filament around where they meet.
fn telescoped(laying: &mut Laying) {
    let size = laying.size;
    let telescope = size.telescope();
    let long = longer_section(size);
    let short = ACROSS + THROUGH - long;
    laying.first = true;
    for end in [0.0, 1.0] {
        laying.h(CLOSED, [long, short, ALONG], end);
    }
    let half = telescope.half() + laying.tape_return * 2.0;
    let share = (telescope.half() / size.length).min(1.0);
    laying.strip(
        StripId::AlongTheJoints,
        SEAMS,
        half,
        &[[0.0, 0.0, 1.0], [share, 0.0, 1.0]],
    );
    laying.strip(
        StripId::AlongTheJoints,
        SEAMS,
        half,
        &[[1.0 - share, 0.0, 1.0], [1.0, 0.0, 1.0]],
    );
    laying.first = false;
    let girth = (size.width + size.height) * 2.0 + laying.tape_return * 2.0;
    let around = [
        [share, 0.0, 0.0],
        [share, 1.0, 0.0],
        [share, 1.0, 1.0],
        [share, 0.0, 1.0],
        [share, 0.0, 0.0],
    ];
    for _ in 0..TWICE_ROUND {
        laying.strip(StripId::AroundWhereTheHalvesMeet, SEAMS, girth, &around);
        if let Some(strip) = laying.strips.last_mut() {
            strip.filament = true;
        }
    }
}

/// The four narrow sides, whole: strip beside strip along each.
fn cover_sides(laying: &mut Laying) {
    let deep = laying.outside()[THROUGH];
    let strips = ceil_count(deep / STRIP_PITCH).max(1);
    for row in 0..strips {
        let at = (f64::from(row) + 0.5) / f64::from(strips);
        for side in [0.0, 1.0] {
            laying.lay(
                StripId::OverTheNarrowSides,
                SIDES,
                [[0.0, side, at], [1.0, side, at]],
            );
            laying.lay(
                StripId::OverTheNarrowSides,
                SIDES,
                [[side, 0.0, at], [side, 1.0, at]],
            );
        }
    }
}

/// Returns the strips with what the house's rule adds along the edges of a box whose corners are all alike, and over its sides.
fn by_rule(mut laying: Laying, rule: SealRule) -> Vec<SealStrip> {
    if rule != SealRule::H {
        laying.edges(StripId::AlongTheEdges, EDGES, ALONG, &CORNERS);
        laying.edges(StripId::AlongTheEdges, EDGES, ACROSS, &CORNERS);
    }
    if rule == SealRule::Covered {
        cover_sides(&mut laying);
    }
    laying.strips
}

/// Returns the strips of a slotted carton that opens on a short edge, whose own joint holds.
pub(super) fn on_a_short_edge(
    size: BoxSize,
    tape_return: Length,
    rule: SealRule,
) -> Vec<SealStrip> {
    let mut laying = Laying {
        size,
        beyond: CartonStyle::SlottedEdge.beyond(size),
        tape_return,
        first: false,
        strips: Vec::new(),
    };
    laying.first(|laying| laying.h(FLOOR, [ACROSS, THROUGH, ALONG], 0.0));
    laying.h(OPENING, [ACROSS, THROUGH, ALONG], 1.0);
    by_rule(laying, rule)
}

/// Returns the strips of a kit with what the house's rule adds to them.
pub(super) fn with_rule(
    strips: Vec<SealStrip>,
    (size, tape_return): (BoxSize, Length),
    rule: SealRule,
) -> Vec<SealStrip> {
    let laying = Laying {
        size,
        beyond: CartonStyle::TrayAndTray.beyond(size),
        tape_return,
        first: false,
        strips,
    };
    by_rule(laying, rule)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn worked() -> BoxSize {
        let [length, width, height, caliper] = [740.0, 560.0, 90.0, 4.0].map(Length::mm);
        BoxSize {
            length,
            width,
            height,
            caliper,
        }
    }

    #[test]
    fn seams_are_closed_with_their_returns() {
        // With returns of 50 at both ends: 840, 660, 190. Edge: (840 + 380) × 2 + 660 = 3100, and every seam
        // 4 × 840 + 3 × 660 more. Face: (840 + 1320) × 2 + 190 = 4510. Tray: 760 + 3000. Folder: 840 + 1320 + 760.
        // A tray over a tray, 40 deep: (190 + 140) × 4 + 3000 = 4320.
        // Telescope: half (740 + 111)/2 + 100 = 525.5, girth 1400, twice: (660 + 380) × 2 + 1051 + 2800 = 5931.
        let seal = |style: CartonStyle, every| {
            let rule = if every {
                SealRule::EverySeam
            } else {
                SealRule::H
            };
            let strips = style.seal(worked(), Length::mm(50.0), rule);
            strips.iter().map(|strip| strip.length.as_mm()).sum::<f64>()
        };
        assert_eq!(seal(CartonStyle::SlottedEdge, false), 3100.0);
        assert_eq!(seal(CartonStyle::SlottedEdge, true), 8440.0);
        assert_eq!(seal(CartonStyle::SlottedFace, false), 4510.0);
        assert_eq!(seal(CartonStyle::TrayAndLid, false), 3760.0);
        assert_eq!(seal(CartonStyle::TrayAndTray, false), 4320.0);
        assert_eq!(seal(CartonStyle::Folder, false), 2920.0);
        assert!((seal(CartonStyle::Telescope, false) - 5931.0).abs() < 1e-9);
    }
}

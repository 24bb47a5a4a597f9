//! The styles of boxes that are cut from board, behind one type: what each is cut to, what it adds outside, how it is
//! sealed and what it bears.

use strum::EnumCount;

use super::{
    Blank, Folder, Half, SlitTray, SlottedEdge, SlottedFace, Solid, Telescope, Tray,
    folder::LID_LAP, ring, tray::LID_PLAY,
};
use crate::{
    house::{Allowances, CartonStyle},
    material::Board,
    part::PartId,
    quantity::Length,
};

/// A box by its inside and its board.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct BoxSize {
    /// Inside, along the long side of the art's face.
    pub length: Length,
    /// Inside, along the short side of the art's face.
    pub width: Length,
    /// Inside, through the art.
    pub height: Length,
    /// Of the board.
    pub caliper: Length,
}

/// What a closed box reaches beyond its inside, at each end of its three ways.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Beyond {
    /// At both ends of its length.
    pub length: [Length; 2],
    /// At both ends of its width.
    pub width: [Length; 2],
    /// Before the art.
    pub front: Length,
    /// Behind it.
    pub back: Length,
}

/// A flap shorter than this, or than so many boards, can't be folded by hand.
const SHORTEST_FLAP: Length = Length::mm(20.0);
const SHORTEST_FLAP_BOARDS: f64 = 4.0;
/// A flat lid lies on its walls and is held by tape alone: a longer one bows between them. Trade judgement.
const LONGEST_LID: Length = Length::mm(1000.0);
/// What a column bears that four butted walls make, held together by a lid or by foam board's own stiffness.
const TRAY: f64 = 0.7;
/// Two halves that slide into each other are no shorter.
const SHORTEST_TELESCOPE: Length = Length::mm(100.0);

/// What a column bears that is split by a seam along its middle, or stands on a lid that nothing holds: trade
/// judgement, as for a panel that was joined.
const SPLIT: f64 = 0.6;

impl CartonStyle {
    /// Every style.
    pub const ALL: [Self; <Self as EnumCount>::COUNT] = [
        Self::SlottedEdge,
        Self::SlottedFace,
        Self::TrayAndLid,
        Self::TrayAndTray,
        Self::SlitTray,
        Self::Folder,
        Self::FolderLapped,
        Self::Telescope,
    ];

    /// Tells whether it is made of a board: foam board is slit, and every other style is scored and folded.
    #[must_use]
    pub fn takes(self, board: &Board) -> bool {
        if self == Self::SlitTray {
            board.slits()
        } else {
            board.folds
        }
    }

    /// Returns the style of a box of a board where nothing speaks against it.
    #[must_use]
    pub fn usual_of(board: &Board) -> Self {
        if board.folds {
            Self::default()
        } else {
            Self::SlitTray
        }
    }

    /// Returns what it is called.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::SlottedEdge => "Edge-opening box",
            Self::SlottedFace => "Face-opening box",
            Self::TrayAndLid => "Tray and lid",
            Self::TrayAndTray => "Two-tray box",
            Self::SlitTray => "Foam-board tray and lid",
            Self::Folder => "Folder",
            Self::FolderLapped => "Lapped folder",
            Self::Telescope => "Telescope box",
        }
    }

    /// Returns its name within a sentence, with its article.
    #[must_use]
    pub fn with_article(self) -> String {
        let article = match self {
            Self::SlottedEdge => "an",
            Self::SlottedFace
            | Self::TrayAndLid
            | Self::TrayAndTray
            | Self::SlitTray
            | Self::Folder
            | Self::FolderLapped
            | Self::Telescope => "a",
        };
        format!("{article} {}", self.name().to_lowercase())
    }

    /// Returns why one would make it.
    #[must_use]
    pub const fn why(self) -> &'static str {
        match self {
            Self::SlottedEdge => {
                "An edge opening takes the least board and leaves both faces whole."
            }
            Self::SlottedFace => "The piece goes in from above: easy to load, but more board.",
            Self::TrayAndLid => {
                "Few cuts and no slots: a small or shallow piece lies in it as in a drawer."
            }
            Self::TrayAndTray => {
                "The lid is a second tray: it can't bow or slide, and comes off again."
            }
            Self::SlitTray => {
                "Foam board is slit half through from outside and folded: light, stiff and clean."
            }
            Self::Folder => "Cut at the bench around the wrapped piece; nothing slides in.",
            Self::FolderLapped => {
                "Lapped lids are stiff over the face and leave no seam in its middle."
            }
            Self::Telescope => {
                "Two smaller blanks slide together to the length: for a tall or odd piece."
            }
        }
    }

    /// Returns what it is cut to, part by part: the lid after its tray, the inner half after the outer.
    #[must_use]
    pub fn parts(self, size: BoxSize, allowances: &Allowances) -> Vec<Blank> {
        match self {
            Self::SlottedEdge => vec![SlottedEdge(size).blank(allowances)],
            Self::SlottedFace => vec![SlottedFace(size).blank(allowances)],
            Self::TrayAndLid => vec![Tray(size).blank(), Tray(size).lid()],
            Self::TrayAndTray => vec![
                Tray(size).blank(),
                Tray(size).tray_over().called(PartId::Lid),
            ],
            Self::SlitTray => vec![SlitTray(size).blank(), SlitTray(size).lid()],
            Self::Folder => vec![Folder::meeting(size).blank()],
            Self::FolderLapped => vec![Folder::lapped(size).blank()],
            Self::Telescope => [Half::Outer, Half::Inner]
                .map(|half| size.telescope().blank(half, allowances))
                .to_vec(),
        }
    }

    /// Returns what stays free in each part once it is folded, in the same order; nothing of a part that has no inside.
    #[must_use]
    pub fn rooms(self, size: BoxSize, allowances: &Allowances) -> Vec<Option<Solid>> {
        match self {
            Self::SlottedEdge => vec![Some(SlottedEdge(size).room(allowances))],
            Self::SlottedFace => vec![Some(SlottedFace(size).room(allowances))],
            Self::TrayAndLid => vec![Some(Tray(size).room()), None],
            Self::TrayAndTray => vec![Some(Tray(size).room()), Some(Tray(size).tray_over().room())],
            Self::SlitTray => vec![Some(SlitTray(size).room()), None],
            Self::Folder => vec![Some(Folder::meeting(size).room())],
            Self::FolderLapped => vec![Some(Folder::lapped(size).room())],
            Self::Telescope => [Half::Outer, Half::Inner]
                .map(|half| Some(size.telescope().room(half, allowances)))
                .to_vec(),
        }
    }

    /// Returns the joining tab; `None` if there is none.
    #[must_use]
    pub fn tab(self, caliper: Length, allowances: &Allowances) -> Option<Length> {
        self.is_slotted().then(|| ring::tab(caliper, allowances))
    }

    /// Returns the width of a slot; `None` if none is cut.
    #[must_use]
    pub fn slot(self, caliper: Length, allowances: &Allowances) -> Option<Length> {
        self.is_slotted().then(|| ring::slot(caliper, allowances))
    }

    const fn is_slotted(self) -> bool {
        matches!(
            self,
            Self::SlottedEdge | Self::SlottedFace | Self::Telescope
        )
    }

    /// Returns how far the closed box reaches beyond its inside. Source: the boards that lie on each side.
    #[must_use]
    pub fn beyond(self, size: BoxSize) -> Beyond {
        let [one, two] = [1.0, 2.0].map(|boards| size.caliper * boards);
        match self {
            // Two flaps lie over each other at both ends of the opening, and the joint laps behind.
            Self::SlottedEdge => Beyond {
                length: [one; 2],
                width: [two; 2],
                front: one,
                back: two,
            },
            // The joint laps on one narrow side, and the flaps before and behind.
            Self::SlottedFace => Beyond {
                length: [one; 2],
                width: [one, two],
                front: two,
                back: two,
            },
            Self::TrayAndLid | Self::SlitTray => Beyond {
                length: [one; 2],
                width: [one; 2],
                front: one,
                back: one,
            },
            // The lid goes around the tray with its play; the base is one board, the lid the other.
            Self::TrayAndTray => {
                let around = two + LID_PLAY / 2.0;
                Beyond {
                    length: [around; 2],
                    width: [around; 2],
                    front: one,
                    back: one,
                }
            }
            Self::FolderLapped => Beyond {
                back: one * 3.0,
                ..Self::Folder.beyond(size)
            },
            // The lids close over the tucks.
            Self::Folder => Beyond {
                length: [one; 2],
                width: [one; 2],
                front: one,
                back: two,
            },
            // The outer half goes around the inner, the joints of both lap on one side.
            Self::Telescope => {
                let outer = size.telescope().section(Half::Outer);
                let [wide, narrow] = [outer[0] + two, outer[1] + one * 3.0];
                let over = |outside: Length, inside: Length| (outside - inside) / 2.0;
                let (width, through) = if size.width >= size.height {
                    (over(wide, size.width), over(narrow, size.height))
                } else {
                    (over(narrow, size.width), over(wide, size.height))
                };
                Beyond {
                    length: [two; 2],
                    width: [width; 2],
                    front: through,
                    back: through,
                }
            }
        }
    }

    /// Returns what it bears, standing on the long narrow side, of what a ring of upright flutes would.
    #[must_use]
    pub const fn column(self) -> f64 {
        match self {
            Self::SlottedEdge | Self::Telescope => 1.0,
            Self::SlottedFace | Self::TrayAndLid | Self::Folder | Self::FolderLapped => SPLIT,
            Self::TrayAndTray | Self::SlitTray => TRAY,
        }
    }

    /// Returns why a box of a size is not made in it: what a hand can't fold, or a lid that would bow.
    #[must_use]
    pub fn unfit(self, size: BoxSize) -> Option<StyleRefusal> {
        let longest = size.length.max(size.width);
        let flat_lid = matches!(self, Self::TrayAndLid | Self::SlitTray);
        if flat_lid && longest > LONGEST_LID {
            return Some(StyleRefusal::TooLong {
                what: "flat lid",
                found: longest,
                most: LONGEST_LID,
            });
        }
        if self == Self::FolderLapped {
            // Past the far wall it can't lie flat.
            let lid = (size.width + size.caliper) / 2.0 + LID_LAP;
            if lid > size.width {
                return Some(StyleRefusal::PastTheWall {
                    lid,
                    wide: size.width,
                });
            }
        }
        self.too_small(size)
    }

    fn too_small(self, size: BoxSize) -> Option<StyleRefusal> {
        let c = size.caliper;
        let least = SHORTEST_FLAP.max(c * SHORTEST_FLAP_BOARDS);
        let half = |side: Length| (side + c) / 2.0;
        let (what, flap) = match self {
            Self::SlottedEdge => ("flaps", half(size.height.min(size.length))),
            Self::SlottedFace => ("flaps", half(size.width.min(size.length))),
            Self::TrayAndLid | Self::TrayAndTray => ("walls", size.height + c / 2.0),
            Self::SlitTray => ("walls", size.height),
            Self::Folder | Self::FolderLapped => ("walls", size.height + c),
            Self::Telescope if size.length < SHORTEST_TELESCOPE => {
                return Some(StyleRefusal::TooSmall {
                    what: "halves",
                    found: size.length,
                    least: SHORTEST_TELESCOPE,
                });
            }
            Self::Telescope => ("flaps", half(size.width.min(size.height))),
        };
        (flap < least).then_some(StyleRefusal::TooSmall {
            what,
            found: flap,
            least,
        })
    }
}

/// Why a box is not made in a style.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum StyleRefusal {
    /// Something of it is too small to be folded by hand.
    TooSmall {
        /// What it is.
        what: &'static str,
        /// How long it is.
        found: Length,
        /// How long it would have to be.
        least: Length,
    },
    /// A lid that laps the other reaches past the wall across.
    PastTheWall {
        /// How long the lid is.
        lid: Length,
        /// How wide the box is inside.
        wide: Length,
    },
    /// Something of it is so long that it does not stay flat.
    TooLong {
        /// What it is.
        what: &'static str,
        /// How long it is.
        found: Length,
        /// How long it may be.
        most: Length,
    },
}

impl BoxSize {
    /// A telescope slides along the length, whichever side is the longest.
    pub(crate) fn telescope(self) -> Telescope {
        Telescope::new(self.length, [self.width, self.height], self.caliper)
    }
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

    fn outside(style: CartonStyle) -> [f64; 3] {
        let (size, beyond) = (worked(), style.beyond(worked()));
        [
            size.length + beyond.length[0] + beyond.length[1],
            size.width + beyond.width[0] + beyond.width[1],
            size.height + beyond.front + beyond.back,
        ]
        .map(Length::as_mm)
    }

    #[test]
    fn a_closed_box_is_larger_by_the_boards_that_lie_on_each_side() {
        // Board 4: 2c, 4c and 3c; 2c, 3c, 4c; 2c each; 4c + 2 across and 2c through; 2c, 2c, 3c; lapped 4c; 4c, 4c + 3,
        // 6c + 3.
        for (style, wanted) in [
            (CartonStyle::SlottedEdge, [748.0, 576.0, 102.0]),
            (CartonStyle::SlottedFace, [748.0, 572.0, 106.0]),
            (CartonStyle::TrayAndLid, [748.0, 568.0, 98.0]),
            (CartonStyle::TrayAndTray, [758.0, 578.0, 98.0]),
            (CartonStyle::SlitTray, [748.0, 568.0, 98.0]),
            (CartonStyle::Folder, [748.0, 568.0, 102.0]),
            (CartonStyle::FolderLapped, [748.0, 568.0, 106.0]),
            (CartonStyle::Telescope, [756.0, 579.0, 117.0]),
        ] {
            assert_eq!(outside(style), wanted, "{style:?}");
        }
    }

    #[test]
    fn what_a_hand_can_not_fold_is_too_small() {
        // Flaps (30 + 4)/2 = 17 are under 20; walls of 32 and 34 are not. Of board 7 they would have to be 28.
        let shallow = BoxSize {
            height: Length::mm(30.0),
            ..worked()
        };
        let small = |style: CartonStyle, size| match style.unfit(size) {
            Some(StyleRefusal::TooSmall { found, least, .. }) => {
                Some([found, least].map(Length::as_mm))
            }
            Some(StyleRefusal::TooLong { .. } | StyleRefusal::PastTheWall { .. }) | None => None,
        };
        assert_eq!(small(CartonStyle::SlottedEdge, shallow), Some([17.0, 20.0]));
        assert!(CartonStyle::TrayAndLid.unfit(shallow).is_none());
        assert!(CartonStyle::SlottedFace.unfit(shallow).is_none());
        let thick = BoxSize {
            caliper: Length::mm(7.0),
            height: Length::mm(23.0),
            ..worked()
        };
        assert_eq!(small(CartonStyle::TrayAndLid, thick), Some([26.5, 28.0]));
        let short = BoxSize {
            length: Length::mm(99.0),
            ..worked()
        };
        assert_eq!(small(CartonStyle::Telescope, short), Some([99.0, 100.0]));
    }

    #[test]
    fn a_flat_lid_is_no_longer_than_a_metre_whichever_way_it_lies() {
        let sized = |length, width| BoxSize {
            length: Length::mm(length),
            width: Length::mm(width),
            ..worked()
        };
        for (size, fits) in [
            (sized(1000.0, 700.0), true),
            (sized(1000.5, 700.0), false),
            (sized(700.0, 1000.5), false),
        ] {
            assert_eq!(
                CartonStyle::TrayAndLid.unfit(size).is_none(),
                fits,
                "{size:?}"
            );
            assert!(CartonStyle::Folder.unfit(size).is_none());
        }
    }
}

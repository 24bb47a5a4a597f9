//! What a layer puts in the way of a corner, a handle or a fork that would go through to the art.

use super::{Cushioning, Make};
use crate::{
    house::CartonStyle,
    material::{Catalogue, puncture_of_wall},
    odds::SOFT_J_PER_MM,
    part::{Part, PartId},
    space::Opens,
};

/// The energy that a layer takes to be pierced, in joules.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Pierce {
    /// Before the face.
    pub front: f64,
    /// Behind.
    pub back: f64,
}

/// Where two flaps meet over the art, their layer counts half. Source: trade judgement.
const MEETING: f64 = 0.5;

impl Pierce {
    const fn both(joules: f64) -> Self {
        Self {
            front: joules,
            back: joules,
        }
    }

    const fn behind(joules: f64) -> Self {
        Self {
            front: 0.0,
            back: joules,
        }
    }

    /// Returns the energies for a piece that lies face down in the layer: what was before its face is behind it.
    pub(super) const fn turned(self) -> Self {
        Self {
            front: self.back,
            back: self.front,
        }
    }

    fn times(self, front: f64, back: f64) -> Self {
        Self {
            front: self.front * front,
            back: self.back * back,
        }
    }

    /// Returns what a layer of some parts takes: its boards over the art, and all that is soft and covers the whole side.
    pub(super) fn of(
        make: &Make,
        parts: &[Part],
        cushioning: Option<&Cushioning>,
        catalogue: &Catalogue,
    ) -> Self {
        let boards = boards_of(make, parts, catalogue);
        let soft = cushioning
            .filter(|cushioning| !cushioning.board)
            .map(|cushioning| {
                [cushioning.front, cushioning.back].map(|side| {
                    let covers = side.filter(|side| side.area.is_none());
                    covers.map_or(0.0, |side| side.thickness.as_mm() * SOFT_J_PER_MM)
                })
            });
        let [front, back] = soft.unwrap_or_default();
        Self {
            front: boards.front + front,
            back: boards.back + back,
        }
    }
}

/// What the boards of a layer take that lie over the art.
fn boards_of(make: &Make, parts: &[Part], catalogue: &Catalogue) -> Pierce {
    let named = |id: PartId| {
        let part = parts.iter().find(|part| part.id == id);
        let board = part.and_then(|part| catalogue.board(&part.material).ok());
        board.map_or(0.0, |board| board.puncture())
    };
    // The first part is what the layer is made of.
    let first = || {
        let board = parts
            .first()
            .and_then(|part| catalogue.board(&part.material).ok());
        board.map_or(0.0, |board| board.puncture())
    };
    match make {
        Make::FaceBoards(boards) => {
            let front = first();
            let back = match (boards.behind, boards.back) {
                (false, _) => 0.0,
                (true, None) => front,
                (true, Some(_)) => named(PartId::BackBoard),
            };
            Pierce { front, back }
        }
        Make::Folio(_) => Pierce::both(first()),
        Make::SlottedBox(carton) | Make::CutBox(carton) => {
            let [front, back] = covers(carton.style);
            let glued = if carton.doubled { 1.0 } else { 0.0 };
            Pierce::both(first()).times(front + glued, back + glued)
        }
        Make::SavedBox(saved) => Pierce::both(first() * flaps(saved.opens)),
        Make::BoughtBox(carton) => {
            let wall = puncture_of_wall(carton.wall, carton.stiffness);
            // Parts that slide into each other, or close over each other, have no flaps over the art.
            let covers = if carton.parts > 1 {
                1.0
            } else {
                flaps(carton.opens)
            };
            Pierce::both(wall * covers)
        }
        Make::TravelCase(_) => Pierce::both(first()),
        Make::Mailer(mailer) => Pierce::both(puncture_of_wall(mailer.wall, mailer.stiffness)),
        Make::Sandwich(sleeve) => Pierce::both(puncture_of_wall(sleeve.wall, sleeve.stiffness)),
        Make::Cradle(_) => Pierce::behind(named(PartId::CradleBoard)),
        Make::Fixing(_) | Make::WindowSpacer(_) => Pierce::behind(named(PartId::BoardBehind)),
        // A roll has no side that is pierced before another.
        Make::Tube(_) | Make::Roll(_) => Pierce::default(),
        // No board, or none over the middle.
        Make::GlassTape(_)
        | Make::ContactSheet(_)
        | Make::Interleaves(_)
        | Make::Bundle(_)
        | Make::CardPockets(_)
        | Make::SlipOns(_)
        | Make::FoamCollar(_)
        | Make::RimStrip(_)
        | Make::BackFill(_)
        | Make::StretchFilm(_)
        | Make::NameTag(_)
        | Make::SealedBag(_)
        | Make::Wrap(_)
        | Make::LaidTogether(_)
        | Make::FacePads(_)
        | Make::EdgePads(_)
        | Make::CornerBlocks(_)
        | Make::PaperRolls(_)
        | Make::CardSprings(_)
        | Make::Skirt(_)
        | Make::PaddingSheets(_)
        | Make::EdgeFill(_)
        | Make::Lining(_)
        | Make::OuterPaper(_)
        | Make::Enclosures(_)
        | Make::Marks(_) => Pierce::default(),
    }
}

/// How many layers of its board a box has over the face, and behind. Inner flaps don't reach the middle.
const fn covers(style: CartonStyle) -> [f64; 2] {
    match style {
        CartonStyle::SlottedEdge
        | CartonStyle::TrayAndLid
        | CartonStyle::TrayAndTray
        | CartonStyle::SlitTray
        | CartonStyle::FolderLapped
        | CartonStyle::Telescope => [1.0, 1.0],
        CartonStyle::SlottedFace => [MEETING, MEETING],
        // Its two lids meet in front.
        CartonStyle::Folder => [MEETING, 1.0],
    }
}

const fn flaps(opens: Opens) -> f64 {
    match opens {
        Opens::Face => MEETING,
        Opens::EdgeLong | Opens::EdgeShort => 1.0,
    }
}

//! One look before the next: what is asked at a step, and what to do where the answer is no.

use serde::{Deserialize, Serialize};

use crate::layer::Make;

/// What is looked at.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum LookKind {
    /// Whether the piece is dry and clean.
    Ready,
    /// Tape on the glass.
    GlassTape,
    /// What keeps things off the face.
    Spacer,
    /// The sheet against the art.
    Sheet,
    /// What sits on the corners.
    Corners,
    /// Boards, or what lies between two.
    Boards,
    /// Whether face and top can still be told.
    FaceAndTop,
    /// The wrap.
    Wrap,
    /// A roll.
    Roll,
    /// A sealed bag.
    Bag,
    /// Whether something moves.
    Still,
    /// Whether what goes in is in; it always stops.
    Enclosed,
}

impl LookKind {
    /// Every kind that a house may only show.
    pub const OF_HOUSE: [Self; 11] = [
        Self::Ready,
        Self::GlassTape,
        Self::Spacer,
        Self::Sheet,
        Self::Corners,
        Self::Boards,
        Self::FaceAndTop,
        Self::Wrap,
        Self::Roll,
        Self::Bag,
        Self::Still,
    ];
}

/// A question that is answered before going on.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Look {
    /// What is looked at.
    pub kind: LookKind,
    /// What is asked; yes goes on.
    pub asks: &'static str,
    /// What to do where it is not so.
    pub if_not: &'static str,
    /// Whether it is answered before going on, or only shown: as the house says.
    pub stops: bool,
}

pub(super) const FACE_AND_TOP: Look = Look {
    kind: LookKind::FaceAndTop,
    stops: true,
    asks: "Can you still tell which side is the face, and which edge the top?",
    if_not: "Open it as far as you must, find out, and write both on the outside.",
};

pub(super) const ENCLOSED: Look = Look {
    kind: LookKind::Enclosed,
    stops: true,
    asks: "Is it in, and not over the face?",
    if_not: "Put it in now: what comes next hides it.",
};

pub(super) const STILL: Look = Look {
    kind: LookKind::Still,
    stops: true,
    asks: "Tilt and shake it gently: does nothing move?",
    if_not: "Add fill at the edges and behind, never against the face.",
};

pub(super) const READY: Look = Look {
    kind: LookKind::Ready,
    stops: true,
    asks: "Is it dry, and free of tape, pins, dust and hair?",
    if_not: "Let it cure; lift tape with gentle warm air, never near wax; take pins out and brush it.",
};

/// Returns what is looked at once a layer lies.
pub(super) const fn at(make: &Make) -> Option<Look> {
    let (kind, asks, if_not) = match make {
        Make::GlassTape(_) => (
            LookKind::GlassTape,
            "Does the tape stick everywhere, and is it on the glass alone?",
            "Rub it down with a finger; take off what reaches the frame.",
        ),
        Make::WindowSpacer(_) => (
            LookKind::Spacer,
            "Does nothing touch the face?",
            "Move the strips outward, or cut them anew.",
        ),
        Make::ContactSheet(_) => (
            LookKind::Sheet,
            "No wrinkle on the face, no dust or hair under the sheet, and does it reach over every corner?",
            "Lift the sheet, brush the face, or take a larger one, and lay it again.",
        ),
        Make::CardPockets(_) | Make::SlipOns(_) => (
            LookKind::Corners,
            "Do all four sit tight, so that none slides off?",
            "Tape them to each other across the back, not to the piece.",
        ),
        Make::FaceBoards(_) | Make::Bundle(_) | Make::Folio(_) => (
            LookKind::Boards,
            "Are the boards clean, square, and bound so that none shifts?",
            "Open the binding, wipe the boards, and bind them again.",
        ),
        Make::Wrap(_) => (
            LookKind::Wrap,
            "Flat side inward, and no end loose?",
            "Unwind it and turn it over: bubbles against the art print on it.",
        ),
        Make::LaidTogether(_) => (
            LookKind::Boards,
            "Is a board between every two, no hardware against a face, and does nothing slide?",
            "Take them apart as far as you must, and lay them again as they are listed.",
        ),
        Make::Roll(_) => (
            LookKind::Roll,
            "Face out, no crease, and no tape on the sheet itself?",
            "Unroll it at once and begin again, looser.",
        ),
        Make::SealedBag(_) => (
            LookKind::Bag,
            "Is the bag shut all round, with what keeps it dry inside?",
            "Open it, put that in, and seal it again.",
        ),
        Make::Interleaves(_)
        | Make::BackFill(_)
        | Make::StretchFilm(_)
        | Make::NameTag(_)
        | Make::FacePads(_)
        | Make::EdgePads(_)
        | Make::CornerBlocks(_)
        | Make::PaperRolls(_)
        | Make::CardSprings(_)
        | Make::Skirt(_)
        | Make::PaddingSheets(_)
        | Make::EdgeFill(_)
        | Make::Lining(_)
        | Make::SlottedBox(_)
        | Make::CutBox(_)
        | Make::SavedBox(_)
        | Make::BoughtBox(_)
        | Make::Mailer(_)
        | Make::Tube(_)
        | Make::OuterPaper(_)
        | Make::Enclosures(_)
        | Make::Marks(_) => return None,
    };
    Some(Look {
        kind,
        asks,
        if_not,
        stops: true,
    })
}

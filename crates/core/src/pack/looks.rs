//! One look before the next: what is asked at a step, and what to do where the answer is no.

use serde::Serialize;

use crate::layer::Make;

/// A question that is answered before going on.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Look {
    /// What is asked; yes goes on.
    pub asks: &'static str,
    /// What to do where it is not so.
    pub if_not: &'static str,
}

pub(super) const FACE_AND_TOP: Look = Look {
    asks: "Can you still tell which side is the face, and which edge the top?",
    if_not: "Open it as far as you must, find out, and write both on the outside.",
};

pub(super) const STILL: Look = Look {
    asks: "Tilt and shake it gently: does nothing move?",
    if_not: "Add fill at the edges and behind, never against the face.",
};

pub(super) const READY: Look = Look {
    asks: "Is it dry, and free of tape, pins, dust and hair?",
    if_not: "Let it cure; lift tape with gentle warm air, never near wax; take pins out and brush it.",
};

/// Returns what is looked at once a layer lies.
pub(super) const fn at(make: &Make) -> Option<Look> {
    let (asks, if_not) = match make {
        Make::GlassTape(_) => (
            "Does the tape stick everywhere, and is it on the glass alone?",
            "Rub it down with a finger; take off what reaches the frame.",
        ),
        Make::WindowSpacer(_) => (
            "Does nothing touch the face?",
            "Move the strips outward, or cut them anew.",
        ),
        Make::ContactSheet(_) => (
            "No wrinkle on the face, no dust or hair under the sheet, and does it reach over every corner?",
            "Lift the sheet, brush the face, or take a larger one, and lay it again.",
        ),
        Make::CardPockets(_) | Make::SlipOns(_) => (
            "Do all four sit tight, so that none slides off?",
            "Tape them to each other across the back, not to the piece.",
        ),
        Make::FaceBoards(_) | Make::Bundle(_) | Make::Folio(_) => (
            "Are the boards clean, square, and bound so that none shifts?",
            "Open the binding, wipe the boards, and bind them again.",
        ),
        Make::Wrap(_) => (
            "Flat side inward, and no end loose?",
            "Unwind it and turn it over: bubbles against the art print on it.",
        ),
        Make::Roll(_) => (
            "Face out, no crease, and no tape on the sheet itself?",
            "Unroll it at once and begin again, looser.",
        ),
        Make::SealedBag(_) => (
            "Is the bag shut all round, with what keeps it dry inside?",
            "Open it, put that in, and seal it again.",
        ),
        _ => return None,
    };
    Some(Look { asks, if_not })
}

//! The questions between two layers, each with what to do if the answer is no.

use crate::{house::LookKind, layer::Look};

pub(super) const FACE_AND_TOP: Look = Look {
    kind: LookKind::FaceAndTop,
    stops: true,
    asks: "Can you still tell which side is the face, and which edge the top?",
    if_not: "Open it as far as you must, find out, and write both on the outside.",
};

pub(super) const ENCLOSED: Look = Look {
    kind: LookKind::Enclosed,
    stops: true,
    asks: "Is it in the parcel, and not over the face?",
    if_not: "Put it in now: the next layer hides it.",
};

pub(super) const STILL: Look = Look {
    kind: LookKind::Still,
    stops: true,
    asks: "Hold it shut, tilt and shake it gently: does nothing move?",
    if_not: "Find the side where it moves, and thicken the pad or fill there.",
};

/// Of the sheet over paint that stands up.
pub(super) const SLACK_SHEET: Look = Look {
    kind: LookKind::Sheet,
    stops: true,
    asks: "Does the sheet lie slack over the paint, without dust or hair under it, and reach over every corner?",
    if_not: "Lift the sheet, brush the face, or take a larger one, and lay it again.",
};

pub(super) const PANE: Look = Look {
    kind: LookKind::Ready,
    stops: true,
    asks: "Is the pane whole, without a crack?",
    if_not: "Stop: take the glass out, or tape it on both sides and write why. Shards never travel against the art.",
};

pub(super) const READY: Look = Look {
    kind: LookKind::Ready,
    stops: true,
    asks: "Is it dry, and free of tape, pins, dust and hair?",
    if_not: "Let it cure; lift tape with gentle warm air, never near wax; take pins out and brush it.",
};

//! What is done at each layer, in sentences for somebody with tape on one hand.

use crate::{enclosure::EnclosurePlace, layer::Make};

const FOLD: &str = "Score it, never cut it through; fold it, and tape the joint and the floor.";

/// Returns how a layer is laid.
pub(super) const fn of(make: &Make) -> &'static [&'static str] {
    match make {
        Make::GlassTape(_) => &[
            "Lay the tape straight on the glass, as it is drawn.",
            "Fold each end over to a tab, so that the buyer can peel it.",
        ],
        Make::WindowSpacer(_) => &[
            "Set the strips around the face, clear of what must not be touched.",
            "Tape them to the frame or to the edges, never to the face.",
        ],
        Make::ContactSheet(_) => &[
            "Lay the sheet over the face and around the edges, and pull it until no wrinkle is left.",
            "Tape it on the back only, its end folded to a tab.",
        ],
        Make::Interleaves(_) => &["Lay a sheet between every two, and one on the top one."],
        Make::Bundle(_) => &[
            "Lay the pieces together as the plan says, a board or a sheet between every two.",
            "Bind them so that none slides.",
        ],
        Make::Folio(_) => &[
            "Lay the sheets between the two boards, away from their edges.",
            "Hold them with paper corners, and tape the boards shut all round.",
        ],
        Make::Roll(_) => &[
            "Roll it face out, with its sheet, without pulling.",
            "Tape the sheet to itself, with a tab; no tape on the art.",
        ],
        Make::CardPockets(_) => &[
            "Fold four pockets to the depth of the piece, and push one over each corner.",
            "Tape them to each other across the back, so that later tape lands on them.",
        ],
        Make::SlipOns(_) => {
            &["Push one over each corner, and tape them to each other across the back."]
        }
        Make::BackFill(_) => {
            &["Lay the pad into the hollow behind; it must not press on the canvas."]
        }
        Make::FaceBoards(_) => &[
            "Wipe the boards clean of dust.",
            "Lay them on, slide the work over the edge of the bench, and bind them there: don't lift it.",
        ],
        Make::StretchFilm(_) => {
            &["Wind the film around as often as the plan says, and rub its end down."]
        }
        Make::NameTag(_) => &[
            "Write which piece it is, which side is the face and which edge the top.",
            "Stick it on the outside of what is wrapped: soon all parcels look alike.",
        ],
        Make::SealedBag(_) => {
            &["Slide it into the bag with what keeps it dry, press the air out, and seal it."]
        }
        Make::Wrap(_) => &[
            "Flat side toward the art, bubbles out.",
            "Wind it as often as the plan says, roll both ends in, and tape them down with a tab.",
        ],
        Make::LaidTogether(_) => &[
            "Then bind them with tape twice each way, tight enough that none slides and loose enough that no edge bends.",
        ],
        Make::FacePads(_) => {
            &["Lay one pad over the face and one behind, paper between foam and art."]
        }
        Make::EdgePads(_) => &["Set one along each edge, and tape them to each other."],
        Make::CornerBlocks(_) => {
            &["Set one on each corner, wrapped in paper where it could crumble on the art."]
        }
        Make::PaperRolls(_) => {
            &["Roll the sheets loosely, and lay them along the edges in the box."]
        }
        Make::CardSprings(_) => {
            &["Fold the strips in zigzag, and set them along the edges in the box."]
        }
        Make::Skirt(_) => &["Run the strip around the edges, and tape its ends together."],
        Make::PaddingSheets(_) => &["Lay them flat behind the piece, never before its face."],
        Make::EdgeFill(_) => {
            &["Fill the edges and the back until nothing moves; nothing goes against the face."]
        }
        Make::Lining(_) => &["Set the lining against the sides of the box, the large ones first."],
        Make::SlottedBox(_) | Make::CutBox(_) => &[FOLD],
        Make::SavedBox(_) => &[
            "Make the carton as Box says, and cover every old mark and code.",
            "Tape its floor.",
        ],
        Make::BoughtBox(_) => &["Set it up as it comes, and tape its floor."],
        Make::Mailer(_) => &["Slide it in between its boards, and press the air out."],
        Make::Tube(_) => &[
            "Slide the roll in with its paper, and pad both ends: nothing presses on the roll itself.",
        ],
        Make::OuterPaper(_) => {
            &["Wrap the closed box as a parcel, and tape every open edge of the paper."]
        }
        Make::Enclosures(_) => &["In its sleeve, where the plan says, and never over the face."],
        Make::Marks(_) => &["One on every side that it may lie on; the arrow points to the top."],
    }
}

/// Returns which tools it takes.
pub(super) const fn tools(make: &Make) -> &'static [super::Tool] {
    use super::Tool::{Creaser, Gloves, Knife, Mat, Pencil, SteelRule, TapeGun};
    match make {
        Make::GlassTape(_) => &[Gloves],
        Make::NameTag(_) | Make::Marks(_) => &[Pencil],
        Make::ContactSheet(_) | Make::Interleaves(_) | Make::Roll(_) => {
            &[Gloves, Knife, Mat, SteelRule]
        }
        Make::CardPockets(_) | Make::CardSprings(_) => &[Knife, Mat, SteelRule, Creaser, Pencil],
        Make::SlottedBox(_) | Make::CutBox(_) | Make::SavedBox(_) => {
            &[Knife, Mat, SteelRule, Creaser, Pencil, TapeGun]
        }
        Make::BoughtBox(_) | Make::Mailer(_) | Make::Tube(_) | Make::OuterPaper(_) => &[TapeGun],
        Make::SlipOns(_)
        | Make::Enclosures(_)
        | Make::EdgeFill(_)
        | Make::PaperRolls(_)
        | Make::SealedBag(_) => &[],
        Make::WindowSpacer(_)
        | Make::Bundle(_)
        | Make::Folio(_)
        | Make::BackFill(_)
        | Make::FaceBoards(_)
        | Make::StretchFilm(_)
        | Make::Wrap(_)
        | Make::LaidTogether(_)
        | Make::FacePads(_)
        | Make::EdgePads(_)
        | Make::CornerBlocks(_)
        | Make::Skirt(_)
        | Make::PaddingSheets(_)
        | Make::Lining(_) => &[Knife, Mat, SteelRule],
    }
}

/// Returns how something is put in.
pub(super) const fn enclosing(place: EnclosurePlace, hard: bool) -> &'static [&'static str] {
    match (place, hard) {
        (EnclosurePlace::OnBack, _) => {
            &["In its sleeve, taped to the back of the frame or the bars, never to the art."]
        }
        (EnclosurePlace::UnderLastWrap, _) => {
            &["Flat on the back, in its sleeve and never over the face; the wrap covers it."]
        }
        (EnclosurePlace::OnFloor, true) => {
            &["On the floor of the box, in the gap at the edge, wrapped so that it can't wander."]
        }
        (EnclosurePlace::OnFloor, false) => &["Flat on the floor of the box."],
        (EnclosurePlace::OnTop, true) => {
            &["At the upper edge, in the gap, wrapped so that it can't wander."]
        }
        (EnclosurePlace::OnTop, false) => {
            &["On top, at the upper edge: the first thing that is seen when the box is opened."]
        }
        (EnclosurePlace::InPocket, _) => {
            &["In the pocket on the outside of the box, which is stuck down all round."]
        }
    }
}

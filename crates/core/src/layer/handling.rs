//! What is done with each layer at the bench: one table, with a line for every kind and no default for any column.

use serde::Serialize;

use super::Make;
use crate::{house::LookKind, quantity::Length, space::LayerSlot};

/// What a hand does in a step: it is drawn beside it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Verb {
    /// Look, write or measure.
    Look,
    /// Cut along a rule, or with scissors.
    Cut,
    /// Fold or crease.
    Fold,
    /// Lay or set down.
    Lay,
    /// Push or slide along.
    Slide,
    /// Wind around, or turn over.
    Turn,
    /// Stick tape.
    Tape,
    /// Pick up and carry.
    Lift,
}

/// Something that is in the hand.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Tool {
    /// Cotton gloves: for gilding and the edges of bare paper.
    Gloves,
    /// Nitrile gloves, or clean bare hands: for glass, mirrors and what is heavy, on which cotton slips.
    NitrileGloves,
    /// A knife with a fresh blade.
    Knife,
    /// The mat under the knife.
    Mat,
    /// The steel rule that one cuts along.
    SteelRule,
    /// The square that the first corner is cut by.
    Square,
    /// The tape that reads a side.
    TapeMeasure,
    /// For wraps, paper and tape.
    Scissors,
    /// The tool that makes scores.
    Creaser,
    /// A pencil and a felt pen.
    Pencil,
    /// The tape gun with its roll.
    TapeGun,
    /// A saw with fine teeth, for tubes and cores.
    Saw,
    /// A soft brush, or a vacuum with a soft nozzle.
    Brush,
    /// A gun for hot glue, where a chock is fixed.
    HotGlue,
    /// A screwdriver, for a travel case.
    Screwdriver,
    /// A drill whose stop sets how deep it goes.
    Drill,
    /// Clamps, while glue dries.
    Clamps,
}

impl Tool {
    /// What people call it.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::Gloves => "cotton gloves",
            Self::NitrileGloves => "nitrile gloves",
            Self::Knife => "knife with a fresh blade",
            Self::Mat => "cutting mat",
            Self::SteelRule => "steel rule",
            Self::Creaser => "creaser",
            Self::Pencil => "pencil and felt pen",
            Self::TapeGun => "tape gun",
            Self::Square => "square",
            Self::TapeMeasure => "tape measure",
            Self::Scissors => "scissors",
            Self::Saw => "fine saw",
            Self::Brush => "soft brush",
            Self::HotGlue => "hot glue",
            Self::Screwdriver => "screwdriver",
            Self::Drill => "drill with a depth stop",
            Self::Clamps => "clamps",
        }
    }
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

/// What is taken off, and how.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Undone {
    /// What is opened or taken off.
    pub title: &'static str,
    /// How it is done.
    pub says: &'static str,
}

/// A rectangle that has to come out of one sheet.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum OfSheet {
    /// A board of this width and height.
    Board([Length; 2]),
    /// A foam pad of this width and height, and of this thickness.
    Foam([Length; 2], Length),
}

/// The danger of making a layer.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Caution {
    /// Nothing more than any work does.
    Nothing,
    /// This, be it made of one material or another.
    Says(&'static str),
    /// The knife, or the dust of solid board.
    BoardCut,
}

impl Caution {
    /// Returns what is said of a layer, and whether it is made of solid board.
    #[must_use]
    pub const fn says(self, solid: bool) -> Option<&'static str> {
        match self {
            Self::Nothing => None,
            Self::Says(says) => Some(says),
            Self::BoardCut if solid => Some(FIBREBOARD),
            Self::BoardCut => Some(KNIFE),
        }
    }
}

/// What is done with one layer at the bench.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Handling {
    /// What the hand does.
    pub verb: Verb,
    /// The tools that it takes.
    pub tools: &'static [Tool],
    /// The question once it lies; `None` if nothing is looked at.
    pub look: Option<Look>,
    /// The danger of making it.
    pub caution: Caution,
    /// How the buyer takes it off; `None` if it comes off with another layer.
    pub undone: Option<Undone>,
    /// The rectangle that has to come out of one sheet; `None` for what comes off a roll, is bought, or is judged by its
    /// own sheets, as a box is.
    pub of_sheet: Option<OfSheet>,
}

pub(crate) const KNIFE: &str = "Knife: work on a mat with several light passes. Keep your thumb off the rule's edge and cut away from your hand. Cap the blade.";
pub(crate) const FOAM: &str = "Foam: it crumbs and dusts; score and snap it, vacuum the bench, and ventilate where a hot wire is used.";
pub(crate) const FIBREBOARD: &str =
    "Fibreboard and wood: cut with a dust mask on, outdoors or under suction, or have it cut.";
pub(crate) const GLASS: &str =
    "Glass: wear nitrile gloves and closed shoes, and never lift by the glazing.";
pub(crate) const FILM: &str = "Plastic bags: keep them from small children, and tell the buyer.";

const fn look(kind: LookKind, asks: &'static str, if_not: &'static str) -> Option<Look> {
    Some(Look {
        kind,
        asks,
        if_not,
        stops: true,
    })
}

const fn undone(title: &'static str, says: &'static str) -> Option<Undone> {
    Some(Undone { title, says })
}

const fn board(width: Length, height: Length) -> Option<OfSheet> {
    Some(OfSheet::Board([width, height]))
}

const fn foam(width: Length, height: Length, thickness: Length) -> Option<OfSheet> {
    Some(OfSheet::Foam([width, height], thickness))
}

impl Handling {
    /// Returns what is done with a layer in its place.
    #[must_use]
    pub const fn of(make: &Make, slot: LayerSlot) -> Self {
        use Tool::{
            Brush, Clamps, Creaser, Drill, Gloves, Knife, Mat, Pencil, Saw, Scissors, Screwdriver,
            SteelRule, TapeGun, TapeMeasure,
        };
        match make {
            Make::GlassTape(_) => Self {
                verb: Verb::Tape,
                tools: &[Gloves, Scissors],
                look: look(
                    LookKind::GlassTape,
                    "Does the tape stick everywhere, and is it on the glass alone?",
                    "Rub it down with a finger; take off what reaches the frame.",
                ),
                caution: Caution::Says(GLASS),
                undone: undone(
                    "Tape on the glass",
                    "Peel it slowly, folded flat back over itself. If the glass is broken, leave the tape on and tell us.",
                ),
                of_sheet: None,
            },
            Make::Fixing(fixing) => Self {
                verb: Verb::Lay,
                tools: &[Gloves, Knife, SteelRule, Scissors, Pencil, TapeMeasure],
                look: look(
                    LookKind::Spacer,
                    "Lift one edge of the board a finger's width: does the piece stay where it is?",
                    "Lay it level, and rub each hinge down again from below.",
                ),
                caution: Caution::BoardCut,
                undone: undone(
                    "Hinges behind",
                    "Leave it face up on its board. Slide it over the edge of a table, and cut each hinge on the back of the board; peel what is left off the piece from behind.",
                ),
                of_sheet: board(fixing.width, fixing.height),
            },
            Make::WindowSpacer(_) => Self {
                verb: Verb::Lay,
                tools: &[Gloves, Scissors],
                look: look(
                    LookKind::Spacer,
                    "Does nothing touch the face?",
                    "Move the strips outward, or cut them anew.",
                ),
                caution: Caution::Says(KNIFE),
                undone: undone(
                    "Strips around the face",
                    "They keep everything off the face: peel them from the edges, and touch nothing in between.",
                ),
                of_sheet: None,
            },
            Make::ContactSheet(_) => Self {
                verb: Verb::Lay,
                tools: &[Gloves, Scissors],
                look: look(
                    LookKind::Sheet,
                    "No wrinkle on the face, no dust or hair under the sheet, and does it reach over every corner?",
                    "Lift the sheet, brush the face, or take a larger one, and lay it again.",
                ),
                caution: Caution::Nothing,
                undone: undone(
                    "Sheet over the face",
                    "It is taped on the back only, by a tab. Fold it open and lift it straight off the face; don't drag it.",
                ),
                of_sheet: None,
            },
            Make::Interleaves(_) => Self {
                verb: Verb::Lay,
                tools: &[Gloves],
                look: None,
                caution: Caution::Nothing,
                undone: undone(
                    "Sheet over the face",
                    "It is taped on the back only, by a tab. Fold it open and lift it straight off the face; don't drag it.",
                ),
                of_sheet: None,
            },
            Make::Bundle(_) => Self {
                verb: Verb::Lay,
                tools: &[Gloves, Scissors],
                look: look(
                    LookKind::Boards,
                    "Are the boards clean, square, and bound so that none shifts?",
                    "Open the binding, wipe the boards, and bind them again.",
                ),
                caution: Caution::BoardCut,
                undone: undone(
                    "Bundle",
                    "Cut the bands at the edges, and lift the pieces off one by one, with what lies between.",
                ),
                of_sheet: None,
            },
            Make::Folio(folio) => Self {
                verb: Verb::Tape,
                tools: &[Gloves, Scissors, TapeMeasure],
                look: look(
                    LookKind::Boards,
                    "Are the boards clean, square, and bound so that none shifts?",
                    "Open the binding, wipe the boards, and bind them again.",
                ),
                caution: Caution::BoardCut,
                undone: undone(
                    "Two boards",
                    if folio.hinges.is_some() {
                        "Peel the tape all round and lift the front board straight off. Hinges hold the sheet from behind: cut them on the back of the board, never lift the sheet by its edge."
                    } else {
                        "Peel the tape along one long side and open them like a book. Paper corners hold the sheet: push them off, don't pull the sheet."
                    },
                ),
                of_sheet: board(folio.width, folio.height),
            },
            Make::CardPockets(_) => Self {
                verb: Verb::Slide,
                tools: &[Creaser, Scissors],
                look: look(
                    LookKind::Corners,
                    "Do all four sit tight, so that none slides off?",
                    "Tape them to each other across the back, not to the piece.",
                ),
                caution: Caution::Says(KNIFE),
                undone: undone(
                    "Corners",
                    "They are taped to each other across the back, not to the piece: peel the tape, and pull each straight off.",
                ),
                of_sheet: None,
            },
            Make::SlipOns(_) => Self {
                verb: Verb::Slide,
                tools: &[Scissors],
                look: look(
                    LookKind::Corners,
                    "Do all four sit tight, so that none slides off?",
                    "Tape them to each other across the back, not to the piece.",
                ),
                caution: Caution::Nothing,
                undone: undone(
                    "Corners",
                    "They are taped to each other across the back, not to the piece: peel the tape, and pull each straight off.",
                ),
                of_sheet: None,
            },
            Make::FoamCollar(collar) => Self {
                verb: Verb::Lay,
                tools: &[Gloves, Scissors],
                look: look(
                    LookKind::Corners,
                    "Does foam alone touch the frame, and no tape?",
                    "Peel the tape off the frame at once, flat back over itself, and tape foam to foam.",
                ),
                caution: Caution::Says(FOAM),
                undone: undone(
                    "Collar of foam",
                    "Peel the tape at the corners of the foam, and lift the bars away: nothing is fixed to the frame.",
                ),
                of_sheet: foam(collar.height, collar.height, collar.thickness),
            },
            Make::RimStrip(strip) => Self {
                verb: Verb::Lay,
                tools: &[Gloves, Scissors],
                look: look(
                    LookKind::Corners,
                    "Does foam stand around the whole rim, and no tape on the piece?",
                    "Peel the tape off the piece at once, flat back over itself, and set the strips end to end.",
                ),
                caution: Caution::Says(FOAM),
                undone: undone(
                    "Foam around the rim",
                    "Cut the band of tape on the foam, and bend the strips away: nothing is fixed to the piece.",
                ),
                of_sheet: foam(strip.length, strip.height, strip.thickness),
            },
            Make::Cradle(cradle) => Self {
                verb: Verb::Lay,
                tools: &[Gloves, Scissors, Pencil, TapeMeasure],
                look: look(
                    LookKind::Corners,
                    "Does it touch every chock, and can't it turn?",
                    "Take it off, and set the chock nearer that stands away from it.",
                ),
                caution: Caution::BoardCut,
                undone: undone(
                    "Board with chocks",
                    "It lies between chocks that are fixed to the board: lift it straight up with both hands, and don't slide it.",
                ),
                of_sheet: board(cradle.width, cradle.height),
            },
            Make::BackFill(_) => Self {
                verb: Verb::Lay,
                tools: &[],
                look: None,
                caution: Caution::Says(FOAM),
                undone: undone(
                    "Pad behind",
                    "It lies loose in the hollow behind: take it out before you hang the piece.",
                ),
                of_sheet: None,
            },
            Make::FaceBoards(boards) => Self {
                verb: Verb::Lay,
                tools: &[Brush, Scissors],
                look: look(
                    LookKind::Boards,
                    "Are the boards clean, square, and bound so that none shifts?",
                    "Open the binding, wipe the boards, and bind them again.",
                ),
                caution: Caution::BoardCut,
                undone: undone(
                    "Boards",
                    "Lay it face up. Peel the tape that binds them at the edges, and lift the board straight off the face; don't slide it.",
                ),
                of_sheet: board(boards.width, boards.height),
            },
            Make::StretchFilm(_) => Self {
                verb: Verb::Turn,
                tools: &[Scissors],
                look: None,
                caution: Caution::Nothing,
                undone: undone("Film", "Slit it at an edge, never over the face."),
                of_sheet: None,
            },
            Make::NameTag(_) => Self {
                verb: Verb::Look,
                tools: &[Pencil, Scissors],
                look: None,
                caution: Caution::Nothing,
                undone: None,
                of_sheet: None,
            },
            Make::SealedBag(_) => Self {
                verb: Verb::Slide,
                tools: &[],
                look: look(
                    LookKind::Bag,
                    "Is the bag shut all round, with what keeps it dry inside?",
                    "Open it, put that in, and seal it again.",
                ),
                caution: Caution::Says(FILM),
                undone: undone(
                    "Bag",
                    "Cut it open along its seal, beside the piece, and take the sachets out; they are not to be eaten.",
                ),
                of_sheet: None,
            },
            Make::Roll(_) => Self {
                verb: Verb::Turn,
                tools: &[Gloves, Scissors],
                look: look(
                    LookKind::Roll,
                    "Face out, no crease, and no tape on the sheet itself?",
                    "Unroll it at once and begin again, looser.",
                ),
                caution: Caution::Nothing,
                undone: undone(
                    "Roll",
                    "Open the band, not with a blade, and unroll it face up on a clean table. Lay something soft on its corners, and leave it a day.",
                ),
                of_sheet: None,
            },
            Make::Wrap(_) => Self {
                verb: Verb::Turn,
                tools: &[Scissors],
                look: look(
                    LookKind::Wrap,
                    "Flat side inward, and no end loose?",
                    if matches!(slot, LayerSlot::BoxWrap) {
                        "Unwind it and turn it over."
                    } else {
                        "Unwind it and turn it over: bubbles against the art print on it."
                    },
                ),
                caution: Caution::Nothing,
                undone: undone(
                    match slot {
                        LayerSlot::FirstWrap => "Wrap",
                        LayerSlot::InsetWrap => "Wrap between the ends",
                        LayerSlot::BoxWrap => "Wrap around the inner box",
                        _ => "Outer wrap",
                    },
                    "Find the end of the tape: it is folded to a tab. Peel it and unwind; don't cut into the wrap.",
                ),
                of_sheet: None,
            },
            Make::LaidTogether(_) => Self {
                verb: Verb::Lay,
                tools: &[Gloves, Scissors],
                look: look(
                    LookKind::Boards,
                    "Is a board between each and the next, no hardware against a face, and does nothing slide?",
                    "Take them apart as far as you must, and lay them again as they are listed.",
                ),
                caution: Caution::Nothing,
                undone: undone(
                    "Pieces bound together",
                    "Cut the bands of tape at the edges. Lift off one piece, then what lies under it: a board, foam or padding.",
                ),
                of_sheet: None,
            },
            Make::FacePads(pads) => Self {
                verb: Verb::Lay,
                tools: &[],
                look: None,
                caution: Caution::Says(FOAM),
                undone: undone(
                    "Foam",
                    "Peel the tape, and lift the foam off; nothing is glued to the piece.",
                ),
                of_sheet: foam(pads.width, pads.height, pads.thickness),
            },
            Make::EdgePads(pads) => Self {
                verb: Verb::Tape,
                tools: &[Scissors],
                look: None,
                caution: Caution::Says(FOAM),
                undone: undone(
                    "Foam",
                    "Peel the tape, and lift the foam off; nothing is glued to the piece.",
                ),
                // Long edges are padded end to end.
                of_sheet: foam(pads.width, pads.width, pads.thickness),
            },
            Make::CornerBlocks(blocks) => Self {
                verb: Verb::Lay,
                tools: &[Scissors],
                look: None,
                caution: Caution::Says(FOAM),
                undone: undone(
                    "Foam",
                    "Peel the tape, and lift the foam off; nothing is glued to the piece.",
                ),
                of_sheet: foam(blocks.leg, blocks.height, blocks.thickness),
            },
            Make::PaperRolls(_) => Self {
                verb: Verb::Lay,
                tools: &[Scissors],
                look: None,
                caution: Caution::Nothing,
                undone: undone(
                    "Filling",
                    "Take it out at the edges, until your hands reach under the piece.",
                ),
                of_sheet: None,
            },
            Make::CardSprings(_) => Self {
                verb: Verb::Fold,
                tools: &[Creaser, Scissors],
                look: None,
                caution: Caution::Nothing,
                undone: undone(
                    "Filling",
                    "Take it out at the edges, until your hands reach under the piece.",
                ),
                of_sheet: None,
            },
            Make::Skirt(_) => Self {
                verb: Verb::Fold,
                tools: &[Scissors],
                look: None,
                caution: Caution::Nothing,
                undone: undone(
                    "Filling",
                    "Take it out at the edges, until your hands reach under the piece.",
                ),
                of_sheet: None,
            },
            Make::PaddingSheets(_) => Self {
                verb: Verb::Lay,
                tools: &[Scissors],
                look: None,
                caution: Caution::Nothing,
                undone: undone(
                    "Flat padding",
                    "It lies behind; it comes out with the piece.",
                ),
                of_sheet: None,
            },
            Make::EdgeFill(_) => Self {
                verb: Verb::Lay,
                tools: &[Scissors],
                look: None,
                caution: Caution::Nothing,
                undone: undone(
                    "Filling",
                    "Take it out at the edges, until your hands reach under the piece.",
                ),
                of_sheet: None,
            },
            Make::Lining(_) => Self {
                verb: Verb::Lay,
                tools: &[],
                look: None,
                caution: Caution::Says(FOAM),
                undone: None,
                of_sheet: None,
            },
            Make::SlottedBox(_) => Self {
                verb: Verb::Fold,
                tools: &[Creaser, TapeGun],
                look: None,
                caution: Caution::Says(KNIFE),
                undone: None,
                of_sheet: None,
            },
            Make::CutBox(_) => Self {
                verb: Verb::Fold,
                tools: &[Creaser, TapeGun],
                look: None,
                caution: Caution::Says(KNIFE),
                undone: None,
                of_sheet: None,
            },
            Make::SavedBox(_) => Self {
                verb: Verb::Fold,
                tools: &[Knife, Mat, SteelRule, TapeMeasure, Creaser, Pencil, TapeGun],
                look: None,
                caution: Caution::Says(KNIFE),
                undone: None,
                of_sheet: None,
            },
            Make::BoughtBox(_) => Self {
                verb: Verb::Fold,
                tools: &[TapeGun],
                look: None,
                caution: Caution::Nothing,
                undone: None,
                of_sheet: None,
            },
            Make::TravelCase(case) if case.kept => Self {
                verb: Verb::Lay,
                tools: &[Screwdriver],
                look: look(
                    LookKind::Boards,
                    "Is the lining whole, and is every screw of the lid there?",
                    "Mend the lining, or replace what is missing, before anything goes in.",
                ),
                caution: Caution::Nothing,
                undone: None,
                of_sheet: None,
            },
            Make::TravelCase(case) => Self {
                verb: Verb::Lay,
                tools: if case.heights_mm.len() > 1 {
                    &[Saw, Drill, Screwdriver, Clamps, TapeMeasure, Pencil]
                } else {
                    &[Saw, Drill, Screwdriver, TapeMeasure, Pencil]
                },
                look: look(
                    LookKind::Boards,
                    "Is the frame square, and does every screw sit flush?",
                    "Measure both diagonals, push it square, and drive the screws home.",
                ),
                caution: Caution::BoardCut,
                undone: None,
                of_sheet: board(case.face_mm[0], case.face_mm[1]),
            },
            Make::Mailer(_) => Self {
                verb: Verb::Slide,
                tools: &[],
                look: None,
                caution: Caution::Nothing,
                undone: None,
                of_sheet: None,
            },
            Make::Sandwich(sandwich) => Self {
                verb: Verb::Fold,
                tools: &[Creaser, Scissors, TapeGun],
                look: None,
                caution: if sandwich.of_board {
                    Caution::Says(KNIFE)
                } else {
                    Caution::Nothing
                },
                undone: None,
                of_sheet: if sandwich.of_board {
                    board(sandwich.around, sandwich.along)
                } else {
                    None
                },
            },
            Make::Tube(tube) => Self {
                verb: Verb::Tape,
                tools: &[TapeGun],
                look: None,
                caution: if tube.triangular {
                    Caution::Says(KNIFE)
                } else {
                    Caution::Nothing
                },
                undone: None,
                of_sheet: None,
            },
            Make::OuterPaper(_) => Self {
                verb: Verb::Fold,
                tools: &[Scissors],
                look: None,
                caution: Caution::Nothing,
                undone: undone(
                    "Outer paper",
                    "Slit it along an edge of the box, only as deep as the paper.",
                ),
                of_sheet: None,
            },
            Make::Enclosures(_) => Self {
                verb: Verb::Lay,
                tools: &[],
                look: None,
                caution: Caution::Nothing,
                undone: undone(
                    "Look for",
                    "It lies here: take it out before you throw any padding away.",
                ),
                of_sheet: None,
            },
            Make::Marks(_) => Self {
                verb: Verb::Tape,
                tools: &[],
                look: None,
                caution: Caution::Nothing,
                undone: None,
                of_sheet: None,
            },
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::layer::{FaceBoards, NameTag, StretchFilm};

    #[test]
    fn stiff_board_asks_for_a_mask_and_a_tag_for_nothing() {
        let boards = FaceBoards::for_piece(
            crate::piece::PieceSize {
                width: Length::mm(400.0),
                height: Length::mm(500.0),
                depth: Length::mm(20.0),
            },
            Length::ZERO,
            Length::mm(3.0),
            false,
        );
        let caution = |make: &Make, solid| {
            Handling::of(make, LayerSlot::FaceBoards)
                .caution
                .says(solid)
        };
        let make = Make::FaceBoards(boards);
        assert_eq!(caution(&make, true), Some(FIBREBOARD));
        assert_eq!(caution(&make, false), Some(KNIFE));
        assert_eq!(caution(&Make::NameTag(NameTag { count: 1 }), false), None);
        assert_eq!(
            caution(&Make::StretchFilm(StretchFilm { turns: 2 }), false),
            None
        );
    }
}

//! Cautions: what could hurt whoever makes a layer, shown where the step is.

use super::Make;
use crate::material::BoardBuild;

const KNIFE: &str = "Knife: a mat underneath, several light passes, the hand off the line, cut away from the body, cap the blade.";
const FOAM: &str = "Foam: it crumbs and dusts; score and snap it, vacuum the bench, and ventilate where a hot wire is used.";
const FIBREBOARD: &str =
    "Fibreboard and wood: cut with a dust mask on, outdoors or under suction, or have it cut.";
pub(crate) const GLASS: &str = "Glass: wear gloves, and never lift by the glazing.";
const FILM: &str = "Plastic bags: keep them from small children, and tell the buyer.";

/// Returns the cautions for making a layer, in the order in which they matter.
#[must_use]
pub(super) fn cautions_of(make: &Make, board: Option<BoardBuild>) -> Vec<&'static str> {
    let solid = board == Some(BoardBuild::Solid);
    match make {
        Make::GlassTape(_) => vec![GLASS],
        Make::FaceBoards(_) | Make::Bundle(_) | Make::Folio(_) if solid => vec![FIBREBOARD],
        Make::WindowSpacer(_)
        | Make::Bundle(_)
        | Make::Folio(_)
        | Make::CardPockets(_)
        | Make::FaceBoards(_)
        | Make::SlottedBox(_)
        | Make::CutBox(_)
        | Make::SavedBox(_) => vec![KNIFE],
        Make::Tube(tube) if tube.triangular => vec![KNIFE],
        Make::BackFill(_) | Make::FacePads(_) | Make::EdgePads(_) | Make::CornerBlocks(_) => {
            vec![FOAM]
        }
        Make::SealedBag(_) => vec![FILM],
        Make::ContactSheet(_)
        | Make::Interleaves(_)
        | Make::SlipOns(_)
        | Make::StretchFilm(_)
        | Make::NameTag(_)
        | Make::Roll(_)
        | Make::Wrap(_)
        | Make::LaidTogether(_)
        | Make::PaperRolls(_)
        | Make::CardSprings(_)
        | Make::Skirt(_)
        | Make::PaddingSheets(_)
        | Make::EdgeFill(_)
        | Make::Lining(_)
        | Make::BoughtBox(_)
        | Make::Mailer(_)
        | Make::Tube(_)
        | Make::OuterPaper(_)
        | Make::Enclosures(_)
        | Make::Marks(_) => Vec::new(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::layer::{NameTag, StretchFilm};

    #[test]
    fn stiff_board_asks_for_a_mask_and_a_tag_for_nothing() {
        let boards = crate::layer::FaceBoards::for_piece(
            crate::piece::PieceSize {
                width: crate::quantity::Length::mm(400.0),
                height: crate::quantity::Length::mm(500.0),
                depth: crate::quantity::Length::mm(20.0),
            },
            crate::quantity::Length::ZERO,
            crate::quantity::Length::mm(3.0),
            false,
        );
        let make = Make::FaceBoards(boards);
        assert_eq!(cautions_of(&make, Some(BoardBuild::Solid)), [FIBREBOARD]);
        assert_eq!(cautions_of(&make, Some(BoardBuild::Corrugated)), [KNIFE]);
        assert!(cautions_of(&Make::NameTag(NameTag { count: 1 }), None).is_empty());
        assert!(cautions_of(&Make::StretchFilm(StretchFilm { turns: 2 }), None).is_empty());
    }
}

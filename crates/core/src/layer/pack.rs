//! A pack: a box with what cushions what it holds. A second one goes around the first.

use crate::{
    house::{CartonStyle, Choices},
    material::{Board, Fill, MaterialId},
    space::LayerSlot,
};

/// What a pack holds.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum PackOf {
    /// The wrapped piece.
    Piece,
    /// The closed first pack.
    Pack,
}

/// What a pack is made of and how.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Pack<'a> {
    pub of: PackOf,
    pub fill: &'a Fill,
    pub board: &'a Board,
    /// How its box is made; as the rule says when absent.
    pub style: Option<CartonStyle>,
    /// Whether a sheet of its board is glued inside on both faces, so that its edge bears twice.
    pub doubled: bool,
}

impl PackOf {
    /// Returns the pack that a box or its fill belongs to.
    pub(crate) const fn at(slot: LayerSlot) -> Self {
        match slot {
            LayerSlot::SecondFill | LayerSlot::SecondBox => Self::Pack,
            _ => Self::Piece,
        }
    }

    /// Returns the place of its fill.
    pub(crate) const fn fill_slot(self) -> LayerSlot {
        match self {
            Self::Piece => LayerSlot::Fill,
            Self::Pack => LayerSlot::SecondFill,
        }
    }

    /// Returns the place of its box.
    pub(crate) const fn box_slot(self) -> LayerSlot {
        match self {
            Self::Piece => LayerSlot::Box,
            Self::Pack => LayerSlot::SecondBox,
        }
    }

    /// Returns the choices that make its box in a style and of a board, where they are named.
    pub(crate) fn choices(self, style: Option<CartonStyle>, board: Option<MaterialId>) -> Choices {
        match self {
            Self::Piece => Choices {
                box_style: style,
                box_board: board,
                ..Choices::default()
            },
            Self::Pack => Choices {
                second_style: style,
                second_board: board,
                ..Choices::default()
            },
        }
    }
}

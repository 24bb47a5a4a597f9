//! The cast: what a rehearsal knows of the pieces before the first act, from what was measured and from nothing else.

use crate::{piece::Piece, quantity::Length};

/// What the face of a piece bears.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Bears {
    /// Nothing: what touches it takes some of it along.
    Bare,
    /// A clean sheet or a board that lies on it flat.
    Soft,
    /// What lies on it anyhow.
    Fast,
}

/// A piece as far as hands have to know it.
#[derive(Debug, Clone, Copy)]
pub(super) struct Player {
    pub bears: Bears,
    /// Its bare border, where it has one.
    pub border: Option<Length>,
}

impl Player {
    pub(super) fn of(piece: &Piece) -> Self {
        let bears = if piece.is_friable() {
            Bears::Bare
        } else if piece.bare_medium().is_some() {
            Bears::Soft
        } else {
            Bears::Fast
        };
        Self {
            bears,
            border: piece.bare_border,
        }
    }
}

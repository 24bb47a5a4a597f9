//! Several wrapped pieces in one box: in what order they lie and which way each faces.
//!
//! A board as large as the larger of both lies between every two. Of all orders and facings the one is taken that breaks the
//! fewest rules, then the thinnest, then the one whose weight lies nearest the floor that it rests on.
//! Source: house rule.

mod judge;
mod search;
mod tiers;

pub use judge::{BrokenRule, Pair, Rule};
pub use tiers::{Flat, Keeping, Layings, OnBoard, Tier, Tiers};

use serde::{Deserialize, Serialize};

use crate::{
    quantity::{Length, Mass},
    space::Envelope,
};
use judge::Judged;

/// No box holds more pieces.
pub const MOST: usize = 12;

/// What a side of a wrapped piece is to whatever lies on it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum MemberFace {
    /// Paint, paper or canvas, whatever is wrapped around it.
    Bare,
    /// Glass or acrylic.
    Glazed,
    /// Stiff all over: a panel's back, a framed back, a folio.
    Stiff,
}

/// A wrapped piece among others.
#[derive(Debug, Clone, PartialEq)]
pub struct Member {
    /// Across, as it hangs.
    pub across: Length,
    /// Up, as it hangs.
    pub up: Length,
    /// From its face to its back, with all that is around it.
    pub through: Length,
    /// With all that is around it.
    pub mass: Mass,
    /// What its face is.
    pub face: MemberFace,
    /// Whether hardware stands off its back.
    pub hardware: bool,
    /// How much it resists a knock, the stiffest the highest; only the order counts.
    pub stiffness: f64,
    /// Whether it has no wrap of its own, and lies in a fold of the pad that it shares with its neighbours.
    pub folded: bool,
    /// Whether it is several side by side on one board, which take a board over them at an end.
    pub several: bool,
}

impl Member {
    /// Returns what it fills.
    #[must_use]
    pub const fn envelope(&self) -> Envelope {
        Envelope {
            across: self.across,
            up: self.up,
            through: self.through,
        }
    }
}

/// One place of an arrangement, from the front of the box.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema), schema(as = Placed))]
pub struct PlacedPiece {
    /// Which, counted from 0 as they were given.
    pub piece: usize,
    /// Whether its face looks to the front of the box.
    pub faces_front: bool,
}

/// What parts two pieces.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Parting {
    /// A board between every two.
    pub board: Length,
    /// More between two sides of which one has hardware, and outside an end that has.
    pub pad: Length,
    /// Of a pad that wraps and parts what lies in its folds: between two alike it takes the board's place.
    pub fold: Length,
}

/// Pieces in an order.
#[derive(Debug, Clone, PartialEq)]
pub struct Arrangement {
    /// From the front of the box to its back.
    pub order: Vec<PlacedPiece>,
    /// Of the whole stack, with what parts it.
    pub thickness: Length,
    /// How far its centre of mass lies from the back, which it rests on.
    pub centre: Length,
    /// What lies between every two.
    pub pairs: Vec<Pair>,
    /// Rules that this order breaks.
    pub broken: Vec<BrokenRule>,
}

impl Arrangement {
    /// Returns the best arrangement of one to twelve pieces.
    ///
    /// Every order and facing counts, and none is passed over: of those that hold the same pieces nearest the back and end with
    /// the same one, only the best can become the best of all.
    #[must_use]
    pub fn best(members: &[Member], parting: Parting) -> Option<Self> {
        let order = search::best(members, parting)?;
        Some(Self::of(members, parting, &order))
    }

    /// Returns the size of each end that looks outward with its hardware, for the pad over it.
    #[must_use]
    pub(crate) fn hard_ends(&self, members: &[Member]) -> Vec<[Length; 2]> {
        let (Some(front), Some(back)) = (self.order.first(), self.order.last()) else {
            return Vec::new();
        };
        [(front, true), (back, false)]
            .into_iter()
            .filter(|(placed, front)| judge::looks_out_hard(members, placed, *front))
            .map(|(placed, _)| {
                let member = &members[placed.piece];
                [member.across, member.up]
            })
            .collect()
    }

    /// Notes where unlike depths lie side by side: only by hand they do.
    pub(crate) fn mind_depths(&mut self, tiers: &[Tier], pieces: &[Member], keeping: Keeping) {
        for (at, placed) in self.order.iter().enumerate() {
            let depths = tiers[placed.piece]
                .pieces
                .iter()
                .map(|on| pieces[on.piece].through);
            let thinnest = depths.clone().min();
            if let Some((least, most)) = thinnest.zip(depths.max())
                && most - least > keeping.depths_within
            {
                self.broken.push(BrokenRule::of(Rule::LikeDepths, at));
            }
        }
    }

    /// Returns the size of each end where several lie side by side, for the board over them.
    #[must_use]
    pub(crate) fn boarded_ends(&self, members: &[Member]) -> Vec<[Length; 2]> {
        [self.order.first(), self.order.last()]
            .into_iter()
            .flatten()
            .map(|placed| &members[placed.piece])
            .filter(|member| member.several)
            .map(|member| [member.across, member.up])
            .collect()
    }

    /// Returns what an order comes to that somebody chose by hand, with the rules that it breaks.
    #[must_use]
    pub fn of(members: &[Member], parting: Parting, order: &[PlacedPiece]) -> Self {
        let judged = Judged::of(members, parting, order);
        Self {
            order: order.to_vec(),
            thickness: judged.thickness,
            centre: judged.centre(),
            pairs: judged.pairs,
            broken: judged.broken,
        }
    }
}

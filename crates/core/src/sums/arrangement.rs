//! Several wrapped pieces in one box.

use serde::{Deserialize, Serialize};

use super::Sum;
use crate::{
    Refusal, Refusals,
    arrange::{Arrangement, BrokenRule, MOST, Member, MemberFace, Pair, Parting, PlacedPiece},
    quantity::{Length, Mass},
};

/// Wrapped pieces, and what parts them.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct ArrangementSum {
    /// One to twelve.
    pub pieces: Vec<ArrangementPiece>,
    /// A board between every two, 0 to 50; 4 when absent.
    pub board_mm: Option<f64>,
    /// More where hardware lies, between two or at an end, 0 to 50; 10 when absent.
    pub pad_mm: Option<f64>,
    /// Of a pad that wraps and parts what lies in its folds, 0 to 50; 5 when absent.
    pub fold_mm: Option<f64>,
    /// An order to judge, from the front of the box; the best is looked for when absent.
    pub order: Option<Vec<PlacedPiece>>,
}

/// A wrapped piece.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct ArrangementPiece {
    /// Across, over its wrap, 1 to 5000.
    pub across_mm: f64,
    /// Up, 1 to 5000.
    pub up_mm: f64,
    /// From face to back, 1 to 1000.
    pub through_mm: f64,
    /// With its wrap, 0 to 500 000.
    pub mass_g: f64,
    /// What its face is.
    pub face: MemberFace,
    /// Whether hardware stands off its back.
    #[serde(default)]
    pub hardware: bool,
    /// How much it resists a knock beside the others, 0 to 1000; 1 when absent.
    pub stiffness: Option<f64>,
    /// Whether it has no wrap of its own, and lies in a fold of the pad.
    #[serde(default)]
    pub folded: bool,
}

/// Pieces in an order.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ArrangementAnswer {
    /// From the front of the box to its back; pieces counted from 0 as they were given.
    pub order: Vec<PlacedPiece>,
    /// Of the whole stack.
    pub thickness_mm: f64,
    /// How far its centre of mass lies from the back, on which it rests.
    pub centre_mm: f64,
    /// What lies between every two.
    pub pairs: Vec<Pair>,
    /// Rules that it breaks.
    pub broken: Vec<BrokenRule>,
}

const BOARD_MM: f64 = 4.0;
const PAD_MM: f64 = 10.0;
const FOLD_MM: f64 = 5.0;

impl Sum for ArrangementSum {
    type Answer = ArrangementAnswer;

    fn work(&self) -> Result<ArrangementAnswer, Vec<Refusal>> {
        let mut refusals = Refusals::default();
        let mut within = |field: String, value: f64, least: f64, most: f64| {
            if !(least..=most).contains(&value) {
                let says = format!("{value} is not from {least} to {most}");
                refusals.refuse(field, says);
            }
            value
        };
        let board = within(
            "board_mm".into(),
            self.board_mm.unwrap_or(BOARD_MM),
            0.0,
            50.0,
        );
        let pad = within("pad_mm".into(), self.pad_mm.unwrap_or(PAD_MM), 0.0, 50.0);
        let fold = within("fold_mm".into(), self.fold_mm.unwrap_or(FOLD_MM), 0.0, 50.0);
        let members: Vec<Member> = self
            .pieces
            .iter()
            .enumerate()
            .map(|(at, piece)| {
                let mut number = |name: &str, value, least, most| {
                    within(format!("pieces[{at}].{name}"), value, least, most)
                };
                Member {
                    across: Length::mm(number("across_mm", piece.across_mm, 1.0, 5000.0)),
                    up: Length::mm(number("up_mm", piece.up_mm, 1.0, 5000.0)),
                    through: Length::mm(number("through_mm", piece.through_mm, 1.0, 1000.0)),
                    mass: Mass::g(number("mass_g", piece.mass_g, 0.0, 500_000.0)),
                    face: piece.face,
                    hardware: piece.hardware,
                    stiffness: number("stiffness", piece.stiffness.unwrap_or(1.0), 0.0, 1000.0),
                    folded: piece.folded,
                    several: false,
                }
            })
            .collect();
        if !(1..=MOST).contains(&members.len()) {
            let says = format!("{} pieces: give 1 to {MOST}", members.len());
            refusals.refuse("pieces", says);
        }
        if let Some(order) = &self.order {
            let mut named: Vec<usize> = order.iter().map(|placed| placed.piece).collect();
            named.sort_unstable();
            if !named.into_iter().eq(0..members.len()) {
                let says = "name every piece once, counted from 0";
                refusals.refuse("order", says);
            }
        }
        refusals.done()?;
        let parting = Parting {
            board: Length::mm(board),
            pad: Length::mm(pad),
            fold: Length::mm(fold),
        };
        let found = match &self.order {
            Some(order) => Arrangement::of(&members, parting, order),
            None => Arrangement::best(&members, parting).expect("their number was looked at"),
        };
        Ok(ArrangementAnswer {
            order: found.order,
            thickness_mm: found.thickness.as_mm(),
            centre_mm: found.centre.as_mm(),
            pairs: found.pairs,
            broken: found.broken,
        })
    }
}

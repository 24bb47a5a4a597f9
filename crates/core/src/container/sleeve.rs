//! The flat parcel: two boards with sheets between them, in a sleeve of paper or board.

use serde::Serialize;

use super::{Container, Opening, SealStrip, Titles, Use, WayIn, seal::SEAMS};
use crate::{
    act::{Act, Does, Thing},
    part::{PartId, StripId},
    quantity::{Length, Stiffness},
};

/// A sleeve around two boards.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Sandwich {
    /// Whether the sleeve is board; else it is paper.
    pub of_board: bool,
    /// Of the sleeve, around the boards, with its lap.
    #[serde(rename = "around_mm")]
    pub around: Length,
    /// Of the sleeve, along the boards.
    #[serde(rename = "along_mm")]
    pub along: Length,
    /// Of one layer of the sleeve.
    #[serde(rename = "wall_mm")]
    pub wall: Length,
    /// How a sleeve of board resists bending; nothing for paper.
    #[serde(rename = "stiffness_nm")]
    pub stiffness: Option<Stiffness>,
    /// How it is sealed, strip by strip, in the order in which they are laid.
    pub seal: Vec<SealStrip>,
}

const STRIPS: [StripId; 2] = [StripId::AlongTheLap, StripId::AlongEachOpenEdge];

impl Sandwich {
    /// Returns its strips around two boards: one along the lap, one along each edge that is open. Source: house rule.
    #[must_use]
    pub fn sealed([long, short]: [Length; 2], tape_return: Length) -> Vec<SealStrip> {
        let none = Length::ZERO;
        let strip = |on, length, path_mm| SealStrip {
            on,
            order: SEAMS,
            filament: false,
            first: false,
            length,
            path_mm,
        };
        let lap = vec![[long / 2.0, none, none], [long / 2.0, short, none]];
        let edge = |y: Length| vec![[none, y, none], [long, y, none]];
        let open = long + tape_return * 2.0;
        vec![
            strip(STRIPS[0], short, lap),
            strip(STRIPS[1], open, edge(none)),
            strip(STRIPS[1], open, edge(short)),
        ]
    }

    /// Returns it as hands fold, close and open it.
    #[must_use]
    pub fn container(&self, of: &Use) -> Container {
        let part = PartId::Sleeve;
        let what = of.what;
        let size = of.telling.sides(&[self.around, self.along]);
        let (ready, close) = if self.of_board {
            (
                format!(
                    "Score the {size} sleeve where the edges of the boards will lie, and fold each score once and back."
                ),
                vec![Act::on(
                    Does::Fold,
                    part,
                    "Fold it once around the boards, and lap its end over its beginning.",
                )],
            )
        } else {
            (
                format!("Lay the {size} paper on the bench."),
                vec![
                    Act::on(
                        Does::Fold,
                        part,
                        "Fold the long sides of the paper over the boards and lap them.",
                    ),
                    Act::on(Does::Fold, part, "Fold in both ends."),
                ],
            )
        };
        let does = if self.of_board {
            Does::Score
        } else {
            Does::Lay
        };
        Container {
            parts: vec![part],
            strips: self.seal.clone(),
            openings: vec![Opening {
                sealed_by: STRIPS.to_vec(),
                loads: true,
            }],
            way_in: WayIn::End,
            mouth: None,
            stages: Vec::new(),
            all_at_once: true,
            follows: None,
            measured: false,
            lid: "the sleeve",
            titles: Titles {
                ready: "Lay the boards on their sleeve".to_owned(),
                load: "Lay the boards on their sleeve".to_owned(),
                close: "Fold the sleeve around them".to_owned(),
                seal: "Seal the sleeve".to_owned(),
                open: "Sleeve".to_owned(),
            },
            ready: vec![Act::on(does, part, ready)],
            load: vec![Act::goods(
                Does::Lay,
                part,
                format!("Lay {what} in the middle of it, their long edges along its folds."),
            )],
            close,
            seal: vec![Act::tape(
                part,
                &STRIPS,
                "Tape the lap along its whole length, then both open edges.",
            )],
            open: vec![
                Act::cut_open(
                    part,
                    &STRIPS,
                    "Slit the tape along the lap and both edges, no deeper than the tape.",
                ),
                Act::new(
                    Does::Lift,
                    Thing::Goods,
                    "Take the two boards out; don't bend them.",
                ),
            ],
        }
    }
}

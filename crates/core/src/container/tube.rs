//! Tubes: a round one with two caps, or a triangular one that is folded from board.

use serde::Serialize;

use super::{
    Container, Opening, SealStrip, Titles, Use, WayIn,
    folding::{Net, Up},
    seal::SEAMS,
    those,
};
use crate::{
    act::{Act, Does, Thing},
    carton::{Blank, folds::tube as folds},
    part::{PartId, StripId},
    quantity::Length,
};

/// The tube around a roll.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TubeBox {
    /// The least that it must be wide.
    #[serde(rename = "needed_mm")]
    pub needed: Length,
    /// What it is wide: a round tube across, a triangular one along its inner side.
    #[serde(rename = "inside_mm")]
    pub inside: Length,
    /// Of its wall.
    #[serde(rename = "wall_mm")]
    pub wall: Length,
    /// Cut to, pads and air at both ends included.
    #[serde(rename = "length_mm")]
    pub length: Length,
    /// Pad at each end.
    #[serde(rename = "end_pad_mm")]
    pub end_pad: Length,
    /// Air between each pad and the roll.
    #[serde(rename = "end_air_mm")]
    pub end_air: Length,
    /// Whether it is folded from board, because no round tube on the shelf takes it.
    pub triangular: bool,
    /// Where a triangular one is creased, as running distances from one edge; the last is its other edge.
    #[serde(rename = "creases_mm")]
    pub creases: [Length; 4],
    /// Of board, across the flutes, for a triangular one.
    #[serde(rename = "sheet_width_mm")]
    pub sheet_width: Length,
    /// What a triangular one is cut to: its sheet, and a cap of which there are two.
    pub blanks: Vec<Blank>,
    /// How it is sealed, strip by strip, in the order in which they are laid.
    pub seal: Vec<SealStrip>,
}

impl TubeBox {
    /// Returns its strips: along the lap of one that is folded, around the cap that is put on first, and around the other one. Source:
    /// packaging engineering practice.
    #[must_use]
    pub fn sealed(around: Length, length: Length, folded: bool) -> Vec<SealStrip> {
        let none = Length::ZERO;
        let lap = folded.then(|| SealStrip {
            on: StripId::AlongTheLap,
            order: SEAMS,
            filament: false,
            first: true,
            length,
            path_mm: vec![[none, none, none], [length, none, none]],
        });
        let strip = |on, first, at: Length| SealStrip {
            on,
            order: SEAMS,
            filament: false,
            first,
            length: around,
            path_mm: vec![[at, none, none], [at, none, none]],
        };
        lap.into_iter()
            .chain([
                strip(StripId::AroundTheFirstCap, true, none),
                strip(StripId::AroundTheLastCap, false, length),
            ])
            .collect()
    }

    /// Returns it as hands make, load, close and open it.
    #[must_use]
    pub fn container(&self, of: &Use) -> Container {
        let (tube, cap) = (PartId::Tube, PartId::Cap);
        let what = of.what;
        let mut ready = Vec::new();
        if let [sheet, its_cap] = self.blanks.as_slice() {
            let net = |blank| Net {
                blank,
                caliper: self.wall,
            };
            ready.extend([
                Act::on(
                    Does::Fold,
                    tube,
                    "Fold the sheet at its three creases, the last side outside the first.",
                )
                .folding_to(folds::LAP)
                .seen(net(sheet).seen(folds::LAP, Up::Inside)),
                Act::tape(
                    tube,
                    &[StripId::AlongTheLap],
                    "Tape the edge of the last side to the first, along the whole tube.",
                ),
                Act::on(
                    Does::Fold,
                    cap,
                    "Fold the flaps of a cap, and push it over one end.",
                )
                .to(tube)
                .folding_to(folds::CAP)
                .seen(net(its_cap).seen(folds::CAP, Up::Inside)),
            ]);
        } else {
            ready.push(Act::on(Does::Push, cap, "Push a cap into one end.").to(tube));
        }
        ready.extend([
            Act::tape(
                tube,
                &[StripId::AroundTheFirstCap],
                "Tape that cap all round, half of the strip on the cap and half on the tube.",
            )
            .to(cap),
            Act::on(
                Does::Push,
                PartId::PadForTheFirstEnd,
                format!(
                    "Push a pad of {} in against the cap.",
                    of.length(self.end_pad)
                ),
            )
            .to(tube),
        ]);
        Container {
            parts: vec![tube, cap],
            strips: self.seal.clone(),
            openings: vec![
                Opening {
                    sealed_by: those(
                        &self.seal,
                        &[StripId::AlongTheLap, StripId::AroundTheFirstCap],
                    ),
                    loads: false,
                },
                Opening {
                    sealed_by: vec![StripId::AroundTheLastCap],
                    loads: true,
                },
            ],
            way_in: WayIn::End,
            mouth: Some([self.inside, self.inside]),
            stages: Vec::new(),
            all_at_once: false,
            follows: None,
            measured: false,
            lid: "the cap",
            titles: Titles {
                ready: "Close one end of the tube".to_owned(),
                load: format!("Slide {what} in"),
                close: "Close the other end".to_owned(),
                seal: "Seal the tube".to_owned(),
                open: "Tube".to_owned(),
            },
            ready,
            load: vec![Act::goods(
                Does::Slide,
                tube,
                format!(
                    "Push {what} in by its paper, straight and never screwing, until it meets the pad. Don't push at one edge of the sheet."
                ),
            )],
            close: vec![
                Act::on(
                    Does::Push,
                    PartId::PadForTheLastEnd,
                    "Push the second pad in until it is a finger's width from the roll: nothing presses on the roll.",
                )
                .to(tube),
                Act::on(Does::Push, cap, if self.triangular {
                    "Fold the flaps of the other cap, and push it over the open end."
                } else {
                    "Push the other cap in."
                }).to(tube),
            ],
            seal: vec![
                Act::tape(
                    tube,
                    &[StripId::AroundTheLastCap],
                    "Tape the cap all round, half of the strip on the cap and half on the tube.",
                )
                .to(cap),
            ],
            open: vec![
                Act::cut_open(
                    tube,
                    &[StripId::AroundTheLastCap],
                    "Slit the tape around one cap, no deeper than the tape.",
                ),
                Act::on(Does::Lift, cap, "Take the cap and the pad out of that end."),
                Act::new(
                    Does::Slide,
                    Thing::Goods,
                    "Slide the roll out by its paper; never pull at one corner.",
                ),
            ],
        }
    }
}

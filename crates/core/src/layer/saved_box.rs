//! A carton that the studio has: as it is, cut down in depth, or with a sleeve.

use serde::Serialize;

use super::{Cushioning, Layer, Make, Making, Sides, Supplies};
use crate::{
    carton::{Blank, BoxSize, CartonStyle, DepthCut, SavedCarton, Sleeve, SlottedFace},
    house::Allowances,
    material::Board,
    part::Need,
    quantity::Length,
    space::{Addition, Direction, Envelope, LayerSlot},
};

/// A carton that the studio has, made into a box for a piece.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SavedBox {
    /// Inside as it was, along its opening, across it, and deep.
    pub carton_mm: [Length; 3],
    /// Inside as it is now, along its opening, across it, and deep.
    pub inside_mm: [Length; 3],
    /// Of its board.
    #[serde(rename = "caliper_mm")]
    pub caliper: Length,
    /// Where it is scored anew, where it is cut down.
    pub cut: Option<DepthCut>,
    /// The sleeve that makes it deeper.
    pub sleeve: Option<Blank>,
    /// Its blank as it is folded now.
    pub blank: Blank,
}

/// What becomes of a carton.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) enum SavedWay {
    /// Nothing.
    AsIs,
    /// It is cut down to a depth.
    Cut(Length),
    /// It is made deeper.
    Sleeved(Sleeve),
}

impl SavedWay {
    /// Returns what becomes of a carton that is to hold something of three sides, along its opening, across it and deep;
    /// nothing where it can't.
    ///
    /// What is much deeper is cut down, what is a little deeper is filled, what is shallower takes a sleeve. Source:
    /// packaging engineering practice.
    pub(super) fn of(
        carton: SavedCarton,
        sleeve_caliper: Length,
        [long, short, deep]: [Length; 3],
    ) -> Option<Self> {
        let BoxSize {
            length,
            width,
            height,
            ..
        } = carton.0;
        if long > length || short > width {
            return None;
        }
        if deep <= height {
            let cut = carton.cut_to_depth(deep, &Allowances::default());
            return Some(cut.map_or(Self::AsIs, |_| Self::Cut(deep)));
        }
        // Where a little more is wanted than a sleeve can make, it is made the least that one does.
        let sleeve = carton
            .made_deeper(deep, sleeve_caliper)
            .or_else(|_| carton.made_deeper(deep.max(carton.least_sleeved()), sleeve_caliper))
            .ok()?;
        let inside = sleeve.inside();
        (long <= inside.length && short <= inside.width).then_some(Self::Sleeved(sleeve))
    }

    /// Returns what is free inside then.
    pub(super) fn inside(self, carton: SavedCarton) -> [Length; 3] {
        let BoxSize {
            length,
            width,
            height,
            ..
        } = carton.0;
        match self {
            Self::AsIs => [length, width, height],
            Self::Cut(deep) => [length, width, deep],
            Self::Sleeved(sleeve) => {
                let inside = sleeve.inside();
                [inside.length, inside.width, inside.height]
            }
        }
    }
}

impl SavedBox {
    /// Returns the layer of a carton that the studio has, around what goes in; nothing when it does not go in.
    pub(super) fn layer(
        supplies: &Supplies<'_>,
        (carton, board): (SavedCarton, &Board),
        (long_way, inside): (Direction, Envelope),
    ) -> Option<Layer> {
        let allowances = supplies.allowances();
        let (long, short) = match long_way {
            Direction::Up => (inside.up, inside.across),
            Direction::Across => (inside.across, inside.up),
        };
        let way = SavedWay::of(carton, board.caliper, [long, short, inside.through])?;
        let set = way.inside(carton);
        let c = board.caliper;
        let size = BoxSize {
            height: set[2].min(carton.0.height),
            ..carton.0
        };
        let blank = SlottedFace(size).blank(allowances);
        let sleeve = match way {
            SavedWay::Sleeved(sleeve) => Some(sleeve.blank(allowances)),
            SavedWay::AsIs | SavedWay::Cut(_) => None,
        };
        let style = CartonStyle::SlottedFace;
        let around = (carton.0.length + carton.0.width) * 2.0;
        let joint = sleeve
            .as_ref()
            .map_or(Length::ZERO, |blank| around + blank.height);
        let strips = style.seal(size, allowances.seal_return, supplies.rules.schools.seal);
        let sealed = strips.iter().map(|strip| strip.length).sum::<Length>() + joint;
        // Outside it is as the carton was across, and through as what closes it.
        let half = |own: Length, inside: Length| (own - inside) / 2.0;
        let beyond = style.beyond(size);
        let (ways, sides) = ([carton.0.length, carton.0.width], [long, short]);
        let [along, across] = [
            [beyond.length[0], beyond.length[1]].map(|wall| wall + half(ways[0], sides[0])),
            [beyond.width[0], beyond.width[1]].map(|wall| wall + half(ways[1], sides[1])),
        ];
        let (left_right, top_bottom) = match long_way {
            Direction::Up => (across, along),
            Direction::Across => (along, across),
        };
        let mut needs = vec![Need::saved("carton", board, blank.cut())];
        needs.extend(
            sleeve
                .as_ref()
                .map(|blank| Need::board("sleeve", board, blank.cut())),
        );
        needs.push(Need::tape(supplies.seal_tape, sealed));
        let worked = match way {
            SavedWay::AsIs => Length::ZERO,
            SavedWay::Cut(_) => around * 2.0,
            SavedWay::Sleeved(_) => around * 3.0,
        };
        Some(supplies.layer(Making {
            slot: LayerSlot::Box,
            needs,
            adds: Addition {
                left: left_right[0],
                right: left_right[1],
                top: top_bottom[0],
                bottom: top_bottom[1],
                front: beyond.front,
                back: set[2] - inside.through + c * 2.0 + allowances.box_bulge,
            },
            inside,
            minutes: allowances.mailer_minutes
                + allowances.box_minutes_per_m * worked.as_m()
                + allowances.seal_minutes
                + allowances.seal_minutes_per_m * sealed.as_m(),
            why: "A carton that came with something else costs nothing, and goes out again.",
            make: Make::SavedBox(Self {
                carton_mm: [carton.0.length, carton.0.width, carton.0.height],
                inside_mm: set,
                caliper: c,
                cut: carton.cut_to_depth(set[2], allowances).ok(),
                sleeve,
                blank,
            }),
            cushioning: Some(Cushioning::of_board(Sides::all(c))),
        }))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn way(deep: f64) -> Option<[f64; 3]> {
        let [length, width, height, caliper] = [800.0, 600.0, 200.0, 4.0].map(Length::mm);
        let carton = SavedCarton(BoxSize {
            length,
            width,
            height,
            caliper,
        });
        let sides = [700.0, 500.0, deep].map(Length::mm);
        let way = SavedWay::of(carton, caliper, sides)?;
        Some(way.inside(carton).map(Length::as_mm))
    }

    #[test]
    fn a_carton_is_cut_filled_or_sleeved_by_how_deep_it_is() {
        // Much deeper: cut to it. 14 deeper: as it is. 5 shallower: the least that a sleeve makes, 220, its inside less
        // two boards and 2 across. More than twice as deep: it can't.
        assert_eq!(way(100.0), Some([800.0, 600.0, 100.0]));
        assert_eq!(way(186.0), Some([800.0, 600.0, 200.0]));
        assert_eq!(way(205.0), Some([790.0, 590.0, 220.0]));
        assert_eq!(way(300.0), Some([790.0, 590.0, 300.0]));
        assert_eq!(way(401.0), None);
    }
}

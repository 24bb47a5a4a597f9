//! A carton that the studio has: as it is, cut down in depth, with a sleeve, or pushed into a second one.

use super::{
    Cushioning, Layer, Make, Making, SavedBox, SecondCarton, Sides, Supplies, boxed::sealed_by,
};
use crate::{
    carton::{Blank, BoxSize, LengthCut, LengthJoin, SavedCarton, Sleeve, SlottedFace},
    container::{SEAMS, SealStrip},
    house::{Allowances, CartonStyle, SavedCut, SavedFace},
    material::Board,
    part::{Cut, Need, PartId, StripId},
    quantity::{Area, Length},
    space::{Addition, Direction, Envelope, LayerSlot, Opens},
};

/// What the studio has in place of a box that is cut.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct SavedCartons {
    /// The carton.
    pub first: SavedCarton,
    /// A second one, for what is longer than the first.
    pub second: Option<SavedCarton>,
    /// What is cut of the first where it is alone.
    pub cut: SavedCut,
    /// On which side it opens, and the second one as it.
    pub opens: Opens,
}

/// What becomes of a carton.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) enum SavedWay {
    /// It is used as it is; a little too deep, it is filled.
    AsIs(SavedCarton),
    /// It is cut down to a depth.
    CutDown(SavedCarton, Length),
    /// A sleeve makes it deeper.
    Sleeved(SavedCarton, Sleeve),
    /// It is cut round and pushed together again; its depth is then this, cut down or as it was.
    Shorter(SavedCarton, LengthCut, Length),
    /// It is pushed into a second one, or the second one into it.
    Joined([SavedCarton; 2], LengthJoin),
}

impl SavedWay {
    /// Returns what becomes of a carton that is to hold something of three sides, along its opening, across it and deep;
    /// `None` if it can't.
    ///
    /// What is much deeper is cut down, what is a little deeper is filled, what is shallower takes a sleeve. Where its
    /// length is cut too, its halves push into each other, and two boards less are free where they do; that is no base
    /// for a sleeve. Source: packaging engineering practice.
    ///
    /// With a second carton the two are joined, and neither is used alone.
    pub(super) fn of(
        SavedCartons {
            first: carton,
            second,
            cut,
            opens: _,
        }: SavedCartons,
        sleeve_caliper: Length,
        [long, short, deep]: [Length; 3],
    ) -> Option<Self> {
        if let Some(second) = second {
            let join = carton.joined_to(second, [long, short, deep]).ok()?;
            return Some(Self::Joined([carton, second], join));
        }
        let BoxSize {
            length,
            width,
            height,
            ..
        } = carton.0;
        let shorter = match cut {
            SavedCut::LengthToo => carton.cut_to_length(long).ok(),
            SavedCut::Depth => None,
        };
        let lost = shorter.map_or([Length::ZERO; 2], |cut| {
            [width - cut.inside[1], height - cut.inside[2]]
        });
        // What was filled to the walls is no larger than the room between them.
        let long = long.snapped_to(length);
        let short = (short + lost[0]).snapped_to(width);
        let deep = (deep + lost[1]).snapped_to(height);
        if long > length || short > width {
            return None;
        }
        let cut_down = || carton.cut_to_depth(deep, &Allowances::default()).is_ok();
        match shorter {
            Some(_) if deep > height => None,
            Some(cut) => {
                let deep = if cut_down() { deep } else { height };
                Some(Self::Shorter(carton, cut, deep))
            }
            None if deep > height => {
                // Where a little more is wanted than a sleeve can make, it is made the least that one does.
                let sleeve = carton
                    .made_deeper(deep, sleeve_caliper)
                    .or_else(|_| {
                        carton.made_deeper(deep.max(carton.least_sleeved()), sleeve_caliper)
                    })
                    .ok()?;
                let inside = sleeve.inside();
                let takes = long.snapped_to(inside.length) <= inside.length
                    && short.snapped_to(inside.width) <= inside.width;
                takes.then_some(Self::Sleeved(carton, sleeve))
            }
            None if cut_down() => Some(Self::CutDown(carton, deep)),
            None => Some(Self::AsIs(carton)),
        }
    }

    /// Returns the carton, the first of two.
    const fn carton(self) -> SavedCarton {
        match self {
            Self::AsIs(carton)
            | Self::CutDown(carton, _)
            | Self::Sleeved(carton, _)
            | Self::Shorter(carton, ..)
            | Self::Joined([carton, _], _) => carton,
        }
    }

    /// Returns the depth that the carton itself has then, which a sleeve does not change.
    const fn own_depth(self) -> Length {
        match self {
            Self::AsIs(carton) | Self::Sleeved(carton, _) => carton.0.height,
            Self::CutDown(_, deep) | Self::Shorter(_, _, deep) => deep,
            Self::Joined(_, join) => join.depths[0],
        }
    }

    /// Returns the carton as it stands then, inside its walls: along its opening, across it, and deep.
    fn shell(self) -> [Length; 3] {
        let BoxSize { length, width, .. } = self.carton().0;
        match self {
            Self::AsIs(_) | Self::CutDown(..) => [length, width, self.own_depth()],
            Self::Sleeved(_, sleeve) => [length, width, sleeve.inside().height],
            Self::Shorter(_, cut, deep) => [cut.inside[0], width, deep],
            Self::Joined(_, join) => join.shell,
        }
    }

    /// Returns what is free inside then, where it is narrowest.
    pub(super) fn inside(self) -> [Length; 3] {
        match self {
            Self::AsIs(_) | Self::CutDown(..) => self.shell(),
            Self::Sleeved(_, sleeve) => {
                let inside = sleeve.inside();
                [inside.length, inside.width, inside.height]
            }
            Self::Shorter(carton, cut, deep) => {
                let lapped = carton.0.height - cut.inside[2];
                [cut.inside[0], cut.inside[1], deep - lapped]
            }
            Self::Joined(_, join) => join.inside,
        }
    }

    /// Returns the blank of the first carton as it is folded then.
    fn blank(self, allowances: &Allowances) -> Blank {
        let carton = self.carton().0;
        let length = match self {
            Self::Shorter(_, cut, _) => cut.inside[0],
            Self::AsIs(_) | Self::CutDown(..) | Self::Sleeved(..) | Self::Joined(..) => {
                carton.length
            }
        };
        let height = self.own_depth();
        SlottedFace(BoxSize {
            length,
            height,
            ..carton
        })
        .blank(allowances)
    }
}

impl SavedBox {
    /// Returns the layer of a carton that the studio has, around what goes in; `None` if it does not go in.
    pub(super) fn layer(
        supplies: &Supplies<'_>,
        (cartons, board): (SavedCartons, &Board),
        (long_way, inside): (Direction, Envelope),
    ) -> Option<Layer> {
        let allowances = supplies.allowances();
        let (long, short) = match long_way {
            Direction::Up => (inside.up, inside.across),
            Direction::Across => (inside.across, inside.up),
        };
        let c = board.caliper;
        let carton = cartons.first;
        let opens = cartons.opens;
        let held = opens.in_carton([long, short, inside.through]);
        let way = SavedWay::of(cartons, c, held)?;
        let shell = way.shell();
        // What is closed, and stands: of two, as wide and deep as the outer one.
        let size = BoxSize {
            length: shell[0],
            width: shell[1],
            height: match way {
                SavedWay::Joined(..) => shell[2],
                SavedWay::AsIs(_)
                | SavedWay::CutDown(..)
                | SavedWay::Sleeved(..)
                | SavedWay::Shorter(..) => way.own_depth(),
            },
            caliper: c,
        };
        let blank = way.blank(allowances);
        let cut = carton.cut_to_depth(way.own_depth(), allowances).ok();
        let style = CartonStyle::SlottedFace;
        let face = supplies.rules.shipment.saved_face;
        // Its joint is slit, and taped inside and out.
        let turned = match face {
            SavedFace::AsItWas => Length::ZERO,
            SavedFace::InsideOut => (size.height + c * 2.0) * 2.0,
        };
        let around = carton.around();
        let girth = (size.width + size.height) * 2.0;
        let cut_down = cut.map_or(Length::ZERO, |_| around * 2.0);
        let mut made = AtTheBench {
            stays: blank.area,
            worked: cut_down,
            ..AtTheBench::default()
        };
        match way {
            SavedWay::AsIs(_) | SavedWay::CutDown(..) => {}
            SavedWay::Sleeved(_, sleeve) => {
                let blank = sleeve.blank(allowances);
                made.taped = around + blank.height;
                made.worked = around * 3.0;
                made.needs
                    .push(Need::board(PartId::Sleeve, board, blank.cut()));
                made.sleeve = Some(blank);
            }
            SavedWay::Shorter(_, cut, _) => {
                made.taped = girth;
                made.worked = cut_down + girth * 2.0;
                // Its tongues lap in the other half; a patch is cut from board.
                made.stays = blank.area + girth * cut.tongue.unwrap_or(Length::ZERO);
                let patch = cut.patch.map(|wide| Cut::of([girth, wide]));
                made.needs
                    .extend(patch.map(|patch| Need::board(PartId::Patch, board, patch)));
                made.shorter = Some(cut);
            }
            SavedWay::Joined([_, other], join) => {
                let second = SecondCarton::of(other, join, allowances);
                let slit = join.tongue.map_or(Length::ZERO, |tongue| tongue * 4.0);
                // Each of two is cut round once, and cut down by itself.
                let its_cut = second.cut.map_or(Length::ZERO, |_| other.around() * 2.0);
                made.taped = girth;
                made.worked = cut_down + (girth * 2.0 + slit) + its_cut;
                made.stays = joined_area(carton, &blank, (join, 0, join.second_outside));
                let its = joined_area(other, &second.blank, (join, 1, !join.second_outside));
                let its = second.blank.cut().staying(its);
                made.needs
                    .push(Need::saved(PartId::SecondCarton, board, its));
                made.second = Some(Box::new(second));
            }
        }
        let worked = made.worked + turned;
        let seal = sealed(
            style.seal(size, allowances.seal_return, supplies.rules.schools.seal),
            [made.taped, turned],
            shell,
        );
        let taped: Length = seal.iter().map(|strip| strip.length).sum();
        // Outside it is as the carton was across, and through as what closes it.
        let half = |own: Length, inside: Length| (own - inside) / 2.0;
        let beyond = style.beyond(size);
        // What it has over deep lies where it opens, whose flaps are two boards as those of its floor.
        let [along, across, through] = opens.around_art([
            beyond.length.map(|wall| wall + half(shell[0], held[0])),
            beyond.width.map(|wall| wall + half(shell[1], held[1])),
            [beyond.front, shell[2] - held[2] + c * 2.0],
        ]);
        let (left_right, bottom_top) = match long_way {
            Direction::Up => (across, along),
            Direction::Across => (along, across),
        };
        let mut needs = vec![Need::saved(
            PartId::Carton,
            board,
            blank.cut().staying(made.stays),
        )];
        needs.append(&mut made.needs);
        needs.extend(sealed_by(supplies, &seal));
        Some(supplies.layer(Making {
            slot: LayerSlot::Box,
            needs,
            adds: Addition {
                left: left_right[0],
                right: left_right[1],
                bottom: bottom_top[0],
                top: bottom_top[1],
                front: through[0],
                back: through[1] + allowances.box_bulge,
            },
            inside,
            minutes: allowances.mailer_minutes
                + allowances.box_minutes_per_m * worked.as_m()
                + allowances.seal_minutes
                + allowances.seal_minutes_per_m * taped.as_m(),
            why: "A saved carton costs nothing.",
            make: Make::SavedBox(Self {
                opens,
                carton_mm: carton.sides(),
                inside_mm: way.inside(),
                caliper: c,
                cut,
                shorter: made.shorter,
                face,
                sleeve: made.sleeve,
                blank,
                second: made.second,
                seal,
            }),
            cushioning: Some(Cushioning::of_board(Sides::all(c))),
        }))
    }
}

/// What is done to a carton at the bench, and what that takes.
#[derive(Default)]
struct AtTheBench<'a> {
    /// Taped beyond its seal.
    taped: Length,
    /// Cut and scored.
    worked: Length,
    /// What stays of its blank.
    stays: Area,
    /// What it takes beside the carton and its tape.
    needs: Vec<Need<'a>>,
    shorter: Option<LengthCut>,
    sleeve: Option<Blank>,
    second: Option<Box<SecondCarton>>,
}

/// Every strip on a carton that the studio has: around what was cut and joined and along a new joint, then as on any slotted box but for
/// its own joint, which holds.
fn sealed(
    strips: Vec<SealStrip>,
    [joined, turned]: [Length; 2],
    [long, across, deep]: [Length; 3],
) -> Vec<SealStrip> {
    let none = Length::ZERO;
    let middle = long / 2.0;
    let around = vec![
        [middle, none, none],
        [middle, across, none],
        [middle, across, deep],
        [middle, none, deep],
        [middle, none, none],
    ];
    let upright = vec![[none, across, none], [none, across, deep]];
    let first = |on, length, path_mm| SealStrip {
        on,
        order: SEAMS,
        filament: false,
        first: true,
        length,
        path_mm,
    };
    let mut seal = Vec::new();
    if turned > Length::ZERO {
        for _ in 0..2 {
            seal.push(first(
                StripId::AlongTheNewJoint,
                turned / 2.0,
                upright.clone(),
            ));
        }
    }
    if joined > Length::ZERO {
        seal.push(first(StripId::AroundWhatWasCutAndJoined, joined, around));
    }
    let own = |strip: &SealStrip| strip.on != StripId::AlongTheJoint;
    seal.extend(strips.into_iter().filter(own));
    seal
}

impl SecondCarton {
    fn of(carton: SavedCarton, join: LengthJoin, allowances: &Allowances) -> Self {
        let height = join.depths[1];
        Self {
            carton_mm: carton.sides(),
            cut: carton.cut_to_depth(height, allowances).ok(),
            blank: SlottedFace(BoxSize { height, ..carton.0 }).blank(allowances),
            join,
        }
    }
}

/// What stays of the blank of one of two that are joined: without the end wall that is cut off, its flaps, and what is cut
/// off the open end of the inner one.
fn joined_area(
    carton: SavedCarton,
    blank: &Blank,
    (join, which, inner): (LengthJoin, usize, bool),
) -> Area {
    let BoxSize {
        length,
        width,
        caliper,
        ..
    } = carton.0;
    let wall = join.depths[which] + caliper * 2.0;
    let flaps = (width + caliper).min(length + caliper);
    let off = if inner { join.take_off } else { Length::ZERO };
    blank.area - width * (wall + flaps) - (width + wall) * 2.0 * off
}

#[cfg(test)]
mod tests {
    use super::*;

    fn way(cut: SavedCut, deep: f64) -> Option<SavedWay> {
        let [length, width, height, caliper] = [800.0, 600.0, 200.0, 4.0].map(Length::mm);
        let first = SavedCarton(BoxSize {
            length,
            width,
            height,
            caliper,
        });
        let alone = SavedCartons {
            first,
            second: None,
            cut,
            opens: Opens::Face,
        };
        SavedWay::of(alone, caliper, [700.0, 500.0, deep].map(Length::mm))
    }

    fn mm(sides: [Length; 3]) -> [f64; 3] {
        sides.map(Length::as_mm)
    }

    #[test]
    fn a_carton_is_cut_filled_or_sleeved_by_how_deep_it_is() {
        // Much deeper: cut to it. 14 deeper: as it is. 5 shallower: the least that a sleeve makes, 220, its inside less
        // two boards and 2 across. More than twice as deep: it can't.
        for (deep, wanted) in [
            (100.0, Some([800.0, 600.0, 100.0])),
            (186.0, Some([800.0, 600.0, 200.0])),
            (205.0, Some([790.0, 590.0, 220.0])),
            (300.0, Some([790.0, 590.0, 300.0])),
            (401.0, None),
        ] {
            let found = way(SavedCut::Depth, deep).map(|way| mm(way.inside()));
            assert_eq!(found, wanted, "{deep}");
        }
    }

    #[test]
    fn a_carton_whose_length_is_cut_too_is_as_long_as_what_goes_in_and_laps_inside() {
        // 800 to 700: 40 taken out, tongues of 60. 100 deep is wanted free, where two boards lap: cut down to 108, and
        // 592 are free across. 193 deep would take 201: it is 200, and no sleeve goes on halves.
        let cut = way(SavedCut::LengthToo, 100.0).expect("it can be cut");
        let SavedWay::Shorter(_, out, _) = cut else {
            panic!("{cut:?} is not shorter")
        };
        assert_eq!(
            (out.take_out, out.tongue),
            (Length::mm(40.0), Some(Length::mm(60.0)))
        );
        assert_eq!(mm(cut.shell()), [700.0, 600.0, 108.0]);
        assert_eq!(mm(cut.inside()), [700.0, 592.0, 100.0]);
        assert_eq!(way(SavedCut::LengthToo, 193.0), None);
    }
}

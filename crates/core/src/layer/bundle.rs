//! Like pieces bound to one bundle, with boards between.

use serde::Serialize;

use super::kind::{Kind, Nature, Standing, from_shelf};
use super::{ContactSheet, Layer, Make, Making, Supplies};
use crate::{
    Refusal,
    house::Facing,
    material::Board,
    part::{Cut, Need, PartId, StripId},
    piece::PieceSize,
    quantity::{Area, Length},
    space::{Addition, Envelope, LayerSlot},
};

/// A bundle of like pieces.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Bundle {
    /// How many pieces.
    pub count: u32,
    /// Side by side.
    pub across: u32,
    /// One above the other.
    pub up: u32,
    /// One behind the other.
    pub deep: u32,
    /// Boards between faces.
    pub boards: u32,
    /// Sheets between backs.
    pub sheets: u32,
    /// How they face.
    pub facing: Facing,
    /// Of the boards, as large as the bundle.
    #[serde(rename = "board_area_m2")]
    pub board_area: Area,
}

/// One on the other.
const ONE_PILE: [u32; 2] = [1, 1];
/// What is wound around every bundle, for choosing how to lay one out.
const WRAPPING: Length = Length::mm(100.0);

impl Bundle {
    /// Returns how many lie side by side, across and up, so that the wrapped bundle has the least surface.
    ///
    /// Source: house rule: the surface is what board, wrap and box are cut by.
    #[must_use]
    pub fn grid_for(one: Envelope, count: u32, board: Length) -> [u32; 2] {
        (1..=count)
            .flat_map(|across| (1..=count.div_ceil(across)).map(move |up| [across, up]))
            .min_by(|one_grid, other_grid| {
                let surface = |grid: &[u32; 2]| wrapped_surface(extent(one, count, *grid, board));
                surface(one_grid).total_cmp(&surface(other_grid))
            })
            .unwrap_or([1, 1])
    }

    /// Returns the bundle of a count of pieces on a grid.
    #[must_use]
    pub fn of(one: Envelope, count: u32, grid: [u32; 2], board: Length, facing: Facing) -> Self {
        let [across, up] = grid;
        let deep = deep(count, grid);
        let gaps = deep - 1;
        let sheets = match facing {
            Facing::Inward => 0,
            Facing::BacksTogether => deep / 2,
        };
        let outside = extent(one, count, grid, board);
        let between = outside.across * outside.up * f64::from(gaps - sheets);
        let upright = outside.up * outside.through * f64::from(across - 1);
        let level = outside.across * outside.through * f64::from(up - 1);
        Self {
            count,
            across,
            up,
            deep,
            boards: gaps - sheets + (across - 1) + (up - 1),
            sheets,
            facing,
            board_area: between + upright + level,
        }
    }

    /// The boards between faces and between stacks, and the sheets between backs.
    fn needs<'a>(
        self,
        supplies: &Supplies<'a>,
        board: &'a Board,
        outside: Envelope,
    ) -> Vec<Need<'a>> {
        let Envelope {
            across,
            up,
            through,
        } = outside;
        let gaps = self.deep - 1 - self.sheets;
        let cut =
            |sides, count| Need::board(PartId::BoardBetween, board, Cut::of(sides)).times(count);
        let lap = supplies.allowances().contact_lap;
        let paper = supplies.contact_paper;
        let flat = PieceSize {
            width: across,
            height: up,
            depth: Length::ZERO,
        };
        let sheet = ContactSheet::of(flat, Length::ZERO, paper, lap);
        let mut needs = vec![
            cut([across, up], gaps),
            cut([through, up], self.across - 1),
            cut([across, through], self.up - 1),
        ];
        needs.extend(sheet.needs(PartId::SheetBetweenBacks, paper, self.sheets));
        needs
    }

    pub(crate) fn layer(
        supplies: &Supplies<'_>,
        (size, count): (PieceSize, u32),
        shaped: bool,
        inside: Envelope,
    ) -> Result<Layer, Refusal> {
        let board = supplies.board("house.folio_board", &supplies.rules.materials.folio_board)?;
        let allowances = supplies.allowances();
        let asked = supplies.rules.shipment.set_grid;
        if shaped && asked.is_some_and(|grid| grid != ONE_PILE) {
            return Err(Refusal::new(
                "choices.set_grid",
                "pieces without corners lie in one pile held by chocks, not side by side",
            ));
        }
        let by_rule = || {
            if shaped {
                return ONE_PILE;
            }
            // By the piece alone: what lies on its face must not lay the bundle out anew.
            let one = Envelope {
                across: size.width,
                up: size.height,
                through: size.depth,
            };
            Self::grid_for(one, count, board.caliper)
        };
        let grid = asked.unwrap_or_else(by_rule);
        let bundle = Self::of(
            inside,
            count,
            grid,
            board.caliper,
            supplies.rules.schools.facing,
        );
        let outside = extent(inside, count, grid, board.caliper);
        let needs = bundle.needs(supplies, board, outside);
        let mut needs = needs;
        needs.extend(
            [
                (StripId::AroundThemSideToSide, outside.across),
                (StripId::AroundThemTopToBottom, outside.up),
            ]
            .map(|(on, along)| {
                let around = (along + outside.through + allowances.tape_tab) * 2.0;
                Need::tape(supplies.card_tape, on, around)
            }),
        );
        Ok(supplies.layer(Making {
            slot: LayerSlot::Bundle,
            needs,
            adds: Addition {
                back: outside.through - inside.through,
                ..Addition::new(
                    (outside.across - inside.across) / 2.0,
                    (outside.up - inside.up) / 2.0,
                    Length::ZERO,
                    Length::ZERO,
                )
            },
            inside,
            minutes: (allowances.board_minutes
                + allowances.board_minutes_per_m * (inside.across + inside.up).as_m())
                * f64::from(bundle.boards.max(1)),
            why: "A board between every two keeps them from marking each other; bound, they can't shift.",
            make: Make::Bundle(bundle),
            cushioning: None,
        }))
    }
}

fn deep(count: u32, [across, up]: [u32; 2]) -> u32 {
    count.div_ceil((across * up).max(1)).max(1)
}

fn extent(one: Envelope, count: u32, grid: [u32; 2], board: Length) -> Envelope {
    let side = |length: Length, times: u32| {
        length * f64::from(times) + board * f64::from(times.saturating_sub(1))
    };
    Envelope {
        across: side(one.across, grid[0]),
        up: side(one.up, grid[1]),
        through: side(one.through, deep(count, grid)),
    }
}

fn wrapped_surface(bundle: Envelope) -> f64 {
    let [across, up, through] =
        [bundle.across, bundle.up, bundle.through].map(|side| side + WRAPPING);
    (across * up).as_m2() + (up * through).as_m2() + (across * through).as_m2()
}

/// Like pieces bound to one bundle, with boards between.
pub(super) const KIND: Kind = Kind::new(
    Nature::PLAIN,
    |asked| {
        asked.flat(|| {
            if asked.piece.count > 1 {
                Standing::Must("several pieces need boards between them and a binding")
            } else {
                Standing::Never("there is only one piece")
            }
        })
    },
    |around| {
        let set = (around.piece.size, around.piece.count);
        let shaped = super::cradle::has_no_corners(around.piece);
        Bundle::layer(around.supplies, set, shaped, around.inside()).map(Some)
    },
)
.or(|offering| from_shelf!(offering.catalogue.boards, folio_board).collect());

#[cfg(test)]
mod tests {
    use super::*;

    fn buoy() -> Envelope {
        Envelope {
            across: Length::mm(200.0),
            up: Length::mm(200.0),
            through: Length::mm(22.0),
        }
    }

    #[test]
    fn nine_small_panels_are_laid_out_for_the_least_surface() {
        // One stack of nine: 9 × 22 + 8 × 4 = 230 through, 300 × 300 × 330 wrapped: 0.288 m² a half.
        // Two stacks of five: 404 × 200 × 126: 504 × 300 × 226: 0.333.
        assert_eq!(Bundle::grid_for(buoy(), 9, Length::mm(4.0)), [1, 1]);
        let bundle = Bundle::of(buoy(), 9, [1, 1], Length::mm(4.0), Facing::Inward);
        assert_eq!((bundle.deep, bundle.boards, bundle.sheets), (9, 8, 0));
        // Eight boards of 0.04 m²
        assert!((bundle.board_area.as_m2() - 0.32).abs() < 1e-12);
    }

    #[test]
    fn backs_together_save_every_other_board() {
        let bundle = Bundle::of(buoy(), 9, [1, 1], Length::mm(4.0), Facing::BacksTogether);
        assert_eq!((bundle.boards, bundle.sheets), (4, 4));
    }

    #[test]
    fn a_grid_parts_its_neighbours() {
        // Three by three, one deep: two dividers each way of 608 × 22, no board between.
        let bundle = Bundle::of(buoy(), 9, [3, 3], Length::mm(4.0), Facing::Inward);
        assert_eq!((bundle.deep, bundle.boards), (1, 4));
        assert!((bundle.board_area.as_m2() - 4.0 * 0.608 * 0.022).abs() < 1e-12);
    }

    #[test]
    fn one_piece_is_no_more_than_itself() {
        let bundle = Bundle::of(buoy(), 1, [1, 1], Length::mm(4.0), Facing::Inward);
        assert_eq!((bundle.boards, bundle.board_area), (0, Area::ZERO));
    }
}

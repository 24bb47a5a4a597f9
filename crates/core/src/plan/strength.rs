//! Which board a box has so that it carries its parcel: the house's where that does, else the lightest on the shelf that does.

use serde::Serialize;

use super::{Finding, FindingLevel, Odds, OneIn, Tally};
use crate::{
    container::Carton,
    layer::{Layer, Make, PackOf, Supplies},
    material::{Board, BoardBuild, Carries, MaterialId},
    quantity::{Length, Mass, Telling},
    space::LayerSlot,
};

/// What carries a parcel, where it is not the house's board as it is.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Strength {
    /// The board that the box would have been made of.
    pub instead_of: MaterialId,
    /// What that is called.
    pub instead_of_name: String,
    /// What that may carry, gross.
    #[serde(rename = "carries_g")]
    pub carries: Mass,
    /// What length, width and height of such a parcel may come to, at its mass.
    #[serde(rename = "united_mm")]
    pub united: Length,
    /// What carries it now; `None` where nothing on the shelf does, or where somebody chose the board.
    pub by: Option<CarriedBy>,
    /// What the parcel weighs.
    #[serde(rename = "mass_g")]
    pub mass: Mass,
    /// What its length, width and height come to outside.
    #[serde(rename = "outside_united_mm")]
    pub outside: Length,
    /// That it would arrive damaged in the former board; `None` where it travels in that.
    pub former: Option<OneIn>,
    /// What would carry it, where somebody chose a board that does not.
    #[serde(skip)]
    pub(super) better: Option<CarriedBy>,
}

/// What carries a parcel.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CarriedBy {
    /// The board.
    pub board: MaterialId,
    /// What it is called.
    pub name: String,
    /// How the box is made of it.
    pub how: CarriedHow,
}

/// How a box is made so that it carries its parcel.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum CarriedHow {
    /// As it is.
    Single,
    /// With a sheet of its board glued inside on both faces.
    Doubled,
    /// As the outer one of two.
    Outer,
}

/// That the board is another one than the house's, which says nothing against a plan.
pub(crate) const STRONGER: &str = "stronger-board";

/// What the box of a parcel may carry, where its limits are known and are not met.
pub(super) struct Lacks<'a> {
    /// The board of the box that carries it.
    pub board: &'a Board,
    pub carries: Carries,
    pub mass: Mass,
    pub outside: Length,
}

fn united(tally: &Tally) -> Length {
    tally.outside.across + tally.outside.up + tally.outside.through
}

/// Returns what a parcel's box lacks: `None` where it carries it, or where the limits of board don't speak of it.
pub(super) fn lacks<'a>(
    supplies: &Supplies<'a>,
    layers: &[Layer],
    tally: &Tally,
) -> Option<Lacks<'a>> {
    let made = |slot: LayerSlot| -> Option<&Carton> {
        layers
            .iter()
            .find(|layer| layer.slot == slot)?
            .make
            .carton()
    };
    let times = |carton: &Carton| if carton.doubled { 2.0 } else { 1.0 };
    let (inner, outer) = (supplies.first.board, supplies.second.board);
    let (board, carries) = match (made(LayerSlot::Box), made(LayerSlot::SecondBox)) {
        (None, None) => return None,
        (Some(first), None) => (inner, inner.carries(times(first))?),
        // Nobody knows what a bought or a saved carton bears: the box around it carries all.
        (None, Some(second)) => (outer, outer.carries(times(second))?),
        (Some(first), Some(second)) => {
            let of = |board: &Board, carton: &Carton| Some(board.edge_crush? * times(carton));
            // Both have walls of corrugated, and bear together.
            inner.carries(1.0)?;
            outer.carries(1.0)?;
            let together = Carries::of(of(inner, first)? + of(outer, second)?);
            (inner, together)
        }
    };
    let (mass, outside) = (tally.weight.mass, united(tally));
    (!carries.takes(mass, outside)).then_some(Lacks {
        board,
        carries,
        mass,
        outside,
    })
}

/// The boards of which a box could carry more, the lightest first.
fn stronger<'a>(supplies: &Supplies<'a>, than: &Board) -> Vec<&'a Board> {
    let crush = |board: &Board| board.edge_crush;
    let mut boards: Vec<&Board> = supplies
        .catalogue
        .boards
        .iter()
        .filter(|board| {
            board.build == BoardBuild::Corrugated
                && board.folds
                && !board.shelf.retired
                && !board.sheets.is_empty()
                && crush(board) > crush(than)
        })
        .collect();
    boards.sort_by_key(|board| board.areal_density);
    boards
}

/// Returns what could carry the parcel instead, in the order in which it is tried: the lightest board, then boxes whose faces are
/// doubled. Where two boxes are wanted anyway, the outer one alone is made of another board. Source: house rule.
pub(super) fn ways<'a>(
    supplies: &Supplies<'a>,
    twice_boxed: bool,
) -> Vec<(Supplies<'a>, &'a Board, CarriedHow)> {
    let first = supplies.first.board;
    if twice_boxed {
        let outer = stronger(supplies, supplies.second.board).into_iter();
        return outer
            .map(|board| {
                let mut then = supplies.clone();
                then.second.board = board;
                (then, board, CarriedHow::Outer)
            })
            .collect();
    }
    let of = |board: &'a Board, doubled: bool| {
        let mut then = supplies.clone();
        then.first.board = board;
        then.first.doubled = doubled;
        let how = if doubled {
            CarriedHow::Doubled
        } else {
            CarriedHow::Single
        };
        (then, board, how)
    };
    let stronger = stronger(supplies, first);
    let single = stronger.iter().map(|board| of(board, false));
    let doubled = std::iter::once(first)
        .chain(stronger.iter().copied())
        .map(|board| of(board, true));
    single.chain(doubled).collect()
}

/// Tells whether every part of the boxes can be cut from a sheet of its board, a sheet that is glued in too.
pub(super) fn can_be_cut(layers: &[Layer], board: &Board) -> bool {
    layers.iter().all(|layer| match &layer.make {
        Make::SlottedBox(carton) | Make::CutBox(carton) => {
            let fits = |across: Length, up: Length| {
                let mut sheets = board.sheets.iter();
                sheets.any(|sheet| across <= sheet.width && up <= sheet.height)
            };
            carton.can_be_cut()
                && (!carton.doubled || fits(carton.inside_width, carton.inside_length))
        }
        _ => true,
    })
}

impl CarriedBy {
    pub(super) fn of(board: &Board, how: CarriedHow) -> Self {
        Self {
            board: board.id.clone(),
            name: board.name.clone(),
            how,
        }
    }
}

impl Strength {
    /// Returns what is said of it, with its figures.
    pub(super) fn finding(&self, telling: Telling, now: &Odds) -> Finding {
        let limit = format!(
            "{} carries {} and, at this weight, {} of length + width + height; this parcel has {} and {}",
            self.instead_of_name,
            telling.mass(self.carries),
            telling.length(self.united),
            telling.mass(self.mass),
            telling.length(self.outside),
        );
        if let Some(better) = &self.better {
            let says = format!("{limit}. Use a stronger board.");
            let finding = Finding::layer(FindingLevel::Mind, "weak-board", LayerSlot::Box, says);
            return match better.how {
                CarriedHow::Single => finding.answered_by(
                    format!("Use {}", better.name),
                    PackOf::Piece.choices(None, Some(better.board.clone())),
                ),
                CarriedHow::Doubled | CarriedHow::Outer => finding,
            };
        }
        let Some(by) = &self.by else {
            // It is the piece that is too large, whatever is wound around it.
            return Finding::piece(
                FindingLevel::Stop,
                "past-every-board",
                format!(
                    "{limit}. No board on the shelf is strong enough. Build a travel case, use a crating service, or write why you use this box."
                ),
            );
        };
        let made = match by.how {
            CarriedHow::Single => format!("The box is made of {}", by.name),
            CarriedHow::Doubled => format!(
                "The box is made of {}, with a second sheet glued inside each face",
                by.name
            ),
            CarriedHow::Outer => format!("It goes in two boxes, the outer one made of {}", by.name),
        };
        let former = self.former.map_or_else(String::new, |former| {
            format!(
                " About 1 in {} arrive damaged, and about 1 in {} in {} alone.",
                now.one_in.about, former.about, self.instead_of_name
            )
        });
        Finding::layer(
            FindingLevel::Note,
            STRONGER,
            LayerSlot::Box,
            format!("{made}: {limit}.{former}"),
        )
    }

    /// Returns what is told of a plan whose box lacks strength, with what carries it instead and how it would have fared.
    pub(super) fn of(
        lacks: &Lacks<'_>,
        by: Option<(&Board, CarriedHow)>,
        former: Option<&Odds>,
    ) -> Self {
        Self {
            instead_of: lacks.board.id.clone(),
            instead_of_name: lacks.board.name.clone(),
            carries: lacks.carries.mass,
            united: lacks.carries.united_at(lacks.mass),
            by: by.map(|(board, how)| CarriedBy::of(board, how)),
            mass: lacks.mass,
            outside: lacks.outside,
            former: former.map(|odds| odds.one_in),
            better: None,
        }
    }

    /// Returns what is told of a plan whose board somebody chose, with what would carry it.
    pub(super) fn asked(lacks: &Lacks<'_>, (better, how): (&Board, CarriedHow)) -> Self {
        Self {
            better: Some(CarriedBy::of(better, how)),
            ..Self::of(lacks, None, None)
        }
    }
}

//! A box as a plan has it: its style and inside, what it is cut to, and the sheets that it takes.

use serde::Serialize;

use super::{SEAMS, SealStrip};
use crate::{
    carton::{Blank, BoxSize, Lap, SheetNeed},
    house::{Allowances, CartonStyle, SealRule},
    material::Board,
    part::StripId,
    quantity::{Area, Length},
};

/// The box of a plan: its inside, its blank and the sheet that the blank takes.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Carton {
    /// How it is made.
    pub style: CartonStyle,
    /// Inside, along the long side of the art's face.
    #[serde(rename = "inside_length_mm")]
    pub inside_length: Length,
    /// Inside, along the short side of the art's face.
    #[serde(rename = "inside_width_mm")]
    pub inside_width: Length,
    /// Inside, through the art.
    #[serde(rename = "inside_height_mm")]
    pub inside_height: Length,
    /// Of the board.
    #[serde(rename = "caliper_mm")]
    pub caliper: Length,
    /// What a slot is wide; `None` if none is cut.
    #[serde(rename = "slot_mm")]
    pub slot: Length,
    /// How far the joining tab laps; `None` if there is none.
    #[serde(rename = "tab_mm")]
    pub tab: Length,
    /// What a tape reads beyond the board, once it is filled.
    #[serde(rename = "bulge_mm")]
    pub bulge: Length,
    /// What it is cut to; of several parts the first.
    pub blank: Blank,
    /// What that is cut from.
    pub sheet: SheetNeed,
    /// Where no sheet takes it whole: its parts, left to right, each with its lap; empty where it is cut whole.
    pub joined: Vec<Blank>,
    /// The other parts: a lid, an inner half.
    pub more_parts: Vec<CartonPart>,
    /// How it is sealed, strip by strip, in the order in which they are laid.
    pub seal: Vec<SealStrip>,
    /// Its scores that were cut through by mistake, and are taped over.
    pub cut_through: u32,
    /// Whether a sheet of its board is glued inside on both faces.
    pub doubled: bool,
}

/// Another part of a box.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CartonPart {
    /// What it is cut to.
    pub blank: Blank,
    /// What it is cut from.
    pub sheet: SheetNeed,
    /// Where no sheet takes it whole: its parts, left to right, each with its lap; empty where it is cut whole.
    pub joined: Vec<Blank>,
}

/// The strips along the laps of a part that is joined: one outside and one inside along each.
fn laps_of(part: &CartonPart) -> Vec<SealStrip> {
    let SheetNeed::Joined { cut_at_mm, .. } = &part.sheet else {
        return Vec::new();
    };
    let strip = |on, length| SealStrip {
        on,
        order: SEAMS,
        filament: false,
        first: true,
        length,
        path_mm: Vec::new(),
    };
    let along = |at: &Length| part.blank.meets_along(*at);
    [StripId::AlongEachLapOutside, StripId::AlongTheLapInside]
        .into_iter()
        .flat_map(|on| cut_at_mm.iter().map(move |at| strip(on, along(at))))
        .collect()
}

impl Carton {
    /// Returns the box of a style and a size, cut from the sheets of a board.
    #[must_use]
    pub fn of(
        style: CartonStyle,
        size: BoxSize,
        board: &Board,
        allowances: &Allowances,
        rule: SealRule,
    ) -> Self {
        let parts = style.parts(size, allowances).into_iter().map(|blank| {
            let sheet = SheetNeed::of(&blank, board, allowances.sheet_lap);
            let joined = match &sheet {
                SheetNeed::Joined { cut_at_mm, .. } => {
                    let lap = Lap {
                        reach: allowances.sheet_lap,
                        caliper: size.caliper,
                    };
                    blank.cut_apart(cut_at_mm, lap)
                }
                SheetNeed::One { .. } | SheetNeed::NoSheet => Vec::new(),
            };
            CartonPart {
                blank,
                sheet,
                joined,
            }
        });
        Self::from_parts(style, size, parts, allowances, rule)
    }

    /// Returns the box of a style and a size without looking for sheets to cut it from: what a sum needs, which knows no shelf.
    #[must_use]
    pub fn by_sums(
        style: CartonStyle,
        size: BoxSize,
        allowances: &Allowances,
        rule: SealRule,
    ) -> Self {
        let parts = style.parts(size, allowances).into_iter();
        let parts = parts.map(|blank| CartonPart {
            blank,
            sheet: SheetNeed::NoSheet,
            joined: Vec::new(),
        });
        Self::from_parts(style, size, parts, allowances, rule)
    }

    fn from_parts(
        style: CartonStyle,
        size: BoxSize,
        mut parts: impl Iterator<Item = CartonPart>,
        allowances: &Allowances,
        rule: SealRule,
    ) -> Self {
        let first = parts.next().expect("a box has a part");
        let more_parts: Vec<CartonPart> = parts.collect();
        let mut seal: Vec<SealStrip> = std::iter::once(&first)
            .chain(&more_parts)
            .flat_map(laps_of)
            .collect();
        seal.extend(style.seal(size, allowances.seal_return, rule));
        Self {
            style,
            inside_length: size.length,
            inside_width: size.width,
            inside_height: size.height,
            caliper: size.caliper,
            slot: style.slot(size.caliper, allowances).unwrap_or(Length::ZERO),
            tab: style.tab(size.caliper, allowances).unwrap_or(Length::ZERO),
            bulge: allowances.box_bulge,
            seal,
            cut_through: 0,
            doubled: false,
            blank: first.blank,
            sheet: first.sheet,
            joined: first.joined,
            more_parts,
        }
    }

    /// Returns the box that is made where nobody chose a style: the usual one of its board, or, where no sheet takes that,
    /// of all others that can be cut and folded the one of the least board. Source: house rule.
    #[must_use]
    pub fn usual(size: BoxSize, board: &Board, allowances: &Allowances, rule: SealRule) -> Self {
        let made = |style| Self::of(style, size, board, allowances, rule);
        let usual = made(CartonStyle::usual_of(board));
        if usual.can_be_cut() {
            return usual;
        }
        let others = CartonStyle::ALL
            .into_iter()
            .filter(|style| style.takes(board) && style.unfit(size).is_none())
            .map(made)
            .filter(Self::can_be_cut);
        others.min_by_key(Self::board).unwrap_or(usual)
    }

    /// Returns the style of the box that is made where nobody chose one.
    #[must_use]
    pub fn usual_style(
        size: BoxSize,
        board: &Board,
        allowances: &Allowances,
        rule: SealRule,
    ) -> CartonStyle {
        let usual = CartonStyle::usual_of(board);
        let whole = |blank: &Blank| {
            !matches!(
                SheetNeed::of(blank, board, allowances.sheet_lap),
                SheetNeed::NoSheet
            )
        };
        // Whether it can be cut is known without its seal.
        if usual.unfit(size).is_none() && usual.parts(size, allowances).iter().all(whole) {
            return usual;
        }
        Self::usual(size, board, allowances, rule).style
    }

    /// Returns its size.
    #[must_use]
    pub const fn size(&self) -> BoxSize {
        BoxSize {
            length: self.inside_length,
            width: self.inside_width,
            height: self.inside_height,
            caliper: self.caliper,
        }
    }

    /// Returns how much of its seal is tape, and how much filament.
    #[must_use]
    pub fn sealed(&self) -> [Length; 2] {
        [false, true].map(|filament| {
            let strips = self.seal.iter().filter(|strip| strip.filament == filament);
            strips.map(|strip| strip.length).sum()
        })
    }

    /// Returns every part with the sheet that it takes.
    pub fn parts(&self) -> impl Iterator<Item = (&Blank, &SheetNeed)> {
        let more = self
            .more_parts
            .iter()
            .map(|part| (&part.blank, &part.sheet));
        std::iter::once((&self.blank, &self.sheet)).chain(more)
    }

    /// Returns every blank as it is cut and drawn: whole, or part by part where no sheet takes it whole.
    pub fn cut_blanks(&self) -> impl Iterator<Item = &Blank> {
        let more = self
            .more_parts
            .iter()
            .map(|part| (&part.blank, &part.joined));
        std::iter::once((&self.blank, &self.joined))
            .chain(more)
            .flat_map(|(blank, joined)| {
                let whole = joined.is_empty().then_some(blank);
                whole.into_iter().chain(joined)
            })
    }

    /// Returns the board that stays in it, with the laps of parts that are joined.
    #[must_use]
    pub fn board(&self) -> Area {
        self.cut_blanks().map(|blank| blank.area).sum()
    }

    /// Tells whether every part comes out of a sheet.
    #[must_use]
    pub fn can_be_cut(&self) -> bool {
        self.parts().all(|(_, sheet)| *sheet != SheetNeed::NoSheet)
    }

    /// Tells whether a part of it is joined.
    #[must_use]
    pub fn is_joined(&self) -> bool {
        self.parts()
            .any(|(_, sheet)| matches!(sheet, SheetNeed::Joined { .. }))
    }
}

//! Corner pocket, contact sheet and wrap.

use serde::{Deserialize, Serialize};

use super::{
    Sum,
    checked::{ALLOWANCE, SIDE, THIN, TURNS},
};
use crate::{
    Refusal, Refusals,
    house::Allowances,
    layer::{CardPocket, ContactSheet, PocketLines, Winding, WrapStrip},
    piece::PieceSize,
    quantity::Length,
    space::{Direction, Envelope},
};

/// A roll so wide that one strip does.
const ANY_ROLL: Length = Length::mm(1e6);

/// A folded card corner pocket.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct CornerPocketSum {
    /// The shorter side of the piece, 1 to 10 000.
    pub short_side_mm: f64,
    /// Over everything that goes into the pocket, 0.01 to 500.
    pub depth_mm: f64,
    /// The caliper of the board, 0.01 to 500.
    pub board_mm: f64,
}

/// The pocket to cut.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CornerPocketAnswer {
    /// How far it reaches along each edge.
    pub leg_mm: f64,
    /// Under the inner back flap.
    pub wall_a_mm: f64,
    /// Under the outer back flap.
    pub wall_b_mm: f64,
    /// Along wall A.
    pub blank_a_mm: f64,
    /// Along wall B.
    pub blank_b_mm: f64,
    /// That laps outside wall B.
    pub tab_mm: f64,
    /// Off each back flap at the other wall.
    pub flap_trim_mm: f64,
    /// Of one pocket.
    pub area_m2: f64,
    /// Its blank, to draw and to cut by.
    pub lines: PocketLines,
}

impl Sum for CornerPocketSum {
    type Answer = CornerPocketAnswer;

    fn work(&self) -> Result<CornerPocketAnswer, Vec<Refusal>> {
        Refusals::default()
            .number("short_side_mm", self.short_side_mm, SIDE)
            .number("depth_mm", self.depth_mm, THIN)
            .number("board_mm", self.board_mm, THIN)
            .done()?;
        let allowances = Allowances::default();
        let leg = CardPocket::leg_for(Length::mm(self.short_side_mm), &allowances);
        let [depth, board] = [self.depth_mm, self.board_mm].map(Length::mm);
        let pocket = CardPocket::fold(leg, depth, board, allowances.pocket_play);
        Ok(CornerPocketAnswer {
            leg_mm: pocket.leg.as_mm(),
            wall_a_mm: pocket.wall_a.as_mm(),
            wall_b_mm: pocket.wall_b.as_mm(),
            blank_a_mm: pocket.blank_a.as_mm(),
            blank_b_mm: pocket.blank_b.as_mm(),
            tab_mm: pocket.tab.as_mm(),
            flap_trim_mm: pocket.flap_trim.as_mm(),
            area_m2: pocket.area().as_m2(),
            lines: pocket.lines,
        })
    }
}

/// A sheet over the face and the edges, turned onto the back.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct ContactSheetSum {
    /// As hung, 1 to 10 000.
    pub width_mm: f64,
    /// As hung, 1 to 10 000.
    pub height_mm: f64,
    /// Over everything, 0.01 to 500.
    pub depth_mm: f64,
    /// Onto the back, 0 to 1000; 40 when left out.
    #[serde(default)]
    pub turn_mm: Option<f64>,
    /// Of the roll, 1 to 10 000; as wide as needed when left out.
    #[serde(default)]
    pub roll_width_mm: Option<f64>,
}

/// The sheet to cut.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ContactSheetAnswer {
    /// Across.
    pub sheet_width_mm: f64,
    /// Up.
    pub sheet_height_mm: f64,
    /// Laps counted once.
    pub area_m2: f64,
    /// Widths that come off the roll.
    pub strips: u32,
    /// Strips side by side: two narrow ones may come out of one width.
    pub side_by_side: u32,
    /// How many of them are narrower than the roll.
    pub narrow: u32,
    /// How wide those are.
    pub narrow_width_mm: f64,
    /// Whether no lap lies within a tenth of the face's side of its middle.
    pub off_the_middle: bool,
    /// Off the roll, for all strips.
    pub roll_length_mm: f64,
}

impl Sum for ContactSheetSum {
    type Answer = ContactSheetAnswer;

    fn work(&self) -> Result<ContactSheetAnswer, Vec<Refusal>> {
        Refusals::default()
            .number("width_mm", self.width_mm, SIDE)
            .number("height_mm", self.height_mm, SIDE)
            .number("depth_mm", self.depth_mm, THIN)
            .if_given("turn_mm", self.turn_mm, ALLOWANCE)
            .if_given("roll_width_mm", self.roll_width_mm, SIDE)
            .done()?;
        let allowances = Allowances::default();
        let [width, height, depth] = [self.width_mm, self.height_mm, self.depth_mm].map(Length::mm);
        let sheet = ContactSheet::around(
            PieceSize {
                width,
                height,
                depth,
            },
            self.turn_mm.map_or(allowances.contact_turn, Length::mm),
            self.roll_width_mm.map_or(ANY_ROLL, Length::mm),
            allowances.contact_lap,
        );
        Ok(ContactSheetAnswer {
            sheet_width_mm: sheet.sheet_width.as_mm(),
            sheet_height_mm: sheet.sheet_height.as_mm(),
            area_m2: sheet.area().as_m2(),
            strips: sheet.across.widths(),
            side_by_side: sheet.strips,
            narrow: sheet.across.narrow,
            narrow_width_mm: sheet.across.narrow_width.as_mm(),
            off_the_middle: sheet.across.clear,
            roll_length_mm: sheet.roll_length.as_mm(),
        })
    }
}

/// A cushion wound around.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct WrapSum {
    /// At right angles to the way it runs, 1 to 10 000.
    pub across_mm: f64,
    /// The way it runs, 1 to 10 000.
    pub along_mm: f64,
    /// Of what is wrapped, 0.01 to 500.
    pub depth_mm: f64,
    /// 1 to 20.
    pub turns: u32,
    /// Of one turn under light load, 0.01 to 500.
    pub loaded_thickness_mm: f64,
    /// Of the roll, 1 to 10 000; as wide as needed when left out.
    #[serde(default)]
    pub roll_width_mm: Option<f64>,
}

/// The wrap to cut.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct WrapAnswer {
    /// Of each strip.
    pub length_mm: f64,
    /// Both rolled ends included.
    pub width_mm: f64,
    /// Side by side.
    pub strips: u32,
    /// With the laps.
    pub area_m2: f64,
}

impl Sum for WrapSum {
    type Answer = WrapAnswer;

    fn work(&self) -> Result<WrapAnswer, Vec<Refusal>> {
        Refusals::default()
            .number("across_mm", self.across_mm, SIDE)
            .number("along_mm", self.along_mm, SIDE)
            .number("depth_mm", self.depth_mm, THIN)
            .number("turns", f64::from(self.turns), TURNS)
            .number("loaded_thickness_mm", self.loaded_thickness_mm, THIN)
            .if_given("roll_width_mm", self.roll_width_mm, SIDE)
            .done()?;
        let inside = Envelope {
            across: Length::mm(self.across_mm),
            up: Length::mm(self.along_mm),
            through: Length::mm(self.depth_mm),
        };
        let winding = Winding {
            direction: Direction::Up,
            turns: self.turns,
            loaded_thickness: Length::mm(self.loaded_thickness_mm),
            roll_width: self.roll_width_mm.map_or(ANY_ROLL, Length::mm),
        };
        let strip = WrapStrip::around(inside, winding, &Allowances::default());
        Ok(WrapAnswer {
            length_mm: strip.length.as_mm(),
            width_mm: strip.width.as_mm(),
            strips: strip.strips,
            area_m2: strip.area.as_m2(),
        })
    }
}

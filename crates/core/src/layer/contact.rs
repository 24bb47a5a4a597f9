//! The contact sheet: over the face and the edges, turned onto the back.

use serde::Serialize;

use super::kind::{Kind, Nature, Standing, StandingQuestion, from_shelf};
use super::{Layer, Make, Making, Supplies};
use crate::{
    house::Carriage,
    material::ContactPaper,
    part::{Need, Run},
    piece::{Glazing, PieceSize},
    quantity::{Area, Length, ceil_count},
    space::{Addition, Envelope, LayerSlot},
};

/// A contact sheet and the strips that it is joined from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ContactSheet {
    /// Across the piece, with depth and turn on both sides.
    #[serde(rename = "sheet_width_mm")]
    pub sheet_width: Length,
    /// Up the piece, with depth and turn on both sides.
    #[serde(rename = "sheet_height_mm")]
    pub sheet_height: Length,
    /// How far it is turned onto the back.
    #[serde(rename = "turn_mm")]
    pub turn: Length,
    /// Strips side by side.
    pub strips: u32,
    /// Length of each strip.
    #[serde(rename = "strip_length_mm")]
    pub strip_length: Length,
    /// Length that comes off the roll for all of them.
    #[serde(rename = "roll_length_mm")]
    pub roll_length: Length,
    /// How many sheets, where it comes in sheets; nothing off a roll.
    pub sheets: Option<u32>,
}

/// A lap nearer to the middle of the face than this would be seen on it.
const OFF_THE_MIDDLE: Length = Length::mm(50.0);

impl ContactSheet {
    /// Returns the sheet for a piece, cut from a roll the way round that uses least of it.
    ///
    /// The sheet is (width + 2·depth + 2·turn) × (height + 2·depth + 2·turn); a side takes
    /// ⌈(side − lap) ÷ (roll − lap)⌉ strips. Source: house rule. A roll no wider than the lap is taken
    /// as twice the lap.
    ///
    /// ```
    /// use hummock_core::{layer::ContactSheet, piece::PieceSize, quantity::Length};
    ///
    /// let [width, height, depth] = [900.0, 1200.0, 38.0].map(Length::mm);
    /// let sheet = ContactSheet::around(
    ///     PieceSize { width, height, depth }, Length::mm(40.0), Length::mm(610.0), Length::mm(20.0),
    /// );
    /// assert_eq!((sheet.strips, sheet.roll_length), (2, Length::mm(2712.0)));
    /// ```
    #[must_use]
    pub fn around(size: PieceSize, turn: Length, roll_width: Length, lap: Length) -> Self {
        let folded = (size.depth + turn) * 2.0;
        let (sheet_width, sheet_height) = (size.width + folded, size.height + folded);
        let (strips, strip_length) = [(sheet_width, sheet_height), (sheet_height, sheet_width)]
            .map(|(side, length)| (strips_across(side, roll_width, lap), length))
            .into_iter()
            .min_by_key(|&(strips, length)| length * f64::from(strips))
            .expect("there are two ways round");
        Self {
            sheet_width,
            sheet_height,
            turn,
            strips,
            strip_length,
            roll_length: strip_length * f64::from(strips),
            sheets: None,
        }
    }

    /// Returns the sheet for a piece, joined from smaller ones of a width and a length, the way round that takes the
    /// fewest.
    ///
    /// A side takes ⌈(side − lap) ÷ (sheet − lap)⌉ of them. Of an even count one lap lies in the middle; where what is
    /// over does not let it lie aside, it costs one more sheet. Source: house rule.
    #[must_use]
    pub fn from_sheets(
        size: PieceSize,
        turn: Length,
        [width, length]: [Length; 2],
        lap: Length,
    ) -> Self {
        let folded = (size.depth + turn) * 2.0;
        let (sheet_width, sheet_height) = (size.width + folded, size.height + folded);
        let along = |side: Length, sheet: Length| {
            let count = strips_across(side, sheet, lap);
            let spare = sheet * f64::from(count) - lap * f64::from(count - 1) - side;
            let seen = count.is_multiple_of(2) && spare < OFF_THE_MIDDLE * 2.0;
            (count, u32::from(seen))
        };
        let (sheets, strips, strip_length) = [(width, length), (length, width)]
            .map(|(across, up)| {
                let (columns, one) = along(sheet_width, across);
                let (rows, other) = along(sheet_height, up);
                (columns * rows + one.max(other), columns, up)
            })
            .into_iter()
            .min_by_key(|&(sheets, ..)| sheets)
            .expect("there are two ways round");
        Self {
            sheet_width,
            sheet_height,
            turn,
            strips,
            strip_length,
            roll_length: length * f64::from(sheets),
            sheets: Some(sheets),
        }
    }

    /// Returns the sheet for a piece from a paper as it is sold.
    pub(super) fn of(size: PieceSize, turn: Length, paper: &ContactPaper, lap: Length) -> Self {
        match paper.sheet_length {
            Some(length) => Self::from_sheets(size, turn, [paper.roll_width, length], lap),
            None => Self::around(size, turn, paper.roll_width, lap),
        }
    }

    /// Returns what one of them takes of a paper: strips off its roll, or its sheets.
    pub(super) fn need<'a>(
        self,
        name: &'static str,
        paper: &'a ContactPaper,
        lap: Length,
    ) -> Need<'a> {
        match self.sheets.zip(paper.sheet_length) {
            Some((sheets, length)) => {
                let one = Run::of([length, paper.roll_width]);
                let stays = self.area() / f64::from(sheets);
                Need::paper(name, paper, one.staying(stays)).times(sheets)
            }
            None => Need::paper(name, paper, self.run(lap)).times(self.strips),
        }
    }

    /// Returns the area of the sheet, its laps counted once.
    #[must_use]
    pub fn area(self) -> Area {
        self.sheet_width * self.sheet_height
    }

    /// Returns one strip of it, as wide as all of them are alike.
    fn run(self, lap: Length) -> Run {
        let across = if self.strip_length == self.sheet_height {
            self.sheet_width
        } else {
            self.sheet_height
        };
        strip_of(self.strips, [self.strip_length, across], lap)
    }

    /// Returns the layer of a sheet around each of a count of pieces.
    pub(crate) fn layer(
        supplies: &Supplies<'_>,
        size: PieceSize,
        count: u32,
        inside: Envelope,
    ) -> Layer {
        let paper = supplies.contact_paper;
        let allowances = supplies.allowances();
        let lap = allowances.contact_lap;
        let sheet = Self::of(size, allowances.contact_turn, paper, lap);
        let flaps = (supplies.tabs_along(size.width) + supplies.tabs_along(size.height)) * 2;
        let each = f64::from(count);
        let t = paper.thickness;
        supplies.layer(Making {
            slot: LayerSlot::Contact,
            needs: vec![
                sheet.need("contact sheet", paper, lap).each(count),
                Need::tab(supplies.contact_tape, "on the flaps behind", allowances.tape_tab)
                    .times(flaps * count),
                Need::tape(supplies.contact_tape, "along each lap, outside", sheet.strip_length)
                    .times((sheet.strips - 1) * count),
            ],
            adds: Addition::new(t, t, t, t),
            inside,
            minutes: (allowances.contact_minutes
                + allowances.contact_minutes_per_m
                    * (sheet.sheet_width + sheet.sheet_height).as_m())
                * each,
            why: "A smooth sheet keeps everything else off the surface; it is taped on the back only.",
            make: Make::ContactSheet(sheet),
            cushioning: None,
        })
    }
}

/// Sheets before, between and behind loose ones.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Interleaves {
    /// One more than there are loose sheets.
    pub count: u32,
    /// Of each.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Of each.
    #[serde(rename = "height_mm")]
    pub height: Length,
}

impl Interleaves {
    pub(crate) fn layer(
        supplies: &Supplies<'_>,
        size: PieceSize,
        loose: u32,
        inside: Envelope,
    ) -> Layer {
        let paper = supplies.contact_paper;
        let allowances = supplies.allowances();
        let leaves = Self {
            count: loose + 1,
            width: size.width,
            height: size.height,
        };
        let each = f64::from(leaves.count);
        let lap = allowances.contact_lap;
        let flat = PieceSize {
            depth: Length::ZERO,
            ..size
        };
        let sheet = ContactSheet::of(flat, Length::ZERO, paper, lap);
        supplies.layer(Making {
            slot: LayerSlot::Contact,
            needs: vec![sheet.need("interleaf", paper, lap).each(leaves.count)],
            adds: Addition::new(
                Length::ZERO,
                Length::ZERO,
                paper.thickness,
                paper.thickness * f64::from(loose),
            ),
            inside,
            minutes: allowances.contact_minutes
                + allowances.interleaf_minutes_per_m * ((size.width + size.height) * each).as_m(),
            why: "A smooth sheet before, between and behind, so that nothing rubs on a face.",
            make: Make::Interleaves(leaves),
            cushioning: None,
        })
    }
}

/// Returns one of so many strips that cover a length and a width, each but the last lapped by the next.
pub(super) fn strip_of(strips: u32, [length, width]: [Length; 2], lap: Length) -> Run {
    let count = f64::from(strips);
    let across = (width + lap * (count - 1.0)) / count;
    Run::of([length, across])
}

/// Returns how many strips of a roll cover a side when each laps the one before.
pub(super) fn strips_across(side: Length, roll_width: Length, lap: Length) -> u32 {
    let roll_width = roll_width.max(lap * 2.0);
    ceil_count((side - lap) / (roll_width - lap)).max(1)
}

/// A sheet against the art, or between loose sheets.
pub(super) const KIND: Kind = Kind::new(Nature::PLAIN, stands, |around| {
    let (supplies, piece) = (around.supplies, around.piece);
    let layer = match around.carriage {
        Carriage::Flat => ContactSheet::layer,
        Carriage::Folio | Carriage::Mailed | Carriage::Rolled => Interleaves::layer,
    };
    Ok(Some(layer(
        supplies,
        piece.size,
        piece.count,
        around.inside(),
    )))
})
.or(|offering| from_shelf!(offering.catalogue.contact_papers, contact_paper).collect());

fn stands(asked: &StandingQuestion<'_>) -> Standing {
    if asked.carriage == Carriage::Rolled {
        Standing::Must("a face that lies on a back prints on it")
    } else if asked.piece.is_friable() {
        Standing::Never("no sheet may touch loose pigment; the window spacer takes its place")
    } else if asked.piece.construction.glazing() == Glazing::None {
        Standing::Must("nothing else may lie against a bare face, least of all plastic")
    } else {
        Standing::On
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn sheet(sides: [f64; 3], roll: f64) -> ContactSheet {
        let [width, height, depth] = sides.map(Length::mm);
        ContactSheet::around(
            PieceSize {
                width,
                height,
                depth,
            },
            Length::mm(40.0),
            Length::mm(roll),
            Length::mm(20.0),
        )
    }

    #[test]
    fn a_large_canvas_takes_two_strips_the_long_way() {
        // 900 + 76 + 80 = 1056; 1200 + 76 + 80 = 1356. Across 1056: (1056 − 20)/(610 − 20) = 1.76, two
        // strips of 1356 = 2712. Across 1356: 2.26, three strips of 1056 = 3168. The least is 2712.
        let sheet = sheet([900.0, 1200.0, 38.0], 610.0);
        assert_eq!(
            (sheet.sheet_width, sheet.sheet_height),
            (Length::mm(1056.0), Length::mm(1356.0))
        );
        assert_eq!((sheet.strips, sheet.roll_length), (2, Length::mm(2712.0)));
    }

    #[test]
    fn a_tall_canvas_is_cheaper_the_other_way_round() {
        // 560 + 60 + 80 = 700; 960 + 140 = 1100. Across 700: 680/590 = 1.15, two of 1100 = 2200.
        // Across 1100: 1080/590 = 1.83, two of 700 = 1400.
        let sheet = sheet([560.0, 960.0, 30.0], 610.0);
        assert_eq!((sheet.strips, sheet.roll_length), (2, Length::mm(1400.0)));
    }

    #[test]
    fn sheets_are_laid_the_way_round_that_takes_the_fewest() {
        // 1000 × 700 × 40: 1160 × 860. Of 750 × 500: (1160 − 20)/730 = 1.6 and (860 − 20)/480 = 1.75, two by two, 320
        // and 120 to spare; the other way 1140/480 = 2.4 and 840/730 = 1.2, three by two.
        let sheets = |sides: [f64; 3], sheet: [f64; 2]| {
            let [width, height, depth] = sides.map(Length::mm);
            let size = PieceSize {
                width,
                height,
                depth,
            };
            let [turn, lap] = [40.0, 20.0].map(Length::mm);
            ContactSheet::from_sheets(size, turn, sheet.map(Length::mm), lap).sheets
        };
        assert_eq!(sheets([1000.0, 700.0, 40.0], [750.0, 500.0]), Some(4));
        // 1200 wide: two of 615 reach 1210, 50 short of what lets the lap lie aside: 2 × 2 + 1.
        assert_eq!(sheets([1040.0, 700.0, 40.0], [615.0, 615.0]), Some(5));
        assert_eq!(sheets([400.0, 300.0, 20.0], [750.0, 500.0]), Some(1));
    }

    #[test]
    fn a_small_piece_takes_one_strip_along_its_shorter_side() {
        // 200 + 2 × 60 = 320 and 300 + 120 = 420, both under 610: one strip of 320.
        let sheet = sheet([200.0, 300.0, 20.0], 610.0);
        assert_eq!((sheet.strips, sheet.roll_length), (1, Length::mm(320.0)));
    }
}

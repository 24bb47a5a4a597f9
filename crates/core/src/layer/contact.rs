//! The contact sheet: over the face and the edges, turned onto the back.

use serde::Serialize;

use super::kind::{Kind, Nature, Standing, StandingQuestion, from_shelf};
use super::{Layer, Make, Making, Supplies};
use crate::{
    house::Carriage,
    material::ContactPaper,
    part::{Need, PartId, Run, StripId},
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
    /// How the strips off a roll are cut across it.
    pub across: StripsAcross,
}

/// How strips off a roll cover a side, so that no lap lies near the middle of the face.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StripsAcross {
    /// Strips as wide as the roll.
    pub whole: u32,
    /// How wide those are.
    #[serde(rename = "whole_width_mm")]
    pub whole_width: Length,
    /// Narrower ones: one at an end, or one at each.
    pub narrow: u32,
    /// How wide those are.
    #[serde(rename = "narrow_width_mm")]
    pub narrow_width: Length,
    /// Whether both come out of one width of the roll.
    pub slit: bool,
    /// Whether every lap lies a tenth of the face's side or more away from its middle.
    pub clear: bool,
}

/// Laps lie this share of a face's side away from its middle, on both sides of it.
const CLEAR_OF_THE_MIDDLE: f64 = 0.2;

impl StripsAcross {
    /// Returns how strips of a roll cover a side of a sheet, over a side of the face.
    ///
    /// With k = ⌈(N − p)/(R − p)⌉ strips and s = k·R − (k − 1)·p − N to spare: an odd k has a whole width in the middle; an even one has whole
    /// widths from one end on where s ≥ f/5 + p, and one strip more where it is less, the outer two of which come out of one width
    /// where s ≥ p. A roll narrower than f/5 + 2·p has a lap near the middle whatever is done. Source: house rule.
    #[must_use]
    pub fn of(side: Length, face: Length, roll: Length, lap: Length) -> Self {
        let roll = roll.max(lap * 2.0);
        let count = strips_across(side, roll, lap);
        let one = Self {
            whole: 0,
            whole_width: roll,
            narrow: 1,
            narrow_width: side,
            slit: false,
            clear: true,
        };
        if count == 1 {
            return one;
        }
        let clear = face * CLEAR_OF_THE_MIDDLE;
        let laps = f64::from(count - 1);
        let spare = roll * f64::from(count) - lap * laps - side;
        let over = |whole: u32, laps: f64| side + lap * laps - roll * f64::from(whole);
        let gives_way = roll < clear + lap * 2.0;
        if gives_way || (count.is_multiple_of(2) && spare >= clear + lap) {
            return Self {
                whole: count - 1,
                narrow_width: over(count - 1, laps),
                clear: !gives_way,
                ..one
            };
        }
        let outer_two = |whole: u32, laps: f64| Self {
            whole,
            narrow: 2,
            narrow_width: over(whole, laps) / 2.0,
            ..one
        };
        if count.is_multiple_of(2) {
            Self {
                slit: spare >= lap,
                ..outer_two(count - 1, laps + 1.0)
            }
        } else {
            outer_two(count - 2, laps)
        }
    }

    /// Returns how many strips lie side by side.
    #[must_use]
    pub const fn strips(self) -> u32 {
        self.whole + self.narrow
    }

    /// Returns how many widths come off the roll for them.
    #[must_use]
    pub const fn widths(self) -> u32 {
        if self.slit {
            self.whole + 1
        } else {
            self.strips()
        }
    }

    /// Returns what strips of a length take of a paper.
    fn needs<'a>(self, name: PartId, paper: &'a ContactPaper, length: Length) -> Vec<Need<'a>> {
        let strip = |width: Length| Need::paper(name, paper, Run::of([length, width]));
        let narrow = if self.slit {
            let both = Run::of([length, self.narrow_width * 2.0]);
            Need::paper(SLIT, paper, both)
        } else {
            strip(self.narrow_width).times(self.narrow)
        };
        if self.whole == 0 {
            vec![narrow]
        } else {
            vec![strip(self.whole_width).times(self.whole), narrow]
        }
    }
}

/// What a width is called that becomes two strips.
const SLIT: PartId = PartId::SheetToBeSlitInTwo;

/// A lap nearer to the middle of the face than this would be seen on it.
const OFF_THE_MIDDLE: Length = Length::mm(50.0);

impl ContactSheet {
    /// Returns the sheet for a piece, cut from a roll the way round that uses least of it.
    ///
    /// The sheet is (width + 2·depth + 2·turn) × (height + 2·depth + 2·turn); a side takes strips by
    /// [`StripsAcross::of`]. Source: house rule. A roll no wider than the lap is taken as twice the lap.
    ///
    /// ```
    /// use hummock_core::{layer::ContactSheet, piece::PieceSize, quantity::Length};
    ///
    /// let [width, height, depth] = [900.0, 1200.0, 38.0].map(Length::mm);
    /// let sheet = ContactSheet::around(
    ///     PieceSize { width, height, depth }, Length::mm(40.0), Length::mm(610.0), Length::mm(20.0),
    /// );
    /// assert_eq!((sheet.strips, sheet.roll_length), (3, Length::mm(2712.0)));
    /// ```
    #[must_use]
    pub fn around(size: PieceSize, turn: Length, roll_width: Length, lap: Length) -> Self {
        let folded = (size.depth + turn) * 2.0;
        let (sheet_width, sheet_height) = (size.width + folded, size.height + folded);
        let (across, strip_length) = [
            (sheet_width, size.width, sheet_height),
            (sheet_height, size.height, sheet_width),
        ]
        .map(|(side, face, length)| (StripsAcross::of(side, face, roll_width, lap), length))
        .into_iter()
        .min_by_key(|&(across, length)| {
            (
                !across.clear,
                length * f64::from(across.widths()),
                across.strips(),
            )
        })
        .expect("there are two ways round");
        Self {
            sheet_width,
            sheet_height,
            turn,
            strips: across.strips(),
            strip_length,
            roll_length: strip_length * f64::from(across.widths()),
            sheets: None,
            across,
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
        let (sheets, strips, up) = [(width, length), (length, width)]
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
            strip_length: up,
            roll_length: length * f64::from(sheets),
            sheets: Some(sheets),
            across: StripsAcross {
                whole: strips,
                whole_width: if up == length { width } else { length },
                narrow: 0,
                narrow_width: Length::ZERO,
                slit: false,
                clear: true,
            },
        }
    }

    /// Returns the sheet for a piece from a paper as it is sold.
    pub(super) fn of(size: PieceSize, turn: Length, paper: &ContactPaper, lap: Length) -> Self {
        match paper.sheet_length {
            Some(length) => Self::from_sheets(size, turn, [paper.roll_width, length], lap),
            None => Self::around(size, turn, paper.roll_width, lap),
        }
    }

    /// Returns what so many of them take of a paper: strips off its roll, or its sheets.
    pub(super) fn needs<'a>(
        self,
        name: PartId,
        paper: &'a ContactPaper,
        count: u32,
    ) -> Vec<Need<'a>> {
        let each = match self.sheets.zip(paper.sheet_length) {
            Some((sheets, length)) => {
                let one = Run::of([length, paper.roll_width]);
                let stays = self.area() / f64::from(sheets);
                vec![Need::paper(name, paper, one.staying(stays)).times(sheets)]
            }
            None => self.across.needs(name, paper, self.strip_length),
        };
        each.into_iter().map(|need| need.each(count)).collect()
    }

    /// Returns the area of the sheet, its laps counted once.
    #[must_use]
    pub fn area(self) -> Area {
        self.sheet_width * self.sheet_height
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
        let mut needs = sheet.needs(PartId::ContactSheet, paper, count);
        needs.extend([
            Need::tab(
                supplies.contact_tape,
                StripId::OnTheFlapsBehind,
                allowances.tape_tab,
            )
            .times(flaps * count),
            Need::tape(
                supplies.contact_tape,
                StripId::AlongEachLapOutside,
                sheet.strip_length,
            )
            .times((sheet.strips - 1) * count),
        ]);
        supplies.layer(Making {
            slot: LayerSlot::Contact,
            needs,
            adds: Addition::new(t, t, t, t),
            inside,
            minutes: (allowances.contact_minutes
                + allowances.contact_minutes_per_m
                    * (sheet.sheet_width + sheet.sheet_height).as_m())
                * each,
            why: "A smooth sheet protects the surface; it is taped on the back only.",
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
    /// Of how many strips each is joined.
    pub strips: u32,
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
        let lap = allowances.contact_lap;
        let flat = PieceSize {
            depth: Length::ZERO,
            ..size
        };
        let sheet = ContactSheet::of(flat, Length::ZERO, paper, lap);
        let leaves = Self {
            count: loose + 1,
            strips: sheet.strips,
            width: size.width,
            height: size.height,
        };
        let each = f64::from(leaves.count);
        supplies.layer(Making {
            slot: LayerSlot::Contact,
            needs: sheet.needs(PartId::Interleaf, paper, leaves.count),
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
        Carriage::Flat | Carriage::Padded => ContactSheet::layer,
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
        Standing::Must("without it a face marks the back of the next sheet")
    } else if asked.piece.is_friable() {
        Standing::Never("no sheet may touch loose pigment; the window spacer takes its place")
    } else if asked.piece.construction.glazing() == Glazing::None {
        Standing::Must("a bare face needs a contact sheet; plastic must never touch it")
    } else {
        Standing::On
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

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
        // 900 + 76 + 80 = 1056; 1200 + 76 + 80 = 1356. Across 1056: (1056 − 20)/(610 − 20) = 1.76, two with 144 to spare, less than
        // 900/5 + 20: three, one in the middle, the outer two of (1056 + 40 − 610)/2 = 243 out of one width, so that 2 × 1356 = 2712
        // come off the roll. Across 1356: 2.26, three of 1056 = 3168. The least is 2712.
        let sheet = sheet([900.0, 1200.0, 38.0], 610.0);
        assert_eq!(
            (sheet.sheet_width, sheet.sheet_height),
            (Length::mm(1056.0), Length::mm(1356.0))
        );
        assert_eq!((sheet.strips, sheet.roll_length), (3, Length::mm(2712.0)));
        assert_eq!(
            (sheet.across.narrow_width, sheet.across.slit),
            (Length::mm(243.0), true)
        );
    }

    #[test]
    fn a_tall_canvas_is_cheaper_the_other_way_round() {
        // 560 + 60 + 80 = 700; 960 + 140 = 1100. Across 700: 680/590 = 1.15, two of 1100 = 2200, 610 and 110.
        // Across 1100: 1080/590 = 1.83, two with 100 to spare, so three out of two widths of 700 = 1400.
        let sheet = sheet([560.0, 960.0, 30.0], 610.0);
        assert_eq!((sheet.strips, sheet.roll_length), (3, Length::mm(1400.0)));
    }

    #[test]
    fn no_lap_lies_near_the_middle_of_a_face() {
        // 756 from 610 with a lap of 20, over a face of 600: 1220 − 20 − 756 = 444 to spare, over 600/5 + 20: 610 and 166. Of 1500 over
        // 1350: three, a whole one between two of (1500 + 40 − 610)/2 = 465. Of 1190 over 1000: two with 10 to spare, so four
        // laps: three strips of which two are (1190 + 40 − 610)/2 = 310, and no longer out of one width. A roll of 200 over a
        // face of 1000: 200 < 1000/5 + 40, and a lap may lie anywhere.
        let of = |side: f64, face: f64, roll: f64| {
            let [side, face, roll, lap] = [side, face, roll, 20.0].map(Length::mm);
            let across = StripsAcross::of(side, face, roll, lap);
            (
                across.whole,
                across.narrow,
                across.narrow_width.as_mm(),
                across.slit,
                across.clear,
            )
        };
        assert_eq!(of(756.0, 600.0, 610.0), (1, 1, 166.0, false, true));
        assert_eq!(of(1500.0, 1350.0, 610.0), (1, 2, 465.0, false, true));
        assert_eq!(of(1190.0, 1000.0, 610.0), (1, 2, 310.0, false, true));
        assert!(!of(1100.0, 1000.0, 200.0).4);
    }

    proptest! {
        #[test]
        fn strips_cover_the_sheet_fit_the_roll_and_lap_away_from_the_middle(
            face in 60.0..2400.0_f64, folded in 0.0..300.0_f64, roll in 80.0..1600.0_f64, lap in 10.0..40.0_f64,
        ) {
            let (side, middle) = (face + folded, (face + folded) / 2.0);
            let [side_mm, face_mm, roll_mm, lap_mm] = [side, face, roll, lap].map(Length::mm);
            let across = StripsAcross::of(side_mm, face_mm, roll_mm, lap_mm);
            let (whole, narrow) = (across.whole_width.as_mm(), across.narrow_width.as_mm());
            let mut widths = vec![whole; across.whole as usize];
            widths.push(narrow);
            if across.narrow == 2 {
                widths.insert(0, narrow);
            }
            let covered: f64 = widths.iter().sum::<f64>() - lap * f64::from(across.strips() - 1);
            prop_assert!((covered - side).abs() < 1e-6, "{:?} cover {}", widths, covered);
            let taken = if across.slit { narrow * 2.0 } else { narrow };
            prop_assert!(narrow > 0.0 && taken <= roll + 1e-9 && whole <= roll.max(2.0 * lap) + 1e-9);
            prop_assert!(across.strips() <= strips_across(side_mm, roll_mm, lap_mm) + 1);
            let mut end: f64 = 0.0;
            for width in &widths[..widths.len() - 1] {
                end += width - lap;
                let near = (end - middle).max(middle - end - lap).max(0.0);
                prop_assert!(!across.clear || near >= face / 10.0 - 1e-6, "{:?}: a lap {} off", across, near);
            }
        }
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

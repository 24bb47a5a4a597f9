//! How large a piece is.

use serde::{Deserialize, Serialize};

use super::Construction;
use crate::{
    Refusal, Refusals,
    quantity::{Area, Length, LengthRange, TypedLength},
};

const CRATE: &str = "a larger piece goes to a crating service; check the unit that was typed";

/// How wide a piece may be.
pub const WIDTH: LengthRange = LengthRange {
    name: "the width",
    least: Length::mm(20.0),
    most: Length::mm(4000.0),
    remedy: CRATE,
};
/// How high a piece may be.
pub const HEIGHT: LengthRange = LengthRange {
    name: "the height",
    least: Length::mm(20.0),
    most: Length::mm(4000.0),
    remedy: CRATE,
};
/// How deep a piece may be.
pub const DEPTH: LengthRange = LengthRange {
    name: "the depth",
    least: Length::mm(1.0),
    most: Length::mm(300.0),
    remedy: "measure from face to back, including frame and hardware",
};

/// How thick a loose sheet may be.
const SHEET_DEPTH: LengthRange = LengthRange {
    name: "the depth",
    least: Length::mm(0.05),
    most: Length::mm(300.0),
    remedy: "leave it empty for a sheet of paper or a canvas off its bars",
};

/// Width and height as hung, and depth over everything.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, Hash)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PieceSize {
    /// Across, as hung.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Up, as hung.
    #[serde(rename = "height_mm")]
    pub height: Length,
    /// From the face to the back.
    #[serde(rename = "depth_mm")]
    pub depth: Length,
}

impl PieceSize {
    /// Makes it from the sides as typed; `None` while one is not known that is not known by the kind of piece. A loose sheet is as
    /// thick as such sheets are, where nothing is typed.
    ///
    /// # Errors
    /// A [`Refusal`] for each side out of its range (20 to 4000 mm for width and height, 1 to 300 mm for depth, from 0.05 mm for a
    /// loose sheet), or for a depth over the shorter side, which is three numbers in another order.
    pub fn read(
        sides: [Option<&TypedLength>; 3],
        construction: Option<Construction>,
    ) -> Result<Option<Self>, Vec<Refusal>> {
        let sheet = construction.and_then(Construction::sheet_depth);
        let range = if sheet.is_some() { SHEET_DEPTH } else { DEPTH };
        let [width, height, depth] = sides;
        // Who types nought for a sheet says that it has no depth to measure.
        let depth = depth.filter(|depth| sheet.is_none() || depth.length() > Length::ZERO);
        let sides = [width, height, depth];
        Self::check_known(sides, range)?;
        let [width, height, depth] = sides.map(|side| side.map(TypedLength::length));
        let (Some(width), Some(height), Some(depth)) = (width, height, depth.or(sheet)) else {
            return Ok(None);
        };
        let size = Self {
            width,
            height,
            depth,
        };
        if size.depth > size.short_side() {
            return Err(vec![Refusal::new(
                "piece.depth",
                "the depth is more than the shorter side: a flat piece is measured width × height × depth",
            )]);
        }
        Ok(Some(size))
    }

    fn check_known(
        sides: [Option<&TypedLength>; 3],
        depth: LengthRange,
    ) -> Result<(), Vec<Refusal>> {
        let ranges = [
            ("piece.width", WIDTH),
            ("piece.height", HEIGHT),
            ("piece.depth", depth),
        ];
        let refusals: Refusals = ranges
            .into_iter()
            .zip(sides)
            .filter_map(|((field, range), side)| {
                let out = range.check(side?.length(), side?.unit()).err()?;
                Some(Refusal::new(field, out))
            })
            .collect();
        refusals.or(())
    }

    /// Returns the shorter side of the face.
    #[must_use]
    pub const fn short_side(self) -> Length {
        self.width.min(self.height)
    }

    /// Returns the longer side of the face.
    #[must_use]
    pub const fn long_side(self) -> Length {
        self.width.max(self.height)
    }

    /// Returns the area of the face.
    #[must_use]
    pub fn face(self) -> Area {
        self.width * self.height
    }

    /// Returns the way around the face.
    #[must_use]
    pub fn perimeter(self) -> Length {
        (self.width + self.height) * 2.0
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::quantity::LengthUnit;

    fn size(sides: [&str; 3]) -> Result<PieceSize, Vec<Refusal>> {
        let [width, height, depth] =
            sides.map(|side| TypedLength::read(side, LengthUnit::Mm).expect("a length"));
        PieceSize::read([Some(&width), Some(&height), Some(&depth)], None)
            .map(|size| size.expect("three sides"))
    }

    #[test]
    fn a_loose_sheet_needs_no_depth() {
        let typed = |text: &str| TypedLength::read(text, LengthUnit::Mm).expect("a length");
        let (width, height) = (typed("297"), typed("420"));
        let depth_of = |construction, depth: Option<&str>| {
            let depth = depth.map(typed);
            let sides = [Some(&width), Some(&height), depth.as_ref()];
            PieceSize::read(sides, Some(construction)).map(|size| size.map(|size| size.depth))
        };
        let paper = Construction::LoosePaper;
        assert_eq!(depth_of(paper, None), Ok(Some(Length::mm(0.3))));
        assert_eq!(depth_of(paper, Some("0")), Ok(Some(Length::mm(0.3))));
        assert_eq!(depth_of(paper, Some("0.05")), Ok(Some(Length::mm(0.05))));
        assert!(depth_of(paper, Some("0.04")).is_err());
        assert_eq!(
            depth_of(Construction::LooseCanvas, None),
            Ok(Some(Length::mm(1.2)))
        );
        // What has a depth is asked for it, and is a millimetre deep at least.
        assert_eq!(depth_of(Construction::StretchedCanvas, None), Ok(None));
        assert!(depth_of(Construction::StretchedCanvas, Some("0.3")).is_err());
    }

    #[test]
    fn every_side_out_of_range_is_named_in_its_own_unit() {
        let refused = size(["40 m", "1200", "0"]).expect_err("too wide and flat");
        let fields: Vec<&str> = refused
            .iter()
            .map(|refusal| refusal.field.as_str())
            .collect();
        assert_eq!(fields, ["piece.width", "piece.depth"]);
        assert!(
            refused[0]
                .message
                .starts_with("the width is 4000.0\u{a0}cm; it must be from 2.0\u{a0}cm")
        );
    }

    #[test]
    fn three_numbers_in_another_order_are_noticed() {
        let refused = size(["38", "1200", "90"]).expect_err("depth first");
        assert_eq!(refused[0].field, "piece.depth");
        assert!(size(["900", "1200", "38"]).is_ok());
    }
}

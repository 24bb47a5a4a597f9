//! A length together with the text it was typed as.

use super::{Length, LengthUnit, ReadError, read::with_unit_written, read_length, read_lengths};

/// A length, and what the person typed for it with its unit always written.
///
/// The text is what is kept: showing it in another unit never rounds it again, and a framer who typed
/// `35 1/2 in` finds `35 1/2 in` in the field years later.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct TypedLength {
    text: String,
    length: Length,
    unit: LengthUnit,
}

impl TypedLength {
    /// Reads a typed length; a number without a unit takes `bare`, which is then written after it.
    ///
    /// # Errors
    /// [`ReadError`], naming the part that was not understood.
    ///
    /// ```
    /// use hummock_core::quantity::{LengthUnit, TypedLength};
    ///
    /// assert_eq!(TypedLength::read("35 1/2", LengthUnit::In)?.text(), "35 1/2 in");
    /// # Ok::<(), hummock_core::quantity::ReadError>(())
    /// ```
    pub fn read(text: &str, bare: LengthUnit) -> Result<Self, ReadError> {
        let reading = read_length(text, bare)?;
        Ok(Self {
            text: with_unit_written(text, bare)?,
            length: reading.length,
            unit: reading.unit,
        })
    }

    /// Makes it from a text that was read already.
    pub(super) fn known(text: &str, length: Length, unit: LengthUnit) -> Self {
        Self {
            text: text.to_owned(),
            length,
            unit,
        }
    }

    /// Returns what was typed, with its unit.
    #[must_use]
    pub fn text(&self) -> &str {
        &self.text
    }

    /// Returns the length.
    #[must_use]
    pub const fn length(&self) -> Length {
        self.length
    }

    /// Returns the unit of the interface nearest to the one it was typed in.
    #[must_use]
    pub const fn unit(&self) -> LengthUnit {
        self.unit
    }
}

/// The three sides of a piece as typed in one field.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct TypedSize {
    /// Across, as hung.
    pub width: TypedLength,
    /// Up, as hung.
    pub height: TypedLength,
    /// From face to back, over everything; `None` if two sides were typed.
    pub depth: Option<TypedLength>,
}

impl TypedSize {
    /// Reads `width × height × depth`, or the first two of them: a depth that is not known yet may be left out, or stand as `?`.
    ///
    /// # Errors
    /// [`ReadError`], also when there are fewer than two lengths or more than three.
    pub fn read(text: &str, bare: LengthUnit) -> Result<Self, ReadError> {
        let unknown = text.trim_end().strip_suffix('?').map(str::trim_end);
        let first_two = unknown.and_then(|text| text.strip_suffix(['x', 'X', '×', '*']));
        let read = match first_two {
            Some(sides) => read_lengths(sides, 2, bare),
            None => read_lengths(text, 3, bare),
        };
        let mut sides = match read {
            Err(ReadError::WrongCount { found: 2, .. }) => read_lengths(text, 2, bare)?,
            read => read?,
        }
        .into_iter();
        let mut next = || sides.next().ok_or(ReadError::Empty);
        let (width, height) = (next()?, next()?);
        let depth = sides.next();
        Ok(Self {
            width,
            height,
            depth,
        })
    }

    /// Returns how a size can be read whose numbers all stand without a unit, where it would be a strange piece in `bare`, and a
    /// usual one in another unit: `80x60x2` in a studio of millimetres. The reading in `bare` comes first; `None` where there is
    /// nothing to ask.
    #[must_use]
    pub fn doubt(text: &str, bare: LengthUnit) -> Option<Vec<(LengthUnit, Self)>> {
        let read = |unit| Self::read(text, unit).ok();
        let (millimetres, centimetres) = (read(LengthUnit::Mm)?, read(LengthUnit::Cm)?);
        // A side that has its unit is as long in either reading.
        let mut pairs = millimetres.sides().zip(centimetres.sides());
        if pairs.any(|(one, other)| one.length == other.length) {
            return None;
        }
        let typed = read(bare)?;
        if typed.is_usual() {
            return None;
        }
        let others = LengthUnit::ALL
            .into_iter()
            .filter(|unit| *unit != bare)
            .filter_map(|unit| Some((unit, read(unit)?)))
            .filter(|(_, size)| size.is_usual());
        let readings: Vec<_> = std::iter::once((bare, typed.clone()))
            .chain(others)
            .collect();
        (readings.len() > 1).then_some(readings)
    }

    /// The sides that are known.
    fn sides(&self) -> impl Iterator<Item = &TypedLength> {
        [Some(&self.width), Some(&self.height), self.depth.as_ref()]
            .into_iter()
            .flatten()
    }

    /// Tells whether most canvases and frames are about so large.
    fn is_usual(&self) -> bool {
        let across = [&self.width, &self.height];
        across
            .iter()
            .all(|side| (LEAST_SIDE..=MOST_SIDE).contains(&side.length))
            && self
                .depth
                .as_ref()
                .is_none_or(|depth| depth.length >= LEAST_DEPTH)
    }
}

/// Sides of canvases and frames beyond these are asked for, and not refused.
const LEAST_SIDE: Length = Length::mm(100.0);
const MOST_SIDE: Length = Length::mm(3000.0);
/// A canvas or frame is seldom thinner.
const LEAST_DEPTH: Length = Length::mm(5.0);

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn two_of_three_sides_are_taken() {
        let mm = |text: &str| {
            let size = TypedSize::read(text, LengthUnit::Mm).expect("it is read");
            let depth = size.depth.map(|depth| depth.length().as_mm());
            (
                size.width.length().as_mm(),
                size.height.length().as_mm(),
                depth,
            )
        };
        // 40 × 50 cm are 400 × 500; the unit of the last goes for the first.
        for text in [
            "40x50 cm",
            "40 cm × 50 cm",
            "400 x 500",
            "40 cm × 50 cm × ?",
            "400 by 500",
        ] {
            assert_eq!(mm(text), (400.0, 500.0, None), "{text}");
        }
        assert_eq!(mm("40x50x1,8 cm"), (400.0, 500.0, Some(18.0)));
        for (text, found) in [("40 cm", 1), ("40x50x2x3 cm", 4), ("40 cm x ?", 1)] {
            let refused = TypedSize::read(text, LengthUnit::Mm);
            assert!(
                matches!(refused, Err(ReadError::WrongCount { found: is, .. }) if is == found),
                "{text}: {refused:?}"
            );
        }
    }

    #[test]
    fn a_strange_size_without_a_unit_is_asked_for() {
        let units = |text, bare| -> Option<Vec<LengthUnit>> {
            let readings = TypedSize::doubt(text, bare)?;
            Some(readings.into_iter().map(|(unit, _)| unit).collect())
        };
        use LengthUnit::{Cm, In, Mm};
        // 80 mm is under 100; 800 × 600 × 20 mm and 2032 × 1524 × 51 mm are usual.
        assert_eq!(units("80x60x2", Mm), Some(vec![Mm, Cm, In]));
        // 600 in are 15 m; 600 cm are 6 m; 600 mm are usual.
        assert_eq!(units("600 x 800 x 38", In), Some(vec![In, Mm]));
        // Both sides of each bound: 100 mm, 3 m, 5 mm of depth.
        assert_eq!(units("100x100x5", Mm), None);
        assert_eq!(units("99x100x5", Mm), Some(vec![Mm, Cm, In]));
        assert_eq!(units("300x300x4", Cm), None);
        assert_eq!(units("301x300x30", Cm), Some(vec![Cm, Mm]));
        assert_eq!(units("300x400x4.9", Mm), None, "no other unit is likelier");
        // A unit is never asked for twice, nor for a part of a text.
        assert_eq!(units("80x60x2 mm", Mm), None);
        assert_eq!(units("80 mm x 60 x 2", Mm), None);
        assert_eq!(units("80x60", Mm), Some(vec![Mm, Cm, In]));
        assert_eq!(units("wide", Mm), None);
    }
}

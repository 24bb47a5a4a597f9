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
    /// From face to back, over everything.
    pub depth: TypedLength,
}

impl TypedSize {
    /// Reads `width × height × depth`.
    ///
    /// # Errors
    /// [`ReadError`], also when there are not three lengths.
    pub fn read(text: &str, bare: LengthUnit) -> Result<Self, ReadError> {
        let [width, height, depth] = read_lengths(text, 3, bare)?
            .try_into()
            .expect("as many lengths are returned as were asked for");
        Ok(Self {
            width,
            height,
            depth,
        })
    }
}

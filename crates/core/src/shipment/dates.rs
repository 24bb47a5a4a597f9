//! Days as typed.

use jiff::civil::Date;

use crate::Refusal;

/// Reads a day written as 2027-03-04; nothing for an empty text.
pub(super) fn read_day(field: &str, text: Option<&str>) -> Result<Option<Date>, Refusal> {
    let Some(text) = text.map(str::trim).filter(|text| !text.is_empty()) else {
        return Ok(None);
    };
    let refuse = || {
        Refusal::new(
            field,
            format!("\"{text}\" is not a date: write year, month and day, as 2027-03-04"),
        )
    };
    let day: Date = text.parse().map_err(|_| refuse())?;
    // A year of four figures tells a date from a slip of the keyboard.
    if (1900..=2200).contains(&day.year()) {
        Ok(Some(day))
    } else {
        Err(refuse())
    }
}

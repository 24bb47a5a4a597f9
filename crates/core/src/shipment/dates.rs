//! Days as typed.

use jiff::civil::Date;

use crate::{
    Refusal,
    quantity::{DateOrder, Telling},
};

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

/// How days are written with the name of their month.
const WITH_NAMES: [&str; 6] = [
    "%d %b %Y",
    "%d %B %Y",
    "%d. %B %Y",
    "%b %d, %Y",
    "%B %d, %Y",
    "%b %d %Y",
];

/// Returns a day as other programs write it, as year, month and day: 4 Mar 2027, 4.3.2027 and 03/04/2027 too, where that is one day.
/// A text that is no day is returned as it is.
///
/// # Errors
/// A sentence that names both days of `04/05/2027`, the one in the order of `telling` first, unless that order is known to be the
/// text's own.
pub(super) fn written_day(
    text: &str,
    telling: Telling,
    is_own_order: bool,
) -> Result<String, String> {
    let text = text.trim();
    if let Some(day) = WITH_NAMES
        .iter()
        .find_map(|form| Date::strptime(form, text).ok())
    {
        return Ok(day.to_string());
    }
    let parts: Vec<&str> = text.split(['.', '/', '-']).map(str::trim).collect();
    let [first, second, year] = parts[..] else {
        return Ok(text.to_owned());
    };
    let (Ok(first), Ok(second), Ok(year), 4) =
        (first.parse(), second.parse(), year.parse(), year.len())
    else {
        return Ok(text.to_owned());
    };
    let day_first = Date::new(year, second, first).ok();
    // Nobody writes a month first and parts it by full stops.
    let month_first = Date::new(year, first, second)
        .ok()
        .filter(|_| !text.contains('.'));
    match (day_first, month_first) {
        (Some(one), Some(other)) if one != other => {
            let (mut one, mut other) = (one, other);
            if telling.dates == DateOrder::Mdy {
                std::mem::swap(&mut one, &mut other);
            }
            if is_own_order {
                return Ok(one.to_string());
            }
            Err(format!(
                "\"{text}\" is {} or {}: write {one} or {other}",
                telling.day(one),
                telling.day(other)
            ))
        }
        (Some(day), _) | (None, Some(day)) => Ok(day.to_string()),
        (None, None) => Ok(text.to_owned()),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_day_is_read_as_people_write_it_and_asked_about_where_it_is_two() {
        let read = |text: &str| written_day(text, Telling::default(), false);
        for (text, day) in [
            ("2027-03-12", "2027-03-12"),
            ("12 Mar 2027", "2027-03-12"),
            ("March 12, 2027", "2027-03-12"),
            ("12. March 2027", "2027-03-12"),
            // Full stops part day, month and year in this order only.
            ("4.5.2027", "2027-05-04"),
            // There is no thirteenth month, and 5/5 is one day in either order.
            ("13/05/2027", "2027-05-13"),
            ("05/13/2027", "2027-05-13"),
            ("05/05/2027", "2027-05-05"),
            // No day at all is refused later, with the words that were typed.
            ("31/31/2027", "31/31/2027"),
            ("soon", "soon"),
            ("", ""),
        ] {
            assert_eq!(read(text), Ok(day.to_owned()), "{text}");
        }
        let asked = read("04/05/2027").expect_err("it is two days");
        assert!(asked.contains("4 May 2027 or 5 Apr 2027"), "{asked}");
        let american = Telling {
            dates: DateOrder::Mdy,
            ..Telling::default()
        };
        let asked = written_day("04/05/2027", american, false).expect_err("it is two days");
        assert!(asked.contains("Apr 5, 2027 or May 4, 2027"), "{asked}");
        // A table that has it in one order in other rows settles it.
        let settled = |telling| written_day("04/05/2027", telling, true);
        assert_eq!(settled(Telling::default()), Ok("2027-05-04".to_owned()));
        assert_eq!(settled(american), Ok("2027-04-05".to_owned()));
    }
}

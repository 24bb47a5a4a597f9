//! A comma that could mark thousands or decimals.

/// A number with one comma before exactly three digits, which is refused in every field: it has two readings.
/// After a nought it has only one.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
#[error("\"{typed}\" could be {whole} or {decimal}: write it without the comma")]
pub struct AmbiguousComma {
    typed: String,
    whole: String,
    decimal: String,
}

const THOUSANDS: usize = 3;

impl AmbiguousComma {
    /// Returns the two readings of a number that has them.
    #[must_use]
    pub fn in_number(number: &str) -> Option<Self> {
        let number = number.trim();
        let (before, after) = number.split_once(',')?;
        let digits =
            |part: &str| !part.is_empty() && part.bytes().all(|byte| byte.is_ascii_digit());
        if !digits(before) || !digits(after) || after.len() != THOUSANDS || before == "0" {
            return None;
        }
        Some(Self {
            typed: number.to_owned(),
            whole: format!("{before}{after}"),
            decimal: format!("{before}.{after}")
                .trim_end_matches('0')
                .trim_end_matches('.')
                .to_owned(),
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn both_readings_are_named() {
        let found = AmbiguousComma::in_number(" 1,200 ").expect("two readings");
        assert_eq!(
            found.to_string(),
            "\"1,200\" could be 1200 or 1.2: write it without the comma"
        );
        for clear in [
            "1,20",
            "1,2000",
            "1200",
            "1.200",
            "0,125",
            "1,200,300",
            ",200",
            "a,200",
        ] {
            assert_eq!(AmbiguousComma::in_number(clear), None, "{clear}");
        }
    }
}

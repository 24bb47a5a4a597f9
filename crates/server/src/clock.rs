//! What day it is, the one thing the rules need to be told from outside.

use jiff::{Zoned, civil::Date};

/// Where the day comes from.
#[derive(Debug, Clone, Copy, Default)]
pub enum Clock {
    /// The machine, in its own time zone.
    #[default]
    Machine,
    /// One day for ever, for demonstrations and tests.
    Standing(Date),
}

impl Clock {
    /// Returns the day.
    #[must_use]
    pub fn today(self) -> Date {
        match self {
            Self::Machine => Zoned::now().date(),
            Self::Standing(day) => day,
        }
    }
}

//! What day it is, the one thing the rules need to be told from outside.

use jiff::{Timestamp, Zoned, civil::Date, tz::TimeZone};

/// Where the day comes from.
#[derive(Debug, Clone, Copy, Default)]
pub enum Clock {
    /// The machine's clock.
    #[default]
    Machine,
    /// One day for ever, for demonstrations and tests.
    Standing(Date),
}

impl Clock {
    /// Returns the day where the machine stands.
    #[must_use]
    pub fn today(self) -> Date {
        match self {
            Self::Machine => Zoned::now().date(),
            Self::Standing(day) => day,
        }
    }

    /// Returns the clock of a studio: a studio in Portland may be a day behind the machine.
    pub(crate) const fn of(self, zone: Option<TimeZone>) -> StudioClock {
        StudioClock { clock: self, zone }
    }
}

/// A clock where a studio is.
#[derive(Debug, Clone)]
pub(crate) struct StudioClock {
    clock: Clock,
    /// The studio's time zone; that of the machine where it named none.
    zone: Option<TimeZone>,
}

impl StudioClock {
    /// Returns the day where the studio is.
    pub(crate) fn today(&self) -> Date {
        self.day_at(Timestamp::now())
    }

    fn day_at(&self, moment: Timestamp) -> Date {
        match (self.clock, &self.zone) {
            (Clock::Standing(day), _) => day,
            (Clock::Machine, None) => moment.to_zoned(TimeZone::system()).date(),
            (Clock::Machine, Some(zone)) => moment.to_zoned(zone.clone()).date(),
        }
    }
}

#[cfg(test)]
mod tests {
    use jiff::{civil::date, tz::TimeZoneDatabase};

    use super::*;

    /// At five in the morning of the 4th in Greenwich it is nine in the evening of the 3rd in Portland, and two in the afternoon of
    /// the 4th in Kyoto.
    #[test]
    fn a_day_is_that_of_the_studio() {
        let moment: Timestamp = "2027-03-04T05:00:00Z".parse().expect("a moment");
        let zone = |name: &str| TimeZoneDatabase::bundled().get(name).ok();
        for (name, day) in [
            ("America/Los_Angeles", date(2027, 3, 3)),
            ("Asia/Tokyo", date(2027, 3, 4)),
        ] {
            let zone = zone(name);
            assert!(zone.is_some(), "{name} is known");
            assert_eq!(Clock::Machine.of(zone).day_at(moment), day, "{name}");
        }
        // A day that stands is that day everywhere.
        let standing = Clock::Standing(date(2027, 5, 1)).of(zone("Asia/Tokyo"));
        assert_eq!(standing.day_at(moment), date(2027, 5, 1));
    }
}

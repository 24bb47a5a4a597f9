//! What day it is, the one thing the rules need to be told from outside.

use jiff::{
    Timestamp, Zoned,
    civil::{Date, DateTime},
    tz::TimeZone,
};

/// Where the day comes from.
#[derive(Debug, Clone, Copy, Default)]
pub enum Clock {
    /// The machine's clock.
    #[default]
    Machine,
    /// One minute for ever, for demonstrations and tests.
    Standing(DateTime),
}

/// A day that stands for ever stands at this hour: before anybody fetches anything.
const STANDING_HOUR: i8 = 9;

impl Clock {
    /// One that stands on a day, in the morning.
    #[must_use]
    pub const fn standing_on(day: Date) -> Self {
        Self::Standing(day.at(STANDING_HOUR, 0, 0, 0))
    }

    /// Returns the day where the machine stands.
    #[must_use]
    pub fn today(self) -> Date {
        match self {
            Self::Machine => Zoned::now().date(),
            Self::Standing(now) => now.date(),
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
        self.now().date()
    }

    /// Returns the minute where the studio is.
    pub(crate) fn now(&self) -> DateTime {
        let now = self.at(Timestamp::now());
        now.date().at(now.hour(), now.minute(), 0, 0)
    }

    fn at(&self, moment: Timestamp) -> DateTime {
        match (self.clock, &self.zone) {
            (Clock::Standing(now), _) => now,
            (Clock::Machine, None) => moment.to_zoned(TimeZone::system()).datetime(),
            (Clock::Machine, Some(zone)) => moment.to_zoned(zone.clone()).datetime(),
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
            assert_eq!(Clock::Machine.of(zone).at(moment).date(), day, "{name}");
        }
        // A day that stands is that day everywhere.
        let standing = Clock::standing_on(date(2027, 5, 1)).of(zone("Asia/Tokyo"));
        assert_eq!(standing.at(moment).date(), date(2027, 5, 1));
    }
}

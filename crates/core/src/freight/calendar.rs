//! When a parcel is handed over and arrives, by the carrier's own calendar.

use jiff::{
    ToSpan as _,
    civil::{Date, DateTime},
};
use serde::{Deserialize, Serialize};

use super::{Service, Tariff, Weekday};

/// When a parcel is on its way.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct OnItsWay {
    /// The day on which the carrier has it.
    #[cfg_attr(feature = "schema", schema(value_type = String, format = Date))]
    pub handed_over: Date,
    /// The first day on which it may arrive.
    #[cfg_attr(feature = "schema", schema(value_type = String, format = Date))]
    pub earliest: Date,
    /// The last.
    #[cfg_attr(feature = "schema", schema(value_type = String, format = Date))]
    pub latest: Date,
}

/// Whether a promised day is met.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum PromiseMet {
    /// Even on its last day.
    Yes,
    /// Only when it comes early.
    Perhaps,
    /// Not at all.
    No,
}

/// A calendar that names no day that ever comes is given up after so many.
const MOST_DAYS: usize = 14;

impl OnItsWay {
    /// From the first working day on which it is ready, with somebody who names no days on which they fetch.
    #[must_use]
    pub fn from_working_day((days_from, days_to): (u32, u32), ready: Date) -> Self {
        let first = days_from_on(ready).find(|day| is_working(*day));
        let handed_over = first.unwrap_or(ready);
        Self {
            handed_over,
            earliest: working_days_after(handed_over, days_from),
            latest: working_days_after(handed_over, days_to),
        }
    }

    /// Says whether a promised day is met.
    #[must_use]
    pub fn meets(&self, promised: Date) -> PromiseMet {
        if self.latest <= promised {
            PromiseMet::Yes
        } else if self.earliest <= promised {
            PromiseMet::Perhaps
        } else {
            PromiseMet::No
        }
    }
}

impl Tariff {
    /// Returns when a parcel that is ready on a day is on its way with a service that takes so many working days.
    ///
    /// It is handed over on the first day, from the one on which it is ready, on which the carrier fetches; at a counter on the
    /// first working day. The days of the service are Mondays to Fridays after that. [`Tariff::first_day`] is the first on which it
    /// can be ready.
    #[must_use]
    pub fn on_its_way(
        &self,
        service: &Service,
        (days_from, days_to): (u32, u32),
        ready: Date,
    ) -> OnItsWay {
        let fetched = self.collection_of(service);
        let goes = |day: &Date| match fetched {
            Some(collection) => collection.days.iter().any(|known| known.is_on(*day)),
            None => is_working(*day),
        };
        let handed_over = days_from_on(ready)
            .take(MOST_DAYS)
            .find(goes)
            .unwrap_or(ready);
        OnItsWay {
            handed_over,
            earliest: working_days_after(handed_over, days_from),
            latest: working_days_after(handed_over, days_to),
        }
    }

    /// Returns the first day for which a parcel of a service can still be booked: today until the cut-off of the collection has
    /// passed, after it tomorrow. A counter has no cut-off.
    #[must_use]
    pub fn first_day(&self, service: &Service, now: DateTime) -> Date {
        let today = now.date();
        let fetched = self.collection_of(service);
        if fetched.is_some_and(|fetched| now.time() > fetched.cut_off) {
            today.tomorrow().unwrap_or(today)
        } else {
            today
        }
    }

    /// Returns the next days from one on which parcels of a service are fetched, or taken at the counter.
    #[must_use]
    pub fn next_days(&self, service: &Service, from: Date, most: usize) -> Vec<Date> {
        let fetched = self.collection_of(service);
        days_from_on(from)
            .take(most * 7)
            .filter(|day| match fetched {
                Some(collection) => collection.days.iter().any(|known| known.is_on(*day)),
                None => is_working(*day),
            })
            .take(most)
            .collect()
    }
}

fn days_from_on(from: Date) -> impl Iterator<Item = Date> {
    std::iter::successors(Some(from), |day| day.checked_add(1.day()).ok())
}

fn is_working(day: Date) -> bool {
    !Weekday::Sat.is_on(day) && !Weekday::Sun.is_on(day)
}

fn working_days_after(day: Date, count: u32) -> Date {
    let count = usize::try_from(count).unwrap_or(usize::MAX);
    match count.checked_sub(1) {
        None => day,
        Some(before) => days_from_on(day)
            .skip(1)
            .filter(|day| is_working(*day))
            .nth(before)
            .unwrap_or(day),
    }
}

#[cfg(test)]
mod tests {
    use jiff::civil::date;

    use super::*;

    fn tariff() -> Tariff {
        serde_json::from_str(include_str!("../../../../demo/tariffs/overland-quay.json"))
            .expect("a tariff")
    }

    #[test]
    fn what_is_ready_on_a_friday_evening_waits_for_the_days_on_which_it_is_fetched() {
        let mut tariff = tariff();
        let mut service = tariff.services[0].clone();
        service.handover = super::super::Handover::Collection;
        service.collection = None;
        tariff.collection = Some(super::super::Collection {
            days: vec![Weekday::Tue, Weekday::Thu],
            cut_off: jiff::civil::time(14, 0, 0, 0),
        });
        // 5 Mar 2027 is a Friday: fetched on Tuesday the 9th; two working days on is Thursday the 11th, five Tuesday the 16th.
        let way = tariff.on_its_way(&service, (2, 5), date(2027, 3, 5));
        assert_eq!(way.handed_over, date(2027, 3, 9));
        assert_eq!(way.earliest, date(2027, 3, 11));
        assert_eq!(way.latest, date(2027, 3, 16));
        assert_eq!(way.meets(date(2027, 3, 16)), PromiseMet::Yes);
        assert_eq!(way.meets(date(2027, 3, 15)), PromiseMet::Perhaps);
        assert_eq!(way.meets(date(2027, 3, 10)), PromiseMet::No);
        let days = tariff.next_days(&service, date(2027, 3, 5), 3);
        assert_eq!(
            days,
            [date(2027, 3, 9), date(2027, 3, 11), date(2027, 3, 16)]
        );
    }

    #[test]
    fn after_its_cut_off_a_collection_is_missed_and_a_counter_is_not() {
        let mut tariff = tariff();
        let mut service = tariff.services[0].clone();
        service.collection = None;
        tariff.collection = Some(super::super::Collection {
            days: vec![Weekday::Thu, Weekday::Fri],
            cut_off: jiff::civil::time(14, 0, 0, 0),
        });
        // Thursday 4 Mar 2027: at 14:00 it is still fetched, a minute later on Friday, and on Friday afternoon next Thursday.
        let (thursday, friday) = (date(2027, 3, 4), date(2027, 3, 5));
        for (now, handover, first, fetched) in [
            (
                thursday.at(14, 0, 0, 0),
                super::super::Handover::Collection,
                thursday,
                thursday,
            ),
            (
                thursday.at(14, 1, 0, 0),
                super::super::Handover::Collection,
                friday,
                friday,
            ),
            (
                friday.at(14, 1, 0, 0),
                super::super::Handover::Collection,
                date(2027, 3, 6),
                date(2027, 3, 11),
            ),
            (
                thursday.at(14, 1, 0, 0),
                super::super::Handover::DropOff,
                thursday,
                thursday,
            ),
        ] {
            service.handover = handover;
            assert_eq!(tariff.first_day(&service, now), first, "{now}");
            assert_eq!(
                tariff.on_its_way(&service, (1, 1), first).handed_over,
                fetched,
                "{now}"
            );
        }
    }

    #[test]
    fn at_a_counter_a_weekend_is_waited_for() {
        let tariff = tariff();
        let mut service = tariff.services[0].clone();
        service.handover = super::super::Handover::DropOff;
        // Saturday the 6th: Monday the 8th; none of days is the same day.
        let way = tariff.on_its_way(&service, (0, 1), date(2027, 3, 6));
        assert_eq!(way.handed_over, date(2027, 3, 8));
        assert_eq!(way.earliest, date(2027, 3, 8));
        assert_eq!(way.latest, date(2027, 3, 9));
    }
}

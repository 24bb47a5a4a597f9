//! Until when a carrier hears of damage or loss.

use jiff::{ToSpan as _, civil::Date};
use serde::Serialize;

use super::{Fate, HandedParcel, TrackingEvent};
use crate::{
    freight::{ClaimTerms, Tariff},
    shipment::{Outcome, ShipmentInputs},
};

/// What is claimed for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum ClaimKind {
    /// It arrived damaged.
    Damage,
    /// It did not arrive.
    Loss,
}

/// Until when a claim is heard.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Deadline {
    /// For what.
    pub kind: ClaimKind,
    /// The day that its days are counted from.
    #[cfg_attr(feature = "schema", schema(value_type = String, format = Date))]
    pub from: Date,
    /// The last day on which it is heard.
    #[cfg_attr(feature = "schema", schema(value_type = String, format = Date))]
    pub last_day: Date,
    /// Days left, the last one counted as none: 0 is today, less than none is past.
    pub days_left: i32,
    /// Whether the carrier's tariff names no time, so that these are the days that most give.
    pub assumed: bool,
}

impl Deadline {
    /// Returns until when damage or loss of a parcel is heard by whoever carried it: damage once it is known when it was delivered, loss
    /// before that. Nothing of one that came back, for that is looked at here, or that nobody carried.
    #[must_use]
    pub fn of_parcel(
        inputs: &ShipmentInputs,
        handed: &HandedParcel,
        events: &[TrackingEvent],
        tariffs: &[Tariff],
        today: Date,
    ) -> Option<Self> {
        let left = inputs.handed_over()?;
        handed.carrier.as_ref()?;
        let delivered = events
            .iter()
            .find(|event| matches!(event.fate, Fate::Arrived | Fate::Damaged))
            .map(TrackingEvent::day);
        let (kind, from) = match inputs.after.outcome {
            Some(Outcome::Lost) => (ClaimKind::Loss, left),
            Some(Outcome::Returned) => return None,
            // What the carrier wrote counts, then what somebody typed.
            Some(Outcome::Arrived | Outcome::Damaged) => {
                (ClaimKind::Damage, delivered.or(inputs.outcome_on())?)
            }
            None => match delivered {
                Some(day) => (ClaimKind::Damage, day),
                None => (ClaimKind::Loss, left),
            },
        };
        let tariff = handed
            .tariff()
            .and_then(|id| tariffs.iter().find(|tariff| tariff.id == id));
        let terms = tariff.and_then(|tariff| tariff.claims);
        Some(Self::of(kind, terms, from, today))
    }

    /// Returns until when a claim is heard, on a day.
    ///
    /// The days are those of a calendar: the one on which it was delivered, or handed over, does not count, and the last counts
    /// to its end. `from` is the date where it was delivered, as the carrier writes it.
    #[must_use]
    pub fn of(kind: ClaimKind, terms: Option<ClaimTerms>, from: Date, today: Date) -> Self {
        let given = terms.unwrap_or(ClaimTerms::USUAL);
        let days = match kind {
            ClaimKind::Damage => given.damage_days,
            ClaimKind::Loss => given.loss_days,
        };
        let last_day = from.saturating_add(i64::from(days).days());
        Self {
            kind,
            from,
            last_day,
            days_left: (last_day - today).get_days(),
            assumed: terms.is_none(),
        }
    }
}

#[cfg(test)]
mod tests {
    use jiff::civil::date;
    use proptest::prelude::*;

    use super::*;

    #[test]
    fn days_go_over_the_end_of_a_month_and_of_a_february() {
        // Delivered on 26 February 2028, a leap year: seven days later is 4 March.
        let terms = Some(ClaimTerms {
            damage_days: 7,
            loss_days: 30,
        });
        let on = |today| Deadline::of(ClaimKind::Damage, terms, date(2028, 2, 26), today);
        assert_eq!(on(date(2028, 2, 26)).last_day, date(2028, 3, 4));
        assert_eq!(on(date(2028, 2, 29)).days_left, 4);
        assert_eq!(on(date(2028, 3, 4)).days_left, 0);
        assert_eq!(on(date(2028, 3, 5)).days_left, -1);
        // A year without: 5 March.
        let year = Deadline::of(
            ClaimKind::Damage,
            terms,
            date(2027, 2, 26),
            date(2027, 2, 26),
        );
        assert_eq!(year.last_day, date(2027, 3, 5));
        assert!(!year.assumed);
        let none = Deadline::of(ClaimKind::Loss, None, date(2027, 3, 1), date(2027, 3, 1));
        assert!(none.assumed && none.last_day == date(2027, 3, 31));
    }

    /// A day as long as it can be, by the clocks of the whole world: from UTC+14 to UTC−12.
    const WORLD: jiff::SignedDuration = jiff::SignedDuration::from_hours(26);

    proptest! {
        /// Whatever the clocks say there and here: it counts from the day that stood on the carrier's wall, is heard for as long as the
        /// studio's wall shows no day after the last, and so never for less than the days given, nor a day of the world's more.
        #[test]
        fn days_left_agree_with_the_walls_there_and_here(
            delivered in 1_700_000_000_i64..1_900_000_000,
            later_hours in 0_i64..24 * 60,
            there in -12_i8..=14,
            here in -12_i8..=14,
            given in 1_u32..=45,
        ) {
            use jiff::{SignedDuration, Timestamp, tz::{Offset, TimeZone}};

            let zone = |hours| TimeZone::fixed(Offset::constant(hours));
            let delivered = Timestamp::from_second(delivered).expect("a moment");
            let now = delivered + SignedDuration::from_hours(later_hours);
            let on_their_wall = delivered.to_zoned(zone(there));
            let event = TrackingEvent {
                // The day here may be another.
                on: delivered.to_zoned(zone(here)).date(),
                at: Some(on_their_wall.strftime("%Y-%m-%dT%H:%M:%S%:z").to_string()),
                fate: Fate::Arrived,
                says: String::new(),
                paper: None,
                until: None,
            };
            prop_assert_eq!(event.day(), on_their_wall.date());
            let terms = Some(ClaimTerms { damage_days: given, loss_days: 1 });
            let today = now.to_zoned(zone(here)).date();
            let deadline = Deadline::of(ClaimKind::Damage, terms, event.day(), today);
            let end = SignedDuration::from_hours(24 * i64::from(given));
            let gone = now.duration_since(delivered);
            if gone < end - WORLD {
                prop_assert!(deadline.days_left >= 0, "{:?}", deadline);
            }
            if gone > end + SignedDuration::from_hours(24) + WORLD {
                prop_assert!(deadline.days_left < 0, "{:?}", deadline);
            }
            // By the same wall it is exact.
            let there_now = now.to_zoned(zone(there));
            let exact = Deadline::of(ClaimKind::Damage, terms, event.day(), there_now.date());
            let midnight = on_their_wall.start_of_day().expect("a day") + SignedDuration::from_hours(24 * (i64::from(given) + 1));
            prop_assert_eq!(exact.days_left >= 0, there_now < midnight);
        }

        /// Days are counted one by one, as on a wall calendar, whatever month or year they end in.
        #[test]
        fn days_left_are_what_a_wall_calendar_counts(
            year in 2020_i16..2040, day in 1_i16..=365, terms in 1_u32..=400, later in 0_u32..500,
        ) {
            let from = date(year, 1, 1).checked_add((day - 1).days()).expect("a day");
            let walked = |count: u32| {
                let mut day = from;
                for _ in 0..count {
                    day = day.tomorrow().expect("there is one");
                }
                day
            };
            let today = walked(later);
            let terms = ClaimTerms { damage_days: terms, loss_days: 1 };
            let deadline = Deadline::of(ClaimKind::Damage, Some(terms), from, today);
            prop_assert_eq!(deadline.last_day, walked(terms.damage_days));
            let left = i64::from(terms.damage_days) - i64::from(later);
            prop_assert_eq!(i64::from(deadline.days_left), left);
            // It is heard on the last day, and not on the next.
            prop_assert_eq!(deadline.days_left >= 0, today <= deadline.last_day);
        }
    }
}

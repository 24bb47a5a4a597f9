//! What a carrier says of a parcel on its way.

use jiff::civil::Date;
use serde::{Deserialize, Serialize};

/// What has become of a parcel, as its carrier sees it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Fate {
    /// The carrier knows of it and does not have it yet.
    #[default]
    Booked,
    /// The carrier has it.
    HandedOver,
    /// It moves.
    OnItsWay,
    /// Somebody holds it until a paper comes.
    Held,
    /// It was delivered; in what state, only who opens it knows.
    Arrived,
    /// The carrier saw that it is damaged.
    Damaged,
    /// Nobody knows where it is.
    Lost,
    /// It comes back.
    Returned,
}

/// One line of what a carrier says.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TrackingEvent {
    /// The day, where it happened.
    #[cfg_attr(feature = "schema", schema(value_type = String, format = Date))]
    pub on: Date,
    /// When to the minute and in which time zone, as `2027-03-09T23:40:00+02:00`; `None` if only the day is told.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub at: Option<String>,
    /// What has become of it.
    #[serde(default)]
    pub fate: Fate,
    /// The carrier's words.
    pub says: String,
    /// The paper that is asked for, where it is held.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub paper: Option<String>,
    /// Until when, where it is held; then it goes back.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>, format = Date))]
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub until: Option<Date>,
}

impl TrackingEvent {
    /// Returns the day on which it was where it happened: the date as the carrier writes the time, whatever day that is at home.
    #[must_use]
    pub fn day(&self) -> Date {
        let written = self.at.as_deref().and_then(|at| at.get(..10));
        written.and_then(|day| day.parse().ok()).unwrap_or(self.on)
    }
}

/// What follows from all that a carrier says.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema), schema(as = Following))]
pub struct TrackedParcel {
    /// What has become of it by now.
    pub fate: Fate,
    /// Since when.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>, format = Date))]
    pub since: Option<Date>,
    /// The paper that is asked for.
    pub paper: Option<String>,
    /// Days left until what is held goes back; 0 is today.
    pub days_left: Option<i32>,
}

impl TrackedParcel {
    /// Returns what follows on a day from what was said until then.
    #[must_use]
    pub fn of(events: &[TrackingEvent], today: Date) -> Self {
        let last = events.iter().rev().find(|event| event.day() <= today);
        let Some(last) = last else {
            return Self {
                fate: Fate::Booked,
                since: None,
                paper: None,
                days_left: None,
            };
        };
        let held = last.fate == Fate::Held;
        Self {
            fate: last.fate,
            since: Some(last.day()),
            paper: last.paper.clone().filter(|_| held),
            days_left: last
                .until
                .filter(|_| held)
                .map(|until| (until - today).get_days()),
        }
    }
}

#[cfg(test)]
mod tests {
    use jiff::civil::date;

    use super::*;

    fn event(on: Date, fate: Fate) -> TrackingEvent {
        TrackingEvent {
            on,
            at: None,
            fate,
            says: String::new(),
            paper: None,
            until: None,
        }
    }

    #[test]
    fn what_is_held_counts_its_days_until_it_moves_on() {
        let held = TrackingEvent {
            paper: Some("a signed commercial invoice".into()),
            until: Some(date(2027, 4, 2)),
            ..event(date(2027, 3, 30), Fate::Held)
        };
        let mut events = vec![event(date(2027, 3, 26), Fate::HandedOver), held];
        let then = TrackedParcel::of(&events, date(2027, 3, 30));
        assert_eq!((then.fate, then.days_left), (Fate::Held, Some(3)));
        assert_eq!(then.paper.as_deref(), Some("a signed commercial invoice"));
        events.push(event(date(2027, 4, 1), Fate::OnItsWay));
        let now = TrackedParcel::of(&events, date(2027, 4, 1));
        assert_eq!(
            (now.fate, now.paper, now.days_left),
            (Fate::OnItsWay, None, None)
        );
        // What is still to come says nothing yet.
        assert_eq!(
            TrackedParcel::of(&events, date(2027, 3, 27)).fate,
            Fate::HandedOver
        );
        assert_eq!(TrackedParcel::of(&[], date(2027, 3, 27)).fate, Fate::Booked);
    }

    #[test]
    fn a_day_is_the_one_where_it_happened() {
        // Delivered at twenty to midnight, where it is the 31st; at home, three hours behind, and by world time it is too.
        let late = TrackingEvent {
            at: Some("2027-03-31T23:40:00+02:00".into()),
            ..event(date(2027, 3, 31), Fate::Arrived)
        };
        assert_eq!(late.day(), date(2027, 3, 31));
        // Delivered just after midnight on the 1st, while at home it is still March.
        let early = TrackingEvent {
            at: Some("2027-04-01T00:10:00+10:00".into()),
            ..event(date(2027, 3, 31), Fate::Arrived)
        };
        assert_eq!(early.day(), date(2027, 4, 1));
    }
}

//! The tables behind the odds: part of the house rules, and every number of them the studio's to change.

use std::collections::BTreeMap;

use serde::{Deserialize, Deserializer, Serialize};

use super::{
    Hazard, KnownRecord, PerHazard, PieceClass, SizedKind,
    base::{BaseAt, base_at},
};
use crate::{
    Refusal, Refusals,
    place::{Destination, PlaceRoute, Route, RouteRow, usual_route},
};

/// The tables of a studio. Their starting values are trade judgement; a class or route that is not listed
/// keeps its starting value.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct OddsTables {
    /// How often each kind of piece arrives damaged, and by what.
    #[serde(deserialize_with = "completed")]
    pub classes: BTreeMap<PieceClass, ClassRow>,
    /// How rough each route is.
    pub routes: BTreeMap<Route, RouteRow>,
    /// Which route leads where; the first line that takes a destination is the one.
    pub places: Vec<PlaceRoute>,
    /// Times the base, for each that holds: flaking paint, pastel or charcoal, heavy impasto.
    pub frail_times: f64,
    /// How many of a hundred are lost on a national way.
    pub lost_percent: f64,
    /// What was sent before there was a log, and what of it arrived damaged.
    pub record: Vec<RecordRow>,
    /// What the log counted, as it was taken over the last time.
    pub counted: CountedRecord,
}

/// What the log counted: parcels that arrived, whole or damaged, each once.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct CountedRecord {
    /// How many.
    pub parcels: u32,
    /// How many of them were expected to arrive damaged: Σ base · route · factor.
    pub expected: f64,
    /// How many did.
    pub damaged: u32,
}

/// How often one kind of piece arrives damaged, and by what. Between the sizes of a kind the base goes straight in logarithms, below
/// the first and above the last it is level. Sizes are the longest side in mm, of panes and mirrors the glass in m²; within a kind they
/// rise. Paper and rolls have one base at every size. What is left out follows the starting values, as `base_percent` does.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct ClassRow {
    /// Of a hundred, packed as the shipped Standard packs it, on a national way; 0.001 to 50.
    pub base_percent: f64,
    /// At which size.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub base_size: Option<f64>,
    /// Of a hundred at a smaller size; mirrors have one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub base_percent_small: Option<f64>,
    /// That size.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub base_size_small: Option<f64>,
    /// Of a hundred at a larger size; panels and frames have one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub base_percent_large: Option<f64>,
    /// That size.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub base_size_large: Option<f64>,
    /// The share of each hazard in that, in percent; together 100.
    pub shares_percent: PerHazard<f64>,
}

/// Parcels of one kind that were sent on one route.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct RecordRow {
    /// Of which kind.
    pub class: PieceClass,
    /// On which route.
    pub route: Route,
    /// How many.
    pub sent: u32,
    /// How many of them arrived damaged.
    pub damaged: u32,
}

/// What the tables say of one way to go.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct WayRisk {
    /// Which route.
    pub route: Route,
    /// Against a national one.
    pub roughness: f64,
    /// Whether it is wet, by route or by season.
    pub wet: bool,
    /// Whether it is hot, by season.
    pub hot: bool,
}

const FRAIL_TIMES: f64 = 1.5;
const LOST_PERCENT: f64 = 0.15;
const PERCENT: f64 = 100.0;
const MOST_ROWS: usize = 300;
const MOST_SENT: u32 = 1_000_000;
const BASE: std::ops::RangeInclusive<f64> = 0.001..=50.0;
const SHARE: std::ops::RangeInclusive<f64> = 0.0..=100.0;
const ROUGHNESS: std::ops::RangeInclusive<f64> = 0.01..=20.0;
const TIMES: std::ops::RangeInclusive<f64> = 1.0..=5.0;
const LOST: std::ops::RangeInclusive<f64> = 0.0..=20.0;
const SIDE: std::ops::RangeInclusive<f64> = 1.0..=10_000.0;
const GLASS: std::ops::RangeInclusive<f64> = 0.001..=20.0;
/// Shares that were rounded may add up to so much more or less.
const SHARES_OFF: f64 = 0.5;

impl Default for OddsTables {
    fn default() -> Self {
        Self {
            classes: PieceClass::ALL
                .iter()
                .map(|&class| (class, ClassRow::start(class)))
                .collect(),
            routes: Route::ALL
                .iter()
                .map(|&route| (route, RouteRow::start(route)))
                .collect(),
            places: Vec::new(),
            frail_times: FRAIL_TIMES,
            lost_percent: LOST_PERCENT,
            record: Vec::new(),
            counted: CountedRecord::default(),
        }
    }
}

/// Reads rows, and fills in what an earlier edition of the program did not know of.
fn completed<'de, D: Deserializer<'de>>(
    deserializer: D,
) -> Result<BTreeMap<PieceClass, ClassRow>, D::Error> {
    let rows = BTreeMap::<PieceClass, ClassRow>::deserialize(deserializer)?;
    let completed = rows
        .into_iter()
        .map(|(class, row)| (class, row.completed(class)));
    Ok(completed.collect())
}

impl ClassRow {
    fn start(class: PieceClass) -> Self {
        let start = class.start();
        let [flat, edges, pressed, pierced, stacked, damp] = start.shares;
        Self {
            base_percent: start.base,
            base_size: start.size,
            base_percent_small: start.small.map(|(percent, _)| percent),
            base_size_small: start.small.map(|(_, size)| size),
            base_percent_large: start.large.map(|(percent, _)| percent),
            base_size_large: start.large.map(|(_, size)| size),
            shares_percent: PerHazard {
                flat,
                edges,
                pressed,
                pierced,
                stacked,
                damp,
            },
        }
    }

    /// Fills in what is left out: sizes as they start, and the base at another size as many times its start as `base_percent` is.
    fn completed(self, class: PieceClass) -> Self {
        let start = Self::start(class);
        let alike = |percent: Option<f64>| Some(percent? * self.base_percent / start.base_percent);
        Self {
            base_size: self.base_size.or(start.base_size),
            base_percent_small: self.base_percent_small.or(alike(start.base_percent_small)),
            base_size_small: self.base_size_small.or(start.base_size_small),
            base_percent_large: self.base_percent_large.or(alike(start.base_percent_large)),
            base_size_large: self.base_size_large.or(start.base_size_large),
            ..self
        }
    }

    /// Returns the row of a studio that never changed the shares it began with, from when nothing was said of what is pierced, with the
    /// shares of today; any other row as it is.
    fn with_pierced(self, class: PieceClass) -> Self {
        let start = Self::start(class);
        let PerHazard {
            flat,
            edges,
            stacked,
            damp,
            ..
        } = start.shares_percent;
        let before = PerHazard {
            flat,
            edges,
            pressed: class.pressed_before(),
            pierced: 0.0,
            stacked,
            damp,
        };
        if self.shares_percent == before {
            Self {
                shares_percent: start.shares_percent,
                ..self
            }
        } else {
            self
        }
    }

    /// Returns the shares as fractions.
    #[must_use]
    pub fn shares(&self) -> PerHazard<f64> {
        self.shares_percent.map(|share| share / PERCENT)
    }
}

impl RouteRow {
    fn start(route: Route) -> Self {
        Self {
            roughness: route.start(),
            wet: false,
        }
    }
}

impl OddsTables {
    /// Returns the tables of a studio from when nothing was said of what is pierced: rows whose shares nobody changed have those of
    /// today, and every other row stays as it is.
    #[must_use]
    pub fn with_pierced(&self) -> Self {
        let rows = self.classes.iter();
        Self {
            classes: rows
                .map(|(&class, row)| (class, row.with_pierced(class)))
                .collect(),
            ..self.clone()
        }
    }

    /// Returns the row of a class.
    #[must_use]
    pub fn class(&self, class: PieceClass) -> ClassRow {
        self.classes
            .get(&class)
            .copied()
            .unwrap_or_else(|| ClassRow::start(class))
    }

    /// Returns how many of a hundred pieces of a class and a size arrive damaged.
    #[must_use]
    pub fn base(&self, class: PieceClass, size: f64) -> f64 {
        let rows = class.rows_of_kind().iter();
        let rows: Vec<ClassRow> = rows.map(|class| self.class(*class)).collect();
        let bases: Vec<BaseAt> = rows.iter().flat_map(ClassRow::bases).collect();
        base_at(&bases, size).unwrap_or_else(|| self.class(class).base_percent)
    }

    /// Returns how many of a hundred pieces of a kind and a size arrive damaged.
    #[must_use]
    pub fn base_of(&self, kind: SizedKind, size: f64) -> f64 {
        self.base(kind.rows()[0], size)
    }

    /// Returns the row of a route.
    #[must_use]
    pub fn route(&self, route: Route) -> RouteRow {
        self.routes
            .get(&route)
            .copied()
            .unwrap_or_else(|| RouteRow::start(route))
    }

    /// Returns the way from a country (empty while it is not known) to a destination in a month. Where no line names the
    /// destination it is the usual route between the two countries; while it is not known where parcels leave from, it is
    /// national where no place is listed at all, else across a border.
    #[must_use]
    pub fn way_to(
        &self,
        home: &str,
        destination: Option<&Destination>,
        month: Option<i8>,
    ) -> WayRisk {
        let place =
            destination.and_then(|there| self.places.iter().find(|place| place.takes(there)));
        let route = match place {
            Some(place) => place.route,
            None if !home.is_empty() => {
                destination.map_or(Route::National, |there| usual_route(home, &there.country))
            }
            None if destination.is_some() && !self.places.is_empty() => Route::Abroad,
            None => Route::National,
        };
        let season = |of: fn(&PlaceRoute) -> &[i8]| {
            place
                .zip(month)
                .is_some_and(|(place, month)| of(place).contains(&month))
        };
        WayRisk {
            hot: season(|place| &place.hot_months),
            ..self.played(route, season(|place| &place.wet_months))
        }
    }

    /// Returns what they say of a route, in a wet season or not.
    #[must_use]
    pub fn played(&self, route: Route, wet_season: bool) -> WayRisk {
        let row = self.route(route);
        WayRisk {
            route,
            roughness: row.roughness,
            wet: row.wet || wet_season,
            hot: false,
        }
    }

    /// Returns what the studio's own record has taught.
    #[must_use]
    pub fn known(&self) -> KnownRecord {
        let counted = KnownRecord {
            expected: self.counted.expected,
            damaged: f64::from(self.counted.damaged),
        };
        self.record.iter().fold(counted, |known, row| KnownRecord {
            expected: known.expected
                + f64::from(row.sent) * self.class(row.class).base_percent / PERCENT
                    * self.route(row.route).roughness,
            damaged: known.damaged + f64::from(row.damaged),
        })
    }

    /// Returns the chance that a parcel is lost on a way.
    #[must_use]
    pub fn lost_on(&self, way: WayRisk) -> f64 {
        -(-self.lost_percent / PERCENT * way.roughness).exp_m1()
    }

    /// Checks every number that somebody wrote.
    ///
    /// # Errors
    /// A [`Refusal`] for each that is out of range, with its field.
    pub fn check(&self) -> Result<(), Vec<Refusal>> {
        let mut refusals = Refusals::default();
        let mut number = |field: String, value: f64, range: std::ops::RangeInclusive<f64>| {
            if !range.contains(&value) {
                let says = format!(
                    "{value} is out of range: give {} to {}",
                    range.start(),
                    range.end()
                );
                refusals.refuse(field, says);
            }
        };
        number("odds.frail_times".into(), self.frail_times, TIMES);
        number("odds.lost_percent".into(), self.lost_percent, LOST);
        for (class, row) in &self.classes {
            let at = format!("odds.classes.{}", key(class));
            number(format!("{at}.base_percent"), row.base_percent, BASE);
            for hazard in Hazard::ALL {
                let share = row.shares_percent.of(hazard);
                number(format!("{at}.shares_percent"), share, SHARE);
            }
            let sizes = if class.is_glass() { GLASS } else { SIDE };
            for (name, value, range) in [
                ("base_percent_small", row.base_percent_small, BASE),
                ("base_percent_large", row.base_percent_large, BASE),
                ("base_size", row.base_size, sizes.clone()),
                ("base_size_small", row.base_size_small, sizes.clone()),
                ("base_size_large", row.base_size_large, sizes),
            ] {
                if let Some(value) = value {
                    number(format!("{at}.{name}"), value, range);
                }
            }
        }
        for (route, row) in &self.routes {
            let at = format!("odds.routes.{}.roughness", key(route));
            number(at, row.roughness, ROUGHNESS);
        }
        refusals.extend(self.sizes_refused());
        refusals.extend(self.shares_refused());
        refusals.extend(self.places_refused());
        refusals.extend(self.record_refused());
        refusals.or(())
    }

    /// Within a kind sizes rise from row to row, and a kind without sizes has none.
    fn sizes_refused(&self) -> Vec<Refusal> {
        let refused = |class: PieceClass, says: &str| {
            Refusal::new(format!("odds.classes.{}.base_size", key(&class)), says)
        };
        let mut refusals = Vec::new();
        for &class in self.classes.keys() {
            let row = self.class(class);
            if class.start().size.is_none() && row.bases().next().is_some() {
                refusals.push(refused(class, "such pieces have one base at every size"));
            }
            let rows = class.rows_of_kind();
            let before = rows.iter().position(|one| *one == class);
            let smaller = before
                .and_then(|at| at.checked_sub(1))
                .and_then(|at| self.class(rows[at]).bases().last());
            let sizes: Vec<f64> = smaller
                .into_iter()
                .chain(row.bases())
                .map(|base| base.size)
                .collect();
            if sizes.windows(2).any(|pair| pair[1] <= pair[0]) {
                refusals.push(refused(
                    class,
                    "within a kind each size is larger than the one before",
                ));
            }
        }
        refusals
    }

    fn shares_refused(&self) -> impl Iterator<Item = Refusal> {
        self.classes.iter().filter_map(|(class, row)| {
            let shares = Hazard::ALL.map(|hazard| row.shares_percent.of(hazard));
            let sum: f64 = shares.into_iter().sum();
            ((sum - PERCENT).abs() > SHARES_OFF).then(|| {
                Refusal::new(
                    format!("odds.classes.{}.shares_percent", key(class)),
                    format!("the six shares add up to {sum:.0}: they must add up to 100"),
                )
            })
        })
    }

    fn places_refused(&self) -> Vec<Refusal> {
        if self.places.len() > MOST_ROWS {
            let says = format!("{} given: list at most {MOST_ROWS}", self.places.len());
            return vec![Refusal::new("odds.places", says)];
        }
        let mut refusals = Refusals::default();
        for (at, place) in self.places.iter().enumerate() {
            let code = place.country.len() == 2
                && place.country.bytes().all(|byte| byte.is_ascii_uppercase());
            if !code {
                let says = format!(
                    "\"{}\" is not a country code: write two capital letters",
                    place.country
                );
                refusals.refuse(format!("odds.places[{at}].country"), says);
            }
            let seasons = [
                ("wet_months", &place.wet_months),
                ("hot_months", &place.hot_months),
            ];
            for (field, months) in seasons {
                if months.iter().any(|month| !(1..=12).contains(month)) {
                    refusals.refuse(
                        format!("odds.places[{at}].{field}"),
                        "a month is a number from 1 to 12",
                    );
                }
            }
            let long = |prefix: &String| prefix.trim().is_empty() || prefix.chars().count() > 12;
            if place.postcode_prefixes.len() > MOST_ROWS || place.postcode_prefixes.iter().any(long)
            {
                refusals.refuse(
                    format!("odds.places[{at}].postcode_prefixes"),
                    "the start of a postcode has 1 to 12 characters",
                );
            }
        }
        refusals.into()
    }

    fn record_refused(&self) -> Vec<Refusal> {
        let counted = self.counted;
        let most = f64::from(MOST_SENT);
        if counted.parcels > MOST_SENT
            || counted.damaged > counted.parcels
            || !(0.0..=most).contains(&counted.expected)
        {
            let says = "fill it in from the log: no more can be damaged than were sent";
            return vec![Refusal::new("odds.counted", says)];
        }
        if self.record.len() > MOST_ROWS {
            let says = format!("{} given: list at most {MOST_ROWS}", self.record.len());
            return vec![Refusal::new("odds.record", says)];
        }
        let wrong = |(at, row): (usize, &RecordRow)| {
            let says = match row {
                _ if row.sent > MOST_SENT => {
                    format!("{} is out of range: give at most {MOST_SENT}", row.sent)
                }
                _ if row.damaged > row.sent => format!(
                    "{} damaged of {} sent: no more can arrive damaged than were sent",
                    row.damaged, row.sent
                ),
                _ => return None,
            };
            Some(Refusal::new(format!("odds.record[{at}].sent"), says))
        };
        self.record.iter().enumerate().filter_map(wrong).collect()
    }
}

/// The name of a class or route as it is written in JSON.
fn key(named: &impl Serialize) -> String {
    serde_json::to_value(named)
        .ok()
        .and_then(|value| value.as_str().map(str::to_owned))
        .unwrap_or_default()
}

#[cfg(test)]
mod tests {
    use super::*;

    fn to(country: &str, postcode: &str) -> Destination {
        Destination {
            country: country.into(),
            postcode: postcode.into(),
        }
    }

    fn place(country: &str, prefixes: &[&str], route: Route, wet_months: &[i8]) -> PlaceRoute {
        PlaceRoute {
            country: country.into(),
            postcode_prefixes: prefixes.iter().map(ToString::to_string).collect(),
            route,
            wet_months: wet_months.to_vec(),
            hot_months: Vec::new(),
        }
    }

    #[test]
    fn the_first_place_that_takes_a_destination_is_the_way() {
        let tables = OddsTables {
            places: vec![
                place("XS", &["SH"], Route::Regional, &[]),
                place("XS", &[], Route::National, &[11, 12]),
                PlaceRoute {
                    hot_months: vec![7],
                    ..place("XO", &[], Route::Overseas, &[])
                },
            ],
            ..OddsTables::default()
        };
        let way = |country, postcode, month| tables.way_to("", Some(&to(country, postcode)), month);
        assert_eq!(way("XS", "sh2 7", None).route, Route::Regional);
        assert_eq!(way("XS", "TB1", None).route, Route::National);
        assert!(way("XS", "TB1", Some(11)).wet && !way("XS", "TB1", Some(5)).wet);
        assert!(way("XO", "1", Some(7)).hot && !way("XO", "1", Some(8)).hot);
        assert_eq!(way("XV", "4120", None).route, Route::Abroad);
        assert_eq!(tables.way_to("", None, None).route, Route::National);
        // Without a line, by where it leaves from: the same country, a neighbour, the rest of the world.
        let usual = OddsTables::default();
        let route = |home, country| usual.way_to(home, Some(&to(country, "")), None).route;
        assert_eq!(route("DE", "DE"), Route::National);
        assert_eq!(route("DE", "FR"), Route::Abroad);
        assert_eq!(route("DE", "JP"), Route::Overseas);
        // A line that somebody wrote comes first.
        assert_eq!(
            tables.way_to("XS", Some(&to("XS", "SH2")), None).route,
            Route::Regional
        );
    }

    #[test]
    fn a_record_is_what_was_sent_by_kind_and_way() {
        // 100 canvases at 0.3 % nationally and 50 small panes at 1 % across a border at 1.6: 0.3 + 0.8
        let tables = OddsTables {
            record: vec![
                RecordRow {
                    class: PieceClass::Canvas,
                    route: Route::National,
                    sent: 100,
                    damaged: 0,
                },
                RecordRow {
                    class: PieceClass::GlassSmall,
                    route: Route::Abroad,
                    sent: 50,
                    damaged: 2,
                },
            ],
            ..OddsTables::default()
        };
        let known = tables.known();
        assert!((known.expected - 1.1).abs() < 1e-12);
        assert!((known.damaged - 2.0).abs() < 1e-12);
    }

    #[test]
    fn tables_of_before_keep_what_was_changed_and_gain_the_rest() {
        // As a studio wrote it down before sizes and what is pierced: a panel's base twice as high, a canvas's shares its own.
        let tables: OddsTables = serde_json::from_value(serde_json::json!({ "classes": {
            "panel": { "base_percent": 0.6, "shares_percent":
                { "flat": 15.0, "edges": 45.0, "pressed": 25.0, "stacked": 10.0, "damp": 5.0 } },
            "canvas": { "base_percent": 0.3, "shares_percent":
                { "flat": 15.0, "edges": 40.0, "pressed": 35.0, "stacked": 5.0, "damp": 5.0 } },
            "mirror": { "base_percent": 2.0, "shares_percent":
                { "flat": 40.0, "edges": 40.0, "pressed": 10.0, "stacked": 5.0, "damp": 5.0 } },
        } }))
        .expect("tables of before");
        assert_eq!(tables.check(), Ok(()));
        let panel = tables.class(PieceClass::Panel);
        assert_eq!(panel.base_size, Some(1000.0));
        let large = panel.base_percent_large.expect("one");
        assert!((large - 1.8).abs() < 1e-12);
        assert_eq!(
            tables.class(PieceClass::Mirror).base_percent_small,
            Some(0.65)
        );
        let then = tables.with_pierced();
        let shares = |class| then.class(class).shares_percent;
        assert_eq!(shares(PieceClass::Panel).pierced, 10.0);
        assert_eq!(shares(PieceClass::Panel).pressed, 15.0);
        assert_eq!(shares(PieceClass::Canvas).pierced, 0.0);
        assert_eq!(shares(PieceClass::Canvas).pressed, 35.0);
        assert_eq!(then.class(PieceClass::Panel).base_percent, 0.6);
    }

    #[test]
    fn sizes_of_a_kind_rise_and_paper_has_none() {
        let mut tables = OddsTables::default();
        let row = |tables: &mut OddsTables, class, change: fn(&mut ClassRow)| {
            change(tables.classes.get_mut(&class).expect("it is listed"));
        };
        row(&mut tables, PieceClass::CanvasLarge, |row| {
            row.base_size = Some(1000.0)
        });
        row(&mut tables, PieceClass::Mirror, |row| {
            row.base_size_small = Some(0.3)
        });
        row(&mut tables, PieceClass::Rolled, |row| {
            row.base_size = Some(500.0)
        });
        let refused = tables.check().expect_err("three are wrong");
        let fields: Vec<&str> = refused.iter().map(|one| one.field.as_str()).collect();
        assert_eq!(
            fields,
            [
                "odds.classes.rolled.base_size",
                "odds.classes.canvas_large.base_size",
                "odds.classes.mirror.base_size"
            ]
        );
    }

    #[test]
    fn starting_tables_hold_and_wrong_ones_are_named() {
        assert_eq!(OddsTables::default().check(), Ok(()));
        let mut tables = OddsTables::default();
        let canvas = tables
            .classes
            .get_mut(&PieceClass::Canvas)
            .expect("it is listed");
        canvas.base_percent = 0.0;
        canvas.shares_percent.damp = 40.0;
        tables
            .places
            .push(place("home", &[""], Route::National, &[13]));
        tables.record.push(RecordRow {
            class: PieceClass::Canvas,
            route: Route::National,
            sent: 1,
            damaged: 2,
        });
        let fields: Vec<String> = tables
            .check()
            .expect_err("five are wrong")
            .into_iter()
            .map(|refusal| refusal.field)
            .collect();
        assert_eq!(
            fields,
            [
                "odds.classes.canvas.base_percent",
                "odds.classes.canvas.shares_percent",
                "odds.places[0].country",
                "odds.places[0].wet_months",
                "odds.places[0].postcode_prefixes",
                "odds.record[0].sent",
            ]
        );
    }
}

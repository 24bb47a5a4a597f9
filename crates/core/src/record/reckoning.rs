//! What many parcels say about the plans: odds said against what happened, weights against the scale, money and minutes.

use rust_decimal::Decimal;
use serde::Serialize;
use statrs::distribution::{Beta, ContinuousCDF as _};

use super::LogRow;
use crate::{
    odds::{CountedRecord, KnownRecord, PieceClass},
    place::Route,
    shipment::Outcome,
    weigh::SCALE,
};

/// What many parcels say.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Reckoning {
    /// That left.
    pub parcels: usize,
    /// Of these, on their way.
    pub on_the_way: usize,
    /// That arrived whole.
    pub arrived: usize,
    /// That arrived damaged.
    pub damaged: usize,
    /// That were lost.
    pub lost: usize,
    /// That came back.
    pub returned: usize,
    /// What they count for in the odds: those that arrived, whole or damaged, each once.
    pub counted: CountedRecord,
    /// What these counts alone make of k.
    pub k: f64,
    /// How many of those that arrived were said to arrive damaged.
    pub said_damaged: f64,
    /// How many were said to be lost, of those of which it is known.
    pub said_lost: f64,
    /// Odds said against what happened, the safest parcels first.
    pub bands: Vec<Band>,
    /// Losses by kind, way, carrier and preset.
    pub groups: Vec<Group>,
    /// Weights said against the scale.
    pub weights: Weighed,
    /// Carriage said against the bill, where both are known.
    pub carriage: Turned,
    /// Minutes said against what packing took, where both are known.
    pub minutes: Turned,
    /// What carriers paid for damage and loss.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub paid: Decimal,
    /// What things that were used again would have cost new.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub saved: Decimal,
    /// Of what was in them, used before.
    pub used_again_g: f64,
    /// The room that this would have taken in the bin, in litres.
    pub used_again_litres: f64,
}

/// Parcels of like odds, and what happened to them.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Band {
    /// The least odds among them, as a fraction.
    pub from: f64,
    /// The most.
    pub to: f64,
    /// How many they are.
    pub parcels: usize,
    /// How many of a hundred were said to arrive damaged.
    pub said_percent: f64,
    /// How many did.
    pub damaged: usize,
    /// How many of a hundred that is.
    pub happened_percent: f64,
    /// The lower end of what that may stand for, in per cent.
    pub low_percent: f64,
    /// The upper end.
    pub high_percent: f64,
}

/// By what parcels are told apart.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum GroupBy {
    /// The row of the odds.
    Class,
    /// The way.
    Route,
    /// The carrier.
    Carrier,
    /// The preset.
    Preset,
}

/// Parcels that are alike in one thing.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Group {
    /// In what.
    pub by: GroupBy,
    /// What that is called.
    pub name: String,
    /// How many left.
    pub parcels: usize,
    /// How many arrived, whole or damaged.
    pub known: usize,
    /// How many of these were said to arrive damaged.
    pub said: f64,
    /// How many did.
    pub damaged: usize,
    /// How many were lost.
    pub lost: usize,
}

/// How far weights were off.
#[derive(Debug, Clone, PartialEq, Default, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Weighed {
    /// How many were weighed.
    pub parcels: usize,
    /// How many of them lay within what their plan left open.
    pub within: usize,
    /// How far they were off on average, in per cent; more than none is heavier than planned.
    pub mean_percent: f64,
    /// How many were off by how much.
    pub bins: Vec<OffBin>,
}

/// How many were off by so much.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct OffBin {
    /// From so many per cent; the first bin takes what is below, too.
    pub from_percent: f64,
    /// To so many; the last takes what is above, too.
    pub to_percent: f64,
    /// How many.
    pub parcels: usize,
}

/// What was said in all, and what it turned out to be.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Turned {
    /// How many parcels both are known of.
    pub parcels: usize,
    /// As said, all together.
    pub said: f64,
    /// As it turned out, all together.
    pub was: f64,
}

/// At most so many bands, and no band of fewer parcels: fewer say nothing.
const MOST_BANDS: usize = 5;
const FEWEST_IN_BAND: usize = 10;
const PERCENT: f64 = 100.0;
/// Weights off by more than this go into the outermost bins.
const OFF_PERCENT: f64 = 20.0;
const BIN_PERCENT: f64 = 4.0;
/// Of what a count may stand for.
const LOW_TAIL: f64 = 0.1;
const HIGH_TAIL: f64 = 0.9;

impl Reckoning {
    /// Reckons parcels up, each once.
    #[must_use]
    pub fn of(rows: &[LogRow]) -> Self {
        let count =
            |outcome: Option<Outcome>| rows.iter().filter(|row| row.outcome == outcome).count();
        let known: Vec<&LogRow> = rows.iter().filter(|row| row.is_known()).collect();
        let counted = CountedRecord {
            parcels: u32::try_from(known.len()).unwrap_or(u32::MAX),
            expected: summed(known.iter().map(|row| row.intensity)),
            damaged: u32::try_from(known.iter().filter(|row| row.is_damaged()).count())
                .unwrap_or(u32::MAX),
        };
        let ended = rows.iter().filter(|row| row.outcome.is_some());
        Self {
            parcels: rows.len(),
            on_the_way: count(None),
            arrived: count(Some(Outcome::Arrived)),
            damaged: count(Some(Outcome::Damaged)),
            lost: count(Some(Outcome::Lost)),
            returned: count(Some(Outcome::Returned)),
            counted,
            k: KnownRecord {
                expected: counted.expected,
                damaged: f64::from(counted.damaged),
            }
            .k(),
            said_damaged: summed(known.iter().map(|row| row.probability)),
            said_lost: summed(ended.map(|row| row.lost)),
            bands: bands(&known),
            groups: groups(rows),
            weights: weights(rows),
            carriage: turned(rows.iter().filter_map(|row| {
                use rust_decimal::prelude::ToPrimitive as _;
                Some((row.carriage?.to_f64()?, row.billed?.to_f64()?))
            })),
            minutes: turned(rows.iter().filter_map(|row| Some((row.minutes, row.took?)))),
            paid: rows.iter().filter_map(|row| row.paid).sum(),
            saved: rows.iter().filter_map(|row| row.saved).sum(),
            used_again_g: summed(rows.iter().filter_map(|row| row.used_again_g)),
            used_again_litres: summed(rows.iter().filter_map(|row| row.used_again_litres)),
        }
    }
}

/// Adds numbers up so that their order makes no difference to what is seen: the small ones first.
fn summed(numbers: impl Iterator<Item = f64>) -> f64 {
    let mut numbers: Vec<f64> = numbers.collect();
    numbers.sort_by(f64::total_cmp);
    numbers.into_iter().sum()
}

fn turned(pairs: impl Iterator<Item = (f64, f64)>) -> Turned {
    let pairs: Vec<(f64, f64)> = pairs.collect();
    Turned {
        parcels: pairs.len(),
        said: summed(pairs.iter().map(|(said, _)| *said)),
        was: summed(pairs.iter().map(|(_, was)| *was)),
    }
}

fn as_f64(count: usize) -> f64 {
    f64::from(u32::try_from(count).unwrap_or(u32::MAX))
}

fn bands(known: &[&LogRow]) -> Vec<Band> {
    let mut odds: Vec<(f64, bool)> = known
        .iter()
        .map(|row| (row.probability, row.is_damaged()))
        .collect();
    odds.sort_by(|one, other| one.0.total_cmp(&other.0).then(one.1.cmp(&other.1)));
    let many = (odds.len() / FEWEST_IN_BAND).clamp(usize::from(!odds.is_empty()), MOST_BANDS);
    (0..many)
        .map(|at| {
            let part = &odds[at * odds.len() / many..(at + 1) * odds.len() / many];
            let parcels = part.len();
            let damaged = part.iter().filter(|(_, damaged)| *damaged).count();
            let said = summed(part.iter().map(|(probability, _)| *probability));
            let (low, high) = stands_for(damaged, parcels);
            Band {
                from: part.first().map_or(0.0, |(probability, _)| *probability),
                to: part.last().map_or(0.0, |(probability, _)| *probability),
                parcels,
                said_percent: said / as_f64(parcels) * PERCENT,
                damaged,
                happened_percent: as_f64(damaged) / as_f64(parcels) * PERCENT,
                low_percent: low * PERCENT,
                high_percent: high * PERCENT,
            }
        })
        .collect()
}

/// What a share of `damaged` in `parcels` may stand for: the 10th and 90th percentile of Beta(damaged + ½, whole + ½).
/// Source: Jeffreys' interval for a proportion.
fn stands_for(damaged: usize, parcels: usize) -> (f64, f64) {
    let (hit, rest) = (as_f64(damaged) + 0.5, as_f64(parcels - damaged) + 0.5);
    let beta = Beta::new(hit, rest).expect("both are more than nothing");
    (beta.inverse_cdf(LOW_TAIL), beta.inverse_cdf(HIGH_TAIL))
}

fn groups(rows: &[LogRow]) -> Vec<Group> {
    let mut groups: Vec<Group> = Vec::new();
    for row in rows {
        let names = [
            (GroupBy::Class, Some(class_name(row.class).to_owned())),
            (GroupBy::Route, Some(route_name(row.route).to_owned())),
            (
                GroupBy::Carrier,
                row.carrier.clone().or(Some("no carrier".to_owned())),
            ),
            (
                GroupBy::Preset,
                row.preset.clone().or(Some("none".to_owned())),
            ),
        ];
        for (by, name) in names {
            let name = name.unwrap_or_default();
            let at = groups
                .iter()
                .position(|group| group.by == by && group.name == name);
            let at = at.unwrap_or_else(|| {
                groups.push(Group {
                    by,
                    name,
                    parcels: 0,
                    known: 0,
                    said: 0.0,
                    damaged: 0,
                    lost: 0,
                });
                groups.len() - 1
            });
            let group = &mut groups[at];
            group.parcels += 1;
            group.known += usize::from(row.is_known());
            group.said += if row.is_known() { row.probability } else { 0.0 };
            group.damaged += usize::from(row.is_damaged());
            group.lost += usize::from(row.outcome == Some(Outcome::Lost));
        }
    }
    groups.sort_by(|one, other| {
        (one.by, other.parcels, &one.name).cmp(&(other.by, one.parcels, &other.name))
    });
    groups
}

const fn class_name(class: PieceClass) -> &'static str {
    class.name()
}

const fn route_name(route: Route) -> &'static str {
    route.name()
}

fn weights(rows: &[LogRow]) -> Weighed {
    let off: Vec<(f64, bool)> = rows
        .iter()
        .filter(|row| row.planned_g > 0.0)
        .filter_map(|row| {
            let off = row.weighed_g? - row.planned_g;
            Some((
                off / row.planned_g * PERCENT,
                off.abs() <= row.plus_minus_g.max(SCALE.as_g()),
            ))
        })
        .collect();
    if off.is_empty() {
        return Weighed::default();
    }
    let mut bins: Vec<OffBin> = Vec::new();
    let mut from = -OFF_PERCENT;
    while from < OFF_PERCENT {
        bins.push(OffBin {
            from_percent: from,
            to_percent: from + BIN_PERCENT,
            parcels: 0,
        });
        from += BIN_PERCENT;
    }
    let last = bins.len() - 1;
    for (percent, _) in &off {
        let at = bins.iter().position(|bin| *percent < bin.to_percent);
        bins[at.unwrap_or(last)].parcels += 1;
    }
    Weighed {
        parcels: off.len(),
        within: off.iter().filter(|(_, within)| *within).count(),
        mean_percent: summed(off.iter().map(|(percent, _)| *percent)) / as_f64(off.len()),
        bins,
    }
}

#[cfg(test)]
mod tests {
    use jiff::civil::date;
    use proptest::prelude::*;

    use super::*;

    fn row(probability: f64, outcome: Option<Outcome>) -> LogRow {
        LogRow {
            left_on: date(2027, 3, 4),
            class: PieceClass::Canvas,
            route: Route::National,
            preset: None,
            carrier: Some("Gannet Post".into()),
            service: None,
            outcome,
            intensity: probability,
            probability,
            lost: 0.0015,
            planned_g: 1000.0,
            plus_minus_g: 50.0,
            weighed_g: None,
            planned_mm: [1.0; 3],
            measured_mm: None,
            carriage: None,
            billed: None,
            minutes: 30.0,
            took: None,
            worth: None,
            paid: None,
            saved: None,
            used_again_g: None,
            used_again_litres: None,
            order_number: String::new(),
            shipping_paid: None,
            currency: None,
        }
    }

    #[test]
    fn what_is_on_its_way_lost_or_came_back_says_nothing_about_damage() {
        // Four arrived, one of them damaged; each was said to be damaged once in ten: S = 0.4, k = 5/4.4.
        let mut rows = vec![row(0.1, Some(Outcome::Arrived)); 3];
        rows.push(row(0.1, Some(Outcome::Damaged)));
        rows.extend(
            [None, Some(Outcome::Lost), Some(Outcome::Returned)].map(|outcome| row(0.5, outcome)),
        );
        let told = Reckoning::of(&rows);
        assert_eq!(
            (told.parcels, told.on_the_way, told.lost, told.returned),
            (7, 1, 1, 1)
        );
        assert_eq!((told.counted.parcels, told.counted.damaged), (4, 1));
        assert!((told.counted.expected - 0.4).abs() < 1e-12);
        assert!((told.k - 5.0 / 4.4).abs() < 1e-12);
        // Six of seven have ended.
        assert!((told.said_lost - 0.009).abs() < 1e-12);
    }

    #[test]
    fn a_count_stands_for_a_range_around_it() {
        // One in ten, Beta(1.5, 9.5): 10 % 0.02954, 90 % 0.27456, by numerical integration apart.
        let (low, high) = stands_for(1, 10);
        assert!((low - 0.029_541).abs() < 1e-5, "{low}");
        assert!((high - 0.274_562).abs() < 1e-5, "{high}");
        let (none, some) = stands_for(0, 10);
        assert!(none < 0.01 && some > 0.05 && some < 0.2, "{none} {some}");
        // The more parcels, the narrower.
        let (long_low, long_high) = stands_for(100, 1000);
        assert!(long_high - long_low < high - low);
    }

    #[test]
    fn weights_off_by_so_much_are_counted_and_the_outermost_take_the_rest() {
        // 1000 planned ± 50: 1030 is off by 3 % and within, 1130 by 13 %, 700 by −30 % and 1900 by 90 %.
        let rows: Vec<LogRow> = [1030.0, 1130.0, 700.0, 1900.0]
            .into_iter()
            .map(|weighed| LogRow {
                weighed_g: Some(weighed),
                ..row(0.01, None)
            })
            .collect();
        let told = Reckoning::of(&rows).weights;
        assert_eq!((told.parcels, told.within), (4, 1));
        assert!((told.mean_percent - (3.0 + 13.0 - 30.0 + 90.0) / 4.0).abs() < 1e-9);
        let of = |from: f64| {
            told.bins
                .iter()
                .find(|bin| (bin.from_percent - from).abs() < 1e-9)
                .map(|bin| bin.parcels)
        };
        assert_eq!(
            (of(0.0), of(12.0), of(-20.0), of(16.0)),
            (Some(1), Some(1), Some(1), Some(1))
        );
    }

    #[test]
    fn what_a_bench_scale_can_t_tell_apart_lies_within() {
        // 100 planned ± 1: 115 is off by less than the 20 of a bench scale, 125 is not.
        let rows = [115.0, 125.0].map(|weighed| LogRow {
            planned_g: 100.0,
            plus_minus_g: 1.0,
            weighed_g: Some(weighed),
            ..row(0.01, None)
        });
        assert_eq!(Reckoning::of(&rows).weights.within, 1);
    }

    fn any_rows() -> impl Strategy<Value = Vec<LogRow>> {
        let outcome = prop::sample::select(vec![
            None,
            Some(Outcome::Arrived),
            Some(Outcome::Damaged),
            Some(Outcome::Lost),
            Some(Outcome::Returned),
        ]);
        let class = prop::sample::select(PieceClass::ALL.to_vec());
        let route = prop::sample::select(Route::ALL.to_vec());
        let weighed = prop::option::of(100.0..3000.0_f64);
        let one = (0.0001..0.5_f64, outcome, class, route, weighed, 0..3_u8);
        prop::collection::vec(
            one.prop_map(
                |(probability, outcome, class, route, weighed_g, carrier)| LogRow {
                    class,
                    route,
                    weighed_g,
                    carrier: (carrier > 0).then(|| format!("carrier {carrier}")),
                    ..row(probability, outcome)
                },
            ),
            0..200,
        )
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(64))]

        /// Each parcel is counted once in every way of telling them apart, whatever the order they come in.
        #[test]
        fn every_parcel_counts_once(mut rows in any_rows(), turn in 0_usize..200) {
            let told = Reckoning::of(&rows);
            let outcomes = told.on_the_way + told.arrived + told.damaged + told.lost + told.returned;
            prop_assert_eq!(outcomes, rows.len());
            for by in [GroupBy::Class, GroupBy::Route, GroupBy::Carrier, GroupBy::Preset] {
                let of = |what: fn(&Group) -> usize| -> usize {
                    told.groups.iter().filter(|group| group.by == by).map(what).sum()
                };
                prop_assert_eq!(of(|group| group.parcels), rows.len());
                prop_assert_eq!(of(|group| group.known), told.arrived + told.damaged);
                prop_assert_eq!(of(|group| group.damaged), told.damaged);
                prop_assert_eq!(of(|group| group.lost), told.lost);
            }
            let in_bands: usize = told.bands.iter().map(|band| band.parcels).sum();
            prop_assert_eq!(in_bands, told.arrived + told.damaged);
            let damaged: usize = told.bands.iter().map(|band| band.damaged).sum();
            prop_assert_eq!(damaged, told.damaged);
            let weighed: usize = told.weights.bins.iter().map(|bin| bin.parcels).sum();
            prop_assert_eq!(weighed, rows.iter().filter(|row| row.weighed_g.is_some()).count());
            // What is counted into k is theirs, each once.
            let by_hand: f64 = rows.iter().filter(|row| row.is_known()).map(|row| row.intensity).sum();
            prop_assert!((told.counted.expected - by_hand).abs() < 1e-9);
            let half = rows.len().min(turn);
            rows.rotate_left(half);
            let turned = Reckoning::of(&rows);
            prop_assert_eq!(turned.counted, told.counted);
            prop_assert_eq!(turned.bands, told.bands);
        }

        /// Counting parcels in two goes comes to the same as in one.
        #[test]
        fn two_halves_count_as_the_whole(rows in any_rows(), at in 0_usize..200) {
            let (first, second) = rows.split_at(at.min(rows.len()));
            let (first, second, whole) = (Reckoning::of(first), Reckoning::of(second), Reckoning::of(&rows));
            prop_assert_eq!(first.counted.damaged + second.counted.damaged, whole.counted.damaged);
            prop_assert_eq!(first.counted.parcels + second.counted.parcels, whole.counted.parcels);
            prop_assert!((first.counted.expected + second.counted.expected - whole.counted.expected).abs() < 1e-9);
        }

        /// A long log settles k at its own rate.
        #[test]
        fn k_comes_to_what_happened(times in 0.2..5.0_f64) {
            let rate = 0.02;
            let many = 20_000_u32;
            let hits = (f64::from(many) * rate * times).round();
            let rows: Vec<LogRow> = (0..many)
                .map(|at| {
                    let outcome = if f64::from(at) < hits { Outcome::Damaged } else { Outcome::Arrived };
                    row(rate, Some(outcome))
                })
                .collect();
            prop_assert!((Reckoning::of(&rows).k / times - 1.0).abs() < 0.05);
        }
    }
}

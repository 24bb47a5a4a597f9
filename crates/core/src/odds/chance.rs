//! From hazards to a probability: the factor, the studio's own record, and the range.

use std::cell::Cell;

use serde::Serialize;
use statrs::distribution::{ContinuousCDF, Gamma};

use super::{Hazard, Measure, PerHazard};

/// What a studio's own parcels have taught.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct KnownRecord {
    /// How many were expected to arrive damaged: Σ base · route over what was sent.
    pub expected: f64,
    /// How many did.
    pub damaged: f64,
}

/// How likely it is to arrive damaged.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Chance {
    /// What the studio's own record makes of it.
    pub k: f64,
    /// From 0 to 1.
    pub probability: f64,
    /// The lower end of the range.
    pub low: f64,
    /// The upper end.
    pub high: f64,
}

/// What is believed before anything is known: as if four had been damaged of four expected.
const PRIOR: f64 = 4.0;
const LOW_TAIL: f64 = 0.1;
const HIGH_TAIL: f64 = 0.9;
/// The model's own doubt, beyond what a record can settle.
const MODEL_DOUBT: f64 = 1.25;

impl KnownRecord {
    /// Returns k, the mean of Gamma(4 + damaged, 4 + expected).
    #[must_use]
    pub fn k(self) -> f64 {
        (PRIOR + self.damaged) / (PRIOR + self.expected)
    }

    /// Returns the ends of the range of k: its 10th percentile ÷ the model's doubt and its 90th × that.
    fn range(self) -> (f64, f64) {
        let (low, high) = tails(PRIOR + self.damaged);
        let rate = PRIOR + self.expected;
        let doubt = self.doubt();
        (low / rate / doubt, high / rate * doubt)
    }

    /// Returns how many times a rate may be off beside what k is off by: 1.25 until as many were expected to be damaged as are believed
    /// in beforehand, then 1.25^(4 ÷ expected), because by then the record has counted what the tables are off by.
    ///
    /// Source: studios that were simulated; with 1.25 for ever a range of 80 % held in 99 % of those with 2000 parcels.
    fn doubt(self) -> f64 {
        MODEL_DOUBT.powf((PRIOR / self.expected.max(PRIOR)).sqrt().min(1.0))
    }

    /// Returns the chance of a parcel with an intensity: base · route · factor, base as a fraction.
    ///
    /// P = 1 − exp(−k · intensity).
    #[must_use]
    pub fn chance(self, intensity: f64) -> Chance {
        let of = |k: f64| -(-k * intensity).exp_m1();
        let (low, high) = self.range();
        Chance {
            k: self.k(),
            probability: of(self.k()),
            low: of(low),
            high: of(high),
        }
    }
}

/// Returns the 10th and the 90th percentile of Gamma of a shape, with a rate of one.
///
/// They are found by halving, and a studio's record asks for the same ones with every plan: the last answer is kept.
fn tails(shape: f64) -> (f64, f64) {
    thread_local! {
        static LAST: Cell<Option<(f64, (f64, f64))>> = const { Cell::new(None) };
    }
    if let Some((_, tails)) = LAST.get().filter(|(known, _)| *known == shape) {
        return tails;
    }
    let gamma = Gamma::new(shape, 1.0).expect("a shape of four or more");
    let tails = (gamma.inverse_cdf(LOW_TAIL), gamma.inverse_cdf(HIGH_TAIL));
    LAST.set(Some((shape, tails)));
    tails
}

/// Returns the factor of a plan against its reference, Σ share · ratio, and each ratio; one that was not
/// measured counts as 1. Shares are fractions and are not normalised.
#[must_use]
pub fn compared(
    shares: PerHazard<f64>,
    measures: PerHazard<Measure>,
    reference: PerHazard<Measure>,
) -> (f64, PerHazard<Option<f64>>) {
    let ratio = |hazard| measures.of(hazard).against(reference.of(hazard), hazard);
    let factor = Hazard::ALL
        .into_iter()
        .map(|hazard| shares.of(hazard) * ratio(hazard).unwrap_or(1.0))
        .sum();
    let ratios = PerHazard::by(ratio);
    (factor, ratios)
}

/// The exponent in λ = (Σ λᵢ^(10/3))^0.3, the intensity of a parcel of several pieces: n alike pieces give n^0.3 times that of one, and
/// another piece never lowers it. Source: trade judgement.
const TOGETHER: f64 = 0.3;

/// Returns how often a parcel of several pieces arrives damaged, as the intensity of each.
#[must_use]
pub fn together(each: impl IntoIterator<Item = f64>) -> f64 {
    let powers = each.into_iter().map(|one| one.powf(TOGETHER.recip()));
    powers.sum::<f64>().powf(TOGETHER)
}

/// Returns n^0.3: a parcel of n alike pieces arrives damaged that many times as often as a parcel of one.
#[must_use]
pub fn alike(pieces: u32) -> f64 {
    f64::from(pieces.max(1)).powf(TOGETHER)
}

#[cfg(test)]
mod tests {
    use super::*;

    const CANVAS: PerHazard<f64> = PerHazard {
        flat: 0.15,
        edges: 0.35,
        pressed: 0.20,
        pierced: 0.20,
        stacked: 0.05,
        damp: 0.05,
    };

    fn measures([flat, edges, pressed, pierced]: [f64; 4]) -> PerHazard<Measure> {
        PerHazard {
            flat,
            edges,
            pressed,
            pierced,
            stacked: 1.0,
            damp: 1.0,
        }
        .map(Measure::Of)
    }

    #[track_caller]
    fn close(found: f64, wanted: f64) {
        assert!((found / wanted - 1.0).abs() < 5e-6, "{found} for {wanted}");
    }

    #[test]
    fn the_odds_of_a_canvas_by_how_it_is_packed() {
        // Falls and pressing as worked beside their formulas; the probabilities by an independent program.
        const FLAT: f64 = 7.700_93e-4;
        const EDGES: f64 = 5.307_91e-5;
        let standard = measures([FLAT, EDGES, 0.072_439_0, 0.098_582_0]);
        for (plan, factor, probability) in [
            (standard, 1.0, 0.002_995_50),
            // Half the bubble.
            (
                measures([FLAT, 1.860_22e-4, 0.090_132_3, 0.103_161]),
                1.337_605,
                0.004_004_77,
            ),
            // A second box.
            (
                measures([FLAT, 5.549_22e-6, 0.031_278_7, 0.060_073_6]),
                0.616_465,
                0.001_847_69,
            ),
            // The box alone.
            (
                measures([FLAT, 1.461_75e-2, 0.301_511, 0.222_222]),
                5.308_871,
                0.015_800_5,
            ),
            // No board behind, then none on either side.
            (
                measures([FLAT, EDGES, 0.072_439_0, 0.135_251]),
                1.074_393,
                0.003_217_99,
            ),
            (
                measures([FLAT, EDGES, 0.100_504, 0.177_338]),
                1.195_357,
                0.003_579_65,
            ),
            // A canvas of 25 G, and one of 100.
            (
                measures([4.290_41e-3, 8.063_40e-4, 0.072_439_0, 0.098_582_0]),
                2.218_215,
                0.006_632_55,
            ),
            (
                measures([8.314_06e-5, 3.859_36e-6, 0.072_439_0, 0.098_582_0]),
                0.643_663,
                0.001_929_13,
            ),
        ] {
            let (found, ratios) = compared(CANVAS, plan, standard);
            close(found, factor);
            close(
                KnownRecord::default().chance(0.003 * found).probability,
                probability,
            );
            assert!(ratios.flat.is_some());
        }
        let chance = KnownRecord::default().chance(0.003);
        close(chance.low, 0.001_046_31);
        close(chance.high, 0.006_243_66);
        // Six alike: 0.003 × 6^0.3
        let six = KnownRecord::default().chance(0.003 * alike(6));
        close(six.probability, 0.005_122_15);
        close(together([0.003; 6]), 0.003 * alike(6));
    }

    #[test]
    fn a_record_moves_the_odds_and_narrows_them() {
        // One damaged of 1.4 expected: k = 5/5.4; across a border with half the bubble
        let known = KnownRecord {
            expected: 1.4,
            damaged: 1.0,
        };
        close(known.k(), 0.925_926);
        let chance = known.chance(0.003 * 1.6 * 1.337_605);
        close(chance.probability, 0.005_927_27);
        close(chance.low, 0.002_311_17);
        close(chance.high, 0.011_810_0);
        // A long record settles k at its own rate: 20 of 10 expected thousandfold.
        let long = KnownRecord {
            expected: 1e4,
            damaged: 2e4,
        };
        assert!((long.k() - 2.0).abs() < 1e-3);
        let settled = long.chance(0.001);
        assert!(settled.high / settled.low < 1.05, "{settled:?}");
        // The doubt is whole up to four expected, its root at sixteen.
        let doubt = |expected| {
            KnownRecord {
                expected,
                damaged: 0.0,
            }
            .doubt()
        };
        assert_eq!(doubt(4.0).to_bits(), 1.25_f64.to_bits());
        assert!((doubt(16.0) - 1.25_f64.sqrt()).abs() < 1e-12);
    }

    #[test]
    fn what_was_not_measured_counts_as_one() {
        let (factor, ratios) = compared(CANVAS, PerHazard::default(), PerHazard::default());
        assert!((factor - 1.0).abs() < 1e-12);
        assert_eq!(ratios.edges, None);
    }
}

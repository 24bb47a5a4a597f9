//! Studios that were never there: what their records teach about the odds, and whether the range that is told holds.
//!
//! Each studio has a hidden k, drawn from what is believed before anything is known; a hidden error of the base of every kind of piece
//! (log-normal, 0.5); and carriers of a hidden roughness (log-normal, 0.2). Its parcels are of a few kinds, on four routes, packed better
//! or worse than Standard. The record counts them as the log does: what was expected by the tables, and what arrived damaged. Before, and
//! after 50, 500 and 2000 parcels, the range that is told of the next 500 is held against their true rate. A studio changes: some of the
//! next 500 are of kinds and carriers that are drawn anew.
//!
//! Prints one line for each share drawn anew and each number of parcels: how often the range of 80 % holds the true rate, and how far k is
//! off on average.

use hummock_core::odds::{KnownRecord, OddsTables, PieceClass};
use statrs::distribution::{ContinuousCDF, Gamma, Normal};

const STUDIOS: u32 = 200;
const PARCELS: [u32; 4] = [0, 50, 500, 2000];
const NEXT: u32 = 500;
const KINDS: usize = 3;
const CARRIERS: usize = 2;
const ROUTES: [f64; 4] = [0.7, 1.0, 1.6, 2.5];
const BASE_ERROR: f64 = 0.5;
const ROUGHNESS_ERROR: f64 = 0.3;
const FACTOR_SPREAD: f64 = 0.4;
const DRAWN_ANEW: [f64; 3] = [0.0, 0.33, 0.5];

/// Numbers between 0 and 1 that come again in the same order (SplitMix64).
struct Drawn(u64);

impl Drawn {
    fn unit(&mut self) -> f64 {
        self.0 = self.0.wrapping_add(0x9e37_79b9_7f4a_7c15);
        let mut bits = self.0;
        bits = (bits ^ (bits >> 30)).wrapping_mul(0xbf58_476d_1ce4_e5b9);
        bits = (bits ^ (bits >> 27)).wrapping_mul(0x94d0_49bb_1331_11eb);
        bits ^= bits >> 31;
        let high = u32::try_from(bits >> 32).expect("32 bits");
        (f64::from(high) + 0.5) / 4_294_967_296.0
    }

    fn log_normal(&mut self, spread: f64) -> f64 {
        (Normal::standard().inverse_cdf(self.unit()) * spread).exp()
    }

    fn one_of<T: Copy>(&mut self, all: &[T]) -> T {
        let share = self.unit();
        let count = f64::from(u32::try_from(all.len()).expect("a few"));
        let mut upper = 0.0;
        let found = all.iter().find(|_| {
            upper += 1.0 / count;
            share < upper
        });
        *found.or(all.last()).expect("there is one")
    }
}

/// A kind of piece as a studio sends it.
#[derive(Debug, Clone, Copy)]
struct Kind {
    base: f64,
    /// How many times the base is really.
    error: f64,
}

struct Studio {
    k: f64,
    kinds: Vec<Kind>,
    carriers: Vec<f64>,
}

impl Studio {
    fn drawn(drawn: &mut Drawn, k: f64) -> Self {
        let tables = OddsTables::default();
        let kinds = (0..KINDS).map(|_| Kind {
            base: tables.class(drawn.one_of(PieceClass::ALL)).base_percent / 100.0,
            error: drawn.log_normal(BASE_ERROR),
        });
        let kinds = kinds.collect();
        let carriers = (0..CARRIERS).map(|_| drawn.log_normal(ROUGHNESS_ERROR));
        Self {
            k,
            kinds,
            carriers: carriers.collect(),
        }
    }

    /// What the tables expect of a parcel, and what is so.
    fn parcel(&self, drawn: &mut Drawn) -> [f64; 2] {
        let kind = drawn.one_of(&self.kinds);
        let told = kind.base * drawn.one_of(&ROUTES) * drawn.log_normal(FACTOR_SPREAD);
        [
            told,
            told * kind.error * drawn.one_of(&self.carriers) * self.k,
        ]
    }
}

/// How often the range held, and how far k was off, after each number of parcels.
#[derive(Default)]
struct Found {
    held: [f64; PARCELS.len()],
    off: [f64; PARCELS.len()],
}

fn studied(anew: f64) -> Found {
    let prior = Gamma::new(4.0, 4.0).expect("a shape and a rate");
    let mut found = Found::default();
    for studio in 0..STUDIOS {
        let mut drawn = Drawn(u64::from(studio) * 7919 + 11);
        let k = prior.inverse_cdf(drawn.unit());
        let made = Studio::drawn(&mut drawn, k);
        let then = Studio::drawn(&mut drawn, k);
        let mut known = KnownRecord::default();
        let mut sent = 0;
        for (at, &parcels) in PARCELS.iter().enumerate() {
            while sent < parcels {
                let [told, truly] = made.parcel(&mut drawn);
                known.expected += told;
                if drawn.unit() < -(-truly).exp_m1() {
                    known.damaged += 1.0;
                }
                sent += 1;
            }
            // What comes next is the same, however many came before.
            let mut next = Drawn(u64::from(studio) * 104_729 + 5);
            let [mut low, mut high, mut rate, mut told_all, mut true_all] = [0.0; 5];
            for _ in 0..NEXT {
                let from = if next.unit() < anew { &then } else { &made };
                let [told, truly] = from.parcel(&mut next);
                let chance = known.chance(told);
                low += chance.low;
                high += chance.high;
                rate += -(-truly).exp_m1();
                told_all += told;
                true_all += truly;
            }
            found.held[at] += f64::from(u32::from(low <= rate && rate <= high));
            found.off[at] += (known.k() * told_all / true_all).ln().abs();
        }
    }
    found
}

fn main() {
    println!("drawn anew  parcels  the range holds  k is off by");
    for anew in DRAWN_ANEW {
        let found = studied(anew);
        for (at, parcels) in PARCELS.iter().enumerate() {
            let held = found.held[at] / f64::from(STUDIOS) * 100.0;
            let off = ((found.off[at] / f64::from(STUDIOS)).exp() - 1.0) * 100.0;
            println!(
                "{:>8.0} %  {parcels:>7}  {held:>13.1} %  {off:>9.0} %",
                anew * 100.0
            );
        }
    }
}

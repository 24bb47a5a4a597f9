//! Cushions in series as springs that stiffen: the force at which together they take up an energy.
//!
//! It works on the logarithm of the force, where each layer is a straight line above the start of its
//! tested range and a rising exponential below it, so that Newton's steps come down on the root.

use super::SeriesLayer;

/// One layer, in joules by the logarithm of the force in newtons.
#[derive(Debug, Clone, Copy)]
struct Spring {
    /// ln(a·A): where its straight line would meet nothing.
    start: f64,
    /// ln of the force at the start of its tested range.
    bend: f64,
    /// A·T/b: what it takes up for each factor e of force above that.
    slope: f64,
    /// A·T·ε_min: what it has taken up there.
    low: f64,
}

/// Layers in series; at least one.
#[derive(Debug, Clone)]
pub(crate) struct Springs {
    layers: Vec<Spring>,
}

const J_PER_KJ: f64 = 1e3;
const N_PER_KPA_M2: f64 = 1e3;
/// Each step at least halves what is left; from a start this far off it takes fewer.
const MOST_STEPS: usize = 200;
/// A step smaller than this is binary dust on the logarithm of a force.
const DUST: f64 = 1e-13;
/// The logarithm of a force no parcel meets, where layers are as good as not there.
const HARDEST: f64 = 460.0;
/// …and of one that nobody feels.
const SOFTEST: f64 = -460.0;

impl Spring {
    fn of(layer: &SeriesLayer) -> Self {
        let volume = (layer.area * layer.thickness).as_m3() * J_PER_KJ;
        let growth = layer.curve.growth;
        let least = layer
            .curve
            .tested
            .map_or(0.0, |range| range.least.as_kj_m3());
        let start = (layer.curve.start.as_kpa() * N_PER_KPA_M2 * layer.area.as_m2()).ln();
        Self {
            start,
            bend: start + growth * least,
            slope: volume / growth,
            low: volume * least,
        }
    }

    /// What it takes up at a force, and how fast that grows.
    fn at(self, force: f64) -> (f64, f64) {
        if force >= self.bend {
            (self.slope * (force - self.start), self.slope)
        } else if self.low > 0.0 {
            let taken = self.low * (2.0 * (force - self.bend)).exp();
            (taken, 2.0 * taken)
        } else {
            (0.0, 0.0)
        }
    }
}

impl Springs {
    /// Makes them of layers; nothing of no layers, or of layers without any thickness.
    pub(crate) fn of(layers: &[SeriesLayer]) -> Option<Self> {
        let layers: Vec<Spring> = layers
            .iter()
            .map(Spring::of)
            .filter(|spring| spring.slope > 0.0 && spring.start.is_finite())
            .collect();
        (!layers.is_empty()).then_some(Self { layers })
    }

    fn at(&self, force: f64) -> (f64, f64) {
        self.layers.iter().fold((0.0, 0.0), |(sum, grows), layer| {
            let (taken, faster) = layer.at(force);
            (sum + taken, grows + faster)
        })
    }

    /// Returns a logarithm of force at which more than an energy is taken up: on every straight line.
    fn above(&self, energy: f64) -> f64 {
        let bend = self.layers.iter().map(|layer| layer.bend);
        let slope: f64 = self.layers.iter().map(|layer| layer.slope).sum();
        (bend.fold(SOFTEST, f64::max) + energy / slope).min(HARDEST)
    }

    /// Returns the force, in newtons, at which an energy in joules is taken up.
    pub(crate) fn force_at(&self, energy: f64) -> f64 {
        self.log_force_at(energy, self.above(energy)).exp()
    }

    /// Returns the forces at which energies are taken up that are given in falling order, each search
    /// beginning at the answer before it.
    pub(crate) fn forces_at(&self, falling: impl Iterator<Item = f64>) -> Vec<f64> {
        let mut from = None;
        falling
            .map(|energy| {
                let start = from.unwrap_or_else(|| self.above(energy));
                let found = self.log_force_at(energy, start);
                from = Some(found);
                found.exp()
            })
            .collect()
    }

    /// Newton's steps from a start where enough is taken up, held between what is known too soft and
    /// known too hard.
    fn log_force_at(&self, energy: f64, start: f64) -> f64 {
        let (mut soft, mut hard, mut force) = (SOFTEST, HARDEST, start);
        for _ in 0..MOST_STEPS {
            let (taken, grows) = self.at(force);
            let over = taken - energy;
            if over > 0.0 {
                hard = force;
            } else {
                soft = force;
            }
            let step = force - over / grows;
            let next = if step > soft && step < hard {
                step
            } else {
                f64::midpoint(soft, hard)
            };
            if (next - force).abs() <= DUST * force.abs().max(1.0) {
                return next;
            }
            force = next;
        }
        force
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::{
        cushion::{CushionCurve, EnergyRange},
        quantity::{Area, EnergyDensity, Length, Stress},
    };

    fn layer(least: f64, mm: f64) -> SeriesLayer {
        SeriesLayer {
            curve: CushionCurve {
                tested: Some(EnergyRange {
                    least: EnergyDensity::kj_m3(least),
                    most: EnergyDensity::kj_m3(1e9),
                }),
                ..CushionCurve::endless(Stress::kpa(20.0), 0.1)
            },
            area: Area::m2(0.01),
            thickness: Length::mm(mm),
        }
    }

    #[test]
    fn one_spring_is_its_own_curve() {
        // 0.01 m² × 50 mm = 0.5 l; 4 J is 8 kJ/m³: 20·e^0.8 = 44.5108 kPa on 0.01 m²: 445.108 N
        let springs = Springs::of(&[layer(2.0, 50.0)]).expect("a layer");
        assert!((springs.force_at(4.0) - 445.108).abs() < 5e-4);
        // 0.25 J is 0.5 kJ/m³, a quarter of 2: half of 20·e^0.2 = 24.4281, on 0.01 m²: 122.140 N
        assert!((springs.force_at(0.25) - 122.140).abs() < 5e-4);
    }

    #[test]
    fn a_search_from_the_neighbour_finds_what_a_search_from_afar_does() {
        // A start at 30 makes the straight line flatter than the curve below it ends: 2·ε_min·b is 6.
        let springs =
            Springs::of(&[layer(30.0, 9.0), layer(0.0, 20.0), layer(2.0, 4.0)]).expect("layers");
        let energies = [90.0, 12.0, 3.0, 0.4, 1e-3, 1e-9];
        let near = springs.forces_at(energies.into_iter());
        for (energy, near) in energies.into_iter().zip(near) {
            let far = springs.force_at(energy);
            assert!(
                (near / far - 1.0).abs() < 1e-9,
                "{energy}: {near} and {far}"
            );
            let (taken, _) = springs.at(near.ln());
            assert!((taken / energy - 1.0).abs() < 1e-6, "{energy}: {taken}");
        }
    }

    #[test]
    fn nothing_takes_up_nothing() {
        assert!(Springs::of(&[]).is_none());
        assert!(Springs::of(&[layer(2.0, 0.0)]).is_none());
    }
}

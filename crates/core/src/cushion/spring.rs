//! Cushions in series as springs that stiffen: the force at which together they take up an energy.
//!
//! On the logarithm of the force each layer is a straight line above the start of its tested range and, below
//! it, an exponential with the same rate for all. So between two such starts all layers together are one
//! line and one exponential, and where every layer is on its line the force is found in one step.

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

/// Between the bends of two layers: slope·ln F − less + low·e^(2·(ln F − top)).
#[derive(Debug, Clone, Copy)]
struct Stretch {
    /// Where it ends: the next layer's bend, and nowhere for the last.
    top: f64,
    /// What all layers take up where it begins.
    from: f64,
    /// Of the layers that are past their bends.
    slope: f64,
    less: f64,
    /// What the others have taken up at the top.
    low: f64,
}

/// Layers in series; at least one.
#[derive(Debug, Clone)]
pub(crate) struct Springs {
    /// The softest first.
    stretches: Vec<Stretch>,
}

const J_PER_KJ: f64 = 1e3;
const N_PER_KPA_M2: f64 = 1e3;
/// Each step brings twice as many digits, from a start that is never far off.
const MOST_STEPS: usize = 60;
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
}

impl Stretch {
    /// What is taken up at a force.
    fn at(&self, force: f64) -> f64 {
        self.slope * force - self.less + self.rising(force)
    }

    /// The part of it below the bends.
    fn rising(&self, force: f64) -> f64 {
        if self.low > 0.0 {
            self.low * (2.0 * (force - self.top)).exp()
        } else {
            0.0
        }
    }

    /// Returns where an energy is taken up that this stretch reaches; Newton's steps come down on it, since
    /// it rises ever faster.
    fn force_at(&self, energy: f64, before: f64) -> f64 {
        if self.low <= 0.0 {
            return (energy + self.less) / self.slope;
        }
        if self.slope <= 0.0 {
            return self.top + (energy / self.low).ln() / 2.0;
        }
        let mut force = before.min(self.top);
        for _ in 0..MOST_STEPS {
            let rising = self.rising(force);
            let over = self.slope * force - self.less + rising - energy;
            let step = over / (self.slope + 2.0 * rising);
            force -= step;
            if step.abs() <= DUST * force.abs().max(1.0) {
                break;
            }
        }
        force
    }
}

impl Springs {
    /// Makes them of layers; nothing of no layers, or of layers without any thickness.
    pub(crate) fn of(layers: &[SeriesLayer]) -> Option<Self> {
        let mut springs: Vec<Spring> = layers
            .iter()
            .map(Spring::of)
            .filter(|spring| spring.slope > 0.0 && spring.start.is_finite())
            .collect();
        springs.sort_by(|one, other| one.bend.total_cmp(&other.bend));
        let mut stretches: Vec<Stretch> = Vec::with_capacity(springs.len() + 1);
        for past in 0..=springs.len() {
            let (on_line, below) = springs.split_at(past);
            let top = below.first().map_or(HARDEST, |next| next.bend);
            let mut stretch = Stretch {
                top,
                from: 0.0,
                slope: on_line.iter().map(|spring| spring.slope).sum(),
                less: on_line
                    .iter()
                    .map(|spring| spring.slope * spring.start)
                    .sum(),
                low: below
                    .iter()
                    .map(|spring| spring.low * (2.0 * (top - spring.bend)).exp())
                    .sum(),
            };
            if let Some(last) = on_line.last() {
                stretch.from = stretch.at(last.bend);
            }
            stretches.push(stretch);
        }
        (!springs.is_empty()).then_some(Self { stretches })
    }

    /// Returns the force, in newtons, at which an energy in joules is taken up.
    pub(crate) fn force_at(&self, energy: f64) -> f64 {
        self.log_force_at(energy, HARDEST).exp()
    }

    /// Returns the forces at which energies are taken up that are given in falling order, each search
    /// beginning at the answer before it.
    pub(crate) fn forces_at(&self, falling: impl Iterator<Item = f64>) -> Vec<f64> {
        let mut before = HARDEST;
        falling
            .map(|energy| {
                before = self.log_force_at(energy, before);
                before.exp()
            })
            .collect()
    }

    /// Searches from a force that is not too small.
    fn log_force_at(&self, energy: f64, before: f64) -> f64 {
        let reached = self
            .stretches
            .iter()
            .rposition(|stretch| stretch.from <= energy);
        self.stretches[reached.unwrap_or(0)]
            .force_at(energy, before)
            .clamp(SOFTEST, HARDEST)
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
        let layers = [layer(30.0, 9.0), layer(0.0, 20.0), layer(2.0, 4.0)];
        let springs = Springs::of(&layers).expect("layers");
        let energies = [90.0, 12.0, 3.0, 0.4, 1e-3, 1e-9];
        let near = springs.forces_at(energies.into_iter());
        for (energy, near) in energies.into_iter().zip(near) {
            let far = springs.force_at(energy);
            assert!(
                (near / far - 1.0).abs() < 1e-9,
                "{energy}: {near} and {far}"
            );
            let taken: f64 = layers
                .iter()
                .map(|layer| {
                    let spring = Spring::of(layer);
                    let past = near.ln() - spring.bend;
                    if past >= 0.0 {
                        spring.low + spring.slope * past
                    } else {
                        spring.low * (2.0 * past).exp()
                    }
                })
                .sum();
            assert!((taken / energy - 1.0).abs() < 1e-9, "{energy}: {taken}");
        }
    }

    #[test]
    fn nothing_takes_up_nothing() {
        assert!(Springs::of(&[]).is_none());
        assert!(Springs::of(&[layer(2.0, 0.0)]).is_none());
    }
}

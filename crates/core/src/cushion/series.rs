//! Several cushions, one behind the other: one force passes through all, and their energies add.

use super::CushionCurve;
use crate::quantity::{Area, EnergyDensity, Force, Length, Mass, Shock, Stress};

/// One cushion of a series.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SeriesLayer {
    /// Of its material.
    pub curve: CushionCurve,
    /// That the force passes through.
    pub area: Area,
    /// Free, or loaded for bubble.
    pub thickness: Length,
}

/// What a fall does to a series.
#[derive(Debug, Clone, PartialEq)]
pub struct Series {
    /// That passes through every layer.
    pub force: Force,
    /// What each layer takes up, in the order given; nothing for one that never starts to give.
    pub energies: Vec<EnergyDensity>,
}

impl SeriesLayer {
    /// The force at which it starts to give: a·A.
    fn start(&self) -> Force {
        self.curve.start * self.area
    }

    /// A·T/b, how much energy it takes for each factor e of force, in joules.
    fn capacity(&self) -> f64 {
        let volume = self.area * self.thickness;
        volume.as_m3() * J_PER_KJ / self.curve.growth
    }
}

const J_PER_KJ: f64 = 1e3;
const MM_PER_M: f64 = 1e3;

impl Series {
    /// Returns what a fall of a mass does to layers in series.
    ///
    /// ln F = [m·g·H + Σ(A·T/b)·ln(a·A)]/Σ(A·T/b), ε = ln(F/(a·A))/b; while an ε is below nothing, the
    /// layer with the largest a·A among those is left out. Source: packaging engineering practice: each
    /// layer follows σ = a·e^(b·ε), its energy is ε·A·T, and the force is the same in all.
    ///
    /// No layers, no number: an empty series is refused by giving none.
    #[must_use]
    pub fn fall(layers: &[SeriesLayer], mass: Mass, drop: Length) -> Option<Self> {
        let energy = Force::weight_of(mass).as_n() * drop.as_m();
        let mut giving: Vec<usize> = (0..layers.len()).collect();
        while !giving.is_empty() {
            let force = common_force(layers, &giving, energy);
            let stiffest_at_rest = giving
                .iter()
                .copied()
                .filter(|&place| layers[place].start() > force)
                .max_by_key(|&place| layers[place].start());
            match stiffest_at_rest {
                Some(place) if giving.len() > 1 => giving.retain(|&other| other != place),
                _ => return Some(Self::of(layers, &giving, force)),
            }
        }
        None
    }

    fn of(layers: &[SeriesLayer], giving: &[usize], force: Force) -> Self {
        let energies = layers
            .iter()
            .enumerate()
            .map(|(place, layer)| {
                if giving.contains(&place) {
                    let stress = Stress::of(force, layer.area);
                    layer
                        .curve
                        .energy_on_exponential(stress)
                        .max(EnergyDensity::ZERO)
                } else {
                    EnergyDensity::ZERO
                }
            })
            .collect();
        Self { force, energies }
    }

    /// Returns the highest fall that stays at or under a limit, in millimetres, with no layer driven past
    /// its tested range.
    ///
    /// The force is G·m·g; each layer takes up A·T·ln(F/(a·A))/b at it, and H is their sum over m·g.
    #[must_use]
    pub fn survives(layers: &[SeriesLayer], mass: Mass, limit: Shock) -> Length {
        let weight = Force::weight_of(mass);
        let allowed = weight * limit.as_times_gravity();
        let force = layers
            .iter()
            .filter_map(|layer| {
                let most = layer.curve.most_tested()?;
                Some(layer.curve.stress_beyond(most) * layer.area)
            })
            .fold(allowed, Force::min);
        let energy: f64 = layers
            .iter()
            .filter(|layer| layer.start() < force)
            .map(|layer| layer.capacity() * (force / layer.start()).ln())
            .sum();
        Length::mm(energy / weight.as_n() * MM_PER_M)
    }

    /// Returns which layer is nearest to the end of its tested range: the one to change first.
    #[must_use]
    pub fn most_used(&self, layers: &[SeriesLayer]) -> Option<usize> {
        let used = |place: usize| layers[place].curve.share_used(self.energies[place]);
        (0..layers.len()).max_by(|&one, &other| used(one).total_cmp(&used(other)))
    }
}

fn common_force(layers: &[SeriesLayer], giving: &[usize], energy: f64) -> Force {
    let capacity: f64 = giving.iter().map(|&place| layers[place].capacity()).sum();
    let started: f64 = giving
        .iter()
        .map(|&place| layers[place].capacity() * layers[place].start().as_n().ln())
        .sum();
    Force::n(((energy + started) / capacity).min(STEEPEST).exp())
}

/// An exponent that still gives a finite force.
const STEEPEST: f64 = 600.0;

impl CushionCurve {
    /// Returns ln(σ/a)/b, below nothing for a stress under the start.
    fn energy_on_exponential(&self, stress: Stress) -> EnergyDensity {
        EnergyDensity::kj_m3((stress / self.start).ln() / self.growth)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn layer(a: f64, b: f64, cm2: f64, thickness: f64) -> SeriesLayer {
        SeriesLayer {
            curve: CushionCurve::endless(Stress::kpa(a), b),
            area: Area::m2(cm2 / 1e4),
            thickness: Length::mm(thickness),
        }
    }

    fn peak(layers: &[SeriesLayer]) -> f64 {
        let mass = Mass::kg(3.2);
        let series = Series::fall(layers, mass, Length::mm(760.0)).expect("there are layers");
        series.force.shock_on(mass).as_times_gravity()
    }

    #[test]
    fn urethane_over_two_turns_of_bubble() {
        // A·T/b: 0.018 × 0.040/48e-6 = 15; 0.018 × 0.018/100e-6 = 3.24. a·A: 459 and 306 N.
        // ln F = (23.8498 + 15 × 6.12905 + 3.24 × 5.72359)/18.24 = 134.3300/18.24 = 7.36458;
        // F = 1579.05 N; over 31.38128: 50.318
        let foam = layer(25.5, 0.048, 180.0, 40.0);
        assert!((peak(&[foam, layer(17.0, 0.100, 180.0, 18.0)]) - 50.318).abs() < 5e-4);
        assert!((peak(&[foam, layer(17.0, 0.100, 400.0, 18.0)]) - 48.649).abs() < 5e-4);
    }

    #[test]
    fn the_drop_survived_gives_the_limit_back() {
        let layers = [
            layer(25.5, 0.048, 180.0, 40.0),
            layer(17.0, 0.100, 400.0, 18.0),
        ];
        let mass = Mass::kg(3.2);
        let drop = Series::survives(&layers, mass, Shock::times_gravity(45.0));
        let back = Series::fall(&layers, mass, drop).expect("two layers");
        assert!((back.force.shock_on(mass).as_times_gravity() - 45.0).abs() < 1e-9);
    }

    #[test]
    fn a_layer_that_never_starts_takes_nothing() {
        // 1 m² of bubble starts at 17 kN, far over what 40 mm of foam on 180 cm² passes on.
        let foam = layer(25.5, 0.048, 180.0, 40.0);
        let alone = peak(&[foam]);
        let broad = layer(17.0, 0.100, 10_000.0, 18.0);
        assert!((peak(&[foam, broad]) - alone).abs() < 1e-9);
        let series = Series::fall(&[foam, broad], Mass::kg(3.2), Length::mm(760.0)).expect("two");
        assert_eq!(series.energies[1], EnergyDensity::ZERO);
        assert_eq!(series.most_used(&[foam, broad]), Some(0));
        assert_eq!(Series::fall(&[], Mass::kg(3.2), Length::mm(760.0)), None);
    }
}

//! Several cushions, one behind the other: one force passes through all, and their energies add.

use super::{CushionCurve, spring::Springs};
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

/// A series that many falls are tried on: what they have in common is worked out once.
#[derive(Debug, Clone)]
pub(crate) struct TriedSeries {
    layers: Vec<SeriesLayer>,
    springs: Springs,
}

impl TriedSeries {
    /// Makes it of layers; nothing of none.
    pub(crate) fn of(layers: Vec<SeriesLayer>) -> Option<Self> {
        let springs = Springs::of(&layers)?;
        Some(Self { layers, springs })
    }

    /// Returns the peak shock of a fall; `None` if a layer is driven past its tested range.
    pub(crate) fn peak(&self, mass: Mass, drop: Length) -> Option<Shock> {
        let force = force_in(&self.springs, mass, drop);
        let within = self.layers.iter().all(|SeriesLayer { curve, area, .. }| {
            let taken = || curve.energy_under(Stress::of(force, *area));
            curve.most_tested().is_none_or(|most| taken() <= most)
        });
        within.then(|| force.shock_on(mass))
    }
}

/// Returns the force at which springs take up a fall.
fn force_in(springs: &Springs, mass: Mass, drop: Length) -> Force {
    let energy = Force::weight_of(mass).as_n() * drop.as_m();
    Force::n(springs.force_at(energy).min(HARDEST))
}

const J_PER_KJ: f64 = 1e3;
const MM_PER_M: f64 = 1e3;

impl Series {
    /// Returns what a fall of a mass does to layers in series.
    ///
    /// Σ A·T·ε(F/A) = m·g·H, each ε from the layer's own curve with its low branch, and carried on above
    /// its tested range. Source: packaging engineering practice: the force is the same in all, and their
    /// energies add. Adding or thickening a layer never raises the force.
    ///
    /// No layers, no number: an empty series is refused by giving none.
    #[must_use]
    pub fn fall(layers: &[SeriesLayer], mass: Mass, drop: Length) -> Option<Self> {
        let force = force_in(&Springs::of(layers)?, mass, drop);
        let energies = layers
            .iter()
            .map(|layer| layer.curve.energy_under(Stress::of(force, layer.area)))
            .collect();
        Some(Self { force, energies })
    }

    /// Returns the peak shock of a fall; `None` without layers, or when one is driven past its tested range.
    #[must_use]
    pub fn peak(layers: &[SeriesLayer], mass: Mass, drop: Length) -> Option<Shock> {
        TriedSeries::of(layers.to_vec())?.peak(mass, drop)
    }

    /// Returns the highest fall that stays at or under a limit, in millimetres, with no layer driven past
    /// its tested range.
    ///
    /// The force is G·m·g; each layer takes up A·T·ε(F/A) at it, and H is their sum over m·g.
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
            .map(|layer| {
                let taken = layer.curve.energy_under(Stress::of(force, layer.area));
                taken.as_kj_m3() * (layer.area * layer.thickness).as_m3() * J_PER_KJ
            })
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

/// A force past every parcel, for cushions that are as good as not there.
const HARDEST: f64 = 1e200;

impl CushionCurve {
    /// Returns the energy taken up under a stress: nothing where a curve without a low branch has not
    /// started to give.
    fn energy_under(&self, stress: Stress) -> EnergyDensity {
        self.energy_at(stress).unwrap_or(EnergyDensity::ZERO)
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

    #[test]
    fn bubble_kraft_and_card_with_their_low_branches() {
        // 2.5 kg from 760 mm: bubble 2067 cm² × 18, kraft 2700 × 40, card 2700 × 4. At F = 4057.611 N the
        // bubble takes ln(19.6305/17)/0.1 = 1.4386, under its 2, so on the low branch; worked by an
        // independent program: 4057.611 N, 165.5045 G.
        let with = |a, b, least, cm2, thickness| {
            let mut layer = layer(a, b, cm2, thickness);
            layer.curve.tested = Some(crate::cushion::EnergyRange {
                least: EnergyDensity::kj_m3(least),
                most: EnergyDensity::kj_m3(1e9),
            });
            layer
        };
        let layers = [
            with(17.0, 0.100, 2.0, 2067.0, 18.0),
            with(20.0, 0.075, 3.0, 2700.0, 40.0),
            with(110.0, 0.006, 20.0, 2700.0, 4.0),
        ];
        let mass = Mass::kg(2.5);
        let series = Series::fall(&layers, mass, Length::mm(760.0)).expect("three layers");
        assert!((series.force.as_n() - 4057.611).abs() < 5e-4);
        assert!((series.force.shock_on(mass).as_times_gravity() - 165.5045).abs() < 5e-5);
    }
}

//! All that lies between a piece and one side of its parcel.

use super::{CushionCurve, Pad, Series, SeriesLayer};
use crate::quantity::{Area, Length, Mass, Shock};

/// The cushions on one side, innermost first; like cushions that follow each other count as one.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Padding {
    layers: Vec<SeriesLayer>,
    /// Which of the cushions given each layer starts with.
    given: Vec<usize>,
    count: usize,
}

impl Padding {
    /// Adds the next cushion outward.
    pub fn push(&mut self, layer: SeriesLayer) {
        let place = self.count;
        self.count += 1;
        if let Some(last) = self.layers.last_mut()
            && same(last.curve, layer.curve)
        {
            last.thickness += layer.thickness;
            last.area = last.area.min(layer.area);
            return;
        }
        self.layers.push(layer);
        self.given.push(place);
    }

    /// Tells whether there is nothing.
    #[must_use]
    pub const fn is_empty(&self) -> bool {
        self.layers.is_empty()
    }

    /// Returns how thick it all is.
    #[must_use]
    pub fn thickness(&self) -> Length {
        self.layers.iter().map(|layer| layer.thickness).sum()
    }

    fn alone(&self) -> Option<Pad> {
        match self.layers[..] {
            [
                SeriesLayer {
                    curve,
                    area,
                    thickness,
                },
            ] => Some(Pad {
                curve,
                area,
                thickness,
            }),
            _ => None,
        }
    }

    /// Returns the peak shock of a fall; nothing without a cushion, or when one is driven past its
    /// tested range.
    #[must_use]
    pub fn peak(&self, mass: Mass, drop: Length) -> Option<Shock> {
        if let Some(pad) = self.alone() {
            return pad.peak(mass, drop);
        }
        let series = Series::fall(&self.layers, mass, drop)?;
        let within = self
            .layers
            .iter()
            .zip(&series.energies)
            .all(|(layer, energy)| layer.curve.most_tested().is_none_or(|most| *energy <= most));
        within.then(|| series.force.shock_on(mass))
    }

    /// Returns the highest fall within a limit, never past a tested range.
    #[must_use]
    pub fn survives(&self, mass: Mass, limit: Shock) -> Length {
        match self.alone() {
            Some(pad) => pad.survives(mass, limit).unwrap_or(Length::ZERO),
            None => Series::survives(&self.layers, mass, limit),
        }
    }

    /// Returns the thickness that a single cushion would need at its area to meet a limit; nothing where
    /// several lie behind each other, or none would.
    #[must_use]
    pub fn needed_thickness(&self, mass: Mass, drop: Length, limit: Shock) -> Option<Length> {
        self.alone()?.needed_thickness(mass, drop, limit)
    }

    /// Returns which of the cushions given is nearest to the end of its range, for a fall.
    #[must_use]
    pub fn change_first(&self, mass: Mass, drop: Length) -> Option<usize> {
        let series = Series::fall(&self.layers, mass, drop)?;
        Some(self.given[series.most_used(&self.layers)?])
    }

    /// Returns the area of the innermost cushion.
    #[must_use]
    pub fn area(&self) -> Option<Area> {
        self.layers.first().map(|layer| layer.area)
    }
}

fn same(one: CushionCurve, other: CushionCurve) -> bool {
    one.start == other.start && (one.growth - other.growth).abs() < f64::EPSILON
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::quantity::Stress;

    fn bubble(thickness: f64) -> SeriesLayer {
        SeriesLayer {
            curve: CushionCurve::endless(Stress::kpa(17.0), 0.1),
            area: Area::m2(0.02),
            thickness: Length::mm(thickness),
        }
    }

    #[test]
    fn two_wraps_of_one_material_are_one_cushion() {
        let (mass, drop) = (Mass::kg(3.2), Length::mm(300.0));
        let mut two = Padding::default();
        two.push(bubble(9.0));
        two.push(bubble(9.0));
        let mut one = Padding::default();
        one.push(bubble(18.0));
        assert_eq!(two.peak(mass, drop), one.peak(mass, drop));
        assert_eq!(two.change_first(mass, drop), Some(0));
        assert_eq!(Padding::default().peak(mass, drop), None);
    }
}

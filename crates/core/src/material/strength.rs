//! What a box of corrugated board may carry, by the edge crush of its board.

use super::{Board, BoardBuild};
use crate::quantity::{EdgeCrush, Length, Mass};

/// What a box may carry: so much, gross, and so long, wide and high outside, added up.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Carries {
    /// Gross.
    pub mass: Mass,
    /// Length, width and height outside, added up, of a parcel of that mass.
    pub united: Length,
}

/// Edge crush in kN/m, kilograms gross, and millimetres of length, width and height. Source: customary limits of box makers'
/// certificates.
const ROWS: [[f64; 3]; 9] = [
    [3.0, 14.0, 1250.0],
    [4.0, 20.0, 1500.0],
    [5.0, 27.0, 1900.0],
    [5.6, 30.0, 1900.0],
    [7.0, 40.0, 2200.0],
    [8.0, 45.0, 2400.0],
    [9.0, 54.0, 2650.0],
    [10.7, 63.0, 2800.0],
    [12.4, 72.0, 3050.0],
];
/// A lighter parcel may be longer by the fourth root of how much lighter it is, and by half at most. Source: house rule.
const LONGER_BY: f64 = 0.25;
const LONGER_AT_MOST: f64 = 1.5;

impl Carries {
    /// Returns what a box carries by the edge crush of all its walls on one side: straight between two rows, level above the last,
    /// and below the first in proportion to it.
    ///
    /// ```
    /// # use hummock_core::{material::Carries, quantity::{EdgeCrush, Length, Mass}};
    /// let carries = Carries::of(EdgeCrush::kn_m(4.6));
    /// assert!((carries.mass.as_kg() - 24.2).abs() < 1e-9);
    /// assert!((carries.united.as_mm() - 1740.0).abs() < 1e-9);
    /// ```
    #[must_use]
    pub fn of(edge_crush: EdgeCrush) -> Self {
        let crush = edge_crush.as_kn_m();
        let [least, .., most] = ROWS;
        let made = |mass, united| Self {
            mass: Mass::g(mass * G_PER_KG),
            united: Length::mm(united),
        };
        if crush <= least[0] {
            let share = crush / least[0];
            return made(least[1] * share, least[2] * share);
        }
        let between = ROWS.windows(2).find(|pair| crush <= pair[1][0]);
        match between {
            Some([from, to]) => {
                let share = (crush - from[0]) / (to[0] - from[0]);
                let at = |column: usize| from[column] + (to[column] - from[column]) * share;
                made(at(1), at(2))
            }
            _ => made(most[1], most[2]),
        }
    }

    /// Returns how long, wide and high a parcel of a mass may be, added up.
    ///
    /// ```
    /// # use hummock_core::{material::Carries, quantity::{EdgeCrush, Length, Mass}};
    /// // 1900 × (27 ÷ 10.8)^¼ = 2389: less than 1021 + 1314 + 133 = 2468.
    /// let limit = Carries::of(EdgeCrush::kn_m(5.0)).united_at(Mass::g(10_800.0));
    /// assert_eq!(limit.as_mm().round(), 2389.0);
    /// ```
    #[must_use]
    pub fn united_at(self, gross: Mass) -> Length {
        let lighter = (self.mass / gross).powf(LONGER_BY);
        self.united * lighter.min(LONGER_AT_MOST)
    }

    /// Tells whether it carries a parcel.
    #[must_use]
    pub fn takes(self, gross: Mass, united: Length) -> bool {
        gross <= self.mass && united <= self.united_at(gross)
    }
}

const G_PER_KG: f64 = 1000.0;

impl Board {
    /// Returns what a box of it carries, with `times` its edge crush: 1 as it is, 2 with both faces doubled. `None` of a board that
    /// the limits don't speak of: foam-core, twin-wall, wood, and corrugated whose edge crush nobody knows.
    ///
    /// What a studio has typed for the board takes the place of the table for one wall.
    #[must_use]
    pub fn carries(&self, times: f64) -> Option<Carries> {
        if self.build != BoardBuild::Corrugated {
            return None;
        }
        let by_table = Carries::of(self.edge_crush? * times);
        if times > 1.0 {
            return Some(by_table);
        }
        Some(Carries {
            mass: self
                .carries_kg
                .map_or(by_table.mass, |kg| Mass::g(kg * G_PER_KG)),
            united: self.united.unwrap_or(by_table.united),
        })
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    #[test]
    fn double_wall_carries_the_canvas_that_single_wall_does_not() {
        // 8 kN/m: 45 kg and 2400; at 10.8 kg 2400 × (45 ÷ 10.8)^¼ = 2400 × 1.42872 = 3428.9.
        let [single, double] = [5.0, 8.0].map(|crush| Carries::of(EdgeCrush::kn_m(crush)));
        let (gross, united) = (Mass::g(10_800.0), Length::mm(2468.0));
        assert!(!single.takes(gross, united) && double.takes(gross, united));
        assert!((double.united_at(gross).as_mm() - 3428.9).abs() < 0.1);
        // A parcel of a kilogram is not two and a half times as long: 1.5 at most.
        assert_eq!(single.united_at(Mass::g(1000.0)), Length::mm(2850.0));
        // Past the last row nothing more.
        assert_eq!(
            Carries::of(EdgeCrush::kn_m(16.0)),
            Carries::of(EdgeCrush::kn_m(12.4))
        );
        // Below the first in proportion: 1.5 of 3 carries 7 kg.
        assert_eq!(Carries::of(EdgeCrush::kn_m(1.5)).mass, Mass::g(7000.0));
    }

    proptest! {
        #[test]
        fn more_edge_crush_never_carries_less(one in 0.1_f64..20.0, more in 0.0_f64..5.0, gross in 0.1_f64..80.0) {
            let [less, greater] = [one, one + more].map(|crush| Carries::of(EdgeCrush::kn_m(crush)));
            let gross = Mass::g(gross * G_PER_KG);
            prop_assert!(greater.mass >= less.mass && greater.united >= less.united);
            prop_assert!(greater.united_at(gross) >= less.united_at(gross));
        }
    }
}

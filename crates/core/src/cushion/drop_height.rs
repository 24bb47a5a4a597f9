//! From how high a parcel of a weight is dropped, by custom.

use crate::quantity::{Length, Mass};

/// The customary single-parcel test heights: up to, but not including, each mass.
const DROP_HEIGHTS: [(Mass, Length); 5] = [
    (Mass::kg(9.5), Length::mm(760.0)),
    (Mass::kg(18.6), Length::mm(610.0)),
    (Mass::kg(27.7), Length::mm(460.0)),
    (Mass::kg(45.4), Length::mm(310.0)),
    (Mass::kg(68.0), Length::mm(200.0)),
];

/// The customary heights alone, for a studio that sets its own.
pub const CUSTOM: [Length; 5] = [
    DROP_HEIGHTS[0].1,
    DROP_HEIGHTS[1].1,
    DROP_HEIGHTS[2].1,
    DROP_HEIGHTS[3].1,
    DROP_HEIGHTS[4].1,
];

/// Returns from how high a parcel of this mass is dropped by heights that a studio has set, one for each
/// customary class of mass; nothing at 68 kg and above, which is handed over.
///
/// A heavier parcel is handled lower. Source: packaging engineering practice.
#[must_use]
pub fn drop_by(heights: [Length; 5], parcel: Mass) -> Option<Length> {
    DROP_HEIGHTS
        .iter()
        .zip(heights)
        .find(|&(&(under, _), _)| parcel < under)
        .map(|(_, height)| height)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_studio_has_heights_of_its_own() {
        let own = [900.0, 610.0, 460.0, 310.0, 150.0].map(Length::mm);
        assert_eq!(drop_by(own, Mass::kg(3.0)), Some(Length::mm(900.0)));
        assert_eq!(drop_by(own, Mass::kg(60.0)), Some(Length::mm(150.0)));
        assert_eq!(drop_by(own, Mass::kg(70.0)), None);
    }

    #[test]
    fn heights_step_down_with_mass() {
        for (kg, height) in [
            (0.2, Some(760.0)),
            (9.499, Some(760.0)),
            (9.5, Some(610.0)),
            (20.0, Some(460.0)),
            (45.0, Some(310.0)),
            (67.9, Some(200.0)),
            (68.0, None),
        ] {
            assert_eq!(
                drop_by(CUSTOM, Mass::kg(kg)),
                height.map(Length::mm),
                "{kg}"
            );
        }
    }
}

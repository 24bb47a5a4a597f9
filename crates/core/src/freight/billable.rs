//! The weight that is paid for: the larger of what the parcel weighs and what its size counts for.

use serde::{Deserialize, Serialize};

use super::{
    Parcel,
    measured::{
        MG_PER_KG, Measured, UM3_PER_CM3, Whole, as_length, as_mass, mg, small, stepped, um3,
    },
};
use crate::quantity::{Length, Mass, Volume};

/// How a carrier turns size and weight into billable weight.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct BillableBy {
    /// Cubic centimetres that count as a kilogram.
    pub divisor_cm3_per_kg: f64,
    /// Size counts only above this volume; always when absent.
    #[serde(
        default,
        rename = "volumetric_above_m3",
        skip_serializing_if = "Option::is_none"
    )]
    pub volumetric_above: Option<Volume>,
    /// Each side is rounded up to it.
    #[serde(rename = "size_step_mm")]
    pub size_step: Length,
    /// The weight is rounded up to it.
    #[serde(rename = "weight_step_g")]
    pub weight_step: Mass,
    /// The least that is billed.
    #[serde(default, rename = "minimum_g")]
    pub minimum: Mass,
}

/// Which of the three weights was billed.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Governs {
    /// What the scale reads.
    Actual,
    /// What the size counts for.
    Volumetric,
    /// The least that is billed.
    Minimum,
}

/// The weights of a parcel side by side.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Billable {
    /// What the scale reads.
    #[serde(rename = "actual_g")]
    pub actual: Mass,
    /// What the size counts for.
    #[serde(rename = "volumetric_g")]
    pub volumetric: Mass,
    /// What is billed.
    #[serde(rename = "billable_g")]
    pub billable: Mass,
    /// Which of them it came from.
    pub governs: Governs,
    /// Twice the sum of the two shorter sides.
    #[serde(rename = "girth_mm")]
    pub girth: Length,
    /// The longest side and the girth together.
    #[serde(rename = "length_plus_girth_mm")]
    pub length_plus_girth: Length,
}

impl BillableBy {
    /// Returns the weights of a parcel: max(actual, volume ÷ divisor, minimum), rounded up to the step.
    ///
    /// Sides are rounded up to their step first. Source: carriers' custom.
    #[must_use]
    pub fn weigh(&self, parcel: &Parcel) -> Billable {
        self.weighed(&Measured::of(parcel, self.size_step), 0)
    }

    /// The same for a parcel as measured, where rules raise the least that is billed.
    pub(super) fn weighed(&self, measured: &Measured, raised: Whole) -> Billable {
        self.weighed_by(measured, self.volumetric(measured), raised)
    }

    /// The same where it is known what the size counts for.
    pub(super) fn weighed_by(
        &self,
        measured: &Measured,
        volumetric: Whole,
        raised: Whole,
    ) -> Billable {
        let minimum = mg(self.minimum).max(raised);
        let (heaviest, governs) = if measured.mass >= volumetric {
            (measured.mass, Governs::Actual)
        } else {
            (volumetric, Governs::Volumetric)
        };
        let governs = if minimum > heaviest {
            Governs::Minimum
        } else {
            governs
        };
        Billable {
            actual: as_mass(measured.mass),
            volumetric: as_mass(volumetric),
            billable: as_mass(self.billed_by(measured.mass, volumetric, raised)),
            governs,
            girth: as_length(measured.girth()),
            length_plus_girth: as_length(measured.sides[0] + measured.girth()),
        }
    }

    /// What is billed, in milligrams.
    pub(super) fn billed(&self, measured: &Measured, raised: Whole) -> Whole {
        self.billed_by(measured.mass, self.volumetric(measured), raised)
    }

    /// The same where it is known what the size counts for.
    pub(super) fn billed_by(&self, mass: Whole, volumetric: Whole, raised: Whole) -> Whole {
        let minimum = mg(self.minimum).max(raised);
        stepped(mass.max(volumetric).max(minimum), mg(self.weight_step))
    }

    /// What the size counts for, rounded up to a milligram.
    pub(super) fn volumetric(&self, measured: &Measured) -> Whole {
        let volume = measured.volume();
        if self
            .volumetric_above
            .is_some_and(|above| volume <= um3(above))
        {
            return 0;
        }
        // The divisor in thousandths of a cubic centimetre to the kilogram.
        let per_mg = small(self.divisor_cm3_per_kg * 1000.0) * (UM3_PER_CM3 / MG_PER_KG);
        // A parcel fits into half the digits, which are divided many times as fast.
        match (u64::try_from(volume), u64::try_from(per_mg)) {
            (Ok(volume), Ok(per_mg)) if per_mg.is_multiple_of(1000) && per_mg > 0 => {
                Whole::from(volume.div_ceil(per_mg / 1000))
            }
            _ => (volume * 1000 + per_mg - 1) / per_mg,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::{
        freight::{Contents, Shape},
        space::Envelope,
    };

    fn parcel(sides: [f64; 3], kg: f64) -> Parcel {
        let [across, up, through] = sides.map(Length::mm);
        Parcel {
            outside: Envelope {
                across,
                up,
                through,
            },
            mass: Mass::kg(kg),
            value: None,
            buys_cover: false,
            shape: Shape::Rectangular,
            contents: Contents::default(),
        }
    }

    const BY: BillableBy = BillableBy {
        divisor_cm3_per_kg: 5000.0,
        volumetric_above: None,
        size_step: Length::mm(10.0),
        weight_step: Mass::g(500.0),
        minimum: Mass::g(1000.0),
    };

    #[test]
    fn a_large_light_parcel_is_billed_by_its_size() {
        // 596 × 796 × 112 → 60 × 80 × 12 cm = 57 600 cm³ ÷ 5000 = 11.52 → 12 kg; 60 + 12 = 72 × 2 = 144
        let weights = BY.weigh(&parcel([596.0, 796.0, 112.0], 3.42));
        assert!((weights.volumetric.as_kg() - 11.52).abs() < 1e-9);
        assert_eq!(
            (weights.billable, weights.governs),
            (Mass::kg(12.0), Governs::Volumetric)
        );
        assert_eq!(
            (weights.girth, weights.length_plus_girth),
            (Length::mm(1440.0), Length::mm(2240.0))
        );
    }

    #[test]
    fn a_small_heavy_one_by_its_weight_and_a_tiny_one_by_the_least() {
        let heavy = BY.weigh(&parcel([200.0, 200.0, 100.0], 3.42));
        assert_eq!(
            (heavy.billable, heavy.governs),
            (Mass::kg(3.5), Governs::Actual)
        );
        let tiny = BY.weigh(&parcel([100.0, 100.0, 20.0], 0.1));
        assert_eq!(
            (tiny.billable, tiny.governs),
            (Mass::kg(1.0), Governs::Minimum)
        );
    }

    #[test]
    fn at_the_threshold_size_does_not_count_and_a_millimetre_more_does() {
        // 250 × 300 × 120 mm are 9 000 000 mm³, 0.009 m³ to the last digit; the sides are rounded up to 10.
        let by = BillableBy {
            volumetric_above: Some(Volume::m3(0.009)),
            ..BY
        };
        let volumetric = |sides| by.weigh(&parcel(sides, 0.02)).volumetric;
        assert_eq!(volumetric([241.0, 291.0, 111.0]), Mass::ZERO);
        // 260 × 300 × 120 are 9360 cm³, over 5000 to the kilogram: 1.872 kg.
        assert_eq!(volumetric([251.0, 291.0, 111.0]), Mass::g(1872.0));
    }

    #[test]
    fn below_the_threshold_size_does_not_count() {
        let by = BillableBy {
            volumetric_above: Some(Volume::m3(0.1)),
            ..BY
        };
        let weights = by.weigh(&parcel([596.0, 796.0, 112.0], 3.42));
        assert_eq!(
            (weights.volumetric, weights.billable),
            (Mass::ZERO, Mass::kg(3.5))
        );
    }
}

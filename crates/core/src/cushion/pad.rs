//! One cushion under one mass: shock, the drop it survives, and the pad that would do.

use serde::Serialize;

use super::{CushionCurve, curve::energy_of};
use crate::quantity::{Area, EnergyDensity, Force, Length, Mass, Shock, Stress};

/// A cushion of one area and one thickness.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Pad {
    /// Of its material.
    pub curve: CushionCurve,
    /// That overlaps what is stiff.
    pub area: Area,
    /// Free, or loaded for bubble.
    pub thickness: Length,
}

/// The thinnest pad that meets a limit, wherever its curve holds.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BestPad {
    /// s*, the static stress at which it is thinnest.
    #[serde(rename = "static_kpa")]
    pub static_stress: Stress,
    /// T*.
    #[serde(rename = "thickness_mm")]
    pub thickness: Length,
    /// A*.
    #[serde(rename = "area_cm2", serialize_with = "in_cm2")]
    #[cfg_attr(feature = "schema", schema(value_type = f64))]
    pub area: Area,
}

/// The best pad once creep and the tested range are kept to.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct BestWithin {
    /// Its static stress, thickness and area.
    pub pad: BestPad,
    /// Whether the long load, and not the fall, set its area.
    pub held_by_creep: bool,
}

const CM2_PER_M2: f64 = 1e4;

// The signature is what serde asks for.
#[expect(
    clippy::trivially_copy_pass_by_ref,
    reason = "serde hands a reference to the field"
)]
fn in_cm2<S: serde::Serializer>(area: &Area, serializer: S) -> Result<S::Ok, S::Error> {
    serializer.serialize_f64(area.as_m2() * CM2_PER_M2)
}

impl Pad {
    /// Returns the stress under a resting mass, in kilopascals: s = m·g/A.
    #[must_use]
    pub fn static_stress(&self, mass: Mass) -> Stress {
        Stress::of(Force::weight_of(mass), self.area)
    }

    /// Returns the energy that it takes up in a fall: ε = s·H/T.
    #[must_use]
    pub fn energy(&self, mass: Mass, drop: Length) -> EnergyDensity {
        energy_of(self.static_stress(mass), drop, self.thickness)
    }

    /// Returns the peak shock of a fall, G = σ/s; nothing above the tested range.
    #[must_use]
    pub fn peak(&self, mass: Mass, drop: Length) -> Option<Shock> {
        let stress = self.curve.stress_at(self.energy(mass, drop))?;
        Some(Shock::times_gravity(stress / self.static_stress(mass)))
    }

    /// Returns the highest fall that stays at or under a limit, in millimetres, never past the tested
    /// range; `None` if so light a piece on so large an area never compresses it.
    ///
    /// H = T·ln(G·s/a)/(b·s), and from the low branch under the start of the range.
    #[must_use]
    pub fn survives(&self, mass: Mass, limit: Shock) -> Option<Length> {
        let stress = self.static_stress(mass);
        let energy = self.curve.energy_at(stress * limit.as_times_gravity())?;
        let within = self
            .curve
            .most_tested()
            .map_or(energy, |most| energy.min(most));
        Some(self.thickness * (within.as_kj_m3() / stress.as_kpa()))
    }

    /// Returns the thickness at this area that meets a limit, in millimetres; `None` if G·s ≤ a, too
    /// much area for so light a piece.
    ///
    /// T = b·s·H/ln(G·s/a); never under the thickness that keeps the fall in the tested range.
    #[must_use]
    pub fn needed_thickness(&self, mass: Mass, drop: Length, limit: Shock) -> Option<Length> {
        let stress = self.static_stress(mass);
        let allowed = stress * limit.as_times_gravity();
        if allowed <= self.curve.start {
            return None;
        }
        let energy = self.curve.energy_at(allowed)?;
        let within = self
            .curve
            .most_tested()
            .map_or(energy, |most| energy.min(most));
        Some(drop * (stress.as_kpa() / within.as_kj_m3()))
    }
}

impl CushionCurve {
    /// Returns the thinnest pad for a mass, a fall and a limit, wherever the exponential leads.
    ///
    /// s* = e·a/G, T* = e·a·b·H/G, A* = m·g·G/(e·a). Source: packaging engineering practice; the
    /// derivative of T over s is nothing at ln(G·s/a) = 1.
    #[must_use]
    pub fn best_pad(&self, mass: Mass, drop: Length, limit: Shock) -> BestPad {
        let limit = limit.as_times_gravity();
        let static_stress = self.start * (std::f64::consts::E / limit);
        BestPad {
            static_stress,
            thickness: drop * (self.efficiency() / limit),
            area: area_for(mass, static_stress),
        }
    }

    /// Returns the thinnest pad that neither creeps nor leaves the tested range.
    ///
    /// The stress is held at the creep limit, where more area makes the pad thicker; where 1/b lies
    /// above the range, s = a·e^(b·ε_max)/G and T = s·H/ε_max. Nothing when at the creep limit even an
    /// endless thickness is over the limit.
    #[must_use]
    pub fn best_within(&self, mass: Mass, drop: Length, limit: Shock) -> Option<BestWithin> {
        let free = self.best_pad(mass, drop, limit);
        let wanted = match self.most_tested() {
            Some(most) if 1.0 / self.growth > most.as_kj_m3() => {
                self.exponential_end(most) / limit.as_times_gravity()
            }
            _ => free.static_stress,
        };
        let held = self.creep.filter(|&creep| creep < wanted);
        let static_stress = held.unwrap_or(wanted);
        let allowed = static_stress * limit.as_times_gravity();
        if allowed <= self.start {
            return None;
        }
        let energy = self.energy_at(allowed)?;
        let energy = self.most_tested().map_or(energy, |most| energy.min(most));
        let pad = BestPad {
            static_stress,
            thickness: drop * (static_stress.as_kpa() / energy.as_kj_m3()),
            area: area_for(mass, static_stress),
        };
        Some(BestWithin {
            pad,
            held_by_creep: held.is_some(),
        })
    }

    fn exponential_end(&self, most: EnergyDensity) -> Stress {
        self.stress_beyond(most)
    }
}

fn area_for(mass: Mass, stress: Stress) -> Area {
    Area::m2(Force::weight_of(mass).as_n() / (stress.as_kpa() * 1e3))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::cushion::EnergyRange;

    const MASS: Mass = Mass::kg(3.2);
    const DROP: Length = Length::mm(760.0);
    const LIMIT: Shock = Shock::times_gravity(50.0);

    fn urethane() -> CushionCurve {
        CushionCurve::endless(Stress::kpa(25.5), 0.048)
    }

    fn pad(cm2: f64, thickness: f64) -> Pad {
        Pad {
            curve: urethane(),
            area: Area::m2(cm2 / CM2_PER_M2),
            thickness: Length::mm(thickness),
        }
    }

    #[track_caller]
    fn near(found: f64, wanted: f64, within: f64) {
        assert!((found - wanted).abs() < within, "{found} for {wanted}");
    }

    #[test]
    fn a_canvas_on_urethane_pads() {
        // s = 3.2 × 9.80665/0.018 = 1743.4 Pa; ε = 1.7434 × 760/40 = 33.125; σ = 25.5 e^1.59 = 125.04;
        // G = 125.04/1.7434 = 71.72
        let pad = pad(180.0, 40.0);
        near(pad.static_stress(MASS).as_kpa(), 1.7434, 5e-5);
        near(pad.energy(MASS, DROP).as_kj_m3(), 33.125, 5e-4);
        near(
            pad.peak(MASS, DROP).expect("no range").as_times_gravity(),
            71.72,
            5e-3,
        );
        // T = 0.048 × 1.7434 × 760/ln(50 × 1.7434/25.5) = 63.600/1.22929 = 51.74
        near(
            pad.needed_thickness(MASS, DROP, LIMIT)
                .expect("reached")
                .as_mm(),
            51.74,
            5e-3,
        );
        // H = 40 × 1.22929/(0.048 × 1.7434) = 587.6
        near(
            pad.survives(MASS, LIMIT).expect("reached").as_mm(),
            587.54,
            5e-3,
        );
    }

    #[test]
    fn the_best_pad_for_it() {
        // s* = 2.71828 × 25.5/50 = 1.3863; T* = 2.71828 × 25.5 × 0.048 × 760/50 = 50.573;
        // A* = 31.38128/1386.3 = 0.022636 m²
        let best = urethane().best_pad(MASS, DROP, LIMIT);
        near(best.static_stress.as_kpa(), 1.3863, 5e-5);
        near(best.thickness.as_mm(), 50.573, 5e-4);
        near(best.area.as_m2() * CM2_PER_M2, 226.36, 5e-3);
    }

    #[test]
    fn creep_and_the_tested_range_hold_the_best_pad() {
        let creeping = CushionCurve {
            creep: Some(Stress::kpa(1.2)),
            ..urethane()
        };
        let best = creeping
            .best_within(MASS, DROP, LIMIT)
            .expect("there is one");
        assert!(best.held_by_creep);
        // T = 0.048 × 1.2 × 760/ln(60/25.5) = 43.776/0.855666 = 51.160
        near(best.pad.thickness.as_mm(), 51.160, 5e-3);

        // Tested up to 15 only, below 1/b = 20.83: s = 25.5 × e^0.72/50 = 1.04776; T = s × 760/15 = 53.087
        let short = CushionCurve {
            tested: Some(EnergyRange {
                least: EnergyDensity::kj_m3(3.0),
                most: EnergyDensity::kj_m3(15.0),
            }),
            ..urethane()
        };
        let best = short.best_within(MASS, DROP, LIMIT).expect("there is one");
        near(best.pad.static_stress.as_kpa(), 1.047_76, 5e-5);
        near(best.pad.thickness.as_mm(), 53.087, 5e-3);
    }

    #[test]
    fn a_light_piece_on_a_large_pad_needs_less_area_and_not_more_foam() {
        // 1.2 kg on 600 cm²: s = 0.196, G·s = 9.8 under 25.5
        let pad = pad(600.0, 40.0);
        assert_eq!(pad.needed_thickness(Mass::kg(1.2), DROP, LIMIT), None);
        assert_eq!(pad.survives(Mass::kg(1.2), LIMIT), None);
    }
}

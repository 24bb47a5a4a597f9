//! How far each kind of fall is survived, and what gives out first.

use serde::Serialize;

use super::answer::{PadAnswer, answer};
use crate::{
    cushion::{DamageBoundary, Padding, SeriesLayer, fall_shares, together},
    layer::{CushionFace, Cushioning, Envelope, Layer, LayerSlot, Make, Supplies},
    piece::{Fragility, PLANE_FREQUENCY},
    quantity::{Force, Length, Mass, Shock, Speed, Stress},
};

/// How a parcel falls.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum FallCase {
    /// Flat on its face.
    Face,
    /// On a long edge, where the face and a long narrow side meet.
    LongEdge,
    /// On a short edge.
    ShortEdge,
    /// On a corner.
    Corner,
    /// Over, from standing on its edge.
    Tipping,
}

/// One way to fall, and how far it is survived.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FallReport {
    /// Which.
    pub case: FallCase,
    /// The highest fall that does no harm.
    #[serde(rename = "survives_mm")]
    pub survives: Length,
    /// From how high a parcel of this weight is dropped by custom.
    #[serde(rename = "customary_mm")]
    pub customary: Length,
    /// Whether the piece, answering slowly, survives it whatever the cushion.
    pub by_velocity: bool,
    /// The shock of the customary fall; nothing past the tested range.
    #[serde(rename = "peak_g")]
    pub peak: Option<Shock>,
    /// The velocity change of the customary fall.
    #[serde(rename = "velocity_change_m_s")]
    pub velocity_change: Speed,
    /// The layer to change first.
    pub change_first: Option<LayerSlot>,
    /// Of the cushion on the side that is struck most.
    #[serde(rename = "cushion_mm")]
    pub cushion: Length,
    /// Of the layer to change first, under what it carries.
    #[serde(rename = "static_kpa")]
    pub static_stress: Option<Stress>,
    /// At the area that is there, the thickness that would meet the customary fall on one side; nothing
    /// where several cushions lie behind each other, or no thickness would.
    #[serde(rename = "needed_mm")]
    pub needed: Option<Length>,
    /// What would meet the customary fall.
    pub answer: Option<PadAnswer>,
}

/// The cushions on the sides of a plan.
pub(super) struct Sides {
    front: Padding,
    across: Padding,
    up: Padding,
    slots: [Vec<LayerSlot>; 3],
}

pub(super) const FRONT: usize = 0;
const ACROSS: usize = 1;
const UP: usize = 2;

impl Sides {
    pub(super) fn of(layers: &[Layer]) -> Self {
        let mut sides = Self {
            front: Padding::default(),
            across: Padding::default(),
            up: Padding::default(),
            slots: [const { Vec::new() }; 3],
        };
        for layer in layers {
            let Some(Cushioning {
                curve,
                front,
                across,
                up,
            }) = layer.cushioning
            else {
                continue;
            };
            let faces = [
                (FRONT, &mut sides.front, front),
                (ACROSS, &mut sides.across, across),
                (UP, &mut sides.up, up),
            ];
            for (place, padding, face) in faces {
                if let Some(CushionFace { area, thickness }) = face {
                    padding.push(SeriesLayer {
                        curve,
                        area,
                        thickness,
                    });
                    sides.slots[place].push(layer.slot);
                }
            }
        }
        sides
    }

    fn on(&self, place: usize) -> &Padding {
        [&self.front, &self.across, &self.up][place]
    }
}

/// A fall under study.
pub(super) struct Study<'a> {
    pub sides: &'a Sides,
    pub outside: Envelope,
    pub mass: Mass,
    pub fragility: Fragility,
}

impl Study<'_> {
    fn along(&self, place: usize) -> Length {
        [self.outside.through, self.outside.across, self.outside.up][place]
    }

    /// The shock of a fall in which some axes meet; nothing where one has no cushion.
    fn peak(&self, places: &[usize], drop: Length) -> Option<Shock> {
        if let [place] = places {
            return self.sides.on(*place).peak(self.mass, drop);
        }
        let outsides: Vec<Length> = places.iter().map(|&place| self.along(place)).collect();
        let peaks = places
            .iter()
            .zip(fall_shares(&outsides))
            .map(|(&place, share)| self.sides.on(place).peak(self.mass, drop * share))
            .collect::<Option<Vec<_>>>()?;
        Some(together(&peaks))
    }

    /// The axis that passes on the most in a fall; one past its tested range before all others.
    fn weakest(&self, places: &[usize], drop: Length) -> usize {
        let outsides: Vec<Length> = places.iter().map(|&place| self.along(place)).collect();
        let passed_on = |(place, share): (usize, f64)| {
            let peak = self.sides.on(place).peak(self.mass, drop * share);
            (place, peak.map_or(f64::INFINITY, Shock::as_times_gravity))
        };
        places
            .iter()
            .copied()
            .zip(fall_shares(&outsides))
            .map(passed_on)
            .max_by(|(_, one), (_, other)| one.total_cmp(other))
            .map(|(place, _)| place)
            .expect("every fall has an axis")
    }

    /// The highest fall within the limit: by formula on one axis, else between two falls that close in.
    fn by_shock(&self, places: &[usize]) -> Length {
        if let [place] = places {
            return self
                .sides
                .on(*place)
                .survives(self.mass, self.fragility.limit);
        }
        let within = |drop: Length| {
            self.peak(places, drop)
                .is_some_and(|peak| peak <= self.fragility.limit)
        };
        let (mut low, mut high) = (Length::ZERO, HIGHEST_FALL);
        for _ in 0..HALVINGS {
            let middle = (low + high) / 2.0;
            if within(middle) {
                low = middle;
            } else {
                high = middle;
            }
        }
        low
    }

    pub(super) fn boundary(&self, places: &[usize]) -> DamageBoundary {
        let frequency = if places == [FRONT] {
            self.fragility.face_frequency
        } else {
            PLANE_FREQUENCY
        };
        DamageBoundary::of(self.fragility.limit, frequency, DamageBoundary::REBOUND)
    }
}

/// Nobody drops a parcel from higher.
const HIGHEST_FALL: Length = Length::mm(4000.0);
/// Half of the highest fall so many times is under a thousandth of a millimetre.
const HALVINGS: u32 = 22;
/// Standing on its edge, a parcel falls on its face as from half its height.
const TIPPING_SHARE: f64 = 0.5;

pub(super) fn falls(
    study: &Study<'_>,
    custom: Length,
    supplies: &Supplies<'_>,
    layers: &[Layer],
) -> Vec<FallReport> {
    let (long_side, short_side) = if study.outside.up >= study.outside.across {
        (ACROSS, UP)
    } else {
        (UP, ACROSS)
    };
    let tipping = study.outside.long_side() * TIPPING_SHARE;
    let cases: [(FallCase, &[usize], Length); 5] = [
        (FallCase::Face, &[FRONT], custom.max(tipping)),
        (FallCase::LongEdge, &[FRONT, long_side], custom),
        (FallCase::ShortEdge, &[FRONT, short_side], custom),
        (FallCase::Corner, &[FRONT, ACROSS, UP], custom),
        (
            FallCase::Tipping,
            &[FRONT],
            top_pads(study, layers).unwrap_or(tipping),
        ),
    ];
    cases
        .into_iter()
        .filter(|(_, places, _)| {
            places
                .iter()
                .all(|&place| !study.sides.on(place).is_empty())
        })
        .map(|(case, places, customary)| report(study, (case, places), customary, supplies, layers))
        .collect()
}

/// Pads at the top edge land as from 1.5·y²/h, y being how high their middle stands over the foot; nothing
/// where the cushion covers the whole face. Source: packaging engineering practice, a rod that tips over.
fn top_pads(study: &Study<'_>, layers: &[Layer]) -> Option<Length> {
    let standing = study.outside.long_side();
    let (layer, pads) = layers.iter().find_map(|layer| match &layer.make {
        Make::FacePads(pads) if pads.pads > 1 => Some((layer, pads)),
        _ => None,
    })?;
    let (inside, pad) = if study.outside.up >= study.outside.across {
        (layer.envelope.up, pads.height)
    } else {
        (layer.envelope.across, pads.width)
    };
    let above = (standing + inside) / 2.0 - pad / 2.0;
    Some(Length::mm(
        TIPPING_ROD * above.as_mm() * above.as_mm() / standing.as_mm(),
    ))
}

/// A rod that tips over lands at its tip as from so many times its height.
const TIPPING_ROD: f64 = 1.5;

fn report(
    study: &Study<'_>,
    (case, places): (FallCase, &[usize]),
    customary: Length,
    supplies: &Supplies<'_>,
    layers: &[Layer],
) -> FallReport {
    let by_shock = study.by_shock(places);
    let boundary = study.boundary(places);
    let struck = study.weakest(places, customary);
    let padding = study.sides.on(struck);
    let change = padding
        .change_first(study.mass, customary)
        .map(|place| study.sides.slots[struck][place]);
    let survives = by_shock.max(boundary.survives);
    FallReport {
        case,
        survives,
        customary,
        by_velocity: boundary.survives > by_shock,
        peak: study.peak(places, customary),
        velocity_change: DamageBoundary::velocity_change(customary, DamageBoundary::REBOUND),
        change_first: change,
        cushion: padding.thickness(),
        static_stress: padding
            .area()
            .map(|area| Stress::of(Force::weight_of(study.mass), area)),
        needed: match places {
            [_] => padding.needed_thickness(study.mass, customary, study.fragility.limit),
            _ => None,
        },
        answer: (survives < customary)
            .then(|| answer(study, struck, customary, supplies, layers))
            .flatten(),
    }
}

//! How far each kind of fall is survived, and what gives out first: the engineer's view.

use serde::Serialize;

use super::answer::{PadAnswer, answer};
use crate::{
    cushion::{DamageBoundary, Series, SeriesLayer, TriedSeries, fall_shares, together},
    layer::{CushionFace, Layer, Make, Supplies, crushing_board},
    piece::{Fragility, PLANE_FREQUENCY},
    quantity::{Area, Force, Frequency, Length, Mass, Shock, Speed, Stress},
    space::{Envelope, LayerSlot},
};

/// How a parcel falls.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum FallCase {
    /// Flat on its face.
    Face,
    /// Flat on its back.
    Back,
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
    /// The way it falls.
    pub case: FallCase,
    /// The highest fall that does no harm.
    #[serde(rename = "survives_mm")]
    pub survives: Length,
    /// From how high a parcel of this weight is dropped by custom.
    #[serde(rename = "customary_mm")]
    pub customary: Length,
    /// Whether it survives that fall.
    pub passes: bool,
    /// Whether the piece, answering slowly, survives it whatever the cushion.
    pub by_velocity: bool,
    /// The shock of the customary fall; nothing past the tested range, or where a side is bare.
    #[serde(rename = "peak_g")]
    pub peak: Option<Shock>,
    /// The shock that it can take that way.
    #[serde(rename = "limit_g")]
    pub limit: Shock,
    /// The velocity change of the customary fall.
    #[serde(rename = "velocity_change_m_s")]
    pub velocity_change: Speed,
    /// The layer to change first.
    pub change_first: Option<LayerSlot>,
    /// Of the cushion on the side that is struck most.
    #[serde(rename = "cushion_mm")]
    pub cushion: Length,
    /// Of the innermost layer there, under what it carries.
    #[serde(rename = "static_kpa")]
    pub static_stress: Option<Stress>,
    /// How thick the layer to change first would have to be, at its area, to meet the customary fall on one
    /// side; `None` if no thickness would.
    #[serde(rename = "needed_mm")]
    pub needed: Option<Length>,
    /// The pads that would meet the customary fall.
    pub answer: Option<PadAnswer>,
}

/// The stiff core of a parcel: what cushions press on.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) struct Core {
    /// Bars, frame or board, seen from the front; not bare canvas.
    pub face: Area,
    /// What lies within the cushions.
    pub inside: Envelope,
}

/// What lies on the sides of a plan.
pub(super) struct Sides {
    on: [Vec<(LayerSlot, SeriesLayer)>; 4],
    /// The same, to try falls on; `None` if a side is bare.
    tried: [Option<TriedSeries>; 4],
}

pub(super) const FRONT: usize = 0;
const BACK: usize = 1;
const ACROSS: usize = 2;
const UP: usize = 3;

impl Sides {
    pub(super) fn of(layers: &[Layer], core: Core) -> Self {
        let Envelope {
            across,
            up,
            through,
        } = core.inside;
        let covered = [core.face, core.face, up * through, across * through];
        let mut on = [const { Vec::new() }; 4];
        for layer in layers {
            let Some(cushioning) = layer.cushioning else {
                continue;
            };
            let found = [
                cushioning.front,
                cushioning.back,
                cushioning.across,
                cushioning.up,
            ];
            for (place, face) in found.into_iter().enumerate() {
                if let Some(CushionFace { area, thickness }) = face {
                    let lies = SeriesLayer {
                        curve: cushioning.curve,
                        area: area.unwrap_or(covered[place]),
                        thickness,
                    };
                    on[place].push((layer.slot, lies));
                }
            }
            let boards = [cushioning.board_before, cushioning.board_behind];
            for (place, caliper) in boards.into_iter().enumerate() {
                if caliper > Length::ZERO {
                    let lies = SeriesLayer {
                        curve: crushing_board(),
                        area: covered[place],
                        thickness: caliper,
                    };
                    on[place].push((layer.slot, lies));
                }
            }
        }
        let layers = |side: &Vec<(_, SeriesLayer)>| side.iter().map(|(_, layer)| *layer).collect();
        let tried = on.each_ref().map(|side| TriedSeries::of(layers(side)));
        Self { on, tried }
    }

    fn layers(&self, place: usize) -> Vec<SeriesLayer> {
        self.on[place].iter().map(|(_, layer)| *layer).collect()
    }
}

/// A fall under study.
pub(super) struct Study<'a> {
    pub sides: &'a Sides,
    /// The piece itself, along its axes.
    pub body: Envelope,
    pub outside: Envelope,
    pub mass: Mass,
    pub fragility: Fragility,
    /// What it takes on its face.
    pub limit: Shock,
}

impl Study<'_> {
    fn along(&self, place: usize) -> Length {
        [
            self.body.through,
            self.body.through,
            self.body.across,
            self.body.up,
        ][place]
    }

    fn shares(&self, places: &[usize]) -> Vec<f64> {
        let sides: Vec<Length> = places.iter().map(|&place| self.along(place)).collect();
        fall_shares(&sides)
    }

    /// The shock of a fall square onto a side.
    fn square(&self, place: usize, drop: Length) -> Option<Shock> {
        self.sides.tried[place].as_ref()?.peak(self.mass, drop)
    }

    /// The shock of a fall in which some axes meet: each side takes its share n² of the fall on its share n² of
    /// the area. Nothing where one is bare.
    fn peak(&self, places: &[usize], drop: Length) -> Option<Shock> {
        if let [place] = places {
            return self.square(*place, drop);
        }
        let peaks = places
            .iter()
            .zip(self.shares(places))
            .map(|(&place, share)| Some(self.square(place, drop)? * share))
            .collect::<Option<Vec<_>>>()?;
        Some(together(&peaks))
    }

    /// The axis that passes on the most in a fall; one that is bare, or past its tested range, before all others.
    fn weakest(&self, places: &[usize], drop: Length) -> usize {
        let passed_on = |(place, share): (usize, f64)| {
            let peak = self.square(place, drop).map(|peak| peak * share);
            (place, peak.map_or(f64::INFINITY, Shock::as_times_gravity))
        };
        places
            .iter()
            .copied()
            .zip(self.shares(places))
            .map(passed_on)
            .max_by(|(_, one), (_, other)| one.total_cmp(other))
            .map(|(place, _)| place)
            .expect("every fall has an axis")
    }

    /// What it takes when these axes meet.
    fn limit_on(&self, places: &[usize]) -> Shock {
        self.limit
            * match places {
                [FRONT] => 1.0,
                [BACK] => self.fragility.back_factor,
                _ => self.fragility.plane_factor,
            }
    }

    /// The highest fall within the limit: by formula on one axis, else between two falls that close in.
    fn by_shock(&self, places: &[usize]) -> Length {
        let limit = self.limit_on(places);
        if let [place] = places {
            return Series::survives(&self.sides.layers(*place), self.mass, limit);
        }
        let within = |drop: Length| self.peak(places, drop).is_some_and(|peak| peak <= limit);
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
        let frequency: Frequency = if let [FRONT | BACK] = places {
            self.fragility.face_frequency
        } else {
            PLANE_FREQUENCY
        };
        DamageBoundary::of(self.limit_on(places), frequency, DamageBoundary::REBOUND)
    }

    /// How thick one layer of a side would have to be for a fall square onto it, the others as they are.
    fn needed(&self, place: usize, drop: Length, changed: usize) -> Option<Length> {
        let layers = self.sides.layers(place);
        let weight = Force::weight_of(self.mass);
        let allowed = weight * self.limit_on(&[place]).as_times_gravity();
        let within = |layer: &SeriesLayer| {
            let reached = layer.curve.energy_at(Stress::of(allowed, layer.area))?;
            Some(
                layer
                    .curve
                    .most_tested()
                    .map_or(reached, |most| reached.min(most)),
            )
        };
        let taken = |layer: &SeriesLayer| {
            within(layer).map_or(0.0, |energy| {
                energy.as_kj_m3() * (layer.area * layer.thickness).as_m3()
            })
        };
        let others: f64 = layers
            .iter()
            .enumerate()
            .filter(|&(at, _)| at != changed)
            .map(|(_, layer)| taken(layer))
            .sum();
        let left = weight.as_n() * drop.as_m() / J_PER_KJ - others;
        let per_mm = within(&layers[changed])?.as_kj_m3() * (layers[changed].area * MM).as_m3();
        (per_mm > 0.0).then(|| Length::mm((left / per_mm).clamp(0.0, THICKEST)))
    }
}

const J_PER_KJ: f64 = 1e3;
const MM: Length = Length::mm(1.0);
/// Thicker than this nothing is cut.
const THICKEST: f64 = 1e5;
/// Nobody drops a parcel from higher.
const HIGHEST_FALL: Length = Length::mm(4000.0);
/// Half of the highest fall so many times is under half a millimetre.
const HALVINGS: u32 = 13;
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
    let cases: [(FallCase, &[usize], Length); 6] = [
        (FallCase::Face, &[FRONT], custom.max(tipping)),
        (FallCase::Back, &[BACK], custom.max(tipping)),
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
        .map(|(case, places, customary)| report(study, (case, places), customary, supplies, layers))
        .collect()
}

/// Pads at the top edge land as from 1.5·y²/h, y being how high their middle stands over the foot; `None`
/// if the cushion covers the whole face. Source: packaging engineering practice, a rod that tips over.
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
    let on = study.sides.layers(struck);
    let changed = Series::fall(&on, study.mass, customary).and_then(|series| series.most_used(&on));
    let survives = by_shock.max(boundary.survives);
    let needed = match places {
        [place] => changed.and_then(|changed| study.needed(*place, customary, changed)),
        _ => None,
    };
    FallReport {
        case,
        survives,
        customary,
        passes: survives >= customary,
        by_velocity: boundary.survives > by_shock,
        peak: study.peak(places, customary),
        limit: study.limit_on(places),
        velocity_change: DamageBoundary::velocity_change(customary, DamageBoundary::REBOUND),
        change_first: changed.map(|place| study.sides.on[struck][place].0),
        cushion: on.iter().map(|layer| layer.thickness).sum(),
        static_stress: on
            .first()
            .map(|layer| Stress::of(Force::weight_of(study.mass), layer.area)),
        needed,
        answer: (survives < customary && case != FallCase::Back)
            .then(|| {
                answer(
                    study,
                    (struck, study.limit_on(places)),
                    customary,
                    supplies,
                    layers,
                )
            })
            .flatten(),
    }
}

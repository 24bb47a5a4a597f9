//! What a plan survives: falls in five ways, a corner that presses in, and a stack.

use serde::Serialize;

use super::recipe::Recipe;
use crate::{
    cushion::{
        CushionCurve, DamageBoundary, Padding, Plate, SeriesLayer, compression_strength,
        customary_drop, fall_shares, like_parcels_above, stretched, together,
    },
    house::Carriage,
    layer::{CushionFace, Cushioning, Envelope, Layer, LayerSlot, Make, Supplies},
    material::{Board, Foam, MaterialId},
    piece::{Fragility, PLANE_FREQUENCY, Piece},
    quantity::{Area, ArealDensity, Force, Length, Mass, Shock, Speed, Stiffness, Stress},
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

/// Pads that would meet a fall, of the foam of the house.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PadAnswer {
    /// What they are added as.
    pub slot: LayerSlot,
    /// Of which foam.
    pub foam: MaterialId,
    /// What that is called.
    pub foam_name: String,
    /// How far corner blocks reach along each edge; nothing for face pads.
    #[serde(rename = "leg_mm")]
    pub leg: Option<Length>,
    /// Worked out.
    #[serde(rename = "thickness_mm")]
    pub thickness: Length,
    /// As the studio can cut it.
    #[serde(rename = "cut_mm")]
    pub cut: Length,
    /// On one side, all pads together.
    #[serde(rename = "area_cm2")]
    pub area_cm2: f64,
    /// Whether long load, and not the fall, set the area.
    pub held_by_creep: bool,
    /// Whether so light a piece wants less area and not more foam.
    pub too_much_area: bool,
}

/// How far the face gives under a corner.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PressReport {
    /// Of the innermost board.
    #[serde(rename = "deflection_mm")]
    pub deflection: Length,
    /// What it may give before it reaches the art.
    #[serde(rename = "stand_off_mm")]
    pub stand_off: Length,
    /// Whether it stays off.
    pub passes: bool,
    /// The lightest board on the shelf that would, where this one does not.
    pub board_that_passes: Option<MaterialId>,
}

/// What the box bears.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StackReport {
    /// With the studio's safety.
    #[serde(rename = "allowed_n")]
    pub allowed: Force,
    /// Of the like parcels on top.
    #[serde(rename = "load_n")]
    pub load: Force,
    /// How many they are.
    pub parcels: u32,
    /// Whether it bears them.
    pub passes: bool,
    /// Whether the sides are so unlike that it is a guess.
    pub indicative: bool,
}

/// A cushion before the face, as it stands on its curve.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FaceCushion {
    /// The first layer of it.
    pub slot: LayerSlot,
    /// What it is.
    pub material: MaterialId,
    /// What that is called.
    pub material_name: String,
    /// How it takes up a fall.
    pub curve: CushionCurve,
    /// Of all layers of it together.
    #[serde(rename = "thickness_mm")]
    pub thickness: Length,
    /// Under what it carries.
    #[serde(rename = "static_kpa")]
    pub static_stress: Stress,
}

/// What a plan survives.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Survival {
    /// What the piece can take.
    pub fragility: Fragility,
    /// The corner of its damage boundary, for knocks on the face.
    pub boundary: DamageBoundary,
    /// Inside the cushion.
    #[serde(rename = "cushioned_g")]
    pub cushioned: Mass,
    /// Each way to fall; none where nothing cushions, or past the weight that is dropped by custom.
    pub falls: Vec<FallReport>,
    /// The cushions before the face, from the art outward.
    pub face: Vec<FaceCushion>,
    /// A corner that presses in; nothing where the boards' stiffness is not known.
    pub press: Option<PressReport>,
    /// What the box bears on its edge; nothing where it can't be reckoned.
    pub stack: Option<StackReport>,
}

/// The cushions on the sides of a plan.
struct Sides {
    front: Padding,
    across: Padding,
    up: Padding,
    slots: [Vec<LayerSlot>; 3],
}

const FRONT: usize = 0;
const ACROSS: usize = 1;
const UP: usize = 2;

impl Sides {
    fn of(layers: &[Layer]) -> Self {
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
struct Study<'a> {
    sides: &'a Sides,
    outside: Envelope,
    mass: Mass,
    fragility: Fragility,
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

    fn boundary(&self, places: &[usize]) -> DamageBoundary {
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
const CM2_PER_M2: f64 = 1e4;

impl Survival {
    /// Returns what a plan survives.
    ///
    /// Source: packaging engineering practice and plate theory, as their modules say.
    pub(super) fn of(
        piece: &Piece,
        supplies: &Supplies<'_>,
        recipe: &Recipe,
        layers: &[Layer],
        parcel: (Envelope, Mass),
        piece_mass: Mass,
    ) -> Self {
        let (outside, parcel_mass) = parcel;
        let rolled = recipe.carriage == Carriage::Rolled;
        let fragility = Fragility::of(piece, rolled);
        let sides = Sides::of(layers);
        let cushioned = piece_mass
            + layers
                .iter()
                .take_while(|layer| layer.cushioning.is_none())
                .map(|layer| layer.weight.mass)
                .sum();
        let study = Study {
            sides: &sides,
            outside,
            mass: cushioned,
            fragility,
        };
        let custom =
            customary_drop(parcel_mass).map(|drop| drop * supplies.allowances().drop_factor);
        let falls = custom
            .filter(|_| !rolled)
            .map(|custom| falls(&study, custom, supplies, layers))
            .unwrap_or_default();
        Self {
            fragility,
            boundary: study.boundary(&[FRONT]),
            cushioned,
            falls,
            face: face_cushions(layers, cushioned),
            press: press(piece, supplies, layers),
            stack: stack(supplies, layers, parcel_mass),
        }
    }
}

/// The cushions before the face; layers of one material that lie on each other are one.
fn face_cushions(layers: &[Layer], mass: Mass) -> Vec<FaceCushion> {
    let mut found: Vec<FaceCushion> = Vec::new();
    for layer in layers {
        let Some((curve, face)) = layer
            .cushioning
            .and_then(|cushioning| Some((cushioning.curve, cushioning.front?)))
        else {
            continue;
        };
        let stress = Stress::of(Force::weight_of(mass), face.area);
        match found.last_mut() {
            Some(last) if last.material == layer.material => {
                last.thickness += face.thickness;
                last.static_stress = last.static_stress.max(stress);
            }
            _ => found.push(FaceCushion {
                slot: layer.slot,
                material: layer.material.clone(),
                material_name: layer.material_name.clone(),
                curve,
                thickness: face.thickness,
                static_stress: stress,
            }),
        }
    }
    found
}

fn falls(
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

/// The pads that would meet a fall by themselves: of the house's foam, or of the first other one of which
/// four pads stand firm.
fn answer(
    study: &Study<'_>,
    struck: usize,
    drop: Length,
    supplies: &Supplies<'_>,
    layers: &[Layer],
) -> Option<PadAnswer> {
    let house = &supplies.rules.materials.pad_foam;
    let shelf = &supplies.catalogue.foams;
    let first = shelf.iter().filter(|foam| foam.id == *house);
    let others = shelf
        .iter()
        .filter(|foam| foam.id != *house && !foam.shelf.retired && !foam.sheds);
    let wanted: Vec<PadAnswer> = first
        .chain(others)
        .filter_map(|foam| answer_of(study, struck, drop, foam, layers))
        .collect();
    let firm = wanted.iter().find(|answer| answer.stands_firm());
    firm.or(wanted.first()).cloned()
}

fn answer_of(
    study: &Study<'_>,
    struck: usize,
    drop: Length,
    foam: &Foam,
    layers: &[Layer],
) -> Option<PadAnswer> {
    let limit = study.fragility.limit;
    let best = foam.curve.best_within(study.mass, drop, limit)?;
    let face = struck == FRONT;
    let cut = foam.thickness_from(best.pad.thickness)?;
    let slot = if face {
        LayerSlot::FacePads
    } else {
        LayerSlot::CornerBlocks
    };
    let stress = layers
        .iter()
        .find(|layer| layer.slot == slot && layer.material == foam.id)
        .and_then(|layer| layer.cushioning)
        .and_then(|cushioning| {
            if face {
                cushioning.front
            } else {
                cushioning.up
            }
        })
        .map(|there| Stress::of(Force::weight_of(study.mass), there.area));
    let too_much_area =
        stress.is_some_and(|stress| stress * limit.as_times_gravity() <= foam.curve.start);
    Some(PadAnswer {
        slot,
        foam: foam.id.clone(),
        foam_name: foam.name.clone(),
        leg: (!face).then(|| leg_for(best.pad.area, cut, study, layers)),
        thickness: best.pad.thickness,
        cut,
        area_cm2: best.pad.area.as_m2() * CM2_PER_M2,
        held_by_creep: best.held_by_creep,
        too_much_area,
    })
}

/// The leg with which two blocks on an edge bear on an area beside what lies within the cushion.
fn leg_for(area: Area, thickness: Length, study: &Study<'_>, layers: &[Layer]) -> Length {
    let core = layers
        .iter()
        .take_while(|layer| layer.cushioning.is_none())
        .last()
        .map_or(study.outside, |layer| layer.envelope);
    let bears = Length::mm(area.as_m2() / 2.0 / core.through.as_m() * MM_PER_M);
    let longest = core.across.min(core.up) / 2.0 + thickness;
    (thickness + bears)
        .max(thickness * 2.0)
        .min(longest)
        .rounded_up_to(WHOLE_MM)
}

const WHOLE_MM: Length = Length::mm(1.0);
/// So many pads lie on the face, at its corners.
const PADS: f64 = 4.0;

impl PadAnswer {
    /// Tells whether each of four pads is wide enough for its thickness not to lean.
    fn stands_firm(&self) -> bool {
        let side = self.cut.as_mm() * LEAST_PAD_SIDE;
        const MM2_PER_CM2: f64 = 100.0;
        self.slot != LayerSlot::FacePads || self.area_cm2 / PADS >= side * side / MM2_PER_CM2
    }
}

/// A pad narrower than so many times its thickness leans.
pub(super) const LEAST_PAD_SIDE: f64 = 1.33;

/// A corner of another parcel on the face.
///
/// The box panel and the face board bend together where they touch; with a cushion between, the board
/// gives once the panel has closed half of it. What the board may give is what lies soft between it and
/// the art.
fn press(piece: &Piece, supplies: &Supplies<'_>, layers: &[Layer]) -> Option<PressReport> {
    let load = Force::n(supplies.allowances().press_load);
    let outer = layers.iter().rev().find_map(|layer| match &layer.make {
        Make::SlottedBox(carton) => {
            let side = (carton.inside_length, carton.inside_width);
            plate(supplies.box_board, side)
        }
        _ => None,
    })?;
    let soft: Length = layers
        .iter()
        .filter(|layer| layer.cushioning.is_some())
        .map(|layer| layer.adds.front)
        .sum();
    // Paper between two boards has nothing to be pressed in on.
    if layers.iter().any(|layer| layer.slot == LayerSlot::Folio) {
        return None;
    }
    let sides = layers.iter().find_map(|layer| match &layer.make {
        Make::FaceBoards(boards) if layer.slot == LayerSlot::FaceBoards => {
            Some((boards.width, boards.height))
        }
        _ => None,
    });
    let off = stand_off(piece, supplies, layers);
    let beside = outer_board_rate(supplies, layers);
    let Some(sides) = sides else {
        return Some(PressReport::of(outer.under(load).deflection, soft));
    };
    let gives = |board: &Board| {
        plate(board, sides).map(|board| {
            let closing = soft * HALF_CLOSED;
            let panel = outer.rate() + beside;
            let left = Force::n((load.as_n() - panel * closing.as_m()).max(0.0));
            let linear = Length::mm(left.as_n() / (panel + board.rate()) * MM_PER_M);
            stretched(linear, board.stretch_thickness.unwrap_or(Length::ZERO))
        })
    };
    let there = PressReport::of(gives(supplies.face_board)?, off);
    if there.passes {
        return Some(there);
    }
    let stiffer = supplies
        .catalogue
        .boards
        .iter()
        .filter(|board| !board.shelf.retired && board.areal_density <= HEAVIEST_REMEDY)
        .filter(|board| gives(board).is_some_and(|gives| gives <= off))
        .min_by_key(|board| board.areal_density);
    Some(PressReport {
        board_that_passes: stiffer.map(|board| board.id.clone()),
        ..there
    })
}

/// What a board outside the cushion adds to the panel that it lies against, in newtons a metre.
fn outer_board_rate(supplies: &Supplies<'_>, layers: &[Layer]) -> f64 {
    layers
        .iter()
        .find_map(|layer| match &layer.make {
            Make::FaceBoards(boards) if layer.slot == LayerSlot::OuterBoards => {
                let board = supplies.catalogue.board(&layer.material).ok()?;
                plate(board, (boards.width, boards.height))
            }
            _ => None,
        })
        .map_or(0.0, Plate::rate)
}

/// Nobody puts a heavier board in front of a picture to keep a corner off it.
const HEAVIEST_REMEDY: ArealDensity = ArealDensity::g_m2(3000.0);

impl PressReport {
    fn of(deflection: Length, stand_off: Length) -> Self {
        Self {
            deflection,
            stand_off,
            passes: deflection <= stand_off,
            board_that_passes: None,
        }
    }
}

const HALF_CLOSED: f64 = 0.5;
const MM_PER_M: f64 = 1e3;

fn plate(board: &Board, (side_a, side_b): (Length, Length)) -> Option<Plate> {
    let stiffness: Stiffness = board.stiffness?;
    Some(Plate {
        side_a,
        side_b,
        stiffness,
        stretch_thickness: Some(board.caliper * board.build.stretch_factor()),
    })
}

/// What lies between the innermost board and the art: pockets hold the board off, so does a spacer; a
/// panel is stiff enough to be lain on; glazing lies back in its rabbet.
fn stand_off(piece: &Piece, supplies: &Supplies<'_>, layers: &[Layer]) -> Length {
    let inside_board = layers
        .iter()
        .take_while(|layer| layer.slot != LayerSlot::FaceBoards);
    let off: Length = inside_board.map(|layer| layer.adds.front).sum();
    let own = if piece.construction.is_framed() {
        supplies.allowances().rabbet_depth
    } else if piece.construction.is_cloth() {
        Length::ZERO
    } else {
        // A panel bears the board all over.
        STIFF_ENOUGH
    };
    off + own
}

/// More than any board gives.
const STIFF_ENOUGH: Length = Length::mm(1000.0);

/// What the box bears standing on its opening, flutes upright.
fn stack(supplies: &Supplies<'_>, layers: &[Layer], parcel: Mass) -> Option<StackReport> {
    let carton = layers.iter().rev().find_map(|layer| match &layer.make {
        Make::SlottedBox(carton) => Some(carton),
        _ => None,
    })?;
    let board = supplies.box_board;
    let height = carton.inside_width;
    let perimeter = (carton.inside_length + carton.inside_height) * 2.0;
    if perimeter > height * SLENDER {
        return None;
    }
    let strength = compression_strength(board.edge_crush?, board.caliper, perimeter);
    let weak = if board.shelf.reused { REUSED } else { 1.0 };
    let allowed = strength * (weak / supplies.allowances().stack_safety);
    let parcels = like_parcels_above(height);
    let load = Force::weight_of(parcel) * f64::from(parcels);
    let ratio = carton.inside_length / carton.inside_height;
    Some(StackReport {
        allowed,
        load,
        parcels,
        passes: load <= allowed,
        indicative: ratio > UNLIKE_SIDES,
    })
}

/// Past this the formula does not hold.
const SLENDER: f64 = 7.0;
const UNLIKE_SIDES: f64 = 3.0;
/// Board that was folded before bears less.
const REUSED: f64 = 0.7;

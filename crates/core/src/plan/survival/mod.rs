//! What a plan survives: falls in five ways, a corner that presses in, and a stack.

mod answer;
mod fall;
mod load;

pub use answer::PadAnswer;
pub use fall::{FallCase, FallReport};
pub use load::{PressReport, StackReport};

pub(super) use answer::LEAST_PAD_SIDE;

use serde::Serialize;

use crate::{
    cushion::{CushionCurve, DamageBoundary, drop_by},
    house::Carriage,
    layer::{Layer, Make, Supplies},
    material::MaterialId,
    piece::{Fragility, Piece, PieceSize},
    quantity::{Area, Force, Length, Mass, Stress},
    space::{Envelope, LayerSlot},
};
use fall::{Core, FRONT, Sides, Study};

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
    /// The corner of its damage boundary, for knocks on the face; nothing for loose sheets.
    pub boundary: Option<DamageBoundary>,
    /// Inside the cushion.
    #[serde(rename = "cushioned_g")]
    pub cushioned: Mass,
    /// Each way to fall; none for loose sheets, or past the weight that is dropped by custom.
    pub falls: Vec<FallReport>,
    /// The cushions before the face, from the art outward.
    pub face: Vec<FaceCushion>,
    /// A corner that presses in; `None` if the boards' stiffness is not known.
    pub press: Option<PressReport>,
    /// What the box bears on its edge; `None` if it can't be reckoned.
    pub stack: Option<StackReport>,
}

/// What the engineer's view is worked out from.
pub(super) struct Seen<'a> {
    pub piece: &'a Piece,
    pub supplies: &'a Supplies<'a>,
    pub carriage: Carriage,
    pub layers: &'a [Layer],
    pub outside: Envelope,
    pub parcel: Mass,
    pub piece_mass: Mass,
}

impl Survival {
    /// Returns what the piece can take, and nothing of what the plan makes of it.
    pub(super) fn folded(seen: &Seen<'_>) -> Self {
        Self {
            fragility: Fragility::of(seen.piece, seen.carriage == Carriage::Rolled),
            boundary: None,
            cushioned: Mass::ZERO,
            falls: Vec::new(),
            face: Vec::new(),
            press: None,
            stack: None,
        }
    }

    /// Returns what a plan survives.
    ///
    /// Source: packaging engineering practice and plate theory, as their modules say.
    pub(super) fn of(seen: &Seen<'_>) -> Self {
        let Seen {
            piece,
            supplies,
            layers,
            ..
        } = *seen;
        let fragility = Fragility::of(piece, seen.carriage == Carriage::Rolled);
        let within = || {
            layers
                .iter()
                .take_while(|layer| !layer.is_cushion())
                .filter(|layer| layer.slot < LayerSlot::Box)
        };
        let cushioned = seen.piece_mass + within().map(|layer| layer.weight.mass).sum::<Mass>();
        let core = core_of(piece, supplies, layers, within().last());
        let custom = drop_by(supplies.allowances().drop_heights(), seen.parcel)
            .map(|drop| drop * supplies.allowances().drop_factor);
        let sides = Sides::of(layers, core);
        let study = fragility.limit.map(|limit| Study {
            sides: &sides,
            body: body_of(piece, layers),
            outside: seen.outside,
            mass: cushioned,
            fragility,
            limit,
        });
        let falls = study
            .as_ref()
            .zip(custom)
            .map(|(study, custom)| fall::falls(study, custom, supplies, layers))
            .unwrap_or_default();
        Self {
            fragility,
            boundary: study.map(|study| study.boundary(&[FRONT])),
            cushioned,
            falls,
            face: face_cushions(layers, core.face, cushioned),
            press: load::press(piece, supplies, layers),
            stack: load::stack(supplies, layers, seen.parcel),
        }
    }
}

/// The piece, or the bundle of pieces, along its axes.
fn body_of(piece: &Piece, layers: &[Layer]) -> Envelope {
    layers.iter().find(|layer| layer.holds_several()).map_or(
        Envelope {
            across: piece.size.width,
            up: piece.size.height,
            through: piece.size.depth,
        },
        |bundle| bundle.envelope,
    )
}

/// What is stiff within the cushions: a board where there is one, the bars of a canvas, else the whole face.
fn core_of(
    piece: &Piece,
    supplies: &Supplies<'_>,
    layers: &[Layer],
    innermost: Option<&Layer>,
) -> Core {
    let body = body_of(piece, layers);
    let boarded = layers.iter().find_map(|layer| match &layer.make {
        Make::FaceBoards(boards) => Some(boards.width * boards.height),
        Make::Folio(folio) => Some(folio.width * folio.height),
        _ => None,
    });
    let face = boarded.unwrap_or_else(|| {
        if !piece.construction.is_cloth() {
            let size = PieceSize {
                width: body.across,
                height: body.up,
                depth: body.through,
            };
            return piece.outline.face(size, piece.bearing_points());
        }
        let bar = supplies.allowances().bar_width * 2.0;
        let hollow = |side: Length| (side - bar).max(Length::ZERO);
        let hollow = hollow(body.across) * hollow(body.up);
        Area::m2((body.face().as_m2() - hollow.as_m2()).max(0.0))
    });
    Core {
        face,
        inside: innermost.map_or(body, |layer| layer.envelope),
    }
}

/// The cushions before the face; layers of one material that lie on each other are one.
fn face_cushions(layers: &[Layer], core: Area, mass: Mass) -> Vec<FaceCushion> {
    let mut found: Vec<FaceCushion> = Vec::new();
    for layer in layers.iter().filter(|layer| layer.is_cushion()) {
        let Some((curve, face)) = layer
            .cushioning
            .and_then(|cushioning| Some((cushioning.curve, cushioning.front?)))
        else {
            continue;
        };
        let stress = Stress::of(Force::weight_of(mass), face.area.unwrap_or(core));
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

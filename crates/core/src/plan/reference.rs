//! What a plan is compared with: the same piece as the shipped Standard packs it, travelling the same way.

use std::sync::{Arc, LazyLock};

use quick_cache::sync::Cache;

use super::{build, hands, recipe::Recipe};
use crate::{
    Refusal,
    arrange::{Arrangement, Flat, Keeping, Layings, Member, Parting, PlacedPiece},
    cushion::{SeriesLayer, compression_strength},
    house::{Carriage, HouseRules, SealRule},
    layer::{Layer, Make, Supplies, TUBE_PLAY, TubeBox, crushing_board},
    material::Catalogue,
    odds::{
        Damp, FallSides, Faller, Measure, PerHazard, PlateOver, danger_of_falls, edge_measure,
        pierced_measure, pressed_measure, tube_measure, tube_stiffness,
    },
    piece::{
        Condition, Construction, Fragility, FrameFinish, FrameHolds, Medium, Outline, PaintBody,
        Pane, Piece, PieceSize,
    },
    quantity::{Area, Length, Mass},
    space::LayerSlot,
};

/// The rules and the stores that the program comes with.
struct Shipped {
    rules: HouseRules,
    catalogue: Catalogue,
}

static SHIPPED: LazyLock<Shipped> = LazyLock::new(|| Shipped {
    rules: serde_json::from_str(include_str!("../../../../demo/house-rules.json"))
        .expect("the shipped rules are rules"),
    catalogue: serde_json::from_str(include_str!("../../../../demo/catalogue.json"))
        .expect("the shipped stores are stores"),
});

/// The Standard pack of a piece, as far as other plans of it are compared with it.
#[derive(Debug, Clone, PartialEq)]
pub struct Reference {
    /// What every plan of the piece falls as: only cushions and boards differ between them.
    faller: Option<Faller>,
    /// The box's perimeter and height, standing on its opening, where a stack can be calculated.
    column: Option<Length>,
    /// Across the tube, or along a triangular one's side.
    tube: Option<Length>,
    /// How dangerous it leaves each hazard, on a dry way.
    measures: PerHazard<Measure>,
}

/// What the reference of a piece depends on.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
struct ReferenceKey {
    construction: Construction,
    size: PieceSize,
    outline: Outline,
    bearing_points: Option<u32>,
    medium: Option<Medium>,
    paint: PaintBody,
    condition: Condition,
    coated_glass: bool,
    frame_holds: Option<FrameHolds>,
    frame: FrameFinish,
    bare_border: Option<Length>,
    hardware: Option<Length>,
    weighed: Option<Mass>,
    carriage: Carriage,
}

impl ReferenceKey {
    fn of(piece: &Piece, carriage: Carriage) -> Self {
        Self {
            construction: piece.construction,
            size: piece.size,
            outline: piece.outline,
            bearing_points: piece.bearing_points,
            medium: piece.medium,
            paint: piece.paint,
            condition: piece.condition,
            coated_glass: piece.coated_glass,
            frame_holds: piece.frame_holds,
            frame: piece.frame,
            bare_border: piece.bare_border,
            hardware: piece.hardware,
            weighed: piece.weighed,
            carriage,
        }
    }
}

/// All that an order depends on.
fn order_key(members: &[Member], parting: Parting) -> Vec<u64> {
    let Parting { board, pad, fold } = parting;
    let bits = |length: Length| length.as_mm().to_bits();
    let of_one = |member: &Member| {
        let Member {
            across,
            up,
            through,
            mass,
            face,
            hardware,
            stiffness,
            folded,
            several,
        } = member;
        let kind = u64::from(*several) * 4 + u64::from(*hardware) * 2 + u64::from(*folded);
        [
            bits(*across),
            bits(*up),
            bits(*through),
            mass.as_g().to_bits(),
            stiffness.to_bits(),
            *face as u64 * 8 + kind,
        ]
    };
    [board, pad, fold]
        .map(bits)
        .into_iter()
        .chain(members.iter().flat_map(of_one))
        .collect()
}

/// All that the ways to lay pieces in tiers depend on.
fn laying_key(flats: &[Flat], keeping: Keeping) -> Vec<u64> {
    let Keeping {
        gap,
        depths_within,
        board,
    } = keeping;
    let bits = |length: Length| length.as_mm().to_bits();
    let of_one = |flat: &Flat| {
        let Flat {
            across,
            up,
            through,
            may_turn,
        } = *flat;
        [bits(across), bits(up), bits(through), u64::from(may_turn)]
    };
    [gap, depths_within, board]
        .map(bits)
        .into_iter()
        .chain(flats.iter().flat_map(of_one))
        .collect()
}

/// References, and orders and tiers of several pieces, that were worked out, kept by what they depend on.
#[derive(Debug)]
pub struct References {
    kept: Cache<ReferenceKey, Arc<Reference>>,
    /// The best order of twelve pieces takes as long as a hundred plans, and most changes of a plan leave it as it is.
    orders: Cache<Vec<u64>, Arc<Vec<PlacedPiece>>>,
    /// Tiers take longer still, and what they depend on changes as seldom.
    layings: Cache<Vec<u64>, Arc<Layings>>,
}

const KEPT: usize = 1000;
const ORDERS_KEPT: usize = 200;
const LAYINGS_KEPT: usize = 50;

impl Default for References {
    fn default() -> Self {
        Self {
            kept: Cache::new(KEPT),
            orders: Cache::new(ORDERS_KEPT),
            layings: Cache::new(LAYINGS_KEPT),
        }
    }
}

impl References {
    /// Returns the best order of several pieces; nothing for none, or for too many.
    pub(super) fn best_order(&self, members: &[Member], parting: Parting) -> Option<Arrangement> {
        let key = order_key(members, parting);
        if let Some(order) = self.orders.get(&key) {
            return Some(Arrangement::of(members, parting, &order));
        }
        let found = Arrangement::best(members, parting)?;
        self.orders.insert(key, Arc::new(found.order.clone()));
        Some(found)
    }

    /// Returns every way to lay several pieces in tiers that could be cheapest; `None` for no pieces or too many.
    pub(crate) fn layings(&self, flats: &[Flat], keeping: Keeping) -> Option<Arc<Layings>> {
        let key = laying_key(flats, keeping);
        if let Some(known) = self.layings.get(&key) {
            return Some(known);
        }
        let found = Arc::new(Layings::of(flats, keeping)?);
        self.layings.insert(key, Arc::clone(&found));
        Some(found)
    }

    /// Returns the reference of a piece that travels in a way.
    ///
    /// # Errors
    /// The [`Refusal`] with which the shipped Standard can't pack it, which is no piece that another plan
    /// packs.
    pub fn of(&self, piece: &Piece, carriage: Carriage) -> Result<Arc<Reference>, Refusal> {
        // What goes in a padded mailer is compared with its Standard pack in a box: that is what it is sent in else.
        let carriage = match carriage {
            Carriage::Padded => Carriage::Flat,
            carriage => carriage,
        };
        self.kept
            .get_or_insert_with(&ReferenceKey::of(piece, carriage), || {
                Reference::of(piece, carriage).map(Arc::new)
            })
    }
}

impl Reference {
    /// Works it out.
    fn of(piece: &Piece, carriage: Carriage) -> Result<Self, Refusal> {
        let Shipped { rules, catalogue } = &*SHIPPED;
        let piece = one_of(piece);
        let supplies = Supplies::find(&piece, rules, catalogue)?;
        let built = |carriage| {
            let mut recipe = Recipe::by(&piece, rules, carriage);
            if !supplies.has_sheet_for(&piece) {
                recipe = recipe.without(LayerSlot::Contact);
            }
            build::layers_of(&piece, &supplies, &recipe).map(|built| built.layers)
        };
        // A studio may have a larger mailer than any that is shipped: its piece is compared with a box.
        let mut layers = match built(carriage) {
            Err(_) if carriage == Carriage::Mailed => {
                built(Recipe::boxed_instead(&piece, rules).carriage)?
            }
            built => built?,
        };
        let weight = piece.weight(rules.allowances.piece_doubt);
        hands::count_both(&mut layers, weight, &rules.allowances);
        let mut reference = Self {
            faller: faller_of(&piece, carriage, &layers, weight.mass),
            column: layers
                .iter()
                .find_map(|layer| layer.column(false))
                .and_then(|column| column.perimeter()),
            tube: layers.iter().find_map(|layer| match &layer.make {
                Make::Tube(tube) => Some(tube.inside),
                _ => None,
            }),
            measures: PerHazard::default(),
        };
        let usual = Fragility::usual(&piece, carriage == Carriage::Rolled);
        reference.measures = reference.measured(
            &Packed {
                layers: &layers,
                supplies: &supplies,
                wet: false,
            },
            usual,
        );
        Ok(reference)
    }

    /// Returns how dangerous it leaves each hazard.
    #[must_use]
    pub const fn measures(&self) -> PerHazard<Measure> {
        self.measures
    }

    /// Returns how dangerous a plan of the same piece leaves each hazard, as sturdy as that piece is.
    pub(super) fn measured(&self, packed: &Packed<'_>, sturdy: Fragility) -> PerHazard<Measure> {
        let falls = self.faller.map(|faller| {
            let own = Faller {
                limit: sturdy.limit.unwrap_or(faller.limit),
                frequency: sturdy.face_frequency,
                plane_factor: sturdy.plane_factor,
                back_factor: sturdy.back_factor,
                ..faller
            };
            danger_of_falls(&own, &packed.sides(&own))
        });
        PerHazard {
            flat: falls.map_or(Measure::Unmeasured, |falls| {
                Measure::from_number(falls.flat)
            }),
            edges: match falls {
                Some(falls) => Measure::from_number(falls.edges),
                None => packed.edges(),
            },
            pressed: Measure::from_number(packed.pressed(self.tube)),
            pierced: packed.pierced(),
            stacked: self
                .column
                .map_or(Measure::Unmeasured, |perimeter| packed.stacked(perimeter)),
            damp: Measure::Of(packed.damp()),
        }
    }
}

/// One piece as its kind usually is, out of as many as there are.
fn one_of(piece: &Piece) -> Piece {
    let construction = match piece.construction {
        Construction::PanelSet => Construction::CradledPanel,
        construction => construction,
    };
    Piece {
        construction,
        pane: Pane::Two,
        limit: None,
        count: 1,
        ..piece.clone()
    }
}

/// What falls, for a piece that travels flat: its own sides, and the masses of its Standard pack.
fn faller_of(
    piece: &Piece,
    carriage: Carriage,
    layers: &[Layer],
    piece_mass: Mass,
) -> Option<Faller> {
    let fragility = Fragility::usual(piece, carriage == Carriage::Rolled);
    let limit = fragility.limit?;
    let inside: Mass = layers
        .iter()
        .take_while(|layer| !layer.is_cushion())
        .filter(|layer| layer.slot < LayerSlot::Box)
        .map(|layer| layer.weight.mass)
        .sum();
    let all: Mass = layers.iter().map(|layer| layer.weight.mass).sum();
    let outside = layers.last()?.envelope;
    Some(Faller {
        mass: piece_mass + inside,
        parcel: piece_mass + all,
        longest: outside.long_side().max(outside.through),
        across: piece.size.width,
        up: piece.size.height,
        through: piece.size.depth,
        limit,
        frequency: fragility.face_frequency,
        plane_factor: fragility.plane_factor,
        back_factor: fragility.back_factor,
    })
}

/// A plan as its hazards are measured.
pub(super) struct Packed<'a> {
    pub layers: &'a [Layer],
    pub supplies: &'a Supplies<'a>,
    /// Whether the way is wet.
    pub wet: bool,
}

impl Packed<'_> {
    /// What lies on each side, each layer that covers a side by the piece's own side.
    fn sides(&self, faller: &Faller) -> FallSides {
        let [face, across, up] = [
            faller.across * faller.up,
            faller.up * faller.through,
            faller.across * faller.through,
        ];
        let mut sides = FallSides::default();
        for layer in self.layers {
            let Some(cushioning) = layer.cushioning else {
                continue;
            };
            let lies = |on: &mut Vec<SeriesLayer>,
                        found: Option<crate::layer::CushionFace>,
                        (side, share): (Area, f64)| {
                if let Some(found) = found {
                    on.push(SeriesLayer {
                        curve: cushioning.curve,
                        // What is larger than the side still only meets the side.
                        area: found.area.map_or(side, |own| (own * share).min(side)),
                        thickness: found.thickness,
                    });
                }
            };
            // Of a block beside several pieces, one of them has as much as it is deep.
            let own_share = cushioning
                .bears_on
                .map_or(1.0, |depth| (faller.through / depth).min(1.0));
            lies(&mut sides.front, cushioning.front, (face, 1.0));
            lies(&mut sides.back, cushioning.back, (face, 1.0));
            lies(&mut sides.across, cushioning.across, (across, own_share));
            lies(&mut sides.up, cushioning.up, (up, own_share));
            let board = |on: &mut Vec<SeriesLayer>, caliper: Length| {
                if caliper > Length::ZERO {
                    on.push(SeriesLayer {
                        curve: crushing_board(),
                        area: face,
                        thickness: caliper,
                    });
                }
            };
            board(&mut sides.front, cushioning.board_before);
            board(&mut sides.back, cushioning.board_behind);
        }
        sides
    }

    /// The edges of loose sheets, or the ends of a roll.
    fn edges(&self) -> Measure {
        let found = self.layers.iter().find_map(|layer| match &layer.make {
            Make::Folio(folio) => Some(self.edge_of_sheets(folio.margin)),
            Make::Tube(tube) => {
                let cap = self.supplies.allowances().tube_cap;
                let cap = if tube.triangular { tube.wall } else { cap };
                Some(edge_measure(
                    tube.end_pad + tube.end_air,
                    cap.max(tube.wall),
                ))
            }
            _ => None,
        });
        found.map_or(Measure::Unmeasured, Measure::from_number)
    }

    fn edge_of_sheets(&self, margin: Length) -> f64 {
        let cushions = self.layers.iter().filter(|layer| layer.is_cushion());
        let (across, up) = cushions.fold((Length::ZERO, Length::ZERO), |(across, up), layer| {
            (across + layer.adds.left, up + layer.adds.top)
        });
        let boards: Length = self
            .layers
            .iter()
            .filter_map(|layer| match &layer.make {
                Make::Folio(folio) => Some(folio.caliper * 2.0),
                Make::FaceBoards(boards) => Some(boards.caliper * 2.0),
                _ => None,
            })
            .sum();
        edge_measure(margin + across.min(up), boards)
    }

    /// What lies before the face and behind, by what it takes to be pierced. A roll has no such side.
    fn pierced(&self) -> Measure {
        if self
            .layers
            .iter()
            .any(|layer| matches!(layer.make, Make::Tube(_)))
        {
            return Measure::Unmeasured;
        }
        let front: f64 = self.layers.iter().map(|layer| layer.pierce.front).sum();
        let back: f64 = self.layers.iter().map(|layer| layer.pierce.back).sum();
        Measure::from_number(pierced_measure(front, back))
    }

    /// Every flat board between the outside and the face, over what is soft; a tube by its wall.
    fn pressed(&self, reference_tube: Option<Length>) -> f64 {
        let mut soft = Length::ZERO;
        let mut plates = Vec::new();
        for layer in self.layers {
            let stiffness = match &layer.make {
                Make::WindowSpacer(spacer) => {
                    soft += spacer.stands_off;
                    continue;
                }
                // Chocks, a collar and a rim strip hold the board before the face off it.
                Make::Wrap(_) | Make::Cradle(_) | Make::FoamCollar(_) | Make::RimStrip(_) => {
                    soft += layer.adds.front;
                    continue;
                }
                Make::Mailer(mailer) => mailer.stiffness,
                Make::Sandwich(sandwich) => sandwich.stiffness,
                Make::BoughtBox(carton) => carton.stiffness,
                Make::FaceBoards(_)
                | Make::Folio(_)
                | Make::SlottedBox(_)
                | Make::CutBox(_)
                | Make::SavedBox(_)
                | Make::TravelCase(_) => {
                    let board = self.supplies.catalogue.board(&layer.material).ok();
                    board.and_then(|board| board.stiffness)
                }
                Make::Tube(tube) => {
                    let board = self.supplies.first.board.stiffness;
                    let wall = if tube.triangular {
                        board.unwrap_or(tube_stiffness(tube.wall))
                    } else {
                        tube_stiffness(tube.wall)
                    };
                    let room = self.room_around_roll(tube).unwrap_or(soft);
                    return tube_measure(reference_tube.unwrap_or(tube.inside), wall, room);
                }
                _ => {
                    let front = layer.cushioning.and_then(|cushioning| cushioning.front);
                    soft += front.map_or(Length::ZERO, |front| front.thickness);
                    continue;
                }
            };
            plates.extend(stiffness.map(|stiffness| PlateOver { stiffness, soft }));
        }
        pressed_measure(&plates)
    }

    /// What is soft or hollow around a roll in a round tube: its wrap, and what is left over.
    fn room_around_roll(&self, tube: &TubeBox) -> Option<Length> {
        let roll = self.layers.iter().find_map(|layer| match &layer.make {
            Make::Roll(roll) => Some(roll),
            _ => None,
        })?;
        let taken = roll.outer + roll.thickness + TUBE_PLAY;
        (!tube.triangular).then(|| (tube.inside - taken) / 2.0)
    }

    /// The stronger of its boxes, standing on its opening around the reference's perimeter.
    fn stacked(&self, perimeter: Length) -> Measure {
        let strongest = self
            .layers
            .iter()
            .filter_map(|layer| {
                let board = self.supplies.catalogue.board(&layer.material).ok()?;
                let column = layer.column(board.shelf.reused)?;
                let strength = compression_strength(board.edge_crush?, board.caliper, perimeter);
                // Whether it is joined hangs on the sheets at hand, not on how the piece is packed.
                Some(strength * column.share)
            })
            .max();
        strongest.map_or(Measure::Unmeasured, |strength| {
            Measure::from_number(strength.as_n().recip())
        })
    }

    fn damp(&self) -> f64 {
        Damp {
            bagged: self.layers.iter().any(|layer| layer.slot == LayerSlot::Bag),
            seams_taped: self.supplies.rules.schools.seal != SealRule::H,
            wet: self.wet,
        }
        .measure()
    }
}

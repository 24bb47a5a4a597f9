//! Several pieces in one box: each in its own layers, then laid together, cushioned and boxed as one.

use rust_decimal::Decimal;
use serde::Serialize;

use super::{
    build,
    recipe::{Recipe, SlotState},
    reference::References,
};
use crate::{
    Refusal,
    arrange::{Arrangement, BrokenRule, Member, MemberFace, Pair, Parting, PlacedPiece},
    house::{Carriage, HouseRules},
    layer::{Layer, Make, Supplies, kind_of, laid_together},
    material::Catalogue,
    part::Part,
    piece::{Construction, Cure, Outline, Piece, PieceSize},
    quantity::{Length, Mass, Minutes, Money, Weight},
    space::{Addition, Envelope, LayerSlot},
};

/// What the first piece is named by, where others are named by their keys.
pub const FIRST: &str = "first";
/// A piece that is thicker with its layers is wrapped by itself, whatever pad others share.
const THIN: Length = Length::mm(40.0);

/// A piece with what its own layers follow.
#[derive(Debug, Clone)]
pub struct Among {
    /// What it is named by: [`FIRST`], or its key among the others.
    pub key: String,
    /// What people call it.
    pub title: String,
    /// The piece.
    pub piece: Piece,
    /// What its own layers follow.
    pub rules: HouseRules,
}

/// Several pieces that travel together.
#[derive(Debug, Clone)]
pub struct Together {
    /// At least two; the first is the one that the shipment began with.
    pub pieces: Vec<Among>,
    /// An order that was chosen by hand, from the front; the best where none was.
    pub order: Option<Vec<PlacedPiece>>,
    /// Whether thin framed pieces lie in the folds of one pad, in place of a wrap each.
    pub folded: bool,
}

/// Several pieces as they lie in one box.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Stack {
    /// The pieces, the first of the shipment first.
    pub pieces: Vec<StackPiece>,
    /// How they lie, from the front of the box to its back.
    pub order: Vec<StackPlace>,
    /// Whether somebody chose that order by hand.
    pub by_hand: bool,
    /// Of the whole stack, with what parts it.
    #[serde(rename = "thickness_mm")]
    pub thickness: Length,
    /// How far its centre of mass lies from the back, which it rests on.
    #[serde(rename = "centre_mm")]
    pub centre: Length,
    /// What lies between every two.
    pub pairs: Vec<Pair>,
    /// Rules that this order breaks.
    pub broken: Vec<BrokenRule>,
    /// What is cut and taken to lay them together, without what is each piece's own.
    pub parts: Vec<Part>,
    /// To lay them together, without what each piece takes by itself.
    pub minutes: Minutes,
}

/// A piece of a stack.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StackPiece {
    /// What it is named by: `first`, or its key among the others.
    pub key: String,
    /// What people call it.
    pub title: String,
    /// Measured.
    pub size: PieceSize,
    /// What it weighs, bare.
    pub weight: Weight,
    /// Its own layers, from the art outward.
    pub layers: Vec<Layer>,
    /// How each of its own layers stands.
    pub slots: Vec<SlotState>,
    /// What it fills with them.
    pub wrapped: Envelope,
    /// Whether it lies in a fold of the shared pad.
    pub folded: bool,
    /// That it would arrive damaged in this parcel if it lay in it alone, as a fraction.
    pub probability: f64,
}

/// Where a piece lies.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StackPlace {
    /// Which piece.
    pub key: String,
    /// Whether its face looks to the front of the box.
    pub faces_front: bool,
    /// Whether foam lies outside it, over hardware that looks out of the stack.
    pub padded_outside: bool,
    /// Its front, from the front of the stack.
    #[serde(rename = "from_front_mm")]
    pub from_front: Length,
}

/// One piece while the plan is made: its supplies, and which layers it has.
pub(super) struct Own<'a> {
    pub among: &'a Among,
    pub supplies: Supplies<'a>,
    pub recipe: Recipe,
    pub layers: Vec<Layer>,
    pub folded: bool,
    pub faces_front: bool,
}

impl<'a> Own<'a> {
    fn of(among: &'a Among, catalogue: &'a Catalogue, folds: bool) -> Result<Self, Refusal> {
        let piece = &among.piece;
        let supplies = Supplies::find(piece, &among.rules, catalogue)?;
        let recipe = Recipe::by(piece, &among.rules, boxed_carriage(piece));
        let recipe = if supplies.has_sheet_for(piece) {
            recipe
        } else {
            recipe.without(LayerSlot::Contact)
        };
        let recipe = recipe.only(|slot| slot < LayerSlot::Stack);
        let bare = recipe.clone().only(|slot| !kind_of(slot).nature.wraps);
        if folds && may_fold(piece) {
            let layers = build::layers_of(piece, &supplies, &bare)?.layers;
            if filled(piece, &layers).through <= THIN {
                return Ok(Self {
                    among,
                    supplies,
                    recipe: bare,
                    layers,
                    folded: true,
                    faces_front: true,
                });
            }
        }
        let layers = build::layers_of(piece, &supplies, &recipe)?.layers;
        Ok(Self {
            among,
            supplies,
            recipe,
            layers,
            folded: false,
            faces_front: true,
        })
    }

    fn weight(&self) -> Weight {
        self.among
            .piece
            .weight(self.among.rules.allowances.piece_doubt)
    }

    /// With its own layers.
    pub(super) fn mass(&self) -> Mass {
        self.weight().mass + self.layers.iter().map(|layer| layer.weight.mass).sum()
    }

    fn member(&self) -> Member {
        let Envelope {
            across,
            up,
            through,
        } = filled(&self.among.piece, &self.layers);
        let piece = &self.among.piece;
        Member {
            across,
            up,
            through,
            mass: self.mass(),
            face: face_of(piece.construction),
            hardware: piece.hardware.is_some(),
            stiffness: stiffness_of(piece.construction),
            folded: self.folded,
        }
    }

    /// The column as this piece sees it: its own layers, and those around all. One that faces the back has the sides of those
    /// the other way round.
    pub(super) fn column(&self, around: &[Layer]) -> Vec<Layer> {
        let outer = around.iter().map(|layer| {
            if self.faces_front {
                layer.clone()
            } else {
                layer.turned()
            }
        });
        self.layers.iter().cloned().chain(outer).collect()
    }
}

/// The stack while the plan is made.
pub(super) struct Stacked<'a> {
    pub own: Vec<Own<'a>>,
    pub arrangement: Arrangement,
    pub by_hand: bool,
    /// The layer of the column that it is.
    pub layer: Layer,
    own_parts: Vec<Part>,
    own_minutes: Minutes,
}

impl<'a> Stacked<'a> {
    /// Lays several pieces together, each in its own layers.
    ///
    /// # Errors
    /// A [`Refusal`] for a material that some layer needs and the shelf does not hold, named by its piece.
    pub(super) fn of(
        together: &'a Together,
        supplies: &Supplies<'a>,
        references: &References,
    ) -> Result<Self, Refusal> {
        let mut own = Vec::with_capacity(together.pieces.len());
        for among in &together.pieces {
            let made = Own::of(among, supplies.catalogue, together.folded);
            own.push(made.map_err(|refusal| among.named(refusal))?);
        }
        let members: Vec<Member> = own.iter().map(Own::member).collect();
        let allowances = supplies.allowances();
        let parting = Parting {
            board: supplies
                .board("choices.folio_board", &supplies.rules.materials.folio_board)?
                .caliper,
            pad: allowances.hardware_pad,
            fold: supplies.cushion_wrap.loaded_thickness,
        };
        let by_hand = together
            .order
            .as_deref()
            .filter(|order| names_each(order, own.len()));
        let arrangement = match by_hand {
            Some(order) => Arrangement::of(&members, parting, order),
            None => references.best_order(&members, parting).ok_or_else(|| {
                Refusal::new(
                    "others",
                    "a box holds twelve different pieces at most: part the shipment",
                )
            })?,
        };
        for placed in &arrangement.order {
            own[placed.piece].faces_front = placed.faces_front;
        }
        let depth = own
            .iter()
            .map(|own| bearing_depth(&own.among.piece, &own.layers))
            .sum();
        let mut layer = laid_together(
            supplies,
            &members,
            &arrangement,
            &shaped(&own),
            (parting, depth),
        )?;
        let (own_parts, own_minutes) = (layer.parts.clone(), layer.minutes);
        layer.adds = adds_to_first(&own, &members, &arrangement, layer.envelope);
        for one in own.iter().flat_map(|own| &own.layers) {
            layer.parts.extend(one.parts.iter().cloned());
            layer.weight = layer.weight + one.weight;
            layer.cost = sum(&layer.cost, &one.cost);
            layer.minutes += one.minutes;
            layer.plastic += one.plastic;
            layer.used_again = layer.used_again + one.used_again;
            layer.tape += one.tape;
            for caution in &one.cautions {
                if !layer.cautions.contains(caution) {
                    layer.cautions.push(caution);
                }
            }
        }
        Ok(Self {
            own,
            arrangement,
            by_hand: by_hand.is_some(),
            layer,
            own_parts,
            own_minutes,
        })
    }

    /// Of all pieces, bare.
    pub(super) fn weight(&self) -> Weight {
        self.own.iter().map(Own::weight).sum()
    }

    /// Of all pieces with their own layers, and what parts them.
    pub(super) fn mass(&self) -> Mass {
        self.weight().mass + self.layer.weight.mass
    }

    /// The stack as it is told, with the chance of each piece.
    pub(super) fn told(&self, chances: &[f64]) -> Stack {
        let pieces = self
            .own
            .iter()
            .zip(chances)
            .map(|(own, chance)| StackPiece {
                key: own.among.key.clone(),
                title: own.among.title.clone(),
                size: own.among.piece.size,
                weight: own.weight(),
                slots: own
                    .recipe
                    .states(&own.among.piece, &own.among.rules, &own.layers)
                    .into_iter()
                    .filter(|state| state.slot < LayerSlot::Stack)
                    .collect(),
                wrapped: filled(&own.among.piece, &own.layers),
                layers: own.layers.clone(),
                folded: own.folded,
                probability: *chance,
            });
        let arrangement = &self.arrangement;
        Stack {
            pieces: pieces.collect(),
            order: self.places(),
            by_hand: self.by_hand,
            thickness: arrangement.thickness,
            centre: arrangement.centre,
            pairs: arrangement.pairs.clone(),
            broken: arrangement.broken.clone(),
            parts: self.own_parts.clone(),
            minutes: self.own_minutes,
        }
    }

    fn places(&self) -> Vec<StackPlace> {
        let arrangement = &self.arrangement;
        let through = |placed: &PlacedPiece| {
            let own = &self.own[placed.piece];
            filled(&own.among.piece, &own.layers).through
        };
        let within: Length = arrangement.order.iter().map(through).sum::<Length>()
            + arrangement.pairs.iter().map(|pair| pair.thickness).sum();
        let mut at = front_end(&self.own, arrangement, arrangement.thickness - within);
        let mut pairs = arrangement.pairs.iter();
        let last = arrangement.order.len() - 1;
        arrangement
            .order
            .iter()
            .enumerate()
            .map(|(place, placed)| {
                let hard = self.own[placed.piece].among.piece.hardware.is_some();
                // The back looks out at the front where the face looks to the back, and the other way round.
                let out = place == 0 && !placed.faces_front || place == last && placed.faces_front;
                let place = StackPlace {
                    key: self.own[placed.piece].among.key.clone(),
                    faces_front: placed.faces_front,
                    padded_outside: hard && out,
                    from_front: at,
                };
                at += through(placed) + pairs.next().map_or(Length::ZERO, |pair| pair.thickness);
                place
            })
            .collect()
    }
}

impl Among {
    /// Names the field of a refusal about it: that of the first piece is the shipment's own.
    pub(crate) fn named(&self, refusal: Refusal) -> Refusal {
        if self.key == FIRST {
            return refusal;
        }
        Refusal::new(
            format!("others.{}.{}", self.key, refusal.field),
            refusal.message,
        )
    }
}

impl Together {
    /// Returns when the last of them has cured; `None` if all are ready on the day they are finished.
    pub(super) fn cure(&self) -> Option<Cure> {
        let cures = self.pieces.iter().filter_map(|among| {
            let cure = among.piece.cure()?;
            let needs = format!("{} for \u{201c}{}\u{201d}", cure.needs, among.title);
            Some(Cure { needs, ..cure })
        });
        // One of which the day is not known counts as the last.
        cures.max_by_key(|cure| (cure.cured_on.is_none(), cure.cured_on))
    }

    /// Returns a refusal where a piece would have to travel otherwise than flat in a box.
    pub(super) fn refused(&self) -> Vec<Refusal> {
        let chosen = self
            .pieces
            .first()
            .and_then(|first| first.rules.shipment.carriage);
        let alone = matches!(
            chosen,
            Some(Carriage::Mailed | Carriage::Padded | Carriage::Rolled)
        );
        alone
            .then(|| {
                Refusal::new(
                    "choices.carriage",
                    "several pieces travel flat in one box: send what goes in a tube or a mailer by itself",
                )
            })
            .into_iter()
            .collect()
    }
}

/// How a piece travels among others: flat, loose sheets between boards.
pub(crate) const fn boxed_carriage(piece: &Piece) -> Carriage {
    if piece.construction.is_loose() {
        Carriage::Folio
    } else {
        Carriage::Flat
    }
}

/// A thin frame or panel without hardware lies in a fold.
fn may_fold(piece: &Piece) -> bool {
    let stiff = piece.construction.is_framed()
        || matches!(
            piece.construction,
            Construction::CradledPanel | Construction::RigidBoard
        );
    stiff && piece.hardware.is_none() && piece.count == 1 && piece.outline == Outline::Rectangle
}

const fn face_of(construction: Construction) -> MemberFace {
    if construction.is_loose() {
        MemberFace::Stiff
    } else {
        match construction {
            Construction::FramedUnderGlass
            | Construction::FramedUnderAcrylic
            | Construction::Mirror => MemberFace::Glazed,
            _ => MemberFace::Bare,
        }
    }
}

/// Of what is not glazed, the stiffest lies outside; only the order of these counts. Source: house rule.
const fn stiffness_of(construction: Construction) -> f64 {
    match construction {
        Construction::CradledPanel | Construction::PanelSet => 4.0,
        Construction::FramedUnglazed
        | Construction::FramedUnderGlass
        | Construction::FramedUnderAcrylic
        | Construction::Mirror => 3.0,
        Construction::RigidBoard => 2.0,
        Construction::StretchedCanvas => 1.0,
        Construction::LoosePaper | Construction::LooseCanvas => 0.0,
    }
}

pub(super) fn filled(piece: &Piece, layers: &[Layer]) -> Envelope {
    layers.last().map_or(
        Envelope {
            across: piece.size.width,
            up: piece.size.height,
            through: piece.size.depth,
        },
        |layer| layer.envelope,
    )
}

/// What a piece, or a bundle of like ones, bears on.
fn bearing_depth(piece: &Piece, layers: &[Layer]) -> Length {
    let deep = layers.iter().find_map(|layer| match &layer.make {
        Make::Bundle(bundle) => Some(f64::from(bundle.deep)),
        _ => None,
    });
    piece.size.depth * deep.unwrap_or(1.0)
}

/// The pieces that are no rectangles and that neither a cradle board nor foam around the rim holds, each with at how many points it
/// is chocked.
fn shaped(own: &[Own<'_>]) -> Vec<(usize, u32)> {
    let shaped = own.iter().enumerate().filter(|(_, own)| {
        let held = own
            .layers
            .iter()
            .any(|layer| matches!(layer.make, Make::Cradle(_) | Make::RimStrip(_)));
        own.among.piece.is_shaped() && !held
    });
    shaped
        .map(|(at, own)| (at, own.among.piece.bearing_points()))
        .collect()
}

fn names_each(order: &[PlacedPiece], count: usize) -> bool {
    let mut named: Vec<usize> = order.iter().map(|placed| placed.piece).collect();
    named.sort_unstable();
    named.into_iter().eq(0..count)
}

/// What of the pads outside both ends lies before the front.
fn front_end(own: &[Own<'_>], arrangement: &Arrangement, ends: Length) -> Length {
    let order = &arrangement.order;
    let (Some(front), Some(back)) = (order.first(), order.last()) else {
        return Length::ZERO;
    };
    // A pad lies over hardware that looks outward, a fold over what is folded; where both ends have the same they share alike.
    let hard = |placed: &PlacedPiece, front: bool| {
        own[placed.piece].among.piece.hardware.is_some() && placed.faces_front != front
    };
    let folded = |placed: &PlacedPiece| own[placed.piece].folded;
    let weighs = |hard, folded| u8::from(hard) + u8::from(folded);
    match (
        weighs(hard(front, true), folded(front)),
        weighs(hard(back, false), folded(back)),
    ) {
        (0, _) => Length::ZERO,
        (_, 0) => ends,
        _ => ends / 2.0,
    }
}

/// What the stack adds to the first piece on each side.
fn adds_to_first(
    own: &[Own<'_>],
    members: &[Member],
    arrangement: &Arrangement,
    stack: Envelope,
) -> Addition {
    let size = own[0].among.piece.size;
    let within: Length = members.iter().map(|member| member.through).sum::<Length>()
        + arrangement.pairs.iter().map(|pair| pair.thickness).sum();
    let mut front = front_end(own, arrangement, arrangement.thickness - within);
    for (at, placed) in arrangement.order.iter().enumerate() {
        if placed.piece == 0 {
            let inner = own[0]
                .layers
                .iter()
                .fold(Addition::default(), |sum, layer| sum + layer.adds);
            front += if placed.faces_front {
                inner.front
            } else {
                inner.back
            };
            break;
        }
        front += members[placed.piece].through
            + arrangement
                .pairs
                .get(at)
                .map_or(Length::ZERO, |pair| pair.thickness);
    }
    let behind = stack.through - size.depth - front;
    Addition::new(
        (stack.across - size.width) / 2.0,
        (stack.up - size.height) / 2.0,
        front,
        behind,
    )
}

fn sum(one: &Money, other: &Money) -> Money {
    let amount: Decimal = one.amount + other.amount;
    Money {
        amount,
        ..one.clone()
    }
}

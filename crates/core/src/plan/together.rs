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
    arrange::{
        Arrangement, BrokenRule, Flat, Keeping, Member, MemberFace, Pair, Parting, PlacedPiece,
        Tier, Tiers,
    },
    house::{Carriage, HouseRules},
    layer::{self, Layer, Make, Supplies, kind_of, laid_together},
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

/// How several pieces lie in a box.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Laid {
    /// As the rule says: one above the other in the best order, until something else is known to be cheaper.
    ByRule,
    /// These side by side on each board, in the best order of boards.
    Boards(Vec<Vec<usize>>),
    /// By hand, from the front.
    ByHand(Vec<LaidBoard>),
}

impl Laid {
    /// Tells whether a piece lies beside others: then it has a wrap of its own, whatever pad others share.
    fn is_beside_others(&self, piece: usize) -> bool {
        let beside = |pieces: &Vec<usize>| pieces.len() > 1 && pieces.contains(&piece);
        match self {
            Self::ByRule => false,
            Self::Boards(boards) => boards.iter().any(beside),
            Self::ByHand(boards) => boards.iter().any(|board| beside(&board.pieces)),
        }
    }
}

/// What lies on one board, by hand.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct LaidBoard {
    /// Which pieces, counted from 0, the first of the shipment first.
    pub pieces: Vec<usize>,
    /// Whether their faces look to the front of the box.
    pub faces_front: bool,
}

/// Several pieces that travel together.
#[derive(Debug, Clone)]
pub struct Together {
    /// At least two; the first is the one that the shipment began with.
    pub pieces: Vec<Among>,
    /// How they lie.
    pub laid: Laid,
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
    /// What lies on each board, from the front of the box to its back.
    pub tiers: Vec<StackTier>,
    /// Whether somebody chose that order by hand.
    pub by_hand: bool,
    /// Of the whole stack, with what parts it.
    #[serde(rename = "thickness_mm")]
    pub thickness: Length,
    /// How far its centre of mass lies from the back, which it rests on.
    #[serde(rename = "centre_mm")]
    pub centre: Length,
    /// What lies between every two tiers.
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

/// One large piece, or several smaller ones side by side, on a board.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StackTier {
    /// What lies on it.
    pub pieces: Vec<TierPiece>,
    /// Of what lies on it, with the gaps between.
    #[serde(rename = "across_mm")]
    pub across: Length,
    /// Of what lies on it, with the gaps between.
    #[serde(rename = "up_mm")]
    pub up: Length,
    /// Of the thickest.
    #[serde(rename = "through_mm")]
    pub through: Length,
    /// Whether their faces look to the front of the box.
    pub faces_front: bool,
    /// Its front, from the front of the stack.
    #[serde(rename = "from_front_mm")]
    pub from_front: Length,
}

/// Where a piece lies among those on its board, in the middle of the stack.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TierPiece {
    /// Which piece.
    pub key: String,
    /// Its left edge, from the left edge of the tier.
    #[serde(rename = "left_mm")]
    pub left: Length,
    /// Its lower edge, from the lower edge of the tier.
    #[serde(rename = "below_mm")]
    pub below: Length,
    /// Whether it lies a quarter turn round.
    pub turned: bool,
}

/// One piece while the plan is made: its supplies, and which layers it has.
pub(super) struct Own<'a> {
    pub among: &'a Among,
    pub supplies: Supplies<'a>,
    pub recipe: Recipe,
    pub layers: Vec<Layer>,
    pub folded: bool,
    pub faces_front: bool,
    /// Whether it lies a quarter turn round.
    pub turned: bool,
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
                    turned: false,
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
            turned: false,
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
            several: false,
        }
    }

    /// The column as this piece sees it: its own layers, and those around all. One that faces the back has the sides of those
    /// the other way round, and one that lies a quarter turn round has what is beside it above.
    pub(super) fn column(&self, around: &[Layer]) -> Vec<Layer> {
        let outer = around.iter().map(|layer| {
            let seen = if self.faces_front {
                layer.clone()
            } else {
                layer.turned()
            };
            if self.turned { seen.quartered() } else { seen }
        });
        self.layers.iter().cloned().chain(outer).collect()
    }
}

/// The stack while the plan is made.
pub(super) struct Stacked<'a> {
    pub own: Vec<Own<'a>>,
    /// What lies on each board; the arrangement counts these.
    tiers: Vec<Tier>,
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
        for (at, among) in together.pieces.iter().enumerate() {
            let folds = together.folded && !together.laid.is_beside_others(at);
            let made = Own::of(among, supplies.catalogue, folds);
            own.push(made.map_err(|refusal| among.named(refusal))?);
        }
        let pieces: Vec<Member> = own.iter().map(Own::member).collect();
        let parting = parting(supplies)?;
        let keeping = keeping(supplies.rules, parting);
        let flats: Vec<Flat> = own
            .iter()
            .zip(&pieces)
            .map(|(own, member)| flat_of(own.among, member.envelope()))
            .collect();
        let hand = match &together.laid {
            Laid::ByHand(boards) => {
                let groups: Vec<Vec<usize>> =
                    boards.iter().map(|board| board.pieces.clone()).collect();
                let tiers = Tiers::by_hand(&flats, keeping, &groups);
                tiers.map(|tiers| (tiers, Some(boards)))
            }
            Laid::Boards(groups) => {
                Tiers::by_hand(&flats, keeping, groups).map(|tiers| (tiers, None))
            }
            Laid::ByRule => None,
        };
        let too_many = || {
            Refusal::new(
                "others",
                "a box holds at most twelve different pieces: split the shipment",
            )
        };
        let (Tiers { tiers, .. }, by_hand) = match hand {
            Some(laid) => laid,
            None => (Tiers::tower(&flats, keeping).ok_or_else(too_many)?, None),
        };
        let members: Vec<Member> = tiers.iter().map(|tier| as_one(tier, &pieces)).collect();
        let mut arrangement = match by_hand {
            Some(boards) => {
                let order: Vec<PlacedPiece> = boards
                    .iter()
                    .enumerate()
                    .map(|(piece, board)| PlacedPiece {
                        piece,
                        faces_front: board.faces_front,
                    })
                    .collect();
                Arrangement::of(&members, parting, &order)
            }
            None => references
                .best_order(&members, parting)
                .ok_or_else(too_many)?,
        };
        arrangement.mind_depths(&tiers, &pieces, keeping);
        for placed in &arrangement.order {
            for on in &tiers[placed.piece].pieces {
                own[on.piece].faces_front = placed.faces_front;
                own[on.piece].turned = on.turned;
            }
        }
        let depth = tiers
            .iter()
            .map(|tier| {
                let depths = tier.pieces.iter().map(|on| {
                    let own = &own[on.piece];
                    bearing_depth(&own.among.piece, &own.layers)
                });
                depths.max().unwrap_or(Length::ZERO)
            })
            .sum();
        let laid = layer::Laid {
            tiers: &tiers,
            members: &members,
            pieces: &pieces,
            arrangement: &arrangement,
        };
        let mut layer = laid_together(supplies, &laid, &shaped(&own), (parting, depth))?;
        let (own_parts, own_minutes) = (layer.parts.clone(), layer.minutes);
        layer.adds = adds_to_first(&own, (&tiers, &members), &arrangement, layer.envelope);
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
            tiers,
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
            tiers: self.tiers_told(),
            by_hand: self.by_hand,
            thickness: arrangement.thickness,
            centre: arrangement.centre,
            pairs: arrangement.pairs.clone(),
            broken: arrangement.broken.clone(),
            parts: self.own_parts.clone(),
            minutes: self.own_minutes,
        }
    }

    /// Each tier from the front, with where it begins.
    fn lying(&self) -> Vec<(&PlacedPiece, &Tier, Length)> {
        let arrangement = &self.arrangement;
        let through = |placed: &PlacedPiece| self.tiers[placed.piece].through;
        let within: Length = arrangement.order.iter().map(through).sum::<Length>()
            + arrangement.pairs.iter().map(|pair| pair.thickness).sum();
        let ends = Ends::of(&self.own, &self.tiers, arrangement);
        let mut at = ends.front(arrangement.thickness - within);
        let mut pairs = arrangement.pairs.iter();
        let mut found = Vec::with_capacity(arrangement.order.len());
        for placed in &arrangement.order {
            found.push((placed, &self.tiers[placed.piece], at));
            at += through(placed) + pairs.next().map_or(Length::ZERO, |pair| pair.thickness);
        }
        found
    }

    fn tiers_told(&self) -> Vec<StackTier> {
        let key = |piece: usize| self.own[piece].among.key.clone();
        self.lying()
            .into_iter()
            .map(|(placed, tier, from_front)| StackTier {
                pieces: tier
                    .pieces
                    .iter()
                    .map(|on| TierPiece {
                        key: key(on.piece),
                        left: on.left,
                        below: on.below,
                        turned: on.turned,
                    })
                    .collect(),
                across: tier.across,
                up: tier.up,
                through: tier.through,
                faces_front: placed.faces_front,
                from_front,
            })
            .collect()
    }

    fn places(&self) -> Vec<StackPlace> {
        let last = self.arrangement.order.len() - 1;
        self.lying()
            .into_iter()
            .enumerate()
            .flat_map(|(place, (placed, tier, from_front))| {
                // The back looks out at the front where the face looks to the back, and the other way round.
                let out = place == 0 && !placed.faces_front || place == last && placed.faces_front;
                tier.pieces.iter().map(move |on| {
                    let piece = &self.own[on.piece].among;
                    StackPlace {
                        key: piece.key.clone(),
                        faces_front: placed.faces_front,
                        padded_outside: piece.piece.hardware.is_some() && out,
                        from_front,
                    }
                })
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
    /// Returns its pieces as they could lie beside others, wrapped as in a stack.
    pub(crate) fn flats(&self, stack: &Stack) -> Vec<Flat> {
        let each = self.pieces.iter().zip(&stack.pieces);
        each.map(|(among, told)| flat_of(among, told.wrapped))
            .collect()
    }

    /// Returns what they keep to on one board; `None` where the board between them is no more on the shelf.
    pub(crate) fn keeping(&self, rules: &HouseRules, catalogue: &Catalogue) -> Option<Keeping> {
        let first = self.pieces.first()?;
        let supplies = Supplies::find(&first.piece, rules, catalogue).ok()?;
        Some(keeping(rules, parting(&supplies).ok()?))
    }

    /// Returns them as one set of like pieces, where all are alike and nobody laid them by hand.
    pub(crate) fn as_set(&self) -> Option<Piece> {
        let first = &self.pieces.first()?.piece;
        // What each is worth makes none of them another piece.
        let alike = |among: &Among| {
            let priced = Piece {
                value: first.value,
                ..among.piece.clone()
            };
            priced == *first
        };
        let set = self.laid == Laid::ByRule
            && !self.folded
            && first.count == 1
            && !first.certificate
            && self.pieces.iter().all(alike);
        set.then(|| Piece {
            count: u32::try_from(self.pieces.len()).unwrap_or(u32::MAX),
            value: self.pieces.iter().map(|among| among.piece.value).sum(),
            ..first.clone()
        })
    }

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
                    "several pieces travel flat in one box: send tubes and mailers separately",
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

/// How much of what lies outside both ends each of them has: a pad over hardware that looks outward, a fold over what is folded, a board
/// over several.
struct Ends {
    front: u8,
    back: u8,
}

impl Ends {
    fn of(own: &[Own<'_>], tiers: &[Tier], arrangement: &Arrangement) -> Self {
        let weighs = |placed: Option<&PlacedPiece>, front: bool| {
            let Some(placed) = placed else { return 0 };
            let tier = &tiers[placed.piece];
            let any = |is: &dyn Fn(&Own<'_>) -> bool| {
                u8::from(tier.pieces.iter().any(|on| is(&own[on.piece])))
            };
            let outward = placed.faces_front != front;
            any(&|own| outward && own.among.piece.hardware.is_some())
                + any(&|own| own.folded)
                + u8::from(tier.pieces.len() > 1)
        };
        Self {
            front: weighs(arrangement.order.first(), true),
            back: weighs(arrangement.order.last(), false),
        }
    }

    /// What lies before the front, of all that lies outside both; where both have something they share alike.
    fn front(&self, outside: Length) -> Length {
        match (self.front, self.back) {
            (0, _) => Length::ZERO,
            (_, 0) => outside,
            _ => outside / 2.0,
        }
    }
}

/// What the stack adds to the first piece on each side; it lies in the middle, or where it lies among those on its board.
fn adds_to_first(
    own: &[Own<'_>],
    (tiers, members): (&[Tier], &[Member]),
    arrangement: &Arrangement,
    stack: Envelope,
) -> Addition {
    let size = own[0].among.piece.size;
    let inner = own[0]
        .layers
        .iter()
        .fold(Addition::default(), |sum, layer| sum + layer.adds);
    let within: Length = members.iter().map(|member| member.through).sum::<Length>()
        + arrangement.pairs.iter().map(|pair| pair.thickness).sum();
    let ends = Ends::of(own, tiers, arrangement);
    let mut front = ends.front(arrangement.thickness - within);
    let mut beside = [
        (stack.across - size.width) / 2.0,
        (stack.up - size.height) / 2.0,
    ];
    for (at, placed) in arrangement.order.iter().enumerate() {
        let tier = &tiers[placed.piece];
        if let Some(on) = tier.pieces.iter().find(|on| on.piece == 0) {
            front += if placed.faces_front {
                inner.front
            } else {
                inner.back
            };
            if tier.pieces.len() > 1 {
                beside = [
                    (stack.across - tier.across) / 2.0 + on.left + inner.left,
                    (stack.up - tier.up) / 2.0 + on.below + inner.bottom,
                ];
            }
            break;
        }
        front += members[placed.piece].through
            + arrangement
                .pairs
                .get(at)
                .map_or(Length::ZERO, |pair| pair.thickness);
    }
    let [left, bottom] = beside;
    Addition {
        left,
        right: stack.across - size.width - left,
        bottom,
        top: stack.up - size.height - bottom,
        front,
        back: stack.through - size.depth - front,
    }
}

/// What parts pieces.
fn parting(supplies: &Supplies<'_>) -> Result<Parting, Refusal> {
    Ok(Parting {
        board: supplies
            .board("choices.folio_board", &supplies.rules.materials.folio_board)?
            .caliper,
        pad: supplies.allowances().hardware_pad,
        fold: supplies.cushion_wrap.loaded_thickness,
    })
}

/// What pieces on one board keep to.
const fn keeping(rules: &HouseRules, parting: Parting) -> Keeping {
    Keeping {
        gap: rules.allowances.tier_gap,
        depths_within: rules.allowances.tier_depths,
        board: parting.board,
    }
}

/// A piece as it could lie beside others. What lies loose on a face would slide over it a quarter turn round; and the piece with which the
/// shipment began stays upright, because everything else is told from it.
fn flat_of(among: &Among, wrapped: Envelope) -> Flat {
    Flat {
        across: wrapped.across,
        up: wrapped.up,
        through: wrapped.through,
        may_turn: among.key != FIRST && !among.piece.is_friable() && !among.piece.needs_spacer(),
    }
}

/// What lies on one board as one: its faces look one way, and what the frailest needs all get.
fn as_one(tier: &Tier, pieces: &[Member]) -> Member {
    let on = || tier.pieces.iter().map(|on| &pieces[on.piece]);
    if let [alone] = tier.pieces.as_slice() {
        return Member {
            across: tier.across,
            up: tier.up,
            ..pieces[alone.piece].clone()
        };
    }
    let has = |face| on().any(|member| member.face == face);
    let face = if has(MemberFace::Glazed) {
        MemberFace::Glazed
    } else if has(MemberFace::Bare) {
        MemberFace::Bare
    } else {
        MemberFace::Stiff
    };
    Member {
        across: tier.across,
        up: tier.up,
        through: tier.through,
        mass: on().map(|member| member.mass).sum(),
        face,
        hardware: on().any(|member| member.hardware),
        stiffness: on()
            .map(|member| member.stiffness)
            .fold(f64::INFINITY, f64::min),
        folded: false,
        several: true,
    }
}

fn sum(one: &Money, other: &Money) -> Money {
    let amount: Decimal = one.amount + other.amount;
    Money {
        amount,
        ..one.clone()
    }
}

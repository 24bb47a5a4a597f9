//! A plan: what a piece, the house rules and the catalogue give.

mod build;
mod change;
mod column;
mod detail;
mod finding;
mod findings;
mod hands;
mod odds;
mod other_boxes;
mod packed;
mod recipe;
mod reference;
mod strength;
mod survival;
mod tally;
mod together;
mod unpriced;
mod wrapped;

pub use crate::layer::{Standing, standing};
pub use change::Change;
pub use detail::Detail;
pub use finding::{Finding, FindingAbout, FindingLevel, Remedy};
pub(crate) use findings::ODDS_PAST_ACCEPTED;
pub(crate) use hands::wants_two;
pub(crate) use odds::travels;
pub use odds::{HazardOdds, Odds, OneIn};
pub(crate) use other_boxes::OtherBox;
pub(crate) use recipe::goes_padded;
pub use recipe::{Recipe, SlotState, carriage_of};
pub use reference::{Reference, References};
pub use strength::{CarriedBy, CarriedHow, Strength};
pub use survival::{
    FaceCushion, FallCase, FallReport, PadAnswer, PressReport, StackReport, Survival,
};
pub use tally::Tally;
pub use together::{
    Among, FIRST, Laid, LaidBoard, Stack, StackPiece, StackPlace, StackTier, TierPiece, Together,
};
pub use unpriced::UnpricedMaterial;
pub use wrapped::{BlankSize, WrappedPiece};

use serde::Serialize;

use build::Built;
use column::Column;
use packed::Packed;
pub(crate) use strength::STRONGER as STRONGER_BOARD;
use together::Stacked;
pub(crate) use together::boxed_carriage;

use crate::{
    Refusal,
    container::Carton,
    enclosure::Enclosed,
    house::{Beginning, Carriage, CornerStyle, HouseRules, Schools},
    layer::{Layer, Make, Supplies},
    material::{Catalogue, MaterialId, Touch},
    piece::{Cure, Piece, PieceSize},
    quantity::{Telling, Weight},
    space::LayerSlot,
};

/// How a piece is protected and boxed, every number traceable to its layer.
///
/// It depends on nothing but the piece, the rules and the catalogue: the same three give the same bytes.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Plan {
    /// The version of the house rules that it followed.
    pub rules_version: u32,
    /// The school that it followed in each question.
    pub schools: Schools,
    /// How the piece travels.
    pub carriage: Carriage,
    /// The piece, measured.
    pub size: PieceSize,
    /// What the piece weighs: as the scale read it, or estimated from its make.
    pub piece_weight: Weight,
    /// When its paint has cured; absent when nothing has to.
    pub cure: Option<Cure>,
    /// Several pieces as they lie together, each with its own layers; nothing for one piece or a set of like ones.
    pub stack: Option<Stack>,
    /// From the art outward; the last is the box. Of several pieces, those around all of them.
    pub layers: Vec<Layer>,
    /// How every layer stands that there is, or could be.
    pub slots: Vec<SlotState>,
    /// What the wrapped piece measures, where it was measured.
    pub wrapped: Option<WrappedPiece>,
    /// The sums.
    pub tally: Tally,
    /// Materials without a price in the studio's money yet, each once; empty when every sum of money is whole. A plan with such a
    /// material is compared with no other by what it costs.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    #[cfg_attr(feature = "schema", schema(required = false))]
    pub unpriced: Vec<UnpricedMaterial>,
    /// How likely it is to arrive damaged, and by what.
    pub odds: Odds,
    /// The engineer's view: falls, a corner that presses in, and a stack.
    pub survival: Survival,
    /// What carries it, where the house's board as it is does not; `None` where that does.
    pub strength: Option<Strength>,
    /// What the shipment started from; `None` if a plan is made without one.
    pub began: Option<Beginning>,
    /// What is to be answered, minded or known.
    pub findings: Vec<Finding>,
}

impl Plan {
    /// Returns the plan for a piece by the rules, from the materials on the shelf.
    ///
    /// # Errors
    /// A [`Refusal`] for a material that is not there, for a sheet that must never touch the art, or for
    /// pockets whose leg is over half the short side.
    pub fn design(
        piece: &Piece,
        rules: &HouseRules,
        catalogue: &Catalogue,
    ) -> Result<Self, Vec<Refusal>> {
        Self::judged(piece, rules, catalogue, &References::default())
    }

    /// Returns the same plan, compared with references that are kept from one plan to the next.
    ///
    /// # Errors
    /// As [`Plan::design`].
    pub fn judged(
        piece: &Piece,
        rules: &HouseRules,
        catalogue: &Catalogue,
        references: &References,
    ) -> Result<Self, Vec<Refusal>> {
        Self::in_detail(piece, None, rules, (catalogue, references), Detail::WHOLE)
    }

    /// Returns the plan of several pieces in one box, the first of which is the shipment's own.
    ///
    /// # Errors
    /// As [`Plan::design`], named by the piece that it is about.
    pub fn together(
        together: &Together,
        rules: &HouseRules,
        catalogue: &Catalogue,
        references: &References,
    ) -> Result<Self, Vec<Refusal>> {
        Self::together_in(together, rules, (catalogue, references), Detail::WHOLE)
    }

    /// Returns the plan of one piece, or of several together, in some detail.
    pub(crate) fn in_detail(
        piece: &Piece,
        together: Option<&Together>,
        rules: &HouseRules,
        shelf: (&Catalogue, &References),
        detail: Detail,
    ) -> Result<Self, Vec<Refusal>> {
        match together {
            Some(together) => Self::together_in(together, rules, shelf, detail),
            None => Self::made(piece, None, rules, shelf, detail),
        }
    }

    fn together_in(
        together: &Together,
        rules: &HouseRules,
        shelf: (&Catalogue, &References),
        detail: Detail,
    ) -> Result<Self, Vec<Refusal>> {
        let refused = together.refused();
        if !refused.is_empty() {
            return Err(refused);
        }
        let Some(first) = together.pieces.first() else {
            return Err(vec![Refusal::new("piece", "nothing is to be packed")]);
        };
        Self::made(&first.piece, Some(together), rules, shelf, detail)
    }

    fn made(
        piece: &Piece,
        together: Option<&Together>,
        rules: &HouseRules,
        (catalogue, references): (&Catalogue, &References),
        detail: Detail,
    ) -> Result<Self, Vec<Refusal>> {
        let one = |refusal| vec![refusal];
        let shelf = (catalogue, references);
        let supplies = Supplies::find(piece, rules, catalogue).map_err(one)?;
        pockets_do_not_meet(piece.size, rules).map_err(one)?;
        let packed = Packed::of(piece, together, &supplies, references).map_err(one)?;
        let Some(lacks) = strength::lacks(&supplies, &packed.layers, &packed.tally) else {
            return Self::told(piece, together, (&supplies, packed), shelf, (detail, None));
        };
        let twice_boxed = packed.is_twice_boxed();
        let former = || -> Option<Odds> {
            let (_, each) = packed.odds(piece, &supplies, references).ok()?;
            Odds::of_all(each, rules)
        };
        for (then, by, how) in strength::ways(&supplies, twice_boxed) {
            let Ok(stronger) = Packed::of(piece, together, &then, references) else {
                continue;
            };
            let carries = strength::lacks(&then, &stronger.layers, &stronger.tally).is_none();
            if carries && strength::can_be_cut(&stronger.layers, by) {
                if rules.shipment.board_asked {
                    let strength = Strength::asked(&lacks, (by, how));
                    let told = (detail, Some(strength));
                    return Self::told(piece, together, (&supplies, packed), shelf, told);
                }
                let strength = Strength::of(&lacks, Some((by, how)), former().as_ref());
                let told = (detail, Some(strength));
                return Self::told(piece, together, (&then, stronger), shelf, told);
            }
        }
        let refused = rules.layers.get(&LayerSlot::SecondBox) == Some(&false);
        if !twice_boxed && !refused && !rules.shipment.board_asked {
            let mut twice = rules.clone();
            twice.layers.insert(LayerSlot::SecondBox, true);
            let made = Self::made(piece, together, &twice, shelf, detail)?;
            let carried = made.strength.as_ref().is_none_or(|one| one.by.is_some());
            if carried {
                let outer = made.strength.as_ref().and_then(|one| one.by.clone());
                let second = supplies.second.board;
                let by = outer.unwrap_or_else(|| CarriedBy::of(second, CarriedHow::Outer));
                let strength = Strength {
                    by: Some(by),
                    ..Strength::of(&lacks, None, former().as_ref())
                };
                return Ok(made.with_strength(strength, rules.told_in));
            }
        }
        let strength = Strength::of(&lacks, None, None);
        let told = (detail, Some(strength));
        Self::told(piece, together, (&supplies, packed), shelf, told)
    }

    /// Returns what is told of a packed piece.
    fn told(
        piece: &Piece,
        together: Option<&Together>,
        (supplies, packed): (&Supplies<'_>, Packed<'_>),
        (catalogue, references): (&Catalogue, &References),
        (detail, strength): (Detail, Option<Strength>),
    ) -> Result<Self, Vec<Refusal>> {
        let rules = supplies.rules;
        let (columns, each) = packed
            .odds(piece, supplies, references)
            .map_err(|refusal| vec![refusal])?;
        let survival = Column::frailest(&columns).survival(&packed.whole(), detail);
        let chances: Vec<f64> = each.iter().map(|odds| odds.probability).collect();
        let odds = Odds::of_all(each, rules).expect("there is a piece");
        let wrapped = packed
            .predicted
            .zip(rules.shipment.wrapped)
            .map(|(predicted, measured)| WrappedPiece {
                predicted,
                measured,
                predicted_blank: blank_by_sums(piece, together, supplies, (catalogue, references)),
                blank: wrapped::blank_of(&packed.layers),
            });
        let looked: Vec<(Option<&str>, findings::Looked<'_>)> = columns
            .iter()
            .map(|column| (column.title, column.looked(&packed.tally, &odds)))
            .collect();
        let findings = findings::all(&looked, packed.stacked.as_ref());
        let stack = packed
            .stacked
            .as_ref()
            .map(|stacked| stacked.told(&chances));
        let slots = match detail.slots {
            true => Column::states(&columns, rules, &packed.layers),
            false => Vec::new(),
        };
        drop(looked);
        drop(columns);
        let mut plan = Self {
            rules_version: rules.version,
            schools: rules.schools,
            carriage: packed.recipe.carriage,
            size: piece.size,
            piece_weight: packed.piece_weight,
            cure: together.map_or_else(|| piece.cure(), Together::cure),
            slots,
            stack,
            layers: packed.layers,
            wrapped,
            tally: packed.tally,
            unpriced: Vec::new(),
            odds,
            survival,
            strength: None,
            began: None,
            findings,
        };
        plan.unpriced = unpriced::of(&plan, catalogue);
        Ok(match strength {
            Some(strength) => plan.with_strength(strength, rules.told_in),
            None => plan,
        })
    }

    /// The same, with what is told of its board before everything else of its weight.
    fn with_strength(mut self, strength: Strength, telling: Telling) -> Self {
        // Of a plan that was made with two boxes, what was told of the outer one is part of this.
        self.findings.retain(|finding| {
            finding.layer != Some(LayerSlot::Box) || finding.code != STRONGER_BOARD
        });
        let finding = strength.finding(telling, &self.odds);
        let at = self
            .findings
            .partition_point(|known| known.level < finding.level);
        self.findings.insert(at, finding);
        self.strength = Some(strength);
        self
    }

    /// Returns every layer, those of each piece of several too.
    pub fn every_layer(&self) -> impl Iterator<Item = &Layer> {
        let own = self.stack.iter().flat_map(|stack| &stack.pieces);
        own.flat_map(|piece| &piece.layers).chain(&self.layers)
    }

    /// Returns what goes in besides the pieces, wherever it lies.
    pub fn enclosed(&self) -> impl Iterator<Item = &Enclosed> {
        self.every_layer()
            .filter_map(|layer| match &layer.make {
                Make::Enclosures(enclosures) => Some(&enclosures.list),
                _ => None,
            })
            .flatten()
    }

    /// Tells whether a layer is made of a material.
    #[must_use]
    pub fn is_made_of(&self, id: &MaterialId) -> bool {
        self.every_layer().any(|layer| layer.material == *id)
    }

    /// Tells whether another plan raises no new Stop or Mind, and is likelier to arrive damaged by a share at most.
    #[must_use]
    pub(crate) fn is_kept_by(&self, other: &Self, worsening: f64) -> bool {
        let known = |code: &str| self.findings.iter().any(|finding| finding.code == code);
        let mut heavy = other
            .findings
            .iter()
            .filter(|finding| finding.level != FindingLevel::Note);
        heavy.all(|finding| known(finding.code))
            && other.odds.probability <= self.odds.probability * (1.0 + worsening)
    }

    /// Returns the outermost box; nothing for a tube.
    #[must_use]
    pub fn carton(&self) -> Option<&Carton> {
        self.layers
            .iter()
            .rev()
            .find_map(|layer| layer.make.carton())
    }
}

/// Which layers there are, what they are, and how several pieces lie in them.
type Made<'a> = (Recipe, Built, Option<Stacked<'a>>);

/// Returns which layers there are, and makes them. A piece that the house would send in a mailer goes in a box
/// when none on the shelf takes it.
fn built<'a>(
    piece: &Piece,
    together: Option<&'a Together>,
    supplies: &Supplies<'a>,
    references: &References,
) -> Result<Made<'a>, Refusal> {
    let rules = supplies.rules;
    if let Some(together) = together {
        let stacked = Stacked::of(together, supplies, references)?;
        let recipe =
            Recipe::by(piece, rules, boxed_carriage(piece)).only(|slot| slot > LayerSlot::Stack);
        let built = build::around(piece, supplies, &recipe, vec![stacked.layer.clone()])?;
        return Ok((recipe, built, Some(stacked)));
    }
    let whole = |recipe: Recipe| {
        if supplies.has_sheet_for(piece) {
            recipe
        } else {
            recipe.without(LayerSlot::Contact)
        }
    };
    let recipe = whole(Recipe::of(piece, rules)?);
    match build::layers_of(piece, supplies, &recipe) {
        Err(_) if recipe.carriage == Carriage::Mailed && rules.shipment.carriage.is_none() => {
            let recipe = whole(Recipe::boxed_instead(piece, rules));
            let built = build::layers_of(piece, supplies, &recipe)?;
            Ok((recipe, built, None))
        }
        built => Ok((recipe, built?, None)),
    }
}

/// The blank that a measured piece's box would have been cut to, of the board that carries it.
fn blank_by_sums(
    piece: &Piece,
    together: Option<&Together>,
    carried: &Supplies<'_>,
    (catalogue, references): (&Catalogue, &References),
) -> Option<BlankSize> {
    let mut unmeasured = carried.rules.clone();
    unmeasured.shipment.wrapped = None;
    let mut supplies = Supplies::find(piece, &unmeasured, catalogue).ok()?;
    supplies.first.board = catalogue.board(&carried.first.board.id).ok()?;
    supplies.first.doubled = carried.first.doubled;
    supplies.second.board = catalogue.board(&carried.second.board.id).ok()?;
    let (_, built, _) = built(piece, together, &supplies, references).ok()?;
    wrapped::blank_of(&built.layers)
}

/// Returns why a sheet that somebody chose must never lie against a piece, whatever they write.
///
/// # Errors
/// A [`Refusal`] for a sheet that may not touch the surface, plastic above all.
pub fn sheet_may_touch(
    piece: &Piece,
    chosen: Option<&MaterialId>,
    catalogue: &Catalogue,
) -> Result<(), Refusal> {
    let (Some(medium), Some(id)) = (piece.bare_medium(), chosen) else {
        return Ok(());
    };
    let Ok(paper) = catalogue.contact_paper(id) else {
        return Ok(());
    };
    if paper.touch(medium) != Touch::Never {
        return Ok(());
    }
    let why = if paper.plastic {
        "plastic marks a bare surface and sticks when warm"
    } else {
        "it stains, rubs or sticks to that surface"
    };
    Err(Refusal::new(
        "choices.contact_paper",
        format!("{} must never touch {}: {why}", paper.name, medium.name()),
    ))
}

/// Two pockets on one edge may touch, but not meet.
fn pockets_do_not_meet(size: PieceSize, rules: &HouseRules) -> Result<(), Refusal> {
    if rules.schools.corners != CornerStyle::CardPockets {
        return Ok(());
    }
    let most = size.short_side() / 2.0;
    match rules.shipment.pocket_leg {
        Some(leg) if leg > most => Err(Refusal::new(
            "choices.pocket_leg",
            PocketsMeet {
                leg: rules.told_in.length(leg),
                most: rules.told_in.length(most),
            },
        )),
        _ => Ok(()),
    }
}

/// Two pockets would meet on the short side.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
#[error("two pockets of {leg} would meet on the short side: choose {most} or less")]
struct PocketsMeet {
    leg: String,
    most: String,
}

#[cfg(test)]
mod tests;

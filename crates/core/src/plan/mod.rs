//! A plan: what a piece, the house rules and the catalogue give.

mod build;
mod change;
mod finding;
mod findings;
mod hands;
mod odds;
mod other_boxes;
mod recipe;
mod reference;
mod survival;
mod tally;
mod wrapped;

pub use crate::layer::{Standing, standing};
pub use change::Change;
pub use finding::{Finding, FindingAbout, FindingLevel, Remedy};
pub(crate) use findings::ODDS_PAST_ACCEPTED;
pub(crate) use odds::travels;
pub use odds::{HazardOdds, Odds, OneIn};
pub(crate) use other_boxes::OtherBox;
pub use recipe::{Recipe, SlotState, carriage_of};
pub use reference::{Reference, References};
pub use survival::{
    FaceCushion, FallCase, FallReport, PadAnswer, PressReport, StackReport, Survival,
};
pub use tally::Tally;
pub use wrapped::{BlankSize, Wrapped};

use serde::Serialize;

use build::Built;
use odds::Asking;
use reference::Packed;
use survival::Seen;

use crate::{
    Refusal,
    carton::Carton,
    house::{Began, Carriage, CornerStyle, HouseRules, Schools},
    layer::{Layer, Supplies},
    material::{Catalogue, MaterialId, Touch},
    piece::{Cure, Piece, PieceSize},
    quantity::{Length, Weight},
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
    /// From the art outward; the last is the box.
    pub layers: Vec<Layer>,
    /// How every layer stands that there is, or could be.
    pub slots: Vec<SlotState>,
    /// What the wrapped piece measures, where it was measured.
    pub wrapped: Option<Wrapped>,
    /// The sums.
    pub tally: Tally,
    /// How likely it is to arrive damaged, and by what.
    pub odds: Odds,
    /// The engineer's view: falls, a corner that presses in, and a stack.
    pub survival: Survival,
    /// What the shipment started from; nothing where a plan is made without one.
    pub began: Option<Began>,
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
        let one = |refusal| vec![refusal];
        let supplies = Supplies::find(piece, rules, catalogue).map_err(one)?;
        pockets_do_not_meet(piece.size, rules).map_err(one)?;
        let (
            recipe,
            Built {
                mut layers,
                predicted,
            },
        ) = built(piece, &supplies).map_err(one)?;
        let piece_weight = piece.weight(rules.allowances.piece_doubt);
        hands::count_both(&mut layers, piece_weight, &rules.allowances);
        let tally = Tally::of(piece_weight, &layers, rules, &catalogue.currency);
        let survival = Survival::of(&Seen {
            piece,
            supplies: &supplies,
            carriage: recipe.carriage,
            layers: &layers,
            outside: tally.outside,
            parcel: tally.weight.mass,
            piece_mass: piece_weight.mass,
        });
        let odds = Odds::of(&Asking {
            piece,
            rules,
            carriage: recipe.carriage,
            reference: &*references.of(piece, recipe.carriage).map_err(one)?,
            packed: Packed {
                layers: &layers,
                supplies: &supplies,
                wet: rules.way().wet,
            },
        });
        let wrapped = predicted
            .zip(rules.shipment.wrapped)
            .map(|(predicted, measured)| Wrapped {
                predicted,
                measured,
                predicted_blank: blank_by_sums(piece, rules, catalogue),
                blank: wrapped::blank_of(&layers),
            });
        let findings = findings::all(&findings::Looked {
            piece,
            supplies: &supplies,
            recipe: &recipe,
            layers: &layers,
            tally: &tally,
            odds: &odds,
        });
        Ok(Self {
            rules_version: rules.version,
            schools: rules.schools,
            carriage: recipe.carriage,
            size: piece.size,
            piece_weight,
            cure: piece.cure(),
            slots: recipe.states(piece, rules, &layers),
            layers,
            wrapped,
            tally,
            odds,
            survival,
            began: None,
            findings,
        })
    }

    /// Tells whether a layer is made of a material.
    #[must_use]
    pub fn is_made_of(&self, id: &MaterialId) -> bool {
        self.layers.iter().any(|layer| layer.material == *id)
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

/// Returns which layers there are, and makes them. A piece that the house would send in a mailer goes in a box
/// when none on the shelf takes it.
fn built(piece: &Piece, supplies: &Supplies<'_>) -> Result<(Recipe, Built), Refusal> {
    let rules = supplies.rules;
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
            Ok((recipe, built))
        }
        built => Ok((recipe, built?)),
    }
}

/// The blank that a measured piece's box would have been cut to.
fn blank_by_sums(piece: &Piece, rules: &HouseRules, catalogue: &Catalogue) -> Option<BlankSize> {
    let mut unmeasured = rules.clone();
    unmeasured.shipment.wrapped = None;
    let supplies = Supplies::find(piece, &unmeasured, catalogue).ok()?;
    let (_, built) = built(piece, &supplies).ok()?;
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
        "plastic prints its pattern on a bare surface and sticks when it is warm"
    } else {
        "it stains, sticks to or rubs that surface"
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
            PocketsMeet { leg, most },
        )),
        _ => Ok(()),
    }
}

/// Two pockets would meet on the short side.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
#[error("two pockets of {} mm would meet on the short side: set the leg to {} mm or less", leg.as_mm(), most.as_mm())]
struct PocketsMeet {
    leg: Length,
    most: Length,
}

#[cfg(test)]
mod tests;

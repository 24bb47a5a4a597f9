//! What is worked out from the inputs of a shipment: plan and quotes.

use serde::Serialize;
use sha2::{Digest, Sha256};

use super::{ShipmentInputs, Summary};
use crate::{
    Refusal,
    freight::{Destination, Parcel, Quote, Tariff, quotes},
    house::{CoverRule, HouseRules},
    layer::Envelope,
    material::Catalogue,
    piece::{Construction, Glazing, Piece, PieceSize},
    plan::{Finding, Plan, Recipe, sheet_may_touch},
    quantity::Length,
};

/// What a studio works with: its rules, its shelf and its carriers.
#[derive(Debug, Clone, PartialEq)]
pub struct House {
    /// Its rules.
    pub rules: HouseRules,
    /// Its shelf.
    pub catalogue: Catalogue,
    /// Its carriers' tariffs.
    pub tariffs: Vec<Tariff>,
}

/// What follows from the inputs of a shipment.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Worked {
    /// Fields that a plan still needs.
    pub missing: Vec<&'static str>,
    /// The size, once all three sides are given.
    pub size: Option<PieceSize>,
    /// The plan, once nothing is missing.
    pub plan: Option<Plan>,
    /// What every service says, once the country is known too.
    pub quotes: Vec<Quote>,
    /// Changes whenever layers or box do.
    pub fingerprint: Option<String>,
}

/// So many bytes of the digest tell one plan from another.
const FINGERPRINT_BYTES: usize = 8;

impl Worked {
    /// Returns what follows from inputs that were checked.
    ///
    /// # Errors
    /// A [`Refusal`] for each choice that does not go with the piece, or names no material on the shelf.
    pub fn out(inputs: &ShipmentInputs, house: &House) -> Result<Self, Vec<Refusal>> {
        let rules = house.rules.with(&inputs.choices)?;
        let missing = inputs.missing();
        let size = inputs.size()?;
        let Some(piece) = inputs.piece()? else {
            return Ok(Self {
                size,
                missing,
                plan: None,
                quotes: Vec::new(),
                fingerprint: None,
            });
        };
        refused_choices(inputs, &piece, &rules, &house.catalogue)?;
        let mut plan = Plan::design(&piece, &rules, &house.catalogue)?;
        let worth = inputs.read_value().map_err(|refusal| vec![refusal])?;
        let parcel = Parcel {
            outside: plan.tally.outside,
            mass: plan.tally.weight.mass,
            value: worth.filter(|_| rules.schools.cover == CoverRule::Full),
            has_glass: piece.construction.glazing() == Glazing::Glass,
        };
        let destination = inputs.destination();
        let quotes = destination
            .as_ref()
            .map(|place| quotes(&parcel, place, &house.tariffs))
            .unwrap_or_default();
        if let Some(place) = &destination {
            plan.findings
                .extend(price_step(&parcel, place, house, &quotes));
        }
        for finding in &mut plan.findings {
            finding.lifted = inputs.lifted.get(finding.code).cloned();
        }
        let fingerprint = Some(fingerprint(&plan, piece.construction));
        Ok(Self {
            missing,
            size,
            plan: Some(plan),
            quotes,
            fingerprint,
        })
    }

    /// Returns what the bench needs to know of it.
    #[must_use]
    pub fn summary(&self, inputs: &ShipmentInputs) -> Option<Summary> {
        Summary::of(self, inputs.service.as_deref())
    }
}

/// What a shipment chose against the job is refused at its field.
fn refused_choices(
    inputs: &ShipmentInputs,
    piece: &Piece,
    rules: &HouseRules,
    catalogue: &Catalogue,
) -> Result<(), Vec<Refusal>> {
    let choices = &inputs.choices;
    let mut refusals = Recipe::refused(piece, rules, &choices.layers);
    refusals.extend(sheet_may_touch(piece, choices.contact_paper.as_ref(), catalogue).err());
    if refusals.is_empty() {
        Ok(())
    } else {
        Err(refusals)
    }
}

/// A parcel this much smaller on every side is still the same parcel.
const A_FEW_MM: [f64; 5] = [2.0, 4.0, 6.0, 8.0, 10.0];

/// Tells when a few millimetres less would be billed less.
fn price_step(
    parcel: &Parcel,
    place: &Destination,
    house: &House,
    quotes_now: &[Quote],
) -> Option<Finding> {
    let best = |quotes: &[Quote]| quotes.iter().find_map(|quote| quote.total().cloned());
    let now = best(quotes_now)?;
    let less = |mm: f64| {
        let side = |side: Length| (side - Length::mm(mm)).max(Length::ZERO);
        let Envelope {
            across,
            up,
            through,
        } = parcel.outside;
        let smaller = Parcel {
            outside: Envelope {
                across: side(across),
                up: side(up),
                through: side(through),
            },
            ..*parcel
        };
        best(&quotes(&smaller, place, &house.tariffs))
    };
    let saves = |mm: f64| less(mm).filter(|then| then.amount < now.amount);
    saves(A_FEW_MM[A_FEW_MM.len() - 1])?;
    let (mm, then) = A_FEW_MM.into_iter().find_map(|mm| Some((mm, saves(mm)?)))?;
    Some(Finding::price_step(Length::mm(mm), &now, &then))
}

/// Two plans that are built alike have the same fingerprint, whatever version of the rules they followed.
///
/// A layer that is cut or set otherwise differs in what it adds, in its area or in its tape.
fn fingerprint(plan: &Plan, construction: Construction) -> String {
    let built: Vec<_> = plan
        .layers
        .iter()
        .map(|layer| {
            (
                layer.make.kind(),
                &layer.material,
                layer.adds,
                layer.area,
                layer.tape,
            )
        })
        .collect();
    let text =
        serde_json::to_vec(&(construction, plan.size, built)).expect("a plan can be written");
    let digest = Sha256::digest(text);
    digest
        .iter()
        .take(FINGERPRINT_BYTES)
        .map(|byte| format!("{byte:02x}"))
        .collect()
}

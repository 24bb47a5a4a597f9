//! What is worked out from the inputs of a shipment: plan and quotes.

use serde::Serialize;
use sha2::{Digest, Sha256};

use super::{
    ShipmentInputs, Summary,
    sending::{self, Sending},
};
use crate::{
    Refusal,
    freight::{Parcel, Quote, Tariff, quotes},
    house::{CoverRule, HouseRules},
    material::Catalogue,
    piece::{Construction, Glazing, Piece, PieceSize},
    plan::{Plan, Recipe, sheet_may_touch},
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
    /// The edition of the program that worked it out.
    pub edition: u32,
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

/// Counts up when a plan says more, or says it in another shape, than it did before.
pub const EDITION: u32 = 2;
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
                edition: EDITION,
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
            let found = sending::findings(&Sending {
                inputs,
                house,
                parcel: &parcel,
                place,
                quotes: &quotes,
                worth,
                layers: &plan.layers,
            });
            plan.findings.extend(found);
            plan.findings.sort_by_key(|finding| finding.level);
        }
        for finding in &mut plan.findings {
            finding.lifted = inputs.lifted.get(finding.code).cloned();
        }
        let fingerprint = Some(fingerprint(&plan, piece.construction));
        Ok(Self {
            edition: EDITION,
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

//! The few figures of a shipment that the bench and the work line show.

use serde::{Deserialize, Serialize};

use super::Worked;
use crate::{
    freight::Quote,
    layer::{Addition, Envelope},
    piece::{Cure, PieceSize},
    plan::FindingLevel,
    quantity::{Minutes, Money, Weight},
};

/// The few figures of a shipment that the bench and the work line show.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Summary {
    /// Of the piece.
    pub size: PieceSize,
    /// What all layers add.
    pub adds: Addition,
    /// Of the closed box.
    pub outside: Envelope,
    /// Of the closed box.
    pub weight: Weight,
    /// Of the materials.
    pub materials: Money,
    /// Of work.
    pub minutes: Minutes,
    /// When the paint has cured.
    pub cure: Option<Cure>,
    /// What must be answered first.
    #[serde(default)]
    pub stop: Option<String>,
    /// How many risks are to be minded.
    #[serde(default)]
    pub minds: usize,
    /// Of layers and box.
    pub fingerprint: String,
    /// The service chosen when it takes the parcel, else the cheapest.
    pub best: Option<BestQuote>,
    /// Whether any service was asked.
    pub asked: bool,
    /// The layers, for a small cut-through.
    pub section: Vec<SectionLayer>,
}

/// A price, in short.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BestQuote {
    /// Tariff and service.
    pub id: String,
    /// The carrier's name.
    pub carrier: String,
    /// The service's name.
    pub service: String,
    /// Working days at best.
    pub days_from: u32,
    /// Working days at worst.
    pub days_to: u32,
    /// All together.
    pub total: Money,
    /// Whether the studio chose it, rather than its being the cheapest.
    pub chosen: bool,
}

/// A layer, in short.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SectionLayer {
    /// Its kind, as in the plan.
    pub kind: String,
    /// What it adds.
    pub adds: Addition,
}

impl Summary {
    pub(super) fn of(worked: &Worked, service: Option<&str>) -> Option<Self> {
        let plan = worked.plan.as_ref()?;
        let of_level = |level| {
            plan.findings
                .iter()
                .filter(move |finding| finding.level == level)
        };
        Some(Self {
            size: plan.size,
            adds: plan.tally.adds,
            outside: plan.tally.outside,
            weight: plan.tally.weight,
            materials: plan.tally.materials.clone(),
            minutes: plan.tally.minutes,
            cure: plan.cure.clone(),
            stop: of_level(FindingLevel::Stop)
                .find(|finding| finding.is_open_stop())
                .map(|finding| finding.says.clone()),
            minds: of_level(FindingLevel::Mind).count(),
            fingerprint: worked.fingerprint.clone()?,
            best: best(&worked.quotes, service),
            asked: !worked.quotes.is_empty(),
            section: plan
                .layers
                .iter()
                .map(|layer| SectionLayer {
                    kind: layer.make.kind().to_owned(),
                    adds: layer.adds,
                })
                .collect(),
        })
    }
}

fn best(quotes: &[Quote], service: Option<&str>) -> Option<BestQuote> {
    let chosen = quotes
        .iter()
        .find(|quote| Some(quote.id.as_str()) == service && quote.total().is_some());
    let quote = chosen.or_else(|| quotes.first())?;
    Some(BestQuote {
        id: quote.id.clone(),
        carrier: quote.carrier.clone(),
        service: quote.service.clone(),
        days_from: quote.days_from,
        days_to: quote.days_to,
        total: quote.total()?.clone(),
        chosen: chosen.is_some(),
    })
}

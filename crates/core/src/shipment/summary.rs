//! The few figures of a shipment that the bench and the work line show.

use jiff::civil::DateTime;
use serde::{Deserialize, Serialize};

use super::{ShipmentInputs, Workings, uncured::CURE, worked::chosen_or_best};
use crate::{
    freight::{Cost, PromiseMet, Quote},
    pack::PackProgress,
    piece::{Cure, PieceSize},
    plan::{Finding, FindingLevel, OneIn},
    quantity::{Mass, Minutes, Money, Weight},
    space::{Addition, Envelope},
    stock::cut_pieces,
};

/// The few figures of a shipment that the bench and the work line show.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Summary {
    /// Of the piece.
    pub size: PieceSize,
    /// How many different pieces lie in one box; a set of like ones counts as one.
    #[serde(default = "one")]
    pub pieces: u32,
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
    /// Whether somebody wrote down why it travels before that, and things are as they were then.
    #[serde(default)]
    pub cure_lifted: bool,
    /// What must be answered first.
    #[serde(default)]
    pub stop: Option<String>,
    /// How many must be answered, that one among them.
    #[serde(default)]
    pub stops: usize,
    /// How many risks are to be minded.
    #[serde(default)]
    pub minds: usize,
    /// Open Stops and Minds of the plan, as it tells them; what is not dry is told by `cure`.
    #[serde(default)]
    pub open: Vec<OpenFinding>,
    /// Whether the promised day is met with the service of `best`, as it is until `holds_until`; `None` where none is promised, or
    /// nobody says how long it takes.
    #[serde(default)]
    pub promise: Option<PromiseMet>,
    /// How likely it is to arrive damaged: about one in so many.
    #[serde(default)]
    pub one_in: Option<OneIn>,
    /// Whether that is more than the house accepts.
    #[serde(default)]
    pub past_accepted: bool,
    /// What the minutes of work are worth.
    #[serde(default)]
    pub labour: Option<Money>,
    /// What it costs the studio with that service, part by part; without a service what making it costs. `None` where no rate of the
    /// carrier's money is kept.
    #[serde(default)]
    pub cost: Option<Cost>,
    /// Of layers and box.
    pub fingerprint: String,
    /// The service chosen when it takes the parcel, else the best: covered, and cheapest with its expected loss.
    pub best: Option<BestQuote>,
    /// What the packed parcel was found to weigh; `None` before it was weighed.
    #[serde(default)]
    pub weighed: Option<WeighedParcel>,
    /// How far the packing is; `None` before the first step is ticked.
    #[serde(default)]
    pub packed: Option<PackProgress>,
    /// Whether parts that lie around the piece are still to be cut from sheets.
    #[serde(default)]
    pub to_cut: bool,
    /// Whether any service was asked.
    pub asked: bool,
    /// Up to which minute, where the studio is, no other service becomes too late for the promised day, and nothing that is wet has
    /// cured; `None` where none is promised and nothing is wet.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>))]
    #[serde(default)]
    pub holds_until: Option<DateTime>,
    /// The layers, for a small cut-through.
    pub section: Vec<SectionLayer>,
}

/// A Stop or a Mind of a plan that nobody has answered.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct OpenFinding {
    /// How much it matters.
    pub level: FindingLevel,
    /// Code of the finding, as in the plan.
    pub code: String,
    /// Reason and remedy, in one sentence.
    pub says: String,
}

/// What a packed parcel was found to weigh.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct WeighedParcel {
    /// As the scale read it.
    #[serde(rename = "mass_g")]
    pub mass: Mass,
    /// Whether the plan is still the one that it was packed by.
    pub stands: bool,
    /// Whether it is within what the plan leaves open.
    pub as_planned: bool,
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
    /// Whether the studio chose it, rather than its being the best.
    pub chosen: bool,
    /// How far its cover falls short of the value.
    #[serde(default)]
    pub uncovered: Option<Money>,
    /// What a journey with it costs on average in damage and loss beyond its cover.
    #[serde(default)]
    pub expected_loss: Option<Money>,
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

const fn one() -> u32 {
    1
}

impl Summary {
    pub(super) fn of(worked: &Workings, inputs: &ShipmentInputs) -> Option<Self> {
        let plan = worked.plan.as_ref()?;
        let of_level = |level| {
            plan.findings
                .iter()
                .filter(move |finding| finding.level == level)
        };
        // What is wet dries as days pass: `cure` says when.
        let stands = |finding: &Finding| finding.is_open_stop() && finding.code != CURE;
        Some(Self {
            size: plan.size,
            pieces: u32::try_from(inputs.others.len() + 1).unwrap_or(u32::MAX),
            adds: plan.tally.adds,
            outside: plan.tally.outside,
            weight: plan.tally.weight,
            materials: plan.tally.materials.clone(),
            minutes: plan.tally.minutes,
            cure: plan.cure.clone(),
            cure_lifted: inputs.lifts_cure(plan).is_some(),
            stop: of_level(FindingLevel::Stop)
                .find(|finding| stands(finding))
                .map(|finding| finding.says.clone()),
            stops: of_level(FindingLevel::Stop)
                .filter(|finding| stands(finding))
                .count(),
            minds: of_level(FindingLevel::Mind).count(),
            open: plan
                .findings
                .iter()
                .filter(|finding| stands(finding) || finding.level == FindingLevel::Mind)
                .map(|finding| OpenFinding {
                    level: finding.level,
                    code: finding.code.to_owned(),
                    says: finding.says.clone(),
                })
                .collect(),
            promise: worked.promise,
            one_in: Some(plan.odds.one_in),
            past_accepted: plan.odds.is_past_accepted(),
            labour: Some(plan.tally.labour.clone()),
            cost: worked.cost.clone(),
            fingerprint: worked.fingerprint.clone()?,
            best: best(&worked.quotes, inputs),
            weighed: worked.found.as_ref().and_then(|found| {
                Some(WeighedParcel {
                    mass: found.mass?,
                    stands: found.stands,
                    as_planned: found.verdict.as_ref()?.as_planned,
                })
            }),
            packed: worked.packed,
            to_cut: match worked.packed {
                Some(packed) => packed.to_cut > 0,
                None => !cut_pieces(plan).is_empty(),
            },
            asked: !worked.quotes.is_empty(),
            holds_until: worked.holds_until,
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

fn best(quotes: &[Quote], inputs: &ShipmentInputs) -> Option<BestQuote> {
    let quote = chosen_or_best(quotes, inputs)?;
    Some(BestQuote {
        id: quote.id.clone(),
        carrier: quote.carrier.clone(),
        service: quote.service.clone(),
        days_from: quote.days_from,
        days_to: quote.days_to,
        total: quote.total_here.as_ref().or(quote.total())?.clone(),
        chosen: Some(quote.id.as_str()) == inputs.service.as_deref(),
        uncovered: quote.uncovered.clone(),
        expected_loss: quote.expected_loss.clone(),
    })
}

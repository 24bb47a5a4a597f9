//! What is worked out from the inputs of a shipment: plan and quotes.

use std::collections::BTreeMap;

use jiff::civil::DateTime;
use serde::Serialize;
use sha2::{Digest, Sha256};

use super::{
    Commission, FoundParcel, House, RestsOn, ShipmentInputs, Summary,
    arriving::Calendar,
    box_by_rule::{self, BoxByRule},
    case_back::CaseBack,
    flat_company::{self, TiersByRule},
    loss::Loss,
    quoting::{Quoting, parcel_of},
    sending::{self, Sending},
    uncured, worth_packing,
};
use crate::{
    Refusal,
    freight::{Cost, Parcel, PromiseMet, Quote},
    house::CoverRule,
    layer::Make,
    pack::{PackProgress, PackView, pack_steps},
    piece::{BearingPoint, Construction, PieceSize},
    plan::{Detail, Plan},
    quantity::Money,
};

/// What follows from the inputs of a shipment.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema), schema(as = Worked))]
pub struct Workings {
    /// The edition of the program that worked it out.
    pub edition: u32,
    /// Fields that a plan still needs.
    pub missing: Vec<String>,
    /// The size, once all three sides are given.
    pub size: Option<PieceSize>,
    /// Of every other piece, by its name, once all its three sides are given.
    pub sizes: BTreeMap<String, PieceSize>,
    /// Where a piece that is no rectangle bears; where each chock stands.
    pub bearing: Vec<BearingPoint>,
    /// The corners of a piece that is a polygon, clockwise.
    pub corners: Vec<BearingPoint>,
    /// The box that the house's rule chose, where nobody chose one and it is not the usual one.
    pub box_by_rule: Option<BoxByRule>,
    /// That the rule laid several pieces side by side, where nobody laid them and it is cheaper than one above the other.
    pub tiers_by_rule: Option<TiersByRule>,
    /// The plan, once nothing is missing.
    pub plan: Option<Plan>,
    /// What the parcel costs the studio, part by part: with the service that was chosen, else with the best; what making it costs
    /// before any is known. `None` where no rate of the carrier's money is kept.
    pub cost: Option<Cost>,
    /// What every service says, once the country is known too: the best first, the refused last.
    pub quotes: Vec<Quote>,
    /// Up to which minute, where the studio is, no other service becomes too late for the promised day, and nothing that is wet has
    /// cured; `None` where none is promised and nothing is wet.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>))]
    pub holds_until: Option<DateTime>,
    /// Whether the promised day is met with the service that was chosen, else with the best; it holds until `holds_until`. `None` where
    /// none is promised, or nobody says how long it takes.
    pub promise: Option<PromiseMet>,
    /// How a travel case comes back; `None` without one.
    pub case_back: Option<CaseBack>,
    /// What the packed parcel was found to be; `None` before it was weighed or measured.
    pub found: Option<FoundParcel>,
    /// What the prices rest on.
    pub rests_on: RestsOn,
    /// How far the packing is; `None` before the first step is ticked.
    pub packed: Option<PackProgress>,
    /// Changes whenever layers or box do.
    pub fingerprint: Option<String>,
    /// Why there can be no plan, each with the field that would have to change.
    pub refusals: Vec<Refusal>,
}

/// Every edition with the print of the shape that it works out, the last one last. A new shape is a new line, which a test asks for and
/// tells the print of; so are other figures in the same shape, with the same print.
pub const EDITIONS: &str = include_str!("editions.txt");

/// The edition of this program: plans that an earlier one worked out are worked out anew.
pub const EDITION: u32 = last_edition(EDITIONS.trim_ascii_end().as_bytes());

/// Reads the number at the beginning of the last line.
const fn last_edition(mut lines: &[u8]) -> u32 {
    let mut edition = 0;
    let mut in_number = true;
    while let [letter, rest @ ..] = lines {
        match letter {
            b'\n' => (edition, in_number) = (0, true),
            b'0'..=b'9' if in_number => edition = edition * 10 + (*letter - b'0') as u32,
            _ => in_number = false,
        }
        lines = rest;
    }
    edition
}
/// How many bytes of the digest tell one plan from another.
const FINGERPRINT_BYTES: usize = 8;

impl Workings {
    /// Returns what follows from inputs that were checked.
    ///
    /// # Errors
    /// A [`Refusal`] for each choice that does not go with the piece, or names no material on the shelf.
    pub fn out(inputs: &ShipmentInputs, house: &House) -> Result<Self, Vec<Refusal>> {
        Self::out_in(inputs, house, Detail::WHOLE)
    }

    /// Returns the same in some detail.
    ///
    /// # Errors
    /// As [`Workings::out`].
    pub fn out_in(
        inputs: &ShipmentInputs,
        house: &House,
        detail: Detail,
    ) -> Result<Self, Vec<Refusal>> {
        let missing = inputs.missing();
        let size = inputs.size()?;
        let Some(piece) = inputs.piece()? else {
            house.rules.with(&inputs.choices)?;
            return Ok(Self {
                edition: EDITION,
                size,
                sizes: inputs.other_sizes(),
                bearing: inputs.bears_at(),
                corners: inputs.corners(),
                box_by_rule: None,
                tiers_by_rule: None,
                missing,
                plan: None,
                cost: None,
                quotes: Vec::new(),
                holds_until: None,
                promise: None,
                case_back: None,
                found: None,
                rests_on: RestsOn::default(),
                packed: None,
                fingerprint: None,
                refusals: Vec::new(),
            });
        };
        if inputs.parcel.is_nothing() {
            let mut commission = Commission::of(inputs, piece, house)?;
            commission.detail = detail;
            let tower = match Self::followed(inputs, house, &commission, missing) {
                Ok(tower) => tower,
                // What somebody chose may take the pieces side by side, and not one above the other.
                Err(refusals) => {
                    return flat_company::in_what_was_chosen(inputs, house, commission)
                        .ok_or(refusals);
                }
            };
            let usual = flat_company::chosen(inputs, house, &mut commission, tower)?;
            let tiers = usual.tiers_by_rule.clone();
            let made = box_by_rule::chosen(inputs, house, commission, usual)?;
            return Ok(match tiers {
                Some(by) if made.tiers_by_rule.is_none() => by.noted_on(made),
                _ => made,
            });
        }
        // The box is chosen as everything is planned, whatever the packed parcel was found to weigh.
        let planned = Self::out_in(&inputs.unweighed(), house, detail)?;
        let mut commission = Commission::of(inputs, piece, house)?;
        commission.detail = detail;
        if let Some(by) = &planned.tiers_by_rule {
            by.lay(&mut commission);
        }
        if let Some(by) = &planned.box_by_rule {
            commission.rules.shipment.box_style = Some(by.style);
        }
        let made = Self::followed(inputs, house, &commission, missing)?;
        let made = match planned.tiers_by_rule {
            Some(by) => by.noted_on(made),
            None => made,
        };
        Ok(match planned.box_by_rule {
            Some(by) => by.noted_on(made),
            None => made,
        })
    }

    /// Returns what follows from a commission, made as its rules say.
    ///
    /// # Errors
    /// As [`Workings::out`].
    pub(super) fn followed(
        inputs: &ShipmentInputs,
        house: &House,
        commission: &Commission<'_>,
        missing: Vec<String>,
    ) -> Result<Self, Vec<Refusal>> {
        let constructions = commission.constructions();
        let size = Some(commission.piece.size);
        let worth = inputs.worth().map_err(|refusal| vec![refusal])?;
        let mut plan = commission.plan()?;
        let full = commission.rules.schools.cover == CoverRule::Full;
        let fingerprint = fingerprint(&plan, &constructions);
        let found = inputs.found(&plan, &house.catalogue);
        let parcel =
            FoundParcel::laid_over(found.as_ref(), parcel_of(&plan, &constructions, worth));
        let place = inputs.destination();
        let loss = Loss::of(&plan, &commission.rules, worth, &house.catalogue.currency);
        let carried = |place| {
            let quoting = Quoting {
                inputs,
                house,
                rules: &commission.rules,
                loss: &loss,
                making: plan.tally.making(&commission.rules.allowances),
                place,
                only: commission.rules.shipment.saved.and(inputs.saved_carrier()),
                calendar: Calendar::of(inputs, house, &plan),
            };
            quoting.quotes(&parcel)
        };
        let mut quotes = place.as_ref().map(carried).unwrap_or_default();
        if place.is_some() {
            plan.findings.extend(sending::findings(&Sending {
                inputs,
                quotes: &quotes,
                full_cover: full,
                bare_wood_abroad: has_bare_wood(&plan) && house.meets_customs(inputs),
            }));
            plan.findings.sort_by_key(|finding| finding.level);
        }
        if let Some(now) = house.now
            && let Some(stop) = uncured::uncured(&plan, inputs, now.date(), house.rules.told_in)
        {
            plan.findings.insert(0, stop);
        }
        let lifted: Vec<Option<String>> = plan
            .findings
            .iter()
            .map(|finding| inputs.lifts(&plan, finding).cloned())
            .collect();
        for (finding, lifted) in plan.findings.iter_mut().zip(lifted) {
            finding.lifted = lifted;
        }
        let packed = (!inputs.packed.is_empty()).then(|| {
            let (pieces, rules) = (commission.pieces(), &commission.rules);
            let steps = pack_steps(&plan, &pieces, rules, &house.catalogue);
            PackView::of(steps, &inputs.packed).progress
        });
        let calendar = Calendar::of(inputs, house, &plan);
        let late = calendar.as_ref().and_then(Calendar::until);
        let wet = house.now.and_then(|now| uncured::says_so_until(&plan, now));
        let holds_until = late.into_iter().chain(wet).min();
        let sent_by = chosen_or_best(&quotes, inputs);
        let promise = calendar.zip(sent_by);
        let promise = promise.and_then(|(calendar, quote)| calendar.promise(quote));
        let case_back = CaseBack::of(&plan, &commission.rules, house, (&parcel, sent_by, place));
        plan.odds.harm = loss.harm();
        plan.odds.expected_loss = loss.expected(sent_by);
        let making = plan.tally.making(&commission.rules.allowances);
        let cost = match sent_by {
            Some(quote) => quote.cost.clone(),
            None => {
                let own = &house.catalogue.currency;
                Some(Cost::made(making, plan.odds.expected_loss.as_ref(), own))
            }
        };
        let carriage = sent_by.and_then(|quote| quote.total_here.as_ref());
        let allowances = &commission.rules.allowances;
        plan.findings
            .extend(worth_packing::look(&plan, carriage, worth, allowances));
        if !commission.detail.lines {
            quotes.iter_mut().for_each(Quote::fold);
        }
        Ok(Self {
            edition: EDITION,
            missing,
            size,
            sizes: inputs.other_sizes(),
            bearing: inputs.bears_at(),
            corners: inputs.corners(),
            box_by_rule: None,
            tiers_by_rule: None,
            plan: Some(plan),
            cost,
            quotes,
            holds_until,
            promise,
            case_back,
            rests_on: FoundParcel::rests_on(found.as_ref()),
            packed,
            found,
            fingerprint: Some(fingerprint),
            refusals: Vec::new(),
        })
    }

    /// Returns what follows from inputs that were checked; where a plan can't be made of them, why.
    #[must_use]
    pub fn out_or_refused(inputs: &ShipmentInputs, house: &House) -> Self {
        Self::out_or_refused_in(inputs, house, Detail::WHOLE)
    }

    /// Returns the same in some detail.
    #[must_use]
    pub fn out_or_refused_in(inputs: &ShipmentInputs, house: &House, detail: Detail) -> Self {
        Self::out_in(inputs, house, detail).unwrap_or_else(|refusals| Self {
            edition: EDITION,
            missing: inputs.missing(),
            size: inputs.size().ok().flatten(),
            sizes: inputs.other_sizes(),
            bearing: inputs.bears_at(),
            corners: inputs.corners(),
            box_by_rule: None,
            tiers_by_rule: None,
            plan: None,
            cost: None,
            quotes: Vec::new(),
            holds_until: None,
            promise: None,
            case_back: None,
            found: None,
            rests_on: RestsOn::default(),
            packed: None,
            fingerprint: None,
            refusals,
        })
    }

    /// Returns the parcel as carriers ask about it, with cover as it is in the quotes.
    pub(crate) fn parcel(
        &self,
        inputs: &ShipmentInputs,
        commission: &Commission<'_>,
    ) -> Option<Parcel> {
        let worth = inputs.worth().ok().flatten();
        let parcel = parcel_of(self.plan.as_ref()?, &commission.constructions(), worth);
        let parcel = FoundParcel::laid_over(self.found.as_ref(), parcel);
        let buys_cover = commission.rules.schools.cover == CoverRule::Full;
        Some(Parcel {
            buys_cover,
            ..parcel
        })
    }

    /// Returns the service that was chosen when it takes the parcel, else the best.
    pub(crate) fn chosen_or_best(&self, inputs: &ShipmentInputs) -> Option<&Quote> {
        chosen_or_best(&self.quotes, inputs)
    }

    /// Returns what carriage comes to in the studio's money: with the service that was chosen, else with the best.
    pub(crate) fn price(&self, inputs: &ShipmentInputs) -> Option<&Money> {
        chosen_or_best(&self.quotes, inputs)?.total_here.as_ref()
    }

    /// Returns what the bench needs to know of it.
    #[must_use]
    pub fn summary(&self, inputs: &ShipmentInputs) -> Option<Summary> {
        Summary::of(self, inputs)
    }
}

/// Returns the service that was chosen when it takes the parcel, else the best.
pub(super) fn chosen_or_best<'a>(
    quotes: &'a [Quote],
    inputs: &ShipmentInputs,
) -> Option<&'a Quote> {
    let takes = |quote: &&Quote| quote.total().is_some();
    let id = inputs.service.as_deref();
    quotes
        .iter()
        .filter(takes)
        .find(|quote| Some(quote.id.as_str()) == id)
        .or_else(|| quotes.first().filter(takes))
}

/// Two plans that are built alike have the same fingerprint, whatever version of the rules they followed.
///
/// A layer that is cut or set otherwise differs in what it adds, in its area or in its tape.
fn fingerprint(plan: &Plan, constructions: &[Construction]) -> String {
    let built: Vec<_> = plan
        .every_layer()
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
    let text = match (constructions, &plan.stack) {
        ([construction], None) => serde_json::to_vec(&(construction, plan.size, built)),
        (_, stack) => {
            let order = stack.as_ref().map(|stack| &stack.order);
            serde_json::to_vec(&(constructions, plan.size, built, order))
        }
    };
    let text = text.expect("a plan can be written");
    digested(&text, FINGERPRINT_BYTES)
}

/// Returns the first bytes of a digest, as letters.
pub(super) fn digested(text: &[u8], bytes: usize) -> String {
    Sha256::digest(text)
        .iter()
        .take(bytes)
        .map(|byte| format!("{byte:02x}"))
        .collect()
}
/// Tells whether a case goes out whose battens are not treated.
fn has_bare_wood(plan: &Plan) -> bool {
    let mut makes = plan.layers.iter().map(|layer| &layer.make);
    makes.any(|make| matches!(make, Make::TravelCase(case) if !case.treated))
}

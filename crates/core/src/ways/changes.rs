//! More protection, or less: real changes of a plan, each with what it costs and what it is worth.

use rust_decimal::Decimal;
use serde::Serialize;

use super::{
    Alternative, BoughtOffer, CaseOffer, StyleOffer,
    candidates::{Candidate, Now},
    choosing,
    price_step::{self, PriceStep},
};
use crate::{
    Refusal,
    house::Choices,
    layer::OfSheet,
    material::{Board, Catalogue, Foam},
    plan::{CarriedHow, OneIn, Plan, STRONGER_BOARD},
    quantity::{Length, Mass, Minutes, Money},
    shipment::{BOX_BY_RULE, Commission, House, MoreCost, SIDE_BY_SIDE, ShipmentInputs, Workings},
    space::LayerSlot,
};

/// What would protect a plan more, and what could be left out of it; the best worth first.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Changes {
    /// What would make it at least a tenth likelier to arrive whole.
    pub more: Vec<OfferedChange>,
    /// What would save money, grams or minutes while the odds stay accepted.
    pub less: Vec<OfferedChange>,
    /// What to do where no change of the packing brings the odds under what the house accepts.
    pub otherwise: Option<String>,
    /// A few millimetres that would save money; `None` if none would.
    pub price_step: Option<PriceStep>,
    /// What else the layer that was asked about could be; `None` if none was asked about.
    pub alternatives: Option<Vec<Alternative>>,
    /// How else the box could be made, the best first; nothing unless the box was asked about.
    pub styles: Option<Vec<StyleOffer>>,
    /// What is on the shelf that could take the place of a box that is cut, where that was asked about.
    pub bought: Option<Vec<BoughtOffer>>,
    /// A travel case in place of the box, where that was asked about.
    pub case: Option<CaseOffer>,
}

/// One change, as it can be made.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct OfferedChange {
    /// What it is.
    pub label: String,
    /// What it is one of: of each family the best is offered.
    pub family: &'static str,
    /// The choices to merge into those of the shipment.
    pub choices: Choices,
    /// What it costs more to send (materials, work, overhead, and what the carrier is paid); less than zero where it saves.
    pub cost: Money,
    /// The part of `cost` for materials.
    pub materials: Money,
    /// The part of `cost` for carriage; `None` before it is known where it goes.
    pub carriage: Option<Money>,
    /// The part of `cost` for work.
    pub labour: Money,
    /// Of the parcel.
    #[serde(rename = "mass_g")]
    pub mass: Mass,
    /// Of work.
    pub minutes: Minutes,
    /// What it takes off the expected loss; less than zero where it adds to it. Nothing without a value.
    pub worth: Option<Money>,
    /// That it arrives damaged, now.
    pub probability_before: f64,
    /// That it arrives damaged, then.
    pub probability_after: f64,
    /// The same as people say it, now.
    pub odds_before: OneIn,
    /// The same, then.
    pub odds_after: OneIn,
    /// Whether that brings the odds under what the house accepts, or takes a quarter off them.
    pub answers: bool,
}

/// A change is offered as more protection only when it takes so much off the odds.
const LEAST_BETTER: f64 = 0.1;
/// How much off the odds is an answer where nothing brings them under.
const A_QUARTER: f64 = 0.25;
/// Nobody risks more for a saving smaller than these, or than the house's least worth saving.
const LEAST_GRAMS: f64 = 100.0;
const LEAST_MINUTES: f64 = 2.0;

/// Returns what would protect a shipment more, and what could be left out; `None` before the piece is known.
///
/// *More* is offered when it takes at least a tenth off the chance of damage, *less* when it saves money, grams
/// or minutes while the chance stays accepted; either only when it raises no new finding and can be cut from the
/// shelf. Of each family the one with the most worth less cost is offered; more of a wrap that is there anyway
/// stands before what is better by less than the least that anyone changes a plan for.
///
/// # Errors
/// A [`Refusal`] when the plan as it is can't be made.
pub fn changes(inputs: &ShipmentInputs, house: &House) -> Result<Option<Changes>, Vec<Refusal>> {
    // Other plans are compared as they are planned, whatever this one was found to weigh.
    let inputs = &inputs.unweighed();
    let Some(piece) = inputs.piece()? else {
        return Ok(None);
    };
    let commission = Commission::of(inputs, piece, house)?;
    let worked = Workings::out(inputs, house)?;
    let Some(plan) = worked.plan.as_ref() else {
        return Ok(None);
    };
    let now = Now {
        plan,
        rules: &commission.rules,
        catalogue: &house.catalogue,
    };
    let trial = Trial {
        inputs,
        house,
        worked: &worked,
        plan,
    };
    let least = commission.rules.allowances.least_saving.amount();
    let more = now.more().into_iter().filter_map(|candidate| {
        let offered = trial.tried(candidate)?;
        (offered.probability_after <= offered.probability_before * (1.0 - LEAST_BETTER))
            .then_some(offered)
    });
    let less = now.less().into_iter().filter_map(|candidate| {
        let offered = trial.tried(candidate)?;
        let saves = offered.cost.amount <= -least
            || offered.mass.as_g() <= -LEAST_GRAMS
            || offered.minutes.as_min() <= -LEAST_MINUTES;
        (saves && offered.probability_after <= plan.odds.accepted).then_some(offered)
    });
    let (mut more, less) = (best_of_each(more, least), best_of_each(less, least));
    let asked = plan.odds.is_past_accepted();
    if asked {
        // What answers the question comes first.
        more.sort_by_key(|offered| !offered.answers);
    }
    let answered = more.first().is_some_and(|offered| offered.answers);
    let otherwise = (asked && !answered).then(|| {
        "Nothing on the shelf brings this under what the studio accepts: look for a service with a gentler way, or ask an art courier or a packer what they would take for it.".to_owned()
    });
    Ok(Some(Changes {
        more,
        less,
        otherwise,
        price_step: price_step::nearest(inputs, house, &worked),
        alternatives: None,
        styles: None,
        bought: None,
        case: None,
    }))
}

/// Keeps the best of each family, the best worth less cost first.
fn best_of_each(
    offered: impl Iterator<Item = OfferedChange>,
    least: Decimal,
) -> Vec<OfferedChange> {
    let mut all: Vec<OfferedChange> = offered.collect();
    all.sort_by_key(|offered| std::cmp::Reverse(offered.gain()));
    at_hand_first(&mut all, least);
    let mut families = Vec::new();
    all.retain(|offered| {
        let first = !families.contains(&offered.family);
        families.push(offered.family);
        first
    });
    all
}

/// Brings forward what is done with what already lies on the bench, over what is better by less than anyone
/// changes a plan for.
fn at_hand_first(sorted: &mut [OfferedChange], least: Decimal) {
    for at in 1..sorted.len() {
        let mut to = at;
        while to > 0
            && sorted[at].is_at_hand()
            && !sorted[to - 1].is_at_hand()
            && sorted[to - 1].gain() - sorted[at].gain() < least
        {
            to -= 1;
        }
        sorted[to..=at].rotate_right(1);
    }
}

impl OfferedChange {
    /// Whether it takes more of what the plan has anyway, and neither a new material nor another box.
    fn is_at_hand(&self) -> bool {
        self.family == "wrap"
    }

    /// What it is worth less what it costs.
    fn gain(&self) -> Decimal {
        let worth = self
            .worth
            .as_ref()
            .map_or(Decimal::ZERO, |worth| worth.amount);
        worth - self.cost.amount
    }
}

/// A plan while changes of it are tried.
struct Trial<'a> {
    inputs: &'a ShipmentInputs,
    house: &'a House,
    worked: &'a Workings,
    plan: &'a Plan,
}

impl Trial<'_> {
    /// Returns what a candidate would do; `None` if it can't be made, raises a new finding, or can't be cut.
    fn tried(&self, candidate: Candidate) -> Option<OfferedChange> {
        let (choices, changed) = choosing(self.inputs, self.plan.began.as_ref(), candidate.choices);
        let then = Workings::out(&changed, self.house).ok()?;
        let plan = then.plan.as_ref()?;
        let cut = can_be_cut(plan, &self.house.catalogue);
        if then.fingerprint == self.worked.fingerprint
            || !cut && can_be_cut(self.plan, &self.house.catalogue)
            || self.raises_new(plan)
        {
            return None;
        }
        let besides = [
            self.carried_otherwise(plan),
            self.styled_otherwise(plan),
            self.laid_otherwise(plan),
        ];
        let label = besides
            .into_iter()
            .flatten()
            .fold(candidate.label, |label, otherwise| {
                format!("{label}, {otherwise}")
            });
        Some(self.offered(candidate.family, label, choices, &then, plan))
    }

    fn raises_new(&self, then: &Plan) -> bool {
        let known = |code: &str| {
            self.plan
                .findings
                .iter()
                .any(|finding| finding.code == code)
        };
        let mut found = then.findings.iter().map(|finding| finding.code);
        found.any(|code| {
            ![BOX_BY_RULE, SIDE_BY_SIDE, STRONGER_BOARD].contains(&code) && !known(code)
        })
    }

    /// Returns the style that the house's rule takes for what the change makes, where it is another one.
    fn styled_otherwise(&self, then: &Plan) -> Option<String> {
        let style = |plan: &Plan| {
            let mut boxes = plan.layers.iter();
            let first = boxes.find(|layer| layer.slot == LayerSlot::Box)?;
            Some(first.make.carton()?.style)
        };
        let (now, then) = (style(self.plan)?, style(then)?);
        (now != then).then(|| {
            format!(
                "and a {} in place of the {}",
                then.name().to_lowercase(),
                now.name().to_lowercase()
            )
        })
    }

    /// Returns how several pieces lie then, where the rule lays them otherwise.
    fn laid_otherwise(&self, then: &Plan) -> Option<String> {
        let tiers = |plan: &Plan| Some(plan.stack.as_ref()?.tiers.len());
        let (now, then) = (tiers(self.plan)?, tiers(then)?);
        (now != then).then(|| format!("and the pieces on {then} boards in place of {now}"))
    }

    /// Returns what else a change makes of the box, so that its board carries the parcel.
    fn carried_otherwise(&self, then: &Plan) -> Option<String> {
        let by = |plan: &Plan| Some(plan.strength.as_ref()?.by.as_ref()?.clone());
        let (now, then) = (by(self.plan), by(then));
        if now == then {
            return None;
        }
        let Some(by) = then else {
            let strength = self.plan.strength.as_ref()?;
            return Some(format!("in a box of {}", strength.instead_of_name));
        };
        Some(match by.how {
            CarriedHow::Single => format!("in a box of {}", by.name),
            CarriedHow::Doubled => format!("in a box of {} with doubled faces", by.name),
            CarriedHow::Outer => format!("in two boxes, the outer one of {}", by.name),
        })
    }

    fn offered(
        &self,
        family: &'static str,
        label: String,
        choices: Choices,
        then: &Workings,
        plan: &Plan,
    ) -> OfferedChange {
        let currency = &self.house.catalogue.currency;
        let less = |then: &Money, now: &Money| Money::new(then.amount - now.amount, currency);
        let (one, other) = (&self.plan.tally, &plan.tally);
        let cost = MoreCost::between(self.inputs, (self.worked, self.plan), (then, plan));
        let (before, after) = (self.plan.odds.probability, plan.odds.probability);
        OfferedChange {
            label,
            family,
            choices,
            cost: cost.whole,
            materials: cost.materials,
            carriage: cost.carriage,
            labour: cost.labour,
            mass: other.weight.mass - one.weight.mass,
            minutes: other.minutes - one.minutes,
            worth: self
                .plan
                .odds
                .expected_loss
                .as_ref()
                .zip(plan.odds.expected_loss.as_ref())
                .map(|(now, then)| less(now, then)),
            probability_before: before,
            probability_after: after,
            odds_before: self.plan.odds.one_in,
            odds_after: plan.odds.one_in,
            answers: after <= plan.odds.accepted || after <= before * (1.0 - A_QUARTER),
        }
    }
}

/// Tells whether every board and pad comes out of a sheet on the shelf.
pub(super) fn can_be_cut(plan: &Plan, catalogue: &Catalogue) -> bool {
    plan.layers.iter().all(|layer| {
        let material = &layer.material;
        match layer.handling().of_sheet {
            Some(OfSheet::Board([width, height])) => {
                let board = catalogue.board(material);
                board.map_or(true, |board| out_of_board(board, width, height))
            }
            Some(OfSheet::Foam([width, height], thickness)) => {
                let foam = catalogue.foam(material);
                foam.map_or(true, |foam| out_of_foam(foam, width, height, thickness))
            }
            None => true,
        }
    })
}

fn goes_in(width: Length, height: Length, sheet: [Length; 2]) -> bool {
    let [one, other] = sheet;
    (width <= one && height <= other) || (width <= other && height <= one)
}

fn out_of_board(board: &Board, width: Length, height: Length) -> bool {
    board
        .sheets
        .iter()
        .any(|sheet| goes_in(width, height, [sheet.width, sheet.height]))
}

/// One sheet of the thickness, or two laid together.
fn out_of_foam(foam: &Foam, width: Length, height: Length, thickness: Length) -> bool {
    let fits =
        |sheet: &&crate::material::FoamSheet| goes_in(width, height, [sheet.width, sheet.height]);
    let reached = |wanted: Length| (wanted - thickness).as_mm().abs() < 0.5;
    let sheets: Vec<_> = foam.sheets.iter().filter(fits).collect();
    sheets.iter().any(|one| {
        reached(one.thickness)
            || sheets
                .iter()
                .any(|other| reached(one.thickness + other.thickness))
    })
}

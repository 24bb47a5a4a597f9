//! More protection, or less: real changes of a plan, each with what it costs and what it is worth.

use rust_decimal::{Decimal, prelude::ToPrimitive};
use serde::Serialize;

use super::{
    Alternative, BoughtOffer, CaseOffer, Explorer, StyleOffer, Way,
    candidates::{Candidate, Now},
    choosing,
    price_step::{self, PriceStep},
};
use crate::{
    Refusal,
    house::Choices,
    layer::{Family, OfSheet},
    material::{Board, Catalogue, Foam},
    odds::{Hazard, PieceClass},
    plan::{CarriedHow, HazardOdds, Odds, OneIn, Plan, STRONGER_BOARD},
    quantity::{Length, Mass, Minutes, Money},
    shipment::{
        BOX_BY_RULE, Commission, House, MoreCost, SIDE_BY_SIDE, ShipmentInputs, WORTH_ITS_PACKING,
        Workings,
    },
    space::LayerSlot,
};

/// What would protect a plan more, in the order in which a framer would do it, and what could be left out of it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Changes {
    /// What takes at least six hundredths off the odds or the expected loss: at most six, the remedy of the leading hazard first, then what
    /// takes most off the odds for its cost.
    pub more: Vec<OfferedChange>,
    /// What would save money, grams or minutes while the odds stay accepted.
    pub less: Vec<OfferedChange>,
    /// What to do where no change of the packing brings the odds under what the house accepts.
    pub otherwise: Option<String>,
    /// The cheapest way to pack and send it that the house accepts, where packing and carriage come to much of what it is worth.
    pub cheapest: Option<Way>,
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
    /// Whether every material of both plans has a price; where one has none, the sums of money say nothing.
    pub priced: bool,
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
    /// What it takes off the expected loss of a parcel; less than zero where it adds to it. Nothing without a value.
    pub saves: Option<Money>,
    /// The same, as it was called first.
    pub worth: Option<Money>,
    /// The leading hazard of the plan, where this is what a framer does against it.
    pub remedy_for: Option<Hazard>,
    /// Whether the parcel goes over a step of its service's price.
    pub crosses_step: bool,
    /// Whether the box is made as it is now; where it is not, the label says so.
    pub keeps_style: bool,
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

/// A change is offered as more protection only when it takes so much off the odds or the expected loss.
const LEAST_BETTER: f64 = 0.06;
/// No more are offered than anybody reads.
const MOST_OFFERED: usize = 6;
/// A change is held against at least this share of what the plan costs.
const LEAST_COST: f64 = 0.005;
/// What is as good as this share of the best goes with it, in the order of the bench.
const AS_GOOD: f64 = 0.7;
/// How much off the odds is an answer where nothing brings them under.
const A_QUARTER: f64 = 0.25;
/// Nobody risks more for a saving smaller than these, or than the house's least worth saving.
const LEAST_GRAMS: f64 = 100.0;
const LEAST_MINUTES: f64 = 2.0;

/// Returns what would protect a shipment more, and what could be left out; `None` before the piece is known.
///
/// *More* is offered when it takes at least six hundredths off the chance of damage or off the expected loss, *less* when it saves
/// money, grams or minutes while the chance stays accepted; either only when it raises no new finding and can be cut from the shelf. Of
/// each family the one is offered that takes most off the odds for its cost. Source: trade judgement.
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
    let now = Now::of(inputs, (&commission, &house.catalogue), plan);
    let trial = Trial {
        inputs,
        house,
        worked: &worked,
        plan,
        precious: now.precious,
    };
    let least = (commission.rules.allowances).worth_saving(&house.catalogue.currency);
    let price = worked.cost.as_ref().map(|cost| cost.to_send.amount);
    let price = price.and_then(|price| price.to_f64()).unwrap_or(0.0);
    let more = now.more().into_iter().filter_map(|candidate| {
        let family = candidate.family;
        let (offered, _) = trial.tried(candidate)?;
        trial.is_better(&offered).then(|| Ranked {
            family,
            gain: trial.gain(&offered, price),
            offered,
        })
    });
    let less = now.less().into_iter().filter_map(|candidate| {
        let family = candidate.family;
        let (offered, then) = trial.tried(candidate)?;
        if trial.takes_a_board(&then) {
            return None;
        }
        let saves = offered.priced && offered.cost.amount <= -least
            || offered.mass.as_g() <= -LEAST_GRAMS
            || offered.minutes.as_min() <= -LEAST_MINUTES;
        (saves && offered.probability_after <= plan.odds.accepted).then(|| Ranked {
            family,
            gain: offered.kept().to_f64().unwrap_or(0.0),
            offered,
        })
    });
    let more = in_order(best_of_each(more), remedy(&plan.odds));
    let mut more: Vec<OfferedChange> = more.into_iter().take(MOST_OFFERED).collect();
    let less = best_of_each(less)
        .into_iter()
        .map(|ranked| ranked.offered)
        .collect();
    let asked = plan.odds.is_past_accepted();
    if asked {
        // What answers the question comes first.
        more.sort_by_key(|offered| !offered.answers);
    }
    let answered = more.first().is_some_and(|offered| offered.answers);
    let otherwise = (asked && !answered).then(|| {
        "Nothing on the shelf makes this as safe as the studio wants. Choose a gentler service, or ask an art courier or a packer for a price.".to_owned()
    });
    Ok(Some(Changes {
        more,
        less,
        otherwise,
        cheapest: cheapest_of(inputs, house, plan)?,
        price_step: price_step::nearest(inputs, house, &worked),
        alternatives: None,
        styles: None,
        bought: None,
        case: None,
    }))
}

/// How many plans are made to find the cheapest way.
const PLANS_FOR_CHEAPEST: u32 = 96;

/// Returns the cheapest way whose odds the house accepts, where a plan is hardly worth its packing; `None` where it is that way.
fn cheapest_of(
    inputs: &ShipmentInputs,
    house: &House,
    plan: &Plan,
) -> Result<Option<Way>, Vec<Refusal>> {
    let mut findings = plan.findings.iter();
    if !findings.any(|finding| finding.code == WORTH_ITS_PACKING) {
        return Ok(None);
    }
    let Some(mut explorer) = Explorer::of(inputs, house, PLANS_FOR_CHEAPEST)? else {
        return Ok(None);
    };
    while !explorer.is_done() {
        explorer.go_on(1);
    }
    let accepted = plan.odds.accepted.recip();
    let ways = explorer.front().ways.into_iter();
    let mut ways = ways.filter(|way| f64::from(way.odds.about) >= accepted);
    Ok(ways.next().filter(|way| !way.is_now))
}

/// A change with what it is ranked by.
struct Ranked {
    family: Family,
    gain: f64,
    offered: OfferedChange,
}

/// Keeps the best of each family, the best first.
fn best_of_each(offered: impl Iterator<Item = Ranked>) -> Vec<Ranked> {
    let mut all: Vec<Ranked> = offered.collect();
    all.sort_by(|one, other| other.gain.total_cmp(&one.gain));
    let mut families = Vec::new();
    all.retain(|ranked| {
        let first = !families.contains(&ranked.family);
        families.push(ranked.family);
        first
    });
    all
}

/// Puts the remedy of the leading hazard first; then, from the best down, what is nearly as good together, in the order of the bench.
fn in_order(mut ranked: Vec<Ranked>, remedy: (Hazard, Family)) -> Vec<OfferedChange> {
    let (leading, family) = remedy;
    let mut ordered = Vec::with_capacity(ranked.len());
    if let Some(at) = ranked.iter().position(|one| one.family == family) {
        let first = ranked.remove(at).offered;
        ordered.push(OfferedChange {
            remedy_for: Some(leading),
            ..first
        });
    }
    while let Some(best) = ranked.first() {
        let least = best.gain * AS_GOOD;
        let nearly = ranked.iter().take_while(|one| one.gain >= least).count();
        let mut group: Vec<Ranked> = ranked.drain(..nearly.max(1)).collect();
        group.sort_by_key(|one| one.family);
        ordered.extend(group.into_iter().map(|one| one.offered));
    }
    ordered
}

/// Returns the hazard that makes most of the factor, and what a framer does first against it.
///
/// Source: trade judgement.
fn remedy(odds: &Odds) -> (Hazard, Family) {
    let term = |hazard: &HazardOdds| hazard.share * hazard.ratio.unwrap_or(1.0);
    let leading = odds
        .hazards
        .iter()
        .max_by(|one, other| term(one).total_cmp(&term(other)))
        .map_or(Hazard::Edges, |hazard| hazard.kind);
    let family = match (odds.class, leading) {
        (_, Hazard::Stacked) => Family::HeavierBox,
        (_, Hazard::Damp) => Family::Drier,
        (PieceClass::Rolled, _) => Family::Wrap,
        (_, Hazard::Pressed | Hazard::Pierced)
        | (PieceClass::PaperBoxed | PieceClass::PaperMailed, _) => Family::Boards,
        (
            PieceClass::Canvas | PieceClass::CanvasLarge | PieceClass::Panel,
            Hazard::Flat | Hazard::Edges,
        ) => Family::Wrap,
        (
            PieceClass::FramedUnglazed
            | PieceClass::FramedAcrylic
            | PieceClass::GlassSmall
            | PieceClass::GlassMedium
            | PieceClass::GlassLarge
            | PieceClass::GlassHuge
            | PieceClass::Mirror
            | PieceClass::MirrorLarge,
            Hazard::Flat | Hazard::Edges,
        ) => Family::EdgeFoam,
    };
    (leading, family)
}

impl OfferedChange {
    /// What it saves, less what it adds to the expected loss.
    fn kept(&self) -> Decimal {
        let saves = self
            .saves
            .as_ref()
            .map_or(Decimal::ZERO, |saves| saves.amount);
        saves - self.cost.amount
    }
}

/// So that nothing is divided by nothing.
const LEAST_MONEY: f64 = 0.01;

/// A plan while changes of it are tried.
struct Trial<'a> {
    inputs: &'a ShipmentInputs,
    house: &'a House,
    worked: &'a Workings,
    plan: &'a Plan,
    /// Whether no board and no box may be taken from it.
    precious: bool,
}

impl Trial<'_> {
    /// Returns what a candidate would do, and the plan of it; `None` if it can't be made, raises a new finding, or can't be cut.
    fn tried(&self, candidate: Candidate) -> Option<(OfferedChange, Plan)> {
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
        let style = self.styled_otherwise(plan);
        let keeps_style = style.is_none();
        let besides = [
            self.carried_otherwise(plan),
            style,
            self.laid_otherwise(plan),
        ];
        let label = besides
            .into_iter()
            .flatten()
            .fold(candidate.label, |label, otherwise| {
                format!("{label}, {otherwise}")
            });
        let offered = self.offered(candidate.family, label, choices, &then, plan);
        let offered = OfferedChange {
            keeps_style,
            ..offered
        };
        Some((offered, then.plan?))
    }

    /// Tells whether a change leaves what is precious with a board or a box less, as a lighter parcel may do without its stronger box.
    fn takes_a_board(&self, then: &Plan) -> bool {
        let count = |plan: &Plan| -> usize {
            let layers = plan.layers.iter();
            layers.map(|layer| layer.make.boards_and_boxes()).sum()
        };
        self.precious && count(then) < count(self.plan)
    }

    /// Whether it takes enough off the odds, or off what a journey costs on average.
    fn is_better(&self, offered: &OfferedChange) -> bool {
        self.off(offered) >= -(1.0 - LEAST_BETTER).ln()
    }

    /// What it takes off, as a logarithm: of the odds, or where that is too little to count, of what a journey costs on average.
    fn off(&self, offered: &OfferedChange) -> f64 {
        let odds = (offered.probability_before / offered.probability_after).ln();
        if odds >= -(1.0 - LEAST_BETTER).ln() {
            return odds;
        }
        let loss = self.plan.odds.expected_loss.as_ref();
        let left = loss
            .zip(offered.saves.as_ref())
            .and_then(|(loss, saves)| Some((loss.amount.to_f64()?, saves.amount.to_f64()?)))
            .filter(|(loss, saves)| *loss > 0.0 && saves < loss)
            .map_or(1.0, |(loss, saves)| (loss - saves) / loss);
        odds.max(-left.ln())
    }

    /// What it takes off for what it costs, of which a plan's price counts half a hundredth at least.
    fn gain(&self, offered: &OfferedChange, price: f64) -> f64 {
        let cost = offered.cost.amount.to_f64().unwrap_or(0.0);
        self.off(offered) / cost.max(price * LEAST_COST).max(LEAST_MONEY)
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
            ![BOX_BY_RULE, SIDE_BY_SIDE, STRONGER_BOARD, WORTH_ITS_PACKING].contains(&code)
                && !known(code)
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
        (now != then).then(|| format!("with {}", then.with_article()))
    }

    /// Returns how several pieces lie then, where the rule lays them otherwise.
    fn laid_otherwise(&self, then: &Plan) -> Option<String> {
        let tiers = |plan: &Plan| Some(plan.stack.as_ref()?.tiers.len());
        let (now, then) = (tiers(self.plan)?, tiers(then)?);
        (now != then).then(|| format!("with the pieces on {then} boards in place of {now}"))
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
        family: Family,
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
        let (now, then) = (&self.plan.odds.expected_loss, &plan.odds.expected_loss);
        let saves = now
            .as_ref()
            .zip(then.as_ref())
            .map(|(now, then)| less(now, then));
        let crosses_step = cost
            .carriage
            .as_ref()
            .is_some_and(|carriage| carriage.amount > Decimal::ZERO);
        OfferedChange {
            label,
            family: family.name(),
            choices,
            cost: cost.whole,
            priced: cost.priced,
            materials: cost.materials,
            carriage: cost.carriage,
            labour: cost.labour,
            mass: other.weight.mass - one.weight.mass,
            minutes: other.minutes - one.minutes,
            worth: saves.clone(),
            saves,
            remedy_for: None,
            crosses_step,
            keeps_style: true,
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

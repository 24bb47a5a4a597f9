//! How else a box could be made: every style, with what it would change, the best by the house's rule first.

use serde::Serialize;

use super::choosing;
use crate::{
    Refusal,
    carton::{Blank, SheetNeed, StyleRefusal},
    container::Carton,
    house::{Carriage, CartonStyle, Choices},
    layer::{Layer, Make, PackOf},
    material::{Board, MaterialId},
    plan::{Change, Plan, goes_padded},
    quantity::{Area, Minutes, Money, Telling},
    shipment::{Commission, House, MoreCost, ShipmentInputs, Workings},
    space::{Envelope, LayerSlot},
};

/// A style that the box could be made in.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StyleOffer {
    /// How it is made.
    pub style: CartonStyle,
    /// What it is called.
    pub name: &'static str,
    /// Why one would make it.
    pub why: &'static str,
    /// The choices to merge into those of the shipment.
    pub choices: Choices,
    /// Whether the box is made so.
    pub chosen: bool,
    /// Whether it raises no new Stop or Mind, and the odds are as good as the house asks for.
    pub keeps: bool,
    /// Why it does not fit.
    pub refused: Option<String>,
    /// What it is cut to, part by part.
    pub blanks: Vec<Blank>,
    /// Of board that stays in it.
    #[serde(rename = "board_m2")]
    pub board: Area,
    /// How many sheets are opened for it; `None` if no sheet takes a part.
    pub sheets: Option<u32>,
    /// To make and close it.
    pub minutes: Minutes,
    /// The parcel outside.
    pub outside: Envelope,
    /// What it costs more to send (materials, work, overhead, and what the carrier is paid); less than zero where it saves.
    pub cost: Money,
    /// Whether every material of both has a price; where one has none, `cost` says nothing.
    pub priced: bool,
    /// What it would change.
    pub change: Change,
}

/// A carton or a mailer of the stores that could take the place of a box that is cut.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BoughtOffer {
    /// The material.
    pub material: MaterialId,
    /// What it is called.
    pub name: String,
    /// The choices to merge into those of the shipment.
    pub choices: Choices,
    /// Whether it is taken.
    pub chosen: bool,
    /// Whether it raises no new Stop or Mind, and the odds are as good as the house asks for.
    pub keeps: bool,
    /// Why it does not fit.
    pub refused: Option<String>,
    /// How many parts it has, or how many mailers are pushed over each other; `None` if it does not fit.
    pub parts: Option<u32>,
    /// To set it up and close it.
    pub minutes: Option<Minutes>,
    /// The parcel outside.
    pub outside: Option<Envelope>,
    /// What it costs more to send (materials, work, overhead, and what the carrier is paid); less than zero where it saves.
    pub cost: Option<Money>,
    /// What it would change.
    pub change: Option<Change>,
}

/// What a shipment is, to be asked what else its box could be.
pub(super) struct BoxQuestion<'a> {
    pub inputs: &'a ShipmentInputs,
    pub house: &'a House,
    pub commission: Commission<'a>,
    worked: Workings,
    /// The plan with the usual box, where the house's rule chose another one: what is as good is asked against that.
    usual: Option<Plan>,
    slot: LayerSlot,
}

impl<'a> BoxQuestion<'a> {
    /// Works it out; `None` before the piece is known, or where it goes in no box that could be cut.
    pub(super) fn of(
        inputs: &'a ShipmentInputs,
        house: &'a House,
        slot: LayerSlot,
    ) -> Result<Option<Self>, Vec<Refusal>> {
        let Some(piece) = inputs.piece()? else {
            return Ok(None);
        };
        let commission = Commission::of(inputs, piece, house)?;
        let worked = Workings::out(inputs, house)?;
        let boxed = worked.plan.as_ref().is_some_and(|plan| {
            let cut = matches!(
                plan.carriage,
                Carriage::Flat | Carriage::Folio | Carriage::Padded
            );
            cut && plan.layers.iter().any(|layer| layer.slot == slot)
        });
        let by_rule = worked.box_by_rule.as_ref().filter(|_| boxed);
        let usual = by_rule.map(|by| {
            let choices = Choices {
                box_style: Some(by.instead_of),
                ..Choices::default()
            };
            Workings::out(&choosing(inputs, Some(&commission.began), choices).1, house)
        });
        Ok(boxed.then_some(Self {
            usual: usual.transpose()?.and_then(|worked| worked.plan),
            inputs,
            house,
            commission,
            worked,
            slot,
        }))
    }

    pub(super) fn plan(&self) -> &Plan {
        self.worked.plan.as_ref().expect("it was asked for one")
    }

    /// The plan's layer in the place that is asked about.
    fn layer_of<'p>(&self, plan: &'p Plan) -> Option<&'p Layer> {
        plan.layers.iter().find(|layer| layer.slot == self.slot)
    }

    /// What a choice makes of it, with all that is chosen with it.
    pub(super) fn choosing(&self, choices: Choices) -> (Choices, Result<Workings, Vec<Refusal>>) {
        let began = Some(&self.commission.began);
        let (choices, then) = choosing(self.inputs, began, choices);
        (choices, Workings::out(&then, self.house))
    }

    /// What it costs more to send than what there is; `None` where a material of either has no price yet.
    pub(super) fn cost(&self, made: &Workings, then: &Plan) -> Option<Money> {
        let more = self.more_cost(made, then);
        more.priced.then_some(more.whole)
    }

    fn more_cost(&self, made: &Workings, then: &Plan) -> MoreCost {
        let (before, after) = ((&self.worked, self.plan()), (made, then));
        MoreCost::between(self.inputs, before, after)
    }

    /// What was bought, or was there, gives way, and the mailer that it went in.
    pub(super) fn given_up(&self) -> Choices {
        let padded = self.inputs.choices.carriage == Some(Carriage::Padded);
        Choices {
            carriage: padded.then_some(Carriage::Flat),
            ..given_up()
        }
    }

    /// Tells whether the piece goes wrapped thin into a mailer of the stores.
    fn goes_padded(&self, id: &MaterialId) -> bool {
        let mailer = self
            .house
            .catalogue
            .mailers
            .iter()
            .any(|mailer| mailer.id == *id);
        mailer && goes_padded(&self.commission.piece, &self.commission.rules.allowances).is_ok()
    }

    /// Tells whether a plan in a padded mailer is worth naming first: the piece is not too dear for one, and no Stop or Mind comes
    /// that there is not already, odds past what the house accepts among them.
    fn accepts(&self, then: &Plan) -> bool {
        let dear = self.commission.rules.allowances.mailer_value.number();
        let value = self.commission.piece.value;
        value.is_none_or(|value| value <= dear) && self.plan().is_kept_by(then, f64::INFINITY)
    }

    pub(super) fn keeps(&self, then: &Plan) -> bool {
        let allowances = &self.commission.rules.allowances;
        self.usual
            .as_ref()
            .unwrap_or(self.plan())
            .is_kept_by(then, allowances.odds_worsening)
    }
}

/// Returns every style that the box of a shipment, or the second one around it, could be made in; `None` before the
/// piece is known, or where it goes in no box that is cut.
///
/// First come those that fit, raise no new Stop or Mind, and leave the odds as good as the house asks for; of them
/// the cheapest in money and work. Source: house rule.
///
/// # Errors
/// A [`Refusal`] when the plan as it is can't be made.
pub fn styles(
    inputs: &ShipmentInputs,
    house: &House,
    slot: LayerSlot,
) -> Result<Vec<StyleOffer>, Vec<Refusal>> {
    // Other plans are compared as they are planned, whatever this one was found to weigh.
    let inputs = &inputs.unweighed();
    let Some(asked) = BoxQuestion::of(inputs, house, slot)? else {
        return Ok(Vec::new());
    };
    let now = asked.layer_of(asked.plan());
    let cut_now = now.and_then(|layer| layer.make.carton());
    let pack = PackOf::at(slot);
    let mut offers = Vec::with_capacity(CartonStyle::ALL.len());
    for style in CartonStyle::ALL {
        let board = board_for(style, &asked);
        let made_so = pack.choices(Some(style), board);
        let (choices, made) = asked.choosing(match cut_now {
            Some(_) => made_so,
            // What was bought gives way.
            None => asked.given_up().patched(&made_so),
        });
        let made = made?;
        let then = made.plan.as_ref();
        let boxed = then.and_then(|then| {
            let layer = asked.layer_of(then)?;
            Some((then, layer, layer.make.carton()?))
        });
        let Some((then, layer, carton)) = boxed else {
            continue;
        };
        let more = asked.more_cost(&made, then);
        offers.push(StyleOffer {
            style,
            name: style.name(),
            why: style.why(),
            choices,
            chosen: cut_now.is_some_and(|now| now.style == style),
            keeps: asked.keeps(then),
            refused: refused(carton, house.rules.told_in),
            blanks: carton.parts().map(|(blank, _)| blank.clone()).collect(),
            board: carton.board(),
            sheets: sheets(carton),
            minutes: layer.minutes,
            outside: then.tally.outside,
            cost: more.whole,
            priced: more.priced,
            change: Change::between(asked.plan(), then),
        });
    }
    offers.sort_by_key(|offer| (offer.refused.is_some(), !offer.keeps, offer.cost.amount));
    Ok(offers)
}

/// Returns every carton and mailer of the stores that could take the place of the box of a shipment, those that fit and
/// keep first, of them the cheapest; `None` before the piece is known, or where it goes in no box that is cut.
///
/// # Errors
/// A [`Refusal`] when the plan as it is can't be made.
pub fn bought(inputs: &ShipmentInputs, house: &House) -> Result<Vec<BoughtOffer>, Vec<Refusal>> {
    // Other plans are compared as they are planned, whatever this one was found to weigh.
    let inputs = &inputs.unweighed();
    let Some(asked) = BoxQuestion::of(inputs, house, LayerSlot::Box)? else {
        return Ok(Vec::new());
    };
    let shelf = &house.catalogue;
    let cartons = shelf
        .picture_cartons
        .iter()
        .map(|carton| (&carton.id, &carton.name, &carton.shelf));
    let mailers = shelf
        .mailers
        .iter()
        .map(|mailer| (&mailer.id, &mailer.name, &mailer.shelf));
    let now = asked.layer_of(asked.plan()).map(|layer| &layer.material);
    let mut offers: Vec<BoughtOffer> = cartons
        .chain(mailers)
        .filter(|(_, _, shelf)| !shelf.retired)
        .map(|(id, name, _)| bought_offer(&asked, id, name, now == Some(id)))
        .collect();
    offers.sort_by_key(|offer| {
        let cost = offer.cost.as_ref().map(|cost| cost.amount);
        (offer.refused.is_some(), !offer.keeps, cost)
    });
    Ok(offers)
}

/// A travel case in place of the box.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CaseOffer {
    /// The choices to merge into those of the shipment.
    pub choices: Choices,
    /// Whether it is taken.
    pub chosen: bool,
    /// Whether it raises no new Stop or Mind, and the odds are as good as the house asks for.
    pub keeps: bool,
    /// Why it can't be built.
    pub refused: Option<String>,
    /// To build it.
    pub minutes: Option<Minutes>,
    /// The parcel outside.
    pub outside: Option<Envelope>,
    /// What it costs more to send this once, its materials spread over its journeys; less than zero where it saves.
    pub cost: Option<Money>,
    /// What it would change.
    pub change: Option<Change>,
}

/// Returns the travel case that could take the place of the box of a shipment; `None` before the piece is known, or where it goes in no
/// box that is cut.
///
/// # Errors
/// A [`Refusal`] when the plan as it is can't be made.
pub fn travel_case(
    inputs: &ShipmentInputs,
    house: &House,
) -> Result<Option<CaseOffer>, Vec<Refusal>> {
    // Other plans are compared as they are planned, whatever this one was found to weigh.
    let inputs = &inputs.unweighed();
    let Some(asked) = BoxQuestion::of(inputs, house, LayerSlot::Box)? else {
        return Ok(None);
    };
    let now = asked.layer_of(asked.plan());
    let chosen =
        now.is_some_and(|layer| matches!(&layer.make, Make::TravelCase(case) if !case.kept));
    let (choices, made) = asked.choosing(Choices {
        travel_case: Some(true),
        ..asked.given_up()
    });
    let nothing = CaseOffer {
        choices,
        chosen,
        keeps: false,
        refused: None,
        minutes: None,
        outside: None,
        cost: None,
        change: None,
    };
    let made = match made {
        Ok(made) => made,
        Err(refusals) => {
            let why = refusals.into_iter().next().map(|refusal| refusal.message);
            return Ok(Some(CaseOffer {
                refused: why,
                ..nothing
            }));
        }
    };
    Ok(made.plan.as_ref().map(|then| CaseOffer {
        keeps: asked.keeps(then),
        minutes: asked.layer_of(then).map(|layer| layer.minutes),
        outside: Some(then.tally.outside),
        cost: asked.cost(&made, then),
        change: Some(Change::between(asked.plan(), then)),
        ..nothing
    }))
}

/// What was bought, or was there, gives way.
fn given_up() -> Choices {
    let nothing = || Some(String::new());
    Choices {
        bought_box: Some(MaterialId::new("")),
        travel_case: Some(false),
        case_empty: nothing(),
        case_from: nothing(),
        saved_length: nothing(),
        saved_width: nothing(),
        saved_height: nothing(),
        saved_from: nothing(),
        saved_carrier: nothing(),
        second_saved_length: nothing(),
        second_saved_width: nothing(),
        second_saved_height: nothing(),
        second_saved_from: nothing(),
        ..Choices::default()
    }
}

fn bought_offer(asked: &BoxQuestion<'_>, id: &MaterialId, name: &str, chosen: bool) -> BoughtOffer {
    let padded = asked.goes_padded(id);
    let (choices, made) = asked.choosing(Choices {
        bought_box: Some(id.clone()),
        ..match padded {
            true => Choices {
                carriage: Some(Carriage::Padded),
                ..given_up()
            },
            false => asked.given_up(),
        }
    });
    let nothing = BoughtOffer {
        material: id.clone(),
        name: name.to_owned(),
        choices,
        chosen,
        keeps: false,
        refused: None,
        parts: None,
        minutes: None,
        outside: None,
        cost: None,
        change: None,
    };
    let made = match made {
        Ok(made) => made,
        Err(refusals) => {
            let why = refusals.into_iter().next().map(|refusal| refusal.message);
            return BoughtOffer {
                refused: why,
                ..nothing
            };
        }
    };
    let Some(then) = made.plan.as_ref() else {
        return nothing;
    };
    let layer = asked.layer_of(then);
    BoughtOffer {
        keeps: match padded {
            true => asked.accepts(then),
            false => asked.keeps(then),
        },
        parts: layer.and_then(|layer| match &layer.make {
            Make::BoughtBox(carton) => Some(carton.parts),
            Make::Mailer(mailer) => Some(mailer.count),
            _ => None,
        }),
        minutes: layer.map(|layer| layer.minutes),
        outside: Some(then.tally.outside),
        cost: asked.cost(&made, then),
        change: Some(Change::between(asked.plan(), then)),
        ..nothing
    }
}

/// Another board for a style that the one there is does not take: the house's own where it does, else the lightest.
fn board_for(style: CartonStyle, asked: &BoxQuestion<'_>) -> Option<MaterialId> {
    let rules = &asked.commission.rules;
    let now = match PackOf::at(asked.slot) {
        PackOf::Pack => rules.second_board.as_ref(),
        PackOf::Piece => None,
    };
    let now = now.unwrap_or(&rules.materials.box_board);
    let shelf = &asked.house.catalogue;
    if shelf.board(now).is_ok_and(|board| style.takes(board)) {
        return None;
    }
    let own = &asked.house.rules.materials.box_board;
    let takes = |board: &&Board| style.takes(board) && !board.shelf.retired;
    let boards = shelf.boards.iter().filter(takes);
    boards
        .min_by_key(|board| (board.id != *own, board.areal_density))
        .map(|board| board.id.clone())
}

/// Why a box is not made so: it does not fit the size, or no sheet takes a part.
fn refused(carton: &Carton, telling: Telling) -> Option<String> {
    let told = |length| telling.length(length);
    match carton.style.unfit(carton.size()) {
        Some(StyleRefusal::TooSmall { what, found, least }) => {
            return Some(format!(
                "its {what} would be {}; below {} they can't be folded by hand",
                told(found),
                told(least)
            ));
        }
        Some(StyleRefusal::PastTheWall { lid, wide }) => {
            return Some(format!(
                "its lapped lids would be {} long, more than the box width of {}",
                told(lid),
                told(wide)
            ));
        }
        Some(StyleRefusal::TooLong { what, found, most }) => {
            return Some(format!(
                "its {what} would be {} long; over {} it bows between its tapes",
                told(found),
                told(most)
            ));
        }
        None => {}
    }
    let (blank, _) = carton
        .parts()
        .find(|(_, sheet)| **sheet == SheetNeed::NoSheet)?;
    Some(format!(
        "no sheet of this board is {} × {}, even joined at its scores",
        told(blank.width),
        told(blank.height)
    ))
}

fn sheets(carton: &Carton) -> Option<u32> {
    carton
        .parts()
        .map(|(_, sheet)| match sheet {
            SheetNeed::One { .. } => Some(1),
            SheetNeed::Joined { sheets, .. } => Some(*sheets),
            SheetNeed::NoSheet => None,
        })
        .sum()
}

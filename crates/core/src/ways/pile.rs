//! Which carton of the pile would do for a shipment, and what to look for where none does.

use serde::Serialize;

use super::BoxQuestion;
use crate::{
    Refusal,
    carton::{BoxSize, SavedCarton},
    house::{Choices, SavedCut, SavedFace},
    layer::{Make, SavedBox},
    material::{Catalogue, KeptCase},
    plan::{Change, Plan},
    quantity::{Length, Minutes, Money},
    shipment::{House, ShipmentInputs, Workings},
    space::{Envelope, LayerSlot, Opens},
    stock::{Goods, Markings, PileCarton, StockItem},
};

/// What is done to a carton of the pile.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum FitWay {
    /// Nothing.
    AsIs,
    /// What it has over is filled.
    Filled,
    /// It is scored lower down.
    CutDown,
    /// It gets a sleeve.
    Extended,
    /// It is cut round, and its halves pushed into each other.
    Telescoped,
    /// An end of it and of a second one is cut off, and they are pushed into each other: longer than either.
    Joined,
}

/// A carton of the pile, for a shipment.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PileFit {
    /// Which, on the shelf.
    pub item: String,
    /// What is written on it.
    pub name: String,
    /// Where it stands.
    pub place: String,
    /// The carton.
    pub carton: PileCarton,
    /// The second one, where two are pushed into each other.
    pub second: Option<SecondOfPile>,
    /// What is done to it; `None` if it does not do.
    pub way: Option<FitWay>,
    /// The choices to merge into those of the shipment.
    pub choices: Choices,
    /// Whether the shipment has it.
    pub chosen: bool,
    /// Whether it raises no new Stop or Mind, and the odds are as good as the house asks for.
    pub keeps: bool,
    /// Why it does not do.
    pub refused: Option<String>,
    /// The box as it would be made; where and how it is cut.
    pub made: Option<SavedBox>,
    /// To make and close it.
    pub minutes: Option<Minutes>,
    /// The parcel outside.
    pub outside: Option<Envelope>,
    /// What carriage comes to then.
    pub carriage: Option<Money>,
    /// What it costs more to send (materials, work, overhead, and what the carrier is paid); less than zero where it saves.
    pub cost: Option<Money>,
    /// What it would change.
    pub change: Option<Change>,
}

/// A travel case of the shelf, for a shipment.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CaseFit {
    /// Which, on the shelf.
    pub item: String,
    /// What is written on it.
    pub name: String,
    /// Where it stands.
    pub place: String,
    /// The case.
    pub case: KeptCase,
    /// The choices to merge into those of the shipment.
    pub choices: Choices,
    /// Whether the shipment has it.
    pub chosen: bool,
    /// Whether it raises no new Stop or Mind, and the odds are as good as the house asks for.
    pub keeps: bool,
    /// Why it does not do.
    pub refused: Option<String>,
    /// To make it ready, load and close it, with a journey's share of building it.
    pub minutes: Option<Minutes>,
    /// The parcel outside.
    pub outside: Option<Envelope>,
    /// What carriage comes to then.
    pub carriage: Option<Money>,
    /// What it costs more to send (materials, work, overhead, and what the carrier is paid); less than zero where it saves.
    pub cost: Option<Money>,
    /// What it would change.
    pub change: Option<Change>,
}

/// A second carton of the pile, which the first is pushed into.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SecondOfPile {
    /// Which, on the shelf; the first itself where there are two alike.
    pub item: String,
    /// What is written on it.
    pub name: String,
    /// Where it stands.
    pub place: String,
    /// The carton.
    pub carton: PileCarton,
}

/// The sides of cartons that would do in one way, inside.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct WantedWay {
    /// On which side it opens.
    pub opens: Opens,
    /// What would be done to it.
    pub way: FitWay,
    /// Along its opening: from, and to where there is an end.
    pub length_mm: (Length, Option<Length>),
    /// Across its opening.
    pub width_mm: (Length, Option<Length>),
    /// How deep.
    pub depth_mm: (Length, Option<Length>),
    /// How many of these it takes.
    pub cartons: u32,
}

/// What to look for: a card to take along.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema), schema(as = Wanted))]
pub struct WantedCarton {
    /// What has to go in: the longer and the shorter side of its face, and through.
    pub inside_mm: [Length; 3],
    /// The least board, as the stores call it.
    pub board: String,
    /// Of that board.
    #[serde(rename = "caliper_mm")]
    pub caliper: Length,
    /// What would do, the least work first.
    pub ways: Vec<WantedWay>,
}

/// What the pile says to a shipment.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PileFits {
    /// Those that do, the best by the house's rule first; then those that don't, with why.
    pub fits: Vec<PileFit>,
    /// Travel cases that were built before: those that do, the best first; then those that don't, with why.
    pub cases: Vec<CaseFit>,
    /// What to look for; nothing for what goes in no box that could be cut.
    pub wanted: Option<WantedCarton>,
}

/// How much over on a side is no gap that is worth a word.
const NO_GAP: Length = Length::mm(20.0);
/// How much over on a side is filled without another thought.
const FILLED: Length = Length::mm(120.0);
/// Depths this much apart are not scored; nor are those within so many boards.
const UNSCORED: Length = Length::mm(15.0);
const UNSCORED_BOARDS: f64 = 3.0;
/// Lengths this much apart are cut round and pushed together.
const PUSHED: Length = Length::mm(60.0);
/// What a sleeve stands in, and what it adds at least.
const SLEEVED_FROM: Length = Length::mm(80.0);
const SLEEVE_MORE: Length = Length::mm(20.0);
const SLEEVE_PLAY: Length = Length::mm(2.0);
/// How many pairs are tried; whoever has more of them has single ones that do.
const MOST_PAIRS: usize = 24;

/// Returns which cartons of the pile would do for a shipment: as they are, filled, cut down, with a sleeve, or cut round and
/// pushed together; of each the cheapest way in money and work. Those that raise no new Stop or Mind and keep the odds come
/// first. Source: house rule.
///
/// # Errors
/// A [`Refusal`] when the plan as it is can't be made.
pub fn what_fits(
    inputs: &ShipmentInputs,
    house: &House,
    pile: &[StockItem],
) -> Result<PileFits, Vec<Refusal>> {
    // Other plans are compared as they are planned, whatever this one was found to weigh.
    let inputs = &inputs.unweighed();
    let nothing = PileFits {
        fits: Vec::new(),
        cases: Vec::new(),
        wanted: None,
    };
    let Some(asked) = BoxQuestion::of(inputs, house, LayerSlot::Box)? else {
        return Ok(nothing);
    };
    let (_, cut) = asked.choosing(asked.given_up());
    let wanted = cut
        .ok()
        .and_then(|worked| worked.plan)
        .and_then(|plan| wanted(&plan, &house.catalogue));
    let cartons: Vec<(&StockItem, &PileCarton)> = pile
        .iter()
        .filter(|item| item.left > 0)
        .filter_map(|item| match &item.goods {
            Goods::Carton(carton) => Some((item, carton)),
            _ => None,
        })
        .collect();
    let mut fits: Vec<PileFit> = cartons
        .iter()
        .map(|&(item, carton)| fit(&asked, item, carton, wanted.as_ref()))
        .collect();
    // Two are cut up only where one alone does not do.
    if !fits.iter().any(|fit| fit.keeps) {
        let held = wanted.as_ref().map(|wanted| wanted.inside_mm);
        let pairs = held.map(|held| pairs(&cartons, held)).unwrap_or_default();
        fits.extend(
            pairs
                .into_iter()
                .filter_map(|(first, second)| pair(&asked, first, second)),
        );
    }
    fits.sort_by(|one, other| {
        let rank = |fit: &PileFit| {
            let cost = fit.cost.as_ref().map(|cost| cost.amount);
            (fit.refused.is_some(), !fit.keeps, cost, fit.way)
        };
        rank(one)
            .cmp(&rank(other))
            .then_with(|| one.item.cmp(&other.item))
    });
    let cases = pile.iter().filter(|item| item.left > 0);
    let mut cases: Vec<CaseFit> = cases
        .filter_map(|item| match &item.goods {
            Goods::Case(case) => Some(cased(&asked, item, case)),
            _ => None,
        })
        .collect();
    cases.sort_by(|one, other| {
        let rank = |fit: &CaseFit| {
            let cost = fit.cost.as_ref().map(|cost| cost.amount);
            (fit.refused.is_some(), !fit.keeps, cost)
        };
        rank(one)
            .cmp(&rank(other))
            .then_with(|| one.item.cmp(&other.item))
    });
    Ok(PileFits {
        fits,
        cases,
        wanted,
    })
}

/// A case that was built before, around what goes in.
fn cased(asked: &BoxQuestion<'_>, item: &StockItem, case: &KeptCase) -> CaseFit {
    let now = &asked.inputs.choices;
    let chosen = now.travel_case == Some(true) && now.case_from.as_deref() == Some(&item.id);
    let (choices, made) = asked.choosing(Choices {
        travel_case: Some(true),
        case_from: Some(item.id.clone()),
        case_kept: Some(case.clone()),
        ..asked.given_up()
    });
    let mut fit = CaseFit {
        item: item.id.clone(),
        name: item.name.clone(),
        place: item.place.clone(),
        case: case.clone(),
        choices,
        chosen,
        keeps: false,
        refused: None,
        minutes: None,
        outside: None,
        carriage: None,
        cost: None,
        change: None,
    };
    let made = match made {
        Ok(made) => made,
        Err(refusals) => {
            fit.refused = refusals.into_iter().next().map(|one| one.message);
            return fit;
        }
    };
    let Some(then) = made.plan.as_ref() else {
        return fit;
    };
    let mut layers = then.layers.iter();
    let changed = ShipmentInputs {
        choices: asked.inputs.choices.patched(&fit.choices),
        ..asked.inputs.clone()
    };
    fit.keeps = asked.keeps(then);
    fit.minutes = layers
        .find(|layer| layer.slot == LayerSlot::Box)
        .map(|layer| layer.minutes);
    fit.outside = Some(then.tally.outside);
    fit.carriage = made.price(&changed).cloned();
    fit.cost = asked.cost(&made, then);
    fit.change = Some(Change::between(asked.plan(), then));
    fit
}

fn fit(
    asked: &BoxQuestion<'_>,
    item: &StockItem,
    carton: &PileCarton,
    wanted: Option<&WantedCarton>,
) -> PileFit {
    let refused = |says: String| PileFit {
        item: item.id.clone(),
        name: item.name.clone(),
        place: item.place.clone(),
        carton: carton.clone(),
        second: None,
        way: None,
        choices: Choices::default(),
        chosen: false,
        keeps: false,
        refused: Some(says),
        made: None,
        minutes: None,
        outside: None,
        carriage: None,
        cost: None,
        change: None,
    };
    if let Some(spoilt) = carton.spoilt() {
        return refused(spoilt.to_owned());
    }
    let mut best: Option<PileFit> = None;
    let mut why = None;
    for cut in [SavedCut::Depth, SavedCut::LengthToo] {
        let choices = chosen_as(asked, (item, carton), cut);
        let (choices, made) = asked.choosing(choices);
        let made = match made {
            Ok(made) => made,
            Err(refusals) => {
                why = why.or_else(|| refusals.into_iter().next().map(|one| one.message));
                continue;
            }
        };
        let Some(one) = made_of(asked, (item, carton), choices, &made, wanted) else {
            continue;
        };
        let cheaper = |best: &PileFit| {
            let rank = |fit: &PileFit| (!fit.keeps, fit.cost.as_ref().map(|cost| cost.amount));
            rank(&one) < rank(best)
        };
        if best.as_ref().is_none_or(cheaper) {
            best = Some(one);
        }
    }
    best.unwrap_or_else(|| refused(why.unwrap_or_else(|| "too large for it".to_owned())))
}

type OfPile<'a> = (&'a StockItem, &'a PileCarton);

/// Two of the pile that could be joined around something as long as that, whole ones of one board, the first no shorter.
fn pairs<'a>(cartons: &[OfPile<'a>], held: [Length; 3]) -> Vec<(OfPile<'a>, OfPile<'a>)> {
    let sound = |of: &PileCarton| of.spoilt().is_none() && of.markings != Markings::Printed;
    let saved = |of: &PileCarton| {
        SavedCarton(BoxSize {
            length: of.length.max(of.width),
            width: of.length.min(of.width),
            height: of.depth,
            caliper: Length::ZERO,
        })
    };
    let whole: Vec<OfPile<'_>> = cartons
        .iter()
        .filter(|(_, carton)| sound(carton))
        .copied()
        .collect();
    let mut found = Vec::new();
    for (at, &(item, carton)) in whole.iter().enumerate() {
        for &(other_item, other) in &whole[at..] {
            let one_alone = item.id == other_item.id && item.left < 2;
            let alike = carton.board == other.board
                && carton.carrier == other.carrier
                && carton.opens == other.opens;
            let held = carton.opens.in_carton(held);
            let (first, second) = (saved(carton), saved(other));
            let [_, most] = first.joined_range(second);
            let short = held[0] > first.0.length.max(second.0.length);
            let deep = held[2] <= first.0.height.min(second.0.height);
            let wide = held[1] <= first.0.width.min(second.0.width);
            if !one_alone && alike && short && deep && wide && held[0] <= most {
                found.push(((item, carton), (other_item, other)));
            }
        }
    }
    // The less of them is cut away, the better.
    found.sort_by_key(|((_, first), (_, second))| {
        let length = |of: &PileCarton| of.length.max(of.width);
        length(first) + length(second)
    });
    found.truncate(MOST_PAIRS);
    found
}

/// Two of the pile pushed into each other; `None` if they can't be.
fn pair(asked: &BoxQuestion<'_>, first: OfPile<'_>, second: OfPile<'_>) -> Option<PileFit> {
    let (other_item, other) = second;
    let typed = |side: Length| Some(format!("{} mm", side.as_mm()));
    let choices = Choices {
        second_saved_length: typed(other.length.max(other.width)),
        second_saved_width: typed(other.length.min(other.width)),
        second_saved_height: typed(other.depth),
        second_saved_from: Some(other_item.id.clone()),
        ..chosen_as(asked, first, SavedCut::Depth)
    };
    let (choices, made) = asked.choosing(choices);
    let fit = made_of(asked, first, choices, &made.ok()?, None)?;
    let chosen = fit.chosen
        && asked.inputs.choices.second_saved_from.as_deref() == Some(other_item.id.as_str());
    Some(PileFit {
        chosen,
        second: Some(SecondOfPile {
            item: other_item.id.clone(),
            name: other_item.name.clone(),
            place: other_item.place.clone(),
            carton: other.clone(),
        }),
        ..fit
    })
}

/// What a shipment chooses to have a carton of the pile.
fn chosen_as(asked: &BoxQuestion<'_>, (item, carton): OfPile<'_>, cut: SavedCut) -> Choices {
    let typed = |side: Length| Some(format!("{} mm", side.as_mm()));
    let face = match carton.markings {
        Markings::Printed => SavedFace::InsideOut,
        Markings::Plain | Markings::Labels => SavedFace::AsItWas,
    };
    Choices {
        bought_box: Some(crate::material::MaterialId::new("")),
        saved_length: typed(carton.length.max(carton.width)),
        saved_width: typed(carton.length.min(carton.width)),
        saved_height: typed(carton.depth),
        saved_opens: Some(carton.opens),
        saved_cut: Some(cut),
        saved_face: Some(face),
        saved_from: Some(item.id.clone()),
        saved_carrier: Some(carton.carrier.clone()),
        second_saved_length: Some(String::new()),
        second_saved_width: Some(String::new()),
        second_saved_height: Some(String::new()),
        second_saved_from: Some(String::new()),
        box_board: Some(carton.board.clone()),
        ..asked.given_up()
    }
}

fn made_of(
    asked: &BoxQuestion<'_>,
    (item, carton): (&StockItem, &PileCarton),
    choices: Choices,
    made: &Workings,
    wanted: Option<&WantedCarton>,
) -> Option<PileFit> {
    let then = made.plan.as_ref()?;
    let layer = then
        .layers
        .iter()
        .find(|layer| layer.slot == LayerSlot::Box)?;
    let Make::SavedBox(saved) = &layer.make else {
        return None;
    };
    let chosen = asked.inputs.choices.saved_from.as_deref() == Some(item.id.as_str())
        && asked
            .inputs
            .choices
            .saved_length
            .as_deref()
            .is_some_and(|text| !text.is_empty())
        && saved.second.is_some()
            == asked
                .inputs
                .choices
                .second_saved_length
                .as_deref()
                .is_some_and(|text| !text.is_empty());
    let now = asked.plan();
    let changed = ShipmentInputs {
        choices: asked.inputs.choices.patched(&choices),
        ..asked.inputs.clone()
    };
    Some(PileFit {
        item: item.id.clone(),
        name: item.name.clone(),
        place: item.place.clone(),
        carton: carton.clone(),
        second: None,
        way: Some(way_of(saved, wanted)),
        choices,
        chosen,
        keeps: asked.keeps(then),
        refused: None,
        made: Some(saved.clone()),
        minutes: Some(layer.minutes),
        outside: Some(then.tally.outside),
        carriage: made.price(&changed).cloned(),
        cost: asked.cost(made, then),
        change: Some(Change::between(now, then)),
    })
}

fn way_of(saved: &SavedBox, wanted: Option<&WantedCarton>) -> FitWay {
    if saved.second.is_some() {
        return FitWay::Joined;
    }
    if saved.shorter.is_some() {
        return FitWay::Telescoped;
    }
    if saved.sleeve.is_some() {
        return FitWay::Extended;
    }
    if saved.cut.is_some() {
        return FitWay::CutDown;
    }
    let needed = wanted.map_or(saved.inside_mm, |wanted| {
        saved.opens.in_carton(wanted.inside_mm)
    });
    let mut over = saved
        .inside_mm
        .iter()
        .zip(needed)
        .map(|(has, needs)| *has - needs);
    if over.all(|over| over <= NO_GAP) {
        FitWay::AsIs
    } else {
        FitWay::Filled
    }
}

/// What to look for in place of a box that is cut.
fn wanted(plan: &Plan, catalogue: &Catalogue) -> Option<WantedCarton> {
    let carton = plan
        .layers
        .iter()
        .find(|layer| layer.slot == LayerSlot::Box)?;
    let made = carton.make.carton()?;
    let board = catalogue.board(&carton.material).ok()?;
    let c = board.caliper;
    let inside_mm = [made.inside_length, made.inside_width, made.inside_height];
    let ways = Opens::ALL
        .into_iter()
        .flat_map(|opens| ways_of(opens, opens.in_carton(inside_mm), c))
        .collect();
    Some(WantedCarton {
        inside_mm,
        board: board.name.clone(),
        caliper: c,
        ways,
    })
}

/// The cartons that would do which open on a side, for what lies so in them: along the opening, across it and deep.
fn ways_of(opens: Opens, [length, width, depth]: [Length; 3], c: Length) -> Vec<WantedWay> {
    let scored = UNSCORED.max(c * UNSCORED_BOARDS);
    let close = |side: Length| (side, Some(side + NO_GAP));
    let filled = |side: Length| (side, Some(side + FILLED));
    let sleeve = c * 2.0 + SLEEVE_PLAY;
    let half = (depth / 2.0).max(SLEEVED_FROM);
    let mut ways = vec![
        WantedWay {
            opens,
            way: FitWay::AsIs,
            length_mm: close(length),
            width_mm: close(width),
            depth_mm: (depth, Some(depth + scored)),
            cartons: 1,
        },
        WantedWay {
            opens,
            way: FitWay::Filled,
            length_mm: filled(length),
            width_mm: filled(width),
            depth_mm: (depth, Some(depth + scored)),
            cartons: 1,
        },
        WantedWay {
            opens,
            way: FitWay::CutDown,
            length_mm: filled(length),
            width_mm: filled(width),
            depth_mm: (depth + scored, None),
            cartons: 1,
        },
    ];
    if half + SLEEVE_MORE <= depth {
        ways.push(WantedWay {
            opens,
            way: FitWay::Extended,
            length_mm: filled(length + sleeve),
            width_mm: filled(width + sleeve),
            depth_mm: (half, Some(depth - SLEEVE_MORE)),
            cartons: 1,
        });
    }
    ways.push(WantedWay {
        opens,
        way: FitWay::Telescoped,
        length_mm: (length + PUSHED, None),
        width_mm: filled(width + c * 2.0),
        depth_mm: (depth + c * 2.0, None),
        cartons: 1,
    });
    // Two alike, slit where they lap. Their short end walls are what is cut off: without a long one, whose flaps cover the
    // face, it would not close.
    let least = SavedCarton::least_of_two(length).max(width + c * 2.0);
    if least + NO_GAP < length {
        ways.push(WantedWay {
            opens,
            way: FitWay::Joined,
            length_mm: (least, Some(length - Length::mm(1.0))),
            width_mm: filled(width + c * 2.0),
            depth_mm: (depth + c * 2.0, None),
            cartons: 2,
        });
    }
    ways
}

//! The front of ways: of all that a piece could be packed and sent in, what nothing else beats in cost, odds, minutes and
//! plastic.

use std::collections::{HashSet, VecDeque};

use rust_decimal::Decimal;
use serde::Serialize;

use super::{alternatives::options, changes::can_be_cut, choosing};
use crate::{
    Refusal,
    house::{Allowances, Carriage, CartonStyle, Choices, CoverRule},
    layer::{PackOf, tried},
    plan::{Change, FindingLevel, OneIn, Plan},
    quantity::{Length, Mass, Minutes, Money},
    shipment::{COVER_BELOW_VALUE, Commission, House, ShipmentInputs, Workings},
    space::LayerSlot,
};

/// One way to pack and send a piece.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Way {
    /// What it does otherwise than the plan there is, part by part; `None` if only the service is another.
    pub parts: Vec<String>,
    /// The choices to merge into those of the shipment.
    pub choices: Choices,
    /// The service, as `gannet-post/parcel`.
    pub service: String,
    /// Its carrier's name.
    pub carrier: String,
    /// Its name.
    pub service_name: String,
    /// What it costs in all: the `total` of its `cost`.
    pub cost: Money,
    /// That it arrives damaged.
    pub odds: OneIn,
    /// Of work, to the minute.
    pub minutes: Minutes,
    /// To the gram.
    #[serde(rename = "plastic_g")]
    pub plastic: Mass,
    /// What it would change about the parcel.
    pub change: Change,
    /// Whether it is the plan there is, with the service that is chosen or the best.
    pub is_now: bool,
    /// Whether nothing beats it; only the plan there is stands among the others although something does.
    pub unbeaten: bool,
    /// Whether it stands in the short list: safer by a tenth than everything cheaper that leads, minutes and plastic aside. At
    /// most seven lead, the plan there is counted with them.
    pub leads: bool,
}

/// A way that was looked at and is beaten: only where it lies.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema), schema(as = Beaten))]
pub struct BeatenWay {
    /// What it costs in all, in the studio's money.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub cost: Decimal,
    /// That it arrives damaged: about one in so many.
    pub about: u32,
}

/// The ways that nothing beats, among those looked at so far.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Front {
    /// The cheapest first.
    pub ways: Vec<Way>,
    /// Some of all that was looked at, evenly, for a picture.
    pub others: Vec<BeatenWay>,
    /// How many plans were made.
    pub plans: u32,
    /// How many ways, each of them a plan and a service, were looked at.
    pub looked_at: u32,
    /// How many plans are made at most.
    pub most: u32,
    /// Whether there is nothing more to look at.
    pub done: bool,
}

impl Front {
    /// What is told before there is a plan, or before it is known where it goes.
    pub const NOTHING: Self = Self {
        ways: Vec::new(),
        others: Vec::new(),
        plans: 0,
        looked_at: 0,
        most: 0,
        done: true,
    };
}

/// How many plans are made before the front is told.
const AT_A_TIME: usize = 48;
const MOST_TURNS: u32 = 3;
/// Odds that are better by less are not told apart in a short list.
const WORTH_A_WORD: f64 = 1.1;
/// How many ways a short list has, with the plan there is.
const MOST_LEADING: usize = 7;
/// How many of the others are kept for a picture.
const MOST_OTHERS: usize = 480;

/// One thing that can be done in several ways; the first of them is as it is.
struct Axis {
    options: Vec<(String, Choices)>,
}

/// Which option of every axis.
type Picks = Vec<u8>;

/// Looks at one way after the other.
pub struct Explorer<'a> {
    house: &'a House,
    inputs: ShipmentInputs,
    now: Workings,
    commission: Commission<'a>,
    axes: Vec<Axis>,
    known: Vec<&'static str>,
    waiting: VecDeque<Picks>,
    seen: HashSet<Picks>,
    front: Vec<(Picks, Way)>,
    present: Option<Way>,
    others: Vec<BeatenWay>,
    /// One of so many is kept.
    one_of: u32,
    plans: u32,
    looked_at: u32,
    most: u32,
}

impl<'a> Explorer<'a> {
    /// Begins with the plan there is, and everything that is one change away from it; `None` before there is a plan and it is
    /// known where it goes.
    ///
    /// # Errors
    /// A [`Refusal`] when the plan as it is can't be made.
    pub fn of(
        inputs: &ShipmentInputs,
        house: &'a House,
        most: u32,
    ) -> Result<Option<Self>, Vec<Refusal>> {
        // Other plans are compared as they are planned, whatever this one was found to weigh.
        let inputs = inputs.unweighed();
        let Some(piece) = inputs.piece()? else {
            return Ok(None);
        };
        let commission = Commission::of(&inputs, piece, house)?;
        let now = Workings::out(&inputs, house)?;
        let Some(plan) = now.plan.as_ref().filter(|_| !now.quotes.is_empty()) else {
            return Ok(None);
        };
        let axes = axes(plan, &commission, house);
        let loud = plan.findings.iter();
        let loud = loud.filter(|finding| finding.level != FindingLevel::Note);
        let known = loud.map(|finding| finding.code).collect();
        let first: Picks = vec![0; axes.len()];
        let mut explorer = Self {
            house,
            inputs,
            now,
            commission,
            axes,
            known,
            waiting: VecDeque::new(),
            seen: HashSet::from([first.clone()]),
            front: Vec::new(),
            present: None,
            others: Vec::new(),
            one_of: 1,
            plans: 0,
            looked_at: 0,
            most,
        };
        explorer.waiting.push_back(first.clone());
        explorer.look_around(&first);
        Ok(Some(explorer))
    }

    /// Has everything wait that is one change away.
    fn look_around(&mut self, from: &Picks) {
        for (at, axis) in self.axes.iter().enumerate() {
            for option in 0..axis.options.len() {
                let option = u8::try_from(option).unwrap_or(u8::MAX);
                if from[at] != option {
                    let mut to = from.clone();
                    to[at] = option;
                    if self.seen.insert(to.clone()) {
                        self.waiting.push_back(to);
                    }
                }
            }
        }
    }

    /// Tells whether there is nothing more to look at.
    #[must_use]
    pub fn is_done(&self) -> bool {
        self.waiting.is_empty() || self.plans >= self.most
    }

    /// Looks at some more ways, on so many threads; what is found is the same on any number of them.
    pub fn go_on(&mut self, threads: usize) {
        let left = usize::try_from(self.most.saturating_sub(self.plans)).unwrap_or(usize::MAX);
        let count = AT_A_TIME.min(left).min(self.waiting.len());
        let picked: Vec<Picks> = self.waiting.drain(..count).collect();
        let each = picked.len().div_ceil(threads.max(1)).max(1);
        let found: Vec<Vec<Way>> = std::thread::scope(|scope| {
            let this = &*self;
            let mut others: Vec<_> = picked
                .chunks(each)
                .map(|chunk| {
                    scope.spawn(move || {
                        chunk
                            .iter()
                            .map(|picks| this.ways(picks))
                            .collect::<Vec<_>>()
                    })
                })
                .collect();
            others
                .drain(..)
                .flat_map(|other| match other.join() {
                    Ok(found) => found,
                    Err(failed) => std::panic::resume_unwind(failed),
                })
                .collect()
        });
        for (picks, ways) in picked.into_iter().zip(found) {
            self.plans += 1;
            let mut stays = false;
            for way in ways {
                self.looked_at += 1;
                if way.is_now {
                    self.present = Some(way.clone());
                }
                self.notes(&way);
                stays |= self.takes(&picks, way);
            }
            // What is beside a way that nothing beats may be better still.
            if stays {
                self.look_around(&picks);
            }
        }
    }

    /// Keeps where some of them lie: where there are too many, every other one is let go.
    fn notes(&mut self, way: &Way) {
        if !self.looked_at.is_multiple_of(self.one_of) {
            return;
        }
        if self.others.len() == MOST_OTHERS {
            let mut at = 0;
            self.others.retain(|_| {
                at += 1;
                at % 2 == 1
            });
            self.one_of *= 2;
        }
        self.others.push(BeatenWay {
            cost: way.cost.amount,
            about: way.odds.about,
        });
    }

    /// Takes a way in where nothing beats it, and lets go of what it beats.
    fn takes(&mut self, picks: &Picks, way: Way) -> bool {
        if self
            .front
            .iter()
            .any(|(_, other)| other.is_as_good_as(&way))
        {
            return false;
        }
        self.front.retain(|(_, other)| !way.is_as_good_as(other));
        self.front.push((picks.clone(), way));
        true
    }

    /// Returns what nothing beats so far, the cheapest first; and the plan there is, wherever it stands.
    #[must_use]
    pub fn front(&self) -> Front {
        let mut ways: Vec<Way> = self.front.iter().map(|(_, way)| way.clone()).collect();
        if let Some(present) = &self.present
            && !ways.iter().any(|way| way.is_now)
        {
            ways.push(Way {
                unbeaten: false,
                leads: false,
                ..present.clone()
            });
        }
        ways.sort_by(|one, other| {
            let rank = |way: &Way| (way.cost.amount, std::cmp::Reverse(way.odds.about));
            rank(one)
                .cmp(&rank(other))
                .then_with(|| one.service.cmp(&other.service))
        });
        let mut safest = 0;
        for way in ways.iter_mut().filter(|way| way.unbeaten) {
            // The cheapest come first: whoever is safer by what is worth a word than all that lead leads too.
            way.leads = f64::from(way.odds.about) >= f64::from(safest) * WORTH_A_WORD;
            if way.leads {
                safest = way.odds.about;
            }
        }
        shorten(&mut ways);
        Front {
            ways,
            others: self.others.clone(),
            plans: self.plans,
            looked_at: self.looked_at,
            most: self.most,
            done: self.is_done(),
        }
    }

    /// Makes one plan, and returns it with every service that takes it.
    fn ways(&self, picks: &Picks) -> Vec<Way> {
        let plan_now = self.now.plan.as_ref().expect("it was asked for one");
        let picked = || {
            let axes = self.axes.iter().zip(picks);
            axes.map(|(axis, pick)| &axis.options[usize::from(*pick)])
        };
        let is_now = picks.iter().all(|pick| *pick == 0);
        let choices = picked().fold(Choices::default(), |choices, (_, more)| {
            choices.patched(more)
        });
        let (choices, changed) = choosing(&self.inputs, plan_now.began.as_ref(), choices);
        let worked;
        let worked = if is_now {
            &self.now
        } else {
            let Ok(made) = Workings::out(&changed, self.house) else {
                return Vec::new();
            };
            worked = made;
            &worked
        };
        let Some(plan) = worked
            .plan
            .as_ref()
            .filter(|plan| is_now || self.can_stand(plan))
        else {
            return Vec::new();
        };
        let parts: Vec<String> = picked()
            .zip(picks)
            .filter(|(_, pick)| **pick > 0)
            .map(|((label, _), _)| label.clone())
            .collect();
        let here = self
            .now
            .chosen_or_best(&self.inputs)
            .map(|quote| quote.id.as_str());
        let change = Change::between(plan_now, plan);
        let full = self.commission.rules.schools.cover == CoverRule::Full;
        let knows_short = self.known.contains(&COVER_BELOW_VALUE);
        let quotes = worked.quotes.iter();
        quotes
            .filter_map(|quote| {
                let cost = quote.cost.as_ref()?.total.clone();
                let is_now = is_now && here == Some(quote.id.as_str());
                let short = full && quote.uncovered.is_some() && !knows_short;
                let (probability, odds) = self.odds_by(plan, &quote.id);
                if !is_now && (short || probability > plan.odds.accepted) {
                    return None;
                }
                Some(Way {
                    parts: parts.clone(),
                    choices: choices.clone(),
                    service: quote.id.clone(),
                    carrier: quote.carrier.clone(),
                    service_name: quote.service.clone(),
                    cost,
                    odds,
                    minutes: Minutes::min_of(plan.tally.minutes.as_min().round()),
                    plastic: Mass::g(plan.tally.plastic.as_g().round()),
                    change: change.clone(),
                    is_now,
                    unbeaten: true,
                    leads: false,
                })
            })
            .collect()
    }

    /// The odds of a plan on the way that a service goes.
    fn odds_by(&self, plan: &Plan, service: &str) -> (f64, OneIn) {
        let way = self.house.way_of(&self.inputs, Some(service));
        plan.odds.on(&self.commission.rules.odds, way)
    }

    /// Tells whether a plan raises no new Stop or Mind, and can be cut from the shelf; its odds are looked at by service.
    fn can_stand(&self, plan: &Plan) -> bool {
        let by_service = [crate::plan::ODDS_PAST_ACCEPTED, COVER_BELOW_VALUE];
        let mut loud = plan
            .findings
            .iter()
            .filter(|finding| finding.level != FindingLevel::Note);
        let shelf = &self.house.catalogue;
        // What it costs is not known before every material has its price.
        plan.unpriced.is_empty()
            && loud.all(|finding| {
                self.known.contains(&finding.code) || by_service.contains(&finding.code)
            })
            && (can_be_cut(plan, shelf)
                || !can_be_cut(self.now.plan.as_ref().expect("it was asked for one"), shelf))
    }
}

impl Way {
    /// Tells whether it is no worse than another in anything that is shown.
    #[must_use]
    pub fn is_as_good_as(&self, other: &Self) -> bool {
        self.cost.amount <= other.cost.amount
            && self.odds.about >= other.odds.about
            && self.minutes <= other.minutes
            && self.plastic <= other.plastic
    }
}

/// What can be done otherwise: each layer by what else it could be, the turns of the wraps, how the box is made, how closely it
/// fits, and a mailer in its place.
fn axes(plan: &Plan, commission: &Commission<'_>, house: &House) -> Vec<Axis> {
    let has = |slot: LayerSlot| plan.layers.iter().any(|layer| layer.slot == slot);
    let material_of = |slot: LayerSlot| {
        let layer = plan.layers.iter().find(|layer| layer.slot == slot)?;
        Some(layer.material_name.clone())
    };
    let allowances = &commission.rules.allowances;
    let mut axes: Vec<Axis> = tried()
        .into_iter()
        .map(|slot| {
            let offers = options(
                &commission.piece,
                &commission.rules,
                &house.catalogue,
                plan,
                slot,
            );
            let there = material_of(slot);
            let named = offers
                .into_iter()
                .filter(|(label, _)| there.as_ref() != Some(label))
                .map(|(label, choices)| (named(slot, &label), choices));
            Axis {
                options: std::iter::once(as_it_is()).chain(named).collect(),
            }
        })
        .collect();
    let turned = |label: String, first, second| {
        let choices = Choices {
            first_turns: first,
            second_turns: second,
            ..Choices::default()
        };
        (label, choices)
    };
    if has(LayerSlot::FirstWrap) && plan.carriage != Carriage::Rolled {
        let turns = (1..=MOST_TURNS).filter(|turns| *turns != allowances.first_turns);
        axes.push(Axis {
            options: std::iter::once(as_it_is())
                .chain(turns.map(|turns| {
                    turned(
                        format!("first wrap, {turns} times around"),
                        Some(turns),
                        None,
                    )
                }))
                .collect(),
        });
    }
    if has(LayerSlot::SecondWrap) {
        let turns = (1..=MOST_TURNS).filter(|turns| *turns != allowances.second_turns);
        axes.push(Axis {
            options: std::iter::once(as_it_is())
                .chain(turns.map(|turns| {
                    turned(
                        format!("second wrap, {turns} times around"),
                        None,
                        Some(turns),
                    )
                }))
                .collect(),
        });
    }
    if let Some(carton) = plan.carton() {
        // Every way names its style, so that none is chosen for it.
        let styled = |style: CartonStyle| PackOf::Piece.choices(Some(style), None);
        let others = CartonStyle::ALL
            .into_iter()
            .filter(|style| *style != carton.style);
        axes.push(Axis {
            options: std::iter::once((String::new(), styled(carton.style)))
                .chain(others.map(|style| (style.name().to_lowercase(), styled(style))))
                .collect(),
        });
    }
    axes.extend(plan.carton().into_iter().flat_map(|_| closer(allowances)));
    let carriage = |carriage| Choices {
        carriage: Some(carriage),
        ..Choices::default()
    };
    let other = match plan.carriage {
        Carriage::Mailed => Some(("a box in place of the mailer", carriage(Carriage::Folio))),
        Carriage::Folio => Some(("a mailer in place of the box", carriage(Carriage::Mailed))),
        Carriage::Padded => Some(("a box in place of the mailer", carriage(Carriage::Flat))),
        Carriage::Flat | Carriage::Rolled => None,
    };
    if let Some((label, choices)) = other {
        axes.push(Axis {
            options: vec![as_it_is(), (label.to_owned(), choices)],
        });
    }
    axes.retain(|axis| axis.options.len() > 1);
    axes
}

/// How closely the box fits at the sides and in depth, each on its own: halfway to a snug box, and snug.
fn closer(allowances: &Allowances) -> [Axis; 2] {
    let snug = allowances.snug_clearance;
    let set = |length: Length| Some(format!("{} mm", length.as_mm()));
    let each = |now: Length, half: &str, close: &str, choices: fn(Option<String>) -> Choices| {
        let halfway = Length::mm(((now + snug) / 2.0).as_mm().round());
        let steps = [(half, halfway), (close, snug)];
        let less = steps.into_iter().filter(|(_, length)| *length < now);
        let less = less.map(|(label, length)| (label.to_owned(), choices(set(length))));
        Axis {
            options: std::iter::once(as_it_is()).chain(less).collect(),
        }
    };
    [
        each(
            allowances.clearance,
            "half the clearance",
            "a snug box",
            |clearance| Choices {
                clearance,
                ..Choices::default()
            },
        ),
        each(
            allowances.depth_clearance,
            "half the depth clearance",
            "snug in depth",
            |depth_clearance| Choices {
                depth_clearance,
                ..Choices::default()
            },
        ),
    ]
}

/// Leaves at most seven in the short list: what adds least to the odds of the one before it is let go, never the cheapest, the
/// safest or the plan there is.
fn shorten(ways: &mut [Way]) {
    loop {
        let leading: Vec<usize> = (0..ways.len()).filter(|at| ways[*at].leads).collect();
        let apart = ways.iter().any(|way| way.is_now && !way.leads);
        if leading.len() + usize::from(apart) <= MOST_LEADING {
            return;
        }
        let gain = |pair: &[usize]| {
            f64::from(ways[pair[1]].odds.about) / f64::from(ways[pair[0]].odds.about)
        };
        let between = leading.windows(2).take(leading.len() - 2);
        let least = between
            .filter(|pair| !ways[pair[1]].is_now)
            .min_by(|one, other| gain(one).total_cmp(&gain(other)))
            .map(|pair| pair[1]);
        let Some(least) = least else {
            return;
        };
        ways[least].leads = false;
    }
}

fn as_it_is() -> (String, Choices) {
    (String::new(), Choices::default())
}

/// What a layer would be, as it stands in a list.
fn named(slot: LayerSlot, label: &str) -> String {
    let name = slot.name();
    if label == "Leave it out" {
        format!("no {name}")
    } else if let Some(added) = label.strip_prefix("Add ") {
        added.to_owned()
    } else {
        format!("{name}: {label}")
    }
}

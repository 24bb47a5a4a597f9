//! Laying parts out on sheets, so that they cost little: a first layout, then taken apart in places and put together
//! again, a step at a time.

use std::rc::Rc;

use super::tree::{Lying, Pm, Spot, Tree, Waste};

/// A kind of sheet, with room for the cut beyond each part.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) struct Stock {
    pub w: Pm,
    pub h: Pm,
    /// In the least unit of its currency.
    pub price: i64,
    pub count: u32,
}

/// A part to be cut, once.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) struct Piece {
    pub w: Pm,
    pub h: Pm,
    pub turns: bool,
}

impl Piece {
    pub(super) fn area(self) -> i128 {
        i128::from(self.w) * i128::from(self.h)
    }

    pub(super) fn ways(self, part: u32) -> impl Iterator<Item = Lying> {
        let one = Lying {
            part,
            turned: false,
            w: self.w,
            h: self.h,
        };
        let other = Lying {
            turned: true,
            w: self.h,
            h: self.w,
            ..one
        };
        let both = self.turns && self.w != self.h;
        std::iter::once(one).chain(both.then_some(other))
    }
}

#[derive(Debug, Clone)]
pub(super) struct Laid {
    pub stock: usize,
    pub tree: Rc<Tree>,
}

/// A layout that holds every part.
#[derive(Debug, Clone)]
pub(super) struct Layout {
    pub sheets: Vec<Laid>,
    pub cost: i64,
}

/// A place for a part, and what it wastes there.
struct Placing {
    waste: Waste,
    /// On which of the sheets.
    sheet: usize,
    spot: Spot,
    lying: Lying,
}

/// What is asked: the stock, the parts, and which kinds of stock may be taken.
pub(super) struct CuttingTask<'a> {
    pub stock: &'a [Stock],
    pub pieces: &'a [Piece],
    pub narrowest: Pm,
}

/// When to stop before the steps are done.
pub(super) trait Patience {
    fn is_out(&mut self) -> bool;
}

/// A search that goes on.
pub(super) struct Run {
    pub best: Layout,
    state: State,
    round: u32,
    /// How far it is in that round.
    at: u64,
    /// Whether its sheets are given for this round.
    is_given: bool,
}

/// How far a search has come.
struct State {
    sheets: Vec<Laid>,
    cost: i64,
    left: Vec<u32>,
    left_area: i128,
}

impl State {
    fn of(layout: &Layout) -> Self {
        Self {
            sheets: layout.sheets.clone(),
            cost: layout.cost,
            left: Vec::new(),
            left_area: 0,
        }
    }
}

pub(super) struct Search<'a> {
    pub(super) asked: &'a CuttingTask<'a>,
    /// Which kinds of stock may be taken.
    pub(super) kinds: &'a [usize],
    pub(super) rng: fastrand::Rng,
    /// Of all parts, so that a temperature has something to go by.
    pub(super) mean: f64,
}

/// How many parts are taken out at a time, on average.
const TAKEN: f64 = 8.0;
/// A place that would do is passed over so often.
const PASSED_OVER: f64 = 0.005;
/// A step takes whole sheets away so often, where they are few; less often, the more there are.
const WHOLE: f64 = 0.3;
const LEAST_WHOLE: f64 = 0.02;
/// What is taken out comes from one sheet, from another after a part so often.
const HOP: f64 = 0.2;
/// Larger parts go first, give or take this share of their area.
const ORDER: f64 = 0.4;
/// How many average parts more may be left over for a while, at first.
const HEAT: f64 = 0.2;
/// Of all ways to spend what may be spent, one of so many that give most room is taken.
const WAYS: usize = 3;
/// No more sheets than this are opened in one step.
const OPENED: usize = 8;
/// How many steps the first round of a run has.
const FIRST_ROUND: u64 = 32;
/// Each round has twice the steps of the one before it, until they have doubled eight times.
const DOUBLINGS: u32 = 8;
/// A job of at most this many parts is also tried on sheets that are given from the start.
const FEW_PARTS: usize = 40;
/// How many average parts more may be left over for a while on given sheets, at first.
const HEAT_GIVEN: f64 = 0.1;
/// The most sheets in one set of given sheets.
const MOST_HELD: usize = 12;
/// The most sets of given sheets that are listed.
const MOST_SETS: usize = 400;

impl<'a> Search<'a> {
    pub(super) fn new(asked: &'a CuttingTask<'a>, kinds: &'a [usize], seed: u64) -> Self {
        let all: i128 = asked.pieces.iter().map(|piece| piece.area()).sum();
        Self {
            asked,
            kinds,
            rng: fastrand::Rng::with_seed(seed),
            mean: all as f64 / asked.pieces.len().max(1) as f64,
        }
    }

    pub(super) fn used_of(&self, sheets: &[Laid], kind: usize) -> usize {
        sheets.iter().filter(|laid| laid.stock == kind).count()
    }

    /// Puts a part in the best place there is; tells whether there was one.
    fn insert(&mut self, sheets: &mut [Laid], part: u32, blink: f64) -> bool {
        let piece = self.asked.pieces[part as usize];
        let mut best: Option<Placing> = None;
        for (at, laid) in sheets.iter().enumerate() {
            for spot in laid.tree.spots() {
                for lying in piece.ways(part) {
                    let Some(waste) = spot.waste(lying.w, lying.h, self.asked.narrowest) else {
                        continue;
                    };
                    if best.as_ref().is_some_and(|best| waste >= best.waste) {
                        continue;
                    }
                    if blink > 0.0 && self.rng.f64() < blink {
                        continue;
                    }
                    best = Some(Placing {
                        waste,
                        sheet: at,
                        spot: *spot,
                        lying,
                    });
                }
            }
        }
        let Some(best) = best else {
            return false;
        };
        Rc::make_mut(&mut sheets[best.sheet].tree).put(best.spot, best.lying);
        true
    }

    /// Opens a sheet for a part, of what may be spent; tells whether one could be.
    fn open(&mut self, state: &mut State, part: u32, most: i64) -> bool {
        let piece = self.asked.pieces[part as usize];
        let fits: Vec<usize> = self
            .kinds
            .iter()
            .copied()
            .filter(|&kind| {
                let stock = self.asked.stock[kind];
                piece
                    .ways(part)
                    .any(|lying| lying.w <= stock.w && lying.h <= stock.h)
                    && state.cost + stock.price <= most
                    && self.used_of(&state.sheets, kind) < stock.count as usize
            })
            .collect();
        if fits.is_empty() {
            return false;
        }
        let kind = fits[self.rng.usize(0..fits.len())];
        let stock = self.asked.stock[kind];
        state.cost += stock.price;
        state.sheets.push(Laid {
            stock: kind,
            tree: Rc::new(Tree::new(stock.w, stock.h, self.asked.narrowest)),
        });
        let last = state.sheets.len() - 1;
        self.insert(&mut state.sheets[last..], part, 0.0)
    }

    /// Opens sheets for what may be spent: of all ways to spend it one of those that give most room.
    fn refill(&mut self, state: &mut State, most: i64) {
        let mut ways: Vec<(i128, Vec<usize>)> = Vec::new();
        let mut now = Vec::new();
        self.spend(&state.sheets, most - state.cost, 0, 0, &mut now, &mut ways);
        ways.sort_by_key(|(room, _)| std::cmp::Reverse(*room));
        ways.truncate(WAYS);
        if ways.is_empty() {
            return;
        }
        let (_, kinds) = ways.swap_remove(self.rng.usize(0..ways.len()));
        for kind in kinds {
            let stock = self.asked.stock[kind];
            state.cost += stock.price;
            state.sheets.push(Laid {
                stock: kind,
                tree: Rc::new(Tree::new(stock.w, stock.h, self.asked.narrowest)),
            });
        }
    }

    fn spend(
        &self,
        there: &[Laid],
        budget: i64,
        from: usize,
        room: i128,
        now: &mut Vec<usize>,
        ways: &mut Vec<(i128, Vec<usize>)>,
    ) {
        let mut more = false;
        if now.len() < OPENED {
            for (place, &kind) in self.kinds.iter().enumerate().skip(from) {
                let stock = self.asked.stock[kind];
                let used =
                    self.used_of(there, kind) + now.iter().filter(|one| **one == kind).count();
                if stock.price <= budget && used < stock.count as usize {
                    more = true;
                    now.push(kind);
                    let area = i128::from(stock.w) * i128::from(stock.h);
                    self.spend(there, budget - stock.price, place, room + area, now, ways);
                    now.pop();
                }
            }
        }
        if !more && !now.is_empty() {
            ways.push((room, now.clone()));
        }
    }

    /// Puts together what is left, the larger first as a rule.
    fn recreate(&mut self, state: &mut State, most: i64, blink: f64) {
        let pieces = self.asked.pieces;
        let mut order: Vec<(f64, u32)> = std::mem::take(&mut state.left)
            .into_iter()
            .map(|part| {
                let area = pieces[part as usize].area() as f64;
                let noise = 1.0 + ORDER * (self.rng.f64() - 0.5);
                (-area * noise, part)
            })
            .collect();
        order.sort_by(|one, other| one.0.total_cmp(&other.0).then(one.1.cmp(&other.1)));
        state.left_area = 0;
        for (_, part) in order {
            if self.insert(&mut state.sheets, part, blink) || self.open(state, part, most) {
                continue;
            }
            state.left_area += pieces[part as usize].area();
            state.left.push(part);
        }
    }

    /// Begins to make a layout cheaper.
    pub(super) fn run(&self, best: Layout) -> Run {
        Run {
            state: State::of(&best),
            best,
            round: 0,
            at: 0,
            is_given: false,
        }
    }

    /// Takes one step of a run: some parts or sheets are taken out and put together again, for less than the best so far.
    ///
    /// A run goes in rounds, each twice as long as the one before, from hot to cold; so its first steps are the same
    /// however many follow.
    pub(super) fn step(&mut self, run: &mut Run) {
        let length = FIRST_ROUND << run.round.min(DOUBLINGS);
        if run.at == length {
            run.round += 1;
            run.at = 0;
        }
        if run.at == 0 {
            self.begin_round(run);
        }
        let cold = 1.0 - run.at as f64 / length as f64;
        run.at += 1;
        let most = run.best.cost - 1;
        let state = &mut run.state;
        // What costs too much gives sheets up.
        let must = state.cost > most;
        let (cost, left, left_area) = (state.cost, state.left.clone(), state.left_area);
        let often = (WHOLE / state.sheets.len() as f64).max(LEAST_WHOLE);
        let whole = must || (!run.is_given && self.rng.f64() < often);
        let before = state.sheets.clone();
        let mut taken = Vec::new();
        if whole {
            self.take_sheets(state, most, &mut taken);
        } else {
            self.take_parts(state, &mut taken);
        }
        state.left.append(&mut taken);
        // Given sheets stay, and no other is opened.
        let spent = if run.is_given { i64::MIN } else { most };
        self.recreate(state, spent, PASSED_OVER);
        if !run.is_given {
            self.give_back(state);
        }
        if state.left.is_empty() && state.cost <= most {
            self.give_back(state);
            run.best = Layout {
                sheets: state.sheets.clone(),
                cost: state.cost,
            };
            // What is cheaper is looked for among other sheets.
            if std::mem::take(&mut run.is_given) {
                run.at = length;
            }
            return;
        }
        let heat = self.mean * cold * if run.is_given { HEAT_GIVEN } else { HEAT };
        let worse = (state.left_area - left_area) as f64;
        let bar = heat * -(1.0 - self.rng.f64()).ln() * 0.5;
        if !must && worse > bar {
            state.sheets = before;
            state.cost = cost;
            state.left = left;
            state.left_area = left_area;
        }
    }

    /// Begins a round from the best layout so far. In a job of few parts, every second round begins from empty sheets instead: a set
    /// that costs less than the best layout, the dearest such set in the first of these rounds, a cheaper one in each after it.
    fn begin_round(&mut self, run: &mut Run) {
        run.is_given = false;
        if self.asked.pieces.len() <= FEW_PARTS && run.round % 2 == 1 {
            let mut ways = Vec::new();
            let area = self.asked.pieces.iter().map(|piece| piece.area()).sum();
            self.holding(run.best.cost - 1, area, 0, &mut Vec::new(), &mut ways);
            ways.sort_by_key(|(cost, _)| std::cmp::Reverse(*cost));
            if !ways.is_empty() {
                let (cost, kinds) =
                    ways.swap_remove(usize::try_from(run.round / 2).unwrap_or(0) % ways.len());
                let all = u32::try_from(self.asked.pieces.len()).unwrap_or(u32::MAX);
                run.state = State {
                    sheets: kinds.into_iter().map(|kind| self.empty(kind)).collect(),
                    cost,
                    left: (0..all).collect(),
                    left_area: 0,
                };
                run.is_given = true;
                self.recreate(&mut run.state, i64::MIN, 0.0);
                return;
            }
        }
        if run.round > 0 {
            run.state = State::of(&run.best);
        }
    }

    fn empty(&self, kind: usize) -> Laid {
        let stock = self.asked.stock[kind];
        Laid {
            stock: kind,
            tree: Rc::new(Tree::new(stock.w, stock.h, self.asked.narrowest)),
        }
    }

    /// Gives sheets back that hold nothing.
    fn give_back(&self, state: &mut State) {
        let stock = self.asked.stock;
        let mut given_back = 0;
        state.sheets.retain(|laid| {
            let empty = laid.tree.is_empty();
            given_back += if empty { stock[laid.stock].price } else { 0 };
            !empty
        });
        state.cost -= given_back;
    }

    /// Every set of sheets for what may be spent that has room for an area, and has it no more without one of them.
    fn holding(
        &self,
        budget: i64,
        area: i128,
        from: usize,
        now: &mut Vec<usize>,
        ways: &mut Vec<(i64, Vec<usize>)>,
    ) {
        if area <= 0 {
            let cost = now.iter().map(|kind| self.asked.stock[*kind].price).sum();
            ways.push((cost, now.clone()));
            return;
        }
        if now.len() == MOST_HELD || ways.len() == MOST_SETS {
            return;
        }
        for (place, &kind) in self.kinds.iter().enumerate().skip(from) {
            let stock = self.asked.stock[kind];
            let used = now.iter().filter(|one| **one == kind).count();
            if stock.price <= budget && used < stock.count as usize {
                now.push(kind);
                let room = i128::from(stock.w) * i128::from(stock.h);
                self.holding(budget - stock.price, area - room, place, now, ways);
                now.pop();
            }
        }
    }

    /// Takes away a sheet or two that hold little, and as many as cost too much; opens others for what may be spent.
    fn take_sheets(&mut self, state: &mut State, most: i64, taken: &mut Vec<u32>) {
        let mut drop = 1 + usize::from(self.rng.bool());
        while (drop > 0 || state.cost > most) && !state.sheets.is_empty() {
            let at = self.poorest(&state.sheets);
            let mut laid = state.sheets.swap_remove(at);
            state.cost -= self.asked.stock[laid.stock].price;
            while laid.tree.nodes() > 0 {
                Rc::make_mut(&mut laid.tree).take(0, taken);
            }
            drop = drop.saturating_sub(1);
        }
        self.refill(state, most);
    }

    /// Takes some parts out, of one sheet as a rule.
    fn take_parts(&mut self, state: &mut State, taken: &mut Vec<u32>) {
        #[allow(
            clippy::cast_possible_truncation,
            clippy::cast_sign_loss,
            reason = "a small number over nothing"
        )]
        let wanted = 1 + (-(1.0 - self.rng.f64()).ln() * TAKEN) as usize;
        let mut on = self.rng.usize(0..state.sheets.len());
        while taken.len() < wanted && state.sheets.iter().any(|laid| !laid.tree.is_empty()) {
            if state.sheets[on].tree.is_empty() || self.rng.f64() < HOP {
                on = self.rng.usize(0..state.sheets.len());
            }
            let tree = Rc::make_mut(&mut state.sheets[on].tree);
            if tree.nodes() > 0 {
                let node = self.rng.usize(0..tree.nodes());
                tree.take(node, taken);
            }
        }
    }

    /// One of the sheets that hold least, for their size.
    fn poorest(&mut self, sheets: &[Laid]) -> usize {
        let fill = |laid: &Laid| {
            let stock = self.asked.stock[laid.stock];
            laid.tree.used() as f64 / (stock.w as f64 * stock.h as f64)
        };
        let mut best = self.rng.usize(0..sheets.len());
        for _ in 0..2 {
            let other = self.rng.usize(0..sheets.len());
            if fill(&sheets[other]) < fill(&sheets[best]) {
                best = other;
            }
        }
        best
    }
}

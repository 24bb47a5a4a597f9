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

/// How far a search has come.
struct State {
    sheets: Vec<Laid>,
    cost: i64,
    left: Vec<u32>,
    left_area: i128,
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

    /// Makes a layout cheaper, by so many steps.
    pub(super) fn improve(
        &mut self,
        mut best: Layout,
        steps: u64,
        least: i64,
        patience: &mut dyn Patience,
    ) -> Layout {
        let mut state = State {
            sheets: best.sheets.clone(),
            cost: best.cost,
            left: Vec::new(),
            left_area: 0,
        };
        let mut taken = Vec::new();
        for step in 0..steps {
            if best.cost <= least || patience.is_out() {
                break;
            }
            let most = best.cost - 1;
            // What costs too much gives sheets up.
            let must = state.cost > most;
            let (cost, left, left_area) = (state.cost, state.left.clone(), state.left_area);
            let often = (WHOLE / state.sheets.len() as f64).max(LEAST_WHOLE);
            let whole = must || self.rng.f64() < often;
            let before = state.sheets.clone();
            if whole {
                self.take_sheets(&mut state, most, &mut taken);
            } else {
                self.take_parts(&mut state, &mut taken);
            }
            state.left.append(&mut taken);
            self.recreate(&mut state, most, PASSED_OVER);
            // Sheets that hold nothing are given back.
            let stock = self.asked.stock;
            let mut given_back = 0;
            state.sheets.retain(|laid| {
                let empty = laid.tree.is_empty();
                given_back += if empty { stock[laid.stock].price } else { 0 };
                !empty
            });
            state.cost -= given_back;
            if state.left.is_empty() && state.cost <= most {
                best = Layout {
                    sheets: state.sheets.clone(),
                    cost: state.cost,
                };
                continue;
            }
            let heat = HEAT * self.mean * (1.0 - step as f64 / steps as f64);
            let worse = (state.left_area - left_area) as f64;
            let bar = heat * -(1.0 - self.rng.f64()).ln() * 0.5;
            if !must && worse > bar {
                state.sheets = before;
                state.cost = cost;
                state.left = left;
                state.left_area = left_area;
            }
        }
        best
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

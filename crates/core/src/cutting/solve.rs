//! The cheapest layout that is found: over every choice of the kinds of sheets, none worse than plain shelves.

use std::collections::BTreeMap;

use super::{
    bound::lower_bound,
    search::{CuttingTask, Laid, Layout, Patience, Run, Search},
    shelves::on_shelves,
};

/// Every choice of so many kinds is tried; of more, each alone and all together.
const EVERY_CHOICE: usize = 4;
/// The first layout of a choice is the best of several, the fewer the more parts there are.
const TRIED_PARTS: usize = 1000;
const MOST_TRIES: usize = 4;
/// How many steps a run of one kind of sheets takes in its turn, before the next run has its own.
const TURN: u64 = 8;
/// Each kind of sheets beyond the first doubles the steps of a choice, three times at most.
const MOST_DOUBLED: usize = 3;

/// What was found.
pub(super) struct Found {
    pub sheets: Vec<Laid>,
    pub cost: i64,
    pub bound: i64,
    pub stopped_early: bool,
}

/// Tells whether it was stopped, and remembers it.
struct Watched<'a>(&'a mut dyn Patience, bool);

impl Patience for Watched<'_> {
    fn is_out(&mut self) -> bool {
        self.1 = self.1 || self.0.is_out();
        self.1
    }
}

/// Returns the cheapest layout that is found in so many steps for each choice of sheets; `None` if no layout was found
/// that holds every part.
///
/// Each choice begins with the best of its own first layout and those of its kinds alone, and then goes on by itself: so one kind more
/// never costs more, nor do more steps, of which fewer are only the first. They take turns, so that time, where it is what ends the
/// search, is shared, and a choice of one kind more has twice as much of it.
pub(super) fn solve(
    asked: &CuttingTask<'_>,
    seed: u64,
    steps: u64,
    patience: &mut dyn Patience,
) -> Option<Found> {
    let kinds: Vec<usize> = (0..asked.stock.len()).collect();
    let bound = lower_bound(asked);
    let mut patience = Watched(patience, false);
    let chosen: Vec<(u32, Vec<usize>)> = choices(kinds.len())
        .into_iter()
        .map(|choice| {
            let some = kinds.iter().copied();
            (
                choice,
                some.filter(|kind| choice & (1 << kind) != 0).collect(),
            )
        })
        .collect();
    let tries = (TRIED_PARTS / asked.pieces.len().max(1)).clamp(1, MOST_TRIES);
    let mut first: BTreeMap<u32, Layout> = BTreeMap::new();
    let mut runs = Vec::new();
    for (choice, some) in &chosen {
        let known = match some[..] {
            [kind] => on_shelves(asked, kind),
            _ => {
                let alone = some.iter().filter_map(|kind| first.get(&(1 << kind)));
                alone.min_by_key(|one| rank(one)).cloned()
            }
        };
        let mut search = Search::new(asked, some, seed);
        let filled = if patience.is_out() && known.is_some() {
            None
        } else {
            search.first(tries, &mut patience)
        };
        let begun = known.into_iter().chain(filled).min_by_key(rank);
        let Some(begun) = begun else { continue };
        first.insert(*choice, begun.clone());
        let run = search.run(begun);
        runs.push(Turns {
            share: 1 << (some.len() - 1).min(MOST_DOUBLED),
            done: 0,
            search,
            run,
        });
    }
    let left = |turns: &Turns<'_>| turns.done < steps * turns.share && turns.run.best.cost > bound;
    while let Some(turns) = runs
        .iter_mut()
        .filter(|turns| left(turns))
        .min_by_key(|turns| turns.done / turns.share)
    {
        if patience.is_out() {
            break;
        }
        for _ in 0..(TURN * turns.share).min(steps * turns.share - turns.done) {
            if turns.run.best.cost <= bound || patience.is_out() {
                break;
            }
            turns.search.step(&mut turns.run);
            turns.done += 1;
        }
    }
    let stopped_early = patience.1;
    let found = runs.into_iter().map(|turns| turns.run.best);
    let Layout { sheets, cost } = found.min_by_key(rank)?;
    Some(Found {
        sheets,
        cost,
        bound,
        stopped_early,
    })
}

/// A run and its turns.
struct Turns<'a> {
    search: Search<'a>,
    run: Run,
    done: u64,
    share: u64,
}

/// Money first, then the fewest sheets.
fn rank(layout: &Layout) -> (i64, usize) {
    (layout.cost, layout.sheets.len())
}

/// The choices of kinds as bits: each kind alone, all together, then the others, those of fewer kinds first.
fn choices(kinds: usize) -> Vec<u32> {
    let all = (1_u32 << kinds) - 1;
    if kinds > EVERY_CHOICE {
        return (0..kinds).map(|kind| 1 << kind).chain([all]).collect();
    }
    let mut every: Vec<u32> = (1..=all).collect();
    every.sort_by_key(|choice| {
        let ones = choice.count_ones();
        let place = if *choice == all { 1 } else { ones };
        (place, ones, *choice)
    });
    every
}

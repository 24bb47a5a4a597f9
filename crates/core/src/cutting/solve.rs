//! The cheapest layout that is found: over every choice of the kinds of sheets, none worse than plain shelves.

use std::collections::BTreeMap;

use super::{
    bound::lower_bound,
    search::{CuttingTask, Laid, Layout, Patience, Search},
    shelves::on_shelves,
};

/// Every choice of so many kinds is tried; of more, each alone and all together.
const EVERY_CHOICE: usize = 4;
/// A sheet is filled once more for so many steps, and no oftener than this.
const STEPS_A_TRY: u64 = 12;
const MOST_TRIES: usize = 24;

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
/// Each choice begins with the best of the choices that leave out one of its kinds, so that one kind more never costs more.
pub(super) fn solve(
    asked: &CuttingTask<'_>,
    seed: u64,
    steps: u64,
    patience: &mut dyn Patience,
) -> Option<Found> {
    let kinds: Vec<usize> = (0..asked.stock.len()).collect();
    let bound = lower_bound(asked);
    let mut patience = Watched(patience, false);
    let mut best: BTreeMap<u32, Layout> = BTreeMap::new();
    for choice in choices(kinds.len()) {
        let some: Vec<usize> = kinds
            .iter()
            .copied()
            .filter(|kind| choice & (1 << kind) != 0)
            .collect();
        let subset = some
            .iter()
            .filter_map(|kind| best.get(&(choice & !(1 << kind))));
        let alone = (some.len() != 1 && kinds.len() > EVERY_CHOICE)
            .then(|| best.values())
            .into_iter()
            .flatten();
        let mut known: Option<Layout> = subset.chain(alone).min_by_key(|one| rank(one)).cloned();
        if some.len() == 1 {
            known = on_shelves(asked, some[0]);
        }
        let tries = usize::try_from(steps / STEPS_A_TRY)
            .map_or(MOST_TRIES, |tries| tries.clamp(1, MOST_TRIES));
        let mut search = Search::new(asked, &some, seed);
        let first = if patience.is_out() && known.is_some() {
            None
        } else {
            search.first(tries, &mut patience)
        };
        let begun = known.into_iter().chain(first).min_by_key(rank);
        let Some(begun) = begun else { continue };
        let found = search.improve(begun, steps, bound, &mut patience);
        best.insert(choice, found);
    }
    let stopped_early = patience.1;
    let Layout { sheets, cost } = best.into_values().min_by_key(rank)?;
    Some(Found {
        sheets,
        cost,
        bound,
        stopped_early,
    })
}

/// Money first, then the fewest sheets.
fn rank(layout: &Layout) -> (i64, usize) {
    (layout.cost, layout.sheets.len())
}

/// The choices of kinds as bits, those of fewer kinds first.
fn choices(kinds: usize) -> Vec<u32> {
    let all = (1_u32 << kinds) - 1;
    if kinds > EVERY_CHOICE {
        return (0..kinds).map(|kind| 1 << kind).chain([all]).collect();
    }
    let mut every: Vec<u32> = (1..=all).collect();
    every.sort_by_key(|choice| (choice.count_ones(), *choice));
    every
}

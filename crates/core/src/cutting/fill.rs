//! A first layout: sheet after sheet is filled from what is left, the best match after the other.

use std::rc::Rc;

use super::{
    search::{Laid, Layout, Patience, Piece, Search, Stock},
    tree::{Lying, Spot, Tree},
};

/// A larger part is taken before a smaller one that leaves a little less waste.
const FOR_SIZE: f64 = 0.5;
/// How far the order of what fits about as well is left to chance, after the first try.
const CHANCE: f64 = 0.1;
/// How many parts of about a size are looked at for a place.
const NEAR: usize = 6;
/// The first part of a sheet is one of so many of the largest.
const OF_THE_LARGEST: usize = 6;
/// While fewer are left than this, the largest is.
const FEW: usize = 12;

impl Search<'_> {
    /// A first layout: sheet after sheet is filled from what is left, the fullest for its price first.
    pub(super) fn first(&mut self, tries: usize, patience: &mut dyn Patience) -> Option<Layout> {
        let mut pool = Pool::new(self.asked.pieces, self.mean);
        let mut sheets: Vec<Laid> = Vec::new();
        let mut cost = 0;
        while pool.left > 0 {
            let mut best: Option<(f64, Laid, Vec<u32>)> = None;
            for &kind in self.kinds {
                let stock = self.asked.stock[kind];
                if self.used_of(&sheets, kind) >= stock.count as usize {
                    continue;
                }
                for attempt in 0..tries {
                    if attempt > 0 && patience.is_out() {
                        break;
                    }
                    let noise = if attempt == 0 { 0.0 } else { 1.0 };
                    let (tree, taken) = self.fill(stock, &mut pool, noise);
                    for &part in &taken {
                        pool.alive[part as usize] = true;
                    }
                    pool.left += taken.len();
                    if taken.is_empty() {
                        break;
                    }
                    let fill = tree.used() as f64 / (stock.price as f64).max(0.5);
                    if best.as_ref().is_none_or(|(most, ..)| fill > *most) {
                        let laid = Laid {
                            stock: kind,
                            tree: Rc::new(tree),
                        };
                        best = Some((fill, laid, taken));
                    }
                }
            }
            let (_, laid, taken) = best?;
            cost += self.asked.stock[laid.stock].price;
            sheets.push(laid);
            for part in &taken {
                pool.alive[*part as usize] = false;
            }
            pool.left -= taken.len();
            pool.forget_taken();
        }
        Some(Layout { sheets, cost })
    }

    /// Fills one sheet from what is left, the best match after the other; takes those parts out of it.
    fn fill(&mut self, stock: Stock, pool: &mut Pool, noise: f64) -> (Tree, Vec<u32>) {
        let narrowest = self.asked.narrowest;
        let mut tree = Tree::new(stock.w, stock.h, narrowest);
        let mut taken = Vec::new();
        // The first is one of the largest.
        let mut skip = if noise > 0.0 {
            self.rng.usize(0..OF_THE_LARGEST)
        } else {
            0
        };
        for &part in &pool.by_area {
            if !pool.alive[part as usize] {
                continue;
            }
            let piece = self.asked.pieces[part as usize];
            let lying = piece
                .ways(part)
                .find(|lying| lying.w <= stock.w && lying.h <= stock.h);
            let Some(lying) = lying else { continue };
            if skip > 0 && pool.left > FEW {
                skip -= 1;
                continue;
            }
            let lying = piece
                .ways(part)
                .filter(|lying| lying.w <= stock.w && lying.h <= stock.h)
                .last()
                .filter(|_| self.rng.bool())
                .unwrap_or(lying);
            let spot = tree.spots()[0];
            tree.put(spot, lying);
            pool.take(part);
            taken.push(part);
            break;
        }
        if taken.is_empty() {
            return (tree, taken);
        }
        loop {
            let mut best: Option<(f64, Spot, Lying)> = None;
            for spot in tree.spots() {
                let mut judge = |lying: Lying| {
                    let Some(waste) = spot.waste(lying.w, lying.h, narrowest) else {
                        return false;
                    };
                    let area = lying.w as f64 * lying.h as f64;
                    let chance = if noise > 0.0 {
                        noise * CHANCE * self.rng.f64()
                    } else {
                        0.0
                    };
                    let rated = waste / area - pool.for_size[lying.part as usize] + chance;
                    if best.as_ref().is_none_or(|(least, ..)| rated < *least) {
                        best = Some((rated, *spot, lying));
                    }
                    true
                };
                pool.near(spot, &mut judge);
            }
            let Some((_, spot, lying)) = best else { break };
            tree.put(spot, lying);
            pool.take(lying.part);
            taken.push(lying.part);
        }
        (tree, taken)
    }
}

/// Parts that are left, sorted so that those of about a size are found.
struct Pool {
    alive: Vec<bool>,
    left: usize,
    by_area: Vec<u32>,
    /// Every part, in each way that it may lie, the highest first.
    by_h: Vec<Lying>,
    by_w: Vec<Lying>,
    /// What a part's size is worth, against waste.
    for_size: Vec<f64>,
}

impl Pool {
    fn new(pieces: &[Piece], mean: f64) -> Self {
        let index = |part: usize| u32::try_from(part).expect("parts are counted");
        let mut by_area: Vec<u32> = (0..pieces.len()).map(index).collect();
        by_area.sort_by_key(|part| std::cmp::Reverse(pieces[*part as usize].area()));
        let mut by_h: Vec<Lying> = pieces
            .iter()
            .enumerate()
            .flat_map(|(part, piece)| piece.ways(index(part)))
            .collect();
        let mut by_w = by_h.clone();
        by_h.sort_by_key(|lying| std::cmp::Reverse(lying.h));
        by_w.sort_by_key(|lying| std::cmp::Reverse(lying.w));
        Self {
            alive: vec![true; pieces.len()],
            left: pieces.len(),
            by_area,
            by_h,
            by_w,
            for_size: pieces
                .iter()
                .map(|piece| FOR_SIZE * (piece.area() as f64 / mean).sqrt())
                .collect(),
        }
    }

    fn take(&mut self, part: u32) {
        self.alive[part as usize] = false;
        self.left -= 1;
    }

    /// Looks no more at what lies on a sheet for good.
    fn forget_taken(&mut self) {
        let alive = &self.alive;
        self.by_h.retain(|lying| alive[lying.part as usize]);
        self.by_w.retain(|lying| alive[lying.part as usize]);
        self.by_area.retain(|part| alive[*part as usize]);
    }

    /// Shows parts that fill a place about as high, or as wide, as it is.
    fn near(&self, spot: &Spot, judge: &mut impl FnMut(Lying) -> bool) {
        let mut from = |sorted: &[Lying], at: usize| {
            let mut fitted = 0;
            for lying in &sorted[at..] {
                if !self.alive[lying.part as usize] {
                    continue;
                }
                if judge(*lying) {
                    fitted += 1;
                    if fitted >= NEAR {
                        break;
                    }
                }
            }
        };
        from(
            &self.by_h,
            self.by_h.partition_point(|lying| lying.h > spot.h),
        );
        from(
            &self.by_w,
            self.by_w.partition_point(|lying| lying.w > spot.w),
        );
        match spot.level() {
            Ok(h) => from(&self.by_h, self.by_h.partition_point(|lying| lying.h > h)),
            Err(w) => from(&self.by_w, self.by_w.partition_point(|lying| lying.w > w)),
        }
    }
}
